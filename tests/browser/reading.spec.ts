// The reading room, in each way and with each tool, with documents that our generator did not make: of Debian's packages, printed by Chromium,
// and put together by qpdf.
import { execFile, execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import PDFDocument from 'pdfkit';
import type { APIRequestContext, Locator, Page } from '@playwright/test';
import { messages } from '../../core/words/messages';
import { languages } from '../../core/words/words';
import { prepareSamples, samples } from '../../scripts/samples';
import { axe, axeLightAndDark, expect, origin, signIn, test } from './help';

const { tagged: handbook, form, large, japanese } = samples;
const made = mkdtempSync(join(tmpdir(), 'ianua-reading-'));

let staff: APIRequestContext;
test.beforeAll(async ({ playwright }) => {
	await prepareSamples();
	staff = await playwright.request.newContext({ baseURL: origin(), extraHTTPHeaders: { origin: origin() } });
	expect((await staff.post('/api/auth/sign-in/email', { data: signIn().staff })).status()).toBe(200);
});
/** Other tests look at the room of documents: what was brought in for these is set aside again. */
const brought: string[] = [];
test.afterAll(async () => {
	for (const slug of brought) expect((await staff.delete(`/api/v1/documents/${slug}`)).ok()).toBe(true);
	await staff.dispose();
});

/** Brings a file in and sets its door; gives its address. */
async function bring(path: string, door: Record<string, unknown> = { position: 'open' }, name = basename(path)): Promise<string> {
	const file = { name, mimeType: 'application/pdf', buffer: readFileSync(path) };
	const { slug } = (await (await staff.post('/api/v1/documents', { multipart: { file } })).json()) as { slug: string };
	brought.push(slug);
	await expect(async () => {
		const { condition } = (await (await staff.get(`/api/v1/documents/${slug}`)).json()) as { condition: { status: string } };
		expect(condition.status).not.toBe('checking');
	}).toPass({ timeout: 90_000 });
	expect((await staff.patch(`/api/v1/documents/${slug}`, { data: { door } })).status()).toBe(200);
	return slug;
}

const pageOf = (page: Page, n: number) => page.locator(`.page[data-page-number="${n}"]`);
const drawn = (page: Page, n: number) => expect(page.locator(`.page[data-page-number="${n}"][data-loaded]`)).toBeVisible();
const isOnPage = (page: Page, n: number) => expect(page.locator('.stage')).toHaveAttribute('data-page', String(n));
const box = async (element: Locator) => (await element.boundingBox())!;
const open = async (page: Page, path: string) => {
	await page.goto(path);
	await expect(page.locator('.standin.gone')).toBeAttached();
};
const panel = (page: Page, name: string) => page.locator(`[data-opens="${name}"]`).click();

test('six ways of reading lay the pages out, and the choice is remembered', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'ways.pdf');
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	const choose = async (way: string) => {
		await page.locator('[data-opens="ways"]').click();
		await page.getByRole('dialog').getByRole('button', { name: way, exact: true }).click();
		await page.locator('[data-opens="ways"]').click();
	};
	// down: the next page below
	let [one, two] = [await box(pageOf(page, 1)), await box(pageOf(page, 2))];
	expect(two.y).toBeGreaterThan(one.y + one.height);
	await choose('Across');
	await expect(async () => {
		[one, two] = [await box(pageOf(page, 1)), await box(pageOf(page, 2))];
		expect(two.x).toBeGreaterThanOrEqual(one.x + one.width);
		expect(Math.abs(two.y - one.y)).toBeLessThan(2);
	}).toPass();
	await choose('Tiled');
	await page.keyboard.press('-');
	await page.keyboard.press('-');
	await page.keyboard.press('-');
	await expect(async () => {
		const rows = new Set(await page.locator('.pdfViewer .page').evaluateAll((pages) => pages.map((p) => Math.round(p.getBoundingClientRect().top))));
		expect(rows.size).toBeGreaterThan(1);
		expect(rows.size).toBeLessThan(11);
	}).toPass();
	await page.keyboard.press('0');
	await choose('One by one');
	await expect(page.locator('.pdfViewer .page')).toHaveCount(1);
	await choose('Book');
	// the first page stands alone, as a cover
	await expect(page.locator('.pdfViewer .page')).toHaveCount(1);
	await page.keyboard.press('ArrowRight');
	await expect(page.locator('.pdfViewer .page')).toHaveCount(2);
	await drawn(page, 2);
	await drawn(page, 3);
	[one, two] = [await box(pageOf(page, 2)), await box(pageOf(page, 3))];
	expect(Math.abs(one.x + one.width - two.x)).toBeLessThan(4);
	await page.locator('[data-opens="ways"]').click();
	await page.getByLabel('First page alone').uncheck();
	await page.keyboard.press('Escape');
	await expect(page.locator('.pdfViewer .page').first()).toHaveAttribute('data-page-number', '1');
	await choose('Turning');
	await page.reload();
	await expect(page.locator('[data-opens="ways"]')).toHaveText('Turning');
});

test('the page in view stays there, whatever way of reading is taken, and turned or at another size', async ({ people }) => {
	// sizes and directions mixed
	const mixed = join(made, 'ways-mixed.pdf');
	execFileSync('qpdf', ['--empty', '--pages', handbook, '1-4', japanese, '1-2', form, '1', handbook, '5-11', '--', '--rotate=+90:3', '--rotate=+270:9', mixed]);
	const slug = await bring(mixed, { position: 'open' }, 'ways-mixed.pdf');
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read#page=9`);
	await isOnPage(page, 9);
	const choose = async (way: string) => {
		await page.locator('[data-opens="ways"]').click();
		await page.getByRole('dialog').getByRole('button', { name: way, exact: true }).click();
		await page.locator('[data-opens="ways"]').click();
	};
	// of a pair the left page is the one that is named
	const stays = (way: string) => expect(page.locator('.stage'), way).toHaveAttribute('data-page', /^(?:8|9)$/);
	const seen = async (what: string) => {
		const named = Number(await page.locator('.stage').getAttribute('data-page'));
		const [stage, leaf] = [await box(page.locator('.stage')), await box(pageOf(page, named))];
		expect(leaf.x < stage.x + stage.width && leaf.x + leaf.width > stage.x && leaf.y < stage.y + stage.height && leaf.y + leaf.height > stage.y, what).toBe(
			true
		);
	};
	// every way after every other: an Eulerian walk over the six
	const ways = ['Down', 'Across', 'Tiled', 'One by one', 'Book', 'Turning'];
	const left = new Set(ways.flatMap((a) => ways.filter((b) => b !== a).map((b) => `${a} > ${b}`)));
	let at = 'Down';
	await panel(page, 'ways');
	const press = (way: string) => page.getByRole('dialog').getByRole('button', { name: way, exact: true }).click();
	while (left.size) {
		const next = ways.find((b) => left.has(`${at} > ${b}`)) ?? [...left][0]!.split(' > ')[0]!;
		left.delete(`${at} > ${next}`);
		await press(next);
		await stays(`${at} > ${next}`);
		await expect(async () => seen(`${at} > ${next}`)).toPass({ timeout: 3000 });
		at = next;
	}
	await panel(page, 'ways');
	for (const way of ['Down', 'Across', 'Tiled', 'One by one']) {
		await choose(way);
		await page.getByRole('textbox', { name: 'Page' }).fill('9');
		await page.getByRole('textbox', { name: 'Page' }).press('Enter');
		await page.locator('.stage').focus();
		for (const key of ['r', 'r', '+', '+', '-', '0', 'r', 'r']) {
			await page.keyboard.press(key);
			await expect(page.locator('.stage'), `${way}, ${key}`).toHaveAttribute('data-page', '9');
		}
	}
});

test('a leaf turns over the spine, and stands still for who asks for less motion', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'turning.pdf');
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read?way=turning#page=2`);
	await drawn(page, 2);
	await drawn(page, 3);
	await page.getByRole('button', { name: 'Next page' }).click();
	await expect(page.locator('.turning-leaf')).toBeAttached();
	await isOnPage(page, 4);
	await expect(page.locator('.turning-leaf')).toHaveCount(0);
	await drawn(page, 5);
	await page.emulateMedia({ reducedMotion: 'reduce' });
	await page.getByRole('button', { name: 'Page before' }).click();
	await isOnPage(page, 2);
	await expect(page.locator('.turning-leaf')).toHaveCount(0);
});

test('fits: paper size is the paper’s, whole page and full width fill the window, zoom goes by steps, pages turn by quarters', async ({ people, browser }) => {
	const sheet = await browser.newPage();
	await sheet.setContent('<h1>One sheet</h1>');
	const path = join(made, 'sheet.pdf');
	const { writeFileSync } = await import('node:fs');
	writeFileSync(path, await sheet.pdf({ format: 'A4' }));
	await sheet.close();
	const slug = await bring(path);
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	const fit = async (name: string) => {
		await panel(page, 'fit');
		await page.getByRole('dialog').getByRole('button', { name, exact: true }).click();
		await panel(page, 'fit');
	};
	await fit('Paper size');
	// ISO 216: A4 is 210 × 297 mm; CSS has 96 px to the inch
	await expect(async () => {
		const { width, height } = await box(pageOf(page, 1));
		expect(Math.abs(width - (210 / 25.4) * 96)).toBeLessThan(2);
		expect(Math.abs(height - (297 / 25.4) * 96)).toBeLessThan(2);
	}).toPass();
	await expect(page.locator('[data-opens="fit"]')).toHaveText('Paper size');
	await page.keyboard.press('+');
	await expect(page.locator('[data-opens="fit"]')).toHaveText('110 %');
	await fit('Full width');
	const stage = await box(page.locator('.stage'));
	await expect(async () => expect(Math.abs((await box(pageOf(page, 1))).width - (stage.width - 48))).toBeLessThan(20)).toPass();
	await fit('Whole page');
	await expect(async () => {
		const whole = await box(pageOf(page, 1));
		expect(whole.height).toBeLessThanOrEqual(stage.height);
		expect(whole.height).toBeGreaterThan(stage.height - 60);
	}).toPass();
	await page.keyboard.press('r');
	await expect(async () => {
		const turned = await box(pageOf(page, 1));
		expect(turned.width).toBeGreaterThan(turned.height);
	}).toPass();
});

test('find looks through all pages, with options, a list, and marks along the fore-edge; an address opens it', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'find.pdf');
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await page.keyboard.press('/');
	const dialog = page.getByRole('dialog', { name: 'Find' });
	const field = dialog.getByRole('searchbox');
	await expect(field).toBeFocused();
	await field.fill('unicode');
	await expect(dialog.getByRole('status')).toContainText(/^\s*\d+ \/ \d+ times/);
	const count = async () => Number(/(\d+) times/.exec(await dialog.getByRole('status').innerText())?.[1] ?? 0);
	const all = await count();
	expect(all).toBeGreaterThan(10);
	await expect(page.locator('.fore-edge .found').first()).toBeAttached();
	await expect(page.locator('.textLayer .highlight').first()).toBeAttached();
	await expect(dialog.locator('mark').first()).toHaveText(/unicode/i);
	const before = await page.locator('.stage').getAttribute('data-page');
	await dialog.locator('.place').last().click();
	await expect(page.locator('.stage')).not.toHaveAttribute('data-page', before!);
	await dialog.getByLabel('Same case').check();
	await expect.poll(count).toBeLessThan(all);
	await field.fill('code');
	await dialog.getByLabel('Same case').uncheck();
	await expect.poll(count).toBeGreaterThanOrEqual(all);
	await dialog.getByLabel('Whole words').check();
	await expect.poll(count).toBeLessThan(all);
	await field.fill('zyzzyva');
	await expect(dialog.getByRole('status')).toContainText('Not found');
	await page.keyboard.press('Escape');
	await expect(dialog).toBeHidden();
	await expect(page.locator('[data-opens="find"]')).toBeFocused();
	await page.goto('about:blank');
	await open(page, `/d/${slug}/read#search=%22legacy%22`);
	await expect(page.locator('[data-opens="find"]')).toContainText(/^legacy, \d+ times?$/);
});

test('chosen words are handed on: a link that finds them again, and a quotation', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'passage.pdf');
	const page = await people.as('visitor', { permissions: ['clipboard-read', 'clipboard-write'] });
	await open(page, `/d/${slug}/read#page=3`);
	await drawn(page, 3);
	/** Chooses the words of a line as a hand does: from its beginning to its end. */
	const line = pageOf(page, 3).locator('.textLayer span[role=presentation]', { hasText: 'Only the encoding name is required' }).first();
	const at = await box(line);
	await page.mouse.move(at.x + 1, at.y + at.height / 2);
	await page.mouse.down();
	await page.mouse.move(at.x + at.width - 2, at.y + at.height / 2, { steps: 8 });
	await page.mouse.up();
	const bar = page.getByRole('toolbar', { name: 'Chosen words' });
	await bar.getByRole('button', { name: 'Copy as quotation' }).click();
	await expect(bar.getByRole('status')).toHaveText('Address copied');
	// it goes on saying so while the words stay chosen, wherever they come to stand
	await page.mouse.wheel(0, 10);
	await page.waitForTimeout(600);
	await expect(bar.getByRole('status')).toHaveText('Address copied');
	const quotation = await page.evaluate(() => navigator.clipboard.readText());
	expect(quotation).toMatch(/^“Only the encoding name is required[^”]*”\nThe TECkit Language, page 3\nhttp/);
	const address = /http\S+$/.exec(quotation)![0];
	const other = await people.as('visitor');
	await open(other, address.replace(/^https?:\/\/[^/]+/, '').replace('page=3', 'page=1'));
	await isOnPage(other, 3);
	await expect(pageOf(other, 3).locator('.textLayer .highlight').first()).toBeVisible();
	await expect(other.locator('[data-opens="find"]')).toContainText('1 time');
});

test('in a long document find begins where the words stand, and goes on until every page was looked through', async ({ people }) => {
	const path = join(made, 'long.pdf');
	const pdf = new PDFDocument({ size: 'A5' });
	const done = new Promise((end) => pdf.on('end', end));
	const bytes: Buffer[] = [];
	pdf.on('data', (chunk: Buffer) => bytes.push(chunk));
	// more than the finder reads without asking the server first
	for (let n = 1; n <= 50; n++) {
		if (n > 1) pdf.addPage();
		pdf.fontSize(20).text(n === 35 || n === 45 ? `A heron stands at lock ${n}` : `Nothing stands at lock ${n}`);
	}
	pdf.end();
	await done;
	writeFileSync(path, Buffer.concat(bytes));
	// read only: the words of each page are a request of its own, so it can be seen which of them were needed
	const slug = await bring(path, { position: 'open', allow: { save: false, print: false } }, 'long.pdf');
	const page = await people.as('visitor');
	let letThrough: () => void = () => undefined;
	const later = new Promise<void>((go) => (letThrough = go));
	await page.route(/\/leaf\/\d+\.json/, async (route) => {
		if (!/\/(?:1|35|45)\.json/.test(route.request().url())) await later;
		await route.continue();
	});
	await open(page, `/d/${slug}/read`);
	await page.keyboard.press('/');
	const dialog = page.getByRole('dialog', { name: 'Find' });
	await dialog.getByRole('searchbox').fill('HERON  stands');
	await expect(dialog.getByRole('status')).toContainText('1 / 2 times');
	await expect(dialog.locator('.count')).toContainText(/Looked through \d+ of 50 pages/);
	await isOnPage(page, 35);
	await expect(dialog.locator('.place')).toHaveText([/A heron stands at lock 35/, /A heron stands at lock 45/]);
	await dialog.getByRole('button', { name: 'Next place' }).click();
	await isOnPage(page, 45);
	await dialog.getByRole('button', { name: 'Next place' }).click();
	await isOnPage(page, 35);
	letThrough();
	// every page is a request of its own: a machine that has other work takes its time
	await expect(dialog.locator('.count')).toHaveText('1 / 2 times', { timeout: 150_000 });

	// where the server cannot say, or says too little, every page is read all the same
	for (const answer of ['unwell', '{"pages": []}']) {
		const again = await people.as('visitor');
		await again.route(/\/read\/found\?/, (route) => route.fulfill({ body: answer }));
		await open(again, `/d/${slug}/read#search=%22heron%22`);
		await expect(again.locator('[data-opens="find"]')).toContainText('2 times');
		await isOnPage(again, 35);
	}
});

test('the fragment leads to a page, a zoom and a place (RFC 8118)', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'fragment.pdf');
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read#page=3`);
	await isOnPage(page, 3);
	await drawn(page, 3);
	await page.goto('about:blank');
	await open(page, `/d/${slug}/read#page=4&zoom=200,250,100`);
	await isOnPage(page, 4);
	await expect(page.locator('[data-opens="fit"]')).toHaveText('200 %');
	// 100 points below the upper edge of the page stand at the upper edge of the window
	await expect(async () => {
		const [stage, four] = [await box(page.locator('.stage')), await box(pageOf(page, 4))];
		expect(Math.abs(stage.y - four.y - (100 * 2 * 96) / 72)).toBeLessThan(12);
	}).toPass();
	await page.goto('about:blank');
	await open(page, `/d/${slug}/read#page=2&view=FitH`);
	await expect(page.locator('[data-opens="fit"]')).toHaveText('Full width');
	await page.goto('about:blank');
	await open(page, `/d/${slug}/read#pagemode=bookmarks`);
	const more = page.getByRole('dialog', { name: 'More' });
	await expect(more).toBeVisible();
	// dark and light as one chooses them here, whatever the system has
	for (const [theme, ground] of [
		['Dark', 'rgb(15, 21, 20)'],
		['Light', 'rgb(223, 216, 200)']
	] as const) {
		await more.getByRole('button', { name: theme, exact: true }).click();
		await expect(page.locator('.room')).toHaveCSS('background-color', ground);
	}
	await more.getByRole('button', { name: 'As the system' }).click();
	// the address goes along, and can be handed on
	await page.keyboard.press('Escape');
	await page.keyboard.press('End');
	await isOnPage(page, 11);
	await expect(page).toHaveURL(/#page=11$/);
});

test('distances in a fragment run from the corner of the page as it stands, also where the file turns it (RFC 8118, section 3)', async ({ people }) => {
	const turned = join(made, 'turned.pdf');
	execFileSync('qpdf', [handbook, '--rotate=+90:4', '--rotate=+180:5', turned]);
	const slug = await bring(turned);
	const page = await people.as('visitor');
	/** How far the window's corner is from that of a page, in points at a zoom. */
	const corner = async (n: number, zoom: number) => {
		const [stage, leaf] = [await box(page.locator('.stage')), await box(pageOf(page, n))];
		const points = (px: number) => Math.round((px * 72) / 96 / zoom);
		return { left: points(stage.x - leaf.x), top: points(stage.y - leaf.y) };
	};
	const near = (zoom: number, n: number, wanted: { left?: number; top: number }) =>
		expect(async () => {
			const { left, top } = await corner(n, zoom);
			expect(Math.abs(top - wanted.top), `top ${top}`).toBeLessThan(6);
			if (wanted.left !== undefined) expect(Math.abs(left - wanted.left), `left ${left}`).toBeLessThan(6);
		}).toPass();
	await open(page, `/d/${slug}/read#page=4&zoom=200,250,100`);
	await isOnPage(page, 4);
	await near(2, 4, { left: 250, top: 100 });
	await page.goto('about:blank');
	await open(page, `/d/${slug}/read#page=5&zoom=300,120,310`);
	await isOnPage(page, 5);
	await near(3, 5, { left: 120, top: 310 });
	// a rectangle fills the window
	await page.goto('about:blank');
	await open(page, `/d/${slug}/read#page=4&viewrect=100,150,300,200`);
	await isOnPage(page, 4);
	const stage = await box(page.locator('.stage'));
	const zoom = (Math.min(stage.width / 300, stage.height / 200) * 72) / 96;
	await expect(page.locator('[data-opens="fit"]')).toHaveText(new RegExp(`^${Math.round(zoom * 100)}(\\.\\d+)? %$`));
	await near(zoom, 4, { left: 100, top: 150 });
});

test('a link inside leads to its place also on a page that the file turns and that was not near', async ({ people }) => {
	const links = join(made, 'links.pdf');
	const pdf = new PDFDocument({ size: 'A4' });
	const whole = new Promise<Buffer>((done) => {
		const chunks: Buffer[] = [];
		pdf.on('data', (chunk: Buffer) => chunks.push(chunk)).on('end', () => done(Buffer.concat(chunks)));
	});
	pdf.fontSize(20).text('To the weir', 60, 60, { goTo: 'weir' });
	pdf.text('Elsewhere', 60, 160, { link: 'https://elsewhere.example.org/' });
	for (let i = 2; i <= 8; i++) pdf.addPage().text(`Page ${i}`);
	// 200 points from the upper edge of the page as it lies; turned upside down, A4's 842 points less that
	pdf.addNamedDestination('weir', 'XYZ', 0, 200, null);
	pdf.addPage();
	pdf.end();
	writeFileSync(links, await whole);
	const turned = join(made, 'links-turned.pdf');
	execFileSync('qpdf', [links, '--rotate=+180:8', turned]);
	const slug = await bring(turned);
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await panel(page, 'fit');
	await page.getByRole('dialog').getByText('Full width').click();
	await page.keyboard.press('Escape');
	// a link that leads outside says nothing of us there, and leaves the room where it is
	const outside = pageOf(page, 1).locator('.annotationLayer a[href="https://elsewhere.example.org/"]');
	await expect(outside).toHaveAttribute('rel', /noopener/);
	await expect(outside).toHaveAttribute('target', '_blank');
	// one that leads inside says to which page; the words under it stand in the text
	await expect(pageOf(page, 1).getByRole('link', { name: 'to page 8', exact: true })).toHaveCount(1);
	await pageOf(page, 1).locator('.annotationLayer a').first().press('Enter');
	await isOnPage(page, 8);
	await expect(async () => {
		const [stage, leaf] = [await box(page.locator('.stage')), await box(pageOf(page, 8))];
		const points = ((stage.y - leaf.y) / leaf.height) * 841.89;
		expect(Math.abs(points - (841.89 - 200))).toBeLessThan(6);
	}).toPass();
	// the keyboard goes on from there, and zooming does not lead back
	await expect(pageOf(page, 8).locator('.textLayer')).toBeFocused();
	await page.locator('[data-opens="fit"]').focus();
	await page.keyboard.press('+');
	await drawn(page, 8);
	await page.waitForTimeout(500);
	await expect(page.locator('[data-opens="fit"]')).toBeFocused();
});

test('three thousand pages: the first at once, the middle soon, the fore-edge of use', async ({ people }) => {
	const long = join(made, 'long.pdf');
	// not in step: while this process stood still the server would close the connection that it is about to use
	await promisify(execFile)('qpdf', ['--empty', '--pages', ...Array.from({ length: 274 }, () => handbook), '--', long]);
	const slug = await bring(long);
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await expect(page.locator('.turning')).toContainText('of 3,014');
	await page.getByRole('textbox', { name: 'Page' }).fill('1507');
	await page.getByRole('textbox', { name: 'Page' }).press('Enter');
	await isOnPage(page, 1507);
	await drawn(page, 1507);
	const slider = page.getByRole('slider', { name: 'Pages' });
	await slider.focus();
	await page.keyboard.press('End');
	await isOnPage(page, 3014);
	await page.keyboard.press('PageUp');
	await isOnPage(page, 3004);
	expect(await page.locator('.fore-edge line').count()).toBeLessThan(220);
	// what is drawn is let go: never more than three windows' worth
	const pixels = await page.evaluate(() =>
		[...document.querySelectorAll('.pdfViewer canvas')].reduce((sum, c) => sum + (c as HTMLCanvasElement).width * (c as HTMLCanvasElement).height, 0)
	);
	expect(pixels).toBeLessThanOrEqual(3 * Math.max(1_500_000, 1280 * 800) + 1_500_000);
});

test('pages of several sizes and a script that is not Latin', async ({ people }) => {
	const mixed = join(made, 'mixed.pdf');
	execFileSync('qpdf', ['--empty', '--pages', handbook, '1', japanese, '1-2', form, '1', '--', mixed]);
	const slug = await bring(mixed);
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	// sizes are known before the pages are
	const heights = await page.locator('.pdfViewer .page').evaluateAll((pages) => pages.map((p) => Math.round((p.clientHeight / p.clientWidth) * 100)));
	expect(heights).toHaveLength(4);
	await page.keyboard.press('ArrowRight');
	await drawn(page, 2);
	await expect(pageOf(page, 2).locator('.textLayer')).toContainText('リリース 12.18');
	const after = await page.locator('.pdfViewer .page').evaluateAll((pages) => pages.map((p) => Math.round((p.clientHeight / p.clientWidth) * 100)));
	expect(after).toEqual(heights);
});

test('a document written from right to left: its words are found, and lie where they are read', async ({ people, browser }) => {
	const printer = await browser.newPage();
	await printer.setContent(
		['القناة مغلقة في الشتاء', 'الأهوسة تفتح في الربيع', 'ممر السحب للمشاة']
			.map((words, i) => `<section dir="rtl" lang="ar" style="break-after:page;font:24px 'DejaVu Sans'"><h1>الصفحة ${i + 1}</h1><p>${words}</p></section>`)
			.join('')
	);
	const path = join(made, 'arabic.pdf');
	writeFileSync(path, await printer.pdf({ format: 'A4', tagged: true }));
	await printer.close();
	const slug = await bring(path, { position: 'open' }, 'arabic.pdf');
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read#search=${encodeURIComponent('"الربيع"')}`);
	await expect(page.locator('[data-opens="find"]')).toContainText('1 time');
	await isOnPage(page, 2);
	await expect(pageOf(page, 2).locator('.textLayer .highlight').first()).toBeVisible();
	expect((await pageOf(page, 2).locator('.textLayer').textContent())!.normalize('NFKC').replace(/\s+/g, ' ')).toContain('الأهوسة تفتح في الربيع');
	// what is marked lies over the last word of the line, which is its leftmost
	const [leaf, mark] = [await box(pageOf(page, 2)), await box(pageOf(page, 2).locator('.textLayer .highlight').first())];
	expect(mark.x).toBeLessThan(leaf.x + leaf.width * 0.85);
	expect(mark.x).toBeGreaterThan(leaf.x);
});

test('a scanned document is read as pictures, and find says that there is nothing to be found', async ({ people }) => {
	const slug = await bring(samples.scanned, { position: 'open' }, 'scanned.pdf');
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	await panel(page, 'find');
	await page.getByRole('searchbox').fill('lock');
	await expect(page.getByRole('dialog').getByRole('status')).toHaveText(/pages are pictures/);
	await page.keyboard.press('Escape');
	await page.keyboard.press('End');
	await expect(page.locator('.stage')).not.toHaveAttribute('data-page', '1');
});

test('a form can be filled in, and nothing of it is sent', async ({ people }) => {
	const slug = await bring(form);
	const page = await people.as('visitor');
	const sent: string[] = [];
	page.on('request', (request) => {
		if (request.method() !== 'GET' && new URL(request.url()).pathname !== `/d/${slug}/read/told`) sent.push(`${request.method()} ${request.url()}`);
	});
	await open(page, `/d/${slug}/read`);
	const field = page.locator('.annotationLayer input, .annotationLayer textarea').first();
	await expect(field).toBeVisible();
	await field.fill('Ada');
	await expect(field).toHaveValue('Ada');
	// keys belong to the field while somebody types
	await field.press('w');
	await expect(page.locator('[data-opens="ways"]')).toHaveText('Down');
	expect(sent).toEqual([]);
	// it has a name; leaving asks, staying keeps what was written
	expect(await field.getAttribute('aria-label')).toBeTruthy();
	const asked = page.waitForEvent('dialog');
	const leaving = page.goto('/find').catch(() => undefined);
	const question = await asked;
	expect(question.type()).toBe('beforeunload');
	await question.dismiss();
	await leaving;
	await expect(field).toHaveValue('Adaw');
	// saved with it, the save is entered, and there is nothing to ask about any more
	const saved = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Save with what you wrote' }).click();
	const path = await (await saved).path();
	// read by another program: qpdf tells the value of the field (ISO 32000-1, 12.7.3.1)
	const told = execFileSync('qpdf', ['--json', '--json-key=acroform', path], { encoding: 'utf8' });
	expect(told).toContain('Adaw');
	await expect(page.getByRole('button', { name: 'Save with what you wrote' })).toHaveCount(0);
	const entries = (await (await (await people.as('staff')).request.get(`/api/v1/documents/${slug}/ledger`)).json()) as { items: { kind: string }[] };
	expect(entries.items.map((entry) => entry.kind)).toContain('saved');
	await page.goto('/find');
	await expect(page).toHaveURL(/find$/);
});

/** Four pages of a file that says that they follow each other from right to left (ISO 32000-1, 12.2: /Direction), by qpdf. */
function rightToLeft(): string {
	const [plain, path] = [join(made, 'plain.qdf'), join(made, 'from-right.pdf')];
	execFileSync('qpdf', ['--qdf', '--object-streams=disable', '--empty', '--pages', handbook, '1-4', '--', plain]);
	const said = readFileSync(plain, 'latin1').replace(/\/Type \/Catalog/, '/Type /Catalog /ViewerPreferences << /Direction /R2L >>');
	writeFileSync(plain, said, 'latin1');
	writeFileSync(path, execFileSync('fix-qdf', [plain], { maxBuffer: 64 * 1024 * 1024 }));
	return path;
}

test('a book that is read from right to left turns to the left, by presses, keys and finger', async ({ people }) => {
	const slug = await bring(rightToLeft());
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read?way=book`);
	await drawn(page, 1);
	await expect(page.locator('.stage')).toHaveAttribute('dir', 'rtl');
	await page.keyboard.press('ArrowLeft');
	await expect(page.locator('.stage')).toHaveAttribute('data-page', '2');
	// of the two pages the first stands on the right
	await drawn(page, 3);
	const leftOf = (n: number) => page.locator(`.page[data-page-number="${n}"]`).evaluate((el) => el.getBoundingClientRect().left);
	expect(await leftOf(2)).toBeGreaterThan(await leftOf(3));
	const turning = page.locator('.sill .turning button');
	await expect(turning.first()).toHaveAccessibleName('Next page');
	await turning.last().click();
	await expect(page.locator('.stage')).toHaveAttribute('data-page', '1');
	await page.keyboard.press('ArrowRight');
	await expect(page.locator('.stage')).toHaveAttribute('data-page', '1');
	// across: what comes next lies to the left
	await panel(page, 'ways');
	await page.getByRole('dialog').getByRole('button', { name: 'Across' }).click();
	await expect.poll(async () => (await leftOf(2)) < (await leftOf(1))).toBe(true);
	await page.keyboard.press('End');
	await expect(page.locator('.stage')).toHaveAttribute('data-page', '4');
});

/** A file of such objects, the first of them its catalog; qpdf makes its table. */
function pdfOf(name: string, objects: readonly string[]): string {
	const path = join(made, name);
	const body = objects.map((o, i) => `${i + 1} 0 obj\n${o}\nendobj\n`).join('');
	writeFileSync(path, `%PDF-1.7\n${body}trailer << /Root 1 0 R /Size ${objects.length + 1} >>\nstartxref\n0\n%%EOF\n`);
	const whole = path.replace('.pdf', '-whole.pdf');
	try {
		execFileSync('qpdf', [path, whole], { stdio: 'ignore' });
	} catch {
		// 3: it made the table of objects anew, which is what it is for
	}
	return whole;
}

/** Six pages, on each a link to the next. */
function linked(): string {
	const pages = Array.from({ length: 6 }, (_, i) => i);
	const id = (page: number) => 3 + 2 * page;
	const objects = [
		'<< /Type /Catalog /Pages 2 0 R >>',
		`<< /Type /Pages /Kids [${pages.map((page) => `${id(page)} 0 R`).join(' ')}] /Count 6 >>`,
		...pages.flatMap((page) => [
			`<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Annots [${id(page) + 1} 0 R] >>`,
			`<< /Type /Annot /Subtype /Link /Rect [72 700 272 760] /Border [0 0 2] /Dest [${id((page + 1) % 6)} 0 R /Fit] >>`
		])
	];
	return pdfOf('linked.pdf', objects);
}

test('by keyboard the tools come first, one press leads past them, and nothing out of sight is in the way', async ({ people }) => {
	const slug = await bring(linked());
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	await page.keyboard.press('Tab');
	await expect(page.getByRole('link', { name: 'To the pages' })).toBeFocused();
	await page.keyboard.press('Tab');
	await expect(page.getByRole('link', { name: 'To the site' })).toBeFocused();
	await page.getByRole('link', { name: 'To the pages' }).focus();
	await page.keyboard.press('Enter');
	await expect(page.locator('.stage')).toBeFocused();
	await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
	await expect(page.getByRole('main')).toHaveCount(1);
	expect(await page.locator('.page[role="region"]').count()).toBe(0);
	// links of pages that are drawn beforehand and not seen cannot be reached
	const layers = (pages: string) => page.locator(`${pages} .annotationLayer`).evaluateAll((all) => all.map((layer) => getComputedStyle(layer).visibility));
	await expect.poll(async () => (await layers('.page:not(.in-sight)')).length).toBeGreaterThan(0);
	expect(new Set(await layers('.page:not(.in-sight)'))).toEqual(new Set(['hidden']));
	expect(new Set(await layers('.page.in-sight'))).toEqual(new Set(['visible']));
});

test('two taps bring the column under the finger to the width of the window, two more everything back', async ({ people }) => {
	const page = await people.as('visitor', { viewport: { width: 390, height: 844 }, hasTouch: true });
	await open(page, '/d/cruising-guide/read');
	await drawn(page, 1);
	const line = page.locator('.page[data-page-number="1"] .textLayer span', { hasText: 'through. Two boats can pass' }).first();
	// while its words are laid out anew it has none
	const width = async () => (await line.boundingBox())?.width ?? 0;
	const small = await width();
	const { x, y } = await box(line);
	const twice = async (to: { x: number; y: number }) => {
		await page.touchscreen.tap(to.x, to.y);
		await page.touchscreen.tap(to.x, to.y);
	};
	await twice({ x: x + 30, y: y + 4 });
	await expect.poll(width).toBeGreaterThan(small * 1.15);
	const near = await box(line);
	expect(near.x).toBeGreaterThanOrEqual(0);
	expect(near.x + near.width).toBeLessThanOrEqual(390);
	await twice({ x: near.x + 30, y: near.y + 4 });
	await expect.poll(async () => Math.abs((await width()) - small) < 2).toBe(true);
});

test('in a narrow window a book shows one page after the other', async ({ people }) => {
	const page = await people.as('visitor', { viewport: { width: 390, height: 844 } });
	await open(page, '/d/cruising-guide/read?way=book');
	await drawn(page, 1);
	await page.keyboard.press('ArrowRight');
	await expect(page.locator('.stage')).toHaveAttribute('data-page', '2');
	await page.keyboard.press('ArrowRight');
	await expect(page.locator('.stage')).toHaveAttribute('data-page', '3');
	await page.setViewportSize({ width: 1200, height: 800 });
	await expect(page.locator('.pdfViewer .spread').first()).toBeAttached();
	await expect(page.locator('.stage')).toHaveAttribute('data-page', /^[23]$/);
});

/** A page with words and a picture of one colour in its middle, by pdfkit. */
async function pictured(): Promise<string> {
	const { default: sharp } = await import('sharp');
	const picture = await sharp({ create: { width: 200, height: 200, channels: 3, background: '#c82814' } })
		.png()
		.toBuffer();
	const doc = new PDFDocument({ size: [400, 400] });
	const parts: Buffer[] = [];
	doc.on('data', (part: Buffer) => parts.push(part));
	const whole = new Promise<Buffer>((done) => doc.on('end', () => done(Buffer.concat(parts))));
	doc.text('Words above the picture', 20, 20).image(picture, 100, 100, { width: 200, height: 200 }).end();
	const path = join(made, 'pictured.pdf');
	writeFileSync(path, await whole);
	return path;
}

test('on dark and tinted paper the paper changes and pictures do not, turned and in another size too', async ({ people }) => {
	const slug = await bring(await pictured());
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	const { default: sharp } = await import('sharp');
	/** Colours where the paper is, and in the middle of the picture. */
	async function colours(): Promise<[paper: number[], picture: number[]]> {
		await expect(page.locator('.page .tint')).toBeAttached();
		const place = await box(pageOf(page, 1));
		const shot = sharp(await page.screenshot());
		const at = async (x: number, y: number) => {
			const region = { left: Math.round(place.x + place.width * x), top: Math.round(place.y + place.height * y), width: 1, height: 1 };
			return [...(await shot.clone().removeAlpha().extract(region).raw().toBuffer())];
		};
		return [await at(0.1, 0.3), await at(0.5, 0.5)];
	}
	const near = (colour: number[], wanted: number[]) => colour.every((part, i) => Math.abs(part - wanted[i]!) < 12);
	const red = [0xc8, 0x28, 0x14];
	const choose = async (paper: string) => {
		await panel(page, 'more');
		await page.getByRole('dialog').getByRole('button', { name: paper, exact: true }).click();
		await panel(page, 'more');
	};
	expect((await colours()).map((colour, i) => near(colour, [[255, 255, 255], red][i]!))).toEqual([true, true]);
	for (const [name, paper] of [
		['night', [26, 26, 26]],
		['straw', [0xf6, 0xe6, 0xc2]]
	] as const) {
		await choose(name);
		for (const change of ['', 'r', '-']) {
			if (change) await page.keyboard.press(change);
			await expect(async () => {
				const seen = await colours();
				expect([name, change, near(seen[0], [...paper]), near(seen[1], red)]).toEqual([name, change, true, true]);
			}).toPass({ timeout: 60_000 });
		}
	}
	// it is remembered
	await page.reload();
	await drawn(page, 1);
	expect(near((await colours())[0], [0xf6, 0xe6, 0xc2])).toBe(true);
});

test('a new find never shows what the one before it found', async ({ people }) => {
	const page = await people.as('visitor');
	await open(page, '/d/cruising-guide/read');
	await drawn(page, 1);
	await panel(page, 'find');
	const field = page.getByRole('searchbox');
	const status = page.getByRole('dialog').locator('.count [role="status"]');
	await field.fill('the');
	await expect(status).toHaveText(/\d{2,} times/);
	// the count has stopped growing: what is read here is what must not be seen again
	await expect(page.getByRole('dialog').locator('.count .soft')).toHaveCount(0);
	const before = (await status.textContent())!.replace(/^.*\//, '').trim();
	// every text that stands there from now on
	await status.evaluate((element) => {
		const seen: string[] = [];
		Object.assign(window, { seen });
		new MutationObserver(() => seen.push(element.textContent ?? '')).observe(element, { childList: true, characterData: true, subtree: true });
	});
	await field.fill('aqueduct');
	await expect(status).toHaveText(/times|once/i);
	await expect(status).not.toContainText(before);
	const seen = await page.evaluate(() => (window as unknown as { seen: string[] }).seen);
	expect(seen.length).toBeGreaterThan(0);
	expect(seen.filter((text) => text.includes(before))).toEqual([]);
});

test('printing very many pages is asked about first', async ({ people }) => {
	const page = await people.as('visitor');
	const many = join(made, 'many.pdf');
	execFileSync('qpdf', ['--empty', '--pages', ...Array.from({ length: 20 }, () => [handbook, '1-z']).flat(), '--', many]);
	const slug = await bring(many);
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	await panel(page, 'print');
	const dialog = page.getByRole('dialog');
	await dialog.getByRole('button', { name: 'Print', exact: true }).click();
	await expect(dialog.getByRole('alert')).toContainText('pages are drawn for the printer');
	await expect(dialog.getByRole('progressbar')).toHaveCount(0);
	await dialog.getByRole('button', { name: 'Print all the same' }).click();
	await expect(dialog.getByRole('progressbar')).toBeVisible();
	await dialog.getByRole('button', { name: 'Stop' }).click();
	await expect(dialog.getByRole('button', { name: 'Print', exact: true })).toBeVisible();
});

/** A page with a script that runs at opening, a link that starts a program, and a button that sends the form away (ISO 32000-1, 12.6.4). */
function activePdf(to: string): string {
	const objects = [
		`<< /Type /Catalog /Pages 2 0 R /AcroForm << /Fields [6 0 R] >> /OpenAction << /S /JavaScript /JS (app.alert\\('in the script'\\); app.launchURL\\('${to}/script'\\);) >> >>`,
		'<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
		'<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Annots [5 0 R 6 0 R] /Resources << /Font << /F << /Type /Font /Subtype /Type1 /BaseFont /Helvetica >> >> >> >>',
		'<< /Length 45 >>\nstream\nBT /F 24 Tf 72 700 Td (Active content) Tj ET\nendstream',
		'<< /Type /Annot /Subtype /Link /Rect [72 500 272 560] /Border [0 0 2] /A << /S /Launch /F (calc.exe) >> >>',
		`<< /Type /Annot /Subtype /Widget /FT /Btn /Ff 65536 /T (send) /Rect [72 400 272 460] /P 3 0 R /MK << /CA (Send) /BC [0 0 0] >> /A << /S /SubmitForm /F << /FS /URL /F (${to}/form) >> >> >>`
	];
	return pdfOf('active.pdf', objects);
}

test('what a document would do by itself is not done: no script, no program, nothing sent', async ({ people }) => {
	const elsewhere = 'http://127.0.0.1:9';
	const slug = await bring(activePdf(elsewhere), { position: 'open' }, 'active.pdf');
	const { condition } = (await (await staff.get(`/api/v1/documents/${slug}`)).json()) as { condition: { findings: { code: string }[] } };
	expect(condition.findings.map((f) => f.code)).toContain('active-content');
	const page = await people.as('visitor');
	const did: string[] = [];
	page.on('dialog', (dialog) => {
		did.push(`dialog: ${dialog.message()}`);
		void dialog.dismiss();
	});
	page.context().on('request', (request) => {
		if (request.url().startsWith(elsewhere)) did.push(`asked ${request.url()}`);
	});
	page.context().on('page', (opened) => did.push(`opened ${opened.url()}`));
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	await expect(pageOf(page, 1).locator('.textLayer')).toContainText('Active content');
	const before = page.url();
	const leaf = await box(pageOf(page, 1));
	const scale = leaf.width / 595;
	// in the middle of the link, and of the button
	for (const y of [842 - 530, 842 - 430]) await page.mouse.click(leaf.x + 172 * scale, leaf.y + y * scale);
	await page.waitForTimeout(700);
	expect(did).toEqual([]);
	expect(page.url()).toBe(before);
});

test('tools that come only when they are wanted: by the pointer at the lower edge, and by keyboard', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'hidden.pdf');
	expect((await staff.patch(`/api/v1/documents/${slug}`, { data: { reading: { hideTools: true } } })).status()).toBe(200);
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	const sill = page.locator('.sill');
	await page.mouse.move(500, 200);
	const lies = async () => (await box(sill)).y;
	await expect.poll(lies).toBeGreaterThanOrEqual(790);
	await page.mouse.move(500, 790);
	await expect.poll(lies).toBeLessThan(780);
	await page.mouse.move(500, 200);
	await expect.poll(lies).toBeGreaterThanOrEqual(790);
	await sill.getByRole('button', { name: 'Next page' }).focus();
	await expect.poll(lies).toBeLessThan(780);
});

test('the structure of a tagged document is given to a screen reader', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'tagged.pdf');
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	await expect(pageOf(page, 1)).toHaveAttribute('aria-label', 'Page 1 of 11');
	await expect(page.locator('.structTree [role="heading"], .structTree [role]').first()).toBeAttached();
	await page.keyboard.press('ArrowRight');
	await expect(page.locator('[aria-live="polite"]')).toHaveText('Page 2 of 11');
});

test('attachments are saved, each an entry in the ledger; with saving off they are only named', async ({ people }) => {
	const path = join(made, 'attached.pdf');
	execFileSync('qpdf', [handbook, '--add-attachment', fileURLToPath(new URL('../../package.json', import.meta.url)), '--filename=readings.json', '--', path]);
	const slug = await bring(path);
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await panel(page, 'more');
	const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'readings.json' }).click()]);
	expect(readFileSync(await file.path(), 'utf8')).toBe(readFileSync('package.json', 'utf8'));
	const ledger = (await (await staff.get(`/api/v1/documents/${slug}/ledger`)).json()) as { items: { kind: string }[] };
	expect(ledger.items.some((item) => item.kind === 'saved')).toBe(true);
	await staff.patch(`/api/v1/documents/${slug}`, { data: { door: { allow: { save: false, print: true } } } });
	expect((await page.request.get(`/d/${slug}/attachment/1`)).status()).toBe(403);
	await page.reload();
	await panel(page, 'more');
	await expect(page.getByText('readings.json')).toBeVisible();
	await expect(page.getByRole('link', { name: 'readings.json' })).toHaveCount(0);
});

test('printing: some pages at 150 dots to the inch on their own paper, told to the ledger; where it is not allowed, nothing is printed', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'print.pdf');
	const page = await people.as('visitor');
	await page.addInitScript(() => {
		window.print = () => {
			const images = [...document.querySelectorAll<HTMLImageElement>('.printed img')];
			(window as unknown as { printed: unknown }).printed = images.map((i) => ({ width: i.naturalWidth, style: i.parentElement!.style.cssText }));
		};
	});
	await open(page, `/d/${slug}/read`);
	await page.keyboard.press('Control+p');
	const dialog = page.getByRole('dialog', { name: 'Print' });
	await dialog.getByRole('textbox').fill('99');
	await dialog.getByRole('button', { name: 'Print' }).click();
	await expect(dialog.getByRole('alert')).toHaveText('No such pages here');
	await dialog.getByRole('textbox').fill('2-3');
	await dialog.getByRole('button', { name: 'Print' }).click();
	await expect.poll(() => page.evaluate(() => (window as unknown as { printed?: unknown[] }).printed?.length)).toBe(2);
	const [first] = await page.evaluate(() => (window as unknown as { printed: { width: number; style: string }[] }).printed);
	const points = Number(/width: ([\d.]+)pt/.exec(first!.style)![1]);
	expect(first!.width / (points / 72)).toBeGreaterThanOrEqual(149.9);
	// into a file: two pages of the paper's size, and their words are words there
	const printed = join(made, 'printed.pdf');
	writeFileSync(printed, await page.pdf({ preferCSSPageSize: true }));
	expect(execFileSync('pdfinfo', [printed], { encoding: 'utf8' })).toMatch(/Pages: +2\n(?:.*\n)*Page size: +59\d(?:\.\d+)? x 84[12]/);
	const words = (path: string, ...pages: string[]) => execFileSync('pdftotext', [...pages, path, '-'], { encoding: 'utf8' }).match(/\p{L}{3,}/gu)!;
	const [meant, got] = [words(handbook, '-f', '2', '-l', '3'), new Set(words(printed))];
	expect(meant.filter((word) => !got.has(word)).length / meant.length).toBeLessThan(0.03);
	await page.evaluate(() => window.dispatchEvent(new Event('afterprint')));
	await expect(page.locator('.printed')).toHaveCount(0);
	await expect
		.poll(async () => ((await (await staff.get(`/api/v1/documents/${slug}/ledger`)).json()) as { items: { kind: string }[] }).items.map((i) => i.kind))
		.toContain('printed');

	await staff.patch(`/api/v1/documents/${slug}`, { data: { door: { allow: { save: true, print: false } } } });
	await page.reload();
	await expect(page.locator('.standin.gone')).toBeAttached();
	await expect(page.locator('[data-opens="print"]')).toHaveCount(0);
	await page.keyboard.press('Control+p');
	await expect(page.getByRole('dialog')).toHaveCount(0);
	await page.emulateMedia({ media: 'print' });
	await expect(page.locator('.room')).toBeHidden();
	await expect(page.getByText('This document may be read here, but not printed.')).toBeVisible();
});

test('read only: drawn sharp for the zoom, found in, and no request gets the file', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open', allow: { save: false, print: false } }, 'pictures.pdf');
	const page = await people.as('visitor');
	const asked: string[] = [];
	page.on('request', (request) => asked.push(request.url()));
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	await page.keyboard.press('/');
	await page.getByRole('searchbox').fill('legacy');
	await expect(page.getByRole('dialog').getByRole('status')).toContainText(/\d+ times?/);
	await page.keyboard.press('Escape');
	for (let i = 0; i < 8; i++) await page.keyboard.press('+');
	await expect.poll(() => asked.some((url) => /leaf\/\d+\.webp\?w=(1[2-9]|[2-9]\d)\d\d/.test(url))).toBe(true);
	expect(asked.filter((url) => /\/(?:file|attachment)/.test(new URL(url).pathname))).toEqual([]);
	await expect(page.getByText('Read only')).toBeVisible();
});

test('when the connection goes, the room says so, keeps what it has, and goes on by itself', async ({ people }) => {
	const slug = await bring(large, { position: 'open' }, 'lost.pdf');
	const page = await people.as('visitor', {}, { connectionTrouble: true });
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	await page.context().setOffline(true);
	await page.keyboard.press('End');
	await expect(page.getByText('The connection is lost.')).toBeVisible();
	await page.keyboard.press('Home');
	await drawn(page, 1);
	await page.context().setOffline(false);
	await page.keyboard.press('End');
	await expect(page.getByText('The connection is lost.')).toBeHidden();
	await expect(page.locator('.page[data-loaded]').last()).toBeVisible();
});

test('a document withdrawn while it is read is taken away at the next request', async ({ people }) => {
	const slug = await bring(large, { position: 'open' }, 'withdrawn.pdf');
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	await staff.patch(`/api/v1/documents/${slug}`, { data: { door: { position: 'shut' } } });
	await page.keyboard.press('End');
	await expect(page.getByRole('heading', { name: 'This document can no longer be read here' })).toBeVisible();
	await expect(page.locator('.pdfViewer .page')).toHaveCount(0);
});

test('site, document, placement and reader say how a document is read, the later over the earlier', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'settings.pdf');
	const desk = await people.as('staff');
	await desk.goto(`/desk/documents/${slug}#read`);
	await desk.getByText('How it is read').click();
	await desk.locator('.how').getByRole('button', { name: 'Book', exact: true }).click();
	await expect(desk.getByText(/: reading room set\.$/)).toBeVisible();
	await desk.locator('.how').getByLabel('print', { exact: true }).uncheck();
	await expect(async () => {
		const view = (await (await staff.get(`/api/v1/documents/${slug}`)).json()) as { reading: unknown };
		expect(view.reading).toEqual({ way: 'book', tools: ['save', 'full-screen', 'fit', 'turn', 'find', 'ways', 'share', 'back'] });
	}).toPass();
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	await expect(page.locator('[data-opens="ways"]')).toHaveText('Book');
	await expect(page.locator('[data-opens="print"]')).toHaveCount(0);
	await open(page, `/d/${slug}/read?way=across&tools=find`);
	await expect(page.locator('[data-opens="ways"]')).toHaveCount(0);
	await expect(page.getByRole('link', { name: 'Save', exact: true })).toHaveCount(0);
	// a setting that makes no sense is refused in words
	const refused = await staff.patch(`/api/v1/documents/${slug}`, { data: { reading: { way: 'sideways' } } });
	expect(refused.status()).toBe(422);
});

test('the room speaks six languages, Arabic from right to left, and keeps the one chosen', async ({ people }) => {
	for (const language of languages) {
		const page = await people.as('visitor', { locale: language });
		await open(page, '/d/cruising-guide/read');
		await expect(page.locator('[data-opens="more"]'), language).toHaveText(messages[language].room.more as string);
		await expect(page.locator('.sill')).toHaveAttribute('dir', language === 'ar' ? 'rtl' : 'ltr');
		await page.goto('/d/lock-warden-handbook');
		await expect(page.getByRole('heading', { level: 1 }), language).toHaveText(messages[language].site.forMembers as string);
		await expect(page.locator('html')).toHaveAttribute('lang', language);
		expect(await page.evaluate(() => document.documentElement.scrollWidth), language).toBeLessThanOrEqual(1280);
	}
	const page = await people.as('visitor', { locale: 'en-GB' });
	await open(page, '/d/cruising-guide/read');
	await panel(page, 'more');
	await page.getByRole('link', { name: 'Polski' }).click();
	await expect(page.locator('[data-opens="find"]')).toHaveText('Znajdź');
	await page.goto('/sign-in');
	await expect(page.getByRole('button', { name: 'Zaloguj się' })).toBeVisible();
});

test('what is read is told: seconds for the pages that were attended to, in the reading that the opening began', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'told.pdf');
	// a member: what a page that is gone still sends carries the browser's own name, not the one that this test gives it
	const page = await people.as('member');
	await open(page, `/d/${slug}/read`);
	await drawn(page, 1);
	await page.mouse.move(300, 300);
	await page.waitForTimeout(3500);
	// a busy machine: between the signs that the page is left, time passes
	await page.evaluate(() => {
		const busy = () => {
			for (const from = performance.now(); performance.now() - from < 250;);
		};
		addEventListener('pagehide', busy);
		document.addEventListener('visibilitychange', busy);
	});
	await page.goto('/');
	await expect(async () => {
		const { items } = (await (await staff.get(`/api/v1/documents/${slug}/ledger`)).json()) as {
			items: { kind: string; pages?: { page: number; seconds: number }[] }[];
		};
		const told = items.flatMap(({ kind, pages }) => (kind === 'read' ? [pages!] : []));
		expect(told.flat().map((p) => p.page)).toContain(1);
		const seconds = told.map((pages) => pages.reduce((sum, p) => sum + p.seconds, 0));
		const all = seconds.reduce((sum, s) => sum + s, 0);
		expect(all).toBeGreaterThan(2.5);
		expect(all).toBeLessThan(30);
		expect(
			seconds.filter((s) => s < 1),
			'the end of a reading is told once'
		).toEqual([]);
		expect(items.filter((item) => item.kind === 'opened')).toHaveLength(1);
	}).toPass({ timeout: 60_000 });
});

test('axe finds nothing against WCAG 2.2 AA in the room’s states, light and dark; at 400 % nothing is lost', async ({ people }) => {
	const page = await people.as('visitor');
	await open(page, '/d/cruising-guide/read');
	expect(await axeLightAndDark(page)).toEqual([]);
	for (const name of ['ways', 'fit', 'find', 'print', 'more']) {
		await panel(page, name);
		if (name === 'find') {
			await page.getByRole('searchbox').fill('lock');
			await expect(page.locator('.place').first()).toBeVisible();
		}
		expect(await axeLightAndDark(page), name).toEqual([]);
		await page.keyboard.press('Escape');
		await expect(page.getByRole('dialog')).toHaveCount(0);
		await expect(page.locator(`[data-opens="${name}"]`)).toBeFocused();
	}
	// 1280 px at 400 % are 320 CSS px (WCAG 2.2, 1.4.10)
	const small = await people.as('visitor', { viewport: { width: 320, height: 640 } });
	await open(small, '/d/cruising-guide/read');
	expect(await small.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
	for (const name of [/Next page/, /More/]) {
		const button = await box(small.getByRole('button', { name }));
		expect(button.x + button.width).toBeLessThanOrEqual(320);
	}
	await panel(small, 'more');
	await expect(small.getByRole('button', { name: 'Find', exact: true })).toBeVisible();
	await expect(small.getByRole('link', { name: 'Save', exact: true })).toBeVisible();
	expect(await axe(small)).toEqual([]);
});

test('while the library is on its way pages are turned as pictures, and the room opens at the one that is shown', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'slow.pdf');
	const page = await people.as('visitor');
	let arrive = () => {};
	const held = new Promise<void>((go) => (arrive = go));
	await page.route('**/file?for=reading*', async (route) => {
		await held;
		await route.continue();
	});
	await page.goto(`/d/${slug}/read#page=4`);
	const number = page.getByRole('textbox', { name: 'Page' });
	await expect(number).toHaveValue('4');
	await expect(page.locator('.standin img')).toHaveAttribute('src', /\/leaf\/4\.webp/);
	await page.getByRole('button', { name: 'Next page' }).click();
	await page.keyboard.press('ArrowRight');
	await expect(number).toHaveValue('6');
	await expect(page.locator('.standin img')).toHaveAttribute('src', /\/leaf\/6\.webp/);
	await expect.poll(() => page.locator('.standin img').evaluate((image: HTMLImageElement) => image.complete && image.naturalWidth)).toBeGreaterThan(0);
	// who has script is not told that it is needed
	await expect(page.getByText(messages.en.room.needsScript as string)).toBeHidden();
	arrive();
	await drawn(page, 6);
	await isOnPage(page, 6);
	await expect(number).toHaveValue('6');

	// before any script of the room is there, the page that the address names is named and shown
	const bare = await people.as('visitor');
	await bare.goto('/privacy');
	await bare.route('**/_app/immutable/**/*.js', () => undefined);
	await bare.evaluate((to) => location.assign(to), `/d/${slug}/read#page=4`);
	await expect(bare.getByRole('textbox', { name: 'Page' })).toHaveValue('4');
	await expect(bare.locator('.standin img')).toHaveAttribute('src', /\/leaf\/4\.webp/);
});

test('the page of a document shows its pages: a press reads there, looking is no opening, and whom its door turns away sees none', async ({ people }) => {
	const slug = await bring(handbook, { position: 'open' }, 'looked-at.pdf');
	const opened = async () =>
		((await (await staff.get(`/api/v1/documents/${slug}/ledger`)).json()) as { items: { kind: string }[] }).items.filter(({ kind }) => kind === 'opened')
			.length;
	const page = await people.as('visitor');
	await page.goto(`/d/${slug}`);
	const pages = page.getByRole('region', { name: 'Its pages' });
	await expect(pages.getByRole('link')).toHaveCount(11);
	const third = pages.getByRole('link', { name: 'page 3', exact: true });
	await third.scrollIntoViewIfNeeded();
	await expect.poll(() => third.locator('img').evaluate((image: HTMLImageElement) => image.complete && image.naturalWidth)).toBe(200);
	expect(await opened()).toBe(0);
	await third.click();
	await isOnPage(page, 3);
	await drawn(page, 3);
	expect(await opened()).toBe(1);

	await staff.patch(`/api/v1/documents/${slug}`, { data: { door: { position: 'keyed', allMembers: true } } });
	for (const [who, count] of [
		['visitor', 0],
		['member', 1]
	] as const) {
		const other = await people.as(who);
		await other.goto(`/d/${slug}`);
		await expect(other.getByRole('heading', { level: 1 })).toBeVisible();
		await expect(other.getByRole('region', { name: 'Its pages' }), who).toHaveCount(count);
	}
});

test('chapters beside the pages: a long name widens, and names can be hidden', async ({ people }) => {
	const slug = await bring(japanese, { position: 'open' }, 'chapters.pdf');
	const page = await people.as('visitor');
	await open(page, `/d/${slug}/read`);
	const names = page.getByRole('navigation', { name: 'Contents' }).getByRole('button');
	await expect(names.first()).toBeVisible();
	const cut = (await names.all()).map((name) => name.evaluate((button) => button.scrollWidth > button.clientWidth));
	const long = names.nth((await Promise.all(cut)).indexOf(true));
	const narrow = await box(long);
	await long.hover();
	const wide = await box(long);
	expect(wide.width).toBeGreaterThan(narrow.width);
	expect(Math.abs(wide.x + wide.width - narrow.x - narrow.width)).toBeLessThan(12);
	expect(await long.evaluate((button) => button.scrollWidth > button.clientWidth)).toBe(false);
	await panel(page, 'more');
	await page.getByLabel('Names of chapters beside the pages').uncheck();
	await expect(names).toHaveCount(0);
	expect((await box(page.locator('.fore-edge'))).width).toBeLessThan(60);
	await page.reload();
	await expect(page.locator('.standin.gone')).toBeAttached();
	await expect(names).toHaveCount(0);
});

test('a page is handed on by what the system has for it; closed again, nothing was', async ({ people }) => {
	const page = await people.as('visitor');
	await page.addInitScript(() => {
		const told = ((window as { told?: unknown[] }).told = [] as unknown[]);
		Object.defineProperty(navigator, 'share', {
			value: (what: unknown) => {
				told.push(what);
				return told.length === 1 ? Promise.resolve() : Promise.reject(new DOMException('closed', 'AbortError'));
			}
		});
	});
	await open(page, '/d/cruising-guide/read#page=3');
	await isOnPage(page, 3);
	await panel(page, 'more');
	const share = page.getByRole('button', { name: 'Share this page' });
	await share.click();
	await share.click();
	await expect
		.poll(() => page.evaluate(() => (window as { told?: unknown[] }).told))
		.toEqual(Array(2).fill({ title: 'Cruising guide', url: `${origin()}/d/cruising-guide/read#page=3` }));
	await expect(page.getByText('Copied')).toHaveCount(0);
});

test('at 320 by 256, which is 400 %, the tools take less than a fifth', async ({ people }) => {
	for (const language of languages) {
		const page = await people.as('visitor', { viewport: { width: 320, height: 256 }, locale: language });
		await open(page, '/d/cruising-guide/read');
		expect((await box(page.locator('.sill'))).height, language).toBeLessThan(256 / 5);
		for (const name of ['previous', 'next', 'more'] as const) {
			const button = await box(page.getByRole('button', { name: messages[language].room[name] as string, exact: true }));
			expect(button.x, `${language} ${name}`).toBeGreaterThanOrEqual(0);
			expect(button.x + button.width, `${language} ${name}`).toBeLessThanOrEqual(320);
		}
		await expect(page.getByRole('heading', { level: 1 }), language).toHaveCount(1);
	}
});

test('on a phone a finger turns the pages and two zoom; the fore-edge is there', async ({ people }) => {
	const page = await people.as('visitor', { viewport: { width: 360, height: 740 }, hasTouch: true, isMobile: true });
	await open(page, '/d/cruising-guide/read?way=one-by-one&fit=page');
	await isOnPage(page, 1);
	const swipe = (from: number, to: number) =>
		page.locator('.stage').evaluate(
			(stage, [from, to]) => {
				const touch = (x: number) => new Touch({ identifier: 1, target: stage, clientX: x, clientY: 300 });
				stage.dispatchEvent(new TouchEvent('touchstart', { touches: [touch(from!)], changedTouches: [touch(from!)], bubbles: true }));
				stage.dispatchEvent(new TouchEvent('touchend', { touches: [], changedTouches: [touch(to!)], bubbles: true }));
			},
			[from, to]
		);
	await swipe(300, 80);
	await isOnPage(page, 2);
	await swipe(80, 300);
	await isOnPage(page, 1);
	await expect(page.getByRole('slider', { name: 'Pages' })).toBeVisible();
	const more = await box(page.getByRole('button', { name: 'More' }));
	expect(more.y).toBeGreaterThan(740 / 2);
	expect(more.x + more.width).toBeLessThanOrEqual(360);
});
