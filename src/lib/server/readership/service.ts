// Reports from the ledger, and the ledger itself. What counts: neither staff nor robots nor pre-loads, no double clicks.
import { dayOf, startOfDay } from '#core/access/hours';
import { doubleClickSeconds, everyDay, type DayFigures, type Figures } from '#core/readership/counting';
import { documentAnswer, siteAnswer, type Piece } from '#core/readership/words';
import { sql } from '../db/client';
import { site } from '../site/site';

const doubleClick = `${doubleClickSeconds} seconds`;
const dayMs = 86_400_000;

/** Entries of a time with the double-click rule marked; `document` null means all. The rule looks 30 s past the end. */
function marked(document: string | null, from: Date, until: Date) {
	const s = sql();
	return s`
		select l.*, coalesce(lead(l.at) over (partition by l.reader, l.document_id, l.kind order by l.at, l.id) - l.at <= ${doubleClick}::interval, false) as double
		from ledger l where l.at >= ${from} and l.at < ${until}::timestamptz + ${doubleClick}::interval and (${document}::uuid is null or l.document_id = ${document})`;
}

/** The part of `marked` that counts. */
function counting(document: string | null, from: Date, until: Date) {
	return sql()`select * from (${marked(document, from, until)}) m where m.at < ${until} and not m.staff and not m.robot and not m.preload and not m.double`;
}

export interface Report {
	readonly answer: readonly Piece[];
	readonly figures: Figures;
	readonly days: readonly DayFigures[];
	/** Openings and saves by staff, which stand apart and count in nothing else. */
	readonly staff: { readonly openings: number; readonly saves: number };
	readonly sources: readonly { readonly kind: 'page' | 'desk' | 'outside' | 'direct'; readonly name: string; readonly openings: number }[];
	readonly length: number;
}

/** The last `length` days, today included, in the site's zone. */
async function period(length: number): Promise<{ from: Date; until: Date; first: string; last: string; zone: string }> {
	const { zone } = await site();
	const now = Date.now();
	const last = dayOf(now, zone);
	const first = new Date(Date.parse(`${last}T00:00Z`) - (length - 1) * dayMs).toISOString().slice(0, 10);
	return { from: new Date(startOfDay(first, zone)), until: new Date(now + 1000), first, last, zone };
}

interface FigureRow {
	openings: number;
	saves: number;
	refusals: number;
	readers: number;
	documents: number;
}

const figuresOf = (document: string | null, from: Date, until: Date) => sql()<FigureRow[]>`
	select count(*) filter (where kind = 'opened')::int as openings, count(*) filter (where kind = 'saved')::int as saves,
		count(*) filter (where kind = 'turned-away')::int as refusals, count(distinct reader) filter (where kind in ('opened', 'saved'))::int as readers,
		count(distinct document_id) filter (where kind = 'opened')::int as documents
	from (${counting(document, from, until)}) c`;

async function report(document: string | null, length: number, answer: (figures: FigureRow, from: Date, until: Date) => Promise<Piece[]>): Promise<Report> {
	const { from, until, first, last, zone } = await period(length);
	const s = sql();
	const [[figures], days, [staff], sources] = await Promise.all([
		figuresOf(document, from, until),
		s<DayFigures[]>`
			select to_char(at at time zone ${zone}, 'YYYY-MM-DD') as day, count(*) filter (where kind = 'opened')::int as openings, count(*) filter (where kind = 'saved')::int as saves
			from (${counting(document, from, until)}) c group by 1 order by 1`,
		s<{ openings: number; saves: number }[]>`
			select count(*) filter (where kind = 'opened')::int as openings, count(*) filter (where kind = 'saved')::int as saves
			from ledger where staff and at >= ${from} and at < ${until} and (${document}::uuid is null or document_id = ${document})`,
		s<{ kind: 'page' | 'desk' | 'outside' | 'direct'; name: string | null; openings: number }[]>`
			select c.source_kind as kind, coalesce(p.draft_title, c.outside) as name, count(*)::int as openings
			from (${counting(document, from, until)}) c left join page p on p.id = c.page_id
			where c.kind in ('opened', 'saved') group by 1, 2 order by 3 desc, 2 limit 8`
	]);
	return {
		answer: await answer(figures!, from, until),
		figures: figures!,
		days: everyDay(days, first, last),
		staff: staff!,
		sources: sources.map((row) => ({ ...row, name: row.name ?? (row.kind === 'direct' ? 'Straight to the address' : 'The desk') })),
		length
	};
}

/** The report of a document. `admitted` is the number of people a keyed door admits, null where anyone may come in. */
export function documentReport(document: string, doorInForce: { keyed: boolean; count: number }, length: number): Promise<Report> {
	return report(document, length, async (figures, from, until) => {
		if (!doorInForce.keyed) return documentAnswer(figures, null, 0, length);
		const { zone } = await site();
		const [row] = await sql()<{ n: number }[]>`
			select count(distinct c.person_id)::int as n from (${counting(document, from, until)}) c
			where c.kind in ('opened', 'saved') and c.person_id in (
				select door_admits(coalesce(fp.door_id, dr.id), ${dayOf(Date.now(), zone)}::date)
				from document d join door dr on dr.id = d.door_id left join page fp on fp.id = dr.follows_page where d.id = ${document})`;
		return documentAnswer(figures, doorInForce.count, row!.n, length);
	});
}

export function siteReport(length: number): Promise<Report> {
	return report(null, length, async (figures) => siteAnswer(figures, figures.documents, length));
}

export interface DocumentFigures extends Figures {
	readonly slug: string;
	readonly title: string;
}

/** Figures of every document that was opened, saved or refused in the last `length` days, most read first. */
export async function figuresByDocument(length: number, limit = 200): Promise<DocumentFigures[]> {
	const { from, until } = await period(length);
	return sql()<DocumentFigures[]>`
		select d.slug, d.title, count(*) filter (where kind = 'opened')::int as openings, count(*) filter (where kind = 'saved')::int as saves,
			count(*) filter (where kind = 'turned-away')::int as refusals, count(distinct reader) filter (where kind in ('opened', 'saved'))::int as readers
		from (${counting(null, from, until)}) c join document d on d.id = c.document_id
		group by d.id order by readers desc, openings desc, d.title limit ${limit}`;
}

export interface LedgerItem {
	readonly at: string;
	readonly kind: string;
	readonly document: string;
	readonly title: string;
	readonly edition: number;
	readonly who: { readonly kind: 'visitor' | 'member' | 'key' | 'staff'; readonly name?: string; readonly email?: string };
	readonly reason: string | null;
	readonly source: {
		readonly kind: 'page' | 'desk' | 'outside' | 'direct';
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
}

export interface LedgerQuery {
	readonly document?: string | null;
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
}

/** Entries of the ledger, newest first, with a cursor to go on from. */
export async function ledger(query: LedgerQuery): Promise<{ items: LedgerItem[]; next: string | null }> {
	const { document = null, limit = 50, of = 'all' } = query;
	const from = query.from ?? new Date(0);
	const until = query.until ?? new Date(Date.now() + dayMs);
	const before = readCursor(query.cursor);
	const rows = await sql()<LedgerRow[]>`
		select m.id, m.at, m.kind, d.slug, d.title, e.number, m.who, coalesce(p.name, k.label) as name, p.email, m.reason, m.source_kind, pg.path, pg.draft_title as page_title, m.placement_id, m.outside,
			m.staff, m.robot, m.preload,
			exists (select 1 from ledger n where n.reader = m.reader and n.document_id = m.document_id and n.kind = m.kind and (n.at, n.id) > (m.at, m.id) and n.at <= m.at + ${doubleClick}::interval) as double
		from ledger m join document d on d.id = m.document_id join edition e on e.id = m.edition_id
			left join person p on p.id = m.person_id left join page pg on pg.id = m.page_id left join door_key k on k.id = m.key_id
		where m.at >= ${from} and m.at < ${until} and (${document}::uuid is null or m.document_id = ${document})
			and (${before?.at ?? null}::timestamptz is null or (m.at, m.id) < (${before?.at ?? null}::timestamptz, ${before?.id ?? null}::uuid))
			and (${of} = 'all' or (${of} = 'staff' and m.staff) or (${of} = 'readers' and not m.staff and not m.robot and not m.preload))
		order by m.at desc, m.id desc limit ${limit + 1}`;
	const shown = rows.slice(0, limit);
	const last = shown[shown.length - 1];
	return { items: shown.map(itemOf), next: rows.length > limit && last ? cursorOf(last) : null };
}

/** A cursor names the last entry shown; the ledger keeps times to the millisecond, and the id orders within one. */
const cursorOf = (row: { at: Date; id: string }) => Buffer.from(`${row.at.toISOString()} ${row.id}`).toString('base64url');

function readCursor(cursor: string | null | undefined): { at: string; id: string } | null {
	const m = /^(\d{4}-[\dT:.-]+Z) ([0-9a-f-]{36})$/.exec(Buffer.from(cursor ?? '', 'base64url').toString('utf8'));
	return m ? { at: m[1]!, id: m[2]! } : null;
}

function itemOf(row: LedgerRow): LedgerItem {
	return {
		at: row.at.toISOString(),
		kind: row.kind,
		document: row.slug,
		title: row.title,
		edition: row.number,
		who: { kind: row.who, ...(row.name ? { name: row.name } : {}), ...(row.email ? { email: row.email } : {}) },
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
		double: row.double
	};
}
