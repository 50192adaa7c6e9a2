// Find, for whoever asks: documents that lists show to them and they may read.
import { decide, isListed } from '#core/access/decide';
import { thingOf, type ThingRow } from '../access/things';
import { sql } from '../db/client';
import type { Caller } from '../people/who';
import { site } from '../site/site';
import { findDocuments, fittingDocuments, hitsOf, type FoundDocument } from './find';

/** Most documents looked through for somebody who is not staff. */
const mostLookedThrough = 500;

/** As `findDocuments`, for a caller. Staff find everything. */
export async function findFor(caller: Caller, q: string, page: { limit: number; offset: number }): Promise<{ items: readonly FoundDocument[]; total: number }> {
	if (caller.who.kind === 'staff') return findDocuments(q, page);
	const { items } = await fittingDocuments(q, { limit: mostLookedThrough });
	if (!items.length) return { items: [], total: 0 };
	const s = sql();
	const [rows, { zone }] = await Promise.all([
		s<(ThingRow & { id: string })[]>`
			select d.id, d.set_aside_at, door_json(d.door_id) as door, door_json(fp.door_id) as follows_door, fp.set_aside_at as follows_set_aside
			from document d join door dr on dr.id = d.door_id left join page fp on fp.id = dr.follows_page where d.id in ${s(items.map((i) => i.id))}`,
		site()
	]);
	const things = new Map(rows.map((row) => [row.id, thingOf(row, zone)]));
	const now = Date.now();
	const seen = items.filter((item) => isListed(caller.who, things.get(item.id)!, now) && decide(caller.who, things.get(item.id)!, 'read', now).allowed);
	const shown = seen.slice(page.offset, page.offset + page.limit);
	const hits = await hitsOf(
		q,
		shown.map((i) => i.id),
		3
	);
	return { items: shown.map((item) => ({ ...item, hits: hits.get(item.id) ?? [] })), total: seen.length };
}
