<!-- The reading room: one page on a calm ground, the fore-edge at the right, the sill below with everything within reach. -->
<script lang="ts">
	import { onMount, tick, untrack } from 'svelte';
	import { counted } from '#core/access/reach';
	import { fileSource, pictureSource, type PageSource } from './pages';
	import type { FrameTool } from '#core/placing/placement';
	import { fragment } from '#core/reading/fragment';
	import type { RoomFrame } from '#core/reading/room';
	import ForeEdge from './ForeEdge.svelte';
	import { markWords } from './marks';

	let {
		slug,
		title,
		pages,
		edition,
		sizes,
		from,
		back,
		maySave,
		language,
		frame = null
	}: {
		/** Where the room stands in a frame: on a page, on another website, or over the page. */
		frame?: RoomFrame | null;
		slug: string;
		title: string;
		pages: number;
		/** The edition that this reading goes on with, whatever is put in meanwhile. */
		edition: number;
		sizes: readonly { width: number; height: number; pages: number }[];
		from: string | null;
		back: { path: string; title: string };
		maySave: boolean;
		language: string | null;
	} = $props();

	const fits = { page: 'Whole page', width: 'Full width' } as const;
	type Fit = keyof typeof fits;

	let current = $state(1);
	let typed = $derived(String(current));
	let fit = $state<Fit>(untrack(() => frame?.fit ?? 'page'));
	const has = (tool: FrameTool) => !frame || frame.tools.includes(tool);
	let source = $state<PageSource>();
	let trouble = $state<string | null>(null);
	let waiting = $state(true);
	/** Words to be marked on the pages. */
	let wanted: readonly string[] = [];
	let started = $state(false);
	let progress = $state(0);
	let ground = $state<HTMLElement>();
	let holder = $state<HTMLElement>();
	let drawing: AbortController | undefined;
	let drawn = 0;

	const suffix = $derived(from ? `&from=${encodeURIComponent(from)}` : '');

	const asks = () => fragment(location.hash);

	onMount(() => {
		started = true;
		const { page: asked, search } = asks();
		wanted = search;
		if (asked) current = Math.min(pages, Math.max(1, asked));
		if (!frame && matchMedia('(max-width: 600px)').matches) fit = 'width';
		const address = new URL(location.href);
		if (address.searchParams.has('from')) {
			// what brought the reader here is known by now; an address handed on does not carry it along
			address.searchParams.delete('from');
			history.replaceState(history.state, '', address);
		}
		const again = new ResizeObserver(() => void draw());
		again.observe(ground!);
		(maySave
			? fileSource(`/d/${slug}/file?for=reading&e=${edition}${suffix}`, (share) => (progress = share))
			: Promise.resolve(pictureSource(slug, `&e=${edition}${suffix}`, sizes, pages))
		).then(
			(made) => {
				source = made;
				void draw();
			},
			() => {
				waiting = false;
				trouble = 'The document could not be opened. The door may have changed, or the connection was lost.';
			}
		);
		return () => {
			again.disconnect();
			drawing?.abort();
			source?.close();
		};
	});

	async function draw() {
		if (!source || !ground || !holder) return;
		drawing?.abort();
		const mine = (drawing = new AbortController());
		const page = current;
		waiting = true;
		try {
			const { width, height } = await source.size(page);
			if (mine.signal.aborted) return;
			const around = frame && frame.kind !== 'over' ? [0, 0] : [ground.clientWidth < 600 ? 16 : 48, 40];
			const room = { width: ground.clientWidth - around[0]!, height: ground.clientHeight - around[1]! };
			const scale = Math.max(0.1, fit === 'page' ? Math.min(room.width / width, room.height / height) : room.width / width);
			await source.draw(page, scale, holder, mine.signal);
			if (mine.signal.aborted) return;
			waiting = false;
			trouble = null;
			drawn = page;
			markWords(holder, wanted);
		} catch (error) {
			if (mine.signal.aborted || (error as Error).name === 'RenderingCancelledException') return;
			waiting = false;
			trouble = `Page ${page} could not be shown.`;
		}
	}

	function turn(to: number) {
		const next = Math.min(pages, Math.max(1, Math.round(to)));
		if (next === current && drawn === next) return;
		current = next;
		history.replaceState(history.state, '', `#page=${next}${wanted.length ? `&search=${encodeURIComponent(wanted.join(' '))}` : ''}`);
		ground?.scrollTo({ top: 0 });
		void draw();
	}

	async function changeFit() {
		fit = fit === 'page' ? 'width' : 'page';
		await tick();
		void draw();
	}

	function keys(event: KeyboardEvent) {
		if (event.key === 'Escape' && frame?.kind === 'over') parent.postMessage('ianua-close', location.origin);
		if (event.ctrlKey || event.metaKey || event.altKey || (event.target as HTMLElement).closest('input')) return;
		if (event.key === 'ArrowRight' || event.key === 'PageDown' || event.key === 'n') turn(current + 1);
		else if (event.key === 'ArrowLeft' || event.key === 'PageUp' || event.key === 'v') turn(current - 1);
		else if (event.key === 'Home') turn(1);
		else if (event.key === 'End') turn(pages);
		else if (event.key === 'f') void changeFit();
		else return;
		event.preventDefault();
	}

	let touch: { x: number; y: number } | null = null;
	function swipe(event: TouchEvent) {
		if (!touch || fit === 'width' ? !touch : false) return;
		const end = event.changedTouches[0]!;
		const [dx, dy] = [end.clientX - touch!.x, end.clientY - touch!.y];
		touch = null;
		if (Math.abs(dx) > 60 && Math.abs(dx) > 2 * Math.abs(dy) && !getSelection()?.toString()) turn(current + (dx < 0 ? 1 : -1));
	}
</script>

<svelte:window
	onkeydown={keys}
	onhashchange={() => {
		const { page: asked, search } = asks();
		wanted = search;
		if (asked) turn(asked);
	}}
/>

<div
	class="room"
	class:framed={frame}
	class:over={frame?.kind === 'over'}
	class:edged={!frame || frame.edge}
	data-theme={frame && frame.theme !== 'system' ? frame.theme : undefined}
>
	<div
		class="ground"
		bind:this={ground}
		role="document"
		aria-label={title}
		aria-busy={waiting}
		ontouchstart={(e) => (touch = { x: e.touches[0]!.clientX, y: e.touches[0]!.clientY })}
		ontouchend={swipe}
	>
		{#if trouble}
			<p class="trouble" role="alert">{trouble} <button class="quiet" onclick={() => location.reload()}>Try again</button></p>
		{/if}
		<div class="leaf" bind:this={holder} lang={language ?? undefined} data-page={current}></div>
		{#if started && waiting && !trouble}<p class="wait" role="status">
				Page {current}{progress > 0 && progress < 1 ? `, ${Math.round(progress * 100)} %` : ''} …
			</p>{/if}
		{#if !started}
			<p class="trouble needs">
				The reading room needs JavaScript.{#if maySave}
					<a href="/d/{slug}/file?save{suffix}">Save the document</a> to read it in another program.{/if}
			</p>
		{/if}
	</div>
	{#if !frame || frame.edge}<ForeEdge {pages} {current} {turn} />{/if}
	<footer class="sill">
		{#if frame?.kind === 'over'}<button class="edge" onclick={() => parent.postMessage('ianua-close', location.origin)} title="Back to the page">Close</button>
		{:else if frame}<a class="edge" href="/d/{slug}/read{from ? `?from=${encodeURIComponent(from)}` : ''}#page={current}" target="_blank" rel="noopener"
				>Whole window</a
			>
		{:else}<a class="edge" href={back.path} title="Back to {back.title}">To the site</a>{/if}
		<strong class="title">{title}</strong>
		<span class="turning">
			<button onclick={() => turn(current - 1)} disabled={current <= 1} aria-label="Page before">‹</button>
			<label class="edge page"
				><input
					inputmode="numeric"
					aria-label="Page"
					bind:value={typed}
					onchange={() => {
						turn(Number.parseInt(typed, 10) || current);
						typed = String(current);
					}}
					onfocus={(e) => e.currentTarget.select()}
				/>
				of {pages}</label
			>
			<button onclick={() => turn(current + 1)} disabled={current >= pages} aria-label="Next page">›</button>
		</span>
		{#if has('fit')}<button class="fit" onclick={changeFit} title="Change the fit">{fits[fit]}</button>{/if}
		{#if has('save')}{#if maySave}<a class="save" href="/d/{slug}/file?save{suffix}" download>Save</a>{:else}<span
					class="soft-note"
					title="This may be read here, but not saved">Read only</span
				>{/if}{/if}
	</footer>
	<p class="sr-only" aria-live="polite">{waiting ? '' : `Page ${current} of ${counted(pages, 'page', 'pages')}`}</p>
</div>

<style>
	.room {
		display: grid;
		grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) auto;
		height: 100dvh;
		background: var(--reading-ground);
	}
	.ground {
		overflow: auto;
		display: grid;
		justify-content: safe center;
		align-content: safe center;
		padding: 20px;
		position: relative;
	}
	.room[data-theme='light'] {
		color-scheme: light;
	}
	.room[data-theme='dark'] {
		color-scheme: dark;
	}
	.leaf {
		position: relative;
		background: #fff;
		border: 1px solid var(--line);
		line-height: 0;
		color-scheme: light;
	}
	/* seen where no script takes it away: at once would flash for everybody else */
	.needs {
		animation: come 0s 2.5s both;
	}
	@keyframes come {
		from {
			visibility: hidden;
		}
		to {
			visibility: visible;
		}
	}
	.leaf:empty {
		visibility: hidden;
	}
	.wait {
		position: absolute;
		left: 50%;
		top: 14px;
		translate: -50%;
		background: var(--sheet);
		border: 1px solid var(--edge);
		padding: 3px 10px;
		border-radius: var(--corner);
	}
	.sill {
		grid-column: 1 / -1;
		display: flex;
		align-items: center;
		gap: 12px;
		min-height: 56px;
		padding: 6px 16px;
		background: var(--verdigris-deep);
		color: var(--on-dark);
		font-size: 15px;
	}
	.sill a,
	.sill button {
		color: inherit;
		text-decoration: none;
		min-height: 38px;
		display: inline-flex;
		align-items: center;
		padding: 0 11px;
		border: 1px solid transparent;
		border-radius: var(--corner);
		cursor: pointer;
		white-space: nowrap;
	}
	.sill a:hover,
	.sill button:hover:not(:disabled) {
		border-color: #ffffff80;
	}
	.sill button:disabled {
		opacity: 0.4;
		cursor: default;
	}
	.sill .edge {
		border: 1px solid #ffffff66;
	}
	/* in a frame on a page nothing stands around the leaf: the frame is as high as the page and the sill (core/placing/frame) */
	.room.framed:not(.over) .ground {
		padding: 0;
		overflow: auto;
	}
	.room.framed:not(.over) .leaf {
		border: 0;
	}
	.room.framed:not(.over) .sill {
		height: 46px;
		min-height: 0;
		padding: 3px 8px;
		gap: 4px;
		font-size: 14px;
		overflow: hidden;
	}
	.title {
		font: 600 16.5px var(--title);
		flex: 1;
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.turning {
		display: flex;
		align-items: center;
	}
	.turning button {
		font-size: 22px;
	}
	.page {
		height: 38px;
		padding: 0 12px;
		border-radius: var(--corner);
		display: inline-flex;
		align-items: center;
		gap: 7px;
		white-space: nowrap;
	}
	.sill .page input {
		width: 3.2ch;
		border: 0;
		background: transparent;
		color: inherit;
		text-align: right;
		font: 600 16px var(--title);
		padding: 0;
	}
	.soft-note {
		padding: 0 11px;
		opacity: 0.85;
	}
	@media (max-width: 600px) {
		.ground {
			padding: 8px;
		}
		.sill {
			flex-wrap: wrap;
			gap: 2px 4px;
			padding: 4px 8px 8px;
		}
		.title {
			order: -1;
			flex: 0 0 100%;
			padding: 4px 4px 0;
			font-size: 15px;
		}
		.turning {
			margin: 0 auto;
		}
		.sill a,
		.sill button {
			padding: 0 8px;
			font-size: 14px;
		}
		.fit {
			display: none !important;
		}
	}

	/* the text over the page: invisible, but to be selected and read aloud */
	.leaf :global(.textLayer) {
		position: absolute;
		inset: 0;
		overflow: clip;
		line-height: 1;
		text-size-adjust: none;
		forced-color-adjust: none;
		transform-origin: 0 0;
		z-index: 1;
		--min-font-size: 1;
		--text-scale-factor: calc(var(--total-scale-factor) * var(--min-font-size));
		--min-font-size-inv: calc(1 / var(--min-font-size));
	}
	.leaf :global(.textLayer :is(span, br)) {
		color: transparent;
		position: absolute;
		white-space: pre;
		cursor: text;
		transform-origin: 0% 0%;
	}
	.leaf :global(.textLayer > :not(.markedContent)),
	.leaf :global(.textLayer .markedContent span:not(.markedContent)) {
		z-index: 1;
		--font-height: 0;
		font-size: calc(var(--text-scale-factor) * var(--font-height));
		--scale-x: 1;
		--rotate: 0deg;
		transform: rotate(var(--rotate)) scaleX(var(--scale-x)) scale(var(--min-font-size-inv));
	}
	.leaf :global(.textLayer .markedContent) {
		display: contents;
	}
	.leaf :global(.words) {
		position: absolute;
		inset: 0;
		overflow: clip;
	}
	.leaf :global(.words span) {
		position: absolute;
		color: transparent;
		font-family: sans-serif;
		white-space: pre;
		cursor: text;
		transform-origin: 0 0;
	}
	.leaf :global(.words ::selection) {
		background: rgb(28 106 97 / 0.3);
	}
	:global(::highlight(found-words)) {
		background: rgb(201 151 59 / 0.45);
	}
	.leaf :global(.textLayer ::selection) {
		background: rgb(28 106 97 / 0.3);
	}
</style>
