import { readFileSync } from 'node:fs';
import { expect, enter, test } from '../fixtures';

test.describe.configure({ mode: 'serial' });

const names = ['Decide, visit 2', 'Decide, visit 3'] as const;

test('the gardener: from what was found to a programme that is given, changed, and there at the next visit', async ({ page, stack }) => {
  await enter(page, stack);
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

test('a drill of the clinic’s own: written like another, given, and changed without changing what was given', async ({ page, stack }) => {
  await enter(page, stack);
  await page.getByRole('link', { name: 'Drills' }).click();
  await page.getByLabel('Search drills').fill('hip extension kneel');
  const shipped = page.locator('details').first();
  await shipped.locator('summary').press('Enter');
  await shipped.getByRole('link', { name: 'Write one like it' }).press('Enter');

  await test.step('what is half written is there after a reload; what is missing is named', async () => {
    await page.getByLabel('Third cue').fill('Breathe out and wait.');
    await page.getByRole('button', { name: 'a pillow' }).press('Space');
    await page.reload();
    await expect(page.getByLabel('Third cue')).toHaveValue('Breathe out and wait.');
    await page.getByRole('button', { name: 'Keep this drill' }).press('Enter');
    await expect(page.getByRole('alert')).toContainText('Name: ');
    await page.getByLabel('Name').fill('Kneel by the raised bed');
    await page.getByLabel('Name').press('Enter');
    await expect(page.getByText(/^\d+ that ship, 1 of this clinic$/)).toBeVisible();
  });

  await test.step('a file with a bad row brings in nothing, and says which', async () => {
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Our own as CSV' }).click()]);
    const csv = readFileSync(await download.path(), 'utf8')
      .replaceAll('own-kneel-by-the-raised-bed', 'own-other')
      .replaceAll('Kneel by the raised bed', 'Another');
    const file = (text: string) => ({ name: 'ours.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
    await page.getByLabel('CSV file of drills').setInputFiles(file(csv.replace(/lengthen|mobilise/, 'bounce')));
    await expect(page.getByRole('alert')).toContainText('line 2, stage "bounce" is not known; allowed: free, mobilise');
    await expect(page.getByText(/^\d+ that ship, 1 of this clinic$/)).toBeVisible();
    await page.getByLabel('CSV file of drills').setInputFiles(file(csv));
    await expect(page.getByText('ours.csv: 1 new or changed, 0 there already.')).toBeVisible();
  });

  const drills = page.locator('ol[aria-label="Drills"]');
  await test.step('it is given like any other', async () => {
    await page.goto(`${stack.url}/caseload`);
    await page.getByRole('link', { name: /Odalys Brandt/ }).click();
    await page.getByRole('link', { name: names[0] }).click();
    await drills
      .getByRole('button', { name: /^Leave out/ })
      .first()
      .click();
    await page.getByRole('combobox', { name: /^Add/ }).selectOption({ label: 'Kneel by the raised bed (lengthen)' });
    await page.getByRole('button', { name: 'Give it as changed' }).click();
    await expect(page.getByText('given, change 3')).toBeVisible();
    await expect(page.getByText('sending …')).toBeHidden();
  });

  await test.step('changed, and taken out of use, what was given still says what it said', async () => {
    await page.goto(`${stack.url}/drills/own-kneel-by-the-raised-bed`);
    await page.getByLabel('Third cue').fill('Lean back a little.');
    await page.getByRole('button', { name: 'Keep as version 2' }).click();
    await page.getByRole('button', { name: 'our own', exact: true }).click();
    await page.getByText('Kneel by the raised bed').click();
    await expect(page.getByText('Lean back a little.')).toBeVisible();
    await page.getByRole('button', { name: 'Take out of use: Kneel by the raised bed' }).click();
    await expect(page.getByText('Kneel by the raised bed is given no more.')).toBeVisible();
    await page.goto(`${stack.url}/caseload`);
    await page.getByRole('link', { name: /Odalys Brandt/ }).click();
    await page.getByRole('link', { name: names[0] }).click();
    await expect(drills).toContainText('Breathe out and wait.');
    await page.getByRole('link', { name: 'Report', exact: true }).click();
    await page.getByRole('button', { name: 'the patient' }).click();
    await expect(page.getByText('Breathe out and wait.')).toBeVisible();
  });
});
