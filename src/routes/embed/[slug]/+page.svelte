<script lang="ts">
	import { words } from '$lib/ui/parts/words';
	import { onMount } from 'svelte';
	import { tellAround } from '$lib/ui/placing/frame-events';
	import ReadingRoom from '$lib/ui/reading/ReadingRoom.svelte';
	let { data } = $props();
	const room = $derived(data.room);
	let box = $state<HTMLElement>();

	onMount(() => {
		// a website that may not frame this has a link in its place, and no empty page around it
		if (box) tellAround('resize', { height: box.scrollHeight });
		const saves = (event: MouseEvent) => {
			if (room && event.target instanceof Element && event.target.closest('a[download]')) tellAround('saved', { document: room.document.slug });
		};
		addEventListener('click', saves);
		return () => removeEventListener('click', saves);
	});
</script>

<svelte:head>
	<title>{room ? room.document.title : data.site.name}</title>
	<meta name="robots" content="noindex" />
	{#if room}<link rel="canonical" href="/d/{room.document.slug}" />{/if}
</svelte:head>

{#if room}
	<ReadingRoom given={room} tell={tellAround} colour={data.colours.colour ?? data.site.colour} background={data.colours.background ?? data.site.background} />
{:else}
	<p class="link" bind:this={box}><a class="btn" href={data.link} target="_blank" rel="noopener">{words('onItsSite')}</a></p>
{/if}

<style>
	.link {
		display: grid;
		place-items: center;
		/* as high as it is, whatever the frame is: that is told to the page around it */
		padding: 28px 16px;
		text-align: center;
	}
</style>
