// Lanes: so many at once, so many waiting, and no place takes all of it.
import { expect, it } from 'vitest';
import { IanuaError } from '#core/errors';
import { Lane } from '#server/lanes';
import { document, qpdf, pdf, send, staff, visitor, type DocumentJson } from './help';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

it('a lane does so many at once, in their order, and says it is busy beyond those that wait, for one place or for all', async () => {
	const lane = new Lane({ atOnce: 2, waiting: 4, perPlace: 3 });
	const ends: (() => void)[] = [];
	let running = 0;
	let most = 0;
	const order: string[] = [];
	const work = (name: string) => () =>
		new Promise<string>((done) => {
			running++;
			most = Math.max(most, running);
			order.push(name);
			ends.push(() => {
				running--;
				done(name);
			});
		});
	const busy = (asked: Promise<unknown>) =>
		asked.then(
			() => false,
			(error: unknown) => error instanceof IanuaError && error.code === 'busy'
		);
	const asked = ['a1', 'a2', 'a3', 'b1', 'c1', 'd1'].map((name) => lane.run(name[0]!, work(name)));
	// one place has three already; and six are under way or waiting
	expect(await busy(lane.run('a', work('a4')))).toBe(true);
	expect(await busy(lane.run('e', work('e1')))).toBe(true);
	while (ends.length) {
		ends.shift()!();
		await new Promise((go) => setTimeout(go, 0));
	}
	expect([await Promise.all(asked), order, most]).toEqual([['a1', 'a2', 'a3', 'b1', 'c1', 'd1'], ['a1', 'a2', 'a3', 'b1', 'c1', 'd1'], 2]);
	// what failed lets the next one through
	await expect(lane.run('a', () => Promise.reject(new Error('no')))).rejects.toThrow('no');
	const again = lane.run('a', work('a5'));
	await new Promise((go) => setTimeout(go, 0));
	ends.shift()!();
	expect(await again).toBe('a5');
});

it('many finds at once are answered, or told when to come back; files go on meanwhile', async () => {
	const paper = await document({ position: 'open' });
	const finds = Array.from({ length: 80 }, (_, i) => visitor().get(`/api/v1/find?q=paper${i % 7}`));
	const file = await visitor().get(`/d/${paper.slug}/file`);
	expect(file.status).toBe(200);
	const answers = await Promise.all(finds);
	const statuses = new Set(answers.map((r) => r.status));
	for (const status of statuses) expect([200, 503]).toContain(status);
	expect(statuses.has(200)).toBe(true);
	for (const refused of answers.filter((r) => r.status === 503))
		expect([refused.headers.get('retry-after'), ((await refused.json()) as { code: string }).code]).toEqual(['2', 'busy']);
});

it('an attachment is taken out once, and sent to so many at once that others are not kept waiting', async () => {
	const path = join(mkdtempSync(join(tmpdir(), 'ianua-lanes-')), 'notes.txt');
	writeFileSync(path, 'notes '.repeat(1000));
	const bytes = await qpdf(await pdf(`Attached ${crypto.randomUUID()}`), (a, b) => [a, '--add-attachment', path, '--', b]);
	const made = (await (await send(bytes, 'attached.pdf')).json()) as DocumentJson;
	await (await staff()).api('PATCH', `/documents/${made.slug}`, { door: { position: 'open' } });
	const ask = () => visitor().get(`/d/${made.slug}/attachment/1`);
	const answers = await Promise.all(Array.from({ length: 30 }, ask));
	const statuses = answers.map((r) => r.status);
	expect(new Set(statuses)).toEqual(new Set([200, 503]));
	for (const got of answers.filter((r) => r.status === 200)) expect(await got.text()).toBe('notes '.repeat(1000));
	const refused = answers.find((r) => r.status === 503)!;
	expect([refused.headers.get('retry-after'), ((await refused.json()) as { code: string }).code]).toEqual(['2', 'busy']);
	// whoever comes one after the other is never refused: each has left the lane when its bytes have
	for (let n = 0; n < 20; n++) expect(await (await ask()).text()).toBe('notes '.repeat(1000));
	// nor does a refusal stay in it
	for (let n = 0; n < 20; n++) expect((await visitor().get(`/d/${made.slug}/attachment/2`)).status).toBe(404);
	expect((await ask()).status).toBe(200);
});
