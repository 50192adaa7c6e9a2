// A kept document in a frame on the page of another website, on another site (in the browser's sense) and under a strict content policy: by the pass that
// the website's own server gives its members.
import { createServer } from 'node:http';
import { SignJWT } from 'jose';
import { expect, origin, test } from './help';

const slug = 'lock-warden-handbook';

/** The club's website: a page with the element, and the address at which it answers a pass to whoever is signed in there. */
async function startClub() {
	const state = { asked: [] as string[], pass: (): Promise<string | null> => Promise.resolve(null) };
	const policy = `default-src 'none'; script-src ${origin()} 'nonce-one'; frame-src ${origin()}; connect-src 'self' ${origin()}; style-src 'unsafe-inline'`;
	const server = createServer((request, response) => {
		const path = request.url ?? '/';
		if (path === '/reading') {
			response.setHeader('content-type', 'text/html').setHeader('content-security-policy', policy);
			response.end(`<!doctype html><html lang="en"><title>The club</title><h1>For members</h1>
				<script nonce="one">window.refusals = []; addEventListener('ianua:refused', (e) => refusals.push(e.detail));</script>
				<script src="${origin()}/ianua-document.js" async></script>
				<ianua-document src="${origin()}/d/${slug}" form="frame" pass="/pass" height="600"><a href="${origin()}/d/${slug}">Lock warden handbook</a></ianua-document>`);
			return;
		}
		if (path !== '/pass') return response.writeHead(404).end();
		state.asked.push(path);
		void state.pass().then((given) => (given === null ? response.writeHead(404).end() : response.setHeader('content-type', 'application/jwt').end(given)));
	});
	await new Promise<void>((up) => server.listen(0, '127.0.0.1', up));
	// a server that listens has a port
	const { port } = server.address() as { port: number };
	return {
		// another site than ours, which is at 127.0.0.1: the cookies of ours are a third party's there
		host: `localhost:${port}`,
		state,
		stop: () => {
			server.close();
			server.closeAllConnections();
		}
	};
}

test('another website’s member reads a kept document in its frame; who has no pass is told calmly, and a wrong one says why to the website', async ({
	people
}) => {
	test.setTimeout(120_000);
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
		await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible({ timeout: 30_000 });
		expect(state.asked).toEqual(['/pass']);
		// what the browser has of it stays in this frame: opened by itself, the document is kept
		await member.goto(`/d/${slug}/read`);
		await expect(member.getByTestId('turned-away')).toBeVisible();
		// and the frame opens again without another pass
		await member.goto(`${club}/reading`);
		await expect(room.locator('.page[data-loaded] canvas').first()).toBeVisible({ timeout: 30_000 });
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
