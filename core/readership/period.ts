// Over which time a report goes, and beside which it stands. Days are YYYY-MM-DD in the site's zone, both ends included.
import { isDay } from '../access/hours';

const mostDays = 36_525;
export const lengths = [7, 30, 90, 365] as const;
export const steps = ['day', 'week', 'month'] as const;
export type Step = (typeof steps)[number];

export interface Days {
	readonly first: string;
	readonly last: string;
}

export interface Period extends Days {
	/** How many days. */
	readonly length: number;
	readonly by: Step;
	/** Set where the time is the last so many days and not one that was chosen. */
	readonly preset: (typeof lengths)[number] | null;
	/** As many days right before. */
	readonly before: Days;
}

const dayMs = 86_400_000;
const number = (day: string) => Math.round(Date.parse(`${day}T00:00Z`) / dayMs);
const text = (n: number) => new Date(n * dayMs).toISOString().slice(0, 10);

/** A day so many days later. Days of the calendar, so that a change of clocks is no matter. */
export const dayAfter = (day: string, days: number): string => text(number(day) + days);

/** Days from the first to the last, both counted. */
export const daysIn = ({ first, last }: Days): number => number(last) - number(first) + 1;

/**
 * Of what sums are kept, each lying whole in the next: days, dekads (from the 1st, 11th and 21st of a month on; the word is the World
 * Meteorological Organization's), months.
 */
export const sumSpans = ['day', 'dekad', 'month'] as const;
export type SumSpan = (typeof sumSpans)[number];

/** The first and the last day of the span in which a day lies. 2026-02-23, dekad → 2026-02-21 to 2026-02-28. */
export function sumSpanOf(day: string, span: SumSpan): Days {
	if (span === 'day') return { first: day, last: day };
	const month = stepOf(day, 'month');
	const end = dayAfter(stepOf(dayAfter(month, 31), 'month'), -1);
	if (span === 'month') return { first: month, last: end };
	const tens = Math.min(2, Math.floor((Number(day.slice(8)) - 1) / 10));
	return { first: dayAfter(month, 10 * tens), last: tens === 2 ? end : dayAfter(month, 10 * tens + 9) };
}

/** The longest spans, each by its first day, that together are the days from the first to the last. */
export function piecesOf({ first, last }: Days): { readonly spans: readonly SumSpan[]; readonly days: readonly string[] } {
	const pieces: { span: SumSpan; first: string }[] = [];
	for (let day = first; day <= last;) {
		const span = (['month', 'dekad'] as const).find((s) => sumSpanOf(day, s).first === day && sumSpanOf(day, s).last <= last) ?? 'day';
		pieces.push({ span, first: day });
		day = dayAfter(sumSpanOf(day, span).last, 1);
	}
	return { spans: pieces.map((p) => p.span), days: pieces.map((p) => p.first) };
}

/**
 * The time that an address asks for: `from` and `until` (days, both included), or the last `days` days; 30 where it says nothing that
 * can be meant. No report goes on past today, nor over more than a hundred years. `by` is what a bar of its series stands for.
 */
export function periodOf(
	asked: { readonly days?: string | null; readonly from?: string | null; readonly until?: string | null; readonly by?: string | null },
	today: string
): Period {
	const last = asked.until && isDay(asked.until) && asked.until < today ? asked.until : today;
	const from = asked.from && isDay(asked.from) && asked.from <= last ? asked.from : null;
	const earliest = dayAfter(last, 1 - mostDays);
	const chosen = from && from < earliest ? earliest : from;
	const preset = chosen ? null : (lengths.find((l) => String(l) === asked.days) ?? 30);
	// without a day chosen there is a preset
	const first = chosen ?? dayAfter(last, 1 - preset!);
	const length = daysIn({ first, last });
	const by = steps.find((s) => s === asked.by) ?? (length > 180 ? 'month' : length > 60 ? 'week' : 'day');
	return { first, last, length, by, preset: last === today ? preset : null, before: { first: dayAfter(first, -length), last: dayAfter(first, -1) } };
}

/** The first day of the week (Monday) or month in which a day lies. */
export function stepOf(day: string, by: Step): string {
	if (by === 'month') return `${day.slice(0, 7)}-01`;
	return by === 'week' ? dayAfter(day, -weekdayOf(day)) : day;
}

/** Monday 0, Sunday 6. */
export function weekdayOf(day: string): number {
	// 1970-01-01 was a Thursday
	return (((number(day) + 3) % 7) + 7) % 7;
}

/** A bar of a series: a day, week or month by its first day, beside as many days earlier. */
export interface Bar {
	readonly day: string;
	readonly openings: number;
	readonly saves: number;
	/** Openings and saves of the days as far before. */
	readonly before: number;
}

/** Every day, week or month of a period, with zeros where nothing happened. `rows` may hold the days before too. */
export function series(rows: readonly { readonly day: string; readonly openings: number; readonly saves: number }[], period: Period): Bar[] {
	const byDay = new Map(rows.map((r) => [r.day, r]));
	const bars = new Map<string, { day: string; openings: number; saves: number; before: number }>();
	for (let i = 0; i < period.length; i++) {
		const day = dayAfter(period.first, i);
		const step = stepOf(day, period.by);
		let bar = bars.get(step);
		if (!bar) bars.set(step, (bar = { day: step < period.first ? period.first : step, openings: 0, saves: 0, before: 0 }));
		const now = byDay.get(day);
		const then = byDay.get(dayAfter(day, -period.length));
		bar.openings += now?.openings ?? 0;
		bar.saves += now?.saves ?? 0;
		bar.before += (then?.openings ?? 0) + (then?.saves ?? 0);
	}
	return [...bars.values()];
}
