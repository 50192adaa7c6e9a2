// A document exchanged for another wherever it stands on pages: in drafts, and in what is published, which gets a new revision.
import { eq } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import { exchanged } from '#core/placing/exchange';
import { db, sql } from '../db/client';
import { placement } from '../db/schema';
import { writeAudit } from '../site/audit';
import { changeContent } from './commands';
import type { Exchange, ExchangeAnswer } from './places-contract';

/** A document in use, with every address that it is placed by. */
async function placedAs(slug: string): Promise<{ id: string; slug: string; title: string; addresses: Set<string> }> {
	const [row] = await sql()<{ id: string; slug: string; title: string; addresses: string[] }[]>`
		select d.id, d.slug, d.title, array(select a.slug from document_address a where a.document_id = d.id) as addresses
		from document d where d.slug = ${slug} and d.set_aside_at is null`;
	if (!row) throw new IanuaError('document-unknown', { slug });
	return { ...row, addresses: new Set([row.slug, ...row.addresses]) };
}

/**
 * Puts a document in place of another on every page, or at the given places only; all of it or nothing. Doors stay as they are. Gives the
 * places, and the exchange that takes it back.
 */
export async function exchange(slug: string, given: Exchange, actor: string): Promise<ExchangeAnswer> {
	const [from, to] = [await placedAs(slug), await placedAs(given.with)];
	if (from.id === to.id) throw new IanuaError('not-valid', { detail: 'a document is not exchanged for itself' });
	const done: { page: string; placement: string; published: boolean }[] = [];
	await db().transaction(async (tx) => {
		const rows = await tx.selectDistinct({ page: placement.pageId }).from(placement).where(eq(placement.documentId, from.id)).orderBy(placement.pageId);
		for (const row of rows)
			await changeContent(
				tx,
				row.page,
				(layout, content, { path, published }) => {
					const named = given.only?.filter((place) => place.page === path && (place.published ?? published) === published);
					const { content: next, places } = exchanged(layout, content, from.addresses, to.slug, named && new Set(named.map((place) => place.placement)));
					done.push(...places.map((id) => ({ page: path, placement: id, published })));
					return next;
				},
				actor
			);
		if (done.length)
			await writeAudit(tx, {
				actor,
				action: 'exchanged',
				kind: 'document',
				thing: from.id,
				after: { with: to.slug, pages: [...new Set(done.map((p) => p.page))].join(', ') }
			});
	});
	// a place in the draft and in what is published is one
	const places = [...new Map(done.map(({ page, placement }) => [`${page} ${placement}`, { page, placement }])).values()];
	return { places, before: { document: to.slug, exchange: { with: from.slug, only: done } } };
}
