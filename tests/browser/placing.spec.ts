// Writing pages and placing documents on them, in every form; dead ends; the three layouts; other websites.
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { axeLightAndDark, chromiumPdf, drop, expect, origin, signIn, test } from './help';

const outside = () => `http://127.0.0.1:${signIn().ports.outside}`;
const sheetOf = (page: Page) => page.getByRole('complementary', { name: 'This placement' });
const textOf = (page: Page) => page.getByRole('textbox', { name: 'Text of the page' });
const saved = (page: Page) => expect(page.getByTestId('draft-state')).toContainText(/^\s*saved/);

/** A new page, its editor open: what the form of the pages room does, which other tests press. */
async function write(page: Page, title: string, layout = 'article'): Promise<void> {
	const headers = { origin: origin(), accept: 'text/html' };
	const made = await page.request.post('/desk/pages', { headers, form: { title, layout }, maxRedirects: 0 });
	expect(made.status()).toBe(303);
	await page.goto(made.headers().location!);
	await page.getByTestId('draft-state').waitFor();
}

test('from a PDF on the computer to a published placement for a group alone: four actions', async ({ people, browser }) => {
	const bytes = readFileSync(await chromiumPdf(browser, 'Rota of the paddles', 2));
	const page = await people.as('staff');
	await page.goto('/desk/pages');
	let actions = 0;
	const act = async (what: Promise<unknown>) => {
		actions++;
		await what;
	};
	// the page of a group is there already, as on any site
	await act(page.getByRole('link', { name: 'Wardens’ room' }).click());
	await textOf(page).waitFor();
	await act(drop(page, '.ProseMirror > p:first-child', [{ name: 'Rota of the paddles.pdf', bytes }]));
	await expect(page.locator('.arriving, .placement.ProseMirror-selectednode')).toBeVisible();
	const sheet = sheetOf(page);
	await expect(sheet.getByRole('heading', { name: 'Rota of the paddles' })).toBeVisible();
	// it came in shut: that is a dead end, told where it stands
	await expect(sheet).toContainText('Dead end');
	await expect(sheet).toContainText('Lock wardens');
	await act(sheet.getByRole('button', { name: 'Let it follow the page' }).click());
	await expect(sheet).not.toContainText('Dead end');
	// a title that came of the file's name is put right where it stands
	await sheet.getByLabel('It lies in the folder').fill('Rotas');
	await sheet.getByLabel('It lies in the folder').press('Enter');
	await expect(page.getByText('It is in “Rotas” now.')).toBeVisible();
	await sheet.getByLabel('The document is called').fill('Rota of the paddle gear');
	await page.keyboard.press('Tab');
	await expect(sheet.getByRole('heading', { name: 'Rota of the paddle gear' })).toBeVisible();
	await expect(textOf(page)).toContainText('Rota of the paddle gear');
	await act(page.getByRole('button', { name: 'Publish', exact: true }).click());
	await expect(page.getByText('Published at /wardens')).toBeVisible();
	expect(actions).toBeLessThanOrEqual(5);

	const warden = await people.as('member');
	await warden.goto('/wardens');
	await expect(warden.getByRole('link', { name: 'Rota of the paddle gear' })).toBeVisible();
	const visitor = await people.as('visitor');
	await visitor.goto('/d/rota-of-the-paddles');
	await expect(visitor.getByTestId('turned-away')).toBeVisible();
});

test('every press of every form does what it says, and reading over the page returns to the same spot', async ({ people }) => {
	const staff = await people.as('staff');
	const forms = ['text', 'button', 'cover', 'card'] as const;
	const presses = ['page', 'over', 'tab', 'here', 'save'] as const;
	const content = forms.flatMap((form) =>
		presses.map((press) => ({
			type: 'paragraph',
			content: [
				{ type: 'placement', attrs: { document: 'cruising-guide', form, press, words: `${form} ${press}`, ...(form === 'cover' ? { align: 'centre' } : {}) } }
			]
		}))
	);
	const api = (path: string, data: object) => staff.request.post(`/api/v1${path}`, { data, headers: { origin: origin() } });
	await api('/pages', { path: '/every-press', title: 'Every press', inNavigation: false, content: { type: 'doc', content } });
	await api('/pages/every-press/publish', {});
	const page = await people.as('visitor');
	await page.goto('/every-press');
	for (const form of forms) {
		const link = (press: string) =>
			page
				.locator('a')
				.filter({ hasText: `${form} ${press}` })
				.first();
		await link('page').click();
		await expect(page, form).toHaveURL(/\/d\/cruising-guide\?from=/);
		await page.goBack();
		await link('here').click();
		await expect(page, form).toHaveURL(/\/d\/cruising-guide\/read/);
		await page.goBack();
		const [tab] = await Promise.all([page.waitForEvent('popup'), link('tab').click()]);
		await expect(tab, form).toHaveURL(/\/d\/cruising-guide\/read/);
		await tab.close();
		const [file] = await Promise.all([page.waitForEvent('download'), link('save').click()]);
		expect(file.suggestedFilename()).toBe('Cruising guide (web).pdf');
		await link('over').scrollIntoViewIfNeeded();
		const before = await page.evaluate(() => scrollY);
		await link('over').click();
		const room = page.frameLocator('dialog iframe');
		await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible();
		await room.getByRole('button', { name: 'Close' }).click();
		await expect(page.locator('dialog[open]')).toHaveCount(0);
		expect(await page.evaluate(() => scrollY)).toBe(before);
		await expect(page).toHaveURL(/\/every-press$/);
		// the way back of the browser closes it as well
		await link('over').click();
		await expect(page.locator('dialog[open]')).toHaveCount(1);
		await page.goBack();
		await expect(page.locator('dialog[open]')).toHaveCount(0);
	}
	const bare = await people.as('visitor', { javaScriptEnabled: false });
	await bare.goto('/every-press');
	for (const form of forms) {
		await bare
			.locator('a')
			.filter({ hasText: `${form} over` })
			.first()
			.click();
		await expect(bare).toHaveURL(/\/d\/cruising-guide\/read/);
		await bare.goBack();
		const [file] = await Promise.all([
			bare.waitForEvent('download'),
			bare
				.locator('a')
				.filter({ hasText: `${form} save` })
				.first()
				.click()
		]);
		expect(file.suggestedFilename()).toBe('Cruising guide (web).pdf');
	}
});

test('placements are put in by keyboard, by a pasted address and from the shelf; settings show at once and undo covers all', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'By keyboard');
	const text = textOf(page);
	await text.click();
	await page.keyboard.type('Read the ');
	await page.keyboard.press('Alt+p');
	await expect(page.getByRole('combobox', { name: 'Which document' })).toBeFocused();
	await page.keyboard.type('cruising');
	await expect(page.getByRole('option', { name: 'Cruising guide' })).toBeVisible();
	await page.keyboard.press('Enter');
	await expect(page.locator('.placement')).toContainText('Cruising guide (PDF, 22 pages');
	// writing goes on behind it
	await page.keyboard.type(' first.');
	await expect(text).toContainText(/Read the Cruising guide.* first\./);
	await page.locator('.placement').click();
	const sheet = sheetOf(page);
	await sheet.getByRole('button', { name: 'Cover', exact: true }).click();
	const width = () => page.locator('.placement a.cover').evaluate((el) => el.getBoundingClientRect().width);
	expect(await width()).toBe(300);
	await sheet.getByLabel('Width in px or %').fill('180 px');
	await sheet.getByLabel('Width in px or %').press('Enter');
	await expect.poll(width).toBe(180);
	await expect(sheet.locator('.setting.differs')).toContainText('Width');
	await sheet.getByRole('button', { name: 'as the site' }).click();
	await expect.poll(width).toBe(300);
	await sheet.getByRole('button', { name: 'Reading frame' }).click();
	// A5 in 654 px and its sill: as high as one whole page
	const frame = await page.locator('.placement .hold').evaluate((el) => el.getBoundingClientRect());
	expect(Math.abs(frame.height - 46 - (frame.width - 2) * (210 / 148) - 2)).toBeLessThan(4);
	await page.getByRole('button', { name: 'Undo' }).click();
	await page.getByRole('button', { name: 'Undo' }).click();
	await page.getByRole('button', { name: 'Undo' }).click();
	await page.getByRole('button', { name: 'Undo' }).click();
	await expect(page.locator('.placement[data-form=frame]')).toHaveCount(0);

	await text.click();
	await page.keyboard.press('Control+End');
	await text.evaluate((el, address) => {
		const data = new DataTransfer();
		data.setData('text/plain', address);
		el.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
	}, `${origin()}/d/towpath-map/read`);
	await expect(page.locator('.placement').last()).toContainText('Towpath map');
	// links among words that are pasted are placements at once too, words and marks as they were; links elsewhere stay
	await page.keyboard.press('Control+Home');
	await text.evaluate((el, site) => {
		const data = new DataTransfer();
		data.setData(
			'text/html',
			`<p>See <a href="${site}/d/cruising-guide/read#page=2">the <b>hours</b></a> and <a href="https://weather.example.org/">the weather</a>. </p>`
		);
		el.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
	}, origin());
	await expect(page.locator('.placement[data-form=text]', { hasText: 'the hours' })).toHaveCount(1);
	await expect(text.locator('a[href="https://weather.example.org/"]')).toHaveText('the weather');
	await page.keyboard.press('Escape');
	await page.getByRole('button', { name: 'Other tools' }).click();
	await page.getByRole('button', { name: 'Table', exact: true }).click();
	await expect(page.locator('.ProseMirror table th')).toHaveCount(3);
	await page.getByRole('button', { name: 'Row', exact: true }).click();
	await expect(page.locator('.ProseMirror table tr')).toHaveCount(4);
	await page.getByRole('searchbox', { name: 'Find on the shelf' }).fill('archive');
	await expect(page.getByRole('button', { name: /^Place Engineering archive/ })).toBeVisible();
	await saved(page);
	await page.reload();
	await expect(page.locator('.ProseMirror table tr')).toHaveCount(4);
	await expect(page.locator('.placement').last()).toContainText('Towpath map');
});

test('a PDF that is let go on a picture is what the picture leads to', async ({ people, browser }) => {
	const page = await people.as('staff');
	await write(page, 'A picture for a leaflet');
	await textOf(page).click();
	const gate = await page.screenshot({ clip: { x: 0, y: 0, width: 500, height: 260 } });
	await page.getByLabel('Picture', { exact: true }).setInputFiles({ name: 'gate.png', mimeType: 'image/png', buffer: gate });
	const figure = textOf(page).locator('figure');
	await expect(figure.locator('img')).toBeVisible();
	const shown = /\/picture\/[0-9a-f]{64}/.exec((await figure.locator('img').getAttribute('src')) ?? '')?.[0];
	expect(shown).toBeTruthy();
	const bytes = readFileSync(await chromiumPdf(browser, 'Behind the gate', 1));
	await drop(page, '.ProseMirror figure', [{ name: 'behind-the-gate.pdf', bytes }]);
	const placement = page.locator('.placement[data-form=cover]');
	await expect(placement.locator(`img[src^="${shown}"]`)).toBeVisible();
	await expect(figure).toHaveCount(0);
	await saved(page);
	await page.reload();
	await expect(placement.locator(`img[src^="${shown}"]`)).toBeVisible();
	expect((await page.request.get('/api/v1/documents/behind-the-gate')).status()).toBe(200);
});

test('what is set aside is taken out of some of its pages, and stays on others', async ({ people, browser }) => {
	const page = await people.as('staff');
	const headers = { origin: signIn().origin };
	const file = { name: 'two-walls.pdf', mimeType: 'application/pdf', buffer: readFileSync(await chromiumPdf(browser, 'Two walls', 1)) };
	expect((await page.request.post('/api/v1/documents', { headers, multipart: { file } })).status()).toBe(201);
	await page.request.patch('/api/v1/documents/two-walls', { headers, data: { door: { position: 'open' } } });
	for (const wall of ['east', 'west']) {
		const placement = { type: 'placement', attrs: { id: `wall-${wall}`, document: 'two-walls', form: 'text', press: 'page' } };
		const data = {
			path: `/wall-${wall}`,
			title: `The ${wall} wall`,
			content: { type: 'doc', content: [{ type: 'paragraph', content: [placement] }] },
			inNavigation: false
		};
		expect((await page.request.post('/api/v1/pages', { headers, data })).status()).toBe(201);
		expect((await page.request.post(`/api/v1/pages/wall-${wall}/publish`, { headers, data: {} })).ok()).toBe(true);
	}
	await page.goto('/desk/documents/two-walls');
	await page.getByRole('button', { name: 'Set this document aside' }).click();
	const question = page.getByRole('dialog', { name: 'Readers meet “Two walls” in 2 places' });
	await question.getByRole('checkbox', { name: 'Take it out of The west wall' }).uncheck();
	await question.getByRole('button', { name: 'Take the placements out of 1 page and set aside' }).click();
	await expect(page.getByText('“Two walls” is set aside.')).toBeVisible();
	const placed = async (wall: string) => JSON.stringify(await (await page.request.get(`/api/v1/pages/wall-${wall}`)).json()).includes(`"id":"wall-${wall}"`);
	expect([await placed('east'), await placed('west')]).toEqual([false, true]);
});

test('blocks stand on a band from edge to edge, pale or deep, and come out of it again', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'A page with bands');
	const text = textOf(page);
	const tool = async (name: string) => {
		await page.getByRole('button', { name: 'Other tools' }).click();
		await page.getByRole('button', { name, exact: true }).click();
		await expect(text).toBeFocused();
	};
	await text.click();
	await page.keyboard.type('Before the bands.');
	await page.keyboard.press('Enter');
	await page.keyboard.type('On a pale one.');
	await tool('Pale band');
	const band = (tone: string) => text.locator(`[data-band=${tone}]`);
	await expect(band('pale')).toHaveText('On a pale one.');
	// the other tone takes the same band, the same press lets it go
	await tool('Deep band');
	await expect(band('deep')).toHaveText('On a pale one.');
	await expect(band('pale')).toHaveCount(0);
	await tool('Deep band');
	await expect(text.locator('[data-band]')).toHaveCount(0);
	await tool('Pale band');
	// below it one writes on, in no band
	await page.keyboard.press('Control+End');
	await page.keyboard.type('On a deep one: ');
	await page.keyboard.press('Alt+p');
	await page.keyboard.type('cruising');
	await page.getByRole('option', { name: 'Cruising guide' }).click();
	await tool('Deep band');
	await expect(band('deep')).toContainText('Cruising guide');
	await expect(band('pale')).toHaveText('On a pale one.');
	await saved(page);
	await page.reload();
	await expect(band('deep')).toContainText('Cruising guide');
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await expect(page.getByText('Published at /a-page-with-bands')).toBeVisible();

	const visitor = await people.as('visitor');
	await visitor.goto('/a-page-with-bands');
	const [pale, deep] = [visitor.locator('section.pale'), visitor.locator('section.deep')];
	await expect(pale).toHaveText('On a pale one.');
	await expect(deep.getByRole('link', { name: 'Cruising guide' })).toBeVisible();
	for (const width of [1280, 320]) {
		await visitor.setViewportSize({ width, height: 800 });
		expect(await visitor.evaluate(() => document.documentElement.scrollWidth)).toBe(width);
		await deep.scrollIntoViewIfNeeded();
		const box = (await deep.boundingBox())!;
		// what is painted at the window's left edge is what is painted in the band
		const colour = async (x: number) => {
			const { channels } = await sharp(await visitor.screenshot({ clip: { x, y: box.y + 8, width: 2, height: 2 } })).stats();
			return channels.map(({ mean }) => mean);
		};
		const inside = await colour(box.x + 2);
		// it is dark, whichever the theme
		expect(Math.max(...inside)).toBeLessThan(120);
		// a gradient is drawn with a grain of one
		for (const x of [0, width - 2]) for (const [n, value] of (await colour(x)).entries()) expect(Math.abs(value - inside[n]!)).toBeLessThan(3);
	}
	expect(await axeLightAndDark(visitor)).toEqual([]);
});

test('words that are selected become the link to the document, as bold as they were', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'Words that lead');
	await textOf(page).click();
	await page.keyboard.type('Before you set out, read ');
	await page.keyboard.press('Control+b');
	await page.keyboard.type('the guide to cruising');
	await page.keyboard.press('Control+b');
	for (const _ of 'the guide to cruising') await page.keyboard.press('Shift+ArrowLeft');
	await page.getByRole('button', { name: 'Place a document' }).click();
	await page.getByRole('combobox', { name: 'Which document' }).fill('cruising');
	await page.getByRole('option', { name: 'Cruising guide' }).click();
	await expect(sheetOf(page).getByLabel('Words')).toHaveValue('the guide to cruising');
	await expect(textOf(page)).toContainText('Before you set out, read the guide to cruising');
	await saved(page);
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await expect(page.getByText('Published at /words-that-lead')).toBeVisible();

	const visitor = await people.as('visitor');
	await visitor.goto('/words-that-lead');
	const paragraph = visitor.locator('p', { hasText: 'Before you set out' });
	// the words stand there once, and are the link
	await expect(paragraph).toHaveText(/^Before you set out, read the guide to cruising/);
	await expect(paragraph).not.toContainText('the guide to cruising the guide');
	await expect(paragraph.locator('strong').getByRole('link', { name: 'the guide to cruising' })).toHaveAttribute('href', /\/d\/cruising-guide/);
});

test('a picture stands where and as wide as one says, and leads to a page or to a document, which is a placement then', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'A picture that leads');
	await textOf(page).click();
	await page.keyboard.type('Where boats go up.');
	const lock = await page.screenshot({ clip: { x: 0, y: 0, width: 600, height: 300 } });
	await page.getByLabel('Picture', { exact: true }).setInputFiles({ name: 'lock.png', mimeType: 'image/png', buffer: lock });
	const sheet = page.getByRole('complementary', { name: 'This picture' });
	// turned by quarters it stands as high as it was wide; all the way round it is as it came
	const shape = () =>
		textOf(page)
			.locator('figure img')
			.evaluate((img: HTMLImageElement) => img.naturalWidth > img.naturalHeight);
	await expect.poll(shape).toBe(true);
	const quarter = sheet.getByRole('button', { name: 'A quarter to the right' });
	await quarter.click();
	await expect.poll(shape).toBe(false);
	await quarter.click();
	await expect.poll(shape).toBe(true);
	const angle = sheet.getByLabel('Degrees to the right');
	await expect(angle).toHaveValue('180°');
	const address = () => textOf(page).locator('figure img').getAttribute('src');
	await angle.fill('0');
	await angle.press('Enter');
	await expect(angle).toHaveValue('');
	const upright = await address();
	await angle.fill('-8');
	await angle.press('Enter');
	await expect(angle).toHaveValue('-8°');
	await expect.poll(address).not.toBe(upright);
	// every turn is made of the picture as it came
	await angle.fill('0');
	await angle.press('Enter');
	await expect.poll(address).toBe(upright);
	await sheet.getByRole('button', { name: '50%' }).click();
	await sheet.getByRole('button', { name: 'Right, words beside' }).click();
	await sheet.getByLabel('Words below it').fill('The bottom lock');
	await sheet.getByRole('button', { name: 'A document, page or address' }).click();
	const field = page.getByRole('combobox', { name: 'Where it leads' });
	await field.fill('librar');
	await page.getByRole('option', { name: 'Library' }).click();
	await expect(sheet.getByText('/library')).toBeVisible();
	const drawn = textOf(page).locator('figure');
	await expect(drawn).toContainText('The bottom lock');
	await saved(page);
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	// publishing asks what it shows, for those who do not see it
	const question = page.getByRole('dialog', { name: 'What 1 picture shows' });
	await question.getByLabel('What picture 1 shows').fill('A lock with its gates shut');
	await question.getByRole('button', { name: 'Publish' }).click();
	await expect(page.getByText('Published at /a-picture-that-leads')).toBeVisible();
	await expect(sheet.getByLabel('What it shows')).toHaveValue('A lock with its gates shut');

	const visitor = await people.as('visitor');
	await visitor.goto('/a-picture-that-leads');
	const figure = visitor.locator('figure', { hasText: 'The bottom lock' });
	const [column, wide] = [await visitor.locator('.prose-page').boundingBox(), await figure.boundingBox()];
	expect(Math.abs(wide!.width - column!.width / 2)).toBeLessThan(2);
	expect(Math.abs(wide!.x + wide!.width - column!.x - column!.width)).toBeLessThan(2);
	await figure.getByRole('link', { name: 'A lock with its gates shut' }).click();
	await expect(visitor).toHaveURL(/\/library$/);

	// as wide as the page, whatever width was said, and back
	await drawn.click();
	await sheet.getByRole('button', { name: 'As wide as the page' }).click();
	await saved(page);
	const wider = page.waitForResponse((response) => response.url().endsWith('/publish') && response.ok());
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await wider;
	await visitor.goto('/a-picture-that-leads');
	expect((await figure.boundingBox())!.width).toBe(1120);
	await sheet.getByRole('button', { name: 'Right, words beside' }).click();

	// the same picture to a document, by the keyboard
	await drawn.click();
	await page.keyboard.press('Control+k');
	await expect(field).toHaveValue('/library');
	await field.fill('cruising');
	await page.getByRole('option', { name: 'Cruising guide' }).click();
	const placement = page.getByRole('complementary', { name: 'This placement' });
	await expect(placement.getByLabel('Words')).toHaveValue('The bottom lock');
	await expect(placement.getByRole('button', { name: 'Take it away' })).toBeVisible();
	await saved(page);
	// what was said of the first time may stand there still
	const out = page.waitForResponse((response) => response.url().endsWith('/publish') && response.ok());
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await out;
	await visitor.goto('/a-picture-that-leads');
	const leading = visitor.getByRole('link', { name: 'The bottom lock' });
	await expect(leading.getByRole('img')).toHaveAttribute('src', /^\/picture\//);
	// unless one says otherwise it is read over the page
	await leading.click();
	await expect(visitor.locator('dialog iframe')).toHaveAttribute('src', /^\/d\/cruising-guide\/read/);
	await page.goto('/desk/documents/cruising-guide');
	await expect(page.locator('#placed').locator('..')).toContainText('A picture that leads');
});

test('one field asks where words lead: a page, an address, or a document, which is a placement then', async ({ people }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await write(page, 'Where it leads');
	const text = textOf(page);
	const field = page.getByRole('combobox', { name: 'Where it leads' });
	const select = async (words: string) => {
		await page.keyboard.type(words);
		for (const _ of words) await page.keyboard.press('Shift+ArrowLeft');
		await page.keyboard.press('Control+k');
		await expect(field).toBeFocused();
	};
	await text.click();
	// a page, by a part of its title
	await select('our library');
	await field.fill('librar');
	await page.getByRole('option', { name: 'Library' }).click();
	await expect(text.getByRole('link', { name: 'our library' })).toHaveAttribute('href', '/library');
	// an address, as one types it
	await page.keyboard.press('End');
	await page.keyboard.type(' and ');
	await select('the tides');
	await field.fill('tides.example/ternwell');
	await field.press('Enter');
	await expect(text.getByRole('link', { name: 'the tides' })).toHaveAttribute('href', 'https://tides.example/ternwell');
	// what is neither says so and changes nothing
	await page.keyboard.press('End');
	await page.keyboard.type(' and ');
	await select('the rules');
	await field.fill('zzzz');
	await expect(page.getByText('No document or page is called that, and it is no address.')).toBeVisible();
	// a document by its address is no mere link: it is placed, and its settings show; where that cannot be asked, it is said and nothing is changed
	await page.route('**/api/v1/shelf?slug=*', (route) => route.abort());
	await field.fill('/d/not-at-hand');
	await field.press('Enter');
	await expect(page.getByRole('alert')).toBeVisible();
	await page.getByRole('button', { name: 'Close this notice' }).click();
	await expect(text.getByRole('link', { name: 'the rules' })).toHaveCount(0);
	await expect(text.locator('.placement')).toHaveCount(0);
	await page.unroute('**/api/v1/shelf?slug=*');
	await page.getByRole('button', { name: 'Link', exact: true }).click();
	await field.fill('/d/rules-for-fishing');
	await field.press('Enter');
	await expect(sheetOf(page).getByLabel('Words')).toHaveValue('the rules');
	await expect(text.locator('.placement')).toHaveCount(1);
	// the link at the cursor is changed or taken away without selecting it
	await text.getByRole('link', { name: 'our library' }).click();
	await page.getByRole('button', { name: 'Link', exact: true }).click();
	await expect(field).toHaveValue('/library');
	await page.getByRole('button', { name: 'Take the link away' }).click();
	await expect(text.getByRole('link', { name: 'our library' })).toHaveCount(0);
	await expect(text).toContainText('our library');
	await saved(page);
	await page.goto('/desk/documents/rules-for-fishing');
	await expect(page.locator('#placed').locator('..')).toContainText('Where it leads');
});

test('placed from its sheet a document stands at the end of the page, in a line of its own, once', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'At the end');
	await textOf(page).click();
	await page.keyboard.type('What is written stays before it.');
	await saved(page);
	await page.goto('/desk/documents/cruising-guide');
	await page.locator('#placed').getByRole('button', { name: 'Place', exact: true }).click();
	await page.getByRole('link', { name: 'open a page' }).click();
	await page.getByRole('link', { name: 'At the end' }).click();
	const last = textOf(page)
		.locator('> p')
		.filter({ has: page.locator('.placement') });
	await expect(last).toHaveCount(1);
	await expect(last).not.toContainText('What is written');
	await expect(textOf(page).locator('> p').first()).toHaveText('What is written stays before it.');
	await saved(page);
	await page.reload();
	await expect(textOf(page).locator('.placement')).toHaveCount(1);
});

test('from its sheet a document is exchanged for another wherever it stands, and back', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'What to take along');
	await textOf(page).click();
	await page.keyboard.type('Take along ');
	await page.getByRole('button', { name: 'Place a document' }).click();
	await page.getByRole('combobox', { name: 'Which document' }).fill('cruising');
	await page.getByRole('option', { name: 'Cruising guide' }).click();
	await saved(page);
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await expect(page.getByText('Published at /what-to-take-along')).toBeVisible();

	const visitor = await people.as('visitor');
	await page.goto('/desk/documents/cruising-guide');
	const placed = page.locator('#placed').locator('..');
	await expect(placed).toContainText('What to take along');
	await placed.getByRole('button', { name: 'Exchange' }).click();
	const field = placed.getByRole('combobox', { name: 'Which document comes in its place' });
	// Escape leaves it as it is
	await expect(field).toBeFocused();
	await expect(page.getByRole('listbox', { name: 'Documents' })).toBeVisible();
	await page.keyboard.press('Escape');
	await expect(page.getByRole('listbox', { name: 'Documents' })).toHaveCount(0);
	await page.keyboard.press('Escape');
	await expect(field).toHaveCount(0);
	await placed.getByRole('button', { name: 'Exchange' }).click();
	// with nothing asked for, Enter does nothing
	await expect(page.getByRole('listbox', { name: 'Documents' })).toBeVisible();
	await page.keyboard.press('Enter');
	await page.keyboard.type('fishing');
	await expect(placed.getByRole('option', { name: 'Rules for fishing' })).toBeVisible();
	await page.keyboard.press('Enter');
	await expect(page.getByText(/^“Cruising guide” exchanged for “Rules for fishing” in \d+ places?$/)).toBeVisible();
	// the library has it still, as it has everything
	await expect(placed).toContainText(/Placed\s*listed on \d+ pages?/);
	await expect(placed).toContainText('Library, in its list');
	await visitor.goto('/what-to-take-along');
	await expect(visitor.locator('p', { hasText: 'Take along' }).getByRole('link')).toHaveAttribute('href', /\/d\/rules-for-fishing/);
	await page.getByRole('button', { name: /^Undo/ }).click();
	await expect(page.getByText(/^Taken back: “Cruising guide” exchanged/)).toBeVisible();
	await expect(placed).toContainText('What to take along');
	await visitor.reload();
	await expect(visitor.locator('p', { hasText: 'Take along' }).getByRole('link')).toHaveAttribute('href', /\/d\/cruising-guide/);
});

test('a dead end is told while writing, asked about once at publishing, and mended in one press; undo takes it back', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'Leads nowhere');
	await textOf(page).click();
	await page.getByRole('searchbox', { name: 'Find on the shelf' }).fill('handbook');
	await page.getByRole('button', { name: 'Place Lock warden handbook' }).click();
	await expect(sheetOf(page)).toContainText('everyone without Lock wardens');
	await expect(page.locator('.placement.dead-end')).toBeVisible();
	await saved(page);
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	const asks = page.getByRole('dialog');
	await expect(asks).toContainText('Some would be turned away');
	await asks.getByRole('button', { name: 'Publish all the same' }).click();
	await expect(page.getByText('Published at /leads-nowhere')).toBeVisible();
	// it is known now: publishing other words does not ask again, and the bar still names it
	await textOf(page).click();
	await page.keyboard.press('Control+End');
	await page.keyboard.type('Other words.');
	await saved(page);
	await expect(page.getByRole('button', { name: '1 dead end' })).toBeVisible();
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await expect(page.getByText('Published at /leads-nowhere')).toHaveCount(2);
	await expect(asks).toBeHidden();

	await page.goto('/desk/upkeep');
	const line = page.locator('.mismatch').filter({ hasText: 'Leads nowhere' });
	await expect(line).toContainText('Lock warden handbook');
	await line.getByRole('button', { name: 'Narrow the page to those' }).click();
	await expect(line).toHaveCount(0);
	const visitor = await people.as('visitor');
	await visitor.goto('/leads-nowhere');
	await expect(visitor.getByTestId('turned-away')).toBeVisible();
	await page.getByRole('button', { name: 'Undo' }).click();
	await expect(line).toHaveCount(1);
	await page.goto('/desk/documents/lock-warden-handbook');
	const onSheet = page.locator('#placed .mismatch').filter({ hasText: 'Leads nowhere' });
	await onSheet.getByRole('button', { name: 'Show the others a locked card' }).click();
	await expect(onSheet).toHaveCount(0);
	await visitor.reload();
	await expect(visitor.getByRole('link', { name: /For members: sign in to open it/ })).toBeVisible();
});

test('next month’s page begins like this month’s, out of the navigation unless that is wanted: copy, title, write', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/pages');
	await expect(page.getByRole('checkbox', { name: 'In the navigation' })).not.toBeChecked();
	await page
		.getByRole('row', { name: /When the locks open again/ })
		.getByRole('link', { name: 'Copy' })
		.click();
	await expect(page.getByLabel('Title')).toBeFocused();
	await expect(page.getByLabel('Layout')).toHaveCount(0);
	await page.keyboard.type('When the locks close');
	await page.keyboard.press('Enter');
	await expect(page).toHaveURL(/\/desk\/pages\/[0-9a-f-]{36}$/);
	await expect(page.getByLabel('Title')).toHaveValue('When the locks close');
	await expect(textOf(page)).toContainText(/\w{4}/);
	await page.getByRole('button', { name: 'More' }).click();
	await expect(page.getByRole('textbox', { name: 'Path' })).toHaveValue('/when-the-locks-close');
	await expect(page.getByRole('checkbox', { name: 'in the navigation' })).not.toBeChecked();
	await page.getByRole('link', { name: 'Begin a page like this one' }).click();
	await expect(page.getByLabel('Begins')).toHaveValue('like /when-the-locks-close');
	// where the title is missing or taken, what was chosen stays chosen
	await page.getByRole('checkbox', { name: 'In the navigation' }).check();
	await page.getByLabel('Title').fill('When the locks close');
	await page.getByRole('button', { name: 'Write a page' }).click();
	await expect(page.getByRole('alert')).toBeVisible();
	await expect(page.getByLabel('Begins')).toHaveValue('like /when-the-locks-close');
	await expect(page.getByRole('checkbox', { name: 'In the navigation' })).toBeChecked();
	// or with headings of what is written again and again
	await page.getByLabel('Title').fill('Minutes of the lengthsmen');
	await page.getByLabel('Begins').selectOption({ label: 'Minutes' });
	await expect(page.getByLabel('Layout')).toHaveCount(0);
	await page.getByRole('button', { name: 'Write a page' }).click();
	await expect(textOf(page).getByRole('heading')).toHaveText(['Present', 'Decided', 'To be done', 'The minutes as signed']);
	await expect(textOf(page).locator('th')).toHaveText(['Who', 'What', 'Until']);
});

test('drafts go out at a time, are compared and gone back to; a page is found by a part of its title and set aside', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'Changing words');
	await textOf(page).click();
	await page.keyboard.type('The old words stand here.');
	await saved(page);
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await expect(page.getByText('Published at /changing-words')).toBeVisible();
	await textOf(page).click();
	await page.keyboard.press('Control+a');
	await page.keyboard.type('The new words stand here.');
	await expect(page.getByText('Published, changed since')).toBeVisible();
	await saved(page);
	await page.reload();
	await page.getByRole('button', { name: 'More' }).click();
	await page.getByRole('link', { name: 'Compare' }).click();
	await expect(page.locator('del')).toHaveText('old');
	await expect(page.locator('ins')).toHaveText('new');
	await page.getByRole('link', { name: 'Back to writing' }).click();
	await page.getByRole('button', { name: 'More' }).click();
	await page.getByRole('textbox', { name: 'Publish at: day' }).fill('1/3/2099 9:00');
	await page.getByRole('button', { name: 'Set the time' }).click();
	await expect(page.getByText(/Goes out 1 March/)).toBeVisible();
	await page.getByRole('button', { name: 'More' }).click();
	await page.getByRole('button', { name: 'Call it off' }).click();
	await expect(page.getByText(/Goes out/)).toHaveCount(0);
	// its path may change meanwhile
	await page.getByRole('textbox', { name: 'Path' }).fill('/changed-words');
	await page.getByRole('textbox', { name: 'Path' }).press('Tab');
	await expect(page.getByRole('link', { name: '/changed-words' })).toBeVisible();
	await saved(page);
	await page.getByRole('button', { name: 'Go back to it' }).click();
	await expect(textOf(page)).toContainText('The old words stand here.');

	await page.goto('/desk/pages');
	await page.getByLabel('Find a page').fill('ging wor');
	await expect(page.locator('tbody tr')).toHaveCount(1);
	await page.getByLabel('Find a page').press('Enter');
	await textOf(page).waitFor();
	await page.getByRole('button', { name: 'More' }).click();
	await page.getByRole('button', { name: 'Set aside' }).click();
	await expect(page.getByText('“Changing words” is set aside.')).toBeVisible();
	const visitor = await people.as('visitor');
	expect((await visitor.goto('/changed-words'))!.status()).toBe(404);
	await page.getByRole('button', { name: 'Undo' }).click();
	await expect(page.getByRole('link', { name: 'Changing words' })).toBeVisible();
	expect((await visitor.goto('/changed-words'))!.status()).toBe(200);
});

test('a catalogue is made, seen by each as far as they may, and read beside its list', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'Papers of the wardens', 'catalogue');
	await page.getByRole('checkbox', { name: /^Wardens/ }).check();
	await page.getByRole('checkbox', { name: /beside the list/ }).check();
	await saved(page);
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await expect(page.getByText('Published at /papers-of-the-wardens')).toBeVisible();
	const visitor = await people.as('visitor');
	await visitor.goto('/papers-of-the-wardens');
	await expect(visitor.getByText('Lock warden handbook')).toHaveCount(0);
	const warden = await people.as('member');
	await warden.goto('/papers-of-the-wardens');
	await warden.getByRole('link', { name: 'Lock warden handbook' }).click();
	const room = warden.frameLocator('section.beside iframe');
	await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible();
	await warden.getByRole('link', { name: 'Close', exact: true }).click();
	await expect(warden.locator('section.beside')).toHaveCount(0);
	await visitor.goto('/library');
	await visitor.getByRole('group', { name: 'Folder' }).getByRole('link', { name: 'Leaflets 5' }).click();
	await expect(visitor).toHaveURL(/folder=Leaflets/);
	await expect(visitor.locator('ul.list li')).toHaveCount(5);
	await visitor.getByRole('main').getByRole('searchbox').fill('éclusier');
	await visitor.getByRole('main').getByRole('searchbox').press('Enter');
	await expect(visitor.locator('ul.list li')).toHaveCount(1);
});

test('documents are listed inside an article, read beside the list, and narrowed with and without script', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'Listed among words');
	await textOf(page).click();
	await page.keyboard.type('What the wardens and the trustees read.');
	await page.getByRole('button', { name: 'Document list' }).click();
	const sheet = page.getByRole('complementary', { name: 'This list' });
	await expect(sheet.getByRole('status')).toContainText(/^\d+ documents of all there are; newest first/);
	await sheet.getByRole('checkbox', { name: /^Wardens/ }).check();
	await sheet.getByRole('checkbox', { name: /^Leaflets/ }).check();
	await sheet.getByRole('checkbox', { name: /beside the list/ }).check();
	await sheet.getByRole('checkbox', { name: 'Filters and find' }).check();
	await sheet.getByLabel('At most').fill('20');
	await sheet.getByLabel('At most').press('Tab');
	await expect(sheet.getByRole('status')).toContainText(/in Leaflets or Wardens|in Wardens or Leaflets/);
	await expect(sheet.getByRole('status')).toContainText('20 documents at most, each read beside the list');
	await expect(sheet).toContainText(/A visitor sees \d+ of the \d+/);
	await expect(textOf(page).getByText('Lock warden handbook')).toBeVisible();
	// what is drawn leads nowhere; the words before it stay
	await page.locator('.document-list').getByText('Lock warden handbook').click({ force: true });
	await expect(sheet).toBeVisible();
	await saved(page);
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await expect(page.getByText('Published at /listed-among-words')).toBeVisible();
	// saved and loaded again it is as it was made
	await page.reload();
	await page.locator('.document-list .tab').click();
	await expect(sheet.getByRole('checkbox', { name: /^Wardens/ })).toBeChecked();
	await expect(sheet.getByLabel('At most')).toHaveValue('20');

	const visitor = await people.as('visitor');
	await visitor.goto('/listed-among-words');
	await expect(visitor.getByText('Lock warden handbook')).toHaveCount(0);
	const warden = await people.as('member');
	await warden.goto('/listed-among-words');
	await warden.getByRole('link', { name: 'Lock warden handbook' }).click();
	await expect(warden.frameLocator('section.beside iframe').locator('.page[data-loaded] canvas').first()).toBeVisible();
	expect(await warden.locator('section.beside').evaluate((el) => el.getBoundingClientRect().top)).toBeLessThan(500);
	await warden.getByRole('group', { name: 'Folder' }).getByRole('link', { name: 'Wardens 3' }).click();
	await expect(warden.locator('.listing li')).toHaveCount(3);
	await expect(warden.getByText('What the wardens and the trustees read.')).toBeAttached();

	const plain = await people.as('visitor', { javaScriptEnabled: false, viewport: { width: 390, height: 844 } });
	await plain.goto('/listed-among-words');
	await plain.getByRole('main').getByRole('searchbox').fill('éclusier');
	await plain.getByRole('main').getByRole('button', { name: 'Find' }).click();
	await expect(plain.locator('.listing li')).toHaveCount(1);
	await plain.locator('.listing li a').first().click();
	await expect(plain.locator('section.beside')).toBeVisible();
	expect(await plain.locator('section.beside').evaluate((el) => el.getBoundingClientRect().bottom)).toBeLessThan(
		await plain.locator('.listing ul').evaluate((el) => el.getBoundingClientRect().top + 1)
	);
});

test('a page made from a document gets its teaser on the front page: by the door of that page', async ({ people }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await write(page, 'Upper flight');
	await textOf(page).click();
	await page.keyboard.press('Alt+p');
	await page.getByRole('combobox', { name: 'Which document' }).fill('towpath');
	await page.getByRole('option', { name: 'Towpath map' }).click();
	await sheetOf(page).getByRole('button', { name: 'Reading frame' }).click();
	await saved(page);
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await page.getByRole('link', { name: 'Put a teaser on the front page' }).click();
	// the editor of the other page, and nothing of this one
	await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Thirty-one miles of quiet water');
	const sheet = sheetOf(page);
	await expect(sheet.getByRole('combobox', { name: 'Leads to' }).locator('option:checked')).toHaveText('the page “Upper flight”');
	await expect(textOf(page).locator('.placement a.cover', { hasText: 'Upper flight' })).toBeVisible();
	expect(new URL(page.url()).search).toBe('');
	await saved(page);
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await expect(page.getByText('Published at /', { exact: true })).toBeVisible();
	const visitor = await people.as('visitor', { javaScriptEnabled: false });
	await visitor.goto('/');
	await visitor.locator('a.cover', { hasText: 'Upper flight' }).click();
	await expect(visitor).toHaveURL(/\/upper-flight$/);

	// one that leads to a page for few says so, and becomes a placement of the document again
	await page.getByRole('button', { name: 'Teaser' }).click();
	await page.getByRole('combobox', { name: 'Page to which it leads' }).fill('Wardens’ room');
	await page.getByRole('combobox', { name: 'Page to which it leads' }).press('Enter');
	await expect(sheet).toContainText('who cannot open the page “Wardens’ room”, to which it leads');
	await sheet.getByRole('button', { name: 'Show the others a locked card' }).click();
	await expect(sheet).not.toContainText('Dead end');
	await sheet.getByRole('combobox', { name: 'Leads to' }).selectOption({ label: 'the document itself' });
	await expect(sheet.getByRole('button', { name: 'Read over the page' })).toBeVisible();
	await sheet.getByRole('button', { name: 'Take out' }).click();
	// words that are chosen become one; where it could not be asked nothing is changed
	const heading = textOf(page).getByRole('heading', { name: 'Take it with you' });
	const tease = async () => {
		await heading.click();
		// with the blank behind the word, as a double press chooses it on some systems
		for (const key of ['Home', 'Control+Shift+ArrowRight', 'Shift+ArrowRight']) await page.keyboard.press(key);
		await page.getByRole('button', { name: 'Teaser' }).click();
		await page.getByRole('combobox', { name: 'Page to which it leads' }).fill('Upper flight');
		await page.getByRole('combobox', { name: 'Page to which it leads' }).press('Enter');
	};
	await page.context().setOffline(true);
	await tease();
	await expect(page.getByText('The server cannot be reached').first()).toBeVisible();
	await expect(heading.locator('a')).toHaveCount(0);
	await page.context().setOffline(false);
	await tease();
	await expect(sheet.getByRole('button', { name: 'Text link' })).toHaveAttribute('aria-pressed', 'true');
	await expect(heading.locator('a[href="/upper-flight"]')).toHaveText('Take');
	await expect(heading).toHaveText('Take it with you');
	await page.getByRole('button', { name: 'Undo', exact: true }).click();
	await expect(heading.locator('a')).toHaveCount(0);
	await saved(page);
});

test('a pocket page is put in order by keyboard and by hand, rests what it should, and leads back to its list', async ({ people }) => {
	const page = await people.as('staff');
	await write(page, 'In the pocket', 'pocket');
	for (const [part, title] of [
		['cruising', 'Cruising guide'],
		['towpath', 'Towpath map']
	] as const) {
		// kit takes the focus away once it has arrived at a page, and with it what the field has found: then it is asked again
		await expect(async () => {
			await page.getByRole('combobox', { name: 'Add a document' }).fill(part);
			await page.getByRole('option', { name: title }).click({ timeout: 4000 });
		}).toPass({ timeout: 60_000 });
	}
	await page.getByLabel('Address of a link').fill('example.org/tides');
	await page.getByLabel('Words of the link').fill('Tides');
	await page.getByRole('button', { name: 'Add the link' }).click();
	const names = () => page.locator('.name strong').allTextContents();
	expect(await names()).toEqual(['Cruising guide', 'Towpath map', 'Tides']);
	await page.getByRole('button', { name: 'Move Tides' }).press('Alt+ArrowUp');
	await page.getByRole('button', { name: 'Move Tides' }).press('Alt+ArrowUp');
	expect(await names()).toEqual(['Tides', 'Cruising guide', 'Towpath map']);
	// by hand: the last is drawn up over the first
	const [from, to] = [(await page.locator('.handle').nth(2).boundingBox())!, (await page.locator('.handle').nth(0).boundingBox())!];
	await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
	await page.mouse.down();
	await page.mouse.move(from.x + from.width / 2, from.y - 20, { steps: 8 });
	// it is in the hand before it is carried on
	await expect(page.locator('#dnd-action-dragged-el')).toBeVisible();
	// carried until the list has made room for it there: that is looked at five times a second, and only after it has come some way
	await expect(async () => {
		for (const below of [40, 4]) {
			await page.mouse.move(to.x + to.width / 2, to.y + below, { steps: 8 });
			await page.waitForTimeout(300);
		}
		expect((await names())[0]).toBe('Towpath map');
	}).toPass();
	// what is written is saved meanwhile as it was, and nothing is said to be wrong
	await saved(page);
	await expect(page.locator('.trouble')).toHaveCount(0);
	await page.mouse.up();
	await expect.poll(names).toEqual(['Towpath map', 'Tides', 'Cruising guide']);
	await page.getByRole('button', { name: 'Rest', exact: true }).nth(1).click();
	await expect(page.locator('.side')).toContainText('sees 2 of 3');
	await saved(page);
	await page.getByRole('button', { name: 'Publish', exact: true }).click();
	await expect(page.getByText('Published at /in-the-pocket')).toBeVisible();
	const [svg] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'SVG' }).click()]);
	expect(svg.suggestedFilename()).toBe('in-the-pocket-qr.svg');

	const phone = await people.as('visitor', { viewport: { width: 360, height: 740 }, hasTouch: true, isMobile: true });
	await phone.goto('/in-the-pocket');
	expect(await phone.locator('.pocket li strong').allTextContents()).toEqual(['Towpath map', 'Cruising guide']);
	// an entry opens in place, and closes again
	const entry = phone.locator('.pocket details', { hasText: 'Towpath map' });
	const reading = phone.getByRole('link', { name: 'Read Towpath map' });
	await expect(reading).toBeHidden();
	await entry.locator('summary').tap();
	await expect(entry.getByRole('paragraph').filter({ hasText: /PDF, \d+ page/ })).toBeVisible();
	await reading.tap();
	const room = phone.frameLocator('dialog iframe');
	await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible();
	await room.getByRole('button', { name: 'Close' }).tap();
	await expect(phone.locator('dialog[open]')).toHaveCount(0);
	const [file] = await Promise.all([phone.waitForEvent('download'), phone.getByRole('link', { name: 'Save Towpath map' }).tap()]);
	expect(file.suggestedFilename()).toMatch(/\.pdf$/);
	expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
	await entry.locator('summary').tap();
	await expect(reading).toBeHidden();
	await phone.getByText('Pass it on').tap();
	await expect(phone.getByRole('img', { name: 'QR code of this address' })).toBeVisible();
});

test('a preview is for a visitor, a group or a given person, wide, on a tablet or a phone', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/pages');
	await page.getByRole('link', { name: 'Give a day to the canal' }).click();
	await page.getByRole('link', { name: 'Preview', exact: true }).click();
	await expect(page.getByText('For members: sign in to open it').first()).toBeVisible();
	await page.getByRole('combobox', { name: /^as/ }).selectOption({ label: 'a given person…' });
	await page.getByLabel('E-mail address of the person').fill('wren.lockyer@example.org');
	await page.getByLabel('E-mail address of the person').press('Enter');
	await expect(page.getByRole('link', { name: /^Cover of Lock warden handbook/ })).toBeVisible();
	await page.getByRole('link', { name: 'Phone' }).click();
	// as wide as such a screen, for the same person
	const on = (screen: string) => page.frameLocator(`iframe[title="The page on a ${screen}"]`);
	await expect(on('phone').getByRole('link', { name: /^Cover of Lock warden handbook/ })).toBeVisible();
	const widths = () => document.documentElement.clientWidth + document.documentElement.scrollWidth;
	expect(await on('phone').locator('html').evaluate(widths)).toBe(2 * 390);
	await page.getByRole('link', { name: 'Tablet' }).click();
	await expect(on('tablet').getByRole('link', { name: /^Cover of Lock warden handbook/ })).toBeVisible();
	expect(await on('tablet').locator('html').evaluate(widths)).toBe(2 * 820);
	// what is pressed is pressed as that person: a page leads to its draft, a document to its door, tried beside the preview
	await on('tablet').getByRole('link', { name: 'Library' }).first().click();
	await expect(on('tablet').getByRole('heading', { name: 'Library', level: 1 })).toBeVisible();
	await page.getByRole('link', { name: 'Wide' }).click();
	await expect(page).toHaveURL(/as=member%3Awren/);
	const opened = page.waitForEvent('popup');
	await page.getByRole('link', { name: /^Cover of Lock warden handbook/ }).click();
	const beside = await opened;
	await expect(beside).toHaveURL(/\/desk\/try\?path=%2Fd%2Flock-warden-handbook.*as=member%3Awren/);
	await expect(beside.getByText('Read: yes.')).toBeVisible();
	await page.getByRole('link', { name: 'Library' }).first().click();
	await expect(page).toHaveURL(/\/preview\?as=member%3Awren/);
	await expect(page.getByRole('heading', { name: 'Library', level: 1 })).toBeVisible();
});

test('on another website a document is read in a frame and by its element, under that website’s name in the ledger', async ({ people }) => {
	const page = await people.as('visitor');
	await page.goto(`${outside()}/`);
	const room = page.frameLocator('iframe');
	await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible();
	const frame = (await page.locator('iframe').boundingBox())!;
	expect(frame.height).toBeGreaterThan(frame.width);
	const staff = await people.as('staff');
	await expect
		.poll(async () => {
			const { items } = (await (await staff.request.get('/api/v1/documents/cruising-guide/ledger?limit=20')).json()) as {
				items: { kind: string; source: { kind: string; site?: string } }[];
			};
			return items.some((e) => e.kind === 'opened' && e.source.kind === 'outside' && e.source.site === new URL(outside()).host);
		})
		.toBe(true);
	// the same site under a name that is not on the list
	await page.goto(`${outside().replace('127.0.0.1', 'localhost')}/`);
	await expect(page.frameLocator('iframe').getByRole('link', { name: 'Open on its own site' })).toBeVisible();

	await page.goto(`${outside()}/elements`);
	const element = (form: string) => page.locator(`ianua-document[form=${form}]`);
	await expect(element('card').locator('img')).toBeVisible();
	await element('frame').scrollIntoViewIfNeeded();
	await expect(element('frame').frameLocator('iframe').locator('.page[data-loaded] canvas').first()).toBeVisible();
	for (const form of ['text', 'button', 'cover', 'card'])
		for (const [press, address] of [
			['page', /\/d\/cruising-guide$/],
			['tab', /\/d\/cruising-guide\/read$/],
			['here', /\/d\/cruising-guide\/read$/],
			['save', /\/d\/cruising-guide\/file\?save$/]
		] as const) {
			await element(form).evaluate((el, value) => el.setAttribute('press', value), press);
			const link = element(form).locator(`a.${form}`);
			await expect(link).toHaveAttribute('href', address);
			await expect(link).toHaveAttribute('target', press === 'tab' ? '_blank' : '');
		}
	// what is not open to everyone shows what stands inside the element
	await element('card').evaluate((el, src) => {
		const kept = document.createElement('ianua-document');
		kept.id = 'kept';
		kept.setAttribute('src', src);
		kept.innerHTML = '<a href="#">Ask the society</a>';
		el.after(kept);
	}, `${origin()}/d/lock-warden-handbook`);
	await expect(page.locator('#kept a')).toHaveText('Ask the society');
	const bare = await people.as('visitor', { javaScriptEnabled: false });
	await bare.goto(`${outside()}/forms`);
	await bare.getByRole('link', { name: 'Cruising guide', exact: true }).click();
	await expect(bare.getByRole('heading', { name: 'Cruising guide' })).toBeVisible();
});

test('a list of documents stands on another website: what is open and listed, under its strict policy, and follows the site', async ({ people }) => {
	const page = await people.as('visitor');
	// the page lets in nothing but what the guide names (standins/outside-site.ts)
	await page.goto(`${outside()}/list`);
	const list = page.locator('ianua-list');
	const covers = list.locator('li ianua-document a.cover');
	const threeAsLines = () =>
		list.evaluate((el) => {
			el.removeAttribute('folder');
			el.setAttribute('show', 'list');
			el.setAttribute('most', '3');
		});
	await expect(covers.first().locator('img')).toBeVisible();
	const { items } = (await (await page.request.get(`${origin()}/documents.json?folder=Guides`)).json()) as { items: { title: string }[] };
	expect(items.length).toBeGreaterThan(1);
	await expect(covers).toHaveCount(items.length);
	// covers stand beside each other: the sheet of the element is not refused
	const [first, second] = [(await covers.nth(0).boundingBox())!, (await covers.nth(1).boundingBox())!];
	expect(second.x).toBeGreaterThan(first.x + first.width);
	// pressed, it opens over this page
	await covers.first().click();
	await expect(list.locator('dialog')).toBeVisible();
	await list.getByRole('button', { name: 'Close' }).click();
	await expect(list.locator('dialog')).toHaveCount(0);
	// another topic, and one that nothing has
	await list.evaluate((el) => el.setAttribute('folder', 'No such folder'));
	await expect(list.getByText('Nothing is listed here.')).toBeVisible();
	await threeAsLines();
	await expect(list.locator('li ianua-document a.text')).toHaveCount(3);
	// what is shut on the site is gone here
	const staff = await people.as('staff');
	const titles = await list.locator('li ianua-document a.text').allTextContents();
	const listed = (await (await staff.request.get(`${origin()}/documents.json?most=1`)).json()) as { items: { href: string; title: string }[] };
	const { href, title } = listed.items[0]!;
	expect(titles[0]).toBe(title);
	const address = href.replace('/d/', '/api/v1/documents/');
	const { before } = (await (await staff.request.patch(address, { data: { door: { listed: false } } })).json()) as { before: object };
	await page.reload();
	await expect(covers.first()).toBeVisible();
	await threeAsLines();
	await expect(list.locator('li ianua-document a.text').first()).not.toHaveText(title);
	await staff.request.patch(address, { data: before });
});

test('the code to copy is copied, says so, and can be selected', async ({ people }) => {
	const page = await people.as('staff', { permissions: ['clipboard-read', 'clipboard-write'] });
	await page.goto('/desk/documents/cruising-guide');
	await page.getByText('Reading frame: how it stands there, its code, its address').click();
	await page.getByRole('button', { name: 'Copy the code' }).click();
	await expect(page.getByText('The code is copied.')).toBeVisible();
	const code = await page.evaluate(() => navigator.clipboard.readText());
	expect(code).toContain(`<iframe src="${origin()}/embed/cruising-guide"`);
	await expect(page.getByLabel('Code to copy')).toHaveValue(code);
	await page.getByRole('button', { name: 'QR', exact: true }).click();
	await expect(page.locator('.qr svg')).toBeVisible();
});

test('the site’s colours are refused where they cannot be read, and its look follows the rest', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/settings');
	await page.getByLabel('Colour of links and buttons').fill('#9ad0c0');
	await expect(page.getByText(/could not be read/)).toBeVisible();
	await page.getByRole('button', { name: /the nearest that passes/ }).click();
	await expect(page.getByText(/could not be read/)).toHaveCount(0);
	await page.locator('form.look').first().getByRole('button', { name: 'Set it' }).click();
	await expect(page.getByText('Set for the whole site.')).toBeVisible();
	await page.getByRole('button', { name: 'Undo' }).click();
	await page.getByRole('button', { name: 'Library: earlier' }).click();
	await expect(page.locator('.nav li strong').first()).toHaveText('Library');
	await page.getByRole('button', { name: 'Undo' }).last().click();
	await expect(page.locator('.nav li strong').first()).toHaveText('Give a day to the canal');
});

test('each part of the settings is led to by the list beside them, and the time zone can be changed and changed back', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/settings');
	const list = page.getByRole('navigation', { name: 'On this page' }).getByRole('link');
	const headings = page.locator('section > h2');
	await expect(list).toHaveCount(await headings.count());
	for (const link of await list.all()) {
		const part = page.locator((await link.getAttribute('href'))!);
		await expect(part.getByRole('heading', { level: 2 })).toHaveCount(1);
	}
	await list.filter({ hasText: 'Tokens' }).click();
	await expect(page.getByRole('heading', { name: 'Tokens for programs' })).toBeInViewport();
	await page.getByLabel('Time zone').selectOption('Asia/Kathmandu');
	await expect(page.getByText('Set for the whole site.')).toBeVisible();
	await page.getByRole('button', { name: 'Undo' }).click();
	await expect(page.getByLabel('Time zone')).toHaveValue('Europe/London');
});

test('looking at a page in the editor, and choosing what is placed there, changes nothing of it', async ({ people }) => {
	const page = await people.as('staff');
	const written: string[] = [];
	page.on('request', (request) => {
		if (request.method() === 'PUT') written.push(request.url());
	});
	await page.goto('/desk/pages');
	await page.getByRole('link', { name: 'Water levels' }).click();
	await page.getByTestId('draft-state').waitFor();
	const frame = page.locator('.placement[data-form="frame"]');
	await expect(frame.locator('img')).toBeVisible();
	const size = async () => {
		const { width, height } = (await frame.boundingBox())!;
		return [width, height];
	};
	const before = await size();
	expect(before[0]).toBeGreaterThan(600);
	await frame.click({ position: { x: 200, y: 100 } });
	await expect(sheetOf(page)).toBeVisible();
	expect(await size()).toEqual(before);
	// longer than it takes to save a change
	await page.waitForTimeout(1_500);
	expect(written).toEqual([]);
	await expect(page.getByText('changed since')).toHaveCount(0);
});

test('the first press on a placement chooses it, also where the page ends with one', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/pages');
	await page.getByRole('link', { name: 'Two hundred years in an afternoon' }).click();
	const cards = page.locator('.ProseMirror [data-placement]');
	await expect(cards.last()).toBeVisible();
	// nothing had the focus before; no words are said of it in the console either (help.ts looks)
	await cards.last().locator('a').first().click();
	await expect(page.locator('.ProseMirror .ProseMirror-selectednode')).toHaveCount(1);
	await expect(page.getByRole('button', { name: 'Take out' })).toBeVisible();
});

test('axe finds nothing against WCAG 2.2 AA where pages are made', async ({ people }) => {
	const page = await people.as('staff', { reducedMotion: 'reduce' });
	for (const title of ['Give a day to the canal', 'Leaflets', 'On the boat']) {
		await page.goto('/desk/pages');
		await page.getByRole('link', { name: title }).click();
		await page.getByTestId('draft-state').waitFor();
		if (title.startsWith('Give')) await page.locator('.placement').first().click();
		if (title === 'On the boat') await page.locator('.name').first().click();
		await page.waitForLoadState('networkidle');
		expect(await axeLightAndDark(page), title).toEqual([]);
	}
});
