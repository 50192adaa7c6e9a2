// Instants, days in the site's time zone, and spans between them. Inside, every span is [from, until).
import { TZDate } from '@date-fns/tz';
import { dateFormat } from '../text/formats';

/** Milliseconds since 1970-01-01T00:00Z. */
export type Instant = number;

/** From `from` (included) until `until` (left out); null means without bound. */
export interface Span {
	readonly from: Instant | null;
	readonly until: Instant | null;
}

export const always: Span = { from: null, until: null };

const dayShape = /^(\d{4})-(\d{2})-(\d{2})$/;

/** Years in which days and instants may lie: in every zone they have four figures, and the day after has too. */
const years = { first: 1000, last: 9998 } as const;

/** True for a text of the form YYYY-MM-DD that names a day of the calendar, from the year 1000 to 9998. */
export function isDay(text: string): boolean {
	const m = dayShape.exec(text);
	if (!m || Number(m[1]) < years.first || Number(m[1]) > years.last) return false;
	const date = new Date(Date.UTC(Number(m[1]), Number(m[2]) - 1, Number(m[3])));
	return date.getUTCMonth() === Number(m[2]) - 1 && date.getUTCDate() === Number(m[3]);
}

/** True for a text that JavaScript reads as an instant (RFC 3339 without leap seconds) of the years 1000 to 9998. */
export function isInstant(text: string): boolean {
	const year = new Date(text).getUTCFullYear();
	return year >= years.first && year <= years.last;
}

/**
 * The first instant of a day in a zone; where clocks jump over midnight, the first instant there is.
 * `startOfDay('2026-10-25', 'Europe/London')` is 2026-10-24T23:00Z.
 */
export function startOfDay(day: string, zone: string): Instant {
	const key = `${zone} ${day}`;
	let start = starts.get(key);
	if (start === undefined) {
		start = firstInstant(day, zone);
		if (starts.size >= 10_000) starts.clear();
		starts.set(key, start);
	}
	return start;
}

/** Every request asks for the same few days again; working one out takes a search in the calendar. */
const starts = new Map<string, Instant>();

function firstInstant(day: string, zone: string): Instant {
	const m = dayShape.exec(day);
	if (!m) throw new RangeError(`not a day: ${day}`);
	const [y, mo, d] = [Number(m[1]), Number(m[2]) - 1, Number(m[3])];
	const at = new TZDate(y, mo, d, 0, 0, 0, 0, zone).getTime();
	// Midnight left out by a change of clocks can come back as an instant of the day before: walk to the day's own first.
	for (let minutes = 0; minutes <= 180; minutes += 15) {
		if (dayOf(at + minutes * 60_000, zone) === day) return at + minutes * 60_000;
	}
	return at;
}

/** The instant at which a day in a zone is over: the first of the day after. */
export function endOfDay(day: string, zone: string): Instant {
	const m = dayShape.exec(day);
	if (!m) throw new RangeError(`not a day: ${day}`);
	const next = new Date(Date.UTC(Number(m[1]), Number(m[2]) - 1, Number(m[3]) + 1));
	return startOfDay(next.toISOString().slice(0, 10), zone);
}

/** The day (YYYY-MM-DD) on which an instant falls in a zone. */
export function dayOf(at: Instant, zone: string): string {
	return dateFormat('en-CA', { timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(at);
}

/** The span that a pair of bounds means; a bound is a day in the zone, an RFC 3339 instant, or null. */
export function spanOf(from: string | null, until: string | null, zone: string): Span {
	return {
		from: from === null ? null : isDay(from) ? startOfDay(from, zone) : Date.parse(from),
		until: until === null ? null : isDay(until) ? endOfDay(until, zone) : Date.parse(until)
	};
}

/** Where an instant stands to a span. */
export function within(span: Span, at: Instant): 'before' | 'in' | 'after' {
	if (span.from !== null && at < span.from) return 'before';
	if (span.until !== null && at >= span.until) return 'after';
	return 'in';
}
