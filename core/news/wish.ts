// News: of what somebody wishes to be told by mail, how often, and what such a mail says.
import { messages } from '../words/messages';
import { say, type Language } from '../words/words';

export const newsTimes = ['at-once', 'week'] as const;
export type NewsTime = (typeof newsTimes)[number];

/** What a wish is about: one document, everything in a folder, or everything that they may read (both null). */
export interface NewsAbout {
	readonly document: string | null;
	readonly folder: string | null;
}

/** A document or edition that came out. */
export interface NewsItem {
	readonly title: string;
	readonly description: string;
	readonly address: string;
	/** An edition of a document that had come out before. */
	readonly isEdition: boolean;
}

/** More than these are counted, not named. */
export const mostInMail = 40;

/**
 * The mail that tells somebody of what came out. `end` is the address at which one press ends it; `items` are never none.
 * Example subject: 'New at Canal Society: Winter stoppages'.
 */
export function newsMail(
	{ name, site, items, end }: { readonly name: string; readonly site: string; readonly items: readonly NewsItem[]; readonly end: string },
	language: Language
): { readonly subject: string; readonly text: string } {
	const { news } = messages[language];
	const [first] = items;
	const subject =
		items.length === 1 && first ? say(language, news.subjectOne, { site, title: first.title }) : say(language, news.subject, { site, count: items.length });
	const told = items
		.slice(0, mostInMail)
		.map(({ title, description, address, isEdition }) =>
			[`${title} (${(isEdition ? news.isEdition : news.isNew) as string})`, ...(description ? [description] : []), address].join('\n')
		);
	const rest = items.length - told.length;
	const more = rest > 0 ? [say(language, news.more, { count: rest })] : [];
	return { subject, text: `${[`${name},`, ...told, ...more, `${news.why as string}\n${end}`, site].join('\n\n')}\n` };
}
