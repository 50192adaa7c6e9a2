import adapter from './scripts/adapter.js';

/** @type {import('@sveltejs/kit').Config} */
export default {
	compilerOptions: { runes: ({ filename }) => (filename.includes('node_modules') ? undefined : true) },
	kit: {
		adapter: adapter(),
		// a refusal may be worded at an address deeper than the page that words it
		paths: { relative: false },
		// hooks.server.ts looks at the origin of every unsafe request itself, JSON included
		csrf: { trustedOrigins: ['*'] },
		csp: {
			mode: 'auto',
			directives: {
				'default-src': ['self'],
				'script-src': ['self', 'wasm-unsafe-eval'],
				'style-src': ['self', 'unsafe-inline'],
				'img-src': ['self', 'data:', 'blob:'],
				'font-src': ['self', 'data:'],
				'worker-src': ['self', 'blob:'],
				'object-src': ['none'],
				'base-uri': ['self'],
				'form-action': ['self'],
				'frame-ancestors': ['self']
			}
		}
	}
};
