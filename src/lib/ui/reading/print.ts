// Printing: each page drawn at 150 dots to the inch or more, on paper of its own size, over its words: who prints into a file gets text that can
// be found, copied and read aloud. Nothing else of the room is printed.
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';

/** Dots to the inch. */
export const printDots = 150;
/** Most pixels of one page: a poster is drawn coarser rather than not at all. */
const mostPixels = 40_000_000;
/** CSS px in a point. */
const pxInPoint = 96 / 72;

export interface PrintedPage {
	/** Points. */
	readonly width: number;
	readonly height: number;
	readonly url: string;
	/** Its words, each where it stands. */
	readonly text: HTMLElement;
}

/** The words of a page, laid out as they stand on it; none where they cannot be read. */
async function wordsOf(page: PDFPageProxy): Promise<HTMLElement> {
	const { TextLayer } = await import('pdfjs-dist');
	const container = document.createElement('div');
	container.className = 'textLayer';
	container.style.setProperty('--total-scale-factor', String(pxInPoint));
	container.style.setProperty('--scale-factor', String(pxInPoint));
	const layer = new TextLayer({ textContentSource: page.streamTextContent(), container, viewport: page.getViewport({ scale: pxInPoint }) });
	await layer.render().catch(() => undefined);
	return container;
}

/** Draws pages for the printer, one after the other, each into a picture with its words beneath. */
export async function drawForPrint(
	pdf: PDFDocumentProxy,
	pages: readonly number[],
	onPage: (done: number) => void,
	signal: AbortSignal
): Promise<PrintedPage[]> {
	const drawn: PrintedPage[] = [];
	const { AnnotationMode } = await import('pdfjs-dist');
	try {
		for (const [i, number] of pages.entries()) {
			signal.throwIfAborted();
			onPage(i + 1);
			const page = await pdf.getPage(number);
			// pages that come drawn have no form to fill in
			const filledIn = (pdf as Partial<PDFDocumentProxy>).annotationStorage;
			const { width, height } = page.getViewport({ scale: 1 });
			const scale = Math.min(printDots / 72, Math.sqrt(mostPixels / (width * height)));
			const viewport = page.getViewport({ scale });
			const canvas = document.createElement('canvas');
			[canvas.width, canvas.height] = [Math.ceil(viewport.width), Math.ceil(viewport.height)];
			await page.render({
				canvas,
				viewport,
				intent: 'print',
				annotationMode: AnnotationMode.ENABLE_STORAGE,
				...(filledIn ? { printAnnotationStorage: filledIn.print } : {})
			}).promise;
			const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
			canvas.width = canvas.height = 0;
			if (!blob) throw new Error(`page ${number} could not be drawn`);
			drawn.push({ width, height, url: URL.createObjectURL(blob), text: await wordsOf(page) });
		}
		return drawn;
	} catch (error) {
		forget(drawn);
		throw error;
	}
}

/** Gives the memory of printed pages back. */
export const forget = (pages: readonly PrintedPage[]): void => pages.forEach(({ url }) => URL.revokeObjectURL(url));

/** Lays drawn pages out for the printer and asks for it. Resolves when the browser's print window is closed. */
export async function printPages(pages: readonly PrintedPage[]): Promise<void> {
	const sizes = [...new Set(pages.map(sizeName))];
	const style = document.createElement('style');
	// words lie under the picture: they are in what is printed, and not seen twice
	style.textContent = `${sizes.map((size) => `@page ${size} { size: ${size.slice(1).replace('x', 'pt ').replaceAll('_', '.')}pt; margin: 0 }`).join('\n')}
@media print { body > :not(.printed) { display: none !important } .printed { display: block !important } html, body { height: auto !important; background: #fff !important } }
.printed { display: none }
.printed > div { position: relative; overflow: hidden; break-after: page; break-inside: avoid }
.printed > div:last-child { break-after: auto }
.printed .textLayer :is(span, br) { color: #000 }
.printed img { position: absolute; inset: 0; width: 100%; height: 100%; max-width: none; z-index: 1 }`;
	const holder = document.createElement('div');
	holder.className = 'printed';
	for (const page of pages) {
		const sheet = document.createElement('div');
		sheet.style.cssText = `width:${page.width}pt;height:${page.height}pt;page:${sizeName(page)}`;
		const image = new Image();
		image.src = page.url;
		image.alt = '';
		sheet.append(page.text, image);
		holder.append(sheet);
	}
	document.head.append(style);
	document.body.append(holder);
	try {
		await Promise.all([...holder.querySelectorAll('img')].map((image) => image.decode()));
		const closed = new Promise((done) => addEventListener('afterprint', done, { once: true }));
		window.print();
		await Promise.race([closed, new Promise((go) => setTimeout(go, 60_000))]);
	} finally {
		holder.remove();
		style.remove();
		forget(pages);
	}
}

const points = (n: number) => String(Math.round(n * 100) / 100).replace('.', '_');
const sizeName = ({ width, height }: PrintedPage) => `p${points(width)}x${points(height)}`;
