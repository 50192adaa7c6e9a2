import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { joined, left, type Membership } from './membership';

const today = '2026-12-01';
const of = (from: string | null, until: string | null, group = 'friends'): Membership => ({ group, from, until });

describe('joined', () => {
	it('renews what goes on, and leaves what is not named', () => {
		expect(joined([of('2026-01-01', '2026-12-31'), of(null, null, 'wardens')], { group: 'friends', until: '2027-12-31' }, today)).toEqual([
			of('2026-01-01', '2027-12-31'),
			of(null, null, 'wardens')
		]);
		expect(joined([of('2026-01-01', '2026-12-31')], { group: 'friends', until: null }, today)).toEqual([of('2026-01-01', null)]);
		expect(joined([of('2026-01-01', '2026-12-31')], { group: 'friends', from: '2026-06-01' }, today)).toEqual([of('2026-06-01', '2026-12-31')]);
	});
	it('begins anew where all is over, and counts the last day as a day', () => {
		expect(joined([of('2025-01-01', '2025-12-31')], { group: 'friends', until: '2027-12-31' }, today)).toEqual([
			of('2025-01-01', '2025-12-31'),
			of(today, '2027-12-31')
		]);
		expect(joined([of(null, today)], { group: 'friends', until: '2027-12-31' }, today)).toEqual([of(null, '2027-12-31')]);
		expect(joined([], { group: 'friends', from: null }, today)).toEqual([of(null, null)]);
	});
	it('takes of several the one that ends last', () => {
		const both = [of('2026-01-01', '2026-12-31'), of('2027-03-01', '2027-06-30')];
		expect(joined(both, { group: 'friends', until: '2027-12-31' }, today)).toEqual([both[0], of('2027-03-01', '2027-12-31')]);
	});
});

describe('left', () => {
	it('ends with yesterday what goes on, and lets go of what has not begun', () => {
		expect(left([of(null, null), of('2027-01-01', null), of('2025-01-01', '2025-12-31'), of(null, null, 'wardens')], 'friends', today)).toEqual([
			of(null, '2026-11-30'),
			of('2025-01-01', '2025-12-31'),
			of(null, null, 'wardens')
		]);
		expect(left([of(today, null)], 'friends', today)).toEqual([]);
	});
});

it('nobody who left is in, and whoever joined without an end is', () => {
	const day = fc.integer({ min: 0, max: 400 }).map((n) => new Date(Date.UTC(2026, 5, 1) + n * 86_400_000).toISOString().slice(0, 10));
	const span = fc.tuple(fc.option(day), fc.option(day)).map(([a, b]) => (a && b && a > b ? of(b, a) : of(a, b)));
	const isIn = (all: readonly Membership[]) => all.some((m) => (m.from === null || m.from <= today) && (m.until === null || m.until >= today));
	fc.assert(
		fc.property(fc.array(span, { maxLength: 5 }), (theirs) => {
			expect(isIn(left(theirs, 'friends', today))).toBe(false);
			expect(isIn(joined(theirs, { group: 'friends', from: null, until: null }, today))).toBe(true);
			for (const m of left(theirs, 'friends', today)) expect(m.from === null || m.until === null || m.from <= m.until).toBe(true);
		})
	);
});
