// Figures of the development server: fifty saves of a file of the server, each followed by the next request, and what stays open after them.
import { execFileSync } from 'node:child_process';
import { developCopy } from './dev-copy';

const edits = 50;

const processes = () =>
	execFileSync('ps', ['-eo', 'args'], { encoding: 'utf8' })
		.split('\n')
		.filter((line) => /pdf-helper|vite\.js dev/.test(line)).length;

export async function benchDev(): Promise<void> {
	const copy = await developCopy();
	try {
		const ask = async () => (await fetch(`${copy.running.origin}/readyz`)).json() as Promise<{ ok: boolean; edit?: number }>;
		await ask();
		const before = { connections: await copy.connections(), processes: processes() };
		const took: number[] = [];
		copy.write('src/lib/server/edit.ts', 'export const edit = 0;\n');
		copy.edit('src/routes/readyz/+server.ts', /answer\(\{ ok,/g, 'answer({ ok, edit,');
		copy.edit('src/routes/readyz/+server.ts', /^/, "import { edit } from '$lib/server/edit';\n");
		for (let n = 1; n <= edits; n++) {
			copy.write('src/lib/server/edit.ts', `export const edit = ${n};\n`);
			const began = performance.now();
			const { edit } = await ask();
			took.push(performance.now() - began);
			if (edit !== n) throw new Error(`Asked after edit ${n}, the server answered with the code of ${edit}.`);
		}
		took.sort((a, b) => a - b);
		const after = { connections: await copy.connections(), processes: processes() };
		console.log(
			`development: from a save to the next answer, ${edits} times: median ${(took[edits / 2]! / 1000).toFixed(1)} s, most ${(took.at(-1)! / 1000).toFixed(1)} s`
		);
		console.log(
			`  connections to PostgreSQL: ${before.connections} before, ${after.connections} after; processes: ${before.processes} before, ${after.processes} after`
		);
	} finally {
		await copy.stop();
	}
}
