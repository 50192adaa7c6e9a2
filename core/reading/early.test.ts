import { runInNewContext } from 'node:vm';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { earlyPage } from './early';
import { fragment } from './fragment';

/** What it makes of a page in a browser whose address has a fragment. */
function shown(hash: string, pages: number): { src: string; srcset: string; value: string } {
	const image = { src: '/d/a/leaf/1.webp?w=800', srcset: '/d/a/leaf/1.webp?w=800 800w, /d/a/leaf/1.webp?w=1200 1200w', dataset: { pages: String(pages) } };
	const field = { value: '1' };
	const drawn = Object.assign(image, { getAttribute: () => image.src });
	runInNewContext(earlyPage, { location: { hash }, document: { querySelector: (of: string) => (of.includes('img') ? drawn : field) } });
	return { src: image.src, srcset: image.srcset, value: field.value };
}

describe('the page that an address names, shown early', () => {
	it('has its number and its picture', () =>
		expect(shown('#page=12&zoom=100', 22)).toEqual({
			src: '/d/a/leaf/12.webp?w=800',
			srcset: '/d/a/leaf/12.webp?w=800 800w, /d/a/leaf/12.webp?w=1200 1200w',
			value: '12'
		}));
	it('is the one that the room opens at, whatever the address says', () => {
		const part = fc.oneof(
			fc
				.tuple(
					fc.constantFrom('page', 'PAGE', 'zoom', 'search', 'pages'),
					fc.oneof(fc.integer({ min: 0, max: 99_999_999 }).map(String), fc.constantFrom('', 'x', '-3', '1.5'))
				)
				.map(([name, value]) => `${name}=${value}`),
			fc.constantFrom('page', '=', '')
		);
		fc.assert(
			fc.property(fc.array(part, { maxLength: 4 }), fc.constantFrom('&', '#'), fc.integer({ min: 1, max: 300 }), (parts, between, pages) => {
				const hash = `#${parts.join(between)}`;
				expect(shown(hash, pages).value).toBe(String(Math.min(pages, fragment(hash).page ?? 1)));
			})
		);
	});
	it('a page without a room stays as it is', () => {
		expect(() => runInNewContext(earlyPage, { location: { hash: '#page=3' }, document: { querySelector: () => null } })).not.toThrow();
	});
});
