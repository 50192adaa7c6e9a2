// Errors of the catalogue that nothing else comes by: each is raised once as whoever meets it would (scripts/errors.ts knows which were not).
import { describe, expect, it } from 'vitest';
import { IanuaError, type ErrorCode } from '#core/errors';
import { db, sql } from '#server/db/client';
import { beginIntake } from '#server/intake/tray';
import { makeFirstOwner } from '#server/people/directory';
import { setRole } from '#server/people/staff';
import { site } from '#server/site/site';
import { newId } from '#server/id';
import { given } from './given';
import { document, lockedPdf, origin, pdf, send, staff, type DocumentJson } from './help';

/** Status and code of an answer, as RFC 9457's problem details have them. */
const refusal = async (response: Response) => [response.status, ((await response.json()) as { code?: string }).code];
const codeOf = (work: Promise<unknown>): Promise<ErrorCode | null> =>
	work.then(
		() => null,
		(error: unknown) => (error instanceof IanuaError ? error.code : Promise.reject(error as Error))
	);
const edition = async (slug: string, bytes: Uint8Array) => {
	const form = new FormData();
	form.append('file', new Blob([new Uint8Array(bytes)]), 'next.pdf');
	return (await staff()).send('POST', `/api/v1/documents/${slug}/editions`, form);
};

describe('an edition', () => {
	it('that is locked is not taken, as nobody could give its password later', async () => {
		const { slug } = await document();
		expect(await refusal(await edition(slug, await lockedPdf(await pdf('Locked'), 'sesame')))).toEqual([422, 'file-locked']);
		expect((await (await staff()).api<{ editions: unknown[] }>('GET', `/documents/${slug}`)).editions).toHaveLength(1);
	});
	it('that cannot be shown is not put in force again', async () => {
		const boss = await staff();
		const { slug } = (await (await send(await lockedPdf(await pdf('Locked from the start'), 'sesame'), 'first.pdf')).json()) as DocumentJson;
		expect((await edition(slug, await pdf('In the clear'))).status).toBe(201);
		expect(await refusal(await boss.send('PATCH', `/api/v1/documents/${slug}`, { edition: 1 }))).toEqual([422, 'edition-not-shown']);
		const { editions } = await boss.api<{ editions: { number: number; inForce: boolean }[] }>('GET', `/documents/${slug}`);
		expect(editions.filter((e) => e.inForce).map((e) => e.number)).toEqual([2]);
	});
	it('whose check is not done is neither cleaned nor put in force', async () => {
		const boss = await staff();
		const { slug } = await document();
		await edition(slug, await pdf('Second'));
		await sql()`update edition set condition = 'checking' where document_id = (select id from document where slug = ${slug})`;
		expect(await refusal(await boss.send('POST', `/api/v1/documents/${slug}/clean`))).toEqual([409, 'still-checking']);
		expect(await refusal(await boss.send('PATCH', `/api/v1/documents/${slug}`, { edition: 1 }))).toEqual([409, 'still-checking']);
	});
});

it('an icon that there is not is named', async () => {
	const { slug } = await document();
	const response = await (await staff()).send('POST', `/api/v1/documents/${slug}/cover`, { icon: 'no-such-icon' });
	const { code, title } = (await response.json()) as { code: string; title: string };
	expect([response.status, code]).toEqual([422, 'icon-unknown']);
	expect(title).toContain('no-such-icon');
});

it('an address where nothing listens is told so, and nothing comes in', async () => {
	const boss = await staff();
	const count = async () => (await boss.api<{ counts: { all: number } }>('GET', '/documents?limit=1')).counts.all;
	const before = await count();
	expect(await refusal(await boss.send('POST', '/api/v1/from-web', { url: `http://127.0.0.1:${given.webhook}/paper.pdf` }))).toEqual([422, 'web-unreachable']);
	expect(await count()).toBe(before);
});

it('a site keeps its owner, and has one only', async () => {
	await staff();
	const owners = async () => (await sql()<{ id: string }[]>`select id from person where role = 'owner' and closed_at is null order by id`).map(({ id }) => id);
	const before = await owners();
	const [last = '', ...others] = before;
	for (const id of others) await setRole(id, 'editor', last);
	expect(await codeOf(setRole(last, 'editor', last))).toBe('last-owner');
	expect(await owners()).toEqual([last]);
	for (const id of others) await setRole(id, 'owner', last);
	expect(await codeOf(makeFirstOwner({ name: 'Another', email: 'another@example.org', password: 'windlass-lantern-42' }, await site()))).toBe('owner-exists');
	expect(await owners()).toEqual(before);
});

it('an upload is begun once', async () => {
	await staff();
	const [person] = await sql()<{ id: string }[]>`select id from person where role = 'owner' limit 1`;
	const upload = { id: newId(), personId: person!.id, fileName: 'once.pdf', bytes: 10 };
	await beginIntake(upload);
	expect(await codeOf(beginIntake(upload))).toBe('upload-begun');
	await db().execute(`delete from intake where id = '${upload.id}'`);
});

it('a body says how long it is, where no file is taken', async () => {
	const { headers } = await staff();
	const body = new ReadableStream({
		start(controller) {
			controller.enqueue(new TextEncoder().encode('{"name":"Unmeasured"}'));
			controller.close();
		}
	});
	const init = { method: 'POST', headers: { ...headers, 'content-type': 'application/json' }, body, duplex: 'half' };
	expect(await refusal(await fetch(`${origin}/api/v1/groups`, init as RequestInit))).toEqual([411, 'body-without-length']);
});
