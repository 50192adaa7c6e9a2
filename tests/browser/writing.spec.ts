// One page written in two places: nothing is written over unseen, and one of the two, or both, goes on.
import type { Page } from '@playwright/test';
import { expect, test, type People } from './help';

const textOf = (page: Page) => page.getByRole('textbox', { name: 'Text of the page' });
const saved = (page: Page) => expect(page.getByTestId('draft-state')).toContainText(/^\s*saved/);
const question = (page: Page) => page.getByRole('dialog', { name: 'Written in two places' });
async function write(page: Page, words: string): Promise<void> {
	await textOf(page).click();
	await page.keyboard.press('Control+End');
	await page.keyboard.type(words);
}

/** A new page with these words, open in two windows. */
async function twice(people: People, title: string, words: string): Promise<[Page, Page]> {
	const first = await people.as('staff');
	await first.goto('/desk/pages');
	await first.getByLabel('Title').fill(title);
	await first.getByRole('button', { name: 'Write a page' }).click();
	await write(first, words);
	await saved(first);
	const second = await first.context().newPage();
	await second.goto(first.url());
	await expect(textOf(second)).toContainText(words);
	return [first, second];
}

test('two who write one page see who saved what, and choose; what is chosen can be taken back', async ({ people }) => {
	const began = Date.now();
	const [first, second] = await twice(people, `Lock gates ${began}`, 'Gates are greased in autumn.');

	// the one saves, then the other: it is not saved, and nothing is lost
	await write(first, ' Paddles are checked in spring.');
	await saved(first);
	await write(second, ' Sluices are dredged in May.');
	await expect(question(second)).toContainText('You saved this page in another window');
	await expect(question(second).locator('.both del').first()).toContainText('Paddles');
	await expect(question(second).locator('.both ins').first()).toContainText('Sluices');
	// not chosen yet: one may go on writing, is not let go without choosing, and looks at both again
	await second.keyboard.press('Escape');
	await expect(second.getByRole('alert')).toContainText('What you wrote is still here');
	await expect(textOf(second)).toContainText('Sluices are dredged in May');
	await write(second, ' And in June.');
	await second.getByRole('link', { name: 'Pages', exact: true }).last().click();
	await expect(question(second).locator('.both ins').last()).toContainText('June');
	await expect(textOf(second)).toContainText('And in June.');
	await second.keyboard.press('Escape');
	await second.getByRole('alert').getByRole('button', { name: 'Look at both' }).click();
	await question(second).getByRole('button', { name: 'Go on with yours' }).click();
	await expect(second.getByText('Yours is the draft now.')).toBeVisible();
	await saved(second);
	// taken back, the other is the draft, here too
	await second.getByRole('button', { name: /^Undo: / }).click();
	await expect(textOf(second)).toContainText('Paddles are checked in spring');
	await expect(textOf(second)).not.toContainText('Sluices');

	// the first wrote on meanwhile: it goes on from what is there
	await write(first, ' Ladders too.');
	await question(first).getByRole('button', { name: 'Go on with the one saved there' }).click();
	await expect(question(first)).toBeHidden();
	await expect(textOf(first)).not.toContainText('Ladders');
	await first.getByRole('button', { name: /^Undo: / }).click();
	await expect(textOf(first)).toContainText('Ladders too.');

	// both are kept: what was written here becomes a page of its own
	await write(second, ' Winches last.');
	await question(second).getByRole('button', { name: 'Keep yours as a page of its own' }).click();
	await expect(second.getByText(/What you wrote is the draft of \/\S+-2 now/)).toBeVisible();
	await expect(textOf(second)).toContainText('Ladders too.');
	await second.getByRole('link', { name: 'Show the pages' }).click();
	await expect(second.getByText(`/lock-gates-${began}-2`, { exact: true })).toBeVisible();
});

test('a page set aside while it is written keeps what was written, and takes it when it is restored', async ({ people }) => {
	const title = `Towpath hedges ${Date.now()}`;
	const [first, second] = await twice(people, title, 'Hedges are cut in February.');
	await second.getByRole('button', { name: 'More' }).click();
	await second.getByRole('button', { name: 'Set aside' }).click();
	await expect(second.getByText(`“${title}” is set aside.`)).toBeVisible();

	await write(first, ' Never in nesting time.');
	await expect(first.getByRole('alert')).toContainText('set aside meanwhile');
	await expect(textOf(first)).toContainText('Never in nesting time');
	await first.getByRole('button', { name: 'Restore the page' }).click();
	await saved(first);
	await first.reload();
	await expect(textOf(first)).toContainText('Never in nesting time');
});
