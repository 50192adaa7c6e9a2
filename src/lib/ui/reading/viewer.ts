// What stands between the reading room and the components of pdf.js: opens a document in them, turns its events into calls, and adds
// what is ours: fits, ways, memory, the pages seen.
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import { scaleFor, type Box } from '#core/reading/fit';
import type { Fragment } from '#core/reading/fragment';
import { besideEachOther, boundZoom, byTurns, inPairs, isFromRight, stepFrom, togetherWith, wayIn, type Fit, type Way } from '#core/reading/settings';
import type { Asked, Place, Start, ViewerEvents } from './asked';
import { stepBytes } from '#core/reading/opening';
import { Ranges } from './file-ranges';
import { Forms } from './forms';
import { leaves } from './leaves';
import { directionSaid, documentOptions, library, startWorker, type Library } from './library';
import { attending } from './attend';
import { drawAgain, drawCalmly, dropFarDrawings, markSeen, sharesSeen, sizePages } from './drawing';
import { Finder } from './finder';
import { partOf, showPart } from './keep-page';
import { inOrder } from './page-text';
import { layTint } from './tint';
import { nameLinks, pageLedTo } from './link-names';
import { endedBy, locationOf, muteOwn, pageView, quietL10n, scaleAround, visiblePages, type EventBus, type PageView, type PdfViewer } from './pdfjs-private';

const scrollModes: Record<Way, number> = { down: 0, across: 1, tiled: 2, 'one-by-one': 3, book: 3, turning: 3 };

type Opened = { pdf: PDFDocumentProxy; close: () => void };

/** The pages on screen, drawn by pdf.js. */
export class Viewer {
	readonly pdf: PDFDocumentProxy;
	readonly #asked: Asked;
	readonly #events: ViewerEvents;
	readonly #viewer: PdfViewer;
	readonly #bus: EventBus;
	readonly #links: InstanceType<Library['viewer']['PDFLinkService']>;
	/** Finds words in the document. */
	readonly finder: Finder;
	readonly #ended = new AbortController();
	readonly #close: () => void;
	readonly #watch: ResizeObserver;
	way: Way = 'down';
	cover = true;
	fit: Fit | number = 'page';
	/** Its pages follow each other from right to left. */
	fromRight = false;
	/** What was written into its fields. */
	readonly forms: Forms;
	#quiet = false;

	/** Opens the document; rejects where it cannot be opened. `start` is asked when all is there: meanwhile pages may be turned. */
	static async open(asked: Asked, events: ViewerEvents, start: () => Start): Promise<Viewer> {
		const ranges = asked.file === null ? null : new Ranges(asked.file, events);
		// the first bytes are on their way while the library loads
		const begun = ranges?.begin(asked.opening);
		begun?.catch(() => undefined);
		const port = ranges && startWorker();
		const lib = await library().catch((error: unknown) => {
			port?.terminate();
			throw error;
		});
		let opened: Opened;
		if (ranges) {
			// given wherever a file is fetched by ranges
			const { length, first } = await begun!;
			const task = lib.pdfjs.getDocument({
				...documentOptions,
				// its types know of no port that is given
				worker: new lib.pdfjs.PDFWorker({ port: port as unknown as undefined }),
				length,
				rangeChunkSize: stepBytes,
				range: ranges.transport(lib.pdfjs.PDFDataRangeTransport, length, first)
			});
			const pdf = inOrder(await task.promise);
			const page = pdf.getPage.bind(pdf);
			let closed = false;
			// a page still on its way when the room is closed does not come, and nobody waits for it: that is no trouble to tell of
			pdf.getPage = (number) => page(number).catch((error: unknown) => (closed ? new Promise<never>(() => undefined) : Promise.reject(error as Error)));
			opened = {
				pdf,
				close: () => {
					closed = true;
					ranges.close();
					void task.destroy().finally(() => port?.terminate());
				}
			};
		} else opened = { pdf: leaves(lib.pdfjs, asked.leaves, events), close: () => undefined };
		const viewer = new Viewer(lib, asked, events, opened);
		viewer.fromRight = isFromRight(ranges ? await directionSaid(opened.pdf) : null, asked.fromRight);
		await viewer.#begin(start());
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
		const findController = new viewer.PDFFindController({ linkService: links, eventBus: bus, updateMatchesCountOnProgress: true });
		this.finder = new Finder(pdf, bus, findController, normalize, {
			pagesWith: asked.pagesWith,
			at: () => this.page,
			tell: (state) => events.find(state),
			ended: this.#ended.signal
		});
		const screen = asked.container.clientWidth * asked.container.clientHeight * (window.devicePixelRatio || 1) ** 2;
		this.#viewer = new viewer.PDFViewer({
			container: asked.container,
			eventBus: bus,
			linkService: links,
			findController,
			annotationMode: pdfjs.AnnotationMode.ENABLE_FORMS,
			annotationEditorMode: pdfjs.AnnotationEditorType.DISABLE,
			imageResourcesPath: '/pdfjs/web/images/',
			// a page zoomed in is drawn as far as it is seen, over a coarser whole of at most one screen
			maxCanvasPixels: Math.max(1_500_000, screen),
			enableAutoLinking: false,
			// where pictures are is noted, and no other use made of it
			imagesRightClickMinSize: Infinity,
			l10n: quietL10n as never,
			...endedBy(this.#ended.signal)
		});
		links.setViewer(this.#viewer);
		const attend = attending(this.#viewer, bus, asked.container);
		const go = links.goToDestination.bind(links);
		links.goToDestination = async (destination) => {
			const from = this.place();
			const page = await this.#loadTarget(destination).catch(() => null);
			await go(destination);
			if (page !== null) attend(page);
			events.followed(from);
		};
		// the library focuses a page that was gone to when its text comes, however late, and scrolls to it once more: see attend.ts
		muteOwn(bus, 'textlayerrendered');
		drawCalmly(
			this.#viewer,
			asked.container,
			() => {
				this.#viewer.cleanup();
				// refused while a page is drawn again: it is let go the next time nothing is drawn
				this.pdf.cleanup().catch(() => {});
			},
			this.#ended.signal
		);
		nameLinks(pdf, bus, asked.linkName, this.#ended.signal);
		this.forms = new Forms(pdf, asked.container, bus, (unsaved) => events.written(unsaved), this.#ended.signal);
		this.#listen();
		this.#watch = new ResizeObserver(() => this.#resized());
		this.#watch.observe(asked.container);
	}

	#listen() {
		const on = (name: string, listener: (event: never) => void) => this.#bus.on(name, listener);
		on('pagechanging', () => {
			this.#tellPage();
			// the page that comes may have another size; it stands in its place only after this
			if (byTurns(this.way)) requestAnimationFrame(() => this.refit());
		});
		on('scalechanging', ({ scale }: { scale: number }) => this.#events.scale(Math.round(scale * 1000) / 10));
		on('pagerendered', ({ pageNumber, error, cssTransform }: { pageNumber: number; error: Error | null; cssTransform: boolean }) => {
			if (!cssTransform) this.#events.drawn(pageNumber, Boolean(error));
			if (error) this.elementOf(pageNumber)?.classList.add('broken');
			dropFarDrawings(this.#viewer, this.#asked.container);
			markSeen(this.#viewer);
		});
		on('textlayerrendered', ({ source }: { source: PageView }) => layTint(source));
		on('updateviewarea', () => {
			this.#tellPage();
			markSeen(this.#viewer);
			this.#events.seen(sharesSeen(this.#viewer, this.#asked.container));
		});
	}

	async #begin(start: Start) {
		const ready = new Promise<void>((done) => this.#bus.on('pagesinit', () => done(), { once: true }));
		this.#quiet = true;
		this.way = start.way;
		this.cover = start.cover;
		this.fit = start.fit;
		this.#setModes();
		this.#viewer.setDocument(this.pdf);
		this.#links.setDocument(this.pdf, null);
		await ready;
		for (let page = 1; page <= this.pdf.numPages; page++) {
			const element = this.elementOf(page);
			element?.setAttribute('aria-label', this.#asked.pageName(page));
			// as the library has it each page is a landmark: of thousands none would be one
			element?.setAttribute('role', 'group');
		}
		sizePages(this.#viewer, this.#asked.leaves.runs, this.pdf.numPages);
		this.#quiet = false;
		this.refit();
		if (start.page > 1) this.go(start.page);
	}

	/** The way in which pages are shown here: a narrow window shows one where there would be two. */
	get #shown(): Way {
		return wayIn(this.way, this.#asked.container.clientWidth);
	}
	#laidOut: Way = 'down';

	#resized() {
		if (this.#laidOut !== this.#shown && this.#viewer.pagesCount) this.#keeping(() => this.#setModes());
		else this.refit();
	}

	#setModes() {
		const way = (this.#laidOut = this.#shown);
		// at once, as what follows goes by where the pages lie
		this.#asked.container.querySelector('.pdfViewer')?.classList.toggle('by-turns', byTurns(way));
		this.#asked.container.dir = this.fromRight ? 'rtl' : 'ltr';
		this.#viewer.scrollMode = scrollModes[way];
		this.#viewer.spreadMode = inPairs(way) ? (this.cover ? 2 : 1) : 0;
	}

	/** The page that is read: where several stand beside each other, the one that was gone to as long as it is seen. */
	get page(): number {
		const { ids } = this.#held === null || !besideEachOther(this.way) ? { ids: new Set<number>() } : visiblePages(this.#viewer);
		return this.#held !== null && ids.has(this.#held) ? this.#held : this.#viewer.currentPageNumber;
	}
	#held: number | null = null;
	/** Where one begins is not told: nothing was turned. */
	#told = 1;

	#tellPage() {
		const { page } = this;
		if (this.#quiet || page === this.#told) return;
		this.#told = page;
		this.#events.page(page);
	}

	/** Does what lays the pages out anew, and has the page in view stay there: at the same part of it unless it is `turned`. */
	#keeping(change: () => void, turned = false) {
		const { page } = this;
		const { container } = this.#asked;
		const part = turned || byTurns(this.way) ? { x: 0, y: 0 } : partOf(container, this.elementOf(page));
		this.#quiet = true;
		change();
		this.#quiet = false;
		this.go(page);
		this.refit();
		if (!byTurns(this.way)) showPart(container, this.elementOf(page), part);
		this.#tellPage();
	}

	get rotation(): number {
		return this.#viewer.pagesRotation;
	}

	/** Size of a page at 100 %, as it is turned, in CSS px. */
	pageBox(page: number): Box {
		// pages of the document, which all have a view
		const view = pageView(this.#viewer, page)!;
		return { width: view.width / view.scale, height: view.height / view.scale };
	}

	/** Goes by the fit again: after a change of the window, of the way, or of the page's size. */
	refit() {
		if (this.#quiet || !this.#viewer.pagesCount) return;
		const { container, ground } = this.#asked;
		const { x, y } = ground();
		const way = this.#shown;
		const boxes = togetherWith(this.page, this.pdf.numPages, way, this.cover).map((page) => this.pageBox(page));
		const box = { width: Math.max(...boxes.map((b) => b.width)), height: Math.max(...boxes.map((b) => b.height)) };
		const room = { width: container.clientWidth - 2 * x, height: container.clientHeight - 2 * y };
		if (room.width <= 0 || room.height <= 0) return;
		// pages that are turned are seen whole, unless somebody wants it otherwise
		const fit = this.fit === 'comfortable' && byTurns(this.way) ? 'page' : this.fit;
		const scale = scaleFor(fit, box, room, inPairs(way));
		if (Math.abs(scale - this.#viewer.currentScale) > 1e-4) this.#viewer.currentScale = scale;
		else this.#viewer.update();
	}

	setFit(fit: Fit | number) {
		this.#keeping(() => (this.fit = typeof fit === 'number' ? boundZoom(fit) : fit));
	}

	/** Zooms around a point of the window, as a wheel or two fingers do. */
	zoomAround(factor: number, x: number, y: number) {
		const scale = boundZoom(this.#viewer.currentScale * factor * 100) / 100;
		this.fit = scale * 100;
		scaleAround(this.#viewer, scale / this.#viewer.currentScale, x, y);
	}

	setWay(way: Way, cover: boolean) {
		this.#keeping(() => {
			this.way = way;
			this.cover = cover;
			this.#setModes();
		});
	}

	/** Turns all pages by quarters, clockwise. */
	turn(quarters: number) {
		this.#keeping(() => (this.#viewer.pagesRotation = (((this.rotation + 90 * quarters) % 360) + 360) % 360), true);
	}

	go(page: number) {
		this.#held = Math.min(this.pdf.numPages, Math.max(1, Math.round(page)));
		this.#viewer.currentPageNumber = this.#held;
	}

	/** The page one step on, null at the end. */
	next(direction: 1 | -1): number | null {
		return stepFrom(this.page, this.pdf.numPages, this.#shown, this.cover, direction);
	}

	place(): Place {
		const location = locationOf(this.#viewer);
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
		const to = (left: number | null, top: number | null) => [null, { name: 'XYZ' }, ...(standing.convertToPdfPoint(left ?? 0, top ?? 0) as number[]), null];
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
		// pages of the document, which all have a view
		const shown = pageView(this.#viewer, number)!;
		if (!shown.pdfPage) shown.setPdfPage(proxy);
		return proxy;
	}

	/** The same for the page that a link of the file leads to. */
	async #loadTarget(destination: unknown): Promise<number | null> {
		const page = await pageLedTo(this.pdf, destination);
		if (page !== null) await this.#load(page);
		return page;
	}

	/** The canvas on which a page is drawn, where it is. */
	canvasOf(page: number): HTMLCanvasElement | null {
		return this.elementOf(page)?.querySelector('canvas') ?? null;
	}

	elementOf(page: number): HTMLElement | null {
		return pageView(this.#viewer, page)?.div ?? null;
	}

	/** Tries again to draw pages that could not be. */
	again() {
		drawAgain(this.#viewer);
	}

	close() {
		this.#watch.disconnect();
		this.#viewer.setDocument(null as never);
		this.#links.setDocument(null);
		this.#ended.abort();
		this.#close();
	}
}
