// Draws the pictures of docs/screenshots from a running server with demo data: node screenshots.mjs [address] [folder]
import { chromium } from '@playwright/test';
import { mkdirSync } from 'node:fs';

const [address = 'http://127.0.0.1:5240', folder = '../../docs/screenshots'] = process.argv.slice(2);
const views = [
  ['sheet', '/timelines/touring-night'],
  ['passage', '/timelines/touring-night?cell=gannet-tower:5'],
  ['write', '/timelines/touring-night/write', '[data-row="1"]'],
  ['timelines', '/timelines'],
  ['machines', '/machines'],
  ['footage', '/footage', 'text=uhd-hevc-25'],
  ['runs', '/runs'],
  ['advice', '/advice']
];

mkdirSync(folder, { recursive: true });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
for (const [name, path, first] of views) {
  await page.goto(address + path);
  await page.waitForLoadState('networkidle');
  // The processor of the machine that draws the pictures is nobody's business.
  await page.locator('[data-fact="processor"]').first().evaluateAll((cells) => cells.forEach((cell) => (cell.textContent = 'Workshop processor')));
  if (first) await page.locator(first).first().click();
  await page.waitForTimeout(600);
  await page.screenshot({ path: `${folder}/${name}.png` });
}
await browser.close();
