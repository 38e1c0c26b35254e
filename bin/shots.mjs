import { mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { buildAll } from './lib/build.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { inRoot } from './lib/paths.mjs';
import { main, say } from './lib/say.mjs';
import { startStack } from './lib/stack.mjs';

const DESK = { width: 1280, height: 800 };
const TABLET = { width: 820, height: 1180 };

/** One current picture of every main view, from fresh demo data. */
const SHOTS = [
  { name: 'sign-in', size: DESK, open: () => {} },
  { name: 'caseload', size: DESK, open: (page, go) => go.signIn() },
  { name: 'patient', size: DESK, open: (page, go) => go.patient(/Odalys/) },
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
  { name: 'judge-dark', size: DESK, dark: true, open: (page, go) => go.step(/Tamsin/, 'Judge') },
  { name: 'measure-two-sites', size: DESK, open: (page, go) => lowBack(page, go) },
  { name: 'library', size: DESK, open: (page, go, url) => library(page, go, `${url}/library`, 'hip rotation') },
  { name: 'protocol', size: DESK, open: (page, go, url) => library(page, go, `${url}/library/hip/internalRotation/prone`) },
  { name: 'protocol-tablet', size: TABLET, open: (page, go, url) => library(page, go, `${url}/library/knee/flexion/supine`) },
  { name: 'norms', size: DESK, open: (page, go, url) => library(page, go, `${url}/norms`) },
  { name: 'progress', size: DESK, open: (page, go) => go.step(/Odalys/, 'Progress') },
];

async function measure(page, go) {
  await go.step(/Odalys/, 'Measure');
  await page.getByLabel(/^left hip internal rotation, passive: /).click();
  await page.mouse.move(0, 0);
}

/** A low-back exam begun: two sites typed, not held yet. */
async function lowBack(page, go) {
  await go.patient(/Tamsin/);
  await page.getByRole('combobox', { name: 'Measure' }).focus();
  await page.keyboard.type('Low');
  // The list waits for more letters before it chooses.
  await page.getByRole('combobox', { name: 'Measure' }).filter({ hasText: 'Low back' }).waitFor();
  await page.getByRole('button', { name: /Start visit/ }).click();
  await page.getByText('Run sheet').waitFor();
  await page.keyboard.type('104/49');
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
      await page.getByRole('button', { name: 'Sign in' }).click();
      await page.getByText('in care').waitFor();
    },
    async patient(name) {
      await go.signIn();
      await page.getByRole('link', { name }).click();
      await page.getByText('in care since').waitFor();
    },
    async step(name, step) {
      await go.patient(name);
      await page.getByRole('link', { name: `${step}, visit 2` }).click();
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
      const context = await browser.newContext({ viewport: size, colorScheme: dark ? 'dark' : 'light', reducedMotion: 'reduce' });
      const page = await context.newPage();
      await page.goto(stack.url);
      await open(page, actions(page, stack.url), stack.url);
      await page.evaluate('document.fonts.ready');
      await page.waitForTimeout(300);
      await page.screenshot({ path: `${folder}/${name}.png` });
      await context.close();
      say(`docs/screenshots/${name}.png`);
    }
  } finally {
    await browser.close();
    await stack.stop();
  }
});
