import { chromium } from '@playwright/test';
import { startStack } from '../bin/lib/stack.mjs';

/** Right side first, as the run sheet of the ready set has it: hip and knee supine, then hip rotation prone. */
const READINGS = [
  [112, 115, 121, 123, 41, 39, 46, 44, 131, 128, 137, 135, 0, -2, 2, 1],
  [34, 31, 39, 36, 38, 40, 45, 46],
];

/**
 * A 24-reading hip-and-knee exam through the real interface, real server and
 * real database, by keyboard alone: how many keys, and how long the machine
 * takes between a key and the picture that answers it.
 *
 * @returns keys by kind, milliseconds from Enter to the next place drawn, and to the last acknowledgement
 */
export async function examByKeyboard() {
  const stack = await startStack();
  const browser = await chromium.launch({
    executablePath: process.env.CHROME_BIN ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu', '--disable-background-networking'],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(stack.url);
    await page.getByLabel('E-mail').fill('wren@saltmarsh.example');
    await page.getByLabel('Password').fill('tide-and-table');
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
    await page.getByRole('link', { name: /Odalys/ }).click();
    await page.getByRole('button', { name: /Start visit/ }).click();
    await page.getByRole('option', { name: 'As last time' }).click();
    await page.getByRole('option', { name: 'Hip and knee', exact: true }).click();
    await page.getByRole('button', { name: 'None of these' }).click();
    await page.getByText('Nothing stands against measuring').waitFor();
    await page.getByRole('button', { name: 'Start measuring' }).click();
    await page.getByLabel(/^Reading in /).waitFor();
    // From the key to the frame after the page has changed, as the browser itself sees it.
    await page.evaluate(() => {
      globalThis.drawn = [];
      globalThis.addEventListener(
        'keydown',
        (event) => {
          if (event.key !== 'Enter') return;
          const at = performance.now();
          globalThis.requestAnimationFrame(() => setTimeout(() => globalThis.drawn.push(performance.now() - at)));
        },
        true,
      );
    });
    const keys = { digits: 0, enter: 0, turn: 0 };
    const started = performance.now();
    for (const [block, readings] of READINGS.entries()) {
      if (block > 0) {
        await page.getByRole('heading', { name: 'Turn patient prone' }).waitFor();
        await page.keyboard.press('Enter');
        keys.turn += 1;
      }
      for (const reading of readings) {
        const text = String(reading);
        await page.keyboard.type(text);
        await page.keyboard.press('Enter');
        keys.digits += text.length;
        keys.enter += 1;
      }
    }
    await page.getByText(/^24 readings saved$/).waitFor();
    const whole = performance.now() - started;
    const drawn = await page.evaluate(() => globalThis.drawn);
    return { keys, drawn, whole };
  } finally {
    await browser.close();
    await stack.stop();
  }
}

/**
 * Pen strokes and sums of a paper form with the same content, counted: motion,
 * side and mode are printed on it, so only what a hand writes and works out
 * counts. A character is one stroke of the count, whatever its shape.
 */
export function examOnPaper() {
  const readings = READINGS.flat();
  const written = readings.reduce((sum, reading) => sum + String(reading).length, 0);
  // Each of 6 motions: left less right twice, passive less active twice; every reading against a book's norm and the last form.
  const sums = { sideDifferences: 12, activePassiveGaps: 12, shortOfNorm: 24, changes: 24 };
  // A result has two characters.
  const working = 2 * Object.values(sums).reduce((a, b) => a + b, 0);
  return { characters: written, lookedUp: 12, sums, charactersOfResults: working };
}
