// Of what somebody is told by mail: asked for, listed, ended; by them, or by one press in a mail.
import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { Type, type Static } from '@sinclair/typebox';
import { newsTimes, type NewsAbout, type NewsTime } from '#core/news/wish';
import { nextMailing } from '#core/readership/mailing';
import type { Language } from '#core/words/words';
import { db, sql } from '../db/client';
import { newsFeed, newsWish } from '../db/schema';
import { newId } from '../id';
import { settings } from '../settings';
import { site } from '../site/site';
import { oneOf } from '#core/schema';

/** What is asked for: news of a document, of a folder, or (neither named) of all there is to read. */
export const NewsAsked = Type.Object(
	{
		document: Type.Optional(Type.String({ maxLength: 200 })),
		folder: Type.Optional(Type.String({ maxLength: 200 })),
		every: oneOf(newsTimes)
	},
	{ additionalProperties: false }
);

export interface NewsWish extends NewsAbout {
	readonly id: string;
	/** Title of the document. */
	readonly title: string | null;
	readonly every: NewsTime;
}

/** What somebody has asked to be told of, the oldest wish first. */
export async function wishesOf(person: string): Promise<NewsWish[]> {
	return sql()<NewsWish[]>`
		select w.id, d.slug as document, d.title, w.folder, w.every from news_wish w left join document d on d.id = w.document_id where w.person_id = ${person} order by w.made_at, w.id`;
}

/** Asks for news from now on; asked for again, how often it comes is changed. `id` is the document's, which they may read: its folder is not asked for then. */
export async function wishFor(person: string, asked: Static<typeof NewsAsked>, id: string | null, language: Language): Promise<void> {
	const { zone } = await site();
	const now = Date.now();
	const nextAt = new Date(asked.every === 'week' ? nextMailing(now, 'week', zone) : now);
	await db()
		.insert(newsWish)
		.values({
			id: newId(),
			personId: person,
			documentId: id,
			folder: id === null ? (asked.folder ?? null) : null,
			every: asked.every,
			language,
			madeAt: new Date(now),
			lookedAt: new Date(now),
			nextAt
		})
		.onConflictDoUpdate({ target: [newsWish.personId, newsWish.documentId, newsWish.folder], set: { every: asked.every, language, nextAt } });
}

/** Ends one wish of somebody; all of them where none is named. */
export async function endNews(person: string, wish: string | null): Promise<void> {
	await db()
		.delete(newsWish)
		.where(and(eq(newsWish.personId, person), wish === null ? undefined : eq(newsWish.id, wish)));
}

// Addresses that somebody has without signing in. Nothing of them is kept: they are made from the site's secret, and of the feed's a part
// is drawn anew when it is to end.

const proofOf = (about: string): string => createHmac('sha256', settings().IANUA_SECRET).update(about).digest('base64url').slice(0, 32);
const personPattern = /^([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})\.([\w-]{32})$/;

function isProof(given: string, about: string): boolean {
	return timingSafeEqual(Buffer.from(given), Buffer.from(proofOf(about)));
}

/** The address at which one press ends all news by mail to somebody. */
export const endAddress = (person: string): string => `${settings().IANUA_ORIGIN}/me/news/end/${person}.${proofOf(`news end ${person}`)}`;

/** Whose news an address ends; null where it is none of ours. */
export function personOfEnd(token: string): string | null {
	const [, person, proof] = personPattern.exec(token) ?? [];
	return person && proof && isProof(proof, `news end ${person}`) ? person : null;
}

const feedProof = (person: string, nonce: string) => `news feed ${person} ${nonce}`;

/** The address of somebody's feed; null where they have none. */
export async function feedAddress(person: string): Promise<string | null> {
	const [row] = await db().select().from(newsFeed).where(eq(newsFeed.personId, person));
	return row ? `${settings().IANUA_ORIGIN}/me/news/${person}.${proofOf(feedProof(person, row.nonce))}/feed.atom` : null;
}

/** Gives somebody's feed an address, another one than it had. */
export async function renewFeed(person: string): Promise<void> {
	const nonce = randomBytes(12).toString('base64url');
	await db()
		.insert(newsFeed)
		.values({ personId: person, nonce })
		.onConflictDoUpdate({ target: newsFeed.personId, set: { nonce, madeAt: new Date() } });
}

/** Ends somebody's feed. */
export async function endFeed(person: string): Promise<void> {
	await db().delete(newsFeed).where(eq(newsFeed.personId, person));
}

/** Whose feed an address is; null where it is nobody's, or not any more. */
export async function personOfFeed(token: string): Promise<string | null> {
	const [, person, proof] = personPattern.exec(token) ?? [];
	if (!person || !proof) return null;
	const [row] = await db().select().from(newsFeed).where(eq(newsFeed.personId, person));
	return row && isProof(proof, feedProof(person, row.nonce)) ? person : null;
}
