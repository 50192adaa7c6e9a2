// Whatever an operation’s own schema allows is answered or refused in words, never by a fault of ours: dates at the ends of the calendar,
// numbers too large to keep, halves of characters, addresses that lead nowhere.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { catalogue } from '#core/errors';
import { anyOf } from './any';
import { document, member, origin, staff, type Client } from './help';

const { operations } = await import('#server/http/operations');
type Operation = (typeof operations)[number];

/** Left out: what would change the site for all other tests, or fetch from elsewhere. */
const elsewhere = new Set(['patch /site', 'patch /navigation', 'post /bulk', 'post /from-web', 'post /webhooks', 'patch /folders', 'patch /topics']);
const named = (o: Operation) => `${o.method} ${o.path}`;
const seed = 1816;
let pages = 0;

/** Addresses on something of this test’s own. */
async function own(boss: Client): Promise<(o: Operation) => string> {
	const [made, someone] = [await document({ position: 'open' }), await member({ group: 'Any values' })];
	const path = `/any-values-${++pages}`;
	await boss.api('POST', '/pages', { path, title: 'Any values', layout: 'article' });
	return (o) =>
		`/api/v1${o.path
			.replace('{slug}', o.path.startsWith('/groups') ? 'any-values' : made.slug)
			.replace('{path}', encodeURIComponent(path))
			.replace('{id}', o.path.startsWith('/members') ? someone.id : '00000000-0000-4000-8000-000000000000')}`;
}

async function fits(o: Operation, sent: unknown, response: Response): Promise<void> {
	const said = await response.text();
	expect(response.status, `${named(o)} ${JSON.stringify(sent)?.slice(0, 400)}: ${said.slice(0, 200)}`).toBeLessThan(500);
	if (response.status < 400) return;
	expect(response.headers.get('content-type')).toBe('application/problem+json');
	const problem = JSON.parse(said) as { code: keyof typeof catalogue; title: string };
	expect(Object.keys(catalogue)).toContain(problem.code);
	expect(problem.title.length, problem.code).toBeGreaterThan(15);
}

describe('any value that a schema allows', () => {
	it('in a body', async () => {
		const boss = await staff();
		const place = await own(boss);
		const answered = new Set<number>();
		for (const o of operations.filter((o) => o.body && !o.form && !elsewhere.has(named(o)))) {
			for (const body of fc.sample(anyOf(o.body!), { numRuns: 25, seed })) {
				const response = await boss.send(o.method.toUpperCase(), place(o), body);
				answered.add(response.status);
				await fits(o, body, response);
			}
		}
		// some of all this was taken, and some refused
		expect([...answered]).toEqual(expect.arrayContaining([200, 201, 404, 422]));
	});
	it('in a query', async () => {
		const boss = await staff();
		const place = await own(boss);
		for (const o of operations.filter((o) => o.method === 'get' && o.query && o.path !== '/readership/live')) {
			for (const query of fc.sample(anyOf(o.query!), { numRuns: 12, seed }) as Record<string, unknown>[]) {
				// an address carries whole characters only
				const asked = Object.entries(query).map(([name, value]) => `${name}=${encodeURIComponent(String(value).replace(/\p{Surrogate}/gu, ''))}`);
				await fits(o, asked, await boss.get(`${place(o)}?${asked.join('&')}`));
			}
		}
	});
});

describe('addresses of pages', () => {
	it('with a query that makes no sense are answered all the same', async () => {
		const boss = await staff();
		const { slug } = await document({ position: 'open' });
		const paths = ['/', '/find', '/me', '/sign-in', `/d/${slug}`, `/d/${slug}/read`, `/d/${slug}/file`, `/d/${slug}/leaf/1.webp`];
		const desk = ['/documents', '/pages', '/people', '/readership', `/readership/${slug}`, '/readership/by/place', '/readership/by/refusal', '/upkeep', '/try'];
		const names = ['q', 'from', 'until', 'days', 'by', 'w', 'e', 'at', 'as', 'try', 'path', 'cursor', 'order', 'page', 'of', 'lang', 'read'];
		const values = fc.sample(anyOf({ type: 'string' }), { numRuns: 200, seed }) as string[];
		for (const [i, path] of [...paths, ...desk.map((d) => `/desk${d}`)].entries()) {
			for (const [j, name] of names.entries()) {
				const value = encodeURIComponent(values[(i * names.length + j) % values.length]!.replace(/\p{Surrogate}/gu, ''));
				const response = await boss.get(`${path}?${name}=${value}`);
				expect(response.status, `${path}?${name}=${value}`).toBeLessThan(500);
				await response.arrayBuffer();
			}
		}
	});
});

describe('what no schema says', () => {
	const refusal = async (boss: Client, body: string) => {
		const response = await fetch(`${origin}/api/v1/pages`, {
			method: 'POST',
			headers: { ...boss.headers, 'content-type': 'application/json' },
			body
		});
		return [response.status, ((await response.json()) as { title: string }).title];
	};
	it('a body nested without end, with half of a character, or with a zero in it is refused for that', async () => {
		const boss = await staff();
		const nested = (n: number) =>
			`{"path": "/nested", "title": "Nested", "layout": "article", "content": {"type": "doc", "content": [${'{"type": "blockquote", "content": ['.repeat(n)}{"type": "paragraph"}${']}'.repeat(n)}]}}`;
		for (const n of [150, 1_000, 20_000]) expect(await refusal(boss, nested(n))).toEqual([422, expect.stringContaining('nested too deep')]);
		expect((await refusal(boss, nested(50)))[0]).toBe(201);
		expect(await refusal(boss, '{"path": "/half", "title": "\\ud83d", "layout": "article"}')).toEqual([422, expect.stringContaining('half of a character')]);
		expect(await refusal(boss, '{"path": "/zero", "title": "a\\u0000b", "layout": "article"}')).toEqual([422, expect.stringContaining('value zero')]);
	});
	it('a cursor that was made up is a list from its beginning', async () => {
		const boss = await staff();
		const whole = await boss.api<{ items: unknown[] }>('GET', '/ledger?limit=3');
		for (const made of [
			'x',
			'2026-99-99T00:00:00.000Z 00000000-0000-4000-8000-000000000000',
			'2026-01-01T00:00:00.000Z ------------------------------------'
		]) {
			const cursor = Buffer.from(made).toString('base64url');
			expect((await boss.api<{ items: unknown[] }>('GET', `/ledger?limit=3&cursor=${cursor}`)).items.length).toBe(whole.items.length);
		}
	});
	it('a report from the beginning of time goes over a hundred years', async () => {
		const report = await (await staff()).api<{ period: { length: number }; bars: unknown[] }>('GET', '/readership/overview?from=1000-01-01');
		expect(report.period.length).toBe(36_525);
		expect(report.bars.length).toBeLessThanOrEqual(1_201);
	});
});
