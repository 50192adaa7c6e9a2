// Find: titles, descriptions, file names and the words on the pages, by PostgreSQL's full text search.
// Phrases in quotes, -word, or: websearch_to_tsquery reads them. The language of each document decides its stemming.
import type postgres from 'postgres';
import { markQuery } from '#core/documents/find-query';
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

/** The stemmings in use. */
async function stemmings(): Promise<string[]> {
	return (await sql()<{ config: string }[]>`select config::text as config from find_configs() as config`).map((r) => r.config);
}

const among = (aside: boolean): postgres.Fragment => (aside ? sql()`d.set_aside_at is not null and d.gone_at is null` : sql()`d.set_aside_at is null`);

/**
 * The documents that a query fits as it is written, as SQL of `(id, rank, pages)`: of those in use, or of those set aside.
 * A title weighs more than a description, a description more than pages.
 */
function matching(q: string, stems: readonly string[], aside: boolean): postgres.Fragment {
	const s = sql();
	// each stemming is asked for by itself, so that the index is used
	const fits = stems
		.map((c): postgres.Fragment => s`(d.config = ${c}::regconfig and d.words @@ websearch_to_tsquery(${c}::regconfig, ${q}))`)
		.reduce((all, one) => s`${all} or ${one}`, s`false`);
	const like = `%${q.replace(/[\\%_]/g, '\\$&')}%`;
	const slug = /(?:^|\/d\/)([a-z0-9-]+)\/?$/.exec(q)?.[1] ?? '';
	return s`
		select id, sum(rank)::real as rank, max(pages)::int as pages from (
			select d.id, ts_rank('{0.1, 0.2, 0.5, 1}', d.words, websearch_to_tsquery(d.config, ${q})) * 10 + 1 as rank, 0 as pages from document d where (${fits}) and ${among(aside)}
			union all select d.id, 6, 0 from document d where plain_text(d.title) like plain_text(${like}) and ${among(aside)}
			union all select d.id, 20, 0 from document d where d.slug = ${slug} and ${among(aside)}
			union all select d.id, ln(1 + n.pages), n.pages from find_in_pages(${q}) n join document d on d.edition_id = n.edition_id where ${among(aside)}
		) fits group by id`;
}

/** Documents with a title like the query, which may be mistyped: where nothing fits as it is written. */
const alike = (q: string, aside: boolean): postgres.Fragment =>
	sql()`select d.id, word_similarity(plain_text(${q}), plain_text(d.title)) as rank, 0 as pages from document d where plain_text(${q}) <% plain_text(d.title) and ${among(aside)}`;

/** All documents in use, or all set aside, that a query fits: how well, and on how many pages. */
export async function matchingDocuments(q: string, aside: boolean): Promise<{ ids: string[]; ranks: number[]; pages: number[] }> {
	const s = sql();
	let rows = await s`${matching(q, await stemmings(), aside)}`.values();
	if (!rows.length) rows = await s`${alike(q, aside)}`.values();
	return { ids: rows.map((r) => r[0] as string), ranks: rows.map((r) => r[1] as number), pages: rows.map((r) => r[2] as number) };
}

/** The first pages of documents that a query fits, with the words marked: at most `each` a document. */
export async function hitsOf(q: string, ids: readonly string[], each: number): Promise<Map<string, Hit[]>> {
	const found = new Map<string, Hit[]>();
	if (!q) return found;
	const s = sql();
	const hits = (some: readonly string[]) => s<{ id: string; page: number; headline: string }[]>`
		select d.id, p.page, ts_headline(d.config, p.body, websearch_to_tsquery(d.config, ${markQuery(q)}),
				${`StartSel=${on}, StopSel=${off}, MaxWords=18, MinWords=8, MaxFragments=2, FragmentDelimiter=" … "`}) as headline
		from document d cross join lateral (
			select page, body from edition_page where edition_id = d.edition_id
				-- "is true" keeps this from the index of all words: a document's own pages are few
				and (words @@ websearch_to_tsquery(d.config, ${q})) is true order by page limit ${each}
		) p where d.id in ${s([...some])} order by d.id, p.page`;
	// marking is the dearest part: two connections share it
	const half = Math.ceil(ids.length / 2);
	const rows = await Promise.all([ids.slice(0, half), ids.slice(half)].filter((some) => some.length).map(hits));
	for (const { id, page, headline } of rows.flat()) found.set(id, [...(found.get(id) ?? []), { page, stretches: stretchesOf(headline) }]);
	return found;
}

/** Finds documents that are not set aside, the best first. Deciding who may know of them is the caller's. */
export async function findDocuments(q: string, { limit = 20, offset = 0, each = 3 } = {}): Promise<{ items: FoundDocument[]; total: number }> {
	const wanted = q.trim().slice(0, 300);
	if (!wanted) return { items: [], total: 0 };
	const s = sql();
	const best = (found: postgres.Fragment) => s<{ id: string; slug: string; title: string; pages: number; total: number }[]>`
		select d.id, d.slug, d.title, b.pages, b.total
		from (select *, count(*) over ()::int as total from (${found}) f order by rank desc, id desc limit ${limit} offset ${offset}) b join document d on d.id = b.id
		order by b.rank desc, b.id desc`;
	let rows = await best(matching(wanted, await stemmings(), false));
	if (!rows.length && !offset) rows = await best(alike(wanted, false));
	const withPages = rows.filter((r) => r.pages > 0).map((r) => r.id);
	const hits = await hitsOf(wanted, withPages, each);
	return {
		items: rows.map(({ id, slug, title, pages }) => ({ id, slug, title, hits: hits.get(id) ?? [], pages })),
		total: rows[0]?.total ?? 0
	};
}
