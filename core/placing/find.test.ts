import { describe, expect, it } from 'vitest';
import type { Article, ContentNode } from './content';
import { fitOf, pageLines } from './find';
import { openingOf, partsOf } from './parts';

const text = (words: string, marks?: { type: 'bold' }[]) => ({ type: 'text' as const, text: words, ...(marks ? { marks } : {}) });
const article = {
	type: 'doc',
	content: [
		{ type: 'paragraph', content: [text('A level path for most of the way.')] },
		{ type: 'heading', attrs: { level: 2 }, content: [text('Über die Brücke')] },
		{ type: 'paragraph', content: [text('The bridge at '), text('Oxmere', [{ type: 'bold' }]), text(' is shut in winter.')] },
		{ type: 'heading', attrs: { level: 2 }, content: [text('Über die Brücke')] },
		{ type: 'placement', attrs: { id: 'a-placement-1', document: 'map', form: 'button', press: 'page', words: 'The line on one sheet' } }
	]
} as unknown as Article;
const lines = pageLines('article', article);
const words = (found: ReturnType<typeof fitOf>) => found?.stretches.map((s) => (s.marked ? `[${s.text}]` : s.text)).join('');

describe('find in the pages of the site', () => {
	it('looks at what readers see: words, also across marks, and those of placements', () => {
		expect(lines).toEqual([
			'A level path for most of the way.',
			'Über die Brücke',
			'The bridge at Oxmere is shut in winter.',
			'Über die Brücke',
			'The line on one sheet'
		]);
		expect(pageLines('pocket', { lead: 'Taken along', entries: [{ document: 'map', words: 'The map', about: 'One sheet' }] })).toEqual([
			'Taken along',
			'The map',
			'One sheet'
		]);
		expect(pageLines('catalogue', { lead: 'All papers', show: 'list', order: 'title', beside: false, filters: true })).toEqual(['All papers']);
	});
	it('wants every word at the beginning of one, without regard to case and accents; phrases whole; nothing that is left out', () => {
		expect(words(fitOf('Walking', lines, 'OXMERE shut'))).toBe('The bridge at [Oxmere] is [shut] in winter.');
		expect(words(fitOf('Walking', lines, 'brucke'))).toBe('Über die [Brücke]');
		expect(fitOf('Walking', lines, 'xmere')).toBeNull();
		expect(fitOf('Walking', lines, 'oxmere windlass')).toBeNull();
		expect(words(fitOf('Walking', lines, '"shut in winter"'))).toBe('The bridge at Oxmere is [shut in winter].');
		expect(fitOf('Walking', lines, '"winter shut"')).toBeNull();
		expect(fitOf('Walking', lines, 'bridge -sheet')).toBeNull();
		expect(fitOf('Walking', lines, '-sheet')).toBeNull();
	});
	it('ranks a title before the words below it, and shows the page’s first line where only the title fits', () => {
		const [title, body] = [fitOf('The bridge', ['Nothing here'], 'bridge')!, fitOf('Walking', lines, 'bridge')!];
		expect(title.rank).toBeGreaterThan(body.rank);
		expect(words(title)).toBe('Nothing here');
	});
	it('shows no more of a long line than stands around the first word', () => {
		const long = `${'many words before it '.repeat(40)}heron ${'and many after it '.repeat(40)}`;
		const shown = words(fitOf('Birds', [long], 'heron'))!;
		expect(shown).toMatch(/^… .*\[heron\].* …$/);
		expect(shown.length).toBeLessThan(230);
	});
});

describe('an article taken apart', () => {
	it('its first plain paragraph opens it; headings get anchors, each its own', () => {
		const { lead, headings, rest } = partsOf(article);
		expect(lead).toBe('A level path for most of the way.');
		expect(headings).toEqual([
			{ words: 'Über die Brücke', anchor: 'uber-die-brucke' },
			{ words: 'Über die Brücke', anchor: 'uber-die-brucke-2' }
		]);
		expect(rest).toHaveLength(4);
		expect(rest[0]!.attrs).toEqual({ level: 2, anchor: 'uber-die-brucke' });
	});
	it('a first paragraph with a placement, a mark or too many words stays where it is', () => {
		for (const content of [[text('Bold', [{ type: 'bold' }])], [text('word '.repeat(90))], [{ type: 'placement', attrs: {} }]])
			expect(partsOf({ type: 'doc', content: [{ type: 'paragraph', content }] })).toMatchObject({ lead: undefined, rest: [{}] });
		expect(partsOf({ type: 'doc', content: [] })).toEqual({ lead: undefined, headings: [], rest: [] });
	});
	it('cards that follow one another stand in a row, one by itself stays where it is', () => {
		const card = (id: string) => ({ type: 'placement', attrs: { id, form: 'card' } });
		const link = { type: 'placement', attrs: { id: 'l', form: 'text' } };
		const paragraph = (...content: ContentNode[]) => ({ type: 'paragraph', content });
		const rows = (...content: ContentNode[]) => partsOf({ type: 'doc', content }).rest;
		expect(rows(paragraph(card('a')), paragraph(card('b'), text(' '), card('c')))).toEqual([{ type: 'cards', content: [card('a'), card('b'), card('c')] }]);
		const [one, word] = [paragraph(card('a')), paragraph(card('b'), text('and'))];
		expect(rows(one, word, one)).toEqual([one, word, one]);
		expect(rows(one, paragraph(), one)).toEqual([one, paragraph(), one]);
		expect(rows(paragraph(link), paragraph(link))).toEqual([paragraph(link), paragraph(link)]);
		const band = (...content: ContentNode[]) => ({ type: 'band', attrs: { tone: 'deep' }, content });
		expect(rows(band(one, one), one)).toEqual([band({ type: 'cards', content: [card('a'), card('a')] }), one]);
	});
	it('headings in a band are headings of the page', () => {
		const heading = (words: string) => ({ type: 'heading', attrs: { level: 2 }, content: [text(words)] });
		const { headings, rest } = partsOf({ type: 'doc', content: [heading('Locks'), { type: 'band', attrs: { tone: 'pale' }, content: [heading('Locks')] }] });
		expect(headings.map(({ anchor }) => anchor)).toEqual(['locks', 'locks-2']);
		expect(rest[1]!.content![0]!.attrs).toEqual({ level: 2, anchor: 'locks-2' });
	});
	it('its opening is a line for search engines', () => {
		expect(openingOf({ layout: 'article', content: article })).toBe('A level path for most of the way.');
		expect(openingOf({ layout: 'catalogue', lead: 'long words '.repeat(30) })).toMatch(/^long words .*words…$/);
		expect(openingOf({ layout: 'catalogue', lead: '' })).toBe('');
		const inBand = { type: 'band', attrs: { tone: 'deep' }, content: [{ type: 'paragraph', content: [text('On a band.')] }] };
		expect(openingOf({ layout: 'article', content: { type: 'doc', content: [inBand] } })).toBe('On a band.');
	});
});
