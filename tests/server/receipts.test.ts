// Receipts (model.md): a member's own "I have read this", of one edition, once; a new edition asks again where the document says so.
import { expect, it } from 'vitest';
import { document, ledgerOf, member, origin, secondEdition, staff, visitor, type Client } from './help';
import { mailTo } from './mails';
const { sql } = await import('#server/db/client');

function give(who: Client, slug: string, edition = 1): Promise<Response> {
	const body = new FormData();
	body.append('edition', String(edition));
	return who.send('POST', `/d/${slug}?/receipt`, body, { origin, accept: 'text/html' });
}
const asked = 'Please say that you have read this.';
const given = /You said on .+ that you have read this\./;
/** Whether a document stands on somebody's own page under what asks them for a receipt: other tests ask for some too. */
const isWaiting = async (who: Client, slug: string) =>
	(/<section aria-labelledby="receipts"[^>]*>.*?<\/section>/s.exec(await (await who.get('/me')).text())?.[0] ?? '').includes(`/d/${slug}"`);
const pageFor = async (who: Client, slug: string, part = '') => (await who.get(`/d/${slug}${part}`)).text();

interface Report {
	roll: { email: string; standing: string; opened: boolean; receipt: string | null }[];
	answer: { text: string }[];
}
const reportOn = async (slug: string) => (await staff()).api<Report>('GET', `/readership/documents/${slug}`);

it('is given by members whom the document admits and asks, once, with an entry in the ledger', async () => {
	const boss = await staff();
	const [reader, outsider] = [await member({ group: 'Receipt givers' }), await member({ group: 'Receipt outsiders' })];
	const { slug } = await document({ position: 'keyed', groups: ['receipt-givers'] });
	// it asks for none yet
	expect(await pageFor(reader, slug)).not.toContain(asked);
	expect((await give(reader, slug)).status).toBe(409);
	expect((await boss.api<{ receipt: string }>('PATCH', `/documents/${slug}`, { receipt: 'once' })).receipt).toBe('once');

	for (const part of ['', '/read', '/text']) {
		expect(await pageFor(reader, slug, part), part).toContain(asked);
		expect(await pageFor(boss, slug, part), part).not.toContain(asked);
	}
	expect([await isWaiting(reader, slug), await isWaiting(outsider, slug)]).toEqual([true, false]);
	const visitors = await give(visitor(), slug);
	expect([visitors.status, visitors.headers.get('location')]).toEqual([303, expect.stringMatching(/^\/sign-in\?/)]);
	expect((await give(outsider, slug)).status).toBe(403);
	expect((await give(boss, slug)).status).toBe(409);

	const answers = await Promise.all([give(reader, slug), give(reader, slug)]);
	for (const answer of answers) {
		expect(answer.status).toBe(303);
		expect(answer.headers.get('location')).toBe(`/d/${slug}#receipt`);
	}
	const entries = (await ledgerOf(slug)).filter((entry) => entry.kind === 'receipt');
	expect(entries).toMatchObject([{ who: { kind: 'member', email: reader.email }, staff: false }]);
	expect(await pageFor(reader, slug)).toMatch(given);
	expect(await pageFor(reader, slug)).not.toContain(asked);
	expect(await isWaiting(reader, slug)).toBe(false);
	expect(await (await visitor().get('/privacy')).text()).toContain('If you say that you have read a document which asks for it');
	const record = (await (await reader.get('/me/record.json')).json()) as { receipts: { edition: number }[] };
	expect(record.receipts).toMatchObject([{ edition: 1 }]);
});

it('is asked for again by a new edition where the document says so, and is never of another edition than the form names', async () => {
	const boss = await staff();
	const reader = await member({ group: 'Receipt renewers' });
	const [each, once] = [
		await document({ position: 'keyed', groups: ['receipt-renewers'] }),
		await document({ position: 'keyed', groups: ['receipt-renewers'] })
	];
	await boss.api('PATCH', `/documents/${each.slug}`, { receipt: 'each-edition' });
	await boss.api('PATCH', `/documents/${once.slug}`, { receipt: 'once' });
	for (const { slug } of [each, once]) {
		expect((await give(reader, slug)).status).toBe(303);
		await secondEdition(slug);
	}
	expect(await pageFor(reader, once.slug)).toMatch(given);
	expect(await pageFor(reader, each.slug)).toContain(asked);
	const late = await give(reader, each.slug, 1);
	expect(late.status).toBe(409);
	expect(await late.text()).toContain('There is another edition by now. Please read that one.');
	expect((await give(reader, each.slug, 2)).status).toBe(303);
	expect(await pageFor(reader, each.slug)).toMatch(given);
	const numbers = await sql()<{ number: number }[]>`
		select e.number from receipt r join edition e on e.id = r.edition_id where r.document_id = ${each.id} order by 1`;
	expect(numbers.map((row) => row.number)).toEqual([1, 2]);
});

it('is the fourth state of the roll call; who has given none is reminded, who has is not', async () => {
	const boss = await staff();
	const [gave, opened, missing] = [await member({ group: 'Receipt roll' }), await member({ group: 'Receipt roll' }), await member({ group: 'Receipt roll' })];
	const { slug, id } = await document({ position: 'keyed', groups: ['receipt-roll'] }, 1);
	for (const one of [gave, opened]) {
		await (await one.get(`/d/${slug}/leaf/1.webp`)).arrayBuffer();
		await one.send('POST', `/d/${slug}/read/told`, { kind: 'read', pages: [{ page: 1, seconds: 5 }] });
	}
	const standings = async () => new Map((await reportOn(slug)).roll.map((line) => [line.email, line.standing]));
	await boss.api('PATCH', `/documents/${slug}`, { receipt: 'each-edition' });
	expect((await give(gave, slug)).status).toBe(303);
	const now = await standings();
	expect([gave, opened, missing].map(({ email }) => now.get(email))).toEqual(['receipt', 'through', 'not-yet']);
	const report = await reportOn(slug);
	expect(report.answer.map((piece) => piece.text).join('')).toMatch(
		/^2 of the 3 who may open it have, and 2 read it through\. 1 has not opened it\. 1 of the 3 has given a receipt\./
	);
	expect(report.roll.find((line) => line.email === gave.email)?.receipt).toMatch(/^\d{4}-\d\d-\d\dT/);

	expect(await boss.api('POST', `/documents/${slug}/remind`, {})).toEqual({ mailed: 2, recently: 0, failed: 0 });
	expect((await mailTo(opened.email)).text).toContain('you have not yet said that you have read it');
	expect((await mailTo(missing.email)).text).toContain('and to say that you have: you have not opened it yet');

	// asked no more, everybody stands as before; asked again, what was given still stands
	await boss.api('PATCH', `/documents/${slug}`, { receipt: null });
	expect((await standings()).get(gave.email)).toBe('through');
	await boss.api('PATCH', `/documents/${slug}`, { receipt: 'once' });
	expect((await standings()).get(gave.email)).toBe('receipt');

	// whoever is erased leaves no receipt
	const members = await boss.api<{ items: { id: string; email: string }[] }>('GET', `/members?q=${encodeURIComponent(gave.email)}`);
	await boss.send('DELETE', `/api/v1/members/${members.items[0]!.id}`);
	expect(await sql()`select 1 from receipt where document_id = ${id}`).toHaveLength(0);
	const [entry, ...others] = (await ledgerOf(slug)).filter(({ kind }) => kind === 'receipt');
	expect(others).toEqual([]);
	expect([entry?.who.name, entry?.who.email].filter(Boolean)).toEqual([]);
});

it('is asked of many documents at once, and each is put back as it was', async () => {
	const boss = await staff();
	const [one, two] = [await document({ position: 'keyed' }), await document({ position: 'keyed' })];
	await boss.api('PATCH', `/documents/${two.slug}`, { receipt: 'each-edition' });
	const asks = async () => Promise.all([one, two].map(async ({ slug }) => (await boss.api<{ receipt: string | null }>('GET', `/documents/${slug}`)).receipt));
	const { undo } = await boss.api<{ undo: unknown[] }>('POST', '/bulk', { documents: [one.slug, two.slug], receipt: 'once' });
	expect(await asks()).toEqual(['once', 'once']);
	await boss.api('POST', '/bulk/undo', { undo });
	expect(await asks()).toEqual([null, 'each-edition']);
	expect((await boss.send('POST', '/api/v1/bulk', { documents: [one.slug], receipt: 'twice' })).status).toBe(422);
});
