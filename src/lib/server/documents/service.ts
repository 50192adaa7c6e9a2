// Documents as the desk and the API see them: one, a list of them with counts, and changes to them.
import { eq, sql as raw } from 'drizzle-orm';
import { Type, type Static } from '@sinclair/typebox';
import { DoorChange, positions, type Position } from '#core/access/door';
import { dayOf } from '#core/access/hours';
import { sentence, whoWords } from '#core/access/reach';
import { slugMax, slugPattern } from '#core/documents/address';
import { IanuaError } from '#core/errors';
import type { Condition, Facts, Finding } from '#core/intake/condition';
import { paperWords } from '#core/intake/paper';
import { changeDoor, reachOf, type DoorView, type DoorViewJson } from '../access/things';
import { db, sql } from '../db/client';
import { document, documentAddress } from '../db/schema';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';

/** How the four stations of the passage stand. */
export interface Passage {
	readonly in: 'done' | 'wrong';
	readonly door: 'done' | 'to-do';
	readonly placed: 'done' | 'to-do';
	readonly read: 'done' | 'to-do';
}

export interface DocumentLine {
	readonly id: string;
	readonly slug: string;
	readonly title: string;
	readonly folder: string;
	readonly pages: number;
	readonly bytes: number;
	readonly sha256: string;
	readonly paper: string;
	readonly edition: number;
	readonly editionAt: string;
	readonly condition: Condition;
	readonly door: { readonly position: Position; readonly who: string; readonly sentence: string; readonly count: number };
	readonly placements: number;
	readonly passage: Passage;
	/** Distinct readers in 30 days, and openings for each of those days. */
	readonly readers: number;
	readonly days: readonly number[];
}

export interface DocumentQuery {
	readonly q?: string;
	readonly door?: Position;
	readonly folder?: string;
	readonly condition?: 'sound' | 'look';
	readonly order?: Order;
	readonly offset?: number;
	readonly limit?: number;
}

export const orders = ['newest', 'title', 'size', 'readers'] as const;
export type Order = (typeof orders)[number];

export interface DocumentList {
	readonly items: readonly DocumentLine[];
	/** How many match. */
	readonly total: number;
	/** How many there are at all. */
	readonly all: number;
	/** For each position of the door, how many match the other filters. */
	readonly doors: Readonly<Record<Position, number>>;
	/** How many of those at the chosen door are worth a look. */
	readonly looks: number;
}

interface ListRow {
	id: string;
	slug: string;
	title: string;
	folder: string;
	pages: number;
	bytes: string;
	sha256: string;
	sizes: Facts['sizes'];
	number: number;
	edition_at: Date;
	condition: Condition['status'];
	findings: Finding[];
	door: DoorViewJson;
	placements: number;
	readers: number;
	ever: boolean;
	days: { day: string; n: number }[];
}

const dayMs = 86_400_000;

/** A page of documents with the counts of the filters. Set-aside documents are left out. */
export async function listDocuments(query: DocumentQuery): Promise<DocumentList> {
	const { zone } = await site();
	const now = Date.now();
	const today = dayOf(now, zone);
	const { limit = 50, offset = 0, order = 'newest' } = query;
	const like = query.q ? `%${query.q.replace(/[\\%_]/g, '\\$&')}%` : null;
	const s = sql();
	const matching = s`
		from document d join edition e on e.id = d.edition_id join door dr on dr.id = d.door_id
			left join page fp on fp.id = dr.follows_page join door f on f.id = coalesce(fp.door_id, dr.id)
		where d.set_aside_at is null
			and (${like}::text is null or d.title ilike ${like} or d.slug ilike ${like} or d.description ilike ${like} or e.file_name ilike ${like})
			and (${query.folder ?? null}::text is null or d.folder = ${query.folder ?? null})`;
	const orderBy = {
		newest: s`d.created_at desc, d.id desc`,
		title: s`lower(d.title), d.id`,
		size: s`e.bytes desc, d.id`,
		readers: s`readers desc, lower(d.title), d.id`
	}[order];
	// readers are counted for the whole choice only where the order needs them, else for the lines shown
	const readers = s`(select count(distinct l.reader)::int from ledger l where l.document_id = d.id and l.at >= ${new Date(now - 30 * dayMs)} and l.kind in ('opened', 'saved') and not l.staff and not l.robot and not l.preload)`;
	const [counts, [all], rows] = await Promise.all([
		s<{ position: Position; condition: string; n: number }[]>`select f.position, e.condition, count(*)::int as n ${matching} group by f.position, e.condition`,
		s<{ n: number }[]>`select count(*)::int as n from document where set_aside_at is null`,
		s<ListRow[]>`
			with lines as (
				select d.id, d.slug, d.title, d.folder, d.door_id, e.pages, e.bytes, e.sha256, e.facts->'sizes' as sizes, e.number, e.created_at as edition_at, e.condition, e.findings,
					${readers} as readers, row_number() over (order by ${order === 'readers' ? s`${readers} desc, lower(d.title), d.id` : orderBy}) as place
				${matching} and (${query.door ?? null}::text is null or f.position = ${query.door ?? null})
					and (${query.condition ?? null}::text is null or e.condition = ${query.condition ?? null})
				order by place limit ${limit} offset ${offset}
			)
			select d.*, door_view(d.door_id, ${today}::date) as door,
				(select count(*)::int from placement p where p.document_id = d.id and p.published) as placements,
				exists (select 1 from ledger l where l.document_id = d.id and l.kind = 'opened' and not l.staff and not l.robot) as ever,
				coalesce((select jsonb_agg(jsonb_build_object('day', t.day, 'n', t.n)) from (
					select to_char(l.at at time zone ${zone}, 'YYYY-MM-DD') as day, count(*)::int as n from ledger l
					where l.document_id = d.id and l.at >= ${new Date(now - 30 * dayMs)} and l.kind = 'opened' and not l.staff and not l.robot and not l.preload
					group by 1) t), '[]') as days
			from lines d order by d.place`
	]);
	// the counts of each filter take account of the other one
	const sum = (fits: (c: (typeof counts)[number]) => boolean) => counts.reduce((n, c) => n + (fits(c) ? c.n : 0), 0);
	const inCondition = (c: { condition: string }) => !query.condition || c.condition === query.condition;
	const atDoor = (c: { position: Position }) => !query.door || c.position === query.door;
	const doors = Object.fromEntries(positions.map((p) => [p, sum((c) => c.position === p && inCondition(c))])) as Record<Position, number>;
	const looks = sum((c) => c.condition === 'look' && atDoor(c));
	const total = sum((c) => atDoor(c) && inCondition(c));
	const lastDays = Array.from({ length: 30 }, (_, i) => dayOf(now - (29 - i) * dayMs, zone));
	return { items: rows.map((row) => lineOf(row, zone, now, lastDays)), total, all: all!.n, doors, looks };
}

function lineOf(row: ListRow, zone: string, now: number, lastDays: readonly string[]): DocumentLine {
	const reach = reachOf(row.door, zone, false);
	const byDay = new Map(row.days.map((d) => [d.day, d.n]));
	return {
		id: row.id,
		slug: row.slug,
		title: row.title,
		folder: row.folder,
		pages: row.pages,
		bytes: Number(row.bytes),
		sha256: row.sha256,
		paper: paperWords(row.sizes),
		edition: row.number,
		editionAt: row.edition_at.toISOString(),
		condition: { status: row.condition, findings: row.findings },
		door: { position: reach.position, who: whoWords(reach), sentence: sentence(reach, now, zone), count: row.door.count },
		placements: row.placements,
		passage: {
			in: row.condition === 'refused' ? 'wrong' : 'done',
			door: reach.position === 'shut' ? 'to-do' : 'done',
			placed: row.placements ? 'done' : 'to-do',
			read: row.ever ? 'done' : 'to-do'
		},
		readers: row.readers,
		days: lastDays.map((day) => byDay.get(day) ?? 0)
	};
}

export interface DocumentView extends Omit<DocumentLine, 'door'> {
	readonly description: string;
	readonly fileName: string;
	readonly facts: Facts;
	readonly door: Omit<DoorViewJson, 'force'> & { readonly sentence: string; readonly who: string; readonly inForce: Position };
	readonly placedOn: readonly {
		readonly id: string;
		readonly page: string;
		readonly path: string;
		readonly title: string;
		readonly form: string;
		readonly press: string;
		readonly published: boolean;
	}[];
	readonly createdAt: string;
	readonly createdBy: string | null;
}

/** One document with all that the sheet shows. Set-aside ones are found too. Null where there is none. */
export async function documentView(slug: string): Promise<DocumentView | null> {
	const { zone } = await site();
	const now = Date.now();
	const s = sql();
	const [row] = await s<
		(ListRow & {
			description: string;
			file_name: string;
			facts: Facts;
			created_at: Date;
			created_by_name: string | null;
			set_aside_at: Date | null;
			placed: DocumentView['placedOn'];
		})[]
	>`
		select d.id, d.slug, d.title, d.description, d.folder, d.created_at, d.set_aside_at, e.pages, e.bytes, e.sha256, e.facts, e.facts->'sizes' as sizes, e.number, e.file_name,
			e.created_at as edition_at, e.condition, e.findings, door_view(d.door_id, ${dayOf(now, zone)}::date) as door,
			(select name from person where id = d.created_by) as created_by_name,
			(select count(*)::int from placement p where p.document_id = d.id and p.published) as placements,
			0 as readers, exists (select 1 from ledger l where l.document_id = d.id and l.kind = 'opened' and not l.staff and not l.robot) as ever, '[]'::jsonb as days,
			coalesce((select jsonb_agg(jsonb_build_object('id', p.id, 'page', pg.id, 'path', pg.path, 'title', pg.draft_title, 'form', p.form, 'press', p.press, 'published', p.published) order by pg.path)
				from placement p join page pg on pg.id = p.page_id
				where p.document_id = d.id and pg.set_aside_at is null
					and (p.published or not exists (select 1 from placement q where q.id = p.id and q.page_id = p.page_id and q.published))), '[]') as placed
		from document d join edition e on e.id = d.edition_id
		where d.slug = ${slug} or d.id = (select a.document_id from document_address a where a.slug = ${slug})
		order by d.slug = ${slug} desc limit 1`;
	if (!row) return null;
	const { door: _line, ...line } = lineOf(row, zone, now, []);
	const reach = reachOf(row.door, zone, row.set_aside_at !== null);
	const { force: _force, ...door } = row.door;
	return {
		...line,
		description: row.description,
		fileName: row.file_name,
		facts: row.facts,
		door: { ...door, sentence: sentence(reach, now, zone), who: whoWords(reach), inForce: reach.position },
		placedOn: row.placed,
		createdAt: row.created_at.toISOString(),
		createdBy: row.created_by_name
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
		condition: view.condition,
		pages: view.pages,
		bytes: view.bytes,
		sha256: view.sha256,
		fileName: view.fileName,
		facts: { ...view.facts, paper: view.paper },
		editions: [{ number: view.edition, at: view.editionAt, sha256: view.sha256, bytes: view.bytes, pages: view.pages }],
		door: doorJson(door),
		placements: view.placedOn.map((p) => ({ id: p.id, page: p.path, form: p.form, press: p.press, published: p.published })),
		createdAt: view.createdAt
	};
}

function doorJson(door: DocumentView['door'] | (DoorView & { sentence: string })) {
	return {
		position: door.position,
		allMembers: door.allMembers,
		groups: door.groups.map((g) => g.slug),
		people: door.people.map((p) => p.email),
		follows: door.follows?.path ?? null,
		from: door.from,
		until: door.until,
		allow: door.allow,
		listed: door.listed,
		turnedAway: door.turnedAway,
		sentence: door.sentence,
		count: door.count
	};
}

/** A change to a document: only what is named changes. */
export const DocumentChange = Type.Object(
	{
		title: Type.Optional(Type.String({ minLength: 1, maxLength: 200, pattern: '\\S' })),
		description: Type.Optional(Type.String({ maxLength: 4000 })),
		slug: Type.Optional(Type.String({ pattern: slugPattern, maxLength: slugMax })),
		folder: Type.Optional(Type.String({ maxLength: 200 })),
		door: Type.Optional(DoorChange)
	},
	{ additionalProperties: false }
);
export type DocumentChange = Static<typeof DocumentChange>;

/** Changes a document, its door included, in one transaction with the audit trail. Gives its address afterwards. */
export async function changeDocument(slug: string, change: DocumentChange, actor: string): Promise<string> {
	return db().transaction(async (tx) => {
		const [row] = await tx.select().from(document).where(eq(document.slug, slug)).for('update');
		if (!row) throw new IanuaError('not-found');
		const { door, ...own } = change;
		if (own.slug && own.slug !== row.slug) {
			const taken = (await tx.execute(
				raw`select 1 from document where slug = ${own.slug} union all select 1 from document_address where slug = ${own.slug} and document_id <> ${row.id}`
			)) as unknown as unknown[];
			if (taken.length) throw new IanuaError('address-taken', { slug: own.slug });
			await tx.delete(documentAddress).where(eq(documentAddress.slug, own.slug));
			// the former address leads here for good
			await tx.insert(documentAddress).values({ slug: row.slug, documentId: row.id }).onConflictDoNothing();
		}
		if (Object.keys(own).length) {
			const next = { ...own, title: own.title?.trim() };
			await tx.update(document).set(next).where(eq(document.id, row.id));
			await writeAudit(tx, {
				actor,
				action: 'changed',
				kind: 'document',
				thing: row.id,
				before: { title: row.title, description: row.description, slug: row.slug, folder: row.folder },
				after: next
			});
		}
		if (door) await changeDoor(tx, row.doorId, door, { actor, kind: 'document', thing: row.id });
		return own.slug ?? row.slug;
	});
}
