import { createHash } from 'node:crypto';
import { cp, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { inRoot } from '../../bin/lib/paths.mjs';
import { allSaved, axe, DEMO, entry, expect, hold, signIn, signOut, startVisit, test } from '../fixtures';

test.describe.configure({ mode: 'serial' });
test.use({ serviceWorkers: 'allow' });

/** Right side first, in supine. */
const TEN = ['101', '96', '117', '108', '28', '26', '32', '19', '21', '20'];

/** All that the program is made of lies on this device, and so does what is needed today. */
async function isKept(page: Page): Promise<void> {
  await expect
    .poll(
      () =>
        page.evaluate(async () => {
          const { assetGroups } = (await (await fetch('/ngsw.json')).json()) as { assetGroups: { name: string; urls: string[] }[] };
          const urls = assetGroups.find(({ name }) => name === 'program')?.urls ?? [''];
          const there = await Promise.all(urls.map((url) => caches.match(url)));
          return there.filter((kept) => !kept).length;
        }),
      { timeout: 60_000 },
    )
    .toBe(0);
}

/** The keys of what one of the browser's own databases holds. */
const keysOf = (page: Page, name: string, store: string): Promise<string[]> =>
  page.evaluate(
    ([database, held]) =>
      new Promise<string[]>((resolve) => {
        const asked = indexedDB.open(database!);
        asked.onsuccess = () => {
          const keys = asked.result.transaction(held!).objectStore(held!).getAllKeys();
          keys.onsuccess = () => (asked.result.close(), resolve(keys.result.map(String)));
        };
      }),
    [name, store],
  );

/** What is kept of answers, by what was asked. */
const atHand = (page: Page) => keysOf(page, 'dial-gauge-at-hand', 'answers');

test('without a network the program opens cold, an exam of ten readings goes on, and all is there once when it is back', async ({
  page,
  context,
  stack,
}) => {
  await signIn(page, stack);
  await startVisit(page, /Odalys Brandt/);
  const visit = page.url();
  await isKept(page);
  await expect.poll(async () => (await atHand(page)).filter((key) => key === '/api/norms?').length).toBe(1);
  await page.close();
  await stack.server.kill();

  const cold = await context.newPage();
  await test.step('the caseload, the patient and the visit of today are at hand, and say from when they are', async () => {
    await cold.goto(`${stack.url}/caseload`);
    await expect(cold.getByRole('heading', { name: 'Caseload' })).toBeVisible();
    await expect(cold.getByText('The server is away')).toBeVisible();
    await expect(cold.getByText(/^as it was at \d\d:\d\d/)).toBeVisible();
    expect(await axe(cold)).toEqual([]);
    await cold.getByRole('link', { name: /Odalys Brandt/ }).click();
    await expect(cold.getByRole('heading', { name: 'Odalys Brandt' })).toBeVisible();
    await expect(cold.getByText('The server is away')).toBeVisible();
  });

  await test.step('the library is', async () => {
    await cold.goto(`${stack.url}/library`);
    await cold.getByRole('searchbox').fill('hip flexion');
    await expect(cold.getByRole('link', { name: /Hip flexion/ }).first()).toBeVisible();
  });

  await test.step('ten readings are held, and wait over another cold start', async () => {
    await cold.goto(visit);
    await expect(entry(cold)).toBeFocused();
    for (const reading of TEN) await hold(cold, reading);
    await expect(cold.getByText('10 waiting to be saved')).toBeVisible();
    // By the browser itself, and not only by the page.
    await expect.poll(async () => (await keysOf(cold, 'dial-gauge-outbox', 'letters')).length).toBe(10);
    await cold.close();
  });

  const again = await context.newPage();
  await again.goto(visit);
  await expect(again.getByText('10 waiting to be saved')).toBeVisible();
  await expect(again.getByLabel('right hip flexion, active: 101 degrees')).toBeVisible();
  await stack.server.start();
  await allSaved(again, 10);
  await again.reload();
  await allSaved(again, 10);
  await expect(again.getByText('The server is away')).toBeHidden();
  const held = await again.evaluate(async (id) => {
    const record = (await (await fetch(`/api/visits/${id}`)).json()) as { measurements: { trials: { end: number }[] }[] };
    return record.measurements.flatMap(({ trials }) => trials.map(({ end }) => String(end)));
  }, visit.split('/').at(-2)!);
  expect(held.sort()).toEqual([...TEN].sort());
});

test('signed out nothing is at hand any more, also where the server could not be told', async ({ page, context, stack }) => {
  await signIn(page, stack);
  await isKept(page);
  expect((await atHand(page)).length).toBeGreaterThan(1);
  await stack.server.kill();
  await signOut(page);
  await expect(page.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
  expect(await atHand(page)).toEqual([]);
  await page.close();
  const cold = await context.newPage();
  await cold.goto(`${stack.url}/caseload`);
  await expect(cold.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
  await stack.server.start();
  // The browser still has what it was signed in with: the server is told before anything is shown.
  await cold.goto(`${stack.url}/caseload`);
  await expect(cold.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
  expect(await cold.evaluate(async () => (await fetch('/api/session')).status)).toBe(401);
});

test('a new version is offered, and what waits is still there when it is taken up', async ({ page, stack }) => {
  const folder = await mkdtemp(join(tmpdir(), 'dial-gauge-next-'));
  await cp(inRoot('web/dist/web/browser'), folder, { recursive: true });
  const server = await stack.serve({ DIAL_GAUGE_WEB_ROOT: folder });
  await page.goto(`${server.url}/caseload`);
  await page.getByLabel('E-mail').fill(DEMO.email);
  await page.getByLabel('Password', { exact: true }).fill(DEMO.password);
  await page.keyboard.press('Enter');
  await startVisit(page, /Odalys Brandt/);
  await isKept(page);
  await page.route('**/api/visits/*/readings', (route) => route.abort());
  await hold(page, '88');
  await expect(page.getByText('1 waiting to be saved')).toBeVisible();

  // Another version of the program: of one of its files, and so of the list of them.
  const name = '/manifest.webmanifest';
  const changed = (await readFile(join(folder, name), 'utf8')).replace('"Dial Gauge"', '"Dial Gauge, the next"');
  const list = JSON.parse(await readFile(join(folder, 'ngsw.json'), 'utf8')) as { timestamp: number; hashTable: Record<string, string> };
  list.timestamp += 1;
  list.hashTable[name] = createHash('sha1').update(changed).digest('hex');
  await writeFile(join(folder, name), changed);
  await writeFile(join(folder, 'ngsw.json'), JSON.stringify(list));
  await page.evaluate(() => dispatchEvent(new Event('online')));
  // It is in the middle of an exam, and stays there.
  await expect(page.getByRole('button', { name: 'Use it now' })).toBeVisible();
  await expect(entry(page)).toBeFocused();
  await Promise.all([page.waitForEvent('load'), page.getByRole('button', { name: 'Use it now' }).click()]);
  await expect(page.getByText('1 waiting to be saved')).toBeVisible();
  expect(await page.evaluate(async () => ((await (await fetch('/manifest.webmanifest')).json()) as { name: string }).name)).toBe(
    'Dial Gauge, the next',
  );
  await page.unroute('**/api/visits/*/readings');
  await allSaved(page, 1);
  await server.stop();
  await rm(folder, { recursive: true, force: true });
});
