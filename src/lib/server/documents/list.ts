// The documents room's list: filters with counts, any order, a page of it at a time.
import { broughtSpans, filterNames, pageBands, usualOrder, type Counts, type FilterName, type Filters, type Order } from '#core/documents/filters';
import type postgres from 'postgres';
import { dayOf } from '#core/access/hours';
import { sql } from '../db/client';
import { site } from '../site/site';
import { hitsOf, matching, stemmings, type Hit } from './find';
import { lineOf, lineSelect, type DocumentLine, type LineRow } from './line';

export interface DocumentQuery {
	readonly q?: string;
	readonly filters?: Filters;
	readonly order?: Order | null;
	readonly offset?: number;
	readonly limit?: number;
	/** Those set aside instead of those in use. */
	readonly aside?: boolean;
}

export interface ListedDocument extends DocumentLine {
	/** Where a find was asked for: the first pages with its words. */
	readonly hits: readonly Hit[];
	readonly hitPages: number;
}

export interface DocumentList {
	readonly items: readonly ListedDocument[];
	/** How many match. */
	readonly total: number;
	/** How many there are at all. */
	readonly all: number;
	readonly aside: number;
	/** For each filter, how many documents each of its values would show, the other filters taken into account. */
	readonly counts: Counts;
}

const dayMs = 86_400_000;

interface Chosen {
	ids: string[] | null;
	total: number;
	counts: { filter: FilterName; value: string; n: number }[] | null;
}

/** A page of documents with the counts of all filters. */
export async function listDocuments(query: DocumentQuery): Promise<DocumentList> {
	const { zone } = await site();
	const now = Date.now();
	const { limit = 50, offset = 0, filters = {} } = query;
	const q = query.q?.trim().slice(0, 300) ?? '';
	const order = query.order ?? usualOrder(q !== '');
	const s = sql();
	const stems = q ? await stemmings() : [];

	// the largest band is asked for first
	const bandOf = Object.entries(pageBands)
		.reverse()
		.reduce<postgres.Fragment>((rest, [name, [least]]) => s`${rest} when e.pages >= ${least} then ${name}::text`, s``);
	const since = (span: keyof typeof broughtSpans) => new Date(now - broughtSpans[span] * dayMs);
	const any = (name: FilterName) => [...(filters[name] ?? [])];
	/** 0 where a document fits a filter, else the filter's bit. */
	const bit = (name: FilterName, fits: postgres.Fragment): postgres.Fragment =>
		filters[name]?.length ? s`(case when ${fits} then 0 else ${1 << filterNames.indexOf(name)}::int end)` : s`0`;
	const broughtFits = (values: readonly string[]) =>
		values
			.map((v): postgres.Fragment => (v === 'older' ? s`m.created_at < ${since('year')}` : s`m.created_at >= ${since(v as 'day')}`))
			.reduce<postgres.Fragment | null>((all, one) => (all ? s`${all} or ${one}` : one), null) ?? s`true`;

	const direction = order.down ? s`desc` : s`asc`;
	const readers = s`(select count(distinct l.reader) from ledger l where l.document_id = m.id and l.at >= ${new Date(now - 30 * dayMs)} and l.kind in ('opened', 'saved') and not l.staff and not l.robot and not l.preload)`;
	const orderBy = {
		brought: s`m.created_at`,
		title: s`lower(m.title)`,
		folder: s`lower(m.folder)`,
		pages: s`m.page_count`,
		size: s`m.bytes`,
		condition: s`array_position(array['refused', 'look', 'checking', 'sound'], m.condition)`,
		door: s`array_position(array['shut', 'keyed', 'ajar', 'open'], m.position)`,
		placed: s`m.places`,
		readers,
		edition: s`m.edition_at`,
		language: s`m.lang`,
		by: s`(select lower(name) from person where id = m.created_by)`,
		match: q ? s`m.rank` : s`m.created_at`
	}[order.by];

	const countOf = (name: FilterName, value: postgres.Fragment, from: postgres.Fragment = s`masked m`) =>
		s`select ${name}::text as filter, ${value} as value, count(*)::int as n from ${from} where m.fails & ~${1 << filterNames.indexOf(name)}::int = 0 group by 2`;

	const [[chosen], [all]] = await Promise.all([
		s<Chosen[]>`
			with ${q ? s`${matching(q, stems)},` : s``} base as (
				select d.id, d.title, d.folder, d.topics, d.created_at, d.created_by, f.position, e.condition, e.bytes, e.pages as page_count, e.created_at as edition_at,
					case ${bandOf} else '1' end as pages, coalesce(split_part(coalesce(d.language, e.language), '-', 1), '') as lang, coalesce(pl.n, 0) as places,
					${q ? s`fd.rank` : s`0`} as rank
				from ${q ? s`found fd join document d on d.id = fd.id` : s`document d`} join edition e on e.id = d.edition_id join door dr on dr.id = d.door_id
					left join page fp on fp.id = dr.follows_page join door f on f.id = coalesce(fp.door_id, dr.id)
					left join (select document_id, count(*)::int as n from placement where published group by document_id) pl on pl.document_id = d.id
				where ${query.aside ? s`d.set_aside_at is not null and d.gone_at is null` : s`d.set_aside_at is null`}
			), masked as materialized (
				select m.*, ${bit('folder', s`m.folder = any(${any('folder')})`)} | ${bit('topic', s`m.topics && ${any('topic')}::text[]`)} | ${bit('door', s`m.position = any(${any('door')})`)}
					| ${bit('condition', s`m.condition = any(${any('condition')})`)} | ${bit('placed', s`(case when m.places > 0 then 'yes' else 'no' end) = any(${any('placed')})`)}
					| ${bit('language', s`m.lang = any(${any('language')})`)} | ${bit('pages', s`m.pages = any(${any('pages')})`)}
					| ${bit('brought', broughtFits(any('brought')))} | ${bit('by', s`coalesce(m.created_by::text, '') = any(${any('by')})`)} as fails
				from base m
			), masked_spans as (
				select m.fails, span from masked m cross join (values ('day', ${since('day')}::timestamptz), ('week', ${since('week')}), ('month', ${since('month')}), ('year', ${since('year')}), ('older', null)) as spans (span, since)
				where case when since is null then m.created_at < ${since('year')} else m.created_at >= since end
			)
			select (select jsonb_agg(id order by place) from (select m.id, row_number() over (order by ${orderBy} ${direction} nulls last, m.id ${direction}) as place
					from masked m where m.fails = 0 order by place limit ${limit} offset ${offset}) shown) as ids,
				(select count(*)::int from masked where fails = 0) as total,
				(select jsonb_agg(c) from (
					${countOf('folder', s`m.folder`)}
					union all ${countOf('topic', s`topic`, s`masked m cross join unnest(m.topics) as topic`)}
					union all ${countOf('door', s`m.position`)}
					union all ${countOf('condition', s`m.condition`)}
					union all ${countOf('placed', s`case when m.places > 0 then 'yes' else 'no' end`)}
					union all ${countOf('language', s`m.lang`)}
					union all ${countOf('pages', s`m.pages`)}
					union all ${countOf('brought', s`span`, s`masked_spans m`)}
					union all ${countOf('by', s`coalesce(m.created_by::text, '')`)}
				) c) as counts`,
		s<
			{ n: number; aside: number }[]
		>`select count(*) filter (where set_aside_at is null)::int as n, count(*) filter (where set_aside_at is not null and gone_at is null)::int as aside from document`
	]);
	const ids = chosen!.ids ?? [];
	const today = dayOf(now, zone);
	const [rows, hits, names] = await Promise.all([
		ids.length ? s<LineRow[]>`${lineSelect(today, zone, now)} where d.id in ${s(ids)}` : [],
		hitsOf(q, ids, 3),
		s<{ id: string; name: string }[]>`select id, name from person where role <> 'member' or id in (select created_by from document)`
	]);
	const byId = new Map(rows.map((row) => [row.id, row]));
	const nameOf = new Map(names.map((n) => [n.id, n.name]));
	return {
		items: ids.map((id) => ({ ...lineOf(byId.get(id)!, zone, now), hits: hits.get(id)?.hits ?? [], hitPages: hits.get(id)?.pages ?? 0 })),
		total: chosen!.total,
		all: all!.n,
		aside: all!.aside,
		counts: Object.fromEntries(
			filterNames.map((name) => [
				name,
				(chosen!.counts ?? [])
					.filter((c) => c.filter === name)
					.map((c) => ({ value: c.value, count: c.n, ...(name === 'by' ? { words: nameOf.get(c.value) ?? 'Nobody' } : {}) }))
					.sort((a, b) => b.count - a.count || (a.value < b.value ? -1 : 1))
			])
		) as unknown as Counts
	};
}
