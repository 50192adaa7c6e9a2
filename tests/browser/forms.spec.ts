// Every form that a reader or member can send, pressed in a real browser, with JavaScript and without: the browser's own headers decide whether it
// is taken. Which forms there are is read from the route tree, so that a new one is not forgotten.
import type { Page } from '@playwright/test';
import { table } from '../../src/lib/server/guard/table';
import { routes } from '../server/routes';
import { expect, linkMailed, newsEnd, test } from './help';

const password = 'kingfisher-by-the-lock';
const tried = new Set<string>();

for (const js of [true, false])
	test(`forms are taken ${js ? 'with' : 'without'} JavaScript`, async ({ people }) => {
		const staff = await people.as('staff');
		const mark = `${js ? 'with' : 'without'}-${process.pid}`;
		const email = `forms-${mark}@example.org`;
		const call = async (method: 'post' | 'patch', path: string, data: object) => {
			const response = await staff.request[method](`/api/v1${path}`, { data });
			expect(response.ok(), `${path}: ${await response.text()}`).toBe(true);
			return (await response.json()) as { id: string; url: string };
		};
		const sent = (page: Page, route: string, action = 'default') => {
			tried.add(`${route} ${action}`);
			return page;
		};
		const member = await call('post', '/members', { name: `Forms ${mark}`, email });
		const page = await people.as('visitor', { javaScriptEnabled: js });
		const button = (name: string | RegExp) => page.getByRole('button', { name });

		// an invitation: its address is a secret
		await staff.request.post(`/api/v1/members/${member.id}/invite`);
		await page.goto(await linkMailed(email, /invited/));
		await page.getByLabel(/password/i).fill(password);
		await button('Begin').click();
		await expect(sent(page, '/invite/[token]').getByRole('heading', { name: `Forms ${mark}` })).toBeVisible();
		await button('Sign out').click();
		await expect(page.getByRole('link', { name: 'Sign in' }).first()).toBeVisible();
		sent(page, '/sign-in', 'out');

		// by password
		await page.goto('/sign-in');
		await page.getByLabel('E-mail address').fill(email);
		await page.getByLabel('Password', { exact: true }).fill('not-the-password');
		await button('Sign in').click();
		await expect(page.getByRole('alert')).toBeVisible();
		await page.getByLabel('Password', { exact: true }).fill(password);
		await button('Sign in').click();
		await expect(sent(page, '/sign-in', 'in').getByRole('heading', { name: `Forms ${mark}` })).toBeVisible();

		// one's own page: a new password, the other places ended
		const elsewhere = await people.as({ email, password });
		await page.goto('/me/account');
		await page.getByText('Change the password').click();
		await page.getByLabel(/so far/).fill(password);
		await page.getByLabel(/new password/i).fill(`${password}-two`);
		await button('Change it').click();
		await expect(sent(page, '/me/account', 'password').getByRole('status')).toBeVisible();
		await elsewhere.goto('/me');
		await expect(elsewhere).toHaveURL(/sign-in/);
		await elsewhere.getByLabel('E-mail address').fill(email);
		await elsewhere.getByLabel('Password', { exact: true }).fill(`${password}-two`);
		await elsewhere.getByRole('button', { name: 'Sign in' }).click();
		await expect(elsewhere.getByRole('heading', { name: `Forms ${mark}` })).toBeVisible();
		await elsewhere.goto('/d/towpath-map');
		await page.reload();
		await button(/^Sign out there/)
			.first()
			.click();
		await expect(sent(page, '/me/account', 'end').getByRole('status')).toBeVisible();
		// what is asked for where one is signed in no more comes along to the sign-in, and is offered again
		await elsewhere.getByRole('button', { name: 'Tell me' }).click();
		await elsewhere.getByLabel('E-mail address').fill(email);
		await elsewhere.getByLabel('Password', { exact: true }).fill(`${password}-two`);
		await elsewhere.getByRole('button', { name: 'Sign in' }).click();
		await expect(elsewhere.getByText('You asked for this before you signed in: new editions of “Towpath map”, at once')).toBeVisible();
		await elsewhere.getByRole('button', { name: 'Tell me', exact: true }).click();
		await expect(elsewhere.getByRole('status')).toContainText('You will be told');
		await expect(elsewhere.getByRole('listitem').filter({ hasText: 'new editions of “Towpath map”' })).toBeVisible();

		// news: of all, of a document, ended by one press; the feed
		await page.goto('/me');
		await button(/everything that I may read, once a week/).click();
		await expect(sent(page, '/me', 'tell').getByRole('status')).toContainText('You will be told');
		await page.goto('/d/towpath-map');
		await button('Tell me').click();
		await expect(page).toHaveURL(/\/d\/towpath-map#news$/);
		await expect(page.getByText('new editions of “Towpath map”, at once')).toBeVisible();
		await page.locator('form.told').first().getByRole('button', { name: 'End it' }).click();
		await expect(page.locator('form.told')).toHaveCount(1);
		sent(page, '/me', 'end');
		await page.goto('/me');
		await button('Make an address').click();
		await expect(sent(page, '/me', 'feed').getByLabel('Address of your feed')).toHaveValue(/\/me\/news\/[^/]+\/feed\.atom$/);
		await page.goto(newsEnd(member.id));
		await button('End it').click();
		await expect(sent(page, '/me/news/end/[token]').getByRole('status')).toContainText('No more news');
		await page.goto('/me');
		await expect(page.getByText('You are told of nothing by mail yet.')).toBeVisible();

		// that one has read a document which asks
		await call('patch', '/documents/towpath-map', { receipt: 'once' });
		await page.goto('/d/towpath-map');
		await button('I have read this').click();
		await expect(sent(page, '/d/[slug]', 'receipt').getByText(/^You said on .+ that you have read this\.$/)).toBeVisible();
		await call('patch', '/documents/towpath-map', { receipt: null });
		await page.goto('/me');

		// a mailed link
		await button('Sign out').click();
		await page.goto('/sign-in');
		if (js) await button(/link/i).click();
		await page.getByLabel('E-mail address').fill(email);
		await page.locator(js ? 'form button[type=submit]' : 'form button[formaction]').click();
		await expect(sent(page, '/sign-in', 'link').getByRole('status')).toContainText(email);
		await page.goto(await linkMailed(email, /signs you in/));
		await button('Sign in').click();
		await expect(page.getByRole('heading', { name: `Forms ${mark}` })).toBeVisible();
		await button('Sign out').click();

		// a forgotten password, and the new one
		await page.goto('/sign-in/forgotten');
		await page.getByLabel('E-mail address').fill(email);
		await button(/mail/i).click();
		await expect(sent(page, '/sign-in/forgotten').getByRole('status')).toContainText(email);
		await page.goto(await linkMailed(email, /A new password for/));
		await page.getByLabel(/password/i).fill(`${password}-three`);
		await page.getByRole('main').getByRole('button').click();
		await expect(sent(page, '/sign-in/new-password').getByRole('heading', { name: /changed/ })).toBeVisible();

		// a key that wants its password, and a knock
		const key = await call('post', '/documents/lock-warden-handbook/keys', { label: `Forms ${mark}`, password: 'sluice' });
		const guest = await people.as('visitor', { javaScriptEnabled: js });
		await guest.goto('/d/lock-warden-handbook/knock');
		await guest.getByLabel('Why you would like to come in').fill('I mind the lock.');
		await guest.getByLabel('Your e-mail address').fill(`knock-${mark}@example.org`);
		await guest.getByRole('button', { name: 'Knock' }).click();
		await expect(sent(guest, '/d/[slug]/knock').getByText('Your knock is passed on')).toBeVisible();
		await guest.goto(key.url);
		await guest.getByLabel('Password').fill('wrong');
		await guest.getByRole('main').getByRole('button').click();
		await expect(guest.getByRole('alert')).toBeVisible();
		await guest.getByLabel('Password').fill('sluice');
		await guest.getByRole('main').getByRole('button').click();
		await expect(sent(guest, '/k/[token]').getByRole('heading', { name: 'Lock warden handbook' })).toBeVisible();

		// everything erased, at last
		await page.goto('/sign-in');
		await page.getByLabel('E-mail address').fill(email);
		await page.getByLabel('Password', { exact: true }).fill(`${password}-three`);
		await button('Sign in').click();
		await expect(page.getByRole('heading', { name: `Forms ${mark}` })).toBeVisible();
		await page.goto('/me/account');
		await page.locator('summary', { hasText: /erased/ }).click();
		await page.locator('form[action="?/erase"] input[type=password]').fill(`${password}-three`);
		await page.locator('form[action="?/erase"] input[type=checkbox]').check();
		await page.locator('form[action="?/erase"] button').click();
		await expect(page.getByRole('link', { name: 'Sign in' }).first()).toBeVisible();
		sent(page, '/me/account', 'erase');
	});

test('there is no form of readers that these do not send', () => {
	// staff's own: the second factor (tests/server/people), and the first visit of all (tests/server/restart); passkeys, which need an authenticator (session.spec)
	const others = [
		...['/begin default', '/sign-in/code default', '/me/account prepare', '/me/account confirm', '/me/account without'],
		...['/sign-in passkeyAsk', '/sign-in passkey', '/me/account passkeyAsk', '/me/account addPasskey', '/me/account removePasskey']
	];
	const all = routes()
		.filter(({ id }) => ['everyone', 'member'].includes(table[id]?.admits ?? ''))
		.flatMap(({ id, actions }) => actions.map((action) => `${id} ${action}`));
	expect([...tried, ...others].sort()).toEqual(all.sort());
});
