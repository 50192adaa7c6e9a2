import { cpSync, existsSync, rmSync } from 'node:fs';
import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';
import { plainLatin } from './scripts/plain-latin';
import { trimPdfjs } from './scripts/trim-pdfjs';

/** pdf.js fetches fonts, character maps, colour profiles, decoders and the icons of notes while reading: they ship as static files. */
function pdfAssets(): Plugin {
	return {
		name: 'pdf-assets',
		buildStart() {
			for (const part of ['standard_fonts', 'cmaps', 'wasm', 'iccs', 'web/images']) {
				const to = `static/pdfjs/${part}`;
				if (existsSync(to)) continue;
				cpSync(`node_modules/pdfjs-dist/${part}`, to, { recursive: true });
				rmSync(`${to}/LICENSE`, { force: true });
			}
		}
	};
}

export default defineConfig({
	plugins: [pdfAssets(), plainLatin(), trimPdfjs(), tailwindcss(), sveltekit()],
	worker: { format: 'es', plugins: () => [trimPdfjs()] },
	build: { chunkSizeWarningLimit: 1500 }
});
