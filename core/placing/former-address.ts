// Former addresses: where files lay on an old website. Read here from what people paste, and brought to the one form in which they are compared.
import { slugPattern } from '../documents/address';
import { isReserved } from './path';

/** Longest former address, in characters. */
export const longestFormer = 500;

/** A path in the one way in which it is compared: decoded where it can be, and encoded again (RFC 3986, section 6.2.2). */
function plain(path: string): string {
	try {
		return path.split('/').map((step) => encodeURIComponent(decodeURIComponent(step))).join('/'); // prettier-ignore
	} catch {
		return path;
	}
}

/**
 * The path of an address as requests for it are compared: without its website, fragment and last slash, with its query. Null for what is none, and for
 * paths that this site answers itself, where no request would be led on. `https://old.example.org/a b.pdf#page=2` → `/a%20b.pdf`
 */
export function formerPath(text: string): string | null {
	const given = text.trim();
	const path = /^(?:https?:\/\/[^/?#]+)?(\/[^#]*)/i.exec(given)?.[1];
	if (path === undefined) return null;
	const mark = path.indexOf('?');
	const [own, query] = mark < 0 ? [path, ''] : [path.slice(0, mark), path.slice(mark)];
	const whole = plain(own.replace(/\/+$/, '')) + query;
	if (!/^\/[^\s\0]+$/.test(whole) || whole.length > longestFormer || (whole.match(/\*+/g)?.length ?? 0) > mostStars) return null;
	return isReserved(own) ? null : whole;
}

/** What a pattern leads to that names no document: the one that has the name for which its last star stands. */
export const byName = '*';

/** Whether a former address is a pattern: `*` stands for some letters within one step of a path, `**` for steps as well. */
export const isPattern = (path: string): boolean => path.includes('*');

/**
 * What the last star of a pattern stands for in a path, decoded, '' for steps that are none; null where the path is none of the pattern's. A pattern that has no query takes paths
 * with any. `starName('/files/**\/*.pdf', '/files/2019/spring/A%20guide.pdf')` → 'A guide'
 */
export function starName(pattern: string, path: string): string | null {
	const given = pattern.includes('?') ? path : path.replace(/\?.*$/, '');
	const source = pattern
		.split(/(\*+)/)
		.map((part) => (/^\*\*/.test(part) ? '(.+)' : part === '*' ? '([^/?]+)' : part.replace(/[\\^$.|?+()[\]{}]/g, '\\$&')))
		.join('');
	// a step before two stars may be none at all
	const match = new RegExp(`^${source.replaceAll('(.+)/', '(?:(.+)/)?')}$`, 'i').exec(given);
	if (!match) return null;
	const name = match.slice(1).at(-1) ?? '';
	try {
		return decodeURIComponent(name);
	} catch {
		return name;
	}
}

/** Most stars of a pattern, one run counted once: with more, an address made for it would take long to be compared. */
const mostStars = 3;

/** Patterns, those that say most of an address first: of two that take one, the first answers. */
export const closestFirst = (a: string, b: string): number => b.replaceAll('*', '').length - a.replaceAll('*', '').length || (a < b ? -1 : 1);

/** The document that a line names: by its slug, by its address on any website, or for a pattern by a star. */
const slugOf = (text: string): string | null => {
	if (text.trim() === byName) return byName;
	const slug = /(?:^|\/d\/)([^/?#]+)\/?(?:[?#].*)?$/.exec(text.trim())?.[1] ?? '';
	return new RegExp(slugPattern).test(slug) ? slug : null;
};

export interface FormerLine {
	/** Counted from 1. */
	readonly line: number;
	readonly text: string;
	/** The former address and the document, where both can be read. */
	readonly read: { readonly path: string; readonly document: string } | null;
}

/** The two columns of a line: by tabs or semicolons where there are any, else at the last comma, else at the last space. Quotes around one are taken off. */
function columns(line: string): string[] {
	const parts = /[\t;]/.test(line)
		? line.split(line.includes('\t') ? '\t' : ';')
		: (/^(.*),([^,]*)$/.exec(line) ?? /^(.*)\s(\S*)$/.exec(line) ?? [line, line]).slice(1);
	return parts.map((part) => part.trim().replace(/^"(.*)"$/, '$1')).filter(Boolean);
}

/** What is pasted, line by line: an address and the document that it leads to. A first line of headings, and empty ones, are passed over. */
export function readFormer(text: string): FormerLine[] {
	return text.split(/\r\n|\r|\n/).flatMap((raw, i) => {
		const line = raw.trim();
		if (!line || (i === 0 && !line.includes('/'))) return [];
		const [address = '', name = '', ...more] = columns(line);
		const [path, document] = [formerPath(address), slugOf(name)];
		return [{ line: i + 1, text: line.slice(0, 300), read: !more.length && path && document ? { path, document } : null }];
	});
}

/** Whether an address that nobody answers is worth telling: it looks like that of a document, or another website leads there. Programs look for weak spots of others at .php. */
export const worthTelling = (path: string, fromElsewhere: boolean): boolean =>
	path.length <= longestFormer && (fromElsewhere || /\.(?:pdf|docx?|odt|xlsx?|pptx?|rtf|epub)(?:\?|$)/i.test(path));
