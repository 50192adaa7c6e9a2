// Pages: drafts, publishing, and what each reader sees of a placement.
import { beforeAll, describe, expect, it } from 'vitest';
import { languages } from '#core/words/words';
import { messages } from '#core/words/messages';
import { document, ledgerOf, member, origin, staff, visitor, type Client, type DocumentJson } from './help';

const { addPage, publish, changePage } = await import('#server/placing/commands');
const { pageDraft, listPages } = await import('#server/placing/views');
const { sql } = await import('#server/db/client');

let boss: Client;
let ownerId: string;
beforeAll(async () => {
	boss = await staff();
	ownerId = (await sql()<{ id: string }[]>`select id from person where role = 'owner'`)[0]!.id;
});
const article = (...attrs: object[]) => ({
	type: 'doc',
	content: [
		{
			type: 'paragraph',
			content: [{ type: 'text', text: 'Before. ' }, ...attrs.map((a) => ({ type: 'placement', attrs: { form: 'text', press: 'page', ...a } }))]
		}
	]
});
let pages = 0;
async function page(content: unknown, published = true) {
	const path = `/page-${++pages}`;
	const id = await addPage({ title: `Page ${pages}`, path }, ownerId);
	await changePage(id, { title: `Page ${pages}`, content, inNavigation: false }, ownerId);
	if (published) await publish(id, ownerId);
	return { id, path };
}
const html = async (client: Client, path: string) => (await client.get(path)).text();

it('a draft is seen by nobody but staff in the desk; published it is seen, taken down it is not', async () => {
	const { id, path } = await page({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Fresh words' }] }] }, false);
	expect((await visitor().get(path)).status).toBe(404);
	expect(await html(boss, `/desk/pages/${id}/preview`)).toContain('Fresh words');
	expect((await boss.send('POST', `/api/v1/pages${path}/publish`, { published: true })).status).toBe(200);
	expect(await html(visitor(), path)).toContain('Fresh words');
	await boss.send('POST', `/api/v1/pages${path}/publish`, { published: false });
	expect((await visitor().get(path)).status).toBe(404);
});
it('what is saved after publishing waits for the next publishing', async () => {
	const { id, path } = await page({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'First words' }] }] });
	const { draftNumber } = await pageDraft(id);
	await changePage(
		id,
		{
			title: 'Page',
			content: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Second words' }] }] },
			inNavigation: false,
			draftNumber
		},
		ownerId
	);
	expect(await html(visitor(), path)).toContain('First words');
	expect((await listPages()).find((p) => p.id === id)).toMatchObject({ published: true, changed: true });
});
it('two who write at once do not overwrite each other unseen', async () => {
	const { id, path } = await page(article());
	const { draftNumber, content } = await pageDraft(id);
	const save = (title: string) => boss.send('PATCH', `/api/v1/pages${path}`, { title, content, inNavigation: false, draftNumber });
	expect((await save('Mine')).status).toBe(200);
	const late = await save('Theirs');
	const told = (await late.json()) as { code: string; title: string; facts: { by: string; at: string } };
	expect([late.status, told.code]).toEqual([409, 'changed-meanwhile']);
	// who changed it and when; the page itself says what
	const there = (await (await boss.get(`/api/v1/pages${path}`)).json()) as { title: string; draftBy: string; draftAt: string; draftNumber: number };
	expect(there).toMatchObject({ title: 'Mine', draftBy: told.facts.by, draftAt: told.facts.at, draftNumber: draftNumber + 1 });
	expect(told.title).toContain(`${told.facts.by} saved this page`);
	expect((await pageDraft(id)).title).toBe('Mine');
});
it('content that could run code is refused', async () => {
	const { id, path } = await page(article());
	const { draftNumber } = await pageDraft(id);
	const content = {
		type: 'doc',
		content: [{ type: 'paragraph', content: [{ type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }] }] }]
	};
	expect((await boss.send('PATCH', `/api/v1/pages${path}`, { title: 'x', content, inNavigation: false, draftNumber })).status).toBe(422);
	const harmless = await page({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: '<img src=x onerror=alert(1)>' }] }] });
	expect(await html(visitor(), harmless.path)).toContain('&lt;img src=x onerror=alert(1)>');
});

describe('a placement', () => {
	let open: DocumentJson, keyed: DocumentJson, shut: DocumentJson;
	let keeper: Client, path: string;
	beforeAll(async () => {
		keeper = await member({ group: 'Page keepers' });
		[open, keyed, shut] = [await document({ position: 'open' }), await document({ position: 'keyed', groups: ['page-keepers'] }), await document()];
		({ path } = await page(
			article(
				{ document: open.slug, id: `open-${open.slug}`.slice(0, 40), press: 'save' },
				{ document: keyed.slug, form: 'cover', id: `keyed-${keyed.slug}`.slice(0, 40) },
				{ document: shut.slug, form: 'cover' },
				{ document: shut.slug, words: 'the plan' }
			)
		));
	});
	it('of an open document leads where its press says, and says type, pages and size', async () => {
		const text = await html(visitor(), path);
		expect(text).toMatch(new RegExp(`href="/d/${open.slug}/file\\?save&amp;from=open-[^"]+"[^>]* download`));
		expect(text).toMatch(/\(PDF, 3 pages, [\d.]+ kB\)/);
	});
	it('of a keyed document is the cover to those it admits, and neither title nor cover to others', async () => {
		expect(await html(keeper, path)).toContain(`/d/${keyed.slug}/cover/`);
		const text = await html(visitor(), path);
		expect(text).not.toContain(keyed.title);
		expect(text).not.toContain(`/d/${keyed.slug}/cover/`);
		expect(text).toContain('A document kept for members');
	});
	it('of a shut document shows nothing of it, only the page’s own words', async () => {
		for (const client of [visitor(), keeper]) {
			const text = await html(client, path);
			expect(text).not.toContain(shut.slug);
			expect(text).not.toContain(shut.title);
			expect(text).toContain('the plan');
		}
	});
	it('is named in the ledger as the page from which somebody came', async () => {
		await (await visitor(crypto.randomUUID()).get(`/d/${open.slug}/file?save&from=open-${open.slug}`.slice(0, 200))).arrayBuffer();
		const [entry] = await ledgerOf(open.slug);
		expect(entry!.source).toMatchObject({ kind: 'page', path });
	});
	it('stands in the document’s answer', async () => {
		expect((await boss.api<DocumentJson>('GET', `/documents/${keyed.slug}`)).placements).toMatchObject([
			{ page: path, form: 'cover', press: 'page', published: true }
		]);
	});
	it('of a document that there is none is refused at saving', async () => {
		const { id, path } = await page(article());
		const { draftNumber } = await pageDraft(id);
		const answer = await boss.send('PATCH', `/api/v1/pages${path}`, {
			title: 'x',
			content: article({ document: 'never-was' }),
			inNavigation: false,
			draftNumber
		});
		expect([answer.status, ((await answer.json()) as { code: string }).code]).toEqual([422, 'document-unknown']);
	});
});

describe('the door of a page', () => {
	it('turns away as a document’s does, and a document that follows it goes along', async () => {
		const keeper = await member({ group: 'Door keepers' });
		const { id, path } = await page(article());
		const follower = await document({ follows: path });
		expect((await visitor().get(`/d/${follower.slug}/file`)).status).toBe(200);
		await changePage(id, { door: { position: 'keyed', groups: ['door-keepers'] } }, ownerId);
		for (const address of [path, `/d/${follower.slug}/file`])
			expect([(await visitor().get(address)).status, (await keeper.get(address)).status], address).toEqual([401, 200]);
		await changePage(id, { door: { position: 'shut' } }, ownerId);
		for (const address of [path, `/d/${follower.slug}/file`]) expect((await keeper.get(address)).status, address).toBe(404);
	});
	it('a shut page is told apart from none by nobody', async () => {
		const { id, path } = await page(article());
		await changePage(id, { door: { position: 'shut' } }, ownerId);
		const words = async (p: string) => /<h1.*?<\/h1>\s*<p.*?<\/p>/s.exec(await html(visitor(), p))?.[0];
		expect(await words(path)).toBe(await words('/never-was'));
	});
});

describe('the language readers are spoken to in', () => {
	const spoken = async (path: string, headers: Record<string, string> = {}) => {
		const response = await visitor().get(path, { accept: 'text/html', ...headers });
		const text = await response.text();
		return { language: /<html[^>]* lang="(\w+)"/.exec(text)?.[1], text };
	};
	it('is the page’s own, else the site’s, else the browser’s; who chose one keeps it', async () => {
		const { path } = await page(article());
		expect((await spoken(path, { 'accept-language': 'fr' })).language).toBe('fr');
		await boss.api('PATCH', `/pages${path}`, { language: 'pl' });
		expect((await boss.api<{ language: string }>('GET', `/pages${path}`)).language).toBe('pl');
		const { language, text } = await spoken(path, { 'accept-language': 'fr' });
		expect(language).toBe('pl');
		expect(text).toContain(messages.pl.site.signIn as string);
		expect((await spoken(path, { cookie: 'ianua_language=de' })).language).toBe('de');
		expect((await spoken('/sign-in', { 'accept-language': 'fr' })).language).toBe('fr');
		expect((await boss.send('PATCH', `/api/v1/pages${path}`, { language: 'tlh' })).status).toBe(422);
		await boss.api('PATCH', `/pages${path}`, { language: null });
		expect((await spoken(path, { 'accept-language': 'fr' })).language).toBe('fr');
	});
	it('tells nothing of a page that is answered as if it were not there', async () => {
		const hidden = await page(article(), false);
		const shut = await page(article());
		const nowhere = await visitor().get('/no-such-page', { accept: 'text/html', 'accept-language': 'fr' });
		for (const { path } of [hidden, shut]) {
			await boss.api('PATCH', `/pages${path}`, { language: 'pl', ...(path === shut.path ? { door: { position: 'shut' } } : {}) });
			const answer = await visitor().get(path, { accept: 'text/html', 'accept-language': 'fr' });
			expect(answer.status).toBe(nowhere.status);
			expect((await spoken(path, { 'accept-language': 'fr' })).language, path).toBe('fr');
		}
		await boss.api('PATCH', `/pages${shut.path}`, { door: { position: 'open' } });
		expect((await spoken(shut.path, { 'accept-language': 'fr' })).language).toBe('pl');
	});
	it.each(languages)('%s, on every page about one’s own account', async (language) => {
		const said = messages[language] as Record<'site' | 'account' | 'news', Record<string, string>>;
		const at = async (path: string) => (await spoken(path, { 'accept-language': language })).text;
		expect(await at('/sign-in/forgotten')).toContain(said.account.mailWay);
		expect(await at('/sign-in/link?token=x')).toContain(said.account.openLink);
		expect(await at('/sign-in/new-password?token=x')).toContain(said.account.choosePassword);
		expect(await at('/sign-in/code')).toContain(said.account.codeHead);
		const someone = await member({ group: 'Spoken to' });
		const own = async (path: string) => (await (await someone.get(path, { accept: 'text/html', 'accept-language': language })).text()).replaceAll('&#39;', "'");
		const [me, account] = [await own('/me'), await own('/me/account')];
		for (const name of ['mayRead', 'signOut']) expect(me, name).toContain(said.account[name]);
		for (const name of ['head', 'lead', 'none', 'feedMake']) expect(me, name).toContain(said.news[name]);
		for (const name of ['memberships', 'whereIn', 'changePassword', 'recordWords', 'haveErased', 'signOut'])
			expect(account, name).toContain(said.account[name]);
		const form = new FormData();
		form.append('current', 'x');
		const refused = await someone.send('POST', '/me/account?/erase', form, { origin, accept: 'text/html', 'accept-language': language });
		expect(await refused.text()).toContain(said.account.sayFirst);
		const paper = await document({ position: 'keyed' });
		const { url } = await boss.api<{ url: string }>('POST', `/documents/${paper.slug}/keys`, { label: 'With a password', password: 'towline' });
		const key = await at(new URL(url).pathname);
		expect(key).toContain(said.account.keyWords);
		expect(key).not.toContain(paper.title);
	});
});
