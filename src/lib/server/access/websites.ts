// Websites whose members may read kept documents in frames there: which groups each may grant, and by what it signs.
import { createPublicKey, randomBytes } from 'node:crypto';
import { importJWK, type JWK } from 'jose';
import { Type, type Static } from '@sinclair/typebox';
import { and, eq, isNull } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import { nullable, oneOf } from '#core/schema';
import { db, sql, type Queryable } from '../db/client';
import { group, website, websiteGroup, websiteKey } from '../db/schema';
import { newId } from '../id';
import { webAddress } from '../intake/fetch';
import { groupIds } from '../people/memberships';
import { writeAudit } from '../site/audit';

/** Keys that a website may have at a time: one, and the one that takes its place. */
export const mostKeys = 2;

export const WebsiteKeyGiven = Type.Object(
	{
		kind: oneOf(['secret', 'public', 'jwks'], {
			description: 'a secret of both (HS256), made here; or a public key of theirs, or the address of a set of such (RS256, ES256)'
		}),
		value: Type.Optional(Type.String({ minLength: 1, maxLength: 10_000, description: 'the public key as PEM or JWK, or the address (https) of a JWKS' }))
	},
	{ additionalProperties: false }
);
export const WebsiteGiven = Type.Object(
	{
		origin: Type.String({ maxLength: 300, description: 'where it stands, as its passes name it: https://www.example.org' }),
		groups: Type.Array(Type.String({ maxLength: 80 }), {
			minItems: 1,
			maxItems: 100,
			uniqueItems: true,
			description: 'addresses of the groups that it may grant'
		}),
		key: Type.Optional(WebsiteKeyGiven)
	},
	{ additionalProperties: false }
);
export const WebsiteChange = Type.Object({ groups: WebsiteGiven.properties.groups }, { additionalProperties: false });

export const WebsiteView = Type.Object({
	id: Type.String({ format: 'uuid' }),
	origin: Type.String(),
	groups: Type.Array(Type.Object({ slug: Type.String(), name: Type.String() })),
	keys: Type.Array(
		Type.Object({
			id: Type.String({ format: 'uuid' }),
			kind: oneOf(['secret', 'public', 'jwks']),
			/** Of a secret nothing is told again. */
			value: nullable(Type.String()),
			createdAt: Type.String({ format: 'date-time' }),
			usedAt: nullable(Type.String({ format: 'date-time' }))
		})
	),
	people: Type.Integer({ description: 'people who have come by its passes' }),
	lastAt: nullable(Type.String({ format: 'date-time', description: 'when the last of them came' }))
});
export type WebsiteView = Static<typeof WebsiteView>;

const originOf = (text: string): string => {
	const url = webAddress(text);
	if (url.pathname !== '/' || url.search || url.hash)
		throw new IanuaError('not-valid', { detail: '“origin” is a website without a path, as in https://www.example.org' });
	return url.origin;
};

/** What is kept of a key: its value as it will be asked. Throws `not-valid` in words for whoever gives it. */
async function keyValue({ kind, value }: Static<typeof WebsiteKeyGiven>): Promise<string> {
	if (kind === 'secret') {
		if (value !== undefined) throw new IanuaError('not-valid', { detail: 'a secret is made here; it is told once' });
		return randomBytes(32).toString('base64url');
	}
	if (value === undefined) throw new IanuaError('not-valid', { detail: kind === 'jwks' ? '“value” is the address of the JWKS' : '“value” is the public key' });
	if (kind === 'jwks') return webAddress(value).href;
	try {
		if (value.trim().startsWith('{')) {
			const jwk = JSON.parse(value) as JWK;
			if ('d' in jwk || jwk.kty === 'oct') throw new Error('private');
			await importJWK(jwk, jwk.kty === 'EC' ? 'ES256' : 'RS256');
			return value.trim();
		}
		if (value.includes('PRIVATE')) throw new Error('private');
		return createPublicKey(value).export({ type: 'spki', format: 'pem' }).toString();
	} catch {
		throw new IanuaError('not-valid', { detail: 'that is no public key: give one for RS256 or ES256, as PEM or JWK, and keep the private one to yourself' });
	}
}

/** All websites with passes, withdrawn ones left out; secrets are not told. */
export async function websites(): Promise<WebsiteView[]> {
	const rows = await sql()<(Omit<WebsiteView, 'lastAt'> & { last_at: string | null })[]>`
		select w.id, w.origin,
			coalesce((select jsonb_agg(jsonb_build_object('slug', g.slug, 'name', g.name) order by g.name) from website_group x join member_group g on g.id = x.group_id where x.website_id = w.id), '[]') as groups,
			coalesce((select jsonb_agg(jsonb_build_object('id', k.id, 'kind', k.kind, 'value', case when k.kind = 'secret' then null else k.value end,
				'createdAt', to_char(k.created_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'), 'usedAt', to_char(k.used_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')) order by k.created_at)
				from website_key k where k.website_id = w.id and k.withdrawn_at is null), '[]') as keys,
			(select count(*)::int from website_person p where p.website_id = w.id) as people,
			(select to_char(max(seen_at) at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') from website_person p where p.website_id = w.id) as last_at
		from website w where w.withdrawn_at is null order by w.origin`;
	return rows.map(({ last_at, ...row }) => ({ ...row, lastAt: last_at }));
}

async function insertKey(tx: Queryable, websiteId: string, given: Static<typeof WebsiteKeyGiven>): Promise<{ key: string; secret: string | null }> {
	const value = await keyValue(given);
	const id = newId();
	await tx.insert(websiteKey).values({ id, websiteId, kind: given.kind, value });
	return { key: id, secret: given.kind === 'secret' ? value : null };
}

/** Lets a website give passes. Its secret, where it signs with one, is told this once. Throws `not-valid`, `website-known`. */
export async function addWebsite(given: Static<typeof WebsiteGiven>, actor: string): Promise<{ id: string; key: string; secret: string | null }> {
	const origin = originOf(given.origin);
	return db().transaction(async (tx) => {
		const groups = [...(await groupIds(tx, given.groups)).values()];
		const [row] = await tx
			.insert(website)
			.values({ id: newId(), origin, createdBy: actor })
			// one that was withdrawn comes back, with a key of its own
			.onConflictDoUpdate({ target: website.origin, set: { withdrawnAt: null, createdBy: actor }, setWhere: eq(website.origin, origin) })
			.returning({ id: website.id });
		// it was written just now
		const { id } = row!;
		const standing = await tx.select({ id: websiteKey.id }).from(websiteKey).where(and(eq(websiteKey.websiteId, id), isNull(websiteKey.withdrawnAt))); // prettier-ignore
		if (standing.length) throw new IanuaError('website-known', { origin });
		await tx.delete(websiteGroup).where(eq(websiteGroup.websiteId, id));
		await tx.insert(websiteGroup).values(groups.map((groupId) => ({ websiteId: id, groupId })));
		const made = await insertKey(tx, id, given.key ?? { kind: 'secret' });
		await writeAudit(tx, {
			actor,
			action: 'added',
			kind: 'site',
			thing: id,
			after: { website: origin, groups: given.groups, key: given.key?.kind ?? 'secret' }
		});
		return { id, ...made };
	});
}

async function standing(tx: Queryable, id: string): Promise<{ origin: string; groups: string[] }> {
	const [row] = await tx
		.select({ origin: website.origin })
		.from(website)
		.where(and(eq(website.id, id), isNull(website.withdrawnAt)))
		.for('update');
	if (!row) throw new IanuaError('not-found');
	const groups = await tx
		.select({ slug: group.slug })
		.from(websiteGroup)
		.innerJoin(group, eq(group.id, websiteGroup.groupId))
		.where(eq(websiteGroup.websiteId, id));
	return { origin: row.origin, groups: groups.map(({ slug }) => slug).sort() };
}

/** Says which groups a website may grant: also of who reads by its passes now. Gives which it could before. Throws `not-found`. */
export async function changeWebsite(id: string, { groups }: Static<typeof WebsiteChange>, actor: string): Promise<string[]> {
	return db().transaction(async (tx) => {
		const before = await standing(tx, id);
		const ids = [...(await groupIds(tx, groups)).values()];
		await tx.delete(websiteGroup).where(eq(websiteGroup.websiteId, id));
		await tx.insert(websiteGroup).values(ids.map((groupId) => ({ websiteId: id, groupId })));
		await writeAudit(tx, {
			actor,
			action: 'changed',
			kind: 'site',
			thing: id,
			before: { website: before.origin, groups: before.groups },
			after: { website: before.origin, groups }
		});
		return before.groups;
	});
}

/** Gives a website a second key, to take the place of the first. Throws `not-found`, `website-keys`. */
export async function addWebsiteKey(id: string, given: Static<typeof WebsiteKeyGiven>, actor: string): Promise<{ key: string; secret: string | null }> {
	return db().transaction(async (tx) => {
		const { origin } = await standing(tx, id);
		const keys = await tx
			.select({ id: websiteKey.id })
			.from(websiteKey)
			.where(and(eq(websiteKey.websiteId, id), isNull(websiteKey.withdrawnAt)));
		if (keys.length >= mostKeys) throw new IanuaError('website-keys', { most: String(mostKeys) });
		const made = await insertKey(tx, id, given);
		await writeAudit(tx, { actor, action: 'changed', kind: 'site', thing: id, after: { website: origin, key: given.kind } });
		return made;
	});
}

/** Withdraws a key: whoever reads by a pass that it signed is let in no more, at their next request. Throws `not-found`. */
export async function withdrawWebsiteKey(id: string, key: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		const { origin } = await standing(tx, id);
		const [row] = await tx
			.update(websiteKey)
			.set({ withdrawnAt: new Date() })
			.where(and(eq(websiteKey.id, key), eq(websiteKey.websiteId, id), isNull(websiteKey.withdrawnAt)))
			.returning({ kind: websiteKey.kind });
		if (!row) throw new IanuaError('not-found');
		await writeAudit(tx, { actor, action: 'withdrawn', kind: 'site', thing: id, before: { website: origin, key: row.kind } });
	});
}

/** Whether any other website may give passes. */
export async function givesPasses(): Promise<boolean> {
	const [row] = await sql()`select 1 from website where withdrawn_at is null limit 1`;
	return row !== undefined;
}

/** Withdraws a website with all its keys. Throws `not-found`. */
export async function withdrawWebsite(id: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		const { origin, groups } = await standing(tx, id);
		await tx.update(website).set({ withdrawnAt: new Date() }).where(eq(website.id, id));
		await tx
			.update(websiteKey)
			.set({ withdrawnAt: new Date() })
			.where(and(eq(websiteKey.websiteId, id), isNull(websiteKey.withdrawnAt)));
		await writeAudit(tx, { actor, action: 'withdrawn', kind: 'site', thing: id, before: { website: origin, groups } });
	});
}

/**
 * Lets go of the names that websites gave their people, once the ledger has let go of what they read: after the months for which it is kept, or with
 * null never. Whoever comes again is named again by the next pass.
 */
export async function forgetWebsitePeople(months: number | null): Promise<void> {
	// a month more: the ledger goes by whole ones
	if (months !== null) await sql()`delete from website_person where seen_at < now() - make_interval(months => ${months + 1})`;
}
