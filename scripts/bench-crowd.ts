// A thousand readers at once on two web servers behind nginx: each looks at a document's page, opens it and reads on part by part, with pauses as people make them.
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import { freePort } from '#server/db/cluster';
import { bringOpen } from './bring';
import { startNginx } from './nginx';
import { noisePdf } from './noise-pdf';
import type { Running } from './run';

const readers = 1_000;
/** They come within so many seconds, and stay in pauses of half to one and a half times this. */
const [withinSeconds, pauseMs] = [10, 2_000];
const parts = 8;
const partBytes = 64 * 1024;
const share = (values: readonly number[], part: number) => [...values].sort((a, b) => a - b)[Math.ceil(values.length * part) - 1]!;
const told = (values: readonly number[]) => `${values.length}, median ${share(values, 0.5).toFixed(0)} ms, 95 % within ${share(values, 0.95).toFixed(0)} ms`;
const wait = (ms: number) => new Promise((go) => setTimeout(go, ms));

export async function benchCrowd(running: Running, staff: string): Promise<void> {
	const { origin, data, environment } = running;
	const otherPort = await freePort();
	const other = fork('build/web.js', { execArgv: [], env: { ...environment, IANUA_PORT: String(otherPort) }, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
	await once(other, 'message');
	const nginx = await startNginx({ ports: [Number(new URL(origin).port), otherPort], files: join(data, 'files'), folder: data, at: join(data, 'nginx') });
	try {
		const slug = await bringOpen(origin, staff, await noisePdf(5_000_000), 'crowded.pdf');
		const seen = { page: [] as number[], room: [] as number[], first: [] as number[], further: [] as number[] };
		let failed = 0;
		const ask = async (kind: keyof typeof seen, path: string, headers: Record<string, string>) => {
			const began = performance.now();
			const response = await fetch(nginx.origin + path, { headers });
			await response.arrayBuffer();
			if (response.ok) seen[kind].push(performance.now() - began);
			else failed++;
		};
		const one = async (n: number) => {
			// readers without a name are told apart by their address and browser; all of these have one address
			const headers = { 'user-agent': `Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0 ${n}` };
			const pause = () => wait(pauseMs * (0.5 + Math.abs(Math.sin(n * 7 + performance.now()))));
			await wait((withinSeconds * 1000 * n) / readers);
			await ask('page', `/d/${slug}`, headers);
			await pause();
			await ask('room', `/d/${slug}/read`, headers);
			for (let part = 0; part < parts; part++) {
				if (part) await pause();
				const range = `bytes=${part * partBytes}-${(part + 1) * partBytes - 1}`;
				await ask(part ? 'further' : 'first', `/d/${slug}/file`, { ...headers, range });
			}
		};
		const began = performance.now();
		await Promise.all(Array.from({ length: readers }, (_, n) => one(n)));
		const seconds = (performance.now() - began) / 1000;
		const all = Object.values(seen).flat().length;
		const figures = async () => {
			const answer = await fetch(`${origin}/api/v1/readership/documents/${slug}?days=30`, { headers: { cookie: staff } });
			return ((await answer.json()) as { figures?: { openings: number } }).figures?.openings;
		};
		let openings = await figures();
		for (let tries = 0; openings !== readers && tries < 50; tries++) {
			await wait(200);
			openings = await figures();
		}
		console.log(
			`${readers} readers at once on two web servers behind nginx, ${all} requests in ${seconds.toFixed(0)} s (${(all / seconds).toFixed(0)}/s), ${failed} failed, ${openings} openings in the report\n  the document’s page: ${told(seen.page)}\n  the reading room: ${told(seen.room)}\n  the first part of the file, entered before it leaves: ${told(seen.first)}\n  what follows: ${told(seen.further)}`
		);
	} finally {
		await nginx.stop();
		other.kill('SIGTERM');
		await once(other, 'exit');
	}
}
