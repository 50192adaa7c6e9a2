// Sums of the ledger by day and document, made from the raw entries by core/readership, and from them those of months and of the whole
// site. A day's sums of a document are always made whole, so that making them again gives the same; what was entered meanwhile is summed
// every two seconds, and before a report is read.
import type postgres from 'postgres';
import { dayOf, endOfDay, startOfDay } from '#core/access/hours';
import { hourIn } from '#core/readership/clock';
import { devices, doubleClickSeconds, readingGapMinutes, sumDay, type DaySum, type Summable } from '#core/readership/counting';
import { readSeconds } from '#core/reading/attention';
import { dayAfter, piecesOf, sumSpanOf, sumSpans, type Days, type SumSpan } from '#core/readership/period';
import { readershipOf } from '#core/readership/settings';
import { sql } from '../db/client';
import { log } from '../log';
import { markRobots, newRobots, type SummedDay } from './behaviour';
import { Recent, type Entry, type Remembered } from './recent';
import { site, zoneIn } from '../site/site';

const lookMs = 2_000;
/** Entries are committed at most so long after their time; they are looked for so far back. */
const slackMs = 60_000;
const lock = 4_173_007;
const atATime = 50_000;

type Transaction = postgres.TransactionSql;

const recent = new Recent();

/** Stands for all documents together in the tables of sums. */
export const wholeSite = '00000000-0000-0000-0000-000000000000';

/** Stands for no page of ours in the sums of who was turned away. */
export const noPage = wholeSite;

/** The rows of sums that make up some days, as few as there can be. Joined with `using (span, day)`. */
export const piecesIn = (days: Days) => {
	const { spans, days: firsts } = piecesOf(days);
	return sql()`unnest(${spans as string[]}::text[], ${firsts as string[]}::date[]) as pieces (span, day)`;
};

/** Distinct readers, exactly, over all of the days: an expression, for the document that another one names. */
export const readersIn = (document: postgres.Fragment, days: Days) => {
	const { spans, days: firsts } = piecesOf(days);
	return sql()`readers_count(${document}, ${spans as string[]}::text[], ${firsts as string[]}::date[])`;
};

/** The same of many documents at once, by their ids. */
export async function readersOfEach(documents: readonly string[], days: Days): Promise<Map<string, number>> {
	const { spans, days: firsts } = piecesOf(days);
	const rows = await sql()<{ document: string; n: number }[]>`
		select document, n from readers_counts(${documents as string[]}::uuid[], ${spans as string[]}::text[], ${firsts as string[]}::date[])`;
	return new Map(rows.map((r) => [r.document, r.n]));
}

interface EntryRow {
	id: string;
	at: Date;
	kind: Summable['kind'];
	document_id: string;
	edition_id: string;
	reader: string;
	who: string;
	person_id: string | null;
	source_kind: Summable['source']['kind'];
	page_id: string | null;
	placement_id: string | null;
	outside: string | null;
	key_id: string | null;
	device: Summable['device'] | null;
	controlled: boolean | null;
	attention: Summable['attention'];
	reason: Summable['reason'];
	staff: boolean;
}

const entryColumns = () =>
	sql()`id, at, kind, document_id, edition_id, reader, who, person_id, source_kind, page_id, placement_id, outside, key_id, device, controlled, attention, reason, staff`;

const entryOf = (row: EntryRow): Entry => ({
	id: row.id,
	at: row.at.getTime(),
	kind: row.kind,
	reader: row.reader,
	staff: row.staff,
	// left out by the query
	robot: false,
	preload: false,
	edition: row.edition_id,
	person: row.person_id,
	key: row.key_id,
	device: row.device ?? 'other',
	controlled: row.controlled ?? row.who !== 'visitor',
	placement: row.placement_id,
	source: { kind: row.source_kind, page: row.page_id, outside: row.outside },
	attention: row.attention,
	reason: row.reason
});

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
async function sumOneDay(
	tx: Transaction,
	day: string,
	zone: string,
	fresh: ReadonlyMap<string, readonly Entry[]> | null
): Promise<{ documents: readonly string[]; remembered: readonly Remembered[] }> {
	const of: SummedDay = { day, zone, from: startOfDay(day, zone), until: endOfDay(day, zone), hourOf: hourIn(zone) };
	const { from, until, hourOf } = of;
	const robotsOf = async () => new Set((await tx<{ reader: string }[]>`select reader from sum_robot where day = ${day}`).map((r) => r.reader));
	const unmasked = fresh ? await newRobots(tx, recent, of, [...fresh.values()].flat(), await robotsOf()) : await markRobots(tx, day, zone, from, until, null);
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
	return { documents: wanted ? [...wanted] : sums.map((of) => of.document), remembered };
}

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
	const whole = documents?.filter((document) => !sums.some((of) => of.document === document && of.changed)) ?? null;
	if (!whole || whole.length) gone.push(...(await takeOut(tx, day, onlyOf(tx, whole))));
	for (const { document, changed } of sums)
		if (changed)
			gone.push(
				...(await takeOut(tx, day, tx`and document_id = ${document} and reader in (select number from reader where name = any(${[...changed]}::text[]))`))
			);
	await insert(
		tx,
		'sum_figures',
		sums.map(
			({
				document,
				sum: { hours, devices, sources: _s, readers: _r, refused: _f, keysUsed, uniqueRequests, uniqueInvestigations, staffOpenings, staffSaves, ...rest }
			}) => ({
				span: 'day',
				day,
				document_id: document,
				...rest,
				keys_used: keysUsed,
				unique_requests: uniqueRequests,
				unique_investigations: uniqueInvestigations,
				staff_openings: staffOpenings,
				staff_saves: staffSaves,
				hours,
				devices
			})
		)
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
		const reader = numbers.get(r.reader)!;
		touched.set(`${document} ${r.edition} ${reader}`, { document, edition: r.edition, reader });
	}
	await bringProgress(tx, [...touched.values()]);
}

/** How far somebody known is with an edition: the row of `progress` that is named so. */
interface Standing {
	readonly document: string;
	readonly edition: string;
	readonly reader: number;
}

/** Takes out what a day's sums say of readers. Gives who of them is known. */
async function takeOut(tx: Transaction, day: string, only: postgres.Fragment): Promise<readonly Standing[]> {
	await tx`delete from sum_refused where day = ${day} ${only}`;
	return tx<Standing[]>`
		with gone as (delete from sum_reader where day = ${day} ${only} returning *)
		select document_id as document, edition_id as edition, reader from gone where person_id is not null or key_id is not null`;
}

/** Rows of the documents named, or (null) of all, the whole site among them. */
const onlyOf = (tx: Transaction, documents: readonly string[] | null) => (documents ? tx`and document_id = any(${documents as string[]}::uuid[])` : tx``);

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
async function wholeOf(tx: Transaction, day: string, documents: readonly string[] | null): Promise<void> {
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
async function longerOf(tx: Transaction, days: ReadonlyMap<string, ReadonlySet<string> | null>): Promise<void> {
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

/** Rows into one of the tables of sums, all in one parameter: there may be many. (COPY is slower for few rows: its replies wait for each other.) */
async function insert(
	tx: Transaction,
	table: 'sum_figures' | 'sum_source' | 'sum_reader' | 'sum_page' | 'sum_refused' | 'sum_reason',
	rows: readonly object[]
): Promise<void> {
	for (let i = 0; i < rows.length; i += 20_000) {
		const part = rows.slice(i, i + 20_000);
		await tx`insert into ${tx(table)} select * from jsonb_populate_recordset(null::${tx(table)}, ${tx.json(part as never)})`;
	}
}

/** Numbers of readers; new ones get theirs. */
async function numbersOf(tx: Transaction, names: ReadonlySet<string>): Promise<Map<string, number>> {
	const known = async (wanted: readonly string[]) =>
		// offset 0: each is looked up, however many readers there are
		tx<{ name: string; number: number }[]>`
			select w.name, r.number from unnest(${wanted as string[]}::text[]) as w (name) cross join lateral (select number from reader where name = w.name offset 0) r`;
	const numbers = new Map((await known([...names])).map((r) => [r.name, r.number]));
	const fresh = [...names].filter((name) => !numbers.has(name));
	if (!fresh.length) return numbers;
	// whoever came in between is left to them, and no number is spent on those that are there
	const rows = await tx<
		{ name: string; number: number }[]
	>`insert into reader (name) select unnest(${fresh}::text[]) on conflict do nothing returning name, number`;
	for (const { name, number } of rows.length === fresh.length ? rows : [...rows, ...(await known(fresh))]) numbers.set(name, number);
	return numbers;
}

/** Brings up to date how far those who are known (members, keys' holders) are with editions; null means all of them. */
async function bringProgress(tx: Transaction, touched: readonly Standing[] | null): Promise<void> {
	if (touched && !touched.length) return;
	const wanted = touched
		? tx`join unnest(${touched.map((t) => t.document)}::uuid[], ${touched.map((t) => t.edition)}::uuid[], ${touched.map((t) => t.reader)}::int[]) as t (d, e, r)
			on t.d = s.document_id and t.e = s.edition_id and t.r = s.reader`
		: tx``;
	if (touched)
		await tx`delete from progress p using unnest(${touched.map((t) => t.document)}::uuid[], ${touched.map((t) => t.edition)}::uuid[], ${touched.map((t) => t.reader)}::int[]) as t (d, e, r)
			where t.d = p.document_id and t.e = p.edition_id and t.r = p.reader`;
	else await tx`truncate progress`;
	await tx`
		with sums as (select s.* from sum_reader s ${wanted} where s.person_id is not null or s.key_id is not null),
			pages as (
				select document_id, edition_id, reader, count(*) filter (where seconds >= ${readSeconds}) as pages_read, coalesce(max(page) filter (where seconds >= ${readSeconds}), 0) as furthest
				from (select document_id, edition_id, reader, page, sum(second) as seconds from sums, unnest(pages, page_seconds) as u (page, second) group by 1, 2, 3, 4) p group by 1, 2, 3)
		insert into progress select s.document_id, s.edition_id, s.reader, sum(openings), sum(saves), sum(printed), sum(seconds), coalesce(max(p.pages_read), 0), coalesce(max(p.furthest), 0),
			min(first_at), max(last_at)
		from sums s left join pages p on p.document_id = s.document_id and p.edition_id = s.edition_id and p.reader = s.reader group by 1, 2, 3`;
}

/** Makes all sums anew from the raw entries. Days of which no entries are kept any more stay as they are. */
export async function sumAgain(): Promise<void> {
	await sql().begin(async (tx) => {
		await tx`select pg_advisory_xact_lock(${lock})`;
		await sumAll(tx, await zoneIn(tx));
	});
}

async function sumAll(tx: Transaction, zone: string): Promise<void> {
	// whoever takes a person's name out of the ledger waits until this is done
	await tx`select 1 from summed for update`;
	const snapshot = await snapshotOf(tx);
	const [ends] = await tx<{ first: Date | null; last: Date | null; now: Date }[]>`select min(at) as first, max(at) as last, now() from ledger`;
	const first = ends!.first && dayOf(ends!.first.getTime(), zone);
	// what follows from sums of days whose entries have gone
	const kept = await tx<{ day: string }[]>`
		select distinct to_char(day, 'YYYY-MM-DD') as day from sum_figures where span = 'day' and ${first ? tx`day < ${first}` : tx`true`}`;
	for (const { day } of kept) await wholeOf(tx, day, null);
	if (first) {
		// double clicks over midnight count on the day before too
		const last = dayOf(ends!.last!.getTime(), zone);
		await tx`delete from sum_robot where day >= ${first}`;
		for (let day = first; day <= last; day = dayAfter(day, 1)) await sumOneDay(tx, day, zone, null);
	}
	const days = await tx<{ day: string }[]>`select distinct to_char(day, 'YYYY-MM-DD') as day from sum_figures where span = 'day'`;
	await longerOf(tx, new Map(days.map(({ day }) => [day, null])));
	await bringProgress(tx, null);
	await mark(tx, ends!.now, zone, snapshot);
}

const snapshotOf = async (tx: Transaction): Promise<string> => (await tx<{ seen: string }[]>`select pg_current_snapshot()::text as seen`)[0]!.seen;

/** Says until when the sums go. Gives their new version. */
async function mark(tx: Transaction, until: Date, zone: string, seen: string): Promise<string> {
	const [row] = await tx<{ version: string }[]>`
		insert into summed (until, zone, seen) values (${until}, ${zone}, ${seen}::pg_snapshot)
		on conflict (one) do update set until = excluded.until, zone = excluded.zone, seen = excluded.seen, version = gen_random_uuid() returning version`;
	return row!.version;
}

let running: Promise<void> | undefined;
let next: Promise<void> | undefined;

/** Sums what was entered since the last time. Who asks while it runs waits for the time after, which sees their entries. */
export function sumUp(): Promise<void> {
	if (!running) {
		running = sumNew().finally(() => (running = undefined));
		return running;
	}
	next ??= running
		.catch(() => {})
		.then(() => {
			next = undefined;
			return sumUp();
		});
	return next;
}

/** Most that a report waits for the sums, ms: while all of them are made anew it shows what there is. */
const mostWaiting = 1_500;

/**
 * The same for a report: what was entered a moment ago is in it, and nobody waits long. Gives whether the sums are whole: while all of them
 * are made anew, after a change of their tables or of the site's zone, they are not.
 */
export async function sumsForReport(): Promise<boolean> {
	let timer: ReturnType<typeof setTimeout> | undefined;
	const enough = new Promise<boolean>((done) => (timer = setTimeout(() => done(false), mostWaiting)));
	const done = await Promise.race([sumUp().then(() => true), enough]).finally(() => clearTimeout(timer));
	if (done) return true;
	const [{ zone }, [row]] = await Promise.all([site(), sql()<{ zone: string }[]>`select zone from summed`]);
	return row?.zone === zone;
}

/** A snapshot says nothing in another database, into which this one may have been put back: a server begins by looking a minute further. */
let begun = false;

async function sumNew(): Promise<void> {
	const expected = (await site()).zone;
	const s = sql();
	const slack = `${slackMs} milliseconds`;
	const [state] = await s<{ until: Date; zone: string; fresh: boolean }[]>`
		select until, zone, exists (select 1 from ledger_fresh(until - ${slack}::interval, seen)) as fresh from summed`;
	// most of the time there is nothing new, and nobody has to wait for the lock
	if (begun && state && state.zone === expected && !state.fresh) {
		// robots alone do not make the look back longer and longer
		if (Date.now() - state.until.getTime() > 5 * slackMs) await s`update summed set until = greatest(until, now() - ${slack}::interval)`;
		return;
	}
	const { version, remembered } = await s.begin(async (tx) => {
		await tx`select pg_advisory_xact_lock(${lock})`;
		const [known] = await tx<{ until: Date; zone: string; seen: string | null; version: string; now: Date }[]>`
			select until, zone, seen::text as seen, version, now() from summed for update`;
		const zone = await zoneIn(tx);
		if (!known || known.zone !== zone) {
			await sumAll(tx, zone);
			return { version: null, remembered: [] };
		}
		recent.of(known.version);
		const snapshot = await snapshotOf(tx);
		const rows = await tx<EntryRow[]>`
			select ${entryColumns()} from ledger_fresh(${known.until} - ${slack}::interval, ${begun ? known.seen : null}::pg_snapshot) order by at, id`;
		const days = new Map<string, Map<string, Entry[]>>();
		for (const row of rows) {
			const entry = entryOf(row);
			// what comes right after midnight may make a double click of one before it
			for (const day of new Set([dayOf(entry.at, zone), dayOf(entry.at - doubleClickSeconds * 1000, zone)])) {
				const documents = days.get(day) ?? new Map<string, Entry[]>();
				const entries = documents.get(row.document_id) ?? [];
				entries.push(entry);
				days.set(day, documents.set(row.document_id, entries));
			}
		}
		const touched = new Map<string, Set<string>>();
		const remembered: Remembered[] = [];
		for (const [day, fresh] of [...days].sort(([a], [b]) => (a < b ? -1 : 1))) {
			const made = await sumOneDay(tx, day, zone, fresh);
			touched.set(day, new Set(made.documents));
			remembered.push(...made.remembered);
		}
		await longerOf(tx, touched);
		return { version: await mark(tx, known.now, zone, snapshot), remembered };
	});
	begun = true;
	recent.keep(version, remembered);
}

/**
 * Lets go of readings that are over, of entries older than the site keeps them (whole months at once), and of names in older sums. By what
 * a reading is known is in no entry where nothing is kept of visitors, so it must not stay here either.
 */
export async function forgetReaders(now: number): Promise<void> {
	await sql()`delete from reading where last_at < ${new Date(now - readingGapMinutes * 60_000)}`;
	const { zone, readership } = await site();
	const { months } = readershipOf(readership);
	if (months === null) return;
	const [year, month] = dayOf(now, zone).split('-').map(Number) as [number, number];
	const before = new Date(Date.UTC(year, month - 1 - months, 1)).toISOString().slice(0, 10);
	await sql().begin(async (tx) => {
		await tx`select pg_advisory_xact_lock(${lock})`;
		const days = await tx<{ day: string }[]>`select to_char(day, 'YYYY-MM-DD') as day from ledger_drop_before(${before}) day`;
		if (!days.length) return;
		for (const { day } of days) await wholeOf(tx, day, null);
		await longerOf(tx, new Map(days.map(({ day }) => [day, null])));
		await bringProgress(tx, null);
	});
}

/** Longest pause between two looks where making the sums takes its time, ms: with that it stays under five seconds. */
const longestMs = 3_500;

/** Keeps the sums up to date from now on. The longer making them takes, the longer is the pause: much of it is the same however little is new. */
export function keepSumming(): void {
	const next = (took: number) => setTimeout(() => void again(), Math.max(lookMs, Math.min(8 * took, longestMs), took)).unref();
	const again = async () => {
		const at = performance.now();
		await sumUp().catch((err: unknown) => log().warn({ err }, 'sums of the ledger'));
		next(performance.now() - at);
	};
	next(0);
}
