// In which order a document is looked through for words. The finder of pdf.js reads all pages one after the other from the first; here those
// pages come first on which the server says that the words stand, and the others follow, so that nothing is missed where it read otherwise.
import type { PDFDocumentProxy } from 'pdfjs-dist';
import type { Library } from './library';
import type { FinderPages } from './pdfjs-private';

/** With fewer pages than this to read, the server is not asked. */
const few = 40;
/** Most that a find waits for the server to say where to begin, ms. */
const mostWaiting = 2_500;
/** Likely pages that are read at once. The others are read one by one, so that pages are drawn meanwhile. */
const atOnce = 3;

/** Looks through pages for words in the background, those near the reader first. */
export class LookThrough {
	readonly #pdf: PDFDocumentProxy;
	readonly #kept: FinderPages;
	readonly #normalize: Library['normalize'];
	readonly #pagesWith: (words: readonly string[]) => Promise<readonly number[]>;
	readonly #ended: AbortSignal;
	#read: (() => void)[] = [];
	#todo = new Set<number>();
	#begun = new Set<number>();
	#likely: number[] = [];
	#rest: number[] = [];
	#unlikely = new Set<number>();
	#asked = 0;
	/** How many read on now: one that reads everything, the others only what is likely. */
	readonly #going = { everything: 0, likely: 0 };

	/** `pagesWith` asks the server on which pages words stand; where it rejects, pages are read from the one that is being read on. */
	constructor(
		pdf: PDFDocumentProxy,
		finder: FinderPages,
		normalize: Library['normalize'],
		pagesWith: (words: readonly string[]) => Promise<readonly number[]>,
		ended: AbortSignal
	) {
		this.#pdf = pdf;
		this.#kept = finder;
		this.#normalize = normalize;
		this.#pagesWith = pagesWith;
		this.#ended = ended;
		ended.addEventListener('abort', () => this.stop());
	}

	/** Prepares a find that begins on page `from`; false where another was asked for meanwhile. */
	async prepare(words: readonly string[], from: number): Promise<boolean> {
		const asked = ++this.#asked;
		if (!this.#read.length) this.#begin();
		let likely: readonly number[] | null = null;
		if (this.#todo.size > few) {
			const enough = new Promise<null>((done) => setTimeout(() => done(null), mostWaiting));
			likely = await Promise.race([this.#pagesWith(words).catch(() => null), enough]);
			if (asked !== this.#asked) return false;
		}
		const first = new Set(likely);
		const round = [...this.#todo].sort((a, b) => Number(a < from) - Number(b < from) || a - b);
		this.#likely = round.filter((page) => first.has(page));
		this.#rest = round.filter((page) => !first.has(page));
		this.#unlikely = new Set(likely ? this.#rest : []);
		if (!this.#going.everything) void this.#go('everything');
		while (this.#going.likely < Math.min(atOnce - 1, this.#likely.length)) void this.#go('likely');
		return true;
	}

	/** Reads no more pages, until the next find. */
	stop() {
		this.#asked++;
		this.#likely = this.#rest = [];
	}

	/** Takes the reading of pages out of the finder's hands. */
	#begin() {
		const pages = Array.from({ length: this.#pdf.numPages }, (_, i) => i + 1);
		this.#todo = new Set(pages);
		this.#kept._extractTextPromises = pages.map((_, i) => new Promise((done) => (this.#read[i] = done)));
		// going on to the next find, the finder waits for every page between: where it is unlikely there is nothing, until it was read
		this.#kept._pageMatches = new Proxy(this.#kept._pageMatches, {
			get: (matches, key) =>
				typeof key === 'string' && matches[key as never] === undefined && this.#unlikely.has(Number(key) + 1) ? [] : matches[key as never]
		});
	}

	async #go(what: 'everything' | 'likely') {
		this.#going[what]++;
		for (let page; (page = this.#next(what)) !== undefined;) {
			this.#begun.add(page);
			let text = '';
			try {
				const { items } = await (await this.#pdf.getPage(page)).getTextContent({ disableNormalization: true });
				for (const item of items) if ('str' in item) text += item.str + (item.hasEOL ? '\n' : '');
			} catch (error) {
				// a document that was closed gives nothing any more
				if (this.#ended.aborted) break;
				console.error(`The words of page ${page} could not be read`, error);
			}
			const kept = this.#kept;
			[kept._pageContents[page - 1], kept._pageDiffs[page - 1], kept._hasDiacritics[page - 1]] = this.#normalize(text);
			this.#todo.delete(page);
			this.#unlikely.delete(page);
			this.#read[page - 1]!();
		}
		this.#going[what]--;
	}

	#next(what: 'everything' | 'likely'): number | undefined {
		for (const list of what === 'likely' ? [this.#likely] : [this.#likely, this.#rest])
			for (let page; (page = list.shift()) !== undefined;) if (!this.#begun.has(page)) return page;
		return undefined;
	}
}
