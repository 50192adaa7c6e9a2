// A site of version 0.6 with ten million entries brought up to date while entries go on being made: how long one of them waits.
import { execFileSync, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { join } from 'node:path';
import postgres from 'postgres';
import { program, startPostgres } from '#server/db/cluster';
import { theRow } from '#server/db/rows';
import { scratch } from './scratch';

const entries = Number(process.env.IANUA_BENCH_ENTRIES ?? 10_000_000);
/** So often an entry is made, ms. */
const everyMs = 20;

export async function benchUpgrade(): Promise<void> {
	const { path: data, drop } = scratch('bench-upgrade');
	// commits are safe ones, as on a site
	const server = await startPostgres(data);
	const sql = postgres(server.url.replace(/\/postgres$/, '/site'), { max: 2, onnotice: () => {} });
	try {
		execFileSync(program('psql'), ['-q', `--dbname=${server.url}`, '-c', 'create database site']);
		execFileSync(program('pg_restore'), ['--no-owner', `--dbname=${server.url.replace(/\/postgres$/, '/site')}`, join('tests/releases/0.6/database.dump')]);
		const columns = (
			await sql<{ name: string }[]>`select column_name as name from information_schema.columns where table_name = 'ledger' order by ordinal_position`
		).map(({ name }) => name);
		/** One more entry like one that is there, at an instant. */
		const another = (at: postgres.Fragment, from: postgres.Fragment) =>
			sql`insert into ledger (${sql(columns)}) select ${columns.map((name, i) => sql`${i ? sql`,` : sql``} ${name === 'id' ? sql`gen_random_uuid()` : name === 'at' ? at : name === 'reading_id' ? sql`gen_random_uuid()` : sql`l.${sql(name)}`}`)} from ${from}`; // prettier-ignore
		const day = (n: number) => new Date(Date.now() - n * 86_400_000).toISOString().slice(0, 10);
		for (let n = 0; n <= 365; n += 20) await sql`select ledger_month(${day(n)}::date)`;
		await sql`select ledger_month(${day(-1)}::date)`;
		await another(
			sql`now() - random() * interval '365 days'`,
			sql`(select * from ledger where kind in ('opened', 'saved')) l cross join generate_series(1, (${entries} / (select count(*) from ledger where kind in ('opened', 'saved')))::int)`
		);
		const made = theRow(await sql<{ n: number }[]>`select count(*)::int as n from ledger`).n;
		await sql.unsafe('vacuum analyze ledger');

		let [longest, entered, on] = [0, 0, true];
		const entering = (async () => {
			while (on) {
				const began = performance.now();
				await another(sql`now()`, sql`(select * from ledger where kind = 'opened' limit 1) l`);
				[longest, entered] = [Math.max(longest, performance.now() - began), entered + 1];
				await new Promise((go) => setTimeout(go, everyMs));
			}
		})();
		const began = performance.now();
		const environment = {
			...process.env,
			IANUA_DATABASE_URL: server.url.replace(/\/postgres$/, '/site'),
			IANUA_DATA: data,
			IANUA_SECRET: randomBytes(32).toString('base64url')
		};
		const child = spawn(process.execPath, ['build/admin.js', 'migrate'], { env: environment, stdio: ['ignore', 'ignore', 'inherit'] });
		const [code] = (await once(child, 'exit')) as [number];
		const took = performance.now() - began;
		on = false;
		await entering;
		console.log(
			`version 0.6 with ${made.toLocaleString('en-GB')} entries brought up to date in ${(took / 1000).toFixed(1)} s (exit ${code}); of ${entered} entries made meanwhile, the one that waited longest took ${longest.toFixed(0)} ms`
		);
	} finally {
		await sql.end();
		server.stop();
		drop();
	}
}
