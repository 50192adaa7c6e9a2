// Two locks stand before whatever is not for everyone: the table that the hook asks by the route's id, and the one at the head of each load,
// action and handler. Each holds alone; what is new is closed until the table names it.
import { pathToFileURL } from 'node:url';
import { resolve } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { document, member, origin, staff, visitor, type Client } from './help';
import { addressOf, loads, routes } from './routes';

const { table } = await import('#server/guard/table');
const { refusalAt, scopesFor } = await import('#server/guard/guard');
const { scopes } = await import('#core/people/scope');
const { sql } = await import('#server/db/client');
const { newId } = await import('#server/id');

const tree = routes();
const closed = tree.filter(({ id }) => table[id] && !['everyone', 'near'].includes(table[id].admits));
const methods = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'] as const;

/** Marks that stand in nothing but what is closed. */
const secret = { name: 'Quillon Unseen', email: 'quillon-unseen@example.org', group: 'Secret Sextants' };
let filled: Record<string, string> = {};
let editor: Client;

beforeAll(async () => {
	const boss = await staff();
	const shut = await document();
	const { slug } = await boss.api<{ slug: string }>('POST', '/groups', { name: secret.group });
	const { id } = await boss.api<{ id: string }>('POST', '/members', { name: secret.name, email: secret.email, memberships: [{ group: slug }] });
	await boss.api('POST', '/pages', { path: '/guarded', title: 'Guarded', layout: 'article', content: { type: 'doc', content: [] } });
	const [page] = await sql()<{ id: string }[]>`select id from page where path = '/guarded'`;
	await boss.api('POST', '/pages/guarded/publish', {});
	const website = await boss.api<{ id: string; key: string }>('POST', '/websites', { origin: `https://guarded-${process.pid}.example.org`, groups: [slug] });
	const key = await boss.api<{ id: string }>('POST', `/documents/${shut.slug}/keys`, { label: 'Held' });
	filled = {
		slug: shut.slug,
		id: page!.id,
		path: 'guarded',
		kind: 'svg',
		topic: 'door',
		provider: 'none',
		message: website.id,
		'/api/v1/groups/[slug] slug': slug,
		'/api/v1/groups/[slug]/members slug': slug,
		'/api/v1/members/[id] id': id,
		'/api/v1/members/[id]/invite id': id,
		'/api/v1/readership/members/[id] id': id,
		'/api/v1/readership/keys/[id] id': key.id,
		'/desk/readership/by/member/[id] id': id,
		'/desk/readership/by/key/[id] id': key.id,
		'/api/v1/keys/[id] id': key.id,
		'/api/v1/keys/[id]/restore id': key.id,
		'/api/v1/former-addresses/[id] id': website.id,
		'/api/v1/websites/[id] id': website.id,
		'/api/v1/websites/[id]/keys id': website.id,
		'/api/v1/websites/[id]/keys/[key] id': website.id,
		'/api/v1/websites/[id]/keys/[key] key': website.key
	};
	const other = await member();
	await sql()`update person set role = 'editor' where email = ${other.email}`;
	editor = other;
});

describe('the table', () => {
	it('has an entry for every route, and for nothing that is no route', () => {
		expect(tree.map(({ id }) => id).sort()).toEqual(Object.keys(table).sort());
		expect(tree.length).toBeGreaterThan(100);
	});
	it('closes a route that it does not know, to everybody', () => {
		const owner = { who: { kind: 'staff', id: 'x' }, person: { id: 'x', name: 'O', email: 'o@example.org', role: 'owner' } } as const;
		expect(refusalAt(null, 'GET', owner, '127.0.0.1')).toBe('not-found');
	});
	it('lets no token make tokens or come to the desk', () => {
		for (const [id, entry] of Object.entries(table))
			if (id.startsWith('/desk') || id.includes('tokens') || entry.admits === 'member')
				for (const method of methods) expect(scopesFor(entry, method), id).toEqual([]);
	});
});

const hex = (letter: string, upper: boolean) => `%${letter.charCodeAt(0).toString(16)[upper ? 'toUpperCase' : 'toLowerCase']()}`;
/** Ways of writing one address: plain, and with its letters percent-encoded (RFC 3986, 2.1: both cases of the hex digits are the same). */
function spellings(path: string): string[] {
	const letters = [...path].flatMap((letter, i) => (/[a-z]/.test(letter) ? [i] : []));
	const some = (which: readonly number[], upper: boolean) => [...path].map((letter, i) => (which.includes(i) ? hex(letter, upper) : letter)).join('');
	const any = letters[Math.floor(letters.length / 2)]!;
	return [...new Set([path, ...[true, false].flatMap((upper) => [some([letters[0]!], upper), some([any], upper), some(letters, upper)])])];
}

let asked = 0;
/** Asks and says what of it tells something: an answer that is no refusal, or a secret in one. */
async function tells(client: Client, method: string, path: string): Promise<string | null> {
	asked++;
	const form = method === 'POST' && path.includes('?/');
	const response = await fetch(origin + path, {
		method,
		redirect: 'manual',
		headers: {
			...client.headers,
			...(method === 'GET' || method === 'HEAD' || method === 'OPTIONS'
				? {}
				: { 'content-type': form ? 'application/x-www-form-urlencoded' : 'application/json' }),
			...(form ? { accept: 'text/html', origin } : {})
		},
		body: form ? 'name=Mallory&email=mallory%40example.org&password=a-long-password' : ['POST', 'PUT', 'PATCH'].includes(method) ? '{}' : undefined
	});
	const text = await response.text();
	const said = `${method} ${path} → ${response.status}`;
	for (const mark of [...Object.values(secret), filled.slug!]) if (text.includes(mark) && !path.includes(mark)) return `${said} tells “${mark}”`;
	if (response.status === 303) return response.headers.get('location')?.startsWith('/sign-in') ? null : `${said} ${response.headers.get('location')}`;
	if ([400, 401, 403, 404, 405].includes(response.status)) return null;
	// data of a page, or a form's answer: a way to the sign-in, said in JSON
	if (response.status === 200 && /^\{"type":"redirect",(?:"status":303,)?"location":"\/sign-in/.test(text)) return null;
	// the framework itself answers a preflight with the methods there are
	if (method === 'OPTIONS' && response.status === 204 && !text) return null;
	return said;
}

async function wrongOf(client: Client, requests: Iterable<readonly [string, string]>): Promise<string[]> {
	const wrong: string[] = [];
	const waiting = [...requests];
	await Promise.all(
		Array.from({ length: 8 }, async () => {
			for (let next = waiting.pop(); next; next = waiting.pop()) {
				const told = await tells(client, ...next);
				if (told) wrong.push(told);
			}
		})
	);
	return wrong;
}

const everyWay = function* (ids: typeof closed, ways: (path: string) => readonly string[], by: readonly string[]) {
	for (const { id, actions } of ids)
		for (const path of ways(addressOf(id, filled))) {
			for (const method of by) yield [method, path] as const;
			yield ['GET', `${path}/__data.json`] as const;
			for (const action of actions) yield ['POST', `${path}?/${action}`] as const;
		}
};

describe('what the desk shows', () => {
	// what is the same for everybody at all times (the handbook is), and a redirect
	const never = ['+layout.server.ts', '+page.server.ts', 'help/+page.server.ts', 'help/[topic]/+page.server.ts'];
	it('is loaded anew by its name after a change: every load has one', () =>
		expect(
			loads('src/routes/desk')
				.filter(({ names }) => !names.length)
				.map(({ file }) => file)
				.sort()
		).toEqual(never));
});

describe('every closed route, however its address is written', () => {
	const counts = async () =>
		(
			await sql()`select (select count(*) from person) as people, (select count(*) from member_group) as groups, (select count(*) from document) as documents,
				(select count(*) from page) as pages, (select count(*) from api_token) as tokens, (select count(*) from invitation) as invitations,
				(select count(*) from audit) as changes, (select value::text from setting where key = 'site') as site`
		)[0];

	it('tells nothing to a visitor and to a member, and does nothing for them, by any method', async () => {
		const someone = await member();
		const before = await counts();
		for (const client of [visitor(), someone]) {
			const theirs = client === someone ? closed.filter(({ id }) => table[id]!.admits !== 'member') : closed;
			expect(await wrongOf(client, everyWay(theirs, spellings, methods))).toEqual([]);
		}
		expect(await counts()).toEqual(before);
	});
	it('tells nothing to whoever once was somebody, and to whoever holds a key', async () => {
		const lapsed = await member({ group: 'Guard lapsed', until: '2026-01-01' });
		const suspended = await member();
		const kept = await document({ position: 'keyed' });
		const { url } = await (await staff()).api<{ url: string }>('POST', `/documents/${kept.slug}/keys`, { label: 'Holder' });
		const cookie = (await fetch(url, { redirect: 'manual' })).headers.getSetCookie()[0]!.split(';')[0]!;
		await sql()`update person set suspended = true where email = ${suspended.email}`;
		const before = await counts();
		const holder: Client = { ...visitor(), headers: { ...visitor().headers, cookie } };
		for (const client of [lapsed, suspended, holder]) {
			const theirs = client === lapsed ? closed.filter(({ id }) => table[id]!.admits !== 'member') : closed;
			expect(
				await wrongOf(
					client,
					everyWay(theirs, (path) => spellings(path).slice(0, 2), ['GET', 'POST'])
				)
			).toEqual([]);
		}
		expect(await counts()).toEqual(before);
	});
	it('keeps what is the owner’s from an editor', async () => {
		const before = await counts();
		const owners = closed.filter(({ id }) => table[id]!.admits === 'owner');
		expect(owners.length).toBeGreaterThan(0);
		expect(
			await wrongOf(
				editor,
				everyWay(
					owners,
					spellings,
					methods.filter((m) => m !== 'OPTIONS')
				)
			)
		).toEqual([]);
		const changed = closed.filter(({ id }) => table[id]!.changes === 'owner');
		expect(changed.length).toBeGreaterThan(1);
		expect(
			await wrongOf(
				editor,
				changed.flatMap(({ id, actions }) =>
					spellings(addressOf(id, filled)).flatMap((path) => [['PATCH', path] as const, ...actions.map((a) => ['POST', `${path}?/${a}`] as const)])
				)
			)
		).toEqual([]);
		expect(await counts()).toEqual(before);
	});
	it('lets a token do what its scopes name and nothing else', async () => {
		const boss = await staff();
		for (const scope of scopes) {
			const { token } = await boss.api<{ token: string }>('POST', '/tokens', { label: `Only ${scope}`, scopes: [scope] });
			const program: Client = { ...visitor(), headers: { ...visitor().headers, authorization: `Bearer ${token}` } };
			const before = await counts();
			const without = closed.flatMap(({ id }) =>
				(['GET', 'POST', 'PATCH', 'DELETE'] as const)
					.filter((method) => !(scopesFor(table[id]!, method).length && scopesFor(table[id]!, method).every((s) => s === scope)))
					.flatMap((method) =>
						spellings(addressOf(id, filled))
							.slice(0, 2)
							.map((path) => [method, path] as const)
					)
			);
			expect(await wrongOf(program, without), scope).toEqual([]);
			expect(await counts()).toEqual(before);
			for (const { id } of closed) {
				const wanted = scopesFor(table[id]!, 'GET');
				if (!wanted.length || !wanted.every((s) => s === scope) || !tree.find((r) => r.id === id)!.methods.includes('GET') || id.endsWith('/live')) continue;
				const response = await fetch(origin + addressOf(id, filled), { headers: program.headers });
				await response.body?.cancel();
				// let in: what is said then is about what was asked
				expect([200, 404, 422], `${scope} ${id}`).toContain(response.status);
			}
		}
	});
	it('admits those whom it is for', async () => {
		const boss = await staff();
		const shut: string[] = [];
		for (const { id, methods: taken } of closed) {
			if ((taken.length && !taken.includes('GET')) || id.endsWith('/live')) continue;
			for (const path of spellings(addressOf(id, filled)).slice(0, 2)) {
				const response = await boss.get(path, { accept: 'text/html' });
				if (![200, 303, 308].includes(response.status) && !(response.status === 422 && id.startsWith('/api'))) {
					// an id of something else than was filled in finds nothing
					if (!(response.status === 404 && id.startsWith('/api/v1/'))) shut.push(`${path} → ${response.status}`);
				}
			}
		}
		expect(shut).toEqual([]);
		console.log(`The walk of the guard: ${asked} requests, none that told.`);
	});
});

describe('the second lock', () => {
	interface Built {
		manifest: {
			_: {
				nodes: (() => Promise<{ server?: { load?: (event: unknown) => unknown; actions?: Record<string, (event: unknown) => unknown> } }>)[];
				routes: { id: string; page: { leaf: number; layouts: (number | undefined)[] } | null; endpoint: (() => Promise<Record<string, unknown>>) | null }[];
			};
		};
	}
	const callers = {
		visitor: { who: { kind: 'visitor' }, person: null },
		member: {
			who: { kind: 'member', id: newId(), suspended: false, memberships: [] },
			person: { id: newId(), name: 'M', email: 'm@example.org', role: 'member' }
		}
	};
	const eventFor = (id: string, caller: unknown, method: string) => ({
		route: { id },
		locals: { caller, requestId: 'x', language: 'en', siteName: 'x' },
		params: filled,
		url: new URL(`${origin}/?q=x`),
		request: new Request(origin, {
			method,
			headers: { 'content-type': 'application/json' },
			...(['POST', 'PUT', 'PATCH'].includes(method) ? { body: '{}' } : {})
		}),
		cookies: { get: () => undefined, set: () => {}, delete: () => {} },
		getClientAddress: () => '203.0.113.9',
		setHeaders: () => {},
		depends: () => {},
		parent: () => Promise.resolve({}),
		fetch
	});
	/** The status of what a load, action or handler does by itself, without the hook. */
	async function statusOf(id: string, work: (event: unknown) => unknown, caller: unknown, method: string): Promise<number> {
		try {
			const answer = await work(eventFor(id, caller, method));
			return answer instanceof Response ? answer.status : 200;
		} catch (thrown) {
			const { status } = thrown as { status?: number };
			if (typeof status !== 'number') throw thrown;
			return status;
		}
	}
	it('holds in every load, action and handler of the built application, were the hook not there', async () => {
		const { manifest } = (await import(/* @vite-ignore */ pathToFileURL(resolve('.svelte-kit/output/server/manifest-full.js')).href)) as Built;
		let locks = 0;
		const open: string[] = [];
		for (const route of manifest._.routes) {
			const entry = table[route.id]!;
			if (entry.admits === 'everyone') continue;
			const works: [string, string, (event: unknown) => unknown][] = [];
			if (route.page) {
				const leaf = await manifest._.nodes[route.page.leaf]!();
				if (leaf.server?.load) works.push(['load', 'GET', leaf.server.load]);
				for (const [name, action] of Object.entries(leaf.server?.actions ?? {})) works.push([`?/${name}`, 'POST', action]);
				// the layouts of the desk too; that of the whole site is for everyone
				for (const n of route.page.layouts.slice(1)) {
					const layout = n === undefined ? null : await manifest._.nodes[n]!();
					if (layout?.server?.load && route.id.startsWith('/desk')) works.push(['layout', 'GET', layout.server.load]);
				}
			}
			if (route.endpoint)
				for (const [method, handler] of Object.entries(await route.endpoint()))
					if ((methods as readonly string[]).includes(method)) works.push([method, method, handler as never]);
			for (const [name, method, work] of works)
				for (const [who, caller] of Object.entries(callers)) {
					if (who === 'member' && entry.admits === 'member') continue;
					locks++;
					const status = await statusOf(route.id, work, caller, method);
					if (![401, 403, 404].includes(status) || (status === 404 && entry.admits !== 'near')) open.push(`${route.id} ${name} as ${who} → ${status}`);
				}
		}
		expect(open).toEqual([]);
		expect(locks).toBeGreaterThan(200);
	});
});
