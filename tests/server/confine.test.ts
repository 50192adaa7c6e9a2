// What reads files of unknown origin is shut in, as far as the system lets a process have namespaces of its own.
import { spawnSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { document, origin } from './help';
import { given } from './given';

const { confined } = await import('#server/pdf/confine');
const { limits, run } = await import('#server/pdf/run');
const files = join(given.environment.IANUA_DATA!, 'files');

const has = (...[program, ...args]: [string, ...string[]]) => spawnSync(program, [...args, 'true'], { stdio: 'ignore' }).status === 0;
const namespaces = has('bwrap', '--unshare-user', '--unshare-net', '--unshare-pid', '--ro-bind', '/', '/', '--dev', '/dev', '--proc', '/proc');
const network = has('unshare', '--user', '--map-current-user', '--net');

/** Runs a line of JavaScript as the programs that read PDFs are run; what it printed. */
const inside = async (line: string) => (await run(process.execPath, ['-e', line], { ...limits.text, memory: 64 * 1024 ** 3 })).output.trim();
/** A line that says whether something could be done. */
const tried = (what: string) => `try { ${what}; console.log('done'); } catch (error) { console.log(error.code) }`;

it('as much as this system allows', () => {
	expect(confined()[0]).toBe(namespaces ? 'bwrap' : network ? 'unshare' : undefined);
});

it('the network is out of reach', async () => {
	const { port } = new URL(origin);
	const said = await inside(
		`require('net').connect(${port}, '127.0.0.1').on('connect', () => { console.log('in'); process.exit() }).on('error', (e) => console.log(e.code))`
	);
	expect(said).toBe(namespaces || network ? 'ECONNREFUSED' : 'in');
});

it('what it may write is what is made and unfinished, not what is kept, nor anything else', async () => {
	await document({ position: 'open' });
	mkdirSync(join(files, 'unfinished'), { recursive: true });
	const write = (path: string) => inside(tried(`require('fs').writeFileSync(${JSON.stringify(path)}, 'x')`));
	expect(await write(join(files, 'unfinished', 'from-inside'))).toBe('done');
	// a place that is refused with all rights, and one that is hidden
	for (const place of [join(files, 'originals'), join(files, 'uploads'), join(files, 'put-by'), process.cwd()])
		expect(await write(join(place, 'from-inside'))).toBe(namespaces ? 'EROFS' : 'done');
	spawnSync('rm', ['-f', ...['originals', 'uploads', 'put-by', 'unfinished'].map((name) => join(files, name, 'from-inside')), 'from-inside']);
});

it('nothing of the data folder is seen but the store, and no other program', async () => {
	const secret = join(files, '..', 'something-secret');
	writeFileSync(secret, 'secret');
	expect(await inside(tried(`require('fs').readFileSync(${JSON.stringify(secret)})`))).toBe(namespaces ? 'ENOENT' : 'done');
	const seen = await inside(tried(`require('fs').readFileSync('/proc/${process.pid}/environ')`));
	expect(seen).toBe(namespaces ? 'ENOENT' : 'done');
	spawnSync('rm', ['-f', secret]);
});
