// What breaks in the middle: the application killed during uploads, PostgreSQL stopped, no room left, programs that hang or are killed.
// Each on an Ianua of its own, so that nothing else is disturbed.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import postgres from 'postgres';
import { noisePdf } from '../../scripts/noise-pdf';
import { scratch } from '../../scripts/scratch';
import { pdf, until } from './help';
import { begin, startOwn } from './own';
import { limits, run } from '#server/pdf/run';

const ends: (() => void)[] = [];
afterAll(() => {
	for (const end of ends.reverse()) end();
});
const files = (dir: string): string[] =>
	existsSync(dir) ? readdirSync(dir, { withFileTypes: true }).flatMap((e) => (e.isDirectory() ? files(join(dir, e.name)) : [join(dir, e.name)])) : [];

interface Line {
	id: string;
	name: string;
	state: string;
	arrived: number;
	bytes: number;
	trouble: { text: string } | null;
}

it('the application killed in the middle of 50 uploads: what was acknowledged is complete or goes on, nothing stray is left', async () => {
	const { path: data, drop } = scratch('killed');
	ends.push(drop);
	let ianua = await startOwn({ data });
	const headers = await begin(ianua);
	const bytes = await Promise.all(Array.from({ length: 50 }, (_, i) => pdf(`Upload ${i}`, 6)));
	const tus = { ...headers, 'tus-resumable': '1.0.0' };
	const whole: string[] = [];
	const half: { id: string; i: number; at: number }[] = [];
	let killed = false;
	const uploads = bytes.map(async (file, i) => {
		try {
			const made = await fetch(`${ianua.origin}/api/v1/intake`, {
				method: 'POST',
				headers: { ...tus, 'upload-length': String(file.length), 'upload-metadata': `filename ${Buffer.from(`${i}.pdf`).toString('base64')}` }
			});
			const id = made.headers.get('location')!.split('/').pop()!;
			// every other one sends its second half only after the server is gone
			const cut = i % 2 ? Math.floor(file.length / 2) : file.length;
			const patch = (from: number, to: number) =>
				fetch(`${ianua.origin}/api/v1/intake/${id}`, {
					method: 'PATCH',
					headers: { ...tus, 'content-type': 'application/offset+octet-stream', 'upload-offset': String(from) },
					body: new Uint8Array(file.subarray(from, to))
				});
			const sent = await patch(0, cut);
			if (sent.status === 204 && cut === file.length) whole.push(`${i}.pdf`);
			if (sent.status === 204 && cut < file.length) half.push({ id, i, at: cut });
		} catch {
			if (!killed) throw new Error('an upload failed before the kill');
		}
	});
	await until(() => Promise.resolve(whole.length >= 5 && half.length >= 5));
	killed = true;
	ianua.kill();
	await Promise.allSettled(uploads);
	await ianua.stop();

	ianua = await startOwn({ data });
	try {
		const tray = async () => ((await (await fetch(`${ianua.origin}/api/v1/intake`, { headers })).json()) as { items: Line[] }).items;
		// what had arrived whole comes in by itself
		await until(async () => !(await tray()).some((l) => l.state === 'checking'));
		const lines = await tray();
		for (const name of whole) expect([name, lines.find((l) => l.name === name)?.state]).toEqual([name, 'in']);
		// what had arrived half goes on from where it was acknowledged
		for (const { id, i, at } of half) {
			const head = await fetch(`${ianua.origin}/api/v1/intake/${id}`, { method: 'HEAD', headers: tus });
			const from = Number(head.headers.get('upload-offset'));
			expect(from).toBeGreaterThanOrEqual(at);
			await fetch(`${ianua.origin}/api/v1/intake/${id}`, {
				method: 'PATCH',
				headers: { ...tus, 'content-type': 'application/offset+octet-stream', 'upload-offset': String(from) },
				body: new Uint8Array(bytes[i]!.subarray(from))
			});
		}
		await until(async () => !(await tray()).some((l) => l.state === 'checking'));
		expect(whole.length + half.length).toBeGreaterThan(0);
		const sql = postgres(ianua.environment.IANUA_DATABASE_URL!, { max: 1, onnotice: () => {} });
		try {
			const [count] = await sql<{ documents: number; unchecked: number; kept: number }[]>`
				select (select count(*)::int from document) as documents, (select count(*)::int from edition where condition = 'checking') as unchecked,
					(select count(distinct sha256)::int from edition) as kept`;
			const inNow = (await tray()).filter((l) => l.state === 'in').length;
			expect(count).toMatchObject({ documents: inNow, unchecked: 0 });
			expect(files(join(data, 'files', 'originals'))).toHaveLength(count!.kept);
			// of uploads only those that may still go on have anything here
			const going = new Set((await tray()).filter((l) => l.state === 'uploading').map((l) => l.id));
			const left = new Set(readdirSync(join(data, 'files', 'uploads')).map((n) => n.replace(/\.json$/, '')));
			for (const id of left) expect(going.has(id)).toBe(true);
		} finally {
			await sql.end();
		}
	} finally {
		await ianua.stop();
	}
});

it('PostgreSQL stopped and started again in the middle: uploads go on, checks are done', async () => {
	const { path: data, drop } = scratch('restarted');
	ends.push(drop);
	const ianua = await startOwn({ data });
	try {
		const headers = await begin(ianua);
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(await pdf('Before', 30))]), 'before.pdf');
		expect((await fetch(`${ianua.origin}/api/v1/documents`, { method: 'POST', headers, body: form })).status).toBe(201);
		ianua.restartPostgres();
		await until(async () => (await fetch(`${ianua.origin}/readyz`)).status === 200);
		const again = new FormData();
		again.append('file', new Blob([new Uint8Array(await pdf('After', 3))]), 'after.pdf');
		const made = await until(async () => {
			const response = await fetch(`${ianua.origin}/api/v1/documents`, { method: 'POST', headers, body: again });
			return response.status === 201 ? ((await response.json()) as { slug: string }) : null;
		});
		await until(async () => {
			const now = (await (await fetch(`${ianua.origin}/api/v1/documents/${made.slug}`, { headers })).json()) as { condition: { status: string } };
			return now.condition.status === 'sound';
		});
	} finally {
		await ianua.stop();
	}
});

it('no room left: the answer says so, what is here stays, and room made is enough to go on', async () => {
	const { path: data, drop } = scratch('full');
	ends.push(drop);
	const small = join(data, 'small');
	mkdirSync(small);
	// a store of 6 MB; only root may mount one
	execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=6m', 'tmpfs', small]);
	const ianua = await startOwn({ data, settings: { IANUA_FILES: small } });
	try {
		const headers = await begin(ianua);
		const send = async (bytes: Uint8Array, name: string) => {
			const form = new FormData();
			form.append('file', new Blob([bytes as BlobPart]), name);
			const response = await fetch(`${ianua.origin}/api/v1/documents`, { method: 'POST', headers, body: form });
			return { status: response.status, body: (await response.json()) as { slug: string; code: string; sha256: string; condition: { status: string } } };
		};
		const good = await send(await pdf('Fits'), 'fits.pdf');
		expect([good.status, good.body.condition.status]).toEqual([201, 'sound']);
		const ballast = join(small, 'ballast');
		writeFileSync(ballast, Buffer.alloc(4_500_000));
		const large = await noisePdf(2_000_000);
		const refused = await send(large, 'large.pdf');
		expect([refused.status, refused.body.code]).toEqual([507, 'no-room']);
		expect(files(join(small, 'originals'))).toHaveLength(1);
		expect(files(join(small, 'unfinished'))).toHaveLength(0);
		expect((await fetch(`${ianua.origin}/d/${good.body.slug}/file`, { headers })).status).toBe(200);
		rmSync(ballast);
		expect((await send(large, 'large.pdf')).status).toBe(201);
	} finally {
		await ianua.stop();
		execFileSync('umount', ['-l', small]);
	}
});

describe('a child process', () => {
	const bound = { ...limits.facts, cpu: 1 };
	const dir = mkdtempSync(join(tmpdir(), 'ianua-child-'));
	ends.push(() => rmSync(dir, { recursive: true }));
	it('that hangs is ended with all its own at twice its CPU seconds', async () => {
		const began = Date.now();
		// longer than any machine is late
		expect((await run('sh', ['-c', 'sleep 3600 & sleep 3600; wait'], bound)).code).toBeNull();
		expect(Date.now() - began).toBeLessThan(600_000);
		expect(spawnSync('pgrep', ['-f', 'sleep 3600']).stdout.toString().trim()).toBe('');
	});
	it('that is killed, takes too much memory, prints or writes without end is an outcome, not a crash', async () => {
		expect((await run('sh', ['-c', 'kill -9 $$'], bound)).code).not.toBe(0);
		expect((await run('node', ['-e', 'Buffer.alloc(2e9).fill(1)'], { ...bound, memory: 200 * 1024 * 1024 })).code).not.toBe(0);
		expect((await run('yes', [], { ...bound, output: 100_000 })).code).toBeNull();
		const file = join(dir, 'endless');
		expect((await run('sh', ['-c', `yes > ${file}`], { ...bound, file: 1_000_000 })).code).not.toBe(0);
		expect((await run('no-such-program', [], bound)).code).not.toBe(0);
	});
});
