// What others read of pages: the list, a page with its draft, its revisions, the navigation. What somebody sees of one is page-view.ts's.
import { and, eq } from 'drizzle-orm';
import { type Position, type Guarded } from '#core/access/door';
import { decide } from '#core/access/decide';
import { dayOf } from '#core/access/hours';
import { sentence, whoWords, type Reach } from '#core/access/reach';
import { IanuaError } from '#core/errors';
import { type Layout, type PageContent } from '#core/placing/content';
import type { Language } from '#core/words/words';
import { guardedOf, reachOf, type DoorRow, type GuardedRow } from '../access/doors';
import { db, sql } from '../db/client';
import { revision } from '../db/schema';
import { instantOf, type Caller } from '../people/who';
import { site } from '../site/site';

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
	/** Name of who saved the draft last. */
	readonly draftBy: string | null;
	readonly inNavigation: boolean;
	/** Its few words in the navigation; null gives its title. */
	readonly label: string | null;
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
	draft_by: string | null;
	published_at: Date | null;
	publish_at: Date | null;
	placements: number;
	navigation: number | null;
	label: string | null;
	language: Language | null;
	set_aside_at: Date | null;
	door: DoorRow;
}

/** A page's door as its sentence sees it: there is nothing to save or print at a page itself. */
const pageReach = (door: DoorRow, zone: string): Reach => ({ ...reachOf(door, zone, false), allow: { save: false, print: false } });

const pageSelect = (today: string) => sql()`
	select p.id, p.path, p.draft_title as title, p.layout, p.draft, p.draft_number, p.draft_at,
		(select name from person where id = p.draft_by) as draft_by, p.navigation, p.label, p.language, p.door_id, p.publish_at, p.set_aside_at, r.published_at,
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
		draftBy: row.draft_by,
		inNavigation: row.navigation !== null,
		label: row.label,
		language: row.language,
		setAsideAt: row.set_aside_at?.toISOString() ?? null
	};
}

export interface PageDraft extends Omit<PageLine, 'door'> {
	readonly content: PageContent;
	readonly draftNumber: number;
	readonly doorId: string;
	readonly door: DoorRow & { readonly sentence: string; readonly who: string };
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
		door: { ...row.door, sentence: sentence(pageReach(row.door, zone), now, zone), who: whoWords(pageReach(row.door, zone)) }
	};
}

/** The article that stands at the root of the site, by its id: the page published there, else the one that the site names; null where neither is one. */
export async function frontArticle(): Promise<string | null> {
	const { front } = await site();
	const [row] = await sql()<{ id: string; layout: Layout }[]>`
		select id, layout from page where published_id is not null and set_aside_at is null and path in ('/', ${front ?? '/'}) order by path = '/' desc limit 1`;
	return row?.layout === 'article' ? row.id : null;
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

export interface NavigationItem {
	readonly path: string;
	readonly title: string;
	/** What it is called in the navigation, where that is not its title. */
	readonly label: string | null;
	readonly layout: Layout;
	/** In which it is written, where that is not the site's. */
	readonly language: Language | null;
}

/** The site's navigation: published pages that this caller may open, in their order. */
export async function navigationFor(caller: Caller): Promise<NavigationItem[]> {
	const [rows, { zone, language }] = await Promise.all([
		sql()<(GuardedRow & NavigationItem)[]>`
			select p.path, r.title, p.label, p.layout, p.language, p.set_aside_at, door_json(p.door_id) as door from page p join revision r on r.id = p.published_id
			where p.navigation is not null and p.set_aside_at is null order by p.navigation`,
		site()
	]);
	const now = instantOf(caller);
	return rows
		.filter((row) => row.path !== '/' && decide(caller.who, guardedOf(row, zone), 'see', now).allowed)
		.map(({ path, title, label, layout, language: own }) => ({ path, title, label, layout, language: own ?? language ?? null }));
}

/** The paths of the navigation in their order, drafts among them. */
export async function navigationPaths(): Promise<string[]> {
	const rows = await sql()<{ path: string }[]>`select path from page where navigation is not null and set_aside_at is null order by navigation, path`;
	return rows.map((r) => r.path);
}

/** The page on which a placement stands, for the way back from the reading room; null where this caller may not open it. */
export async function placeOf(placementId: string, caller: Caller): Promise<Pick<NavigationItem, 'path' | 'title'> | null> {
	if (!/^[A-Za-z0-9_-]{6,40}$/.test(placementId)) return null;
	const [[row], { zone }] = await Promise.all([
		sql()<(GuardedRow & Pick<NavigationItem, 'path' | 'title'>)[]>`
			select p.path, r.title, p.set_aside_at, door_json(p.door_id) as door
			from placement x join page p on p.id = x.page_id join revision r on r.id = p.published_id where x.id = ${placementId} and x.published limit 1`,
		site()
	]);
	return row && decide(caller.who, guardedOf(row, zone), 'read', instantOf(caller)).allowed ? { path: row.path, title: row.title } : null;
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
