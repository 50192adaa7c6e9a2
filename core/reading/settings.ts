// How a reading room stands: the way of reading, the fit, the tools. Site, document and placement may each say so, then the reader.
import { Type, type Static } from '@sinclair/typebox';
import { papers, type Paper } from './paper';
import { oneOf } from '../schema';

/** Ways of reading. */
export const ways = ['down', 'across', 'tiled', 'one-by-one', 'book', 'turning'] as const;
export type Way = (typeof ways)[number];
export const wayWords: Record<Way, string> = {
	down: 'Down',
	across: 'Across',
	tiled: 'Tiled',
	'one-by-one': 'One by one',
	book: 'Book',
	turning: 'Turning'
};

export const fits = ['comfortable', 'page', 'width', 'height', 'paper'] as const;
/** 'paper' shows the paper's own size: 96 CSS px to the inch. 'comfortable' is a size to read at: see `scaleFor`. */
export type Fit = (typeof fits)[number];
export const fitWords: Record<Fit, string> = {
	comfortable: 'Comfortable',
	page: 'Whole page',
	width: 'Full width',
	height: 'Full height',
	paper: 'Paper size'
};

/** Per cent of the paper's size. */
export const leastZoom = 10;
export const mostZoom = 600;
/** What a press on − or + leads to, per cent. */
const steps = [10, 15, 25, 33, 50, 67, 75, 90, 100, 110, 125, 150, 175, 200, 250, 300, 400, 500, 600] as const;

/** The next step from `percent` in a direction. `zoomStep(100, 1)` → 110; at the end it stays. */
export function zoomStep(percent: number, direction: 1 | -1): number {
	const now = Math.round(percent);
	const next = direction > 0 ? steps.find((s) => s > now) : [...steps].reverse().find((s) => s < now);
	return next ?? (direction > 0 ? mostZoom : leastZoom);
}

/** A zoom in percent, within what the room offers. */
export const boundZoom = (percent: number): number => Math.min(mostZoom, Math.max(leastZoom, percent));

/** Tools of the reading room, each of which can be left out. */
export const roomTools = ['save', 'print', 'full-screen', 'fit', 'turn', 'find', 'ways', 'share', 'back'] as const;
export type RoomTool = (typeof roomTools)[number];
export const roomToolWords: Record<RoomTool, string> = {
	save: 'save',
	print: 'print',
	'full-screen': 'full screen',
	fit: 'fit',
	turn: 'turn',
	find: 'find',
	ways: 'ways of reading',
	share: 'share',
	back: 'way back'
};

/** What a site, a document or a placement can say of its reading room. */
export const readingSettings = {
	way: oneOf(ways),
	fit: oneOf(fits),
	/** In a book: the first page stands alone, as a cover. */
	cover: Type.Boolean(),
	foreEdge: Type.Boolean(),
	tools: Type.Array(oneOf(roomTools), { uniqueItems: true }),
	/** The tools come when they are wanted: the pointer at the lower edge, a touch, or the keyboard. */
	hideTools: Type.Boolean(),
	theme: oneOf(['system', 'light', 'dark'] as const),
	/** Where the way back leads: an address of the site or a whole one. */
	back: Type.String({ maxLength: 500, pattern: '^(?:/(?!/)[^\\s]*|https?://[^\\s]+)$' })
};
export const ReadingSettings = Type.Partial(Type.Object(readingSettings), { additionalProperties: false });
export type ReadingSettings = Static<typeof ReadingSettings>;

export interface RoomSettings {
	readonly way: Way;
	readonly fit: Fit;
	readonly cover: boolean;
	readonly foreEdge: boolean;
	readonly tools: readonly RoomTool[];
	readonly hideTools: boolean;
	readonly theme: 'system' | 'light' | 'dark';
	readonly back: string | null;
}

/** Where a room stands: in the whole window, or in a frame on a page, on another website, or over the page. */
export type RoomPlace = 'window' | 'page' | 'outside' | 'over';

/** As it comes. A frame on a page has no fore-edge: it is narrow; and it is as high as a whole page. */
export const asItComes = (place: RoomPlace): RoomSettings => ({
	way: 'down',
	fit: place === 'window' || place === 'over' ? 'comfortable' : 'page',
	cover: true,
	foreEdge: place === 'window' || place === 'over',
	tools: roomTools,
	hideTools: false,
	theme: 'system',
	back: null
});

/**
 * What holds in a room: as it comes, then what the site says, the document, and the placement; the later wins.
 * `roomSettings('window', [{ way: 'book' }, { fit: 'width' }])` → a book at full width.
 */
export function roomSettings(place: RoomPlace, said: readonly (ReadingSettings | null | undefined)[]): RoomSettings {
	const all = asItComes(place);
	for (const each of said) Object.assign(all, Object.fromEntries(Object.entries<unknown>(each ?? {}).filter(([, v]) => v !== undefined && v !== null)));
	// what a site or a document says of its fore-edge is meant for whole windows
	const asked = said.at(-1)?.foreEdge;
	return place === 'page' || place === 'outside' ? { ...all, foreEdge: asked ?? false } : all;
}

const has = <const T extends readonly string[]>(list: T, value: string | null): value is T[number] => value !== null && list.includes(value);

/** What a placement asks for in a room's address; `get` gives a parameter or null. What makes no sense is as if it were not there. */
export function askedSettings(get: (name: string) => string | null): ReadingSettings {
	const [way, fit, edge, tools, theme, cover] = ['way', 'fit', 'edge', 'tools', 'theme', 'cover'].map(get) as [
		string | null,
		string | null,
		string | null,
		string | null,
		string | null,
		string | null
	];
	const wanted = tools?.split(/[ +]/);
	return {
		...(has(ways, way) && { way }),
		...(has(fits, fit) && { fit }),
		...(cover !== null && { cover: cover !== '0' }),
		...(edge !== null && { foreEdge: edge === '1' }),
		...(wanted && { tools: roomTools.filter((tool) => wanted.includes(tool)) }),
		...(has(['system', 'light', 'dark'] as const, theme) && { theme })
	};
}

/** The parameters that say so: `askedFor({ way: 'book', tools: [] })` → ['way=book', 'tools=none']. */
export function askedFor(settings: { readonly [N in keyof ReadingSettings]?: ReadingSettings[N] | null }): string[] {
	const { way, fit, cover, foreEdge, tools, theme } = settings;
	return [
		...(way ? [`way=${way}`] : []),
		...(fit ? [`fit=${fit}`] : []),
		...(typeof cover === 'boolean' ? [`cover=${cover ? 1 : 0}`] : []),
		...(typeof foreEdge === 'boolean' ? [`edge=${foreEdge ? 1 : 0}`] : []),
		...(tools ? [`tools=${tools.join('+') || 'none'}`] : []),
		...(theme ? [`theme=${theme}`] : [])
	];
}

/** What a reader has chosen, as their browser remembers it. */
export interface ReadersChoice {
	readonly way?: Way;
	readonly fit?: Fit | number;
	readonly theme?: 'system' | 'light' | 'dark';
	readonly paper?: Paper;
	/** Whether the fore-edge names the chapters. */
	readonly chapters?: boolean;
}

/** Reads a remembered choice; what is not one counts as none. */
export function readersChoice(kept: unknown): ReadersChoice {
	if (typeof kept !== 'object' || kept === null) return {};
	const { way, fit, theme, paper, chapters } = kept as Record<string, unknown>;
	return {
		...(has(ways, String(way)) && { way: way as Way }),
		...(has(fits, String(fit)) ? { fit: fit as Fit } : typeof fit === 'number' && Number.isFinite(fit) ? { fit: boundZoom(fit) } : {}),
		...(has(['system', 'light', 'dark'] as const, String(theme)) && { theme: theme as 'light' }),
		...(has(papers, String(paper)) && { paper: paper as Paper }),
		...(typeof chapters === 'boolean' && { chapters })
	};
}

/** Whether two pages stand side by side. */
export const inPairs = (way: Way): boolean => way === 'book' || way === 'turning';

/** Windows narrower than this, in CSS px, have room for one page and not for two. */
export const roomForTwo = 600;

/** The way in which pages are shown in a window of a width, CSS px: where two would stand side by side, a narrow one shows one by one. */
export const wayIn = (way: Way, width: number): Way => (inPairs(way) && width > 0 && width < roomForTwo ? 'one-by-one' : way);

/**
 * Whether pages follow each other from right to left: as the file says (`/Direction`, ISO 32000-1, 12.2, table 150: 'L2R' or 'R2L'), else as
 * its language is written.
 */
export const isFromRight = (direction: string | null, writtenSo: boolean): boolean =>
	direction === null ? writtenSo : direction === 'R2L' || (direction !== 'L2R' && writtenSo);

/** Whether a way shows page after page rather than all in a stretch. */
export const byTurns = (way: Way): boolean => way === 'one-by-one' || inPairs(way);

/** Whether several pages are in sight at once, none before the others. */
export const besideEachOther = (way: Way): boolean => way === 'tiled' || way === 'across';

/** The pages that stand together with `page`. `togetherWith(3, 8, 'book', true)` → [2, 3]; with the first not alone → [3, 4]. */
export function togetherWith(page: number, pages: number, way: Way, cover: boolean): number[] {
	if (!inPairs(way)) return [page];
	const left = cover ? page - (page % 2) : page - 1 + (page % 2);
	return [left, left + 1].filter((n) => n >= 1 && n <= pages);
}

/** The page to go to from `page`, one step in a direction; null at the end. */
export function stepFrom(page: number, pages: number, way: Way, cover: boolean, direction: 1 | -1): number | null {
	const together = togetherWith(page, pages, way, cover);
	const next = direction > 0 ? together.at(-1)! + 1 : togetherWith(Math.max(1, together[0]! - 1), pages, way, cover)[0]!;
	return next < 1 || next > pages || (direction < 0 && together[0] === 1) ? null : next;
}
