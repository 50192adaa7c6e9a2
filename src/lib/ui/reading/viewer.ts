// What stands between the reading room and the components of pdf.js: opens a document in them, turns its events into calls, and adds
// what is ours: fits, ways, memory, the pages seen.
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import { scaleFor, type Box } from '#core/reading/fit';
import type { Fragment } from '#core/reading/fragment';
import { boundZoom, byTurns, inPairs, stepFrom, togetherWith, type Fit, type Way } from '#core/reading/settings';
import { around, type Around } from '#core/reading/found';
import { inReadingOrder } from '#core/reading/order';
import { Ranges, rangeSize, type RangeEvents } from './file-ranges';
import { leaves, type LeavesOf } from './leaves';
import { documentOptions, library, type Library } from './library';
import { LookThrough } from './look-through';

const scrollModes: Record<Way, number> = { down: 0, across: 1, tiled: 2, 'one-by-one': 3, book: 3, turning: 3 };

export interface FindState {
	readonly count: number;
	/** Which of them is chosen, from 1; 0 for none. */
	readonly at: number;
	/** Pages that have been looked through. */
	readonly looked: number;
	readonly state: 'found' | 'none' | 'looking';
	/** Pages on which something was found, with how many times. */
	readonly pages: ReadonlyMap<number, number>;
}

export interface ViewerEvents extends RangeEvents {
	page(page: number): void;
	scale(percent: number): void;
	/** A page has been drawn; with `trouble` it could not be. */
	drawn(page: number, trouble: boolean): void;
	/** Pages that are seen: at least half of them, or they fill half the window. */
	seen(shares: readonly { page: number; ofPage: number; ofWindow: number }[]): void;
	find(state: FindState): void;
	/** A link inside the document led away from a place. */
	followed(from: Place): void;
}

export interface Place {
	readonly page: number;
	readonly left: number;
	readonly top: number;
}

export interface FindOptions {
	readonly words: string | readonly string[];
	readonly wholeWords: boolean;
	readonly sameCase: boolean;
	readonly sameAccents: boolean;
}

export interface Asked {
	readonly container: HTMLDivElement;
	readonly file: string | null;
	readonly leaves: LeavesOf;
	/** Ground around a page, CSS px: to both sides, and above and below. */
	readonly ground: () => { x: number; y: number };
	readonly pageName: (page: number) => string;
	/** Pages on which the server says that any of the words stand. */
	readonly pagesWith: (words: readonly string[]) => Promise<readonly number[]>;
}

type PdfViewer = InstanceType<Library['viewer']['PDFViewer']>;
type Opened = { pdf: PDFDocumentProxy; close(): void };

/** Scrolling faster than so many screens a second is a flight past the pages. */
const flightScreens = 1.5;
const flightGapMs = 200;
/** The library's number for a page that is drawn. */
const finished = 3;
/** So long after the last drawing what is kept for drawing is let go, ms. */
const idleMs = 4_000;

export class Viewer {
	readonly pdf: PDFDocumentProxy;
	readonly #asked: Asked;
	readonly #events: ViewerEvents;
	readonly #viewer: PdfViewer;
	readonly #bus: InstanceType<Library['viewer']['EventBus']>;
	readonly #links: InstanceType<Library['viewer']['PDFLinkService']>;
	readonly #finder: InstanceType<Library['viewer']['PDFFindController']>;
	readonly #through: LookThrough;
	readonly #ended = new AbortController();
	readonly #close: () => void;
	readonly #watch: ResizeObserver;
	way: Way = 'down';
	cover = true;
	fit: Fit | number = 'page';
	#quiet = false;
	#attending: AbortController | undefined;
	#lookingAgain: ReturnType<typeof setTimeout> | undefined;
	#wanted: FindOptions | null = null;
	/** Whether a place was led to that came to light after the finder had ended. */
	#ledLater = false;

	/** Opens the document; rejects where it cannot be opened. */
	static async open(asked: Asked, events: ViewerEvents, start: { way: Way; cover: boolean; fit: Fit | number; page: number }): Promise<Viewer> {
		const ranges = asked.file === null ? null : new Ranges(asked.file, events);
		// the first bytes are on their way while the library loads
		const begun = ranges?.begin();
		begun?.catch(() => undefined);
		const lib = await library();
		let opened: Opened;
		if (ranges) {
			const { length, first } = await begun!;
			const task = lib.pdfjs.getDocument({
				...documentOptions,
				length,
				rangeChunkSize: rangeSize,
				range: ranges.transport(lib.pdfjs.PDFDataRangeTransport, length, first)
			});
			opened = {
				pdf: inOrder(await task.promise),
				close: () => {
					ranges.close();
					void task.destroy();
				}
			};
		} else opened = { pdf: leaves(lib.pdfjs, asked.leaves, events), close: () => undefined };
		const viewer = new Viewer(lib, asked, events, opened);
		await viewer.#begin(start);
		return viewer;
	}

	private constructor({ pdfjs, viewer, normalize }: Library, asked: Asked, events: ViewerEvents, { pdf, close }: Opened) {
		this.pdf = pdf;
		this.#asked = asked;
		this.#events = events;
		this.#close = close;
		const bus = (this.#bus = new viewer.EventBus());
		const rel = 'noopener noreferrer nofollow';
		const links = (this.#links = new viewer.PDFLinkService({ eventBus: bus, externalLinkTarget: viewer.LinkTarget.BLANK, externalLinkRel: rel }));
		this.#finder = new viewer.PDFFindController({ linkService: links, eventBus: bus, updateMatchesCountOnProgress: true });
		this.#through = new LookThrough(pdf, this.#finder, normalize, asked.pagesWith, this.#ended.signal);
		const screen = asked.container.clientWidth * asked.container.clientHeight * (window.devicePixelRatio || 1) ** 2;
		this.#viewer = new viewer.PDFViewer({
			container: asked.container,
			eventBus: bus,
			linkService: links,
			findController: this.#finder,
			annotationMode: pdfjs.AnnotationMode.ENABLE_FORMS,
			annotationEditorMode: pdfjs.AnnotationEditorType.DISABLE,
			imageResourcesPath: '/pdfjs/web/images/',
			// a page zoomed in is drawn as far as it is seen, over a coarser whole of at most one screen
			maxCanvasPixels: Math.max(1_500_000, screen),
			enableAutoLinking: false,
			l10n: quietL10n as never,
			...({ abortSignal: this.#ended.signal } as object)
		});
		links.setViewer(this.#viewer);
		const go = links.goToDestination.bind(links);
		links.goToDestination = async (destination) => {
			const from = this.place();
			const page = await this.#loadTarget(destination).catch(() => null);
			await go(destination);
			if (page !== null) this.#attend(page);
			events.followed(from);
		};
		// the library focuses a page that was gone to when its text comes, however late, and scrolls to it once more: see #attend
		const hear = bus._on.bind(bus);
		bus._on = (name, listener, options: { external?: boolean } | null = null) => {
			if (name !== 'textlayerrendered' || options?.external) hear(name, listener, options as never);
		};
		this.#drawCalmly();
		this.#listen();
		this.#watch = new ResizeObserver(() => this.refit());
		this.#watch.observe(asked.container);
	}

	/**
	 * What flies past is not drawn (nor fetched): pages are drawn once the scrolling slows down. What was drawn and is not needed any more
	 * is let go when nothing has been asked for a while.
	 */
	#drawCalmly() {
		const { container } = this.#asked;
		const queue = this.#viewer.renderingQueue as unknown as { renderHighestPriority(visible?: unknown): void };
		const draw = queue.renderHighestPriority.bind(queue);
		let [top, at, fast] = [0, 0, false];
		let [slower, idle]: (ReturnType<typeof setTimeout> | undefined)[] = [];
		container.addEventListener(
			'scroll',
			() => {
				const [now, place] = [performance.now(), container.scrollTop + container.scrollLeft];
				const speed = Math.abs(place - top) / Math.max(1, now - at);
				// screens a second; a single jump is no flight
				fast = now - at < flightGapMs && speed * 1000 > flightScreens * container.clientHeight;
				[top, at] = [place, now];
				clearTimeout(slower);
				if (fast)
					slower = setTimeout(() => {
						fast = false;
						this.#viewer.update();
					}, flightGapMs);
			},
			{ passive: true, signal: this.#ended.signal }
		);
		queue.renderHighestPriority = (visible) => {
			clearTimeout(idle);
			idle = setTimeout(() => {
				if (this.#ended.signal.aborted) return;
				this.#viewer.cleanup();
				void this.pdf.cleanup();
			}, idleMs);
			if (!fast) draw(visible);
		};
		this.#ended.signal.addEventListener('abort', () => {
			clearTimeout(slower);
			clearTimeout(idle);
		});
	}

	#listen() {
		const on = (name: string, listener: (event: never) => void) => this.#bus.on(name, listener as never);
		on('pagechanging', ({ pageNumber }: { pageNumber: number }) => {
			this.#events.page(pageNumber);
			// the page that comes may have another size; it stands in its place only after this
			if (byTurns(this.way)) requestAnimationFrame(() => this.refit());
		});
		on('scalechanging', ({ scale }: { scale: number }) => this.#events.scale(Math.round(scale * 1000) / 10));
		on('pagerendered', ({ pageNumber, error, cssTransform }: { pageNumber: number; error: Error | null; cssTransform: boolean }) => {
			if (!cssTransform) this.#events.drawn(pageNumber, Boolean(error));
			if (error) this.elementOf(pageNumber)?.classList.add('broken');
			this.#trim();
		});
		on('updateviewarea', () => this.#tellSeen());
		const found = () => this.#tellFound();
		on('updatefindmatchescount', found);
		on('updatefindcontrolstate', found);
	}

	async #begin(start: { way: Way; cover: boolean; fit: Fit | number; page: number }) {
		const ready = new Promise<void>((done) => this.#bus.on('pagesinit', () => done(), { once: true } as never));
		this.#quiet = true;
		this.way = start.way;
		this.cover = start.cover;
		this.fit = start.fit;
		this.#setModes();
		this.#viewer.setDocument(this.pdf);
		this.#links.setDocument(this.pdf, null);
		await ready;
		for (let i = 0; i < this.pdf.numPages; i++)
			(this.#viewer.getPageView(i) as { div: HTMLElement }).div.setAttribute('aria-label', this.#asked.pageName(i + 1));
		this.#sizePages();
		this.#quiet = false;
		this.refit();
		if (start.page > 1) this.go(start.page);
	}

	/** Gives pages that are not loaded yet the size they will have, so that nothing moves when they come. */
	#sizePages() {
		const { runs } = this.#asked.leaves;
		if (runs.length < 2) return;
		let page = 0;
		for (const run of runs)
			for (let i = 0; i < run.pages && page < this.pdf.numPages; i++, page++) {
				const view = this.#viewer.getPageView(page) as PageView;
				if (view.pdfPage) continue;
				const { viewport } = view;
				view.pdfPageRotate = 0;
				view.viewport = new viewport.constructor({ viewBox: [0, 0, run.width, run.height], userUnit: 1, scale: viewport.scale, rotation: 0 });
				view.update({ scale: view.scale });
			}
	}

	#setModes() {
		const { way } = this;
		this.#viewer.scrollMode = scrollModes[way];
		this.#viewer.spreadMode = inPairs(way) ? (this.cover ? 2 : 1) : 0;
	}

	get page(): number {
		return this.#viewer.currentPageNumber;
	}

	get rotation(): number {
		return this.#viewer.pagesRotation;
	}

	/** Size of a page at 100 %, as it is turned, in CSS px. */
	pageBox(page: number): Box {
		const view = this.#viewer.getPageView(page - 1) as PageView;
		return { width: view.width / view.scale, height: view.height / view.scale };
	}

	/** Goes by the fit again: after a change of the window, of the way, or of the page's size. */
	refit() {
		if (this.#quiet || !this.#viewer.pagesCount) return;
		const { container, ground } = this.#asked;
		const { x, y } = ground();
		const pair = inPairs(this.way);
		const boxes = togetherWith(this.page, this.pdf.numPages, this.way, this.cover).map((page) => this.pageBox(page));
		const box = { width: Math.max(...boxes.map((b) => b.width)), height: Math.max(...boxes.map((b) => b.height)) };
		const room = { width: container.clientWidth - 2 * x, height: container.clientHeight - 2 * y };
		if (room.width <= 0 || room.height <= 0) return;
		const scale = scaleFor(this.fit, box, room, pair);
		if (Math.abs(scale - this.#viewer.currentScale) > 1e-4) this.#viewer.currentScale = scale;
		else this.#viewer.update();
	}

	setFit(fit: Fit | number) {
		this.fit = typeof fit === 'number' ? boundZoom(fit) : fit;
		this.refit();
	}

	/** Zooms around a point of the window, as a wheel or two fingers do. */
	zoomAround(factor: number, x: number, y: number) {
		const scale = boundZoom(this.#viewer.currentScale * factor * 100) / 100;
		this.fit = scale * 100;
		this.#viewer.updateScale({ scaleFactor: scale / this.#viewer.currentScale, drawingDelay: 300, origin: [x, y] } as never);
	}

	setWay(way: Way, cover: boolean) {
		const page = this.page;
		this.#quiet = true;
		this.way = way;
		this.cover = cover;
		this.#setModes();
		this.#quiet = false;
		this.#viewer.currentPageNumber = page;
		this.refit();
	}

	/** Turns all pages by quarters, clockwise. */
	turn(quarters: number) {
		this.#viewer.pagesRotation = (((this.rotation + 90 * quarters) % 360) + 360) % 360;
		this.refit();
	}

	go(page: number) {
		this.#viewer.currentPageNumber = Math.min(this.pdf.numPages, Math.max(1, Math.round(page)));
	}

	/** The page one step on, null at the end. */
	next(direction: 1 | -1): number | null {
		return stepFrom(this.page, this.pdf.numPages, this.way, this.cover, direction);
	}

	place(): Place {
		const location = (this.#viewer as unknown as { _location: { pageNumber: number; left: number; top: number } | null })._location;
		return location ? { page: location.pageNumber, left: location.left, top: location.top } : { page: this.page, left: 0, top: 0 };
	}

	return(place: Place) {
		this.#viewer.scrollPageIntoView({
			pageNumber: place.page,
			destArray: [null, { name: 'XYZ' }, place.left, place.top, null] as never,
			allowNegativeOffset: true
		});
	}

	/** Does what the fragment of an address asks for (RFC 8118); words to be found are the room's. */
	async obey({ page, nameddest, zoom, view, viewrect }: Fragment) {
		const count = this.pdf.numPages;
		if (nameddest) await this.#links.goToDestination(nameddest);
		const number = Math.min(page ?? this.page, count);
		if (page) this.go(number);
		if (!zoom && !view && !viewrect) return;
		const proxy = await this.#load(number);
		// distances run from the upper left corner of the page as it stands, turned by the file or not (RFC 8118, 3); destinations of the file
		// from the lower left of the page as it lies (ISO 32000-1, 12.3.2)
		const standing = proxy.getViewport({ scale: 1 });
		const to = (left: number | null, top: number | null) => [null, { name: 'XYZ' }, ...standing.convertToPdfPoint(left ?? 0, top ?? 0), null];
		let destination: unknown[] | null = null;
		if (zoom) {
			this.fit = boundZoom(zoom.scale);
			this.refit();
			if (zoom.left !== null || zoom.top !== null) destination = to(zoom.left, zoom.top);
		} else if (view) {
			this.setFit(view.kind === 'FitH' || view.kind === 'FitBH' ? 'width' : view.kind === 'FitV' || view.kind === 'FitBV' ? 'height' : 'page');
			if (view.offset !== null) destination = view.kind.endsWith('V') ? to(view.offset, null) : to(null, view.offset);
		} else if (viewrect) {
			const [left, from, width, height] = viewrect;
			const { container } = this.#asked;
			this.setFit(((Math.min(container.clientWidth / width, container.clientHeight / height) * 72) / 96) * 100);
			destination = to(left, from);
		}
		if (destination) this.#viewer.scrollPageIntoView({ pageNumber: number, destArray: destination as never, allowNegativeOffset: false });
	}

	/** Makes a page stand as its file has it: one that was not near yet is taken for one of its size that nobody turned. */
	async #load(number: number): Promise<PDFPageProxy> {
		const proxy = await this.pdf.getPage(number);
		const shown = this.#viewer.getPageView(number - 1) as PageView;
		if (!shown.pdfPage) shown.setPdfPage(proxy);
		return proxy;
	}

	/** The same for the page that a link of the file leads to, by a name or by what the name stands for (ISO 32000-1, 12.3.2). */
	async #loadTarget(destination: unknown): Promise<number | null> {
		const explicit = (typeof destination === 'string' ? await this.pdf.getDestination(destination) : await destination) as unknown[] | null;
		const target = explicit?.[0];
		if (target === undefined || target === null) return null;
		const index = typeof target === 'number' ? target : await this.pdf.getPageIndex(target as Parameters<PDFDocumentProxy['getPageIndex']>[0]);
		await this.#load(index + 1);
		return index + 1;
	}

	/** Gives a page that was gone to the focus, so that it is read on from there, once its text is here and if no tool got it meanwhile. */
	#attend(page: number): void {
		this.#attending?.abort();
		const { signal } = (this.#attending = new AbortController());
		const focus = () => this.elementOf(page)?.querySelector<HTMLElement>('.textLayer')?.focus({ preventScroll: true });
		const { renderingState } = this.#viewer.getPageView(page - 1) as PageView;
		if (renderingState === finished) return void focus();
		const heard = ({ pageNumber }: { pageNumber: number }) => {
			if (pageNumber !== page) return;
			this.#attending?.abort();
			const active = document.activeElement;
			if (active === document.body || this.#asked.container.contains(active)) focus();
		};
		this.#bus.on('textlayerrendered', heard as never, { signal } as never);
	}

	async find(options: FindOptions, again: 'next' | 'previous' | null = null) {
		const words = typeof options.words === 'string' ? [options.words] : options.words;
		if (!again && !(await this.#through.prepare(words, this.#viewer.currentPageNumber))) return;
		if (!again) this.#ledLater = false;
		this.#wanted = options;
		this.#bus.dispatch('find', {
			source: this,
			type: again ? 'again' : '',
			query: options.words,
			caseSensitive: options.sameCase,
			entireWord: options.wholeWords,
			matchDiacritics: options.sameAccents,
			highlightAll: true,
			findPrevious: again === 'previous'
		});
	}

	endFind() {
		this.#through.stop();
		this.#wanted = null;
		clearTimeout(this.#lookingAgain);
		this.#bus.dispatch('findbarclose', { source: this });
	}

	/** The finds of a page with the words around them. */
	async around(page: number): Promise<Around[]> {
		const { pageMatches, pageMatchesLength } = this.#finder as unknown as { pageMatches: number[][]; pageMatchesLength: number[][] };
		const { text, at: place } = await textOf(this.pdf, page);
		return (pageMatches[page - 1] ?? []).map((from, i) => {
			const start = place(from);
			return around(text, start, place(from + (pageMatchesLength[page - 1]?.[i] ?? 0)) - start);
		});
	}

	/** Leads to one of a page's finds. */
	choose(page: number, index: number) {
		const finder = this.#finder as unknown as { _offset: { pageIdx: number; matchIdx: number; wrapped: boolean } };
		finder._offset = { pageIdx: page - 1, matchIdx: index - 1, wrapped: false };
		if (this.#wanted) void this.find(this.#wanted, 'next');
	}

	#tellFound() {
		const finder = this.#finder as unknown as {
			pageMatches: (number[] | undefined)[];
			selected: { pageIdx: number; matchIdx: number };
			_resumePageIdx: number | null;
		};
		const pages = new Map<number, number>();
		let [count, at] = [0, 0];
		finder.pageMatches.forEach((matches, i) => {
			if (!matches?.length) return;
			if (finder.selected.pageIdx === i && finder.selected.matchIdx >= 0) at = count + finder.selected.matchIdx + 1;
			count += matches.length;
			pages.set(i + 1, matches.length);
		});
		// the finder had given up, and then the words stood on a page where the server knew nothing of them
		if (count && this.#wanted && !this.#ledLater && finder.selected.matchIdx < 0 && finder._resumePageIdx === null) {
			this.#ledLater = true;
			void this.find(this.#wanted, 'next');
		}
		let looked = 0;
		finder.pageMatches.forEach(() => looked++);
		const looking = looked < this.pdf.numPages;
		// a page without a find is told of by nobody
		clearTimeout(this.#lookingAgain);
		if (looking && this.#wanted) this.#lookingAgain = setTimeout(() => this.#tellFound(), 250);
		this.#events.find({ count, at, pages, looked, state: looking ? 'looking' : count ? 'found' : 'none' });
	}

	#tellSeen() {
		const { container } = this.#asked;
		const window = container.clientWidth * container.clientHeight;
		const { views } = (this.#viewer as unknown as { _getVisiblePages(): { views: { id: number; view: PageView; percent: number }[] } })._getVisiblePages();
		this.#events.seen(
			views.map(({ id, view, percent }) => ({ page: id, ofPage: percent / 100, ofWindow: window ? (view.width * view.height * percent) / 100 / window : 0 }))
		);
	}

	/** Drops drawings beyond what three screens need, those furthest away first. */
	#trim() {
		const { container } = this.#asked;
		const most = 3 * Math.max(1_500_000, container.clientWidth * container.clientHeight * (window.devicePixelRatio || 1) ** 2);
		const views = [...(this.#viewer.getCachedPageViews() as Set<PageView>)].map((view) => ({ view, pixels: pixelsOf(view) }));
		let all = views.reduce((sum, v) => sum + v.pixels, 0);
		if (all <= most) return;
		const { ids } = (this.#viewer as unknown as { _getVisiblePages(): { ids: Set<number> } })._getVisiblePages();
		const away = views.filter(({ view }) => !ids.has(view.id)).sort((a, b) => Math.abs(b.view.id - this.page) - Math.abs(a.view.id - this.page));
		for (const { view, pixels } of away) {
			if (all <= most) break;
			view.reset();
			all -= pixels;
		}
	}

	/** The canvas on which a page is drawn, where it is. */
	canvasOf(page: number): HTMLCanvasElement | null {
		const view = this.#viewer.getPageView(page - 1) as PageView | undefined;
		return view?.div.querySelector('canvas') ?? null;
	}

	elementOf(page: number): HTMLElement | null {
		return (this.#viewer.getPageView(page - 1) as PageView | undefined)?.div ?? null;
	}

	/** Tries again to draw pages that could not be. */
	again() {
		for (let i = 0; i < this.#viewer.pagesCount; i++) {
			const view = this.#viewer.getPageView(i) as PageView;
			if (view.div.classList.contains('broken')) {
				view.div.classList.remove('broken');
				view.reset();
			}
		}
		this.#viewer.update();
	}

	close() {
		this.#watch.disconnect();
		clearTimeout(this.#lookingAgain);
		this.#viewer.setDocument(null as never);
		this.#links.setDocument(null as never);
		this.#ended.abort();
		this.#close();
	}
}

interface PageView {
	readonly id: number;
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

const pixelsOf = (view: PageView): number => [...view.div.querySelectorAll('canvas')].reduce((sum, c) => sum + c.width * c.height, 0);

type TextPart = Awaited<ReturnType<PDFPageProxy['getTextContent']>>;

/** The document, whose pages give their text in the order in which it is read, each page's in one part. */
function inOrder(pdf: PDFDocumentProxy): PDFDocumentProxy {
	const known = new WeakSet<PDFPageProxy>();
	const get = pdf.getPage.bind(pdf);
	pdf.getPage = async (number) => {
		const page = await get(number);
		if (known.has(page)) return page;
		known.add(page);
		const stream = page.streamTextContent.bind(page);
		page.streamTextContent = (options) => {
			let whole: TextPart | undefined;
			return (stream(options) as ReadableStream<TextPart>).pipeThrough(
				new TransformStream<TextPart, TextPart>({
					transform(part) {
						if (!whole) whole = part;
						else {
							whole.items.push(...part.items);
							Object.assign(whole.styles, part.styles);
						}
					},
					flush(out) {
						if (whole) out.enqueue({ ...whole, items: inReadingOrder(whole.items) });
					}
				})
			);
		};
		return page;
	};
	return pdf;
}

/** A page's words with its line ends, and where in them a place stands that the finder counted without line ends. */
async function textOf(pdf: PDFDocumentProxy, page: number): Promise<{ text: string; at: (place: number) => number }> {
	const { items } = await (await pdf.getPage(page)).getTextContent({ disableNormalization: true });
	const ends: number[] = [];
	let [text, bare] = ['', 0];
	for (const item of items) {
		if (!('str' in item)) continue;
		text += item.str;
		bare += item.str.length;
		if (!item.hasEOL) continue;
		text += '\n';
		ends.push(bare);
	}
	return { text, at: (place) => place + ends.filter((end) => end <= place).length };
}

/** The components ask for words of their own; the room says all it says itself. */
const quietL10n = {
	getLanguage: () => 'en',
	getDirection: () => 'ltr',
	get: (_ids: unknown, _values: unknown, fallback: unknown) => Promise.resolve(fallback ?? ''),
	translate: () => Promise.resolve(),
	translateOnce: () => Promise.resolve(),
	destroy: () => Promise.resolve(),
	pause: () => undefined,
	resume: () => undefined
};
