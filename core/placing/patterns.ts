// Patterns with which a page begins: the headings of what is written again and again, to be filled in.
import { patternWords } from '../words/patterns';
import type { Language } from '../words/words';
import type { Article, ContentNode } from './content';
import { newListing } from './listing';

export const patterns = ['newsletter', 'minutes', 'notice', 'teaser'] as const;
export type Pattern = (typeof patterns)[number];
export const patternNames: Record<Pattern, string> = { newsletter: 'Newsletter', minutes: 'Minutes', notice: 'Notice', teaser: 'Page behind a teaser' };

const empty: ContentNode = { type: 'paragraph' };
const heading = (words: string): ContentNode => ({ type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: words }] });
const list = (type: 'bulletList' | 'orderedList'): ContentNode => ({ type, content: [{ type: 'listItem', content: [empty] }] });
const row = (type: 'tableHeader' | 'tableCell', cells: readonly ContentNode[]): ContentNode => ({
	type: 'tableRow',
	content: cells.map((cell) => ({ type, content: [cell] }))
});
const table = (...heads: readonly string[]): ContentNode => ({
	type: 'table',
	content: [
		row(
			'tableHeader',
			heads.map((words) => ({ type: 'paragraph', content: [{ type: 'text', text: words }] }))
		),
		...[1, 2].map(() =>
			row(
				'tableCell',
				heads.map(() => empty)
			)
		)
	]
});

/** What a page that begins as a pattern holds, its headings in a language: a line to open it, then each heading with what stands under it. */
export function patternContent(pattern: Pattern, language: Language): Article {
	const words = patternWords[language];
	const sections: Record<Pattern, readonly ContentNode[]> = {
		newsletter: [heading(words.inThisIssue), list('bulletList'), heading(words.dates), empty, heading(words.toRead), empty],
		minutes: [
			heading(words.present),
			empty,
			heading(words.decided),
			list('orderedList'),
			heading(words.toDo),
			table(words.who, words.what, words.until),
			heading(words.asSigned),
			empty
		],
		notice: [heading(words.changes), empty, heading(words.when), empty, heading(words.whom), empty, heading(words.inFull), empty],
		teaser: [heading(words.readHere), empty, heading(words.more), { type: 'documentList', attrs: { ...newListing, most: 3 } }]
	};
	// made of what the schema of articles has, which a test holds it against
	return { type: 'doc', content: [empty, ...sections[pattern]] } as Article;
}
