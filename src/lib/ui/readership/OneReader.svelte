<!-- What one member did, or what was done with one key. -->
<script lang="ts">
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { durationWords } from '#core/readership/words';
	import type { LedgerItem } from '$lib/server/readership/ledger';
	import type { OneReader } from '$lib/server/readership/reports/reader';
	import { timeText } from '$lib/ui/parts/when';
	import Bars from './Bars.svelte';
	import Entries from './Entries.svelte';
	import Hall from './Hall.svelte';
	import TakeAway from './TakeAway.svelte';
	let {
		report,
		entries,
		zone,
		note,
		address,
		way
	}: {
		report: OneReader;
		entries: { items: readonly LedgerItem[]; next: string | null };
		zone: string;
		note: string;
		/** Of the report below `/api/v1/readership/`. */
		address: string;
		way: { readonly href: string; readonly words: string };
	} = $props();
</script>

<Hall title={report.name} {note} period={report.period} whole={report.whole} answer={report.answer} {way}>
	<div class="one">
		<Bars bars={report.bars} by={report.period.by} length={report.period.length} report={address} />
		<section>
			<h2>
				Documents {#if report.documents.length}<span class="tools"><TakeAway report={address} table="read" /></span>{/if}
			</h2>
			{#if report.documents.length}
				<Table class="rows">
					<TableHead
						><TableHeadCell>Document</TableHeadCell><TableHeadCell>Last</TableHeadCell><TableHeadCell>Openings</TableHeadCell><TableHeadCell
							>Saved</TableHeadCell
						><TableHeadCell>Printed</TableHeadCell><TableHeadCell>Read for</TableHeadCell><TableHeadCell>Pages read</TableHeadCell></TableHead
					>
					<TableBody
						>{#each report.documents as d (d.slug)}<TableBodyRow
								><TableBodyCell><a class="title" href="/desk/readership/{d.slug}">{d.title}</a></TableBodyCell><TableBodyCell
									>{timeText(d.last, zone)}</TableBodyCell
								><TableBodyCell>{d.openings}</TableBodyCell><TableBodyCell>{d.saves || ''}</TableBodyCell><TableBodyCell>{d.printed || ''}</TableBodyCell
								><TableBodyCell>{d.seconds >= 1 ? durationWords(d.seconds) : ''}</TableBodyCell><TableBodyCell
									>{d.pagesRead ? `${d.pagesRead} of ${d.pages}` : ''}</TableBodyCell
								></TableBodyRow
							>{/each}</TableBody
					>
				</Table>
			{:else}<p class="soft">Nothing in this time.</p>{/if}
		</section>
		<Entries {entries} of={null} {zone} withTitle />
	</div>
</Hall>

<style>
	.one {
		display: grid;
		gap: 22px;
		margin-top: 14px;
	}
	section :global(th:not(:first-child)),
	section :global(td:not(:first-child)) {
		text-align: right;
		white-space: nowrap;
	}
</style>
