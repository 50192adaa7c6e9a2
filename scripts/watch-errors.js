// Loaded before a program's own code (node --import) while errors are watched: notes which errors of the catalogue were made, and writes
// their codes down. errors.ts beside it holds that against the catalogue.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const folder = process.env.WATCH_ERRORS;
/** @type {Set<string>} */
const seen = new Set();
let written = 0;

function write() {
	if (seen.size === written) return;
	written = seen.size;
	mkdirSync(folder, { recursive: true });
	writeFileSync(join(folder, `${process.pid}.json`), JSON.stringify([...seen]));
}

if (folder) {
	globalThis.Error = new Proxy(Error, {
		construct(target, given, made) {
			const error = Reflect.construct(target, given, made);
			// its code is given to it after this
			if (made !== target) queueMicrotask(() => error.name === 'IanuaError' && typeof error.code === 'string' && seen.add(error.code));
			return error;
		}
	});
	// every so often too: the programs that run tests are ended without a word
	setInterval(write, 300).unref();
	process.on('exit', write);
}
