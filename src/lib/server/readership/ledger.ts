// The ledger itself: its entries in order of time. What is counted only (placements shown, document pages looked at) is not listed.
import { createHmac } from 'node:crypto';
import type postgres from 'postgres';
import { dayOf, isInstant } from '#core/access/hours';
import { doubleClickSeconds, type LeftOut } from '#core/readership/counting';
import { allEntered } from '../reading/afterwards';
import { sql } from '../db/client';
import { isId } from '../id';
import { settings } from '../settings';
import { site } from '../site/site';

const doubleClick = `${doubleClickSeconds} seconds`;
const dayMs = 86_400_000;
/** Ms after which whatever happened stands in the ledger, on every server: whoever goes on from the last entry that they have must miss none. */
const settledAfter = 60_000;

export interface LedgerItem {
	readonly id: string;
	readonly at: string;
	readonly kind: string;
	readonly document: string;
	readonly title: string;
	readonly edition: number;
	readonly who: { readonly kind: 'visitor' | 'member' | 'key' | 'staff'; readonly name?: string; readonly email?: string; readonly website?: string };
	readonly reason: string | null;
	readonly source: {
		readonly kind: 'page' | 'desk' | 'outside' | 'direct' | 'news';
		readonly path?: string;
		readonly title?: string;
		readonly placement?: string;
		readonly site?: string;
	};
	readonly staff: boolean;
	readonly robot: boolean;
	readonly preload: boolean;
	/** Left out of the figures by the double-click rule. */
	readonly double: boolean;
	/** By which rule it is left out of the figures; null where it counts. */
	readonly leftOut: LeftOut | null;
	/** Tells readers apart within what was asked for, and nowhere else. */
	readonly reader: string;
	readonly device: string | null;
	/** Of an entry of reading: the seconds for which each page was attended to. */
	readonly pages?: readonly { readonly page: number; readonly seconds: number }[];
}

export interface LedgerQuery {
	readonly document?: string | null;
	/** Only what this person did, or what was done with this key. */
	readonly person?: string | null;
	readonly key?: string | null;
	readonly from?: Date;
	readonly until?: Date;
	readonly cursor?: string | null;
	/** After this entry, the oldest first: what came since it was read. */
	readonly since?: string | null;
	readonly order?: 'newest' | 'oldest';
	/** With what is only counted: placements shown, document pages looked at. */
	readonly counted?: boolean;
	readonly limit?: number;
	/** Only entries of people (neither staff nor robots), only staff's, or all. */
	readonly of?: 'all' | 'readers' | 'staff';
}

interface LedgerRow {
	id: string;
	at: Date;
	kind: string;
	slug: string;
	title: string;
	number: number;
	who: LedgerItem['who']['kind'];
	name: string | null;
	website: string | null;
	email: string | null;
	reason: string | null;
	source_kind: LedgerItem['source']['kind'];
	path: string | null;
	page_title: string | null;
	placement_id: string | null;
	outside: string | null;
	staff: boolean;
	robot: boolean;
	preload: boolean;
	left_out: LeftOut | null;
	reader: string;
	device: string | null;
	attention: { page: number; seconds: number }[] | null;
}

/**
 * The rule by which an entry `m` is left out of the figures, as core/readership/counting has them: a double click is told among the entries that no
 * other rule leaves out. Robots by behaviour are those that the sums of its day know.
 */
export const leftOutBy = (s: postgres.Sql | postgres.TransactionSql | postgres.ReservedSql, zone: string) => s`
	case when m.staff then 'staff' when m.robot then 'robot' when m.preload then 'preload'
		when exists (select 1 from sum_robot b where b.day = (m.at at time zone ${zone})::date and b.reader = m.reader) then 'behaviour'
		when m.kind <> 'read' and exists (select 1 from ledger n where n.reader = m.reader and n.document_id = m.document_id and n.kind = m.kind
			and (m.kind <> 'shown' or n.placement_id is not distinct from m.placement_id) and not n.staff and not n.robot and not n.preload
			and n.at >= m.at and (n.at, n.id) > (m.at, m.id) and n.at <= m.at + ${doubleClick}::interval) then 'double' end`;

/**
 * Entries of the ledger, newest first unless the oldest are wanted, with a cursor to go on from. With the oldest first, those of the last minute are left
 * for later, and `since` is where to go on then: nothing is missed and nothing comes twice.
 * Readers are told apart within the time that is asked for, where both of its bounds are given, else within each day.
 */
export async function ledger(query: LedgerQuery): Promise<{ items: LedgerItem[]; next: string | null; since: string | null }> {
	const { document = null, person = null, key = null, limit = 50, of = 'all', counted = false } = query;
	await allEntered();
	const since = readCursor(query.since);
	const oldest = since !== null || query.order === 'oldest';
	const from = since ?? readCursor(query.cursor);
	const { zone } = await site();
	const s = sql();
	// only what is asked for stands in the statement, so that it is planned for that; bounds of the instant alone tell which months to read
	const latest = Date.now() + (oldest ? -settledAfter : dayMs);
	const wanted = [
		s`m.at < ${new Date(Math.min(query.until?.getTime() ?? Infinity, latest))}`,
		...(query.from ? [s`m.at >= ${query.from}`] : []),
		...(document ? [s`m.document_id = ${document}`] : []),
		...(person ? [s`m.person_id = ${person}`] : []),
		...(key ? [s`m.key_id = ${key}`] : []),
		...(from && oldest ? [s`m.at >= ${from.at}::timestamptz and (m.at, m.id) > (${from.at}::timestamptz, ${from.id}::uuid)`] : []),
		...(from && !oldest ? [s`m.at <= ${from.at}::timestamptz and (m.at, m.id) < (${from.at}::timestamptz, ${from.id}::uuid)`] : []),
		...(counted ? [] : [s`m.kind not in ('shown', 'looked')`]),
		...(of === 'staff' ? [s`m.staff`] : of === 'readers' ? [s`not m.staff and not m.robot and not m.preload`] : [])
	].reduce((all, one) => s`${all} and ${one}`);
	const rows = await s<LedgerRow[]>`
		select m.id, m.at, m.kind, d.slug, d.title, e.number, m.who, coalesce(p.name, k.label, nullif(w.name, '')) as name, p.email, o.origin as website, m.reason, m.source_kind, pg.path, pg.draft_title as page_title, m.placement_id, m.outside,
			m.staff, m.robot, m.preload,
			m.attention, m.device, m.reader, ${leftOutBy(s, zone)} as left_out
		from ledger m join document d on d.id = m.document_id join edition e on e.id = m.edition_id
			left join person p on p.id = m.person_id left join page pg on pg.id = m.page_id left join door_key k on k.id = m.key_id
			left join website_person w on m.reader like 'w:%' and w.id::text = substr(m.reader, 3) left join website o on o.id = w.website_id
		where ${wanted}
		order by ${oldest ? s`m.at, m.id` : s`m.at desc, m.id desc`} limit ${limit + 1}`;
	const shown = rows.slice(0, limit);
	const last = shown[shown.length - 1];
	const within = query.from && query.until ? `${query.from.toISOString()} ${query.until.toISOString()}` : null;
	return {
		items: shown.map((row) => itemOf(row, within ?? dayOf(row.at.getTime(), zone))),
		next: rows.length > limit && last ? cursorOf(last) : null,
		since: !oldest ? null : last ? cursorOf(last) : (query.since ?? null)
	};
}

/** A cursor names the last entry shown; the ledger keeps times to the millisecond, and the id orders within one. */
const cursorOf = (row: { at: Date; id: string }) => Buffer.from(`${row.at.toISOString()} ${row.id}`).toString('base64url');

function readCursor(cursor: string | null | undefined): { at: string; id: string } | null {
	const [at, id] = Buffer.from(cursor ?? '', 'base64url')
		.toString('utf8')
		.split(' ');
	return at && id && /^\d{4}-\d\d-\d\dT[\d:.]+Z$/.test(at) && isInstant(at) && isId(id) ? { at, id } : null;
}

/** A name for a reader that holds within a span and says nothing beyond it. */
const readerWithin = (span: string, reader: string) =>
	createHmac('sha256', settings().IANUA_SECRET).update(`reader ${span}\n${reader}`).digest('base64url').slice(0, 12);

function itemOf(row: LedgerRow, span: string): LedgerItem {
	return {
		id: row.id,
		at: row.at.toISOString(),
		kind: row.kind,
		document: row.slug,
		title: row.title,
		edition: row.number,
		who: {
			kind: row.who,
			...(row.name ? { name: row.name } : {}),
			...(row.email ? { email: row.email } : {}),
			...(row.website ? { website: row.website } : {})
		},
		reason: row.reason,
		source: {
			kind: row.source_kind,
			...(row.path ? { path: row.path } : {}),
			...(row.page_title ? { title: row.page_title } : {}),
			...(row.placement_id ? { placement: row.placement_id } : {}),
			...(row.outside ? { site: row.outside } : {})
		},
		staff: row.staff,
		robot: row.robot,
		preload: row.preload,
		double: row.left_out === 'double',
		leftOut: row.left_out,
		reader: readerWithin(span, row.reader),
		device: row.device,
		...(row.attention ? { pages: row.attention } : {})
	};
}
