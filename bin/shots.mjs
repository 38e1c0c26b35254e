import { mkdirSync, writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { buildAll } from './lib/build.mjs';
import { DEEPEST, landmarksOf, SIZE } from './lib/drawn.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { inRoot } from './lib/paths.mjs';
import { main, say, Stop } from './lib/say.mjs';
import { startStack } from './lib/stack.mjs';

/** Bytes below which a picture of a whole page shows next to nothing. */
const LEAST = 20_000;
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };
/** Four telephones in a row. */
const ROW = { width: 4 * PHONE.width + 5 * 20, height: PHONE.height + 40 };

/** One current picture of every main view, from fresh demo data. */
const SHOTS = [
  {
    name: 'caseload',
    size: DESK,
    open: async (page, go) => {
      await go.signIn();
      await page.getByText('being looked at').first().waitFor({ state: 'hidden' });
    },
  },
  {
    name: 'own-people',
    size: DESK,
    open: async (page, go, url) => {
      await go.signIn();
      await page.goto(`${url}/own-people`);
      await page.locator('dg-spread-rule').first().waitFor();
    },
  },
  { name: 'patient', size: DESK, open: (page, go) => go.patient(/Odalys/) },
  // Before Prepare, where another limit is set: pictures share one clinic.
  { name: 'report', size: DESK, open: (page, go) => report(page, go, 'the referrer') },
  { name: 'own-page', size: PHONE, open: (page, go) => ownPage(page, go) },
  { name: 'prepare', size: DESK, open: (page, go) => prepare(page, go) },
  {
    name: 'screen',
    size: DESK,
    open: async (page, go) => {
      await go.step(/Ottoline/, 'Screen', 1);
      await page.getByRole('button', { name: /Squat, side left/ }).click();
      await page.mouse.move(0, 0);
    },
  },
  {
    name: 'limits',
    size: DESK,
    open: async (page, go) => {
      await go.step(/Ottoline/, 'Screen', 1);
      await page.locator('dg-screen-sheet').waitFor();
      await page.goto(page.url().replace('/screen', '/limits?pattern=squat.kneeRollsIn&side=left'));
      await page.locator('.box.question').first().waitFor();
    },
  },
  { name: 'measure', size: DESK, open: (page, go) => measure(page, go) },
  {
    name: 'judge',
    size: DESK,
    open: async (page, go) => {
      await go.step(/Odalys/, 'Judge');
      await page.locator('dg-findings ol summary').nth(1).click();
      await page.mouse.move(0, 0);
    },
  },
  { name: 'library', size: DESK, open: (page, go, url) => library(page, go, `${url}/library`, 'hip rotation') },
  { name: 'people', size: DESK, open: (page, go, url) => people(page, go, url) },
  { name: 'progress', size: DESK, open: (page, go) => progress(page, go) },
  {
    name: 'decide',
    size: DESK,
    open: async (page, go) => {
      await go.step(/Odalys/, 'Decide');
      await page.locator('dg-pose-figure').first().waitFor();
      await page.mouse.move(0, 0);
    },
  },
  { name: 'phone', size: PHONE, touch: true, open: (page, go, url, browser) => phone(page, url, browser) },
  { name: 'picture', size: DESK, open: (page, go) => picture(page, go) },
  { name: 'practice', size: DESK, open: (page, go, url) => practice(page, go, url) },
  // The last of all: there is something to read.
  { name: 'audit', size: DESK, open: (page, go, url) => audit(page, go, url) },
  { name: 'clinic-phone', size: ROW, open: (page, _go, url, browser) => clinicOnPhone(page, url, browser) },
];

/** Who works there, with somebody who is invited. */
async function people(page, go, url) {
  await go.signIn();
  await page.goto(`${url}/staff`);
  await page.getByLabel('Name', { exact: true }).fill('Fenn Corrie');
  await page.getByLabel('E-mail').fill('fenn@saltmarsh.example');
  await page.getByRole('button', { name: 'Make a link' }).click();
  await page.getByRole('button', { name: 'Done' }).click();
}

/** What a clinic is run by, on a telephone: the queue, somebody's story, who works there, who looked at what. */
async function clinicOnPhone(page, url, browser) {
  const context = await browser.newContext({ viewport: PHONE, locale: 'en-GB', reducedMotion: 'reduce', hasTouch: true, isMobile: true });
  const phone = await context.newPage();
  const go = actions(phone, url);
  const views = [];
  const take = async () => {
    await phone.waitForTimeout(300);
    views.push(`<img width="${PHONE.width}" src="data:image/png;base64,${(await phone.screenshot()).toString('base64')}" />`);
  };
  await go.signIn();
  await phone.getByText('being looked at').first().waitFor({ state: 'hidden' });
  await take();
  await phone.getByRole('link', { name: /Odalys/ }).click();
  await phone.locator('dg-story dl').first().waitFor();
  await take();
  await phone.goto(`${url}/staff`);
  await phone.getByRole('heading', { name: 'Accounts' }).waitFor();
  await take();
  await phone.goto(`${url}/audit`);
  await phone.locator('tbody tr').first().waitFor();
  await take();
  await context.close();
  // The program's own page lets no style in.
  await page.goto('about:blank');
  await page.setContent(`<body style="margin:0;padding:20px;display:flex;gap:20px;background:#c9c4b8">${views.join('')}</body>`);
  await page.waitForFunction('[...document.images].every((image) => image.complete)');
}

/** Who looked at what, after some of it. */
async function audit(page, go, url) {
  await go.step(/Corin/, 'Judge', 8);
  await page.goto(`${url}/audit`);
  await page.locator('tbody tr').first().waitFor();
}

/** The ferry engineer's last visit as it goes out. */
async function report(page, go, whom) {
  await go.step(/Corin/, 'Report', 8);
  await page.getByRole('button', { name: new RegExp(whom) }).click();
  await page.locator('dg-sheet').waitFor();
  await page.waitForLoadState('networkidle');
  await page.mouse.move(0, 0);
}

/** A goniometer that was read with the eye askew: the line seemed to lie elsewhere. */
async function practice(page, go, url) {
  await go.signIn();
  await page.goto(`${url}/practice`);
  await page.getByRole('button', { name: 'Ten of these: Read the goniometer' }).click();
  await page.getByText('1 of 10').waitFor();
  await page.getByLabel('It reads').fill('68');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Next task' }).waitFor();
  await page.mouse.move(0, 0);
}

/** The same at home: two drills ticked, little pain. */
async function ownPage(page, go) {
  await report(page, go, 'the referrer');
  await page.getByRole('button', { name: 'Make a page' }).click();
  const link = await page.locator('.made .link').innerText();
  const code = await page.locator('.made .code').innerText();
  await page.goto(link);
  await page.getByLabel('Code').fill(code);
  await page.getByRole('button', { name: 'Open my page' }).click();
  const drills = page.getByRole('button', { name: /^Done: / });
  await drills.nth(1).click();
  await drills.nth(0).click();
  await page.mouse.wheel(0, 200);
  await page.waitForTimeout(300);
}

async function measure(page, go) {
  await go.step(/Odalys/, 'Measure');
  await page.getByLabel(/^left hip internal rotation, passive: /).click();
  await page.getByRole('button', { name: /Patient is prone/ }).click();
  await page.mouse.move(0, 0);
}

/** The ferry engineer's next visit: a limit, two sets, fewer minutes than they take. */
async function prepare(page, go) {
  await go.newVisit(/Corin/);
  // Pictures share one clinic: the limit is entered once.
  const limit = page.locator('dg-precautions li').filter({ hasText: 'letter after week 12' });
  if ((await limit.count()) === 0) {
    await page.getByRole('button', { name: 'Add a precaution' }).click();
    await page.getByLabel('Motion').fill('Knee flexion');
    await page.getByRole('option', { name: 'Knee flexion', exact: true }).click();
    await page.getByLabel(/^Not past/).fill('110');
    await page.getByLabel('Set by').fill('surgeon, letter after week 12');
    await page.getByRole('button', { name: 'Add precaution' }).click();
    await limit.waitFor();
  }
  await page.getByRole('option', { name: 'Knee after replacement' }).click();
  await page.getByRole('option', { name: 'Hip', exact: true }).click();
  await page.getByRole('button', { name: 'None of these' }).click();
  await page.getByText('Nothing stands against measuring').waitFor();
  await page.getByLabel('minutes I have').fill('8');
  await page.keyboard.press('Tab');
  await page.mouse.move(0, 0);
}

/** Eight visits after a knee replacement: what moved, what stands still, whose reading stands apart. */
async function progress(page, go) {
  await go.step(/Corin/, 'Progress', 8);
  await page.getByRole('button', { name: 'Flexion, passive' }).first().click();
  await page.mouse.move(0, 0);
}

/** A phone that is one, 47° from its zero. */
async function phone(page, url, browser) {
  const desk = await (await browser.newContext({ viewport: DESK, locale: 'en-GB' })).newPage();
  const go = actions(desk, url);
  await go.startVisit(desk, /Odalys/, 'Hip');
  await desk.keyboard.press('d');
  await desk.getByRole('button', { name: 'A phone, by a code' }).click();
  const code = (await desk.locator('.digits').innerText()).replace(' ', '');
  await page.goto(`${url}/phone`);
  await page.getByLabel('Code').fill(code);
  await page.getByRole('button', { name: 'Pair this phone' }).tap();
  await page.getByRole('button', { name: 'Let it read the tilt' }).tap();
  const session = await page.context().newCDPSession(page);
  const tilt = async (beta, gamma) => {
    await session.send('DeviceOrientation.setDeviceOrientationOverride', { alpha: 0, beta, gamma });
    await page.waitForTimeout(60);
  };
  for (let n = 0; n < 8; n += 1) await tilt(0, 89);
  await page.getByRole('button', { name: 'Set zero' }).tap();
  for (let beta = 0; beta <= 47; beta += 3) await tilt(beta, 88);
  for (let n = 0; n < 8; n += 1) await tilt(47, 86);
  await page.getByText('left hip flexion, active').or(page.getByText('right hip flexion, active')).waitFor();
  await desk.context().close();
}

/** The drawn squat, marked. */
async function picture(page, go) {
  await go.startVisit(page, /Ottoline/, 'Knee');
  await page.goto(page.url().replace('/measure', '/picture'));
  await page.getByRole('button', { name: 'a drawn still' }).click();
  const stage = page.locator('dg-picture-stage svg');
  await stage.waitFor();
  const points = landmarksOf(DEEPEST);
  for (const name of ['shoulder', 'hip', 'knee', 'ankle']) {
    const box = await stage.boundingBox();
    const [x, y] = points[name];
    await page.mouse.click(box.x + (x / SIZE.width) * box.width, box.y + (y / SIZE.height) * box.height);
  }
  await page.mouse.move(0, 0);
}

async function library(page, go, address, words) {
  await go.signIn();
  await page.goto(address);
  if (words) await page.getByRole('searchbox').fill(words);
  await page.waitForLoadState('networkidle');
}

const actions = (page, url) => {
  const go = {
    async signIn() {
      await page.goto(url);
      await page.getByLabel('E-mail').fill('wren@saltmarsh.example');
      await page.getByLabel('Password').fill('tide-and-table');
      await page.getByRole('button', { name: 'Sign in', exact: true }).click();
      await page.locator('dg-caseload li').first().waitFor();
    },
    async patient(name) {
      await go.signIn();
      await page.getByRole('link', { name }).click();
      await page.getByText('in care since').first().waitFor();
      await page.locator('dg-story dl').first().waitFor();
    },
    async newVisit(name) {
      await go.patient(name);
      await page.getByRole('button', { name: /Start visit/ }).click();
      await page.getByRole('heading', { name: 'Why they came' }).waitFor();
      await page.waitForLoadState('networkidle');
    },
    async startVisit(page, name, set) {
      await go.newVisit(name);
      if (set) {
        await page.getByRole('option', { name: 'As last time' }).click();
        await page.getByRole('option', { name: set, exact: true }).click();
      }
      await page.getByRole('button', { name: 'None of these' }).click();
      await page.getByText('Nothing stands against measuring').waitFor();
      await page.getByRole('button', { name: 'Start measuring' }).click();
      await page.getByLabel(/^Reading in /).waitFor();
    },
    async step(name, step, visit = 2) {
      await go.patient(name);
      await page.getByRole('link', { name: `${step}, visit ${visit}`, exact: true }).click();
      await page.waitForLoadState('networkidle');
    },
  };
  return go;
};

await main(async () => {
  needNode();
  await needDebian('mariadb-server', 'chromium');
  await needPackages();
  await buildAll();
  const folder = inRoot('docs/screenshots');
  mkdirSync(folder, { recursive: true });
  const stack = await startStack();
  const browser = await chromium.launch({
    executablePath: process.env.CHROME_BIN ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu', '--disable-background-networking'],
  });
  try {
    for (const { name, size, dark, touch, open } of SHOTS) {
      const context = await browser.newContext({
        viewport: size,
        locale: 'en-GB',
        colorScheme: dark ? 'dark' : 'light',
        reducedMotion: 'reduce',
        hasTouch: touch ?? false,
        isMobile: touch ?? false,
      });
      const page = await context.newPage();
      await page.goto(stack.url);
      await open(page, actions(page, stack.url), stack.url, browser);
      await page.evaluate('document.fonts.ready');
      await page.waitForTimeout(300);
      const picture = await page.screenshot();
      // A page that is almost empty shows nothing, whatever it was meant to show.
      if (picture.length < LEAST) throw new Stop(`${name} is almost empty (${picture.length} bytes): it is not kept`);
      writeFileSync(`${folder}/${name}.png`, picture);
      await context.close();
      say(`docs/screenshots/${name}.png`);
    }
  } finally {
    await browser.close();
    await stack.stop();
  }
});
