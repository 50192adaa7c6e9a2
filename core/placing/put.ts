// Documents put at the end of an article.
import type { Article } from './content';
import type { KeptPlacement } from './placement';

/** The article with placements at its end, each in a paragraph of its own; the empty line with which it may end takes the first. */
export function withPlacedAtEnd(content: Article, placements: readonly KeptPlacement[]): Article {
	const blocks = [...content.content];
	const last = blocks.at(-1);
	if (placements.length && last?.type === 'paragraph' && !last.content?.length) blocks.pop();
	return { ...content, content: [...blocks, ...placements.map((attrs) => ({ type: 'paragraph' as const, content: [{ type: 'placement' as const, attrs }] }))] };
}
