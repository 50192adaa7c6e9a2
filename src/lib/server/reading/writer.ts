// The ledger's writer: entries of requests that come at once share a statement and its commit. Who enters one waits for that commit.
import type { RefusedCode } from '#core/access/decide';
import { readingGapMinutes, type Device } from '#core/readership/counting';
import { IanuaError } from '#core/errors';
import type postgres from 'postgres';
import { Cache } from '../db/cache';
import { changesSoFar, tellOfWork } from '../db/changes';
import { sql } from '../db/client';
import { newId } from '../id';
import { log } from '../log';

/** An entry on its way, with what tells where it came from. */
export interface Line {
	readonly id: string;
	readonly kind: 'shown' | 'looked' | 'opened' | 'saved' | 'printed' | 'turned-away' | 'key-used' | 'knocked';
	readonly document: string;
	readonly edition: string;
	readonly reader: string;
	/** False where the ledger keeps nothing of the reader: every reading is by somebody else then. */
	readonly kept: boolean;
	readonly who: 'visitor' | 'member' | 'key' | 'staff';
	readonly person: string | null;
	readonly reason: RefusedCode | null;
	/** The placement that the address names, if there is such a one. */
	readonly placement: string | null;
	/** The path of ours that somebody came from. */
	readonly path: string | null;
	readonly outside: string | null;
	/** What it is where neither placement nor path lead to a page. */
	readonly source: 'desk' | 'outside' | 'direct' | 'news';
	readonly staff: boolean;
	readonly robot: boolean;
	readonly preload: boolean;
	readonly key: string | null;
	readonly stamp: string | null;
	readonly device: Device;
	readonly controlled: boolean;
	/** True where an entry of the same reading makes this request a follow-up of it. */
	readonly goesOn: boolean;
}

/** What became of a line: whether it began its reading, whether it is entered, and the reading's last instant as it stands in the database. */
interface Outcome {
	readonly begun: boolean;
	readonly entered: boolean;
	readonly lastAt: string;
}

interface Waiting {
	readonly line: Line;
	readonly done: (outcome: Outcome) => void;
	readonly failed: (error: unknown) => void;
}

/** At once on their way: while one is committed the next gathers. More would make each of them smaller, and all of them dearer. */
const statements = 2;
const mostLines = 200;
/**
 * Ms from one statement to the next, unless many lines wait already: a statement costs as much as five lines, so lines that come close
 * together share one. After a pause a line goes at once.
 */
const apart = 8;
const many = 32;

const waiting: Waiting[] = [];

/** How many lines wait to be entered. */
export const waitingLines = (): number => waiting.length;
let busy = 0;
let sentAt = 0;
let gathering: ReturnType<typeof setTimeout> | undefined;

/**
 * Enters a line, and gives whether it is an entry of its own, once that is committed. A line that goes on a reading that is entered already is left out; one that was seen to be entered
 * lately needs no statement for that. Throws `key-used-up` where the key's last opening went to somebody else, and `ledger-closed` where the ledger
 * cannot be written.
 */
export async function enterLine(line: Line): Promise<boolean> {
	if (line.goesOn && (await goesOnAsKnown(line))) return false;
	const begun = changesSoFar();
	const asked = Date.now();
	const outcome = await new Promise<Outcome>((done, failed) => {
		waiting.push({ line, done, failed });
		pump();
	});
	if (outcome.begun && !outcome.entered) throw new IanuaError('key-used-up');
	knowReading(line, outcome.lastAt, asked, begun);
	return outcome.begun;
}

function pump(): void {
	while (busy < statements && waiting.length) {
		const now = performance.now();
		if (now < sentAt + apart && waiting.length < many) {
			gathering ??= setTimeout(
				() => {
					gathering = undefined;
					pump();
				},
				sentAt + apart - now
			);
			return;
		}
		sentAt = now;
		const batch = gather();
		busy++;
		void writeLines(batch).finally(() => {
			busy--;
			pump();
		});
	}
}

/** Lines of one reading; the first goes into the statement, and what becomes of it becomes of the others that go on with it. */
type Together = [Waiting, ...Waiting[]];

/**
 * Lines that one statement can take: of one reader, document and kind only one, and one opening by each key; all going on, or none. Where they go on,
 * others of the same reading ride with the first.
 */
function gather(): Together[] {
	const batch = new Map<string, Together>();
	const left: Waiting[] = [];
	const taken = new Set<string>();
	const { goesOn } = waiting[0]!.line;
	for (const one of waiting.splice(0)) {
		const { line } = one;
		const name = nameOf(line);
		const key = line.key && line.kind === 'opened' ? line.key : null;
		const first = batch.get(name);
		if (first && goesOn && line.goesOn && !taken.has(`later ${name}`)) first.push(one);
		else if (line.goesOn !== goesOn || batch.size >= mostLines || first || taken.has(name) || (key && taken.has(key))) {
			left.push(one);
			// what comes after one that waits does not overtake it
			taken.add(`later ${name}`);
		} else batch.set(name, [one]);
		for (const each of [name, ...(key ? [key] : [])]) taken.add(each);
	}
	waiting.push(...left);
	// always in the same order, so that two statements at once never wait for each other
	return [...batch].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, together]) => together);
}

/** Under what a line's reading goes on: document, reader and kind. */
const nameOf = (line: Pick<Line, 'document' | 'reader' | 'kind'>) => `${line.document} ${line.reader} ${line.kind}`;

/** Ms after which a statement counts as lost with its connection. */
const lostAfter = 10_000;

/** What a statement gives, or an error where its connection went without a word: nobody waits for ever, and the next statement goes. */
function inTime<T>(work: Promise<T>): Promise<T> {
	let timer: ReturnType<typeof setTimeout> | undefined;
	const late = new Promise<never>((_, fail) => (timer = setTimeout(() => fail(new Error('no answer from the database')), lostAfter)));
	return Promise.race([work, late]).finally(() => clearTimeout(timer));
}

async function writeLines(batch: readonly Together[]): Promise<void> {
	try {
		const outcomes = await inTime(insertLines(batch.map(([{ line }]) => line)));
		for (const [first, ...others] of batch) {
			// each of them has a row
			const outcome = outcomes.get(nameOf(first.line))!;
			first.done(outcome);
			for (const { done } of others) done(outcome.entered ? { ...outcome, begun: false } : outcome);
		}
		if ([...outcomes.values()].some((outcome) => outcome.entered)) tellEntered();
	} catch (error) {
		log().error({ err: error, lines: batch.length }, 'the ledger could not be written');
		for (const { failed } of batch.flat()) failed(new IanuaError('ledger-closed'));
	}
}

/**
 * One statement: each reading is found or begun under a unique key, and an entry is made only where it is begun. Two first requests at
 * once meet at that key, so that one of them makes the entry. An opening by a key with a number takes one of them in the same statement:
 * of two that want the last one, one gets it.
 */
async function insertLines(lines: readonly Line[]): Promise<Map<string, Outcome>> {
	const s = sql();
	const gap = `${readingGapMinutes} minutes`;
	const rows = await s<{ document: string; reader: string; kind: Line['kind']; last_at: string; begun: boolean; entered: boolean }[]>`
		with given as (
			select g.* from jsonb_to_recordset(${s.json(lines as never)}) as g (id uuid, kind text, document uuid, edition uuid, reader text, kept boolean, who text, person uuid, reason text,
				placement text, path text, outside text, source text, staff boolean, robot boolean, preload boolean, key uuid, stamp text, device text, controlled boolean)
		), now_in as (
			insert into reading as r (document_id, reader, kind, reading_id, last_at)
			select document, reader, kind, id, now() from given order by document, reader, kind
			on conflict (document_id, reader, kind) do update set
				reading_id = case when ${lines[0]!.goesOn} and r.last_at > excluded.last_at - ${gap}::interval then r.reading_id else excluded.reading_id end,
				told = case when ${lines[0]!.goesOn} and r.last_at > excluded.last_at - ${gap}::interval then r.told else 0 end,
				last_at = excluded.last_at
			returning document_id, reader, kind, reading_id, last_at
		), begun as (
			select g.*, p.page_id as placed_on, pg.id as came_from from given g join now_in n on n.reading_id = g.id
				left join lateral (select page_id from placement where g.placement is not null and id = g.placement order by published desc limit 1) p on true
				left join page pg on p.page_id is null and pg.path = g.path
		), taken as (
			update door_key k set used = used + 1 from begun b where b.kind = 'opened' and k.id = b.key and (k.openings is null or k.used < k.openings) returning b.id
		), entered as (
			insert into ledger (id, at, kind, document_id, edition_id, reading_id, reader, who, person_id, reason, source_kind, page_id, placement_id, outside, staff, robot, preload,
				key_id, stamp, device, controlled)
			select id, clock_timestamp(), kind, document, edition, id, case when kept then reader else 'n:' || id end, who, person, reason, case when coalesce(placed_on, came_from) is null then source else 'page' end,
				coalesce(placed_on, came_from), case when placed_on is not null then placement end, case when coalesce(placed_on, came_from) is null then outside end,
				staff, robot, preload, key, stamp, device, controlled
			from begun where kind <> 'opened' or key is null or exists (select 1 from taken t where t.id = begun.id) returning id
		)
		select n.document_id as document, n.reader, n.kind, n.last_at::text, b.id is not null as begun, e.id is not null as entered
		from now_in n left join begun b on b.id = n.reading_id left join entered e on e.id = b.id`;
	return new Map(rows.map(({ last_at: lastAt, ...row }) => [nameOf(row), { ...row, lastAt }]));
}

/** Enters that a person was reminded of a document or told of it as news, within the transaction that mails them. */
export async function enterMailed(
	tx: postgres.TransactionSql,
	kind: 'reminded' | 'news',
	copy: { document: string; edition: string; person: string }
): Promise<void> {
	const id = newId();
	await tx`
		insert into ledger (id, at, kind, document_id, edition_id, reading_id, reader, who, person_id, source_kind, staff, robot, preload)
		values (${id}, clock_timestamp(), ${kind}, ${copy.document}, ${copy.edition}, ${id}, ${`p:${copy.person}`}, 'member', ${copy.person}, ${kind === 'news' ? 'news' : 'desk'}, false, false, false)`;
}

let toldAt = -Infinity;
/** Whoever keeps the sums hears of new entries, at most once in two seconds. */
export function tellEntered(): void {
	const now = performance.now();
	if (now - toldAt < 2000) return;
	toldAt = now;
	void tellOfWork(sql(), 'entries').catch((err: unknown) => log().warn({ err }, 'new entries were not told of'));
}

/** A reading that is known to be entered: its last instant in the database, and the latest that is known here (ms since the epoch). */
interface Known extends Pick<Line, 'document' | 'reader' | 'kind'> {
	lastAt: string;
	latest: number;
}

/** For so long is a reading known to be entered without asking, and its last instant moved at most so often (ms). */
const knownFor = 60_000;
const known = new Cache<Known>({ most: 50_000 });
/** Readings that went on since their last instant was moved. */
const gone = new Map<string, Known>();

/** Whether a line goes on a reading that is known to be entered: its last instant is moved within the minute. */
async function goesOnAsKnown(line: Line): Promise<boolean> {
	const name = nameOf(line);
	const reading = await known.peek(name);
	if (!reading) return false;
	reading.latest = Date.now();
	gone.set(name, reading);
	moving ??= setTimeout(() => void moveReadings(), knownFor / 2).unref();
	return true;
}

function knowReading({ document, reader, kind }: Line, lastAt: string, latest: number, begun: number): void {
	if (kind === 'opened' || kind === 'saved')
		known.put(nameOf({ document, reader, kind }), { document, reader, kind, lastAt, latest }, { until: latest + knownFor, begun });
}

let moving: ReturnType<typeof setTimeout> | undefined;

/**
 * Moves the last instants of readings that went on, so that they end when they end. One that somebody set back, or took away, stays so. Where the
 * database does not answer they are asked about again at their next request.
 */
export async function moveReadings(): Promise<void> {
	clearTimeout(moving);
	moving = undefined;
	const moves = [...gone.values()].map(({ document, reader, kind, lastAt, latest }) => ({
		document,
		reader,
		kind,
		was: lastAt,
		ago: (Date.now() - latest) / 1000
	}));
	gone.clear();
	if (!moves.length) return;
	const s = sql();
	const moved = s`
		update reading r set last_at = greatest(r.last_at, now() - make_interval(secs => m.ago))
		from (select * from jsonb_to_recordset(${s.json(moves)}) as g (document uuid, reader text, kind text, was text, ago float) order by document, reader, kind) m
		where r.document_id = m.document and r.reader = m.reader and r.kind = m.kind and r.last_at >= m.was::timestamptz`;
	// at the server's end nobody waits for a database that is gone
	await inTime(moved).catch((err: unknown) => log().warn({ err, readings: moves.length }, 'last instants of readings'));
}

/** Lets go of readings that are over. */
export async function forgetReadings(now: number): Promise<void> {
	await sql()`delete from reading where last_at < ${new Date(now - readingGapMinutes * 60_000)}`;
}
