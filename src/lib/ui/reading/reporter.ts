// Tells the server what is read: the seconds for which each page was attended to, every so often and when one leaves, and that pages go
// to a printer.
import { AttentionClock, isSeen } from '#core/reading/attention';

/** Ms between two reports. */
const every = 20_000;
/** Pages that one report may tell of. */
const mostPages = 200;

/** Tells the server for how long which page was read. */
export class Reporter {
	#clock: AttentionClock | undefined;

	/** Reports go to `address`; `withdrawn` is called where the server says that this document is not to be read any more. */
	constructor(
		readonly address: string,
		readonly withdrawn: () => void
	) {}

	/** Listens to signs of the reader until the signal. */
	begin(signal: AbortSignal): void {
		const clock = (this.#clock = new AttentionClock(performance.now()));
		const sign = () => clock.sign(performance.now());
		for (const kind of ['pointermove', 'pointerdown', 'keydown', 'wheel', 'touchmove']) addEventListener(kind, sign, { signal, passive: true });
		const attended = () => clock.attended(document.visibilityState === 'visible' && document.hasFocus(), performance.now());
		for (const kind of ['focus', 'blur', 'pageshow']) addEventListener(kind, attended, { signal });
		// a page that is left says so more than once: from the first time on the clock stands, or the time between would be told by itself
		const left = () => {
			clock.attended(false, performance.now());
			this.report(true);
		};
		document.addEventListener('visibilitychange', () => (document.visibilityState === 'hidden' ? left() : attended()), { signal });
		addEventListener('pagehide', left, { signal });
		const timer = setInterval(() => this.report(), every);
		signal.addEventListener('abort', () => clearInterval(timer));
	}

	/** Shares of pages in sight, of the page and of the window, 0 to 1. */
	see(shares: readonly { readonly page: number; readonly ofPage: number; readonly ofWindow: number }[]): void {
		this.#clock?.see(
			shares.filter((s) => isSeen(s.ofPage, s.ofWindow)).map((s) => s.page),
			performance.now()
		);
	}

	/** Sends what was attended to since the last time. `leaving`: nothing can be waited for any more. */
	report(leaving = false): void {
		const pages = this.#clock?.take(performance.now(), leaving).slice(0, mostPages) ?? [];
		if (!pages.length) return;
		const body = JSON.stringify({ kind: 'read', pages });
		if (leaving) navigator.sendBeacon(this.address, new Blob([body], { type: 'application/json' }));
		else
			this.#post(body).then(
				({ status }) => {
					if ([401, 403, 404, 410].includes(status)) this.withdrawn();
				},
				() => undefined
			);
	}

	/** Pages go to a printer. */
	printed(): void {
		this.#post(JSON.stringify({ kind: 'printed' })).catch(() => undefined);
	}

	#post(body: string): Promise<Response> {
		return fetch(this.address, { method: 'POST', body, headers: { 'content-type': 'application/json' } });
	}
}
