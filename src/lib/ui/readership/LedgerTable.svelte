<!-- Entries of the ledger: what happened, who, when, from where. -->
<script lang="ts">
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { counted } from '#core/text/list';
	import type { LedgerItem } from '$lib/server/readership/ledger';
	import { timeText } from '$lib/ui/parts/when';
	import { kindWords, reasonWords } from './words';

	let { items, zone, withTitle = false }: { items: readonly LedgerItem[]; zone: string; withTitle?: boolean } = $props();

	const readText = (pages: NonNullable<LedgerItem['pages']>) =>
		`${Math.round(pages.reduce((sum, p) => sum + p.seconds, 0))} s on ${counted(pages.length, 'page', 'pages')}`;
	function whoText(item: LedgerItem): string {
		if (item.robot) return 'A robot';
		return item.who.name ?? (item.who.kind === 'visitor' ? 'A visitor' : item.who.kind);
	}
	function sourceText(item: LedgerItem): string {
		const { source } = item;
		if (source.kind === 'page') return source.title ?? source.path ?? 'A page';
		if (source.kind === 'outside') return source.site ?? 'Another website';
		if (source.kind === 'news') return 'News';
		return source.kind === 'desk' ? 'The desk' : 'Straight to the address';
	}
</script>

<div class="ledger">
	<Table class="rows">
		<TableHead>
			<TableHeadCell>What</TableHeadCell>{#if withTitle}<TableHeadCell>Document</TableHeadCell>{/if}<TableHeadCell>Who</TableHeadCell><TableHeadCell
				>From</TableHeadCell
			><TableHeadCell class="when">When</TableHeadCell></TableHead
		>
		<TableBody>
			{#each items as item (item.id)}
				<TableBodyRow class={{ apart: item.staff || item.robot || item.double }}>
					<TableBodyCell class={{ wrong: item.kind === 'turned-away' }}
						>{kindWords[item.kind] ?? item.kind}{#if item.pages}<small>{readText(item.pages)}</small>{/if}{#if item.reason}<small
								>{reasonWords[item.reason] ?? item.reason}</small
							>{/if}</TableBodyCell
					>
					{#if withTitle}<TableBodyCell><a href="/desk/readership/{item.document}">{item.title}</a></TableBodyCell>{/if}
					<TableBodyCell
						>{whoText(item)}{#if item.staff}<small>staff, not counted</small>{:else if item.double}<small>double click, not counted</small
							>{:else if item.robot}<small>not counted</small>{:else if item.who.email}<small>{item.who.email}</small>{/if}</TableBodyCell
					>
					<TableBodyCell>{sourceText(item)}</TableBodyCell>
					<TableBodyCell class="when"><time datetime={item.at}>{timeText(item.at, zone)}</time></TableBodyCell>
				</TableBodyRow>
			{/each}
		</TableBody>
	</Table>
</div>

<style>
	.ledger :global(small) {
		display: block;
		font-size: 12px;
		color: var(--ink-soft);
	}
	.ledger :global(.when) {
		text-align: right;
		white-space: nowrap;
	}
	.ledger :global(.wrong) {
		color: var(--brick);
	}
	.ledger :global(.wrong small) {
		color: inherit;
	}
	.ledger :global(.apart) {
		color: var(--ink-soft);
		font-style: italic;
	}
</style>
