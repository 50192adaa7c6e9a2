// The audit trail: who changed what. Written in the transaction of the change itself.
import { sql, type Queryable } from '../db/client';
import { audit } from '../db/schema';
import { newId } from '../id';

export interface AuditEntry {
	readonly actor: string | null;
	readonly action:
		| 'brought-in'
		| 'changed'
		| 'door-set'
		| 'edition-added'
		| 'edition-put-in'
		| 'exchanged'
		| 'written'
		| 'published'
		| 'taken-down'
		| 'set-aside'
		| 'restored'
		| 'added'
		| 'removed'
		| 'erased'
		| 'let-in'
		| 'declined'
		| 'signed-out'
		| 'second-factor'
		| 'invited'
		| 'closed'
		| 'issued'
		| 'withdrawn'
		| 'key-issued'
		| 'key-withdrawn'
		| 'key-restored'
		| 'key-changed'
		| 'first-owner'
		| 'exported';
	readonly kind: 'document' | 'page' | 'group' | 'person' | 'token' | 'site';
	readonly thing: string;
	readonly before?: unknown;
	readonly after?: unknown;
}

/** Of what was, the part that a change names, null where there was nothing: a change itself, which puts it back. */
export function named<C extends object>(was: Readonly<Record<string, unknown>>, change: C): C {
	return Object.fromEntries(Object.keys(change).map((name) => [name, was[name] ?? null])) as C;
}

/** Lets go of what was changed before so many months; null keeps all of it. */
export async function dropOldTrail(months: number | null): Promise<void> {
	if (months !== null) await sql()`delete from audit where at < now() - make_interval(months => ${months})`;
}

/** Writes who did what to which thing, in the transaction that does it. */
export async function writeAudit(tx: Queryable, entry: AuditEntry): Promise<void> {
	await tx.insert(audit).values({ id: newId(), ...entry, before: entry.before ?? null, after: entry.after ?? null });
}
