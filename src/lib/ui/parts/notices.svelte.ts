// Short notices at the foot of the desk, with an undo where there is one.
import { troubleOf } from './api';

export interface Notice {
	readonly id: number;
	readonly text: string;
	readonly tone: 'done' | 'wrong';
	readonly undo?: () => void | Promise<void>;
	/** What one may want to do next, elsewhere. */
	readonly next?: { readonly words: string; readonly href: string };
}

let last = 0;
export const notices = $state<{ list: Notice[] }>({ list: [] });

/** Shows a notice; one with an undo or with what comes next stays 12 s, others 6 s, what went wrong until closed. */
export function notify(text: string, { tone = 'done', ...more }: Partial<Pick<Notice, 'tone' | 'undo' | 'next'>> = {}): void {
	const notice: Notice = { id: ++last, text, tone, ...more };
	notices.list = [...notices.list.slice(-3), notice];
	if (notice.tone !== 'wrong') setTimeout(() => dismiss(notice.id), more.undo || more.next ? 12_000 : 6_000);
}

/** Takes a notice away. */
export function dismiss(id: number): void {
	notices.list = notices.list.filter((n) => n.id !== id);
}

/** Does what a notice offers to undo; where that fails, says so. */
export async function undo(notice: Notice): Promise<void> {
	dismiss(notice.id);
	try {
		await notice.undo?.();
	} catch (error) {
		notify(troubleOf(error), { tone: 'wrong' });
	}
}
