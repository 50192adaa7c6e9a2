// The sums of a day, made from the raw entries by core/readership. A day’s sums of a document are always made whole, so that making them again
// gives the same.
import type postgres from 'postgres';
import { endOfDay, startOfDay } from '#core/access/hours';
import { hourIn } from '#core/readership/clock';
import { doubleClickSeconds, sumDay, type DaySum } from '#core/readership/counting';
import { readSeconds } from '#core/reading/attention';
import type { SumSpan } from '#core/readership/period';
import { markRobots, newRobots, type SummedDay } from '../behaviour';
import { Recent, type Entry, type Remembered } from '../recent';
import { noPage } from './figures';
import { type Standing, bringProgress } from './progress';
import { type Transaction, type EntryRow, entryColumns, entryOf, onlyOf, insert, numbersOf } from './rows';
import { wholeOf } from './spans';

const atATime = 50_000;

export const recent = new Recent();

/** One document's day, to be written: all of it, or what is new of these readers. */
interface Summed {
	readonly document: string;
	readonly sum: DaySum;
	readonly changed: ReadonlySet<string> | null;
}

/**
 * Makes the sums of a day anew, of the documents of which there are fresh entries or (null) of all that have any. Gives the documents whose
 * sums it made, and what is to be remembered once that is committed.
 */
export async function sumOneDay(
	tx: Transaction,
	day: string,
	zone: string,
	fresh: ReadonlyMap<string, readonly Entry[]> | null
): Promise<{ documents: readonly string[]; remembered: readonly Remembered[] }> {
	const summed: SummedDay = { day, zone, from: startOfDay(day, zone), until: endOfDay(day, zone), hourOf: hourIn(zone) };
	const { from, until, hourOf } = summed;
	const robotsOf = async () => new Set((await tx<{ reader: string }[]>`select reader from sum_robot where day = ${day}`).map((r) => r.reader));
	const unmasked = fresh
		? await newRobots(tx, recent, summed, [...fresh.values()].flat(), await robotsOf())
		: await markRobots(tx, day, zone, from, until, null);
	const wanted = fresh ? new Set(fresh.keys()) : null;
	if (wanted && unmasked.length) {
		const more = await tx<
			{ id: string }[]
		>`select distinct document_id as id from ledger where at >= ${new Date(from)} and at < ${new Date(until)} and reader = any(${unmasked})`;
		for (const { id } of more) wanted.add(id);
	}
	const robots = await robotsOf();
	const sums: Summed[] = [];
	const remembered: Remembered[] = [];
	const add = (document: string, entries: Entry[], changed: ReadonlySet<string> | null) => {
		sums.push({ document, sum: sumDay(entries, until, hourOf, robots), changed });
		if (fresh) remembered.push({ day, document, entries });
	};

	const unknown: string[] = [];
	for (const document of wanted ?? []) {
		// where documents are named, what is new was asked for
		const news = fresh!.get(document) ?? [];
		const entries = recent.with(day, document, news);
		if (entries) add(document, entries, new Set([...news.map((e) => e.reader), ...unmasked]));
		else unknown.push(document);
	}
	if (!wanted || unknown.length) {
		const only = wanted ? tx`and document_id = any(${unknown}::uuid[])` : tx``;
		let document: string | null = null;
		let entries: Entry[] = [];
		// so many at a time: a day can hold very many. All of them are wanted, not the first ones soon
		await tx`set local cursor_tuple_fraction = 1`;
		const all = tx<EntryRow[]>`
			select ${entryColumns()} from ledger where at >= ${new Date(from)} and at < ${new Date(until + doubleClickSeconds * 1000 + 1)} ${only} and not robot and not preload
			order by document_id, at, id`;
		for await (const rows of all.cursor(atATime)) {
			for (const row of rows) {
				if (row.document_id !== document) {
					if (document) add(document, entries, null);
					[document, entries] = [row.document_id, []];
				}
				entries.push(entryOf(row));
			}
		}
		if (document) add(document, entries, null);
	}
	await write(tx, day, wanted && [...wanted], sums);
	return { documents: wanted ? [...wanted] : sums.map((sum) => sum.document), remembered };
}

/** Counts by the names of their columns. { keysUsed: 1 } → { keys_used: 1 } */
const columnsOf = (counts: Readonly<Record<string, number>>) =>
	Object.fromEntries(Object.entries(counts).map(([name, n]) => [name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`), n]));

/** Puts the sums of a day's documents, the named ones or (null) all of them, in place of what stands. */
async function write(tx: Transaction, day: string, documents: readonly string[] | null, sums: readonly Summed[]): Promise<void> {
	const only = onlyOf(tx, documents);
	for (const table of ['sum_figures', 'sum_source', 'sum_page', 'sum_reason'] as const)
		await tx`delete from ${tx(table)} where span = 'day' and day = ${day} ${only}`;

	const written = sums.map(({ document, sum, changed }) => ({
		document,
		readers: changed ? sum.readers.filter((r) => changed.has(r.reader)) : sum.readers,
		refused: changed ? sum.refused.filter((r) => changed.has(r.reader)) : sum.refused
	}));
	const readers = written.flatMap(({ document, readers }) => readers.map((r) => ({ document, r })));
	const refused = written.flatMap(({ document, refused }) => refused.map((r) => ({ document, r })));
	const numbers = await numbersOf(tx, new Set([...readers, ...refused].map(({ r }) => r.reader)));
	const gone: Standing[] = [];
	const whole = documents?.filter((document) => !sums.some((sum) => sum.document === document && sum.changed)) ?? null;
	if (!whole || whole.length) gone.push(...(await takeOut(tx, day, onlyOf(tx, whole))));
	for (const { document, changed } of sums)
		if (changed)
			gone.push(
				...(await takeOut(tx, day, tx`and document_id = ${document} and reader in (select number from reader where name = any(${[...changed]}::text[]))`))
			);
	await insert(
		tx,
		'sum_figures',
		sums.map(({ document, sum: { hours, devices, sources: _s, readers: _r, refused: _f, ...counts } }) => ({
			span: 'day',
			day,
			document_id: document,
			...columnsOf(counts),
			hours,
			devices
		}))
	);
	await insert(
		tx,
		'sum_source',
		sums.flatMap(({ document, sum }) =>
			sum.sources.map(({ page, placement, key, ...rest }) => ({
				span: 'day',
				day,
				document_id: document,
				...rest,
				page_id: page,
				placement_id: placement,
				key_id: key
			}))
		)
	);
	await insert(
		tx,
		'sum_reader',
		readers.map(({ document, r }) => ({
			day,
			document_id: document,
			edition_id: r.edition,
			// every reader of the day has been given a number
			reader: numbers.get(r.reader)!,
			person_id: r.person,
			key_id: r.key,
			openings: r.openings,
			saves: r.saves,
			printed: r.printed,
			seconds: r.seconds,
			first_at: new Date(r.firstAt),
			last_at: new Date(r.lastAt),
			pages: [...r.pages.keys()],
			page_seconds: [...r.pages.values()]
		}))
	);
	await insert(tx, 'sum_page', pagesOf(day, sums));
	await insert(tx, 'sum_reason', reasonsOf(day, sums));
	await insert(
		tx,
		'sum_refused',
		refused.map(({ document, r }) => ({
			day,
			document_id: document,
			reason: r.reason ?? '',
			page_id: r.page ?? noPage,
			// every reader of the day has been given a number
			reader: numbers.get(r.reader)!,
			person_id: r.person,
			key_id: r.key,
			times: r.times,
			last_at: new Date(r.lastAt)
		}))
	);
	await wholeOf(tx, day, documents);

	if (!documents) return;
	const touched = new Map<string, Standing>();
	for (const row of gone) touched.set(`${row.document} ${row.edition} ${row.reader}`, row);
	for (const { document, r } of readers) {
		if (!r.person && !r.key) continue;
		// every reader of the day has been given a number
		const reader = numbers.get(r.reader)!;
		touched.set(`${document} ${r.edition} ${reader}`, { document, edition: r.edition, reader });
	}
	await bringProgress(tx, [...touched.values()]);
}

/** Takes out what a day's sums say of readers. Gives who of them is known. */
async function takeOut(tx: Transaction, day: string, only: postgres.Fragment): Promise<readonly Standing[]> {
	await tx`delete from sum_refused where day = ${day} ${only}`;
	return tx<Standing[]>`
		with gone as (delete from sum_reader where day = ${day} ${only} returning *)
		select document_id as document, edition_id as edition, reader from gone where person_id is not null or key_id is not null`;
}

/** Seconds and readers by page; a reader stops at the furthest page that they read that day. */
function pagesOf(day: string, sums: readonly { document: string; sum: DaySum }[]) {
	const pages = new Map<
		string,
		{ span: SumSpan; day: string; document_id: string; edition_id: string; page: number; seconds: number; readers: number; stops: number }
	>();
	for (const { document, sum } of sums) {
		for (const r of sum.readers) {
			let furthest = 0;
			for (const [page, seconds] of r.pages) {
				const name = `${document} ${r.edition} ${page}`;
				let known = pages.get(name);
				if (!known) pages.set(name, (known = { span: 'day', day, document_id: document, edition_id: r.edition, page, seconds: 0, readers: 0, stops: 0 }));
				known.seconds += seconds;
				if (seconds >= readSeconds) {
					known.readers++;
					furthest = Math.max(furthest, page);
				}
			}
			// the page somebody stopped at has been counted above
			if (furthest) pages.get(`${document} ${r.edition} ${furthest}`)!.stops++;
		}
	}
	return [...pages.values()];
}

/** How often somebody was turned away, by reason and page. */
function reasonsOf(day: string, sums: readonly { document: string; sum: DaySum }[]) {
	const reasons = new Map<string, { span: SumSpan; day: string; document_id: string; reason: string; page_id: string; times: number; last_at: Date }>();
	for (const { document, sum } of sums) {
		for (const { reason, page, times, lastAt } of sum.refused) {
			const name = `${document} ${reason} ${page}`;
			const known = reasons.get(name);
			if (known) {
				known.times += times;
				known.last_at = new Date(Math.max(known.last_at.getTime(), lastAt));
			} else reasons.set(name, { span: 'day', day, document_id: document, reason: reason ?? '', page_id: page ?? noPage, times, last_at: new Date(lastAt) });
		}
	}
	return [...reasons.values()];
}
