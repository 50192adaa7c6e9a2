<!-- The documents room: filters with counts, the table or the wall of covers, and the sheet at the right. -->
<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { positions } from '#core/access/door';
	import { counted } from '#core/access/reach';
	import { sizeWords } from '#core/documents/size';
	import { chooser } from '$lib/ui/intake/chooser';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import PassageMark from '$lib/ui/parts/PassageMark.svelte';
	import Spark from '$lib/ui/parts/Spark.svelte';
	import { isTyping } from '$lib/ui/parts/shortcuts';
	import { dayText } from '$lib/ui/parts/when';

	let { data, children } = $props();

	const doorWords = { shut: 'Shut', keyed: 'Keyed', ajar: 'Ajar', open: 'Open' } as const;
	const orderWords = { newest: 'Newest first', title: 'By title', size: 'Largest first', readers: 'Most read' } as const;
	const chosen = $derived(page.params.slug ?? null);
	const wall = $derived(page.url.searchParams.get('as') === 'covers');
	const pages = $derived(Math.max(1, Math.ceil(data.list.total / data.pageLength)));
	const filtered = $derived(Boolean(data.query.q || data.query.door || data.query.condition));

	/** The address with some of its filters changed; a change of filter leads back to the first page. */
	function address(change: Record<string, string | null>, keepPage = false): string {
		const params = new URLSearchParams(page.url.searchParams);
		if (!keepPage) params.delete('page');
		for (const [name, value] of Object.entries(change)) {
			if (value === null) params.delete(name);
			else params.set(name, value);
		}
		const query = params.toString();
		return page.url.pathname + (query ? `?${query}` : '');
	}
	const sheet = (slug: string) => `/desk/documents/${slug}${page.url.search}`;

	function move(by: number) {
		const items = data.list.items;
		if (!items.length) return;
		const at = items.findIndex((d) => d.slug === chosen);
		const next = items[Math.min(items.length - 1, Math.max(0, at < 0 ? 0 : at + by))];
		if (next && next.slug !== chosen) {
			void goto(sheet(next.slug), { noScroll: true, keepFocus: true });
			document.getElementById(`row-${next.slug}`)?.scrollIntoView({ block: 'nearest' });
		}
	}

	function keys(event: KeyboardEvent) {
		if (isTyping(event) || event.defaultPrevented) return;
		if (event.key === 'ArrowDown') move(1);
		else if (event.key === 'ArrowUp') move(-1);
		else if (event.key === 'Escape' && chosen) void goto(`/desk/documents${page.url.search}`, { noScroll: true });
		else if (event.key === 'r' && chosen) void goto(`/desk/readership/${chosen}`);
		else if ((event.key === 'd' || event.key === 'p') && chosen) document.getElementById(event.key === 'd' ? 'door' : 'placed')?.focus();
		else return;
		event.preventDefault();
	}
</script>

<svelte:head><title>Documents, {data.site.name}</title></svelte:head>
<svelte:window onkeydown={keys} />

<div class="room" class:with-sheet={chosen}>
	<section class="hall">
		<div class="head">
			<h1>Documents</h1>
			<p class="soft">{counted(data.list.all, 'document', 'documents')}{filtered ? `, ${data.list.total} shown` : ''}</p>
			<div class="do">
				<a class="btn" href={address({ as: wall ? null : 'covers' }, true)}>{wall ? 'Table' : 'Covers'}</a>
				<button class="btn main" onclick={() => chooser.open()}>Bring in</button>
			</div>
		</div>
		<div class="filters" role="group" aria-label="Filters">
			<span class="doors">
				{#each positions as position (position)}
					{@const on = data.query.door === position}
					<a class="pill" class:on href={address({ door: on ? null : position })} aria-current={on ? 'true' : undefined}
						>{doorWords[position]} <i>{data.list.doors[position]}</i></a
					>
				{/each}
			</span>
			<a class="pill" class:on={data.query.condition === 'look'} href={address({ condition: data.query.condition ? null : 'look' })}
				>Worth a look <i>{data.list.looks}</i></a
			>
			<label class="pill order"
				>Order
				<select
					class="bare"
					value={data.query.order}
					onchange={(e) => goto(address({ order: e.currentTarget.value === 'newest' ? null : e.currentTarget.value }))}
				>
					{#each Object.entries(orderWords) as [value, words] (value)}<option {value}>{words}</option>{/each}
				</select>
			</label>
			{#if filtered}<a class="quiet ml-1" href="/desk/documents">Show all</a>{/if}
		</div>

		{#if !data.list.all}
			<div class="empty">
				<h2>Bring in the first PDF</h2>
				<p>Drop it anywhere on this screen, or choose it. It stays shut until you set its door.</p>
				<button class="btn main" onclick={() => chooser.open()}>Bring in</button>
			</div>
		{:else if !data.list.items.length}
			<div class="empty">
				<h2>Nothing fits these filters</h2>
				<p>{data.query.q ? `No title, address, description or file name contains “${data.query.q}”.` : 'Take one of them away.'}</p>
				<a class="btn" href="/desk/documents">Show all</a>
			</div>
		{:else if wall}
			<ul class="wall">
				{#each data.list.items as item (item.id)}
					<li>
						<a id="row-{item.slug}" href={sheet(item.slug)} data-sveltekit-noscroll class:on={item.slug === chosen}>
							<span class="frame"><img src="/d/{item.slug}/cover/300.webp?e={item.edition}" alt="" loading="lazy" /></span>
							<strong>{item.title}</strong>
							<span class="door"><DoorMark position={item.door.position} height={18} />{item.door.who}</span>
						</a>
					</li>
				{/each}
			</ul>
		{:else}
			<Table class="documents" divClass="border border-[var(--line)] bg-[var(--sheet)]" border={false}>
				<TableHead>
					<TableHeadCell class="w-[50px]"><span class="sr-only">Cover</span></TableHeadCell>
					<TableHeadCell>Document</TableHeadCell>
					<TableHeadCell class="w-[104px]">Passage</TableHeadCell>
					<TableHeadCell class="w-[178px]">Door</TableHeadCell>
					{#if !chosen}
						<TableHeadCell class="w-[190px]">Placed</TableHeadCell>
						<TableHeadCell class="w-[150px]">Edition</TableHeadCell>
					{/if}
					<TableHeadCell class="w-[136px] text-right">Readers, 30 days</TableHeadCell>
				</TableHead>
				<TableBody>
					{#each data.list.items as item (item.id)}
						<TableBodyRow
							id="row-{item.slug}"
							class={item.slug === chosen ? 'on' : ''}
							aria-selected={item.slug === chosen}
							onclick={() => goto(sheet(item.slug), { noScroll: true })}
						>
							<TableBodyCell class="c"><img class="cover" src="/d/{item.slug}/cover/300.webp?e={item.edition}" alt="" loading="lazy" /></TableBodyCell>
							<TableBodyCell class="name"
								><a href={sheet(item.slug)} data-sveltekit-noscroll title={item.title}>{item.title}</a><small
									>{counted(item.pages, 'page', 'pages')} {item.paper} · {sizeWords(item.bytes)}</small
								></TableBodyCell
							>
							<TableBodyCell><PassageMark passage={item.passage} href={sheet(item.slug)} /></TableBodyCell>
							<TableBodyCell>
								<span class="door" title={item.door.sentence}>
									<DoorMark position={item.door.position} />
									<span
										><b>{item.door.who}</b><small
											>{item.door.position === 'keyed' ? counted(item.door.count, 'person', 'people') : doorWords[item.door.position]}</small
										></span
									>
								</span>
							</TableBodyCell>
							{#if !chosen}
								<TableBodyCell
									>{item.placements ? `In ${counted(item.placements, 'place', 'places')}` : ''}<small>{item.placements ? 'published' : 'Not placed yet'}</small
									></TableBodyCell
								>
								<TableBodyCell>{item.edition === 1 ? 'First' : `No. ${item.edition}`}<small>{dayText(item.editionAt, data.site.zone)}</small></TableBodyCell>
							{/if}
							<TableBodyCell class="num"><Spark values={item.days} label="Openings a day over 30 days" /><b class="count">{item.readers}</b></TableBodyCell>
						</TableBodyRow>
					{/each}
				</TableBody>
			</Table>
		{/if}
		{#if pages > 1}
			<nav class="paging" aria-label="Pages of the list">
				{#if data.query.page > 1}<a class="btn" href={address({ page: String(data.query.page - 1) })}>Back</a>{/if}
				<span class="soft"
					>{(data.query.page - 1) * data.pageLength + 1} to {Math.min(data.list.total, data.query.page * data.pageLength)} of {data.list.total}</span
				>
				{#if data.query.page < pages}<a class="btn" href={address({ page: String(data.query.page + 1) })}>Further</a>{/if}
			</nav>
		{/if}
	</section>
	{@render children()}
</div>

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
	.filters {
		display: flex;
		flex-wrap: wrap;
		gap: 7px;
		margin: 13px 0 11px;
		align-items: center;
	}
	.doors {
		display: flex;
	}
	.doors .pill {
		border-radius: 0;
		margin-left: -1px;
	}
	.doors .pill.on {
		z-index: 1;
	}
	.order {
		padding-right: 0;
	}
	.bare {
		border: 0;
		background-color: transparent;
		padding: 0 26px 0 2px;
		height: 26px;
		font-size: 14px;
		color: var(--ink-soft);
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
	.hall :global(tbody tr.on td) {
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
		padding: 5px 0 5px 12px;
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
