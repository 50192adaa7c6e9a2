<!-- Just now: the last minutes as they happen. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { counted } from '#core/text/list';
	import type { LedgerItem } from '$lib/server/readership/ledger';
	import Hall from '$lib/ui/readership/Hall.svelte';
	import LedgerTable from '$lib/ui/readership/LedgerTable.svelte';
	let { data } = $props();
	let items = $state<LedgerItem[]>([]);
	let line = $state<'waiting' | 'here' | 'away'>('waiting');
	let now = $state(Date.now());
	const minute = 60_000;
	/** So many lines are kept in view. */
	const most = 100;

	onMount(() => {
		const source = new EventSource('/api/v1/readership/live');
		source.onopen = () => (line = 'here');
		source.onerror = () => (line = 'away');
		source.onmessage = (event: MessageEvent<string>) => {
			const item = JSON.parse(event.data) as LedgerItem;
			if (!items.some((i) => i.id === item.id)) items = [item, ...items].slice(0, most);
		};
		const clock = setInterval(() => (now = Date.now()), 5_000);
		return () => {
			source.close();
			clearInterval(clock);
		};
	});
	const people = $derived(items.filter((i) => !i.staff && !i.robot && Date.parse(i.at) > now - 5 * minute));
	const reading = $derived(
		new Set(people.filter((i) => i.kind === 'read' || i.kind === 'opened').map((i) => `${i.document} ${i.who.email ?? i.who.name ?? i.id}`)).size
	);
	const answer = $derived(
		people.length
			? [
					{ text: counted(people.length, 'thing', 'things'), tone: 'strong' as const },
					{ text: ' happened in the last five minutes' },
					...(reading ? [{ text: `, in ${counted(reading, 'reading', 'readings')}` }] : []),
					{ text: '.' }
				]
			: [{ text: 'Nobody has opened anything in the last five minutes.' }]
	);
	const stateWords = { waiting: 'Listening…', here: 'New entries come by themselves.', away: 'The connection is lost. It is tried again by itself.' };
</script>

<svelte:head><title>Just now, readership, {data.site.name}</title></svelte:head>
<Hall title="Just now" note="the last minutes as they happen" period={null} {answer}>
	<p class="soft pb-3" class:away={line === 'away'} role="status">{stateWords[line]}</p>
	{#if items.length}<LedgerTable {items} zone={data.site.zone} withTitle />{/if}
</Hall>

<style>
	.away {
		color: var(--brick);
	}
</style>
