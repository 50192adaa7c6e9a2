<!-- The settings of the chosen document list: in a sentence what it lists, then how. -->
<script lang="ts">
	import { counted } from '#core/text/list';
	import type { KeptList } from '#core/placing/content';
	import { listingWords } from '#core/placing/listing';
	import { Button } from '$lib/ui/parts/controls';
	import ListFields from '../ListFields.svelte';
	import type { Article } from './article.svelte';
	let { article, list }: { article: Article; list: KeptList } = $props();
	const seen = $derived(article.lists.get(list.id));
	const titles = $derived(new Map([...article.documents].map(([slug, { title }]) => [slug, title])));
</script>

<h2>This list</h2>
<p class="said" role="status">
	{#if seen}<strong>{counted(seen.total, 'document', 'documents')}</strong> {listingWords(list)}.{:else}Documents {listingWords(list)}.{/if}
</p>
<!-- begun anew for another list -->
{#key list.id}<ListFields
		given={list}
		folders={article.given.folders}
		topics={article.given.topics}
		{titles}
		set={(change) => article.set(Object.fromEntries(Object.entries(change).map(([name, value]) => [name, value ?? null])))}
	/>{/key}
{#if seen}<p class="soft mt-4">
		Nobody meets a dead end in a list: each reader sees what they may open. A visitor sees {seen.visitors === seen.total
			? 'all of it'
			: `${seen.visitors} of the ${seen.total}`}.
	</p>{/if}
<p><Button class="mt-4" onclick={() => article.takeOut()}>Take out</Button></p>

<style>
	h2 {
		font-size: 18px;
	}
	.said {
		margin: 8px 0 4px;
		padding-left: 10px;
		border-left: 3px solid var(--brass-bright);
		font-family: var(--title);
	}
</style>
