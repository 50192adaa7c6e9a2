// The whole passage, as staff, a visitor and two members meet it: in, door, placed, read. The PDF is Chromium's, not ours.
import { readFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { basename } from 'node:path';
import { axeLightAndDark, chromiumPdf, drop, expect, signIn, test, textFile } from './help';

test.describe.configure({ mode: 'serial' });

const name = 'Sluice notes';
const password = 'another-long-password';

test('1. staff drop a real PDF on the Documents room and see it come in', async ({ people, browser }) => {
	const path = await chromiumPdf(browser, name, 3);
	const page = await people.as('staff');
	await page.goto('/desk/documents');
	await expect(page.getByRole('heading', { name: 'Documents' })).toBeVisible();
	await drop(page, 'main', [{ name: basename(path), bytes: readFileSync(path) }]);
	const tray = page.getByRole('region', { name: 'Intake tray' });
	await expect(tray.getByText('Sound', { exact: true })).toBeVisible();
	await expect(page).toHaveURL(/\/desk\/documents\/sluice-notes$/);
	const sheet = page.getByRole('complementary', { name });
	await expect(sheet.getByText(/3 pages\s+A4,\s+[\d.]+ kB\.\s+Sound\.\s+With text\./)).toBeVisible();
	await expect(sheet.getByAltText('Cover')).toHaveJSProperty('complete', true);
	expect(await sheet.getByAltText('Cover').evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(300);
	await expect(sheet.getByTestId('door-sentence')).toHaveText('Only staff may open it.');
});

test('1b. what is no sound PDF is refused in words; the others go on', async ({ people, browser }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents');
	const good = await chromiumPdf(browser, 'Good one', 1);
	await page.getByLabel('Choose PDF files to bring in').setInputFiles([textFile('letter.pdf'), good]);
	const tray = page.getByRole('region', { name: 'Intake tray' });
	await expect(tray.getByText('“letter.pdf” is a text file, not a PDF. Export it as PDF and bring that in.')).toBeVisible();
	await expect(tray.getByRole('listitem').filter({ hasText: 'Good one' }).getByText('Sound', { exact: true })).toBeVisible();
	await tray.getByRole('button', { name: 'Clear' }).click();
	await expect(tray).toBeHidden();
});

test('2. they set its door, and the sentence says who may do what', async ({ people }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await page.goto('/desk/documents/sluice-notes');
	const said = page.getByTestId('door-sentence');
	const door = page.getByRole('radiogroup', { name: 'Door' });
	await door.getByText('Open').click();
	await expect(said).toHaveText('Everyone may read, save and print.');
	await door.getByText('Ajar').click();
	await expect(said).toContainText('Whoever has the address may read, save and print');
	await door.getByText('Keyed').click();
	await expect(said).toContainText('no group and no person is admitted yet');
	await page.getByRole('button', { name: /^All members \d+/ }).click();
	await expect(said).toContainText(/^All members, \d+ people, may read, save and print\.$/);
	await page.getByRole('button', { name: /^All members \d+/ }).click();
	await expect(said).toContainText('no group and no person is admitted yet');
	await page.getByRole('button', { name: /^Lock wardens \d+/ }).click();
	await expect(said).toContainText(/^Lock wardens, \d+ people, may read, save and print\.$/);
	await page.getByRole('status').getByRole('button', { name: 'Undo' }).last().click();
	await expect(said).toContainText('no group and no person is admitted yet');
	await page.getByRole('button', { name: /^Lock wardens \d+/ }).click();
	await expect(said).toContainText(/^Lock wardens, \d+ people/);
	await page.reload();
	await expect(said).toContainText(/^Lock wardens, \d+ people/);
	// an undo that does not reach the server says so, and the door stays as it was set
	await page.route('**/api/v1/bulk/undo', (route) => route.abort());
	await door.getByText('Ajar').click();
	await expect(said).toContainText('Whoever has the address');
	await page.getByRole('status').getByRole('button', { name: 'Undo' }).last().click();
	await expect(page.getByRole('alert').last()).toContainText('The server cannot be reached.');
	await expect(said).toContainText('Whoever has the address');
	await page.unroute('**/api/v1/bulk/undo');
	await door.getByText('Keyed').click();
	await expect(said).toContainText(/^Lock wardens, \d+ people/);
});

test('2b. its hours have a day and a time, typed or chosen in the calendar, in the site’s zone', async ({ people }) => {
	const page = await people.as('staff', { timezoneId: 'America/New_York', locale: 'en-US' });
	await page.goto('/desk/documents/sluice-notes');
	const said = page.getByTestId('door-sentence');
	await expect(page.getByText('not of your computer (America/New_York)')).toBeVisible();
	const from = page.getByRole('group', { name: 'From' });
	const until = page.getByRole('group', { name: 'Until' });
	const day = (bound: typeof from) => bound.getByRole('textbox', { name: /day$/ });
	// day and time at once, the day before the month as the site has it
	await day(from).fill('7/12/2098 9:00');
	await day(from).press('Enter');
	await expect(said).toContainText('from 09:00 on 7 December 2098.');
	await expect(from.getByRole('textbox', { name: /time$/ })).toHaveValue('09:00');
	await expect(day(from)).toHaveValue('Sun, 7 Dec 2098');
	// the calendar opens at the month of what stands beside it; arrows and Enter choose; Escape gives the field back and leaves the sheet
	await day(until).press('ArrowDown');
	const calendar = until.getByRole('dialog', { name: 'Calendar' });
	await expect(calendar.getByText('December 2098')).toBeVisible();
	await page.keyboard.press('Escape');
	await expect(calendar).toHaveCount(0);
	await expect(day(until)).toBeFocused();
	await until.getByRole('button', { name: /calendar/ }).click();
	await expect(calendar).toBeVisible();
	expect(await axeLightAndDark(page)).toEqual([]);
	await calendar.getByRole('button', { name: /28 December 2098/ }).click();
	await expect(said).toContainText('from 09:00 on 7 December 2098 until 28 December 2098.');
	await until.getByRole('textbox', { name: /time$/ }).fill('6 pm');
	await until.getByRole('textbox', { name: /time$/ }).press('Enter');
	await expect(said).toContainText('until 18:00 on 28 December 2098.');
	await page.reload();
	await expect(until.getByRole('textbox', { name: /time$/ })).toHaveValue('18:00');
	// what is no day is said, and nothing changes
	await day(from).fill('soon');
	await day(from).press('Enter');
	await expect(from.getByRole('alert')).toContainText('“soon” is not a day.');
	await expect(said).toContainText('from 09:00 on 7 December 2098');
	await from.getByRole('button', { name: 'at once' }).click();
	await expect(said).not.toContainText('7 December');
	await until.getByRole('button', { name: 'no end' }).click();
	await expect(said).not.toContainText('December');
});

test('3. they write a page and put the document on it in three forms, preview it and publish', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/pages');
	await page.getByLabel('Title').fill('At the sluice');
	await page.getByRole('button', { name: 'Write a page' }).click();
	const text = page.getByRole('textbox', { name: 'Text of the page' });
	await text.click();
	await page.keyboard.type('Opening hours of the ');
	await page.keyboard.press('Control+b');
	await page.keyboard.type('sluice');
	await page.keyboard.press('Control+b');
	await page.keyboard.type(': ');
	const sheet = page.getByRole('complementary', { name: 'This placement' });
	await page.getByRole('button', { name: 'Place Sluice notes' }).click();
	await expect(sheet).toBeVisible();
	await sheet.getByLabel('Words').fill('read the notes');
	await sheet.getByLabel('Words').press('Tab');
	await sheet.getByRole('button', { name: 'New tab' }).click();
	for (const [form, press] of [
		['Button', 'Save'],
		['Cover', 'Document page']
	] as const) {
		await text.press('Control+End');
		await page.keyboard.press('Enter');
		await page.getByRole('button', { name: 'Place Sluice notes' }).click();
		await sheet.getByRole('button', { name: form, exact: true }).click();
		await sheet.getByRole('button', { name: press, exact: true }).click();
	}
	await expect(page.getByTestId('draft-state')).toContainText(/^\s*saved/);
	await expect(page.locator('.placement[data-form=cover] img')).toBeVisible();

	// the page has a door too; for now it stays open
	await page.getByRole('button', { name: 'Door Open' }).click();
	await expect(page.getByText('Everyone may read.')).toBeVisible();
	await page.keyboard.press('Escape');

	await page.getByRole('link', { name: 'Preview', exact: true }).click();
	await page.getByRole('combobox', { name: /^as/ }).selectOption({ label: 'a member of Lock wardens' });
	await expect(page.getByRole('link', { name: 'read the notes' })).toBeVisible();
	await page.getByRole('combobox', { name: /^as/ }).selectOption({ label: 'a visitor' });
	await expect(page.getByText('for members, sign in')).toBeVisible();
	await page.getByRole('link', { name: 'Back to writing' }).click();
	// it is kept for lock wardens and the page is open: that is asked about once
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await expect(page.getByRole('dialog')).toContainText('everyone without Lock wardens');
	await page.getByRole('button', { name: 'Publish all the same' }).click();
	await expect(page.getByText('Published at /at-the-sluice')).toBeVisible();
	await page.reload();
	await expect(page.locator('.placement')).toHaveCount(3);
	await expect(page.locator('.ProseMirror p > strong')).toHaveText('sluice');
});

test('4. a visitor opens the page, presses the placements of an open document, reads and saves it under its own name', async ({ people }) => {
	const staff = await people.as('staff');
	await staff.goto('/desk/documents/sluice-notes');
	await staff.getByRole('radiogroup', { name: 'Door' }).getByText('Open').click();
	await expect(staff.getByTestId('door-sentence')).toHaveText('Everyone may read, save and print.');

	const page = await people.as('visitor');
	await page.goto('/at-the-sluice');
	await expect(page.getByText(/\(PDF, 3 pages, [\d.]+ kB\)/)).toBeVisible();
	const [room] = await Promise.all([page.waitForEvent('popup'), page.getByRole('link', { name: 'read the notes' }).click()]);
	await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible();
	const words = (n: number) => room.locator(`.page[data-page-number="${n}"] .textLayer`);
	await expect(words(1)).toContainText('The sluice at bridge 1 stands open.');
	await expect(room).toHaveURL(/\/d\/sluice-notes\/read$/);
	// something is drawn: not all of the page is one colour
	const colours = await room
		.locator('.page[data-loaded] canvas')
		.first()
		.evaluate((canvas: HTMLCanvasElement) => new Set(canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height).data).size);
	expect(colours).toBeGreaterThan(2);
	await room.getByRole('button', { name: 'Next page' }).click();
	await expect(words(2)).toContainText('bridge 2');
	await expect(room.locator('.stage')).toHaveAttribute('data-page', '2');
	await expect(room).toHaveURL(/#page=2$/);
	await room.keyboard.press('End');
	await expect(words(3)).toContainText('bridge 3');
	await expect(room.locator('.stage')).toHaveAttribute('data-page', '3');
	await room.getByLabel('Page', { exact: true }).fill('1');
	await room.getByLabel('Page', { exact: true }).press('Enter');
	await expect(words(1)).toContainText('bridge 1');
	await expect(room.locator('.stage')).toHaveAttribute('data-page', '1');
	await room.getByRole('slider', { name: 'Pages' }).click({ position: { x: 20, y: 730 } });
	await expect(words(3)).toContainText('bridge 3');
	await expect(room.locator('.stage')).toHaveAttribute('data-page', '3');
	await expect(room.getByRole('link', { name: 'To the site' })).toHaveAttribute('href', '/at-the-sluice');

	const [saved] = await Promise.all([
		page.waitForEvent('download'),
		page
			.getByRole('link', { name: /^Sluice notes PDF, 3 pages/ })
			.first()
			.click()
	]);
	expect(saved.suggestedFilename()).toBe('Sluice notes.pdf');
	const bytes = readFileSync(await saved.path());
	const sha256 = createHash('sha256').update(bytes).digest('hex');
	const made = (await (await staff.request.get('/api/v1/documents/sluice-notes')).json()) as { sha256: string };
	expect(sha256).toBe(made.sha256);

	await page.locator('a.cover').click();
	await expect(page.getByRole('heading', { name })).toBeVisible();
	await expect(page.getByRole('link', { name: 'Save' })).toBeVisible();
});

test('5. a keyed document turns a visitor away with a reason, opens to a member of its group, and not to another', async ({ people }) => {
	const staff = await people.as('staff');
	await staff.goto('/desk/documents/sluice-notes');
	await staff.getByRole('radiogroup', { name: 'Door' }).getByText('Keyed').click();
	// readers of a page would be turned away: that is asked about
	await expect(staff.getByRole('dialog')).toContainText('would be turned away');
	await staff.getByRole('button', { name: 'Set the door all the same' }).click();
	await expect(staff.getByTestId('door-sentence')).toContainText('Lock wardens');
	await staff.goto('/desk/people');
	await staff.getByLabel('Name').first().fill('Moor Only');
	await staff.getByLabel('E-mail address').fill('moor.only@example.org');
	await staff.getByLabel(/First password/).fill(password);
	await staff.getByRole('combobox', { name: /^Group/ }).selectOption('moorers');
	await staff.getByRole('button', { name: 'Add a member' }).click();
	await expect(staff.getByText('Moor Only can sign in now.')).toBeVisible();

	const page = await people.as('visitor');
	await page.goto('/at-the-sluice');
	await page.getByRole('link', { name: 'read the notes' }).click();
	const away = page.getByTestId('turned-away');
	await expect(away).toContainText('This is kept for members.');
	await expect(page.locator('body')).not.toContainText(name);
	await away.getByRole('link', { name: 'Sign in' }).click();
	const { email, password: memberPassword } = signIn().member;
	await page.getByLabel('E-mail address').fill(email);
	await page.getByLabel('Password').fill('not the right one');
	await page.getByRole('button', { name: 'Sign in', exact: true }).click();
	await expect(page.getByRole('alert')).toHaveText('The address and the password do not go together.');
	await page.getByLabel('Password').fill(memberPassword);
	await page.getByRole('button', { name: 'Sign in', exact: true }).click();
	await expect(page.getByRole('heading', { name })).toBeVisible();
	await page.getByRole('link', { name: 'Read', exact: true }).click();
	await expect(page.locator('.textLayer').first()).toContainText('bridge 1');

	const other = await people.as({ email: 'moor.only@example.org', password });
	await other.goto('/d/sluice-notes/read');
	await expect(other.getByTestId('turned-away')).toContainText('kept for other groups than yours');
	for (const path of ['', '/file', '/file?save', '/cover/300.webp', '/leaf/1.webp'])
		expect((await other.request.get(`/d/sluice-notes${path}`)).status(), path).toBe(403);
});

test('6. staff see who opened, who saved and who was turned away, when and from which page; their own stand apart', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/d/sluice-notes/read?from=desk');
	await expect(page.locator('.page[data-loaded] canvas').first()).toBeVisible();
	await page.goto('/desk/documents/sluice-notes');
	const sheet = page.getByRole('complementary', { name });
	await expect(sheet.getByText(/Wren Lockyer\s+opened it,\s+from At the sluice/)).toBeVisible();
	await expect(sheet.getByText(/A visitor\s+saved it,\s+from At the sluice/)).toBeVisible();
	await expect(sheet.getByText(/Moor Only\s+was turned away/)).toBeVisible();
	await expect(sheet.getByText(/Staff, apart:\s+1 opening/)).toBeVisible();
	await sheet.getByRole('link', { name: 'Readership' }).click();
	await expect(page.getByTestId('answer')).toContainText(/^1 of the \d+ who may open it have|^1 of the \d+ who may open it has/);
	const rows = page.getByRole('row');
	await expect(rows.filter({ hasText: 'Wren Lockyer' }).filter({ hasText: 'Opened' })).toContainText('At the sluice');
	await expect(rows.filter({ hasText: 'Saved' }).first()).toContainText('A visitor');
	await expect(rows.filter({ hasText: 'Moor Only' }).first()).toContainText('not among those admitted');
	await expect(rows.filter({ hasText: 'Edda Marlowe' })).toHaveCount(0);
	await page.getByRole('link', { name: 'Staff', exact: true }).click();
	// staff opened it, and may have read a second of it by now: the line of the opening is the one meant
	await expect(rows.filter({ hasText: 'Edda Marlowe' }).filter({ hasText: 'Opened' })).toContainText('staff, not counted');
	await page.getByRole('link', { name: 'Readership' }).first().click();
	await expect(page.getByTestId('answer')).toContainText(/readers opened \d+ documents/);
	await page.getByRole('button', { name: 'As a table' }).first().click();
	await expect(page.getByRole('columnheader', { name: 'Openings' }).first()).toBeVisible();
});
