<!-- The bar over a list in which several are chosen: how many, what can be done with them, and what went wrong. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { Button } from '$lib/ui/parts/controls';

	let {
		label,
		words,
		none,
		trouble = '',
		children,
		note
	}: {
		label: string;
		/** '3 people'. */
		words: string;
		/** Chooses none. */
		none: () => void;
		trouble?: string;
		/** The presses, in a row. */
		children: Snippet;
		/** What is to be known beforehand. */
		note?: string;
	} = $props();
</script>

<div class="chosen" role="region" aria-label={label}>
	<p><strong>{words} chosen</strong> <Button kind="quiet" onclick={none}>Choose none</Button></p>
	<div class="flex flex-wrap items-end gap-2">{@render children()}</div>
	{#if note}<p class="note">{note}</p>{/if}
	{#if trouble}<p class="trouble" role="alert">{trouble}</p>{/if}
</div>

<style>
	.chosen {
		position: sticky;
		top: var(--lintel);
		z-index: 2;
		padding: 10px 12px;
		margin-bottom: 10px;
		border: 1px solid var(--brass-bright);
		border-radius: var(--corner);
		background: var(--brass-wash);
	}
	.chosen :global(label) {
		display: flex;
		align-items: center;
		gap: 6px;
		font-size: 13px;
	}
	.note {
		margin-top: 6px;
		font-size: 13px;
		color: var(--ink-soft);
	}
</style>
