import { describe, expect, it } from 'vitest';
import { columnAt, type Stretch } from './column';

/** Words of lines from `left` to `right`, one line every 12, each word 6 wide with 1 between. */
const column = (left: number, right: number, from: number, lines: number): Stretch[] =>
	Array.from({ length: lines }, (_, i) => i).flatMap((i) =>
		Array.from({ length: Math.floor((right - left) / 7) }, (_, word) => ({
			left: left + word * 7,
			right: left + word * 7 + 6,
			top: from + i * 12,
			bottom: from + i * 12 + 10
		}))
	);

describe('the column under a finger', () => {
	const heading: Stretch = { left: 10, right: 151, top: 0, bottom: 14 };
	const page = [heading, ...column(10, 73, 30, 20), ...column(90, 153, 30, 20)];
	it('is the one of the lines there, whatever stands over all of them', () => {
		expect(columnAt(page, 20, 100)).toEqual({ left: 10, right: 72 });
		expect(columnAt(page, 120, 100)).toEqual({ left: 90, right: 152 });
	});
	it('is the whole width where there is one', () => {
		expect(columnAt(column(10, 150, 30, 5), 100, 50)).toEqual({ left: 10, right: 149 });
	});
	it('is none beside the words and far from them', () => {
		expect(columnAt(page, 81, 100)).toBeNull();
		expect(columnAt(page, 20, 600)).toBeNull();
		expect(columnAt([], 20, 100)).toBeNull();
	});
	it('a short last line, or one word, does not narrow it', () => {
		expect(columnAt([...column(10, 73, 30, 8), { left: 10, right: 20, top: 126, bottom: 136 }], 15, 130)).toEqual({ left: 10, right: 72 });
	});
});
