// A copy of the sources to edit, with a development server on it: for the test and the figures of `npm run dev`.
import { execFileSync } from 'node:child_process';
import { cpSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import postgres from 'postgres';
import { freePort } from '#server/db/cluster';
import { runIanua, type Running } from './run';
import { scratch } from './scratch';
import { theRow } from '#server/db/rows';

export interface DevCopy {
	readonly running: Running;
	/** Changes a file of the copy: the text `from`, which must be there, to another. */
	edit(file: string, from: string | RegExp, to: string): void;
	/** Writes a file of the copy. */
	write(file: string, text: string): void;
	/** Connections to PostgreSQL that the server holds. */
	connections(): Promise<number>;
	stop(): Promise<void>;
}

/** Copies what git knows of, gives it the packages, and serves it as `npm run dev` does, on a data folder of its own that is empty. */
export async function developCopy(): Promise<DevCopy> {
	const { path, drop } = scratch('dev');
	const tree = join(path, 'tree');
	for (const folder of ['core', 'src', 'static', 'drizzle', 'scripts', 'demo', 'standins']) cpSync(folder, join(tree, folder), { recursive: true });
	for (const file of ['package.json', 'tsconfig.json', 'svelte.config.js', 'vite.config.ts']) cpSync(file, join(tree, file));
	symlinkSync(resolve('node_modules'), join(tree, 'node_modules'));
	execFileSync(process.execPath, ['node_modules/@sveltejs/kit/svelte-kit.js', 'sync'], { cwd: tree, stdio: 'ignore' });
	const running = await runIanua({
		data: join(path, 'data'),
		port: await freePort(),
		demo: false,
		quick: true,
		log: 'error',
		application: tree,
		development: true
	}).catch((error: unknown) => {
		drop();
		throw error;
	});
	// runIanua always sets it
	const sql = postgres(running.environment.IANUA_DATABASE_URL!, { max: 1, connection: { application_name: 'the one who counts' } });
	return {
		running,
		edit(file, from, to) {
			const before = readFileSync(join(tree, file), 'utf8');
			const after = before.replace(from, to);
			if (after === before) throw new Error(`${file} has no such text.`);
			writeFileSync(join(tree, file), after);
		},
		write: (file, text) => writeFileSync(join(tree, file), text),
		async connections() {
			const row = theRow(
				await sql<{ n: number }[]>`select count(*)::int as n from pg_stat_activity where backend_type = 'client backend' and pid <> pg_backend_pid()`
			);
			return row.n;
		},
		async stop() {
			await sql.end();
			await running.stop();
			drop();
		}
	};
}
