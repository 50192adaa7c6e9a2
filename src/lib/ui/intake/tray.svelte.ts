// The intake as the browser sees it: one entry for each file on its way in. Uploads by the tus protocol, so that they can be paused,
// broken off and gone on with; what became of each file is asked of the server, which knows it after a reload too.
import { Upload, type DetailedError } from 'tus-js-client';
import { sizeWords } from '#core/documents/size';
import type { ConditionStatus } from '#core/intake/condition';
import { call, ApiTrouble } from '$lib/ui/parts/api';
import type { ChecksumAnswer, ChecksumRequest } from './checksum.worker';
import { dropFile, keepFile, keptFile, largestKept } from './kept-files';

export type EntryState =
	/** Its checksum is being taken. */
	| 'looking'
	/** The same bytes are here already: somebody has to say what is meant. */
	| 'known'
	| 'waiting'
	| 'uploading'
	| 'paused'
	/** The connection is lost; it goes on by itself. */
	| 'lost'
	/** Some of it has arrived, but the browser no longer has the file. */
	| 'needs-file'
	| 'checking'
	| 'in'
	| 'refused'
	| 'stopped';

export interface TrayEntry {
	readonly key: number;
	/** The upload's id on the server, once it has begun. */
	id: string | null;
	readonly name: string;
	readonly bytes: number;
	state: EntryState;
	/** Share uploaded, 0 to 1. */
	progress: number;
	/** Why it was refused, and what to do. */
	trouble: string | null;
	document: { slug: string; title: string; condition: ConditionStatus } | null;
	known: readonly { slug: string; title: string; inForce: boolean }[];
	/** The document it is a new edition of. */
	editionOf: string | null;
}

interface ServerLine {
	id: string;
	name: string;
	bytes: number;
	state: 'uploading' | 'checking' | 'in' | 'refused' | 'stopped';
	arrived: number;
	trouble: { code: string; text: string } | null;
	document: TrayEntry['document'];
	edition: boolean;
}

const endpoint = '/api/v1/intake';
const atOnce = 3;
const chunk = 8 * 1024 * 1024;
/** Ms between looks at what became of files, and between tries after a lost connection. */
const [lookEvery, tryEvery] = [700, 5000];

let last = 0;
export const tray = $state<{ entries: TrayEntry[]; open: boolean; paused: boolean }>({ entries: [], open: false, paused: false });
const files = new Map<number, File>();
const uploads = new Map<number, Upload>();
let listener: (entry: TrayEntry) => void = () => {};
let worker: Worker | undefined;
let looking: ReturnType<typeof setTimeout> | undefined;

/** States in which a file still is on its way. */
export const underWay = (entry: TrayEntry): boolean => !['in', 'refused', 'stopped'].includes(entry.state);
/** States in which the browser has something to send; leaving then would break it off. */
const sending = (entry: TrayEntry): boolean => ['looking', 'waiting', 'uploading', 'lost'].includes(entry.state);

/** Called after each file that came in. */
export function onBroughtIn(call: (entry: TrayEntry) => void): void {
	listener = call;
}

/** Puts files into the tray. `limit` is the largest the site takes, bytes; with `editionOf` they are new editions of that document. */
export function bringIn(list: Iterable<File>, limit: number, editionOf: string | null = null): void {
	for (const file of list) {
		const again = tray.entries.find((e) => e.state === 'needs-file' && e.name === file.name && e.bytes === file.size);
		if (again) {
			files.set(again.key, file);
			again.state = 'waiting';
			continue;
		}
		const entry: TrayEntry = {
			key: ++last,
			id: null,
			name: file.name,
			bytes: file.size,
			state: 'looking',
			progress: 0,
			trouble: null,
			document: null,
			known: [],
			editionOf
		};
		if (file.size > limit) {
			entry.state = 'refused';
			entry.trouble = `“${file.name}” is larger than the ${sizeWords(limit)} this site takes. Make it smaller, or split it.`;
		} else files.set(entry.key, file);
		tray.entries.push(entry);
		const mine = tray.entries[tray.entries.length - 1]!;
		if (mine.state === 'looking') takeChecksum(mine, file);
	}
	tray.open = true;
	next();
}

function takeChecksum(entry: TrayEntry, file: File): void {
	if (!worker) {
		worker = new Worker(new URL('./checksum.worker.ts', import.meta.url), { type: 'module' });
		worker.onmessage = ({ data }: MessageEvent<ChecksumAnswer>) => void checksumTaken(data);
		// without a worker the server finds out for itself
		worker.onerror = () => {
			for (const e of tray.entries) if (e.state === 'looking') e.state = 'waiting';
			next();
		};
	}
	worker.postMessage({ key: entry.key, file } satisfies ChecksumRequest);
}

async function checksumTaken({ key, sha256 }: ChecksumAnswer): Promise<void> {
	const entry = tray.entries.find((e) => e.key === key);
	if (!entry || entry.state !== 'looking') return;
	if (sha256) {
		try {
			const { items } = await call<{ items: TrayEntry['known'] }>('GET', `/intake/known?sha256=${sha256}`);
			// for a new edition only the same document counts
			const known = entry.editionOf ? items.filter((d) => d.slug === entry.editionOf && d.inForce) : items;
			if (known.length) {
				entry.known = known;
				entry.state = 'known';
				return next();
			}
		} catch {
			// not knowing is no reason not to bring it in
		}
	}
	if (entry.state === 'looking') entry.state = 'waiting';
	next();
}

/** What is meant with bytes that are here already: bring them in all the same, or as a new edition of a document. */
export function allTheSame(entry: TrayEntry, editionOf: string | null = entry.editionOf): void {
	entry.editionOf = editionOf;
	entry.known = [];
	entry.state = 'waiting';
	next();
}

function next(): void {
	if (tray.paused) return;
	while (tray.entries.filter((e) => e.state === 'uploading').length < atOnce) {
		const entry = tray.entries.find((e) => e.state === 'waiting');
		if (!entry) return;
		send(entry);
	}
}

function send(entry: TrayEntry): void {
	const file = files.get(entry.key);
	if (!file) {
		entry.state = 'needs-file';
		return;
	}
	entry.state = 'uploading';
	entry.trouble = null;
	const known = uploads.get(entry.key);
	if (known) return known.start();
	const upload = new Upload(file, {
		endpoint,
		uploadUrl: entry.id ? `${endpoint}/${entry.id}` : undefined,
		chunkSize: chunk,
		uploadDataDuringCreation: true,
		retryDelays: [0, 500, 1500, 4000],
		// the server's own list says what can be gone on with
		storeFingerprintForResuming: false,
		metadata: { filename: entry.name, ...(entry.editionOf ? { edition: entry.editionOf } : {}) },
		onUploadUrlAvailable: () => {
			entry.id = upload.url?.split('/').pop() ?? null;
			if (entry.id) void keepFile(entry.id, file);
		},
		onProgress: (sent, all) => (entry.progress = all ? sent / all : 1),
		onShouldRetry: (error) => passing(error),
		onSuccess: () => {
			entry.progress = 1;
			entry.state = 'checking';
			ended(entry);
			look();
			next();
		},
		onError: (error) => {
			if (entry.state !== 'uploading') return;
			if (passing(error as DetailedError)) {
				entry.state = 'lost';
				setTimeout(() => goOn(entry), tryEvery);
			} else {
				entry.state = 'refused';
				entry.trouble = wordsOf(error as DetailedError);
				ended(entry);
			}
			next();
		}
	});
	uploads.set(entry.key, upload);
	upload.start();
}

/** True for a trouble that passes: no connection, a server starting again, somebody else at the same upload. */
function passing(error: DetailedError): boolean {
	const status = error.originalResponse?.getStatus() ?? 0;
	return status === 0 || status === 409 || status === 423 || status === 429 || (status >= 500 && status !== 507);
}

function wordsOf(error: DetailedError): string {
	try {
		return (JSON.parse(error.originalResponse?.getBody() ?? '') as { title: string }).title;
	} catch {
		const status = error.originalResponse?.getStatus();
		return status === 401 || status === 403
			? 'You are no longer signed in. Sign in in another tab, then try again.'
			: status === 404 || status === 410
				? 'The server no longer knows this upload. Bring the file in again.'
				: 'The upload failed. Try again.';
	}
}

function goOn(entry: TrayEntry): void {
	if (entry.state !== 'lost') return;
	entry.state = 'waiting';
	next();
}

function ended(entry: TrayEntry): void {
	files.delete(entry.key);
	uploads.delete(entry.key);
	if (entry.id) void dropFile(entry.id);
}

/** Asks what became of files that have arrived, until all of them are in or refused. */
function look(): void {
	looking ??= setTimeout(async () => {
		looking = undefined;
		try {
			const { items } = await call<{ items: ServerLine[] }>('GET', '/intake');
			const byId = new Map(items.map((line) => [line.id, line]));
			for (const entry of tray.entries) {
				const line = entry.id ? byId.get(entry.id) : undefined;
				if (entry.state === 'checking' && line) settle(entry, line);
			}
		} catch {
			// asked again below
		}
		if (tray.entries.some((e) => e.state === 'checking')) look();
	}, lookEvery);
}

function settle(entry: TrayEntry, line: ServerLine): void {
	entry.trouble = line.trouble?.text ?? null;
	if (line.document) entry.document = line.document;
	if (line.state === 'in' || line.state === 'refused' || line.state === 'stopped') {
		entry.state = line.state;
		if (line.state === 'in') listener(entry);
	}
}

/** Takes up what the server knows of files that an earlier page of the desk began. */
export async function takeUp(): Promise<void> {
	let items: ServerLine[] = [];
	try {
		({ items } = await call<{ items: ServerLine[] }>('GET', '/intake'));
	} catch (error) {
		if (error instanceof ApiTrouble) return;
		throw error;
	}
	const here = new Set(tray.entries.map((e) => e.id));
	for (const line of items) {
		if (here.has(line.id)) continue;
		const key = ++last;
		const file = line.state === 'uploading' ? await keptFile(line.id) : null;
		if (file) files.set(key, file);
		tray.entries.push({
			key,
			id: line.id,
			name: line.name,
			bytes: line.bytes,
			state: line.state === 'uploading' ? (file ? 'waiting' : 'needs-file') : line.state,
			progress: line.bytes ? line.arrived / line.bytes : 1,
			trouble: line.trouble?.text ?? null,
			document: line.document,
			known: [],
			editionOf: null
		});
	}
	// what moves shows itself; what waits for an answer stays a number in the lintel
	if (tray.entries.some((e) => e.state === 'waiting' || e.state === 'checking')) tray.open = true;
	if (tray.entries.some((e) => e.state === 'checking')) look();
	next();
}

/** Pauses all uploads, or lets them go on. */
export function pauseAll(paused: boolean): void {
	tray.paused = paused;
	for (const entry of tray.entries) {
		if (paused && entry.state === 'uploading') pause(entry);
		else if (!paused && entry.state === 'paused') resume(entry);
	}
	if (!paused) next();
}

export function pause(entry: TrayEntry): void {
	entry.state = 'paused';
	void uploads.get(entry.key)?.abort();
	next();
}

export function resume(entry: TrayEntry): void {
	entry.state = 'waiting';
	tray.paused = false;
	next();
}

/** Stops a file that is on its way; what has arrived of it is dropped. */
export function stop(entry: TrayEntry): void {
	entry.state = 'stopped';
	void uploads.get(entry.key)?.abort();
	if (entry.id) void call('PATCH', '/intake', { stop: [entry.id] }).catch(() => {});
	ended(entry);
	next();
}

/** Stops all that is on its way. */
export function stopAll(): void {
	for (const entry of tray.entries) if (underWay(entry) && entry.state !== 'checking') stop(entry);
}

/** Tries a refused file again, from the start. */
export function retry(entry: TrayEntry, file: File): void {
	files.set(entry.key, file);
	entry.id = null;
	entry.progress = 0;
	entry.state = 'waiting';
	next();
}

/** Takes what is finished out of the tray, here and on the server. */
export function clearDone(): void {
	tray.entries = tray.entries.filter(underWay);
	if (!tray.entries.length) tray.open = false;
	void call('DELETE', '/intake').catch(() => {});
}

/** True while leaving the desk would break an upload off that does not go on by itself when the desk is open again. */
export const leavingBreaksOff = (): boolean => tray.entries.some((e) => sending(e) && e.bytes > largestKept);

/** Every file of what was dropped, folders and all; what of a folder is no PDF is left out and counted. */
export async function droppedFiles(transfer: DataTransfer): Promise<{ files: File[]; leftOut: number }> {
	const items = [...transfer.items].map((item) => ({ entry: item.webkitGetAsEntry(), file: item.getAsFile() }));
	if (!items.length) return { files: [...transfer.files], leftOut: 0 };
	const found: File[] = [];
	let leftOut = 0;
	const walk = async (entry: FileSystemEntry, inFolder: boolean): Promise<void> => {
		if (entry.isFile) {
			const file = await new Promise<File | null>((done) => (entry as FileSystemFileEntry).file(done, () => done(null)));
			if (!file) return;
			if (!inFolder || /\.pdf$/i.test(file.name) || file.type === 'application/pdf') found.push(file);
			else leftOut++;
			return;
		}
		const reader = (entry as FileSystemDirectoryEntry).createReader();
		// a folder is read in pieces of at most a hundred
		for (;;) {
			const entries = await new Promise<FileSystemEntry[]>((done) => reader.readEntries(done, () => done([])));
			if (!entries.length) return;
			for (const inner of entries) await walk(inner, true);
		}
	};
	for (const { entry, file } of items) {
		if (entry?.isDirectory) await walk(entry, true);
		else if (file) found.push(file);
	}
	return { files: found, leftOut };
}
