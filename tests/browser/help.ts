// What browser tests share: people of the demo in browsers of their own, and files that our generator did not make.
import { execFileSync } from 'node:child_process';
import { createHmac } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { test as base, type Browser, type BrowserContext, type BrowserContextOptions, type JSHandle, type Locator, type Page } from '@playwright/test';

interface Demo {
	readonly origin: string;
	/** Of the site, for addresses that only a mail has. */
	readonly secret: string;
	readonly staff: { readonly email: string; readonly password: string };
	readonly member: { readonly email: string; readonly password: string };
	readonly ports: { readonly source: number; readonly outside: number };
}

/** The demo that this worker has to itself: where it is, and how one signs in. */
export const signIn = () => (JSON.parse(process.env.IANUA_TEST_SIGN_IN!) as Demo[])[Number(process.env.TEST_PARALLEL_INDEX)]!;
export const origin = () => signIn().origin;

export interface People {
	/**
	 * A browser of its own in which nothing is open yet, signed in unless a visitor: staff and member once by the form for all tests, somebody else by
	 * the form.
	 */
	as(
		who: 'staff' | 'member' | 'visitor' | { email: string; password: string },
		options?: BrowserContextOptions,
		/** Connections that the test itself cuts are no trouble. */
		allowing?: { connectionTrouble?: boolean }
	): Promise<Page>;
}

export const test = base.extend<{ people: People }>({
	people: async ({ browser }, use) => {
		const contexts: BrowserContext[] = [];
		const troubles: string[] = [];
		await use({
			as: async (who, options = {}, allowing = {}) => {
				const context = await open(browser, options);
				contexts.push(context);
				const page = await context.newPage();
				if (options.javaScriptEnabled !== false) {
					const goto = page.goto.bind(page);
					page.goto = async (...given) => {
						const response = await goto(...given);
						await atHome(page);
						return response;
					};
				}
				page.on('pageerror', (error) => troubles.push(error.stack ?? error.message));
				page.on('console', (message) => {
					// what the server rendered is taken over as it is, or the browser makes it all anew
					if (message.text().includes('hydration_mismatch')) troubles.push(`${page.url()}: ${message.text()}`);
					// refusals are part of these tests; what breaks the content policy or a script is not
					if (message.type() !== 'error' || /status of 4\d\d/.test(message.text())) return;
					if (!allowing.connectionTrouble || !/net::ERR_/.test(message.text())) troubles.push(message.text());
				});
				if (who === 'visitor') return page;
				if (typeof who !== 'string') await signInByForm(page, who);
				else {
					// signing in is limited by address, and all of these have the same one
					await context.addCookies(signedIn.get(who) ?? []);
					if (!(await inSession(context))) {
						await signInByForm(page, signIn()[who]);
						signedIn.set(who, await context.cookies());
					}
				}
				return page;
			}
		});
		for (const context of contexts) await context.close();
		if (troubles.length) throw new Error(`The browser's console had errors:\n${troubles.join('\n')}`);
	}
});
export { expect } from '@playwright/test';

const inside = /\/(me|desk)/;
const signedIn = new Map<string, Awaited<ReturnType<BrowserContext['cookies']>>>();
/** Whether somebody is signed in: who is not is refused by another status than who may not. */
const inSession = async ({ request }: BrowserContext) => (await request.get('/api/v1/topics')).status() !== 401;

async function signInByForm(page: Page, { email, password }: { email: string; password: string }): Promise<void> {
	await page.goto('/sign-in');
	await page.getByLabel('E-mail address').fill(email);
	await page.getByLabel('Password').fill(password);
	await page.getByRole('button', { name: 'Sign in', exact: true }).click();
	await page.waitForURL(inside);
}

/** The address at which one press ends all news by mail to a person: it stands in the mails, which go out by the minute. */
export function newsEnd(person: string): string {
	const proof = createHmac('sha256', signIn().secret).update(`news end ${person}`).digest('base64url').slice(0, 32);
	return `/me/news/end/${person}.${proof}`;
}

/** The address in the newest mail to somebody in which these words stand; waits for it, as mails are sent after the answer. */
export async function linkMailed(to: string, words: RegExp): Promise<string> {
	for (let i = 0; i < 50; i++) {
		const html = await (await fetch(`${origin()}/postbox`)).text();
		// only what stands in one mail: behind the last comes the page's script, which has them all
		const mail = html.match(/<article.*?<\/article>/gs)?.find((text) => text.includes(to) && words.test(text));
		if (mail) return /https?:\/\/[^\s"<]+/.exec(mail)![0].replaceAll('&amp;', '&');
		await new Promise((go) => setTimeout(go, 100));
	}
	throw new Error(`no mail to ${to} with ${words}`);
}

/** Waits until a page is at home in the browser: before, a press does nothing, and what is typed is not heard. A page opened by `goto` is. */
export async function atHome(page: Page): Promise<void> {
	// kit's own root shows this element as soon as it has taken the page over
	const taken = () => [...document.scripts].some(({ text }) => text.includes('__sveltekit_'));
	if (await page.evaluate(taken)) await page.locator('#svelte-announcer').waitFor({ state: 'attached', timeout: 30_000 });
}

let opened = 0;
function open(browser: Browser, options: BrowserContextOptions): Promise<BrowserContext> {
	// every browser is a reader of its own
	const userAgent = `Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/150.0.${++opened}.${process.pid} Safari/537.36`;
	return browser.newContext({ baseURL: origin(), viewport: { width: 1280, height: 800 }, userAgent, ...options });
}

const folder = mkdtempSync(join(tmpdir(), 'ianua-files-'));

/** A PDF printed by Chromium itself (Skia), not by the demo's generator: pages of A4 with headings and text. */
export async function chromiumPdf(browser: Browser, name: string, pages = 3): Promise<string> {
	const page = await browser.newPage();
	await page.setContent(
		Array.from(
			{ length: pages },
			(_, i) => `<section style="break-after:page"><h1>${name} ${i + 1}</h1><p>The sluice at bridge ${i + 1} stands open.</p></section>`
		).join('')
	);
	const path = join(folder, `${name}.pdf`);
	writeFileSync(path, await page.pdf({ format: 'A4' }));
	await page.close();
	return path;
}

/** The same file locked with a password, by Debian's qpdf. */
export function locked(path: string): string {
	const out = path.replace(/\.pdf$/, ' locked.pdf');
	execFileSync('qpdf', ['--encrypt', 'secret', 'owner', '256', '--', path, out]);
	return out;
}

/** Lays a file down for a test, and gives its path. */
export function fileOf(name: string, content: Buffer | string): string {
	const path = join(folder, name);
	writeFileSync(path, content);
	return path;
}

export const textFile = (name: string): string => fileOf(name, 'Dear all,\nno PDF at all.\n');

type Held = readonly { name: string; bytes: Buffer }[];
const transferOf = (page: Page, files: Held) =>
	page.evaluateHandle(
		(list) => {
			const transfer = new DataTransfer();
			for (const { name, base64 } of list)
				transfer.items.add(new File([Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))], name, { type: 'application/pdf' }));
			return transfer;
		},
		files.map(({ name, bytes }) => ({ name, base64: bytes.toString('base64') }))
	);
async function pointIn(target: Locator) {
	const box = (await target.boundingBox())!;
	return { clientX: box.x + Math.min(box.width / 2, 200), clientY: box.y + Math.min(box.height / 2, 200) };
}

/** Drops files on a page as a hand would: the browser's own drag events with the files in them. */
export async function drop(page: Page, target: string, files: Held): Promise<void> {
	await letGo(await hold(page, target, files), page.locator(target).first());
}

/** Holds files over a part of the page. */
export async function hold(page: Page, target: string, files: Held): Promise<JSHandle<DataTransfer>> {
	const dataTransfer = await transferOf(page, files);
	const over = page.locator(target).first();
	const point = await pointIn(over);
	for (const event of ['dragenter', 'dragover']) await over.dispatchEvent(event, { dataTransfer, ...point });
	return dataTransfer;
}

/** Lets go what is held, on a part of the page that may have come to be shown by holding it. */
export async function letGo(dataTransfer: JSHandle<DataTransfer>, on: Locator): Promise<void> {
	const point = await pointIn(on);
	for (const event of ['dragenter', 'dragover', 'drop']) await on.dispatchEvent(event, { dataTransfer, ...point });
}

/** What axe-core finds on a page against WCAG 2.2 AA, a line each. */
export async function axe(page: Page): Promise<string[]> {
	return found(page, (builder) => builder.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']));
}

/** The same as it stands, light, and then dark, where all but the contrast of colours is the same. */
export async function axeLightAndDark(page: Page): Promise<string[]> {
	await page.emulateMedia({ colorScheme: 'light' });
	const light = await axe(page);
	await page.emulateMedia({ colorScheme: 'dark' });
	const dark = await found(page, (builder) => builder.withRules(['color-contrast']));
	await page.emulateMedia({ colorScheme: 'light' });
	return [...light, ...dark.map((line) => `dark: ${line}`)];
}

async function found(page: Page, rules: (builder: AxeBuilder) => AxeBuilder): Promise<string[]> {
	// of what is found, only what is wrong is put together
	const builder = () => rules(new AxeBuilder({ page }).options({ resultTypes: ['violations'] }));
	// the text layer of a page is invisible by design, over its picture: its colours are none. What stands in a frame is looked at by itself; the
	// rows of a long table are alike. With no frames to look into, nothing is put together in a page of its own ("legacy mode").
	const { violations } = await builder().exclude('.textLayer').exclude('iframe').exclude('tbody tr:nth-child(n + 13)').setLegacyMode().analyze();
	if (await page.locator('.textLayer').count()) {
		const within = await builder().disableRules(['color-contrast']).include('.textLayer').setLegacyMode().analyze();
		violations.push(...within.violations);
	}
	return violations.map(
		(v) =>
			`${v.id}: ${v.nodes
				.map((n) => `${n.target.join(' ')} ${n.any[0]?.message ?? ''}`)
				.slice(0, 4)
				.join(' | ')}`
	);
}
