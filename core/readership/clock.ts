// Clock hours: by them unique use and robots are told. Every quarter of an hour lies in one clock hour, in all zones there are.
import type { Instant } from '../access/hours';

const quarterMs = 900_000;

/** Gives the clock hour, 0 to 23, of an instant in a zone. */
export function hourIn(zone: string): (at: Instant) => number {
	const format = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: 'numeric', hourCycle: 'h23' });
	const known = new Map<number, number>();
	return (at) => {
		const quarter = Math.floor(at / quarterMs);
		let hour = known.get(quarter);
		if (hour === undefined) known.set(quarter, (hour = Number(format.format(quarter * quarterMs))));
		return hour;
	};
}

/**
 * The clock hour in which an instant lies, from its first instant until the next begins, within [from, until). Where clocks go back over an
 * hour it takes longer. London, 2026-10-25T00:30Z → 00:00Z to 02:00Z, which is twice from one to two o’clock.
 */
export function clockHour(
	at: Instant,
	hourOf: (at: Instant) => number,
	within: { readonly from: Instant; readonly until: Instant }
): { from: Instant; until: Instant } {
	const hour = hourOf(at);
	let from = Math.floor(at / quarterMs) * quarterMs;
	let until = from + quarterMs;
	while (from > within.from && hourOf(from - quarterMs) === hour) from -= quarterMs;
	while (until < within.until && hourOf(until) === hour) until += quarterMs;
	return { from, until };
}
