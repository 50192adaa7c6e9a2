// News: what came out is told to those who wished it, once, of what they may read; by mail, in a feed of their own, and on their own page.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { document, ledgerOf, member, origin, secondEdition, staff, until, visitor, type Client } from './help';
import { given } from './given';
import { mails } from './mails';
const { sql } = await import('#server/db/client');
const { tellNews } = await import('#server/news/mail');
const { settings } = await import('#server/settings');
const { nextMailing } = await import('#core/readership/mailing');

function form(who: Client, action: string, fields: Record<string, string>): Promise<Response> {
	const body = new FormData();
	for (const [name, value] of Object.entries(fields)) body.append(name, value);
	return who.send('POST', action, body, { origin, accept: 'text/html' });
}
const mailsTo = (who: { email: string }) => mails().filter((mail) => mail.to.includes(who.email));
/** All mails to somebody, once there are so many. */
const told = (who: { email: string }, count: number) => until(() => Promise.resolve(mailsTo(who).length >= count && mailsTo(who)));

it('tells of new documents and editions at once, each once, to those alone who may read them and wished it', async () => {
	const boss = await staff();
	const [all, one, folder, nobody] = [
		await member({ group: 'News readers' }),
		await member({ group: 'News readers' }),
		await member({ group: 'News readers' }),
		await member({ group: 'News readers' })
	];
	const outsider = await member({ group: 'News outsiders' });
	const there = await document({ position: 'keyed', groups: ['news-readers'] });
	const inFolder = `Told ${process.pid}`;
	await tellNews(Date.now());
	for (const who of [all, outsider]) expect((await form(who, '/me?/tell', { about: 'all', every: 'at-once' })).status).toBe(200);
	expect((await form(folder, '/me?/tell', { about: 'folder', folder: inFolder, every: 'at-once' })).status).toBe(200);
	// back to where it was asked for
	const asked = await form(one, '/me?/tell', { about: 'document', document: there.slug, every: 'at-once', to: `/d/${there.slug}#news` });
	expect([asked.status, asked.headers.get('location')]).toEqual([303, `/d/${there.slug}#news`]);
	// a document that one may not open cannot be asked about, and is not told to be there
	expect((await form(outsider, '/me?/tell', { about: 'document', document: there.slug, every: 'at-once' })).status).toBe(403);
	expect((await form(outsider, '/me?/tell', { about: 'document', document: 'never-was', every: 'at-once' })).status).toBe(404);
	expect((await form(outsider, '/me?/tell', { about: 'all', every: 'often' })).status).toBe(422);

	// what was there before is no news
	await tellNews(Date.now());
	expect(mailsTo(all)).toEqual([]);

	const fresh = await document({ position: 'shut' });
	await boss.api('PATCH', `/documents/${fresh.slug}`, { folder: inFolder, title: `Winter works ${process.pid}`, description: 'Where and when.' });
	await tellNews(Date.now());
	expect(mailsTo(all)).toEqual([]);
	await boss.api('PATCH', `/documents/${fresh.slug}`, { door: { position: 'keyed', groups: ['news-readers'] } });
	await tellNews(Date.now());
	const [mail] = await told(all, 1);
	expect(mail!.subject).toBe(`New at Test society: Winter works ${process.pid}`);
	expect(mail!.text).toContain(`/d/${fresh.slug}?from=news`);
	expect(mail!.text).toContain('Where and when.');
	await told(folder, 1);
	// told once, however often it is looked, and by how many at once
	await Promise.all([tellNews(Date.now()), tellNews(Date.now())]);
	expect([all, folder, one, nobody, outsider].map((who) => mailsTo(who).length)).toEqual([1, 1, 0, 0, 0]);

	// a new edition
	await secondEdition(there.slug);
	await tellNews(Date.now());
	await told(one, 1);
	expect((await told(all, 2)).at(-1)!.text).toContain('new edition');
	expect([folder, nobody, outsider].map((who) => mailsTo(who).length)).toEqual([1, 0, 0]);

	// a door that comes to admit more is news to those whom it had not admitted
	await boss.api('PATCH', `/documents/${fresh.slug}`, { door: { groups: ['news-readers', 'news-outsiders'] } });
	await tellNews(Date.now());
	await told(outsider, 1);
	expect([all, folder, one].map((who) => mailsTo(who).length)).toEqual([2, 1, 1]);

	// it stands in the ledger, and who comes by it is counted as such
	expect(
		(await ledgerOf(fresh.slug))
			.filter((entry) => entry.kind === 'news')
			.map((entry) => entry.who.email)
			.sort()
	).toEqual([all.email, folder.email, outsider.email].sort());
	await (await all.get(`/d/${fresh.slug}/file?from=news`)).arrayBuffer();
	expect((await ledgerOf(fresh.slug)).find((entry) => entry.kind === 'opened' || entry.kind === 'saved')?.source.kind).toBe('news');

	// one press in the mail ends it: not by being opened, but by what a program for mail sends (RFC 8058), from no page of ours
	const source = readdirSync(given.mail)
		.sort()
		.map((name) => readFileSync(join(given.mail, name), 'latin1'))
		.findLast((text) => text.includes(all.email))!;
	const head = source.replace(/\r?\n[ \t]+/g, ' ');
	const end = /^List-Unsubscribe: <([^>]+)>/im.exec(head)?.[1] ?? '';
	expect(head).toMatch(/^List-Unsubscribe-Post: List-Unsubscribe=One-Click/im);
	expect(mail!.text).toContain(end);
	const wishes = async (who: Client) => (await (await who.get('/me')).text()).includes('everything that I may read<small');
	expect((await fetch(end)).status).toBe(200);
	expect(await wishes(all)).toBe(true);
	expect(
		(
			await fetch(
				end.replace(/.$/, (last) => (last === 'A' ? 'B' : 'A')),
				{ method: 'POST', body: new URLSearchParams({}) }
			)
		).status
	).toBe(404);
	expect(await wishes(all)).toBe(true);
	expect((await fetch(end, { method: 'POST', body: new URLSearchParams({ 'List-Unsubscribe': 'One-Click' }) })).status).toBe(200);
	expect(await wishes(all)).toBe(false);
	await boss.api('PATCH', `/documents/${there.slug}`, { door: { position: 'open' } });
	const last = await document({ position: 'open' });
	await tellNews(Date.now());
	expect(mailsTo(all).length).toBe(2);
	expect((await (await outsider.get('/me')).text()).includes(`/d/${last.slug}"`)).toBe(true);

	// something that is no wish ends none of them
	expect((await form(one, '/me?/end', { wish: 'all' })).status).toBe(422);
	expect(await (await one.get('/me')).text()).toContain('new editions of');

	// what is kept of it goes with the record
	const record = (await (await all.get('/me/record.json')).json()) as { newsTold: unknown[] };
	expect(record.newsTold).toHaveLength(2);
});

it('tells weekly on Monday, all of it in one mail; what could not be sent is tried again', async () => {
	const reader = await member({ group: 'Weekly readers' });
	await form(reader, '/me?/tell', { about: 'all', every: 'week' });
	const two = [await document({ position: 'keyed', groups: ['weekly-readers'] }), await document({ position: 'keyed', groups: ['weekly-readers'] })];
	await tellNews(Date.now());
	expect(mailsTo(reader)).toEqual([]);
	const monday = nextMailing(Date.now(), 'week', 'Europe/London');
	await tellNews(monday - 1000);
	expect(mailsTo(reader)).toEqual([]);
	// the mail server takes nothing for a while: nothing counts as told
	const known = settings();
	const post = known.IANUA_SMTP_URL;
	Object.assign(known, { IANUA_SMTP_URL: '' });
	await tellNews(monday + 500);
	Object.assign(known, { IANUA_SMTP_URL: post });
	const kept = await sql()`select from news_told t join person p on p.id = t.person_id where p.email = ${reader.email}`;
	expect([mailsTo(reader).length, kept.length]).toEqual([0, 0]);
	await tellNews(monday + 1000);
	expect(mailsTo(reader)).toEqual([]);
	const later = monday + 11 * 60_000;
	await tellNews(later);
	const [mail] = await told(reader, 1);
	for (const { slug } of two) expect(mail!.text).toContain(`/d/${slug}?from=news`);
	expect(mail!.subject).toMatch(/^\d+ new documents at Test society$/);
	await tellNews(later + 1000);
	expect(mailsTo(reader)).toHaveLength(1);
	const [row] = await sql()<{ next_at: Date }[]>`select w.next_at from news_wish w join person p on p.id = w.person_id where p.email = ${reader.email}`;
	expect(row!.next_at.getTime()).toBe(nextMailing(later, 'week', 'Europe/London'));
});

it('stands in a feed at an address of one’s own, which ends when another is made', async () => {
	const boss = await staff();
	const [reader, other] = [await member({ group: 'Feed readers' }), await member({ group: 'Feed others' })];
	const kept = await document({ position: 'keyed', groups: ['feed-readers'] });
	await boss.api('PATCH', `/documents/${kept.slug}`, { title: `Kept & told ${process.pid}` });
	await tellNews(Date.now());
	const address = async (who: Client) => {
		await form(who, '/me?/feed', {});
		const page = await (await who.get('/me')).text();
		return /value="([^"]+feed\.atom)"/.exec(page)![1]!;
	};
	const [mine, theirs] = [await address(reader), await address(other)];
	const feed = await fetch(mine);
	expect([feed.status, feed.headers.get('content-type'), feed.headers.get('cache-control')]).toEqual([200, 'application/atom+xml; charset=utf-8', 'no-store']);
	const text = await feed.text();
	expect(text).toContain(`Kept &#38; told ${process.pid}`);
	expect(text).toContain(`/d/${kept.slug}?from=news`);
	expect(await (await fetch(theirs)).text()).not.toContain(kept.slug);
	const anew = await address(reader);
	expect(anew).not.toBe(mine);
	expect((await fetch(mine)).status).toBe(404);
	expect((await fetch(anew)).status).toBe(200);
	// somebody else's proof with this person's id
	const swapped = anew.replace(/\.[\w-]{32}\//, `.${/\.([\w-]{32})\//.exec(theirs)![1]!}/`);
	expect((await fetch(swapped)).status).toBe(404);
	await boss.api('PATCH', `/members/${anew.split('/').at(-2)!.split('.')[0]!}`, { suspended: true });
	expect((await fetch(anew)).status).toBe(404);
	await form(other, '/me?/feed', { end: 'yes' });
	expect((await fetch(theirs)).status).toBe(404);
});

it('is on one’s own page: new, to go on with, changed since it was read, and by group', async () => {
	const boss = await staff();
	const reader = await member({ group: 'Own page readers' });
	const titled = async (title: string, pages = 3) => {
		const made = await document({ position: 'keyed', groups: ['own-page-readers'] }, pages);
		await boss.api('PATCH', `/documents/${made.slug}`, { title: `${title} ${process.pid}` });
		return made.slug;
	};
	const [begun, changed, unread] = [await titled('Begun'), await titled('Changed'), await titled('Unread')];
	await tellNews(Date.now());
	for (const slug of [begun, changed]) await (await reader.get(`/d/${slug}/leaf/1.webp`)).arrayBuffer();
	await reader.send('POST', `/d/${begun}/read/told`, { kind: 'read', pages: [{ page: 2, seconds: 1 }] });
	await secondEdition(changed);
	await tellNews(Date.now());
	const page = (await (await reader.get('/me')).text()).replace(/<!--.*?-->/g, '');
	const part = (id: string) => new RegExp(`<section[^>]* aria-labelledby="${id}"[\\s\\S]*?</section>`).exec(page)?.[0] ?? '';
	const titles = (id: string) => [...part(id).matchAll(/<h3[^>]*><a[^>]*>(\w+) \d+<\/a>/g)].map((m) => m[1]);
	expect(titles('go-on')).toEqual(['Begun']);
	expect(part('go-on')).toContain(`/d/${begun}/read#page=2`);
	expect(titles('changed')).toEqual(['Changed']);
	expect(titles('fresh')).toEqual(expect.arrayContaining(['Changed', 'Unread']));
	expect(titles('fresh')).not.toContain('Begun');
	expect(page).toMatch(/<section[^>]* aria-label="For Own page readers"/);
	expect(page).toContain(`/d/${unread}"`);
	expect((await visitor().get('/me')).status).toBe(303);
});
