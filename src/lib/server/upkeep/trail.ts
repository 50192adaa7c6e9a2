// The audit trail: who changed what, filtered, a page at a time, and as a table to take away.
import Papa from 'papaparse';
import { endOfDay, isDay, startOfDay } from '#core/access/hours';
import { actionWords, trailChanges, type TrailChange } from '#core/upkeep/trail';
import { sql } from '../db/client';
import { holding } from '../db/like';
import { site } from '../site/site';

export interface TrailQuery {
	readonly kind?: string;
	readonly actor?: string;
	readonly action?: string;
	/** Part of a name of what was changed. */
	readonly q?: string;
	/** Days in the site's zone, both included. */
	readonly from?: string;
	readonly until?: string;
	readonly offset?: number;
	readonly limit?: number;
}

export interface TrailLine {
	readonly id: string;
	readonly at: string;
	/** Null: done by the application itself. */
	readonly actor: string | null;
	readonly action: string;
	readonly words: string;
	readonly kind: string;
	/** The name of what was changed, as it is now or as the entry has it. */
	readonly name: string;
	/** Where in the desk it is, while it is there. */
	readonly href: string | null;
	readonly changes: readonly TrailChange[];
}

interface Row {
	id: string;
	at: Date;
	actor_name: string | null;
	action: string;
	kind: string;
	before: unknown;
	after: unknown;
	thing: string;
	name: string | null;
	slug: string | null;
	total: number;
}

const uuid = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;

/** Entries, the newest first. */
export async function trail(query: TrailQuery): Promise<{ lines: TrailLine[]; total: number }> {
	const s = sql();
	const { zone } = await site();
	const { kind = '', actor = '', action = '', q = '', offset = 0, limit = 50 } = query;
	const from = query.from && isDay(query.from) ? new Date(startOfDay(query.from, zone)) : null;
	const until = query.until && isDay(query.until) ? new Date(endOfDay(query.until, zone)) : null;
	const like = holding(q.trim());
	const rows = await s<Row[]>`
		select a.id, a.at, p.name as actor_name, a.action, a.kind, a.before, a.after, a.thing, t.name, t.slug, count(*) over ()::int as total
		from audit a left join person p on p.id = a.actor left join lateral (
			select d.title as name, d.slug from document d where a.kind = 'document' and d.id = a.thing
			union all select g.title, g.id::text from page g where a.kind = 'page' and g.id = a.thing
			union all select m.name, m.slug from member_group m where a.kind = 'group' and m.id = a.thing
			union all select h.name, h.id::text from person h where a.kind = 'person' and h.id = a.thing
			union all select k.label, null from api_token k where a.kind = 'token' and k.id = a.thing
		) t on true
		where (${kind} = '' or a.kind = ${kind}) and (${actor} = '' or a.actor::text = ${actor}) and (${action} = '' or a.action = ${action})
			and (${from}::timestamptz is null or a.at >= ${from}) and (${until}::timestamptz is null or a.at < ${until})
			and (${q.trim()} = '' or coalesce(t.name, '') ilike ${like} or coalesce(a.before::text, '') ilike ${like} or coalesce(a.after::text, '') ilike ${like})
		order by a.at desc, a.id desc limit ${limit} offset ${offset}`;
	// doors name groups, people and pages by their ids
	const ids = [...new Set(rows.flatMap((r) => `${JSON.stringify(r.before)} ${JSON.stringify(r.after)}`.match(uuid) ?? []))];
	const named = ids.length
		? await s<{ id: string; name: string }[]>`
			select id, name from member_group where id in ${s(ids)} union all select id, name from person where id in ${s(ids)} union all select id, title from page where id in ${s(ids)}
			union all select id, title from document where id in ${s(ids)}`
		: [];
	const names = new Map(named.map((n) => [n.id, n.name]));
	return { lines: rows.map((row) => toTrailLine(row, names)), total: rows[0]?.total ?? 0 };
}

function toTrailLine(row: Row, names: ReadonlyMap<string, string>): TrailLine {
	const given = { ...(row.before as Record<string, unknown> | null), ...(row.after as Record<string, unknown> | null) };
	const own = ['title', 'name', 'email', 'label'].map((k) => given[k]).find((v): v is string => typeof v === 'string');
	const href: Record<string, string> = { document: '/desk/documents/', page: '/desk/pages/', group: '/desk/people?group=', person: '/desk/people?person=' };
	return {
		id: row.id,
		at: row.at.toISOString(),
		actor: row.actor_name,
		action: row.action,
		words: actionWords(row.action),
		kind: row.kind,
		name: row.name ?? own ?? (row.kind === 'site' ? 'the site' : `a ${row.kind} that is gone`),
		href: row.slug && href[row.kind] ? href[row.kind]! + row.slug : null,
		changes: trailChanges(row, (id) => names.get(id) ?? null)
	};
}

/** Most entries that a table takes away at once. */
const mostExported = 100_000;

/** The entries of a query as a table (RFC 4180): a line for each thing that changed. */
export async function trailTable(query: TrailQuery): Promise<string> {
	const { lines } = await trail({ ...query, offset: 0, limit: mostExported });
	const rows = lines.flatMap((l) =>
		(l.changes.length ? l.changes : [{ what: '', from: null, to: null }]).map((c) => [
			l.at,
			l.actor ?? '',
			l.action,
			l.kind,
			l.name,
			c.what,
			c.from ?? '',
			c.to ?? ''
		])
	);
	return `${Papa.unparse({ fields: ['at', 'actor', 'action', 'kind', 'thing', 'what', 'from', 'to'], data: rows }, { newline: '\r\n', escapeFormulae: true })}\r\n`;
}

/** Everybody who has an entry. */
export const trailActors = (): Promise<{ id: string; name: string }[]> =>
	sql()<{ id: string; name: string }[]>`select id, name from person where role <> 'member' or id in (select distinct actor from audit) order by name`.then(
		(r) => [...r]
	);
