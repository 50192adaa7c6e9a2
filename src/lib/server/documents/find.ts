// Find: titles, descriptions, file names and the words on the pages, by PostgreSQL's full text search.
// Phrases in quotes, -word, or: websearch_to_tsquery reads them. The language of each document decides its stemming.
import type postgres from 'postgres';
import { markQuery, partsAround, splitQuery } from '#core/documents/find-query';
import { finder as sql } from '../db/client';
import { holding } from '../db/like';
import type { After } from '../http/cursor';

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
	/** Pages with all that was asked for; null where so many documents fit that they are not counted. */
	readonly pages: number | null;
}

const [on, off] = ['\u0001', '\u0002'];
/** The longest query looked at, in characters. */
export const longest = 300;

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

/** The stems in a query as PostgreSQL writes it: `'lock' | 'sluic'` → lock, sluic. */
const stemsOf = (query: string): string[] => [...query.matchAll(/'((?:[^']|'')+)'/g)].map((m) => m[1]!.replaceAll("''", "'"));

/** The stemmings in use. */
async function stemmings(): Promise<string[]> {
	return (await sql()<{ config: string }[]>`select config::text as config from find_configs() as config`).map((r) => r.config);
}

/** Where a find looks: in all that is in use, all that is set aside, or only in what a caller may read (`readableBy`). */
export type Among = 'in-use' | 'aside' | postgres.Fragment;

/** The same as a condition on `d`; what a caller may read is `may`, worked out once by `mayFirst`. */
function amongSql(among: Among): postgres.Fragment {
	const s = sql();
	if (among === 'aside') return s`d.set_aside_at is not null and d.gone_at is null`;
	return among === 'in-use' ? s`d.set_aside_at is null` : s`(d.id in (select id from may)) is true`;
}

/** What the queries below call `may`, at their head. */
const mayFirst = (among: Among): postgres.Fragment => (typeof among === 'string' ? sql()`` : sql()`with may as materialized (${among})`);

/** Documents whose title, description, topics or file name have what is asked for: each stemming by itself, so that the index is used. */
const named = (q: string, stems: readonly string[]): postgres.Fragment =>
	stems
		.map((c): postgres.Fragment => sql()`(d.config = ${c}::regconfig and d.words @@ websearch_to_tsquery(${c}::regconfig, ${q}))`)
		.reduce((all, one) => sql()`${all} or ${one}`, sql()`false`);

/**
 * The documents that a query fits as it is written, as SQL of `(id, rank, pages)`.
 * A title weighs more than a description, a description more than pages.
 */
function matching(q: string, stems: readonly string[], among: Among): postgres.Fragment {
	const s = sql();
	const here = amongSql(among);
	const ids = among === 'in-use' ? s`null::uuid[]` : among === 'aside' ? s`array(select d.id from document d where ${here})` : s`array(select id from may)`;
	const { wanted, leftOut } = splitQuery(q);
	const like = holding(wanted);
	const slug = /(?:^|\/d\/)([a-z0-9-]+)\/?$/.exec(q)?.[1] ?? '';
	// few documents fit by their title, very many by their text: the many are gone through once
	// nothing but dashes asks for nothing
	if (!wanted && !leftOut) return s`select d.id, 0::real as rank, 0 as pages from document d where false`;
	const fits = !wanted
		? s`select d.id, 0::real as rank, 0 as pages from document d where ${here}`
		: s`
		select coalesce(named.id, worded.id) as id, (coalesce(named.rank, 0) + coalesce(ln(1 + worded.pages), 0))::real as rank,
			case when worded.id is null then 0 else worded.pages end as pages from (
			select id, sum(rank) as rank from (
				select d.id, ts_rank('{0.1, 0.2, 0.5, 1}', d.words, websearch_to_tsquery(d.config, ${wanted})) * 10 + 1 as rank
					from document d where (${named(wanted, stems)}) and ${here}
				union all select d.id, 6 from document d where plain_text(d.title) like plain_text(${like}) and ${here}
				union all select d.id, 20 from document d where d.slug = ${slug} and ${here}
			) f group by id
		) named full join (
			select document_id as id, n.pages from find_in_text(${wanted}, ${ids}) n
			${among === 'in-use' ? s`where not document_id = any (array(select id from document where set_aside_at is not null))` : s``}
		) worded on worded.id = named.id`;
	return leftOut
		? s`${mayFirst(among)} select * from (${fits}) f where id not in (select document_id from find_in_text(${leftOut}, ${ids})) and id not in (select d.id from document d where ${named(leftOut, stems)})`
		: s`${mayFirst(among)} ${fits}`;
}

/** Documents with a title like the query, which may be mistyped: where nothing fits as it is written. */
const alike = (q: string, among: Among): postgres.Fragment =>
	sql()`${mayFirst(among)} select d.id, word_similarity(plain_text(${q}), plain_text(d.title)) as rank, 0 as pages from document d where plain_text(${q}) <% plain_text(d.title) and ${amongSql(among)}`;

/** All documents that a query fits: how well, and on how many pages. */
export async function matchingDocuments(q: string, among: Among): Promise<{ ids: string[]; ranks: number[]; pages: (number | null)[] }> {
	const s = sql();
	let rows = await s`${matching(q, await stemmings(), among)}`.values();
	if (!rows.length) rows = await s`${alike(q, among)}`.values();
	return { ids: rows.map((r) => r[0] as string), ranks: rows.map((r) => r[1] as number), pages: rows.map((r) => r[2] as number | null) };
}

/**
 * The first pages of documents that a query fits, with the words marked: at most `each` a document. Where no page of a document has all
 * that was asked for, the pages that have something of it.
 */
export async function hitsOf(q: string, ids: readonly string[], each: number): Promise<Map<string, Hit[]>> {
	const found = new Map<string, Hit[]>();
	const wanted = markQuery(q.slice(0, longest));
	if (!wanted || !ids.length) return found;
	const s = sql();
	/** Marks the words in texts. */
	const marked = async (configs: readonly string[], texts: readonly string[]) =>
		(
			await s`select ts_headline(config, body, websearch_to_tsquery(config, ${wanted}),
				${`StartSel=${on}, StopSel=${off}, MaxWords=18, MinWords=8, MaxFragments=2, FragmentDelimiter=" … "`})
				from unnest(${configs as string[]}::regconfig[], ${texts as string[]}::text[]) with ordinality as t (config, body, i) order by i`.values()
		).map((row) => row[0] as string);
	const hits = async (asked: string, some: readonly string[]) => {
		const pages = await s<{ id: string; config: string; stems: string; page: number; body: string }[]>`
			select d.id, d.config::text, websearch_to_tsquery(d.config, ${wanted})::text as stems, p.page, p.body from document d cross join lateral (
				select page, body from edition_page where edition_id = d.edition_id
					-- "is true" keeps this from the index of all words: a document's own pages are few
					and (words @@ websearch_to_tsquery(d.config, ${asked})) is true order by page limit ${each}
			) p where d.id in ${s([...some])} order by d.id, p.page`;
		const configs = pages.map((p) => p.config);
		// marking is the dearest part: it sees only what stands around the words
		const parts = pages.map((p) => partsAround(p.body, stemsOf(p.stems)) ?? p.body);
		const headlines = await marked(configs, parts);
		const unmarked = pages.map((_, i) => i).filter((i) => parts[i] !== pages[i]!.body && !headlines[i]!.includes(on));
		if (unmarked.length) {
			const whole = await marked(
				unmarked.map((i) => configs[i]!),
				unmarked.map((i) => pages[i]!.body)
			);
			unmarked.forEach((i, n) => (headlines[i] = whole[n]!));
		}
		return pages.map(({ id, page }, i) => ({ id, page, headline: headlines[i]! }));
	};
	/** Two connections share it. */
	const add = async (asked: string, among: readonly string[]) => {
		const half = Math.ceil(among.length / 2);
		const rows = await Promise.all([among.slice(0, half), among.slice(half)].filter((some) => some.length).map((some) => hits(asked, some)));
		for (const { id, page, headline } of rows.flat()) found.set(id, [...(found.get(id) ?? []), { page, stretches: stretchesOf(headline) }]);
	};
	const all = splitQuery(q.slice(0, longest)).wanted;
	await add(all, ids);
	const without = ids.filter((id) => !found.has(id));
	if (without.length && wanted !== all) await add(wanted, without);
	return found;
}

/** Of the row after which a find goes on: whether it fits as it is written, or by a title like it, and how well. */
export const isFoundValue = (value: string): boolean => /^(fits|alike) \d{1,9}(\.\d{1,12})?(e-\d\d)?$/.test(value);

/**
 * Documents that a query fits, the best first, with at most `each` pages of each. `next` is after which of them the next begin; what comes or goes
 * meanwhile shifts none of them. `total` counts all.
 */
export async function findDocuments(
	q: string,
	among: Among,
	{ limit = 20, after, each = 3 }: { limit?: number; after?: After; each?: number } = {}
): Promise<{ items: FoundDocument[]; next: After | null; total: number }> {
	const wanted = q.trim().slice(0, longest);
	if (!wanted) return { items: [], next: null, total: 0 };
	const s = sql();
	const [kind, rank = ''] = after?.value.split(' ') ?? [];
	const behind = after ? s`(c.rank, c.id) < (${rank}::text::real, ${after.id}::uuid)` : s`true`;
	const best = (found: postgres.Fragment) => s<{ id: string; slug: string; title: string; pages: number | null; rank: string; total: number }[]>`
		select d.id, d.slug, d.title, b.pages, b.rank::text as rank, b.total
		from (select * from (select *, count(*) over ()::int as total from (${found}) f) c where ${behind} order by rank desc, id desc limit ${limit + 1}) b join document d on d.id = b.id
		order by b.rank desc, b.id desc`;
	let by = kind === 'alike' ? 'alike' : 'fits';
	let rows = by === 'fits' ? await best(matching(wanted, await stemmings(), among)) : [];
	if (!rows.length && (!after || by === 'alike')) {
		by = 'alike';
		rows = await best(alike(wanted, among));
	}
	const total = rows[0]?.total ?? 0;
	const shown = rows.slice(0, limit);
	const last = rows.length > limit ? shown.at(-1) : undefined;
	const hits = await hitsOf(
		q,
		shown.map((i) => i.id),
		each
	);
	return {
		items: shown.map(({ id, slug, title, pages }) => ({ id, slug, title, pages, hits: hits.get(id) ?? [] })),
		next: last ? { value: `${by} ${last.rank}`, id: last.id } : null,
		total
	};
}
