// A zip that is sent while it is made. Files are stored as they are (.ZIP File Format Specification, 4.4.5, method 0): what is in a PDF is packed already.
import { Zip, ZipPassThrough } from 'fflate';
import { Readable } from 'node:stream';

/** Most bytes of files in one: without its extension for 64 bits a zip counts them in 32. */
export const mostZippedBytes = 4_000_000_000;

export interface ZipFile {
	/** As it is called in the zip. */
	readonly name: string;
	readonly bytes: AsyncIterable<Uint8Array>;
	readonly changed?: Date;
}

/** The answer that is a zip of files, called so. A file that fails on the way ends what is sent: half a zip is none. */
export function zipAnswer(files: AsyncIterable<ZipFile>, name: string): Response {
	return new Response(Readable.toWeb(Readable.from(zipped(files))) as ReadableStream, {
		headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="${name}"`, 'cache-control': 'no-store' }
	});
}

async function* zipped(files: AsyncIterable<ZipFile>): AsyncGenerator<Uint8Array> {
	let ready: Uint8Array[] = [];
	let broken: Error | null = null;
	const zip = new Zip((error, chunk) => {
		broken = error ?? broken;
		ready.push(chunk);
	});
	const taken = () => {
		if (broken) throw broken;
		const now = ready;
		ready = [];
		return now;
	};
	for await (const { name, bytes, changed } of files) {
		const entry = new ZipPassThrough(name);
		if (changed) entry.mtime = changed;
		zip.add(entry);
		for await (const chunk of bytes) {
			entry.push(chunk);
			yield* taken();
		}
		entry.push(new Uint8Array(0), true);
		yield* taken();
	}
	zip.end();
	yield* taken();
}
