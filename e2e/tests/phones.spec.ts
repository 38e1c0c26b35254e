import { allSaved, entry, expect, enter, startVisit, test } from '../fixtures';
import { codeOf, Phone } from '../phone';

test('two phones are two sites: the lower is taken out of the upper, held on either of them', async ({ page, browser, stack }) => {
  await enter(page, stack);
  await startVisit(page, /Juniper Strake/, 'Low back');
  await expect(page.locator('.motion')).toContainText('Lumbar flexion');
  const upper = await Phone.open(browser, stack);
  const lower = await Phone.open(browser, stack);
  for (const phone of [upper, lower]) {
    await phone.pair(await codeOf(page));
    await expect(phone.page.getByText('paired with Saltmarsh Lane Physiotherapy')).toBeVisible();
    await page.getByRole('button', { name: 'Back to the dial' }).click();
    await phone.page.getByRole('button', { name: 'Let it read the tilt' }).tap();
    await phone.hold(-20);
  }
  await expect(page.locator('dg-live-strip')).toContainText('upper');
  for (const phone of [upper, lower]) {
    await phone.hold(-20, 0, 4);
    await phone.page.getByRole('button', { name: 'Set zero' }).tap();
  }
  await upper.move(-20, 60);
  await lower.move(-20, 15);
  // By hand: 80 at the upper site, 35 at the lower: 45 are the low back's.
  await expect(page.locator('#reading-words')).toContainText('80 − 35');
  await expect(page.locator('dg-dial svg')).toHaveAttribute('aria-label', /needle at 45°/);
  await lower.page.getByRole('button', { name: 'Hold what is shown' }).tap();
  await allSaved(page, 1);
  await expect(page.getByLabel('lumbar flexion, active: 45 degrees')).toBeVisible();

  // One of them gone, what is left is no reading at two sites.
  await lower.close();
  await entry(page).focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Space');
  await expect(page.locator('#reading-problem')).not.toBeEmpty();
  await allSaved(page, 1);
  await upper.close();
});
