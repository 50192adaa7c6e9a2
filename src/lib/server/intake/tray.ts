// Files on their way in, as the tray shows them: they outlast a reload, and the server that took them.
import { and, eq, inArray, lt, sql as raw } from 'drizzle-orm';
import { baseName } from '#core/documents/address';
import { IanuaError, wordsOf as troubleWords, type ErrorCode } from '#core/errors';
import { db, sql } from '../db/client';
import { document, intake } from '../db/schema';
import { uploads } from '../store/uploads';
import { withLock } from '../jobs/lock';
import { log } from '../log';
import { runInWorker } from '../pdf/helpers';
import { bringIn, type BroughtIn } from './bring-in';

export interface TrayLine {
	readonly id: string;
	readonly name: string;
	readonly bytes: number;
	readonly state: 'uploading' | 'checking' | 'in' | 'refused' | 'stopped';
	/** Bytes that have arrived. */
	readonly arrived: number;
	/** Why it was refused, and what to do. */
	readonly trouble: { readonly code: string; readonly text: string } | null;
	readonly document: { readonly slug: string; readonly title: string; readonly condition: string } | null;
	readonly edition: boolean;
	readonly at: string;
}

interface Row {
	id: string;
	file_name: string;
	bytes: string;
	state: TrayLine['state'];
	trouble: { code: ErrorCode; facts: Record<string, string> } | null;
	edition_of: string | null;
	slug: string | null;
	title: string | null;
	condition: string | null;
	created_at: Date;
}

/** Finished files stay in the tray for a day, unless cleared; those not yet in until they are. */
export async function trayOf(personId: string, ids?: readonly string[]): Promise<TrayLine[]> {
	const s = sql();
	const rows = await s<Row[]>`
		select i.id, i.file_name, i.bytes, i.state, i.trouble, i.edition_of, i.created_at, d.slug, d.title,
			(select e.condition from edition e where e.document_id = d.id order by e.number desc limit 1) as condition
		from intake i left join document d on d.id = i.document_id
		where i.person_id = ${personId} and not i.cleared and (i.state in ('uploading', 'checking') or i.changed_at > now() - interval '1 day')
			${ids ? s`and i.id in ${s(ids.length ? [...ids] : ['00000000-0000-0000-0000-000000000000'])}` : s``}
		order by i.created_at, i.id limit 2000`;
	return Promise.all(
		rows.map(async (row) => ({
			id: row.id,
			name: row.file_name,
			bytes: Number(row.bytes),
			state: row.state,
			arrived: row.state === 'uploading' ? await uploads().offset(row.id) : Number(row.bytes),
			trouble: row.trouble ? { code: row.trouble.code, text: troubleWords(row.trouble.code, row.trouble.facts) } : null,
			// with its slug a document's row is there, and all of it
			document: row.slug ? { slug: row.slug, title: row.title!, condition: row.condition! } : null,
			edition: row.edition_of !== null,
			at: row.created_at.toISOString()
		}))
	);
}

export interface NewIntake {
	readonly id: string;
	readonly personId: string;
	readonly fileName: string;
	readonly bytes: number;
	readonly folder?: string;
	/** Address of the document it is to be an edition of. */
	readonly editionOf?: string;
}

/** Puts a file into the tray before its first byte has arrived. Throws `upload-begun` where there is one of that id. */
export async function beginIntake(given: NewIntake): Promise<void> {
	let editionOf: string | null = null;
	if (given.editionOf) {
		const [target] = await db().select({ id: document.id }).from(document).where(eq(document.slug, given.editionOf));
		if (!target) throw new IanuaError('document-unknown', { slug: given.editionOf });
		editionOf = target.id;
	}
	const begun = await db()
		.insert(intake)
		.values({
			id: given.id,
			personId: given.personId,
			fileName: baseName(given.fileName) || 'document.pdf',
			bytes: given.bytes,
			state: 'uploading',
			folder: (given.folder ?? '').trim().slice(0, 200),
			editionOf
		})
		.onConflictDoNothing()
		.returning({ id: intake.id });
	if (!begun.length) throw new IanuaError('upload-begun');
}

/** Whose upload it is, and whether it goes on; null where there is none. */
export async function intakeOf(id: string): Promise<{ personId: string; state: TrayLine['state'] } | null> {
	const [row] = await db().select({ personId: intake.personId, state: intake.state }).from(intake).where(eq(intake.id, id));
	return row ?? null;
}

/** Gives a request the right to write to an upload for `ms`; where another has it, asks that one to step down, and gives false. */
export async function holdIntake(id: string, writer: string, ms: number): Promise<boolean> {
	const rows = await sql()`
		update intake set writer = ${writer}, writer_until = now() + make_interval(secs => ${ms / 1000}), writer_asked = false, changed_at = now()
		where id = ${id} and (writer is null or writer_until < now()) returning 1`;
	if (!rows.length) await sql()`update intake set writer_asked = true where id = ${id} and not writer_asked`;
	return rows.length > 0;
}

/** Gives a request the right to write for `ms` more; false where another has it meanwhile, or has asked for it. */
export async function holdOn(id: string, writer: string, ms: number): Promise<boolean> {
	const rows = await sql()<{ writer_asked: boolean }[]>`
		update intake set writer_until = now() + make_interval(secs => ${ms / 1000}), changed_at = now()
		where id = ${id} and writer = ${writer} returning writer_asked`;
	return rows[0]?.writer_asked === false;
}

/** Gives an arriving file that this writer held free for others. */
export async function releaseIntake(id: string, writer: string): Promise<void> {
	await sql()`update intake set writer = null, writer_until = null where id = ${id} and writer = ${writer}`;
}

/** All bytes are here and on disk. The file is taken in by a job. */
export async function arrived(id: string): Promise<void> {
	await db()
		.update(intake)
		.set({ state: 'checking', changedAt: new Date() })
		.where(and(eq(intake.id, id), eq(intake.state, 'uploading')));
}

/** Makes a document or edition of a file that has arrived; refuses it in words otherwise. Done twice, it does nothing the second time. */
export async function takeIn(id: string): Promise<BroughtIn | null> {
	let made: BroughtIn | null = null;
	await withLock(`intake ${id}`, async () => {
		const [row] = await db().select().from(intake).where(eq(intake.id, id));
		if (!row || row.state !== 'checking' || row.documentId) return;
		try {
			const path = await uploads().path(id);
			if (!path) throw new IanuaError('upload-cut-off');
			const { sha256, bytes, looked } = await runInWorker('arrive', { path, name: row.fileName });
			const received = { path, sha256, bytes };
			let editionOf: string | undefined;
			if (row.editionOf) editionOf = (await db().select({ slug: document.slug }).from(document).where(eq(document.id, row.editionOf)))[0]?.slug;
			const broughtIn = await bringIn(received, { fileName: row.fileName, folder: row.folder, editionOf, unchecked: true }, row.personId, looked);
			await db().update(intake).set({ documentId: broughtIn.id, changedAt: new Date() }).where(eq(intake.id, id));
			made = broughtIn;
		} catch (error) {
			// a full disk and the like are tried again by the job; what is wrong with the file is not
			if (!(error instanceof IanuaError) || error.status >= 500) throw error;
			await refuse(id, error);
		}
		await uploads().drop(id);
	});
	return made;
}

/** Says why a file did not come in. */
export async function refuse(id: string, error: IanuaError): Promise<void> {
	log().info({ intake: id, code: error.code }, 'refused at intake');
	await db()
		.update(intake)
		.set({ state: 'refused', trouble: { code: error.code, facts: { ...error.facts } }, changedAt: new Date() })
		.where(eq(intake.id, id));
}

/** Stops files that are still on their way and drops what has arrived of them. */
export async function stopIntake(personId: string, ids: readonly string[]): Promise<void> {
	if (!ids.length) return;
	const stopped = await db()
		.update(intake)
		.set({ state: 'stopped', changedAt: new Date() })
		.where(and(eq(intake.personId, personId), inArray(intake.id, [...ids]), eq(intake.state, 'uploading')))
		.returning({ id: intake.id });
	await Promise.all(stopped.map((row) => uploads().drop(row.id)));
}

/** Takes what is finished out of the tray. */
export async function clearTray(personId: string): Promise<void> {
	await db()
		.update(intake)
		.set({ cleared: true })
		.where(and(eq(intake.personId, personId), inArray(intake.state, ['in', 'refused', 'stopped'])));
}

/** Files that have arrived and that nothing was made of yet. */
export async function waitingIntakes(): Promise<string[]> {
	const rows = await sql()<{ id: string }[]>`select id from intake where state = 'checking' and document_id is null order by created_at limit 10000`;
	return rows.map((r) => r.id);
}

/** Forgets uploads that have not moved for `days`, and gives their ids. */
export async function forgetStale(days: number): Promise<string[]> {
	const rows = await db()
		.delete(intake)
		.where(and(eq(intake.state, 'uploading'), lt(intake.changedAt, raw`now() - make_interval(days => ${days})`)))
		.returning({ id: intake.id });
	return rows.map((r) => r.id);
}

/** Ids of all uploads that may still go on. */
export async function livingIntakes(): Promise<Set<string>> {
	const rows = await sql()<{ id: string }[]>`select id from intake where state = 'uploading' or (state = 'checking' and document_id is null)`;
	return new Set(rows.map((r) => r.id));
}
