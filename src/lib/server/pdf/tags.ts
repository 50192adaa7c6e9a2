// The tags of a PDF, page by page, read by pdf.js in a helper process: which element of the structure tree holds which words.
import type { Element } from '#core/reading/structure';
import { withPdf } from './library';

/** What pdf.js gives of a structure tree (its `StructTreeNode`). */
interface Node {
	readonly role?: string;
	readonly type?: string;
	readonly id?: string;
	readonly alt?: string;
	readonly children?: readonly Node[];
}

/** An item of pdf.js's text content, where marked content is told. */
interface Item {
	readonly type?: string;
	readonly id?: string | null;
	readonly str?: string;
	readonly hasEOL?: boolean;
}

/** The words of each piece of marked content. */
function wordsById(items: readonly Item[]): Map<string, string> {
	const words = new Map<string, string>();
	const open: (string | null)[] = [];
	for (const item of items) {
		if (item.type === 'beginMarkedContentProps' || item.type === 'beginMarkedContent') open.push(item.id ?? null);
		else if (item.type === 'endMarkedContent') open.pop();
		else {
			const id = open.findLast((one) => one !== null);
			if (id) words.set(id, `${words.get(id) ?? ''}${item.str ?? ''}${item.hasEOL ? '\n' : ''}`);
		}
	}
	return words;
}

const elementOf = (node: Node, words: ReadonlyMap<string, string>): Element => ({
	type: node.role ?? '',
	alt: node.alt ?? null,
	children: (node.children ?? []).flatMap((child): (Element | string)[] =>
		child.type === 'content' ? [words.get(child.id ?? '') ?? ''] : child.role ? [elementOf(child, words)] : []
	)
});

/** The trees of some pages of the file at a path, in their order; null where a page has none, or the file is too large to be read so. */
export async function tagsOf(path: string, from: number, until: number): Promise<(Element | null)[]> {
	const pages = Array.from({ length: until - from + 1 }, (_, i) => from + i);
	const trees = await withPdf(path, async (document) => {
		const read: (Element | null)[] = [];
		for (const number of pages) {
			const page = await document.getPage(number);
			const [tree, text] = await Promise.all([page.getStructTree() as Promise<Node | null>, page.getTextContent({ includeMarkedContent: true })]);
			read.push(tree && elementOf(tree, wordsById(text.items)));
			page.cleanup();
		}
		return read;
	});
	return trees ?? pages.map(() => null);
}
