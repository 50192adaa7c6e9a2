// Which parts of a file its first page takes: a reading room then asks for them all at once, and not for each when the one before has
// come. Only in a helper process, as a piece of work of its own: a file may well keep pdf.js busy, or break it.
import { open, stat } from 'node:fs/promises';
import { stepBytes } from '#core/reading/opening';
import { load } from './library';

/** More than so many steps are not told: what draws the first page so slowly is not mended by asking sooner. */
const mostSteps = 48;
/** A file that has not drawn its first page after so long tells none, ms. */
const patience = 5_000;

/**
 * The steps (0-based, of `stepBytes` each) that pdf.js reads of the file at a path until it knows what stands on page 1, in their order. Empty
 * where it does not come so far.
 */
export async function openingSteps(path: string): Promise<number[]> {
	// of a small one a reading room fetches the beginning and the end at once, and that is all of it
	if ((await stat(path)).size <= 2 * stepBytes) return [];
	const library = await load();
	const file = await open(path, 'r');
	const steps = new Set<number>();
	const read = async (begin: number, end: number): Promise<Uint8Array> => {
		for (let step = Math.floor(begin / stepBytes); step * stepBytes < end; step++) steps.add(step);
		const bytes = new Uint8Array(end - begin);
		await file.read(bytes, 0, bytes.length, begin);
		return bytes;
	};
	let loading: ReturnType<typeof library.getDocument> | undefined;
	try {
		const length = (await file.stat()).size;
		class Transport extends library.PDFDataRangeTransport {
			override requestDataRange(begin: number, end: number) {
				void read(begin, end)
					.then((bytes) => this.onDataRange(begin, bytes))
					// the reading ends by its patience
					.catch(() => undefined);
			}
		}
		loading = library.getDocument({
			range: new Transport(length, await read(0, Math.min(length, stepBytes))),
			length,
			rangeChunkSize: stepBytes,
			disableAutoFetch: true,
			disableStream: true,
			verbosity: 0,
			isEvalSupported: false,
			useSystemFonts: false,
			disableFontFace: true
		});
		const drawn = (async (pdf) => {
			const document = await pdf;
			const page = await document.getPage(1);
			// what a reading room asks for besides
			await Promise.all([page.getOperatorList(), page.getAnnotations(), document.getViewerPreferences(), document.getPermissions()]);
		})(loading.promise);
		drawn.catch(() => undefined);
		const clock = new Promise<never>((_, stop) => setTimeout(() => stop(new Error('too long')), patience).unref());
		await Promise.race([drawn, clock]);
		return steps.size > mostSteps ? [] : [...steps];
	} catch {
		return [];
	} finally {
		await loading?.destroy();
		await file.close();
	}
}
