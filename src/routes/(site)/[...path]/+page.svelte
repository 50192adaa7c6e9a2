<script lang="ts">
	import { page as address } from '$app/state';
	import { openingOf } from '#core/placing/parts';
	import SitePage from '$lib/ui/placing/SitePage.svelte';
	import { words } from '$lib/ui/parts/words';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	import DocumentList from '$lib/ui/documents/DocumentList.svelte';
	let { data } = $props();
	const canonical = $derived(address.url.origin + (data.page?.path ?? '/'));
	const description = $derived(data.page ? openingOf(data.page.body) : '');
	const searchable = $derived(data.page?.standing.indexable ?? false);
</script>

<svelte:head>
	<title>{data.page && address.url.pathname !== '/' ? `${data.page.title}, ${data.site.name}` : data.site.name}</title>
	{#if data.page}
		<link rel="canonical" href={canonical} />
		{#if description}<meta name="description" content={description} />{/if}
		{#if searchable}
			<meta property="og:title" content={data.page.title} />
			{#if description}<meta property="og:description" content={description} />{/if}
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

{#if data.page}
	<SitePage
		site={data.site}
		page={data.page}
		front={address.url.pathname === '/'}
		current={data.page.path}
		me={data.me}
		desk={{ href: `/desk/pages/${data.page.id}`, words: 'Edit this page' }}
		reading={data.reading}
		query={data.query}
	/>
{:else}
	<SiteFrame site={data.site} me={data.me} title={data.site.name} front>
		{#if data.documents.length}<DocumentList documents={data.documents} />{:else}<p class="soft mt-3">{words('nothingListed')}</p>
			{#if !data.me}<p class="mt-4"><a class="btn" href="/sign-in">{words('signIn')}</a></p>{:else if data.me.staff}<p class="mt-4">
					<a class="btn main" href="/desk/documents">Bring in the first PDF</a> <a class="btn" href="/desk/pages">Write the first page</a>
				</p>{/if}{/if}
	</SiteFrame>
{/if}
