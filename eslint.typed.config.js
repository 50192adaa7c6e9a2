import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'static/', 'node_modules/', '.ianua/', '.ianua-dev/', '.test/', 'drizzle/', '*.cjs'] },
	...ts.configs.strictTypeChecked,
	...svelte.configs.recommended,
	{
		languageOptions: {
			globals: { ...globals.browser, ...globals.node },
			parserOptions: { projectService: { allowDefaultProject: ['*.js', 'scripts/*.js'] }, tsconfigRootDir: import.meta.dirname, extraFileExtensions: ['.svelte'] }
		}
	},
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig } }
	},
	{
		rules: {
			'no-undef': 'off',
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
			'@typescript-eslint/no-non-null-assertion': 'off',
			'svelte/no-navigation-without-resolve': 'off',
			// sets and maps here are made anew for each change, or never drawn from
			'svelte/prefer-svelte-reactivity': 'off',
			'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'Use crypto, or the demo’s own Random.' }]
		}
	},
	{
		files: ['core/**/*.ts'],
		ignores: ['core/**/*.test.ts'],
		rules: {
			'no-restricted-globals': ['error', 'Date.now', 'window', 'document', 'process', 'Buffer', 'fetch', 'setTimeout'],
			'no-restricted-properties': ['error', { object: 'Date', property: 'now', message: 'The core has no clock: time comes in.' }]
		}
	}
);
