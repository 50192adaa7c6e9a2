// The look of the site as its owner sets it: two colours from which all others follow, and what stands on every page.
import { Type, type Static } from '@sinclair/typebox';
import { Line } from '../text/line';
import { pagePathPattern } from '../placing/path';
import { nearestPassing, siteGround, siteInk, siteMain } from './colour';

/** So many entries of the navigation stand at the head; the others in the menu of a phone and in the foot. */
export const inMenu = 6;

/** The ground of the site by night. */
export const nightGround = '#1b2524';

/** What the foot says: an address in lines, and words of one's own. */
export const Foot = Type.Object(
	{
		address: Type.Optional(Type.Union([Type.Null(), Type.String({ maxLength: 400 })])),
		words: Type.Optional(Type.Union([Type.Null(), Type.String({ maxLength: 1000 })]))
	},
	{ additionalProperties: false }
);
export type Foot = Static<typeof Foot>;

/** A line on every page, with the page that says more, through its last day in the site's zone. */
export const Notice = Type.Object(
	{
		words: Line(200),
		path: Type.Optional(Type.Union([Type.Null(), Type.String({ maxLength: 200, pattern: pagePathPattern })])),
		until: Type.Optional(Type.Union([Type.Null(), Type.String({ format: 'date' })]))
	},
	{ additionalProperties: false }
);
export type Notice = Static<typeof Notice>;

export interface AskedColours {
	readonly colour: string | null;
	readonly background: string | null;
}

/**
 * The colours that another website asks for in a frame on its pages, by the parameters of its address (`colour`, `background`: six hexadecimal digits); `get`
 * gives one or null. Made legible where they are not: white stands on the one, ink on the other. What is no colour is as if it were not there.
 */
export function askedColours(get: (name: string) => string | null): AskedColours {
	const [colour, background] = ['colour', 'background'].map((name) => /^#?([0-9a-f]{6})$/.exec(get(name)?.toLowerCase() ?? '')?.[1]);
	return {
		colour: colour ? nearestPassing(`#${colour}`, ['#ffffff']) : null,
		background: background ? nearestPassing(`#${background}`, [siteInk]) : null
	};
}

/** The owner's colours as custom properties from which the site's stylesheet works out all others; undefined where nothing is set. */
export function siteColours(site: { readonly colour?: string | null; readonly background?: string | null }): string | undefined {
	const main = site.colour ?? siteMain;
	const set = [
		...(site.colour ? [`--own-main:${main}`, `--own-night:${nearestPassing(main, [nightGround])}`] : []),
		...(site.background && site.background !== siteGround ? [`--own-ground:${site.background}`] : [])
	];
	return set.length ? set.join(';') : undefined;
}
