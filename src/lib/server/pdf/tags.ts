// The tags of a PDF, page by page, read by pdf.js in a helper process: which element of the structure tree holds which words.
import { readFile, stat } from 'node:fs/promises';
import type { Element } from '#core/reading/structure';

/** Larger files are not held in memory for it, bytes. */
const largest = 80_000_000;

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

async function library() {
	// it says at once what it cannot draw with here, which nobody wants of it
	const { warn } = console;
	console.warn = () => {};
	try {
		// the other half of the library, in this process: it is one of its own already
		(globalThis as { pdfjsWorker?: unknown }).pdfjsWorker = (await import('pdfjs-dist/legacy/build/pdf.worker.mjs')) as unknown;
		return await import('pdfjs-dist/legacy/build/pdf.mjs');
	} finally {
		console.warn = warn;
	}
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
	if ((await stat(path)).size > largest) return pages.map(() => null);
	const pdfjs = await library();
	const loading = pdfjs.getDocument({
		data: new Uint8Array(await readFile(path)),
		verbosity: 0,
		isEvalSupported: false,
		useSystemFonts: false,
		disableFontFace: true
	});
	try {
		const document = await loading.promise;
		const trees: (Element | null)[] = [];
		for (const number of pages) {
			const page = await document.getPage(number);
			const [tree, text] = await Promise.all([page.getStructTree() as Promise<Node | null>, page.getTextContent({ includeMarkedContent: true })]);
			trees.push(tree && elementOf(tree, wordsById(text.items)));
			page.cleanup();
		}
		return trees;
	} finally {
		await loading.destroy();
	}
}
