import type { Page } from '@playwright/test';
import { COLLEAGUE, expect, fromClinicMenu, enter, signOut, test } from '../fixtures';

/** Opens a step of a visit with the keyboard alone. */
async function open(page: Page, patient: RegExp, step: string, visit: number): Promise<void> {
  const press = async (name: string | RegExp) => {
    await page.getByRole('link', { name, exact: true }).focus();
    await page.keyboard.press('Enter');
  };
  await press(patient);
  await press(`${step}, visit ${visit}`);
}

const row = (page: Page, words: RegExp) => page.locator('dg-change-table').getByRole('row').filter({ hasText: words });
const finding = (page: Page, words: string | RegExp) => page.locator('dg-findings ol > li').filter({ hasText: words });

test('the cellist: the capsular order is found, with its fit and where it leads', async ({ page, stack }) => {
  await enter(page, stack);
  await open(page, /Perpetua Linnet/, 'Judge', 2);
  const pattern = finding(page, 'capsular order fits 3 of 3 pairs');
  await expect(pattern).toContainText('external rotation 70 % lost › abduction 51 % lost › internal rotation 28 % lost');
  await pattern.locator('summary').focus();
  await page.keyboard.press('Enter');
  await expect(pattern).toContainText(/never a diagnosis|not a diagnosis/);
  await expect(finding(page, 'hurts').first()).toContainText('Right shoulder external rotation, passive 27°: hurts, 5 of 10');
  // The arc is lost, not traded.
  await expect(page.locator('dg-strips .arc').first()).toContainText('real');
  await expect(page.getByLabel('Summary of the visit')).toHaveValue(/Right shoulder: capsular order fits 3 of 3 pairs\./);
});

test('a lead looks a value up: it loses its flag; where the source prints another figure, that one judges', async ({ page, stack }) => {
  await enter(page, stack);
  const lookUp = async (): Promise<void> => {
    await page.goto(`${stack.url}/norms`);
    await page.getByRole('link', { name: /checked ?: American Academy/ }).click();
    await expect(page.getByText('55 checked')).toBeVisible();
  };
  const judged = async (): Promise<string> => {
    await page.goto(`${stack.url}/caseload`);
    await open(page, /Perpetua Linnet/, 'Judge', 2);
    const short = finding(page, 'Right shoulder flexion, passive');
    await short.locator('summary').first().click();
    return (await short.innerText()).replace(/\s+/g, ' ');
  };
  const before = await judged();
  expect(before).toContain('64° short of 180°, by AAOS 1965');
  expect(before).toMatch(/AAOS 1965: [^;]*\(from memory\); confidence/);

  await test.step('as it is printed', async () => {
    await lookUp();
    await page.getByRole('button', { name: 'As printed: Shoulder flexion, adults' }).click();
    await expect(page.getByRole('alert')).toContainText('Page or table is empty');
    await page.getByLabel('Page or table').fill('p. 12');
    await page.getByRole('button', { name: 'As printed: Shoulder flexion, adults' }).press('Enter');
    await expect(page.getByText('1 of 55 checked.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'As printed: Shoulder extension, adults' })).toBeFocused();
    const now = await judged();
    expect(now).toContain('64° short of 180°, by AAOS 1965');
    expect(now).toMatch(/AAOS 1965: .* looked up in .*, p\. 12 by Wren Calloway/);
  });

  await test.step('printed otherwise, and taken back', async () => {
    await lookUp();
    await page.getByRole('button', { name: 'Correct: Shoulder flexion, adults' }).click();
    await page.getByLabel('Page or table').fill('p. 13');
    await page.getByRole('textbox', { name: 'expected' }).fill('178');
    await page.keyboard.press('Enter');
    await expect(page.getByText('the program has expected 180°')).toBeVisible();
    expect(await judged()).toContain('62° short of 178°, by AAOS 1965');
    await lookUp();
    await page.getByRole('button', { name: 'Take back: Shoulder flexion, adults' }).click();
    await expect(page.getByText('0 of 55 checked.')).toBeVisible();
    expect(await judged()).toContain('64° short of 180°, by AAOS 1965');
  });

  await test.step('by the lead alone: a colleague reads it', async () => {
    await signOut(page);
    await enter(page, stack, COLLEAGUE);
    await lookUp();
    await expect(page.getByRole('button', { name: /^As printed/ })).toHaveCount(0);
  });
});

test('the whole exam is on one screen at 1280 × 800', async ({ page, stack }) => {
  await enter(page, stack);
  await open(page, /Odalys Brandt/, 'Judge', 2);
  const strips = page.locator('dg-strips');
  await expect(strips.getByRole('button', { name: /^Evidence of right External rotation/ })).toBeVisible();
  const [content, room] = await strips.evaluate((element) => [element.scrollHeight, element.clientHeight]);
  expect(content).toBeLessThanOrEqual(room!);
});

test('the ferry engineer: real change, another examiner, a plateau, behind and then on the usual course', async ({ page, stack }) => {
  await enter(page, stack);
  await open(page, /Corin Hathersage/, 'Progress', 8);
  await row(page, /^\s*Flexion, passive\s*left/)
    .getByRole('button')
    .focus();
  await page.keyboard.press('Enter');
  await expect(
    page.getByRole('heading', { name: 'Left knee flexion, passive is 44° better than in week 1, with no real change since week 6.' }),
  ).toBeVisible();
  await expect(row(page, /^\s*Flexion, passive\s*left/)).toHaveText(/62\s*106\s*\+44\s*better/);
  await expect(row(page, /^\s*Extension, passive\s*left/)).toHaveText(/lacks 14\s*lacks 3\s*\+11\s*better/);
  const notes = page.locator('.notes');
  await expect(notes).toContainText('On the usual course since week 4, behind it before.');
  await expect(notes).toContainText('week 3: another examiner (Rook Ansty)');
  await expect(notes).toContainText('not yet told from standing still');
  await expect(page.locator('dg-motion-chart canvas')).toHaveAttribute(
    'aria-label',
    /goal 116°; limit 90° not past here, until .*; no real change since week 6/,
  );
  await page.getByRole('combobox', { name: 'Change since' }).selectOption({ label: 'the visit before' });
  await expect(row(page, /^\s*Flexion, passive\s*left/)).toHaveText(/106\s*106\s*0\s*within error/);

  await test.step('week 2 was behind, and after surgery on the knee straightening comes first', async () => {
    await page.getByRole('link', { name: 'Corin Hathersage' }).click();
    await page.getByRole('link', { name: 'Judge, visit 2', exact: true }).click();
    const loss = finding(page, /short of .*, by |less than the right side/).first();
    await expect(loss).toContainText('Left knee extension');
    await expect(loss).toContainText('after surgery on the knee, loss of straightening comes first');
    await expect(finding(page, /behind what is usual 2 weeks after the operation/).first()).toContainText('Left knee');
  });

  await test.step('the goal is set another way and the chart follows', async () => {
    await page.getByRole('link', { name: 'Corin Hathersage' }).click();
    await page.getByRole('link', { name: 'Progress, visit 8', exact: true }).click();
    await row(page, /^\s*Flexion, passive\s*left/)
      .getByRole('button')
      .click();
    await page.getByRole('button', { name: 'Set the goal' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('the other side, as measured last').check();
    await dialog.getByLabel('Less, as agreed').fill('20');
    await dialog.getByRole('button', { name: 'Set the goal' }).click();
    await expect(page.locator('.facts')).toContainText('Goal: 112° from the other side less 20° (agreed with the surgeon).');
  });
});

test('four degrees are within error until the clinic knows its own error, then they are real', async ({ page, stack }) => {
  await enter(page, stack);
  const extension = /^\s*Extension, passive\s*right/;
  const judge = async () => {
    await page.goto(`${stack.url}/caseload`);
    await open(page, /Anselm Quill/, 'Judge', 2);
    await expect(page.locator('dg-findings')).toContainText('order:');
  };
  await open(page, /Anselm Quill/, 'Progress', 2);
  await expect(row(page, extension)).toHaveText(/50\s*54\s*\+4\s*within error/);

  await fromClinicMenu(page, /Steadiness/);
  await expect(page.getByText('In use now: default, goniometer, one examiner: SEM 3°, a change counts from 8.3°.')).toBeVisible();
  await page.getByRole('button', { name: 'Judge by this error' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('From now on every judgement uses this error.')).toBeVisible();

  await page.goto(`${stack.url}/caseload`);
  await open(page, /Anselm Quill/, 'Progress', 2);
  await expect(row(page, extension)).toHaveText(/50\s*54\s*\+4\s*better/);
  await row(page, extension).getByRole('button').click();
  await expect(page.locator('.notes')).toContainText('this clinic’s own study, 12 people × 2 repeats of one examiner');

  await judge();
  const changed = page.locator('dg-findings details.group').filter({ hasText: 'Really changed since' });
  await expect(changed).toContainText('Right wrist extension, passive 54°: 4° more than last time');
  await changed.locator('dg-finding-line summary').filter({ hasText: 'extension, passive' }).click();
  await expect(changed).toContainText('this clinic’s own study');

  await fromClinicMenu(page, /Steadiness/);
  await page.getByRole('button', { name: 'Stop using it' }).click();
  await expect(page.getByText('This error is no longer used.')).toBeVisible();
  await judge();
  await expect(page.locator('dg-findings details.group').filter({ hasText: 'Really changed since' })).not.toContainText(
    'wrist extension, passive',
  );
});

test('a study is planned, read blind, counted and resampled in a worker, with a way to stop', async ({ page, stack }) => {
  await enter(page, stack);
  await page.goto(`${stack.url}/steadiness`);
  await page.getByRole('button', { name: 'Plan a study' }).focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('Motion and way').focus();
  await page.keyboard.type('knee to wall');
  await expect(page.getByRole('option').first()).toBeVisible();
  await page.keyboard.press('Enter');
  await page.getByLabel('People or limbs').fill('4');
  await page.getByLabel('Readings of each').focus();
  await page.keyboard.press('Enter');

  const entry = page.getByLabel('Blinded reading');
  /** What each person would show; the order is drawn, so the person is read off the screen. */
  const FIRST = [4, 7.5, 10, 12.5];
  const read = async (at: number) => {
    await expect(page.getByText(`Reading ${at} of 8`)).toBeVisible();
    const person = Number((await page.getByRole('heading', { name: /^Person or limb/ }).innerText()).match(/\d+/)![0]);
    await expect(entry).toBeFocused();
    await page.keyboard.type(String(FIRST[person - 1]! + (at > 4 ? 0.5 * (person % 2) : 0)));
    await page.keyboard.press('Enter');
  };
  for (let at = 1; at <= 3; at++) await read(at);
  await expect(page.locator('nav[aria-label="Studies"]')).toContainText('3 of 8 read');
  await page.reload();
  for (let at = 4; at <= 8; at++) await read(at);

  await expect(page.getByRole('heading', { name: 'Six intraclass correlations' })).toBeVisible();
  await expect(page.getByRole('row', { name: /^2,1/ })).toContainText('excellent');
  await page.getByRole('button', { name: /^Bootstrap/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/\d+ resamples of the people/)).toBeVisible();
  await expect(page.getByRole('row', { name: /^2,1/ }).getByRole('cell')).toHaveCount(4);
});

test('signing keeps a copy; a change of rules leaves it; amending is said with who and why', async ({ page, stack }) => {
  await enter(page, stack);
  await open(page, /Ottoline Reeve/, 'Judge', 1);
  await page.getByLabel('Summary of the visit').fill('Left ankle short in dorsiflexion, calf first.');
  await page.getByRole('button', { name: 'Sign the visit' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('are kept as they stand now');
  await expect(page.getByRole('dialog').getByRole('button', { name: 'Sign', exact: true })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.locator('dg-summary')).toContainText('Signed by Wren Calloway');
  const before = await page.locator('dg-findings ol').innerText();

  await test.step('the dial is closed', async () => {
    await page.getByRole('link', { name: 'Measure' }).click();
    await expect(page.getByText('This visit is signed: look, but nothing is changed.')).toBeVisible();
    await page.locator('.entry input').focus();
    await page.keyboard.type('9');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toContainText('This visit is signed');
  });

  await test.step('another norm set does not touch what was signed', async () => {
    await page.goto(`${stack.url}/norms`);
    await page.getByRole('button', { name: /^Move American Academy/ }).focus();
    await page.keyboard.press('Home');
    await expect(page.getByText(/American Academy .* is asked first/)).toBeVisible();
    await page.goto(`${stack.url}/caseload`);
    await open(page, /Ottoline Reeve/, 'Judge', 1);
    await expect(page.locator('dg-summary')).toContainText('Signed by Wren Calloway');
    expect(await page.locator('dg-findings ol').innerText()).toBe(before);
  });

  await test.step('a colleague reads it, and does not amend what is not theirs', async () => {
    await signOut(page);
    await enter(page, stack, COLLEAGUE);
    await open(page, /Ottoline Reeve/, 'Judge', 1);
    await expect(page.locator('dg-summary')).toContainText('Examined by Wren Calloway');
    await expect(page.getByRole('button', { name: 'Amend the visit' })).toBeHidden();
    await signOut(page);
  });

  await test.step('whoever examined amends it', async () => {
    await enter(page, stack);
    await open(page, /Ottoline Reeve/, 'Judge', 1);
    await page.getByRole('button', { name: 'Amend the visit' }).click();
    await page.getByRole('dialog').getByLabel('Why it has to be changed').fill('left dorsiflexion was read with the knee bent');
    await page.keyboard.press('Enter');
    await expect(page.locator('dg-summary')).toContainText('Being amended: left dorsiflexion was read with the knee bent');
    await page.getByRole('link', { name: 'Measure' }).click();
    await page.getByLabel(/^left ankle dorsiflexion, passive: /).click();
    const turning = page.getByRole('button', { name: /^Patient is / });
    await expect(page.locator('.entry input')).toBeFocused();
    if (await turning.isVisible()) await turning.click();
    await page.locator('.entry input').focus();
    await page.keyboard.type('2');
    await page.keyboard.press('Enter');
    await page.getByRole('link', { name: 'Judge' }).click();
    await expect(page.locator('dg-summary')).toContainText('1 changed since it was signed');
    await page.locator('dg-summary summary').click();
    await expect(page.locator('dg-summary details')).toContainText('Wren Calloway');
    await page.getByRole('button', { name: 'Sign the amended visit' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Sign', exact: true }).click();
    await expect(page.locator('dg-summary')).toContainText('Signed again by Wren Calloway');
    await page.getByRole('button', { name: 'Signed', exact: true }).click();
    await expect(page.getByRole('dialog')).toContainText('Left ankle short in dorsiflexion, calf first.');
    await expect(page.getByRole('dialog')).toContainText(/Findings as they stood \(.*AAOS 1965/);
  });

  await test.step('the clinic goes back to its own set', async () => {
    await page.goto(`${stack.url}/norms`);
    await page.getByRole('button', { name: /^Move Boone & Azen 1979/ }).focus();
    await page.keyboard.press('Home');
    await expect(page.getByText(/Boone & Azen 1979.* is asked first/)).toBeVisible();
  });
});

test('a retest by keyboard: better, worse, and a warning before finishing on worse', async ({ page, stack, context }) => {
  await enter(page, stack);
  await open(page, /Odalys Brandt/, 'Retest', 2);
  for (const side of ['Left', 'Right']) {
    await page.getByLabel(`${side} hip flexion, passive`).focus();
    await page.keyboard.press('Space');
  }
  await page.getByRole('button', { name: 'Read the baseline' }).focus();
  await page.keyboard.press('Enter');
  const type = async (...entries: string[]) => {
    for (const entry of entries) {
      await expect(page.locator('.entry input')).toBeFocused();
      await page.keyboard.type(entry);
      await page.keyboard.press('Enter');
      await expect(page.locator('.entry input')).toHaveValue('');
    }
  };
  await type('106', '109', 'Side glide', '117', '110');
  await expect(page.locator('dg-rounds').first()).toContainText('+11, better');
  await expect(page.locator('dg-rounds').first()).toContainText('+1, same');

  await test.step('without a connection it goes on, and arrives later', async () => {
    await context.setOffline(true);
    await type('Deep squat hold', '104', '109');
    await expect(page.getByText(/\d waiting to be saved/)).toBeVisible();
    await context.setOffline(false);
    await expect(page.getByText('everything saved')).toBeVisible();
  });

  await expect(page.getByText('“Deep squat hold” made it worse')).toBeVisible();
  await page.getByRole('button', { name: 'Finish the retest' }).focus();
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Finish on worse?');
  await expect(dialog).toContainText('“Side glide” helped');
  await expect(dialog.getByRole('button', { name: 'Go back to what helped' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Left hip flexion, passive after “Side glide”' })).toBeVisible();
  await type('116', '110');
  await page.getByRole('button', { name: 'Finish the retest' }).click();
  await expect(page.getByRole('heading', { name: /^Retest \d, finished .* by Wren Calloway$/ }).last()).toBeVisible();
  await expect(page.locator('aside')).toContainText(/Side glide\s*helped 2 of 2 times/);
  await expect(page.locator('aside')).toContainText(/Deep squat hold\s*helped 0 of 1 time, made it worse once/);
  await page.reload();
  await expect(page.locator('aside')).toContainText(/Side glide\s*helped 2 of 2 times/);
});

test('another order explains what it moved, and the clinic can make it its own', async ({ page, stack }) => {
  await enter(page, stack);
  await open(page, /Odalys Brandt/, 'Judge', 2);
  await page.getByLabel('order:').selectOption({ label: 'painless and short first, then painful' });
  await expect(page.getByText(/^This order moves/)).toBeVisible();
  await expect(page.locator('.moved')).toContainText(
    /place \d+ → \d+ \(short and painful: after what is painless\)|short and painless first/,
  );
  await page.getByRole('button', { name: 'Make it the clinic’s order' }).click();
  await expect(page.locator('.moved')).toBeHidden();
  await page.reload();
  await expect(page.getByLabel('order:')).toHaveValue('painless-first');
  await expect(page.getByRole('link', { name: /^Measure it again/ })).toHaveAttribute('href', /measure\?at=hip\.internalRotation/);
  await page.getByLabel('order:').selectOption({ label: 'largest loss first' });
  await page.getByRole('button', { name: 'Make it the clinic’s order' }).click();
  await expect(page.locator('.moved')).toBeHidden();
});
