import type { Page } from '@playwright/test';
import { expect, enter, test } from '../fixtures';

/** Whose side is marked, told as somebody tells it who has learned it: face up from the feet it is the other hand, each turn changes it over. */
async function theirSide(page: Page): Promise<'left' | 'right'> {
  const told = await page.locator('dg-side-task').innerText();
  const lies = /Now they are ([^.]+?), (seen from|facing)/.exec(told)![1]!;
  if (/^on the (left|right) side/.test(lies)) {
    const under = /left/.test(lies) ? 'left' : 'right';
    const other = under === 'left' ? 'right' : 'left';
    return /the side that is on the table/.test(told) ? under : other;
  }
  const isFaceDown = /prone|hands and knees/.test(lies);
  const isFromHead = /seen from (the head|behind)/.test(told);
  const marked = /on your left/.test(told) ? 'left' : 'right';
  if (isFaceDown !== isFromHead) return marked;
  return marked === 'left' ? 'right' : 'left';
}

test('a round of sides: one told wrong is scored as the other side, comes back, and is there after a reload', async ({ page, stack }) => {
  await enter(page, stack);
  await page.getByRole('link', { name: 'Practice' }).click();
  await page.getByRole('button', { name: 'Ten of these: Their left, their right' }).click();
  for (let task = 1; task <= 10; task += 1) {
    await expect(page.getByText(`${task} of 10`)).toBeVisible();
    const right = await theirSide(page);
    const wrong = right === 'left' ? 'right' : 'left';
    if (task === 1) {
      await page.getByRole('button', { name: `their ${wrong}` }).click();
      await expect(page.locator('.verdict')).toContainText('wrong · the other side');
      await expect(page.locator('.verdict')).toContainText(`It is their ${right} side`);
      await page.reload();
      // What was answered stays answered: the round goes on with the next.
      await expect(page.getByText('2 of 10')).toBeVisible();
      continue;
    }
    await page.keyboard.press(right.charAt(0));
    await expect(page.locator('.verdict')).toContainText('right');
    await expect(page.getByRole('button', { name: task === 10 ? 'What it comes to' : 'Next task' })).toBeFocused();
    await page.keyboard.press('Enter');
  }
  await expect(page.getByRole('heading', { name: '9 of 10 right' })).toBeVisible();
  await expect(page.locator('.together')).toContainText('1 × the other side');
  await page.getByRole('link', { name: 'All practice' }).first().click();
  await expect(page.locator('.exercises li', { hasText: 'Their left, their right' })).toContainText('the other side, 3 ×');
});

test('a class reads the same goniometers: blind until one is done, then side by side, and a study of it that is never judged by', async ({
  page,
  stack,
  browser,
}) => {
  const readAll = async (on: Page) => {
    for (let task = 1; task <= 10; task += 1) {
      await expect(on.getByText(`${task} of 10`)).toBeVisible();
      await on.getByLabel('It reads').fill(String(20 + 10 * task));
      await on.keyboard.press('Enter');
      await expect(on.locator('.verdict')).toContainText('It reads');
      await on.keyboard.press('Enter');
    }
    await expect(on.getByText('How the class lies apart')).toBeVisible();
  };
  await enter(page, stack);
  await page.goto(`${stack.url}/practice`);
  await page.getByLabel('Name of the round').fill('Two at one bench');
  // A reload loses nothing of what was typed.
  await page.reload();
  await expect(page.getByLabel('Name of the round')).toHaveValue('Two at one bench');
  await page.getByRole('button', { name: 'Start it for the class' }).click();
  await readAll(page);
  await expect(page.getByText('You are the only one who has finished it so far.')).toBeVisible();
  const address = page.url();

  const other = await browser.newPage();
  await enter(other, stack, { email: 'rook@saltmarsh.example', password: 'tide-and-table' });
  await other.goto(`${stack.url}/practice`);
  await other.getByRole('link', { name: 'Two at one bench' }).click();
  await readAll(other);
  await expect(other.locator('dg-spread-table')).toContainText('Wren Calloway');
  await other.close();

  await page.goto(address);
  await page.getByLabel('As which measurement').selectOption({ label: 'Knee flexion, supine' });
  await page.getByRole('button', { name: 'Make the study' }).click();
  await expect(page.getByText('Practice: read off figures, not off people.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Judge by this error' })).toHaveCount(0);
});
