// Turned away: honest words of the document, the site or in general; knocks and their answers; keys mailed to a list; read-only pages'
// words; stamped copies; the trail.
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { unzipSync } from 'fflate';
import { beforeAll, describe, expect, it } from 'vitest';
import { stampNumbersIn } from '#core/reading/stamp';
import { sql } from '#server/db/client';
import { imagesOn } from '#server/pdf/page-images';
import { samples } from '../../scripts/samples';
import { client, document, forgetTries, ledgerOf, member, origin, pdf, qpdf, send, staff, visitor, type Client, type DocumentJson } from './help';
import { linkIn, mails, mailTo } from './mails';

const html = { accept: 'text/html' };
let count = 0;
const group = async () => (await (await staff()).api<{ slug: string }>('POST', '/groups', { name: `Turned ${++count}` })).slug;
const form = (path: string, fields: Record<string, string>, who: Client = visitor()) =>
	fetch(origin + path, {
		method: 'POST',
		redirect: 'manual',
		headers: { ...who.headers, origin, accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' },
		body: new URLSearchParams(fields)
	});

beforeAll(forgetTries);

describe('turned away', () => {
	it('says the document’s own words and still the reason, and leads where its button leads', async () => {
		const { slug, title } = await document({
			position: 'keyed',
			turnedAway: { heading: 'For our wardens', words: 'Ask at the lock cottage.', button: { label: 'Become a warden', target: '/join' } }
		});
		const page = await (await visitor().get(`/d/${slug}`, html)).text();
		for (const words of [
			'For our wardens',
			'Ask at the lock cottage.',
			'This is kept for members.',
			'Become a warden',
			'href="/join"',
			'Sign in',
			`/d/${slug}/knock`
		])
			expect(page).toContain(words);
		expect(page).not.toContain(title);
		const shut = await document({ position: 'shut', turnedAway: { heading: 'Secret heading' } });
		const hidden = await (await visitor().get(`/d/${shut.slug}`, html)).text();
		expect(hidden).not.toContain('Secret heading');
		expect(hidden).not.toContain('/knock');
	});
	it('a button leads nowhere that could do harm', async () => {
		const boss = await staff();
		const { slug } = await document();
		for (const target of ['javascript:alert(1)', '//example.org', '/\\example.org', 'data:text/html,x', 'ftp://example.org']) {
			const response = await boss.send('PATCH', `/api/v1/documents/${slug}`, { door: { turnedAway: { button: { label: 'x', target } } } });
			expect([target, response.status]).toEqual([target, 422]);
		}
	});
});

describe('a knock', () => {
	it('reaches staff, who let in by a group; a newcomer becomes a member and is invited', async () => {
		const boss = await staff();
		const admitted = await group();
		const { slug, title } = await document({ position: 'keyed', groups: [admitted] });
		const email = `knock-${++count}-${process.pid}@example.org`;
		const asking = await (await visitor().get(`/d/${slug}/knock`, html)).text();
		expect(asking).toContain('Ask to be let in');
		expect(asking).not.toContain(title);
		expect((await form(`/d/${slug}/knock`, { email: 'nobody', words: 'Please' })).status).toBe(422);
		expect(await (await form(`/d/${slug}/knock`, { email, words: 'I keep the lock at Oxmere.' })).text()).toContain('Your knock is passed on');
		expect((await ledgerOf(slug)).map((e) => e.kind)).toContain('knocked');

		const { items } = await boss.api<{
			items: { id: string; email: string; words: string; groups: { slug: string }[]; answer: string | null; person: unknown }[];
		}>('GET', '/knocks');
		const knock = items.find((k) => k.email === email)!;
		expect(knock).toMatchObject({ words: 'I keep the lock at Oxmere.', groups: [{ slug: admitted }], answer: null, person: null });
		expect(await boss.api('POST', `/knocks/${knock.id}/answer`, { do: 'group', group: admitted, until: '2099-12-31' })).toEqual({ mailed: true });
		expect((await boss.send('POST', `/api/v1/knocks/${knock.id}/answer`, { do: 'declined' })).status).toBe(409);
		expect((await mailTo(email, /let in/)).text).toContain(`/d/${slug}`);
		const invited = linkIn(await mailTo(email, /sign-in/));
		const accepted = await form(new URL(invited).pathname, { name: 'Kit Knocker', password: 'a-password-for-tests' });
		const kit = client('', {
			cookie: accepted.headers
				.getSetCookie()
				.map((c) => c.split(';')[0])
				.join('; ')
		});
		expect((await kit.get(`/d/${slug}`)).status).toBe(200);
	});
	it('is answered by a key, or declined with words', async () => {
		const boss = await staff();
		const { slug } = await document({ position: 'keyed' });
		const [one, two] = [`key-${++count}-${process.pid}@example.org`, `no-${count}-${process.pid}@example.org`];
		for (const email of [one, two]) await form(`/d/${slug}/knock`, { email, words: 'Let me in' });
		const { items } = await boss.api<{ items: { id: string; email: string }[] }>('GET', '/knocks');
		const idOf = (email: string) => items.find((k) => k.email === email)!.id;
		await boss.api('POST', `/knocks/${idOf(one)}/answer`, { do: 'key' });
		await boss.api('POST', `/knocks/${idOf(two)}/answer`, { do: 'declined', words: 'It is for the trustees.' });
		const key = await visitor().get(new URL(linkIn(await mailTo(one))).pathname);
		expect([key.status, key.headers.get('location')]).toEqual([303, `/d/${slug}`]);
		expect((await mailTo(two)).text).toContain('It is for the trustees.');
		expect((await mailTo(two)).text).not.toContain('/k/');
	});
	it('nobody knocks at what is hidden, closed to all, forbidden to knock at, or open to them', async () => {
		const [shut, closed, forbidden, open] = [
			await document({ position: 'shut' }),
			await document({ position: 'open', until: '2020-01-01' }),
			await document({ position: 'keyed', turnedAway: { knock: false } }),
			await document({ position: 'open' })
		];
		const status = async (slug: string) => (await form(`/d/${slug}/knock`, { email: 'x@example.org', words: 'x' })).status;
		expect(await status(shut.slug)).toBe(404);
		expect(await status('no-such-document')).toBe(404);
		expect(await status(closed.slug)).toBe(403);
		expect(await status(forbidden.slug)).toBe(401);
		expect(await status(open.slug)).toBe(303);
		const [row] = await sql()<{ n: number }[]>`select count(*)::int as n from knock where email = 'x@example.org'`;
		expect(row!.n).toBe(0);
	});
});

describe('keys for a list of addresses', () => {
	it('are mailed one by one, and a wrong address ends it before any is', async () => {
		const boss = await staff();
		const { slug, title } = await document({ position: 'keyed' });
		const [a, b] = [`list-a-${++count}-${process.pid}@example.org`, `list-b-${count}-${process.pid}@example.org`];
		expect((await boss.send('POST', `/api/v1/documents/${slug}/keys/mail`, { addresses: [a, 'nobody'] })).status).toBe(422);
		expect((await boss.api<{ items: unknown[] }>('GET', `/documents/${slug}/keys`)).items).toEqual([]);
		const { items } = await boss.api<{ items: { address: string; mailed: boolean; url: string | null }[] }>('POST', `/documents/${slug}/keys/mail`, {
			addresses: [`Ann Heron <${a}>`, b],
			openings: 2,
			words: 'With thanks from the lock.'
		});
		expect(items).toMatchObject([
			{ address: a, mailed: true, url: null },
			{ address: b, mailed: true, url: null }
		]);
		const [first, second] = [await mailTo(a), await mailTo(b)];
		expect(first.text).toContain('Ann Heron,');
		for (const words of ['With thanks from the lock.', 'It opens 2 times.', title]) expect(first.text).toContain(words);
		expect(linkIn(first)).not.toBe(linkIn(second));
		expect((await visitor().get(new URL(linkIn(first)).pathname)).status).toBe(303);
		expect(mails().filter((m) => m.to.includes('nobody'))).toEqual([]);
	});
	it('of several documents come in one mail an address, each opening its own', async () => {
		const boss = await staff();
		const [one, two] = [await document({ position: 'keyed' }), await document({ position: 'keyed' })];
		const email = `many-${++count}-${process.pid}@example.org`;
		const ask = (documents: string[], addresses: string[]) => boss.send('POST', '/api/v1/keys/mail', { documents, addresses, until: '2099-01-01' });
		// a document that is not there, a wrong address, or too much of it ends it before any is issued
		expect((await ask([one.slug, 'no-such-document'], [email])).status).toBe(404);
		expect((await ask([one.slug, two.slug], ['nobody'])).status).toBe(422);
		expect((await ask([], [email])).status).toBe(422);
		expect((await visitor().send('POST', '/api/v1/keys/mail', { documents: [one.slug], addresses: [email] })).status).toBe(401);
		for (const { slug } of [one, two]) expect((await boss.api<{ items: unknown[] }>('GET', `/documents/${slug}/keys`)).items).toEqual([]);
		const answer = (await (await ask([one.slug, two.slug], [email])).json()) as {
			items: { mailed: boolean; keys: { document: string; url: string | null }[] }[];
		};
		expect(answer.items).toMatchObject([
			{
				mailed: true,
				keys: [
					{ document: one.slug, url: null },
					{ document: two.slug, url: null }
				]
			}
		]);
		const mail = await mailTo(email);
		expect(mails().filter((m) => m.to.includes(email))).toHaveLength(1);
		for (const words of [one.title, two.title, 'Each holds until 1 January 2099']) expect(mail.text).toContain(words);
		const paths = [...mail.text.matchAll(/https?:\/\/\S+(\/k\/[\w-]+)/g)].map((m) => m[1]!);
		const led = await Promise.all(paths.map(async (path) => (await visitor().get(path)).headers.get('location')));
		expect(led).toEqual([`/d/${one.slug}`, `/d/${two.slug}`]);
	});
});

describe('documents saved together', () => {
	const zip = (documents: string[], who: Client) =>
		fetch(`${origin}/desk/documents.zip`, {
			method: 'POST',
			redirect: 'manual',
			headers: { ...who.headers, origin, 'content-type': 'application/x-www-form-urlencoded' },
			body: new URLSearchParams(documents.map((slug): [string, string] => ['document', slug]))
		});
	it('are one zip of the files as they came in, each an entry in the ledger', async () => {
		const boss = await staff();
		const [one, two, three] = [await document({ position: 'shut' }), await document({ position: 'open' }), await document({ position: 'keyed' })];
		const response = await zip([one.slug, two.slug, three.slug], boss);
		expect(response.headers.get('content-type')).toBe('application/zip');
		expect(response.headers.get('content-disposition')).toMatch(/^attachment; filename="documents-\d{4}-\d\d-\d\d\.zip"$/);
		const bytes = new Uint8Array(await response.arrayBuffer());
		// a local file header and the end of the central directory, which counts the entries (.ZIP File Format Specification, 4.3.7 and 4.3.16)
		const view = new DataView(bytes.buffer);
		expect(view.getUint32(0, true)).toBe(0x04034b50);
		expect([view.getUint32(bytes.length - 22, true), view.getUint16(bytes.length - 12, true)]).toEqual([0x06054b50, 3]);
		const files = Object.values(unzipSync(bytes));
		const sums = files.map((file) => createHash('sha256').update(file).digest('hex'));
		expect(sums).toEqual([one.sha256, two.sha256, three.sha256]);
		for (const { slug } of [one, two, three]) expect((await ledgerOf(slug)).map((e) => e.kind)).toEqual(['saved']);
	});
	it('are for staff, and not sent where one is not there', async () => {
		const { slug, title } = await document({ position: 'open' });
		const boss = await staff();
		expect((await zip([slug, 'no-such-document'], boss)).status).toBe(404);
		expect((await zip([], boss)).status).toBe(422);
		for (const who of [visitor(), await member()]) {
			const refused = await zip([slug], who);
			expect([401, 403]).toContain(refused.status);
			expect(await refused.text()).not.toContain(title);
		}
		expect(await ledgerOf(slug)).toEqual([]);
	});
});

describe('read only', () => {
	it('the words of a page come with their places, and the file does not', async () => {
		const made = await document({ position: 'open', allow: { save: false } }, 2);
		const text = (await (await visitor().get(`/d/${made.slug}/leaf/2.json`)).json()) as {
			page: number;
			width: number;
			height: number;
			lines: { text: string; x: number; y: number; height: number }[];
		};
		expect(text).toMatchObject({ page: 2, width: 595.28, height: 841.89 });
		expect(text.lines.map((l) => l.text).join(' ')).toContain('page 2');
		// PDFKit's margin is an inch: 72 points
		expect(text.lines[0]!.x).toBeCloseTo(72, 0);
		expect(text.lines[0]!.y).toBeGreaterThan(60);
		expect((await visitor().get(`/d/${made.slug}/file`)).status).toBe(403);
		expect((await visitor().get(`/d/${made.slug}/leaf/3.json`)).status).toBe(404);
		const opened = (await ledgerOf(made.slug)).filter((e) => e.kind === 'opened');
		expect(opened.length).toBe(1);
		const keyed = await document({ position: 'keyed' });
		expect((await visitor().get(`/d/${keyed.slug}/leaf/1.json`)).status).toBe(401);
		expect(await (await visitor().get(`/d/${keyed.slug}/leaf/1.json`)).text()).not.toContain('Paper');
	});
	it('a page that is turned is read as it is shown', async () => {
		const turned = await qpdf(await pdf('Sideways words'), (a, b) => [a, '--rotate=+90', b]);
		const made = (await (await send(turned, 'sideways.pdf')).json()) as DocumentJson;
		await (await staff()).api('PATCH', `/documents/${made.slug}`, { door: { position: 'open' } });
		const text = (await (await visitor().get(`/d/${made.slug}/leaf/1.json`)).json()) as { width: number; height: number; lines: { text: string }[] };
		expect(Math.round(text.width)).toBe(842);
		expect(Math.round(text.height)).toBe(595);
		expect(text.lines.map((l) => l.text).join(' ')).toContain('Sideways');
	});
	it('where the pictures of a page stand is told as pdftohtml of Poppler finds them, on turned pages too', async () => {
		const folder = mkdtempSync(join(tmpdir(), 'ianua-pictures-'));
		const found = (path: string): [number, number, number, number][] => {
			const xml = execFileSync('pdftohtml', ['-xml', '-stdout', '-f', '2', '-l', '2', path], { encoding: 'utf8' });
			const number = (line: string, name: string) => Number(new RegExp(`${name}="(-?\\d+)"`).exec(line)?.[1]);
			const page = /<page [^>]*>/.exec(xml)![0];
			const [width, height] = [number(page, 'width'), number(page, 'height')];
			return [...xml.matchAll(/<image [^>]*>/g)].map(([line]) => {
				// of a turned page it counts a length from the other end
				const span = (from: string, length: string, of: number): [number, number] => {
					const [one, other] = [number(line, from) / of, (number(line, from) + number(line, length)) / of];
					return [Math.min(one, other), Math.max(one, other)];
				};
				const [[left, right], [top, bottom]] = [span('left', 'width', width), span('top', 'height', height)];
				return [left, top, right, bottom];
			});
		};
		// from upper left corner to lower right one, whichever of its corners a picture begins with
		const boxes = (corners: readonly number[]): [number, number, number, number][] =>
			Array.from({ length: corners.length / 6 }, (_, n) => {
				const [x1 = 0, y1 = 0, x2 = 0, y2 = 0, x3 = 0, y3 = 0] = corners.slice(n * 6, n * 6 + 6);
				const [xs, ys] = [
					[x1, x2, x3, x2 + x3 - x1],
					[y1, y2, y3, y2 + y3 - y1]
				];
				return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
			});
		try {
			for (const [name, source, args] of [
				['large', samples.large, []],
				['scanned', samples.scanned, []],
				['askance', samples.large, ['--rotate=+90']]
			] as const) {
				const path = join(folder, `${name}.pdf`);
				execFileSync('qpdf', [source, ...args, path]);
				const [theirs, ours] = [found(path), boxes(await imagesOn(path, 2))];
				expect(theirs.length, name).toBeGreaterThan(0);
				expect(ours.length, name).toBe(theirs.length);
				ours.forEach((box, n) => box.forEach((share, i) => expect(share, `${name}, ${n}, ${i}`).toBeCloseTo(theirs[n]![i]!, 2)));
			}
		} finally {
			rmSync(folder, { recursive: true });
		}
		// and comes with the words of a page whose file stays here
		const made = (await (await send(readFileSync(samples.scanned), 'pictures.pdf')).json()) as DocumentJson;
		await (await staff()).api('PATCH', `/documents/${made.slug}`, { door: { position: 'open', allow: { save: false } } });
		const { pictures } = (await (await visitor().get(`/d/${made.slug}/leaf/2.json`)).json()) as { pictures: number[] };
		expect(pictures).toHaveLength(6);
		const plain = await document({ position: 'open', allow: { save: false } });
		expect(((await (await visitor().get(`/d/${plain.slug}/leaf/1.json`)).json()) as { pictures: number[] }).pictures).toEqual([]);
	});
});

describe('stamped copies', () => {
	const textOf = (bytes: Buffer) => {
		const path = join(tmpdir(), `stamped-${process.pid}-${++count}.pdf`);
		writeFileSync(path, bytes);
		return execFileSync('pdftotext', ['-enc', 'UTF-8', path, '-'], { encoding: 'utf8' });
	};
	it('carry the name, the day and a number on each page; the number stands in the ledger, and tells whose copy it is', async () => {
		const boss = await staff();
		const slug_ = await group();
		const { slug, sha256 } = await document({ position: 'keyed', groups: [slug_], stamped: true }, 3);
		const zoe = await member({ group: slug_ });
		await sql()`update person set name = 'Zoë Łódzka-Шлюз' where id = ${zoe.id}`;
		const saved = await zoe.get(`/d/${slug}/file?save`);
		expect(saved.headers.get('content-disposition')).toMatch(/^attachment/);
		expect(saved.headers.get('cache-control')).toContain('private');
		const bytes = Buffer.from(await saved.arrayBuffer());
		const pages = textOf(bytes).split('\f').slice(0, 3);
		const numbers = pages.map((page) => stampNumbersIn(page));
		expect(numbers[0]!.length).toBe(1);
		expect(new Set(numbers.flat()).size).toBe(1);
		for (const page of pages) expect(page.replace(/\s+/g, '')).toContain('CopyofZoëŁódzka-Шлюз,');
		const [entry] = await sql()<
			{ stamp: string }[]
		>`select stamp from ledger where document_id = (select id from document where slug = ${slug}) and kind = 'saved'`;
		expect(entry!.stamp).toBe(numbers[0]![0]);

		// the same day the same copy, to the byte; a range goes on in it; the original leaves to staff alone
		const again = await zoe.get(`/d/${slug}/file?save`, { range: 'bytes=100-199' });
		expect(again.status).toBe(206);
		expect(Buffer.from(await again.arrayBuffer()).equals(bytes.subarray(100, 200))).toBe(true);
		expect((await zoe.get(`/d/${slug}/file`)).status).toBe(403);
		expect((await boss.api<DocumentJson>('GET', `/documents/${slug}`)).sha256).toBe(sha256);
		const unstamped = Buffer.from(await (await boss.get(`/d/${slug}/file?save`)).arrayBuffer());
		expect(stampNumbersIn(textOf(unstamped))).toEqual([]);

		const back = new FormData();
		back.append('file', new Blob([new Uint8Array(await qpdf(bytes, (a, b) => ['--pages', a, '2', '--', a, b]))]), 'found-somewhere.pdf');
		const told = await (
			await fetch(`${origin}/desk/upkeep/copies`, { method: 'POST', headers: { ...boss.headers, origin, accept: 'text/html' }, body: back })
		).text();
		expect(told).toContain('Zoë Łódzka-Шлюз');
		expect(told).toContain(numbers[0]![0]);
		const other = new FormData();
		other.append('file', new Blob([new Uint8Array(unstamped)]), 'plain.pdf');
		expect(
			await (await fetch(`${origin}/desk/upkeep/copies`, { method: 'POST', headers: { ...boss.headers, origin, accept: 'text/html' }, body: other })).text()
		).toContain('carries no stamp');
	});
	it('another holder has another number, a key its label, who is not known a visitor’s; nothing leaves without one', async () => {
		const { slug } = await document({ position: 'open', stamped: true });
		const [one, two] = [await member(), await member()];
		const numberOf = async (who: Client) => stampNumbersIn(textOf(Buffer.from(await (await who.get(`/d/${slug}/file?save`)).arrayBuffer())));
		const [a, b] = [await numberOf(one), await numberOf(two)];
		expect(a[0]).not.toBe(b[0]);
		const [c] = await numberOf(visitor());
		expect([a[0], b[0]]).not.toContain(c);
		// the file as it is leaves to staff alone; others read pictures of its pages
		for (const who of [one, visitor()])
			for (const path of ['/file', '/file?for=reading', '/attachment/1']) {
				const refused = await who.get(`/d/${slug}${path}`);
				expect([path, refused.status]).toEqual([path, 403]);
				expect(await refused.text()).toContain('save-not-allowed');
			}
		expect((await visitor().get(`/d/${slug}/leaf/1.webp`)).status).toBe(200);
		expect(await (await visitor().get(`/d/${slug}/read`)).text()).toMatch(/hasFile:\s*(?:false|!1)/);
		expect((await (await staff()).get(`/d/${slug}/file`)).status).toBe(200);
	});
	it('for whoever holds a key carry its label', async () => {
		const boss = await staff();
		const { slug } = await document({ position: 'keyed', stamped: true }, 1);
		const { url } = await boss.api<{ url: string }>('POST', `/documents/${slug}/keys`, { label: 'To the boatyard', allow: { save: true, print: false } });
		const opened = await visitor().get(new URL(url).pathname, html);
		const browser = client('', {
			cookie: opened.headers
				.getSetCookie()
				.map((c) => c.split(';')[0]!)
				.join('; ')
		});
		const saved = await browser.get(`/d/${slug}/file?save`);
		expect(saved.status).toBe(200);
		const words = textOf(Buffer.from(await saved.arrayBuffer()));
		expect(words.replace(/\s+/g, '')).toContain('CopyofTotheboatyard,');
		const [entry] = await sql()<
			{ stamp: string }[]
		>`select stamp from ledger where document_id = (select id from document where slug = ${slug}) and kind = 'saved'`;
		expect(entry!.stamp).toBe(stampNumbersIn(words)[0]);
	});
});

describe('the audit trail', () => {
	it('tells who changed what from what to what, filtered, and as a table', async () => {
		const boss = await staff();
		const { slug, title } = await document({ position: 'keyed' });
		await boss.api('PATCH', `/documents/${slug}`, { door: { position: 'open', allow: { save: false } } });
		const page = await (await boss.get(`/desk/upkeep/trail?kind=document&action=door-set&q=${encodeURIComponent(title)}`, html)).text();
		const plain = page.replace(/<!--.*?-->| class="[^"]*"/g, '');
		expect(plain).toMatch(/Olive Owner<\/b>\s*set the door of/);
		expect(plain).toContain('<del>keyed</del>');
		expect(plain).toContain('<ins>open</ins>');
		const table = await (await boss.get(`/desk/upkeep/trail.csv?q=${encodeURIComponent(title)}`)).text();
		expect(table).toMatch(/^at,actor,action,kind,thing,what,from,to\r\n/);
		expect(table).toMatch(new RegExp(`Olive Owner,door-set,document,${title},saving,yes,no\\r\\n`));
		expect((await (await member()).get('/desk/upkeep/trail.csv')).status).toBe(403);
		expect(await (await boss.get('/desk/upkeep/trail?q=nothing-that-there-is', html)).text()).toContain('Nothing fits.');
	});
});
