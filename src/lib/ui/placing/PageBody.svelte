<!-- A page of the site by its layout: one component for the site and for the preview. -->
<script lang="ts">
	import type { SeenPage } from '$lib/server/placing/page-view';
	import Catalogue from './Catalogue.svelte';
	import Content from './Content.svelte';
	import Pocket from './Pocket.svelte';
	let { page, reading = null, query = '' }: { page: SeenPage; /** The document read beside a list. */ reading?: string | null; query?: string } = $props();
</script>

{#if page.body.layout === 'article'}
	<article class="prose-page">
		<h1>{page.title}</h1>
		<Content nodes={page.body.content.content ?? []} placements={page.body.placements} lists={{ seen: page.body.lists, reading, query }} />
	</article>
{:else if page.body.layout === 'catalogue'}
	<Catalogue title={page.title} lead={page.body.lead} list={page.body.list} {reading} {query} />
{:else}
	<Pocket title={page.title} lead={page.body.lead} entries={page.body.entries} address={page.body.address} qr={page.body.qr} />
{/if}
<svelte:head><script src="/reading-over.js" defer></script><script src="/shown.js" defer></script></svelte:head>

<style>
	h1 {
		font-size: clamp(26px, 5vw, 36px);
	}
	article {
		max-width: 720px;
	}
</style>
