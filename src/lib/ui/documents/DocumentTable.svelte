<!-- The documents of the room as a table: sorted by its heads, with what is chosen and what was found on the pages. -->
<script lang="ts">
	import { goto } from '$app/navigation';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { counted } from '#core/text/list';
	import { restorableUntil } from '#core/documents/aside';
	import type { Order, OrderName } from '#core/documents/filters';
	import { sizeWords } from '#core/documents/size';
	import { conditionWords } from '#core/intake/condition';
	import type { ListedDocument } from '$lib/server/documents/list';
	import { Checkbox } from '$lib/ui/parts/controls';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import HouseWord from '$lib/ui/parts/HouseWord.svelte';
	import PassageMark from '$lib/ui/parts/PassageMark.svelte';
	import Spark from '$lib/ui/parts/Spark.svelte';
	import { dayText } from '$lib/ui/parts/when';
	import { near } from '$lib/ui/parts/near';
	import { coverAddress } from './address';
	import { choose, chooseAll, isChosen } from './chosen.svelte';
	import { columns, type ColumnName } from './columns';
	import Hits from './Hits.svelte';
	import { languageWords } from './words';

	let {
		items,
		order,
		chosenColumns,
		inFolder,
		zone,
		chosen,
		address,
		sheet
	}: {
		items: readonly ListedDocument[];
		order: Order;
		chosenColumns: readonly ColumnName[];
		/** Narrowed to one folder, which then need not be named in each line. */
		inFolder: boolean;
		/** The site's time zone. */
		zone: string;
		/** The document whose sheet is open, by its slug. */
		chosen: string | null;
		/** The room's address with another order. */
		address: (change: { order: Order }) => string;
		/** The address of a document's sheet. */
		sheet: (slug: string) => string;
	} = $props();

	/** So many rows are seen at once at most before somebody scrolls: their covers need not wait for the script. */
	const inView = 12;
	const dot = ' · ';
	const sourceWords = { changed: 'changed at its source', gone: 'gone at its source', unreachable: 'source not reached' } as const;
	const doorWords = { shut: 'Shut', keyed: 'Keyed', ajar: 'Ajar', open: 'Open' } as const;
	/** Beside an open sheet there is room for these alone. */
	const besideSheet: readonly ColumnName[] = ['passage', 'door', 'readers'];
	const slugs = $derived(items.map((d) => d.slug));
	const shown = $derived(chosen ? chosenColumns.filter((c) => besideSheet.includes(c)) : chosenColumns);
	const span = $derived(shown.length + 3);
	const ordered = (by: OrderName, number = false): Order =>
		order.by === by ? { by, down: !order.down } : { by, down: number || by === 'brought' || by === 'edition' };

	function press(event: MouseEvent, slug: string) {
		if ((event.target as HTMLElement).closest('a, input, button')) return;
		if (event.shiftKey || event.ctrlKey || event.metaKey) {
			choose(slug, slugs, event.shiftKey);
			event.preventDefault();
		} else void goto(sheet(slug), { noScroll: true });
	}
</script>

<div class="sheet-rows">
	<Table class="documents" classes={{ div: 'border border-[var(--line)] bg-[var(--sheet)]' }} border={false}>
		<TableHead>
			<TableHeadCell class="w-[34px]"
				><Checkbox
					aria-label="Choose all on this page"
					checked={slugs.every(isChosen)}
					indeterminate={slugs.some(isChosen) && !slugs.every(isChosen)}
					onclick={() => chooseAll(slugs)}
				/></TableHeadCell
			>
			<TableHeadCell class="w-[46px]"><span class="sr-only">Cover</span></TableHeadCell>
			<TableHeadCell aria-sort={order.by === 'title' ? (order.down ? 'descending' : 'ascending') : undefined}>{@render head('Document', 'title')}</TableHeadCell
			>
			{#each shown as name (name)}
				{@const column = columns[name]}
				<TableHeadCell
					class={column.number ? 'text-right' : ''}
					style="width:{column.width}px"
					aria-sort={column.order && order.by === column.order ? (order.down ? 'descending' : 'ascending') : undefined}
				>
					{#if column.order}{@render head(column.words, column.order, column.number)}{:else if name === 'passage'}<HouseWord
							word="Passage"
						/>{:else}{column.words}{/if}
				</TableHeadCell>
			{/each}
		</TableHead>
		<TableBody>
			{#each items as item, i (item.id)}
				<TableBodyRow
					id="row-{item.slug}"
					class="{item.slug === chosen ? 'on' : ''} {isChosen(item.slug) ? 'picked' : ''}"
					aria-selected={isChosen(item.slug) || item.slug === chosen}
					onclick={(e: MouseEvent) => press(e, item.slug)}
				>
					<TableBodyCell class="p"
						><Checkbox checked={isChosen(item.slug)} aria-label="Choose {item.title}" onclick={(e) => choose(item.slug, slugs, e.shiftKey)} /></TableBodyCell
					>
					<TableBodyCell class="c"
						>{#if i < inView}<img class="cover" src={coverAddress(item, 96)} alt="" />{:else}<img
								class="cover"
								alt=""
								{@attach near(coverAddress(item, 96))}
							/>{/if}</TableBodyCell
					>
					<TableBodyCell class="name"
						><a href={sheet(item.slug)} data-sveltekit-noscroll title={item.title}>{item.title}</a><small
							>{#if item.setAsideAt}set aside {dayText(item.setAsideAt, zone)}, to be restored until {dayText(
									new Date(restorableUntil(Date.parse(item.setAsideAt))).toISOString(),
									zone
								)}{:else}{item.folder && !chosen && !inFolder ? `${item.folder} · ` : ''}{item.pages
									? `${counted(item.pages, 'page', 'pages')} ${item.paper} · `
									: ''}{sizeWords(item.bytes)}{#if item.condition.status !== 'sound'}{dot}<span
										class:wrong={item.condition.status === 'refused'}
										class:hand={item.condition.status === 'look'}>{conditionWords[item.condition.status].toLowerCase()}</span
									>{/if}{#if item.sourceState && item.sourceState !== 'same'}{dot}<span class="hand">{sourceWords[item.sourceState]}</span>{/if}{/if}</small
						></TableBodyCell
					>
					{#each shown as name (name)}<TableBodyCell class={columns[name].number ? 'num' : ''}>{@render cell(name, item)}</TableBodyCell>{/each}
				</TableBodyRow>
				{#if item.hits.length}
					<TableBodyRow class="found"
						><TableBodyCell colspan={span}><Hits slug={item.slug} hits={item.hits} pages={item.hitPages} /></TableBodyCell></TableBodyRow
					>
				{/if}
			{/each}
		</TableBody>
	</Table>
</div>

{#snippet head(words: string, by: OrderName, number = false)}
	<a class="order" href={address({ order: ordered(by, number) })} data-sveltekit-noscroll
		>{words}{#if order.by === by}<span aria-hidden="true"> {order.down ? '↓' : '↑'}</span>{/if}</a
	>
{/snippet}

{#snippet cell(name: ColumnName, item: (typeof items)[number])}
	{#if name === 'passage'}<PassageMark passage={item.passage} href={sheet(item.slug)} />
	{:else if name === 'door'}
		<span class="door" title={item.door.sentence}>
			<DoorMark position={item.door.position} />
			<span
				><b>{item.door.who}</b><small>{item.door.position === 'keyed' ? counted(item.door.count, 'person', 'people') : doorWords[item.door.position]}</small
				></span
			>
		</span>
	{:else if name === 'placed'}{item.placements ? `In ${counted(item.placements, 'place', 'places')}` : ''}<small
			>{item.placements ? 'published' : item.listedOn ? `Listed on ${counted(item.listedOn, 'page', 'pages')}` : 'Not placed yet'}</small
		>
	{:else if name === 'edition'}{item.edition === 1 ? 'First' : `No. ${item.edition}`}<small>{dayText(item.editionAt, zone)}</small>
	{:else if name === 'folder'}<span class="cut" title={item.folder}>{item.folder}</span>
	{:else if name === 'topics'}<span class="cut" title={item.topics.join(', ')}>{item.topics.join(', ')}</span>
	{:else if name === 'pages'}{item.pages.toLocaleString('en')}
	{:else if name === 'size'}{sizeWords(item.bytes)}
	{:else if name === 'condition'}<span class:wrong={item.condition.status === 'refused'}>{conditionWords[item.condition.status]}</span>
	{:else if name === 'language'}{item.language ? languageWords(item.language.split('-')[0]!) : ''}
	{:else if name === 'brought'}{dayText(item.createdAt, zone)}
	{:else if name === 'by'}<span class="cut">{item.createdBy ?? ''}</span>
	{:else}<Spark values={item.days} label="Openings a day over 30 days" /><b class="count">{item.readers}</b>{/if}
{/snippet}

<style>
	.order {
		color: inherit;
		text-decoration: none;
	}
	.order:hover {
		text-decoration: underline;
	}
	.cut {
		display: block;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.wrong {
		color: var(--brick);
	}
	.hand {
		color: var(--brass);
	}
	.sheet-rows :global(td.p) {
		padding: 0 0 0 12px;
	}
	.sheet-rows :global(tbody tr.found) {
		cursor: default;
	}
	.sheet-rows :global(tbody tr.found td) {
		height: auto;
		padding: 0 12px 8px 92px;
		white-space: normal;
	}
	.sheet-rows :global(th) {
		background: var(--sunk);
		color: var(--ink-soft);
		font: 400 12px var(--body);
		text-transform: none;
		padding: 0 10px;
		height: 28px;
	}
	.sheet-rows :global(td) {
		height: 57px;
		padding: 0 10px;
		font-weight: 400;
		white-space: nowrap;
		color: var(--ink);
		border-bottom: 1px solid var(--line);
	}
	.sheet-rows :global(tbody tr) {
		cursor: pointer;
		background: var(--sheet);
	}
	.sheet-rows :global(tbody tr:hover td) {
		background: var(--ground);
	}
	.sheet-rows :global(tbody tr.on td),
	.sheet-rows :global(tbody tr.picked td) {
		background: var(--brass-wash);
	}
	.sheet-rows :global(tbody tr.on td:first-child) {
		box-shadow: inset 4px 0 var(--brass-bright);
	}
	.sheet-rows :global(table) {
		table-layout: fixed;
		width: 100%;
	}
	.sheet-rows :global(td.c) {
		padding: 5px 0 5px 6px;
	}
	.sheet-rows :global(td small) {
		display: block;
		font-size: 12px;
		color: var(--ink-soft);
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.sheet-rows :global(td.name a) {
		display: block;
		font: 600 14.5px var(--title);
		color: var(--ink);
		text-decoration: none;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.sheet-rows :global(td.name) {
		overflow: hidden;
	}
	.sheet-rows :global(td.num) {
		text-align: right;
	}
	.sheet-rows :global(td.num svg) {
		display: inline-block;
	}
	.count {
		font-family: var(--title);
		display: inline-block;
		width: 38px;
	}
	.cover {
		max-width: 34px;
		max-height: 45px;
		border: 1px solid var(--line);
		background: #fff;
		display: block;
	}
	.cover:not([src]) {
		width: 32px;
		height: 45px;
		visibility: hidden;
	}
	.door {
		display: flex;
		gap: 8px;
		align-items: center;
		min-width: 0;
	}
	.door :global(svg) {
		flex: none;
	}
	.door > span {
		min-width: 0;
	}
	.door b {
		font-weight: 400;
		display: block;
		overflow: hidden;
		text-overflow: ellipsis;
	}
</style>
