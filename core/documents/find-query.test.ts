import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { markQuery } from './find-query';

describe('what of a find is marked', () => {
	it.each([
		['feeder', 'feeder'],
		['upper feeder', 'upper or feeder'],
		['"stop planks" feeder -windlass', '"stop planks" or feeder'],
		['planks or gates', 'planks or gates'],
		['-"not this" that', 'that'],
		['"never closed', '"never closed"'],
		['well-kept', 'well-kept'],
		['""', ''],
		['-all', '']
	])('%s → %s', (q, marked) => expect(markQuery(q)).toBe(marked));
	it('marking twice changes nothing', () => {
		fc.assert(
			fc.property(fc.string(), (q) => {
				expect(markQuery(markQuery(q))).toBe(markQuery(q));
			})
		);
	});
});
