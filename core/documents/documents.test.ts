import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { freeSlug, proposedTitle, slugMax, slugOf, slugPattern, titleFromFileName } from './address';
import { sizeWords } from './size';

describe('addresses', () => {
	it('are clean and say what the title says', () => {
		expect(slugOf('Winter stoppages, 2026/27')).toBe('winter-stoppages-2026-27');
		expect(slugOf('Trustees’ minutes')).toBe('trustees-minutes');
		expect(slugOf('Straße über Łódź')).toBe('strasse-uber-lodz');
		expect(slugOf('日本語')).toBe('document');
	});
	it('whatever the title, an address has the one shape', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'grapheme' }), (title) => {
				const slug = slugOf(title);
				expect(slug).toMatch(new RegExp(slugPattern));
				expect(slug.length).toBeLessThanOrEqual(slugMax);
			})
		);
	});
	it('a taken one gets the first free number, within the length', () => {
		expect(freeSlug('map', new Set(['map', 'map-2']))).toBe('map-3');
		const long = 'a'.repeat(slugMax);
		expect(freeSlug(long, new Set([long]))).toHaveLength(slugMax);
	});
});

describe('proposed titles', () => {
	it('come from the file name, cleaned', () => {
		expect(titleFromFileName('Winter_stoppages%20v2 (final).PDF')).toBe('Winter stoppages v2 (final)');
		expect(titleFromFileName('boat-safety-checklist.pdf')).toBe('Boat safety checklist');
		expect(titleFromFileName('C:\\scans\\100%.pdf')).toBe('100%');
		expect(titleFromFileName('.pdf')).toBe('Untitled document');
	});
	it('the file’s own title is taken where somebody chose it', () => {
		expect(proposedTitle('Cruising guide', 'x.pdf')).toBe('Cruising guide');
		expect(proposedTitle('Памятка', 'x.pdf')).toBe('Памятка');
		for (const left of ['Microsoft Word - notes.doc', 'untitled', 'guide.indd', 'about:blank', '12345', '', null])
			expect(proposedTitle(left, 'Cruising guide.pdf'), String(left)).toBe('Cruising guide');
	});
});

it('sizes are said in powers of ten', () => {
	expect([0, 999, 1000, 340_000, 3_140_000, 9_960_000, 200_000_000, 999_600_000].map(sizeWords)).toEqual([
		'0 bytes',
		'999 bytes',
		'1 kB',
		'340 kB',
		'3.1 MB',
		'10 MB',
		'200 MB',
		'1 GB'
	]);
});
