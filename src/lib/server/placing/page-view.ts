// What somebody sees of a page: its content, and of each placement what the document's own door allows.
import type { DoorFields, Guarded } from '#core/access/door';
import { isAnnounced, isAway, standingOf, type Standing } from '#core/access/standing';
import { decide, type Reason, type RefusedCode } from '#core/access/decide';
import type { HeldKey } from '#core/access/key';
import { canBeShown } from '#core/documents/edition';
import { dayWords } from '#core/access/reach';
import type { Announcement } from '../access/turned-away';
import { coverMark } from '#core/documents/cover';
import { bare, listsOf, placementsOf, type Article, type Catalogue, type ContentNode, type Layout, type PageContent } from '#core/placing/content';
import { nextShow, onShow, type Pocket } from '#core/placing/pocket';
import type { Facts } from '#core/intake/condition';
import { shapeRatio } from '#core/placing/frame';
import { factsWords, frameHref, ledTo, placementView, type KeptPlacement, type PlacementDefaults, type PlacementView } from '#core/placing/placement';
import { sizeOfPage } from '#core/reading/fit';
import { messages } from '#core/words/messages';
import type { Language } from '#core/words/words';
import { announcedFor } from '../access/announced';
import { guardedOf, type GuardedRow } from '../access/doors';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { iconDrawing } from '../intake/icons';
import { instantOf, type Caller } from '../people/who';
import { resolveAll, type Resolved } from '../reading/resolve';
import { settings } from '../settings';
import { site } from '../site/site';
import { pagesLedTo, type PageLedTo } from './led-to';
import { qrSvg } from './qr';
import { listFor, pagesSaid, type ListQuery } from './catalogue';
import type { SeenList } from './contract';
import type { PageDraft } from './views';

/** A cover as it is drawn. */
export interface SeenCover {
	/** Path without width: `/d/map/cover/` and the query after `.webp`. */
	readonly slug: string;
	readonly query: string;
	readonly alt: string;
	/** Of height to width; null where the cover is no page. */
	readonly ratio: number | null;
}

/** A placement as somebody sees it: whole where the document lets them in, its words and the way to ask where it does not. */
export type SeenPlacement =
	| {
			readonly state: 'open';
			readonly id: string;
			readonly slug: string;
			readonly view: PlacementView;
			/** Null where a teaser leads those to a page whom the document it shows turns away. */
			readonly cover: SeenCover | null;
			readonly title: string;
			readonly description: string;
			readonly maySave: boolean;
			/** Of a reading frame: its address, and the shape of its pages (height to width). */
			readonly frame: { readonly href: string; readonly ratio: number } | null;
	  }
	| { readonly state: 'kept'; readonly words: string; readonly href: string; readonly needsSignIn: boolean; readonly locked: boolean }
	/** Shut, set aside or gone: which of them is not told. */
	| { readonly state: 'away'; readonly words: string | null; readonly notice: string };

export interface SeenEntry {
	readonly id: string;
	readonly words: string;
	/** A few words of it, where some are said. */
	readonly about: string;
	/** Drawing of its icon, the inside of an SVG of 24 × 24; null shows the cover. */
	readonly icon: string | null;
	/** A plain link; null for a document. */
	readonly url: string | null;
	readonly document: {
		readonly slug: string;
		readonly description: string;
		readonly facts: string;
		readonly cover: SeenCover;
		readonly maySave: boolean;
	} | null;
	/** Why the document is kept from this person; null where it is not. */
	readonly kept: { readonly href: string; readonly needsSignIn: boolean } | null;
}

export interface SeenPage {
	readonly id: string;
	readonly path: string;
	readonly title: string;
	/** In which it is written, where that is not the site's. */
	readonly language: Language | null;
	readonly standing: Standing;
	readonly body:
		| {
				readonly layout: 'article';
				readonly content: ContentNode;
				readonly placements: Readonly<Record<string, SeenPlacement>>;
				/** Its document lists, by their ids. */
				readonly lists: Readonly<Record<string, SeenList>>;
		  }
		| { readonly layout: 'catalogue'; readonly lead: string; readonly list: SeenList }
		| {
				readonly layout: 'pocket';
				readonly lead: string;
				readonly entries: readonly SeenEntry[];
				/** The page's own address, and the same as a QR code (SVG). */
				readonly address: string;
				readonly qr: string;
		  };
}

interface SiteRow extends GuardedRow {
	id: string;
	path: string;
	title: string;
	layout: Layout;
	language: Language | null;
	content: PageContent;
}

export type PageAnswer =
	/** `until`: from when on it is another by the clock, though no door opens or shuts (ms since the epoch). */
	| { readonly state: 'seen'; readonly page: SeenPage; readonly until: number }
	| {
			readonly state: 'refused';
			readonly reason: Reason & { readonly code: RefusedCode };
			readonly turnedAway: DoorFields['turnedAway'];
			readonly announced: Announcement | null;
	  }
	| { readonly state: 'none' };

/** The keys that a caller holds for a document. */
type KeysFor = (documentId: string) => Promise<readonly HeldKey[]>;
const noKeys: KeysFor = () => Promise.resolve([]);

/** The published page at a path as a caller gets it; `keys` are those in their browser, `query` what they ask of a catalogue. */
export async function pageAt(path: string, caller: Caller, keys: KeysFor = noKeys, query: ListQuery = {}): Promise<PageAnswer> {
	const [[row], { zone }] = await Promise.all([
		sql()<SiteRow[]>`
			select p.id, p.path, r.title, p.layout, p.language, r.content, p.set_aside_at, door_json(p.door_id) as door
			from page p join revision r on r.id = p.published_id where p.path = ${path}`,
		site()
	]);
	if (!row) return { state: 'none' };
	const thing = guardedOf(row, zone);
	const decision = decide(caller.who, thing, 'read', instantOf(caller));
	if (!decision.allowed) {
		const [reason] = decision.reasons;
		const who = await announcedFor(thing, instantOf(caller), query.language ?? 'en');
		const announced = who === null ? null : { title: row.title, description: '', who };
		return { state: 'refused', reason: { ...reason, code: reason.code as RefusedCode }, turnedAway: row.door.turnedAway, announced };
	}
	const until = row.layout === 'pocket' ? nextShow(row.content as Pocket, instantOf(caller), zone) : Infinity;
	return { state: 'seen', page: await seen(row, thing, caller, keys, query), until };
}

/** The draft of a page as a caller would get it once published: for the preview. `content` in place of the draft's. */
export async function previewOf(draft: PageDraft, caller: Caller, query: ListQuery = {}, content = draft.content): Promise<SeenPage> {
	const { zone } = await site();
	const row = theRow(await sql()<GuardedRow[]>`select p.set_aside_at, door_json(p.door_id) as door from page p where p.id = ${draft.id}`);
	return seen({ ...draft, content }, guardedOf(row, zone), caller, noKeys, query);
}

type Written = { id: string; path: string; title: string; layout: Layout; language: Language | null; content: PageContent };

async function seen(page: Written, thing: Guarded, caller: Caller, keys: KeysFor, query: ListQuery): Promise<SeenPage> {
	const body = await bodyOf(page, caller, keys, query);
	return { id: page.id, path: page.path, title: page.title, language: page.language, standing: standingOf(thing, instantOf(caller)), body };
}

async function bodyOf(page: Written, caller: Caller, keys: KeysFor, query: ListQuery): Promise<SeenPage['body']> {
	const { language = 'en' } = query;
	switch (page.layout) {
		case 'article':
			return {
				layout: 'article',
				content: bare(page.content as Article),
				placements: await placementsFor(page, caller, keys, language),
				lists: await listsFor(page.content as Article, caller, query)
			};
		case 'catalogue':
			return { layout: 'catalogue', lead: (page.content as Catalogue).lead ?? '', list: await listFor(page.content as Catalogue, caller, query) };
		case 'pocket':
			return {
				layout: 'pocket',
				lead: (page.content as Pocket).lead ?? '',
				entries: await entriesFor(page, caller, keys, language),
				address: settings().IANUA_ORIGIN + page.path,
				qr: await qrSvg(settings().IANUA_ORIGIN + page.path)
			};
	}
}

/** The document lists of an article: the one that is asked as it is asked, the others as they come. */
async function listsFor(content: Article, caller: Caller, query: ListQuery): Promise<Record<string, SeenList>> {
	const lists: Record<string, SeenList> = {};
	for (const { id, ...listing } of listsOf(content)) lists[id] = await listFor(listing, caller, id === query.list ? query : { language: query.language });
	return lists;
}

/** The cover of a document as it is drawn; `page` is another page than its own. */
export function seenCover(found: Resolved, alt: string | null = null, page: number | null = null): SeenCover {
	const [size] = found.edition.sizes;
	return {
		slug: found.slug,
		query: `?e=${found.edition.number}-${coverMark(page ? { kind: 'page', page } : found.cover)}${page ? `&page=${page}` : ''}`,
		alt: alt?.trim() || found.coverAlt || `Cover of ${found.title}`,
		ratio: (found.cover === null || page !== null) && size ? size.height / size.width : null
	};
}

/** Who a caller is to a document: with the keys that they hold for it. */
const whoFor = async (caller: Caller, found: Resolved, keys: KeysFor) =>
	caller.who.kind === 'staff' ? caller.who : { ...caller.who, keys: await keys(found.id) };

/** The sizes of the pages in their order, of those documents whose pages are not all alike. */
async function runsOf(documents: readonly Resolved[]): Promise<Map<string, NonNullable<Facts['runs']>>> {
	const mixed = documents.filter((d) => d.edition.sizes.length > 1).map((d) => d.edition.id);
	if (!mixed.length) return new Map();
	const rows = await sql()<{ id: string; runs: NonNullable<Facts['runs']> }[]>`
		select id, facts->'runs' as runs from edition where id = any(${mixed}::uuid[]) and facts ? 'runs'`;
	return new Map(rows.map((r) => [r.id, r.runs]));
}

async function placementsFor({ id, content }: Written, caller: Caller, keys: KeysFor, language: Language): Promise<Record<string, SeenPlacement>> {
	const placed = placementsOf(content as Article);
	const [documents, { zone, placing }] = await Promise.all([
		resolveAll(
			placed.map((p) => p.document),
			id
		),
		site()
	]);
	const placements: Record<string, SeenPlacement> = {};
	const pages = await pagesLedTo(placed.flatMap((p) => ledTo(p) ?? []));
	const runs = await runsOf([...documents.values()].filter((d) => placed.some((p) => p.form === 'frame' && p.document === d.slug)));
	const said = messages[language].site;
	const notice = said.notHereNow as string;
	const defaults: PlacementDefaults = placing ?? {};
	for (const attrs of placed) {
		const found = documents.get(attrs.document);
		const words = attrs.words?.trim() || null;
		const leads = ledTo(attrs);
		if (leads !== null) {
			placements[attrs.id] = await teaserFor(attrs, pages.get(leads), found, caller, keys, language);
			continue;
		}
		// staff too see that what was set aside is not there for readers
		if (!found || isAway(found.thing)) {
			placements[attrs.id] = { state: 'away', words, notice };
			continue;
		}
		const who = await whoFor(caller, found, keys);
		const at = instantOf(caller);
		const decision = decide(who, found.thing, attrs.form !== 'frame' && attrs.press === 'save' ? 'save' : 'read', at);
		const [reason] = decision.reasons;
		if (decision.allowed) {
			const { edition } = found;
			const view = placementView(attrs, placedAs(found, zone, language), defaults);
			// a frame is as high as the page that it begins with
			const size = sizeOfPage(view.start ?? 1, runs.get(edition.id) ?? edition.sizes);
			placements[attrs.id] = {
				state: 'open',
				id: attrs.id,
				slug: found.slug,
				title: found.title,
				description: attrs.form === 'card' && view.description ? found.description : '',
				view,
				cover: seenCover(found, view.alt, view.page && view.page <= edition.pages ? view.page : null),
				maySave: decide(who, found.thing, 'save', at).allowed,
				frame: attrs.form === 'frame' && canBeShown(edition) ? { href: frameHref(found.slug, attrs.id, view), ratio: shapeRatio(size) } : null
			};
		} else if (reason.code === 'shut' || reason.code === 'set-aside') placements[attrs.id] = { state: 'away', words, notice };
		else
			placements[attrs.id] = {
				state: 'kept',
				// the title is not told to somebody who is turned away, unless it is announced; the page's own words are the page's
				words: words ?? (isAnnounced(found.thing, at) ? found.title : (said.keptDocument as string)),
				href: `/d/${found.slug}?from=${attrs.id}`,
				needsSignIn: reason.code === 'sign-in',
				locked: attrs.locked ?? isAnnounced(found.thing, at)
			};
	}
	return placements;
}

/** A document as a placement says it. */
const placedAs = ({ slug, title, edition }: Resolved, zone: string, language: Language) => ({
	slug,
	title,
	pages: edition.pages,
	pagesSaid: pagesSaid(edition.pages, language),
	bytes: edition.bytes,
	date: dayWords(edition.createdAt.getTime(), zone, language)
});

/** A teaser as a caller sees it: the page's door decides whether it leads there, the document's whether its cover and title are shown. */
async function teaserFor(
	attrs: KeptPlacement,
	page: PageLedTo | undefined,
	found: Resolved | undefined,
	caller: Caller,
	keys: KeysFor,
	language: Language
): Promise<SeenPlacement> {
	const { zone, placing } = await site();
	const words = attrs.words?.trim() || null;
	const at = instantOf(caller);
	const away = { state: 'away', words, notice: messages[language].site.notHereNow as string } as const;
	if (!page) return away;
	const thing = guardedOf(page, zone);
	const { allowed, reasons } = decide(caller.who, thing, 'read', at);
	if (!allowed) {
		const [{ code }] = reasons;
		if (code === 'shut' || code === 'set-aside') return away;
		return {
			state: 'kept',
			words: words ?? (isAnnounced(thing, at) ? page.title : (messages[language].site.keptPage as string)),
			href: page.path,
			needsSignIn: code === 'sign-in',
			locked: attrs.locked ?? false
		};
	}
	const shown = found && !isAway(found.thing) && decide(await whoFor(caller, found, keys), found.thing, 'read', at).allowed ? found : null;
	const document = shown ? placedAs(shown, zone, language) : { slug: '', title: '', pages: 0, bytes: 0 };
	const view = placementView(shown ? attrs : { ...attrs, facts: [] }, document, placing ?? {}, page);
	return {
		state: 'open',
		id: attrs.id,
		slug: document.slug,
		title: page.title,
		description: shown && attrs.form === 'card' && view.description ? shown.description : '',
		view,
		cover: shown && seenCover(shown, view.alt, view.page && view.page <= shown.edition.pages ? view.page : null),
		maySave: false,
		frame: null
	};
}

async function entriesFor({ id, content }: Written, caller: Caller, keys: KeysFor, language: Language): Promise<SeenEntry[]> {
	const { zone } = await site();
	const at = instantOf(caller);
	const shown = (content as Pocket).entries.filter((entry) => onShow(entry, at, zone));
	const documents = await resolveAll(
		shown.flatMap((e) => e.document ?? []),
		id
	);
	const entries: SeenEntry[] = [];
	for (const entry of shown) {
		const words = entry.words?.trim() ?? '';
		// kept entries have ids
		const base = { id: entry.id!, about: entry.about?.trim() ?? '' };
		// one of the two is there
		const icon = (otherwise: string | null) => (entry.icon || otherwise ? iconDrawing(entry.icon ?? otherwise!) : null);
		if (entry.url) {
			entries.push({ ...base, icon: await icon('link'), words, url: entry.url, document: null, kept: null });
			continue;
		}
		// an entry leads to an address or a document
		const found = documents.get(entry.document!);
		// what is shut or gone is not on the list: whoever holds a card or poster can do nothing about it
		if (!found || isAway(found.thing)) continue;
		const who = await whoFor(caller, found, keys);
		const { allowed, reasons } = decide(who, found.thing, 'read', at);
		if (!allowed && (reasons[0].code === 'shut' || reasons[0].code === 'set-aside')) continue;
		const { edition } = found;
		entries.push({
			...base,
			icon: await icon(allowed ? null : 'lock-keyhole'),
			words: words || (allowed ? found.title : (messages[language].site.keptDocument as string)),
			url: null,
			document: allowed
				? {
						slug: found.slug,
						description: found.description,
						facts: factsWords({ pages: edition.pages, pagesSaid: pagesSaid(edition.pages, language), bytes: edition.bytes }),
						cover: seenCover(found),
						maySave: decide(who, found.thing, 'save', at).allowed
					}
				: null,
			// kept entries have ids
			kept: allowed ? null : { href: `/d/${found.slug}?from=${entry.id!}`, needsSignIn: reasons[0].code === 'sign-in' }
		});
	}
	return entries;
}
