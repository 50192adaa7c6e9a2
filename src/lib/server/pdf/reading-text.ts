// The reading text of an edition: of each page from the file's tags where they hold what is written, else from its lines. Made in parts when first asked for,
// and kept.
import { readFile, rm, writeFile } from 'node:fs/promises';
import { flow, type PageText } from '#core/reading/flow';
import { blocksOfStructure, coverage } from '#core/reading/structure';
import { sql } from '../db/client';
import { exists, madePath, original, settle, temporaryPath } from '../store/store';
import { drawLane } from '../lanes';
import { log } from '../log';
import { runInWorker } from './helpers';
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
	const pages = await fromLines(edition, part);
	const [first, last] = [pages[0]?.page ?? 1, pages.at(-1)?.page ?? 1];
	const words = await sql()<{ page: number; body: string }[]>`
		select p.page, p.body from edition_page p join edition e on e.id = p.edition_id
		where e.id = ${edition.id} and (e.facts->>'tagged')::boolean and p.page between ${first} and ${last}`;
	if (words.length) {
		const bodies = new Map(words.map(({ page, body }) => [page, body]));
		const trees = await runInWorker('tags', { sha256: edition.sha256, from: first, until: last }).catch((error: unknown) => {
			log().warn({ err: error, edition: edition.id }, 'tags could not be read');
			return [];
		});
		for (const [i, tree] of trees.entries()) {
			const { page } = pages[i]!;
			const blocks = tree ? blocksOfStructure(tree) : [];
			if (tree && coverage(blocks, bodies.get(page) ?? '') >= leastCoverage) pages[i] = { page, blocks };
		}
	}
	const temporary = await temporaryPath('.json');
	await writeFile(temporary, JSON.stringify(pages));
	await settle(temporary, partPath(edition.sha256, part));
}

async function fromLines({ sha256, pages }: TextEdition, part: number): Promise<PageText[]> {
	const first = part * pagesAtOnce + 1;
	const [from, until] = [Math.max(1, first - around), Math.min(pages, first + pagesAtOnce - 1 + around)];
	const boxes = await temporaryPath('.html');
	try {
		const args = ['-bbox-layout', '-cropbox', '-enc', 'UTF-8', '-f', String(from), '-l', String(until), await original(sha256), boxes];
		const { code } = await run('pdftotext', args, limits.text);
		const sheets = code === 0 ? readSheets(await readFile(boxes, 'utf8')) : [];
		const made = new Map(flow(sheets.map((sheet, i) => ({ page: from + i, ...sheet }))).map((one) => [one.page, one]));
		// a page of which nothing can be read is shown as it is printed
		return Array.from({ length: Math.min(pages, first + pagesAtOnce - 1) - first + 1 }, (_, i) => made.get(first + i) ?? { page: first + i, blocks: [] });
	} finally {
		await rm(boxes, { force: true });
	}
}
