// The steps in which a reading room fetches a file, and those that its first page takes.

/** Bytes of one step: a reading room asks for whole ones. */
export const stepBytes = 65_536;

/**
 * Steps (counted from 0, in any order) of a file of `length` bytes as byte ranges `[first, end)`, neighbours in one:
 * `rangesOf([0, 2, 1, 9], 600_000)` → `[[0, 196608], [589824, 600000]]`. Steps beyond the file are left out.
 */
export function rangesOf(steps: readonly number[], length: number): [first: number, end: number][] {
	const ranges: [number, number][] = [];
	for (const step of [...new Set(steps)].sort((a, b) => a - b)) {
		const [first, end] = [step * stepBytes, Math.min(length, (step + 1) * stepBytes)];
		const before = ranges.at(-1);
		if (first >= length) break;
		if (before?.[1] === first) before[1] = end;
		else ranges.push([first, end]);
	}
	return ranges;
}
