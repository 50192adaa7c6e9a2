// Find: titles, descriptions, file names and the words on the pages, by PostgreSQL's full text search.
// Phrases in quotes, -word, or: websearch_to_tsquery reads them. The language of each document decides its stemming.
import type postgres from 'postgres';
import { sql } from '../db/client';

/** A stretch of text; `marked` where it is one of the words asked for. */
export interface Stretch {
	readonly text: string;
	readonly marked: boolean;
}

export interface Hit {
	readonly page: number;
	readonly stretches: readonly Stretch[];
}

export interface FoundDocument {
	readonly id: string;
	readonly slug: string;
	readonly title: string;
	readonly hits: readonly Hit[];
	/** Pages with the words, of which `hits` shows the first. */
	readonly pages: number;
}

const [on, off] = ['\u0001', '\u0002'];

/** Stretches of a headline with marks in it. */
function stretchesOf(headline: string): Stretch[] {
	return headline
		.split(on)
		.flatMap((part, i) => {
			if (i === 0) return [{ text: part, marked: false }];
			const [marked = '', plain = ''] = part.split(off);
			return [
				{ text: marked, marked: true },
				{ text: plain, marked: false }
			];
		})
		.map((s) => ({ ...s, text: s.text.replace(/\s+/g, ' ') }))
		.filter((s) => s.text !== '');
}

/** The stemmings in use: few, so that each is asked for by itself and the index is used. */
export async function stemmings(): Promise<string[]> {
	const rows = await sql()<{ config: string }[]>`select distinct config::text as config from document where set_aside_at is null`;
	return rows.map((r) => r.config);
}

/**
 * The pages and documents that a query fits under the given stemmings, as SQL for `with`: `found_pages (edition_id, page)` and `found (id, rank, pages)`.
 * A title weighs more than a description, a description more than pages.
 */
export function matching(q: string, stems: readonly string[]): postgres.Fragment {
	const s = sql();
	const fits = (table: 'p' | 'd'): postgres.Fragment =>
		stems.length
			? stems
					.map((c): postgres.Fragment => s`(${s(table)}.config = ${c}::regconfig and ${s(table)}.words @@ websearch_to_tsquery(${c}::regconfig, ${q}))`)
					.reduce((all, one) => s`${all} or ${one}`)
			: s`false`;
	const like = `%${q.replace(/[\\%_]/g, '\\$&')}%`;
	const slug = /(?:^|\/d\/)([a-z0-9-]+)\/?$/.exec(q)?.[1] ?? '';
	return s`
		found_pages as materialized (select p.edition_id, p.page from edition_page p where p.words is not null and (${fits('p')})),
		found_words as (
			select d.id, ts_rank('{0.1, 0.2, 0.5, 1}', d.words, websearch_to_tsquery(d.config, ${q})) * 10 + 1 as rank, 0 as pages from document d where ${fits('d')}
			union all select d.id, 6, 0 from document d where plain_text(d.title) like plain_text(${like})
			union all select d.id, 20, 0 from document d where d.slug = ${slug}
			union all select d.id, ln(1 + n.pages), n.pages from (select edition_id, count(*)::int as pages from found_pages group by edition_id) n join document d on d.edition_id = n.edition_id
		),
		found_exactly as (select id, sum(rank) as rank, max(pages) as pages from found_words group by id),
		found as materialized (
			select * from found_exactly
			-- titles mistyped: only where nothing fits as it is written
			union all select d.id, word_similarity(plain_text(${q}), plain_text(d.title)), 0 from document d
				where not exists (select 1 from found_exactly) and plain_text(${q}) <% plain_text(d.title)
		)`;
}

/** The first pages of documents that a query fits, with the words marked: at most `each` a document. */
export async function hitsOf(q: string, ids: readonly string[], each: number): Promise<Map<string, { hits: Hit[]; pages: number }>> {
	const found = new Map<string, { hits: Hit[]; pages: number }>();
	if (!ids.length || !q) return found;
	const s = sql();
	const rows = await s<{ id: string; page: number; n: number; headline: string }[]>`
		with chosen as (select d.id, d.edition_id, d.config from document d where d.id in ${s([...ids])}),
			pages as (
				select c.id, c.config, p.page, p.body, row_number() over (partition by c.id order by p.page) as place, count(*) over (partition by c.id)::int as n
				from chosen c join edition_page p on p.edition_id = c.edition_id and p.words @@ websearch_to_tsquery(c.config, ${q})
			)
		select id, page, n, ts_headline(config, body, websearch_to_tsquery(config, ${q}), ${`StartSel=${on}, StopSel=${off}, MaxWords=24, MinWords=10, MaxFragments=1`}) as headline
		from pages where place <= ${each} order by id, page`;
	for (const row of rows) {
		const of = found.get(row.id) ?? { hits: [], pages: row.n };
		of.hits.push({ page: row.page, stretches: stretchesOf(row.headline) });
		found.set(row.id, of);
	}
	return found;
}

/** Finds documents that are not set aside, the best first. Deciding who may know of them is the caller's. */
export async function findDocuments(q: string, { limit = 20, offset = 0, each = 3 } = {}): Promise<{ items: FoundDocument[]; total: number }> {
	const wanted = q.trim().slice(0, 300);
	if (!wanted) return { items: [], total: 0 };
	const s = sql();
	const rows = await s<{ id: string; slug: string; title: string; pages: number; total: number }[]>`
		with ${matching(wanted, await stemmings())}
		select d.id, d.slug, d.title, f.pages, count(*) over ()::int as total from found f join document d on d.id = f.id
		where d.set_aside_at is null order by f.rank desc, lower(d.title), d.id limit ${limit} offset ${offset}`;
	const withPages = rows.filter((r) => r.pages > 0).map((r) => r.id);
	const hits = await hitsOf(wanted, withPages, each);
	return {
		items: rows.map(({ id, slug, title, pages }) => ({ id, slug, title, hits: hits.get(id)?.hits ?? [], pages })),
		total: rows[0]?.total ?? 0
	};
}
