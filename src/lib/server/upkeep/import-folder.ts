// A folder of PDFs from elsewhere, with a table about them, read as what an import takes in.
import { readdirSync, readFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { startOfDay } from '#core/access/hours';
import { proposedTitle, slugMax, slugPattern } from '#core/documents/address';
import { planFolder, type FolderLine } from '#core/documents/import-table';
import { newDoor } from '#core/access/door';
import { formerPath } from '#core/placing/former-address';
import { counted } from '#core/text/list';
import type { ExportLine } from '#core/upkeep/portable';
import { DocumentChange } from '../documents/change';
import { readTable } from '../http/table';
import { runInWorker } from '../pdf/helpers';
import { listGroups } from '../people/directory';
import { site } from '../site/site';
import { slugFor } from '../slug';
import { receive } from '../store/store';
import { compile } from '../validate';
import type { Cargo } from './import';
import { asCaller, readAsCaller } from './site-at';

const checkWords = compile(DocumentChange);

/** Faults that are told one by one. */
const told = 20;

/** The PDFs and tables of a folder, by their paths in it. */
function filesIn(folder: string): { pdfs: string[]; tables: string[] } {
	const entries = asCaller(() => readdirSync(folder, { recursive: true, withFileTypes: true }));
	const paths = entries
		.filter((entry) => entry.isFile() && !entry.name.startsWith('.'))
		.map((entry) => join(entry.parentPath, entry.name).slice(folder.length + 1))
		.sort();
	return { pdfs: paths.filter((path) => /\.pdf$/i.test(path)), tables: paths.filter((path) => /\.csv$/i.test(path)) };
}

interface Looked {
	readonly sha256: string;
	readonly bytes: number;
	readonly title: string | null;
}

/** The first look at a file, as the intake takes it. Throws what the intake would say. */
async function lookAt(path: string, name: string): Promise<Looked> {
	const received = await receive(readAsCaller(path), Infinity);
	try {
		const { facts } = await runInWorker('look', { path: received.path, bytes: received.bytes, name });
		return { sha256: received.sha256, bytes: received.bytes, title: facts.title };
	} finally {
		await rm(received.path, { force: true });
	}
}

function documentOf(line: FolderLine, looked: Looked, createdAt: string): ExportLine<'documents'> {
	const fileName = line.file.slice(line.file.lastIndexOf('/') + 1);
	const title = (line.title ?? proposedTitle(looked.title, fileName)).slice(0, 200);
	const { hours: _hours, ...door } = newDoor;
	return {
		slug: line.slug ?? slugFor(title),
		title,
		description: line.description ?? '',
		folder: line.folder ?? '',
		topics: [...line.topics],
		fields: { ...line.fields },
		review: null,
		language: line.language ?? null,
		cover: null,
		coverFile: null,
		coverAlt: '',
		reading: null,
		createdAt,
		setAsideAt: null,
		addresses: [],
		formerAddresses: line.formerAddresses.map((path) => ({ path, asked: 0, lastAt: null, lastFrom: null })),
		source: null,
		door: {
			...door,
			allow: { ...door.allow },
			position: line.door,
			groups: [...line.groups],
			people: [],
			follows: null,
			from: null,
			until: null,
			stamped: false,
			turnedAway: null
		},
		editions: [{ number: 1, file: line.file, fileName, sha256: looked.sha256, bytes: looked.bytes, origin: 'upload', createdAt, inForce: true }]
	};
}

/**
 * Reads a folder of PDFs with the table about them, the only one that it has unless one is named. Throws in a sentence where a file is no PDF, or a line
 * is wrong: then nothing is to be taken in.
 */
export async function readFolder(given: string, named?: string): Promise<Cargo> {
	const folder = resolve(given);
	let found: ReturnType<typeof filesIn>;
	try {
		found = filesIn(folder);
	} catch {
		throw new Error(`There is no folder ${folder}.`);
	}
	const { pdfs, tables } = found;
	if (!pdfs.length) throw new Error(`There is no PDF in ${folder}, and no export.json either.`);
	if (!named && tables.length > 1) throw new Error(`There are several tables in ${folder}: say which one with --table.`);
	const table = named ? resolve(named) : tables[0] === undefined ? null : join(folder, tables[0]);
	const { header, rows } = table === null ? { header: [], rows: [] } : readTable(asCaller(() => readFileSync(table)));
	const { zone, fields = [] } = await site();
	const groups = new Set((await listGroups()).map(({ slug }) => slug));
	const { lines, wrong, leftOut, unnamed } = planFolder(header, rows, { files: pdfs, fields, groups });
	const faults = wrong.map(({ line, words }) => `line ${line}: ${words}`);
	const documents: ExportLine<'documents'>[] = [];
	const all = [...lines, ...unnamed.map((file): FolderLine => ({ file, topics: [], door: 'shut', groups: [], fields: {}, formerAddresses: [] }))];
	const now = new Date().toISOString();
	for (const line of all) {
		const words = checkWords({ title: line.title, description: line.description, folder: line.folder, topics: [...line.topics], language: line.language });
		if (!words.ok) faults.push(`${line.file}: ${words.detail}.`);
		const address = line.formerAddresses.find((path) => formerPath(path) === null);
		if (address !== undefined) faults.push(`${line.file}: no request could be led on from “${address}”.`);
		if (line.slug !== undefined && (!new RegExp(slugPattern).test(line.slug) || line.slug.length > slugMax))
			faults.push(`${line.file}: “${line.slug}” is no address: small letters, digits and hyphens.`);
		try {
			const looked = await lookAt(join(folder, line.file), line.file);
			documents.push(documentOf(line, looked, line.day === undefined ? now : new Date(startOfDay(line.day, zone)).toISOString()));
		} catch (error) {
			faults.push(`${line.file}: ${(error as Error).message}`);
		}
	}
	if (faults.length)
		throw new Error(
			[
				`${counted(faults.length, 'thing is', 'things are')} wrong; nothing was taken in.`,
				...faults.slice(0, told),
				...(faults.length > told ? [`and ${faults.length - told} more`] : [])
			].join('\n')
		);
	return {
		groups: [],
		people: [],
		pictures: [],
		documents,
		pages: [],
		keys: [],
		sameFileIsSame: true,
		settings: null,
		ledger: null,
		fileOf: (name) => join(folder, name),
		notes: [
			...(leftOut.length ? [`Columns that mean nothing here stay out: ${leftOut.join(', ')}.`] : []),
			...(table !== null && unnamed.length
				? [
						`${counted(unnamed.length, 'PDF stands', 'PDFs stand')} in no line of the table, and ${unnamed.length === 1 ? 'comes' : 'come'} in with what can be read in ${unnamed.length === 1 ? 'it' : 'them'}.`
					]
				: [])
		]
	};
}
