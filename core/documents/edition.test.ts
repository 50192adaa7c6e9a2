import { describe, expect, it } from 'vitest';
import { canBeShown, notInForceYet } from './edition';

describe('an edition', () => {
	it.each([
		[3, 'sound', true],
		[3, 'look', true],
		// its pages are counted, the rest of the check goes on
		[3, 'checking', true],
		[0, 'checking', false],
		[3, 'refused', false],
		[0, 'refused', false]
	] as const)('of %i pages, %s: shown %s', (pages, condition, shown) => {
		expect(canBeShown({ pages, condition })).toBe(shown);
	});
	it('is put in force once it is checked and can be shown', () => {
		expect((['sound', 'look', 'checking', 'refused'] as const).map(notInForceYet)).toEqual([null, null, 'still-checking', 'edition-not-shown']);
	});
});
