<!-- What a part of a report can be taken away as. -->
<script lang="ts">
	import { Button } from '$lib/ui/parts/controls';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { keepCsv, keepJson, keepPng, type Table } from './take-away';

	let {
		name,
		table,
		csv,
		canvas
	}: {
		/** Of the file, without its ending. */
		name: string;
		table: () => Table;
		/** Where the server gives the whole table, of which the screen may show a part. */
		csv?: string;
		/** The chart, where there is one to be kept as a picture. */
		canvas?: () => HTMLCanvasElement | null;
	} = $props();
	let open = $state(false);
	function take(how: () => void) {
		how();
		open = false;
	}
</script>

<span class="take"
	><Popup label="Take away" bind:open end width={190}>
		{#if csv}<Button kind="bare" class="line" href={csv} download onclick={() => (open = false)}>Table as CSV</Button>
		{:else}<Button kind="bare" class="line" onclick={() => take(() => keepCsv(name, table()))}>Table as CSV</Button>{/if}
		<Button kind="bare" class="line" onclick={() => take(() => keepJson(name, table()))}>Table as JSON</Button>
		{#if canvas?.()}<Button
				kind="bare"
				class="line"
				onclick={() =>
					take(() => {
						const drawn = canvas();
						if (drawn) keepPng(name, drawn);
					})}>Chart as PNG</Button
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
