import { allSaved, COLLEAGUE, entry, expect, hold, signIn, signOut, startVisit, test } from '../fixtures';

test.describe.configure({ mode: 'serial' });

test('a second tab sends nothing twice, and takes over when the first is closed', async ({ page, stack, context }) => {
  await signIn(page, stack);
  await startVisit(page, /Odalys Brandt/);
  await context.setOffline(true);
  await hold(page, '90');
  await hold(page, '91');
  await expect(page.getByText('2 waiting to be saved')).toBeVisible();
  await context.setOffline(false);
  const second = await context.newPage();
  await second.goto(page.url());
  await allSaved(second, 2);
  await allSaved(page, 2);
  await context.setOffline(true);
  await hold(page, '110');
  await expect(page.getByText('1 waiting to be saved')).toBeVisible();
  await page.close();
  await context.setOffline(false);
  await allSaved(second, 3);
  await second.reload();
  await allSaved(second, 3);
});

test('signing out with readings unsent throws nothing away, and sends nothing under another name', async ({ page, stack, context }) => {
  await signIn(page, stack);
  await startVisit(page, /Odalys Brandt/);
  const visit = page.url();
  await stack.server.kill();
  await hold(page, '87');
  await signOut(page);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('heading', { name: '1 entry is not saved yet' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Stay' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByText('1 waiting to be saved')).toBeVisible();
  await signOut(page);
  await page.getByRole('dialog').getByRole('button', { name: 'Keep them and sign out' }).click();
  await expect(page.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
  await stack.server.start();

  await context.clearCookies();
  await signIn(page, stack, COLLEAGUE);
  await page.goto(visit);
  await allSaved(page, 0);
  await expect(page.getByText('waiting to be saved')).toBeHidden();
  await signOut(page);
  await expect(page.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();

  await signIn(page, stack);
  await page.goto(visit);
  await allSaved(page, 1);
  await page.getByLabel('right hip flexion, active: 87 degrees').click();
  await expect(page.getByRole('button', { name: 'Correct reading 1, 87' })).toBeVisible();
});

test('two examiners see each other’s readings, and neither overwrites the other', async ({ page, stack, browser }) => {
  await signIn(page, stack);
  await startVisit(page, /Tamsin Okonjo-Vale/);
  const theirs = await browser.newContext();
  const other = await theirs.newPage();
  await signIn(other, stack, COLLEAGUE);
  await other.goto(page.url());
  await expect(entry(other)).toBeFocused();
  await hold(other, '118');
  await allSaved(other, 1);
  await other.keyboard.press('ArrowUp');
  await other.getByLabel('left hip flexion, active: 118 degrees').click();
  await other.keyboard.press('p');
  await other.keyboard.type('3');
  // Not only sent: the server has it before the other one writes.
  await Promise.all([other.waitForResponse((answer) => answer.url().endsWith('/remarks') && answer.ok()), other.keyboard.press('Enter')]);

  await page.keyboard.press('p');
  await page.keyboard.type('6');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('remark was not saved. pain: was changed by Rook Ansty meanwhile and says 3');
  // What the other one holds joins this screen when it is looked at again.
  await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
  await expect(page.getByLabel('left hip flexion, active: 118 degrees, hurts 3 of 10')).toBeVisible();
  await page.getByLabel('left hip flexion, active: 118 degrees, hurts 3 of 10').click();
  await expect(page.locator('dg-trials-strip')).toContainText('by Rook Ansty');
  await theirs.close();
});

test('a reading that waited while a colleague signed is kept for review, and taken in when the visit is amended', async ({
  browser,
  page,
  stack,
}) => {
  await signIn(page, stack);
  await startVisit(page, /Anselm Quill/, 'Wrist and hand');
  await hold(page, '60');
  await allSaved(page, 1);
  const visit = page.url();

  const theirs = await (await browser.newContext()).newPage();
  await signIn(theirs, stack, COLLEAGUE);
  await theirs.goto(visit);
  await expect(entry(theirs)).toBeFocused();
  await theirs.context().setOffline(true);
  await hold(theirs, '58');
  await expect(theirs.getByText('1 waiting to be saved')).toBeVisible();

  await page.getByRole('link', { name: 'Judge' }).click();
  await page.getByRole('button', { name: 'Sign the visit' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Sign', exact: true }).click();
  await expect(page.getByText(/^Signed\s+by Wren/)).toBeVisible();

  await theirs.context().setOffline(false);
  await expect(theirs.getByText('kept for review on Judge')).toBeVisible();
  await page.reload();
  const late = page.getByRole('region', { name: 'Arrived after the signature' });
  await expect(late).toContainText('58°');
  await expect(late).toContainText('Rook Ansty');
  await expect(late.getByRole('button', { name: /^Take in/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Amend the visit' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('a reading came late');
  await page.getByRole('dialog').getByRole('button', { name: 'Open it' }).click();
  await late.getByRole('button', { name: /^Take in/ }).click();
  await expect(late).toBeHidden();
  await expect(page.getByText(/1 changed since it was signed/)).toBeVisible();
  await theirs.context().close();
});
