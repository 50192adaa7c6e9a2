// The ledger: what is entered, once, before the first byte leaves, and what counts.
import { describe, expect, it } from 'vitest';
import { browserAgent, document, ledgerOf, member, origin, setBack, staff, visitor } from './help';
import type { Line } from '#server/reading/writer';

const { sql } = await import('#server/db/client');
const { documentSummary } = await import('#server/readership/reports/document');
const { sumAgain } = await import('#server/readership/sums/keep');
const { enterLine, moveReadings } = await import('#server/reading/writer');
const { newId } = await import('#server/id');
const { periodOf } = await import('#core/readership/period');
const reader = () => crypto.randomUUID();
/** The id of a document's edition. */
const editionOf = async (id: string) => (await sql()<{ edition_id: string }[]>`select edition_id from document where id = ${id}`)[0]!.edition_id;
const drain = async (response: Promise<Response>) => (await response).arrayBuffer();

describe('an opening', () => {
	it('stands in the ledger before the first byte leaves: with the ledger held, nothing comes', async () => {
		const open = await document({ position: 'open' });
		let answered = false;
		let request: Promise<Response> | undefined;
		await sql().begin(async (tx) => {
			await tx`lock table ledger in exclusive mode`;
			request = visitor(reader()).get(`/d/${open.slug}/file`);
			void request.then(() => (answered = true));
			await new Promise((done) => setTimeout(done, 700));
			expect(answered).toBe(false);
		});
		expect((await request!).status).toBe(200);
		expect((await ledgerOf(open.slug)).map((e) => e.kind)).toEqual(['opened']);
	});
	it('is one, however many ranges and page pictures the reading asks for, also at once', async () => {
		const open = await document({ position: 'open' });
		const one = visitor(reader());
		await Promise.all(Array.from({ length: 12 }, (_, i) => drain(one.get(`/d/${open.slug}/file`, { range: `bytes=${i * 10}-${i * 10 + 9}` }))));
		await drain(one.get(`/d/${open.slug}/leaf/1.webp`));
		await drain(one.get(`/d/${open.slug}/file`));
		expect((await ledgerOf(open.slug)).map((e) => e.kind)).toEqual(['opened']);
		await drain(visitor(reader()).get(`/d/${open.slug}/file`));
		expect(await ledgerOf(open.slug)).toHaveLength(2);
	});
	it('begins anew after 30 minutes without a request', async () => {
		const open = await document({ position: 'open' });
		const one = visitor(reader());
		await drain(one.get(`/d/${open.slug}/file`));
		await setBack(open.id, '29 minutes');
		await drain(one.get(`/d/${open.slug}/file`));
		expect(await ledgerOf(open.slug)).toHaveLength(1);
		await setBack(open.id, '31 minutes');
		await drain(one.get(`/d/${open.slug}/file`));
		expect(await ledgerOf(open.slug)).toHaveLength(2);
	});
	it('neither a HEAD, a 304, a document page, a cover nor an unsatisfiable range makes one', async () => {
		const open = await document({ position: 'open' });
		const one = visitor(reader());
		await one.send('HEAD', `/d/${open.slug}/file`);
		await one.get(`/d/${open.slug}/file`, { 'if-none-match': `"${open.sha256}"` });
		await one.get(`/d/${open.slug}/file`, { range: 'bytes=99999999-' });
		await drain(one.get(`/d/${open.slug}/cover/300.webp`));
		await drain(one.get(`/d/${open.slug}`));
		await drain(one.get(`/d/${open.slug}/read`));
		expect(await ledgerOf(open.slug)).toEqual([]);
	});
});

describe('the writer', () => {
	it('a reading that is entered goes on without a statement; its last instant is moved to the request, not beyond where somebody set it', async () => {
		const open = await document({ position: 'open' });
		const edition = await editionOf(open.id);
		const who = `c:${reader()}`;
		const goOn = () =>
			enterLine({
				...{
					id: newId(),
					kind: 'opened',
					document: open.id,
					edition,
					reader: who,
					kept: true,
					who: 'visitor',
					person: null,
					reason: null,
					placement: null,
					path: null
				},
				...{
					outside: null,
					source: 'direct',
					staff: false,
					robot: false,
					preload: false,
					key: null,
					stamp: null,
					device: 'computer',
					controlled: false,
					goesOn: true
				}
			});
		const row = async () =>
			(await sql()<{ at: Date; written: string }[]>`select last_at as at, xmin::text as written from reading where document_id = ${open.id}`)[0]!;
		await goOn();
		const begun = await row();
		await new Promise((go) => setTimeout(go, 300));
		await Promise.all(Array.from({ length: 40 }, goOn));
		expect(await row()).toEqual(begun);
		const last = Date.now();
		await new Promise((go) => setTimeout(go, 300));
		await moveReadings();
		const moved = await row();
		expect(moved.at.getTime() - begun.at.getTime()).toBeGreaterThan(200);
		expect(moved.at.getTime()).toBeLessThan(last + 200);
		// nothing is moved twice
		await moveReadings();
		expect(await row()).toEqual(moved);
		// it ended, as far as anybody here knows: what went on before that does not bring it back
		await goOn();
		await setBack(open.id, '2 hours');
		const back = await row();
		await moveReadings();
		expect(await row()).toEqual(back);
		await goOn();
		expect(await sql()`select 1 from ledger where document_id = ${open.id} and kind = 'opened'`).toHaveLength(2);
	});
	it('entries that come at once share their commits, and stand once each, however often a reading asks', async () => {
		const open = await document({ position: 'open' });
		const edition = await editionOf(open.id);
		const line = (who: string, kind: 'opened' | 'saved', goesOn: boolean): Line => ({
			...{ id: newId(), kind, document: open.id, edition, reader: who, kept: true, who: 'visitor', person: null, reason: null, placement: null, path: null },
			...{ outside: null, source: 'direct', staff: false, robot: false, preload: false, key: null, stamp: null, device: 'computer', controlled: false, goesOn }
		});
		const readers = Array.from({ length: 120 }, () => `c:${reader()}`);
		await Promise.all(readers.map((who) => enterLine(line(who, 'saved', false))));
		const saved = await sql()<{ reader: string; commit: string }[]>`select reader, xmin::text as commit from ledger where document_id = ${open.id}`;
		expect(saved.map((r) => r.reader).sort()).toEqual([...readers].sort());
		expect(new Set(saved.map((r) => r.commit)).size).toBeLessThan(12);
		// three pictures of each reading at once: one opening
		await Promise.all(readers.flatMap((who) => Array.from({ length: 3 }, () => enterLine(line(who, 'opened', true)))));
		const opened = await sql()<{ reader: string }[]>`select reader from ledger where document_id = ${open.id} and kind = 'opened'`;
		expect(opened.map((r) => r.reader).sort()).toEqual([...readers].sort());
		// a save from its beginning is entered every time
		await Promise.all(readers.slice(0, 5).flatMap((who) => [enterLine(line(who, 'saved', false)), enterLine(line(who, 'saved', false))]));
		expect(await sql()`select 1 from ledger where document_id = ${open.id} and kind = 'saved'`).toHaveLength(130);
	});
});

describe('who, and from where', () => {
	it('names the member, marks staff, robots and pre-loads', async () => {
		const someone = await member({ group: 'Ledger people' });
		const open = await document({ position: 'open' });
		await drain(someone.get(`/d/${open.slug}/file`));
		await drain((await staff()).get(`/d/${open.slug}/file?from=desk`));
		await drain(visitor(reader()).get(`/d/${open.slug}/file`, { 'user-agent': 'Mozilla/5.0 (compatible; ExampleBot/1.0; +https://example.org/bot)' }));
		await drain(visitor(reader()).get(`/d/${open.slug}/file`, { 'sec-purpose': 'prefetch' }));
		const [preload, robot, byStaff, byMember] = await ledgerOf(open.slug);
		expect(byMember).toMatchObject({ who: { kind: 'member', email: someone.email }, staff: false, robot: false });
		expect(byStaff).toMatchObject({ who: { kind: 'staff' }, staff: true, source: { kind: 'desk' } });
		expect(robot).toMatchObject({ who: { kind: 'visitor' }, robot: true });
		expect(preload).toMatchObject({ preload: true });
	});
	it('names another website by its host, and nothing more of its address', async () => {
		const open = await document({ position: 'open' });
		await drain(visitor(reader()).get(`/d/${open.slug}/file`, { referer: 'https://walks.example.com/private?name=ada' }));
		expect((await ledgerOf(open.slug))[0]!.source).toEqual({ kind: 'outside', site: 'walks.example.com' });
	});
	it('tells the page before by its steps, however they are spelled, and not by how its address begins', async () => {
		const open = await document({ position: 'open' });
		await (await staff()).api('POST', '/pages', { path: '/desk-news', title: 'News of the desk', layout: 'article', content: { type: 'doc', content: [] } });
		const sources: unknown[] = [];
		for (const path of [`/d/${open.slug}/read`, '/desk/documents', '/%64esk/documents', '/desk-news', '/%zz']) {
			await drain(visitor(reader()).get(`/d/${open.slug}/file`, { referer: origin + path }));
			sources.push((await ledgerOf(open.slug))[0]!.source);
		}
		expect(sources).toEqual([
			{ kind: 'direct' },
			{ kind: 'desk' },
			{ kind: 'desk' },
			expect.objectContaining({ kind: 'page', path: '/desk-news' }),
			{ kind: 'direct' }
		]);
	});
	it('keeps no address of a visitor: only a keyed hash', async () => {
		const open = await document({ position: 'open' });
		await drain(visitor().get(`/d/${open.slug}/file`));
		const [row] = await sql()<{ reader: string }[]>`select * from ledger where document_id = ${open.id}`;
		expect(row!.reader).toMatch(/^a:[0-9a-f]{24}$/);
		expect(JSON.stringify(row)).not.toContain('127.0.0.1');
		expect(JSON.stringify(row)).not.toContain(browserAgent);
	});
});

describe('saves and refusals', () => {
	it('a save is entered each time, but not again for the rest of a broken one', async () => {
		const open = await document({ position: 'open' });
		const one = visitor(reader());
		await drain(one.get(`/d/${open.slug}/file?save`));
		await drain(one.get(`/d/${open.slug}/file?save`, { range: 'bytes=100-' }));
		expect((await ledgerOf(open.slug)).map((e) => e.kind)).toEqual(['saved']);
		await drain(one.get(`/d/${open.slug}/file?save`));
		expect((await ledgerOf(open.slug)).map((e) => e.kind)).toEqual(['saved', 'saved']);
	});
	it('somebody who asks for all but the first byte is entered all the same', async () => {
		const open = await document({ position: 'open' });
		await drain(visitor(reader()).get(`/d/${open.slug}/file?save`, { range: 'bytes=1-' }));
		expect((await ledgerOf(open.slug)).map((e) => e.kind)).toEqual(['saved']);
	});
	it('who was turned away, and why, at the document page, the reading room and the file; once each', async () => {
		const keyed = await document({ position: 'keyed' });
		for (const path of ['', '/read', '/file']) await drain(visitor(reader()).get(`/d/${keyed.slug}${path}`, { accept: 'text/html' }));
		expect((await ledgerOf(keyed.slug)).map((e) => [e.kind, e.reason])).toEqual(Array(3).fill(['turned-away', 'sign-in']));
	});
});

describe('counting', () => {
	it('leaves out staff, robots, pre-loads and double clicks (the model’s cases), and counts readers over the whole time', async () => {
		const open = await document({ position: 'open' });
		const edition_id = await editionOf(open.id);
		const start = Date.now() - 3_600_000;
		const enter = (seconds: number, who: string, more: Record<string, unknown> = {}) =>
			sql()`insert into ledger ${sql()({ id: crypto.randomUUID(), at: new Date(start + seconds * 1000), kind: 'opened', document_id: open.id, edition_id, reading_id: crypto.randomUUID(), reader: who, who: 'visitor', source_kind: 'direct', staff: false, robot: false, preload: false, ...more })}`;
		for (const s of [0, 20, 40]) await enter(s, 'a'); // one, at 40 s
		for (const s of [0, 31]) await enter(s, 'b'); // two
		for (const s of [0, 30]) await enter(s, 'c'); // one
		await enter(5, 'd', { staff: true });
		await enter(5, 'e', { robot: true });
		await enter(5, 'f', { preload: true });
		await sumAgain();
		const report = await documentSummary(
			{ id: open.id, edition: { id: edition_id, number: 1, pages: 3 }, keyed: false, receipt: null },
			periodOf({ days: '7' }, new Date().toISOString().slice(0, 10))
		);
		expect(report.figures).toMatchObject({ openings: 4, readers: 3, saves: 0 });
		expect(report.staff).toEqual({ openings: 1, saves: 0 });
		expect(report.bars.reduce((n, d) => n + d.openings, 0)).toBe(4);
		const doubles = (await ledgerOf(open.slug)).filter((e) => e.double);
		expect(doubles).toHaveLength(3);
	});
	it('entries cannot be changed afterwards', async () => {
		const open = await document({ position: 'open' });
		await drain(visitor(reader()).get(`/d/${open.slug}/file`));
		await expect(sql()`update ledger set who = 'staff' where document_id = ${open.id}`).rejects.toThrow('append-only');
	});
	it('each month has a partition of its own, and entries that came before it move in', async () => {
		const open = await document({ position: 'open' });
		const edition_id = await editionOf(open.id);
		await sql()`insert into ledger ${sql()({ id: crypto.randomUUID(), at: new Date('2031-05-05T00:00Z'), kind: 'opened', document_id: open.id, edition_id, reading_id: crypto.randomUUID(), reader: 'x', who: 'visitor', source_kind: 'direct', staff: false, robot: false, preload: false })}`;
		await sql()`select ledger_month('2031-05-20')`;
		expect(await sql()`select 1 from ledger_2031_05 where document_id = ${open.id}`).toHaveLength(1);
	});
	it('whoever goes on from the last entry is given none of the last minute yet, since one that happened before it may still come', async () => {
		const paper = await document({ position: 'open' });
		await (await visitor().get(`/d/${paper.slug}/file`)).arrayBuffer();
		const boss = await staff();
		const of = (query: string) => boss.api<{ items: { id: string }[]; since: string | null }>('GET', `/documents/${paper.slug}/ledger?${query}`);
		expect([(await of('')).items.length, (await of('')).since, (await of('order=oldest')).items.length]).toEqual([1, null, 0]);
	});
	it('the ledger pages on by its cursor without leaving out or repeating', async () => {
		const open = await document({ position: 'open' });
		for (let i = 0; i < 7; i++) await drain(visitor(reader()).get(`/d/${open.slug}/file`));
		const seen: string[] = [];
		let cursor: string | null = '';
		while (cursor !== null) {
			const answer: { items: { at: string }[]; next: string | null } = await (
				await staff()
			).api('GET', `/documents/${open.slug}/ledger?limit=3${cursor && `&cursor=${cursor}`}`);
			seen.push(...answer.items.map((i) => i.at));
			cursor = answer.next;
		}
		expect(seen).toHaveLength(7);
		expect([...seen].sort().reverse()).toEqual(seen);
	});
});
