// Passkeys: whom they let in, and all that they do not.
import { randomBytes } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { sql } from '#server/db/client';
import { newId } from '#server/id';
import { createOwner, resetOwner } from '#server/people/owner';
import { Authenticator, SiteBrowser } from './authenticator';
import { forgetTries, member, origin, staff, type Client } from './help';

// passkeys hold for names, and loopback's is this one
const own = origin.replace('127.0.0.1', 'localhost');
const browserOf = (one?: Client) => new SiteBrowser(own, one?.headers.cookie);

async function withPasskey(): Promise<{ one: Client & { email: string }; by: Authenticator }> {
	const [one, by] = [await member(), new Authenticator()];
	expect((await browserOf(one).add(by)).type).toBe('success');
	return { one, by };
}

describe('passkeys', () => {
	beforeEach(forgetTries);

	it('sign in whoever holds them, with what is theirs and nothing else', async () => {
		const { one, by } = await withPasskey();
		const browser = browserOf();
		expect(await browser.whoIsIt()).toContain('sign-in');
		expect(await browser.comeIn(by)).toBe('/me');
		const record = await browser.whoIsIt();
		expect(record).toContain(one.email);
		expect(record).toContain('My phone');
		expect(record).not.toContain('public_key');
		// and where they wanted to go
		const back = await browserOf().send('/sign-in?/passkey&to=%2Flibrary', { response: 'no JSON' });
		expect(back.type).toBe('failure');
		const other = browserOf();
		const signed = JSON.stringify(by.use({ at: own, challenge: await other.challenge('/sign-in') }));
		expect((await other.send('/sign-in?/passkey&to=%2Flibrary', { response: signed })).location).toBe('/library');
	});

	it('are taken once, at this site, of somebody who showed that it is they', async () => {
		const { by } = await withPasskey();
		const refused = 'The passkey was not taken';
		expect(await browserOf().comeIn(by, { at: 'http://elsewhere.example' })).toContain(refused);
		expect(await browserOf().comeIn(by, { forSite: 'elsewhere.example' })).toContain(refused);
		expect(await browserOf().comeIn(by, { challenge: randomBytes(32).toString('base64url') })).toContain(refused);
		expect(await browserOf().comeIn(by, { verified: false })).toContain(refused);
		expect(await browserOf().comeIn(new Authenticator())).toContain(refused);
		// the same answer a second time
		const browser = browserOf();
		const signed = { response: JSON.stringify(by.use({ at: own, challenge: await browser.challenge('/sign-in') })) };
		expect((await browser.send('/sign-in?/passkey', signed)).location).toBe('/me');
		expect((await browser.send('/sign-in?/passkey', signed)).type).toBe('failure');
		// what was to be signed elsewhere
		const [mine, theirs] = [browserOf(), browserOf()];
		await theirs.challenge('/sign-in');
		expect((await theirs.send('/sign-in?/passkey', { response: JSON.stringify(by.use({ at: own, challenge: await mine.challenge('/sign-in') })) })).type).toBe(
			'failure'
		);
		expect(await browserOf().comeIn(by)).toBe('/me');
	});

	it('are not made without the holder shown, by a copy, or where one signed in long ago', async () => {
		const one = await member();
		const browser = browserOf(one);
		expect((await browser.add(new Authenticator(), { verified: false })).type).toBe('failure');
		expect((await browser.send('/me/account?/addPasskey', { response: '[]' })).type).toBe('failure');
		const by = new Authenticator();
		expect((await browser.add(by)).type).toBe('success');
		expect((await browser.add(by)).type).toBe('failure');
		expect((await browserOf(await member()).add(by)).type).toBe('failure');
		await sql()`update session set created_at = now() - interval '3 days' where person_id = ${one.id}`;
		expect((await browser.send('/me/account?/passkeyAsk')).data).toContain('sign out and in again');
		// nor by nobody
		expect((await browserOf().send('/me/account?/passkeyAsk')).location).toContain('/sign-in');
	});

	it('do not let in whom the site does not let in', async () => {
		const { one, by } = await withPasskey();
		const boss = await staff();
		await boss.api('PATCH', `/members/${one.id}`, { suspended: true });
		expect(await browserOf().comeIn(by)).toContain('suspended');
		await boss.api('PATCH', `/members/${one.id}`, { suspended: false });
		expect(await browserOf().comeIn(by)).toBe('/me');
	});

	it('are removed by whose they are, and by nobody else', async () => {
		const { one, by } = await withPasskey();
		const [{ id }] = await sql()<[{ id: string }]>`select id from passkey where person_id = ${one.id}`;
		expect((await browserOf(await member()).send('/me/account?/removePasskey', { id })).type).toBe('failure');
		expect(await browserOf().comeIn(by)).toBe('/me');
		expect((await browserOf(one).send('/me/account?/removePasskey', { id })).type).toBe('success');
		expect(await browserOf().comeIn(by)).toContain('was not taken');
	});

	it('of an owner go when somebody takes the account back', async () => {
		const email = `owner-${process.pid}@example.org`;
		await createOwner({ email, name: 'Another owner', password: 'a-password-for-now' });
		await sql()`insert into passkey (id, person_id, credential_id, public_key, counter, device_type, backed_up)
			select ${newId()}, id, ${email}, '', 0, 'singleDevice', false from person where email = ${email}`;
		await resetOwner(email, 'another-password', { factor: false });
		expect(await sql()`select 1 from passkey where credential_id = ${email}`).toHaveLength(0);
	});

	it('go with the account', async () => {
		const { one, by } = await withPasskey();
		await (await staff()).api('DELETE', `/members/${one.id}`);
		expect(await sql()`select 1 from passkey where person_id = ${one.id}`).toHaveLength(0);
		expect(await browserOf().comeIn(by)).toContain('was not taken');
	});
});
