// Files on their way in: the tray, a connection that is cut, a reload, the same bytes again, pausing and stopping, many at once.
import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import type { Page } from '@playwright/test';
import { noisePdf } from '../../scripts/noise-pdf';
import { chromiumPdf, drop, expect, fileOf, locked, signIn, origin, test, textFile } from './help';

const uploads = '**/api/v1/intake/*';
const trayOf = (page: Page) => page.getByRole('region', { name: 'Intake tray' });
const choose = (page: Page) => page.getByLabel('Choose PDF files to bring in');
/** Of each PATCH that was let through, where it went on from. */
const offsets = (page: Page) => {
	const seen: number[] = [];
	page.on('request', (request) => {
		if (request.method() === 'PATCH' && request.url().includes('/api/v1/intake/')) seen.push(Number(request.headers()['upload-offset']));
	});
	return seen;
};
/** Takes away what earlier tests left in the tray. */
async function emptyTray(page: Page): Promise<void> {
	const headers = { origin: origin() };
	const { items } = (await (await page.request.get('/api/v1/intake')).json()) as { items: { id: string; state: string }[] };
	await page.request.patch('/api/v1/intake', { headers, data: { stop: items.filter((i) => i.state === 'uploading').map((i) => i.id) } });
	await page.request.delete('/api/v1/intake', { headers });
	await page.goto('/desk/documents');
	await expect(page.getByRole('heading', { name: 'Documents' })).toBeVisible();
}
/** A file of two parts, the first of them two thirds of it. */
const large = async (text: string) => fileOf(`${text}.pdf`, await noisePdf(12_500_000, text));

test('an upload whose connection is cut goes on from where it stopped', async ({ people }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await emptyTray(page);
	const seen = offsets(page);
	let cut = true;
	// the first part goes through with the creation; what follows does not
	await page.route(uploads, (route) => (cut && route.request().method() === 'PATCH' ? route.abort('connectionreset') : route.continue()));
	await choose(page).setInputFiles([await large('Cut off')]);
	const tray = trayOf(page);
	await expect(tray.getByText(/^The connection is lost at 6\d %\. It goes on by itself when it is back\.$/)).toBeVisible();
	const triedBefore = seen.length;
	cut = false;
	await expect(tray.getByText('Sound', { exact: true })).toBeVisible();
	// tus 1.0: a PATCH says where it goes on; nothing that had arrived is sent again
	expect(Math.min(...seen.slice(triedBefore))).toBe(8 * 1024 * 1024);
});

test('a proxy that takes no more than 1 MB in a request gets the file in smaller ones', async ({ people }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await emptyTray(page);
	const [taken, refused]: [number[], number[]] = [[], []];
	await page.route(/\/api\/v1\/intake(?:\/|$)/, async (route) => {
		const bytes = route.request().postDataBuffer()?.length ?? 0;
		if (route.request().method() === 'GET') return route.continue();
		(bytes > 1_048_576 ? refused : taken).push(bytes);
		// as nginx answers with its stock client_max_body_size
		return bytes > 1_048_576 ? route.fulfill({ status: 413, contentType: 'text/html', body: '<h1>413 Request Entity Too Large</h1>' }) : route.continue();
	});
	await choose(page).setInputFiles([await large('Behind a proxy'), await large('Behind it too')]);
	const tray = trayOf(page);
	await expect(tray.getByText('Sound', { exact: true })).toHaveCount(2, { timeout: 60_000 });
	expect(refused.length).toBeGreaterThan(0);
	// once found out, it is remembered: each file was refused at most once
	expect(refused.length).toBeLessThanOrEqual(2);
	expect(taken.length).toBeGreaterThan(24);
});

test('an upload survives a reload and moving between rooms', async ({ people }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await emptyTray(page);
	const seen = offsets(page);
	let held = true;
	await page.route(uploads, (route) => (held && route.request().method() === 'PATCH' ? route.abort('connectionreset') : route.continue()));
	await choose(page).setInputFiles([await large('Reloaded')]);
	const tray = trayOf(page);
	await expect(tray.getByText(/6\d %/).first()).toBeVisible();
	await page.getByRole('link', { name: 'People', exact: true }).click();
	await expect(page.getByRole('heading', { name: 'People' })).toBeVisible();
	await expect(tray.getByText('Reloaded.pdf')).toBeVisible();
	held = false;
	seen.length = 0;
	await page.reload();
	await expect(tray.getByText('Sound', { exact: true })).toBeVisible();
	expect(Math.min(...seen)).toBe(8 * 1024 * 1024);
	await tray.getByRole('link', { name: 'Open' }).last().click();
	await expect(page.getByRole('complementary', { name: 'Reloaded' })).toBeVisible();
});

test('where somebody has gone they arrive, though something comes in meanwhile', async ({ people, browser }) => {
	const path = await chromiumPdf(browser, 'Meanwhile', 1);
	const page = await people.as('staff');
	await emptyTray(page);
	// the next room takes its time, longer than the file
	let arrive = () => {};
	const held = new Promise<void>((go) => (arrive = go));
	await page.route('**/desk/people/__data.json*', async (route) => {
		await held;
		await route.continue();
	});
	await choose(page).setInputFiles(path);
	await page.getByRole('link', { name: 'People', exact: true }).click();
	const tray = trayOf(page);
	await expect(tray.getByText('Sound', { exact: true })).toBeVisible();
	// what was brought in is shown in the lists a moment later: that must not call them back
	await page.waitForTimeout(1_500);
	arrive();
	await expect(page.getByRole('heading', { name: 'People' })).toBeVisible();
	await expect(page).toHaveURL(/\/desk\/people$/);
});

test('files that wait for their turn survive a reload too, and are sent once however the first requests ended', async ({ people, browser }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await emptyTray(page);
	const good = readFileSync(await chromiumPdf(browser, 'Waiting', 1));
	const files = Array.from({ length: 12 }, (_, i) => ({
		name: `Waiting ${i + 1}.pdf`,
		mimeType: 'application/pdf',
		buffer: Buffer.concat([good, Buffer.from(`% ${i}\n`)])
	}));
	let held = true;
	await page.route('**/api/v1/intake', async (route) => {
		if (!held || route.request().method() !== 'POST') return route.continue();
		// the request comes through, its answer does not
		await route.fetch();
		await route.abort('connectionreset');
	});
	await choose(page).setInputFiles(files);
	const tray = trayOf(page);
	await expect(tray.getByText('Waiting', { exact: true }).first()).toBeVisible();
	await page.waitForTimeout(500);
	held = false;
	await page.reload();
	await expect(tray.getByRole('status').first()).toHaveText('12 of 12 in', { timeout: 60_000 });
	await page.goto('/desk/documents?q="Waiting"&brought=day&order=title');
	await expect(page.locator('tbody tr[id^="row-"]')).toHaveCount(12);
});

test('an upload is paused, goes on, and is stopped for good', async ({ people }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await emptyTray(page);
	// the second part waits, as on a slow line
	let goOn = () => {};
	const slow = new Promise<void>((go) => (goOn = go));
	await page.route(uploads, async (route) => {
		if (route.request().method() === 'PATCH') await slow;
		await route.continue().catch(() => {});
	});
	await choose(page).setInputFiles([await large('Paused'), await large('Stopped')]);
	const tray = trayOf(page);
	const line = (name: string) => tray.getByRole('listitem').filter({ hasText: name });
	await line('Stopped.pdf').getByRole('button', { name: 'Stop Stopped.pdf' }).click();
	await expect(line('Stopped.pdf')).toContainText('Stopped. Nothing of it was kept.');
	await line('Paused.pdf').getByRole('button', { name: 'Pause Paused.pdf' }).click();
	await expect(line('Paused.pdf')).toContainText(/Paused at \d+ %/);
	goOn();
	await page.waitForTimeout(1500);
	await expect(line('Paused.pdf')).toContainText(/Paused at \d+ %/);
	await line('Paused.pdf').getByRole('button', { name: 'Go on with Paused.pdf' }).click();
	await expect(line('Paused')).toContainText('Sound');
	await page.goto('/desk/documents?q=Stopped&brought=day');
	await expect(page.getByRole('link', { name: 'Stopped', exact: true })).toHaveCount(0);
});

test('the same bytes are known before they are sent: open it, use it elsewhere, or bring it in all the same', async ({ people, browser }) => {
	const path = await chromiumPdf(browser, 'Known already', 2);
	const page = await people.as('staff');
	await emptyTray(page);
	await choose(page).setInputFiles(path);
	const tray = trayOf(page);
	await expect(tray.getByText('Sound', { exact: true })).toBeVisible();
	await tray.getByRole('button', { name: 'Clear' }).click();
	const sent: string[] = [];
	page.on('request', (request) => request.method() === 'POST' && request.url().endsWith('/api/v1/intake') && sent.push(request.url()));
	await choose(page).setInputFiles(path);
	await expect(tray.getByText(/Already here, as\s+Known already/)).toBeVisible();
	expect(sent).toEqual([]);
	await tray.getByRole('button', { name: 'Bring in all the same' }).click();
	await expect(tray.getByText('Sound', { exact: true })).toBeVisible();
	expect(sent).toHaveLength(1);
	await page.goto('/desk/documents?q="Known already"');
	await expect(page.getByRole('link', { name: 'Known already', exact: true })).toHaveCount(2);
});

test('two dozen files at once: the good ones come in, the others say why, and the tray shows only those on wish', async ({ people, browser }) => {
	const page = await people.as('staff');
	await emptyTray(page);
	const good = readFileSync(await chromiumPdf(browser, 'One of many', 1));
	const files = Array.from({ length: 21 }, (_, i) => ({
		name: `Many ${String(i + 1).padStart(2, '0')}.pdf`,
		// other bytes each: a comment after the end (ISO 32000-1, 7.2.4)
		bytes: Buffer.concat([good, Buffer.from(`% ${i}\n`)])
	}));
	const bad = textFile('Not one.pdf');
	const odd = locked(await chromiumPdf(browser, 'Locked one', 1));
	await drop(page, 'main', [
		...files,
		{ name: 'Empty.pdf', bytes: Buffer.alloc(0) },
		{ name: 'Not one.pdf', bytes: readFileSync(bad) },
		{ name: basename(odd), bytes: readFileSync(odd) }
	]);
	const tray = trayOf(page);
	await expect(tray.getByRole('progressbar', { name: 'All files' })).toBeVisible();
	await expect(tray.getByRole('status').first()).toHaveText('22 of 24 in, 2 refused', { timeout: 150_000 });
	await tray.getByLabel('Only those that need a look').check();
	await expect(tray.getByRole('listitem')).toHaveCount(2);
	await expect(tray.getByText('“Empty.pdf” is empty: it has no bytes in it. Export it again and bring in the new file.')).toBeVisible();
	await expect(tray.getByText('“Not one.pdf” is a text file, not a PDF. Export it as PDF and bring that in.')).toBeVisible();
	await tray.getByRole('button', { name: 'Clear' }).click();
	await expect(tray).toBeHidden();

	// the locked one is kept, and opens for good once its password is given
	await page.goto('/desk/documents?condition=refused&brought=day');
	await page.getByRole('link', { name: 'Locked one locked' }).click();
	const sheet = page.getByRole('complementary', { name: 'Locked one locked' });
	await sheet.getByLabel('Password of the file').fill('secret');
	await sheet.getByRole('button', { name: 'Unlock' }).click();
	await expect(sheet.getByText(/1 page\s+A4,.*Sound\./)).toBeVisible();
});

test('a PDF from a web address is fetched, watched, and its change taken as a new edition', async ({ people, browser }) => {
	const source = `http://127.0.0.1:${signIn().ports.source}/water-order.pdf`;
	const offer = (pdf: string) => fetch(source, { method: 'PUT', body: new Uint8Array(readFileSync(pdf)) });
	await offer(await chromiumPdf(browser, 'Water order', 2));
	const page = await people.as('staff');
	await emptyTray(page);
	await page.getByRole('button', { name: 'More ways' }).click();
	await page.getByLabel('Web address of a PDF').fill('http://10.0.0.1/secret.pdf');
	await page.getByRole('button', { name: 'Fetch' }).click();
	await expect(page.getByText('“10.0.0.1” leads into a private network, which nothing here calls.')).toBeVisible();
	await page.getByLabel('Web address of a PDF').fill(source);
	await page.getByLabel('Watch').check();
	await page.getByRole('button', { name: 'Fetch' }).click();
	const sheet = page.locator('aside.sheet');
	await expect(sheet.getByText('The same as here')).toBeVisible();
	await offer(await chromiumPdf(browser, 'Water order, changed', 4));
	await sheet.getByRole('button', { name: 'Look now' }).click();
	// beside one's own first; readers go on getting that one
	await sheet.getByRole('button', { name: 'See what changed' }).click();
	await expect(page.getByText('Edition 2 is the file that stands at the document’s web address now. Nobody reads it here yet.')).toBeVisible();
	await expect(page.getByRole('row', { name: 'Pages 2 4' })).toBeVisible();
	await page.getByText('As pictures').first().click();
	await expect(page.getByRole('img', { name: 'Page 1 of edition 2' }).first()).toBeVisible();
	await page.getByRole('button', { name: 'Take as new edition' }).click();
	await expect(sheet.getByText('2 editions')).toBeVisible();
	await expect(sheet.getByText(/4 pages/).first()).toBeVisible();
	await fetch(source, { method: 'DELETE' });
	await sheet.getByRole('button', { name: 'Look now' }).click();
	await expect(sheet.getByText('Gone', { exact: true })).toBeVisible();
	await page.keyboard.press('Escape');
	await page.keyboard.press('5');
	const gone = page.getByRole('listitem').filter({ hasText: 'Source gone' });
	await expect(gone).toHaveCount(1);
	await gone.getByRole('button', { name: 'Stop watching' }).click();
	await expect(gone).toHaveCount(0);
});
