import { Ajv } from 'ajv';
import { describe, expect, it } from 'vitest';
import { Article, bare, contentLines, emptyArticle, indexOf, placementsOf, settled, withLeads, withPlacement, type Article as ArticleType } from './content';
import { entryTrouble, onShow, phoneScreens, settledPocket } from './pocket';
import { languages } from '../words/words';
import { partsOf } from './parts';
import { pathTrouble } from './path';
import { patternContent, patterns } from './patterns';
import { cssWidth, defaultsOf, factsWords, frameHref, ledTo, placementView, pressHref, settingsOf, sizeOf, widthOf } from './placement';

const valid = new Ajv().compile(Article);
const doc = (...content: unknown[]) => ({ type: 'doc', content });
const text = (value: string, marks?: unknown[]) => ({ type: 'text', text: value, ...(marks ? { marks } : {}) });
const paragraph = (...content: unknown[]) => ({ type: 'paragraph', content });
const placement = (attrs: object) => ({ type: 'placement', attrs: { document: 'map', form: 'text', press: 'page', ...attrs } });

describe('the content of a page', () => {
	it('takes what the editor writes', () => {
		expect(valid(emptyArticle)).toBe(true);
		expect(
			valid(
				doc(
					{ type: 'heading', attrs: { level: 2 }, content: [text('Hello')] },
					{ type: 'bulletList', content: [{ type: 'listItem', content: [paragraph(text('a', [{ type: 'bold' }]))] }] },
					paragraph(text('b'), placement({ id: 'abcdef' }))
				)
			)
		).toBe(true);
	});
	it('refuses links that could run code, and nodes that it does not know', () => {
		const link = (href: string) => doc(paragraph(text('x', [{ type: 'link', attrs: { href } }])));
		for (const href of ['https://example.org/', '/volunteering', 'mailto:a@example.org', '#top']) expect(valid(link(href)), href).toBe(true);
		for (const href of ['javascript:alert(1)', ' javascript:alert(1)', 'data:text/html,x', '//evil.example', 'vbscript:x'])
			expect(valid(link(href)), href).toBe(false);
		expect(valid(doc({ type: 'script', content: [] }))).toBe(false);
		expect(valid(doc(paragraph(placement({ form: 'hologram' }))))).toBe(false);
	});
	it('settles: a placement at the top gets a paragraph, one without an id or with a copied one gets its own', () => {
		let n = 0;
		const kept = settled(doc(placement({}), paragraph(placement({ id: 'same-id' }), placement({ id: 'same-id' }))) as ArticleType, () => `fresh-${++n}`);
		expect(kept.content.map((b) => b.type)).toEqual(['paragraph', 'paragraph']);
		expect(placementsOf(kept).map((p) => p.id)).toEqual(['fresh-1', 'same-id', 'fresh-2']);
		expect(settled(kept, () => 'never')).toEqual(kept);
		expect(placementsOf(settled(kept, () => `copy-${++n}`, true)).map((p) => p.id)).toEqual(['copy-3', 'copy-4', 'copy-5']);
	});
	it('a placement in a line stands as bold as its words were; which document it is goes to no reader', () => {
		const bold = { ...placement({ id: 'abcdef', document: 'secret-map', words: 'the map' }), marks: [{ type: 'bold' }], aside: 'secret-map' };
		expect(valid(doc(paragraph(bold)))).toBe(true);
		expect(valid(doc(paragraph({ ...bold, marks: [{ type: 'blink' }] })))).toBe(false);
		const kept = settled(doc(paragraph(bold)) as ArticleType, () => 'never');
		expect(bare(kept)).toEqual(doc(paragraph({ type: 'placement', attrs: { id: 'abcdef', form: 'text' }, marks: [{ type: 'bold' }] })));
	});
});

describe('a placement', () => {
	it('says type, pages and size, and leads where the press says', () => {
		const view = placementView(
			{ id: 'abcdef', document: 'old', form: 'text', press: 'save' },
			{ slug: 'winter-stoppages', title: 'Winter stoppages', pages: 2, bytes: 340_000 }
		);
		expect(view).toMatchObject({
			words: 'Winter stoppages',
			said: 'PDF, 2 pages, 340 kB',
			href: '/d/winter-stoppages/file?save&from=abcdef',
			download: true,
			newTab: false
		});
	});
	it('says only what differs from the site, and the site only what differs from what comes', () => {
		const attrs = { document: 'map', form: 'cover' as const, press: 'page' as const };
		expect(settingsOf(attrs)).toMatchObject({ width: 300, border: true, shadow: false });
		expect(settingsOf(attrs, { cover: { width: 220, shadow: true } })).toMatchObject({ width: 220, border: true, shadow: true });
		expect(settingsOf({ ...attrs, width: '50%', shadow: false }, { cover: { width: 220, shadow: true } })).toMatchObject({ width: '50%', shadow: false });
		expect(defaultsOf('frame')).toMatchObject({ width: '100%', height: 'worked out', fit: null });
		// a setting of another form does not stray in
		expect(settingsOf({ ...attrs, form: 'text', width: 500 }).width).toBeNull();
	});
	it('says the facts that are wanted', () => {
		const map = { pages: 1, bytes: 1_200_000, date: '24 November 2026' };
		expect(factsWords(map, ['date', 'type'])).toBe('PDF, 24 November 2026');
		expect(factsWords(map, [])).toBe('');
	});
	it('a frame asks the reading room for what is set', () => {
		expect(frameHref('map', 'abcdef', defaultsOf('frame'))).toBe('/d/map/read?frame=1&from=abcdef');
		expect(frameHref('map', 'abcdef', { ...defaultsOf('frame'), fit: 'width', tools: ['save'], theme: 'dark', start: 3, foreEdge: true })).toBe(
			'/d/map/read?frame=1&from=abcdef&fit=width&edge=1&tools=save&theme=dark#page=3'
		);
		expect(frameHref('map', 'abcdef', { ...defaultsOf('frame'), tools: [] }, true)).toBe('/embed/map?tools=none');
	});
	it('what is drawn says how it opens, and by which words', () => {
		const document = { slug: 'map', title: 'Towpath map', pages: 3, bytes: 1_200_000, date: '24 November 2026' };
		const drawn = (press: 'page' | 'over' | 'tab' | 'here' | 'save', words?: string) => {
			const view = placementView({ id: 'abcdef', document: 'map', form: 'text', press, ...(words === undefined ? {} : { words }) }, document);
			return [view.newTab, view.download, view.over, view.words];
		};
		expect(drawn('page')).toEqual([false, false, false, 'Towpath map']);
		expect(drawn('over', '  The map ')).toEqual([false, false, true, 'The map']);
		expect(drawn('tab', '  ')).toEqual([true, false, false, 'Towpath map']);
		expect(drawn('here')).toEqual([false, false, false, 'Towpath map']);
		expect(drawn('save')).toEqual([false, true, false, 'Towpath map']);
		expect([cssWidth(300), cssWidth('50%')]).toEqual(['300px', '50%']);
	});
	it('each press has its own address', () => {
		expect(pressHref('map', 'over', 'abcdef', { start: 4 })).toBe('/d/map/read?from=abcdef#page=4');
		expect(pressHref('map', 'page', 'abcdef')).toBe('/d/map?from=abcdef');
		expect(pressHref('map', 'tab', 'abcdef')).toBe('/d/map/read?from=abcdef');
		expect(pressHref('map', 'here', 'abcdef')).toBe('/d/map/read?from=abcdef');
	});
});

it('paths of pages are plain and leave the application its own', () => {
	for (const path of ['/', '/volunteering', '/about/the-canal']) expect(pathTrouble(path), path).toBeNull();
	for (const path of ['', 'volunteering', '/Upper', '/a b', '/a/', '/a//b', '/desk/x', '/d/x', '/api', `/${'a'.repeat(300)}`])
		expect(pathTrouble(path), path).not.toBeNull();
});

describe('pocket pages and catalogues', () => {
	it('an entry is a document or a link with words, and its time has an end after its beginning', () => {
		expect(entryTrouble({ document: 'map' })).toBeNull();
		expect(entryTrouble({ url: 'https://example.org/', words: 'Tides' })).toBeNull();
		for (const entry of [{}, { document: 'map', url: '/x', words: 'x' }, { url: '/x' }, { document: 'map', from: '2026-12-02', until: '2026-12-01' }])
			expect(entryTrouble(entry), JSON.stringify(entry)).not.toBeNull();
	});
	it('is on show within its hours, by days of the site, unless it rests', () => {
		const entry = { document: 'map', from: '2026-10-25', until: '2026-10-25' };
		// the day on which the clocks go back in Europe/London lasts 25 hours
		expect(onShow(entry, Date.parse('2026-10-24T22:59Z'), 'Europe/London')).toBe(false);
		expect(onShow(entry, Date.parse('2026-10-24T23:00Z'), 'Europe/London')).toBe(true);
		expect(onShow(entry, Date.parse('2026-10-25T23:59Z'), 'Europe/London')).toBe(true);
		expect(onShow(entry, Date.parse('2026-10-26T00:00Z'), 'Europe/London')).toBe(false);
		expect(onShow({ document: 'map', resting: true }, 0, 'UTC')).toBe(false);
	});
	it('gives entries ids that stay, and grows past two screens with a dozen or so', () => {
		let n = 0;
		const kept = settledPocket(
			{ entries: [{ document: 'map' }, { id: 'same-id', url: '/a', words: 'a' }, { id: 'same-id', document: 'map' }] },
			() => `fresh-${++n}`
		);
		expect(kept.entries.map((e) => e.id)).toEqual(['fresh-1', 'same-id', 'fresh-2']);
		expect(indexOf('pocket', kept).map((p) => [p.id, p.form])).toEqual([
			['fresh-1', 'entry'],
			['fresh-2', 'entry']
		]);
		expect(phoneScreens(5)).toBeLessThan(2);
		expect(phoneScreens(13)).toBeGreaterThan(2);
	});
	it('a remedy takes one placement out or changes it, and leaves the rest', () => {
		const article = doc(paragraph(text('a'), placement({ id: 'first-one' })), paragraph(placement({ id: 'second-one' }))) as ArticleType;
		expect(placementsOf(withPlacement(article, 'first-one', () => null)).map((p) => p.id)).toEqual(['second-one']);
		expect(placementsOf(withPlacement(article, 'second-one', (a) => ({ ...a, locked: true }))).map((p) => p.locked)).toEqual([undefined, true]);
	});
	it.each(patterns)('the pattern “%s” is an article, with its headings in every language', (pattern) => {
		for (const language of languages) {
			const content = patternContent(pattern, language);
			expect(valid(content), language).toBe(true);
			expect(partsOf(content).headings.every(({ words }) => words.trim())).toBe(true);
			expect(new Set(partsOf(content).headings.map(({ words }) => words)).size).toBe(partsOf(content).headings.length);
		}
		expect(patternContent(pattern, 'de')).not.toEqual(patternContent(pattern, 'en'));
	});
	it('articles hold tables, columns and pictures', () => {
		const cell = (type: string) => ({ type, content: [paragraph(text('x'))] });
		expect(valid(doc({ type: 'table', content: [{ type: 'tableRow', content: [cell('tableHeader'), cell('tableCell')] }] }))).toBe(true);
		expect(
			valid(
				doc({
					type: 'columns',
					content: [
						{ type: 'column', content: [paragraph()] },
						{ type: 'column', content: [paragraph(placement({}))] }
					]
				})
			)
		).toBe(true);
		expect(valid(doc({ type: 'columns', content: [{ type: 'column', content: [paragraph()] }] }))).toBe(false);
		const band = (tone: string, ...content: unknown[]) => ({ type: 'band', attrs: { tone }, content });
		expect(valid(doc(band('pale', paragraph(placement({}))), band('deep', paragraph())))).toBe(true);
		expect(valid(doc(band('red', paragraph())))).toBe(false);
		expect(valid(doc(band('pale')))).toBe(false);
		// a band stands in nothing else
		expect(valid(doc(band('pale', band('deep', paragraph()))))).toBe(false);
		expect(valid(doc({ type: 'blockquote', content: [band('pale', paragraph())] }))).toBe(false);
		expect(valid(doc({ type: 'picture', attrs: { picture: 'a'.repeat(64), alt: 'A lock' } }))).toBe(true);
		expect(valid(doc({ type: 'picture', attrs: { picture: 'https://evil.example/x.png' } }))).toBe(false);
		const picture = 'a'.repeat(64);
		const shown = (attrs: object) => valid(doc({ type: 'picture', attrs: { picture, ...attrs } }));
		expect(shown({ shown: '50%', align: 'right', caption: 'The bottom lock', href: '/library' })).toBe(true);
		expect(shown({ shown: 300 })).toBe(true);
		for (const wrong of [{ shown: '120%' }, { shown: 20 }, { align: 'top' }, { href: 'javascript:alert(1)' }, { href: '//evil.example' }])
			expect(shown(wrong), JSON.stringify(wrong)).toBe(false);
		expect(valid(doc(paragraph(placement({ form: 'cover', picture }))))).toBe(true);
		expect(valid(doc(paragraph(placement({ form: 'cover', picture: '../../etc/passwd' }))))).toBe(false);
	});
	it.each([
		['300', 300],
		['300 px', 300],
		[' 50 % ', '50%'],
		['100%', '100%'],
		// beyond what can be shown: the nearest that can
		['20', 60],
		['9999', 2400],
		['130%', '100%'],
		['0%', '1%'],
		['', null],
		['wide', undefined],
		['12 em', undefined],
		['-5', undefined]
	])('a width typed as “%s” is %s', (typed, width) => {
		expect(widthOf(typed)).toBe(width);
	});
	it.each([
		['700 × 900', { width: 700, height: 900 }],
		['100 % x 1000', { width: '100%', height: 1000 }],
		['700px X 90px', { width: 700, height: 200 }],
		['700', null],
		['700 × 50 %', null],
		['700 × 900 × 2', null],
		['× 900', null]
	])('a size typed as “%s” is %j', (typed, size) => {
		expect(sizeOf(typed)).toEqual(size);
	});
	it('a teaser leads to its page in place of the document, and says of the document what it is told to', () => {
		const map = { slug: 'map', title: 'Map', pages: 2, bytes: 2000 };
		const attrs = { id: 'abcdef', document: 'map', form: 'cover', press: 'save', leads: '/the-line' } as const;
		const page = { path: ledTo(attrs)!, title: 'The line' };
		expect(placementView(attrs, map, {}, page)).toMatchObject({ href: '/the-line', words: 'The line', said: '', download: false, over: false, newTab: false });
		expect(placementView({ ...attrs, press: 'tab', words: 'Go', facts: ['pages'] }, map, {}, page)).toMatchObject({
			words: 'Go',
			said: '2 pages',
			newTab: true
		});
		expect(ledTo({ ...attrs, form: 'frame' })).toBeNull();
		expect(indexOf('article', doc(paragraph(placement(attrs)), paragraph(placement({ ...attrs, form: 'frame' }))) as ArticleType).map((p) => p.leads)).toEqual([
			'/the-line',
			null
		]);
	});
	it('teasers lead on to another path; content without one is left as it is', () => {
		const content = doc(paragraph(placement({ id: 'abcdef', leads: '/the-line' }), placement({ id: 'ghijkl', leads: '/other' }))) as ArticleType;
		expect(placementsOf(withLeads('article', content, '/the-line', '/line') as ArticleType).map((p) => p.leads)).toEqual(['/line', '/other']);
		expect(withLeads('article', content, '/nowhere', '/line')).toBe(content);
		expect(withLeads('article', content, '/other', '/other')).toBe(content);
	});
	it('every layout is told in lines, a block or entry each, for revisions to be compared by', () => {
		const cell = { type: 'tableCell', content: [paragraph(text('in a cell'))] };
		expect(
			contentLines(
				'article',
				doc(
					{ type: 'heading', attrs: { level: 2 }, content: [text('Title')] },
					paragraph(text('Read '), placement({ id: 'abcdef', words: 'the map', form: 'button', press: 'save' })),
					paragraph(),
					{ type: 'table', content: [{ type: 'tableRow', content: [cell] }] },
					{ type: 'picture', attrs: { picture: 'a'.repeat(64), alt: 'A lock', caption: 'In spring', href: '/library' } },
					{ type: 'documentList', attrs: { id: 'ghijkl', topics: ['boating'], show: 'list', order: '-changed', beside: false, most: 12 } }
				) as ArticleType
			)
		).toEqual([
			'Title',
			'Read [the map: map, button, save]',
			'in a cell',
			'[picture: A lock, In spring, leads to /library]',
			'[document list: about boating; newest first, 12 documents at most]'
		]);
		expect(contentLines('catalogue', { folders: ['Notices'], show: 'table', beside: true })).toEqual([
			'Folder Notices',
			'Shown as table, order title, read beside the list'
		]);
		expect(
			contentLines('pocket', {
				lead: 'On the way',
				entries: [
					{ document: 'map', until: '2026-12-01' },
					{ url: '/x', words: 'X', resting: true }
				]
			})
		).toEqual(['On the way', 'map, until 2026-12-01', 'X, /x, resting']);
	});
});
