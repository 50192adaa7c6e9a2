// Members and groups over the API, members from tables, invitations, signing in by mail and by a second factor, sessions, one's record.
import { describe, expect, it } from 'vitest';
import { populationAt, reach } from '#core/access/population';
import { sql } from '#server/db/client';
import { reachOfAll } from '#server/access/reach';
import { groupUse } from '#server/people/members';
import { client, document, ledgerOf, member, origin, signIn, staff, visitor, zone, type Client } from './help';
import { linkIn, mails, mailTo } from './mails';
import { dayOf } from '#core/access/hours';
import { dayAfter } from '#core/readership/period';
import { totp } from '../totp';

interface Member {
	id: string;
	name: string;
	email: string;
	suspended: boolean;
	memberships: { group: string; from: string | null; until: string | null }[];
	password: boolean;
}
let count = 0;
const address = () => `people-${++count}-${process.pid}@example.org`;
const group = async (name: string) => (await staff()).api<{ slug: string }>('POST', '/groups', { name });
const form = (path: string, fields: Record<string, string>, cookie = '') =>
	fetch(origin + path, {
		method: 'POST',
		redirect: 'manual',
		headers: { origin, accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded', cookie },
		body: new URLSearchParams(fields)
	});
const cookiesOf = (response: Response) =>
	response.headers
		.getSetCookie()
		.map((c) => c.split(';')[0]!)
		.join('; ');
const today = dayOf(Date.now(), zone);

describe('members and groups', () => {
	it('are added, changed and taken out, and doors know at once', async () => {
		const boss = await staff();
		const { slug } = await group(`Divers ${count}`);
		const paper = await document({ position: 'keyed', groups: [slug] });
		const email = address();
		const made = await boss.api<Member>('POST', '/members', {
			name: 'Dee Diver',
			email,
			password: 'a-password-for-tests',
			memberships: [{ group: slug, from: today }]
		});
		expect(made).toMatchObject({ name: 'Dee Diver', email, suspended: false, password: true, memberships: [{ group: slug, from: today, until: null }] });
		const dee = await signIn(email);
		expect((await dee.get(`/d/${paper.slug}`)).status).toBe(200);

		await boss.api('PATCH', `/members/${made.id}`, { memberships: [{ group: slug, until: '2020-01-01' }] });
		expect((await dee.get(`/d/${paper.slug}/file`)).status).toBe(403);
		await boss.api('PATCH', `/members/${made.id}`, { memberships: [{ group: slug }], name: 'Dee Deep' });
		expect((await dee.get(`/d/${paper.slug}`)).status).toBe(200);
		await boss.api('PATCH', `/members/${made.id}`, { suspended: true });
		expect((await dee.get(`/d/${paper.slug}/file`)).status).toBe(401);
		await boss.api('PATCH', `/members/${made.id}`, { suspended: false });

		const again = await signIn(email);
		await again.get(`/d/${paper.slug}/file`);
		expect((await ledgerOf(paper.slug))[0]!.who).toMatchObject({ kind: 'member' });
		await boss.api('DELETE', `/members/${made.id}`);
		expect((await again.get(`/d/${paper.slug}/file`)).status).toBe(401);
		expect((await boss.send('GET', `/api/v1/members/${made.id}`)).status).toBe(404);
		// the ledger keeps its figures, without the name
		const opened = (await ledgerOf(paper.slug)).filter((e) => e.kind === 'opened');
		expect(opened.length).toBeGreaterThan(0);
		expect(JSON.stringify(opened)).not.toContain('Dee');
	});
	it('a group is renamed and taken away; its doors admit it no longer', async () => {
		const boss = await staff();
		const { slug } = await group(`Rowers ${count}`);
		const rower = await member({ group: slug });
		const paper = await document({ position: 'keyed', groups: [slug] });
		expect((await rower.get(`/d/${paper.slug}`)).status).toBe(200);
		expect(await boss.api('PATCH', `/groups/${slug}`, { name: 'Oarsfolk', description: 'Row.' })).toMatchObject({
			slug,
			name: 'Oarsfolk',
			description: 'Row.',
			people: 1
		});
		expect(await groupUse(slug)).toEqual({ doors: 1, memberships: 1 });
		await boss.api('DELETE', `/groups/${slug}`);
		await expect(groupUse(slug)).rejects.toMatchObject({ code: 'not-found' });
		expect((await rower.get(`/d/${paper.slug}/file`)).status).toBe(403);
		expect((await boss.send('GET', `/api/v1/groups/${slug}`)).status).toBe(404);
	});
	it('what is wrong is said, and only staff may do any of it', async () => {
		const boss = await staff();
		const one = await member();
		const code = async (method: string, path: string, body?: unknown, who: Client = boss) =>
			((await (await who.send(method, `/api/v1${path}`, body)).json()) as { code: string }).code;
		expect(await code('POST', '/members', { name: 'X', email: one.email })).toBe('email-taken');
		expect(await code('POST', '/members', { name: 'X', email: 'nobody' })).toBe('not-valid');
		expect(await code('POST', '/members', { name: 'X', email: address(), memberships: [{ group: 'no-such-group' }] })).toBe('group-unknown');
		expect(await code('PATCH', `/members/${one.id}`, { memberships: [{ group: 'x', from: '2026-02-02', until: '2026-02-01' }] })).toBe('not-valid');
		for (const [method, path] of [
			['GET', '/members'],
			['POST', '/members'],
			['GET', `/members/${one.id}`],
			['PATCH', `/members/${one.id}`],
			['DELETE', `/members/${one.id}`],
			['POST', `/members/${one.id}/invite`],
			['POST', '/members/import'],
			['POST', '/groups'],
			['GET', '/knocks']
		] as const) {
			expect(await code(method, path, method === 'GET' ? undefined : {}, one)).toBe('staff-only');
			expect(await code(method, path, method === 'GET' ? undefined : {}, visitor())).toBe('sign-in');
		}
	});
	it('lapsing soon is a membership that nothing of the same group goes on after', async () => {
		const boss = await staff();
		const { slug } = await group(`Lapsers ${count}`);
		const soon = dayOf(Date.now() + 10 * 86_400_000, zone);
		const make = (memberships: unknown[]) => boss.api<Member>('POST', '/members', { name: 'L', email: address(), memberships });
		const lapsing = await make([{ group: slug, until: soon }]);
		await make([
			{ group: slug, until: soon },
			{ group: slug, from: soon }
		]);
		const lapsed = await make([{ group: slug, until: '2020-01-01' }]);
		await make([{ group: slug }]);
		const ids = async (standing: string) => (await boss.api<{ items: Member[] }>('GET', `/members?group=${slug}&standing=${standing}`)).items.map((m) => m.id);
		expect(await ids('lapsing')).toEqual([lapsing.id]);
		expect(await ids('lapsed')).toEqual([lapsed.id]);
	});
	it('whom the doors reach is told alike by the database and by the core', async () => {
		const [a, b] = [(await group(`Reach a ${count}`)).slug, (await group(`Reach b ${count}`)).slug];
		const named = await member({ group: a }, { group: b, until: '2020-01-01' });
		await member({ group: b, until: today });
		for (const door of [{ groups: [a] }, { groups: [a, b] }, { allMembers: true }, { people: [named.email] }, { groups: [b], people: [named.email] }])
			await document({ position: 'keyed', ...door });
		const { documents, population } = await reachOfAll();
		const views = await sql()<{ id: string; position: string; n: number }[]>`
			select d.id, (door_view(d.door_id, ${today}::date))->'force'->>'position' as position, ((door_view(d.door_id, ${today}::date))->>'count')::int as n from document d where set_aside_at is null`;
		expect(views.length).toBeGreaterThan(4);
		let keyed = 0;
		for (const view of views) {
			if (view.position !== 'keyed') continue;
			const thing = documents.get(view.id)!;
			const standing = { ...thing, follows: thing.follows && { ...thing.follows, door: { ...thing.follows.door, hours: { from: null, until: null } } } };
			expect(reach({ ...standing, door: { ...standing.door, hours: { from: null, until: null } } }, population).count).toBe(view.n);
			keyed++;
		}
		expect(keyed).toBeGreaterThan(4);
		expect(populationAt([], 0).ids).toEqual([]);
	});
});

describe('members from a table', () => {
	const bring = async (text: string | Uint8Array, query = '') =>
		fetch(`${origin}/api/v1/members/import${query}`, {
			method: 'POST',
			headers: { ...(await staff()).headers, 'content-type': 'text/csv' },
			body: typeof text === 'string' ? text : new Uint8Array(text)
		});
	interface Plan {
		added: number;
		changed: number;
		same: number;
		wrong: number;
		encoding: string;
		done: boolean;
		newGroups: string[];
		lines: { line: number; kind: string; trouble?: string; name?: string }[];
	}

	it('tells first what it would change, then changes all of it, and a second time nothing', async () => {
		const { slug } = await group(`Readers ${count}`);
		const [a, b] = [address(), address()];
		const table = `Name,E-mail,Group,From,Until\r\n"Heron, Ann",${a},${slug},25/11/2026,24/11/2027\r\nBen Coot,${b},,,\r\n`;
		const preview = (await (await bring(table, '?preview')).json()) as Plan;
		expect(preview).toMatchObject({ added: 2, changed: 0, wrong: 0, encoding: 'UTF-8', done: false });
		const boss = await staff();
		expect((await boss.api<{ items: Member[] }>('GET', `/members?q=${a}`)).items).toEqual([]);
		expect(await (await bring(table)).json()).toMatchObject({ added: 2, done: true });
		expect((await boss.api<{ items: Member[] }>('GET', `/members?q=${a}`)).items).toMatchObject([
			{ name: 'Heron, Ann', password: false, memberships: [{ group: slug, from: '2026-11-25', until: '2027-11-24' }] }
		]);
		expect(await (await bring(table, '?preview')).json()).toMatchObject({ added: 0, changed: 0, same: 2 });
	});
	it('with one line wrong nothing is done, and each wrong line is told', async () => {
		const a = address();
		const table = `name;email\nAnn;${a}\nBen;ben at home\n;${address()}\n`;
		const refused = await bring(table);
		expect(refused.status).toBe(422);
		expect(await refused.json()).toMatchObject({
			code: 'table-wrong',
			title: expect.stringContaining('line 3: “ben at home” is not a mail address.') as string
		});
		expect((await (await staff()).api<{ items: Member[] }>('GET', `/members?q=${a}`)).items).toEqual([]);
		const preview = (await (await bring(table, '?preview')).json()) as Plan;
		expect(preview.lines.map((l) => [l.line, l.kind])).toEqual([
			[3, 'wrong'],
			[4, 'wrong'],
			[2, 'added']
		]);
	});
	// RFC 4180, 2: fields in quotation marks with commas, doubled quotation marks and line breaks in them
	it('reads RFC 4180, UTF-8 with its mark, UTF-16 and Windows-1252', async () => {
		const names = async (bytes: Uint8Array) => {
			const plan = (await (await bring(bytes, '?preview')).json()) as Plan;
			return [plan.encoding, plan.lines[0]!.name];
		};
		const table = (name: string) => `email,name\r\n${address()},"${name}"\r\n`;
		expect(await names(Buffer.from(table('Ann ""the Heron"", of\r\nOxmere')))).toEqual(['UTF-8', 'Ann "the Heron", of Oxmere']);
		expect(await names(Buffer.from(`\ufeff${table('Zoë Łódź')}`))).toEqual(['UTF-8', 'Zoë Łódź']);
		expect(await names(Buffer.from(table('Zoë').replace('ë', '\xeb'), 'latin1'))).toEqual(['Windows-1252', 'Zoë']);
		// € is 0x80 in Windows-1252 (from memory), and not a letter of Latin-1
		expect(await names(Buffer.from(table('\x80uro'), 'latin1'))).toEqual(['Windows-1252', '€uro']);
		expect(await names(Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(table('Jürgen'), 'utf16le')]))).toEqual(['UTF-16', 'Jürgen']);
	});
	it('groups are made where that is wanted, columns taken as they are told', async () => {
		const name = `Anglers ${count}`;
		const table = `who,where,what\n${address()},Ann,${name}\n`;
		expect(await (await bring(table, '?preview')).json()).toMatchObject({ wrong: 1, mapping: {} });
		expect(await (await bring(table, '?email=0&name=1&group=2&makeGroups=true')).json()).toMatchObject({ added: 1, newGroups: [name], done: true });
		expect((await (await staff()).api<{ items: { name: string; people: number }[] }>('GET', '/groups')).items.find((g) => g.name === name)).toMatchObject({
			people: 1
		});
	});
	it('where the table is the whole list, whoever it has not leaves the groups that it names with yesterday', async () => {
		const boss = await staff();
		const { slug } = await group(`Divers ${count}`);
		const { slug: other } = await group(`Climbers ${count}`);
		const [a, b] = [address(), address()];
		const line = (email: string, to: string) => `${email},Somebody,${to}\n`;
		const both = `email,name,group\n${line(a, slug)}${line(b, slug)}${line(b, other)}`;
		await bring(both);
		const fewer = `email,name,group\n${line(a, slug)}`;
		expect(await (await bring(fewer, '?preview')).json()).toMatchObject({ ended: [] });
		const yesterday = dayAfter(dayOf(Date.now(), zone), -1);
		expect(await (await bring(fewer, '?preview&end=true')).json()).toMatchObject({ same: 1, ended: [{ email: b, group: slug, until: null }], done: false });
		expect(await (await bring(fewer, '?end=true')).json()).toMatchObject({ done: true });
		const of = async (email: string) => (await boss.api<{ items: Member[] }>('GET', `/members?q=${email}`)).items[0]!.memberships;
		expect(await of(b)).toEqual([expect.objectContaining({ group: other, until: null }), expect.objectContaining({ group: slug, until: yesterday })]);
		expect(await of(a)).toMatchObject([{ group: slug, until: null }]);
		expect((await boss.api<{ people: number }>('GET', `/groups/${slug}`)).people).toBe(1);
	});
	it('a group’s whole list is set at once: days that are not said stay, a new person needs a name, nothing is done where a line is wrong', async () => {
		const boss = await staff();
		const { slug } = await group(`Rowers ${count}`);
		const [a, b, c] = [address(), address(), address()];
		const set = async (members: object[], query = '') =>
			fetch(`${origin}/api/v1/groups/${slug}/members${query}`, {
				method: 'PUT',
				headers: { ...boss.headers, 'content-type': 'application/json' },
				body: JSON.stringify({ members })
			});
		const two = [
			{ email: a, name: 'Ann', from: '2026-01-01', until: '2099-12-31' },
			{ email: b, name: 'Ben' }
		];
		expect(await (await set(two, '?preview')).json()).toMatchObject({ added: 2, ended: [], done: false });
		expect(await (await set(two)).json()).toMatchObject({ added: 2, done: true });
		expect(await (await set([{ email: a }, { email: b }])).json()).toMatchObject({ same: 2, changed: 0, ended: [], done: true });
		expect(await (await set([{ email: a }, { email: c }])).json()).toMatchObject({ code: 'table-wrong' });
		expect(await (await set([{ email: a }], '?preview')).json()).toMatchObject({ same: 1, ended: [{ email: b, group: slug }] });
		expect(await (await set([{ email: a }])).json()).toMatchObject({ done: true });
		expect((await boss.api<{ people: number }>('GET', `/groups/${slug}`)).people).toBe(1);
		expect((await boss.api<{ items: Member[] }>('GET', `/members?q=${a}`)).items[0]!.memberships).toMatchObject([{ from: '2026-01-01', until: '2099-12-31' }]);
		expect(await (await set([])).json()).toMatchObject({ ended: [{ email: a }] });
		expect((await boss.api<{ people: number }>('GET', `/groups/${slug}`)).people).toBe(0);
		expect((await set([{ email: 'not one' }])).status).toBe(422);
		const elsewhere = await fetch(`${origin}/api/v1/groups/no-such/members`, {
			method: 'PUT',
			headers: { ...boss.headers, 'content-type': 'application/json' },
			body: '{"members":[]}'
		});
		expect(elsewhere.status).toBe(404);
	});
	it('what cannot be read is said', async () => {
		for (const text of ['', '\n\n', 'email,name\n"not closed,x\n', 'email\0,name\nx,y'])
			expect(((await (await bring(text)).json()) as { code: string }).code).toBe('table-unreadable');
	});
	it('what is taken out can be brought in again, and no cell is a formula', async () => {
		const boss = await staff();
		await boss.api('POST', '/members', { name: '=HYPERLINK("http://example.org")', email: address() });
		const response = await boss.get('/desk/people/members.csv');
		expect(response.headers.get('content-type')).toContain('text/csv');
		const table = await response.text();
		expect(table).toMatch(/^email,name,group,from,until\r\n/);
		expect(table).not.toMatch(/,"?=/);
		const again = (await (await bring(table, '?preview')).json()) as Plan;
		expect(again).toMatchObject({ added: 0, wrong: 0 });
		expect(again.same).toBeGreaterThan(5);
		expect((await visitor().get('/desk/people/members.csv')).status).toBe(303);
		expect((await (await member()).get('/desk/people/members.csv')).status).toBe(403);
	});
});

describe('signing in', () => {
	it('a member invited by mail chooses a password and is in', async () => {
		const boss = await staff();
		const email = address();
		await boss.api('POST', '/members', { name: 'Ina Invited', email, invite: true });
		const link = linkIn(await mailTo(email));
		const page = await visitor().get(new URL(link).pathname, { accept: 'text/html' });
		expect(await page.text()).toContain(email);
		const accepted = await form(new URL(link).pathname, { name: 'Ina Invited', password: 'chosen-by-herself' });
		expect([accepted.status, accepted.headers.get('location')]).toEqual([303, '/me']);
		expect((await fetch(`${origin}/me`, { headers: { cookie: cookiesOf(accepted) } })).status).toBe(200);
		// once only
		expect((await visitor().get(new URL(link).pathname)).status).toBe(410);
		expect((await (await signInWith(email, 'chosen-by-herself')).get('/desk/documents')).status).toBe(403);
	});
	const signInWith = async (email: string, password: string) => {
		const response = await fetch(`${origin}/api/auth/sign-in/email`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ email, password })
		});
		expect(response.status).toBe(200);
		return client('', { cookie: cookiesOf(response) });
	};
	it('by a mailed link, once; opening the link alone signs nobody in', async () => {
		const one = await member();
		const asked = await form('/sign-in?/link', { email: one.email });
		expect(asked.status).toBe(200);
		const link = linkIn(await mailTo(one.email, /Sign in/));
		const opened = await visitor().get(link.slice(origin.length));
		expect([opened.status, opened.headers.getSetCookie().join().includes('session_token')]).toEqual([200, false]);
		const token = new URL(link).searchParams.get('token')!;
		const verify = () => fetch(`${origin}/api/auth/magic-link/verify?token=${token}&callbackURL=/me&errorCallbackURL=/sign-in`, { redirect: 'manual' });
		const entered = await verify();
		expect([entered.status, entered.headers.get('location')]).toEqual([302, `${origin}/me`]);
		expect((await fetch(`${origin}/me`, { headers: { cookie: cookiesOf(entered) } })).status).toBe(200);
		expect((await verify()).headers.get('location')).toMatch(/\/sign-in\?error=/);
		const [stored] = await sql()<
			{ n: number }[]
		>`select count(*)::int as n from verification where identifier like ${`%${token}%`} or value like ${`%${token}%`}`;
		expect(stored!.n).toBe(0);
	});
	it('forgotten passwords are chosen anew by mail, once, and every session ends', async () => {
		const one = await member();
		expect((await one.get('/me')).status).toBe(200);
		await form('/sign-in/forgotten', { email: one.email });
		const link = linkIn(await mailTo(one.email, /new password/));
		const path = link.slice(origin.length);
		expect(await (await form(path, { password: 'short' })).text()).toContain('too short');
		expect(await (await form(path, { password: 'a-newer-password' })).text()).toContain('Your password is changed');
		expect(await (await form(path, { password: 'another-password' })).text()).toContain('used or is too old');
		expect((await one.get('/me')).status).toBe(303);
		await signInWith(one.email, 'a-newer-password');
	});
	it('nobody learns whether an address has an account, and no mail goes to one that has none', async () => {
		const known = await member();
		const unknown = address();
		const plain = (html: unknown) => String(html).replace(/nonce="[^"]*"|__sveltekit_\w+/g, '');
		const said = async (path: string, email: string) => {
			const response = await form(path, { email });
			return [response.status, (await response.text()).replaceAll(email, '…')];
		};
		for (const path of ['/sign-in?/link', '/sign-in/forgotten']) {
			const [a, b] = [await said(path, known.email), await said(path, unknown)];
			expect(a[0]).toBe(b[0]);
			expect(plain(a[1])).toBe(plain(b[1]));
		}
		const wrong = async (email: string) => {
			const response = await fetch(`${origin}/api/auth/sign-in/email`, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify({ email, password: 'a-wrong-password' })
			});
			return [response.status, await response.text()];
		};
		expect(await wrong(known.email)).toEqual(await wrong(unknown));
		await mailTo(known.email, /new password/);
		expect(mails().filter((m) => m.to.includes(unknown))).toEqual([]);
	});
	it('from one place so many requests are allowed in each window, however steadily they come, and at once', async () => {
		const { countRequest } = await import('#server/people/attempts');
		const rule = { window: 60, max: 3 };
		const key = `place ${crypto.randomUUID()}`;
		const allowed = (await Promise.all(Array.from({ length: 10 }, () => countRequest(key, rule)))).filter((r) => r.allowed);
		expect(allowed).toEqual(Array.from({ length: 3 }, () => ({ allowed: true, retryAfter: null })));
		const { retryAfter } = await countRequest(key, rule);
		expect(retryAfter).toBeGreaterThan(50);
		expect(retryAfter).toBeLessThanOrEqual(60);
		// the window began a minute ago, and the last try was just now
		await sql()`update rate_limit set last_request = last_request - 60000 where key = ${key}`;
		expect(await countRequest(key, rule)).toEqual({ allowed: true, retryAfter: null });
		expect(await countRequest(`${key} elsewhere`, rule)).toEqual({ allowed: true, retryAfter: null });
	});
	it('wrong passwords are limited for an address, a right one forgets them', async () => {
		const one = await member();
		const attempt = async (password: string) =>
			(
				await fetch(`${origin}/api/auth/sign-in/email`, {
					method: 'POST',
					headers: { 'content-type': 'application/json' },
					body: JSON.stringify({ email: one.email, password })
				})
			).status;
		for (let i = 0; i < 5; i++) expect(await attempt('wrong-password')).toBe(401);
		expect(await attempt('a-password-for-tests')).toBe(200);
		for (let i = 0; i < 10; i++) expect(await attempt('wrong-password')).toBe(401);
		expect(await attempt('wrong-password')).toBe(429);
		expect(await attempt('a-password-for-tests')).toBe(429);
	});
	it('staff can ask for a code besides the password (RFC 6238), with spare codes that work once', async () => {
		const email = address();
		const boss = await staff();
		await boss.api('POST', '/members', { name: 'Fay Factor', email, password: 'a-password-for-tests' });
		await sql()`update person set role = 'editor' where email = ${email}`;
		const fay = await signIn(email);
		const prepared = await (await form('/me/account?/prepare', { current: 'a-password-for-tests' }, fay.headers.cookie)).text();
		expect(prepared).toContain('Scan this');
		const secret = /<code[^>]*>([A-Z2-7]{20,})<\/code>/.exec(prepared)![1]!;
		const [, spares] = /Keep them elsewhere:[\s\S]*?<code[^>]*>([^<]+)<\/code>/.exec(prepared)!;
		// enough of this half minute is left for what follows
		if (Date.now() % 30_000 > 20_000) await new Promise((go) => setTimeout(go, 30_100 - (Date.now() % 30_000)));
		const confirmed = await form('/me/account?/confirm', { code: totp(secret) }, fay.headers.cookie);
		expect(await confirmed.text()).toContain('asked for a code');

		const first = await form('/sign-in?/in', { email, password: 'a-password-for-tests' });
		expect([first.status, first.headers.get('location')]).toEqual([303, '/sign-in/code']);
		const half = cookiesOf(first);
		expect((await fetch(`${origin}/me`, { redirect: 'manual', headers: { cookie: half } })).status).toBe(303);
		expect((await form('/sign-in/code', { code: '000000' }, half)).status).toBe(401);
		// RFC 6238, 5.2: the code that was taken once, a moment ago, is not taken again; the next one is
		const again = await form('/sign-in?/in', { email, password: 'a-password-for-tests' });
		expect((await form('/sign-in/code', { code: totp(secret) }, cookiesOf(again))).status).toBe(401);
		const entered = await form('/sign-in/code', { code: totp(secret, 1) }, half);
		expect([entered.status, entered.headers.get('location')]).toEqual([303, '/desk/documents']);
		expect((await fetch(`${origin}/desk/people`, { headers: { cookie: cookiesOf(entered) } })).status).toBe(200);

		const spare = spares!.trim().split(/\s+/)[0]!;
		const withSpare = async () => {
			const begun = await form('/sign-in?/in', { email, password: 'a-password-for-tests' });
			return (await form('/sign-in/code', { code: spare }, cookiesOf(begun))).status;
		};
		expect(await withSpare()).toBe(303);
		expect(await withSpare()).toBe(401);
		// a mailbox alone is not enough for them
		await form('/sign-in?/link', { email });
		expect((await mailTo(email, /Sign in/)).text).not.toContain('token=');
	});
});

describe('one’s own page', () => {
	it('lists where one is signed in, and ends it there', async () => {
		const one = await member();
		const elsewhere = await signIn(one.email);
		const [row] = await sql()<{ id: string }[]>`select id from session where person_id = ${one.id} order by created_at desc limit 1`;
		await form('/me/account?/end', { id: row!.id }, one.headers.cookie);
		expect((await elsewhere.get('/me')).status).toBe(303);
		expect((await one.get('/me')).status).toBe(200);
		// nobody ends the sessions of others
		const other = await member();
		const [theirs] = await sql()<{ id: string }[]>`select id from session where person_id = ${one.id}`;
		await form('/me/account?/end', { id: theirs!.id }, other.headers.cookie);
		expect((await one.get('/me')).status).toBe(200);
	});
	it('gives one’s record out, and erases it with one’s password', async () => {
		const { slug } = await group(`Erased ${count}`);
		const one = await member({ group: slug });
		const paper = await document({ position: 'keyed', groups: [slug] });
		await one.get(`/d/${paper.slug}/file`);
		const record = (await (await one.get('/me/record.json')).json()) as {
			person: { email: string };
			memberships: unknown[];
			ledger: { kind: string; document: string }[];
		};
		expect(record.person.email).toBe(one.email);
		expect(record.ledger).toMatchObject([{ kind: 'opened', document: paper.title }]);
		expect((await visitor().get('/me/record.json')).status).toBe(401);

		expect(await (await form('/me/account?/erase', { current: 'wrong-password', sure: 'on' }, one.headers.cookie)).text()).toContain(
			'That is not your password.'
		);
		expect((await form('/me/account?/erase', { current: 'a-password-for-tests', sure: 'on' }, one.headers.cookie)).status).toBe(303);
		expect((await one.get('/me')).status).toBe(303);
		const [left] = await sql()<{ n: number; entries: number }[]>`
			select (select count(*)::int from person where id = ${one.id}) as n,
				(select count(*)::int from ledger where document_id = ${paper.id} and kind = 'opened' and person_id is null and reader like 'x:%') as entries`;
		expect(left).toEqual({ n: 0, entries: 1 });
		// nothing else rewrites the ledger
		await expect(sql()`update ledger set kind = 'saved' where document_id = ${paper.id}`).rejects.toThrow('append-only');
		await expect(sql()`update ledger set reader = 'x' where document_id = ${paper.id}`).rejects.toThrow('append-only');
	});
});

it('many members at once: put into a group or renewed, taken out, suspended; all or none, and back again', async () => {
	const boss = await staff();
	const [group, other] = [`Many ${process.pid}`, `Others ${process.pid}`];
	const [one, two] = [await member({ group, from: '2026-01-01', until: '2099-06-30' }, { group: other }), await member({ group: other })];
	const slug = group.toLowerCase().replace(' ', '-');
	const members = [one.id, two.id];
	type Membership = { group: string; from: string | null; until: string | null };
	const of = async (id: string) => (await boss.api<{ memberships: Membership[] }>('GET', `/members/${id}`)).memberships.map((m) => [m.group, m.from, m.until]);
	const before = [await of(one.id), await of(two.id)];
	interface Undo {
		undo: { id: string; change: Record<string, unknown> }[];
	}
	const joinedNow = await boss.api<Undo>('POST', '/members/bulk', { members, join: { group: slug, until: '2099-12-31' } });
	expect((await of(one.id)).filter(([name]) => name === slug)).toEqual([[slug, '2026-01-01', '2099-12-31']]);
	expect((await of(two.id)).filter(([name]) => name === slug)).toEqual([[slug, expect.stringMatching(/^\d{4}-\d\d-\d\d$/), '2099-12-31']]);
	expect((await of(two.id)).length).toBe(2);
	// the same once more changes nobody
	expect(await boss.api('POST', '/members/bulk', { members, join: { group: slug, until: '2099-12-31' } })).toEqual({ undo: [] });
	await boss.api('POST', '/members/bulk/undo', joinedNow);
	expect([await of(one.id), await of(two.id)]).toEqual(before);

	// suspended and signed out, and let in again as they were; who was so already stays so
	expect((await one.get('/me')).status).toBe(200);
	await boss.api('PATCH', `/members/${two.id}`, { suspended: true });
	const suspended = await boss.api<Undo>('POST', '/members/bulk', { members, suspended: true });
	expect(suspended.undo.map(({ id }) => id)).toEqual([one.id]);
	expect((await one.get('/me')).status).not.toBe(200);
	await boss.api('POST', '/members/bulk/undo', suspended);
	expect((await boss.api<{ suspended: boolean }>('GET', `/members/${one.id}`)).suspended).toBe(false);
	expect((await boss.api<{ suspended: boolean }>('GET', `/members/${two.id}`)).suspended).toBe(true);

	// one that is nobody, staff, a group that is not there, days that do not go together: nothing is changed
	const bad = async (body: object) => (await boss.send('POST', '/api/v1/members/bulk', body)).status;
	expect(await bad({ members: [...members, '01990000-0000-7000-8000-000000000000'], leave: slug })).toBe(404);
	expect(await bad({ members, leave: 'nowhere-at-all' })).toBe(422);
	expect(await bad({ members, join: { group: slug, from: '2099-12-31', until: '2099-01-01' } })).toBe(422);
	expect(await bad({ members: [], suspended: true })).toBe(422);
	expect([await of(one.id), await of(two.id)]).toEqual(before);

	await boss.api('POST', '/members/bulk', { members, leave: slug });
	expect((await of(one.id)).find(([name]) => name === slug)?.[2]).not.toBe('2099-06-30');
	expect((await of(one.id)).filter(([name]) => name !== slug)).toEqual(before[0]!.filter(([name]) => name !== slug));
	// and who may not
	expect((await two.send('POST', '/api/v1/members/bulk', { members, suspended: false })).status).toBeGreaterThanOrEqual(400);
	// somebody gone meanwhile stays gone
	const last = await boss.api<Undo>('POST', '/members/bulk', { members, join: { group: slug } });
	await boss.api('DELETE', `/members/${two.id}`);
	await boss.api('POST', '/members/bulk/undo', last);
});
