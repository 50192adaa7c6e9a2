// pdf.js in this process, for what no program tells of a PDF: its tags, and where its pictures stand. Only in a helper process.
import { readFile, stat } from 'node:fs/promises';
import type { PDFDocumentProxy } from 'pdfjs-dist';

type Library = typeof import('pdfjs-dist');

/** Larger files are not held in memory for it, bytes. */
const largest = 80_000_000;

/** The library; its other half is in this process. */
export async function load(): Promise<Library> {
	// it says at once what it cannot draw with here, which nobody wants of it
	const { warn } = console;
	console.warn = () => {};
	try {
		// the other half of the library, in this process: it is one of its own already
		(globalThis as { pdfjsWorker?: unknown }).pdfjsWorker = (await import('pdfjs-dist/legacy/build/pdf.worker.mjs')) as unknown;
		return await import('pdfjs-dist/legacy/build/pdf.mjs');
	} finally {
		console.warn = warn;
	}
}

/** What `read` makes of the file at a path; null where it is too large to be read so. Throws what the library throws of a broken file. */
export async function withPdf<T>(path: string, read: (document: PDFDocumentProxy, library: Library) => Promise<T>): Promise<T | null> {
	if ((await stat(path)).size > largest) return null;
	const library = await load();
	const loading = library.getDocument({
		data: new Uint8Array(await readFile(path)),
		verbosity: 0,
		isEvalSupported: false,
		useSystemFonts: false,
		disableFontFace: true
	});
	try {
		return await read(await loading.promise, library);
	} finally {
		await loading.destroy();
	}
}
