// Builds the application, only when its sources changed since the last time.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const sources = [
	'core',
	'src',
	'static/brand',
	'static/ianua-document.js',
	'static/api-reference/draw.js',
	'static/reading-over.js',
	'static/shown.js',
	'drizzle',
	'scripts/adapter.js',
	'scripts/few-files.ts',
	'scripts/plain-latin.ts',
	'scripts/trim-pdfjs.ts',
	'package-lock.json',
	'svelte.config.js',
	'vite.config.ts'
];
const stamp = 'build/.sources';

function* files(path: string): Generator<string> {
	if (statSync(path).isFile()) yield path;
	else for (const name of readdirSync(path).sort()) yield* files(join(path, name));
}

function fingerprint(): string {
	const hash = createHash('sha256');
	for (const source of sources) for (const file of files(source)) if (!file.endsWith('.test.ts')) hash.update(file).update(readFileSync(file));
	return hash.digest('hex');
}

/** Builds where needed; tells whether it did. */
export function build(): boolean {
	const now = fingerprint();
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return false;
	console.log('Building');
	execFileSync('node', ['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'warn'], { stdio: ['ignore', 'inherit', 'inherit'] });
	writeFileSync(stamp, now);
	return true;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) build();
