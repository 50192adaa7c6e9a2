// What pdf.js does not offer to others, and the reading room needs of it: all of it stands here, so that a new version of the library is
// looked through in one place. pdfjs-private.test.ts fails where a version has none of it any more.
import type { PDFPageProxy } from 'pdfjs-dist';
import type { Library } from './library';

export type PdfViewer = InstanceType<Library['viewer']['PDFViewer']>;
export type EventBus = InstanceType<Library['viewer']['EventBus']>;
export type FindController = InstanceType<Library['viewer']['PDFFindController']>;

/** Where each name stands in the library's viewer, as a pattern of its text. */
export const privateNames = {
	_getVisiblePages: /^\t? *_getVisiblePages\(\)/m,
	_location: /this\._location = \{/,
	renderHighestPriority: /^ *renderHighestPriority\(/m,
	_on: /^ *_on\(eventName, listener, options = null\)/m,
	_offset: /this\._offset = \{/,
	_resumePageIdx: /this\._resumePageIdx = null/,
	_dirtyMatch: /this\._dirtyMatch = true/,
	imageCoordinates: /^ *imageCoordinates = null;$/m,
	_pageMatches: /this\._pageMatches = \[\]/,
	_extractTextPromises: /this\._extractTextPromises = \[\]/,
	_pageContents: /this\._pageContents = \[\]/,
	_pageDiffs: /this\._pageDiffs = \[\]/,
	_hasDiacritics: /this\._hasDiacritics = \[\]/,
	pageMatchesLength: /^ *get pageMatchesLength\(\)/m,
	selected: /^ *get selected\(\)/m,
	getCachedPageViews: /^ *getCachedPageViews\(\)/m,
	setPdfPage: /^ *setPdfPage\(pdfPage\)/m,
	pdfPageRotate: /this\.pdfPageRotate = /,
	renderingState: /^ *(?:set|get) renderingState\(/m,
	finished: /FINISHED: 3\b/,
	abortSignal: /^ *abortSignal = null$/m,
	normalize: /^function normalize\(text/m
} as const;

/** A page as the viewer lays it out. */
export interface PageView {
	readonly id: number;
	/** Corners of its pictures, once it was drawn: see core/reading/paper. */
	readonly imageCoordinates: ArrayLike<number> | null;
	readonly div: HTMLElement;
	readonly width: number;
	readonly height: number;
	readonly scale: number;
	readonly pdfPage: unknown;
	readonly renderingState: number;
	pdfPageRotate: number;
	viewport: { readonly constructor: new (of: unknown) => PageView['viewport']; readonly scale: number };
	setPdfPage(page: PDFPageProxy): void;
	reset(): void;
	update(change: { scale: number }): void;
}

/** The state of a page that is drawn. */
export const finished = 3;

/** The view of a page, counted from 1; undefined where there is no such page. */
export const pageView = (viewer: PdfViewer, page: number): PageView | undefined => viewer.getPageView(page - 1) as PageView | undefined;

/** Views whose drawing is kept. */
export const drawnViews = (viewer: PdfViewer): PageView[] => [...(viewer.getCachedPageViews() as Set<PageView>)];

/** Pages in the window, with how much of each is seen, in per cent. */
export function visiblePages(viewer: PdfViewer): {
	readonly ids: ReadonlySet<number>;
	readonly views: readonly { id: number; view: PageView; percent: number }[];
} {
	// private in the library's types
	return (viewer as unknown as { _getVisiblePages(): ReturnType<typeof visiblePages> })._getVisiblePages();
}

/** The place at the upper edge of the window, in units of the page (ISO 32000-1, 8.3.2.3); null before anything is laid out. */
export function locationOf(viewer: PdfViewer): { readonly pageNumber: number; readonly left: number; readonly top: number } | null {
	// private in the library's types
	return (viewer as unknown as { _location: ReturnType<typeof locationOf> })._location;
}

/** Stands between the viewer and its drawing: `through` decides each time whether it is drawn now. */
export function interceptDrawing(viewer: PdfViewer, through: (draw: () => void) => void): void {
	// private in the library's types
	const queue = viewer.renderingQueue as unknown as { renderHighestPriority(visible?: unknown): void };
	const draw = queue.renderHighestPriority.bind(queue);
	queue.renderHighestPriority = (visible) => through(() => draw(visible));
}

/** Leaves out what the components themselves would do on an event; listeners from outside still hear it. */
export function muteOwn(bus: EventBus, event: string): void {
	const hear = bus._on.bind(bus);
	bus._on = (name, listener, options: { external?: boolean } | null = null) => {
		if (name !== event || options?.external) hear(name, listener, options as never);
	};
}

/** What the finder keeps of its pages, each under the page's number less one. */
export interface FinderPages {
	_pageMatches: (number[] | undefined)[];
	_extractTextPromises: Promise<void>[];
	_pageContents: string[];
	_pageDiffs: unknown[];
	_hasDiacritics: boolean[];
}

/** What the finder has found. */
export interface FinderState {
	/** By page less one: where finds begin, in the page's words without line ends, and how long they are. */
	readonly pageMatches: readonly (readonly number[] | undefined)[];
	readonly pageMatchesLength: readonly (readonly number[] | undefined)[];
	readonly selected: { readonly pageIdx: number; readonly matchIdx: number };
	/** The page that is waited for; null for none. */
	readonly _resumePageIdx: number | null;
	/** Whether what it has is that of other words than those now looked for. */
	readonly _dirtyMatch: boolean;
	/** From where the next find is looked for. */
	_offset: { pageIdx: number; matchIdx: number; wrapped: boolean };
}

// private in the library's types
export const finderPages = (finder: FindController): FinderPages => finder as unknown as FinderPages;
/** How pdf.js’s find stands, from fields it does not promise. */
export const finderState = (finder: FindController): FinderState => finder as unknown as FinderState;

/** Options that the library takes and its types do not name: its listeners end with the signal. */
export const endedBy = (abortSignal: AbortSignal): object => ({ abortSignal });

/** Zooms so that a point of the window stays where it is. */
export function scaleAround(viewer: PdfViewer, scaleFactor: number, x: number, y: number): void {
	viewer.updateScale({ scaleFactor, drawingDelay: 300, origin: [x, y] });
}

/** The components ask for words of their own; the room says all it says itself. */
export const quietL10n = {
	getLanguage: () => 'en',
	getDirection: () => 'ltr',
	get: (_ids: unknown, _values: unknown, fallback: unknown) => Promise.resolve(fallback ?? ''),
	translate: () => Promise.resolve(),
	translateOnce: () => Promise.resolve(),
	destroy: () => Promise.resolve(),
	pause: () => undefined,
	resume: () => undefined
};
