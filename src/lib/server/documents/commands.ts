// What others change of a document's row, within their own transactions. Only this folder writes to the table `document`.
import { eq, sql as raw } from 'drizzle-orm';
import { setAsideDays } from '#core/documents/aside';
import { freeSlug } from '#core/documents/address';
import type { Cover } from '#core/documents/cover';
import type { FieldValues } from '#core/documents/fields';
import { insertDoor } from '../access/doors';
import { sql, type Queryable } from '../db/client';
import { document } from '../db/schema';
import { newId } from '../id';
import { slugFor } from '../slug';

/**
 * A new document behind a shut door, at the address that is given or one made from its title, the next free one. The edition that it is to show is the caller's to write, in the
 * same transaction.
 */
export async function insertDocument(
	tx: Queryable,
	given: { title: string; folder: string; editionId: string; slug?: string; createdAt?: Date; setAsideAt?: Date | null; fields?: FieldValues },
	actor: string | null
) {
	const wanted = given.slug ?? slugFor(given.title);
	// one intake at a time looks for a free address, so that two of the same title do not meet
	await tx.execute(raw`select pg_advisory_xact_lock(4173003)`);
	const rows = await tx.execute<{ slug: string }>(
		raw`select slug from document where slug = ${wanted} or slug like ${wanted + '-%'} union select slug from document_address`
	);
	const slug = freeSlug(wanted, new Set(rows.map((r) => r.slug)));
	const id = newId();
	await tx.insert(document).values({ id, ...given, slug, doorId: await insertDoor(tx, actor), createdBy: actor });
	return { id, slug };
}

/** Puts an edition in force: the one whose pages are shown, found and saved. Inside a transaction that holds the document. */
export async function putInForce(tx: Queryable, documentId: string, editionId: string): Promise<void> {
	await tx.update(document).set({ editionId }).where(eq(document.id, documentId));
	await tx.execute(raw`select find_pages(${documentId})`);
}

/** Has former slugs lead to a document for good, those that lead nowhere yet. */
export async function addFormerSlugs(tx: Queryable, documentId: string, slugs: readonly string[]): Promise<void> {
	for (const slug of slugs)
		await tx.execute(raw`insert into document_address (slug, document_id) select ${slug}, ${documentId}::uuid
			where not exists (select 1 from document where slug = ${slug}) on conflict do nothing`);
}

/** What a document's cover shows; null for the first page. Inside a transaction that holds the document. */
export async function writeCover(tx: Queryable, documentId: string, cover: Cover | null): Promise<void> {
	await tx.update(document).set({ cover }).where(eq(document.id, documentId));
}

/** Lets documents go for good that were set aside longer ago than they can be restored; gives their ids. Addresses stay. */
export async function letGoOfAside(): Promise<string[]> {
	const rows = await sql()<{ id: string }[]>`
		update document set gone_at = now() where gone_at is null and set_aside_at < now() - make_interval(days => ${setAsideDays}) returning id`;
	return rows.map((row) => row.id);
}
