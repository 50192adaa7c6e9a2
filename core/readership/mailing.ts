// When reports are mailed: on Monday, or on the first of the month, at seven in the morning in the site's zone.
import { dayOf, type Instant } from '../access/hours';
import { instantAt } from '../access/wall-time';
import { dayAfter, stepOf } from './period';

export const everies = ['week', 'month'] as const;
export type Every = (typeof everies)[number];

/** The next time after an instant. `nextMailing(2026-11-25T12:00Z, 'week', 'Europe/London')` is 2026-11-30T07:00Z. */
export function nextMailing(after: Instant, every: Every, zone: string): Instant {
	for (let day = stepOf(dayOf(after, zone), every); ; day = stepOf(dayAfter(day, every === 'week' ? 7 : 31), every)) {
		const at = instantAt({ day, time: '07:00' }, zone);
		if (at > after) return at;
	}
}

/**
 * The days that a mailing at an instant tells of, all over by then: the seven to yesterday, or the whole of the month before. A month has up to 31 days:
 * thirty would leave one of them out of every mail. `mailedDays(2027-01-01T07:00Z, 'month', 'Europe/London')` is 2026-12-01 to 2026-12-31.
 */
export function mailedDays(at: Instant, every: Every, zone: string): { first: string; last: string } {
	const today = dayOf(at, zone);
	if (every === 'week') return { first: dayAfter(today, -7), last: dayAfter(today, -1) };
	const last = dayAfter(`${today.slice(0, 7)}-01`, -1);
	return { first: `${last.slice(0, 7)}-01`, last };
}
