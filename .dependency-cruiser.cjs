// The arrows: routes → ui, server → core; ui → core; core imports nothing of ours. (docs/architecture.md)
/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
	forbidden: [
		{
			name: 'no-cycles',
			severity: 'error',
			comment: 'Content.svelte draws itself inside itself.',
			from: { pathNot: 'node_modules|placing/Content\\.svelte$' },
			to: { circular: true }
		},
		{
			name: 'core-alone',
			comment: 'The core imports nothing of ours outside itself.',
			severity: 'error',
			from: { path: '^core/', pathNot: '\\.test\\.ts$' },
			to: { path: '^(src|demo|scripts|tests|standins)/' }
		},
		{ name: 'core-without-node', severity: 'error', from: { path: '^core/', pathNot: '\\.test\\.ts$' }, to: { dependencyTypes: ['core'] } },
		{
			name: 'core-without-frameworks',
			severity: 'error',
			from: { path: '^core/', pathNot: '\\.test\\.ts$' },
			to: { path: 'node_modules/(svelte|@sveltejs|drizzle|postgres|pino|sharp)' }
		},
		{ name: 'ui-not-server', severity: 'error', from: { path: '^src/lib/ui/' }, to: { path: '^src/lib/server/' } },
		{ name: 'server-not-ui', severity: 'error', from: { path: '^src/lib/server/' }, to: { path: '^src/(lib/ui|routes)/' } },
		{
			name: 'store-only-through-the-chain',
			comment: 'Nothing but the chain, the intake, the drawing of pages and what looks after the store as a whole reads it.',
			severity: 'error',
			from: {
				path: '^src/',
				pathNot:
					'^src/(lib/server/(reading|intake|pdf|store)/|lib/server/(start|upkeep/(backup|export|import|import-folder|look-over|move-store))\\.ts$|entry/admin\\.ts$|routes/readyz/)'
			},
			to: { path: '^src/lib/server/store/' }
		},
		{ name: 'application-not-scripts', severity: 'error', from: { path: '^(src|core)/' }, to: { path: '^(scripts|demo|tests)/' } },
		{ name: 'no-unknown', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '^(\\$app|\\$env|\\./\\$types|\\$lib|virtual)' } }
	],
	options: {
		doNotFollow: { path: 'node_modules' },
		exclude: { path: '(^|/)(build|\\.svelte-kit)/' },
		tsPreCompilationDeps: false,
		tsConfig: { fileName: 'tsconfig.json' },
		enhancedResolveOptions: {
			exportsFields: ['exports'],
			conditionNames: ['import', 'node', 'default', 'types', 'svelte'],
			mainFields: ['module', 'main', 'types']
		}
	}
};
