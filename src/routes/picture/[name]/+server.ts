// A picture of the site: /picture/<checksum>.webp?w=<px>. Its name cannot be guessed, and its bytes never change.
import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { wholeNumber } from '#core/text/number';
import { problem } from '$lib/server/http/problem';
import { picturePath } from '$lib/server/intake/pictures';

export const GET: RequestHandler = async (event) => {
	const sha256 = /^([0-9a-f]{64})\.webp$/.exec(event.params.name)?.[1];
	const found = sha256 ? await picturePath(sha256, wholeNumber(event.url.searchParams.get('w'), 1600)) : null;
	if (!found) return problem(new IanuaError('not-found'), event.locals.requestId);
	return new Response(Readable.toWeb(createReadStream(found.path)) as ReadableStream, {
		headers: { 'content-type': 'image/webp', 'content-length': String(found.bytes), 'cache-control': 'public, max-age=31536000, immutable' }
	});
};
