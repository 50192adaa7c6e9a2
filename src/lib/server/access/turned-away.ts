// The turned-away page for a refusal, with the words of the thing and of the site.
import type { Reason, RefusedCode } from '#core/access/decide';
import type { TurnedAwayWords } from '#core/access/door';
import { turnedAwayPage, type TurnedAwayPage } from '#core/access/turned-away';
import type { Language } from '#core/words/words';
import { groupName } from '../people/directory';
import { site } from '../site/site';

/** What everyone may know of a thing, and for whom it is kept. */
export interface Announcement {
	readonly title: string;
	readonly description: string;
	readonly who: string;
}

/** The turned-away page with what is announced of the thing, whatever the reason; null where nothing is. */
export interface AnnouncedAway extends TurnedAwayPage {
	readonly announced: Announcement | null;
}

/** `own` are the words of the document or page. */
export async function turnedAway(
	reason: Pick<Reason, 'at' | 'group'> & { readonly code: RefusedCode },
	own: TurnedAwayWords | null,
	language: Language,
	announced: Announcement | null = null
): Promise<AnnouncedAway> {
	const [{ zone, turnedAway: general }, group] = await Promise.all([site(), reason.group ? groupName(reason.group) : undefined]);
	return { ...turnedAwayPage(reason.code, zone, { at: reason.at, group: group ?? undefined }, own, general ?? null, language), announced };
}
