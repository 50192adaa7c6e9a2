// How much of a file goes into one request. A proxy in front may take less than we do (its stock limit is often 1 MB), and says so by 413 (RFC 9110,
// section 15.5.14): then smaller ones are sent, for the rest of the visit.
import type { DetailedError } from 'tus-js-client';

const sizes = [8 * 1024 * 1024, 960 * 1024, 240 * 1024, 60 * 1024];
let step = 0;

/** Bytes that one request takes now. */
export const chunkSize = (): number => sizes[step]!;

/** Whether somebody in front of the server finds a request of so many bytes too large. What the server itself finds too large it says by a code. */
function fromProxy(error: DetailedError): boolean {
	if (error.originalResponse?.getStatus() !== 413) return false;
	try {
		return typeof (JSON.parse(error.originalResponse.getBody()) as { code?: unknown }).code !== 'string';
	} catch {
		return true;
	}
}

/** Where a request of so many bytes was too large for a proxy and there are smaller ones, those are sent from now on: true. */
export function smallerFor(error: DetailedError, sent: number): boolean {
	if (!fromProxy(error)) return false;
	// another file may have found out already
	if (sent <= chunkSize() && step < sizes.length) step++;
	if (step < sizes.length) return true;
	step = sizes.length - 1;
	return false;
}
