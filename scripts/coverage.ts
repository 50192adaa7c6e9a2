// What of the server its tests come by: builds with maps, runs the server tests with V8's coverage in every process that they start, and
// tells it over all and for the files that are come by least. npm run coverage; one test file with npm run coverage -- tests/server/guard.test.ts.
import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { CoverageReport } from 'monocart-coverage-reports';

const [raw, out] = ['.test/coverage-raw', '.test/coverage'];
/** Files that are named, from the least on. */
const named = 25;

rmSync(raw, { recursive: true, force: true });
rmSync('build/.sources', { force: true });
const { status } = spawnSync(process.execPath, ['node_modules/vitest/vitest.mjs', 'run', '--project', 'server', '--reporter=dot', ...process.argv.slice(2)], {
	stdio: 'inherit',
	env: { ...process.env, IANUA_COVERAGE: 'yes', NODE_V8_COVERAGE: raw }
});
// a build with maps is none to be served
rmSync('build/.sources', { force: true });

const report = new CoverageReport({
	outputDir: out,
	reports: ['json-summary', 'console-summary', 'v8'],
	logging: 'error',
	entryFilter: ({ url }: { url: string }) => url.includes('/build/') && !url.includes('/node_modules/'),
	sourceFilter: (path: string) => /(^|\/)(src\/(lib\/server|entry|routes|hooks)|core)\b/.test(path) && !path.includes('node_modules')
});
await report.addFromDir(raw);
await report.generate();
const files = JSON.parse(readFileSync(`${out}/coverage-summary.json`, 'utf8')) as Record<
	string,
	{ statements: { pct: number; total: number; covered: number } }
>;
const least = Object.entries(files)
	.filter(([name]) => name !== 'total')
	.sort(([, a], [, b]) => a.statements.pct - b.statements.pct)
	.slice(0, named);
for (const [name, { statements }] of least) console.log(`${statements.pct.toFixed(0).padStart(4)} %  ${statements.covered} of ${statements.total}  ${name}`);
process.exit(status ?? 1);
