// A kept document in a frame on the page of another website, on another site (in the browser's sense) and under a strict content policy: by the pass that
// the website's own server gives its members.
import { SignJWT } from 'jose';
import { kept as slug, open, startClub } from './club';
import { expect, origin, test, type People } from './help';

test('another website’s member reads a kept document in its frame; who has no pass is told calmly, and a wrong one says why to the website', async ({
	people
}) => {
	const { host, state, stop } = await startClub();
	const club = `http://${host}`;
	const staff = await people.as('staff');
	const call = async (method: string, path: string, data?: object) =>
		(await (await staff.request.fetch(`/api/v1${path}`, { method, data, headers: { origin: origin() } })).json()) as Record<string, unknown>;
	const { framers = [] } = (await call('GET', '/site')) as { framers?: string[] };
	await call('PATCH', '/site', { framers: [...framers, host] });
	// the owner lets the club give passes, at the desk
	await staff.goto('/desk/settings');
	const form = staff.locator('#websites');
	await form.getByLabel('The website').fill(club);
	await form.getByRole('checkbox', { name: 'Lock wardens' }).first().check();
	await form.getByRole('button', { name: 'Let it give passes' }).click();
	const secret = (await form.getByRole('status').locator('code').textContent())!;
	await expect(form.getByRole('heading', { name: club })).toBeVisible();
	const pass = (claims: object = {}) => {
		const now = Math.floor(Date.now() / 1000);
		return new SignJWT({
			iss: club,
			aud: origin(),
			sub: 'boat-12',
			name: 'Gus Tiller',
			groups: ['lock-wardens'],
			iat: now,
			exp: now + 60,
			jti: crypto.randomUUID(),
			...claims
		})
			.setProtectedHeader({ alg: 'HS256' })
			.sign(new TextEncoder().encode(secret));
	};
	try {
		const member = await people.as('visitor', {}, { connectionTrouble: true });
		state.pass = () => pass();
		await member.goto(`${club}/reading`);
		const room = member.frameLocator('ianua-document iframe');
		await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible();
		expect(state.asked).toEqual(['/pass']);
		// what the browser has of it stays in this frame: opened by itself, the document is kept
		await member.goto(`/d/${slug}/read`);
		await expect(member.getByTestId('turned-away')).toBeVisible();
		// and the frame opens again without another pass
		await member.goto(`${club}/reading`);
		await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible();
		expect(state.asked).toHaveLength(1);
		await expect
			.poll(
				async () =>
					((await call('GET', `/documents/${slug}/ledger?limit=20`)).items as { who: { name?: string; website?: string } }[]).find(
						(e) => e.who.website === club
					)?.who.name
			)
			.toBe('Gus Tiller');

		const stranger = await people.as('visitor', {}, { connectionTrouble: true });
		state.pass = () => Promise.resolve(null);
		await stranger.goto(`${club}/reading`);
		const refused = stranger.frameLocator('ianua-document iframe');
		await expect(refused.getByRole('link', { name: 'Open on its own site' })).toBeVisible();
		await expect(refused.getByText('Sign in', { exact: true })).toHaveCount(0);

		const wrong = await people.as('visitor', {}, { connectionTrouble: true });
		state.pass = () => pass({ groups: ['friends'] });
		await wrong.goto(`${club}/reading`);
		await expect(wrong.frameLocator('ianua-document iframe').getByRole('link', { name: 'Open on its own site' })).toBeVisible();
		await expect
			.poll(() => wrong.evaluate(() => (window as unknown as { refusals: string[] }).refusals))
			.toEqual([expect.stringContaining('may not grant “friends”')]);

		// withdrawn at the desk, the frame that is open lets nothing more out
		await form.getByRole('button', { name: `Withdraw ${club}` }).click();
		await expect(form.getByRole('heading', { name: club })).toHaveCount(0);
		await member.reload();
		await expect(room.getByRole('link', { name: 'Open on its own site' })).toBeVisible();
	} finally {
		await call('PATCH', '/site', { framers });
		stop();
	}
});

test('the element says what happens in its frame; opens over the page; and where a website may not frame, the frame is no higher than its words', async ({
	people
}) => {
	const { host, stop } = await startClub();
	const club = `http://${host}`;
	const staff = await people.as('staff');
	const call = async (method: string, path: string, data?: object) =>
		(await (await staff.request.fetch(`/api/v1${path}`, { method, data, headers: { origin: origin() } })).json()) as Record<string, unknown>;
	const { framers = [] } = (await call('GET', '/site')) as { framers?: string[] };
	const reader = await people.as('visitor', {}, { connectionTrouble: true });
	type Told = [string, Record<string, unknown>][];
	const told = () => reader.evaluate(() => (window as unknown as { told: Told }).told);
	const frame = reader.locator('#framed iframe');
	try {
		await reader.goto(`${club}/open`);
		await expect(reader.frameLocator('#framed iframe').getByRole('link', { name: 'Open on its own site' })).toBeVisible();
		await expect.poll(async () => (await told()).map(([type]) => type)).toContain('resize');
		await expect.poll(async () => (await frame.boundingBox())!.height).toBeLessThan(160);

		await call('PATCH', '/site', { framers: [...framers, host] });
		await reader.goto(`${club}/open`);
		const room = reader.frameLocator('#framed iframe');
		await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible();
		await expect.poll(async () => (await told()).find(([type]) => type === 'opened')?.[1]).toMatchObject({ document: open, pages: expect.any(Number) });
		await expect.poll(async () => (await told()).filter(([type]) => type === 'page').at(-1)?.[1]).toMatchObject({ document: open, page: 2 });
		await expect(room.locator('.room')).toHaveAttribute('data-theme', 'dark');
		// in the colours of the website, by night on a ground of the night
		const ground = (of: string) => room.locator(of).evaluate((element) => getComputedStyle(element).backgroundColor);
		expect(await ground('.sill')).toBe('rgb(138, 28, 28)');
		expect(await ground('.room')).toBe('rgb(15, 21, 20)');
		await expect(reader.locator('ianua-document[form=button] a')).toHaveCSS('background-color', 'rgb(138, 28, 28)');
		// as high as a page of it is
		const { width, height } = (await frame.boundingBox())!;
		expect(height / width).toBeGreaterThan(1.2);
		await Promise.all([reader.waitForEvent('download'), room.getByRole('link', { name: 'Save', exact: true }).click()]);
		await expect.poll(async () => (await told()).filter(([type]) => type === 'saved')).toEqual([['saved', { document: open }]]);

		await reader.getByRole('link', { name: 'Read the guide' }).click();
		const over = reader.getByRole('dialog');
		await expect(over.locator('iframe').contentFrame().locator('.page[data-loaded] canvas').first()).toBeVisible();
		await reader.keyboard.press('Escape');
		await expect(over).toHaveCount(0);
	} finally {
		await call('PATCH', '/site', { framers });
		stop();
	}
});

/** The club with the right to give passes for wardens; `pass` is one, `end` takes all of it back. */
async function admittedClub(people: People, options: { secure?: boolean } = {}) {
	const { host, state, stop } = await startClub(options);
	const club = `${options.secure ? 'https' : 'http'}://${host}`;
	const staff = await people.as('staff');
	const call = async (method: string, path: string, data?: object) =>
		(await (await staff.request.fetch(`/api/v1${path}`, { method, data, headers: { origin: origin() } })).json()) as Record<string, unknown>;
	const { framers = [] } = (await call('GET', '/site')) as { framers?: string[] };
	await call('PATCH', '/site', { framers: [...framers, host] });
	const { id, secret } = (await call('POST', '/websites', { origin: club, groups: ['lock-wardens'] })) as { id: string; secret: string };
	const pass = (claims: object = {}) => {
		const now = Math.floor(Date.now() / 1000);
		const all = {
			iss: club,
			aud: origin(),
			sub: 'boat-9',
			name: 'Ivy Staithe',
			groups: ['lock-wardens'],
			iat: now,
			exp: now + 60,
			jti: crypto.randomUUID(),
			...claims
		};
		return new SignJWT(all).setProtectedHeader({ alg: 'HS256' }).sign(new TextEncoder().encode(secret));
	};
	/** Who is in the ledger by passes of the club. */
	const entered = async () =>
		((await call('GET', `/documents/${slug}/ledger?limit=20`)).items as { who: { name?: string; website?: string } }[])
			.filter(({ who }) => who.website === club)
			.map(({ who }) => who.name);
	const end = async () => {
		await call('DELETE', `/websites/${id}`);
		await call('PATCH', '/site', { framers });
		stop();
	};
	return { club, state, pass, entered, end };
}

test('the element hands its pass over on an https website with a certificate of its own making', async ({ people }) => {
	const { club, state, pass, entered, end } = await admittedClub(people, { secure: true });
	try {
		state.pass = () => pass();
		const member = await people.as('visitor', { ignoreHTTPSErrors: true }, { connectionTrouble: true });
		await member.goto(`${club}/reading`);
		await expect(member.frameLocator('ianua-document iframe').locator('.page[data-loaded] canvas').first()).toBeVisible();
		await expect.poll(entered).toContain('Ivy Staithe');
	} finally {
		await end();
	}
});

test('a form asks for the frame with its pass, without a script on the club’s page; one that is refused says why beside it', async ({ people }) => {
	const { club, state, pass, entered, end } = await admittedClub(people);
	try {
		state.pass = () => pass();
		const member = await people.as('visitor', {}, { connectionTrouble: true });
		await member.goto(`${club}/form`);
		await member.getByRole('button', { name: 'Read the handbook' }).click();
		const frame = member.frameLocator('iframe[name=handbook]');
		await expect(frame.locator('.page[data-loaded] canvas').first()).toBeVisible();
		await expect.poll(entered).toContain('Ivy Staithe');

		// nor does the frame need one: it says so itself, and shows its tools
		const plain = await people.as('visitor', { javaScriptEnabled: false }, { connectionTrouble: true });
		await plain.goto(`${club}/form`);
		await plain.getByRole('button', { name: 'Read the handbook' }).click();
		await expect(plain.frameLocator('iframe[name=handbook]').getByRole('link', { name: /Save/ }).first()).toBeVisible();

		// calm words in the frame, the reason beside it
		const wrong = await people.as('visitor', {}, { connectionTrouble: true });
		state.pass = () => pass({ groups: ['friends'] });
		await wrong.goto(`${club}/form`);
		const said = wrong.waitForEvent('console', (message) => message.text().includes('may not grant “friends”'));
		await wrong.getByRole('button', { name: 'Read the handbook' }).click();
		await said;
		await expect(wrong.frameLocator('iframe[name=handbook]').getByRole('link', { name: 'Open on its own site' })).toBeVisible();
	} finally {
		await end();
	}
});

test('the page about the elements shows each as it is written and as it looks; without a script, the links', async ({ people }) => {
	const reader = await people.as('visitor');
	await reader.goto('/api/docs/embedding');
	const example = (name: string) => reader.getByRole('region', { name, exact: true });
	for (const name of ['A link', 'A card']) await expect(example(name).locator('ianua-document').getByRole('link')).toBeVisible();
	await expect(example('A cover').locator('ianua-document img')).toBeVisible();
	await expect(example('A list').locator('ianua-list img')).toHaveCount(4);
	await expect(example('A frame').locator('iframe').contentFrame().locator('.page[data-loaded] canvas').first()).toBeVisible();
	await expect(example('A frame').locator('pre')).toContainText('<ianua-document src="http');
	await example('A button').getByRole('link', { name: 'Read it here' }).click();
	await expect(reader.getByRole('dialog').locator('iframe')).toBeVisible();
	await reader.keyboard.press('Escape');

	const plain = await people.as('visitor', { javaScriptEnabled: false });
	await plain.goto('/api/docs/embedding');
	await expect(plain.getByRole('region', { name: 'A card' }).getByRole('link')).toHaveAttribute('href', /\/d\//);
});
