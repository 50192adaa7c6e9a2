import { expect, test } from 'vitest';
import { rangesOf, stepBytes } from './opening';

test('steps become ranges, neighbours in one, within the file', () => {
	expect(rangesOf([0, 2, 1, 9], 600_000)).toEqual([
		[0, 3 * stepBytes],
		[9 * stepBytes, 600_000]
	]);
	expect(rangesOf([0, 0], 10)).toEqual([[0, 10]]);
	expect(rangesOf([3], 10)).toEqual([]);
	expect(rangesOf([], 10)).toEqual([]);
});
