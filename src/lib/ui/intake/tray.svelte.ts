// The intake as the browser sees it: one entry for each file on its way in. Lives as long as the desk is open.
import { sizeWords } from '#core/documents/size';

export interface TrayEntry {
	readonly key: number;
	readonly name: string;
	readonly bytes: number;
	state: 'waiting' | 'uploading' | 'checking' | 'in' | 'refused';
	/** Share uploaded, 0 to 1. */
	progress: number;
	/** Why it was refused. */
	trouble: string | null;
	slug: string | null;
	title: string | null;
}

let last = 0;
export const tray = $state<{ entries: TrayEntry[]; open: boolean }>({ entries: [], open: false });
const files = new Map<number, File>();
const requests = new Map<number, XMLHttpRequest>();
let listener: (entry: TrayEntry) => void = () => {};

/** Called after each file that came in. */
export function onBroughtIn(call: (entry: TrayEntry) => void): void {
	listener = call;
}

/** Puts files into the tray; they go up one after the other. `limit` is the largest the site takes, bytes. */
export function bringIn(list: Iterable<File>, limit: number): void {
	for (const file of list) {
		const entry: TrayEntry = { key: ++last, name: file.name, bytes: file.size, state: 'waiting', progress: 0, trouble: null, slug: null, title: null };
		if (file.size > limit) {
			entry.state = 'refused';
			entry.trouble = `“${file.name}” is larger than the ${sizeWords(limit)} this site takes.`;
		} else files.set(entry.key, file);
		tray.entries.push(entry);
	}
	tray.open = true;
	next();
}

function next(): void {
	if (tray.entries.some((e) => e.state === 'uploading' || e.state === 'checking')) return;
	const entry = tray.entries.find((e) => e.state === 'waiting');
	if (entry) send(entry);
}

function send(entry: TrayEntry): void {
	const file = files.get(entry.key);
	if (!file) return;
	const form = new FormData();
	form.append('file', file, file.name);
	const request = new XMLHttpRequest();
	requests.set(entry.key, request);
	entry.state = 'uploading';
	request.open('POST', '/api/v1/documents');
	request.upload.onprogress = (event) => {
		if (event.lengthComputable) entry.progress = event.loaded / event.total;
	};
	request.upload.onload = () => {
		entry.progress = 1;
		entry.state = 'checking';
	};
	request.onloadend = () => {
		requests.delete(entry.key);
		if ((entry.state as TrayEntry['state']) === 'refused') return next();
		let answer: { slug?: string; title?: string } = {};
		try {
			answer = JSON.parse(request.responseText) as typeof answer;
		} catch {
			// no answer: the connection was lost
		}
		if (request.status === 201 && answer.slug) {
			entry.state = 'in';
			entry.slug = answer.slug;
			entry.title = answer.title ?? entry.name;
			files.delete(entry.key);
			listener(entry);
		} else {
			entry.state = 'refused';
			entry.trouble = answer.title ?? 'The connection was lost. Nothing was kept; try again.';
		}
		next();
	};
	request.send(form);
}

/** Stops a file that is waiting or going up. */
export function stop(entry: TrayEntry): void {
	entry.state = 'refused';
	entry.trouble = 'Stopped. Nothing of it was kept.';
	requests.get(entry.key)?.abort();
	next();
}

/** Tries a refused file again. */
export function retry(entry: TrayEntry): void {
	if (!files.has(entry.key)) return;
	entry.state = 'waiting';
	entry.progress = 0;
	entry.trouble = null;
	next();
}

export const canRetry = (entry: TrayEntry): boolean => files.has(entry.key);

/** Takes what is finished out of the tray. */
export function clearDone(): void {
	for (const entry of tray.entries) if (entry.state === 'refused') files.delete(entry.key);
	tray.entries = tray.entries.filter((e) => e.state !== 'in' && e.state !== 'refused');
	if (!tray.entries.length) tray.open = false;
}
