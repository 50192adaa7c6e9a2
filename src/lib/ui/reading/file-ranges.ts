// The file as pdf.js reads it: by ranges, only what the pages shown need, asked for again for as long as the connection is away.
import type { PDFDataRangeTransport } from 'pdfjs-dist';
import { rangesOf, stepBytes } from '#core/reading/opening';

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
	/** Steps asked for before pdf.js wants them: those of the first page, and the end of the file. */
	readonly #ahead = new Map<number, Promise<Uint8Array | null>>();
	#trouble = 0;

	constructor(address: string, events: RangeEvents) {
		this.#address = address;
		this.#events = events;
	}

	/**
	 * Length of the file and its first bytes; begins to fetch the steps that the first page is known to take, all at once, else the last one,
	 * which a PDF is read from.
	 */
	async begin(opening: readonly number[] = []): Promise<{ length: number; first: ArrayBuffer }> {
		// how long the file is, is not known yet: what lies beyond its end does not come
		const [[, firstEnd] = [0, stepBytes], ...others] = rangesOf([0, ...opening], Infinity);
		const answering = this.#fetch(`bytes=0-${firstEnd - 1}`);
		for (const [begin, end] of others) this.#fetchAhead(begin, end);
		const answer = await answering;
		const length = Number(/\/(\d+)$/.exec(answer.headers.get('content-range') ?? '')?.[1] ?? answer.headers.get('content-length'));
		const first = await answer.arrayBuffer();
		const last = Math.floor((length - 1) / stepBytes);
		if (first.byteLength < length && !this.#ahead.has(last)) this.#fetchAhead(last * stepBytes, length);
		return { length, first };
	}

	#fetchAhead(begin: number, end: number) {
		const coming = this.#bytes(begin, end);
		for (let at = begin; at < end; at += stepBytes)
			this.#ahead.set(
				at / stepBytes,
				coming.then((bytes) => bytes && new Uint8Array(bytes).subarray(at - begin, at - begin + stepBytes))
			);
	}

	/** Bytes that pdf.js wants: what was asked for before, and between those what was not. */
	async #wanted(begin: number, end: number): Promise<Uint8Array | null> {
		const parts: Promise<Uint8Array | null>[] = [];
		for (let at = begin; at < end;) {
			const known = this.#ahead.get(at / stepBytes);
			let next = at + stepBytes;
			if (known) this.#ahead.delete(at / stepBytes);
			else while (next < end && !this.#ahead.has(next / stepBytes)) next += stepBytes;
			parts.push(known ?? this.#bytes(at, Math.min(next, end)).then((bytes) => bytes && new Uint8Array(bytes)));
			at = next;
		}
		const come = await Promise.all(parts);
		const bytes = new Uint8Array(end - begin);
		let at = 0;
		for (const part of come) {
			if (!part) return null;
			bytes.set(part, at);
			at += part.length;
		}
		return bytes;
	}

	/** A transport for pdf.js over these ranges. */
	transport(base: typeof PDFDataRangeTransport, length: number, first: ArrayBuffer): PDFDataRangeTransport {
		const give = (begin: number, end: number) => this.#wanted(begin, end);
		const stop = () => this.close();
		class Transport extends base {
			override requestDataRange(begin: number, end: number) {
				void give(begin, end).then((bytes) => {
					if (bytes) this.onDataRange(begin, bytes);
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
