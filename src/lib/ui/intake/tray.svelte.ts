// The intake as the browser sees it: one entry for each file on its way in. Uploads by the tus protocol, so that they can be paused,
// broken off and gone on with; what became of each file is asked of the server, which knows it after a reload too.
import type { DetailedError, Upload } from 'tus-js-client';
import { sizeWords } from '#core/documents/size';
import { call, ApiTrouble } from '$lib/ui/parts/api';
import { chunkSize, smallerFor } from './chunk-size';
import type { ChecksumAnswer, ChecksumRequest } from './checksum.worker';
import { v7 } from 'uuid';
import type { ServerLine, TrayEntry } from './entry';
import { begunBefore, passing, wordsOf } from './upload-trouble';
import type { Dropped } from './dropped-files';
import { dropFile, keepFile, keptFiles, largestKept } from './kept-files';

const endpoint = '/api/v1/intake';
const atOnce = 3;
/** Ms between looks at what became of files, and between tries after a lost connection. */
const [lookEvery, tryEvery] = [700, 5000];

/** This window, as others tell it from theirs: it holds a lock of this name while it is open. */
const thisWindow = v7();
const lockOf = (window: string) => `ianua-tray ${window}`;

/** Browsers have it where the connection is a safe one. */
const locks = (globalThis.navigator as { readonly locks?: LockManager } | undefined)?.locks;

/** Windows of this browser that are open, as far as it tells. */
async function openWindows(): Promise<Set<string>> {
	const { held = [] } = (await locks?.query()) ?? {};
	return new Set(held.map((lock) => lock.name ?? ''));
}

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

/** Puts files into the tray, those of a folder with its name. `limit` is the largest the site takes, bytes; with `editionOf` they are new editions of that document. Gives their entries. */
export function bringIn(list: Iterable<File | Dropped>, limit: number, editionOf: string | null = null): TrayEntry[] {
	const put: TrayEntry[] = [];
	const given = [...list].map((one) => (one instanceof File ? { file: one, folder: '' } : one));
	for (const { file, folder } of given) {
		const again = tray.entries.find((e) => e.state === 'needs-file' && e.name === file.name && e.bytes === file.size);
		if (again) {
			files.set(again.key, file);
			again.state = 'waiting';
			put.push(again);
			continue;
		}
		const entry: TrayEntry = {
			key: ++last,
			id: v7(),
			begun: false,
			name: file.name,
			bytes: file.size,
			state: 'looking',
			progress: 0,
			trouble: null,
			document: null,
			known: [],
			editionOf,
			folder,
			here: true,
			alone: given.length === 1
		};
		if (file.size > limit) {
			entry.state = 'refused';
			entry.trouble = `“${file.name}” is larger than the ${sizeWords(limit)} this site takes. Make it smaller, or split it.`;
		} else {
			files.set(entry.key, file);
			void keepFile(entry.id, { file, window: thisWindow, editionOf, folder, at: Date.now() + entry.key / 1e6 });
		}
		tray.entries.push(entry);
		// from the list it is the one that screens watch
		const shown = tray.entries[tray.entries.length - 1]!;
		put.push(shown);
		if (shown.state === 'looking') takeChecksum(shown, file);
	}
	tray.open = true;
	next();
	return put;
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
			const { items } = await call('get /intake/known', { query: { sha256 } });
			// for a new edition only the same document counts
			const known = entry.editionOf ? items.filter((d) => d.slug === entry.editionOf && d.inForce) : items;
			if (known.length) {
				entry.known = known;
				entry.state = 'known';
				next();
				return;
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
	if (known) {
		known.start();
		return;
	}
	void begin(entry, file);
}

let client: Promise<typeof import('tus-js-client')> | undefined;
/** What uploads: it is fetched with the first file. */
const uploader = () =>
	(client ??= import('tus-js-client').catch((error: unknown) => {
		client = undefined;
		throw error;
	}));

async function begin(entry: TrayEntry, file: File): Promise<void> {
	const tus = await uploader().catch(() => null);
	// paused or stopped meanwhile, or begun a second time
	if (entry.state !== 'uploading' || uploads.has(entry.key)) return;
	if (!tus) {
		lost(entry);
		return;
	}
	const bytes = chunkSize();
	const upload = new tus.Upload(file, {
		endpoint,
		uploadUrl: entry.begun ? `${endpoint}/${entry.id}` : undefined,
		chunkSize: bytes,
		uploadDataDuringCreation: true,
		retryDelays: [0, 500, 1500, 4000],
		// the server's own list says what can be gone on with
		storeFingerprintForResuming: false,
		metadata: {
			filename: entry.name,
			id: entry.id,
			...(entry.editionOf ? { edition: entry.editionOf } : {}),
			...(entry.folder ? { folder: entry.folder } : {})
		},
		onUploadUrlAvailable: () => {
			entry.begun = true;
		},
		onProgress: (sent, all) => (entry.progress = all ? sent / all : 1),
		onShouldRetry: (error) => passing(error) && !begunBefore(error, entry),
		onSuccess: () => {
			entry.progress = 1;
			entry.state = 'checking';
			ended(entry);
			look();
			next();
		},
		onError: (error) => {
			if (entry.state !== 'uploading') return;
			const before = begunBefore(error as DetailedError, entry);
			if (before || smallerFor(error as DetailedError, bytes)) {
				if (before) entry.begun = true;
				uploads.delete(entry.key);
				entry.state = 'waiting';
			} else if (passing(error as DetailedError)) {
				lost(entry);
				return;
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

/** The connection is gone: tried again in a while. */
function lost(entry: TrayEntry): void {
	entry.state = 'lost';
	setTimeout(() => goOn(entry), tryEvery);
	next();
}

function goOn(entry: TrayEntry): void {
	if (entry.state !== 'lost') return;
	entry.state = 'waiting';
	next();
}

function ended(entry: TrayEntry): void {
	files.delete(entry.key);
	uploads.delete(entry.key);
	void dropFile(entry.id);
}

/** Asks what became of files that have arrived, until all of them are in or refused. */
function look(): void {
	looking ??= setTimeout(() => void lookOnce(), lookEvery);
}

async function lookOnce(): Promise<void> {
	looking = undefined;
	try {
		const { items } = await call('get /intake');
		const byId = new Map(items.map((line) => [line.id, line]));
		for (const entry of tray.entries) {
			const line = byId.get(entry.id);
			if (line && watched(entry)) settle(entry, line);
		}
	} catch {
		// asked again below
	}
	if (tray.entries.some(watched)) look();
}

/** States of which the server tells how they go on. */
const watched = (entry: TrayEntry): boolean => entry.state === 'checking' || entry.state === 'elsewhere';

function settle(entry: TrayEntry, line: ServerLine): void {
	entry.trouble = line.trouble?.text ?? null;
	if (line.document) entry.document = line.document;
	entry.progress = line.bytes ? line.arrived / line.bytes : 1;
	if (line.state === 'checking') entry.state = 'checking';
	if (line.state === 'in' || line.state === 'refused' || line.state === 'stopped') {
		entry.state = line.state;
		if (line.state === 'in') listener(entry);
	}
}

/** Takes up what the server knows of files that an earlier page of the desk began. */
export async function takeUp(): Promise<void> {
	let items: ServerLine[] = [];
	try {
		({ items } = await call('get /intake'));
	} catch (error) {
		if (error instanceof ApiTrouble) return;
		throw error;
	}
	const here = new Set(tray.entries.map((e) => e.id));
	const [kept, open] = await Promise.all([keptFiles(Date.now()), openWindows()]);
	void locks?.request(lockOf(thisWindow), () => new Promise(() => {}));
	for (const line of items) {
		const saved = kept.get(line.id);
		kept.delete(line.id);
		if (here.has(line.id)) continue;
		if (saved && line.state !== 'uploading') void dropFile(line.id);
		const state = line.state !== 'uploading' ? line.state : !saved ? 'needs-file' : open.has(lockOf(saved.window)) ? 'elsewhere' : 'waiting';
		const entry: TrayEntry = {
			key: ++last,
			id: line.id,
			begun: true,
			name: line.name,
			bytes: line.bytes,
			state,
			progress: line.bytes ? line.arrived / line.bytes : 1,
			trouble: line.trouble?.text ?? null,
			document: line.document,
			known: [],
			editionOf: saved?.editionOf ?? null,
			folder: saved?.folder ?? '',
			here: false,
			alone: false
		};
		tray.entries.push(entry);
		if (saved && state === 'waiting') {
			files.set(entry.key, saved.file);
			void keepFile(line.id, { ...saved, window: thisWindow });
		}
	}
	// those that had waited for their turn when their window was closed or loaded again
	for (const [id, saved] of kept) {
		if (here.has(id) || open.has(lockOf(saved.window))) continue;
		tray.entries.push({
			key: ++last,
			id,
			begun: false,
			name: saved.file.name,
			bytes: saved.file.size,
			state: 'looking',
			progress: 0,
			trouble: null,
			document: null,
			known: [],
			editionOf: saved.editionOf,
			folder: saved.folder ?? '',
			here: false,
			alone: false
		});
		files.set(last, saved.file);
		void keepFile(id, { ...saved, window: thisWindow });
		takeChecksum(tray.entries[tray.entries.length - 1]!, saved.file);
	}
	// what moves shows itself; what waits for an answer stays a number in the lintel
	if (tray.entries.some((e) => e.state === 'waiting' || e.state === 'looking' || e.state === 'checking')) tray.open = true;
	if (tray.entries.some(watched)) look();
	next();
}

/** Pauses all uploads, or lets them go on. */
/** Holds an upload; what has arrived stays. */
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

/** Goes on where an upload was held. */
export function resume(entry: TrayEntry): void {
	entry.state = 'waiting';
	tray.paused = false;
	next();
}

/** Stops a file that is on its way; what has arrived of it is dropped. */
export function stop(entry: TrayEntry): void {
	entry.state = 'stopped';
	void uploads.get(entry.key)?.abort();
	if (entry.begun) void call('patch /intake', { body: { stop: [entry.id] } }).catch(() => {});
	ended(entry);
	next();
}

/** Stops all that is on its way. */
export function stopAll(): void {
	for (const entry of tray.entries) if (underWay(entry) && !watched(entry)) stop(entry);
}

/** Takes what is finished out of the tray, here and on the server. */
export function clearDone(): void {
	tray.entries = tray.entries.filter(underWay);
	if (!tray.entries.length) tray.open = false;
	void call('delete /intake').catch(() => {});
}

/** True while leaving the desk would break an upload off that does not go on by itself when the desk is open again. */
export const leavingBreaksOff = (): boolean => tray.entries.some((e) => sending(e) && e.bytes > largestKept);
