// After a server was stopped in the middle: begins again what was begun, and puts by what belongs to nothing.
import { maySweep } from '#core/upkeep/sweep';
import { readershipOf } from '#core/readership/settings';
import { forgetWebsitePeople } from '../access/websites';
import { forgetReaders } from '../readership/sums/keep';
import { dropOldDeliveries } from '../readership/deliveries';
import { sql } from '../db/client';
import { dropOldIdempotencyKeys } from '../http/idempotency';
import { letGoOfAside } from '../documents/commands';
import { bringBack, dropPutBy, dropStamped, dropTemporary, originals, putBy, putByList } from '../store/store';
import { uploads } from '../store/uploads';
import { queueJob } from '../jobs/boss';
import { log } from '../log';
import { forgetOldTries } from '../people/attempts';
import { dropOldSessions } from '../people/sessions';
import { settings } from '../settings';
import { dropPlacements } from '../placing/placed';
import { dropOldTrail } from '../site/audit';
import { drop, keep } from '../site/kept';
import { site } from '../site/site';
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

/** What a sweep did not do, and why; null where the last one did all. */
export interface SweepStopped {
	readonly at: string;
	/** Files that no row points to, of how many. */
	readonly strays: number;
	readonly of: number;
}

/** What the last sweep cleared and found; null before the first. */
export async function sweepStopped(): Promise<SweepStopped | null> {
	const [row] = await sql()<{ value: SweepStopped }[]>`select value from setting where key = 'sweep-stopped'`;
	return row?.value ?? null;
}

async function isUsed(sha256: string): Promise<boolean> {
	const [used] = await sql()`select 1 from edition e join document d on d.id = e.document_id where e.sha256 = ${sha256} and d.gone_at is null
		union all select 1 from document where cover->>'sha256' = ${sha256} union all select 1 from picture where sha256 = ${sha256} limit 1`;
	return used !== undefined;
}

/** Days for which stamped copies are kept. */
const stampedDays = 3;

/**
 * Puts by uploads that nobody goes on with and files that no row points to, deletes what was put by a month ago, and clears what was made
 * and is not needed; gives how many of each. Where so many files have no row that something else must be wrong, it leaves them all and says so.
 */
export async function sweep(now: number): Promise<{ uploads: number; blobs: number; unfinished: number; forgotten: number }> {
	const unfinished = await dropTemporary(now);
	await forgetReaders(now);
	await forgetOldTries();
	await dropOldSessions();
	await dropOldDeliveries();
	await dropOldIdempotencyKeys();
	await dropOldTrail(settings().IANUA_TRAIL_MONTHS || null);
	await forgetWebsitePeople(readershipOf((await site()).readership).months);
	await dropStamped(now, stampedDays);

	const all = await originals();
	const strays: string[] = [];
	for (const { sha256, at } of all) {
		// a file lies in the store a moment before the row that names it: only those older than an hour can be strays
		if (now - at >= hourMs && !(await isUsed(sha256))) strays.push(sha256);
	}
	if (!maySweep(strays.length, all.length)) {
		const stopped: SweepStopped = { at: new Date(now).toISOString(), strays: strays.length, of: all.length };
		await keep('sweep-stopped', { ...stopped });
		log().error(stopped, 'the sweep did nothing: so many files have no row that the database is not the right one, or has lost some');
		return { uploads: 0, blobs: 0, unfinished, forgotten: 0 };
	}
	await drop('sweep-stopped');
	for (const sha256 of strays) await putBy(sha256, now);
	for (const { name, day } of await putByList()) if (/^[0-9a-f]{64}$/.test(name) && (await isUsed(name))) await bringBack(name, day);
	let stopped = 0;
	const stale = await forgetStale(staleAfter);
	const living = await livingIntakes();
	for (const id of new Set([...stale, ...(await uploads().ids()).filter((id) => !living.has(id))])) {
		await uploads().putBy(id, now);
		stopped++;
	}
	const forgotten = await forgetSetAside(now);
	await dropPutBy(now);
	const swept = { uploads: stopped, blobs: strays.length, unfinished, forgotten };
	if (stopped + swept.blobs + unfinished + forgotten) log().info(swept, 'swept');
	return swept;
}

/** Documents set aside for longer than that lose their files and words; address and ledger stay, and answer 410. */
async function forgetSetAside(now: number): Promise<number> {
	const gone = await letGoOfAside();
	for (const id of gone) {
		const files = await sql()<{ sha256: string }[]>`
			select distinct e.sha256 from edition e where e.document_id = ${id}
				and not exists (select 1 from edition o join document d on d.id = o.document_id where o.sha256 = e.sha256 and d.gone_at is null)`;
		await sql()`delete from edition_page where edition_id in (select id from edition where document_id = ${id})`;
		await sql()`select find_text(${id})`;
		await dropPlacements(id);
		for (const { sha256 } of files) await putBy(sha256, now);
	}
	return gone.length;
}
