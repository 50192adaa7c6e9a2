<!-- What one member did, or what was done with one key. -->
<script lang="ts">
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
		way
	}: {
		report: OneReader;
		entries: { items: readonly LedgerItem[]; next: string | null };
		zone: string;
		note: string;
		way: { readonly href: string; readonly words: string };
	} = $props();
	const table = () => ({
		columns: ['document', 'address', 'first', 'last', 'openings', 'saves', 'printed', 'seconds', 'pages read', 'pages'],
		rows: report.documents.map((d) => [d.title, `/d/${d.slug}`, d.first, d.last, d.openings, d.saves, d.printed, Math.round(d.seconds), d.pagesRead, d.pages])
	});
</script>

<Hall title={report.name} {note} period={report.period} whole={report.whole} answer={report.answer} {way}>
	<div class="one">
		<Bars bars={report.bars} by={report.period.by} length={report.period.length} name="reader" />
		<section>
			<h2>
				Documents {#if report.documents.length}<span class="tools"><TakeAway name="documents-read" {table} /></span>{/if}
			</h2>
			{#if report.documents.length}
				<table class="rows">
					<thead><tr><th>Document</th><th>Last</th><th>Openings</th><th>Saved</th><th>Printed</th><th>Read for</th><th>Pages read</th></tr></thead>
					<tbody
						>{#each report.documents as d (d.slug)}<tr
								><td><a class="title" href="/desk/readership/{d.slug}">{d.title}</a></td><td>{timeText(d.last, zone)}</td><td>{d.openings}</td><td
									>{d.saves || ''}</td
								><td>{d.printed || ''}</td><td>{d.seconds >= 1 ? durationWords(d.seconds) : ''}</td><td>{d.pagesRead ? `${d.pagesRead} of ${d.pages}` : ''}</td
								></tr
							>{/each}</tbody
					>
				</table>
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
	th:not(:first-child),
	td:not(:first-child) {
		text-align: right;
		white-space: nowrap;
	}
</style>
