// A site from outside its servers: by its data folder, whether it runs or not.
import { createReadStream, existsSync, openSync, readFileSync, statSync, type ReadStream } from 'node:fs';
import { join, resolve } from 'node:path';
import { runningUrl, startPostgres, type Postgres } from '../db/cluster';
import { closeDatabase } from '../db/client';
import { settings } from '../settings';
import { keptSettings } from '../settings-file';

/** Settings of a server that runs from a data folder, as whoever started it keeps them there; none where it does not. */
const runningSettings = (data: string): Record<string, string> => {
	const file = join(data, 'running.json');
	return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Record<string, string>) : {};
};

/**
 * The settings of the site of a data folder: what the environment says comes first, then what the running server has, then what the folder keeps. Of a
 * database of its own only where it runs.
 */
export function settingsAt(given: string): Record<string, string | undefined> {
	const data = resolve(given);
	const secret = join(data, 'secret');
	// where one of its own listens may have changed since its server was started
	const { IANUA_DATABASE_URL, ...running } = runningSettings(data);
	const url = isOwn(data) ? runningUrl(data) : IANUA_DATABASE_URL;
	return {
		...(url ? { IANUA_DATABASE_URL: url } : {}),
		...(existsSync(secret) ? { IANUA_SECRET: readFileSync(secret, 'utf8').trim() } : {}),
		...keptSettings(data),
		...running,
		...process.env,
		IANUA_DATA: data
	};
}

/** Whether a data folder has a database of its own. */
const isOwn = (data: string) => existsSync(join(data, 'postgres.password'));

/** Written by whom the store belongs to, not by root: the server could not read it. Gives back what undoes it. */
function asOwnerOf(folder: string): () => void {
	const { uid, gid } = existsSync(folder) ? statSync(folder) : { uid: 0, gid: 0 };
	if (process.getuid?.() !== 0 || uid === 0) return () => {};
	process.setegid?.(gid);
	process.seteuid?.(uid);
	return () => {
		process.seteuid?.(0);
		process.setegid?.(0);
	};
}

/**
 * Opens or reads something as whoever called the program, while the rest is done as whom the store belongs to: what root names need not be open to the
 * server. Nothing else may go on meanwhile, so it is done at once.
 */
export function asCaller<T>(work: () => T): T {
	const [uid, gid] = [process.geteuid?.(), process.getegid?.()];
	if (process.getuid?.() !== 0 || uid === undefined || gid === undefined || uid === 0) return work();
	process.seteuid?.(0);
	process.setegid?.(0);
	try {
		return work();
	} finally {
		process.setegid?.(gid);
		process.seteuid?.(uid);
	}
}

/** The bytes of a file that the caller may read. */
export const readAsCaller = (path: string): ReadStream => createReadStream(path, { fd: asCaller(() => openSync(path, 'r')) });

/**
 * Does something to the site of a data folder. Where its database is one of its own that does not run, it is started for as long. Throws in a sentence
 * where there is no site, or settings are missing. `writes`: it writes to the store.
 */
export async function withSite<T>(given: string, work: () => Promise<T>, { writes = false }: { readonly writes?: boolean } = {}): Promise<T> {
	const data = resolve(given);
	let started: Postgres | undefined;
	if (isOwn(data) && !process.env.IANUA_DATABASE_URL && !runningUrl(data)) started = await startPostgres(data);
	try {
		Object.assign(process.env, settingsAt(data));
		if (!process.env.IANUA_DATABASE_URL)
			throw new Error(`There is no site in ${data}. Name its data folder with --data, or its database with IANUA_DATABASE_URL.`);
		const back = writes ? asOwnerOf(settings().files) : () => {};
		try {
			return await work();
		} finally {
			back();
		}
	} finally {
		await closeDatabase();
		started?.stop();
	}
}
