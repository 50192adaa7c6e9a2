import { defineConfig } from '@playwright/test';
import { chromiumOptions } from './scripts/chromium';

export default defineConfig({
	testDir: 'tests/browser',
	globalSetup: './tests/browser/setup.ts',
	workers: 1,
	timeout: 60_000,
	expect: { timeout: 10_000 },
	reporter: process.env.CI ? 'list' : 'line',
	outputDir: 'test-results',
	use: { browserName: 'chromium', launchOptions: chromiumOptions, viewport: { width: 1280, height: 800 }, trace: 'off' }
});
