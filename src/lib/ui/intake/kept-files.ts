// Files on their way in, kept by the browser itself, so that an upload goes on after a reload without choosing the file again.

const [name, store] = ['ianua-intake', 'files'];
/** Files larger than this are not copied into the browser's own storage; they are chosen again. */
export const largestKept = 100_000_000;

function database(): Promise<IDBDatabase> {
	return new Promise((resolve, reject) => {
		const request = indexedDB.open(name, 1);
		request.onupgradeneeded = () => request.result.createObjectStore(store);
		request.onsuccess = () => resolve(request.result);
		request.onerror = () => reject(request.error ?? new Error('no storage'));
	});
}

async function within<T>(mode: IDBTransactionMode, work: (files: IDBObjectStore) => IDBRequest<T>): Promise<T | null> {
	try {
		const db = await database();
		return await new Promise<T | null>((resolve) => {
			const request = work(db.transaction(store, mode).objectStore(store));
			request.onsuccess = () => resolve(request.result);
			// a browser without room or in private mode does without
			request.onerror = () => resolve(null);
		}).finally(() => db.close());
	} catch {
		return null;
	}
}

/** Keeps a file under the id of its upload. */
export const keepFile = async (id: string, file: File): Promise<void> =>
	void (file.size <= largestKept && (await within('readwrite', (files) => files.put(file, id))));
export const keptFile = (id: string): Promise<File | null> => within<File>('readonly', (files) => files.get(id) as IDBRequest<File>).then((f) => f ?? null);
export const dropFile = async (id: string): Promise<void> => void (await within('readwrite', (files) => files.delete(id)));
