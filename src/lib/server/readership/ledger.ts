// The ledger itself: its entries, newest first. What is counted only (placements shown, document pages looked at) is not listed.
import { isInstant } from '#core/access/hours';
import { doubleClickSeconds } from '#core/readership/counting';
import { allEntered } from '../reading/afterwards';
import { sql } from '../db/client';
import { isId } from '../id';

const doubleClick = `${doubleClickSeconds} seconds`;
const dayMs = 86_400_000;

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
	double: boolean;
	device: string | null;
	attention: { page: number; seconds: number }[] | null;
}

/** Entries of the ledger, newest first, with a cursor to go on from. */
export async function ledger(query: LedgerQuery): Promise<{ items: LedgerItem[]; next: string | null }> {
	const { document = null, person = null, key = null, limit = 50, of = 'all' } = query;
	await allEntered();
	const before = readCursor(query.cursor);
	const s = sql();
	// only what is asked for stands in the statement, so that it is planned for that; bounds of the instant alone tell which months to read
	const wanted = [
		s`m.at < ${query.until ?? new Date(Date.now() + dayMs)}`,
		...(query.from ? [s`m.at >= ${query.from}`] : []),
		...(document ? [s`m.document_id = ${document}`] : []),
		...(person ? [s`m.person_id = ${person}`] : []),
		...(key ? [s`m.key_id = ${key}`] : []),
		...(before ? [s`m.at <= ${before.at}::timestamptz and (m.at, m.id) < (${before.at}::timestamptz, ${before.id}::uuid)`] : []),
		...(of === 'staff' ? [s`m.staff`] : of === 'readers' ? [s`not m.staff and not m.robot and not m.preload`] : [])
	].reduce((all, one) => s`${all} and ${one}`);
	const rows = await s<LedgerRow[]>`
		select m.id, m.at, m.kind, d.slug, d.title, e.number, m.who, coalesce(p.name, k.label, nullif(w.name, '')) as name, p.email, o.origin as website, m.reason, m.source_kind, pg.path, pg.draft_title as page_title, m.placement_id, m.outside,
			m.staff, m.robot, m.preload,
			m.attention, m.device, m.kind <> 'read' and exists (select 1 from ledger n where n.reader = m.reader and n.document_id = m.document_id and n.kind = m.kind and n.at >= m.at and (n.at, n.id) > (m.at, m.id) and n.at <= m.at + ${doubleClick}::interval) as double
		from ledger m join document d on d.id = m.document_id join edition e on e.id = m.edition_id
			left join person p on p.id = m.person_id left join page pg on pg.id = m.page_id left join door_key k on k.id = m.key_id
			left join website_person w on m.reader like 'w:%' and w.id::text = substr(m.reader, 3) left join website o on o.id = w.website_id
		where ${wanted} and m.kind not in ('shown', 'looked')
		order by m.at desc, m.id desc limit ${limit + 1}`;
	const shown = rows.slice(0, limit);
	const last = shown[shown.length - 1];
	return { items: shown.map(itemOf), next: rows.length > limit && last ? cursorOf(last) : null };
}

/** A cursor names the last entry shown; the ledger keeps times to the millisecond, and the id orders within one. */
const cursorOf = (row: { at: Date; id: string }) => Buffer.from(`${row.at.toISOString()} ${row.id}`).toString('base64url');

function readCursor(cursor: string | null | undefined): { at: string; id: string } | null {
	const [at, id] = Buffer.from(cursor ?? '', 'base64url')
		.toString('utf8')
		.split(' ');
	return at && id && /^\d{4}-\d\d-\d\dT[\d:.]+Z$/.test(at) && isInstant(at) && isId(id) ? { at, id } : null;
}

function itemOf(row: LedgerRow): LedgerItem {
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
		double: row.double,
		device: row.device,
		...(row.attention ? { pages: row.attention } : {})
	};
}
