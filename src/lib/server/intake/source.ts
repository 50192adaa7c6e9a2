// Documents from web addresses: our own copy, and a watch on where it came from.
import { and, desc, eq } from 'drizzle-orm';
import { rm } from 'node:fs/promises';
import { sizeWords } from '#core/documents/size';
import { IanuaError } from '#core/errors';
import { db, sql } from '../db/client';
import { document, edition, source } from '../db/schema';
import { changeDocument } from '../documents/change';
import { receive, TooLarge, type Received } from '../store/store';
import { withLock } from '../jobs/lock';
import { log } from '../log';
import { tellSource } from '../readership/deliveries';
import { settings } from '../settings';
import { bringIn, type BroughtIn, type Given } from './bring-in';
import { fetchFile, type Fetched } from './fetch';

async function receiveFrom(fetched: Fetched): Promise<Received> {
	const limit = settings().IANUA_MAX_UPLOAD;
	try {
		// an answer of 200 has a stream
		return await receive(fetched.stream!, limit);
	} catch (error) {
		if (error instanceof TooLarge) throw new IanuaError('file-too-large', { name: fetched.fileName, limit: sizeWords(limit) });
		throw error;
	}
}

/** Fetches a PDF from a web address and makes a document of it. */
export async function bringInFromWeb(
	given: { url: string; watch?: boolean } & Pick<Given, 'title' | 'folder' | 'unchecked'>,
	actor: string
): Promise<BroughtIn> {
	const fetched = await fetchFile(given.url);
	const received = await receiveFrom(fetched);
	const { sha256 } = received;
	const made = await bringIn(
		received,
		{ fileName: fetched.fileName, title: given.title, folder: given.folder, unchecked: given.unchecked, origin: 'web' },
		actor
	);
	await db()
		.insert(source)
		.values({ documentId: made.id, url: given.url.trim(), watch: given.watch ?? false, etag: fetched.etag, lastModified: fetched.lastModified, sha256 });
	return made;
}

async function sourceOf(slug: string) {
	const [row] = await db().select({ source }).from(source).innerJoin(document, eq(document.id, source.documentId)).where(eq(document.slug, slug));
	if (!row) throw new IanuaError('no-source');
	return row.source;
}

/** Whether a document’s source on the web is looked at again. Throws `no-source`. */
export async function setWatch(slug: string, watch: boolean): Promise<void> {
	const { documentId } = await sourceOf(slug);
	await db().update(source).set({ watch }).where(eq(source.documentId, documentId));
}

/** Compares a document's web address with what was fetched: by ETag and Last-Modified where it gives them, else by checksum. */
export async function compareSource(slug: string): Promise<void> {
	const row = await sourceOf(slug);
	const set = async (values: Partial<typeof source.$inferInsert>) => {
		await db()
			.update(source)
			.set({ checkedAt: new Date(), note: '', ...values })
			.where(eq(source.documentId, row.documentId));
		const other = values.state !== undefined && values.state !== row.state;
		if (other || (values.offered && values.offered !== row.offered)) await tellSource(row.documentId);
	};
	try {
		const fetched = await fetchFile(row.url, row);
		if (fetched.status === 304) {
			await set(row.offered ? {} : { state: 'same' });
			return;
		}
		const received = await receiveFrom(fetched);
		await rm(received.path, { force: true });
		const { etag, lastModified } = fetched;
		if (received.sha256 === row.sha256 || received.sha256 === row.leftAlone) await set({ state: 'same', offered: null, etag, lastModified });
		else
			await set({ state: 'changed', offered: received.sha256, note: `The file there is another one now, ${sizeWords(received.bytes)}.`, etag, lastModified });
	} catch (error) {
		if (!(error instanceof IanuaError)) throw error;
		await set({ state: error.code === 'web-gone' ? 'gone' : 'unreachable', note: error.message });
	}
}

/** The edition that has these bytes; null where the document has none. */
async function editionWith(documentId: string, sha256: string) {
	const [row] = await db()
		.select({ id: edition.id, number: edition.number })
		.from(edition)
		.where(and(eq(edition.documentId, documentId), eq(edition.sha256, sha256)))
		.orderBy(desc(edition.number))
		.limit(1);
	return row ?? null;
}

/**
 * Brings the changed file in beside the edition in force, so that both can be compared before it is taken; gives its edition's id. What is offered
 * is from then on the file that was fetched now; one that is here already is not brought in twice.
 */
export async function bringBeside(slug: string, actor: string): Promise<string> {
	const row = await sourceOf(slug);
	const fetched = await fetchFile(row.url);
	const received = await receiveFrom(fetched);
	const { sha256 } = received;
	const there = await editionWith(row.documentId, sha256);
	if (there) await rm(received.path, { force: true });
	const id = there ? there.id : (await bringIn(received, { fileName: fetched.fileName, editionOf: slug, origin: 'web', beside: true }, actor)).edition;
	const state = sha256 === row.sha256 ? { state: 'same' as const, note: '', offered: null } : { state: 'changed' as const, offered: sha256 };
	await db()
		.update(source)
		.set({ ...state, etag: fetched.etag, lastModified: fetched.lastModified, checkedAt: new Date() })
		.where(eq(source.documentId, row.documentId));
	return id;
}

/** Takes the changed file as a new edition: the one that was brought in beside, where it was; else as it is there now. Gives its id. */
export async function takeChanged(slug: string, actor: string): Promise<string> {
	const row = await sourceOf(slug);
	const taken = (values: Partial<typeof source.$inferInsert>) =>
		db()
			.update(source)
			.set({ state: 'same', note: '', offered: null, leftAlone: null, ...values })
			.where(eq(source.documentId, row.documentId));
	const beside = row.offered === null ? null : await editionWith(row.documentId, row.offered);
	if (row.offered !== null && beside) {
		await changeDocument(slug, { edition: beside.number }, actor);
		await taken({ sha256: row.offered });
		return beside.id;
	}
	const fetched = await fetchFile(row.url);
	const received = await receiveFrom(fetched);
	const { sha256 } = received;
	const made = await bringIn(received, { fileName: fetched.fileName, editionOf: slug, origin: 'web' }, actor);
	await taken({ sha256, etag: fetched.etag, lastModified: fetched.lastModified, checkedAt: new Date() });
	return made.edition;
}

/** Leaves the changed file alone: it is not offered again, the next change is. */
export async function leaveAlone(slug: string): Promise<void> {
	const row = await sourceOf(slug);
	await db().update(source).set({ state: 'same', note: '', leftAlone: row.offered, offered: null }).where(eq(source.documentId, row.documentId));
}

/** Compares every watched address, one after the other; a job by the clock. */
export async function watchSources(): Promise<void> {
	await withLock('watch', async () => {
		const rows = await sql()<{ slug: string }[]>`
			select d.slug from source s join document d on d.id = s.document_id where s.watch and d.set_aside_at is null order by s.checked_at`;
		for (const { slug } of rows) await compareSource(slug).catch((err: unknown) => log().warn({ err, slug }, 'watch'));
	});
}
