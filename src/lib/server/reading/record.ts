// Third link of the chain: the entry in the ledger, committed before the first byte leaves.
import { createHmac } from 'node:crypto';
import { isbot } from 'isbot';
import { readingGapMinutes } from '#core/readership/counting';
import type { RefusedCode } from '#core/access/decide';
import { IanuaError } from '#core/errors';
import { sql } from '../db/client';
import { newId } from '../id';
import { keyReader } from '../access/keys';
import { cookieOf, type Caller } from '../people/who';
import { settings } from '../settings';
import type { Found } from './find';

export const readerCookie = 'ianua_reader';

/** What the ledger needs to know of a request, whichever server took it. */
export interface Asker {
	readonly caller: Caller;
	readonly address: string;
	readonly agent: string;
	readonly cookie: string | null;
	/** The key that let them in, or that did not. */
	readonly key: string | null;
	/** The placement or page that the address names (`from=`), as sent. */
	readonly from: string | null;
	readonly referer: string | null;
	readonly purpose: string | null;
}

/** Under what a reader is counted: member, else key and browser, else the browser: its reader cookie, or address and user agent (kept as a keyed hash). */
export function readerOf(asker: Asker): string {
	if (asker.caller.person) return `p:${asker.caller.person.id}`;
	return asker.key ? keyReader(asker.key, browserOf(asker)) : browserOf(asker);
}

function browserOf(asker: Asker): string {
	const cookie = cookieOf(asker.cookie, readerCookie);
	if (cookie && /^[0-9a-f-]{36}$/.test(cookie)) return `c:${cookie}`;
	return `a:${createHmac('sha256', settings().IANUA_SECRET).update(`${asker.address}\n${asker.agent}`).digest('hex').slice(0, 24)}`;
}

type Source = { kind: 'page'; page: string | null; placement: string | null } | { kind: 'desk' | 'direct' } | { kind: 'outside'; outside: string };

const outsideProof = (host: string) => createHmac('sha256', settings().IANUA_SECRET).update(`outside ${host}`).digest('base64url').slice(0, 16);

/** Names a website that frames a document, for the requests of that frame: with a proof, so that nobody puts readers on its account. */
export const outsideMark = (host: string): string => `at:${host.slice(0, 200)}:${outsideProof(host)}`;

function outsideOf(mark: string): string | null {
	const [, host, proof] = /^at:(.{1,200}):([\w-]{16})$/.exec(mark) ?? [];
	return host && proof === outsideProof(host) ? host : null;
}

/** Where somebody came from: the placement or path that the address names, else the page before, if it is ours or another site's. */
async function sourceOf(asker: Asker, slug: string): Promise<Source> {
	const given = asker.from;
	if (given === 'desk') return { kind: 'desk' };
	const outside = given ? outsideOf(given) : null;
	if (outside) return { kind: 'outside', outside };
	if (given && /^[A-Za-z0-9_-]{6,40}$/.test(given)) {
		const [row] = await sql()<{ page_id: string }[]>`select page_id from placement where id = ${given} order by published desc limit 1`;
		if (row) return { kind: 'page', page: row.page_id, placement: given };
	}
	if (!asker.referer) return { kind: 'direct' };
	let url: URL;
	try {
		url = new URL(asker.referer);
	} catch {
		return { kind: 'direct' };
	}
	if (!settings().origins.includes(url.origin)) return { kind: 'outside', outside: url.host.slice(0, 200) };
	if (url.pathname.startsWith('/desk')) return { kind: 'desk' };
	if (url.pathname.startsWith(`/d/${slug}`) || url.pathname === '/sign-in') return { kind: 'direct' };
	const [row] = await sql()<{ id: string }[]>`select id from page where path = ${url.pathname}`;
	return row ? { kind: 'page', page: row.id, placement: null } : { kind: 'direct' };
}

interface Entry {
	/** Number of the stamp that a saved copy carries. */
	stamp?: string | null;
	kind: 'opened' | 'saved' | 'turned-away' | 'key-used' | 'knocked';
	reason: RefusedCode | null;
	/** True where an entry of the same reading makes this request a follow-up of it. */
	followsUp: boolean;
}

/**
 * Records an opening or a save. The opening of a reading is entered once; its follow-up ranges and page pictures belong to it
 * until 30 minutes pass without a request. A save is entered each time, except where it goes on from the middle of the file.
 */
export function recordPassed(found: Found, kind: 'opened' | 'saved', goesOn: boolean, asker: Asker, stamp: string | null = null): Promise<void> {
	return write(found, { kind, reason: null, followsUp: kind === 'opened' || goesOn, stamp }, asker);
}

/** Records that a key was presented. */
export function recordKeyUsed(found: Found, asker: Asker): Promise<void> {
	return write(found, { kind: 'key-used', reason: null, followsUp: true }, asker);
}

/** Records that somebody knocked. */
export function recordKnock(found: Found, reason: RefusedCode, asker: Asker): Promise<void> {
	return write(found, { kind: 'knocked', reason, followsUp: false }, asker);
}

/** Records that somebody was turned away, and why. */
export function recordRefused(found: Found, reason: RefusedCode, asker: Asker): Promise<void> {
	return write(found, { kind: 'turned-away', reason, followsUp: false }, asker);
}

async function write(found: Found, entry: Entry, asker: Asker): Promise<void> {
	if (asker.caller.trial) return;
	const reader = readerOf(asker);
	const id = newId();
	const source = await sourceOf(asker, found.slug);
	const { person, who } = asker.caller;
	const robot = isbot(asker.agent);
	const preload = /prefetch|prerender/i.test(asker.purpose ?? '');
	const gap = `${readingGapMinutes} minutes`;
	// One statement: the reading is found or begun under a unique key, and the entry is made only where it is begun. Two first
	// requests at once meet at that key, so that one of them makes the entry. An opening by a key with a number takes one of them in
	// the same statement: of two that want the last one, one gets it.
	const opens = entry.kind === 'opened';
	const [done] = await sql()<{ begun: boolean; entered: boolean }[]>`
		with now_in as (
			insert into reading as r (document_id, reader, kind, reading_id, last_at)
			values (${found.id}, ${reader}, ${entry.kind}, ${id}, now())
			on conflict (document_id, reader, kind) do update set
				reading_id = case when ${entry.followsUp} and r.last_at > excluded.last_at - ${gap}::interval then r.reading_id else excluded.reading_id end,
				last_at = excluded.last_at
			returning reading_id
		), taken as (
			update door_key set used = used + 1 where ${opens} and id = ${asker.key}::uuid and (openings is null or used < openings)
				and exists (select 1 from now_in where reading_id = ${id}) returning 1
		), entered as (
		insert into ledger (id, at, kind, document_id, edition_id, reading_id, reader, who, person_id, reason, source_kind, page_id, placement_id, outside, staff, robot, preload, key_id, stamp)
		select ${id}, clock_timestamp(), ${entry.kind}, ${found.id}, ${found.edition.id}, reading_id, ${reader}, ${who.kind === 'visitor' && asker.key ? 'key' : who.kind}, ${person?.id ?? null}, ${entry.reason},
			${source.kind}, ${source.kind === 'page' ? source.page : null}, ${source.kind === 'page' ? source.placement : null},
			${source.kind === 'outside' ? source.outside : null}, ${who.kind === 'staff'}, ${robot}, ${preload}, ${asker.key}::uuid, ${entry.stamp ?? null}
		from now_in where reading_id = ${id} and (${!opens || asker.key === null} or exists (select 1 from taken)) returning 1
		)
		select (select reading_id = ${id} from now_in) as begun, exists (select 1 from entered) as entered`;
	if (done!.begun && !done!.entered) throw new IanuaError('key-used-up');
}
