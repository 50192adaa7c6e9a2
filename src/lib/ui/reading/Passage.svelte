<!-- Words that are chosen on a page: a link to them, which finds them again in a new edition too, and the same as a quotation. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { passageOf, toPassage } from '#core/reading/fragment';
	import type { RoomGiven } from './given';
	import type { Room } from './room.svelte';
	let { room, given, within }: { room: Room; given: RoomGiven; within: HTMLElement | undefined } = $props();
	let chosen = $state<{ text: string; page: number; x: number; y: number } | null>(null);
	let copied = $state(false);
	let away: ReturnType<typeof setTimeout> | undefined;

	function look(): void {
		const selection = getSelection();
		const range = selection && selection.rangeCount > 0 && !selection.isCollapsed ? selection.getRangeAt(0) : null;
		const start = range?.startContainer;
		const layer = (start instanceof Element ? start : start?.parentElement)?.closest('.textLayer');
		const text = passageOf(selection?.toString() ?? '');
		if (!range || !layer || !within?.contains(layer) || text.length < 2) {
			chosen = null;
			return;
		}
		const [box, ground] = [range.getBoundingClientRect(), within.getBoundingClientRect()];
		const page = Number(layer.closest<HTMLElement>('.page')?.dataset.pageNumber ?? room.page);
		// the same words somewhere else in the window, as after scrolling, are still copied
		copied &&= chosen?.text === text && chosen.page === page;
		chosen = {
			text,
			page,
			x: Math.min(Math.max(box.left + box.width / 2 - ground.left, 130), Math.max(130, ground.width - 130)),
			y: Math.max(8, Math.min(box.top - ground.top - 52, ground.height - 60))
		};
	}
	onMount(() => {
		// not while the hand still moves
		const wait = () => {
			clearTimeout(away);
			away = setTimeout(look, 250);
		};
		document.addEventListener('selectionchange', wait);
		within?.addEventListener('scroll', wait, { passive: true });
		return () => {
			clearTimeout(away);
			document.removeEventListener('selectionchange', wait);
			within?.removeEventListener('scroll', wait);
		};
	});
	async function copy(text: string) {
		await navigator.clipboard?.writeText(text).then(
			() => (copied = true),
			() => undefined
		);
	}
	const address = (to: { text: string; page: number }) => `${location.origin}/d/${given.document.slug}/read${toPassage(to.page, to.text)}`;
	const quotation = (to: { text: string; page: number }) =>
		`“${to.text}”\n${given.document.title}, ${room.say('page').toLowerCase()} ${to.page}\n${address(to)}`;
</script>

{#if chosen}
	{@const to = chosen}
	<!-- pressing leaves chosen what is chosen -->
	<div
		class="passage"
		style="left:{to.x}px;top:{to.y}px"
		role="toolbar"
		tabindex="-1"
		aria-label={room.say('chosenWords')}
		onmousedown={(e) => e.preventDefault()}
	>
		{#if copied}<span role="status">{room.say('copied')}</span>
		{:else}
			<button onclick={() => copy(address(to))}>{room.say('copyPassage')}</button>
			<button onclick={() => copy(quotation(to))}>{room.say('copyQuotation')}</button>
		{/if}
	</div>
{/if}

<style>
	.passage {
		position: absolute;
		z-index: 5;
		translate: -50% 0;
		display: flex;
		max-width: calc(100% - 16px);
		background: var(--sheet);
		color: var(--ink);
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		font-size: 15px;
	}
	button,
	span {
		min-height: 44px;
		padding: 4px 12px;
		align-content: center;
		white-space: nowrap;
		cursor: pointer;
	}
	button + button {
		border-inline-start: 1px solid var(--line);
	}
	button:hover {
		text-decoration: underline;
	}
</style>
