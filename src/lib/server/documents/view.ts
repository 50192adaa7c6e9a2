// One document with all that the sheet and the API show of it.
import type { FieldValues } from '#core/documents/fields';
import type { ReadingSettings } from '#core/reading/settings';
import type { ReceiptAsks } from '#core/readership/receipt';
import { fieldsShown, type Position } from '#core/access/door';
import { sentence } from '#core/access/reach';
import type { EditionOrigin } from '#core/documents/edition';
import type { Cover } from '#core/documents/cover';
import type { Condition, ConditionStatus, Facts, Finding } from '#core/intake/condition';
import { reachOf, type DoorRow } from '../access/doors';
import { sql } from '../db/client';
import { lists } from '../placing/placed';
import { theRow } from '../db/rows';
import { site } from '../site/site';
import { lineRows, toListItem, type DocumentLine } from './line';

export interface EditionView {
	readonly number: number;
	readonly at: string;
	readonly by: string | null;
	readonly sha256: string;
	readonly bytes: number;
	readonly pages: number;
	readonly fileName: string;
	readonly origin: EditionOrigin;
	readonly condition: Condition;
	readonly inForce: boolean;
	/** Comes into force when its check is done. */
	readonly pending: boolean;
}

export interface SourceView {
	readonly url: string;
	readonly watch: boolean;
	readonly state: 'same' | 'changed' | 'gone' | 'unreachable';
	readonly note: string;
	readonly checkedAt: string;
	/** Number of the edition that the changed file became beside the one in force; null before it is brought in. */
	readonly beside: number | null;
}

export interface DocumentView extends Omit<DocumentLine, 'door'> {
	readonly description: string;
	/** What it says in the site's fields, by their names. */
	readonly fields: FieldValues;
	/** The day by which somebody should look at it again, and who of the staff. */
	readonly review: { readonly on: string; readonly by: string | null } | null;
	readonly fileName: string;
	readonly facts: Facts;
	readonly cover: Cover | null;
	readonly coverAlt: string;
	/** What it says of its reading room, where that differs from the site. */
	readonly reading: ReadingSettings | null;
	/** When its readers are asked to say that they have read it. */
	readonly receipt: ReceiptAsks | null;
	/** The language that staff chose, where they did; `language` is the one that counts. */
	readonly ownLanguage: string | null;
	readonly editions: readonly EditionView[];
	readonly source: SourceView | null;
	/** Former addresses, which lead here. */
	readonly addresses: readonly string[];
	readonly door: Omit<DoorRow, 'force'> & { readonly sentence: string; readonly who: string; readonly inForce: Position };
	readonly placedOn: readonly {
		readonly id: string;
		readonly page: string;
		readonly path: string;
		readonly title: string;
		/** Of a teaser: the title of the page to which it leads. */
		readonly leads: string | null;
		readonly form: string;
		readonly press: string;
		readonly published: boolean;
	}[];
	/** Pages with a list in which it stands for those who may open it. */
	readonly lists: readonly { readonly page: string; readonly title: string; readonly published: boolean }[];
	readonly goneAt: string | null;
}

interface Row {
	description: string;
	fields: FieldValues;
	review: DocumentView['review'];
	file_name: string;
	facts: Facts;
	cover_alt: string;
	reading: ReadingSettings | null;
	receipt: ReceiptAsks | null;
	own_language: string | null;
	gone_at: Date | null;
	editions: (Omit<EditionView, 'condition'> & { status: ConditionStatus; findings: Finding[] })[];
	source: SourceView | null;
	addresses: string[];
	placed: DocumentView['placedOn'];
	lists: DocumentView['lists'];
}

/** One document by its present or a former address. Set-aside ones are found too. Null where there is none. */
export async function documentView(slug: string): Promise<DocumentView | null> {
	const { zone } = await site();
	const now = Date.now();
	const s = sql();
	const [found] = await s<{ id: string }[]>`
		select d.id from document d where d.slug = ${slug} or d.id = (select a.document_id from document_address a where a.slug = ${slug})
		order by d.slug = ${slug} desc limit 1`;
	if (!found) return null;
	const [lines, rows] = await Promise.all([
		lineRows(s`d.id = ${found.id}`, zone, now),
		s<Row[]>`
			select d.description, d.fields, d.cover_alt,
				case when d.review_on is not null then jsonb_build_object('on', d.review_on, 'by', (select email from person where id = d.review_by)) end as review, d.reading, d.receipt, d.language as own_language, d.gone_at, e.facts - 'opening' as facts, e.file_name,
				(select jsonb_agg(jsonb_build_object('number', x.number, 'at', to_char(x.created_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'), 'by', (select name from person where id = x.created_by), 'sha256', x.sha256,
					'bytes', x.bytes, 'pages', x.pages, 'fileName', x.file_name, 'origin', x.origin, 'status', x.condition, 'findings', x.findings, 'inForce', x.id = d.edition_id, 'pending', x.pending)
					order by x.number desc) from edition x where x.document_id = d.id) as editions,
				(select jsonb_build_object('url', url, 'watch', watch, 'state', state, 'note', note, 'checkedAt', to_char(checked_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'),
					'beside', (select max(x.number) from edition x where x.document_id = d.id and x.sha256 = offered)) from source where document_id = d.id) as source,
				coalesce((select jsonb_agg(a.slug order by a.slug) from document_address a where a.document_id = d.id and a.slug <> d.slug), '[]') as addresses,
				coalesce((select jsonb_agg(jsonb_build_object('id', p.id, 'page', pg.id, 'path', pg.path, 'title', pg.draft_title, 'form', p.form, 'press', p.press, 'published', p.published,
					'leads', (select l.draft_title from page l where l.id = p.leads_to)) order by pg.path)
					from placement p join page pg on pg.id = p.page_id
					where p.document_id = d.id and pg.set_aside_at is null
						and (p.published or not exists (select 1 from placement q where q.id = p.id and q.page_id = p.page_id and q.published))), '[]') as placed,
				coalesce((select jsonb_agg(jsonb_build_object('page', x.id, 'title', x.draft_title, 'published', x.published) order by x.path) from (
					select pg.id, pg.path, pg.draft_title, bool_or(l.published) as published from listing l join page pg on pg.id = l.page_id where ${lists()} group by pg.id) x), '[]') as lists
			from document d join edition e on e.id = d.edition_id where d.id = ${found.id}`
	]);
	const [line, row] = [theRow(lines), theRow(rows)];
	const { door: lineDoor, ...rest } = toListItem(line, zone, now);
	const reach = reachOf(line.door, zone, line.set_aside_at !== null);
	const { force: _force, ...door } = line.door;
	return {
		...rest,
		description: row.description,
		fields: row.fields,
		review: row.review,
		fileName: row.file_name,
		facts: row.facts,
		cover: line.cover,
		coverAlt: row.cover_alt,
		reading: row.reading,
		receipt: row.receipt,
		ownLanguage: row.own_language,
		editions: row.editions.map(({ status, findings, ...edition }) => ({ ...edition, condition: { status, findings } })),
		source: row.source,
		addresses: row.addresses,
		door: { ...door, sentence: sentence(reach, now, zone), who: lineDoor.who, inForce: lineDoor.position },
		placedOn: row.placed,
		lists: lineDoor.position === 'shut' ? [] : row.lists,
		goneAt: row.gone_at?.toISOString() ?? null
	};
}

/** A document as the API gives it. */
export function documentJson(view: DocumentView) {
	const { door } = view;
	return {
		id: view.id,
		slug: view.slug,
		title: view.title,
		description: view.description,
		folder: view.folder,
		topics: view.topics,
		fields: view.fields,
		review: view.review,
		language: view.language,
		cover: view.cover,
		coverAlt: view.coverAlt,
		reading: view.reading,
		receipt: view.receipt,
		condition: { status: view.condition.status, findings: view.condition.findings.map(({ code, text }) => ({ code, text })) },
		pages: view.pages,
		bytes: view.bytes,
		sha256: view.sha256,
		fileName: view.fileName,
		facts: { ...view.facts, paper: view.paper },
		editions: view.editions.map(({ number, at, sha256, bytes, pages, fileName, origin, condition, inForce }) => ({
			number,
			at,
			sha256,
			bytes,
			pages,
			fileName,
			origin,
			condition: condition.status,
			inForce
		})),
		source: view.source,
		addresses: view.addresses,
		door: { ...fieldsShown(door), sentence: door.sentence, count: door.count },
		placements: view.placedOn.map((p) => ({ id: p.id, page: p.path, form: p.form, press: p.press, published: p.published })),
		createdAt: view.createdAt,
		setAsideAt: view.setAsideAt
	};
}
