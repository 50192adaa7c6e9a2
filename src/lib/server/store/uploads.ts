// Bytes of uploads that have not arrived whole. What they are for is server/intake's. On a disk each is one file beside the store; in a bucket,
// where nothing can be written on to, it is its parts, so that any server goes on with what another began.
import { FileStore } from '@tus/file-store';
import type { DataStore } from '@tus/server';
import { mkdir, open, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { settings } from '../settings';
import { uploadsInParts } from './parts';
import { putNameBy } from './store';

export interface Uploads {
	/** What @tus/server writes to. */
	datastore(): DataStore;
	/** How many bytes of an upload lie here. */
	offset(id: string): Promise<number>;
	/** Makes what has arrived last through a loss of power. */
	sync(id: string): Promise<void>;
	/** Where all of an upload's bytes lie as one file of this machine; null where there are none. */
	path(id: string): Promise<string | null>;
	/** Drops what lies here of an upload: for one that was ended, or has been taken in. */
	drop(id: string): Promise<void>;
	/** Puts by what lies here of an upload that nobody goes on with. */
	putBy(id: string, now: number): Promise<void>;
	/** Ids of uploads that have something here. */
	ids(): Promise<string[]>;
}

const folder = () => join(settings().files, 'uploads');
const pathOf = (id: string) => join(folder(), id);

const onDisk: Uploads = {
	datastore: () => new FileStore({ directory: folder() }),
	offset: (id) =>
		stat(pathOf(id)).then(
			(s) => s.size,
			() => 0
		),
	sync: async (id) => {
		const file = await open(pathOf(id), 'r');
		await file.sync().finally(() => file.close());
	},
	path: (id) =>
		stat(pathOf(id)).then(
			() => pathOf(id),
			() => null
		),
	drop: async (id) => {
		await Promise.all([rm(pathOf(id), { force: true }), rm(`${pathOf(id)}.json`, { force: true })]);
	},
	putBy: async (id, now) => {
		await putNameBy(`uploads/${id}`, `upload-${id}`, now);
		await rm(`${pathOf(id)}.json`, { force: true });
	},
	ids: async () => {
		await mkdir(folder(), { recursive: true });
		return [...new Set((await readdir(folder())).map((name) => name.replace(/\.json$/, '')))];
	}
};

/** Where uploads under way lie. */
export const uploads = (): Uploads => (settings().bucket ? uploadsInParts : onDisk);
