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
	if (!/^\/[^\s\0]+$/.test(whole) || whole.length > longestFormer) return null;
	return isReserved(own) ? null : whole;
}

/** The document that a line names: by its slug, or by its address on any website. */
const slugOf = (text: string): string | null => {
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
