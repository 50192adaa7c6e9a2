// A press that may be repeated: the same `Idempotency-Key` is carried out once within a day, and its answer given again (IETF draft “The
// Idempotency-Key HTTP Header Field”, from memory).
import { createCipheriv, createDecipheriv, createHash, hkdfSync, randomBytes } from 'node:crypto';
import type { RequestEvent } from '@sveltejs/kit';
import { and, eq, sql as raw } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import { db } from '../db/client';
import { idempotencyKey } from '../db/schema';
import { knownError } from './problem';

/** Hours for which an answer is kept. */
const keptHours = 24;
/** Letters of the longest answer that is kept; none of ours is as long. */
const longest = 2_000_000;

interface Kept {
	readonly status: number;
	readonly headers: readonly [string, string][];
	readonly body: string;
}

const cipher = 'aes-256-gcm';
const [ivBytes, tagBytes] = [12, 16];
/** Answers hold secrets that are shown once: what is kept can be read with the key alone, of which the database has a digest. */
const secretOf = (key: string): Buffer => Buffer.from(hkdfSync('sha256', key, 'ianua', 'answer to a request', 32));

function seal(key: string, kept: Kept): string {
	const iv = randomBytes(ivBytes);
	const sealing = createCipheriv(cipher, secretOf(key), iv);
	const sealed = Buffer.concat([sealing.update(JSON.stringify(kept)), sealing.final()]);
	return Buffer.concat([iv, sealing.getAuthTag(), sealed]).toString('base64');
}

function unseal(key: string, answer: string): Kept {
	const sealed = Buffer.from(answer, 'base64');
	const opening = createDecipheriv(cipher, secretOf(key), sealed.subarray(0, ivBytes)).setAuthTag(sealed.subarray(ivBytes, ivBytes + tagBytes));
	return JSON.parse(Buffer.concat([opening.update(sealed.subarray(ivBytes + tagBytes)), opening.final()]).toString()) as Kept;
}

/** The key as it was sent: a string of structured fields (RFC 8941), or the same without its quotes. */
function keyOf(field: string): string {
	const key = /^"(.*)"$/.exec(field)?.[1] ?? field;
	if (!/^[\x21-\x7e]{8,255}$/.test(key)) throw new IanuaError('not-valid', { detail: 'Idempotency-Key has 8 to 255 letters, digits and signs without spaces' });
	return key;
}

/** What was asked, as a digest: a file by its length, as it is read only once. */
async function requestHash({ request, url }: RequestEvent): Promise<string> {
	const type = request.headers.get('content-type')?.split(';')[0] ?? '';
	const hash = createHash('sha256').update(`${request.method} ${url.pathname}${url.search}\n${type}\n`);
	const body = /json|urlencoded|csv/.test(type) ? await request.clone().text() : (request.headers.get('content-length') ?? '');
	return hash.update(body).digest('base64url');
}

/** Carries out what was not carried out yet under its key; else gives the answer that it had. */
export async function once(event: RequestEvent, handle: () => Promise<Response>): Promise<Response> {
	const field = event.request.headers.get('idempotency-key');
	const { token, person } = event.locals.caller;
	const who = token?.id ?? person?.id;
	if (field === null || !who || event.request.method !== 'POST') return handle();
	// of whose keys it is one is part of it: nobody gets another's answer
	const key = `${who} ${keyOf(field)}`;
	const id = createHash('sha256').update(key).digest('base64url');
	const asked = await requestHash(event);
	const mine = eq(idempotencyKey.id, id);
	await db()
		.delete(idempotencyKey)
		.where(and(mine, raw`${idempotencyKey.at} < now() - make_interval(hours => ${keptHours})`));
	const begun = await db().insert(idempotencyKey).values({ id, request: asked }).onConflictDoNothing().returning({ id: idempotencyKey.id });
	if (!begun.length) {
		const [before] = await db().select().from(idempotencyKey).where(mine);
		if (before && before.request !== asked) throw new IanuaError('idempotency-other');
		if (!before?.answer) throw new IanuaError('idempotency-open');
		const { status, headers, body } = unseal(key, before.answer);
		return new Response(body, { status, headers: [...headers] });
	}
	let response: Response;
	try {
		response = await handle();
	} catch (error) {
		// what is refused changed nothing and may be asked again; of a fault of ours nobody knows how far it came
		if (knownError(error).code !== 'unexpected') await db().delete(idempotencyKey).where(mine);
		throw error;
	}
	const body = response.ok ? await response.text() : null;
	if (body === null || body.length > longest) {
		await db().delete(idempotencyKey).where(mine);
		return body === null ? response : new Response(body, response);
	}
	await db()
		.update(idempotencyKey)
		.set({ answer: seal(key, { status: response.status, headers: [...response.headers], body }) })
		.where(mine);
	return new Response(body, { status: response.status, headers: response.headers });
}

/** Lets go of what is older than a day. */
export async function dropOldIdempotencyKeys(): Promise<void> {
	await db()
		.delete(idempotencyKey)
		.where(raw`${idempotencyKey.at} < now() - make_interval(hours => ${keptHours})`);
}
