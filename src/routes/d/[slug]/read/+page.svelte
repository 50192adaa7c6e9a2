<script lang="ts">
	import { page } from '$app/state';
	import AskToRemember from '$lib/ui/parts/AskToRemember.svelte';
	import ReadingRoom from '$lib/ui/reading/ReadingRoom.svelte';
	let { data } = $props();
	const room = $derived(data.room);
</script>

<svelte:head>
	<title>{room.document.title}, {data.site.name}</title>
	<link rel="canonical" href="{page.url.origin}/d/{room.document.slug}" />
	{#if !room.searchable}<meta name="robots" content="noindex" />{/if}
</svelte:head>

{#key room.document.slug}
	<ReadingRoom given={room} colour={data.site.colour} background={data.site.background} />
{/key}
{#if room.asks}<AskToRemember over />{/if}
