// Two web servers behind nginx as operating/nginx.conf sets it up: files of the store come from nginx, decided and entered by us, and in all
// that can be seen as from us; the rest goes through.
import { execFileSync, fork, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { connect } from 'node:http2';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freePort } from '#server/db/cluster';
import { settings } from '#server/settings';
import { startNginx, type Nginx } from '../../scripts/nginx';
import { scratch } from '../../scripts/scratch';
import { given } from './given';
import { browserAgent, document, member, origin, pdf, send, staff, type DocumentJson } from './help';

interface Web {
	readonly port: number;
	process: ChildProcess;
}
const own = { IANUA_FILES_BY_PROXY: '/store/', IANUA_PROXIES: '1', IANUA_JOBS: 'apart' };
async function startWeb(port: number): Promise<ChildProcess> {
	const environment = { ...process.env, ...given.environment, ...own, IANUA_PORT: String(port) };
	const child = fork('build/web.js', { execArgv: [], env: environment, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
	await once(child, 'message');
	return child;
}

const { path: at, drop } = scratch('nginx');
let webs: Web[];
let nginx: Nginx;
let bytes: Buffer;
let paper: DocumentJson;
let path: string;
beforeAll(async () => {
	const ports = [await freePort(), await freePort()];
	webs = await Promise.all(ports.map(async (port) => ({ port, process: await startWeb(port) })));
	nginx = await startNginx({ ports, files: settings().files, folder: at, at: join(at, 'plain') });
	bytes = await pdf('Behind nginx', 40);
	paper = (await (await send(bytes, 'Behind nginx.pdf')).json()) as DocumentJson;
	await (await staff()).api('PATCH', `/documents/${paper.slug}`, { door: { position: 'open' } });
	path = `/d/${paper.slug}/file`;
});
afterAll(async () => {
	await nginx.stop();
	await Promise.all(
		webs.map(async (web) => {
			web.process.kill('SIGTERM');
			await once(web.process, 'exit');
		})
	);
	drop();
});

const ask = (from: string, address: string, headers: Record<string, string> = {}, method = 'GET') =>
	fetch(from + address, { method, redirect: 'manual', headers: { 'user-agent': browserAgent, ...headers } });
const body = async (response: Response) => Buffer.from(await response.arrayBuffer());
/** What the connection, the proxy and the one request say of themselves. */
const theirs = ['connection', 'keep-alive', 'date', 'server', 'strict-transport-security', 'transfer-encoding', 'set-cookie', 'x-request-id'];
const told = ({ status, headers }: Response) => ({ status, ...Object.fromEntries([...headers].filter(([name]) => !theirs.includes(name))) });

describe('a file of the store', () => {
	it.each([
		['whole', {}],
		['its beginning', { range: 'bytes=0-499' }],
		['its middle', { range: 'bytes=500-999' }],
		['its end', { range: 'bytes=-500' }],
		['all after a byte', { range: 'bytes=1000-' }],
		['several parts, which come whole', { range: 'bytes=0-9, 20-29' }],
		['a unit that nobody knows', { range: 'pages=1-2' }],
		['a part that is not there', { range: 'bytes=99999999-' }],
		['a part of this very file', { range: 'bytes=10-19', 'if-range': 'ETAG' }],
		['a part of another', { range: 'bytes=10-19', 'if-range': '"another"' }],
		['what is kept already', { 'if-none-match': 'ETAG' }],
		['what was kept of another', { 'if-none-match': '"another"' }],
		['only if it is another', { 'if-match': '"another"' }]
	] as const)('is answered as by us: %s', async (_words, fields) => {
		const headers = Object.fromEntries(Object.entries(fields).map(([name, value]) => [name, value === 'ETAG' ? `"${paper.sha256}"` : value]));
		const [behind, direct] = [await ask(nginx.origin, path, headers), await ask(origin, path, headers)];
		expect(told(behind)).toEqual(told(direct));
		expect((await body(behind)).equals(await body(direct))).toBe(true);
	});

	it('leaves by nginx alone: ours says where it lies, and nobody else may go there', async () => {
		const direct = await ask(`http://127.0.0.1:${webs[0]!.port}`, path, { 'x-forwarded-for': '192.0.2.7' });
		const where = `/store/originals/${paper.sha256.slice(0, 2)}/${paper.sha256.slice(2, 4)}/${paper.sha256}`;
		expect(direct.headers.get('x-accel-redirect')).toBe(where);
		expect((await body(direct)).length).toBe(0);
		expect((await ask(nginx.origin, where)).status).toBe(404);
		// who comes by no proxy gets the file from us
		expect((await body(await ask(`http://127.0.0.1:${webs[0]!.port}`, path))).equals(bytes)).toBe(true);
	});

	it('is entered before it leaves, once', async () => {
		const boss = await staff();
		const own = await document({ position: 'open' });
		const address = `/d/${own.slug}/file`;
		const one = `ianua_reader=${randomUUID()}`;
		for (const range of ['bytes=0-99', 'bytes=100-199', 'bytes=200-299']) expect((await ask(nginx.origin, address, { range, cookie: one })).status).toBe(206);
		await ask(nginx.origin, address, { cookie: `ianua_reader=${randomUUID()}` });
		await ask(nginx.origin, `${address}?save`, { cookie: one });
		await expect.poll(async () => (await boss.api<{ items: { kind: string }[] }>('GET', `/documents/${own.slug}/ledger`)).items.map((e) => e.kind).sort(), { timeout: 20_000 })
			.toEqual(['opened', 'opened', 'saved']); // prettier-ignore
	});

	it('is refused behind nginx as before it, and given to whom it is meant for', async () => {
		const wren = await member({ group: 'Behind nginx' });
		const kept = await document({ position: 'keyed', groups: ['behind-nginx'] });
		const shut = await document({ position: 'shut' });
		const refused = await ask(nginx.origin, `/d/${kept.slug}/file`);
		expect(refused.status).toBe(401);
		expect(refused.headers.get('content-type')).toContain('json');
		expect((await ask(nginx.origin, `/d/${shut.slug}/file`)).status).toBe(404);
		const letIn = await ask(nginx.origin, `/d/${kept.slug}/file`, wren.headers);
		expect([letIn.status, letIn.headers.get('cache-control'), (await body(letIn)).length]).toEqual([200, 'private, no-cache', kept.bytes]);
	});
});

describe('what goes through', () => {
	it('files that are brought in, pages, and events as they come', async () => {
		const boss = await staff();
		const form = new FormData();
		const large = await pdf('Through nginx', 60);
		form.append('file', new Blob([new Uint8Array(large)]), 'Through nginx.pdf');
		const brought = await fetch(`${nginx.origin}/api/v1/documents`, { method: 'POST', headers: boss.headers, body: form });
		expect(brought.status).toBe(201);
		const page = await ask(nginx.origin, '/');
		expect([page.status, await page.text()]).toEqual([200, expect.stringContaining('</html>')]);

		const events = await fetch(`${nginx.origin}/api/v1/readership/live`, { headers: { ...boss.headers, accept: 'text/event-stream' } });
		const reader = events.body!.getReader();
		expect((await reader.read()).value!.length).toBeGreaterThan(0);
		await reader.cancel();
	});

	it('by TLS and HTTP/2, told to stay with it', async () => {
		const [certificate, key] = [join(at, 'certificate.pem'), join(at, 'key.pem')];
		execFileSync('openssl', ['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', '-subj', '/CN=127.0.0.1', '-keyout', key, '-out', certificate], {
			stdio: 'ignore'
		});
		const secure = await startNginx({
			ports: webs.map(({ port }) => port),
			files: settings().files,
			folder: at,
			at: join(at, 'tls'),
			tls: { certificate, key }
		});
		const session = connect(secure.origin, { rejectUnauthorized: false });
		const got = async (address: string) => {
			const request = session.request({ ':path': address, 'user-agent': browserAgent });
			let length = 0;
			request.on('data', (chunk: Buffer) => (length += chunk.length));
			const [headers] = (await once(request, 'response')) as [Record<string, string>];
			await once(request, 'end');
			return { headers, length };
		};
		const [page, file] = [await got('/'), await got(path)];
		expect(session.alpnProtocol).toBe('h2');
		for (const { headers } of [page, file]) expect(headers['strict-transport-security']).toBe('max-age=31536000');
		expect([file.length, file.headers.etag]).toEqual([bytes.length, `"${paper.sha256}"`]);
		session.close();
		await secure.stop();
	});
});

describe('one web server after the other is started again', () => {
	it('while many ask, and nobody is failed and no file is cut', async () => {
		let going = true;
		let asked = 0;
		const failed: string[] = [];
		const askers = Array.from({ length: 6 }, async (_, i) => {
			while (going) {
				const address = i % 3 ? path : '/';
				try {
					const response = await ask(nginx.origin, address);
					const length = (await body(response)).length;
					if (response.status !== 200 || (address === path && length !== bytes.length)) failed.push(`${address} ${response.status} ${length}`);
				} catch (error) {
					failed.push(`${address} ${String((error as Error).cause)}`);
				}
				asked++;
			}
		});
		for (const web of webs) {
			web.process.kill('SIGTERM');
			await once(web.process, 'exit');
			web.process = await startWeb(web.port);
			await new Promise((go) => setTimeout(go, 2_000));
		}
		going = false;
		await Promise.all(askers);
		expect(failed).toEqual([]);
		expect(asked).toBeGreaterThan(100);
	});
});
