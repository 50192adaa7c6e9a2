// Figures, as ratios taken in one run: npm run bench. What they mean and what they were stands in docs/benchmarks.md.
import { spawn } from 'node:child_process';
import { statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build';
import { benchAccess } from './bench-access';
import { benchCrowd } from './bench-crowd';
import { benchDev } from './bench-dev';
import { benchIntake } from './bench-intake';
import { benchJobs } from './bench-jobs';
import { benchLoad } from './bench-load';
import { benchPlacing } from './bench-placing';
import { benchProxy } from './bench-proxy';
import { benchReading } from './bench-reading';
import { benchKill, benchReadership } from './bench-readership';
import { benchRoom } from './bench-room';
import { benchServe } from './bench-serve';
import { benchSite } from './bench-site';
import { benchUpgrade } from './bench-upgrade';
import { bareServer, load } from './load';
import { noisePdf } from './noise-pdf';
import { signIn, someoneOf } from './bring';
import { freePort } from '#server/db/cluster';
import { runIanua } from './run';
import { scratch } from './scratch';

/** IANUA_BENCH_DATA: a folder that is kept, so that ten million entries need not be made for each run. */
const { path: data, drop } = scratch('bench', process.env.IANUA_BENCH_DATA);
/** npm run bench -- save: only that one. */
const wanted = (
	part:
		| 'start'
		| 'crowd'
		| 'upgrade'
		| 'save'
		| 'intake'
		| 'room'
		| 'access'
		| 'placing'
		| 'reading'
		| 'readership'
		| 'load'
		| 'kill'
		| 'dev'
		| 'jobs'
		| 'site'
		| 'serve'
		| 'proxy'
) => !process.argv[2] || process.argv[2] === part;

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
	const given: Record<string, string> = wanted('proxy') || wanted('crowd') ? { IANUA_FILES_BY_PROXY: '/store/', IANUA_PROXIES: '1' } : {};
	let running = await runIanua({ data, port, demo: true, log: 'error', given });
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
			bares.push((await load(bare.url)).perSecond);
			ours.push((await load(save, { headers: agent })).perSecond);
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
	if (wanted('serve')) await benchServe(running, staff, member);
	if (wanted('proxy')) await benchProxy(running, staff);
	if (wanted('crowd')) await benchCrowd(running, staff);
	if (wanted('site')) await benchSite(running, staff);
	if (wanted('room')) await benchRoom(running, staff, someoneOf(data, 'staff'));
	if (wanted('readership')) await benchReadership(running, staff);
	if (wanted('load')) await benchLoad(running, staff);
	if (wanted('kill')) running = await benchKill(running, staff, port);
	await running.stop();
	if (wanted('dev')) await benchDev();
	if (wanted('jobs')) benchJobs();
	if (wanted('upgrade')) await benchUpgrade();
} finally {
	drop();
}
