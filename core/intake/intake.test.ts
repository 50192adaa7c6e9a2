// ISO 32000-1 (header, dates) and ISO 216 (paper sizes).
import { describe, expect, it } from 'vitest';
import { conditionOf, lockedFacts, textLayer, type Facts } from './condition';
import { headerWindow, kindOf, pdfVersion } from './header';
import { paperName, paperWords, pointsPerMm } from './paper';
import { pdfDate } from './pdf-date';

const bytes = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));
const iso = (text: string) => {
	const at = pdfDate(text);
	return at === null ? null : new Date(at).toISOString();
};

describe('the header, ISO 32000-1, 7.5.2', () => {
	it('names the version', () => {
		expect(pdfVersion(bytes('%PDF-1.7\n%âãÏÓ'))).toBe('1.7');
		expect(pdfVersion(bytes('%PDF-2.0\n'))).toBe('2.0');
	});
	it('may stand anywhere within the first 1024 bytes (Annex H, note 13)', () => {
		expect(pdfVersion(bytes(`${' '.repeat(headerWindow - 8)}%PDF-1.4`))).toBe('1.4');
		expect(pdfVersion(bytes(`${' '.repeat(headerWindow - 4)}%PDF-1.4`))).toBeNull();
		expect(pdfVersion(bytes(`${' '.repeat(headerWindow)}%PDF-1.4`))).toBeNull();
	});
	it('is missing in other files, whose kind is named', () => {
		for (const [text, kind] of [
			['PK\u0003\u0004…', 'a zip or an office file'],
			['\u00ff\u00d8\u00ff\u00e0', 'a JPEG picture'],
			['\u0089PNG\r\n', 'a PNG picture'],
			['<!DOCTYPE html><p>', 'a web page'],
			['Dear all,\nplease find', 'a text file'],
			['\u0000\u0001\u0002', 'another kind of file']
		] as const) {
			expect(pdfVersion(bytes(text)), kind).toBeNull();
			expect(kindOf(bytes(text))).toBe(kind);
		}
		expect(pdfVersion(new Uint8Array())).toBeNull();
	});
});

describe('dates, ISO 32000-1, 7.9.4', () => {
	it("the standard's example: December 23, 1998, at 7:52 PM, U.S. Pacific Standard Time is D:199812231952-08'00", () =>
		expect(iso("D:199812231952-08'00")).toBe('1998-12-24T03:52:00.000Z'));
	it('the older form with a closing apostrophe is the same', () => expect(iso("D:199812231952-08'00'")).toBe('1998-12-24T03:52:00.000Z'));
	it('everything after the year may be left out; month and day are then 01', () => {
		expect(iso('D:1998')).toBe('1998-01-01T00:00:00.000Z');
		expect(iso('D:199812')).toBe('1998-12-01T00:00:00.000Z');
		expect(iso('D:19981223')).toBe('1998-12-23T00:00:00.000Z');
	});
	it('Z and positive offsets', () => {
		expect(iso('D:20261124090000Z')).toBe('2026-11-24T09:00:00.000Z');
		expect(iso("D:20261124090000Z00'00'")).toBe('2026-11-24T09:00:00.000Z');
		expect(iso("D:20261124090000+05'45")).toBe('2026-11-24T03:15:00.000Z');
	});
	it('every part has its bounds, and the last of each is a date (7.9.4: 01 to 12, 01 to 31, 00 to 23, 00 to 59)', () => {
		for (const [least, most, beyond] of [
			['D:20260101', 'D:20261201', ['D:20260001', 'D:20261301']],
			['D:20260101', 'D:20260131', ['D:20260100', 'D:20260132', 'D:20260431', 'D:20260229']],
			['D:2026010100', 'D:2026010123', ['D:2026010124']],
			['D:202601010000', 'D:202601010059', ['D:202601010060']],
			['D:20260101000000', 'D:20260101000059', ['D:20260101000060']],
			["D:20260101000000+00'00", "D:20260101000000+23'59", ["D:20260101000000+24'00", "D:20260101000000+00'60"]]
		] as const) {
			for (const good of [least, most]) expect(iso(good), good).not.toBeNull();
			for (const bad of beyond) expect(iso(bad), bad).toBeNull();
		}
		expect([iso('D:20280229'), iso('D:20261231235959Z'), iso("D:20260101003000+01'00"), iso('D:20260101003000+01'), iso(' D:2026 ')]).toEqual([
			'2028-02-29T00:00:00.000Z',
			'2026-12-31T23:59:59.000Z',
			'2025-12-31T23:30:00.000Z',
			'2025-12-31T23:30:00.000Z',
			'2026-01-01T00:00:00.000Z'
		]);
		// Z has no offset, whatever stands after it; the prefix may be missing, as older programs leave it out
		expect([iso("D:20260101120000Z05'00"), iso('20260101120000')]).toEqual(['2026-01-01T12:00:00.000Z', '2026-01-01T12:00:00.000Z']);
	});
	it('what is no date is none', () => {
		for (const text of ['', 'yesterday', 'D:20261301', 'D:20260230', 'D:20261124250000', 'D:98']) expect(iso(text), text).toBeNull();
	});
});

describe('paper names, ISO 216', () => {
	// ISO 216, main series (table 1), in mm
	const table = {
		A0: [841, 1189],
		A1: [594, 841],
		A2: [420, 594],
		A3: [297, 420],
		A4: [210, 297],
		A5: [148, 210],
		A6: [105, 148],
		A7: [74, 105],
		A8: [52, 74],
		A9: [37, 52],
		A10: [26, 37],
		B0: [1000, 1414],
		B1: [707, 1000],
		B2: [500, 707],
		B3: [353, 500],
		B4: [250, 353],
		B5: [176, 250],
		B6: [125, 176],
		B7: [88, 125],
		B8: [62, 88],
		B9: [44, 62],
		B10: [31, 44]
	};
	for (const [name, [w, h]] of Object.entries(table) as [string, [number, number]][]) {
		it(`${name} is ${w} × ${h} mm, upright and landscape`, () => {
			expect(paperName({ width: w * pointsPerMm, height: h * pointsPerMm })).toBe(name);
			expect(paperName({ width: h * pointsPerMm, height: w * pointsPerMm })).toBe(`${name} landscape`);
		});
	}
	it('A4 as programs round it: 595 × 842 and 595.28 × 841.89 points', () => {
		expect(paperName({ width: 595, height: 842 })).toBe('A4');
		expect(paperName({ width: 595.28, height: 841.89 })).toBe('A4');
	});
	it('Letter is 8.5 × 11 in (common practice, no source)', () => expect(paperName({ width: 612, height: 792 })).toBe('Letter'));
	it('the tolerance of ISO 216 is 2 mm between 150 and 600 mm: 207 mm wide is no A4', () => {
		expect(paperName({ width: 208.5 * pointsPerMm, height: 297 * pointsPerMm })).toBe('A4');
		expect(paperName({ width: 207 * pointsPerMm, height: 297 * pointsPerMm })).toBeNull();
	});
	it('the tolerances of ISO 216 are 1.5 mm up to 150 mm, 2 mm up to 600 mm, 3 mm above (from memory)', () => {
		const mm = (width: number, height: number) => paperName({ width: width * pointsPerMm, height: height * pointsPerMm });
		expect([mm(105 + 1.49, 148), mm(105 + 1.51, 148), mm(105, 148 - 1.49), mm(105, 148 - 1.51)]).toEqual(['A6', null, 'A6', null]);
		expect([mm(148, 210 + 1.99), mm(148, 210 + 2.01), mm(210 - 1.99, 297), mm(210 - 2.01, 297)]).toEqual(['A5', null, 'A4', null]);
		expect([mm(594, 841 + 2.99), mm(594, 841 + 3.01), mm(841 - 2.99, 1189), mm(841 - 3.01, 1189)]).toEqual(['A1', null, 'A0', null]);
		// each side by its own
		expect([mm(210, 297 + 2.01), mm(210 + 2.01, 297)]).toEqual([null, null]);
	});
	it('the smallest have a name of their own, and the nearest is taken where two fit', () => {
		const mm = (width: number, height: number) => paperName({ width: width * pointsPerMm, height: height * pointsPerMm });
		// A10 is 26 × 37 mm, B10 31 × 44 mm; there is no A11
		expect([mm(26, 37), mm(31, 44), mm(18, 26)]).toEqual(['A10', 'B10', null]);
		expect([mm(28.4, 40.4), mm(29.6, 42.6)]).toEqual([null, 'B10']);
	});
	it('US sizes are 8.5 × 11, 8.5 × 14 and 11 × 17 in, to 3 points (common practice, no source)', () => {
		const points = (width: number, height: number) => paperName({ width, height });
		expect([points(8.5 * 72, 14 * 72), points(11 * 72, 17 * 72), points(17 * 72, 11 * 72)]).toEqual(['Legal', 'Tabloid', 'Tabloid landscape']);
		expect([points(615, 795), points(616, 792), points(612, 796), points(609, 789), points(608, 792)]).toEqual(['Letter', null, null, 'Letter', null]);
		expect(points(500, 500)).toBeNull();
	});
	it('the size of most pages is said first, each once', () => {
		const a4 = { width: 595, height: 842 };
		const a3 = { width: 842, height: 1191 };
		expect(
			paperWords([
				{ ...a4, pages: 2 },
				{ ...a3, pages: 3 },
				{ width: 595.28, height: 841.89, pages: 2 }
			])
		).toBe('A4 and A3');
		expect(
			paperWords([
				{ ...a4, pages: 1 },
				{ width: 100, height: 100, pages: 1 },
				{ ...a3, pages: 2 }
			])
		).toBe('mostly A3, 3 sizes');
		expect(paperWords([])).toBe('');
	});
	it('several sizes are said together', () => {
		expect(
			paperWords([
				{ width: 595, height: 842, pages: 3 },
				{ width: 842, height: 1191, pages: 1 }
			])
		).toBe('A4 and A3');
		expect(paperWords([{ width: 200, height: 100, pages: 1 }])).toBe('71 × 35 mm');
	});
});

describe('the condition', () => {
	const facts: Facts = {
		...lockedFacts('1.7'),
		pages: 10,
		encrypted: false,
		permits: { print: true, copy: true },
		tagged: true,
		language: 'en',
		text: 'yes',
		textPages: 10
	};
	const made = { coverPage: 1, textRead: true };
	const codes = (change: Partial<Facts>, how: Partial<Parameters<typeof conditionOf>[1]> = {}) =>
		conditionOf({ ...facts, ...change }, { ...made, ...how }).findings.map((f) => f.code);

	it('is sound where nothing stands out', () => expect(conditionOf(facts, made)).toEqual({ status: 'sound', findings: [] }));
	it('is worth a look where something does, each finding in words with what can be done', () => {
		const { status, findings } = conditionOf(
			{ ...facts, text: 'no', textPages: 0, active: ['JavaScript'], repaired: true, encrypted: true, permits: { print: false, copy: false } },
			made
		);
		expect(status).toBe('look');
		expect(findings.map((f) => f.code)).toEqual(['no-text', 'active-content', 'repaired', 'print-forbidden', 'copy-forbidden']);
		expect(findings[1]!.text).toContain('JavaScript');
		expect(findings[1]!.remedy).toBe('clean');
		for (const { text } of findings) expect(text).toMatch(/\..+\.$/s);
	});
	it('cannot be shown where it is locked or no page can be drawn', () => {
		expect(conditionOf(lockedFacts('1.7'), { coverPage: null, textRead: false, locked: true })).toMatchObject({
			status: 'refused',
			findings: [{ code: 'locked', remedy: 'password' }]
		});
		expect(conditionOf(facts, { coverPage: null, textRead: true })).toMatchObject({ status: 'refused', findings: [{ code: 'not-drawn' }] });
	});
	it('tells a first page that cannot be drawn, text that could not be read, XFA, huge pages and very many', () => {
		expect(codes({}, { coverPage: 3 })).toEqual(['first-page-not-drawn']);
		expect(codes({}, { textRead: false })).toEqual(['text-not-read']);
		expect(codes({ xfa: true })).toEqual(['xfa']);
		expect(codes({ sizes: [{ width: 14_400, height: 100, pages: 1 }] })).toEqual(['huge-page']);
		expect(codes({ pages: 100_000 })).toEqual(['many-pages']);
	});
	it('a file counts as text throughout though title leaves and plates have none', () => {
		expect([textLayer(0, 10), textLayer(2, 10), textLayer(7, 10), textLayer(10, 10)]).toEqual(['no', 'partly', 'yes', 'yes']);
		expect(codes({ text: 'partly', textPages: 2 })).toEqual(['partly-text']);
	});
	it('tells what the file forbids only where it is encrypted, each by itself', () => {
		const permits = (print: boolean, copy: boolean, encrypted = true) => codes({ encrypted, permits: { print, copy } });
		expect([permits(true, true), permits(false, true), permits(true, false), permits(false, false, false)]).toEqual([
			[],
			['print-forbidden'],
			['copy-forbidden'],
			[]
		]);
	});
	it('a page is huge from 100 inches on, and pages are very many above five thousand', () => {
		const side = (width: number, height: number) => codes({ sizes: [{ width, height, pages: 1 }] });
		expect([side(7_199, 10), side(7_200, 10), side(10, 7_200), side(7_199.9, 7_199.9)]).toEqual([[], ['huge-page'], ['huge-page'], []]);
		expect([codes({ pages: 5_000 }), codes({ pages: 5_001 })]).toEqual([[], ['many-pages']]);
		expect(textLayer(69, 100)).toBe('partly');
	});
	it('of a locked file nothing is made up', () => {
		expect(lockedFacts('1.4')).toMatchObject({ version: '1.4', pages: 0, sizes: [], encrypted: true, permits: { print: false, copy: false }, textPages: 0 });
		expect(Object.entries(lockedFacts('1.4')).filter(([, value]) => value === true)).toEqual([['encrypted', true]]);
	});
});
