<!-- What can be wrong with a call of the API: each code with its status and its sentence. The type of every problem leads here. -->
<script lang="ts">
	import '$lib/ui/site.css';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data } = $props();
	/** The facts that fill a sentence, by their names. */
	const factsIn = (words: string) => [...words.matchAll(/\{(\w+)\}/g)].map((m) => m[1]);
</script>

<svelte:head><title>What can be wrong, API of {data.site.name}</title></svelte:head>
<SiteFrame
	site={data.site}
	me={data.me}
	title="What can be wrong"
	lead="Every refusal of the API is one of these: problem details (RFC 9457) with the code, its sentence, and the facts that fill it."
	spoken="en"
	narrow
>
	<div class="prose-page">
		<p><a href="/api/docs">Reference of the API</a></p>
		<dl>
			{#each data.problems as { code, status, words } (code)}
				<div id={code}>
					<dt><code>{code}</code> <span>{status}</span></dt>
					<dd>
						{words}
						{#if factsIn(words).length}<small>Facts: {factsIn(words).join(', ')}</small>{/if}
					</dd>
				</div>
			{/each}
		</dl>
	</div>
</SiteFrame>

<style>
	dl > div {
		padding: 0.7rem 0.8rem;
		border-top: 1px solid var(--line);
		scroll-margin-top: 1rem;
	}
	dl > div:target {
		background: var(--sunk);
	}
	dt {
		display: flex;
		justify-content: space-between;
		gap: 1rem;
		font-weight: 600;
	}
	dt code {
		overflow-wrap: anywhere;
	}
	dd {
		margin: 0.2rem 0 0;
	}
	small {
		display: block;
		color: var(--ink-soft);
	}
</style>
