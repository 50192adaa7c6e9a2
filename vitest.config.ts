import { defineConfig } from 'vitest/config';

export default defineConfig({
	test: {
		projects: [
			{ test: { name: 'core', include: ['core/**/*.test.ts', 'src/lib/ui/**/*.test.ts'], testTimeout: 60_000 } },
			{
				test: {
					name: 'server',
					include: ['tests/server/**/*.test.ts'],
					globalSetup: 'tests/server/setup.ts',
					// so many applications does setup.ts start: many tests wait for something to end or to be over
					maxWorkers: 2,
					testTimeout: 60_000,
					hookTimeout: 120_000
				}
			}
		]
	}
});
