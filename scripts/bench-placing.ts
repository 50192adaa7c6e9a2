// All dead ends and side doors of 10,000 documents on 1,000 pages with 100 groups in one pass; and a published article from the server.
import { chromium } from 'playwright';
import { theRow } from '#server/db/rows';
import { chromiumOptions } from './chromium';
import { Random } from '../demo/random';
import type { Running } from './run';

const share = (values: readonly number[], part: number) => [...values].sort((a, b) => a - b)[Math.ceil(values.length * part) - 1]!;

export async function benchPlacing(running: Running): Promise<void> {
	Object.assign(process.env, running.environment);
	const [{ sql, closeDatabase }, { makeMany }, { mismatches }, { newId }, { makePeople }] = await Promise.all([
		import('#server/db/client'),
		import('../demo/many'),
		import('#server/placing/mismatches'),
		import('#server/id'),
		import('./bench-people')
	]);

	// 1. the article first, while the site is as the demo has it: readers' pages in turn, as a visitor
	const pages = ['/', '/volunteering', '/heritage', '/water-levels'];
	const times: number[] = [];
	const received = await transferred(running.origin, pages);
	for (let round = 0; round < 130; round++)
		for (const path of pages) {
			const started = performance.now();
			const response = await fetch(running.origin + path, { headers: { 'accept-encoding': 'identity' } });
			await response.text();
			if (round >= 5) times.push(performance.now() - started);
		}
	const bare: number[] = [];
	for (let i = 0; i < 200; i++) {
		const started = performance.now();
		await (await fetch(`${running.origin}/healthz`)).text();
		bare.push(performance.now() - started);
	}
	console.log(
		`a published article, ${times.length} times over ${pages.length} pages: median ${share(times, 0.5).toFixed(1)} ms, 95 % within ${share(times, 0.95).toFixed(1)} ms (/healthz: ${share(bare, 0.5).toFixed(1)}, ${share(bare, 0.95).toFixed(1)}); without pictures ${pages.map((path, i) => `${path} ${(received[i]! / 1000).toFixed(0)} kB`).join(', ')}`
	);

	// 2. everything on everything
	const s = sql();
	const random = new Random(9);
	const now = Date.now();
	const day = (days: number) => new Date(now + days * 86_400_000).toISOString().slice(0, 10);
	const { id: actor } = theRow(await s<{ id: string }[]>`select id from person where role = 'owner'`);
	await makeMany({ documents: 10_000, pages: 0, seed: 13, actor, now });
	const documents = await s<{ id: string; door_id: string; position: string }[]>`
		select d.id, d.door_id, x.position from document d join door x on x.id = d.door_id where d.slug like 'many-13-%'`;
	const { groups } = await makePeople(s, random, 'placing', 100, 2_000);
	const pageDoors = Array.from({ length: 1000 }, () => ({
		id: newId(),
		position: random.next() < 0.5 ? 'open' : 'keyed',
		all_members: random.next() < 0.2,
		until_bound: random.next() < 0.2 ? day(30 + Math.floor(random.next() * 300)) : null
	}));
	await s`insert into door ${s(pageDoors)}`;
	const admits = [
		...documents.filter((d) => d.position === 'keyed').map((d) => d.door_id),
		...pageDoors.filter((d) => d.position === 'keyed').map((d) => d.id)
	].flatMap((door_id) =>
		[...new Set(Array.from({ length: 1 + Math.floor(random.next() * 3) }, () => random.pick(groups).id))].map((group_id) => ({ door_id, group_id }))
	);
	for (let first = 0; first < admits.length; first += 5000) await s`insert into door_group ${s(admits.slice(first, first + 5000))} on conflict do nothing`;
	const made = pageDoors.map((door, i) => ({
		id: newId(),
		path: `/placing/${i}`,
		title: `Placing ${i}`,
		draft_title: `Placing ${i}`,
		door_id: door.id,
		draft: { type: 'doc', content: [] }
	}));
	for (let first = 0; first < made.length; first += 500) await s`insert into page ${s(made.slice(first, first + 500))}`;
	const placements = documents.map((d, i) => ({
		id: `bench-${i}`,
		page_id: made[i % made.length]!.id,
		document_id: d.id,
		form: 'text',
		press: 'page',
		published: true
	}));
	for (let first = 0; first < placements.length; first += 5000) await s`insert into placement ${s(placements.slice(first, first + 5000))}`;
	await s`vacuum analyze`;
	const passes: number[] = [];
	let found = 0;
	for (let i = 0; i < 6; i++) {
		const started = performance.now();
		const all = await mismatches();
		if (i > 0) passes.push(performance.now() - started);
		found = all.length;
		if (all.length < 1000) throw new Error('too few were found to mean anything');
	}
	console.log(
		`all mismatches of ${placements.length} placements on 1,000 pages with 100 groups, one pass (${found} found): ${passes.map((p) => p.toFixed(0)).join(', ')} ms`
	);
	await closeDatabase();
}

/** Bytes that Chromium receives for each page when nothing of it is known yet: all but pictures. */
async function transferred(origin: string, paths: readonly string[]): Promise<number[]> {
	const browser = await chromium.launch(chromiumOptions);
	const all: number[] = [];
	for (const path of paths) {
		const context = await browser.newContext();
		const tab = await context.newPage();
		const devtools = await context.newCDPSession(tab);
		await devtools.send('Network.enable');
		const counted = new Set<string>();
		let bytes = 0;
		// the browser's own page about a frame that was kept out comes from nowhere
		devtools.on('Network.responseReceived', ({ requestId, type, response }) => {
			if (type !== 'Image' && response.url.startsWith(origin)) counted.add(requestId);
		});
		devtools.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
			if (counted.has(requestId)) bytes += encodedDataLength;
		});
		// what is read in a frame is the reading room's, not the page's
		await tab.route(/\/read\?/, (route) => route.abort());
		await tab.goto(origin + path);
		await tab.waitForLoadState('networkidle');
		await context.close();
		all.push(bytes);
	}
	await browser.close();
	return all;
}
