// Which pages to print, from what somebody types.

/**
 * `printRange('2-4, 7', 10)` → [2, 3, 4, 7]; '-3' is up to 3, '8-' from 8 on. Pages beyond the last are left out, each comes once,
 * in order. Null where it names no page or is no range at all.
 */
export function printRange(text: string, pages: number): number[] | null {
	const wanted = new Set<number>();
	for (const part of text.split(/[,;\s]+/).filter(Boolean)) {
		const match = /^(\d{0,7})(?:([-–—])(\d{0,7}))?$/.exec(part);
		if (!match) return null;
		const [, first, dash, last] = match;
		if (!first && !last) return null;
		const from = first ? Number(first) : 1;
		const until = !dash ? from : last ? Number(last) : pages;
		if (from < 1 || until < from) return null;
		for (let page = from; page <= Math.min(until, pages); page++) wanted.add(page);
	}
	return wanted.size ? [...wanted].sort((a, b) => a - b) : null;
}
