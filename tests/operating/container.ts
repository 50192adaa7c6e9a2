// Carries the steps of operating/Containerfile out in a bare Debian with Node in a folder (what its FROM names), then starts what came of it and reads a
// document from it: npx tsx tests/operating/container.ts <folder of a bare Debian>, as root. Two copies of that folder are made beside it and removed.
import { execFileSync, spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import PDFDocument from 'pdfkit';
import { freePort, startPostgres } from '#server/db/cluster';
import { scratch } from '../../scripts/scratch';

const [bare] = process.argv.slice(2);
if (!bare || process.getuid?.() !== 0) throw new Error('Give the folder of a bare Debian, as root.');

interface Stage {
	readonly root: string;
	at: string;
	user: string;
	readonly environment: Record<string, string>;
	command: string[];
}
const run = (program: string, args: string[]) => execFileSync(program, args, { stdio: ['ignore', 'ignore', 'inherit'] });
const mounts = ['proc', 'sys', 'dev'];
const roots: string[] = [];

function begin(name: string): Stage {
	const root = `${bare!}-${name}`;
	rmSync(root, { recursive: true, force: true });
	run('cp', ['-a', bare!, root]);
	for (const part of mounts) run('mount', ['--rbind', '--make-rslave', `/${part}`, join(root, part)]);
	roots.push(root);
	return { root, at: '/', user: 'root', environment: {}, command: [] };
}
const inside = ({ root, at, user, environment }: Stage, command: string[]): [string, string[]] => [
	'chroot',
	[
		`--userspec=${user}`,
		root,
		'env',
		...Object.entries(environment).map(([name, value]) => `${name}=${value}`),
		'sh',
		'-c',
		`cd ${at} && exec "$@"`,
		'sh',
		...command
	]
];
const listed = (words: string) => JSON.parse(words) as string[];

/** One instruction of the file (OCI engines' own language; from memory), those that this one has. */
function carryOut(line: string, stages: Map<string, Stage>): void {
	const [, word, rest] = /^([A-Z]+) (.*)$/.exec(line)!;
	const stage = [...stages.values()].at(-1)!;
	const within = (path: string) => join(stage.root, path.startsWith('/') ? path : join(stage.at, path));
	switch (word) {
		case 'FROM': {
			const [, name = 'last'] = / AS (\w+)$/.exec(rest!) ?? [];
			stages.set(name, begin(name));
			return;
		}
		case 'WORKDIR':
			stage.at = rest!;
			mkdirSync(join(stage.root, rest!), { recursive: true });
			return;
		case 'COPY': {
			const [, from, what, to] = /^(?:--from=(\w+) )?(\S+) (\S+)$/.exec(rest!)!;
			mkdirSync(dirname(within(to!)), { recursive: true });
			if (from) run('cp', ['-a', join(stages.get(from)!.root, what!), within(to!)]);
			// what an engine takes along: all but what .dockerignore names, of which git knows nothing either
			else execFileSync('sh', ['-c', `git ls-files -z | tar --null -T - -cf - | tar -xf - -C ${within(to!)}`]);
			return;
		}
		case 'RUN': {
			const passed = Object.fromEntries(
				Object.entries(process.env).filter(([name]) => /^(https?_proxy|no_proxy|npm_config_\w+|node_extra_ca_certs)$/i.test(name))
			);
			const [program, args] = inside({ ...stage, environment: { HOME: '/root', ...stage.environment } }, ['sh', '-c', rest!]);
			execFileSync(program, args, {
				stdio: ['ignore', 'ignore', 'inherit'],
				env: { PATH: '/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin', ...passed }
			});
			return;
		}
		case 'ENV': {
			const [name, value] = rest!.split('=') as [string, string];
			stage.environment[name] = value;
			return;
		}
		case 'USER':
			stage.user = rest!;
			return;
		case 'CMD':
			stage.command = listed(rest!);
			return;
		case 'VOLUME':
		case 'EXPOSE':
			return;
		case 'HEALTHCHECK':
			stage.environment.HEALTH = rest!.replace(/^CMD /, '');
			return;
		default:
			throw new Error(`${line}: not known here`);
	}
}

const { path: data, drop } = scratch('container');
let postgres: Awaited<ReturnType<typeof startPostgres>> | undefined;
const started: ReturnType<typeof spawn>[] = [];
try {
	const stages = new Map<string, Stage>();
	for (const line of readFileSync('operating/Containerfile', 'utf8')
		.split('\n')
		.filter((text) => /^[A-Z]/.test(text))) {
		console.log(line.slice(0, 120));
		carryOut(line, stages);
	}
	const made = stages.get('last')!;
	const { HEALTH, ...environment } = made.environment;
	postgres = await startPostgres(data, { quick: true });
	const port = await freePort();
	const origin = `http://127.0.0.1:${port}`;
	// what compose.yaml gives it, but for the proxy and the port, which are this machine's
	const service: Stage = {
		...made,
		environment: {
			...environment,
			PATH: '/usr/bin:/bin',
			IANUA_PORT: String(port),
			IANUA_DATABASE_URL: postgres.url,
			IANUA_ORIGIN: origin,
			IANUA_SECRET: 'x'.repeat(44),
			IANUA_JOBS: 'apart'
		}
	};
	const start = (command: string[]) => started.push(spawn(...inside(service, command), { stdio: ['ignore', 'ignore', 'inherit'] }));
	start(made.command);
	const within = async <T>(what: string, look: () => Promise<T | null>): Promise<T> => {
		for (let n = 0; n < 120; n++) {
			const found = await look().catch(() => null);
			if (found !== null) return found;
			await new Promise((go) => setTimeout(go, 500));
		}
		throw new Error(`${what} did not come about`);
	};
	await within('readiness', async () => ((await fetch(`${origin}/readyz`)).ok ? true : null));
	// the image's own question, of the port that it has here
	run(
		...inside(
			service,
			listed(HEALTH!).map((part) => part.replaceAll('4173', String(port)))
		)
	);
	start(['node', 'build/jobs.js']);
	const owner = JSON.parse(
		execFileSync(...inside(service, ['node', 'build/admin.js', 'owner', 'create', '--email', 'o@example.org', '--name', 'O', '--json']), { encoding: 'utf8' })
	) as { password: string };
	const signedIn = await fetch(`${origin}/api/auth/sign-in/email`, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({ email: 'o@example.org', password: owner.password })
	});
	const headers = { cookie: signedIn.headers.getSetCookie().map((line) => line.split(';')[0]).join('; '), origin }; // prettier-ignore
	const written = new PDFDocument().text('In a container');
	written.end();
	const form = new FormData();
	form.append('file', new Blob([new Uint8Array(await buffer(written))]), 'container.pdf');
	const { slug } = (await (await fetch(`${origin}/api/v1/documents`, { method: 'POST', headers, body: form })).json()) as { slug: string };
	const condition = async () =>
		((await (await fetch(`${origin}/api/v1/documents/${slug}`, { headers })).json()) as { condition: { status: string } }).condition.status;
	await within('the check', async () => ((await condition()) === 'sound' ? true : null));
	const file = await fetch(`${origin}/d/${slug}/file`, { headers });
	if (
		!file.ok ||
		!Buffer.from(await file.arrayBuffer())
			.subarray(0, 5)
			.equals(Buffer.from('%PDF-'))
	)
		throw new Error(`the file: ${file.status}`);
	execFileSync(...inside(service, ['node', 'build/admin.js', 'backup', '/var/lib/ianua/backup']));
	console.log('Built as the file says, started, healthy; a document was brought in, checked by the jobs and read; a backup was taken.');
} finally {
	for (const child of started) child.kill('SIGTERM');
	await new Promise((go) => setTimeout(go, 3_000));
	postgres?.stop();
	for (const root of roots) {
		for (const part of mounts) run('umount', ['-l', join(root, part)]);
		rmSync(root, { recursive: true, force: true });
	}
	drop();
}
