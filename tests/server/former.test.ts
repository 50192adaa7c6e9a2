// Former addresses: a link to an old website's file leads to its document for good (301, RFC 9110 section 15.4.2), as far as its door lets somebody know of
// it; who comes by them is counted, and what was asked for and is not here can be mended.
import { beforeAll, describe, expect, it } from 'vitest';
import { sql } from '#server/db/client';
import { browserAgent, document, member, origin, staff, until, visitor, type Client, type DocumentJson } from './help';

interface Former {
	id: string;
	path: string;
	document: string;
	title: string;
	asked: number;
	lastFrom: string | null;
}
let boss: Client;
let open: DocumentJson;
const old = (name: string) => `/old-${process.pid}/${name}`;
const add = (items: { path: string; document: string }[], preview = false) =>
	boss.api<{ items: { path: string; outcome: string; why: string | null }[] }>('POST', '/former-addresses', { items, preview });
const ask = (path: string, headers: Record<string, string> = {}) =>
	fetch(origin + path, { redirect: 'manual', headers: { 'user-agent': browserAgent, accept: 'text/html', ...headers } });
const listed = async (path: string) => (await boss.api<{ items: Former[] }>('GET', `/former-addresses?q=${encodeURIComponent(path)}`)).items[0];
const missed = async (path: string) =>
	(await boss.api<{ items: { path: string; asked: number; lastFrom: string | null }[] }>('GET', '/former-addresses/missed')).items.find((m) => m.path === path);

beforeAll(async () => {
	boss = await staff();
	open = await document({ position: 'open' });
});

describe('a former address', () => {
	it('leads to its document for good, however it is written, and says how often', async () => {
		await add([
			{ path: `https://old.example.org${old('A%20guide.pdf')}`, document: open.slug },
			{ path: old('get.php?id=7'), document: open.slug }
		]);
		for (const path of [old('A%20guide.pdf'), old('%41%20guide%2Epdf'), old('get.php?id=7')]) {
			const led = await ask(path, { referer: 'https://walks.example.com/links' });
			expect([path, led.status, led.headers.get('location'), led.headers.get('cache-control')]).toEqual([path, 301, `/d/${open.slug}`, 'private, no-cache']);
		}
		// another query is another address
		expect((await ask(old('get.php?id=8'))).status).toBe(404);
		await until(async () => (await listed(old('A%20guide')))?.asked === 2);
		expect(await listed(old('A%20guide'))).toMatchObject({ document: open.slug, title: open.title, lastFrom: 'walks.example.com' });
		// robots are led on and not counted
		expect((await ask(old('get.php?id=7'), { 'user-agent': 'Mozilla/5.0 (compatible; Googlebot/2.1; +http://www.google.com/bot.html)' })).status).toBe(301);
		await new Promise((go) => setTimeout(go, 300));
		expect((await listed(old('get.php')))?.asked).toBe(1);
		// it goes along when the document's own address changes
		const slug = `moved-${process.pid}`;
		await boss.api('PATCH', `/documents/${open.slug}`, { slug });
		expect((await ask(old('A%20guide.pdf'))).headers.get('location')).toBe(`/d/${slug}`);
		open = { ...open, slug };
	});
	it('tells no more than the document itself does', async () => {
		const [shut, kept] = [await document({ position: 'shut' }), await document({ position: 'keyed', allMembers: true })];
		const aside = await document({ position: 'open' });
		await boss.api('DELETE', `/documents/${aside.slug}`);
		await add([
			{ path: old('shut.pdf'), document: shut.slug },
			{ path: old('kept.pdf'), document: kept.slug },
			{ path: old('aside.pdf'), document: aside.slug }
		]);
		const strange = await ask(old('never-there.pdf'));
		const plain = async (response: Response) =>
			(await response.text()).replaceAll(/nonce="[^"]*"|[0-9a-f]{8}-[0-9a-f-]{27}|(?:shut|aside|never-there)\.pdf|\d{13}|start:[^,]*,/g, '');
		const words = await plain(strange);
		for (const name of ['shut.pdf', 'aside.pdf']) {
			const hidden = await ask(old(name));
			expect([name, hidden.status]).toEqual([name, 404]);
			expect(await plain(hidden)).toBe(words);
		}
		expect((await ask(old('kept.pdf'))).status).toBe(401);
		const wren = await member({ group: 'Former friends' });
		expect((await ask(old('kept.pdf'), wren.headers)).headers.get('location')).toBe(`/d/${kept.slug}`);
		expect((await ask(old('shut.pdf'), boss.headers)).headers.get('location')).toBe(`/d/${shut.slug}`);
	});
	it('is looked at beforehand, refused in words where it cannot be, and let go', async () => {
		const path = old('once.pdf');
		const items = [
			{ path, document: open.slug },
			{ path: `${path}/`, document: open.slug },
			{ path: '/d/some-document', document: open.slug },
			{ path: '/', document: open.slug },
			{ path: old('nowhere.pdf'), document: 'no-such-document' }
		];
		const before = await add(items, true);
		expect(before.items.map((i) => i.outcome)).toEqual(['new', 'refused', 'refused', 'refused', 'refused']);
		expect(before.items.slice(1).map((i) => i.why)).toEqual([
			expect.stringContaining('in the list before'),
			expect.stringContaining('answers it itself'),
			expect.any(String),
			'there is no such document'
		]);
		expect((await ask(path)).status).toBe(404);
		expect((await add(items)).items[0]!.outcome).toBe('new');
		expect((await add([items[0]!])).items[0]!.outcome).toBe('same');
		const other = await document({ position: 'open' });
		expect((await add([{ path, document: other.slug }])).items[0]).toMatchObject({ outcome: 'changed', why: `it led to ${open.slug}` });
		expect((await ask(path)).headers.get('location')).toBe(`/d/${other.slug}`);
		const { id } = (await listed(path))!;
		expect(await boss.api('DELETE', `/former-addresses/${id}`)).toEqual({ before: { path, document: other.slug } });
		expect((await ask(path)).status).toBe(404);
		expect((await boss.send('DELETE', `/api/v1/former-addresses/${id}`)).status).toBe(404);
	});
	it('never stands before a page of the site', async () => {
		const path = `/former-page-${process.pid}`;
		await add([{ path, document: open.slug }]);
		expect((await ask(path)).status).toBe(301);
		await boss.api('POST', '/pages', { path, title: 'A page now', layout: 'article', content: { type: 'doc', content: [] }, door: { position: 'open' } });
		await boss.api('POST', `/pages${path}/publish`, {});
		expect((await ask(path)).status).toBe(200);
		expect((await add([{ path, document: open.slug }])).items[0]!.why).toMatch(/a page of this site stands there/);
		await boss.api('DELETE', `/pages${path}`);
	});
	it('is listed in parts that nothing shifts', async () => {
		const many = Array.from({ length: 25 }, (_, i) => ({ path: old(`many/${String(i).padStart(2, '0')}.pdf`), document: open.slug }));
		await add(many);
		const seen: string[] = [];
		let cursor = '';
		for (let part = 0; part < 4; part++) {
			const { items, next } = await boss.api<{ items: Former[]; next: string | null }>(
				'GET',
				`/former-addresses?q=${encodeURIComponent(old('many/'))}&limit=10${cursor}`
			);
			seen.push(...items.map((i) => i.path));
			// one before what comes next
			if (part === 0) await add([{ path: old('many/000.pdf'), document: open.slug }]);
			if (!next) break;
			cursor = `&cursor=${encodeURIComponent(next)}`;
		}
		expect(seen).toEqual(many.map((m) => m.path));
	});
});

describe('what was asked for and is not here', () => {
	it('is told where it looks like a file or another website leads there, and mended in one press', async () => {
		const [file, page, led] = [old('gone.pdf'), old('just-a-word'), old('linked')];
		await ask(file);
		await ask(file);
		await ask(page);
		await ask(led, { referer: 'https://paddlers.example.net/' });
		await ask(old('robot.pdf'), { 'user-agent': 'Googlebot/2.1' });
		await until(async () => (await missed(file))?.asked === 2 && (await missed(led)) !== undefined);
		expect([await missed(page), await missed(old('robot.pdf')), (await missed(led))?.lastFrom]).toEqual([undefined, undefined, 'paddlers.example.net']);
		await add([{ path: file, document: open.slug }]);
		expect(await missed(file)).toBeUndefined();
		expect((await ask(file)).status).toBe(301);
	});
	it('does not grow without end', async () => {
		await sql()`insert into missed_address (path, last_at) select '/bulk-' || n || '.pdf', now() - make_interval(days => 1, secs => n) from generate_series(1, 2100) n`;
		await ask(old('one-more.pdf'));
		await until(async () => Number((await sql()<{ n: string }[]>`select count(*) as n from missed_address`)[0]!.n) <= 2000);
		const [kept] = await sql()<{ path: string }[]>`select path from missed_address where path = ${old('one-more.pdf')}`;
		expect(kept).toBeDefined();
		await sql()`delete from missed_address where path like '/bulk-%'`;
	});
	it('is staff’s to see', async () => {
		expect((await visitor().send('GET', '/api/v1/former-addresses/missed')).status).toBe(401);
		expect((await (await member()).send('POST', '/api/v1/former-addresses', { items: [{ path: '/x.pdf', document: open.slug }] })).status).toBe(403);
	});
});
