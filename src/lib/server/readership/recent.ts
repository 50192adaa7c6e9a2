// What this server knows of days that go on: the entries of documents that were summed lately. As long as nobody else has changed the sums,
// only what is new has to be read from the ledger, however much the day holds.
import { CountMinSketch } from '#core/readership/count-min-sketch';
import type { Summable } from '#core/readership/counting';

/** An entry that counts. */
export type Entry = Summable & { readonly id: string };

/** A document's day, with its entries in order of time. */
export interface Remembered {
	readonly day: string;
	readonly document: string;
	readonly entries: readonly Entry[];
}

/** Most entries that are held, of all days and documents together. One takes about half a kilobyte. */
const most = 100_000;

/** Most clock hours that are held; one takes a megabyte. */
const mostHours = 8;

/** What the sums of the last days have read of the ledger, held between their runs within bounds; what was asked for longest ago goes first. */
export class Recent {
	#version: string | null = null;
	#held = 0;
	/** By day and document; who was asked for last stands last. */
	readonly #days = new Map<string, readonly Entry[]>();
	/** Openings and saves by readers without a name, by clock hour. */
	readonly #hours = new Map<string, CountMinSketch>();

	/** What is known holds for one version of the sums only: at another, all is forgotten. */
	of(version: string): void {
		if (version !== this.#version) this.#clear();
	}

	/** All entries of a document's day, with the new ones in their places; null where it is not known. Those known already come once. */
	with(day: string, document: string, fresh: readonly Entry[]): Entry[] | null {
		const known = this.#days.get(`${day} ${document}`);
		if (!known) return null;
		const [first] = fresh;
		if (!first) return [...known];
		// new ones are mostly the latest: only what stands after the first of them is put in order
		let index = known.length;
		while (index > 0 && known[index - 1]!.at >= first.at) index--;
		const tail = new Map([...known.slice(index), ...fresh].map((e) => [e.id, e]));
		return [...known.slice(0, index), ...[...tail.values()].sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1))];
	}

	/** Remembers days for a version of the sums, once that is committed; null forgets all. */
	keep(version: string | null, days: readonly Remembered[]): void {
		if (version === null) {
			this.#clear();
			return;
		}
		this.#version = version;
		for (const { day, document, entries } of days) {
			const name = `${day} ${document}`;
			this.#drop(name);
			this.#days.set(name, entries);
			this.#held += entries.length;
		}
		for (const name of this.#days.keys()) {
			if (this.#held <= most) break;
			this.#drop(name);
		}
	}

	/** What came in a clock hour: at least all of it. Null where that is not known. */
	hour(name: string): CountMinSketch | null {
		return this.#hours.get(name) ?? null;
	}

	/** Remembers a clock hour from now on. */
	keepHour(name: string, counts: CountMinSketch): void {
		this.#hours.set(name, counts);
		for (const oldest of this.#hours.keys()) {
			if (this.#hours.size <= mostHours) break;
			this.#hours.delete(oldest);
		}
	}

	#drop(name: string): void {
		this.#held -= this.#days.get(name)?.length ?? 0;
		this.#days.delete(name);
	}

	#clear(): void {
		this.#days.clear();
		this.#hours.clear();
		this.#held = 0;
		this.#version = null;
	}
}
