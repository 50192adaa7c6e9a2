// Passes of other websites: looked at, taken once, and exchanged for a grant that a frame holds in a cookie of its own (core/access/pass).
import { compactVerify, createLocalJWKSet, decodeJwt, decodeProtectedHeader, importJWK, importSPKI, type JSONWebKeySet, type JWK } from 'jose';
import { passAlgorithms, PassClaims, passSeconds, passTrouble, type PassAlgorithm } from '#core/access/pass';
import { IanuaError } from '#core/errors';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { newId } from '../id';
import { fetchBytes } from '../intake/fetch';
import { hashOf, newSecret } from '../people/secrets';
import { callerOf, cookieOf, nobody, type Caller } from '../people/who';
import { settings } from '../settings';
import { compile } from '../validate';

/** The cookie of a frame, for the addresses of its document alone. */
export const passCookie = 'ianua_pass';
/** Hours for which a grant holds at most: as long as somebody reads at a sitting. */
const grantHours = 12;

const checkClaims = compile(PassClaims);
const refused = (why: string) => new IanuaError('pass-refused', { why });

interface KeyRow {
	id: string;
	website_id: string;
	origin: string;
	kind: 'secret' | 'public' | 'jwks';
	value: string;
	groups: { id: string; slug: string }[];
}

/** What stood at addresses of keys, or why it could not be read. */
const sets = new Map<string, { set: JSONWebKeySet | IanuaError; until: number }>();
/** Ms for which the keys at an address are taken as they were; those that could not be read are asked for again sooner, but not for every pass that somebody shows. */
const [setMs, againMs] = [600_000, 30_000];

async function keySet(address: string): Promise<JSONWebKeySet> {
	const known = sets.get(address);
	let set = known && known.until > Date.now() ? known.set : null;
	if (!set) {
		try {
			set = JSON.parse((await fetchBytes(address, 100_000)).toString('utf8')) as JSONWebKeySet;
			createLocalJWKSet(set);
			sets.set(address, { set, until: Date.now() + setMs });
		} catch (error) {
			set = refused(`the keys at ${address} could not be read: ${error instanceof IanuaError ? error.message : 'that is no JWKS'}`);
			sets.set(address, { set, until: Date.now() + againMs });
		}
	}
	if (set instanceof IanuaError) throw set;
	return set;
}

/** What a key of a website checks a signature with, for an algorithm; null where the two do not go together. */
async function verifierOf({ kind, value }: KeyRow, alg: PassAlgorithm) {
	if (kind === 'secret') return alg === 'HS256' ? new TextEncoder().encode(value) : null;
	// RFC 8725, section 3.1: a public key is never taken for a secret
	if (alg === 'HS256') return null;
	if (kind === 'jwks') return createLocalJWKSet(await keySet(value));
	try {
		return await (value.startsWith('{') ? importJWK(JSON.parse(value) as JWK, alg) : importSPKI(value, alg));
	} catch {
		// an elliptic key where RSA was named, or the other way round
		return null;
	}
}

const signedBy = async (pass: string, key: KeyRow, alg: PassAlgorithm): Promise<boolean> => {
	const verifier = await verifierOf(key, alg);
	if (!verifier) return false;
	return (typeof verifier === 'function' ? compactVerify(pass, verifier, { algorithms: [alg] }) : compactVerify(pass, verifier, { algorithms: [alg] })).then(
		() => true,
		() => false
	);
};

function read(pass: string): { alg: PassAlgorithm; claims: PassClaims } {
	let header: { alg?: string };
	let payload: unknown;
	try {
		[header, payload] = [decodeProtectedHeader(pass), decodeJwt(pass)];
	} catch {
		throw refused('it is no JWT');
	}
	const alg = passAlgorithms.find((known) => known === header.alg);
	if (!alg) throw refused(`it is signed by ${header.alg ?? 'nothing'}; ${passAlgorithms.join(', ')} are taken`);
	const claims = checkClaims(payload);
	if (!claims.ok) throw refused(claims.detail);
	return { alg, claims: claims.value };
}

/**
 * Exchanges a pass for a grant: the secret that the frame shows from then on. `from` is the website whose page handed it over, as the browser says.
 * Throws `pass-refused`, which says why to whoever makes the passes, and `not-found` for a document that is not there.
 */
export async function takePass(pass: string, slug: string, from: string): Promise<string> {
	const { alg, claims } = read(pass);
	const s = sql();
	const keys = await s<KeyRow[]>`
		select k.id, k.website_id, w.origin, k.kind, k.value,
			coalesce((select jsonb_agg(jsonb_build_object('id', g.id, 'slug', g.slug)) from website_group x join member_group g on g.id = x.group_id where x.website_id = w.id), '[]') as groups
		from website w join website_key k on k.website_id = w.id where w.origin = ${claims.iss} and w.withdrawn_at is null and k.withdrawn_at is null order by k.created_at desc`;
	const [any] = keys;
	if (!any) throw refused(`no website ${claims.iss} may give passes here: “iss” is its origin, as it stands in the settings`);
	if (from !== any.origin) throw refused(`it came from ${from}, and names ${any.origin}`);
	let key: KeyRow | undefined;
	for (const each of keys) if (!key && (await signedBy(pass, each, alg))) key = each;
	if (!key) throw refused(`its signature is none of a key that ${any.origin} has here`);
	const now = Date.now();
	const trouble = passTrouble(claims, { origin: settings().IANUA_ORIGIN, website: { origin: key.origin, groups: key.groups.map((g) => g.slug) }, now });
	if (trouble) throw refused(trouble);
	const [document] = await s<{ id: string }[]>`select id from document where slug = ${slug} and gone_at is null`;
	if (!document) throw new IanuaError('not-found');

	const over = new Date((claims.exp + passSeconds.apart) * 1000);
	await s`delete from pass_taken where until < now()`;
	const [first] =
		await s`insert into pass_taken (website_id, jti, until) values (${key.website_id}, ${claims.jti}, ${over}) on conflict do nothing returning 1`;
	if (!first) throw refused('it was taken before: each needs a “jti” of its own');
	const groups = key.groups.filter((g) => claims.groups.includes(g.slug)).map((g) => g.id);
	const { id: person } = theRow(
		await s<{ id: string }[]>`
		insert into website_person (id, website_id, sub, name) values (${newId()}, ${key.website_id}, ${claims.sub}, ${claims.name ?? ''})
		on conflict (website_id, sub) do update set name = excluded.name, seen_at = now() returning id`
	);
	const grant = newSecret();
	await s`delete from pass_grant where until < now()`;
	await s`insert into pass_grant (hash, website_person_id, website_key_id, document_id, groups, until)
		values (${hashOf(grant)}, ${person}, ${key.id}, ${document.id}, ${groups}, ${new Date(now + grantHours * 3_600_000)})`;
	await s`update website_key set used_at = now() where id = ${key.id}`;
	return grant;
}

/** The cookies that keep a grant in the frame: for its document alone, on that website alone (CHIPS: `Partitioned`), as long as the browser is open. */
export const grantCookies = (grant: string, slug: string): string[] =>
	['d', 'embed'].map((place) => `${passCookie}=${grant}; Path=/${place}/${slug}; HttpOnly; Secure; SameSite=None; Partitioned`);

/** Who comes by a grant for a document; null where it holds no more, or is for another. */
async function callerByGrant(grant: string, slug: string): Promise<Caller | null> {
	const [row] = await sql()<{ person: string; name: string; origin: string; groups: string[] }[]>`
		select p.id as person, p.name, w.origin, array(select unnest(g.groups) intersect select x.group_id from website_group x where x.website_id = w.id)::text[] as groups
		from pass_grant g join document d on d.id = g.document_id join website_person p on p.id = g.website_person_id join website w on w.id = p.website_id join website_key k on k.id = g.website_key_id
		where g.hash = ${hashOf(grant)} and g.until > now() and d.slug = ${slug} and w.withdrawn_at is null and k.withdrawn_at is null`;
	if (!row) return null;
	const memberships = row.groups.map((group) => ({ group, span: { from: null, until: null } }));
	return { who: { kind: 'member', id: row.person, suspended: false, memberships }, person: null, pass: { person: row.person, website: row.origin } };
}

/** Who asks for a document or a part of it: as everywhere, or by the pass of another website. */
export async function callerFor(slug: string, cookie: string | null, authorization: string | null): Promise<Caller> {
	const caller = await callerOf(cookie, authorization);
	const grant = caller === nobody ? cookieOf(cookie, passCookie) : null;
	return (grant && (await callerByGrant(grant, slug))) || caller;
}
