// Keys in the decision: by hand, and the whole decision against a second, deliberately naive implementation.
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { decide, isListed, visitor, type Action, type Membership, type Who } from './decide';
import { keyState, keyTrouble, type HeldKey } from './key';
import { newDoor, positions, type Door, type Guarded } from './door';
import { endOfDay, startOfDay, type Instant, type Span } from './hours';

const now = Date.parse('2026-11-24T12:00Z');
const key = (change: Partial<HeldKey> = {}): HeldKey => ({
	id: 'k',
	allow: { save: true, print: false },
	withdrawn: false,
	until: null,
	openingsLeft: null,
	wantsPassword: false,
	...change
});
const holding = (...keys: HeldKey[]): Who => ({ ...visitor, keys });
const thing = (door: Partial<Door> = {}): Guarded => ({
	setAside: false,
	follows: null,
	door: { ...newDoor, position: 'keyed', groups: ['wardens'], allow: { save: false, print: false }, ...door }
});
const said = (who: Who, guarded: Guarded, action: Action = 'read') => {
	const { allowed, reasons } = decide(who, guarded, action, now);
	return (allowed ? '+' : '') + reasons[0].code;
};

describe('a key', () => {
	it('opens a keyed door to whoever holds it, with its own allowance', () => {
		expect(said(holding(key()), thing())).toBe('+key');
		expect(said(holding(key()), thing(), 'save')).toBe('+key');
		expect(said(holding(key()), thing(), 'print')).toBe('print-not-allowed');
		expect(decide(holding(key()), thing(), 'read', now).reasons[0].key).toBe('k');
	});
	it('does not help at a shut door, nor outside the hours', () => {
		expect(said(holding(key()), thing({ position: 'shut' }))).toBe('shut');
		expect(said(holding(key()), thing({ hours: { from: now + 1, until: null } }))).toBe('not-yet');
		expect(said(holding(key()), { ...thing(), setAside: true })).toBe('set-aside');
	});
	it('widens what somebody let in otherwise may do: the most generous counts', () => {
		const warden: Who = {
			kind: 'member',
			id: 'w',
			suspended: false,
			memberships: [{ group: 'wardens', span: { from: null, until: null } }],
			keys: [key()]
		};
		expect(said(warden, thing())).toBe('+group');
		expect(said(warden, thing(), 'save')).toBe('+key');
		expect(said(holding(key()), thing({ position: 'ajar' }), 'save')).toBe('+key');
		expect(said(holding(key()), thing({ position: 'open' }))).toBe('+open');
	});
	it.each([
		['withdrawn', { withdrawn: true }, 'key-withdrawn'],
		['past its last day', { until: now }, 'key-lapsed'],
		['in its last moment', { until: now + 1 }, '+key'],
		['used up', { openingsLeft: 0 }, 'key-used-up'],
		['with one opening left', { openingsLeft: 1 }, '+key'],
		['whose password was not given', { wantsPassword: true }, 'key-password'],
		['withdrawn and with a password', { withdrawn: true, wantsPassword: true }, 'key-withdrawn']
	] as const)('%s', (_what, change, code) => expect(said(holding(key(change)), thing())).toBe(code));
	it('of several the good one counts, and of bad ones the trouble that can be mended is told', () => {
		expect(said(holding(key({ withdrawn: true }), key({ id: 'l' })), thing())).toBe('+key');
		expect(said(holding(key({ withdrawn: true }), key({ id: 'l', wantsPassword: true })), thing())).toBe('key-password');
	});
	it('lists nothing', () => {
		expect(isListed(holding(key()), thing(), now)).toBe(false);
		expect(isListed(holding(key()), thing({ position: 'open', listed: false }), now)).toBe(false);
	});
	it('says when it will stop opening', () => {
		expect(decide(holding(key({ until: now + 5000 })), thing(), 'read', now).changesAt).toBe(now + 5000);
	});
});

// ---- the naive second: one question after the other, no lists of reasons, no shared helper

const inside = (s: Span, at: Instant) => (s.from === null || s.from <= at) && (s.until === null || at < s.until);

function naive(who: Who, guarded: Guarded, action: Action, at: Instant): boolean {
	if (who.kind === 'staff') return true;
	if (guarded.setAside) return false;
	if (guarded.follows && guarded.follows.setAside) return false;
	const lead = guarded.follows ? guarded.follows.door : guarded.door;
	if (lead.position === 'shut') return false;
	if (!inside(lead.hours, at)) return false;
	let byDoor = lead.position === 'open' || lead.position === 'ajar';
	if (who.kind === 'member' && !who.suspended) {
		for (const m of who.memberships) {
			if (!inside(m.span, at)) continue;
			if (lead.allMembers) byDoor = true;
			if (lead.groups.indexOf(m.group) >= 0) byDoor = true;
		}
		if (lead.people.indexOf(who.id) >= 0) byDoor = true;
	}
	const good = (who.keys ?? []).filter(
		(k) => !k.withdrawn && !(k.until !== null && k.until <= at) && !(k.openingsLeft !== null && k.openingsLeft < 1) && !k.wantsPassword
	);
	if (action === 'see' || action === 'read') return byDoor || good.length > 0;
	if (byDoor && guarded.door.allow[action]) return true;
	return good.some((k) => k.allow[action]);
}

// days around the changes of clocks in London, 2026-03-29 and 2026-10-25 (IANA time zone database)
const zone = 'Europe/London';
const days = ['2026-03-27', '2026-03-28', '2026-03-29', '2026-03-30', '2026-10-23', '2026-10-24', '2026-10-25', '2026-10-26'];
const edges = days.flatMap((d) => [startOfDay(d, zone), endOfDay(d, zone)]);
const instant = fc.oneof(
	fc.constantFrom(...edges),
	fc.constantFrom(...edges).map((e) => e - 1),
	fc.integer({ min: edges[0]! - 1000, max: edges[edges.length - 1]! + 1000 })
);
const span = fc
	.tuple(fc.option(fc.constantFrom(...days), { nil: null }), fc.option(fc.constantFrom(...days), { nil: null }))
	.map(([a, b]): Span => ({ from: a === null ? null : startOfDay(a, zone), until: b === null ? null : endOfDay(b, zone) }));
const allow = fc.record({ save: fc.boolean(), print: fc.boolean() });
const group = fc.constantFrom('a', 'b', 'c');
const door: fc.Arbitrary<Door> = fc.record({
	position: fc.constantFrom(...positions),
	allMembers: fc.boolean(),
	groups: fc.uniqueArray(group, { maxLength: 2 }),
	people: fc.uniqueArray(fc.constantFrom('p', 'q'), { maxLength: 1 }),
	hours: span,
	allow,
	listed: fc.boolean(),
	announced: fc.boolean()
});
const things: fc.Arbitrary<Guarded> = fc.record({
	setAside: fc.constantFrom(false, false, false, true),
	door,
	follows: fc.option(fc.record({ setAside: fc.constantFrom(false, false, true), door }), { nil: null, freq: 2 })
});
const keys: fc.Arbitrary<HeldKey[]> = fc.uniqueArray(
	fc.record({
		id: fc.constantFrom('1', '2', '3'),
		allow,
		withdrawn: fc.constantFrom(false, false, true),
		until: fc.option(instant, { nil: null }),
		openingsLeft: fc.option(fc.integer({ min: 0, max: 2 }), { nil: null }),
		wantsPassword: fc.constantFrom(false, false, true)
	}),
	{ maxLength: 2, selector: (k) => k.id }
);
const memberships: fc.Arbitrary<Membership[]> = fc.array(fc.record({ group, span }), { maxLength: 3 });
const whos: fc.Arbitrary<Who> = fc.oneof(
	fc.record({ kind: fc.constant('visitor' as const), keys }),
	fc.record({ kind: fc.constant('member' as const), id: fc.constantFrom('p', 'q', 'r'), suspended: fc.constantFrom(false, false, true), memberships, keys }),
	fc.record({ kind: fc.constant('staff' as const), id: fc.constant('s') })
);
const actions = fc.constantFrom<Action>('see', 'read', 'save', 'print');

describe('the decision against a naive second one', () => {
	it('agrees in 100,000 cases, over changes of clocks, beginnings and ends', () => {
		fc.assert(
			fc.property(whos, things, actions, instant, (who, guarded, action, at) => decide(who, guarded, action, at).allowed === naive(who, guarded, action, at)),
			{ numRuns: 100_000 }
		);
	});
	it('the answer stays as it is until the instant it names, and is the other one there', () => {
		fc.assert(
			fc.property(whos, things, actions, instant, fc.double({ min: 0, max: 1, noNaN: true }), (who, guarded, action, at, part) => {
				const { allowed, changesAt } = decide(who, guarded, action, at);
				if (changesAt === null) return naive(who, guarded, action, at + 400 * 86_400_000) === allowed;
				const between = Math.floor(at + (changesAt - 1 - at) * part);
				return naive(who, guarded, action, between) === allowed && naive(who, guarded, action, changesAt) === !allowed;
			}),
			{ numRuns: 20_000 }
		);
	});
});

describe('how a key stands for those who issued it', () => {
	it.each([
		[{}, 'good'],
		// whoever holds it may know the password; that it has one is no trouble of the key
		[{ wantsPassword: true }, 'good'],
		[{ until: now }, 'lapsed'],
		[{ openingsLeft: 0 }, 'used-up'],
		[{ openingsLeft: 0, until: now, withdrawn: true }, 'withdrawn']
	] satisfies [Partial<HeldKey>, string][])('%j: %s', (change, state) => {
		expect(keyState(key(change), now)).toBe(state);
	});
	it('opens exactly where it is good and its password is given', () => {
		for (const change of [{}, { withdrawn: true }, { until: now }, { until: now + 1 }, { openingsLeft: 0 }, { openingsLeft: 1 }])
			expect(keyTrouble(key(change), now) === null).toBe(keyState(key(change), now) === 'good');
	});
});
