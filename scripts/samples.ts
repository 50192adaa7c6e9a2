// PDFs that other people's programs made, for tests and measurements: as Debian's documentation packages carry them, and made from these by
// qpdf (encrypted), pdfsig of poppler-utils (signed) and pdfkit (a form).
import { execFileSync } from 'node:child_process';
import { createWriteStream, existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { finished } from 'node:stream/promises';
import { gunzipSync } from 'node:zlib';
import PDFDocument from 'pdfkit';

/** Where they lie, made once for everything that runs on a machine. */
const folder = join(tmpdir(), `ianua-samples-${userInfo().uid}`);
const teckit = (name: string) => `/usr/share/doc/teckit/${name}.pdf.gz`;
const scan = (number: number) => `/usr/share/doc/sha1cdsum/examples/shattered-${number}.pdf`;

export const samples = {
	/** The handbook of a language for mapping encodings: eleven pages of A4, tagged, with headings, lists and tables, by LibreOffice (Debian's package teckit). */
	tagged: join(folder, 'tagged.pdf'),
	/** Seven pages about the tools of the same, tagged too. */
	tools: join(folder, 'tools.pdf'),
	/** The handbook encrypted with an owner's password, copying forbidden (qpdf). */
	encrypted: join(folder, 'encrypted.pdf'),
	/** The handbook signed twice (pdfsig). */
	signed: join(folder, 'signed.pdf'),
	/** Two pages that are pictures, without text (Debian's package sha1cdsum). */
	scanned: join(folder, 'scanned.pdf'),
	/** Two files of one SHA-1, and of two SHA-256 (the same package). */
	collision: [scan(1), scan(2)],
	/** A form with two fields, A5 (pdfkit). */
	form: join(folder, 'form.pdf'),
	/** Thirty pages with pictures, 4 MB (pdfkit). */
	large: join(folder, 'large.pdf'),
	/** The handbook, noise from its second kilobyte on: beyond opening. */
	damaged: join(folder, 'damaged.pdf'),
	/** Debian's handbook for developers in Japanese, 130 pages with an outline, by LaTeX (Debian's package developers-reference-ja). */
	japanese: '/usr/share/developers-reference/ja/developers-reference.pdf'
} as const;

const run = (program: string, args: readonly string[]) => execFileSync(program, args, { stdio: ['ignore', 'ignore', 'pipe'] });

/** Signs a file with a certificate made for it. */
function sign(into: string, input: string, output: string): void {
	const nss = join(into, 'nss');
	if (!existsSync(nss)) {
		mkdirSync(nss);
		const noise = join(into, 'noise');
		writeFileSync(noise, Buffer.alloc(64, 7));
		run('certutil', ['-N', '-d', `sql:${nss}`, '--empty-password']);
		run('certutil', ['-S', '-d', `sql:${nss}`, '-n', 'ada', '-s', 'CN=Ada Example', '-x', '-t', 'CT,CT,CT', '-v', '240', '-z', noise, '-m', '1']);
	}
	run('pdfsig', [input, output, '-nssdir', nss, '-add-signature', '-nick', 'ada', '-nss-pwd', '']);
}

/** Bytes that do not pack, the same at each making. */
function noise(length: number, seed: number): Buffer {
	const bytes = Buffer.alloc(length);
	let state = seed + 1;
	for (let i = 0; i < length; i++) bytes[i] = (state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0) >>> 16;
	return bytes;
}

async function written(path: string, draw: (pdf: PDFKit.PDFDocument) => void, options: PDFKit.PDFDocumentOptions): Promise<void> {
	const pdf = new PDFDocument(options);
	const file = createWriteStream(path);
	pdf.pipe(file);
	draw(pdf);
	pdf.end();
	await finished(file);
}

async function make(into: string): Promise<void> {
	const at = (name: string) => join(into, name);
	writeFileSync(at('tagged.pdf'), gunzipSync(readFileSync(teckit('TECkit_Language'))));
	writeFileSync(at('tools.pdf'), gunzipSync(readFileSync(teckit('TECkit_Tools'))));
	run('qpdf', ['--encrypt', '', 'owner', '256', '--extract=n', '--', at('tagged.pdf'), at('encrypted.pdf')]);
	sign(into, at('tagged.pdf'), at('once.pdf'));
	sign(into, at('once.pdf'), at('signed.pdf'));
	run('qpdf', ['--empty', '--pages', scan(1), scan(2), '--', at('scanned.pdf')]);
	await written(
		at('form.pdf'),
		(pdf) => {
			pdf.font('Helvetica').text('Name');
			pdf.initForm();
			pdf.formText('name', 72, 100, 250, 24, {});
			pdf.formText('boat', 72, 140, 250, 24, {});
		},
		{ size: 'A5' }
	);
	const sharp = (await import('sharp')).default;
	const pictures = await Promise.all(
		Array.from({ length: 30 }, (_, i) =>
			sharp(noise(210 * 210 * 3, i), { raw: { width: 210, height: 210, channels: 3 } })
				.png()
				.toBuffer()
		)
	);
	await written(
		at('large.pdf'),
		(pdf) => {
			for (const [i, picture] of pictures.entries()) {
				if (i) pdf.addPage();
				pdf.text(`Plate ${i + 1}`).image(picture, 72, 120, { width: 400 });
			}
		},
		{ size: 'A4' }
	);
	const whole = readFileSync(at('tagged.pdf'));
	writeFileSync(at('damaged.pdf'), Buffer.concat([whole.subarray(0, 1024), noise(60_000, 3)]));
}

/** Makes those that are not there yet. */
export async function prepareSamples(): Promise<void> {
	if (existsSync(folder)) return;
	const into = mkdtempSync(`${folder}-`);
	try {
		await make(into);
		renameSync(into, folder);
	} catch (error) {
		rmSync(into, { recursive: true, force: true });
		// another was quicker
		if (!existsSync(folder)) throw error;
	}
}
