// Several documents in one zip. Each goes by the chain as if it were saved by itself: its decision, and its entry in the ledger before its first
// byte.
import { IanuaError } from '#core/errors';
import { namesInZip } from '#core/reading/zip-names';
import { mostZippedBytes, zipAnswer, type ZipFile } from '../http/zip';
import { answerFile, type FileRequest } from './chain';
import { partOf } from './deliver';
import { resolveAll } from './resolve';

/** Most documents that are zipped at once, and most bytes. */
export const mostZipped = { documents: 1000, bytes: mostZippedBytes };

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
	return zipAnswer(filesOf(documents.map(({ ask, edition }, n) => ({ ask, name: names[n] ?? '', changed: edition.createdAt }))), name);
}

/** The same request, for the whole file, to be saved. */
function saving(ask: FileRequest): FileRequest {
	const query = new URLSearchParams(ask.query);
	query.set('save', '');
	return { ...ask, method: 'GET', query, header: (name) => (/^(?:range|if-)/.test(name) ? null : ask.header(name)) };
}

/** Each by the chain, while it is asked for: what it is entered with ends when its bytes are through. */
async function* filesOf(documents: readonly { ask: FileRequest; name: string; changed: Date }[]): AsyncGenerator<ZipFile> {
	for (const { ask, name, changed } of documents) {
		const { file, sent } = await answerFile(ask);
		if (!file) throw new IanuaError('not-found');
		try {
			yield { name, changed, bytes: (await partOf(file)) as AsyncIterable<Buffer> };
		} finally {
			sent?.();
		}
	}
}
