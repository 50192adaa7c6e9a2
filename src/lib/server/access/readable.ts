// What lists may name to somebody: worked out first, ranked and filtered afterwards, so that nobody's results depend on what they may not see.
import type postgres from 'postgres';
import { groupsAt } from '#core/access/decide';
import { Cache, type Made } from '../db/cache';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { instantOf, type Caller } from '../people/who';
import { nextTurn } from './hours';

interface Asked {
	readonly staff: boolean;
	readonly person: string | null;
	readonly groups: readonly string[];
}

const readable = ({ staff, person, groups }: Asked, at: number) =>
	sql()`select r.id from readable_by(${staff}, ${person}::uuid, ${[...groups]}::uuid[], ${new Date(at)}) as r (id)`;

/** The ids that a query gives now, as PostgreSQL writes an array and takes it, and until when hours of doors leave them so. */
export async function idsUntilTurn(query: (at: number) => postgres.Fragment): Promise<Made<string>> {
	const at = Date.now();
	const [{ ids }, until] = await Promise.all([
		sql()<{ ids: string }[]>`select coalesce(array_agg(id), '{}')::text as ids from (${query(at)}) r`.then(theRow),
		nextTurn(at)
	]);
	return { value: ids, until };
}

/** In bytes, for people whose groups are the same. */
const cache = new Cache<string>({ most: 32_000_000, weigh: (ids) => ids.length, within: 0 });

/** What some may read now, until something changes or hours begin or end. */
const idsFor = (asked: Asked, key: string): Promise<string> => cache.get(key, () => idsUntilTurn((at) => readable(asked, at)));

/** People whom doors name themselves, by their ids. */
const named = new Cache<ReadonlySet<string>>({ most: 1, within: 0 });
const isNamed = async (person: string): Promise<boolean> => {
	const people = await named.get('people', async () => {
		const rows = await sql()<{ id: string }[]>`select distinct person_id as id from door_person`;
		return { value: new Set(rows.map((row) => row.id)), until: Infinity };
	});
	return people.has(person);
};

/** SQL in an object of its own: a promise of SQL itself would be taken for a query to be asked at once. */
export interface Readable {
	readonly ids: postgres.Fragment;
}

/**
 * SQL of the ids of the documents that lists may name to a caller, who may read them too (`readable_by` in drizzle/). Asked as
 * `(d.id in (…)) is true` it is looked up row by row in a table made once; as a plain condition it becomes a join, which goes through all of them for
 * each row wherever the planner expects few rows and finds thousands. For staff, and at an instant that is tried, it is worked out each time.
 */
export async function readableBy(caller: Caller): Promise<Readable> {
	const { who } = caller;
	const at = instantOf(caller);
	const groups = groupsAt(who, at);
	const id = who.kind === 'member' && who.id !== '' ? who.id : null;
	const staff = who.kind === 'staff';
	// once, whatever asks: taken apart and put among the joins of a query it may be worked out for each of their rows
	if (staff || caller.trial) return { ids: sql()`with readable as materialized (${readable({ staff, person: id, groups }, at)}) select id from readable` };
	const person = id !== null && (await isNamed(id)) ? id : null;
	const ids = await idsFor({ staff, person, groups }, JSON.stringify([person, [...groups].sort()]));
	return { ids: sql()`select unnest(${ids}::uuid[]) as id` };
}
