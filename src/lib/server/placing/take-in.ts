// Pages of another site, taken in with their revisions.
import { eq, sql as raw } from 'drizzle-orm';
import type { Layout, PageContent } from '#core/placing/content';
import { exchanged } from '#core/placing/exchange';
import type { ExportLine } from '#core/upkeep/portable';
import { insertDoor } from '../access/doors';
import type { Queryable } from '../db/client';
import { page, revision } from '../db/schema';
import { newId } from '../id';
import { writeAudit } from '../site/audit';
import { contentFrom, indexPlacements, nextInNavigation } from './commands';

/**
 * Takes pages in as they were on another site, with their revisions; `moved` gives the slug here of documents that have another one. Documents that were let go
 * there are left out of the places. The doors are the caller's to set, once all else is there: gives the pages' ids and doors by their paths.
 */
export async function takeInPages(
	tx: Queryable,
	lines: readonly ExportLine<'pages'>[],
	moved: ReadonlyMap<string, string>,
	actor: string | null
): Promise<Map<string, { id: string; doorId: string }>> {
	const here = (layout: Layout, given: unknown): PageContent =>
		[...moved].reduce((content, [from, to]) => exchanged(layout, content, new Set([from]), to).content, contentFrom(layout, given));
	const made = new Map<string, { id: string; doorId: string }>();
	const last = await nextInNavigation(tx);
	const order = lines.flatMap(({ navigation }) => navigation ?? []).sort((a, b) => a - b);
	for (const line of lines) {
		const [id, doorId] = [newId(), await insertDoor(tx, actor)];
		await tx.insert(page).values({
			id,
			path: line.path,
			title: line.title,
			layout: line.layout,
			doorId,
			draft: here(line.layout, line.draft.content),
			draftTitle: line.draft.title,
			// after those that are here, in their own order
			navigation: line.navigation === null ? null : last + order.indexOf(line.navigation),
			label: line.label,
			language: line.language,
			createdAt: new Date(line.createdAt),
			createdBy: actor,
			setAsideAt: line.setAsideAt === null ? null : new Date(line.setAsideAt)
		});
		for (const { number, title, content, publishedAt } of line.revisions) {
			const revisionId = newId();
			const published = new Date(publishedAt);
			await tx.insert(revision).values({ id: revisionId, pageId: id, number, title, content: here(line.layout, content), publishedAt: published });
			if (number === line.published) await tx.update(page).set({ publishedId: revisionId }).where(eq(page.id, id));
		}
		await writeAudit(tx, { actor, action: 'written', kind: 'page', thing: id, after: { path: line.path, title: line.draft.title, layout: line.layout } });
		made.set(line.path, { id, doorId });
	}
	// a page can lead to another, so all of them are there first
	for (const line of lines) {
		// it was made above
		const { id } = made.get(line.path)!;
		if (line.setAsideAt === null) {
			await indexPlacements(tx, id, line.layout, here(line.layout, line.draft.content), false, 'leave');
			const out = line.revisions.find(({ number }) => number === line.published);
			if (out) await indexPlacements(tx, id, line.layout, here(line.layout, out.content), true, 'leave');
		}
		for (const { document: named, why } of line.sideDoors)
			await tx.execute(raw`insert into side_door (page_id, document_id, why, marked_by)
				select ${id}::uuid, id, ${why}, ${actor}::uuid from document where slug = ${moved.get(named) ?? named} on conflict do nothing`);
	}
	return made;
}
