// The site's own settings: name and time zone.
import type { TurnedAwayWords } from '#core/access/door';
import { db, sql } from '../db/client';
import { setting } from '../db/schema';

export interface Site {
	readonly name: string;
	/** IANA name of the one time zone in which the site's days are counted. */
	readonly zone: string;
	/** What those turned away are told, where a document or page has no words of its own. */
	readonly turnedAway?: TurnedAwayWords | null;
}

const unnamed: Site = { name: 'Our documents', zone: 'UTC' };
const keepFor = 5_000;
let kept: { site: Site; at: number } | undefined;

/** The site's settings; a change made by another server is seen within five seconds. */
export async function site(): Promise<Site> {
	if (kept && Date.now() - kept.at < keepFor) return kept.site;
	const [row] = await sql()<{ value: Site }[]>`select value from setting where key = 'site'`;
	kept = { site: { ...unnamed, ...row?.value }, at: Date.now() };
	return kept.site;
}

export async function saveSite(value: Site): Promise<void> {
	await db().insert(setting).values({ key: 'site', value }).onConflictDoUpdate({ target: setting.key, set: { value } });
	kept = undefined;
}

/** True for a zone that this machine's calendar knows. */
export function isZone(zone: string): boolean {
	try {
		new Intl.DateTimeFormat('en', { timeZone: zone });
		return true;
	} catch {
		return false;
	}
}
