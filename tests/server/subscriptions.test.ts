// What staff and programs are told: reports and first openings by mail, webhooks.
import { createHmac } from 'node:crypto';
import { createServer, type IncomingHttpHeaders } from 'node:http';
import { afterEach, describe, expect, it } from 'vitest';
import { dayOf } from '#core/access/hours';
import { document, member, origin, pdf, send, staff, until, visitor } from './help';
import { mails, mailTo } from './mails';
import { given } from './given';

const { sql } = await import('#server/db/client');
const { site } = await import('#server/site/site');
const { webhookEvents } = await import('#core/readership/webhook');
const { sendDueReports } = await import('#server/readership/subscriptions');
const drain = async (response: Promise<Response>) => (await response).arrayBuffer();
const about = (title: string) => mails().filter((m) => m.subject.includes(title));

describe('by mail', () => {
	it('a report comes every week or month, of the days that are over', async () => {
		const boss = await staff();
		const paper = await document({ position: 'open' });
		await drain(visitor(crypto.randomUUID()).get(`/d/${paper.slug}/file`));
		expect(await boss.api('PATCH', '/readership/subscription', { document: paper.slug, every: 'week' })).toEqual({ every: 'week', waiting: [] });
		await sendDueReports(Date.now());
		expect(mails().filter((m) => m.subject.startsWith('Readership'))).toEqual([]);
		// a week from now, whatever day it is, one is due, and it tells of today
		const today = dayOf(Date.now(), (await site()).zone);
		await sendDueReports(Date.parse(`${today}T12:00Z`) + 7 * 86_400_000);
		const week = await mailTo('olive@example.org', /^Readership, the week to /);
		expect(week.text).toContain(`1 reader from`);
		expect(week.text).toContain(`/desk/readership/${paper.slug}?from=`);
		expect(await boss.api('PATCH', '/readership/subscription', { document: paper.slug, every: null })).toEqual({ every: null, waiting: [] });
		// in the middle of the month after, so is the whole of this one
		expect(await boss.api('PATCH', '/readership/subscription', { document: null, every: 'month' })).toEqual({ every: 'month', waiting: [] });
		const later = Date.parse(`${today.slice(0, 7)}-15T12:00Z`) + 31 * 86_400_000;
		await sendDueReports(later);
		expect((await mailTo('olive@example.org', /^Readership, the month to /)).text).toMatch(/^Olive Owner,\s+\d+ readers? opened \d+ documents?/);
		// not again before the next time
		const before = mails().length;
		await sendDueReports(later + 60_000);
		expect(mails()).toHaveLength(before);
		await boss.api('PATCH', '/readership/subscription', { document: null, every: null });
	});
	it('the first opening by anybody, or by somebody, is told once', async () => {
		const boss = await staff();
		const [one, other] = [await member({ group: 'First openings' }), await member({ group: 'First openings' })];
		const paper = await document({ position: 'keyed', groups: ['first-openings'] });
		const told = await boss.api<{ waiting: string[] }>('PATCH', '/readership/subscription', { document: paper.slug, firstOpening: other.email });
		expect(told.waiting).toHaveLength(1);
		await drain(one.get(`/d/${paper.slug}/file`));
		await sendDueReports(Date.now());
		expect(about(paper.title)).toEqual([]);
		await drain(other.get(`/d/${paper.slug}/file`));
		await Promise.all([sendDueReports(Date.now()), sendDueReports(Date.now())]);
		await mailTo('olive@example.org', new RegExp(`^${paper.title}: opened by Member`));
		expect(about(paper.title)).toHaveLength(1);
		expect((await boss.send('PATCH', '/api/v1/readership/subscription', { document: paper.slug, firstOpening: 'nobody@example.org' })).status).toBe(422);
	});
});

interface Message {
	headers: IncomingHttpHeaders;
	body: string;
}

describe('webhooks', () => {
	let close = () => {};
	afterEach(async () => {
		close();
		await sql()`update webhook set withdrawn_at = now()`;
	});
	/** A program that is told what happens, and answers each message with the statuses given, one for each try, the last again and again. */
	async function program(...statuses: number[]): Promise<Message[]> {
		const got: Message[] = [];
		const server = createServer((request, response) => {
			let body = '';
			request.on('data', (chunk: Buffer) => (body += chunk.toString()));
			request.on('end', () => {
				got.push({ headers: request.headers, body });
				const tries = got.filter((m) => m.headers['webhook-id'] === request.headers['webhook-id']).length;
				response.writeHead(statuses[Math.min(tries, statuses.length) - 1]!).end();
			});
		}).listen(given.webhook, '127.0.0.1');
		close = () => void server.close();
		await new Promise((up) => server.once('listening', up));
		return got;
	}
	const url = `http://127.0.0.1:${given.webhook}/told`;

	it('tell what they are to tell, signed (Standard Webhooks: HMAC-SHA256 over id, time and body)', async () => {
		const boss = await staff();
		const got = await program(204);
		const paper = await document({ position: 'open' });
		await boss.api('PATCH', `/documents/${paper.slug}`, { receipt: 'once' });
		const { id, secret } = await boss.api<{ id: string; secret: string }>('POST', '/webhooks', { url, events: ['opened', 'condition-changed', 'receipt'] });
		expect(secret).toMatch(/^whsec_[A-Za-z0-9+/]{43}=$/);
		await drain(visitor(crypto.randomUUID()).get(`/d/${paper.slug}/file`));
		await drain(visitor(crypto.randomUUID()).get(`/d/${paper.slug}/file?save`));
		await drain(boss.get(`/d/${paper.slug}/file`));
		const reader = await member({ group: 'Told of receipts' });
		const receipt = new FormData();
		receipt.append('edition', '1');
		expect((await reader.send('POST', `/d/${paper.slug}?/receipt`, receipt, { origin, accept: 'text/html' })).status).toBe(303);
		const made = (await (await send(await pdf('Told of', 1), 'Told of.pdf')).json()) as { slug: string };
		await until(() => Promise.resolve(got.some((m) => m.body.includes(made.slug))));
		await until(() => Promise.resolve(got.filter((m) => m.body.includes(paper.slug)).length >= 2));
		for (const { headers, body } of got) {
			const signed = `${String(headers['webhook-id'])}.${String(headers['webhook-timestamp'])}.${body}`;
			const signature = createHmac('sha256', Buffer.from(secret.slice(6), 'base64'))
				.update(signed)
				.digest('base64');
			expect(headers['webhook-signature']).toBe(`v1,${signature}`);
			expect(Math.abs(Date.now() / 1000 - Number(headers['webhook-timestamp']))).toBeLessThan(60);
		}
		const events = got.map(
			(m) => JSON.parse(m.body) as { type: string; data: { id: string; document: string; edition: number; who: object; condition?: string } }
		);
		const told = events.filter((e) => e.data.document === paper.slug);
		expect(told.map((e) => e.type).sort()).toEqual(['opened', 'receipt']);
		const ofReceipt = told.find((e) => e.type === 'receipt')!.data;
		expect(ofReceipt).toMatchObject({ edition: 1, who: { kind: 'member', email: reader.email } });
		expect((await sql()`select from ledger where id = ${ofReceipt.id} and kind = 'receipt'`).length).toBe(1);
		expect(events.find((e) => e.type === 'condition-changed')?.data.condition).toBe('sound');
		// nothing is told twice, though it is gathered again
		await new Promise((done) => setTimeout(done, 7_000));
		expect(new Set(got.map((m) => m.headers['webhook-id'])).size).toBe(got.length);
		await boss.api('DELETE', `/webhooks/${id}`);
	});
	it('are seen one by one with what became of each, and sent again under the same id', async () => {
		const boss = await staff();
		const got = await program(204);
		const { id } = await boss.api<{ id: string }>('POST', '/webhooks', { url, events: ['set-aside', 'restored'] });
		const paper = await document();
		await boss.api('DELETE', `/documents/${paper.slug}`);
		await boss.api('POST', `/documents/${paper.slug}/restore`);
		await until(() => Promise.resolve(got.length === 2));
		interface Message {
			id: string;
			type: string;
			state: string;
			tries: number;
			answer: string;
			body: { data: { document: string } };
		}
		const list = (query = '') => boss.api<{ items: Message[]; next: string | null }>('GET', `/webhooks/${id}/messages${query}`);
		await until(async () => (await list('?state=arrived')).items.length === 2);
		const { items } = await list();
		expect(items.map((m) => [m.type, m.state, m.tries, m.answer, m.body.data.document])).toEqual([
			['restored', 'arrived', 1, 'it answered 204', paper.slug],
			['set-aside', 'arrived', 1, 'it answered 204', paper.slug]
		]);
		// in parts: what comes meanwhile shifts nothing
		const first = await list('?limit=1');
		await boss.api('POST', `/webhooks/${id}/test`);
		const second = await list(`?limit=1&cursor=${first.next!}`);
		expect([first.items[0]!.id, second.items[0]!.id, second.next]).toEqual([items[0]!.id, items[1]!.id, null]);
		expect((await boss.get(`/api/v1/webhooks/${id}/messages?cursor=nonsense`)).status).toBe(422);

		const sentAs = (message: Message) => got.filter((m) => m.headers['webhook-id'] === message.id);
		expect(await boss.api('POST', `/webhooks/${id}/messages/${items[1]!.id}`)).toEqual({ arrived: true, answer: 'it answered 204' });
		expect(sentAs(items[1]!).map(({ body }) => body)).toEqual([sentAs(items[1]!)[0]!.body, sentAs(items[1]!)[0]!.body]);
		expect((await list()).items.find((m) => m.id === items[1]!.id)).toMatchObject({ state: 'arrived', tries: 2 });
		expect((await (await member()).send('POST', `/api/v1/webhooks/${id}/messages/${items[1]!.id}`)).status).toBe(403);
		await boss.api('DELETE', `/webhooks/${id}`);
		expect((await boss.send('POST', `/api/v1/webhooks/${id}/messages/${items[1]!.id}`)).status).toBe(404);
		expect((await list('?state=waiting')).items).toEqual([]);
	});
	it('tell what staff do, each with its id in the audit trail and who did it', async () => {
		const boss = await staff();
		const got = await program(204);
		const { id } = await boss.api<{ id: string }>('POST', '/webhooks', { url, events: [...webhookEvents] });
		const paper = await document();
		const path = `/told-${paper.slug}`;
		await boss.api('PATCH', `/documents/${paper.slug}`, { door: { position: 'keyed', groups: [] } });
		const key = await boss.api<{ id: string }>('POST', `/documents/${paper.slug}/keys`, { label: 'Told key' });
		await boss.api('DELETE', `/keys/${key.id}`);
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(await pdf(`Second of ${paper.slug}`))]), 'second.pdf');
		expect((await boss.send('POST', `/api/v1/documents/${paper.slug}/editions`, form)).status).toBe(201);
		await boss.api('PATCH', `/documents/${paper.slug}`, { edition: 1 });
		await boss.api('POST', '/pages', { path, title: 'Told page' });
		await boss.api('POST', `/pages/${encodeURIComponent(path)}/publish`, {});
		await boss.api('DELETE', `/pages/${encodeURIComponent(path)}`);
		await boss.api('DELETE', `/documents/${paper.slug}`);
		await boss.api('POST', `/documents/${paper.slug}/restore`);
		const email = `told-${paper.slug}@example.org`;
		const person = await boss.api<{ id: string }>('POST', '/members', { name: 'Tolda Member', email });
		await boss.api('PATCH', `/members/${person.id}`, { name: 'Tolda Changed' });
		await boss.api('DELETE', `/members/${person.id}`);
		interface Event {
			type: string;
			data: {
				id?: string;
				who?: object;
				document?: string;
				page?: string;
				key?: { id: string; label: string };
				member?: { email: string };
				after?: { position?: string };
			};
		}
		const events = () => got.map((m) => JSON.parse(m.body) as Event);
		await until(() => Promise.resolve(events().some((e) => e.type === 'member-removed')));
		const about = events().filter(({ data }) => [data.document, data.page, data.member?.email].some((value) => value?.includes(paper.slug)));
		expect([...new Set(about.map((e) => e.type))].sort()).toEqual(
			[
				...['brought-in', 'condition-changed', 'door-changed', 'edition-in-force', 'key-issued', 'key-withdrawn', 'member-added', 'member-changed'],
				...['member-removed', 'page-published', 'page-taken-down', 'restored', 'set-aside']
			].sort()
		);
		// once by the check, once by hand
		expect(about.filter((e) => e.type === 'edition-in-force').length).toBe(2);
		for (const { type, data } of about.filter((e) => !['condition-changed'].includes(e.type) && e.data.id)) {
			expect([type, data.who]).toEqual([type, { kind: 'staff', name: 'Olive Owner', email: 'olive@example.org' }]);
			expect((await sql()`select from audit where id = ${data.id!}`).length).toBe(1);
		}
		expect(about.find((e) => e.type === 'door-changed')?.data.after?.position).toBe('keyed');
		expect(about.find((e) => e.type === 'key-issued')?.data.key).toEqual({ id: key.id, label: 'Told key' });
		expect(about.find((e) => e.type === 'key-withdrawn')?.data.key).toEqual({ id: key.id, label: 'Told key' });
		expect(got.some((m) => m.body.includes('password'))).toBe(false);
		await boss.api('DELETE', `/webhooks/${id}`);
	});
	it('sign with two secrets for a day after there is another; a test is sent at once and says what became of it', async () => {
		const boss = await staff();
		const got = await program(204, 204);
		const first = await boss.api<{ id: string; secret: string }>('POST', '/webhooks', { url, events: ['opened'] });
		const second = await boss.api<{ secret: string; both: string }>('POST', `/webhooks/${first.id}/secret`);
		expect(Date.parse(second.both) - Date.now()).toBeGreaterThan(23 * 3_600_000);
		expect(await boss.api('POST', `/webhooks/${first.id}/test`)).toEqual({ arrived: true, answer: 'it answered 204' });
		const signatures = ({ headers, body }: Message, ...secrets: string[]) =>
			secrets
				.map(
					(secret) =>
						`v1,${createHmac('sha256', Buffer.from(secret.slice(6), 'base64'))
							.update(`${String(headers['webhook-id'])}.${String(headers['webhook-timestamp'])}.${body}`)
							.digest('base64')}`
				)
				.join(' ');
		expect(got.length).toBe(1);
		expect((JSON.parse(got[0]!.body) as { type: string }).type).toBe('test');
		expect(got[0]!.headers['webhook-signature']).toBe(signatures(got[0]!, second.secret, first.secret));
		await sql()`update webhook set earlier_until = now() - interval '1 second' where id = ${first.id}`;
		await boss.api('POST', `/webhooks/${first.id}/test`);
		expect(got[1]!.headers['webhook-signature']).toBe(signatures(got[1]!, second.secret));
		close();
		const lost = await boss.api<{ arrived: boolean; answer: string }>('POST', `/webhooks/${first.id}/test`);
		expect([lost.arrived, lost.answer.length > 10]).toEqual([false, true]);
		// a test that did not arrive is no trouble to be mended, and is not sent again
		const { items } = await boss.api<{ items: { id: string; failed: number; waiting: number }[] }>('GET', '/webhooks');
		expect(items.find((w) => w.id === first.id)).toMatchObject({ failed: 0, waiting: 0 });
		await boss.api('DELETE', `/webhooks/${first.id}`);
		expect((await boss.send('POST', `/api/v1/webhooks/${first.id}/test`)).status).toBe(404);
	});
	it('are tried again, and the trouble is shown; 410 ends them', async () => {
		const boss = await staff();
		const got = await program(500, 410);
		const paper = await document({ position: 'open' });
		const { id } = await boss.api<{ id: string }>('POST', '/webhooks', { url, events: ['opened'] });
		await drain(visitor(crypto.randomUUID()).get(`/d/${paper.slug}/file`));
		const messages = () => got.filter((m) => m.body.includes(`"${paper.slug}"`));
		await until(() => Promise.resolve(messages().length >= 2));
		expect(messages()[0]!.headers['webhook-id']).toBe(messages()[1]!.headers['webhook-id']);
		const state = async () =>
			(await boss.api<{ items: { id: string; ended: string | null; failed: number }[] }>('GET', '/webhooks')).items.find((w) => w.id === id);
		await until(async () => (await state())?.ended ?? false);
		expect((await state())!.failed).toBeGreaterThanOrEqual(1);
		expect(await (await boss.get('/desk/upkeep', { accept: 'text/html' })).text()).toContain('What happens does not reach');
	});
	it('never reach into a private network, and are for owners', async () => {
		const boss = await staff();
		const someone = await member({ group: 'No owners' });
		expect((await someone.send('POST', '/api/v1/webhooks', { url, events: ['opened'] })).status).toBe(403);
		const paper = await document({ position: 'open' });
		for (const inside of [
			'http://127.0.0.1:1/inside',
			'http://[::1]/inside',
			'https://10.0.0.7/inside',
			'http://localhost:9/inside',
			'http://169.254.169.254/'
		]) {
			const refused = await boss.send('POST', '/api/v1/webhooks', { url: inside, events: ['opened'] });
			expect([inside, refused.status, ((await refused.json()) as { code: string }).code]).toEqual([inside, 422, 'web-private']);
		}
		// a name that led elsewhere when it was set leads inside now
		const { id } = await boss.api<{ id: string }>('POST', '/webhooks', { url: 'https://elsewhere.example.org/told', events: ['opened'] });
		await sql()`update webhook set url = 'http://127.0.0.1:1/inside' where id = ${id}`;
		await drain(visitor(crypto.randomUUID()).get(`/d/${paper.slug}/file`));
		await until(
			async () => (await boss.api<{ items: { id: string; trouble: string | null }[] }>('GET', '/webhooks')).items.find((w) => w.id === id)?.trouble ?? false,
			15_000
		);
		const { items } = await boss.api<{ items: { id: string; trouble: string | null }[] }>('GET', '/webhooks');
		expect(items.find((w) => w.id === id)?.trouble).toContain('private network');
		expect((await boss.send('POST', '/api/v1/webhooks', { url: 'ftp://example.org', events: ['opened'] })).status).toBe(422);
	});
});
