<!-- Reads a text aloud with the browser's own voices: the sentence being read is marked and kept in sight; a pause, and how fast. Not there where
     the browser has no voices. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { sentencesOf } from '#core/reading/sentences';
	import { words } from '$lib/ui/parts/words';
	let { within, language }: { /** Where the text is: its elements with `data-say`, in their order. */ within: () => HTMLElement; language: string } = $props();
	let can = $state(false);
	let reading = $state<'no' | 'yes' | 'paused'>('no');
	let rate = $state(1);
	/** What is read: sentences with the place of each. */
	let queue: { element: HTMLElement; from: number; until: number; text: string }[] = [];
	let at = 0;
	onMount(() => {
		can = 'speechSynthesis' in window;
		return () => {
			if (can) stop();
		};
	});
	function mark(element: HTMLElement, from: number, until: number): void {
		const node = element.firstChild;
		if (!('highlights' in CSS) || !(node instanceof Text)) return;
		const range = new Range();
		range.setStart(node, Math.min(from, node.length));
		range.setEnd(node, Math.min(until, node.length));
		CSS.highlights.set('spoken', new Highlight(range));
	}
	function say(): void {
		const next = queue[at];
		if (!next) return stop();
		mark(next.element, next.from, next.until);
		const { top, bottom } = next.element.getBoundingClientRect();
		if (top < 60 || bottom > innerHeight - 90) next.element.scrollIntoView({ block: 'center', behavior: 'smooth' });
		const utterance = new SpeechSynthesisUtterance(next.text);
		utterance.lang = language;
		utterance.rate = rate;
		utterance.onend = () => {
			if (reading !== 'yes') return;
			at++;
			say();
		};
		speechSynthesis.speak(utterance);
	}
	function begin(): void {
		const elements = [...within().querySelectorAll<HTMLElement>('[data-say]')];
		queue = elements.flatMap((element) => sentencesOf(element.textContent ?? '', language).map((sentence) => ({ element, ...sentence })));
		// from what stands in the window on
		at = Math.max(
			0,
			queue.findIndex(({ element }) => element.getBoundingClientRect().bottom > 80)
		);
		reading = 'yes';
		speechSynthesis.cancel();
		say();
	}
	function pause(): void {
		reading = 'paused';
		// begun again with its sentence: browsers lose a voice that is held for long
		speechSynthesis.cancel();
	}
	function goOn(): void {
		reading = 'yes';
		say();
	}
	function stop(): void {
		reading = 'no';
		speechSynthesis.cancel();
		if ('highlights' in CSS) CSS.highlights.delete('spoken');
	}
	function faster(): void {
		rate = rate >= 2 ? 0.75 : rate + 0.25;
		if (reading !== 'yes') return;
		pause();
		goOn();
	}
</script>

{#if can}
	{#if reading === 'no'}<button class="btn" onclick={begin}>{words('readAloud')}</button>
	{:else}
		<button class="btn" onclick={reading === 'yes' ? pause : goOn}>{words(reading === 'yes' ? 'pause' : 'goOnReading')}</button>
		<button class="btn" onclick={faster} aria-label="{words('speed')}: {rate}">{rate}×</button>
		<button class="btn" onclick={stop}>{words('stop')}</button>
	{/if}
{/if}

<style>
	:global(::highlight(spoken)) {
		background: #f6dfa6;
		color: #1b2a29;
	}
</style>
