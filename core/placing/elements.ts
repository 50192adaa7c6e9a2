// The elements by which another website shows documents (static/ianua-document.js): their attributes and events, as they are explained to whoever writes its
// pages. A test holds the script, its types and docs/embedding.md to this list.

/** An attribute, or an event, and what it says; words between backquotes are code. */
export type Explained = readonly (readonly [name: string, says: string])[];

export const documentAttributes: Explained = [
	['src', 'the document’s address'],
	['form', '`text` (unless said), `button`, `cover`, `card`, `frame`'],
	['press', '`page` (unless said), `over` (over this page), `tab`, `here`, `save`; of all forms but a frame'],
	['words', 'the words shown; the document’s title unless said'],
	['width', 'of a cover in px, of a frame in px or %'],
	['height', 'of a frame in px; worked out from its page unless said'],
	['start', 'the page on which it opens'],
	['theme', 'of a frame: `light`, `dark`, or as the reader’s system has it'],
	['colour', 'of a frame’s tools and of a button: six hexadecimal digits; made legible where it is not'],
	['background', 'behind a frame’s pages by day: six hexadecimal digits; made legible where it is not'],
	['way', 'of a frame: `down`, `across`, `tiled`, `one-by-one`, `book`, `turning`'],
	['fit', 'of a frame: `page`, `width`, `height`, `comfortable`, `paper`'],
	['tools', 'of a frame: which it has, `save print find`; or `none`'],
	['close', 'the word of the button that closes what opened over the page'],
	['pass', 'where the website’s own server answers a pass for its members']
];

export const listAttributes: Explained = [
	['src', 'the site'],
	['folder', 'of these folders, several told apart by semicolons; everything unless said'],
	['topic', 'of these topics, the same way'],
	['order', '`title` (unless said), `-changed`, `folder`, `-pages`'],
	['most', 'so many and no more, up to 60; unless said all of them, 60 at a time'],
	['show', '`list` (unless said), `covers`, `cards`'],
	['press', 'as of a document'],
	['more', 'the words of the button that shows more'],
	['none', 'the words of a list that is empty']
];

export const frameEvents: Explained = [
	['ianua:opened', '`{document, pages}`: the first page is there'],
	['ianua:page', '`{document, page, pages}`: somebody came to a page'],
	['ianua:saved', '`{document}`'],
	['ianua:resize', '`{height}`, px: the frame shows words and no document (the website may not frame it)'],
	['ianua:refused', 'why a pass let nobody in: for the website’s developer']
];

export interface ElementShown {
	readonly tag: 'ianua-document' | 'ianua-list';
	readonly attributes: Readonly<Record<string, string>>;
	/** The link that stands where there is no script. */
	readonly inside: { readonly href: string; readonly words: string };
}

/** A text within HTML, between tags or as an attribute. */
export const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!); // these four alone

/** What fetches the elements’ script from a site. */
export const elementScript = (origin: string): string => `<script src="${escaped(origin)}/ianua-document.js" async></script>`;

/** An element as it is written on a page: `<ianua-document src="…" form="button"><a href="…">Map</a></ianua-document>`. */
export function elementMarkup({ tag, attributes, inside }: ElementShown): string {
	const named = Object.entries(attributes).map(([name, value]) => ` ${name}="${escaped(value)}"`);
	return `<${tag}${named.join('')}><a href="${escaped(inside.href)}">${escaped(inside.words)}</a></${tag}>`;
}
