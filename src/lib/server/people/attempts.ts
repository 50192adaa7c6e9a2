// Tries that are limited in number, whichever server they reach: passwords of keys, and what else can be guessed at.
import ipaddr from 'ipaddr.js';
import { createHmac } from 'node:crypto';
import { IanuaError } from '#core/errors';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { newId } from '../id';
import { settings } from '../settings';

/** Tries at one thing from one place, within so many minutes. */
const fromPlace = { most: 10, minutes: 15 };
/** Tries at one thing from all places together where it was not opened before, within so many minutes: guessing from many places is slow. */
const fromAnywhere = { most: 100, minutes: 24 * 60 };
/** Beyond those, one try in so many minutes: whoever is new somewhere comes in with patience, and a guesser hardly comes on. */
const trickle = { most: 1, minutes: 1 };
/** Days for which a place is remembered from which it went well. */
const knownFor = 180;

/** Counts of requests that began longer ago are of no use to anybody. */
const longestWindowMs = 3_600_000;

/** A place that tries: an address, of IPv6 the first 64 bits, which one connection has to itself (RFC 6177, 2: a site gets a /64 at least). */
export function placeOf(address: string): string {
	if (!ipaddr.isValid(address)) return address.slice(0, 60);
	const parsed = ipaddr.process(address);
	return parsed instanceof ipaddr.IPv6
		? `${parsed.parts
				.slice(0, 4)
				.map((part) => part.toString(16))
				.join(':')}::/64`
		: parsed.toString();
}

const hidden = (name: string) => createHmac('sha256', settings().IANUA_SECRET).update(name).digest('base64url');

interface Limit {
	readonly most: number;
	readonly minutes: number;
}

/** Counts one more under a name. Null where that is still within the most that there may be, else in how many seconds the count begins anew. */
async function beyond(name: string, { most, minutes }: Limit): Promise<number | null> {
	const row = theRow(
		await sql()<{ tries: number; left: number }[]>`
		insert into attempt (name, tries, since) values (${name}, 1, now())
		on conflict (name) do update set
			tries = case when attempt.since > now() - make_interval(mins => ${minutes}) then attempt.tries + 1 else 1 end,
			since = case when attempt.since > now() - make_interval(mins => ${minutes}) then attempt.since else now() end
		returning tries, ceil(extract(epoch from since - now()) + ${minutes * 60})::int as left`
	);
	return row.tries <= most ? null : Math.max(1, row.left);
}

const tooMany = ({ most, minutes }: Limit, seconds: number) =>
	new IanuaError('too-many-tries', { most: String(most), window: String(minutes * 60), seconds: String(seconds) });

/** The same, which throws `too-many-tries` with those seconds. */
async function countWithin(name: string, limit: Limit): Promise<void> {
	const seconds = await beyond(name, limit);
	if (seconds !== null) throw tooMany(limit, seconds);
}

/**
 * Counts a try at something (`key <id>`, `password <mail address>`) from an address. Throws `too-many-tries` from the eleventh within a
 * quarter of an hour from one place on. From places where it was never opened before, a hundred a day are let through together and then
 * one a minute: nobody is locked out where they have come in before by what others try elsewhere.
 */
export async function countTry(name: string, address: string): Promise<void> {
	const place = placeOf(address);
	await countWithin(`${name} ${place}`, fromPlace);
	const [known] = await sql()`select 1 from attempt where name = ${hidden(`well ${name} ${place}`)}`;
	if (known || (await beyond(`${name} anywhere`, fromAnywhere)) === null) return;
	await countWithin(`${name} trickle`, trickle);
}

/** Forgets the tries at something from a place, and remembers the place: it went well. */
export async function wentWell(name: string, address: string): Promise<void> {
	const place = placeOf(address);
	await sql()`delete from attempt where name = ${`${name} ${place}`}`;
	await sql()`insert into attempt (name, tries, since) values (${hidden(`well ${name} ${place}`)}, 0, now()) on conflict (name) do update set since = now()`;
}

/** Counts what may be done only so often by one place (knocks) or for one address (mails). Throws `too-many-tries`. */
export async function countOften(name: string): Promise<void> {
	await countWithin(name, fromPlace);
}

/** Drops counts that are over. */
export async function forgetOldTries(): Promise<void> {
	await sql()`delete from attempt where since < now() - make_interval(days => case when tries = 0 then ${knownFor} else 2 end)`;
}

/**
 * Counts a request under a name, as in an address and what it asks for. `max` of them are allowed in each window of so many seconds, which
 * begins with the first; `retryAfter` is how many seconds are left of it where one is not.
 */
export async function countRequest(key: string, { window, max }: { window: number; max: number }): Promise<{ allowed: boolean; retryAfter: number | null }> {
	const s = sql();
	const now = Date.now();
	const begin = now - window * 1000;
	const row = theRow(
		await s<{ count: number; first: string }[]>`
		insert into rate_limit (id, key, count, last_request) values (${newId()}, ${key}, 1, ${now})
		on conflict (key) do update set
			count = case when rate_limit.last_request > ${begin} then rate_limit.count + 1 else 1 end,
			last_request = case when rate_limit.last_request > ${begin} then rate_limit.last_request else ${now} end
		returning count, last_request as first`
	);
	const { count, first } = row;
	if (count === 1) await s`delete from rate_limit where last_request < ${now - longestWindowMs}`;
	return count <= max ? { allowed: true, retryAfter: null } : { allowed: false, retryAfter: Math.ceil((Number(first) - begin) / 1000) };
}
