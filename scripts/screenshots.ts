// Pictures of the main views from the demo data: npm run screenshots. With --data and --port of a running Ianua it uses that one.
import { mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { chromium, type Browser, type Page } from 'playwright';
import { build } from './build';
import { chromiumOptions } from './chromium';
import { freePort } from '#server/db/cluster';
import { runIanua } from './run';
import { scratch } from './scratch';

interface Shot {
	readonly name: string;
	readonly as: 'staff' | 'member' | 'visitor';
	readonly path: string;
	readonly phone?: boolean;
	readonly dark?: boolean;
	readonly prepare?: (page: Page) => Promise<void>;
}

const drawn = async (page: Page) => {
	await page.locator('.page[data-loaded] canvas').first().waitFor();
	await page.locator('.wait').waitFor({ state: 'detached' });
};

const shots: readonly Shot[] = [
	{ name: 'documents', as: 'staff', path: '/desk/documents/lock-warden-handbook' },
	{ name: 'documents-dark', as: 'staff', path: '/desk/documents/lock-warden-handbook', dark: true },
	{ name: 'find', as: 'staff', path: '/desk/documents?q="stop planks" feeder -minutes' },
	{ name: 'upkeep', as: 'staff', path: '/desk/upkeep' },
	{ name: 'pages', as: 'staff', path: '/desk/pages' },
	{
		name: 'page-editor',
		as: 'staff',
		path: '/desk/pages',
		prepare: async (page) => {
			await page.getByRole('link', { name: 'Give a day to the canal' }).click();
			await page.locator('.placement').first().click();
			await page.getByText('this placement').waitFor();
		}
	},
	{
		name: 'people',
		as: 'staff',
		path: '/desk/people?group=lock-wardens',
		prepare: async (page) => {
			await page.getByRole('link', { name: 'Wren Lockyer' }).click();
			await page.getByRole('heading', { name: 'Memberships' }).waitFor();
		}
	},
	{ name: 'readership', as: 'staff', path: '/desk/readership' },
	{ name: 'readership-document', as: 'staff', path: '/desk/readership/lock-warden-handbook' },
	{ name: 'site', as: 'visitor', path: '/' },
	{ name: 'catalogue', as: 'visitor', path: '/leaflets?read=rules-for-fishing' },
	{ name: 'pocket-phone', as: 'visitor', path: '/boat', phone: true },
	{
		name: 'pocket-editor',
		as: 'staff',
		path: '/desk/pages',
		prepare: async (page) => {
			await page.getByRole('link', { name: 'On the boat' }).click();
			await page.locator('.qr').waitFor();
			await page.waitForLoadState('networkidle');
		}
	},
	{ name: 'document-page', as: 'visitor', path: '/d/cruising-guide' },
	{ name: 'text', as: 'visitor', path: '/d/cruising-guide/text' },
	{ name: 'reading-room', as: 'visitor', path: '/d/cruising-guide/read#page=4', prepare: drawn },
	{ name: 'reading-room-phone', as: 'visitor', path: '/d/cruising-guide/read', phone: true, prepare: drawn },
	{ name: 'turned-away', as: 'visitor', path: '/d/lock-warden-handbook' },
	{ name: 'try-door', as: 'staff', path: '/desk/try?path=/volunteering&as=group:friends' }
];

interface SignIn {
	readonly staff: { email: string; password: string };
	readonly member: { email: string; password: string };
}

async function take(browser: Browser, origin: string, signIn: SignIn, shot: Shot, folder: string): Promise<void> {
	const context = await browser.newContext({
		baseURL: origin,
		viewport: shot.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
		deviceScaleFactor: 1,
		colorScheme: shot.dark ? 'dark' : 'light',
		reducedMotion: 'reduce'
	});
	try {
		if (shot.as !== 'visitor') await context.request.post('/api/auth/sign-in/email', { data: signIn[shot.as] });
		const page = await context.newPage();
		page.on('console', (message) => message.type() === 'error' && !message.text().includes('40') && console.error(`  ${shot.name}: ${message.text()}`));
		await page.goto(shot.path, { waitUntil: 'networkidle' });
		await shot.prepare?.(page);
		await page.evaluate(() => document.fonts.ready);
		await page.screenshot({ path: join(folder, `${shot.name}.png`) });
		console.log(`${shot.name}.png`);
	} finally {
		await context.close();
	}
}

const { values } = parseArgs({
	options: { data: { type: 'string' }, port: { type: 'string' }, only: { type: 'string' }, to: { type: 'string', default: 'docs/screenshots' } }
});
mkdirSync(values.to, { recursive: true });
const browser = await chromium.launch(chromiumOptions);
const wanted = shots.filter((s) => !values.only || values.only.split(',').includes(s.name));
if (values.data && values.port) {
	const signIn = JSON.parse(readFileSync(join(values.data, 'sign-in.json'), 'utf8')) as SignIn;
	for (const shot of wanted) await take(browser, `http://127.0.0.1:${values.port}`, signIn, shot, values.to);
} else {
	build();
	const { path: data, drop } = scratch('screenshots');
	const running = await runIanua({ data, port: await freePort(), demo: true, quick: true, log: 'silent' });
	try {
		const signIn = JSON.parse(readFileSync(join(data, 'sign-in.json'), 'utf8')) as SignIn;
		for (const shot of wanted) await take(browser, running.origin, signIn, shot, values.to);
	} finally {
		await running.stop();
		drop();
	}
}
await browser.close();
