// A backup of everything that cannot be made again: the database, the original files, the secret. Taken while the site runs, and put back into an
// empty data folder. Everything is checked by its checksum, on the way out and on the way in.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
	createReadStream,
	createWriteStream,
	cpSync,
	existsSync,
	mkdirSync,
	readFileSync,
	readdirSync,
	renameSync,
	rmSync,
	statSync,
	writeFileSync
} from 'node:fs';
import { join, resolve } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import packageJson from '../../../../package.json' with { type: 'json' };
import { program, startPostgres } from '../db/cluster';
import { readSettings, storeOf } from '../settings';
import { keptSettings } from '../settings-file';
import { openStore } from '../store/open-store';
import { settingsAt } from './site-at';

/** What a backup holds, by the path within it. */
interface Manifest {
	/** 1 today; a later version may write another. */
	readonly format: number;
	readonly at: string;
	readonly version: string;
	readonly siteId: string;
	readonly files: readonly { readonly path: string; readonly bytes: number; readonly sha256: string }[];
}

/** Tables of what ends with a sign-in or a moment: nobody is signed in by a backup. */
const leftOut = ['session', 'verification', 'rate_limit', 'attempt', 'day_key'];

/** Files of the data folder that a site cannot be without: what it signs by, and by whom people come in. Where its files lie is the new folder's own. */
const besideStore = ['secret', 'providers.json'] as const;

/** Writes a stream to a file and gives its length and checksum, taken on the way. */
export async function copied(from: Readable, to: string): Promise<{ bytes: number; sha256: string }> {
	const hash = createHash('sha256');
	let bytes = 0;
	const count = new Transform({
		transform(chunk: Buffer, _, done) {
			hash.update(chunk);
			bytes += chunk.length;
			done(null, chunk);
		}
	});
	await pipeline(from, count, createWriteStream(to, { mode: 0o600, flush: true }));
	return { bytes, sha256: hash.digest('hex') };
}

async function checksum(path: string): Promise<string> {
	const hash = createHash('sha256');
	for await (const chunk of createReadStream(path, { highWaterMark: 1 << 20 }) as AsyncIterable<Buffer>) hash.update(chunk);
	return hash.digest('hex');
}

/**
 * Backs a site up into a new folder below `into`; gives that folder. The database is read in one snapshot; the originals it names never change and
 * are copied after it. Throws where a file in the store is not what its name says.
 */
export async function backUp({ data: given, into, say = () => {} }: { data: string; into: string; say?: (line: string) => void }): Promise<string> {
	const data = resolve(given);
	const environment = settingsAt(data);
	const url = environment.IANUA_DATABASE_URL;
	if (!url) throw new Error(`There is no running database in ${data}. Start the site, or name its data folder with --data.`);
	const store = openStore(storeOf(readSettings(environment)));
	const at = new Date().toISOString();
	const name = `ianua-${at.slice(0, 19).replaceAll(':', '-')}`;
	const [folder, unfinished] = [join(resolve(into), name), join(resolve(into), `${name}.unfinished`)];
	mkdirSync(join(unfinished, 'files'), { recursive: true, mode: 0o700 });
	try {
		const files: { path: string; bytes: number; sha256: string }[] = [];
		const id = await store.read('site-id');
		if (!id)
			throw new Error(
				`No site has its files in ${environment.IANUA_FILES ?? join(data, 'files')}: nothing was backed up. Name the site’s data folder with --data.`
			);
		files.push({ path: 'files/site-id', ...(await copied(id, join(unfinished, 'files/site-id'))) });
		say('The database');
		const dump = join(unfinished, 'database.dump');
		execFileSync(
			program('pg_dump'),
			['--format=custom', '--no-owner', '--exclude-schema=pgboss', ...leftOut.map((t) => `--exclude-table-data=${t}`), `--file=${dump}`, `--dbname=${url}`],
			{ stdio: ['ignore', 'ignore', 'pipe'] }
		);
		files.push({ path: 'database.dump', bytes: statSync(dump).size, sha256: await checksum(dump) });
		say('The files');
		for await (const { name } of store.list('originals/')) {
			const to = join('files', name);
			mkdirSync(join(unfinished, to, '..'), { recursive: true, mode: 0o700 });
			const from = await store.read(name);
			// put by a moment ago: no row of the snapshot points to it
			if (!from) continue;
			const copy = await copied(from, join(unfinished, to));
			if (copy.sha256 !== name.split('/').pop())
				throw new Error(`The file ${name} in the store is not what its name says: it is damaged. Nothing was backed up.`);
			files.push({ path: to, ...copy });
		}
		for (const name of besideStore) {
			const path = join(data, name);
			if (existsSync(path)) files.push({ path: name, ...(await copied(createReadStream(path), join(unfinished, name))) });
		}
		const siteId = readFileSync(join(unfinished, 'files/site-id'), 'utf8').trim();
		const manifest: Manifest = { format: 1, at, version: packageJson.version, siteId, files };
		writeFileSync(join(unfinished, 'manifest.json'), `${JSON.stringify(manifest, null, '\t')}\n`, { mode: 0o600 });
		renameSync(unfinished, folder);
		return folder;
	} catch (error) {
		rmSync(unfinished, { recursive: true, force: true });
		throw error;
	}
}

/**
 * Puts a backup back into a data folder that is empty or not there yet. All of it is checked first; where anything is missing or damaged,
 * nothing is done.
 */
export async function restore({ from: given, data: into, say = () => {} }: { from: string; data: string; say?: (line: string) => void }): Promise<Manifest> {
	const [from, data] = [resolve(given), resolve(into)];
	if (!existsSync(join(from, 'manifest.json'))) throw new Error(`${from} is no backup: there is no manifest.json in it.`);
	const manifest = JSON.parse(readFileSync(join(from, 'manifest.json'), 'utf8')) as Manifest;
	if (manifest.format !== 1) throw new Error('This backup is of a newer kind than this version can read.');
	if (existsSync(data) && readdirSync(data).length)
		throw new Error(`The data folder ${data} is not empty. A backup is put into a new one, so that nothing is lost; name another with --data.`);
	say(`Looking through ${manifest.files.length} files`);
	for (const { path, sha256 } of manifest.files) {
		if (path.includes('..') || path.startsWith('/')) throw new Error(`The manifest names a file outside the backup: ${path}`);
		if (!existsSync(join(from, path))) throw new Error(`${path} is missing from the backup.`);
		if ((await checksum(join(from, path))) !== sha256) throw new Error(`${path} in the backup is damaged: its checksum is another.`);
	}
	// its own secret, and the address of a database that there is only while this goes on, make no difference to it
	const store = openStore(
		storeOf(readSettings({ IANUA_DATABASE_URL: 'postgres://here', IANUA_SECRET: 'x'.repeat(32), ...keptSettings(data), ...process.env, IANUA_DATA: data }))
	);
	if (await store.look('site-id'))
		throw new Error(`The store in ${store.place} belongs to a site already. A backup is put into a new one; name another with IANUA_FILES.`);
	mkdirSync(data, { recursive: true, mode: 0o755 });
	const postgres = process.env.IANUA_DATABASE_URL ? null : await startPostgres(data);
	try {
		say('The database');
		execFileSync(
			program('pg_restore'),
			// without an address given, a server was started above
			['--no-owner', '--exit-on-error', `--dbname=${process.env.IANUA_DATABASE_URL ?? postgres!.url}`, join(from, 'database.dump')],
			{
				stdio: ['ignore', 'ignore', 'pipe']
			}
		);
		say('The files');
		for (const { path } of manifest.files) {
			if (!path.startsWith('files/')) continue;
			const copy = join(data, 'restoring');
			cpSync(join(from, path), copy);
			await store.put(path.slice('files/'.length), copy);
			rmSync(copy, { force: true });
		}
		for (const name of besideStore) if (existsSync(join(from, name))) cpSync(join(from, name), join(data, name));
	} finally {
		postgres?.stop();
	}
	return manifest;
}
