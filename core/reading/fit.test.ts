// How large pages are shown. Paper sizes: ISO 216 (A4: 210 × 297 mm); 96 CSS px to the inch: CSS Values and Units Level 3, section 6.2.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pxPerPoint, scaleFor, sizeOfPage } from './fit';

const a4 = { width: (210 / 25.4) * 96, height: (297 / 25.4) * 96 };
const window = { width: 1064, height: 720 };

describe('the fit', () => {
	it('paper size is 100 %: A4 is 793.7 px wide', () => {
		expect(scaleFor('paper', a4, window)).toBe(1);
		expect(a4.width).toBeCloseTo(793.7, 1);
		expect(595.276 * pxPerPoint).toBeCloseTo(a4.width, 2);
	});
	it('whole page, full width, full height', () => {
		expect(scaleFor('page', a4, window)).toBeCloseTo(720 / a4.height, 9);
		expect(scaleFor('height', a4, window)).toBe(scaleFor('page', a4, window));
		expect(scaleFor('width', a4, window)).toBeCloseTo(1064 / a4.width, 9);
	});
	it('comfortable: words of 10 pt are at least 12 px high on a laptop, the page fills a phone, and what is large enough is seen whole', () => {
		const size = (fit: number) => 10 * pxPerPoint * fit;
		expect(size(scaleFor('comfortable', a4, window))).toBeGreaterThanOrEqual(12);
		expect(scaleFor('comfortable', a4, window)).toBe(1);
		expect(scaleFor('comfortable', a4, { width: 378, height: 700 })).toBe(scaleFor('width', a4, { width: 378, height: 700 }));
		expect(scaleFor('comfortable', { width: 480, height: 360 }, window)).toBe(scaleFor('page', { width: 480, height: 360 }, window));
	});
	it('two pages share the width', () => {
		expect(scaleFor('width', a4, window, true)).toBeCloseTo(532 / a4.width, 9);
		expect(scaleFor('page', { width: 1000, height: 500 }, window, true)).toBeCloseTo(0.532, 9);
	});
	it('a number is per cent; all is bounded to 10 to 600 %', () => {
		expect(scaleFor(150, a4, window)).toBe(1.5);
		expect([scaleFor(1, a4, window), scaleFor(5000, a4, window)]).toEqual([0.1, 6]);
		expect(scaleFor('width', { width: 3, height: 4 }, window)).toBe(6);
		expect(scaleFor('width', { width: 0, height: 0 }, window)).toBe(1);
	});
	it('a whole page always fits', () => {
		const side = fc.integer({ min: 200, max: 5000 });
		fc.assert(
			fc.property(side, side, side, side, fc.boolean(), (w, h, across, down, pairs) => {
				const scale = scaleFor('page', { width: w, height: h }, { width: across, height: down }, pairs);
				if (scale > 0.1) expect(scale * w * (pairs ? 2 : 1) <= across + 1e-6 && scale * h <= down + 1e-6).toBe(true);
			})
		);
	});
});

describe('the size of a page', () => {
	const runs = [
		{ width: 595, height: 842, pages: 2 },
		{ width: 1191, height: 842, pages: 1 },
		{ width: 595, height: 842, pages: 3 }
	];
	it('goes by the runs', () => {
		expect([1, 2, 3, 4, 6].map((page) => sizeOfPage(page, runs).width)).toEqual([595, 595, 1191, 595, 595]);
		expect(sizeOfPage(99, runs).width).toBe(595);
		expect(sizeOfPage(1, [])).toEqual({ width: 595, height: 842 });
	});
});
