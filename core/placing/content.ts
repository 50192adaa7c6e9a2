// The content of a page in the article layout: ProseMirror JSON with placements as nodes of their own.
import { Type, type Static } from '@sinclair/typebox';
import { PlacementAttrs, type KeptPlacement } from './placement';

const Mark = Type.Union([
	Type.Object({ type: Type.Union([Type.Literal('bold'), Type.Literal('italic')]) }, { additionalProperties: true }),
	Type.Object({
		type: Type.Literal('link'),
		// Only web, mail and telephone addresses, or one of this site; anything that could run code is refused.
		attrs: Type.Object({ href: Type.String({ pattern: '^(https?://|mailto:|tel:|/(?!/)|#)', maxLength: 2000 }) }, { additionalProperties: true })
	})
]);

const Text = Type.Object({ type: Type.Literal('text'), text: Type.String({ minLength: 1 }), marks: Type.Optional(Type.Array(Mark)) });
const Break = Type.Object({ type: Type.Literal('hardBreak') });
export const PlacementNode = Type.Object({ type: Type.Literal('placement'), attrs: PlacementAttrs });
const Inline = Type.Union([Text, Break, PlacementNode]);

const Paragraph = Type.Object({ type: Type.Literal('paragraph'), content: Type.Optional(Type.Array(Inline)) });
const Heading = Type.Object({
	type: Type.Literal('heading'),
	attrs: Type.Object({ level: Type.Union([Type.Literal(2), Type.Literal(3)]) }, { additionalProperties: true }),
	content: Type.Optional(Type.Array(Inline))
});
const Rule = Type.Object({ type: Type.Literal('horizontalRule') });

/** A block; lists and quotes hold blocks again. */
const Block = Type.Recursive((This) =>
	Type.Union([
		Paragraph,
		Heading,
		Rule,
		PlacementNode,
		Type.Object({ type: Type.Literal('blockquote'), content: Type.Array(This) }),
		Type.Object({
			type: Type.Union([Type.Literal('bulletList'), Type.Literal('orderedList')]),
			attrs: Type.Optional(Type.Any()),
			content: Type.Array(Type.Object({ type: Type.Literal('listItem'), content: Type.Array(This) }))
		})
	])
);

export const Article = Type.Object({ type: Type.Literal('doc'), content: Type.Array(Block, { maxItems: 5000 }) }, { additionalProperties: false });
export type Article = Static<typeof Article>;

/** A node as a renderer walks it: the schema above has checked what stands where. */
export interface ContentNode {
	readonly type: string;
	readonly attrs?: Readonly<Record<string, unknown>>;
	readonly content?: readonly ContentNode[];
	readonly text?: string;
	readonly marks?: readonly { readonly type: string; readonly attrs?: Readonly<Record<string, unknown>> }[];
}

export const emptyArticle: Article = { type: 'doc', content: [{ type: 'paragraph' }] };

/**
 * Content as it is kept: a placement stands in a paragraph (it is an inline node), and each has an id of its own, which
 * `freshId` makes where there is none or where a copy brought the same along.
 */
export function settled(content: Article, freshId: () => string): Article {
	const seen = new Set<string>();
	const walk = (node: ContentNode, inParagraph: boolean): ContentNode => {
		if (node.type === 'placement') {
			const attrs = node.attrs as Record<string, unknown>;
			const id = typeof attrs.id === 'string' && !seen.has(attrs.id) ? attrs.id : freshId();
			seen.add(id);
			const kept: ContentNode = { type: 'placement', attrs: { ...attrs, id } };
			return inParagraph ? kept : { type: 'paragraph', content: [kept] };
		}
		if (!node.content) return node;
		const inner = node.type === 'paragraph' || node.type === 'heading';
		return { ...node, content: node.content.map((child) => walk(child, inner)) };
	};
	return walk(content as ContentNode, false) as Article;
}

/** Content as it is sent to readers: of a placement only its id and form, for which document it is may be nobody's business. */
export function bare(content: Article): ContentNode {
	const walk = (node: ContentNode): ContentNode => {
		if (node.type === 'placement') return { type: 'placement', attrs: { id: node.attrs?.id, form: node.attrs?.form } };
		return node.content ? { ...node, content: node.content.map(walk) } : node;
	};
	return walk(content as ContentNode);
}

/** Every placement of a page, in the order in which they stand. The content has been `settled`. */
export function placementsOf(content: Article): KeptPlacement[] {
	const out: KeptPlacement[] = [];
	const walk = (node: ContentNode) => {
		if (node.type === 'placement') out.push(node.attrs as unknown as KeptPlacement);
		node.content?.forEach(walk);
	};
	walk(content as ContentNode);
	return out;
}
