// Where documents stand: put on pages from outside their editors, linked among words, and listed without being named.
import { beforeAll, describe, expect, it } from 'vitest';
import { sql } from '#server/db/client';
import { linesOf } from '#server/documents/list';
import { placeOldLinks } from '#server/placing/old-links';
import { member, origin, pdf, send, staff, visitor, type Client, type DocumentJson } from './help';

let boss: Client;
let made = 0;
const bring = async (title: string, door: object, folder = '') => {
	const { slug } = (await (await send(await pdf(title), `${title}.pdf`, { title, folder })).json()) as DocumentJson;
	await boss.api('PATCH', `/documents/${slug}`, { door });
	return slug;
};
const text = (...content: object[]) => ({ type: 'doc', content: [{ type: 'paragraph', content }] });
const words = (said: string, href?: string) => ({ type: 'text', text: said, ...(href ? { marks: [{ type: 'link', attrs: { href } }] } : {}) });
const at = (path: string) => `/pages/${encodeURIComponent(path)}`;
async function page(content: object, { layout = 'article', door, out = true }: { layout?: string; door?: object; out?: boolean } = {}): Promise<string> {
	const path = `/place-${process.pid}-${++made}`;
	await boss.api('POST', '/pages', { path, title: `Place ${made}`, layout, content, ...(door ? { door } : {}) });
	if (out) await boss.api('POST', `${at(path)}/publish`, {});
	return path;
}
const seen = async (path: string, who: Client = visitor()) => (await who.get(path)).text();
interface Put {
	places: { page: string; placement: string }[];
	before: object;
	asks?: { page: string; document: string; whom: string }[];
}
const put = (documents: string[], places: object[], ask = false) => boss.api<Put>('POST', '/placements', { documents, places, ask });

let open: string;
let keyed: string;
beforeAll(async () => {
	boss = await staff();
	await member({ group: 'Place keepers' });
	open = await bring('Open to all', { position: 'open' });
	keyed = await bring('Kept for keepers', { position: 'keyed', groups: ['place-keepers'] });
});

it('a list for other websites has what visitors see listed, some at a time, and any website may ask', async () => {
	const folder = `Shelf ${process.pid}`;
	const slugs = [];
	for (const n of [1, 2, 3]) slugs.push(await bring(`Shelved ${n}`, { position: 'open' }, folder));
	await bring('Kept off the shelf', { position: 'keyed', groups: ['place-keepers'] }, folder);
	await bring('Quiet on the shelf', { position: 'open', listed: false }, folder);
	interface Part {
		items: { href: string; title: string; pages: number; ratio: number | null }[];
		next: number | null;
	}
	const ask = (query: string, who = visitor()) =>
		who.get(`/documents.json?folder=${encodeURIComponent(folder)}&${query}`, { origin: 'https://club.example.org' });
	const answer = await ask('');
	expect([answer.status, answer.headers.get('access-control-allow-origin')]).toEqual([200, '*']);
	const { items, next } = (await answer.json()) as Part;
	expect(next).toBeNull();
	expect(items.map(({ href, title, pages }) => [href, title, pages])).toEqual(slugs.map((slug, i) => [`${origin}/d/${slug}`, `Shelved ${i + 1}`, 1]));
	// staff and members get no more: it is shown to anybody
	for (const who of [boss, await member({ group: 'Place keepers' })]) expect(((await (await ask('', who)).json()) as Part).items.length).toBe(3);
	expect(((await (await ask('most=2&order=-changed')).json()) as Part).items.map((i) => i.title)).toEqual(['Shelved 3', 'Shelved 2']);
	const odd = (await (await ask('from=2&most=x&order=none')).json()) as Part;
	expect(odd.items.map((i) => i.title)).toEqual(['Shelved 3']);
	const feed = await visitor().get(`/documents.atom?folder=${encodeURIComponent(folder)}`);
	const text = await feed.text();
	expect([feed.headers.get('content-type'), [...text.matchAll(/<title>(Shelved \d)/g)].map((m) => m[1])]).toEqual([
		'application/atom+xml; charset=utf-8',
		['Shelved 3', 'Shelved 2', 'Shelved 1']
	]);
	expect(text).toContain(`<link rel="self" type="application/atom+xml" href="${origin}/documents.atom?folder=Shelf+${process.pid}"/>`);
	expect((await visitor().get('/documents.json?folder=None')).status).toBe(200);
	const tag = answer.headers.get('etag')!;
	expect((await visitor().get(`/documents.json?folder=${encodeURIComponent(folder)}&`, { 'if-none-match': tag })).status).toBe(304);
});

describe('documents put on pages from outside', () => {
	it('stand at their ends, in drafts and in what is out, which says nothing else of the draft; and are taken out again', async () => {
		const path = await page(text(words('Before.')));
		const draft = await page(text(words('A draft.')), { out: false });
		await boss.api('PATCH', at(path), { content: text(words('Being rewritten.')) });
		const { places, before } = await put(
			[open],
			[
				{ page: path, form: 'button', press: 'save' },
				{ page: draft, form: 'text', press: 'page' }
			]
		);
		expect(places.map((place) => place.page)).toEqual([path, draft]);
		const out = await seen(path);
		expect(out).toContain(`/d/${open}/file?save&amp;from=${places[0]!.placement}`);
		expect(out).toContain('Before.');
		expect(out).not.toContain('Being rewritten.');
		expect(JSON.stringify(await boss.api('GET', at(path)))).toContain('Being rewritten.');
		expect((await visitor().get(draft)).status).toBe(404);
		await boss.api('PATCH', '/placements', before);
		expect(await seen(path)).not.toContain(`/d/${open}`);
		// gone already, it is no trouble
		await boss.api('PATCH', '/placements', before);
	});
	it('ask first where readers would be turned away, and then do nothing', async () => {
		const path = await page(text(words('For all.')));
		const { asks, places } = await put([open, keyed], [{ page: path, form: 'text', press: 'page' }], true);
		expect(places).toEqual([]);
		expect(asks).toMatchObject([{ page: path, document: keyed }]);
		expect(await seen(path)).not.toContain(`/d/${open}`);
		expect(JSON.stringify(await boss.api('GET', at(path)))).not.toContain(open);
		expect((await put([open, keyed], [{ page: path, form: 'text', press: 'page' }])).places).toHaveLength(2);
		expect(await seen(path)).toContain(`/d/${open}`);
	});
	it('are refused for what is not there, for a page that is no article, and for whom it is none of', async () => {
		const path = await page(text(words('Here.')));
		const list = await page({ folders: ['None'], show: 'list', order: 'title', beside: false }, { layout: 'catalogue' });
		const refused = async (documents: string[], where: string, who = boss) =>
			(await who.send('POST', '/api/v1/placements', { documents, places: [{ page: where, form: 'text', press: 'page' }] })).status;
		expect(await refused(['nowhere'], path)).toBe(422);
		expect(await refused([open], '/nowhere')).toBe(422);
		expect(await refused([open], list)).toBe(422);
		expect(await refused([open], path, await member())).toBe(403);
		expect(await seen(path)).not.toContain(`/d/${open}`);
	});
});

describe('links to documents among words', () => {
	const placementsOf = async (slug: string) =>
		(await boss.api<Omit<DocumentJson, 'placements'> & { placements: { id: string; page: string; press: string }[] }>('GET', `/documents/${slug}`)).placements;
	it('are placements, the same ones as often as they are sent, and tell of dead ends', async () => {
		const content = text(
			words('Read '),
			words('the keepers’ paper', `${origin}/d/${keyed}/read#page=1`),
			words(' and '),
			words('a site', 'https://other.example/d/x')
		);
		const path = await page(content);
		const mine = async () => (await placementsOf(keyed)).filter((place) => place.page === path);
		const [first] = await mine();
		expect(first).toMatchObject({ press: 'here' });
		await boss.api('PATCH', at(path), { content });
		await boss.api('POST', `${at(path)}/publish`, {});
		expect((await mine()).map((place) => place.id)).toEqual([first!.id]);
		const { items } = await boss.api<{ items: { kind: string; document: string }[] }>('GET', `/mismatches?page=${encodeURIComponent(path)}`);
		expect(items).toMatchObject([{ kind: 'dead-end', document: keyed }]);
		const out = await seen(path);
		expect(out).toContain('href="https://other.example/d/x"');
		// one that names no document stays a link
		expect(await seen(await page(text(words('gone', '/d/there-never-was'))))).toContain('href="/d/there-never-was"');
	});
	it('of older texts are brought over, in the draft and in what is out', async () => {
		const path = await page(text(words('An old text.')));
		const old = JSON.stringify(text(words('An old text with '), words('its paper', `/d/${open}`)));
		await sql()`update page set draft = ${old}::text::jsonb where path = ${path}`;
		await sql()`update revision set content = ${old}::text::jsonb where id = (select published_id from page where path = ${path})`;
		expect(await seen(path)).not.toContain('?from=');
		await placeOldLinks();
		const revisions = async () => (await boss.api<{ items: object[] }>('GET', `${at(path)}/revisions`)).items.length;
		const after = await revisions();
		expect(await seen(path)).toMatch(new RegExp(`href="/d/${open}\\?from=[0-9a-f]{16}"[^>]*>(?:<!--.*?-->)*its paper`));
		expect((await placementsOf(open)).map((place) => place.page)).toContain(path);
		// once
		await placeOldLinks();
		expect(await revisions()).toBe(after);
	});
});

describe('documents in lists', () => {
	/** Pages with a list that has it: what other tests have put out lists it too. The filter says the same. */
	const listedOn = async (slug: string) => {
		const [line] = await linesOf([slug]);
		const { items } = await boss.api<{ items: { slug: string }[] }>('GET', `/documents?placed=yes&q=${slug}&limit=200`);
		expect(items.some((item) => item.slug === slug)).toBe(line!.listedOn > 0);
		return line!.listedOn;
	};
	it('count as placed as long as a list that is out has them and somebody may open them', async () => {
		const folder = `Listed ${process.pid}`;
		const slug = await bring('Listed by its folder', { position: 'open' }, folder);
		const before = await listedOn(slug);
		const path = await page({ folders: [folder], show: 'list', order: 'title', beside: false }, { layout: 'catalogue', out: false });
		expect(await listedOn(slug)).toBe(before);
		await boss.api('POST', `${at(path)}/publish`, {});
		expect(await listedOn(slug)).toBe(before + 1);
		await boss.api('PATCH', `/documents/${slug}`, { door: { position: 'shut' } });
		expect(await listedOn(slug)).toBe(0);
		await boss.api('PATCH', `/documents/${slug}`, { door: { position: 'open' } });
		await boss.api('POST', `${at(path)}/publish`, { published: false });
		expect(await listedOn(slug)).toBe(before);
		// among the words of an article, by topic
		await boss.api('PATCH', `/documents/${slug}`, { topics: ['listed-topic'] });
		const article = await page({
			type: 'doc',
			content: [{ type: 'documentList', attrs: { id: 'by-topic', topics: ['listed-topic'], show: 'list', beside: false } }]
		});
		expect(await listedOn(slug)).toBe(before + 1);
		await boss.api('DELETE', at(article));
		expect(await listedOn(slug)).toBe(before);
		await boss.api('POST', `${at(article)}/restore`);
		expect(await listedOn(slug)).toBe(before + 1);
	});
});

it('whether any list has a document is the same told of all at once as of each list', async () => {
	const { lists, listedAnywhere } = await import('#server/placing/placed');
	const kept = await page(text(words('A page for lists.')));
	const word = `w${process.pid}`;
	const [inFolder, withTopic, withField] = [
		await bring('In a listed folder', { position: 'open' }, `${word} folder`),
		await bring('With a listed topic', { position: 'open' }),
		await bring('With a listed field', { position: 'open' })
	];
	const back = new Error('back');
	const compare = async (more: readonly object[], of: string[] | null) => {
		const found: string[] = [];
		await sql()
			.begin(async (tx) => {
				await tx`update document set topics = ${[`${word} topic`]} where slug = ${withTopic}`;
				await tx`update document set fields = ${tx.json({ [word]: 'yes' })} where slug = ${withField}`;
				await tx`delete from listing`;
				for (const [i, one] of more.entries()) {
					const { published = true, everything = false, folders = [], topics = [], fields = {} } = one as Record<string, never>;
					await tx`insert into listing (page_id, published, list, everything, folders, topics, fields)
						select id, ${published}, ${String(i)}, ${everything}, ${folders}::text[], ${topics}::text[], ${tx.json(fields)} from page where path = ${kept}`;
				}
				const rows = await tx<{ slug: string; each: boolean; all: boolean }[]>`
					select slug, exists (select 1 from listing l where l.published and ${lists()}) as each, ${listedAnywhere()} as all from document d`;
				expect(rows.filter(({ each, all }) => each !== all)).toEqual([]);
				found.push(...rows.filter((row) => row.all).map((row) => row.slug));
				if (!of) expect(found).toHaveLength(rows.length);
				throw back;
			})
			.catch((error: unknown) => {
				if (error !== back) throw error;
			});
		if (of) expect(found.sort()).toEqual([...of].sort());
	};
	await compare([], []);
	await compare(
		[{ folders: [`${word} folder`, 'Nowhere'] }, { topics: [`${word} topic`] }, { fields: { [word]: ['no', 'yes'] } }],
		[inFolder, withTopic, withField]
	);
	await compare([{ folders: [`${word} folder`] }, { published: false, topics: [`${word} topic`] }, { fields: { [word]: ['no'] } }], [inFolder]);
	await compare([{ fields: { [`${word} other`]: ['yes'] } }], []);
	await compare([{ topics: [`${word} topic`] }, { everything: true }], null);
});
