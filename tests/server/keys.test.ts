// Keys over HTTP: issued, remembered by a browser, good for what they say, withdrawn at the next request; and trying the door.
import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { sql } from '#server/db/client';
import { client, document, ledgerOf, member, origin, staff, visitor, type Client, type DocumentJson } from './help';

interface Issued {
	id: string;
	url: string;
}
const issue = async (slug: string, given: Record<string, unknown> = {}) =>
	(await staff()).api<Issued>('POST', `/documents/${slug}/keys`, { label: 'To the boatyard', ...given });
const pathOf = (url: string) => new URL(url).pathname;

/** A browser that has opened a key's address: it holds the cookie of the key, and a reader cookie of its own. */
async function holder(url: string, password?: string): Promise<{ response: Response; browser: Client }> {
	const path = pathOf(url);
	const response = password
		? await fetch(origin + path, {
				method: 'POST',
				redirect: 'manual',
				headers: { origin, accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' },
				body: new URLSearchParams({ password })
			})
		: await visitor().get(path, { accept: 'text/html' });
	const cookies = response.headers.getSetCookie().map((c) => c.split(';')[0]!);
	return { response, browser: client('', { cookie: [...cookies, `ianua_reader=${randomUUID()}`].join('; ') }) };
}
const code = async (response: Response) => ((await response.json()) as { code?: string }).code;

describe('a key', () => {
	it('opens a keyed document for whoever has its address, under its label in the ledger', async () => {
		const { slug } = await document({ position: 'keyed', allow: { save: false, print: false } });
		const { id, url } = await issue(slug, { allow: { save: true, print: false } });
		expect(url).toMatch(new RegExp(`^${origin}/k/[\\w-]{43}$`));
		expect((await visitor().get(`/d/${slug}/file`)).status).toBe(401);
		const { response, browser } = await holder(url);
		expect([response.status, response.headers.get('location')]).toEqual([303, `/d/${slug}`]);
		expect(response.headers.getSetCookie().join()).toMatch(/ianua_keys=[^;]+;.*HttpOnly/i);
		expect((await browser.get(`/d/${slug}`, { accept: 'text/html' })).status).toBe(200);
		expect((await browser.get(`/d/${slug}/file`)).status).toBe(200);
		expect((await browser.get(`/d/${slug}/file?save`)).status).toBe(200);
		const entries = await ledgerOf(slug);
		for (const kind of ['key-used', 'opened', 'saved']) expect(entries.find((e) => e.kind === kind)!.who).toEqual({ kind: 'key', name: 'To the boatyard' });
		const { items } = await (await staff()).api<{ items: { id: string; used: number; saves: number; state: string }[] }>('GET', `/documents/${slug}/keys`);
		expect(items).toMatchObject([{ id, used: 1, saves: 1, state: 'good' }]);
	});
	it('is for its own document alone, and lists nothing', async () => {
		const [one, two] = [await document({ position: 'keyed' }), await document({ position: 'keyed' })];
		const { browser } = await holder((await issue(one.slug)).url);
		expect((await browser.get(`/d/${one.slug}`)).status).toBe(200);
		expect((await browser.get(`/d/${two.slug}`)).status).toBe(401);
	});
	it('is suspended while the door is shut, and says nothing of what is behind', async () => {
		const { slug, title } = await document({ position: 'keyed' });
		const { browser } = await holder((await issue(slug)).url);
		await (await staff()).api('PATCH', `/documents/${slug}`, { door: { position: 'shut' } });
		const refused = await browser.get(`/d/${slug}`, { accept: 'text/html' });
		expect(refused.status).toBe(404);
		expect(await refused.text()).not.toContain(title);
		await (await staff()).api('PATCH', `/documents/${slug}`, { door: { position: 'keyed' } });
		expect((await browser.get(`/d/${slug}`)).status).toBe(200);
	});
	it('withdrawn in the middle of a reading shuts its holders out at their next request', async () => {
		const { slug } = await document({ position: 'keyed' });
		const { id, url } = await issue(slug);
		const { browser } = await holder(url);
		expect((await browser.get(`/d/${slug}/file`, { range: 'bytes=0-99' })).status).toBe(206);
		await (await staff()).api('DELETE', `/keys/${id}`);
		for (const [path, headers] of [
			[`/d/${slug}/file`, { range: 'bytes=100-199' }],
			[`/d/${slug}/leaf/2.webp`, {}],
			[`/d/${slug}/cover/300.webp`, {}]
		] as const) {
			const refused = await browser.get(path, headers);
			expect([refused.status, await code(refused)]).toEqual([403, 'key-withdrawn']);
		}
		expect((await (await holder(url)).response.text()).includes('withdrawn')).toBe(true);
		// once more does no harm; one that never was is told
		await (await staff()).api('DELETE', `/keys/${id}`);
		for (const never of [randomUUID(), 'none']) {
			expect((await (await staff()).send('DELETE', `/api/v1/keys/${never}`)).status).toBe(404);
			expect((await (await staff()).send('POST', `/api/v1/keys/${never}/restore`)).status).toBe(404);
		}
		// given back, it opens again for whoever holds it, and the trail has both
		for (let twice = 0; twice < 2; twice++) await (await staff()).api('POST', `/keys/${id}/restore`);
		expect((await browser.get(`/d/${slug}/file`, { range: 'bytes=100-199' })).status).toBe(206);
		const actions = await sql()<
			{ action: string }[]
		>`select action from audit where action like 'key-%' and (before->>'key' = ${id} or after->>'key' = ${id}) order by at`;
		expect(actions.map((a) => a.action)).toEqual(['key-withdrawn', 'key-restored']);
	});
	it('with a number of openings gives that many, each with all its requests, however many ask at once', async () => {
		const { slug } = await document({ position: 'keyed' });
		const { url } = await issue(slug, { openings: 3 });
		const browsers = await Promise.all(Array.from({ length: 12 }, async () => (await holder(url)).browser));
		const first = await Promise.all(browsers.map((b) => b.get(`/d/${slug}/file`, { range: 'bytes=0-99' })));
		const lucky = browsers.filter((_, i) => first[i]!.status === 206);
		expect(lucky).toHaveLength(3);
		for (const [i, response] of first.entries())
			if (response.status !== 206) expect([i, response.status, await code(response)]).toEqual([i, 403, 'key-used-up']);
		// a reading under way goes on; somebody shut out stays so
		for (const b of lucky) expect((await b.get(`/d/${slug}/leaf/2.webp`)).status).toBe(200);
		const out = browsers.find((b) => !lucky.includes(b))!;
		expect((await out.get(`/d/${slug}/leaf/1.webp`)).status).toBe(403);
		expect((await ledgerOf(slug)).filter((e) => e.kind === 'opened')).toHaveLength(3);
	});
	it('with a password opens where it was given, and guessing ends after ten tries', async () => {
		const { slug } = await document({ position: 'keyed' });
		const { url } = await issue(slug, { password: 'windlass' });
		const asked = await visitor().get(pathOf(url), { accept: 'text/html' });
		expect(asked.status).toBe(200);
		expect(await asked.text()).toContain('This key wants its password');
		const { response, browser } = await holder(url, 'windlass');
		expect(response.status).toBe(303);
		expect((await browser.get(`/d/${slug}/file`)).status).toBe(200);
		// the token alone, in another browser
		const bare = client('', { cookie: `ianua_keys=${pathOf(url).slice(3)}` });
		expect([(await bare.get(`/d/${slug}/file`)).status, await code(await bare.get(`/d/${slug}/file`))]).toEqual([401, 'key-password']);
		const statuses: number[] = [];
		for (let i = 0; i < 12; i++) statuses.push((await holder(url, `guess ${i}`)).response.status);
		expect(statuses.slice(0, 10)).toEqual(Array.from({ length: 10 }, () => 401));
		expect(statuses.slice(10)).toEqual([429, 429]);
		expect((await holder(url, 'windlass')).response.status).toBe(429);
	});
	it('has a last day, which lies ahead', async () => {
		const { slug } = await document({ position: 'keyed' });
		const past = await (await staff()).send('POST', `/api/v1/documents/${slug}/keys`, { label: 'Late', until: '2020-01-01' });
		expect(past.status).toBe(422);
		const { id, url } = await issue(slug, { until: '2099-12-31' });
		const { browser } = await holder(url);
		expect((await browser.get(`/d/${slug}`)).status).toBe(200);
		await sql()`update door_key set until_bound = '2020-01-01' where id = ${id}`;
		const refused = await browser.get(`/d/${slug}`);
		expect(refused.status).toBe(403);
		expect(await (await holder(url)).response.text()).toContain('This key has run out');
	});
	it('is kept only as a hash, its issuing and withdrawing in the audit trail', async () => {
		const { slug, id: documentId } = await document({ position: 'keyed' });
		const { id, url } = await issue(slug, { password: 'windlass' });
		const token = pathOf(url).slice(3);
		const rows = await sql()`select row_to_json(k)::text as all from door_key k where id = ${id}`;
		expect(rows[0]!.all).not.toContain(token);
		expect(rows[0]!.all).not.toContain('windlass');
		await (await staff()).api('DELETE', `/keys/${id}`);
		const trail = await sql()<{ action: string }[]>`select action from audit where thing = ${documentId} order by at`;
		expect(trail.map((t) => t.action)).toEqual(expect.arrayContaining(['key-issued', 'key-withdrawn']));
	});
	it('that was never issued is answered like nothing at all; members and visitors issue none', async () => {
		const { slug } = await document({ position: 'open' });
		expect((await visitor().get(`/k/${'x'.repeat(43)}`, { accept: 'text/html' })).status).toBe(404);
		for (const [who, status] of [
			[visitor(), 401],
			[await member({ group: 'Friends' }), 403]
		] as const) {
			expect((await who.send('POST', `/api/v1/documents/${slug}/keys`, { label: 'Mine' })).status).toBe(status);
			expect((await who.get(`/api/v1/documents/${slug}/keys`)).status).toBe(status);
		}
	});
});

describe('keys of all documents', () => {
	interface Listed {
		items: { id: string; label: string; state: string; until: string | null; document: { slug: string; title: string } }[];
		next: string | null;
		total: number;
	}
	/** Keys with a word of their own in the label, so that those of other tests are not met. */
	async function three() {
		const word = randomUUID();
		const [one, two] = [await document({ position: 'keyed' }), await document({ position: 'keyed' })];
		const keys: Issued[] = [];
		for (const [slug, name] of [
			[one.slug, 'first'],
			[one.slug, 'second'],
			[two.slug, 'third']
		] as const)
			keys.push(await issue(slug, { label: `${word} ${name}`, until: '2099-01-01' }));
		const boss = await staff();
		const list = (query = '') => boss.api<Listed>('GET', `/keys?q=${word}${query}`);
		return { boss, word, one, two, keys, list };
	}
	it('are listed by whom they are for, by document and by how they stand, each once', async () => {
		const { boss, word, one, two, keys, list } = await three();
		expect((await list()).items.map(({ label, document }) => [label, document.slug])).toEqual([
			[`${word} third`, two.slug],
			[`${word} second`, one.slug],
			[`${word} first`, one.slug]
		]);
		expect((await list(`&document=${one.slug}`)).items.map(({ id }) => id)).toEqual([keys[1]!.id, keys[0]!.id]);
		await boss.api('DELETE', `/keys/${keys[2]!.id}`);
		expect([(await list('&state=withdrawn')).items.map(({ id }) => id), (await list('&state=good')).total, (await list('&state=lapsed')).items]).toEqual([
			[keys[2]!.id],
			2,
			[]
		]);
		// one that is issued between two parts of the list shifts nothing
		const part = await list('&limit=2');
		expect(part).toMatchObject({ items: [{ id: keys[2]!.id }, { id: keys[1]!.id }], total: 3 });
		await issue(two.slug, { label: `${word} fourth` });
		expect(await list(`&limit=2&cursor=${part.next}`)).toMatchObject({ items: [{ id: keys[0]!.id }], next: null });
		expect((await boss.send('GET', '/api/v1/keys?cursor=bm8')).status).toBe(422);
		// what was mailed to an address is found by it, and what was set aside opens nothing and is not here
		const mail = `${randomUUID()}@example.org`;
		await boss.api('POST', `/documents/${two.slug}/keys/mail`, { addresses: [`Kit Mason <${mail}>`] });
		expect((await boss.api<Listed>('GET', `/keys?q=${mail}`)).items).toMatchObject([{ label: `Kit Mason, ${mail}`, document: { slug: two.slug } }]);
		await boss.api('DELETE', `/documents/${two.slug}`);
		expect((await boss.api<Listed>('GET', `/keys?q=${mail}`)).total).toBe(0);
	});
	it('are withdrawn together in the middle of a reading, and given back by one undo', async () => {
		const { boss, one, two, keys, list } = await three();
		const browsers = await Promise.all(keys.map(async ({ url }) => (await holder(url)).browser));
		const slugs = [one.slug, one.slug, two.slug];
		const statuses = () => Promise.all(browsers.map(async (browser, i) => (await browser.get(`/d/${slugs[i]}/file`, { range: 'bytes=0-99' })).status));
		expect(await statuses()).toEqual([206, 206, 206]);
		await boss.api('DELETE', `/keys/${keys[0]!.id}`);
		const undo = await boss.api<{ undo: { id: string }[] }>('POST', '/keys/bulk', { keys: keys.map(({ id }) => id), withdrawn: true });
		// one of them was withdrawn before: it is none of this change's
		expect(undo.undo.map(({ id }) => id).sort()).toEqual([keys[1]!.id, keys[2]!.id].sort());
		expect(await statuses()).toEqual([403, 403, 403]);
		await boss.api('POST', '/keys/bulk/undo', undo);
		expect(await statuses()).toEqual([403, 206, 206]);
		expect((await list('&state=withdrawn')).items.map(({ id }) => id)).toEqual([keys[0]!.id]);
	});
	it('get another end together: one that had run out opens again; the trail says which end it had', async () => {
		const { boss, one, keys, list } = await three();
		const { browser } = await holder(keys[0]!.url);
		await sql()`update door_key set until_bound = '2020-01-01' where id = ${keys[0]!.id}`;
		await boss.api('PATCH', `/documents/${one.slug}`, { title: `${one.title} ` });
		expect(await code(await browser.get(`/d/${one.slug}/file`))).toBe('key-lapsed');
		expect((await list('&state=lapsed')).items.map(({ id }) => id)).toEqual([keys[0]!.id]);
		const ids = keys.map(({ id }) => id);
		const undo = await boss.api<{ undo: unknown[] }>('POST', '/keys/bulk', { keys: ids, until: '2099-06-30' });
		expect((await browser.get(`/d/${one.slug}/file`)).status).toBe(200);
		expect((await list()).items.map(({ until }) => until)).toEqual(['2099-06-30', '2099-06-30', '2099-06-30']);
		await boss.api('POST', '/keys/bulk/undo', undo);
		expect((await list()).items.map(({ until }) => until)).toEqual(['2099-01-01', '2099-01-01', '2020-01-01']);
		expect(await code(await browser.get(`/d/${one.slug}/file`))).toBe('key-lapsed');
		await boss.api('POST', '/keys/bulk', { keys: ids, until: null });
		expect((await list()).items.map(({ until }) => until)).toEqual([null, null, null]);
		const trail = await sql()<{ was: string | null; is: string | null }[]>`
			select before->>'until' as was, after->>'until' as is from audit where action = 'key-changed' and after->>'key' = ${keys[0]!.id} order by at`;
		expect([...trail]).toEqual([
			{ was: '2020-01-01', is: '2099-06-30' },
			{ was: '2099-06-30', is: '2020-01-01' },
			{ was: '2020-01-01', is: null }
		]);
	});
	it('all change or none does; nobody but staff sees or changes them', async () => {
		const { boss, keys, list } = await three();
		const ids = keys.map(({ id }) => id);
		const refused = async (body: object) => {
			const response = await boss.send('POST', '/api/v1/keys/bulk', body);
			return [response.status, await code(response)];
		};
		expect(await refused({ keys: [...ids, randomUUID()], withdrawn: true })).toEqual([404, 'key-unknown']);
		expect(await refused({ keys: ids, until: '2020-01-01', withdrawn: true })).toEqual([422, 'not-valid']);
		expect(await refused({ keys: ids, until: 'soon' })).toEqual([422, 'not-valid']);
		expect(await refused({ keys: [], withdrawn: true })).toEqual([422, 'not-valid']);
		expect((await list('&state=good')).total).toBe(3);
		for (const [who, status] of [
			[visitor(), 401],
			[await member({ group: 'Friends' }), 403]
		] as const) {
			expect((await who.get('/api/v1/keys')).status).toBe(status);
			expect((await who.send('POST', '/api/v1/keys/bulk', { keys: ids, withdrawn: true })).status).toBe(status);
			expect((await who.send('POST', '/api/v1/keys/bulk/undo', { undo: ids.map((id) => ({ id, change: { withdrawn: true } })) })).status).toBe(status);
		}
		expect((await list('&state=good')).total).toBe(3);
	});
});

describe('trying the door', () => {
	it('says what a visitor, a member, a group and a key would get, and why', async () => {
		const boss = await staff();
		const warden = await member({ group: 'Lock wardens', from: '2020-01-01' });
		const lapsed = await member({ group: 'Lock wardens', until: '2020-12-31' });
		const made: DocumentJson = await document({ position: 'keyed', groups: ['lock-wardens'], allow: { save: false, print: true }, until: '2099-06-30' });
		const { id } = await issue(made.slug, { allow: { save: true, print: false }, password: 'windlass' });
		const tried = async (as: string, action = 'read', at = '') => {
			const answer = await boss.api<{ allowed: boolean; reasons: { code: string }[]; changesAt: string | null }>(
				'GET',
				`/documents/${made.slug}/decision?as=${encodeURIComponent(as)}&action=${action}${at && `&at=${encodeURIComponent(at)}`}`
			);
			return [answer.allowed, answer.reasons[0]!.code, answer.changesAt];
		};
		// through the whole of 30 June in London, which is summer time: an hour before midnight in UTC
		const ends = '2099-06-30T23:00:00.000Z';
		expect(await tried('visitor')).toEqual([false, 'sign-in', null]);
		expect(await tried(`member:${warden.email}`)).toEqual([true, 'group', ends]);
		expect(await tried(`member:${warden.email}`, 'save')).toEqual([false, 'save-not-allowed', null]);
		expect(await tried(`member:${lapsed.email}`)).toEqual([false, 'membership-lapsed', null]);
		expect(await tried('group:lock-wardens', 'print')).toEqual([true, 'group', ends]);
		expect(await tried(`key:${id}`, 'save')).toEqual([true, 'key', ends]);
		expect(await tried(`key:${id}`, 'print')).toEqual([false, 'print-not-allowed', null]);
		expect(await tried('visitor', 'read', '2100-01-01T00:00:00Z')).toEqual([false, 'closed', null]);
		expect(await tried(`member:olive@example.org`)).toEqual([true, 'staff', null]);
		for (const as of ['member:nobody@example.org', 'group:none', `key:${randomUUID()}`, 'somebody'])
			expect((await boss.get(`/api/v1/documents/${made.slug}/decision?as=${encodeURIComponent(as)}`)).status).toBeGreaterThanOrEqual(404);
		expect((await warden.get(`/api/v1/documents/${made.slug}/decision?as=visitor`)).status).toBe(403);
	});
});
