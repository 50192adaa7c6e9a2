// Several documents in one zip. Each goes by the chain as if it were saved by itself: its decision, and its entry in the ledger before its first
// byte. They are stored as they are (.ZIP File Format Specification, 4.4.5, method 0): what is in a PDF is packed already.
import { Zip, ZipPassThrough } from 'fflate';
import { Readable } from 'node:stream';
import { IanuaError } from '#core/errors';
import { namesInZip } from '#core/reading/zip-names';
import { answerFile, type FileRequest } from './chain';
import { partOf } from './deliver';
import { resolveAll } from './resolve';

/** Most documents that are zipped at once, and most bytes: without its extension for 64 bits a zip counts them in 32. */
export const mostZipped = { documents: 1000, bytes: 4_000_000_000 };

/**
 * What is sent for documents that are saved together, `name` what the zip is called. Throws `not-found` where one is not there, `not-valid` where
 * they are too many or too large. A file that fails on the way ends what is sent: half a zip is none.
 */
export async function zipOf(asks: readonly FileRequest[], name: string): Promise<Response> {
	if (asks.length > mostZipped.documents) throw new IanuaError('not-valid', { detail: `at most ${mostZipped.documents} documents go into one zip` });
	const found = await resolveAll(asks.map(({ slug }) => slug));
	const documents = asks.map((ask) => {
		const document = found.get(ask.slug);
		if (!document || document.gone) throw new IanuaError('not-found');
		return { ask: saving({ ...ask, slug: document.slug }), edition: document.edition };
	});
	if (documents.reduce((sum, { edition }) => sum + edition.bytes, 0) > mostZipped.bytes)
		throw new IanuaError('not-valid', { detail: 'these documents are more than 4 GB together: choose fewer' });
	const names = namesInZip(documents.map(({ edition }) => edition.fileName));
	const stream = Readable.from(zipped(documents.map(({ ask, edition }, n) => ({ ask, name: names[n] ?? '', changed: edition.createdAt }))));
	return new Response(Readable.toWeb(stream) as ReadableStream, {
		headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="${name}"`, 'cache-control': 'no-store' }
	});
}

/** The same request, for the whole file, to be saved. */
function saving(ask: FileRequest): FileRequest {
	const query = new URLSearchParams(ask.query);
	query.set('save', '');
	return { ...ask, method: 'GET', query, header: (name) => (/^(?:range|if-)/.test(name) ? null : ask.header(name)) };
}

async function* zipped(entries: readonly { ask: FileRequest; name: string; changed: Date }[]): AsyncGenerator<Uint8Array> {
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
	for (const { ask, name, changed } of entries) {
		const { file, sent } = await answerFile(ask);
		if (!file) throw new IanuaError('not-found');
		try {
			const part = await partOf(file);
			const entry = new ZipPassThrough(name);
			entry.mtime = changed;
			zip.add(entry);
			for await (const chunk of part as AsyncIterable<Buffer>) {
				entry.push(chunk);
				yield* taken();
			}
			entry.push(new Uint8Array(0), true);
			yield* taken();
		} finally {
			sent?.();
		}
	}
	zip.end();
	yield* taken();
}
