// Short notices at the foot of the desk, with an undo where there is one.
import { troubleOf } from './api';

export interface Notice {
	readonly id: number;
	readonly text: string;
	readonly tone: 'done' | 'wrong';
	readonly undo?: () => void | Promise<void>;
}

let last = 0;
export const notices = $state<{ list: Notice[] }>({ list: [] });

/** Shows a notice; one with an undo stays 12 s, others 6 s, what went wrong until closed. */
export function notify(text: string, options: { tone?: 'done' | 'wrong'; undo?: Notice['undo'] } = {}): void {
	const notice: Notice = { id: ++last, text, tone: options.tone ?? 'done', undo: options.undo };
	notices.list = [...notices.list.slice(-3), notice];
	if (notice.tone !== 'wrong') setTimeout(() => dismiss(notice.id), options.undo ? 12_000 : 6_000);
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
