// Readership as staff meet it: the answer, the time it goes over, tables to take away, the roll call and its reminders, just now.
import { readFileSync } from 'node:fs';
import { axeLightAndDark, expect, origin, signIn, test } from './help';

test('the overview answers in a sentence, over the time that is chosen; tables are taken away', async ({ people }) => {
	const page = await people.as('staff', {}, { connectionTrouble: true });
	await page.goto('/desk/readership');
	const answer = page.getByTestId('answer');
	await expect(answer).toContainText(/readers opened \d+ documents \d+ times in the last 30 days/);
	const month = await answer.textContent();
	await page.getByRole('link', { name: '7 days' }).click();
	await expect(answer).toContainText('in the last 7 days');
	expect(await answer.textContent()).not.toBe(month);
	await page.goBack();
	await expect(answer).toHaveText(month!);

	await page.getByRole('button', { name: 'Choose dates' }).click();
	const day = (back: number) => new Date(Date.now() - back * 86_400_000).toISOString().slice(0, 10);
	await page.getByLabel('From', { exact: true }).fill(day(20));
	await page.getByLabel('Until', { exact: true }).fill(day(7));
	await page.getByRole('button', { name: 'Show', exact: true }).click();
	await expect(page).toHaveURL(new RegExp(`from=${day(20)}&until=${day(7)}`));
	await expect(answer).toContainText(/ from \d+ \w+ \d{4} to \d+ \w+ \d{4}/);

	// the list stands as one presses its heads: numbers from the greatest on first
	const list = page.getByRole('region', { name: 'By document' });
	const saved = async () => (await list.locator('tbody tr td:nth-child(4)').allTextContents()).map(Number);
	await list.getByRole('button', { name: 'Saved' }).click();
	await expect(list.getByRole('columnheader', { name: 'Saved' })).toHaveAttribute('aria-sort', 'descending');
	expect(await saved()).toEqual((await saved()).sort((a, b) => b - a));
	await list.getByRole('button', { name: 'Saved' }).press('Enter');
	await expect(list.getByRole('columnheader', { name: 'Saved' })).toHaveAttribute('aria-sort', 'ascending');
	expect(await saved()).toEqual((await saved()).sort((a, b) => a - b));

	// the picture, the table and the file say the same
	const series = page.locator('section', { has: page.getByRole('heading', { name: 'Day by day' }) });
	await series.getByRole('button', { name: 'As a table' }).click();
	await expect(series.getByRole('row')).toHaveCount(15);
	await series.getByRole('button', { name: 'Take away' }).click();
	const [download] = await Promise.all([page.waitForEvent('download'), series.getByRole('button', { name: 'Table as CSV' }).click()]);
	expect(download.suggestedFilename()).toMatch(/^days-.*\.csv$/);
	// with the mark by which spreadsheets know UTF-8
	const lines = readFileSync(await download.path(), 'utf8')
		.replace(/^\ufeff/, '')
		.split('\r\n');
	expect(lines[0]).toBe('first_day,openings,saves,requests_before,period_first,period_last,time_zone');
	expect(lines[1]!.startsWith(`${day(20)},`)).toBe(true);
	// without a connection it is said; with the session gone one signs in where one is, and has the table then
	await page.route('**/api/v1/readership/**', (route) => route.abort('connectionreset'));
	await series.getByRole('button', { name: 'Take away' }).click();
	await series.getByRole('button', { name: 'Table as JSON' }).click();
	await expect(page.getByText('The server cannot be reached.')).toBeVisible();
	await page.unroute('**/api/v1/readership/**');
	await page.context().clearCookies();
	await series.getByRole('button', { name: 'Take away' }).click();
	await series.getByRole('button', { name: 'Table as JSON' }).click();
	const asked = page.getByRole('dialog', { name: 'Sign in again' });
	await asked.getByLabel('Password').fill(signIn().staff.password);
	const [json] = await Promise.all([page.waitForEvent('download'), asked.getByLabel('Password').press('Enter')]);
	const whole = JSON.parse(readFileSync(await json.path(), 'utf8')) as { table: string; items: { first_day: string; openings: number }[] };
	expect([whole.table, whole.items[0]?.first_day, whole.items.length]).toEqual(['days', day(20), 14]);
	await series.getByRole('button', { name: 'As a chart' }).click();
	await series.getByRole('button', { name: 'Take away' }).click();
	const [picture] = await Promise.all([page.waitForEvent('download'), series.getByRole('button', { name: 'Chart as PNG' }).click()]);
	expect(
		readFileSync(await picture.path())
			.subarray(1, 4)
			.toString()
	).toBe('PNG');
	const [items] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Item report' }).click()]);
	expect(readFileSync(await items.path(), 'utf8')).toContain('Unique_Item_Requests');
});

test('a document: attention by page, the roll call, and those who have not opened it are reminded once', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/readership/lock-warden-handbook');
	await expect(page.getByTestId('answer')).toContainText(/^\d+ of the \d+ who may open it have, and \d+ read it through\./);
	const attention = page.locator('section', { has: page.getByRole('heading', { name: 'Attention by page' }) });
	await expect(attention.getByRole('link', { name: /^Page 1: \d+ (min|s)/ })).toBeVisible();
	await expect
		.poll(() =>
			attention
				.locator('img')
				.first()
				.evaluate((img: HTMLImageElement) => img.naturalWidth)
		)
		.toBeGreaterThan(20);
	await attention.getByRole('button', { name: 'As a table' }).click();
	await expect(attention.getByRole('columnheader', { name: 'Went no further' })).toBeVisible();

	const roll = page.locator('section', { has: page.getByRole('heading', { name: 'Roll call' }) });
	// it asks for receipts: who has given one is not reminded, whoever else is
	const given = await roll.getByRole('link', { name: /: gave a receipt$/ }).count();
	const missing = (await roll.getByRole('listitem').count()) - given;
	expect(given).toBeGreaterThan(0);
	expect(await roll.getByRole('link', { name: /: not yet$/ }).count()).toBeGreaterThan(0);
	await roll.getByRole('button', { name: `Remind ${missing}` }).click();
	await expect(page.getByText(`${missing} ${missing === 1 ? 'reminder' : 'reminders'} mailed.`)).toBeVisible();
	await expect(roll.getByRole('button', { name: 'Reminded today' })).toBeDisabled();
	const [name] = /^[^:]+/.exec(
		(await roll
			.getByRole('link', { name: /: not yet$/ })
			.first()
			.getAttribute('aria-label'))!
	)!;
	await page.goto('/postbox');
	await expect(page.getByText('Lock warden handbook: please read').first()).toBeVisible();

	// one person's own report
	await page.goto('/desk/readership/lock-warden-handbook');
	await roll.getByRole('link', { name: new RegExp(`^${name}`) }).click();
	await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
	await expect(page.getByRole('row').filter({ hasText: 'Reminded' })).toContainText('Lock warden handbook');
});

test('a member who comes to the end of a document says that they have read it, and the roll call knows', async ({ people }) => {
	const reader = await people.as('member', {}, { connectionTrouble: true });
	await reader.goto('/me');
	await reader.getByRole('region', { name: 'Please read, and say so' }).getByRole('link', { name: 'Lock warden handbook' }).click();
	await expect(reader.getByText('Please say that you have read this.')).toBeVisible();
	await reader.getByRole('link', { name: 'Read', exact: true }).click();
	await expect(reader.locator('.page[data-loaded] canvas').first()).toBeVisible();
	// not before the end, unless one looks for it
	await expect(reader.getByText('Please say that you have read this.')).toHaveCount(0);
	await reader.keyboard.press('End');
	const give = reader.getByRole('button', { name: 'I have read this' });
	await expect(give).toBeVisible();
	expect(await axeLightAndDark(reader)).toEqual([]);
	// the line is cut: it is said, and nothing is taken for given
	await reader.context().setOffline(true);
	await give.click();
	await expect(reader.getByRole('alert')).toHaveText('That did not work.');
	await reader.context().setOffline(false);
	// nor where the session has gone: one is led to the sign-in
	const cookies = await reader.context().cookies();
	await reader.context().clearCookies();
	await give.click();
	await expect(reader.getByRole('alert').getByRole('link', { name: 'Sign in' })).toBeVisible();
	await expect(reader.getByText(/^You said on/)).toHaveCount(0);
	await reader.context().addCookies(cookies);
	await give.click();
	await expect(reader.getByText(/^You said on .+ that you have read this\.$/)).toBeVisible();
	// nor is it asked for again behind More
	await reader.getByRole('button', { name: 'More', exact: true }).click();
	await expect(reader.getByText(/^You said on/)).toHaveCount(2);
	await expect(give).toHaveCount(0);
	const staff = await people.as('staff');
	await staff.goto('/desk/readership/lock-warden-handbook');
	await expect(staff.getByRole('link', { name: 'Wren Lockyer: gave a receipt' })).toBeVisible();
	await expect(staff.getByRole('row').filter({ hasText: 'Receipt given' }).filter({ hasText: 'Wren Lockyer' })).toBeVisible();
});

test('a roll call of a hundred and more draws only who is in sight, in the order that one presses', async ({ people }) => {
	const page = await people.as('staff');
	const numbers = Array.from({ length: 130 }, (_, n) => String(n + 1).padStart(3, '0'));
	const table = ['name,email,group', ...numbers.map((n) => `Hand ${n},hand-${n}@example.net,Deckhands`)].join('\n');
	const headers = { origin: origin(), 'content-type': 'text/csv' };
	const came = await page.request.post('/api/v1/members/import?makeGroups=true', { data: table, headers });
	expect(came.status()).toBe(200);
	const patch = (data: object) => page.request.patch('/api/v1/documents/culvert-14-survey', { data, headers: { origin: origin() } });
	const changed = await patch({ door: { position: 'keyed', allMembers: false, groups: ['deckhands'], people: [] } });
	expect(changed.status()).toBe(200);
	const { before } = (await changed.json()) as { before: object };

	await page.goto('/desk/readership/culvert-14-survey');
	const roll = page.locator('section', { has: page.getByRole('heading', { name: 'Roll call' }) });
	await roll.getByRole('button', { name: 'As a table' }).click();
	const list = roll.getByRole('region', { name: 'Roll call' });
	await expect(list.getByRole('table')).toHaveAttribute('aria-rowcount', '131');
	await list.getByRole('button', { name: 'Who' }).click();
	await expect(list.getByRole('link', { name: 'Hand 001' })).toBeVisible();
	expect(await list.getByRole('link').count()).toBeLessThan(100);
	await expect(list.getByRole('link', { name: 'Hand 130' })).toBeHidden();
	await list.evaluate((box) => box.scrollTo(0, box.scrollHeight));
	await expect(list.getByRole('link', { name: 'Hand 130' })).toBeVisible();
	await list.getByRole('button', { name: 'Who' }).click();
	await expect(list.getByRole('link', { name: 'Hand 130' })).toBeInViewport();

	// as it was
	expect((await patch(before)).status()).toBe(200);
	const members = (await (await page.request.get('/api/v1/members?group=deckhands&limit=200')).json()) as { items: { id: string }[] };
	for (const { id } of members.items) await page.request.delete(`/api/v1/members/${id}`, { headers: { origin: origin() } });
	await page.request.delete('/api/v1/groups/deckhands', { headers: { origin: origin() } });
});

test('where placed, who was turned away with what mends it, and what happens just now', async ({ people }) => {
	const page = await people.as('staff');
	await page.goto('/desk/readership/by/place');
	await expect(page.getByRole('row').filter({ hasText: 'Cruising guide' }).first()).toBeVisible();
	await page.getByRole('navigation', { name: 'Reports' }).getByRole('link', { name: 'Turned away' }).click();
	await expect(page.getByTestId('answer')).toContainText(/\d+ times somebody was turned away/);
	await expect(page.getByRole('heading', { name: /^At dead ends/ })).toBeVisible();
	await expect(page.getByRole('button', { name: 'Take the placement out' }).first()).toBeVisible();

	await page.getByRole('navigation', { name: 'Reports' }).getByRole('link', { name: 'Just now' }).click();
	await expect(page.getByRole('status').filter({ hasText: 'New entries come by themselves.' })).toBeVisible();
	const visitor = await people.as('visitor');
	await visitor.goto('/d/towpath-map/read');
	await expect(page.getByRole('row').filter({ hasText: 'Towpath map' }).filter({ hasText: 'A visitor' }).first()).toBeVisible();
});

test('a placement that comes into view is counted as shown', async ({ people }) => {
	const staff = await people.as('staff');
	const shown = async () => {
		const { items } = (await (await staff.request.get('/api/v1/readership/places')).json()) as { items: { where: string; slug: string; shown: number }[] };
		return items.find((i) => i.where === '/' && i.slug === 'cruising-guide')?.shown ?? 0;
	};
	const before = await shown();
	const visitor = await people.as('visitor');
	await visitor.goto('/');
	await expect.poll(shown).toBe(before + 1);
});

test('a visitor is asked before their browser is remembered, on sites that do', async ({ people }) => {
	const staff = await people.as('staff');
	const set = (readership: object | null) => staff.request.patch('/api/v1/site', { data: { readership }, headers: { origin: origin() } });
	expect((await set({ nameless: 'cookie' })).ok()).toBe(true);
	try {
		// another server, or this one a moment ago, may still hold the setting before
		await staff.waitForTimeout(100);
		const visitor = await people.as('visitor');
		await visitor.goto('/d/towpath-map');
		const question = visitor.getByRole('complementary', { name: 'Remember this browser' });
		await expect(question).toBeVisible();
		expect((await visitor.context().cookies()).map((c) => c.name)).not.toContain('ianua_reader');
		await question.getByRole('link', { name: 'Yes' }).click();
		await expect(question).toHaveCount(0);
		expect((await visitor.context().cookies(`${origin()}/d/towpath-map`)).map((c) => c.name)).toContain('ianua_reader');
		const other = await people.as('visitor');
		await other.goto('/d/towpath-map/read');
		const answered = other.waitForResponse(/remember=no/);
		await other.getByRole('complementary', { name: 'Remember this browser' }).getByRole('link', { name: 'No' }).click();
		await answered;
		await other.reload();
		await expect(other.locator('.pdfViewer .page').first()).toBeVisible();
		await expect(other.getByRole('complementary', { name: 'Remember this browser' })).toHaveCount(0);
	} finally {
		await set(null);
	}
});
