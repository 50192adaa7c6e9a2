// pdf.js and its viewer components, loaded when a room opens.
import type { PDFDocumentProxy } from 'pdfjs-dist';
import worker from 'pdfjs-dist/build/pdf.worker.mjs?worker&url';

/** pdf.js and its viewer, fetched once, when first needed. */
export async function library() {
	const { pdfjs, viewer } = await import('./pdfjs');
	// given beside the rest by scripts/trim-pdfjs.ts
	// the viewer's build has it, its types do not
	const { normalize } = viewer as unknown as { normalize: (text: string) => [string, unknown, boolean] };
	return { pdfjs, viewer, normalize };
}
export type Library = Awaited<ReturnType<typeof library>>;

/** The library's worker, which reads the file: it is fetched beside the library, not after it. */
export const startWorker = () => new Worker(worker, { type: 'module' });

/** A line that has not brought the room's own script so long after the page was asked for is slow, ms. */
const slowAfter = 2500;
/** No longer than so is the picture of the page waited for, ms. */
const mostWaited = 8000;

/**
 * Resolves at once on a usual line. On a slow one, when the picture of the page that stands there to begin with has come: the library and the
 * file would come between, and take the better part of a minute.
 */
export async function pictureFirst(picture: HTMLImageElement | null): Promise<void> {
	if (!picture || picture.complete || performance.now() < slowAfter) return;
	await Promise.race([picture.decode().catch(() => undefined), new Promise((done) => setTimeout(done, mostWaited))]);
}

/** Where what pdf.js needs besides lies, and what it must never do. */
export const documentOptions = {
	disableAutoFetch: true,
	disableStream: true,
	isEvalSupported: false,
	enableXfa: false,
	useSystemFonts: false,
	standardFontDataUrl: '/pdfjs/standard_fonts/',
	cMapUrl: '/pdfjs/cmaps/',
	cMapPacked: true,
	wasmUrl: '/pdfjs/wasm/',
	iccUrl: '/pdfjs/iccs/'
} as const;

/** In which direction the file says that its pages follow each other, 'L2R' or 'R2L' (ISO 32000-1, 12.2); null where it says nothing. */
export async function directionSaid(pdf: PDFDocumentProxy): Promise<string | null> {
	const preferences: unknown = await pdf.getViewerPreferences().catch(() => null);
	const said = typeof preferences === 'object' && preferences !== null && 'Direction' in preferences ? preferences.Direction : null;
	return typeof said === 'string' ? said : null;
}
