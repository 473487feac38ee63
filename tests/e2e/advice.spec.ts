import { expect, test } from '@playwright/test';
import { expectAccessible } from './support';

test('a brief is written, answered, given another budget, opened to its reasons and kept', async ({ page }) => {
  await page.goto('/advice');
  const answer = page.getByTestId('answer');
  await expect(page.getByTestId('briefs').getByRole('button', { name: 'The cut before the van leaves' })).toHaveAttribute('aria-pressed', 'true');
  await expect(answer).not.toBeEmpty({ timeout: 60_000 });
  await expectAccessible(page);

  // The answer to one brief never stands beside another.
  await page.getByRole('button', { name: 'New brief' }).click();
  await expect(answer).toHaveCount(0);
  await expect(page.getByRole('alert')).toContainText('Choose a timeline');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Matinee');
  await page.getByRole('checkbox', { name: 'Touring night' }).check();
  await expect(answer).toContainText('Buy ', { timeout: 60_000 });
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
  await expect(page.getByTestId('why-pick')).toContainText('has least to spare');
  await page.getByTestId('steps').locator('summary').first().click();
  await expect(page.getByTestId('steps')).toContainText('Power supply');
  await page.getByLabel('What is there already?').selectOption({ label: 'Gannet tower' });
  await expect(page.getByTestId('remedies').or(page.getByText('Keep Gannet tower'))).toBeVisible({ timeout: 60_000 });
  await expectAccessible(page);

  await page.keyboard.press('Control+s');
  await expect(page.getByRole('status').first()).toContainText('Matinee is kept');
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByTestId('briefs')).not.toContainText('Matinee');
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByTestId('briefs')).toContainText('Matinee');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByTestId('brief')).toBeHidden();
  await expect(answer).toBeVisible();
  await page.emulateMedia({ media: 'screen' });
  await page.getByRole('button', { name: 'Delete' }).click();
});
