// Readership: sums against plain SQL over the raw entries, the roll call and its reminders, reports, what happens just now.
import { describe, expect, it } from 'vitest';
import { browserAgent, document, ledgerOf, member, origin, secondEdition, setBack, staff, until, visitor, zone, type DocumentJson } from './help';
import { mailTo } from './mails';
import type { Entry } from '#server/readership/recent';

const { sql } = await import('#server/db/client');
const { sumAgain, sumUp } = await import('#server/readership/sums/keep');
const { readersIn, wholeSite } = await import('#server/readership/sums/figures');
const { Recent } = await import('#server/readership/recent');
const { site } = await import('#server/site/site');
const { dayOf } = await import('#core/access/hours');
const { hourIn } = await import('#core/readership/clock');
const { robotOpeningsAnHour } = await import('#core/readership/counting');
const reader = () => crypto.randomUUID();
const drain = async (response: Promise<Response>) => (await response).arrayBuffer();
const editionOf = async (id: string) => (await sql()<{ edition_id: string }[]>`select edition_id from document where id = ${id}`)[0]!.edition_id;

/** Entries of a made-up time, written as they are. */
async function enter(document: DocumentJson, entries: readonly { at: Date; kind: string; reader: string; [more: string]: unknown }[]): Promise<void> {
	const edition_id = await editionOf(document.id);
	const rows = entries.map((e) => ({
		...{ id: crypto.randomUUID(), document_id: document.id, edition_id, reading_id: crypto.randomUUID(), who: 'visitor', source_kind: 'direct' },
		...{ staff: false, robot: false, preload: false, ...e }
	}));
	for (let i = 0; i < rows.length; i += 1000)
		await sql()`insert into ledger select * from jsonb_populate_recordset(null::ledger, ${sql().json(rows.slice(i, i + 1000))})`;
}

/** A fixed stream of numbers. */
function* numbers(seed: number): Generator<number> {
	for (let n = seed; ; n = (n * 48_271) % 2_147_483_647) yield n / 2_147_483_647;
}

const tables = ['sum_figures', 'sum_source', 'sum_reader', 'sum_page', 'progress', 'sum_readers', 'sum_refused', 'sum_reason', 'sum_robot'] as const;
const stateOf = async () =>
	Object.fromEntries(
		await Promise.all(
			tables.map(async (t) => [t, (await sql()`select row_to_json(x)::text as line from ${sql()(t)} x order by 1`).map((r) => r.line as string)])
		)
	);

describe('sums', () => {
	it('are what plain SQL makes of the raw entries, day by day, and come out the same when made again', async () => {
		const papers = [await document({ position: 'open' }), await document({ position: 'open' })];
		const random = numbers(1898);
		await (await staff()).api('POST', '/pages', { path: '/summed', title: 'Summed', layout: 'article' });
		const [{ id: somePage }] = (await sql()<{ id: string }[]>`select id from page where path = '/summed'`) as unknown as [{ id: string }];
		const next = () => random.next().value as number;
		const kinds = ['opened', 'opened', 'opened', 'saved', 'turned-away', 'looked', 'shown', 'printed', 'read'];
		const from = Date.now() - 400 * 86_400_000;
		for (const paper of papers) {
			const entries: Parameters<typeof enter>[1][number][] = [];
			for (let at = from; at < Date.now() - 3_600_000; at += Math.floor(next() ** 3 * 20_000_000) + 1000) {
				const kind = kinds[Math.floor(next() * kinds.length)]!;
				entries.push({
					at: new Date(at),
					kind,
					reader: `c:${Math.floor(next() * 30)}`,
					staff: next() < 0.05,
					robot: next() < 0.05,
					preload: next() < 0.02,
					reason: kind === 'turned-away' ? ['sign-in', 'not-admitted'][Math.floor(next() * 2)] : null,
					page_id: next() < 0.3 ? somePage : null,
					device: ['computer', 'phone', null][Math.floor(next() * 3)],
					attention: kind === 'read' ? [{ page: 1 + Math.floor(next() * 3), seconds: Math.round(next() * 40) }] : null
				});
			}
			await enter(paper, entries);
		}
		await sumAgain();
		const s = sql();
		const plain = await s`
			select (at at time zone ${zone})::date::text as day, document_id, count(*) filter (where kind = 'opened')::int as openings, count(*) filter (where kind = 'saved')::int as saves,
				count(*) filter (where kind = 'turned-away')::int as refusals, count(*) filter (where kind = 'looked')::int as looks, count(*) filter (where kind = 'printed')::int as printed,
				count(*) filter (where kind = 'shown')::int as shown,
				count(distinct (date_trunc('hour', at at time zone ${zone}), reader)) filter (where kind in ('opened', 'saved'))::int as requests,
				count(distinct (date_trunc('hour', at at time zone ${zone}), reader)) filter (where kind in ('opened', 'saved', 'looked'))::int as investigations,
				coalesce(sum((select sum((a->>'seconds')::real) from jsonb_array_elements(attention) a)) filter (where kind = 'read'), 0)::real as seconds
			from (select *, kind <> 'read' and coalesce(lead(at) over (partition by reader, document_id, kind order by at, id) - at <= interval '30 seconds', false) as double
				from ledger where document_id = any(${papers.map((p) => p.id)}::uuid[]) and not staff and not robot and not preload) l
			where not double group by 1, 2 order by 1, 2`;
		const summed = await s`
			select day::text as day, document_id, openings, saves, refusals, looks, printed, shown, unique_requests as requests, unique_investigations as investigations, seconds from sum_figures
			where span = 'day' and document_id = any(${papers.map((p) => p.id)}::uuid[]) order by 1, 2`;
		expect(plain.length).toBeGreaterThan(300);
		expect([...summed]).toEqual([...plain]);
		// distinct readers over any time: sets of numbers against a count of names
		for (const [first, last] of [
			['2000-01-01', '2100-01-01'],
			[dayOf(from, zone), dayOf(from + 40 * 86_400_000, zone)]
		] as const) {
			const [named] = await s<{ n: number }[]>`
				select count(distinct reader)::int as n from ledger where kind in ('opened', 'saved') and not staff and not robot and not preload
					and (at at time zone ${zone})::date between ${first} and ${last} and reader not in (select reader from sum_robot)`;
			const [bits] = await s<{ n: number }[]>`select ${readersIn(s`${wholeSite}::uuid`, { first, last })} as n`;
			expect(bits!.n).toBe(named!.n);
			const ids = papers.map((p) => p.id);
			const names = await s`
				select document_id, count(distinct reader)::int as n from ledger where kind in ('opened', 'saved') and not staff and not robot and not preload
					and (at at time zone ${zone})::date between ${first} and ${last} and document_id = any(${ids}::uuid[]) group by 1 order by 1`;
			expect([...(await s`select id as document_id, ${readersIn(s`id`, { first, last })} as n from unnest(${ids}::uuid[]) id order by 1`)]).toEqual([...names]);
		}
		// who was turned away, by reason and by where they came from
		const away = await s`
			select document_id, reason, page_id, count(*)::int as times, count(distinct reader)::int as readers, max(at) as last from (
				select *, lead(at) over (partition by reader, document_id order by at, id) - at <= interval '30 seconds' as double
				from ledger where kind = 'turned-away' and document_id = any(${papers.map((p) => p.id)}::uuid[]) and not staff and not robot and not preload) l
			where double is not true group by 1, 2, 3 order by 1, 2, 3`;
		expect(away.length).toBe(8);
		expect([
			...(await s`
			select document_id, reason, nullif(page_id, ${wholeSite}) as page_id, sum(times)::int as times, count(distinct reader)::int as readers, max(last_at) as last from sum_refused
			where document_id = any(${papers.map((p) => p.id)}::uuid[]) group by 1, 2, 3 order by 1, 2, 3`)
		]).toEqual([...away]);
		for (const span of ['day', 'dekad', 'month'])
			expect([
				...(await s`
				select document_id, reason, nullif(page_id, ${wholeSite}) as page_id, sum(times)::int as times, max(last_at) as last from sum_reason
				where span = ${span} and document_id = any(${papers.map((p) => p.id)}::uuid[]) group by 1, 2, 3 order by 1, 2, 3`)
			]).toEqual(away.map(({ readers: _, ...row }) => row));
		// staff stand apart
		const byStaff = await s`
			select document_id, count(*) filter (where kind = 'opened')::int as openings, count(*) filter (where kind = 'saved')::int as saves from ledger
			where document_id = any(${papers.map((p) => p.id)}::uuid[]) and staff and not robot and not preload group by 1 order by 1`;
		expect(byStaff.length).toBe(2);
		expect([
			...(await s`
			select document_id, sum(staff_openings)::int as openings, sum(staff_saves)::int as saves from sum_figures
			where span = 'day' and document_id = any(${papers.map((p) => p.id)}::uuid[]) group by 1 order by 1`)
		]).toEqual([...byStaff]);
		// dekads, months, and the whole site, are what their days and documents add up to
		for (const [whole, parts] of [
			[`span = 'dekad' and document_id <> '${wholeSite}'`, `span = 'day' and document_id <> '${wholeSite}'`],
			[`span = 'month' and document_id <> '${wholeSite}'`, `span = 'day' and document_id <> '${wholeSite}'`],
			[`span = 'day' and document_id = '${wholeSite}'`, `span = 'day' and document_id <> '${wholeSite}'`],
			[`span = 'month' and document_id = '${wholeSite}'`, `span = 'month' and document_id <> '${wholeSite}'`]
		] as const) {
			const added = (where: string) => s`
				select date_trunc('month', day) as month, sum(openings) as openings, sum(saves) as saves, sum(refusals) as refusals, sum(unique_requests) as requests, sum(unique_investigations) as investigations, round(sum(seconds)) as seconds,
					sum(hours[10]) as ten, sum(devices[1]) as computers, sum(staff_openings) as staff from sum_figures where ${s.unsafe(where)} group by 1 order by 1`;
			expect([...(await added(whole))]).toEqual([...(await added(parts))]);
		}
		for (const address of [
			'document_id, edition_id, page, sum(readers) as a, sum(stops) as b, round(sum(seconds)) as c from sum_page',
			"document_id, kind, coalesce(page_id::text, '') as page, sum(looks) as a, sum(openings) as b, sum(saves) as c from sum_source"
		]) {
			const added = (span: string) => s`
				select date_trunc('month', day) as month, ${s.unsafe(address)} where span = ${span} group by 1, 2, 3, 4 order by 1, 2, 3, 4`;
			const days = [...(await added('day'))];
			expect(days.length).toBeGreaterThan(20);
			expect([...(await added('dekad'))]).toEqual(days);
			expect([...(await added('month'))]).toEqual(days);
		}
		const before = await stateOf();
		await sumAgain();
		expect(await stateOf()).toEqual(before);
	});
	it('follow by themselves', async () => {
		const paper = await document({ position: 'open' });
		await drain(visitor(reader()).get(`/d/${paper.slug}/file`));
		await until(async () => (await sql()`select 1 from sum_figures where span = 'day' and document_id = ${paper.id} and openings = 1`).length === 1);
	});
	it('what comes in late and over midnight is summed as if it had always been there', async () => {
		const paper = await document({ position: 'open' });
		await sumUp();
		const midnight = Date.parse(`${dayOf(Date.now(), zone)}T00:00:00Z`);
		if (Date.now() - midnight < 60_000) return;
		await enter(paper, [
			{ at: new Date(Date.now() - 40_000), kind: 'opened', reader: 'c:late' },
			{ at: new Date(Date.now() - 20_000), kind: 'opened', reader: 'c:late' }
		]);
		await sumUp();
		const [row] = await sql()`select openings from sum_figures where span = 'day' and document_id = ${paper.id}`;
		expect(row).toEqual({ openings: 1 });
	});
	it('made from what is new alone are the same as made from everything', async () => {
		const papers = [await document({ position: 'open' }), await document({ position: 'open' })];
		const someone = await member({ group: 'Waves' });
		const random = numbers(77);
		const next = (n: number) => Math.floor((random.next().value as number) * n);
		const kinds = ['opened', 'opened', 'saved', 'turned-away', 'looked', 'shown', 'printed', 'read', 'knocked'];
		for (let wave = 0; wave < 12; wave++) {
			const now = Date.now();
			for (const paper of papers) {
				if (next(4) === 0) continue;
				await enter(
					paper,
					Array.from({ length: 1 + next(25) }, () => {
						const kind = kinds[next(kinds.length)]!;
						const known = next(6) === 0;
						return {
							// some come late, and some with others in one millisecond
							at: new Date(now - next(4) * 7_000 - next(3)),
							kind,
							reader: known ? `p:${someone.id}` : `c:wave-${next(9)}`,
							who: known ? 'member' : 'visitor',
							person_id: known ? someone.id : null,
							staff: next(15) === 0,
							reason: kind === 'turned-away' ? ['sign-in', 'not-admitted'][next(2)] : null,
							attention: kind === 'read' ? [{ page: 1 + next(3), seconds: next(30) }] : null
						};
					})
				);
			}
			// in the middle a name goes, and must not come back from what is remembered
			if (wave === 6) await sql()`select ledger_forget(${someone.id})`;
			await sumUp();
		}
		const made = await stateOf();
		await sumAgain();
		expect(await stateOf()).toEqual(made);
	});
	it('what is new is told by what a snapshot saw, also what was begun before it and committed after', async () => {
		const paper = await document({ position: 'open' });
		const s = sql();
		const freshAfter = async (seen: string) =>
			(
				await s<
					{ reader: string }[]
				>`select reader from ledger_fresh(now() - interval '1 minute', ${seen}::pg_snapshot) where document_id = ${paper.id} order by reader`
			).map((r) => r.reader);
		const snapshot = async () => (await s<{ seen: string }[]>`select pg_current_snapshot()::text as seen`)[0]!.seen;
		const edition = await editionOf(paper.id);
		const add = (tx: typeof s, name: string, staff = false) => tx`
			insert into ledger (id, at, kind, document_id, edition_id, reading_id, reader, who, source_kind, staff, robot, preload)
			values (gen_random_uuid(), clock_timestamp(), 'opened', ${paper.id}, ${edition}, gen_random_uuid(), ${name}, 'visitor', 'direct', ${staff}, false, false)`;
		await add(s, 'a');
		let seen = '';
		await s.begin(async (tx) => {
			await add(tx as unknown as typeof s, 'b');
			await add(s, 'c');
			seen = await snapshot();
			expect(await freshAfter(seen)).toEqual([]);
		});
		await add(s, 'd');
		await add(s, 'of staff', true);
		expect(await freshAfter(seen)).toEqual(['b', 'd', 'of staff']);
		expect(await freshAfter(await snapshot())).toEqual([]);
		expect(
			(await s<{ reader: string }[]>`select reader from ledger_fresh(now() - interval '1 minute', null) where document_id = ${paper.id} order by 1`).map(
				(r) => r.reader
			)
		).toEqual(['a', 'b', 'c', 'd', 'of staff']);
	});
	it('of a day are remembered for one version only, put in order, and once each', () => {
		const entry = (at: number, id: string) => ({ at, id }) as Entry;
		const recent = new Recent();
		recent.keep('one', [{ day: 'd', document: 'x', entries: [entry(1, 'a'), entry(2, 'b'), entry(5, 'c')] }]);
		recent.of('one');
		expect(recent.with('d', 'x', [])!.map((e) => e.id)).toEqual(['a', 'b', 'c']);
		expect(recent.with('d', 'x', [entry(2, 'b'), entry(2, 'bb'), entry(3, 'late'), entry(9, 'new')])!.map((e) => e.id)).toEqual([
			'a',
			'b',
			'bb',
			'late',
			'c',
			'new'
		]);
		expect(recent.with('d', 'x', [entry(0, 'first')])!.map((e) => e.id)).toEqual(['first', 'a', 'b', 'c']);
		expect([recent.with('d', 'y', []), recent.with('e', 'x', [])]).toEqual([null, null]);
		// no more than so many are held: the one that was used longest ago goes
		const many = Array.from({ length: 60_000 }, (_, i) => entry(i, String(i)));
		recent.keep('two', [{ day: 'd', document: 'x', entries: [entry(1, 'a')] }]);
		recent.keep('three', [{ day: 'd', document: 'y', entries: many }]);
		recent.keep('four', [{ day: 'd', document: 'z', entries: many }]);
		recent.of('four');
		expect(['x', 'y', 'z'].map((document) => recent.with('d', document, []) !== null)).toEqual([false, false, true]);
		recent.of('five');
		expect(recent.with('d', 'z', [])).toBeNull();
		recent.keep('six', [{ day: 'd', document: 'x', entries: [entry(1, 'a')] }]);
		recent.keep(null, []);
		recent.of('six');
		expect(recent.with('d', 'x', [])).toBeNull();
	});
	it('somebody without a name who opens more than once a minute for an hour is a robot that day', async () => {
		const paper = await document({ position: 'open' });
		const start = Date.now() - 5 * 86_400_000;
		const many = (who: string, n: number) =>
			Array.from({ length: n }, (_, i) => ({ at: new Date(start - (start % 3_600_000) + i * 50_000), kind: 'opened', reader: who }));
		await enter(paper, [...many('c:busy', robotOpeningsAnHour + 5), ...many('c:calm', robotOpeningsAnHour)]);
		await sumAgain();
		const [row] = await sql()`select sum(openings)::int as openings from sum_figures where span = 'day' and document_id = ${paper.id}`;
		expect(row).toEqual({ openings: robotOpeningsAnHour });
	});
	it('somebody who becomes a robot only now is taken out of what was summed before, of every document; whoever stops short is not', async () => {
		const papers = [await document({ position: 'open' }), await document({ position: 'open' })] as const;
		const at = new Date();
		const times = (who: string, n: number) => Array.from({ length: n }, () => ({ at, kind: 'saved', reader: who }));
		const savesOf = async () => {
			await sumUp();
			return Promise.all(
				papers.map(
					async ({ id }) => (await sql()<{ saves: number }[]>`select saves from sum_figures where span = 'day' and document_id = ${id}`)[0]?.saves ?? 0
				)
			);
		};
		const [busy, calm] = [`c:${crypto.randomUUID()}`, `c:${crypto.randomUUID()}`];
		// all at once: double clicks, of which one counts
		await enter(papers[0], [...times(busy, robotOpeningsAnHour - 10), ...times(calm, robotOpeningsAnHour - 10)]);
		expect(await savesOf()).toEqual([2, 0]);
		await enter(papers[1], [...times(busy, 10), ...times(calm, 10)]);
		expect(await savesOf()).toEqual([2, 2]);
		await enter(papers[1], times(busy, 1));
		expect(await savesOf()).toEqual([1, 1]);
		const before = await stateOf();
		await sumAgain();
		expect(await stateOf()).toEqual(before);
	});
	it('while they are made anew, screens say so and programs are told to come back', async () => {
		const boss = await staff();
		const s = sql();
		const lock = await s.reserve();
		const [{ zone: known }] = (await s<{ zone: string }[]>`select zone from summed`) as unknown as [{ zone: string }];
		try {
			// whoever makes sums waits
			await lock`select pg_advisory_lock(4173007)`;
			await lock`update summed set zone = 'Pacific/Apia'`;
			const answers = await Promise.all(
				['overview', 'items', 'places', 'turned-away'].map(async (report) => {
					const answer = await boss.get(`/api/v1/readership/${report}`);
					return [answer.status, ((await answer.json()) as { code?: string }).code];
				})
			);
			expect(answers).toEqual(Array.from({ length: 4 }, () => [503, 'figures-not-whole']));
			for (const page of ['', '/by/place', '/by/refusal']) expect(await (await boss.get(`/desk/readership${page}`)).text()).toContain('are not whole yet');
		} finally {
			await lock`update summed set zone = ${known}`;
			await lock`select pg_advisory_unlock(4173007)`;
			lock.release();
		}
		expect(await boss.api('GET', '/readership/overview')).toMatchObject({ whole: true });
		expect(await (await boss.get('/desk/readership')).text()).not.toContain('are not whole yet');
	});
	it('in another zone of the site, days begin at other instants: figures by day are made anew, and doors close at other times', async () => {
		const boss = await staff();
		const paper = await document({ position: 'open', until: '2027-03-31' });
		await enter(
			paper,
			['2025-06-30T09:30Z', '2025-06-30T10:30Z', '2025-06-30T22:30Z', '2025-06-30T23:30Z'].map((at) => ({ at: new Date(at), kind: 'opened', reader: reader() }))
		);
		const days = async () =>
			Object.fromEntries(
				(
					await sql()<{ day: string; openings: number }[]>`
						select day::text as day, openings from sum_figures where span = 'day' and document_id = ${paper.id} order by 1`
				).map((r) => [r.day, r.openings])
			);
		const closes = async () => (await boss.api<{ changesAt: string }>('GET', `/documents/${paper.slug}/decision?as=visitor&action=read`)).changesAt;
		const into = async (name: string) => {
			// this process is another server, which remembers the zone before for some seconds: it does not make the sums anew in that one
			await site();
			await boss.api('PATCH', '/site', { zone: name });
			const summedIn = async () => (await sql()<{ zone: string }[]>`select zone from summed`)[0]!.zone;
			await until(async () => (await summedIn()) === name);
			await sumUp();
			expect(await summedIn()).toBe(name);
			await until(async () => (await boss.get('/api/v1/readership/overview')).status === 200);
		};
		try {
			// fourteen hours ahead of UTC all the year
			await into('Pacific/Kiritimati');
			expect(await days()).toEqual({ '2025-06-30': 1, '2025-07-01': 3 });
			expect(await closes()).toBe('2027-03-31T10:00:00.000Z');
			for (const none of ['Mars/Olympus', '+05:00', '']) {
				const refused = await boss.send('PATCH', '/api/v1/site', { zone: none });
				expect([refused.status, ((await refused.json()) as { title: string }).title]).toEqual([422, expect.stringContaining('time zone')]);
			}
		} finally {
			await into(zone);
		}
		// London is an hour ahead in June
		expect(await days()).toEqual({ '2025-06-30': 3, '2025-07-01': 1 });
		expect(await closes()).toBe('2027-03-31T23:00:00.000Z');
	});
	it('days and clock hours are those of PostgreSQL in ten zones, over both changes of clocks', async () => {
		const zones = [
			...['Europe/London', 'Europe/Berlin', 'America/New_York', 'America/St_Johns', 'Australia/Lord_Howe', 'Pacific/Chatham'],
			...['Asia/Kathmandu', 'Asia/Kolkata', 'Africa/Cairo', 'Pacific/Apia']
		];
		const instants: Date[] = [];
		// every quarter of an hour of the weeks in which clocks change, north and south
		for (const week of ['2026-03-08', '2026-03-29', '2026-04-05', '2026-04-24', '2026-10-04', '2026-10-25', '2026-11-01'])
			for (let i = -96; i < 96; i++) instants.push(new Date(Date.parse(`${week}T00:00Z`) + i * 900_000));
		for (const name of zones) {
			const hourOf = hourIn(name);
			const rows = await sql()<{ at: Date; day: string; hour: number }[]>`
				select t as at, (t at time zone ${name})::date::text as day, extract(hour from t at time zone ${name})::int as hour from unnest(${instants.map((i) => i.toISOString())}::text[]::timestamptz[]) t`;
			for (const { at, day, hour } of rows) expect([name, at, dayOf(at.getTime(), name), hourOf(at.getTime())]).toEqual([name, at, day, hour]);
		}
	});
	it('somebody erased has no name in them, and the figures stay', async () => {
		const someone = await member({ group: 'Erased' });
		const paper = await document({ position: 'open' });
		await drain(someone.get(`/d/${paper.slug}/file`));
		await sumUp();
		await (await staff()).api('DELETE', `/members/${someone.id}`);
		const rows = await sql()`
			select s.openings, s.person_id, r.name like 'x:%' as nameless from sum_reader s join reader r on r.number = s.reader where s.document_id = ${paper.id}`;
		expect([...rows]).toEqual([{ openings: 1, person_id: null, nameless: true }]);
		await sumAgain();
		expect(await sql()`select openings, person_id from sum_reader where document_id = ${paper.id}`).toEqual([{ openings: 1, person_id: null }]);
	});
});

describe('the ledger’s writer', () => {
	it('takes entries of many at once, each once', async () => {
		const papers = await Promise.all([document({ position: 'open' }), document({ position: 'open' })]);
		const readers = Array.from({ length: 40 }, reader);
		await Promise.all(readers.flatMap((r) => papers.flatMap((p) => [1, 2, 3].map((n) => drain(visitor(r).get(`/d/${p.slug}/leaf/${n}.webp`))))));
		for (const p of papers) {
			const [row] = await sql()`select count(*)::int as n, count(distinct reader)::int as readers from ledger where document_id = ${p.id} and kind = 'opened'`;
			expect(row).toEqual({ n: 40, readers: 40 });
		}
	});
	it('where the ledger cannot be written, a calm “try again” comes and no byte of the file', async () => {
		const paper = await document({ position: 'open' });
		const s = sql();
		await s.unsafe(
			`create function refuse_entry() returns trigger language plpgsql as $$ begin if new.document_id = '${paper.id}' then raise exception 'disk full'; end if; return new; end $$`
		);
		await s`create trigger refuse_entry before insert on ledger for each row execute function refuse_entry()`;
		try {
			const answer = await visitor(reader()).get(`/d/${paper.slug}/file`);
			expect(answer.status).toBe(503);
			expect(answer.headers.get('content-type')).toContain('application/problem+json');
			expect(await answer.json()).toMatchObject({ code: 'ledger-closed' });
			expect((await visitor(reader()).get(`/d/${paper.slug}/leaf/1.webp`)).status).toBe(503);
		} finally {
			await s`drop trigger refuse_entry on ledger`;
			await s`drop function refuse_entry()`;
		}
		expect((await visitor(reader()).get(`/d/${paper.slug}/file`)).status).toBe(200);
	});
	it('says on what kind of device, and whether the door was for everyone', async () => {
		const someone = await member({ group: 'Devices' });
		const kept = await document({ position: 'keyed', groups: ['devices'] });
		await drain(
			someone.get(`/d/${kept.slug}/file`, { 'user-agent': 'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) Version/18.0 Mobile/15E148 Safari/604.1' })
		);
		expect(await sql()`select device, controlled from ledger where document_id = ${kept.id}`).toEqual([{ device: 'phone', controlled: true }]);
	});
	it('knows robots by either published list', async () => {
		const paper = await document({ position: 'open' });
		for (const agent of ['Mozilla/5.0 (compatible; SemanticScholarBot; +https://example.org)', 'curl/8.5.0', browserAgent])
			await drain(visitor(reader()).get(`/d/${paper.slug}/file`, { 'user-agent': agent }));
		expect((await ledgerOf(paper.slug)).map((e) => e.robot)).toEqual([false, true, true]);
	});
});

describe('shown and looked at', () => {
	it('are counted by placement and page, and not listed', async () => {
		const paper = await document({ position: 'open' });
		const boss = await staff();
		const path = `/shown-${Date.now()}`;
		const placement = { type: 'placement', attrs: { id: `shown-${Date.now()}`, document: paper.slug, form: 'text', press: 'page' } };
		await boss.api('POST', '/pages', {
			path,
			title: 'Shown',
			layout: 'article',
			door: { position: 'open' },
			content: { type: 'doc', content: [{ type: 'paragraph', content: [placement] }] }
		});
		await boss.api('POST', `/pages${path}/publish`);
		const one = visitor(reader());
		const from = placement.attrs.id;
		expect((await one.send('POST', `/d/${paper.slug}/read/told?from=${from}`, { kind: 'shown' })).status).toBe(204);
		await drain(one.get(`/d/${paper.slug}?from=${from}`));
		await drain(one.get(`/d/${paper.slug}/file?from=${from}`));
		expect((await ledgerOf(paper.slug)).map((e) => e.kind)).toEqual(['opened']);
		const { items } = await boss.api<{ items: { where: string; shown: number; pressed: number; openings: number }[] }>('GET', '/readership/places');
		expect(items.find((i) => i.where === path)).toMatchObject({ shown: 1, pressed: 1, openings: 1 });
	});
	it('whoever may not know of a document cannot tell that it was shown', async () => {
		const shut = await document();
		expect((await visitor(reader()).send('POST', `/d/${shut.slug}/read/told`, { kind: 'shown' })).status).toBe(404);
	});
});

interface Roll {
	roll: { name: string; standing: string; reminded: string | null }[] | null;
	answer: { text: string }[];
	attention: { page: number; seconds: number; readers: number }[];
	people: { name: string; pagesRead: number; furthest: number; seconds: number }[];
	figures: { openings: number; readers: number; seconds: number };
}

describe('the roll call', () => {
	it('says who read it through, opened it, has not; reminds these by mail, each at most once a day', async () => {
		const group = 'Roll call';
		const [through, opened, missing, gone] = [
			await member({ group }),
			await member({ group }),
			await member({ group }),
			await member({ group, until: '2020-01-01' })
		] as const;
		const paper = await document({ position: 'keyed', groups: ['roll-call'] }, 4);
		for (const one of [through, opened]) await drain(one.get(`/d/${paper.slug}/leaf/1.webp`));
		const read = (pages: { page: number; seconds: number }[]) => ({ kind: 'read', pages });
		await through.send('POST', `/d/${paper.slug}/read/told`, read([1, 2, 3, 4].map((page) => ({ page, seconds: 5 }))));
		await opened.send(
			'POST',
			`/d/${paper.slug}/read/told`,
			read([
				{ page: 1, seconds: 3 },
				{ page: 2, seconds: 1 }
			])
		);
		const boss = await staff();
		const report = await boss.api<Roll>('GET', `/readership/documents/${paper.slug}`);
		const names = (await sql()<{ email: string; name: string }[]>`select email, name from person`).reduce(
			(m, p) => m.set(p.email, p.name),
			new Map<string, string>()
		);
		const standing = (report: Roll, who: { email: string }) => report.roll!.find((r) => r.name === names.get(who.email))?.standing;
		expect([through, opened, missing, gone].map((who) => standing(report, who))).toEqual(['through', 'opened', 'not-yet', undefined]);
		expect(report.answer.map((p) => p.text).join('')).toMatch(/^2 of the 3 who may open it have, and 1 read it through\. 1 has not opened it\./);
		expect(report.attention).toMatchObject([
			{ page: 1, seconds: 8, readers: 2 },
			{ page: 2, seconds: 6, readers: 1 },
			{ page: 3, seconds: 5, readers: 1 },
			{ page: 4, seconds: 5, readers: 1 }
		]);
		expect(report.people.find((p) => p.name === names.get(opened.email))).toMatchObject({ pagesRead: 1, furthest: 1, seconds: 4 });
		expect(report.figures).toMatchObject({ openings: 2, readers: 2, seconds: 24 });

		expect(await boss.api('POST', `/documents/${paper.slug}/remind`, {})).toEqual({ mailed: 1, recently: 0, failed: 0 });
		expect((await mailTo(missing.email)).text).toContain(`/d/${paper.slug}/read`);
		expect(await boss.api('POST', `/documents/${paper.slug}/remind`, {})).toEqual({ mailed: 0, recently: 1, failed: 0 });
		// two presses at once send one mail each
		const both = await Promise.all([1, 2].map(() => boss.api<{ mailed: number }>('POST', `/documents/${paper.slug}/remind`, { unfinished: true })));
		expect(both.reduce((n, b) => n + b.mailed, 0)).toBe(1);
		expect(
			(await ledgerOf(paper.slug))
				.filter((e) => e.kind === 'reminded')
				.map((e) => e.who.email)
				.sort()
		).toEqual([missing.email, opened.email].sort());
	});
	it('a new edition has to be read again', async () => {
		const someone = await member({ group: 'Editions read' });
		const paper = await document({ position: 'keyed', groups: ['editions-read'] }, 2);
		await drain(someone.get(`/d/${paper.slug}/leaf/1.webp`));
		const boss = await staff();
		await secondEdition(paper.slug);
		const { roll } = await boss.api<{ roll: { standing: string; earlier: boolean }[] }>('GET', `/readership/documents/${paper.slug}`);
		expect(roll).toMatchObject([{ standing: 'not-yet', earlier: true }]);
	});
	it('nobody in particular is reminded of what anyone may open', async () => {
		const paper = await document({ position: 'open' });
		expect((await (await staff()).send('POST', `/api/v1/documents/${paper.slug}/remind`, {})).status).toBe(422);
	});
});

describe('reports', () => {
	it('are for staff alone', async () => {
		const paper = await document({ position: 'open' });
		const someone = await member({ group: 'Not staff' });
		for (const path of ['overview', 'places', 'turned-away', 'items', 'live', `documents/${paper.slug}`, `members/${someone.id}`]) {
			expect((await visitor().get(`/api/v1/readership/${path}`)).status, path).toBe(401);
			expect((await someone.get(`/api/v1/readership/${path}`)).status, path).toBe(403);
		}
		expect((await someone.send('POST', `/api/v1/documents/${paper.slug}/remind`, {})).status).toBe(403);
		expect((await someone.get('/api/v1/ledger')).status).toBe(403);
	});
	it('go over the time that is asked for, and say what a member did', async () => {
		const someone = await member({ group: 'Of one member' });
		const paper = await document({ position: 'open' });
		await drain(someone.get(`/d/${paper.slug}/file`));
		await drain(someone.get(`/d/${paper.slug}/file?save`));
		const boss = await staff();
		const today = dayOf(Date.now(), zone);
		const ledgerOf = (query: string) =>
			boss.api<{ documents: { slug: string; openings: number; saves: number }[] }>('GET', `/readership/members/${someone.id}${query}`);
		expect((await ledgerOf('')).documents).toMatchObject([{ slug: paper.slug, openings: 1, saves: 1 }]);
		expect((await ledgerOf(`?from=${today}&until=${today}`)).documents).toHaveLength(1);
		expect((await ledgerOf('?from=2026-01-01&until=2026-02-01')).documents).toEqual([]);
		const overview = await boss.api<{ documents: { slug: string }[]; bars: unknown[]; period: { by: string } }>('GET', '/readership/overview?days=90&by=month');
		expect(overview.documents.some((d) => d.slug === paper.slug)).toBe(true);
		expect(overview.period.by).toBe('month');
		expect(overview.bars.length).toBeLessThanOrEqual(5);
	});
	it('say who was turned away, why, and from where', async () => {
		const someone = await member({ group: 'Turned' });
		const paper = await document({ position: 'keyed', groups: ['devices'] });
		await drain(someone.get(`/d/${paper.slug}/file`));
		const { items } = await (
			await staff()
		).api<{ items: { slug: string; reason: string; times: number; people: string[] }[] }>('GET', '/readership/turned-away');
		expect(items.find((i) => i.slug === paper.slug)).toMatchObject({ reason: 'not-admitted', times: 1 });
	});
	it('the item report is a table of tab-separated values', async () => {
		const paper = await document({ position: 'open' });
		await drain(visitor(reader()).get(`/d/${paper.slug}/file`));
		const answer = await (await staff()).get('/api/v1/readership/items?format=tsv');
		expect(answer.headers.get('content-type')).toBe('text/tab-separated-values; charset=utf-8');
		const line = (await answer.text()).split('\r\n').find((l) => l.includes(`ianua:${paper.slug}\t`) && l.includes('\tTotal_Item_Requests\t'))!;
		const cells = line.split('\t');
		const { name } = await site();
		expect(cells.slice(0, 15)).toEqual(
			[paper.title, name, '', name, '', `ianua:${paper.slug}`, '', '', '', `${origin}/d/${paper.slug}`, 'Other', dayOf(Date.now(), zone).slice(0, 4), 'Free_To_Read', 'Total_Item_Requests', '1'] // prettier-ignore
		);
		// the month that is
		expect(cells.at(-1)).toBe('1');
	});
	it('the ledger of all documents goes on by its cursor', async () => {
		const boss = await staff();
		const first = await boss.api<{ items: { id: string }[]; next: string }>('GET', '/ledger?limit=5');
		const second = await boss.api<{ items: { id: string }[] }>('GET', `/ledger?limit=5&cursor=${first.next}`);
		expect(new Set([...first.items, ...second.items].map((i) => i.id)).size).toBe(10);
	});
	it('small pictures of pages to look at are no opening, by nobody; what can be read is one, and the door decides on both', async () => {
		const paper = await document({ position: 'open' });
		const boss = await staff();
		await drain(boss.get(`/d/${paper.slug}/leaf/1.webp?w=96&for=look`));
		await drain(visitor(reader()).get(`/d/${paper.slug}/leaf/1.webp?w=160&for=look`));
		expect(await ledgerOf(paper.slug)).toEqual([]);
		for (const larger of ['w=161&for=look', 'w=1200&for=look', 'for=look', 'w=96']) {
			const paper = await document({ position: 'open' });
			await drain(visitor(reader()).get(`/d/${paper.slug}/leaf/1.webp?${larger}`));
			expect(await ledgerOf(paper.slug), larger).toHaveLength(1);
		}
		const kept = await document({ position: 'keyed' });
		expect((await visitor(reader()).get(`/d/${kept.slug}/leaf/1.webp?w=96&for=look`)).status).toBe(401);
	});
});

it('just now: an entry is told a moment after it was made, as a server-sent event', async () => {
	const paper = await document({ position: 'open' });
	const ended = new AbortController();
	const response = await fetch(`${origin}/api/v1/readership/live`, { headers: (await staff()).headers, signal: ended.signal });
	expect(response.headers.get('content-type')).toBe('text/event-stream');
	const told = (async () => {
		let text = '';
		const decoder = new TextDecoder();
		for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
			text += decoder.decode(chunk, { stream: true });
			if (text.includes(`"document":"${paper.slug}"`)) return text;
		}
		return text;
	})();
	await drain(visitor(reader()).get(`/d/${paper.slug}/file`));
	const text = await told;
	ended.abort();
	expect(text).toMatch(new RegExp(`id: \\d+\\ndata: \\{.*"kind":"opened".*"document":"${paper.slug}"`));
});

describe('what is kept of visitors', () => {
	const keep = async (readership: object) => (await staff()).api('PATCH', '/site', { readership });
	const readersOf = async (document: DocumentJson) =>
		(await sql()<{ reader: string }[]>`select reader from ledger where document_id = ${document.id} and kind = 'opened' order by at`).map((r) => r.reader);
	const agent = (n: number) => ({ 'user-agent': browserAgent.replace('140.0', `14${n}.0`) });
	it('a cookie once they agreed; nothing but counts of who does not want to be followed', async () => {
		const paper = await document({ position: 'open' });
		const asked = /<aside[^>]*aria-label="Remember this browser"/;
		const cookiesOf = async (headers: Record<string, string>) =>
			(await visitor().get(`/d/${paper.slug}`, headers)).headers.getSetCookie().map((c) => c.split('=')[0]);
		expect(await cookiesOf({})).toEqual([]);
		expect(await cookiesOf({ cookie: 'ianua_remember=no' })).toEqual([]);
		expect(await cookiesOf({ cookie: 'ianua_remember=yes' })).toEqual(['ianua_reader']);
		expect(await cookiesOf({ cookie: 'ianua_remember=yes', 'sec-gpc': '1' })).toEqual([]);
		expect(await (await visitor().get(`/d/${paper.slug}`)).text()).toMatch(asked);
		expect(await (await visitor().get(`/d/${paper.slug}`, { dnt: '1' })).text()).not.toMatch(asked);
		const one = visitor(reader());
		await drain(one.get(`/d/${paper.slug}/file`, agent(1)));
		await drain(one.get(`/d/${paper.slug}/file`, { ...agent(2), dnt: '1' }));
		expect((await readersOf(paper)).map((r) => r[0])).toEqual(['c', 'n']);
		// which pages were looked at is told by who lets it be told
		const told = (headers: Record<string, string>) =>
			one.send('POST', `/d/${paper.slug}/read/told`, { kind: 'read', pages: [{ page: 1, seconds: 1 }] }, headers);
		const reads = async () => (await sql()`select 1 from ledger where document_id = ${paper.id} and kind = 'read'`).length;
		expect((await told({ ...agent(1), 'sec-gpc': '1' })).status).toBe(204);
		expect(await reads()).toBe(0);
		expect((await told(agent(1))).status).toBe(204);
		expect(await reads()).toBe(1);
	});
	it('yes and no are kept, and no takes the cookie away', async () => {
		const paper = await document({ position: 'open' });
		const answer = await visitor(reader()).get(`/d/${paper.slug}?remember=no`);
		const set = answer.headers.getSetCookie();
		expect(set.some((c) => c.startsWith('ianua_remember=no'))).toBe(true);
		expect(set.some((c) => /^ianua_reader=;/.test(c))).toBe(true);
	});
	it('a mark for a day: the same for a browser, another for another, and its key is thrown away', async () => {
		await keep({ nameless: 'day' });
		try {
			const paper = await document({ position: 'open' });
			for (const n of [3, 4, 3]) await drain(visitor(reader()).get(`/d/${paper.slug}/file`, agent(n)));
			const marks = await readersOf(paper);
			expect(marks).toHaveLength(2);
			expect(marks.every((m) => /^a:[0-9a-f]{24}$/.test(m))).toBe(true);
			expect(await sql()`select 1 from day_key where day < current_date - 2`).toEqual([]);
		} finally {
			await keep({ nameless: 'cookie' });
		}
	});
	it('nothing but counts: what belongs to a reading is known, and nobody is the same again', async () => {
		await keep({ nameless: 'nothing' });
		try {
			const paper = await document({ position: 'open' });
			const one = visitor(reader());
			for (const n of [1, 2, 3]) await drain(one.get(`/d/${paper.slug}/leaf/${n}.webp`, agent(5)));
			await one.send('POST', `/d/${paper.slug}/read/told`, { kind: 'read', pages: [{ page: 1, seconds: 4 }] }, agent(5));
			await drain(one.get(`/d/${paper.slug}/file?save`, agent(5)));
			const rows = await sql()<{ kind: string; reader: string }[]>`select kind, reader from ledger where document_id = ${paper.id} order by at`;
			expect(rows.map((r) => [r.kind, r.reader.slice(0, 2)])).toEqual([
				['opened', 'n:'],
				['read', 'n:'],
				['saved', 'n:']
			]);
			expect(rows[0]!.reader).toBe(rows[1]!.reader);
			expect(rows[0]!.reader).not.toBe(rows[2]!.reader);
		} finally {
			await keep({ nameless: 'cookie' });
		}
	});
	it('after its months an entry goes; the figures of its day stay, without a name', async () => {
		const { forgetReaders } = await import('#server/readership/sums/keep');
		const { saveSite, site } = await import('#server/site/site');
		const someone = await member({ group: 'Old readers' });
		const paper = await document({ position: 'open' });
		const long = new Date(Date.now() - 70 * 86_400_000);
		await sql()`select ledger_month(${long.toISOString().slice(0, 10)}::date)`;
		await enter(paper, [
			{ at: long, kind: 'opened', reader: `p:${someone.id}`, who: 'member', person_id: someone.id },
			{ at: new Date(), kind: 'opened', reader: `p:${someone.id}`, who: 'member', person_id: someone.id }
		]);
		await sumAgain();
		const before = await site();
		await saveSite({ ...before, readership: { nameless: 'cookie', months: 1 } });
		try {
			await forgetReaders(Date.now());
			const [left] = await sql()`select count(*)::int as n, min(at) > now() - interval '62 days' as late from ledger where document_id = ${paper.id}`;
			expect(left).toEqual({ n: 1, late: true });
			const rows = await sql()`
				select d.openings, r.person_id is null as nameless, n.name like 'x:%' as gone from sum_figures d join sum_reader r using (day, document_id) join reader n on n.number = r.reader
				where d.span = 'day' and document_id = ${paper.id} order by day`;
			expect([...rows]).toEqual([
				{ openings: 1, nameless: true, gone: true },
				{ openings: 1, nameless: false, gone: false }
			]);
		} finally {
			await saveSite(before);
		}
	});
});

describe('readings', () => {
	it('that are over are forgotten; what belongs to one that goes on stays', async () => {
		const { forgetReaders } = await import('#server/readership/sums/keep');
		const paper = await document({ position: 'open' });
		const [one, other] = [visitor(reader()), visitor(reader())];
		await drain(one.get(`/d/${paper.slug}/file`));
		await setBack(paper.id, '31 minutes');
		await drain(other.get(`/d/${paper.slug}/file`));
		await forgetReaders(Date.now());
		expect(await sql()`select 1 from reading where document_id = ${paper.id}`).toHaveLength(1);
		await drain(other.get(`/d/${paper.slug}/leaf/1.webp`));
		expect(await ledgerOf(paper.slug)).toHaveLength(2);
		await drain(one.get(`/d/${paper.slug}/file`));
		expect(await ledgerOf(paper.slug)).toHaveLength(3);
	});
	it('go on with the edition they began with, also where nothing is kept of the reader', async () => {
		const boss = await staff();
		const { pdf } = await import('./help');
		for (const nameless of ['cookie', 'nothing']) {
			await boss.api('PATCH', '/site', { readership: { nameless } });
			try {
				const paper = await document({ position: 'open' }, 2);
				const one = visitor(reader());
				await drain(one.get(`/d/${paper.slug}/leaf/1.webp?e=1`));
				const form = new FormData();
				form.append('file', new Blob([new Uint8Array(await pdf(`second of ${paper.slug}`, 2))]), 'second.pdf');
				expect((await boss.send('POST', `/api/v1/documents/${paper.slug}/editions`, form)).status).toBe(201);
				await until(async () => (await boss.api<DocumentJson>('GET', `/documents/${paper.slug}`)).editions.some((e) => e.number === 2 && e.inForce));
				expect((await one.get(`/d/${paper.slug}/leaf/2.webp?e=1`)).status, nameless).toBe(200);
				// who did not begin with it has no business with it
				expect(
					(await visitor(reader()).get(`/d/${paper.slug}/leaf/2.webp?e=1`, { 'user-agent': browserAgent.replace('140.0', '139.0') })).status,
					nameless
				).toBe(404);
			} finally {
				await boss.api('PATCH', '/site', { readership: { nameless: 'cookie' } });
			}
		}
	});
});

describe('more reports', () => {
	it('no report waits long for sums that are being made anew', async () => {
		const boss = await staff();
		const paper = await document({ position: 'open' });
		await drain(visitor(reader()).get(`/d/${paper.slug}/file`));
		await sql().begin(async (tx) => {
			// the lock under which sums are made
			await tx`select pg_advisory_xact_lock(4173007)`;
			await enter(paper, [{ at: new Date(), kind: 'opened', reader: 'c:waits' }]);
			// what waited for them would wait for the end of this transaction
			expect((await boss.get('/api/v1/readership/overview')).status).toBe(200);
		});
		await until(async () => (await boss.api<{ figures: { openings: number } }>('GET', `/readership/documents/${paper.slug}`)).figures.openings === 2);
	});
	it('an earlier edition has its own attention', async () => {
		const boss = await staff();
		const { pdf } = await import('./help');
		const paper = await document({ position: 'open' }, 3);
		const tell = async (pages: { page: number; seconds: number }[]) => {
			const one = visitor(reader());
			await drain(one.get(`/d/${paper.slug}/leaf/1.webp`));
			expect((await one.send('POST', `/d/${paper.slug}/read/told`, { kind: 'read', pages })).status).toBe(204);
		};
		await tell([{ page: 3, seconds: 3 }]);
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(await pdf(`later than ${paper.slug}`, 2))]), 'later.pdf');
		expect((await boss.send('POST', `/api/v1/documents/${paper.slug}/editions`, form)).status).toBe(201);
		await until(async () => (await boss.api<DocumentJson>('GET', `/documents/${paper.slug}`)).editions.some((e) => e.number === 2 && e.inForce));
		await tell([{ page: 1, seconds: 4 }]);
		const itemsOf = async (query: string) =>
			(await boss.api<{ edition: { number: number; pages: number }; attention: object[]; marks: { words: string }[] }>(
				'GET',
				`/readership/documents/${paper.slug}${query}`
			)) as {
				edition: object;
				attention: object[];
				marks: { words: string }[];
			};
		expect(await itemsOf('')).toMatchObject({ edition: { number: 2, pages: 2 }, attention: [{ page: 1, seconds: 4, readers: 1, stops: 1 }] });
		expect(await itemsOf('?edition=1')).toMatchObject({ edition: { number: 1, pages: 3 }, attention: [{ page: 3, seconds: 3, readers: 1, stops: 1 }] });
		expect((await itemsOf('')).marks.map((m) => m.words)).toEqual(['Edition 2']);
	});
	it('what was done with a key stands under its label, on a page of its own', async () => {
		const boss = await staff();
		const kept = await document({ position: 'keyed' });
		const { id, url } = await boss.api<{ id: string; url: string }>('POST', `/documents/${kept.slug}/keys`, { label: 'County training' });
		const token = new URL(url).pathname;
		const entered = await visitor(reader()).get(token);
		const cookie = entered.headers
			.getSetCookie()
			.map((c) => c.split(';')[0])
			.join('; ');
		await drain(visitor().get(`/d/${kept.slug}/file`, { cookie }));
		const page = await boss.get(`/desk/readership/by/key/${id}`, { accept: 'text/html' });
		expect(page.status).toBe(200);
		const text = await page.text();
		expect(text).toContain('County training');
		expect(text).toContain(kept.title);
		expect((await boss.get(`/desk/readership/by/key/${crypto.randomUUID()}`, { accept: 'text/html' })).status).toBe(404);
		expect((await boss.get('/desk/readership/by/member/nobody', { accept: 'text/html' })).status).toBe(404);
		const { sources } = await boss.api<{ sources: { kind: string; name: string }[] }>('GET', `/readership/documents/${kept.slug}`);
		expect(sources).toMatchObject([{ kind: 'key', name: 'County training' }]);
	});
	it('how much has to be read for through is a setting', async () => {
		const boss = await staff();
		const someone = await member({ group: 'Half read' });
		const paper = await document({ position: 'keyed', groups: ['half-read'] }, 4);
		await drain(someone.get(`/d/${paper.slug}/leaf/1.webp`));
		await someone.send('POST', `/d/${paper.slug}/read/told`, { kind: 'read', pages: [1, 2].map((page) => ({ page, seconds: 3 })) });
		const standing = async () => (await boss.api<{ roll: { standing: string }[] }>('GET', `/readership/documents/${paper.slug}`)).roll.map((r) => r.standing);
		expect(await standing()).toEqual(['opened']);
		await boss.api('PATCH', '/site', { readership: { nameless: 'cookie', through: 0.5 } });
		try {
			// the roll call is made by the server that was told
			expect(await standing()).toEqual(['through']);
		} finally {
			await boss.api('PATCH', '/site', { readership: { nameless: 'cookie' } });
		}
		expect((await boss.send('PATCH', '/api/v1/site', { readership: { nameless: 'everything' } })).status).toBe(422);
	});
	it('the documents room counts readers as the reports do', async () => {
		const boss = await staff();
		const paper = await document({ position: 'open' });
		for (let i = 0; i < 3; i++) await drain(visitor(reader()).get(`/d/${paper.slug}/file`));
		await drain(boss.get(`/d/${paper.slug}/file?from=desk`));
		await sumUp();
		const { figures } = await boss.api<{ figures: { readers: number } }>('GET', `/readership/documents/${paper.slug}`);
		const { listDocuments } = await import('#server/documents/list');
		const { items } = await listDocuments({ q: `"${paper.title}"` });
		const line = items.find((d) => d.slug === paper.slug)!;
		expect([figures.readers, line.readers, line.days.at(-1), line.passage.read]).toEqual([3, 3, 3, 'done']);
	});
});
