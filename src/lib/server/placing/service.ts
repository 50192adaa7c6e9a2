// Pages: writing, publishing, and what somebody sees of one.
import { and, eq, isNull, sql as raw } from 'drizzle-orm';
import type { DoorChange, Position, Thing } from '#core/access/door';
import { decide, type HeldKey, type Reason, type RefusedCode } from '#core/access/decide';
import { dayOf } from '#core/access/hours';
import { refusalWords, sentence, whoWords, type Reach } from '#core/access/reach';
import { coverMark } from '#core/documents/cover';
import { IanuaError } from '#core/errors';
import { Article, bare, emptyArticle, placementsOf, settled, type ContentNode } from '#core/placing/content';
import { pathTrouble } from '#core/placing/path';
import { placementView, type PlacementView } from '#core/placing/placement';
import { changeDoor, insertDoor, reachOf, thingOf, type DoorJson, type DoorViewJson, type ThingRow } from '../access/things';
import { db, sql, type Queryable } from '../db/client';
import { document, documentAddress, page, placement, revision } from '../db/schema';
import { newId } from '../id';
import { instantOf, type Caller } from '../people/who';
import { find } from '../reading/find';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';
import { checked, compile } from '../validate';

const checkArticle = compile(Article);

const freshPlacementId = () => newId().replaceAll('-', '').slice(-16);

/** Content from outside, checked and settled. */
export function articleFrom(value: unknown): Article {
	return settled(checked(checkArticle, value), freshPlacementId);
}

export interface PageLine {
	readonly id: string;
	readonly path: string;
	readonly title: string;
	readonly door: { readonly position: Position; readonly who: string; readonly sentence: string };
	readonly published: boolean;
	readonly publishedAt: string | null;
	/** The draft has been saved after it was published. */
	readonly changed: boolean;
	readonly placements: number;
	readonly draftAt: string;
}

interface PageRow {
	id: string;
	path: string;
	title: string;
	draft_at: Date;
	published_at: Date | null;
	placements: number;
	door: DoorViewJson;
}

/** A page's door as its sentence sees it: there is nothing to save or print at a page itself. */
const pageReach = (door: DoorViewJson, zone: string): Reach => ({ ...reachOf(door, zone, false), allow: { save: false, print: false } });

/** Every page that is not set aside, in the order of the paths. */
export async function listPages(): Promise<PageLine[]> {
	const { zone } = await site();
	const now = Date.now();
	const rows = await sql()<PageRow[]>`
		select p.id, p.path, p.draft_title as title, p.draft_at, r.published_at, door_view(p.door_id, ${dayOf(now, zone)}::date) as door,
			(select count(*)::int from placement x where x.page_id = p.id and not x.published) as placements
		from page p left join revision r on r.id = p.published_id where p.set_aside_at is null order by p.path`;
	return rows.map((row) => {
		const reach = pageReach(row.door, zone);
		return {
			id: row.id,
			path: row.path,
			title: row.title,
			door: { position: reach.position, who: whoWords(reach), sentence: sentence(reach, now, zone) },
			published: row.published_at !== null,
			publishedAt: row.published_at?.toISOString() ?? null,
			changed: row.published_at !== null && row.draft_at > row.published_at,
			placements: row.placements,
			draftAt: row.draft_at.toISOString()
		};
	});
}

export interface PageDraft {
	readonly id: string;
	readonly path: string;
	readonly title: string;
	readonly content: Article;
	readonly draftNumber: number;
	readonly draftAt: string;
	readonly publishedAt: string | null;
	readonly changed: boolean;
	readonly inNavigation: boolean;
	readonly doorId: string;
	readonly door: DoorViewJson & { readonly sentence: string };
}

/** A page with its draft, for the editor. */
export async function pageDraft(id: string): Promise<PageDraft> {
	const { zone } = await site();
	const now = Date.now();
	const [row] = /^[0-9a-f-]{36}$/.test(id)
		? await sql()<(PageRow & { draft: Article; draft_number: number; navigation: number | null; door_id: string })[]>`
			select p.id, p.path, p.draft_title as title, p.draft, p.draft_number, p.draft_at, p.navigation, p.door_id, r.published_at, door_view(p.door_id, ${dayOf(now, zone)}::date) as door
			from page p left join revision r on r.id = p.published_id where p.id = ${id} and p.set_aside_at is null`
		: [];
	if (!row) throw new IanuaError('not-found');
	return {
		id: row.id,
		path: row.path,
		title: row.title,
		content: row.draft,
		draftNumber: row.draft_number,
		draftAt: row.draft_at.toISOString(),
		publishedAt: row.published_at?.toISOString() ?? null,
		changed: row.published_at !== null && row.draft_at > row.published_at,
		inNavigation: row.navigation !== null,
		doorId: row.door_id,
		door: { ...row.door, sentence: sentence(pageReach(row.door, zone), now, zone) }
	};
}

/** Makes an empty page with an open door (a page is written to be seen; until published nobody sees it). */
export async function addPage(given: { title: string; path: string }, actor: string | null): Promise<string> {
	const trouble = pathTrouble(given.path);
	if (trouble) throw new IanuaError('not-valid', { detail: trouble });
	return db().transaction(async (tx) => {
		const id = newId();
		const doorId = await insertDoor(tx, actor, 'open');
		const [last] = await tx.select({ n: raw<number>`coalesce(max(${page.navigation}), 0)` }).from(page);
		const [made] = await tx
			.insert(page)
			.values({
				id,
				path: given.path,
				title: given.title,
				draftTitle: given.title,
				doorId,
				draft: emptyArticle,
				navigation: (last?.n ?? 0) + 1,
				createdBy: actor
			})
			.onConflictDoNothing()
			.returning({ id: page.id });
		if (!made) throw new IanuaError('address-taken', { slug: given.path });
		await writeAudit(tx, { actor, action: 'written', kind: 'page', thing: id, after: given });
		return id;
	});
}

export interface DraftSave {
	readonly title: string;
	readonly content: Article;
	readonly inNavigation: boolean;
	/** The number of the draft that the writer started from; null overwrites whatever is there. */
	readonly draftNumber: number | null;
}

/** Saves the draft and gives its new number; refuses when somebody else saved meanwhile. */
export async function saveDraft(id: string, given: DraftSave, actor: string): Promise<number> {
	return db().transaction(async (tx) => {
		const [row] = await tx
			.select({ number: page.draftNumber, navigation: page.navigation })
			.from(page)
			.where(and(eq(page.id, id), isNull(page.setAsideAt)))
			.for('update');
		if (!row) throw new IanuaError('not-found');
		if (given.draftNumber !== null && row.number !== given.draftNumber) throw new IanuaError('changed-meanwhile');
		const next = row.number + 1;
		const [last] = await tx.select({ n: raw<number>`coalesce(max(${page.navigation}), 0)` }).from(page);
		const navigation = given.inNavigation ? (row.navigation ?? (last?.n ?? 0) + 1) : null;
		await tx.update(page).set({ draft: given.content, draftTitle: given.title, draftNumber: next, draftAt: new Date(), navigation }).where(eq(page.id, id));
		await indexPlacements(tx, id, given.content, false);
		await writeAudit(tx, { actor, action: 'written', kind: 'page', thing: id, after: { title: given.title, draft: next } });
		return next;
	});
}

/** Publishes the draft as a new revision. */
export async function publish(id: string, actor: string | null): Promise<void> {
	await db().transaction(async (tx) => {
		const [row] = await tx
			.select()
			.from(page)
			.where(and(eq(page.id, id), isNull(page.setAsideAt)))
			.for('update');
		if (!row) throw new IanuaError('not-found');
		const [last] = await tx
			.select({ n: raw<number>`coalesce(max(${revision.number}), 0)` })
			.from(revision)
			.where(eq(revision.pageId, id));
		const revisionId = newId();
		const number = (last?.n ?? 0) + 1;
		await tx
			.insert(revision)
			.values({ id: revisionId, pageId: id, number, title: row.draftTitle, content: row.draft, publishedAt: new Date(), publishedBy: actor });
		await tx.update(page).set({ publishedId: revisionId, title: row.draftTitle }).where(eq(page.id, id));
		await indexPlacements(tx, id, row.draft, true);
		await writeAudit(tx, { actor, action: 'published', kind: 'page', thing: id, after: { revision: number } });
	});
}

/** Takes a published page down; the draft and the revisions stay. */
export async function takeDown(id: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		await tx.update(page).set({ publishedId: null }).where(eq(page.id, id));
		await tx.delete(placement).where(and(eq(placement.pageId, id), eq(placement.published, true)));
		await writeAudit(tx, { actor, action: 'taken-down', kind: 'page', thing: id });
	});
}

async function indexPlacements(tx: Queryable, pageId: string, content: Article, published: boolean): Promise<void> {
	await tx.delete(placement).where(and(eq(placement.pageId, pageId), eq(placement.published, published)));
	const placed = placementsOf(content);
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
	await tx.insert(placement).values(placed.map((p) => ({ id: p.id, pageId, documentId: ids.get(p.document)!, form: p.form, press: p.press, published })));
}

/** A placement as somebody sees it: whole where the document lets them in, its words and the way to ask where it does not. */
export type SeenPlacement =
	| {
			readonly state: 'open';
			readonly slug: string;
			readonly view: PlacementView;
			readonly leafRatio: number | null;
			readonly cover: { readonly mark: string; readonly alt: string };
			readonly title: string;
	  }
	| { readonly state: 'kept'; readonly words: string; readonly href: string; readonly needsSignIn: boolean }
	/** Shut, set aside or gone: which of them is not told. */
	| { readonly state: 'away'; readonly words: string | null; readonly notice: string };

export interface SeenPage {
	readonly id: string;
	readonly path: string;
	readonly title: string;
	readonly content: ContentNode;
	readonly position: Position;
	readonly listed: boolean;
	/** By the placement's id. */
	readonly placements: Readonly<Record<string, SeenPlacement>>;
}

interface SiteRow extends ThingRow {
	id: string;
	path: string;
	title: string;
	content: Article;
	turned_away: DoorJson['turnedAway'];
}

export type PageAnswer =
	| { readonly state: 'seen'; readonly page: SeenPage }
	| { readonly state: 'refused'; readonly reason: Reason & { readonly code: RefusedCode }; readonly turnedAway: DoorJson['turnedAway'] }
	| { readonly state: 'none' };

/** The keys that a caller holds for a document. */
type KeysFor = (documentId: string) => Promise<readonly HeldKey[]>;
const noKeys: KeysFor = () => Promise.resolve([]);

/** The published page at a path as a caller gets it; `keys` are those in their browser. */
export async function pageAt(path: string, caller: Caller, keys: KeysFor = noKeys): Promise<PageAnswer> {
	const [[row], { zone }] = await Promise.all([
		sql()<SiteRow[]>`
			select p.id, p.path, r.title, r.content, p.set_aside_at, door_json(p.door_id) as door
			from page p join revision r on r.id = p.published_id where p.path = ${path}`,
		site()
	]);
	if (!row) return { state: 'none' };
	const thing = thingOf(row, zone);
	const decision = decide(caller.who, thing, 'read', instantOf(caller));
	if (!decision.allowed) {
		const [reason] = decision.reasons;
		return { state: 'refused', reason: { ...reason, code: reason.code as RefusedCode }, turnedAway: row.door.turnedAway };
	}
	return { state: 'seen', page: await seen(row, thing, row.content, caller, keys) };
}

/** The draft of a page as a caller would get it once published: for the preview. */
export async function previewOf(draft: PageDraft, caller: Caller): Promise<SeenPage> {
	const { zone } = await site();
	const [row] = await sql()<ThingRow[]>`select p.set_aside_at, door_json(p.door_id) as door from page p where p.id = ${draft.id}`;
	return seen(draft, thingOf(row!, zone), draft.content, caller);
}

async function seen(page: { id: string; path: string; title: string }, thing: Thing, content: Article, caller: Caller, keys = noKeys): Promise<SeenPage> {
	const placed = placementsOf(content);
	const documents = new Map(await Promise.all([...new Set(placed.map((p) => p.document))].map(async (slug) => [slug, await find(slug)] as const)));
	const placements: Record<string, SeenPlacement> = {};
	const notice = refusalWords('shut', (await site()).zone).words;
	for (const attrs of placed) {
		const found = documents.get(attrs.document);
		const words = attrs.words?.trim() || null;
		// staff too see that what was set aside is not there for readers
		if (!found || found.thing.setAside) {
			placements[attrs.id] = { state: 'away', words, notice };
			continue;
		}
		const who = caller.who.kind === 'staff' ? caller.who : { ...caller.who, keys: await keys(found.id) };
		const decision = decide(who, found.thing, attrs.press === 'save' ? 'save' : 'read', instantOf(caller));
		const [reason] = decision.reasons;
		if (decision.allowed) {
			const { edition } = found;
			const size = edition.sizes[0];
			placements[attrs.id] = {
				state: 'open',
				slug: found.slug,
				title: found.title,
				view: placementView(attrs, { slug: found.slug, title: found.title, pages: edition.pages, bytes: edition.bytes }),
				// a cover that is no page has a shape of its own
				leafRatio: found.cover === null && size ? size.height / size.width : null,
				cover: { mark: `${edition.number}-${coverMark(found.cover)}`, alt: found.coverAlt }
			};
		} else if (reason.code === 'shut' || reason.code === 'set-aside') placements[attrs.id] = { state: 'away', words, notice };
		else
			placements[attrs.id] = {
				state: 'kept',
				// the title is not told to somebody who is turned away; the page's own words are the page's
				words: words ?? 'A document kept for members',
				href: `/d/${found.slug}?from=${attrs.id}`,
				needsSignIn: reason.code === 'sign-in'
			};
	}
	return { id: page.id, path: page.path, title: page.title, content: bare(content), position: thing.door.position, listed: thing.door.listed, placements };
}

export interface NavigationItem {
	readonly path: string;
	readonly title: string;
}

/** The site's navigation: published pages that this caller may open, in their order. */
export async function navigationFor(caller: Caller): Promise<NavigationItem[]> {
	const [rows, { zone }] = await Promise.all([
		sql()<(ThingRow & NavigationItem)[]>`
			select p.path, r.title, p.set_aside_at, door_json(p.door_id) as door from page p join revision r on r.id = p.published_id
			where p.navigation is not null and p.set_aside_at is null order by p.navigation`,
		site()
	]);
	const now = instantOf(caller);
	return rows.filter((row) => row.path !== '/' && decide(caller.who, thingOf(row, zone), 'see', now).allowed).map(({ path, title }) => ({ path, title }));
}

/** The page on which a placement stands, for the way back from the reading room; null where this caller may not open it. */
export async function placeOf(placementId: string, caller: Caller): Promise<NavigationItem | null> {
	if (!/^[A-Za-z0-9_-]{6,40}$/.test(placementId)) return null;
	const [[row], { zone }] = await Promise.all([
		sql()<(ThingRow & NavigationItem)[]>`
			select p.path, r.title, p.set_aside_at, door_json(p.door_id) as door
			from placement x join page p on p.id = x.page_id join revision r on r.id = p.published_id where x.id = ${placementId} and x.published limit 1`,
		site()
	]);
	return row && decide(caller.who, thingOf(row, zone), 'read', instantOf(caller)).allowed ? { path: row.path, title: row.title } : null;
}

/** Changes a page's door. */
export async function changePageDoor(id: string, change: DoorChange, actor: string): Promise<void> {
	const { doorId } = await pageDraft(id);
	await db().transaction((tx) => changeDoor(tx, doorId, change, { actor, kind: 'page', thing: id }));
}

/** A page as the decision sees it. */
export async function doorThing(id: string): Promise<Thing> {
	const [[row], { zone }] = await Promise.all([sql()<ThingRow[]>`select p.set_aside_at, door_json(p.door_id) as door from page p where p.id = ${id}`, site()]);
	if (!row) throw new IanuaError('not-found');
	return thingOf(row, zone);
}
