// What changes pages: written, published at once or at a time, taken down, set aside, put in order. Each in one transaction with its audit trail.
import { and, eq, inArray, isNotNull, isNull, lte, ne, sql as raw } from 'drizzle-orm';
import { DoorChange } from '#core/access/door';
import { IanuaError } from '#core/errors';
import { Article, Catalogue, emptyContent, indexOf, listingsOf, settled, withLeads, type Layout, type PageContent } from '#core/placing/content';
import { entryTrouble, Pocket, settledPocket } from '#core/placing/pocket';
import { pathTrouble } from '#core/placing/path';
import { patternContent } from '#core/placing/patterns';
import { changeDoor, doorLike, insertDoor } from '../access/doors';
import { db, type Queryable } from '../db/client';
import { theRow } from '../db/rows';
import { document, documentAddress, listing, page, person, placement, revision } from '../db/schema';
import { newId } from '../id';
import { log } from '../log';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';
import { checked, compile } from '../validate';
import type { PageChange, PageGiven } from './contract';
import { linksPlaced } from './links';
import { revisionOf } from './views';
const checks = { article: compile(Article), catalogue: compile(Catalogue), pocket: compile(Pocket) };
/** An id for a placement that is put in. */
export const freshPlacementId = () => newId().replaceAll('-', '').slice(-16);

/** Content from outside for a layout, checked and settled. */
export function contentFrom(layout: Layout, value: unknown): PageContent {
	switch (layout) {
		case 'article':
			return settled(checked(checks.article, value), freshPlacementId);
		case 'catalogue':
			return checked(checks.catalogue, value);
		case 'pocket': {
			const pocket = checked(checks.pocket, value);
			pocket.entries.forEach((entry, i) => {
				const trouble = entryTrouble(entry);
				if (trouble) throw new IanuaError('not-valid', { detail: `entry ${i + 1}: ${trouble}` });
			});
			return settledPocket(pocket, freshPlacementId);
		}
	}
}

/** Makes a page with an open door (a page is written to be seen; until published nobody sees it). Gives its id. */
export async function addPage(given: PageGiven, actor: string | null): Promise<string> {
	const trouble = pathTrouble(given.path);
	if (trouble) throw new IanuaError('not-valid', { detail: trouble });
	if (given.like !== undefined && (given.layout ?? given.content) !== undefined)
		throw new IanuaError('not-valid', { detail: 'a page like another takes its layout and content from there' });
	if (given.pattern !== undefined && (given.layout ?? given.content ?? given.like) !== undefined)
		throw new IanuaError('not-valid', { detail: 'a pattern is an article with content of its own' });
	const begins = given.pattern === undefined ? undefined : patternContent(given.pattern, given.language ?? (await site()).language ?? 'en');
	return db().transaction(async (tx) => {
		const id = newId();
		const doorId = await insertDoor(tx, actor, 'open');
		const like = given.like === undefined ? null : await patternOf(tx, given.like);
		const layout = like?.layout ?? given.layout ?? 'article';
		const own = begins ?? given.content;
		const written = like?.content ?? (own === undefined ? emptyContent[layout] : contentFrom(layout, own));
		const content = await linksPlaced(tx, id, layout, written);
		const navigation = (given.inNavigation ?? (!like && layout !== 'pocket')) ? await nextInNavigation(tx) : null;
		const [made] = await tx
			.insert(page)
			.values({
				id,
				path: given.path,
				title: given.title.trim(),
				draftTitle: given.title.trim(),
				layout,
				doorId,
				draft: content,
				navigation,
				label: given.label,
				language: given.language === undefined ? like?.language : given.language,
				draftBy: actor,
				createdBy: actor
			})
			.onConflictDoNothing()
			.returning({ id: page.id });
		if (!made) throw new IanuaError('address-taken', { slug: given.path });
		await indexPlacements(tx, id, layout, content, false);
		const door = { ...like?.door, ...given.door };
		if (Object.keys(door).length) await changeDoor(tx, doorId, door, { actor, kind: 'page', thing: id });
		await writeAudit(tx, { actor, action: 'written', kind: 'page', thing: id, after: { path: given.path, title: given.title, layout } });
		return id;
	});
}

/** What a page gives to one like it. Its placements get ids of their own: each page's are counted by themselves. */
async function patternOf(tx: Queryable, path: string) {
	const [row] = await tx
		.select()
		.from(page)
		.where(and(eq(page.path, path), isNull(page.setAsideAt)));
	if (!row) throw new IanuaError('page-unknown', { path });
	const layout = row.layout;
	const draft = row.draft;
	const content =
		layout === 'article'
			? settled(draft as Article, freshPlacementId, true)
			: layout === 'pocket'
				? settledPocket(draft as Pocket, freshPlacementId, true)
				: draft;
	return { layout, content, language: row.language, door: await doorLike(tx, row.doorId) };
}

/** The place after the last in the navigation. */
export async function nextInNavigation(tx: Queryable): Promise<number> {
	const [last] = await tx.select({ n: raw<number>`coalesce(max(${page.navigation}), 0)` }).from(page);
	return (last?.n ?? 0) + 1;
}

/** A page's row, held until the transaction ends: one in use, or with `aside` one that was set aside. */
async function lockedPage(tx: Queryable, id: string, aside = false) {
	const [row] = await tx
		.select()
		.from(page)
		.where(and(eq(page.id, id), aside ? isNotNull(page.setAsideAt) : isNull(page.setAsideAt)))
		.for('update');
	if (!row) throw new IanuaError('not-found');
	return row;
}

/**
 * Changes what is named of a page: its draft, which gets a new number, and its door, at once. Gives the change that puts the door back as it was.
 * Throws `changed-meanwhile` where somebody else saved since the draft that was started from.
 */
export async function changePage(id: string, { door, draftNumber, ...draft }: PageChange, actor: string): Promise<{ door?: DoorChange }> {
	return db().transaction(async (tx) => {
		const row = await lockedPage(tx, id);
		if (draftNumber !== undefined && row.draftNumber !== draftNumber)
			throw new IanuaError('changed-meanwhile', { by: await nameOf(tx, row.draftBy), at: row.draftAt.toISOString() });
		if (Object.keys(draft).length) await saveDraft(tx, row, draft, actor);
		return door ? { door: await changeDoor(tx, row.doorId, door, { actor, kind: 'page', thing: id }) } : {};
	});
}

async function nameOf(tx: Queryable, id: string | null): Promise<string> {
	const [row] = id ? await tx.select({ name: person.name }).from(person).where(eq(person.id, id)) : [];
	return row?.name ?? 'Somebody else';
}

async function saveDraft(tx: Queryable, row: typeof page.$inferSelect, given: Omit<PageChange, 'door' | 'draftNumber'>, actor: string): Promise<void> {
	const { id } = row;
	const path = given.path ?? row.path;
	const written = given.content === undefined ? row.draft : await linksPlaced(tx, id, row.layout, contentFrom(row.layout, given.content));
	const content = withLeads(row.layout, written, row.path, path);
	const draftNumber = row.draftNumber + 1;
	if (path !== row.path) {
		const trouble = pathTrouble(path);
		if (trouble) throw new IanuaError('not-valid', { detail: trouble });
		const [taken] = await tx.select({ id: page.id }).from(page).where(eq(page.path, path));
		if (taken) throw new IanuaError('address-taken', { slug: path });
	}
	const navigation = given.inNavigation === undefined ? row.navigation : given.inNavigation ? (row.navigation ?? (await nextInNavigation(tx))) : null;
	const draftTitle = given.title?.trim() ?? row.draftTitle;
	const language = given.language === undefined ? row.language : given.language;
	const label = given.label === undefined ? row.label : given.label;
	await tx
		.update(page)
		.set({ path, draft: content, draftTitle, draftNumber, draftAt: new Date(), draftBy: actor, navigation, label, language })
		.where(eq(page.id, id));
	if (content !== row.draft) await indexPlacements(tx, id, row.layout, content, false);
	if (path !== row.path) await leadAlong(tx, id, row.path, path, actor);
	await writeAudit(tx, {
		actor,
		action: 'written',
		kind: 'page',
		thing: id,
		after: { title: draftTitle, draft: draftNumber, ...(path === row.path ? {} : { path }) }
	});
}

/** Teasers on other pages lead on to a page whose path changes. */
async function leadAlong(tx: Queryable, id: string, from: string, to: string, actor: string): Promise<void> {
	const teasers = await tx
		.selectDistinct({ page: placement.pageId })
		.from(placement)
		.where(and(eq(placement.leadsTo, id), ne(placement.pageId, id)));
	for (const teaser of teasers) await changeContent(tx, teaser.page, (layout, content) => withLeads(layout, content, from, to), actor);
}

/** Publishes the draft as a new revision. */
export async function publish(id: string, actor: string | null): Promise<void> {
	await db().transaction(async (tx) => {
		const row = await lockedPage(tx, id);
		await putOut(tx, row, row.draftTitle, row.draft, actor);
	});
}

/** Puts content out as a page's next revision. */
async function putOut(tx: Queryable, row: typeof page.$inferSelect, title: string, content: PageContent, actor: string | null): Promise<void> {
	const [last] = await tx
		.select({ n: raw<number>`coalesce(max(${revision.number}), 0)` })
		.from(revision)
		.where(eq(revision.pageId, row.id));
	const revisionId = newId();
	const number = (last?.n ?? 0) + 1;
	await tx.insert(revision).values({ id: revisionId, pageId: row.id, number, title, content, publishedAt: new Date(), publishedBy: actor });
	await tx.update(page).set({ publishedId: revisionId, title, publishAt: null, publishBy: null }).where(eq(page.id, row.id));
	await indexPlacements(tx, row.id, row.layout, content, true);
	await writeAudit(tx, { actor, action: 'published', kind: 'page', thing: row.id, after: { revision: number } });
}

/** Has the draft published at an instant, as it then is; null calls that off. */
export async function publishLater(id: string, at: Date | null, actor: string): Promise<void> {
	if (at && at.getTime() <= Date.now()) throw new IanuaError('not-valid', { detail: 'the time to publish at has passed' });
	await db().transaction(async (tx) => {
		const row = await lockedPage(tx, id);
		await tx
			.update(page)
			.set({ publishAt: at, publishBy: at ? actor : null })
			.where(eq(page.id, id));
		await writeAudit(tx, { actor, action: 'changed', kind: 'page', thing: id, before: { publishAt: row.publishAt }, after: { publishAt: at } });
	});
}

/** Publishes every draft whose time has come; gives how many. */
export async function publishDue(now: Date): Promise<number> {
	const due = await db()
		.select({ id: page.id })
		.from(page)
		.where(and(isNotNull(page.publishAt), lte(page.publishAt, now), isNull(page.setAsideAt)));
	let done = 0;
	for (const { id } of due)
		await db()
			.transaction(async (tx) => {
				const row = await lockedPage(tx, id);
				// another server was quicker, or it was called off
				if (!row.publishAt || row.publishAt > now) return;
				await putOut(tx, row, row.draftTitle, row.draft, row.publishBy);
				done++;
			})
			// one page that cannot go out keeps no other back; it is tried again with the next look
			.catch((err: unknown) => log().error({ err, page: id }, 'publishing at its time'));
	return done;
}

/** Takes a published page down; the draft and the revisions stay. */
export async function takeDown(id: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		await lockedPage(tx, id);
		await tx.update(page).set({ publishedId: null, publishAt: null, publishBy: null }).where(eq(page.id, id));
		await tx.delete(placement).where(and(eq(placement.pageId, id), eq(placement.published, true)));
		await tx.delete(listing).where(and(eq(listing.pageId, id), eq(listing.published, true)));
		await writeAudit(tx, { actor, action: 'taken-down', kind: 'page', thing: id });
	});
}

/** Sets a page aside: nobody sees it, its path stays its own, and it can be restored as it was. */
export async function setPageAside(id: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		await lockedPage(tx, id);
		await tx.update(page).set({ setAsideAt: new Date(), publishAt: null, publishBy: null }).where(eq(page.id, id));
		await tx.delete(placement).where(eq(placement.pageId, id));
		await tx.delete(listing).where(eq(listing.pageId, id));
		await writeAudit(tx, { actor, action: 'set-aside', kind: 'page', thing: id });
	});
}

/** Brings back a page that was set aside, published as it was. */
export async function restorePage(id: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		const row = await lockedPage(tx, id, true);
		await tx.update(page).set({ setAsideAt: null }).where(eq(page.id, id));
		await indexPlacements(tx, id, row.layout, row.draft, false);
		if (row.publishedId) {
			const out = theRow(await tx.select().from(revision).where(eq(revision.id, row.publishedId)));
			await indexPlacements(tx, id, row.layout, out.content, true);
		}
		await writeAudit(tx, { actor, action: 'restored', kind: 'page', thing: id });
	});
}

/** Makes an earlier revision the draft again; what was the draft is lost only where it was never published. */
export async function goBackTo(id: string, number: number, actor: string): Promise<void> {
	const { title, content } = await revisionOf(id, number);
	await changePage(id, { title, content }, actor);
}

/** Changes a placement in the draft, and where it is out, in what is published. */
export async function changePlacement(
	id: string,
	placementId: string,
	change: (layout: Layout, content: PageContent) => PageContent,
	actor: string
): Promise<void> {
	const has = (layout: Layout, content: PageContent) => indexOf(layout, content).some((p) => p.id === placementId);
	await db().transaction((tx) => changeContent(tx, id, (layout, content) => (has(layout, content) ? change(layout, content) : content), actor));
}

/**
 * Changes the content of a page in use: its draft, and what is published, which gets a new revision. What `change` gives back as it was is
 * left alone.
 */
export async function changeContent(
	tx: Queryable,
	id: string,
	change: (layout: Layout, content: PageContent, place: { readonly path: string; readonly published: boolean }) => PageContent,
	actor: string | null
): Promise<void> {
	const row = await lockedPage(tx, id);
	const draft = change(row.layout, row.draft, { path: row.path, published: false });
	if (draft !== row.draft) {
		await tx
			.update(page)
			.set({ draft, draftNumber: row.draftNumber + 1, draftAt: new Date(), draftBy: actor })
			.where(eq(page.id, id));
		await indexPlacements(tx, id, row.layout, draft, false);
	}
	if (!row.publishedId) return;
	const out = theRow(await tx.select().from(revision).where(eq(revision.id, row.publishedId)));
	const content = change(row.layout, out.content, { path: row.path, published: true });
	if (content !== out.content) await putOut(tx, row, out.title, content, actor);
}

/** Writes down what stands on a page. Documents and pages that are not there are refused, or with `leave` left out of the index: nothing shows there. */
export async function indexPlacements(
	tx: Queryable,
	pageId: string,
	layout: Layout,
	content: PageContent,
	published: boolean,
	unknown: 'refuse' | 'leave' = 'refuse'
): Promise<void> {
	await tx.delete(placement).where(and(eq(placement.pageId, pageId), eq(placement.published, published)));
	await tx.delete(listing).where(and(eq(listing.pageId, pageId), eq(listing.published, published)));
	const lists = listingsOf(layout, content);
	if (lists.length) await tx.insert(listing).values(lists.map(({ documents: _named, ...selection }) => ({ pageId, published, ...selection })));
	const placed = indexOf(layout, content);
	if (!placed.length) return;
	const slugs = raw.join(
		[...new Set(placed.map((p) => p.document))].map((s) => raw`${s}`),
		raw`, `
	);
	const rows = await tx
		.select({ id: document.id, slug: document.slug, former: documentAddress.slug })
		.from(document)
		.leftJoin(documentAddress, eq(documentAddress.documentId, document.id))
		.where(raw`${document.slug} in (${slugs}) or ${documentAddress.slug} in (${slugs})`);
	const ids = new Map(rows.flatMap((r) => [[r.slug, r.id] as const, ...(r.former ? [[r.former, r.id] as const] : [])]));
	for (const p of placed) if (unknown === 'refuse' && !ids.has(p.document)) throw new IanuaError('document-unknown', { slug: p.document });
	const leads = [...new Set(placed.flatMap((p) => p.leads ?? []))];
	const led = leads.length ? await tx.select({ id: page.id, path: page.path }).from(page).where(inArray(page.path, leads)) : [];
	const pages = new Map(led.map((p) => [p.path, p.id]));
	for (const path of leads) if (unknown === 'refuse' && !pages.has(path)) throw new IanuaError('page-unknown', { path });
	const known = placed.filter((p) => ids.has(p.document));
	if (!known.length) return;
	await tx.insert(placement).values(
		known.map((p) => ({
			id: p.id,
			pageId,
			// a document that is not there has been refused above
			documentId: ids.get(p.document)!,
			form: p.form,
			press: p.press,
			published,
			locked: p.locked,
			coverPage: p.page,
			leadsTo: p.leads === null ? null : pages.get(p.leads)
		}))
	);
}

/** Puts the pages of the navigation in an order; those not named stay out of it. */
export async function orderNavigation(paths: readonly string[], actor: string): Promise<string[]> {
	return db().transaction(async (tx) => {
		const rows = await tx.select({ id: page.id, path: page.path, navigation: page.navigation }).from(page).where(isNull(page.setAsideAt));
		for (const path of paths) if (!rows.some((r) => r.path === path)) throw new IanuaError('page-unknown', { path });
		for (const row of rows) {
			const rank = paths.indexOf(row.path);
			await tx
				.update(page)
				.set({ navigation: rank < 0 ? null : rank + 1 })
				.where(eq(page.id, row.id));
		}
		const before = rows
			.filter((r) => r.navigation !== null)
			// those without a place were left out
			.sort((a, b) => a.navigation! - b.navigation!)
			.map((r) => r.path);
		await writeAudit(tx, {
			actor,
			action: 'changed',
			kind: 'site',
			thing: actor,
			before: { navigation: before },
			after: { navigation: paths }
		});
		return before;
	});
}
