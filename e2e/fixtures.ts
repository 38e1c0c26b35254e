import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { test as base, expect, type Page, type Request } from '@playwright/test';
import { startStack, type Stack } from '../bin/lib/stack.mjs';

export const DEMO = { email: 'wren@saltmarsh.example', password: 'tide-and-table' };
/** A second examiner of the same clinic. */
export const COLLEAGUE = { email: 'rook@saltmarsh.example', password: 'tide-and-table' };
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** One server and one database for all tests of a run; a failed test begins new ones. A failure tells what was asked of the server last. */
export const test = base.extend<object, { stack: Stack }>({
  page: async ({ page }, use, info) => {
    const asked = new Map<Request, string>();
    const since = Date.now();
    const note = (request: Request, how: string) => {
      if (!request.url().includes('/api/')) return;
      const [at] = (asked.get(request) ?? `${((Date.now() - since) / 1000).toFixed(1)} s`).split(':');
      asked.set(request, `${at}: ${request.method()} ${new URL(request.url()).pathname} ${how}`);
    };
    page.on('request', (request) => note(request, 'not answered'));
    page.on('response', (response) => note(response.request(), `${response.status()}`));
    page.on('requestfailed', (request) => note(request, request.failure()?.errorText ?? 'failed'));
    page.on('pageerror', ({ message }) => console.log(`In the page: ${message}`));
    await use(page);
    if (info.status !== info.expectedStatus)
      await info.attach('asked of the server', { body: [...asked.values()].slice(-30).reverse().join('\n'), contentType: 'text/plain' });
  },
  stack: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixture's needs from this pattern
    async ({}, use) => {
      const stack = await startStack();
      await use(stack);
      await stack.stop();
    },
    { scope: 'worker', timeout: 60_000 },
  ],
});

export { expect };

/** Signs in with the keyboard alone and ends at the caseload. */
export async function signIn(page: Page, stack: Stack, who = DEMO): Promise<void> {
  await page.goto(`${stack.url}/caseload`);
  await page.getByLabel('E-mail').focus();
  await page.keyboard.type(who.email);
  await page.keyboard.press('Tab');
  await page.keyboard.type(who.password);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Caseload' })).toBeVisible();
}

/** Is signed in and at the caseload, without the door: for what is not about it. */
export async function enter(page: Page, stack: Stack, who = DEMO): Promise<void> {
  const answer = await page.context().request.post(`${stack.url}/api/session`, { data: who });
  expect(answer.status()).toBe(200);
  await page.goto(`${stack.url}/caseload`);
  await expect(page.getByRole('heading', { name: 'Caseload' })).toBeVisible();
}

/** A page of the clinic, from the menu of the head. */
export async function fromClinicMenu(page: Page, name: RegExp): Promise<void> {
  await page.getByRole('button', { name: 'Clinic', exact: true }).click();
  await page.getByRole('menuitem', { name }).click();
}

/** From the menu that carries one's own name. */
export async function signOut(page: Page): Promise<void> {
  await page.locator('header .you').click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
}

/** Opens a patient and begins to prepare a new visit, with the keyboard alone. */
export async function prepareVisit(page: Page, patient: RegExp, ...named: string[]): Promise<void> {
  // What was measured last time depends on the tests before: it is never relied on.
  const sets = named.length > 0 ? named : ['Hip'];
  await page.getByRole('link', { name: patient }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /Start visit/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Why they came' })).toBeVisible();
  const chip = (name: string) => page.getByRole('option', { name, exact: true });
  const last = chip('As last time');
  for (const set of [...((await last.count()) > 0 ? [last] : []), ...sets.map(chip)]) {
    await set.focus();
    await page.keyboard.press('Space');
  }
  for (const set of sets) await expect(chip(set)).toHaveAttribute('aria-selected', 'true');
}

/** Nothing stands against it: on to the dial. */
export async function startMeasuring(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'None of these' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Nothing stands against measuring')).toBeVisible();
  await page.getByRole('button', { name: 'Start measuring' }).focus();
  await page.keyboard.press('Enter');
  await expect(entry(page)).toBeFocused();
}

/** Opens a patient, prepares and starts a new visit with the exam sets named; the hip where none is. */
export async function startVisit(page: Page, patient: RegExp, ...sets: string[]): Promise<void> {
  await prepareVisit(page, patient, ...sets);
  await startMeasuring(page);
}

/** The patient has been turned: said with Enter. */
export async function turn(page: Page, words: string): Promise<void> {
  await expect(page.getByRole('heading', { name: words })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: words })).toBeHidden();
}

/** The big figure. */
export const entry = (page: Page) => page.getByLabel(/^Reading in /);

/** Types one reading and holds it. */
export async function hold(page: Page, text: string): Promise<void> {
  await expect(entry(page)).toBeFocused();
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

/** Everything acknowledged by the server. */
export async function allSaved(page: Page, readings: number): Promise<void> {
  await expect(page.getByText(new RegExp(`^${readings} readings? saved$`))).toBeVisible();
}

/** Axe over the whole page, WCAG 2.2 AA and best practice; the violations in short. */
export async function axe(page: Page): Promise<string[]> {
  await page.evaluate(AXE);
  return page.evaluate(async () => {
    const { axe: run } = globalThis as unknown as {
      axe: { run: () => Promise<{ violations: { id: string; nodes: { target: unknown[]; failureSummary: string }[] }[] }> };
    };
    const { violations } = await run.run();
    return violations.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.target.join(' ')} — ${n.failureSummary}`));
  });
}
