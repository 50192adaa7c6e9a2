import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import lintReasons from './scripts/lint-reasons.js';
import svelteConfig from './svelte.config.js';

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'static/', 'node_modules/', '.ianua/', '.ianua-dev/', '.test/', 'drizzle/', '*.cjs', 'docs/client/'] },
	...ts.configs.strictTypeChecked,
	...svelte.configs.recommended,
	{
		languageOptions: {
			globals: { ...globals.browser, ...globals.node },
			parserOptions: {
				project: 'tsconfig.json',
				tsconfigRootDir: import.meta.dirname,
				extraFileExtensions: ['.svelte']
			}
		}
	},
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig } }
	},
	{
		rules: {
			'no-undef': 'off',
			// see ianua/reasons
			'@typescript-eslint/no-non-null-assertion': 'off',
			// by characters is what is meant where a string is spread here; none is split for a reader
			'@typescript-eslint/no-misused-spread': 'off',
			// there are no enums here, and classes are few and made where they are used: both look through every type there is
			'@typescript-eslint/no-unsafe-enum-assignment': 'off',
			'@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
			// records by key are made anew for each change
			'@typescript-eslint/no-dynamic-delete': 'off',
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
			// a number in words is what one means
			'@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
			'@typescript-eslint/restrict-plus-operands': ['error', { allowNumberAndString: true }],
			// () => done(): what it gives is nothing, and nobody reads it
			'@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
			'svelte/no-navigation-without-resolve': 'off',
			// sets and maps here are made anew for each change, or never drawn from
			'svelte/prefer-svelte-reactivity': 'off',
			'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'Use crypto, or the demo’s own Random.' }]
		}
	},
	{
		// a test or a bench that finds nothing there fails at that line, which is what it is for
		files: ['core/**', 'src/**', 'demo/**', 'standins/**', 'scripts/**'],
		ignores: ['**/*.test.ts', 'scripts/bench-*.ts'],
		plugins: { ianua: lintReasons },
		rules: { 'ianua/reasons': 'error' }
	},
	{ files: ['*.js', 'scripts/*.js'], ...ts.configs.disableTypeChecked },
	// templates: svelte-check knows their types; the linter would make a program of its own for each
	{ files: ['**/*.svelte'], ...ts.configs.disableTypeChecked },
	// TypeScript passes by folders that begin with a dot
	{ files: ['src/routes/.well-known/**'], ...ts.configs.disableTypeChecked, languageOptions: { parserOptions: { project: null } } },
	{
		// a file has one subject; the schema and catalogues of words and of the demo's documents are lists
		files: ['src/**', 'core/**', 'standins/**', 'scripts/**', 'demo/**'],
		ignores: ['**/*.test.ts', 'src/lib/server/db/schema.ts', 'core/words/**', 'demo/documents.ts'],
		rules: { 'max-lines': ['error', { max: 400 }] }
	},
	{
		// the desk is built of Flowbite Svelte’s parts; controls of one’s own stand in ui/parts, the reading room, and what pages without script show
		files: ['src/routes/desk/**/*.svelte', 'src/lib/ui/**/*.svelte'],
		ignores: [
			'src/lib/ui/parts/**',
			'src/lib/ui/reading/**',
			'src/lib/ui/placing/{PageBody,SiteHead,Content,ListBody,ListAsk,TurnedAway}.svelte',
			'src/lib/ui/documents/DocumentList.svelte'
		],
		rules: {
			'no-restricted-syntax': [
				'error',
				...['button', 'select', 'textarea', 'table', 'dialog'].map((name) => ({
					selector: `SvelteElement[kind="html"][name.name="${name}"]`,
					message: `Take the part from $lib/ui/parts/controls or flowbite-svelte instead of <${name}>.`
				})),
				{
					selector: 'SvelteElement[kind="html"][name.name="input"]:not(:has(SvelteAttribute[key.name="type"] > SvelteLiteral[value="hidden"]))',
					message: 'Take the field from $lib/ui/parts/controls.'
				}
			]
		}
	},
	{
		// what was answered is looked at by the test itself
		files: ['tests/**', '**/*.test.ts'],
		rules: {
			'@typescript-eslint/no-unsafe-assignment': 'off',
			'@typescript-eslint/no-unsafe-return': 'off',
			'@typescript-eslint/require-await': 'off',
			'@typescript-eslint/unbound-method': 'off',
			'@typescript-eslint/no-unnecessary-condition': 'off'
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
