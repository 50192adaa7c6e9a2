// An article as a reader meets it: what opens it, its headings, and the rest.
import type { ContentNode } from './content';
import { slugOf } from '../documents/address';

/** The longest first paragraph that stands in the band with the title, in characters. */
const longestLead = 320;

const textOf = (node: ContentNode): string => (node.text ?? '') + (node.content ?? []).map(textOf).join('');

/** A paragraph of plain words. */
const isPlain = (node: ContentNode | undefined): boolean =>
	node?.type === 'paragraph' && !!node.content?.length && node.content.every((inner) => inner.type === 'text' && !inner.marks?.length);

export interface ArticleParts {
	/** Its first paragraph, where that is plain words and short: it stands with the title. */
	readonly lead: string | undefined;
	/** Its headings of the second level, each with an anchor of its own. */
	readonly headings: readonly { readonly words: string; readonly anchor: string }[];
	/** What follows, the headings with their anchors, and cards that follow one another in a row (`cards`). */
	readonly rest: readonly ContentNode[];
}

/** The cards that a paragraph holds, where it holds nothing else; none otherwise. */
function cardsOf(node: ContentNode): readonly ContentNode[] {
	if (node.type === 'placement') return node.attrs?.form === 'card' ? [node] : [];
	if (node.type !== 'paragraph') return [];
	const inside = (node.content ?? []).filter((inner) => inner.type !== 'hardBreak' && textOf(inner).trim() + (inner.type === 'text' ? '' : inner.type) !== '');
	return inside.every((inner) => inner.type === 'placement' && inner.attrs?.form === 'card') ? inside : [];
}

/** Cards that follow one another, nothing between them, stand in a row. */
function withRows(nodes: readonly ContentNode[]): ContentNode[] {
	const out: ContentNode[] = [];
	let run: { nodes: ContentNode[]; cards: ContentNode[] } = { nodes: [], cards: [] };
	const end = () => {
		if (run.cards.length > 1) out.push({ type: 'cards', content: run.cards });
		else out.push(...run.nodes);
		run = { nodes: [], cards: [] };
	};
	for (const node of nodes) {
		const cards = cardsOf(node);
		if (cards.length) {
			run.nodes.push(node);
			run.cards.push(...cards);
		} else {
			end();
			out.push(node);
		}
	}
	end();
	return out;
}

/** Takes an article apart. */
export function partsOf(article: ContentNode): ArticleParts {
	const nodes = article.content ?? [];
	const [first] = nodes;
	const opening = first && isPlain(first) ? textOf(first).trim() : '';
	const isLead = opening !== '' && opening.length <= longestLead;
	const taken = new Set<string>();
	const headings: { words: string; anchor: string }[] = [];
	const anchored = (node: ContentNode): ContentNode => {
		if (node.type === 'band') return { ...node, content: withRows((node.content ?? []).map(anchored)) };
		const words = node.type === 'heading' && node.attrs?.level === 2 ? textOf(node).trim() : '';
		if (!words) return node;
		const slug = slugOf(words);
		let anchor = slug;
		for (let n = 2; taken.has(anchor); n++) anchor = `${slug}-${n}`;
		taken.add(anchor);
		headings.push({ words, anchor });
		return { ...node, attrs: { ...node.attrs, anchor } };
	};
	const rest = (isLead ? nodes.slice(1) : nodes).map(anchored);
	return { lead: isLead ? opening : undefined, headings, rest: withRows(rest) };
}

/** What a page begins with, in a line: for search engines and for those who pass its address on. At most 200 characters. */
export function openingOf(body: { readonly layout: string; readonly lead?: string; readonly content?: ContentNode }): string {
	const words = body.content
		? (body.content.content ?? [])
				.flatMap((node) => (node.type === 'band' ? (node.content ?? []) : [node]))
				.filter((node) => node.type === 'paragraph')
				.map(textOf)
				.find((text) => text.trim())
		: body.lead;
	const line = (words ?? '').replace(/\s+/g, ' ').trim();
	return line.length <= 200 ? line : `${line.slice(0, 199).replace(/\s+\S*$/, '')}…`;
}
