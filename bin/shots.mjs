import { mkdirSync, writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { buildAll } from './lib/build.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { inRoot } from './lib/paths.mjs';
import { main, say, Stop } from './lib/say.mjs';
import { startStack } from './lib/stack.mjs';

/** Bytes below which a picture of a whole page shows next to nothing. */
const LEAST = 20_000;
const DESK = { width: 1280, height: 800 };
const TABLET = { width: 820, height: 1180 };
const PHONE = { width: 390, height: 844 };

/** One current picture of every main view, from fresh demo data. */
const SHOTS = [
  {
    name: 'sign-in',
    size: DESK,
    open: async (page, go, url) => {
      await page.goto(url);
      await page.getByText('This is the demo').waitFor();
    },
  },
  { name: 'caseload', size: DESK, open: (page, go) => go.signIn() },
  { name: 'patient', size: DESK, open: (page, go) => go.patient(/Odalys/) },
  // Before Prepare, where another limit is set: pictures share one clinic.
  { name: 'report', size: DESK, open: (page, go) => report(page, go, 'the referrer') },
  { name: 'report-patient', size: DESK, open: (page, go) => report(page, go, 'the patient') },
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
  { name: 'measure-tablet', size: TABLET, open: (page, go) => measure(page, go) },
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
  { name: 'norms', size: DESK, open: (page, go, url) => library(page, go, `${url}/norms`) },
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
  { name: 'retest', size: DESK, open: (page, go) => retest(page, go) },
  { name: 'class-tablet', size: TABLET, open: (page, go, url) => classOfFour(page, go, url) },
  {
    name: 'steadiness',
    size: DESK,
    open: async (page, go, url) => {
      await library(page, go, `${url}/steadiness`);
      await page.getByRole('button', { name: /^Bootstrap/ }).click();
      await page.getByText('resamples of the people').waitFor();
      await page.mouse.move(0, 0);
    },
  },
];

/** The ferry engineer's last visit as it goes out. */
async function report(page, go, whom) {
  await go.step(/Corin/, 'Report', 8);
  await page.getByRole('button', { name: new RegExp(whom) }).click();
  await page.locator('dg-sheet').waitFor();
  await page.waitForLoadState('networkidle');
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

/** Four people, one item: a drill that helped and one that made it worse for one of them. */
async function classOfFour(page, go, url) {
  await go.signIn();
  await page.goto(`${url}/class`);
  const names = ['Ottoline', 'Tamsin', 'Odalys', 'Corin'];
  for (const name of names) await page.locator('.people li', { hasText: name }).getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Begin with 4 people' }).click();
  const row = (name) => page.locator('tr', { hasText: name });
  // The ferry engineer’s limit forbids the squat: his row says so.
  for (const [at, name] of names.slice(0, 3).entries())
    await row(name)
      .getByRole('button', { name: at === 0 ? 'short' : 'meets' })
      .click();
  for (const [drill, said] of [
    ['rock back, five breaths', ['better', 'same', 'better', 'better']],
    ['long hold', ['worse', 'same', 'better', 'same']],
  ]) {
    await page.getByLabel('The drill that is done now').fill(drill);
    await page.keyboard.press('Enter');
    for (const [at, name] of names.entries()) await row(name).getByRole('button', { name: said[at] }).click();
  }
  await page.getByText('everything saved').waitFor();
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

/** Two markers, a drill that helped and one that did not. */
async function retest(page, go) {
  await go.step(/Odalys/, 'Retest');
  await page.getByLabel(/^Left hip flexion, passive/).check();
  await page.getByLabel(/^Right hip flexion, passive/).check();
  await page.getByRole('button', { name: 'Read the baseline' }).click();
  for (const entry of ['106', '109', 'Hands-and-knees rock back', '118', '111', 'Long hold, knee to chest', '104', '110']) {
    await page.locator('.entry input').fill(entry);
    await page.keyboard.press('Enter');
  }
  await page.getByText('everything saved').waitFor();
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
      await page.getByText('in care since').waitFor();
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
    for (const { name, size, dark, open } of SHOTS) {
      const context = await browser.newContext({
        viewport: size,
        locale: 'en-GB',
        colorScheme: dark ? 'dark' : 'light',
        reducedMotion: 'reduce',
      });
      const page = await context.newPage();
      await page.goto(stack.url);
      await open(page, actions(page, stack.url), stack.url);
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
