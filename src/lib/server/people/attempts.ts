// Tries that are limited in number, whichever server they reach: passwords of keys, and what else can be guessed at.
import { IanuaError } from '#core/errors';
import { sql } from '../db/client';
import { newId } from '../id';

/** Minutes after which tries are forgotten, and how many there may be until then. */
const [within, most] = [15, 10];

/** Counts of requests that began longer ago are of no use to anybody. */
const longestWindowMs = 3_600_000;

/** Counts a try under a name, as in `key <id>`. Throws `too-many-tries` from the eleventh within a quarter of an hour on. */
export async function countTry(name: string): Promise<void> {
	const [row] = await sql()<{ tries: number }[]>`
		insert into attempt (name, tries, since) values (${name}, 1, now())
		on conflict (name) do update set
			tries = case when attempt.since > now() - make_interval(mins => ${within}) then attempt.tries + 1 else 1 end,
			since = case when attempt.since > now() - make_interval(mins => ${within}) then attempt.since else now() end
		returning tries`;
	if (row!.tries > most) throw new IanuaError('too-many-tries');
}

/** Forgets the tries under a name: it went well. */
export async function forgetTries(name: string): Promise<void> {
	await sql()`delete from attempt where name = ${name}`;
}

/**
 * Counts a request under a name, as in an address and what it asks for. `max` of them are allowed in each window of so many seconds, which
 * begins with the first; `retryAfter` is how many seconds are left of it where one is not.
 */
export async function countRequest(key: string, { window, max }: { window: number; max: number }): Promise<{ allowed: boolean; retryAfter: number | null }> {
	const s = sql();
	const now = Date.now();
	const begin = now - window * 1000;
	const [row] = await s<{ count: number; first: string }[]>`
		insert into rate_limit (id, key, count, last_request) values (${newId()}, ${key}, 1, ${now})
		on conflict (key) do update set
			count = case when rate_limit.last_request > ${begin} then rate_limit.count + 1 else 1 end,
			last_request = case when rate_limit.last_request > ${begin} then rate_limit.last_request else ${now} end
		returning count, last_request as first`;
	const { count, first } = row!;
	if (count === 1) await s`delete from rate_limit where last_request < ${now - longestWindowMs}`;
	return count <= max ? { allowed: true, retryAfter: null } : { allowed: false, retryAfter: Math.ceil((Number(first) - begin) / 1000) };
}
