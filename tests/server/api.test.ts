// The JSON API: problem details (RFC 9457), what is checked, origins, changes and the audit trail.
import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { document, member, origin, staff, visitor, type DocumentJson } from './help';

const { sql } = await import('#server/db/client');
const { orderNames } = await import('#core/documents/filters');
const problem = async (response: Response) => ({
	...((await response.json()) as { code: string; status: number; title: string }),
	type: response.headers.get('content-type')
});

describe('errors', () => {
	it('a method that an address does not take is a problem that names those that it does', async () => {
		const boss = await staff();
		for (const [method, path, allow] of [
			['DELETE', '/api/v1/folders', 'GET, PATCH, HEAD'],
			['POST', '/api/v1/ledger', 'GET, HEAD']
		] as const) {
			const response = await boss.send(method, path, method === 'POST' ? {} : undefined);
			expect([response.status, response.headers.get('allow')]).toEqual([405, allow]);
			expect(await problem(response)).toMatchObject({
				type: 'application/problem+json',
				code: 'method-not-allowed',
				title: expect.stringContaining(allow) as string
			});
		}
	});
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
	});
	/** All of a list, some at a time; `between` is done once, in the middle of it. */
	async function walked<T>(path: string, limit: number, between = () => Promise.resolve<unknown>(null)): Promise<T[]> {
		const boss = await staff();
		const seen: T[] = [];
		let cursor: string | null = '';
		for (let n = 0; cursor !== null; n++) {
			const answer: { items: T[]; next: string | null } = await boss.api('GET', `${path}limit=${limit}${cursor && `&cursor=${cursor}`}`);
			seen.push(...answer.items);
			// the last part of a list is no empty one
			if (n) expect(answer.items.length).toBeGreaterThan(0);
			cursor = answer.next;
			if (n === 0) await between();
		}
		return seen;
	}
	it('the list goes on behind its last row, in every order; what comes and goes meanwhile shifts nothing', async () => {
		const boss = await staff();
		const folder = `Cursors ${randomUUID().slice(0, 8)}`;
		const made: DocumentJson[] = [];
		for (let n = 0; n < 7; n++) made.push(await document({ position: n % 2 ? 'open' : 'keyed', groups: [] }, 1 + (n % 3)));
		for (const [n, { slug }] of made.entries()) await boss.api('PATCH', `/documents/${slug}`, { folder, title: n < 4 ? 'The same title' : `Title ${n % 2}` });
		const slugs = made.map((d) => d.slug).sort();
		const path = `/documents?folder=${encodeURIComponent(folder)}&`;
		for (const order of orderNames.flatMap((name) => (name === 'match' ? [] : [name, `-${name}`]))) {
			const [whole, parts] = [await walked<DocumentJson>(`${path}order=${order}&`, 200), await walked<DocumentJson>(`${path}order=${order}&`, 2)];
			expect([order, parts.map((d) => d.slug)]).toEqual([order, whole.map((d) => d.slug)]);
			expect([order, parts.map((d) => d.slug).sort()]).toEqual([order, slugs]);
		}
		const found = await walked<DocumentJson>(`/documents?q=${encodeURIComponent('The same title')}&folder=${encodeURIComponent(folder)}&`, 2);
		expect(new Set(found.map((d) => d.slug)).size).toBe(found.length);
		expect(found.length).toBe(4);
		// one comes in at the top, and one of those shown goes
		const newest = made.at(-1)!;
		const rest = await walked<DocumentJson>(path, 2, async () => {
			const late = await document();
			await boss.api('PATCH', `/documents/${late.slug}`, { folder });
			await boss.api('DELETE', `/documents/${newest.slug}`);
		});
		expect(rest.map((d) => d.slug)).toEqual([...made].reverse().map((d) => d.slug));
		// a cursor of another order, and one that was made up
		const { next } = await boss.api<{ next: string }>('GET', `${path}order=title&limit=2`);
		for (const wrong of [`${path}order=size&cursor=${next}`, `${path}cursor=${Buffer.from('["-brought","x"]').toString('base64url')}`, `${path}cursor=abc`])
			expect((await boss.send('GET', `/api/v1${wrong}`)).status).toBe(422);
		// of the right shape and yet of no list
		for (const time of ['yesterday or so', '2026-19-39 12:00:00+00']) {
			const odd = Buffer.from(JSON.stringify(['-brought', time, made[0]!.id])).toString('base64url');
			expect((await boss.send('GET', `/api/v1${path}cursor=${odd}`)).status).toBe(422);
		}
	});
	it('find goes on behind its last document, as it is written or by a title like it; mismatches behind the last of them', async () => {
		const boss = await staff();
		const word = `Quillwort${randomUUID().slice(0, 8)}`;
		const named = async (n: number) => {
			const { slug } = await document({ position: 'shut' }, 1);
			await boss.api('PATCH', `/documents/${slug}`, { title: `${word} ${n}` });
			return slug;
		};
		const slugs = [await named(1), await named(2), await named(3), await named(4), await named(5)];
		let late = '';
		const found = (await walked<{ slug: string }>(`/find?q=${word}&`, 2, async () => (late = await named(6)))).map(({ slug }) => slug);
		expect(found.filter((slug) => slug !== late).sort()).toEqual([...slugs].sort());
		expect(new Set(found).size).toBe(found.length);
		const mistyped = await walked<{ slug: string }>(`/find?q=${word.replace('w', 'v')}&`, 4);
		expect(mistyped.map(({ slug }) => slug).sort()).toEqual([...slugs, late].sort());
		for (const wrong of ['20', Buffer.from(JSON.stringify(['find', 'fits x', randomUUID()])).toString('base64url')])
			expect((await boss.send('GET', `/api/v1/find?q=${word}&cursor=${wrong}`)).status).toBe(422);

		const path = `/${word.toLowerCase()}`;
		const content = slugs.map((slug) => ({ type: 'paragraph', content: [{ type: 'placement', attrs: { document: slug, form: 'text', press: 'page' } }] }));
		await boss.api('POST', '/pages', { path, title: word, door: { position: 'open' }, content: { type: 'doc', content } });
		const of = `/mismatches?page=${encodeURIComponent(path)}&draft=&`;
		const ends = await walked<{ document: string; kind: string }>(of, 2, () => boss.api('PATCH', `/documents/${slugs[4]}`, { description: 'Looked at' }));
		expect(ends.map(({ document, kind }) => [document, kind]).sort()).toEqual(slugs.map((slug) => [slug, 'dead-end']).sort());
		expect((await boss.send('GET', `/api/v1${of}cursor=2`)).status).toBe(422);
	});
	it('members go on behind the last name', async () => {
		for (let n = 0; n < 5; n++) await member({ group: 'Gone through' });
		const parts = await walked<{ email: string }>('/members?group=gone-through&', 2, async () => member({ group: 'Gone through' }));
		expect(new Set(parts.map((m) => m.email)).size).toBe(parts.length);
		expect(parts.length).toBeGreaterThanOrEqual(5);
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
	it('a program in a browser speaks from an origin that the owner named, by a token and never by a cookie', async () => {
		const boss = await staff();
		const made = await document();
		const [named, other] = ['https://programs.example.org', 'https://others.example.org'];
		const { token } = await boss.api<{ token: string }>('POST', '/tokens', { label: 'In a browser', scopes: ['documents:read', 'documents:write'] });
		const program = { authorization: `Bearer ${token}` };
		const path = `${origin}/api/v1/documents/${made.slug}`;
		const ask = (from: string, method: string, headers: Record<string, string> = {}, body?: string) =>
			fetch(path, {
				method,
				headers: { origin: from, 'sec-fetch-site': 'cross-site', 'content-type': 'application/json', ...headers },
				...(body ? { body } : {})
			});
		const before = { 'access-control-request-method': 'PATCH', 'access-control-request-headers': 'authorization, content-type, if-match' };
		const allowed = (response: Response) => response.headers.get('access-control-allow-origin');
		// named by nobody: nothing is carried out, and nothing can be read
		expect([(await ask(named, 'PATCH', program, '{"description":"No"}')).status, allowed(await ask(named, 'OPTIONS', before))]).toEqual([403, null]);
		const none = await boss.send('PATCH', '/api/v1/site', { programOrigins: ['programs of ours'] });
		expect([none.status, (await problem(none)).title]).toEqual([422, expect.stringContaining('“programs of ours”, which is not an origin, as https://')]);
		await boss.api('PATCH', '/site', { programOrigins: [named] });
		const asked = await ask(named, 'OPTIONS', before);
		expect([asked.status, allowed(asked), asked.headers.get('access-control-allow-methods')?.includes('PATCH')]).toEqual([204, named, true]);
		for (const header of ['authorization', 'content-type', 'if-match']) expect(asked.headers.get('access-control-allow-headers')).toContain(header);
		const done = await ask(named, 'PATCH', program, '{"description":"By a program"}');
		expect([done.status, allowed(done), done.headers.get('access-control-allow-credentials'), done.headers.get('vary')?.includes('Origin')]).toEqual([
			200,
			named,
			null,
			true
		]);
		expect((await ask(named, 'GET', program)).headers.get('access-control-expose-headers')).toContain('etag');
		// a refusal can be read as well
		const refused = await ask(named, 'PATCH', program, '{"colour":1}');
		expect([refused.status, allowed(refused)]).toEqual([422, named]);
		// who is signed in is nobody there
		const cookie = { cookie: boss.headers.cookie! };
		expect([(await ask(named, 'GET', cookie)).status, (await ask(named, 'PATCH', cookie, '{"description":"By a cookie"}')).status]).toEqual([401, 401]);
		// another origin is as before, and so is everything that is not the API
		expect([(await ask(other, 'PATCH', program, '{"description":"No"}')).status, allowed(await ask(other, 'GET', program))]).toEqual([403, null]);
		for (const elsewhere of ['/desk/documents', '/sign-in', '/'])
			expect(allowed(await fetch(origin + elsewhere, { headers: { origin: named, ...cookie } }))).toBeNull();
		expect((await fetch(`${origin}/sign-in?/out`, { method: 'POST', headers: { origin: named, ...cookie }, body: new FormData() })).status).toBe(403);
		await boss.api('PATCH', '/site', { programOrigins: [] });
		expect((await boss.api<DocumentJson>('GET', `/documents/${made.slug}`)).description).toBe('By a program');
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
