// Tries that are limited in number, whichever server they reach: passwords of keys, and what else can be guessed at.
import { IanuaError } from '#core/errors';
import { sql } from '../db/client';

/** Minutes after which tries are forgotten, and how many there may be until then. */
const [within, most] = [15, 10];

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
