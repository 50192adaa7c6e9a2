// What keeps time from telling: what is hidden is refused at even times, and entered in the ledger once the answer has left.
import { log } from '../log';

/** Ms after which it is done: the answer has left by then. */
const laterMs = 20;
const waiting = new Set<Promise<void>>();

/** Does a piece of work a moment later; its failure is logged. */
export function afterwards(work: () => Promise<void>): void {
	const done = new Promise<void>((go) => setTimeout(go, laterMs))
		.then(work)
		.catch((err: unknown) => log().error({ err }, 'a refusal was not entered'))
		.finally(() => waiting.delete(done));
	waiting.add(done);
}

/** Resolves once all of it that was put off is done: whoever reads the ledger reads what happened. */
export async function allEntered(): Promise<void> {
	await Promise.all(waiting);
}

/** Ms between the moments at which something hidden is refused. */
const grid = 25;

/**
 * Resolves at the next of the even moments after a request began (`performance.now()`): whether a document is shut or not there at all takes
 * unequal work, which is over by then.
 */
export const evenly = (begun: number): Promise<void> => {
	const past = performance.now() - begun;
	return new Promise((go) => setTimeout(go, Math.ceil(past / grid) * grid - past));
};
