import { expect, test } from '@playwright/test';
import { expectAccessible } from './support';

test('an editing program is duplicated and changed, and a stand-in plays as it does', async ({ page }) => {
  await page.goto('/programs');
  await page.getByRole('button', { name: 'Gantry', exact: true }).click();
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(page.getByRole('heading', { name: 'Gantry (2)' })).toBeVisible();
  await page.getByLabel('look-ahead').fill('0');
  await page.getByLabel('look-ahead').press('Tab');
  await expect(page.getByRole('alert')).toContainText('It stays 24');
  await page.getByLabel('look-ahead').fill('12');
  await page.getByLabel('look-ahead').press('Tab');
  await expect(page.getByTestId('saving')).toHaveText('saved');
  await expect(page.getByTestId('programs')).toContainText('look-ahead 12');
  await expectAccessible(page);

  await page.goto('/timelines/touring-night');
  await page.getByRole('button', { name: 'Conditions' }).click();
  await page.getByLabel('plays as').selectOption({ label: 'Gantry (2)' });
  await expect(page.getByTestId('about-to')).toContainText('as Gantry (2) would play');
  await expect(page.getByRole('alert')).toContainText('Hardy Bench player only');
  await page.locator('[data-plays] select').first().selectOption({ label: 'Curlew desk' });
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.getByRole('button', { name: 'Play Space' }).click();
  await expect(page.getByTestId('sheet')).toContainText('as Gantry (2) would play');

  // A play beside other programs is said to be one, and refused on a machine where they would have to be real.
  await page.getByLabel('plays as').selectOption({ label: 'Hardy Bench player' });
  await page.getByLabel('Cores that other programs keep busy').fill('6');
  await page.getByLabel('Cores that other programs keep busy').press('Tab');
  await expect(page.getByTestId('about-to')).toContainText('beside other programs: 6 cores busy');
  await page.getByRole('button', { name: 'Play Space' }).click();
  await expect(page.getByTestId('sheet')).toContainText('beside other programs: 6 cores busy');
  await page.locator('[data-plays] select').first().selectOption({ label: 'This machine' });
  await expect(page.getByRole('alert')).toContainText('Start them');

  await page.goto('/programs');
  await page.getByRole('button', { name: 'Gantry (2)', exact: true }).click();
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByTestId('programs')).not.toContainText('Gantry (2)');
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByTestId('programs')).toContainText('Gantry (2)');
  await page.getByRole('button', { name: 'Delete' }).click();
});
