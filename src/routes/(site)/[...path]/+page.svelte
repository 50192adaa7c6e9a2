<script lang="ts">
	import Content from '$lib/ui/placing/Content.svelte';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	import DocumentList from '$lib/ui/documents/DocumentList.svelte';
	let { data } = $props();
</script>

<svelte:head>
	<title>{data.page && data.page.path !== '/' ? `${data.page.title}, ${data.site.name}` : data.site.name}</title>
	{#if data.page && !(data.page.position === 'open' && data.page.listed)}<meta name="robots" content="noindex" />{/if}
</svelte:head>

<SiteFrame name={data.site.name} navigation={data.navigation} current={data.page?.path ?? '/'} me={data.me}>
	{#if data.page}
		<article class="prose-page">
			<h1>{data.page.title}</h1>
			<Content nodes={data.page.content.content ?? []} placements={data.page.placements} />
		</article>
	{:else}
		<h1>{data.site.name}</h1>
		{#if data.documents.length}<DocumentList documents={data.documents} />{:else}<p class="soft mt-3">
				There is nothing to read here yet{data.me ? '' : ', or you need to sign in to see it'}.
			</p>{/if}
	{/if}
</SiteFrame>

<style>
	h1 {
		font-size: clamp(26px, 5vw, 36px);
	}
	article {
		max-width: 720px;
	}
</style>
