// The column of text under a finger, from where words stand on a page.

/** A stretch of words, in any one unit. */
export interface Stretch {
	readonly left: number;
	readonly right: number;
	readonly top: number;
	readonly bottom: number;
}

/** Words of one line stand no farther apart than so many heights of it; columns do. */
const gap = 1;

/** Lines of words: stretches beside each other in one row, joined where what is between them is no wider than a space of such words. */
function linesOf(words: readonly Stretch[]): Stretch[] {
	const lines: Stretch[] = [];
	for (const word of [...words].sort((a, b) => a.left - b.left)) {
		const height = word.bottom - word.top;
		const middle = (word.top + word.bottom) / 2;
		const at = lines.findIndex((line) => line.top <= middle && middle <= line.bottom && word.left - line.right <= gap * height && word.left >= line.left);
		const line = lines[at];
		if (!line) lines.push(word);
		else
			lines[at] = {
				left: line.left,
				right: Math.max(line.right, word.right),
				top: Math.min(line.top, word.top),
				bottom: Math.max(line.bottom, word.bottom)
			};
	}
	return lines;
}

/**
 * The column at a place: as wide as the lines that stand above and below the one there. Null where there are no words.
 * Two columns from 10 to 45 and 55 to 90, asked for at 20 → `{left: 10, right: 45}`; a heading over both of them does not widen it.
 */
export function columnAt(words: readonly Stretch[], x: number, y: number): { readonly left: number; readonly right: number } | null {
	const lines = linesOf(words);
	const away = (line: Stretch) => Math.max(line.top - y, 0, y - line.bottom);
	const here = lines.filter((line) => line.left <= x && x <= line.right).sort((a, b) => away(a) - away(b));
	const [nearest] = here;
	if (!nearest || away(nearest) > 2 * (nearest.bottom - nearest.top)) return null;
	// most lines of a column are as wide as it is; few are wider: what stands over several columns
	const lefts = here.map((line) => line.left).sort((a, b) => a - b);
	const rights = here.map((line) => line.right).sort((a, b) => a - b);
	const left = lefts[Math.floor(lefts.length / 4)] ?? nearest.left;
	const right = rights[Math.floor((rights.length * 3) / 4)] ?? nearest.right;
	return right > left ? { left, right } : { left: nearest.left, right: nearest.right };
}
