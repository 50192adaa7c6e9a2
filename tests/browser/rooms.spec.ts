// The rooms by keyboard, on a phone, in the dark, without JavaScript, and to assistive programs.
import type { Request } from '@playwright/test';
import { axe, axeLightAndDark, expect, signIn, test } from './help';

// none of them goes by what another left: shared out to both workers, they do not make one wait for the other at the end
test.describe.configure({ mode: 'parallel' });

test('the desk goes by keyboard: rooms, find, the table, the sheet', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents');
	await page.locator('main').click({ position: { x: 5, y: 5 } });
	await page.keyboard.press('ArrowDown');
	await expect(page).toHaveURL(/\/desk\/documents\/[a-z0-9-]+$/);
	const first = page.url();
	await page.keyboard.press('ArrowDown');
	await expect(page).not.toHaveURL(first);
	await page.keyboard.press('ArrowUp');
	await expect(page).toHaveURL(first);
	await page.keyboard.press('Escape');
	await expect(page).toHaveURL(/\/desk\/documents$/);
	await page.keyboard.press('2');
	await expect(page.getByRole('heading', { name: 'Pages' })).toBeVisible();
	await page.keyboard.press('/');
	await page.keyboard.type('guide');
	await page.keyboard.press('Enter');
	await expect(page).toHaveURL(/\/desk\/documents\?q=guide$/);
	await expect(page.locator('tbody tr[id^="row-"]').filter({ hasText: 'Cruising guide' })).toBeVisible();
	await page.locator('main').click({ position: { x: 5, y: 5 } });
	await page.keyboard.press('?');
	await expect(page.getByRole('dialog')).toContainText('All shortcuts');
});

test('find leads to what is called so, of every kind, by keyboard and by mouse; Enter finds the words in documents', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents');
	const field = page.getByRole('combobox', { name: 'Find documents' });
	const list = page.getByRole('listbox', { name: 'What is called so' });
	await page.keyboard.press('/');
	await page.keyboard.type('lock');
	await expect(list.getByRole('group', { name: 'Documents' }).getByRole('option', { name: 'Lock warden handbook' })).toBeVisible();
	await expect(list.getByRole('group', { name: 'Pages' })).toContainText('When the locks open again');
	await expect(list.getByRole('group', { name: 'People' })).toContainText('dot.lockyer@example.org');
	await expect(list.getByRole('group', { name: 'Groups' })).toContainText('Lock wardens');
	// also where there is more than fits
	await page.setViewportSize({ width: 1280, height: 420 });
	expect(await list.evaluate((el) => el.scrollHeight > el.clientHeight)).toBe(true);
	expect(await axeLightAndDark(page)).toEqual([]);
	await page.setViewportSize({ width: 1280, height: 800 });
	await list.getByRole('option', { name: 'Lock wardens', exact: true }).click();
	await expect(page).toHaveURL(/\/desk\/people\?group=lock-wardens$/);
	await expect(list).toBeHidden();
	// a screen, by another word for it, with the arrow keys
	await field.fill('webhooks');
	await expect(list.getByRole('option')).toHaveCount(1);
	await expect(list.getByRole('option')).toHaveText(/Programs told/);
	await field.press('ArrowDown');
	await field.press('Enter');
	await expect(page).toHaveURL(/\/desk\/settings#told$/);
	// where it cannot be looked, that is said, and not that there is nothing
	await page.route('**/desk/find?*', (route) => route.fulfill({ status: 429, json: { title: 'Too many at once.', code: 'busy' } }));
	await field.fill('zzq');
	await expect(list).toContainText('It could not be looked. Too many at once.');
	await expect(list).not.toContainText('Nothing is called so');
	await page.unroute('**/desk/find?*');
	await field.fill('zzqq');
	await expect(list).toContainText('Nothing is called so');
	// nothing is marked: the words are found in documents
	await field.fill('windlass');
	await field.press('Escape');
	await expect(list).toBeHidden();
	await field.press('Enter');
	await expect(page).toHaveURL(/\/desk\/documents\?q=windlass$/);
	await expect(field).toHaveValue('windlass');
});

test('filters stand in the address and count', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/documents');
	const keyed = page.getByRole('group', { name: 'Filters' }).getByRole('link', { name: /^Keyed \d/ });
	const count = Number((await keyed.textContent())!.replace(/\D/g, ''));
	await keyed.click();
	await expect(page).toHaveURL(/door=keyed/);
	await expect(page.getByRole('row')).toHaveCount(count + 1);
	await page.goBack();
	await expect(page).toHaveURL(/\/desk\/documents$/);
	await page.goto('/desk/documents?q=nothing-is-called-this');
	await expect(page.getByRole('heading', { name: 'Nothing fits' })).toBeVisible();
});

test('a document with saving off is read as pictures, and no request gets the file', async ({ people }) => {
	const page = await people.as('member');
	const asked: string[] = [];
	page.on('request', (request) => asked.push(new URL(request.url()).pathname));
	await page.goto('/d/culvert-14-survey/read');
	await expect(page.locator('.page[data-loaded] canvas').first()).toBeVisible();
	await expect(page.getByText('Read only')).toBeVisible();
	await page.getByRole('button', { name: 'Next page' }).click();
	await expect(page.locator('.page[data-page-number="2"] .textLayer')).toContainText(/\w/);
	expect(asked.filter((p) => p.endsWith('/file'))).toEqual([]);
	expect(asked.filter((p) => p.includes('/leaf/')).length).toBeGreaterThanOrEqual(2);
});

/** What a visitor meets: every kind of page of the site. */
const readerPages = [
	'/',
	'/volunteering',
	'/heritage',
	'/water-levels',
	'/library',
	'/leaflets?read=rules-for-fishing',
	'/engineering',
	'/boat',
	'/find?q=lock',
	'/privacy',
	'/api/docs/embedding',
	'/not-here',
	'/embed/cruising-guide',
	'/d/cruising-guide',
	'/d/cruising-guide/text',
	'/d/cruising-guide/read',
	'/sign-in',
	'/sign-in/forgotten',
	'/d/lock-warden-handbook'
] as const;

test('the site and the reading room fit a phone', async ({ people }) => {
	const page = await people.as('visitor', { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
	for (const path of readerPages) {
		await page.goto(path);
		await page.waitForLoadState('networkidle');
		expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390);
	}
	await page.goto('/d/cruising-guide/read');
	await expect(page.locator('.page[data-loaded] canvas').first()).toBeVisible();
	await page.getByRole('button', { name: 'More' }).click();
	const box = (await page.getByRole('link', { name: 'Save', exact: true }).boundingBox())!;
	expect(box.x + box.width).toBeLessThanOrEqual(390);
	expect(box.height).toBeGreaterThanOrEqual(24); // WCAG 2.2, 2.5.8: targets of at least 24 × 24 CSS px
});

test('with spacing of the reader’s own, at 400 % and in forced colours nothing of the site is lost', async ({ people }) => {
	const page = await people.as('visitor', { viewport: { width: 1280, height: 1024 }, reducedMotion: 'reduce' });
	const forced = await people.as('visitor', { forcedColors: 'active', reducedMotion: 'reduce' });
	/** What stands in a box that cuts it off, and is not there for screen readers alone. */
	const cut = () =>
		page.evaluate(() =>
			[...document.querySelectorAll<HTMLElement>('body *:not(svg *, .textLayer *, .pdfViewer *)')]
				.filter((e) => {
					const { overflowX, overflowY, textOverflow, clipPath, position, webkitLineClamp } = getComputedStyle(e);
					const hides = [overflowX, overflowY].some((o) => o === 'hidden' || o === 'clip');
					// a line that ends in dots says so, and is whole elsewhere
					if (!hides || textOverflow === 'ellipsis' || webkitLineClamp !== 'none' || (position === 'absolute' && clipPath !== 'none') || !e.textContent.trim())
						return false;
					return e.scrollWidth > e.clientWidth + 2 || e.scrollHeight > e.clientHeight + 2;
				})
				.map((e) => `${e.tagName}.${e.className} ${e.textContent.trim().slice(0, 40)}`)
		);
	const isWithin = async (path: string) =>
		expect(await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth), path).toBeLessThanOrEqual(0);
	for (const path of readerPages) {
		await page.setViewportSize({ width: 1280, height: 1024 });
		await page.goto(path);
		await page.waitForLoadState('load');
		// WCAG 2.2, 1.4.12: so much space between lines, paragraphs, letters and words
		await page.addStyleTag({
			content: '* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important } p { margin-bottom: 2em !important }'
		});
		await expect.poll(cut, { message: path }).toEqual([]);
		await isWithin(path);
		// 1.4.10: 1280 px at 400 %
		await page.setViewportSize({ width: 320, height: 256 });
		// a room measures itself once its window has changed
		await expect.poll(cut, { message: path }).toEqual([]);
		await isWithin(path);
	}
	// what is chosen is told by more than a ground of its own
	for (const path of ['/library?topic=boating', '/leaflets', '/d/cruising-guide/read#search=lock']) {
		await forced.goto(path);
		if (path.includes('/read')) await forced.locator('[data-opens="more"]').click();
		const chosen = forced.locator(':is([aria-current], [aria-pressed=true], [aria-expanded=true]):visible');
		await expect(chosen.first()).toBeVisible();
		for (const one of await chosen.all()) await expect(one, path).toHaveCSS('outline-style', 'solid');
	}
	await expect(forced.locator('.fore-edge .found').first()).toBeAttached();
	expect(
		await forced
			.locator('.fore-edge .found')
			.first()
			.evaluate((tick) => getComputedStyle(tick).backgroundColor)
	).not.toBe('rgba(0, 0, 0, 0)');
});

test('links, covers, document pages and saving work without JavaScript; the reading room says that it needs it', async ({ people }) => {
	const page = await people.as('visitor', { javaScriptEnabled: false });
	await page.goto('/');
	await page.getByRole('link', { name: /^Cover of Cruising guide/ }).click();
	await expect(page.getByRole('heading', { name: 'Cruising guide' })).toBeVisible();
	const [saved] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Save' }).click()]);
	expect(saved.suggestedFilename()).toBe('Cruising guide (web).pdf');
	await page.getByRole('link', { name: 'Read', exact: true }).click();
	await expect(page.locator('noscript .said')).toContainText('The reading room needs JavaScript.');
	await expect(page.locator('noscript .said')).toBeVisible();
});

test('dark is chosen in the menu and stays', async ({ people }) => {
	const page = await people.as('staff', { colorScheme: 'light' });
	await page.goto('/desk/documents');
	const ground = () => page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor);
	expect(await ground()).toBe('rgb(246, 242, 234)');
	await page.getByRole('button', { name: /menu$/ }).click();
	await page.getByRole('button', { name: 'Dark' }).click();
	expect(await ground()).toBe('rgb(20, 28, 27)');
	await page.reload();
	expect(await ground()).toBe('rgb(20, 28, 27)');
});

test('signing out ends the session', async ({ people }) => {
	const page = await people.as(signIn().member);
	await page.goto('/me');
	await expect(page.getByRole('region', { name: 'For Lock wardens' }).getByText('Lock warden handbook')).toBeVisible();
	await page.getByRole('button', { name: 'Sign out', exact: true }).click();
	await expect(page.getByRole('link', { name: 'Sign in' })).toBeVisible();
	await page.goto('/d/lock-warden-handbook/read');
	await expect(page.getByTestId('turned-away')).toBeVisible();
});

test('a page fetches of its type only the letters that it has', async ({ people }) => {
	const page = await people.as('visitor');
	const parts = async (path: string): Promise<string[]> => {
		const fetched = new Set<string>();
		const note = (request: Request) => {
			const [, part] = /-(\w+)\.[\w-]+\.woff2$/.exec(request.url()) ?? [];
			if (part) fetched.add(part);
		};
		page.on('request', note);
		await page.goto(path);
		await page.waitForLoadState('networkidle');
		page.off('request', note);
		return [...fetched].sort();
	};
	expect(await parts('/heritage')).toEqual(['plain']);
	// French has letters beyond those of plain English
	expect(await parts('/sign-in/forgotten?lang=fr')).toContain('rest');
});

for (const [what, who, paths] of [
	[
		'staff see of documents and pages',
		'staff',
		[
			'/desk/documents/lock-warden-handbook',
			'/desk/documents?as=covers',
			'/desk/documents?q="stop planks"',
			'/desk/documents/winter-stoppages/compare',
			'/desk/pages',
			'/desk/upkeep',
			'/desk/upkeep/former',
			'/desk/upkeep/trail',
			'/desk/settings'
		]
	],
	[
		'staff see of people and readership',
		'staff',
		[
			'/desk/people',
			'/desk/people/staff',
			'/desk/people/keys',
			'/desk/people/knocks',
			'/desk/people/import',
			'/me',
			'/me/account',
			'/desk/readership',
			'/desk/readership/cruising-guide',
			'/desk/readership/lock-warden-handbook',
			'/desk/readership/by/place',
			'/desk/readership/by/refusal',
			'/desk/readership/by/minute'
		]
	],
	['a visitor sees', 'visitor', readerPages]
] as const) {
	test(`axe finds nothing against WCAG 2.2 AA in what ${what}, light and dark`, async ({ people }) => {
		const page = await people.as(who, { reducedMotion: 'reduce' });
		for (const path of paths) {
			await page.goto(path);
			await page.waitForLoadState('networkidle');
			expect(await axeLightAndDark(page), path).toEqual([]);
		}
		if (who !== 'visitor') return;
		const arabic = await people.as('visitor', { locale: 'ar', reducedMotion: 'reduce' });
		for (const path of paths) {
			await arabic.goto(path);
			await arabic.waitForLoadState('load');
			expect(await axe(arabic), `${path} in Arabic`).toEqual([]);
		}
	});
}

test('the handbook opens where one is, is found by other words, and leads to the screen', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/people');
	await page.getByRole('link', { name: 'Handbook: Members and groups' }).click();
	await expect(page.getByRole('heading', { level: 1, name: 'Members and groups' })).toBeVisible();
	expect(await axeLightAndDark(page)).toEqual([]);
	await page.getByRole('main').getByRole('link', { name: 'Handbook', exact: true }).click();
	await page.getByLabel('Find in the handbook').fill('upload');
	await expect(page.locator('.topics li')).toHaveCount(1);
	await page.getByRole('link', { name: 'Bring documents in' }).click();
	await page.getByRole('link', { name: 'Go there' }).click();
	await expect(page).toHaveURL(/\/desk\/documents$/);
	await page.goto('/desk/help');
	expect(await axeLightAndDark(page)).toEqual([]);
	// what there is not is told in words
	const gone = await page.goto('/desk/help/zeppelins');
	expect(gone?.status()).toBe(404);
	await expect(page.getByText('The handbook has no such topic.')).toBeVisible();
});
