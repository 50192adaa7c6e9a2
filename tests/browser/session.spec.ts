// A session that ends under somebody's hands, the second factor, and tokens: pressed as staff press them.
import type { Page } from '@playwright/test';
import { totp } from '../totp';
import { atHome, axeLightAndDark, expect, linkMailed, origin, signIn, test, type People } from './help';

const password = 'tern-above-the-weir';

/** Staff of one's own, so that what becomes of the session is nobody else's. */
async function another(people: People, name: string) {
	const boss = await people.as('staff');
	const email = `${name.toLowerCase()}-${process.pid}@example.org`;
	await boss.goto('/desk/people/staff');
	await boss.getByLabel('Name').fill(name);
	await boss.getByLabel('E-mail address').fill(email);
	await boss.getByRole('button', { name: 'Invite' }).click();
	await expect(boss.getByRole('cell', { name: email })).toBeVisible();
	const invited: Page = await people.as('visitor');
	await invited.goto(await linkMailed(email, /invited/));
	await invited.getByLabel(/^A password/).fill(password);
	await invited.getByRole('button', { name: 'Begin' }).click();
	await invited.waitForURL(/\/desk/);
	return { email, password };
}

test('when the session has gone one signs in where one is, and what was pressed is carried out; given up, nothing is changed', async ({ people }) => {
	const someone = await another(people, 'Wren');
	const page = await people.as(someone);
	await page.goto('/desk/documents/bridge-9-elevation');
	const sheet = page.locator('aside.sheet');
	await expect(sheet.getByTestId('door-sentence')).toBeVisible();
	const before = await sheet.getByTestId('door-sentence').innerText();
	await page.context().clearCookies();
	await sheet.getByText('Ajar', { exact: true }).click();
	const dialog = page.getByRole('dialog', { name: 'Sign in again' });
	await expect(dialog.getByLabel('Mail address')).toHaveValue(someone.email);
	await dialog.getByLabel('Password').fill('not this');
	await dialog.getByRole('button', { name: 'Sign in' }).click();
	await expect(dialog.getByRole('alert')).toBeVisible();
	await dialog.getByRole('button', { name: 'Give up the change' }).click();
	await expect(page.getByText('You are no longer signed in. Nothing was changed.')).toBeVisible();
	await expect(dialog).toBeHidden();

	const again = await people.as(someone);
	await again.goto('/desk/documents/bridge-9-elevation');
	await expect(again.getByTestId('door-sentence')).toHaveText(before);
	await again.context().clearCookies();
	await again.locator('aside.sheet').getByText('Ajar', { exact: true }).click();
	const asked = again.getByRole('dialog', { name: 'Sign in again' });
	await asked.getByLabel('Password').fill(someone.password);
	await asked.getByLabel('Password').press('Enter');
	await expect(asked).toBeHidden();
	await expect(again.getByText('Door of “Bridge 9, elevation” set.', { exact: true })).toBeVisible();
	await expect(again.getByTestId('door-sentence')).not.toHaveText(before);
	await again.getByRole('button', { name: 'Undo' }).click();
	await expect(again.getByText('Taken back: Door of “Bridge 9, elevation” set.')).toBeVisible();
	await expect(again.getByTestId('door-sentence')).toHaveText(before);
});

test('a code besides the password: turned on, asked for where the session has gone, and turned off', async ({ people }) => {
	const someone = await another(people, 'Dipper');
	const page = await people.as(someone);
	await page.goto('/me/account');
	await page.getByText('Ask for a code when I sign in').click();
	const form = page.locator('form[action="?/prepare"]');
	await form.getByLabel('Password').fill('not this');
	await form.getByRole('button', { name: 'Go on' }).click();
	await expect(page.getByRole('alert')).toBeVisible();
	await page.getByText('Ask for a code when I sign in').click();
	await form.getByLabel('Password').fill(someone.password);
	await form.getByRole('button', { name: 'Go on' }).click();
	const secret = await page.locator('.factor code').first().innerText();
	const [spare] = (await page.locator('.factor code').last().innerText()).trim().split(/\s+/);
	// enough of this half minute is left for what follows
	if (Date.now() % 30_000 > 25_000) await page.waitForTimeout(30_100 - (Date.now() % 30_000));
	await page.getByLabel('The six digits').fill(totp(secret));
	await page.getByRole('button', { name: 'Confirm' }).click();
	await expect(page.getByText('From now on you are asked for a code besides the password.')).toBeVisible();

	await page.context().clearCookies();
	await page.goto('/sign-in?to=/desk/documents/towpath-map');
	await page.getByLabel('Mail address').or(page.getByLabel('E-mail')).first().fill(someone.email);
	await page.getByLabel('Password').fill(someone.password);
	await page.getByRole('button', { name: 'Sign in', exact: true }).click();
	await page.waitForURL(/\/sign-in\/code/);
	await page.locator('#code').fill('000 000');
	await page.getByRole('button', { name: 'Go on' }).click();
	await expect(page.getByRole('alert')).toBeVisible();
	await page.locator('#code').fill(totp(secret, 1));
	await page.getByRole('button', { name: 'Go on' }).click();
	await expect(page.getByTestId('door-sentence')).toBeVisible();

	await atHome(page);
	await page.context().clearCookies();
	let sent = 0;
	page.on('request', (request) => {
		if (request.method() === 'PATCH') sent++;
	});
	await page.getByLabel('Description').fill('A map of the towpath, from lock to lock.');
	const asked = page.getByRole('dialog', { name: 'Sign in again' });
	await asked.getByLabel('Password').fill(someone.password);
	await asked.getByRole('button', { name: 'Sign in' }).click();
	await asked.getByLabel('Code of the moment').fill(spare!);
	await asked.getByRole('button', { name: 'Sign in' }).click();
	await expect(asked).toBeHidden();
	await expect
		.poll(async () => ((await (await page.request.get('/api/v1/documents/towpath-map')).json()) as { description: string }).description)
		.toBe('A map of the towpath, from lock to lock.');
	// turned away, and carried out: the field losing the focus to the dialog sends nothing besides
	expect(sent).toBe(2);

	await page.goto('/me/account');
	await page.getByText('You are asked for a code. Do without it').click();
	await page.locator('form[action="?/without"]').getByLabel('Password').fill(someone.password);
	await page.getByRole('button', { name: 'Do without the code' }).click();
	await expect(page.getByText('You sign in with the password alone now.')).toBeVisible();
});

test('a token is made for what it may do, shown once, and withdrawn', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/settings');
	await page.getByLabel('Which program it is for').fill('The lending desk');
	await page.getByRole('button', { name: 'Make a token' }).click();
	const token = await page
		.locator('code')
		.filter({ hasText: /^ianua_|^[\w-]{30,}$/ })
		.first()
		.innerText();
	const ask = () => fetch(`${origin()}/api/v1/documents`, { headers: { authorization: `Bearer ${token}` } }).then((r) => r.status);
	expect(await ask()).toBe(200);
	const line = page.getByRole('row').filter({ hasText: 'The lending desk' });
	await line.getByRole('button', { name: 'Withdraw' }).click();
	await expect(page.getByText('“The lending desk” is withdrawn, with the keys and webhooks that it made.')).toBeVisible();
	await expect(line).toContainText('withdrawn');
	expect(await ask()).toBe(401);
});

test('the reference of the API is drawn from the site’s own description and nothing else; what can be wrong is explained', async ({ people }) => {
	const page = await people.as('visitor');
	const elsewhere: string[] = [];
	page.on('request', (request) => {
		if (!request.url().startsWith(origin()) && !/^(data|blob):/.test(request.url())) elsewhere.push(request.url());
	});
	await page.goto('/api/docs');
	// a hundred operations are drawn at once
	await expect(page.getByRole('heading', { name: 'Ten calls' })).toBeVisible({ timeout: 90_000 });
	await page.getByRole('menuitem', { name: 'Documents', exact: true }).click();
	await page.getByRole('menuitem', { name: 'Changes a document and its door' }).click();
	await expect(page.getByRole('heading', { name: 'Changes a document and its door' })).toBeVisible();
	expect(elsewhere).toEqual([]);
	await page.getByRole('link', { name: 'all of them' }).click();
	await expect(page.getByRole('heading', { level: 1, name: 'What can be wrong' })).toBeVisible();
	await expect(page.locator('#precondition-failed')).toContainText('412');
	expect(await axeLightAndDark(page)).toEqual([]);
	// without script there is what it is made of
	const plain = await people.as('visitor', { javaScriptEnabled: false });
	await plain.goto('/api/docs');
	await expect(plain.getByRole('link', { name: 'openapi.json' })).toBeVisible();
});

test('a program that is told what happens is tried, gets another secret, and is withdrawn; private addresses are refused', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/settings');
	const address = page.getByLabel('Address that is told');
	await address.fill('http://10.0.0.1/told');
	await page.getByRole('button', { name: 'Tell it' }).click();
	await expect(page.getByText('“10.0.0.1” leads into a private network, which nothing here calls.')).toBeVisible();
	await expect(address).toHaveValue('http://10.0.0.1/told');
	// a server that is there, and knows nothing of messages
	const told = `http://127.0.0.1:${signIn().ports.source}/told`;
	await address.fill(told);
	await page.getByRole('group', { name: 'Doors and keys' }).getByLabel('key issued').check();
	await page.getByRole('button', { name: 'Tell it' }).click();
	const secret = page.locator('code').filter({ hasText: /^whsec_/ });
	const first = await secret.innerText();
	const line = page.getByRole('row').filter({ hasText: told });
	await expect(line).toContainText('opened, saved, key issued');
	await line.getByRole('button', { name: 'Send a test' }).click();
	await expect(line).toContainText('The test did not arrive: it answered 404');
	await line.getByRole('button', { name: 'New secret' }).click();
	await expect(secret).not.toHaveText(first);
	await line.getByRole('button', { name: 'Withdraw' }).click();
	await expect(line).toContainText('withdrawn');
	await expect(line.getByRole('button')).toHaveCount(0);
});

test('a table whose cells are empty says how many memberships become endless, before anything is changed', async ({ people }) => {
	const page = await people.as('staff');
	const email = `endless-${process.pid}@example.org`;
	const group = ((await (await page.request.get('/api/v1/groups')).json()) as { items: { slug: string; name: string }[] }).items[0]!;
	const member = { name: 'Endless Reed', email, memberships: [{ group: group.slug, until: '2031-12-31' }] };
	expect((await page.request.post('/api/v1/members', { data: member })).status()).toBe(201);
	await page.goto('/desk/people/import');
	const table = (columns: string, line: string) => ({ name: 'members.csv', mimeType: 'text/csv', buffer: Buffer.from(`${columns}\n${line}\n`) });
	await page.locator('input[accept*=csv]').setInputFiles(table('Name,E-mail,Group', `Endless Marsh,${email},${group.name}`));
	await expect(page.getByRole('button', { name: 'Bring in 1 line' })).toBeEnabled();
	await expect(page.getByText(/becomes? endless/)).toHaveCount(0);
	await page.locator('input[accept*=csv]').setInputFiles(table('Name,E-mail,Group,Until', `Endless Marsh,${email},${group.name},`));
	await expect(page.getByText('1 membership becomes endless')).toBeVisible();
});

test('a passkey: added, signs in where one wanted to go, not without its holder, and no more once it is removed', async ({ people }) => {
	const someone = await another(people, 'Grebe');
	const page = await people.as('visitor', {}, { connectionTrouble: true });
	// passkeys hold for names, and loopback's is this one
	const named = (path: string) => origin().replace('127.0.0.1', 'localhost') + path;
	const browser = await page.context().newCDPSession(page);
	await browser.send('WebAuthn.enable');
	const { authenticatorId } = await browser.send('WebAuthn.addVirtualAuthenticator', {
		options: {
			protocol: 'ctap2',
			transport: 'internal',
			hasResidentKey: true,
			hasUserVerification: true,
			isUserVerified: true,
			automaticPresenceSimulation: true
		}
	});
	await page.goto(named('/sign-in?to=/me/account'));
	await page.getByLabel('E-mail address').fill(someone.email);
	await page.getByLabel('Password').fill(someone.password);
	await page.getByRole('button', { name: 'Sign in', exact: true }).click();
	const add = page.getByRole('button', { name: 'Add a passkey' });
	await page.getByLabel('What you call it').fill('Grebe’s phone');
	await add.click();
	await expect(page.getByRole('status')).toContainText('From now on you can sign in with it');
	await expect(page.getByRole('listitem').filter({ hasText: 'Grebe’s phone' })).toBeVisible();
	expect(await axeLightAndDark(page)).toEqual([]);
	await add.click();
	await expect(page.getByRole('alert')).toContainText('has one here already');

	const press = async () => {
		await page.context().clearCookies();
		await page.goto(named('/sign-in?to=/desk/documents/towpath-map'));
		await page.getByRole('button', { name: 'Sign in with a passkey' }).click();
	};
	await press();
	await expect(page.getByTestId('door-sentence')).toBeVisible();
	await browser.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: false });
	await press();
	await expect(page.getByRole('alert')).toContainText('Broken off');
	await browser.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: true });
	// the line is cut, and comes back
	await page.context().setOffline(true);
	await page.getByRole('button', { name: 'Sign in with a passkey' }).click();
	await expect(page.getByRole('alert')).toContainText('was not taken');
	await page.context().setOffline(false);
	await page.getByRole('button', { name: 'Sign in with a passkey' }).click();
	await expect(page.getByTestId('door-sentence')).toBeVisible();

	await page.goto(named('/me/account'));
	await page.getByRole('button', { name: 'Remove: Grebe’s phone' }).click();
	await expect(page.getByRole('status')).toContainText('signs you in no longer');
	// the session goes before one is added
	await page.context().clearCookies();
	await add.click();
	await expect(page).toHaveURL(/\/sign-in\?to=/);
	await press();
	await expect(page.getByRole('alert')).toContainText('was not taken');
});
