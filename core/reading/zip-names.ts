// What files are called inside a zip.

/**
 * The names of files that lie beside each other in a zip, in their order: each once, whatever its case, and none with a path. ['a.pdf', 'A.pdf',
 * '../b.pdf'] → ['a.pdf', 'A (2).pdf', 'b.pdf'].
 */
export function namesInZip(names: readonly string[]): string[] {
	const taken = new Set<string>();
	return names.map((given) => {
		const bare = (given.split(/[\\/]/).pop() ?? '').replace(/[\u0000-\u001f\u007f<>:"|?*]/g, '_').trim();
		// nothing but dots leads out of the folder
		const plain = /^\.*$/.test(bare) ? 'document.pdf' : bare;
		const dot = plain.lastIndexOf('.');
		const [stem, end] = dot > 0 ? [plain.slice(0, dot), plain.slice(dot)] : [plain, ''];
		let name = plain;
		for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${stem} (${n})${end}`;
		taken.add(name.toLowerCase());
		return name;
	});
}
