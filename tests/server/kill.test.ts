// Power cuts: whatever reached a reader stands in the ledger, once. The bench (npm run bench -- kill) does the same twenty times each.
import { afterAll, expect, it } from 'vitest';
import { kill } from '../../scripts/kills';
import { freePort } from '#server/db/cluster';
import { runIanua, type Running } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';
import { pdf } from './help';
import { begin } from './own';

const { path: data, drop } = scratch('kill');
afterAll(drop);
for (const name of ['IANUA_DATABASE_URL', 'IANUA_ORIGIN', 'IANUA_DATA', 'IANUA_PORT', 'IANUA_SECRET']) delete process.env[name];

it('of every response of which a byte arrived there is one entry, however often server and database are killed', async () => {
	const port = await freePort();
	let running = await runIanua({ data, port, demo: false, log: 'silent' });
	try {
		const path = await openFile(running, await pdf('Killed', 40));
		for (const [what, rounds] of [['web server killed', 1] as const, ['PostgreSQL killed', 1] as const, ['PostgreSQL restarted', 1] as const]) {
			const done = await kill(what, rounds, running, port, path);
			running = done.running;
			expect(done.kills, what).toMatchObject({ missing: 0, twice: 0 });
			expect(done.kills.answered, what).toBeGreaterThan(50);
		}
	} finally {
		await running.stop();
	}
});

/** Makes the site and its owner, and brings in an open document; gives the address of its file. */
async function openFile(running: Running, bytes: Uint8Array): Promise<string> {
	const { origin } = running;
	const { cookie } = await begin(running);
	const patch = (path: string, body: object) =>
		fetch(`${origin}/api/v1${path}`, { method: 'PATCH', headers: { cookie, 'content-type': 'application/json' }, body: JSON.stringify(body) });
	expect((await patch('/site', { readership: { nameless: 'cookie' } })).status).toBe(200);
	const form = new FormData();
	form.append('file', new Blob([new Uint8Array(bytes)]), 'Killed.pdf');
	const { slug } = (await (await fetch(`${origin}/api/v1/documents`, { method: 'POST', headers: { cookie }, body: form })).json()) as { slug: string };
	expect((await patch(`/documents/${slug}`, { door: { position: 'open' } })).status).toBe(200);
	return `/d/${slug}/file`;
}
