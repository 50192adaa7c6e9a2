// What was let go over the desk or chosen: files and whole folders. A document comes into the folder that its file was in.

export interface Dropped {
	readonly file: File;
	/** 'Minutes', 'Minutes/2026'; empty for a file by itself. */
	readonly folder: string;
}

/** Every file of what was dropped, folders and all; what of a folder is no PDF is left out and counted. */
export async function droppedFiles(transfer: DataTransfer): Promise<{ files: Dropped[]; leftOut: number }> {
	const items = [...transfer.items].map((item) => ({ entry: item.webkitGetAsEntry(), file: item.getAsFile() }));
	if (!items.length) return { files: [...transfer.files].map((file) => ({ file, folder: '' })), leftOut: 0 };
	const found: Dropped[] = [];
	let leftOut = 0;
	const walk = async (entry: FileSystemEntry, folder: string): Promise<void> => {
		if (entry.isFile) {
			const file = await new Promise<File | null>((done) => (entry as FileSystemFileEntry).file(done, () => done(null)));
			if (!file) return;
			if (!folder || /\.pdf$/i.test(file.name) || file.type === 'application/pdf') found.push({ file, folder });
			else leftOut++;
			return;
		}
		const reader = (entry as FileSystemDirectoryEntry).createReader();
		// a folder is read in pieces of at most a hundred
		for (;;) {
			const entries = await new Promise<FileSystemEntry[]>((done) => reader.readEntries(done, () => done([])));
			if (!entries.length) return;
			for (const inner of entries) await walk(inner, folder ? `${folder}/${entry.name}` : entry.name);
		}
	};
	for (const { entry, file } of items) {
		if (entry?.isDirectory) await walk(entry, '');
		else if (file) found.push({ file, folder: '' });
	}
	return { files: found, leftOut };
}

/** The PDFs of a folder that was chosen, each with the folder that it is in. */
export const chosenFiles = (files: Iterable<File>): Dropped[] =>
	[...files].filter((file) => /\.pdf$/i.test(file.name)).map((file) => ({ file, folder: file.webkitRelativePath.split('/').slice(0, -1).join('/') }));
