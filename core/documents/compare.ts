// What changed between two editions: pages set side by side, words added and removed.
import { diffArrays, diffWordsWithSpace } from 'diff';

export interface ComparedPart {
	readonly text: string;
	readonly kind: 'same' | 'added' | 'removed';
}

export interface ComparedPage {
	readonly kind: 'same' | 'changed' | 'added' | 'removed';
	/** Page numbers, from 1; null where the page is not in that edition. */
	readonly before: number | null;
	readonly after: number | null;
	/** The words, where the page is not the same; long stretches without a change are cut to their ends. */
	readonly parts: readonly ComparedPart[];
}

export interface Comparison {
	readonly pages: readonly ComparedPage[];
	/** Words added and removed in all. */
	readonly added: number;
	readonly removed: number;
	/** False where some pages differ too much to compare word by word in time. */
	readonly whole: boolean;
}

/** Characters of unchanged text kept on each side of a change. */
const around = 60;
/** Most edits looked for on one page, and in the order of the pages; beyond it they count as wholly different. */
const mostEdits = 4000;

const words = (text: string) => text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;
const even = (text: string) => text.replace(/\s+/g, ' ').trim();

/**
 * Compares two editions by the text of their pages. Pages with the same text are set side by side first, so that a page put in
 * moves nothing; the pages between them are compared in order.
 *
 * @example comparePages(['a b', 'c'], ['a b', 'new', 'c']).pages.map((p) => p.kind) // ['same', 'added', 'same']
 */
export function comparePages(before: readonly string[], after: readonly string[]): Comparison {
	const [from, to] = [before.map(even), after.map(even)];
	const runs = diffArrays(from, to, { maxEditLength: mostEdits }) ?? [
		{ value: from, removed: true, added: false },
		{ value: to, added: true, removed: false }
	];
	const pages: ComparedPage[] = [];
	let [b, a, added, removed] = [0, 0, 0, 0];
	let whole = true;
	let waiting: number[] = [];

	/** Pages removed and pages added in one place: paired in order, the rest stand alone. */
	const settle = (fresh: number[]) => {
		for (let i = 0; i < Math.max(waiting.length, fresh.length); i++) {
			const [x, y] = [waiting[i], fresh[i]];
			if (x !== undefined && y !== undefined) {
				const parts = comparedText(from[x]!, to[y]!);
				whole &&= parts !== null;
				const shown: readonly ComparedPart[] = parts ?? [
					{ text: from[x]!, kind: 'removed' },
					{ text: to[y]!, kind: 'added' }
				];
				for (const part of shown) {
					if (part.kind === 'added') added += words(part.text);
					if (part.kind === 'removed') removed += words(part.text);
				}
				pages.push({ kind: 'changed', before: x + 1, after: y + 1, parts: shown.map(cut) });
			} else if (x !== undefined) {
				removed += words(from[x]!);
				pages.push({ kind: 'removed', before: x + 1, after: null, parts: [{ text: from[x]!, kind: 'removed' }] });
			} else if (y !== undefined) {
				added += words(to[y]!);
				pages.push({ kind: 'added', before: null, after: y + 1, parts: [{ text: to[y]!, kind: 'added' }] });
			}
		}
		waiting = [];
	};

	for (const run of runs) {
		const n = run.value.length;
		if (run.removed) {
			waiting.push(...Array.from({ length: n }, (_, i) => b + i));
			b += n;
		} else if (run.added) {
			settle(Array.from({ length: n }, (_, i) => a + i));
			a += n;
		} else {
			settle([]);
			for (let i = 0; i < n; i++) pages.push({ kind: 'same', before: b + i + 1, after: a + i + 1, parts: [] });
			b += n;
			a += n;
		}
	}
	settle([]);
	return { pages, added, removed, whole };
}

function comparedText(before: string, after: string): ComparedPart[] | null {
	const parts = diffWordsWithSpace(before, after, { maxEditLength: mostEdits });
	return parts?.map((p) => ({ text: p.value, kind: p.added ? 'added' : p.removed ? 'removed' : 'same' })) ?? null;
}

/** A long stretch without a change, cut to what stands beside the changes. */
function cut(part: ComparedPart, at: number, all: readonly ComparedPart[]): ComparedPart {
	if (part.kind !== 'same' || part.text.length <= 2 * around + 20) return part;
	const start = at === 0 ? '' : part.text.slice(0, around);
	const end = at === all.length - 1 ? '' : part.text.slice(-around);
	return { kind: 'same', text: `${start} … ${end}` };
}
