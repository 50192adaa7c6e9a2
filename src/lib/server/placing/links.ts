// Links to documents in articles, written, pasted or imported: they are placements. Those of older texts are brought over.
import { createHash } from 'node:crypto';
import { eq, inArray, or } from 'drizzle-orm';
import type { Article, Layout, PageContent } from '#core/placing/content';
import { documentOfLink, linksIn, withLinksPlaced } from '#core/placing/links';
import { db, sql, type Queryable } from '../db/client';
import { document, documentAddress } from '../db/schema';
import { log } from '../log';
import { settings } from '../settings';

/** Content with its links to documents as placements; the very content that was given where there are none. An editor that sends the link again gets the same placement. */
export async function linksPlaced(tx: Queryable, pageId: string, layout: Layout, content: PageContent): Promise<PageContent> {
	if (layout !== 'article') return content;
	const origin = settings().IANUA_ORIGIN;
	const slugs = [...new Set(linksIn(content as Article).flatMap((href) => documentOfLink(href, origin)?.slug ?? []))];
	if (!slugs.length) return content;
	const rows = await tx
		.select({ slug: document.slug, former: documentAddress.slug })
		.from(document)
		.leftJoin(documentAddress, eq(documentAddress.documentId, document.id))
		.where(or(inArray(document.slug, slugs), inArray(documentAddress.slug, slugs)));
	const known = new Map(rows.flatMap(({ slug, former }) => [[slug, slug] as const, ...(former ? [[former, slug] as const] : [])]));
	const idOf = (slug: string, nth: number) => createHash('sha256').update(`${pageId} ${slug} ${nth}`).digest('hex').slice(0, 16);
	return withLinksPlaced(content as Article, origin, (slug) => known.get(slug), idOf);
}

/** Brings links in the texts of pages over, drafts and what is out: those that were written before links to documents were placements. */
export async function placeOldLinks(
	change: (tx: Queryable, id: string, next: (layout: Layout, content: PageContent) => PageContent) => Promise<void>
): Promise<void> {
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
				if (next.size) await change(tx, id, (_layout, content) => next.get(JSON.stringify(content)) ?? content);
			})
			// a text that cannot be brought over keeps no other back
			.catch((err: unknown) => log().error({ err, page: id }, 'placing the links of a page'));
}
