// What ./test does once the machine has what it needs: each check in turn, then one line that adds them up.
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from './build';

const results = '.test';
/** What came out of the database while the server tests ran (watch-rows.js). */
const rows = join(results, 'rows');
/** Which errors of the catalogue were made meanwhile (watch-errors.js). */
const errors = join(results, 'errors');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
let passed = 0;
let failed = 0;
const failures: string[] = [];

function count(name: string, ok: number, wrong: number): void {
	passed += ok;
	failed += wrong;
	if (wrong) failures.push(name);
}

function run(name: string, args: string[], environment: Record<string, string> = {}): boolean {
	const started = Date.now();
	console.log(`\n== ${name}`);
	const { status } = spawnSync(process.execPath, args, { stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...environment } });
	console.log(`== ${name}: ${status === 0 ? 'good' : 'NOT GOOD'}, ${Math.round((Date.now() - started) / 1000)} s`);
	return status === 0;
}

/** A check that is one yes or no; what it says is shown when it is done, as others may run beside it. */
async function check(name: string, args: readonly string[]): Promise<void> {
	const started = Date.now();
	const child = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'pipe'] });
	const said: Buffer[] = [];
	for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => said.push(chunk));
	const status = await new Promise<number | null>((done) => child.on('error', () => done(null)).on('close', done));
	console.log(
		`\n== ${name}\n${Buffer.concat(said).toString()}== ${name}: ${status === 0 ? 'good' : 'NOT GOOD'}, ${Math.round((Date.now() - started) / 1000)} s`
	);
	count(name, Number(status === 0), Number(status !== 0));
}

/** Checks, as many at once as there are cores. */
async function checks(all: readonly (readonly [name: string, args: readonly string[]])[]): Promise<void> {
	const open = [...all];
	const one = async (): Promise<void> => {
		for (let next = open.shift(); next; next = open.shift()) await check(...next);
	};
	await Promise.all(Array.from({ length: availableParallelism() }, one));
}

/** Vitest's own count; a run that broke before counting is one failure. */
function vitest(project: string, environment: Record<string, string> = {}): void {
	const file = join(results, `${project}.json`);
	const good = run(
		`${project} tests`,
		['node_modules/vitest/vitest.mjs', 'run', '--project', project, '--reporter=dot', '--reporter=json', `--outputFile.json=${file}`],
		environment
	);
	try {
		const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(file, 'utf8')) as { numPassedTests: number; numFailedTests: number };
		count(`${project} tests`, numPassedTests, numFailedTests || (good ? 0 : 1));
	} catch {
		count(`${project} tests`, 0, 1);
	}
}

function playwright(): void {
	const file = join(results, 'browser.json');
	const good = run('browser tests', ['node_modules/@playwright/test/cli.js', 'test', '--reporter=line,json'], { PLAYWRIGHT_JSON_OUTPUT_NAME: file });
	try {
		const { stats } = JSON.parse(readFileSync(file, 'utf8')) as { stats: { expected: number; unexpected: number; flaky: number; skipped: number } };
		// a test that was not reached has not passed
		const wrong = stats.unexpected + stats.flaky + stats.skipped;
		count('browser tests', stats.expected, wrong || (good ? 0 : 1));
	} catch {
		count('browser tests', 0, 1);
	}
}

run('kit’s types', ['node_modules/@sveltejs/kit/svelte-kit.js', 'sync']);
await checks([
	['lint', ['node_modules/eslint/bin/eslint.js', '.', '--max-warnings', '0']],
	['types of the application', ['node_modules/svelte-check/bin/svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings']],
	['formatting', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.']],
	['types of the core', ['node_modules/typescript/bin/tsc', '-p', 'core']],
	['types of scripts and tests', ['node_modules/typescript/bin/tsc', '-p', 'scripts']],
	['who writes to which table', ['--import', 'tsx', 'scripts/writers.ts']],
	[
		'arrows between folders',
		['node_modules/dependency-cruiser/bin/dependency-cruise.mjs', '--config', '.dependency-cruiser.cjs', 'core', 'src', 'demo', 'standins', 'scripts']
	]
]);
vitest('core');
try {
	build();
	count('build', 1, 0);
	const watching = ['watch-rows', 'watch-errors'].map((name) => `--import ${pathToFileURL(`scripts/${name}.js`).href}`);
	vitest('server', { NODE_OPTIONS: watching.join(' '), WATCH_ROWS: resolve(rows), WATCH_ERRORS: resolve(errors) });
	await check('rows as their types say', ['--import', 'tsx', 'scripts/rows.ts', rows]);
	await check('errors, each raised once', ['--import', 'tsx', 'scripts/errors.ts', errors]);
	playwright();
} catch (error) {
	console.error(error);
	count('build', 0, 1);
}
if (failures.length) console.log(`\nNot good: ${failures.join(', ')}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
