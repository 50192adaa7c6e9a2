// The services as they are shipped (operating/): systemd takes them, and the programs that they start do the work between them, with the settings beside them.
import { execFileSync, fork, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseEnv } from 'node:util';
import { afterAll, describe, expect, it } from 'vitest';
import { freePort, startPostgres } from '#server/db/cluster';
import { readSettings, unknownSettings } from '#server/settings';
import { keepSettings } from '#server/settings-file';
import { scratch } from '../../scripts/scratch';
import { pdf, until } from './help';

const { path: at, drop } = scratch('operating');
afterAll(drop);
const units = ['ianua-web@.service', 'ianua-jobs.service'] as const;
const read = (name: string) => readFileSync(join('operating', name), 'utf8');
const settingsFile = parseEnv(read('settings')) as Record<string, string>;
/** What a unit starts: the program below build/, and what it sets beside the file of settings. */
function startOf(unit: string, instance: string): { program: string; environment: Record<string, string> } {
	const text = read(unit).replaceAll('%i', instance);
	const program = /^ExecStart=\/usr\/bin\/node (build\/\w+\.js)$/m.exec(text)![1]!;
	const environment = parseEnv(/^Environment=(.*)$/m.exec(text)![1]!.replaceAll(' ', '\n')) as Record<string, string>;
	return { program, environment };
}

describe('the services', () => {
	it.skipIf(spawnSync('systemd-analyze', ['--version']).status !== 0)('are units that systemd takes', () => {
		mkdirSync(at, { recursive: true });
		const verify = (text: string, name: string) => {
			const path = join(at, name);
			// where node and the application are on this machine
			writeFileSync(path, text.replaceAll('/usr/bin/node', process.execPath).replaceAll('/opt/ianua', process.cwd()));
			const { status, stderr } = spawnSync('systemd-analyze', ['verify', path], { encoding: 'utf8' });
			return `${status} ${stderr}`.trim();
		};
		for (const unit of units) expect(verify(read(unit), unit.replace('@', '@4173'))).toBe('0');
		// the check can fail
		expect(verify(read('ianua-jobs.service').replace('ProtectSystem=strict', 'ProtectSystem=stricter'), 'wrong.service')).toMatch(/stricter/);
	});
	it('have settings that are right, each of them read', () => {
		expect(unknownSettings(settingsFile)).toEqual([]);
		expect(readSettings(settingsFile)).toMatchObject({
			files: '/var/lib/ianua/files',
			IANUA_JOBS: 'apart',
			IANUA_FILES_BY_PROXY: '/store/',
			IANUA_PROXIES: '1'
		});
	});
	it('are in containers what they are elsewhere: the same programs, packages and settings', () => {
		const [container, compose, machine] = [
			read('Containerfile'),
			read('compose.yaml'),
			readFileSync('scripts/machine.sh', 'utf8') + readFileSync('start', 'utf8')
		];
		const set = Object.fromEntries([...container.matchAll(/^ENV (\w+)=(\S+)$/gm)].map(([, name, value]) => [name!, value!]));
		const given = [...compose.matchAll(/^ {6}(IANUA_\w+): ['"]?([^'"\n]*)['"]?$/gm)].map(([, name, value]) => [
			name!,
			value!.replace(/\$\{(\w+)[^}]*\}/g, '$1')
		]);
		const all: Record<string, string> = {
			...set,
			...(Object.fromEntries(given) as Record<string, string>),
			IANUA_ORIGIN: 'https://docs.example.org',
			IANUA_SECRET: 'x'.repeat(44),
			IANUA_SMTP_URL: 'smtp://127.0.0.1',
			IANUA_MAIL_FROM: 'Library <library@example.org>'
		};
		expect(unknownSettings(all)).toEqual([]);
		expect(readSettings(all)).toMatchObject({ IANUA_HOST: '0.0.0.0', IANUA_JOBS: 'apart', IANUA_PROXIES: '1', IANUA_DATA: '/var/lib/ianua' });
		const packages = /--no-install-recommends (.*?) &&/.exec(container)![1]!.split(' ');
		// of PostgreSQL, whose server stands in a container of its own, the programs that backups need
		for (const name of packages) expect(machine).toContain(name.replace('postgresql-client', 'postgresql'));
		for (const program of [/^CMD \["node", "(.+)"\]$/m.exec(container)![1]!, /command: node (\S+)$/m.exec(compose)![1]!])
			expect(units.map(read).join('')).toContain(program);
		// nothing that git leaves out is built in
		for (const line of readFileSync('.gitignore', 'utf8').trim().split('\n'))
			if (!line.startsWith('static/')) expect(readFileSync('.dockerignore', 'utf8')).toContain(line.replace(/\/$/, '').replace(/^\.ianua.*/, '.ianua*'));
	});
	it('do the work between them: two web servers take and give, the jobs’ process checks', async () => {
		const data = join(at, 'data');
		const postgres = await startPostgres(data, { quick: true });
		const started: ChildProcess[] = [];
		// what ianua store move writes counts for the services too
		keepSettings(data, { IANUA_FILES: join(data, 'moved') });
		try {
			const ports = [await freePort(), await freePort()];
			const environment = {
				...process.env,
				...settingsFile,
				IANUA_DATABASE_URL: postgres.url,
				IANUA_DATA: data,
				IANUA_ORIGIN: `http://127.0.0.1:${ports[0]!}`,
				IANUA_LOG: 'error'
			};
			// what the shared application of the tests has
			for (const name of ['IANUA_FILES', 'IANUA_SMTP_URL', 'IANUA_POSTBOX', 'IANUA_MAX_UPLOAD'] as const) Reflect.deleteProperty(environment, name);
			const start = async (unit: string, instance = '') => {
				const { program, environment: own } = startOf(unit, instance);
				const child = fork(program, { execArgv: [], env: { ...environment, ...own }, stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
				started.push(child);
				await once(child, 'message');
			};
			for (const port of ports) await start('ianua-web@.service', String(port));
			const [one, two] = ports.map((port) => `http://127.0.0.1:${port}`) as [string, string];
			const environmentOf = { ...environment, PATH: process.env.PATH };
			const made = JSON.parse(
				execFileSync(process.execPath, ['build/admin.js', 'owner', 'create', '--email', 'o@example.org', '--name', 'O', '--data', data, '--json'], {
					env: environmentOf,
					encoding: 'utf8'
				})
			) as { password: string };
			const signedIn = await fetch(`${one}/api/auth/sign-in/email`, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify({ email: 'o@example.org', password: made.password })
			});
			expect(signedIn.status).toBe(200);
			const headers = { cookie: signedIn.headers.getSetCookie().map((c) => c.split(';')[0]).join('; ') }; // prettier-ignore
			const form = new FormData();
			form.append('file', new Blob([new Uint8Array(await pdf('By services', 3))]), 'by services.pdf');
			const brought = await fetch(`${one}/api/v1/documents`, { method: 'POST', headers: { ...headers, origin: one }, body: form });
			expect(brought.status).toBe(201);
			const { slug } = (await brought.json()) as { slug: string };
			const condition = async () =>
				((await (await fetch(`${two}/api/v1/documents/${slug}`, { headers })).json()) as { condition: { status: string } }).condition.status;
			// the web servers leave it
			await new Promise((go) => setTimeout(go, 3_000));
			expect(await condition()).toBe('checking');
			await start('ianua-jobs.service');
			await until(async () => (await condition()) === 'sound');
			expect((await fetch(`${two}/d/${slug}/file`, { headers })).status).toBe(200);
			expect(existsSync(join(data, 'moved', 'originals'))).toBe(true);
			// the data folder is the one of the settings unless another is named; where no site has its files, there is no backup
			const backup = (...args: string[]) =>
				spawnSync(process.execPath, ['build/admin.js', 'backup', join(at, 'backups'), ...args], { env: environmentOf, encoding: 'utf8' });
			expect(backup()).toMatchObject({ status: 0 });
			expect(backup('--data', join(at, 'elsewhere'))).toMatchObject({ status: 1, stderr: expect.stringContaining('No site has its files in') as string });
		} finally {
			for (const child of started) child.kill('SIGTERM');
			await Promise.all(started.filter((child) => child.exitCode === null).map((child) => once(child, 'exit')));
			postgres.stop();
		}
	});
});
