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
