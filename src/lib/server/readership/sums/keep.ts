// Keeps the sums up to date: what was entered meanwhile is summed every two seconds, and before a report is read.
import { dayOf } from '#core/access/hours';
import { doubleClickSeconds } from '#core/readership/counting';
import { dayAfter } from '#core/readership/period';
import { readershipOf } from '#core/readership/settings';
import { changesAreHeard, whenTold } from '../../db/changes';
import { sql } from '../../db/client';
import { theRow } from '../../db/rows';
import { log } from '../../log';
import { forgetReadings } from '../../reading/writer';
import type { Entry, Remembered } from '../recent';
import { settings } from '../../settings';
import { site, zoneIn } from '../../site/site';
import { recent, sumOneDay } from './day';
import { bringProgress } from './progress';
import { type Transaction, type EntryRow, entryColumns, entryOf } from './rows';
import { wholeOf, longerOf } from './spans';

const lookMs = 2_000;

/** Entries are committed at most so long after their time; they are looked for so far back. */
const slackMs = 60_000;

const lock = 4_173_007;

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
	const ends = theRow(await tx<{ first: Date | null; last: Date | null; now: Date }[]>`select min(at) as first, max(at) as last, now() from ledger`);
	const first = ends.first && dayOf(ends.first.getTime(), zone);
	// what follows from sums of days whose entries have gone
	const kept = await tx<{ day: string }[]>`
		select distinct to_char(day, 'YYYY-MM-DD') as day from sum_figures where span = 'day' and ${first ? tx`day < ${first}` : tx`true`}`;
	for (const { day } of kept) await wholeOf(tx, day, null);
	if (first) {
		// double clicks over midnight count on the day before too
		// a first entry means a last one
		const last = dayOf(ends.last!.getTime(), zone);
		await tx`delete from sum_robot where day >= ${first}`;
		for (let day = first; day <= last; day = dayAfter(day, 1)) await sumOneDay(tx, day, zone, null);
	}
	const days = await tx<{ day: string }[]>`select distinct to_char(day, 'YYYY-MM-DD') as day from sum_figures where span = 'day'`;
	await longerOf(tx, new Map(days.map(({ day }) => [day, null])));
	await bringProgress(tx, null);
	await mark(tx, ends.now, zone, snapshot);
}

const snapshotOf = async (tx: Transaction): Promise<string> => (await tx<{ seen: string }[]>`select pg_current_snapshot()::text as seen`)[0]!.seen;

/** Says until when the sums go. Gives their new version. */
async function mark(tx: Transaction, until: Date, zone: string, seen: string): Promise<string> {
	const row = theRow(
		await tx<{ version: string }[]>`
		insert into summed (until, zone, seen) values (${until}, ${zone}, ${seen}::pg_snapshot)
		on conflict (one) do update set until = excluded.until, zone = excluded.zone, seen = excluded.seen, version = gen_random_uuid() returning version`
	);
	return row.version;
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

/**
 * The same for a report: what was entered a moment ago is in it, and nobody waits long (IANUA_REPORT_WAIT); then it shows what there is. Gives whether the sums are whole: while all of them
 * are made anew, after a change of their tables or of the site's zone, they are not.
 */
export async function sumsForReport(): Promise<boolean> {
	let timer: ReturnType<typeof setTimeout> | undefined;
	const enough = new Promise<boolean>((done) => (timer = setTimeout(() => done(false), settings().IANUA_REPORT_WAIT)));
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
	await forgetReadings(now);
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

/** Pause between two looks while nobody tells of new entries or another zone (`tellOfWork`), ms; and for how long after that it is short. */
const [idleMs, lively] = [20_000, 10_000];

/**
 * Keeps the sums up to date from now on. The longer making them takes, the longer is the pause: much of it is the same however little is new. While
 * nothing is entered it is longer still, where servers are heard.
 */
export function keepSumming(): void {
	let timer: ReturnType<typeof setTimeout> | undefined;
	let [toldAt, busy] = [performance.now(), false];
	const next = (took: number, idle: boolean) => {
		const pause = Math.max(lookMs, Math.min(8 * took, longestMs), took);
		timer = setTimeout(() => void again(), idle ? Math.max(pause, idleMs) : pause).unref();
	};
	const again = async () => {
		busy = true;
		const started = performance.now();
		await sumUp().catch((err: unknown) => log().warn({ err }, 'sums of the ledger'));
		const heard = await changesAreHeard(idleMs);
		busy = false;
		next(performance.now() - started, heard && performance.now() - toldAt > lively);
	};
	const told = () => {
		const wasIdle = performance.now() - toldAt > lively;
		toldAt = performance.now();
		if (busy || !wasIdle) return;
		clearTimeout(timer);
		next(0, false);
	};
	// of another zone, every sum is another
	for (const kind of ['entries', 'zone']) whenTold(kind, told);
	next(0, false);
}
