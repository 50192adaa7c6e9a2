// The built application with its demo, each on a data folder of its own, for the browser tests: one for each worker.
import type { FullConfig } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from '../../scripts/build';
import { freePort } from '#server/db/cluster';
import { runIanua } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';

const signInOf = (data: string) => ({
	...(JSON.parse(readFileSync(join(data, 'sign-in.json'), 'utf8')) as object),
	secret: readFileSync(join(data, 'secret'), 'utf8').trim()
});

export default async function setup({ workers }: FullConfig): Promise<() => Promise<void>> {
	const known = process.env.IANUA_TEST_DATA;
	if (known) {
		// an Ianua with the demo that runs already (./start --data …): quicker while writing tests, by one worker
		process.env.IANUA_TEST_SIGN_IN = JSON.stringify([signInOf(known)]);
		return async () => {};
	}
	build();
	const folders = Array.from({ length: workers }, (_, n) => scratch(`browser-${n + 1}`));
	const run = async (data: string) => runIanua({ data, port: await freePort(), demo: true, quick: true, log: 'error' });
	// the demo is made once and copied
	const [first, ...others] = folders;
	await (await run(first!.path)).stop();
	for (const { path } of others) {
		execFileSync('cp', ['-a', `${first!.path}/.`, path]);
		// its stand-ins have ports of their own
		rmSync(join(path, 'ports.json'));
	}
	const all = await Promise.all(
		folders.map(async ({ path: data, drop }) => {
			const running = await run(data);
			return {
				signIn: signInOf(data),
				stop: async () => {
					await running.stop();
					drop();
				}
			};
		})
	);
	process.env.IANUA_TEST_SIGN_IN = JSON.stringify(all.map(({ signIn }) => signIn));
	return async () => {
		await Promise.all(all.map(({ stop }) => stop()));
	};
}
