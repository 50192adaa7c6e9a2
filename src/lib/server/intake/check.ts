// The check of an edition, as a job: facts, cover, words, the copy for reading; then its condition. Done twice, it comes to the same.
import { eq, sql as raw } from 'drizzle-orm';
import { conditionOf, textLayer, type Condition, type Facts } from '#core/intake/condition';
import { tellEdition } from '../readership/deliveries';
import { db, sql } from '../db/client';
import { document, edition, editionPage } from '../db/schema';
import { putInForce, writeCover } from '../documents/commands';
import { exists, original } from '../store/store';
import type { FirstFacts } from '../pdf/facts';
import { packedPath } from '../pdf/derivatives';
import { runInWorker } from '../pdf/helpers';
import { withLock } from '../jobs/lock';

/** Rows of words sent to the database at once. */
const batch = 200;

/**
 * Checks an edition whose condition is `checking`; one that another server is at, or that is done, is left alone. `looked` is what
 * the first look at the file found, where that was just now.
 */
export async function checkEdition(id: string, looked: FirstFacts | null = null): Promise<void> {
	await withLock(`check ${id}`, async () => {
		const [row] = await db().select().from(edition).where(eq(edition.id, id));
		if (!row || row.condition !== 'checking') return;
		const path = await original(row.sha256);
		// an edition from before the last change of the check has facts of an older shape: its first facts are read anew
		const checked = await runInWorker('check', { path, sha256: row.sha256, version: row.facts.version, first: looked });
		if (checked.state !== 'read') {
			const locked = checked.state === 'locked';
			await write(row, { ...row.facts, pages: locked ? 0 : row.pages }, conditionOf(row.facts, { coverPage: null, textRead: false, locked }), [], false);
			return;
		}
		const { first, structure, coverPage, pages, textPages, whole, guessed, packed } = checked;
		const facts: Facts = { ...first, ...structure, guessed, textPages, text: textLayer(textPages, first.pages) };
		await write(row, facts, conditionOf(facts, { coverPage, textRead: whole }), pages, packed, coverPage);
		if (coverPage !== null) await writeOpening(row, packed);
	});
}

/** What its first page takes of the file, once the edition can be read: a file on which that cannot be found out is read without it. */
async function writeOpening({ id, sha256 }: Row, packed: boolean): Promise<void> {
	if (packed) await exists(packedPath(sha256));
	const opening = await runInWorker('opening', { sha256, packed }).catch(() => []);
	if (opening.length) await sql()`update edition set facts = facts || ${sql().json({ opening })} where id = ${id}`;
}

type Row = typeof edition.$inferSelect;

async function write(row: Row, facts: Facts, condition: Condition, pages: readonly string[], packed: boolean, coverPage: number | null = null): Promise<void> {
	await db().transaction(async (tx) => {
		const [parent] = await tx.select().from(document).where(eq(document.id, row.documentId)).for('update');
		if (!parent) return;
		await tx.delete(editionPage).where(eq(editionPage.editionId, row.id));
		const worded = pages.map((body, i) => ({ editionId: row.id, page: i + 1, body })).filter(({ body }) => body !== '');
		for (let first = 0; first < worded.length; first += batch) await tx.insert(editionPage).values(worded.slice(first, first + batch));
		await tx
			.update(edition)
			.set({
				facts,
				pages: facts.pages,
				condition: condition.status,
				findings: condition.findings,
				packed,
				pending: false,
				language: facts.language ?? facts.guessed
			})
			.where(eq(edition.id, row.id));
		if (coverPage !== null && coverPage !== 1 && parent.cover === null) await writeCover(tx, parent.id, { kind: 'page', page: coverPage });
		if (row.pending && condition.status !== 'refused') {
			// a cover from a page that the new edition does not have becomes its first
			if (parent.cover?.kind === 'page' && parent.cover.page > facts.pages) await writeCover(tx, parent.id, null);
			await putInForce(tx, parent.id, row.id);
		} else if (parent.editionId === row.id) {
			// makes the document's own words anew, now that the language is known
			await putInForce(tx, parent.id, row.id);
		}
		await tx.execute(raw`update intake set state = 'in', changed_at = now() where document_id = ${parent.id} and state = 'checking'`);
	});
	await tellEdition(row.id, 'condition-changed');
	if (row.pending && condition.status !== 'refused') await tellEdition(row.id, 'edition-in-force');
}

/** Editions whose check has not been done, the longest waiting first. */
export async function uncheckedEditions(): Promise<string[]> {
	const rows = await sql()<{ id: string }[]>`select id from edition where condition = 'checking' order by created_at limit 10000`;
	return rows.map((r) => r.id);
}
