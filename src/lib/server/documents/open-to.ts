// What a caller may read, as a list: the one that /me and a site without a front page show.
import { isListed } from '#core/access/decide';
import { thingOf, type ThingRow } from '../access/things';
import { sql } from '../db/client';
import { instantOf, type Caller } from '../people/who';
import { site } from '../site/site';

export interface OpenDocument {
	readonly slug: string;
	readonly title: string;
	readonly pages: number;
	readonly bytes: number;
}

/** The documents that a list names to this caller (core/access: isListed), newest first, at most `limit`. */
export async function openDocumentsFor(caller: Caller, limit = 200): Promise<OpenDocument[]> {
	const [rows, { zone }] = await Promise.all([
		sql()<(ThingRow & { slug: string; title: string; pages: number; bytes: string })[]>`
			select d.slug, d.title, e.pages, e.bytes, d.set_aside_at, door_json(d.door_id) as door, door_json(fp.door_id) as follows_door, fp.set_aside_at as follows_set_aside
			from document d join edition e on e.id = d.edition_id join door dr on dr.id = d.door_id left join page fp on fp.id = dr.follows_page
				join door f on f.id = coalesce(fp.door_id, dr.id)
			where d.set_aside_at is null and f.position <> 'shut' order by d.created_at desc`,
		site()
	]);
	const now = instantOf(caller);
	return rows
		.filter((row) => isListed(caller.who, thingOf(row, zone), now))
		.slice(0, limit)
		.map((row) => ({ slug: row.slug, title: row.title, pages: row.pages, bytes: Number(row.bytes) }));
}
