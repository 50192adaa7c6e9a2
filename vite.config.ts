import { cpSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';
import packageJson from './package.json' with { type: 'json' };
import { fewFiles } from './scripts/few-files.ts';
import { plainLatin } from './scripts/plain-latin.ts';
import { trimPdfjs } from './scripts/trim-pdfjs.ts';

/** pdf.js fetches fonts, character maps, colour profiles, decoders and the icons of notes while reading: they ship as static files. */
function pdfAssets(): Plugin {
	return {
		name: 'pdf-assets',
		buildStart() {
			for (const part of ['standard_fonts', 'cmaps', 'wasm', 'iccs', 'web/images']) {
				const to = `static/pdfjs/${part}`;
				if (existsSync(to)) continue;
				cpSync(`node_modules/pdfjs-dist/${part}`, to, { recursive: true });
			}
		}
	};
}

/** The program that draws the reference of the API is served as it comes, with the licences of what is in it, but for a picture that it has from elsewhere. */
function reference(): Plugin {
	const elsewhere = '"https://cdn.redoc.ly/redoc/logo-mini.svg"';
	return {
		name: 'reference',
		buildStart() {
			const [name, from, to] = ['redoc.standalone.js', 'node_modules/redoc/bundles', 'static/api-reference'];
			const program = readFileSync(`${from}/${name}`, 'utf8');
			if (program.split(elsewhere).length !== 2) throw new Error(`${name} has another picture from elsewhere than the one known`);
			mkdirSync(to, { recursive: true });
			writeFileSync(`${to}/${name}`, program.replace(elsewhere, '"data:,"'));
			cpSync(`${from}/${name}.LICENSE.txt`, `${to}/${name}.LICENSE.txt`);
		}
	};
}

/** Of packages whose files are served as they are, the licence beside them; those of code stand in packages.md, which Vite makes. */
function licences(): Plugin {
	const served = ['@fontsource/commissioner', '@fontsource/literata', 'lucide-static', 'pdfjs-dist', 'redoc'];
	return {
		name: 'licences',
		generateBundle() {
			if (this.environment.name !== 'client') return;
			for (const name of served)
				this.emitFile({ type: 'asset', fileName: `_app/licences/${name.replace(/^.*\//, '')}.txt`, source: readFileSync(`node_modules/${name}/LICENSE`) });
		}
	};
}

/** The programs that the application is made of: src/entry/<name>.ts, built into build/<name>.js. */
const entries = ['web', 'jobs', 'pdf-helper', 'admin'];

/** Our programs are built in one graph with kit's server. */
function programs(): Plugin {
	return {
		name: 'programs',
		// after kit has said which of its two builds this is
		config: {
			order: 'post',
			handler: ({ build }) =>
				build?.ssr ? { build: { rollupOptions: { input: Object.fromEntries(entries.map((name) => [`entry/${name}`, `src/entry/${name}.ts`])) } } } : {}
		}
	};
}

export default defineConfig(({ command }) => ({
	plugins: [programs(), fewFiles(), licences(), pdfAssets(), reference(), plainLatin(), trimPdfjs(), tailwindcss(), sveltekit()],
	worker: { format: 'es', plugins: () => [trimPdfjs()] },
	// what the server needs at run time stays a package (dependencies); all else is taken into the build
	ssr: command === 'build' ? { noExternal: true, external: Object.keys(packageJson.dependencies) } : {},
	// with maps for `npm run coverage` alone: what is not served need not be made
	build: { chunkSizeWarningLimit: 1500, license: { fileName: '_app/licences/packages.md' }, sourcemap: process.env.IANUA_COVERAGE === 'yes' }
}));
