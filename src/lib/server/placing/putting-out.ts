// Publishing, for the desk and for programs alike: now, at its time, or not any more; and the dead ends that it would make.
import type { Publishing } from './contract';
import { mismatches, type PlacedMismatch } from './mismatches';
import { publish, publishLater, takeDown } from './commands';

/**
 * Does what was asked with a page's draft. Gives the dead ends of what is published. Where the asker wants to be asked first (`ask`) and
 * readers would meet some that they do not meet on the page as it is published now, nothing is done, `asks` is true, and those alone are given.
 */
export async function putOutPage(
	id: string,
	{ published = true, at, ask = false }: Publishing,
	actor: string
): Promise<{ asks: boolean; deadEnds: PlacedMismatch[] }> {
	if (at === null) await publishLater(id, null, actor);
	else if (!published) await takeDown(id, actor);
	else {
		const deadEnds = (await mismatches({ page: id, draft: true })).filter((m) => m.kind === 'dead-end');
		if (ask && deadEnds.length) {
			// what readers cannot open: the document, or the page of a teaser
			const other = (m: PlacedMismatch) => m.led?.id ?? m.documentId;
			const met = new Set((await mismatches({ page: id })).filter((m) => m.kind === 'dead-end').map(other));
			const added = deadEnds.filter((m) => !met.has(other(m)));
			if (added.length) return { asks: true, deadEnds: added };
		}
		if (at) await publishLater(id, new Date(at), actor);
		else await publish(id, actor);
		return { asks: false, deadEnds };
	}
	return { asks: false, deadEnds: [] };
}
