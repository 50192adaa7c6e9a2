// Where bytes are kept for good, each under a name such as `originals/ab/cd/<sha256>`: on a disk (disk.ts) or in a bucket (s3.ts).
import type { Readable } from 'node:stream';

export interface Kept {
	readonly name: string;
	readonly bytes: number;
	/** When it was put there, ms since 1970. */
	readonly at: number;
}

export interface ObjectStore {
	/** What it is, for whoever looks after it: a folder, or the address of a bucket. */
	readonly place: string;
	/** Keeps a file of this machine under a name: all of it or nothing, and lasting once this returns. The file may have moved then. */
	put(name: string, path: string): Promise<void>;
	/** Keeps a few words under a name that is free; false where it is taken. */
	putNew(name: string, words: string): Promise<boolean>;
	/** A part of what lies under a name, or all of it; null where nothing does. */
	read(name: string, part?: { readonly first: number; readonly length: number }): Promise<Readable | null>;
	/** What is known of a name; null where nothing lies there. */
	look(name: string): Promise<Kept | null>;
	/** Everything under names that begin so, or of that only the names that are wanted; in no order. */
	list(prefix: string, wanted?: (name: string) => boolean): AsyncIterable<Kept>;
	/** Gives what lies under a name another; false where nothing does. */
	move(from: string, to: string): Promise<boolean>;
	/** Lets go of a name, whether or not anything lies there. */
	remove(name: string): Promise<void>;
	/** An address under which whoever has it may fetch a name for so many seconds, told as the given fields say; null where there is no such thing. */
	signed(name: string, seconds: number, told: { readonly type: string; readonly disposition: string }): Promise<string | null>;
}

const named = /^[a-z0-9][a-z0-9._-]*(?:\/[a-z0-9][a-z0-9._-]*)*$/;

/** A name as every store takes it; throws for any other, so that none leads out of the store. */
export function checkedName(name: string): string {
	if (!named.test(name)) throw new RangeError(`not a name of the store: ${name}`);
	return name;
}

/** What lies under a name as text; null where nothing does. */
export async function wordsUnder(store: ObjectStore, name: string): Promise<string | null> {
	const stream = await store.read(name);
	if (!stream) return null;
	const parts: Buffer[] = [];
	for await (const part of stream as AsyncIterable<Buffer>) parts.push(part);
	return Buffer.concat(parts).toString('utf8');
}
