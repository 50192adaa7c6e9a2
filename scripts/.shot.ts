// usage: tsx /tmp/shot.ts out path [w h] [dark] [--who staff|member|visitor] [--js code]
import { chromium } from 'playwright';
import { readFileSync } from 'node:fs';
const args = process.argv.slice(2);
const signIn = JSON.parse(readFileSync((process.env.DATA ?? '/tmp/ia') + '/sign-in.json', 'utf8'));
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'] });
for (const spec of args) {
	const o = JSON.parse(spec);
	const ctx = await browser.newContext({
		baseURL: signIn.origin,
		viewport: { width: o.w ?? 1280, height: o.h ?? 800 },
		colorScheme: o.dark ? 'dark' : 'light',
		isMobile: !!o.mobile,
		hasTouch: !!o.mobile
	});
	if (o.who !== 'visitor') {
		const { email, password } = signIn[o.who ?? 'staff'];
		await ctx.request.post('/api/auth/sign-in/email', { data: { email, password } });
	}
	const page = await ctx.newPage();
	page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
	page.on('console', (m) => {
		if (m.type() === 'error') console.log('CONSOLE', m.text());
	});
	await page.goto(o.path);
	await page.waitForLoadState('networkidle').catch(() => {});
	if (o.do) {
		await new Function('page', 'return (async()=>{' + o.do + '})()')(page);
		await page.waitForTimeout(o.wait ?? 500);
	}
	await page.screenshot({ path: `/tmp/shots/${o.out}.png`, fullPage: !!o.full });
	await ctx.close();
}
await browser.close();
