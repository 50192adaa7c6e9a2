// The built application with its demo, each on a data folder of its own, for the browser tests: one for each worker.
import type { FullConfig } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from '../../scripts/build';
import { freePort } from '#server/db/cluster';
import { runIanua } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';

const signInOf = (data: string) => JSON.parse(readFileSync(join(data, 'sign-in.json'), 'utf8')) as unknown;

export default async function setup({ workers }: FullConfig): Promise<() => Promise<void>> {
	const known = process.env.IANUA_TEST_DATA;
	if (known) {
		// an Ianua with the demo that runs already (./start --data …): quicker while writing tests, by one worker
		process.env.IANUA_TEST_SIGN_IN = JSON.stringify([signInOf(known)]);
		return async () => {};
	}
	build();
	const all = await Promise.all(
		Array.from({ length: workers }, async (_, n) => {
			const { path: data, drop } = scratch(`browser-${n + 1}`);
			const running = await runIanua({ data, port: await freePort(), demo: true, quick: true, log: 'error' });
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
