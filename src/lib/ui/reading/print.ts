// Printing: each page drawn at 150 dots to the inch or more, on paper of its own size. Nothing else of the room is printed.
import type { PDFDocumentProxy } from 'pdfjs-dist';

/** Dots to the inch. */
export const printDots = 150;
/** Most pixels of one page: a poster is drawn coarser rather than not at all. */
const mostPixels = 40_000_000;

export interface PrintedPage {
	/** Points. */
	readonly width: number;
	readonly height: number;
	readonly url: string;
}

/** Draws pages for the printer, one after the other, each into a picture. */
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
			drawn.push({ width, height, url: URL.createObjectURL(blob) });
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
	style.textContent = `${sizes.map((size) => `@page ${size} { size: ${size.slice(1).replace('x', 'pt ').replaceAll('_', '.')}pt; margin: 0 }`).join('\n')}
@media print { body > :not(.printed) { display: none !important } .printed { display: block !important } html, body { height: auto !important; background: #fff !important } }
.printed { display: none }
.printed img { display: block; break-after: page; break-inside: avoid; max-width: none }
.printed img:last-child { break-after: auto }`;
	const holder = document.createElement('div');
	holder.className = 'printed';
	for (const page of pages) {
		const image = new Image();
		image.src = page.url;
		image.alt = '';
		image.style.cssText = `width:${page.width}pt;height:${page.height}pt;page:${sizeName(page)}`;
		holder.append(image);
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
