// Filters that somebody of the staff saved under a name.
import { and, asc, eq } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import { filtersOf, filterNames, orderOf, orderText } from '#core/documents/filters';
import { db } from '../db/client';
import { savedFilter } from '../db/schema';
import { newId } from '../id';

export interface SavedFilter {
	readonly id: string;
	readonly name: string;
	/** The query of the room's address. */
	readonly query: string;
}

/** A person’s saved filters, by name. */
export function savedFilters(personId: string): Promise<SavedFilter[]> {
	return db()
		.select({ id: savedFilter.id, name: savedFilter.name, query: savedFilter.query })
		.from(savedFilter)
		.where(eq(savedFilter.personId, personId))
		.orderBy(asc(savedFilter.name));
}

/** Saves a filter; only what the room understands of the query is kept. Throws `name-taken`. */
export async function saveFilter(personId: string, given: { name: string; query: string }): Promise<SavedFilter> {
	const from = new URLSearchParams(given.query);
	const to = new URLSearchParams();
	const filters = filtersOf(from);
	for (const name of filterNames) for (const value of filters[name] ?? []) to.append(name, value);
	const [q, order] = [from.get('q')?.trim(), orderOf(from.get('order'))];
	if (q) to.set('q', q.slice(0, 300));
	if (order) to.set('order', orderText(order));
	const row = { id: newId(), name: given.name.trim(), query: to.toString() };
	const [made] = await db()
		.insert(savedFilter)
		.values({ ...row, personId })
		.onConflictDoNothing()
		.returning({ id: savedFilter.id });
	if (!made) throw new IanuaError('name-taken', { name: row.name });
	return row;
}

/** Forgets a saved filter of that person. Throws `not-found`. */
export async function dropFilter(personId: string, id: string): Promise<void> {
	const dropped = /^[0-9a-f-]{36}$/.test(id)
		? await db()
				.delete(savedFilter)
				.where(and(eq(savedFilter.personId, personId), eq(savedFilter.id, id)))
				.returning({ id: savedFilter.id })
		: [];
	if (!dropped.length) throw new IanuaError('not-found');
}
