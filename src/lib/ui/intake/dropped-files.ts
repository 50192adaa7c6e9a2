// What was let go over the desk: files and whole folders.

/** Every file of what was dropped, folders and all; what of a folder is no PDF is left out and counted. */
export async function droppedFiles(transfer: DataTransfer): Promise<{ files: File[]; leftOut: number }> {
	const items = [...transfer.items].map((item) => ({ entry: item.webkitGetAsEntry(), file: item.getAsFile() }));
	if (!items.length) return { files: [...transfer.files], leftOut: 0 };
	const found: File[] = [];
	let leftOut = 0;
	const walk = async (entry: FileSystemEntry, inFolder: boolean): Promise<void> => {
		if (entry.isFile) {
			const file = await new Promise<File | null>((done) => (entry as FileSystemFileEntry).file(done, () => done(null)));
			if (!file) return;
			if (!inFolder || /\.pdf$/i.test(file.name) || file.type === 'application/pdf') found.push(file);
			else leftOut++;
			return;
		}
		const reader = (entry as FileSystemDirectoryEntry).createReader();
		// a folder is read in pieces of at most a hundred
		for (;;) {
			const entries = await new Promise<FileSystemEntry[]>((done) => reader.readEntries(done, () => done([])));
			if (!entries.length) return;
			for (const inner of entries) await walk(inner, true);
		}
	};
	for (const { entry, file } of items) {
		if (entry?.isDirectory) await walk(entry, true);
		else if (file) found.push(file);
	}
	return { files: found, leftOut };
}
