import { basename } from 'node:path';
import { BaseSequencer, type TestSpecification } from 'vitest/node';
import { defineConfig } from 'vitest/config';

/** Server tests that take longest: they begin first, so that none is left over at the end with nothing beside it. */
const longest = ['breaks', 'kill', 'nginx', 'readership', 'guard', 'faults', 'check', 'matrix', 'any', 'fuzz'].map((name) => `${name}.test.ts`);

class LongestFirst extends BaseSequencer {
	override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
		const rank = ({ moduleId }: TestSpecification) => (longest.indexOf(basename(moduleId)) + longest.length + 1) % (longest.length + 1);
		return (await super.sort(files)).sort((a, b) => rank(a) - rank(b));
	}
}

/** Ms after which a test hangs. It measures nothing: on a machine with much else to do all takes long. */
const hung = 600_000;

export default defineConfig({
	test: {
		sequence: { sequencer: LongestFirst },
		projects: [
			{ test: { name: 'core', include: ['core/**/*.test.ts', 'src/lib/ui/**/*.test.ts'], isolate: false, testTimeout: hung } },
			{
				test: {
					name: 'server',
					include: ['tests/server/**/*.test.ts'],
					globalSetup: 'tests/server/setup.ts',
					setupFiles: 'tests/server/environment.ts',
					// what a file imports, its pool of connections among it, serves those after it too: importing it anew took a third of the time
					isolate: false,
					// so many applications does setup.ts start: many tests wait for something to end or to be over
					maxWorkers: 3,
					testTimeout: hung,
					hookTimeout: hung
				}
			}
		]
	}
});
