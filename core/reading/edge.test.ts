// The fore-edge: of use at 3 pages and at 3,000.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chapterAt, edgeChapters, linedPages, pageAt, shareOf } from './edge';

describe('lines of the fore-edge', () => {
	it('first and last stand at the ends, an only page in the middle', () => {
		expect([shareOf(1, 5), shareOf(3, 5), shareOf(5, 5), shareOf(1, 1)]).toEqual([0, 0.5, 1, 0.5]);
	});
	it('every page of a short document has one', () => expect(linedPages(3, 700)).toEqual([1, 2, 3]));
	it('a long one has as many as can be told apart, first and last among them', () => {
		for (const pages of [180, 400, 3000]) {
			const lined = linedPages(pages, 700);
			expect(lined.length).toBeLessThanOrEqual(178);
			expect(lined.length).toBeGreaterThan(80);
			expect([lined[0], lined.at(-1)]).toEqual([1, pages]);
		}
	});
	it('lines stand as near as they may and never nearer, evenly, at every length', () => {
		expect(linedPages(10, 36)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
		expect(linedPages(11, 36)).toEqual([1, 3, 5, 7, 9, 11]);
		expect(linedPages(12, 36)).toEqual([1, 3, 5, 7, 9, 11, 12]);
		expect([linedPages(1, 0), linedPages(2, 0), linedPages(9, 0)]).toEqual([[1], [1, 2], [1, 9]]);
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 5000 }), fc.integer({ min: 0, max: 1200 }), (pages, height) => {
				const lined = linedPages(pages, height);
				expect([lined[0], lined.at(-1)]).toEqual([1, pages]);
				const steps = lined.slice(1).map((page, i) => page - lined[i]!);
				expect(new Set(steps.slice(0, -1)).size).toBeLessThanOrEqual(1);
				if (steps.length > 1) {
					expect(steps.at(-1)).toBeLessThanOrEqual(steps[0]!);
					// a step less would have put them nearer than they may stand
					expect((steps[0]! * height) / (pages - 1)).toBeGreaterThanOrEqual(4 - 1e-9);
					if (steps[0]! > 1) expect(pages).toBeGreaterThan(Math.floor(height / 4) + 1);
				}
			})
		);
	});
	it('a press on a page’s line leads to that page', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 4000 }), fc.nat(), (pages, n) => {
				const page = 1 + (n % pages);
				expect(pageAt(shareOf(page, pages), pages)).toBe(pages === 1 ? 1 : page);
			})
		);
		expect([pageAt(-3, 10), pageAt(9, 10)]).toEqual([1, 10]);
	});
});

describe('chapters along the fore-edge', () => {
	const outline = [
		{ title: 'Before you set out', page: 1, depth: 0 },
		{ title: 'Charts', page: 2, depth: 1 },
		{ title: 'The lower pounds', page: 5, depth: 0 },
		{ title: 'Nowhere', page: null, depth: 0 },
		{ title: '  ', page: 6, depth: 0 },
		{ title: 'Beyond', page: 99, depth: 0 },
		{ title: 'The summit', page: 9, depth: 0 }
	];
	it('leave out what leads nowhere', () =>
		expect(edgeChapters(outline, 10, 900, 1).map((c) => c.title)).toEqual(['Before you set out', 'Charts', 'The lower pounds', 'The summit']));
	it('are named where there is room, outer ones before inner ones', () => {
		const named = (height: number, current: number) =>
			edgeChapters(outline, 10, height, current)
				.filter((c) => c.named)
				.map((c) => c.title);
		expect(named(900, 1)).toEqual(['Before you set out', 'Charts', 'The lower pounds', 'The summit']);
		expect(named(100, 9)).toEqual(['Before you set out', 'The lower pounds', 'The summit']);
	});
	it('the one that is read in is named even where there is little', () => {
		const named = edgeChapters(outline, 10, 100, 3).filter((c) => c.named);
		expect(named.map((c) => c.title)).toContain('Charts');
	});
	it('of chapters equally far out the first is named, and two stand beside each other from 18 px on', () => {
		const two = (second: number) => [
			{ title: ' One ', page: 1, depth: 0 },
			{ title: 'Two', page: second, depth: 0 }
		];
		// 101 pages on 1,800 px: 18 px each
		expect(edgeChapters(two(2), 101, 1_800, 50).map((c) => [c.title, c.y, c.named])).toEqual([
			['One', 0, true],
			['Two', 18, true]
		]);
		expect(edgeChapters(two(2), 101, 1_790, 1).map((c) => c.named)).toEqual([true, false]);
		expect(edgeChapters(two(2), 101, 1_790, 2).map((c) => c.named)).toEqual([false, true]);
		expect(edgeChapters([{ title: 'Last', page: 10, depth: 0 }], 10, 90, 1)).toEqual([{ title: 'Last', page: 10, depth: 0, y: 90, named: true }]);
		expect(edgeChapters([{ title: 'None', page: 0, depth: 0 }], 10, 90, 1)).toEqual([]);
	});
	it('no two names overlap', () => {
		const chapter = fc.record({ title: fc.constant('x'), page: fc.integer({ min: 1, max: 300 }), depth: fc.nat(3) });
		fc.assert(
			fc.property(fc.array(chapter, { maxLength: 60 }), fc.integer({ min: 60, max: 900 }), (all, height) => {
				const ys = edgeChapters(all, 300, height, 1, 18)
					.filter((c) => c.named)
					.map((c) => c.y)
					.sort((a, b) => a - b);
				ys.forEach((y, i) => i && expect(y - ys[i - 1]!).toBeGreaterThanOrEqual(18));
			})
		);
	});
	it('a page lies in the last chapter that begins before it', () => {
		const chapters = [{ page: 3 }, { page: 3 }, { page: 8 }, { page: null }];
		expect([1, 3, 7, 8, 40].map((page) => chapterAt(chapters, page))).toEqual([-1, 1, 1, 2, 2]);
	});
});
