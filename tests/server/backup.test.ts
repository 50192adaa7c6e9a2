// A backup taken while the site runs, restored beside it: the same files, figures and doors, nobody signed in by it, and damage told.
import { mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, expect, it } from 'vitest';
import { backUp, restore } from '#server/upkeep/backup';
import { freePort, startPostgres } from '#server/db/cluster';
import { runIanua, type Running } from '../../scripts/run';
import { begin, signOwnerIn } from './own';
import { scratch } from '../../scripts/scratch';
import { browserAgent, pdf } from './help';

const names = ['IANUA_DATABASE_URL', 'IANUA_ORIGIN', 'IANUA_DATA', 'IANUA_PORT', 'IANUA_SECRET', 'IANUA_FILES'];
const before = Object.fromEntries(names.map((name) => [name, process.env[name]]));
for (const name of names) delete process.env[name];
const folders = ['backed', 'kept', 'restored', 'broken'].map((name) => scratch(name));
afterAll(() => {
	Object.assign(process.env, Object.fromEntries(Object.entries(before).filter(([, v]) => v !== undefined)));
	for (const { drop } of folders) drop();
});

it('gives back everything but who was signed in, and refuses what is damaged or would overwrite', async () => {
	const [backed, kept, restored, broken] = folders.map((f) => f.path) as [string, string, string, string];
	const one = await runIanua({ data: backed, port: await freePort(), demo: false, quick: true, log: 'silent' });
	let two: Running | undefined;
	try {
		const headers = await begin(one);
		const call = async (running: Running, who: { cookie: string }, method: string, path: string, body?: object) =>
			(await (
				await fetch(`${running.origin}/api/v1${path}`, { method, headers: { ...who, 'content-type': 'application/json' }, body: body && JSON.stringify(body) })
			).json()) as Record<string, unknown>;
		const slugs: string[] = [];
		for (let i = 0; i < 4; i++) {
			const form = new FormData();
			form.append('file', new Blob([new Uint8Array(await pdf(`Paper ${i}`, 3))]), `paper ${i}.pdf`);
			const made = (await (await fetch(`${one.origin}/api/v1/documents`, { method: 'POST', headers, body: form })).json()) as { slug: string };
			slugs.push(made.slug);
			await call(one, headers, 'PATCH', `/documents/${made.slug}`, { door: { position: i % 2 ? 'open' : 'shut' }, folder: `F${i}` });
		}
		const reader = { 'user-agent': browserAgent };
		await (await fetch(`${one.origin}/d/${slugs[1]!}/file`, { headers: reader })).arrayBuffer();

		// readers go on reading meanwhile
		let going = true;
		const reading = (async () => {
			while (going) await (await fetch(`${one.origin}/d/${slugs[3]!}/file`, { headers: reader })).arrayBuffer();
		})();
		writeFileSync(join(backed, 'providers.json'), '[]');
		const folder = await backUp({ data: backed, into: kept });
		going = false;
		await reading;
		expect(readdirSync(kept).every((name) => !name.endsWith('.unfinished'))).toBe(true);

		await restore({ from: folder, data: restored });
		expect(readFileSync(join(restored, 'providers.json'), 'utf8')).toBe('[]');
		two = await runIanua({ data: restored, port: await freePort(), demo: false, quick: true, log: 'silent' });
		// who was signed in there is not here; the password is the same
		expect((await fetch(`${two.origin}/api/v1/documents`, { headers })).status).toBe(401);
		const again = await signOwnerIn(two);
		for (const slug of slugs) {
			const [a, b] = [await call(one, headers, 'GET', `/documents/${slug}`), await call(two, again, 'GET', `/documents/${slug}`)];
			expect(b).toEqual(a);
			const [x, y] = await Promise.all(
				[one, two].map(async (running, i) =>
					Buffer.from(await (await fetch(`${running.origin}/d/${slug}/file`, { headers: i ? again : headers })).arrayBuffer())
				)
			);
			expect(y!.equals(x!)).toBe(true);
		}
		const entries = async (running: Running, who: { cookie: string }) =>
			((await call(running, who, 'GET', `/documents/${slugs[1]!}/ledger`)).items as { id: string; staff: boolean }[]).filter((e) => !e.staff).length;
		expect([await entries(two, again), await entries(one, headers)]).toEqual([1, 1]);
		expect((await fetch(`${two.origin}/readyz`)).status).toBe(200);

		await expect(restore({ from: folder, data: restored })).rejects.toThrow(/not empty/);
		// nor over the files of a site
		process.env.IANUA_FILES = join(backed, 'files');
		await expect(restore({ from: folder, data: join(broken, 'elsewhere') })).rejects.toThrow(/belongs to a site already/);
		delete process.env.IANUA_FILES;
		const manifest = JSON.parse(readFileSync(join(folder, 'manifest.json'), 'utf8')) as { files: { path: string }[] };
		const victim = join(folder, manifest.files.find((f) => f.path.includes('originals'))!.path);
		const bytes = readFileSync(victim);
		bytes[100]! ^= 1;
		writeFileSync(victim, bytes);
		await expect(restore({ from: folder, data: join(broken, 'new') })).rejects.toThrow(/damaged/);
	} finally {
		await two?.stop();
		await one.stop();
	}
});

it('a database made by a PostgreSQL that is not on this machine is told in a sentence, with the way on', async () => {
	const { path, drop } = scratch('older');
	try {
		mkdirSync(join(path, 'postgres', 'cluster'), { recursive: true });
		writeFileSync(join(path, 'postgres', 'cluster', 'PG_VERSION'), '9.6\n');
		writeFileSync(join(path, 'postgres.password'), 'x');
		await expect(startPostgres(path)).rejects.toThrow(/was made by PostgreSQL 9\.6, and this machine has \d+.*Install postgresql-9\.6 beside it/);
	} finally {
		drop();
	}
});
