import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	allMembers,
	anyOf,
	audienceWords,
	difference,
	everyone,
	groupMark,
	includes,
	intersection,
	isIn,
	isNobody,
	nobody,
	personMark,
	union,
	type Audience,
	type Mark,
	type Marked
} from './audience';
import { decide, visitor } from './decide';
import { positions } from './door';
import { within } from './hours';
import { audienceAt, idsOf, populationAt, reach, whoOf } from './population';

const now = Date.parse('2026-11-24T12:00Z');
const names = { group: (id: string) => ({ F: 'Friends', W: 'Lock wardens', M: 'Moorers' })[id] ?? id, person: (id: string) => id };
const friends = anyOf([groupMark('F')]);
const wardens = anyOf([groupMark('W')]);
const members = anyOf([allMembers]);

describe('audiences for anyone ever', () => {
	it('groups lie within all members, all members within everyone, a person within nothing by words alone', () => {
		expect(includes(members, friends)).toBe(true);
		expect(includes(friends, members)).toBe(false);
		expect(includes(everyone, members)).toBe(true);
		expect(includes(members, anyOf([personMark('Ben')]))).toBe(false);
		expect(includes(everyone, anyOf([personMark('Ben')]))).toBe(true);
		expect(includes(friends, union(friends, nobody))).toBe(true);
		expect(isNobody(difference(friends, members))).toBe(true);
		expect(isNobody(intersection(anyOf([personMark('Ben')]), anyOf([personMark('Cem')])))).toBe(true);
	});
	it('are said in words', () => {
		expect(audienceWords(nobody, names)).toBe('nobody');
		expect(audienceWords(everyone, names)).toBe('everyone');
		expect(audienceWords(difference(everyone, wardens), names)).toBe('everyone without Lock wardens');
		expect(audienceWords(difference(members, wardens), names)).toBe('all members without Lock wardens');
		expect(audienceWords(difference(wardens, anyOf([personMark('Ben')])), names)).toBe('Lock wardens without Ben');
		expect(audienceWords(difference(union(friends, wardens), anyOf([groupMark('M'), personMark('Ben')])), names)).toBe(
			'Friends and Lock wardens without Moorers and Ben'
		);
		expect(audienceWords(intersection(friends, wardens), names)).toBe('Friends who are also Lock wardens');
		expect(audienceWords(difference(union(members, anyOf([personMark('Ben')])), friends), names)).toBe('all members and Ben without Friends');
	});

	// every kind of person there can be over three groups and two names
	const kinds: (Marked | null)[] = [null];
	for (const id of ['Ben', 'Cem', 'somebody'])
		for (let set = 0; set < 16; set++) kinds.push({ id, groups: new Set(['F', 'W', 'M', 'another'].filter((_, i) => set & (1 << i))) });
	const mark = fc.constantFrom<Mark>(allMembers, groupMark('F'), groupMark('W'), groupMark('M'), personMark('Ben'), personMark('Cem'));
	const audience: fc.Arbitrary<Audience> = fc.letrec<{ a: Audience }>((tie) => ({
		a: fc.oneof(
			{ maxDepth: 3 },
			fc.array(mark, { maxLength: 3 }).map(anyOf),
			fc.constant(everyone),
			fc.tuple(tie('a'), tie('a')).map(([x, y]) => union(x, y)),
			fc.tuple(tie('a'), tie('a')).map(([x, y]) => difference(x, y)),
			fc.tuple(tie('a'), tie('a')).map(([x, y]) => intersection(x, y))
		)
	})).a;
	it('union, difference, intersection, inclusion and emptiness agree with asking every kind of person', () => {
		fc.assert(
			fc.property(audience, audience, (a, b) => {
				for (const kind of kinds) {
					const [inA, inB] = [isIn(a, kind), isIn(b, kind)];
					expect(isIn(union(a, b), kind)).toBe(inA || inB);
					expect(isIn(difference(a, b), kind)).toBe(inA && !inB);
					expect(isIn(intersection(a, b), kind)).toBe(inA && inB);
				}
				expect(includes(a, b)).toBe(kinds.every((kind) => !isIn(b, kind) || isIn(a, kind)));
				expect(isNobody(a)).toBe(kinds.every((kind) => !isIn(a, kind)));
			}),
			{ numRuns: 400 }
		);
	});
});

describe('whom a thing reaches', () => {
	const bound = fc.option(fc.integer({ min: now - 5, max: now + 5 }), { nil: null });
	const span = fc.record({ from: bound, until: bound });
	const groupId = fc.constantFrom('F', 'W', 'M');
	const person = fc.record({
		suspended: fc.boolean(),
		memberships: fc.array(fc.record({ group: groupId, span }), { maxLength: 3 })
	});
	const door = fc.record({
		position: fc.constantFrom(...positions),
		allMembers: fc.boolean(),
		groups: fc.uniqueArray(groupId),
		people: fc.uniqueArray(fc.constantFrom('p0', 'p1', 'p40', 'gone')),
		hours: span,
		allow: fc.constant({ save: true, print: true }),
		listed: fc.boolean(),
		announced: fc.boolean()
	});
	const thing = fc.record({
		setAside: fc.boolean(),
		door,
		follows: fc.option(fc.record({ setAside: fc.boolean(), door }), { nil: null })
	});
	it('is whom the decision lets in, one by one, and whom the audience means', () => {
		fc.assert(
			fc.property(fc.array(person, { maxLength: 45 }), thing, fc.integer({ min: now - 6, max: now + 6 }), (given, guarded, at) => {
				const people = given.map((p, i) => ({ ...p, id: `p${i}` }));
				const population = populationAt(people, at);
				const reached = reach(guarded, population);
				expect(reached.anyone).toBe(decide(visitor, guarded, 'read', at).allowed);
				const audience = audienceAt(guarded, at);
				expect(isIn(audience, null)).toBe(reached.anyone);
				if (reached.anyone) return;
				const let_in = people.filter((p) => decide(whoOf(p), guarded, 'read', at).allowed).map((p) => p.id);
				expect(idsOf(reached, population)).toEqual(let_in);
				expect(reached.count).toBe(let_in.length);
				const marked = people
					.filter((p) => !p.suspended)
					.map((p) => ({ id: p.id, groups: new Set(p.memberships.filter((x) => within(x.span, at) === 'in').map((x) => x.group)) }));
				expect(marked.filter((p) => isIn(audience, p)).map((p) => p.id)).toEqual(let_in);
			}),
			{ numRuns: 1500 }
		);
	});
});
