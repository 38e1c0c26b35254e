import { allSaved, entry, expect, hold, signIn, startMeasuring, startVisit, test, turn } from '../fixtures';

test.describe.configure({ mode: 'serial' });

/** Right side first, as the run sheet has it for two involved sides. */
const SUPINE = ['100', '95', '118', '107', '27', '25', '33', '18', '19', '20', '22', '23'];

test('an exam by keyboard alone: held, judged, followed, and still there after a reload', async ({ page, stack }) => {
  await signIn(page, stack);
  await startVisit(page, /Odalys Brandt/);

  await test.step('the run sheet leads: twelve readings in supine, then the turn', async () => {
    await expect(page.locator('.motion')).toContainText('right Hip flexion · active');
    for (const reading of SUPINE) await hold(page, reading);
    await turn(page, 'Turn patient prone');
    await expect(page.locator('.motion')).toContainText('right Hip extension · active');
    await expect(page.getByText('Patient prone. right hip extension, active')).toBeAttached();
    await allSaved(page, 12);
  });

  await test.step('side, mode, back and undo have keys', async () => {
    await page.keyboard.press('o');
    await expect(page.locator('.motion')).toContainText('left Hip extension · active');
    await page.keyboard.press('m');
    await expect(page.locator('.motion')).toContainText('left Hip extension · passive');
    await hold(page, '-5');
    await allSaved(page, 13);
    await page.keyboard.press('u');
    await allSaved(page, 12);
    await expect(page.locator('.motion')).toContainText('left Hip extension · passive');
    await page.keyboard.press('ArrowUp');
    await expect(page.locator('.motion')).toContainText('right Hip extension · active');
  });

  await test.step('pain is noted without the mouse', async () => {
    await page.keyboard.press('ArrowUp');
    await turn(page, 'Turn patient supine');
    for (const key of ['ArrowUp', 'ArrowUp', 'ArrowUp', 'ArrowUp']) await page.keyboard.press(key);
    await expect(page.locator('.motion')).toContainText('right Hip flexion · passive');
    await page.keyboard.press('p');
    await page.keyboard.type('4');
    await page.keyboard.press('Enter');
    await expect(entry(page)).toBeFocused();
    await expect(page.getByLabel('right hip flexion, passive: 118 degrees, hurts 4 of 10')).toBeVisible();
  });

  await test.step('Judge says what is short, of what, and why', async () => {
    await page.getByRole('link', { name: 'Judge' }).focus();
    await page.keyboard.press('Enter');
    const findings = page.locator('dg-findings ol > li');
    // What got worse since the last visit comes first, then pain.
    await expect(findings.first()).toContainText('Left hip abduction, passive 18°: 12° worse than at the last visit');
    await expect(findings.nth(1)).toContainText('Right hip flexion, passive 118°: hurts, 4 of 10');
    const sentence = findings.filter({
      hasText: 'Left hip abduction, passive 18°: 27° short of 45°, by AAOS 1965, 15° less than the right side',
    });
    await expect(sentence).toHaveCount(1);
    await sentence.locator('summary').focus();
    await page.keyboard.press('Enter');
    await expect(sentence).toContainText('left − right: 18 − 33 = −15°');
    await expect(findings.filter({ hasText: /Right hip flexion, active 100°:[\s\S]*18° less than passive/ })).toHaveCount(1);
    // 95° lies inside what the first set that may be compared finds in people: it is not called short.
    await expect(findings.filter({ hasText: /Left hip flexion, active 95°: \d+° short/ })).toHaveCount(0);
    await expect(page.locator('dg-findings')).toContainText('Really changed since');
  });

  await test.step('Progress tells a real change from measuring error', async () => {
    await page.getByRole('link', { name: 'Progress' }).focus();
    await page.keyboard.press('Enter');
    await page.getByRole('combobox', { name: 'Change since' }).selectOption({ label: 'the visit before' });
    const row = (motion: string, side: string) => page.getByRole('row').filter({ hasText: new RegExp(`^\\s*${motion}\\s*${side}`) });
    await expect(row('Flexion, passive', 'right')).toHaveText(/109\s*118\s*\+9\s*better/);
    await expect(row('Abduction, passive', 'left')).toHaveText(/30\s*18\s*−12\s*worse/);
    await expect(row('Flexion, passive', 'left')).toHaveText(/106\s*107\s*\+1\s*within error/);
    await row('Flexion, passive', 'right').getByRole('button').focus();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: /^Right hip flexion, passive is 19° better than on/ })).toBeVisible();
    await expect(page.getByText('118° now · a change counts from 9°')).toBeVisible();
  });

  await test.step('after a reload it is all still there', async () => {
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Odalys Brandt' })).toBeVisible();
    await page.getByRole('link', { name: 'Measure' }).click();
    await allSaved(page, 12);
    await expect(page.getByLabel('left hip abduction, passive: 18 degrees')).toBeVisible();
  });
});

test('what cannot be is refused in words, and stays on the screen', async ({ page, stack }) => {
  await signIn(page, stack);
  await startVisit(page, /Tamsin Okonjo-Vale/);
  for (const [typed, words] of [
    ['400', '400° is more than hip flexion can hold; allowed: −60 to 170°'],
    ['10/', 'is half a reading; allowed: start/end'],
    ['31.5', 'finer than the instrument reads'],
  ] as const) {
    await hold(page, typed);
    await expect(page.getByRole('alert')).toContainText(words);
    await expect(entry(page)).toHaveValue(typed);
    await page.keyboard.press('Escape');
  }
  await hold(page, '10/95');
  await allSaved(page, 1);
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys at the dial' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(entry(page)).toBeFocused();
  await page.goto(`${stack.url}/visits/7d444840-9dc0-41d1-b245-5ffdce74fad2/measure`);
  await expect(page.getByRole('alert')).toContainText('no such visit in this clinic');
});

test('a patient is added, and an empty record teaches', async ({ page, stack }) => {
  await signIn(page, stack);
  await page.getByRole('button', { name: 'Add patient' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Add patient' }).click();
  await expect(dialog.getByText('Type the given name')).toBeVisible();
  await dialog.getByLabel('Given name').fill('Bartholomeus-Maximilian');
  await dialog.getByLabel('Family name').fill('van Oosterhuizen-Featherstonehaugh');
  await dialog.getByLabel('Birth date').fill('1990-02-28');
  await dialog.getByLabel('Complaint').fill('left hip catches on stairs');
  await dialog.getByRole('button', { name: 'Add patient' }).click();
  await expect(page.getByText('No visit yet')).toBeVisible();
  await page.getByRole('button', { name: 'Start visit 1' }).click();
  await expect(page.getByText('Choose a ready set')).toBeVisible();
  await page.getByRole('option', { name: 'Hip', exact: true }).click();
  await startMeasuring(page);
  await page.getByRole('link', { name: 'Judge' }).click();
  await expect(page.getByText('Nothing is measured or screened yet')).toBeVisible();
  await page.getByRole('link', { name: 'Screen' }).click();
  await expect(page.getByText('Nothing to screen yet')).toBeVisible();
  await page.getByRole('link', { name: 'Progress' }).click();
  await expect(page.getByText('Nothing is measured or screened yet')).toBeVisible();
});
