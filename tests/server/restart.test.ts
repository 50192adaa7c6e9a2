// Stop and start again: everything is still there. And an empty site asks for its owner.
import { execFileSync, fork } from 'node:child_process';
import { once } from 'node:events';
import { copyFileSync, cpSync, existsSync, mkdirSync, readdirSync } from 'node:fs';
import { join, relative } from 'node:path';
import { afterAll, expect, it } from 'vitest';
import { freePort } from '#server/db/cluster';
import { runIanua } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';
import { pdf, until } from './help';

const { path: data, drop } = scratch('restart');
afterAll(drop);
// a start of its own, not the one the other tests share
for (const name of ['IANUA_DATABASE_URL', 'IANUA_ORIGIN', 'IANUA_DATA', 'IANUA_PORT', 'IANUA_SECRET']) delete process.env[name];

const signIn = async (origin: string, email = 'first@example.org') => {
	const response = await fetch(`${origin}/api/auth/sign-in/email`, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({ email, password: 'the-first-password' })
	});
	return response.headers
		.getSetCookie()
		.map((c) => c.split(';')[0])
		.join('; ');
};

/**
 * A folder as a server has it: what was built, and of the packages those that `npm ci --omit=dev` installs (npm itself says which), so that this
 * needs no network. Gives the bytes that the packages take.
 */
function installForProduction(folder: string): number {
	cpSync('build', join(folder, 'build'), { recursive: true });
	copyFileSync('package.json', join(folder, 'package.json'));
	const listed = execFileSync('npm', ['ls', '--omit=dev', '--all', '--parseable'], { encoding: 'utf8' }).split('\n');
	for (const path of listed.filter((line) => line.includes('/node_modules/'))) {
		const to = join(folder, relative('.', path));
		mkdirSync(to, { recursive: true });
		// packages within a package are listed by themselves
		for (const name of readdirSync(path)) if (name !== 'node_modules') cpSync(join(path, name), join(to, name), { recursive: true });
	}
	return Number(execFileSync('du', ['-sb', join(folder, 'node_modules')], { encoding: 'utf8' }).split('\t')[0]);
}

it('keeps owner, documents, doors, files, sessions and ledger over a stop and a start', async () => {
	const bytes = await pdf('Lasting', 2);
	const first = await runIanua({ data, port: await freePort(), demo: false, log: 'error' });
	let cookie: string;
	let slug: string;
	try {
		const visit = await fetch(first.origin, { redirect: 'manual' });
		expect([visit.status, visit.headers.get('location')]).toEqual([303, '/begin']);
		// zones stand by the names that the tz database gives them today
		const offered = await (await fetch(`${first.origin}/begin`)).text();
		for (const zone of ['UTC', 'Europe/Paris', 'Europe/Kyiv', 'Asia/Kathmandu', 'Asia/Kolkata']) expect(offered).toContain(`"${zone}"`);
		for (const zone of ['Europe/Kiev', 'Asia/Katmandu', 'Asia/Calcutta']) expect(offered).not.toContain(`"${zone}"`);
		const code = first.beginCode();
		const begin = (form: Record<string, string>) =>
			fetch(`${first.origin}/begin`, {
				method: 'POST',
				redirect: 'manual',
				headers: { 'content-type': 'application/x-www-form-urlencoded', accept: 'text/html' },
				body: new URLSearchParams({
					code,
					site: 'First society',
					zone: 'Europe/Paris',
					name: 'First Owner',
					email: 'first@example.org',
					password: 'the-first-password',
					...form
				})
			});
		expect((await begin({ password: 'short' })).status).toBe(422);
		expect((await begin({ zone: 'Nowhere/Town' })).status).toBe(422);
		// whoever did not start the server has not seen its code
		expect((await begin({ code: 'AAAA-AAAA' })).status).toBe(403);
		const made = await begin({ code: code.toLowerCase().replace('-', ' ') });
		expect([made.status, made.headers.get('location')]).toEqual([303, '/desk/documents']);
		expect((await begin({ email: 'second@example.org' })).headers.get('location')).toBe('/');
		expect(await signIn(first.origin, 'second@example.org')).toBe('');
		cookie = made.headers
			.getSetCookie()
			.map((c) => c.split(';')[0])
			.join('; ');
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(bytes)]), 'Lasting.pdf');
		({ slug } = (await (await fetch(`${first.origin}/api/v1/documents`, { method: 'POST', headers: { cookie }, body: form })).json()) as { slug: string });
		await fetch(`${first.origin}/api/v1/documents/${slug}`, {
			method: 'PATCH',
			headers: { cookie, 'content-type': 'application/json' },
			body: JSON.stringify({ door: { position: 'open' } })
		});
		await (await fetch(`${first.origin}/d/${slug}/file`)).arrayBuffer();
	} finally {
		await first.stop();
	}
	// the second start is that of a server of one's own: build/ and the packages for run time, no sources, no tools
	const production = scratch('production');
	expect(installForProduction(production.path)).toBeLessThan(200_000_000);
	for (const name of ['src', 'core', 'node_modules/tsx', 'node_modules/typescript', 'node_modules/vite', 'node_modules/svelte'])
		expect(existsSync(join(production.path, name)), name).toBe(false);
	const second = await runIanua({
		data,
		port: await freePort(),
		demo: false,
		log: 'error',
		application: production.path,
		given: { IANUA_JOBS: 'apart' }
	});
	// the jobs have a process of their own: what the web server queues is done there
	const jobs = fork(join(production.path, 'build/jobs.js'), { cwd: production.path, execArgv: [], env: second.environment });
	try {
		await once(jobs, 'message');
		expect((await fetch(`${second.origin}/readyz`)).status).toBe(200);
		const file = Buffer.from(await (await fetch(`${second.origin}/d/${slug}/file`)).arrayBuffer());
		expect(file.equals(bytes)).toBe(true);
		const ledger = (await (await fetch(`${second.origin}/api/v1/documents/${slug}/ledger`, { headers: { cookie } })).json()) as { items: unknown[] };
		expect(ledger.items).toHaveLength(1); // the reading goes on over the restart
		expect(await (await fetch(second.origin)).text()).toContain('First society');
		expect(await signIn(second.origin)).toContain('session_token');
		// helpers, too, are programs of build/: a document brought in now is checked, has a cover, and is read
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(await pdf('Brought in later', 2))]), 'Later.pdf');
		const later = (await (await fetch(`${second.origin}/api/v1/documents`, { method: 'POST', headers: { cookie }, body: form })).json()) as { slug: string };
		await until(async () => {
			const seen = (await (await fetch(`${second.origin}/api/v1/documents/${later.slug}`, { headers: { cookie } })).json()) as {
				condition: { status: string };
			};
			return seen.condition.status === 'sound';
		});
		const cover = await fetch(`${second.origin}/d/${later.slug}/cover/300.webp`, { headers: { cookie } });
		expect([cover.status, cover.headers.get('content-type')]).toEqual([200, 'image/webp']);
		expect((await fetch(`${second.origin}/d/${later.slug}/read`, { headers: { cookie } })).status).toBe(200);
	} finally {
		jobs.kill('SIGTERM');
		if (jobs.exitCode === null) await once(jobs, 'exit');
		await second.stop();
		production.drop();
	}
});
