// What lists may name to somebody: worked out first, ranked and filtered afterwards, so that nobody's results depend on what they may not see.
import type postgres from 'postgres';
import { within } from '#core/access/hours';
import { sql } from '../db/client';
import { instantOf, type Caller } from '../people/who';

/** SQL of the ids of the documents that lists may name to a caller, who may read them too (`readable_by` in drizzle/). */
export function readableBy(caller: Caller): postgres.Fragment {
	const { who } = caller;
	const at = instantOf(caller);
	const groups = who.kind === 'member' ? who.memberships.filter((m) => within(m.span, at) === 'in').map((m) => m.group) : [];
	const person = who.kind === 'member' && who.id !== '' ? who.id : null;
	return sql()`select r.id from readable_by(${who.kind === 'staff'}, ${person}::uuid, ${groups}::uuid[], ${new Date(at)}) as r (id)`;
}

/** Ids that are known already, as such SQL. */
export const idsAs = (ids: readonly string[]): postgres.Fragment => sql()`select unnest(${[...ids]}::uuid[])`;
