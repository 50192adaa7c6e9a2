// What follows from the sums of days: those of dekads, months and of the whole site.
import { devices } from '#core/readership/counting';
import { sumSpanOf, sumSpans, type Days, type SumSpan } from '#core/readership/period';
import { wholeSite } from './figures';
import { onlyOf, type Transaction } from './rows';

/** The columns of figures, added up. Seconds as decimal numbers: in whatever order they come, the sum is the same. */
const addedUp = (() => {
	const plain = [
		'openings',
		'saves',
		'printed',
		'refusals',
		'knocks',
		'keys_used',
		'shown',
		'looks',
		'unique_requests',
		'unique_investigations',
		'controlled',
		'controlled_looks',
		'controlled_unique_requests',
		'controlled_unique_investigations',
		'staff_openings',
		'staff_saves'
	];
	const array = (name: string, length: number) => `array[${Array.from({ length }, (_, i) => `coalesce(sum(${name}[${i + 1}]), 0)::int`).join(', ')}]`;
	return {
		columns: `${plain.join(', ')}, seconds, hours, devices`,
		sums: `${plain.map((name) => `sum(${name})::int`).join(', ')}, sum(seconds::numeric)::real, ${array('hours', 24)}, ${array('devices', devices.length)}`
	};
})();

/** Makes what follows from a day's sums of documents: their sets of readers, and the sums and the set of the whole site. */
export async function wholeOf(tx: Transaction, day: string, documents: readonly string[] | null): Promise<void> {
	const only = onlyOf(tx, documents);
	await tx`delete from sum_readers where span = 'day' and day = ${day} ${only}`;
	// each reader's bit after so many zeros, 64 at a time
	const zeros = '0'.repeat(64);
	await tx`
		insert into sum_readers (span, day, document_id, readers)
		select 'day', ${day}, document_id, string_agg(repeat(${zeros}, gap / 64) || left(${zeros}, gap % 64) || '1', '' order by reader)::bit varying from (
			select document_id, reader, reader - coalesce(lag(reader) over (partition by document_id order by reader), -1) - 1 as gap from (
				select distinct document_id, reader from sum_reader where day = ${day} ${only} and openings + saves > 0) one) gaps
		group by document_id`;
	await tx`delete from sum_readers where span = 'day' and day = ${day} and document_id = ${wholeSite}`;
	await tx`
		insert into sum_readers (span, day, document_id, readers)
		select 'day', ${day}, ${wholeSite}, readers from readers_union('day', ${day}, ${day}, null) readers where length(readers) > 0`;
	await tx`delete from sum_figures where span = 'day' and day = ${day} and document_id = ${wholeSite}`;
	await tx`
		insert into sum_figures (span, day, document_id, ${tx.unsafe(addedUp.columns)})
		select 'day', ${day}, ${wholeSite}, ${tx.unsafe(addedUp.sums)} from sum_figures where span = 'day' and day = ${day} having count(*) > 0`;
	await tx`delete from sum_source where span = 'day' and day = ${day} and document_id = ${wholeSite}`;
	await tx`
		insert into sum_source (span, day, document_id, kind, page_id, outside, key_id, shown, looks, openings, saves)
		select 'day', ${day}, ${wholeSite}, kind, page_id, outside, key_id, sum(shown), sum(looks), sum(openings), sum(saves) from sum_source
		where span = 'day' and day = ${day} group by kind, page_id, outside, key_id`;
}

/** Makes the longer spans in which days lie, each from the sums of the next shorter: of the documents named and of the whole site, or (null) of all. */
export async function longerOf(tx: Transaction, days: ReadonlyMap<string, ReadonlySet<string> | null>): Promise<void> {
	let shorter: SumSpan = 'day';
	for (const span of sumSpans.slice(1)) {
		const wanted = new Map<string, { last: string; documents: Set<string> | null }>();
		for (const [day, documents] of days) {
			const { first, last } = sumSpanOf(day, span);
			const known = wanted.get(first)?.documents;
			wanted.set(first, { last, documents: documents && known !== null ? new Set([...(known ?? []), ...documents]) : null });
		}
		for (const [first, { last, documents }] of wanted) await spanFrom(tx, span, shorter, { first, last }, documents && [...documents, wholeSite]);
		shorter = span;
	}
}

/**
 * Makes the sums and sets of one span, of the documents named or (null) of all, from those of shorter ones. Rows are laid down in the order in
 * which reports read them.
 */
async function spanFrom(tx: Transaction, span: SumSpan, shorter: SumSpan, { first, last }: Days, documents: readonly string[] | null): Promise<void> {
	const only = onlyOf(tx, documents);
	const parts = tx`where span = ${shorter} and day between ${first} and ${last} ${only}`;
	for (const table of ['sum_figures', 'sum_source', 'sum_page', 'sum_reason', 'sum_readers'] as const)
		await tx`delete from ${tx(table)} where span = ${span} and day = ${first} ${only}`;
	await tx`
		insert into sum_figures (span, day, document_id, ${tx.unsafe(addedUp.columns)})
		select ${span}, ${first}, document_id, ${tx.unsafe(addedUp.sums)} from sum_figures ${parts} group by document_id order by document_id`;
	await tx`
		insert into sum_source (span, day, document_id, kind, page_id, placement_id, outside, key_id, shown, looks, openings, saves)
		select ${span}, ${first}, document_id, kind, page_id, placement_id, outside, key_id, sum(shown), sum(looks), sum(openings), sum(saves) from sum_source
		${parts} group by document_id, kind, page_id, placement_id, outside, key_id order by document_id`;
	await tx`
		insert into sum_page (span, day, document_id, edition_id, page, seconds, readers, stops)
		select ${span}, ${first}, document_id, edition_id, page, sum(seconds::numeric)::real, sum(readers), sum(stops) from sum_page ${parts} group by document_id, edition_id, page order by document_id, edition_id, page`;
	await tx`
		insert into sum_reason (span, day, document_id, reason, page_id, times, last_at)
		select ${span}, ${first}, document_id, reason, page_id, sum(times), max(last_at) from sum_reason ${parts} group by document_id, reason, page_id order by document_id`;
	await tx`
		insert into sum_readers (span, day, document_id, readers)
		select ${span}, ${first}, document_id, readers_union(${shorter}, ${first}, ${last}, document_id) from (select distinct document_id from sum_readers ${parts}) d`;
}
