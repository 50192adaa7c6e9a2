// Documents put on pages from outside their editors: at the end of each, in the draft and in what is out. And taken out again.
import { eq } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import { withoutPlacement, type Article } from '#core/placing/content';
import type { KeptPlacement } from '#core/placing/placement';
import { withPlacedAtEnd } from '#core/placing/put';
import { db, sql } from '../db/client';
import { page } from '../db/schema';
import { changeContent, freshPlacementId } from './commands';
import type { PlacementsAnswer, PlacementsGiven, PlacementsTaken } from './places-contract';
import { mismatches } from './mismatches';

async function pageIdAt(path: string): Promise<string> {
	const [row] = await db().select({ id: page.id, layout: page.layout, aside: page.setAsideAt }).from(page).where(eq(page.path, path));
	if (!row || row.aside) throw new IanuaError('page-unknown', { path });
	if (row.layout !== 'article') throw new IanuaError('not-valid', { detail: `the page at ${path} is no article` });
	return row.id;
}

/**
 * Puts documents at the end of pages, all of it or nothing: in their drafts, and in what is out where a page is. Where that would be a dead end
 * for readers and the asker wants to be asked first, nothing is done and these are given. Throws for a document or page that is not there.
 */
export async function putOnPages({ documents, places, ask = false }: PlacementsGiven, actor: string): Promise<PlacementsAnswer> {
	const [known, ids] = await Promise.all([
		sql()<{ id: string; slug: string }[]>`select id, slug from document where set_aside_at is null and slug in ${sql()([...documents])}`,
		Promise.all(places.map((place) => pageIdAt(place.page)))
	]);
	const missing = documents.find((slug) => !known.some((row) => row.slug === slug));
	if (missing) throw new IanuaError('document-unknown', { slug: missing });
	const found = ask ? await mismatches({ pairs: { pages: ids, documents: known.map((row) => row.id) } }) : [];
	const asks = found.filter((m) => m.kind === 'dead-end').map((m) => ({ page: m.page, pageTitle: m.pageTitle, document: m.document, whom: m.audience.words }));
	if (asks.length) return { places: [], before: { places: [] }, asks };
	const taken: PlacementsTaken['places'] = [];
	await db().transaction(async (tx) => {
		for (const [i, { page, form, press }] of places.entries()) {
			// the same ones in the draft and in what is out
			const placements = documents.map((document): KeptPlacement => ({ id: freshPlacementId(), document, form, press }));
			// each place has a page, looked for above
			await changeContent(tx, ids[i]!, (_layout, content) => withPlacedAtEnd(content as Article, placements), actor);
			taken.push(...placements.map(({ id }) => ({ page, placement: id })));
		}
	});
	return { places: taken, before: { places: taken } };
}

/** Takes placements out of pages, drafts and what is out; those that are gone already are left. */
export async function takeFromPages({ places }: PlacementsTaken, actor: string): Promise<void> {
	const byPage = new Map<string, Set<string>>();
	for (const { page, placement } of places) byPage.set(page, (byPage.get(page) ?? new Set()).add(placement));
	const ids = new Map(await Promise.all([...byPage.keys()].map(async (path) => [path, await pageIdAt(path)] as const)));
	await db().transaction(async (tx) => {
		for (const [path, gone] of byPage)
			await changeContent(
				tx,
				// each path was looked for above
				ids.get(path)!,
				(layout, content) => [...gone].reduce((left, id) => withoutPlacement(layout, left, id), content),
				actor
			);
	});
}
