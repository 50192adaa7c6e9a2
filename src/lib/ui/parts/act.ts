// Every press in the desk that changes something goes this way: the change is made, what is shown is brought up to date, what was done is said,
// with an undo where there is one, and why it was not done where it failed.
import { troubleOf } from './api';
import { notify, type Notice } from './notices.svelte';
import { refresh } from './refresh';

export interface ActOptions<T> {
	/** Says what went wrong beside the press, '' once nothing is; a notice says it otherwise. */
	readonly trouble?: (words: string) => void;
	/** Shows how things stand afterwards, undone or not: what is shown is asked for anew otherwise. */
	readonly show?: (done: T, undone: boolean) => unknown;
	/** What one may want to do next. */
	readonly next?: (done: T) => Notice['next'];
}

/** Words for what was done; none where it need not be said. */
type Words<T> = string | ((done: T) => string);

/**
 * Makes a change; says `words` once it is made, and offers to undo it where `undo` is given (and gives something). Gives what the change gave,
 * or undefined where it failed, which has then been said.
 */
export async function act<T>(
	words: Words<T>,
	change: () => Promise<T>,
	undo?: ((done: T) => Promise<unknown>) | null,
	{ trouble, show = () => refresh(), next }: ActOptions<T> = {}
): Promise<T | undefined> {
	let done: T;
	try {
		done = await change();
	} catch (error) {
		if (trouble) trouble(troubleOf(error));
		else notify(troubleOf(error), { tone: 'wrong' });
		return undefined;
	}
	trouble?.('');
	await show(done, false);
	const said = typeof words === 'string' ? words : words(done);
	const back =
		undo &&
		(async () => {
			await undo(done);
			await show(done, true);
			notify(`Taken back: ${said}`);
		});
	if (said) notify(said, { ...(back ? { undo: back } : {}), next: next?.(done) });
	return done;
}

/** What is answered, or undefined where asking failed, which has then been said. */
export const answerTo = async <T>(asked: Promise<T>): Promise<T | undefined> =>
	asked.catch((error: unknown) => {
		notify(troubleOf(error), { tone: 'wrong' });
		return undefined;
	});

/** What was found, or undefined where that failed, which has then been said. */
export const soughtFor = <T>(asked: Promise<{ items: T }>): Promise<T | undefined> => answerTo(asked.then(({ items }) => items));
