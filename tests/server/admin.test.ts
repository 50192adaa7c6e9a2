// The command line, as whoever runs the machine calls it: on a site that runs and on one that does not, answered in words and in JSON, with the
// exit codes that scripts go by.
import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import postgres from 'postgres';
import { freePort } from '#server/db/cluster';
import { keepSettings, keptSettings } from '#server/settings-file';
import { bucketSettings } from '../../standins/bucket';
import { startBucket } from '../../standins/s3';
import type { Running } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';
import { pdf } from './help';
import { begin, startOwn } from './own';

const { path: at, drop } = scratch('admin');
const data = join(at, 'site');
const environment = Object.fromEntries(Object.entries(process.env).filter(([name]) => !name.startsWith('IANUA_')));

/** Calls the program as ./ianua does. */
function ianua(args: readonly string[], input = '', more: Record<string, string> = {}): Promise<{ code: number; out: string; err: string }> {
	return new Promise((done) => {
		const child = execFile(process.execPath, ['build/admin.js', ...args], { env: { ...environment, ...more } }, (error, out, err) =>
			done({ code: error ? Number(error.code ?? -1) : 0, out, err })
		);
		child.stdin?.end(input);
	});
}
const json = async <T>(...args: string[]) => {
	const { out, err } = await ianua([...args, '--data', data, '--json']);
	try {
		return JSON.parse(out) as T;
	} catch {
		throw new Error(`${args.join(' ')}: ${out}${err}`);
	}
};
const signIn = (origin: string, email: string, password: string) =>
	fetch(`${origin}/api/auth/sign-in/email`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ email, password }) });

let own: Running | null;
let boss: { cookie: string };
const bring = async (origin: string, title: string) => {
	const form = new FormData();
	const bytes = await pdf(title, 3);
	form.append('file', new Blob([new Uint8Array(bytes)]), `${title}.pdf`);
	const made = await fetch(`${origin}/api/v1/documents`, { method: 'POST', headers: boss, body: form });
	expect(made.status).toBe(201);
	return { slug: ((await made.json()) as { slug: string }).slug, sha256: createHash('sha256').update(bytes).digest('hex') };
};

beforeAll(async () => {
	own = await startOwn({ data, given: { IANUA_SMTP_URL: '' } });
	boss = await begin(own);
});
afterAll(async () => {
	await own?.stop();
	drop();
});

describe('asked in a way that it does not know', () => {
	it('it says how, and ends with 2; asked for help, with 0', async () => {
		for (const args of [['nonsense'], ['owner', 'create'], ['backup'], ['check', '--nonsense'], ['store', 'move', 'one']]) {
			const { code, err } = await ianua(args);
			expect([args, code, err]).toEqual([args, 2, expect.stringContaining('Usage: ianua')]);
		}
		for (const args of [['--help'], ['owner', 'create', '--help'], ['store', 'move', '--help'], ['--version']]) expect((await ianua(args)).code).toBe(0);
	});
	it('a folder without a site is told in a sentence', async () => {
		const { code, err } = await ianua(['check', '--data', join(at, 'nothing')]);
		expect([code, err]).toEqual([1, expect.stringMatching(/^There is no site in .*nothing\./)]);
		expect(existsSync(join(at, 'nothing'))).toBe(false);
	});
});

describe('owners', () => {
	it('are made with a password that is told once, or one that is given, and can sign in', async () => {
		const made = await json<{ password: string; known: boolean }>('owner', 'create', '--email', 'Second@example.org', '--name', 'Second');
		expect(made.known).toBe(false);
		expect((await signIn(own!.origin, 'second@example.org', made.password)).status).toBe(200);
		const given = await ianua(
			['owner', 'create', '--email', 'third@example.org', '--name', 'Third', '--password-stdin', '--data', data],
			'a-password-of-theirs\n'
		);
		expect([given.code, given.out]).toEqual([0, 'third@example.org owns the site.\n']);
		expect((await signIn(own!.origin, 'third@example.org', 'a-password-of-theirs')).status).toBe(200);
		expect((await ianua(['owner', 'create', '--email', 'x@example.org', '--name', 'X', '--password-stdin', '--data', data], 'short')).code).toBe(1);
	});
	it('who are locked out are let in again, and whoever was signed in as them is not', async () => {
		const before = await signIn(own!.origin, 'third@example.org', 'a-password-of-theirs');
		const cookie = before.headers.getSetCookie().map((c) => c.split(';')[0]).join('; '); // prettier-ignore
		const { password } = await json<{ password: string }>('owner', 'reset', 'third@example.org');
		expect((await fetch(`${own!.origin}/api/v1/documents`, { headers: { cookie } })).status).toBe(401);
		expect((await signIn(own!.origin, 'third@example.org', 'a-password-of-theirs')).status).toBe(401);
		expect((await signIn(own!.origin, 'third@example.org', password)).status).toBe(200);
		const nobody = await ianua(['owner', 'reset', 'nobody@example.org', '--data', data]);
		expect([nobody.code, nobody.err]).toEqual([1, expect.stringContaining('No owner has the address')]);
	});
});

interface Check {
	well: boolean;
	parts: { part: string; well: string; words: string }[];
}
const part = async (name: string) => (await json<Check>('check')).parts.find((p) => p.part === name)!;

describe('check', () => {
	it('finds everything well, and tells a file that is damaged, gone or of no document', async () => {
		const [one, two] = [await bring(own!.origin, 'Looked at'), await bring(own!.origin, 'Looked at too')];
		expect((await json<Check>('check')).well).toBe(true);
		expect((await part('mail')).well).toBe('look');
		const path = join(data, 'files', 'originals', one.sha256.slice(0, 2), one.sha256.slice(2, 4), one.sha256);
		const bytes = readFileSync(path);
		const damaged = Buffer.from(bytes);
		damaged[50]! ^= 1;
		writeFileSync(path, damaged);
		const { sha256 } = two;
		const other = join(data, 'files', 'originals', sha256.slice(0, 2), sha256.slice(2, 4), sha256);
		const kept = readFileSync(other);
		rmSync(other);
		try {
			const files = await part('files');
			expect([files.well, files.words]).toEqual(['no', expect.stringMatching(new RegExp(`Missing: ${sha256}.*Damaged: ${one.sha256}`))]);
			expect((await ianua(['check', '--data', data])).code).toBe(1);
			expect((await ianua(['check', '--no-checksums', '--data', data])).code).toBe(0);
		} finally {
			writeFileSync(path, bytes);
			writeFileSync(other, kept);
		}
		expect((await part('files')).well).toBe('yes');
	});
	it('knows a server for mail that does not answer, and a store of another site', async () => {
		const deaf = { IANUA_SMTP_URL: 'smtp://127.0.0.1:1' };
		expect((await ianua(['check', '--no-checksums', '--data', data], '', deaf)).out).toMatch(/^WRONG {2}mail/m);
		expect((await ianua(['mail', 'test', 'you@example.org', '--data', data], '', deaf)).code).toBe(1);
		const id = join(data, 'files', 'site-id');
		const kept = readFileSync(id, 'utf8');
		writeFileSync(id, 'another\n');
		expect(await part('store')).toMatchObject({ well: 'no', words: expect.stringContaining('belongs to another site') as string });
		writeFileSync(id, kept);
	});
});

describe('a site that does not run', () => {
	it('is backed up, looked over, summed and brought up to date all the same', async () => {
		await own!.stop();
		own = null;
		expect((await json<Check>('check')).parts.filter((p) => p.well === 'no')).toEqual([]);
		expect((await json<{ version: string }>('migrate')).version).toMatch(/^\d/);
		expect(await json<{ seconds: number }>('sums', 'rebuild')).toEqual({ seconds: expect.any(Number) as number });
		const { folder } = await json<{ folder: string }>('backup', join(at, 'kept'));
		expect(readdirSync(folder)).toContain('manifest.json');
		expect((await part('backup')).well).toBe('yes');
	});
	it('tells an owner at the desk, and no editor, when the last backup has grown old', async () => {
		own = await startOwn({ data });
		const { IANUA_DATABASE_URL: url } = own.environment;
		const sql = postgres(url!, { max: 1 });
		const desk = async () => (await fetch(`${own!.origin}/desk/upkeep`, { headers: boss })).text();
		try {
			expect(await desk()).not.toContain('The last backup is');
			await sql`update setting set value = jsonb_build_object('at', to_char(now() - interval '9 days 1 hour', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')) where key = 'backed-up'`;
			expect(await desk()).toContain('The last backup is 9 days old.');
			await sql`update person set role = 'editor' where email = 'o@example.org'`;
			expect(await desk()).not.toContain('The last backup is');
			await sql`update person set role = 'owner' where email = 'o@example.org'`;
		} finally {
			await sql.end();
			await own.stop();
			own = null;
		}
	});

	it('moves its store into a bucket and back, and goes on with every file where it was told to', async () => {
		const port = await freePort();
		const bucket = await startBucket(port, join(at, 's3'));
		try {
			const settings = bucketSettings(port, 'moved');
			const { IANUA_FILES: place, ...key } = settings;
			keepSettings(data, key);
			const moved = await json<{ copied: number; switched: boolean }>('store', 'move', join(data, 'files'), place!);
			expect([moved.copied > 1, moved.switched]).toEqual([true, true]);
			own = await startOwn({ data });
			const { slug, sha256 } = await bring(own.origin, 'In the bucket now');
			const listed = (await (await fetch(`${own.origin}/api/v1/documents`, { headers: boss })).json()) as { items: { slug: string; sha256: string }[] };
			for (const { slug } of listed.items) expect([slug, (await fetch(`${own.origin}/d/${slug}/file`, { headers: boss })).status]).toEqual([slug, 200]);
			expect((await part('files')).well).toBe('yes');
			// while it runs nothing is switched
			const back = join(data, 'files');
			expect(await json('store', 'move', place!, back)).toMatchObject({ switched: false, why: 'running' });
			await own.stop();
			own = null;
			// where the environment says where files are, nothing that is written beside the data changes that
			const said = await ianua(['store', 'move', place!, back, '--data', data], '', { IANUA_FILES: place! });
			expect([said.code, said.out]).toEqual([0, expect.stringContaining(`Set IANUA_FILES=${back}`)]);
			expect(keptSettings(data).IANUA_FILES).not.toBe(back);
			expect(await json('store', 'move', place!, `${back}/`)).toMatchObject({ copied: 0, switched: true, place: back });
			own = await startOwn({ data });
			const again = Buffer.from(await (await fetch(`${own.origin}/d/${slug}/file`, { headers: boss })).arrayBuffer());
			expect(createHash('sha256').update(again).digest('hex')).toBe(sha256);
		} finally {
			await bucket.stop();
		}
	});

	it('does not move into the store of another site, nor what is damaged', async () => {
		const strange = join(at, 'strange');
		mkdirSync(strange);
		writeFileSync(join(strange, 'site-id'), 'another\n');
		const other = await ianua(['store', 'move', join(data, 'files'), strange, '--data', data]);
		expect([other.code, other.err]).toEqual([1, expect.stringContaining('belongs to another site')]);
		const [name] = readdirSync(join(data, 'files', 'originals'), { recursive: true, encoding: 'utf8' }).filter((n) => /[0-9a-f]{64}$/.test(n));
		const path = join(data, 'files', 'originals', name!);
		const bytes = readFileSync(path);
		writeFileSync(path, Buffer.concat([bytes, Buffer.from('x')]));
		const damaged = await ianua(['store', 'move', join(data, 'files'), join(at, 'new'), '--data', data]);
		writeFileSync(path, bytes);
		expect([damaged.code, damaged.err]).toEqual([1, expect.stringContaining('it is damaged')]);
	});
});

describe('what is put by', () => {
	it('is listed and brought back', async () => {
		const name = 'a'.repeat(64);
		mkdirSync(join(data, 'files', 'put-by', '2026-11-01'), { recursive: true });
		writeFileSync(join(data, 'files', 'put-by', '2026-11-01', name), 'bytes');
		expect((await json<{ items: unknown[] }>('put-by', 'list')).items).toContainEqual({ name, day: '2026-11-01', bytes: 5 });
		expect(await json('put-by', 'restore', name)).toEqual({ sha256: name, back: true });
		expect(readFileSync(join(data, 'files', 'originals', 'aa', 'aa', name), 'utf8')).toBe('bytes');
		expect((await ianua(['put-by', 'restore', 'b'.repeat(64), '--data', data])).code).toBe(1);
	});
});

describe('a database of a newer version', () => {
	it('is refused in words by an older program, and told by check', async () => {
		const { IANUA_DATABASE_URL: url } = own!.environment;
		const sql = postgres(url!, { max: 1 });
		await sql`insert into drizzle.__drizzle_migrations (hash, created_at) values ('newer', 4000000000000)`;
		try {
			expect(await part('database')).toMatchObject({ well: 'no', words: expect.stringContaining('newer version') as string });
			const { code, err } = await ianua(['migrate', '--data', data]);
			expect([code, err]).toEqual([
				1,
				expect.stringMatching(/^The database was brought up to date by a newer version of Ianua than this one, [\d.]+\. Start that version/)
			]);
		} finally {
			await sql`delete from drizzle.__drizzle_migrations where hash = 'newer'`;
			await sql.end();
		}
	});
});
