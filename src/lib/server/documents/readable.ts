// What a caller may read, as a list: the one that /me and a site without a front page show.
import { readableBy } from '../access/readable';
import { sql } from '../db/client';
import type { Caller } from '../people/who';

export interface OpenDocument {
	readonly slug: string;
	readonly title: string;
	readonly pages: number;
	readonly bytes: number;
}

/** The documents that a list names to this caller, newest first, at most `limit`. */
export async function openDocumentsFor(caller: Caller, limit = 200): Promise<OpenDocument[]> {
	const rows = await sql()<{ slug: string; title: string; pages: number; bytes: string }[]>`
		select d.slug, d.title, e.pages, e.bytes from document d join edition e on e.id = d.edition_id
		where (d.id in (${(await readableBy(caller)).ids})) is true order by d.created_at desc limit ${limit}`;
	return rows.map((row) => ({ ...row, bytes: Number(row.bytes) }));
}
