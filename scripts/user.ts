// The user that the web server runs as, where it is started by root: it reads files of unknown origin, and needs none of root's rights.
import { execFileSync, spawnSync } from 'node:child_process';
import { chmodSync, chownSync, existsSync, lstatSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';

const name = 'ianua';

export interface User {
	readonly uid: number;
	readonly gid: number;
}

const idOf = (which: '-u' | '-g'): number => Number(execFileSync('id', [which, name], { encoding: 'utf8' }));

/** Whether everybody can pass through every folder above, and read what is here. */
function readable(folder: string): boolean {
	for (let dir = resolve(folder); ; dir = dirname(dir)) {
		if (!(statSync(dir).mode & 0o001)) return false;
		if (dir === dirname(dir)) return (statSync(resolve(folder)).mode & 0o004) !== 0;
	}
}

/** Gives a folder and all that is in it to a user; folders are closed to others. */
function give(path: string, { uid, gid }: User): void {
	const entry = lstatSync(path);
	if (entry.uid !== uid || entry.gid !== gid) chownSync(path, uid, gid);
	if (!entry.isDirectory()) {
		if (entry.isFile()) chmodSync(path, entry.mode & 0o700);
		return;
	}
	chmodSync(path, 0o700);
	for (const name of readdirSync(path)) give(join(path, name), { uid, gid });
}

/**
 * The user to run as, made where it is missing, with what it has to write given to it: the store, the mailbox, and the data folder's own
 * entries but the cluster's. Null, with a word about it, where we are not root, or where that user could not read the application.
 */
export function serverUser(data: string, files: string, say: (line: string) => void): User | null {
	if (process.getuid?.() !== 0) return null;
	if (!readable('.') || !readable(data)) {
		say(`The web server runs as root: the user “${name}” could not read ${readable('.') ? data : resolve('.')}. Put both where everybody can pass through.`);
		return null;
	}
	if (spawnSync('id', [name], { stdio: 'ignore' }).status !== 0)
		execFileSync('useradd', ['--system', '--user-group', '--no-create-home', '--home-dir', '/nonexistent', '--shell', '/usr/sbin/nologin', name], {
			stdio: 'ignore'
		});
	const user = { uid: idOf('-u'), gid: idOf('-g') };
	chownSync(data, user.uid, user.gid);
	for (const folder of [files, join(data, 'mail')]) {
		mkdirSync(folder, { recursive: true, mode: 0o700 });
		// all of it once; after that it is the server's own
		if (statSync(folder).uid !== user.uid) give(folder, user);
	}
	for (const file of ['begin-code', 'sign-in.json', 'settings']) if (existsSync(join(data, file))) give(join(data, file), user);
	return user;
}
