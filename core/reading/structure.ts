// The reading text of a document that carries tags (ISO 32000-1, 14.7 and 14.8.4): a tree of elements, each page with its part of it.
import { joined, type Block } from './flow';

/** An element of the tree with what stands in it on one page: elements within it, and pieces of text, lines ended by "\n". */
export interface Element {
	readonly type: string;
	readonly children: readonly (Element | string)[];
	/** Alternative text. */
	readonly alt: string | null;
}

/** The text of an element: lines put together, hyphens at their ends taken out where a word goes on. */
function textOf(element: Element): string {
	const parts: string[] = [];
	const walk = (node: Element | string): void => {
		if (typeof node === 'string') parts.push(node);
		else if (node.type === 'Figure' || node.type === 'Formula') parts.push(node.alt ? ` ${node.alt} ` : '');
		else node.children.forEach(walk);
	};
	walk(element);
	return joined(parts.join('').split('\n')).replace(/\s+/g, ' ').trim();
}

const headingLevel: Readonly<Record<string, 2 | 3 | 4>> = { Title: 2, H: 2, H1: 2, H2: 3, H3: 4, H4: 4, H5: 4, H6: 4 };

/** The blocks of a tree in their order. */
export function blocksOfStructure(root: Element): Block[] {
	const blocks: Block[] = [];
	const add = (block: Block) => {
		if (block.kind === 'table' ? block.rows.some((row) => row.some(Boolean)) : block.text) blocks.push(block);
	};
	const walk = (element: Element): void => {
		const level = headingLevel[element.type];
		if (level) {
			add({ kind: 'heading', level, text: textOf(element) });
			return;
		}
		switch (element.type) {
			case 'P':
			case 'Caption':
			case 'BlockQuote':
			case 'Note':
			case 'Code':
			case 'TOCI':
				// a list or table within is one for itself
				if (element.children.some((child) => typeof child !== 'string' && ['L', 'Table', 'P'].includes(child.type))) break;
				add({ kind: 'paragraph', text: textOf(element).replace(/(?:\s*\.){4,}\s*/g, ' … ') });
				return;
			case 'LI': {
				// its mark goes, and lists within it come after it
				const inside = element.children.flatMap((child) => (typeof child !== 'string' && child.type === 'LBody' ? child.children : [child]));
				const own = inside.filter((child) => typeof child === 'string' || (child.type !== 'L' && !isBullet(child)));
				add({ kind: 'item', text: textOf({ ...element, children: own }).replace(/^[•◦▪■●○‣⁃∙·–—-]\s*/u, '') });
				for (const child of inside) if (typeof child !== 'string' && child.type === 'L') walk(child);
				return;
			}
			case 'Table': {
				const rows: { cells: string[]; head: boolean }[] = [];
				const collect = (node: Element): void => {
					for (const child of node.children) {
						if (typeof child === 'string') continue;
						if (child.type === 'TR') {
							const cells = child.children.filter((c): c is Element => typeof c !== 'string' && (c.type === 'TD' || c.type === 'TH'));
							rows.push({ cells: cells.map((c) => textOf(c)), head: cells.every((c) => c.type === 'TH') });
						} else collect(child);
					}
				};
				collect(element);
				add({ kind: 'table', rows: rows.map((row) => row.cells).filter((cells) => cells.some(Boolean)), head: rows[0]?.head ?? false });
				return;
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
		) {
			add({ kind: 'paragraph', text: textOf(element) });
			return;
		}
		for (const child of element.children) if (typeof child !== 'string') walk(child);
	};
	walk(root);
	return blocks;
}

/** A mark before the words of an item. */
const isBullet = (element: Element) => element.type === 'Lbl' && !/[\p{L}\p{N}]/u.test(textOf(element));

const letters = (text: string) => text.replace(/[^\p{L}\p{N}]+/gu, '').length;

/** The share of a page's letters that blocks hold: where it is small, the tags are not to be gone by. 1 where nothing is written. */
export function coverage(blocks: readonly Block[], text: string): number {
	const all = letters(text);
	return all ? blocks.reduce((sum, block) => sum + letters(block.kind === 'table' ? block.rows.flat().join(' ') : block.text), 0) / all : 1;
}
