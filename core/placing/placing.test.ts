import { Ajv } from 'ajv';
import { describe, expect, it } from 'vitest';
import { Article, emptyArticle, placementsOf, settled, type Article as ArticleType } from './content';
import { pathTrouble } from './path';
import { placementView, pressHref } from './placement';

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
			facts: 'PDF, 2 pages, 340 kB',
			href: '/d/winter-stoppages/file?save&from=abcdef',
			download: true,
			newTab: false
		});
	});
	it('each press has its own address', () => {
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
