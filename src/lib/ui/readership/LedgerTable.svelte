<!-- Entries of the ledger: what happened, who, when, from where. -->
<script lang="ts">
	import { counted } from '#core/access/reach';
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
		return source.kind === 'desk' ? 'The desk' : 'Straight to the address';
	}
</script>

<table class="rows">
	<thead>
		<tr
			><th>What</th>{#if withTitle}<th>Document</th>{/if}<th>Who</th><th>From</th><th class="when">When</th></tr
		>
	</thead>
	<tbody>
		{#each items as item (item.id)}
			<tr class:apart={item.staff || item.robot || item.double}>
				<td class:wrong={item.kind === 'turned-away'}
					>{kindWords[item.kind] ?? item.kind}{#if item.pages}<small>{readText(item.pages)}</small>{/if}{#if item.reason}<small
							>{reasonWords[item.reason] ?? item.reason}</small
						>{/if}</td
				>
				{#if withTitle}<td><a href="/desk/readership/{item.document}">{item.title}</a></td>{/if}
				<td
					>{whoText(item)}{#if item.staff}<small>staff, not counted</small>{:else if item.double}<small>double click, not counted</small
						>{:else if item.robot}<small>not counted</small>{:else if item.who.email}<small>{item.who.email}</small>{/if}</td
				>
				<td>{sourceText(item)}</td>
				<td class="when"><time datetime={item.at}>{timeText(item.at, zone)}</time></td>
			</tr>
		{/each}
	</tbody>
</table>

<style>
	small {
		display: block;
		font-size: 12px;
		color: var(--ink-soft);
	}
	.when {
		text-align: right;
		white-space: nowrap;
	}
	.wrong {
		color: var(--brick);
	}
	.wrong small {
		color: inherit;
	}
	.apart {
		color: var(--ink-soft);
		font-style: italic;
	}
</style>
