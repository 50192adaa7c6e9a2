import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { audienceWords, isIn } from '../access/audience';
import { decide, visitor } from '../access/decide';
import { newDoor, positions, type Door, type Guarded } from '../access/door';
import { spanOf, within } from '../access/hours';
import { whoOf, type Member } from '../access/population';
import { mismatchesOf, mismatchKinds, Populations, remediesFor } from './mismatch';

const zone = 'Europe/London';
const now = Date.parse('2026-11-24T12:00Z');
const names = { group: (id: string) => ({ F: 'Friends', W: 'Lock wardens' })[id] ?? id, person: (id: string) => id };
const m = (group: string, from: string | null, until: string | null) => ({ group, span: spanOf(from, until, zone) });
const people: Member[] = [
	{ id: 'Ada', suspended: false, memberships: [m('F', '2026-01-01', '2026-12-31')] },
	{ id: 'Ben', suspended: false, memberships: [m('W', '2026-03-01', null)] },
	{ id: 'Cem', suspended: false, memberships: [m('F', null, '2026-10-31')] },
	{ id: 'Dot', suspended: false, memberships: [m('F', null, null), m('W', null, null)] }
];
const keyed = (door: Partial<Door>): Guarded => ({ setAside: false, follows: null, door: { ...newDoor, position: 'keyed', ...door } });
const open = keyed({ position: 'open' });
const [wardens, friends, members] = [keyed({ groups: ['W'] }), keyed({ groups: ['F'] }), keyed({ allMembers: true })];

/** 'dead-end now: words; 1 of 3' for each span. */
const told = (document: Guarded, page: Guarded) =>
	mismatchesOf(page, document, new Populations(people), now).flatMap(({ kind, spans }) =>
		spans.map(({ span, audience, counted }) => {
			const from = span.from === now ? 'now' : new Date(span.from!).toISOString().slice(0, 16);
			return `${kind} ${from}: ${audienceWords(audience, names)}; ${counted.anyone ? 'anyone' : `${counted.count} of ${counted.of}`}`;
		})
	);

// The worked cases of the model, in its order.
describe('a document on a page', () => {
	it('keyed to Lock wardens, on an open page', () => expect(told(wardens, open)).toEqual(['dead-end now: everyone without Lock wardens; anyone']));
	it('keyed to Lock wardens, on a page keyed to all members: nobody of today from the new year on, but still in words', () =>
		expect(told(wardens, members)).toEqual([
			'dead-end now: all members without Lock wardens; 1 of 3',
			'dead-end 2027-01-01T00:00: all members without Lock wardens; 0 of 2'
		]));
	it('open, on a page keyed to Lock wardens', () => expect(told(open, wardens)).toEqual(['side-door now: everyone without Lock wardens; anyone']));
	it('keyed to Friends until the end of March, on a page keyed to all members', () =>
		expect(told(keyed({ groups: ['F'], hours: spanOf(null, '2027-03-31', zone) }), members)).toEqual([
			'dead-end now: all members without Friends; 1 of 3',
			'dead-end 2027-01-01T00:00: all members without Friends; 1 of 2',
			'dead-end 2027-03-31T23:00: all members; 2 of 2'
		]));
	it('keyed to Lock wardens, on a page keyed to Friends', () =>
		expect(told(wardens, friends)).toEqual([
			'dead-end now: Friends without Lock wardens; 1 of 2',
			'dead-end 2027-01-01T00:00: Friends without Lock wardens; 0 of 1',
			'side-door now: Lock wardens without Friends; 1 of 2'
		]));
	it('that follows the page: none', () => expect(told({ ...wardens, follows: { setAside: false, door: friends.door } }, friends)).toEqual([]));
	it('keyed to Ben by name, on a page keyed to Lock wardens: he is one of them, so no side door', () =>
		expect(told(keyed({ people: ['Ben'] }), wardens)).toEqual(['dead-end now: Lock wardens without Ben; 1 of 2']));
	it('ajar, on a page keyed to all members', () =>
		expect(told(keyed({ position: 'ajar' }), members)).toEqual(['side-door now: everyone without all members; anyone']));
	it('shut, on an open page', () => expect(told(keyed({ position: 'shut' }), open)).toEqual(['dead-end now: everyone; anyone']));
	it('on a page that is shut: no side door; on one that admits nobody yet: one', () => {
		expect(told(open, keyed({ position: 'shut' }))).toEqual([]);
		expect(told(open, keyed({}))).toEqual(['side-door now: everyone; anyone']);
	});
	it('is mended by what would help', () => {
		expect(remediesFor('dead-end', friends, wardens)).toEqual(['admit', 'page-door', 'follow', 'narrow', 'locked', 'take-out']);
		expect(remediesFor('dead-end', open, keyed({ position: 'shut' }))).toEqual(['page-door', 'follow', 'take-out']);
		expect(remediesFor('side-door', wardens, open)).toEqual(['page-door', 'follow', 'intended']);
	});
	it('is not mended by letting somebody in whom the document admits already, nor by what its page decides', () => {
		const remedies = (p: Guarded, x: Guarded) => remediesFor('dead-end', p, x);
		const both = keyed({ groups: ['F', 'W'] });
		expect(remedies(friends, both)).toEqual(['page-door', 'follow', 'narrow', 'locked', 'take-out']);
		expect(remedies(keyed({ allMembers: true }), keyed({ allMembers: true }))).not.toContain('admit');
		expect(remedies(keyed({ allMembers: true }), friends)).toContain('admit');
		// neither is keyed to anybody: there is nobody to admit
		expect(remedies(open, friends)).toEqual(['page-door', 'follow', 'narrow', 'locked', 'take-out']);
		expect(remedies(friends, keyed({ position: 'shut' }))).toEqual(['page-door', 'follow', 'take-out']);
		const following: Guarded = { ...wardens, follows: { setAside: false, door: wardens.door } };
		expect(remedies(friends, following)).toEqual(['locked', 'take-out']);
		expect(remediesFor('side-door', friends, following)).toEqual(['intended']);
	});
	it('changes with the memberships of its groups alone, and with nobody’s who is suspended', () => {
		const person = (group: string, from: number, suspended = false) => ({ suspended, memberships: [{ group, span: { from, until: from + 10 } }] });
		const folk = new Populations(
			[person('F', now + 1), person('W', now + 2), person('M', now + 3), person('F', now + 4, true), person('F', now - 5)].map((p, i) => ({
				id: `p${i}`,
				...p
			}))
		);
		const sorted = (groups: ReadonlySet<string> | null) =>
			folk
				.boundsAfter(now, groups)
				.sort((a, b) => a - b)
				.map((t) => t - now);
		expect(sorted(new Set(['F']))).toEqual([1, 5, 11]);
		expect(sorted(new Set(['F', 'W']))).toEqual([1, 2, 5, 11, 12]);
		expect(sorted(null)).toEqual([1, 2, 3, 5, 11, 12, 13]);
		expect(sorted(new Set())).toEqual([]);
		// what begins at this very instant has begun
		expect(new Populations([{ id: 'a', ...person('F', now) }]).boundsAfter(now, null)).toEqual([now + 10]);
	});
});

// A second, naive implementation: every person, at every moment, is asked of both doors.
describe('against a walk person by person and moment by moment', () => {
	const moments = Array.from({ length: 13 }, (_, i) => now + i);
	const bound = fc.option(fc.integer({ min: now - 2, max: now + 10 }), { nil: null });
	const span = fc.record({ from: bound, until: bound });
	const group = fc.constantFrom('F', 'W', 'M');
	const person = fc.record({ suspended: fc.boolean(), memberships: fc.array(fc.record({ group, span }), { maxLength: 3 }) });
	const door = fc.record({
		position: fc.constantFrom(...positions),
		allMembers: fc.boolean(),
		groups: fc.uniqueArray(group),
		people: fc.uniqueArray(fc.constantFrom('p0', 'p1', 'gone')),
		hours: span,
		allow: fc.constant({ save: true, print: true }),
		listed: fc.boolean(),
		announced: fc.boolean()
	});
	const page = fc.record({ setAside: fc.boolean(), door, follows: fc.constant(null) });
	const thing = fc.record({ setAside: fc.boolean(), door, follows: fc.option(fc.record({ setAside: fc.boolean(), door }), { nil: null }) });
	it('finds the same people at the same moments', () => {
		fc.assert(
			fc.property(fc.array(person, { maxLength: 8 }), page, thing, (given, p, x) => {
				const folk = given.map((one, i) => ({ ...one, id: `p${i}` }));
				const found = mismatchesOf(p, x, new Populations(folk), now);
				for (const at of moments) {
					const shutTo = (t: Guarded) => decide({ kind: 'member', id: '', suspended: false, memberships: [] }, t, 'see', at).reasons[0].code;
					const pageShut = ['shut', 'set-aside', 'not-yet', 'closed'].includes(shutTo(p));
					for (const kind of ['dead-end', 'side-door'] as const) {
						const [first, second] = kind === 'dead-end' ? [p, x] : [x, p];
						const ins = (who: Parameters<typeof decide>[0]) =>
							decide(who, first, 'read', at).allowed && !(kind === 'side-door' && pageShut) && !decide(who, second, 'read', at).allowed;
						const naive = folk.filter((one) => !one.suspended && ins(whoOf(one))).map((one) => one.id);
						const naiveAnyone = ins(visitor);
						const here = found.find((f) => f.kind === kind)?.spans.find((s) => within(s.span, at) === 'in');
						const marked = folk
							.filter((one) => !one.suspended)
							.map((one) => ({ id: one.id, groups: new Set(one.memberships.filter((x2) => within(x2.span, at) === 'in').map((x2) => x2.group)) }));
						expect(marked.filter((one) => here && isIn(here.audience, one)).map((one) => one.id)).toEqual(naive);
						expect(here ? isIn(here.audience, null) : false).toBe(naiveAnyone);
						if (!here?.counted.anyone) expect(here?.counted.count ?? 0).toBe(naive.length);
						if (here && !here.counted.anyone) {
							expect(here.counted.of).toBe(folk.filter((one) => !one.suspended && decide(whoOf(one), first, 'read', at).allowed).length);
							expect(mismatchKinds(p, x, now).some((k) => k.kind === kind)).toBe(true);
						}
					}
				}
			}),
			{ numRuns: 800 }
		);
	});
});
