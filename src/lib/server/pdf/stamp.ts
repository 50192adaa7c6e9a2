// Copies with a line of words in the margin of every page: drawn once as a page of its own and laid over each by qpdf.
import { createWriteStream } from 'node:fs';
import { createRequire } from 'node:module';
import { rm, stat } from 'node:fs/promises';
import { finished } from 'node:stream/promises';
import PDFDocument from 'pdfkit';
import { madePath, settle, temporaryPath } from '../store/store';
import { limits, run } from './run';

/** The path of a stamped copy by its number. */
export const stampedPath = (sha256: string, number: string) => madePath(sha256, `stamped-${number.toLowerCase()}.pdf`);

const require = createRequire(import.meta.url);
/** The fonts that the site itself is set in, each for a range of letters; what none of them has stands as a question mark. */
const fonts = [
	['latin', /^[\u0000-\u00ff\u2013-\u2026]+/],
	['latin-ext', /^[\u0100-\u02af\u1e00-\u1eff]+/],
	['greek', /^[\u0370-\u03ff]+/],
	['cyrillic', /^[\u0400-\u045f\u0490\u0491\u04b0\u04b1]+/]
] as const;
const fontPath = (letters: string) => require.resolve(`@fontsource/commissioner/files/commissioner-${letters}-400-normal.woff`);

/** The words in runs of one font each. */
function runsOf(words: string): { font: string; text: string }[] {
	const runs: { font: string; text: string }[] = [];
	for (let rest = words.normalize('NFC'); rest !== '';) {
		const fit = fonts.map(([letters, range]) => ({ font: letters, text: range.exec(rest)?.[0] ?? '' })).find((f) => f.text);
		const [first = ''] = rest;
		runs.push(fit ?? { font: 'latin', text: '?' });
		rest = rest.slice(fit ? fit.text.length : first.length);
	}
	return runs;
}

/** A page with the line along its left edge, reading upwards, and nothing else. `size` in points. */
async function drawLine(words: string, size: { width: number; height: number }, path: string): Promise<void> {
	const page = new PDFDocument({
		size: [size.width, size.height],
		margin: 0,
		compress: true,
		font: fontPath('latin'),
		info: { CreationDate: new Date(0), ModDate: new Date(0) }
	});
	const out = createWriteStream(path);
	page.pipe(out);
	// legible on paper, out of the way of the text: 7 pt on A4, in proportion on other sheets
	const fontSize = Math.max(5, Math.min(14, (Math.min(size.width, size.height) / 595) * 7));
	page
		.rotate(-90, { origin: [0, 0] })
		.fontSize(fontSize)
		.fillColor('#555555');
	const runs = runsOf(words);
	runs.forEach(({ font, text }, i) => {
		const options = { lineBreak: false, continued: i < runs.length - 1 };
		page.font(fontPath(font));
		if (i === 0) page.text(text, -size.height + fontSize * 3, fontSize * 0.9, options);
		else page.text(text, options);
	});
	page.end();
	await finished(out);
}

/**
 * Makes a stamped copy and gives its path; null where qpdf cannot write the file. The same number gives the same bytes, so that a copy
 * that was thrown away is made again as it was.
 */
export async function makeStamped(
	source: { path: string; sha256: string },
	stamp: { number: string; words: string },
	size: { width: number; height: number }
): Promise<string | null> {
	const [line, made] = [await temporaryPath('.pdf'), await temporaryPath('.pdf')];
	try {
		await drawLine(stamp.words, size, line);
		const { size: bytes } = await stat(source.path);
		const { code } = await run('qpdf', ['--decrypt', '--deterministic-id', '--warning-exit-0', source.path, '--overlay', line, '--repeat=1', '--', made], {
			...limits.structure,
			file: Math.max(limits.structure.file, bytes * 3)
		});
		if (code !== 0) return null;
		const path = stampedPath(source.sha256, stamp.number);
		await settle(made, path);
		return path;
	} finally {
		await Promise.all([rm(line, { force: true }), rm(made, { force: true })]);
	}
}
