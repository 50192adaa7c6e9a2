// A lock in PostgreSQL that is gone with the server that held it.
import { sql } from '../db/client';
import { theRow } from '../db/rows';

/** Runs `work` while holding the lock of a name; where somebody else holds it, does nothing and gives false. */
export async function withLock(name: string, work: () => Promise<void>): Promise<boolean> {
	const one = await sql().reserve();
	try {
		const row = theRow(await one<{ got: boolean }[]>`select pg_try_advisory_lock(4173, hashtext(${name})) as got`);
		if (!row.got) return false;
		try {
			await work();
			return true;
		} finally {
			await one`select pg_advisory_unlock(4173, hashtext(${name}))`;
		}
	} finally {
		one.release();
	}
}
