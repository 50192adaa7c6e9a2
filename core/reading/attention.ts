// Reading told: seconds for which a page was seen and attended to (docs: the model's "Attention").

/** Without a sign of life for so long the clock stands still, ms. */
export const signGapMs = 60_000;
/** Most that one page is given between two signs, ms. */
export const mostBetweenSignsMs = 300_000;
/** A page passed quicker than this was scrolled past, not read, ms. */
export const leastStayMs = 1_000;
/** A page counts as read with so many seconds. */
export const readSeconds = 2;

/** Whether a page is seen: at least half of it, or it fills half the window. Shares from 0 to 1. */
export const isSeen = (shareOfPage: number, shareOfWindow: number): boolean => shareOfPage >= 0.5 || shareOfWindow >= 0.5;

/**
 * Counts how long each page is attended to. Time comes in with each call (ms, any clock that only goes forward). Pages seen together
 * share their time: two facing pages read for 10 s have 5 s each.
 */
export class AttentionClock {
	#seen: readonly number[] = [];
	#since = 0;
	#lastSign: number;
	#last: number;
	#visible = true;
	readonly #stays = new Map<number, number>();
	readonly #counted = new Map<number, number>();

	constructor(at: number) {
		this.#last = this.#lastSign = this.#since = at;
	}

	/** Time up to `at` is given to the pages seen, as far as somebody attended. */
	#settle(at: number): void {
		const until = Math.min(at, this.#lastSign + signGapMs);
		const time = this.#visible ? Math.max(0, Math.min(until, at) - this.#last) : 0;
		this.#last = Math.max(this.#last, at);
		if (!this.#seen.length || time <= 0) return;
		const each = Math.min(time, mostBetweenSignsMs) / this.#seen.length;
		for (const page of this.#seen) this.#stays.set(page, (this.#stays.get(page) ?? 0) + each);
	}

	/** Stays long enough to be a reading are counted; what was passed in a jump is dropped. */
	#leave(at: number, staying: readonly number[]): void {
		const short = at - this.#since < leastStayMs;
		for (const [page, time] of this.#stays) {
			if (staying.includes(page)) continue;
			if (!short) this.#counted.set(page, (this.#counted.get(page) ?? 0) + time);
			this.#stays.delete(page);
		}
	}

	/** Pages that are seen now. */
	see(pages: readonly number[], at: number): void {
		if (pages.length === this.#seen.length && pages.every((p, i) => p === this.#seen[i])) return;
		this.#settle(at);
		this.#leave(at, pages);
		this.#seen = [...pages];
		this.#since = at;
	}

	/** Somebody moved, pressed, touched or scrolled. */
	sign(at: number): void {
		this.#settle(at);
		this.#lastSign = at;
		this.#last = at;
	}

	/** The tab is in front and the window has the focus, or not. */
	attended(visible: boolean, at: number): void {
		this.#settle(at);
		if (visible && !this.#visible) this.#lastSign = at;
		this.#visible = visible;
	}

	/** Whole tenths of seconds since the last batch, page by page, and forgets them; `leaving` counts the present stay too. */
	take(at: number, leaving = false): { page: number; seconds: number }[] {
		this.#settle(at);
		if (leaving || at - this.#since >= leastStayMs) {
			for (const [page, time] of this.#stays) if (!leaving || at - this.#since >= leastStayMs) this.#counted.set(page, (this.#counted.get(page) ?? 0) + time);
			this.#stays.clear();
		}
		const batch: { page: number; seconds: number }[] = [];
		for (const [page, time] of [...this.#counted].sort(([a], [b]) => a - b)) {
			const tenths = Math.floor(time / 100);
			if (!tenths) continue;
			batch.push({ page, seconds: tenths / 10 });
			const rest = time - tenths * 100;
			if (rest > 0) this.#counted.set(page, rest);
			else this.#counted.delete(page);
		}
		return batch;
	}
}
