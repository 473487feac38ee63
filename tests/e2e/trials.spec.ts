import { expect, test, type Page } from '@playwright/test';
import { expectAccessible } from './support';

const verdict = /holds|wavers|breaks/;
const short = '/timelines/short-call';

/** A timeline of two short passages, so that trials of several runs are over soon. */
test.beforeAll(async ({ request }) => {
  // Clips are made at the start; nothing plays on this machine meanwhile.
  await expect.poll(async () => (await (await request.get('/api/clips/making')).json()).running).toBe(false);
  if ((await request.get('/api/timelines/short-call')).ok()) return;
  const touring = (await (await request.get('/api/timelines/touring-night')).json()).timeline;
  const made = await (await request.post('/api/timelines', { data: { title: 'Short call' } })).json();
  const timeline = { ...touring, id: made.timeline.id, title: 'Short call', passages: [touring.passages[0], touring.passages[1]].map((one) => ({ ...one, frameCount: 50 })) };
  expect((await request.put('/api/timelines/short-call', { data: { version: made.version, timeline } })).ok()).toBe(true);
});

/** Figures are asked of stand-ins: those of this machine count only while no other program disturbs it, which a test can't promise. */
async function choose(page: Page, trial: string, machine = '') {
  await page.goto(short);
  await page.locator('[data-plays] select').first().selectOption(machine);
  await page.getByLabel('trial').selectOption(trial);
}

/** Plays what is chosen and opens its trial when it has ended. */
async function playOut(page: Page) {
  await page.getByRole('button', { name: /^Play Space/ }).click();
  await expect(page.getByTestId('answered')).toBeVisible();
  await page.goto('/trials');
  await page.getByTestId('trials').getByRole('link').first().click();
  await expect(page.getByTestId('answer')).not.toBeEmpty();
}

test('a scrub on this machine shows the places it has been to', async ({ page }) => {
  await choose(page, 'scrub');
  await expect(page.getByTestId('about-to')).toContainText('Does the picture follow while scrubbing?');
  await page.getByRole('button', { name: /^Play Space/ }).click();
  await expect(page.getByTestId('now-playing')).toContainText('places');
  await expect(page.getByTestId('now-playing')).toContainText('ms, the last');
  await page.getByTestId('answered').getByRole('link').click();
  await expect(page.getByTestId('answer')).toContainText(/came at once|No run counts/);
});

test('a scrub says how long the picture takes, with its lags as tables', async ({ page }) => {
  await choose(page, 'scrub', 'curlew-desk');
  await playOut(page);
  await expect(page.getByTestId('answer')).toContainText('came at once');
  await expect(page.getByTestId('lags')).toHaveCount(2);
  await expect(page.getByTestId('lags').first().getByRole('row')).toHaveCount(6);
  await expectAccessible(page);
});

test('a step down ends at the first preview scale that holds, or says that none does', async ({ page }) => {
  await choose(page, 'step down', 'curlew-desk');
  await playOut(page);

  await expect(page.getByTestId('answer')).toContainText(/Every passage holds from (full|half|quarter|eighth) scale on|do not hold/);
  const columns = page.getByTestId('trial-table').getByRole('columnheader');
  await expect(columns.nth(2)).toContainText('full scale');
  const last = await columns.last().innerText();
  expect(last).toMatch(/full|half|quarter|eighth/);
});

test('a repeat of three shows its spread, goes on over a reload and a closed page, and opens a passage', async ({ page, context }) => {
  await choose(page, 'repeat');
  await expect(page.getByTestId('about-to')).toContainText('Bare run: every aid off. About 12 s.');
  await choose(page, 'repeat', 'gannet-tower');
  await page.getByRole('button', { name: /^Conditions/ }).click();
  await page.getByLabel('play in real time').check();
  await page.getByRole('button', { name: /^Play Space/ }).click();
  await expect(page.getByTestId('now-playing')).toContainText('of 100 slots');

  await page.reload();
  await expect(page.getByTestId('now-playing')).toContainText(/repeat: [123] of 3/);
  await page.close();
  const again = await context.newPage();
  await again.goto(short);
  await expect(again.getByTestId('now-playing')).toContainText('repeat');
  await again.getByTestId('now-playing').getByRole('link', { name: /^repeat/ }).click();
  await expect(again).toHaveURL(/\/trials\/\d+/);
  await expect(again.getByTestId('trial-table').getByRole('columnheader')).toHaveCount(5);
  await expect(again.getByTestId('trial-table')).toContainText('± ');
  await expect(again.getByRole('columnheader', { name: '3 of 3' })).toBeVisible();

  await again.getByRole('button', { name: 'Passage 2, 2 of 3' }).click();
  await expect(again.getByTestId('detail')).toContainText(verdict);
  await again.keyboard.press('Escape');
  await expect(again.getByTestId('detail')).toBeHidden();
});

test('a mark pinned while it plays stands at its frame and in the exports', async ({ page }) => {
  await choose(page, 'play through');
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.getByTestId('now-playing')).toContainText(/[1-9]\d\s*of 100 slots/);
  await page.keyboard.press('m');
  await page.getByLabel('What you noticed').selectOption('picture fault');
  await page.getByLabel('Text', { exact: true }).fill('green flash');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('mark-form')).toBeHidden();
  await expect(page.getByTestId('pinned')).toContainText('Mark added: picture fault');
  await expect(page.getByTestId('now-playing')).toBeHidden();

  const run = (await (await page.request.get('/api/runs')).json()).find((one: { machineName: string }) => one.machineName === 'This machine');
  expect(run.marks).toBe(1);
  await page.goto(`/runs/${run.id}`);
  await expect(page.getByTestId('marks')).toContainText('picture fault green flash');
  await expect(page.getByTestId('found-conditions')).toContainText('hd-avc-25');
  const csv = await (await page.request.get(`/api/runs/${run.id}/frames.csv`)).text();
  expect(csv).toContain('pictureFault: green flash');
  await expectAccessible(page);

  // Afterwards, at a frame of the comb.
  await page.getByRole('button', { name: /HD AVC, no effects/ }).click();
  await page.getByRole('slider', { name: 'Frame' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'Mark frame 1', exact: true }).click();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('mark-form')).toBeHidden();
  await expect(page.getByTestId('detail')).toBeVisible();
  // Where it was clicked counts, wherever the pointer goes afterwards.
  const comb = (await page.getByRole('slider', { name: 'Frame' }).boundingBox())!;
  await page.mouse.click(comb.x + comb.width / 2, comb.y + comb.height / 2);
  await page.mouse.move(comb.x + 3, comb.y + comb.height / 2);
  await page.mouse.move(comb.x + 3, comb.y + comb.height + 60);
  await page.getByRole('button', { name: 'Mark frame 25', exact: true }).click();
  await page.getByLabel('What you noticed').selectOption('fan');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('detail').getByTestId('pinned')).toContainText('Mark added: fan, at frame 25.');
  await expect(page.getByTestId('detail').getByTestId('marks')).toContainText('fan');
  await page.getByTestId('detail').getByRole('button', { name: 'Delete the mark fan' }).click();
  await expect(page.getByTestId('detail').getByTestId('marks').getByText('fan', { exact: true })).toBeHidden();
  await page.getByTestId('detail').getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByTestId('detail').getByTestId('marks').getByText('fan', { exact: true })).toBeVisible();

  // From the run to its trial and back; one passage of it once more.
  await page.getByRole('button', { name: 'Play passage 1 again, alone' }).click();
  await expect(page.getByTestId('now-playing')).toContainText('of 50 slots');
  await expect(page.getByTestId('now-playing')).toBeHidden();
  await page.getByRole('link', { name: /^Trial \d/ }).click();
  await expect(page.getByTestId('answer')).toBeVisible();
  await page.getByRole('link', { name: `run ${run.id}` }).click();
  await expect(page).toHaveURL(new RegExp(`/runs/${run.id}$`));
});

test('what differs from a bare run stands beside the play button, and what makes no sense is said before it is asked', async ({ page }) => {
  await choose(page, 'compare two');
  await page.getByRole('button', { name: 'Conditions' }).click();
  const conditions = page.getByTestId('conditions');
  await conditions.getByLabel(/^\s*proxies/).selectOption('half the raster');
  await conditions.getByLabel(/^\s*footage/).selectOption('cold: dropped before');
  await expect(page.getByTestId('about-to')).toContainText('Not bare: half-raster proxies, footage cold.');
  await conditions.getByLabel('the second side changes').selectOption('without the effect');
  await conditions.getByLabel(/^\s*to\s/).selectOption('noise-reduction');
  await expect(page.getByTestId('about-to')).toContainText('Changed: without noise reduction.');
  await conditions.getByLabel(/^\s*pairs/).fill('0');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('alert')).toContainText('From 1 to 50. It stays 3.');
  await expectAccessible(page);
});

test('a second trial waits its turn and can be taken out', async ({ page }) => {
  await choose(page, 'play through');
  await page.getByRole('button', { name: /^Play Space/ }).click();
  await expect(page.getByRole('button', { name: 'Queue' })).toBeVisible();
  await page.getByLabel('trial').selectOption('repeat');
  await page.getByRole('button', { name: 'Queue' }).click();
  await expect(page.getByTestId('waiting')).toContainText('repeat of Short call on This machine');
  await page.getByRole('button', { name: 'Remove repeat on This machine from the queue' }).click();
  await expect(page.getByTestId('waiting')).toBeHidden();
  await page.getByRole('button', { name: /^Stop/ }).click();
  await expect(page.getByTestId('now-playing')).toBeHidden();
  await page.goto('/trials');
  await expect(page.getByTestId('trials').getByRole('row').nth(1)).toContainText('Removed from the queue before it began.');
});

test('passages are rendered beforehand when asked, and say what it cost', async ({ page }) => {
  await choose(page, 'play through');
  await page.getByRole('button', { name: 'Conditions' }).click();
  await page.getByLabel('pre-renders').check();
  await expect(page.getByTestId('renders')).toContainText('0 of 2 passages are rendered');
  await page.getByRole('button', { name: 'Render the rest' }).click();
  await expect(page.getByTestId('renders')).toContainText(/2 of 2 passages are rendered: \d+\.\d MB in \d+\.\d s/);
});

test('the runs list filters, sorts, groups, deletes and restores, and is written out', async ({ page }) => {
  // The demo's stand-ins play at start, and the list grows until they are done.
  const played = async () => (await (await page.request.get('/api/runs')).json()).length as number;
  await expect.poll(async () => {
    const before = await played();
    await page.waitForTimeout(2_000);
    return (await played()) - before;
  }).toBe(0);
  await page.goto('/runs');
  const runs = page.getByTestId('runs');
  await expect(runs.getByRole('checkbox', { name: /^Run / }).first()).toBeVisible();
  const counts = page.getByTestId('counts');
  const all = Number((await counts.textContent())!.match(/of (\d+) runs/)![1]);
  await page.getByLabel('Show only runs with').fill('curlew finished');
  await expect(counts).not.toContainText(`${all} of ${all}`);
  const few = Number((await counts.textContent())!.match(/^(\d+) of/)![1]);
  expect(few).toBeGreaterThan(0);

  const numbers = () => runs.getByRole('checkbox', { name: /^Run / }).evaluateAll((boxes) => boxes.map((box) => Number(box.getAttribute('aria-label')!.slice(4))));
  await runs.getByRole('button', { name: 'run', exact: false }).first().click();
  await expect(runs.getByRole('columnheader', { name: /^run/ })).toHaveAttribute('aria-sort', 'ascending');
  await expect.poll(async () => (await numbers()).every((one, at, them) => at === 0 || them[at - 1] < one)).toBe(true);

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export as CSV' }).click();
  expect((await download).suggestedFilename()).toBe('runs.csv');

  await runs.getByRole('checkbox', { name: /^Run / }).first().check();
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByTestId('aside')).toContainText('One run is deleted.');
  await expect(counts).toContainText(`${few - 1} of ${all - 1} runs`);
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(counts).toContainText(`${few} of ${all} runs`);

  await page.getByLabel('Show only runs with').fill('nothing of the kind');
  await expect(page.getByTestId('no-runs')).toContainText('No run matches.');
  await page.getByTestId('no-runs').getByRole('button').click();
  await runs.getByRole('button', { name: 'started' }).click();
  await expect(runs.getByRole('columnheader', { name: /^started/ })).toHaveAttribute('aria-sort', 'descending');
  await expect(runs.locator('[aria-sort]')).toHaveCount(1);
  await page.getByLabel('grouped by').selectOption('conditions');
  await expect(runs.getByRole('rowheader').filter({ hasText: /^\s*Short call on This machine, full scale, bare\s+\d+ runs/ })).toBeVisible();
  await expectAccessible(page);
});

test('a trial is asked for and its answer read by keyboard alone', async ({ page }) => {
  await page.goto(short);
  await page.locator('[data-plays] select').first().focus();
  await page.keyboard.type('Curlew');
  await page.keyboard.press('Tab');
  await page.keyboard.type('repeat');
  for (const _ of ['scale', 'conditions', 'play']) await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: /^Play Space/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('answered')).toContainText('All 3 runs give every passage the same verdict.');

  // Whoever pressed it is still there, and the answer is some keys further on.
  await expect(page.getByRole('button', { name: /^Play Space/ })).toBeFocused();
  const answer = page.getByRole('link', { name: 'The whole trial' });
  for (let key = 0; key < 80 && !(await answer.evaluate((one) => one === document.activeElement)); key++) await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('answer')).toContainText('All 3 runs give every passage the same verdict.');
});

test('a capacity trial says how fast every passage goes, and the panel what each part could do', async ({ page, request }) => {
  const { trialId } = await (await request.post('/api/play', { data: { timelineId: 'touring-night', machineId: 'gannet-tower', trial: { kind: 'capacity', times: 2 } } })).json();
  await expect.poll(async () => (await (await request.get(`/api/trials/${trialId}`)).json()).trial.state).toBe('finished');
  await page.goto(`/trials/${trialId}`);
  await expect(page.getByTestId('answer')).toContainText('Without a clock 8 of 8 passages reach the required rate');
  await page.getByTestId('trial-table').getByRole('row').nth(5).getByRole('button').first().click();
  await expect(page.getByTestId('detail')).toContainText('the required rate, without a clock');
  await expect(page.getByTestId('parts')).toContainText('processor');
  await expectAccessible(page);
});

test('an export trial exports in every format and ranks them, or in the one that is chosen', async ({ page, request }) => {
  const { trialId } = await (await request.post('/api/play', { data: { timelineId: 'touring-night', machineId: 'heron-32', trial: { kind: 'export', times: 1 } } })).json();
  await expect.poll(async () => (await (await request.get(`/api/trials/${trialId}`)).json()).trial.state).toBe('finished');
  await page.goto(`/trials/${trialId}`);
  await expect(page.getByTestId('answer')).toContainText(/Fastest first:\s+1\. /);
  await expect(page.getByTestId('answer')).toContainText('5. HEVC 10-bit 4:2:0 by the processor');
  await page.getByTestId('trial-table').getByRole('row').nth(7).getByRole('button').nth(1).click();
  await expect(page.getByTestId('detail')).toContainText('of the player\'s work was encoding');
  await expectAccessible(page);

  await choose(page, 'export');
  await page.getByRole('button', { name: /^Conditions/ }).click();
  await page.getByTestId('conditions').getByLabel('format').selectOption('rdd36');
  await page.getByTestId('conditions').getByLabel('times each').fill('1');
  await page.getByTestId('conditions').getByLabel('encoder').selectOption('mediaEngine');
  await expect(page.getByText('On this machine only the processor encodes.')).toBeVisible();
  await page.getByTestId('conditions').getByLabel('encoder').selectOption('processor');
  await playOut(page);
  await expect(page.getByTestId('answer')).toContainText(/Written: RDD 36 10-bit 4:2:2 by the processor, [0-9.]+ s|No run counts/);
});

test('a stand-in plays in real time, and a stopped run keeps what was played', async ({ page, request }) => {
  await choose(page, 'play');
  await page.locator('[data-plays] select').first().selectOption('curlew-desk');
  await page.getByRole('button', { name: /^Conditions/ }).click();
  await page.getByLabel('play in real time').check();
  await page.getByRole('button', { name: /^Play Space/ }).click();
  await expect(page.getByTestId('now-playing')).toContainText('Curlew desk');
  await expect.poll(async () => (await (await request.get('/api/play')).json()).frames).toBeGreaterThan(10);
  await page.getByRole('button', { name: /^Stop/ }).click();
  await expect(page.getByTestId('now-playing')).toBeHidden();
  const { runId } = await (await request.get('/api/play')).json();
  const run = await (await request.get(`/api/runs/${runId}`)).json();
  expect(run.ending).toBe('stopped');
});
