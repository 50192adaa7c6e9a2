// Third link of the chain: the entry in the ledger, committed before the first byte leaves.
import { createHmac } from 'node:crypto';
import { deviceOf, readingGapMinutes } from '#core/readership/counting';
import type { RefusedCode } from '#core/access/decide';
import { sql } from '../db/client';
import { newId } from '../id';
import { log } from '../log';
import { keyReader } from '../access/keys';
import type { Caller } from '../people/who';
import { settings } from '../settings';
import type { Resolved } from './resolve';
import { isRobot } from './robots';
import { enterLine, tellEntered, type Line } from './writer';

/** What the ledger needs to know of a request, whichever server took it. */
export interface RequestContext {
	/** As the answer and the log name it: never kept in the ledger. */
	readonly requestId: string;
	readonly caller: Caller;
	/** For limits alone; never kept. */
	readonly address: string;
	/** What tells the browser apart, and whether the ledger may have that (reading/reader). */
	readonly browser: { readonly name: string; readonly kept: boolean };
	readonly agent: string;
	readonly cookie: string | null;
	/** The key that let them in, or that did not. */
	readonly key: string | null;
	/** The placement or page that the address names (`from=`), as sent. */
	readonly from: string | null;
	readonly referer: string | null;
	readonly purpose: string | null;
}

/** Under what a reader is counted: member, or person of another website, else key and browser, else the browser. */
export function readerOf(asker: RequestContext): string {
	if (asker.caller.person) return `p:${asker.caller.person.id}`;
	if (asker.caller.pass) return `w:${asker.caller.pass.person}`;
	return asker.key ? keyReader(asker.key, asker.browser.name) : asker.browser.name;
}

const outsideProof = (host: string) => createHmac('sha256', settings().IANUA_SECRET).update(`outside ${host}`).digest('base64url').slice(0, 16);

/** Names a website that frames a document, for the requests of that frame: with a proof, so that nobody puts readers on its account. */
export const outsideMark = (host: string): string => `at:${host.slice(0, 200)}:${outsideProof(host)}`;

function outsideOf(mark: string): string | null {
	const [, host, proof] = /^at:(.{1,200}):([\w-]{16})$/.exec(mark) ?? [];
	return host && proof === outsideProof(host) ? host : null;
}

/** The steps of a path, however they are spelled. */
const stepsOf = (path: string): string[] =>
	path
		.split('/')
		.slice(1)
		.map((step) => {
			try {
				return decodeURIComponent(step);
			} catch {
				return step;
			}
		});

/** Where somebody came from: the placement or path that the address names, else the page before, if it is ours or another site's. */
function sourceOf(asker: RequestContext, slug: string): Pick<Line, 'placement' | 'path' | 'outside' | 'source'> {
	const nowhere = { placement: null, path: null, outside: null, source: 'direct' } as const;
	const given = asker.from;
	if (given === 'desk' || given === 'news') return { ...nowhere, source: given };
	const framer = given ? outsideOf(given) : null;
	if (framer) return { ...nowhere, source: 'outside', outside: framer };
	// a pass is good in the frame of its website alone
	if (asker.caller.pass) return { ...nowhere, source: 'outside', outside: new URL(asker.caller.pass.website).host };
	const placement = given && /^[A-Za-z0-9_-]{6,40}$/.test(given) ? given : null;
	const url = asker.referer ? URL.parse(asker.referer) : null;
	if (!url) return { ...nowhere, placement };
	if (!settings().origins.includes(url.origin)) return { ...nowhere, placement, source: 'outside', outside: url.host.slice(0, 200) };
	const [first, second] = stepsOf(url.pathname);
	if (first === 'desk') return { ...nowhere, placement, source: 'desk' };
	if ((first === 'd' && second === slug) || first === 'sign-in') return { ...nowhere, placement };
	return { ...nowhere, placement, path: url.pathname };
}

interface Entry {
	kind: Line['kind'];
	reason: RefusedCode | null;
	/** True where an entry of the same reading makes this request a follow-up of it. */
	goesOn: boolean;
	/** Number of the stamp that a saved copy carries. */
	stamp?: string | null;
}

/**
 * Records an opening or a save. The opening of a reading is entered once; its follow-up ranges and page pictures belong to it
 * until 30 minutes pass without a request. A save is entered each time, except where it goes on from the middle of the file.
 */
export function recordPassed(found: Resolved, kind: 'opened' | 'saved', goesOn: boolean, asker: RequestContext, stamp: string | null = null): Promise<void> {
	return write(found, { kind, reason: null, goesOn: kind === 'opened' || goesOn, stamp }, asker);
}

/** Records that pages were given to a printer. */
export function recordPrinted(found: Resolved, asker: RequestContext): Promise<void> {
	return write(found, { kind: 'printed', reason: null, goesOn: false }, asker);
}

/** Seconds for which pages were attended to. */
export type Attention = readonly { readonly page: number; readonly seconds: number }[];

/**
 * Records what a reading room tells of the pages attended to. It belongs to the reading that the opening began, and is a sign of life in
 * it; where that has ended meanwhile (30 minutes without one), a new opening is entered first.
 */
export async function recordRead(found: Resolved, attention: Attention, asker: RequestContext): Promise<void> {
	if (asker.caller.trial) return;
	if (await writeRead(found, attention, asker)) return;
	await recordPassed(found, 'opened', true, asker);
	await writeRead(found, attention, asker);
}

/** Seconds by which what is told may run ahead of the time since the opening: clocks and networks are not exact. */
const ahead = 5;

/** Nothing can have been attended to for longer than the reading lasts: what is told beyond that is cut. */
async function writeRead(found: Resolved, attention: Attention, asker: RequestContext): Promise<boolean> {
	const line = toLedgerRow(found, { kind: 'opened', reason: null, goesOn: true }, asker);
	const s = sql();
	// where they came from is where the opening says they did
	const sameReader = s`document_id = ${line.document} and reader = ${line.reader} and kind = 'opened'`;
	const [entered] = await s`
		with of as (
			select reading_id, told from reading where ${sameReader} and last_at > now() - ${`${readingGapMinutes} minutes`}::interval for update
		), opening as (
			select l.* from of join ledger l on l.document_id = ${line.document} and l.id = of.reading_id and l.at > now() - interval '2 days'
		), attended as (
			select a.page, least(a.seconds, greatest(0, coalesce(extract(epoch from clock_timestamp() - o.at) + ${ahead} - of.told, a.seconds))) as seconds
			from of left join opening o on true, jsonb_to_recordset(${s.json(attention)}) as a (page int, seconds numeric)
		), now_in as (
			update reading set last_at = now(), told = told + (select max(seconds) from attended) where ${sameReader} and exists (select 1 from of) returning reading_id
		)
		insert into ledger (id, at, kind, document_id, edition_id, reading_id, reader, who, person_id, source_kind, page_id, placement_id, outside, staff, robot, preload, key_id, attention,
			device, controlled)
		select ${line.id}, clock_timestamp(), 'read', ${line.document}, ${line.edition}, n.reading_id, case when ${line.kept} then ${line.reader} else 'n:' || n.reading_id end, ${line.who}, ${line.person}, coalesce(o.source_kind, ${line.source}),
			o.page_id, o.placement_id, case when o.id is null then ${line.outside} else o.outside end, ${line.staff}, ${line.robot}, false, ${line.key}::uuid,
			(select jsonb_agg(jsonb_build_object('page', page, 'seconds', round(seconds, 1)) order by page) from attended), ${line.device}, ${line.controlled}
		from now_in n left join opening o on true returning 1`;
	if (entered) tellEntered();
	return entered !== undefined;
}

/** Records that a key was presented. */
export function recordKeyUsed(found: Resolved, asker: RequestContext): Promise<void> {
	return write(found, { kind: 'key-used', reason: null, goesOn: true }, asker);
}

/** Records that somebody looked at the document's page. */
export function recordLook(found: Resolved, asker: RequestContext): Promise<void> {
	return write(found, { kind: 'looked', reason: null, goesOn: false }, asker);
}

/** Records that a placement came into view. */
export function recordShown(found: Resolved, asker: RequestContext): Promise<void> {
	return write(found, { kind: 'shown', reason: null, goesOn: false }, asker);
}

/** Records that somebody knocked. */
export function recordKnock(found: Resolved, reason: RefusedCode, asker: RequestContext): Promise<void> {
	return write(found, { kind: 'knocked', reason, goesOn: false }, asker);
}

/** Records that somebody was turned away, and why. */
export function recordRefused(found: Resolved, reason: RefusedCode, asker: RequestContext): Promise<void> {
	return write(found, { kind: 'turned-away', reason, goesOn: false }, asker);
}

function toLedgerRow(found: Resolved, entry: Entry, asker: RequestContext): Line {
	const { person, who } = asker.caller;
	return {
		id: newId(),
		kind: entry.kind,
		document: found.id,
		edition: found.edition.id,
		reader: readerOf(asker),
		kept: asker.caller.person !== null || asker.caller.pass !== undefined || asker.browser.kept,
		who: who.kind === 'visitor' && asker.key ? 'key' : who.kind,
		person: person?.id ?? null,
		reason: entry.reason,
		...sourceOf(asker, found.slug),
		staff: who.kind === 'staff',
		robot: isRobot(asker.agent),
		preload: /prefetch|prerender/i.test(asker.purpose ?? ''),
		key: asker.key,
		stamp: entry.stamp ?? null,
		device: deviceOf(asker.agent),
		controlled: found.standing.position === 'keyed' || found.standing.position === 'shut',
		goesOn: entry.goesOn
	};
}

async function write(found: Resolved, entry: Entry, asker: RequestContext): Promise<void> {
	if (asker.caller.trial) return;
	const line = toLedgerRow(found, entry, asker);
	if (await enterLine(line)) log().info({ requestId: asker.requestId, entry: line.id, kind: line.kind }, 'entry');
}
