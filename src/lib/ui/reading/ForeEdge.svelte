<!-- The fore-edge: every page a line, where one is as a dark thumb. Pressing or dragging turns through the book. -->
<script lang="ts">
	let { pages, current, turn }: { pages: number; current: number; turn: (page: number) => void } = $props();
	let dragging = false;
	let edge = $state<HTMLElement>();
	const lines = $derived(Math.min(pages, 120));
	const place = (page: number) => (pages === 1 ? 0.5 : (page - 1) / (pages - 1));

	function go(event: PointerEvent) {
		const box = edge!.getBoundingClientRect();
		const share = Math.min(1, Math.max(0, (event.clientY - box.top - 22) / (box.height - 44)));
		turn(1 + Math.round(share * (pages - 1)));
	}
</script>

<div
	bind:this={edge}
	class="edge"
	role="slider"
	tabindex="0"
	aria-label="Pages"
	aria-orientation="vertical"
	aria-valuemin={1}
	aria-valuemax={pages}
	aria-valuenow={current}
	aria-valuetext="Page {current} of {pages}"
	onpointerdown={(e) => {
		dragging = true;
		edge!.setPointerCapture(e.pointerId);
		go(e);
	}}
	onpointermove={(e) => dragging && go(e)}
	onpointerup={() => (dragging = false)}
>
	{#each { length: lines } as _, i (i)}<span style="top:calc(22px + (100% - 44px) * {lines === 1 ? 0.5 : i / (lines - 1)})"></span>{/each}
	<b style="top:calc(22px + (100% - 44px) * {place(current)})"></b>
</div>

<style>
	.edge {
		position: relative;
		width: 46px;
		background: color-mix(in oklab, var(--reading-ground) 88%, var(--ink));
		border-left: 1px solid var(--edge);
		cursor: grab;
		touch-action: none;
	}
	span {
		position: absolute;
		right: 0;
		width: 15px;
		border-top: 1px solid var(--ink-soft);
	}
	b {
		position: absolute;
		right: 0;
		width: 34px;
		height: 40px;
		margin-top: -20px;
		background: var(--verdigris-deep);
		border: 1px solid var(--on-dark);
		border-right: 0;
		border-radius: 20px 0 0 20px;
	}
	@media (max-width: 600px) {
		.edge {
			width: 26px;
		}
		span {
			width: 8px;
		}
		b {
			width: 22px;
		}
	}
</style>
