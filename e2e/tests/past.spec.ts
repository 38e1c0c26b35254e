import { xlsxOf } from '../../files/src/testing/xlsx';
import { expect, enter, test } from '../fixtures';

test.describe.configure({ mode: 'serial' });

test('the cellist: a spreadsheet of last year with two bad rows, brought in, followed and undone as a whole', async ({ page, stack }) => {
  const year = new Date().getFullYear() - 1;
  const list = xlsxOf([
    ['Date', 'Movement', 'Side', 'Type', 'Reading (°)', 'Pain', 'Therapist'],
    [`3.11.${year}`, 'Shoulder flexion', 'R', 'PROM', 84, '6/10', 'somebody'],
    [`3.11.${year}`, 'Shoulder ER', 'R', 'PROM', 9, '', 'somebody'],
    [`17.11.${year}`, 'Shoulder flexion', 'R', 'PROM', 'about ninety', '', 'somebody'],
    [`31.11.${year}`, 'Shoulder flexion', 'R', 'PROM', 96, '', 'somebody'],
    [`1.12.${year}`, 'Shoulder flexion', 'R', 'PROM', 92, '4', 'somebody'],
  ]);
  await enter(page, stack);
  await page.getByRole('link', { name: /Perpetua Linnet/ }).click();
  await page.getByRole('link', { name: 'Bring in old readings' }).click();
  await page
    .getByLabel('Choose a file')
    .setInputFiles({ name: 'last year.xlsx', mimeType: 'application/octet-stream', buffer: Buffer.from(list) });
  await expect(page.getByRole('heading', { name: 'last year.xlsx: 5 rows' })).toBeVisible();
  await expect(page.getByLabel('Column Movement holds')).toHaveValue('motion');
  await expect(page.getByLabel('Column Therapist holds')).toHaveValue('ignore');

  await test.step('every bad cell is told with its line, and nothing can be brought in meanwhile', async () => {
    await expect(page.getByRole('heading', { name: '2 cells cannot be read' })).toBeVisible();
    await expect(page.getByText('"about ninety" is not a value')).toBeVisible();
    await expect(page.getByText(`"31.11.${year}" is no day`)).toBeVisible();
    await expect(page.getByRole('button', { name: 'Bring in 3 readings' })).toBeDisabled();
  });

  await test.step('what was chosen is there after a reload; left out by hand, the rest comes in as a whole', async () => {
    await page.getByRole('button', { name: 'Leave out these 2 rows' }).click();
    await page.reload();
    await expect(page.getByText('Left out by hand: lines 4, 5.')).toBeVisible();
    await page.getByRole('button', { name: 'Bring in 3 readings' }).click();
    await expect(page.getByText('3 readings were brought in from last year.xlsx.')).toBeVisible();
  });

  const firstDay = page.locator('dg-change-table tbody tr').filter({ hasText: 'Flexion, passive' }).filter({ hasText: 'right' });
  await test.step('it stands in Progress as the first reading, marked', async () => {
    await page.getByRole('link', { name: 'Back to the record' }).click();
    await page.getByRole('link', { name: 'Progress, visit 2' }).click();
    await expect(firstDay).toContainText('84');
    await firstDay.getByRole('button').or(firstDay).first().click();
    await page.getByText('Every reading').click();
    await expect(page.getByText(/brought in/).first()).toBeVisible();
  });

  await test.step('undone as a whole it is gone from Progress, and stays on record', async () => {
    await page.getByRole('link', { name: 'Perpetua Linnet' }).click();
    await page.getByRole('link', { name: 'Bring in old readings' }).click();
    await page.getByRole('button', { name: 'Undo all of last year.xlsx' }).click();
    await expect(page.getByText('undone by Wren Calloway')).toBeVisible();
    await page.getByRole('link', { name: 'Back to the record' }).click();
    await page.getByRole('link', { name: 'Progress, visit 2' }).click();
    await expect(firstDay).not.toContainText('84');
  });
});

test('a visit goes out as FHIR, into another record, and says the same there', async ({ page, stack }) => {
  await enter(page, stack);
  await page.getByRole('link', { name: /Perpetua Linnet/ }).click();
  await page.getByRole('link', { name: 'Judge, visit 2' }).click();
  await expect(page.locator('dg-findings ol')).toBeVisible();
  const findings = await page.locator('dg-findings ol').innerText();
  await page.getByRole('link', { name: 'Report', exact: true }).click();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'FHIR R4' }).click()]);
  const path = await download.path();

  await page.goto(`${stack.url}/caseload`);
  await page.getByRole('button', { name: /Add patient|Go on adding/ }).click();
  const dialog = page.getByRole('dialog');
  // Open to its end: what is pressed while it still grows may be somewhere else by then.
  await expect(dialog.getByLabel('Given name')).toBeFocused();
  await dialog.getByLabel('Given name').fill('Perpetua');
  await dialog.getByLabel('Family name').fill('Elsewhere');
  await dialog.getByLabel('Complaint').fill('sent on with her visit');
  await dialog
    .getByLabel(/Comes from another clinic/)
    .setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from('{"resourceType":"Bundle"}') });
  await expect(dialog).toContainText('broken.json says birth date, sex and side');
  await dialog.getByRole('button', { name: 'Take over' }).click();
  await expect(dialog).toContainText('entry is missing; allowed: a list of entries');
  await dialog.getByRole('button', { name: 'Without the file' }).click();
  await dialog.getByLabel(/Comes from another clinic/).setInputFiles(path);
  await dialog.getByRole('button', { name: 'Take over' }).click();
  await page.getByRole('link', { name: 'Judge, visit 2' }).click();
  await expect(page.locator('dg-findings ol')).toBeVisible();
  expect(await page.locator('dg-findings ol').innerText()).toBe(findings);
});
