// Links to documents among the words of an article: each is a placement, so that it is known where a document stands and who is turned away there.
import type { Article, ContentNode } from './content';
import type { KeptPlacement, Press } from './placement';

const addressPattern = /^\s*(https?:\/\/[^/\s]+)?\/d\/([a-z0-9-]+)(?:\/(read|file))?(\?[^#\s]*)?(?:#page=(\d{1,6})\S*|#\S*)?\s*$/;

export interface LinkedDocument {
	readonly slug: string;
	/** Where a press leads. */
	readonly press: Press;
	/** The page that the reading begins with; null where the link says none. */
	readonly start: number | null;
}

/** What a link leads to, where that is a document of the site at `origin`: 'https://site/d/map/read#page=3' → map, read in the same tab, from page 3. */
export function documentOfLink(href: string, origin: string): LinkedDocument | null {
	const [, site, slug, part, query = '', page] = addressPattern.exec(href) ?? [];
	if (!slug || (site && site !== origin)) return null;
	const press = part === undefined ? 'page' : part === 'file' && /[?&]save(?:[=&]|$)/.test(query) ? 'save' : 'here';
	return { slug, press, start: page ? Math.max(1, Number(page)) : null };
}

const hrefOf = (node: ContentNode): string | null => {
	const href = node.type === 'text' ? node.marks?.find((mark) => mark.type === 'link')?.attrs?.href : undefined;
	return typeof href === 'string' ? href : null;
};

/** Where the links of an article lead, in their order. */
export function linksIn(content: Article): string[] {
	const found: string[] = [];
	const walk = (node: ContentNode) => {
		const href = hrefOf(node);
		if (href !== null) found.push(href);
		node.content?.forEach(walk);
	};
	walk(content);
	return found;
}

/**
 * The article with its links to documents as placements: the words stay as they are, bold or italic as they begin, and nothing is said beside them.
 * `known` gives the document's address where there is one, `idOf` an id by its document and how many links to it went before. The very content
 * that was given where there is nothing to place.
 */
export function withLinksPlaced(
	content: Article,
	origin: string,
	known: (slug: string) => string | undefined,
	idOf: (document: string, nth: number) => string
): Article {
	const counts = new Map<string, number>();
	const placement = (nodes: readonly ContentNode[], linked: LinkedDocument, document: string): ContentNode => {
		const nth = counts.get(document) ?? 0;
		counts.set(document, nth + 1);
		const marks = nodes[0]?.marks?.filter((mark) => mark.type !== 'link') ?? [];
		const attrs: KeptPlacement = {
			id: idOf(document, nth),
			document,
			form: 'text',
			press: linked.press,
			words: nodes
				.map((node) => node.text ?? '')
				.join('')
				.slice(0, 300),
			facts: [],
			...(linked.start && linked.press === 'here' ? { start: Math.min(100_000, linked.start) } : {})
		};
		return { type: 'placement', attrs, ...(marks.length ? { marks } : {}) };
	};
	const inline = (nodes: readonly ContentNode[]): ContentNode[] => {
		const out: ContentNode[] = [];
		for (let i = 0; i < nodes.length;) {
			const href = hrefOf(nodes[i]!);
			const linked = href === null ? null : documentOfLink(href, origin);
			const document = linked && known(linked.slug);
			let end = i + 1;
			// a link whose words are partly bold is several nodes
			while (document && end < nodes.length && hrefOf(nodes[end]!) === href) end++;
			const run = nodes.slice(i, end);
			out.push(...(linked && document && run.some((node) => node.text?.trim()) ? [placement(run, linked, document)] : run.map(walk)));
			i = end;
		}
		return out;
	};
	const walk = (node: ContentNode): ContentNode => (node.content ? { ...node, content: inline(node.content) } : node);
	const next = walk(content);
	// its shape is the article's: only text has become placements, which stand wherever text may
	return counts.size ? (next as unknown as Article) : content;
}
