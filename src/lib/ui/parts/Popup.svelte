<!-- A button that opens a small panel beneath it; Escape, a press outside, or leaving it by keyboard closes it. -->
<script lang="ts">
	import type { Snippet } from 'svelte';

	let {
		label,
		on = false,
		disabled = false,
		end = false,
		up = false,
		width = 240,
		plain = false,
		open = $bindable(false),
		children
	}: {
		label: string;
		/** Marked as in use. */
		on?: boolean;
		disabled?: boolean;
		/** Right edges meet instead of left ones. */
		end?: boolean;
		/** Opens upwards. */
		up?: boolean;
		/** Of the panel, px. */
		width?: number;
		/** A button instead of a pill. */
		plain?: boolean;
		open?: boolean;
		children: Snippet;
	} = $props();
	let root = $state<HTMLElement>();
	let button = $state<HTMLButtonElement>();
</script>

<svelte:window
	onpointerdown={(e) => {
		if (open && root && !root.contains(e.target as Node)) open = false;
	}}
/>

<span
	class="popup"
	bind:this={root}
	onfocusout={(e) => {
		if (e.relatedTarget && !root?.contains(e.relatedTarget as Node)) open = false;
	}}
>
	<button
		type="button"
		class={plain ? 'btn' : 'pill'}
		class:on
		{disabled}
		bind:this={button}
		aria-expanded={open}
		onclick={() => (open = !open)}
		onkeydown={(e) => {
			if (e.key === 'ArrowDown' && !open) {
				open = true;
				e.preventDefault();
			}
		}}
		>{label}
		<svg width="9" height="6" viewBox="0 0 9 6" aria-hidden="true"><path d="M1 1l3.5 3.5L8 1" fill="none" stroke="currentColor" stroke-width="1.4" /></svg
		></button
	>
	{#if open}
		<!-- svelte-ignore a11y_no_static_element_interactions -->
		<div
			class="panel"
			class:end
			class:up
			style:width="{width}px"
			onkeydown={(e) => {
				if (e.key !== 'Escape') return;
				open = false;
				e.stopPropagation();
				button?.focus();
			}}
		>
			{@render children()}
		</div>
	{/if}
</span>

<style>
	.popup {
		position: relative;
		display: inline-block;
	}
	.panel {
		position: absolute;
		left: 0;
		top: calc(100% + 4px);
		z-index: 25;
		max-width: calc(100vw - 24px);
		max-height: min(440px, 62vh);
		overflow: auto;
		padding: 8px;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		box-shadow: var(--shadow-lg);
		white-space: normal;
	}
	.panel.end {
		left: auto;
		right: 0;
	}
	.panel.up {
		top: auto;
		bottom: calc(100% + 4px);
	}
</style>
