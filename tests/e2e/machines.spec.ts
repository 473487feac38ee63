import { expect, test } from '@playwright/test';
import { expectAccessible } from './support';

const sheet = '/timelines/touring-night';

test('a shelf is brought in with what is wrong named, a machine is duplicated, changed and chosen for a sheet', async ({ page }) => {
  await page.goto('/machines');
  await expect(page.getByTestId('machines')).toContainText('Curlew desk');
  const table = 'name,cores,memory_gb,price_eur\nPipit mini,6,16,700\nBroken box,0,16,\nWordy box,six,16,\n';
  await page.getByLabel('A file of machines').setInputFiles({ name: 'shelf.csv', mimeType: 'text/csv', buffer: Buffer.from(table) });
  await expect(page.getByRole('region', { name: 'The machine chosen' }).getByRole('status')).toContainText('One machine was added from shelf.csv; 2 to look at below');
  await expect(page.getByTestId('row-problems')).toContainText('line 3, Broken box: The cores is 0');
  await expect(page.getByTestId('row-problems')).toContainText("line 4, Wordy box: 'six' in cores is not a whole number");
  await expect(page).toHaveURL(/id=pipit-mini/);
  await page.getByRole('button', { name: 'put away' }).click();

  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(page.getByRole('heading', { name: 'Pipit mini (2)' })).toBeVisible();
  const keep = page.getByRole('button', { name: 'Keep', exact: true });
  await expect(keep).toBeDisabled();
  await page.getByLabel('fitted, GB').fill('64');
  await page.getByLabel('fitted, GB').press('Tab');
  await page.getByLabel('name', { exact: true }).first().fill('Pipit mini, 64 GB');
  await expect(page.getByTestId('machines')).toContainText('changed, not kept');
  await page.keyboard.press('Control+s');
  await expect(page.getByRole('region', { name: 'The machine chosen' }).getByRole('status')).toContainText('Pipit mini, 64 GB is kept');
  await expectAccessible(page);

  await page.goto(sheet);
  await page.getByRole('button', { name: 'Machines', exact: true }).click();
  await page.getByRole('dialog').getByPlaceholder('show only…').fill('Pipit');
  await page.getByRole('dialog').getByRole('checkbox').last().check();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Show these' }).click();
  await expect(page.getByTestId('sheet')).toContainText('Pipit mini, 64 GB');
  await page.reload();
  await expect(page.getByTestId('sheet').getByRole('columnheader')).toHaveCount(6);

  // As it was, for whoever looks at the sheet next.
  await page.getByRole('button', { name: 'Machines', exact: true }).click();
  await page.getByRole('dialog').getByPlaceholder('show only…').fill('Pipit');
  await page.getByRole('dialog').getByRole('checkbox').last().uncheck();
  await page.getByRole('button', { name: 'Show these' }).click();
  await expect(page.getByTestId('sheet')).not.toContainText('Pipit');
});

test('a machine is taken off the shelf and brought back', async ({ page }) => {
  await page.goto('/machines?id=knot-tower-sata');
  await page.getByRole('button', { name: 'Take off the shelf' }).click();
  await expect(page.getByRole('region', { name: 'The machine chosen' }).getByRole('status')).toContainText('Knot tower, SATA is off the shelf');
  await expect(page.getByTestId('machines')).not.toContainText('Knot tower, SATA');
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByTestId('machines')).toContainText('Knot tower, SATA');
});

test('what contradicts itself is refused in words and nothing is lost', async ({ page }) => {
  await page.goto('/machines?id=heron-8');
  await page.getByLabel('in use before, GB').fill('9');
  await page.getByLabel('in use before, GB').press('Tab');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('9 GB in use leave nothing of 8 GB');
  await expect(page.getByLabel('in use before, GB')).toHaveValue('9');
  await page.getByRole('button', { name: 'Leave it as it was' }).click();
  await expect(page.getByLabel('in use before, GB')).toHaveValue('4.5');
});
