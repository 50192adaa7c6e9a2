// Brings a whole Ianua up on a data folder: database, secret, demo where wanted, web server. Used by start, tests and bench.
import { fork, spawn, type ChildProcess, type StdioOptions } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { freePort, isFree, startPostgres, type Postgres } from '#server/db/cluster';
import { keepSettings, keptSettings } from '#server/settings-file';
import { bucketSettings } from '../standins/bucket';
import { standinProvider } from '../standins/identity-client';
import { serverUser } from './user';

export interface Running {
	readonly origin: string;
	readonly data: string;
	/** Process id of the web server. */
	readonly pid: number;
	readonly environment: Record<string, string>;
	/** Settles when the web server has ended and is not brought up again. */
	readonly ended: Promise<number>;
	/** The code that the first visit to an empty site asks for. */
	beginCode(): string;
	stop(): Promise<void>;
	/** Ends the web server as a power cut would: for tests. */
	kill(): void;
	/** Ends PostgreSQL as a power cut would; `restartPostgres` brings it back: for tests. */
	killPostgres(): void;
	/** Cuts every connection to PostgreSQL and starts it again: for tests. */
	restartPostgres(): void;
}

export interface RunOptions {
	readonly data: string;
	readonly port: number;
	/** Load the demo scenario into a database that is empty. */
	readonly demo: boolean;
	readonly quick?: boolean;
	/** From the sources, under Vite, as one works on them (dev-server.ts). */
	readonly development?: boolean;
	/** Folder of the application to run, with its build/ and packages; this one unless said. */
	readonly application?: string;
	readonly log?: string;
	/** Keep files in the stand-in bucket. */
	readonly bucket?: boolean;
	/** Let people in by the stand-in identity provider. */
	readonly identity?: boolean;
	/** Settings beside those of the process. */
	readonly given?: Readonly<Record<string, string>>;
	/** Bring the web server up again when it ends by itself, after a pause that grows; PostgreSQL is not touched. */
	readonly restart?: boolean;
	/** Where the start is root's: run the web server, and all that it starts, as a user of its own. */
	readonly ownUser?: boolean;
	/** Takes what the web server prints, in place of showing it. */
	readonly output?: (text: string) => void;
	readonly say?: (line: string) => void;
}

/** The folder of the store, or of what is near of a bucket. */
const filesFolder = (data: string, files: string | undefined) => (files?.startsWith('s3://') ? join(data, 'near') : resolve(files ?? join(data, 'files')));

/** A secret of its own for each data folder, made once. */
function secretOf(data: string): string {
	const file = join(data, 'secret');
	if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600 });
	return readFileSync(file, 'utf8').trim();
}

export async function runIanua({
	data: folder,
	port,
	demo,
	quick,
	development = false,
	application = '.',
	log,
	bucket = false,
	identity = false,
	given = {},
	output,
	restart = false,
	ownUser = false,
	say = () => {}
}: RunOptions): Promise<Running> {
	const data = resolve(folder);
	mkdirSync(data, { recursive: true });
	let postgres: Postgres | undefined;
	if (!process.env.IANUA_DATABASE_URL) {
		say('Starting PostgreSQL');
		postgres = await startPostgres(data, { quick });
	}
	const origin = process.env.IANUA_ORIGIN ?? `http://127.0.0.1:${port}`;
	const standins = demo || bucket || identity || hasBucket(data) ? await startStandins(data, origin, { demo, bucket, identity }) : null;
	const environment: Record<string, string> = {
		...keptSettings(data),
		...(process.env as Record<string, string>),
		...given,
		// without an address given, a server was started above
		IANUA_DATABASE_URL: process.env.IANUA_DATABASE_URL ?? postgres!.url,
		IANUA_DATA: data,
		IANUA_ORIGIN: origin,
		IANUA_PORT: String(port),
		IANUA_SECRET: process.env.IANUA_SECRET ?? secretOf(data),
		...(standins && demo
			? {
					IANUA_SMTP_URL: process.env.IANUA_SMTP_URL ?? `smtp://127.0.0.1:${standins.ports.smtp}`,
					...(process.env.IANUA_SMTP_URL ? {} : { IANUA_POSTBOX: join(data, 'mail') }),
					IANUA_WEB_ALLOW: [process.env.IANUA_WEB_ALLOW, `127.0.0.1:${standins.ports.source}`].filter(Boolean).join(','),
					IANUA_STANDIN_PORTS: JSON.stringify(standins.ports)
				}
			: {}),
		...(log ? { IANUA_LOG: log } : {}),
		NODE_ENV: development ? 'development' : 'production'
	};
	try {
		const as = ownUser ? serverUser(data, filesFolder(data, environment.IANUA_FILES), say) : null;
		const who = as ? { uid: as.uid, gid: as.gid } : {};
		if (as) environment.HOME = data;
		if (demo) {
			const load = spawn(process.execPath, ['--import', 'tsx', 'demo/load.ts'], {
				...who,
				cwd: application,
				env: { ...environment, IANUA_POSTGRES_PORT: String(postgres?.port ?? '') },
				stdio: ['ignore', 'inherit', 'inherit']
			});
			const [code] = (await once(load, 'exit')) as [number | null];
			if (code !== 0) throw new Error(`The demo could not be loaded (${code ?? 'ended by a signal'}).`);
		}
		// for what is done to it from outside (./ianua): the settings that it runs with
		const runningFile = join(data, 'running.json');
		writeFileSync(runningFile, JSON.stringify(Object.fromEntries(Object.entries(environment).filter(([name]) => name.startsWith('IANUA_')))), { mode: 0o600 });
		const stdio: StdioOptions = ['ignore', output ? 'pipe' : 'inherit', 'inherit', 'ipc'];
		const launch = () =>
			development
				? fork('scripts/dev-server.ts', { cwd: application, execArgv: ['--import', 'tsx'], env: environment, stdio })
				: fork(join(resolve(application), 'build/web.js'), { ...who, execArgv: [], cwd: application, env: environment, stdio });
		const server = await keepUp(launch, { restart, say, output });
		return {
			origin,
			data,
			get pid() {
				return server.pid();
			},
			environment,
			ended: server.ended,
			beginCode: () => readFileSync(join(data, 'begin-code'), 'utf8').trim(),
			kill: () => {
				server.end('SIGKILL');
				standins?.stop();
			},
			killPostgres: () => postgres?.kill(),
			restartPostgres: () => postgres?.restart(),
			stop: async () => {
				server.end('SIGTERM');
				await server.ended;
				rmSync(runningFile, { force: true });
				standins?.stop();
				postgres?.stop();
			}
		};
	} catch (error) {
		standins?.stop();
		postgres?.stop();
		throw error;
	}
}

interface Ports {
	readonly smtp: number;
	readonly source: number;
	readonly outside: number;
	/** Of the bucket, where files lie in one. */
	readonly s3?: number;
	/** Of the identity provider, where people come in by it. */
	readonly identity?: number;
}

const readPorts = (data: string): Partial<Ports> => {
	const file = join(data, 'ports.json');
	return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Partial<Ports>) : {};
};

/** Whether the files of a data folder lie in the stand-in bucket. */
const hasBucket = (data: string) => readPorts(data).s3 !== undefined;

/** The stand-ins of the demo: a mailbox, another website that offers PDFs, and one that shows ours. Their ports stay the same from one start to the next where they are free. */
async function startStandins(
	data: string,
	origin: string,
	{ demo, bucket, identity }: { demo: boolean; bucket: boolean; identity: boolean }
): Promise<{ ports: Ports; stop: () => void }> {
	const before = readPorts(data);
	const port = async (was: number | undefined) => (was && (await isFree(was)) ? was : freePort());
	const ports: Ports = {
		smtp: await port(before.smtp),
		source: await port(before.source),
		outside: await port(before.outside),
		...(bucket || before.s3 !== undefined ? { s3: await port(before.s3) } : {}),
		...(identity ? { identity: await port(before.identity) } : {})
	};
	writeFileSync(join(data, 'ports.json'), JSON.stringify(ports));
	if (ports.s3 !== undefined) {
		const { IANUA_FILES: place, ...key } = bucketSettings(ports.s3);
		// where files are is said once: they may have been moved since
		keepSettings(data, bucket && before.s3 === undefined ? { ...key, IANUA_FILES: place ?? null } : key);
	}
	const file = join(data, 'providers.json');
	if (ports.identity !== undefined) writeFileSync(file, `${JSON.stringify([standinProvider(ports.identity)], null, '\t')}\n`);
	// it was there for the last start alone
	else if (before.identity !== undefined) rmSync(file, { force: true });
	const child = fork('standins/start.ts', [JSON.stringify({ data, origin, ports, demo })], {
		execArgv: ['--import', 'tsx'],
		stdio: ['ignore', 'inherit', 'inherit', 'ipc']
	});
	await new Promise<void>((up, fail) => {
		child.once('message', () => up());
		child.once('exit', (code) => fail(new Error(`The stand-ins ended at once (${code}).`)));
	});
	return { ports, stop: () => child.kill('SIGTERM') };
}

/** Ms before the first new start, at most before any, and after which a server that is up counts as well. */
const pause = { first: 500, most: 30_000, well: 60_000 } as const;

/** Starts the web server and waits until it listens; with `restart`, starts it again whenever it ends by itself. */
async function keepUp(start: () => ChildProcess, { restart, say, output }: { restart: boolean; say: (line: string) => void; output?: (text: string) => void }) {
	let child: ChildProcess;
	let over = false;
	let wait: number = pause.first;
	let settle: (code: number) => void;
	const ended = new Promise<number>((done) => (settle = done));
	const launch = () => {
		const began = Date.now();
		child = start();
		child.stdout?.on('data', (chunk: Buffer) => output?.(chunk.toString()));
		child.once('exit', (code) => {
			if (over || !restart) {
				settle(code ?? 0);
				return;
			}
			if (Date.now() - began > pause.well) wait = pause.first;
			say(`The web server ended (${code ?? 'by a signal'}) and is started again.`);
			setTimeout(() => (over ? settle(code ?? 0) : launch()), wait);
			wait = Math.min(wait * 2, pause.most);
		});
		return child;
	};
	// a server that does not come up the first time has something wrong that a new start does not mend
	const first = launch();
	await new Promise<void>((done, fail) => {
		const atOnce = (code: number | null) => {
			over = true;
			settle(code ?? 1);
			fail(new Error(`The web server ended at once (${code}).`));
		};
		first.once('exit', atOnce);
		first.once('message', () => {
			first.off('exit', atOnce);
			done();
		});
	});
	return {
		// it is asked for after it has started
		pid: () => child.pid!,
		ended,
		end: (signal: 'SIGTERM' | 'SIGKILL') => {
			over = true;
			if (child.exitCode !== null || child.signalCode !== null) settle(child.exitCode ?? 0);
			else child.kill(signal);
		}
	};
}
