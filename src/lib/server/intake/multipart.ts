// Reads a multipart/form-data body as it arrives: the file goes on as a stream, it is never held in memory.
import busboy from 'busboy';
import { Readable } from 'node:stream';
import type { ReadableStream as WebStream } from 'node:stream/web';
import { IanuaError } from '#core/errors';

export interface Upload {
	readonly fileName: string;
	readonly stream: AsyncIterable<Uint8Array>;
	/** The text fields; whole once the stream has ended. */
	readonly fields: Record<string, string>;
}

/** Gives `use` the field “file” of a form as a stream. Fields before and after the file are read; other files are refused. */
export async function withUpload<T>(request: Request, use: (upload: Upload) => Promise<T>): Promise<T> {
	const type = request.headers.get('content-type') ?? '';
	if (!/^multipart\/form-data\s*;/i.test(type) || !request.body) throw new IanuaError('no-file');
	const fields: Record<string, string> = {};
	let parser: busboy.Busboy;
	try {
		parser = busboy({ headers: { 'content-type': type }, defParamCharset: 'utf8', limits: { fields: 20, fieldSize: 10_000, files: 1 } });
	} catch {
		throw new IanuaError('no-file');
	}
	const source = quiet(Readable.fromWeb(request.body as WebStream<Uint8Array>));
	return new Promise<T>((resolve, reject) => {
		let used: Promise<T> | undefined;
		let current: Readable | undefined;
		const fail = (error: Error) => {
			// whoever reads the file is told by the stream that its end is missing
			current?.destroy(error);
			source.unpipe(parser);
			// the rest of the body is read and dropped, so that the answer reaches a sender that is still sending
			source.resume();
			if (used) used.catch(() => {}).finally(() => reject(error));
			else reject(error);
		};
		parser.on('field', (name, value) => (fields[name] = value));
		parser.on('file', (name, file, info) => {
			current = quiet(file);
			if (name !== 'file') return void file.resume();
			let cut: unknown;
			file.on('error', (error) => (cut = error));
			used = use({ fileName: info.filename ?? '', stream: file, fields }).catch((error: unknown) => {
				throw error === cut ? new IanuaError('upload-cut-off') : error;
			});
			used.catch(fail);
		});
		parser.on('error', () => fail(new IanuaError('upload-cut-off')));
		source.on('error', () => fail(new IanuaError('upload-cut-off')));
		parser.on('close', () => {
			if (!used) {
				reject(new IanuaError('no-file'));
				return;
			}
			used.then(resolve, reject);
		});
		source.pipe(parser);
	});
}

/** A stream whose error ends nothing but itself: whoever reads it is told, and an error that comes when nobody reads is no end of the server. */
function quiet<S extends Readable>(stream: S): S {
	return stream.on('error', () => {});
}
