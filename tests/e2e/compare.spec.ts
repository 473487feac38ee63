import { expect, test } from '@playwright/test';
import { expectAccessible } from './support';

/** Runs of the demo's stand-ins, newest last, by machine. */
async function runOf(request: import('@playwright/test').APIRequestContext, machineId: string): Promise<number> {
  const body = { timelineId: 'touring-night', machineId };
  const { trialId } = await (await request.post('/api/play', { data: body })).json();
  for (;;) {
    const { trial, runs } = await (await request.get(`/api/trials/${trialId}`)).json();
    if (!['waiting', 'playing'].includes(trial.state)) return runs[0].runId;
    await new Promise((done) => setTimeout(done, 200));
  }
}

test('runs are compared: the sum, unlike conditions, passage by passage, in step by keyboard, and taken away', async ({ page, request }) => {
  const [slate, desk] = [await runOf(request, 'sandpiper-slate'), await runOf(request, 'curlew-desk')];
  await page.goto('/runs');
  await page.getByRole('checkbox', { name: `Run ${slate}`, exact: true }).check();
  await page.getByRole('checkbox', { name: `Run ${desk}`, exact: true }).check();
  await page.getByRole('link', { name: 'Compare', exact: true }).last().click();

  await expect(page).toHaveURL(new RegExp(`/compare\\?run=${slate}&run=${desk}`));
  await expect(page.getByTestId('sums')).toContainText('Curlew desk');
  const table = page.getByTestId('comparison');
  await expect(table.getByRole('columnheader')).toHaveCount(3);
  await expect(table).toContainText('parts of the machine differ');
  await expect(table.locator('tbody tr')).toHaveCount(8);
  await expectAccessible(page);

  await page.getByRole('button', { name: 'use as baseline' }).click();
  await expect(page).toHaveURL(new RegExp(`run=${desk}&run=${slate}`));
  await page.getByRole('button', { name: 'Passage 5 in step' }).click();
  const slider = page.getByRole('slider', { name: 'Slot' });
  await slider.focus();
  await page.keyboard.press('ArrowRight');
  await expect(slider).toHaveAttribute('aria-valuenow', '2');
  const step = page.getByTestId('in-step');
  await expect(step.getByRole('img', { name: /^Processor of/ })).toHaveCount(2);
  await step.getByLabel('load').selectOption('Memory');
  await expect(step.getByRole('img', { name: /^Memory of Curlew desk/ })).toBeVisible();
  await slider.focus();
  await page.keyboard.press('End');
  await page.keyboard.press('n');
  await expect(page.getByTestId('in-step').getByRole('status')).toContainText('do not differ again');
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('in-step')).toHaveCount(0);

  const csv = await (await request.get(`/api/compare/table.csv?run=${desk}&run=${slate}`)).text();
  expect(csv.trim().split('\n')).toHaveLength(1 + 8 * 2);
});

test('machines are chosen, and its newest bare run stands for each', async ({ page, request }) => {
  await runOf(request, 'sandpiper-slate');
  const newest = await runOf(request, 'curlew-desk');
  await page.goto('/compare');
  await page.getByRole('button', { name: 'Choose machines' }).click();
  const dialog = page.getByRole('dialog', { name: 'Machines to compare' });
  await dialog.getByLabel('Timeline', { exact: true }).selectOption({ label: 'Touring night' });
  await dialog.getByRole('checkbox', { name: /^Curlew desk/ }).check();
  await dialog.getByRole('checkbox', { name: /^Sandpiper slate/ }).check();
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Compare' }).click();
  await expect(page).toHaveURL(new RegExp(`compare\\?run=${newest}&run=`));
  await expect(page.getByTestId('comparison').getByRole('columnheader').nth(1)).toContainText('Curlew desk');
});

test('what cannot be compared is said in words', async ({ page, request }) => {
  const run = await runOf(request, 'curlew-desk');
  await page.goto(`/compare?run=${run}&run=${run}`);
  await expect(page.getByRole('alert')).toContainText(`Run ${run} cannot be compared with itself`);
  await page.goto(`/compare?run=${run}`);
  await expect(page.getByRole('alert')).toContainText('Choose two runs or more');
  await page.goto(`/compare?run=${run}&run=999999`);
  await expect(page.getByRole('alert')).toContainText('There is no run');
  await page.goto('/compare');
  await page.getByRole('button', { name: 'Choose runs' }).click();
  await expect(page.getByRole('dialog').getByRole('checkbox').first()).toBeVisible();
  await expectAccessible(page);
});

test('families are found, drawn along the one thing that differs, and a grid leads to a comparison', async ({ page, request }) => {
  // What a stand-in played before the clips were made was played from other figures.
  await expect.poll(async () => (await (await request.get('/api/clips/making')).json()).running).toBe(false);
  for (const id of ['heron-8', 'heron-16', 'heron-32', 'heron-64']) await runOf(request, id);
  await page.goto('/compare');
  const families = page.getByTestId('families');
  await families.getByLabel('Timeline').selectOption('Touring night');
  await families.getByRole('link', { name: 'memory' }).click();
  await expect(page.getByTestId('axis')).toContainText('Along memory from 8 GB to 64 GB');
  await expect(page.getByTestId('axis-curve').locator('rect')).toHaveCount(4);
  await expectAccessible(page);

  await page.getByRole('link', { name: 'All machines in a grid' }).click();
  const grid = page.getByTestId('grid');
  await expect(grid).toContainText('Heron all-in-one, 8 GB');
  await page.getByRole('combobox').first().selectOption('Touring night');
  await expect(page).toHaveURL(/timeline=touring-night/);
  await expect(grid.getByRole('columnheader')).toHaveCount(3 + 8);
  await grid.getByRole('button', { name: 'price' }).click();
  await expect(grid.getByRole('row').nth(1)).toContainText('Stint laptop');
  await page.getByRole('combobox').nth(1).selectOption('headroom');
  await expect(grid.getByRole('row').nth(1)).toContainText('×');
  await expectAccessible(page);

  await grid.getByRole('checkbox', { name: 'Compare Heron all-in-one, 8 GB' }).check();
  await grid.getByRole('checkbox', { name: 'Compare Heron all-in-one, 16 GB' }).check();
  await page.getByRole('link', { name: 'Compare 2' }).click();
  await expect(page.getByTestId('comparison').getByRole('columnheader')).toHaveCount(3);
});
