// Keys: issued for a document, and remembered by browsers in a cookie. Looking after them is key-list.ts's, what a key is worth core/access/decide's.
import { and, eq, isNull } from 'drizzle-orm';
import { createHmac, timingSafeEqual } from 'node:crypto';
import { Type, type Static } from '@sinclair/typebox';
import { KeyGiven, type HeldKey } from '#core/access/key';
import { isDay, isInstant, spanOf } from '#core/access/hours';
import { boundWords } from '#core/access/reach';
import { counted } from '#core/text/list';
import { slugPattern } from '#core/documents/address';
import { parseAddresses } from '#core/people/addresses';
import type { Grant } from '#core/people/scope';
import { IanuaError } from '#core/errors';
import { readingGapMinutes } from '#core/readership/counting';
import { db, sql, type Queryable } from '../db/client';
import { document, doorKey } from '../db/schema';
import { isId, newId } from '../id';
import { sendMail } from '../mail/send';
import { hashPassword, passwordFits } from '../people/auth';
import { hashOf, newSecret } from '../people/secrets';
import { cookieOf, type Caller } from '../people/who';
import { settings } from '../settings';
import { site } from '../site/site';
import { writeAudit } from '../site/audit';

/** The cookie in which a browser keeps its keys: tokens, each with the proof of its password where one was given. */
export const keyCookie = 'ianua_keys';
/** Keys a browser keeps; older ones make room. */
const mostKept = 20;

/** A key as the database has it. */
export interface KeyRow {
	id: string;
	document_id: string;
	label: string;
	allow_save: boolean;
	allow_print: boolean;
	until_bound: string | null;
	openings: number | null;
	used: number;
	password_hash: string | null;
	created_at: Date;
	withdrawn_at: Date | null;
}

/** The instant before which a key holds whose last day, or end, this is; null where it has none. */
export const untilOf = (bound: string | null, zone: string): number | null => spanOf(null, bound, zone).until;

/** Throws where a key cannot be given this end: it is none, or lies in the past. */
export function checkEnd(until: string | null | undefined, zone: string): void {
	if (!until) return;
	if (!isDay(until) && !isInstant(until)) throw new IanuaError('not-valid', { detail: 'the last day is not a day' });
	// a bound that is a day or an instant has an instant
	if (untilOf(until, zone)! <= Date.now()) throw new IanuaError('not-valid', { detail: 'the last day of the key lies in the past' });
}

/** Who issues a key beside the person: to which address it is mailed, and by which token a program does it. */
interface Issuing {
	readonly mailedTo?: string | null;
	readonly token?: Grant;
}

/** Issues a key for a document; its address is given this once. One that a program issues (`token`) is withdrawn with its token. */
export async function issueKey(slug: string, given: KeyGiven, actor: string, issuing: Issuing = {}): Promise<{ id: string; url: string }> {
	return db().transaction((tx) => issueKeyIn(tx, slug, given, actor, issuing));
}

/** The same inside a transaction: with whatever else is done in it, or not at all. */
export async function issueKeyIn(
	tx: Queryable,
	slug: string,
	given: KeyGiven,
	actor: string,
	{ mailedTo = null, token }: Issuing = {}
): Promise<{ id: string; url: string }> {
	checkEnd(given.until, (await site()).zone);
	const [id, secret] = [newId(), newSecret()];
	const passwordHash = given.password ? await hashPassword(given.password) : null;
	const [subject] = await tx.select({ id: document.id, setAsideAt: document.setAsideAt }).from(document).where(eq(document.slug, slug));
	if (!subject || subject.setAsideAt) throw new IanuaError('not-found');
	const row = {
		id,
		documentId: subject.id,
		label: given.label.trim(),
		allowSave: given.allow?.save ?? true,
		allowPrint: given.allow?.print ?? true,
		untilBound: given.until ?? null,
		openings: given.openings ?? null,
		mailedTo
	};
	await tx.insert(doorKey).values({ ...row, hash: hashOf(secret), passwordHash, createdBy: actor, tokenId: token?.id ?? null });
	await writeAudit(tx, { actor, action: 'key-issued', kind: 'document', thing: subject.id, after: { ...row, password: passwordHash !== null } });
	return { id, url: `${settings().IANUA_ORIGIN}/k/${secret}` };
}

/** Keys for a list of addresses, each its own, mailed. */
export const KeysMailed = Type.Object(
	{
		addresses: Type.Array(Type.String({ maxLength: 400 }), { minItems: 1, maxItems: 500 }),
		allow: KeyGiven.properties.allow,
		until: KeyGiven.properties.until,
		openings: KeyGiven.properties.openings,
		/** A few lines of one's own for the mail. */
		words: Type.Optional(Type.String({ maxLength: 2000 }))
	},
	{ additionalProperties: false }
);

/** The same for several documents: each address gets one mail with a key for each. */
export const ManyKeysMailed = Type.Object(
	{ documents: Type.Array(Type.String({ pattern: slugPattern, maxLength: 80 }), { minItems: 1, maxItems: 50, uniqueItems: true }), ...KeysMailed.properties },
	{ additionalProperties: false }
);

export interface MailedKeys {
	readonly address: string;
	/** False where the mail server did not take it; then the addresses of the keys are the only way to hand them on. */
	readonly mailed: boolean;
	readonly keys: readonly { readonly document: string; readonly id: string; readonly url: string | null }[];
}

/** Most keys that are issued at once. */
const mostIssued = 2000;

/**
 * Issues a key for each document and each line ('a@example.org', or 'Ann Heron <a@example.org>') and mails them, one mail a line. A line that
 * is no address, one that is there twice, or a document that is not there ends it before anything is issued.
 */
export async function mailKeys(slugs: readonly string[], given: Static<typeof KeysMailed>, actor: string, token?: Grant): Promise<MailedKeys[]> {
	const lines = parseAddresses(given.addresses);
	if (lines.length * slugs.length > mostIssued)
		throw new IanuaError('not-valid', { detail: `${lines.length} addresses and ${slugs.length} documents are more than ${mostIssued} keys` });
	const s = sql();
	const titles = new Map(
		(await s<{ slug: string; title: string }[]>`select slug, title from document where slug in ${s([...slugs])} and set_aside_at is null`).map((d) => [
			d.slug,
			d.title
		])
	);
	if (slugs.some((slug) => !titles.has(slug))) throw new IanuaError('not-found');
	const { name: siteName, zone } = await site();
	const { allow, until, openings } = given;
	const ends = untilOf(until ?? null, zone);
	const limits = [ends === null ? '' : `holds until ${boundWords(ends, zone, 'until')}`, openings ? `opens ${counted(openings, 'time', 'times')}` : '']
		.filter(Boolean)
		.join(' and ');
	const made: MailedKeys[] = [];
	for (const { email, name } of lines) {
		const issued: { slug: string; id: string; url: string }[] = [];
		for (const slug of slugs)
			issued.push({
				slug,
				...(await issueKey(slug, { label: name ? `${name}, ${email}` : email, allow, until, openings }, actor, { mailedTo: email, token }))
			});
		const mailed = await sendMail({
			to: email,
			...keysMail(
				siteName,
				name,
				issued.map(({ slug, url }) => ({ title: titles.get(slug) ?? slug, url })),
				limits,
				given.words
			)
		});
		made.push({ address: email, mailed, keys: issued.map(({ slug, id, url }) => ({ document: slug, id, url: mailed ? null : url })) });
	}
	return made;
}

function keysMail(siteName: string, name: string, keys: readonly { title: string; url: string }[], limits: string, words = '') {
	const [first] = keys;
	const one = keys.length === 1 ? first : undefined;
	const parts = [
		name ? `${name},` : '',
		one
			? `${siteName} gives you a key for “${one.title}”. Open it here:\n\n${one.url}`
			: `${siteName} gives you keys for ${keys.length} documents. Open each here:\n\n${keys.map(({ title, url }) => `“${title}”\n${url}`).join('\n\n')}`,
		limits ? `${one ? 'It' : 'Each'} ${limits}.` : '',
		words.trim(),
		one ? 'The key is yours: please do not hand it on.' : 'The keys are yours: please do not hand them on.'
	];
	return {
		subject: `${one ? `${one.title}: a key` : `${keys.length} documents: keys`} for you, from ${siteName}`,
		text: `${parts.filter(Boolean).join('\n\n')}\n`
	};
}

/** Withdraws the keys that a program issued by its token. */
export async function withdrawKeysOf(tx: Queryable, tokenId: string, actor: string): Promise<void> {
	const rows = await tx
		.update(doorKey)
		.set({ withdrawnAt: new Date(), withdrawnBy: actor })
		.where(and(eq(doorKey.tokenId, tokenId), isNull(doorKey.withdrawnAt)))
		.returning({ id: doorKey.id, documentId: doorKey.documentId, label: doorKey.label });
	for (const row of rows)
		await writeAudit(tx, { actor, action: 'key-withdrawn', kind: 'document', thing: row.documentId, before: { key: row.id, label: row.label } });
}

// ---- what a browser holds

/** That a password was given in this browser: only this server can make it, and a changed password ends it. */
const proofOf = (row: Pick<KeyRow, 'id' | 'password_hash'>) =>
	createHmac('sha256', settings().IANUA_SECRET).update(`key ${row.id} ${row.password_hash}`).digest('base64url');

const sameText = (a: string, b: string) => a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

interface Kept {
	readonly token: string;
	readonly proof: string | null;
}

function keptIn(cookie: string | null): Kept[] {
	return (cookieOf(cookie, keyCookie) ?? '')
		.split('.')
		.map((part) => /^([\w-]{16,80})(?:~([\w-]{20,80}))?$/.exec(part))
		.filter((m) => m !== null)
		.slice(0, mostKept)
		.map((m) => ({ token: m[1]!, proof: m[2] ?? null }));
}

/** Whether a browser holds any key. */
export const holdsKeys = (cookie: string | null): boolean => keptIn(cookie).length > 0;

/** The cookie's value with one more key in front. */
function cookieWith(cookie: string | null, kept: Kept): string {
	return [kept, ...keptIn(cookie).filter((k) => k.token !== kept.token)]
		.slice(0, mostKept)
		.map((k) => k.token + (k.proof ? `~${k.proof}` : ''))
		.join('.');
}

/** Under which reader a key's holder is counted: key and reader cookie, else key and what stands for the browser. */
export const keyReader = (keyId: string, reader: string): string => `k:${keyId}:${reader}`;

function heldOf(row: KeyRow, zone: string, proof: string | null, reading: boolean): HeldKey {
	return {
		id: row.id,
		allow: { save: row.allow_save, print: row.allow_print },
		withdrawn: row.withdrawn_at !== null,
		until: untilOf(row.until_bound, zone),
		// a reading that this key began goes on, although it took the last opening
		openingsLeft: row.openings === null ? null : row.openings - row.used + (reading ? 1 : 0),
		wantsPassword: row.password_hash !== null && !(proof && sameText(proof, proofOf(row)))
	};
}

/** The keys for a document that a request holds. `reader` is under whom it would be counted without them. */
export async function heldKeys(cookie: string | null, documentId: string, reader: string): Promise<HeldKey[]> {
	const kept = keptIn(cookie);
	if (!kept.length) return [];
	const byHash = new Map(kept.map((k) => [hashOf(k.token), k]));
	const s = sql();
	const [rows, { zone }] = await Promise.all([
		s<(KeyRow & { hash: string; reading: boolean })[]>`
			select k.*, exists (select 1 from reading r join ledger l on l.id = r.reading_id and l.key_id = k.id
				where r.document_id = k.document_id and r.kind = 'opened' and r.last_at > now() - make_interval(mins => ${readingGapMinutes})
					and r.reader in (${reader}, 'k:' || k.id || ':' || ${reader})) as reading
			from door_key k where k.document_id = ${documentId} and k.hash in ${s([...byHash.keys()])}`,
		site()
	]);
	// only rows with one of these hashes were asked for
	return rows.map((row) => heldOf(row, zone, byHash.get(row.hash)!.proof, row.reading));
}

/** The keys for a document that count for a caller on a page of the site: those in the browser, or the one that is tried. */
export async function keysOfBrowser(caller: Caller, cookie: string | null, documentId: string): Promise<readonly HeldKey[]> {
	if (caller.trial) return caller.trial.key?.documentId === documentId ? [caller.trial.key.held] : [];
	return heldKeys(cookie, documentId, '');
}

export interface FoundKey {
	readonly held: HeldKey;
	readonly documentId: string;
	readonly slug: string;
	/** The cookie's value once it is remembered. */
	readonly remembered: string;
}

/** The key at an address, as this browser holds it; null where there is none. With a password, whether it fits. */
export async function keyAt(token: string, cookie: string | null, password?: string): Promise<FoundKey | null> {
	const [[row], { zone }] = await Promise.all([
		sql()<(KeyRow & { slug: string })[]>`
			select k.*, d.slug from door_key k join document d on d.id = k.document_id where k.hash = ${hashOf(token)} and d.set_aside_at is null`,
		site()
	]);
	if (!row) return null;
	let proof = keptIn(cookie).find((k) => k.token === token)?.proof ?? null;
	if (password !== undefined && row.password_hash && (await passwordFits(row.password_hash, password))) proof = proofOf(row);
	return { held: heldOf(row, zone, proof, false), documentId: row.document_id, slug: row.slug, remembered: cookieWith(cookie, { token, proof }) };
}

/** The document that a key is for. */
export async function documentOfKey(id: string): Promise<string> {
	if (!isId(id)) throw new IanuaError('key-unknown');
	const [row] = await sql()<{ document_id: string }[]>`select document_id from door_key where id = ${id}`;
	if (!row) throw new IanuaError('key-unknown');
	return row.document_id;
}

/** A key of a document as it stands, for trying its door; its password counts as given. */
export async function keyOf(id: string, documentId: string): Promise<HeldKey> {
	if (!isId(id)) throw new IanuaError('key-unknown');
	const [[row], { zone }] = await Promise.all([sql()<KeyRow[]>`select * from door_key where id = ${id} and document_id = ${documentId}`, site()]);
	if (!row) throw new IanuaError('key-unknown');
	return { ...heldOf(row, zone, null, false), wantsPassword: false };
}
