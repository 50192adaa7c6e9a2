import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { worstFirst, type UpkeepLine } from './upkeep';

const line = (slug: string, kind: UpkeepLine['kind'], pages = 0, at = 0): UpkeepLine => ({ kind, slug, title: slug, text: '', pages, at });

describe('the order of upkeep', () => {
	it('what readers cannot see comes first, what stands on more pages before what stands on fewer', () => {
		const lines = [
			line('a', 'set-aside'),
			line('b', 'cannot-be-shown'),
			line('c', 'cannot-be-shown', 2),
			line('d', 'source-changed', 5),
			line('e', 'source-gone')
		];
		expect(worstFirst(lines).map((l) => l.slug)).toEqual(['c', 'b', 'e', 'd', 'a']);
	});
	it('of what was set aside, the first to go stands first; equal ones go by their address', () => {
		expect(worstFirst([line('b', 'set-aside', 0, 9), line('c', 'set-aside', 0, 5), line('a', 'set-aside', 0, 9)]).map((l) => l.slug)).toEqual(['c', 'a', 'b']);
	});
	it('is one and the same whatever order the lines come in, and loses none', () => {
		const kinds = ['cannot-be-shown', 'source-gone', 'source-changed', 'active-content', 'source-unreachable', 'review-due', 'set-aside'] as const;
		const any = fc.record({ slug: fc.uuid(), kind: fc.constantFrom(...kinds), pages: fc.integer({ min: 0, max: 3 }), at: fc.integer({ min: 0, max: 3 }) });
		fc.assert(
			fc.property(
				fc.uniqueArray(any, { selector: (l) => l.slug, maxLength: 20 }),
				fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })),
				(given, dice) => {
					const lines = given.map((l) => line(l.slug, l.kind, l.pages, l.at));
					const shuffled = lines
						.map((l) => ({ l, by: dice.next().value as number }))
						.sort((a, b) => a.by - b.by)
						.map(({ l }) => l);
					const sorted = worstFirst(lines);
					expect(worstFirst(shuffled)).toEqual(sorted);
					expect(new Set(sorted)).toEqual(new Set(lines));
					for (const [i, l] of sorted.slice(1).entries()) expect(kinds.indexOf(l.kind)).toBeGreaterThanOrEqual(kinds.indexOf(sorted[i]!.kind));
				}
			)
		);
	});
});
