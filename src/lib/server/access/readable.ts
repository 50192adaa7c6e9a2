// What lists may name to somebody: worked out first, ranked and filtered afterwards, so that nobody's results depend on what they may not see.
import type postgres from 'postgres';
import { within } from '#core/access/hours';
import { sql } from '../db/client';
import { instantOf, type Caller } from '../people/who';

/**
 * SQL of the ids of the documents that lists may name to a caller, who may read them too (`readable_by` in drizzle/). Asked as
 * `(d.id in (…)) is true` it is looked up row by row in a table made once; as a plain condition it becomes a join, which goes through all of them for
 * each row wherever the planner expects few rows and finds thousands.
 */
export function readableBy(caller: Caller): postgres.Fragment {
	const { who } = caller;
	const at = instantOf(caller);
	const groups = who.kind === 'member' ? who.memberships.filter((m) => within(m.span, at) === 'in').map((m) => m.group) : [];
	const person = who.kind === 'member' && who.id !== '' ? who.id : null;
	// once, whatever asks: taken apart and put among the joins of a query it may be worked out for each of their rows
	return sql()`with readable as materialized (select r.id from readable_by(${who.kind === 'staff'}, ${person}::uuid, ${groups}::uuid[], ${new Date(at)}) as r (id)) select id from readable`;
}

/** Ids that are known already, as such SQL. */
export const idsAs = (ids: readonly string[]): postgres.Fragment => sql()`select unnest(${[...ids]}::uuid[])`;
