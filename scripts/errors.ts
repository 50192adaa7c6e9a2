// Which errors of the catalogue no test has raised: `errors.ts <folder>` reads what watch-errors.js wrote down while tests ran. An error that nobody
// has raised is one of which nobody knows that it is ever said; one that is excused although it was raised is a failure too.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { catalogue } from '../core/errors';

/** Errors that are not raised in the server tests, and where else they are, or why they cannot be. */
const excused: Partial<Record<keyof typeof catalogue, string>> = {
	shut: 'a reason of the door: answered as if there were nothing, without an error being made (access/turned-away)',
	'set-aside': 'the same',
	'range-not-satisfiable': 'answered by the delivery of ranges without an error being made; delivery.test.ts asks for it',
	'not-ready': 'answered by the program while there is no application, or none any more; breaks.test.ts asks for it',
	'web-too-slow': 'takes half a minute to raise',
	'not-cleaned': 'no file is known that qpdf reads and active content cannot be taken out of',
	'stamp-not-made': 'no file is known that can be read here and not be stamped'
};

const [folder = ''] = process.argv.slice(2);
const files = existsSync(folder) ? readdirSync(folder) : [];
const seen = new Set(files.flatMap((name) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as string[]));
const codes = Object.keys(catalogue) as (keyof typeof catalogue)[];
const missing = codes.filter((code) => !seen.has(code) && !excused[code]);
const needless = codes.filter((code) => seen.has(code) && excused[code]);
for (const code of missing) console.log(`no test raises ${code}: “${catalogue[code].words}”`);
for (const code of needless) console.log(`${code} is raised, and excused all the same`);
console.log(`${codes.filter((code) => seen.has(code)).length} of ${codes.length} errors raised, ${Object.keys(excused).length} excused`);
process.exit(missing.length + needless.length ? 1 : 0);
