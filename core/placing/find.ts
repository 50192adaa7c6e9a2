// Find in the pages of the site: they are few and short, so each is looked at whole.
import { findTerms, plain } from '../documents/find-query';
import type { Catalogue, ContentNode, Layout, PageContent } from './content';
import type { Pocket } from './pocket';

/** An attribute that is words. */
const said = (node: ContentNode, name: string): string => {
	const value = node.attrs?.[name];
	return typeof value === 'string' ? value : '';
};

/** What readers see written on a page, in lines: its own words, those of placements, captions, entries. */
export function pageLines(layout: Layout, content: PageContent): string[] {
	switch (layout) {
		case 'article': {
			const lines: string[] = [];
			const inLine = (node: ContentNode): string => node.text ?? (node.type === 'placement' ? said(node, 'words') : (node.content ?? []).map(inLine).join(''));
			const walk = (node: ContentNode) => {
				if (node.type === 'paragraph' || node.type === 'heading' || node.type === 'placement') lines.push(inLine(node));
				else if (node.type === 'picture') lines.push(said(node, 'caption'));
				else node.content?.forEach(walk);
			};
			walk(content as ContentNode);
			return lines.filter((line) => line.trim());
		}
		case 'catalogue':
			return [(content as Catalogue).lead ?? ''].filter(Boolean);
		case 'pocket':
			return [(content as Pocket).lead ?? '', ...(content as Pocket).entries.flatMap((e) => [e.words ?? '', e.about ?? ''])].filter(Boolean);
	}
}

export interface FoundLine {
	/** The higher, the better it fits: words of the title count four times. */
	readonly rank: number;
	/** What stands around the first word asked for, `marked` where it is one of them. */
	readonly stretches: readonly { readonly text: string; readonly marked: boolean }[];
}

/** Letters to each side of the first word found. */
const reach = 90;
const isWord = (c: string | undefined) => c !== undefined && /[\p{L}\p{N}]/u.test(c);

/** Where a term begins a word of a text; both plain. */
function placesOf(text: string, term: string): number[] {
	const places: number[] = [];
	for (let at = text.indexOf(term); at !== -1; at = text.indexOf(term, at + 1)) if (!isWord(text[at - 1])) places.push(at);
	return places;
}

/**
 * How a page fits a query as it is typed (words, "a phrase", -without): all words are there, each at the beginning of a word of the page. Null
 * where it does not fit.
 */
export function fitOf(title: string, lines: readonly string[], query: string): FoundLine | null {
	const terms = findTerms(query);
	const wanted = terms.filter((t) => !t.out).map((t) => plain(t.text));
	if (!wanted.length) return null;
	const [head, ...body] = [title, ...lines].map((line) => line.normalize('NFC'));
	const [plainHead, plainBody] = [plain(head ?? ''), body.map(plain)];
	const everything = [plainHead, ...plainBody].join('\n');
	if (terms.some((t) => t.out && placesOf(everything, plain(t.text)).length)) return null;
	let rank = 0;
	for (const term of wanted) {
		const places = placesOf(everything, term).length;
		if (!places) return null;
		rank += 4 * placesOf(plainHead, term).length + Math.log(1 + places);
	}
	const index = plainBody.findIndex((line) => wanted.some((term) => placesOf(line, term).length));
	const line = body[index === -1 ? 0 : index] ?? '';
	return { rank, stretches: marked(line, wanted) };
}

/** A stretch of a line around the first of the terms, with them marked. Letters that fold to another length move the marks a little. */
function marked(line: string, terms: readonly string[]): FoundLine['stretches'] {
	const folded = plain(line);
	const places = terms.flatMap((term) => placesOf(folded, term).map((at) => ({ at, end: at + term.length }))).sort((a, b) => a.at - b.at);
	const from = Math.max(0, (places[0]?.at ?? 0) - reach);
	const until = Math.min(line.length, (places[0]?.end ?? 0) + reach);
	const first = from === 0 ? 0 : line.indexOf(' ', from) + 1;
	const last = until === line.length ? until : Math.max(line.lastIndexOf(' ', until), places[0]?.end ?? 0);
	const out: { text: string; marked: boolean }[] = [];
	let at = first;
	if (first) out.push({ text: '… ', marked: false });
	for (const { at: start, end } of places) {
		if (start < at || end > last) continue;
		if (start > at) out.push({ text: line.slice(at, start), marked: false });
		out.push({ text: line.slice(start, end), marked: true });
		at = end;
	}
	if (at < last) out.push({ text: line.slice(at, last), marked: false });
	if (last < line.length) out.push({ text: ' …', marked: false });
	return out;
}
