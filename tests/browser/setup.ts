// The built application with its demo, on a data folder of its own, for all browser tests.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from '../../scripts/build';
import { freePort } from '../../scripts/postgres';
import { runIanua } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';

export default async function setup(): Promise<() => Promise<void>> {
	const known = process.env.IANUA_TEST_DATA;
	if (known) {
		// an Ianua with the demo that runs already (./start --data …): quicker while writing tests
		const text = readFileSync(join(known, 'sign-in.json'), 'utf8');
		process.env.IANUA_TEST_ORIGIN = (JSON.parse(text) as { origin: string }).origin;
		process.env.IANUA_TEST_SIGN_IN = text;
		return async () => {};
	}
	build();
	const { path: data, drop } = scratch('browser');
	const running = await runIanua({ data, port: await freePort(), demo: true, quick: true, log: 'error' });
	process.env.IANUA_TEST_ORIGIN = running.origin;
	process.env.IANUA_TEST_SIGN_IN = readFileSync(join(data, 'sign-in.json'), 'utf8');
	return async () => {
		await running.stop();
		drop();
	};
}
