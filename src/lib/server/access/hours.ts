// The hours of doors as the database compares them: instants, reckoned from bounds that may be days of the site's zone.
import { eq, sql as raw } from 'drizzle-orm';
import { spanOf } from '#core/access/hours';
import type { Made } from '../db/cache';
import { sql, type Queryable } from '../db/client';
import { theRow } from '../db/rows';
import { door } from '../db/schema';

/** The columns that a pair of bounds makes. */
export function instantsOf(from: string | null, until: string | null, zone: string) {
	const span = spanOf(from, until, zone);
	return { fromAt: span.from === null ? null : new Date(span.from), untilAt: span.until === null ? null : new Date(span.until) };
}

/** Reckons the hours of all doors anew: at the start, and when the site's zone changes. */
export async function reckonHours(tx: Queryable, zone: string): Promise<void> {
	const rows = await tx
		.select({ id: door.id, from: door.fromBound, until: door.untilBound })
		.from(door)
		.where(raw`${door.fromBound} is not null or ${door.untilBound} is not null`);
	for (const { id, from, until } of rows)
		await tx
			.update(door)
			.set(instantsOf(from, until, zone))
			.where(eq(door.id, id));
}

/** The next instant after `at` at which the hours of any door begin or end (ms since the epoch); Infinity where none do. */
export async function nextTurn(at: number): Promise<number> {
	const now = new Date(at);
	const { next } = theRow(
		await sql()<{ next: Date | null }[]>`
			select least((select min(from_at) from door where from_at > ${now}), (select min(until_at) from door where until_at > ${now})) as next`
	);
	return next?.getTime() ?? Infinity;
}

/** What is made, and until when hours of doors leave it so. They are asked first: what turns while it is made ends it. */
export async function untilTurn<V>(make: () => Promise<V>): Promise<Made<V>> {
	const until = await nextTurn(Date.now());
	return { value: await make(), until };
}
