// The documents room: filters whose counts take account of each other, any order, find, changes to many, labels, set aside.
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { spanOf, within } from '#core/access/hours';
import { makeMany } from '../../demo/many';
import { member, origin, pdf, send, staff, until, visitor, type DocumentJson, zone } from './help';
import { listDocuments } from '#server/documents/list';
import { broughtSpans, filterNames, orderNames, pageBands, type FilterName, type Filters } from '#core/documents/filters';
import { changeSite } from '#server/site/site';
import { sql } from '#server/db/client';
import { given } from './given';

const bring = async (text: string, fields: Record<string, string> = {}, pages = 1) =>
	(await (await send(await pdf(text, pages), `${text}.pdf`, { title: text, ...fields })).json()) as DocumentJson;

describe('filters and their counts', () => {
	interface Plain {
		slug: string;
		title: string;
		values: Record<FilterName, string[]>;
		bytes: number;
		pages: number;
	}
	let all: Plain[];
	const now = Date.now();
	beforeAll(async () => {
		const boss = await staff();
		const department = {
			name: 'department',
			words: 'Department',
			kind: 'choice' as const,
			choices: ['Works', 'Boats', 'Towpath'],
			listed: true,
			filtered: true
		};
		await boss.api('PATCH', '/site', { fields: [department] });
		const { id } = (await sql()<{ id: string }[]>`select id from person where email = 'olive@example.org'`)[0]!;
		// what this process keeps of the site is renewed too
		await changeSite({ fields: [department] }, id);
		await boss.api('GET', '/documents');
		await makeMany({ documents: 400, pages: 0, seed: 5, actor: id, now });
		// the naive second reading of what each document is, in the plainest way
		const rows = await sql()<
			{
				slug: string;
				title: string;
				folder: string;
				topics: string[];
				position: string;
				opens: string | null;
				closes: string | null;
				fields: Record<string, string>;
				away: boolean;
				condition: string;
				placed: boolean;
				language: string | null;
				pages: number;
				created_at: Date;
				created_by: string | null;
				bytes: string;
			}[]
		>`
			select d.slug, d.title, d.folder, d.topics, d.fields, coalesce(f.position, dr.position) as position, case when g.id is null then dr.from_bound else f.from_bound end as opens, case when g.id is null then dr.until_bound else f.until_bound end as closes,
				g.id is not null and (g.set_aside_at is not null or g.published_id is null) as away, e.condition,
				exists (select 1 from placement p where p.document_id = d.id and p.published) as placed, coalesce(d.language, e.language) as language, e.pages, d.created_at, d.created_by, e.bytes
			from document d join edition e on e.id = d.edition_id join door dr on dr.id = d.door_id
				left join page g on g.id = dr.follows_page left join door f on f.id = g.door_id where d.set_aside_at is null`;
		// lists that other tests have put out
		const lists = await sql()<{ everything: boolean; folders: string[]; topics: string[]; fields: Record<string, string[]> }[]>`
			select everything, folders, topics, fields from listing where published`;
		all = rows.map((r) => {
			const age = (now - r.created_at.getTime()) / 86_400_000;
			// outside its hours a door is shut
			const door = r.away || within(spanOf(r.opens, r.closes, zone), now) !== 'in' ? 'shut' : r.position;
			const listed = lists.some(
				(list) =>
					list.everything ||
					list.folders.includes(r.folder) ||
					list.topics.some((topic) => r.topics.includes(topic)) ||
					Object.entries(list.fields).some(([name, values]) => values.includes(r.fields[name] ?? ''))
			);
			return {
				slug: r.slug,
				title: r.title,
				bytes: Number(r.bytes),
				pages: r.pages,
				values: {
					folder: [r.folder],
					topic: r.topics,
					// the others have no choices to be counted
					field: r.fields.department ? [`department:${r.fields.department}`] : [],
					door: [door],
					condition: [r.condition],
					placed: [r.placed || (door !== 'shut' && listed) ? 'yes' : 'no'],
					language: [r.language?.split('-')[0] ?? ''],
					pages: Object.entries(pageBands)
						.filter(([, [from, to]]) => Math.max(1, r.pages) >= from && Math.max(1, r.pages) <= to)
						.map(([name]) => name),
					brought: Object.entries(broughtSpans)
						.filter(([name, days]) => (name === 'older' ? age > 365 : age <= days))
						.map(([name]) => name),
					by: [r.created_by ?? '']
				}
			};
		});
	});
	const fits = (d: Plain, filters: Filters, without?: FilterName) =>
		filterNames.every((name) => name === without || !filters[name]?.length || d.values[name].some((v) => filters[name]!.includes(v)));

	it.each<Filters>([
		{},
		{ door: ['open'] },
		{ door: ['open', 'ajar'], condition: ['look'] },
		{ folder: ['Minutes', ''], topic: ['water'] },
		{ pages: ['1', '200-'], language: ['de', ''], placed: ['no'] },
		{ brought: ['month'], door: ['keyed'] },
		{ brought: ['older'], topic: ['safety', 'boats'], folder: ['Archive/1990s'] },
		{ by: [''], condition: ['refused', 'sound'] },
		{ field: ['department:Works', 'department:Boats'], door: ['open'] }
	])('%j', async (filters) => {
		const list = await listDocuments({ filters, limit: 2000 });
		expect(list.total).toBe(all.filter((d) => fits(d, filters)).length);
		expect(new Set(list.items.map((i) => i.slug))).toEqual(new Set(all.filter((d) => fits(d, filters)).map((d) => d.slug)));
		for (const name of filterNames) {
			const naive = new Map<string, number>();
			for (const d of all) if (fits(d, filters, name)) for (const v of d.values[name]) naive.set(v, (naive.get(v) ?? 0) + 1);
			expect([name, Object.fromEntries(list.counts[name].filter((c) => c.count).map((c) => [c.value, c.count]))]).toEqual([name, Object.fromEntries(naive)]);
		}
	});
	it('every order gives every document once, page by page, and turns round', async () => {
		for (const by of orderNames) {
			const [down, up] = await Promise.all([true, false].map((d) => listDocuments({ order: { by, down: d }, limit: 2000 })));
			expect(new Set(down!.items.map((i) => i.slug)).size).toBe(all.length);
			expect(new Set(up!.items.map((i) => i.slug)).size).toBe(all.length);
		}
		const sizes = (await listDocuments({ order: { by: 'size', down: true }, limit: 2000 })).items.map((i) => i.bytes);
		expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
		const pieces = await Promise.all([0, 100, 200].map((offset) => listDocuments({ order: { by: 'title', down: false }, limit: 100, offset })));
		const whole = await listDocuments({ order: { by: 'title', down: false }, limit: 300 });
		expect(pieces.flatMap((p) => p.items.map((i) => i.slug))).toEqual(whole.items.map((i) => i.slug));
	});
	it('the address carries them', async () => {
		const boss = await staff();
		const answer = await boss.api<{ items: { slug: string }[]; counts: { door: Record<string, number>; total: number } }>(
			'GET',
			'/documents?door=open&door=ajar&topic=water&order=-size&limit=200'
		);
		expect(answer.counts.total).toBe(all.filter((d) => fits(d, { door: ['open', 'ajar'], topic: ['water'] })).length);
		const refused = await boss.send('GET', '/api/v1/documents?door=wide');
		expect(refused.status).toBe(422);
	});
});

describe('find', () => {
	const find = async (q: string, who = staff()) =>
		(
			await (
				await who
			).api<{
				items: { slug: string; title: string; pages: number | null; hits: { page: number; text: string; stretches: { text: string; marked: boolean }[] }[] }[];
			}>('GET', `/find?q=${encodeURIComponent(q)}`)
		).items;
	const titles = async (q: string) => (await find(q)).map((i) => i.title);

	it('words in titles and on pages, stemmed by the language, accents or not, with the pages and the words marked', async () => {
		const words = 'The quibbling otters inspected the sluicegates near the café in Oxmere, and found nothing amiss that day';
		const made = await bring(words, { title: 'Otter inspection' }, 3);
		await (await staff()).api('PATCH', `/documents/${made.slug}`, { language: 'en' });
		const [hit] = await find('quibble inspecting otter');
		expect(hit).toMatchObject({ slug: made.slug, pages: 3 });
		expect(hit!.hits.map((h) => h.page)).toEqual([1, 2, 3]);
		expect(hit!.hits[0]!.stretches.filter((s) => s.marked).map((s) => s.text)).toEqual(expect.arrayContaining(['quibbling', 'otters', 'inspected']));
		expect(await titles('cafe quibbling')).toEqual(['Otter inspection']);
	});
	it('phrases in quotes, words left out, one or the other', async () => {
		await bring('Gossamer narrowboat heading north', { title: 'North' });
		await bring('Gossamer heading for a narrowboat', { title: 'Phrase apart' });
		expect(await titles('"gossamer narrowboat"')).toEqual(['North']);
		expect((await titles('gossamer -north')).sort()).toEqual(['Phrase apart']);
		expect((await titles('gossamer')).sort()).toEqual(['North', 'Phrase apart']);
		expect(await titles('gossamer zeppelin')).toEqual([]);
	});
	it('words on different pages of one document are found together, a phrase on one page; a word left out is nowhere in it', async () => {
		const made = (await (
			await send(await pdf(['The bargee slept', 'Tollhouse accounts', 'A bargee again']), 'bargee.pdf', { title: 'Two pages' })
		).json()) as DocumentJson;
		expect(await titles('bargee tollhouse')).toEqual(['Two pages']);
		const [hit] = await find('bargee tollhouse');
		expect(hit).toMatchObject({ slug: made.slug, pages: 0 });
		expect(hit!.hits.map((h) => [h.page, h.stretches.filter((s) => s.marked).map((s) => s.text)])).toEqual([
			[1, ['bargee']],
			[2, ['Tollhouse']],
			[3, ['bargee']]
		]);
		expect(await titles('bargee -tollhouse')).toEqual([]);
		expect(await titles('bargee "tollhouse accounts"')).toEqual([]);
		expect((await find('tollhouse -zeppelin'))[0]).toMatchObject({ slug: made.slug, pages: 1 });
	});
	it('the language of each document decides its stemming', async () => {
		const german = await bring('Die Schleusen wurden gründlich überprüft', { title: 'Bericht' });
		await (await staff()).api('PATCH', `/documents/${german.slug}`, { language: 'de' });
		expect(await titles('Schleuse gründliche')).toEqual(['Bericht']);
		expect(await titles('Schleuse uberpruft')).toEqual(['Bericht']);
		await (await staff()).api('PATCH', `/documents/${german.slug}`, { language: 'en' });
		expect(await titles('Schleuse gründliche')).toEqual([]);
	});
	it('titles mistyped, where nothing fits as it is written; parts of titles; file names; addresses', async () => {
		const made = await bring('Zigzagging waterfowl census', {});
		expect(await titles('zigzaging watrfowl')).toEqual(['Zigzagging waterfowl census']);
		expect(await titles('gzagg')).toEqual(['Zigzagging waterfowl census']);
		expect((await find(`${origin}/d/${made.slug}`))[0]!.slug).toBe(made.slug);
	});
	it('odd queries end in an answer', async () => {
		for (const q of ['"', '-', '" -', ':*&|!()', '%_\\', '😀', 'a'.repeat(300), "'; drop table document; --"]) expect(Array.isArray(await find(q))).toBe(true);
		expect((await (await staff()).send('GET', '/api/v1/find?q=')).status).toBe(422);
	});
	it('only the edition in force is found', async () => {
		const boss = await staff();
		const made = await bring('Obsolete wherryman rules');
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(await pdf('Modern lighterman rules'))]), 'rules.pdf');
		expect((await boss.send('POST', `/api/v1/documents/${made.slug}/editions`, form)).status).toBe(201);
		expect((await find('lighterman')).length).toBe(1);
		expect((await find('wherryman')).map((i) => i.hits.length)).toEqual([0]);
		await boss.api('PATCH', `/documents/${made.slug}`, { edition: 1 });
		expect((await find('lighterman')).length).toBe(0);
		expect((await find('wherryman'))[0]!.hits.length).toBe(1);
	});
	it('visitors and members find what lists show them, and words only where they may read', async () => {
		const boss = await staff();
		const reader = await member({ group: 'Find readers' });
		const open = await bring('Plumtree open meeting', { title: 'Plumtree open' });
		const kept = await bring('Plumtree kept meeting', { title: 'Plumtree kept' });
		await bring('Plumtree shut meeting', { title: 'Plumtree shut' });
		const ajar = await bring('Plumtree ajar meeting', { title: 'Plumtree ajar' });
		await boss.api('PATCH', `/documents/${open.slug}`, { door: { position: 'open' } });
		await boss.api('PATCH', `/documents/${kept.slug}`, { door: { position: 'keyed', groups: ['find-readers'] } });
		await boss.api('PATCH', `/documents/${ajar.slug}`, { door: { position: 'ajar' } });
		const seen = async (who: Promise<Awaited<ReturnType<typeof staff>>>) => (await find('plumtree meeting', who)).map((i) => i.title).sort();
		expect(await seen(Promise.resolve(visitor()))).toEqual(['Plumtree open']);
		expect(await seen(Promise.resolve(reader))).toEqual(['Plumtree kept', 'Plumtree open']);
		expect((await seen(staff())).length).toBe(4);
	});
});

describe('changes to many at once', () => {
	it('folder, topics, door and set aside, each put back by one undo; all or none', async () => {
		const boss = await staff();
		const three = await Promise.all(['Bulk one', 'Bulk two', 'Bulk three'].map((t) => bring(t, { folder: `Folder of ${t}` })));
		const documents = three.map((d) => d.slug);
		const now = () => Promise.all(documents.map((slug) => boss.api<DocumentJson>('GET', `/documents/${slug}`)));
		const before = (await now()).map(({ folder, topics, door }) => ({ folder, topics, position: door.position }));
		const { undo } = await boss.api<{ undo: unknown[] }>('POST', '/bulk', {
			documents,
			folder: ' Together ',
			addTopics: ['Bulky', 'two  words'],
			door: { position: 'open' }
		});
		for (const d of await now()) expect([d.folder, d.topics, d.door.position]).toEqual(['Together', ['Bulky', 'two words'], 'open']);
		await boss.api('POST', '/bulk/undo', { undo });
		expect((await now()).map(({ folder, topics, door }) => ({ folder, topics, position: door.position }))).toEqual(before);

		const aside = await boss.api<{ undo: unknown[] }>('POST', '/bulk', { documents, aside: true });
		expect((await boss.api<{ counts: { total: number } }>('GET', '/documents?folder=Folder+of+Bulk+one')).counts.total).toBe(0);
		await boss.api('POST', '/bulk/undo', { undo: aside.undo });
		expect((await now()).every((d) => d.setAsideAt === null)).toBe(true);

		const failed = await boss.send('POST', '/api/v1/bulk', { documents: [...documents, 'no-such-document'], folder: 'Half' });
		expect(failed.status).toBe(404);
		expect((await now()).some((d) => d.folder === 'Half')).toBe(false);
	});
	it('folders and topics are renamed wherever they stand', async () => {
		const boss = await staff();
		const [a, b] = await Promise.all([bring('Label a', { folder: 'Mispelt' }), bring('Label b', { folder: 'Mispelt' })]);
		await boss.api('PATCH', `/documents/${a.slug}`, { topics: ['olde', 'kept'] });
		expect((await boss.api<{ items: { name: string; count: number }[] }>('GET', '/folders')).items).toContainEqual({ name: 'Mispelt', count: 2 });
		expect(await boss.api('PATCH', '/folders', { from: 'Mispelt', to: 'Misspelt' })).toEqual({ changed: 2 });
		await boss.api('PATCH', '/topics', { from: 'olde', to: 'old' });
		expect((await boss.api<DocumentJson>('GET', `/documents/${a.slug}`)).topics).toEqual(['old', 'kept']);
		expect((await boss.api<DocumentJson>('GET', `/documents/${b.slug}`)).folder).toBe('Misspelt');
		await boss.api('PATCH', '/topics', { from: 'old', to: '' });
		expect((await boss.api<DocumentJson>('GET', `/documents/${a.slug}`)).topics).toEqual(['kept']);
	});
});

describe('set aside', () => {
	it('is gone for readers, says the turned-away words where it was placed, and comes back as it was', async () => {
		const boss = await staff();
		const made = await bring('Set aside for a while');
		await boss.api('PATCH', `/documents/${made.slug}`, { door: { position: 'open' } });
		await boss.api('DELETE', `/documents/${made.slug}`);
		for (const part of ['', '/file', '/read', '/cover/300.webp']) expect((await visitor().get(`/d/${made.slug}${part}`)).status).toBe(404);
		expect((await boss.api<{ items: { slug: string }[] }>('GET', '/documents?aside=true')).items.map((i) => i.slug)).toContain(made.slug);
		const back = await boss.api<DocumentJson>('POST', `/documents/${made.slug}/restore`);
		expect([back.setAsideAt, back.door.position]).toEqual([null, 'open']);
		expect((await visitor().get(`/d/${made.slug}/file`)).status).toBe(200);
	});
	it('after thirty days it is gone for good: 410, no bytes kept, not to be restored', async () => {
		const { sweep } = await import('#server/intake/sweep');
		const { exists, pathOf } = await import('#server/store/store');
		const boss = await staff();
		const made = await bring('Gone for good');
		await boss.api('DELETE', `/documents/${made.slug}`);
		await sql()`update document set set_aside_at = now() - interval '31 days' where slug = ${made.slug}`;
		const late = await boss.send('POST', `/api/v1/documents/${made.slug}/restore`);
		expect(late.status).toBe(410);
		await sweep(Date.now());
		expect((await visitor().get(`/d/${made.slug}`)).status).toBe(410);
		expect(await exists(pathOf(made.sha256))).toBe(false);
	});
});

describe('addresses, covers, saved filters, tokens', () => {
	it('a changed address leads on for good, through several changes, and is never given to another', async () => {
		const boss = await staff();
		const made = await bring('Moving house');
		await boss.api('PATCH', `/documents/${made.slug}`, { slug: 'moved-once' });
		await boss.api('PATCH', '/documents/moved-once', { slug: 'moved-twice', door: { position: 'open' } });
		const led = await visitor().get(`/d/${made.slug}`);
		expect([led.status, led.headers.get('location')]).toEqual([308, '/d/moved-twice']);
		expect((await boss.api<DocumentJson>('GET', '/documents/moved-once')).addresses).toEqual(['moved-once', made.slug].sort());
		const other = await bring('Another house');
		const taken = await boss.send('PATCH', `/api/v1/documents/${other.slug}`, { slug: 'moved-once' });
		expect([taken.status, ((await taken.json()) as { code: string }).code]).toEqual([409, 'address-taken']);
	});
	it('a cover from another page, a picture, an icon; what is no picture is refused', async () => {
		const sharp = (await import('sharp')).default;
		const boss = await staff();
		const made = await bring('Covered', {}, 3);
		const cover = async () => Buffer.from(await (await boss.get(`/d/${made.slug}/cover/300.webp`)).arrayBuffer());
		const first = await cover();
		await boss.api('PATCH', `/documents/${made.slug}`, { coverPage: 3, coverAlt: 'The third page' });
		const third = await cover();
		expect(third.equals(first)).toBe(false);
		expect((await boss.send('PATCH', `/api/v1/documents/${made.slug}`, { coverPage: 4 })).status).toBe(422);
		await boss.api('POST', `/documents/${made.slug}/cover`, { icon: 'ship' });
		expect((await cover()).equals(third)).toBe(false);
		const picture = await sharp({ create: { width: 40, height: 20, channels: 3, background: '#ff0000' } })
			.png()
			.toBuffer();
		const sendPicture = (bytes: Uint8Array) => {
			const form = new FormData();
			form.append('file', new Blob([bytes as BlobPart]), 'cover.png');
			return boss.send('POST', `/api/v1/documents/${made.slug}/cover`, form);
		};
		expect((await sendPicture(picture)).status).toBe(200);
		expect(await sharp(await cover()).metadata()).toMatchObject({ width: 40, height: 20 });
		const bad = await sendPicture(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'));
		expect([bad.status, ((await bad.json()) as { code: string }).code]).toEqual([422, 'picture-unusable']);
		const vast = await sharp({ create: { width: 10_001, height: 10_000, channels: 3, background: '#ff0000' } })
			.png()
			.toBuffer();
		expect((await sendPicture(vast)).status).toBe(422);
		// thrown away, it is made again
		await rm(join(given.environment.IANUA_DATA!, 'files', 'made'), { recursive: true });
		expect(await sharp(await cover()).metadata()).toMatchObject({ width: 40, height: 20 });
		await boss.api('PATCH', `/documents/${made.slug}`, { coverPage: null });
		expect((await cover()).equals(first)).toBe(true);
		const { items } = await boss.api<{ items: { name: string }[] }>('GET', '/icons?q=boat');
		expect(items.map((i) => i.name)).toEqual(expect.arrayContaining(['ship', 'sailboat']));
	});
	it('filters are saved under a name, only what the room understands of them', async () => {
		const boss = await staff();
		const saved = await boss.api<{ id: string; query: string }>('POST', '/filters', { name: 'Look', query: 'door=open&colour=red&q=lock&order=-size' });
		expect(saved.query).toBe('door=open&q=lock&order=-size');
		expect((await boss.send('POST', '/api/v1/filters', { name: 'Look', query: '' })).status).toBe(409);
		await boss.api('DELETE', `/filters/${saved.id}`);
		expect((await boss.api<{ items: { id: string }[] }>('GET', '/filters')).items.map((f) => f.id)).not.toContain(saved.id);
	});
	it('a token speaks for its person until withdrawn, and is kept only as a hash', async () => {
		const boss = await staff();
		const { id, token } = await boss.api<{ id: string; token: string }>('POST', '/tokens', { label: 'Newsletter', scopes: ['documents:read'] });
		const ask = () => fetch(`${origin}/api/v1/documents`, { headers: { authorization: `Bearer ${token}` } });
		expect((await ask()).status).toBe(200);
		const [row] = await sql()<{ hash: string }[]>`select hash from api_token where id = ${id}`;
		expect(row!.hash).not.toContain(token.slice(6));
		await boss.api('DELETE', `/tokens/${id}`);
		expect((await ask()).status).toBe(401);
		expect((await (await member()).send('POST', '/api/v1/tokens', { label: 'x', scopes: ['documents:read'] })).status).toBe(403);
	});
});

describe('editions', () => {
	const put = async (slug: string, bytes: Uint8Array, name = 'next.pdf') => {
		const form = new FormData();
		form.append('file', new Blob([bytes as BlobPart]), name);
		return (await staff()).send('POST', `/api/v1/documents/${slug}/editions`, form);
	};
	it('a new one keeps address, door and history; what changed is told; one goes back', async () => {
		const boss = await staff();
		const tuesday = await pdf('Timetable for Tuesday', 4);
		const made = await bring('Timetable for Monday', {}, 3);
		await boss.api('PATCH', `/documents/${made.slug}`, { door: { position: 'open' } });
		const second = (await (await put(made.slug, tuesday)).json()) as DocumentJson;
		expect(second).toMatchObject({ slug: made.slug, pages: 4, door: { position: 'open' } });
		expect(second.editions.map((e) => [e.number, e.inForce])).toEqual([
			[2, true],
			[1, false]
		]);
		const compared = await boss.api<{ added: number; removed: number; pages: { kind: string; parts: { kind: string; text: string }[] }[] }>(
			'GET',
			`/documents/${made.slug}/editions/compare?before=1&after=2`
		);
		expect(compared.pages.map((p) => p.kind)).toEqual(['changed', 'changed', 'changed', 'added']);
		expect(compared.pages[0]!.parts.filter((p) => p.kind !== 'same').map((p) => p.text)).toEqual(['Monday', 'Tuesday']);
		expect((await put(made.slug, tuesday)).status).toBe(409);
		const back = await boss.api<DocumentJson>('PATCH', `/documents/${made.slug}`, { edition: 1 });
		expect([back.pages, back.sha256]).toEqual([3, made.sha256]);
		expect((await boss.send('PATCH', `/api/v1/documents/${made.slug}`, { edition: 9 })).status).toBe(422);
	});
	it('one that is no PDF or locked leaves the edition in force alone', async () => {
		const boss = await staff();
		const made = await bring('Steady');
		expect((await put(made.slug, Buffer.from('no'))).status).toBe(415);
		expect((await boss.api<DocumentJson>('GET', `/documents/${made.slug}`)).editions).toHaveLength(1);
	});
	it('a reader in the middle goes on with the edition they began with; nobody else gets it', async () => {
		const boss = await staff();
		const made = await bring('Long read', {}, 2);
		await boss.api('PATCH', `/documents/${made.slug}`, { door: { position: 'open' } });
		const reader = visitor('11111111-2222-4333-8444-555555555555');
		const other = visitor('99999999-2222-4333-8444-555555555555');
		const first = Buffer.from(await (await reader.get(`/d/${made.slug}/file?for=reading&e=1`)).arrayBuffer());
		await put(made.slug, await pdf('Long read, rewritten', 2));
		const still = await reader.get(`/d/${made.slug}/file?for=reading&e=1`);
		expect(Buffer.from(await still.arrayBuffer()).equals(first)).toBe(true);
		expect((await reader.get(`/d/${made.slug}/leaf/1.webp?e=1`)).status).toBe(200);
		expect((await other.get(`/d/${made.slug}/file?for=reading&e=1`)).status).toBe(404);
		const now = Buffer.from(await (await reader.get(`/d/${made.slug}/file`)).arrayBuffer());
		expect(now.equals(first)).toBe(false);
	});
});

it('no intake is left behind', async () => {
	const waiting = async () => (await sql()`select 1 from edition where condition = 'checking' and pending`).length === 0;
	expect(await until(waiting)).toBe(true);
});

describe('find over all that has a screen', () => {
	const find = async (who: { get(path: string): Promise<Response> }, q: string) => {
		const response = await who.get(`/desk/find?q=${encodeURIComponent(q)}`);
		return response.ok ? ((await response.json()) as { items: { kind: string; title: string; href: string }[] }).items : response.status;
	};
	it('gives staff documents, pages, people and groups, each with the address of its screen', async () => {
		const boss = await staff();
		const { slug } = await bring('Sluice keeping at Marlmouth', {}, 1);
		await boss.api('POST', '/pages', { title: 'Days at Marlmouth', path: '/marlmouth', layout: 'article' });
		await boss.api('POST', '/groups', { name: 'Marlmouth rowers' });
		await boss.api('POST', '/members', { name: 'Marl Mouthe', email: 'm@marlmouth.example' });
		const items = await find(boss, 'marlmouth');
		expect(items).toEqual([
			expect.objectContaining({ kind: 'document', title: 'Sluice keeping at Marlmouth', href: `/desk/documents/${slug}` }),
			expect.objectContaining({ kind: 'page', title: 'Days at Marlmouth', href: expect.stringMatching(/^\/desk\/pages\/[0-9a-f-]{36}$/) }),
			expect.objectContaining({ kind: 'person', title: 'Marl Mouthe', href: expect.stringMatching(/^\/desk\/people\?person=[0-9a-f-]{36}$/) }),
			expect.objectContaining({ kind: 'group', title: 'Marlmouth rowers', href: '/desk/people?group=marlmouth-rowers' })
		]);
		for (const { href } of items as { href: string }[]) expect((await boss.get(href)).status, href).toBe(200);
		expect(await find(boss, '')).toEqual([]);
		expect(await find(boss, 'nothing-is-called-this')).toEqual([]);
	});
	it('tells visitors and members nothing', async () => {
		expect(await find(visitor(), 'marlmouth')).toBe(401);
		expect(await find(await member(), 'marlmouth')).toBe(403);
	});
});
