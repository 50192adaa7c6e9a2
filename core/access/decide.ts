// The one decision: may this person do this with this thing at this instant, why, and when does the answer change.
// No clock, no database, no interface: every address that yields any part of a document or page asks here.
import type { ErrorCode } from '../errors';
import type { Door, Guarded } from './door';
import { within, type Instant, type Span } from './hours';
import { keyTrouble, type HeldKey, type KeyTrouble } from './key';
import { doorInForce, isAway } from './standing';

/** A membership of a group, with its span as instants. */
export interface Membership {
	readonly group: string;
	readonly span: Span;
}

/** Who asks. Visitors and members may hold keys for the thing besides. */
export type Who =
	| { readonly kind: 'visitor'; readonly keys?: readonly HeldKey[] }
	| {
			readonly kind: 'member';
			readonly id: string;
			readonly suspended: boolean;
			readonly memberships: readonly Membership[];
			readonly keys?: readonly HeldKey[];
	  }
	| { readonly kind: 'staff'; readonly id: string };

export type Action = 'see' | 'read' | 'save' | 'print';

export type AdmittedCode = 'staff' | 'open' | 'ajar' | 'all-members' | 'group' | 'person' | 'key';
export type RefusedCode = Extract<
	ErrorCode,
	| 'set-aside'
	| 'shut'
	| 'not-yet'
	| 'closed'
	| 'sign-in'
	| 'membership-not-yet'
	| 'membership-lapsed'
	| 'not-admitted'
	| 'key-withdrawn'
	| 'key-lapsed'
	| 'key-used-up'
	| 'key-password'
	| 'save-not-allowed'
	| 'print-not-allowed'
>;

/** Why. `group` is the group's id, `key` the key's; `at` the instant that the reason speaks of (opens, closed, began, lapsed). */
export interface Reason {
	readonly code: AdmittedCode | RefusedCode;
	readonly group?: string;
	readonly key?: string;
	readonly at?: Instant;
}

export interface Decision {
	readonly allowed: boolean;
	/** The first is the one that counts. */
	readonly reasons: readonly [Reason, ...Reason[]];
	/** The next instant at which yes becomes no or no becomes yes; null where it stays for ever. */
	readonly changesAt: Instant | null;
}

export const visitor = { kind: 'visitor' } as const satisfies Who;

/** The groups of which somebody is a member at an instant, by their ids; none for visitors and staff. */
export const groupsAt = (who: Who, at: Instant): string[] =>
	who.kind === 'member' ? who.memberships.filter((m) => within(m.span, at) === 'in').map((m) => m.group) : [];

/**
 * Decides. Example: a visitor at an open door → `{allowed: true, reasons: [{code: 'open'}], changesAt: null}`.
 */
export function decide(who: Who, thing: Guarded, action: Action, at: Instant): Decision {
	const reasons = reasonsAt(who, thing, action, at);
	const allowed = isAdmitted(reasons[0]);
	let changesAt: Instant | null = null;
	for (const next of boundsAfter(who, thing, at)) {
		if (isAdmitted(reasonsAt(who, thing, action, next)[0]) !== allowed) {
			changesAt = next;
			break;
		}
	}
	return { allowed, reasons, changesAt };
}

/**
 * Whether a list (catalogue, find, feed, "what I may read") names the thing to this person: whoever is let in, but at an
 * ajar door, or an open one that is not listed, only those who would be let in if it were keyed. A key lists nothing.
 */
export function isListed(who: Who, thing: Guarded, at: Instant): boolean {
	if (!decide(withoutKeys(who), thing, 'see', at).allowed) return false;
	const door = doorInForce(thing);
	if (door.position === 'keyed' || (door.position === 'open' && door.listed)) return true;
	const asKeyed: Guarded = { setAside: thing.setAside, follows: null, door: { ...door, position: 'keyed' } };
	return decide(withoutKeys(who), asKeyed, 'see', at).allowed;
}

/** The same person without their keys. */
const withoutKeys = (who: Who): Who => (who.kind === 'staff' ? who : { ...who, keys: [] });
const keysOf = (who: Who): readonly HeldKey[] => (who.kind === 'staff' ? [] : (who.keys ?? []));

const admittedCodes: readonly string[] = ['staff', 'open', 'ajar', 'all-members', 'group', 'person', 'key'];

function isAdmitted(reason: Reason): boolean {
	return admittedCodes.includes(reason.code);
}

function reasonsAt(who: Who, thing: Guarded, action: Action, at: Instant): [Reason, ...Reason[]] {
	if (who.kind === 'staff') return [{ code: 'staff' }];
	if (thing.setAside || thing.follows?.setAside) return [{ code: 'set-aside' }];
	if (isAway(thing)) return [{ code: 'shut' }];
	const door = doorInForce(thing);
	if (door.position === 'shut') return [{ code: 'shut' }];
	const stands = within(door.hours, at);
	// what has not begun has a beginning
	if (stands === 'before') return [{ code: 'not-yet', at: door.hours.from! }];
	// what is over has an end
	if (stands === 'after') return [{ code: 'closed', at: door.hours.until! }];

	const admitted = admittedBy(who, door, at);
	if (!admitted.length) return [refusal(who, door, at)];
	// somebody let in in several ways has the most generous allowance of them
	const keys = new Map(keysOf(who).map((key) => [key.id, key.allow]));
	// every key that admitted is one of those held
	const [first, ...rest] = admitted.filter(({ key }) => action === 'see' || action === 'read' || (key ? keys.get(key)! : door.allow)[action]);
	if (first) return [first, ...rest];
	return [{ code: action === 'save' ? 'save-not-allowed' : 'print-not-allowed' }];
}

/** Every way in which the door lets this person in, in the order in which reasons are named. */
function admittedBy(who: Who, door: Door, at: Instant): Reason[] {
	const reasons: Reason[] = [];
	if (door.position === 'open') reasons.push({ code: 'open' });
	if (door.position === 'ajar') reasons.push({ code: 'ajar' });
	if (who.kind === 'member' && !who.suspended) {
		const current = who.memberships.filter((m) => within(m.span, at) === 'in');
		if (door.allMembers && current.length) reasons.push({ code: 'all-members' });
		for (const m of current) if (door.groups.includes(m.group)) reasons.push({ code: 'group', group: m.group });
		if (door.people.includes(who.id)) reasons.push({ code: 'person' });
	}
	for (const key of keysOf(who)) if (keyTrouble(key, at) === null) reasons.push({ code: 'key', key: key.id });
	return reasons;
}

/** What is wrong with the keys held, that first which most likely can be mended. */
function keyRefusal(who: Who, at: Instant): Reason | null {
	for (const code of ['key-password', 'key-used-up', 'key-lapsed', 'key-withdrawn'] satisfies KeyTrouble[]) {
		const key = keysOf(who).find((k) => keyTrouble(k, at) === code);
		// what has lapsed has an end
		if (key) return { code, key: key.id, ...(code === 'key-lapsed' ? { at: key.until! } : {}) };
	}
	return null;
}

/** Of the reasons why a keyed door does not let this person in, the one that would help most. */
function refusal(who: Who, door: Door, at: Instant): Reason {
	const key = keyRefusal(who, at);
	// a password is known to whoever was given the key: that is the shortest way in
	if (key?.code === 'key-password') return key;
	if (who.kind !== 'member') return key ?? { code: 'sign-in' };
	if (who.suspended) return key ?? { code: 'not-admitted' };
	const relevant = who.memberships.filter((m) => door.allMembers || door.groups.includes(m.group));
	// what has not begun has a beginning
	const coming = relevant.filter((m) => within(m.span, at) === 'before').sort((a, b) => a.span.from! - b.span.from!)[0];
	// it has a beginning, as above
	if (coming) return { code: 'membership-not-yet', group: coming.group, at: coming.span.from! };
	// what is over has an end
	const lapsed = relevant.filter((m) => within(m.span, at) === 'after').sort((a, b) => b.span.until! - a.span.until!)[0];
	// it has an end, as above
	if (lapsed) return { code: 'membership-lapsed', group: lapsed.group, at: lapsed.span.until! };
	return key ?? { code: 'not-admitted' };
}

function boundsAfter(who: Who, thing: Guarded, at: Instant): Instant[] {
	const spans = [doorInForce(thing).hours, ...(who.kind === 'member' ? who.memberships.map((m) => m.span) : [])];
	const bounds = [...spans.flatMap((s) => [s.from, s.until]), ...keysOf(who).map((k) => k.until)].filter((b): b is Instant => b !== null && b > at);
	return [...new Set(bounds)].sort((a, b) => a - b);
}
