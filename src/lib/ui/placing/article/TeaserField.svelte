<!-- Asks for the page to which a teaser leads. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import type { Article } from './article.svelte';
	import FindField, { type Candidate } from './FindField.svelte';

	let { article, close, back }: { article: Article; close: () => void; back: () => void } = $props();
	let word = $state('');
	onMount(() => article.knowPages());
	const candidates = $derived<Candidate[]>(
		article
			.pagesCalled(word)
			.filter((p) => p.path !== article.given.writer.path)
			.slice(0, 8)
			.map((p) => ({
				key: p.path,
				title: p.title,
				note: p.published ? p.path : 'not published',
				position: p.door.position,
				choose: () => void article.tease(p.path)
			}))
	);
</script>

<FindField
	title="Teaser"
	label="Page to which it leads"
	placeholder="A page of the site"
	none="No page is called that."
	bind:word
	{candidates}
	find={() => {}}
	{close}
	{back}
/>
