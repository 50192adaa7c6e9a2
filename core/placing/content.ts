// The content of a page, by its layout: an article is ProseMirror JSON with placements as nodes of their own, a catalogue says which
// documents it lists, a pocket page lists entries.
import { Type, type Static } from '@sinclair/typebox';
import { linkPattern } from '../text/link';
import { ListAttrs, Listing, listingWords, pickedPlace, selectionOf } from './listing';
import type { Pocket } from './pocket';
import { ledTo, pictureName, PlacementAttrs, Width, type KeptPlacement } from './placement';
import { oneOf } from '../schema';

const Mark = Type.Union([
	Type.Object({ type: Type.Union([Type.Literal('bold'), Type.Literal('italic')]) }, { additionalProperties: true }),
	Type.Object({
		type: Type.Literal('link'),
		// Only web, mail and telephone addresses, or one of this site; anything that could run code is refused.
		attrs: Type.Object({ href: Type.String({ pattern: linkPattern, maxLength: 2000 }) }, { additionalProperties: true })
	})
]);

const Text = Type.Object({ type: Type.Literal('text'), text: Type.String({ minLength: 1 }), marks: Type.Optional(Type.Array(Mark)) });
const Break = Type.Object({ type: Type.Literal('hardBreak') });
/** In a line it stands as the words around it do: bold, italic. */
export const PlacementNode = Type.Object({ type: Type.Literal('placement'), attrs: PlacementAttrs, marks: Type.Optional(Type.Array(Mark)) });
const Inline = Type.Union([Text, Break, PlacementNode]);

const Paragraph = Type.Object({ type: Type.Literal('paragraph'), content: Type.Optional(Type.Array(Inline)) });
const Heading = Type.Object({
	type: Type.Literal('heading'),
	attrs: Type.Object({ level: Type.Union([Type.Literal(2), Type.Literal(3)]) }, { additionalProperties: true }),
	content: Type.Optional(Type.Array(Inline))
});
const Rule = Type.Object({ type: Type.Literal('horizontalRule') });
/** Where a picture stands: to the left or right with words beside it, in the middle, or as wide as the whole page; at the left by itself where nothing is said. */
const pictureSides = ['left', 'centre', 'right', 'wide'] as const;
/** A picture kept by the site. One that leads to a document is a placement. */
const Picture = Type.Object({
	type: Type.Literal('picture'),
	attrs: Type.Object(
		{
			picture: pictureName,
			/** What it shows, for those who do not see it. */
			alt: Type.Optional(Type.String({ maxLength: 400 })),
			/** Its own measures in px. */
			width: Type.Optional(Type.Integer({ minimum: 1, maximum: 20_000 })),
			height: Type.Optional(Type.Integer({ minimum: 1, maximum: 20_000 })),
			/** By how many degrees it is turned to the right, and the picture as it came, from which every turn is made. */
			angle: Type.Optional(Type.Integer({ minimum: -180, maximum: 180 })),
			upright: Type.Optional(pictureName),
			/** How wide it is shown; as wide as it is, at most the column, where nothing is said. */
			shown: Type.Optional(Width),
			align: Type.Optional(oneOf(pictureSides)),
			/** Words below it. */
			caption: Type.Optional(Type.String({ maxLength: 400 })),
			/** Where a press on it leads. */
			href: Type.Optional(Type.String({ pattern: linkPattern, maxLength: 2000 }))
		},
		{ additionalProperties: false }
	)
});
export type PictureAttrs = Static<typeof Picture>['attrs'];
const DocumentList = Type.Object({ type: Type.Literal('documentList'), attrs: ListAttrs });
const span = Type.Optional(Type.Integer({ minimum: 1, maximum: 50 }));
const CellAttrs = Type.Optional(Type.Object({ colspan: span, rowspan: span, colwidth: Type.Optional(Type.Any()) }, { additionalProperties: false }));

/** A block; lists, quotes, cells and columns hold blocks again. JSON Schema names what refers to itself, once: within the whole and within a band it has names of its own. */
const blockNamed = ($id: string) =>
	Type.Recursive(
		(This) =>
			Type.Union([
				Paragraph,
				Heading,
				Rule,
				Picture,
				DocumentList,
				PlacementNode,
				Type.Object({ type: Type.Literal('blockquote'), content: Type.Array(This) }),
				Type.Object({
					type: Type.Union([Type.Literal('bulletList'), Type.Literal('orderedList')]),
					attrs: Type.Optional(Type.Any()),
					content: Type.Array(Type.Object({ type: Type.Literal('listItem'), content: Type.Array(This) }))
				}),
				Type.Object({
					type: Type.Literal('columns'),
					content: Type.Array(Type.Object({ type: Type.Literal('column'), content: Type.Array(This) }), { minItems: 2, maxItems: 2 })
				}),
				Type.Object({
					type: Type.Literal('table'),
					content: Type.Array(
						Type.Object({
							type: Type.Literal('tableRow'),
							content: Type.Array(
								Type.Object({ type: Type.Union([Type.Literal('tableCell'), Type.Literal('tableHeader')]), attrs: CellAttrs, content: Type.Array(This) }),
								{ maxItems: 50 }
							)
						}),
						{ maxItems: 1000 }
					)
				})
			]),
		{ $id }
	);

/** How strongly a band stands out from the page. */
export const bandTones = ['pale', 'deep'] as const;
/** Blocks on a ground of their own, from one edge of the page to the other. It stands in nothing else. */
const Band = Type.Object({
	type: Type.Literal('band'),
	attrs: Type.Object({ tone: oneOf(bandTones) }, { additionalProperties: false }),
	content: Type.Array(blockNamed('BlockOfBand'), { minItems: 1, maxItems: 500 })
});

export const Article = Type.Object(
	{ type: Type.Literal('doc'), content: Type.Array(Type.Union([blockNamed('Block'), Band]), { maxItems: 5000 }) },
	{ additionalProperties: false }
);
export type Article = Static<typeof Article>;

/** A page that lists documents. */
export const Catalogue = Type.Composite(
	[
		Type.Object({
			/** Words above the list. */
			lead: Type.Optional(Type.String({ maxLength: 2000 }))
		}),
		Listing
	],
	{ additionalProperties: false }
);
export type Catalogue = Static<typeof Catalogue>;

export const layouts = ['article', 'catalogue', 'pocket'] as const;
export type Layout = (typeof layouts)[number];
export const layoutWords: Record<Layout, string> = { article: 'Article', catalogue: 'Catalogue', pocket: 'Pocket page' };
export type PageContent = Article | Catalogue | Pocket;

/** A node as a renderer walks it: the schema above has checked what stands where. */
export interface ContentNode {
	readonly type: string;
	readonly attrs?: Readonly<Record<string, unknown>>;
	readonly content?: readonly ContentNode[];
	readonly text?: string;
	readonly marks?: readonly { readonly type: string; readonly attrs?: Readonly<Record<string, unknown>> }[];
}

export const emptyArticle: Article = { type: 'doc', content: [{ type: 'paragraph' }] };
export const emptyContent: Readonly<Record<Layout, PageContent>> = {
	article: emptyArticle,
	catalogue: { show: 'list', order: 'title', beside: true, filters: true },
	pocket: { entries: [] }
};

const marksOf = ({ marks }: ContentNode) => (marks?.length ? { marks } : {});

/**
 * Content as it is kept: a placement stands in a paragraph (it is an inline node), and each placement and list has an id of its own, which
 * `freshId` makes where there is none or where a copy brought the same along; `anew` for all, of another page's content.
 */
export function settled(content: Article, freshId: () => string, anew = false): Article {
	const seen = new Set<string>();
	const identified = (node: ContentNode): ContentNode => {
		const given = node.attrs?.id;
		const id = !anew && typeof given === 'string' && !seen.has(given) ? given : freshId();
		seen.add(id);
		return { type: node.type, attrs: { ...node.attrs, id }, ...marksOf(node) };
	};
	const walk = (node: ContentNode, inParagraph: boolean): ContentNode => {
		if (node.type === 'placement') {
			const kept = identified(node);
			return inParagraph ? kept : { type: 'paragraph', content: [kept] };
		}
		if (node.type === 'documentList') return identified(node);
		if (!node.content) return node;
		const inner = node.type === 'paragraph' || node.type === 'heading';
		return { ...node, content: node.content.map((child) => walk(child, inner)) };
	};
	return walk(content, false) as Article;
}

/** Content as it is sent to readers: of a placement only its id and form, for which document it is may be nobody's business; of a list its id. */
export function bare(content: Article): ContentNode {
	const walk = (node: ContentNode): ContentNode => {
		if (node.type === 'placement') return { type: 'placement', attrs: { id: node.attrs?.id, form: node.attrs?.form }, ...marksOf(node) };
		if (node.type === 'documentList') return { type: node.type, attrs: { id: node.attrs?.id } };
		return node.content ? { ...node, content: node.content.map(walk) } : node;
	};
	return walk(content);
}

/** Pictures of an article of which nothing is said to those who do not see them, each once; decoration has an empty text. */
export const silentPictures = (content: Article): PictureAttrs[] => [
	...new Map((attrsOf(content, 'picture') as PictureAttrs[]).filter(({ alt }) => alt === undefined).map((attrs) => [attrs.picture, attrs])).values()
];

/** A placement as the index of placements knows it. */
/** A document list as it is kept: with its id. */
export type KeptList = ListAttrs & { id: string };

export interface Indexed {
	readonly id: string;
	readonly document: string;
	/** `list` where it is picked by hand for a list, which shows nobody what they may not open; `entry` on a pocket page. */
	readonly form: KeptPlacement['form'] | 'list' | 'entry';
	readonly press: KeptPlacement['press'];
	readonly locked: boolean;
	/** The page that its cover shows, where that is not the document's. */
	readonly page: number | null;
	/** Of a teaser: the path of the page to which it leads. */
	readonly leads: string | null;
}

const pickedFrom = (documents: readonly string[] = [], list?: string): Indexed[] =>
	[...new Set(documents)].map((document, i) => ({ id: pickedPlace(i, list), document, form: 'list', press: 'page', locked: false, page: null, leads: null }));

/** Where documents stand on a page, whichever its layout; of lists those picked by hand. */
export function indexOf(layout: Layout, content: PageContent): Indexed[] {
	switch (layout) {
		case 'article':
			return [
				...placementsOf(content as Article).map(({ id, document, form, press, locked, page, leads }) => ({
					id,
					document,
					form,
					press,
					locked: locked ?? false,
					page: page ?? null,
					leads: ledTo({ form, leads })
				})),
				...listsOf(content as Article).flatMap(({ id, documents }) => pickedFrom(documents, id))
			];
		case 'catalogue':
			return pickedFrom((content as Catalogue).documents);
		case 'pocket':
			// an entry that rests is met by nobody: it turns nobody away
			return (content as Pocket).entries.flatMap(({ id, document, resting = false }) =>
				// whoever asks for placements has given every entry its id (withIds)
				document ? [{ id: id!, document, form: 'entry' as const, press: 'over' as const, locked: resting, page: null, leads: null }] : []
			);
	}
}

/** The lists of a page by which documents stand there without being named: by their ids, '' for a catalogue. */
export function listingsOf(layout: Layout, content: PageContent): ({ list: string } & ReturnType<typeof selectionOf>)[] {
	const lists =
		layout === 'article'
			? listsOf(content as Article).map((listing) => ({ list: listing.id, ...selectionOf(listing) }))
			: layout === 'catalogue'
				? [{ list: '', ...selectionOf(content as Catalogue) }]
				: [];
	// what is picked by hand alone is named
	return lists.filter(({ folders, topics, fields, everything }) => everything || folders.length || topics.length || Object.keys(fields).length);
}

/** An article without a placement, or with one changed: what a remedy does to it. */
export function withPlacement(content: Article, id: string, change: (attrs: KeptPlacement) => KeptPlacement | null): Article {
	const walk = (node: ContentNode): ContentNode[] => {
		if (node.type === 'placement' && node.attrs?.id === id) {
			// a node of this type has these attributes: the schema of contents says so
			const next = change(node.attrs as unknown as KeptPlacement);
			return next ? [{ ...node, attrs: next }] : [];
		}
		return [node.content ? { ...node, content: node.content.flatMap(walk) } : node];
	};
	// one node in, one node out, of the same type
	return walk(content)[0] as unknown as Article;
}

/** Content whose teasers lead to another path than before; the very content where none did. */
export function withLeads(layout: Layout, content: PageContent, from: string, to: string): PageContent {
	if (layout !== 'article' || from === to) return content;
	return placementsOf(content as Article)
		.filter(({ leads }) => leads === from)
		.reduce((article, { id }) => withPlacement(article, id, (attrs) => ({ ...attrs, leads: to })), content as Article);
}

/** A page without one of its placements: a node of an article, an entry of a pocket page. A catalogue lists, and has none. */
export function withoutPlacement(layout: Layout, content: PageContent, id: string): PageContent {
	switch (layout) {
		case 'article':
			return withPlacement(content as Article, id, () => null);
		case 'pocket':
			return { ...(content as Pocket), entries: (content as Pocket).entries.filter((entry) => entry.id !== id) };
		case 'catalogue':
			return content;
	}
}

/** The attributes of every node of a type, in the order in which they stand. */
function attrsOf(content: Article, type: string): unknown[] {
	const out: unknown[] = [];
	const walk = (node: ContentNode) => {
		if (node.type === type) out.push(node.attrs);
		node.content?.forEach(walk);
	};
	walk(content);
	return out;
}

/** Every placement of an article, in the order in which they stand. The content has been `settled`. */
export const placementsOf = (content: Article): KeptPlacement[] => attrsOf(content, 'placement') as KeptPlacement[];

/** Every document list of an article, in the order in which they stand. The content has been `settled`. */
export const listsOf = (content: Article): KeptList[] => attrsOf(content, 'documentList') as KeptList[];

/** A page in plain lines, a block or entry each: what two revisions are compared by. */
export function contentLines(layout: Layout, content: PageContent): string[] {
	switch (layout) {
		case 'article': {
			const lines: string[] = [];
			const words = (node: ContentNode): string => {
				if (node.type === 'placement') {
					// a node of this type has these attributes: the schema of contents says so
					const { document, form, press, words: own, picture, leads } = node.attrs as unknown as KeptPlacement;
					return `[${own ? `${own}: ` : ''}${document}, ${picture ? 'own picture, ' : ''}${form}, ${leads ? `leads to ${leads}` : press}]`;
				}
				if (node.type === 'picture') {
					// a node of this type has these attributes: the schema of contents says so
					const { alt, caption, href } = node.attrs as unknown as PictureAttrs;
					const said = [alt, caption, href && `leads to ${href}`].filter(Boolean).join(', ');
					return `[picture${said && `: ${said}`}]`;
				}
				return node.text ?? (node.content ?? []).map(words).join('');
			};
			const walk = (node: ContentNode) => {
				if (node.type === 'paragraph' || node.type === 'heading' || node.type === 'picture') lines.push(words(node));
				// a node of this type has these attributes: the schema of contents says so
				else if (node.type === 'documentList') lines.push(`[document list: ${listingWords(node.attrs as unknown as ListAttrs)}]`);
				else node.content?.forEach(walk);
			};
			walk(content as ContentNode);
			return lines.filter((line) => line.trim());
		}
		case 'catalogue': {
			const { lead, folders = [], topics = [], documents = [], show, order = 'title', beside } = content as Catalogue;
			return [
				...(lead ? [lead] : []),
				...folders.map((f) => `Folder ${f}`),
				...topics.map((t) => `Topic ${t}`),
				...documents.map((d) => `Document ${d}`),
				`Shown as ${show}, order ${order}${beside ? ', read beside the list' : ''}`
			];
		}
		case 'pocket': {
			const { lead, entries } = content as Pocket;
			return [
				...(lead ? [lead] : []),
				...entries.map((e) =>
					[e.words, e.document ?? e.url, e.from && `from ${e.from}`, e.until && `until ${e.until}`, e.resting && 'resting'].filter(Boolean).join(', ')
				)
			];
		}
	}
}
