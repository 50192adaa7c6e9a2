// What ./test does once the machine has what it needs: each check in turn, then one line that adds them up.
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build';

const results = '.test';
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

/** A check that is one yes or no. */
function check(name: string, args: string[]): void {
	const good = run(name, args);
	count(name, Number(good), Number(!good));
}

/** Vitest's own count; a run that broke before counting is one failure. */
function vitest(project: string): void {
	const file = join(results, `${project}.json`);
	const good = run(`${project} tests`, [
		'node_modules/vitest/vitest.mjs',
		'run',
		'--project',
		project,
		'--reporter=dot',
		'--reporter=json',
		`--outputFile.json=${file}`
	]);
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

check('formatting', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.']);
run('kit’s types', ['node_modules/@sveltejs/kit/svelte-kit.js', 'sync']);
check('lint', ['node_modules/eslint/bin/eslint.js', '.', '--max-warnings', '0']);
check('types of the application', ['node_modules/svelte-check/bin/svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings']);
check('types of the core', ['node_modules/typescript/bin/tsc', '-p', 'core']);
check('types of scripts and tests', ['node_modules/typescript/bin/tsc', '-p', 'scripts']);
check('arrows between folders', [
	'node_modules/dependency-cruiser/bin/dependency-cruise.mjs',
	'--config',
	'.dependency-cruiser.cjs',
	'core',
	'src',
	'demo',
	'standins',
	'scripts'
]);
vitest('core');
try {
	build();
	count('build', 1, 0);
	vitest('server');
	playwright();
} catch (error) {
	console.error(error);
	count('build', 0, 1);
}
if (failures.length) console.log(`\nNot good: ${failures.join(', ')}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
