// Files on their way in, kept by the browser itself under the ids of their uploads, so that they go on after a reload without being
// chosen again: those that wait as well as those half sent.

const [name, store] = ['ianua-intake', 'kept'];
/** Files larger than this are not copied into the browser's own storage; they are chosen again. */
export const largestKept = 100_000_000;
/** Ms for which a file is kept. */
const keptFor = 7 * 86_400_000;

export interface Kept {
	readonly file: File;
	/** The window that has it in hand. */
	readonly window: string;
	readonly editionOf: string | null;
	/** None is said of files that an earlier version kept. */
	readonly folder?: string;
	/** When it was put into the tray, ms. */
	readonly at: number;
}

let opened: Promise<IDBDatabase> | undefined;

function database(): Promise<IDBDatabase> {
	return (opened ??= new Promise((resolve, reject) => {
		const request = indexedDB.open(name, 2);
		request.onupgradeneeded = () => {
			for (const old of request.result.objectStoreNames) request.result.deleteObjectStore(old);
			request.result.createObjectStore(store);
		};
		request.onsuccess = () => {
			// another window of a newer version wants to change the store
			request.result.onversionchange = () => request.result.close();
			resolve(request.result);
		};
		request.onerror = () => reject(request.error ?? new Error('no storage'));
	}));
}

async function within<T>(mode: IDBTransactionMode, work: (files: IDBObjectStore) => IDBRequest<T>): Promise<T | null> {
	try {
		const db = await database();
		return await new Promise<T | null>((resolve) => {
			const request = work(db.transaction(store, mode).objectStore(store));
			request.onsuccess = () => resolve(request.result);
			// a browser without room or in private mode does without
			request.onerror = () => resolve(null);
		});
	} catch {
		return null;
	}
}

/** Keeps a file in this browser until it has arrived whole. */
export async function keepFile(id: string, kept: Kept): Promise<void> {
	if (kept.file.size <= largestKept) await within('readwrite', (files) => files.put(kept, id));
}
/** Lets a kept file go. */
export async function dropFile(id: string): Promise<void> {
	await within('readwrite', (files) => files.delete(id));
}

/** All files kept, by the ids of their uploads, the first put in first. Those kept too long are dropped. */
export async function keptFiles(now: number): Promise<Map<string, Kept>> {
	const [ids, all] = await Promise.all([
		within<IDBValidKey[]>('readonly', (files) => files.getAllKeys()),
		within<Kept[]>('readonly', (files) => files.getAll() as IDBRequest<Kept[]>)
	]);
	const pairs = (ids ?? []).map((id, i) => [id as string, all?.[i]] as const).filter((pair): pair is [string, Kept] => pair[1] !== undefined);
	for (const [id, { at }] of pairs) if (now - at > keptFor) void dropFile(id);
	return new Map(pairs.filter(([, { at }]) => now - at <= keptFor).sort(([, a], [, b]) => a.at - b.at));
}
