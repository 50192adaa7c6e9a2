// The documents room with 10,000 documents, and find over 100,000 pages of text.
import { chromium } from 'playwright';
import { chromiumOptions } from './chromium';
import type { Running } from './run';

const share = (values: readonly number[], part: number) => [...values].sort((a, b) => a - b)[Math.ceil(values.length * part) - 1]!;
const told = (values: readonly number[]) => `median ${share(values, 0.5).toFixed(0)} ms, 95 % within ${share(values, 0.95).toFixed(0)} ms`;

export async function benchRoom(running: Running, staff: string, person: { email: string; password: string }): Promise<void> {
	Object.assign(process.env, running.environment);
	const [{ sql, closeDatabase }, { makeMany }, { listDocuments }, { findDocuments }, { filtersOf, orderOf }] = await Promise.all([
		import('#server/db/client'),
		import('../demo/many'),
		import('#server/documents/list'),
		import('#server/documents/find'),
		import('#core/documents/filters')
	]);
	const [{ id }] = (await sql()<{ id: string }[]>`select id from person where role = 'owner'`) as unknown as [{ id: string }];
	const began = performance.now();
	await makeMany({ documents: 10_000, pages: 10, seed: 3, actor: id, now: Date.now() });
	await sql()`vacuum analyze`;
	console.log(`10,000 documents, 100,000 pages made in ${((performance.now() - began) / 1000).toFixed(0)} s`);

	const queries = [
		'',
		'door=open',
		'door=open&door=ajar&condition=look',
		'folder=Minutes&topic=water',
		'order=title',
		'order=-size&language=de',
		'order=-pages&placed=no&brought=year',
		'pages=200-&condition=sound&topic=safety&topic=boats'
	];
	const list: number[] = [];
	for (let round = 0; round < 26; round++)
		for (const query of queries) {
			const params = new URLSearchParams(query);
			const at = performance.now();
			await listDocuments({ filters: filtersOf(params), order: orderOf(params.get('order')), limit: 50, offset: round % 3 === 2 ? 500 : 0 });
			if (round > 0) list.push(performance.now() - at);
		}
	console.log(`the list of 10,000 with all filter counts, ${list.length} times over ${queries.length} filters and orders: ${told(list)}`);

	const words = await sql()<{ word: string; ndoc: number }[]>`select word, ndoc from ts_stat('select words from edition_page limit 20000') order by ndoc desc`;
	const common = words.filter((w) => w.ndoc > 2000).map((w) => w.word);
	const rare = words.filter((w) => w.ndoc > 3 && w.ndoc < 200).map((w) => w.word);
	const asked = (i: number): [string, string] => {
		const r = (n: number) => rare[(i * 37 + n * 101) % rare.length]!;
		const c = (n: number) => common[(i + n) % common.length]!;
		return (
			[
				['a rare word', r(1)],
				['two rare words', `${r(1)} or ${r(2)}`],
				['a rare and a common one', `${r(3)} ${c(1)}`],
				['a phrase', `"${c(1)} ${r(4)}"`],
				['a common word', c(2)],
				['a common one without another', `${c(3)} -${c(4)}`]
			] as [string, string][]
		)[i % 6]!;
	};
	const found = new Map<string, number[]>();
	for (let i = 0; i < 318; i++) {
		const [kind, q] = asked(i);
		const at = performance.now();
		await findDocuments(q);
		if (i >= 18) found.set(kind, [...(found.get(kind) ?? []), performance.now() - at]);
	}
	const all = [...found.values()].flat();
	console.log(`find over 100,000 pages, ${all.length} queries: ${told(all)}`);
	for (const [kind, values] of found) console.log(`  ${kind}: ${told(values)}`);
	await closeDatabase();

	const [ping, page]: [number[], number[]] = [[], []];
	for (let i = 0; i < 20; i++)
		for (const [path, into] of [
			['/healthz', ping],
			['/desk/documents', page]
		] as const) {
			const at = performance.now();
			await (await fetch(running.origin + path, { headers: { cookie: staff } })).text();
			into.push(performance.now() - at);
		}
	const browser = await chromium.launch(chromiumOptions);
	const context = await browser.newContext({ baseURL: running.origin, viewport: { width: 1280, height: 800 } });
	await context.request.post('/api/auth/sign-in/email', { data: person });
	const tab = await context.newPage();
	const at = performance.now();
	await tab.goto('/desk/documents');
	await tab.locator('tbody tr').nth(49).waitFor();
	const shown = performance.now() - at;
	await tab.waitForLoadState('networkidle');
	const turn = performance.now();
	await tab.getByRole('link', { name: 'Further' }).click();
	await tab.getByText(/51 to 100 of/).waitFor();
	console.log(
		`the room with 10,000: the page from the server ${told(page)} (${(share(page, 0.5) / share(ping, 0.5)).toFixed(0)} × /healthz), 50 rows stand in the browser after ${shown.toFixed(0)} ms, the next 50 after ${(performance.now() - turn).toFixed(0)} ms`
	);
	await browser.close();
}
