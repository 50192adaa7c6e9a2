// The reading text of a document that carries tags (ISO 32000-1, 14.7 and 14.8.4), as `pdfinfo -struct-text` prints them: a tree by indentation,
// types of elements with their attributes, and their text in quotes.
import { joined, type Block, type PageText } from './flow';

interface Element {
	readonly type: string;
	readonly children: (Element | string)[];
	/** Alternative text. */
	alt: string | null;
}

const line = /^( *)(.*)$/;

/** The tree of what was printed; at its root an element without a type. */
export function readStructure(printed: string): Element {
	const root: Element = { type: '', children: [], alt: null };
	const open: { depth: number; element: Element }[] = [{ depth: -1, element: root }];
	for (const row of printed.split('\n')) {
		const [, indent = '', rest = ''] = line.exec(row) ?? [];
		if (!rest) continue;
		const depth = indent.length;
		// what belongs to an element stands further in; its attributes and text one step more
		const owner = () => {
			while (open.length > 1 && open.at(-1)!.depth >= depth) open.pop();
			return open.at(-1)!.element;
		};
		if (rest.startsWith('"')) owner().children.push(rest.replace(/^"|"$/g, ''));
		else if (rest.startsWith('/')) continue;
		else {
			const [, type, alt] = /^([A-Za-z][A-Za-z0-9]*)(?:\s+(?:"([^"]*)"))?/.exec(rest) ?? [];
			if (!type || type === 'Object') continue;
			const element: Element = { type, children: [], alt: alt ?? null };
			owner().children.push(element);
			open.push({ depth, element });
		}
	}
	return root;
}

/**
 * The text of an element. Programs break text into pieces in the middle of words too: a space goes between two unless the word that they make
 * together is one of `words`, those of the document, in small letters.
 */
function textOf(element: Element, words: ReadonlySet<string>): string {
	const parts: string[] = [];
	const walk = (node: Element | string): void => {
		if (typeof node === 'string') parts.push(node);
		else if (node.type === 'Figure' || node.type === 'Formula') parts.push(node.alt ? ` ${node.alt} ` : '');
		else node.children.forEach(walk);
	};
	walk(element);
	return parts
		.reduce((text, part) => {
			if (!text || !part || /\s$/.test(text) || /^\s/.test(part)) return text + part;
			const word = `${/[\p{L}\p{N}]+$/u.exec(text)?.[0] ?? ''}${/^[\p{L}\p{N}]+/u.exec(part)?.[0] ?? ''}`.toLowerCase();
			const own = /[\p{L}\p{N}]+$/u.exec(text)?.[0].toLowerCase() ?? '';
			if (word !== own && own && words.has(word)) return text + part;
			return /^[.,;:!?)\]»”’]/u.test(part) || /[([«“]$/u.test(text) ? text + part : joined([text, part]);
		}, '')
		.replace(/\s+/g, ' ')
		.trim();
}

const headingLevel: Readonly<Record<string, 2 | 3 | 4>> = { Title: 2, H: 2, H1: 2, H2: 3, H3: 4, H4: 4, H5: 4, H6: 4 };

/** The blocks of a tree in their order. */
export function blocksOfStructure(root: Element, words: ReadonlySet<string>): Block[] {
	const blocks: Block[] = [];
	const add = (block: Block) => {
		if (block.kind === 'table' ? block.rows.some((row) => row.some(Boolean)) : block.text) blocks.push(block);
	};
	const walk = (element: Element): void => {
		const level = headingLevel[element.type];
		if (level) return add({ kind: 'heading', level, text: textOf(element, words) });
		switch (element.type) {
			case 'P':
			case 'Caption':
			case 'BlockQuote':
			case 'Note':
			case 'Code':
			case 'TOCI':
				// a list or table within is one for itself
				if (element.children.some((child) => typeof child !== 'string' && ['L', 'Table', 'P'].includes(child.type))) break;
				return add({ kind: 'paragraph', text: textOf(element, words).replace(/(?:\s*\.){4,}\s*/g, ' … ') });
			case 'LI': {
				const nested = element.children.flatMap((child) => (typeof child === 'string' ? [] : child.type === 'LBody' ? child.children : [child]));
				const inner = nested.filter((child): child is Element => typeof child !== 'string' && child.type === 'L');
				const own: Element = {
					type: 'LI',
					alt: null,
					children: element.children.flatMap((child) =>
						typeof child === 'string' || child.type !== 'LBody'
							? typeof child !== 'string' && (child.type === 'L' || isBullet(child))
								? []
								: [child]
							: child.children.filter((c) => typeof c === 'string' || c.type !== 'L')
					)
				};
				add({ kind: 'item', text: textOf(own, words).replace(/^[•◦▪■●○‣⁃∙·–—-]\s*/u, '') });
				inner.forEach(walk);
				return;
			}
			case 'Table': {
				const rows: { cells: string[]; head: boolean }[] = [];
				const collect = (node: Element): void => {
					for (const child of node.children) {
						if (typeof child === 'string') continue;
						if (child.type === 'TR') {
							const cells = child.children.filter((c): c is Element => typeof c !== 'string' && (c.type === 'TD' || c.type === 'TH'));
							rows.push({ cells: cells.map((c) => textOf(c, words)), head: cells.every((c) => c.type === 'TH') });
						} else collect(child);
					}
				};
				collect(element);
				return add({ kind: 'table', rows: rows.map((row) => row.cells), head: rows[0]?.head ?? false });
			}
			case 'Figure':
			case 'Formula':
				if (element.alt) add({ kind: 'picture', text: element.alt });
				// what is written in a drawing stands without order
				return;
		}
		// text that stands in no block of its own is a paragraph
		if (
			element.children.some((child) => typeof child === 'string' || ['Span', 'Link', 'Quote', 'Em', 'Strong', 'Reference'].includes(child.type)) &&
			element.type !== ''
		)
			return add({ kind: 'paragraph', text: textOf(element, words) });
		for (const child of element.children) if (typeof child !== 'string') walk(child);
	};
	walk(root);
	return blocks;
}

/** A mark before the words of an item. */
const isBullet = (element: Element) => element.type === 'Lbl' && !/[\p{L}\p{N}]/u.test(textOf(element, new Set()));

const letters = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
const wordsOfBlock = (block: Block) => (block.kind === 'table' ? block.rows.flat().join(' ') : block.text);
/** So many letters of a block are looked for, and on so many pages after the last. */
const [sought, ahead] = [28, 4];

/** The blocks by the pages on which they begin: each is looked for in the words of the pages, from where the one before it stood. */
export function onPages(blocks: readonly Block[], pages: readonly { readonly page: number; readonly text: string }[]): PageText[] {
	const plain = pages.map(({ page, text }) => ({ page, text: letters(text) }));
	const out = pages.map(({ page }) => ({ page, blocks: [] as Block[] }));
	let [on, from] = [0, 0];
	for (const block of blocks) {
		const start = letters(wordsOfBlock(block)).slice(0, sought);
		if (start.length > 3)
			for (let next = on; next < Math.min(plain.length, on + ahead); next++) {
				const at = plain[next]!.text.indexOf(start, next === on ? from : 0);
				if (at === -1) continue;
				[on, from] = [next, at];
				break;
			}
		out[on]?.blocks.push(block);
	}
	return out;
}

/** The share of a document's letters that its tags hold: where it is small, they are not to be gone by. */
export function coverage(blocks: readonly Block[], pages: readonly { readonly text: string }[]): number {
	const all = pages.reduce((sum, { text }) => sum + letters(text).length, 0);
	return all ? blocks.reduce((sum, block) => sum + letters(wordsOfBlock(block)).length, 0) / all : 0;
}
