// What readers are told on pages of the site, in their language. Where a page could not be loaded at all, it is English.
import { page } from '$app/state';
import { en } from '#core/words/en';
import { say, type AccountWords, type Language, type NewsWords, type SiteWords } from '#core/words/words';

/** `words('signIn')` → 'Sign in'. */
export function words(name: keyof SiteWords, values: Readonly<Record<string, string | number>> = {}): string {
	const { language = 'en', words: known = en.site } = page.data as { language?: Language; words?: SiteWords };
	return say(language, known[name], values);
}

/** The same of the pages about one's own account: signing in, invitations, keys, one's record. */
export function accountWords(name: keyof AccountWords, values: Readonly<Record<string, string | number>> = {}): string {
	const { language = 'en', account: known = en.account } = page.data as { language?: Language; account?: AccountWords };
	return say(language, known[name], values);
}

/** The same about news: what came out, and who is told of it. */
export function newsWords(name: keyof NewsWords, values: Readonly<Record<string, string | number>> = {}): string {
	const { language = 'en', news: known = en.news } = page.data as { language?: Language; news?: NewsWords };
	return say(language, known[name], values);
}
