import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { frameHeight, shapeRatio } from './frame';

describe('the height of a frame', () => {
	// ISO 216: A4 is 210 × 297 mm. Letter, 8.5 × 11 in, ANSI/ASME Y14.1 (from memory).
	const [a4, letter] = [
		{ width: 210, height: 297 },
		{ width: 8.5, height: 11 }
	];
	it('shows one whole page, whatever the unit of its size', () => {
		expect(frameHeight(700, a4)).toBe(990);
		expect(frameHeight(640, a4)).toBe(905);
		expect(frameHeight(640, letter)).toBe(828);
		expect(frameHeight(640, { width: 612, height: 792 })).toBe(828);
	});
	// common practice, no source: A4 at 700 wide wants about 1000, at 640 about 900
	it('comes to what practitioners arrive at by trying', () => {
		expect(Math.abs(frameHeight(700, a4, { tools: 0 }) - 1000)).toBeLessThan(15);
		expect(Math.abs(frameHeight(640, a4) - 900)).toBeLessThan(15);
	});
	// ISO 216, 3: halving a sheet keeps the ratio of its sides, 1 : √2
	it('is the same for every sheet of a series, and a spread of it is one turned', () => {
		for (const [w, h] of [
			[841, 1189],
			[594, 841],
			[297, 420],
			[148, 210]
		] as const) {
			expect(shapeRatio({ width: w, height: h })).toBeCloseTo(Math.SQRT2, 1);
			expect(shapeRatio({ width: w, height: h }, { spread: true })).toBeCloseTo(shapeRatio({ width: w, height: h }, { turned: 1 }), 1);
		}
	});
	it('rounds a half up, with tools and without them', () => {
		// 223 × 955 ÷ 446 is 477.5; 955 ÷ 446 alone is no binary number, and 223 times it a little less
		const page = { width: 446, height: 955 };
		expect([frameHeight(223, page), frameHeight(223, page, { tools: 46, borders: 2 })]).toEqual([478, 526]);
	});
	it('adds tools and borders once, and grows with the width', () => {
		fc.assert(
			fc.property(fc.integer({ min: 200, max: 2000 }), fc.integer({ min: 1, max: 3000 }), fc.integer({ min: 1, max: 3000 }), (width, w, h) => {
				const page = { width: w, height: h };
				expect(frameHeight(width, page, { tools: 46, borders: 2 }) - frameHeight(width, page)).toBe(48);
				expect(frameHeight(width + 1, page)).toBeGreaterThanOrEqual(frameHeight(width, page));
				expect(shapeRatio(page, { turned: 1 }) * shapeRatio(page)).toBeCloseTo(1, 6);
			}),
			{ numRuns: 20_000 }
		);
	});
});
