// Files that travel inside a PDF, taken out by qpdf when first asked for and kept beside the store.
import { open, readFile, rm, writeFile } from 'node:fs/promises';
import { IanuaError } from '#core/errors';
import { exists, madePath, original, settle, temporaryPath } from '../store/store';
import { unpackLane } from '../lanes';
import { limits, run } from './run';

const MiB = 1024 * 1024;

interface Attachment {
	readonly key: string;
	readonly name: string;
}

const reading = new Map<string, Promise<readonly Attachment[]>>();

/** Keys and names of the attachments, in the order of the file's name tree; read from the file once. */
async function listedOnce(sha256: string, place: string): Promise<readonly Attachment[]> {
	const path = madePath(sha256, 'attachments.json');
	const kept = await readFile(path, 'utf8').catch(() => null);
	if (kept) return JSON.parse(kept) as Attachment[];
	let read = reading.get(sha256);
	if (!read) reading.set(sha256, (read = unpackLane.run(place, () => listed(sha256, path)).finally(() => reading.delete(sha256))));
	return read;
}

async function listed(sha256: string, path: string): Promise<readonly Attachment[]> {
	const { code, output } = await run('qpdf', ['--json', '--json-key=attachments', await original(sha256)], { ...limits.structure, output: 16 * MiB });
	if (code !== 0 && code !== 3) return [];
	let list: Attachment[];
	try {
		const { attachments = {} } = JSON.parse(output) as { attachments?: Record<string, { preferredname?: string }> };
		list = Object.entries(attachments).map(([key, a]) => ({ key, name: a.preferredname || key }));
	} catch {
		return [];
	}
	const temporary = await temporaryPath('.json');
	try {
		await writeFile(temporary, JSON.stringify(list), { mode: 0o600 });
		await settle(temporary, path);
	} catch {
		// no room to keep it: it is read again the next time
		await rm(temporary, { force: true });
	}
	return list;
}

/** What is being taken out: many who ask for the same at once wait for one qpdf. */
const underWay = new Map<string, Promise<string | null>>();

/**
 * An attachment's file and name by its number from 1, taken out for a place when first asked for; null where there is none, or where it cannot
 * be taken out. Throws `busy` where too many wait.
 */
export async function attachmentPath(sha256: string, number: number, place: string): Promise<{ path: string; name: string } | null> {
	const attachment = (await listedOnce(sha256, place))[number - 1];
	if (!attachment) return null;
	const path = madePath(sha256, `attachment-${number}.bin`);
	if (await exists(path)) return { path, name: attachment.name };
	let taken = underWay.get(path);
	if (!taken) underWay.set(path, (taken = unpackLane.run(place, () => takeOut(sha256, attachment.key, path)).finally(() => underWay.delete(path))));
	const there = await taken;
	return there === null ? null : { path: there, name: attachment.name };
}

/** Throws `no-room` where the disk is full. */
async function takeOut(sha256: string, key: string, path: string): Promise<string | null> {
	const temporary = await temporaryPath('.bin');
	try {
		const file = await open(temporary, 'wx', 0o600);
		try {
			const bound = { ...limits.structure, output: 256 * MiB };
			const { code, unwritten } = await run('qpdf', [`--show-attachment=${key}`, await original(sha256)], bound, file);
			if (unwritten) throw ['ENOSPC', 'EDQUOT'].includes(unwritten.code ?? '') ? new IanuaError('no-room') : unwritten;
			if (code !== 0 && code !== 3) return null;
			await file.sync();
		} finally {
			await file.close();
		}
		await settle(temporary, path);
		return path;
	} finally {
		await rm(temporary, { force: true });
	}
}
