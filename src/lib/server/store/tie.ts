// Database and store carry the same random id. A server whose two do not belong together says so and does not start: it would serve nothing that
// is there, and sweep away everything that is not its own.
import { randomUUID } from 'node:crypto';
import { mkdir } from 'node:fs/promises';
import { sql } from '../db/client';
import { keepOnce } from '../site/kept';
import { settings } from '../settings';
import { wordsUnder } from './object-store';
import { known, objects, pathOf } from './store';

const idName = 'site-id';

/** Editions looked for where database or store is from before there were ids. */
const looked = 200;

/** How many of the database's editions lie in the store, of those looked for. */
async function found(): Promise<{ there: number; of: number }> {
	const rows = await sql()<{ sha256: string }[]>`
		select distinct e.sha256 from edition e join document d on d.id = e.document_id where d.gone_at is null order by e.sha256 limit ${looked}`;
	let there = 0;
	for (const { sha256 } of rows) if (await known(pathOf(sha256))) there++;
	return { there, of: rows.length };
}

async function isEmpty(): Promise<boolean> {
	for await (const _ of objects().list('originals/')) return false;
	return true;
}

/**
 * Looks whether database and store belong together, and ties the two of a new site. Throws, with what can be done, where they do not.
 */
export async function tieStore(): Promise<void> {
	await mkdir(settings().files, { recursive: true, mode: 0o700 });
	const store = objects().place;
	const inStore = (await wordsUnder(objects(), idName))?.trim() ?? null;
	const [row] = await sql()<{ id: string }[]>`select value ->> 'id' as id from setting where key = 'site-id'`;
	const inDatabase = row?.id ?? null;
	if (inStore && inDatabase) {
		if (inStore === inDatabase) return;
		throw new Error(
			`The store in ${store} belongs to another site than the database: its site id is ${inStore}, the database’s ${inDatabase}. Set IANUA_FILES or IANUA_DATABASE_URL to the two that belong together.`
		);
	}
	const [{ there, of }, empty] = [await found(), await isEmpty()];
	// both new, or both from before there were ids and full of each other
	const together = of === 0 ? empty : there === of || there >= of * 0.95;
	if (!together)
		throw new Error(
			`The store in ${store} and the database do not belong together: ${of ? `of ${of} files that the database knows ${there} are there` : 'files lie there, and the database knows of none'}. If they do, write ${
				inDatabase ?? inStore ?? 'a site id'
			} into the file site-id of the store${inDatabase ? '' : ' and into the row site-id of the table setting'}.`
		);
	const id = inDatabase ?? inStore ?? randomUUID();
	await keepOnce('site-id', { id });
	if (!inStore && !(await objects().putNew(idName, `${id}\n`))) throw new Error(`The store in ${store} has just been tied to another site. Start again.`);
}
