// Pictures of pages: covers and leaves, drawn by pdftoppm once and kept beside the store as WebP.
import { rm } from 'node:fs/promises';
import sharp from 'sharp';
import { exists, madePath, pathOf, settle, temporaryPath } from '../files/store';
import { limits, run } from './run';

export const coverWidths = [300, 600, 1200] as const;
export type CoverWidth = (typeof coverWidths)[number];

/** Widths of leaves that are made; a wish in between gets the next larger, so that the kept pictures stay few. */
export const leafWidths = [800, 1200, 1800, 2400] as const;

/** Draws a page so that its longer side is `size` px, to a TIFF (quick to write, exact) at a temporary path; null where it cannot be drawn. */
export async function drawPage(pdf: string, page: number, size: number): Promise<string | null> {
	const stem = await temporaryPath();
	const drawn = await run(
		'pdftoppm',
		['-singlefile', '-cropbox', '-f', String(page), '-l', String(page), '-scale-to', String(size), '-tiff', '-tiffcompression', 'none', pdf, stem],
		limits.cover
	);
	const path = `${stem}.tif`;
	if (drawn.code === 0 && (await exists(path))) return path;
	await rm(path, { force: true });
	return null;
}

/** Makes the three covers of an original from a drawing of a page. */
async function makeCovers(sha256: string, drawing: string): Promise<void> {
	await Promise.all(
		coverWidths.map(async (width) => {
			const temporary = await temporaryPath('.webp');
			await sharp(drawing).flatten({ background: '#ffffff' }).resize({ width, withoutEnlargement: true }).webp({ quality: 82 }).toFile(temporary);
			await settle(temporary, madePath(sha256, `cover-${width}.webp`));
		})
	);
}

/** Makes the covers of a file not yet in its place; false where page 1 cannot be drawn. */
export async function coverFrom(pdf: string, sha256: string): Promise<boolean> {
	const drawing = await drawPage(pdf, 1, 1700);
	if (!drawing) return false;
	try {
		await makeCovers(sha256, drawing);
		return true;
	} catch {
		return false;
	} finally {
		await rm(drawing, { force: true });
	}
}

/** The path of a cover, made again where it was thrown away; null where it cannot be made. */
export async function coverPath(sha256: string, width: CoverWidth): Promise<string | null> {
	const path = madePath(sha256, `cover-${width}.webp`);
	if (await exists(path)) return path;
	return (await coverFrom(pathOf(sha256), sha256)) ? path : null;
}

/** The path of a page's picture, made when first asked for; null where it cannot be drawn. */
export async function leafPath(sha256: string, page: number, wish: number): Promise<string | null> {
	const width = leafWidths.find((w) => w >= wish) ?? leafWidths[leafWidths.length - 1]!;
	const path = madePath(sha256, `leaf-${page}-${width}.webp`);
	if (await exists(path)) return path;
	const drawing = await drawPage(pathOf(sha256), page, Math.round(width * 1.5));
	if (!drawing) return null;
	const temporary = await temporaryPath('.webp');
	try {
		await sharp(drawing).flatten({ background: '#ffffff' }).resize({ width, withoutEnlargement: true }).webp({ quality: 84 }).toFile(temporary);
		await settle(temporary, path);
		return path;
	} finally {
		await rm(drawing, { force: true });
	}
}
