// What was found, as it is listed: the words around a find.

export interface Around {
	readonly before: string;
	readonly found: string;
	readonly after: string;
}

const space = /\s+/g;

/** The words around a find in a page's text, cut at words where there are some. `length` is about how many characters stand on each side. */
export function around(text: string, at: number, found: number, length = 40): Around {
	const start = Math.max(0, at - length);
	const end = Math.min(text.length, at + found + length);
	let before = text.slice(start, at).replace(space, ' ');
	let after = text.slice(at + found, end).replace(space, ' ');
	if (start > 0) before = `…${before.includes(' ') ? before.slice(before.indexOf(' ')) : before}`;
	if (end < text.length) after = `${after.includes(' ') ? after.slice(0, after.lastIndexOf(' ') + 1) : after}…`;
	return { before, found: text.slice(at, at + found).replace(space, ' '), after };
}
