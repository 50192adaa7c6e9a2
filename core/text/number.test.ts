import { describe, expect, it } from 'vitest';
import { wholeNumber } from './number';

describe('a number in an address', () => {
	it('is whole and within bounds, or it is what is taken otherwise', () => {
		for (const [text, number] of [
			['7', 7],
			['0007', 7],
			['2147483647', 2147483647],
			['2147483648', 1],
			['0', 1],
			['-1', 1],
			['1e18', 1],
			['0.5', 1],
			['NaN', 1],
			[' 7', 1],
			['٧', 1],
			['', 1],
			[null, 1]
		] as const)
			expect([text, wholeNumber(text, 1)]).toEqual([text, number]);
		expect(wholeNumber('300', null, { most: 200 })).toBeNull();
	});
});
