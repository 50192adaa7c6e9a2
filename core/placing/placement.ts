// A placement: a document shown on a page. What it says, how it looks, where a press leads.
import { Type, type Static } from '@sinclair/typebox';
import { counted } from '../text/list';
import { slugPattern } from '../documents/address';
import { sizeWords } from '../documents/size';
import { askedFor, ReadingSettings } from '../reading/settings';
import { pagePathPattern } from './path';
import { oneOf } from '../schema';

export const forms = ['text', 'button', 'cover', 'card', 'frame'] as const;
export type Form = (typeof forms)[number];
export const formWords: Record<Form, string> = { text: 'Text link', button: 'Button', cover: 'Cover', card: 'Card', frame: 'Reading frame' };

export const presses = ['page', 'over', 'tab', 'here', 'save'] as const;
export type Press = (typeof presses)[number];
export const pressWords: Record<Press, string> = {
	page: 'Document page',
	over: 'Read over the page',
	tab: 'New tab',
	here: 'Same tab',
	save: 'Save'
};

/** What is said of a document beside its words. */
export const facts = ['type', 'pages', 'size', 'date'] as const;
export type Fact = (typeof facts)[number];

/** A picture kept by the site, by its checksum. */
export const pictureName = Type.String({ pattern: '^[0-9a-f]{64}$' });

/** CSS px, or a share of the column: '50%'. */
export const Width = Type.Union([Type.Integer({ minimum: 60, maximum: 2400 }), Type.String({ pattern: '^(?:[1-9]\\d?|100)%$' })]);
export type Width = Static<typeof Width>;
/**
 * A width as somebody types it: '300', '300 px', '50 %', at its least or most where it is beyond; null for none, undefined where it is not
 * understood.
 */
export function widthOf(typed: string): Width | null | undefined {
	if (!typed.trim()) return null;
	const [, number, unit] = /^\s*(\d{1,6})\s*(px|%)?\s*$/i.exec(typed) ?? [];
	if (number === undefined) return undefined;
	return unit === '%' ? `${Math.min(100, Math.max(1, Number(number)))}%` : Math.min(2400, Math.max(60, Number(number)));
}
/** A width and a height as somebody types them at once: '700 × 900', '100 % x 1000'; null where it is no such pair. */
export function sizeOf(typed: string): { width: Width; height: number } | null {
	const [first, second, ...more] = typed.split(/(?<!p)[x×]/i);
	const width = first === undefined ? null : widthOf(first);
	const [, px] = /^\s*(\d{1,5})\s*(?:px)?\s*$/i.exec(second ?? '') ?? [];
	return width === null || width === undefined || px === undefined || more.length ? null : { width, height: Math.min(4000, Math.max(200, Number(px))) };
}

const settings = {
	/** Shown when the pointer rests on it. */
	hover: Type.String({ maxLength: 300 }),
	/** A small drawing of a page before the words. */
	icon: Type.Boolean(),
	facts: Type.Array(oneOf(facts), { uniqueItems: true }),
	style: oneOf(['filled', 'outlined'] as const),
	/** Of a button, cover, card or frame; a button without one is as wide as its words. */
	width: Width,
	align: oneOf(['left', 'centre', 'right'] as const),
	/** Page that the cover shows; the document's own cover where left out. */
	page: Type.Integer({ minimum: 1, maximum: 100_000 }),
	/** A picture of its own in place of the document's cover. */
	picture: pictureName,
	border: Type.Boolean(),
	shadow: Type.Boolean(),
	/** Words and facts below a cover. */
	caption: Type.Boolean(),
	/** What a cover shows, for those who do not see it. */
	alt: Type.String({ maxLength: 400 }),
	/** The document's description on a card. */
	description: Type.Boolean(),
	/** Height of a frame in CSS px; 'worked out' shows one whole page. */
	height: Type.Union([Type.Integer({ minimum: 200, maximum: 4000 }), Type.Literal('worked out')]),
	/** Page that a frame or a reading begins with. */
	start: Type.Integer({ minimum: 1, maximum: 100_000 })
};
/** The last: how it is read, where that differs from what the document or the site says. */
const Settings = Type.Composite([Type.Partial(Type.Object(settings)), Type.Pick(ReadingSettings, ['way', 'fit', 'foreEdge', 'tools', 'theme'])]);
type SettingName = keyof Static<typeof Settings>;

/** What each placement says for itself: no use as a site-wide default. */
export const ownEach: ReadonlySet<SettingName> = new Set(['hover', 'page', 'picture', 'alt', 'start']);

/** Which settings each form has. */
export const settingsOfForm: Record<Form, readonly SettingName[]> = {
	text: ['hover', 'icon', 'facts', 'start', 'way', 'fit'],
	button: ['hover', 'icon', 'facts', 'style', 'width', 'align', 'start', 'way', 'fit'],
	cover: ['hover', 'facts', 'width', 'align', 'page', 'picture', 'border', 'shadow', 'caption', 'alt', 'start', 'way', 'fit'],
	card: ['hover', 'facts', 'width', 'align', 'description', 'page', 'picture', 'border', 'shadow', 'alt', 'start', 'way', 'fit'],
	frame: ['width', 'height', 'align', 'border', 'start', 'way', 'fit', 'foreEdge', 'tools', 'theme']
};

export const PlacementAttrs = Type.Composite(
	[
		Type.Object({
			/** Names this placement in addresses and in the ledger; made when it is put in. */
			id: Type.Optional(Type.String({ pattern: '^[A-Za-z0-9_-]{6,40}$' })),
			document: Type.String({ pattern: slugPattern, maxLength: 80 }),
			form: oneOf(forms),
			press: oneOf(presses),
			/** Words shown; the document's title where left out. */
			words: Type.Optional(Type.String({ maxLength: 300 })),
			/** Those whom the document turns away are meant to see it as a locked card: no dead end then. */
			locked: Type.Optional(Type.Boolean()),
			/** Of a teaser: the path of the site's page to which a press leads, in place of the document. No reading frame leads anywhere. */
			leads: Type.Optional(Type.String({ pattern: pagePathPattern, maxLength: 200 }))
		}),
		Settings
	],
	{ additionalProperties: false }
);
export type PlacementAttrs = Static<typeof PlacementAttrs>;
/** A placement as it is kept: with its id. */
export type KeptPlacement = PlacementAttrs & { id: string };

/** Every setting, decided. */
export type PlacementSettings = { readonly [N in SettingName]: NonNullable<Static<typeof Settings>[N]> | null };

const plain: PlacementSettings = {
	hover: null,
	icon: false,
	facts: ['type', 'pages', 'size'],
	style: 'filled',
	width: null,
	align: 'left',
	page: null,
	picture: null,
	border: true,
	shadow: false,
	caption: true,
	alt: null,
	description: true,
	height: 'worked out',
	start: null,
	way: null,
	fit: null,
	foreEdge: null,
	tools: null,
	theme: null
};
/** As it comes: a cover 300 px wide, a frame the whole column (common practice, no source). */
const asItComes: Record<Form, Partial<PlacementSettings>> = { text: {}, button: {}, cover: { width: 300 }, card: { width: '100%' }, frame: { width: '100%' } };

/** What a site sets for all placements of a form: `press` is what a new one begins with. */
export const PlacementDefaults = shapeOfDefaults();
function shapeOfDefaults() {
	const ofForm = (form: Form) => Object.fromEntries(settingsOfForm[form].filter((n) => !ownEach.has(n)).map((n) => [n, Settings.properties[n]]));
	return Type.Object(
		Object.fromEntries(
			forms.map((form) => [form, Type.Optional(Type.Object({ press: Type.Optional(oneOf(presses)), ...ofForm(form) }, { additionalProperties: false }))])
		),
		{ additionalProperties: false }
	);
}
export type PlacementDefaults = { readonly [F in Form]?: Partial<PlacementSettings> & { readonly press?: Press } };

/** Settings for a form on this site, before any placement says otherwise. */
export const defaultsOf = (form: Form, site: PlacementDefaults = {}): PlacementSettings => {
	const { press: _press, ...given } = site[form] ?? {};
	return { ...plain, ...asItComes[form], ...given };
};

/** The settings of a placement: the site's, and what it says itself. */
export function settingsOf(attrs: PlacementAttrs, site: PlacementDefaults = {}): PlacementSettings {
	const own = Object.fromEntries(settingsOfForm[attrs.form].flatMap((name) => (attrs[name] === undefined ? [] : [[name, attrs[name]]])));
	return { ...defaultsOf(attrs.form, site), ...own };
}

/** What a placement needs to know of its document. */
export interface PlacedDocument {
	readonly slug: string;
	readonly title: string;
	readonly pages: number;
	/** The same in words, in another language than English. */
	readonly pagesSaid?: string;
	readonly bytes: number;
	/** When its edition came, as the site's day: '24 November 2026'. */
	readonly date?: string;
}

export interface PlacementView extends PlacementSettings {
	readonly href: string;
	readonly newTab: boolean;
	readonly download: boolean;
	readonly over: boolean;
	readonly words: string;
	/** 'PDF, 2 pages, 340 kB'; empty where nothing is to be said. */
	readonly said: string;
}

/** 'PDF, 2 pages, 340 kB': what a reader wants to know before pressing. */
export function factsWords(
	document: Pick<PlacedDocument, 'pages' | 'pagesSaid' | 'bytes' | 'date'>,
	which: readonly Fact[] = ['type', 'pages', 'size']
): string {
	const words: Record<Fact, string | undefined> = {
		type: 'PDF',
		pages: document.pagesSaid ?? counted(document.pages, 'page', 'pages'),
		size: sizeWords(document.bytes),
		date: document.date
	};
	return facts.flatMap((fact) => (which.includes(fact) && words[fact] ? [words[fact]] : [])).join(', ');
}

/** Where a press leads. The placement's id goes along, so that the ledger can name the page it stood on. */
export function pressHref(slug: string, press: Press, placement: string, read: Partial<Pick<PlacementSettings, 'start' | 'way' | 'fit'>> = {}): string {
	const from = `from=${encodeURIComponent(placement)}`;
	switch (press) {
		case 'page':
			return `/d/${slug}?${from}`;
		case 'over':
		case 'tab':
		case 'here':
			return `/d/${slug}/read?${[from, ...askedFor({ way: read.way, fit: read.fit })].join('&')}${read.start ? `#page=${read.start}` : ''}`;
		case 'save':
			return `/d/${slug}/file?save&${from}`;
	}
}

/** The path of the page to which a placement leads instead of its document; null where it is no teaser. */
export const ledTo = ({ form, leads }: Pick<PlacementAttrs, 'form' | 'leads'>): string | null => (form === 'frame' ? null : (leads ?? null));

/** A placement made ready to be drawn; of a teaser `page` is where it leads. What is said of the document it says only where it is told to. */
export function placementView(
	attrs: KeptPlacement,
	document: PlacedDocument,
	site: PlacementDefaults = {},
	page: { readonly path: string; readonly title: string } | null = null
): PlacementView {
	const settings = settingsOf(attrs, site);
	return {
		...settings,
		href: page?.path ?? pressHref(document.slug, attrs.press, attrs.id, settings),
		newTab: attrs.press === 'tab',
		download: !page && attrs.press === 'save',
		over: !page && attrs.press === 'over',
		words: attrs.words?.trim() || (page ?? document).title,
		said: page && !attrs.facts ? '' : factsWords(document, settings.facts ?? [])
	};
}

/** The address of a reading frame on a page of the site, or with `embed` on another website. */
export function frameHref(slug: string, placement: string, s: PlacementSettings, embed = false): string {
	const asked = [
		...(embed ? [] : ['frame=1', `from=${encodeURIComponent(placement)}`]),
		...askedFor({ way: s.way, fit: s.fit, foreEdge: s.foreEdge, tools: s.tools, theme: s.theme })
	].join('&');
	return `${embed ? `/embed/${slug}` : `/d/${slug}/read`}${asked && `?${asked}`}${s.start ? `#page=${s.start}` : ''}`;
}

/** CSS for a width: '300px', '50%'. */
export const cssWidth = (width: Width): string => (typeof width === 'number' ? `${width}px` : width);
