<!-- Setting documents aside that stand on published pages: names the places first, and offers to take the placements out. -->
<script lang="ts">
	import { Modal } from 'flowbite-svelte';
	import { counted } from '#core/access/reach';
	import type { Place } from '$lib/server/placing/placed';

	interface Props {
		/** The places that would break; null while nothing is asked. */
		places: readonly Place[] | null;
		/** Sets aside, with the placements taken out first or not. */
		go: (takeOut: boolean) => void;
	}
	let { places = $bindable(), go }: Props = $props();
	const pages = $derived([...new Map((places ?? []).map((p) => [p.page, p])).values()]);
	const many = $derived(new Set((places ?? []).map((p) => p.document)).size);
	const answer = (takeOut: boolean) => {
		places = null;
		go(takeOut);
	};
</script>

<Modal
	title={`Readers meet ${many === 1 ? `“${places?.[0]?.documentTitle}”` : counted(many, 'document', 'documents')} in ${counted(places?.length ?? 0, 'place', 'places')}`}
	bind:open={
		() => places !== null,
		(open) => {
			if (!open) places = null;
		}
	}
	size="sm"
	outsideclose
>
	<p>Once set aside, nothing is there for them on {counted(pages.length, 'page', 'pages')}:</p>
	<ul>
		{#each pages.slice(0, 12) as place (place.page)}
			<li><a href={place.page} target="_blank">{place.pageTitle}</a> <span class="soft">{place.page}{place.front ? ', the front page' : ''}</span></li>
		{/each}
		{#if pages.length > 12}<li class="soft">and {pages.length - 12} more</li>{/if}
	</ul>
	<div class="ways">
		<button class="btn main" onclick={() => answer(true)}>Take the placements out and set aside</button>
		<button class="btn" onclick={() => answer(false)}>Set aside all the same</button>
		<button class="quiet" onclick={() => (places = null)}>Leave it</button>
	</div>
</Modal>

<style>
	ul {
		margin: 10px 0 16px;
		display: grid;
		gap: 4px;
	}
	.ways {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
</style>
