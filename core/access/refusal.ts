// What somebody is told who is not let in.
import { en } from '../words/en';
import { say, type Language, type SiteWords } from '../words/words';
import type { RefusedCode } from './decide';
import type { Instant } from './hours';
import { boundWords } from './reach';

/** What the turned-away page says: a heading and a sentence, and whether signing in could help. */
export interface Refusal {
	readonly heading: string;
	readonly words: string;
	readonly offersSignIn: boolean;
}

const refusals = {
	'not-yet': ['notYet', 'notYetWords'],
	closed: ['closed', 'closedWords'],
	'sign-in': ['forMembers', 'forMembersWords'],
	'membership-not-yet': ['membershipNotYet', 'membershipNotYetWords', 'membershipNotYetIn'],
	'membership-lapsed': ['membershipLapsed', 'membershipLapsedWords', 'membershipLapsedIn'],
	'not-admitted': ['notAdmitted', 'notAdmittedWords'],
	'key-withdrawn': ['keyWithdrawn', 'keyWithdrawnWords'],
	'key-lapsed': ['keyLapsed', 'keyLapsedWords'],
	'key-used-up': ['keyUsedUp', 'keyUsedUpWords'],
	'key-password': ['keyPassword', 'keyPasswordWords'],
	'save-not-allowed': ['toBeRead', 'notSave'],
	'print-not-allowed': ['toBeRead', 'notPrint'],
	// what is hidden looks like nothing at all
	'set-aside': ['nothingHere', 'nothingHereWords'],
	shut: ['nothingHere', 'nothingHereWords']
} as const satisfies Record<RefusedCode, readonly [heading: keyof SiteWords, words: keyof SiteWords, ofGroup?: keyof SiteWords]>;

/** Refusals whose instant is an end: the last day is said, not the first after it. */
const ends: ReadonlySet<RefusedCode> = new Set(['membership-lapsed', 'key-lapsed']);

/** A language and what the site says in it. */
export interface Spoken {
	readonly language: Language;
	readonly site: SiteWords;
}
const english: Spoken = { language: 'en', site: en.site };

/**
 * The words for a refusal, in a language. They name neither title, file name, pages nor size (the thing may be nobody's business).
 * `facts`: the instant that the reason speaks of, and the name of the asker's own group.
 */
export function refusalWords(code: RefusedCode, zone: string, facts: { at?: Instant; group?: string } = {}, { language, site }: Spoken = english): Refusal {
	const [heading, plain, ofGroup] = refusals[code] as readonly [keyof SiteWords, keyof SiteWords, (keyof SiteWords)?];
	const day = facts.at === undefined ? '' : boundWords(facts.at, zone, ends.has(code) ? 'until' : 'from', language);
	return {
		heading: say(language, site[heading]),
		words: say(language, site[facts.group && ofGroup ? ofGroup : plain], { day, group: facts.group ?? '' }),
		offersSignIn: code === 'sign-in'
	};
}
