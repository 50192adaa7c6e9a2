// What ./test does once the machine has what it needs: the tests one kind after the other, what looks at the sources beside them, then one line that
// adds them up.
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import { join, relative, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { stripVTControlCharacters } from 'node:util';
import type { JSONReport, JSONReportSpec, JSONReportSuite } from '@playwright/test/reporter';
import type { JsonTestResults } from 'vitest/reporters';

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
/** What failed, each with the beginning of what it said: told again at the end, as of a long run often the end alone is kept. */
const told: string[] = [];

function count(name: string, ok: number, wrong: number): void {
	passed += ok;
	failed += wrong;
	if (wrong) failures.push(name);
}

/** Keeps for the end what a test that failed is called and the beginning of what it said. */
function tell(name: string, said: string): void {
	const lines = stripVTControlCharacters(said).split('\n');
	const beginning = lines.filter((line) => !line.includes('node_modules')).slice(0, 12);
	told.push([name, ...beginning.map((line) => `    ${line.slice(0, 400)}`)].join('\n'));
}

/** Runs a program and tells whether it ended well. What it says is shown as it goes, or with `aside`, when it is done: others run beside it. */
async function run(
	name: string,
	args: readonly string[],
	{ aside = false, env = {} }: { aside?: boolean; env?: Record<string, string> } = {}
): Promise<boolean> {
	const started = Date.now();
	if (!aside) console.log(`\n== ${name}`);
	// what looks at many files makes much that is soon done with: with more room for it, a tenth less work
	const given = aside ? ['--max-semi-space-size=64', ...args] : args;
	const child = spawn(process.execPath, given, { stdio: ['ignore', aside ? 'pipe' : 'inherit', aside ? 'pipe' : 'inherit'], env: { ...process.env, ...env } });
	// what has no clock in it takes what time the others leave
	if (aside && child.pid) setPriority(child.pid, constants.priority.PRIORITY_LOW);
	const said: Buffer[] = [];
	for (const stream of [child.stdout, child.stderr]) stream?.on('data', (chunk: Buffer) => said.push(chunk));
	const status = await new Promise<number | null>((done) => child.on('error', () => done(null)).on('close', done));
	if (aside) console.log(`\n== ${name}\n${Buffer.concat(said).toString()}`);
	if (aside && status !== 0) tell(name, Buffer.concat(said).toString());
	console.log(`== ${name}: ${status === 0 ? 'good' : 'NOT GOOD'}, ${Math.round((Date.now() - started) / 1000)} s`);
	return status === 0;
}

/** A check that is one yes or no. */
async function check(name: string, args: readonly string[], options: { aside?: boolean } = {}): Promise<void> {
	const good = await run(name, args, options);
	count(name, Number(good), Number(!good));
}

/** Vitest's own count; a run that broke before counting is one failure. */
async function vitest(project: string, env: Record<string, string> = {}): Promise<void> {
	const file = join(results, `${project}.json`);
	const good = await run(
		`${project} tests`,
		['node_modules/vitest/vitest.mjs', 'run', '--project', project, '--reporter=dot', '--reporter=json', `--outputFile.json=${file}`],
		{ env }
	);
	try {
		const { numPassedTests, numFailedTests, testResults } = JSON.parse(readFileSync(file, 'utf8')) as JsonTestResults;
		count(`${project} tests`, numPassedTests, numFailedTests || (good ? 0 : 1));
		for (const { name, status, message, assertionResults } of testResults) {
			const wrong = assertionResults.filter((test) => test.status === 'failed');
			for (const test of wrong) tell(`${relative('.', name)}: ${test.fullName}`, test.failureMessages?.join('\n') ?? '');
			// a file can fail before its tests or after them
			if (status === 'failed' && !wrong.length) tell(relative('.', name), message);
		}
	} catch {
		count(`${project} tests`, 0, 1);
	}
}

/** The tests of a suite and of those within it. */
function specs(suites: readonly JSONReportSuite[]): JSONReportSpec[] {
	return suites.flatMap((suite) => [...suite.specs, ...specs(suite.suites ?? [])]);
}

async function playwright(): Promise<void> {
	const file = join(results, 'browser.json');
	const good = await run('browser tests', ['node_modules/@playwright/test/cli.js', 'test', '--reporter=line,json'], {
		env: { PLAYWRIGHT_JSON_OUTPUT_NAME: file }
	});
	try {
		const { stats, suites, errors: outside } = JSON.parse(readFileSync(file, 'utf8')) as JSONReport;
		// a test that was not reached has not passed
		const wrong = stats.unexpected + stats.flaky + stats.skipped;
		count('browser tests', stats.expected, wrong || (good ? 0 : 1));
		for (const { message } of outside) tell('browser tests', message ?? '');
		for (const { file: name, line, title, tests } of specs(suites))
			for (const { results: tries } of tests.filter(({ status }) => status !== 'expected'))
				tell(`${name}:${line}: ${title}`, tries.find(({ error }) => error)?.error?.message ?? 'not reached');
	} catch {
		count('browser tests', 0, 1);
	}
}

/** What looks at the sources alone: one after the other, while the tests wait for what they wait for. */
async function lookAtSources(): Promise<void> {
	const aside = { aside: true };
	await check('types', ['node_modules/svelte-check/bin/svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings'], aside);
	await check('lint', ['node_modules/eslint/bin/eslint.js', '.', '--max-warnings', '0'], aside);
	await check('formatting', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.'], aside);
	await check('types of the core', ['node_modules/typescript/bin/tsc', '-p', 'core'], aside);
	await check('who writes to which table', ['--import', 'tsx', 'scripts/writers.ts'], aside);
	await check(
		'arrows between folders',
		['node_modules/dependency-cruiser/bin/dependency-cruise.mjs', '--config', '.dependency-cruiser.cjs', 'core', 'src', 'demo', 'standins', 'scripts'],
		aside
	);
}

await run('kit’s types', ['node_modules/@sveltejs/kit/svelte-kit.js', 'sync']);
await check('build', ['--import', 'tsx', 'scripts/build.ts']);
// not before the build is done: it writes kit's types anew, which the checks read
const sources = lookAtSources();
await vitest('core');
if (!failures.includes('build')) {
	const watching = ['watch-rows', 'watch-errors'].map((name) => `--import ${pathToFileURL(`scripts/${name}.js`).href}`);
	await vitest('server', { NODE_OPTIONS: watching.join(' '), WATCH_ROWS: resolve(rows), WATCH_ERRORS: resolve(errors) });
	await check('rows as their types say', ['--import', 'tsx', 'scripts/rows.ts', rows]);
	await check('errors, each raised once', ['--import', 'tsx', 'scripts/errors.ts', errors]);
}
await sources;
if (!failures.includes('build')) await playwright();
if (failures.length) console.log(`\n${told.map((one) => `== ${one}\n`).join('')}\nNot good: ${failures.join(', ')}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
