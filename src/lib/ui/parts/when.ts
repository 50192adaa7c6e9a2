// Times said as people say them, in the site's zone.
import { dateFormat } from '#core/text/formats';

/** '2 November' within this year, else '2 November 2025'. */
export function dayText(iso: string, zone: string, now = Date.now(), language = 'en'): string {
	const year = (t: number) => dateFormat('en', { timeZone: zone, year: 'numeric' }).format(t);
	const at = Date.parse(iso);
	return dateFormat(language, { timeZone: zone, day: 'numeric', month: 'long', ...(year(at) === year(now) ? {} : { year: 'numeric' }) }).format(at);
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
