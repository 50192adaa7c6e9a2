// People in the desk and at the door: a table of members, a knock answered, a mailed link, read-only words, a door tried with the real page.
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { axe, expect, linkMailed, test } from './help';

test('members come from a table once its wrong line is put right, and one of them is changed with an undo', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/people');
	await page.getByRole('link', { name: 'From a table' }).click();
	const path = join(tmpdir(), `members-${process.pid}.csv`);
	const choose = async (last: string) => {
		writeFileSync(path, `Name,E-mail,Group,Until\nQuentin Reed,quentin.reed@example.org,Friends,31/12/2030\nRosa Reed,${last},,\n`);
		await page.locator('input[accept*=csv]').setInputFiles(path);
	};
	await choose('rosa at home');
	await expect(page.getByText('“rosa at home” is not a mail address.')).toBeVisible();
	await expect(page.getByRole('button', { name: 'Bring in 1 line' })).toBeDisabled();
	await choose('rosa.reed@example.org');
	await page.getByRole('button', { name: 'Bring in 2 lines' }).click();
	await expect(page.getByText('2 members added, 0 changed.')).toBeVisible();

	await page.getByLabel('Find a person').fill('reed@example.org');
	await page.getByLabel('Find a person').press('Enter');
	await page.getByRole('link', { name: 'Quentin Reed' }).click();
	await expect(page.getByLabel('Until day', { exact: true })).toHaveValue('31 Dec 2030');
	await page.getByLabel('Until day', { exact: true }).fill('2031-12-31');
	await page.getByRole('button', { name: 'Save', exact: true }).click();
	await expect(page.getByText('Quentin Reed is changed.')).toBeVisible();
	await page.getByRole('button', { name: 'Undo' }).click();
	await expect(page.getByLabel('Until day', { exact: true })).toHaveValue('31 Dec 2030');
	expect(await axe(page)).toEqual([]);
});

test('several people are put into a group at once, taken back, and suspended; who is chosen stays so on the next page', async ({ people }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await page.goto('/desk/people?group=moorers');
	const [one, two] = [page.getByRole('row').nth(1), page.getByRole('row').nth(2)];
	const names = await Promise.all([one, two].map((row) => row.getByRole('link').innerText()));
	for (const row of [one, two]) await row.getByRole('checkbox').check();
	const many = page.getByRole('region', { name: 'People chosen' });
	await expect(many).toContainText('2 people chosen');
	await many.getByRole('combobox').selectOption({ label: 'Trustees' });
	await many.getByRole('textbox', { name: 'Until day of those chosen' }).fill('2032-12-31');
	await many.getByRole('button', { name: 'Put into the group' }).click();
	await expect(page.getByText('2 people are put into Trustees.')).toBeVisible();
	for (const row of [one, two]) await expect(row).toContainText(/Trustees.*until 31\s+December\s+2032/);
	expect(await axe(page)).toEqual([]);
	await page.getByRole('button', { name: 'Undo' }).click();
	for (const row of [one, two]) await expect(row).not.toContainText('2032');

	await page.getByRole('link', { name: 'Everyone' }).click();
	await expect(many).toContainText('2 people chosen');
	await many.getByRole('button', { name: 'Suspend' }).click();
	await expect(page.getByText('2 people are suspended, and signed out.')).toBeVisible();
	await page.getByRole('link', { name: /^Suspended/ }).click();
	for (const name of names) await expect(page.getByRole('row').filter({ hasText: name })).toBeVisible();
	await many.getByRole('button', { name: 'Let in again' }).click();
	await expect(page.getByText('2 people are let in again.')).toBeVisible();
	// the line is cut: it is said, and whoever was chosen still is
	await page.context().setOffline(true);
	await many.getByRole('button', { name: 'Suspend' }).click();
	await expect(many.getByRole('alert')).toBeVisible();
	await page.context().setOffline(false);
	await expect(many).toContainText('2 people chosen');
	await many.getByRole('button', { name: 'Choose none' }).click();
	await expect(many).toBeHidden();
});

test('a visitor knocks, is let in by a key, and reads with it; another signs in by a mailed link', async ({ people }) => {
	const visitor = await people.as('visitor');
	await visitor.goto('/d/lock-warden-handbook');
	await visitor.getByRole('link', { name: /^Knock/ }).click();
	await visitor.getByLabel('Why you would like to come in').fill('I mind the lock at Ternwell for a week.');
	await visitor.getByLabel('Your e-mail address').fill('minder@example.org');
	await visitor.getByRole('button', { name: 'Knock' }).click();
	await expect(visitor.getByText('Your knock is passed on')).toBeVisible();

	const page = await people.as('staff');
	await page.goto('/desk/upkeep');
	await page.getByRole('link', { name: /knocks? waits?/ }).click();
	const knock = page.getByRole('listitem').filter({ hasText: 'minder@example.org' });
	await knock.getByRole('button', { name: 'Send a key' }).click();
	await knock.getByRole('button', { name: 'Send a key' }).click();
	await expect(page.getByText('minder@example.org is let in and told so by mail.')).toBeVisible();
	await visitor.goto(await linkMailed('minder@example.org', /\/k\//));
	await expect(visitor.getByRole('heading', { name: 'Lock warden handbook' })).toBeVisible();
	// the page it is placed on knows the key too
	await visitor.goto('/volunteering');
	await expect(visitor.getByRole('link', { name: /Lock warden handbook/ })).not.toContainText('sign in');

	const friend = await people.as('visitor');
	await friend.goto('/sign-in');
	await friend.getByRole('button', { name: 'By a mailed link' }).click();
	await friend.getByLabel('E-mail address').fill('wren.lockyer@example.org');
	await friend.getByRole('button', { name: 'Mail me a link' }).click();
	await expect(friend.getByText('Look into your mail')).toBeVisible();
	await friend.goto(await linkMailed('wren.lockyer@example.org', /signs you in/));
	await friend.getByRole('button', { name: 'Sign in', exact: true }).click();
	await expect(friend.getByRole('heading', { name: 'Wren Lockyer' })).toBeVisible();
});

test('read only, a page has its words over the picture; they can be selected, and no request gets the file', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents/rules-for-fishing');
	await page.locator('aside.sheet').getByText('Save', { exact: true }).first().click();
	await expect(page.getByText('With saving off the file never leaves')).toBeVisible();
	const reader = await people.as('member');
	const asked: string[] = [];
	reader.on('request', (request) => asked.push(new URL(request.url()).pathname));
	await reader.goto('/d/rules-for-fishing/read');
	await expect(reader.locator('.page[data-page-number="1"] .textLayer span').first()).toBeAttached();
	const words = await reader.locator('.page[data-page-number="1"] .textLayer').innerText();
	expect(words).toMatch(/fishing/i);
	const [line, picture] = [
		await reader.locator('.page[data-page-number="1"] .textLayer span').first().boundingBox(),
		await reader.locator('.page[data-page-number="1"]').boundingBox()
	];
	expect(line!.x).toBeGreaterThanOrEqual(picture!.x);
	expect(line!.x + line!.width).toBeLessThanOrEqual(picture!.x + picture!.width + 1);
	expect(asked.some((path) => path.endsWith('/file'))).toBe(false);
	await page.locator('aside.sheet').getByText('Save', { exact: true }).first().click();
	await expect(page.getByText('With saving off the file never leaves')).toBeHidden();
});

test('a door is tried with the real page: links in it are tried for the same person', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/try?path=/volunteering&as=visitor');
	const frame = page.frameLocator('iframe');
	await expect(frame.getByRole('heading', { name: 'Give a day to the canal' })).toBeVisible();
	await frame.getByRole('link', { name: /Lock warden handbook/ }).click();
	await expect(page).toHaveURL(/path=%2Fd%2Flock-warden-handbook/);
	await expect(page.getByText('Read: no.')).toBeVisible();
	await expect(frame.getByRole('heading', { name: 'For members' })).toBeVisible();
	await page.getByLabel(/^As/).selectOption({ label: 'a member of Lock wardens' });
	await expect(page.getByText('Read: yes.')).toBeVisible();
	await expect(frame.getByRole('heading', { name: 'Lock warden handbook' })).toBeVisible();
});
