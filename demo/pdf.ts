// The demo's own PDF generator: pages with real text, drawings and an outline, by PDFKit with embedded fonts.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { convert } from 'fontverter';
import PDFDocument from 'pdfkit';
import { Random } from './random';

const require = createRequire(import.meta.url);
/** A font of the package's, unpacked once: PDFKit would unpack it anew for each document, which took two thirds of the demo's time. */
const font = (family: string, file: string): Promise<Uint8Array> => convert(readFileSync(require.resolve(`@fontsource/${family}/files/${file}`)), 'sfnt');
const fonts = {
	title: await font('literata', 'literata-latin-600-normal.woff'),
	text: await font('literata', 'literata-latin-400-normal.woff'),
	italic: await font('literata', 'literata-latin-400-italic.woff'),
	label: await font('commissioner', 'commissioner-latin-400-normal.woff'),
	cyrillic: await font('literata', 'literata-cyrillic-400-normal.woff'),
	cyrillicTitle: await font('literata', 'literata-cyrillic-600-normal.woff')
};

export type Drawing = 'flight' | 'map' | 'levels' | 'table' | 'culvert';

export interface Section {
	readonly heading: string;
	readonly paragraphs: readonly string[];
	readonly drawing?: Drawing;
}

export interface Sheet {
	readonly title: string;
	readonly subtitle: string;
	readonly colour: string;
	readonly size: 'A3' | 'A4' | 'A5' | 'LETTER';
	readonly landscape?: boolean;
	readonly sections: readonly Section[];
	/** Day on which it was made, YYYY-MM-DD. */
	readonly day: string;
	readonly seed: number;
	readonly language?: string;
	/** Text of another script, set in its own font on the first page. */
	readonly cyrillic?: string;
	/** A script that the file would run when opened: the check must find it. */
	readonly script?: string;
	/** Files that go along inside the PDF. */
	readonly attachments?: readonly { readonly name: string; readonly text: string }[];
	/** Password without which it does not open. */
	readonly password?: string;
	/** Made into pictures of its pages, as a scanner would. */
	readonly scanned?: boolean;
	/** Points astray for its table of objects, as careless programs leave it: readers have to put its structure together again. */
	readonly tableLost?: boolean;
}

const ink = '#1b2a29';
const water = '#dcebe5';
const deep = '#1c6a61';

/** Makes the PDF; the same sheet gives the same bytes, but for a locked one. */
export async function makePdf(sheet: Sheet): Promise<Buffer> {
	const bytes = await typeset(sheet);
	if (sheet.scanned) return scan(bytes, sheet);
	if (!sheet.tableLost) return bytes;
	// the place of the cross-reference table stands in the last lines (ISO 32000-1, 7.5.5)
	const end = bytes.lastIndexOf('startxref\n');
	return Buffer.concat([bytes.subarray(0, end), Buffer.from('startxref\n7\n%%EOF\n')]);
}

/** Pictures of the pages, grey and a little coarse, on pages of the same size. */
async function scan(bytes: Buffer, sheet: Sheet): Promise<Buffer> {
	const folder = mkdtempSync(join(tmpdir(), 'ianua-scan-'));
	try {
		writeFileSync(join(folder, 'in.pdf'), bytes);
		execFileSync('pdftoppm', ['-gray', '-r', '110', '-jpeg', '-jpegopt', 'quality=55', join(folder, 'in.pdf'), join(folder, 'page')]);
		const pages = readdirSync(folder)
			.filter((name) => name.endsWith('.jpg'))
			.sort();
		const pdf = new PDFDocument({ size: sheet.size, margin: 0, autoFirstPage: false, info: { Title: sheet.title, Creator: 'Scanner', ...dates(sheet) } });
		const whole = collected(pdf);
		for (const name of pages) {
			pdf.addPage();
			pdf.image(join(folder, name), 0, 0, { width: pdf.page.width, height: pdf.page.height });
		}
		pdf.end();
		return await whole;
	} finally {
		rmSync(folder, { recursive: true });
	}
}

function collected(pdf: PDFKit.PDFDocument): Promise<Buffer> {
	const chunks: Buffer[] = [];
	pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
	return new Promise((resolve) => pdf.on('end', () => resolve(Buffer.concat(chunks))));
}

function dates({ day }: Sheet): { CreationDate: Date; ModDate: Date } {
	const date = new Date(`${day}T09:00:00Z`);
	return { CreationDate: date, ModDate: date };
}

function typeset(sheet: Sheet): Promise<Buffer> {
	const pdf = new PDFDocument({
		size: sheet.size,
		layout: sheet.landscape ? 'landscape' : 'portrait',
		margins: { top: 64, bottom: 64, left: 60, right: 60 },
		pdfVersion: '1.7',
		lang: sheet.language ?? 'en-GB',
		tagged: true,
		displayTitle: true,
		info: { Title: sheet.title, Author: 'Ternwell & Oxmere Canal Society', ...dates(sheet) },
		...(sheet.password ? { userPassword: sheet.password, ownerPassword: sheet.password } : {}),
		bufferPages: true
	});
	for (const [name, bytes] of Object.entries(fonts)) pdf.registerFont(name, bytes);
	const done = collected(pdf);

	const { width, height } = pdf.page;
	pdf.rect(0, 0, width, 10).fill(sheet.colour);
	pdf
		.fillColor(sheet.colour)
		.font(sheet.cyrillic ? 'cyrillicTitle' : 'title')
		.fontSize(sheet.size === 'A5' ? 22 : 30)
		.text(sheet.title, 60, 84, { width: width - 120 });
	pdf.moveDown(0.3).fillColor(ink).font('italic').fontSize(13).text(sheet.subtitle);
	pdf
		.moveDown(0.4)
		.font('label')
		.fontSize(9.5)
		.fillColor('#51605d')
		.text(
			`Ternwell & Oxmere Canal Society, ${dates(sheet).CreationDate.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' })}`
		);
	if (sheet.cyrillic) pdf.moveDown(1).font('cyrillic').fontSize(14).fillColor(ink).text(sheet.cyrillic, { lineGap: 4 });
	pdf.moveDown(1.4);

	const random = new Random(sheet.seed);
	for (const section of sheet.sections) {
		if (pdf.y > height - 220) pdf.addPage();
		pdf.outline.addItem(section.heading);
		pdf.font('title').fontSize(17).fillColor(ink).text(section.heading, 60);
		pdf.moveDown(0.4);
		if (section.drawing) {
			const drawingHeight = Math.min(190, width / 3.4);
			if (pdf.y + drawingHeight > height - 70) pdf.addPage();
			const top = pdf.y;
			draw(pdf, section.drawing, 60, top, width - 120, drawingHeight, sheet.colour, random);
			pdf.x = 60;
			pdf.y = top + drawingHeight + 14;
		}
		for (const paragraph of section.paragraphs) {
			pdf
				.font('text')
				.fontSize(11.5)
				.fillColor(ink)
				.text(paragraph, 60, pdf.y, { width: width - 120, lineGap: 3.2, align: 'left' });
			pdf.moveDown(0.6);
		}
		pdf.moveDown(0.6);
	}
	const { start, count } = pdf.bufferedPageRange();
	for (let i = start; i < start + count; i++) {
		pdf.switchToPage(i);
		pdf.page.margins.bottom = 0;
		pdf
			.font('label')
			.fontSize(9)
			.fillColor('#51605d')
			.text(String(i + 1), 0, pdf.page.height - 40, { width: pdf.page.width, align: 'center' });
	}
	for (const { name, text } of sheet.attachments ?? [])
		pdf.file(Buffer.from(text), { name, creationDate: dates(sheet).CreationDate, modifiedDate: dates(sheet).ModDate });
	if (sheet.script) {
		// PDFKit's root dictionary takes any entry; the action runs in programs that allow it, never in the reading room
		(pdf as unknown as { _root: { data: Record<string, unknown> } })._root.data.OpenAction = { S: 'JavaScript', JS: new String(sheet.script) };
	}
	pdf.end();
	return done;
}

function draw(pdf: PDFKit.PDFDocument, drawing: Drawing, x: number, y: number, w: number, h: number, colour: string, random: Random): void {
	pdf.save();
	switch (drawing) {
		case 'flight': {
			pdf.rect(x, y, w, h).fill(water);
			const steps = 9;
			pdf.moveTo(x, y + h);
			for (let i = 0; i <= steps; i++) {
				const level = y + h * (0.85 - (0.6 * i) / steps);
				pdf.lineTo(x + (w * i) / (steps + 1), level).lineTo(x + (w * (i + 1)) / (steps + 1), level);
			}
			pdf.lineTo(x + w, y + h).fill('#9abfb6');
			break;
		}
		case 'map': {
			pdf.rect(x, y, w, h).fill('#f2eee2');
			pdf
				.lineWidth(6)
				.strokeColor('#9abfb6')
				.moveTo(x, y + h * 0.7);
			for (let i = 1; i <= 6; i++)
				pdf.quadraticCurveTo(x + (w * (i - 0.5)) / 6, y + h * (0.2 + 0.6 * random.next()), x + (w * i) / 6, y + h * (0.35 + 0.35 * random.next()));
			pdf.stroke();
			pdf.font('label').fontSize(8);
			for (const [i, name] of ['Ternwell', 'Long Pound', 'Upper flight', 'Oxmere'].entries()) {
				pdf.circle(x + w * (0.08 + i * 0.27), y + h * 0.5, 4).fill(colour);
				pdf.fillColor(ink).text(name, x + w * (0.08 + i * 0.27) - 20, y + h * 0.5 + 8, { lineBreak: false });
			}
			break;
		}
		case 'levels': {
			pdf.rect(x, y, w, h).fill('#ffffff').rect(x, y, w, h).lineWidth(0.7).stroke('#8d8672');
			let level = 0.5;
			pdf
				.lineWidth(1.6)
				.strokeColor(deep)
				.moveTo(x, y + h * level);
			for (let i = 1; i <= 40; i++) {
				level = Math.min(0.9, Math.max(0.1, level + (random.next() - 0.5) * 0.14));
				pdf.lineTo(x + (w * i) / 40, y + h * level);
			}
			pdf.stroke();
			break;
		}
		case 'table': {
			const rows = 6;
			for (let r = 0; r < rows; r++) {
				if (r === 0) pdf.rect(x, y, w, h / rows).fill(colour);
				pdf
					.lineWidth(0.6)
					.strokeColor('#8d8672')
					.moveTo(x, y + ((r + 1) * h) / rows)
					.lineTo(x + w, y + ((r + 1) * h) / rows)
					.stroke();
				pdf
					.font('label')
					.fontSize(9)
					.fillColor(r === 0 ? '#ffffff' : ink);
				const cells =
					r === 0
						? ['Lock', 'From', 'Until', 'Work']
						: [`Lock ${r * 2}`, `${random.whole(4, 28)} January`, `${random.whole(1, 20)} March`, random.pick(['Gates', 'Sill', 'Paddle gear', 'Masonry'])];
				cells.forEach((cell, c) => pdf.text(cell, x + 8 + (c * w) / 4, y + (r * h) / rows + h / rows / 2 - 5, { lineBreak: false }));
			}
			break;
		}
		case 'culvert': {
			pdf.rect(x, y, w, h).fill('#ece6da');
			pdf
				.moveTo(x + w * 0.3, y + h)
				.lineTo(x + w * 0.3, y + h * 0.55)
				.quadraticCurveTo(x + w * 0.5, y + h * 0.05, x + w * 0.7, y + h * 0.55)
				.lineTo(x + w * 0.7, y + h)
				.fill('#ffffff');
			pdf
				.lineWidth(3)
				.strokeColor('#835a10')
				.moveTo(x + w * 0.3, y + h)
				.lineTo(x + w * 0.3, y + h * 0.55)
				.quadraticCurveTo(x + w * 0.5, y + h * 0.05, x + w * 0.7, y + h * 0.55)
				.lineTo(x + w * 0.7, y + h)
				.stroke();
			break;
		}
	}
	pdf.restore();
}
