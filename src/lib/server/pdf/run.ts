// Runs one of Debian's PDF programs as a bounded child process: memory, CPU, wall time, output and file size have limits,
// no core is written, and the whole process group is ended when one is passed.
import { spawn } from 'node:child_process';
import type { FileHandle } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { confined } from './confine';

const MiB = 1024 * 1024;

let told: (program: string) => void = () => {};
/** Has somebody told of every program that one of its limits ended, from now on. */
export function whenEnded(tell: (program: string) => void): void {
	told = tell;
}

export interface Limits {
	/** Address space in bytes. */
	readonly memory: number;
	/** CPU seconds; wall time is twice that. */
	readonly cpu: number;
	/** Largest file it may write, bytes. */
	readonly file: number;
	/** Most it may print; what goes beyond ends it. */
	readonly output: number;
}

export const limits = {
	facts: { memory: 512 * MiB, cpu: 10, file: 256 * MiB, output: 16 * MiB },
	cover: { memory: 512 * MiB, cpu: 10, file: 256 * MiB, output: MiB },
	text: { memory: 512 * MiB, cpu: 60, file: 256 * MiB, output: 64 * MiB },
	structure: { memory: 1024 * MiB, cpu: 30, file: 256 * MiB, output: MiB }
} as const satisfies Record<string, Limits>;

export interface Outcome {
	/** Exit code; null where it was ended by a signal or a limit. */
	readonly code: number | null;
	readonly output: string;
	/** First 4 kB of what it said on standard error. */
	readonly said: string;
	/** Why what it printed could not be written into the file. */
	readonly unwritten?: Error & { code?: string };
}

const most = Math.max(1, availableParallelism());
let running = 0;
const waiting: (() => void)[] = [];

/** Where what a program prints goes: into memory as text, to whoever takes the pieces, or into an open file. */
export type Output = undefined | ((chunk: Buffer) => void) | FileHandle;

/** Runs a program with arguments (no shell) within limits, at most as many at once as there are cores. Never throws for its failure. */
export async function run(program: string, args: readonly string[], bound: Limits, output?: Output): Promise<Outcome> {
	if (running >= most) await new Promise<void>((go) => waiting.push(go));
	running++;
	try {
		return await runNow(program, args, bound, output);
	} finally {
		running--;
		waiting.shift()?.();
	}
}

function runNow(program: string, args: readonly string[], bound: Limits, output: Output): Promise<Outcome> {
	return new Promise((resolve) => {
		const onOutput = typeof output === 'function' ? output : undefined;
		const [first, ...rest] = [...confined(), 'prlimit'];
		const child = spawn(first, [...rest, `--as=${bound.memory}`, `--cpu=${bound.cpu}`, `--fsize=${bound.file}`, '--core=0', program, ...args], {
			detached: true,
			stdio: ['ignore', 'pipe', 'pipe'],
			env: { PATH: process.env.PATH ?? '/usr/bin:/bin', LC_ALL: 'C.UTF-8', HOME: '/nonexistent' }
		});
		const chunks: Buffer[] = [];
		let bytes = 0;
		let said = '';
		let ended = false;
		const end = () => {
			if (!ended) told(program);
			ended = true;
			try {
				if (child.pid) process.kill(-child.pid, 'SIGKILL');
			} catch {
				// it is gone already
			}
		};
		const clock = setTimeout(end, bound.cpu * 2000);
		let unwritten: Outcome['unwritten'];
		/** Piece by piece, each once the one before is written: a full disk is seen, and a slow one slows the program. */
		const writeInto = async (file: FileHandle) => {
			for await (const chunk of child.stdout as AsyncIterable<Buffer>) {
				bytes += chunk.length;
				if (bytes > bound.output) {
					end();
					return;
				}
				await file.write(chunk);
			}
		};
		let writing: Promise<void> = Promise.resolve();
		if (typeof output === 'object')
			writing = writeInto(output).catch((error: unknown) => {
				unwritten = error as Error;
				end();
			});
		else
			child.stdout.on('data', (chunk: Buffer) => {
				bytes += chunk.length;
				if (bytes > bound.output) {
					end();
					return;
				}
				if (onOutput) onOutput(chunk);
				else chunks.push(chunk);
			});
		child.stderr.on('data', (chunk: Buffer) => {
			if (said.length < 4096) said += chunk.toString('utf8').slice(0, 4096 - said.length);
		});
		child.on('error', (error) => {
			clearTimeout(clock);
			resolve({ code: null, output: '', said: error.message });
		});
		child.on('close', (code) => {
			clearTimeout(clock);
			void writing.then(() =>
				resolve({ code: ended ? null : code, output: Buffer.concat(chunks).toString('utf8'), said, ...(unwritten ? { unwritten } : {}) })
			);
		});
	});
}
