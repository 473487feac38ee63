import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Nothing by axe, in the theme that is on. */
export async function expectAccessible(page: Page) {
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((one) => `${one.id}: ${one.nodes.map((node) => node.target).join(', ')}`)).toEqual([]);
}
