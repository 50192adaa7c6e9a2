// What the fragment of a reading room's address asks for: RFC 8118, section 3, "Fragment Identifiers". Parameters stand apart by & or
// #, are obeyed from left to right, and what makes no sense is passed over.

/** Where to stand and how large: in points from the page's upper left corner, scale in per cent. */
export interface FragmentZoom {
	readonly scale: number;
	readonly left: number | null;
	readonly top: number | null;
}

/** `view`: Fit, FitH, FitV, FitB, FitBH, FitBV, each with the offset it may have. */
export interface FragmentView {
	readonly kind: 'Fit' | 'FitH' | 'FitV' | 'FitB' | 'FitBH' | 'FitBV';
	readonly offset: number | null;
}

export interface Fragment {
	/** Page number from 1; null where none is named. */
	readonly page: number | null;
	/** A destination that the document names itself. */
	readonly nameddest: string | null;
	readonly zoom: FragmentZoom | null;
	readonly view: FragmentView | null;
	/** A rectangle to fill the window with, in points: left, top, width, height. */
	readonly viewrect: readonly [left: number, top: number, width: number, height: number] | null;
	/** Words to be found and marked. */
	readonly search: readonly string[];
	/** Words that stand there one after the other; ours, beside the standard's. */
	readonly passage: string | null;
	/** What to show beside the page. */
	readonly pagemode: 'bookmarks' | 'thumbs' | 'none' | null;
}

const number = (text: string | undefined): number | null => (text !== undefined && /^-?\d{1,7}(?:\.\d{1,6})?$/.test(text.trim()) ? Number(text) : null);
const kinds: readonly FragmentView['kind'][] = ['Fit', 'FitH', 'FitV', 'FitB', 'FitBH', 'FitBV'];

/** `fragment('#page=3&zoom=200,250,100')` → page 3 at 200 %, 250 points from the left and 100 from the top. */
export function fragment(hash: string): Fragment {
	const values = new Map<string, string>();
	for (const part of hash.replace(/^#/, '').split(/[&#]/)) {
		const equals = part.indexOf('=');
		if (equals > 0) values.set(part.slice(0, equals).toLowerCase(), decoded(part.slice(equals + 1)));
	}
	const page = /^\d{1,7}$/.exec(values.get('page') ?? '');
	const words = (values.get('search') ?? '').slice(0, 500).match(/[\p{L}\p{M}\p{N}]+/gu) ?? [];
	const [scale, left, top] = (values.get('zoom') ?? '').split(',').map(number);
	const [kind, offset] = (values.get('view') ?? '').split(',');
	const named = kinds.find((k) => k.toLowerCase() === kind?.trim().toLowerCase());
	const rect = (values.get('viewrect') ?? '').split(',').map(number);
	const mode = (values.get('pagemode') ?? '').toLowerCase();
	return {
		page: page && Number(page[0]) > 0 ? Number(page[0]) : null,
		nameddest: values.get('nameddest')?.slice(0, 500) || null,
		zoom: scale && scale > 0 ? { scale, left: left ?? null, top: top ?? null } : null,
		view: named ? { kind: named, offset: number(offset) } : null,
		viewrect: rect.length === 4 && rect.every((n) => n !== null) && rect[2]! > 0 && rect[3]! > 0 ? (rect as [number, number, number, number]) : null,
		search: [...new Set(words)].slice(0, 20),
		passage: passageOf(values.get('passage') ?? '') || null,
		pagemode: mode === 'bookmarks' || mode === 'thumbs' || mode === 'none' ? mode : null
	};
}

function decoded(text: string): string {
	try {
		return decodeURIComponent(text.replace(/\+/g, ' '));
	} catch {
		return text;
	}
}

/** Longest passage that an address names, in characters: it is found by its beginning. */
const longestPassage = 160;

/** Chosen words as an address names them: in one line, letters in the forms in which they are typed (Unicode NFKC), no more than find them. */
export function passageOf(text: string): string {
	const line = text.normalize('NFKC').replace(/\s+/g, ' ').trim();
	return line.length <= longestPassage ? line : line.slice(0, longestPassage).replace(/\s+\S*$/, '');
}

/** The fragment that leads to a passage: the words are looked for from its page on, so that they are found in another edition too. */
export const toPassage = (page: number, passage: string): string => `#page=${page}&passage=${encodeURIComponent(passage)}`;

/** What a fragment wants to be found: a passage as it stands, else any of its words. */
export const soughtBy = ({ passage, search }: Fragment): string | readonly string[] => passage ?? search;

/** The fragment that leads to a page, with the words marked there: `toPage(3, ['lock'])` → '#page=3&search=lock'. */
export const toPage = (page: number, search: readonly string[] = []): string =>
	`#page=${page}${search.length ? `&search=${encodeURIComponent(search.join(' '))}` : ''}`;
