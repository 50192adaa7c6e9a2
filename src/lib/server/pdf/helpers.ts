// The helper processes that work on files of unknown origin, each at one at a time, started when first needed: as many as there are cores for
// PDFs that are brought in, and one for pictures and tags, for which somebody waits.
import { spawn, type ChildProcess } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { IanuaError } from '#core/errors';
import { helperProgram } from '../home';
import { countEnded } from '../metrics';
import { settings } from '../settings';
import { original, shareMade } from '../store/store';
import { confined } from './confine';
import type { Answered, Asked, Work } from './helper';
import { whenEnded } from './run';

/** Ms after which a helper that does not answer is ended: well over what its bounded programs can take together. */
const patience = 600_000;
/** Less for what can be done without. */
const patienceOf: Partial<Record<keyof Work, number>> = { opening: 20_000 };
/** A helper that worked this long for us makes room for a fresh one, whatever it may have gathered. */
const retiresAfter = 300;

interface Helper {
	readonly process: ChildProcess;
	busy: ((answered: Answered | null) => void) | null;
	done: number;
}

interface Pool {
	readonly most: number;
	readonly helpers: Helper[];
	readonly waiting: (() => void)[];
}

const papers: Pool = { most: Math.max(1, availableParallelism()), helpers: [], waiting: [] };
/** What somebody waits for. */
const pictures: Pool = { most: 1, helpers: [], waiting: [] };
const poolOf: Readonly<Record<keyof Work, Pool>> = {
	tags: pictures,
	images: pictures,
	arrive: papers,
	look: papers,
	check: papers,
	opening: papers,
	picture: pictures,
	narrower: pictures,
	covers: pictures
};
let last = 0;
whenEnded(countEnded);

/**
 * What a helper may know: where the store is, and how to run programs. Not the database's password nor the secret: settings ask for something
 * in their place, and it is nothing.
 */
function helperEnvironment(): Record<string, string> {
	const handed = ['PATH', 'LANG', 'LC_ALL', 'TZ', 'TMPDIR', 'NODE_ENV', 'IANUA_LOG', 'IANUA_DATA', 'IANUA_MAX_UPLOAD'];
	return {
		...Object.fromEntries(handed.flatMap((name) => (process.env[name] === undefined ? [] : [[name, process.env[name]]]))),
		IANUA_FILES: settings().files,
		IANUA_DATABASE_URL: 'postgres://nowhere',
		IANUA_SECRET: 'a helper signs nothing, and has none'
	};
}

function start({ helpers, waiting }: Pool): Helper {
	const before = confined();
	const [program, ...args] = [...before, process.execPath, '--max-old-space-size=256', ...helperProgram, 'pdf-helper'];
	const child = spawn(program, args, {
		stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
		// no password of the database, no secret: it is told what it needs for each piece of work
		env: { ...helperEnvironment(), ...(before.length ? { IANUA_CONFINED: 'yes' } : {}) },
		// in a group of its own, so that what is typed at the terminal does not reach it
		detached: true
	});
	const helper: Helper = { process: child, busy: null, done: 0 };
	child.on('message', (answered: Answered) => helper.busy?.(answered));
	child.on('exit', () => {
		helpers.splice(helpers.indexOf(helper), 1);
		helper.busy?.(null);
		waiting.shift()?.();
	});
	child.on('error', () => {});
	// an idle helper keeps nobody from ending
	child.unref();
	child.channel?.unref();
	helpers.push(helper);
	return helper;
}

/**
 * Has a helper do a piece of work. Throws what the work threw, or that the helper broke off. It works on files of this machine: the original that
 * is asked about is near before it begins, and what it makes of that is in the store once this returns.
 */
export async function runInWorker<K extends keyof Work>(kind: K, ask: Work[K]['ask']): Promise<Work[K]['answer']> {
	const sha256 = 'sha256' in ask ? ask.sha256 : null;
	if (sha256 !== null) await original(sha256);
	const answer = await askHelper(kind, ask);
	if (sha256 !== null) await shareMade(sha256);
	return answer;
}

async function askHelper<K extends keyof Work>(kind: K, ask: Work[K]['ask']): Promise<Work[K]['answer']> {
	const pool = poolOf[kind];
	const { helpers, waiting } = pool;
	let helper: Helper | undefined;
	for (;;) {
		helper = helpers.find((h) => !h.busy && h.process.connected) ?? (helpers.length < pool.most ? start(pool) : undefined);
		if (helper) break;
		await new Promise<void>((go) => waiting.push(go));
	}
	const current = helper;
	const { process: child } = current;
	child.ref();
	child.channel?.ref();
	const clock = setTimeout(() => {
		countEnded('helper');
		child.kill('SIGKILL');
	}, patienceOf[kind] ?? patience);
	const answered = await new Promise<Answered | null>((done) => {
		current.busy = done;
		child.send({ id: ++last, kind, ask } satisfies Asked, (error) => {
			if (error) done(null);
		});
	});
	clearTimeout(clock);
	current.busy = null;
	child.unref();
	child.channel?.unref();
	if (++current.done >= retiresAfter && child.connected) child.disconnect();
	waiting.shift()?.();
	for (const program of answered?.ended ?? []) countEnded(program);
	if (answered === null) throw new Error('a helper broke off');
	if ('refused' in answered) throw new IanuaError(answered.refused.code, answered.refused.facts);
	if ('broke' in answered) throw Object.assign(new Error(answered.broke.message), { code: answered.broke.code });
	return answered.answer as Work[K]['answer'];
}

/** Lets all helpers go: at shutdown. */
export function dismissHelpers(): void {
	for (const { process: child } of [...papers.helpers, ...pictures.helpers]) if (child.connected) child.disconnect();
}
