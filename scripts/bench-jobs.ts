// How many actions each job of a week takes: the browser tests of them (tests/browser/jobs.spec.ts), as a table.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

interface Suite {
	readonly suites?: readonly Suite[];
	readonly specs?: readonly {
		readonly title: string;
		readonly ok: boolean;
		readonly tests: readonly { readonly annotations: readonly { readonly type: string; readonly description?: string }[] }[];
	}[];
}

/** Runs the jobs and prints a line for each: the job, the actions that it took, those that it may take. */
export function benchJobs(): void {
	const folder = mkdtempSync(join(tmpdir(), 'ianua-jobs-'));
	const file = join(folder, 'jobs.json');
	spawnSync(process.execPath, ['node_modules/@playwright/test/cli.js', 'test', 'jobs', '--reporter=json'], {
		stdio: ['ignore', 'ignore', 'inherit'],
		env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: file }
	});
	const specsOf = (suite: Suite): NonNullable<Suite['specs']> => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)];
	for (const { title, ok, tests } of specsOf(JSON.parse(readFileSync(file, 'utf8')) as Suite)) {
		const said = (type: string) => tests[0]?.annotations.find((a) => a.type === type)?.description ?? '?';
		console.log(`jobs: ${title}: ${said('actions')} of ${said('wanted')}${ok ? '' : ', NOT DONE'}`);
	}
	rmSync(folder, { recursive: true });
}
