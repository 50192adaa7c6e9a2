import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { printRange } from './print-range';
import { around } from './found';

describe('pages to print', () => {
	it.each([
		['3', [3]],
		['2-4, 7', [2, 3, 4, 7]],
		['7, 2–4', [2, 3, 4, 7]],
		['-3', [1, 2, 3]],
		['8-', [8, 9, 10]],
		['5;5 5', [5]],
		['9-99', [9, 10]],
		['', null],
		['0', null],
		['11', null],
		['4-2', null],
		['-', null],
		['two', null],
		['1-2-3', null]
	])('%s', (text, pages) => expect(printRange(text, 10)).toEqual(pages));
	it('gives each page once, in order, none beyond the last', () => {
		fc.assert(
			fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 50 }), fc.nat(20)), { minLength: 1, maxLength: 8 }), (parts) => {
				const pages = printRange(parts.map(([from, more]) => `${from}-${from + more}`).join(','), 40) ?? [];
				expect(pages).toEqual([...new Set(pages)].sort((a, b) => a - b));
				expect(pages.every((p) => p >= 1 && p <= 40)).toBe(true);
				for (const [from] of parts) if (from <= 40) expect(pages).toContain(from);
			})
		);
	});
});

describe('the words around a find', () => {
	const text = 'Boats longer than fifty-seven feet turn only at\nTernwell basin and above the top lock. The weir was rebuilt.';
	it('are cut at words', () => {
		const position = text.indexOf('lock');
		expect(around(text, position, 4, 20)).toEqual({ before: '… and above the top ', found: 'lock', after: '. The weir was …' });
	});
	it('are whole at the beginning and the end of a page', () => {
		expect(around(text, 0, 5, 12)).toMatchObject({ before: '', found: 'Boats' });
		expect(around('one two', 4, 3)).toEqual({ before: 'one ', found: 'two', after: '' });
	});
	it('a line end is a space', () => expect(around(text, text.indexOf('Ternwell'), 8, 20).before).toBe('… feet turn only at '));
	it('are about forty characters to each side, and a word longer than that stands as far as it goes', () => {
		const long = 'x'.repeat(100);
		const { before, after } = around(`${long}lock${long}`, 100, 4);
		expect([before, after]).toEqual([`…${'x'.repeat(40)}`, `${'x'.repeat(40)}…`]);
	});
	it('leave out the dots that lead to a page number, not the full stops of a sentence', () => {
		const contents = 'Locks . . . . . . . . . . . . 12\nWeirs ............ 14';
		expect(around(contents, contents.indexOf('Weirs'), 5)).toEqual({ before: 'Locks … 12 ', found: 'Weirs', after: ' … 14' });
		expect(around('Wait... then go. Now.', 8, 4).before).toBe('Wait... ');
	});
});
