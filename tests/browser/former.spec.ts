// Former addresses: pasted at the desk and looked at beforehand, followed by a visitor, missed and mended, written on the sheet, let go and brought back.
import { expect, test } from './help';

test('old links lead to documents: from a list, by hand, and what was missed in one press', async ({ people }) => {
	const staff = await people.as('staff');
	const visitor = await people.as('visitor');
	const at = (name: string) => `/archive-2017/${name}`;
	// asked for before anybody thought of it
	expect((await visitor.goto(at('Missed%20guide.pdf')))!.status()).toBe(404);

	await staff.goto('/desk/upkeep');
	await staff.getByRole('link', { name: 'Former addresses' }).click();
	await staff
		.getByLabel('A line for each')
		.fill(
			`https://old.example.org${at('Guide to the locks.pdf')}, cruising-guide\n${at('handbook.pdf')}; lock-warden-handbook\n${at('none.pdf')}, no-such-document\nnot a line`
		);
	await expect(staff.getByText('1 line cannot be read and would be left out: line 4 (not a line).')).toBeVisible();
	await staff.getByRole('button', { name: 'Look what would come of it' }).click();
	await expect(staff.getByText('2 new addresses, 1 that cannot be.')).toBeVisible();
	await expect(staff.getByText(`${at('none.pdf')}: there is no such document`)).toBeVisible();
	expect((await visitor.goto(at('handbook.pdf')))!.status()).toBe(404);
	await staff.getByRole('button', { name: 'Have 2 addresses lead there' }).click();
	await expect(
		staff
			.getByRole('row')
			.filter({ hasText: at('handbook.pdf') })
			.getByRole('link', { name: 'Lock warden handbook' })
	).toBeVisible();

	await visitor.goto(at('Guide%20to%20the%20locks.pdf'));
	await expect(visitor).toHaveURL(/\/d\/cruising-guide$/);
	await visitor.goto(at('handbook.pdf'));
	await expect(visitor.getByTestId('turned-away')).toBeVisible();

	const miss = staff.getByLabel(`Document that ${at('Missed%20guide.pdf')} means`);
	await miss.fill('no-such-document');
	await miss.press('Enter');
	await expect(staff.getByText('It leads nowhere yet: there is no such document.')).toBeVisible();
	await miss.fill('/d/cruising-guide');
	await miss.press('Enter');
	await expect(miss).toHaveCount(0);
	await visitor.goto(at('Missed%20guide.pdf'));
	await expect(visitor).toHaveURL(/\/d\/cruising-guide$/);

	await staff.goto('/desk/documents/cruising-guide');
	await staff.getByText('Former addresses: where it lay on an old website').click();
	await staff.getByLabel('Where it lay on the old website').fill(at('by-hand.pdf'));
	await staff.getByRole('button', { name: 'Lead here' }).click();
	await staff.getByRole('button', { name: `Let ${at('by-hand.pdf')} go` }).click();
	await expect(staff.getByRole('button', { name: `Let ${at('by-hand.pdf')} go` })).toHaveCount(0);
	await staff.getByRole('button', { name: 'Undo' }).click();
	await expect(staff.getByRole('button', { name: `Let ${at('by-hand.pdf')} go` })).toBeVisible();
	await visitor.goto(at('by-hand.pdf'));
	await expect(visitor).toHaveURL(/\/d\/cruising-guide$/);
});
