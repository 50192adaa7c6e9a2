<!-- The documents room: filters with counts, the table or the wall of covers, and the sheet at the right. -->
<script lang="ts">
	import { Button, Checkbox, Input } from '$lib/ui/parts/controls';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { counted } from '#core/access/reach';
	import { sizeWords } from '#core/documents/size';
	import { conditionWords } from '#core/intake/condition';
	import type { Filters, Order, OrderName } from '#core/documents/filters';
	import { restorableUntil } from '#core/documents/aside';
	import { roomQuery } from '$lib/ui/documents/address';
	import BulkBar from '$lib/ui/documents/BulkBar.svelte';
	import { choose, chooseAll, chooseNone, chosenRows, isChosen } from '$lib/ui/documents/chosen.svelte';
	import ColumnChoice from '$lib/ui/documents/ColumnChoice.svelte';
	import { columns, type ColumnName } from '$lib/ui/documents/columns';
	import FilterRow from '$lib/ui/documents/FilterRow.svelte';
	import Hits from '$lib/ui/documents/Hits.svelte';
	import { languageWords } from '$lib/ui/documents/words';
	import { chooser } from '$lib/ui/intake/chooser';
	import MoreWays from '$lib/ui/intake/MoreWays.svelte';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import PassageMark from '$lib/ui/parts/PassageMark.svelte';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import Spark from '$lib/ui/parts/Spark.svelte';
	import { isTyping } from '$lib/ui/parts/shortcuts';
	import { dayText } from '$lib/ui/parts/when';

	let { data, children } = $props();
	let moreWays = $state(false);

	const dot = ' · ';
	const sourceWords = { changed: 'changed at its source', gone: 'gone at its source', unreachable: 'source not reached' } as const;
	const doorWords = { shut: 'Shut', keyed: 'Keyed', ajar: 'Ajar', open: 'Open' } as const;
	const chosen = $derived(page.params.slug ?? null);
	const wall = $derived(page.url.searchParams.get('as') === 'covers');
	const items = $derived(data.list.items);
	const slugs = $derived(items.map((d) => d.slug));
	const pages = $derived(Math.max(1, Math.ceil(data.list.total / data.pageLength)));
	const finding = $derived(data.query.q !== '');
	const filtered = $derived(finding || Object.keys(data.query.filters).length > 0);
	/** Beside an open sheet there is room for these alone. */
	const besideSheet: readonly ColumnName[] = ['passage', 'door', 'readers'];
	const shown = $derived(chosen ? data.columns.filter((c) => besideSheet.includes(c)) : data.columns);
	const span = $derived(shown.length + 3);

	/** The room's address with some of it changed; a change of filter or order leads back to the first page. */
	const address = (change: { filters?: Filters; order?: Order; page?: number; aside?: boolean }, covers = wall) =>
		page.url.pathname + roomQuery({ ...data.query, page: 1, ...change }, covers);
	const sheet = (slug: string) => `/desk/documents/${slug}${page.url.search}`;
	const ordered = (by: OrderName, number = false): Order =>
		data.query.order.by === by ? { by, down: !data.query.order.down } : { by, down: number || by === 'brought' || by === 'edition' };

	/** Where the arrow keys have got to, while the sheet there is still on its way. */
	let going: string | null = null;
	function move(by: number, extend: boolean) {
		if (!items.length) return;
		const from = going ?? chosen;
		const at = slugs.indexOf(from ?? '');
		const next = slugs[Math.min(slugs.length - 1, Math.max(0, at < 0 ? 0 : at + by))];
		if (!next || next === from) return;
		if (extend) {
			if (from && !isChosen(from)) choose(from, slugs);
			if (!isChosen(next)) choose(next, slugs);
		}
		going = next;
		void goto(sheet(next), { noScroll: true, keepFocus: true }).finally(() => {
			if (going === next) going = null;
		});
		document.getElementById(`row-${next}`)?.scrollIntoView({ block: 'nearest' });
	}

	function keys(event: KeyboardEvent) {
		if (
			event.key === 'a' &&
			(event.ctrlKey || event.metaKey) &&
			!event.altKey &&
			!(event.target as HTMLElement).closest('input, textarea, [contenteditable]')
		) {
			chooseAll(slugs);
			return event.preventDefault();
		}
		if (isTyping(event) || event.defaultPrevented) return;
		if (event.key === 'ArrowDown') move(1, event.shiftKey);
		else if (event.key === 'ArrowUp') move(-1, event.shiftKey);
		else if (event.key === 'x' && chosen) choose(chosen, slugs);
		else if (event.key === 'Escape' && chosen) void goto(`/desk/documents${page.url.search}`, { noScroll: true });
		else if (event.key === 'Escape' && chosenRows.slugs.length) chooseNone();
		else if (event.key === 'r' && chosen) void goto(`/desk/readership/${chosen}`);
		else if ((event.key === 'd' || event.key === 'p') && chosen) document.getElementById(event.key === 'd' ? 'door' : 'placed')?.focus();
		else return;
		event.preventDefault();
	}
	function press(event: MouseEvent, slug: string) {
		if ((event.target as HTMLElement).closest('a, input, button')) return;
		if (event.shiftKey || event.ctrlKey || event.metaKey) {
			choose(slug, slugs, event.shiftKey);
			event.preventDefault();
		} else void goto(sheet(slug), { noScroll: true });
	}
	const coverAddress = (item: (typeof items)[number]) => `/d/${item.slug}/cover/300.webp?e=${item.coverMark}`;
</script>

<svelte:head><title>Documents, {data.site.name}</title></svelte:head>
<svelte:window onkeydown={keys} />

<div class="room" class:with-sheet={chosen}>
	<section class="hall">
		<div class="head">
			<h1>{data.query.aside ? 'Set aside' : 'Documents'}</h1>
			<p class="soft">
				{data.query.aside ? counted(data.list.aside, 'document', 'documents') : counted(data.list.all, 'document', 'documents')}{filtered
					? `, ${data.list.total} shown`
					: ''}
			</p>
			{#if data.query.aside}<a class="quiet" href="/desk/documents">Back to those in use</a>{:else if data.list.aside && !chosen}<a
					class="quiet"
					href="/desk/documents?aside">{data.list.aside} set aside</a
				>{/if}
			<div class="do">
				{#if !wall && !chosen}<ColumnChoice chosen={data.columns} />{/if}
				<Button href={address({ page: data.query.page }, !wall)}>{wall ? 'Table' : 'Covers'}</Button>
				<Popup label="More ways" plain end width={340} bind:open={moreWays}><MoreWays folders={data.folders} done={() => (moreWays = false)} /></Popup>
				<Button kind="main" onclick={() => chooser.open()}>Bring in</Button>
			</div>
		</div>
		<FilterRow
			filters={data.query.filters}
			counts={data.list.counts}
			{finding}
			saved={data.saved}
			address={(filters) => address({ filters })}
			query={roomQuery({ ...data.query, page: 1, aside: false }, false).slice(1)}
		/>
		{#if finding}
			<p class="mb-2">
				{#if data.list.total}{counted(data.list.total, 'document', 'documents')} for <b>{data.query.q}</b>: by title, description, file name or the words on the
					pages.{/if}
			</p>
		{/if}

		{#if !data.list.all && !data.query.aside}
			<div class="empty">
				<h2>Bring in the first PDF</h2>
				<p>Drop it anywhere on this screen, or choose it. It stays shut until you set its door.</p>
				<Button kind="main" onclick={() => chooser.open()}>Bring in</Button>
			</div>
		{:else if !items.length}
			<div class="empty">
				<h2>{data.query.aside && !filtered ? 'Nothing is set aside' : 'Nothing fits'}</h2>
				<p>
					{data.query.aside && !filtered
						? 'What is set aside stands here for 30 days and can be brought back.'
						: finding
							? `Nothing has “${data.query.q}” in its title, description, file name or pages${Object.keys(data.query.filters).length ? ' and fits these filters' : ''}.`
							: 'Take one of the filters away.'}
				</p>
				<Button href="/desk/documents">Show all</Button>
			</div>
		{:else if wall}
			<ul class="wall">
				{#each items as item (item.id)}
					<li class:picked={isChosen(item.slug)}>
						<Checkbox class="pick" checked={isChosen(item.slug)} aria-label="Choose {item.title}" onclick={(e) => choose(item.slug, slugs, e.shiftKey)} />
						<a id="row-{item.slug}" href={sheet(item.slug)} data-sveltekit-noscroll class:on={item.slug === chosen}>
							<span class="frame"><img src={coverAddress(item)} alt="" loading="lazy" /></span>
							<strong>{item.title}</strong>
							<span class="door"><DoorMark position={item.door.position} height={18} />{item.door.who}</span>
						</a>
						{#if item.hits.length}<Hits slug={item.slug} hits={item.hits} pages={item.hitPages} />{/if}
					</li>
				{/each}
			</ul>
		{:else}
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
					<TableHeadCell aria-sort={data.query.order.by === 'title' ? (data.query.order.down ? 'descending' : 'ascending') : undefined}
						>{@render head('Document', 'title')}</TableHeadCell
					>
					{#each shown as name (name)}
						{@const column = columns[name]}
						<TableHeadCell
							class={column.number ? 'text-right' : ''}
							style="width:{column.width}px"
							aria-sort={column.order && data.query.order.by === column.order ? (data.query.order.down ? 'descending' : 'ascending') : undefined}
						>
							{#if column.order}{@render head(column.words, column.order, column.number)}{:else}{column.words}{/if}
						</TableHeadCell>
					{/each}
				</TableHead>
				<TableBody>
					{#each items as item (item.id)}
						<TableBodyRow
							id="row-{item.slug}"
							class="{item.slug === chosen ? 'on' : ''} {isChosen(item.slug) ? 'picked' : ''}"
							aria-selected={isChosen(item.slug) || item.slug === chosen}
							onclick={(e: MouseEvent) => press(e, item.slug)}
						>
							<TableBodyCell class="p"
								><Checkbox
									checked={isChosen(item.slug)}
									aria-label="Choose {item.title}"
									onclick={(e) => choose(item.slug, slugs, e.shiftKey)}
								/></TableBodyCell
							>
							<TableBodyCell class="c"><img class="cover" src={coverAddress(item)} alt="" loading="lazy" /></TableBodyCell>
							<TableBodyCell class="name"
								><a href={sheet(item.slug)} data-sveltekit-noscroll title={item.title}>{item.title}</a><small
									>{#if item.setAsideAt}set aside {dayText(item.setAsideAt, data.site.zone)}, to be restored until {dayText(
											new Date(restorableUntil(Date.parse(item.setAsideAt))).toISOString(),
											data.site.zone
										)}{:else}{item.folder && !chosen && !data.query.filters.folder ? `${item.folder} · ` : ''}{item.pages
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
		{/if}
		{#if pages > 1}
			<nav class="paging" aria-label="Pages of the list">
				{#if data.query.page > 1}<Button href={address({ page: data.query.page - 1 })}>Back</Button>{/if}
				<span class="soft"
					>{(data.query.page - 1) * data.pageLength + 1} to {Math.min(data.list.total, data.query.page * data.pageLength)} of {data.list.total.toLocaleString(
						'en'
					)}</span
				>
				{#if data.query.page < pages}<Button href={address({ page: data.query.page + 1 })}>Further</Button>{/if}
				{#if pages > 3}<label class="soft flex items-center gap-2"
						>Page <Input
							class="w-20!"
							type="number"
							min="1"
							max={pages}
							value={data.query.page}
							onchange={(e) => goto(address({ page: Math.min(pages, Math.max(1, Number(e.currentTarget.value) || 1)) }))}
						/>
						of {pages}</label
					>{/if}
			</nav>
		{/if}
		{#if chosenRows.slugs.length}<BulkBar folders={data.folders} topics={data.topics} total={data.list.total} aside={data.query.aside} />{/if}
	</section>
	{@render children()}
</div>

{#snippet head(words: string, by: OrderName, number = false)}
	<a class="order" href={address({ order: ordered(by, number) })} data-sveltekit-noscroll
		>{words}{#if data.query.order.by === by}<span aria-hidden="true"> {data.query.order.down ? '↓' : '↑'}</span>{/if}</a
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
			>{item.placements ? 'published' : 'Not placed yet'}</small
		>
	{:else if name === 'edition'}{item.edition === 1 ? 'First' : `No. ${item.edition}`}<small>{dayText(item.editionAt, data.site.zone)}</small>
	{:else if name === 'folder'}<span class="cut" title={item.folder}>{item.folder}</span>
	{:else if name === 'topics'}<span class="cut" title={item.topics.join(', ')}>{item.topics.join(', ')}</span>
	{:else if name === 'pages'}{item.pages.toLocaleString('en')}
	{:else if name === 'size'}{sizeWords(item.bytes)}
	{:else if name === 'condition'}<span class:wrong={item.condition.status === 'refused'}>{conditionWords[item.condition.status]}</span>
	{:else if name === 'language'}{item.language ? languageWords(item.language.split('-')[0]!) : ''}
	{:else if name === 'brought'}{dayText(item.createdAt, data.site.zone)}
	{:else if name === 'by'}<span class="cut">{item.createdBy ?? ''}</span>
	{:else}<Spark values={item.days} label="Openings a day over 30 days" /><b class="count">{item.readers}</b>{/if}
{/snippet}

<style>
	.room {
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		height: calc(100dvh - var(--lintel));
	}
	.room.with-sheet {
		grid-template-columns: minmax(0, 1fr) var(--sheet-width);
	}
	.hall {
		padding: 16px 18px;
		min-width: 0;
		overflow-y: auto;
	}
	.head {
		display: flex;
		align-items: baseline;
		gap: 12px;
	}
	.do {
		margin-left: auto;
		display: flex;
		gap: 8px;
		align-self: center;
	}
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
	.hall :global(td.p) {
		padding: 0 0 0 12px;
	}
	.hall :global(tbody tr.found) {
		cursor: default;
	}
	.hall :global(tbody tr.found td) {
		height: auto;
		padding: 0 12px 8px 92px;
		white-space: normal;
	}
	.hall :global(th) {
		background: var(--sunk);
		color: var(--ink-soft);
		font: 500 12px var(--body);
		text-transform: none;
		padding: 0 10px;
		height: 28px;
	}
	.hall :global(td) {
		height: 57px;
		padding: 0 10px;
		font-weight: 400;
		white-space: nowrap;
		color: var(--ink);
		border-bottom: 1px solid var(--line);
	}
	.hall :global(tbody tr) {
		cursor: pointer;
		background: var(--sheet);
	}
	.hall :global(tbody tr:hover td) {
		background: var(--ground);
	}
	.hall :global(tbody tr.on td),
	.hall :global(tbody tr.picked td) {
		background: var(--brass-wash);
	}
	.hall :global(tbody tr.on td:first-child) {
		box-shadow: inset 4px 0 var(--brass-bright);
	}
	.hall :global(table) {
		table-layout: fixed;
		width: 100%;
	}
	.hall :global(td.c) {
		padding: 5px 0 5px 6px;
	}
	.hall :global(td small) {
		display: block;
		font-size: 12px;
		color: var(--ink-soft);
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.hall :global(td.name a) {
		display: block;
		font: 600 14.5px var(--title);
		color: var(--ink);
		text-decoration: none;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.hall :global(td.name) {
		overflow: hidden;
	}
	.hall :global(td.num) {
		text-align: right;
	}
	.hall :global(td.num svg) {
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
	.wall {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
		gap: 18px 14px;
	}
	.wall li {
		position: relative;
	}
	.wall li.picked a {
		background: var(--brass-wash);
	}
	/* beside the title, under the cover: nothing lies over what is on the page */
	li :global(.pick) {
		width: 24px;
		height: 24px;
		position: absolute;
		right: 8px;
		top: 193px;
	}
	.wall a {
		display: block;
		color: var(--ink);
		text-decoration: none;
		padding: 8px;
		border: 1px solid transparent;
		border-radius: var(--corner);
	}
	.wall a.on {
		background: var(--brass-wash);
		border-color: var(--brass-bright);
	}
	.wall .frame {
		height: 178px;
		display: grid;
		align-items: end;
		margin-bottom: 7px;
	}
	.wall img {
		max-height: 178px;
		max-width: 100%;
		border: 1px solid var(--line);
		background: #fff;
	}
	.wall strong {
		font: 600 14px/1.25 var(--title);
		display: block;
		padding-right: 30px;
		margin-bottom: 3px;
	}
	.wall .door {
		font-size: 12px;
		color: var(--ink-soft);
	}
	.empty {
		border: 1px dashed var(--edge);
		border-radius: var(--corner);
		padding: 56px 20px;
		text-align: center;
		background: var(--sheet);
	}
	.empty h2 {
		font-size: 20px;
	}
	.empty p {
		margin: 6px 0 16px;
		color: var(--ink-soft);
	}
	.paging {
		display: flex;
		gap: 12px;
		align-items: center;
		justify-content: center;
		padding: 14px 0 4px;
	}
	@media (max-width: 1000px) {
		.room.with-sheet {
			grid-template-columns: minmax(0, 1fr);
		}
		.room.with-sheet .hall {
			display: none;
		}
		.room {
			height: auto;
		}
	}
</style>
