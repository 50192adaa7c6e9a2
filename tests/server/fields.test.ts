// Fields of documents: made in the settings, filled one by one, for many, and from a table; found, shown, and lists narrowed by them.
import { beforeAll, describe, expect, it } from 'vitest';
import type { Field } from '#core/documents/fields';
import type { Listing } from '#core/placing/listing';
import { sql } from '#server/db/client';
import { listDocuments } from '#server/documents/list';
import { listFor } from '#server/placing/catalogue';
import { changeSite } from '#server/site/site';
import { nobody } from '#server/people/who';
import { member, origin, pdf, send, staff, visitor, type Client, type DocumentJson } from './help';

const fields: Field[] = [
	{ name: 'bureau', words: 'Bureau', kind: 'choice', choices: ['Works', 'Boats', 'Towpath'], listed: true, filtered: true },
	{ name: 'closing', words: 'Closing date', kind: 'date', listed: true, filtered: false },
	{ name: 'sold', words: 'Copies sold', kind: 'number', listed: false, filtered: false },
	{ name: 'more', words: 'More of it', kind: 'link', listed: true, filtered: false },
	{ name: 'planted', words: 'Planted', kind: 'text', listed: false, filtered: false }
];
let boss: Client;
let slugs: string[];
type WithFields = DocumentJson & { fields: Record<string, string | number> };
const documentAt = (slug: string) => boss.api<WithFields>('GET', `/documents/${slug}`);
const fill = (slug: string, values: Record<string, unknown>) => boss.send('PATCH', `/api/v1/documents/${slug}`, { fields: values });
const table = (text: string, query = '', who: Client = boss) =>
	fetch(`${origin}/api/v1/fields${query}`, { method: 'POST', headers: { ...who.headers, origin, 'content-type': 'text/csv' }, body: text });

beforeAll(async () => {
	boss = await staff();
	await boss.api('PATCH', '/site', { fields });
	// what this process keeps of the site is renewed too
	const [olive] = await sql()<{ id: string }[]>`select id from person where email = 'olive@example.org'`;
	await changeSite({ fields }, olive!.id);
	slugs = [];
	for (const title of ['Tender for the weir', 'Boat licences', 'Hedges of the towpath']) {
		const { slug } = (await (await send(await pdf(title), `${title}.pdf`, { title, folder: 'Fields' })).json()) as DocumentJson;
		await boss.api('PATCH', `/documents/${slug}`, { door: { position: 'open' } });
		slugs.push(slug);
	}
});

describe('fields', () => {
	it('are the owner’s to make, and make sense', async () => {
		expect((await boss.send('PATCH', '/api/v1/site', { fields: [fields[0], { ...fields[1], name: 'bureau' }] })).status).toBe(422);
		expect((await boss.send('PATCH', '/api/v1/site', { fields: [{ ...fields[0], choices: [] }] })).status).toBe(422);
		const who = await member();
		expect((await who.send('PATCH', '/api/v1/site', { fields: [] })).status).toBe(403);
		// taken away and given back, what documents say is there again
		await fill(slugs[0]!, { bureau: 'Works' });
		const { before } = await boss.api<{ before: object }>('PATCH', '/site', { fields: fields.slice(1) });
		expect(await (await visitor().get(`/d/${slugs[0]}`)).text()).not.toContain('Bureau');
		await boss.api('PATCH', '/site', before);
		expect(await (await visitor().get(`/d/${slugs[0]}`)).text()).toMatch(/Bureau<\/dt>\s*<dd[^>]*>(?:<!--.*?-->)*Works/);
	});
	it('are filled one by one, refuse what does not fit, and give back what was', async () => {
		const [weir] = slugs as [string];
		const changed = await fill(weir, { closing: '2031-03-31', sold: 12, more: 'https://example.org/weir' });
		const { before } = (await changed.json()) as { before: { fields: object } };
		expect(before.fields).toEqual({ closing: null, sold: null, more: null });
		expect((await documentAt(weir)).fields).toEqual({ bureau: 'Works', closing: '2031-03-31', sold: 12, more: 'https://example.org/weir' });
		for (const wrong of [{ bureau: 'Trains' }, { closing: '31 March' }, { sold: 'many' }, { more: 'javascript:alert(1)' }, { colour: 'red' }])
			expect((await fill(weir, wrong)).status).toBe(422);
		const page = await (await visitor().get(`/d/${weir}`)).text();
		expect(page).toContain('31 March 2031');
		expect(page).toContain('href="https://example.org/weir"');
		await boss.api('PATCH', `/documents/${weir}`, before);
		expect((await documentAt(weir)).fields).toEqual({ bureau: 'Works' });
	});
	it('a choice that is offered no more comes back by undo where it stood, and nowhere else', async () => {
		const [weir, boats] = slugs as [string, string];
		expect((await documentAt(weir)).fields.bureau).toBe('Works');
		const { before: asWas } = await boss.api<{ before: object }>('PATCH', '/site', {
			fields: fields.map((field) => (field.name === 'bureau' ? { ...field, choices: ['Boats', 'Towpath'] } : field))
		});
		const { before } = await boss.api<{ before: object }>('PATCH', `/documents/${weir}`, { fields: { bureau: 'Boats' } });
		await boss.api('PATCH', `/documents/${weir}`, before);
		expect((await documentAt(weir)).fields.bureau).toBe('Works');
		expect((await fill(boats, { bureau: 'Works' })).status).toBe(422);
		await boss.api('PATCH', '/site', asWas);
	});
	it('are filled for many at once, all of them or none, and put back', async () => {
		expect((await boss.send('POST', '/api/v1/bulk', { documents: slugs, fields: { bureau: 'Trains' } })).status).toBe(422);
		const { undo } = await boss.api<{ undo: object[] }>('POST', '/bulk', { documents: slugs, fields: { bureau: 'Boats' } });
		for (const slug of slugs) expect((await documentAt(slug)).fields.bureau).toBe('Boats');
		await boss.api('POST', '/bulk/undo', { undo });
		expect(await Promise.all(slugs.map(async (slug) => (await documentAt(slug)).fields.bureau ?? null))).toEqual(['Works', null, null]);
	});
	it('are filled from a table, after a look, all of it or nothing', async () => {
		const good = `document;Bureau;Copies sold\n${slugs[1]};Boats;7\nhttps://library.example/d/${slugs[2]};Towpath;\n`;
		const look = (await (await table(good, '?preview')).json()) as { changed: number; done: boolean };
		expect(look).toMatchObject({ changed: 2, same: 0, wrong: [], leftOut: [], done: false });
		expect((await documentAt(slugs[1]!)).fields).toEqual({});
		const bad = (await (await table(`${good}nowhere;Works;\n`)).json()) as { wrong: object[]; done: boolean };
		expect(bad).toMatchObject({ done: false, wrong: [{ line: 4, words: 'There is no document at “nowhere”.' }] });
		expect((await documentAt(slugs[1]!)).fields).toEqual({});
		const done = (await (await table(good)).json()) as { done: boolean; undo: object[] };
		expect(done.done).toBe(true);
		expect((await documentAt(slugs[1]!)).fields).toEqual({ bureau: 'Boats', sold: 7 });
		expect((await table('document,Bureau\n"broken', '', boss)).status).toBe(422);
		expect((await table(good, '', await member())).status).toBe(403);
		await boss.api('POST', '/bulk/undo', { undo: done.undo });
		expect((await documentAt(slugs[1]!)).fields).toEqual({});
		await table(good);
	});
	it('narrow the room’s list, each with its count', async () => {
		const only = async (field: string[]) => (await listDocuments({ filters: { folder: ['Fields'], field } })).items.map((item) => item.title).sort();
		expect(await only(['bureau:Boats'])).toEqual(['Boat licences']);
		expect(await only(['bureau:Boats', 'bureau:Works'])).toEqual(['Boat licences', 'Tender for the weir']);
		expect(await only(['bureau:Trains'])).toEqual([]);
		const { counts } = await listDocuments({ filters: { folder: ['Fields'], field: ['bureau:Boats'] } });
		expect(Object.fromEntries(counts.field.map((c) => [c.value, c.count]))).toEqual({ 'bureau:Boats': 1, 'bureau:Towpath': 1, 'bureau:Works': 1 });
	});
	it('are found', async () => {
		await fill(slugs[2]!, { more: 'https://example.org/quickthorn', planted: 'blackthorns and hazel' });
		const { items } = await boss.api<{ items: { slug: string }[] }>('GET', '/find?q=blackthorns');
		expect(items.map((item) => item.slug)).toEqual([slugs[2]]);
		expect((await boss.api<{ items: { slug: string }[] }>('GET', '/find?q=towpath')).items.map((item) => item.slug)).toContain(slugs[2]);
	});
	it('choose what a list shows, stand in it, and narrow it for its readers, who learn nothing of what is kept', async () => {
		const shut = (await (await send(await pdf('Kept by boats'), 'kept.pdf', { title: 'Kept', folder: 'Fields' })).json()) as DocumentJson;
		await fill(shut.slug, { bureau: 'Boats', sold: 3 });
		await fill(slugs[0]!, { closing: '2031-03-31' });
		const listing: Listing = { folders: ['Fields'], show: 'list', order: 'title', beside: false };
		const all = await listFor(listing, nobody, {});
		expect(all.items.map((item) => [item.title, ...item.fields.map((field) => field.value)])).toEqual([
			['Boat licences', 'Boats'],
			['Hedges of the towpath', 'Towpath', 'example.org/quickthorn'],
			['Tender for the weir', 'Works', '31 March 2031']
		]);
		expect(all.fields).toEqual([
			{
				name: 'bureau',
				words: 'Bureau',
				values: [
					{ value: 'Boats', count: 1 },
					{ value: 'Towpath', count: 1 },
					{ value: 'Works', count: 1 }
				]
			}
		]);
		const boats = await listFor(listing, nobody, { fields: { bureau: 'Boats' } });
		expect(boats.items.map((item) => item.title)).toEqual(['Boat licences']);
		// the other values of the field can still be chosen
		expect(boats.fields[0]!.values).toHaveLength(3);
		const chosen = await listFor({ fields: { bureau: ['Works', 'Towpath'] }, show: 'list', order: 'title', beside: false }, nobody, {});
		expect(chosen.items.map((item) => item.title)).toEqual(['Hedges of the towpath', 'Tender for the weir']);
		// the same as a page of the site, without any script
		const path = '/by-bureau';
		await boss.api('POST', '/pages', { path, title: 'By bureau', layout: 'catalogue', content: listing });
		await boss.api('POST', `/pages/${encodeURIComponent(path)}/publish`, {});
		const page = await (await visitor().get(`${path}?f-bureau=Boats`)).text();
		expect(page).toContain('Boat licences');
		expect(page).not.toContain('Tender for the weir');
		expect(page).toMatch(/<a[^>]* href="\?f-bureau=Boats"[^>]* aria-current="true"/);
		expect(page).toMatch(/<a[^>]* href="\?f-bureau=Works"/);
	});
	it('the page of a document has its particulars with the document to read in place, where the site wants it so', async () => {
		const page = async () => (await visitor().get(`/d/${slugs[0]}`)).text();
		// else it is opened there by a press, and not before
		const closed = /<details(?:(?!<\/details>)[\s\S])*<iframe[^>]*loading="lazy"/;
		expect(await page()).toMatch(closed);
		await boss.api('PATCH', '/site', { documentPage: 'particulars' });
		expect(await page()).toMatch(new RegExp(`<iframe[^>]*src="/d/${slugs[0]}/read\\?frame=1`));
		expect(await page()).not.toMatch(closed);
		expect((await boss.send('PATCH', '/api/v1/site', { documentPage: 'wide' })).status).toBe(422);
		await boss.api('PATCH', '/site', { documentPage: 'plain' });
	});
});

describe('a review date', () => {
	it('is kept with who looks, told in upkeep from its day on, and moved on by one press', async () => {
		const { upkeep } = await import('#server/upkeep/list');
		const [weir] = slugs as [string];
		const due = async () => (await upkeep()).lines.filter((line) => line.kind === 'review-due').map((line) => [line.slug, line.text]);
		await boss.api('PATCH', `/documents/${weir}`, { review: { on: '2999-01-01', by: 'olive@example.org' } });
		expect((await boss.api<DocumentJson & { review: object }>('GET', `/documents/${weir}`)).review).toEqual({ on: '2999-01-01', by: 'olive@example.org' });
		expect(await due()).toEqual([]);
		const { before } = await boss.api<{ before: object }>('PATCH', `/documents/${weir}`, { review: { on: '2020-02-29', by: 'olive@example.org' } });
		expect(await due()).toEqual([[weir, expect.stringMatching(/^Somebody should look whether it still holds: \S/)]]);
		await boss.api('PATCH', `/documents/${weir}`, before);
		expect(await due()).toEqual([]);
		const who = await member();
		const { email } = await boss.api<{ email: string }>('GET', `/members/${who.id}`);
		for (const wrong of [{ on: 'soon' }, { on: '2021-02-29' }, { on: '2031-01-01', by: email }])
			expect((await boss.send('PATCH', `/api/v1/documents/${weir}`, { review: wrong })).status).toBe(422);
	});
});
