import { Ajv2019 } from 'ajv/dist/2019.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { coverCode, elementCode, frameAncestors, frameCode, framerPattern, linkCode, mayFrame, oEmbed, oEmbedXml } from './outside';
import { defaultsOf } from './placement';

const shown = { origin: 'https://canal.example', slug: 'map', title: 'Map of “A & B” <1>', shape: { width: 210, height: 297 }, site: 'The society' };

describe('which websites may frame', () => {
	it('a host, a host with a port, or all under one', () => {
		const framers = ['news.example', '*.town.example', 'localhost:4200'];
		for (const origin of ['https://news.example', 'https://NEWS.Example', 'http://a.town.example', 'https://a.b.town.example', 'http://localhost:4200'])
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
		expect(frameAncestors(framers)).toBe("'self' news.example *.town.example localhost:4200 https://localhost:4200");
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
	it('a cover is no smaller than it is shown, in the shape of the page, and leads to the document', () => {
		const size = (width: number) => /cover\/(\d+)\.webp" width="(\d+)" height="(\d+)"/.exec(coverCode(shown, width))!.slice(1).map(Number);
		expect([60, 300, 301, 600, 601, 1200].map(size)).toEqual([
			[300, 60, 85],
			[300, 300, 424],
			[600, 301, 426],
			[600, 600, 849],
			[1200, 601, 850],
			[1200, 1200, 1697]
		]);
		expect(coverCode(shown, 300)).toContain('<a href="https://canal.example/d/map" rel="noopener">');
	});
	it('a link opens or saves', () => {
		expect(linkCode(shown, 'The map')).toBe('<a href="https://canal.example/d/map" rel="noopener">The map</a>');
		expect(linkCode(shown, 'The map', true)).toBe('<a href="https://canal.example/d/map/file?save" rel="noopener">The map</a>');
	});
	it('a frame has a border or none, and a height of its own by what is set', () => {
		const style = (settings: Partial<ReturnType<typeof defaultsOf>>) => /style="([^"]+)"/.exec(frameCode(shown, { ...defaultsOf('frame'), ...settings }))![1]!;
		expect(style({ border: true })).toContain('border:1px solid');
		expect(style({ border: false })).toMatch(/border:0$/);
		expect(style({ width: '50%' })).toMatch(/^width:50%;max-width:100%;aspect-ratio:210\/297;min-height:320px/);
		expect(style({ width: 320, height: null })).toMatch(/^width:320px;max-width:100%;height:900px/);
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
	it('is 700 wide where nothing is asked, has a thumbnail where one of 300 px fits, and may be kept for five minutes', () => {
		const ask = (maxwidth?: number, maxheight?: number) => oEmbed(shown, { maxwidth, maxheight }, defaultsOf('frame'));
		expect([ask().width, ask(701).width, ask(699).width]).toEqual([700, 700, 699]);
		expect(ask().height).toBe(ask(9999, 9999).height);
		const has = (answer: ReturnType<typeof ask>) => [answer.thumbnail_width, answer.thumbnail_height, answer.thumbnail_url];
		const whole = [300, 424, 'https://canal.example/d/map/cover/300.webp'];
		expect([has(ask()), has(ask(300)), has(ask(300, 424))]).toEqual([whole, whole, whole]);
		for (const small of [ask(299), ask(300, 423), ask(undefined, 423)]) expect(has(small)).toEqual([undefined, undefined, undefined]);
		expect(ask()).toMatchObject({ cache_age: 300, provider_name: 'The society', provider_url: 'https://canal.example/' });
		expect(ask().html).toMatch(/border:0"/);
	});
	it('says the same in XML, escaped', () => {
		const xml = oEmbedXml(oEmbed(shown, {}, defaultsOf('frame')));
		expect(xml).toContain('<type>rich</type>');
		expect(xml).toContain('&lt;iframe');
		expect(xml).toContain('<title>Map of “A &amp; B” &lt;1&gt;</title>');
	});
});
