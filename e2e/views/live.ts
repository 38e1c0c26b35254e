import { expect } from '../fixtures';
import { openVisit, type Views } from './open';

/** Instruments, phones, pictures and clips. */
export const LIVE_VIEWS: Views = {
  'the instruments over the dial': async (page, stack) => {
    await openVisit(page, stack, 'Measure', '.entry input');
    await page.locator('.entry input').focus();
    await page.keyboard.press('d');
    await page.getByRole('button', { name: 'A phone, by a code' }).click();
    await expect(page.getByRole('dialog').locator('.digits')).toBeVisible();
  },
  'simulated instruments': async (page, stack) => {
    await openVisit(page, stack, 'Measure', '.entry input');
    await page.goto(page.url().replace('/measure', '/instruments'));
    await page.getByRole('button', { name: /Two inclinometers/ }).click();
    await expect(page.locator('.device')).toHaveCount(2);
    await expect(page.getByText('Connecting …')).toHaveCount(0);
    await page.locator('summary').first().click();
  },
  'measured by an instrument': async (page, stack) => {
    await openVisit(page, stack, 'Measure', '.entry input');
    await page.locator('.entry input').focus();
    await page.keyboard.press('d');
    await page.getByRole('button', { name: 'Read what is connected' }).click();
    await page.getByRole('button', { name: 'Back to the dial' }).click();
    await expect(page.getByText('No instrument is connected yet.')).toBeVisible();
  },
  'a phone at its door': async (page, stack) => {
    await page.goto(`${stack.url}/phone`);
    await page.getByLabel('Code').fill('12');
    await page.getByRole('button', { name: 'Pair this phone' }).click();
    await expect(page.getByRole('alert')).toContainText('six digits');
  },
  'a picture': async (page, stack) => {
    await openVisit(page, stack, 'Measure', '.entry input');
    await page.goto(page.url().replace('/measure', '/picture'));
    await page.getByRole('button', { name: 'a drawn still' }).click();
    const stage = page.locator('dg-picture-stage svg');
    await expect(stage).toBeVisible();
    const marks = page.locator('dg-picture-stage .mark');
    for (const at of [0.5, 0.4, 0.3, 0.6]) {
      const box = (await stage.boundingBox())!;
      if ((await marks.count()) < 4) await stage.click({ position: { x: box.width * at, y: box.height * (1 - at) } });
    }
    await expect(page.getByText('All placed.')).toBeVisible();
  },
  'a clip looked over': async (page, stack) => {
    await openVisit(page, stack, 'Measure', '.entry input');
    await page.goto(page.url().replace('/measure', '/picture?look=over'));
    await page.getByRole('button', { name: 'a drawn clip' }).click();
    await expect(page.locator('.transport')).toBeVisible();
    await page.getByLabel('Shows').selectOption({ label: 'Squat' });
    await page.getByLabel('What of it').selectOption({ label: 'heel lifts' });
    await page.getByRole('button', { name: 'Add the mark' }).click();
    await expect(page.getByRole('button', { name: 'Take over' })).toBeVisible();
  },
  'the page for the sender of a clip': async (page, stack) => {
    await openVisit(page, stack, 'Measure', '.entry input');
    await page.goto(page.url().replace('/measure', '/picture?look=over'));
    await page.getByRole('button', { name: 'a drawn clip' }).click();
    await page.getByLabel('In words, as the sender reads them').fill('You start tall and slow.');
    await page.getByRole('button', { name: 'Add the mark' }).click();
    await page.getByRole('button', { name: 'Keep what is marked' }).click();
    await page.getByRole('link', { name: 'See the page' }).click();
    await expect(page.locator('dg-sheet')).toContainText('What we saw in your clip');
  },
};
