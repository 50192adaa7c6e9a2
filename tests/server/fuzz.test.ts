// Whatever stands in an address: an answer in words, never a fault of ours. For a bounded time, over all routes there are.
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { document, member, origin, staff, visitor, type Client } from './help';
import { addressOf, routes } from './routes';

/** Names that addresses of ours carry, and some that none does. */
const names =
	'q who page cursor limit from until days by edition e w at try as order folder topic door condition placed language pages brought aside person group standing revision before after url format maxwidth maxheight preview read of kind thing actor lang remember place path search to error token over frame save for docx x'.split(
		' '
	);
const odd = [
	'-'.repeat(34),
	'"a '.repeat(95),
	'('.repeat(95),
	'a or '.repeat(60),
	'-"-"-"',
	'1e18',
	'-1',
	'0.5',
	'NaN',
	'9007199254740993',
	'2147483648',
	'99999999999999999999',
	'\u0000',
	'\ud800',
	'\u202e',
	'%',
	"'",
	'\\',
	'..',
	'../../etc/passwd',
	'member:x',
	'group:none',
	'key:00000000-0000-0000-0000-000000000000',
	'2026-02-30',
	'2026-01-01T00:00:00Z',
	'99999-01-01',
	'😀'.repeat(100),
	'x'.repeat(3000),
	'[]',
	'{}',
	'https://127.0.0.1/d/x',
	''
];
/** Half of a character cannot stand in an address at all. */
const wellFormed = (text: string) => text.replace(/\p{Surrogate}/gu, '\ufffd');
const value = fc.oneof({ weight: 3, arbitrary: fc.constantFrom(...odd) }, fc.string({ unit: 'grapheme', maxLength: 40 }), fc.integer().map(String));

it('gets no 5xx, from nobody’s hand', async () => {
	const paper = await document({ position: 'open' });
	const callers: Client[] = [await staff(), visitor(), await member()];
	const tree = routes().filter(({ id, methods, actions }) => !id.endsWith('/live') && (methods.includes('GET') || !methods.length || actions.length));
	const good = {
		slug: paper.slug,
		id: crypto.randomUUID(),
		message: crypto.randomUUID(),
		path: 'x',
		kind: 'svg',
		topic: 'door',
		page: '1',
		width: '300',
		number: '1',
		name: `${'a'.repeat(64)}.webp`,
		token: 'x'.repeat(43),
		call: 'x',
		provider: 'x',
		rest: 'x'
	};
	const request = fc.record({
		route: fc.constantFrom(...tree),
		caller: fc.constantFrom(...callers),
		params: fc.dictionary(
			fc.constantFrom(...Object.keys(good)),
			value.filter((v) => v !== '' && v !== '.' && v !== '..'),
			{ maxKeys: 1 }
		),
		query: fc.array(fc.tuple(fc.constantFrom(...names), value), { maxLength: 4 })
	});
	const faults: string[] = [];
	let asked = 0;
	const until = Date.now() + 45_000;
	await fc.assert(
		fc.asyncProperty(fc.array(request, { minLength: 6, maxLength: 6 }), async (requests) => {
			if (Date.now() > until) return;
			await Promise.all(
				requests.map(async ({ route, caller, params, query }) => {
					const filled = Object.fromEntries(Object.entries({ ...good, ...params }).map(([name, v]) => [name, encodeURIComponent(wellFormed(v))]));
					const search = query.map(([name, v]) => `${name}=${encodeURIComponent(wellFormed(v))}`).join('&');
					const path = `${addressOf(route.id, filled)}${search && `?${search}`}`;
					const response = await fetch(origin + path, { headers: caller.headers, redirect: 'manual' });
					await response.body?.cancel();
					asked++;
					if (response.status >= 500 && response.status !== 501) faults.push(`${response.status} ${path.slice(0, 300)}`);
				})
			);
		}),
		{ numRuns: 3000, seed: 20261127, endOnFailure: true }
	);
	expect(faults).toEqual([]);
	expect(asked).toBeGreaterThan(500);
});
