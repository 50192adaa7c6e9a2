// Changes by which readers may be turned away from what stands on published pages, from the sheet and from the bar: asked about once.
import type { DoorChange } from '#core/access/door';
import { call, type Given } from '$lib/ui/parts/api';
import type { Place } from '$lib/server/placing/placed';
import type { Elsewhere } from '$lib/server/readership/elsewhere';

/** Setting aside, or another door. */
export type Breaking = { readonly aside: true } | { readonly door: DoorChange };

export interface Undo {
	readonly undo: Given<'post /bulk/undo'>['body']['undo'];
}
export type Answer = Undo & { readonly asks?: Place[]; readonly elsewhere?: Elsewhere[] };

/** A change that was asked about: for which documents, and the places that it would break. */
export interface Question {
	readonly documents: readonly string[];
	readonly change: Breaking;
	readonly places: readonly Place[];
	/** Other websites whose readers it would turn away. */
	readonly elsewhere: readonly Elsewhere[];
}

/** Makes the change; where that would break places, does nothing and gives these. */
export const askFirst = (documents: readonly string[], change: Breaking): Promise<Answer> => call('post /bulk', { body: { documents, ...change, ask: true } });

/** Makes the change without asking, some of the placements taken out of their pages first. */
export async function carryOut({ documents, change }: Question, takeOut: readonly Place[]): Promise<Answer> {
	for (const { page, document, placement } of takeOut) await call('post /mismatches', { body: { page, document, placement, remedy: 'take-out' } });
	return call('post /bulk', { body: { documents, ...change } });
}
