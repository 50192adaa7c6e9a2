// Former addresses: a link to an old website's file leads to its document for good (301, RFC 9110 section 15.4.2), as far as its door lets somebody know of
// it; who comes by them is counted, and what was asked for and is not here can be mended.
import { gzipSync } from 'node:zlib';
import { beforeAll, describe, expect, it } from 'vitest';
import { sql } from '#server/db/client';
import { given } from './given';
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
	boss.api<{ items: { path: string; outcome: string; why: string | null; takes: { path: string; document: string | null }[] }[] }>(
		'POST',
		'/former-addresses',
		{
			items,
			preview
		}
	);
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
		await until(async () => (await listed(old('get.php')))?.asked === 1);
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

describe('a pattern of former addresses', () => {
	it('leads to one document, or to the one that has the name; the address itself comes first, then who says most of it', async () => {
		const [one, two, shut] = [await document({ position: 'open' }), await document({ position: 'open' }), await document({ position: 'shut' })];
		await add([
			{ path: old('star/**'), document: one.slug },
			{ path: old('star/**/*.pdf'), document: '*' },
			{ path: old(`star/2019/${two.slug}.pdf`), document: one.slug }
		]);
		const led = async (path: string) => {
			const answer = await ask(old(`star/${path}`));
			return answer.status === 301 ? answer.headers.get('location') : answer.status;
		};
		expect(await led(`a/b/${two.slug.toUpperCase().replaceAll('-', '%20')}.pdf`)).toBe(`/d/${two.slug}`);
		expect(await led(`2019/${two.slug}.pdf`)).toBe(`/d/${one.slug}`);
		// no document has the name: the pattern that says less answers
		expect(await led('2019/nobody.pdf')).toBe(`/d/${one.slug}`);
		expect(await led('anything')).toBe(`/d/${one.slug}`);
		// what is shut is as if it were not there
		expect(await led(`x/${shut.slug}.pdf`)).toBe(404);
		// a name that the document had before
		const slug = `renamed-${process.pid}`;
		await boss.api('PATCH', `/documents/${two.slug}`, { slug });
		expect(await led(`y/${two.slug}.pdf`)).toBe(`/d/${slug}`);
		// who came by is counted at the pattern
		await until(async () => (await listed(old('star/**/*.pdf')))?.asked === 2);
		expect(await listed(old('star/**/*.pdf'))).toMatchObject({ document: '*', title: null });
		// let go, and put back as it was
		const { id } = (await listed(old('star/**/*.pdf')))!;
		const { before } = await boss.api<{ before: { path: string; document: string } }>('DELETE', `/former-addresses/${id}`);
		expect(before).toEqual({ path: old('star/**/*.pdf'), document: '*' });
		expect((await add([before])).items[0]!.outcome).toBe('new');
	});
	it('tells beforehand what it takes of what was asked for and is not here, and takes it away from there', async () => {
		const [known, unknown] = [old(`asked/${open.slug}.pdf`), old('asked/nobody-has-this.pdf')];
		await Promise.all([ask(known), ask(unknown)]);
		await until(async () => (await missed(known)) !== undefined && (await missed(unknown)) !== undefined);
		const items = [{ path: old('asked/*.pdf'), document: '*' }];
		const told = (await add(items, true)).items[0]!;
		expect(told).toMatchObject({ outcome: 'new', why: null });
		expect(told.takes.sort((a, b) => (a.path < b.path ? -1 : 1))).toEqual(
			[
				{ path: known, document: open.slug },
				{ path: unknown, document: null }
			].sort((a, b) => (a.path < b.path ? -1 : 1))
		);
		expect(await missed(known)).toBeDefined();
		await add(items);
		expect([await missed(known), (await missed(unknown)) !== undefined]).toEqual([undefined, true]);
		expect((await ask(unknown)).status).toBe(404);
	});
	it('alone leads to the document of a name', async () => {
		expect((await add([{ path: old('no-star.pdf'), document: '*' }])).items[0]).toMatchObject({
			outcome: 'refused',
			why: expect.stringContaining('only a pattern') as string
		});
	});
});

describe('the sitemap of an old website', () => {
	const place = (loc: string) => `<url><loc>${loc}</loc><lastmod>2019-04-01</lastmod></url>`;
	const map = (...locs: string[]) =>
		`<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${locs.map(place).join('')}</urlset>`;
	const website = `http://127.0.0.1:${given.webSource}`;
	const put = (path: string, body: string | Buffer) => fetch(website + path, { method: 'PUT', body: new Uint8Array(Buffer.from(body as string)) });
	const read = (url: string) =>
		boss.api<{ items: { path: string; document: string | null }[]; passedOver: number }>('POST', '/former-addresses/elsewhere', { url });
	const code = async (url: string) => ((await (await boss.send('POST', '/api/v1/former-addresses/elsewhere', { url })).json()) as { code: string }).code;

	it('is read with its parts, packed or not: files beside the documents that have their names, nothing set by it', async () => {
		// the example of sitemaps.org (protocol 0.9, "Entity escaping", from memory): an ampersand is written &amp;
		await put(
			'/sitemap.xml',
			`<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><sitemap><loc>${website}/one.xml.gz</loc></sitemap><sitemap><loc>${website}/two.xml</loc></sitemap></sitemapindex>`
		);
		await put('/one.xml.gz', gzipSync(map(`https://old.example.org${old(`sitemap/${open.slug}.pdf`)}`, 'https://old.example.org/about-us')));
		await put('/two.xml', map(`https://old.example.org${old('sitemap/unheard%20of.pdf')}`, `https://old.example.org${old('sitemap/get.pdf?a=1&amp;b=2')}`));
		expect(await read(`${website}/sitemap.xml`)).toEqual({
			items: [
				{ path: old(`sitemap/${open.slug}.pdf`), document: open.slug },
				{ path: old('sitemap/unheard%20of.pdf'), document: null },
				{ path: old('sitemap/get.pdf?a=1&b=2'), document: null }
			],
			passedOver: 1
		});
		expect(await listed(old('sitemap/'))).toBeUndefined();
		await add([{ path: old(`sitemap/${open.slug}.pdf`), document: open.slug }]);
		expect((await read(`${website}/sitemap.xml`)).items.map(({ path }) => path)).not.toContain(old(`sitemap/${open.slug}.pdf`));
	});
	it('that is none, is gone, cannot be unpacked or lies in a private network is told in words', async () => {
		await put('/page', '<!doctype html><title>No sitemap</title>');
		await put('/words', 'no sitemap at all <');
		await put('/broken.gz', gzipSync('x').subarray(0, 12));
		expect(
			await Promise.all(
				[`${website}/page`, `${website}/words`, `${website}/broken.gz`, `${website}/gone.xml`, 'http://127.0.0.1:1/sitemap.xml', 'nowhere'].map(code)
			)
		).toEqual(['not-valid', 'not-valid', 'not-valid', 'web-gone', 'web-private', 'web-address']);
		await put('/empty.xml', map());
		expect(await read(`${website}/empty.xml`)).toEqual({ items: [], passedOver: 0 });
	});
});
