// A door said as a sentence with numbers, and a refusal said to the person it meets.
import type { RefusedCode } from './decide';
import type { Allowance, Position } from './door';
import { dayOf, within, type Instant, type Span } from './hours';

/** What the sentence is made from: names, not ids, and how many people of today the groups and names come to. */
export interface Reach {
	readonly position: Position;
	readonly allMembers: boolean;
	readonly groups: readonly string[];
	readonly people: readonly string[];
	/** Distinct people of today whom groups, names and all members come to. */
	readonly count: number;
	readonly hours: Span;
	readonly allow: Allowance;
	readonly listed: boolean;
	/** Title of the page that the document follows. */
	readonly follows: string | null;
	readonly setAside?: boolean;
}

/** 'a', 'a and b', 'a, b and c'. */
export function listWords(items: readonly string[]): string {
	if (items.length < 2) return items[0] ?? '';
	return `${items.slice(0, -1).join(', ')} and ${items[items.length - 1]}`;
}

/** '1 person', '14 people': a number with its noun. */
export function counted(n: number, one: string, many: string): string {
	return `${n.toLocaleString('en-GB')} ${n === 1 ? one : many}`;
}

/** '31 March 2027', the day of an instant in the site's zone. */
export function dayWords(at: Instant, zone: string): string {
	return new Intl.DateTimeFormat('en-GB', { timeZone: zone, day: 'numeric', month: 'long', year: 'numeric' }).format(at);
}

/** 'read, save and print': what the allowance comes to. */
export function allowanceWords(allow: Allowance): string {
	return listWords(['read', ...(allow.save ? ['save'] : []), ...(allow.print ? ['print'] : [])]);
}

/** Who is meant, short, for a table: 'Lock wardens', 'All members', 'Everyone'. */
export function whoWords(reach: Reach): string {
	if (reach.position === 'shut') return 'Staff only';
	if (reach.position === 'open') return 'Everyone';
	if (reach.position === 'ajar') return 'With the address';
	if (reach.allMembers) return 'All members';
	const people = reach.people.length > 3 ? [counted(reach.people.length, 'named person', 'named people')] : [...reach.people];
	return [...reach.groups, ...people].join(', ') || 'Nobody yet';
}

/**
 * The door in one sentence. Example: keyed to Lock wardens, 14 people of today, until the end of March →
 * 'Lock wardens, 14 people, may read, save and print until 31 March 2027.'
 */
export function sentence(reach: Reach, at: Instant, zone: string): string {
	if (reach.setAside) return 'Set aside: only staff may open it.';
	const prefix = reach.follows ? `Follows “${reach.follows}”: ` : '';
	return prefix + stands(reach, at, zone);
}

function stands(reach: Reach, at: Instant, zone: string): string {
	if (reach.position === 'shut') return 'Only staff may open it.';
	const { from, until } = reach.hours;
	const now = within(reach.hours, at);
	if (now === 'after') return `Closed since ${boundWords(until!, zone, 'until')}: only staff may open it.`;
	const may = `may ${allowanceWords(reach.allow)}`;
	const until_ = until === null ? '' : ` until ${boundWords(until, zone, 'until')}`;
	const from_ = now === 'before' ? ` from ${boundWords(from!, zone, 'from')}` : '';
	return `${subject(reach)} ${may}${from_}${until_}${tail(reach)}.`;
}

function subject(reach: Reach): string {
	if (reach.position === 'open') return 'Everyone';
	if (reach.position === 'ajar') return 'Whoever has the address';
	if (!reach.allMembers && !reach.groups.length && !reach.people.length) return 'Nobody but staff';
	return `${whoWords(reach)}, ${counted(reach.count, 'person', 'people')},`;
}

function tail(reach: Reach): string {
	if (reach.position === 'ajar') return '; it is not listed, and search engines are told to keep out';
	if (reach.position === 'open' && !reach.listed) return '; it is not listed';
	if (reach.position === 'keyed' && !reach.allMembers && !reach.groups.length && !reach.people.length) return ': no group and no person is admitted yet';
	return '';
}

/** A bound as people say it: a day where it falls on a day's edge ('until' names the last day), else day and time. */
export function boundWords(bound: Instant, zone: string, side: 'from' | 'until'): string {
	const time = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(bound);
	const onEdge = dayOf(bound, zone) !== dayOf(bound - 1, zone);
	if (onEdge) return dayWords(side === 'until' ? bound - 1 : bound, zone);
	return `${time} on ${dayWords(bound, zone)}`;
}

/** Why somebody is let in, for staff. */
export function admittedWords(code: string): string {
	switch (code) {
		case 'staff':
			return 'Staff may everything.';
		case 'open':
			return 'The door is open to everyone.';
		case 'ajar':
			return 'The door is ajar: whoever has the address.';
		case 'all-members':
			return 'A current membership, and all members are admitted.';
		case 'group':
			return 'By the group.';
		case 'person':
			return 'Admitted by name.';
		default:
			return 'By the key.';
	}
}

/** What the turned-away page says: a heading and a sentence, and whether signing in could help. */
export interface Refusal {
	readonly heading: string;
	readonly words: string;
	readonly offersSignIn: boolean;
}

/** The words for a refusal. They name neither title, file name, pages nor size (the thing may be nobody's business). */
export function refusalWords(code: RefusedCode, zone: string, facts: { at?: Instant; group?: string } = {}): Refusal {
	const group = facts.group ? ` of ${facts.group}` : '';
	switch (code) {
		case 'set-aside':
		case 'shut':
			return { heading: 'Nothing here', words: 'There is nothing here for you at this address.', offersSignIn: false };
		case 'not-yet':
			return { heading: 'Not open yet', words: `This opens on ${boundWords(facts.at!, zone, 'from')}.`, offersSignIn: false };
		case 'closed':
			return { heading: 'Closed', words: 'This was open for a time, and that time is over.', offersSignIn: false };
		case 'sign-in':
			return { heading: 'For members', words: 'This is kept for members. Sign in, and if you are among those it is meant for, it opens.', offersSignIn: true };
		case 'membership-not-yet':
			return {
				heading: 'Your membership has not begun',
				words: `Your membership${group} begins on ${boundWords(facts.at!, zone, 'from')}; this opens to you then.`,
				offersSignIn: false
			};
		case 'membership-lapsed':
			return {
				heading: 'Your membership has run out',
				words: `Your membership${group} ran until ${boundWords(facts.at!, zone, 'until')}. Once it is renewed, this opens to you again.`,
				offersSignIn: false
			};
		case 'not-admitted':
			return { heading: 'Not for your groups', words: 'You are signed in, but this is kept for other groups than yours.', offersSignIn: false };
		case 'key-withdrawn':
			return { heading: 'This key no longer opens', words: 'It has been withdrawn. Ask whoever gave it to you for another one.', offersSignIn: false };
		case 'key-lapsed':
			return {
				heading: 'This key has run out',
				words: `It opened until ${boundWords(facts.at!, zone, 'until')}. Ask whoever gave it to you for another one.`,
				offersSignIn: false
			};
		case 'key-used-up':
			return {
				heading: 'This key is used up',
				words: 'It has been used as often as it may be. Ask whoever gave it to you for another one.',
				offersSignIn: false
			};
		case 'key-password':
			return {
				heading: 'This key wants its password',
				words: 'Open the address of the key once more and give the password that came with it.',
				offersSignIn: false
			};
		case 'save-not-allowed':
			return { heading: 'To be read here', words: 'You may read this here, but not save a copy.', offersSignIn: false };
		case 'print-not-allowed':
			return { heading: 'To be read here', words: 'You may read this here, but not print it.', offersSignIn: false };
	}
}
