<!-- The fore-edge: every page a line, chapters as longer lines with their names, what was found as brass ticks, where one is as a dark
thumb, where one was as a hollow one. Pressing, dragging, the wheel and the keys turn through the book; its pages show as pictures. -->
<script lang="ts">
	import { chapterAt, edgeChapters, linedPages, pageAt, shareOf } from '#core/reading/edge';
	import type { Room } from './room.svelte';

	let { room }: { room: Room } = $props();
	const pages = $derived(room.given.document.pages);
	const outline = $derived(room.given.document.outline);
	const hasNames = $derived(room.chapters && outline.some((c) => c.page !== null && c.title.trim()));
	const inset = 22;
	let edge = $state<HTMLElement>();
	let height = $state(600);
	let width = $state(46);
	let dragging = $state(false);
	let pointed = $state<number | null>(null);
	let focused = $state(false);
	const length = $derived(Math.max(40, height - 2 * inset));
	const lines = $derived(linedPages(pages, length));
	const chapters = $derived(edgeChapters(outline, pages, length, room.page));
	const reading = $derived(chapterAt(chapters, room.page));
	const chapterPages = $derived(new Set(chapters.map((c) => c.page)));
	const shown = $derived(pointed ?? (focused ? room.page : null));
	const y = (page: number) => inset + shareOf(page, pages) * length;
	const pageUnder = (event: PointerEvent) => {
		// bound once it is mounted
		const box = edge!.getBoundingClientRect();
		return pageAt((event.clientY - box.top - inset) / length, pages);
	};
	let wheeled = 0;

	function keys(event: KeyboardEvent) {
		const by: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, ArrowRight: 1, ArrowLeft: -1, PageDown: 10, PageUp: -10 };
		if (event.key in by) room.go(room.page + by[event.key]!);
		else if (event.key === 'Home') room.go(1);
		else if (event.key === 'End') room.go(pages);
		else return;
		event.preventDefault();
		event.stopPropagation();
	}
</script>

<div
	bind:this={edge}
	bind:clientHeight={height}
	bind:clientWidth={width}
	class="fore-edge"
	class:named={hasNames}
	onwheel={(e) => {
		wheeled += e.deltaY;
		const steps = Math.trunc(wheeled / 40);
		if (!steps) return;
		wheeled -= steps * 40;
		room.go(room.page + steps);
	}}
>
	<svg aria-hidden="true" width="100%" {height}>
		{#each lines as page (page)}<line
				x1={width - (chapterPages.has(page) ? Math.min(30, width * 0.7) : Math.min(14, width * 0.4))}
				x2={width}
				y1={y(page)}
				y2={y(page)}
			/>{/each}
	</svg>
	{#each [...room.finding.pages.keys()] as page (page)}<i class="found" style="top:{y(page)}px"></i>{/each}
	{#if room.was !== null && room.was !== room.page}<i class="was" style="top:{y(room.was)}px"></i>{/if}
	<b style="top:{y(room.page)}px"></b>
	<div
		class="slider"
		role="slider"
		tabindex="0"
		aria-label={room.say('pages')}
		aria-orientation="vertical"
		aria-valuemin={1}
		aria-valuemax={pages}
		aria-valuenow={room.page}
		aria-valuetext="{room.say('pageOf', { page: room.page, count: pages })}{chapters[reading] ? `, ${chapters[reading].title}` : ''}"
		onkeydown={keys}
		onfocus={(e) => (focused = e.currentTarget.matches(':focus-visible'))}
		onblur={() => (focused = false)}
		onpointerdown={(e) => {
			dragging = true;
			e.currentTarget.setPointerCapture(e.pointerId);
			room.go(pageUnder(e));
		}}
		onpointermove={(e) => {
			pointed = pageUnder(e);
			if (dragging) room.go(pointed);
		}}
		onpointerup={() => (dragging = false)}
		onpointercancel={() => (dragging = false)}
		onpointerleave={() => {
			if (!dragging) pointed = null;
		}}
	></div>
	{#if hasNames}
		<nav aria-label={room.say('contents')}>
			{#each chapters as chapter, i (i)}{#if chapter.named}<button
						class:on={i === reading}
						style="top:{inset + chapter.y}px;padding-inline-start:{14 + Math.min(3, chapter.depth) * 9}px"
						title={chapter.title}
						aria-current={i === reading ? 'true' : undefined}
						onclick={() => room.go(chapter.page)}>{chapter.title}</button
					>{/if}{/each}
		</nav>
	{/if}
	{#if shown !== null}
		<figure style="top:{Math.min(Math.max(y(shown), 130), height - 110)}px" aria-hidden="true">
			<img src={room.leafAddress(shown, 200)} alt="" width="130" />
			<figcaption>
				{shown}{#if room.finding.pages.has(shown)}<em>{room.say('times', { count: room.finding.pages.get(shown) ?? 0 })}</em>{/if}
			</figcaption>
		</figure>
	{/if}
</div>

<style>
	.fore-edge {
		position: relative;
		width: 46px;
		min-height: 0;
		background: color-mix(in oklab, var(--reading-ground) 90%, var(--ink));
		border-inline-start: 1px solid color-mix(in oklab, var(--reading-ground) 70%, var(--ink));
		touch-action: none;
		user-select: none;
		direction: ltr;
	}
	.named {
		width: 168px;
	}
	svg {
		position: absolute;
		inset: 0;
		display: block;
	}
	line {
		stroke: color-mix(in oklab, var(--reading-ground) 50%, var(--ink));
		stroke-width: 1;
	}
	.slider {
		position: absolute;
		inset: 0 0 0 auto;
		width: 46px;
		cursor: grab;
	}
	.slider:active {
		cursor: grabbing;
	}
	.found,
	.was,
	b {
		position: absolute;
		right: 0;
		pointer-events: none;
	}
	.found {
		right: 42px;
		width: 14px;
		height: 4px;
		margin-top: -2px;
		background: var(--brass-bright);
	}
	.fore-edge:not(.named) .found {
		right: 28px;
		width: 12px;
	}
	b {
		width: 42px;
		height: 40px;
		margin-top: -20px;
		background: var(--verdigris-deep);
		border: 1px solid var(--on-dark);
		border-right: 0;
		border-radius: 20px 0 0 20px;
	}
	.was {
		width: 26px;
		height: 20px;
		margin-top: -10px;
		border: 2px solid var(--verdigris);
		border-right: 0;
		border-radius: 10px 0 0 10px;
	}
	nav button {
		position: absolute;
		left: 0;
		width: 122px;
		transform: translateY(-50%);
		border: 0;
		background: none;
		font-size: 12px;
		line-height: 1.2;
		min-height: 0;
		padding: 3px 4px;
		text-align: left;
		color: var(--ink);
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		cursor: pointer;
		display: block;
	}
	/* a name too long for the edge is read whole by going to it: it widens over the pages */
	nav button:is(:hover, :focus-visible) {
		left: auto;
		right: 46px;
		width: max-content;
		min-width: 122px;
		max-width: min(26em, 60cqw);
		z-index: 1;
		background: color-mix(in oklab, var(--reading-ground) 90%, var(--ink));
		text-decoration: underline;
	}
	nav .on {
		font-weight: 700;
	}
	figure {
		position: absolute;
		right: calc(100% + 8px);
		margin: 0;
		translate: 0 -50%;
		z-index: 6;
		padding: 6px;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		pointer-events: none;
		width: 144px;
	}
	figure img {
		display: block;
		background: #fff;
		width: 130px;
		min-height: 60px;
		max-height: 190px;
		object-fit: contain;
	}
	figcaption {
		text-align: center;
		font: 600 13px var(--title);
		margin-top: 3px;
	}
	em {
		font: 12px var(--body);
		color: var(--brass);
		margin-inline-start: 6px;
	}
	@media (forced-colors: active) {
		.found {
			forced-color-adjust: none;
			background: Highlight;
		}
		line {
			stroke: CanvasText;
		}
	}
	@media (max-width: 700px) {
		.fore-edge,
		.named {
			width: 24px;
		}
		nav {
			display: none;
		}
		.slider {
			width: 100%;
		}
		.fore-edge .found {
			right: 12px;
			width: 10px;
		}
		b {
			width: 22px;
		}
		.was {
			width: 16px;
		}
		figure {
			width: 104px;
		}
		figure img {
			width: 90px;
		}
	}
</style>
