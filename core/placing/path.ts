// Paths of pages: which are well formed, and which belong to the application itself.

export const pagePathPattern = '^/$|^(?:/[a-z0-9]+(?:-[a-z0-9]+)*)+$';

/** First parts of paths that are the application's own; no page may stand there. */
export const reservedParts: readonly string[] = [
	'd',
	'k',
	'embed',
	'oembed',
	'desk',
	'api',
	'sign-in',
	'me',
	'begin',
	'find',
	'privacy',
	'invite',
	'picture',
	'postbox',
	'ianua-document.js',
	'reading-over.js',
	'shown.js',
	'copy.js',
	'text.js',
	'healthz',
	'metrics',
	'readyz',
	'sitemap.xml',
	'robots.txt',
	'llms.txt',
	'api-reference',
	'_app',
	'pdfjs',
	'brand'
];

/** Whether a path is the application's own, whatever it looks like. */
export const isReserved = (path: string): boolean => path === '/' || reservedParts.includes(path.split('/')[1] ?? '');

/** Why a path cannot be a page's, or null where it can. */
export function pathTrouble(path: string): string | null {
	if (path.length > 200) return 'the path is longer than 200 characters';
	if (!new RegExp(pagePathPattern).test(path)) return 'a path is a slash and lower-case words joined by hyphens, as in /winter-stoppages';
	const first = path.split('/')[1]!;
	if (reservedParts.includes(first)) return `paths that begin with /${first} belong to the application`;
	return null;
}
