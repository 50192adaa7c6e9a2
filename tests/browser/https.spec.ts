// An Ianua of one's own behind nginx with TLS, as operating/nginx.conf sets it up, from the first visit on: what a browser does with addresses, cookies and
// forms there is not what it does without.
import { join } from 'node:path';
import { freePort } from '#server/db/cluster';
import { SignJWT } from 'jose';
import { startNginx } from '../../scripts/nginx';
import { noisePdf } from '../../scripts/noise-pdf';
import { scratch } from '../../scripts/scratch';
import { startOwn } from '../server/own';
import { certificate, kept, open, startClub } from './club';
import { chromiumPdf, expect, fileOf, test } from './help';

const owner = { email: 'tess.lockyer@example.org', password: 'ramshorn-above-the-weir' };

test('behind https: the first visit, an upload of several parts, a key, a form without a script, and a document in a frame of a website with https', async ({
	people,
	browser
}) => {
	const { path: at, drop } = scratch('https');
	const [port, webPort] = [await freePort(), await freePort()];
	const address = `https://127.0.0.1:${port}`;
	const ianua = await startOwn({
		data: at,
		port: webPort,
		settings: { IANUA_ORIGIN: address },
		given: { IANUA_FILES_BY_PROXY: '/store/', IANUA_PROXIES: '1' }
	});
	const nginx = await startNginx({ ports: [webPort], port, files: join(at, 'files'), folder: at, at: join(at, 'nginx'), tls: certificate() });
	const club = await startClub({ secure: true, ianua: address });
	const website = `https://${club.host}`;
	const there = { baseURL: address, ignoreHTTPSErrors: true };
	try {
		const staff = await people.as('visitor', there);
		const first = await staff.goto('/begin');
		expect(first!.headers()['strict-transport-security']).toContain('max-age=');
		await staff.getByLabel('The code that was printed').fill(ianua.beginCode());
		await staff.getByLabel('Its name').fill('Ternwell Canal Society');
		await staff.getByLabel('Your name').fill('Tess Lockyer');
		await staff.getByLabel('Your e-mail address').fill(owner.email);
		await staff.getByLabel(/^A password/).fill(owner.password);
		await staff.getByRole('button', { name: 'Begin' }).click();
		await staff.waitForURL(/\/desk/);
		const session = (await staff.context().cookies()).find(({ name }) => name.includes('session_token'));
		expect(session).toMatchObject({ secure: true, httpOnly: true, sameSite: 'Lax' });
		expect(session!.name).toMatch(/^__Secure-/);

		// the first part goes with the creation, the second to the address that was answered
		await staff.goto('/desk/documents');
		const choose = staff.getByLabel('Choose PDF files to bring in');
		await choose.setInputFiles([fileOf(`${kept}.pdf`, await noisePdf(12_500_000, kept)), await chromiumPdf(browser, open, 3)]);
		const tray = staff.getByRole('region', { name: 'Intake tray' });
		await expect(tray.getByText('Sound', { exact: true })).toHaveCount(2);

		const call = async (method: string, path: string, data?: object) => {
			const answer = await staff.request.fetch(`/api/v1${path}`, { method, data, headers: { origin: address } });
			expect([path, answer.ok()]).toEqual([path, true]);
			return (await answer.json()) as Record<string, unknown>;
		};
		await call('POST', '/groups', { name: 'Lock wardens' });
		await call('PATCH', `/documents/${open}`, { door: { position: 'open' } });
		await call('PATCH', `/documents/${kept}`, { door: { position: 'keyed', groups: ['lock-wardens'] } });

		// a key, made at the desk and brought by a visitor
		await staff.goto(`/desk/documents/${kept}`);
		await staff.getByLabel('A key for').fill('The boatyard');
		await staff.getByRole('button', { name: 'Issue', exact: true }).click();
		const url = (await staff.locator('.issued code').textContent())!;
		expect(url).toMatch(new RegExp(`^${address}/k/`));
		const visitor = await people.as('visitor', there);
		await visitor.goto(url);
		await visitor.getByRole('link', { name: 'Read', exact: true }).click();
		await expect(visitor.locator('.page[data-loaded] canvas').first()).toBeVisible();
		for (const cookie of await visitor.context().cookies()) expect([cookie.name, cookie.secure]).toEqual([cookie.name, true]);

		// without a script a form is all that there is
		const plain = await people.as('visitor', { ...there, javaScriptEnabled: false });
		await plain.goto(`/sign-in?to=${encodeURIComponent(`/d/${kept}`)}`);
		await plain.getByLabel('E-mail address').fill(owner.email);
		await plain.getByLabel('Password').fill(owner.password);
		await plain.getByRole('button', { name: 'Sign in', exact: true }).click();
		await expect(plain.getByRole('link', { name: 'Save' }).first()).toBeVisible();

		// on the page of another website with https: open, and kept by its pass
		await call('PATCH', '/site', { framers: [club.host] });
		const { secret } = await call('POST', '/websites', { origin: website, groups: ['lock-wardens'] });
		club.state.pass = () => {
			const now = Math.floor(Date.now() / 1000);
			const claims = {
				iss: website,
				aud: address,
				sub: 'boat-3',
				name: 'Gus Tiller',
				groups: ['lock-wardens'],
				iat: now,
				exp: now + 60,
				jti: crypto.randomUUID()
			};
			return new SignJWT(claims).setProtectedHeader({ alg: 'HS256' }).sign(new TextEncoder().encode(secret as string));
		};
		const member = await people.as('visitor', { ignoreHTTPSErrors: true }, { connectionTrouble: true });
		await member.goto(`${website}/open`);
		await expect(member.frameLocator('#framed iframe').locator('.page[data-loaded] canvas').first()).toBeVisible();
		await member.goto(`${website}/reading`);
		const room = member.frameLocator('ianua-document iframe');
		await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible();
		// what the frame keeps is for this website alone
		await member.goto(`${address}/d/${kept}/read`);
		await expect(member.getByTestId('turned-away')).toBeVisible();
		await expect
			.poll(async () =>
				((await call('GET', `/documents/${kept}/ledger?limit=20`)).items as { who: { name?: string; website?: string } }[]).map(({ who }) => who)
			)
			.toContainEqual(expect.objectContaining({ name: 'Gus Tiller', website }));

		// signed out by the menu, the desk asks anew
		await staff.goto('/desk/documents');
		await staff.getByRole('button', { name: 'Tess Lockyer' }).click();
		await staff.getByRole('button', { name: 'Sign out' }).click();
		await expect(staff.getByRole('link', { name: 'Sign in' }).first()).toBeVisible();
		await staff.goto('/desk/documents');
		await expect(staff).toHaveURL(new RegExp(`^${address}/sign-in`));
	} finally {
		club.stop();
		await nginx.stop();
		await ianua.stop();
		drop();
	}
});
