/* global document, requestAnimationFrame -- inside evaluate() this is the page */
import { chromium } from '@playwright/test';

const ROUNDS = 12;

/**
 * The Progress page with many motions: from pressing a small chart to the
 * frame in which the large one is drawn.
 *
 * @param series what the server would answer
 */
export async function benchProgressPage(stack, series) {
  const browser = await chromium.launch({
    executablePath: process.env.CHROME_BIN ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu', '--disable-background-networking'],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
    await page.goto(stack.url);
    await page.getByLabel('E-mail').fill('wren@saltmarsh.example');
    await page.getByLabel('Password').fill('tide-and-table');
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
    await page.getByRole('link', { name: /Odalys/ }).click();
    await page.route('**/api/visits/*/progress', async (route) => {
      const real = await (await route.fetch()).json();
      await route.fulfill({ json: { ...real, series } });
    });
    await page.getByRole('link', { name: 'Progress, visit 2' }).click();
    await page.locator('dg-small-multiples button').first().waitFor();
    return await page.evaluate(async (rounds) => {
      const tiles = [...document.querySelectorAll('dg-small-multiples button')];
      const drawn = [];
      for (let round = 0; round < rounds; round += 1) {
        const tile = tiles[(round * 7) % tiles.length];
        await new Promise((resolve) => setTimeout(resolve, 60));
        const from = performance.now();
        tile.click();
        // The framework draws in a turn of its own, before the next frame.
        await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
        drawn.push(performance.now() - from);
      }
      return { tiles: tiles.length, drawn: drawn.sort((a, b) => a - b) };
    }, ROUNDS);
  } finally {
    await browser.close();
  }
}
