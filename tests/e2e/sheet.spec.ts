import { expect, test, type Page } from '@playwright/test';
import { expectAccessible } from './support';

const sheet = '/timelines/touring-night';
const cell = (page: Page, number: number, machine: string) => page.getByRole('button', { name: `Passage ${number} on ${machine}` });
const verdict = /holds|wavers|breaks/;

test('the demo starts by itself: stand-ins have played, clips are made while the page is in use', async ({ page }) => {
  await page.goto('/');
  await expect(page).toHaveURL(/touring-night/);
  for (let number = 1; number <= 8; number++) await expect(cell(page, number, 'Curlew desk')).toContainText(verdict);
  await expect(page.getByTestId('pick')).toContainText(/^Recommended: /);

  await page.goto('/footage');
  // Those of the demo, besides any that another test has created.
  for (const clip of ['hd-avc-25', 'hd-avc-50', 'uhd-hevc-25', 'hd-mezz-25', 'uhd-mezz-25']) {
    await expect(page.locator(`[data-clip="${clip}"]`).getByText('created', { exact: true })).toBeVisible();
  }
  await expectAccessible(page);
});

test('this machine plays the demo timeline through the page, and its verdicts and the pick can be read', async ({ page }) => {
  await page.goto(sheet);
  await expect(page.getByTestId('making')).toBeHidden();
  await expect(page.getByText('Bare run: every aid off.')).toBeVisible();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.getByTestId('now-playing')).toContainText('of 600 slots');
  await expect(page.getByTestId('running')).toContainText('This machine');

  // The page can go and come back; the play goes on.
  await page.waitForTimeout(3000);
  await page.reload();
  await expect(page.getByTestId('now-playing')).toContainText('of 600 slots');
  await expect(page.getByTestId('now-playing')).toBeHidden();

  for (let number = 1; number <= 8; number++) await expect(cell(page, number, 'This machine')).toContainText(verdict);
  await expect(page.getByTestId('pick')).toContainText(/^Recommended: /);
  await expect(page.getByText('Next on this machine:')).toBeVisible();

  const run = await (await page.request.get('/api/runs')).json();
  expect(run[0]).toMatchObject({ machineName: 'This machine', ending: 'finished', slots: 600 });
});

test('a stand-in plays through the page at half scale, and the address keeps the scale', async ({ page }) => {
  await page.goto(sheet);
  await page.locator('h1').click();
  await page.keyboard.press('p');
  await expect(page).toHaveURL(/scale=half/);
  await expect(page.getByText('Not bare: half scale.')).toBeVisible();
  await page.getByRole('button', { name: 'Play on Gannet tower' }).click();
  await expect(cell(page, 1, 'Gannet tower')).toContainText(verdict);
  await page.reload();
  await expect(cell(page, 1, 'Gannet tower')).toContainText(verdict);
});

test('a cell opens in full by keyboard, its comb answers the arrow keys, and Escape closes it', async ({ page }) => {
  await page.goto(sheet);
  await cell(page, 1, 'Curlew desk').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowRight');
  await expect(cell(page, 2, 'Gannet tower')).toBeFocused();
  await page.keyboard.press('Enter');
  const detail = page.getByTestId('detail');
  await expect(detail).toContainText('Gannet tower');
  await expect(detail.getByRole('slider', { name: 'Frame' })).toBeFocused();
  await expect(detail.getByText('Processor', { exact: true })).toBeVisible();

  const comb = detail.getByRole('slider', { name: 'Frame' });
  await comb.focus();
  const first = await comb.getAttribute('aria-valuenow');
  await page.keyboard.press('ArrowRight');
  expect(Number(await comb.getAttribute('aria-valuenow'))).toBe(Number(first) + 1);
  await expect(comb).toHaveAttribute('aria-valuetext', /00:00:03:01/);
  await expectAccessible(page);

  await page.keyboard.press('Escape');
  await expect(detail).toBeHidden();
  await expect(cell(page, 2, 'Gannet tower')).toBeFocused();
});

test('Space plays with a cell in focus and when a machine was just chosen; an aided run is shown in its column until the bare one is picked', async ({ page }) => {
  await page.goto(sheet);
  await page.locator('[data-plays] select').first().selectOption('Curlew desk');
  await page.getByRole('button', { name: 'Conditions' }).click();
  await page.getByTestId('conditions').getByLabel(/^\s*proxies/).selectOption('half the raster');
  await expect(page.getByTestId('about-to')).toContainText('half-raster proxies');
  // Only these: at the start stand-ins go on playing by themselves.
  const ids = async () =>
    (await (await page.request.get('/api/runs')).json())
      .filter((run: { machineId: string; differences: string[] }) => run.machineId === 'curlew-desk' && run.differences.includes('half-raster proxies'))
      .map((run: { id: number }) => run.id);
  const before = (await ids()).length;
  await page.locator('[data-plays] select').first().focus();
  await page.keyboard.press('Space');
  const picker = page.getByLabel('Run shown for Curlew desk');
  await expect(picker.getByRole('option', { name: /half-raster proxies/ })).toBeAttached();
  await expect(picker).toHaveValue(/^\d+$/);
  expect((await ids()).length).toBe(before + 1);

  await cell(page, 1, 'Curlew desk').focus();
  await page.keyboard.press('Space');
  await expect.poll(async () => (await ids()).length).toBe(before + 2);
  await expect(page.getByTestId('detail')).toBeHidden();

  const [newest] = await ids();
  await expect(page).toHaveURL(new RegExp(`run=${newest}`));
  await cell(page, 1, 'Curlew desk').click();
  await expect(page.getByTestId('detail')).toContainText(`run ${newest}`);
  await picker.selectOption('');
  await expect(page).not.toHaveURL(/run=/);
});

test('a column plays through whatever trial is chosen, and what plays is named', async ({ page }) => {
  await page.goto(sheet);
  await page.getByLabel('trial').selectOption('repeat');
  await page.getByRole('button', { name: 'Play on Gannet tower' }).click();
  await expect.poll(async () => (await (await page.request.get('/api/trials')).json())[0].kind).toBe('play');
});

test('a new timeline says that the stand-ins play it, and then shows their columns', async ({ page }) => {
  const touring = (await (await page.request.get('/api/timelines/touring-night')).json()).timeline;
  const timeline = { ...touring, passages: touring.passages.slice(0, 2) };
  await page.request.post('/api/timelines', { data: { title: 'Matinee', copyOf: timeline } });
  await page.route('**/api/timelines/matinee/advice', async (route) => {
    await new Promise((then) => setTimeout(then, 500));
    await route.continue();
  });
  await page.goto('/timelines/matinee');
  await expect(page.getByTestId('stand-ins')).toContainText('playing it now, simulated');
  for (const machine of ['Curlew desk', 'Gannet tower']) await expect(cell(page, 1, machine)).toContainText(verdict);
  await expect(page.getByTestId('stand-ins')).toBeHidden();
});

test('the legend can be hidden and shown again, and an address of no cell says so', async ({ page }) => {
  await page.goto(`${sheet}?cell=curlew-desk:99`);
  await expect(page.getByTestId('unknown-cell')).toContainText('no result of passage 99 on “Curlew desk”');
  await page.getByTestId('legend').getByRole('button', { name: 'Hide' }).click();
  await page.reload();
  await expect(page.getByTestId('sheet')).toBeVisible();
  await expect(page.getByTestId('legend')).toBeHidden();
  await page.getByRole('button', { name: 'How to read this' }).click();
  await page.getByTestId('legend').getByRole('link', { name: 'Glossary' }).click();
  await expect(page.getByTestId('glossary')).toContainText('At most 0.5 % of the slots missed');
  await expectAccessible(page);
});

test('on a narrow screen pages scroll downwards only, and a panel lies over the page', async ({ page }) => {
  await page.setViewportSize({ width: 420, height: 800 });
  for (const path of ['/timelines', '/machines', '/footage', '/trials', '/runs', '/advice', '/glossary', sheet, `${sheet}/passages`]) {
    await page.goto(path);
    await page.waitForLoadState('networkidle');
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(420);
  }
  await page.goto(`${sheet}?cell=curlew-desk:1`);
  const box = await page.getByTestId('detail').boundingBox();
  expect([box?.x, box?.width]).toEqual([0, 420]);
  await page.getByTestId('detail').getByRole('button', { name: /^Close/ }).click();
  await expect(page.getByTestId('detail')).toBeHidden();
});

test('what is printed has no buttons and is cut nowhere', async ({ page }) => {
  await page.goto(`${sheet}?cell=curlew-desk:1`);
  await expect(page.getByTestId('detail')).toContainText('Processor');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: /^Play/ })).toHaveCount(0);
  await expect(page.getByTestId('detail').locator('canvas').last()).toBeVisible();
  const cut = await page.evaluate(() =>
    [...document.querySelectorAll('main, main div, main aside, main section')]
      .filter((one) => !one.closest('.uplot') && getComputedStyle(one).overflowY !== 'visible').map((one) => one.className));
  expect(cut).toEqual([]);
});

test('what is printed keeps what every table says', async ({ page, request }) => {
  // The inner text leaves out what is not displayed. Actions and fields in a row are not printed.
  const actions = /^(Restore|Delete|Remove|remove|delete|Add .*|in step|use as baseline.*|—)$/;
  const texts = () => page.locator('main :is(th, td):not(:has(input, select))').evaluateAll((cells) => (cells as HTMLElement[]).map((one) => one.innerText.trim()));
  const [run] = (await (await request.get('/api/runs')).json()) as { id: number }[];
  const pages = [sheet, '/footage', '/programs', '/advice', '/advice/parts', '/runs', `/runs/${run.id}`, '/trials', '/compare/grid?timeline=touring-night', '/deleted'];
  const [trial] = (await (await request.get('/api/trials')).json()) as { id: number }[];
  for (const path of [...pages, ...(trial ? [`/trials/${trial.id}`] : [])]) {
    await page.emulateMedia({ media: 'screen' });
    await page.goto(path);
    if (path !== '/deleted' && path !== '/trials') await expect(page.locator('main td').first()).toBeVisible();
    await expect(page.getByText('Reading…')).toBeHidden();
    const shown = await texts();
    await page.emulateMedia({ media: 'print' });
    const printed = await texts();
    expect(shown.filter((text, at) => text && !printed[at] && !actions.test(text)), path).toEqual([]);
  }
});

test('the advice names the pick and why not the others', async ({ page }) => {
  await page.goto('/advice?timeline=touring-night');
  await expect(page.getByTestId('advice-pick')).toContainText('Recommended: ');
  // Every other machine of the shelf has its row.
  await expect(page.getByRole('row').nth(20)).toBeVisible();
  await expectAccessible(page);
});

for (const [name, path] of [['machines', '/machines'], ['runs', '/runs'], ['sheet', sheet]]) {
  test(`the ${name} page is accessible in both themes`, async ({ page }) => {
    await page.goto(path);
    // A hundred lines are looked at one by one, and say no more than a few.
    if (name === 'runs') await page.getByLabel('Show only runs with').fill('curlew');
    await page.waitForLoadState('networkidle');
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Dark' }).click();
    await expectAccessible(page, 'color-contrast');
  });
}

test('what is drawn is drawn anew in the other theme', async ({ page }) => {
  await page.goto(`${sheet}?cell=curlew-desk:1`);
  await expect(page.getByTestId('detail')).toContainText('Processor');
  const drawn = () => page.locator('canvas').evaluateAll((all) => all.map((one) => (one as HTMLCanvasElement).toDataURL()));
  await expect.poll(async () => (await drawn()).length).toBeGreaterThan(10);
  const light = await drawn();
  await page.getByRole('button', { name: 'Dark' }).click();
  await expect.poll(async () => (await drawn()).filter((one) => light.includes(one)).length).toBe(0);
});

test('what is not there is said in words, with a way on', async ({ page }) => {
  await page.goto('/timelines/nope');
  await expect(page.getByRole('alert')).toContainText("There is no timeline 'nope'");
  await page.goto('/runs/999');
  await expect(page.getByRole('alert')).toContainText("There is no run '999'");
});

test('addresses of earlier versions lead to the pages of today', async ({ page }) => {
  await page.goto('/words');
  await expect(page.getByTestId('glossary')).toBeVisible();
  await page.goto('/timelines/touring-night/write');
  await expect(page).toHaveURL(/touring-night\/passages$/);
  await expect(page.getByTestId('rows')).toBeVisible();
});

test('the keys of each page are listed on ?', async ({ page }) => {
  await page.goto('/machines');
  await expect(page.getByTestId('machines')).toContainText('Curlew desk');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).not.toContainText('play, or stop what plays');
  await page.goto(sheet);
  await expect(page.getByTestId('sheet')).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('play, or stop what plays');
  await expectAccessible(page);
});

test('machine, trial and conditions stand in the address; a run under them is shown when it has ended', async ({ page }) => {
  await page.goto('/timelines/touring-night');
  await page.locator('[data-plays] select').first().selectOption('curlew-desk');
  await page.getByRole('button', { name: 'Conditions' }).click();
  const conditions = page.getByTestId('conditions');
  await conditions.getByLabel(/^\s*proxies/).selectOption('half the raster');
  await expect(conditions.getByLabel(/^\s*decode on/).getByRole('option')).toHaveText(['its media engine', 'processor only']);
  await expect(page).toHaveURL(/on=curlew-desk/);
  await expect(page).toHaveURL(/with=proxies/);

  await page.reload();
  await expect(page.getByTestId('about-to')).toContainText('Not bare: half-raster proxies.');
  await page.getByRole('button', { name: /^Play Space/ }).click();
  await expect(page).toHaveURL(/run=\d+/);
  await expect(page.getByLabel('Run shown for Curlew desk').locator('option:checked')).toContainText('half-raster proxies');
});

test('by keyboard: past the navigation, onto the sheet with an arrow; a page that is not there has ways on', async ({ page }) => {
  await page.goto('/timelines/touring-night');
  await expect(page.getByTestId('sheet')).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[data-cell]:focus')).toHaveCount(1);

  await page.reload();
  await expect(page.getByTestId('sheet')).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'Skip to the content' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.locator('main')).toBeFocused();

  await page.goto('/no/such/page');
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  await page.getByTestId('ways-on').getByRole('link', { name: 'Runs' }).click();
  await expect(page).toHaveURL(/\/runs$/);
});
