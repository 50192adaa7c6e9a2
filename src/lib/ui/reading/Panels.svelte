<!-- The panel above the sill: find, print, the ways of reading, the fit, or everything else. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { directionOf } from '#core/words/words';
	import FindPanel from './FindPanel.svelte';
	import MorePanel from './MorePanel.svelte';
	import PrintPanel from './PrintPanel.svelte';
	import { fitNames, wayNames } from './names';
	import type { RoomGiven } from './given';
	import type { Room } from './room.svelte';

	let { room, given, full, fullScreen }: { room: Room; given: RoomGiven; full: boolean; fullScreen: () => void } = $props();
	const direction = untrack(() => directionOf(given.language));
</script>

{#if room.panel}
	<div class="panel" dir={direction} role="dialog" aria-label={room.say(room.panel === 'ways' ? 'wayOfReading' : room.panel)}>
		{#if room.panel === 'find'}<FindPanel {room} />
		{:else if room.panel === 'print'}<PrintPanel {room} />
		{:else if room.panel === 'ways' || room.panel === 'fit'}{@render choices(room.panel)}
		{:else}<MorePanel {room} {given} {full} {fullScreen} {choices} />
		{/if}
	</div>
{/if}

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
	.panel :global(.item) {
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
	.panel :global(.item) {
		cursor: default;
	}
	.panel :global(label.item) {
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
	.panel :global(.pills) {
		display: flex;
		flex-wrap: wrap;
		gap: 5px;
	}
	.panel :global(.pills button),
	.panel :global(.pills a),
	.zoom button {
		border-color: var(--edge) !important;
	}
	.panel :global(.pills [aria-pressed='true']),
	.panel :global(.pills [aria-current]) {
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

	.panel :global(.main) {
		background: var(--verdigris);
		color: var(--on-verdigris);
	}
	.panel :global(.main:hover:not(:disabled)) {
		background: var(--verdigris-deep);
		color: #fff;
	}
	:global(.framed) .panel {
		bottom: 52px;
		max-height: calc(100% - 62px);
	}
	@container (max-width: 620px) {
		:global(.room:not(.framed)) .panel {
			bottom: 6em;
			max-height: calc(100dvh - 7em);
		}
	}
</style>
