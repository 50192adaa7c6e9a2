// Files coming in, against the same files through the bare command-line tools with as many workers; and the server's memory meanwhile.
import { execFileSync, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import type { Running } from './run';
import { prepareSamples, samples } from './samples';

/** `count` real PDFs of different bytes: those of Debian's packages, then parts of them cut out by qpdf. */
export async function realPdfs(folder: string, count: number): Promise<string[]> {
	mkdirSync(folder, { recursive: true });
	await prepareSamples();
	const { tagged, tools, encrypted, signed, scanned, collision, form, large, japanese } = samples;
	const originals = [tagged, tools, encrypted, signed, scanned, ...collision, form, large, japanese];
	const files: string[] = [];
	const seen = new Set<string>();
	const add = (bytes: Buffer, name: string) => {
		const sum = createHash('sha256').update(bytes).digest('hex');
		if (seen.has(sum) || files.length >= count) return;
		seen.add(sum);
		const path = join(folder, `${files.length} ${name}`);
		writeFileSync(path, bytes);
		files.push(path);
	};
	for (const path of originals) add(readFileSync(path), basename(path));
	for (let round = 1; files.length < count && round < 12; round++) {
		for (const path of originals.filter((p) => p !== encrypted)) {
			if (files.length >= count) break;
			const out = join(folder, 'part.pdf');
			try {
				// so many copies of its first page in front: other bytes, the same kind of work
				execFileSync('qpdf', ['--warning-exit-0', path, '--pages', ...Array.from({ length: round }, () => [path, '1']).flat(), path, '1-z', '--', out], {
					stdio: 'ignore'
				});
				add(readFileSync(out), `${round} ${basename(path)}`);
			} catch {
				// a file that qpdf cannot take apart is left out
			}
		}
	}
	return files;
}

/** The same steps by hand, one file after the other in each of as many workers as there are cores. */
async function byHand(files: readonly string[]): Promise<number> {
	const folder = mkdtempSync(join(tmpdir(), 'ianua-hand-'));
	const began = performance.now();
	const waiting = [...files.entries()];
	const step = (program: string, args: string[]) => new Promise<void>((done) => spawn(program, args, { stdio: 'ignore' }).once('exit', () => done()));
	await Promise.all(
		Array.from({ length: availableParallelism() }, async () => {
			for (let next = waiting.shift(); next; next = waiting.shift()) {
				const [i, file] = next;
				await step('sha256sum', [file]);
				await step('qpdf', ['--requires-password', file]);
				await step('pdfinfo', ['-f', '1', '-l', '5000', file]);
				await step('qpdf', ['--json', '--json-stream-data=none', file]);
				await step('pdftoppm', ['-singlefile', '-scale-to', '1700', '-png', file, join(folder, `${i}`)]);
				await step('pdftotext', ['-enc', 'UTF-8', file, join(folder, `${i}.txt`)]);
				await step('qpdf', ['--object-streams=generate', file, join(folder, `${i}.pdf`)]);
			}
		})
	);
	const ms = performance.now() - began;
	rmSync(folder, { recursive: true });
	return ms;
}

interface Line {
	id: string;
	state: string;
}

/** Sends files by the tus protocol, three at once as the tray does, and waits until each is in; ms from the first byte to the last sound. */
async function bringIn(running: Running, staff: string, files: readonly string[]): Promise<number> {
	const headers = { cookie: staff, 'tus-resumable': '1.0.0' };
	const began = performance.now();
	const waiting = [...files];
	const ids: string[] = [];
	await Promise.all(
		Array.from({ length: 3 }, async () => {
			for (let file = waiting.shift(); file; file = waiting.shift()) {
				const bytes = readFileSync(file);
				const response = await fetch(`${running.origin}/api/v1/intake`, {
					method: 'POST',
					headers: {
						...headers,
						'content-type': 'application/offset+octet-stream',
						'upload-length': String(bytes.length),
						'upload-metadata': `filename ${Buffer.from(basename(file)).toString('base64')}`
					},
					body: new Uint8Array(bytes)
				});
				if (response.status !== 201) throw new Error(`${file}: ${response.status} ${await response.text()}`);
				ids.push(response.headers.get('location')!.split('/').pop()!);
			}
		})
	);
	for (;;) {
		const { items } = (await (await fetch(`${running.origin}/api/v1/intake`, { headers: { cookie: staff } })).json()) as { items: Line[] };
		const brought = items.filter((l) => ids.includes(l.id));
		const bad = brought.filter((l) => l.state === 'refused');
		if (bad.length) throw new Error(`refused: ${JSON.stringify(bad[0])}`);
		if (brought.filter((l) => l.state === 'in').length === ids.length) return performance.now() - began;
		await new Promise((go) => setTimeout(go, 500));
	}
}

/** Highest memory of a process since it began, MB. */
const peak = (pid: number) => Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1000;

export async function benchIntake(running: Running, staff: string): Promise<void> {
	const folder = mkdtempSync(join(tmpdir(), 'ianua-real-'));
	try {
		const files = await realPdfs(folder, 150);
		const [first, more] = [files.slice(0, 50), files.slice(50)];
		const before = await byHand(first);
		const ours = await bringIn(running, staff, first);
		const after = await byHand(first);
		const hand = (before + after) / 2;
		console.log(
			`${first.length} real PDFs from the first byte to the last sound: ${(ours / 1000).toFixed(1)} s; by hand, before and after, ${(before / 1000).toFixed(1)} and ${(after / 1000).toFixed(1)} s; ratio ${(ours / hand).toFixed(2)}`
		);
		const ms = await bringIn(running, staff, more);
		console.log(`${more.length} more in ${(ms / 1000).toFixed(1)} s; the server's highest memory since its start: ${peak(running.pid).toFixed(0)} MB`);
	} finally {
		rmSync(folder, { recursive: true });
	}
}
