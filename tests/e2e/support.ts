import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Nothing by axe, in the theme that is on.
 * @param only Only this rule: of one page in two themes nothing else differs than contrast. */
export async function expectAccessible(page: Page, only?: 'color-contrast') {
  // Colours that still change from one theme to the other have no contrast to be measured.
  await page.evaluate(() => Promise.all(document.getAnimations().filter((one) => Number.isFinite(one.effect?.getComputedTiming().endTime)).map((one) => one.finished.catch(() => null))));
  const axe = new AxeBuilder({ page });
  const { violations } = await (only ? axe.withRules(only) : axe).analyze();
  expect(violations.map((one) => `${one.id}: ${one.nodes.map((node) => node.target).join(', ')}`)).toEqual([]);
}
