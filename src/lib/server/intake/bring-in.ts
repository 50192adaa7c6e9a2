// From a stream of bytes to a sound document, or to a sentence that says why not. Nothing half-made stays behind.
import { rm } from 'node:fs/promises';
import { open } from 'node:fs/promises';
import { eq, sql as raw } from 'drizzle-orm';
import { baseName, freeSlug, proposedTitle, slugOf } from '#core/documents/address';
import { sizeWords } from '#core/documents/size';
import { IanuaError } from '#core/errors';
import { conditionOf, type Condition, type Facts } from '#core/intake/condition';
import { headerWindow, kindOf, pdfVersion } from '#core/intake/header';
import { insertDoor } from '../access/things';
import { db } from '../db/client';
import { document, edition } from '../db/schema';
import { discard, keep, receive, TooLarge, type Received } from '../files/store';
import { newId } from '../id';
import { factsOf, passwordState } from '../pdf/facts';
import { coverFrom } from '../pdf/pictures';
import { settings } from '../settings';
import { writeAudit } from '../site/audit';

export interface BroughtIn {
	readonly id: string;
	readonly slug: string;
}

/** Receives, checks and keeps a file, and makes a document of it, shut. Throws an error of the catalogue otherwise. */
export async function bringIn(
	stream: AsyncIterable<Uint8Array>,
	given: { fileName: string; title?: string; folder?: string },
	actor: string | null
): Promise<BroughtIn> {
	const limit = settings().IANUA_MAX_UPLOAD;
	const name = baseName(given.fileName) || 'document.pdf';
	let received: Received;
	try {
		received = await receive(stream, limit);
	} catch (error) {
		if (error instanceof TooLarge) throw new IanuaError('file-too-large', { name, limit: sizeWords(limit) });
		throw error;
	}
	try {
		const { facts, condition } = await check(received, name);
		const known = await inUse(received.sha256);
		try {
			await keep(received);
			return await insertDocument(received, name, facts, condition, given, actor);
		} catch (error) {
			if (!known) await discard(received.sha256);
			throw error;
		}
	} finally {
		await rm(received.path, { force: true });
	}
}

async function inUse(sha256: string): Promise<boolean> {
	const [row] = await db().select({ id: edition.id }).from(edition).where(eq(edition.sha256, sha256)).limit(1);
	return row !== undefined;
}

/** The check: is it a PDF, can it be opened, what is in it, can its first page be drawn (which makes the covers). */
async function check(received: Received, name: string): Promise<{ facts: Facts; condition: Condition }> {
	if (received.bytes === 0) throw new IanuaError('file-empty', { name });
	const start = await startOf(received.path);
	const version = pdfVersion(start);
	if (version === null) throw new IanuaError('file-not-pdf', { name, kind: kindOf(start) });
	const password = await passwordState(received.path);
	if (password === 'needed') throw new IanuaError('file-locked', { name });
	const facts = await factsOf(received.path, version, password === 'opens');
	if (!facts) throw new IanuaError('file-damaged', { name });
	const known = await inUse(received.sha256);
	if (!(await coverFrom(received.path, received.sha256))) {
		if (!known) await discard(received.sha256);
		throw new IanuaError('file-damaged', { name });
	}
	return { facts, condition: conditionOf(facts) };
}

async function startOf(path: string): Promise<Uint8Array> {
	const file = await open(path, 'r');
	try {
		const { buffer, bytesRead } = await file.read(Buffer.alloc(headerWindow), 0, headerWindow, 0);
		return buffer.subarray(0, bytesRead);
	} finally {
		await file.close();
	}
}

async function insertDocument(
	received: Received,
	fileName: string,
	facts: Facts,
	condition: Condition,
	given: { title?: string; folder?: string },
	actor: string | null
): Promise<BroughtIn> {
	const title = given.title?.trim().slice(0, 200) || proposedTitle(facts.title, fileName);
	const wanted = slugOf(title);
	return db().transaction(async (tx) => {
		// one intake at a time looks for a free address, so that two of the same title do not meet
		await tx.execute(raw`select pg_advisory_xact_lock(4173003)`);
		const rows = (await tx.execute(
			raw`select slug from document where slug = ${wanted} or slug like ${wanted + '-%'} union select slug from document_address`
		)) as unknown as { slug: string }[];
		const slug = freeSlug(wanted, new Set(rows.map((r) => r.slug)));
		const [id, editionId] = [newId(), newId()];
		const doorId = await insertDoor(tx, actor);
		await tx.insert(document).values({ id, slug, title, folder: given.folder?.trim() ?? '', doorId, editionId, createdBy: actor });
		await tx.insert(edition).values({
			id: editionId,
			documentId: id,
			number: 1,
			sha256: received.sha256,
			bytes: received.bytes,
			fileName,
			pages: facts.pages,
			facts,
			condition: condition.status,
			findings: condition.findings,
			createdBy: actor
		});
		await writeAudit(tx, { actor, action: 'brought-in', kind: 'document', thing: id, after: { slug, title, fileName, sha256: received.sha256 } });
		return { id, slug };
	});
}
