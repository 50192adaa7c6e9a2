<script lang="ts">
	import { page } from '$app/state';
	import ReadingRoom from '$lib/ui/reading/ReadingRoom.svelte';
	let { data } = $props();
</script>

<svelte:head>
	<title>{data.document.title}, {data.site.name}</title>
	<link rel="canonical" href="{page.url.origin}/d/{data.document.slug}" />
	{#if !data.searchable}<meta name="robots" content="noindex" />{/if}
</svelte:head>

{#key data.document.slug}
	<ReadingRoom {...data.document} from={data.from} back={data.back} maySave={data.maySave} frame={data.frame} />
{/key}
