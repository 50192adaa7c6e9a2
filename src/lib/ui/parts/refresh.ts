// Brings up to date what is shown: what was changed, by its name, or all of the desk. Kit drops a navigation that is under way as soon as data
// is asked for anew: whoever has just pressed a link goes first, and what they come to is brought up to date.
import { goto, invalidate } from '$app/navigation';
import { navigating } from '$app/state';

/** What the loads give: each says so by `depends('ianua:<name>')`. `site` is its name and look, and who is signed in. */
export type Loaded = 'site' | 'documents' | 'document' | 'pages' | 'page' | 'people' | 'keys' | 'readership' | 'settings' | 'try' | 'upkeep';

/** Loads what is named anew; where nothing is named, all but the site's name and look. */
export async function refresh(...names: readonly Loaded[]): Promise<void> {
	await navigating.complete?.catch(() => {});
	const addresses = names.map((name) => `ianua:${name}`);
	await invalidate(({ protocol, href }) => protocol === 'ianua:' && (names.length ? addresses.includes(href) : href !== 'ianua:site'));
}

/** Goes to an address, with what is named there loaded anew though it stood on the screen before. */
export const goWith = (href: string, names: readonly Loaded[], options: { noScroll?: boolean; keepFocus?: boolean } = {}): Promise<void> =>
	goto(href, { ...options, invalidate: names.map((name) => `ianua:${name}`) });
