<!-- A table that is sorted by the head one presses; beyond a few screens only the rows in sight are drawn, and it scrolls in itself. -->
<script lang="ts" module>
	import type { Snippet } from 'svelte';

	export interface Column<R> {
		readonly title: string;
		/** What it is sorted by; without it the column is not. Null stands last either way. */
		readonly by?: (row: R) => string | number | null;
		/** What stands in the cell, where it is not just that. */
		readonly cell?: Snippet<[R]>;
		/** Numbers: right-aligned, the greatest first at the first press. */
		readonly number?: boolean;
	}
</script>

<script lang="ts" generics="R extends object">
	import { constructTable, createSortedRowModel, rowSortingFeature, sortFn_text, tableFeatures, type SortingState } from '@tanstack/table-core';
	import { storeReactivityBindings } from '@tanstack/table-core/store-reactivity-bindings';
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { get } from 'svelte/store';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { Button } from './controls';

	let { rows, columns, label }: { rows: readonly R[]; columns: readonly Column<R>[]; label: string } = $props();

	/** Up to so many rows are all drawn. */
	const drawnUpTo = 100;
	const rowHeight = 36;
	const features = tableFeatures({
		coreReactivityFeature: storeReactivityBindings(),
		rowSortingFeature,
		sortedRowModel: createSortedRowModel(),
		sortFns: { text: sortFn_text }
	});
	let sorting = $state.raw<SortingState>([]);
	let box = $state<HTMLElement>();

	const table = $derived(
		constructTable({
			features,
			data: [...rows],
			columns: columns.map((c, n) => ({
				id: String(n),
				accessorFn: (row: R) => c.by?.(row) ?? undefined,
				enableSorting: c.by !== undefined,
				sortFn: c.number ? ('auto' as const) : ('text' as const),
				sortDescFirst: c.number ?? false,
				sortUndefined: 'last' as const
			})),
			initialState: { sorting },
			enableSortingRemoval: false
		})
	);
	const sorted = $derived(table.getRowModel().rows.map((r) => r.original));
	const long = $derived(rows.length > drawnUpTo);
	const virtualizer = createVirtualizer<HTMLElement, HTMLElement>({
		count: 0,
		getScrollElement: () => box ?? null,
		estimateSize: () => rowHeight,
		overscan: 12
	});
	$effect(() => {
		// setting them makes the store tell of itself: it is not listened to here
		get(virtualizer).setOptions({ count: long ? sorted.length : 0, getScrollElement: () => box ?? null });
	});
	const items = $derived($virtualizer.getVirtualItems());
	/** What is drawn: everything, or what is in sight with the height of what is not, px. */
	const drawn = $derived.by(() => {
		if (!long) return { first: 0, last: sorted.length, above: 0, below: 0 };
		const [first, last] = [items[0], items.at(-1)];
		// on the server, and before the box is measured: the beginning
		if (!first || !last) return { first: 0, last: 30, above: 0, below: (sorted.length - 30) * rowHeight };
		return { first: first.index, last: last.index + 1, above: first.start, below: $virtualizer.getTotalSize() - last.end };
	});
	const order = (n: number) => sorting.find((s) => s.id === String(n));
	const direction = (n: number) => {
		const at = order(n);
		return at ? (at.desc ? 'descending' : 'ascending') : undefined;
	};
	function press(n: number) {
		sorting = [{ id: String(n), desc: table.getColumn(String(n))?.getNextSortingOrder() === 'desc' }];
		box?.scrollTo({ top: 0 });
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="box" class:long bind:this={box} role="region" aria-label={label} tabindex={long ? 0 : undefined}>
	<Table class="rows" aria-label={label} aria-rowcount={sorted.length + 1}>
		<TableHead>
			{#each columns as column, n (n)}
				<TableHeadCell class={{ n: column.number }} aria-sort={direction(n)}
					>{#if column.by}<Button kind="bare" class="head" onclick={() => press(n)}
							>{column.title}<span class="arrow" aria-hidden="true">{order(n) ? (order(n)?.desc ? '↓' : '↑') : ''}</span></Button
						>{:else}{column.title}{/if}</TableHeadCell
				>
			{/each}
		</TableHead>
		<TableBody>
			{#if drawn.above}<tr aria-hidden="true" style:height="{drawn.above}px"></tr>{/if}
			{#each sorted.slice(drawn.first, drawn.last) as row, n (row)}
				<TableBodyRow aria-rowindex={drawn.first + n + 2}>
					{#each columns as column, c (c)}
						<TableBodyCell class={{ n: column.number }}
							>{#if column.cell}{@render column.cell(row)}{:else}{column.by?.(row) ?? ''}{/if}</TableBodyCell
						>
					{/each}
				</TableBodyRow>
			{/each}
			{#if drawn.below}<tr aria-hidden="true" style:height="{drawn.below}px"></tr>{/if}
		</TableBody>
	</Table>
</div>

<style>
	.box {
		overflow-x: auto;
	}
	.long {
		max-height: 70vh;
		overflow-y: auto;
	}
	.long :global(th) {
		position: sticky;
		top: 0;
		z-index: 1;
	}
	.long :global(tr[aria-rowindex] td) {
		height: 36px;
		white-space: nowrap;
	}
	.box :global(.n) {
		text-align: right;
		white-space: nowrap;
	}
	.box :global(.head) {
		cursor: pointer;
		font: inherit;
	}
	.box :global(.head:hover) {
		text-decoration: underline;
	}
	/* kept free, so that a column does not move when it is sorted */
	.arrow {
		display: inline-block;
		width: 12px;
		text-align: center;
	}
</style>
