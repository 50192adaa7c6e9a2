<!-- A word of the house as it stands on a screen: a press says what it means. -->
<script lang="ts">
	import { meaningOf, type HouseWord } from '$lib/ui/help/house-words';

	let { word, shown = word }: { word: HouseWord; /** As it stands here. */ shown?: string } = $props();
	const id = $props.id();
	let button = $state<HTMLButtonElement>();

	/** Below the word, within the window: what is on top of everything is not laid out beside it. */
	function place(panel: HTMLElement) {
		const at = button?.getBoundingClientRect();
		if (!at) return;
		panel.style.left = `${Math.max(8, Math.min(at.left, innerWidth - 8 - panel.offsetWidth))}px`;
		panel.style.top = `${at.bottom + 6 + panel.offsetHeight > innerHeight ? at.top - 6 - panel.offsetHeight : at.bottom + 6}px`;
	}
</script>

<button type="button" bind:this={button} popovertarget={id} aria-label="{shown}: what it means">{shown}</button><span
	{id}
	popover
	role="note"
	ontoggle={(e) => place(e.currentTarget)}
	>{meaningOf(word)}
	<a href="/desk/help?q={encodeURIComponent(word)}#words">In the handbook</a></span
>

<style>
	button {
		font: inherit;
		color: inherit;
		background: none;
		border: 0;
		padding: 0;
		cursor: help;
		text-align: start;
		text-decoration: underline dotted 1px var(--ink-soft);
		text-underline-offset: 0.22em;
	}
	span {
		position: fixed;
		inset: auto;
		margin: 0;
		width: min(320px, 100vw - 16px);
		padding: 9px 12px;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		background: var(--sheet);
		color: var(--ink);
		box-shadow: var(--shadow-lg);
		font: 400 13.5px/1.45 var(--body);
		white-space: normal;
		text-align: start;
	}
	a {
		display: block;
		margin-top: 4px;
	}
</style>
