// Links to documents in texts that were written before such links were placements: brought over when the server starts.
import type { Layout, PageContent } from '#core/placing/content';
import { db, sql } from '../db/client';
import { log } from '../log';
import { changeContent } from './commands';
import { linksPlaced } from './links';

/** Makes placements of the links in drafts and in what is out. What has none is left alone. */
export async function placeOldLinks(): Promise<void> {
	const rows = await sql()<{ id: string; layout: Layout; draft: PageContent; out: PageContent | null }[]>`
		select p.id, p.layout, p.draft, r.content as out from page p left join revision r on r.id = p.published_id
		where p.layout = 'article' and p.set_aside_at is null and (p.draft::text like '%/d/%' or r.content::text like '%/d/%')`;
	for (const { id, layout, draft, out } of rows)
		await db()
			.transaction(async (tx) => {
				const next = new Map<string, PageContent>();
				for (const content of [draft, ...(out ? [out] : [])]) {
					const placed = await linksPlaced(tx, id, layout, content);
					if (placed !== content) next.set(JSON.stringify(content), placed);
				}
				if (next.size) await changeContent(tx, id, (_layout, content) => next.get(JSON.stringify(content)) ?? content, null);
			})
			// a text that cannot be brought over keeps no other back
			.catch((err: unknown) => log().error({ err, page: id }, 'placing the links of a page'));
}
