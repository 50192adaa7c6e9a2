// What is entered in the ledger once an answer has left, so that the time it takes tells nothing.
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
