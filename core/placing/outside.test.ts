import { Ajv2019 } from 'ajv/dist/2019.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { coverCode, elementCode, frameAncestors, frameCode, framerPattern, linkCode, mayFrame, oEmbed, oEmbedXml } from './outside';
import { defaultsOf } from './placement';

const shown = { origin: 'https://canal.example', slug: 'map', title: 'Map of “A & B” <1>', shape: { width: 210, height: 297 }, site: 'The society' };

describe('which websites may frame', () => {
	it('a host, a host with a port, or all under one', () => {
		const framers = ['news.example', '*.town.example', 'localhost:4200'];
		for (const origin of ['https://news.example', 'http://a.town.example', 'https://a.b.town.example', 'http://localhost:4200'])
			expect(mayFrame(origin, framers), origin).toBe(true);
		for (const origin of [
			'https://town.example',
			'https://evilnews.example',
			'https://news.example.evil',
			'http://localhost:4201',
			'null',
			'https://xtown.example'
		])
			expect(mayFrame(origin, framers), origin).toBe(false);
		expect(frameAncestors(framers)).toBe("'self' news.example *.town.example localhost:4200");
	});
	it('nothing else can be put into the header', () => {
		for (const bad of ['a b', "'none'", '*', 'https://x.example', 'x.example;script-src *', '*.', 'x.example/p', ''])
			expect(new RegExp(framerPattern).test(bad), bad).toBe(false);
	});
});

describe('code to copy', () => {
	it('a frame stands by the shape of the page, with a title, and loads when it comes near', () => {
		const code = frameCode(shown, defaultsOf('frame'));
		expect(code).toContain('src="https://canal.example/embed/map"');
		expect(code).toContain('loading="lazy"');
		expect(code).toContain('aspect-ratio:210/297');
		expect(code).toContain('title="Map of “A &amp; B” &lt;1&gt;"');
		expect(frameCode(shown, { ...defaultsOf('frame'), width: 700 })).toContain('height:1036px');
		expect(frameCode(shown, { ...defaultsOf('frame'), height: 800 })).toContain('height:800px');
	});
	it('titles cannot break out of any of them', () => {
		const title = '"><script>alert(1)</script>';
		for (const code of [
			frameCode({ ...shown, title }, defaultsOf('frame')),
			coverCode({ ...shown, title }, 300),
			linkCode(shown, title),
			elementCode({ ...shown, title }, 'cover', 'page')
		])
			expect(code).not.toContain('<script>alert');
	});
});

// oEmbed 1.0, sections 2.3.1 (response parameters) and 2.3.4.4 (type rich), from memory of the specification.
const schema = {
	type: 'object',
	required: ['type', 'version', 'html', 'width', 'height'],
	properties: {
		type: { const: 'rich' },
		version: { const: '1.0' },
		title: { type: 'string' },
		provider_name: { type: 'string' },
		provider_url: { type: 'string', pattern: '^https?://' },
		cache_age: { type: 'integer', minimum: 0 },
		html: { type: 'string', minLength: 1 },
		width: { type: 'integer', minimum: 1 },
		height: { type: 'integer', minimum: 1 },
		thumbnail_url: { type: 'string', pattern: '^https?://' },
		thumbnail_width: { type: 'integer', minimum: 1 },
		thumbnail_height: { type: 'integer', minimum: 1 }
	},
	// a thumbnail comes with its size, or not at all
	dependentRequired: {
		thumbnail_url: ['thumbnail_width', 'thumbnail_height'],
		thumbnail_width: ['thumbnail_url', 'thumbnail_height'],
		thumbnail_height: ['thumbnail_url', 'thumbnail_width']
	},
	additionalProperties: false
};
describe('oEmbed', () => {
	const valid = new Ajv2019().compile(schema);
	it('answers as the specification says, never larger than asked for', () => {
		fc.assert(
			fc.property(
				fc.option(fc.integer({ min: 50, max: 3000 }), { nil: undefined }),
				fc.option(fc.integer({ min: 50, max: 3000 }), { nil: undefined }),
				fc.integer({ min: 20, max: 2000 }),
				fc.integer({ min: 20, max: 2000 }),
				(maxwidth, maxheight, width, height) => {
					const answer = oEmbed({ ...shown, shape: { width, height } }, { maxwidth, maxheight }, defaultsOf('frame'));
					expect(valid(answer), JSON.stringify(valid.errors)).toBe(true);
					for (const [value, most] of [
						[answer.width, maxwidth],
						[answer.height, maxheight],
						[answer.thumbnail_width ?? 1, maxwidth],
						[answer.thumbnail_height ?? 1, maxheight]
					] as const)
						expect(value).toBeLessThanOrEqual(most ?? Infinity);
					expect(answer.html).toContain(`width:${answer.width}px`);
					expect(answer.html).toContain(`height:${answer.height}px`);
				}
			)
		);
	});
	it('says the same in XML, escaped', () => {
		const xml = oEmbedXml(oEmbed(shown, {}, defaultsOf('frame')));
		expect(xml).toContain('<type>rich</type>');
		expect(xml).toContain('&lt;iframe');
		expect(xml).toContain('<title>Map of “A &amp; B” &lt;1&gt;</title>');
	});
});
