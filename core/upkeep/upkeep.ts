// What needs a hand: one line for each thing, the worst first.

export type UpkeepKind = 'cannot-be-shown' | 'source-gone' | 'source-changed' | 'active-content' | 'source-unreachable' | 'review-due' | 'set-aside';

export interface UpkeepLine {
	readonly kind: UpkeepKind;
	readonly slug: string;
	readonly title: string;
	/** What is wrong, in a sentence or two. */
	readonly text: string;
	/** Published pages it stands on: those readers meet it. */
	readonly pages: number;
	/** Since when, ms; for what was set aside, until when it can be restored. */
	readonly at: number;
}

const order: readonly UpkeepKind[] = ['cannot-be-shown', 'source-gone', 'source-changed', 'active-content', 'source-unreachable', 'review-due', 'set-aside'];

/** Worst first: by kind, then what stands on more pages, then the longest waiting (of what was set aside, the first to go). */
export function worstFirst(lines: readonly UpkeepLine[]): UpkeepLine[] {
	return [...lines].sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind) || b.pages - a.pages || a.at - b.at || (a.slug < b.slug ? -1 : 1));
}
