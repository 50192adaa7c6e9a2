// The store: bytes under their SHA-256, written to a temporary name, synced, renamed, never changed. Things made from them
// (covers, leaves) stand apart and can be thrown away. Only server/reading and server/intake come here.
import { createHash } from 'node:crypto';
import { constants } from 'node:fs';
import { access, chmod, mkdir, open, readdir, rename, rm, rmdir, stat, writeFile, type FileHandle } from 'node:fs/promises';
import { join } from 'node:path';
import { putByDays } from '#core/upkeep/sweep';
import { newId } from '../id';
import { settings } from '../settings';

const folder = () => settings().files;

/** Where the bytes of a checksum lie: two levels of folders keep each small. */
export function pathOf(sha256: string): string {
	if (!/^[0-9a-f]{64}$/.test(sha256)) throw new RangeError('not a SHA-256');
	return join(folder(), 'originals', sha256.slice(0, 2), sha256.slice(2, 4), sha256);
}

/** Where a thing made from an original lies, as in `madePath(sha, 'cover-300.webp')`. */
export function madePath(sha256: string, name: string): string {
	if (!/^[0-9a-f]{64}$/.test(sha256) || !/^[a-z0-9][a-z0-9.-]*$/.test(name)) throw new RangeError('not a made thing');
	return join(folder(), 'made', sha256.slice(0, 2), sha256, name);
}

/** A fresh path for something not yet finished; `dropTemporary` clears what a stopped server left. */
export async function temporaryPath(suffix = ''): Promise<string> {
	const dir = join(folder(), 'unfinished');
	await mkdir(dir, { recursive: true, mode: 0o700 });
	return join(dir, newId() + suffix);
}

export interface Received {
	readonly path: string;
	readonly sha256: string;
	readonly bytes: number;
}

/** Thrown by `receive` when more arrives than `limit`. */
export class TooLarge extends Error {}

/** Writes a stream to a temporary file, taking its checksum on the way, and syncs it. On any error nothing is left. */
export async function receive(stream: AsyncIterable<Uint8Array>, limit: number): Promise<Received> {
	const path = await temporaryPath('.part');
	const hash = createHash('sha256');
	let bytes = 0;
	let file: FileHandle | undefined;
	try {
		file = await open(path, 'wx', 0o600);
		for await (const chunk of stream) {
			bytes += chunk.length;
			if (bytes > limit) throw new TooLarge();
			hash.update(chunk);
			await file.write(chunk);
		}
		await file.sync();
		await file.close();
		return { path, sha256: hash.digest('hex'), bytes };
	} catch (error) {
		await file?.close().catch(() => {});
		await rm(path, { force: true });
		throw error;
	}
}

/** Moves a received file to its place. The same bytes brought in twice lie there once. */
export async function keep(received: Received): Promise<void> {
	await settle(received.path, pathOf(received.sha256));
}

/** Moves a finished temporary file to a path and makes the move last. */
export async function settle(temporary: string, path: string): Promise<void> {
	const dir = join(path, '..');
	// whom a proxy in front runs as reads what it gives: it is in our group
	const shared = settings().IANUA_FILES_BY_PROXY !== undefined;
	await mkdir(dir, { recursive: true, mode: shared ? 0o750 : 0o700 });
	if (shared) await chmod(temporary, 0o640);
	await rename(temporary, path);
	const handle = await open(dir, constants.O_RDONLY);
	await handle.sync().finally(() => handle.close());
}

/** Whether a file can be read at a path. */
export async function exists(path: string): Promise<boolean> {
	return access(path).then(
		() => true,
		() => false
	);
}

const putByFolder = () => join(folder(), 'put-by');
const dayMs = 86_400_000;

/**
 * Puts the bytes of a checksum by: they are out of the way, and can be had back for 30 days. What was made from them goes; it can be made
 * again.
 */
export async function putBy(sha256: string, now: number): Promise<void> {
	await putFileBy(pathOf(sha256), sha256, now);
	await rm(join(madePath(sha256, 'x'), '..'), { recursive: true, force: true });
}

/** Puts any file of the store by under a name. */
export async function putFileBy(path: string, name: string, now: number): Promise<void> {
	const dir = join(putByFolder(), new Date(now).toISOString().slice(0, 10));
	await mkdir(dir, { recursive: true, mode: 0o700 });
	await rename(path, join(dir, name)).catch((error: unknown) => {
		if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
	});
}

/** What is put by, with the day on which that was done. */
export async function putByList(): Promise<{ name: string; path: string; day: string }[]> {
	const list: { name: string; path: string; day: string }[] = [];
	for (const day of await readdir(putByFolder()).catch(() => [] as string[]))
		for (const name of await readdir(join(putByFolder(), day)).catch(() => [] as string[])) list.push({ name, day, path: join(putByFolder(), day, name) });
	return list;
}

/** Brings an original back that was put by. */
export async function bringBack(sha256: string, from: string): Promise<void> {
	if (await exists(pathOf(sha256))) return;
	await settle(from, pathOf(sha256));
}

/** Deletes what was put by longer ago than that, and tells how much. */
export async function dropPutBy(now: number): Promise<number> {
	let dropped = 0;
	for (const { path, day } of await putByList())
		if (now - Date.parse(day) > putByDays * dayMs) {
			await rm(path, { force: true });
			dropped++;
		}
	for (const day of await readdir(putByFolder()).catch(() => [] as string[])) await rmdir(join(putByFolder(), day)).catch(() => {});
	return dropped;
}

/** Copies with a name on them that were made longer ago than so many days: they are made again where somebody asks. */
export async function dropStamped(now: number, days: number): Promise<number> {
	let dropped = 0;
	const found = await readdir(join(folder(), 'made'), { recursive: true, withFileTypes: true }).catch(() => []);
	for (const file of found) {
		if (!file.isFile() || !file.name.startsWith('stamped-')) continue;
		const path = join(file.parentPath, file.name);
		if (now - (await stat(path)).mtimeMs < days * dayMs) continue;
		await rm(path, { force: true });
		dropped++;
	}
	return dropped;
}

/** Every original in the store. */
export async function originals(): Promise<{ sha256: string; path: string }[]> {
	const found = await readdir(join(folder(), 'originals'), { recursive: true, withFileTypes: true }).catch(() => []);
	return found.filter((f) => f.isFile() && /^[0-9a-f]{64}$/.test(f.name)).map((f) => ({ sha256: f.name, path: pathOf(f.name) }));
}

/** Removes unfinished files older than a day, and tells how many. Called at start. */
export async function dropTemporary(now: number): Promise<number> {
	const dir = join(folder(), 'unfinished');
	let dropped = 0;
	for (const name of await readdir(dir).catch(() => [] as string[])) {
		const path = join(dir, name);
		const { mtimeMs } = await stat(path);
		if (now - mtimeMs > 24 * 3_600_000) {
			await rm(path, { force: true, recursive: true });
			dropped++;
		}
	}
	return dropped;
}

/** Whether the store can be written to, by writing a byte: a disk that is full or was made read-only says yes until it is tried. */
export async function storeAnswers(): Promise<boolean> {
	try {
		const path = await temporaryPath('.byte');
		await writeFile(path, '.', { mode: 0o600, flush: true });
		await rm(path);
		return true;
	} catch {
		return false;
	}
}
