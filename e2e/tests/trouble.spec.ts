import { allSaved, DEMO, entry, expect, hold, signIn, signOut, startVisit, test } from '../fixtures';

test.describe.configure({ mode: 'serial' });

test('a reading outlives kill -9 of the server right after it was acknowledged', async ({ page, stack }) => {
  await signIn(page, stack);
  await startVisit(page, /Odalys Brandt/);
  await hold(page, '77');
  await allSaved(page, 1);
  await stack.server.kill();
  await stack.server.start();
  await page.reload();
  await allSaved(page, 1);
  await expect(page.getByLabel('right hip flexion, active: 77 degrees')).toBeVisible();
});

test('a reading outlives kill -9 of server and database together', async ({ page, stack }) => {
  await signIn(page, stack);
  await startVisit(page, /Tamsin Okonjo-Vale/);
  await hold(page, '112');
  await allSaved(page, 1);
  await Promise.all([stack.server.kill(), stack.database.kill()]);
  await stack.database.start();
  await stack.server.start();
  await page.reload();
  await allSaved(page, 1);
  await expect(page.getByLabel('left hip flexion, active: 112 degrees')).toBeVisible();
});

test('while the server is away readings wait on the screen, and arrive once and in order when it is back', async ({ page, stack }) => {
  await signIn(page, stack);
  await startVisit(page, /Odalys Brandt/);
  await stack.server.kill();
  await hold(page, '90');
  await hold(page, '91');
  await hold(page, '110');
  await expect(page.getByText('3 waiting to be saved')).toBeVisible();
  await expect(page.getByText('The server cannot be reached')).toBeVisible();
  await stack.server.start();
  await allSaved(page, 3);
  await page.reload();
  await allSaved(page, 3);
  await expect(page.getByLabel('left hip flexion, active: 91 degrees')).toBeVisible();
});

test('while the database is away the screen says so, and the reading arrives when it is back', async ({ page, stack }) => {
  await signIn(page, stack);
  await startVisit(page, /Odalys Brandt/);
  await stack.database.kill();
  await hold(page, '88');
  await expect(page.getByText('The database does not answer').or(page.getByText('Nothing was saved. What you typed stays'))).toBeVisible();
  await stack.database.start();
  await allSaved(page, 1);
});

test('an ended session asks to sign in again in place; what was typed stays and the reading arrives', async ({ page, stack, context }) => {
  await signIn(page, stack);
  await startVisit(page, /Odalys Brandt/);
  await context.clearCookies();
  await hold(page, '93');
  await page.keyboard.type('94');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('heading', { name: 'Your session has ended' })).toBeVisible();
  await expect(dialog.getByLabel('E-mail')).toHaveValue(DEMO.email);
  // The dialog takes the focus once it stands; before that it would take it away from the password.
  await expect(dialog.getByLabel('E-mail')).toBeFocused();
  await dialog.getByLabel('Password').fill('not this one');
  await dialog.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(dialog.getByRole('alert')).toContainText('E-mail or password is wrong');
  await dialog.getByLabel('Password').fill(DEMO.password);
  await dialog.getByRole('button', { name: 'Sign in', exact: true }).click();
  await allSaved(page, 1);
  await expect(entry(page)).toHaveValue('94');
});

test('signing out shows the door, and nothing behind it', async ({ page, stack }) => {
  await signIn(page, stack);
  await signOut(page);
  await expect(page.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
  await page.goto(`${stack.url}/caseload`);
  await expect(page.getByRole('heading', { name: 'Dial Gauge' })).toBeVisible();
});
