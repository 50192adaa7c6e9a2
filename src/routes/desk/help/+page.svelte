<!-- The handbook: its topics, found by their words, and the words of the house. -->
<script lang="ts">
	import { page } from '$app/state';
	import { untrack } from 'svelte';
	import Named from '$lib/ui/help/Named.svelte';
	import { houseWords } from '$lib/ui/help/house-words';
	import { topicsFor } from '$lib/ui/help/topics';
	import { Input } from '$lib/ui/parts/controls';
	import { shortcutWords } from '$lib/ui/parts/shortcuts';

	let { data } = $props();
	let q = $state(untrack(() => page.url.searchParams.get('q') ?? ''));
	const shown = $derived(topicsFor(q));
	const words = $derived(houseWords.filter(([word, means]) => !q.trim() || `${word} ${means}`.toLowerCase().includes(q.trim().toLowerCase())));
</script>

<svelte:head><title>Handbook, {data.site.name}</title></svelte:head>
<div class="hall">
	<h1>Handbook</h1>
	<p class="soft">A page a job. Everything is called here as it is on the screen.</p>
	<form class="look" action="/desk/help" role="search" data-sveltekit-keepfocus>
		<Input type="search" name="q" bind:value={q} placeholder="What would you like to do?" aria-label="Find in the handbook" />
	</form>
	<p class="sr-only" role="status">{q.trim() ? `${shown.length} topics` : ''}</p>
	<ul class="topics">
		{#each shown as topic (topic.slug)}
			<li><a href="/desk/help/{topic.slug}">{topic.title}</a><span class="soft"><Named text={topic.lead} /></span></li>
		{:else}<li class="soft">No topic has all of these words. Try fewer of them.</li>{/each}
	</ul>
	{#if words.length}
		<h2 id="words">Words</h2>
		<dl class="words">
			{#each words as [word, means] (word)}<dt>{word}</dt>
				<dd>{means}</dd>{/each}
		</dl>
	{/if}
	{#if !q.trim()}
		<h2 id="keys">Shortcuts</h2>
		<dl class="words">
			{#each shortcutWords as [key, said] (key)}<dt><kbd>{key}</kbd></dt>
				<dd>{said}</dd>{/each}
		</dl>
	{/if}
</div>

<style>
	.hall {
		max-width: 860px;
		padding: 16px 18px 60px;
	}
	.look {
		margin: 14px 0 18px;
	}
	.look :global(.field) {
		width: min(100%, 420px);
	}
	.topics {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(100%, 380px), 1fr));
		gap: 2px 28px;
	}
	.topics li {
		display: grid;
		align-content: start;
		padding: 9px 0;
		border-top: 1px solid var(--line);
	}
	.topics a {
		font: 600 17px var(--title);
	}
	h2 {
		margin: 30px 0 8px;
	}
	.words {
		display: grid;
		grid-template-columns: 110px minmax(0, 1fr);
		gap: 5px 14px;
	}
	dt {
		font-weight: 600;
	}
	kbd {
		border: 1px solid var(--edge);
		border-radius: 2px;
		padding: 0 5px;
		font: 12px var(--body);
	}
</style>
