// The store in a folder: written to a temporary name, synced, renamed.
import { createReadStream } from 'node:fs';
import { constants } from 'node:fs';
import { chmod, mkdir, open, readdir, rename, rm, rmdir, stat, writeFile } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { checkedName, type Kept, type ObjectStore } from './object-store';

const codeOf = (error: unknown) => (error as NodeJS.ErrnoException).code;

/** `shared`: what is put here may be read by our group, to which whoever runs the proxy in front belongs. */
export function diskStore(given: string, { shared = false }: { readonly shared?: boolean } = {}): ObjectStore {
	// as names are cut from what is found below it: without a slash at its end, or a step that leads nowhere
	const folder = resolve(given);
	const pathOf = (name: string) => join(folder, checkedName(name));
	const mode = shared ? 0o750 : 0o700;

	const lookAt = async (path: string, name: string): Promise<Kept | null> => {
		try {
			const seen = await stat(path);
			// the change of its name, not of its bytes: those may have been written long before they came here
			return seen.isFile() ? { name, bytes: seen.size, at: seen.ctimeMs } : null;
		} catch (error) {
			if (codeOf(error) === 'ENOENT' || codeOf(error) === 'ENOTDIR') return null;
			throw error;
		}
	};

	/** Makes a change of names in a folder last. */
	const syncFolder = async (path: string) => {
		const handle = await open(path, constants.O_RDONLY);
		await handle.sync().finally(() => handle.close());
	};

	const renameTo = async (from: string, to: string) => {
		await mkdir(dirname(to), { recursive: true, mode });
		await rename(from, to);
		await syncFolder(dirname(to));
	};

	return {
		place: folder,
		put: async (name, path) => {
			if (shared) await chmod(path, 0o640);
			await renameTo(path, pathOf(name));
		},
		putNew: async (name, words) => {
			await mkdir(dirname(pathOf(name)), { recursive: true, mode });
			try {
				await writeFile(pathOf(name), words, { mode: 0o600, flag: 'wx', flush: true });
				return true;
			} catch (error) {
				if (codeOf(error) === 'EEXIST') return false;
				throw error;
			}
		},
		read: async (name, part) => {
			if (!(await lookAt(pathOf(name), name))) return null;
			return createReadStream(pathOf(name), part ? { start: part.first, end: part.first + part.length - 1 } : {});
		},
		look: (name) => lookAt(pathOf(name), name),
		list: async function* (prefix, wanted = () => true) {
			const within = prefix.replace(/\/$/, '');
			const found = await readdir(join(folder, within), { recursive: true, withFileTypes: true }).catch((error: unknown) => {
				if (codeOf(error) === 'ENOENT') return [];
				throw error;
			});
			for (const entry of found) {
				if (!entry.isFile()) continue;
				const path = join(entry.parentPath, entry.name);
				const name = path.slice(folder.length + 1);
				const seen = wanted(name) ? await lookAt(path, name) : null;
				if (seen) yield seen;
			}
		},
		move: async (from, to) => {
			try {
				await renameTo(pathOf(from), pathOf(to));
			} catch (error) {
				if (codeOf(error) === 'ENOENT') return false;
				throw error;
			}
			// a folder that is empty now is of no use, and one that is not stays
			await rmdir(dirname(pathOf(from))).catch(() => {});
			return true;
		},
		remove: async (name) => {
			await rm(pathOf(name), { force: true });
			await rmdir(dirname(pathOf(name))).catch(() => {});
		},
		signed: () => Promise.resolve(null)
	};
}
