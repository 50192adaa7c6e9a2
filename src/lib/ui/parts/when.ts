// Times said as people say them, in the site's zone.

/** '2 November' within this year, else '2 November 2025'. */
export function dayText(iso: string, zone: string, now = Date.now(), language = 'en'): string {
	const spoken = language === 'en' ? 'en-GB' : language;
	const year = (t: number) => new Intl.DateTimeFormat('en-GB', { timeZone: zone, year: 'numeric' }).format(t);
	const at = Date.parse(iso);
	return new Intl.DateTimeFormat(spoken, { timeZone: zone, day: 'numeric', month: 'long', ...(year(at) === year(now) ? {} : { year: 'numeric' }) }).format(at);
}

/** '24 Nov, 14:02'. */
export function timeText(iso: string, zone: string, language = 'en'): string {
	return new Intl.DateTimeFormat(language === 'en' ? 'en-GB' : language, {
		timeZone: zone,
		day: 'numeric',
		month: 'short',
		hour: '2-digit',
		minute: '2-digit'
	}).format(Date.parse(iso));
}
