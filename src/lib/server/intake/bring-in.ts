// From a file that has arrived to a document, or a new edition of one: the first look, the store, the rows. The check follows as a job.
import { rm } from 'node:fs/promises';
import { and, eq, max } from 'drizzle-orm';
import { baseName, proposedTitle } from '#core/documents/address';
import { sizeWords } from '#core/documents/size';
import { IanuaError } from '#core/errors';
import type { Facts } from '#core/intake/condition';
import { db, sql, type Queryable } from '../db/client';
import { document, edition, picture, source } from '../db/schema';
import { insertDocument } from '../documents/commands';
import { keep, putBy, receive, TooLarge, type Received } from '../store/store';
import { newId } from '../id';
import { queueJob } from '../jobs/boss';
import { settings } from '../settings';
import { runInWorker } from '../pdf/helpers';
import { writeAudit } from '../site/audit';
import type { Looked } from '../pdf/look';

export type Origin = (typeof edition.$inferSelect)['origin'];

export interface Given {
	readonly fileName: string;
	readonly title?: string;
	readonly folder?: string;
	/** The document it is to be a new edition of, by its address. */
	readonly editionOf?: string;
	readonly origin?: Origin;
	/** As an edition that does not come into force by itself. */
	readonly beside?: boolean;
	/** Leave the check to the caller, who queues or does it. */
	readonly unchecked?: boolean;
}

export interface BroughtIn {
	/** The document's id and address, and the edition that the file became. */
	readonly id: string;
	readonly slug: string;
	readonly edition: string;
	/** What the first look found; null where the file is locked. */
	readonly first: Facts | null;
}

/**
 * Receives a stream and brings it in; `given` is asked once all of it is here, and may refuse it. Throws an error of the catalogue where
 * it is refused; nothing of it stays behind then.
 */
export async function bringInStream(
	stream: AsyncIterable<Uint8Array>,
	fileName: string,
	actor: string | null,
	given: () => Omit<Given, 'fileName'>
): Promise<BroughtIn> {
	const limit = settings().IANUA_MAX_UPLOAD;
	let received: Received;
	try {
		received = await receive(stream, limit);
	} catch (error) {
		if (error instanceof TooLarge) throw new IanuaError('file-too-large', { name: baseName(fileName) || 'document.pdf', limit: sizeWords(limit) });
		throw noRoom(error);
	}
	let asked: Omit<Given, 'fileName'>;
	try {
		asked = given();
	} catch (error) {
		await rm(received.path, { force: true });
		throw error;
	}
	return bringIn(received, { ...asked, fileName }, actor);
}

/** A full disk in the words of the catalogue. */
export const noRoom = (error: unknown): unknown => (['ENOSPC', 'EDQUOT'].includes((error as { code?: string }).code ?? '') ? new IanuaError('no-room') : error);

/** Brings in a file that has arrived whole at a temporary path, which it takes over. `looked` is the first look, where it was taken already. */
export async function bringIn(received: Received, given: Given, actor: string | null, looked?: Looked): Promise<BroughtIn> {
	const name = baseName(given.fileName) || 'document.pdf';
	try {
		const { facts, locked } = looked ?? (await runInWorker('look', { path: received.path, bytes: received.bytes, name }));
		if (locked && given.editionOf) throw new IanuaError('file-locked', { name });
		const known = await inUse(received.sha256);
		let made: Omit<BroughtIn, 'first'>;
		try {
			await keep(received);
			made = await (given.editionOf ? insertEdition(received, name, facts, given, actor) : newDocument(received, name, facts, given, actor));
		} catch (error) {
			if (!known && !(await inUse(received.sha256))) await putBy(received.sha256, Date.now());
			throw noRoom(error);
		}
		if (!given.unchecked) await queueJob('check', { edition: made.edition }, made.edition);
		return { ...made, first: locked ? null : facts };
	} finally {
		await rm(received.path, { force: true });
	}
}

async function inUse(sha256: string): Promise<boolean> {
	const [row] = await db().select({ id: edition.id }).from(edition).where(eq(edition.sha256, sha256)).limit(1);
	return row !== undefined;
}

const editionRow = (received: Received, fileName: string, facts: Facts, given: Given, actor: string | null) => ({
	sha256: received.sha256,
	bytes: received.bytes,
	fileName,
	pages: facts.pages,
	facts,
	condition: 'checking' as const,
	findings: [],
	origin: given.origin ?? ('upload' as const),
	createdBy: actor
});

async function newDocument(received: Received, fileName: string, facts: Facts, given: Given, actor: string | null): Promise<Omit<BroughtIn, 'first'>> {
	const title = given.title?.trim().slice(0, 200) || proposedTitle(facts.title, fileName);
	return db().transaction(async (tx) => {
		const editionId = newId();
		const { id, slug } = await insertDocument(tx, { title, folder: given.folder?.trim() ?? '', editionId }, actor);
		await tx.insert(edition).values({ id: editionId, documentId: id, number: 1, ...editionRow(received, fileName, facts, given, actor) });
		await writeAudit(tx, { actor, action: 'brought-in', kind: 'document', thing: id, after: { slug, title, fileName, sha256: received.sha256 } });
		return { id, slug, edition: editionId };
	});
}

/** The new edition comes into force when its check is done, if at all: readers never meet one without cover and condition. */
async function insertEdition(received: Received, fileName: string, facts: Facts, given: Given, actor: string | null): Promise<Omit<BroughtIn, 'first'>> {
	return db().transaction(async (tx) => {
		const [target] = await tx
			.select({ id: document.id, slug: document.slug, current: document.editionId })
			.from(document)
			// only what comes as an edition gets here
			.where(eq(document.slug, given.editionOf!))
			.for('update');
		// as above
		if (!target) throw new IanuaError('document-unknown', { slug: given.editionOf! });
		const [same] = await tx
			.select({ id: edition.id })
			.from(edition)
			.where(and(eq(edition.id, target.current), eq(edition.sha256, received.sha256)));
		if (same) throw new IanuaError('same-edition', { name: fileName });
		const id = newId();
		const [last] = await tx
			.select({ n: max(edition.number) })
			.from(edition)
			.where(eq(edition.documentId, target.id));
		await tx
			.insert(edition)
			.values({ id, documentId: target.id, number: (last?.n ?? 0) + 1, pending: !given.beside, ...editionRow(received, fileName, facts, given, actor) });
		await writeAudit(tx, {
			actor,
			action: 'edition-added',
			kind: 'document',
			thing: target.id,
			after: { fileName, sha256: received.sha256, origin: given.origin ?? 'upload', ...(given.beside ? { inForce: false } : {}) }
		});
		return { id: target.id, slug: target.slug, edition: id };
	});
}

/** An edition as it was on another site, its file in the store already; `first` is what the first look finds of it. */
export interface EditionTakenIn {
	readonly id: string;
	readonly number: number;
	readonly fileName: string;
	readonly sha256: string;
	readonly bytes: number;
	readonly origin: Origin;
	readonly createdAt: Date;
	readonly first: Facts;
}

/** Takes editions of a document in, in the transaction that makes it. Their checks are the caller's to queue, once that is done. */
export async function takeInEditions(tx: Queryable, documentId: string, editions: readonly EditionTakenIn[]): Promise<void> {
	await tx.insert(edition).values(
		editions.map(({ first, ...rest }) => ({
			...rest,
			documentId,
			pages: first.pages,
			facts: first,
			condition: 'checking' as const,
			findings: [],
			createdBy: null
		}))
	);
}

/** Pictures that the store has already. */
export async function takeInPictures(tx: Queryable, pictures: readonly { sha256: string; width: number; height: number }[]): Promise<void> {
	if (pictures.length)
		await tx
			.insert(picture)
			.values([...pictures])
			.onConflictDoNothing();
}

/** The web address that a document came from, whose file in force is what was fetched there. */
export async function takeInSource(tx: Queryable, documentId: string, given: { url: string; watch: boolean; sha256: string }): Promise<void> {
	await tx.insert(source).values({ documentId, ...given });
}

/** Waits until an edition's check is done, at most `ms`. */
export async function checkDone(editionId: string, ms: number): Promise<void> {
	const until = Date.now() + ms;
	for (let pause = 40; Date.now() < until; pause = Math.min(400, pause * 1.3)) {
		const [row] = await sql()<{ condition: string }[]>`select condition from edition where id = ${editionId}`;
		if (row?.condition !== 'checking') return;
		await new Promise((go) => setTimeout(go, pause));
	}
}
