// The store: bytes under their SHA-256, written to a temporary name, synced, renamed, never changed. Things made from them
// (covers, leaves) stand apart and can be thrown away. Only server/reading and server/intake come here.
import { createHash } from 'node:crypto';
import { constants } from 'node:fs';
import { access, mkdir, open, readdir, rename, rm, stat, type FileHandle } from 'node:fs/promises';
import { join } from 'node:path';
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
	await mkdir(dir, { recursive: true });
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
	await mkdir(dir, { recursive: true });
	await rename(temporary, path);
	const handle = await open(dir, constants.O_RDONLY);
	await handle.sync().finally(() => handle.close());
}

export async function exists(path: string): Promise<boolean> {
	return access(path).then(
		() => true,
		() => false
	);
}

/** Takes the bytes of a checksum away: only for an intake that failed after keeping them. */
export async function discard(sha256: string): Promise<void> {
	await rm(pathOf(sha256), { force: true });
	await rm(join(madePath(sha256, 'x'), '..'), { recursive: true, force: true });
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

/** Whether the store can be written to: for /healthz. */
export async function storeAnswers(): Promise<boolean> {
	return mkdir(folder(), { recursive: true })
		.then(() => access(folder(), constants.W_OK | constants.R_OK))
		.then(
			() => true,
			() => false
		);
}
