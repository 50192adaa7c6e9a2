// One built application on a real PostgreSQL of its own for all server tests; both end with the tests.
import type { TestProject } from 'vitest/node';
import { build } from '../../scripts/build';
import { freePort } from '../../scripts/postgres';
import { runIanua } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';

declare module 'vitest' {
	export interface ProvidedContext {
		origin: string;
		environment: Record<string, string>;
	}
}

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
	build();
	const { path: data, drop } = scratch('server');
	process.env.IANUA_MAX_UPLOAD = '3000000';
	const running = await runIanua({ data, port: await freePort(), demo: false, quick: true, log: 'error' });
	project.provide('origin', running.origin);
	project.provide('environment', running.environment);
	return async () => {
		await running.stop();
		drop();
	};
}
