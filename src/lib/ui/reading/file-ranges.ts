// The file as pdf.js reads it: by ranges, only what the pages shown need, asked for again for as long as the connection is away.
import type { PDFDataRangeTransport } from 'pdfjs-dist';

export const rangeSize = 65_536;

export type Refusal = 'withdrawn' | 'failed';

export interface RangeEvents {
	/** The connection went, or came back. */
	lost(lost: boolean): void;
	/** Whoever reads is not let in any more, or the file cannot be given at all. */
	refused(why: Refusal): void;
}

/** Somebody is turned away at these; anything else is the server's or the network's trouble, which may pass. */
const turnedAway = new Set([401, 403, 404, 410]);

/** Fetches a file’s byte ranges for pdf.js, a few at a time, and asks again where one broke off. */
export class Ranges {
	readonly #address: string;
	readonly #events: RangeEvents;
	readonly #ended = new AbortController();
	/** Asked for before pdf.js wants it: the beginning and the end of the file. */
	readonly #ahead = new Map<number, Promise<ArrayBuffer | null>>();
	#trouble = 0;

	constructor(address: string, events: RangeEvents) {
		this.#address = address;
		this.#events = events;
	}

	/** Length of the file and its first bytes; begins to fetch its last ones, which a PDF is read from. */
	async begin(): Promise<{ length: number; first: ArrayBuffer }> {
		const answer = await this.#fetch(`bytes=0-${rangeSize - 1}`);
		const length = Number(/\/(\d+)$/.exec(answer.headers.get('content-range') ?? '')?.[1] ?? answer.headers.get('content-length'));
		const first = await answer.arrayBuffer();
		const lastChunk = Math.floor((length - 1) / rangeSize) * rangeSize;
		if (lastChunk > 0) this.#ahead.set(lastChunk, this.#bytes(lastChunk, length));
		return { length, first };
	}

	/** A transport for pdf.js over these ranges. */
	transport(base: typeof PDFDataRangeTransport, length: number, first: ArrayBuffer): PDFDataRangeTransport {
		const give = (begin: number, end: number) => this.#bytes(begin, end);
		const ahead = this.#ahead;
		const stop = () => this.close();
		class Transport extends base {
			override requestDataRange(begin: number, end: number) {
				const known = ahead.get(begin);
				ahead.delete(begin);
				void (known ?? give(begin, end)).then((bytes) => {
					if (bytes) this.onDataRange(begin, new Uint8Array(bytes));
				});
			}
			override abort() {
				stop();
			}
		}
		return new Transport(length, new Uint8Array(first));
	}

	async #bytes(begin: number, end: number): Promise<ArrayBuffer | null> {
		try {
			return await (await this.#fetch(`bytes=${begin}-${end - 1}`)).arrayBuffer();
		} catch {
			return null;
		}
	}

	/** One range, tried again until it comes. Throws where the reader is turned away or the room is closed. */
	async #fetch(range: string): Promise<Response> {
		for (let tried = 0; ; tried++) {
			try {
				const answer = await fetch(this.#address, { headers: { range }, signal: this.#ended.signal, cache: 'no-store' });
				if (answer.ok) {
					if (tried) this.#back();
					return answer;
				}
				if (turnedAway.has(answer.status)) {
					this.#events.refused('withdrawn');
					throw new DOMException('turned away', 'AbortError');
				}
				if (answer.status < 500 && answer.status !== 429) {
					this.#events.refused('failed');
					throw new DOMException('failed', 'AbortError');
				}
			} catch (error) {
				if ((error as Error).name === 'AbortError') throw error;
			}
			if (!tried && this.#trouble++ === 0) this.#events.lost(true);
			await this.#pause(Math.min(8000, 500 * 2 ** tried));
		}
	}

	#back() {
		if (--this.#trouble === 0) this.#events.lost(false);
	}

	/** Waits, but no longer than until the browser says that the network is back. */
	#pause(ms: number): Promise<void> {
		const { signal } = this.#ended;
		return new Promise((go, stop) => {
			const ended = new AbortController();
			const done = () => {
				ended.abort();
				clearTimeout(timer);
				if (signal.aborted) stop(new DOMException('closed', 'AbortError'));
				else go();
			};
			const timer = setTimeout(done, ms);
			addEventListener('online', done, { signal: ended.signal });
			signal.addEventListener('abort', done, { signal: ended.signal });
		});
	}

	close() {
		this.#ended.abort();
	}
}
