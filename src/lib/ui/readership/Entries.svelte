<!-- The ledger under a report: whose entries (where that can be chosen), the table, and the way further back. -->
<script lang="ts">
	import { Button } from '$lib/ui/parts/controls';
	import { page } from '$app/state';
	import type { LedgerItem } from '$lib/server/readership/ledger';
	import HouseWord from '$lib/ui/parts/HouseWord.svelte';
	import LedgerTable from './LedgerTable.svelte';
	let {
		entries,
		of,
		zone,
		withTitle = false
	}: { entries: { items: readonly LedgerItem[]; next: string | null }; of: string | null; zone: string; withTitle?: boolean } = $props();
	const choices = [
		['readers', 'Readers'],
		['staff', 'Staff'],
		['all', 'Everything']
	] as const;
	function href(change: Record<string, string | null>) {
		const params = new URLSearchParams(page.url.searchParams);
		params.delete('cursor');
		for (const [k, v] of Object.entries(change)) if (v) params.set(k, v);
		return `?${params}`;
	}
</script>

<section>
	<h2>
		<HouseWord word="Ledger" shown="In the ledger" />
		{#if of !== null}<span class="flex gap-1.5"
				>{#each choices as [value, words] (value)}<Button kind="pill" class={{ on: of === value }} href={href({ of: value })} data-sveltekit-noscroll
						>{words}</Button
					>{/each}</span
			>{/if}
	</h2>
	{#if entries.items.length}
		<div class="wide"><LedgerTable items={entries.items} {zone} {withTitle} /></div>
		<p class="flex justify-center gap-3 pt-3">
			{#if page.url.searchParams.has('cursor')}<Button href={href({})} data-sveltekit-noscroll>Newest</Button>{/if}
			{#if entries.next}<Button href={href({ cursor: entries.next })} data-sveltekit-noscroll>Further back</Button>{/if}
		</p>
	{:else}<p class="soft">No entries here yet.</p>{/if}
</section>
