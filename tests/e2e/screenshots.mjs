// Draws the pictures of docs/screenshots from a running server with demo data: node screenshots.mjs [address] [folder]
import { chromium } from '@playwright/test';
import { mkdirSync } from 'node:fs';

const [address = 'http://127.0.0.1:5240', folder = '../../docs/screenshots'] = process.argv.slice(2);

/** Asks a trial and waits for its answer. */
async function trial(kind, machineId) {
  const body = JSON.stringify({ timelineId: 'touring-night', machineId, trial: { kind } });
  const asked = await (await fetch(`${address}/api/play`, { method: 'POST', body, headers: { 'content-type': 'application/json' } })).json();
  for (;;) {
    await new Promise((done) => setTimeout(done, 300));
    const found = (await (await fetch(`${address}/api/trials/${asked.trialId}`)).json()).trial;
    if (!['waiting', 'playing'].includes(found.state)) return found.id;
  }
}

/** The newest plain run of each machine. */
async function newest(timeline, ...machines) {
  const runs = await (await fetch(`${address}/api/runs`)).json();
  return machines.map((id) => runs.find((run) => (run.machineId === id || run.machineName === id) && run.timelineId === timeline && !run.byHand && run.differences.length === 0).id);
}

const views = [
  ['sheet', '/timelines/touring-night'],
  ['passage', '/timelines/touring-night?cell=gannet-tower:5'],
  ['edit', '/timelines/touring-night/passages', '[data-row="1"]'],
  ['timelines', '/timelines'],
  ['machines', '/machines?id=whimbrel-laptop'],
  ['programs', '/programs'],
  ['footage', '/footage', 'text=hd-avc-25'],
  ['conditions', '/timelines/touring-night', 'text=Conditions'],
  ['trial', `/trials/${await trial('stepDown', 'sandpiper-slate')}`],
  ['trials', '/trials'],
  ['runs', '/runs'],
  ['run', `/runs/${(await (await fetch(`${address}/api/runs`)).json()).find((run) => run.machineName === 'This machine').id}`],
  ['compare', `/compare?${(await newest('touring-night', 'sandpiper-slate', 'curlew-desk', 'This machine')).map((run) => `run=${run}`).join('&')}&passage=5`],
  ['axis', `/compare?${(await newest('closing-gala', 'knot-tower-mechanical', 'knot-tower-sata', 'knot-tower-nvme', 'knot-tower-array')).map((run) => `run=${run}`).join('&')}`],
  ['grid', '/compare/grid?timeline=closing-gala&by=share&sort=4'],
  ['advice', '/advice'],
  ['glossary', '/glossary'],
  ['measured', '/machines'],
  ['deleted', '/deleted']
];

/** The machine that draws the pictures is nobody's business: its processor, kernel and drives get other names. */
function hideMachine() {
  for (const cell of document.querySelectorAll('[data-fact="processor"]')) cell.textContent = 'Workshop processor';
  const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (texts.nextNode()) {
    const text = texts.currentNode;
    text.nodeValue = text.nodeValue.replace(/\b\d+\.\d+\.\d+-[\w.+-]*[a-z][\w.+-]*/g, '6.12').replace(/\bvd[a-z]\b/g, 'drive 1');
  }
}

mkdirSync(folder, { recursive: true });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox', '--disable-gpu'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
for (const [name, path, first] of views) {
  // Something to restore.
  if (name === 'deleted') for (const thing of ['machines/stint-laptop', 'programs/gantry']) await fetch(`${address}/api/${thing}`, { method: 'DELETE' });
  await page.goto(address + path);
  await page.waitForLoadState('networkidle');
  if (first) await page.locator(first).first().click();
  await page.waitForTimeout(600);
  await page.evaluate(hideMachine);
  await page.screenshot({ path: `${folder}/${name}.png` });
}
await browser.close();
