// A small file while many look for words and many ask for attachments: what the lanes keep apart.
import { execFileSync } from 'node:child_process';
import { theRow } from '#server/db/rows';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Random } from '../demo/random';
import { bringOpen } from './bring';
import { noisePdf } from './noise-pdf';
import type { Running } from './run';

const finders = 150;
const askers = 60;
const secondsEach = 8;
const share = (values: readonly number[], part: number) => [...values].sort((a, b) => a - b)[Math.ceil(values.length * part) - 1]!;

/** Asks for one address again and again until told to end; gives how long each whole answer took (ms), and how many were refused. */
function again(url: () => string, headers: Record<string, string>, ended: () => boolean) {
	const times: number[] = [];
	let refused = 0;
	const done = (async () => {
		while (!ended()) {
			const started = performance.now();
			const response = await fetch(url(), { headers });
			await response.arrayBuffer();
			if (response.ok) times.push(performance.now() - started);
			else {
				refused++;
				await new Promise((go) => setTimeout(go, 1000 * Number(response.headers.get('retry-after') ?? 1)));
			}
		}
	})();
	return { times, done, refused: () => refused };
}

export async function benchLoad(running: Running, staff: string): Promise<void> {
	Object.assign(process.env, running.environment);
	const [{ sql, closeDatabase }, { makeMany }] = await Promise.all([import('#server/db/client'), import('../demo/many')]);
	const { id } = theRow(await sql()<{ id: string }[]>`select id from person where role = 'owner'`);
	await makeMany({ documents: 3_000, pages: 10, seed: 23, actor: id, now: Date.now() });
	await sql()`vacuum analyze`;
	await closeDatabase();
	const bring = (bytes: Uint8Array, name: string) => bringOpen(running.origin, staff, bytes, name);
	const small = await noisePdf(100_000);
	const dir = mkdtempSync(join(tmpdir(), 'ianua-load-'));
	const [plain, attached, out] = [join(dir, 'a.pdf'), join(dir, 'notes.txt'), join(dir, 'b.pdf')];
	writeFileSync(plain, small);
	writeFileSync(attached, 'notes '.repeat(200_000));
	execFileSync('qpdf', [plain, '--add-attachment', attached, '--', out]);
	const [file, withAttachment] = [await bring(small, 'small.pdf'), await bring(readFileSync(out), 'attached.pdf')];
	rmSync(dir, { recursive: true });
	const reader = { 'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' };

	const measure = async () => {
		let over = false;
		const one = again(
			() => `${running.origin}/d/${file}/file`,
			reader,
			() => over
		);
		await new Promise((go) => setTimeout(go, secondsEach * 1000));
		over = true;
		await one.done;
		return one.times;
	};
	const alone = await measure();
	let over = false;
	const words = ['lock', 'water', 'canal', 'bridge', 'towpath', 'winter', 'the', 'boat', 'sluice', 'survey'];
	const dice = new Random(29);
	const word = () => `${dice.pick(words)} ${dice.pick(words)}`;
	const others = [
		...Array.from({ length: finders }, () =>
			again(
				() => `${running.origin}/api/v1/find?q=${encodeURIComponent(word())}`,
				reader,
				() => over
			)
		),
		...Array.from({ length: askers }, () =>
			again(
				() => `${running.origin}/d/${withAttachment}/attachment/1`,
				reader,
				() => over
			)
		)
	];
	await new Promise((go) => setTimeout(go, 2000));
	const loaded = await measure();
	over = true;
	await Promise.all(others.map((o) => o.done));
	const mixOf = (some: typeof others) =>
		`${some.reduce((n, o) => n + o.times.length, 0)} answered, ${some.reduce((n, o) => n + o.refused(), 0)} told to come back`;
	console.log(
		`a file of 100 kB alone: median ${share(alone, 0.5).toFixed(1)} ms, 95 % within ${share(alone, 0.95).toFixed(1)}; beside ${finders} finds and ${askers} askers of an attachment: ${share(loaded, 0.5).toFixed(1)} and ${share(loaded, 0.95).toFixed(1)} ms, ratio of medians ${(share(loaded, 0.5) / share(alone, 0.5)).toFixed(1)} (finds: ${mixOf(others.slice(0, finders))}; attachments: ${mixOf(others.slice(finders))})`
	);
}
