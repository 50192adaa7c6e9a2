// The decision against a table written out by hand, and the worked cases of the model.
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { isAnnounced, standingOf } from './standing';
import { decide, isListed, visitor, type Action, type Who } from './decide';
import { newDoor, positions, type Door, type Position, type Guarded } from './door';
import { always, spanOf } from './hours';

const now = Date.parse('2026-11-24T12:00Z');
const zone = 'Europe/London';
const wardens = 'g-wardens';
const friends = 'g-friends';

const member = (id: string, memberships: [string, string | null, string | null][], suspended = false): Who => ({
	kind: 'member',
	id,
	suspended,
	memberships: memberships.map(([group, from, until]) => ({ group, span: spanOf(from, until, zone) }))
});
const people = {
	visitor,
	staff: { kind: 'staff', id: 's' },
	admitted: member('ben', [[wardens, '2026-03-01', null]]),
	other: member('ada', [[friends, '2026-01-01', '2026-12-31']]),
	lapsed: member('cem', [[wardens, null, '2026-10-31']]),
	coming: member('fin', [[wardens, '2026-12-01', null]]),
	named: member('dot', []),
	suspended: member('eve', [[wardens, null, null]], true)
} as const satisfies Record<string, Who>;
type Person = keyof typeof people;

const thing = (door: Partial<Door>, setAside = false): Guarded => ({
	setAside,
	follows: null,
	door: { ...newDoor, groups: [wardens], people: ['dot'], ...door }
});
const hoursOf = { within: always, before: { from: now + 1000, until: null }, after: { from: null, until: now } };

// who × position, within hours, everything allowed: the code of the first reason, let in with a +
const byPosition: Record<Person, Record<Position, string>> = {
	visitor: { shut: 'shut', keyed: 'sign-in', ajar: '+ajar', open: '+open' },
	staff: { shut: '+staff', keyed: '+staff', ajar: '+staff', open: '+staff' },
	admitted: { shut: 'shut', keyed: '+group', ajar: '+ajar', open: '+open' },
	other: { shut: 'shut', keyed: 'not-admitted', ajar: '+ajar', open: '+open' },
	lapsed: { shut: 'shut', keyed: 'membership-lapsed', ajar: '+ajar', open: '+open' },
	coming: { shut: 'shut', keyed: 'membership-not-yet', ajar: '+ajar', open: '+open' },
	named: { shut: 'shut', keyed: '+person', ajar: '+ajar', open: '+open' },
	suspended: { shut: 'shut', keyed: 'not-admitted', ajar: '+ajar', open: '+open' }
};
// what the allowance makes of somebody let in who is not staff: action → save off / print off
const byAction: Record<Action, { saveOff: string | null; printOff: string | null }> = {
	see: { saveOff: null, printOff: null },
	read: { saveOff: null, printOff: null },
	save: { saveOff: 'save-not-allowed', printOff: null },
	print: { saveOff: null, printOff: 'print-not-allowed' }
};

const said = (who: Who, guarded: Guarded, action: Action) => {
	const { allowed, reasons } = decide(who, guarded, action, now);
	return (allowed ? '+' : '') + reasons[0].code;
};

describe('the whole table of who × position × allowance × hours × action', () => {
	for (const person of Object.keys(people) as Person[]) {
		for (const position of positions) {
			for (const [hours, span] of Object.entries(hoursOf)) {
				for (const [allow, save, print] of [
					['all', true, true],
					['save off', false, true],
					['print off', true, false]
				] as const) {
					for (const action of Object.keys(byAction) as Action[]) {
						let expected = byPosition[person][position];
						if (person !== 'staff' && position !== 'shut' && hours !== 'within') expected = hours === 'before' ? 'not-yet' : 'closed';
						if (person !== 'staff' && expected.startsWith('+')) {
							const off = allow === 'save off' ? byAction[action].saveOff : allow === 'print off' ? byAction[action].printOff : null;
							expected = off ?? expected;
						}
						it(`${person}, ${position}, ${hours} hours, ${allow}, ${action} → ${expected}`, () => {
							expect(said(people[person], thing({ position, hours: span, allow: { save, print } }), action)).toBe(expected);
						});
					}
				}
			}
		}
	}
});

describe('besides the table', () => {
	it('all members lets in whoever is current in any group, and nobody who is in none', () => {
		const door = thing({ position: 'keyed', groups: [], people: [], allMembers: true });
		expect(said(people.other, door, 'read')).toBe('+all-members');
		expect(said(people.named, door, 'read')).toBe('not-admitted');
		expect(said(people.lapsed, door, 'read')).toBe('membership-lapsed');
	});
	it('set aside is shut to all but staff, whatever the position', () => {
		for (const position of positions) {
			expect(said(visitor, thing({ position }, true), 'see')).toBe('set-aside');
			expect(said(people.staff, thing({ position }, true), 'see')).toBe('+staff');
		}
	});
	it('a document that follows a page has its door and hours, and keeps its own allowance', () => {
		const follows: Guarded = {
			setAside: false,
			door: { ...newDoor, position: 'open', allow: { save: false, print: true } },
			follows: { setAside: false, door: { ...newDoor, position: 'keyed', groups: [wardens] } }
		};
		expect(said(visitor, follows, 'read')).toBe('sign-in');
		expect(said(people.admitted, follows, 'read')).toBe('+group');
		expect(said(people.admitted, follows, 'save')).toBe('save-not-allowed');
		expect(said(visitor, { ...follows, follows: { setAside: true, door: newDoor } }, 'read')).toBe('set-aside');
	});
	it('tells when the answer changes: a membership ends with its last day in the site’s zone', () => {
		const decision = decide(people.other, thing({ position: 'keyed', groups: [friends] }), 'read', now);
		expect(decision).toMatchObject({ allowed: true, changesAt: Date.parse('2027-01-01T00:00Z') });
	});
	it('tells when the answer changes: hours that end on 31 March 2027 in London end at 23:00 UTC', () => {
		const door = thing({ position: 'open', hours: spanOf(null, '2027-03-31', zone) });
		expect(decide(visitor, door, 'read', now).changesAt).toBe(Date.parse('2027-03-31T23:00Z'));
		expect(decide(visitor, door, 'read', Date.parse('2027-03-31T23:00Z')).allowed).toBe(false);
		expect(decide(visitor, door, 'read', Date.parse('2027-03-31T22:59:59.999Z')).allowed).toBe(true);
	});
	it('a bound that changes nothing is not named: the hours of a shut door', () => {
		expect(decide(visitor, thing({ position: 'shut', hours: spanOf('2027-01-01', null, zone) }), 'read', now).changesAt).toBeNull();
	});
	it('lists an ajar or unlisted document only to those whom it would admit if it were keyed', () => {
		expect(isListed(visitor, thing({ position: 'open' }), now)).toBe(true);
		expect(isListed(visitor, thing({ position: 'open', listed: false }), now)).toBe(false);
		expect(isListed(visitor, thing({ position: 'ajar' }), now)).toBe(false);
		expect(isListed(people.admitted, thing({ position: 'ajar' }), now)).toBe(true);
		expect(isListed(people.admitted, thing({ position: 'keyed' }), now)).toBe(true);
		expect(isListed(people.other, thing({ position: 'keyed' }), now)).toBe(false);
	});
});

describe('properties', () => {
	const spans = fc.record({ from: fc.option(fc.integer({ min: 0, max: 100 })), until: fc.option(fc.integer({ min: 0, max: 100 })) });
	const groups = fc.subarray(['a', 'b', 'c']);
	const whos = fc
		.record({ memberships: fc.array(fc.record({ group: fc.constantFrom('a', 'b', 'c'), span: spans }), { maxLength: 3 }), suspended: fc.boolean() })
		.map((m): Who => ({ kind: 'member', id: 'm', ...m }));
	const doors = fc.record({
		position: fc.constantFrom(...positions),
		allMembers: fc.boolean(),
		groups,
		people: fc.subarray(['m', 'n']),
		hours: spans,
		allow: fc.record({ save: fc.boolean(), print: fc.boolean() }),
		listed: fc.boolean(),
		announced: fc.boolean()
	});

	it('each position admits all that the one before it admits', () => {
		fc.assert(
			fc.property(whos, doors, fc.integer({ min: 0, max: 100 }), (who, door, at) => {
				const allowed = positions.map((position) => decide(who, { setAside: false, follows: null, door: { ...door, position } }, 'read', at).allowed);
				for (let i = 1; i < allowed.length; i++) expect(Number(allowed[i])).toBeGreaterThanOrEqual(Number(allowed[i - 1]));
			})
		);
	});
	it('the answer stays until changesAt, and is the other one there', () => {
		fc.assert(
			fc.property(whos, doors, fc.integer({ min: 0, max: 100 }), (who, door, at) => {
				const guarded: Guarded = { setAside: false, follows: null, door };
				const { allowed, changesAt } = decide(who, guarded, 'read', at);
				for (let t = at; t < (changesAt ?? 120); t++) expect(decide(who, guarded, 'read', t).allowed).toBe(allowed);
				if (changesAt !== null) expect(decide(who, guarded, 'read', changesAt).allowed).toBe(!allowed);
			})
		);
	});
	it('announcing lets nobody in and lists nothing to read', () => {
		fc.assert(
			fc.property(whos, doors, fc.integer({ min: 0, max: 100 }), (who, door, at) => {
				const told = (announced: boolean): Guarded => ({ setAside: false, follows: null, door: { ...door, announced } });
				expect(decide(who, told(true), 'read', at)).toEqual(decide(who, told(false), 'read', at));
				expect(isListed(who, told(true), at)).toBe(isListed(who, told(false), at));
				expect([isAnnounced(told(true), at), isAnnounced(told(false), at)]).toEqual([standingOf(told(true), at).position === 'keyed', false]);
			})
		);
	});
	it('who may save or print may read, and staff may everything', () => {
		fc.assert(
			fc.property(whos, doors, fc.boolean(), fc.integer({ min: 0, max: 100 }), (who, door, setAside, at) => {
				const guarded: Guarded = { setAside, follows: null, door };
				for (const action of ['save', 'print'] as const)
					if (decide(who, guarded, action, at).allowed) expect(decide(who, guarded, 'read', at).allowed).toBe(true);
				expect(decide({ kind: 'staff', id: 's' }, guarded, 'save', at).allowed).toBe(true);
			})
		);
	});
});

describe('of several reasons to be turned away, the one that helps most is told', () => {
	const why = (who: Who, door: Partial<Door> = {}) => decide(who, thing({ position: 'keyed', people: [], ...door }), 'read', now).reasons[0];
	const at = (text: string) => Date.parse(text);
	it('the membership that begins soonest, whatever their order', () => {
		const soon = { code: 'membership-not-yet', group: wardens, at: at('2026-12-01T00:00Z') };
		expect(
			why(
				member('a', [
					[wardens, '2027-03-01', null],
					[wardens, '2026-12-01', null]
				])
			)
		).toEqual(soon);
		expect(
			why(
				member('a', [
					[wardens, '2026-12-01', null],
					[wardens, '2027-03-01', null]
				])
			)
		).toEqual(soon);
	});
	it('else the one that lapsed last, whatever their order', () => {
		const late = { code: 'membership-lapsed', group: wardens, at: at('2026-10-31T00:00Z') + 86_400_000 };
		expect(
			why(
				member('a', [
					[wardens, null, '2025-03-01'],
					[wardens, null, '2026-10-31']
				])
			)
		).toEqual(late);
		expect(
			why(
				member('a', [
					[wardens, null, '2026-10-31'],
					[wardens, null, '2025-03-01']
				])
			)
		).toEqual(late);
		// one that comes goes before one that is gone
		expect(
			why(
				member('a', [
					[wardens, null, '2026-10-31'],
					[wardens, '2026-12-01', null]
				])
			).code
		).toBe('membership-not-yet');
	});
	it('never one of a group that the door does not know, unless it admits all members', () => {
		expect(why(member('a', [[friends, '2026-12-01', null]]))).toEqual({ code: 'not-admitted' });
		expect(why(member('a', [[friends, null, '2026-10-31']]))).toEqual({ code: 'not-admitted' });
		expect(why(member('a', [[friends, '2026-12-01', null]]), { allMembers: true })).toMatchObject({ code: 'membership-not-yet', group: friends });
		expect(why(member('a', [[friends, null, '2026-10-31']]), { allMembers: true })).toMatchObject({ code: 'membership-lapsed', group: friends });
	});
	it('a key’s password goes before everything, its other troubles after a membership', () => {
		const key = { id: 'k', allow: { save: true, print: true }, withdrawn: false, until: null, openingsLeft: null, wantsPassword: false };
		const coming = member('a', [[wardens, '2026-12-01', null]]);
		const lapsed = { ...key, until: now - 1 };
		expect(why({ ...coming, keys: [{ ...key, wantsPassword: true }] } as Who)).toEqual({ code: 'key-password', key: 'k' });
		expect(why({ ...coming, keys: [lapsed] } as Who).code).toBe('membership-not-yet');
		expect(why({ ...people.suspended, keys: [lapsed] } as Who)).toEqual({ code: 'key-lapsed', key: 'k', at: now - 1 });
		expect(why({ ...people.suspended, keys: [{ ...key, withdrawn: true }] } as Who)).toEqual({ code: 'key-withdrawn', key: 'k' });
		expect(why({ kind: 'visitor', keys: [{ ...key, openingsLeft: 0 }] })).toEqual({ code: 'key-used-up', key: 'k' });
	});
	it('a key lists nothing', () => {
		const key = { id: 'k', allow: { save: true, print: true }, withdrawn: false, until: null, openingsLeft: null, wantsPassword: false };
		const holder: Who = { kind: 'visitor', keys: [key] };
		expect([decide(holder, thing({ position: 'keyed' }), 'see', now).allowed, isListed(holder, thing({ position: 'keyed' }), now)]).toEqual([true, false]);
	});
});
