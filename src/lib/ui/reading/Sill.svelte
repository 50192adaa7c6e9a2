<!-- The sill below the pages: the way out, the title, turning, and what opens a panel. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { directionOf } from '#core/words/words';
	import { fitNames, wayNames } from './names';
	import { saveWritten } from './save-written';
	import type { RoomGiven } from './given';
	import type { Panel, Room } from './room.svelte';

	let { room, given, close }: { room: Room; given: RoomGiven; close: () => void } = $props();
	const doc = $derived(given.document);
	const direction = untrack(() => directionOf(given.language));
	const over = untrack(() => given.place === 'over');
	let typed = $derived(String(room.page));
	const toggle = (panel: Panel) => (room.panel = room.panel === panel ? null : panel);
</script>

{#snippet step(by: 1 | -1, sign: string)}
	<button onclick={() => room.step(by)} disabled={by === 1 ? room.page >= doc.pages : room.page <= 1} aria-label={room.say(by === 1 ? 'next' : 'previous')}
		>{sign}</button
	>
{/snippet}

<footer class="sill" dir={direction} aria-label={room.say('tools')}>
	{#if over}<button class="edged" onclick={close}>{room.say('close')}</button>
	{:else if room.framed}<a
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
	<h1 class="title" lang={doc.language ?? undefined} dir="auto">{doc.title}</h1>
	<span class="turning" dir="ltr">
		{@render step(room.fromRight ? 1 : -1, '‹')}
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
		{@render step(room.fromRight ? -1 : 1, '›')}
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
	{#if room.written && given.maySave}<button class="edged" onclick={() => void saveWritten(room)}>{room.say('saveWritten')}</button>{/if}
	{#if room.has('save')}{#if given.maySave}<a class="middle" href={room.saveAddress} download>{room.say('save')}</a>{:else}<span
				class="middle soft"
				title={room.say('readOnlyMeans')}>{room.say('readOnly')}</span
			>{/if}{/if}
	<button data-opens="more" aria-expanded={room.panel === 'more'} onclick={() => toggle('more')}>{room.say('more')}</button>
</footer>

<style>
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
		margin: 0;
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
	/* in a frame on a page the sill is lower and nothing stands around the leaf */
	:global(.framed) .sill {
		min-height: 46px;
		height: 46px;
		padding: 3px 8px;
		gap: 2px;
		font-size: 14px;
		overflow: hidden;
	}
	/* tools that come when they are wanted */
	:global(.hides) .sill {
		position: absolute;
		inset: auto 0 0;
		transform: translateY(calc(100% - 6px));
		transition: transform 0.18s;
	}
	:global(.hides.wanted) .sill,
	:global(.hides) .sill:focus-within {
		transform: none;
	}
	/* a low window, as at 400 %: one row, and the title only where it is asked for */
	@media (max-height: 420px) {
		.sill {
			min-height: 0;
			padding-block: 2px;
		}
	}
	@container (max-width: 860px) {
		.wide {
			display: none !important;
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
		@media (min-height: 421px) {
			:global(.room:not(.framed)) .title {
				order: -1;
				flex: 0 0 100%;
				padding: 0.25em 0.3em 0;
				font-size: 1em;
			}
			:global(.room:not(.framed)) .sill {
				flex-wrap: wrap;
				justify-content: space-between;
			}
		}
		@media (max-height: 420px) {
			/* there for who does not see it */
			.title {
				position: absolute;
				width: 1px;
				height: 1px;
				clip-path: inset(50%);
			}
			.sill {
				flex-wrap: wrap;
			}
			.sill a,
			.sill button,
			.sill .page {
				padding: 0 0.45em;
			}
			.sill a.edged,
			.sill button.edged {
				flex: 1 1 3em;
				min-width: 0;
				max-width: max-content;
				display: block;
				line-height: 2.5em;
				overflow: hidden;
				text-overflow: ellipsis;
			}
		}
		:global(.framed) .title {
			display: none;
		}
		.turning {
			margin: 0 auto;
		}
	}
</style>
