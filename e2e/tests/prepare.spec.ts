import type { Page } from '@playwright/test';
import { allSaved, entry, expect, hold, prepareVisit, enter, startMeasuring, startVisit, test, turn } from '../fixtures';

test.describe.configure({ mode: 'serial' });

const row = (page: Page, words: RegExp) => page.locator('dg-plan-list .row').filter({ hasText: words });

async function addPrecaution(page: Page, motion: string, limit: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a precaution' }).click();
  await page.getByLabel('Motion').fill(motion);
  await page.getByRole('option', { name: motion, exact: true }).click();
  await page.getByLabel(/^Not past/).fill(limit);
  await page.getByLabel('Until (not included)').fill('2099-12-31');
  await page.getByLabel('Set by').fill('surgeon, letter of 2 November');
  await page.getByRole('button', { name: 'Add precaution' }).click();
  await expect(page.locator('dg-precautions li').filter({ hasText: motion.toLowerCase() }).last()).toBeVisible();
}

test('a knee-replacement visit: limits, plan, two turns, a limit passed, and trouble on the way', async ({ page, stack, context }) => {
  await enter(page, stack);
  await prepareVisit(page, /Corin Hathersage/, 'Knee after replacement', 'Hip');

  await test.step('the plan leaves the forbidden out and stops at the limit', async () => {
    await addPrecaution(page, 'Knee flexion', '95');
    await addPrecaution(page, 'Knee extension strength', '');
    await addPrecaution(page, 'Hip abduction', '');
    await expect(row(page, /Knee flexion\s*passive/)).toContainText('left stops at 95°');
    const out = page.getByRole('region', { name: 'Left out' });
    await expect(out).toContainText('Left hip abduction, passive');
    await expect(out).toContainText('Left knee extension strength');
    await expect(out).toContainText('not to be measured (surgeon, letter of 2 November)');
    await expect(page.locator('.sums')).toContainText('2 turns');
  });

  await test.step('it fits the minutes and says what it dropped', async () => {
    const minutes = page.getByLabel('minutes I have');
    await minutes.fill('5');
    await minutes.press('Tab');
    await expect(page.getByRole('region', { name: 'Left out' })).toContainText('does not fit into 5 min');
    await minutes.fill('');
    await minutes.press('Tab');
    await expect(page.getByRole('region', { name: 'Left out' })).not.toContainText('does not fit');
  });

  await startMeasuring(page);
  const where = page.locator('.motion');

  await test.step('sitting first: the strength of the right knee, then the turn', async () => {
    await expect(where).toContainText('right Knee extension strength');
    await hold(page, '31.9lb');
    await turn(page, 'Lay the patient supine');
    await expect(page.getByLabel('right knee extension strength: 142 newtons')).toBeVisible();
  });

  await test.step('network cut for ten readings, server killed and started again, tab reloaded: all there, once', async () => {
    await expect(where).toContainText('right Knee extension · active');
    await allSaved(page, 1);
    await context.setOffline(true);
    for (const reading of ['0', '-6', '2', '-4', '126', '92']) await hold(page, reading);
    // Passive bending goes past the surgeon's limit: it asks why.
    await hold(page, '131');
    await hold(page, '98');
    const dialog = page.getByRole('dialog', { name: '98° is past the limit' });
    await expect(dialog).toContainText('left knee flexion, passive: not past 95° (surgeon, letter of 2 November)');
    await expect(dialog.getByLabel('Why it was passed')).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(dialog).toContainText('Type the reason');
    await page.keyboard.type('patient bent it himself before it was stopped');
    await page.keyboard.press('Enter');
    await expect(dialog).toBeHidden();
    await hold(page, '41');
    await hold(page, '40.5');
    await expect(page.getByText('10 waiting to be saved')).toBeVisible();
    await stack.server.kill();
    await stack.server.start();
    await context.setOffline(false);
    await page.reload();
    await allSaved(page, 11);
    await expect(page.getByLabel('left knee flexion, passive: 98 degrees')).toBeVisible();
    await expect(page.getByLabel('left knee extension, active: lacks 6 degrees')).toBeVisible();
    await expect(page.getByLabel('left knee girth: 40.5 centimetres')).toBeVisible();
    await page.reload();
    await allSaved(page, 11);
  });

  await test.step('the turn to prone is held up by what is still open', async () => {
    await page.getByLabel(/^right hip extension, active/).click();
    await expect(page.getByRole('heading', { name: 'Turn patient prone' })).toBeVisible();
    await expect(
      page
        .getByText('Passive left hip flexion still open in supine')
        .or(page.getByText(/more on the run sheet/))
        .first(),
    ).toBeVisible();
    await expect(
      page.getByRole('img', { name: /^Patient prone, seen from the foot of the table: their left is on your left/ }),
    ).toBeVisible();
    await page.keyboard.type('5');
    await expect(page.getByRole('alert')).toContainText('turn first');
    await turn(page, 'Turn patient prone');
  });

  await test.step('a side said that disagrees with the drawing is caught', async () => {
    await expect(where).toContainText('right Hip extension · active');
    await hold(page, 'l12');
    await expect(page.getByRole('alert')).toContainText('You typed left, the run sheet is at the patient’s right side');
    await page.keyboard.press('Escape');
    await hold(page, 'r12');
    await expect(where).toContainText('left Hip extension · active');
    await allSaved(page, 12);
  });

  await test.step('Judge tells of the limit that was passed', async () => {
    await page.getByRole('link', { name: 'Judge' }).click();
    await expect(page.locator('dg-aside')).toContainText(
      'Left knee flexion, passive 98°, past the limit of 95°: patient bent it himself before it was stopped',
    );
  });
});

test('a caution answered yes ends the visit, and is lifted only with a reason', async ({ page, stack }) => {
  await enter(page, stack);
  await prepareVisit(page, /Odalys Brandt/);
  await page.getByRole('checkbox', { name: /swelling, pain or warmth of the calf or thigh/ }).focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Record 1 yes' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('dg-cautions')).toContainText('Do not measure: refer');
  await page.getByRole('link', { name: 'Measure' }).click();
  await expect(page.getByRole('heading', { name: 'This visit ended before measuring: refer' })).toBeVisible();
  await expect(page.locator('.entry')).toHaveCount(0);
  await page.getByRole('link', { name: 'See the questions, or correct an answer' }).click();
  await page.getByRole('button', { name: 'Ask again' }).click();
  await page.getByRole('checkbox', { name: /swelling, pain or warmth of the calf or thigh/ }).uncheck();
  await page.getByLabel('Why the answer changed').fill('scanned today, no clot');
  await page.getByRole('button', { name: 'None of these' }).click();
  await expect(page.getByText('Nothing stands against measuring')).toBeVisible();
  await page.getByRole('button', { name: 'Start measuring' }).click();
  await expect(entry(page)).toBeFocused();
});

test('two sites are read in the order of the hands, by two devices and by one', async ({ page, stack }) => {
  await enter(page, stack);
  await startVisit(page, /Tamsin Okonjo-Vale/, 'Low back');
  await expect(page.locator('.motion')).toContainText('Lumbar flexion · active');
  await hold(page, '86/34');
  await expect(page.getByLabel('lumbar flexion, active: 52 degrees')).toBeVisible();
  await page.keyboard.press('g');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('radio', { name: 'not set: counts 0–360' }).check();
  await dialog.getByRole('radio', { name: 'one device, moved between two repeats' }).check();
  await expect(dialog).toContainText('upper zero, upper end, lower zero, lower end');
  await dialog.getByRole('button', { name: 'Back to the dial' }).click();
  await expect(page.locator('.motion')).toContainText('Lumbar extension · active');
  for (const figure of ['5', '345', '2']) await hold(page, figure);
  await expect(page.locator('#reading-words')).toContainText('now the lower end');
  await hold(page, '357');
  // Both ways can be: it is asked, and the figures stay.
  await expect(page.locator('#reading-problem')).toContainText('can have gone both ways');
  await page.getByRole('button', { name: '15°, counting down' }).click();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('lumbar extension, active: 15 degrees')).toBeVisible();
  await allSaved(page, 2);
  await page.reload();
  await expect(page.getByLabel('lumbar extension, active: 15 degrees')).toBeVisible();
});

test('an arc fills both directions; a past reading is corrected and keeps what it said', async ({ page, stack }) => {
  await enter(page, stack);
  await startVisit(page, /Corin Hathersage/, 'Knee after replacement');
  await page.getByLabel(/^right knee extension, active/).click();
  await turn(page, 'Lay the patient supine');
  await hold(page, 'S:2-0-128');
  await expect(page.getByLabel('right knee extension, active: 2 degrees')).toBeVisible();
  await expect(page.getByLabel('right knee flexion, active: 128 degrees')).toBeVisible();
  await page.getByLabel('right knee flexion, active: 128 degrees').click();
  await page.keyboard.press('z');
  const dialog = page.getByRole('dialog', { name: 'Correct a reading' });
  await expect(dialog.getByLabel('Should read')).toBeFocused();
  await page.keyboard.type('123');
  await page.keyboard.press('Enter');
  await expect(dialog.getByRole('alert')).toContainText('Type why it is corrected');
  await dialog.getByLabel('Why').fill('read from the wrong arm');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('right knee flexion, active: 123 degrees')).toBeVisible();
  await allSaved(page, 2);
  await page.reload();
  await page.getByLabel('right knee flexion, active: 123 degrees').click();
  if (await page.locator('dg-turn h3').isVisible()) await page.keyboard.press('Enter');
  await expect(page.locator('dg-trials-strip')).toContainText('was 128');
  await page.getByRole('button', { name: 'Correct reading 1, 123' }).click();
  await expect(page.getByRole('dialog')).toContainText(/was 128°.*corrected by Wren Calloway on .*: read from the wrong arm/);
});

test('a line is moved by keyboard and by hand, and stays where it was put', async ({ page, stack }) => {
  await enter(page, stack);
  await prepareVisit(page, /Odalys Brandt/, 'Hip');
  const names = () => page.locator('dg-plan-list .row .what strong').allTextContents();
  const handle = (name: string) => page.getByRole('button', { name: `Move ${name}: arrow keys` });
  await handle('Hip adduction, active').focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  expect((await names()).slice(0, 4)).toEqual(['Hip flexion', 'Hip flexion', 'Hip adduction', 'Hip adduction']);
  await expect(handle('Hip adduction, active')).toBeFocused();
  const from = (await handle('Hip abduction, passive').boundingBox())!;
  const to = (await handle('Hip flexion, active').boundingBox())!;
  await page.mouse.move(from.x + 10, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(from.x + 12, from.y - 20, { steps: 4 });
  await page.mouse.move(to.x + 12, to.y + 4, { steps: 10 });
  await page.mouse.up();
  await expect.poll(async () => (await names())[0]).toBe('Hip abduction');
  expect(await page.locator('dg-plan-list .mark[aria-pressed=true]').count()).toBeGreaterThan(2);
  await startMeasuring(page);
  await expect(page.locator('.motion')).toContainText('Hip abduction · passive');
});
