// The words of a page with their places, for a text layer over the page's picture, and where its pictures stand; made when first asked for, and kept.
import { readFile, rm, writeFile } from 'node:fs/promises';
import { drawLane } from '../lanes';
import { log } from '../log';
import { exists, madePath, original, settle, temporaryPath } from '../store/store';
import { runInWorker } from './helpers';
import { limits, run } from './run';

/** Lengths in points of the page as shown, from its upper left corner. */
export interface LeafLine {
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
	readonly text: string;
}

export interface LeafText {
	readonly page: number;
	readonly width: number;
	readonly height: number;
	readonly lines: readonly LeafLine[];
	/** Where its pictures stand, as core/reading/paper.ts takes them: the paper beside them may be tinted. */
	readonly pictures: readonly number[];
}

const entities: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };
const plain = (text: string) =>
	text.replace(/&(?:#(\d+)|#x([0-9a-f]+)|(\w+));/gi, (all, decimal: string, hex: string, name: string) =>
		decimal ? String.fromCodePoint(Number(decimal)) : hex ? String.fromCodePoint(Number.parseInt(hex, 16)) : (entities[name] ?? all)
	);
const round = (n: number) => Math.round(n * 100) / 100;

/** What `pdftotext -bbox-layout` writes of pages, each by itself: places as it is shown, but its size as it lies. */
export function readSheets(html: string): { width: number; height: number; lines: LeafLine[] }[] {
	const number = (attributes: string, name: string) => Number(new RegExp(`${name}="([-\\d.]+)"`).exec(attributes)?.[1] ?? NaN);
	return [...html.matchAll(/<page ([^>]*)>([\s\S]*?)(?=<page |$)/g)].map(([, attributes = '', inner = '']) => ({
		width: round(number(attributes, 'width')),
		height: round(number(attributes, 'height')),
		lines: linesIn(inner, number)
	}));
}

function linesIn(html: string, number: (attributes: string, name: string) => number): LeafLine[] {
	const lines: LeafLine[] = [];
	for (const [, attributes = '', inner = ''] of html.matchAll(/<line ([^>]*)>([\s\S]*?)<\/line>/g)) {
		const text = [...inner.matchAll(/<word [^>]*>([\s\S]*?)<\/word>/g)].map((m) => plain(m[1]!)).join(' ');
		const [x, y] = [number(attributes, 'xMin'), number(attributes, 'yMin')];
		const [width, height] = [number(attributes, 'xMax') - x, number(attributes, 'yMax') - y];
		if (text.trim() && [x, y, width, height].every(Number.isFinite) && width > 0 && height > 0)
			lines.push({ x: round(x), y: round(y), width: round(width), height: round(height), text });
	}
	return lines;
}

/** The same of one page; `turned` says that it is shown on its side. Null where there is no page in it. */
export function readBoxes(html: string, page: number, turned: boolean): Omit<LeafText, 'pictures'> | null {
	const [sheet] = readSheets(html);
	if (!sheet) return null;
	const { width, height, lines } = sheet;
	return { page, width: turned ? height : width, height: turned ? width : height, lines };
}

/** Where the pictures of a page stand; none where that cannot be told: then all of the page is tinted. Throws `busy` where too many wait. */
async function picturesOn(sha256: string, page: number, place: string): Promise<readonly number[]> {
	const shown = String(page);
	const { code, output } = await run('pdfimages', ['-list', '-f', shown, '-l', shown, await original(sha256)], limits.facts);
	// page, number, type (image, or a mask of one), …
	if (code !== 0 || !/^ *\d+ +\d+ +image /m.test(output)) return [];
	return drawLane.run(place, () =>
		runInWorker('images', { sha256, page }).catch((error: unknown) => {
			log().warn({ err: error, sha256, page }, 'where the pictures of a page stand could not be read');
			return [];
		})
	);
}

/** The path of a page's words as JSON, made for a place when first asked for; null where they cannot be read. Throws `busy` where too many wait. */
export async function leafTextPath(sha256: string, page: number, place: string): Promise<string | null> {
	const path = madePath(sha256, `leaf-${page}-read.json`);
	if (await exists(path)) return path;
	const boxes = await temporaryPath('.html');
	try {
		const shown = ['-f', String(page), '-l', String(page), await original(sha256)];
		const { output } = await run('pdfinfo', shown, limits.facts);
		const turned = /^Page +\d+ rot: +(?:90|270)$/m.test(output);
		const { code } = await run('pdftotext', ['-bbox-layout', '-cropbox', '-enc', 'UTF-8', ...shown, boxes], limits.text);
		const text = code === 0 ? readBoxes(await readFile(boxes, 'utf8'), page, turned) : null;
		if (!text) return null;
		const temporary = await temporaryPath('.json');
		await writeFile(temporary, JSON.stringify({ ...text, pictures: await picturesOn(sha256, page, place) } satisfies LeafText));
		await settle(temporary, path);
		return path;
	} finally {
		await rm(boxes, { force: true });
	}
}
