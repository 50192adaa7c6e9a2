// What is brought in, what is refused in words, and that nothing half-made stays behind.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { origin, pdf, send, staff, until, type DocumentJson } from './help';
import { makePdf } from '../../demo/pdf';
import { given } from './given';

const store = join(given.environment.IANUA_DATA!, 'files');
const files = (dir = store): string[] => {
	try {
		return readdirSync(dir, { withFileTypes: true }).flatMap((e) => (e.isDirectory() ? files(join(dir, e.name)) : [join(dir, e.name)]));
	} catch {
		return [];
	}
};
const count = async () => (await (await staff()).api<{ counts: { all: number } }>('GET', '/documents')).counts.all;

describe('a sound PDF', () => {
	it('becomes a shut document with its facts, and is kept to the bit under its SHA-256', async () => {
		const bytes = await pdf('Sound', 3, { info: { Title: 'Cruising guide' } });
		const response = await send(bytes, 'guide_v2.pdf');
		expect(response.status).toBe(201);
		const made = (await response.json()) as DocumentJson;
		const sha256 = createHash('sha256').update(bytes).digest('hex');
		expect(made).toMatchObject({
			title: 'Cruising guide',
			pages: 3,
			bytes: bytes.length,
			sha256,
			fileName: 'guide_v2.pdf',
			condition: { status: 'sound', findings: [] },
			door: { position: 'shut' }
		});
		expect(made.facts).toMatchObject({ paper: 'A4', text: 'yes', textPages: 3, encrypted: false });
		const kept = files().find((f) => f.endsWith(sha256))!;
		expect(readFileSync(kept).equals(bytes)).toBe(true);
	});
	it('two of one title get addresses of their own', async () => {
		const slugs = await Promise.all(
			['a', 'b', 'c'].map(async (t) => ((await (await send(await pdf(t), 'x.pdf', { title: 'The same title' })).json()) as DocumentJson).slug)
		);
		expect(new Set(slugs)).toEqual(new Set(['the-same-title', 'the-same-title-2', 'the-same-title-3']));
	});
	it('with JavaScript in its OpenAction is worth a look and says so', async () => {
		const bytes = await makePdf({
			title: 'Active',
			subtitle: '',
			colour: '#000000',
			size: 'A4',
			day: '2026-11-24',
			seed: 1,
			sections: [{ heading: 'A', paragraphs: ['Words.'] }],
			script: 'this.print();'
		});
		const made = (await (await send(bytes, 'active.pdf')).json()) as DocumentJson;
		expect(made.condition.status).toBe('look');
		expect(made.condition.findings[0]!.text).toContain('JavaScript');
	});
	it('that another program made and Debian’s qpdf encrypted without a password opens, with its permissions told', async () => {
		const dir = mkdtempSync(join(tmpdir(), 'ianua-'));
		writeFileSync(join(dir, 'a.pdf'), await pdf('Permissions'));
		execFileSync('qpdf', ['--encrypt', '', 'owner', '256', '--print=none', '--extract=n', '--', join(dir, 'a.pdf'), join(dir, 'b.pdf')]);
		const made = (await (await send(readFileSync(join(dir, 'b.pdf')), 'b.pdf')).json()) as DocumentJson;
		rmSync(dir, { recursive: true });
		expect(made.condition.findings.map((f) => f.code)).toEqual(['print-forbidden', 'copy-forbidden']);
	});
});

describe('anything else is refused in words, and leaves nothing behind', () => {
	it.each([
		['an empty file', async () => new Uint8Array(), 'file-empty', 422, 'is empty'],
		['a text file', async () => Buffer.from('Dear all,\n'), 'file-not-pdf', 415, 'a text file, not a PDF'],
		['an office file', async () => Buffer.from('PK\u0003\u0004word/document.xml'), 'file-not-pdf', 415, 'a zip or an office file'],
		['a picture', async () => Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16]), 'file-not-pdf', 415, 'a JPEG picture'],
		['a header and noise', async () => Buffer.concat([Buffer.from('%PDF-1.7\n'), Buffer.alloc(5000, 'x')]), 'file-damaged', 422, 'is damaged'],
		['a cut-off file', async () => (await pdf('Cut', 5)).subarray(0, 700), 'file-damaged', 422, 'is damaged'],
		['more than the limit', async () => Buffer.concat([Buffer.from('%PDF-1.7\n'), Buffer.alloc(3_000_000)]), 'file-too-large', 413, 'larger than the 3 MB']
	])('%s', async (_what, make, code, status, words) => {
		const [before, documents] = [files().sort(), await count()];
		const response = await send(await make(), 'the file.pdf');
		const problem = (await response.json()) as { code: string; title: string; status: number };
		expect(response.headers.get('content-type')).toBe('application/problem+json');
		expect([response.status, problem.status, problem.code]).toEqual([status, status, code]);
		expect(problem.title).toContain(words);
		expect(problem.title).toContain('“the file.pdf”');
		expect(files().sort()).toEqual(before);
		expect(await count()).toBe(documents);
	});
	it('a form without a file', async () => {
		const form = new FormData();
		form.append('title', 'x');
		const response = await (await staff()).send('POST', '/api/v1/documents', form);
		expect([response.status, ((await response.json()) as { code: string }).code]).toEqual([400, 'no-file']);
		expect((await (await staff()).send('POST', '/api/v1/documents', {})).status).toBe(400);
	});
	it('an upload that breaks off', async () => {
		const [before, documents] = [files().sort(), await count()];
		const cookie = await new Promise<string>((done) => {
			void fetch(`${origin}/api/auth/sign-in/email`, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify({ email: 'olive@example.org', password: 'a-password-for-tests' })
			}).then((r) => done(r.headers.getSetCookie()[0]!.split(';')[0]!));
		});
		const { port } = new URL(origin);
		await new Promise<void>((done) => {
			const socket = connect(Number(port), '127.0.0.1', () => {
				socket.write(
					`POST /api/v1/documents HTTP/1.1\r\nHost: x\r\nCookie: ${cookie}\r\nContent-Type: multipart/form-data; boundary=b\r\nContent-Length: 100000\r\n\r\n--b\r\nContent-Disposition: form-data; name="file"; filename="a.pdf"\r\n\r\n%PDF-1.7\n${'x'.repeat(20_000)}`
				);
				setTimeout(() => socket.destroy(), 300);
			});
			socket.on('close', () => done());
		});
		await until(() => Promise.resolve(files().sort().join() === before.join()));
		expect(await count()).toBe(documents);
	});
	it('the same bytes refused once more leave the good copy alone', async () => {
		const bytes = await pdf('Twice');
		const made = (await (await send(bytes, 'once.pdf')).json()) as DocumentJson;
		await send(bytes, 'again.pdf');
		const kept = files().filter((f) => f.endsWith(made.sha256));
		expect(kept).toHaveLength(1);
		expect(statSync(kept[0]!).size).toBe(bytes.length);
	});
});
