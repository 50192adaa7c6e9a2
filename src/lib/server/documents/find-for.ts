// Find, for whoever asks: documents that lists name to them.
import { readableBy } from '../access/readable';
import { findLane } from '../lanes';
import type { Caller } from '../people/who';
import type { After } from '../http/cursor';
import { findDocuments } from './find';

/** As `findDocuments`, for a caller at a place; staff find everything in use. Throws `busy` where too much is looked for at once. */
export function findFor(caller: Caller, place: string, q: string, page: { limit: number; after?: After }): ReturnType<typeof findDocuments> {
	return findLane.run(place, async () => findDocuments(q, caller.who.kind === 'staff' ? 'in-use' : (await readableBy(caller)).ids, page));
}
