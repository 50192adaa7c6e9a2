// Clean, lasting addresses and proposed titles from what a file brings along.

/** An address is lower-case letters, digits and single hyphens, 1 to 80 long. */
export const slugPattern = '^[a-z0-9]+(?:-[a-z0-9]+)*$';
export const slugMax = 80;

const folded: Record<string, string> = { ß: 'ss', æ: 'ae', Æ: 'ae', ø: 'o', Ø: 'o', ł: 'l', Ł: 'l', đ: 'd', ð: 'd', þ: 'th', œ: 'oe', Œ: 'oe' };

/**
 * The address a title makes. `slugOf('Winter stoppages, 2026/27')` → 'winter-stoppages-2026-27'. Letters outside the Latin
 * alphabet fall away (the server spells them in Latin ones before: slug.ts); where nothing is left, `fallback` stands.
 */
export function slugOf(title: string, fallback = 'document'): string {
	const plain = title
		.replace(/[’'`]/g, '')
		.replace(/[ßæÆøØłŁđðþœŒ]/g, (c) => folded[c] ?? '')
		.normalize('NFKD')
		.replace(/\p{M}/gu, '')
		.toLowerCase();
	const slug = plain
		.replace(/[^a-z0-9]+/g, '-')
		.slice(0, slugMax)
		.replace(/^-+|-+$/g, '');
	return slug || fallback;
}

/** The first free address: the slug itself, then with -2, -3 … `taken` tells whether one is in use. */
export function freeSlug(slug: string, taken: ReadonlySet<string>): string {
	if (!taken.has(slug)) return slug;
	for (let n = 2; ; n++) {
		const next = `${slug.slice(0, slugMax - String(n).length - 1)}-${n}`;
		if (!taken.has(next)) return next;
	}
}

/** 'Winter_stoppages%20v2 (final).PDF' → 'Winter stoppages v2 (final)'. */
export function titleFromFileName(name: string): string {
	let text = baseName(name).replace(/\.pdf$/i, '');
	try {
		text = decodeURIComponent(text);
	} catch {
		// a lone % sign stays as it is
	}
	text = text.replace(/[_+]+/g, ' ');
	if (!/\s/.test(text)) text = text.replace(/-+/g, ' ');
	text = text.replace(/\s+/g, ' ').trim();
	return text ? text[0]!.toUpperCase() + text.slice(1) : 'Untitled document';
}

/** Titles that programs leave behind and nobody chose: names of source files, 'untitled', bare numbers. Common practice, no source. */
const unchosen = [
	/^(untitled|about:)/i,
	/^(microsoft|ms) ?word/i,
	/\.(docx?|odt|pptx?|xlsx?|indd|qxp|tex|dvi|pages|rtf|pdf)$/i,
	/^[^\p{L}]+$/u,
	/^(slide|page|document|title)\s*\d*$/i
];

/** The title to propose: the file's own where somebody chose it, else the cleaned file name. */
export function proposedTitle(ownTitle: string | null, fileName: string): string {
	const own = (ownTitle ?? '').replace(/\s+/g, ' ').trim();
	if (own.length >= 3 && !unchosen.some((shape) => shape.test(own))) return own.slice(0, 200);
	return titleFromFileName(fileName).slice(0, 200);
}

/** The last part of a path, without control characters: a name that may stand on a screen and in a header. */
export function baseName(name: string): string {
	return (name.split(/[\\/]/).pop() ?? '').replace(/[\u0000-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g, '').trim();
}
