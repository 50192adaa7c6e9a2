// What reads files of unknown origin has no network: it runs in a network namespace of its own, where the system lets it have one.
import { spawnSync } from 'node:child_process';

const unshare = ['unshare', '--user', '--map-current-user', '--net'] as const;
/** A helper process is in such a namespace already, and everything that it starts with it. */
const inside = process.argv[2] === 'pdf-helper' && process.env.IANUA_CONFINED === 'yes';

let known: readonly string[] | undefined;

/** What stands before a command so that it has no network; nothing where that cannot be had (docs/security.md says where). */
export function confined(): readonly string[] {
	if (inside) return [];
	return (known ??= spawnSync(unshare[0], [...unshare.slice(1), 'true'], { stdio: 'ignore' }).status === 0 ? unshare : []);
}
