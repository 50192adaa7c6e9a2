// What programs ask of the API beside what they want: not to be sent what they have (RFC 9110, 13.1.2), to change only what they have seen
// (13.1.1), to have a press carried out once (the IETF's draft of Idempotency-Key, from memory), and only some fields.
import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { document, member, pdf, staff, type Client, type DocumentJson } from './help';

const { sql } = await import('#server/db/client');
const { dropOldIdempotencyKeys } = await import('#server/http/idempotency');

interface Problem {
	type: string;
	code: string;
	title: string;
	facts: Record<string, string>;
}
const problemOf = async (response: Response) => (await response.json()) as Problem;
const tagOf = async (boss: Client, path: string) => (await boss.get(`/api/v1${path}`)).headers.get('etag')!;

describe('a tag', () => {
	it('comes with everything that is looked at, stays while it stays, and saves its body', async () => {
		const [boss, made] = [await staff(), await document()];
		for (const path of [`/documents/${made.slug}`, '/documents', '/groups', '/site', '/topics', '/members', '/pages']) {
			const first = await boss.get(`/api/v1${path}`);
			const tag = first.headers.get('etag')!;
			expect(tag ?? path, path).toMatch(/^"[\w-]{22,}"$/);
			const again = await boss.get(`/api/v1${path}`, { 'if-none-match': `"other", W/${tag}` });
			expect([path, again.status, again.headers.get('etag'), await again.text()]).toEqual([path, 304, tag, '']);
			expect((await boss.get(`/api/v1${path}`, { 'if-none-match': '"other"' })).status).toBe(200);
		}
		const before = await tagOf(boss, `/documents/${made.slug}`);
		await boss.api('PATCH', `/documents/${made.slug}`, { description: 'Another' });
		expect(await tagOf(boss, `/documents/${made.slug}`)).not.toBe(before);
	});
	it('is asked for by a change: what somebody else changed meanwhile is named, and nothing is overwritten', async () => {
		const [boss, made] = [await staff(), await document()];
		const path = `/api/v1/documents/${made.slug}`;
		const seen = await tagOf(boss, `/documents/${made.slug}`);
		await boss.api('PATCH', `/documents/${made.slug}`, { description: 'Of somebody else', topics: ['Locks'] });
		const refused = await boss.send('PATCH', path, { description: 'Mine' }, { 'if-match': seen });
		expect(refused.status).toBe(412);
		const { code, facts, title } = await problemOf(refused);
		expect([code, facts.differs]).toEqual(['precondition-failed', 'description, topics']);
		expect(title).toContain('description, topics');
		expect(await boss.api<DocumentJson>('GET', `/documents/${made.slug}`)).toMatchObject({ description: 'Of somebody else' });
		// the refusal says what the tag is now; with it the change goes through, and says what the tag is after it
		const done = await boss.send('PATCH', path, { description: 'Mine' }, { 'if-match': facts.etag! });
		expect([done.status, done.headers.get('etag')]).toEqual([200, await tagOf(boss, `/documents/${made.slug}`)]);
		expect((await boss.send('DELETE', path, undefined, { 'if-match': seen })).status).toBe(412);
		expect((await boss.send('DELETE', path, undefined, { 'if-match': '*' })).status).toBe(200);
	});
	it('lets one of many through that saw the same', async () => {
		const [boss, made] = [await staff(), await document()];
		const seen = await tagOf(boss, `/documents/${made.slug}`);
		const answers = await Promise.all(
			Array.from({ length: 12 }, (_, n) => boss.send('PATCH', `/api/v1/documents/${made.slug}`, { description: `Of ${n}` }, { 'if-match': seen }))
		);
		expect(answers.map((a) => a.status).sort()).toEqual([200, ...Array.from({ length: 11 }, () => 412)]);
	});
	it('that is weak matches no change, and of an address where nothing is to be read none does (13.1.1)', async () => {
		const [boss, made] = [await staff(), await document()];
		const seen = await tagOf(boss, `/documents/${made.slug}`);
		expect((await boss.send('PATCH', `/api/v1/documents/${made.slug}`, { description: 'W' }, { 'if-match': `W/${seen}` })).status).toBe(412);
		expect((await boss.send('PATCH', '/api/v1/documents/no-such-paper', { description: 'W' }, { 'if-match': '*' })).status).toBe(412);
	});
	it('guards pages, groups and the site as well', async () => {
		const boss = await staff();
		const page = await boss.api<{ path: string }>('POST', '/pages', { path: `/guarded-${randomUUID().slice(0, 8)}`, title: 'Guarded' });
		for (const [path, change, back] of [
			[`/pages/${encodeURIComponent(page.path)}`, { title: 'Guarded anew' }, { title: 'Guarded' }],
			['/site', { readership: { nameless: 'cookie' } }, null]
		] as const) {
			const seen = await tagOf(boss, path);
			expect([path, (await boss.send('PATCH', `/api/v1${path}`, change, { 'if-match': seen })).status]).toEqual([path, 200]);
			if (back) expect([path, (await boss.send('PATCH', `/api/v1${path}`, back, { 'if-match': seen })).status]).toEqual([path, 412]);
		}
	});
});

describe('a press under a key', () => {
	const key = () => ({ 'idempotency-key': `"${randomUUID()}"` });
	const named = (name: string) => sql()<{ n: number }[]>`select count(*)::int as n from member_group where name = ${name}`;

	it('is carried out once, and gets the same answer each time', async () => {
		const [boss, under, name] = [await staff(), key(), `Once ${randomUUID().slice(0, 8)}`];
		const answers = [];
		for (let n = 0; n < 3; n++) answers.push(await boss.send('POST', '/api/v1/groups', { name }, under));
		expect(answers.map((a) => a.status)).toEqual([201, 201, 201]);
		const bodies = await Promise.all(answers.map((a) => a.text()));
		expect(new Set(bodies).size).toBe(1);
		expect((await named(name))[0]!.n).toBe(1);
		// without a key it is another press
		expect((await boss.send('POST', '/api/v1/groups', { name })).status).toBe(409);
	});
	it('brings a file in once, whose answer was lost', async () => {
		const [boss, under] = [await staff(), key()];
		const bytes = await pdf(`Once ${randomUUID()}`);
		const bring = () => {
			const form = new FormData();
			form.append('file', new Blob([new Uint8Array(bytes)]), 'once.pdf');
			return boss.send('POST', '/api/v1/documents', form, under);
		};
		const [first, second] = [await bring(), await bring()];
		expect([first.status, second.status]).toEqual([201, 201]);
		expect(((await second.json()) as DocumentJson).id).toBe(((await first.json()) as DocumentJson).id);
	});
	it('with something else is refused, and beside itself waits for nothing', async () => {
		const [boss, under, name] = [await staff(), key(), `Beside ${randomUUID().slice(0, 8)}`];
		const beside = await Promise.all(Array.from({ length: 5 }, () => boss.send('POST', '/api/v1/groups', { name }, under)));
		expect(beside.filter((a) => a.status === 201).length).toBeGreaterThan(0);
		for (const answer of beside.filter((a) => a.status !== 201)) expect((await problemOf(answer)).code).toBe('idempotency-open');
		expect((await named(name))[0]!.n).toBe(1);
		const other = await boss.send('POST', '/api/v1/groups', { name: `${name} other` }, under);
		expect([other.status, (await problemOf(other)).code]).toEqual([422, 'idempotency-other']);
	});
	it('that was refused may be asked again under it', async () => {
		const [boss, under, name] = [await staff(), key(), `Refused ${randomUUID().slice(0, 8)}`];
		const first = await boss.api<{ slug: string }>('POST', '/groups', { name });
		expect((await boss.send('POST', '/api/v1/groups', { name }, under)).status).toBe(409);
		await boss.api('DELETE', `/groups/${first.slug}`);
		expect((await boss.send('POST', '/api/v1/groups', { name }, under)).status).toBe(201);
	});
	it('is one person’s, and a member gets nobody’s answer by it', async () => {
		const [boss, under, name] = [await staff(), key(), `Own ${randomUUID().slice(0, 8)}`];
		expect((await boss.send('POST', '/api/v1/groups', { name }, under)).status).toBe(201);
		expect((await (await member()).send('POST', '/api/v1/groups', { name }, under)).status).toBe(403);
	});
	it('is kept so that the database alone does not show a secret of it, and for a day', async () => {
		const [boss, under] = [await staff(), key()];
		const made = await boss.send('POST', '/api/v1/tokens', { label: 'Kept', scopes: ['documents:read'] }, under);
		const text = await made.text();
		const { token } = JSON.parse(text) as { token: string };
		const rows = await sql()<{ id: string; answer: string }[]>`select id, answer from idempotency_key`;
		for (const { id, answer } of rows) {
			expect(id).not.toContain(under['idempotency-key'].slice(1, -1));
			expect(answer ? Buffer.from(answer, 'base64').toString('latin1') : '').not.toContain(token);
		}
		expect((await boss.send('POST', '/api/v1/tokens', { label: 'Another', scopes: ['documents:read'] }, under)).status).toBe(422);
		await sql()`update idempotency_key set at = now() - interval '25 hours'`;
		await dropOldIdempotencyKeys();
		expect((await sql()`select from idempotency_key`).length).toBe(0);
	});
	it('is told in words where it is none', async () => {
		const answer = await (await staff()).send('POST', '/api/v1/groups', { name: 'Unmade' }, { 'idempotency-key': 'short' });
		expect([answer.status, (await problemOf(answer)).code]).toEqual([422, 'not-valid']);
	});
});

describe('fields', () => {
	it('are those that were asked for, of a thing and of each of a list, and the tag is of them', async () => {
		const [boss, made] = [await staff(), await document()];
		const one = await boss.get(`/api/v1/documents/${made.slug}?fields=slug,title`);
		expect(await one.json()).toEqual({ slug: made.slug, title: made.title });
		const tag = one.headers.get('etag')!;
		await boss.api('PATCH', `/documents/${made.slug}`, { description: 'Not among them' });
		expect((await boss.get(`/api/v1/documents/${made.slug}?fields=slug,title`, { 'if-none-match': tag })).status).toBe(304);
		const list = (await (await boss.get('/api/v1/documents?limit=2&fields=slug')).json()) as { items: object[]; next: string; counts: object };
		expect(list.items.map((item) => Object.keys(item))).toEqual([['slug'], ['slug']]);
		expect(Object.keys(list)).toEqual(['items', 'next', 'counts']);
	});
	it('that there are not are named', async () => {
		const answer = await (await staff()).get('/api/v1/documents?fields=slug,colour');
		expect([answer.status, (await problemOf(answer)).title]).toEqual([422, expect.stringContaining('“colour”')]);
	});
});

it('what was wrong leads to a page that explains it', async () => {
	const { type, code } = await problemOf(await (await staff()).get('/api/v1/documents/no-such-paper'));
	const { pathname, hash } = new URL(type);
	expect(hash).toBe(`#${code}`);
	const page = await (await staff()).get(pathname);
	expect([page.status, await page.text()]).toEqual([200, expect.stringContaining(`id="${code}"`)]);
});
