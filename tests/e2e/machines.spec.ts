import { expect, test } from '@playwright/test';
import { expectAccessible } from './support';

const sheet = '/timelines/touring-night';

test('a shelf is brought in with what is wrong named, a machine is duplicated, changed and chosen for a sheet', async ({ page }) => {
  await page.goto('/machines');
  await expect(page.getByTestId('machines')).toContainText('Curlew desk');
  const table = 'name,cores,memory_gb,price_eur\nPipit mini,6,16,700\nBroken box,0,16,\nWordy box,six,16,\n';
  await page.getByLabel('A file of machines').setInputFiles({ name: 'shelf.csv', mimeType: 'text/csv', buffer: Buffer.from(table) });
  await expect(page.getByRole('region', { name: 'The machine chosen' }).getByRole('status').first()).toContainText('One machine was added from shelf.csv; 2 to look at below');
  await expect(page.getByTestId('row-problems')).toContainText('line 3, Broken box: The number of cores is 0');
  await expect(page.getByTestId('row-problems')).toContainText("line 4, Wordy box: 'six' in cores is not a whole number");
  await expect(page).toHaveURL(/id=pipit-mini/);
  await page.getByRole('button', { name: 'Hide' }).click();

  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(page.getByRole('heading', { name: 'Pipit mini (2)' })).toBeVisible();
  await page.getByLabel('fitted, GB').fill('64');
  await page.getByLabel('fitted, GB').press('Tab');
  await page.getByLabel('name', { exact: true }).first().fill('Pipit mini, 64 GB');
  await expect(page.getByTestId('saving')).toHaveText('saved');
  await expect(page.getByTestId('machines')).toContainText('Pipit mini, 64 GB');
  await expectAccessible(page);

  await page.goto(sheet);
  await page.getByRole('button', { name: 'Machines', exact: true }).click();
  await page.getByRole('dialog').getByPlaceholder('filter…').fill('Pipit');
  await page.getByRole('dialog').getByRole('checkbox').last().check();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Show these' }).click();
  await expect(page.getByTestId('sheet')).toContainText('Pipit mini, 64 GB');
  await page.reload();
  await expect(page.getByTestId('sheet').getByRole('columnheader')).toHaveCount(6);

  // As it was, for whoever looks at the sheet next.
  await page.getByRole('button', { name: 'Machines', exact: true }).click();
  await page.getByRole('dialog').getByPlaceholder('filter…').fill('Pipit');
  await page.getByRole('dialog').getByRole('checkbox').last().uncheck();
  await page.getByRole('button', { name: 'Show these' }).click();
  await expect(page.getByTestId('sheet')).not.toContainText('Pipit');
});

test('a machine is deleted and restored, where it was deleted and on the page of all that is deleted', async ({ page }) => {
  await page.goto('/machines?id=knot-tower-sata');
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByRole('region', { name: 'The machine chosen' }).getByRole('status').first()).toContainText('Knot tower, SATA is deleted');
  await expect(page.getByTestId('machines')).not.toContainText('Knot tower, SATA');
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByTestId('machines')).toContainText('Knot tower, SATA');

  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByTestId('machines')).not.toContainText('Knot tower, SATA');
  await page.goto('/deleted');
  await expect(page.getByTestId('deleted')).toContainText('Knot tower, SATA');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Restore Knot tower, SATA' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Knot tower, SATA is restored' })).toBeVisible();
  await page.goto('/machines');
  await expect(page.getByTestId('machines')).toContainText('Knot tower, SATA');
});

test('what contradicts itself is refused in words and nothing is lost', async ({ page }) => {
  await page.goto('/machines?id=heron-8');
  await page.getByLabel('in use at start, GB').fill('9');
  await page.getByLabel('in use at start, GB').press('Tab');
  await expect(page.getByTestId('saving')).toHaveText('not saved');
  await expect(page.getByRole('alert')).toContainText('9 GB in use leave nothing of 8 GB');
  await expect(page.getByLabel('in use at start, GB')).toHaveValue('9');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('in use at start, GB')).toHaveValue('4.5');
});

test('what is changed in two windows is saved by the first, and the second can keep its own as a copy', async ({ page, context }) => {
  await page.goto('/machines?id=heron-16');
  const other = await context.newPage();
  await other.goto('/machines?id=heron-16');
  await expect(other.getByLabel('in use at start, GB')).not.toHaveValue('');
  await page.getByLabel('in use at start, GB').fill('5');
  await page.getByLabel('in use at start, GB').press('Tab');
  await expect(page.getByTestId('saving')).toHaveText('saved');
  await other.getByLabel('in use at start, GB').fill('6');
  await other.getByLabel('in use at start, GB').press('Tab');
  await expect(other.getByRole('alert')).toContainText('changed');
  await other.getByRole('button', { name: 'Save mine as a copy' }).click();
  await expect(other.getByRole('heading', { name: /, mine$/ })).toBeVisible();
  await expect(other.getByLabel('in use at start, GB')).toHaveValue('6');
  await other.getByRole('button', { name: 'Delete' }).click();

  // What is pending is saved when somebody goes elsewhere; the change is undone step by step.
  await page.reload();
  await expect(page.getByLabel('in use at start, GB')).toHaveValue('5');
  await page.getByLabel('in use at start, GB').fill('5.5');
  await page.getByLabel('in use at start, GB').press('Tab');
  await page.getByRole('link', { name: 'Runs', exact: true }).click();
  await expect.poll(async () => (await (await page.request.get('/api/machines/heron-16')).json()).machine.memory.inUseGigabytes).toBe(5.5);

  // What it played before is listed with what has changed since.
  await page.goto('/machines?id=heron-16');
  await expect(page.getByTestId('earlier-runs')).toContainText(/runs?, the last \d\d\/\d\d\/\d{4}, [\d:]+\. Changed since: memory in use before .* → 5\.5 GB/);
});
