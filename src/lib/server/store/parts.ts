// Uploads under way in a bucket: `uploads/<id>/about.json` says what it is, and `uploads/<id>/<offset>.part` are its bytes from there on. What has
// arrived is the parts that follow on each other from the first byte; of one written twice, by whoever, the bytes are the same.
import { DataStore, ERRORS, Upload } from '@tus/utils';
import { createWriteStream } from 'node:fs';
import { mkdir, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { settings } from '../settings';
import { wordsUnder } from './object-store';
import { objects, putNameBy, temporaryPath } from './store';
import type { Uploads } from './uploads';

/** Bytes after which what has arrived is put in the bucket: so many a broken server loses at most of what a client has sent. */
const partBytes = 8 * 1024 * 1024;
const within = (id: string) => `uploads/${id}/`;
const aboutName = (id: string) => `${within(id)}about.json`;
const partName = (id: string, offset: number) => `${within(id)}${String(offset).padStart(15, '0')}.part`;

/** The parts that follow on each other, in order, and how many bytes they are. */
async function arrivedOf(id: string): Promise<{ names: string[]; bytes: number }> {
	const sizes = new Map<string, number>();
	for await (const { name, bytes } of objects().list(within(id))) sizes.set(name, bytes);
	const names: string[] = [];
	let bytes = 0;
	for (;;) {
		const name = partName(id, bytes);
		const size = sizes.get(name);
		if (!size) return { names, bytes };
		names.push(name);
		bytes += size;
	}
}

async function putWords(name: string, words: Buffer | string): Promise<void> {
	const path = await temporaryPath('.part');
	try {
		await writeFile(path, words, { mode: 0o600 });
		await objects().put(name, path);
	} finally {
		await rm(path, { force: true });
	}
}

interface About {
	readonly size?: number;
	readonly metadata?: Record<string, string | null>;
	readonly creation_date?: string;
}

async function aboutOf(id: string): Promise<About> {
	const words = await wordsUnder(objects(), aboutName(id));
	// eslint-disable-next-line @typescript-eslint/only-throw-error -- what the library takes for an answer
	if (words === null) throw ERRORS.FILE_NOT_FOUND;
	return JSON.parse(words) as About;
}

/** What @tus/server writes to (tus 1.0: creation, creation with upload, termination). */
class PartsStore extends DataStore {
	override extensions = ['creation', 'creation-with-upload', 'termination'];

	override async create(upload: Upload): Promise<Upload> {
		const { size, metadata, creation_date } = upload;
		await putWords(aboutName(upload.id), JSON.stringify({ size, metadata, creation_date } satisfies About));
		return upload;
	}

	override async write(stream: Readable, id: string, from: number): Promise<number> {
		let offset = from;
		let waiting: Buffer[] = [];
		let bytes = 0;
		const put = async () => {
			if (!bytes) return;
			await putWords(partName(id, offset), Buffer.concat(waiting));
			offset += bytes;
			[waiting, bytes] = [[], 0];
		};
		try {
			for await (const chunk of stream as AsyncIterable<Buffer>) {
				waiting.push(chunk);
				bytes += chunk.length;
				if (bytes >= partBytes) await put();
			}
		} catch (error) {
			// what has come before the line was cut need not come again
			await put();
			throw error;
		}
		await put();
		return offset;
	}

	override async getUpload(id: string): Promise<Upload> {
		const { size, metadata, creation_date } = await aboutOf(id);
		return new Upload({ id, size, metadata, creation_date, offset: (await arrivedOf(id)).bytes });
	}

	override remove(id: string): Promise<void> {
		return uploadsInParts.drop(id);
	}
}

const wholePath = (id: string) => join(settings().files, 'uploads', id);

export const uploadsInParts: Uploads = {
	datastore: () => new PartsStore(),
	offset: async (id) => (await arrivedOf(id)).bytes,
	// a bucket has it for good once it has it
	sync: () => Promise.resolve(),
	path: async (id) => {
		const { names } = await arrivedOf(id);
		if (!names.length) return null;
		const temporary = await temporaryPath('.part');
		try {
			await pipeline(
				async function* () {
					for (const name of names) {
						const part = await objects().read(name);
						if (!part) throw new Error(`a part of an upload is gone: ${name}`);
						yield* part as AsyncIterable<Buffer>;
					}
				},
				createWriteStream(temporary, { mode: 0o600 })
			);
			await mkdir(dirname(wholePath(id)), { recursive: true, mode: 0o700 });
			await rename(temporary, wholePath(id));
		} finally {
			await rm(temporary, { force: true });
		}
		return wholePath(id);
	},
	drop: async (id) => {
		for await (const { name } of objects().list(within(id))) await objects().remove(name);
		await rm(wholePath(id), { force: true });
	},
	putBy: async (id, now) => {
		for (const name of (await arrivedOf(id)).names) await putNameBy(name, `upload-${id}-${name.slice(within(id).length)}`, now);
		await uploadsInParts.drop(id);
	},
	ids: async () => {
		const ids = new Set<string>();
		for await (const { name } of objects().list('uploads/')) ids.add(name.split('/')[1] ?? '');
		return [...ids];
	}
};
