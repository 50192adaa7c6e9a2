// The check on files nobody here made, and on odd and hostile ones: facts, condition, words; and that odd ones are usable all the same.
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { stepBytes } from '#core/reading/opening';
import { openingSteps } from '#server/pdf/opening';
import { samples } from '../../scripts/samples';
import { lockedPdf, pdf, qpdf, rawPdf, send, staff, until, visitor, type DocumentJson } from './help';

const bringIn = async (bytes: Uint8Array, name: string) => {
	const response = await send(bytes, name);
	return { status: response.status, made: (await response.json()) as DocumentJson & { code?: string } };
};
const other = (path: string) => bringIn(readFileSync(path), basename(path));

describe('files that other programs made', () => {
	it('text, tags, language and sizes are read', async () => {
		const { made } = await other(samples.tagged);
		expect(made).toMatchObject({ pages: 11, condition: { status: 'sound' }, language: 'en-US' });
		expect(made.facts).toMatchObject({ paper: 'A4', text: 'yes', textPages: 11, tagged: true, signed: false, form: false, active: [] });
	});
	it('scanned pages are told from text', async () => {
		const { made } = await other(samples.scanned);
		expect(made.facts).toMatchObject({ text: 'no', textPages: 0 });
		expect(made.condition).toMatchObject({ status: 'look', findings: [{ code: 'no-text' }] });
	});
	it('what the file forbids, a form and signatures are told; a signed file is not packed anew', async () => {
		expect((await other(samples.encrypted)).made.condition.findings.map((f) => f.code)).toEqual(['copy-forbidden']);
		expect((await other(samples.form)).made.facts).toMatchObject({ form: true, xfa: false });
		const { made } = await other(samples.signed);
		expect(made.facts).toMatchObject({ signed: true });
		const boss = await staff();
		const reading = await boss.get(`/d/${made.slug}/file?for=reading`);
		expect(Buffer.from(await reading.arrayBuffer()).equals(readFileSync(samples.signed))).toBe(true);
	});
	it('a handbook in Japanese: its words, language and outline are read, and find knows them', async () => {
		const { made } = await other(samples.japanese);
		const boss = await staff();
		const done = await until(async () => {
			const now = await boss.api<DocumentJson>('GET', `/documents/${made.slug}`);
			return now.condition.status === 'checking' ? null : now;
		});
		expect(done).toMatchObject({ pages: 130, condition: { status: 'sound' }, language: 'ja' });
		expect(done.facts).toMatchObject({ paper: 'Letter', text: 'yes' });
		expect((done.facts.outline as { title: string }[]).map((line) => line.title)).toContain('さあ、はじめよう');
		const { items } = await boss.api<{ items: { slug: string; hits: { page: number }[] }[] }>('GET', `/find?q=${encodeURIComponent('メンター')}`);
		expect(items.find((i) => i.slug === made.slug)!.hits[0]!.page).toBeGreaterThan(1);
	});
	it('what the first page takes of a long file is known once it was checked, and a reading room is told of it; of a small one there is nothing to know', async () => {
		const boss = await staff();
		const { made } = await bringIn(await qpdf(readFileSync(samples.japanese), (a, b) => [a, '--object-streams=disable', b]), 'Asked for at once.pdf');
		const toldTo = async (slug: string) => /opening:\[([\d,]*)\]/.exec(await (await boss.get(`/d/${slug}/read`, { accept: 'text/html' })).text())?.[1];
		const told = await until(() => toldTo(made.slug));
		const bytes = (await boss.get(`/d/${made.slug}/file?for=reading`)).headers.get('content-length');
		const steps = told.split(',').map(Number);
		// its beginning and its end, where a PDF says what it is and where all of it stands (ISO 32000-1, 7.5.5), and by far not all between
		const last = Math.floor((Number(bytes) - 1) / stepBytes);
		expect(steps).toEqual(expect.arrayContaining([0, last]));
		expect(Math.max(...steps)).toBe(last);
		expect(steps.length).toBeLessThan(last * 0.8);
		// it is no fact that staff or programs are told
		expect(Object.keys((await boss.api<DocumentJson>('GET', `/documents/${made.slug}`)).facts)).not.toContain('opening');
		const small = await bringIn(await pdf('Nothing to know', 2), 'Nothing to know.pdf');
		expect(await toldTo(small.made.slug)).toBe('');
	});
	it('a file that keeps pdf.js from page 1 is read without it', async () => {
		const broken = join(tmpdir(), `ianua-opening-${process.pid}.pdf`);
		for (const bytes of [Buffer.alloc(300_000, 'no PDF at all '), readFileSync(samples.japanese).subarray(0, 300_000)]) {
			writeFileSync(broken, bytes);
			expect(await openingSteps(broken)).toEqual(expect.any(Array));
		}
		rmSync(broken);
		await expect(openingSteps(broken)).rejects.toThrow('ENOENT');
	});
	it('one damaged beyond opening is refused in words', async () => {
		const { status, made } = await other(samples.damaged);
		expect([status, made.code]).toEqual([422, 'file-damaged']);
	});
	it('thousands of pages: every one has its words, and find gives the page', async () => {
		const many = await qpdf(readFileSync(samples.tagged), (a, b) => [
			'--empty',
			'--pages',
			...Array.from({ length: 300 }, () => a),
			'--',
			'--object-streams=generate',
			b
		]);
		const { made } = await bringIn(many, 'Handbooks.pdf');
		const boss = await staff();
		const done = await (async () => {
			for (let i = 0; i < 600; i++) {
				const now = await boss.api<DocumentJson>('GET', `/documents/${made.slug}`);
				if (now.condition.status !== 'checking') return now;
				await new Promise((go) => setTimeout(go, 200));
			}
			throw new Error('still checking');
		})();
		expect(done.pages).toBe(3300);
		expect(done.facts).toMatchObject({ textPages: 3300, text: 'yes' });
		const { items } = await boss.api<{ items: { slug: string; pages: number; hits: { page: number }[] }[] }>('GET', '/find?q=backslash');
		const hit = items.find((i) => i.slug === made.slug)!;
		expect([hit.pages, hit.hits[0]!.page]).toEqual([300, 1]);
	});
});

describe('covers and copies for reading', () => {
	it('a cover is no wider than the page’s own drawing is worth', async () => {
		const sharp = (await import('sharp')).default;
		const { made } = await bringIn(await pdf('Wide', 1, { size: [3000, 300] }), 'wide.pdf');
		const boss = await staff();
		for (const width of [96, 300, 600, 1200]) {
			const cover = Buffer.from(await (await boss.get(`/d/${made.slug}/cover/${width}.webp`)).arrayBuffer());
			const meta = await sharp(cover).metadata();
			expect([meta.format, meta.width]).toEqual(['webp', width]);
		}
		const narrow = (await bringIn(await pdf('Narrow', 1, { size: [100, 3000] }), 'narrow.pdf')).made;
		const cover = Buffer.from(await (await boss.get(`/d/${narrow.slug}/cover/1200.webp`)).arrayBuffer());
		expect((await sharp(cover).metadata()).width).toBeLessThan(100);
	});
	it('the reading room may get a packed copy, a saved copy is the original to the bit', async () => {
		// loose objects, as many programs write them, pack well
		const loose = await qpdf(readFileSync(samples.tagged), (a, b) => ['--object-streams=disable', '--stream-data=uncompress', a, b]);
		const { made } = await bringIn(loose, 'loose.pdf');
		const boss = await staff();
		const reading = Buffer.from(await (await boss.get(`/d/${made.slug}/file?for=reading`)).arrayBuffer());
		const saved = Buffer.from(await (await boss.get(`/d/${made.slug}/file?save`)).arrayBuffer());
		expect(saved.equals(loose)).toBe(true);
		expect(reading.length).toBeLessThan(loose.length * 0.95);
		expect(reading.subarray(0, 5).toString()).toBe('%PDF-');
		const part = await boss.get(`/d/${made.slug}/file?for=reading`, { range: 'bytes=0-99' });
		expect([part.status, part.headers.get('content-range')]).toEqual([206, `bytes 0-99/${reading.length}`]);
	});
});

describe('odd and hostile files', () => {
	const catalog = '<< /Type /Catalog /Pages 2 0 R >>';
	const content = '<< /Length 37 >>\nstream\nBT /F1 24 Tf 20 20 Td (Words) Tj ET   \nendstream';
	const font = '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>';
	const page = (box: string, more = '') => `<< /Type /Page /Parent 2 0 R /MediaBox ${box} /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> ${more}>>`;

	it.each([
		['a page tree that loops', [catalog, '<< /Type /Pages /Kids [2 0 R] /Count 1 >>']],
		[
			'a page tree that loops further down',
			[catalog, '<< /Type /Pages /Kids [3 0 R] /Count 3 >>', '<< /Type /Pages /Parent 2 0 R /Kids [2 0 R 3 0 R] /Count 3 >>']
		],
		['no pages at all', [catalog, '<< /Type /Pages /Kids [] /Count 0 >>']],
		['a count of pages that is not true', [catalog, '<< /Type /Pages /Kids [3 0 R] /Count 2000000000 >>', page('[0 0 200 200]'), content, font]]
	])('%s ends in an answer, in bounded time, and leaves no half document', async (_what, objects) => {
		const boss = await staff();
		const all = async () => (await boss.api<{ counts: { all: number } }>('GET', '/documents')).counts.all;
		const before = await all();
		const { status, made } = await bringIn(rawPdf(objects), 'odd.pdf');
		if (status === 201) {
			expect(['sound', 'look', 'refused']).toContain(made.condition.status);
			expect(await all()).toBe(before + 1);
		} else {
			expect([status, made.code]).toEqual([422, 'file-damaged']);
			expect(await all()).toBe(before);
		}
	});
	it('a page 200 inches wide is shown made smaller, and the finding says so', async () => {
		const { made } = await bringIn(rawPdf([catalog, '<< /Type /Pages /Kids [3 0 R] /Count 1 >>', page('[0 0 14400 400]'), content, font]), 'banner.pdf');
		expect(made.condition.findings.map((f) => f.code)).toEqual(['huge-page']);
		expect((await (await staff()).get(`/d/${made.slug}/leaf/1.webp?w=800`)).status).toBe(200);
	});
	it('100,000 pages come in, with what was not measured told', async () => {
		const many = 100_000;
		const kids = Array.from({ length: many }, (_, i) => `${i + 3} 0 R`).join(' ');
		const endless = rawPdf([
			catalog,
			`<< /Type /Pages /Kids [${kids}] /Count ${many} /MediaBox [0 0 200 200] /Resources << >> >>`,
			...Array.from({ length: many }, () => '<< /Type /Page /Parent 2 0 R >>')
		]);
		const packed = await qpdf(endless, (a, b) => ['--object-streams=generate', a, b]);
		const { made } = await bringIn(packed, 'endless.pdf');
		const boss = await staff();
		const done = await until(async () => {
			const now = await boss.api<DocumentJson>('GET', `/documents/${made.slug}`);
			return now.condition.status === 'checking' ? null : now;
		});
		expect(done).toMatchObject({ pages: many, condition: { status: 'look' } });
		expect(done.condition.findings.map((f) => f.code)).toContain('many-pages');
	});
	it('a PDF inside other content: within the first 1,024 bytes it is one, after that it is not', async () => {
		const bytes = await pdf('Inside');
		const early = await bringIn(Buffer.concat([Buffer.from('<html>'.padEnd(900, ' ')), bytes]), 'page.html');
		expect(early.status).toBe(201);
		const late = await bringIn(Buffer.concat([Buffer.from('<html>'.padEnd(2000, ' ')), bytes]), 'page.html');
		expect([late.status, late.made.code]).toEqual([415, 'file-not-pdf']);
		expect((await bringIn(Buffer.from('%'), 'one.pdf')).made.code).toBe('file-not-pdf');
	});
	it.each([
		['folder/../../secret.pdf', 'secret.pdf', 'Secret'],
		['C:\\files\\Plan.pdf', 'Plan.pdf', 'Plan'],
		[`${'x'.repeat(300)}.pdf`, null, null],
		['\u202Efdp.exe.pdf', 'fdp.exe.pdf', null],
		['🚤 boats 🛶.pdf', '🚤 boats 🛶.pdf', '🚤 boats 🛶']
	])('the name %j does no harm', async (given, kept, title) => {
		const { status, made } = await bringIn(await pdf(`Named ${given.length} ${String(kept)}`, 1, { info: { Title: '' } }), given);
		expect(status).toBe(201);
		expect(made.fileName).not.toMatch(/[\u0000-\u001f/\\\u202e]/);
		if (kept) expect(made.fileName).toBe(kept);
		if (title) expect(made.title).toBe(title);
		expect(made.slug).toMatch(/^[a-z0-9]+(-[a-z0-9]+)*$/);
		const saved = await (await staff()).get(`/d/${made.slug}/file?save`);
		expect(saved.status).toBe(200);
		expect(saved.headers.get('content-disposition')).toMatch(/^attachment/);
	});
});

describe('a locked file', () => {
	it('is kept, cannot be shown, and opens for good once its password is given', async () => {
		const boss = await staff();
		const bytes = await lockedPdf(await pdf('Locked words', 3), 'towpath');
		const { status, made } = await bringIn(bytes, 'locked.pdf');
		expect(status).toBe(201);
		expect(made).toMatchObject({ pages: 0, condition: { status: 'refused', findings: [{ code: 'locked' }] } });
		await boss.api('PATCH', `/documents/${made.slug}`, { door: { position: 'open' } });
		const read = await visitor().get(`/d/${made.slug}/read`, { accept: 'text/html' });
		expect(read.status).toBe(409);
		expect(await read.text()).toContain('cannot be shown');
		expect((await visitor().get(`/d/${made.slug}/cover/300.webp`)).headers.get('content-type')).toBe('image/webp');

		const wrong = await boss.send('POST', `/api/v1/documents/${made.slug}/unlock`, { password: 'sluice' });
		expect([wrong.status, ((await wrong.json()) as { code: string }).code]).toEqual([422, 'password-wrong']);
		const opened = await boss.api<DocumentJson>('POST', `/documents/${made.slug}/unlock`, { password: 'towpath' });
		expect(opened).toMatchObject({ pages: 3, condition: { status: 'sound' } });
		expect(opened.editions.map((e) => [e.number, e.origin, e.inForce])).toEqual([
			[2, 'unlocked', true],
			[1, 'upload', false]
		]);
		expect((await visitor().get(`/d/${made.slug}/read`)).status).toBe(200);
		expect((await boss.send('POST', `/api/v1/documents/${made.slug}/unlock`, { password: 'towpath' })).status).toBe(409);
	});
});

describe('active content', () => {
	const acting = () =>
		rawPdf([
			'<< /Type /Catalog /Pages 2 0 R /OpenAction << /S /JavaScript /JS (app.alert\\(1\\)) >> /Names << /JavaScript << /Names [(a) 6 0 R] >> >> /AA << /WC 6 0 R >> >>',
			'<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
			'<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 300] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> /Annots [7 0 R 8 0 R] >>',
			'<< /Length 37 >>\nstream\nBT /F1 24 Tf 20 20 Td (Words) Tj ET   \nendstream',
			'<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
			'<< /S /JavaScript /JS (app.alert\\(2\\)) >>',
			'<< /Type /Annot /Subtype /Link /Rect [0 0 10 10] /A << /S /Launch /F (calc.exe) >> >>',
			'<< /Type /Annot /Subtype /Link /Rect [20 0 30 10] /A << /S /URI /URI (https://example.org/) >> >>'
		]);
	it('is told; one press makes an edition without it, and the original is kept', async () => {
		const boss = await staff();
		const bytes = acting();
		const { made } = await bringIn(bytes, 'acting.pdf');
		expect(made.facts.active).toEqual(['JavaScript', 'starting a program']);
		const cleaned = await boss.api<DocumentJson>('POST', `/documents/${made.slug}/clean`, {});
		expect(cleaned).toMatchObject({ pages: 1, facts: { active: [] }, condition: { status: 'sound' } });
		expect(cleaned.editions.map((e) => [e.number, e.origin, e.inForce])).toEqual([
			[2, 'cleaned', true],
			[1, 'upload', false]
		]);
		const now = Buffer.from(await (await boss.get(`/d/${made.slug}/file?save`)).arrayBuffer()).toString('latin1');
		expect(now).not.toMatch(/JavaScript|app\.alert|calc\.exe|\/AA/);
		const kept = await boss.get(`/d/${made.slug}/file?save&e=1`);
		expect(Buffer.from(await kept.arrayBuffer()).equals(bytes)).toBe(true);
		const again = await boss.send('POST', `/api/v1/documents/${made.slug}/clean`, {});
		expect([again.status, ((await again.json()) as { code: string }).code]).toEqual([409, 'nothing-to-clean']);
	});
});
