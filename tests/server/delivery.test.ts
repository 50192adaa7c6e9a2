// GET and HEAD of the file: RFC 9110 (ranges, conditions), RFC 6266 (name), cache fields by door.
import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { scratch } from '../../scripts/scratch';
import { document, member, pdf, send, staff, visitor, type DocumentJson } from './help';

let bytes: Buffer;
let made: DocumentJson;
let path: string;
beforeAll(async () => {
	bytes = await pdf('Delivery', 40);
	made = (await (await send(bytes, 'Fahrplan für € 5 “neu”.pdf')).json()) as DocumentJson;
	await (await staff()).api('PATCH', `/documents/${made.slug}`, { door: { position: 'open' } });
	path = `/d/${made.slug}/file`;
});
const body = async (response: Response) => Buffer.from(await response.arrayBuffer());

describe('the whole file', () => {
	it('comes out as it went in, to the bit', async () => {
		const response = await visitor().get(path);
		expect(response.status).toBe(200);
		expect(Object.fromEntries(response.headers)).toMatchObject({
			'content-type': 'application/pdf',
			'accept-ranges': 'bytes',
			'content-length': String(bytes.length),
			etag: `"${made.sha256}"`
		});
		expect(
			createHash('sha256')
				.update(await body(response))
				.digest('hex')
		).toBe(createHash('sha256').update(bytes).digest('hex'));
	});
	it('is shown in place, or saved under its own name (RFC 6266, RFC 8187)', async () => {
		const name = `filename*=UTF-8''${encodeURIComponent('Fahrplan für € 5 “neu”.pdf')}`;
		const inline = (await visitor().get(path)).headers.get('content-disposition')!;
		const saved = (await visitor().get(`${path}?save`)).headers.get('content-disposition')!;
		expect(inline.startsWith('inline;')).toBe(true);
		expect(saved.startsWith('attachment;')).toBe(true);
		for (const field of [inline, saved]) expect(field).toContain(name);
	});
	it('HEAD gives the same fields without a body', async () => {
		const [head, get] = [await visitor().send('HEAD', path), await visitor().get(path)];
		for (const field of ['content-length', 'etag', 'last-modified', 'content-type', 'content-disposition', 'cache-control', 'accept-ranges'])
			expect(head.headers.get(field), field).toBe(get.headers.get(field));
		expect((await body(head)).length).toBe(0);
		await get.arrayBuffer();
	});
});

describe('ranges', () => {
	it.each([
		['bytes=0-499', 0, 500],
		['bytes=500-999', 500, 1000],
		['bytes=-500', -500, undefined],
		['bytes=1000-', 1000, undefined],
		['bytes=0-0', 0, 1]
	])('%s', async (range, from, to) => {
		const response = await visitor().get(path, { range });
		expect(response.status).toBe(206);
		const part = bytes.subarray(from, to);
		expect((await body(response)).equals(part)).toBe(true);
		const first = from < 0 ? bytes.length + from : from;
		expect(response.headers.get('content-range')).toBe(`bytes ${first}-${first + part.length - 1}/${bytes.length}`);
	});
	it('beyond the end is 416 with the size', async () => {
		const response = await visitor().get(path, { range: `bytes=${bytes.length}-` });
		expect([response.status, response.headers.get('content-range')]).toEqual([416, `bytes */${bytes.length}`]);
	});
	it('several, or malformed, bring the whole', async () => {
		for (const range of ['bytes=0-1,5-6', 'bytes=9-1', 'lines=1-2']) expect((await visitor().get(path, { range })).status, range).toBe(200);
	});
	it('If-Range brings the part only of the same file', async () => {
		expect((await visitor().get(path, { range: 'bytes=0-9', 'if-range': `"${made.sha256}"` })).status).toBe(206);
		expect((await visitor().get(path, { range: 'bytes=0-9', 'if-range': '"another"' })).status).toBe(200);
	});
	it('all pieces together are the file', async () => {
		const pieces: Buffer[] = [];
		for (let first = 0; first < bytes.length; first += 5000) pieces.push(await body(await visitor().get(path, { range: `bytes=${first}-${first + 4999}` })));
		expect(Buffer.concat(pieces).equals(bytes)).toBe(true);
	});
});

describe('conditions', () => {
	it('the same tag or date is not modified', async () => {
		const { headers } = await visitor().send('HEAD', path);
		expect((await visitor().get(path, { 'if-none-match': headers.get('etag')! })).status).toBe(304);
		expect((await visitor().get(path, { 'if-modified-since': headers.get('last-modified')! })).status).toBe(304);
		expect((await visitor().get(path, { 'if-none-match': '"another"' })).status).toBe(200);
		expect((await visitor().get(path, { 'if-match': '"another"' })).status).toBe(412);
	});
	it('a refusal comes before them: who may not open it learns nothing from a tag', async () => {
		const shut = await document();
		expect((await visitor().get(`/d/${shut.slug}/file`, { 'if-none-match': `"${shut.sha256}"` })).status).toBe(404);
		expect((await visitor().get(`/d/${shut.slug}/file`, { range: 'bytes=0-' })).status).toBe(404);
	});
});

describe('caches', () => {
	it('may keep an open file and must ask each time; a keyed one stays with the reader; refusals are not kept', async () => {
		const keeper = await member({ group: 'Cache keepers' });
		const keyed = await document({ position: 'keyed', groups: ['cache-keepers'] });
		expect((await visitor().get(path)).headers.get('cache-control')).toBe('public, no-cache');
		expect((await keeper.get(`/d/${keyed.slug}/file`)).headers.get('cache-control')).toBe('private, no-cache');
		expect((await keeper.get(`/d/${keyed.slug}/cover/300.webp`)).headers.get('cache-control')).toBe('private, no-cache');
		expect((await visitor().get(`/d/${keyed.slug}/file`)).headers.get('cache-control')).toBe('no-store');
	});
});

it('covers come in four widths, and no other', async () => {
	const sizes = await Promise.all([96, 300, 600, 1200].map(async (w) => (await body(await visitor().get(`/d/${made.slug}/cover/${w}.webp`))).length));
	expect([...sizes].sort((a, b) => a - b)).toEqual(sizes);
	expect((await visitor().get(`/d/${made.slug}/cover/450.webp`)).status).toBe(404);
});

it('many readers at once get each their own bytes', async () => {
	const all = await Promise.all(Array.from({ length: 40 }, async (_, i) => body(await visitor().get(path, { range: `bytes=${i * 100}-${i * 100 + 99}` }))));
	all.forEach((part, i) => expect(part.equals(bytes.subarray(i * 100, i * 100 + 100))).toBe(true));
});

describe('a file too large to be kept in memory', () => {
	it('goes out in chunks to many readers at once, whole and in part, while some go away in the middle', async () => {
		const { sendAnswer } = await import('#server/reading/deliver');
		const { path: dir, drop } = scratch('large');
		const file = join(dir, 'large');
		const large = Buffer.alloc(9_000_001);
		for (let i = 0; i < large.length; i += 4) large.writeUInt32LE((Math.imul(i, 2_654_435_761) >>> 0) % 4_294_967_295, Math.min(i, large.length - 4));
		writeFileSync(file, large);
		const server = createServer((request, response) => {
			const [first = 0, length = large.length] = (request.headers.range?.match(/\d+/g) ?? []).map(Number);
			sendAnswer({ status: 200, headers: { 'content-length': String(length) }, file: { path: file, first, length } }, response).catch(() => response.destroy());
		}).listen(0, '127.0.0.1');
		await new Promise((up) => server.once('listening', up));
		const { port } = server.address() as { port: number };
		const ask = (first: number, length: number) => fetch(`http://127.0.0.1:${port}/`, { headers: { range: `${first}-${length}` } });
		try {
			const leaving = Array.from({ length: 6 }, async () => {
				const stop = new AbortController();
				const response = await fetch(`http://127.0.0.1:${port}/`, { signal: stop.signal });
				await response.body!.getReader().read();
				stop.abort();
			});
			const parts = [
				[0, large.length],
				[1, 8_999_999],
				[524_287, 524_290],
				[8_900_000, 100_001],
				[0, large.length]
			] as const;
			const got = await Promise.all(parts.map(async ([first, length]) => body(await ask(first, length))));
			await Promise.allSettled(leaving);
			parts.forEach(([first, length], i) => expect(got[i]!.equals(large.subarray(first, first + length)), `${first} ${length}`).toBe(true));
			// and once more, with the memory of those that left used again
			expect((await body(await ask(0, large.length))).equals(large)).toBe(true);
		} finally {
			server.closeAllConnections();
			server.close();
			drop();
		}
	});
});
