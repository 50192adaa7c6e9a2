// What was found open once and stays closed: the sign-in library, tokens, invitations, guesses, the log, what a key changes.
import { beforeAll, describe, expect, it } from 'vitest';
import { IanuaError } from '#core/errors';
import { sql } from '#server/db/client';
import { problem } from '#server/http/problem';
import { settings } from '#server/settings';
import { countTry, placeOf, wentWell } from '#server/people/attempts';
import { inviteMember } from '#server/people/members';
import { scratch } from '../../scripts/scratch';
import { document, forgetTries, member, origin, staff, until, visitor, type Client, type DocumentJson } from './help';
import { linkIn, mailTo } from './mails';
import { begin, startOwn } from './own';

const html = { accept: 'text/html' };

describe('the sign-in library', () => {
	it('answers at the addresses that are ours to use, and nowhere else', async () => {
		const one = await member();
		const [before] = await sql()`select name, second_factor from person where id = ${one.id}`;
		for (const [method, call] of [
			['POST', 'update-user'],
			['GET', 'list-sessions'],
			['GET', 'get-session'],
			['POST', 'change-email'],
			['POST', 'change-password'],
			['POST', 'two-factor/enable'],
			['POST', 'two-factor/get-totp-uri'],
			['POST', 'sign-up/email'],
			['POST', 'request-password-reset'],
			['GET', 'reset-password/abc'],
			['POST', 'sign-in/magic-link'],
			['POST', 'revoke-sessions'],
			['POST', 'delete-user'],
			['GET', 'sign-in/email'],
			['GET', 'ok'],
			['GET', 'error']
		] as const)
			for (const spelt of [call, `%${call.charCodeAt(0).toString(16)}${call.slice(1)}`]) {
				const response = await one.send(
					method,
					`/api/auth/${spelt}`,
					method === 'POST' ? { name: 'Somebody Else', password: 'a-password-for-tests' } : undefined
				);
				expect([spelt, response.status]).toEqual([spelt, 404]);
			}
		expect((await sql()`select name, second_factor from person where id = ${one.id}`)[0]).toEqual(before);
	});
	it('gives a suspended account no session', async () => {
		const one = await member();
		await sql()`update person set suspended = true where id = ${one.id}`;
		await sql()`delete from session where person_id = ${one.id}`;
		const response = await fetch(`${origin}/api/auth/sign-in/email`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ email: one.email, password: 'a-password-for-tests' })
		});
		expect(response.status).toBe(403);
		expect(response.headers.getSetCookie().join()).not.toContain('session_token');
		expect(await sql()`select 1 from session where person_id = ${one.id}`).toHaveLength(0);
		const form = await fetch(`${origin}/sign-in?/in`, {
			method: 'POST',
			headers: { origin, ...html, 'content-type': 'application/x-www-form-urlencoded' },
			body: new URLSearchParams({ email: one.email, password: 'a-password-for-tests' })
		});
		expect(await form.text()).toContain('This account is suspended.');
	});
});

describe('a token', () => {
	const withToken = (token: string): Client => {
		const { headers, ...rest } = visitor();
		const own = { ...headers, authorization: `Bearer ${token}` };
		const send: Client['send'] = (method, path, body, more = {}) =>
			fetch(origin + path, {
				method,
				redirect: 'manual',
				headers: { ...own, ...(body === undefined || body instanceof FormData ? {} : { 'content-type': 'application/json' }), ...more },
				body: body === undefined ? undefined : body instanceof FormData ? body : JSON.stringify(body)
			});
		return { ...rest, headers: own, send, get: (path, more) => send('GET', path, undefined, more) };
	};
	const make = async (given: object) => (await staff()).api<{ id: string; token: string; until: string }>('POST', '/tokens', { label: 'Program', ...given });

	it('ends on its last day, and has one', async () => {
		const { id, token, until: ends } = await make({ scopes: ['documents:read'] });
		expect(ends > new Date().toISOString().slice(0, 10)).toBe(true);
		expect((await withToken(token).get('/api/v1/documents')).status).toBe(200);
		await sql()`update api_token set until_day = current_date - 2 where id = ${id}`;
		expect((await withToken(token).get('/api/v1/documents')).status).toBe(401);
		for (const wrong of [
			{ scopes: [] },
			{ scopes: ['everything'] },
			{},
			{ scopes: ['documents:read'], until: '2020-01-01' },
			{ scopes: ['documents:read'], until: '2099-01-01' },
			{ scopes: ['people:read'], folders: ['A'] }
		])
			expect([JSON.stringify(wrong), (await (await staff()).send('POST', '/api/v1/tokens', { label: 'x', ...wrong })).status]).toEqual([
				JSON.stringify(wrong),
				422
			]);
	});
	it('is nobody on the site but where its scope counts, and makes no other', async () => {
		const { token } = await make({ scopes: ['documents:read'] });
		const shut = await document();
		const program = withToken(token);
		expect((await program.get(`/d/${shut.slug}/file`)).status).toBe(200);
		expect((await program.get('/me')).status).toBe(403);
		expect((await program.get('/desk/documents')).status).toBe(403);
		expect((await program.send('POST', '/api/v1/tokens', { label: 'Child', scopes: ['documents:read'] })).status).toBe(403);
		const { token: pages } = await make({ scopes: ['pages:read'] });
		expect((await withToken(pages).get(`/d/${shut.slug}/file`)).status).toBe(404);
	});
	it('that is bound to folders is bound in lists, counts, files, and what it changes', async () => {
		const boss = await staff();
		const [inside, outside] = [await document(), await document()];
		await boss.api('PATCH', `/documents/${inside.slug}`, { folder: 'Bound' });
		await boss.api('PATCH', `/documents/${outside.slug}`, { folder: 'Unbound' });
		const { token } = await make({ scopes: ['documents:read', 'documents:write', 'readership:read'], folders: ['Bound'] });
		const program = withToken(token);
		const list = (await (await program.get('/api/v1/documents')).json()) as {
			items: { slug: string }[];
			counts: { all: number; total: number; folder: Record<string, number> };
		};
		expect([list.items.map((i) => i.slug), list.counts.all, list.counts.total, Object.keys(list.counts.folder)]).toEqual([[inside.slug], 1, 1, ['Bound']]);
		for (const [slug, status] of [
			[inside.slug, 200],
			[outside.slug, 404]
		] as const)
			for (const path of [
				`/api/v1/documents/${slug}`,
				`/api/v1/documents/${slug}/reach`,
				`/api/v1/documents/${slug}/ledger`,
				`/api/v1/readership/documents/${slug}`,
				`/d/${slug}/file`
			])
				expect([path, (await program.get(path)).status]).toEqual([path, status]);
		expect((await program.send('PATCH', `/api/v1/documents/${inside.slug}`, { description: 'Changed by a program' })).status).toBe(200);
		expect((await program.send('PATCH', `/api/v1/documents/${inside.slug}`, { folder: 'Unbound' })).status).toBe(403);
		expect((await program.send('PATCH', `/api/v1/documents/${outside.slug}`, { title: 'Taken over' })).status).toBe(404);
		for (const path of ['/api/v1/find?q=x', '/api/v1/folders', '/api/v1/intake', '/api/v1/ledger', '/api/v1/readership/overview'])
			expect([path, (await program.get(path)).status]).toEqual([path, path.includes('find') ? 200 : 403]);
		// find holds no program to its folders: one that is bound to some finds what a visitor finds
		const find = (client: Client) =>
			client
				.get(`/api/v1/find?q=${encodeURIComponent(outside.title)}`)
				.then(async (r) => ((await r.json()) as { items: { slug: string }[] }).items.map((i) => i.slug));
		const found = await find(program);
		expect([(await find(boss)).includes(outside.slug), found.includes(outside.slug)]).toEqual([true, false]);
		expect(found).toEqual(await find(visitor()));
		const before = Number((await sql()`select count(*) as n from document`)[0]!.n);
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(Buffer.from(`%PDF-1.4 ${crypto.randomUUID()}`))]), 'a.pdf');
		form.append('folder', 'Unbound');
		expect((await program.send('POST', '/api/v1/documents', form)).status).toBe(403);
		expect(Number((await sql()`select count(*) as n from document`)[0]!.n)).toBe(before);
	});
	it('takes with it, when it is withdrawn, the keys that it issued', async () => {
		const boss = await staff();
		const keyed = await document({ position: 'keyed' });
		const { id, token } = await make({ scopes: ['documents:write'] });
		const issued = (await (await withToken(token).send('POST', `/api/v1/documents/${keyed.slug}/keys`, { label: 'By a program' })).json()) as {
			id: string;
			url: string;
		};
		const handed = await boss.api<{ id: string; url: string }>('POST', `/documents/${keyed.slug}/keys`, { label: 'By hand' });
		const cookie = async (url: string) => (await fetch(url, { redirect: 'manual' })).headers.getSetCookie()[0]!.split(';')[0]!;
		const [a, b] = [await cookie(issued.url), await cookie(handed.url)];
		const read = async (held: string) => (await visitor().get(`/d/${keyed.slug}/file`, { cookie: held })).status;
		expect([await read(a), await read(b)]).toEqual([200, 200]);
		await boss.api('DELETE', `/tokens/${id}`);
		expect([await read(a), await read(b)]).toEqual([403, 200]);
	});
});

describe('an invitation', () => {
	it('goes by mail and is shown to nobody; without mail to an owner alone, and the first sign-in is confirmed once there is mail', async () => {
		const boss = await staff();
		const email = `shown-${process.pid}@example.org`;
		const { id } = await boss.api<{ id: string }>('POST', '/members', { name: 'Ivy Invited', email });
		expect(await boss.api('POST', `/members/${id}/invite`)).toEqual({ mailed: true, address: null });
		const [owner] = await sql()<{ id: string }[]>`select id from person where role = 'owner' limit 1`;
		const set = settings() as { IANUA_SMTP_URL?: string };
		const smtp = set.IANUA_SMTP_URL;
		set.IANUA_SMTP_URL = undefined;
		let address: string;
		try {
			const as = (role: 'owner' | 'editor') => inviteMember(id, { id: owner!.id, name: 'O', email: 'o@example.org', role });
			expect(await as('editor')).toEqual({ mailed: false, address: null });
			address = (await as('owner')).address!;
		} finally {
			set.IANUA_SMTP_URL = smtp;
		}
		expect(address).toMatch(/\/invite\/[\w-]{40,}$/);
		const taken = await fetch(address, {
			method: 'POST',
			redirect: 'manual',
			headers: { origin, ...html, 'content-type': 'application/x-www-form-urlencoded' },
			body: new URLSearchParams({ name: 'Ivy Invited', password: 'chosen-by-somebody' })
		});
		// whoever had the address chose a password: the mailbox has the last word
		expect(taken.headers.getSetCookie().join()).not.toContain('session_token');
		expect(taken.headers.get('location')).toBe('/sign-in?confirm');
		expect(await (await fetch(`${origin}/sign-in?confirm`)).text()).toContain('a mail asks you to confirm');
		const link = linkIn(await mailTo(email, /^Sign in/));
		const token = new URL(link).searchParams.get('token')!;
		const entered = await fetch(`${origin}/api/auth/magic-link/verify?token=${token}&callbackURL=/me&errorCallbackURL=/sign-in`, { redirect: 'manual' });
		expect([entered.status, entered.headers.get('location')]).toEqual([302, `${origin}/me`]);
		expect(entered.headers.getSetCookie().join()).toContain('session_token');
	});
});

describe('guesses', () => {
	const refused = async (name: string, address: string) =>
		countTry(name, address).then(
			() => false,
			(error: unknown) => error instanceof IanuaError && error.code === 'too-many-tries'
		);
	it('say when to try again: in the error, and by Retry-After whoever answers', async () => {
		const name = `test ${crypto.randomUUID()}`;
		for (let i = 0; i < 10; i++) await countTry(name, '192.0.2.9');
		const error = await countTry(name, '192.0.2.9').then(
			() => null,
			(e: unknown) => e
		);
		expect(error).toMatchObject({ code: 'too-many-tries', facts: { most: '10', window: '900' } });
		const { headers, status } = problem(error, 'x');
		const seconds = Number((error as IanuaError).facts.seconds);
		expect(seconds).toBeGreaterThan(890);
		expect(seconds).toBeLessThanOrEqual(900);
		expect([status, headers.get('retry-after'), headers.get('ratelimit'), headers.get('ratelimit-policy')]).toEqual([
			429,
			String(seconds),
			`"tries";r=0;t=${seconds}`,
			'"tries";q=10;w=900'
		]);
		// a form that was sent too often
		const { slug } = await document({ position: 'keyed', groups: [] });
		const knocks = async () =>
			fetch(`${origin}/d/${slug}/knock`, {
				method: 'POST',
				headers: { origin, accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' },
				body: new URLSearchParams({ email: 'somebody@example.org', words: 'Let me in' })
			});
		let last = await knocks();
		for (let i = 0; i < 15 && last.status !== 429; i++) last = await knocks();
		expect([last.status, Number(last.headers.get('retry-after'))]).toEqual([429, 900]);
	});
	it('are counted by place, of IPv6 by its first 64 bits, and by what is guessed at; who came in before is not locked out by others', async () => {
		const name = `test ${crypto.randomUUID()}`;
		for (let i = 0; i < 10; i++) expect(await refused(name, '2001:db8:1:2::1')).toBe(false);
		// the same house, another number
		expect(await refused(name, '2001:db8:1:2:ffff::9')).toBe(true);
		expect(await refused(name, '2001:db8:1:3::1')).toBe(false);
		await wentWell(name, '192.0.2.77');
		let stopped = 0;
		for (let i = 0; i < 120; i++) if (await refused(name, `198.51.100.${i}`)) stopped++;
		expect(stopped).toBeGreaterThan(20);
		expect(await refused(name, '203.0.113.1')).toBe(true);
		expect(await refused(name, '192.0.2.77')).toBe(false);
	});
	it('of a key’s password lock nobody else out', async () => {
		expect(placeOf('::ffff:192.0.2.1')).toBe('192.0.2.1');
		expect(placeOf('2001:db8::1')).toBe(placeOf('2001:db8:0:0:1::'));
	});
});

describe('the log', () => {
	it('names routes, never addresses: no key, invitation or token stands in it', async () => {
		const { path: data, drop } = scratch('log');
		let said = '';
		const own = await startOwn({ data, log: 'debug', output: (text) => (said += text) });
		try {
			await begin(own);
			said = '';
			const secret = 'SECRETSECRETSECRETSECRET';
			for (const path of [
				`/k/${secret}`,
				`/invite/${secret}`,
				`/sign-in/new-password?token=${secret}`,
				`/sign-in/link?token=${secret}`,
				`/api/auth/reset-password/${secret}`,
				`/api/auth/magic-link/verify?token=${secret}`,
				`/${secret}`,
				`/d/${secret}/file`,
				`/%6b/${secret}`,
				`/desk/people?q=${secret}`,
				`/api/v1/documents/${secret}`
			])
				for (const method of ['GET', 'POST'])
					await fetch(own.origin + path, {
						method,
						redirect: 'manual',
						headers: { ...html, 'content-type': 'application/x-www-form-urlencoded' },
						body: method === 'POST' ? `password=${secret}` : undefined
					});
			await until(() => Promise.resolve(said.includes('"route":"/k/[token]"')));
			expect(said).not.toContain(secret);
		} finally {
			await own.stop();
			drop();
		}
	});
});

describe('a key', () => {
	it('changes what its holder may do with its document, and nothing else: not the navigation', async () => {
		const boss = await staff();
		const { slug } = await boss.api<{ slug: string }>('POST', '/groups', { name: `Kept ${process.pid}` });
		await boss.api('POST', '/pages', {
			path: `/kept-${process.pid}`,
			title: 'Only for the kept',
			layout: 'article',
			content: { type: 'doc', content: [] },
			door: { position: 'keyed', groups: [slug] }
		});
		await boss.api('POST', `/pages/kept-${process.pid}/publish`, {});
		await sql()`update page set navigation = 50 where path = ${`/kept-${process.pid}`}`;
		const keyed = await document({ position: 'keyed', groups: [slug] });
		const { url } = await boss.api<{ url: string }>('POST', `/documents/${keyed.slug}/keys`, { label: 'Guest' });
		const cookie = (await fetch(url, { redirect: 'manual' })).headers.getSetCookie()[0]!.split(';')[0]!;
		const page = await visitor().get(`/d/${keyed.slug}`, { ...html, cookie });
		const text = await page.text();
		expect([page.status, text.includes(keyed.title), text.includes('Only for the kept')]).toEqual([200, true, false]);
		const theirs = await (await member({ group: `Kept ${process.pid}` })).get(`/d/${keyed.slug}`, html);
		expect(await theirs.text()).toContain('Only for the kept');
	});
});

describe('addresses of documents', () => {
	it('lead to documents alone, whatever is written in them', async () => {
		const one = await member();
		for (const path of ['/d/%2e%2e%2fme%2frecord.json%3f/file', '/d/..%2f..%2fme/file', '/d/%2e%2e%2fdesk/file', '/d/a%2fturned-away%3f/file']) {
			const response = await one.get(path, html);
			expect([path, response.status]).toEqual([path, 404]);
			expect(await response.text()).not.toContain('memberships');
		}
	});
	it('what is hidden is entered in the ledger after the answer, and is entered', async () => {
		const shut = await document();
		expect((await visitor().get(`/d/${shut.slug}/file`)).status).toBe(404);
		const count = async () => Number((await sql()`select count(*) as n from ledger where document_id = ${shut.id} and kind = 'turned-away'`)[0]!.n);
		await until(async () => (await count()) > 0);
		expect(await count()).toBe(1);
	});
});

describe('a knock', () => {
	beforeAll(forgetTries);
	it('that waits is not rewritten by whoever gives the same address', async () => {
		const keyed = await document({ position: 'keyed' });
		const one = await member();
		const knock = (client: Client, words: string) =>
			fetch(`${origin}/d/${keyed.slug}/knock`, {
				method: 'POST',
				headers: { ...client.headers, origin, ...html, 'content-type': 'application/x-www-form-urlencoded' },
				body: new URLSearchParams({ email: one.email, words })
			});
		expect((await knock(one, 'I am the archivist.')).status).toBe(200);
		for (let i = 0; i < 5; i++) expect((await knock(visitor(), `Give it to somebody else ${i}.`)).status).toBe(200);
		const rows = await sql()<{ words: string; person_id: string | null }[]>`select words, person_id from knock where document_id = ${keyed.id} order by at`;
		expect(rows[0]).toMatchObject({ words: 'I am the archivist.', person_id: one.id });
		expect(rows.length).toBe(4);
		await knock(one, 'I am the archivist of the society.');
		expect((await sql()<{ words: string }[]>`select words from knock where document_id = ${keyed.id} and person_id = ${one.id}`).map((r) => r.words)).toEqual([
			'I am the archivist of the society.'
		]);
	});
});

describe('forms of secret addresses', () => {
	it('are taken as a browser sends them whose page keeps its address to itself, and refused from elsewhere, in words', async () => {
		const keyed = await document({ position: 'keyed' });
		const { url } = await (await staff()).api<{ url: string }>('POST', `/documents/${keyed.slug}/keys`, { label: 'With a word', password: 'open-sesame' });
		const send = (headers: Record<string, string>) =>
			fetch(url, {
				method: 'POST',
				redirect: 'manual',
				headers: { ...html, 'content-type': 'application/x-www-form-urlencoded', ...headers },
				body: new URLSearchParams({ password: 'open-sesame' })
			});
		expect((await fetch(url)).headers.get('referrer-policy')).toBe('same-origin');
		expect((await send({ origin: 'null', 'sec-fetch-site': 'same-origin' })).status).toBe(303);
		for (const headers of [
			{ origin: 'null' },
			{ origin: 'null', 'sec-fetch-site': 'cross-site' },
			{ origin: 'https://elsewhere.example.org', 'sec-fetch-site': 'same-origin' }
		]) {
			const refused = await send(headers as Record<string, string>);
			expect([JSON.stringify(headers), refused.status, refused.headers.get('content-type')?.split(';')[0]]).toEqual([
				JSON.stringify(headers),
				403,
				'text/html'
			]);
			expect(await refused.text()).toContain('another website');
		}
	});
	it('names are one line', async () => {
		const boss = await staff();
		for (const name of ['Two\nlines', 'Bcc:\r\nx@example.org', 'a\u2028b'])
			expect((await boss.send('POST', '/api/v1/members', { name, email: `line-${process.pid}@example.org` })).status).toBe(422);
		const paper = await document();
		expect((await boss.send('PATCH', `/api/v1/documents/${paper.slug}`, { title: 'Two\nlines' })).status).toBe(422);
		expect((await boss.api<DocumentJson>('GET', `/documents/${paper.slug}`)).title).toBe(paper.title);
	});
});
