// On which pages of an edition words stand, for a reader's find: a first answer, of which the reading room then sees the places itself.
import { sql } from '../db/client';
import { holding } from '../db/like';

/** Most words or phrases that are looked for at once, and characters of each. */
export const mostSought = { each: 200, all: 20 } as const;

/**
 * Pages, in order, on which any of the words or phrases may stand: case and accents do not matter, nor what stands between the words of a
 * phrase, nor a hyphen at the end of a line. Rather a page too many than one too few.
 */
export async function pagesWith(edition: string, sought: readonly string[]): Promise<number[]> {
	const patterns = sought.flatMap((each) => {
		const words = each.split(/\s+/).filter(Boolean);
		return words.length ? [holding(...words)] : [];
	});
	if (!patterns.length) return [];
	const rows = await sql()<{ page: number }[]>`
		select page from edition_page
		where edition_id = ${edition} and plain_text(replace(body, E'-\n', '')) like any (select plain_text(p) from unnest(${patterns}::text[]) p) order by page`;
	return rows.map((r) => r.page);
}
