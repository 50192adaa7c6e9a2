// Setting documents aside, from the sheet and from the bar: asked about once where readers meet them on published pages.
import { call } from '$lib/ui/parts/api';
import type { Place } from '$lib/server/placing/placed';

export interface Undo {
	readonly undo: readonly unknown[];
}

/** Sets documents aside; where that would break places, does nothing and gives these. */
export const askAside = (documents: readonly string[]): Promise<Undo & { asks?: Place[] }> => call('POST', '/bulk', { documents, aside: true, ask: true });

/** Sets documents aside without asking, their placements taken out of the pages first where that is wanted. Gives what undoes the first of it. */
export async function setAsideAll(documents: readonly string[], takeOut: readonly Place[]): Promise<Undo> {
	for (const { page, document, placement } of takeOut) await call('POST', '/mismatches', { page, document, placement, remedy: 'take-out' });
	return call('POST', '/bulk', { documents, aside: true });
}
