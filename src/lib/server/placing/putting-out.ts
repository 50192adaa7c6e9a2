// Publishing, for the desk and for programs alike: now, at its time, or not any more; and the dead ends that it would make.
import type { Publishing } from './contract';
import { mismatches, type PlacedMismatch } from './mismatches';
import { publish, publishLater, takeDown } from './commands';

/**
 * Does what was asked with a page's draft. Gives the dead ends of what is published; where the asker wants to be asked about them first
 * (`ask`) and there are any, nothing is done and `asks` is true.
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
		if (ask && deadEnds.length) return { asks: true, deadEnds };
		if (at) await publishLater(id, new Date(at), actor);
		else await publish(id, actor);
		return { asks: false, deadEnds };
	}
	return { asks: false, deadEnds: [] };
}
