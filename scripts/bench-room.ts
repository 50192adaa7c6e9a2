// The documents room with 10,000 documents, and find over 100,000 pages of text; with IANUA_BENCH_DOCUMENTS=100000 over ten times as many.
import { chromium } from 'playwright';
import { theRow } from '#server/db/rows';
import { chromiumOptions } from './chromium';
import { Random } from '../demo/random';
import type { Running } from './run';

const share = (values: readonly number[], part: number) => [...values].sort((a, b) => a - b)[Math.ceil(values.length * part) - 1]!;
/** How many documents: 10,000, or as many as IANUA_BENCH_DOCUMENTS says. */
const documents = Number(process.env.IANUA_BENCH_DOCUMENTS ?? 10_000);
const named = (n: number) => n.toLocaleString('en-GB');
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
	const { id } = theRow(await sql()<{ id: string }[]>`select id from person where role = 'owner'`);
	const began = performance.now();
	await makeMany({ documents, pages: 10, seed: 3, actor: id, now: Date.now() });
	await sql()`vacuum analyze`;
	console.log(`${named(documents)} documents, ${named(documents * 10)} pages made in ${((performance.now() - began) / 1000).toFixed(0)} s`);

	const queries = [
		'',
		'door=open',
		'door=open&door=ajar&condition=look',
		'folder=Minutes&topic=water',
		'order=title',
		'order=-readers',
		'order=-size&language=de',
		'order=-pages&placed=no&brought=year',
		'pages=200-&condition=sound&topic=safety&topic=boats'
	];
	const lists = new Map<string, number[]>();
	for (let round = 0; round < 26; round++)
		for (const query of queries) {
			const params = new URLSearchParams(query);
			const started = performance.now();
			await listDocuments({ filters: filtersOf(params), order: orderOf(params.get('order')), limit: 50, offset: round % 3 === 2 ? 500 : 0 });
			if (round > 0) lists.set(query, [...(lists.get(query) ?? []), performance.now() - started]);
		}
	const list = [...lists.values()].flat();
	console.log(`the list of ${named(documents)} with all filter counts, ${list.length} times over ${queries.length} filters and orders: ${told(list)}`);
	for (const [query, values] of lists) console.log(`  ${query || 'no filter'}: ${told(values)}`);

	// words by how many pages have them, of the English ones; what is asked for is drawn from each kind in the shares given
	const words = await sql()<{ word: string; part: number }[]>`
		select word, ndoc / (select count(*)::float from edition_page where config = 'find_english'::regconfig) as part
		from ts_stat('select words from edition_page where config = ''find_english''::regconfig') order by word`;
	const between = (least: number, most: number) => words.filter((w) => w.part >= least && w.part < most).map((w) => w.word);
	const [rare, usual, common] = [between(0.0002, 0.01), between(0.01, 0.2), between(0.2, 1)];
	const random = new Random(11);
	const [r, u, c] = [rare, usual, common].map((words) => () => random.pick(words)) as [() => string, () => string, () => string];
	const kinds: readonly [kind: string, share: number, ask: () => string][] = [
		['a rare word (on less than 1 % of the pages)', 30, r],
		['either of two rare words', 10, () => `${r()} or ${r()}`],
		['a rare word and a common one (on over 20 %)', 15, () => `${r()} ${c()}`],
		['a usual word (on 1 to 20 %)', 15, u],
		['two usual words', 15, () => `${u()} ${u()}`],
		['a phrase of a common and a usual word', 5, () => `"${c()} ${u()}"`],
		['a common word', 5, c],
		['a common word without another', 5, () => `${c()} -${c()}`]
	];
	const found = new Map<string, number[]>();
	for (let round = 0; round < 3; round++)
		for (const [kind, share, ask] of kinds)
			for (let i = 0; i < share; i++) {
				const q = ask();
				const started = performance.now();
				await findDocuments(q, 'in-use');
				if (round > 0) found.set(kind, [...(found.get(kind) ?? []), performance.now() - started]);
			}
	const all = [...found.values()].flat();
	console.log(`find over ${named(documents * 10)} pages, ${all.length} queries: ${told(all)}`);
	for (const [kind, values] of found) console.log(`  ${kind}: ${values.length}, ${told(values)}`);
	await closeDatabase();

	const [ping, page]: [number[], number[]] = [[], []];
	for (let i = 0; i < 20; i++)
		for (const [path, into] of [
			['/healthz', ping],
			['/desk/documents', page]
		] as const) {
			const started = performance.now();
			await (await fetch(running.origin + path, { headers: { cookie: staff } })).text();
			into.push(performance.now() - started);
		}
	const browser = await chromium.launch(chromiumOptions);
	const context = await browser.newContext({ baseURL: running.origin, viewport: { width: 1280, height: 800 } });
	await context.request.post('/api/auth/sign-in/email', { data: person });
	const tab = await context.newPage();
	const started = performance.now();
	await tab.goto('/desk/documents');
	await tab.locator('tbody tr').nth(49).waitFor();
	const shown = performance.now() - started;
	await tab.waitForLoadState('networkidle');
	const turn = performance.now();
	await tab.getByRole('link', { name: 'Further' }).click();
	await tab.getByText(/51 to 100 of/).waitFor();
	console.log(
		`the room with ${named(documents)}: the page from the server ${told(page)} (${(share(page, 0.5) / share(ping, 0.5)).toFixed(0)} × /healthz), 50 rows stand in the browser after ${shown.toFixed(0)} ms, the next 50 after ${(performance.now() - turn).toFixed(0)} ms`
	);
	await browser.close();
}
