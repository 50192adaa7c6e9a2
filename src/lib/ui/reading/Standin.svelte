<!-- The picture of the page to begin with, where that page will stand, until it is sharp. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { sizeOfPage } from '#core/reading/fit';
	import type { RoomGiven } from './given';
	import type { Room } from './room.svelte';

	let { room, given }: { room: Room; given: RoomGiven } = $props();
	const first = untrack(() => sizeOfPage(1, given.document.runs));
	const shape = $derived(sizeOfPage(room.start, given.document.runs));
</script>

<div
	class="standin"
	class:gone={room.sharp || room.withdrawn}
	aria-hidden="true"
	data-fit={typeof room.fit === 'number' || (room.fit === 'comfortable' && room.byTurns) ? 'page' : room.fit}
>
	{#if !room.withdrawn}<img
			alt=""
			src={room.leafAddress(room.start, 800)}
			srcset={[800, 1200].map((w) => `${room.leafAddress(room.start, w)} ${w}w`).join(', ')}
			sizes="min(100vw, calc(100vh * {(first.width / first.height).toFixed(4)}))"
			width={Math.round(shape.width)}
			height={Math.round(shape.height)}
			style="--shape:{(shape.width / shape.height).toFixed(4)};--paper:{(shape.width * 4) / 3}px"
			fetchpriority="high"
			data-pages={given.document.pages}
		/>{/if}
</div>

<style>
	/* the picture of the page to begin with, where that page will stand, until it is sharp */
	.standin {
		position: absolute;
		inset: 20px 24px;
		display: grid;
		justify-content: center;
		align-content: start;
		overflow: hidden;
		z-index: 1;
		pointer-events: none;
	}
	:global(.framed) .standin {
		inset: 0;
	}
	:global(.by-turns) .standin {
		align-content: center;
	}
	.standin img {
		background: #fff;
		object-fit: contain;
		height: auto;
		width: min(100cqw - 48px, (100cqh - 40px) * var(--shape));
	}
	:global(.framed) .standin img {
		width: min(100cqw, 100cqh * var(--shape));
	}
	.standin[data-fit='width'] img {
		width: calc(100cqw - 48px);
	}
	:global(.framed) .standin[data-fit='width'] img {
		width: 100cqw;
	}
	.standin[data-fit='comfortable'] img {
		width: min(100cqw - 48px, max(var(--paper), (100cqh - 40px) * var(--shape)));
	}
	.standin[data-fit='height'] img {
		width: calc((100cqh - 40px) * var(--shape));
	}
	.standin[data-fit='paper'] img {
		width: var(--paper);
	}
	.standin.gone {
		display: none;
	}
	@container (max-width: 620px) {
		.standin {
			inset: 6px;
		}
		.standin img,
		.standin:is([data-fit='width'], [data-fit='comfortable']) img {
			width: calc(100cqw - 12px);
		}
	}
</style>
