// The site's own settings: name and time zone.
import { sql as raw } from 'drizzle-orm';
import { Type, type Static } from '@sinclair/typebox';
import { TurnedAwayGiven, type TurnedAwayWords } from '#core/access/door';
import { db, sql } from '../db/client';
import { setting } from '../db/schema';
import { writeAudit } from './audit';

export interface Site {
	readonly name: string;
	/** IANA name of the one time zone in which the site's days are counted. */
	readonly zone: string;
	/** Where weaknesses are reported: a mail address or a web address, for security.txt. */
	readonly contact?: string | null;
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

/** What the owner sets of the site; only what is named changes. */
export const SiteChange = Type.Object(
	{
		turnedAway: Type.Optional(Type.Union([Type.Null(), TurnedAwayGiven])),
		contact: Type.Optional(Type.Union([Type.Null(), Type.String({ maxLength: 400, pattern: '^(?:https://[^\\s]+|[^\\s@]+@[^\\s@]+)$' })]))
	},
	{ additionalProperties: false }
);

/** Changes what is named, with its entry in the trail. */
export async function changeSite(change: Static<typeof SiteChange>, actor: string): Promise<Site> {
	await db().transaction(async (tx) => {
		const [row] = (await tx.execute(raw`select value from setting where key = 'site' for update`)) as unknown as [{ value: Site } | undefined];
		const before = { ...unnamed, ...row?.value };
		const value = { ...before, ...change };
		await tx.insert(setting).values({ key: 'site', value }).onConflictDoUpdate({ target: setting.key, set: { value } });
		await writeAudit(tx, { actor, action: 'changed', kind: 'site', thing: actor, before, after: value });
	});
	kept = undefined;
	return site();
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
