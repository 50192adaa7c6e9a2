// After a server was stopped in the middle: begins again what was begun, and clears what belongs to nothing.
import { lstat } from 'node:fs/promises';
import { setAsideDays } from '#core/documents/aside';
import { forgetReaders } from '../readership/sums';
import { sql } from '../db/client';
import { discard, dropTemporary, originals } from '../files/store';
import { dropUpload, uploadIds } from '../files/uploads';
import { queueJob } from '../jobs/boss';
import { log } from '../log';
import { forgetOldTries } from '../people/attempts';
import { forgetStale, livingIntakes, waitingIntakes } from './tray';
import { uncheckedEditions } from './check';

/** Days after which an upload that has not moved is forgotten. */
const staleAfter = 7;
const hourMs = 3_600_000;

/** Queues every file that has arrived and every edition not checked. What somebody is at is left alone by the job itself. */
export async function beginAgain(): Promise<void> {
	for (const intake of await waitingIntakes()) await queueJob('take-in', { intake }, intake);
	for (const edition of await uncheckedEditions()) await queueJob('check', { edition }, edition);
}

/** Removes uploads that nobody goes on with, files no edition has, and unfinished ones; gives how many of each. */
export async function sweep(now: number): Promise<{ uploads: number; blobs: number; unfinished: number; forgotten: number }> {
	let uploads = 0;
	let blobs = 0;
	for (const id of await forgetStale(staleAfter)) {
		await dropUpload(id);
		uploads++;
	}
	const living = await livingIntakes();
	for (const id of await uploadIds()) {
		if (living.has(id)) continue;
		await dropUpload(id);
		uploads++;
	}
	// a file lies in the store a moment before the row that names it: only those older than an hour can be strays
	for (const { sha256, path } of await originals()) {
		const { ctimeMs } = await lstat(path);
		if (now - ctimeMs < hourMs) continue;
		const [used] = await sql()`select 1 from edition where sha256 = ${sha256} union all select 1 from document where cover->>'sha256' = ${sha256}
			union all select 1 from picture where sha256 = ${sha256} limit 1`;
		if (used) continue;
		await discard(sha256);
		blobs++;
	}
	const unfinished = await dropTemporary(now);
	const forgotten = await forgetSetAside();
	await forgetReaders(now);
	await forgetOldTries();
	const swept = { uploads, blobs, unfinished, forgotten };
	if (uploads + blobs + unfinished + forgotten) log().info(swept, 'swept');
	return swept;
}

/** Documents set aside for longer than that lose their files and words; address and ledger stay, and answer 410. */
async function forgetSetAside(): Promise<number> {
	const rows = await sql()<{ id: string }[]>`
		update document set gone_at = now() where gone_at is null and set_aside_at < now() - make_interval(days => ${setAsideDays}) returning id`;
	for (const { id } of rows) {
		const files = await sql()<{ sha256: string }[]>`
			select distinct e.sha256 from edition e where e.document_id = ${id}
				and not exists (select 1 from edition o join document d on d.id = o.document_id where o.sha256 = e.sha256 and d.gone_at is null)`;
		await sql()`delete from edition_page where edition_id in (select id from edition where document_id = ${id})`;
		await sql()`select find_text(${id})`;
		await sql()`delete from placement where document_id = ${id}`;
		for (const { sha256 } of files) await discard(sha256);
	}
	return rows.length;
}
