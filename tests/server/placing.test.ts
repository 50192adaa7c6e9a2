// Pages by the API, their layouts, every form and press, dead ends and side doors, and documents on other websites.
import { readdirSync } from 'node:fs';
import { HtmlValidate } from 'html-validate';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { pathTrouble } from '#core/placing/path';
import { forms, presses } from '#core/placing/placement';
import { document, ledgerOf, member, origin, pdf, qpdf, send, staff, until, visitor, type Client, type DocumentJson } from './help';

const { sql } = await import('#server/db/client');
const { publishDue } = await import('#server/placing/commands');
const { sitemap } = await import('#server/placing/sitemap');

interface PageJson {
	path: string;
	title: string;
	layout: string;
	published: boolean;
	publishAt: string | null;
	draftNumber: number;
	content: { content: unknown[]; entries: { id: string }[] };
	door: { position: string; groups: string[] };
	deadEnds?: number;
}
interface MismatchJson {
	leadsTo: { path: string; title: string } | null;
	kind: string;
	page: string;
	document: string;
	placement: string;
	audience: { words: string; people: number; of: number; anyone: boolean };
	intervals: { from: string; until: string | null; words: string; people: number; of: number; anyone: boolean }[];
	remedies: string[];
	intended: { why: string } | null;
}

let boss: Client;
beforeAll(async () => {
	boss = await staff();
});
let n = 0;
const text = (value: string) => ({ type: 'text', text: value });
const article = (...content: unknown[]) => ({ type: 'doc', content: [{ type: 'paragraph', content }] });
const placed = (slug: string, attrs: object = {}) => ({ type: 'placement', attrs: { document: slug, form: 'text', press: 'page', ...attrs } });
async function page(given: Record<string, unknown>, out = true): Promise<PageJson> {
	const made = await boss.api<PageJson>('POST', '/pages', { path: `/placing-${process.pid}-${++n}`, title: `Placing ${n}`, ...given });
	return out ? boss.api<PageJson>('POST', `/pages/${encodeURIComponent(made.path)}/publish`) : made;
}
const html = async (client: Client, path: string) => (await client.get(path)).text();
const mismatches = async (path: string) => (await boss.api<{ items: MismatchJson[] }>('GET', `/mismatches?page=${encodeURIComponent(path)}`)).items;

it('no page can stand where the application itself answers', () => {
	const own = [...readdirSync('src/routes'), ...readdirSync('static')].filter((name) => !/^[+(]/.test(name));
	expect(own.length).toBeGreaterThan(15);
	for (const name of own) for (const path of [`/${name}`, `/${name}/deeper`]) expect(pathTrouble(path), path).not.toBeNull();
});

describe('pages by the API', () => {
	it('are made, changed, published, taken down, set aside and restored; their paths may have several parts', async () => {
		const path = `/placing-${process.pid}/in/parts`;
		const made = await page({ path, content: article(text('First')) }, false);
		expect(made).toMatchObject({ path, layout: 'article', published: false, door: { position: 'open' } });
		expect((await visitor().get(path)).status).toBe(404);
		const api = `/pages${path}`;
		expect(await boss.api<PageJson>('POST', `${api}/publish`)).toMatchObject({ published: true, deadEnds: 0 });
		expect(await html(visitor(), path)).toContain('First');
		await boss.api('PATCH', api, { title: 'Renamed', content: article(text('Second')), door: { position: 'keyed', groups: [] } });
		expect((await visitor().get(path)).status).toBe(401);
		await boss.api('PATCH', api, { door: { position: 'open' } });
		expect(await html(visitor(), path)).toContain('First');
		await boss.api('DELETE', api);
		expect((await visitor().get(path)).status).toBe(404);
		expect((await boss.send('GET', `/api/v1${api}`)).status).toBe(404);
		await boss.api('POST', `${api}/restore`);
		expect(await html(visitor(), path)).toContain('First');
		expect(await boss.api<PageJson>('POST', `${api}/publish`, { published: false })).toMatchObject({ published: false });
		expect((await visitor().get(path)).status).toBe(404);
	});
	it('begin like another: its draft, layout, language and door, but not its hours, its place in the navigation or its placements’ ids', async () => {
		const paper = await document({ position: 'open' });
		const { slug } = await boss.api<{ slug: string }>('POST', '/groups', { name: `Copyists ${process.pid}` });
		const first = await page({
			content: article(text('November'), placed(paper.slug, { id: 'newsletter-one', form: 'button' })),
			language: 'de',
			inNavigation: true,
			door: { position: 'keyed', groups: [slug], until: '2099-01-01' }
		});
		await boss.api('PATCH', `/pages${first.path}`, {
			content: article(text('As it is written'), placed(paper.slug, { id: 'newsletter-one', form: 'button' }))
		});
		interface Copy extends PageJson {
			language: string;
			inNavigation: boolean;
			door: PageJson['door'] & { until: string | null };
		}
		const copy = await boss.api<Copy>('POST', '/pages', { path: `${first.path}-december`, title: 'December', like: first.path });
		expect(copy).toMatchObject({ title: 'December', layout: 'article', published: false, language: 'de', inNavigation: false });
		expect(copy.door).toMatchObject({ position: 'keyed', groups: [slug], until: null });
		expect(JSON.stringify(copy.content)).toContain('As it is written');
		expect(JSON.stringify(copy.content)).toContain(paper.slug);
		expect(JSON.stringify(copy.content)).not.toContain('newsletter-one');
		const status = async (given: object) => (await boss.send('POST', '/api/v1/pages', { title: 'x', path: `${first.path}-x`, ...given })).status;
		expect(await status({ like: '/never-was' })).toBe(422);
		expect(await status({ like: first.path, layout: 'pocket' })).toBe(422);
		expect(await status({ like: first.path, path: first.path })).toBe(409);
		expect(await status({ like: first.path, pattern: 'minutes' })).toBe(422);
		// nothing of those that were refused is left
		expect((await boss.send('GET', `/api/v1/pages${first.path}-x`)).status).toBe(404);
		const pocket = await page({ layout: 'pocket', content: { entries: [{ id: 'entry-one-of', url: 'https://example.org/', words: 'Out' }] } });
		const second = await boss.api<PageJson>('POST', '/pages', { path: `${pocket.path}-b`, title: 'B', like: pocket.path, door: { position: 'shut' } });
		expect(second).toMatchObject({ layout: 'pocket', door: { position: 'shut' } });
		expect(second.content.entries).toHaveLength(1);
		expect(second.content.entries[0]!.id).not.toBe('entry-one-of');
		// headings to be filled in, in the page's language, and a list with an id of its own
		const teaser = await boss.api<PageJson>('POST', '/pages', { path: `${first.path}-t`, title: 'T', pattern: 'teaser', language: 'de' });
		expect(JSON.stringify(teaser.content)).toMatch(/Hier lesen.*Mehr zu lesen.*"id":"[\w-]{6,}"/);
	});
	it('refuse a path of the application, one that is taken, and content of another layout', async () => {
		const status = async (given: object) => (await boss.send('POST', '/api/v1/pages', { title: 'x', ...given })).status;
		const { path } = await page({}, false);
		expect(await status({ path: '/desk/x' })).toBe(422);
		expect(await status({ path })).toBe(409);
		expect(await status({ path: `${path}-a`, layout: 'pocket', content: article() })).toBe(422);
		expect(await status({ path: `${path}-b`, content: { entries: [] } })).toBe(422);
		expect(await status({ path: `${path}-c`, layout: 'pocket', content: { entries: [{ url: 'javascript:alert(1)', words: 'x' }] } })).toBe(422);
		expect((await visitor().send('POST', '/api/v1/pages', { title: 'x', path: `${path}-d` })).status).toBe(401);
	});
	it('keep every revision: compared, and gone back to', async () => {
		const { path } = await page({ content: article(text('The first words')) });
		const api = `/pages${path}`;
		await boss.api('PATCH', api, { content: article(text('The second words')) });
		await boss.api('POST', `${api}/publish`);
		const { items } = await boss.api<{ items: { number: number; inForce: boolean }[] }>('GET', `${api}/revisions`);
		expect(items).toMatchObject([
			{ number: 2, inForce: true },
			{ number: 1, inForce: false }
		]);
		const back = await boss.api<PageJson>('POST', `${api}/revisions`, { number: 1 });
		expect(JSON.stringify(back.content)).toContain('The first words');
		expect(await html(visitor(), path)).toContain('The second words');
		const [{ id }] = await sql()<[{ id: string }]>`select id from page where path = ${path}`;
		const compared = await html(boss, `/desk/pages/${id}/revisions?from=2`);
		expect(compared).toMatch(/<ins[^>]*>first<\/ins>/);
		expect(compared).toMatch(/<del[^>]*>second<\/del>/);
	});
	it('go out when their time comes, once, as the draft then is', async () => {
		const made = await page({ content: article(text('Not yet')) }, false);
		const api = `/pages${made.path}`;
		expect((await boss.send('POST', `/api/v1${api}/publish`, { at: '2020-01-01T00:00:00Z' })).status).toBe(422);
		const at = new Date(Date.now() + 3_600_000);
		expect((await boss.api<PageJson>('POST', `${api}/publish`, { at: at.toISOString() })).publishAt).toBe(at.toISOString());
		await boss.api('PATCH', api, { content: article(text('Written meanwhile')) });
		await publishDue(new Date());
		expect((await visitor().get(made.path)).status).toBe(404);
		const later = new Date(at.getTime() + 1000);
		expect((await Promise.all([publishDue(later), publishDue(later)])).reduce((a, b) => a + b)).toBe(1);
		expect(await html(visitor(), made.path)).toContain('Written meanwhile');
	});
	it('one that cannot go out at its time keeps no other back', async () => {
		const [stuck, fine] = [await page({}, false), await page({ content: article(text('Went out')) }, false)];
		const at = new Date(Date.now() + 7_200_000);
		for (const { path } of [stuck, fine]) await boss.api('POST', `/pages${path}/publish`, { at: at.toISOString() });
		// its draft names a document that there is none of, which no door of the application lets in
		await sql()`update page set draft = ${sql().json(article(placed('never-was', { id: 'stuck-one' })) as never)} where path = ${stuck.path}`;
		expect(await publishDue(new Date(at.getTime() + 1000))).toBe(1);
		expect(await html(visitor(), fine.path)).toContain('Went out');
		await boss.api('POST', `/pages${stuck.path}/publish`, { at: null });
	});
});

describe('every form and press', () => {
	let open: DocumentJson, path: string;
	beforeAll(async () => {
		open = await document({ position: 'open' });
		const content = forms.flatMap((form) => presses.map((press) => placed(open.slug, { id: `p-${form}-${press}`, form, press })));
		({ path } = await page({ content: article(...content) }));
	});
	it('leads where it says without any script, and says it beside', async () => {
		const seen = await html(visitor(), path);
		const ends = {
			page: `/d/${open.slug}?from=`,
			over: `/d/${open.slug}/read?from=`,
			tab: `/d/${open.slug}/read?from=`,
			here: `/d/${open.slug}/read?from=`,
			save: `/d/${open.slug}/file?save&amp;from=`
		};
		for (const form of ['text', 'button', 'cover', 'card'] as const)
			for (const press of presses) {
				const link = new RegExp(`<a[^>]*href="${ends[press].replace(/[?]/g, '\\?')}p-${form}-${press}"[^>]*>`).exec(seen)?.[0];
				expect(link, `${form} ${press}`).toBeDefined();
				expect(/target="_blank"/.test(link!), `${form} ${press}`).toBe(press === 'tab');
				expect(/ download/.test(link!), `${form} ${press}`).toBe(press === 'save');
				expect(/data-over/.test(link!), `${form} ${press}`).toBe(press === 'over');
			}
		expect(seen).toContain(`<iframe src="/d/${open.slug}/read?frame=1&amp;from=p-frame-page"`);
		// A4 and its sill; in a narrow place the cover and the way to the whole window stand in its stead
		expect(seen).toContain('padding-bottom:calc(141.4');
		expect(seen).toContain('Read in the whole window');
	});
	it('cards that follow one another stand in a row, and the first cover of a page comes at once', async () => {
		const kept = await document({ position: 'keyed' });
		const cards = [open, kept, open].map(({ slug }, i) => placed(slug, { id: `in-a-row-${i}`, form: 'card' }));
		const blocks = [placed(kept.slug, { id: 'kept-cover', form: 'cover' }), text('and'), ...cards, placed(open.slug, { id: 'last-cover', form: 'cover' })];
		const rows = await page({ content: { type: 'doc', content: blocks.map((block) => ({ type: 'paragraph', content: [block] })) } });
		for (const client of [visitor(), boss]) {
			const seen = await html(client, rows.path);
			const row = /<div class="cards[^"]*">(.*?)<\/div>/s.exec(seen)?.[1] ?? '';
			expect(row).toContain('from=in-a-row-0');
			expect(row).toContain('from=in-a-row-2');
			expect(row).not.toContain('last-cover');
			// of those whom the first cover is not for, the next one is the first
			const images = [...seen.matchAll(/<img [^>]*\/cover\/[^>]*>/g)].map(([image]) => [/\/d\/([^/]+)\//.exec(image)![1], /loading="lazy"/.test(image)]);
			expect(images[0]).toEqual([client === boss ? kept.slug : open.slug, false]);
			expect(images.slice(1).every(([, lazy]) => lazy)).toBe(true);
		}
	});
	it('is HTML as the standard has it', async () => {
		const validator = new HtmlValidate({ extends: ['html-validate:standard'] });
		const library = await page({ layout: 'catalogue', content: { show: 'table', beside: true } });
		const pocket = await page({ layout: 'pocket', content: { entries: [{ document: open.slug }, { url: 'https://example.org/', words: 'Out' }] } });
		for (const address of [path, library.path, pocket.path, `/d/${open.slug}`, `/embed/${open.slug}`]) {
			const report = await validator.validateString(await html(visitor(), address));
			const said = report.results.flatMap((r) => r.messages.map((m) => `${m.ruleId}: ${m.message} (line ${m.line})`));
			expect(said, address).toEqual([]);
		}
	});
	it('follows what the site sets for all of them, and says only what differs', async () => {
		await boss.api('PATCH', '/site', { placing: { cover: { width: 210, caption: false }, text: { facts: [] } } });
		try {
			const seen = await html(visitor(), path);
			expect(seen).toContain('width:210px');
			expect(seen).not.toContain('(PDF, 3 pages');
		} finally {
			await boss.api('PATCH', '/site', { placing: null });
		}
	});
	it('a frame has the shape of the page it opens at, where pages differ', async () => {
		const lying = await qpdf(await pdf(`mixed ${++n}`, 3), (from, to) => [from, '--rotate=+90:2', to]);
		const paper = (await (await send(lying, 'mixed.pdf')).json()) as DocumentJson;
		await until(async () => (await boss.api<DocumentJson>('GET', `/documents/${paper.slug}`)).condition.status !== 'checking');
		await boss.api('PATCH', `/documents/${paper.slug}`, { door: { position: 'open' } });
		const frames = await page({
			content: article(placed(paper.slug, { id: 'frame-standing', form: 'frame' }), placed(paper.slug, { id: 'frame-lying', form: 'frame', start: 2 }))
		});
		const seen = await html(visitor(), frames.path);
		// A4: 841.89 to 595.28, and the other way round
		expect(seen).toContain('padding-bottom:calc(141.4');
		expect(seen).toContain('padding-bottom:calc(70.7');
	});
	it('shows a page as a cover only where it is placed so', async () => {
		const paper = await document({ position: 'open' });
		const cover = (q: string) => visitor().get(`/d/${paper.slug}/cover/300.webp${q}`);
		expect((await cover('?page=2')).status).toBe(404);
		await page({ content: article(placed(paper.slug, { form: 'cover', page: 2 })) });
		expect((await cover('?page=2')).status).toBe(200);
		expect((await cover('?page=3')).status).toBe(404);
		expect((await cover('?page=999')).status).toBe(404);
	});
});

describe('layouts', () => {
	it('a catalogue lists to each what they may see, with counts, filters, find and an order', async () => {
		const keeper = await member({ group: 'Catalogue keepers' });
		const folder = `Catalogue ${process.pid}`;
		const make = async (title: string, words: string, door: object, topics: string[]) => {
			const response = await send(await pdf([words, 'another page']), `${title}.pdf`, { title, folder });
			const { slug } = (await response.json()) as DocumentJson;
			await boss.api('PATCH', `/documents/${slug}`, { topics, door, language: 'en' });
			return slug;
		};
		const [a, b, c] = [
			await make('Alpha of the catalogue', 'windlass', { position: 'open' }, ['one']),
			await make('Beta of the catalogue', 'aqueduct', { position: 'open' }, ['one', 'two']),
			await make('Gamma of the catalogue', 'aqueduct', { position: 'keyed', groups: ['catalogue-keepers'] }, ['two'])
		];
		await make('Delta of the catalogue', 'aqueduct', { position: 'ajar' }, ['two']);
		await make('Epsilon of the catalogue', 'aqueduct', { position: 'shut' }, ['two']);
		const { path } = await page({ layout: 'catalogue', content: { folders: [folder], show: 'list', order: 'title', beside: false } });
		const listed = async (who: Client, query = '') =>
			[...(await html(who, path + query)).matchAll(/<h3[^>]*><a[^>]*>(\w+) of the catalogue<\/a>/g)].map((m) => m[1]);
		expect(await listed(visitor())).toEqual(['Alpha', 'Beta']);
		expect(await listed(keeper)).toEqual(['Alpha', 'Beta', 'Gamma']);
		expect(await listed(keeper, '?topic=two')).toEqual(['Beta', 'Gamma']);
		expect(await listed(keeper, '?q=aqueduct')).toEqual(expect.arrayContaining(['Beta', 'Gamma']));
		expect(await listed(visitor(), '?q=windlass')).toEqual(['Alpha']);
		expect(await listed(keeper, '?order=-changed')).toEqual(['Gamma', 'Beta', 'Alpha']);
		const seen = await html(visitor(), path);
		expect(seen).toMatch(/<bdi>one<\/bdi> <i[^>]*>2<\/i>/);
		for (const hidden of [c, 'Gamma', 'Delta', 'Epsilon']) expect(seen).not.toContain(hidden);
		// its feed is a visitor's
		const feed = await html(keeper, `${path}/feed.atom`);
		expect([...feed.matchAll(/<title>(\w+) of/g)].map((m) => m[1])).toEqual(['Beta', 'Alpha']);
		expect(feed).toContain(`<id>${origin}/d/${a}</id>`);
		const [, bytes, file] = /<link rel="enclosure" type="application\/pdf" length="(\d+)" href="([^"]+)"\/>/.exec(feed)!;
		expect((await (await fetch(file!)).arrayBuffer()).byteLength).toBe(Number(bytes));
		expect((await visitor().get(`${path}/feed.atom`)).headers.get('content-type')).toContain('application/atom+xml');
		// reading beside the list
		await boss.api('PATCH', `/pages${path}`, { content: { folders: [folder], show: 'list', order: 'title', beside: true } });
		await boss.api('POST', `/pages${path}/publish`);
		expect(await html(visitor(), `${path}?read=${b}`)).toContain(`<iframe src="/d/${b}/read?frame=1`);
		expect(await html(visitor(), `${path}?read=${c}`)).not.toContain(`<iframe`);
	});
	it('a document list in an article is narrowed by itself, tells nothing of what it does not show, and nobody meets a dead end in it', async () => {
		const keeper = await member({ group: 'List keepers' });
		const folder = `Lists ${process.pid}`;
		const make = async (title: string, door: object) => {
			const { slug } = (await (await send(await pdf(['words']), `${title}.pdf`, { title, folder })).json()) as DocumentJson;
			await boss.api('PATCH', `/documents/${slug}`, { door, topics: [title.slice(0, 1)] });
			return slug;
		};
		const slugs = [
			await make('A of the list', { position: 'open' }),
			await make('B of the list', { position: 'open' }),
			await make('C of the list', { position: 'keyed', groups: ['list-keepers'] }),
			await make('D of the list', { position: 'shut' })
		];
		const list = (id: string, attrs: object) => ({ type: 'documentList', attrs: { id, show: 'list', order: 'title', beside: true, ...attrs } });
		const { path } = await page({
			content: {
				type: 'doc',
				content: [list('all-of-it', { folders: [folder] }), list('two-newest', { documents: slugs, order: '-changed', most: 2, filters: false })]
			}
		});
		/** Titles of each of its lists. */
		const listed = async (who: Client, query = '') =>
			(await html(who, path + query))
				.split('id="list-')
				.slice(1)
				.map((part) => [...part.matchAll(/<h3[^>]*><a[^>]*>(\w) of the list<\/a>/g)].map((m) => m[1]));
		expect(await listed(visitor())).toEqual([
			['A', 'B'],
			['B', 'A']
		]);
		expect(await listed(keeper)).toEqual([
			['A', 'B', 'C'],
			['C', 'B']
		]);
		expect(await listed(keeper, '?list=all-of-it&topic=C')).toEqual([['C'], ['C', 'B']]);
		expect(await listed(visitor(), '?list=two-newest&q=nothing-of-the-kind')).toEqual([['A', 'B'], []]);
		const read = await html(visitor(), `${path}?list=two-newest&read=${slugs[0]}`);
		expect(read.split('id="list-')[1]).not.toContain('<iframe');
		expect(read.split('id="list-')[2]).toContain(`<iframe src="/d/${slugs[0]}/read?frame=1`);
		expect(await html(visitor(), `${path}?list=two-newest&read=${slugs[2]}`)).not.toContain('<iframe');
		const seen = await html(visitor(), path);
		for (const hidden of [slugs[2]!, slugs[3]!, 'C of the list', 'D of the list', folder]) expect(seen).not.toContain(hidden);
		// shut and kept ones are no dead ends there, yet they are known to stand there
		expect((await boss.api<{ items: unknown[] }>('GET', `/mismatches?page=${path}`)).items).toEqual([]);
		expect((await boss.api<DocumentJson>('GET', `/documents/${slugs[3]}`)).placements).toMatchObject([{ page: path, form: 'list' }]);
		// exchanged for another, and found by what it would show
		await boss.api('POST', `/documents/${slugs[0]}/exchange`, { with: slugs[2] });
		const { content } = await boss.api<{ content: { content: { attrs: { documents?: string[] } }[] } }>('GET', `/pages${path}`);
		expect(content.content[1]!.attrs.documents).toEqual([slugs[2], slugs[1], slugs[2], slugs[3]]);
		const would = { folders: [folder], show: 'list', order: 'title', beside: false };
		expect(await boss.api('POST', '/listing', would)).toMatchObject({ total: 3, visitors: 2, items: [{ slug: slugs[0] }, {}, {}] });
		expect((await boss.send('POST', '/api/v1/listing', { ...would, most: 0 })).status).toBe(422);
		for (const who of [visitor(), keeper]) expect([401, 403]).toContain((await who.send('POST', '/api/v1/listing', would)).status);
	});
	it('a teaser leads to its page by the page’s door, shows its document by the document’s, and is a dead end where the page turns away', async () => {
		const keeper = await member({ group: 'Teaser keepers' });
		const [open, keyed] = [await document({ position: 'open' }), await document({ position: 'keyed', groups: ['teaser-keepers'] })];
		const led = await page({ content: article(placed(open.slug)), title: 'Where it leads' });
		const kept = await page({ content: article(placed(open.slug)), title: 'Where few are led' });
		await boss.api('PATCH', `/pages${kept.path}`, { door: { position: 'keyed', groups: ['teaser-keepers'] } });
		const draft = await page({ title: 'Not out' }, false);
		const teaser = (id: string, slug: string, leads: string, more: object = {}) => placed(slug, { id, form: 'cover', press: 'save', leads, ...more });
		const { path } = await page({
			content: article(
				teaser('to-led-open', open.slug, led.path),
				teaser('to-led-keyed', keyed.slug, led.path, { words: 'Behind the cover' }),
				teaser('to-kept', open.slug, kept.path),
				teaser('to-draft', open.slug, draft.path, { words: 'Not yet' })
			)
		});
		/** Covers that lead to a path: the navigation may lead there too. */
		const teasersTo = (text: string, to: string) => [...text.matchAll(/<a class="cover[^>]* href="([^"]+)"/g)].filter((m) => m[1] === to).length;
		const seen = await html(visitor(), path);
		// what is said and pressed is the page's; nothing is saved by it
		expect(teasersTo(seen, led.path)).toBe(2);
		expect(seen).not.toContain('?save');
		expect(seen).toContain('Where it leads');
		expect(seen).toContain(`/d/${open.slug}/cover/`);
		for (const hidden of [keyed.slug, keyed.title, 'Where few are led']) expect(seen).not.toContain(hidden);
		expect(seen).toContain('Behind the cover');
		expect(seen).toContain('A page kept for members');
		expect(seen).toContain('Not yet');
		expect(teasersTo(seen, draft.path)).toBe(0);
		const admitted = await html(keeper, path);
		expect(admitted).toContain(`/d/${keyed.slug}/cover/`);
		expect(teasersTo(admitted, kept.path)).toBe(1);
		expect(admitted).toContain('Where few are led');
		// the cover of a document that is shut to them is no dead end: they are led to the page
		const items = await mismatches(path);
		expect(items.map((m) => [m.placement, m.kind, m.remedies]).sort()).toEqual([
			['to-draft', 'dead-end', ['take-out']],
			['to-kept', 'dead-end', ['locked', 'take-out']]
		]);
		expect(items.find((m) => m.placement === 'to-kept')!.leadsTo).toEqual({ path: kept.path, title: 'Where few are led' });
		// its path changes: the teasers go along, in the draft and in what is out
		await boss.api('PATCH', `/pages${led.path}`, { path: `${led.path}-moved` });
		expect(teasersTo(await html(visitor(), path), `${led.path}-moved`)).toBe(2);
		// a page that is not there is refused; one that is set aside leads nowhere
		const refused = await boss.send('PATCH', `/api/v1/pages${path}`, { content: article(teaser('to-nothing', open.slug, '/not-there')) });
		expect(refused.status).toBe(422);
		expect(((await refused.json()) as { code: string }).code).toBe('page-unknown');
		await boss.api('DELETE', `/pages${led.path}-moved`);
		expect(teasersTo(await html(visitor(), path), `${led.path}-moved`)).toBe(0);
		expect((await mismatches(path)).map((m) => m.placement).sort()).toEqual(['to-draft', 'to-kept', 'to-led-keyed', 'to-led-open']);
	});
	it('a pocket page shows what is on show, in its order, to whom it may', async () => {
		const [open, keyed, shut] = [await document({ position: 'open' }), await document({ position: 'keyed', groups: [] }), await document()];
		const day = (offset: number) => new Date(Date.now() + offset * 86_400_000).toISOString().slice(0, 10);
		const { path, content } = await page({
			layout: 'pocket',
			content: {
				lead: 'On the way',
				entries: [
					{ url: 'https://example.org/tides', words: 'Tides', icon: 'anchor' },
					{ document: open.slug, words: 'The map' },
					{ document: keyed.slug, words: 'The rota' },
					{ document: shut.slug, words: 'The plan' },
					{ document: open.slug, words: 'Rests', resting: true },
					{ document: open.slug, words: 'Later', from: day(3) },
					{ document: open.slug, words: 'Over', until: day(-3) }
				]
			}
		});
		expect(new Set(content.entries.map((e) => e.id)).size).toBe(7);
		const words = [...(await html(visitor(), path)).matchAll(/<span class="says[^"]*"><strong[^>]*>([^<]+)</g)].map((m) => m[1]);
		expect(words).toEqual(['Tides', 'The map', 'The rota']);
		const seen = await html(visitor(), path);
		expect(seen).toContain(`/d/${open.slug}/file?save&amp;from=`);
		for (const hidden of [keyed.title, shut.slug, 'The plan']) expect(seen).not.toContain(hidden);
		const [{ id }] = await sql()<[{ id: string }]>`select id from page where path = ${path}`;
		const svg = await (await boss.get(`/desk/pages/${id}/qr.svg`)).text();
		// ISO/IEC 18004: a quiet zone of four modules on each side (from memory)
		expect(svg).toMatch(/d="M4 4\.5h7/);
		const png = await sharp(Buffer.from(await (await boss.get(`/desk/pages/${id}/qr.png`)).arrayBuffer()))
			.raw()
			.toBuffer({ resolveWithObject: true });
		const edge = 4 * 16;
		for (let y = 0; y < edge; y += 7) for (let x = 0; x < png.info.width; x += 7) expect(png.data[(y * png.info.width + x) * png.info.channels]).toBe(255);
	});
	it('a page may stand at the root without having that path, and the navigation has an order', async () => {
		const [first, second] = [await page({ content: article(text('A front of its own')) }), await page({})];
		const before = (await sql()<{ path: string }[]>`select path from page where navigation is not null and set_aside_at is null order by navigation`).map(
			(r) => r.path
		);
		await boss.api('PATCH', '/site', { front: first.path });
		await boss.api('PATCH', '/navigation', { paths: [second.path, first.path] });
		try {
			const seen = await html(visitor(), '/');
			expect(seen).toContain('A front of its own');
			const nav = /<nav[^>]* aria-label="Site"[\s\S]*?<\/nav>/.exec(seen)![0];
			expect(nav.indexOf(second.title)).toBeLessThan(nav.indexOf(first.title));
			expect((await boss.send('PATCH', '/api/v1/navigation', { paths: ['/never-was'] })).status).toBe(422);
		} finally {
			await boss.api('PATCH', '/navigation', { paths: before });
			await boss.api('PATCH', '/site', { front: null });
		}
	});
	it('staff are led from a page and from a document to where it is changed, and nobody else is', async () => {
		const [text, map] = [await page({}), await document({ position: 'open' })];
		const edit = new RegExp(`<a href="/desk/pages/[0-9a-f-]{36}"[^>]*>Edit this page</a>`);
		expect(await html(boss, text.path)).toMatch(edit);
		expect(await html(boss, `/d/${map.slug}`)).toMatch(new RegExp(`<a href="/desk/documents/${map.slug}"[^>]*>Its sheet</a>`));
		for (const path of [text.path, `/d/${map.slug}`]) expect(await html(visitor(), path)).not.toContain('/desk');
	});
	it('pictures on pages are kept by the site and sent in the width that is asked for', async () => {
		const form = new FormData();
		form.append(
			'file',
			new Blob([
				new Uint8Array(
					await sharp({ create: { width: 900, height: 600, channels: 3, background: '#2d5f8b' } })
						.png()
						.toBuffer()
				)
			]),
			'lock.png'
		);
		const { picture } = await boss.api<{ picture: string }>('POST', '/pictures', form);
		const { path } = await page({ content: { type: 'doc', content: [{ type: 'picture', attrs: { picture, alt: 'A lock' } }] } });
		expect(await html(visitor(), path)).toContain(`/picture/${picture}.webp?w=800`);
		const leading = await page({
			content: { type: 'doc', content: [{ type: 'picture', attrs: { picture, href: '/library', caption: 'In <spring>', shown: '50%', align: 'right' } }] }
		});
		expect(await html(visitor(), leading.path)).toMatch(
			/<figure class="right[^"]*" style="width:50%">.*?<a href="\/library"[^>]*aria-label="In &lt;spring[^"]*">.*?<img[^>]*>.*?<\/a>.*?<figcaption[^>]*>In &lt;spring/s
		);
		const wide = await page({ content: { type: 'doc', content: [{ type: 'picture', attrs: { picture, alt: 'A lock', align: 'wide', shown: '50%' } }] } });
		expect(await html(visitor(), wide.path)).toMatch(/<figure class="wide[^"]*">/);
		// in place of a document's cover, where the placement says so; whom its door turns away gets neither
		const cover = (slug: string) =>
			page({ content: { type: 'doc', content: [{ type: 'paragraph', content: [placed(slug, { form: 'cover', picture, alt: 'A lock' })] }] } });
		const [map, plan] = [await document({ position: 'open' }), await document()];
		const [open, shut] = [await cover(map.slug), await cover(plan.slug)];
		expect(await html(visitor(), open.path)).toMatch(new RegExp(`<a class="cover[^>]*href="/d/${map.slug}[^>]*>.*/picture/${picture}\\.webp`, 's'));
		expect(await html(visitor(), shut.path)).not.toContain(picture);
		const answer = await visitor().get(`/picture/${picture}.webp?w=400`);
		expect((await sharp(Buffer.from(await answer.arrayBuffer())).metadata()).width).toBe(400);
		expect((await visitor().get(`/picture/${'0'.repeat(64)}.webp`)).status).toBe(404);
		// no document has it, and the sweep leaves it where it is
		const { sweep } = await import('#server/intake/sweep');
		await sweep(Date.now() + 2 * 3_600_000);
		expect((await visitor().get(`/picture/${picture}.webp?w=800`)).status).toBe(200);
		// turned it is another picture, and the first stays
		const turn = (given: object, who = boss) => who.send('POST', '/api/v1/pictures/turn', given);
		const turned = (await (await turn({ picture, degrees: 90 })).json()) as { picture: string; width: number; height: number };
		expect(turned).toMatchObject({ width: 600, height: 900 });
		expect(turned.picture).not.toBe(picture);
		const shown = sharp(Buffer.from(await (await visitor().get(`/picture/${turned.picture}.webp?w=400`)).arrayBuffer()));
		expect(await shown.metadata()).toMatchObject({ width: 400, height: 600 });
		expect((await turn({ picture: '0'.repeat(64), degrees: 90 })).status).toBe(404);
		// by any angle the whole of it is there, in the smallest box that holds it: w·|cos| + h·|sin| wide, w·|sin| + h·|cos| high
		const leaning = (await (await turn({ picture, degrees: -30 })).json()) as { picture: string; width: number; height: number };
		const [cos, sin] = [Math.cos(Math.PI / 6), 0.5];
		for (const [side, wanted] of [[leaning.width, 900 * cos + 600 * sin], [leaning.height, 900 * sin + 600 * cos]] as const) expect(Math.abs(side - wanted)).toBeLessThan(3); // prettier-ignore
		const corner = sharp(Buffer.from(await (await visitor().get(`/picture/${leaning.picture}.webp?w=400`)).arrayBuffer()));
		expect((await corner.extract({ left: 0, top: 0, width: 1, height: 1 }).ensureAlpha().raw().toBuffer())[3]).toBe(0);
		expect(await (await turn({ picture, degrees: 0 })).json()).toEqual({ picture, width: 900, height: 600 });
		expect((await turn({ picture, degrees: 181 })).status).toBe(422);
		expect((await turn({ picture, degrees: 90 }, visitor())).status).toBe(401);
		const bad = new FormData();
		bad.append('file', new Blob(['<svg onload="alert(1)">']), 'x.png');
		expect((await boss.send('POST', '/api/v1/pictures', bad)).status).toBe(422);
	});
});

describe('a document exchanged for another', () => {
	it('stands in all its places, in drafts and in what is out, and all of it can be taken back', async () => {
		const [rota, next] = [await document({ position: 'open' }), await document({ position: 'open' })];
		const text = await page({
			content: { type: 'doc', content: [{ type: 'paragraph', content: [placed(rota.slug, { words: 'The rota' }), placed(next.slug)] }] }
		});
		const list = await page({ layout: 'catalogue', content: { documents: [next.slug, rota.slug], show: 'list', order: 'given', beside: false } });
		// in the draft the two have changed places: taken back, each is where it was
		await boss.api('PATCH', `/pages${list.path}`, { content: { documents: [rota.slug, next.slug], show: 'list', order: 'given', beside: false } });
		const draft = await boss.api<{ path: string }>('POST', '/pages', {
			path: `/exchange-${Date.now()}`,
			title: 'Not out yet',
			content: { type: 'doc', content: [{ type: 'paragraph', content: [placed(rota.slug)] }] }
		});
		const contents = async () => {
			const read = async (path: string) => (await boss.api<{ content: unknown }>('GET', `/pages/${encodeURIComponent(path)}`)).content;
			return [await read(text.path), await read(list.path), await read(draft.path)];
		};
		const before = await contents();
		type Done = { places: unknown[]; before: { document: string; exchange: object } };
		// a former address of it is its address too
		await boss.api('PATCH', `/documents/${rota.slug}`, { slug: `${rota.slug}-now` });
		const done = await boss.api<Done>('POST', `/documents/${rota.slug}-now/exchange`, { with: next.slug });
		expect(done.places).toHaveLength(4);
		expect(await html(visitor(), text.path)).toMatch(new RegExp(`href="/d/${next.slug}[^>]*>[^<]*(<!--[^>]*>)*The rota`));
		expect(await html(visitor(), text.path)).not.toContain(`/d/${rota.slug}`);
		expect(JSON.stringify(await contents())).not.toContain(`"${rota.slug}"`);
		expect((await boss.api<{ placements: unknown[] }>('GET', `/documents/${rota.slug}-now`)).placements).toEqual([]);

		await boss.api('PATCH', `/documents/${rota.slug}-now`, { slug: rota.slug });
		expect((await boss.api<Done>('POST', `/documents/${next.slug}/exchange`, { ...done.before.exchange, with: rota.slug })).places).toHaveLength(4);
		expect(await contents()).toEqual(before);
		expect(await html(visitor(), text.path)).toContain(`/d/${rota.slug}`);
	});
	it('is refused for itself, for what is not there, and where one may not', async () => {
		const [rota, other] = [await document({ position: 'open' }), await document()];
		const exchange = async (by: typeof boss, body: unknown, slug = rota.slug) => (await by.send('POST', `/api/v1/documents/${slug}/exchange`, body)).status;
		expect(await exchange(boss, { with: rota.slug })).toBe(422);
		expect(await exchange(boss, { with: 'no-such-document' })).toBe(422);
		expect(await exchange(boss, { with: other.slug }, 'no-such-document')).toBe(404);
		expect(await exchange(boss, {})).toBe(422);
		await boss.api('DELETE', `/documents/${other.slug}`);
		expect(await exchange(boss, { with: other.slug })).toBe(422);
		expect(await exchange(visitor(), { with: other.slug })).toBe(401);
	});
});

describe('dead ends and side doors', () => {
	it('are told with who, how many, over time, and mended in one press', async () => {
		await member({ group: 'Mismatch wardens' });
		const ends = { group: 'Mismatch friends', until: '2099-12-31' };
		await member(ends);
		await member(ends, { group: 'Mismatch wardens' });
		const paper = await document({ position: 'keyed', groups: ['mismatch-wardens'] });
		const { path } = await page({ content: article(placed(paper.slug, { id: 'mismatch-one' })), door: { position: 'keyed', groups: ['mismatch-friends'] } });
		const found = await mismatches(path);
		expect(found.map((f) => [f.kind, f.audience.words, f.audience.people, f.audience.of])).toEqual([
			['dead-end', 'Mismatch friends without Mismatch wardens', 1, 2],
			['side-door', 'Mismatch wardens without Mismatch friends', 1, 2]
		]);
		expect(found[0]).toMatchObject({ page: path, document: paper.slug, placement: 'mismatch-one' });
		expect(found[0]!.intervals.map((i) => [i.people, i.of])).toEqual([
			[1, 2],
			[0, 0]
		]);
		// the last day counts through the whole of it, in the site's zone
		expect(found[0]!.intervals[0]!.until).toBe('2100-01-01T00:00:00.000Z');
		const { before } = await boss.api<{ before: { document: object } }>('POST', '/mismatches', { page: path, document: paper.slug, remedy: 'admit' });
		expect((await mismatches(path)).map((f) => f.kind)).toEqual(['side-door']);
		await boss.api('PATCH', `/documents/${paper.slug}`, { door: before.document });
		expect((await mismatches(path)).length).toBe(2);
		for (const remedy of ['page-door', 'follow']) {
			await boss.api('POST', '/mismatches', { page: path, document: paper.slug, remedy });
			expect(await mismatches(path), remedy).toEqual([]);
			await boss.api('PATCH', `/documents/${paper.slug}`, { door: before.document });
		}
	});
	it('a locked card meets a dead end, a placement taken out is gone from what is published too, and the page can be narrowed', async () => {
		const paper = await document({ position: 'keyed', groups: [] });
		const made = await page({ content: article(text('Before '), placed(paper.slug, { id: 'locked-one' }), placed(paper.slug, { id: 'locked-two' })) });
		expect(made.deadEnds).toBe(2);
		await boss.api('POST', '/mismatches', { page: made.path, document: paper.slug, placement: 'locked-one', remedy: 'locked' });
		expect((await mismatches(made.path)).map((f) => f.placement)).toEqual(['locked-two']);
		expect(await html(visitor(), made.path)).toContain('sign in to open it');
		await boss.api('POST', '/mismatches', { page: made.path, document: paper.slug, placement: 'locked-two', remedy: 'take-out' });
		expect(await mismatches(made.path)).toEqual([]);
		expect(await html(visitor(), made.path)).not.toContain('locked-two');
		const other = await page({ content: article(placed(paper.slug, { id: 'narrow-one' })) });
		await boss.api('POST', '/mismatches', { page: other.path, document: paper.slug, remedy: 'narrow' });
		expect(await mismatches(other.path)).toEqual([]);
		expect((await visitor().get(other.path)).status).toBe(401);
	});
	it('a side door may be meant to be, with who said so and why', async () => {
		const paper = await document({ position: 'open' });
		const { path } = await page({ content: article(placed(paper.slug)), door: { position: 'keyed', groups: [] } });
		expect((await mismatches(path))[0]).toMatchObject({ kind: 'side-door', audience: { words: 'everyone', anyone: true }, intended: null });
		expect((await boss.send('POST', '/api/v1/mismatches', { page: path, document: paper.slug, remedy: 'intended' })).status).toBe(422);
		await boss.api('POST', '/mismatches', { page: path, document: paper.slug, remedy: 'intended', why: 'It is for everyone.' });
		expect((await mismatches(path))[0]!.intended).toMatchObject({ why: 'It is for everyone.' });
		await boss.api('POST', '/mismatches', { page: path, document: paper.slug, remedy: 'intended', undo: true });
		expect((await mismatches(path))[0]!.intended).toBeNull();
	});
	it('publishing in the desk asks once, and a draft is told of before', async () => {
		const paper = await document();
		const made = await page({ content: article(placed(paper.slug)) }, false);
		const press = async (more = {}) =>
			(await (await boss.send('POST', `/api/v1/pages${made.path}/publish`, { published: true, ...more })).json()) as { publishedAt?: string };
		const asked = await boss.send('POST', `/api/v1/pages${made.path}/publish`, { ask: true });
		expect([asked.status, ((await asked.json()) as { code: string }).code]).toEqual([409, 'dead-ends']);
		expect((await visitor().get(made.path)).status).toBe(404);
		expect((await press()).publishedAt).toBeTruthy();
		const draft = await boss.send('PATCH', `/api/v1/pages${made.path}`, {
			title: 'x',
			content: article(placed(paper.slug), placed(paper.slug)),
			draftNumber: made.draftNumber
		});
		expect(((await draft.json()) as { mismatches: unknown[] }).mismatches).toHaveLength(2);
		// that one is known: what is asked about is what this publishing changes
		expect((await boss.send('POST', `/api/v1/pages${made.path}/publish`, { ask: true })).status).toBe(200);
		const other = await document();
		await boss.api('PATCH', `/pages${made.path}`, { content: article(placed(paper.slug), placed(other.slug)) });
		const again = await boss.send('POST', `/api/v1/pages${made.path}/publish`, { ask: true });
		expect([again.status, ((await again.json()) as { facts: unknown }).facts]).toEqual([409, { count: '1', documents: other.slug }]);
		// of a page taken down every reader is new
		await boss.api('POST', `/pages${made.path}/publish`, { published: false });
		const anew = await boss.send('POST', `/api/v1/pages${made.path}/publish`, { ask: true });
		expect(((await anew.json()) as { facts: { count: string } }).facts.count).toBe('2');
	});
	it('a mismatch to come is told from when; what rests, or is only listed, turns nobody away', async () => {
		const paper = await document({ position: 'open', until: '2099-06-30' });
		const { path } = await page({ content: article(placed(paper.slug)) });
		const [found] = await mismatches(path);
		// until 30 June through the whole day, British Summer Time
		expect(found).toMatchObject({ kind: 'dead-end', from: '2099-06-30T23:00:00.000Z', audience: { anyone: true } });
		const shut = await document();
		const pocket = await page({ layout: 'pocket', content: { entries: [{ document: shut.slug, resting: true }] } });
		const list = await page({ layout: 'catalogue', content: { documents: [shut.slug], show: 'list', beside: false } });
		for (const quiet of [pocket, list]) expect(await mismatches(quiet.path)).toEqual([]);
	});
});

describe('on other websites', () => {
	let open: DocumentJson, keyed: DocumentJson;
	beforeAll(async () => {
		[open, keyed] = [await document({ position: 'open' }), await document({ position: 'keyed', groups: [] })];
		await boss.api('PATCH', '/site', { framers: ['news.example', '*.town.example'] });
	});
	const embed = (slug: string, from?: string) => visitor(crypto.randomUUID()).get(`/embed/${slug}`, from ? { referer: `${from}/story` } : {});
	it('a site that may frame gets the frame, any other a plain link and not a word of the document', async () => {
		const may = await embed(open.slug, 'https://a.town.example');
		expect(may.headers.get('content-security-policy')).toMatch(/frame-ancestors 'self' news\.example \*\.town\.example(;|$)/);
		expect(await may.text()).toContain(open.title);
		const not = await embed(open.slug, 'https://elsewhere.example');
		expect(not.headers.get('content-security-policy')).toContain('frame-ancestors *');
		const words = await not.text();
		expect(words).not.toContain(open.title);
		expect(words).toContain(`href="${origin}/d/${open.slug}"`);
		const kept = await embed(keyed.slug, 'https://news.example');
		expect(kept.status).toBe(401);
		// in a frame elsewhere nobody can sign in: it is opened on its own site, in a tab of its own
		const said = await kept.text();
		expect(said).toMatch(new RegExp(`<a[^>]* href="/d/${keyed.slug}"[^>]* target="_blank"`));
		expect(said).not.toContain('/sign-in');
		// no other page may be framed by anybody
		for (const path of [`/d/${open.slug}`, `/d/${open.slug}/read`, '/sign-in'])
			expect((await visitor().get(path)).headers.get('content-security-policy'), path).toContain("frame-ancestors 'self'");
	});
	it('what is read in such a frame stands in the ledger under the website, and nobody puts readers on another’s account', async () => {
		const { outsideMark } = await import('#server/reading/record');
		const paper = await document({ position: 'open' });
		const frame = await (await embed(paper.slug, 'https://news.example')).text();
		expect(frame).toContain(outsideMark('news.example'));
		const read = async (from: string) =>
			(await visitor(crypto.randomUUID()).get(`/d/${paper.slug}/leaf/1.webp?from=${encodeURIComponent(from)}`)).arrayBuffer();
		await read(outsideMark('news.example'));
		await until(async () => (await ledgerOf(paper.slug)).some((e) => e.source.kind === 'outside' && e.source.site === 'news.example'));
		await read(outsideMark('news.example').replace('news', 'fame'));
		expect((await ledgerOf(paper.slug)).filter((e) => e.source.site?.includes('fame'))).toEqual([]);
	});
	it('oEmbed answers in JSON and XML for what is open, 401, 404 and 501 otherwise', async () => {
		const ask = (slug: string, more = '') => visitor().get(`/oembed?url=${encodeURIComponent(`${origin}/d/${slug}`)}${more}`);
		const json = await ask(open.slug, '&maxwidth=400');
		expect(json.headers.get('content-type')).toContain('application/json');
		const answer = (await json.json()) as { html: string; width: number; title: string };
		expect(answer).toMatchObject({ type: 'rich', version: '1.0', title: open.title, width: 400 });
		expect(answer.html).toContain(`src="${origin}/embed/${open.slug}"`);
		const xml = await ask(open.slug, '&format=xml');
		expect(xml.headers.get('content-type')).toContain('text/xml');
		expect(await xml.text()).toContain('<type>rich</type>');
		const shut = await document();
		expect([
			(await ask(keyed.slug)).status,
			(await ask(shut.slug)).status,
			(await ask('never-was')).status,
			(await ask(open.slug, '&format=yaml')).status
		]).toEqual([401, 404, 404, 501]);
		expect((await visitor().get('/oembed?url=https%3A%2F%2Felsewhere.example%2Fd%2Fx')).status).toBe(404);
		for (const refused of [keyed, shut]) expect(await (await ask(refused.slug)).text()).not.toContain(refused.title);
		// found from the document's page
		const head = await html(visitor(), `/d/${open.slug}`);
		expect(head).toContain('type="application/json+oembed"');
		expect(head).toContain('property="og:title"');
		expect(head).toContain('"@type":"DigitalDocument"');
	});
	it('sitemap and robots.txt tell of what a visitor may see listed', async () => {
		const [ajar, quiet] = [await document({ position: 'ajar' }), await document({ position: 'open', listed: false })];
		const { path } = await page({});
		const map = await html(boss, '/sitemap.xml');
		expect(map).toContain('xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"');
		expect(map).toContain(`<loc>${origin}/d/${open.slug}</loc>`);
		expect(map).toContain(path);
		for (const kept of [keyed, ajar, quiet]) expect(map).not.toContain(kept.slug);
		expect(await html(visitor(), '/robots.txt')).toContain(`Sitemap: ${origin}/sitemap.xml`);
		const tag = (await visitor().get('/sitemap.xml')).headers.get('etag')!;
		expect((await visitor().get('/sitemap.xml', { 'if-none-match': tag })).status).toBe(304);
		const late = await document({ position: 'open' });
		const again = await visitor().get('/sitemap.xml', { 'if-none-match': tag });
		expect([again.status, (await again.text()).includes(`/d/${late.slug}<`)]).toEqual([200, true]);
	});
	it('more addresses than one sitemap may have stand in several, and an index names them', async () => {
		await document({ position: 'open' });
		const locations = (text: string | null) => [...(text ?? '').matchAll(/<loc>([^<]+)<\/loc>/g)].map((m) => m[1]!);
		const whole = locations(await sitemap(null));
		const most = Math.ceil(whole.length / 3);
		const index = await sitemap(null, most);
		expect(index).toContain('<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">');
		const files = locations(index);
		expect(files).toEqual(files.map((_, i) => `${origin}/sitemap.xml?part=${i + 1}`));
		const parts = await Promise.all(files.map((_, i) => sitemap(i + 1, most)));
		expect(parts.flatMap(locations)).toEqual(whole);
		for (const part of parts) expect(locations(part).length).toBeLessThanOrEqual(most);
		expect(await sitemap(files.length + 1, most)).toBeNull();
		expect((await visitor().get('/sitemap.xml?part=1')).status).toBe(200);
		for (const none of ['2', '0', 'x', '-1']) expect((await visitor().get(`/sitemap.xml?part=${none}`)).status).toBe(404);
	});
	it('llms.txt names what is open and listed with its text, and is not there where the owner does not want it', async () => {
		const [shown, ajar] = [await document({ position: 'open' }), await document({ position: 'ajar' })];
		await boss.api('PATCH', `/documents/${shown.slug}`, { title: 'Locks [and] weirs' });
		const answer = await visitor().get('/llms.txt');
		expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'text/plain; charset=utf-8']);
		const text = await answer.text();
		expect(text).toContain(`- [Locks \\[and\\] weirs](${origin}/d/${shown.slug}): 3 pages, text at ${origin}/d/${shown.slug}/text/plain`);
		for (const kept of [keyed, ajar]) expect(text).not.toContain(kept.slug);
		const inside = await visitor().get(`/d/${shown.slug}/text/plain`);
		expect([inside.status, (await inside.text()).includes('page 1')]).toEqual([200, true]);
		await boss.api('PATCH', '/site', { llms: false });
		expect((await visitor().get('/llms.txt')).status).toBe(404);
		await boss.api('PATCH', '/site', { llms: null });
		expect((await visitor().get('/llms.txt')).status).toBe(200);
	});
	it('colours in which words could not be read are refused, with the nearest that passes', async () => {
		const answer = await boss.send('PATCH', '/api/v1/site', { colour: '#8fd3c8' });
		expect(answer.status).toBe(422);
		const { code, facts } = (await answer.json()) as { code: string; facts: { passes: string } };
		expect(code).toBe('colour-unreadable');
		expect((await boss.send('PATCH', '/api/v1/site', { colour: facts.passes })).status).toBe(200);
		expect(await html(visitor(), '/sign-in')).toContain(facts.passes);
		await boss.api('PATCH', '/site', { colour: null });
		expect((await boss.send('PATCH', '/api/v1/site', { framers: ["x.example; script-src 'unsafe-inline'"] })).status).toBe(422);
	});
});
