// Work that is dear has a lane of its own, with so many at once and so many waiting, and no place takes all of it: many finds at once, or many
// pages to be drawn, keep nobody from a file.
import { availableParallelism } from 'node:os';
import { IanuaError } from '#core/errors';

interface Bounds {
	/** Pieces of work at once. */
	readonly atOnce: number;
	/** Pieces that wait beyond those; one more is refused. */
	readonly waiting: number;
	/** Pieces under way or waiting for one place (an address; people/attempts: placeOf). */
	readonly perPlace: number;
}

export class Lane {
	#running = 0;
	readonly #queue: (() => void)[] = [];
	readonly #places = new Map<string, number>();
	constructor(readonly bounds: Bounds) {}

	/** Does a piece of work for a place when its turn comes. Throws `busy` where too much waits already, for that place or at all. */
	async run<T>(place: string, work: () => Promise<T>): Promise<T> {
		const { atOnce, waiting, perPlace } = this.bounds;
		const theirs = this.#places.get(place) ?? 0;
		if (theirs >= perPlace || (this.#running >= atOnce && this.#queue.length >= waiting)) throw new IanuaError('busy');
		this.#places.set(place, theirs + 1);
		try {
			if (this.#running >= atOnce) await new Promise<void>((go) => this.#queue.push(go));
			else this.#running++;
			try {
				return await work();
			} finally {
				// the place in the lane goes on to whoever waits longest
				const next = this.#queue.shift();
				if (next) next();
				else this.#running--;
			}
		} finally {
			const left = this.#places.get(place)! - 1;
			if (left) this.#places.set(place, left);
			else this.#places.delete(place);
		}
	}
}

const cores = Math.max(1, availableParallelism());

/** Finds by readers and staff; each takes a connection of the finder's small pool. */
export const findLane = new Lane({ atOnce: Math.max(1, cores - 1), waiting: 60, perPlace: 12 });
/** Pages that have to be drawn: a reading room asks for some at once. */
export const drawLane = new Lane({ atOnce: cores, waiting: 300, perPlace: 120 });
/** Attachments that have to be taken out. */
export const unpackLane = new Lane({ atOnce: 1, waiting: 40, perPlace: 6 });
