// What readers wait for on the site: the front page on a slow line, the reading text of a long document, and find over all of it.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { join } from 'node:path';
import { chromium } from 'playwright';
import { theRow } from '#server/db/rows';
import { makePeople } from './bench-people';
import { bringOpen } from './bring';
import { chromiumOptions } from './chromium';
import { Random } from '../demo/random';
import type { Running } from './run';
import { prepareSamples, samples } from './samples';
import { scratch } from './scratch';

const share = (values: readonly number[], part: number) => [...values].sort((a, b) => a - b)[Math.ceil(values.length * part) - 1]!;
const told = (values: readonly number[]) => `median ${share(values, 0.5).toFixed(0)} ms, 95 % within ${share(values, 0.95).toFixed(0)} ms`;

/** The largest paint of the front page at 1.6 Mbit/s and 150 ms there and back, by a browser that has nothing yet; ms. */
async function largestPaint(origin: string): Promise<number[]> {
	const browser = await chromium.launch(chromiumOptions);
	const paints: number[] = [];
	for (let round = 0; round < 5; round++) {
		const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
		const page = await context.newPage();
		const session = await context.newCDPSession(page);
		await session.send('Network.enable');
		await session.send('Network.emulateNetworkConditions', { offline: false, latency: 150, downloadThroughput: 1_600_000 / 8, uploadThroughput: 750_000 / 8 });
		await page.goto(origin, { waitUntil: 'load' });
		paints.push(
			await page.evaluate(
				() =>
					new Promise<number>((done) => {
						new PerformanceObserver((list) => done(list.getEntries().at(-1)!.startTime)).observe({ type: 'largest-contentful-paint', buffered: true });
					})
			)
		);
		await context.close();
	}
	await browser.close();
	return paints;
}

/** From asking to the whole answer, ms, and its bytes as they travel. */
async function ask(address: string, headers: Record<string, string> = {}): Promise<{ ms: number; bytes: number }> {
	const began = performance.now();
	const answer = await fetch(address, { headers });
	const text = await answer.text();
	if (!answer.ok) throw new Error(`${address}: ${answer.status}`);
	return { ms: performance.now() - began, bytes: gzipSync(text).length };
}

export async function benchSite(running: Running, staff: string): Promise<void> {
	const paints = await largestPaint(running.origin);
	console.log(`the front page at 1.6 Mbit/s and 150 ms, ${paints.length} times: largest paint after ${told(paints)}`);

	// a tagged handbook of Debian's, its pages again and again until there are 400
	await prepareSamples();
	const { path, drop } = scratch('bench-site');
	const file = join(path, 'long.pdf');
	execFileSync('qpdf', ['--empty', '--pages', ...Array.from({ length: 37 }, () => [samples.tagged, '1-z']).flat(), '--', file]);
	const slug = await bringOpen(running.origin, staff, readFileSync(file), 'long.pdf');
	drop();
	const text = `${running.origin}/d/${slug}/text`;
	const [bare, first, later]: [number[], number[], number[]] = [[], [], []];
	first.push((await ask(text)).ms);
	let bytes = 0;
	for (let i = 0; i < 30; i++) {
		bare.push((await ask(`${running.origin}/healthz`)).ms);
		const answer = await ask(text);
		later.push(answer.ms);
		({ bytes } = answer);
	}
	console.log(
		`the reading text of 407 pages: first asked for ${first[0]!.toFixed(0)} ms, then ${told(later)} (${(share(later, 0.5) / share(bare, 0.5)).toFixed(1)} times an answer without anything), ${(bytes / 1000).toFixed(0)} kB`
	);

	Object.assign(process.env, running.environment);
	const [{ sql, closeDatabase }, { makeMany }, { listFor }, { findPages }, { personAt }] = await Promise.all([
		import('#server/db/client'),
		import('../demo/many'),
		import('#server/placing/catalogue'),
		import('#server/placing/find'),
		import('#server/people/who')
	]);
	const s = sql();
	const random = new Random(17);
	const { id } = theRow(await s<{ id: string }[]>`select id from person where role = 'owner'`);
	await makeMany({ documents: 10_000, pages: 10, seed: 3, actor: id, now: Date.now() });
	const { groups, people } = await makePeople(s, random, 'finder', 100, 60);
	const doors = await s<{ id: string }[]>`select d.door_id as id from document d join door o on o.id = d.door_id where o.position = 'keyed'`;
	const admitted = doors.flatMap((door) =>
		Array.from({ length: 1 + Math.floor(random.next() * 3) }, () => ({ door_id: door.id, group_id: random.pick(groups).id }))
	);
	for (let from = 0; from < admitted.length; from += 5000) await s`insert into door_group ${s(admitted.slice(from, from + 5000))} on conflict do nothing`;
	await s.unsafe('vacuum analyze');
	const words = await s<{ word: string; part: number }[]>`
		select word, ndoc / (select count(*)::float from edition_page where config = 'find_english'::regconfig) as part
		from ts_stat('select words from edition_page where config = ''find_english''::regconfig') order by word`;
	const between = (least: number, most: number) => words.filter((w) => w.part >= least && w.part < most).map((w) => w.word);
	const [rare, usual] = [between(0.0002, 0.01), between(0.01, 0.2)];
	const times: number[] = [];
	for (let round = 0; round < 120; round++) {
		const caller = (await personAt(random.pick(people).email))!;
		const q = round % 3 === 0 ? `${random.pick(usual)} ${random.pick(usual)}` : random.pick(round % 3 === 1 ? rare : usual);
		const began = performance.now();
		await Promise.all([
			findPages(caller, q, 'en'),
			listFor({ show: 'list', order: '-changed', beside: false, filters: true }, caller, { q, place: `place ${round}`, language: 'en' })
		]);
		if (round >= 20) times.push(performance.now() - began);
	}
	console.log(`find over the site, 100,000 pages behind doors of 100 groups, by ${people.length} members, ${times.length} times: ${told(times)}`);
	const everything: number[] = [];
	for (let round = 0; round < 10; round++) {
		const caller = (await personAt(random.pick(people).email))!;
		const began = performance.now();
		await listFor({ show: 'list', order: '-changed', beside: false, filters: true }, caller, { language: 'en' });
		everything.push(performance.now() - began);
	}
	console.log(`the same without words: ${told(everything)}`);
	await closeDatabase();
}
