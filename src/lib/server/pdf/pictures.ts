// Pictures of pages: covers and leaves, drawn by pdftoppm once and kept beside the store as WebP.
import { rm, writeFile } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';
import type { Cover } from '#core/documents/cover';
import { exists, madePath, original, settle, temporaryPath } from '../store/store';
import { drawLane } from '../lanes';
import { log } from '../log';
import { runInWorker } from './helpers';
import { limits, run } from './run';

export const coverWidths = [96, 300, 600, 1200] as const;
export type CoverWidth = (typeof coverWidths)[number];

/** Most pixels of a picture that is taken. */
export const mostPixels = 100_000_000;

/** Widths of leaves that are made; a wish in between gets the next larger, so that the kept pictures stay few. */
export const leafWidths = [200, 800, 1200, 1800, 2400] as const;

/** A page as it was drawn: three bytes a pixel, red, green and blue. */
interface Drawn {
	readonly data: Buffer;
	readonly width: number;
	readonly height: number;
}

/**
 * Draws a page so that its longer side is `size` px; null where it cannot be drawn. Nothing of it touches the disk: pdftoppm prints a
 * portable pixmap (netpbm's format: P6, width, height, 255, then the pixels).
 */
async function drawPage(pdf: string, page: number, size: number): Promise<Drawn | null> {
	const chunks: Buffer[] = [];
	const args = ['-singlefile', '-cropbox', '-f', String(page), '-l', String(page), '-scale-to', String(size), pdf];
	const { code } = await run('pdftoppm', args, { ...limits.cover, output: size * size * 3 + 1024 }, (chunk) => void chunks.push(chunk));
	if (code !== 0) return null;
	const printed = Buffer.concat(chunks);
	const head = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(printed.subarray(0, 64).toString('latin1'));
	if (!head) return null;
	const [width, height] = [Number(head[1]), Number(head[2])];
	const data = printed.subarray(head[0].length);
	return data.length >= width * height * 3 ? { data: data.subarray(0, width * height * 3), width, height } : null;
}

const imageOf = ({ data, width, height }: Drawn) => sharp(data, { raw: { width, height, channels: 3 } });

/** Longest side a page is drawn at for its covers, px: a page of A4 is then 1,202 px wide. */
const coverSide = 1700;

/** The file and page that a cover shows. A picture of one's own has no page. */
export interface CoverOf {
	readonly sha256: string;
	readonly page: number | null;
}

/** Of which picture or page the covers of an edition are made. */
export function coverOf(edition: { sha256: string }, cover: Cover | null): CoverOf {
	return cover === null || cover.kind === 'page' ? { sha256: edition.sha256, page: cover?.page ?? 1 } : { sha256: cover.sha256, page: null };
}

const coverName = ({ page }: CoverOf, width: number) => (page === null ? `cover-${width}.webp` : `cover-${page}-${width}.webp`);

/** Makes the covers of all widths from a drawing or picture; none is wider than that has pixels. */
async function makeCovers(cover: CoverOf, drawing: Sharp): Promise<void> {
	// each is made from the next larger one, so that the drawing is read once
	let from = drawing;
	for (const width of [...coverWidths].reverse()) {
		const { data, info } = await from.resize({ width, withoutEnlargement: true }).raw().toBuffer({ resolveWithObject: true });
		const raw = { width: info.width, height: info.height, channels: info.channels };
		const temporary = await temporaryPath('.webp');
		await sharp(data, { raw }).webp({ quality: 82, effort: 0 }).toFile(temporary);
		await settle(temporary, madePath(cover.sha256, coverName(cover, width)));
		from = sharp(data, { raw });
	}
}

/** Draws a page of a file, wherever it lies, and makes its covers; false where it cannot be drawn. */
export async function coverFrom(pdf: string, sha256: string, page: number): Promise<boolean> {
	const drawing = await drawPage(pdf, page, coverSide);
	if (!drawing) return false;
	try {
		await makeCovers({ sha256, page }, imageOf(drawing));
		return true;
	} catch (error) {
		// no room left is not the file's fault: the check is tried again
		if ((error as { code?: string }).code === 'ENOSPC') throw error;
		return false;
	}
}

/** Makes the covers again from a page or a picture in the store; false where they cannot be made. */
export async function remakeCovers(cover: CoverOf): Promise<boolean> {
	if (cover.page !== null) return coverFrom(await original(cover.sha256), cover.sha256, cover.page);
	await makeCovers(
		cover,
		sharp(await original(cover.sha256), { limitInputPixels: mostPixels })
			.rotate()
			.flatten({ background: '#ffffff' })
	);
	return true;
}

/** The path of a cover, made again for a place where it was thrown away; null where it cannot be made. Throws `busy` where too many wait. */
export async function coverPath(cover: CoverOf, width: CoverWidth, place: string): Promise<string | null> {
	const path = madePath(cover.sha256, coverName(cover, width));
	if (await exists(path)) return path;
	const [small, larger] = coverWidths;
	// covers from before there were small ones
	if (width === small && (await smallFrom(madePath(cover.sha256, coverName(cover, larger)), path))) return path;
	const name = `${cover.sha256} ${cover.page}`;
	let remade = remaking.get(name);
	if (!remade) {
		remade = drawLane.run(place, () => runInWorker('covers', cover)).finally(() => remaking.delete(name));
		remaking.set(name, remade);
	}
	return (await remade) ? path : null;
}

const remaking = new Map<string, Promise<boolean>>();

/** Makes the smallest cover from the next larger; false where that is not there. */
async function smallFrom(larger: string, path: string): Promise<boolean> {
	if (!(await exists(larger))) return false;
	const temporary = await temporaryPath('.webp');
	await sharp(larger).resize({ width: coverWidths[0], withoutEnlargement: true }).webp({ quality: 82 }).toFile(temporary);
	await settle(temporary, path);
	return true;
}

/** The cover of a document of which nothing can be drawn: an empty leaf with our arch. */
export async function plainCover(width: CoverWidth): Promise<string> {
	const path = madePath('0'.repeat(64), `cover-${width}.webp`);
	if (await exists(path)) return path;
	const leaf = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 210 297" width="${width}" height="${Math.round((width * 297) / 210)}"><path fill="#f4f1ea" d="M0 0h210v297H0z"/><path fill="none" stroke="#b9b29f" stroke-width="5" d="M72 190v-45a33 33 0 0 1 66 0v45z"/></svg>`;
	const temporary = await temporaryPath('.webp');
	await sharp(Buffer.from(leaf)).webp({ quality: 82 }).toFile(temporary);
	await settle(temporary, path);
	return path;
}

/** A picture as JPEG, on white where it lets through. */
export const asJpeg = (path: string): Promise<Buffer> => sharp(path).flatten({ background: '#ffffff' }).jpeg({ quality: 84 }).toBuffer();

/** A picture that was made: kept at a path, or, where there is no room to keep it, only now. */
export type Made = { readonly path: string } | { readonly content: Buffer };

/** A page's picture, made for a place when first asked for; null where it cannot be drawn. Throws `busy` where too many wait to be drawn. */
export async function leafPicture(sha256: string, page: number, wish: number, place: string): Promise<Made | null> {
	const width = leafWidths.find((w) => w >= wish) ?? leafWidths[leafWidths.length - 1]!;
	const path = madePath(sha256, `leaf-${page}-${width}.webp`);
	if (await exists(path)) return { path };
	// many who ask for the same page at once wait for one drawing
	let drawn = drawing.get(path);
	if (!drawn) {
		drawn = drawLane.run(place, () => drawLeaf(sha256, page, width, path)).finally(() => drawing.delete(path));
		drawing.set(path, drawn);
	}
	return drawn;
}

const drawing = new Map<string, Promise<Made | null>>();

async function drawLeaf(sha256: string, page: number, width: number, path: string): Promise<Made | null> {
	const drawn = await drawPage(await original(sha256), page, Math.round(width * 1.5));
	if (!drawn) return null;
	const content = await imageOf(drawn).resize({ width, withoutEnlargement: true }).webp({ quality: 84 }).toBuffer();
	try {
		const temporary = await temporaryPath('.webp');
		try {
			await writeFile(temporary, content, { mode: 0o600 });
			await settle(temporary, path);
		} finally {
			await rm(temporary, { force: true });
		}
		return { path };
	} catch (err) {
		log().warn({ err }, 'a page’s picture could not be kept');
		return { content };
	}
}
