// Text in the order in which it is read.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inReadingOrder, type Piece } from './order';

/** Pieces of 10 units each on one line, from left to right as they are given. */
const line = (texts: readonly string[], y = 700, end = false): Piece[] =>
	texts.map((str, i) => ({ str, transform: [12, 0, 0, 12, 50 + 10 * i, y], hasEOL: end && i === texts.length - 1 }));
const text = (items: readonly object[]) => items.map((i) => ('str' in i ? `${(i as Piece).str}${(i as Piece).hasEOL ? '\n' : ''}` : '|')).join('');

describe('a line', () => {
	it('whose glyphs come one by one from left to right is read from right to left', () => {
		// the words "open in spring" in Arabic, as a browser prints them: the last letter comes first
		const glyphs = ['ﻊ', 'ﻴ', 'ﺑ', 'ﺮ', 'ﻟ', 'ا', ' ', 'ﻲ', 'ﻓ', ' ', 'ﺢ', 'ﺘ', 'ﻔ', 'ﺗ'];
		expect(text(inReadingOrder(line(glyphs))).normalize('NFKC')).toBe('تفتح في الربيع');
		expect(text(inReadingOrder(line(['ם', 'ו', 'ל', 'ש'])))).toBe('שלום');
	});
	it('keeps numbers and Latin words in it as they are', () => {
		expect(text(inReadingOrder(line(['ד', 'ו', 'מ', 'ע', ' ', '1', '2', ' ', 'ל', 'ש'])))).toBe('של 12 עמוד');
		expect(text(inReadingOrder(line(['ף', 'ס', ' ', 'P', 'D', 'F', ' ', 'o', 'k', ' ', 'ב', 'ו', 'ט'])))).toBe('טוב PDF ok סף');
	});
	it('of a text from left to right keeps its order around a word from right to left', () =>
		expect(text(inReadingOrder(line(['The word ', 'ם', 'ו', 'ל', 'ש', ' means peace.'])))).toBe('The word שלום means peace.'));
	it('that comes in the order in which it is read stays so', () => {
		const pieces = line(['של', ' ', 'עמוד']).map((p, i) => ({ ...p, transform: [12, 0, 0, 12, 500 - 40 * i, 700] }));
		expect(inReadingOrder(pieces)).toEqual(pieces);
		const latin = line(['The sluice', ' ', 'stands open.'], 700, true);
		expect(inReadingOrder(latin)).toEqual(latin);
	});
	it('ends where it ended: lines and marks of structure are never mixed', () => {
		const items = [
			{ type: 'beginMarkedContentProps', id: 'p2R_mc0' },
			...line(['ב', 'א'], 700, true),
			...line(['ד', 'ג'], 680),
			{ type: 'endMarkedContent' },
			...line(['ו', 'ה'], 680)
		];
		expect(text(inReadingOrder(items))).toBe('|אב\nגד|הו');
	});
	it('whose glyphs have marks of their own, which name nothing, is read all the same', () => {
		const items = line(['ם', 'ו', 'ל', 'ש']).flatMap((piece) => [{ type: 'beginMarkedContentProps', id: null }, piece, { type: 'endMarkedContent' }]);
		expect(text(inReadingOrder([{ type: 'beginMarkedContent', tag: 'Artifact' }, ...items, { type: 'endMarkedContent' }]))).toBe('|שלום|');
	});
	it('stands on its height: what lies a little higher or lower belongs to it, what lies further off does not', () => {
		const orderAt = (y: number) => inReadingOrder([...line(['ב'], 700), { ...line(['א'])[0]!, transform: [12, 0, 0, 12, 60, y] }]);
		// a third of a line of 12 points
		expect(text(orderAt(703))).toBe('אב');
		expect(text(orderAt(697))).toBe('אב');
		expect(text(orderAt(704))).toBe('בא');
		expect(text(orderAt(690))).toBe('בא');
	});
	it('one piece alone, and one that goes half and half, stay', () => {
		expect(text(inReadingOrder(line(['א'])))).toBe('א');
		const three = line(['א', 'ב', 'ג']).map((p, i) => ({ ...p, transform: [12, 0, 0, 12, [70, 80, 60][i]!, 700] }));
		expect(inReadingOrder(three)).toEqual(three);
	});
	it('slanted, mirrored or upside down is left alone', () => {
		for (const [a, b, c, d] of [
			[12, 1, 0, 12],
			[12, 0, 2, 12],
			[-12, 0, 0, 12]
		] as const) {
			const pieces = line(['ב', 'א']).map((p) => ({ ...p, transform: [a, b, c, d, p.transform[4]!, 700] }));
			expect(inReadingOrder(pieces)).toEqual(pieces);
		}
	});
	it('turned by a quarter is left alone', () => {
		const pieces = line(['ב', 'א']).map((p) => ({ ...p, transform: [0, 12, -12, 0, p.transform[4]!, 700] }));
		expect(inReadingOrder(pieces)).toEqual(pieces);
	});
});

it('nothing is lost or made up, and no piece leaves its place on the page', () =>
	fc.assert(
		fc.property(fc.array(fc.constantFrom('א', 'ב', 'ا', 'a', 'Z', '7', ' ', '.', '')), fc.array(fc.integer({ min: 0, max: 30 })), (texts, ends) => {
			const items = texts.map((str, i) => ({ str, transform: [12, 0, 0, 12, 50 + 10 * i, 700], hasEOL: ends.includes(i) }));
			const ordered = inReadingOrder(items);
			const known = (all: readonly Piece[]) => all.map((p) => `${p.str}@${p.transform[4]}`).sort();
			expect(known(ordered)).toEqual(known(items));
			expect(ordered.filter((p) => p.hasEOL)).toHaveLength(items.filter((p) => p.hasEOL).length);
		})
	));
