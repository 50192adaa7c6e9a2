// The order in which the pieces of a page's text are read. A file may give a line's pieces from left to right, each glyph by itself, also where
// they are read from right to left: then words could not be found, and a screen reader would spell them backwards.

/** A piece of text where it stands: `transform` as in ISO 32000-1, 8.3.3 (a b c d e f), of which e and f are its place. */
export interface Piece {
	readonly str: string;
	readonly transform: readonly number[];
	readonly hasEOL: boolean;
}

const rightToLeft = /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u;
const leftToRight = /[\p{L}\p{N}]/u;

type Way = 'rtl' | 'ltr' | 'either';
/** Numbers go from left to right in every script (Unicode Standard Annex 9). */
const wayOf = ({ str }: Piece): Way => (rightToLeft.test(str) ? 'rtl' : leftToRight.test(str) ? 'ltr' : 'either');

const isPiece = (item: object): item is Piece => 'str' in item;

/** A mark of structure (ISO 32000-1, 14.6) begins, or with `endMarkedContent` the last one ends. */
interface Mark {
	readonly type?: string;
	readonly id?: string | null;
	readonly tag?: string | null;
}
/** Marks that the structure of the document names, or that set text apart from it. Others, such as those of single glyphs, say nothing. */
const says = ({ id, tag }: Mark) => Boolean(id) || tag === 'Artifact';
// a matrix has six numbers
const upright = ({ transform: [a, b, c] }: Piece) => a! > 0 && b === 0 && c === 0;
const onOneLine = (a: Piece, b: Piece) => upright(a) && upright(b) && Math.abs(a.transform[5]! - b.transform[5]!) < Math.abs(a.transform[3]!) * 0.3;

/** Turns round every stretch that goes `way`, with what goes either way between. */
function turned<T extends Piece>(pieces: readonly T[], way: Way): T[] {
	const out: T[] = [];
	let stretch: T[] = [];
	let between: T[] = [];
	const close = () => {
		out.push(...stretch.reverse(), ...between);
		stretch = [];
		between = [];
	};
	for (const piece of pieces) {
		const goes = wayOf(piece);
		if (goes === way) {
			stretch.push(...between, piece);
			between = [];
		} else if (goes === 'either' && stretch.length) between.push(piece);
		else {
			close();
			out.push(piece);
		}
	}
	close();
	return out;
}

/** A line's pieces in the order in which they are read; as they are, where they come in it. */
function lineInOrder<T extends Piece>(pieces: readonly T[]): readonly T[] {
	const right = pieces.filter((p) => wayOf(p) === 'rtl');
	const forward = right.filter((p, i) => i > 0 && p.transform[4]! > right[i - 1]!.transform[4]!).length;
	if (right.length < 2 || forward <= (right.length - 1) / 2) return pieces;
	const letters = (way: Way) => pieces.reduce((n, p) => (wayOf(p) === way ? n + p.str.length : n), 0);
	const ordered = letters('rtl') >= letters('ltr') ? turned([...pieces].reverse(), 'ltr') : turned(pieces, 'rtl');
	const ends = pieces.some((p) => p.hasEOL);
	return ordered.map((p, i) => (p.hasEOL === (ends && i === ordered.length - 1) ? p : { ...p, hasEOL: !p.hasEOL }));
}

/**
 * The items of a page's text (pieces, and between them marks of its structure) with each line's pieces in the order in which they are read.
 * Pieces never cross a mark that says something (the others are left out), and stay where they stand on the page. Lines that come in order
 * are given as they are.
 */
export function inReadingOrder<T extends object>(items: readonly T[]): T[] {
	const out: T[] = [];
	let line: (T & Piece)[] = [];
	const open: boolean[] = [];
	const close = () => {
		out.push(...lineInOrder(line));
		line = [];
	};
	for (const item of items) {
		if (!isPiece(item)) {
			const mark = item as Mark;
			const kept = mark.type === 'endMarkedContent' ? (open.pop() ?? true) : says(mark);
			if (mark.type !== 'endMarkedContent') open.push(kept);
			if (!kept) continue;
		}
		if (!isPiece(item) || !item.str) {
			close();
			out.push(item);
			continue;
		}
		if (line.length && !onOneLine(line[line.length - 1]!, item)) close();
		line.push(item);
		if (item.hasEOL) close();
	}
	close();
	return out;
}
