// Changes to documents: words, address, folder, topics, cover, door, edition in force, set aside and restored. One or many at once,
// each with the audit trail in the same transaction.
import { and, eq, sql as raw } from 'drizzle-orm';
import { Type, type Static } from '@sinclair/typebox';
import { Line } from '#core/text/line';
import { DoorChange } from '#core/access/door';
import { restorableUntil } from '#core/documents/aside';
import { notInForceYet } from '#core/documents/edition';
import { slugMax, slugPattern } from '#core/documents/address';
import type { Cover } from '#core/documents/cover';
import { IanuaError } from '#core/errors';
import { FieldsChange, withFields, type FieldValues } from '#core/documents/fields';
import { ReadingSettings } from '#core/reading/settings';
import { receiptAsks } from '#core/readership/receipt';
import { nullable, oneOf } from '#core/schema';
import { changeDoor } from '../access/doors';
import { db, type Queryable } from '../db/client';
import { theRow } from '../db/rows';
import { document, documentAddress, edition } from '../db/schema';
import { emailOf, staffIdOf } from '../people/directory';
import { putInForce, writeCover } from './commands';
import { named, writeAudit } from '../site/audit';
import { site } from '../site/site';

const Review = Type.Object(
	{ on: Type.String({ format: 'date' }), by: Type.Optional(Type.Union([Type.Null(), Type.String({ maxLength: 320 })])) },
	{ additionalProperties: false }
);

/** A change to a document: only what is named changes. */
export const DocumentChange = Type.Object(
	{
		title: Type.Optional(Line(200)),
		description: Type.Optional(Type.String({ maxLength: 4000 })),
		slug: Type.Optional(Type.String({ pattern: slugPattern, maxLength: slugMax })),
		folder: Type.Optional(Type.String({ maxLength: 200 })),
		topics: Type.Optional(Type.Array(Line(80), { maxItems: 50 })),
		fields: Type.Optional(FieldsChange),
		/** The day by which somebody should look at it again, and who of the staff, by e-mail address; null for none. */
		review: Type.Optional(Type.Union([Type.Null(), Review])),
		/** BCP 47; null goes by the file and its words. */
		language: Type.Optional(Type.Union([Type.String({ pattern: '^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$' }), Type.Null()])),
		coverAlt: Type.Optional(Type.String({ maxLength: 500 })),
		/** Page of the edition in force that the cover shows; null is page 1. Pictures and icons are sent to …/cover. */
		coverPage: Type.Optional(Type.Union([Type.Integer({ minimum: 1 }), Type.Null()])),
		/** How it is read, where that differs from what the site says; null is as the site says. */
		reading: Type.Optional(Type.Union([ReadingSettings, Type.Null()])),
		/** When its readers are asked to say that they have read it: once, or again for each edition; null asks nobody. */
		receipt: Type.Optional(nullable(oneOf(receiptAsks))),
		/** Number of the edition to put in force. */
		edition: Type.Optional(Type.Integer({ minimum: 1 })),
		door: Type.Optional(DoorChange)
	},
	{ additionalProperties: false }
);
export type DocumentChange = Static<typeof DocumentChange>;

type DocumentRow = typeof document.$inferSelect;

async function locked(tx: Queryable, slug: string): Promise<DocumentRow> {
	const [row] = await tx.select().from(document).where(eq(document.slug, slug)).for('update');
	if (!row || row.goneAt) throw new IanuaError('not-found');
	return row;
}

/** Names as they are kept: trimmed, inner spaces single, no empty ones, none twice. */
const tidied = (names: readonly string[]) => [...new Set(names.map((n) => n.trim().replace(/\s+/g, ' ')).filter((n) => n !== ''))];

/** What a change gives: the address afterwards, and the change that puts back what was. */
export interface Changed {
	readonly slug: string;
	readonly before: DocumentChange;
}

/** Changes a document, its door included, in one transaction with the audit trail. */
export async function changeDocument(slug: string, change: DocumentChange, actor: string): Promise<Changed> {
	return db().transaction(async (tx) => applyChange(tx, await locked(tx, slug), change, actor));
}

/** The same inside a transaction: with whatever else is done in it, or not at all. */
export const changeDocumentIn = async (tx: Queryable, slug: string, change: DocumentChange, actor: string | null): Promise<Changed> =>
	applyChange(tx, await locked(tx, slug), change, actor);

async function applyChange(tx: Queryable, row: DocumentRow, change: DocumentChange, actor: string | null): Promise<Changed> {
	const { door, coverPage, edition: number, topics, fields, review, folder, title, ...own } = change;
	const was = await whatWas(tx, row, change);
	if (own.slug && own.slug !== row.slug) await moveAddress(tx, row, own.slug);
	const next: Partial<DocumentRow> = {
		...own,
		...(title !== undefined ? { title: title.trim() } : {}),
		...(folder !== undefined ? { folder: folder.trim().replace(/\s+/g, ' ') } : {}),
		...(topics ? { topics: tidied(topics) } : {}),
		...(fields ? { fields: await fieldsOf(tx, row, fields) } : {}),
		...(review === undefined ? {} : { reviewOn: review?.on ?? null, reviewBy: review?.by ? await staffIdOf(tx, review.by) : null }),
		...(coverPage !== undefined ? { cover: await pageCover(tx, row, coverPage) } : {})
	};
	const names = Object.keys(next) as (keyof DocumentRow)[];
	if (names.length) {
		await tx.update(document).set(next).where(eq(document.id, row.id));
		// the stemming of its pages goes with the language
		if (next.language !== undefined) await tx.execute(raw`select find_pages(${row.id})`);
		await writeAudit(tx, {
			actor,
			action: 'changed',
			kind: 'document',
			thing: row.id,
			before: Object.fromEntries(names.map((n) => [n, row[n]])),
			after: next
		});
	}
	if (number !== undefined) await goTo(tx, row, number, actor);
	const doorWas = door && (await changeDoor(tx, row.doorId, door, { actor, kind: 'document', thing: row.id }));
	return { slug: own.slug ?? row.slug, before: { ...was, ...(doorWas ? { door: doorWas } : {}) } };
}

/** What a change is about to replace beside the door, in the words of a change. A cover that is no page has none. */
async function whatWas(
	tx: Queryable,
	row: DocumentRow,
	{ door: _door, edition: number, coverPage, fields, review, ...own }: DocumentChange
): Promise<DocumentChange> {
	const [inForce] = number === undefined ? [] : await tx.select({ number: edition.number }).from(edition).where(eq(edition.id, row.editionId));
	const names = Object.keys(own) as (keyof typeof own)[];
	return {
		...(Object.fromEntries(names.map((name) => [name, row[name]])) as DocumentChange),
		...(fields ? { fields: named(row.fields, fields) } : {}),
		...(review === undefined ? {} : { review: row.reviewOn ? { on: row.reviewOn, by: row.reviewBy && (await emailOf(tx, row.reviewBy)) } : null }),
		...(inForce ? { edition: inForce.number } : {}),
		...(coverPage !== undefined && (row.cover === null || row.cover.kind === 'page') ? { coverPage: row.cover?.page ?? null } : {})
	};
}

/** What a document says in its fields once a change is made. */
async function fieldsOf(tx: Queryable, row: DocumentRow, change: FieldsChange): Promise<FieldValues> {
	const { fields = [] } = await site();
	// a choice that is no longer offered: the trail knows whether it stood here
	const gone = fields.some(({ name, kind, choices }) => kind === 'choice' && typeof change[name] === 'string' && !choices?.includes(change[name]));
	const trail = gone
		? await tx.execute<{ fields: FieldValues }>(raw`select distinct before->'fields' as fields from audit where thing = ${row.id} and before ? 'fields'`)
		: [];
	try {
		return withFields(fields, row.fields, change, (name) => trail.flatMap((entry) => entry.fields[name] ?? []));
	} catch (error) {
		if (error instanceof RangeError) throw new IanuaError('not-valid', { detail: error.message });
		throw error;
	}
}

async function moveAddress(tx: Queryable, row: DocumentRow, slug: string): Promise<void> {
	const taken = await tx.execute(
		raw`select 1 from document where slug = ${slug} union all select 1 from document_address where slug = ${slug} and document_id <> ${row.id}`
	);
	if (taken.length) throw new IanuaError('address-taken', { slug });
	await tx.delete(documentAddress).where(eq(documentAddress.slug, slug));
	// the former address leads here for good
	await tx.insert(documentAddress).values({ slug: row.slug, documentId: row.id }).onConflictDoNothing();
}

async function pageCover(tx: Queryable, row: DocumentRow, page: number | null): Promise<Cover | null> {
	if (page === null) return null;
	const inForce = theRow(await tx.select({ pages: edition.pages }).from(edition).where(eq(edition.id, row.editionId)));
	if (page > inForce.pages) throw new IanuaError('not-valid', { detail: `the document has ${inForce.pages} pages` });
	return { kind: 'page', page };
}

/** Puts an edition in force, a former or a newer one. Address, door, placements and history stay. */
async function goTo(tx: Queryable, row: DocumentRow, number: number, actor: string | null): Promise<void> {
	const [to] = await tx
		.select()
		.from(edition)
		.where(and(eq(edition.documentId, row.id), eq(edition.number, number)));
	if (!to) throw new IanuaError('edition-unknown', { number: String(number) });
	const trouble = notInForceYet(to.condition);
	if (trouble) throw new IanuaError(trouble, { number: String(number) });
	if (to.id === row.editionId) return;
	if (row.cover?.kind === 'page' && row.cover.page > to.pages) await writeCover(tx, row.id, null);
	await putInForce(tx, row.id, to.id);
	const [from] = await tx.select({ number: edition.number }).from(edition).where(eq(edition.id, row.editionId));
	await writeAudit(tx, { actor, action: 'edition-put-in', kind: 'document', thing: row.id, before: { edition: from?.number }, after: { edition: number } });
}

/** Sets what a cover shows to a picture or icon that lies in the store. */
export async function setCover(slug: string, cover: Cover, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		const row = await locked(tx, slug);
		await writeCover(tx, row.id, cover);
		await writeAudit(tx, { actor, action: 'changed', kind: 'document', thing: row.id, before: { cover: row.cover }, after: { cover } });
	});
}

/** Sets a document aside: nobody but staff sees it, and for 30 days it can be restored as it was. */
export async function setAside(slug: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => applyAside(tx, await locked(tx, slug), actor));
}

async function applyAside(tx: Queryable, row: DocumentRow, actor: string): Promise<void> {
	if (row.setAsideAt) return;
	await tx.update(document).set({ setAsideAt: new Date(), setAsideBy: actor }).where(eq(document.id, row.id));
	await writeAudit(tx, { actor, action: 'set-aside', kind: 'document', thing: row.id, before: { slug: row.slug, title: row.title } });
}

/** Brings back what was set aside. Throws `restore-too-late` after 30 days. */
export async function restore(slug: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		const [row] = await tx.select().from(document).where(eq(document.slug, slug)).for('update');
		if (!row) throw new IanuaError('not-found');
		await applyRestore(tx, row, actor);
	});
}

async function applyRestore(tx: Queryable, row: DocumentRow, actor: string): Promise<void> {
	if (!row.setAsideAt) return;
	if (row.goneAt || Date.now() > restorableUntil(row.setAsideAt.getTime())) throw new IanuaError('restore-too-late');
	await tx.update(document).set({ setAsideAt: null, setAsideBy: null }).where(eq(document.id, row.id));
	await writeAudit(tx, { actor, action: 'restored', kind: 'document', thing: row.id, after: { slug: row.slug, title: row.title } });
}

/** One change to many documents. `documents` names each by its address; a change of its own goes with `each`. */
export const BulkChange = Type.Object(
	{
		documents: Type.Array(Type.String({ pattern: slugPattern, maxLength: slugMax }), { minItems: 1, maxItems: 1000 }),
		folder: Type.Optional(Type.String({ maxLength: 200 })),
		addTopics: Type.Optional(Type.Array(Line(80), { maxItems: 50 })),
		removeTopics: Type.Optional(Type.Array(Type.String({ minLength: 1, maxLength: 80 }), { maxItems: 50 })),
		fields: Type.Optional(FieldsChange),
		receipt: Type.Optional(nullable(oneOf(receiptAsks))),
		door: Type.Optional(DoorChange),
		aside: Type.Optional(Type.Boolean()),
		/** Where readers of published pages would be turned away, nothing is done and the places are told. */
		ask: Type.Optional(Type.Boolean())
	},
	{ additionalProperties: false }
);
export type BulkChange = Static<typeof BulkChange>;

/** What puts each of the documents back as it was before a bulk change. */
export type BulkUndo = { readonly slug: string; readonly change: DocumentChange; readonly aside?: boolean }[];

/** Changes many documents in one transaction: all of them or, where one refuses, none. Gives what undoes it. */
export async function changeMany(change: BulkChange, actor: string): Promise<BulkUndo> {
	return db().transaction(async (tx) => {
		const undo: BulkUndo = [];
		// in one order, so that two such changes at once do not wait for each other
		for (const slug of [...new Set(change.documents)].sort()) {
			const row = await locked(tx, slug);
			const next: DocumentChange = {
				...(change.folder === undefined ? {} : { folder: change.folder }),
				...(change.addTopics || change.removeTopics
					? { topics: tidied([...row.topics.filter((t) => !change.removeTopics?.includes(t)), ...(change.addTopics ?? [])]) }
					: {}),
				...(change.fields ? { fields: change.fields } : {}),
				...(change.receipt === undefined ? {} : { receipt: change.receipt }),
				...(change.door ? { door: change.door } : {})
			};
			const { before } = Object.keys(next).length ? await applyChange(tx, row, next, actor) : { before: {} };
			if (change.aside === true) await applyAside(tx, row, actor);
			if (change.aside === false) await applyRestore(tx, row, actor);
			undo.push({ slug, change: before, ...(change.aside !== undefined && change.aside !== (row.setAsideAt !== null) ? { aside: !change.aside } : {}) });
		}
		return undo;
	});
}

/** A change of its own for each of some documents, in one transaction. Gives what undoes it. */
export async function changeEach(changes: readonly { slug: string; change: DocumentChange }[], actor: string): Promise<BulkUndo> {
	return db().transaction(async (tx) => {
		const undo: BulkUndo = [];
		for (const { slug, change } of [...changes].sort((a, b) => (a.slug < b.slug ? -1 : 1)))
			undo.push({ slug, change: (await applyChange(tx, await locked(tx, slug), change, actor)).before });
		return undo;
	});
}

/** Puts documents back as `changeMany` found them, in one transaction. */
export async function undoMany(undo: BulkUndo, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		for (const { slug, change, aside } of [...undo].sort((a, b) => (a.slug < b.slug ? -1 : 1))) {
			const row = await locked(tx, slug);
			if (aside === true) await applyAside(tx, row, actor);
			if (aside === false) await applyRestore(tx, row, actor);
			if (Object.keys(change).length) await applyChange(tx, row, change, actor);
		}
	});
}

/** Renames a folder or topic wherever it stands; to an empty name, takes it away. Gives how many documents changed. */
export async function renameLabel(kind: 'folder' | 'topic', from: string, to: string, actor: string): Promise<number> {
	const name = to.trim().replace(/\s+/g, ' ');
	return db().transaction(async (tx) => {
		const rows = await tx
			.select()
			.from(document)
			.where(kind === 'folder' ? eq(document.folder, from) : raw`${document.topics} @> array[${from}]::text[]`)
			.orderBy(document.slug)
			.for('update');
		for (const row of rows) {
			const change: DocumentChange = kind === 'folder' ? { folder: name } : { topics: tidied(row.topics.map((t) => (t === from ? name : t))) };
			await applyChange(tx, row, change, actor);
		}
		return rows.length;
	});
}
