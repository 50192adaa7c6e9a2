// How often each of very many names came, in little memory: never fewer than it did, seldom more. A count-min sketch (Cormode and
// Muthukrishnan, An improved data stream summary, Journal of Algorithms 55, 2005).

const width = 1 << 19;
const most = 255;

/** FNV-1a, 32 bits (draft-eastlake-fnv). */
function hashOf(name: string): number {
	let hash = 0x811c9dc5;
	for (let i = 0; i < name.length; i++) hash = Math.imul(hash ^ name.charCodeAt(i), 0x01000193);
	return hash >>> 0;
}

/** Counts of names in one megabyte. With a million names most of them are counted one or two times too often. */
export class CountMinSketch {
	/** Two rows of counters; a name has one in each. */
	readonly #counters = new Uint8Array(2 * width);

	/** Counts a name `n` times more. Gives how often it came at most; what is over 255 counts as 255. */
	add(name: string, n = 1): number {
		const hash = hashOf(name);
		const [a, b] = [hash % width, width + (Math.imul(hash, 0x9e3779b1) >>> 13)];
		this.#counters[a] = Math.min(most, this.#counters[a]! + n);
		this.#counters[b] = Math.min(most, this.#counters[b]! + n);
		return Math.min(this.#counters[a], this.#counters[b]);
	}
}
