// Who a request comes from: the session in its cookie or bearer token, with the memberships that the decision needs.
import { createHmac, timingSafeEqual } from 'node:crypto';
import { visitor, type HeldKey, type Who } from '#core/access/decide';
import { spanOf, type Instant } from '#core/access/hours';
import { sql } from '../db/client';
import { settings } from '../settings';
import { site } from '../site/site';
import { cookiePrefix } from './auth';
import { hashOf, tokenMark } from './tokens';

export interface Person {
	readonly id: string;
	readonly name: string;
	readonly email: string;
	readonly role: 'owner' | 'editor' | 'member';
}

export interface Caller {
	readonly who: Who;
	readonly person: Person | null;
	/** Staff looking at what somebody else would get: nothing of it is entered in the ledger. */
	readonly trial?: Trial;
}

export interface Trial {
	/** The moment that is tried. */
	readonly at: Instant;
	/** The key that is tried, and the document it is for. */
	readonly key: { readonly documentId: string; readonly held: HeldKey } | null;
}

/** The moment for which a caller is decided on: now, but in a trial. */
export const instantOf = (caller: Caller): Instant => caller.trial?.at ?? Date.now();

export const nobody: Caller = { who: visitor, person: null };

/** Reads one cookie from a Cookie field. */
export function cookieOf(field: string | null | undefined, name: string): string | null {
	for (const part of field?.split(';') ?? []) {
		const at = part.indexOf('=');
		if (at > 0 && part.slice(0, at).trim() === name) return part.slice(at + 1).trim();
	}
	return null;
}

/** The session's token from a Cookie or Authorization field, null where there is none or its signature is wrong. */
export function tokenOf(cookie: string | null | undefined, authorization: string | null | undefined): string | null {
	const bearer = /^Bearer\s+([A-Za-z0-9_-]{16,})$/i.exec(authorization ?? '');
	if (bearer) return bearer[1]!;
	const { IANUA_ORIGIN, IANUA_SECRET } = settings();
	const secure = IANUA_ORIGIN.startsWith('https:') ? '__Secure-' : '';
	const value = cookieOf(cookie, `${secure}${cookiePrefix}.session_token`);
	if (!value) return null;
	// better-auth signs its cookie as token.signature: HMAC-SHA-256 under the secret, base64, then percent-encoded
	let plain: string;
	try {
		plain = decodeURIComponent(value);
	} catch {
		return null;
	}
	const dot = plain.lastIndexOf('.');
	if (dot < 1) return null;
	const token = plain.slice(0, dot);
	const given = Buffer.from(plain.slice(dot + 1), 'base64');
	const right = createHmac('sha256', IANUA_SECRET).update(token).digest();
	return given.length === right.length && timingSafeEqual(given, right) ? token : null;
}

interface Row {
	id: string;
	name: string;
	email: string;
	role: Person['role'];
	suspended: boolean;
	memberships: { group: string; from: string | null; until: string | null }[];
}

/** The person behind a request. A suspended account is as good as not signed in. */
export async function callerOf(cookie: string | null | undefined, authorization: string | null | undefined): Promise<Caller> {
	const token = tokenOf(cookie, authorization);
	if (!token) return nobody;
	const s = sql();
	const signedIn = token.startsWith(tokenMark)
		? s`api_token t join person p on p.id = t.person_id where t.hash = ${hashOf(token)} and t.withdrawn_at is null and p.role <> 'member'`
		: s`session s join person p on p.id = s.person_id where s.token = ${token} and s.expires_at > now()`;
	const [[row], { zone }] = await Promise.all([s<Row[]>`${personRow()} from ${signedIn} and not p.suspended`, site()]);
	if (!row) return nobody;
	// to the hour is enough to see which tokens are in use
	if (token.startsWith(tokenMark))
		await s`update api_token set used_at = now() where hash = ${hashOf(token)} and (used_at is null or used_at < now() - interval '1 hour')`;
	const person: Person = { id: row.id, name: row.name, email: row.email, role: row.role };
	return { person, who: whoOf(row, zone) };
}

const personRow = () => sql()`
	select p.id, p.name, p.email, p.role, p.suspended,
		coalesce((select jsonb_agg(jsonb_build_object('group', m.group_id, 'from', m.from_day, 'until', m.until_day))
			from membership m where m.person_id = p.id), '[]') as memberships`;

function whoOf(row: Row, zone: string): Who {
	if (row.role !== 'member') return { kind: 'staff', id: row.id };
	const memberships = row.memberships.map((m) => ({ group: m.group, span: spanOf(m.from, m.until, zone) }));
	return { kind: 'member', id: row.id, suspended: row.suspended, memberships };
}

/** Somebody by their mail address, as if they asked; null where nobody has it. */
export async function personAt(email: string): Promise<Caller | null> {
	const [[row], { zone }] = await Promise.all([sql()<Row[]>`${personRow()} from person p where p.email = ${email.trim().toLowerCase()}`, site()]);
	return row ? { who: whoOf(row, zone), person: { id: row.id, name: row.name, email: row.email, role: row.role } } : null;
}
