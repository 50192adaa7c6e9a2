// Passkeys of accounts: the name that they hold for, and those that somebody has.
import { isIP } from 'node:net';
import { eq } from 'drizzle-orm';
import { db } from '../db/client';
import { passkey } from '../db/schema';
import { settings } from '../settings';

/** For whom a passkey is made. */
export interface PasskeySite {
	/** The Relying Party Identifier: a domain, never an address by number. */
	readonly id: string;
	/** Under which a browser has to be here. */
	readonly origin: string;
}

/** What passkeys of this site hold for; null where there can be none: a site without a name, or without TLS but on the machine itself (W3C Web Authentication, 5.1.3). */
export function passkeySite(): PasskeySite | null {
	const [own] = settings()
		.origins.map((origin) => new URL(origin))
		.filter(({ hostname, protocol }) => !isIP(hostname.replace(/[[\]]/g, '')) && (protocol === 'https:' || hostname === 'localhost'));
	return own ? { id: own.hostname, origin: own.origin } : null;
}

export interface PasskeyView {
	readonly id: string;
	readonly name: string;
	/** An instant, ISO 8601. */
	readonly since: string;
}

/** Those of a person, the oldest first. */
export async function passkeysOf(personId: string): Promise<PasskeyView[]> {
	const rows = await db()
		.select({ id: passkey.id, name: passkey.name, since: passkey.createdAt })
		.from(passkey)
		.where(eq(passkey.userId, personId))
		.orderBy(passkey.createdAt, passkey.id);
	return rows.map(({ id, name, since }) => ({ id, name: name ?? '', since: since.toISOString() }));
}
