// Signing in by the organisation's identity provider: a real one on loopback (oidc-provider) and a site that knows it, all the way through and back.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dayOf } from '#core/access/hours';
import { dayAfter } from '#core/readership/period';
import { freePort } from '#server/db/cluster';
import { readProviders } from '#server/people/providers';
import { startIdentity, type Somebody } from '../../standins/identity';
import { standinProvider } from '../../standins/identity-client';
import type { Running } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';
import { Authenticator, SiteBrowser } from './authenticator';
import { begin, signOwnerIn, startOwn } from './own';

const { path: at, drop } = scratch('provider');
const data = join(at, 'site');
const file = join(data, 'providers.json');
let own: Running;
let boss: { cookie: string };
let identity: { stop: () => void } | null = null;
let port: number;

/** Whom the provider knows, by what they sign in as. */
const people = new Map<string, Somebody>();
const know = (login: string, groups: string[] = [], more: Partial<Somebody> = {}) =>
	people.set(login, { name: `${login} Of Works`, email: `${login}@works.example.org`, verified: true, groups, ...more });

/** A browser: cookies by origin, and every redirect looked at. */
class Browser {
	private readonly jars = new Map<string, Map<string, string>>();
	readonly passed: string[] = [];
	private jar(url: URL) {
		const jar = this.jars.get(url.origin) ?? new Map<string, string>();
		this.jars.set(url.origin, jar);
		return jar;
	}
	async go(address: string, body?: Record<string, string>): Promise<{ url: URL; status: number; text: string }> {
		let [url, form] = [new URL(address), body];
		for (let hop = 0; hop < 20; hop++) {
			this.passed.push(url.href);
			const jar = this.jar(url);
			const response = await fetch(url, {
				method: form ? 'POST' : 'GET',
				redirect: 'manual',
				headers: { accept: 'text/html', origin: url.origin, cookie: [...jar].map(([n, v]) => `${n}=${v}`).join('; ') },
				...(form ? { body: new URLSearchParams(form) } : {})
			});
			for (const line of response.headers.getSetCookie()) {
				const [, name, value] = /^([^=]+)=([^;]*)/.exec(line)!;
				if (value) jar.set(name!, value);
				else jar.delete(name!);
			}
			const to = response.headers.get('location');
			if (!to || response.status >= 400) return { url, status: response.status, text: await response.text() };
			await response.arrayBuffer();
			[url, form] = [new URL(to, url), undefined];
		}
		throw new Error('led on too often');
	}
	/** What it would send to the site. */
	cookie() {
		return [...this.jar(new URL(own.origin))].map(([name, value]) => `${name}=${value}`).join('; ');
	}
	/** Signs in at the provider as somebody, and goes wherever that leads. */
	async come(login: string, from = '/sign-in/with/works') {
		let page = await this.go(own.origin + from);
		for (let step = 0; step < 3 && page.url.pathname.startsWith('/interaction/'); step++) {
			const prompt = page.text.includes('name="login"') ? 'login' : 'consent';
			page = await this.go(page.url.href, prompt === 'login' ? { prompt, login, password: 'any' } : { prompt });
		}
		return page;
	}
	get(path: string) {
		return this.go(own.origin + path);
	}
}
const api = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
	const response = await fetch(`${own.origin}/api/v1${path}`, {
		method,
		headers: { ...boss, origin: own.origin, 'content-type': 'application/json' },
		body: body === undefined ? undefined : JSON.stringify(body)
	});
	const answer = (await response.json()) as T;
	if (!response.ok) throw new Error(`${method} ${path}: ${JSON.stringify(answer)}`);
	return answer;
};
interface Member {
	id: string;
	email: string;
	name: string;
	password: boolean;
	memberships: { group: string; from: string | null; until: string | null }[];
}
const found = async (email: string) => (await api<{ items: Member[] }>('GET', `/members?q=${email}`)).items[0];
const today = () => dayOf(Date.now(), 'Europe/London');

async function again(providers: object): Promise<void> {
	await own.stop();
	writeFileSync(file, JSON.stringify(providers));
	own = await startOwn({ data, port: Number(new URL(own.origin).port) });
	boss = await signOwnerIn(own);
}

beforeAll(async () => {
	mkdirSync(data, { recursive: true });
	port = await freePort();
	writeFileSync(file, JSON.stringify([standinProvider(port)]));
	own = await startOwn({ data });
	boss = await begin(own);
	identity = await startIdentity(port, own.origin, (login) => people.get(login)!);
	for (const name of ['Lock wardens', 'Friends', 'Trustees']) await api('POST', '/groups', { name });
});
afterAll(async () => {
	identity?.stop();
	await own?.stop();
	drop();
});

describe('somebody whom the provider knows', () => {
	it('becomes a member at their first sign-in, in the groups that its claims give, for as long as set; and is led to where they were going', async () => {
		know('ada', ['wardens', 'something-else']);
		const browser = new Browser();
		expect((await browser.get('/sign-in')).text).toContain('Sign in with Canal House');
		const page = await browser.come('ada', '/sign-in/with/works?to=%2Fme%2Faccount');
		expect([page.status, page.url.pathname]).toEqual([200, '/me/account']);
		expect(page.text).toContain('ada@works.example.org');
		expect(await found('ada@works.example.org')).toMatchObject({
			name: 'ada Of Works',
			password: false,
			memberships: [{ group: 'lock-wardens', from: today(), until: dayAfter(today(), 90) }]
		});
		// RFC 7636: the code is bound to this browser by a challenge; and no token is in any address
		const asked = new URL(browser.passed.find((url) => url.includes('/auth?'))!);
		expect(Object.fromEntries(asked.searchParams)).toMatchObject({
			code_challenge_method: 'S256',
			response_type: 'code',
			scope: expect.stringContaining('openid')
		});
		expect(asked.searchParams.get('nonce')).toBeTruthy();
		expect(browser.passed.join(' ')).not.toMatch(/access_token|id_token/);
		const trail = await (await fetch(`${own.origin}/desk/upkeep/trail.csv`, { headers: boss })).text();
		expect(trail).toMatch(/added.*ada@works\.example\.org/s);
	});
	it('and comes again, is in what the claims give now, and out of what they gave before; groups that it does not decide on stay', async () => {
		const { id, memberships } = (await found('ada@works.example.org'))!;
		await api('PATCH', `/members/${id}`, {
			memberships: [...memberships.map(({ group, from, until }) => ({ group, from, until })), { group: 'trustees', until: '2099-12-31' }]
		});
		know('ada', ['friends']);
		expect((await new Browser().come('ada')).url.pathname).toBe('/me');
		const now = (await found('ada@works.example.org'))!.memberships;
		expect(now.filter(({ until }) => until === null || until >= today())).toEqual([
			expect.objectContaining({ group: 'friends', from: today(), until: dayAfter(today(), 90) }),
			expect.objectContaining({ group: 'trustees', until: '2099-12-31' })
		]);
		// a second time on the same day changes nothing
		await new Browser().come('ada');
		expect((await found('ada@works.example.org'))!.memberships).toEqual(now);
	});
	it('is the member of that address, where one is here already', async () => {
		await api('POST', '/members', { name: 'Ben Coot', email: 'ben@works.example.org', password: 'bens-own-password' });
		const before = await found('ben@works.example.org');
		know('ben', [], { email: 'BEN@works.example.org' });
		expect((await new Browser().come('ben')).url.pathname).toBe('/me');
		expect(await found('ben@works.example.org')).toMatchObject({ id: before!.id, name: 'Ben Coot' });
	});
});

describe('nobody comes in', () => {
	const refused = async (login: string) => {
		const page = await new Browser().come(login);
		expect([page.url.pathname, page.url.searchParams.get('with')]).toEqual(['/sign-in', 'works']);
		expect(page.text).toContain('Canal House knows you, but');
	};
	it('by an address that the provider has not verified: neither as somebody new nor as who is here', async () => {
		know('eve', [], { verified: false });
		await refused('eve');
		expect(await found('eve@works.example.org')).toBeUndefined();
		know('mallory', [], { verified: false, email: 'ben@works.example.org' });
		await refused('mallory');
	});
	it('whose account is suspended', async () => {
		know('cem');
		await new Browser().come('cem');
		await api('PATCH', `/members/${(await found('cem@works.example.org'))!.id}`, { suspended: true });
		const page = await new Browser().come('cem');
		expect(page.url.pathname).not.toBe('/me');
		expect(page.text).not.toContain('cem@works.example.org');
	});
	it('by an answer that was made up, or meant for another browser; nor by a provider that is not this site’s', async () => {
		for (const call of ['callback/works?code=x&state=y', 'callback/works', 'callback/other?code=x', 'callback/google']) {
			const browser = new Browser();
			await browser.get(`/api/auth/${call}`);
			expect((await browser.get('/me')).url.pathname).toBe('/sign-in');
			expect((await fetch(`${own.origin}/api/auth/${call}`, { redirect: 'manual' })).headers.getSetCookie().join()).not.toContain('session_token');
		}
		expect((await new Browser().get('/sign-in/with/nobody')).status).toBe(404);
		// begun in one browser, and the answer carried into another
		know('dot');
		const [one, other] = [new Browser(), new Browser()];
		await one.go(`${own.origin}/sign-in/with/works`);
		const state = new URL(one.passed.find((url) => url.includes('/auth?'))!).searchParams.get('state')!;
		const carried = await other.go(`${own.origin}/api/auth/callback/works?code=stolen&state=${state}`);
		expect((await other.get('/me')).url.pathname).toBe('/sign-in');
		expect(carried.text).not.toContain('dot@works');
	});
	it('while the provider cannot be reached, and the page says so', async () => {
		identity!.stop();
		identity = null;
		await again([standinProvider(port)]);
		const page = await new Browser().get('/sign-in/with/works?to=%2Fme');
		expect(page.url.pathname).toBe('/sign-in');
		expect(page.text).toContain('cannot be reached just now');
		identity = await startIdentity(port, own.origin, (login) => people.get(login)!);
		// once it is there, the next one comes in
		know('fay');
		expect((await new Browser().come('fay')).url.pathname).toBe('/me');
	});
});

describe('signing out', () => {
	const out = (browser: Browser) => browser.go(`${own.origin}/sign-in?/out`, { sure: 'yes' });
	it('is offered at the provider too, which then asks again who it is, and sends back here', async () => {
		know('gil');
		const browser = new Browser();
		await browser.come('gil');
		const here = await out(browser);
		expect(here.url.search).toBe('?out=works');
		expect(here.text).toContain('Sign out of Canal House too');
		expect((await browser.get('/me')).url.pathname).toBe('/sign-in');
		// still signed in there, unless one asks
		expect((await browser.get('/sign-in/with/works')).url.pathname).toBe('/me');
		await out(browser);
		const there = await browser.get('/sign-in/with/works/out');
		expect(there.url.port).toBe(String(port));
		const [, xsrf] = /name="xsrf" value="([^"]+)"/.exec(there.text)!;
		const back = await browser.go(`http://127.0.0.1:${port}/session/end/confirm`, { xsrf: xsrf!, logout: 'yes' });
		expect([back.url.href, back.status]).toEqual([`${own.origin}/`, 200]);
		expect((await browser.get('/sign-in/with/works')).text).toContain('name="login"');
	});
	it('is not offered to who came by a password, and says so where the provider has no way', async () => {
		const owner = await fetch(`${own.origin}/sign-in?/out`, {
			method: 'POST',
			redirect: 'manual',
			headers: { ...boss, accept: 'text/html', origin: own.origin },
			body: new URLSearchParams()
		});
		expect(owner.headers.get('location')).toBe('/');
		boss = await signOwnerIn(own);
		identity?.stop();
		expect((await new Browser().get('/sign-in/with/works/out')).text).toContain('Canal House has no way of signing out from here');
		identity = await startIdentity(port, own.origin, (login) => people.get(login)!);
		expect((await new Browser().get('/sign-in/with/nobody/out')).status).toBe(404);
	});
});

describe('as the settings say', () => {
	const form = (fields: Record<string, string>) => new Browser().go(`${own.origin}/sign-in?/in`, fields);
	it('staff by a claim, whom it makes no less than owners; people of a domain by it alone; no new members', async () => {
		await again([{ ...standinProvider(port), staff: { claim: 'groups', editor: ['writes'] }, only: ['works.example.org'], makesMembers: false }]);
		know('ada', ['writes']);
		const editor = new Browser();
		await editor.come('ada');
		expect((await editor.get('/desk/documents')).status).toBe(200);
		const [by, named] = [new Authenticator(), own.origin.replace('127.0.0.1', 'localhost')];
		expect((await new SiteBrowser(named, editor.cookie()).add(by)).type).toBe('success');
		expect(await new SiteBrowser(named).comeIn(by)).toContain('by the button of their organisation');
		know('ada', []);
		const less = new Browser();
		await less.come('ada');
		expect((await less.get('/desk/documents')).status).toBe(403);
		expect((await form({ email: 'ben@works.example.org', password: 'bens-own-password' })).text).toContain('by the button of their organisation');
		expect((await signOwnerIn(own)).cookie).toContain('session');
		know('new');
		const page = await new Browser().come('new');
		expect(page.url.searchParams.get('with')).toBe('works');
		expect(await found('new@works.example.org')).toBeUndefined();
	});
	it('a file that is not right stops the start with a sentence', () => {
		const bad = (text: string) => {
			const path = join(at, 'bad.json');
			writeFileSync(path, text);
			return () => readProviders(path);
		};
		expect(bad('{')).toThrow(/cannot be read as JSON/);
		expect(bad('[{"id":"works"}]')).toThrow(/is not right: .*missing/);
		expect(bad(JSON.stringify([{ ...standinProvider(1), issuer: 'http://id.example.org' }]))).toThrow(/issuer/);
		expect(bad(JSON.stringify([standinProvider(1), standinProvider(2)]))).toThrow('two providers are called “works”');
		expect(readProviders(join(at, 'nowhere.json'))).toEqual([]);
	});
});
