<!-- Attention by page: how long each page was attended to, over the pictures of the pages, and where readers stop. -->
<script lang="ts">
	import { Button } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { durationWords } from '#core/readership/words';
	import type { PageAttention } from '$lib/server/readership/reports/document';
	import TakeAway from './TakeAway.svelte';
	let {
		slug,
		edition,
		pages,
		attention
	}: {
		slug: string;
		/** Number of the edition. */
		edition: number;
		/** How many it has. */
		pages: number;
		attention: readonly PageAttention[];
	} = $props();

	/** Most bars side by side; of longer documents each stands for as many pages as needed. */
	const most = 96;
	/** Most pictures under them. */
	const mostPictures = 24;
	let asTable = $state(false);
	const each = $derived(Math.max(1, Math.ceil(pages / most)));
	const byPage = $derived(new Map(attention.map((a) => [a.page, a])));
	const bars = $derived(
		Array.from({ length: Math.ceil(pages / each) }, (_, i) => {
			const first = i * each + 1;
			const last = Math.min(pages, first + each - 1);
			let [seconds, stops, readers] = [0, 0, 0];
			for (let page = first; page <= last; page++) {
				const a = byPage.get(page);
				seconds += a?.seconds ?? 0;
				stops += a?.stops ?? 0;
				readers = Math.max(readers, a?.readers ?? 0);
			}
			return { first, last, seconds, stops, readers };
		})
	);
	const top = $derived(Math.max(1, ...bars.map((b) => b.seconds)));
	const stopped = $derived(bars.filter((b) => b.last < pages && b.stops > 0).toSorted((a, b) => b.stops - a.stops)[0] ?? null);
	const pictured = $derived(
		pages <= mostPictures
			? Array.from({ length: pages }, (_, i) => i + 1)
			: Array.from({ length: mostPictures }, (_, i) => Math.floor((i * pages) / mostPictures) + 1)
	);
	const named = (b: { first: number; last: number }) => (b.first === b.last ? `Page ${b.first}` : `Pages ${b.first} to ${b.last}`);
</script>

<section>
	<h2>
		Attention by page <small>{each > 1 ? `time on every ${each} pages` : 'time on each page'}, all readers</small><span class="tools"
			><Button kind="quiet" aria-pressed={asTable} onclick={() => (asTable = !asTable)}>{asTable ? 'As a chart' : 'As a table'}</Button><TakeAway
				report="documents/{slug}"
				table="pages"
			/></span
		>
	</h2>
	{#if !attention.length}
		<p class="soft">Nothing has been told of single pages in this time. It is told by the reading room; copies saved are read elsewhere.</p>
	{:else if asTable}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div class="scroll" tabindex="0" role="region" aria-label="Attention by page">
			<Table class="rows">
				<TableHead
					><TableHeadCell>Page</TableHeadCell><TableHeadCell class="n">Time</TableHeadCell><TableHeadCell class="n">Read, by reader and day</TableHeadCell
					><TableHeadCell class="n">Went no further</TableHeadCell></TableHead
				>
				<TableBody
					>{#each bars as b (b.first)}<TableBodyRow
							><TableBodyCell>{named(b)}</TableBodyCell><TableBodyCell class="n">{durationWords(b.seconds)}</TableBodyCell><TableBodyCell class="n"
								>{b.readers}</TableBodyCell
							><TableBodyCell class="n">{b.stops || ''}</TableBodyCell></TableBodyRow
						>{/each}</TableBody
				>
			</Table>
		</div>
	{:else}
		<div class="strip" style="--columns:{bars.length}" class:close={bars.length > 48}>
			{#each bars as b (b.first)}<a
					href="/d/{slug}/read?from=desk#page={b.first}"
					class:stop={b === stopped}
					style="height:{b.seconds ? Math.max(2, (100 * b.seconds) / top) : 0}%"
					aria-label="{named(b)}: {durationWords(b.seconds)}"
					title="{named(b)}: {durationWords(b.seconds)}{b.stops ? `, ${b.stops} went no further` : ''}"
				></a>{/each}
		</div>
		<div class="leaves" style="--columns:{pictured.length}" aria-hidden="true">
			{#each pictured as page (page)}<img src="/d/{slug}/leaf/{page}.webp?w=96&e={edition}&for=look" alt="" loading="lazy" />{/each}
		</div>
		{#if stopped}<p class="soft stops"><i></i>Most of those who stop before the end stop on {named(stopped).toLowerCase()} ({stopped.stops}).</p>{/if}
	{/if}
</section>

<style>
	.strip,
	.leaves {
		display: grid;
		/* a document of few pages makes no wide blocks */
		grid-template-columns: repeat(var(--columns), minmax(0, 72px));
	}
	.strip {
		gap: 3px;
		align-items: end;
		height: 128px;
		border-bottom: 1px solid var(--edge);
	}
	.strip.close {
		gap: 1px;
	}
	.strip a {
		display: block;
		background: var(--verdigris);
	}
	.strip a:hover,
	.strip a:focus-visible {
		background: var(--verdigris-deep);
	}
	.strip a.stop,
	.stops i {
		background: var(--brass-bright);
	}
	.leaves {
		gap: 3px;
		margin-top: 4px;
		align-items: start;
	}
	.leaves img {
		width: 100%;
		max-width: 64px;
		justify-self: center;
		background: #fff;
		border: 1px solid var(--line);
		min-height: 12px;
	}
	.stops {
		display: flex;
		align-items: center;
		gap: 7px;
		font-size: 13px;
		margin-top: 6px;
	}
	.stops i {
		width: 11px;
		height: 11px;
	}
	.scroll :global(.n) {
		text-align: right;
	}
</style>
