// What a catalogue or a document list of an article lists, to whom: only what they may see, with counts of its filters.
import type postgres from 'postgres';
import { dayWords } from '#core/access/reach';
import { wholeNumber } from '#core/text/number';
import { byName } from '#core/text/order';
import { messages } from '#core/words/messages';
import { say, type Language } from '#core/words/words';
import { filteringFields, shownFields, type FieldValues } from '#core/documents/fields';
import { coverMark, type Cover } from '#core/documents/cover';
import { listStepFor, selectionOf, type Listing } from '#core/placing/listing';
import { factsWords } from '#core/placing/placement';
import type { PageSize } from '#core/intake/paper';
import { announcedDocuments, type Announced } from '../access/announced';
import { readableBy } from '../access/readable';
import { sql } from '../db/client';
import { holding } from '../db/like';
import { findLane } from '../lanes';
import { hitsOf, matchingDocuments } from '../documents/find';
import type { Caller } from '../people/who';
import { site } from '../site/site';
import type { SeenList } from './contract';

/** What somebody asks of a list by the page's address. */
export interface ListQuery {
	/** Of an article's lists, the one that is asked, by its id. */
	readonly list?: string;
	readonly q?: string;
	readonly folder?: string;
	readonly topic?: string;
	/** What is asked of fields, by their names. */
	readonly fields?: Readonly<Record<string, string>>;
	readonly order?: string;
	readonly offset?: number;
	/** From where it is asked: finds of one place wait for each other. */
	readonly place?: string;
	/** In which it is answered: facts and days, not what documents are called. */
	readonly language?: Language;
}

/** `f-department=Works`: what is asked of a field. */
const fieldsAsked = (search: URLSearchParams): Record<string, string> =>
	Object.fromEntries([...search].filter(([name, value]) => name.startsWith('f-') && value).map(([name, value]) => [name.slice(2), value]));

/** What the query of a page's address asks; the interface writes such addresses (`ListBody.svelte`). */
export function listQueryOf(search: URLSearchParams, language: Language, place?: string): ListQuery {
	const said = (name: string) => search.get(name) ?? undefined;
	return {
		list: said('list'),
		q: said('q'),
		folder: said('folder'),
		topic: said('topic'),
		fields: fieldsAsked(search),
		order: said('order'),
		offset: wholeNumber(said('from'), 0),
		place,
		language
	};
}

/** What the filters, the counts and the order of a list go by. */
interface Row {
	id: string;
	slug: string;
	title: string;
	folder: string;
	topics: string[];
	/** What the list is narrowed by; null where that is nothing. */
	fields: FieldValues | null;
	/** Both are read where the order goes by them. */
	pages: number | null;
	edition_at: Date | null;
}

/** What is shown of a document besides. */
interface Shown {
	id: string;
	description: string;
	fields: FieldValues;
	pages: number;
	edition_at: Date;
	bytes: string;
	size: PageSize | null;
	number: number;
	cover: Cover | null;
	cover_alt: string;
	language: string | null;
}

/** '2 pages' in a language. */
export const pagesSaid = (count: number, language: Language): string => say(language, messages[language].site.pages, { count });

/** Which documents a list takes in, as SQL on `d` (document). */
function chosenBy(content: Listing): postgres.Fragment {
	const s = sql();
	const { folders, topics, fields, documents, everything } = selectionOf(content);
	const parts = [
		...(folders.length ? [s`d.folder in ${s(folders)}`] : []),
		...(topics.length ? [s`d.topics && ${topics}::text[]`] : []),
		...Object.entries(fields).map(([name, values]) => s`d.fields->>${name} = any(${values})`),
		...(documents.length ? [s`d.slug in ${s(documents)} or d.id in (select document_id from document_address where slug in ${s(documents)})`] : [])
	];
	return everything ? s`true` : s`(${parts.reduce((any, one) => s`${any} or ${one}`)})`;
}

/**
 * What of a list is announced to a caller who may not read it, by its titles; found by title and description alone. `room` is for how many
 * there is still room.
 */
async function announcedOn(content: Listing, caller: Caller, reads: postgres.Fragment, q: string, room: number, language: Language): Promise<Announced[]> {
	if (caller.who.kind === 'staff' || room < 1) return [];
	const s = sql();
	const found = q
		? s`(to_tsvector(d.config, d.title || ' ' || d.description) @@ websearch_to_tsquery(d.config, ${q}) or plain_text(d.title) like plain_text(${holding(q)}))`
		: s`true`;
	const among = s`${chosenBy(content)} and ${found}`;
	return announcedDocuments({ among, reads, caller, limit: room }, language);
}

/** The documents of a list among some (a condition on `d`); not yet asked for anything. With `most`, the newest of them. */
async function documentsOf(
	content: Listing,
	among: postgres.Fragment,
	by: { readonly order: string; readonly fields: boolean },
	most?: number
): Promise<Row[]> {
	const s = sql();
	// of thousands, nothing is read that the order does not need
	const dated = by.order === '-changed' || by.order === '-pages';
	return s<Row[]>`
		select d.id, d.slug, d.title, d.folder, d.topics, ${by.fields ? s`d.fields` : s`null::jsonb as fields`},
			${dated ? s`e.pages, e.created_at` : s`null::int as pages, null::timestamptz`} as edition_at
		from document d ${dated ? s`join edition e on e.id = d.edition_id` : s``} where ${among} and ${chosenBy(content)}
		${most === undefined ? s`` : s`order by e.created_at desc limit ${most}`}`;
}

/** What is shown of documents besides what a list goes by. */
async function shownOf(ids: readonly string[]): Promise<Map<string, Shown>> {
	const rows = await sql()<Shown[]>`
		select d.id, d.description, d.fields, d.cover, d.cover_alt, e.pages, e.created_at as edition_at, e.bytes, e.language, e.facts->'sizes'->0 as size, e.number
		from document d join edition e on e.id = d.edition_id where d.id = any(${[...ids]}::uuid[])`;
	return new Map(rows.map((row) => [row.id, row]));
}

const counts = (values: readonly string[]) => {
	const by = new Map<string, number>();
	for (const value of values) if (value) by.set(value, (by.get(value) ?? 0) + 1);
	return [...by].map(([value, count]) => ({ value, count })).sort((a, b) => b.count - a.count || (a.value < b.value ? -1 : 1));
};

/** What a list shows a caller who asks for something of it. */
export async function listFor(content: Listing, caller: Caller, query: ListQuery): Promise<SeenList> {
	const { zone, fields = [] } = await site();
	const { language = 'en' } = query;
	const filtering = filteringFields(fields);
	const q = query.q?.trim().slice(0, 200) ?? '';
	// the newest few on a front page: no more of them are looked at
	const asItComes =
		!q && !query.folder && !query.topic && !Object.keys(query.fields ?? {}).length && !query.order && content.order === '-changed' && content.filters === false;
	// staff see what readers could
	const { ids: reads } = await readableBy(caller);
	const found = q ? await findLane.run(query.place ?? '', () => matchingDocuments(q, reads)) : null;
	const ranks = found && new Map(found.ids.map((id, i) => [id, found.ranks[i]!]));
	const order = query.order ?? (q ? 'match' : (content.order ?? 'title'));
	const s = sql();
	const among = found ? s`d.id = any(${found.ids}::uuid[])` : s`(d.id in (${reads})) is true`;
	const asked = await documentsOf(content, among, { order, fields: filtering.length > 0 }, asItComes ? content.most : undefined);
	const inFolder = (row: Row) => !query.folder || row.folder === query.folder;
	const onTopic = (row: Row) => !query.topic || row.topics.includes(query.topic);
	const says = (row: Row, name: string) => {
		const value = query.fields?.[name];
		return !value || row.fields?.[name] === value;
	};
	/** But for one field, whose own values are counted. */
	const inFields = (row: Row, but?: string) => filtering.every(({ name }) => name === but || says(row, name));
	const fitting = asked.filter((row) => inFolder(row) && onTopic(row) && inFields(row));
	const given = new Map((content.documents ?? []).map((slug, i) => [slug, i]));
	const title = (a: Row, b: Row) => byName(a.title, b.title);
	const orders: Record<string, (a: Row, b: Row) => number> = {
		title,
		'-changed': (a, b) => Number(b.edition_at) - Number(a.edition_at),
		folder: (a, b) => byName(a.folder, b.folder) || title(a, b),
		'-pages': (a, b) => Number(b.pages) - Number(a.pages) || title(a, b),
		given: (a, b) => (given.get(a.slug) ?? 9999) - (given.get(b.slug) ?? 9999) || title(a, b),
		match: (a, b) => (ranks?.get(b.id) ?? 0) - (ranks?.get(a.id) ?? 0) || title(a, b)
	};
	const by = orders[order] ?? title;
	// what stands equal stands in one order on every page of the list: the later brought in first
	const sorted = [...fitting].sort((a, b) => by(a, b) || (a.id < b.id ? 1 : -1)).slice(0, content.most);
	const offset = Math.max(0, Math.min(query.offset ?? 0, Math.max(0, sorted.length - 1)));
	const step = listStepFor(q);
	const page = sorted.slice(offset, offset + step);
	const isLast = offset + step >= sorted.length;
	const ids = page.map((row) => row.id);
	// folder, topics and fields are not told of what is announced
	const narrowed = [query.folder, query.topic].some(Boolean) || Object.keys(query.fields ?? {}).length > 0;
	const [shown, hits, announced] = await Promise.all([
		shownOf(ids),
		hitsOf(q, ids, 3),
		isLast && !narrowed ? announcedOn(content, caller, reads, q, Math.min(step, (content.most ?? Infinity) - sorted.length), language) : []
	]);
	// a document that has gone since the list was made is left out
	const items = page.flatMap((row) => {
		const more = shown.get(row.id);
		return more ? [{ ...row, ...more }] : [];
	});
	return {
		show: content.show,
		beside: content.beside,
		filters: content.filters ?? true,
		total: sorted.length,
		offset,
		order,
		folders: counts(asked.filter((row) => onTopic(row) && inFields(row)).map((row) => row.folder)),
		topics: counts(asked.filter((row) => inFolder(row) && inFields(row)).flatMap((row) => row.topics)),
		fields: filtering.map(({ name, words }) => ({
			name,
			words,
			values: counts(asked.filter((row) => inFolder(row) && onTopic(row) && inFields(row, name)).map((row) => String(row.fields?.[name] ?? '')))
		})),
		items: items.map((row) => ({
			slug: row.slug,
			title: row.title,
			description: row.description,
			folder: row.folder,
			facts: factsWords({ pages: row.pages, pagesSaid: pagesSaid(row.pages, language), bytes: Number(row.bytes) }),
			fields: shownFields(fields, row.fields, language, true),
			pages: row.pages,
			bytes: Number(row.bytes),
			date: dayWords(row.edition_at.getTime(), zone, language),
			language: row.language,
			changedAt: row.edition_at.toISOString(),
			cover: {
				slug: row.slug,
				query: `?e=${row.number}-${coverMark(row.cover)}`,
				alt: row.cover_alt || say(language, messages[language].site.coverOf, { title: row.title }),
				ratio: row.cover === null && row.size ? row.size.height / row.size.width : null
			},
			hits: (hits.get(row.id) ?? []).map(({ page, stretches }) => ({ page, stretches: [...stretches] }))
		})),
		announced: announced.map((one) => ({ ...one, needsSignIn: caller.who.kind === 'visitor' }))
	};
}
