// Where the application runs from: its folder build/, or the project's own folder where the sources run (tests, development, the demo).
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** The nearest folder above this file that holds the migrations; they are copied into build/. */
function findHome(): string {
	for (let folder = import.meta.dirname; ; folder = dirname(folder)) {
		if (existsSync(join(folder, 'drizzle/meta/_journal.json'))) return folder;
		if (folder === dirname(folder)) throw new Error('The folder of migrations (drizzle) is missing: the application is not whole.');
	}
}

const home = findHome();
const built = existsSync(join(home, 'pdf-helper.js'));

/** Folder of Drizzle Kit's migrations. */
export const migrations = join(home, 'drizzle');

/** Folder of everything that the application reads of itself: its code and its packages. */
export const application = built ? dirname(home) : home;

/** What node is given to run a helper process. */
export const helperProgram: readonly string[] = built ? [join(home, 'pdf-helper.js')] : ['--import', 'tsx', join(home, 'src/entry/pdf-helper.ts')];
