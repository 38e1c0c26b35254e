import type { Page } from '@playwright/test';
import { DEEPEST, landmarksOf, SIZE } from '../../bin/lib/drawn.mjs';
import { expect, enter, startVisit, test } from '../fixtures';

const marks = (page: Page) => page.locator('dg-look-over .marks li');

async function openClip(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'a drawn clip' }).click();
  await expect(page.locator('.transport')).toBeVisible();
}

async function goTo(page: Page, t: number): Promise<void> {
  await page.getByLabel('Moment', { exact: true }).fill(String(t));
  await expect(page.locator('.transport .figure')).toHaveText(`${t.toFixed(2)} s`);
}

test('a clip is looked over: marked, kept, sent as PDF and by link, taken over to the screen; its still is taken away again', async ({
  page,
  browser,
  stack,
}) => {
  await enter(page, stack);
  await startVisit(page, /Juniper Strake/, 'Knee');
  const visit = page.url().replace('/measure', '');
  await page.goto(`${visit}/picture?look=over`);

  await test.step('marks in the order of time, there again after a reload', async () => {
    await openClip(page);
    await goTo(page, 2.3);
    for (const name of ['shoulder', 'hip', 'knee', 'ankle'] as const) {
      const box = (await page.locator('dg-picture-stage svg').boundingBox())!;
      const [x, y] = landmarksOf(DEEPEST)[name];
      await page.mouse.click(box.x + (x / SIZE.width) * box.width, box.y + (y / SIZE.height) * box.height);
    }
    await page.getByLabel('Shows').selectOption({ label: 'Squat' });
    await page.getByLabel('What of it').selectOption({ label: 'heel lifts' });
    await page.getByLabel(/on the page stands/).selectOption({ index: 1 });
    await page.getByRole('button', { name: 'sure', exact: true }).click();
    await page.getByLabel('In words, as the sender reads them').fill('Your heels come up when you go deep.');
    await page.getByLabel(/with its still/).check();
    await page.getByRole('button', { name: 'Add the mark' }).click();
    await expect(page.getByText('The still is kept with the visit.')).toBeVisible();
    await goTo(page, 0.4);
    await page.getByRole('button', { name: 'goes well' }).click();
    await page.getByLabel('Shows').selectOption({ index: 0 });
    await page.getByLabel('In words, as the sender reads them').fill('You start tall and slow.');
    await page.getByRole('button', { name: 'Add the mark' }).click();
    await expect(marks(page)).toHaveText([/0\.4 s\s*goes well/, /2\.3 s\s*to work on\s*: Squat: heel lifts/]);
    await page.reload();
    await expect(marks(page)).toHaveCount(2);
    await openClip(page);
    await page.getByRole('button', { name: 'Go to 2.3 s' }).click();
    await expect(page.locator('.transport .figure')).toHaveText('2.30 s');
  });

  await test.step('to the screen, once', async () => {
    await page.getByRole('button', { name: 'Take over' }).click();
    await expect(page.getByRole('button', { name: 'Taken over' })).toBeDisabled();
    await page.goto(`${visit}/screen?screen=squatCheck&item=squat&view=side`);
    await expect(page.locator('dg-screen-sheet')).toContainText('heel lifts');
    await page.goto(`${visit}/picture?look=over`);
    await expect(page.getByRole('button', { name: 'Taken over' })).toBeDisabled();
  });

  await test.step('the page: strengths first; as PDF, and by the link to their own page', async () => {
    await page.getByLabel(/show it on their own page/).check();
    await page.getByRole('button', { name: 'Keep what is marked' }).click();
    await expect(page.getByText('Kept, version 1.')).toBeVisible();
    await page.getByRole('link', { name: 'See the page' }).click();
    const sheet = page.locator('dg-sheet');
    await expect(sheet).toContainText('What we saw in your clip');
    const words = await sheet.innerText();
    expect(words.indexOf('You start tall and slow.')).toBeLessThan(words.indexOf('heel lifts'));
    expect(words).toContain('Knee bend: about 112°, give or take');
    expect(words).toContain('For this we would need a clip from the front');
    await expect(sheet.locator('img')).toBeVisible();
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Write PDF' }).click()]);
    expect(file.suggestedFilename()).toMatch(/^strake-.*-clip\.pdf$/);
    await page.getByRole('button', { name: 'Make a page' }).click();
    const link = await page.locator('.made .link').innerText();
    const code = await page.locator('.made .code').innerText();
    const theirs = await browser.newPage({ viewport: { width: 390, height: 844 } });
    await theirs.goto(link);
    await theirs.getByLabel(/Code/).fill(code);
    await theirs.getByRole('button', { name: /Open/ }).click();
    await theirs.getByText('What we saw in your clip').click();
    await expect(theirs.getByText('You start tall and slow.')).toBeVisible();
    await expect(theirs.getByRole('img', { name: /A still of your clip/ })).toBeVisible();
    await theirs.close();
  });

  await test.step('a still taken away is gone from the page', async () => {
    await page.getByRole('link', { name: 'Back to the clip' }).click();
    await page.getByRole('button', { name: /^Take the still / }).click();
    await page.getByRole('button', { name: 'Yes, take it away for good' }).click();
    await expect(page.getByText('The still is gone.')).toBeVisible();
    await page.getByRole('button', { name: 'Keep what is marked' }).click();
    await page.getByRole('link', { name: 'See the page' }).click();
    await expect(page.locator('dg-sheet')).toContainText('What we saw in your clip');
    await expect(page.locator('dg-sheet img')).toHaveCount(0);
  });
});
