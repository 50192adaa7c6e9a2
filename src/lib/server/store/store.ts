// The store: originals under their SHA-256, never changed; things made from them (covers, leaves), which can be thrown away; what is put by.
// All of it lies in an object store (object-store.ts): a folder of this machine, or a bucket. What works on files works on files of this
// machine: of a bucket the ones last asked for are near, as copies. Only server/reading, server/intake and server/pdf come here.
import { createHash } from 'node:crypto';
import { access, mkdir, open, readdir, rename, rm, stat, utimes, writeFile, type FileHandle } from 'node:fs/promises';
import { createWriteStream } from 'node:fs';
import { dirname, join, relative, sep } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { putByDays } from '#core/upkeep/sweep';
import { newId } from '../id';
import { log } from '../log';
import { settings } from '../settings';
import type { ObjectStore } from './object-store';
import { openStore } from './open-store';

const folder = () => settings().files;

let opened: ObjectStore | undefined;

/** The object store of the settings. */
export function objects(): ObjectStore {
	const { bucket, files, IANUA_FILES_BY_PROXY } = settings();
	return (opened ??= openStore({ bucket, files, shared: IANUA_FILES_BY_PROXY !== undefined }));
}

/** Where the bytes of a checksum lie: two levels of folders keep each small. */
export function originalName(sha256: string): string {
	if (!/^[0-9a-f]{64}$/.test(sha256)) throw new RangeError('not a SHA-256');
	return `originals/${sha256.slice(0, 2)}/${sha256.slice(2, 4)}/${sha256}`;
}

const madeFolder = (sha256: string) => `made/${sha256.slice(0, 2)}/${sha256}/`;

/** The path of an original on this machine, whether or not it is near: `original` sees to that. */
export const pathOf = (sha256: string): string => join(folder(), originalName(sha256));

/** The path of a thing made from an original, as in `madePath(sha, 'cover-300.webp')`; `exists` says whether it was made. */
export function madePath(sha256: string, name: string): string {
	if (!/^[0-9a-f]{64}$/.test(sha256) || !/^[a-z0-9][a-z0-9.-]*$/.test(name)) throw new RangeError('not a made thing');
	return join(folder(), madeFolder(sha256), name);
}

const nameOf = (path: string) => relative(folder(), path).replaceAll(sep, '/');

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
export const keep = (received: Received): Promise<void> => settle(received.path, pathOf(received.sha256));

/** Moves a finished temporary file to a path of the store and makes the move last. */
export async function settle(temporary: string, path: string): Promise<void> {
	await objects().put(nameOf(path), temporary);
	if (settings().bucket) await comeNear(temporary, path);
}

async function comeNear(temporary: string, path: string): Promise<void> {
	await mkdir(dirname(path), { recursive: true, mode: 0o700 });
	await rename(temporary, path);
	inBucket.add(nameOf(path));
}

/** Names that are in the bucket for certain; so many are remembered. */
const inBucket = new Set<string>();
const mostRemembered = 100_000;

const isThere = (path: string): Promise<boolean> =>
	access(path).then(
		() => true,
		() => false
	);

/** Whether the bytes of a path can be had from this machine's own disk. */
export async function isNear(path: string): Promise<boolean> {
	if (!(await isThere(path))) return false;
	// those longest not asked for go first
	if (settings().bucket) void utimes(path, new Date(), new Date()).catch(() => {});
	return true;
}

const coming = new Map<string, Promise<boolean>>();

/** Fetches a copy from the bucket; false where nothing lies there. Whoever asks for the same at once waits for one. */
function bringNear(path: string): Promise<boolean> {
	let fetched = coming.get(path);
	if (!fetched) {
		fetched = copyNear(path).finally(() => coming.delete(path));
		coming.set(path, fetched);
	}
	return fetched;
}

async function copyNear(path: string): Promise<boolean> {
	const stream = await objects().read(nameOf(path));
	if (!stream) return false;
	const temporary = await temporaryPath('.near');
	try {
		await pipeline(stream, createWriteStream(temporary, { mode: 0o600 }));
		await comeNear(temporary, path);
	} finally {
		await rm(temporary, { force: true });
	}
	if (inBucket.size > mostRemembered) inBucket.clear();
	return true;
}

/** Whether there is a file at a path of the store; it is near then. */
export async function exists(path: string): Promise<boolean> {
	return (await isNear(path)) || (settings().bucket !== null && bringNear(path));
}

/** The path of an original, near for certain. Throws where the store does not have it. */
export async function original(sha256: string): Promise<string> {
	const path = pathOf(sha256);
	if (settings().bucket && !(await exists(path))) throw new Error(`the store does not have ${sha256}`);
	return path;
}

/** What is known of a file of the store, wherever its bytes are; null where there is none. */
export async function known(path: string): Promise<{ readonly bytes: number } | null> {
	if (await isNear(path)) return { bytes: (await stat(path)).size };
	return settings().bucket ? objects().look(nameOf(path)) : null;
}

/**
 * A part of a file that is in the bucket and not near, as it comes from there; null where it is near. A copy of all of it is fetched beside, for
 * those who ask next. Throws where the store does not have it.
 */
export async function fromBucket(path: string, first: number, length: number): Promise<Readable | null> {
	if (!settings().bucket || (await isNear(path))) return null;
	const stream = await objects().read(nameOf(path), { first, length });
	if (!stream) throw new Error(`the store does not have ${nameOf(path)}`);
	bringNear(path).catch((err: unknown) => log().warn({ err }, 'no copy of a file could be fetched from the bucket'));
	return stream;
}

/** An address that the bucket signs, where settings ask for such; null where files come through here. */
export async function signedAddress(path: string, told: { readonly type: string; readonly disposition: string }): Promise<string | null> {
	const { IANUA_FILES_SIGNED: seconds } = settings();
	return seconds ? objects().signed(nameOf(path), seconds, told) : null;
}

/** Gives the bucket what a helper process, which knows of none, has made from an original. */
export async function shareMade(sha256: string): Promise<void> {
	if (!settings().bucket) return;
	const near = join(folder(), madeFolder(sha256));
	for (const file of await readdir(near).catch(() => [] as string[])) {
		const name = madeFolder(sha256) + file;
		if (inBucket.has(name)) continue;
		await objects().put(name, join(near, file));
		inBucket.add(name);
	}
}

const dayMs = 86_400_000;
const putByPrefix = 'put-by/';

async function namesUnder(prefix: string): Promise<string[]> {
	const names: string[] = [];
	for await (const { name } of objects().list(prefix)) names.push(name);
	return names;
}

/**
 * Puts the bytes of a checksum by: they are out of the way, and can be had back for 30 days. What was made from them goes; it can be made
 * again.
 */
export async function putBy(sha256: string, now: number): Promise<void> {
	await putNameBy(originalName(sha256), sha256, now);
	for (const name of await namesUnder(madeFolder(sha256))) await forget(name);
}

/** Puts what lies under any name of the store by, under another. */
export async function putNameBy(from: string, name: string, now: number): Promise<void> {
	await objects().move(from, `${putByPrefix}${new Date(now).toISOString().slice(0, 10)}/${name}`);
	await rm(join(folder(), from), { force: true });
}

async function forget(name: string): Promise<void> {
	await objects().remove(name);
	inBucket.delete(name);
	await rm(join(folder(), name), { force: true });
}

/** What is put by, with the day on which that was done. */
export async function putByList(): Promise<{ name: string; day: string; bytes: number }[]> {
	const list: { name: string; day: string; bytes: number }[] = [];
	for await (const { name, bytes } of objects().list(putByPrefix)) {
		const [, day = '', own = ''] = name.split('/');
		list.push({ name: own, day, bytes });
	}
	return list;
}

/** Brings an original back that was put by on a day. */
export async function bringBack(sha256: string, day: string): Promise<void> {
	const from = `${putByPrefix}${day}/${sha256}`;
	if (await objects().look(originalName(sha256))) await objects().remove(from);
	else await objects().move(from, originalName(sha256));
}

/** Deletes what was put by longer ago than that, and tells how much. */
export async function dropPutBy(now: number): Promise<number> {
	const old = (await putByList()).filter(({ day }) => now - Date.parse(day) > putByDays * dayMs);
	for (const { name, day } of old) await objects().remove(`${putByPrefix}${day}/${name}`);
	return old.length;
}

/** Copies with a name on them that were made longer ago than so many days: they are made again where somebody asks. */
export async function dropStamped(now: number, days: number): Promise<number> {
	const old: string[] = [];
	for await (const { name, at } of objects().list('made/', (each) => each.includes('/stamped-'))) if (now - at >= days * dayMs) old.push(name);
	for (const name of old) await forget(name);
	return old.length;
}

/** Every original in the store, with its length and since when it lies there, ms since 1970. */
export async function originals(): Promise<{ sha256: string; bytes: number; at: number }[]> {
	const found: { sha256: string; bytes: number; at: number }[] = [];
	for await (const { name, bytes, at } of objects().list('originals/')) {
		const sha256 = name.slice(name.lastIndexOf('/') + 1);
		if (/^[0-9a-f]{64}$/.test(sha256)) found.push({ sha256, bytes, at });
	}
	return found;
}

/** Removes unfinished files older than a day, and tells how many. Called at start. */
export async function dropTemporary(now: number): Promise<number> {
	const dir = join(folder(), 'unfinished');
	let dropped = 0;
	for (const name of await readdir(dir).catch(() => [] as string[])) {
		const path = join(dir, name);
		const { mtimeMs } = await stat(path);
		if (now - mtimeMs > dayMs) {
			await rm(path, { force: true, recursive: true });
			dropped++;
		}
	}
	return dropped;
}

/** Copies younger than this stay near: somebody may be about to open them. */
const youngMs = 600_000;

/** Lets copies of the bucket go until those near take no more than the settings allow, those longest not asked for first; tells how many went. */
export async function dropNear(now: number): Promise<number> {
	if (!settings().bucket) return 0;
	const copies: { path: string; bytes: number; at: number }[] = [];
	for (const part of ['originals', 'made'])
		for (const file of await readdir(join(folder(), part), { recursive: true, withFileTypes: true }).catch(() => [])) {
			if (!file.isFile()) continue;
			const path = join(file.parentPath, file.name);
			const seen = await stat(path).catch(() => null);
			if (seen) copies.push({ path, bytes: seen.size, at: seen.mtimeMs });
		}
	// put together from their parts by a server that was stopped before it had taken them in
	for (const name of await readdir(join(folder(), 'uploads')).catch(() => [] as string[])) {
		const path = join(folder(), 'uploads', name);
		const seen = await stat(path).catch(() => null);
		if (seen && now - seen.mtimeMs > dayMs) await rm(path, { force: true });
	}
	let [all, dropped] = [copies.reduce((sum, { bytes }) => sum + bytes, 0), 0];
	for (const { path, bytes, at } of copies.sort((a, b) => a.at - b.at)) {
		if (all <= settings().IANUA_NEAR || now - at < youngMs) break;
		await rm(path, { force: true });
		all -= bytes;
		dropped++;
	}
	return dropped;
}

/** Whether the store can be written to, by writing a byte: a disk that is full or was made read-only says yes until it is tried. */
export async function storeAnswers(): Promise<boolean> {
	try {
		const path = await temporaryPath('.byte');
		await writeFile(path, '.', { mode: 0o600, flush: true });
		if (settings().bucket) {
			const name = `unfinished/${newId()}.byte`;
			await objects().put(name, path);
			await objects().remove(name);
		}
		await rm(path);
		return true;
	} catch {
		return false;
	}
}
