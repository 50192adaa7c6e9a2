// The site's own settings: name and time zone.
import { sql as raw } from 'drizzle-orm';
import { Type, type Static } from '@sinclair/typebox';
import { Line } from '#core/text/line';
import type postgres from 'postgres';
import { dayOf } from '#core/access/hours';
import { TurnedAwayGiven, type TurnedAwayWords } from '#core/access/door';
import { IanuaError } from '#core/errors';
import { documentPages, Fields, fieldsTrouble, type DocumentPage, type Field } from '#core/documents/fields';
import { framerPattern } from '#core/placing/outside';
import { pagePathPattern } from '#core/placing/path';
import { PlacementDefaults } from '#core/placing/placement';
import { ReadershipSettings } from '#core/readership/settings';
import { ReadingSettings } from '#core/reading/settings';
import { languages, type Language } from '#core/words/words';
import { Foot, Notice } from '#core/site/look';
import { contrast, leastContrast, nearestPassing, siteGround, siteInk } from '#core/site/colour';
import { reckonHours } from '../access/hours';
import { Cache } from '../db/cache';
import { changed, tellOfWork } from '../db/changes';
import { db, sql } from '../db/client';
import { setting } from '../db/schema';
import { log } from '../log';
import { named, writeAudit } from './audit';
import { nullable, oneOf } from '#core/schema';

export interface Site {
	readonly name: string;
	/** IANA name of the one time zone in which the site's days are counted. */
	readonly zone: string;
	/** Where weaknesses are reported: a mail address or a web address, for security.txt. */
	readonly contact?: string | null;
	/** What those turned away are told, where a document or page has no words of its own. */
	readonly turnedAway?: TurnedAwayWords | null;
	/** What placements are like unless they say otherwise. */
	readonly placing?: PlacementDefaults | null;
	/** What reading rooms are like unless a document or placement says otherwise. */
	readonly reading?: ReadingSettings | null;
	/** The language that the site is written in; null goes by the reader's browser. */
	readonly language?: Language | null;
	/** The site's mark before its name, and its favicon: pictures by their checksums. */
	readonly mark?: string | null;
	readonly favicon?: string | null;
	/** Colour of links and buttons, and of the ground, as #rrggbb. */
	readonly colour?: string | null;
	readonly background?: string | null;
	/** The picture behind the band of the front page. */
	readonly band?: string | null;
	/** What the foot of every page says, and a line above every page. */
	readonly foot?: Foot | null;
	readonly notice?: Notice | null;
	/** The page that stands at / where no page has that path. */
	readonly front?: string | null;
	/** What is kept of readers, and what counts as read through. */
	readonly readership?: ReadershipSettings | null;
	/** Whether llms.txt tells language models of what is open; it does unless this is false. */
	readonly llms?: boolean | null;
	/** Origins of other websites whose programs may speak to the API by a token (http/cors.ts). */
	readonly programOrigins?: readonly string[];
	/** Websites that may frame documents: hosts, with a port, or all hosts under one as in *.example.org. */
	readonly framers?: readonly string[];
	/** Particulars that the site gives its documents. */
	readonly fields?: readonly Field[];
	/** What a document's page has: the way to read it, or its particulars with the document to read in place. */
	readonly documentPage?: DocumentPage | null;
}

/** What every page needs of the site. */
export interface SiteLook extends Pick<Site, 'name' | 'mark' | 'favicon' | 'colour' | 'background' | 'band'> {
	readonly foot?: Foot & { readonly contact?: string | null };
	/** In its days only. */
	readonly notice?: Notice | null;
}

const unnamed: Site = { name: 'Our documents', zone: 'UTC' };
const cache = new Cache<Site>({ most: 1 });

/** The site's settings; a change made by another server is seen within a second. */
export const site = (): Promise<Site> =>
	cache.get('site', async () => {
		const [row] = await sql()<{ value: Site }[]>`select value from setting where key = 'site'`;
		return { value: { ...unnamed, ...row?.value }, until: Infinity };
	});

/** The site's time zone as it stands in this transaction: what must not go by a zone that was changed a moment ago by another server asks here. */
export async function zoneIn(tx: postgres.TransactionSql): Promise<string> {
	const [row] = await tx<{ zone: string | null }[]>`select value ->> 'zone' as zone from setting where key = 'site'`;
	return row?.zone ?? unnamed.zone;
}

const Colour = Type.Union([Type.Null(), Type.String({ pattern: '^#[0-9a-f]{6}$' })]);
const PictureName = Type.Union([Type.Null(), Type.String({ pattern: '^[0-9a-f]{64}$' })]);

/** What every page of the site and of the desk shows. */
export async function siteLook(): Promise<SiteLook & Pick<Site, 'zone' | 'language'>> {
	const { name, zone, language, mark, favicon, colour, background, band, foot, contact, notice } = await site();
	return {
		name,
		zone,
		language: language ?? null,
		mark,
		favicon,
		colour,
		background,
		band,
		foot: { ...foot, contact: contact ?? null },
		notice: notice && (!notice.until || notice.until >= dayOf(Date.now(), zone)) ? notice : null
	};
}

/** What the owner sets of the site; only what is named changes. */
export const SiteChange = Type.Object(
	{
		turnedAway: Type.Optional(Type.Union([Type.Null(), TurnedAwayGiven])),
		contact: Type.Optional(Type.Union([Type.Null(), Type.String({ maxLength: 400, pattern: '^(?:https://[^\\s]+|[^\\s@]+@[^\\s@]+)$' })])),
		name: Type.Optional(Line(120)),
		zone: Type.Optional(Type.String({ maxLength: 60, description: 'IANA name of the time zone in which days begin and end' })),
		placing: Type.Optional(Type.Union([Type.Null(), PlacementDefaults])),
		reading: Type.Optional(Type.Union([Type.Null(), ReadingSettings])),
		language: Type.Optional(nullable(oneOf(languages))),
		mark: Type.Optional(PictureName),
		favicon: Type.Optional(PictureName),
		colour: Type.Optional(Colour),
		background: Type.Optional(Colour),
		band: Type.Optional(PictureName),
		foot: Type.Optional(Type.Union([Type.Null(), Foot])),
		notice: Type.Optional(Type.Union([Type.Null(), Notice])),
		readership: Type.Optional(Type.Union([Type.Null(), ReadershipSettings])),
		fields: Type.Optional(Fields),
		documentPage: Type.Optional(nullable(oneOf(documentPages))),
		front: Type.Optional(Type.Union([Type.Null(), Type.String({ maxLength: 200, pattern: pagePathPattern })])),
		llms: Type.Optional(
			Type.Union([Type.Null(), Type.Boolean()], { description: 'whether llms.txt tells language models of what is open; it does unless this is false' })
		),
		programOrigins: Type.Optional(
			Type.Array(
				Type.String({ maxLength: 200, pattern: '^https?://[a-z0-9.-]+(:\\d{1,5})?$', description: 'an origin, as https://catalogue.example.org is one' }),
				{
					maxItems: 100,
					uniqueItems: true,
					description: 'origins of other websites whose programs may speak to the API by a token'
				}
			)
		),
		framers: Type.Optional(Type.Array(Type.String({ maxLength: 200, pattern: framerPattern }), { maxItems: 100, uniqueItems: true }))
	},
	{ additionalProperties: false }
);

/** Refuses colours on which words could not be read, and offers the nearest that pass. */
function checkColours(change: Static<typeof SiteChange>, before: Site): void {
	if (change.colour === undefined && change.background === undefined) return;
	const background = change.background === undefined ? (before.background ?? siteGround) : (change.background ?? siteGround);
	const colour = change.colour === undefined ? before.colour : change.colour;
	const refuse = (given: string, on: string, passes: string) => {
		throw new IanuaError('colour-unreadable', { colour: given, on, ratio: contrast(given, on).toFixed(1), passes });
	};
	if (contrast(siteInk, background) < leastContrast) refuse(background, siteInk, nearestPassing(background, [siteInk]));
	if (colour && (contrast(colour, background) < leastContrast || contrast(colour, '#ffffff') < leastContrast))
		refuse(colour, background, nearestPassing(colour, [background, '#ffffff']));
}

/** Changes what is named, with its entry in the trail. */
export async function changeSite(change: Static<typeof SiteChange>, actor: string): Promise<Static<typeof SiteChange>> {
	const was = await db().transaction(async (tx) => {
		const [row] = await tx.execute<{ value: Site }>(raw`select value from setting where key = 'site' for update`);
		const before = { ...unnamed, ...row?.value };
		checkColours(change, before);
		if (change.zone !== undefined && !isZone(change.zone)) throw new IanuaError('not-valid', { detail: `there is no time zone “${change.zone}”` });
		const trouble = change.fields && fieldsTrouble(change.fields);
		if (trouble) throw new IanuaError('not-valid', { detail: trouble });
		const value = { ...before, ...change };
		await tx.insert(setting).values({ key: 'site', value }).onConflictDoUpdate({ target: setting.key, set: { value } });
		if (value.zone !== before.zone) await reckonHours(tx, value.zone);
		await writeAudit(tx, { actor, action: 'changed', kind: 'site', thing: actor, before, after: value });
		return named({ framers: [], programOrigins: [], fields: [], ...before }, change);
	});
	changed();
	// the figures of all days are made anew: at once, not when the sums are next looked at
	if (change.zone !== undefined) await tellOfWork(sql(), 'zone').catch((err: unknown) => log().warn({ err }, 'the new time zone was not told of'));
	return was;
}

/** Keeps the site’s settings, whole. */
export async function saveSite(value: Site): Promise<void> {
	await db().transaction(async (tx) => {
		await tx.insert(setting).values({ key: 'site', value }).onConflictDoUpdate({ target: setting.key, set: { value } });
		await reckonHours(tx, value.zone);
	});
	changed();
}

/** True for a zone by its name; an offset such as +05:00 is none: PostgreSQL reads its sign the other way round. */
export function isZone(zone: string): boolean {
	if (!/^[A-Za-z]/.test(zone)) return false;
	try {
		new Intl.DateTimeFormat('en', { timeZone: zone });
		return true;
	} catch {
		return false;
	}
}
