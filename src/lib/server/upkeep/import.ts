// An export taken in, into an empty site or beside what is there. Files come into the store first; all else is one transaction, so that it is done
// whole or not at all, and can be tried again.
import { existsSync, readFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { createInterface } from 'node:readline';
import type { Static } from '@sinclair/typebox';
import { sql as raw } from 'drizzle-orm';
import type { Facts } from '#core/intake/condition';
import { ExportHead, exportFormat, exportLines, type ExportLine, type ExportPart } from '#core/upkeep/portable';
import { planImport, type Arriving, type ImportPlan, type ThereAlready } from '#core/upkeep/import-plan';
import { changeDoor } from '../access/doors';
import { takeInKeys } from '../access/take-in';
import { db, sql, type Queryable } from '../db/client';
import { changeDocumentIn } from '../documents/change';
import { addFormerSlugs, insertDocument, writeCover } from '../documents/commands';
import { newId } from '../id';
import { takeInEditions, takeInPictures, takeInSource, type EditionTakenIn } from '../intake/bring-in';
import { queueJob, startJobs, stopJobs } from '../jobs/boss';
import { runInWorker } from '../pdf/helpers';
import { insertPerson } from '../people/directory';
import { takeInGroup } from '../people/members';
import { takeInFormer } from '../placing/former';
import { takeInPages } from '../placing/take-in';
import { takeInReceipts } from '../reading/receipts';
import { sumAgain } from '../readership/sums/keep';
import { writeAudit } from '../site/audit';
import { saveSite, site, SiteChange } from '../site/site';
import { keep, original, receive } from '../store/store';
import { checked, compile } from '../validate';
import { takeInLedger } from './import-ledger';
import { asCaller, readAsCaller } from './site-at';

export interface Imported {
	/** How many of each are new, or would be. */
	readonly fresh: Readonly<Record<ExportPart, number>>;
	/** Documents that are here already. */
	readonly here: number;
	/** Whether the site takes its settings from it: only an empty one does. */
	readonly settings: boolean;
	readonly notes: readonly string[];
	readonly done: boolean;
}

/** What is taken in, wherever it was read. */
export interface Cargo extends Arriving {
	readonly pictures: readonly ExportLine<'pictures'>[];
	readonly settings: Static<typeof SiteChange> | null;
	/** Patterns of former addresses that lead to the document of the name. */
	readonly formerPatterns?: Static<typeof ExportHead>['formerPatterns'];
	readonly ledger: { readonly count: number; readonly lines: () => AsyncIterable<ExportLine<'ledger'>> } | null;
	/** The path of a file that it names. */
	readonly fileOf: (name: string) => string;
	readonly notes?: readonly string[];
}

async function* linesOf<P extends ExportPart>(folder: string, part: P): AsyncGenerator<ExportLine<P>> {
	const check = compile(exportLines[part]);
	const file = join(folder, `${part}.jsonl`);
	if (!asCaller(() => existsSync(file))) throw new Error(`${part}.jsonl is missing: this is not a whole export.`);
	let n = 0;
	for await (const line of createInterface({ input: readAsCaller(file), crlfDelay: Infinity })) {
		n++;
		if (!line.trim()) continue;
		try {
			yield checked(check, JSON.parse(line));
		} catch (error) {
			throw new Error(`${part}.jsonl, line ${n}: ${(error as Error).message}`, { cause: error });
		}
	}
}

async function allLines<P extends ExportPart>(folder: string, part: P): Promise<ExportLine<P>[]> {
	const lines: ExportLine<P>[] = [];
	for await (const line of linesOf(folder, part)) lines.push(line);
	return lines;
}

/** Reads an export. Throws in a sentence where it is none, of a newer kind, or a line is not what it should be. */
export async function readExport(given: string): Promise<Cargo> {
	const folder = resolve(given);
	const text = (path: string) => asCaller(() => readFileSync(path, 'utf8'));
	const head = join(folder, 'export.json');
	if (!asCaller(() => existsSync(head))) throw new Error(`${folder} is no export: there is no export.json in it.`);
	const { format, counts, formerPatterns } = checked(compile(ExportHead), JSON.parse(text(head)));
	if (format !== exportFormat) throw new Error('This export is of a newer kind than this version can read.');
	return {
		groups: await allLines(folder, 'groups'),
		people: await allLines(folder, 'people'),
		pictures: await allLines(folder, 'pictures'),
		documents: await allLines(folder, 'documents'),
		pages: await allLines(folder, 'pages'),
		keys: await allLines(folder, 'keys'),
		settings: checked(compile(SiteChange), JSON.parse(text(join(folder, 'settings.json')))),
		formerPatterns,
		ledger: { count: counts.ledger ?? 0, lines: () => linesOf(folder, 'ledger') },
		fileOf: (name) => join(folder, name)
	};
}

async function thereAlready(): Promise<ThereAlready & { readonly empty: boolean }> {
	const s = sql();
	const [groups, people, documents, former, pages, { fields = [] }] = await Promise.all([
		s<{ slug: string }[]>`select slug from member_group`,
		s<{ email: string }[]>`select email from person`,
		s<{ slug: string; sha256: string }[]>`
			select d.slug, case when d.gone_at is null then e.sha256 else '' end as sha256 from document d join edition e on e.id = d.edition_id`,
		s<{ slug: string }[]>`select slug from document_address`,
		s<{ path: string }[]>`select path from page`,
		site()
	]);
	return {
		groups: new Set(groups.map(({ slug }) => slug)),
		people: new Set(people.map(({ email }) => email)),
		documents: new Map(documents.map(({ slug, sha256 }) => [slug, sha256])),
		formerSlugs: new Set(former.map(({ slug }) => slug)),
		pages: new Set(pages.map(({ path }) => path)),
		fields: new Set(fields.map(({ name }) => name)),
		empty: documents.length + pages.length === 0
	};
}

/** A file of the export, in the store: what the first look finds of a PDF. Throws where it is missing or not what its line says. */
async function intoStore(path: string, sha256: string): Promise<{ path: string; bytes: number }> {
	if (!asCaller(() => existsSync(path))) throw new Error(`${path} is missing.`);
	const received = await receive(readAsCaller(path), Infinity);
	try {
		if (received.sha256 !== sha256) throw new Error(`${path} is damaged: its checksum is another than the export says.`);
		await keep(received);
		// where the programs that look at it can see it
		return { path: await original(sha256), bytes: received.bytes };
	} finally {
		await rm(received.path, { force: true });
	}
}

/** Brings the files of new documents into the store, and looks at each as the intake does. */
async function takeInFiles(cargo: Cargo, plan: ImportPlan, say: (line: string) => void): Promise<Map<string, Facts>> {
	const looks = new Map<string, Facts>();
	for (const { sha256, file } of cargo.pictures) await intoStore(cargo.fileOf(file), sha256);
	let n = 0;
	for (const { line } of plan.documents) {
		for (const { sha256, file, fileName } of line.editions) {
			const { path, bytes } = await intoStore(cargo.fileOf(file), sha256);
			if (!looks.has(sha256)) looks.set(sha256, (await runInWorker('look', { path, bytes, name: fileName })).facts);
			if (++n % 100 === 0) say(`${n} files taken in`);
		}
		if (line.coverFile !== null && line.cover && 'sha256' in line.cover) await intoStore(cargo.fileOf(line.coverFile), line.cover.sha256);
	}
	return looks;
}

/** Of a door, what can be here: groups and people that are here, and pages to follow. */
type DoorThere = { readonly groups: ReadonlySet<string>; readonly people: ReadonlySet<string>; readonly pages: ReadonlySet<string> };
function doorHere(door: ExportLine<'documents'>['door'], there: DoorThere) {
	return {
		...door,
		groups: door.groups.filter((slug) => there.groups.has(slug)),
		people: door.people.filter((email) => there.people.has(email)),
		follows: door.follows !== null && there.pages.has(door.follows) ? door.follows : null
	};
}

/** The words of a document as a change: whom the site does not have stays out. */
function wordsOf(line: ExportLine<'documents'>, staff: ReadonlySet<string>) {
	const { description, topics, language, coverAlt, reading, receipt = null, review, cover } = line;
	return {
		description,
		topics,
		language,
		coverAlt,
		reading,
		receipt,
		review: review && { on: review.on, by: review.by !== null && staff.has(review.by) ? review.by : null },
		...(cover?.kind === 'page' ? { coverPage: cover.page } : {})
	};
}

async function takeInDocument(
	tx: Queryable,
	cargo: ImportPlan['documents'][number],
	looks: ReadonlyMap<string, Facts>,
	fields: ReadonlySet<string>
): Promise<{ id: string; editions: EditionTakenIn[] }> {
	const { line, slug } = cargo;
	const editions = line.editions.map(({ number, fileName, sha256, bytes, origin, createdAt }) => ({
		id: newId(),
		number,
		fileName,
		sha256,
		bytes,
		origin,
		createdAt: new Date(createdAt),
		// each was looked at when its file was taken in
		first: looks.get(sha256)!
	}));
	const inForce = editions[line.editions.findIndex((e) => e.inForce)] ?? editions[editions.length - 1]!;
	const { id } = await insertDocument(
		tx,
		{
			title: line.title,
			folder: line.folder,
			editionId: inForce.id,
			slug,
			// as they were said there, of choices that are no longer offered too
			fields: Object.fromEntries(Object.entries(line.fields).filter(([name]) => fields.has(name))),
			createdAt: new Date(line.createdAt),
			setAsideAt: line.setAsideAt === null ? null : new Date(line.setAsideAt)
		},
		null
	);
	await takeInEditions(tx, id, editions);
	await writeAudit(tx, { actor: null, action: 'brought-in', kind: 'document', thing: id, after: { slug, title: line.title, by: 'import' } });
	if (line.cover && line.cover.kind !== 'page') await writeCover(tx, id, line.cover);
	if (line.source) await takeInSource(tx, id, { ...line.source, sha256: inForce.sha256 });
	await addFormerSlugs(tx, id, line.addresses);
	return { id, editions };
}

/** Everything but files, in one transaction. Gives the editions to be checked and how many entries are new. */
async function takeInRows(
	cargo: Cargo,
	plan: ImportPlan,
	looks: ReadonlyMap<string, Facts>,
	say: (line: string) => void
): Promise<{ editions: string[]; entries: number }> {
	const fields = new Set((await site()).fields?.map(({ name }) => name));
	return db().transaction(async (tx) => {
		for (const { createdAt, ...given } of plan.groups) await takeInGroup(tx, { ...given, createdAt: new Date(createdAt) }, null);
		for (const { createdAt, ...given } of plan.people) await insertPerson(tx, { ...given, password: null, createdAt: new Date(createdAt) }, null);
		const people = await tx.execute<{ id: string; email: string; staff: boolean }>(
			raw`select id, email, role <> 'member' as staff from person where closed_at is null`
		);
		const groups = await tx.execute<{ slug: string }>(raw`select slug from member_group`);
		await takeInPictures(
			tx,
			cargo.pictures.map(({ sha256, width, height }) => ({ sha256, width, height }))
		);
		const ids = new Map<string, string>();
		const editions: string[] = [];
		const staff = new Set(people.filter((p) => p.staff).map(({ email }) => email));
		const personOf = new Map(people.map(({ email, id }) => [email, id]));
		for (const document of plan.documents) {
			const made = await takeInDocument(tx, document, looks, fields);
			ids.set(document.line.slug, made.id);
			editions.push(...made.editions.map(({ id }) => id));
			await changeDocumentIn(tx, document.slug, wordsOf(document.line, staff), null);
			await takeInFormer(tx, made.id, document.line.formerAddresses, null);
			const editionOf = new Map(made.editions.map(({ number, id }) => [number, id]));
			const receipts = (document.line.receipts ?? []).flatMap(({ person: email, edition: number, at }) => {
				const [person, edition] = [personOf.get(email), editionOf.get(number)];
				return person && edition ? [{ person, edition, at }] : [];
			});
			await takeInReceipts(tx, made.id, receipts);
		}
		await takeInFormer(tx, null, cargo.formerPatterns ?? [], null);
		const pages = await takeInPages(tx, plan.pages, plan.moved, null);
		// doors last: they name groups, people and pages
		const there = {
			groups: new Set(groups.map(({ slug }) => slug)),
			people: new Set(people.map(({ email }) => email)),
			pages: new Set((await tx.execute<{ path: string }>(raw`select path from page`)).map(({ path }) => path))
		};
		for (const { path, door } of plan.pages) {
			// it was made above
			const { id, doorId } = pages.get(path)!;
			await changeDoor(tx, doorId, doorHere(door, there), { actor: null, kind: 'page', thing: id });
		}
		for (const { line, slug } of plan.documents) await changeDocumentIn(tx, slug, { door: doorHere(line.door, there) }, null);
		await takeInKeys(tx, plan.keys, ids, null);
		return { editions, entries: cargo.ledger ? await takeInLedger(tx, cargo.ledger.lines(), plan.slugs, say) : 0 };
	});
}

/** Has editions checked by whichever server runs, or by the next that starts. */
async function queueChecks(editions: readonly string[]): Promise<void> {
	if (!editions.length) return;
	await startJobs();
	try {
		for (const edition of editions) await queueJob('check', { edition }, edition);
	} finally {
		await stopJobs();
	}
}

/** Takes things in, or with `look` only says what would become of them. Throws in a sentence; then nothing but settings was taken in. */
export async function importCargo(cargo: Cargo, { look, say = () => {} }: { look: boolean; say?: (line: string) => void }): Promise<Imported> {
	const { empty, ...there } = await thereAlready();
	const takesSettings = empty && cargo.settings !== null;
	const plan = planImport(cargo, takesSettings ? { ...there, fields: new Set(cargo.settings.fields?.map(({ name }) => name)) } : there);
	const notes = [...(cargo.notes ?? []), ...plan.notes, ...(cargo.settings && !takesSettings ? ['The settings of this site stay as they are.'] : [])];
	const fresh = {
		groups: plan.groups.length,
		people: plan.people.length,
		pictures: cargo.pictures.length,
		documents: plan.documents.length,
		pages: plan.pages.length,
		keys: plan.keys.length,
		ledger: cargo.ledger?.count ?? 0
	};
	const here = plan.slugs.size - plan.documents.length;
	if (look) return { fresh, here, settings: takesSettings, notes, done: false };
	const looks = await takeInFiles(cargo, plan, say);
	if (takesSettings) await saveSite({ ...(await site()), ...cargo.settings });
	const { editions, entries } = await takeInRows(cargo, plan, looks, say);
	if (entries) {
		say('Making the sums of the ledger');
		await sumAgain();
	}
	await queueChecks(editions);
	return { fresh: { ...fresh, ledger: entries }, here, settings: takesSettings, notes, done: true };
}
