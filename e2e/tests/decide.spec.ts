import { expect, signIn, test } from '../fixtures';

test.describe.configure({ mode: 'serial' });

const names = ['Decide, visit 2', 'Decide, visit 3'] as const;

test('the gardener: from what was found to a programme that is given, changed, and there at the next visit', async ({ page, stack }) => {
  await signIn(page, stack);
  await page.getByRole('link', { name: /Odalys Brandt/ }).click();
  await page.getByRole('link', { name: names[0] }).click();
  const drills = page.locator('ol[aria-label="Drills"] > li');
  await expect(page.getByText('nothing given yet')).toBeVisible();
  // The stiff hips ask for range; nothing more than there are minutes for.
  await expect(page.locator('.needs')).toContainText('Left hip extension');
  await expect(page.locator('.bar')).toContainText(/^\s*[\d.]+ of 15 min a day\s*$/);
  expect(await drills.count()).toBeLessThanOrEqual(5);

  // Fewer minutes propose fewer; by keyboard.
  await page.locator('.choices summary').press('Enter');
  await page.getByLabel('minutes a day').fill('6');
  await page.getByLabel('minutes a day').press('Enter');
  await expect(page.locator('.bar')).toContainText('of 6 min a day');
  const first = drills.first();
  const name = await first.locator('.name strong').innerText();
  await first.getByLabel(`times of ${name}`).fill('5');
  await first.getByLabel(`times of ${name}`).press('Enter');

  // What is put together is there after a reload, and nothing is given before it is given.
  await page.reload();
  await expect(drills.first().getByLabel(`times of ${name}`)).toHaveValue('5');
  await expect(page.getByText('nothing given yet')).toBeVisible();
  await page.getByRole('button', { name: 'Give this programme' }).click();
  await expect(page.getByText('by Wren Calloway').first()).toBeVisible();
  await page.getByLabel('Note').fill('sore after gardening: less');
  await page.getByLabel('Note').press('Tab');
  await page.getByRole('button', { name: 'Give it as changed' }).click();
  await expect(page.getByText('given, change 2')).toBeVisible();
  await page.reload();
  await expect(page.getByText('given, change 2')).toBeVisible();
  await expect(page.getByLabel('Note')).toHaveValue('sore after gardening: less');

  // At the next visit it stands as what was given before.
  await page.getByRole('link', { name: 'Odalys Brandt' }).click();
  await page.getByRole('button', { name: /Start visit/ }).click();
  await expect(page.getByRole('heading', { name: 'Why they came' })).toBeVisible();
  await page.getByRole('link', { name: 'Decide' }).click();
  await page.getByText('Given before, Wren Calloway').click();
  await expect(page.locator('.program')).toContainText(name);
  await expect(page.getByText('Nothing that was judged asks for a drill.')).toBeVisible();
});
