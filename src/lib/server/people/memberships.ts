// Who belongs to which groups, written down.
import { asc, inArray } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import type { Queryable } from '../db/client';
import { group, membership } from '../db/schema';
import { newId } from '../id';

/** Makes somebody a member of groups, by their addresses; one that does not exist is an error. */
export async function insertMemberships(
	tx: Queryable,
	personId: string,
	memberships: readonly { group: string; from?: string | null | undefined; until?: string | null | undefined }[]
): Promise<void> {
	if (!memberships.length) return;
	const ids = await groupIds(
		tx,
		memberships.map((m) => m.group)
	);
	await tx
		.insert(membership)
		// groupIds throws where a group is not there
		.values(memberships.map((m) => ({ id: newId(), personId, groupId: ids.get(m.group)!, fromDay: m.from ?? null, untilDay: m.until ?? null })));
}

/** The ids of groups by their addresses; one that does not exist is an error. */
export async function groupIds(tx: Queryable, slugs: readonly string[]): Promise<Map<string, string>> {
	if (!slugs.length) return new Map();
	const rows = await tx
		.select({ id: group.id, slug: group.slug })
		.from(group)
		.where(inArray(group.slug, [...slugs]))
		.orderBy(asc(group.slug));
	const ids = new Map(rows.map((r) => [r.slug, r.id]));
	for (const slug of slugs) if (!ids.has(slug)) throw new IanuaError('group-unknown', { slug });
	return ids;
}
