// The store: the same contract for a folder and for a bucket; and a whole site whose files lie in a bucket, on two web servers with no disk in
// common. The bucket is the stand-in's, which speaks S3 (Amazon Simple Storage Service API, version 2006-03-01).
import { fork, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freePort } from '#server/db/cluster';
import { diskStore } from '#server/store/disk';
import { wordsUnder, type ObjectStore } from '#server/store/object-store';
import { s3Store } from '#server/store/s3';
import { noisePdf } from '../../scripts/noise-pdf';
import type { Running } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';
import { bucketSettings, standinBucket } from '../../standins/bucket';
import { startBucket } from '../../standins/s3';
import { pdf, until } from './help';
import { begin, startOwn } from './own';

const { path: at, drop } = scratch('store');
let port: number;
let bucket: { stop(): Promise<void> };

beforeAll(async () => {
	port = await freePort();
	bucket = await startBucket(port, join(at, 's3'));
});
afterAll(async () => {
	await bucket.stop();
	drop();
});

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const all = async (stream: AsyncIterable<Buffer>) => {
	const parts: Buffer[] = [];
	for await (const part of stream) parts.push(part);
	return Buffer.concat(parts);
};

const kinds: [string, () => ObjectStore][] = [
	['a folder', () => diskStore(join(at, 'folder'))],
	// as somebody writes it in the settings
	['a folder with a slash at its end', () => diskStore(`${join(at, 'slash')}/`)],
	['a folder from where one stands', () => diskStore(`./${relative(process.cwd(), join(at, 'relative'))}`)],
	['a bucket', () => s3Store({ ...standinBucket, prefix: 'contract/', endpoint: `http://127.0.0.1:${port}` })]
];

describe.each(kinds)('a store in %s', (_, make) => {
	const file = (bytes: Uint8Array) => {
		const path = join(at, `file-${Math.trunc(performance.now() * 1000)}`);
		writeFileSync(path, bytes);
		return path;
	};
	// over 8 MiB: a bucket takes it in parts
	const large = Buffer.alloc(20_000_000, 'the canal ');

	it('keeps what it is given, to the bit, and gives parts of it', async () => {
		const store = make();
		await store.put('originals/aa/bb/large', file(large));
		expect(await store.look('originals/aa/bb/large')).toMatchObject({ name: 'originals/aa/bb/large', bytes: large.length });
		expect(sha256(await all((await store.read('originals/aa/bb/large'))!))).toBe(sha256(large));
		const part = await all((await store.read('originals/aa/bb/large', { first: 19_999_990, length: 10 }))!);
		expect(part.toString()).toBe(large.subarray(-10).toString());
		// once more under the same name
		await store.put('originals/aa/bb/large', file(Buffer.from('less')));
		expect(await wordsUnder(store, 'originals/aa/bb/large')).toBe('less');
	});
	it('says when it was put there, and what there is', async () => {
		const store = make();
		const before = Date.now();
		for (let i = 0; i < 30; i++) await store.put(`made/cc/${i}.webp`, file(Buffer.from([i])));
		const found: string[] = [];
		for await (const { name, bytes, at: when } of store.list('made/cc/')) {
			found.push(name);
			expect([bytes, Math.abs(when - before) < 60_000]).toEqual([1, true]);
		}
		expect(found.sort()).toEqual(Array.from({ length: 30 }, (_, i) => `made/cc/${i}.webp`).sort());
		const none: unknown[] = [];
		for await (const each of store.list('nothing/here/')) none.push(each);
		expect(none).toEqual([]);
	});
	it('moves and removes, and says where nothing lies', async () => {
		const store = make();
		await store.put('unfinished/one', file(Buffer.from('one')));
		expect(await store.move('unfinished/one', 'put-by/2026-11-30/one')).toBe(true);
		expect([await store.look('unfinished/one'), await wordsUnder(store, 'put-by/2026-11-30/one')]).toEqual([null, 'one']);
		expect(await store.move('unfinished/one', 'put-by/2026-11-30/two')).toBe(false);
		await store.remove('put-by/2026-11-30/one');
		await store.remove('put-by/2026-11-30/one');
		expect(await store.read('put-by/2026-11-30/one')).toBeNull();
	});
	it('gives a free name once', async () => {
		const store = make();
		expect([await store.putNew('site-id', 'mine'), await store.putNew('site-id', 'yours'), await wordsUnder(store, 'site-id')]).toEqual([true, false, 'mine']);
	});
	it('takes no name that leads out of it', async () => {
		const store = make();
		for (const name of ['../out', 'made/../../out', '/etc/passwd', 'made//x', '', 'a/.hidden', 'ä']) {
			await expect(async () => store.look(name), name).rejects.toThrow(RangeError);
			await expect(async () => store.put(name, file(Buffer.from('x'))), name).rejects.toThrow(RangeError);
		}
	});
	it('keeps nothing of a file that is not there', async () => {
		const store = make();
		await expect(store.put('originals/aa/none', join(at, 'no such file'))).rejects.toThrow();
		expect(await store.look('originals/aa/none')).toBeNull();
	});
});

describe('a site whose files lie in a bucket', () => {
	let own: Running;
	let other: { origin: string; process: ChildProcess };
	let boss: { cookie: string };
	const data = join(at, 'site');
	const settings = () => bucketSettings(port, 'site');

	async function startOther(given: Record<string, string> = {}): Promise<{ origin: string; process: ChildProcess }> {
		const web = await freePort();
		const child = fork('build/web.js', {
			execArgv: [],
			env: { ...own.environment, IANUA_DATA: join(at, 'other'), IANUA_PORT: String(web), IANUA_JOBS: 'apart', ...given },
			stdio: ['ignore', 'inherit', 'inherit', 'ipc']
		});
		await once(child, 'message');
		return { origin: `http://127.0.0.1:${web}`, process: child };
	}

	beforeAll(async () => {
		own = await startOwn({ data, given: settings(), log: 'error' });
		boss = await begin(own);
		other = await startOther();
	});
	afterAll(async () => {
		other.process.kill('SIGTERM');
		await own.stop();
	});

	const headers = () => ({ ...boss, origin: own.origin });
	const post = async (bytes: Uint8Array, name: string) => {
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(bytes)]), name);
		const response = await fetch(`${own.origin}/api/v1/documents`, { method: 'POST', headers: headers(), body: form });
		expect(response.status).toBe(201);
		const { slug } = (await response.json()) as { slug: string };
		await until(async () => ((await (await fetch(`${own.origin}/api/v1/documents/${slug}`, { headers: headers() })).json()) as { condition: { status: string } }).condition.status !== 'checking'); // prettier-ignore
		await fetch(`${own.origin}/api/v1/documents/${slug}`, {
			method: 'PATCH',
			headers: { ...headers(), 'content-type': 'application/json' },
			body: JSON.stringify({ door: { position: 'open' } })
		});
		return slug;
	};
	const got = async (address: string, asked: Record<string, string> = {}) => {
		const response = await fetch(address, { headers: asked, redirect: 'manual' });
		return { status: response.status, headers: response.headers, bytes: Buffer.from(await response.arrayBuffer()) };
	};

	it('brings in on one server and gives on the other, to the bit: file, parts, cover, page, and the copy for reading alike on both', async () => {
		const bytes = await pdf('In a bucket', 60);
		const slug = await post(bytes, 'in a bucket.pdf');
		for (const { origin } of [other, own, other]) {
			const whole = await got(`${origin}/d/${slug}/file?save`);
			expect([whole.status, sha256(whole.bytes)]).toEqual([200, sha256(bytes)]);
		}
		const [one, two] = [await got(`${own.origin}/d/${slug}/file?for=reading`), await got(`${other.origin}/d/${slug}/file?for=reading`)];
		expect(two.headers.get('etag')).toBe(one.headers.get('etag'));
		expect(sha256(two.bytes)).toBe(sha256(one.bytes));
		for (const part of ['cover/300.webp', 'leaf/3.webp?w=800', 'leaf/3.json', 'text'])
			expect([part, (await got(`${other.origin}/d/${slug}/${part}`)).status]).toEqual([part, 200]);
		// nothing is left on a disk that both would have to share
		expect(existsSync(join(data, 'files'))).toBe(false);
	});

	it('gives a large file at once and by parts, before a copy is near', async () => {
		const bytes = await noisePdf(12_000_000);
		const slug = await post(bytes, 'large.pdf');
		const first = await got(`${other.origin}/d/${slug}/file`, { range: 'bytes=11000000-11000099' });
		expect([first.status, first.bytes.equals(bytes.subarray(11_000_000, 11_000_100))]).toEqual([206, true]);
		const near = join(at, 'other', 'near', 'originals');
		await until(async () => Promise.resolve(existsSync(near) && readdirSync(near, { recursive: true }).some((name) => String(name).endsWith(sha256(bytes)))));
		const whole = await got(`${other.origin}/d/${slug}/file`);
		expect(sha256(whole.bytes)).toBe(sha256(bytes));
	});

	it('goes on with an upload on another server than the one that began it, also after that one was killed', async () => {
		const bytes = await pdf('In two halves', 80);
		const tus = { ...headers(), 'tus-resumable': '1.0.0' };
		const begun = await fetch(`${other.origin}/api/v1/intake`, {
			method: 'POST',
			headers: { ...tus, 'upload-length': String(bytes.length), 'upload-metadata': `filename ${Buffer.from('halves.pdf').toString('base64')}` }
		});
		expect(begun.status).toBe(201);
		const path = begun.headers.get('location')!;
		const half = Math.trunc(bytes.length / 2);
		const send = (origin: string, from: number, until: number) =>
			fetch(origin + path, {
				method: 'PATCH',
				headers: { ...tus, 'content-type': 'application/offset+octet-stream', 'upload-offset': String(from) },
				body: new Uint8Array(bytes.subarray(from, until))
			});
		expect((await send(other.origin, 0, half)).headers.get('upload-offset')).toBe(String(half));
		other.process.kill('SIGKILL');
		await once(other.process, 'exit');
		rmSync(join(at, 'other'), { recursive: true });
		other = await startOther();
		const head = await fetch(own.origin + path, { method: 'HEAD', headers: tus });
		expect(head.headers.get('upload-offset')).toBe(String(half));
		expect((await send(own.origin, half, bytes.length)).status).toBe(204);
		const { slug } = await until(async () => {
			const { items } = (await (await fetch(`${own.origin}/api/v1/intake`, { headers: headers() })).json()) as {
				items: { name: string; document: { slug: string } | null }[];
			};
			return items.find(({ name, document }) => name === 'halves.pdf' && document)?.document;
		});
		const whole = await got(`${own.origin}/d/${slug}/file`, headers());
		expect(sha256(whole.bytes)).toBe(sha256(bytes));
	});

	it('leads to an address that the bucket signs, where that is asked for: decided and entered first, refused as ever', async () => {
		const bytes = await pdf('Signed', 3);
		const slug = await post(bytes, 'signed.pdf');
		const signing = await startOther({ IANUA_FILES_SIGNED: '60' });
		try {
			const led = await got(`${signing.origin}/d/${slug}/file?save`, { cookie: 'ianua_reader=0196d2a4-7a10-7000-8000-00000000f00d' });
			expect([led.status, led.headers.get('cache-control')]).toEqual([302, 'no-store']);
			const file = await got(led.headers.get('location')!);
			expect([file.status, sha256(file.bytes), file.headers.get('content-disposition')]).toEqual([
				200,
				sha256(bytes),
				expect.stringMatching(/^attachment; filename="?signed\.pdf"?/)
			]);
			// the reading room reads by parts from its own origin
			expect((await got(`${signing.origin}/d/${slug}/file?for=reading`)).status).toBe(200);
			const { items } = (await (await fetch(`${own.origin}/api/v1/documents/${slug}/ledger`, { headers: headers() })).json()) as { items: { kind: string }[] };
			expect(items.map((e) => e.kind)).toContain('saved');
			await fetch(`${own.origin}/api/v1/documents/${slug}`, {
				method: 'PATCH',
				headers: { ...headers(), 'content-type': 'application/json' },
				body: JSON.stringify({ door: { position: 'shut' } })
			});
			expect((await got(`${signing.origin}/d/${slug}/file?save`)).status).toBe(404);
		} finally {
			signing.process.kill('SIGTERM');
			await once(signing.process, 'exit');
		}
	});

	it('says that it is not ready while the bucket does not answer, and outlives it', async () => {
		const bytes = await pdf('While it is gone', 3);
		const slug = await post(bytes, 'gone.pdf');
		await bucket.stop();
		expect((await got(`${own.origin}/readyz`)).status).toBe(503);
		// what is near is given all the same; what is not cannot be, and the server stands
		expect((await got(`${own.origin}/d/${slug}/file`)).status).toBe(200);
		expect((await got(`${other.origin}/d/${slug}/file`)).status).toBe(500);
		expect((await got(`${other.origin}/healthz`)).status).toBe(200);
		bucket = await startBucket(port, join(at, 's3'));
		await until(async () => (await got(`${other.origin}/readyz`)).status === 200);
		expect(sha256((await got(`${other.origin}/d/${slug}/file`)).bytes)).toBe(sha256(bytes));
	});

	it('does not start on a bucket of another site', async () => {
		const strange = startOwn({ data: join(at, 'strange'), given: settings() });
		await expect(strange).rejects.toThrow();
		expect(readFileSync(join(at, 's3', 'ianua', 'site', 'site-id._S3rver_object'), 'utf8').trim()).toMatch(/^[0-9a-f-]{36}$/);
	});
});
