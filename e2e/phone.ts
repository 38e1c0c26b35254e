import type { Browser, BrowserContext, CDPSession, Page } from '@playwright/test';
import type { Stack } from '../bin/lib/stack.mjs';
import { entry, expect } from './fixtures';

/** A second browser that is a phone: its tilt is what the test says. */
export class Phone {
  private constructor(
    readonly page: Page,
    private readonly context: BrowserContext,
    private readonly session: CDPSession,
  ) {}

  static async open(browser: Browser, stack: Stack): Promise<Phone> {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, locale: 'en-GB' });
    const page = await context.newPage();
    await page.goto(`${stack.url}/phone`);
    return new Phone(page, context, await context.newCDPSession(page));
  }

  async pair(code: string): Promise<void> {
    await this.page.getByLabel('Code').fill(code);
    await this.page.getByRole('button', { name: 'Pair this phone' }).tap();
  }

  /** On its long edge against a limb: turned in the screen's plane, so far out of it. Held for a while. */
  async hold(turned: number, out = 0, moments = 14): Promise<void> {
    for (let i = 0; i < moments; i += 1) {
      const beta = turned;
      await this.session.send('DeviceOrientation.setDeviceOrientationOverride', { alpha: 0, beta, gamma: 89 - out });
      await this.page.waitForTimeout(40);
    }
  }

  async move(from: number, to: number): Promise<void> {
    for (let at = from; at < to; at += 3) await this.hold(at, 0, 1);
    await this.hold(to);
  }

  async close(): Promise<void> {
    await this.context.close();
  }
}

/** Asks for a phone over the dial, and reads the six digits. */
export async function codeOf(page: Page): Promise<string> {
  await entry(page).focus();
  await page.keyboard.press('d');
  const dialog = page.getByRole('dialog', { name: 'Instruments' });
  await dialog.getByRole('button', { name: 'A phone, by a code' }).click();
  const digits = dialog.locator('.digits');
  await expect(digits).toHaveText(/^\d{3} \d{3}$/);
  return (await digits.innerText()).replace(' ', '');
}
