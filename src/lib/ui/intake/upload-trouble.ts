// What went wrong with an upload, and whether it passes.
import type { DetailedError } from 'tus-js-client';
import type { TrayEntry } from './entry';

/** True for a trouble that passes: no connection, a server starting again, somebody else at the same upload. */
export function passing(error: DetailedError): boolean {
	const status = error.originalResponse?.getStatus() ?? 0;
	return status === 0 || status === 409 || status === 423 || status === 429 || (status >= 500 && status !== 507);
}

/** The first request had come through although its answer had not: the upload is there to be gone on with. */
export const begunBefore = (error: DetailedError, entry: TrayEntry): boolean => !entry.begun && error.originalResponse?.getStatus() === 409;

/** In words, as the server says it where it does. */
export function wordsOf(error: DetailedError): string {
	try {
		return (JSON.parse(error.originalResponse?.getBody() ?? '') as { title: string }).title;
	} catch {
		const status = error.originalResponse?.getStatus();
		return status === 401 || status === 403
			? 'You are no longer signed in. Sign in in another tab, then try again.'
			: status === 404 || status === 410
				? 'The server no longer knows this upload. Bring the file in again.'
				: 'The upload failed. Try again.';
	}
}
