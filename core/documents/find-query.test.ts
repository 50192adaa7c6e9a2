import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { markQuery, partsAround, splitQuery } from './find-query';

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

describe('what is left out of a find', () => {
	it.each([
		['"stop planks" feeder -windlass -oar', '"stop planks" feeder', 'windlass or oar'],
		['planks or gates', 'planks or gates', ''],
		['lock -"stop planks"', 'lock', '"stop planks"'],
		['-all', '', 'all'],
		['well-kept', 'well-kept', '']
	])('%s → %s without %s', (q, wanted, leftOut) => expect(splitQuery(q)).toEqual({ wanted, leftOut }));
});

describe('the parts of a page that marking needs', () => {
	const filler = (n: number) => 'water under the bridge '.repeat(n);
	it('stand around the first place of each stem, in whole words', () => {
		const part = partsAround(`${filler(40)}the sluicegates were opened ${filler(40)}`, ['sluicegat'], 30)!;
		expect(part).toContain('the sluicegates were');
		expect(part.length).toBeLessThanOrEqual(60);
		expect(`${filler(40)}the sluicegates were opened ${filler(40)}`).toContain(part);
	});
	it('two stems far apart give two parts, two close together one', () => {
		const far = `the weir ${filler(60)}the paddle`;
		expect(partsAround(far, ['weir', 'paddl'], 40)).toMatch(/^the weir .* … .*the paddle$/);
		expect(partsAround('the weir and the paddle', ['weir', 'paddl'], 40)).toBe('the weir and the paddle');
	});
	it('capitals and accents do not hide a stem; a stem that is not there gives nothing', () => {
		expect(partsAround('Le Café du Quai', ['cafe'])).toBe('Le Café du Quai');
		expect(partsAround('It went well', ['go'])).toBeNull();
		expect(partsAround('It went well', [])).toBeNull();
	});
	it('whatever the text, a part is of the text and holds the stem', () => {
		fc.assert(
			fc.property(
				fc.array(fc.constantFrom('lock', 'weir', 'ein', 'sehrlangeswort', 'a'), { maxLength: 200 }),
				fc.integer({ min: 20, max: 100 }),
				(words, reach) => {
					const body = words.join(' ');
					const part = partsAround(body, ['weir'], reach);
					expect(part !== null).toBe(words.includes('weir'));
					if (part === null) return;
					expect(body).toContain(part);
					expect(part.split(' ')).toContain('weir');
				}
			)
		);
	});
	it('words that are cut at either end are left away, those at the ends of the text stand', () => {
		const body = 'beginning middle weir middle ending';
		expect(partsAround(body, ['weir'], 10)).toBe('middle weir');
		expect(partsAround(body, ['weir'], 200)).toBe(body);
		expect(partsAround('weir and more words here', ['weir'], 12)).toBe('weir and');
		expect(partsAround('here are words and weir', ['weir'], 8)).toBe('and weir');
	});
	it('letters made of two characters are found as those made of one', () => {
		expect(partsAround('Le Cafe\u0301 du Quai', ['café'])).toBe('Le Café du Quai');
	});
});

it('dashes alone ask for nothing, and before a word they are one “not” at the most', () => {
	for (const q of ['-', '-'.repeat(34), '--- -', '"---"', '-"--"']) expect([q, splitQuery(q)]).toEqual([q, { wanted: '', leftOut: '' }]);
	expect(splitQuery('----word -"two words" %')).toEqual({ wanted: '%', leftOut: 'word or "two words"' });
	expect(splitQuery(Array.from({ length: 200 }, (_, i) => `w${i}`).join(' ')).wanted.split(' ')).toHaveLength(40);
});
