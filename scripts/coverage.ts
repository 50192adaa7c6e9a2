// What of the server its tests come by: builds with maps, runs the server tests with V8's coverage in every process that they start, and
// tells it by source file. npm run coverage; one test file with npm run coverage -- tests/server/guard.test.ts.
import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';

const raw = '.test/coverage-raw';
const environment = { ...process.env, IANUA_COVERAGE: 'yes' };
const run = (args: readonly string[], more: Readonly<Record<string, string>> = {}): number =>
	spawnSync(process.execPath, args, { stdio: 'inherit', env: { ...environment, ...more } }).status ?? 1;

rmSync(raw, { recursive: true, force: true });
rmSync('build/.sources', { force: true });
const tests = run(['node_modules/vitest/vitest.mjs', 'run', '--project', 'server', '--reporter=dot', ...process.argv.slice(2)], { NODE_V8_COVERAGE: raw });
const report = run(
	[
		'node_modules/c8/bin/c8.js',
		'report',
		`--temp-directory=${raw}`,
		'--reports-dir=.test/coverage',
		'--reporter=text',
		'--reporter=json-summary',
		'--exclude-after-remap',
		...['src/lib/server/**', 'src/entry/**', 'src/routes/**/*.ts', 'src/hooks.server.ts', 'core/**'].map((path) => `--include=${path}`)
	],
	{ NODE_OPTIONS: '--max-old-space-size=6000' }
);
// a build with maps is none to be served
rmSync('build/.sources', { force: true });
process.exit(tests || report);
