// Bytes of uploads that have not arrived whole, one file for each, beside the store. What they are for is server/intake's.
import { mkdir, open, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { settings } from '../settings';
import { putFileBy } from './store';

/** Where the pieces of uploads under way lie. */
export const uploadsFolder = () => join(settings().files, 'uploads');
const pathOf = (id: string) => join(uploadsFolder(), id);

/** How many bytes of an upload lie here. */
export async function uploadOffset(id: string): Promise<number> {
	return stat(pathOf(id)).then(
		(s) => s.size,
		() => 0
	);
}

/** Makes what has arrived last through a loss of power. */
export async function syncUpload(id: string): Promise<void> {
	const file = await open(pathOf(id), 'r');
	await file.sync().finally(() => file.close());
}

/** Where an upload's bytes lie; null where there are none. */
export async function uploadPath(id: string): Promise<string | null> {
	return stat(pathOf(id)).then(
		() => pathOf(id),
		() => null
	);
}

/** Drops what lies here of an upload: for one that was ended, or has been taken in. */
export async function dropUpload(id: string): Promise<void> {
	await Promise.all([rm(pathOf(id), { force: true }), rm(`${pathOf(id)}.json`, { force: true })]);
}

/** Puts by what lies here of an upload that nobody goes on with. */
export async function putUploadBy(id: string, now: number): Promise<void> {
	await putFileBy(pathOf(id), `upload-${id}`, now);
	await rm(`${pathOf(id)}.json`, { force: true });
}

/** Ids of uploads that have something here. */
export async function uploadIds(): Promise<string[]> {
	await mkdir(uploadsFolder(), { recursive: true });
	return [...new Set((await readdir(uploadsFolder())).map((name) => name.replace(/\.json$/, '')))];
}
