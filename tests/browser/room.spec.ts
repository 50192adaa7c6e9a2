// The documents room: filters with counts, saved ones, find with the words marked, many at once, editions, covers, what is set aside, staff.
import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import type { Page } from '@playwright/test';
import { axeLightAndDark, chromiumPdf, drop, expect, fileOf, linkMailed, origin, signIn, test } from './help';

const filters = (page: Page) => page.getByRole('group', { name: 'Filters' });
const rows = (page: Page) => page.locator('tbody tr[id^="row-"]');
const note = (page: Page) => page.getByRole('status').filter({ hasText: /./ }).last();
/** A document of its own for a test; gives its address. */
async function brought(page: Page, path: string): Promise<string> {
	const response = await page.request.post('/api/v1/documents', {
		headers: { origin: origin() },
		multipart: { file: { name: path.split('/').pop()!, mimeType: 'application/pdf', buffer: readFileSync(path) } }
	});
	expect(response.status()).toBe(201);
	return ((await response.json()) as { slug: string }).slug;
}

test('several filters narrow each other’s counts, stand in the address, and are kept under a name', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents');
	await filters(page).getByRole('button', { name: 'Folder' }).click();
	const leaflets = page.getByRole('link', { name: /^Leaflets \d+$/ });
	const all = Number((await leaflets.textContent())!.replace(/\D/g, ''));
	await leaflets.click();
	await expect(rows(page)).toHaveCount(all);
	await page.keyboard.press('Escape');
	await filters(page)
		.getByRole('link', { name: /^Open \d+/ })
		.click();
	await expect(page).toHaveURL(/folder=Leaflets/);
	await expect(page).toHaveURL(/door=open/);
	const open = await rows(page).count();
	expect(open).toBeLessThan(all);
	await filters(page).getByRole('button', { name: 'Topic' }).click();
	const walking = page.getByRole('link', { name: /^walking \d+$/ });
	const count = Number((await walking.textContent())!.replace(/\D/g, ''));
	await walking.click();
	await expect(rows(page)).toHaveCount(count);
	await page.keyboard.press('Escape');

	await filters(page).getByRole('button', { name: 'Saved' }).click();
	await page.getByLabel('Name for this filter').fill('Walks for everyone');
	await page.getByRole('button', { name: 'Save', exact: true }).click();
	await expect(page.getByText('Saved as “Walks for everyone”.')).toBeVisible();
	await page.goto('/desk/documents');
	await filters(page).getByRole('button', { name: 'Saved' }).click();
	await page.getByRole('link', { name: 'Walks for everyone' }).click();
	await expect(rows(page)).toHaveCount(count);
});

test('columns are chosen and ordered, and any of them orders the rows', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents');
	await page.getByRole('button', { name: 'Columns' }).click();
	await page.getByLabel('Pages', { exact: true }).check();
	await page.keyboard.press('Escape');
	await page.getByRole('columnheader', { name: 'Pages' }).getByRole('link').click();
	await expect(page.getByRole('columnheader', { name: 'Pages' })).toHaveAttribute('aria-sort', 'descending');
	const counts = (await page.locator('tbody td.num:nth-last-child(1)').allTextContents()).length;
	expect(counts).toBeGreaterThan(20);
	await expect(rows(page).first()).toContainText('465 pages');
	await page.getByRole('columnheader', { name: 'Document' }).getByRole('link').click();
	await expect(rows(page).first()).toContainText('Accounts 2025');
	await page.reload();
	await expect(page.getByRole('columnheader', { name: 'Pages' })).toBeVisible();
});

test('find marks the words with their pages, and opens the reading room there with the words marked', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents');
	await page.locator('main').click({ position: { x: 5, y: 5 } });
	await page.keyboard.press('/');
	await page.keyboard.type('"stop planks" -handbook');
	await page.keyboard.press('Enter');
	await expect(page.getByText(/^\d+ documents for/)).toBeVisible();
	const guide = page.locator('tr.found').first();
	await expect(guide.locator('mark').first()).toHaveText(/stop/i);
	const [room] = await Promise.all([
		page.waitForEvent('popup'),
		guide
			.getByRole('link', { name: /^p\. \d+/ })
			.first()
			.click()
	]);
	expect(room.url()).toMatch(/\/read\?from=desk#page=\d+&search=/i);
	await expect(room.locator('.textLayer .highlight').first()).toBeVisible();
	await page.goto('/desk/documents?q=cruisng gide');
	await expect(rows(page).first()).toContainText('Cruising guide');
	await page.goto('/desk/documents?q=schleuse');
	await expect(page.locator('tr.found mark').first()).toHaveText(/^Schleuse/);
});

test('many are chosen by keyboard and mouse, changed at once, and put back with one undo', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents?folder=Leaflets&order=title');
	const before = await rows(page).count();
	await page.locator('main').click({ position: { x: 5, y: 5 } });
	await page.keyboard.press('ArrowDown');
	await page.keyboard.press('Shift+ArrowDown');
	await expect(page.locator('aside.sheet')).toBeVisible();
	await page.keyboard.press('Escape');
	const bar = page.getByRole('toolbar', { name: 'Change the documents chosen' });
	await expect(bar).toContainText('2 chosen');
	await rows(page)
		.nth(3)
		.getByRole('checkbox')
		.click({ modifiers: ['Shift'] });
	await expect(bar).toContainText('4 chosen');
	await bar.getByRole('button', { name: 'Folder' }).click();
	await page.getByRole('combobox', { name: 'Folder' }).fill('Handed round');
	await page.keyboard.press('Enter');
	await expect(note(page)).toContainText('4 documents:');
	await expect(rows(page)).toHaveCount(before - 4);
	await note(page).getByRole('button', { name: 'Undo' }).click();
	await expect(rows(page)).toHaveCount(before);

	await bar.getByRole('button', { name: 'Set aside' }).click();
	// readers meet some of them on pages: the places are told first
	await expect(page.getByRole('dialog')).toContainText(/Readers meet .* in \d+ places?/);
	await page.getByRole('button', { name: 'Set aside all the same' }).click();
	await expect(rows(page)).toHaveCount(before - 4);
	await note(page).getByRole('button', { name: 'Undo' }).click();
	await expect(rows(page)).toHaveCount(before);
});

test('the doors of many are set at once: for whom, from when, and whether they may be saved', async ({ people }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await page.goto('/desk/documents?folder=Leaflets&order=title');
	const chosen = [rows(page).nth(0), rows(page).nth(1)];
	const before = await Promise.all(chosen.map((row) => row.innerText()));
	for (const row of chosen) await row.getByRole('checkbox').check();
	const bar = page.getByRole('toolbar', { name: 'Change the documents chosen' });
	await bar.getByRole('button', { name: 'Door' }).click();
	const dialog = page.getByRole('dialog', { name: 'Door of 2 documents' });
	const set = dialog.getByRole('button', { name: 'Set 2 doors' });
	await expect(set).toBeDisabled();
	await dialog.getByText('Keyed', { exact: true }).click();
	// a door that admits nobody is not set
	await expect(dialog.getByText('Keyed for whom?')).toBeVisible();
	await expect(set).toBeDisabled();
	await dialog.getByRole('button', { name: 'Trustees' }).click();
	await dialog.getByRole('group', { name: 'From' }).getByRole('textbox', { name: /day$/ }).fill('28 December 2031');
	await page.keyboard.press('Tab');
	await dialog.getByLabel('Saving').selectOption('off');
	// where it cannot be done, that is said there and what was chosen stays chosen
	await page.route('**/api/v1/bulk', (route) => route.abort());
	await set.click();
	await expect(dialog.getByRole('alert')).toBeVisible();
	await expect(dialog.getByRole('button', { name: 'Trustees' })).toHaveAttribute('aria-pressed', 'true');
	await page.unroute('**/api/v1/bulk');
	await set.click();
	await expect(dialog).toHaveCount(0);
	await expect(note(page)).toContainText('2 documents: keyed for Trustees, with their hours, saving off.');
	// until then they are shut
	for (const row of chosen) await expect(row).toContainText('Staff only');
	await chosen[0]!.getByRole('link').first().click();
	await expect(page.getByTestId('door-sentence')).toContainText(/Trustees.*28 December 2031/);
	await page.keyboard.press('Escape');
	await note(page).getByRole('button', { name: 'Undo' }).click();
	await expect(note(page)).toContainText('Taken back');
	for (const [i, row] of chosen.entries()) await expect(row).toHaveText(before[i]!, { useInnerText: true });
});

test('fields are made in the settings, filled for many and from a table, and stand in a list of the site', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/settings');
	const part = page.locator('#fields');
	await part.getByLabel('What the new field is called').fill('Audience');
	await part.getByLabel('Its kind').selectOption('Choice');
	await part.getByLabel('Its choices, one in a line').fill('Walkers\nCrews\n\nWalkers');
	await part.getByRole('button', { name: 'Add the field' }).click();
	await expect(part.getByLabel('What “Audience” is called')).toHaveValue('Audience');
	await expect(part.getByLabel('Choices of “Audience”, one in a line')).toHaveValue('Walkers\nCrews');
	expect(await axeLightAndDark(page)).toEqual([]);
	// for many
	await page.goto('/desk/documents?folder=Leaflets&order=title');
	const other = await rows(page).locator('a').first().textContent();
	for (const n of [0, 1]) await rows(page).nth(n).getByRole('checkbox').check();
	const bar = page.getByRole('toolbar', { name: 'Change the documents chosen' });
	await bar.getByRole('button', { name: 'Fields' }).click();
	await bar.getByRole('combobox', { name: 'Field', exact: true }).selectOption('Audience');
	await bar.getByRole('combobox', { name: 'Audience' }).selectOption('Crews');
	await bar.getByRole('button', { name: 'Set', exact: true }).click();
	await expect(note(page)).toContainText('2 documents: “Audience” is Crews.');
	await bar.getByRole('button', { name: 'Let go' }).click();
	await page.getByRole('button', { name: 'Audience', exact: true }).click();
	await expect(page.getByRole('link', { name: 'Crews 2' })).toBeVisible();
	// from a table, after a look
	await page.goto('/desk/documents');
	await page.getByRole('button', { name: 'More ways' }).click();
	const table = page.getByLabel('A table (CSV) with a line for each document');
	await table.setInputFiles(fileOf('fields.csv', 'document,Audience\ntowpath-map,Sailors\n'));
	await expect(page.getByText('Line 2: “Audience” is one of: Walkers, Crews.')).toBeVisible();
	await table.setInputFiles(fileOf('fields-2.csv', 'document,Audience\ntowpath-map,Walkers\n'));
	await page.getByRole('button', { name: 'Fill them in' }).click();
	await expect(note(page)).toContainText('Fields of 1 document filled in.');
	await page.goto('/desk/documents/towpath-map');
	await expect(page.getByRole('combobox', { name: 'Audience' })).toHaveValue('Walkers');
	// readers narrow the library by it, without script too
	const visitor = await people.as('visitor', { javaScriptEnabled: false });
	await visitor.goto('/library');
	await visitor.getByRole('group', { name: 'Audience' }).getByRole('link', { name: 'Walkers 1' }).click();
	await expect(visitor.getByText('Audience: Walkers')).toBeVisible();
	await expect(visitor.locator('main').getByRole('link', { name: 'Towpath map' })).toBeVisible();
	await expect(visitor.locator('main').getByRole('link', { name: other!.trim() })).toHaveCount(0);
	// taken away, it shows nowhere; with undo it is there again
	await page.goto('/desk/settings');
	await part.getByRole('button', { name: 'Take “Audience” away' }).click();
	await expect(note(page)).toContainText('Set for the whole site.');
	await visitor.goto('/d/towpath-map');
	await expect(visitor.locator('dt', { hasText: 'Audience' })).toHaveCount(0);
	await note(page).getByRole('button', { name: 'Undo' }).click();
	await expect(part.getByLabel('What “Audience” is called')).toHaveValue('Audience');
	await visitor.reload();
	await expect(visitor.locator('dt', { hasText: 'Audience' }).locator('+ dd')).toHaveText('Walkers');
});

test('a new edition dropped on the sheet comes into force, says what changed, and can be taken back', async ({ people, browser }) => {
	const page = await people.as('staff');
	const slug = await brought(page, await chromiumPdf(browser, 'Tide table', 2));
	await page.goto(`/desk/documents/${slug}`);
	const sheet = page.getByRole('complementary', { name: 'Tide table' });
	await drop(page, 'aside.sheet', [{ name: 'Tide table, new.pdf', bytes: readFileSync(await chromiumPdf(browser, 'Tide table mended', 3)) }]);
	await expect(sheet.getByText('2 editions')).toBeVisible();
	await expect(sheet.getByText(/^3 pages/).first()).toBeVisible();
	await sheet.getByRole('link', { name: 'What changed' }).first().click();
	await expect(page.getByRole('heading', { name: 'What changed' })).toBeVisible();
	await expect(page.locator('ins').first()).toContainText('mended');
	await page.getByRole('link', { name: 'Back to Tide table' }).click();
	await sheet.getByRole('button', { name: 'Go back to it' }).click();
	await expect(note(page)).toContainText('Edition 1 is in force.');
	await expect(sheet.getByText(/^2 pages/).first()).toBeVisible();
	await note(page).getByRole('button', { name: 'Undo' }).click();
	await expect(sheet.getByText(/^3 pages/).first()).toBeVisible();
});

test('the sheet saves as one types, with a sign and an undo; a changed address leads on from the old one', async ({ people, browser }) => {
	const page = await people.as('staff');
	const slug = await brought(page, await chromiumPdf(browser, 'Gauge readings', 1));
	await page.goto(`/desk/documents/${slug}`);
	const sheet = page.locator('aside.sheet');
	await sheet.getByLabel('Description').fill('Readings of the upper gauge, week by week, as the wardens wrote them down.');
	await expect(sheet.getByText('Saved', { exact: false }).first()).toBeVisible();
	await expect(sheet.getByText('74 of about 155 characters that search engines show')).toBeVisible();
	await sheet.getByRole('button', { name: 'Undo' }).first().click();
	await expect(sheet.getByLabel('Description')).toHaveValue('');
	await sheet.getByLabel('Topics').fill('water');
	await page.keyboard.press('Enter');
	await expect(sheet.getByRole('button', { name: 'Take “water” away' })).toBeVisible();
	await sheet.getByRole('button', { name: 'Change', exact: true }).click();
	await sheet.getByLabel('Address').fill('gauge');
	await sheet.locator('form').getByRole('button', { name: 'Change' }).click();
	await expect(page).toHaveURL(/\/desk\/documents\/gauge$/);
	const moved = await page.request.get(`/d/${slug}`, { maxRedirects: 0 });
	expect([moved.status(), moved.headers().location]).toEqual([308, '/d/gauge']);
});

test('the cover is a page, a picture of one’s own cut to size, or an icon found by a word', async ({ people, browser }) => {
	const page = await people.as('staff');
	const slug = await brought(page, await chromiumPdf(browser, 'Covered', 3));
	await page.goto(`/desk/documents/${slug}`);
	const cover = page.getByRole('button', { name: 'Cover' });
	const dialog = page.getByRole('dialog', { name: 'Cover' });
	const shown = async () => (await page.request.get(`/d/${slug}/cover/300.webp`)).headers().etag;
	const seen = new Set([await shown()]);
	await cover.click();
	await dialog.getByRole('button', { name: 'Page 2' }).click();
	await expect(page.getByText('The cover shows page 2.')).toBeVisible();
	seen.add(await shown());
	await cover.click();
	await dialog.getByRole('button', { name: 'An icon' }).click();
	await dialog.getByLabel('A word for the icon').fill('boat');
	await dialog.getByRole('button', { name: 'sailboat' }).click();
	await expect(page.getByText('The cover shows an icon.')).toBeVisible();
	seen.add(await shown());
	await cover.click();
	await dialog.getByRole('button', { name: 'Own picture' }).click();
	const picture = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#2d5f8b' } })
		.png()
		.toBuffer();
	await dialog.locator('input[type=file]').setInputFiles({ name: 'lock.png', mimeType: 'image/png', buffer: picture });
	await dialog.getByRole('button', { name: 'Use this part' }).click();
	await expect(page.getByText('The cover shows your picture.')).toBeVisible();
	seen.add(await shown());
	expect(seen.size).toBe(4);
	const meta = await sharp(await (await page.request.get(`/d/${slug}/cover/300.webp`)).body()).metadata();
	expect(meta.width / meta.height).toBeCloseTo(210 / 297, 1);
});

test('what is set aside leaves words on the page, never an error, and is restored from upkeep', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents/towpath-map');
	await page.getByRole('button', { name: 'Set this document aside' }).click();
	await expect(page.getByRole('dialog')).toContainText('the front page');
	await page.getByRole('button', { name: 'Set aside all the same' }).click();
	await expect(page.getByText('It can be restored for 30 days.')).toBeVisible();
	const visitor = await people.as('visitor');
	const front = await visitor.goto('/');
	expect(front!.status()).toBe(200);
	await expect(visitor.getByRole('link', { name: 'Save the towpath map' })).toHaveCount(0);
	expect((await visitor.goto('/d/towpath-map'))!.status()).toBe(404);
	await page.goto('/desk/upkeep');
	await page.getByRole('listitem').filter({ hasText: 'Towpath map' }).getByRole('button', { name: 'Restore', exact: true }).click();
	await expect(page.getByText('“Towpath map”: Restored')).toBeVisible();
	await visitor.goto('/');
	await expect(visitor.getByRole('link', { name: 'Save the towpath map' })).toBeVisible();
});

test('staff are invited by mail, work, and hand over what they began when their account is closed', async ({ people, browser }) => {
	const page = await people.as('staff');
	await page.goto('/desk/people/staff');
	await page.getByLabel('Name').fill('Tilda Reed');
	await page.getByLabel('E-mail address').fill('tilda.reed@example.org');
	await page.getByRole('button', { name: 'Invite' }).click();
	await expect(page.getByRole('cell', { name: 'tilda.reed@example.org' })).toBeVisible();
	const guest = await people.as('visitor');
	await guest.goto(await linkMailed('tilda.reed@example.org', /invited/));
	await guest.getByLabel(/^A password/).fill('tilda-likes-herons');
	await guest.getByRole('button', { name: 'Begin' }).click();
	const tilda = await people.as({ email: 'tilda.reed@example.org', password: 'tilda-likes-herons' });
	await brought(tilda, await chromiumPdf(browser, 'Of Tilda', 1));
	await page.reload();
	const line = page.getByRole('row').filter({ hasText: 'Tilda Reed' });
	await expect(line).toContainText('1 thing');
	await line.getByRole('button', { name: 'Close account' }).click();
	await page.getByLabel('Hand over to').selectOption({ label: 'Edda Marlowe' });
	await page.getByRole('button', { name: 'Close and hand over' }).click();
	await expect(page.getByRole('row').filter({ hasText: 'Tilda Reed' })).toHaveCount(0);
	await page.goto('/desk/documents/of-tilda');
	await expect(page.locator('aside.sheet').getByText('by Edda Marlowe').first()).toBeVisible();
});

test('two editions are compared as pictures, what differs marked on both', async ({ people }) => {
	const page = await people.as('staff');
	const asked: string[] = [];
	page.on('request', (request) => {
		if (request.url().includes('/leaf/')) asked.push(new URL(request.url()).search);
	});
	await page.goto('/desk/documents/winter-stoppages/compare');
	await expect(page.getByRole('heading', { name: 'Page 1' })).toBeVisible();
	// nothing is fetched before it is wanted
	expect(asked).toEqual([]);
	const first = page.locator('section').first();
	await first.getByText('As pictures').click();
	await expect(first.getByRole('status')).toHaveText(/^Differs in \d+ places?\.$/);
	expect(asked.map((search) => new URLSearchParams(search).get('e')).sort()).toEqual(['1', '2']);
	const [was, is] = [first.locator('figure.before i'), first.locator('figure.after i')];
	expect(await was.count()).toBeGreaterThan(0);
	expect(await is.count()).toBe(await was.count());
	// what differs stands in the upper third: below, the page is the same
	const [mark, leaf] = [(await was.last().boundingBox())!, (await first.locator('figure.before img').boundingBox())!];
	expect(mark.y + mark.height).toBeLessThan(leaf.y + leaf.height / 3);
	// an edition beside itself: nothing is marked
	await page.goto('/desk/documents/winter-stoppages/compare?before=2&after=2');
	await page.getByText('Pages 1 to 2: the same words').click();
	await expect(page.getByRole('status').filter({ hasText: 'Looks the same.' })).toHaveCount(2);
	await expect(page.locator('figure i')).toHaveCount(0);
	expect(await axeLightAndDark(page)).toEqual([]);
});

test('of documents chosen, keys go out in one mail an address, and all are saved as one zip', async ({ people, browser }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents');
	for (const title of ['Crane licence', 'Wharf insurance']) {
		const slug = await brought(page, await chromiumPdf(browser, title, 1));
		const headers = { origin: origin() };
		expect((await page.request.patch(`/api/v1/documents/${slug}`, { headers, data: { door: { position: 'keyed' } } })).status()).toBe(200);
	}
	await page.reload();
	const choose = (title: string) => page.getByRole('row').filter({ hasText: title }).getByRole('checkbox').check();
	await choose('Crane licence');
	await choose('Wharf insurance');
	const bar = page.getByRole('toolbar', { name: 'Change the documents chosen' });
	await bar.getByRole('button', { name: 'Keys' }).click();
	const dialog = page.getByRole('dialog', { name: 'Keys to 2 documents' });
	await dialog.getByLabel(/^A key to each of them/).fill('Kit Mason <kit.mason@boats.example>, yard@boats.example');
	await dialog.getByRole('button', { name: 'Mail 4 keys' }).click();
	await expect(page.getByText('4 keys issued, 2 mails are on their way.')).toBeVisible();
	await expect(dialog).toBeHidden();
	const visitor = await people.as('visitor');
	await visitor.goto(await linkMailed('kit.mason@boats.example', /Crane licence.*Wharf insurance/s));
	await expect(visitor.getByRole('heading', { name: 'Crane licence', level: 1 })).toBeVisible();
	const asked = page.waitForEvent('download');
	await bar.getByRole('button', { name: 'Save as one zip' }).click();
	const saved = await asked;
	expect(saved.suggestedFilename()).toMatch(/^documents-\d{4}-\d\d-\d\d\.zip$/);
	const files = unzipSync(readFileSync(await saved.path()));
	expect(Object.keys(files)).toHaveLength(2);
	for (const file of Object.values(files)) expect(Buffer.from(file.subarray(0, 5)).toString()).toBe('%PDF-');
	// both stay chosen, and the desk is as it was; where the session has gone one signs in here
	await expect(bar.getByText('2 chosen')).toBeVisible();
	await page.context().clearCookies();
	await bar.getByRole('button', { name: 'Save as one zip' }).click();
	await expect(page.getByRole('dialog').getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
	await expect(bar.getByText('2 chosen')).toBeAttached();
});

test('a key is issued, opens the document for a visitor, and is withdrawn; its door is tried beside it', async ({ people, browser }) => {
	const page = await people.as('staff');
	const slug = await brought(page, await chromiumPdf(browser, 'For the boatyard', 2));
	await page.goto(`/desk/documents/${slug}`);
	const sheet = page.locator('aside.sheet');
	await sheet.getByText('Keyed', { exact: true }).click();
	await expect(sheet.getByTestId('door-sentence')).toContainText('no group and no person is admitted yet');
	await page.locator('main').click({ position: { x: 5, y: 5 } });
	await page.keyboard.press('t');
	await expect(sheet.locator('dt').filter({ hasText: 'Read: no' })).toBeVisible();
	await expect(sheet.getByText(/^This is kept for members\. Sign in/).first()).toBeVisible();
	await page.locator('main').click({ position: { x: 5, y: 5 } });
	await page.keyboard.press('k');
	await sheet.getByLabel('A key for').fill('The boatyard at Oxmere');
	await sheet.getByLabel('Print', { exact: true }).last().uncheck();
	// with an end that nobody understands it is not issued, least of all without one
	const end = sheet.getByRole('textbox', { name: 'Good until: day' });
	await end.fill('when the boats are out');
	await sheet.getByRole('button', { name: 'Issue', exact: true }).click();
	await expect(sheet.getByRole('alert').filter({ hasText: 'is not a day' })).toBeVisible();
	await expect(sheet.getByText('No keys')).toBeVisible();
	await end.fill('31 March 2098');
	await sheet.getByRole('button', { name: 'Issue', exact: true }).click();
	await expect(sheet.getByRole('img', { name: 'The address as a QR code' })).toBeVisible();
	const url = (await sheet.locator('code').textContent())!;
	await sheet.getByRole('button', { name: 'Done' }).click();
	await expect(sheet.locator('code')).toHaveCount(0);
	await sheet.getByRole('combobox', { name: /^As/ }).selectOption({ label: 'whoever holds the key “The boatyard at Oxmere”' });
	await expect(sheet.locator('dt').filter({ hasText: 'Read: yes' })).toBeVisible();
	await expect(sheet.locator('dt').filter({ hasText: 'Print: no' })).toBeVisible();

	const visitor = await people.as('visitor');
	await visitor.goto(url);
	await expect(visitor).toHaveURL(new RegExp(`/d/${slug}$`));
	await visitor.getByRole('link', { name: 'Read', exact: true }).click();
	await expect(visitor.locator('.page[data-loaded] canvas').first()).toBeVisible();
	await page.reload();
	await expect(sheet.getByText(/1 opening, last/)).toBeVisible();
	await expect(sheet.getByText('The boatyard at Oxmere opened it')).toBeVisible();

	await sheet.getByRole('button', { name: 'Withdraw the key' }).click();
	await expect(sheet.getByText('withdrawn', { exact: true })).toBeVisible();
	await visitor.goto(`/d/${slug}/read`);
	await expect(visitor.getByRole('heading', { name: 'This key no longer opens' })).toBeVisible();
});

test('keys of all documents: found by whom they are for, given another last day, withdrawn and given back together', async ({ people, browser }) => {
	const page = await people.as('staff');
	const slug = await brought(page, await chromiumPdf(browser, 'For the divers', 2));
	const issue = (label: string) => page.request.post(`/api/v1/documents/${slug}/keys`, { data: { label } });
	await page.request.patch(`/api/v1/documents/${slug}`, { data: { door: { position: 'keyed' } } });
	const [, second] = [await issue('Diver of the upper pound'), await issue('Diver of the lower pound')];
	const { url } = (await second.json()) as { url: string };
	await page.goto(`/desk/documents/${slug}`);
	await page.getByRole('link', { name: 'All its keys as a list' }).click();
	await page.getByRole('searchbox', { name: 'Find a key' }).fill('lower pound');
	await page.keyboard.press('Enter');
	await expect(page.getByText('Diver of the upper pound')).toHaveCount(0);
	const line = page.getByRole('row').filter({ hasText: 'Diver of the lower pound' });
	await line.getByRole('checkbox').check();
	const bar = page.getByRole('region', { name: 'Keys chosen' });
	await bar.getByRole('textbox', { name: 'Last day of those chosen' }).fill('31 March 2098');
	await bar.getByRole('button', { name: 'Set the last day' }).click();
	await expect(line.getByText('31 March 2098')).toBeVisible();
	await page.getByRole('button', { name: 'Undo' }).click();
	await expect(line.getByText('no end')).toBeVisible();

	const diver = await people.as('visitor');
	await diver.goto(url);
	await expect(diver.getByRole('link', { name: 'Read', exact: true })).toBeVisible();
	await page.getByRole('searchbox', { name: 'Find a key' }).fill('pound');
	await page.keyboard.press('Enter');
	await expect(page.getByText('2 keys shown')).toBeVisible();
	await page.getByRole('checkbox', { name: 'Choose all keys of this page' }).check();
	await bar.getByRole('button', { name: 'Withdraw' }).click();
	await expect(line.getByText('withdrawn', { exact: true })).toBeVisible();
	await diver.goto(`/d/${slug}/read`);
	await expect(diver.getByRole('heading', { name: 'This key no longer opens' })).toBeVisible();
	// the session has gone: one signs in where one is, and it is carried out
	await page.context().clearCookies();
	await bar.getByRole('button', { name: 'Give back' }).click();
	const dialog = page.getByRole('dialog', { name: 'Sign in again' });
	await dialog.getByLabel('Password').fill(signIn().staff.password);
	await dialog.getByLabel('Password').press('Enter');
	await expect(line.getByText('withdrawn', { exact: true })).toHaveCount(0);
	await diver.goto(url);
	await expect(diver.getByRole('link', { name: 'Read', exact: true })).toBeVisible();
});

test('a receipt is asked of several documents at once and taken back, and of one on its sheet', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents');
	const chosen = [rows(page).nth(2), rows(page).nth(3)];
	for (const row of chosen) await row.getByRole('checkbox').check();
	const slugs = await Promise.all(chosen.map(async (row) => (await row.getByRole('link').first().getAttribute('href'))!.replace(/^.*\/|\?.*$/g, '')));
	const asks = () =>
		Promise.all(slugs.map(async (slug) => ((await (await page.request.get(`/api/v1/documents/${slug}`)).json()) as { receipt: string | null }).receipt));
	const before = await asks();
	const bar = page.getByRole('toolbar', { name: 'Change the documents chosen' });
	await bar.getByRole('button', { name: 'Receipt' }).click();
	await page.getByRole('button', { name: 'Yes, for each edition' }).click();
	await expect(note(page)).toContainText('2 documents: members are asked for a receipt of each edition.');
	expect(await asks()).toEqual(['each-edition', 'each-edition']);
	await note(page).getByRole('button', { name: 'Undo' }).click();
	await expect.poll(asks).toEqual(before);

	await page.goto(`/desk/documents/${slugs[0]!}`);
	const select = page.getByLabel('Receipt asked of members');
	await select.selectOption('once');
	await expect(note(page)).toContainText('members who read it are asked to say that they have.');
	expect((await asks())[0]).toBe('once');
	await note(page).getByRole('button', { name: 'Undo' }).click();
	await expect(select).toHaveValue(before[0] ?? '');
	await expect.poll(asks).toEqual(before);
});
