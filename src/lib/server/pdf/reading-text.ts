// The reading text of an edition: from the file's tags where they hold what is written, else from its lines. Made in parts when first asked for,
// and kept.
import { readFile, rm, writeFile } from 'node:fs/promises';
import { flow, type PageText } from '#core/reading/flow';
import { blocksOfStructure, coverage, onPages, readStructure } from '#core/reading/structure';
import { sql } from '../db/client';
import { exists, madePath, pathOf, settle, temporaryPath } from '../files/store';
import { drawLane } from '../lanes';
import { readSheets } from './leaf-text';
import { limits, run } from './run';

/** So many pages are made, kept and shown together. */
export const pagesAtOnce = 10;
/** Pages around them that are looked at too, so that running heads are told from text. */
const around = 2;
/** Tags that hold less than this of the letters are not gone by. */
const leastCoverage = 0.6;

export interface TextEdition {
	readonly id: string;
	readonly sha256: string;
	readonly pages: number;
}

/** Which part a page is in, from 0. */
export const partOf = (page: number): number => Math.floor((page - 1) / pagesAtOnce);

const partPath = (sha256: string, part: number) => madePath(sha256, `text-${part}.json`);
const making = new Map<string, Promise<void>>();

/** The reading text of the part in which a page is, for somebody at a place. Throws `busy` where too much waits to be made. */
export async function readingText(edition: TextEdition, page: number, place: string): Promise<readonly PageText[]> {
	const part = partOf(page);
	const path = partPath(edition.sha256, part);
	if (!(await exists(path))) {
		let made = making.get(path);
		if (!made) {
			made = drawLane.run(place, () => make(edition, part)).finally(() => making.delete(path));
			making.set(path, made);
		}
		await made;
	}
	return JSON.parse(await readFile(path, 'utf8')) as PageText[];
}

async function make(edition: TextEdition, part: number): Promise<void> {
	const words = await sql()<{ page: number; body: string; tagged: boolean | null }[]>`
		select p.page, p.body, (e.facts->>'tagged')::boolean as tagged from edition_page p join edition e on e.id = p.edition_id where e.id = ${edition.id} order by p.page`;
	if (words[0]?.tagged && (await makeFromTags(edition, words))) return;
	await keepPart(edition.sha256, part, await fromLines(edition, part));
}

async function keepPart(sha256: string, part: number, pages: readonly PageText[]): Promise<void> {
	const temporary = await temporaryPath('.json');
	await writeFile(temporary, JSON.stringify(pages));
	await settle(temporary, partPath(sha256, part));
}

/** Makes every part from the file's tags; false where they hold too little. */
async function makeFromTags(edition: TextEdition, words: readonly { page: number; body: string }[]): Promise<boolean> {
	const { code, output } = await run('pdfinfo', ['-struct-text', '-enc', 'UTF-8', pathOf(edition.sha256)], limits.text);
	if (code !== 0) return false;
	const known = new Set(words.flatMap(({ body }) => body.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []));
	const blocks = blocksOfStructure(readStructure(output), known);
	const bodies = new Map(words.map(({ page, body }) => [page, body]));
	const pages = Array.from({ length: edition.pages }, (_, i) => ({ page: i + 1, text: bodies.get(i + 1) ?? '' }));
	if (coverage(blocks, pages) < leastCoverage) return false;
	const placed = onPages(blocks, pages);
	for (let part = 0; part <= partOf(edition.pages); part++) await keepPart(edition.sha256, part, placed.slice(part * pagesAtOnce, (part + 1) * pagesAtOnce));
	return true;
}

async function fromLines({ sha256, pages }: TextEdition, part: number): Promise<PageText[]> {
	const first = part * pagesAtOnce + 1;
	const [from, until] = [Math.max(1, first - around), Math.min(pages, first + pagesAtOnce - 1 + around)];
	const boxes = await temporaryPath('.html');
	try {
		const args = ['-bbox-layout', '-cropbox', '-enc', 'UTF-8', '-f', String(from), '-l', String(until), pathOf(sha256), boxes];
		const { code } = await run('pdftotext', args, limits.text);
		const sheets = code === 0 ? readSheets(await readFile(boxes, 'utf8')) : [];
		return flow(sheets.map((sheet, i) => ({ page: from + i, ...sheet }))).filter(({ page }) => page >= first && page < first + pagesAtOnce);
	} finally {
		await rm(boxes, { force: true });
	}
}
