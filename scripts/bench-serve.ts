// What readers ask who go on reading: parts of a file, a file again and again, pages of the site; and what the server does while nobody asks.
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { join } from 'node:path';
import { theRow } from '#server/db/rows';
import { bringOpen } from './bring';
import { bareServer, load, type LoadOptions } from './load';
import { noisePdf } from './noise-pdf';
import type { Running } from './run';

const rounds = 3;
const seconds = 4;
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!;
const agent = { 'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' };

interface Asked {
	readonly words: string;
	readonly url: string;
	readonly options?: LoadOptions;
}

/** Asks for each in turn, some rounds, and gives the medians: answers a second, and ms within which half of them were whole. */
async function turnAbout(all: readonly Asked[]): Promise<{ perSecond: number; half: number }[]> {
	const seen = all.map(() => ({ perSecond: [] as number[], half: [] as number[] }));
	for (let round = 0; round < rounds; round++)
		for (const [i, { url, options }] of all.entries()) {
			const { perSecond, half } = await load(url, { seconds, headers: options?.fresh ? {} : agent, ...options });
			seen[i]!.perSecond.push(perSecond);
			seen[i]!.half.push(half);
		}
	return seen.map(({ perSecond, half }) => ({ perSecond: median(perSecond), half: median(half) }));
}

/** Prints what was asked beside the first of them. */
async function beside(all: readonly [Asked, ...Asked[]]): Promise<void> {
	const [bare, ...ours] = await turnAbout(all);
	const rate = (n: number) => `${n.toFixed(0)}/s`;
	console.log(
		`${all[0].words} ${rate(bare!.perSecond)}; ${ours
			.map(
				({ perSecond, half }, i) =>
					`${all[i + 1]!.words} ${rate(perSecond)}, half within ${half.toFixed(1)} ms, ratio ${(perSecond / bare!.perSecond).toFixed(2)}`
			)
			.join('; ')}`
	);
}

const megabytes = (pid: number): number => Number(/^VmRSS:\s+(\d+) kB$/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

export async function benchServe(running: Running, staff: string, member: string): Promise<void> {
	const { origin, data, pid } = running;
	const before = megabytes(pid);
	for (const [bytes, fresh] of [
		[130_000, true],
		[4_800_000, false]
	] as const) {
		// prettier-ignore
		const content = await noisePdf(bytes);
		const path = join(data, 'served.pdf');
		writeFileSync(path, content);
		const bare = await bareServer(path);
		const url = `${origin}/d/${await bringOpen(origin, staff, content, `served-${bytes}.pdf`)}/file`;
		await beside([
			{ words: `a file of ${bytes / 1000} kB, 32 connections: bare`, url: bare.url },
			{ words: 'one reader again and again', url },
			...(fresh ? [{ words: 'a new reader each time', url, options: { fresh } }] : [])
		]);
		if (!fresh) {
			const options = { connections: 8, rangeOf: content.length };
			await beside([
				{ words: 'its parts of 64 KiB, 8 at once: bare', url: bare.url, options },
				{ words: 'one reading', url, options }
			]);
		}
		bare.stop();
		rmSync(path);
	}

	const words = createServer((_, response) => response.writeHead(200, { 'content-type': 'text/html', 'content-length': 5 }).end('words')).listen(
		0,
		'127.0.0.1'
	);
	await new Promise((up) => words.once('listening', up));
	const address = words.address();
	const connections = 16;
	await beside([
		{
			words: 'the front page, 16 connections: a bare word',
			url: `http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}/`,
			options: { connections }
		},
		{ words: '/healthz', url: `${origin}/healthz`, options: { connections } },
		{ words: 'a visitor', url: `${origin}/`, options: { connections } },
		{ words: 'a member', url: `${origin}/`, options: { connections, headers: { ...agent, cookie: member } } }
	]);
	words.close();

	Object.assign(process.env, running.environment);
	const { sql, closeDatabase } = await import('#server/db/client');
	const statements = async () =>
		Number(theRow(await sql()<{ n: string }[]>`select xact_commit + xact_rollback as n from pg_stat_database where datname = current_database()`).n);
	// what the load left to be summed up is done first
	await new Promise((go) => setTimeout(go, 90_000));
	const began = await statements();
	await new Promise((go) => setTimeout(go, 60_000));
	console.log(
		`idle for a minute: ${(await statements()) - began - 1} statements; memory ${before.toFixed(0)} MB before the load, ${megabytes(pid).toFixed(0)} MB after it`
	);
	await closeDatabase();
}
