<script lang="ts">
	import { page as address } from '$app/state';
	import PageBody from '$lib/ui/placing/PageBody.svelte';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	import DocumentList from '$lib/ui/documents/DocumentList.svelte';
	let { data } = $props();
	const canonical = $derived(address.url.origin + (data.page?.path ?? '/'));
	const searchable = $derived(data.page?.standing.indexable ?? false);
</script>

<svelte:head>
	<title>{data.page && data.page.path !== '/' ? `${data.page.title}, ${data.site.name}` : data.site.name}</title>
	{#if data.page}
		<link rel="canonical" href={canonical} />
		{#if searchable}
			<meta property="og:title" content={data.page.title} />
			<meta property="og:type" content="website" />
			<meta property="og:url" content={canonical} />
			<meta property="og:site_name" content={data.site.name} />
			{#if data.page.body.layout === 'catalogue'}<link
					rel="alternate"
					type="application/atom+xml"
					title={data.page.title}
					href="{data.page.path === '/' ? '' : data.page.path}/feed.atom"
				/>{/if}
		{:else}<meta name="robots" content="noindex" />{/if}
	{/if}
</svelte:head>

<SiteFrame
	site={data.site}
	navigation={data.navigation}
	current={data.page?.path ?? '/'}
	me={data.me}
	desk={data.page ? { href: `/desk/pages/${data.page.id}`, words: 'Edit this page' } : undefined}
>
	{#if data.page}
		<PageBody page={data.page} reading={data.reading} query={data.query} />
	{:else}
		<h1>{data.site.name}</h1>
		{#if data.documents.length}<DocumentList documents={data.documents} />{:else}<p class="soft mt-3">
				There is nothing to read here yet{data.me ? '' : ', or you need to sign in to see it'}.
			</p>
			{#if !data.me}<p class="mt-4"><a class="btn" href="/sign-in">Sign in</a></p>{:else if data.me.staff}<p class="mt-4">
					<a class="btn main" href="/desk/documents">Bring in the first PDF</a> <a class="btn" href="/desk/pages">Write the first page</a>
				</p>{/if}{/if}
	{/if}
</SiteFrame>

<style>
	h1 {
		font-size: clamp(26px, 5vw, 36px);
	}
</style>
