<!-- Entries of the ledger: what happened, who, when, from where. -->
<script lang="ts">
	import type { LedgerItem } from '$lib/server/readership/service';
	import { timeText } from '$lib/ui/parts/when';

	let { items, zone, withTitle = false }: { items: readonly LedgerItem[]; zone: string; withTitle?: boolean } = $props();

	const kinds: Record<string, string> = { opened: 'Opened', saved: 'Saved', 'turned-away': 'Turned away', 'key-used': 'Key used' };
	const reasons: Record<string, string> = {
		shut: 'the door is shut',
		'set-aside': 'set aside',
		'not-yet': 'not open yet',
		closed: 'closed since',
		'sign-in': 'not signed in',
		'not-admitted': 'not among those admitted',
		'membership-not-yet': 'membership not begun',
		'membership-lapsed': 'membership lapsed',
		'save-not-allowed': 'saving not allowed',
		'print-not-allowed': 'printing not allowed'
	};

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
		{#each items as item, i (i)}
			<tr class:apart={item.staff || item.robot || item.double}>
				<td class:wrong={item.kind === 'turned-away'}
					>{kinds[item.kind] ?? item.kind}{#if item.reason}<small>{reasons[item.reason] ?? item.reason}</small>{/if}</td
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
