// The store moved to another place: copied with every checksum looked at, and switched to once nothing of the old one is missing in the new.
import { mkdir, rm } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { newId } from '../id';
import { settings, storeOf } from '../settings';
import { keepSettings } from '../settings-file';
import { wordsUnder, type ObjectStore } from '../store/object-store';
import { openStore } from '../store/open-store';
import { copied as copyTo } from './backup';

export interface Moved {
	readonly copied: number;
	readonly bytes: number;
	/** Whether the site uses the new place from its next start on; else why not yet: servers run, or their environment says where files are. */
	readonly switched: boolean;
	readonly why: 'running' | 'environment' | null;
	/** The new place, as IANUA_FILES names it from anywhere. */
	readonly place: string;
}

/** What goes along. What is made from originals for readers is made again; uploads under way have not arrived. */
const prefixes = ['originals/', 'put-by/'] as const;

/** The store at a place, as IANUA_FILES names one. */
function storeAt(place: string): ObjectStore {
	const { files, bucket } = storeOf({ ...settings(), IANUA_FILES: place });
	return openStore({ files: resolve(files), bucket });
}

async function copyOne(from: ObjectStore, to: ObjectStore, name: string, folder: string): Promise<void> {
	const stream = await from.read(name);
	if (!stream) return;
	const path = join(folder, newId());
	try {
		const { sha256 } = await copyTo(stream, path);
		const own = name.slice(name.lastIndexOf('/') + 1);
		if (/^[0-9a-f]{64}$/.test(own) && sha256 !== own)
			throw new Error(`${name} in ${from.place} is not what its name says: it is damaged. Nothing was switched.`);
		await to.put(name, path);
	} finally {
		await rm(path, { force: true });
	}
}

/** How many servers of the site are connected to its database. */
async function serversRunning(): Promise<number> {
	const { n } = theRow(
		await sql()<{ n: number }[]>`select count(*)::int as n from pg_stat_activity where application_name = 'ianua changes' and datname = current_database()`
	);
	return n;
}

/**
 * Copies the store from one place to another, what is not there yet, and switches the data folder's settings to the new one where no server runs.
 * `said`: the environment says where files are, which comes before those settings. Throws
 * in a sentence where the places are the wrong ones, a file is damaged, or files that have arrived are not taken in yet.
 */
export async function moveStore(
	fromPlace: string,
	toPlace: string,
	{ said, say = () => {} }: { readonly said: boolean; readonly say?: (line: string) => void }
): Promise<Moved> {
	const [from, to] = [storeAt(fromPlace), storeAt(toPlace)];
	if (from.place === to.place) throw new Error('Both are the same place.');
	const [mine, theirs] = [(await wordsUnder(from, 'site-id'))?.trim() ?? null, (await wordsUnder(to, 'site-id'))?.trim() ?? null];
	const [row] = await sql()<{ id: string }[]>`select value ->> 'id' as id from setting where key = 'site-id'`;
	if (mine === null || mine !== row?.id) throw new Error(`${from.place} is not this site’s store.`);
	if (theirs !== null && theirs !== mine) throw new Error(`${to.place} belongs to another site.`);
	const running = await serversRunning();
	const { waiting } = theRow(await sql()<{ waiting: number }[]>`select count(*)::int as waiting from intake where state = 'checking' and document_id is null`);
	if (!running && waiting) throw new Error('Files have arrived that are not taken in yet. Start the site, let it take them in, and stop it again.');
	const folder = join(settings().IANUA_DATA, 'moving');
	await mkdir(folder, { recursive: true, mode: 0o700 });
	let [copied, bytes] = [0, 0];
	try {
		for (const prefix of prefixes) {
			const there = new Map<string, number>();
			for await (const { name, bytes: size } of to.list(prefix)) there.set(name, size);
			for await (const { name, bytes: size } of from.list(prefix)) {
				if (there.get(name) === size) continue;
				await copyOne(from, to, name, folder);
				copied++;
				bytes += size;
				if (copied % 500 === 0) say(`${copied} files copied`);
			}
		}
	} finally {
		await rm(folder, { recursive: true, force: true });
	}
	if (theirs === null) await to.putNew('site-id', `${mine}\n`);
	const why = running ? 'running' : said ? 'environment' : null;
	if (!why) keepSettings(settings().IANUA_DATA, { IANUA_FILES: to.place });
	return { copied, bytes, switched: why === null, why, place: to.place };
}
