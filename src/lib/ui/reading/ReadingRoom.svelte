<!-- The reading room: the pages on a calm ground, the fore-edge at the right, the sill below with everything within reach. -->
<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import ForeEdge from './ForeEdge.svelte';
	import Panels from './Panels.svelte';
	import Passage from './Passage.svelte';
	import Said from './Said.svelte';
	import Sill from './Sill.svelte';
	import Standin from './Standin.svelte';
	import { gestures } from './gestures';
	import { roomKeys } from './keys';
	import type { RoomGiven } from './given';
	import { Room } from './room.svelte';
	import 'pdfjs-dist/web/pdf_viewer.css';
	import './pages.css';
	import './layers.css';

	/** Hears that the first page is there, and on which page somebody is. */
	type Tell = (...event: ['opened', { document: string; pages: number }] | ['page', { document: string; page: number; pages: number }]) => void;
	let { given, colour = null, background = null, tell }: { given: RoomGiven; colour?: string | null; background?: string | null; tell?: Tell } = $props();
	const room = untrack(() => new Room(given));
	const doc = $derived(given.document);
	let container = $state<HTMLDivElement>();
	let root = $state<HTMLElement>();
	let full = $state(false);
	let wanted = $state(false);
	const over = untrack(() => given.place === 'over');
	const framed = untrack(() => room.framed);
	const edge = untrack(() => given.settings.foreEdge);

	onMount(() => {
		// bound once it is mounted
		const end = room.begin(container!);
		const keys = roomKeys(room, { screen: () => void fullScreen(), close: () => close() });
		addEventListener('keydown', keys);
		const screen = () => (full = Boolean(document.fullscreenElement));
		document.addEventListener('fullscreenchange', screen);
		// bound once it is mounted
		const still = gestures(room, container!);
		return () => {
			end();
			still();
			removeEventListener('keydown', keys);
			document.removeEventListener('fullscreenchange', screen);
		};
	});

	const tells = $derived({ document: doc.slug, pages: doc.pages });
	const isThere = $derived(room.sharp);
	$effect(() => {
		if (isThere) untrack(() => tell?.('opened', tells));
	});
	$effect(() => {
		const { page } = room;
		if (isThere) untrack(() => tell?.('page', { ...tells, page }));
	});

	function close() {
		if (room.panel) {
			const button = root?.querySelector<HTMLElement>(`[data-opens="${room.panel}"]:not([hidden])`);
			room.panel = null;
			button?.focus();
		} else if (over) parent.postMessage('ianua-close', location.origin);
	}

	/** Leads the focus past what comes between. */
	function to(event: MouseEvent, target: HTMLElement | null | undefined) {
		event.preventDefault();
		target?.focus();
	}

	async function fullScreen() {
		if (document.fullscreenElement) await document.exitFullscreen();
		else await root?.requestFullscreen().catch(() => undefined);
	}
</script>

<svelte:window
	onbeforeunload={(e) => {
		// what was written into the document's fields would be lost
		if (room.written) e.preventDefault();
	}}
	onbeforeprint={() => (room.panel = null)}
	onpointermove={(e) => {
		if (given.settings.hideTools) wanted = e.clientY > innerHeight - 90 || room.panel !== null;
	}}
/>

<div
	bind:this={root}
	class="room"
	class:framed
	class:over
	class:by-turns={room.byTurns}
	class:from-right={room.fromRight}
	class:hides={given.settings.hideTools}
	class:wanted={wanted || room.panel !== null}
	lang={given.language}
	data-paper={room.paper}
	data-theme={room.theme === 'system' ? undefined : room.theme}
	style="{colour ? `--sill:${colour};` : ''}{background ? `--room-ground:${background};` : ''}"
>
	<a class="skip" href="#pages" onclick={(e) => to(e, container)}>{room.say('toPages')}</a>
	<Sill {room} {given} {close} />
	<main class="ground" id="pages">
		<Standin {room} {given} />
		<div
			class="stage"
			bind:this={container}
			hidden={room.withdrawn}
			tabindex="-1"
			role="document"
			aria-label={doc.title}
			aria-busy={!room.sharp}
			data-page={room.page}
			lang={doc.language ?? undefined}
			dir={room.fromRight ? 'rtl' : 'ltr'}
			style="--ground-x:{room.ground().x}px;--ground-y:{room.ground().y}px"
		>
			<div class="pdfViewer"></div>
		</div>
		{#if container}<Passage {room} {given} within={container} />{/if}
		<Said {room} {given} />
	</main>
	{#if edge}<ForeEdge {room} />{/if}
	<a class="skip" href="#tools" onclick={(e) => to(e, root?.querySelector('.sill :is(a, button, input)'))}>{room.say('toTools')}</a>

	<Panels {room} {given} {full} fullScreen={() => void fullScreen()} />
	<p class="sr-only" aria-live="polite">{room.said}</p>
</div>
{#if !given.mayPrint}<p class="print-not">{room.say('printNot')}</p>{:else}<p class="print-not">{room.say('printByTool')}</p>{/if}

<style>
	/* a finger that swipes pages from the edge of the window stays in the room */
	:global(html:has(.room)) {
		overscroll-behavior: none;
	}
	.room {
		position: relative;
		display: grid;
		grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) auto;
		height: 100dvh;
		overflow: hidden;
		/* a ground that was set is one of the day */
		background: light-dark(var(--room-ground, var(--reading-ground)), var(--reading-ground));
		color: var(--ink);
		/* as large as the reader's own text */
		font-size: medium;
		container-type: inline-size;
	}
	.room > :global(.sill) {
		grid-row: 2;
	}
	.room > :global(:is(.ground, .fore-edge)) {
		grid-row: 1;
	}
	.from-right {
		grid-template-columns: auto minmax(0, 1fr);
	}
	.from-right > .ground {
		grid-column: 2;
	}
	.from-right > :global(.fore-edge) {
		grid-column: 1;
	}
	.skip {
		position: absolute;
		top: -100px;
		inset-inline-start: 8px;
		z-index: 9;
		padding: 8px 12px;
		background: var(--sheet);
		color: var(--ink);
	}
	.skip:focus {
		top: 8px;
	}
	.ground {
		position: relative;
		overflow: hidden;
		container-type: size;
	}
	.stage {
		position: absolute;
		inset: 0;
		overflow: auto;
		outline: none;
		overscroll-behavior: contain;
	}
	.print-not {
		display: none;
	}
	@media print {
		.room {
			display: none;
		}
		.print-not {
			display: block;
		}
	}
</style>
