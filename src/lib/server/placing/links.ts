// Links to documents in articles, written, pasted or imported: they are placements.
import { createHash } from 'node:crypto';
import { eq, inArray, or } from 'drizzle-orm';
import type { Article, Layout, PageContent } from '#core/placing/content';
import { documentOfLink, linksIn, withLinksPlaced } from '#core/placing/links';
import type { Queryable } from '../db/client';
import { document, documentAddress } from '../db/schema';
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
