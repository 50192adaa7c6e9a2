// Finding words in the document that is open: what is looked for, what was found, and being led from one find to the next.
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { around, type Around } from '#core/reading/found';
import type { Library } from './library';
import { LookThrough } from './look-through';
import { textOf } from './page-text';
import { finderPages, finderState, type EventBus, type FindController, type FinderState } from './pdfjs-private';

export interface FindState {
	readonly count: number;
	/** Which of them is chosen, from 1; 0 for none. */
	readonly at: number;
	/** Pages that have been looked through. */
	readonly looked: number;
	readonly state: 'found' | 'none' | 'looking';
	/** Pages on which something was found, with how many times. */
	readonly pages: ReadonlyMap<number, number>;
}

export interface FindOptions {
	readonly words: string | readonly string[];
	readonly wholeWords: boolean;
	readonly sameCase: boolean;
	readonly sameAccents: boolean;
}

/** Find within the document: what is found on which page, and where the reader stands in it. */
export class Finder {
	readonly #pdf: PDFDocumentProxy;
	readonly #bus: EventBus;
	readonly #found: FinderState;
	readonly #through: LookThrough;
	readonly #at: () => number;
	readonly #tell: (state: FindState) => void;
	#lookingAgain: ReturnType<typeof setTimeout> | undefined;
	#wanted: FindOptions | null = null;
	/** Whether a place was led to that came to light after the finder had ended. */
	#ledLater = false;

	/** `at` gives the page that is being read; `tell` is called with what was found so far. */
	constructor(
		pdf: PDFDocumentProxy,
		bus: EventBus,
		controller: FindController,
		normalize: Library['normalize'],
		given: {
			readonly pagesWith: (words: readonly string[]) => Promise<readonly number[]>;
			readonly at: () => number;
			readonly tell: (state: FindState) => void;
			readonly ended: AbortSignal;
		}
	) {
		this.#pdf = pdf;
		this.#bus = bus;
		this.#found = finderState(controller);
		this.#through = new LookThrough(pdf, finderPages(controller), normalize, given.pagesWith, given.ended);
		this.#at = given.at;
		this.#tell = given.tell;
		given.ended.addEventListener('abort', () => clearTimeout(this.#lookingAgain));
		const found = () => this.#tellFound();
		bus.on('updatefindmatchescount', found);
		bus.on('updatefindcontrolstate', found);
	}

	/** Looks for words; `again` goes on from what was found last. */
	async find(options: FindOptions, again: 'next' | 'previous' | null = null) {
		const words = typeof options.words === 'string' ? [options.words] : options.words;
		if (!again) {
			// what was found before is not told of any more
			this.#wanted = null;
			clearTimeout(this.#lookingAgain);
			if (!(await this.#through.prepare(words, this.#at()))) return;
			this.#ledLater = false;
		}
		this.#wanted = options;
		this.#bus.dispatch('find', {
			source: this,
			type: again ? 'again' : '',
			query: options.words,
			caseSensitive: options.sameCase,
			entireWord: options.wholeWords,
			matchDiacritics: options.sameAccents,
			highlightAll: true,
			findPrevious: again === 'previous'
		});
	}

	end() {
		this.#through.stop();
		this.#wanted = null;
		clearTimeout(this.#lookingAgain);
		this.#bus.dispatch('findbarclose', { source: this });
	}

	/** The finds of a page with the words around them. */
	async around(page: number): Promise<Around[]> {
		const { pageMatches, pageMatchesLength } = this.#found;
		const { text, at: place } = await textOf(this.#pdf, page);
		return (pageMatches[page - 1] ?? []).map((from, i) => {
			const start = place(from);
			return around(text, start, place(from + (pageMatchesLength[page - 1]?.[i] ?? 0)) - start);
		});
	}

	/** Leads to one of a page's finds. */
	choose(page: number, index: number) {
		this.#found._offset = { pageIdx: page - 1, matchIdx: index - 1, wrapped: false };
		if (this.#wanted) void this.find(this.#wanted, 'next');
	}

	#tellFound() {
		const finder = this.#found;
		// it says that it begins while it still has what the words before led to
		if (!this.#wanted || finder._dirtyMatch) return;
		const pages = new Map<number, number>();
		let [count, index] = [0, 0];
		finder.pageMatches.forEach((matches, i) => {
			if (!matches?.length) return;
			if (finder.selected.pageIdx === i && finder.selected.matchIdx >= 0) index = count + finder.selected.matchIdx + 1;
			count += matches.length;
			pages.set(i + 1, matches.length);
		});
		// the finder had given up, and then the words stood on a page where the server knew nothing of them
		if (count && !this.#ledLater && finder.selected.matchIdx < 0 && finder._resumePageIdx === null) {
			this.#ledLater = true;
			void this.find(this.#wanted, 'next');
		}
		let looked = 0;
		finder.pageMatches.forEach(() => looked++);
		const looking = looked < this.#pdf.numPages;
		// a page without a find is told of by nobody
		clearTimeout(this.#lookingAgain);
		if (looking) this.#lookingAgain = setTimeout(() => this.#tellFound(), 250);
		this.#tell({ count, at: index, pages, looked, state: looking ? 'looking' : count ? 'found' : 'none' });
	}
}
