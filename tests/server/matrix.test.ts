// Every address of a document × every kind of person × every door: the status by a plain second reading of the rules, and where the
// answer is no, not a word of what is behind.
import { randomUUID } from 'node:crypto';
import { request } from 'node:http';
import { beforeAll, describe, expect, it } from 'vitest';
import { client, member, origin, pdf, send, staff, visitor, type Client, type DocumentJson } from './help';

/** A word that stands on the page and nowhere else. */
const inside = 'Quincunxial';
const [yes, none] = [
	{ save: true, print: true },
	{ save: false, print: false }
];

interface DoorCase {
	readonly name: string;
	readonly door: Record<string, unknown>;
	readonly aside?: boolean;
	/** How it stands, for the plain reading. */
	readonly stands: 'hidden' | 'closed' | 'keyed' | 'everyone';
	readonly save: boolean;
}
const keyed = { position: 'keyed' as const, groups: ['matrix-in'] };
const doors: DoorCase[] = [
	{ name: 'shut', door: { position: 'shut', groups: ['matrix-in'] }, stands: 'hidden', save: true },
	{ name: 'open, set aside', door: { position: 'open' }, aside: true, stands: 'hidden', save: true },
	{ name: 'open, not yet', door: { position: 'open', from: '2099-01-01' }, stands: 'closed', save: true },
	{ name: 'keyed, closed since', door: { ...keyed, until: '2020-01-01' }, stands: 'closed', save: true },
	{ name: 'follows a shut page', door: { position: 'open', follows: '/matrix-shut' }, stands: 'hidden', save: true },
	{ name: 'follows a keyed page', door: { position: 'open', follows: '/matrix-keyed' }, stands: 'keyed', save: true },
	{ name: 'keyed', door: keyed, stands: 'keyed', save: true },
	{ name: 'keyed, read only', door: { ...keyed, allow: none }, stands: 'keyed', save: false },
	{ name: 'ajar', door: { position: 'ajar' }, stands: 'everyone', save: true },
	{ name: 'ajar, read only', door: { position: 'ajar', allow: none }, stands: 'everyone', save: false },
	{ name: 'open', door: { position: 'open' }, stands: 'everyone', save: true },
	{ name: 'open, read only', door: { position: 'open', allow: none }, stands: 'everyone', save: false }
];

/** `see`: cover; `read`: pages and their pictures; `save`: the file in any way. */
const addresses: readonly [path: string, needs: 'see' | 'read' | 'save'][] = [
	['', 'see'],
	['/read', 'read'],
	['/cover/300.webp', 'see'],
	['/cover/1200.webp', 'see'],
	['/leaf/1.webp?w=800', 'read'],
	['/leaf/1.json', 'read'],
	['/file', 'save'],
	['/file?save', 'save'],
	['/file?for=reading', 'save']
];
const asides = ['range', 'conditional', 'HEAD'] as const;

interface PersonCase {
	readonly name: string;
	readonly who: (slug: string) => Promise<Client>;
	/** At a keyed door: let in, and with which saving; or the status of the refusal. */
	readonly keyed: { readonly save: 'door' | boolean } | 401 | 403;
	/** Saving by a key counts at an open door too. */
	readonly keySaves?: boolean;
	readonly staff?: boolean;
}

const withKey = async (slug: string, allow: { save: boolean; print: boolean }, withdrawn = false): Promise<Client> => {
	const boss = await staff();
	const { id, url } = await boss.api<{ id: string; url: string }>('POST', `/documents/${slug}/keys`, { label: 'Matrix', allow });
	const response = await visitor().get(new URL(url).pathname);
	const cookie = response.headers
		.getSetCookie()
		.map((c) => c.split(';')[0]!)
		.join('; ');
	if (withdrawn) await boss.api('DELETE', `/keys/${id}`);
	return client('', { cookie: `${cookie}; ianua_reader=${randomUUID()}` });
};

/** The page on which a door's document is placed; its path says nothing of it. */
const placedAt = (door: DoorCase) => `/matrix-placed-${doors.indexOf(door)}`;

let insider: Client, outsider: Client, lapsed: Client;
const people: PersonCase[] = [
	{ name: 'a visitor', who: () => Promise.resolve(visitor(randomUUID())), keyed: 401 },
	{ name: 'a member of the group', who: () => Promise.resolve(insider), keyed: { save: 'door' } },
	{ name: 'a member of another', who: () => Promise.resolve(outsider), keyed: 403 },
	{ name: 'a member whose membership lapsed', who: () => Promise.resolve(lapsed), keyed: 403 },
	{ name: 'the holder of a key to save', who: (slug) => withKey(slug, yes), keyed: { save: true }, keySaves: true },
	{ name: 'the holder of a key to read', who: (slug) => withKey(slug, none), keyed: { save: false } },
	{ name: 'the holder of a withdrawn key', who: (slug) => withKey(slug, yes, true), keyed: 403 },
	{ name: 'staff', who: () => staff(), keyed: { save: true }, staff: true }
];

/** The status, told by the rules read plainly. */
function expected(door: DoorCase, person: PersonCase, needs: 'see' | 'read' | 'save'): number {
	if (person.staff) return 200;
	if (door.stands === 'hidden') return 404;
	if (door.stands === 'closed') return 403;
	if (door.stands === 'keyed') {
		if (typeof person.keyed === 'number') return person.keyed;
		if (needs !== 'save') return 200;
		return (person.keyed.save === 'door' ? door.save : person.keyed.save) ? 200 : 403;
	}
	return needs !== 'save' || door.save || person.keySaves ? 200 : 403;
}

beforeAll(async () => {
	await staff();
	insider = await member({ group: 'Matrix in' });
	outsider = await member({ group: 'Matrix out' });
	lapsed = await member({ group: 'Matrix in', until: '2020-01-01' });
	const [{ addPage, publish, changePage }, { sql }] = await Promise.all([import('#server/placing/commands'), import('#server/db/client')]);
	const [{ id: owner }] = (await sql()<{ id: string }[]>`select id from person where role = 'owner'`) as unknown as [{ id: string }];
	const list = await addPage({ path: '/matrix-list', title: 'List', layout: 'catalogue', content: { show: 'list', order: '-changed', beside: false } }, owner);
	await publish(list, owner);
	const within = { type: 'doc', content: [{ type: 'documentList', attrs: { id: 'matrix', show: 'list', order: '-changed', beside: false } }] };
	await publish(await addPage({ path: '/matrix-article', title: 'List', content: within }, owner), owner);
	for (const [path, door] of [
		['/matrix-shut', { position: 'shut' }],
		['/matrix-keyed', keyed]
	] as const) {
		const id = await addPage({ path, title: path }, owner);
		await publish(id, owner);
		await changePage(id, { door: { ...door, ...('groups' in door ? { groups: [...door.groups] } : {}) } }, owner);
	}
});

describe.each(doors)('a door that is $name', (door) => {
	let made: DocumentJson;
	beforeAll(async () => {
		const boss = await staff();
		const name = `Matrix ${door.name} ${process.pid}`;
		made = (await (await send(await pdf(`${inside} ${name}`, 2), `${name}.pdf`, { title: `Title of ${name}` })).json()) as DocumentJson;
		await boss.api('PATCH', `/documents/${made.slug}`, { door: door.door, description: `Description of ${name}` });
		const path = placedAt(door);
		const content = (['text', 'button', 'cover', 'card', 'frame'] as const).map((form) => ({
			type: 'placement',
			attrs: { document: made.slug, form, press: 'page' }
		}));
		await boss.api('POST', '/pages', { path, title: 'Placed', content: { type: 'doc', content: [{ type: 'paragraph', content }] } });
		await boss.api('POST', `/pages${path}/publish`);
	});

	it.each(people)('$name gets what the rules say at every address, and otherwise learns nothing', async (person) => {
		const who = await person.who(made.slug);
		const boss = await staff();
		if (door.aside) await boss.api('DELETE', `/documents/${made.slug}`);
		try {
			const secrets = [made.title, made.fileName, made.sha256, inside, `Description of`, '%PDF-', 'RIFF'];
			for (const [path, needs] of addresses) {
				const want = expected(door, person, needs);
				const answers: [string, Response][] = [];
				for (const accept of ['*/*', 'text/html']) answers.push([accept, await who.get(`/d/${made.slug}${path}`, { accept })]);
				if (path.startsWith('/file'))
					for (const aside of asides) {
						const headers: Record<string, string> =
							aside === 'range' ? { range: 'bytes=0-99' } : aside === 'conditional' ? { 'if-none-match': `"${made.sha256}"` } : {};
						answers.push([aside, aside === 'HEAD' ? await who.send('HEAD', `/d/${made.slug}${path}`) : await who.get(`/d/${made.slug}${path}`, headers)]);
					}
				for (const [how, response] of answers) {
					const body = Buffer.from(await response.arrayBuffer()).toString('latin1');
					if (want === 200) expect([200, 206, 304], `${path} ${how}`).toContain(response.status);
					else {
						expect([path, how, response.status]).toEqual([path, how, want]);
						const told = body + JSON.stringify([...response.headers]);
						for (const secret of secrets) expect(told.includes(secret), `${path} ${how} tells “${secret}”`).toBe(false);
					}
				}
			}
			// ways around
			for (const path of [
				`/d/${made.slug}/x/../file`,
				`/d/./${made.slug}/file`,
				`/d/${made.slug}%2Ffile`,
				`/d/${made.slug}/%2e%2e/${made.slug}/file`,
				`//d/${made.slug}/file`,
				`/d/${made.slug}/file/`
			]) {
				const { status, body } = await raw(path, who);
				if (expected(door, person, 'save') !== 200 && status < 400 && !(status >= 300 && status < 309)) expect.fail(`${path}: ${status}`);
				if (expected(door, person, 'save') !== 200) expect(body.includes('%PDF-'), path).toBe(false);
			}
			// on other websites and for machines
			const embedded = await who.get(`/embed/${made.slug}`);
			expect(['embed', embedded.status]).toEqual(['embed', expected(door, person, 'read')]);
			const frame = await embedded.text();
			if (expected(door, person, 'read') !== 200) for (const secret of secrets) expect(frame.includes(secret), `embed tells “${secret}”`).toBe(false);
			// whoever asks: these answer as to a visitor
			const asVisitor = expected(door, people[0]!, 'read');
			const oembed = await who.get(`/oembed?url=${encodeURIComponent(`${origin}/d/${made.slug}`)}`);
			expect(['oembed', oembed.status]).toEqual(['oembed', asVisitor === 403 ? 401 : asVisitor]);
			const told = await oembed.text();
			if (asVisitor !== 200) for (const secret of secrets) expect(told.includes(secret), `oembed tells “${secret}”`).toBe(false);
			const openAndListed = door.stands === 'everyone' && door.door.position === 'open';
			for (const path of ['/sitemap.xml', '/matrix-list/feed.atom'])
				expect([path, (await (await who.get(path)).text()).includes(made.slug)]).toEqual([path, openAndListed]);
			const mayList = person.staff || (openAndListed && asVisitor === 200) || (door.stands === 'keyed' && person.name === 'a member of the group');
			const isListed = mayList && expected(door, person, 'read') === 200 && !door.aside;
			for (const path of [`/matrix-list?q=${inside}`, `/matrix-article?list=matrix&q=${inside}`]) {
				const told = (await (await who.get(path)).text()).includes(made.slug);
				if (person.staff) expect([path, told && !isListed]).toEqual([path, false]);
				else expect([path, told]).toEqual([path, isListed]);
			}
			const placed = await (await who.get(placedAt(door))).text();
			expect(['placed', placed.includes(made.title)]).toEqual(['placed', expected(door, person, 'read') === 200 && !door.aside]);

			// lists and the API
			const listed = await (await who.get(`/api/v1/find?q=${inside}`)).text();
			const mayRead = expected(door, person, 'read') === 200;
			if (!mayRead) expect(listed.includes(made.slug)).toBe(false);
			if (!person.staff) {
				for (const path of ['', '/keys', '/ledger', '/reach', '/decision?as=visitor']) {
					const response = await who.get(`/api/v1/documents/${made.slug}${path}`);
					expect([401, 403]).toContain(response.status);
					const told = await response.text();
					for (const secret of secrets.slice(0, 4)) expect(told.includes(secret)).toBe(false);
				}
				const found = await (await who.get('/', { accept: 'text/html' })).text();
				if (!mayRead) expect(found.includes(made.title)).toBe(false);
			}
		} finally {
			if (door.aside) await boss.api('POST', `/documents/${made.slug}/restore`);
		}
	});
});

/** A request whose path goes out as it is written: fetch would tidy it first. */
function raw(path: string, who: Client): Promise<{ status: number; body: string }> {
	const { hostname, port } = new URL(origin);
	return new Promise((done, fail) => {
		const sent = request({ hostname, port, path, headers: who.headers }, (response) => {
			const chunks: Buffer[] = [];
			response.on('data', (chunk: Buffer) => chunks.push(chunk));
			response.on('end', () => done({ status: response.statusCode!, body: Buffer.concat(chunks).toString('latin1') }));
		});
		sent.on('error', fail);
		sent.end();
	});
}
