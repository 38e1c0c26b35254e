import { expect, enter } from '../fixtures';
import type { Views } from './open';

/** Who works here, who is in care, and the doors by which one joins. */
export const CLINIC_VIEWS: Views = {
  'the story of a person': async (page, stack) => {
    await enter(page, stack);
    await page.getByRole('link', { name: /Corin Hathersage/ }).click();
    await expect(page.locator('dg-story dl')).toBeVisible();
  },
  'who somebody is': async (page, stack) => {
    await enter(page, stack);
    await page.getByRole('link', { name: /Corin Hathersage/ }).click();
    await page.getByRole('button', { name: 'Put right who they are' }).click();
    await expect(page.getByRole('dialog').getByLabel('File number')).toBeVisible();
  },
  'people of the clinic': async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/staff`);
    await expect(page.getByText('rook@saltmarsh.example')).toBeVisible();
    await page.getByRole('button', { name: 'Make a link' }).click();
  },
  'our own people': async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/own-people`);
    await expect(page.locator('dg-spread-rule').first()).toBeVisible();
  },
  'who looked at what': async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/audit`);
    await expect(page.locator('tbody tr').first()).toBeVisible();
  },
  'one’s own account': async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/account`);
    await page.getByRole('button', { name: 'Change the password' }).click();
    await expect(page.getByText('Type the password you have')).toBeVisible();
  },
  'founding a clinic': async (page, stack) => {
    await page.goto(`${stack.url}/found`);
    await page.getByRole('button', { name: 'Found the clinic' }).click();
    await expect(page.getByText('Type the name of the clinic')).toBeVisible();
  },
  'a link that opens nothing': async (page, stack) => {
    await page.goto(`${stack.url}/join#nothing`);
    await expect(page.getByRole('alert')).toContainText('was used, was taken back, or has run out');
  },
};
