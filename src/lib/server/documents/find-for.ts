// Find, for whoever asks: documents that lists name to them.
import { readableBy } from '../access/readable';
import type { Caller } from '../people/who';
import { findDocuments, type FoundDocument } from './find';

/** As `findDocuments`, for a caller. Staff find everything in use. */
export function findFor(caller: Caller, q: string, page: { limit: number; offset: number }): Promise<{ items: readonly FoundDocument[]; total: number }> {
	return findDocuments(q, caller.who.kind === 'staff' ? 'in-use' : readableBy(caller), page);
}
