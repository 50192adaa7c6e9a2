// Sign-in by the organisation's identity provider: which there are, and what becomes of somebody who comes by one. The protocol itself (discovery, code
// flow with PKCE, nonce, the token's signature) is better-auth's.
import { existsSync, readFileSync } from 'node:fs';
import { and, eq } from 'drizzle-orm';
import { dayOf } from '#core/access/hours';
import { dayAfter } from '#core/readership/period';
import { arrivalOf, Providers, providersTrouble, type Claims, type Provider } from '#core/people/provider';
import { db, type Queryable } from '../db/client';
import { account, group, membership, person } from '../db/schema';
import { settings } from '../settings';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';
import { compile } from '../validate';
import { insertMemberships } from './memberships';

let known: readonly Provider[] | undefined;

/** The providers of this site, as `providers.json` names them. Throws in a sentence where that cannot be read. */
export function providers(): readonly Provider[] {
	return (known ??= readProviders(settings().IANUA_PROVIDERS ?? `${settings().IANUA_DATA}/providers.json`));
}

/** Reads them from a file; none where it is not there. */
export function readProviders(path: string): readonly Provider[] {
	if (!existsSync(path)) return [];
	let given: unknown;
	try {
		given = JSON.parse(readFileSync(path, 'utf8'));
	} catch {
		throw new Error(`${path} cannot be read as JSON.`);
	}
	const result = compile(Providers)(given);
	const trouble = result.ok ? providersTrouble(result.value) : result.detail;
	if (!result.ok || trouble) throw new Error(`${path} is not right: ${trouble}.`);
	return result.value;
}

/** What providers said of those who are signing in at this moment, until it is known who they are here. */
const arriving = new Map<string, { claims: Claims; at: number }>();
/** The first provider of the settings by which a person has come; null where there is none. */
export async function providerOf(personId: string): Promise<string | null> {
	const rows = await db().select({ id: account.providerId }).from(account).where(eq(account.userId, personId));
	return providers().find(({ id }) => rows.some((row) => row.id === id))?.id ?? null;
}

/** Where one signs out at a provider, and is sent back here (OpenID Connect RP-Initiated Logout 1.0); null where it says no such place, or nothing. */
export async function signOutAt({ issuer, client }: Provider): Promise<string | null> {
	const said = (await fetch(`${issuer.replace(/\/$/, '')}/.well-known/openid-configuration`, { signal: AbortSignal.timeout(5000) })
		.then((answer) => (answer.ok ? answer.json() : null))
		.catch(() => null)) as { end_session_endpoint?: unknown } | null;
	if (typeof said?.end_session_endpoint !== 'string' || !URL.canParse(said.end_session_endpoint)) return null;
	const place = new URL(said.end_session_endpoint);
	if (place.protocol !== new URL(issuer).protocol) return null;
	place.searchParams.set('client_id', client);
	place.searchParams.set('post_logout_redirect_uri', `${settings().IANUA_ORIGIN}/`);
	return place.href;
}

const nameOf = (provider: string, sub: string) => `${provider}\n${sub}`;
/** Ms after which somebody who never got through is forgotten. */
const patience = 60_000;

/** Keeps what a provider says of somebody, for `arrive`. */
export function noteArriving(provider: string, claims: Claims): void {
	const now = Date.now();
	for (const [name, { at }] of arriving) if (now - at > patience) arriving.delete(name);
	if (typeof claims.sub === 'string') arriving.set(nameOf(provider, claims.sub), { claims, at: now });
}

/** Somebody comes by a provider: their groups and role here become what its claims come to, before they are in. */
export async function arrive(providerId: string, personId: string): Promise<void> {
	const provider = providers().find(({ id }) => id === providerId);
	if (!provider) return;
	const accounts = await db()
		.select({ sub: account.accountId })
		.from(account)
		.where(and(eq(account.userId, personId), eq(account.providerId, providerId)));
	const came = accounts.map(({ sub }) => nameOf(providerId, sub)).find((name) => arriving.has(name));
	if (came === undefined) return;
	// it is there, as was just looked
	const { claims } = arriving.get(came)!;
	arriving.delete(came);
	const { zone } = await site();
	const today = dayOf(Date.now(), zone);
	await db().transaction(async (tx) => {
		const [row] = await tx.select().from(person).where(eq(person.id, personId)).for('update');
		if (!row) return;
		const { groups, decided, role, decidesRole } = arrivalOf(provider, claims);
		const until = provider.groups?.days === undefined ? null : dayAfter(today, provider.groups.days);
		if (decided.length && row.role === 'member') await setGroups(tx, personId, { groups, decided, until, today, by: provider.name });
		// an owner is never made less by a provider: somebody has to be able to put its settings right
		if (!decidesRole || row.role === 'owner' || (role ?? 'member') === row.role) return;
		await tx
			.update(person)
			.set({ role: role ?? 'member', updatedAt: new Date() })
			.where(eq(person.id, personId));
		await writeAudit(tx, {
			actor: null,
			action: 'changed',
			kind: 'person',
			thing: personId,
			before: { role: row.role },
			after: { role: role ?? 'member', by: provider.name }
		});
	});
}

interface Decided {
	readonly groups: readonly string[];
	readonly decided: readonly string[];
	readonly until: string | null;
	readonly today: string;
	readonly by: string;
}

/** Of the groups that a provider decides on, somebody is in those that it gives, from today or as long as they were, and in no other. */
async function setGroups(tx: Queryable, personId: string, { groups, decided, until, today, by }: Decided): Promise<void> {
	const rows = await tx
		.select({ id: membership.id, slug: group.slug, from: membership.fromDay, until: membership.untilDay })
		.from(membership)
		.innerJoin(group, eq(group.id, membership.groupId))
		.where(eq(membership.personId, personId));
	const there = await tx.select({ slug: group.slug }).from(group);
	const before = rows.filter(({ slug }) => decided.includes(slug));
	const isNow = (m: (typeof before)[number]) => (m.from === null || m.from <= today) && (m.until === null || m.until >= today);
	let changed = false;
	for (const m of before) {
		if (!isNow(m)) continue;
		const last = groups.includes(m.slug) ? until : dayAfter(today, -1);
		if (m.until === last) continue;
		changed = true;
		if (last !== null && m.from !== null && m.from > last) await tx.delete(membership).where(eq(membership.id, m.id));
		else await tx.update(membership).set({ untilDay: last }).where(eq(membership.id, m.id));
	}
	const fresh = groups.filter((slug) => !before.some((m) => m.slug === slug && isNow(m)) && there.some((g) => g.slug === slug));
	await insertMemberships(
		tx,
		personId,
		fresh.map((slug) => ({ group: slug, from: today, until }))
	);
	if (changed || fresh.length)
		await writeAudit(tx, {
			actor: null,
			action: 'changed',
			kind: 'person',
			thing: personId,
			before: { groups: before.filter(isNow).map(({ slug }) => slug) },
			after: { groups, until, by }
		});
}

/** Writes into the trail that a provider brought somebody in who was not here. */
export async function noteMadeBy(provider: string, made: { id: string; email: string; name: string }): Promise<void> {
	const by = providers().find(({ id }) => id === provider)?.name ?? provider;
	await db().transaction((tx) =>
		writeAudit(tx, { actor: null, action: 'added', kind: 'person', thing: made.id, after: { email: made.email, name: made.name, role: 'member', by } })
	);
}
