import type { Page } from '@playwright/test';
import type { Stack } from '../../bin/lib/stack.mjs';
import { expect, enter } from '../fixtures';

/** How each view is reached, by its name. */
export type Views = Record<string, (page: Page, stack: Stack) => Promise<void>>;

export async function openVisit(page: Page, stack: Stack, step: string, shown: string, whose = /Odalys Brandt/, visit = 2): Promise<void> {
  await enter(page, stack);
  await page.getByRole('link', { name: whose }).click();
  await page.getByRole('link', { name: `${step}, visit ${visit}` }).click();
  await expect(page.locator(shown).first()).toBeVisible();
}
