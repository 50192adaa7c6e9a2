// Where the reading room's pages come from: pdf.js where the file may leave, pictures from the server where it may not.
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';

/** A page drawn into a holder: its canvas or picture, and its text where there is one. `scale` is CSS px per PDF point. */
export interface PageSource {
	readonly pages: number;
	/** Width and height in points, as shown upright. */
	size(page: number): Promise<{ width: number; height: number }>;
	draw(page: number, scale: number, holder: HTMLElement, signal: AbortSignal): Promise<void>;
	close(): void;
}

/** Reads the file by ranges, only as much as the pages shown need. */
export async function fileSource(address: string, onProgress: (share: number) => void): Promise<PageSource> {
	const pdfjs = await import('pdfjs-dist');
	const worker = await import('pdfjs-dist/build/pdf.worker.min.mjs?url');
	pdfjs.GlobalWorkerOptions.workerSrc = worker.default;
	const task = pdfjs.getDocument({
		url: address,
		disableAutoFetch: true,
		disableStream: true,
		rangeChunkSize: 65_536,
		isEvalSupported: false,
		enableXfa: false,
		useSystemFonts: false,
		standardFontDataUrl: '/pdfjs/standard_fonts/',
		cMapUrl: '/pdfjs/cmaps/',
		cMapPacked: true,
		wasmUrl: '/pdfjs/wasm/',
		iccUrl: '/pdfjs/iccs/'
	});
	task.onProgress = ({ loaded, total }: { loaded: number; total: number }) => {
		if (total > 0) onProgress(Math.min(1, loaded / total));
	};
	const pdf: PDFDocumentProxy = await task.promise;
	const open = new Map<number, Promise<PDFPageProxy>>();
	const page = (n: number) => {
		const known = open.get(n) ?? pdf.getPage(n);
		open.set(n, known);
		return known;
	};
	return {
		pages: pdf.numPages,
		size: async (n) => {
			const { width, height } = (await page(n)).getViewport({ scale: 1 });
			return { width, height };
		},
		draw: async (n, scale, holder, signal) => {
			const proxy = await page(n);
			if (signal.aborted) return;
			const viewport = proxy.getViewport({ scale });
			const dense = Math.min(window.devicePixelRatio || 1, 3);
			const canvas = document.createElement('canvas');
			canvas.width = Math.floor(viewport.width * dense);
			canvas.height = Math.floor(viewport.height * dense);
			canvas.style.cssText = `width:${viewport.width}px;height:${viewport.height}px`;
			canvas.setAttribute('aria-hidden', 'true');
			const drawing = proxy.render({ canvas, viewport, transform: dense === 1 ? undefined : [dense, 0, 0, dense, 0, 0] });
			const stop = () => drawing.cancel();
			signal.addEventListener('abort', stop);
			await drawing.promise;
			signal.removeEventListener('abort', stop);
			if (signal.aborted) return;
			const text = document.createElement('div');
			text.className = 'textLayer';
			text.style.setProperty('--total-scale-factor', String(scale));
			holder.replaceChildren(canvas, text);
			await new pdfjs.TextLayer({ textContentSource: proxy.streamTextContent(), container: text, viewport }).render();
		},
		close: () => void task.destroy()
	};
}

interface LeafText {
	readonly width: number;
	readonly lines: readonly { x: number; y: number; width: number; height: number; text: string }[];
}

let ruler: CanvasRenderingContext2D | null = null;

/** Lays the lines of a page over its picture, unseen, each stretched to the place where it stands. `across` is the picture's width in CSS px. */
function layWords(page: LeafText, layer: HTMLElement, across: number): void {
	ruler ??= document.createElement('canvas').getContext('2d');
	const scale = across / page.width;
	for (const { x, y, width, height, text } of page.lines) {
		const line = document.createElement('span');
		line.textContent = text;
		// a line that runs down the page is laid on its side
		const down = height > 1.5 * width && text.length > 2;
		const [long, high] = (down ? [height, width] : [width, height]).map((n) => n * scale) as [number, number];
		const size = Math.max(1, high * 0.8);
		ruler!.font = `${size}px sans-serif`;
		const natural = ruler!.measureText(text).width || 1;
		const place = down
			? `left:${(x + width) * scale}px;transform:rotate(90deg) scaleX(${long / natural})`
			: `left:${x * scale}px;transform:scaleX(${long / natural})`;
		line.style.cssText = `${place};top:${y * scale}px;font-size:${size}px;line-height:${high}px`;
		layer.append(line, document.createElement('br'));
	}
}

/** Pictures of pages from the server: no request ever gets the file. */
export function pictureSource(slug: string, from: string, sizes: readonly { width: number; height: number; pages: number }[], pages: number): PageSource {
	const first = sizes[0] ?? { width: 595, height: 842 };
	const measured = new Map<number, { width: number; height: number }>();
	return {
		pages,
		size: (n) => Promise.resolve(measured.get(n) ?? first),
		draw: async (n, scale, holder, signal) => {
			const { width } = measured.get(n) ?? first;
			const image = new Image();
			// the words lie over it as text; the picture says nothing more
			image.alt = '';
			image.draggable = false;
			image.src = `/d/${slug}/leaf/${n}.webp?w=${Math.ceil(width * scale * Math.min(window.devicePixelRatio || 1, 2))}${from}`;
			await image.decode();
			if (signal.aborted) return;
			// the picture shows the page's own shape, whatever the first page's is
			const shape = { width: first.width, height: (first.width * image.naturalHeight) / image.naturalWidth };
			if (!measured.has(n)) measured.set(n, shape);
			image.style.cssText = `width:${shape.width * scale}px;height:${shape.height * scale}px`;
			const text = document.createElement('div');
			text.className = 'words';
			holder.replaceChildren(image, text);
			// the picture is there at once; its words come as soon as they can
			const answer = await fetch(`/d/${slug}/leaf/${n}.json${from.replace(/^&/, '?')}`, { signal }).catch(() => null);
			if (!answer?.ok || signal.aborted) {
				image.alt = `Page ${n}, as a picture`;
				return;
			}
			layWords((await answer.json()) as LeafText, text, shape.width * scale);
		},
		close: () => {}
	};
}
