// Uploads by the tus protocol 1.0 (tus.io, version 1.0.0): broken off, gone on with, refused, stopped.
import { readFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { Agent, request } from 'node:http';
import { describe, expect, it } from 'vitest';
import { samples } from '../../scripts/samples';
import { member, origin, pdf, staff, until, visitor, type Client, type DocumentJson } from './help';

interface Line {
	id: string;
	name: string;
	state: string;
	arrived: number;
	trouble: { code: string; text: string } | null;
	document: { slug: string; condition: string } | null;
}

const tus = { 'tus-resumable': '1.0.0' };
const octets = { ...tus, 'content-type': 'application/offset+octet-stream' };
const metadata = (values: Record<string, string>) =>
	Object.entries(values)
		.map(([name, value]) => `${name} ${Buffer.from(value).toString('base64')}`)
		.join(',');
const raw = (who: Client, method: string, path: string, headers: Record<string, string>, body?: Uint8Array) =>
	fetch(origin + path, { method, headers: { ...who.headers, ...headers }, body: body as BodyInit | undefined });
async function begin(who: Client, length: number, values: Record<string, string>): Promise<{ response: Response; path: string; id: string }> {
	const response = await raw(who, 'POST', '/api/v1/intake', { ...tus, 'upload-length': String(length), 'upload-metadata': metadata(values) });
	const path = response.headers.get('location') ?? '';
	return { response, path, id: path.split('/').pop()! };
}
const lineOf = async (who: Client, id: string) => (await who.api<{ items: Line[] }>('GET', '/intake')).items.find((l) => l.id === id);
const settled = (who: Client, id: string) =>
	until(async () => {
		const line = await lineOf(who, id);
		return line && ['in', 'refused', 'stopped'].includes(line.state) ? line : null;
	});

describe('an upload', () => {
	it('goes on where it stopped, and becomes a document to the bit', async () => {
		const boss = await staff();
		const bytes = await pdf('In three pieces', 40);
		const { response, path, id } = await begin(boss, bytes.length, { filename: 'pieces.pdf', folder: 'Sent in pieces' });
		// creation (tus 1.0, "Creation"): 201 and the upload's address
		expect(response.status).toBe(201);
		const first = await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '0' }, bytes.subarray(0, 5000));
		expect([first.status, first.headers.get('upload-offset')]).toEqual([204, '5000']);
		expect((await lineOf(boss, id))!).toMatchObject({ state: 'uploading', arrived: 5000 });
		// "Core protocol": HEAD tells where to go on; an offset that is not that is 409
		const head = await raw(boss, 'HEAD', path, tus);
		expect([head.headers.get('upload-offset'), head.headers.get('upload-length')]).toEqual(['5000', String(bytes.length)]);
		expect((await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '4000' }, bytes.subarray(4000, 6000))).status).toBe(409);
		const rest = await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '5000' }, bytes.subarray(5000));
		expect(rest.status).toBe(204);
		const line = await settled(boss, id);
		expect(line).toMatchObject({ state: 'in', document: { condition: 'sound' } });
		const made = await boss.api<DocumentJson>('GET', `/documents/${line.document!.slug}`);
		expect(made).toMatchObject({ fileName: 'pieces.pdf', folder: 'Sent in pieces', sha256: createHash('sha256').update(bytes).digest('hex') });
	});
	it('that ends short of its length stays where it is until the rest comes', async () => {
		const boss = await staff();
		const bytes = await pdf('Short', 2);
		const { path, id } = await begin(boss, bytes.length + 10, { filename: 'short.pdf' });
		await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '0' }, bytes);
		expect((await lineOf(boss, id))!.state).toBe('uploading');
		// more than was said is not taken
		const more = await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': String(bytes.length) }, new Uint8Array(100));
		expect(more.status).toBeGreaterThanOrEqual(400);
	});
	it('whose connection broke unnoticed is gone on with by a new request: the old one steps down with what it has', async () => {
		const boss = await staff();
		const bytes = await pdf('Half gone', 30);
		const { path, id } = await begin(boss, bytes.length, { filename: 'half gone.pdf' });
		// a part, and then silence on a connection that stays
		const gone = request(origin + path, { method: 'PATCH', headers: { ...boss.headers, ...octets, 'upload-offset': '0', 'content-length': bytes.length } });
		gone.on('error', () => {});
		gone.write(bytes.subarray(0, 4000));
		await until(async () => ((await lineOf(boss, id))!.arrived === 4000 ? true : null));
		const head = await raw(boss, 'HEAD', path, tus);
		expect([head.status, head.headers.get('upload-offset')]).toEqual([200, '4000']);
		const rest = await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '4000' }, bytes.subarray(4000));
		expect(rest.status).toBe(204);
		gone.destroy();
		const made = await boss.api<DocumentJson>('GET', `/documents/${(await settled(boss, id)).document!.slug}`);
		expect(made.sha256).toBe(createHash('sha256').update(bytes).digest('hex'));
	});
	it('answered before its bytes were read gets its answer, on a connection that goes on', async () => {
		const agent = new Agent({ keepAlive: true, maxSockets: 1 });
		const ask = (method: string, path: string, body?: Buffer) =>
			new Promise<{ status: number; port: number }>((done, failed) => {
				const asked = request(origin + path, { agent, method, headers: { ...octets, 'content-length': body?.length ?? 0 } }, (response) => {
					const port = response.socket.localPort!;
					response.resume().on('end', () => done({ status: response.statusCode!, port }));
				});
				asked.on('error', failed);
				// all of it is sent before the answer is looked at, as browsers do
				asked.end(body);
			});
		try {
			// more than the buffers of a connection hold
			const [refused, next] = [await ask('POST', '/api/v1/intake', Buffer.alloc(30_000_000)), await ask('GET', '/healthz')];
			expect([refused.status, next.status]).toEqual([401, 200]);
			expect(next.port).toBe(refused.port);
			const other = await ask('POST', '/api/v1/groups', Buffer.alloc(30_000_000));
			expect(other.status).toBe(413);
		} finally {
			agent.destroy();
		}
	});
	it('comes over a connection that is kept for longer than proxies keep theirs, which is 60 s', async () => {
		const { headers } = await fetch(`${origin}/healthz`);
		expect(Number(/timeout=(\d+)/.exec(headers.get('keep-alive') ?? '')?.[1])).toBeGreaterThan(60);
	});
	it('over the limit is refused before a byte is sent, in words', async () => {
		const boss = await staff();
		const { response } = await begin(boss, 3_000_001, { filename: 'big.pdf' });
		const problem = (await response.json()) as { code: string; title: string };
		expect([response.status, problem.code]).toEqual([413, 'file-too-large']);
		expect(problem.title).toContain('3 MB');
	});
	it('of something that is no PDF says so in the tray, the others go on', async () => {
		const boss = await staff();
		const texts = [Buffer.from('Dear all,\n'), Buffer.alloc(0), await pdf('Good among bad')];
		const ids: string[] = [];
		for (const [i, bytes] of texts.entries()) {
			const { path, id } = await begin(boss, bytes.length, { filename: `many ${i}.pdf` });
			if (bytes.length) await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '0' }, bytes);
			ids.push(id);
		}
		const lines = await Promise.all(ids.map((id) => settled(boss, id)));
		expect(lines.map((l) => l.trouble?.code ?? l.document!.condition)).toEqual(['file-not-pdf', 'file-empty', 'sound']);
		expect(lines[0]!.trouble!.text).toContain('“many 0.pdf” is a text file, not a PDF.');
	});
	it('with control characters in its name has none of them afterwards', async () => {
		const boss = await staff();
		const bytes = await pdf('Bell');
		const { path, id } = await begin(boss, bytes.length, { filename: 'bell\u0007 and\u0000 nul\n.pdf' });
		await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '0' }, bytes);
		const { document } = await settled(boss, id);
		expect((await boss.api<DocumentJson>('GET', `/documents/${document!.slug}`)).fileName).toBe('bell and nul.pdf');
	});
	it('two files with one name become two documents', async () => {
		const boss = await staff();
		const slugs = new Set<string>();
		for (const text of ['first', 'second']) {
			const bytes = await pdf(`Same name, ${text}`);
			const { path, id } = await begin(boss, bytes.length, { filename: 'same.pdf' });
			await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '0' }, bytes);
			slugs.add((await settled(boss, id)).document!.slug);
		}
		expect(slugs.size).toBe(2);
	});
	it('can be stopped; nothing of it is kept', async () => {
		const boss = await staff();
		const { path, id } = await begin(boss, 9000, { filename: 'stopped.pdf' });
		await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '0' }, new Uint8Array(4000));
		await boss.api('PATCH', '/intake', { stop: [id] });
		expect((await lineOf(boss, id))!.state).toBe('stopped');
		expect((await raw(boss, 'HEAD', path, tus)).status).toBe(404);
		await boss.api('DELETE', '/intake');
		expect(await lineOf(boss, id)).toBeUndefined();
	});
	it('is nobody else’s: members and visitors are refused, other staff find nothing', async () => {
		const boss = await staff();
		const { path } = await begin(boss, 100, { filename: 'mine.pdf' });
		for (const who of [visitor(), await member()]) {
			expect((await raw(who, 'POST', '/api/v1/intake', { ...tus, 'upload-length': '10' })).status).toBeGreaterThanOrEqual(401);
			expect((await raw(who, 'HEAD', path, tus)).status).toBeGreaterThanOrEqual(401);
		}
	});
	it('as a new edition comes into force with everything of the document kept', async () => {
		const boss = await staff();
		const bytes = await pdf('First words', 2);
		const { path, id } = await begin(boss, bytes.length, { filename: 'notice.pdf' });
		await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '0' }, bytes);
		const { slug } = (await settled(boss, id)).document!;
		await boss.api('PATCH', `/documents/${slug}`, { door: { position: 'open' }, description: 'Kept.' });
		const next = await pdf('Second words', 3);
		const second = await begin(boss, next.length, { filename: 'notice 2.pdf', edition: slug });
		await raw(boss, 'PATCH', second.path, { ...octets, 'upload-offset': '0' }, next);
		await settled(boss, second.id);
		const now = await boss.api<DocumentJson>('GET', `/documents/${slug}`);
		expect(now).toMatchObject({ pages: 3, description: 'Kept.', door: { position: 'open' }, fileName: 'notice 2.pdf' });
		const unknown = await begin(boss, 10, { filename: 'x.pdf', edition: 'no-such-document' });
		expect(unknown.response.status).toBe(422);
	});
	it('the same bytes are known before they are sent', async () => {
		const boss = await staff();
		const bytes = readFileSync(samples.tools);
		const sha256 = createHash('sha256').update(bytes).digest('hex');
		const known = () => boss.api<{ items: { slug: string; inForce: boolean }[] }>('GET', `/intake/known?sha256=${sha256}`);
		expect((await known()).items).toEqual([]);
		const { path, id } = await begin(boss, bytes.length, { filename: 'tools.pdf' });
		await raw(boss, 'PATCH', path, { ...octets, 'upload-offset': '0' }, bytes);
		const { slug } = (await settled(boss, id)).document!;
		expect((await known()).items).toMatchObject([{ slug, inForce: true }]);
	});
});
