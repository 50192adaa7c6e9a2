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
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import packageJson from '../../../../package.json' with { type: 'json' };
import { program, runningUrl, startPostgres } from '../db/cluster';

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

/** Copies a file and gives its length and checksum, taken on the way. */
async function copied(from: string, to: string): Promise<{ bytes: number; sha256: string }> {
	const hash = createHash('sha256');
	let bytes = 0;
	const count = new Transform({
		transform(chunk: Buffer, _, done) {
			hash.update(chunk);
			bytes += chunk.length;
			done(null, chunk);
		}
	});
	await pipeline(createReadStream(from, { highWaterMark: 1 << 20 }), count, createWriteStream(to, { mode: 0o600 }));
	return { bytes, sha256: hash.digest('hex') };
}

async function checksum(path: string): Promise<string> {
	const hash = createHash('sha256');
	for await (const chunk of createReadStream(path, { highWaterMark: 1 << 20 }) as AsyncIterable<Buffer>) hash.update(chunk);
	return hash.digest('hex');
}

/** The files below a folder, as paths within it. */
const below = (folder: string, within = ''): string[] =>
	existsSync(join(folder, within))
		? readdirSync(join(folder, within), { withFileTypes: true }).flatMap((e) =>
				e.isDirectory() ? below(folder, join(within, e.name)) : [join(within, e.name)]
			)
		: [];

/**
 * Backs a site up into a new folder below `into`; gives that folder. The database is read in one snapshot; the originals it names never change and
 * are copied after it. Throws where a file in the store is not what its name says.
 */
export async function backUp({ data: given, into, say = () => {} }: { data: string; into: string; say?: (line: string) => void }): Promise<string> {
	const data = resolve(given);
	const url = process.env.IANUA_DATABASE_URL ?? runningUrl(data);
	if (!url) throw new Error(`There is no running database in ${data}. Start the site, or name its data folder with --data.`);
	const store = resolve(process.env.IANUA_FILES ?? join(data, 'files'));
	const at = new Date().toISOString();
	const name = `ianua-${at.slice(0, 19).replaceAll(':', '-')}`;
	const [folder, unfinished] = [join(resolve(into), name), join(resolve(into), `${name}.unfinished`)];
	mkdirSync(join(unfinished, 'files'), { recursive: true, mode: 0o700 });
	try {
		const files: { path: string; bytes: number; sha256: string }[] = [];
		say('The database');
		const dump = join(unfinished, 'database.dump');
		execFileSync(
			program('pg_dump'),
			['--format=custom', '--no-owner', '--exclude-schema=pgboss', ...leftOut.map((t) => `--exclude-table-data=${t}`), `--file=${dump}`, `--dbname=${url}`],
			{ stdio: ['ignore', 'ignore', 'pipe'] }
		);
		files.push({ path: 'database.dump', bytes: statSync(dump).size, sha256: await checksum(dump) });
		const originals = below(join(store, 'originals'));
		say(`${originals.length} files`);
		for (const path of originals) {
			const to = join('files', 'originals', path);
			mkdirSync(join(unfinished, to, '..'), { recursive: true, mode: 0o700 });
			const copy = await copied(join(store, 'originals', path), join(unfinished, to));
			if (copy.sha256 !== path.split('/').pop())
				throw new Error(`The file ${path} in the store is not what its name says: it is damaged. Nothing was backed up.`);
			files.push({ path: to, ...copy });
		}
		for (const [from, to] of [
			[join(store, 'site-id'), 'files/site-id'],
			[join(data, 'secret'), 'secret']
		] as const)
			if (existsSync(from)) files.push({ path: to, ...(await copied(from, join(unfinished, to))) });
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
		cpSync(join(from, 'files'), resolve(process.env.IANUA_FILES ?? join(data, 'files')), { recursive: true });
		if (existsSync(join(from, 'secret'))) cpSync(join(from, 'secret'), join(data, 'secret'));
	} finally {
		postgres?.stop();
	}
	return manifest;
}
