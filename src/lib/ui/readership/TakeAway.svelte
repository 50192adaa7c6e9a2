<!-- What a part of a report can be taken away as. -->
<script lang="ts">
	import { page } from '$app/state';
	import { answerTo } from '$lib/ui/parts/act';
	import { fileAt } from '$lib/ui/parts/api';
	import { Button } from '$lib/ui/parts/controls';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { keep, keepPng } from './keep';

	let {
		report,
		table,
		canvas
	}: {
		/** The report, by its address below `/api/v1/readership/`, and the name of its table there: the server gives every line, the screen shows some. */
		report: string;
		table: string;
		/** The chart, where there is one to be kept as a picture. */
		canvas?: () => HTMLCanvasElement | null;
	} = $props();
	let open = $state(false);
	/** The same time and edition as on the screen. */
	const address = $derived.by(() => {
		const asked = [...page.url.searchParams].filter(([name]) => ['days', 'from', 'until', 'by', 'edition'].includes(name));
		return `/api/v1/readership/${report}?${new URLSearchParams([['table', table], ...asked])}`;
	});
	const name = $derived(`${report.replaceAll('/', '-')}-${table}`);
	async function take(ending: 'csv' | 'json') {
		open = false;
		const file = await answerTo(fileAt(ending === 'csv' ? `${address}&format=csv&mark` : address, `${name}.${ending}`));
		if (file) keep(file.name, file.content);
	}
</script>

<span class="take"
	><Popup label="Take away" bind:open end width={190}>
		<Button kind="bare" class="line" onclick={() => take('csv')}>Table as CSV</Button>
		<Button kind="bare" class="line" onclick={() => take('json')}>Table as JSON</Button>
		{#if canvas?.()}<Button
				kind="bare"
				class="line"
				onclick={() => {
					const drawn = canvas();
					if (drawn) keepPng(name, drawn);
					open = false;
				}}>Chart as PNG</Button
			>{/if}
	</Popup></span
>

<style>
	/* several stand on one screen: quiet, as the words beside them */
	.take :global(.pill) {
		border-color: transparent;
		background: none;
		color: var(--verdigris);
		font: 400 13px var(--body);
		padding: 0;
		height: auto;
	}
	.take :global(.pill:hover) {
		text-decoration: underline;
	}
	.take :global(.line) {
		display: block;
		width: 100%;
		padding: 7px 8px;
		text-align: left;
		font: 400 14px var(--body);
		color: var(--ink);
		background: none;
		border: 0;
		cursor: pointer;
	}
	.take :global(.line:hover),
	.take :global(.line:focus-visible) {
		background: var(--sunk);
	}
	@media print {
		.take {
			display: none;
		}
	}
</style>
