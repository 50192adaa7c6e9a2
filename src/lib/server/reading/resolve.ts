// First link of the chain: address → document, its edition, and the thing to decide on.
import type { DoorFields, Guarded } from '#core/access/door';
import { standingOf, type Standing } from '#core/access/standing';
import type { FieldValues } from '#core/documents/fields';
import type { Cover } from '#core/documents/cover';
import type { ConditionStatus, Finding } from '#core/intake/condition';
import type { PageSize } from '#core/intake/paper';
import { guardedOf, type GuardedRow } from '../access/doors';
import { Cache } from '../db/cache';
import { sql } from '../db/client';
import { site } from '../site/site';

export interface Resolved {
	readonly id: string;
	readonly slug: string;
	readonly title: string;
	readonly description: string;
	readonly fields: FieldValues;
	readonly folder: string;
	readonly thing: Guarded;
	readonly turnedAway: DoorFields['turnedAway'];
	/** Saved copies carry a name. */
	readonly stamped: boolean;
	/** How it stands now. */
	readonly standing: Standing;
	readonly cover: Cover | null;
	readonly coverAlt: string;
	/** Set aside for good. */
	readonly gone: boolean;
	readonly edition: ResolvedEdition;
}

export interface ResolvedEdition {
	readonly id: string;
	readonly number: number;
	readonly sha256: string;
	readonly bytes: number;
	readonly fileName: string;
	readonly pages: number;
	readonly sizes: readonly (PageSize & { pages: number })[];
	readonly language: string | null;
	readonly createdAt: Date;
	readonly findings: readonly Finding[];
	readonly condition: ConditionStatus;
	/** Whether a copy packed for reading lies beside the original. */
	readonly packed: boolean;
}

interface EditionRow {
	edition_id: string;
	number: number;
	sha256: string;
	bytes: string;
	file_name: string;
	pages: number;
	sizes: (PageSize & { pages: number })[];
	language: string | null;
	findings: Finding[];
	edition_at: Date;
	condition: ConditionStatus;
	packed: boolean;
}

interface Row extends GuardedRow, EditionRow {
	id: string;
	slug: string;
	title: string;
	description: string;
	fields: FieldValues;
	folder: string;
	cover: Cover | null;
	cover_alt: string;
	gone_at: Date | null;
}

/** `asPublished` is a page that counts as published, for documents that follow it. */
const foundSelect = (asPublished: string | null = null) => sql()`
	select d.id, d.slug, d.title, d.description, d.fields, d.folder, d.cover, d.cover_alt, d.gone_at, d.set_aside_at, door_json(d.door_id) as door,
		door_json(t.follows_door_id) as follows_door, t.follows_set_aside, t.follows_unpublished and t.follows_page is distinct from ${asPublished}::uuid as follows_unpublished,
		e.id as edition_id, e.number, e.sha256, e.bytes, e.file_name, e.pages, e.facts->'sizes' as sizes, coalesce(d.language, e.language) as language,
		e.findings, e.created_at as edition_at, e.condition, e.packed
	from document d join thing_in_force t on t.id = d.id and t.kind = 'document' join edition e on e.id = d.edition_id`;

async function rowAt(slug: string): Promise<Row | null> {
	const [row] = await sql()<Row[]>`${foundSelect()}
		where d.id = coalesce((select id from document where slug = ${slug}), (select document_id from document_address where slug = ${slug}))`;
	return row ?? null;
}

/** The document at an address, or null. A former address gives the document under its present one: compare `slug`. */
export async function resolve(slug: string): Promise<Resolved | null> {
	const [row, { zone }] = await Promise.all([rowAt(slug), site()]);
	return row && foundOf(row, zone);
}

/** The line is asked each time: a door holds on every server at once. */
const cache = new Cache<Row | null>({ most: 5000, within: 0 });

/** The same for readers, who ask for part after part of it: from what is remembered until something changes. How it stands is worked out each time. */
export async function resolveForReader(slug: string): Promise<Resolved | null> {
	// nothing of it goes by the clock
	const [row, { zone }] = await Promise.all([cache.get(slug, async () => ({ value: await rowAt(slug), until: Infinity })), site()]);
	return row && foundOf(row, zone);
}

/** The documents at many addresses, by the address asked for; those that are not there are left out. */
export async function resolveAll(slugs: readonly string[], asPublished: string | null = null): Promise<Map<string, Resolved>> {
	const asked = [...new Set(slugs)];
	if (!asked.length) return new Map();
	const s = sql();
	const [rows, former, { zone }] = await Promise.all([
		s<Row[]>`${foundSelect(asPublished)} where d.slug in ${s(asked)} or d.id in (select document_id from document_address where slug in ${s(asked)})`,
		s<{ slug: string; document_id: string }[]>`select slug, document_id from document_address where slug in ${s(asked)}`,
		site()
	]);
	const found = rows.map((row) => foundOf(row, zone));
	const [byId, bySlug] = [new Map(found.map((f) => [f.id, f])), new Map(found.map((f) => [f.slug, f]))];
	return new Map([
		// joined with the documents found
		...former.map((f) => [f.slug, byId.get(f.document_id)!] as const),
		// has() says so
		...asked.flatMap((slug) => (bySlug.has(slug) ? [[slug, bySlug.get(slug)!] as const] : []))
	]);
}

function foundOf(row: Row, zone: string): Resolved {
	const thing = guardedOf(row, zone);
	return {
		id: row.id,
		slug: row.slug,
		title: row.title,
		description: row.description,
		fields: row.fields,
		folder: row.folder,
		thing,
		turnedAway: row.door.turnedAway,
		stamped: row.door.stamped,
		standing: standingOf(thing, Date.now()),
		cover: row.cover,
		coverAlt: row.cover_alt,
		gone: row.gone_at !== null,
		edition: editionOf(row)
	};
}

const editionOf = (row: EditionRow): ResolvedEdition => ({
	id: row.edition_id,
	number: row.number,
	sha256: row.sha256,
	bytes: Number(row.bytes),
	fileName: row.file_name,
	pages: row.pages,
	sizes: row.sizes,
	language: row.language,
	createdAt: row.edition_at,
	findings: row.findings,
	condition: row.condition,
	packed: row.packed
});

/** Hours for which a reader who began with an edition goes on with it after another came into force. */
const goesOnFor = 12;

/**
 * The document as a reader in the middle of an edition sees it: that edition, where this reader opened it in the last hours (staff:
 * any of them). Null where they did not: an edition taken back is nobody else's to ask for.
 */
export async function inEdition(found: Resolved, number: number, reader: string, staff: boolean): Promise<Resolved | null> {
	if (number === found.edition.number) return found;
	const [row] = await sql()<EditionRow[]>`
		select e.id as edition_id, e.number, e.sha256, e.bytes, e.file_name, e.pages, e.facts->'sizes' as sizes, e.language, e.findings, e.created_at as edition_at,
			e.condition, e.packed
		from edition e where e.document_id = ${found.id} and e.number = ${number} and (${staff} or exists (
			select 1 from ledger l where l.document_id = ${found.id} and l.edition_id = e.id and l.kind = 'opened'
				and (l.reader = ${reader} or l.id = (select r.reading_id from reading r where r.document_id = ${found.id} and r.reader = ${reader} and r.kind = 'opened'))
				and l.at > now() - make_interval(hours => ${goesOnFor})))`;
	return row ? { ...found, edition: editionOf(row) } : null;
}
