// Tokens by which programs of a member of staff speak to the API. Shown once; only the hash is kept.
import { and, desc, eq, isNull } from 'drizzle-orm';
import { createHash, randomBytes } from 'node:crypto';
import { IanuaError } from '#core/errors';
import { db } from '../db/client';
import { apiToken } from '../db/schema';
import { newId } from '../id';
import { writeAudit } from '../site/audit';

export const tokenMark = 'ianua_';
/** 256 random bits: no salt and no slow hash is needed against guessing. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');
export const newSecret = (): string => randomBytes(32).toString('base64url');

export interface TokenView {
	readonly id: string;
	readonly label: string;
	readonly createdAt: string;
	readonly usedAt: string | null;
	readonly withdrawnAt: string | null;
}

export async function listTokens(personId: string): Promise<TokenView[]> {
	const rows = await db().select().from(apiToken).where(eq(apiToken.personId, personId)).orderBy(desc(apiToken.createdAt));
	return rows.map((t) => ({
		id: t.id,
		label: t.label,
		createdAt: t.createdAt.toISOString(),
		usedAt: t.usedAt?.toISOString() ?? null,
		withdrawnAt: t.withdrawnAt?.toISOString() ?? null
	}));
}

/** Makes a token; `token` is never shown again. */
export async function makeToken(personId: string, label: string): Promise<{ id: string; label: string; token: string }> {
	const token = tokenMark + newSecret();
	const id = newId();
	await db().transaction(async (tx) => {
		await tx.insert(apiToken).values({ id, personId, label: label.trim(), hash: hashOf(token) });
		await writeAudit(tx, { actor: personId, action: 'issued', kind: 'token', thing: id, after: { label } });
	});
	return { id, label: label.trim(), token };
}

/** Withdraws a token; the next request with it is nobody's. */
export async function withdrawToken(personId: string, id: string): Promise<void> {
	if (!/^[0-9a-f-]{36}$/.test(id)) throw new IanuaError('not-found');
	await db().transaction(async (tx) => {
		const [row] = await tx
			.update(apiToken)
			.set({ withdrawnAt: new Date() })
			.where(and(eq(apiToken.id, id), eq(apiToken.personId, personId), isNull(apiToken.withdrawnAt)))
			.returning({ id: apiToken.id });
		if (!row) throw new IanuaError('not-found');
		await writeAudit(tx, { actor: personId, action: 'withdrawn', kind: 'token', thing: id });
	});
}
