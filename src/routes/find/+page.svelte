<!-- Find over the site: pages, then documents with the words in a line and the pages on which they stand. -->
<script lang="ts">
	import { directionOf } from '#core/words/words';
	import { words } from '$lib/ui/parts/words';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import FoundLine from '$lib/ui/placing/FoundLine.svelte';
	import ListBody from '$lib/ui/placing/ListBody.svelte';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data } = $props();
	const nothing = $derived(data.q !== '' && !data.list.total && !data.list.announced.length && !data.pages.length);
</script>

<svelte:head><title>{data.q ? `${data.q}: ` : ''}{words('findHead')}, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<SiteFrame site={data.site} me={data.me} title={words(data.q ? 'findHead' : 'allDocuments')} lead={words('findHint')}>
	{#if nothing}
		<div class="none" role="status">
			<h2>{words('nothingWith', { words: data.q })}</h2>
			<p>{words('nothingWithTry')} <a href="/find">{words('showAll')}</a></p>
		</div>
	{/if}
	{#if data.pages.length}
		<section aria-labelledby="found-pages">
			<h2 id="found-pages">{words('foundPages', { count: data.pages.length })}</h2>
			<ul>
				{#each data.pages as page (page.path)}
					<li class="listed" lang={page.language ?? undefined} dir={page.language ? directionOf(page.language) : undefined}>
						<h3><a href={page.path}>{page.title}</a></h3>
						{#if page.kept}<p class="kept"><DoorMark position="keyed" height={20} />{page.kept}</p>{/if}
						{#if page.stretches.length}<FoundLine stretches={page.stretches} />{/if}
					</li>
				{/each}
			</ul>
		</section>
	{/if}
	<ListBody seen={data.list} reading={null} query={data.query} />
</SiteFrame>

<style>
	h2 {
		font-size: 21px;
	}
	.none {
		margin-bottom: 28px;
		padding: 14px 18px;
		border-inline-start: 4px solid var(--brass-bright);
		background: var(--stone);
	}
	.none h2 {
		overflow-wrap: anywhere;
	}
	section {
		margin-bottom: 30px;
	}
	ul {
		margin-top: 10px;
		padding: 0;
		list-style: none;
		border-top: 3px solid var(--ledge);
	}
	li {
		padding: 12px 0;
		border-bottom: 1px solid var(--line);
	}
	h3 {
		font-size: 19px;
	}
	.kept {
		display: flex;
		gap: 8px;
		align-items: center;
		color: var(--ink-soft);
	}
	li:hover h3 a {
		text-decoration-color: currentColor;
	}
</style>
