// First link of the chain: address → document, its edition, and the thing to decide on.
import type { Thing } from '#core/access/door';
import type { Finding } from '#core/intake/condition';
import type { PageSize } from '#core/intake/paper';
import { thingOf, type DoorJson, type ThingRow } from '../access/things';
import { sql } from '../db/client';
import { site } from '../site/site';

export interface Found {
	readonly id: string;
	readonly slug: string;
	readonly title: string;
	readonly description: string;
	readonly thing: Thing;
	readonly turnedAway: DoorJson['turnedAway'];
	readonly position: DoorJson['position'];
	readonly edition: {
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
	};
}

interface Row extends ThingRow {
	id: string;
	slug: string;
	title: string;
	description: string;
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
}

/** The document at an address, or null. A former address gives the document under its present one: compare `slug`. */
export async function find(slug: string): Promise<Found | null> {
	const [[row], { zone }] = await Promise.all([
		sql()<Row[]>`
			select d.id, d.slug, d.title, d.description, d.set_aside_at, door_json(d.door_id) as door,
				door_json(fp.door_id) as follows_door, fp.set_aside_at as follows_set_aside,
				e.id as edition_id, e.number, e.sha256, e.bytes, e.file_name, e.pages, e.facts->'sizes' as sizes, e.facts->>'language' as language,
				e.findings, e.created_at as edition_at
			from document d join door dr on dr.id = d.door_id join edition e on e.id = d.edition_id left join page fp on fp.id = dr.follows_page
			where d.slug = ${slug} or d.id = (select a.document_id from document_address a where a.slug = ${slug})
			order by d.slug = ${slug} desc limit 1`,
		site()
	]);
	if (!row) return null;
	const inForce = row.follows_door ?? row.door;
	return {
		id: row.id,
		slug: row.slug,
		title: row.title,
		description: row.description,
		thing: thingOf(row, zone),
		turnedAway: row.door.turnedAway,
		position: inForce.position,
		edition: {
			id: row.edition_id,
			number: row.number,
			sha256: row.sha256,
			bytes: Number(row.bytes),
			fileName: row.file_name,
			pages: row.pages,
			sizes: row.sizes,
			language: row.language,
			createdAt: row.edition_at,
			findings: row.findings
		}
	};
}
