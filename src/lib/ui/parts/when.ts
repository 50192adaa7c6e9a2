// Times said as people say them, in the site's zone.
import { isDay } from '#core/access/hours';
import { dateFormat } from '#core/text/formats';

/** '2 November' within this year, else '2 November 2025': of an instant in the zone, or of a day ('2026-11-02'), which is the same day in every zone. */
export function dayText(iso: string, zone: string, now = Date.now(), language = 'en'): string {
	const [timeZone, at] = isDay(iso) ? ['UTC', Date.parse(`${iso}T12:00Z`)] : [zone, Date.parse(iso)];
	const year = (t: number, where: string) => dateFormat('en', { timeZone: where, year: 'numeric' }).format(t);
	return dateFormat(language, { timeZone, day: 'numeric', month: 'long', ...(year(at, timeZone) === year(now, zone) ? {} : { year: 'numeric' }) }).format(at);
}

/** '24 Nov, 14:02'. */
export function timeText(iso: string, zone: string, language = 'en'): string {
	return dateFormat(language, {
		timeZone: zone,
		day: 'numeric',
		month: 'short',
		hour: '2-digit',
		minute: '2-digit'
	}).format(Date.parse(iso));
}
