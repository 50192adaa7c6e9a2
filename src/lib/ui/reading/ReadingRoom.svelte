<!-- The reading room: the pages on a calm ground, the fore-edge at the right, the sill below with everything within reach. -->
<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { sizeOfPage } from '#core/reading/fit';
	import { directionOf, languageNames, languages } from '#core/words/words';
	import FindPanel from './FindPanel.svelte';
	import ForeEdge from './ForeEdge.svelte';
	import PrintPanel from './PrintPanel.svelte';
	import { fitNames, wayNames } from './names';
	import { Room, type Panel, type RoomGiven } from './room.svelte';
	import { roomKeys } from './keys';
	import 'pdfjs-dist/web/pdf_viewer.css';
	import './pages.css';
	import './layers.css';

	let { given, colour = null, background = null }: { given: RoomGiven; colour?: string | null; background?: string | null } = $props();
	const room = untrack(() => new Room(given));
	const doc = $derived(given.document);
	let container = $state<HTMLDivElement>();
	let root = $state<HTMLElement>();
	let copied = $state(false);
	let full = $state(false);
	let wanted = $state(false);
	let typed = $derived(String(room.page));
	const first = untrack(() => sizeOfPage(1, given.document.runs));
	const shape = $derived(sizeOfPage(room.start, doc.runs));
	const over = untrack(() => given.place === 'over');
	const framed = untrack(() => room.framed);
	const direction = untrack(() => directionOf(given.language));
	const edge = untrack(() => given.settings.foreEdge);

	onMount(() => {
		const end = room.begin(container!);
		const keys = roomKeys(room, { screen: () => void fullScreen(), close: () => close() });
		addEventListener('keydown', keys);
		const screen = () => (full = Boolean(document.fullscreenElement));
		document.addEventListener('fullscreenchange', screen);
		// a wheel with Ctrl zooms the pages, not the whole window; that must be able to hold it back
		const wheel = (event: WheelEvent) => onWheel(event);
		container!.addEventListener('wheel', wheel, { passive: false });
		return () => {
			end();
			removeEventListener('keydown', keys);
			document.removeEventListener('fullscreenchange', screen);
		};
	});

	function close() {
		if (room.panel) {
			const button = root?.querySelector<HTMLElement>(`[data-opens="${room.panel}"]:not([hidden])`);
			room.panel = null;
			button?.focus();
		} else if (over) parent.postMessage('ianua-close', location.origin);
	}
	const toggle = (panel: Panel) => (room.panel = room.panel === panel ? null : panel);

	async function fullScreen() {
		if (document.fullscreenElement) await document.exitFullscreen();
		else await root?.requestFullscreen().catch(() => undefined);
	}

	async function share() {
		await navigator.clipboard?.writeText(room.share).then(
			() => (copied = true),
			() => undefined
		);
		setTimeout(() => (copied = false), 4000);
	}

	let wheeledAt = 0;
	function onWheel(event: WheelEvent) {
		if (event.ctrlKey || event.metaKey) {
			event.preventDefault();
			room.zoomAround(Math.exp(-event.deltaY / 300), event.clientX, event.clientY);
			return;
		}
		if (!container) return;
		if (room.way === 'across' && !event.deltaX && container.scrollWidth > container.clientWidth && container.scrollHeight <= container.clientHeight) {
			container.scrollLeft += event.deltaY;
			event.preventDefault();
			return;
		}
		if (!room.byTurns || !event.deltaY) return;
		const atEnd = event.deltaY > 0 ? container.scrollTop + container.clientHeight >= container.scrollHeight - 2 : container.scrollTop <= 2;
		if (!atEnd || event.timeStamp - wheeledAt < 350) return;
		wheeledAt = event.timeStamp;
		room.step(event.deltaY > 0 ? 1 : -1);
	}

	// fingers: one to the side turns where pages are turned, two zoom
	let touched: { x: number; y: number; apart: number } | null = null;
	const apart = (touches: TouchList) => Math.hypot(touches[0]!.clientX - touches[1]!.clientX, touches[0]!.clientY - touches[1]!.clientY);
	function touchStart({ touches }: TouchEvent) {
		touched = { x: touches[0]!.clientX, y: touches[0]!.clientY, apart: touches.length === 2 ? apart(touches) : 0 };
	}
	function touchMove(event: TouchEvent) {
		const { touches } = event;
		if (!touched?.apart || touches.length !== 2) return;
		event.preventDefault();
		const now = apart(touches);
		if (Math.abs(now / touched.apart - 1) < 0.02) return;
		room.zoomAround(now / touched.apart, (touches[0]!.clientX + touches[1]!.clientX) / 2, (touches[0]!.clientY + touches[1]!.clientY) / 2);
		touched.apart = now;
	}
	function touchEnd({ changedTouches }: TouchEvent) {
		if (!touched || touched.apart || !room.byTurns || !container || container.scrollWidth > container.clientWidth + 2) return (touched = null);
		const [dx, dy] = [changedTouches[0]!.clientX - touched.x, changedTouches[0]!.clientY - touched.y];
		touched = null;
		if (Math.abs(dx) > 50 && Math.abs(dx) > 2 * Math.abs(dy) && !getSelection()?.toString()) room.step(dx < 0 ? 1 : -1);
	}

	const keyList = [
		['→ ←', 'keyTurn'],
		['Home End', 'keyEnds'],
		['g', 'keyPage'],
		['/', 'keyFind'],
		['n v', 'keyFound'],
		['+ − 0', 'keyZoom'],
		['w', 'keyWays'],
		['r', 'keyRotate'],
		['s', 'keyScreen'],
		['b', 'keyBack'],
		['?', 'keyKeys']
	] as const;

	const spoken = (language: string) => {
		const address = new URL(location.href);
		address.searchParams.set('lang', language);
		return address.href;
	};
</script>

<svelte:window
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
	class:hides={given.settings.hideTools}
	class:wanted={wanted || room.panel !== null}
	lang={given.language}
	data-theme={room.theme === 'system' ? undefined : room.theme}
	style="{colour ? `--sill:${colour};` : ''}{background ? `--room-ground:${background};` : ''}"
>
	<div class="ground">
		<div class="standin" class:gone={room.sharp || room.withdrawn} aria-hidden="true" data-fit={typeof room.fit === 'number' ? 'page' : room.fit}>
			{#if !room.withdrawn}<img
					alt=""
					src={room.leafAddress(room.start, 800)}
					srcset={[800, 1200].map((w) => `${room.leafAddress(room.start, w)} ${w}w`).join(', ')}
					sizes="min(100vw, calc(100vh * {(first.width / first.height).toFixed(4)}))"
					width={Math.round(shape.width)}
					height={Math.round(shape.height)}
					style="--shape:{(shape.width / shape.height).toFixed(4)};--paper:{(shape.width * 4) / 3}px"
					fetchpriority="high"
				/>{/if}
		</div>
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
			dir="auto"
			style="--ground-x:{room.ground().x}px;--ground-y:{room.ground().y}px"
			ontouchstart={touchStart}
			ontouchmove={touchMove}
			ontouchend={touchEnd}
		>
			<div class="pdfViewer"></div>
		</div>
		{#if room.withdrawn}
			<div class="said" dir={direction} role="alert">
				<h1>{room.say('withdrawn')}</h1>
				<p>{room.say('withdrawnWords')}</p>
				<p><a href="/d/{doc.slug}">{doc.title}</a></p>
			</div>
		{:else if room.trouble}
			<div class="said" dir={direction} role="alert">
				<p>{room.say(room.trouble)}</p>
				<p>
					<button class="main" onclick={() => location.reload()}>{room.say('again')}</button>
					{#if given.maySave && room.has('save')}<a href={room.saveAddress} download>{room.say('save')}</a>{/if}
				</p>
			</div>
		{:else if room.broken.includes(room.page)}
			<p class="note" dir={direction} role="alert">
				{room.say('pageCouldNot', { page: room.page })} <button onclick={() => room.again()}>{room.say('again')}</button>
			</p>
		{:else if room.lost}
			<p class="note" dir={direction} role="status">{room.say('lost')}</p>
		{:else if room.left !== null}
			<p class="note" dir={direction}>
				{room.say('youWere', { page: room.left })}
				<button onclick={() => room.go(room.left!)}>{room.say('goThere')}</button>
				<button onclick={() => (room.left = null)}>{room.say('dismiss')}</button>
			</p>
		{/if}
		{#if !room.started}<div class="said needs" dir={direction}>
				<p>{room.say('needsScript')}</p>
				{#if given.maySave}<p><a href={room.saveAddress} download>{room.say('saveInstead')}</a></p>{/if}
			</div>{/if}
	</div>
	{#if edge}<ForeEdge {room} />{/if}

	<footer class="sill" dir={direction} aria-label={room.say('tools')}>
		{#if over}<button class="edged" onclick={close}>{room.say('close')}</button>
		{:else if framed}<a
				class="edged"
				href="/d/{doc.slug}/read{given.from ? `?from=${encodeURIComponent(given.from)}` : ''}#page={room.page}"
				target="_blank"
				rel="noopener">{room.say('wholeWindow')}</a
			>
		{:else if room.has('back')}<a
				class="edged"
				href={given.back.path}
				title={given.back.title === null ? undefined : room.say('backTo', { title: given.back.title })}>{room.say('toSite')}</a
			>{/if}
		<strong class="title" lang={doc.language ?? undefined} dir="auto">{doc.title}</strong>
		<span class="turning" dir="ltr">
			<button onclick={() => room.step(-1)} disabled={room.page <= 1} aria-label={room.say('previous')}>‹</button>
			<label class="edged page"
				><input
					inputmode="numeric"
					aria-label={room.say('page')}
					bind:value={typed}
					style="width:{String(doc.pages).length + 0.6}ch"
					onchange={() => {
						room.go(Number.parseInt(typed, 10) || room.page);
						typed = String(room.page);
					}}
					onfocus={(e) => e.currentTarget.select()}
				/>
				{room.say('ofPages', { count: doc.pages })}</label
			>
			<button onclick={() => room.step(1)} disabled={room.page >= doc.pages} aria-label={room.say('next')}>›</button>
		</span>
		{#if room.trail.length}<button onclick={() => room.goBack()}>{room.say('backInDocument', { page: room.trail.at(-1)!.page })}</button>{/if}
		{#if room.has('ways')}<button
				class="wide"
				data-opens="ways"
				aria-expanded={room.panel === 'ways'}
				title={room.say('wayOfReading')}
				onclick={() => toggle('ways')}>{room.say(wayNames[room.way])}</button
			>{/if}
		{#if room.has('fit')}<button class="wide" data-opens="fit" aria-expanded={room.panel === 'fit'} title={room.say('fit')} onclick={() => toggle('fit')}
				>{typeof room.fit === 'number' ? `${Math.round(room.percent)} %` : room.say(fitNames[room.fit])}</button
			>{/if}
		<span class="space"></span>
		{#if room.has('find')}<button
				class="middle"
				class:lit={room.searchText && room.panel !== 'find'}
				data-opens="find"
				aria-expanded={room.panel === 'find'}
				onclick={() => toggle('find')}
				>{room.searchText && room.finding.count ? `${room.searchText}, ${room.say('times', { count: room.finding.count })}` : room.say('find')}</button
			>{/if}
		{#if room.has('print') && given.mayPrint}<button class="wide" data-opens="print" aria-expanded={room.panel === 'print'} onclick={() => toggle('print')}
				>{room.say('print')}</button
			>{/if}
		{#if room.has('save')}{#if given.maySave}<a class="middle" href={room.saveAddress} download>{room.say('save')}</a>{:else}<span
					class="middle soft"
					title={room.say('readOnlyMeans')}>{room.say('readOnly')}</span
				>{/if}{/if}
		<button data-opens="more" aria-expanded={room.panel === 'more'} onclick={() => toggle('more')}>{room.say('more')}</button>
	</footer>

	{#if room.panel}
		<div class="panel" dir={direction} role="dialog" aria-label={room.say(room.panel === 'ways' ? 'wayOfReading' : room.panel)}>
			{#if room.panel === 'find'}<FindPanel {room} />
			{:else if room.panel === 'print'}<PrintPanel {room} />
			{:else if room.panel === 'ways' || room.panel === 'fit'}{@render choices(room.panel)}
			{:else}
				<div class="narrow">
					{#if room.has('find')}<button onclick={() => (room.panel = 'find')}>{room.say('find')}</button>{/if}
					{#if room.has('print') && given.mayPrint}<button onclick={() => (room.panel = 'print')}>{room.say('print')}</button>{/if}
					{#if room.has('save') && given.maySave}<a href={room.saveAddress} download>{room.say('save')}</a>{/if}
					{#if room.has('ways')}<h2>{room.say('wayOfReading')}</h2>
						{@render choices('ways')}{/if}
					{#if room.has('fit')}<h2>{room.say('fit')}</h2>
						{@render choices('fit')}{/if}
				</div>
				{#if room.has('turn')}<button onclick={() => room.turn(-1)}>{room.say('turnLeft')}</button><button onclick={() => room.turn(1)}
						>{room.say('turnRight')}</button
					>{/if}
				{#if room.has('full-screen')}<button onclick={fullScreen}>{room.say(full ? 'leaveFullScreen' : 'fullScreen')}</button>{/if}
				{#if room.has('share')}<button onclick={share}
						>{room.say('share')}{#if copied}<em role="status">{room.say('copied')}</em>{/if}</button
					>{/if}
				{#if doc.attachments.length}
					<h2>{room.say('attachments')}</h2>
					{#each doc.attachments as name, i (i)}{#if given.hasFile}<a href="/d/{doc.slug}/attachment/{i + 1}?{room.suffix.slice(1)}" download={name}>{name}</a
							>{:else}<span class="item">{name}</span>{/if}{/each}
				{/if}
				{#if doc.outline.length}
					<h2>{room.say('contents')}</h2>
					<ol class="contents" dir="auto">
						{#each doc.outline as line, i (i)}<li style="padding-inline-start:{Math.min(4, line.depth) * 14}px">
								{#if line.page}<button onclick={() => room.go(line.page!)}><span>{line.title}</span><small>{line.page}</small></button>{:else}<span class="item"
										>{line.title}</span
									>{/if}
							</li>{/each}
					</ol>
				{/if}
				<h2>{room.say('colours')}</h2>
				<div class="pills">
					{#each [['system', 'asSystem'], ['light', 'light'], ['dark', 'dark']] as const as [theme, word] (theme)}<button
							aria-pressed={room.theme === theme}
							onclick={() => room.setTheme(theme)}>{room.say(word)}</button
						>{/each}
				</div>
				<h2>{room.say('language')}</h2>
				<div class="pills">
					{#each languages as language (language)}<a
							href={room.started ? spoken(language) : `?lang=${language}`}
							lang={language}
							hreflang={language}
							data-sveltekit-reload
							aria-current={language === given.language ? 'true' : undefined}>{languageNames[language]}</a
						>{/each}
				</div>
				<details id="keys">
					<summary>{room.say('keys')}</summary>
					<dl>
						{#each keyList as [key, word] (key)}<dt><kbd>{key}</kbd></dt>
							<dd>{room.say(word)}</dd>{/each}
					</dl>
				</details>
			{/if}
		</div>
	{/if}
	<p class="sr-only" aria-live="polite">{room.said}</p>
</div>
{#if !given.mayPrint}<p class="print-not">{room.say('printNot')}</p>{:else}<p class="print-not">{room.say('printByTool')}</p>{/if}

{#snippet choices(panel: 'ways' | 'fit')}
	{#if panel === 'ways'}
		<div class="pills">
			{#each Object.entries(wayNames) as [way, word] (way)}<button aria-pressed={room.way === way} onclick={() => room.setWay(way as typeof room.way)}
					>{room.say(word)}</button
				>{/each}
		</div>
		{#if room.way === 'book' || room.way === 'turning'}<label class="item"
				><input type="checkbox" checked={room.cover} onchange={(e) => room.setWay(room.way, e.currentTarget.checked)} />{room.say('coverAlone')}</label
			>{/if}
	{:else}
		<div class="pills">
			{#each Object.entries(fitNames) as [fit, word] (fit)}<button aria-pressed={room.fit === fit} onclick={() => room.setFit(fit as 'page')}
					>{room.say(word)}</button
				>{/each}
		</div>
		<div class="zoom" dir="ltr">
			<button onclick={() => room.zoom(-1)} aria-label={room.say('smaller')}>−</button>
			<output>{Math.round(room.percent)} %</output>
			<button onclick={() => room.zoom(1)} aria-label={room.say('larger')}>+</button>
		</div>
	{/if}
{/snippet}

<style>
	.room {
		position: relative;
		display: grid;
		grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) auto;
		height: 100dvh;
		overflow: hidden;
		background: var(--room-ground, var(--reading-ground));
		color: var(--ink);
		/* as large as the reader's own text */
		font-size: medium;
		container-type: inline-size;
	}
	.room[data-theme='light'] {
		color-scheme: light;
	}
	.room[data-theme='dark'] {
		color-scheme: dark;
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
	.framed .standin {
		inset: 0;
	}
	.by-turns .standin {
		align-content: center;
	}
	.standin img {
		background: #fff;
		object-fit: contain;
		height: auto;
		width: min(100cqw - 48px, (100cqh - 40px) * var(--shape));
	}
	.framed .standin img {
		width: min(100cqw, 100cqh * var(--shape));
	}
	.standin[data-fit='width'] img {
		width: calc(100cqw - 48px);
	}
	.framed .standin[data-fit='width'] img {
		width: 100cqw;
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
	.said,
	.note {
		position: absolute;
		z-index: 5;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: var(--corner);
	}
	.said {
		inset: 18% 0 auto;
		margin: auto;
		width: min(460px, calc(100% - 32px));
		padding: 22px 26px;
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
	.said h1 {
		font-size: 1.35em;
		margin: 0 0 8px;
	}
	.said p {
		margin: 8px 0 0;
	}
	.note {
		left: 50%;
		bottom: 14px;
		translate: -50%;
		margin: 0;
		padding: 6px 12px;
		max-width: calc(100% - 24px);
		width: max-content;
		display: flex;
		flex-wrap: wrap;
		gap: 4px 10px;
		align-items: center;
	}
	.sill {
		grid-column: 1 / -1;
		display: flex;
		align-items: center;
		gap: 0.5em;
		min-height: 3.5em;
		padding: 0.35em 1em;
		background: var(--sill, var(--verdigris-deep));
		color: #fff;
		position: relative;
		z-index: 4;
		font-size: 0.95em;
	}
	.sill a,
	.sill button,
	.sill .soft {
		color: inherit;
		text-decoration: none;
		min-height: 2.5em;
		display: inline-flex;
		align-items: center;
		padding: 0 0.7em;
		border: 1px solid transparent;
		border-radius: var(--corner);
		white-space: nowrap;
		background: none;
		font: inherit;
		cursor: pointer;
	}
	.sill .soft {
		opacity: 0.9;
		cursor: default;
	}
	.sill a:hover,
	.sill button:hover:not(:disabled),
	.sill [aria-expanded='true'] {
		border-color: #ffffff80;
	}
	.sill button:disabled {
		opacity: 0.45;
		cursor: default;
	}
	.sill .edged {
		border: 1px solid #ffffff66;
	}
	.sill .lit {
		border-color: #dcb269;
		color: #f6dfae;
		max-width: 16em;
		overflow: hidden;
		text-overflow: ellipsis;
		display: inline-block;
	}
	.sill :focus-visible {
		outline-color: #f1d9a6;
	}
	.title {
		font: 600 1.08em var(--title);
		flex: 0 1 auto;
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		margin-inline-end: auto;
	}
	.space {
		flex: 1;
	}
	.turning {
		display: flex;
		align-items: center;
	}
	.turning button {
		font-size: 1.4em;
		min-height: 1.75em;
	}
	.page {
		min-height: 2.5em;
		padding: 0 0.7em;
		border-radius: var(--corner);
		display: inline-flex;
		align-items: center;
		gap: 0.45em;
		white-space: nowrap;
	}
	.sill .page input {
		border: 0;
		background: transparent;
		color: inherit;
		text-align: right;
		font: 600 1.05em var(--title);
		padding: 0;
		min-width: 1.6ch;
	}
	.panel {
		position: absolute;
		z-index: 8;
		right: 12px;
		bottom: calc(4em + 4px);
		width: min(340px, calc(100% - 24px));
		max-height: calc(100dvh - 5.5em);
		overflow: auto;
		padding: 14px;
		background: var(--sheet);
		color: var(--ink);
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		box-shadow: 0 6px 22px rgb(0 0 0 / 0.22);
		font-size: 0.95em;
	}
	.panel :global(button),
	.panel :global(a),
	.panel .item {
		display: flex;
		align-items: center;
		gap: 8px;
		min-height: 2.4em;
		padding: 0.3em 0.6em;
		border: 1px solid transparent;
		border-radius: var(--corner);
		color: inherit;
		background: none;
		text-decoration: none;
		text-align: start;
		box-sizing: border-box;
		font: inherit;
		cursor: pointer;
	}
	.panel > button,
	.panel > a,
	.narrow > button,
	.narrow > a {
		width: 100%;
	}
	.panel .item {
		cursor: default;
	}
	.panel label.item {
		cursor: pointer;
	}
	.panel :global(button:hover:not(:disabled)),
	.panel :global(a:hover) {
		background: var(--verdigris-wash);
	}
	.panel :global(button:disabled) {
		opacity: 0.5;
		cursor: default;
	}
	.panel h2 {
		font: 600 0.95em var(--title);
		margin: 12px 0 4px;
	}
	.pills {
		display: flex;
		flex-wrap: wrap;
		gap: 5px;
	}
	.pills button,
	.pills a,
	.zoom button {
		border-color: var(--edge) !important;
	}
	.pills [aria-pressed='true'],
	.pills [aria-current] {
		background: var(--brass-wash);
		border-color: var(--brass-bright) !important;
		font-weight: 600;
	}
	.zoom {
		display: flex;
		align-items: center;
		gap: 8px;
		margin-top: 8px;
	}
	.zoom button {
		width: 2.6em;
		justify-content: center;
	}
	.zoom output {
		min-width: 4.5ch;
		text-align: center;
		font: 600 1em var(--title);
	}
	.contents {
		list-style: none;
		margin: 0;
		padding: 0;
		max-height: 40vh;
		overflow: auto;
	}
	.contents button {
		width: 100%;
		justify-content: space-between;
	}
	.contents small,
	em {
		color: var(--ink-soft);
		margin-inline-start: auto;
		font-style: normal;
	}
	.panel :global(.main),
	.said .main {
		background: var(--verdigris);
		color: var(--on-verdigris);
	}
	.panel :global(.main:hover:not(:disabled)) {
		background: var(--verdigris-deep);
		color: #fff;
	}
	details {
		margin-top: 12px;
	}
	summary {
		cursor: pointer;
		min-height: 2em;
	}
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 4px 12px;
		margin: 4px 0 0;
		font-size: 0.92em;
	}
	dd {
		margin: 0;
	}
	kbd {
		font: 600 0.95em var(--body);
		direction: ltr;
		unicode-bidi: isolate;
	}
	.narrow {
		display: none;
	}
	/* in a frame on a page the sill is lower and nothing stands around the leaf */
	.framed .sill {
		min-height: 46px;
		height: 46px;
		padding: 3px 8px;
		gap: 2px;
		font-size: 14px;
		overflow: hidden;
	}
	.framed .panel {
		bottom: 52px;
		max-height: calc(100% - 62px);
	}
	/* tools that come when they are wanted */
	.hides .sill {
		position: absolute;
		inset: auto 0 0;
		transform: translateY(calc(100% - 6px));
		transition: transform 0.18s;
	}
	.hides.wanted .sill,
	.hides .sill:focus-within {
		transform: none;
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
	@container (max-width: 860px) {
		.wide {
			display: none !important;
		}
		.narrow {
			display: block;
		}
	}
	@container (max-width: 620px) {
		.sill {
			gap: 0.2em;
			padding: 0.3em 0.5em;
		}
		.middle,
		.space {
			display: none !important;
		}
		.room:not(.framed) .title {
			order: -1;
			flex: 0 0 100%;
			padding: 0.25em 0.3em 0;
			font-size: 1em;
		}
		.room:not(.framed) .sill {
			flex-wrap: wrap;
			justify-content: space-between;
		}
		.framed .title {
			display: none;
		}
		.turning {
			margin: 0 auto;
		}
		.room:not(.framed) .panel {
			bottom: 6em;
			max-height: calc(100dvh - 7em);
		}
		.standin {
			inset: 6px;
		}
		.standin img,
		.standin[data-fit='width'] img {
			width: min(100cqw - 12px, 100cqw - 12px);
		}
	}
</style>
