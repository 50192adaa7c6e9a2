// What a key may and did, in words.
import { spanOf } from '#core/access/hours';
import type { KeyState } from '#core/access/key';
import { boundWords } from '#core/access/reach';
import { counted } from '#core/text/list';
import type { KeyView } from '$lib/server/access/key-list';
import { timeText } from '$lib/ui/parts/when';

/** How a key stands that opens nothing; nothing of one that is good. */
export const stateWords: Readonly<Record<KeyState, string>> = { good: '', withdrawn: 'withdrawn', lapsed: 'run out', 'used-up': 'used up' };

/** What it allows: 'read, save, print'. */
export const mayWords = ({ allow: { save, print } }: Pick<KeyView, 'allow'>): string =>
	save || print ? ['read', save && 'save', print && 'print'].filter(Boolean).join(', ') : 'read only';

/** Its end: the last day, or day and time. */
export const endWords = (until: string, zone: string): string => {
	// a key's end is a day or an instant, and so has an instant
	const end = spanOf(null, until, zone).until!;
	return boundWords(end, zone, 'until');
};

/** What it opened: '3 of 5 openings, 1 copy'. */
export const usedWords = ({ used, openings, saves }: Pick<KeyView, 'used' | 'openings' | 'saves'>): string =>
	[
		openings ? `${used} of ${counted(openings, 'opening', 'openings')}` : counted(used, 'opening', 'openings'),
		...(saves ? [counted(saves, 'copy', 'copies')] : [])
	].join(', ');

/** When it was used last. */
export const lastWords = ({ lastUsedAt }: Pick<KeyView, 'lastUsedAt'>, zone: string): string =>
	lastUsedAt ? `last ${timeText(lastUsedAt, zone)}` : 'not used yet';

/** All of it in a line. */
export const keyFacts = (key: KeyView, zone: string): string =>
	[mayWords(key), key.until ? `until ${endWords(key.until, zone)}` : '', usedWords(key), key.password ? 'with password' : '', lastWords(key, zone)]
		.filter(Boolean)
		.join(', ');
