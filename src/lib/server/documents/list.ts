// The documents room's list: filters with counts, any order, a page of it at a time.
import { broughtSpans, filterNames, pageBands, usualOrder, withinSpans, type Counts, type FilterName, type Filters, type Order } from '#core/documents/filters';
import { filtersByField } from '#core/documents/fields';
import type postgres from 'postgres';
import { dayOf } from '#core/access/hours';
import { nextTurn } from '../access/hours';
import { Cache } from '../db/cache';
import { sql } from '../db/client';
import { listedAnywhere } from '../placing/placed';
import { theRow } from '../db/rows';
import type { After } from '../http/cursor';
import { site } from '../site/site';
import { hitsOf, longest, matchingDocuments, type Hit } from './find';
import { lineRows, toListItem, type DocumentLine } from './line';

export interface DocumentQuery {
	readonly q?: string;
	readonly filters?: Filters;
	readonly order?: Order | null;
	readonly offset?: number;
	/** Those behind this one in the order asked for, in place of `offset`. */
	readonly after?: After | undefined;
	readonly limit?: number;
	/** Those set aside instead of those in use. */
	readonly aside?: boolean;
	/** As if there were no other folders than these. */
	readonly within?: readonly string[] | null;
}

export interface ListedDocument extends DocumentLine {
	/** Where a find was asked for: the first pages with its words. */
	readonly hits: readonly Hit[];
	/** Pages with all that was asked for; null where not counted. */
	readonly hitPages: number | null;
}

export interface DocumentList {
	readonly items: readonly ListedDocument[];
	/** How many match. */
	readonly total: number;
	/** How many there are at all. */
	readonly all: number;
	readonly aside: number;
	/** The last of the items with what the list goes by, where others are behind it. */
	readonly next: After | null;
	/** For each filter, how many documents each of its values would show, the other filters taken into account. */
	readonly counts: Counts;
}

const dayMs = 86_400_000;
/** Filters of few values: ten thousand documents are some hundreds of their combinations. */
const handful: readonly FilterName[] = ['door', 'condition', 'placed', 'pages', 'brought'];

type OrderType = 'timestamptz' | 'bigint' | 'real' | 'text';

/** What the values are that a list goes by. */
function orderType(by: Order['by']): OrderType {
	if (by === 'brought' || by === 'edition') return 'timestamptz';
	if (by === 'match') return 'real';
	return by === 'title' || by === 'folder' || by === 'language' || by === 'by' ? 'text' : 'bigint';
}

/** How the database writes them. */
const written: Record<OrderType, RegExp> = {
	timestamptz: /^\d{4}-[01]\d-[0-3]\d [0-2]\d:[0-5]\d:[0-5]\d(\.\d{1,6})?[+-]\d\d(:\d\d)?$/,
	bigint: /^\d{1,18}$/,
	real: /^\d{1,9}(\.\d{1,20})?(e[+-]\d\d)?$/,
	text: /^/
};

/** Whether a list that goes by this can have had such a value. */
export const isOrderValue = (by: Order['by'], value: string): boolean => written[orderType(by)].test(value);

interface Counted {
	all: number;
	total: number;
	counts: { filter: FilterName; value: string; n: number }[] | null;
}

/** Counts by what is asked, at most so many of them. */
const cache = new Cache<Counted>({ most: 500, within: 0 });

/** The instant until which counts made at `at` hold if nothing changes: when hours begin or end, or a document gets older than a span. */
async function countsHold(at: number): Promise<number> {
	const s = sql();
	const spans = Object.values(broughtSpans)
		.filter(Number.isFinite)
		.map((days) => days * 24);
	const [turn, { next }] = await Promise.all([
		nextTurn(at),
		s<{ next: Date | null }[]>`
			select min((select min(created_at) from document where created_at >= ${new Date(at)}::timestamptz - make_interval(hours => n)) + make_interval(hours => n)) as next
			from unnest(${spans}::int[]) as n`.then(theRow)
	]);
	return Math.min(turn, next?.getTime() ?? Infinity);
}

/** A page of documents with the counts of all filters. */
export async function listDocuments(query: DocumentQuery): Promise<DocumentList> {
	const { zone, fields = [] } = await site();
	const chosenFields = fields.filter((field) => field.kind === 'choice').map((field) => field.name);
	const now = Date.now();
	const { limit = 50, offset = 0, filters = {}, after } = query;
	const q = query.q?.trim().slice(0, longest) ?? '';
	const order = query.order ?? usualOrder(q !== '');
	const s = sql();
	const within = query.within ? s`d.folder = any(${[...query.within]})` : s`true`;
	const found = q ? await matchingDocuments(q, query.aside ? 'aside' : 'in-use') : null;

	// the largest band is asked for first
	const bandOf = Object.entries(pageBands)
		.reverse()
		.reduce<postgres.Fragment>((rest, [name, [least]]) => s`${rest} when e.pages >= ${least} then ${name}::text`, s``);
	const since = (span: keyof typeof broughtSpans) => new Date(now - broughtSpans[span] * dayMs);
	const spanOf = s`case when d.created_at >= ${since('day')} then 'day' when d.created_at >= ${since('week')} then 'week' when d.created_at >= ${since('month')} then 'month'
		when d.created_at >= ${since('year')} then 'year' else 'older' end`;

	const list = (parts: postgres.Fragment[], between: postgres.Fragment): postgres.Fragment => parts.reduce((before, one) => s`${before}${between}${one}`);
	const comma = s`, `;
	/** Columns whose values are put into words only once they are counted. */
	const raw = { language: s`coalesce(d.language, e.language)`, by: s`d.created_by` };
	const worded = (name: FilterName, value: postgres.Fragment): postgres.Fragment =>
		name === 'language' ? s`coalesce(split_part(${value}, '-', 1), '')` : name === 'by' ? s`coalesce(${value}::text, '')` : value;
	const position = s`position_at(t.set_position, t.from_at, t.until_at, ${new Date(now)})`;
	/** What each filter goes by; `topic` and `field` have many values. */
	const valueOf: Record<FilterName, postgres.Fragment> = {
		folder: s`d.folder`,
		topic: s`d.topics`,
		field: chosenFields.length
			? s`array_remove(array[${list(
					chosenFields.map((name) => s`${`${name}:`}::text || (d.fields->>${name}::text)`),
					comma
				)}], null)`
			: s`'{}'::text[]`,
		door: position,
		condition: s`e.condition`,
		placed: s`(case when pl.n > 0 or (${position} <> 'shut' and ${listedAnywhere()}) then 'yes' else 'no' end)`,
		language: worded('language', raw.language),
		pages: s`(case ${bandOf} else '1' end)`,
		brought: s`(${spanOf})`,
		by: worded('by', raw.by)
	};
	const active = filterNames.filter((name) => filters[name]?.length);
	const all = (conditions: postgres.Fragment[]): postgres.Fragment => conditions.reduce((and, one) => s`${and} and ${one}`, s`true`);
	const fits = (name: FilterName): postgres.Fragment => {
		const wanted = [...(filters[name] ?? [])];
		if (name === 'topic') return s`${valueOf.topic} && ${wanted}::text[]`;
		if (name === 'field') return all([...filtersByField(wanted)].map(([field, values]) => s`d.fields->>${field} = any(${values})`));
		if (name !== 'brought') return s`${valueOf[name]} = any(${wanted})`;
		return s`(${wanted.map((v): postgres.Fragment => (v === 'older' ? s`d.created_at < ${since('year')}` : s`d.created_at >= ${since(v as 'day')}`)).reduce((any, one) => s`${any} or ${one}`)})`;
	};
	const readersOf = s`(select document_id, count(distinct reader) as n from sum_reader where day >= ${dayOf(now - 29 * dayMs, zone)} and openings + saves > 0 group by 1)`;
	/** The documents with what is looked at of them: for a page of the list no more than its filters and its order need. */
	const fromWith = (...names: (FilterName | Order['by'])[]): postgres.Fragment => s`
		${found ? s`unnest(${found.ids}::uuid[], ${found.ranks}::real[]) as fd (id, rank) join document d on d.id = fd.id` : s`document d`}
			join edition e on e.id = d.edition_id
			${names.some((name) => name === 'door' || name === 'placed') ? s`join thing_in_force t on t.id = d.id and t.kind = 'document'` : s``}
			${names.includes('placed') ? s`left join (select document_id, count(*)::int as n from placement where published group by document_id) pl on pl.document_id = d.id` : s``}
			${names.includes('readers') ? s`left join ${readersOf} rd on rd.document_id = d.id` : s``}
		where ${within} and ${query.aside ? s`d.set_aside_at is not null and d.gone_at is null` : s`d.set_aside_at is null`}`;

	const direction = order.down ? s`desc` : s`asc`;
	const orderBy = {
		brought: s`d.created_at`,
		title: s`lower(d.title)`,
		folder: s`lower(d.folder)`,
		pages: s`e.pages`,
		size: s`e.bytes`,
		condition: s`array_position(array['refused', 'look', 'checking', 'sound'], e.condition)`,
		door: s`array_position(array['shut', 'keyed', 'ajar', 'open'], ${valueOf.door})`,
		placed: s`coalesce(pl.n, 0)`,
		readers: s`coalesce(rd.n, 0)`,
		edition: s`e.created_at`,
		language: valueOf.language,
		by: s`coalesce((select lower(name) from person where id = d.created_by), '')`,
		match: found ? s`fd.rank` : s`d.created_at`
	}[order.by];

	const columns = (names: readonly FilterName[]) => [...names.map((name) => s`${s(name)}`), ...active.map((name) => s`${s(`fits_${name}`)}`)];
	/** Those of few values are counted together, the others each by itself: one pass over the documents makes some hundreds of rows of them. */
	const sets = [handful, ...filterNames.filter((name) => !handful.includes(name)).map((name) => [name])];
	/** Documents that fit all filters but this one, by its values. */
	const countOf = (name: FilterName): postgres.Fragment => {
		const set = sets.findIndex((names) => names.includes(name));
		const others = all([s`m.set = ${set}`, ...active.filter((a) => a !== name).map((a) => s`m.${s(`fits_${a}`)}`)]);
		const value = name === 'topic' || name === 'field' ? s`unnest(m.${s(name)})` : worded(name, s`m.${s(name)}`);
		return s`select ${name}::text as filter, ${value} as value, sum(m.n)::int as n from counted m where ${others} group by 2`;
	};
	const setOf = s`case ${list(
		sets.map((names, i) => s`when grouping(${s(names[0]!)}) = 0 then ${i}::int`),
		s` `
	)} end`;
	const count = async () =>
		theRow(
			await s<Counted[]>`
		with counted as materialized (
			select ${setOf} as set, ${list(columns(filterNames), comma)}, count(*) as n from (
				select ${list(
					[...filterNames.map((name) => s`${{ ...valueOf, ...raw }[name]} as ${s(name)}`), ...active.map((name) => s`${fits(name)} as ${s(`fits_${name}`)}`)],
					comma
				)} from ${fromWith(...filterNames)}
			) m group by grouping sets (${list(
				sets.map((names) => s`(${list(columns(names), comma)})`),
				comma
			)})
		)
		select (select coalesce(sum(n), 0)::int from counted m where m.set = 0) as all,
			(select coalesce(sum(n), 0)::int from counted m where ${all([s`m.set = 0`, ...active.map((a) => s`m.${s(`fits_${a}`)}`)])}) as total,
			(select jsonb_agg(c) from (${list(filterNames.map(countOf), s` union all `)}) c) as counts`
		);
	// as true as if it were counted now (db/cache.ts); what is found is another each time
	const key = JSON.stringify([filters, query.aside, query.within, chosenFields]);
	const counting = found ? count() : cache.get(key, async () => ({ value: await count(), until: await countsHold(now) }), now);
	const behind = after
		? s`(${orderBy}, d.id) ${order.down ? s`<` : s`>`} (${after.value}::text::${s.unsafe(orderType(order.by))}, ${after.id}::uuid)`
		: s`true`;
	const listing = s<{ id: string; value: string }[]>`
		select d.id, (${orderBy})::text as value from ${fromWith(...active, order.by)} and ${all([...active.map(fits), behind])}
		order by ${orderBy} ${direction}, d.id ${direction} limit ${limit + 1} offset ${offset}`;
	// what is shown does not wait for the counts
	const shown = listing.then(async (more) => {
		const rows = more.slice(0, limit);
		const ids = rows.map((row) => row.id);
		const [lines, hits] = await Promise.all([ids.length ? lineRows(s`d.id in ${s(ids)}`, zone, now) : [], hitsOf(q, ids, 3)]);
		return { ids, lines, hits, next: more.length > limit ? (rows.at(-1) ?? null) : null };
	});
	const [counted, { ids, lines, hits, next }, there_] = await Promise.all([
		counting,
		shown,
		s<{ n: number | null; aside: number }[]>`
			select ${found || query.aside ? s`(select count(*)::int from document d where set_aside_at is null and ${within})` : s`null`} as n,
				(select count(*)::int from document d where set_aside_at is not null and gone_at is null and ${within}) as aside`
	]);
	const there = theRow(there_);
	// whoever has brought something in, known from the counts
	const people = (counted.counts ?? []).filter((c) => c.filter === 'by' && c.value).map((c) => c.value);
	const names = people.length ? await s<{ id: string; name: string }[]>`select id, name from person where id in ${s(people)}` : [];
	const byId = new Map(lines.map((row) => [row.id, row]));
	const pagesOf = new Map(found?.ids.map((id, i) => [id, found.pages[i]!]));
	const nameOf = new Map(names.map((n) => [n.id, n.name]));
	const counts = Object.fromEntries(
		filterNames.map((name) => [
			name,
			(counted.counts ?? [])
				.filter((c) => c.filter === name)
				.map((c) => ({ value: c.value, count: c.n, ...(name === 'by' ? { words: nameOf.get(c.value) ?? 'Nobody' } : {}) }))
				.sort((a, b) => b.count - a.count || (a.value < b.value ? -1 : 1))
		])
		// every filter has its counts: fromEntries forgets the names
	) as unknown as Counts;
	return {
		// one that went between the two queries is not shown
		items: ids.flatMap((id) => {
			const line = byId.get(id);
			// has() says so
			return line ? [{ ...toListItem(line, zone, now), hits: hits.get(id) ?? [], hitPages: pagesOf.has(id) ? pagesOf.get(id)! : 0 }] : [];
		}),
		next,
		total: counted.total,
		// what was counted is all there is, unless it was found or is what was set aside
		all: there.n ?? counted.all,
		aside: there.aside,
		counts: { ...counts, brought: withinSpans(counts.brought) }
	};
}

/** The lines of some documents, by their present or former addresses; those not there are left out. */
export async function linesOf(slugs: readonly string[]): Promise<DocumentLine[]> {
	if (!slugs.length) return [];
	const { zone } = await site();
	const now = Date.now();
	const s = sql();
	const which = s`(d.slug in ${s(slugs)} or d.id in (select document_id from document_address where slug in ${s(slugs)}))`;
	const rows = await lineRows(which, zone, now);
	return rows.map((row) => toListItem(row, zone, now));
}
