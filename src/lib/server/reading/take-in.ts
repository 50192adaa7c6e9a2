// Entries of another site's ledger, taken in with their documents: they happened as they stand, and nothing is counted or told of them but by sums.
import { sql as raw } from 'drizzle-orm';
import type { Queryable } from '../db/client';
import type { ledger } from '../db/schema';

export type EntryTakenIn = Omit<typeof ledger.$inferInsert, 'at'> & { readonly at: string };

/** Enters them; one that is here already stays as it is. Gives how many are new. */
export async function takeInEntries(tx: Queryable, entries: readonly EntryTakenIn[]): Promise<number> {
	for (const month of new Set(entries.map(({ at }) => at.slice(0, 7)))) await tx.execute(raw`select ledger_month(${`${month}-01`}::date)`);
	const rows = await tx.execute<{ id: string }>(raw`
		insert into ledger (id, at, kind, document_id, edition_id, reading_id, reader, who, person_id, reason, source_kind, page_id, placement_id, outside, staff, robot, preload,
			key_id, stamp, attention, device, controlled)
		select r.id, r.at, r.kind, r."documentId", r."editionId", r."readingId", r.reader, r.who, r."personId", r.reason, r."sourceKind", r."pageId", r."placementId", r.outside, r.staff,
			r.robot, r.preload, r."keyId", r.stamp, nullif(r.attention, 'null'::jsonb), r.device, r.controlled
		from jsonb_to_recordset(${JSON.stringify(entries)}::jsonb) as r (id uuid, at timestamptz, kind text, "documentId" uuid, "editionId" uuid, "readingId" uuid, reader text, who text,
			"personId" uuid, reason text, "sourceKind" text, "pageId" uuid, "placementId" text, outside text, staff boolean, robot boolean, preload boolean, "keyId" uuid, stamp text,
			attention jsonb, device text, controlled boolean)
		on conflict do nothing returning id`);
	return rows.length;
}
