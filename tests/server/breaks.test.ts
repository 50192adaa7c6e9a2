// Every stream broken once, at every stage, on purpose: an upload cut short, a store that cannot be written, a reader who goes away. The server
// that took it is the same afterwards, and goes on.
import { connect } from 'node:net';
import { execFileSync } from 'node:child_process';
import { mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { clientAddress, proxiesOf } from '#server/http/proxies';
import { readSettings, unknownSettings } from '#server/settings';
import { setAsideDays } from '#core/documents/aside';
import { sql } from '#server/db/client';
import { sweep, sweepStopped } from '#server/intake/sweep';
import { pathOf, putByList } from '#server/store/store';
import { settings } from '#server/settings';
import { noisePdf } from '../../scripts/noise-pdf';
import { scratch } from '../../scripts/scratch';
import { document, origin, pdf, qpdf, send, staff, visitor, until, type DocumentJson } from './help';
import { begin, startOwn } from './own';
import type { Running } from '../../scripts/run';
import { addressOf, routes } from './routes';

const { table } = await import('#server/guard/table');
const alive = async (address = origin) => (await fetch(`${address}/readyz`)).status;

/** Sends bytes on a connection of its own and then cuts it, or ends it and waits for the answer. */
const raw = (address: string, text: string, cut: boolean) =>
	new Promise<string>((done) => {
		const { hostname, port } = new URL(address);
		let said = '';
		const socket = connect(Number(port), hostname, () => socket.write(text, () => (cut ? setTimeout(() => socket.destroy(), 30) : undefined)));
		socket.setTimeout(8_000, () => socket.destroy());
		socket.on('data', (chunk) => (said += chunk.toString('latin1')));
		socket.on('error', () => {});
		socket.on('close', () => done(said));
	});

/** A multipart body cut at each of its stages. */
const stages = (name: string) => [
	'--x',
	'--x\r\n',
	`--x\r\nContent-Disposition: form-data; name="file"; filename="${name}"`,
	`--x\r\nContent-Disposition: form-data; name="file"; filename="${name}"\r\n\r\n`,
	`--x\r\nContent-Disposition: form-data; name="file"; filename="${name}"\r\n\r\n%PDF-1.4 abc`,
	`--x\r\nContent-Disposition: form-data; name="file"; filename="${name}"\r\n\r\n%PDF-1.4 abc\r\n--x\r\nContent-Disposition: form-data; name="title"\r\n\r\nT`,
	`--x\r\nContent-Disposition: form-data; name="other"; filename="${name}"\r\n\r\nabc`,
	''
];

describe('an upload cut short', () => {
	it('at any stage, at any address that takes files, ends that request and nothing else', async () => {
		const boss = await staff();
		const paper = await document();
		const [{ pid }] = (await sql()`select pg_backend_pid() as pid`) as unknown as [{ pid: number }];
		expect(pid).toBeGreaterThan(0);
		const takers = routes().filter(({ id, methods, actions }) => table[id]?.takesFiles && (methods.includes('POST') || actions.length));
		expect(takers.length).toBeGreaterThan(6);
		for (const { id } of takers) {
			const path = addressOf(id, { slug: paper.slug, id: crypto.randomUUID() });
			for (const body of stages('a.pdf')) {
				const head = (length: number) =>
					`POST ${path} HTTP/1.1\r\nHost: x\r\nCookie: ${boss.headers.cookie}\r\nAccept: */*\r\nContent-Type: multipart/form-data; boundary=x\r\nContent-Length: ${length}\r\n`;
				// whole by its length, but no whole form
				const said = await raw(origin, `${head(body.length)}Connection: close\r\n\r\n${body}`, false);
				expect([path, body, /^HTTP\/1\.1 (?:4\d\d|200)/.test(said)]).toEqual([path, body, true]);
				// broken off
				await raw(origin, `${head(body.length + 100_000)}\r\n${body}`, true);
			}
			expect([path, await alive()]).toEqual([path, 200]);
		}
		expect((await boss.get('/desk/documents')).status).toBe(200);
	});
	it('a reader who goes away in the middle of a file, a picture or an attachment ends that answer and nothing else', async () => {
		const paper = await document({ position: 'open' }, 40);
		for (const path of ['/file', '/leaf/1.webp', '/leaf/2.json', '/cover/300.webp', '/attachment/1', '/read', ''])
			for (let i = 0; i < 3; i++) await raw(origin, `GET /d/${paper.slug}${path} HTTP/1.1\r\nHost: x\r\n\r\n`, true);
		expect(await alive()).toBe(200);
		expect((await visitor().get(`/d/${paper.slug}/file`)).status).toBe(200);
	});
	it('a zip of documents whose reader goes away, or of which a file is missing in the store, ends that answer and nothing else', async () => {
		const boss = await staff();
		const [one, two] = [await document({ position: 'open' }, 40), await document({ position: 'shut' }, 3)];
		const body = new URLSearchParams([one, two].map(({ slug }): [string, string] => ['document', slug])).toString();
		const request = `POST /desk/documents.zip HTTP/1.1\r\nHost: ${new URL(origin).host}\r\nOrigin: ${origin}\r\nCookie: ${boss.headers.cookie}\r\nContent-Type: application/x-www-form-urlencoded\r\nConnection: close\r\nContent-Length: ${body.length}\r\n\r\n${body}`;
		for (let i = 0; i < 3; i++) await raw(origin, request, true);
		expect(await alive()).toBe(200);
		const whole = await raw(origin, request, false);
		expect(whole).toMatch(/^HTTP\/1\.1 200/);
		const path = pathOf(two.sha256);
		renameSync(path, `${path}.away`);
		try {
			const broken = await raw(origin, request, false);
			// what was sent is no whole zip: it does not end with its directory, nor as whole
			expect(broken.length).toBeLessThan(whole.length);
			expect(broken).not.toContain('PK\u0005\u0006');
			expect(whole).toContain('PK\u0005\u0006');
			expect(await alive()).toBe(200);
		} finally {
			renameSync(`${path}.away`, path);
		}
		expect(await raw(origin, request, false)).toContain('PK\u0005\u0006');
	});
});

/** What one of a test's own takes, where large files are sent. */
const large = { settings: { IANUA_MAX_UPLOAD: '60000000' } };

const bring = async (address: string, headers: Record<string, string>, bytes: Uint8Array) => {
	const form = new FormData();
	form.append('file', new Blob([new Uint8Array(bytes)]), 'a.pdf');
	return fetch(`${address}/api/v1/documents`, { method: 'POST', headers, body: form });
};

describe('a web server that ends by itself', () => {
	it('is brought up again, with PostgreSQL untouched, and knows its sessions', async () => {
		const { path: data, drop } = scratch('up');
		const said: string[] = [];
		const own = await startOwn({ data, ...large, restart: true, say: (line) => said.push(line) });
		try {
			const headers = await begin(own);
			const first = own.pid;
			process.kill(first, 'SIGKILL');
			await until(
				async () =>
					own.pid !== first &&
					(await fetch(`${own.origin}/readyz`).then(
						(r) => r.ok,
						() => false
					)),
				60_000
			);
			expect((await fetch(`${own.origin}/desk/documents`, { headers, redirect: 'manual' })).status).toBe(200);
			expect(said.join()).toContain('started again');
			const second = own.pid;
			process.kill(second, 'SIGKILL');
			await until(
				async () =>
					own.pid !== second &&
					(await fetch(`${own.origin}/readyz`).then(
						(r) => r.ok,
						() => false
					)),
				60_000
			);
		} finally {
			await own.stop();
			drop();
		}
	});

	it('told to stop, lets answers under way end, takes nothing new, and says so', async () => {
		const { path: data, drop } = scratch('drain');
		const own = await startOwn({ data, ...large });
		try {
			const headers = await begin(own);
			const made = (await (await bring(own.origin, headers, await noisePdf(40_000_000))).json()) as { slug: string };
			// a reader who takes his time
			const { hostname, port } = new URL(own.origin);
			let got = 0;
			const slow = connect(Number(port), hostname, () =>
				slow.write(`GET /d/${made.slug}/file HTTP/1.1\r\nHost: x\r\nCookie: ${headers.cookie}\r\nConnection: close\r\n\r\n`)
			);
			await new Promise<void>((go) =>
				slow.once('data', (chunk: Buffer) => {
					got += chunk.length;
					go();
				})
			);
			slow.pause();
			const ended = own.stop();
			// it is told by a signal: as soon as it has come, it says so
			await until(async () => {
				const response = await fetch(`${own.origin}/readyz`);
				return response.status === 503 && ((await response.json()) as { going?: true }).going;
			});
			slow.on('data', (chunk: Buffer) => (got += chunk.length));
			slow.resume();
			await new Promise<void>((go) => slow.once('close', () => go()));
			await ended;
			expect(got).toBeGreaterThan(40_000_000);
		} finally {
			await own.stop().catch(() => {});
			drop();
		}
	});
});

describe('a store', () => {
	it('that cannot be written refuses uploads in words, and still shows pages', async () => {
		const { path: data, drop } = scratch('unwritable');
		const own = await startOwn({ data, ...large });
		try {
			const headers = await begin(own);
			const made = (await (await bring(own.origin, headers, await pdf('Here', 3))).json()) as { slug: string };
			const store = join(data, 'files');
			// root may write anywhere: a file where the folder was cannot be written into by anybody
			for (const folder of ['unfinished', 'uploads']) {
				rmSync(join(store, folder), { recursive: true, force: true });
				writeFileSync(join(store, folder), '');
			}
			expect((await bring(own.origin, headers, await pdf('Not here', 1))).status).toBeGreaterThanOrEqual(500);
			const tus = await fetch(`${own.origin}/api/v1/intake`, {
				method: 'POST',
				headers: { ...headers, 'tus-resumable': '1.0.0', 'upload-length': '10', 'upload-metadata': `filename ${Buffer.from('a.pdf').toString('base64')}` }
			});
			expect(tus.status).toBeGreaterThanOrEqual(400);
			const leaf = await fetch(`${own.origin}/d/${made.slug}/leaf/2.webp?w=800`, { headers });
			expect([leaf.status, leaf.headers.get('content-type'), (await leaf.arrayBuffer()).byteLength > 1000]).toEqual([200, 'image/webp', true]);
			const ready = await fetch(`${own.origin}/readyz`);
			expect([ready.status, await ready.json()]).toMatchObject([503, { database: true, store: false, jobs: true }]);
			expect((await fetch(`${own.origin}/healthz`)).status).toBe(200);
		} finally {
			await own.stop();
			drop();
		}
	});
	it('that is full ends no server: not by an upload, not by an attachment taken out', async () => {
		const { path: data, drop } = scratch('full');
		const small = join(data, 'small');
		mkdirSync(small);
		execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=3m', 'tmpfs', small]);
		let own: Running | undefined;
		try {
			own = await startOwn({ data, settings: { IANUA_FILES: join(small, 'files') } });
			const headers = await begin(own);
			const heavy = join(data, 'attached.txt');
			writeFileSync(heavy, Buffer.alloc(6_000_000, 'attached '));
			const bytes = await qpdf(await pdf('With an attachment', 2), (a, b) => [a, '--add-attachment', heavy, '--', b]);
			const made = (await (await bring(own.origin, headers, bytes)).json()) as { slug: string };
			const taken = await fetch(`${own.origin}/d/${made.slug}/attachment/1`, { headers });
			expect(taken.status).toBeGreaterThanOrEqual(400);
			const refused = await bring(own.origin, headers, Buffer.concat([await pdf('Too much', 1), Buffer.alloc(4_000_000, '% x\n')]));
			expect([refused.status, ((await refused.json()) as { code: string }).code]).toEqual([507, 'no-room']);
			const leaf = await fetch(`${own.origin}/d/${made.slug}/leaf/1.webp`, { headers });
			expect(leaf.status).toBe(200);
			expect((await fetch(`${own.origin}/d/${made.slug}/file`, { headers })).status).toBe(200);
		} finally {
			await own?.stop();
			execFileSync('umount', ['-l', small]);
			drop();
		}
	});
	it('of another site is not served, and nothing of it is swept away', async () => {
		const [one, two] = [scratch('store-one'), scratch('store-two')];
		const first = await startOwn({ data: one.path });
		const headers = await begin(first);
		await bring(first.origin, headers, await pdf('Of the first', 2));
		await first.stop();
		const files = join(one.path, 'files');
		try {
			// an empty database of its own
			await expect(startOwn({ data: two.path, settings: { IANUA_FILES: files } })).rejects.toThrow(/ended at once/);
			const second = await startOwn({ data: two.path });
			await begin(second);
			await second.stop();
			// a database with an id of its own
			await expect(startOwn({ data: two.path, settings: { IANUA_FILES: files } })).rejects.toThrow(/ended at once/);
			// a store that was lost
			renameSync(files, `${files}-away`);
			await expect(startOwn({ data: one.path })).rejects.toThrow(/ended at once/);
			rmSync(files, { recursive: true, force: true });
			renameSync(`${files}-away`, files);
			const again = await startOwn({ data: one.path });
			expect((await fetch(`${again.origin}/readyz`)).status).toBe(200);
			await again.stop();
		} finally {
			one.drop();
			two.drop();
		}
	});
	it('of a document set aside for longer than its days is put by, its words are found no more, and its address says that it was here', async () => {
		const boss = await staff();
		const word = `forgotten${process.pid}`;
		const paper = (await (await send(await pdf(word), `${word}.pdf`)).json()) as DocumentJson;
		await until(async () => (await boss.api<DocumentJson>('GET', `/documents/${paper.slug}`)).condition.status === 'sound');
		await boss.api('PATCH', `/documents/${paper.slug}`, { door: { position: 'open' } });
		const findings = async () => (await boss.api<{ items: { slug: string }[] }>('GET', `/find?q=${word}`)).items.map((i) => i.slug);
		expect(await findings()).toEqual([paper.slug]);
		await boss.api('DELETE', `/documents/${paper.slug}`);
		await sql()`update document set set_aside_at = now() - make_interval(days => ${setAsideDays - 1}) where slug = ${paper.slug}`;
		expect((await sweep(Date.now())).forgotten).toBe(0);
		await sql()`update document set set_aside_at = now() - make_interval(days => ${setAsideDays + 1}) where slug = ${paper.slug}`;
		expect((await sweep(Date.now())).forgotten).toBe(1);
		expect((await putByList()).some((p) => p.name === paper.sha256)).toBe(true);
		expect(await findings()).toEqual([]);
		expect((await visitor().get(`/d/${paper.slug}/file`)).status).toBe(410);
		expect((await boss.send('POST', `/api/v1/documents/${paper.slug}/restore`)).status).toBe(404);
	});
	it('whose rows are gone is left alone, and upkeep says so; a few strays are put by and come back', async () => {
		const boss = await staff();
		const later = Date.now() + 2 * 3_600_000;
		await sweep(later);
		expect(await sweepStopped()).toBeNull();
		const paper = await document({}, 2);
		const path = join(settings().files, 'originals', paper.sha256.slice(0, 2), paper.sha256.slice(2, 4), paper.sha256);
		const moved = await sql()<{ id: string }[]>`update edition set sha256 = repeat('0', 64) where sha256 = ${paper.sha256} returning id`;
		await sweep(later);
		expect((await putByList()).some((p) => p.name === paper.sha256)).toBe(true);
		expect((await boss.get(`/d/${paper.slug}/file`)).status).toBe(500);
		await sql()`update edition set sha256 = ${paper.sha256} where id in ${sql()(moved.map((m) => m.id))}`;
		await sweep(later);
		expect(execFileSync('stat', ['-c', '%s', path], { encoding: 'utf8' }).trim()).toBe(String(paper.bytes));
		// many at once: an older dump, or a table emptied by mistake
		for (let i = 0; i < 25; i++) await document({}, 1);
		const [{ n }] = (await sql()`select count(distinct sha256)::int as n from edition`) as unknown as [{ n: number }];
		const kept = await sql()<{ id: string; sha256: string }[]>`select id, sha256 from edition`;
		await sql()`update edition set sha256 = md5(id::text) || md5(id::text)`;
		try {
			await sweep(later);
			expect(await sweepStopped()).toMatchObject({ strays: expect.any(Number) as number });
			expect((await sweepStopped())!.strays).toBeGreaterThanOrEqual(Math.min(n, 25));
			const ready = (await (await fetch(`${origin}/readyz`)).json()) as { sweep?: string };
			expect(ready.sweep).toContain('stopped');
			expect(await (await boss.get('/desk/upkeep')).text()).toContain('The sweep of the store has stopped');
		} finally {
			for (const { id, sha256 } of kept) await sql()`update edition set sha256 = ${sha256} where id = ${id}`;
		}
		await sweep(later);
		expect(await sweepStopped()).toBeNull();
	});
});

describe('settings', () => {
	const right = { IANUA_DATABASE_URL: 'postgres://x', IANUA_SECRET: 'x'.repeat(40) };
	it('take no address for a folder, and name what nothing reads', () => {
		for (const files of ['s3://', 's3://Bucket', 's3://bucket/../out', 'file:///srv', 'S3:bucket'])
			expect(() => readSettings({ ...right, IANUA_FILES: files })).toThrow(/IANUA_FILES is a folder/);
		expect(readSettings({ ...right, IANUA_FILES: './files' })).toMatchObject({ files: './files', bucket: null });
		expect(readSettings({ ...right, IANUA_DATA: '/srv/ianua', IANUA_FILES: 's3://bucket/a/b/' })).toMatchObject({
			files: '/srv/ianua/near',
			bucket: { bucket: 'bucket', prefix: 'a/b/', region: 'us-east-1' }
		});
		expect(() => readSettings({ ...right, IANUA_FILES: 's3://bucket', IANUA_S3_KEY: 'only half' })).toThrow(/come together/);
		expect(unknownSettings({ IANUA_PROT: '1', IANUA_PORT: '1', HOME: '/' })).toEqual([{ name: 'IANUA_PROT', nearest: 'IANUA_PORT' }]);
	});
	it('say how many proxies are trusted, or where they stand (RFC 7239, 7.4: only the part that trusted ones wrote)', () => {
		const addressOf = (proxies: string, forwarded?: string, socket = '10.0.0.9') => clientAddress(socket, forwarded, proxiesOf(proxies));
		expect(addressOf('0', '198.51.100.7')).toBe('10.0.0.9');
		expect(addressOf('1', undefined)).toBe('10.0.0.9');
		expect(addressOf('1', '')).toBe('10.0.0.9');
		expect(addressOf('1', '203.0.113.1, 198.51.100.7')).toBe('198.51.100.7');
		expect(addressOf('2', '203.0.113.1, 198.51.100.7, 10.0.0.8')).toBe('198.51.100.7');
		expect(addressOf('3', '198.51.100.7')).toBe('198.51.100.7');
		expect(addressOf('10.0.0.0/8', '203.0.113.1, 198.51.100.7, 10.0.0.8')).toBe('198.51.100.7');
		expect(addressOf('10.0.0.0/8,2001:db8::/32', '198.51.100.7, 2001:db8::5')).toBe('198.51.100.7');
		expect(addressOf('10.0.0.0/8', '198.51.100.7', '192.0.2.1')).toBe('192.0.2.1');
		expect(addressOf('1', 'unknown')).toBe('10.0.0.9');
		expect(() => proxiesOf('anywhere')).toThrow(/IANUA_PROXIES/);
	});
	it('that stop the start are told in a sentence, without a stack', async () => {
		const { path: data, drop } = scratch('wrong-settings');
		try {
			const run = execFileSync('bash', ['-c', 'node build/web.js 2>&1; true'], {
				encoding: 'utf8',
				env: {
					...process.env,
					...right,
					IANUA_DATABASE_URL: 'postgres://127.0.0.1:1/x',
					IANUA_DATA: data,
					IANUA_FILES: 'file:///srv',
					IANUA_ORIGIN: 'http://127.0.0.1:1',
					IANUA_PORT: '1'
				}
			});
			expect(run).toContain('IANUA_FILES is a folder');
			expect(run).not.toMatch(/\n\s+at /);
		} finally {
			drop();
		}
	});
});
