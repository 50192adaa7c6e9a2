<!-- Where files that are held over the page can be let go: between its blocks, at its end, or beside it. Each spot says what it does. -->
<script lang="ts">
	import type { Article } from './article.svelte';
	import { held, holdsFiles } from '$lib/ui/intake/held.svelte';
	import type { Spot } from './arrivals.svelte';

	let {
		article,
		sheet,
		door
	}: { article: Article; /** What the page is written on. */ sheet: HTMLElement | undefined; /** Who may open the page. */ door: string } = $props();

	// taken away again without being let go
	$effect(() => {
		if (!held.files) open = null;
	});
	/** px around the edge of a block within which the spot there opens. */
	const near = 22;
	/** The spot that is open in the text, and where it is drawn, px of the window. */
	let open = $state<{ at: number; top: number; left: number; width: number } | null>(null);

	/** Where blocks of the text meet, px of the window, with the positions there. */
	function edges(): { at: number; y: number }[] {
		const { view } = article.editor ?? {};
		if (!view) return [];
		const found: { at: number; y: number }[] = [];
		let below: number | null = null;
		view.state.doc.forEach((node, at) => {
			const element = view.nodeDOM(at);
			if (!(element instanceof HTMLElement)) return;
			const { top, bottom } = element.getBoundingClientRect();
			found.push({ at, y: below === null ? top : (below + top) / 2 });
			below = bottom;
		});
		return found;
	}
	function over(event: DragEvent) {
		if (!holdsFiles(event) || !sheet) return;
		const { top, bottom, left, right } = sheet.getBoundingClientRect();
		const { clientX: x, clientY: y } = event;
		if (x < left || x > right || y < top || y > bottom) return;
		// on the spot itself it stays where it is
		if (event.target instanceof Element && event.target.closest('.here')) return;
		const edge = edges().find((e) => Math.abs(e.y - y) <= near);
		open = edge ? { at: edge.at, top: edge.y, left, width: right - left } : null;
	}
	function land(event: DragEvent, spot: Spot) {
		event.preventDefault();
		open = null;
		article.arrivals.bring([...(event.dataTransfer?.files ?? [])], spot);
	}
	function atEnd(): number {
		// files cannot be held over what is not there
		const { doc } = article.editor!.state;
		const { lastChild } = doc;
		// the empty line with which a page ends takes it
		return lastChild?.type.name === 'paragraph' && !lastChild.content.size ? doc.content.size - 1 : doc.content.size;
	}
</script>

<svelte:window ondragover={over} ondrop={() => (open = null)} />

{#snippet half(words: string, said: string, drop: (event: DragEvent) => void)}
	<div class="half" role="group" aria-label={words} ondragover={(e) => e.preventDefault()} ondrop={drop}><b>{words}</b><small>{said}</small></div>
{/snippet}

{#if held.files}
	{#if open}
		{@const { at, top, left, width } = open}
		<div class="here" style:top="{top}px" style:left="{left}px" style:width="{width}px">
			{@render half('Let go to place here', 'as words; it stays shut', (e) => land(e, { at }))}
			{@render half('Or here: it follows the page', `opens with the page: ${door}`, (e) => land(e, { at, follow: true }))}
		</div>
	{/if}
	<div class="ends" data-spots>
		{@render half('At the end of the page', 'as words; it stays shut', (e) => land(e, { at: atEnd() }))}
		{@render half('At the end, and it follows the page', `opens with the page: ${door}`, (e) => land(e, { at: atEnd(), follow: true }))}
		<div class="half"><b>Bring in only</b><small>it stands on the shelf, not on the page</small></div>
	</div>
{/if}

<style>
	.here,
	.ends {
		z-index: 30;
		display: grid;
		grid-auto-flow: column;
		grid-auto-columns: minmax(0, 1fr);
		border: 2px dashed var(--brass-bright);
		background: var(--brass-wash);
		color: var(--ink);
	}
	.here {
		position: fixed;
		translate: 0 -50%;
		height: 60px;
	}
	.ends {
		grid-row: 2;
		grid-column: 1 / -1;
		min-height: 124px;
	}
	.half {
		display: grid;
		align-content: center;
		justify-items: center;
		gap: 2px;
		padding: 4px 12px;
		text-align: center;
	}
	.half > * {
		pointer-events: none;
	}
	.half + .half {
		border-left: 2px dashed var(--brass-bright);
	}
	b {
		font: 600 16px var(--title);
	}
	small {
		font-size: 13px;
		color: var(--ink-soft);
	}
</style>
