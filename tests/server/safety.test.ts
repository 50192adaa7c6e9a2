// What keeps a site safe apart from its doors: headers, cookies, origins, ways on, and that words stay words.
import { beforeAll, describe, expect, it } from 'vitest';
import { document, forgetTries, member, origin, signIn, staff, visitor } from './help';

const html = { accept: 'text/html' };

describe('headers', () => {
	it('every page runs only our own scripts, is framed only here, and is taken for what it says it is', async () => {
		const boss = await staff();
		const { slug } = await document({ position: 'open' });
		for (const [who, path] of [
			[visitor(), '/'],
			[visitor(), '/sign-in'],
			[visitor(), `/d/${slug}`],
			[visitor(), `/d/${slug}/read`],
			[visitor(), '/no-such-page'],
			[boss, '/desk/documents'],
			[boss, '/desk/people'],
			[boss, '/me']
		] as const) {
			const response = await who.get(path, html);
			const policy = response.headers.get('content-security-policy') ?? '';
			const directive = (name: string) => policy.split(';').find((d) => d.trim().startsWith(`${name} `)) ?? '';
			expect(directive('script-src'), path).toMatch(/'self'/);
			expect(directive('script-src'), path).not.toContain("'unsafe-inline'");
			expect(directive('script-src'), path).not.toContain("'unsafe-eval'");
			for (const [name, value] of [
				['frame-ancestors', "'self'"],
				['object-src', "'none'"],
				['base-uri', "'self'"],
				['form-action', "'self'"]
			] as const)
				expect(directive(name).trim(), `${path} ${name}`).toBe(`${name} ${value}`);
			expect(response.headers.get('x-content-type-options')).toBe('nosniff');
			expect(response.headers.get('referrer-policy')).toMatch(/strict-origin-when-cross-origin|same-origin/);
			expect(response.headers.get('access-control-allow-origin')).toBeNull();
			// no script in the page but with the nonce of this answer
			const body = await response.text();
			const nonce = /'nonce-([^']+)'/.exec(directive('script-src'))?.[1];
			for (const [tag] of body.matchAll(/<script(?![^>]*\bsrc=)[^>]*>/g))
				if (!/type="application\/(?:ld\+)?json"/.test(tag)) expect(tag, path).toContain(`nonce="${nonce}"`);
			expect(body).not.toMatch(/\son\w+="/);
		}
	});
	it('a file shown in place can run nothing', async () => {
		const { slug } = await document({ position: 'open' });
		const { headers } = await visitor().get(`/d/${slug}/file`);
		expect(headers.get('content-security-policy')).toContain("default-src 'none'");
		expect(headers.get('x-content-type-options')).toBe('nosniff');
	});
});

describe('cookies and sessions', () => {
	it('cookies are HttpOnly and SameSite', async () => {
		const one = await member();
		const { slug } = await document({ position: 'open' });
		const signedIn = await fetch(`${origin}/api/auth/sign-in/email`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ email: one.email, password: 'a-password-for-tests' })
		});
		const set = [...signedIn.headers.getSetCookie(), ...(await visitor().get(`/d/${slug}`, { ...html, cookie: 'ianua_remember=yes' })).headers.getSetCookie()];
		expect(set.length).toBeGreaterThanOrEqual(2);
		for (const cookie of set) {
			expect(cookie).toMatch(/HttpOnly/i);
			expect(cookie).toMatch(/SameSite=(?:Lax|Strict)/i);
		}
	});
	it('a sign-in takes no session over: a token that was there before is not the one that comes of it', async () => {
		const one = await member();
		const planted = 'ianua.session_token=planted-before-signing-in.c2lnbmF0dXJl';
		const response = await fetch(`${origin}/api/auth/sign-in/email`, {
			method: 'POST',
			headers: { 'content-type': 'application/json', cookie: planted },
			body: JSON.stringify({ email: one.email, password: 'a-password-for-tests' })
		});
		const token = /session_token=([^;]+)/.exec(response.headers.getSetCookie().join())![1]!;
		expect(token).not.toContain('planted');
		const again = await signIn(one.email);
		expect(again.headers.cookie).not.toContain(token);
		expect((await fetch(`${origin}/me`, { redirect: 'manual', headers: { cookie: planted } })).status).toBe(303);
	});
});

describe('a request from another site', () => {
	it('changes nothing, whatever its type', async () => {
		const boss = await staff();
		const { slug, title } = await document();
		const attempt = (headers: Record<string, string>, method: string, path: string, body: string) =>
			fetch(origin + path, { method, redirect: 'manual', headers: { cookie: boss.headers.cookie!, ...headers }, body });
		const origins: Record<string, string>[] = [
			{ origin: 'https://elsewhere.example.org' },
			{ origin: 'null' },
			{ 'sec-fetch-site': 'cross-site' },
			{ 'sec-fetch-site': 'same-site' }
		];
		for (const from of origins)
			for (const [type, method, path, body] of [
				['application/json', 'PATCH', `/api/v1/documents/${slug}`, '{"title":"Taken over"}'],
				['text/plain', 'POST', `/api/v1/bulk`, `{"slugs":["${slug}"],"change":{"title":"Taken over"}}`],
				['application/x-www-form-urlencoded', 'POST', '/desk/people?/group', 'name=Taken+over'],
				['text/csv', 'POST', '/api/v1/members/import', 'email,name\nx@example.org,X\n'],
				['application/x-www-form-urlencoded', 'POST', '/sign-in?/out', '']
			] as const)
				expect([JSON.stringify(from), path, (await attempt({ ...from, 'content-type': type }, method, path, body)).status]).toEqual([
					JSON.stringify(from),
					path,
					403
				]);
		expect((await boss.api<{ title: string }>('GET', `/documents/${slug}`)).title).toBe(title);
		expect((await boss.get('/desk/documents')).status).toBe(200);
	});
});

describe('ways on', () => {
	it('after signing in lead only to this site', async () => {
		const one = await member();
		for (const to of [
			'https://elsewhere.example.org/',
			'//elsewhere.example.org',
			'/\\elsewhere.example.org',
			'javascript:alert(1)',
			'/\t/elsewhere.example.org'
		]) {
			const response = await fetch(`${origin}/sign-in?/in&to=${encodeURIComponent(to)}`, {
				method: 'POST',
				redirect: 'manual',
				headers: { origin, accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' },
				body: new URLSearchParams({ email: one.email, password: 'a-password-for-tests' })
			});
			expect([to, response.headers.get('location')]).toEqual([to, '/me']);
		}
		const link = await fetch(`${origin}/api/auth/magic-link/verify?token=x&callbackURL=${encodeURIComponent('https://elsewhere.example.org')}`, {
			redirect: 'manual'
		});
		expect([link.status, link.headers.get('location')]).toEqual([403, null]);
	});
});

describe('words of people are words', () => {
	beforeAll(forgetTries);
	it('wherever they are shown', async () => {
		const boss = await staff();
		const nasty = '<img src=x onerror=alert(1)><script>alert(2)</script>';
		const { slug } = await document({ position: 'keyed', turnedAway: { heading: nasty, words: nasty, button: { label: nasty.slice(0, 60), target: '/x' } } });
		await boss.api('PATCH', `/documents/${slug}`, { title: nasty, description: nasty, topics: [nasty] });
		const made = await boss.api<{ id: string }>('POST', '/members', { name: nasty, email: `nasty-${process.pid}@example.org` });
		await fetch(`${origin}/d/${slug}/knock`, {
			method: 'POST',
			headers: { origin, 'content-type': 'application/x-www-form-urlencoded' },
			body: new URLSearchParams({ email: `nasty-${process.pid}@example.org`, words: nasty })
		});
		for (const [who, path] of [
			[visitor(), `/d/${slug}`],
			[boss, `/d/${slug}`],
			[boss, `/desk/documents/${slug}`],
			[boss, '/desk/documents'],
			[boss, `/desk/people?person=${made.id}`],
			[boss, '/desk/people/knocks'],
			[boss, '/desk/upkeep/trail'],
			[boss, `/desk/try?path=/d/${slug}`],
			[boss, '/postbox']
		] as const) {
			const body = await (await who.get(path, html)).text();
			expect(body, path).not.toContain('<img src=x');
			expect(body, path).not.toContain('<script>alert(2)');
		}
	});
});

describe('security.txt (RFC 9116)', () => {
	it('is there once the owner has said where to report, and only an owner says so', async () => {
		const boss = await staff();
		expect((await visitor().get('/.well-known/security.txt')).status).toBe(404);
		expect((await (await member()).send('PATCH', '/api/v1/site', { contact: 'x@example.org' })).status).toBe(403);
		expect((await boss.send('PATCH', '/api/v1/site', { contact: 'not an address' })).status).toBe(422);
		await boss.api('PATCH', '/site', { contact: 'security@example.org' });
		const response = await visitor().get('/.well-known/security.txt');
		expect(response.headers.get('content-type')).toBe('text/plain; charset=utf-8');
		const text = await response.text();
		expect(text).toContain('Contact: mailto:security@example.org\r\n');
		const expires = Date.parse(/^Expires: (.+)\r$/m.exec(text)![1]!);
		expect(expires).toBeGreaterThan(Date.now());
		expect(expires).toBeLessThan(Date.now() + 365 * 86_400_000);
		await boss.api('PATCH', '/site', { contact: null });
	});
});

describe('trying a door', () => {
	it('shows staff the page of somebody else, enters nothing, and does nothing for anybody but staff', async () => {
		const boss = await staff();
		const { slug, title } = await document({ position: 'keyed' });
		const tried = await boss.get(`/d/${slug}?try=visitor`, html);
		expect(tried.status).toBe(401);
		expect(await tried.text()).not.toContain(title);
		const key = await boss.api<{ id: string }>('POST', `/documents/${slug}/keys`, { label: 'Tried', openings: 1 });
		const withKey = await boss.get(`/d/${slug}/read?try=key:${key.id}`, html);
		expect([withKey.status, withKey.headers.getSetCookie()]).toEqual([200, []]);
		const one = await member();
		expect((await boss.get(`/d/${slug}?try=member:${one.email}`, html)).status).toBe(403);
		expect((await boss.get(`/d/${slug}?try=member:nobody@example.org`, html)).status).toBe(422);
		await boss.api('PATCH', `/documents/${slug}`, { door: { position: 'open', until: '2099-12-31' } });
		expect((await boss.get(`/d/${slug}?try=visitor&at=2100-06-01T00:00:00Z`, html)).status).toBe(403);
		expect((await boss.get(`/d/${slug}?try=visitor`, html)).status).toBe(200);
		await boss.api('PATCH', `/documents/${slug}`, { door: { position: 'shut' } });
		for (const who of [visitor(), one]) expect((await who.get(`/d/${slug}?try=key:${key.id}`, html)).status).toBe(404);
		const entries = (await boss.api<{ items: { kind: string; staff: boolean }[] }>('GET', `/documents/${slug}/ledger`)).items;
		// the two who are no staff were turned away; nothing that staff tried is there
		expect(entries.map((e) => [e.kind, e.staff])).toEqual([
			['turned-away', false],
			['turned-away', false]
		]);
		expect((await boss.api<{ items: { used: number }[] }>('GET', `/documents/${slug}/keys`)).items[0]!.used).toBe(0);
	});
});

describe('a character of value zero, which no database keeps', () => {
	it('in an address is refused, never a fault of ours', async () => {
		const made = await document({ position: 'open' });
		for (const path of [
			...[
				'/%00',
				'/?q=%00',
				'/no%00such',
				'/d/%00',
				'/d/%00/file',
				`/d/${made.slug}/file%00`,
				`/d/${made.slug}/read?from=%00`,
				`/d/${made.slug}/file?from=a%00b`
			],
			...['/api/v1/documents?q=%00', '/api/v1/documents/%00', '/api/v1/find?q=%00', '/api/v1/ledger?cursor=%00', '/api/v1/pages/%00'],
			...[
				'/oembed?url=%00',
				'/k/%00',
				'/sign-in?to=%00',
				'/invite/%00',
				`/embed/${made.slug}?from=%00`,
				'/picture/%00',
				'/feed.atom?%00',
				'/desk/documents?q=%00'
			]
		]) {
			for (const who of [visitor(), await staff()]) {
				const { status } = await who.get(path);
				// what a file is asked with beside is passed over
				if (!path.includes('/file?')) expect(status, path).toBeGreaterThanOrEqual(400);
				expect(status, path).toBeLessThan(500);
			}
		}
	});
	it('in what is sent is refused by the API, and nothing of it is kept', async () => {
		const [boss, made] = [await staff(), await document()];
		for (const [method, path, body] of [
			['PATCH', `/documents/${made.slug}`, { title: 'A\u0000B' }],
			['PATCH', `/documents/${made.slug}`, { description: '\u0000' }],
			['PATCH', `/documents/${made.slug}`, { topics: ['a\u0000'] }],
			['POST', '/groups', { name: 'A\u0000B' }],
			['POST', '/members', { name: 'A\u0000', email: 'zero@example.org' }],
			['POST', '/pages', { path: '/zero', title: 'A\u0000B', layout: 'article' }],
			['POST', `/documents/${made.slug}/keys`, { label: '\u0000' }],
			['POST', '/filters', { name: 'a\u0000', query: '' }],
			['PATCH', '/site', { name: 'A\u0000B' }]
		] as const) {
			const response = await boss.send(method, `/api/v1${path}`, body);
			expect([path, response.status, ((await response.json()) as { code: string }).code]).toEqual([path, 422, 'not-valid']);
		}
		expect(await boss.api<{ title: string }>('GET', `/documents/${made.slug}`)).toMatchObject({ title: made.title, description: '' });
		expect((await boss.api<{ items: { name: string }[] }>('GET', '/groups')).items.filter((g) => g.name.startsWith('A'))).not.toContainEqual({ name: 'AB' });
	});
});
