import type { Page } from '@playwright/test';
import type { Stack } from '../../bin/lib/stack.mjs';
import { expect, enter } from '../fixtures';
import type { Views } from './open';

/** Practice: what is due, a task of each exercise, a round of the class. */
export const PRACTICE_VIEWS: Views = {
  practice: async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/practice`);
    await expect(page.getByText('Do we read alike?')).toBeVisible();
  },
  'a reading to practise': async (page, stack) => {
    await openRound(page, stack, 'Read the goniometer');
    await page.getByLabel('It reads').fill('12');
    await page.getByLabel('It reads').press('Enter');
    await expect(page.getByRole('button', { name: 'Next task' })).toBeVisible();
  },
  'a placement to practise': async (page, stack) => {
    await openRound(page, stack, 'Place the goniometer');
    for (const part of ['axis', 'still arm', 'moving arm']) await page.getByRole('button', { name: `Lay the ${part}` }).click();
    await expect(page.getByText('All laid.')).toBeVisible();
  },
  'a side to practise': (page, stack) => openRound(page, stack, 'Their left, their right'),
  'an inclinometer to practise': (page, stack) => openRound(page, stack, 'Hold it in plane'),
  'an end to practise': (page, stack) => openRound(page, stack, 'End feel and substitution'),
  'three examiners to practise': (page, stack) => openRound(page, stack, 'Three examiners'),
  'a round of the class': async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/practice`);
    await page.getByRole('link', { name: 'Do we read alike?' }).click();
    await expect(page.getByText('How the class lies apart')).toBeVisible();
  },
};

async function openRound(page: Page, stack: Stack, name: string): Promise<void> {
  await enter(page, stack);
  await page.goto(`${stack.url}/practice`);
  await page.getByRole('button', { name: `Ten of these: ${name}` }).click();
  await expect(page.getByText('1 of 10')).toBeVisible();
}
