// Marks words in the text that lies over a page, by the browser's own highlights: the text itself is not touched.

const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Marks every word of `words` (whatever its case and accents) inside `holder`. A browser without highlights shows the page as it is. */
export function markWords(holder: HTMLElement, words: readonly string[]): void {
	if (typeof Highlight === 'undefined' || !CSS.highlights) return;
	CSS.highlights.delete('found-words');
	const wanted = new Set(words.map(plain));
	if (!wanted.size) return;
	const ranges: Range[] = [];
	const walker = document.createTreeWalker(holder, NodeFilter.SHOW_TEXT);
	for (let node = walker.nextNode(); node; node = walker.nextNode()) {
		for (const match of (node.textContent ?? '').matchAll(/[\p{L}\p{M}\p{N}]+/gu)) {
			if (!wanted.has(plain(match[0]))) continue;
			const range = new Range();
			range.setStart(node, match.index);
			range.setEnd(node, match.index + match[0].length);
			ranges.push(range);
		}
	}
	if (ranges.length) CSS.highlights.set('found-words', new Highlight(...ranges));
	holder.dataset.marked = String(ranges.length);
}
