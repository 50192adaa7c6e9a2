// The ledger and its reports: the writer beside pgbench, power cuts, and every report with ten million entries of a year.
import { execFileSync, spawnSync } from 'node:child_process';
import { createServer } from 'node:http';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { finished } from 'node:stream/promises';
import type postgres from 'postgres';
import { v7 } from 'uuid';
import { Random } from '../demo/random';
import { bringOpen, signIn } from './bring';
import { kill, type Kills, type Mishap } from './kills';
import { freePort } from '#server/db/cluster';
import { load } from './load';
import { runIanua, type Running } from './run';
import { scratch } from './scratch';
import { theRow } from '#server/db/rows';

const share = (values: readonly number[], part: number) => [...values].sort((a, b) => a - b)[Math.ceil(values.length * part) - 1]!;
const dayMs = 86_400_000;

/** `IANUA_BENCH_ENTRIES` makes it smaller, to try it. */
const entries = Number(process.env.IANUA_BENCH_ENTRIES ?? 10_000_000);

/** Keeps readers apart by a cookie, as each of those who ask here is another. */
const rememberReaders = (origin: string, staff: string) =>
	fetch(`${origin}/api/v1/site`, {
		method: 'PATCH',
		headers: { cookie: staff, 'content-type': 'application/json' },
		body: JSON.stringify({ readership: { nameless: 'cookie' } })
	});

/** Twenty mishaps of each kind, under fifty readers; the full disk on one of its own in memory, where that can be mounted. */
export async function benchKill(running: Running, staff: string, port: number): Promise<Running> {
	await rememberReaders(running.origin, staff);
	const path = '/d/towpath-map/file';
	const say = (what: Mishap, { answered, missing, twice, cut }: Kills) =>
		console.log(
			`${what} 20 times under 50 readers: ${answered} answers of which a byte arrived, ${missing} without an entry, ${twice} entered twice; ${cut} requests got no byte`
		);
	let now = running;
	for (const what of ['web server killed', 'PostgreSQL killed', 'PostgreSQL restarted'] as const) {
		const done = await kill(what, 20, now, port, path);
		now = done.running;
		say(what, done.kills);
	}
	const { path: small, drop } = scratch('small-disk');
	if (spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=700m,mode=755', 'tmpfs', small]).status !== 0) {
		console.log('disk filled: not tried, as no small disk can be mounted here');
		drop();
		return now;
	}
	try {
		const own = await runIanua({ data: small, port: await freePort(), demo: true, log: 'silent' });
		await rememberReaders(own.origin, await signIn(own.origin, small, 'staff'));
		const done = await kill('disk filled', 20, own, Number(new URL(own.origin).port), path);
		say('disk filled', done.kills);
		await done.running.stop();
	} finally {
		spawnSync('umount', [small]);
		drop();
	}
	return now;
}

export async function benchReadership(running: Running, staff: string): Promise<void> {
	Object.assign(process.env, running.environment);
	const [{ sql, closeDatabase }, { enterLine }, { sumAgain }] = await Promise.all([
		import('#server/db/client'),
		import('#server/reading/writer'),
		import('#server/readership/sums/keep')
	]);
	const s = sql();
	const { id: document, edition_id: edition } = theRow(
		await s<{ id: string; edition_id: string }[]>`select id, edition_id from document where slug = 'towpath-map'`
	);

	// 1. the writer: 64 callers, each waiting for its own commit, turn about with pgbench; as robots, so that no report has them
	const line = (reader: string) => ({
		...{
			id: v7(),
			kind: 'opened' as const,
			document,
			edition,
			reader,
			kept: true,
			who: 'visitor' as const,
			person: null,
			reason: null,
			placement: null,
			path: null
		},
		...{
			outside: null,
			source: 'direct' as const,
			staff: false,
			robot: true,
			preload: false,
			key: null,
			stamp: null,
			device: 'computer' as const,
			controlled: false,
			goesOn: true
		}
	});
	const ours: number[] = [];
	const theirs: number[] = [];
	for (let round = 0; round < 3; round++) {
		let done = 0;
		const until = Date.now() + 6_000;
		await Promise.all(
			Array.from({ length: 64 }, async () => {
				while (Date.now() < until) {
					await enterLine(line(`c:${crypto.randomUUID()}`));
					done++;
				}
			})
		);
		ours.push(done / 6);
		theirs.push(await pgbench(running.environment.IANUA_DATABASE_URL!));
	}
	const [ourHalf, theirHalf] = [share(ours, 0.5), share(theirs, 0.5)];
	console.log(
		`the ledger’s writer, 64 callers: ${ourHalf.toFixed(0)} entries/s; pgbench, 64 clients, single-row inserts: ${theirHalf.toFixed(0)}/s; ratio ${(ourHalf / theirHalf).toFixed(2)}`
	);

	await benchDelivery(running, staff);

	// 2. ten million entries of a year on 500 documents by 200,000 readers
	const now = Date.now();
	const { filled } = theRow(await s<{ filled: boolean }[]>`select exists (select 1 from document where slug like 'many-17-%') as filled`);
	if (!filled) {
		await fill(s, now);
		const summing = Date.now();
		await sumAgain();
		console.log(`all sums of ${entries} entries made anew in ${((Date.now() - summing) / 1000).toFixed(0)} s`);
		await s`vacuum analyze sum_figures, sum_source, sum_reader, sum_page, sum_refused, sum_reason, progress, sum_readers, reader`;
	}
	const many = await s<{ id: string; slug: string; edition_id: string }[]>`select id, slug, edition_id from document where slug like 'many-17-%' order by slug`;
	const people = await s<{ id: string }[]>`select id from person where role = 'member'`;

	// 3. every report, as a program asks for it
	const today = new Date(now).toISOString().slice(0, 10);
	const day = (back: number) => new Date(now - back * dayMs).toISOString().slice(0, 10);
	const busiest = many[0]!.slug;
	const reports: [string, string][] = [
		['overview, 30 days', '/readership/overview?days=30'],
		['overview, a year', '/readership/overview?days=365'],
		['busiest document, 30 days', `/readership/documents/${busiest}?days=30`],
		['busiest document, a year', `/readership/documents/${busiest}?days=365`],
		['middling document, 30 days', `/readership/documents/${many[250]!.slug}?days=30`],
		['middling document, a year', `/readership/documents/${many[250]!.slug}?days=365`],
		['a member, 30 days', `/readership/members/${people[0]!.id}?days=30`],
		['a member, a year', `/readership/members/${people[0]!.id}?days=365`],
		['where placed, 30 days', '/readership/places?days=30'],
		['where placed, a year', '/readership/places?days=365'],
		['turned away, 30 days', '/readership/turned-away?days=30'],
		['turned away, a year', '/readership/turned-away?days=365'],
		['item report, 30 days', '/readership/items?days=30'],
		['item report, a year', '/readership/items?days=365'],
		['chosen dates, 14 days', `/readership/overview?from=${day(40)}&until=${day(27)}`],
		['entries of a document', `/documents/${busiest}/ledger?limit=50`]
	];
	for (const [name, path] of reports) {
		const times: number[] = [];
		for (let i = 0; i < 41; i++) {
			const started = performance.now();
			const response = await fetch(`${running.origin}/api/v1${path}`, { headers: { cookie: staff } });
			await response.text();
			if (!response.ok) throw new Error(`${path}: ${response.status}`);
			if (i) times.push(performance.now() - started);
		}
		console.log(`${name}: median ${share(times, 0.5).toFixed(0)} ms, 95 % within ${share(times, 0.95).toFixed(0)} ms`);
	}

	// 4. beside the same figures by GROUP BY over the raw entries
	const plain: number[] = [];
	const summed: number[] = [];
	for (let i = 0; i < 3; i++) {
		let started = performance.now();
		await s`
			select document_id, count(*) filter (where kind = 'opened'), count(*) filter (where kind = 'saved'), count(distinct reader) filter (where kind in ('opened', 'saved'))
			from ledger where at >= ${day(29)}::date and at < ${today}::date + 1 and not staff and not robot and not preload group by 1`;
		plain.push(performance.now() - started);
		started = performance.now();
		await (await fetch(`${running.origin}/api/v1/readership/overview?days=30`, { headers: { cookie: staff } })).text();
		summed.push(performance.now() - started);
	}
	console.log(
		`30 days by document, GROUP BY over the raw entries: ${share(plain, 0.5).toFixed(0)} ms; the whole overview from the sums: ${share(summed, 0.5).toFixed(0)} ms; ratio ${(share(plain, 0.5) / share(summed, 0.5)).toFixed(1)}`
	);
	await closeDatabase();
}

/** Ten million entries of a year on 500 documents by 200,000 readers. */
async function fill(s: postgres.Sql, now: number): Promise<void> {
	const { makeMany } = await import('../demo/many');
	const random = new Random(7);
	const { id: actor } = theRow(await s<{ id: string }[]>`select id from person where role = 'owner'`);
	await makeMany({ documents: 500, pages: 0, seed: 17, actor, now });
	const many = await s<{ id: string; slug: string; edition_id: string }[]>`select id, slug, edition_id from document where slug like 'many-17-%' order by slug`;
	const people = await s<{ id: string }[]>`select id from person where role = 'member'`;
	const pages = await s<{ id: string }[]>`select id from page`;
	for (let back = 0; back <= 365; back += 15) await s`select ledger_month(${new Date(now - back * dayMs).toISOString().slice(0, 10)}::date)`;
	const began = Date.now();
	const copy = await s`
		copy ledger (id, at, kind, document_id, edition_id, reading_id, reader, who, person_id, source_kind, page_id, staff, robot, preload, device, controlled, attention) from stdin`.writable();
	const start = now - 364 * dayMs;
	let chunk: string[] = [];
	for (let i = 0; i < entries; i++) {
		const at = start + Math.floor((i / entries) * 364 * dayMs);
		// documents and readers by a power law: a few are much read, most little
		const d = many[Math.floor(random.next() ** 3 * many.length)]!;
		const n = random.next();
		const kind = n < 0.45 ? 'opened' : n < 0.55 ? 'saved' : n < 0.8 ? 'read' : n < 0.84 ? 'turned-away' : n < 0.94 ? 'shown' : 'looked';
		const member = random.next() < 0.1 ? random.pick(people).id : null;
		const reader = member ? `p:${member}` : `c:${Math.floor(random.next() ** 2 * 200_000)}`;
		const page = random.next() < 0.5 ? random.pick(pages).id : null;
		const id = v7({ msecs: at });
		const attention = kind === 'read' ? `[{"page": ${1 + Math.floor(random.next() * 9)}, "seconds": ${1 + Math.floor(random.next() * 60)}}]` : '\\N';
		chunk.push(
			[
				id,
				new Date(at).toISOString(),
				kind,
				d.id,
				d.edition_id,
				id,
				reader,
				member ? 'member' : 'visitor',
				member ?? '\\N',
				page ? 'page' : 'direct',
				page ?? '\\N',
				random.next() < 0.02 ? 't' : 'f',
				random.next() < 0.03 ? 't' : 'f',
				'f',
				random.next() < 0.6 ? 'computer' : 'phone',
				'f',
				attention
			].join('\t')
		);
		if (chunk.length === 5_000) {
			if (!copy.write(chunk.join('\n') + '\n')) await new Promise((drained) => copy.once('drain', drained));
			chunk = [];
		}
	}
	if (chunk.length) copy.write(chunk.join('\n') + '\n');
	copy.end();
	await finished(copy);
	await s`analyze ledger`;
	console.log(`${entries} entries copied in ${((Date.now() - began) / 1000).toFixed(0)} s`);
}

/**
 * A file of 100 kB saved over and over, each save an entry, beside the same chain with its entries left out (as when staff try a door). Both
 * are answered by one server made of the chain itself, turn about.
 */
async function benchDelivery(running: Running, staff: string): Promise<void> {
	const [{ answerFile }, { sendAnswer }, { noisePdf }] = await Promise.all([
		import('#server/reading/chain'),
		import('#server/reading/deliver'),
		import('./noise-pdf')
	]);
	const slug = await bringOpen(running.origin, staff, await noisePdf(100_000), 'hundred.pdf');
	const nobody = { who: { kind: 'visitor' as const }, person: null };
	let asked = 0;
	const server = createServer((request, response) => {
		const tried = request.url === '/without';
		// every request is another reader's, as it would be
		const address = `${(++asked >> 16) & 255}.${(asked >> 8) & 255}.${asked & 255}.1`;
		const header = (name: string) => (request.headers[name] as string | undefined) ?? null;
		const caller = tried ? { ...nobody, trial: { at: Date.now(), key: null } } : nobody;
		answerFile({ requestId: 'bench', method: 'GET', slug, query: new URLSearchParams('save'), address, header, caller: caller })
			.then((answer) => sendAnswer(answer, response))
			.catch((error: unknown) => response.writeHead(500).end(String(error)));
	}).listen(0, '127.0.0.1');
	await new Promise((up) => server.once('listening', up));
	const address = server.address();
	const origin = `http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`;
	const agent = { 'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' };
	const [without, withIt]: [number[], number[]] = [[], []];
	for (let round = 0; round < 3; round++) {
		without.push((await load(`${origin}/without`, { headers: agent })).perSecond);
		withIt.push((await load(`${origin}/with`, { headers: agent })).perSecond);
	}
	server.close();
	const [bare, entered] = [share(without, 0.5), share(withIt, 0.5)];
	console.log(
		`a file of 100 kB, 32 connections, saved without the ledger ${bare.toFixed(0)}/s, with it ${entered.toFixed(0)}/s, ratio ${(entered / bare).toFixed(2)}`
	);
}

/** Single-row inserts by 64 clients for 6 s, each its own transaction, into the ledger itself (as robots, so that nothing counts them): rows a second. */
async function pgbench(url: string): Promise<number> {
	const { default: postgres } = await import('postgres');
	const s = postgres(url, { max: 1, onnotice: () => {} });
	const row = theRow(await s<{ document_id: string; edition_id: string }[]>`select id as document_id, edition_id from document limit 1`);
	await s.end();
	const folder = mkdtempSync(join(tmpdir(), 'ianua-pgbench-'));
	const script = join(folder, 'insert.sql');
	writeFileSync(
		script,
		`insert into ledger (id, at, kind, document_id, edition_id, reading_id, reader, who, source_kind, staff, robot, preload) values (gen_random_uuid(), clock_timestamp(), 'opened', '${row.document_id}', '${row.edition_id}', gen_random_uuid(), 'c:' || gen_random_uuid(), 'visitor', 'direct', false, true, false);\n`
	);
	try {
		const version = readdirSync('/usr/lib/postgresql').sort((a, b) => Number(b) - Number(a))[0]!;
		const said = execFileSync(`/usr/lib/postgresql/${version}/bin/pgbench`, ['-n', '-c', '64', '-j', '2', '-T', '6', '-M', 'prepared', '-f', script, url], {
			encoding: 'utf8',
			stdio: ['ignore', 'pipe', 'pipe']
		});
		return Number(/tps = ([\d.]+)/.exec(said)![1]);
	} finally {
		rmSync(folder, { recursive: true });
	}
}
