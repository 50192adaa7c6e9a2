// One decision guards every address: whatever yields any part of a document refuses whoever the door does not admit.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { document, member, staff, visitor, type Client } from './help';

/** Every route under /d/[slug], from the route tree itself, with its parameters filled in: one that is new stands here at once. */
function addresses(slug: string): string[] {
	const filled: Record<string, string> = {
		'[slug]': slug,
		'[width].webp': '300.webp',
		'[width].jpg': '300.jpg',
		'[page].webp': '1.webp',
		'[page].json': '1.json',
		'[number]': '1'
	};
	const out: string[] = [];
	const walk = (dir: string, path: string) => {
		for (const entry of readdirSync(dir, { withFileTypes: true })) {
			if (entry.isDirectory()) {
				const part = entry.name.includes('[') ? filled[entry.name] : entry.name;
				if (!part) throw new Error(`tests/server/doors.test.ts does not know how to fill in ${entry.name}: add it, so that it is tested`);
				walk(join(dir, entry.name), /^\(.*\)$/.test(entry.name) ? path : `${path}/${part}`);
			} else if (/^\+(server|page(\.server)?)\.(ts|svelte)$/.test(entry.name) && !out.includes(path)) {
				// an address that only takes gives nothing: reading-room.test.ts asks it
				const gives = entry.name !== '+server.ts' || /\bconst GET\b/.test(readFileSync(join(dir, entry.name), 'utf8'));
				if (gives) out.push(path);
			}
		}
	};
	walk('src/routes/d', '/d');
	return out;
}

const statuses = async (client: Client, paths: readonly string[], headers: Record<string, string> = {}) =>
	Object.fromEntries(await Promise.all(paths.map(async (p) => [p, (await client.get(p, headers)).status] as const)));
const all = (paths: readonly string[], status: number) => Object.fromEntries(paths.map((p) => [p, status]));

describe('a shut door', () => {
	it('gives a visitor and a member 404 at every address in the route tree, and names nothing', async () => {
		const shut = await document();
		const paths = [...addresses(shut.slug), `/d/${shut.slug}/file?save`, `/d/${shut.slug}/leaf/2.webp?w=800`];
		expect(paths.length).toBeGreaterThanOrEqual(8);
		const someone = await member({ group: 'Shut testers' });
		for (const client of [visitor(), someone]) {
			for (const accept of ['*/*', 'text/html', 'application/json']) expect(await statuses(client, paths, { accept })).toEqual(all(paths, 404));
			for (const path of paths) {
				const text = await (await client.get(path, { accept: 'text/html' })).text();
				for (const secret of [shut.title, shut.fileName, shut.sha256, String(shut.bytes)]) expect(text, `${path} tells ${secret}`).not.toContain(secret);
			}
		}
	});
	it('answers as if there were nothing: the same page and the same body but for the request’s number', async () => {
		const shut = await document();
		const body = async (slug: string, path: string, accept: string) =>
			(await (await visitor().get(`/d/${slug}${path}`, { accept })).text())
				.replaceAll(slug, 'SLUG')
				.replace(/"requestId":"[^"]+"/g, '')
				.replace(/nonce="[^"]+"/g, '')
				.replace(/__sveltekit_\w+/g, '');
		for (const [path, accept] of [
			['/file', '*/*'],
			['/cover/300.webp', '*/*'],
			['', 'text/html'],
			['/read', 'text/html'],
			['/file', 'text/html']
		] as const)
			expect(await body(shut.slug, path, accept), path).toBe(await body('no-such-document', path, accept));
	});
	it('lets staff through', async () => {
		const shut = await document();
		expect((await (await staff()).get(`/d/${shut.slug}/file`)).status).toBe(200);
		expect((await (await staff()).get(`/d/${shut.slug}/read`)).status).toBe(200);
	});
	it('keeps the JSON API for staff', async () => {
		const shut = await document();
		const someone = await member({ group: 'Shut testers' });
		for (const path of [
			'/api/v1/documents',
			`/api/v1/documents/${shut.slug}`,
			`/api/v1/documents/${shut.slug}/ledger`,
			`/api/v1/documents/${shut.slug}/reach`,
			'/api/v1/groups'
		]) {
			expect([(await visitor().get(path)).status, (await someone.get(path)).status], path).toEqual([401, 403]);
		}
		for (const path of ['/desk/documents', `/desk/documents/${shut.slug}`, `/desk/readership/${shut.slug}`]) {
			expect([(await visitor().get(path)).status, (await someone.get(path)).status], path).toEqual([303, 403]);
		}
	});
});

describe('a keyed door', () => {
	it('lets in the group it admits, asks a visitor to sign in, and turns other members away, at every address', async () => {
		const keeper = await member({ group: 'Keyed keepers' });
		const other = await member({ group: 'Keyed others' });
		const keyed = await document({ position: 'keyed', groups: ['keyed-keepers'] });
		const paths = addresses(keyed.slug).filter((p) => !/\/(?:turned-away|knock)$/.test(p));
		// this document has no attachment: whoever is let in learns just that
		const attachment = `/d/${keyed.slug}/attachment/1`;
		expect(await statuses(keeper, paths)).toEqual({ ...all(paths, 200), [attachment]: 404 });
		expect(await statuses(visitor(), paths)).toEqual(all(paths, 401));
		expect(await statuses(other, paths)).toEqual(all(paths, 403));
		const page = await (await visitor().get(`/d/${keyed.slug}/file`, { accept: 'text/html' })).text();
		expect(page).toContain('For members');
		expect(page).toContain(`/sign-in?to=${encodeURIComponent(`/d/${keyed.slug}`)}`);
		expect(page).not.toContain(keyed.title);
	});
	it('goes by the days of a membership', async () => {
		const lapsed = await member({ group: 'Keyed keepers', until: '2026-01-01' });
		const coming = await member({ group: 'Keyed keepers', from: '2099-01-01' });
		const keyed = await document({ position: 'keyed', groups: ['keyed-keepers'] });
		expect((await (await lapsed.get(`/d/${keyed.slug}/file`)).json()) as object).toMatchObject({ code: 'membership-lapsed', status: 403 });
		expect((await (await coming.get(`/d/${keyed.slug}/file`)).json()) as object).toMatchObject({ code: 'membership-not-yet', status: 403 });
	});
	it('admits people by name', async () => {
		const named = await member();
		const keyed = await document({ position: 'keyed', people: [named.email] });
		expect((await named.get(`/d/${keyed.slug}/file`)).status).toBe(200);
		expect((await (await member()).get(`/d/${keyed.slug}/file`)).status).toBe(403);
	});
	it('takes effect at once when it changes', async () => {
		const keeper = await member({ group: 'Keyed keepers' });
		const keyed = await document({ position: 'keyed', groups: ['keyed-keepers'] });
		expect((await keeper.get(`/d/${keyed.slug}/file`)).status).toBe(200);
		await (await staff()).api('PATCH', `/documents/${keyed.slug}`, { door: { position: 'shut' } });
		expect((await keeper.get(`/d/${keyed.slug}/file`)).status).toBe(404);
	});
	it('its sentence counts the people of today', async () => {
		await member({ group: 'Counted two' }, { group: 'Counted three' });
		await member({ group: 'Counted two' });
		await member({ group: 'Counted two', until: '2026-01-01' });
		const keyed = await document({ position: 'keyed', groups: ['counted-two', 'counted-three'] });
		expect(keyed.door.sentence).toBe('Counted three, Counted two, 2 people, may read, save and print.');
		expect(await (await staff()).api('GET', `/documents/${keyed.slug}/reach`)).toEqual({ sentence: keyed.door.sentence, people: 2, anyone: false });
	});
});

describe('ajar and open', () => {
	it('let a visitor in; ajar tells search engines to keep out and stays out of lists', async () => {
		const [ajar, open] = [await document({ position: 'ajar' }), await document({ position: 'open' })];
		for (const d of [ajar, open]) expect((await visitor().get(`/d/${d.slug}/file`)).status).toBe(200);
		expect((await visitor().get(`/d/${ajar.slug}/file`)).headers.get('x-robots-tag')).toContain('noindex');
		expect((await visitor().get(`/d/${open.slug}/file`)).headers.get('x-robots-tag')).toBeNull();
		expect(await (await visitor().get(`/d/${ajar.slug}`)).text()).toContain('content="noindex"');
	});
	it('hours close an open door', async () => {
		const before = await document({ position: 'open', from: '2099-01-01' });
		const after = await document({ position: 'open', until: '2026-01-01' });
		expect(await (await visitor().get(`/d/${before.slug}/file`)).json()).toMatchObject({ code: 'not-yet', status: 403 });
		expect(await (await visitor().get(`/d/${after.slug}/file`)).json()).toMatchObject({ code: 'closed', status: 403 });
	});
});

describe('with saving off', () => {
	it('the file never leaves, in place or to be saved, while pages are shown as pictures', async () => {
		const kept = await document({ position: 'open', allow: { save: false } });
		for (const path of ['/file', '/file?save'])
			expect(await (await visitor().get(`/d/${kept.slug}${path}`)).json()).toMatchObject({ code: 'save-not-allowed', status: 403 });
		expect((await visitor().get(`/d/${kept.slug}/file`, { range: 'bytes=0-99' })).status).toBe(403);
		const leaf = await visitor().get(`/d/${kept.slug}/leaf/3.webp`);
		expect([leaf.status, leaf.headers.get('content-type')]).toEqual([200, 'image/webp']);
		expect((await visitor().get(`/d/${kept.slug}/leaf/4.webp`)).status).toBe(404);
		const room = await (await visitor().get(`/d/${kept.slug}/read`)).text();
		expect(room).toContain('maySave:false');
	});
});
