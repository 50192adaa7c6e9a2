// What was made from the database and is used again until something changes (changes.ts), or the clock says otherwise. While changes are not
// heard of, nothing is used again: everyone asks the database.
import { changesAreHeard, changesSoFar } from './changes';

interface Entry<V> {
	readonly made: Promise<V>;
	/** By the clock; ms since the epoch. */
	until: number;
	weight: number;
}

/** A thing made from the database, and the instant (ms since the epoch) from which it has to be made anew whatever happens. */
export interface Made<V> {
	readonly value: V;
	readonly until: number;
}

/**
 * Things made from the database, by a key, for as long as they are true; beyond the weight given, what was used least lately is forgotten. What
 * others change may be heard of `within` so many ms: 0 asks the line each time.
 */
export class Cache<V> {
	readonly #entries = new Map<string, Entry<V>>();
	#weight = 0;
	#changes = 0;
	readonly #most: number;
	readonly #weigh: (value: V) => number;
	readonly #within: number | undefined;
	/** `weigh` gives what a thing weighs (1 unless said); all of them together weigh at most `most`. */
	constructor({ most, weigh = () => 1, within }: { most: number; weigh?: (value: V) => number; within?: number }) {
		[this.#most, this.#weigh, this.#within] = [most, weigh, within];
	}

	/** What is remembered under a key at an instant; undefined where nothing is that is still true. Asks nobody: only after `changesAreHeard`. */
	#find(key: string, now: number): Entry<V> | undefined {
		if (this.#changes !== changesSoFar()) {
			this.#entries.clear();
			this.#weight = 0;
			this.#changes = changesSoFar();
		}
		const entry = this.#entries.get(key);
		if (!entry || now >= entry.until) return undefined;
		// the least lately used stands first
		this.#entries.delete(key);
		this.#entries.set(key, entry);
		return entry;
	}

	#forget(key: string, entry: Entry<V>): void {
		if (this.#entries.get(key) !== entry) return;
		this.#entries.delete(key);
		this.#weight -= entry.weight;
	}

	/**
	 * Remembers what was made by someone who began when so much had changed as `begun` says (`changesSoFar`); not where something has changed since.
	 */
	put(key: string, value: V, { until, begun }: { until: number; begun: number }): void {
		this.#find(key, Infinity);
		if (begun !== changesSoFar()) return;
		const over = this.#entries.get(key);
		if (over) this.#forget(key, over);
		const weight = this.#weigh(value);
		this.#entries.set(key, { made: Promise.resolve(value), until, weight });
		this.#weight += weight;
		this.#bound();
	}

	#bound(): void {
		for (const [oldest, entry] of this.#entries) {
			if (this.#weight <= this.#most) break;
			this.#forget(oldest, entry);
		}
	}

	/** What is remembered under a key, or null; `get` without making. */
	async peek(key: string, now = Date.now()): Promise<V | null> {
		return (await changesAreHeard(this.#within)) ? ((await this.#find(key, now)?.made) ?? null) : null;
	}

	/** What is remembered under a key, or what `make` makes. Those who ask meanwhile get the same; where it throws, they all do, and it is forgotten. */
	async get(key: string, make: () => Promise<Made<V>>, now = Date.now()): Promise<V> {
		if (!(await changesAreHeard(this.#within))) return (await make()).value;
		const known = this.#find(key, now);
		if (known) return known.made;
		const over = this.#entries.get(key);
		if (over) this.#forget(key, over);
		const making = make();
		const entry: Entry<V> = { made: making.then(({ value }) => value), until: Infinity, weight: 0 };
		// whoever makes it is told below
		entry.made.catch(() => {});
		this.#entries.set(key, entry);
		try {
			const { value, until } = await making;
			if (this.#entries.get(key) === entry) {
				entry.until = until;
				entry.weight = this.#weigh(value);
				this.#weight += entry.weight;
				this.#bound();
			}
			return value;
		} catch (failure) {
			this.#forget(key, entry);
			throw failure;
		}
	}
}
