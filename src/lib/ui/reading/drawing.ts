// When pages are drawn, and how many drawings are kept: what flies past is not drawn, and what is far away is let go.
import type { LeavesOf } from './leaves';
import { drawnViews, interceptDrawing, pageView, visiblePages, type PageView, type PdfViewer } from './pdfjs-private';

/** Scrolling faster than so many screens a second is a flight past the pages. */
const flightScreens = 1.5;
const flightGapMs = 200;
/** So long after the last drawing what is kept for drawing is let go, ms. */
const idleMs = 4_000;

const pixelsOf = (view: PageView): number => [...view.div.querySelectorAll('canvas')].reduce((sum, c) => sum + c.width * c.height, 0);

/**
 * What flies past is not drawn (nor fetched): pages are drawn once the scrolling slows down. What was drawn and is not needed any more
 * is let go when nothing has been asked for a while.
 */
export function drawCalmly(viewer: PdfViewer, container: HTMLElement, cleanUp: () => void, ended: AbortSignal): void {
	let [top, index, fast] = [0, 0, false];
	let [slower, idle]: (ReturnType<typeof setTimeout> | undefined)[] = [];
	container.addEventListener(
		'scroll',
		() => {
			const [now, place] = [performance.now(), container.scrollTop + container.scrollLeft];
			const speed = Math.abs(place - top) / Math.max(1, now - index);
			// screens a second; a single jump is no flight
			fast = now - index < flightGapMs && speed * 1000 > flightScreens * container.clientHeight;
			[top, index] = [place, now];
			clearTimeout(slower);
			if (fast)
				slower = setTimeout(() => {
					fast = false;
					viewer.update();
				}, flightGapMs);
		},
		{ passive: true, signal: ended }
	);
	interceptDrawing(viewer, (draw) => {
		clearTimeout(idle);
		idle = setTimeout(() => {
			if (!ended.aborted) cleanUp();
		}, idleMs);
		if (!fast) draw();
	});
	ended.addEventListener('abort', () => {
		clearTimeout(slower);
		clearTimeout(idle);
	});
}

/** Drops drawings beyond what three screens need, those furthest away first. */
export function dropFarDrawings(viewer: PdfViewer, container: HTMLElement): void {
	const most = 3 * Math.max(1_500_000, container.clientWidth * container.clientHeight * (window.devicePixelRatio || 1) ** 2);
	const views = drawnViews(viewer).map((view) => ({ view, pixels: pixelsOf(view) }));
	let all = views.reduce((sum, v) => sum + v.pixels, 0);
	if (all <= most) return;
	const { ids } = visiblePages(viewer);
	const away = views
		.filter(({ view }) => !ids.has(view.id))
		.sort((a, b) => Math.abs(b.view.id - viewer.currentPageNumber) - Math.abs(a.view.id - viewer.currentPageNumber));
	for (const { view, pixels } of away) {
		if (all <= most) break;
		view.reset();
		all -= pixels;
	}
}

/** Gives pages that are not loaded yet the size they will have, so that nothing moves when they come. */
export function sizePages(viewer: PdfViewer, runs: LeavesOf['runs'], pages: number): void {
	if (runs.length < 2) return;
	let page = 0;
	for (const run of runs)
		for (let i = 0; i < run.pages && page < pages; i++, page++) {
			// pages of the document, which all have a view
			const view = pageView(viewer, page + 1)!;
			if (view.pdfPage) continue;
			const { viewport } = view;
			view.pdfPageRotate = 0;
			view.viewport = new viewport.constructor({ viewBox: [0, 0, run.width, run.height], userUnit: 1, scale: viewport.scale, rotation: 0 });
			view.update({ scale: view.scale });
		}
}

/** Shares of the pages in sight: of the page, and of the window, 0 to 1. */
export function sharesSeen(viewer: PdfViewer, container: HTMLElement): { page: number; ofPage: number; ofWindow: number }[] {
	const window = container.clientWidth * container.clientHeight;
	return visiblePages(viewer).views.map(({ id, view, percent }) => ({
		page: id,
		ofPage: percent / 100,
		ofWindow: window ? (view.width * view.height * percent) / 100 / window : 0
	}));
}

/** Marks the pages in sight: links and fields of the others are out of the order in which Tab goes. */
export function markSeen(viewer: PdfViewer): void {
	const { ids } = visiblePages(viewer);
	for (const view of drawnViews(viewer)) view.div.classList.toggle('in-sight', ids.has(view.id));
}

/** Tries again to draw pages that could not be. */
export function drawAgain(viewer: PdfViewer): void {
	for (let page = 1; page <= viewer.pagesCount; page++) {
		// pages of the document, which all have a view
		const view = pageView(viewer, page)!;
		if (!view.div.classList.contains('broken')) continue;
		view.div.classList.remove('broken');
		view.reset();
	}
	viewer.update();
}
