import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { baseName, freeSlug, proposedTitle, slugMax, slugOf, slugPattern, titleFromFileName } from './address';
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
describe('the edges of addresses and titles', () => {
	it('an address is cut at 80 characters and never ends in a hyphen', () => {
		expect(slugOf('a'.repeat(81))).toBe('a'.repeat(80));
		expect(slugOf(`${'a'.repeat(79)} b`)).toBe('a'.repeat(79));
	});
	it('the number of a taken address begins at 2 and takes room from it', () => {
		expect([freeSlug('map', new Set(['other'])), freeSlug('map', new Set(['map']))]).toEqual(['map', 'map-2']);
		const long = 'a'.repeat(slugMax);
		const taken = new Set([long, ...Array.from({ length: 98 }, (_, i) => `${'a'.repeat(slugMax - String(i + 2).length - 1)}-${i + 2}`)]);
		expect(freeSlug(long, taken)).toBe(`${'a'.repeat(slugMax - 4)}-100`);
	});
	it('hyphens in a file name are spaces only where there are no spaces', () => {
		expect([titleFromFileName('a-b_c.pdf'), titleFromFileName('a-b c.pdf'), titleFromFileName('well-kept-locks.pdf')]).toEqual([
			'A-b c',
			'A-b c',
			'Well kept locks'
		]);
		expect([titleFromFileName('  spaced   out .pdf'), titleFromFileName('a+b.pdf')]).toEqual(['Spaced out', 'A b']);
	});
	it('a title of two characters was chosen by nobody, one of three may have been; long ones are cut', () => {
		expect([proposedTitle(' Ab ', 'x.pdf'), proposedTitle(' A  b ', 'x.pdf')]).toEqual(['X', 'A b']);
		expect(proposedTitle('t'.repeat(300), 'x.pdf')).toHaveLength(200);
		expect(proposedTitle(null, `${'f'.repeat(300)}.pdf`)).toHaveLength(200);
	});
	it('of a path the last part stands, without characters that are not seen', () => {
		expect([baseName('/home/me/map.pdf'), baseName('C:\\scans\\map.pdf'), baseName(' map.pdf ')]).toEqual(['map.pdf', 'map.pdf', 'map.pdf']);
		// U+202E turns round what follows it: "fdp.exe" could be read as "exe.pdf"
		expect(baseName('notes\u202efdp.\u0000exe')).toBe('notesfdp.exe');
	});
	it('a size has a decimal below ten of its unit, and none from there on', () => {
		expect([1_040, 9_940, 9_950, 9_960, 999_499, 999_500, 1_500_000_000_000, 2_000_000_000_000_000].map(sizeWords)).toEqual([
			'1 kB',
			'9.9 kB',
			'10 kB',
			'10 kB',
			'999 kB',
			'1 MB',
			'1.5 TB',
			'2000 TB'
		]);
	});
});
