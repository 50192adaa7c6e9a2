// The decision with 10,000 documents, 100 groups and 10,000 members, with all it reads from the database; and whom all of them reach.
import { randomBytes } from 'node:crypto';
import { theRow } from '#server/db/rows';
import { Random } from '../demo/random';
import type { Running } from './run';

const share = (values: readonly number[], part: number) => [...values].sort((a, b) => a - b)[Math.ceil(values.length * part) - 1]!;

export async function benchAccess(running: Running): Promise<void> {
	Object.assign(process.env, running.environment);
	const [{ sql, closeDatabase }, { makeMany }, { letInNow, TurnedAway }, { reachOfAll }, { newId }, { makePeople }] = await Promise.all([
		import('#server/db/client'),
		import('../demo/many'),
		import('#server/reading/chain'),
		import('#server/access/reach'),
		import('#server/id'),
		import('./bench-people')
	]);
	const s = sql();
	const random = new Random(5);
	const now = Date.now();
	const { id: actor } = theRow(await s<{ id: string }[]>`select id from person where role = 'owner'`);
	const slugs = await makeMany({ documents: 10_000, pages: 0, seed: 7, actor, now });
	const { groups, people } = await makePeople(s, random, 'bench', 100, 10_000);
	const doors = await s<
		{ id: string }[]
	>`select d.door_id as id from document d join door x on x.id = d.door_id where d.slug like 'many-7-%' and x.position = 'keyed'`;
	const admits = doors.flatMap(({ id }) =>
		[...new Set(Array.from({ length: 1 + Math.floor(random.next() * 4) }, () => random.pick(groups).id))].map((group_id) => ({ door_id: id, group_id }))
	);
	for (let first = 0; first < admits.length; first += 5000) await s`insert into door_group ${s(admits.slice(first, first + 5000))}`;
	const sessions = Array.from({ length: 500 }, () => ({
		id: newId(),
		token: randomBytes(24).toString('hex'),
		person_id: random.pick(people).id,
		expires_at: new Date(now + 86_400_000),
		created_at: new Date(now),
		updated_at: new Date(now)
	}));
	await s`insert into session ${s(sessions)}`;
	await s`vacuum analyze`;

	const rounds = 4000;
	const [times, bare]: [number[], number[]] = [[], []];
	let admitted = 0;
	for (let i = 0; i < rounds + 200; i++) {
		const token = random.next() < 0.2 ? null : random.pick(sessions).token;
		const ask = {
			requestId: 'bench',
			method: 'GET',
			slug: random.pick(slugs),
			query: new URLSearchParams(),
			address: '192.0.2.1',
			header: (name: string) => (name === 'authorization' && token ? `Bearer ${token}` : null)
		};
		const started = performance.now();
		const yes = await letInNow(ask, 'read').then(
			() => true,
			(refusal: unknown) => {
				if (refusal instanceof TurnedAway) return false;
				throw refusal;
			}
		);
		const took = performance.now() - started;
		const before = performance.now();
		await s`select 1`;
		if (i < 200) continue;
		times.push(took);
		bare.push(performance.now() - before);
		if (yes) admitted++;
	}
	console.log(
		`the decision with 10,000 documents, 100 groups and 10,000 members, ${rounds} times (${Math.round((admitted / rounds) * 100)} % let in), with all it reads: median ${share(times, 0.5).toFixed(2)} ms, 99 % within ${share(times, 0.99).toFixed(2)} ms; "select 1" beside it: median ${share(bare, 0.5).toFixed(2)} ms, 99 % within ${share(bare, 0.99).toFixed(2)} ms`
	);
	const passes: number[] = [];
	for (let i = 0; i < 6; i++) {
		const started = performance.now();
		const { reached } = await reachOfAll();
		if (reached.size < 10_000) throw new Error('not all documents were reached');
		if (i > 0) passes.push(performance.now() - started);
	}
	const shut = await s<
		{ slug: string }[]
	>`select d.slug from document d join door x on x.id = d.door_id where d.slug like 'many-7-%' and x.position = 'shut' limit 250`;
	await tellApart(
		running.origin,
		shut.map(({ slug }) => slug)
	);
	console.log(`whom all 10,000 documents reach, one pass: ${passes.map((p) => p.toFixed(0)).join(', ')} ms`);
	await closeDatabase();
}

/** A shut document and one that is not there, turn about: how long each answer takes, and in how many of the pairs the shut one took longer. */
async function tellApart(origin: string, shut: readonly string[]): Promise<void> {
	const took = async (address: string) => {
		const started = performance.now();
		const response = await fetch(origin + address, { headers: { 'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' } });
		await response.arrayBuffer();
		if (response.status !== 404) throw new Error(`${address} answered ${response.status}`);
		const ms = performance.now() - started;
		// what is entered once the answer has left is no part of the next
		await new Promise((go) => setTimeout(go, 40));
		return ms;
	};
	for (const part of ['', '/file', '/cover/300.webp']) {
		const pairs: { shut: number; none: number }[] = [];
		for (const [i, slug] of shut.entries()) {
			const none = `${slug.slice(0, -4)}none`;
			const [first, second] = i % 2 ? [none, slug] : [slug, none];
			const [a, b] = [await took(`/d/${first}${part}`), await took(`/d/${second}${part}`)];
			if (i >= 20) pairs.push(i % 2 ? { shut: b, none: a } : { shut: a, none: b });
		}
		const slower = pairs.filter((p) => p.shut > p.none).length;
		const [s, n] = [pairs.map((p) => p.shut), pairs.map((p) => p.none)];
		console.log(
			`/d/…${part} of a shut document and of none, ${pairs.length} pairs: median ${share(s, 0.5).toFixed(2)} and ${share(n, 0.5).toFixed(2)} ms; the shut one took longer in ${slower} (a coin gives ${Math.round(pairs.length / 2 - Math.sqrt(pairs.length))} to ${Math.round(pairs.length / 2 + Math.sqrt(pairs.length))} in 95 of 100 times)`
		);
	}
}
