<!-- Print: the whole document, this page, or some pages; with progress and a way to stop. -->
<script lang="ts">
	import { onDestroy } from 'svelte';
	import { printRange } from '#core/reading/print-range';
	import { drawForPrint, printPages } from './print';
	import type { Room } from './room.svelte';
	let { room }: { room: Room } = $props();
	const pages = $derived(room.given.document.pages);
	let which = $state<'whole' | 'this' | 'some'>('whole');
	let typed = $state('');
	let done = $state(0);
	let wanted = $state(0);
	let trouble = $state('');
	/** More pages than this are asked about first: each is drawn as a picture, and kept until the printer has it. */
	const many = 200;
	let asked = $state(0);
	let stop: AbortController | undefined;
	onDestroy(() => stop?.abort());

	async function print() {
		const chosen = which === 'whole' ? Array.from({ length: pages }, (_, i) => i + 1) : which === 'this' ? [room.page] : printRange(typed, pages);
		trouble = '';
		if (!chosen) return (trouble = room.say('noSuchPages'));
		if (!room.viewer) return;
		if (chosen.length > many && asked !== chosen.length) {
			asked = chosen.length;
			return;
		}
		asked = 0;
		stop = new AbortController();
		wanted = chosen.length;
		try {
			const drawn = await drawForPrint(room.viewer.pdf, chosen, (n) => (done = n), stop.signal);
			room.tellPrinted();
			await printPages(drawn);
			room.panel = null;
		} catch {
			if (!stop.signal.aborted) trouble = room.say('couldNot');
		} finally {
			wanted = done = 0;
		}
	}
</script>

{#if wanted}
	<p role="status">{room.say('pageByPage', { page: done, count: wanted })}</p>
	<progress max={wanted} value={done} aria-label={room.say('print')}></progress>
	<button class="wide" onclick={() => stop?.abort()}>{room.say('stop')}</button>
{:else}
	<form
		onsubmit={(e) => {
			e.preventDefault();
			void print();
		}}
	>
		<label><input type="radio" bind:group={which} value="whole" />{room.say('printWhole')}</label>
		<label><input type="radio" bind:group={which} value="this" />{room.say('printThis')} ({room.page})</label>
		<label
			><input type="radio" bind:group={which} value="some" />{room.say('printSome')}
			<input class="range" aria-label={room.say('printSome')} placeholder={room.say('printHint')} bind:value={typed} onfocus={() => (which = 'some')} /></label
		>
		{#if trouble}<p role="alert">{trouble}</p>{/if}
		{#if asked}<p role="alert">{room.say('printMany', { count: asked })}</p>{/if}
		<button class="wide main" disabled={!room.viewer}>{room.say(asked ? 'printAnyway' : 'print')}</button>
	</form>
{/if}

<style>
	label {
		display: flex;
		align-items: center;
		gap: 8px;
		min-height: 38px;
	}
	.range {
		flex: 1;
		min-width: 0;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		padding: 5px 8px;
		font: inherit;
	}
	progress {
		width: 100%;
		accent-color: var(--verdigris);
	}
	.wide {
		width: 100%;
		justify-content: center;
		margin-top: 8px;
	}
</style>
