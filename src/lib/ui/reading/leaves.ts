// A document whose file does not leave: its pages as pictures from the server with their words, in the shape of the document that the
// components of pdf.js show. No request of it ever gets the file.
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import type { TextContent, TextItem } from 'pdfjs-dist/types/src/display/api';
import { sizeOfPage, type Box } from '#core/reading/fit';
import type { RangeEvents } from './file-ranges';

interface LeafText {
	readonly width: number;
	readonly height: number;
	readonly lines: readonly { x: number; y: number; width: number; height: number; text: string }[];
	readonly pictures: readonly number[];
}

type Library = typeof import('pdfjs-dist');
interface ViewportAsked {
	scale: number;
	rotation?: number;
	offsetX?: number;
	offsetY?: number;
	dontFlip?: boolean;
}
type PageViewport = ReturnType<PDFPageProxy['getViewport']>;
type ViewportMaker = new (of: {
	viewBox: number[];
	userUnit: number;
	scale: number;
	rotation: number;
	offsetX: number;
	offsetY: number;
	dontFlip: boolean;
}) => PageViewport;

export interface LeavesOf {
	readonly slug: string;
	/** Goes at the end of each address: '&e=1&from=…'. */
	readonly suffix: string;
	readonly pages: number;
	readonly runs: readonly (Box & { readonly pages: number })[];
}

const turnedAway = new Set([401, 403, 404, 410]);

/** One page: what the viewer's components call of a PDFPageProxy. */
class Leaf {
	readonly pageNumber: number;
	readonly rotate = 0;
	readonly userUnit = 1;
	readonly view: number[];
	readonly ref = null;
	readonly isPureXfa = false;
	readonly stats = null;
	/** Where its pictures stand, once its words are there. */
	pictures: readonly number[] = [];
	readonly #of: LeavesOf;
	readonly #library: Library;
	readonly #events: RangeEvents;
	readonly #size: Box;
	readonly #Viewport: ViewportMaker;
	#text: Promise<TextContent> | undefined;

	constructor(library: Library, given: LeavesOf, number: number, events: RangeEvents) {
		this.#library = library;
		this.#of = given;
		this.#events = events;
		// the class of viewports is not exported by its name
		const any = library.getXfaPageViewport({ attributes: { style: { width: '1', height: '1' } } }, { scale: 1, rotation: 0 });
		this.#Viewport = any.constructor as ViewportMaker;
		this.pageNumber = number;
		this.#size = sizeOfPage(number, given.runs);
		this.view = [0, 0, this.#size.width, this.#size.height];
	}

	getViewport({ scale, rotation = 0, offsetX = 0, offsetY = 0, dontFlip = false }: ViewportAsked): PageViewport {
		return new this.#Viewport({ viewBox: this.view, userUnit: 1, scale, rotation, offsetX, offsetY, dontFlip });
	}

	async #picture(width: number, signal: AbortSignal): Promise<ImageBitmap> {
		const address = `/d/${this.#of.slug}/leaf/${this.pageNumber}.webp?w=${width}${this.#of.suffix}`;
		for (let tried = 0; ; tried++) {
			try {
				const answer = await fetch(address, { signal });
				if (answer.ok) {
					if (tried) this.#events.lost(false);
					return await createImageBitmap(await answer.blob());
				}
				if (turnedAway.has(answer.status)) {
					this.#events.refused('withdrawn');
					throw new DOMException('turned away', 'AbortError');
				}
				if (answer.status < 500 && answer.status !== 429) throw new Error(`the page could not be drawn (${answer.status})`);
			} catch (error) {
				if (!(error instanceof TypeError)) throw error;
			}
			if (!tried) this.#events.lost(true);
			await new Promise((go) => setTimeout(go, Math.min(8000, 500 * 2 ** tried)));
			signal.throwIfAborted();
		}
	}

	render({ canvas, viewport, transform }: { canvas: HTMLCanvasElement; viewport: PageViewport; transform?: number[] | null }) {
		const stop = new AbortController();
		const draw = async () => {
			const dense = transform?.[0] ?? 1;
			const upright = viewport.rotation % 180 === 0;
			const across = (upright ? viewport.width : viewport.height) * dense;
			const picture = await this.#picture(Math.ceil(across), stop.signal);
			// eslint-disable-next-line @typescript-eslint/only-throw-error -- the library's own sign, which is no Error
			if (stop.signal.aborted) throw new this.#library.RenderingCancelledException('closed', 0);
			// a canvas without another context has this one
			const context = canvas.getContext('2d')!;
			context.save();
			context.setTransform(...((transform ?? [1, 0, 0, 1, 0, 0]) as [number, number, number, number, number, number]));
			context.translate(viewport.width / 2, viewport.height / 2);
			context.rotate((viewport.rotation * Math.PI) / 180);
			const [width, height] = upright ? [viewport.width, viewport.height] : [viewport.height, viewport.width];
			context.drawImage(picture, -width / 2, -height / 2, width, height);
			context.restore();
			picture.close();
		};
		return {
			promise: draw().catch((error: unknown) => {
				// eslint-disable-next-line @typescript-eslint/only-throw-error -- the library's own sign, which is no Error
				if ((error as Error).name === 'AbortError') throw new this.#library.RenderingCancelledException('stopped', 0);
				throw error;
			}),
			separateAnnots: false,
			onContinue: null,
			onError: null,
			imageCoordinates: null,
			cancel: () => stop.abort()
		};
	}

	/** The lines of the page as pdf.js gives text: from the page's lower left corner, in points. */
	getTextContent(): Promise<TextContent> {
		this.#text ??= this.#words().catch((error: unknown) => {
			this.#text = undefined;
			throw error;
		});
		return this.#text;
	}

	async #words(): Promise<TextContent> {
		const answer = await fetch(`/d/${this.#of.slug}/leaf/${this.pageNumber}.json${this.#of.suffix.replace(/^&/, '?')}`);
		const leaf = answer.ok ? ((await answer.json()) as LeafText) : { width: this.#size.width, height: this.#size.height, lines: [], pictures: [] };
		this.pictures = leaf.pictures;
		const [x1, y1] = [this.#size.width / leaf.width, this.#size.height / leaf.height];
		const items = leaf.lines.map(({ x, y, width, height, text }): TextItem => {
			// a line that runs down the page is laid on its side
			const down = height > 1.5 * width && text.length > 2;
			const size = (down ? width : height) * 0.8;
			const base = this.#size.height - (y + height * (down ? 0 : 0.8)) * y1;
			return {
				str: text,
				dir: /[\u0590-\u08ff]/.test(text) ? 'rtl' : 'ltr',
				width: (down ? height : width) * x1,
				height: size,
				transform: down ? [0, -size, size, 0, x * x1 + width * 0.2, base] : [size, 0, 0, size, x * x1, base],
				fontName: 'line',
				hasEOL: true
			};
		});
		return { items, styles: { line: { ascent: 0.8, descent: -0.2, vertical: false, fontFamily: 'sans-serif' } }, lang: null };
	}

	streamTextContent(): ReadableStream<TextContent> {
		return new ReadableStream({
			start: async (stream) => {
				try {
					stream.enqueue(await this.getTextContent());
					stream.close();
				} catch (error) {
					stream.error(error);
				}
			}
		});
	}

	getAnnotations = () => Promise.resolve([]);
	getStructTree = () => Promise.resolve(null);
	getJSActions = () => Promise.resolve(null);
	getXfa = () => Promise.resolve(null);
	cleanup = () => true;
}

/** A document of pictures; `destroy` ends it. */
export function leaves(library: Library, given: LeavesOf, events: RangeEvents): PDFDocumentProxy {
	const open = new Map<number, Leaf>();
	const page = (number: number): Leaf => {
		const known = open.get(number) ?? new Leaf(library, given, number, events);
		open.set(number, known);
		return known;
	};
	const nothing = () => Promise.resolve(null);
	const made = {
		numPages: given.pages,
		fingerprints: [given.slug, null],
		loadingParams: { disableAutoFetch: true, enableXfa: false },
		isPureXfa: false,
		allXfaHtml: null,
		annotationStorage: null,
		pagesMapper: { pagesNumber: given.pages },
		// of a page, what pdf.js's viewer asks for
		getPage: (number: number) => Promise.resolve(page(number) as unknown as PDFPageProxy),
		getPageIndex: () => Promise.resolve(0),
		cachedPageNumber: () => null,
		getOptionalContentConfig: () => Promise.resolve({ hasInitialVisibility: true, isVisible: () => true }),
		getMetadata: () => Promise.resolve({ info: {}, metadata: null }),
		getPermissions: nothing,
		getFieldObjects: nothing,
		hasJSActions: () => Promise.resolve(false),
		getOutline: nothing,
		getDestination: nothing,
		getDestinations: nothing,
		getAttachments: nothing,
		getPageLabels: nothing,
		getOpenAction: nothing,
		getViewerPreferences: nothing,
		cleanup: nothing,
		destroy: nothing
	};
	// of a document, what pdf.js's viewer asks for
	return made as unknown as PDFDocumentProxy;
}
