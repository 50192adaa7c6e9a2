// Tokens by which programs of a member of staff speak to the API. Shown once; only the hash is kept.
import { and, desc, eq, isNull } from 'drizzle-orm';
import { Type, type Static } from '@sinclair/typebox';
import { Line } from '#core/text/line';
import { dayOf } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import { folderScopes, scopes, tokenDays, type Scope } from '#core/people/scope';
import { db } from '../db/client';
import { apiToken } from '../db/schema';
import { newId } from '../id';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';
import { withdrawKeysOf } from '../access/keys';
import { withdrawWebhooksOf } from '../readership/webhooks';
import { hashOf, newSecret, tokenMark } from './secrets';
import { oneOf } from '#core/schema';

/** A token as somebody asks for it. */
export const TokenGiven = Type.Object(
	{
		label: Line(100),
		scopes: Type.Array(oneOf(scopes), { minItems: 1, uniqueItems: true }),
		folders: Type.Optional(
			Type.Union([Type.Null(), Type.Array(Type.String({ maxLength: 200 }), { minItems: 1, maxItems: 100, uniqueItems: true })], {
				description: 'only documents in these folders; the scopes must be of documents and readership then'
			})
		),
		until: Type.Optional(Type.String({ format: 'date', description: `its last day; ${tokenDays.usual} days from now unless said, at most ${tokenDays.most}` }))
	},
	{ additionalProperties: false }
);

export interface TokenView {
	readonly id: string;
	readonly label: string;
	readonly scopes: readonly Scope[];
	readonly folders: readonly string[] | null;
	/** Its last day. */
	readonly until: string;
	readonly createdAt: string;
	readonly usedAt: string | null;
	readonly withdrawnAt: string | null;
}

/** A person’s tokens without their secrets, the newest first. */
export async function listTokens(personId: string): Promise<TokenView[]> {
	const rows = await db().select().from(apiToken).where(eq(apiToken.personId, personId)).orderBy(desc(apiToken.createdAt));
	return rows.map((t) => ({
		id: t.id,
		label: t.label,
		scopes: t.scopes,
		folders: t.folders,
		until: t.untilDay,
		createdAt: t.createdAt.toISOString(),
		usedAt: t.usedAt?.toISOString() ?? null,
		withdrawnAt: t.withdrawnAt?.toISOString() ?? null
	}));
}

const dayMs = 86_400_000;

/** Makes a token; `token` is never shown again. Throws `not-valid` for a last day that is past or too far, and for scopes that folders do not bound. */
export async function makeToken(personId: string, given: Static<typeof TokenGiven>): Promise<{ id: string; label: string; token: string; until: string }> {
	const { zone } = await site();
	const now = Date.now();
	const until = given.until ?? dayOf(now + tokenDays.usual * dayMs, zone);
	if (until < dayOf(now, zone)) throw new IanuaError('not-valid', { detail: 'its last day is past' });
	if (until > dayOf(now + tokenDays.most * dayMs, zone)) throw new IanuaError('not-valid', { detail: `its last day is more than ${tokenDays.most} days away` });
	const folders = given.folders ?? null;
	const unbound = folders && given.scopes.find((scope) => !folderScopes.includes(scope));
	if (unbound) throw new IanuaError('not-valid', { detail: `“${unbound}” reaches over all folders, so a token bound to folders cannot have it` });
	const token = tokenMark + newSecret();
	const id = newId();
	const label = given.label.trim();
	await db().transaction(async (tx) => {
		await tx.insert(apiToken).values({ id, personId, label, hash: hashOf(token), scopes: given.scopes, folders, untilDay: until });
		await writeAudit(tx, { actor: personId, action: 'issued', kind: 'token', thing: id, after: { label, scopes: given.scopes, folders, until } });
	});
	return { id, label, token, until };
}

/** Withdraws a token; the next request with it is nobody's, and the keys and webhooks that it made are withdrawn too. */
export async function withdrawToken(personId: string, id: string): Promise<void> {
	if (!/^[0-9a-f-]{36}$/.test(id)) throw new IanuaError('not-found');
	await db().transaction(async (tx) => {
		const [row] = await tx
			.update(apiToken)
			.set({ withdrawnAt: new Date() })
			.where(and(eq(apiToken.id, id), eq(apiToken.personId, personId), isNull(apiToken.withdrawnAt)))
			.returning({ id: apiToken.id });
		if (!row) throw new IanuaError('not-found');
		await withdrawKeysOf(tx, id, personId);
		await withdrawWebhooksOf(tx, id, personId);
		await writeAudit(tx, { actor: personId, action: 'withdrawn', kind: 'token', thing: id });
	});
}
