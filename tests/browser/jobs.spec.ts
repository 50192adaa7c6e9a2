// The jobs of a week, each in at most so many actions: one press, one drop, one choice, one field filled, one shortcut. Signed in, the Documents room or
// the page in question open. `npm run bench -- jobs` prints how many each took.
import { readFileSync } from 'node:fs';
import type { Browser, Locator, Page } from '@playwright/test';
import { chromiumPdf, drop, expect, signIn, test, type People } from './help';

/** Counts what somebody does. */
class Actions {
	count = 0;
	constructor(readonly page: Page) {}
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
		test.info().annotations.push({ type: 'actions', description: String(act.count) }, { type: 'wanted', description: String(wanted) });
		await outcome();
		expect(act.count, 'actions').toBeLessThanOrEqual(wanted);
	});
}

const textOf = (page: Page) => page.getByRole('textbox', { name: 'Text of the page' });
const publish = (page: Page) => page.getByRole('button', { name: 'Publish', exact: true });

/** An article with a sentence, published, its editor open; by the API, as it is no part of the job. */
async function sentence(page: Page, path: string, words: string, more: object[] = []): Promise<void> {
	const content = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }, ...more] };
	const headers = { origin: signIn().origin };
	expect((await page.request.post('/api/v1/pages', { headers, data: { path, title: `Job ${path.slice(1)}`, content } })).status()).toBe(201);
	expect((await page.request.post(`/api/v1/pages/${encodeURIComponent(path)}/publish`, { headers, data: {} })).ok()).toBe(true);
	await page.goto('/desk/pages');
	await page.getByRole('link', { name: `Job ${path.slice(1)}`, exact: true }).click();
	await textOf(page).waitFor();
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
		await expect(warden.getByRole('searchbox')).toBeVisible();
		const visitor = await people.as('visitor');
		await visitor.goto('/job-six');
		await expect(visitor.getByText('Lock warden handbook')).toHaveCount(0);
		await expect(visitor.getByText('There is nothing here to read yet.')).toBeVisible();
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
	await expect(sheet).toContainText('Dead end', { timeout: 30_000 });
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

job('22', 'one document exchanged for another wherever it stands', 3, async (act, page, people) => {
	await sentence(page, '/job-twenty-two', 'Here:', [
		{
			type: 'paragraph',
			content: [{ type: 'placement', attrs: { id: 'job-twenty-two', document: 'hydrology-of-the-oxmere-feeder', form: 'text', press: 'page' } }]
		}
	]);
	await page.goto('/desk/documents');
	await act.press(page.getByRole('link', { name: 'Hydrology of the Oxmere feeder' }).first());
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
