<!-- A document's passage as four arches, each a press away from its station in the sheet, with words on hover and focus. -->
<script lang="ts">
	import Arch from './Arch.svelte';
	type State = 'done' | 'to-do' | 'wrong';
	let { passage, href }: { passage: Record<'in' | 'door' | 'placed' | 'read', State>; href: string } = $props();

	const words: Record<'in' | 'door' | 'placed' | 'read', Record<State, string>> = {
		in: { done: 'In: brought in and checked', 'to-do': 'In: being checked', wrong: 'In: cannot be shown' },
		door: { done: 'Door: set', 'to-do': 'Door: still shut', wrong: 'Door: needs a hand' },
		placed: { done: 'Placed or listed on a published page', 'to-do': 'Not placed on a published page yet', wrong: 'Placed: needs a hand' },
		read: { done: 'Read by somebody', 'to-do': 'Not read by anybody yet', wrong: 'Read: needs a hand' }
	};
	const stations = ['in', 'door', 'placed', 'read'] as const;
</script>

<span class="inline-flex gap-[2px]">
	{#each stations as station (station)}
		{@const text = words[station][passage[station]]}
		<a href="{href}#{station}" title={text} aria-label={text} tabindex="-1" class="block"><Arch state={passage[station]} /></a>
	{/each}
</span>
