// Keys of another site, taken in with their documents.
import type { ExportLine } from '#core/upkeep/portable';
import type { Queryable } from '../db/client';
import { doorKey } from '../db/schema';
import { writeAudit } from '../site/audit';

/** Takes keys in as they were on another site: a link that was handed out there goes on working here. `ids` gives the documents here by their slugs there. */
export async function takeInKeys(tx: Queryable, lines: readonly ExportLine<'keys'>[], ids: ReadonlyMap<string, string>, actor: string | null): Promise<void> {
	for (const { document: slug, allow, until, createdAt, withdrawnAt, ...rest } of lines) {
		const documentId = ids.get(slug);
		if (!documentId) continue;
		const [made] = await tx
			.insert(doorKey)
			.values({
				...rest,
				documentId,
				allowSave: allow.save,
				allowPrint: allow.print,
				untilBound: until,
				createdAt: new Date(createdAt),
				withdrawnAt: withdrawnAt === null ? null : new Date(withdrawnAt)
			})
			.onConflictDoNothing()
			.returning({ id: doorKey.id });
		if (made) await writeAudit(tx, { actor, action: 'key-issued', kind: 'document', thing: documentId, after: { id: rest.id, label: rest.label } });
	}
}
