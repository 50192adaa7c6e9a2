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

/** Work of one kind, so many at a time; who asks from the same place waits in turn with others. */
export class Lane {
	#running = 0;
	readonly #queue: (() => void)[] = [];
	readonly #places = new Map<string, number>();
	constructor(readonly bounds: Bounds) {}

	/**
	 * Resolves when the turn of a piece of work for a place has come; what it gives is called once, when the work is done. Throws `busy` where
	 * too much waits already, for that place or at all.
	 */
	async enter(place: string): Promise<() => void> {
		const { atOnce, waiting, perPlace } = this.bounds;
		const theirs = this.#places.get(place) ?? 0;
		if (theirs >= perPlace || (this.#running >= atOnce && this.#queue.length >= waiting)) throw new IanuaError('busy');
		this.#places.set(place, theirs + 1);
		if (this.#running >= atOnce) await new Promise<void>((go) => this.#queue.push(go));
		else this.#running++;
		let left = false;
		return () => {
			if (left) return;
			left = true;
			// it was counted in when it came
			const others = this.#places.get(place)! - 1;
			if (others) this.#places.set(place, others);
			else this.#places.delete(place);
			// the place in the lane goes on to whoever waits longest
			const next = this.#queue.shift();
			if (next) next();
			else this.#running--;
		};
	}

	/** Does a piece of work for a place when its turn comes. Throws `busy` as `enter` does. */
	async run<T>(place: string, work: () => Promise<T>): Promise<T> {
		const leave = await this.enter(place);
		try {
			return await work();
		} finally {
			leave();
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
/**
 * Attachments on their way out, decided, entered in the ledger and sent: programs that ask for them without end keep nobody from a document.
 * A slow reader costs next to nothing and leaves the lane after `mostHanding`.
 */
export const handLane = new Lane({ atOnce: 2, waiting: 40, perPlace: 6 });
export const mostHanding = 1000;
