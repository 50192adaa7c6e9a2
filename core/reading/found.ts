// What was found, as it is listed: the words around a find.

export interface Around {
	readonly before: string;
	readonly found: string;
	readonly after: string;
}

const space = /\s+/g;
/** The dots that lead from a title to its page in a table of contents. */
const leaders = /(?:\s*[.·…]){4,}/g;
const even = (text: string) => text.replace(leaders, ' …').replace(space, ' ');

/** The words around a find in a page's text, cut at words where there are some. `length` is about how many characters stand on each side. */
export function around(text: string, at: number, found: number, length = 40): Around {
	const start = Math.max(0, at - length);
	const end = Math.min(text.length, at + found + length);
	let before = even(text.slice(start, at));
	let after = even(text.slice(at + found, end));
	if (start > 0) before = `…${before.includes(' ') ? before.slice(before.indexOf(' ')) : before}`;
	if (end < text.length) after = `${after.includes(' ') ? after.slice(0, after.lastIndexOf(' ') + 1) : after}…`;
	return { before, found: text.slice(at, at + found).replace(space, ' '), after };
}
