// The fore-edge: where its lines, chapters and marks stand. Shares run from 0 at the first page to 1 at the last.

export interface Chapter {
	readonly title: string;
	/** Null where it leads to no page. */
	readonly page: number | null;
	/** 0 for the outermost. */
	readonly depth: number;
}

export interface EdgeChapter {
	readonly title: string;
	readonly page: number;
	readonly depth: number;
	/** From the upper end, px. */
	readonly y: number;
	/** Its name has room beside it. */
	readonly named: boolean;
}

/** How far down a page stands: `shareOf(1, 5)` → 0, `shareOf(5, 5)` → 1; the only page stands in the middle. */
export const shareOf = (page: number, pages: number): number => (pages <= 1 ? 0.5 : (page - 1) / (pages - 1));

/** The page at a share of the way down. */
export const pageAt = (share: number, pages: number): number => 1 + Math.round(Math.min(1, Math.max(0, share)) * (pages - 1));

/**
 * The pages that get a line: all of them where they stand at least `apart` px from each other, else every so many, first and last always.
 * `linedPages(5, 400)` → [1, 2, 3, 4, 5].
 */
export function linedPages(pages: number, height: number, apart = 4): number[] {
	const most = Math.max(2, Math.floor(height / apart) + 1);
	if (pages <= most) return Array.from({ length: pages }, (_, i) => i + 1);
	const each = Math.ceil((pages - 1) / (most - 1));
	const lined = Array.from({ length: Math.floor((pages - 1) / each) + 1 }, (_, i) => 1 + i * each);
	if (lined.at(-1)! !== pages) lined.push(pages);
	return lined;
}

/**
 * Chapters along an edge `height` px high, with those named that have `apart` px to the names around them: outer ones first, then by
 * their order; the one read in (`current` page) is always named.
 */
export function edgeChapters(chapters: readonly Chapter[], pages: number, height: number, current: number, apart = 18): EdgeChapter[] {
	const all = chapters.flatMap(({ title, page, depth }) =>
		page !== null && page >= 1 && page <= pages && title.trim() ? [{ title: title.trim(), page, depth, y: shareOf(page, pages) * height }] : []
	);
	const reading = chapterAt(all, current);
	const taken: number[] = [];
	const named = new Set<number>();
	const order = all.map((_, i) => i).sort((a, b) => Number(b === reading) - Number(a === reading) || all[a]!.depth - all[b]!.depth || a - b);
	for (const i of order) {
		if (taken.some((y) => Math.abs(y - all[i]!.y) < apart)) continue;
		taken.push(all[i]!.y);
		named.add(i);
	}
	return all.map((chapter, i) => ({ ...chapter, named: named.has(i) }));
}

/** Index of the chapter in which a page lies: the last that begins on it or before; the innermost of those that begin together. -1 before the first. */
export function chapterAt(chapters: readonly { readonly page: number | null }[], page: number): number {
	let current = -1;
	chapters.forEach((c, i) => {
		// only chapters with a page become the current one
		if (c.page !== null && c.page <= page && (current < 0 || c.page >= chapters[current]!.page!)) current = i;
	});
	return current;
}
