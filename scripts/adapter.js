// Puts what kit and Vite built into build/: client/ for browsers, packed beforehand, server/ with kit and our entries in one graph of modules,
// the migrations, and at the top one file for each program: web.js, jobs.js, pdf-helper.js, admin.js.
import { cpSync, readdirSync, writeFileSync } from 'node:fs';

const out = 'build';

/** @returns {import('@sveltejs/kit').Adapter} */
export default function adapter() {
	return {
		name: 'ianua',
		async adapt(builder) {
			builder.rimraf(out);
			builder.writeClient(`${out}/client`);
			await builder.compress(`${out}/client`);
			builder.writeServer(`${out}/server`);
			writeFileSync(`${out}/server/manifest.js`, `export const manifest = ${builder.generateManifest({ relativePath: './' })};\n`);
			cpSync('drizzle', `${out}/drizzle`, { recursive: true });
			for (const file of readdirSync(`${out}/server/entry`)) writeFileSync(`${out}/${file}`, `import './server/entry/${file}';\n`);
		},
		supports: { read: () => true }
	};
}
