// The jobs of a week, each in at most so many actions: one press, one drop, one choice, one field filled, one shortcut. Signed in, the Documents room or
// the page in question open. `npm run bench -- jobs` prints how many each took.
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import type { Browser, Locator, Page } from '@playwright/test';
import PDFDocument from 'pdfkit';
import { chromiumPdf, drop, expect, hold, letGo, signIn, test, type People } from './help';

/** Counts what somebody does; what is wanted afterwards ("4; 1; 1") is counted by itself. */
class Actions {
	count = 0;
	readonly later: { readonly act: Actions; readonly wanted: number }[] = [];
	constructor(readonly page: Page) {}
	then(wanted: number): Actions {
		const act = new Actions(this.page);
		this.later.push({ act, wanted });
		return act;
	}
	press = (what: Locator) => this.do(what.click());
	choose = (what: Locator, label: string) => this.do(what.selectOption({ label }));
	fill = (what: Locator, text: string) => this.do(what.fill(text));
	check = (what: Locator) => this.do(what.check());
	/** A shortcut, or the key that ends a field. */
	key = (name: string) => this.do(this.page.keyboard.press(name));
	/** Words typed where the focus is. */
	type = (text: string) => this.do(this.page.keyboard.type(text));
	async do(what: Promise<unknown>): Promise<void> {
		this.count++;
		await what;
	}
}

/** A job done by a member of staff, in at most `wanted` actions; what `work` gives looks whether it was done, as those whom it was done for. */
function job(
	number: string,
	words: string,
	wanted: number,
	work: (act: Actions, page: Page, people: People, browser: Browser) => Promise<() => Promise<void>>
): void {
	test(`${number}: ${words}, in ${wanted} ${wanted === 1 ? 'action' : 'actions'}`, async ({ people, browser }) => {
		const page = await people.as('staff');
		const act = new Actions(page);
		const outcome = await work(act, page, people, browser);
		await outcome();
		const parts = [{ act, wanted }, ...act.later];
		const said = (type: string, of: (part: (typeof parts)[number]) => number) => ({ type, description: parts.map(of).join('; ') });
		test.info().annotations.push(
			said('actions', (part) => part.act.count),
			said('wanted', (part) => part.wanted)
		);
		for (const part of parts) expect(part.act.count, 'actions').toBeLessThanOrEqual(part.wanted);
	});
}

const textOf = (page: Page) => page.getByRole('textbox', { name: 'Text of the page' });
const publish = (page: Page) => page.getByRole('button', { name: 'Publish', exact: true });

/** An article with a sentence, published, its editor open; by the API, as it is no part of the job. */
async function sentence(page: Page, path: string, words: string, more: object[] = []): Promise<void> {
	const content = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }, ...more] };
	const headers = { origin: signIn().origin };
	expect((await page.request.post('/api/v1/pages', { headers, data: { path, title: `Job ${path.slice(1)}`, content, inNavigation: false } })).status()).toBe(
		201
	);
	expect((await page.request.post(`/api/v1/pages/${encodeURIComponent(path)}/publish`, { headers, data: {} })).ok()).toBe(true);
	// where staff who read it may edit it
	await page.goto(/\/desk\/pages\/[0-9a-f-]{36}/.exec(await (await page.request.get(path)).text())![0]);
	await textOf(page).waitFor();
}
/** A document brought in by the API, shut. */
async function bringIn(page: Page, path: string): Promise<void> {
	const multipart = { file: { name: basename(path), mimeType: 'application/pdf', buffer: readFileSync(path) } };
	expect((await page.request.post('/api/v1/documents', { headers: { origin: signIn().origin }, multipart })).status()).toBe(201);
}
/** A PDF of one page with these words. */
function onePage(words: string): Promise<Buffer> {
	const made = new PDFDocument({ size: 'A5' });
	const chunks: Buffer[] = [];
	made.on('data', (chunk: Buffer) => chunks.push(chunk));
	made.text(words).end();
	return new Promise((done) => made.on('end', () => done(Buffer.concat(chunks))));
}
/** Opens the sheet of a document from the list, in which it is in sight. */
async function openSheet(act: Actions, page: Page, title: string): Promise<void> {
	await page.goto(`/desk/documents?q=${encodeURIComponent(title)}`);
	await act.press(page.getByRole('link', { name: title, exact: true }).first());
	await page.getByTestId('door-sentence').waitFor();
}
/** A picture kept by the site, by the API. */
async function keptPicture(page: Page): Promise<object> {
	const buffer = await page.screenshot({ clip: { x: 0, y: 0, width: 300, height: 200 } });
	const multipart = { file: { name: 'wall.png', mimeType: 'image/png', buffer } };
	const answer = await page.request.post('/api/v1/pictures', { headers: { origin: signIn().origin }, multipart });
	return (await answer.json()) as object;
}
const selectWord = (page: Page, word: string) =>
	textOf(page).evaluate((el, sought) => {
		const walker = document.createTreeWalker(el, NodeFilter.SHOW_TEXT);
		for (let node = walker.nextNode(); node; node = walker.nextNode()) {
			const at = node.textContent!.indexOf(sought);
			if (at < 0) continue;
			getSelection()!.setBaseAndExtent(node, at, node, at + sought.length);
			return;
		}
		throw new Error(`no “${sought}” there`);
	}, word);

/** Files to be dropped. */
const filesAt = (...paths: string[]) => paths.map((path) => ({ name: basename(path), bytes: readFileSync(path) }));
/** One drop: files of the computer held over the page, and let go on a spot that then shows. */
async function dropOn(page: Page, spot: string, paths: readonly string[]): Promise<void> {
	const held = await hold(page, '.ProseMirror > :first-child', filesAt(...paths));
	await letGo(held, page.getByRole('group', { name: spot, exact: true }));
}
const settingsOf = (page: Page) => page.getByRole('complementary', { name: 'This placement' });
const published = (page: Page, path: string) => expect(page.getByText(`Published at ${path}`, { exact: true })).toBeVisible();
const endAndFollow = 'At the end, and it follows the page';

job('1', 'a page found by its title, a PDF at its end as a link with its size, published', 4, async (act, page, people, browser) => {
	await sentence(page, '/job-one', 'The wharf in winter.');
	const pdf = await chromiumPdf(browser, 'Winter at the wharf', 2);
	await page.goto('/desk/pages');
	await act.fill(page.getByRole('searchbox', { name: 'Find a page' }), 'job-one');
	await act.key('Enter');
	await textOf(page).waitFor();
	await act.do(dropOn(page, endAndFollow, [pdf]));
	await expect(page.getByText('“Winter at the wharf” follows the page.')).toBeVisible();
	await act.press(publish(page));
	await published(page, '/job-one');
	return async () => {
		const visitor = await people.as('visitor');
		await visitor.goto('/job-one');
		await expect(visitor.locator('main p', { hasText: 'Winter at the wharf' })).toContainText(/PDF, 2 pages, \d+ kB/);
		await visitor.getByRole('link', { name: /Winter at the wharf/ }).click();
		await expect(visitor.getByRole('link', { name: 'Read', exact: true })).toBeVisible();
	};
});

job('1 afterwards', 'without its size, in the same tab', 4, async (act, page, people) => {
	const placement = { id: 'job-one-after', document: 'towpath-map', form: 'text', press: 'tab' };
	await sentence(page, '/job-one-after', 'The line:', [{ type: 'paragraph', content: [{ type: 'placement', attrs: placement }] }]);
	await act.press(textOf(page).locator('.placement'));
	await act.press(settingsOf(page).getByRole('checkbox', { name: 'size' }));
	await act.press(settingsOf(page).getByRole('button', { name: 'Same tab' }));
	await act.press(publish(page));
	await published(page, '/job-one-after');
	return async () => {
		const visitor = await people.as('visitor');
		await visitor.goto('/job-one-after');
		await expect(visitor.locator('main p', { hasText: 'Towpath map' })).not.toContainText('kB');
		const link = visitor.locator('main').getByRole('link', { name: /Towpath map/ });
		await expect(link).not.toHaveAttribute('target', '_blank');
	};
});

job('2', 'a new page with a PDF as a button, looked at as a visitor, published', 6, async (act, page, people, browser) => {
	const pdf = await chromiumPdf(browser, 'Mooring rules', 3);
	await page.goto('/desk/pages');
	await act.fill(page.getByLabel('Title'), 'Job two');
	await act.press(page.getByRole('button', { name: 'Write a page' }));
	await textOf(page).waitFor();
	await act.do(dropOn(page, endAndFollow, [pdf]));
	await expect(page.getByText('“Mooring rules” follows the page.')).toBeVisible();
	await act.press(settingsOf(page).getByRole('button', { name: 'Button' }));
	await act.press(page.getByRole('link', { name: 'Preview', exact: true }));
	await page.waitForURL(/\/preview/);
	await expect(page.getByRole('link', { name: /Mooring rules/ })).toBeVisible();
	await page.goBack();
	await act.press(publish(page));
	await published(page, '/job-two');
	const visitor = await people.as('visitor');
	await visitor.goto('/job-two');
	await visitor
		.locator('main')
		.getByRole('link', { name: /Mooring rules/ })
		.click();
	await expect(visitor.getByRole('link', { name: 'Read', exact: true })).toBeVisible();
	// then as a frame to read in: what was chosen is chosen still
	const frame = act.then(2);
	await frame.press(settingsOf(page).getByRole('button', { name: 'Reading frame' }));
	const out = page.waitForResponse((response) => response.url().endsWith('/publish') && response.ok());
	await frame.press(publish(page));
	await out;
	return async () => {
		await visitor.goto('/job-two');
		await expect(visitor.frameLocator('iframe[title="Mooring rules"]').locator('.page[data-loaded] canvas').first()).toBeVisible();
	};
});

job('3 words', 'a shut document, readable to whom the page is, as the words chosen in the text', 3, async (act, page, people, browser) => {
	await bringIn(page, await chromiumPdf(browser, 'Sluice keeper’s notes', 2));
	await sentence(page, '/job-three', 'Read the sluice keeper’s notes before spring.');
	await act.do(selectWord(page, 'sluice keeper’s notes'));
	await act.key('Control+k');
	await act.press(page.getByRole('option', { name: '“Sluice keeper’s notes”, and let it follow the page' }));
	await expect(page.getByText('“Sluice keeper’s notes” follows the page.')).toBeVisible();
	return async () => {
		await publish(page).click();
		await published(page, '/job-three');
		const visitor = await people.as('visitor');
		await visitor.goto('/job-three');
		await visitor.getByRole('link', { name: 'sluice keeper’s notes' }).click();
		await expect(visitor.getByRole('link', { name: 'Read', exact: true })).toBeVisible();
	};
});

job('3 cover', 'the same as its cover', 3, async (act, page, people, browser) => {
	await bringIn(page, await chromiumPdf(browser, 'Ledger of tolls', 2));
	await sentence(page, '/job-three-cover', 'What the tolls were:');
	await textOf(page).click();
	await act.press(page.getByRole('button', { name: 'Place a document' }));
	await act.press(page.getByRole('option', { name: '“Ledger of tolls”, and let it follow the page' }));
	await expect(page.getByText('“Ledger of tolls” follows the page.')).toBeVisible();
	await act.press(settingsOf(page).getByRole('button', { name: 'Cover', exact: true }));
	return async () => {
		await publish(page).click();
		await published(page, '/job-three-cover');
		const visitor = await people.as('visitor');
		await visitor.goto('/job-three-cover');
		await visitor.locator('a.cover').click();
		await expect(visitor.getByRole('link', { name: 'Read', exact: true })).toBeVisible();
	};
});

job('3 picture', 'the same as a picture of one’s own that is pressed', 4, async (act, page, people, browser) => {
	await bringIn(page, await chromiumPdf(browser, 'Tolls by lock', 2));
	await sentence(page, '/job-three-picture', 'The board of tolls:', [{ type: 'picture', attrs: await keptPicture(page) }]);
	await act.press(textOf(page).locator('.picture img'));
	await act.key('Control+k');
	await act.type('tolls by lock');
	await act.press(page.getByRole('option', { name: '“Tolls by lock”, and let it follow the page' }));
	await expect(page.getByText('“Tolls by lock” follows the page.')).toBeVisible();
	return async () => {
		await publish(page).click();
		await published(page, '/job-three-picture');
		const visitor = await people.as('visitor');
		await visitor.goto('/job-three-picture');
		await expect(visitor.locator('main a.cover img')).toHaveAttribute('src', /^\/picture\//);
		await visitor.locator('main a.cover').click();
		await expect(visitor.locator('.page[data-loaded] canvas, iframe').first()).toBeVisible();
		const outsider = await people.as('visitor');
		await outsider.goto('/d/tolls-by-lock');
		await expect(outsider.getByRole('link', { name: 'Read', exact: true })).toBeVisible();
	};
});

job('4', 'code for another website’s page, that site allowed, the document opened', 4, async (act, page, people, browser) => {
	await bringIn(page, await chromiumPdf(browser, 'Boat race entry form', 2));
	await openSheet(act, page, 'Boat race entry form');
	await act.press(page.getByRole('radiogroup', { name: 'Door' }).getByText('Open', { exact: true }));
	await expect(page.getByTestId('door-sentence')).toContainText('Everyone may');
	await act.fill(page.getByLabel('Which website will show it'), 'https://www.regatta.example/entries');
	await act.press(page.getByRole('button', { name: 'Allow and copy' }));
	await expect(page.getByText('www.regatta.example may frame documents.')).toBeVisible();
	return async () => {
		const answer = await page.request.get('/embed/boat-race-entry-form', { headers: { referer: 'https://www.regatta.example/' } });
		expect(answer.headers()['content-security-policy']).toMatch(/frame-ancestors 'self'[^;]* www\.regatta\.example/);
		await expect(page.getByLabel('Code to copy')).toHaveValue(/<iframe src="[^"]+\/embed\/boat-race-entry-form"/);
	};
});

job('5', 'a titled section with the PDF to read in it, under what is there', 5, async (act, page, people, browser) => {
	await sentence(page, '/job-five', 'What there is already.');
	const pdf = await chromiumPdf(browser, 'Order of the day', 2);
	await act.do(dropOn(page, endAndFollow, [pdf]));
	await expect(page.getByText('“Order of the day” follows the page.')).toBeVisible();
	await act.press(settingsOf(page).getByRole('button', { name: 'Reading frame' }));
	await act.do(
		(async () => {
			await settingsOf(page).getByLabel('Heading above it').fill('The day itself');
			await page.keyboard.press('Tab');
		})()
	);
	await act.press(publish(page));
	await published(page, '/job-five');
	return async () => {
		const visitor = await people.as('visitor');
		await visitor.goto('/job-five');
		await expect(visitor.locator('.prose-page > *').first()).toHaveText('The day itself');
		await expect(visitor.frameLocator('iframe').locator('.page[data-loaded] canvas').first()).toBeVisible();
	};
});

job('6', 'documents with filters on a page of their own, one read beside the list', 5, async (act, page, people) => {
	await page.goto('/desk/pages');
	await act.fill(page.getByLabel('Title'), 'Job six catalogue');
	await act.choose(page.getByRole('combobox', { name: /^Layout/ }), 'Catalogue');
	await act.press(page.getByRole('button', { name: 'Write a page' }));
	await act.check(page.getByRole('checkbox', { name: /^Leaflets/ }));
	await act.press(publish(page));
	await published(page, '/job-six-catalogue');
	return async () => {
		const visitor = await people.as('visitor');
		await visitor.goto('/job-six-catalogue');
		await expect(visitor.getByRole('main').getByRole('searchbox')).toBeVisible();
		await visitor
			.locator('main')
			.getByRole('link', { name: /^Heritage trail: Ternwell/ })
			.first()
			.click();
		await expect(visitor.frameLocator('main iframe').locator('.page[data-loaded] canvas').first()).toBeVisible();
	};
});

job('6 in an article', 'documents of a folder listed among words, with filters', 4, async (act, page, people) => {
	await sentence(page, '/job-six', 'What the wardens read.');
	await textOf(page).click();
	const sheet = page.getByRole('complementary', { name: 'This list' });
	await act.press(page.getByRole('button', { name: 'Document list' }));
	await act.check(sheet.getByRole('checkbox', { name: /^Wardens/ }));
	await act.check(sheet.getByRole('checkbox', { name: 'Filters and find' }));
	await act.press(publish(page));
	await expect(page.getByText('Published at /job-six')).toBeVisible();
	return async () => {
		const warden = await people.as('member');
		await warden.goto('/job-six');
		await expect(warden.getByRole('link', { name: 'Lock warden handbook' })).toBeVisible();
		await expect(warden.getByRole('main').getByRole('searchbox')).toBeVisible();
		const visitor = await people.as('visitor');
		await visitor.goto('/job-six');
		await expect(visitor.getByText('Lock warden handbook')).toHaveCount(0);
		await expect(visitor.getByText('There is nothing here to read yet.')).toBeVisible();
	};
});

job('7', 'a page for one group with a frame, the document for them too', 6, async (act, page, people, browser) => {
	const pdf = await chromiumPdf(browser, 'Duty rota', 2);
	await page.goto('/desk/pages');
	await act.fill(page.getByLabel('Title'), 'Job seven');
	await act.choose(page.getByRole('combobox', { name: /^For/ }), 'Lock wardens');
	await act.press(page.getByRole('button', { name: 'Write a page' }));
	await textOf(page).waitFor();
	await act.do(dropOn(page, endAndFollow, [pdf]));
	await expect(page.getByText('“Duty rota” follows the page.')).toBeVisible();
	await act.press(settingsOf(page).getByRole('button', { name: 'Reading frame' }));
	await act.press(publish(page));
	await published(page, '/job-seven');
	return async () => {
		const warden = await people.as('member');
		await warden.goto('/job-seven');
		await expect(warden.frameLocator('iframe').locator('.page[data-loaded] canvas').first()).toBeVisible();
		const visitor = await people.as('visitor');
		await visitor.goto('/job-seven');
		await expect(visitor.getByText('Duty rota')).toHaveCount(0);
		expect((await visitor.request.get('/d/duty-rota/file')).status()).toBe(401);
	};
});

job('8', 'a PDF of the computer read in place on a new page, and a cover that leads there on the front page', 8, async (act, page, people, browser) => {
	const bytes = readFileSync(await chromiumPdf(browser, 'Upper flight by water', 2));
	await page.goto('/desk/pages');
	await act.fill(page.getByLabel('Title'), 'The flight in full');
	await act.press(page.getByRole('button', { name: 'Write a page' }));
	await textOf(page).waitFor();
	await act.do(drop(page, '.ProseMirror > p:first-child', [{ name: 'Upper flight by water.pdf', bytes }]));
	const sheet = page.getByRole('complementary', { name: 'This placement' });
	await expect(sheet).toContainText('Dead end');
	await act.press(sheet.getByRole('button', { name: 'Let it follow the page' }));
	await act.press(sheet.getByRole('button', { name: 'Reading frame' }));
	await act.press(publish(page));
	await act.press(page.getByRole('link', { name: 'Put a teaser on the front page' }));
	await expect(sheet.getByRole('combobox', { name: 'Leads to' }).locator('option:checked')).toHaveText('the page “The flight in full”');
	await expect(sheet.getByLabel('Width in px')).toHaveValue('300 px');
	await expect(page.getByTestId('draft-state')).toContainText(/^\s*saved/);
	await act.press(publish(page));
	return async () => {
		await expect(page.getByText('Published at /', { exact: true })).toBeVisible();
		const visitor = await people.as('visitor');
		await visitor.goto('/');
		await visitor.locator('a.cover', { hasText: 'The flight in full' }).click();
		await expect(visitor.frameLocator('iframe').locator('.page[data-loaded] canvas').first()).toBeVisible();
	};
});

job('10', 'words chosen in a sentence become a link to a document', 3, async (act, page, people) => {
	await sentence(page, '/job-ten', 'Look at the towpath map before you set out.');
	await act.do(selectWord(page, 'towpath map'));
	await act.key('Control+k');
	await expect(page.getByRole('option', { name: 'Towpath map' })).toBeVisible();
	await act.key('Enter');
	return async () => {
		await publish(page).click();
		const visitor = await people.as('visitor');
		await expect(page.getByText('Published at /job-ten')).toBeVisible();
		await visitor.goto('/job-ten');
		await expect(visitor.getByRole('link', { name: 'towpath map' })).toHaveAttribute('href', /^\/d\/towpath-map/);
	};
});

for (const [page_, how] of [
	['/job-nine', 'Text link'],
	['/job-nine-save', 'Words that save']
] as const)
	job(`9 ${how.toLowerCase()}`, 'a document that is here already on another page', 4, async (act, page, people) => {
		await sentence(page, page_, 'For the boat:');
		await openSheet(act, page, 'Cruising guide');
		await act.press(page.locator('#placed').getByRole('button', { name: 'Place', exact: true }));
		await act.choose(page.getByRole('combobox', { name: `On “Job ${page_.slice(1)}”`, exact: true }), how);
		await act.press(page.getByRole('button', { name: 'Place and publish' }));
		await expect(page.getByText('“Cruising guide” placed on 1 page.')).toBeVisible();
		return async () => {
			const visitor = await people.as('visitor');
			await visitor.goto(page_);
			const href = how === 'Text link' ? /^\/d\/cruising-guide\?from=/ : /^\/d\/cruising-guide\/file\?save&from=/;
			await expect(visitor.locator('main').getByRole('link', { name: /Cruising guide/ })).toHaveAttribute('href', href);
			await page.getByRole('button', { name: 'Undo' }).click();
			await expect(page.getByText(/^Taken back/)).toBeVisible();
			await visitor.reload();
			await expect(visitor.locator('main').getByRole('link', { name: /Cruising guide/ })).toHaveCount(0);
		};
	});

job('10 picture', 'a picture that leads to a document', 4, async (act, page, people) => {
	await sentence(page, '/job-ten-picture', 'The map on the wall:', [{ type: 'picture', attrs: await keptPicture(page) }]);
	await act.press(textOf(page).locator('.picture img'));
	await act.key('Control+k');
	await act.type('towpath');
	await expect(page.getByRole('option', { name: 'Towpath map' })).toBeVisible();
	await act.key('Enter');
	return async () => {
		await publish(page).click();
		await published(page, '/job-ten-picture');
		const visitor = await people.as('visitor');
		await visitor.goto('/job-ten-picture');
		await expect(visitor.locator('main a[href^="/d/towpath-map"] img')).toBeVisible();
	};
});

job('11', 'a frame as wide as the column and 1000 px high', 3, async (act, page, people) => {
	const placement = { id: 'job-eleven', document: 'towpath-map', form: 'frame', press: 'over', width: 400 };
	await sentence(page, '/job-eleven', 'The line:', [{ type: 'paragraph', content: [{ type: 'placement', attrs: placement }] }]);
	const sheet = page.getByRole('complementary', { name: 'This placement' });
	await act.press(textOf(page).locator('.placement'));
	await act.do(sheet.getByLabel('Width in px').fill('100 %'));
	await act.do(sheet.getByLabel('Height in px').fill('1000'));
	await page.keyboard.press('Tab');
	return async () => {
		await publish(page).click();
		await expect(page.getByText('Published at /job-eleven')).toBeVisible();
		const visitor = await people.as('visitor');
		await visitor.goto('/job-eleven');
		const box = (await visitor.locator('.frame iframe').boundingBox())!;
		expect(Math.round(box.height)).toBe(1000);
		expect(box.width).toBeGreaterThan(600);
	};
});

job('12', 'a newsletter of several pages, 700 × 900, looked at as on a phone', 4, async (act, page, people, browser) => {
	await sentence(page, '/job-twelve', 'This month.');
	const pdf = await chromiumPdf(browser, 'Newsletter of the month', 4);
	await act.do(dropOn(page, endAndFollow, [pdf]));
	await expect(page.getByText('“Newsletter of the month” follows the page.')).toBeVisible();
	await act.press(settingsOf(page).getByRole('button', { name: 'Reading frame' }));
	await act.do(settingsOf(page).getByLabel('Width in px').fill('700 × 900'));
	await act.press(page.getByRole('link', { name: 'Preview as on a phone' }));
	const phone = page.frameLocator('iframe[title="The page on a phone"]');
	// there a frame of that size gives way to its cover
	await expect(phone.getByRole('link', { name: 'Read in the whole window' })).toBeVisible();
	expect(await phone.locator('html').evaluate((html) => [html.clientWidth, html.scrollWidth])).toEqual([390, 390]);
	return async () => {
		await page.goBack();
		await publish(page).click();
		await published(page, '/job-twelve');
		const visitor = await people.as('visitor');
		await visitor.goto('/job-twelve');
		const box = (await visitor.locator('.frame iframe').boundingBox())!;
		// the line around it is part of its width
		expect([box.width, box.height].map(Math.round)).toEqual([698, 900]);
	};
});

job('12 next month', 'next month’s page begins as this month’s', 3, async (act, page, people) => {
	await page.goto('/desk/pages');
	await act.press(page.getByRole('row', { name: /^Water levels/ }).getByRole('link', { name: 'Copy' }));
	await expect(page.getByLabel('Title')).toBeFocused();
	await act.type('Next month at the boards');
	await act.key('Enter');
	await expect(page).toHaveURL(/\/desk\/pages\/[0-9a-f-]{36}$/);
	return async () => {
		await expect(textOf(page)).toContainText('What the boards say');
		const visitor = await people.as('visitor');
		expect((await visitor.goto('/next-month-at-the-boards'))!.status()).toBe(404);
	};
});

job('13', 'a document in front of the reader, on a page of its particulars', 5, async (act, page, people, browser) => {
	await bringIn(page, await chromiumPdf(browser, 'Tender for the upper weir', 3));
	await page.goto('/desk/settings');
	await act.press(page.getByText('Its particulars, with the document below to read in place'));
	await expect(page.getByText('Set for the whole site.')).toBeVisible();
	await openSheet(act, page, 'Tender for the upper weir');
	await act.fill(page.getByLabel('Description'), 'Offers are opened in public.');
	await act.choose(page.getByRole('combobox', { name: 'Kept by' }), 'Works');
	await act.press(page.getByRole('radiogroup', { name: 'Door' }).getByText('Open', { exact: true }));
	await expect(page.getByTestId('door-sentence')).toContainText('Everyone may');
	return async () => {
		const visitor = await people.as('visitor');
		await visitor.goto('/d/tender-for-the-upper-weir');
		await expect(visitor.getByText('Offers are opened in public.')).toBeVisible();
		await expect(visitor.locator('dt', { hasText: 'Kept by' }).locator('+ dd')).toHaveText('Works');
		await expect(visitor.frameLocator('main iframe').locator('.page[data-loaded] canvas').first()).toBeVisible();
		expect((await page.request.patch('/api/v1/site', { headers: { origin: signIn().origin }, data: { documentPage: 'plain' } })).ok()).toBe(true);
		// and the list of the room is narrowed by it
		await page.goto('/desk/documents');
		await page.getByRole('button', { name: 'Kept by' }).click();
		await page.getByRole('link', { name: /^Works/ }).click();
		await expect(page.getByRole('link', { name: 'Tender for the upper weir', exact: true })).toBeVisible();
		await expect(page.getByRole('link', { name: 'Towpath map', exact: true })).toHaveCount(0);
	};
});

job('13 from the web', 'a PDF from a web address, watched', 3, async (act, page, _people, browser) => {
	const source = `http://127.0.0.1:${signIn().ports.source}/lock-orders.pdf`;
	await fetch(source, { method: 'PUT', body: new Uint8Array(readFileSync(await chromiumPdf(browser, 'Lock orders', 2))) });
	await page.goto('/desk/documents');
	await act.press(page.getByRole('button', { name: 'More ways' }));
	await act.fill(page.getByLabel('Web address of a PDF'), source);
	await act.press(page.getByRole('button', { name: 'Fetch' }));
	return async () => {
		await expect(page).toHaveURL(/\/desk\/documents\/[a-z0-9-]+$/);
		const slug = new URL(page.url()).pathname.split('/').at(-1)!;
		const document = (await (await page.request.get(`/api/v1/documents/${slug}`)).json()) as { source: { watch: boolean } };
		expect(document.source.watch).toBe(true);
	};
});

job('14', 'a new edition, in all its places', 2, async (act, page, people, browser) => {
	await bringIn(page, await chromiumPdf(browser, 'Tariff of the locks', 2));
	await openSheet(act, page, 'Tariff of the locks');
	const next = await chromiumPdf(browser, 'Tariff of the locks in spring', 3);
	await act.do(drop(page, 'aside.sheet', filesAt(next)));
	const sheet = page.getByRole('complementary', { name: 'Tariff of the locks' });
	await expect(sheet.getByText('edition 2')).toBeVisible();
	const what = act.then(1);
	await what.press(sheet.getByRole('link', { name: 'What changed' }));
	await expect(page.getByRole('heading', { name: 'What changed' })).toBeVisible();
	await expect(page.getByText(/in spring/).first()).toBeVisible();
	return async () => {
		const file = await page.request.get('/d/tariff-of-the-locks/file');
		expect((await file.body()).equals(readFileSync(next))).toBe(true);
	};
});

job('15', 'a personal link until a day', 4, async (act, page, people, browser) => {
	await bringIn(page, await chromiumPdf(browser, 'Survey of the lock gates', 2));
	await page.request.patch('/api/v1/documents/survey-of-the-lock-gates', { headers: { origin: signIn().origin }, data: { door: { position: 'keyed' } } });
	await openSheet(act, page, 'Survey of the lock gates');
	await act.fill(page.getByLabel('A key for'), 'The surveyor');
	await act.fill(page.getByRole('textbox', { name: 'Good until: day' }), '31 March 2098');
	await act.press(page.getByRole('button', { name: 'Issue', exact: true }));
	const url = (await page.locator('.issued code').textContent())!;
	return async () => {
		const surveyor = await people.as('visitor');
		await surveyor.goto(url);
		await surveyor.getByRole('link', { name: 'Read', exact: true }).click();
		await expect(surveyor.locator('.page[data-loaded] canvas').first()).toBeVisible();
		await page.reload();
		const [withdraw, done] = [act.then(1), act.then(1)];
		await withdraw.press(page.getByRole('button', { name: 'Withdraw the key “The surveyor”' }));
		await expect(page.getByText('The key “The surveyor” opens nothing any more.')).toBeVisible();
		await surveyor.reload();
		await expect(surveyor.getByRole('heading', { name: 'This key no longer opens' })).toBeVisible();
		await done.press(page.getByRole('link', { name: 'what was done with it' }));
		await expect(page.getByRole('heading', { name: 'The surveyor' })).toBeVisible();
		await expect(page.getByRole('link', { name: 'Survey of the lock gates' }).first()).toBeVisible();
	};
});

job('16', 'on from a day and hour, off after another', 4, async (act, page, people, browser) => {
	await bringIn(page, await chromiumPdf(browser, 'Winter timetable', 2));
	await openSheet(act, page, 'Winter timetable');
	const bound = (name: string) => page.getByRole('group', { name, exact: true }).getByRole('textbox', { name: /day$/ });
	await act.fill(bound('From'), '7/12/2097 9:00');
	await act.fill(bound('Until'), '28/12/2097 18:00');
	await act.press(page.getByRole('radiogroup', { name: 'Door' }).getByText('Open', { exact: true }));
	await expect(page.getByTestId('door-sentence')).toContainText('from 09:00 on 7 December 2097 until 18:00 on 28 December 2097.');
	const trying = act.then(2);
	await trying.press(page.getByRole('button', { name: 'Try the door' }).last());
	await trying.do(page.getByRole('textbox', { name: 'When: day' }).fill('7/12/2097 9:01'));
	await page.keyboard.press('Tab');
	await expect(page.locator('.try dt', { hasText: 'Read: yes' })).toBeVisible();
	return async () => {
		const visitor = await people.as('visitor');
		// until then a visitor is turned away
		expect((await visitor.request.get('/d/winter-timetable/file')).status()).toBe(403);
	};
});

job('17', '40 files in a folder, open to a group from a date', 6, async (act, page, people) => {
	const folder = join(mkdtempSync(join(tmpdir(), 'ianua-forty-')), 'Minutes of 2031');
	mkdirSync(folder);
	const names = Array.from({ length: 40 }, (_, i) => `Meeting ${String(i + 1).padStart(2, '0')}`);
	for (const name of names) writeFileSync(join(folder, `${name}.pdf`), await onePage(name));
	await page.goto('/desk/documents');
	// a browser that is driven by a program cannot hold a folder in its hand: it is chosen, which is one action too
	await act.do(page.getByLabel('Choose a folder of PDF files to bring in').setInputFiles(folder));
	await act.press(page.getByRole('button', { name: 'Choose these 40' }));
	await act.press(page.getByRole('toolbar', { name: 'Change the documents chosen' }).getByRole('button', { name: 'Door' }));
	const dialog = page.getByRole('dialog', { name: 'Door of 40 documents' });
	await act.press(dialog.getByRole('button', { name: /^Trustees/ }));
	await act.fill(dialog.getByRole('group', { name: 'From' }).getByRole('textbox', { name: /day$/ }), '1 December 2031');
	await act.press(dialog.getByRole('button', { name: 'Set 40 doors' }));
	await expect(page.getByText('40 documents: keyed for Trustees, with their hours.')).toBeVisible();
	return async () => {
		const listed = await page.request.get('/api/v1/documents?folder=Minutes%20of%202031&limit=100');
		const { items } = (await listed.json()) as { items: { slug: string; door: { sentence: string } }[] };
		expect(items).toHaveLength(40);
		await page.goto(`/desk/documents/${items[0]!.slug}`);
		await expect(page.getByTestId('door-sentence')).toContainText(/^Trustees.* from 1 December 2031/);
		const visitor = await people.as('visitor');
		expect((await visitor.request.get(`/d/${items[0]!.slug}/file`)).status()).toBe(403);
	};
});

job('18', 'a poster over the page from a picture on it, closed, back at the same spot', 5, async (act, page, people) => {
	const rows = Array.from({ length: 30 }, (_, i) => ({ type: 'paragraph', content: [{ type: 'text', text: `Mile ${i + 1} of the line.` }] }));
	await sentence(page, '/job-eighteen', 'The line, mile by mile:', [...rows, { type: 'picture', attrs: await keptPicture(page) }, ...rows]);
	await act.press(textOf(page).locator('.picture img'));
	await act.key('Control+k');
	await act.type('towpath');
	await expect(page.getByRole('option', { name: 'Towpath map' })).toBeVisible();
	await act.key('Enter');
	await expect(page.getByTestId('draft-state')).toContainText(/^\s*saved/);
	await act.press(publish(page));
	await published(page, '/job-eighteen');
	return async () => {
		const visitor = await people.as('visitor');
		await visitor.goto('/job-eighteen');
		await visitor.locator('main a img').scrollIntoViewIfNeeded();
		const at = await visitor.evaluate(() => scrollY);
		expect(at).toBeGreaterThan(200);
		await visitor.locator('main a img').click();
		const room = visitor.frameLocator('dialog iframe');
		await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible();
		await room.getByRole('button', { name: 'Close' }).click();
		await expect(visitor.locator('dialog[open]')).toHaveCount(0);
		expect(await visitor.evaluate(() => scrollY)).toBe(at);
		expect(new URL(visitor.url()).pathname).toBe('/job-eighteen');
	};
});

job('19', 'an entry of a pocket page with title, words and icon, hidden until it is ready, then shown', 6, async (act, page, people) => {
	const headers = { origin: signIn().origin };
	const pocket = { path: '/job-nineteen', title: 'Job nineteen', layout: 'pocket', content: { entries: [] } };
	expect((await page.request.post('/api/v1/pages', { headers, data: pocket })).status()).toBe(201);
	expect((await page.request.post('/api/v1/pages/%2Fjob-nineteen/publish', { headers, data: {} })).ok()).toBe(true);
	await page.goto('/desk/pages');
	await page.getByRole('link', { name: 'Job nineteen', exact: true }).click();
	await act.fill(page.getByRole('combobox', { name: 'Add a document' }), 'towpath');
	await expect(page.getByRole('option', { name: 'Towpath map' })).toBeVisible();
	await act.key('Enter');
	await act.fill(page.getByLabel('Below it'), 'Every gate and bridge');
	await act.fill(page.getByLabel('Icon', { exact: true }), 'map');
	await act.press(page.getByRole('button', { name: 'Rest', exact: true }));
	await expect(page.getByTestId('draft-state')).toContainText(/^\s*saved/);
	await publish(page).click();
	await published(page, '/job-nineteen');
	const visitor = await people.as('visitor', { viewport: { width: 390, height: 844 } });
	await visitor.goto('/job-nineteen');
	await expect(visitor.getByText('There is nothing here to read yet.')).toBeVisible();
	await act.press(page.getByRole('button', { name: 'Resting', exact: true }));
	return async () => {
		await expect(page.getByTestId('draft-state')).toContainText(/^\s*saved/);
		await publish(page).click();
		await expect(page.getByText('Published at /job-nineteen')).toHaveCount(2);
		await visitor.reload();
		await expect(visitor.getByText('Every gate and bridge').first()).toBeVisible();
		await expect(visitor.locator('.pocket summary .sign svg')).toBeVisible();
	};
});

job('20', 'how often it was saved, and by whom', 1, async (act, page, people) => {
	const warden = await people.as('member');
	const file = await warden.request.get('/d/lock-warden-handbook/file?save');
	expect(file.ok()).toBe(true);
	// the figures of today come a moment after the entry
	await expect(async () => {
		await page.goto('/desk/documents/lock-warden-handbook');
		await expect(page.getByTestId('savers')).toContainText('Wren Lockyer', { timeout: 2000 });
	}).toPass({ timeout: 60_000 });
	await openSheet(act, page, 'Lock warden handbook');
	return () => expect(page.getByTestId('savers')).toContainText(/^Saved (once|\d+ times): .*Wren Lockyer/);
});

job('21', 'how all frames of the site look', 4, async (act, page, people) => {
	await sentence(page, '/job-twenty-one', 'To read:', [
		{ type: 'paragraph', content: [{ type: 'placement', attrs: { id: 'job-21-one', document: 'towpath-map', form: 'frame', press: 'page' } }] },
		{ type: 'paragraph', content: [{ type: 'placement', attrs: { id: 'job-21-two', document: 'cruising-guide', form: 'frame', press: 'page' } }] }
	]);
	const editor = page.url();
	await page.goto('/desk/settings');
	const usual = page.locator('#placements');
	await act.press(usual.getByRole('button', { name: 'Reading frame' }));
	await act.do(usual.getByLabel('Width in px').fill('80 %'));
	await act.do(usual.getByLabel('Height in px').fill('500'));
	await act.key('Tab');
	await expect(page.getByText('Set for the whole site.').first()).toBeVisible();
	const sizes = async (): Promise<number[]> => {
		const visitor = await people.as('visitor');
		// the frames' own documents need not be there for their sizes
		await visitor.goto('/job-twenty-one', { waitUntil: 'domcontentloaded' });
		const boxes = await visitor.locator('.frame iframe').evaluateAll((frames) => frames.map((frame) => frame.getBoundingClientRect().height));
		return boxes.map(Math.round);
	};
	await expect.poll(sizes).toEqual([500, 500]);
	// one that differs
	const other = act.then(3);
	await page.goto(editor);
	await other.press(textOf(page).locator('.placement').nth(1));
	await other.do(settingsOf(page).getByLabel('Height in px').fill('700'));
	await page.keyboard.press('Tab');
	await expect(page.getByTestId('draft-state')).toContainText(/^\s*saved/);
	await other.press(publish(page));
	await published(page, '/job-twenty-one');
	return async () => {
		expect(await sizes()).toEqual([500, 700]);
		expect((await page.request.patch('/api/v1/site', { headers: { origin: signIn().origin }, data: { placing: {} } })).ok()).toBe(true);
	};
});

job('22', 'one document exchanged for another wherever it stands', 3, async (act, page, people) => {
	await sentence(page, '/job-twenty-two', 'Here:', [
		{
			type: 'paragraph',
			content: [{ type: 'placement', attrs: { id: 'job-twenty-two', document: 'hydrology-of-the-oxmere-feeder', form: 'text', press: 'page' } }]
		}
	]);
	await openSheet(act, page, 'Hydrology of the Oxmere feeder');
	const placed = page.locator('#placed');
	await act.press(placed.getByRole('button', { name: 'Exchange' }));
	await expect(placed.getByRole('combobox', { name: 'Which document comes in its place' })).toBeFocused();
	await page.keyboard.type('towpath');
	await expect(placed.getByRole('option', { name: 'Towpath map' })).toBeVisible();
	await act.key('Enter');
	return async () => {
		await expect(page.getByText(/exchanged for “Towpath map”/)).toBeVisible();
		const visitor = await people.as('visitor');
		await visitor.goto('/job-twenty-two');
		await expect(visitor.locator('a[href^="/d/towpath-map"]')).toBeVisible();
		await page.getByRole('button', { name: /^Undo/ }).click();
		await expect(page.getByText(/^Taken back/)).toBeVisible();
	};
});

job('23', 'the file of a document kept out of everything for a while, and what that breaks', 2, async (act, page, people) => {
	await sentence(page, '/job-twenty-three', 'On the wall:', [
		{ type: 'paragraph', content: [{ type: 'placement', attrs: { id: 'job-23', document: 'cruising-guide', form: 'text', press: 'page' } }] }
	]);
	await page.goto('/desk/documents/cruising-guide');
	await act.press(page.getByRole('button', { name: 'Set this document aside' }));
	const question = page.getByRole('dialog', { name: /Readers meet “Cruising guide”/ });
	await expect(question.getByRole('link', { name: 'Job job-twenty-three' })).toBeVisible();
	await act.press(question.getByRole('button', { name: 'Set aside all the same' }));
	await expect(page.getByText(/“Cruising guide” is set aside/)).toBeVisible();
	return async () => {
		const visitor = await people.as('visitor');
		expect((await visitor.request.get('/d/cruising-guide/file')).status()).toBe(404);
		await visitor.goto('/job-twenty-three');
		await expect(visitor.locator('main').getByRole('link', { name: /Cruising guide/ })).toHaveCount(0);
		await page.getByRole('button', { name: 'Undo' }).click();
		await expect.poll(async () => (await visitor.request.get('/d/cruising-guide/file')).status()).toBe(200);
	};
});
