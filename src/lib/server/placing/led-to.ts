// The pages to which teasers lead.
import type { GuardedRow } from '../access/doors';
import { sql } from '../db/client';

export interface PageLedTo extends GuardedRow {
	path: string;
	title: string;
}

/** Published pages to which teasers lead, by their paths. */
export async function pagesLedTo(paths: readonly string[]): Promise<Map<string, PageLedTo>> {
	if (!paths.length) return new Map();
	const rows = await sql()<PageLedTo[]>`
		select p.path, r.title, p.set_aside_at, door_json(p.door_id) as door
		from page p join revision r on r.id = p.published_id where p.path = any(${[...new Set(paths)]}) and p.set_aside_at is null`;
	return new Map(rows.map((row) => [row.path, row]));
}
