// Figures, as ratios taken in one run: npm run bench. What they mean and what they were stands in docs/benchmarks.md.
import { spawn } from 'node:child_process';
import { statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build';
import { benchAccess } from './bench-access';
import { benchDev } from './bench-dev';
import { benchIntake } from './bench-intake';
import { benchJobs } from './bench-jobs';
import { benchLoad } from './bench-load';
import { benchPlacing } from './bench-placing';
import { benchReading } from './bench-reading';
import { benchKill, benchReadership } from './bench-readership';
import { benchRoom } from './bench-room';
import { benchSite } from './bench-site';
import { noisePdf } from './noise-pdf';
import { signIn, someoneOf } from './bring';
import { freePort } from '#server/db/cluster';
import { runIanua } from './run';
import { scratch } from './scratch';

const seconds = 8;
/** IANUA_BENCH_DATA: a folder that is kept, so that ten million entries need not be made for each run. */
const { path: data, drop } = scratch('bench', process.env.IANUA_BENCH_DATA);
/** npm run bench -- save: only that one. */
const wanted = (part: 'start' | 'save' | 'intake' | 'room' | 'access' | 'placing' | 'reading' | 'readership' | 'load' | 'kill' | 'dev' | 'jobs' | 'site') =>
	!process.argv[2] || process.argv[2] === part;

/**
 * The sender of the load, in a process of its own: 32 sockets that ask again as soon as an answer is whole. Bytes are counted, not
 * parsed, so that the sender is not what is measured. Prints answers per second; anything but 200 ends it.
 */
const loadSource = `
const { connect } = require('node:net');
const [, target, seconds, fields] = process.argv;
const { hostname, port, pathname, search } = new URL(target);
const request = 'GET ' + pathname + search + ' HTTP/1.1\\r\\nHost: ' + hostname + ':' + port + '\\r\\n' + fields + '\\r\\n';
let done = 0, counting = false;
for (let i = 0; i < 32; i++) {
	const socket = connect(Number(port), hostname, () => socket.write(request));
	let left = -1, head = '';
	socket.on('data', (chunk) => {
		let bytes = chunk.length;
		if (left < 0) {
			head += chunk.toString('latin1');
			const end = head.indexOf('\\r\\n\\r\\n');
			if (end < 0) return;
			if (!head.startsWith('HTTP/1.1 200')) { console.error(head.slice(0, end)); process.exit(1); }
			left = Number(/content-length: (\\d+)/i.exec(head)[1]);
			bytes = head.length - end - 4;
			head = '';
		}
		left -= bytes;
		if (left === 0) { if (counting) done++; left = -1; socket.write(request); }
	});
}
setTimeout(() => { counting = true; setTimeout(() => { console.log(done / Number(seconds)); process.exit(0); }, Number(seconds) * 1000); }, 2000);`;

async function load(url: string, headers: Record<string, string> = {}): Promise<number> {
	const fields = Object.entries(headers)
		.map(([name, value]) => `${name}: ${value}\r\n`)
		.join('');
	const child = spawn(process.execPath, ['-e', loadSource, url, String(seconds), fields], { stdio: ['ignore', 'pipe', 'inherit'] });
	let said = '';
	child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()));
	const code = await new Promise((ended) => child.once('exit', ended));
	if (code !== 0) throw new Error(`${url}: an answer was not 200`);
	return Number(said);
}

/** `node:http` and a stream of the file with the same large chunks, and nothing else; in a process of its own, as ours is. */
const bareSource = `
const { createReadStream, statSync } = require('node:fs');
const [, file, port] = process.argv;
const size = statSync(file).size;
require('node:http').createServer((request, response) => {
	response.writeHead(200, { 'content-type': 'application/pdf', 'content-length': size });
	createReadStream(file, { highWaterMark: 512 * 1024 }).pipe(response);
}).listen(Number(port), '127.0.0.1', () => console.log('up'));`;

async function bareServer(file: string): Promise<{ url: string; stop: () => void }> {
	const port = await freePort();
	const child = spawn(process.execPath, ['-e', bareSource, file, String(port)], { stdio: ['ignore', 'pipe', 'inherit'] });
	await new Promise((up) => child.stdout.once('data', up));
	return { url: `http://127.0.0.1:${port}/`, stop: () => child.kill() };
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

build();
try {
	// 1. from ./start to the first page, on an installed machine whose demo is loaded already
	const first = await runIanua({ data, port: await freePort(), demo: true, log: 'error' });
	await first.stop();
	if (wanted('start')) {
		const port = await freePort();
		const began = performance.now();
		const started = spawn('./start', ['--port', String(port), '--data', data], { stdio: 'ignore' });
		while (
			!(await fetch(`http://127.0.0.1:${port}/`).then(
				(r) => r.ok,
				() => false
			))
		)
			await new Promise((go) => setTimeout(go, 50));
		console.log(`from ./start to the first page: ${((performance.now() - began) / 1000).toFixed(1)} s`);
		await new Promise((done) => {
			started.once('exit', done);
			started.kill('SIGINT');
		});
	}

	// 2. a 5 MB file saved by a signed-in member, decision and ledger included, against a bare stream of the same file
	const port = await freePort();
	let running = await runIanua({ data, port, demo: true, log: 'error' });
	const [staff, member] = [await signIn(running.origin, data, 'staff'), await signIn(running.origin, data, 'member')];
	if (wanted('save')) {
		const bytes = await noisePdf(5_000_000);
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(bytes)]), 'five.pdf');
		const { slug } = (await (await fetch(`${running.origin}/api/v1/documents`, { method: 'POST', headers: { cookie: staff }, body: form })).json()) as {
			slug: string;
		};
		await fetch(`${running.origin}/api/v1/documents/${slug}`, {
			method: 'PATCH',
			headers: { cookie: staff, 'content-type': 'application/json' },
			body: JSON.stringify({ door: { position: 'keyed', groups: ['lock-wardens'] } })
		});
		const file = join(data, 'five.pdf');
		writeFileSync(file, bytes);
		const bare = await bareServer(file);
		const save = `${running.origin}/d/${slug}/file?save`;
		const agent = { cookie: member, 'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' };
		const [bares, ours]: [number[], number[]] = [[], []];
		// turn about, so that a noisy neighbour meets both
		for (let round = 0; round < 3; round++) {
			bares.push(await load(bare.url));
			ours.push(await load(save, agent));
		}
		bare.stop();
		const ledger = (await (await fetch(`${running.origin}/api/v1/documents/${slug}/ledger?limit=1`, { headers: { cookie: staff } })).json()) as {
			items: { kind: string }[];
		};
		console.log(
			`a file of ${statSync(file).size} bytes, 32 connections: bare ${median(bares).toFixed(0)}/s, ours ${median(ours).toFixed(0)}/s, ratio ${(median(ours) / median(bares)).toFixed(2)} (last entry: ${ledger.items[0]?.kind})`
		);
	}

	if (wanted('intake')) await benchIntake(running, staff);
	if (wanted('reading')) await benchReading(running, staff);
	if (wanted('placing')) await benchPlacing(running);
	if (wanted('access')) await benchAccess(running);
	if (wanted('site')) await benchSite(running, staff);
	if (wanted('room')) await benchRoom(running, staff, someoneOf(data, 'staff'));
	if (wanted('readership')) await benchReadership(running, staff, load);
	if (wanted('load')) await benchLoad(running, staff);
	if (wanted('kill')) running = await benchKill(running, staff, port);
	await running.stop();
	if (wanted('dev')) await benchDev();
	if (wanted('jobs')) benchJobs();
} finally {
	drop();
}
