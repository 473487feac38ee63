import { expect, test } from '@playwright/test';
import { expectAccessible } from './support';

test('a brief is written, answered, given another budget, opened to its reasons and kept', async ({ page }) => {
  await page.goto('/advice');
  const answer = page.getByTestId('answer');
  await expect(page.getByTestId('briefs').getByRole('button', { name: 'The cut before the van leaves' })).toHaveAttribute('aria-pressed', 'true');
  await expect(answer).not.toBeEmpty();
  await expectAccessible(page);

  // The answer to one brief never stands beside another.
  await page.getByRole('button', { name: 'New brief' }).click();
  await expect(answer).toHaveCount(0);
  await expect(page.getByRole('alert')).toContainText('Choose a timeline');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Matinee');
  await page.getByRole('checkbox', { name: 'Touring night' }).check();
  await expect(answer).toContainText('Buy ');
  const price = page.getByTestId('steps').getByRole('row').nth(1).getByRole('cell').first();
  const cheapest = Number((await price.innerText()).replace(/[^0-9]/g, ''));

  // With less money than the cheapest costs there is nothing to buy; what there is stays in sight.
  await page.getByLabel('Budget').fill(String(cheapest - 1));
  await page.getByLabel('Budget').press('Tab');
  await expect(answer).toContainText('Nothing within the budget');
  await expect(page.getByTestId('steps')).toContainText('beyond the budget');
  await page.getByLabel('Budget').fill('-5');
  await page.getByLabel('Budget').press('Tab');
  await expect(page.getByRole('alert')).toContainText(`It stays ${cheapest - 1}`);
  await page.getByLabel('Budget').fill('');
  await page.getByLabel('Budget').press('Tab');
  await expect(answer).toContainText('Buy ');

  // Brief, passage, limiter, figure: the reasons are all there.
  await page.getByTestId('why-pick').locator('summary').click();
  await expect(page.getByTestId('why-pick').getByRole('row')).toHaveCount(9);
  await expect(page.getByTestId('why-pick')).toContainText('limits first');
  await page.getByTestId('steps').locator('summary').first().click();
  await expect(page.getByTestId('steps')).toContainText('Power supply');
  await page.getByLabel('Which machine do you own?').selectOption({ label: 'Gannet tower' });
  await expect(page.getByTestId('remedies').or(page.getByText('Keep Gannet tower'))).toBeVisible();
  await expectAccessible(page);

  await expect(page.getByTestId('saving')).toHaveText('saved');
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByTestId('briefs')).not.toContainText('Matinee');
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByTestId('briefs')).toContainText('Matinee');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByTestId('brief')).toBeHidden();
  await expect(answer).toBeVisible();
  await page.emulateMedia({ media: 'screen' });

  // Hours a week say what a way of working costs.
  await page.getByLabel('Hours a week of Touring night').fill('20');
  await page.getByLabel('Hours a week of Touring night').press('Tab');
  await expect(page.getByTestId('remedies').or(page.getByText('Keep Gannet tower'))).toBeVisible();
  if (await page.getByTestId('remedies').isVisible()) await expect(page.getByTestId('remedies')).toContainText('a week');

  // The program that is used decides how machines play; what is kept at hand decides nothing and is said.
  await page.getByLabel('Which program do you edit in?').selectOption({ index: 1 });
  const program = await page.getByLabel('Which program do you edit in?').evaluate((list: HTMLSelectElement) => list.selectedOptions[0].text);
  await expect(page.getByText(`in real time in ${program} at full`)).toBeVisible();
  await page.getByText('More', { exact: true }).click();
  await page.getByLabel('Hours of stored footage').fill('40');
  await page.getByLabel('Hours of stored footage').press('Tab');
  await expect(page.getByTestId('storage')).toContainText('40 h of this footage take');

  // A list of prices: one part dearer, one that there is none of.
  const [part] = (await (await page.request.get('/api/parts')).json()) as { id: string; price: number }[];
  await page.getByRole('link', { name: 'Parts and prices' }).click();
  await page.getByLabel('A file of parts or prices, json or csv').setInputFiles({
    name: 'prices.csv', mimeType: 'text/csv', buffer: Buffer.from(`id,price\n${part.id},${part.price + 1}\nno-such-part,5\n`)
  });
  await expect(page.getByRole('status').first()).toContainText('0 were added and 1 changed');
  await expect(page.getByTestId('row-problems')).toContainText('line 3, no-such-part: There is no part');
  expect((await (await page.request.get('/api/parts')).json()).find((one: { id: string }) => one.id === part.id).price).toBe(part.price + 1);
  await page.goto('/advice');

  await page.getByRole('button', { name: 'All side by side' }).click();
  await expect(page.getByTestId('all-answers').getByRole('row')).toHaveCount(4);
  await expect(page.getByTestId('all-answers')).not.toContainText('computing');
  await expectAccessible(page);
  await page.getByTestId('all-answers').getByRole('button', { name: 'Matinee' }).click();
  await expect(answer).not.toBeEmpty();
  await page.getByRole('button', { name: 'Delete' }).click();
});

test('a week of work is written by format and hours, and how long the hand may wait is asked', async ({ page }) => {
  await page.goto('/advice');
  await page.getByRole('button', { name: 'New brief' }).click();
  await page.getByRole('button', { name: 'None of these?' }).click();
  const week = page.getByTestId('week');
  await week.getByLabel('Footage').selectOption({ index: 1 });
  await week.getByLabel('Treatment').selectOption('graded, with a title');
  await week.getByRole('button', { name: 'Add a kind of work' }).click();
  await week.getByLabel('Hours a week').nth(1).fill('500');
  await week.getByLabel('Hours a week').nth(1).press('Tab');
  await expect(week.getByRole('alert')).toContainText('It stays 5');
  await week.getByLabel('Hours a week').nth(1).fill('15');
  await week.getByLabel('Hours a week').nth(1).press('Tab');
  await expectAccessible(page);
  await week.getByRole('button', { name: 'Create a timeline from it' }).click();
  await expect(page.getByRole('checkbox', { name: 'A week of work' })).toBeChecked();
  await expect(page.getByLabel('Hours a week of A week of work')).toHaveValue('20');
  await expect(page.getByTestId('answer')).toContainText('Buy ');

  // Nothing on offer is so quick; what it takes is said beside each offer otherwise.
  await page.getByText('More', { exact: true }).click();
  await page.getByLabel('Seconds until a frame shows').fill('0.01');
  await page.getByLabel('Seconds until a frame shows').press('Tab');
  await expect(page.getByTestId('answer')).toContainText('Nothing on offer plays all of it');
  await expect(page.getByText('takes longer to show a picture than the brief allows')).toBeVisible();
  await page.getByLabel('Seconds until a frame shows').fill('60');
  await page.getByLabel('Seconds until a frame shows').press('Tab');
  await expect(page.getByTestId('steps').getByRole('columnheader', { name: 'scrubbing shows a frame' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Seconds until a frame shows')).toHaveValue('0.01');
  await expect(page.getByTestId('answer')).toContainText('Nothing on offer plays all of it');
});

test('a new brief that is begun before the list has come stays', async ({ page }) => {
  await page.route('**/api/briefs', async (route) => {
    await new Promise((then) => setTimeout(then, 1500));
    await route.continue();
  });
  await page.goto('/advice');
  await page.getByRole('button', { name: 'New brief' }).click();
  const briefs = page.getByTestId('briefs');
  await expect(briefs.getByRole('button', { name: 'The cut before the van leaves' })).toBeVisible();
  await expect(briefs.getByRole('button', { name: 'The cut before the van leaves' })).toHaveAttribute('aria-pressed', 'false');
  await expect(page.getByText('Choose a timeline that stands for the work.')).toBeVisible();
});

test('a part is looked up, made dearer, duplicated and deleted', async ({ page }) => {
  await page.goto('/advice/parts');
  await page.getByRole('button', { name: /^power supplies/ }).click();
  const supplies = page.getByTestId('parts').getByRole('row');
  await supplies.nth(1).getByRole('button').click();
  const name = await page.getByRole('textbox', { name: 'name' }).inputValue();
  const before = await supplies.count();
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(supplies).toHaveCount(before + 1);
  await expect(page.getByRole('textbox', { name: 'name' })).toHaveValue(`${name} 2`);
  await page.getByRole('textbox', { name: 'watts' }).fill('a lot');
  await expect(page.getByRole('alert')).toContainText("'a lot' in watts is not a number");
  await page.getByRole('textbox', { name: 'watts' }).fill('777');
  await expect(page.getByTestId('saving')).toHaveText('saved');
  await expect(page.getByTestId('parts')).toContainText('777');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(supplies).toHaveCount(before);
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(supplies).toHaveCount(before + 1);
  await page.getByRole('button', { name: 'Delete' }).click();
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('textbox', { name: 'name' })).toHaveValue('New power supply');
  await page.getByRole('button', { name: 'Delete' }).click();
});
