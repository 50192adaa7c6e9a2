// A door said as a sentence with numbers, and a refusal said to the person it meets.
import type { Allowance, Door } from './door';
import { dateFormat } from '../text/formats';
import { counted, listWords } from '../text/list';
import type { Language } from '../words/words';
import { dayOf, within, type Instant } from './hours';

/** What the sentence is made from: names, not ids, and how many people of today the groups and names come to. */
export interface Reach extends Door {
	/** Distinct people of today whom groups, names and all members come to. */
	readonly count: number;
	/** Title of the page that the document follows. */
	readonly follows: string | null;
	readonly setAside?: boolean;
}

/** '31 March 2027', the day of an instant in the site's zone. */
export function dayWords(at: Instant, zone: string, language = 'en'): string {
	return dateFormat(language, { timeZone: zone, day: 'numeric', month: 'long', year: 'numeric' }).format(at);
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
	// what is over has an end
	if (now === 'after') return `Closed since ${boundWords(until!, zone, 'until')}: only staff may open it.`;
	const may = `may ${allowanceWords(reach.allow)}`;
	const until_ = until === null ? '' : ` until ${boundWords(until, zone, 'until')}`;
	// what has not begun has a beginning
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
	if (reach.position === 'keyed' && reach.announced) return '; everyone sees that it is there';
	return '';
}

/** A bound as people say it: a day where it falls on a day's edge ('until' names the last day), else day and time. */
export function boundWords(bound: Instant, zone: string, side: 'from' | 'until', language: Language = 'en'): string {
	const onEdge = dayOf(bound, zone) !== dayOf(bound - 1, zone);
	const day = (at: Instant) => (language === 'en' ? dayWords(at, zone) : dateFormat(language, { timeZone: zone, dateStyle: 'long' }).format(at));
	if (onEdge) return day(side === 'until' ? bound - 1 : bound);
	const time = dateFormat(language, { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(bound);
	return language === 'en' ? `${time} on ${day(bound)}` : `${day(bound)}, ${time}`;
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
