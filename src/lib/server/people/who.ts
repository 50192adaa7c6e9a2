// Who a request comes from: the session in its cookie, or the token of a program, with the memberships that the decision needs.
import type postgres from 'postgres';
import { createHmac, timingSafeEqual } from 'node:crypto';
import { visitor, type Who } from '#core/access/decide';
import type { HeldKey } from '#core/access/key';
import { spanOf, type Instant } from '#core/access/hours';
import { grants, type Grant, type Scope } from '#core/people/scope';
import { sql } from '../db/client';
import { settings } from '../settings';
import { site } from '../site/site';
import { cookiePrefix } from './auth';
import { hashOf, tokenMark } from './secrets';

export interface Person {
	readonly id: string;
	readonly name: string;
	readonly email: string;
	readonly role: 'owner' | 'editor' | 'member';
}

export interface Caller {
	readonly who: Who;
	readonly person: Person | null;
	/** What the program may do that speaks for this person; a person who speaks for themselves has none. */
	readonly token?: Grant;
	/** They come by the pass of another website, for one document in its frame: the person as that website names them. */
	readonly pass?: { readonly person: string; readonly website: string };
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
		const equals = part.indexOf('=');
		if (equals > 0 && part.slice(0, equals).trim() === name) return part.slice(equals + 1).trim();
	}
	return null;
}

/** The session's token from a Cookie field, null where there is none or its signature is wrong. */
export function sessionTokenOf(cookie: string | null | undefined): string | null {
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

interface TokenRow extends Row {
	token_id: string;
	scopes: Scope[];
	folders: string[] | null;
	until_day: string;
}

/**
 * The person behind a request: by the token of a program where one is given, else by the session. A suspended account is as good as not
 * signed in, and a session is no token.
 */
export async function callerOf(cookie: string | null | undefined, authorization: string | null | undefined): Promise<Caller> {
	const bearer = /^Bearer +(\S+)$/i.exec(authorization ?? '')?.[1];
	if (bearer) return bearer.startsWith(tokenMark) ? callerByToken(hashOf(bearer)) : nobody;
	const token = sessionTokenOf(cookie);
	if (!token) return nobody;
	const [[row], { zone }] = await Promise.all([
		sql()<Row[]>`${personRow()} from session s join person p on p.id = s.person_id where s.token = ${token} and s.expires_at > now() and not p.suspended`,
		site()
	]);
	return row ? callerFrom(row, zone) : nobody;
}

async function callerByToken(hash: string): Promise<Caller> {
	const s = sql();
	const [[row], { zone }] = await Promise.all([
		s<TokenRow[]>`${personRow(s`, t.id as token_id, t.scopes, t.folders, t.until_day::text as until_day`)}
			from api_token t join person p on p.id = t.person_id where t.hash = ${hash} and t.withdrawn_at is null and p.role <> 'member' and not p.suspended`,
		site()
	]);
	// a day given has an end
	if (!row || spanOf(null, row.until_day, zone).until! <= Date.now()) return nobody;
	// to the hour is enough to see which tokens are in use
	await s`update api_token set used_at = now() where hash = ${hash} and (used_at is null or used_at < now() - interval '1 hour')`;
	return { ...callerFrom(row, zone), token: { id: row.token_id, scopes: row.scopes, folders: row.folders } };
}

const callerFrom = (row: Row, zone: string): Caller => ({
	person: { id: row.id, name: row.name, email: row.email, role: row.role },
	who: whoOf(row, zone)
});

/** A caller where a program needs these scopes: one whose token lacks them is nobody there. */
export const heldTo = (caller: Caller, wanted: readonly Scope[]): Caller => (caller.token && !grants(caller.token, wanted) ? nobody : caller);

const personRow = (more = sql()``) => sql()`
	select p.id, p.name, p.email, p.role, p.suspended,
		coalesce((select jsonb_agg(jsonb_build_object('group', m.group_id, 'from', m.from_day, 'until', m.until_day))
			from membership m where m.person_id = p.id), '[]') as memberships ${more}`;

function whoOf(row: Row, zone: string): Who {
	if (row.role !== 'member') return { kind: 'staff', id: row.id };
	const memberships = row.memberships.map((m) => ({ group: m.group, span: spanOf(m.from, m.until, zone) }));
	return { kind: 'member', id: row.id, suspended: row.suspended, memberships };
}

/** Somebody by their mail address, as if they asked; null where nobody has it. */
export const personAt = (email: string): Promise<Caller | null> => personWhere(sql()`p.email = ${email.trim().toLowerCase()}`);
/** The same by their id. */
export const personById = (id: string): Promise<Caller | null> => personWhere(sql()`p.id = ${id}`);

async function personWhere(which: postgres.Fragment): Promise<Caller | null> {
	const [[row], { zone }] = await Promise.all([sql()<Row[]>`${personRow()} from person p where ${which}`, site()]);
	return row ? callerFrom(row, zone) : null;
}
