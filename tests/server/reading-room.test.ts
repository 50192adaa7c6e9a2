// The reading room on the server: what it tells the ledger, attachments, settings from site to placement, the language it speaks.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import { describe, expect, it } from 'vitest';
import { messages } from '#core/words/messages';
import { languages } from '#core/words/words';
import { sql } from '#server/db/client';
import { document, ledgerOf, origin, pdf, qpdf, send, setBack, staff, visitor } from './help';

const reader = () => crypto.randomUUID();
const html = { accept: 'text/html' };
const read = (pages: { page: number; seconds: number }[]) => ({ kind: 'read', pages });

describe('what a reading room tells', () => {
	it('stands in the ledger as reading, in the reading that the opening began, with the seconds of each page', async () => {
		const open = await document({ position: 'open' });
		const one = visitor(reader());
		await (await one.get(`/d/${open.slug}/leaf/1.webp`)).arrayBuffer();
		expect((await one.send('POST', `/d/${open.slug}/read/told`, read([{ page: 1, seconds: 4.5 }]))).status).toBe(204);
		const entries = await sql()<{ kind: string; reading_id: string; attention: unknown }[]>`
			select kind, reading_id, attention from ledger where document_id = ${open.id} order by at`;
		expect(entries.map((e) => e.kind)).toEqual(['opened', 'read']);
		expect(entries[0]!.reading_id).toBe(entries[1]!.reading_id);
		expect(entries[1]!.attention).toEqual([{ page: 1, seconds: 4.5 }]);
		expect((await ledgerOf(open.slug)).find((e) => e.kind === 'read')).toMatchObject({ pages: [{ page: 1, seconds: 4.5 }], double: false });
	});
	it('is a sign of life: the reading goes on; a day later it is a new opening', async () => {
		const open = await document({ position: 'open' });
		const one = visitor(reader());
		await (await one.get(`/d/${open.slug}/leaf/1.webp`)).arrayBuffer();
		await setBack(open.id, '29 minutes');
		await one.send('POST', `/d/${open.slug}/read/told`, read([{ page: 1, seconds: 5 }]));
		await (await one.get(`/d/${open.slug}/leaf/1.webp`)).arrayBuffer();
		expect((await ledgerOf(open.slug)).filter((e) => e.kind === 'opened')).toHaveLength(1);
		await setBack(open.id, '1 day');
		await one.send('POST', `/d/${open.slug}/read/told`, read([{ page: 1, seconds: 5 }]));
		expect((await ledgerOf(open.slug)).map((e) => e.kind).sort()).toEqual(['opened', 'opened', 'read', 'read']);
	});
	it('is cut to the time that has passed since the opening, however often it is told; a new reading begins at nothing', async () => {
		const open = await document({ position: 'open' }, 2);
		const one = visitor(reader());
		const tell = (seconds: number) =>
			one.send(
				'POST',
				`/d/${open.slug}/read/told`,
				read([
					{ page: 1, seconds },
					{ page: 2, seconds: 1 }
				])
			);
		const told = async () =>
			(
				await sql()<{ seconds: number[] }[]>`
					select array(select (a->>'seconds')::float from jsonb_array_elements(attention) a) as seconds from ledger
					where document_id = ${open.id} and kind = 'read' order by at`
			).map((e) => e.seconds);
		const begun = Date.now();
		await (await one.get(`/d/${open.slug}/leaf/1.webp`)).arrayBuffer();
		for (let i = 0; i < 3; i++) await tell(300);
		const passed = (Date.now() - begun) / 1000;
		const all = await told();
		expect(all).toHaveLength(3);
		expect(all[0]![0]).toBeGreaterThanOrEqual(5);
		expect(all[0]![1]).toBe(1);
		// five seconds are allowed for clocks and networks that are not exact
		expect(all.reduce((sum, seconds) => sum + seconds[0]!, 0)).toBeLessThan(passed + 5.5);
		await setBack(open.id, '1 day');
		await tell(4);
		expect((await told()).at(-1)).toEqual([4, 1]);
	});
	it('is taken only from whoever is let in, and only as far as it can be true', async () => {
		const [shut, keyed, open] = [await document({ position: 'shut' }), await document({ position: 'keyed' }), await document({ position: 'open' })];
		const one = visitor(reader());
		expect((await one.send('POST', `/d/${shut.slug}/read/told`, read([{ page: 1, seconds: 5 }]))).status).toBe(404);
		expect((await one.send('POST', `/d/${keyed.slug}/read/told`, read([{ page: 1, seconds: 5 }]))).status).toBe(401);
		for (const wrong of [
			read([]),
			read([{ page: 0, seconds: 5 }]),
			read([{ page: 1, seconds: 301 }]),
			read([{ page: 1, seconds: -1 }]),
			{ kind: 'read' },
			{ kind: 'opened' },
			{ kind: 'printed', pages: [1] }
		])
			expect([wrong, (await one.send('POST', `/d/${open.slug}/read/told`, wrong)).status]).toEqual([wrong, 422]);
		// a page that the document has not
		expect((await one.send('POST', `/d/${open.slug}/read/told`, read([{ page: 999, seconds: 5 }]))).status).toBe(204);
		expect(await ledgerOf(open.slug)).toEqual([]);
		// another website cannot speak for a reader
		const foreign = await fetch(`${origin}/d/${open.slug}/read/told`, {
			method: 'POST',
			headers: { 'content-type': 'application/json', origin: 'https://elsewhere.example.org' },
			body: JSON.stringify(read([{ page: 1, seconds: 5 }]))
		});
		expect(foreign.status).toBe(403);
	});
	it('a print stands in the ledger; where printing is not allowed it is refused', async () => {
		const [may, mayNot] = [await document({ position: 'open' }), await document({ position: 'open', allow: { save: true, print: false } })];
		const one = visitor(reader());
		expect((await one.send('POST', `/d/${may.slug}/read/told`, { kind: 'printed' })).status).toBe(204);
		expect((await ledgerOf(may.slug)).map((e) => e.kind)).toEqual(['printed']);
		expect((await one.send('POST', `/d/${mayNot.slug}/read/told`, { kind: 'printed' })).status).toBe(403);
		expect((await ledgerOf(mayNot.slug)).map((e) => [e.kind, e.reason])).toEqual([['turned-away', 'print-not-allowed']]);
	});
});

describe('an attachment', () => {
	it('is given by the same decision as the file, to the bit, and is an entry of the ledger', async () => {
		const note = join(tmpdir(), `reading-${process.pid}.txt`);
		writeFileSync(note, 'Gauge at Oxmere: 1.42 m\n');
		const bytes = await qpdf(await pdf('Gauges'), (input, output) => [input, '--add-attachment', note, '--filename=gauge §.txt', '--', output]);
		const { slug } = (await (await send(new Uint8Array(bytes), 'gauges.pdf')).json()) as { slug: string };
		await (await staff()).send('PATCH', `/api/v1/documents/${slug}`, { door: { position: 'open' } });
		const one = visitor(reader());
		const response = await one.get(`/d/${slug}/attachment/1`);
		expect(response.status).toBe(200);
		expect(await response.text()).toBe('Gauge at Oxmere: 1.42 m\n');
		// RFC 6266 with RFC 8187 for what is not ASCII
		expect(response.headers.get('content-disposition')).toMatch(/^attachment; filename=".*"; filename\*=UTF-8''gauge%20%C2%A7\.txt$/);
		expect(response.headers.get('x-content-type-options')).toBe('nosniff');
		expect((await ledgerOf(slug)).map((e) => e.kind)).toEqual(['saved']);
		expect((await one.get(`/d/${slug}/attachment/2`)).status).toBe(404);
		expect((await one.get(`/d/${slug}/attachment/0`)).status).toBe(404);
		await (await staff()).send('PATCH', `/api/v1/documents/${slug}`, { door: { allow: { save: false, print: true } } });
		expect((await one.get(`/d/${slug}/attachment/1`)).status).toBe(403);
		await (await staff()).send('PATCH', `/api/v1/documents/${slug}`, { door: { position: 'shut' } });
		expect((await one.get(`/d/${slug}/attachment/1`)).status).toBe(404);
	});
});

describe('the pages on which words stand', () => {
	const asked = (document: { slug: string }, ...words: string[]) => `/d/${document.slug}/read/found?${new URLSearchParams(words.map((w) => ['q', w]))}`;
	const pages = async (document: { slug: string }, ...words: string[]) =>
		((await (await visitor(reader()).get(asked(document, ...words))).json()) as { pages: number[] }).pages;
	it('are told whatever the case, the accents and the ends of lines, never fewer than there are', async () => {
		const texts = [
			'Écluse de Saint-Rémy',
			'ECLUSE, 50 % full',
			'the water-\nlevel board',
			'a lock_keeper',
			'a lock keeper and the\nlower sluices',
			'back\\slash'
		];
		const response = await send(await pdf(texts), 'words.pdf');
		const paper = (await response.json()) as { slug: string };
		await (await staff()).api('PATCH', `/documents/${paper.slug}`, { door: { position: 'open' } });
		expect(await pages(paper, 'écluse')).toEqual([1, 2]);
		expect(await pages(paper, 'clus')).toEqual([1, 2]);
		expect(await pages(paper, 'WATERLEVEL')).toEqual([3]);
		expect(await pages(paper, 'keeper and the lower')).toEqual([5]);
		// what means something to the database means itself
		expect(await pages(paper, '50 %')).toEqual([2]);
		expect(await pages(paper, 'lock_keeper')).toEqual([4]);
		expect(await pages(paper, 'back\\sl')).toEqual([6]);
		// RFC 8118 has lists of words: any of them
		expect(await pages(paper, 'remy', 'sluice')).toEqual([1, 5]);
		expect([await pages(paper), await pages(paper, '  '), await pages(paper, 'zyzzyva')]).toEqual([[], [], []]);
	});
	it('are a part of the document: whoever asks has opened it, and only whoever may read is told', async () => {
		const paper = await document({ position: 'open' });
		expect(await pages(paper, 'page 2')).toEqual([2]);
		expect((await ledgerOf(paper.slug)).map((e) => e.kind)).toEqual(['opened']);
		const kept = await document({ position: 'keyed', allMembers: true });
		expect((await visitor().get(asked(kept, 'page'))).status).toBe(401);
		expect((await ledgerOf(kept.slug)).map((e) => e.kind)).toEqual(['turned-away']);
	});
	it('of an earlier edition are its own', async () => {
		const response = await send(await pdf(['first words', 'nothing']), 'editions.pdf');
		const paper = (await response.json()) as { slug: string };
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(await pdf(['nothing', 'second words']))]), 'editions-2.pdf');
		await (await staff()).send('POST', `/api/v1/documents/${paper.slug}/editions`, form);
		await (await staff()).api('PATCH', `/documents/${paper.slug}`, { door: { position: 'open' } });
		expect(await pages(paper, 'words')).toEqual([2]);
	});
	it('are not asked for without end', async () => {
		const paper = await document({ position: 'open' });
		const status = async (...words: string[]) => (await visitor().get(asked(paper, ...words))).status;
		expect([await status('a'.repeat(200)), await status('a'.repeat(201))]).toEqual([200, 422]);
		expect([await status(...'abcdefghijklmnopqrst'), await status(...'abcdefghijklmnopqrstu')]).toEqual([200, 422]);
	});
});

describe('how a document is read', () => {
	it('is set for a document, kept, told of by the API, and refused where it makes no sense', async () => {
		const boss = await staff();
		const { slug } = await document({ position: 'open' });
		const change = await boss.send('PATCH', `/api/v1/documents/${slug}`, { reading: { way: 'book', tools: ['find', 'back'], back: '/library' } });
		expect(change.status).toBe(200);
		expect(((await change.json()) as { reading: unknown }).reading).toEqual({ way: 'book', tools: ['find', 'back'], back: '/library' });
		for (const wrong of [{ way: 'sideways' }, { tools: ['fly'] }, { back: 'javascript:alert(1)' }, { back: '//example.org' }, { unknown: 1 }])
			expect([wrong, (await boss.send('PATCH', `/api/v1/documents/${slug}`, { reading: wrong })).status]).toEqual([wrong, 422]);
		const page = await (await visitor(reader()).get(`/d/${slug}/read`, html)).text();
		expect(page).toContain('href="/library"');
		expect(page).not.toMatch(/data-opens="print"/);
		expect(page).toMatch(/data-opens="find"/);
		await boss.send('PATCH', `/api/v1/documents/${slug}`, { reading: null });
		expect(await (await visitor(reader()).get(`/d/${slug}/read`, html)).text()).toMatch(/data-opens="print"/);
	});
	it('the first page’s picture stands in the page that comes from the server', async () => {
		const { slug } = await document({ position: 'open' });
		const page = await (await visitor(reader()).get(`/d/${slug}/read`, html)).text();
		expect(page).toMatch(new RegExp(`<img[^>]+src="/d/${slug}/leaf/1\\.webp\\?w=800`));
	});
});

describe('the language', () => {
	it.each(languages)('a reader is spoken to in %s, as their browser asks', async (language) => {
		const { slug } = await document({ position: 'keyed' });
		const page = await (await visitor(reader()).get(`/d/${slug}`, { ...html, 'accept-language': `${language}, en;q=0.5` })).text();
		expect(page).toContain(messages[language].site.forMembers as string);
		expect(page).toMatch(new RegExp(`<html lang="${language}"${language === 'ar' ? ' dir="rtl"' : ''}`));
	});
	it('one that is asked for in the address is kept, and goes before the browser’s', async () => {
		const response = await visitor(reader()).get('/sign-in?lang=fr', { ...html, 'accept-language': 'de' });
		expect(await response.text()).toContain(messages.fr.site.signIn as string);
		expect(response.headers.getSetCookie().join()).toContain('ianua_language=fr');
		expect((await visitor(reader()).get('/sign-in?lang=xx', html)).headers.getSetCookie().join()).not.toContain('ianua_language');
	});
});
