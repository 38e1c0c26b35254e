import { Secret, TOTP } from 'otpauth';
import { expect, test, type Browser, type Page } from '@playwright/test';
import { startStack, type Stack } from '../../bin/lib/stack.mjs';
import { axe, fromClinicMenu, signOut } from '../fixtures';

const LEAD = { name: 'Juno Fell', email: 'juno@tidewater.example', password: 'harbour-lichen-teaspoon-9' };
const EXAMINER = { name: 'Fenn Corrie', email: 'fenn@tidewater.example', password: 'gravel-otter-lantern-4' };
const ASSISTANT = { name: 'Moss Dray', email: 'moss@tidewater.example', password: 'ferry-thimble-plover-7' };

let stack: Stack;
test.beforeAll(async () => {
  stack = await startStack({ DIAL_GAUGE_DEMO: 'no' });
});
test.afterAll(() => stack.stop());

const signIn = async (page: Page, { email, password }: { email: string; password: string }): Promise<void> => {
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
};

/** Somebody at a browser of their own. Whoever acts is brought to the front: a page behind another one draws nothing. */
const somebody = async (browser: Browser): Promise<Page> => (await browser.newContext()).newPage();

const invite = async (lead: Page, { name, email }: { name: string; email: string }, role: string): Promise<string> => {
  await lead.getByLabel('Name', { exact: true }).fill(name);
  await lead.getByLabel('E-mail').fill(email);
  await lead.getByRole('radio', { name: new RegExp(`^${role}`) }).check();
  await lead.getByRole('button', { name: 'Make a link' }).click();
  const link = (await lead.locator('.made .link').textContent())!.trim();
  await lead.getByRole('button', { name: 'Done' }).click();
  return link;
};

const join = async (page: Page, link: string, { name, password }: { name: string; password: string }): Promise<void> => {
  await page.goto(link);
  await expect(page.getByLabel(/^Your name/)).toHaveValue(name);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(page.getByRole('heading', { name: 'Caseload' })).toBeVisible();
};

/** On the own account, from the password to the codes for when the authenticator is lost. @returns the authenticator */
const setUpFactor = async (page: Page, { password }: { password: string }): Promise<TOTP> => {
  await page.getByLabel('Your password').fill(password);
  await page.getByRole('button', { name: 'Begin' }).click();
  const totp = new TOTP({ secret: Secret.fromBase32((await page.locator('.secret').textContent())!.trim()) });
  expect(await axe(page)).toEqual([]);
  await page.getByLabel('Six digits').fill(totp.generate({ timestamp: Date.now() - 30_000 }));
  await page.getByRole('button', { name: 'Use it from now on' }).click();
  await expect(page.getByRole('list', { name: 'Codes for when the authenticator is lost' }).getByRole('listitem')).toHaveCount(10);
  return totp;
};

test.describe.configure({ mode: 'serial' });

test('a clinic begins from nothing: founded, people invited, a second factor, each does their part', async ({ browser, page }) => {
  // The first visitor, with the code that the server printed.
  await page.goto(stack.url);
  await page.getByRole('link', { name: 'found it' }).click();
  const founding = async (code: string): Promise<void> => {
    for (const [label, text] of [
      ['Code that the server printed', code],
      ['Name of the clinic', 'Tidewater Rooms'],
      ['Your name', LEAD.name],
      ['Your e-mail', LEAD.email],
      ['Password', LEAD.password],
    ] as const)
      await page.getByLabel(label).fill(text);
    await page.getByRole('button', { name: 'Found the clinic' }).click();
  };
  await founding('not-the-code');
  await expect(page.getByText('is not the code that the server printed')).toBeVisible();
  expect(await axe(page)).toEqual([]);
  await founding(stack.server.foundingCode!);
  await expect(page.getByRole('heading', { name: 'People of the clinic' })).toBeVisible();

  // Half an invitation survives a reload.
  await page.getByLabel('Name', { exact: true }).fill('Fen');
  await page.reload();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Fen');
  const [forExaminer, forAssistant] = [await invite(page, EXAMINER, 'examiner'), await invite(page, ASSISTANT, 'assistant')];
  expect(await axe(page)).toEqual([]);

  const [examiner, assistant] = [await somebody(browser), await somebody(browser)];
  await join(examiner, forExaminer, EXAMINER);
  await join(assistant, forAssistant, ASSISTANT);
  // A link works once.
  const late = await somebody(browser);
  await late.goto(forExaminer);
  await expect(late.getByText('was used, was taken back, or has run out')).toBeVisible();

  // The examiner's second factor.
  await examiner.bringToFront();
  await examiner.locator('header .you').click();
  await examiner.getByRole('menuitem', { name: 'Your account' }).click();
  const totp = await setUpFactor(examiner, EXAMINER);
  await signOut(examiner);
  await signIn(examiner, EXAMINER);
  await examiner.getByLabel('Code of your authenticator').fill(totp.generate());
  await examiner.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(examiner.getByRole('heading', { name: 'Caseload' })).toBeVisible();

  // The assistant adds somebody who comes to a screen, and is not offered what is not theirs.
  await assistant.bringToFront();
  await assistant.getByRole('button', { name: 'Add patient' }).click();
  await assistant.getByLabel('Given name').fill('Ilka');
  await assistant.getByLabel('Family name').fill('Marsh');
  await assistant.getByRole('dialog').getByLabel('Birth date').fill('1970-04-01');
  await assistant.getByRole('textbox', { name: 'Complaint' }).fill('stiff left hip');
  await assistant.getByRole('dialog').getByRole('button', { name: 'Add patient' }).click();
  await assistant.getByRole('button', { name: 'Start visit 1' }).click();
  await expect(assistant).toHaveURL(/\/visits\/[0-9a-f-]+\/screen/);
  const visit = /\/visits\/([0-9a-f-]+)/.exec(assistant.url())![1]!;
  await assistant.goto(`${stack.url}/visits/${visit}/measure`);
  await expect(assistant.getByText('You are an assistant here')).toBeVisible();
  await expect(assistant.getByRole('button', { name: 'Hold reading' })).toBeDisabled();
  await expect(assistant.getByRole('button', { name: 'Clinic', exact: true })).toBeVisible();
  await assistant.getByRole('button', { name: 'Clinic', exact: true }).click();
  await expect(assistant.getByRole('menuitem', { name: 'People of the clinic' })).toBeHidden();
  await assistant.keyboard.press('Escape');

  // The examiner measures and signs what the assistant began; the lead countersigns.
  const readings = `${stack.url}/api/visits/${visit}/readings`;
  const reading = { motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine', instrument: 'goniometer', end: 98 };
  const held = await examiner.request.post(readings, { data: { id: crypto.randomUUID(), ...reading, heldAt: new Date().toISOString() } });
  expect(held.status()).toBe(200);
  await examiner.bringToFront();
  await examiner.goto(`${stack.url}/visits/${visit}/judge`);
  await examiner.getByRole('button', { name: 'Sign the visit' }).click();
  await examiner.getByRole('dialog').getByRole('button', { name: 'Sign', exact: true }).click();
  await expect(examiner.getByText(`by ${EXAMINER.name}`)).toBeVisible();
  await page.bringToFront();
  await page.goto(`${stack.url}/visits/${visit}/judge`);
  await page.getByRole('button', { name: 'Countersign' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Countersign' }).click();
  await expect(page.getByText(`countersigned by ${LEAD.name}`)).toBeVisible();

  // The queue has moved: nothing is left to sign; the episode is ended, and is found among the discharged.
  await page.goto(`${stack.url}/caseload`);
  await expect(page.locator('.counts')).toContainText('0 need you');
  await page.getByRole('link', { name: /Ilka Marsh/ }).click();
  await expect(page.locator('dg-story')).toContainText('Left hip flexion, passive');
  await page.getByRole('button', { name: 'Discharge' }).click();
  await page.getByRole('dialog').getByLabel('Outcome').click();
  await page.getByRole('option', { name: 'goals met' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Discharge' }).click();
  await expect(page.getByText(/discharged .* by Juno Fell: goals met/)).toBeVisible();
  await page.goto(`${stack.url}/caseload`);
  await expect(page.getByText('Nobody is in care yet')).toBeVisible();
  await page.getByRole('button', { name: 'discharged' }).click();
  await expect(page.getByRole('link', { name: /Ilka Marsh/ })).toBeVisible();

  // Whoever leaves is signed out at once, and stays on record by name.
  await fromClinicMenu(page, /People of the clinic/);
  await page.getByRole('button', { name: `Close account: ${EXAMINER.name}` }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Close the account' }).click();
  await expect(page.getByText(`The account of ${EXAMINER.name} is closed.`)).toBeVisible();
  await examiner.reload();
  await expect(examiner.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();

  // The lead reads who looked at what; nobody else does.
  await fromClinicMenu(page, /Who looked at what/);
  const rows = page.locator('tbody tr');
  await expect(rows.filter({ hasText: EXAMINER.name }).filter({ hasText: 'entered into a signature' })).toHaveCount(1);
  await expect(rows.filter({ hasText: ASSISTANT.name }).filter({ hasText: 'Ilka Marsh' }).first()).toBeVisible();
  expect(await axe(page)).toEqual([]);
  expect((await assistant.request.get(`${stack.url}/api/audit`)).status()).toBe(403);
});

test('a second factor that is asked of everybody is set up before anything else opens', async ({ browser, page }) => {
  await page.goto(`${stack.url}/account`);
  await signIn(page, LEAD);
  await setUpFactor(page, LEAD);
  await fromClinicMenu(page, /People of the clinic/);
  await expect(page.getByText('Left to each. One person has none.')).toBeVisible();
  await page.getByRole('button', { name: 'Ask it of everybody' }).click();
  await expect(page.getByText('Asked of everybody who signs in since')).toBeVisible();
  expect(await axe(page)).toEqual([]);

  const assistant = await somebody(browser);
  await assistant.goto(`${stack.url}/class`);
  await signIn(assistant, ASSISTANT);
  await expect(assistant).toHaveURL(/\/account$/);
  await expect(assistant.getByText('Your clinic asks a second factor of everybody.')).toBeVisible();
  await assistant.goto(`${stack.url}/caseload`);
  await expect(assistant).toHaveURL(/\/account$/);
  await setUpFactor(assistant, ASSISTANT);
  await assistant.getByRole('button', { name: 'I have them' }).click();
  await assistant.getByRole('link', { name: 'Caseload' }).click();
  await expect(assistant.getByRole('heading', { name: 'Caseload' })).toBeVisible();
});
