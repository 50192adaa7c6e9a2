import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './scripts/chromium';

export default defineConfig({
	testDir: 'tests/browser',
	globalSetup: './tests/browser/setup.ts',
	// so many applications does setup.ts start
	workers: process.env.IANUA_TEST_DATA ? 1 : 2,
	// after these a test hangs: they measure nothing, on a machine with much else to do all takes long
	timeout: 300_000,
	expect: { timeout: 40_000 },
	reporter: process.env.CI ? 'list' : 'line',
	outputDir: 'test-results',
	use: { browserName: 'chromium', launchOptions: chromiumOptions, viewport: { width: 1280, height: 800 }, trace: 'off' }
});
