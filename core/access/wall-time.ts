// Days and times as clocks on the wall show them in a zone, and as people type them: "7/12 9:00", "28 December 18:00", "2026-12-07".
import { TZDate } from '@date-fns/tz';
import { dayOf, isDay, type Instant } from './hours';

/** What a calendar and a clock show: `day` as YYYY-MM-DD, `time` as HH:MM of 24 hours. */
export interface WallTime {
	readonly day: string;
	readonly time: string;
}

/** What calendar and clock show in a zone at an instant; seconds are left out. */
export function wallTimeOf(at: Instant, zone: string): WallTime {
	const local = new TZDate(at, zone);
	const two = (n: number) => String(n).padStart(2, '0');
	return { day: dayOf(at, zone), time: `${two(local.getHours())}:${two(local.getMinutes())}` };
}

/**
 * The instant at which clocks in a zone show a time. One that is left out when clocks go forward is as much later as they jump; of one that
 * comes twice when they go back it is the first.
 * `instantAt({ day: '2026-12-07', time: '09:00' }, 'Europe/London')` is 2026-12-07T09:00Z.
 */
export function instantAt({ day, time }: WallTime, zone: string): Instant {
	const [year, month, date] = day.split('-').map(Number) as [number, number, number];
	const [hour, minute] = time.split(':').map(Number) as [number, number];
	const at = new TZDate(year, month - 1, date, hour, minute, 0, 0, zone).getTime();
	// where a time comes twice, an hour earlier (or half of one: Lord Howe) the clocks showed the same
	for (const before of [3_600_000, 1_800_000]) {
		const earlier = wallTimeOf(at - before, zone);
		if (earlier.day === day && earlier.time === time) return at - before;
	}
	return at;
}

/** A bound of hours as it is stored: a whole day where no time is said, else an instant in UTC (RFC 3339). */
export const boundOf = (day: string, time: string | null, zone: string): string =>
	time === null ? day : new Date(instantAt({ day, time }, zone)).toISOString();

/** A stored bound as it is shown; `time` is null where the whole day is meant. */
export const shownBound = (bound: string, zone: string): { readonly day: string; readonly time: string | null } =>
	isDay(bound) ? { day: bound, time: null } : wallTimeOf(Date.parse(bound), zone);

/** A time as it is typed: "9", "9:00", "9.30", "0930", "9 pm", "18h"; null where it is none. */
export function readTime(text: string): string | null {
	const found = /^(\d{1,2})(?:[:.h]?(\d{2}))?\s*(?:h|uhr|(am|pm|a\.m\.|p\.m\.))?$/i.exec(text.trim());
	if (!found) return null;
	const half = found[3]?.toLowerCase().charAt(0);
	let hour = Number(found[1]);
	const minute = Number(found[2] ?? 0);
	if (half && (hour < 1 || hour > 12)) return null;
	if (half) hour = (hour % 12) + (half === 'p' ? 12 : 0);
	return hour > 23 || minute > 59 ? null : `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}

/** How days are typed in a language: whether the day comes before the month, and what the months are called, long and short. */
export interface DayHabit {
	readonly dayFirst: boolean;
	readonly months: readonly (readonly string[])[];
}

/** The habit of a language (BCP 47); English names of months are known besides. */
export function dayHabitOf(language: string): DayHabit {
	const noon = (month: number) => new Date(Date.UTC(2026, month, 15, 12));
	const name = (locale: string, month: number, length: 'long' | 'short') =>
		// a month and a day were asked for, so both are among the parts
		new Intl.DateTimeFormat(locale, { month: length, day: 'numeric', timeZone: 'UTC' })
			.formatToParts(noon(month))
			.find((p) => p.type === 'month')!
			.value.toLocaleLowerCase(locale)
			.replace(/\.$/, '');
	const parts = new Intl.DateTimeFormat(language, { day: 'numeric', month: 'numeric', year: 'numeric' }).formatToParts(noon(0)).map((p) => p.type);
	return {
		dayFirst: parts.indexOf('day') < parts.indexOf('month'),
		months: Array.from({ length: 12 }, (_, month) => [
			...new Set([language, 'en'].flatMap((locale) => [name(locale, month, 'long'), name(locale, month, 'short')]))
		])
	};
}

/**
 * A day as it is typed, with the time where one follows it; null where it cannot be told. Without a year it is the next such day from
 * `today` (YYYY-MM-DD) on; two figures are a year of this century.
 */
export function readMoment(text: string, today: string, { dayFirst, months }: DayHabit): { readonly day: string; readonly time: string | null } | null {
	const [, day = '', after = ''] = dayPart(text.trim().toLocaleLowerCase(), months) ?? [];
	if (!day) return null;
	const time = after.trim() ? readTime(after.replace(/^[\s,t]*(?:(?:at|um|à|a las|o)\s+)?/, '')) : null;
	if (after.trim() && time === null) return null;
	const read = readDay(day, today, dayFirst, months);
	return read === null ? null : { day: read, time };
}

/** A year in four figures, or in two: up to 23 they could be an hour. */
const year = "(?:\\d{4}|[’']?(?:2[4-9]|[3-9]\\d))";

/** Splits what is typed behind its day. */
function dayPart(text: string, months: DayHabit['months']): RegExpExecArray | null {
	const name = months
		.flat()
		.sort((a, b) => b.length - a.length)
		.map((word) => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
		.join('|');
	return (
		/^(\d{4}-\d{1,2}-\d{1,2})(?!\d)(.*)$/.exec(text) ??
		/^(\d{1,2}[/.-]\d{1,2}(?:[/.-](?:\d{4}|\d{2}))?\.?)(?![\d:])(.*)$/.exec(text) ??
		new RegExp(`^((?:\\p{L}+\\.?,?\\s+)?\\d{1,2}\\.?\\s*(?:de\\s+)?(?:${name})\\.?(?:\\s+(?:de\\s+)?${year})?)(?![\\p{L}\\d:])(.*)$`, 'u').exec(text) ??
		new RegExp(`^((?:${name})\\.?\\s+\\d{1,2}(?:,?\\s+${year})?)(?![\\p{L}\\d:])(.*)$`, 'u').exec(text)
	);
}

function readDay(text: string, today: string, dayFirst: boolean, months: DayHabit['months']): string | null {
	const figures = [...text.matchAll(/\d+/g)].map((m) => m[0]);
	const named = months.findIndex((names) => names.some((name) => new RegExp(`(^|[^\\p{L}])${name}([^\\p{L}]|$)`, 'u').test(text)));
	let year: number | null = null;
	let month: number;
	let date: number;
	if (named >= 0) {
		[month, date] = [named + 1, Number(figures[0])];
		year = figures[1] ? Number(figures[1]) + (figures[1].length === 2 ? 2000 : 0) : null;
	} else if (figures[0]!.length === 4) [year, month, date] = figures.map(Number) as [number, number, number];
	else {
		const [first, second] = figures.map(Number) as [number, number];
		[date, month] = dayFirst ? [first, second] : [second, first];
		year = figures[2] ? Number(figures[2]) + (figures[2].length === 2 ? 2000 : 0) : null;
	}
	const dayIn = (y: number) => `${String(y).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(date).padStart(2, '0')}`;
	if (year !== null) return isDay(dayIn(year)) ? dayIn(year) : null;
	// 29 February is next in a leap year
	const now = Number(today.slice(0, 4));
	for (let y = now; y <= now + 8; y++) if (isDay(dayIn(y)) && dayIn(y) >= today) return dayIn(y);
	return null;
}
