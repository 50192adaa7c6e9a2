// Whether everything that a site stands on is well, for whoever looks after it: each part by itself, so that one that is not keeps none from being
// looked at.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { statfs } from 'node:fs/promises';
import packageJson from '../../../../package.json' with { type: 'json' };
import { sizeWords } from '#core/documents/size';
import { counted } from '#core/text/list';
import { appliedMigrations, sql } from '../db/client';
import { theRow } from '../db/rows';
import { mailAnswers } from '../mail/send';
import { settings } from '../settings';
import { objects, originalName, originals } from '../store/store';
import { wordsUnder } from '../store/object-store';

export interface Looked {
	readonly part: 'versions' | 'database' | 'clock' | 'store' | 'files' | 'mail' | 'room' | 'backup';
	/** `no`: it needs a hand; `look`: it works, and somebody should know. */
	readonly well: 'yes' | 'look' | 'no';
	readonly words: string;
}

const versionOf = (program: string, flag: string): string | null => {
	try {
		return /\d+(?:\.\d+)+/.exec(execFileSync('sh', ['-c', `${program} ${flag} 2>&1`], { encoding: 'utf8' }))?.[0] ?? null;
	} catch {
		return null;
	}
};

async function versions(): Promise<Looked> {
	const programs = [
		['pdfinfo', '-v'],
		['qpdf', '--version'],
		['bwrap', '--version'],
		['prlimit', '--version']
	] as const;
	const found = programs.map(([name, flag]) => ({ name, version: versionOf(name, flag) }));
	const { server } = theRow(await sql()<{ server: string }[]>`select current_setting('server_version') as server`);
	const missing = found.filter(({ version }) => version === null).map(({ name }) => name);
	const words = `Ianua ${packageJson.version}, Node ${process.versions.node}, PostgreSQL ${server}${found.map(({ name, version }) => (version ? `, ${name} ${version}` : '')).join('')}`;
	return missing.length
		? { part: 'versions', well: 'no', words: `${words}. Missing: ${missing.join(', ')}; without them no PDF is brought in or drawn.` }
		: { part: 'versions', well: 'yes', words };
}

async function database(): Promise<Looked> {
	const { waiting, newer } = await appliedMigrations();
	if (newer) return { part: 'database', well: 'no', words: 'It was brought up to date by a newer version of Ianua than this.' };
	if (waiting)
		return {
			part: 'database',
			well: 'look',
			words: `It answers; ${counted(waiting, 'migration', 'migrations')} of this version still to be done: ianua migrate, or the next start.`
		};
	return { part: 'database', well: 'yes', words: 'It answers, and is as this version wants it.' };
}

/** S by which two clocks may differ. */
const mostApart = 2;

async function clock(): Promise<Looked> {
	const before = Date.now();
	const { at } = theRow(await sql()<{ at: Date }[]>`select clock_timestamp() as at`);
	const apart = Math.abs(at.getTime() - (before + Date.now()) / 2) / 1000;
	if (apart > mostApart)
		return {
			part: 'clock',
			well: 'no',
			words: `This machine’s clock and the database’s are ${apart.toFixed(1)} s apart: hours of doors and counts go by both.`
		};
	return { part: 'clock', well: 'yes', words: `The database’s agrees with this machine’s (${apart.toFixed(1)} s).` };
}

async function store(): Promise<Looked> {
	const inStore = (await wordsUnder(objects(), 'site-id'))?.trim() ?? null;
	const [row] = await sql()<{ id: string }[]>`select value ->> 'id' as id from setting where key = 'site-id'`;
	const { place } = objects();
	if (inStore === null && !row) return { part: 'store', well: 'look', words: `${place} is new: the first start ties it to the database.` };
	if (inStore !== row?.id)
		return {
			part: 'store',
			well: 'no',
			words: `${place} belongs to another site than the database: its site id is ${inStore ?? 'missing'}, the database’s ${row?.id ?? 'missing'}.`
		};
	return { part: 'store', well: 'yes', words: `${place} answers, and belongs to the database.` };
}

async function checksum(name: string): Promise<string | null> {
	const stream = await objects().read(name);
	if (!stream) return null;
	const hash = createHash('sha256');
	for await (const chunk of stream as AsyncIterable<Buffer>) hash.update(chunk);
	return hash.digest('hex');
}

/** Every file that a row names is there, and what its name says. */
async function files(say: (line: string) => void): Promise<Looked> {
	const rows = await sql()<{ sha256: string }[]>`
		select distinct e.sha256 from edition e join document d on d.id = e.document_id where d.gone_at is null
		union select cover ->> 'sha256' from document where cover ->> 'sha256' is not null union select sha256 from picture`;
	const wanted = new Set(rows.map(({ sha256 }) => sha256));
	const [damaged, strays]: [string[], string[]] = [[], []];
	let bytes = 0;
	let done = 0;
	for (const { sha256, bytes: size } of await originals()) {
		const known = wanted.delete(sha256);
		if (!known) strays.push(sha256);
		else if ((await checksum(originalName(sha256))) !== sha256) damaged.push(sha256);
		bytes += size;
		if (++done % 1000 === 0) say(`${done} files looked at`);
	}
	const missing = [...wanted];
	const list = (what: string, all: readonly string[]) =>
		all.length ? ` ${what}: ${all.slice(0, 20).join(', ')}${all.length > 20 ? ` and ${all.length - 20} more` : ''}.` : '';
	if (missing.length || damaged.length)
		return {
			part: 'files',
			well: 'no',
			words: `Of ${counted(rows.length, 'file', 'files')} that the database names not all are whole.${list('Missing', missing)}${list('Damaged', damaged)}`
		};
	return {
		part: 'files',
		well: 'yes',
		words: `${counted(rows.length, 'file', 'files')} that the database names, ${sizeWords(bytes)}: all are there, and what their names say.${strays.length ? ` ${counted(strays.length, 'file', 'files')} without a row: the sweep puts them by.` : ''}`
	};
}

async function mail(): Promise<Looked> {
	if (!settings().IANUA_SMTP_URL)
		return { part: 'mail', well: 'look', words: 'None is set up (IANUA_SMTP_URL): invitations are handed over, and no reminder goes out.' };
	const trouble = await mailAnswers();
	if (trouble !== null) return { part: 'mail', well: 'no', words: `The server for mail does not take any: ${trouble}` };
	return { part: 'mail', well: 'yes', words: 'The server for mail answers.' };
}

/** Part and bytes of a disk under which there is too little room. */
const leastRoom = { part: 0.05, bytes: 2_000_000_000 } as const;

async function room(): Promise<Looked> {
	const { bavail, blocks, bsize } = await statfs(settings().files);
	const [free, all] = [bavail * bsize, blocks * bsize];
	const words = `${sizeWords(free)} of ${sizeWords(all)} free where files are written.`;
	return { part: 'room', well: free < leastRoom.bytes || free / all < leastRoom.part ? 'no' : 'yes', words };
}

/** Days after which a backup is told to be old. */
const oldBackup = 7;

/** When the last backup was made (RFC 3339); null where none was. */
async function lastBackup(): Promise<string | null> {
	const [row] = await sql()<{ at: string }[]>`select value ->> 'at' as at from setting where key = 'backed-up'`;
	return row?.at ?? null;
}
const daysSince = (at: string): number => (Date.now() - Date.parse(at)) / 86_400_000;

async function backup(): Promise<Looked> {
	const at = await lastBackup();
	if (at === null) return { part: 'backup', well: 'look', words: 'None was made with ianua backup yet.' };
	return { part: 'backup', well: daysSince(at) > oldBackup ? 'look' : 'yes', words: `The last was made ${at.slice(0, 16).replace('T', ' ')} UTC.` };
}

/** Since when no mail goes out, and what its server says; null while it does. */
async function mailTrouble(): Promise<{ at: string; said: string } | null> {
	const [row] = await sql()<{ value: { at: string; said: string } }[]>`select value from setting where key = 'mail-trouble'`;
	return row?.value ?? null;
}

/** What an owner is told at the desk without asking: mail that does not go out, too little room, and a backup that has grown old where backups are made. */
export async function toldOwners(): Promise<string[]> {
	const [disk, kept, mails] = await Promise.all([room().catch(() => null), lastBackup(), mailTrouble()]);
	return [
		...(mails ? [`Mail does not go out since ${mails.at.slice(0, 16).replace('T', ' ')} UTC: ${mails.said}`] : []),
		...(disk?.well === 'no' ? [`Room runs out: ${disk.words}`] : []),
		...(kept !== null && daysSince(kept) > oldBackup ? [`The last backup is ${counted(Math.floor(daysSince(kept)), 'day', 'days')} old.`] : [])
	];
}

/** Looks everything over. What cannot be looked at is not well, and its error is the words. */
export async function lookOver({ checksums, say = () => {} }: { readonly checksums: boolean; readonly say?: (line: string) => void }): Promise<Looked[]> {
	const looks: [Looked['part'], () => Promise<Looked>][] = [
		['versions', versions],
		['database', database],
		['clock', clock],
		['store', store],
		...(checksums ? [['files', () => files(say)] as [Looked['part'], () => Promise<Looked>]] : []),
		['mail', mail],
		['room', room],
		['backup', backup]
	];
	const all: Looked[] = [];
	for (const [part, look] of looks) all.push(await look().catch((error: unknown) => ({ part, well: 'no' as const, words: (error as Error).message })));
	return all;
}
