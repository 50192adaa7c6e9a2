// A site of every earlier release, kept by that release's own code (tests/releases/make.sh), comes up under today's: what that release said of
// its documents, doors, files, ledger, people and pages is what is said now.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { program, startPostgres, type Postgres } from '#server/db/cluster';
import { scratch } from '../../scripts/scratch';
import { browserAgent } from './help';
import { signOwnerIn, startOwn } from './own';

interface Facts {
	/** By slug. */
	readonly documents: Readonly<
		Record<
			string,
			{ there: boolean; title?: string; pages?: number; bytes?: number; sha256?: string; door?: Record<string, unknown>; ledger: readonly string[] }
		>
	>;
	readonly groups: readonly string[];
	readonly members: readonly string[];
	/** What a visitor got for the page that was published; 404 where that release had none. */
	readonly page: number;
}

const releases = readdirSync('tests/releases').filter((name) => existsSync(join('tests/releases', name, 'facts.json')));
const { path: folder, drop } = scratch('upgrade');
let postgres: Postgres;
beforeAll(async () => {
	postgres = await startPostgres(folder, { quick: true });
});
afterAll(() => {
	postgres.stop();
	drop();
});

it('there is one of each release', () => {
	expect(releases).toEqual(['0.1', '0.2', '0.3', '0.4', '0.5', '0.6']);
});

it.each(releases)('%s: nothing is lost, and every door stands as it stood', { timeout: 120_000 }, async (release) => {
	const kept = join('tests/releases', release);
	const facts = JSON.parse(readFileSync(join(kept, 'facts.json'), 'utf8')) as Facts;
	const database = `site_${release.replace('.', '_')}`;
	execFileSync(program('psql'), ['-q', `--dbname=${postgres.url}`, '-c', `create database ${database}`]);
	const url = postgres.url.replace(/\/postgres$/, `/${database}`);
	execFileSync(program('pg_restore'), ['--no-owner', '--exit-on-error', `--dbname=${url}`, join(kept, 'database.dump')]);
	const data = join(folder, release);
	cpSync(join(kept, 'files'), join(data, 'files'), { recursive: true });
	const own = await startOwn({ data, settings: { IANUA_DATABASE_URL: url } });
	try {
		const { cookie } = await signOwnerIn(own);
		const api = async <T>(path: string): Promise<T> => {
			const response = await fetch(`${own.origin}/api/v1${path}`, { headers: { cookie } });
			expect(response.status, path).toBe(200);
			return (await response.json()) as T;
		};
		for (const [slug, then] of Object.entries(facts.documents)) {
			const now = await api<Record<string, unknown>>(`/documents/${slug}`);
			const { title, pages, bytes, sha256, door = {} } = then;
			// how a door is said in words may get better; what it is stays
			delete door.sentence;
			delete door.count;
			if (then.there) expect(now, slug).toMatchObject({ title, pages, bytes, sha256 });
			expect(now.door, slug).toMatchObject(door);
			const { items } = await api<{ items: { kind: string }[] }>(`/documents/${slug}/ledger`);
			expect(items.map((entry) => entry.kind).sort(), slug).toEqual(then.ledger);
			const file = await fetch(`${own.origin}/d/${slug}/file`, { headers: { cookie } });
			if (file.status === 200)
				expect(
					createHash('sha256')
						.update(Buffer.from(await file.arrayBuffer()))
						.digest('hex'),
					slug
				).toBe(sha256);
			else expect([slug, file.status]).toEqual(['laid-aside', 410]);
			// the sums are made of the entries that were there
			const { figures } = await api<{ figures: { openings: number; saves: number } }>(`/readership/documents/${slug}?from=2026-11-01&until=2026-12-31`);
			const count = (kind: string) => then.ledger.filter((k) => k === kind).length;
			expect([figures.openings, figures.saves], slug).toEqual([count('opened'), count('saved')]);
		}
		const named = async (path: string, name: string) => (await api<{ items: Record<string, string>[] }>(path)).items.map((item) => item[name]);
		expect((await named('/groups', 'name')).sort()).toEqual([...facts.groups].sort());
		expect((await named('/members', 'email')).sort()).toEqual([...facts.members].sort());
		expect((await fetch(`${own.origin}/papers`, { headers: { 'user-agent': browserAgent } })).status).toBe(facts.page);
	} finally {
		await own.stop();
	}
});
