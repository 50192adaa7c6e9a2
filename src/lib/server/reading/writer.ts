// The ledger's writer: entries of requests that come at once share a statement and its commit. Who enters one waits for that commit.
import type { RefusedCode } from '#core/access/decide';
import { readingGapMinutes, type Device } from '#core/readership/counting';
import { IanuaError } from '#core/errors';
import type postgres from 'postgres';
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

interface Waiting {
	readonly line: Line;
	readonly done: (outcome: { begun: boolean; entered: boolean }) => void;
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
let busy = 0;
let sentAt = 0;
let gathering: ReturnType<typeof setTimeout> | undefined;

/**
 * Enters a line, and gives when it is committed. A line that goes on a reading that is entered already is left out. Throws
 * `key-used-up` where the key's last opening went to somebody else, and `ledger-closed` where the ledger cannot be written.
 */
export async function enterLine(line: Line): Promise<void> {
	const outcome = await new Promise<{ begun: boolean; entered: boolean }>((done, failed) => {
		waiting.push({ line, done, failed });
		pump();
	});
	if (outcome.begun && !outcome.entered) throw new IanuaError('key-used-up');
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

/** Lines that one statement can take: of one reader, document and kind only one, and one opening by each key; all going on, or none. */
function gather(): Waiting[] {
	const batch: Waiting[] = [];
	const left: Waiting[] = [];
	const taken = new Set<string>();
	const { goesOn } = waiting[0]!.line;
	for (const one of waiting.splice(0)) {
		const { line } = one;
		const names = [`${line.document} ${line.reader} ${line.kind}`, ...(line.key && line.kind === 'opened' ? [line.key] : [])];
		if (line.goesOn !== goesOn || batch.length >= mostLines || names.some((name) => taken.has(name))) left.push(one);
		else batch.push(one);
		for (const name of names) taken.add(name);
	}
	waiting.push(...left);
	// always in the same order, so that two statements at once never wait for each other
	return batch.sort((a, b) => (orderOf(a.line) < orderOf(b.line) ? -1 : 1));
}

const orderOf = (line: Line) => `${line.document} ${line.reader} ${line.kind}`;

/** Ms after which a statement counts as lost with its connection. */
const lostAfter = 10_000;

/** What a statement gives, or an error where its connection went without a word: nobody waits for ever, and the next statement goes. */
function inTime<T>(work: Promise<T>): Promise<T> {
	let timer: ReturnType<typeof setTimeout> | undefined;
	const late = new Promise<never>((_, fail) => (timer = setTimeout(() => fail(new Error('no answer from the database')), lostAfter)));
	return Promise.race([work, late]).finally(() => clearTimeout(timer));
}

async function writeLines(batch: readonly Waiting[]): Promise<void> {
	try {
		const outcomes = await inTime(insertLines(batch.map((b) => b.line)));
		for (const { line, done } of batch) done(outcomes.get(line.id) ?? { begun: false, entered: false });
	} catch (error) {
		log().error({ err: error, lines: batch.length }, 'the ledger could not be written');
		for (const { failed } of batch) failed(new IanuaError('ledger-closed'));
	}
}

/**
 * One statement: each reading is found or begun under a unique key, and an entry is made only where it is begun. Two first requests at
 * once meet at that key, so that one of them makes the entry. An opening by a key with a number takes one of them in the same statement:
 * of two that want the last one, one gets it.
 */
async function insertLines(lines: readonly Line[]): Promise<Map<string, { begun: boolean; entered: boolean }>> {
	const s = sql();
	const gap = `${readingGapMinutes} minutes`;
	const rows = await s<{ id: string; begun: boolean; entered: boolean }[]>`
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
			returning reading_id
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
		select b.id, true as begun, e.id is not null as entered from begun b left join entered e on e.id = b.id`;
	return new Map(rows.map((r) => [r.id, r]));
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

/** Lets go of readings that are over. */
export async function forgetReadings(now: number): Promise<void> {
	await sql()`delete from reading where last_at < ${new Date(now - readingGapMinutes * 60_000)}`;
}
