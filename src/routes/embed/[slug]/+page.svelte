<script lang="ts">
	import { words } from '$lib/ui/parts/words';
	import ReadingRoom from '$lib/ui/reading/ReadingRoom.svelte';
	let { data } = $props();
	const room = $derived(data.room);
</script>

<svelte:head>
	<title>{room ? room.document.title : data.site.name}</title>
	<meta name="robots" content="noindex" />
	{#if room}<link rel="canonical" href="/d/{room.document.slug}" />{/if}
</svelte:head>

{#if room}
	<ReadingRoom given={room} colour={data.site.colour} background={data.site.background} />
{:else}
	<p class="link"><a class="btn" href={data.link} target="_blank" rel="noopener">{words('onItsSite')}</a></p>
{/if}

<style>
	.link {
		display: grid;
		place-items: center;
		min-height: 100dvh;
		padding: 16px;
		text-align: center;
	}
</style>
