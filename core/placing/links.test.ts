import { describe, expect, it } from 'vitest';
import type { Article } from './content';
import { documentOfLink, linksIn, withLinksPlaced } from './links';

const origin = 'https://site.example';
const link = (text: string, href: string, ...more: string[]) => ({
	type: 'text',
	text,
	marks: [...more.map((type) => ({ type })), { type: 'link', attrs: { href } }]
});
const article = (...content: unknown[]) => ({ type: 'doc', content: [{ type: 'paragraph', content }] }) as unknown as Article;
const place = (content: Article) =>
	withLinksPlaced(
		content,
		origin,
		(slug) => (slug === 'map' || slug === 'old-map' ? 'map' : undefined),
		(document, nth) => `${document}-${nth}-id`
	);

describe('links to documents', () => {
	it.each([
		['/d/map', { slug: 'map', press: 'page', start: null }],
		['https://site.example/d/map?from=x', { slug: 'map', press: 'page', start: null }],
		['/d/map/read#page=3', { slug: 'map', press: 'here', start: 3 }],
		['/d/map/file', { slug: 'map', press: 'here', start: null }],
		['/d/map/file?save', { slug: 'map', press: 'save', start: null }],
		['https://other.example/d/map', null],
		['/d/map/knock', null],
		['/dinner', null],
		['mailto:a@b.example', null]
	])('%s is of %j', (href, linked) => {
		expect(documentOfLink(href, origin)).toEqual(linked);
	});
	it('become placements that say what the words said, and no more', () => {
		const content = article(
			{ type: 'text', text: 'See ' },
			link('the map', '/d/old-map', 'bold'),
			{ type: 'text', text: ' or ' },
			link('page three', '/d/map/read#page=3')
		);
		expect(linksIn(content)).toEqual(['/d/old-map', '/d/map/read#page=3']);
		expect(place(content)).toEqual(
			article(
				{ type: 'text', text: 'See ' },
				{ type: 'placement', attrs: { id: 'map-0-id', document: 'map', form: 'text', press: 'page', words: 'the map', facts: [] }, marks: [{ type: 'bold' }] },
				{ type: 'text', text: ' or ' },
				{ type: 'placement', attrs: { id: 'map-1-id', document: 'map', form: 'text', press: 'here', words: 'page three', facts: [], start: 3 } }
			)
		);
	});
	it('words that are partly bold are one link; other links, unknown documents and blanks stay', () => {
		const partly = place(article(link('the ', '/d/map'), link('whole', '/d/map', 'italic'), link(' map', '/d/map')));
		expect((partly.content[0] as { content: { attrs: { words: string } }[] }).content.map((node) => node.attrs.words)).toEqual(['the whole map']);
		const others = article(link('gone', '/d/gone'), link('there', 'https://other.example/d/map'), link(' ', '/d/map'));
		expect(place(others)).toBe(others);
	});
});
