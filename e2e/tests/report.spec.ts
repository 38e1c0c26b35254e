import { readFileSync } from 'node:fs';
import type { Download, Page } from '@playwright/test';
import { startStack, type Stack } from '../../bin/lib/stack.mjs';
import { readPdf } from '../../files/src/testing/pdf-text';
import { expect, enter, test } from '../fixtures';

test.use({ serviceWorkers: 'allow' });
test.describe.configure({ mode: 'serial' });

// A clinic of its own: elsewhere the ferry engineer comes again, with other limits.
let stack: Stack;
test.beforeAll(async () => {
  stack = await startStack();
});
test.afterAll(() => stack.stop());

const bytesOf = async (download: Download) => readFileSync(await download.path());

async function written(page: Page, name: string): Promise<{ fileName: string; bytes: Buffer }> {
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name, exact: true }).click()]);
  return { fileName: download.suggestedFilename(), bytes: await bytesOf(download) };
}

const day = (from: number) => new Date(Date.now() + from * 86_400_000);

test('the ferry engineer: signed, on paper for others, and followed at home on a telephone', async ({ page, browser }) => {
  await enter(page, stack);
  await page.getByRole('link', { name: /Corin Hathersage/ }).click();
  await page.getByRole('link', { name: 'Report, visit 8' }).click();

  await test.step('what nobody signed goes out as a draft', async () => {
    await expect(page.locator('dg-sheet')).toContainText('DRAFT, not signed');
    const { bytes } = await written(page, 'Write draft PDF');
    expect((await readPdf(bytes)).pages.join()).toContain('DRAFT, not signed');
  });

  await test.step('signed under Judge it goes out as signed, read back word by word', async () => {
    await page.getByRole('link', { name: 'Sign the visit under Judge' }).click();
    await page.getByRole('button', { name: 'Sign the visit' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Sign', exact: true }).click();
    await expect(page.locator('dg-summary')).toContainText('Signed by Wren Calloway');
    await page.getByRole('link', { name: 'Report', exact: true }).click();
    await expect(page.locator('dg-sheet')).toContainText('Signed by Wren Calloway on');
    await page.getByRole('button', { name: 'Letter' }).click();
    const { fileName, bytes } = await written(page, 'Write PDF');
    expect(fileName).toMatch(/^hathersage-\d{4}-\d\d-\d\d-referrer\.pdf$/);
    const { pages, size, outline, tags } = await readPdf(bytes);
    expect(size).toEqual([612, 792]);
    expect(pages.length).toBe(1);
    const text = pages[0]!.replace(/\s+/g, ' ');
    for (const row of await page.locator('dg-sheet tbody tr td:first-child').allInnerTexts()) expect(text).toContain(row.slice(0, 14));
    expect(text).toContain('Signed by Wren Calloway on');
    expect(text).not.toContain('DRAFT');
    expect(outline).toContain('Findings');
    expect(tags.has('Table')).toBe(true);
  });

  await test.step('a calendar for the recheck and the drills', async () => {
    const { bytes } = await written(page, 'Calendar');
    expect(bytes.toString()).toContain('SUMMARY:Recheck\\, Saltmarsh Lane Physiotherapy');
    expect(bytes.toString().match(/BEGIN:VEVENT/g)!.length).toBe(4);
  });

  await page.getByRole('button', { name: 'Make a page' }).click();
  const link = await page.locator('.made .link').innerText();
  const code = await page.locator('.made .code').innerText();
  const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, locale: 'en-GB', hasTouch: true, isMobile: true });
  const theirs = await phone.newPage();

  await test.step('opened on a telephone by link and code, and by nothing else', async () => {
    await theirs.clock.setFixedTime(day(-1));
    await theirs.goto(link);
    await theirs.getByLabel('Code').fill(code === '111111' ? '222222' : '111111');
    await theirs.getByRole('button', { name: 'Open my page' }).tap();
    await expect(theirs.getByRole('alert')).toContainText('The link or the code is not right');
    await theirs.getByLabel('Code').fill(code);
    await theirs.getByRole('button', { name: 'Open my page' }).tap();
    await expect(theirs.getByRole('heading', { name: 'Heel slide with a strap, left' })).toBeVisible();
    await expect(theirs.getByText('Bending your left knee: 55 degrees at first, 103 degrees now.')).toBeVisible();
  });

  const log = async (swelling: 'yes' | 'no', pain: string) => {
    await theirs.getByRole('button', { name: /^Done: Heel slide/ }).tap();
    await theirs.getByRole('button', { name: pain, exact: true }).tap();
    await theirs
      .getByRole('group', { name: /more swollen/ })
      .getByRole('button', { name: swelling })
      .tap();
    await theirs.getByRole('button', { name: /^Save this day/ }).tap();
  };
  const state = theirs.locator('.state');

  await test.step('a day is logged; the next one without a network, over a reload, and sent once when there is one', async () => {
    await log('no', '2');
    await expect(state).toHaveText('saved');
    await theirs.clock.setFixedTime(day(0));
    await theirs.reload();
    await expect(theirs.getByRole('heading', { name: 'Days before' })).toBeVisible();
    await expect.poll(() => theirs.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
    await expect
      .poll(() => theirs.evaluate(async () => (await (await caches.open('dial-gauge-own-page')).keys()).length))
      .toBeGreaterThan(5);
    await phone.setOffline(true);
    await log('no', '3');
    await expect(state).toHaveText('kept on this device, sent when there is a network');
    await theirs.reload();
    await expect(theirs.getByRole('heading', { name: 'Heel slide with a strap, left' })).toBeVisible();
    await expect(state).toHaveText('kept on this device, sent when there is a network');
    await phone.setOffline(false);
    await theirs.evaluate(() => dispatchEvent(new Event('online')));
    await expect(state).toHaveText('saved');
  });

  await test.step('it swells: the ladder steps down, on the telephone and in the record', async () => {
    await theirs.clock.setFixedTime(day(1));
    await theirs.reload();
    await expect(theirs.getByRole('button', { name: /^Done: Heel slide/ })).toHaveAttribute('aria-pressed', 'false');
    await log('yes', '4');
    await expect(theirs.getByText('Changed for you: more swelling the next morning: a step down.')).toBeVisible();
    await expect(theirs.getByRole('heading', { name: 'Heel slide, left' })).toBeVisible();
    await page.getByRole('link', { name: 'Progress' }).click();
    const logged = page.locator('dg-logged');
    await expect(logged).toContainText('Heel slide with a strap is now Heel slide on their page');
    await expect(logged.locator('tbody tr')).toHaveCount(3);
    await expect(logged.locator('tbody tr').first()).toContainText('more');
  });

  await test.step('closed by the clinic it is shut, and what was not sent is not lost', async () => {
    await page.getByRole('link', { name: 'Report', exact: true }).click();
    await page.getByRole('button', { name: /^Close it: the page of/ }).click();
    await expect(page.getByRole('button', { name: /^Close it: the page of/ })).toBeHidden();
    await theirs.reload();
    await expect(theirs.getByText('This page was closed.')).toBeVisible();
  });
  await phone.close();
});
