// Behind nginx as it is set up by operating/nginx.conf, beside nginx alone and beside the web server by itself.
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { bringOpen } from './bring';
import { load } from './load';
import { startNginx } from './nginx';
import { noisePdf } from './noise-pdf';
import type { Running } from './run';

const rounds = 3;
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!;
const headers = { 'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' };

export async function benchProxy(running: Running, staff: string): Promise<void> {
	const { origin, data } = running;
	const nginx = await startNginx({ ports: [Number(new URL(origin).port)], files: join(data, 'files'), folder: data, at: join(data, 'nginx') });
	try {
		for (const bytes of [100_000, 5_000_000]) {
			const name = `proxied-${bytes}.pdf`;
			const content = await noisePdf(bytes);
			writeFileSync(join(data, name), content);
			const slug = await bringOpen(origin, staff, content, name);
			const asked = { alone: `${nginx.plain}/${name}`, itself: `${origin}/d/${slug}/file`, behind: `${nginx.origin}/d/${slug}/file` };
			const got = Buffer.from(await (await fetch(asked.behind, { headers })).arrayBuffer());
			if (!got.equals(readFileSync(join(data, name)))) throw new Error('behind nginx comes another file');
			const seen = { alone: [] as number[], itself: [] as number[], behind: [] as number[] };
			for (let round = 0; round < rounds; round++)
				for (const which of ['alone', 'itself', 'behind'] as const) seen[which].push((await load(asked[which], { headers, seconds: 4 })).perSecond);
			const [alone, itself, behind] = [median(seen.alone), median(seen.itself), median(seen.behind)];
			console.log(
				`a file of ${bytes / 1000} kB, 32 connections: nginx alone ${alone.toFixed(0)}/s; the web server by itself ${itself.toFixed(0)}/s; behind nginx ${behind.toFixed(0)}/s, ${(behind / alone).toFixed(2)} of nginx, ${(behind / itself).toFixed(2)} of the web server`
			);
			rmSync(join(data, name));
		}
	} finally {
		await nginx.stop();
	}
}
