// A document exchanged for another in the content of a page: the places stay as they are, their ids, forms and words too.
import type { Article, Catalogue, ContentNode, KeptList, Layout, PageContent } from './content';
import type { Pocket } from './pocket';
import { pickedPlace } from './listing';

export interface Exchanged {
	/** The very content that was given where nothing was exchanged in it. */
	readonly content: PageContent;
	/** The places: ids of placements and entries; what `pickedPlace` says of a document picked by hand for a list. */
	readonly places: readonly string[];
}

/**
 * Puts a document in place of another wherever it stands in content, or only at some of those places. `from` has the addresses of the one
 * that goes, former ones among them; `to` is the address of the one that comes. With `only` and the two turned round, it is taken back.
 */
export function exchanged(layout: Layout, content: PageContent, from: ReadonlySet<string>, to: string, only: ReadonlySet<string> | null = null): Exchanged {
	const places: string[] = [];
	const isPlaced = (place: unknown, document: unknown): boolean => {
		const is = typeof document === 'string' && from.has(document) && (!only || only.has(String(place)));
		if (is) places.push(String(place));
		return is;
	};
	const inList = (documents: readonly string[], list?: string) => documents.map((document, i) => (isPlaced(pickedPlace(i, list), document) ? to : document));
	const walk = (node: ContentNode): ContentNode => {
		if (node.type === 'documentList') {
			const { id, documents } = node.attrs as KeptList;
			return documents ? { ...node, attrs: { ...node.attrs, documents: inList(documents, id) } } : node;
		}
		if (node.type === 'placement') return isPlaced(node.attrs?.id, node.attrs?.document) ? { ...node, attrs: { ...node.attrs, document: to } } : node;
		return node.content ? { ...node, content: node.content.map(walk) } : node;
	};
	const next = ((): PageContent => {
		switch (layout) {
			case 'article':
				// what was changed are addresses in it, not its shape
				return walk(content as Article) as unknown as Article;
			case 'catalogue': {
				const { documents = [], ...rest } = content as Catalogue;
				return { ...rest, documents: inList(documents) };
			}
			case 'pocket': {
				const { entries, ...rest } = content as Pocket;
				return { ...rest, entries: entries.map((entry) => (isPlaced(entry.id, entry.document) ? { ...entry, document: to } : entry)) };
			}
		}
	})();
	return { content: places.length ? next : content, places };
}
