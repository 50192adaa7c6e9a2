// A sender of load, and a bare server of a file to hold ours against: each in a process of its own.
import { spawn } from 'node:child_process';
import { freePort } from '#server/db/cluster';

/**
 * Sockets that ask again as soon as an answer is whole. Bytes are counted, not parsed, so that the sender is not what is measured. Prints answers per
 * second and how long half of them took; anything but 200 or 206 ends it.
 */
const loadSource = `
const { connect } = require('node:net');
const { target, seconds, fields, connections, rangeOf, fresh } = JSON.parse(process.argv[1]);
const { hostname, port, pathname, search } = new URL(target);
const begin = 'GET ' + pathname + search + ' HTTP/1.1\\r\\nHost: ' + hostname + ':' + port + '\\r\\n' + fields;
let done = 0, counting = false, asked = 0;
const times = [];
const part = 65536;
function request() {
	asked++;
	const from = rangeOf ? (asked * part) % Math.max(1, rangeOf - part) : 0;
	return begin + (rangeOf ? 'Range: bytes=' + from + '-' + (from + part - 1) + '\\r\\n' : '') + (fresh ? 'User-Agent: Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Firefox/140.0 ' + process.pid + '-' + asked + '\\r\\n' : '') + '\\r\\n';
}
for (let i = 0; i < connections; i++) {
	let began = 0;
	const socket = connect(Number(port), hostname, () => ask());
	const ask = () => { began = performance.now(); socket.write(request()); };
	let left = -1, head = '';
	socket.on('data', (chunk) => {
		let bytes = chunk.length;
		if (left < 0) {
			head += chunk.toString('latin1');
			const end = head.indexOf('\\r\\n\\r\\n');
			if (end < 0) return;
			if (!/^HTTP\\/1.1 20[06]/.test(head)) { console.error(head.slice(0, end)); process.exit(1); }
			left = Number(/content-length: (\\d+)/i.exec(head)[1]);
			bytes = head.length - end - 4;
			head = '';
		}
		left -= bytes;
		if (left === 0) { if (counting) { done++; times.push(performance.now() - began); } left = -1; ask(); }
	});
}
setTimeout(() => { counting = true; setTimeout(() => {
	times.sort((a, b) => a - b);
	console.log(JSON.stringify({ perSecond: done / seconds, half: times[times.length >> 1] ?? 0 }));
	process.exit(0);
}, seconds * 1000); }, 2000);`;

export interface Loaded {
	/** Whole answers a second. */
	readonly perSecond: number;
	/** Ms within which half of them were whole. */
	readonly half: number;
}

export interface LoadOptions {
	readonly headers?: Readonly<Record<string, string>>;
	readonly connections?: number;
	readonly seconds?: number;
	/** Bytes of a file of which parts of 64 KiB are asked for, one after the other. */
	readonly rangeOf?: number;
	/** Each request is another reader's. */
	readonly fresh?: boolean;
}

/** Asks for an address again and again, after two seconds that do not count. Throws where an answer is not whole. */
export async function load(target: string, { headers = {}, connections = 32, seconds = 8, rangeOf = 0, fresh = false }: LoadOptions = {}): Promise<Loaded> {
	const fields = Object.entries(headers)
		.map(([name, value]) => `${name}: ${value}\r\n`)
		.join('');
	const child = spawn(process.execPath, ['-e', loadSource, JSON.stringify({ target, seconds, fields, connections, rangeOf, fresh })], {
		stdio: ['ignore', 'pipe', 'inherit']
	});
	let said = '';
	child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()));
	const code = await new Promise((ended) => child.once('exit', ended));
	if (code !== 0) throw new Error(`${target}: an answer was not whole`);
	return JSON.parse(said) as Loaded;
}

/** `node:http` and a stream of the file with the same large chunks, and nothing else. */
const bareSource = `
const { createReadStream, statSync } = require('node:fs');
const [, file, port] = process.argv;
const size = statSync(file).size;
require('node:http').createServer((request, response) => {
	const [, from, to] = /^bytes=(\\d+)-(\\d+)$/.exec(request.headers.range ?? '') ?? [];
	if (from === undefined) response.writeHead(200, { 'content-type': 'application/pdf', 'content-length': size });
	else response.writeHead(206, { 'content-type': 'application/pdf', 'content-length': to - from + 1 });
	createReadStream(file, { highWaterMark: 512 * 1024, ...(from === undefined ? {} : { start: Number(from), end: Number(to) }) }).pipe(response);
}).listen(Number(port), '127.0.0.1', () => console.log('up'));`;

/** Serves a file, whole or in part, and does nothing else. */
export async function bareServer(file: string): Promise<{ url: string; stop: () => void }> {
	const port = await freePort();
	const child = spawn(process.execPath, ['-e', bareSource, file, String(port)], { stdio: ['ignore', 'pipe', 'inherit'] });
	await new Promise((up) => child.stdout.once('data', up));
	return { url: `http://127.0.0.1:${port}/`, stop: () => child.kill() };
}
