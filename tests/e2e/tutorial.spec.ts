import { expect, test } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const address = 'http://127.0.0.1:5292';
const text = readFileSync('../../docs/tutorial.md', 'utf8');
let server: ChildProcess;

/** A name that the tutorial gives in italics or as code; the test fails when the tutorial does not. */
function said(name: string): string {
  expect(text.includes(`*${name}*`) || text.includes(`\`${name}\``), `the tutorial names ${name}`).toBe(true);
  return name;
}

test.beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'hardybench-tutorial-'));
  server = spawn('dotnet', ['../../src/HardyBench.Cli/bin/Release/program/hardybench.dll', '--data', folder, '--pack', 'small', 'serve', '--port', '5292']);
  await expect(async () => expect((await fetch(`${address}/api/runs`)).ok).toBe(true)).toPass();
});
test.afterAll(() => void server.kill());

test('the first hour works as the tutorial says, from an empty bench to a printed answer', async ({ page }) => {
  const place = (name: string) => page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: said(name) });
  await page.goto(address);
  expect(await (await page.request.get(`${address}/api/runs`)).json()).toEqual([]);

  await place('Footage').click();
  for (const clip of ['hd-avc-25', 'hd-mezz-25']) await page.getByRole('checkbox', { name: `Create ${said(clip)}`, exact: true }).check();
  await page.getByRole('button', { name: said('Create 2 clips') }).click();
  await expect(page.getByTestId('clips').getByText(said('created'), { exact: true })).toHaveCount(2);
  await page.getByRole('button', { name: 'hd-avc-25', exact: true }).click();
  await expect(page.getByTestId('facts')).toContainText('frames on average');

  await place('Timelines').click();
  await page.getByLabel('Title of a new timeline').fill(said('First test'));
  await page.getByRole('button', { name: said('Add'), exact: true }).click();
  await expect(page.getByText('No passages yet.')).toBeVisible();
  await page.keyboard.press(said('N').toLowerCase());
  await page.getByLabel('Clip of layer 1').selectOption('hd-avc-25');
  await page.getByLabel('Passages').press(said('B').toLowerCase());
  await page.getByRole('group', { name: 'clips' }).getByLabel('hd-avc-25', { exact: true }).check();
  await page.getByRole('button', { name: said('Build'), exact: true }).click();
  await expect(page.getByTestId('rows').getByRole('option')).toHaveCount(5);
  await expect(page.getByTestId('keeping')).toHaveText(said('saved'));

  await place('Timelines').click();
  await page.getByRole('link', { name: 'First test' }).click();
  const play = page.getByRole('button', { name: `${said('Play')} Space` });
  await play.click();
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(play).toBeVisible();
  await expect(page.getByText(/holds|wavers|breaks/).first()).toBeVisible();
  await page.getByLabel(said('trial')).selectOption({ label: said('capacity') });
  said('on');
  await page.locator('[data-plays] select').first().selectOption({ label: 'Curlew desk' });
  await play.click();
  await place('Trials').click();
  await expect(page.getByTestId('trials')).toContainText('times its rate');

  await place('Advice').click();
  await page.getByRole('button', { name: said('New brief') }).click();
  await page.getByRole('textbox', { name: said('Name'), exact: true }).fill('Matinee');
  await page.getByRole('checkbox', { name: 'First test' }).check();
  await page.getByLabel(said('Budget')).fill('3000');
  await page.getByLabel('Budget').press('Tab');
  const answer = page.getByTestId('answer');
  await expect(answer).toContainText(/Buy |Keep /);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByTestId('brief')).toBeHidden();
  await expect(answer).toBeVisible();
  await expect(page.getByRole('main')).toContainText('First test');
});
