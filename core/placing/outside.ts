// Showing documents on other websites: which sites may frame, the code to copy, and oEmbed 1.0 (oembed.com).
import { elementMarkup, elementScript, escaped } from './elements';
import { cssWidth, frameHref, type PlacementSettings } from './placement';
import { frameHeight, sillHeight, type PageShape } from './frame';

/** A host, with a port where it is not the usual one, or all hosts under one: `example.org`, `*.example.org`, `localhost:4200`. */
export const framerPattern = '^(?:\\*\\.)?[a-z0-9](?:[a-z0-9-]*[a-z0-9])?(?:\\.[a-z0-9](?:[a-z0-9-]*[a-z0-9])?)*(?::\\d{1,5})?$';

/** The value of `frame-ancestors` (CSP 3) for the sites that may frame, this one among them. */
export function frameAncestors(framers: readonly string[]): string {
	// CSP 3, 2.3.1: a host without a scheme is matched under the scheme of the framed page or a safer one; but with a port of its own, browsers hold it to
	// the first (seen in Chromium)
	return ["'self'", ...framers.flatMap((host) => (/:\d+$/.test(host) ? [host, `https://${host}`] : [host]))].join(' ');
}

/** Whether a website may frame: `origin` as in 'https://news.example.org'. */
export function mayFrame(origin: string, framers: readonly string[]): boolean {
	const host = /^https?:\/\/([^/]+)$/i.exec(origin)?.[1]?.toLowerCase();
	if (!host) return false;
	return framers.some((framer) => (framer.startsWith('*.') ? host.endsWith(framer.slice(1)) && host.length > framer.length - 1 : host === framer));
}

export interface Shown {
	/** Where this site stands: 'https://example.org'. */
	readonly origin: string;
	readonly slug: string;
	readonly title: string;
	readonly shape: PageShape;
}

/** The code of a reading frame: as wide as is set, and by the shape of the page. */
export function frameCode({ origin, slug, title, shape }: Shown, settings: PlacementSettings): string {
	const width = settings.width ?? '100%';
	const src = escaped(origin + frameHref(slug, '', settings, true));
	const high =
		settings.height === 'worked out'
			? // what stands around the page is as high at any width
				typeof width === 'number'
				? `height:${frameHeight(width, shape, { tools: sillHeight })}px`
				: `aspect-ratio:${round(shape.width)}/${round(shape.height)};min-height:320px`
			: `height:${settings.height ?? 900}px`;
	const border = settings.border ? '1px solid #c9c5b9' : '0';
	return `<iframe src="${src}" title="${escaped(title)}" loading="lazy" allow="fullscreen" style="width:${cssWidth(width)};max-width:100%;${high};border:${border}"></iframe>`;
}

const round = (n: number) => Math.round(n * 10) / 10;

/** The code of a cover that leads to the document. */
export function coverCode({ origin, slug, title, shape }: Shown, width: number): string {
	const size = width <= 300 ? 300 : width <= 600 ? 600 : 1200;
	return `<a href="${escaped(`${origin}/d/${slug}`)}" rel="noopener"><img src="${escaped(`${origin}/d/${slug}/cover/${size}.webp`)}" width="${width}" height="${frameHeight(width, shape)}" alt="${escaped(title)}" loading="lazy"></a>`;
}

/** The code of a plain link. */
export const linkCode = ({ origin, slug }: Shown, words: string, save = false): string =>
	`<a href="${escaped(`${origin}/d/${slug}${save ? '/file?save' : ''}`)}" rel="noopener">${escaped(words)}</a>`;

/** The code of the small element, with its script. */
export const elementCode = ({ origin, slug, title }: Shown, form: string, press: string): string => {
	const href = `${origin}/d/${slug}`;
	return `${elementScript(origin)}\n${elementMarkup({ tag: 'ianua-document', attributes: { src: href, form, press }, inside: { href, words: title } })}`;
};

/** An answer of oEmbed 1.0, section 2.3.4.4 (type rich). */
export interface OEmbed {
	readonly version: '1.0';
	readonly type: 'rich';
	readonly title: string;
	readonly provider_name: string;
	readonly provider_url: string;
	readonly html: string;
	readonly width: number;
	readonly height: number;
	readonly thumbnail_url?: string;
	readonly thumbnail_width?: number;
	readonly thumbnail_height?: number;
	readonly cache_age: number;
}

/** As wide as asked for, at most 700 px: A4 then is about 1000 high (common practice, no source). */
const usualWidth = 700;

/** The oEmbed answer for a document. `maxwidth` and `maxheight` bound what the code takes up (oEmbed 1.0, 2.2). */
export function oEmbed(shown: Shown & { site: string }, bounds: { maxwidth?: number; maxheight?: number }, settings: PlacementSettings): OEmbed {
	const width = Math.max(1, Math.min(usualWidth, bounds.maxwidth ?? usualWidth));
	const height = Math.max(1, Math.min(frameHeight(width, shown.shape, { tools: sillHeight }), bounds.maxheight ?? Infinity));
	const cover = frameHeight(300, shown.shape);
	// a cover is 300 px wide or it is not given: nothing larger than was asked for (oEmbed 1.0, 2.3.4)
	const fits = 300 <= (bounds.maxwidth ?? Infinity) && cover <= (bounds.maxheight ?? Infinity);
	return {
		version: '1.0',
		type: 'rich',
		title: shown.title,
		provider_name: shown.site,
		provider_url: `${shown.origin}/`,
		html: frameCode(shown, { ...settings, width, height, border: false }),
		width,
		height,
		...(fits ? { thumbnail_url: `${shown.origin}/d/${shown.slug}/cover/300.webp`, thumbnail_width: 300, thumbnail_height: cover } : {}),
		cache_age: 300
	};
}

/** The same in XML (oEmbed 1.0, 2.3.2). */
export function oEmbedXml(answer: OEmbed): string {
	const parts = Object.entries(answer).map(([name, value]) => `<${name}>${escaped(String(value))}</${name}>`);
	return `<?xml version="1.0" encoding="utf-8" standalone="yes"?>\n<oembed>\n\t${parts.join('\n\t')}\n</oembed>\n`;
}
