// Pages: written, published, looked up. What somebody sees of one is page-view.ts's.
import { and, eq, isNotNull, isNull, lte, sql as raw } from 'drizzle-orm';
import { Type, type Static } from '@sinclair/typebox';
import { Line } from '#core/text/line';
import { DoorChange, type Position, type Guarded } from '#core/access/door';
import { decide } from '#core/access/decide';
import { dayOf } from '#core/access/hours';
import { sentence, whoWords, type Reach } from '#core/access/reach';
import { IanuaError } from '#core/errors';
import {
	Article,
	Catalogue,
	emptyContent,
	entryTrouble,
	indexOf,
	layouts,
	Pocket,
	settled,
	settledPocket,
	type Layout,
	type PageContent
} from '#core/placing/content';
import { pagePathPattern, pathTrouble } from '#core/placing/path';
import { languages, type Language } from '#core/words/words';
import { changeDoor, insertDoor, reachOf, guardedOf, type DoorRow, type GuardedRow } from '../access/doors';
import { db, sql, type Queryable } from '../db/client';
import { document, documentAddress, page, placement, revision } from '../db/schema';
import { newId } from '../id';
import { log } from '../log';
import { instantOf, type Caller } from '../people/who';
import { writeAudit } from '../site/audit';
import { forgetPageLanguages } from '../site/language';
import { site } from '../site/site';
import { checked, compile } from '../validate';

const checks = { article: compile(Article), catalogue: compile(Catalogue), pocket: compile(Pocket) };
const freshPlacementId = () => newId().replaceAll('-', '').slice(-16);

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

export interface PageLine {
	readonly id: string;
	readonly path: string;
	readonly title: string;
	readonly layout: Layout;
	readonly door: { readonly position: Position; readonly who: string; readonly sentence: string };
	readonly published: boolean;
	readonly publishedAt: string | null;
	/** When the draft is to be published. */
	readonly publishAt: string | null;
	/** The draft has been saved after it was published. */
	readonly changed: boolean;
	readonly placements: number;
	readonly draftAt: string;
	readonly inNavigation: boolean;
	/** In which readers are spoken to on it; null goes by the site's. */
	readonly language: Language | null;
	readonly setAsideAt: string | null;
}

interface PageRow {
	id: string;
	path: string;
	title: string;
	layout: Layout;
	draft_at: Date;
	published_at: Date | null;
	publish_at: Date | null;
	placements: number;
	navigation: number | null;
	language: Language | null;
	set_aside_at: Date | null;
	door: DoorRow;
}

/** A page's door as its sentence sees it: there is nothing to save or print at a page itself. */
const pageReach = (door: DoorRow, zone: string): Reach => ({ ...reachOf(door, zone, false), allow: { save: false, print: false } });

const pageSelect = (today: string) => sql()`
	select p.id, p.path, p.draft_title as title, p.layout, p.draft, p.draft_number, p.draft_at, p.navigation, p.language, p.door_id, p.publish_at, p.set_aside_at, r.published_at,
		door_view(p.door_id, ${today}::date) as door,
		(select count(*)::int from placement x where x.page_id = p.id and not x.published) as placements
	from page p left join revision r on r.id = p.published_id`;

/** Every page in the order of the paths; with `aside` those set aside instead. */
export async function listPages(aside = false): Promise<PageLine[]> {
	const { zone } = await site();
	const now = Date.now();
	const s = sql();
	const rows = await s<PageRow[]>`${pageSelect(dayOf(now, zone))} where p.set_aside_at is ${aside ? s`not null` : s`null`} order by p.path`;
	return rows.map((row) => toListItem(row, zone, now));
}

function toListItem(row: PageRow, zone: string, now: number): PageLine {
	const reach = pageReach(row.door, zone);
	return {
		id: row.id,
		path: row.path,
		title: row.title,
		layout: row.layout,
		door: { position: reach.position, who: whoWords(reach), sentence: sentence(reach, now, zone) },
		published: row.published_at !== null,
		publishedAt: row.published_at?.toISOString() ?? null,
		publishAt: row.publish_at?.toISOString() ?? null,
		changed: row.published_at !== null && row.draft_at > row.published_at,
		placements: row.placements,
		draftAt: row.draft_at.toISOString(),
		inNavigation: row.navigation !== null,
		language: row.language,
		setAsideAt: row.set_aside_at?.toISOString() ?? null
	};
}

export interface PageDraft extends Omit<PageLine, 'door'> {
	readonly content: PageContent;
	readonly draftNumber: number;
	readonly doorId: string;
	readonly door: DoorRow & { readonly sentence: string };
}

const isId = (text: string) => /^[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/.test(text);

/** A page with its draft, by its id or its path; not one that was set aside, unless `aside` says so. */
export async function pageDraft(which: string, aside = false): Promise<PageDraft> {
	const { zone } = await site();
	const now = Date.now();
	const s = sql();
	const [row] = await s<(PageRow & { draft: PageContent; draft_number: number; door_id: string })[]>`
		${pageSelect(dayOf(now, zone))} where ${isId(which) ? s`p.id = ${which}` : s`p.path = ${which}`} ${aside ? s`` : s`and p.set_aside_at is null`}`;
	if (!row) throw new IanuaError('not-found');
	return {
		...toListItem(row, zone, now),
		content: row.draft,
		draftNumber: row.draft_number,
		doorId: row.door_id,
		door: { ...row.door, sentence: sentence(pageReach(row.door, zone), now, zone) }
	};
}

/** A page as the API takes it. */
const pageFields = {
	path: Type.String({ maxLength: 200, pattern: pagePathPattern }),
	title: Line(200),
	content: Type.Any(),
	inNavigation: Type.Boolean(),
	language: Type.Union([Type.Null(), ...languages.map((l) => Type.Literal(l))]),
	door: DoorChange
};
export const PageGiven = Type.Object(
	{
		path: pageFields.path,
		title: pageFields.title,
		layout: Type.Optional(Type.Union(layouts.map((l) => Type.Literal(l)))),
		content: Type.Optional(pageFields.content),
		inNavigation: Type.Optional(pageFields.inNavigation),
		language: Type.Optional(pageFields.language),
		door: Type.Optional(pageFields.door)
	},
	{ additionalProperties: false }
);
export type PageGiven = Static<typeof PageGiven>;
export const PageChange = Type.Partial(Type.Object(pageFields), { additionalProperties: false });
export type PageChange = Static<typeof PageChange>;

/** Makes a page with an open door (a page is written to be seen; until published nobody sees it). Gives its id. */
export async function addPage(given: PageGiven, actor: string | null): Promise<string> {
	const trouble = pathTrouble(given.path);
	if (trouble) throw new IanuaError('not-valid', { detail: trouble });
	const layout = given.layout ?? 'article';
	const content = given.content === undefined ? emptyContent[layout] : contentFrom(layout, given.content);
	return db().transaction(async (tx) => {
		const id = newId();
		const doorId = await insertDoor(tx, actor, 'open');
		const navigation = (given.inNavigation ?? layout !== 'pocket') ? await nextInNavigation(tx) : null;
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
				language: given.language,
				createdBy: actor
			})
			.onConflictDoNothing()
			.returning({ id: page.id });
		if (!made) throw new IanuaError('address-taken', { slug: given.path });
		await indexPlacements(tx, id, layout, content, false);
		if (given.door) await changeDoor(tx, doorId, given.door, { actor, kind: 'page', thing: id });
		await writeAudit(tx, { actor, action: 'written', kind: 'page', thing: id, after: { path: given.path, title: given.title, layout } });
		return id;
	});
}

async function nextInNavigation(tx: Queryable): Promise<number> {
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

export interface DraftSave extends PageChange {
	/** The number of the draft that the writer started from; null overwrites whatever is there. */
	readonly draftNumber: number | null;
}

/** Saves what is named of a page's draft and gives its new number; refuses when somebody else saved meanwhile. */
export async function saveDraft(id: string, given: DraftSave, actor: string): Promise<number> {
	const number = await db().transaction(async (tx) => {
		const row = await lockedPage(tx, id);
		if (given.draftNumber !== null && row.draftNumber !== given.draftNumber) throw new IanuaError('changed-meanwhile');
		const content = given.content === undefined ? row.draft : contentFrom(row.layout, given.content);
		const next = row.draftNumber + 1;
		const path = given.path ?? row.path;
		if (path !== row.path) {
			const trouble = pathTrouble(path);
			if (trouble) throw new IanuaError('not-valid', { detail: trouble });
			const [taken] = await tx.select({ id: page.id }).from(page).where(eq(page.path, path));
			if (taken) throw new IanuaError('address-taken', { slug: path });
		}
		const navigation = given.inNavigation === undefined ? row.navigation : given.inNavigation ? (row.navigation ?? (await nextInNavigation(tx))) : null;
		const draftTitle = given.title?.trim() ?? row.draftTitle;
		const language = given.language === undefined ? row.language : given.language;
		await tx.update(page).set({ path, draft: content, draftTitle, draftNumber: next, draftAt: new Date(), navigation, language }).where(eq(page.id, id));
		if (given.content !== undefined) await indexPlacements(tx, id, row.layout, content, false);
		if (given.door) await changeDoor(tx, row.doorId, given.door, { actor, kind: 'page', thing: id });
		await writeAudit(tx, {
			actor,
			action: 'written',
			kind: 'page',
			thing: id,
			after: { title: draftTitle, draft: next, ...(path === row.path ? {} : { path }) }
		});
		return next;
	});
	forgetPageLanguages();
	return number;
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
		await writeAudit(tx, { actor, action: 'taken-down', kind: 'page', thing: id });
	});
}

/** Sets a page aside: nobody sees it, its path stays its own, and it can be restored as it was. */
export async function setPageAside(id: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		await lockedPage(tx, id);
		await tx.update(page).set({ setAsideAt: new Date(), publishAt: null, publishBy: null }).where(eq(page.id, id));
		await tx.delete(placement).where(eq(placement.pageId, id));
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
			const [out] = await tx.select().from(revision).where(eq(revision.id, row.publishedId));
			await indexPlacements(tx, id, row.layout, out!.content, true);
		}
		await writeAudit(tx, { actor, action: 'restored', kind: 'page', thing: id });
	});
}

export interface RevisionLine {
	readonly number: number;
	readonly title: string;
	readonly publishedAt: string;
	readonly publishedBy: string | null;
	readonly inForce: boolean;
}

/** The published revisions of a page, the newest first. */
export async function revisionsOf(id: string): Promise<RevisionLine[]> {
	const rows = await sql()<{ number: number; title: string; published_at: Date; by: string | null; in_force: boolean }[]>`
		select r.number, r.title, r.published_at, (select name from person where id = r.published_by) as by, r.id is not distinct from p.published_id as in_force
		from revision r join page p on p.id = r.page_id where r.page_id = ${id} order by r.number desc`;
	return rows.map((r) => ({ number: r.number, title: r.title, publishedAt: r.published_at.toISOString(), publishedBy: r.by, inForce: r.in_force }));
}

/** A revision's content. */
export async function revisionOf(id: string, number: number): Promise<{ title: string; content: PageContent }> {
	const [row] = await db()
		.select({ title: revision.title, content: revision.content })
		.from(revision)
		.where(and(eq(revision.pageId, id), eq(revision.number, number)));
	if (!row) throw new IanuaError('not-found');
	return row;
}

/** Makes an earlier revision the draft again; what was the draft is lost only where it was never published. Gives the draft's number. */
export async function goBackTo(id: string, number: number, actor: string): Promise<number> {
	const { title, content } = await revisionOf(id, number);
	return saveDraft(id, { title, content, draftNumber: null }, actor);
}

/** Changes a placement in the draft, and where it is out, in what is published. */
export async function changePlacement(
	id: string,
	placementId: string,
	change: (layout: Layout, content: PageContent) => PageContent,
	actor: string
): Promise<void> {
	await db().transaction(async (tx) => {
		const row = await lockedPage(tx, id);
		const has = (content: PageContent) => indexOf(row.layout, content).some((p) => p.id === placementId);
		if (has(row.draft)) {
			const draft = change(row.layout, row.draft);
			await tx
				.update(page)
				.set({ draft, draftNumber: row.draftNumber + 1, draftAt: new Date() })
				.where(eq(page.id, id));
			await indexPlacements(tx, id, row.layout, draft, false);
		}
		if (!row.publishedId) return;
		const [out] = await tx.select().from(revision).where(eq(revision.id, row.publishedId));
		if (has(out!.content)) await putOut(tx, row, out!.title, change(row.layout, out!.content), actor);
	});
}

async function indexPlacements(tx: Queryable, pageId: string, layout: Layout, content: PageContent, published: boolean): Promise<void> {
	await tx.delete(placement).where(and(eq(placement.pageId, pageId), eq(placement.published, published)));
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
	for (const p of placed) if (!ids.has(p.document)) throw new IanuaError('document-unknown', { slug: p.document });
	await tx.insert(placement).values(
		placed.map((p) => ({
			id: p.id,
			pageId,
			documentId: ids.get(p.document)!,
			form: p.form,
			press: p.press,
			published,
			locked: p.locked,
			coverPage: p.page
		}))
	);
}

export interface NavigationItem {
	readonly path: string;
	readonly title: string;
}

/** The site's navigation: published pages that this caller may open, in their order. */
export async function navigationFor(caller: Caller): Promise<NavigationItem[]> {
	const [rows, { zone }] = await Promise.all([
		sql()<(GuardedRow & NavigationItem)[]>`
			select p.path, r.title, p.set_aside_at, door_json(p.door_id) as door from page p join revision r on r.id = p.published_id
			where p.navigation is not null and p.set_aside_at is null order by p.navigation`,
		site()
	]);
	const now = instantOf(caller);
	return rows.filter((row) => row.path !== '/' && decide(caller.who, guardedOf(row, zone), 'see', now).allowed).map(({ path, title }) => ({ path, title }));
}

/** The paths of the navigation in their order, drafts among them. */
export async function navigationPaths(): Promise<string[]> {
	const rows = await sql()<{ path: string }[]>`select path from page where navigation is not null and set_aside_at is null order by navigation, path`;
	return rows.map((r) => r.path);
}

/** Puts the pages of the navigation in an order; those not named stay out of it. */
export async function orderNavigation(paths: readonly string[], actor: string): Promise<string[]> {
	return db().transaction(async (tx) => {
		const rows = await tx.select({ id: page.id, path: page.path, navigation: page.navigation }).from(page).where(isNull(page.setAsideAt));
		for (const path of paths) if (!rows.some((r) => r.path === path)) throw new IanuaError('page-unknown', { path });
		for (const row of rows) {
			const at = paths.indexOf(row.path);
			await tx
				.update(page)
				.set({ navigation: at < 0 ? null : at + 1 })
				.where(eq(page.id, row.id));
		}
		const before = rows
			.filter((r) => r.navigation !== null)
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

/** The page on which a placement stands, for the way back from the reading room; null where this caller may not open it. */
export async function placeOf(placementId: string, caller: Caller): Promise<NavigationItem | null> {
	if (!/^[A-Za-z0-9_-]{6,40}$/.test(placementId)) return null;
	const [[row], { zone }] = await Promise.all([
		sql()<(GuardedRow & NavigationItem)[]>`
			select p.path, r.title, p.set_aside_at, door_json(p.door_id) as door
			from placement x join page p on p.id = x.page_id join revision r on r.id = p.published_id where x.id = ${placementId} and x.published limit 1`,
		site()
	]);
	return row && decide(caller.who, guardedOf(row, zone), 'read', instantOf(caller)).allowed ? { path: row.path, title: row.title } : null;
}

/** Changes a page's door. */
export async function changePageDoor(id: string, change: DoorChange, actor: string): Promise<DoorChange> {
	const { doorId } = await pageDraft(id);
	return db().transaction((tx) => changeDoor(tx, doorId, change, { actor, kind: 'page', thing: id }));
}

/** A page as the decision sees it. */
export async function guardedPage(id: string): Promise<Guarded> {
	const [[row], { zone }] = await Promise.all([
		sql()<GuardedRow[]>`select p.set_aside_at, door_json(p.door_id) as door from page p where p.id = ${id}`,
		site()
	]);
	if (!row) throw new IanuaError('not-found');
	return guardedOf(row, zone);
}
