<!-- Door: who comes in, tried from here, and the keys. T tries the door, K issues a key. -->
<script lang="ts">
	import type { DoorChange } from '#core/access/door';
	import type { KeyView } from '$lib/server/access/key-list';
	import type { DocumentView } from '$lib/server/documents/view';
	import type { GroupRow } from '$lib/server/people/directory';
	import DoorPicker from '$lib/ui/access/DoorPicker.svelte';
	import Keys from '$lib/ui/access/Keys.svelte';
	import TryDoor from '$lib/ui/access/TryDoor.svelte';
	import { isTyping } from '$lib/ui/parts/shortcuts';
	import { dayText } from '$lib/ui/parts/when';
	import Station from './Station.svelte';

	let {
		view,
		zone,
		groups,
		allMembers,
		keys,
		pages,
		change
	}: {
		view: DocumentView;
		zone: string;
		groups: readonly GroupRow[];
		/** How many people "all members" comes to today. */
		allMembers: number;
		keys: readonly KeyView[];
		/** Pages whose door it may follow. */
		pages: readonly { path: string; title: string }[];
		change: (door: DoorChange) => void;
	} = $props();
	const door = $derived(view.door);
	let trying = $state(false);
	let issuing = $state(false);

	function shortcut(event: KeyboardEvent) {
		if (isTyping(event) || event.defaultPrevented) return;
		if (event.key === 't') trying = true;
		else if (event.key === 'k') issuing = true;
		else return;
		event.preventDefault();
		document.getElementById(event.key === 't' ? 'try-door' : 'issue-key')?.scrollIntoView({ block: 'center' });
	}
</script>

<svelte:window onkeydown={shortcut} />
<Station
	id="door"
	name="Door"
	word="Door"
	about="set {door.changedBy ? `by ${door.changedBy}, ` : ''}{dayText(door.changedAt, zone)}"
	state={door.inForce === 'shut' ? 'to-do' : 'done'}
>
	<DoorPicker {door} {groups} {allMembers} {zone} {pages} {change} />
	{#key view.id}
		<TryDoor slug={view.slug} {groups} {keys} {zone} door={door.changedAt} bind:open={trying} />
		<Keys slug={view.slug} {keys} position={door.inForce} {zone} bind:open={issuing} />
	{/key}
</Station>
