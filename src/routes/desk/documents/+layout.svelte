<!-- The documents room: filters with counts, the table or the wall of covers, and the sheet at the right. -->
<script lang="ts">
	import Paging from '$lib/ui/parts/Paging.svelte';
	import { Button } from '$lib/ui/parts/controls';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { counted } from '#core/text/list';
	import type { Filters, Order } from '#core/documents/filters';
	import { roomQuery } from '$lib/ui/documents/address';
	import BulkBar from '$lib/ui/documents/BulkBar.svelte';
	import { choose, chooseAll, chooseNone, chosenRows, isChosen } from '$lib/ui/documents/chosen.svelte';
	import CoverWall from '$lib/ui/documents/CoverWall.svelte';
	import DocumentTable from '$lib/ui/documents/DocumentTable.svelte';
	import ColumnChoice from '$lib/ui/documents/ColumnChoice.svelte';
	import FilterRow from '$lib/ui/documents/FilterRow.svelte';
	import { chooser } from '$lib/ui/intake/chooser';
	import MoreWays from '$lib/ui/intake/MoreWays.svelte';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { isTyping } from '$lib/ui/parts/shortcuts';

	let { data, children } = $props();
	let moreWays = $state(false);

	const chosen = $derived(page.params.slug ?? null);
	const wall = $derived(page.url.searchParams.get('as') === 'covers');
	const items = $derived(data.list.items);
	const slugs = $derived(items.map((d) => d.slug));
	const finding = $derived(data.query.q !== '');
	const filtered = $derived(finding || Object.keys(data.query.filters).length > 0);

	/** The room's address with some of it changed; a change of filter or order leads back to the first page. */
	const address = (change: { filters?: Filters; order?: Order; page?: number; aside?: boolean }, covers = wall) =>
		page.url.pathname + roomQuery({ ...data.query, page: 1, ...change }, covers);
	const sheet = (slug: string) => `/desk/documents/${slug}${page.url.search}`;

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
				<Popup label="More ways" plain end width={340} bind:open={moreWays}
					><MoreWays fields={data.fields.length > 0} folders={data.folders} done={() => (moreWays = false)} /></Popup
				>
				<Button kind="main" onclick={() => chooser.open()}>Bring in</Button>
			</div>
		</div>
		<FilterRow
			filters={data.query.filters}
			counts={data.list.counts}
			fields={data.fields.filter((field) => field.kind === 'choice')}
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
			<CoverWall {items} {chosen} {sheet} />
		{:else}
			<DocumentTable
				{items}
				order={data.query.order}
				chosenColumns={data.columns}
				inFolder={Boolean(data.query.filters.folder)}
				zone={data.site.zone}
				{chosen}
				{address}
				{sheet}
			/>
		{/if}
		<Paging label="Pages of the list" shown={data.query.page} length={data.pageLength} total={data.list.total} address={(n) => address({ page: n })} />
		{#if chosenRows.slugs.length}<BulkBar
				fields={data.fields}
				folders={data.folders}
				topics={data.topics}
				total={data.list.total}
				aside={data.query.aside}
				zone={data.site.zone}
			/>{/if}
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
