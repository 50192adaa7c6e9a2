// The JSON API: problem details (RFC 9457), what is checked, origins, changes and the audit trail.
import { describe, expect, it } from 'vitest';
import { document, member, origin, staff, visitor, type DocumentJson } from './help';

const { sql } = await import('#server/db/client');
const problem = async (response: Response) => ({
	...((await response.json()) as { code: string; status: number; title: string }),
	type: response.headers.get('content-type')
});

describe('errors', () => {
	it('are problem details with the catalogue’s code', async () => {
		const boss = await staff();
		for (const [response, status, code] of [
			[await visitor().get('/api/v1/groups'), 401, 'sign-in'],
			[await boss.get('/api/v1/documents/no-such'), 404, 'not-found'],
			[await boss.get('/api/v1/nothing'), 404, 'not-found'],
			[await boss.send('PATCH', '/api/v1/documents/x', undefined, { 'content-type': 'application/json' }), 400, 'not-json'],
			[await boss.get('/api/v1/documents?door=wide'), 422, 'not-valid']
		] as const)
			expect(await problem(response)).toMatchObject({ status, code, type: 'application/problem+json' });
	});
	it('say which part of a change is not right, and change nothing', async () => {
		const made = await document();
		const boss = await staff();
		for (const [change, words] of [
			[{ door: { position: 'wide' } }, 'door.position'],
			[{ door: { position: 'open', until: 'soon' } }, 'door.until'],
			[{ door: { position: 'open', from: '2027-02-01', until: '2027-01-01' } }, 'the hours end before they begin'],
			[{ door: { position: 'open', groups: ['nobody-knows'] } }, 'nobody-knows'],
			[{ door: { position: 'open', people: ['nobody@example.org'] } }, 'nobody@example.org'],
			[{ door: { position: 'open', follows: '/nowhere' } }, '/nowhere'],
			[{ slug: 'Not Clean' }, 'slug'],
			[{ title: '  ' }, 'title'],
			[{ colour: 'red' }, 'colour']
		] as const) {
			const answer = await problem(await boss.send('PATCH', `/api/v1/documents/${made.slug}`, change));
			expect(answer.status, words).toBe(422);
			expect(answer.title).toContain(words);
		}
		expect((await boss.api<DocumentJson>('GET', `/documents/${made.slug}`)).door).toMatchObject({ position: 'shut', groups: [], until: null });
	});
});

describe('a change', () => {
	it('touches only what it names, and writes the audit trail', async () => {
		const made = await document();
		const boss = await staff();
		await member({ group: 'Api group' });
		await boss.api('PATCH', `/documents/${made.slug}`, { door: { position: 'keyed', groups: ['api-group'], until: '2099-03-31', allow: { print: false } } });
		const after = await boss.api<DocumentJson>('PATCH', `/documents/${made.slug}`, { door: { allow: { save: false } } });
		expect(after.door).toMatchObject({ position: 'keyed', groups: ['api-group'], until: '2099-03-31', allow: { save: false, print: false } });
		expect(after.door.sentence).toBe('Api group, 1 person, may read until 31 March 2099.');
		const trail = await sql()<
			{ action: string; before: { position?: string }; after: { position?: string } }[]
		>`select action, before, after from audit where thing = ${made.id} order by at`;
		expect(trail.map((t) => t.action)).toEqual(['brought-in', 'door-set', 'door-set']);
		expect([trail[1]!.before.position, trail[1]!.after.position]).toEqual(['shut', 'keyed']);
	});
	it('of an address leaves the former one leading on, for good', async () => {
		const made = await document({ position: 'open' });
		const boss = await staff();
		const next = `${made.slug}-renamed`;
		await boss.api('PATCH', `/documents/${made.slug}`, { slug: next });
		const page = await visitor().get(`/d/${made.slug}?from=abcdef`);
		expect([page.status, page.headers.get('location')]).toEqual([308, `/d/${next}?from=abcdef`]);
		expect((await visitor().get(`/d/${made.slug}/file`)).status).toBe(200);
		const other = await document();
		expect((await boss.send('PATCH', `/api/v1/documents/${other.slug}`, { slug: made.slug })).status).toBe(409);
		await boss.api('PATCH', `/documents/${next}`, { slug: made.slug });
		expect((await visitor().get(`/d/${made.slug}`)).status).toBe(200);
	});
});

describe('lists', () => {
	it('filter, count and page', async () => {
		const boss = await staff();
		const made = await document({ position: 'ajar' });
		const list = await boss.api<{ items: { slug: string }[]; counts: { door: Record<string, number>; total: number } }>(
			'GET',
			`/documents?q=${encodeURIComponent(made.title)}`
		);
		expect(list.items.map((i) => i.slug)).toEqual([made.slug]);
		expect(list.counts).toMatchObject({ total: 1, door: { ajar: 1 } });
		const seen: string[] = [];
		let cursor: string | null = '0';
		while (cursor) {
			const answer: { items: { slug: string }[]; next: string | null } = await boss.api('GET', `/documents?limit=3&order=title&cursor=${cursor}`);
			seen.push(...answer.items.map((i) => i.slug));
			cursor = answer.next;
		}
		expect(new Set(seen).size).toBe(seen.length);
		expect(seen).toContain(made.slug);
	});
	it('a percent sign or an underscore in what is looked for means itself', async () => {
		expect((await (await staff()).api<{ items: unknown[] }>('GET', `/documents?q=${encodeURIComponent('%')}`)).items).toEqual([]);
	});
	it('groups come with their people of today', async () => {
		await member({ group: 'Grouped' });
		await member({ group: 'Grouped', until: '2026-01-01' });
		const { items } = await (await staff()).api<{ items: { slug: string; people: number }[] }>('GET', '/groups');
		expect(items.find((g) => g.slug === 'grouped')).toMatchObject({ people: 1 });
	});
});

describe('who may call', () => {
	it('the token of a session is no token of a program', async () => {
		const response = await fetch(`${origin}/api/auth/sign-in/email`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ email: 'olive@example.org', password: 'a-password-for-tests' })
		});
		const { token } = (await response.json()) as { token: string };
		expect(token).toBeTruthy();
		expect((await visitor().get('/api/v1/groups', { authorization: `Bearer ${token}` })).status).toBe(401);
	});
	it('a cookie with a forged signature is no sign-in', async () => {
		const [row] = await sql()<{ token: string }[]>`select token from session limit 1`;
		const { token } = row!;
		for (const value of [token, `${token}.`, `${token}.AAAA`, encodeURIComponent(`${token}.${'A'.repeat(43)}=`), '%', '.']) {
			expect((await visitor().get('/api/v1/groups', { cookie: `ianua.session_token=${value}` })).status, value).toBe(401);
		}
	});
	it('a wrong password is refused without saying which part was wrong; an account cannot be made by oneself', async () => {
		const post = (path: string, body: object) =>
			fetch(origin + path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
		const [wrong, unknown] = [
			await post('/api/auth/sign-in/email', { email: 'olive@example.org', password: 'wrong-password' }),
			await post('/api/auth/sign-in/email', { email: 'nobody@example.org', password: 'wrong-password' })
		];
		expect([wrong.status, unknown.status]).toEqual([401, 401]);
		expect(await wrong.text()).toBe(await unknown.text());
		expect((await post('/api/auth/sign-up/email', { email: 'new@example.org', password: 'a-long-password', name: 'New' })).ok).toBe(false);
	});
	it('a suspended account is signed out everywhere at once', async () => {
		const someone = await member({ group: 'Suspended' });
		const keyed = await document({ position: 'keyed', groups: ['suspended'] });
		expect((await someone.get(`/d/${keyed.slug}/file`)).status).toBe(200);
		await sql()`update person set suspended = true where id = ${someone.id}`;
		expect((await someone.get(`/d/${keyed.slug}/file`)).status).toBe(401);
	});
	it('a request from another website is not carried out, JSON or form', async () => {
		const made = await document();
		const boss = await staff();
		const elsewhere: Record<string, string>[] = [{ origin: 'https://evil.example' }, { origin: 'null' }, { 'sec-fetch-site': 'cross-site' }];
		for (const headers of elsewhere) {
			expect(await problem(await boss.send('PATCH', `/api/v1/documents/${made.slug}`, { title: 'Taken over' }, headers))).toMatchObject({
				status: 403,
				code: 'foreign-origin'
			});
			expect((await boss.send('POST', '/sign-in?/out', new FormData(), headers)).status).toBe(403);
		}
		expect((await boss.send('PATCH', `/api/v1/documents/${made.slug}`, { title: 'Mine' }, { origin })).status).toBe(200);
	});
	it('a body that is too large is not read', async () => {
		expect((await (await staff()).send('PATCH', '/api/v1/documents/x', { title: 'x'.repeat(2_100_000) })).status).toBe(413);
	});
});

it('/healthz says that the server is alive, /readyz that database, store and jobs answer', async () => {
	expect((await visitor().get('/healthz')).status).toBe(200);
	const response = await visitor().get('/readyz');
	expect([response.status, await response.json()]).toEqual([200, { ok: true }]);
});

it('every answer carries a request id', async () => {
	for (const path of ['/', '/api/v1/groups', '/healthz']) expect((await visitor().get(path)).headers.get('x-request-id'), path).toMatch(/^[0-9a-f-]{36}$/);
});
