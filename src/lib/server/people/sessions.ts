// Where somebody is signed in, and ending that.
import { and, eq, ne } from 'drizzle-orm';
import { db, sql } from '../db/client';
import { session } from '../db/schema';

export interface SessionView {
	readonly id: string;
	/** The one that asks. */
	readonly here: boolean;
	readonly agent: string;
	readonly address: string;
	readonly since: string;
	readonly seenAt: string;
}

/** Sessions that still hold, the one that asks first. */
export async function sessionsOf(personId: string, token: string | null): Promise<SessionView[]> {
	const rows = await sql()<{ id: string; token: string; user_agent: string | null; ip_address: string | null; created_at: Date; updated_at: Date }[]>`
		select id, token, user_agent, ip_address, created_at, updated_at from session where person_id = ${personId} and expires_at > now() order by updated_at desc`;
	return rows
		.map((r) => ({
			id: r.id,
			here: r.token === token,
			agent: r.user_agent ?? '',
			address: r.ip_address ?? '',
			since: r.created_at.toISOString(),
			seenAt: r.updated_at.toISOString()
		}))
		.sort((a, b) => Number(b.here) - Number(a.here));
}

/** Lets go of sessions and of links for signing in that are over. */
export async function dropOldSessions(): Promise<void> {
	await sql()`delete from session where expires_at < now()`;
	await sql()`delete from verification where expires_at < now()`;
}

/** Ends one session of a person. */
export async function endSession(personId: string, id: string): Promise<void> {
	if (/^[0-9a-f-]{36}$/.test(id))
		await db()
			.delete(session)
			.where(and(eq(session.id, id), eq(session.userId, personId)));
}

/** Ends all sessions of a person but the one with this token. */
export async function endOtherSessions(personId: string, token: string | null): Promise<void> {
	await db()
		.delete(session)
		.where(and(eq(session.userId, personId), ne(session.token, token ?? '')));
}
