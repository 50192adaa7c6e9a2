// What reads files of unknown origin is shut in: no network, no other program in sight, nothing of the data folder but the store, and no place
// to write but that of things made and unfinished. By Debian's bubblewrap where the system lets a process have namespaces of its own.
import { spawnSync } from 'node:child_process';
import { mkdirSync, realpathSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { tmpdir } from 'node:os';
import { application } from '../home';
import { settings } from '../settings';

/** A helper process is shut in already, and everything that it starts with it. */
const inside = process.argv[2] === 'pdf-helper' && process.env.IANUA_CONFINED === 'yes';

const within = (path: string, folder: string) => !relative(folder, path).startsWith('..');

/** What of the store is not to be written; all of it lies in one mount, so that what was made can be moved to its place. */
const kept = ['originals', 'uploads', 'put-by'] as const;

/** All that there is, read only; an empty folder for what is temporary and for the data folder; of that, the store, to write what is made. */
function shutIn(): readonly string[] {
	const [data, files, node] = [resolve(settings().IANUA_DATA), resolve(settings().files), dirname(process.execPath)];
	// which may be a link to where they stand
	const packages = realpathSync(join(application, 'node_modules'));
	return [
		...['bwrap', '--unshare-user', '--unshare-net', '--unshare-pid', '--unshare-ipc', '--die-with-parent', '--ro-bind', '/', '/'],
		...['--dev', '/dev', '--proc', '/proc', '--tmpfs', tmpdir()],
		...[application, packages, node].flatMap((folder) => (within(folder, tmpdir()) ? ['--ro-bind', folder, folder] : [])),
		...(within(application, data) ? [] : ['--tmpfs', data]),
		...['--bind', files, files],
		...kept.flatMap((name) => ['--ro-bind-try', join(files, name), join(files, name)]),
		...['--ro-bind-try', join(files, 'site-id'), join(files, 'site-id')]
	];
}

const withoutNetwork = ['unshare', '--user', '--map-current-user', '--net'] as const;
const works = ([program = '', ...args]: readonly string[]) => spawnSync(program, [...args, process.execPath, '--version'], { stdio: 'ignore' }).status === 0;

let known: readonly string[] | undefined;

/** What stands before a command so that it is shut in; less, or nothing, where that cannot be had (docs/security.md says where). */
export function confined(): readonly string[] {
	if (inside) return [];
	try {
		for (const name of kept) mkdirSync(join(settings().files, name), { recursive: true, mode: 0o700 });
	} catch {
		// a store that cannot be written is still read
	}
	return (known ??= [shutIn(), withoutNetwork].find(works) ?? []);
}
