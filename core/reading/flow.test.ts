// The reading text worked out of lines. That it holds on files of others, and against their tags, tests/server/text.test.ts looks at.
import { describe, expect, it } from 'vitest';
import { bodyHeight, flow, joined, plainText, withoutRunningHeads, type FlowLine, type FlowPage } from './flow';
import { sentencesOf } from './sentences';
import { blocksOfStructure, coverage, type Element } from './structure';
import { keptText, textSettingsOf } from './text-settings';

const line = (text: string, x: number, y: number, width = text.length * 5, height = 10): FlowLine => ({ x, y, width, height, text });
const page = (lines: readonly FlowLine[], number = 1): FlowPage => ({ page: number, width: 595, height: 842, lines });
const said = (lines: readonly FlowLine[]) => plainText(flow([page(lines)], 10)[0]!.blocks);

describe('lines become text', () => {
	it('lines of a paragraph are joined, hyphens at their ends taken out where a word goes on', () => {
		expect(joined(['The water-', 'way is shut', 'until Mon-', 'Fri traffic'])).toBe('The waterway is shut until Mon- Fri traffic');
		expect(joined(['Der Wasser\u00ad', 'stand sinkt'])).toBe('Der Wasserstand sinkt');
		expect(joined(['運河は冬', 'に閉まる'])).toBe('運河は冬に閉まる');
		expect(said([line('The wardens walk the flight each morn-', 60, 100, 300), line('ing and note the level at the gauge.', 60, 114, 280)])).toBe(
			'The wardens walk the flight each morning and note the level at the gauge.'
		);
	});
	it('a gap, an indent or a short last line begins a paragraph; larger letters are headings, by their size', () => {
		const lines = [
			line('Cruising guide', 60, 80, 160, 20),
			line('Before you set out', 60, 120, 120, 14),
			line('One line that fills the whole of the column here', 60, 150, 300),
			line('and its last.', 60, 164, 70),
			line('Another that begins where the one before it ended', 60, 178, 300),
			line('and goes on for a while longer than anybody likes', 60, 192, 300),
			line('A third after a gap that is plain enough for all', 60, 230, 300)
		];
		expect(flow([page(lines)], 10)[0]!.blocks.map((b) => (b.kind === 'heading' ? `${b.level} ${b.text}` : b.kind))).toEqual([
			'2 Cruising guide',
			'3 Before you set out',
			'paragraph',
			'paragraph',
			'paragraph'
		]);
	});
	it('columns are read one after the other, under a title that spans both', () => {
		const lines = [line('A title that goes across the whole of the page', 60, 80, 470, 20)];
		for (let i = 0; i < 8; i++) {
			lines.push(line(`Left line ${i} of prose that fills all of its own column`, 60, 120 + i * 14, 225));
			lines.push(line(`Right line ${i} of prose that fills all of its column`, 305, 120 + i * 14, 225));
		}
		const text = said(lines);
		expect(text.indexOf('Left line 7')).toBeLessThan(text.indexOf('Right line 0'));
		expect(text.startsWith('A title')).toBe(true);
		// from right to left the right column comes first
		const arabic = lines
			.slice(1)
			.map((l) => ({ ...l, text: l.text.startsWith('Left') ? 'يسار السطر الذي يملأ العمود كله' : 'يمين السطر الذي يملأ العمود كله' }));
		const read = said(arabic);
		expect(read.indexOf('يمين')).toBeLessThan(read.indexOf('يسار'));
	});
	it('a heading close above a table, as wide as two of its columns, is none of its cells', () => {
		const rows = [0, 1, 2].flatMap((n) => [
			line('Lock 3', 60, 130 + n * 14, 32, 11),
			line('November', 124, 130 + n * 14, 50, 11),
			line('Gates', 208, 130 + n * 14, 30, 11)
		]);
		const { blocks } = flow([page([line('Closed locks', 57, 101, 86, 16), ...rows])], 11)[0]!;
		expect(blocks).toMatchObject([
			{ kind: 'heading', text: 'Closed locks' },
			{ kind: 'table', rows: [0, 1, 2].map(() => ['Lock 3', 'November', 'Gates']) }
		]);
	});
	it('short cells beside each other are rows of a table; what wraps goes on its row', () => {
		const lines = [
			['Lock 3', '20 to 23 November', 'Gate repairs'],
			['Locks 6 to 9', '19 November', 'New cill'],
			['', 'to 18 December', '']
		].flatMap((cells, row) => cells.flatMap((cell, column) => (cell ? [line(cell, 60 + column * 150, 100 + row * 14, 80)] : [])));
		expect(flow([page(lines)], 10)[0]!.blocks).toEqual([
			{
				kind: 'table',
				head: false,
				rows: [
					['Lock 3', '20 to 23 November', 'Gate repairs'],
					['Locks 6 to 9', '19 November to 18 December', 'New cill']
				]
			}
		]);
	});
	it('items of lists begin with their mark, which goes; a number stays', () => {
		expect(flow([page([line('• Shut each gate', 70, 100), line('• Drop each paddle', 70, 114), line('2. Note the level', 70, 128)])], 10)[0]!.blocks).toEqual([
			{ kind: 'item', text: 'Shut each gate' },
			{ kind: 'item', text: 'Drop each paddle' },
			{ kind: 'item', text: '2. Note the level' }
		]);
	});
	it('running heads and page numbers are left out, a title at the head of its page is not', () => {
		const pages = [1, 2, 3].map((n) =>
			page(
				[
					line(`Cruising guide, part ${n}`, 60, 30),
					line(n === 2 ? 'The upper flight' : `Words ${'of many kinds '.repeat(n)}`, 60, 80),
					line(`– ${n} –`, 280, 810)
				],
				n
			)
		);
		expect(withoutRunningHeads(pages).map(({ lines }) => lines.map((l) => l.text))).toEqual([
			['Words of many kinds '],
			['The upper flight'],
			['Words of many kinds of many kinds of many kinds ']
		]);
	});
	it('nothing is lost and nothing said twice, whatever lies where', () => {
		for (let seed = 1; seed < 60; seed++) {
			let state = seed;
			const random = (below: number) => (state = (state * 48_271) % 2_147_483_647) % below;
			const lines = Array.from({ length: 40 }, (_, i) => line(`w${i}q`, 40 + random(450), 120 + random(560), 20 + random(200), 8 + random(8)));
			const words = plainText(flow([page(lines)])[0]!.blocks).match(/w\d+q/g) ?? [];
			expect([...words].sort(), String(seed)).toEqual(lines.map((l) => l.text).sort());
		}
	});
	it('an empty page has no text', () => {
		expect(flow([page([])])).toEqual([{ page: 1, blocks: [] }]);
		expect(bodyHeight([page([])])).toBe(0);
	});
});

describe('tags become text', () => {
	const element = (type: string, ...children: (Element | string)[]): Element => ({ type, children, alt: null });
	const cell = (type: string, text: string) => element(type, element('P', text));
	const tree = element(
		'Document',
		element('H1', element('Span', 'Header infor'), element('Span', 'mation')),
		element('P', 'The file begins with a\n', 'header (see ', element('Link', 'http://weir.example/'), ') and the water-\n', 'way.'),
		element('L', element('LI', element('Lbl', '•'), element('LBody', 'Shut each gate', element('L', element('LI', element('LBody', 'and its paddle')))))),
		element('Table', element('TR', cell('TH', 'Lock'), cell('TH', 'Closed')), element('TBody', element('TR', cell('TD', '3'), cell('TD', 'in winter')))),
		{ type: 'Figure', alt: 'A heron at the weir', children: ['scattered words of a drawing'] },
		element('Figure', 'a drawing of which nothing is said')
	);
	const blocks = blocksOfStructure(tree);
	it('headings, paragraphs, lists, tables and pictures, words put together as the pages have them', () => {
		expect(blocks).toEqual([
			{ kind: 'heading', level: 2, text: 'Header information' },
			{ kind: 'paragraph', text: 'The file begins with a header (see http://weir.example/) and the waterway.' },
			{ kind: 'item', text: 'Shut each gate' },
			{ kind: 'item', text: 'and its paddle' },
			{
				kind: 'table',
				head: true,
				rows: [
					['Lock', 'Closed'],
					['3', 'in winter']
				]
			},
			{ kind: 'picture', text: 'A heron at the weir' }
		]);
	});
	it('tags that hold little of what is written are known by that', () => {
		const text = 'Header information\nThe file begins with a header (see http://weir.example/) and the waterway. Shut each gate and its paddle';
		expect(coverage(blocks, text)).toBeGreaterThan(0.9);
		expect(coverage(blocks.slice(0, 1), text)).toBeLessThan(0.3);
		expect(coverage([], '')).toBe(1);
	});
	it('nothing is nothing', () => expect(blocksOfStructure(element(''))).toEqual([]));
});

describe('how the text is set', () => {
	it('what is asked goes before what was kept, what is neither known nor allowed is as usual', () => {
		expect(textSettingsOf(() => null, null)).toEqual({ size: 'normal', spacing: 'normal', width: 'normal', paper: null });
		const kept = keptText(textSettingsOf((name) => ({ size: 'largest', paper: 'straw' })[name] ?? null, null));
		expect(textSettingsOf((name) => (name === 'width' ? 'wide' : null), kept)).toEqual({ size: 'largest', spacing: 'normal', width: 'wide', paper: 'straw' });
		expect(textSettingsOf((name) => (name === 'size' ? 'giant' : null), 'x.y.z;<script>')).toEqual({
			size: 'normal',
			spacing: 'normal',
			width: 'normal',
			paper: null
		});
	});
});

describe('sentences for a voice', () => {
	it('end where the language ends them, and are found in the text again', () => {
		const text = 'Locks 6 to 9 are closed. The towpath stays open!  Is that all?';
		const found = sentencesOf(text, 'en');
		expect(found.map((s) => s.text)).toEqual(['Locks 6 to 9 are closed.', 'The towpath stays open!', 'Is that all?']);
		for (const { text: one, from, until } of found) expect(text.slice(from, until)).toBe(one);
		expect(sentencesOf('運河は冬に閉まる。春に開く。', 'ja')).toHaveLength(2);
		expect(sentencesOf('...', 'not a language')).toEqual([]);
	});
	it('a very long one comes in pieces that end with a word', () => {
		const pieces = sentencesOf('word '.repeat(200), 'en');
		expect(pieces.length).toBeGreaterThan(3);
		expect(pieces.every((p) => p.text.length <= 280 && /^word.*word$/.test(p.text))).toBe(true);
	});
});
