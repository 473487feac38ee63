import { expect, test, type Page } from '@playwright/test';
import { expectAccessible } from './support';
import { readFileSync } from 'node:fs';

const rows = (page: Page) => page.getByTestId('rows').getByRole('option');
const row = (page: Page, number: number, words: string) => page.getByRole('option', { name: new RegExp(`^Passage\\s+${number}\\s*:\\s+${words}`) });
const kept = (page: Page) => expect(page.getByTestId('keeping')).toHaveText('saved');

/** Goes forward with the Tab key until the focus is on something of that name. */
async function tabTo(page: Page, label: string | RegExp) {
  for (let i = 0; i < 60; i++) {
    await page.keyboard.press('Tab');
    const name = await page.evaluate(() => {
      const at = document.activeElement as HTMLInputElement | null;
      return at?.getAttribute('aria-label') ?? at?.labels?.[0]?.textContent?.trim() ?? at?.textContent?.trim() ?? '';
    });
    if (typeof label === 'string' ? name.startsWith(label) : label.test(name)) return;
  }
  throw new Error(`Tab never comes to ${label}.`);
}

test('a clip is made, measured against what was asked, and its facts are told', async ({ page }) => {
  await page.goto('/footage');
  await expect(page.getByTestId('making')).toBeHidden();
  const row = page.getByRole('row', { name: /hd-avc-25-gop12/ });
  await expect(row).toContainText('not created');
  await row.getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Create 1 clip' }).click();
  await expect(row.getByText('created', { exact: true })).toBeVisible();
  await expect(row).toContainText('High, level 3');

  await page.getByRole('button', { name: 'hd-avc-25-gop12' }).click();
  await expect(page.getByTestId('facts')).toContainText('6.5 frames on average, 12 at worst');
  await expectAccessible(page);

  // A new timeline takes raster and rate from it. The passage is added once, however often the page is read.
  await page.getByRole('button', { name: 'sd-avc-25', exact: true }).click();
  await page.getByLabel('Use in a timeline').selectOption('a new timeline');
  await expect(rows(page)).toHaveCount(1);
  await kept(page);
  await page.reload();
  await expect(rows(page)).toHaveCount(1);
  await expect(page.getByLabel('Width')).toHaveValue('240');
  await rows(page).first().click();
  await expect(page.getByLabel('Clip of layer 1')).toHaveValue('sd-avc-25');
});

test('three passages are written by keyboard alone, all undone, all redone, and kept', async ({ page }) => {
  await page.goto('/timelines');
  await expect(page.getByTestId('timelines')).toContainText('Touring night');
  await tabTo(page, 'Title of a new timeline');
  await page.keyboard.type('Night train');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/night-train\/passages/);
  await expect(page.getByText('No passages yet.')).toBeVisible();

  await page.keyboard.press('n');
  await expect(row(page, 1, 'New passage')).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.type('bare');
  await page.keyboard.press('Enter');
  await expect(row(page, 1, 'bare')).toBeFocused();

  await page.keyboard.press('d');
  await expect(row(page, 2, 'bare')).toBeFocused();
  await tabTo(page, 'An effect to add to layer 1');
  await page.keyboard.type('sharpen');
  await page.keyboard.press('Enter');
  await tabTo(page, 'Add a layer');
  await page.keyboard.press('d');
  await expect(rows(page)).toHaveCount(3);
  await page.keyboard.press('[');
  await page.keyboard.press('x');
  await page.keyboard.press('u');
  await expect(rows(page)).toHaveCount(3);
  await kept(page);
  const written = (await (await page.request.get('/api/timelines/night-train')).json()).timeline;
  expect(written.passages).toHaveLength(3);
  expect(written.passages[0].question).toBe('bare');
  expect(written.passages.map((passage: { layers: { effects: { id: string }[] }[] }) => passage.layers[0].effects.map((effect) => effect.id))).toEqual([[], ['sharpen'], ['sharpen']]);

  while (await page.getByRole('button', { name: /^Undo/ }).isEnabled()) await page.keyboard.press('u');
  await expect(rows(page)).toHaveCount(0);
  await kept(page);
  expect((await (await page.request.get('/api/timelines/night-train')).json()).timeline.passages).toEqual([]);
  // The deletion that was undone is a step of its own and comes last.
  for (let n = 0; n < 12 && JSON.stringify(await stored(page)) !== JSON.stringify(written.passages); n++) {
    await page.keyboard.press('Shift+U');
    await kept(page);
  }
  expect(await stored(page)).toEqual(written.passages);
  await expectAccessible(page);
});

const stored = async (page: Page) => (await (await page.request.get('/api/timelines/night-train')).json()).timeline.passages;

test('a timeline of another program is brought in, relinked and taken out as expected', async ({ page }) => {
  await page.goto('/timelines');
  await page.getByLabel('An .otio or .edl file, or a pack').setInputFiles('evening.otio');
  await expect(page).toHaveURL(/evening\/passages/);
  await expect(rows(page)).toHaveCount(2);
  const open = page.getByTestId('relink');
  await expect(open).toContainText('No clip is called balcony camera');
  await expect(row(page, 2, 'balcony camera\\s*, cannot be played')).toBeVisible();
  await open.getByRole('combobox').selectOption('hd-avc-120');
  await expect(open.getByRole('combobox')).toHaveCount(0);
  await kept(page);

  const exported = await (await page.request.get('/api/timelines/evening/export?format=otio')).text();
  expect(JSON.parse(exported)).toEqual(JSON.parse(readFileSync('evening.expected.otio', 'utf8')));
});

test('an edit decision list asks for its rate, and says what it could not carry on the way out', async ({ page }) => {
  await page.goto('/timelines');
  const list = 'TITLE: HARBOUR\nFCM: DROP FRAME\n\n001  REEL01   V     C        01:00:10;00 01:00:12;00 01:00:00;00 01:00:02;00\n* FROM CLIP NAME: hd-avc-25\n';
  await page.getByLabel('An .otio or .edl file, or a pack').setInputFiles({ name: 'harbour.edl', mimeType: 'text/plain', buffer: Buffer.from(list) });
  const asked = page.getByTestId('rate-asked');
  await expect(asked).toContainText('drop-frame');
  await expect(asked.getByRole('combobox')).toHaveValue('30000/1001');
  await expect(asked.getByRole('combobox')).toBeFocused();
  await asked.getByRole('combobox').selectOption('60000/1001');
  await asked.getByRole('button', { name: 'Import' }).click();
  await expect(page).toHaveURL(/harbour\/passages/);
  expect((await (await page.request.get('/api/timelines/harbour')).json()).timeline.rate).toEqual({ numerator: 60000, denominator: 1001 });

  await row(page, 1, '').click();
  await tabTo(page, 'An effect to add to layer 1');
  await page.keyboard.type('sharpen');
  await page.keyboard.press('Enter');
  await kept(page);
  await page.getByRole('button', { name: 'edl' }).click();
  await expect(page.getByTestId('not-carried')).toContainText('the effect sharpen cannot be carried');
});

test('two pages that write at once are told, and nobody’s work is lost', async ({ browser }) => {
  const [one, other] = [await browser.newPage(), await browser.newPage()];
  for (const page of [one, other]) {
    await page.goto('/timelines/evening/passages');
    await expect(rows(page)).toHaveCount(2);
  }
  await one.getByLabel('Title', { exact: true }).fill('Evening, revised');
  await one.keyboard.press('Enter');
  await kept(one);
  await rows(other).first().click();
  await other.keyboard.press('d');
  await expect(other.getByRole('alert')).toContainText('Nothing was overwritten');
  await other.getByRole('button', { name: 'Save mine as a copy' }).click();
  await expect(other).toHaveURL(/evening-mine\/passages/);
  await expect(rows(other)).toHaveCount(3);
  await one.close();
  await other.close();
});

test('a series of two thousand passages opens and edits, and only what is in sight is drawn', async ({ page }) => {
  const passage = { question: 'bare', frameCount: 50, layers: [{ clipId: 'hd-avc-25', effects: [], startFrame: 0 }], over: [] };
  const timeline = { id: '', title: 'Long', raster: { width: 640, height: 360 }, rate: { numerator: 25, denominator: 1 }, passages: Array.from({ length: 2000 }, () => passage) };
  expect((await page.request.post('/api/timelines', { data: { title: 'Long', copyOf: timeline } })).ok()).toBe(true);

  await page.goto('/timelines/long/passages');
  await expect(rows(page).first()).toBeVisible();
  expect(await rows(page).count()).toBeLessThan(60);
  await rows(page).first().click();
  await page.keyboard.press('End');
  await expect(row(page, 2000, 'bare')).toBeFocused();
  await page.keyboard.press('d');
  await expect(row(page, 2001, 'bare')).toBeVisible();
  await kept(page);
});

test('rows are chosen both ways, a series is built in the order chosen, numbers are checked, effects can be off and layers translucent', async ({ page }) => {
  expect((await page.request.post('/api/timelines', { data: { title: 'Dress rehearsal' } })).ok()).toBe(true);
  await page.goto('/timelines/dress-rehearsal/passages');
  await expect(page.getByText('No passages yet.')).toBeVisible();
  await page.getByLabel('Width').fill('4');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('alert')).toContainText('From 16 to 16384.');
  await page.getByLabel('Width').fill('1280');
  await page.keyboard.press('Tab');
  await page.getByText('Description').click();
  await page.getByLabel('what it is for').fill('Lanterns, rehearsed in full light.');
  await page.keyboard.press('Tab');
  await kept(page);
  await page.keyboard.press('Escape');
  await page.getByRole('listbox', { name: 'Passages' }).focus();
  await page.keyboard.press('b');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('kind').selectOption('ladder');
  await dialog.getByLabel('Show only clips with').fill('50');
  await dialog.getByRole('checkbox', { name: 'hd-avc-50' }).check();
  await dialog.getByLabel('Show only clips with').fill('hd-avc-25');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Space');
  await expect(dialog.getByText('2 chosen')).toBeVisible();
  await dialog.getByLabel('seconds each').fill('');
  await page.keyboard.press('Tab');
  await expect(dialog.getByRole('alert')).toContainText('A number is wanted. It stays 5.');
  await dialog.getByLabel('seconds each').fill('2');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Build' }).click();
  await expect(rows(page)).toHaveCount(2);
  await kept(page);
  const clips = async () => (await (await page.request.get('/api/timelines/dress-rehearsal')).json()).timeline.passages.map((one: { layers: { clipId: string }[] }) => one.layers[0].clipId);
  expect((await clips())[0]).toBe('hd-avc-50');

  // After the whole series, not into it.
  await page.keyboard.press('n');
  await expect(row(page, 3, 'New passage')).toBeFocused();
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(page.getByRole('heading', { name: '3 passages' })).toBeVisible();
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByRole('heading', { name: '2 passages' })).toBeVisible();

  await page.keyboard.press('Home');
  await page.getByRole('button', { name: 'Add a layer' }).click();
  const opacity = page.getByLabel('opacity');
  await opacity.fill('150');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('alert')).toContainText('From 0 to 100. It stays 100.');
  await opacity.fill('40');
  await page.keyboard.press('Tab');
  for (const effect of ['sharpen', 'blur']) {
    await page.getByLabel('An effect to add to layer 1').selectOption(effect);
    await page.getByRole('button', { name: 'Add', exact: true }).first().click();
  }
  await page.getByRole('button', { name: 'Move blur earlier' }).click();
  await page.getByRole('checkbox', { name: 'on' }).first().uncheck();
  await kept(page);
  const [passage] = (await (await page.request.get('/api/timelines/dress-rehearsal')).json()).timeline.passages;
  expect(passage.layers[1].opacity).toBe(0.4);
  expect(passage.layers[0].effects.map((one: { id: string; isOff?: boolean }) => [one.id, !!one.isOff])).toEqual([['blur', true], ['sharpen', false]]);
  await expectAccessible(page);

  await page.goto('/timelines/dress-rehearsal');
  await expect(page.getByTestId('about')).toHaveText('Lanterns, rehearsed in full light.');
  await page.goBack();

  // Dragged to the very end.
  await rows(page).nth(0).dragTo(page.getByTestId('rows'), { targetPosition: { x: 200, y: 400 } });
  await kept(page);
  expect((await clips())[2]).toBe('hd-avc-50');
});

test('a file is brought in through the page, and a bad one is refused in words', async ({ page }) => {
  await page.goto('/footage');
  await page.getByLabel('Video files').setInputFiles({ name: 'notes.mp4', mimeType: 'video/mp4', buffer: Buffer.from('Act two begins at low tide.') });
  await expect(page.getByTestId('upload')).toContainText('could not be read as a clip');
});

test('a pack goes out and comes back through the page', async ({ page }) => {
  await page.goto('/timelines');
  const pack = await (await page.request.get('/api/packs/touring-night.zip')).body();
  await page.getByLabel('An .otio or .edl file, or a pack').setInputFiles({ name: 'touring.zip', mimeType: 'application/zip', buffer: pack });
  await expect(page.getByRole('link', { name: 'Touring night' })).toHaveCount(2);
});

test('a deleted timeline can be restored', async ({ page }) => {
  await page.goto('/timelines');
  await page.getByRole('button', { name: 'Delete Long' }).click();
  await expect(page.getByTestId('timelines')).not.toContainText('Long');
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByTestId('timelines')).toContainText('Long');
});
