// What somebody sees whom a door does not admit: the honest reason, the site's or the document's own words, one button, and whether they
// may knock. What is hidden (shut, set aside) looks like nothing at all.
import type { RefusedCode } from './decide';
import type { TurnedAwayWords } from './door';
import type { Instant } from './hours';
import { messages } from '../words/messages';
import { say, type Language } from '../words/words';
import { refusalWords } from './refusal';

export interface TurnedAwayPage {
	readonly heading: string;
	readonly words: string;
	/** The reason in general words, where own words stand in its place. */
	readonly reason: string | null;
	readonly offersSignIn: boolean;
	readonly button: { readonly label: string; readonly target: string } | null;
	/** Whether they may ask to be let in. */
	readonly knock: boolean;
}

const hidden: readonly RefusedCode[] = ['shut', 'set-aside'];

/** Refusals that staff can end for one person: by a membership or a key. A closed door or a missing password they cannot. */
const answerable: readonly RefusedCode[] = ['sign-in', 'membership-not-yet', 'membership-lapsed', 'not-admitted', 'key-withdrawn', 'key-lapsed', 'key-used-up'];

/**
 * The page for a refusal. The thing's own words go before the site's, the site's before the general ones; the reason stays told.
 * `facts`: the instant that the reason speaks of, and the name of the asker's own group.
 */
export function turnedAwayPage(
	code: RefusedCode,
	zone: string,
	facts: { at?: Instant; group?: string },
	own: TurnedAwayWords | null,
	site: TurnedAwayWords | null,
	language: Language = 'en'
): TurnedAwayPage {
	const general = refusalWords(code, zone, facts, { language, site: messages[language].site });
	if (hidden.includes(code)) return { ...general, reason: null, button: null, knock: false };
	const words = own?.words || site?.words;
	return {
		heading: own?.heading || site?.heading || general.heading,
		words: words || general.words,
		reason: words ? general.words : null,
		offersSignIn: general.offersSignIn,
		button: own?.button ?? site?.button ?? null,
		knock: answerable.includes(code) && (own?.knock ?? site?.knock ?? true)
	};
}

/**
 * For whom a keyed thing is kept, as its announcement tells everyone: groups by their names, people never by theirs.
 * Example: 'For Friends or Lock wardens', 'For all members', 'For people admitted by name'.
 */
export function keptForWords(kept: { readonly allMembers: boolean; readonly groups: readonly string[]; readonly people: number }, language: Language): string {
	const { site } = messages[language];
	const who = [...(kept.allMembers ? [site.everyMember as string] : kept.groups), ...(kept.people > 0 ? [site.namedPeople as string] : [])];
	if (!who.length) return site.keptForOthers as string;
	return say(language, site.keptFor, { who: new Intl.ListFormat(language, { type: 'disjunction' }).format(who) });
}
