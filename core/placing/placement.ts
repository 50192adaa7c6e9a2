// A placement: a document shown on a page. What it says, where a press leads.
import { slugPattern } from '../documents/address';
import { sizeWords } from '../documents/size';
import { counted } from '../access/reach';
import { Type, type Static } from '@sinclair/typebox';

export const forms = ['text', 'button', 'cover'] as const;
export type Form = (typeof forms)[number];
export const formWords: Record<Form, string> = { text: 'Text link', button: 'Button', cover: 'Cover' };

export const presses = ['page', 'tab', 'here', 'save'] as const;
export type Press = (typeof presses)[number];
export const pressWords: Record<Press, string> = { page: 'Document page', tab: 'New tab', here: 'Same tab', save: 'Save' };

/** How wide a cover stands unless a placement says otherwise, in CSS px (common practice, no source). */
export const coverWidth = 300;

export const PlacementAttrs = Type.Object(
	{
		/** Names this placement in addresses and in the ledger; made when it is put in. */
		id: Type.Optional(Type.String({ pattern: '^[A-Za-z0-9_-]{6,40}$' })),
		document: Type.String({ pattern: slugPattern, maxLength: 80 }),
		form: Type.Union(forms.map((f) => Type.Literal(f))),
		press: Type.Union(presses.map((p) => Type.Literal(p))),
		/** Words shown; the document's title where left out. */
		words: Type.Optional(Type.String({ maxLength: 300 })),
		/** Width of a cover in CSS px. */
		width: Type.Optional(Type.Integer({ minimum: 60, maximum: 1200 }))
	},
	{ additionalProperties: false }
);
export type PlacementAttrs = Static<typeof PlacementAttrs>;
/** A placement as it is kept: with its id. */
export type KeptPlacement = PlacementAttrs & { id: string };

/** What a placement needs to know of its document. */
export interface PlacedDocument {
	readonly slug: string;
	readonly title: string;
	readonly pages: number;
	readonly bytes: number;
}

export interface PlacementView {
	readonly href: string;
	readonly newTab: boolean;
	readonly download: boolean;
	readonly words: string;
	/** 'PDF, 2 pages, 340 kB' */
	readonly facts: string;
	readonly width: number;
}

/** 'PDF, 2 pages, 340 kB': what a reader wants to know before pressing. */
export function factsWords(document: Pick<PlacedDocument, 'pages' | 'bytes'>): string {
	return `PDF, ${counted(document.pages, 'page', 'pages')}, ${sizeWords(document.bytes)}`;
}

/** Where a press leads. The placement's id goes along, so that the ledger can name the page it stood on. */
export function pressHref(slug: string, press: Press, placement: string): string {
	const from = `from=${encodeURIComponent(placement)}`;
	switch (press) {
		case 'page':
			return `/d/${slug}?${from}`;
		case 'tab':
		case 'here':
			return `/d/${slug}/read?${from}`;
		case 'save':
			return `/d/${slug}/file?save&${from}`;
	}
}

/** A placement made ready to be drawn. */
export function placementView(attrs: KeptPlacement, document: PlacedDocument): PlacementView {
	return {
		href: pressHref(document.slug, attrs.press, attrs.id),
		newTab: attrs.press === 'tab',
		download: attrs.press === 'save',
		words: attrs.words?.trim() || document.title,
		facts: factsWords(document),
		width: attrs.width ?? coverWidth
	};
}
