<!-- One topic of the handbook: what it is good for, how it is done, what else is good to know. -->
<script lang="ts">
	import Named from '$lib/ui/help/Named.svelte';
	import { topicOf } from '$lib/ui/help/topics';
	import { Button } from '$lib/ui/parts/controls';

	let { data } = $props();
	const topic = $derived(data.topic);
	const beside = $derived((topic.beside ?? []).flatMap((slug) => topicOf(slug) ?? []));
</script>

<svelte:head><title>{topic.title}, handbook, {data.site.name}</title></svelte:head>
<article>
	<p><a class="quiet" href="/desk/help">Handbook</a></p>
	<h1>{topic.title}</h1>
	<p class="lead"><Named text={topic.lead} /></p>
	<ol>
		{#each topic.steps as step (step)}<li><Named text={step} /></li>{/each}
	</ol>
	{#if topic.notes?.length}
		<ul class="notes">
			{#each topic.notes as note (note)}<li><Named text={note} /></li>{/each}
		</ul>
	{/if}
	<p><Button kind="main" href={topic.at}>Go there</Button></p>
	{#if beside.length}
		<p class="soft">
			Beside it: {#each beside as other, i (other.slug)}{i ? ', ' : ''}<a href="/desk/help/{other.slug}">{other.title}</a>{/each}
		</p>
	{/if}
</article>

<style>
	article {
		max-width: 660px;
		padding: 16px 18px 60px;
		display: grid;
		gap: 12px;
	}
	.lead {
		font: 19px/1.45 var(--title);
	}
	ol {
		display: grid;
		gap: 10px;
		padding-left: 24px;
		list-style: decimal;
	}
	ol li::marker {
		font: 600 15px var(--title);
		color: var(--verdigris);
	}
	.notes {
		display: grid;
		gap: 6px;
		padding: 10px 14px;
		border-left: 3px solid var(--brass-bright);
		background: var(--brass-wash);
	}
</style>
