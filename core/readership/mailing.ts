// When reports are mailed: on Monday, or on the first of the month, at seven in the morning in the site's zone.
import { TZDate } from '@date-fns/tz';
import { dayOf, type Instant } from '../access/hours';
import { dayAfter, stepOf } from './period';

export const everies = ['week', 'month'] as const;
export type Every = (typeof everies)[number];

/** The next time after an instant. `nextMailing(2026-11-25T12:00Z, 'week', 'Europe/London')` is 2026-11-30T07:00Z. */
export function nextMailing(after: Instant, every: Every, zone: string): Instant {
	for (let day = stepOf(dayOf(after, zone), every); ; day = stepOf(dayAfter(day, every === 'week' ? 7 : 31), every)) {
		const [year, month, date] = day.split('-').map(Number) as [number, number, number];
		const at = new TZDate(year, month - 1, date, 7, 0, 0, 0, zone).getTime();
		if (at > after) return at;
	}
}
