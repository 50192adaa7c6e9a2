// Many people at once, as sets of bits: the same people that the decision and the audiences let in one by one.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { allMembers, anyOf, difference, everyone, groupMark, intersection, isIn, personMark, union, type Audience, type Mark } from './audience';
import { decide, type Membership } from './decide';
import { newDoor, type Guarded } from './door';
import { within } from './hours';
import { audienceAt, countIn, idsOf, isShut, populationAt, reach, whoOf, type Member } from './population';

const now = Date.parse('2026-11-24T12:00Z');
const day = 86_400_000;
const bound = fc.constantFrom(null, now - day, now, now + 1, now + day);
const membership = fc.record({ group: fc.constantFrom('F', 'W', 'M'), span: fc.record({ from: bound, until: bound }) }) as fc.Arbitrary<Membership>;
/** More than three words of bits, so that places beyond the first 32 matter. */
const people = fc
	.array(fc.record({ suspended: fc.integer({ min: 0, max: 5 }).map((n) => n === 0), memberships: fc.array(membership, { maxLength: 3 }) }), { maxLength: 110 })
	.map((list) => list.map((p, i): Member => ({ id: `p${i}`, ...p })));
const mark = fc.constantFrom<Mark>(
	allMembers,
	groupMark('F'),
	groupMark('W'),
	groupMark('nobody has it'),
	personMark('p1'),
	personMark('p70'),
	personMark('gone')
);
const audience = fc
	.tuple(fc.array(mark, { minLength: 1, maxLength: 3 }), fc.array(mark, { maxLength: 2 }), fc.array(mark, { maxLength: 1 }))
	.map(([a, b, c]): Audience => difference(c.length ? intersection(anyOf(a), union(anyOf(c), anyOf(b))) : anyOf(a), anyOf(b)));
const door = fc.record({
	position: fc.constantFrom('shut' as const, 'keyed' as const, 'ajar' as const, 'open' as const),
	allMembers: fc.boolean(),
	groups: fc.subarray(['F', 'W', 'gone']),
	people: fc.subarray(['p0', 'p33', 'p64', 'gone']),
	hours: fc.record({ from: bound, until: bound })
});
const thing = fc
	.record({ setAside: fc.integer({ min: 0, max: 9 }).map((n) => n === 0), door })
	.map((t): Guarded => ({ ...t, follows: null, door: { ...newDoor, ...t.door } }));

const groupsOf = (person: Member) => new Set(person.memberships.filter((m) => within(m.span, now) === 'in').map((m) => m.group));

describe('a population', () => {
	it('is reached by a door as the decision lets each of it in', () => {
		fc.assert(
			fc.property(people, thing, (all, guarded) => {
				const reached = reach(guarded, populationAt(all, now));
				const letIn = all.filter((p) => decide(whoOf(p), guarded, 'read', now).allowed).map((p) => p.id);
				if (reached.anyone) {
					expect(letIn).toEqual(all.map((p) => p.id));
					expect(reached.count).toBe(all.filter((p) => !p.suspended).length);
				} else {
					expect(idsOf(reached, populationAt(all, now))).toEqual(letIn);
					expect(reached.count).toBe(letIn.length);
				}
				expect(isShut(guarded, now)).toBe(isShutBy(guarded));
				if (isShutBy(guarded)) expect([audienceAt(guarded, now), letIn]).toEqual([[], []]);
			}),
			{ numRuns: 300 }
		);
	});
	const isShutBy = (guarded: Guarded) => guarded.setAside || guarded.door.position === 'shut' || within(guarded.door.hours, now) !== 'in';
	it('has as many of an audience in it as there are one by one', () => {
		fc.assert(
			fc.property(people, audience, audience, (all, some, more) => {
				const population = populationAt(all, now);
				const whole = union(some, more);
				const one = (audience: Audience) => all.filter((p) => !p.suspended && isIn(audience, { id: p.id, groups: groupsOf(p) })).length;
				expect(countIn(some, whole, population)).toEqual({ anyone: false, count: one(some), of: one(whole) });
			}),
			{ numRuns: 300 }
		);
	});
	it('is not counted where visitors are meant too', () => {
		const population = populationAt([{ id: 'a', suspended: false, memberships: [] }], now);
		expect(countIn(everyone, everyone, population)).toEqual({ anyone: true, count: 0, of: 0 });
		expect(countIn(difference(everyone, anyOf([groupMark('F')])), everyone, population)).toEqual({ anyone: true, count: 0, of: 0 });
		expect(countIn(anyOf([groupMark('F')]), everyone, population)).toEqual({ anyone: false, count: 0, of: 1 });
	});
});
