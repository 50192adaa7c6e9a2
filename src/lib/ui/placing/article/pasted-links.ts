// Links to documents that come into the text with what is pasted or dropped: placements at once, as saving makes them (core/placing/links.ts).
import type { Article as Content, ContentNode } from '#core/placing/content';
import { linksIn, withLinksPlaced } from '#core/placing/links';
import type { Article } from './article.svelte';
import { freshPlacement } from './nodes';
import { documentAt } from './selection';

const asArticle = (block: ContentNode): Content => ({ type: 'doc', content: [block] }) as Content;

/** Makes the links to documents in the text placements; what cannot be asked about stays a link until it is saved. */
export async function placeLinks(article: Article): Promise<void> {
	const { editor } = article;
	if (!editor) return;
	const slugs = new Set(linksIn(editor.getJSON() as Content).flatMap((href) => documentAt(href) ?? []));
	if (!slugs.size) return;
	await Promise.all([...slugs].map((slug) => article.known(slug)));
	const { state, view } = editor;
	const { tr } = state;
	state.doc.descendants((node, at) => {
		if (!node.isTextblock) return;
		const before = asArticle(node.toJSON() as ContentNode);
		const after = withLinksPlaced(before, location.origin, (slug) => article.documents.get(slug)?.slug, freshPlacement);
		const [block] = after.content;
		if (after === before || !block) return;
		tr.replaceWith(tr.mapping.map(at + 1), tr.mapping.map(at + node.nodeSize - 1), state.schema.nodeFromJSON(block).content);
	});
	if (tr.docChanged) view.dispatch(tr);
}
