import type { Page } from '@playwright/test';
import { DEEPEST, landmarksOf, SIZE, STANDING, type Landmarks } from '../../bin/lib/drawn.mjs';
import { allSaved, entry, expect, enter, startVisit, test } from '../fixtures';
import { codeOf, Phone } from '../phone';

const strip = (page: Page) => page.locator('dg-live-strip');
const words = (page: Page) => page.locator('#reading-words');

/** The faces of simulated inclinometers, in a tab of their own. */
async function openFaces(page: Page, scenario: RegExp): Promise<Page> {
  await entry(page).focus();
  await page.keyboard.press('d');
  const dialog = page.getByRole('dialog', { name: 'Instruments' });
  const [face] = await Promise.all([page.waitForEvent('popup'), dialog.getByRole('link', { name: /A simulated inclinometer/ }).click()]);
  await face.getByRole('button', { name: scenario }).click();
  await expect(face.getByText('Connecting …')).toHaveCount(0);
  await page.bringToFront();
  await expect(dialog.getByRole('button', { name: /^Let go: / }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Back to the dial' }).click();
  await expect(entry(page)).toBeFocused();
  return face;
}

test('two simulated inclinometers measure lumbar flexion: zeroed, moved, held; out of plane refused; a stream that is cut loses nothing', async ({
  page,
  stack,
}) => {
  await enter(page, stack);
  await startVisit(page, /Juniper Strake/, 'Low back');
  await expect(page.locator('.motion')).toContainText('Lumbar flexion');
  const face = await openFaces(page, /Two inclinometers on the low back/);

  await test.step('96 − 41 is 55, and is saved as read at two sites', async () => {
    await expect(words(page)).toContainText('has no zero');
    await page.keyboard.press('w');
    await expect(words(page)).toContainText('0 − 0');
    await face.getByRole('button', { name: 'To the end of range' }).click();
    await expect(words(page)).toContainText('96 − 41');
    await expect(page.locator('dg-dial svg')).toHaveAttribute('aria-label', /needle at 55°/);
    await page.keyboard.press('Space');
    await allSaved(page, 1);
    await expect(page.getByLabel('lumbar flexion, active: 55 degrees')).toBeVisible();
    await expect(face.locator('.told').first()).toContainText('lumbar extension');
  });

  await test.step('what was zeroed there is no zero here; out of plane nothing is held', async () => {
    await expect(words(page)).toContainText('Zero was set for another measurement');
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('u');
    await expect(page.locator('.motion')).toContainText('Lumbar flexion');
    const turned = face
      .locator('.device')
      .first()
      .getByLabel(/Turned out of plane/);
    await turned.fill('45');
    await expect(words(page)).toContainText(/out of plane: it reads too little/);
    await page.keyboard.press('Space');
    await expect(page.locator('#reading-problem')).toContainText('allowed: under 30°');
    await allSaved(page, 0);
    await turned.fill('0');
    await expect(words(page)).toContainText('96 − 41');
  });

  await test.step('held at the instrument itself', async () => {
    await face.getByRole('button', { name: 'Inclinometer B: hold' }).click();
    await allSaved(page, 1);
    await expect(face.getByText('held 55°')).toBeVisible();
  });

  await test.step('the stream is cut in the middle of a hold: what was held stays, what is shown is told to be old', async () => {
    await page.keyboard.press('ArrowUp');
    await expect(page.locator('.motion')).toContainText('Lumbar flexion');
    await page.keyboard.press('Space');
    await face.close();
    await expect(strip(page)).toContainText('is gone');
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('Space');
    await expect(page.locator('#reading-problem')).toContainText('No signal from');
    await allSaved(page, 2);
    // Typed, it goes on.
    await page.keyboard.type('100/48');
    await page.keyboard.press('Enter');
    await allSaved(page, 3);
    await page.reload();
    await allSaved(page, 3);
  });

  await test.step('what a simulated instrument gave is a rehearsal, and is told to be one', async () => {
    await page.getByRole('link', { name: 'Judge' }).click();
    await expect(page.getByText('A rehearsal: 2 of the readings are made-up numbers')).toBeVisible();
  });
});

test('a phone is paired once, tilts, holds by touch, through a killed server too; it never hears whose limb it is', async ({
  page,
  browser,
  stack,
}) => {
  await enter(page, stack);
  await startVisit(page, /Odalys Brandt/);
  await expect(page.locator('.motion')).toContainText('right Hip flexion · active');
  const code = await codeOf(page);
  const phone = await Phone.open(browser, stack);
  const heard: string[] = [];
  phone.page.on('websocket', (socket) => socket.on('framereceived', ({ payload }) => heard.push(String(payload))));

  await test.step('by its code, which is worth nothing after', async () => {
    await phone.pair(code);
    await expect(phone.page.getByText('paired with Saltmarsh Lane Physiotherapy')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Let go: Phone' })).toBeVisible();
    const second = await Phone.open(browser, stack);
    await second.pair(code);
    await expect(second.page.getByRole('alert')).toContainText('was used already');
    await second.close();
    await page.getByRole('button', { name: 'Back to the dial' }).click();
  });

  await test.step('zeroed, moved to 104 and held by touching it', async () => {
    await phone.page.getByRole('button', { name: 'Let it read the tilt' }).tap();
    await expect(phone.page.getByText('right hip flexion, active')).toBeVisible();
    await phone.hold(-40);
    await phone.page.getByRole('button', { name: 'Set zero' }).tap();
    await phone.move(-40, 64);
    await expect(phone.page.locator('.digits')).toHaveText('104°');
    await expect(page.locator('dg-dial svg')).toHaveAttribute('aria-label', /needle at 104°/);
    await phone.page.getByRole('button', { name: 'Hold what is shown' }).tap();
    await expect(phone.page.getByText('held 104° · right hip flexion, active')).toBeVisible();
    await allSaved(page, 1);
    await expect(page.getByLabel('right hip flexion, active: 104 degrees')).toBeVisible();
    await expect(phone.page.getByText('left hip flexion, active')).toBeVisible();
  });

  await test.step('out of plane it is refused, on the phone and at the dial', async () => {
    await phone.hold(-40);
    await phone.page.getByRole('button', { name: 'Set zero' }).tap();
    await phone.hold(20, 34);
    await expect(phone.page.getByText(/out of plane: too far: not read/)).toBeVisible();
    await phone.page.getByRole('button', { name: 'Hold what is shown' }).tap();
    await expect(phone.page.locator('.outcome.refused')).toContainText('out of plane');
    await allSaved(page, 1);
  });

  await test.step('the server is killed in the middle of a hold: it lands once when the server is back', async () => {
    await phone.move(20, 50);
    await expect(page.locator('dg-dial svg')).toHaveAttribute('aria-label', /needle at 90°/);
    await stack.server.kill();
    await expect(phone.page.getByText('no connection: what you hold is kept')).toBeVisible();
    await phone.page.getByRole('button', { name: 'Hold what is shown' }).tap();
    await expect(phone.page.getByText('holding 90° …')).toBeVisible();
    await expect(strip(page)).toContainText('No connection to the server');
    await stack.server.start();
    await expect(phone.page.getByText('held 90° · left hip flexion, active')).toBeVisible();
    await allSaved(page, 2);
    await page.reload();
    await allSaved(page, 2);
    await expect(page.getByLabel('left hip flexion, active: 90 degrees')).toBeVisible();
  });

  await test.step('let go, it is one no more', async () => {
    expect(heard.join(' ')).not.toMatch(/Odalys|Brandt|Gardener/);
    await entry(page).focus();
    await page.keyboard.press('d');
    await page.getByRole('button', { name: 'Let go: Phone' }).click();
    await expect(phone.page.getByText('This phone was let go')).toBeVisible();
  });
  await phone.close();
});

test('a whole knee exam on a tablet by touch alone', async ({ browser, stack }) => {
  const context = await browser.newContext({ viewport: { width: 820, height: 1180 }, hasTouch: true, isMobile: true, locale: 'en-GB' });
  const page = await context.newPage();
  await page.goto(stack.url);
  await page.getByRole('button', { name: /^Sign in as Wren/ }).tap();
  await page.getByRole('link', { name: /Tamsin Okonjo-Vale/ }).tap();
  await page.getByRole('button', { name: /Start visit/ }).tap();
  const last = page.getByRole('option', { name: 'As last time' });
  await expect(page.getByRole('heading', { name: 'Why they came' })).toBeVisible();
  if ((await last.count()) > 0 && (await last.getAttribute('aria-selected')) === 'true') await last.tap();
  const knee = page.getByRole('option', { name: 'Knee', exact: true });
  if ((await knee.getAttribute('aria-selected')) !== 'true') await knee.tap();
  await page.getByRole('button', { name: 'None of these' }).tap();
  await page.getByRole('button', { name: 'Start measuring' }).tap();
  await expect(entry(page)).toBeVisible();
  await expect(page.locator('kbd:visible')).toHaveCount(0);

  const pad = page.getByRole('group', { name: 'Figures' });
  const type = async (figure: string) => {
    for (const key of figure) await pad.getByRole('button', { name: key, exact: true }).tap();
  };
  // Whatever the sheet asks, until it is through: every place wants one figure.
  const places = await page.locator('dg-run-sheet td button').count();
  for (let held = 0; held < places; held += 1) {
    const turn = page.getByRole('button', { name: /^Patient is / });
    const heading = page.locator('.motion');
    if (await turn.isVisible()) await turn.tap();
    const asked = await heading.innerText();
    const unit = (await entry(page).getAttribute('aria-label')) ?? '';
    const figure = asked.includes('extension ·') || asked.includes('extension,') ? '2' : unit.includes('degrees') ? '121' : '38';
    if (held === 1) {
      // Read off by eye: the needle is taken where it stands and dragged.
      await type('60');
      const grip = page.locator('dg-dial .grip');
      if ((await grip.count()) > 0) {
        const rim = await grip.evaluate((path: SVGPathElement) => {
          const at = path.getPointAtLength(path.getTotalLength() / 2).matrixTransform(path.getScreenCTM()!);
          return { x: at.x, y: at.y };
        });
        await page.touchscreen.tap(rim.x, rim.y);
        await expect(page.getByRole('button', { name: /^Hold .*\d+°$/ })).toBeVisible();
        await expect(page.getByRole('button', { name: 'Hold 60°' })).toHaveCount(0);
      }
      const dragged = await entry(page).inputValue();
      for (let left = dragged.length; left > 0; left -= 1) await page.getByRole('button', { name: 'Take the last digit away' }).tap();
      await expect(entry(page)).toHaveValue('');
    }
    await type(figure);
    await page.getByRole('button', { name: new RegExp(`^Hold ${figure}`) }).tap();
    await expect(page.getByText(new RegExp(`^${held + 1} readings? saved$`))).toBeVisible();
  }
  await page.getByRole('button', { name: 'Undo' }).tap();
  await expect(page.getByText(new RegExp(`^${places - 1} readings? saved$`))).toBeVisible();
  await page.getByRole('link', { name: 'Judge' }).tap();
  await expect(page.locator('dg-findings')).toBeVisible();
  await context.close();
});

test('a still and a clip give the angles they were drawn from; one of them goes to the run sheet', async ({ page, stack }) => {
  await enter(page, stack);
  await startVisit(page, /Juniper Strake/, 'Knee');
  const measure = page.url();
  await page.goto(measure.replace('/measure', '/picture'));
  const angle = (name: string) => page.getByRole('row', { name: new RegExp(`^${name}`) }).locator('strong');
  /** Touches the picture where the figure has its landmarks. */
  const place = async (drawn: Landmarks) => {
    for (const name of ['shoulder', 'hip', 'knee', 'ankle'] as const) {
      const box = (await page.locator('dg-picture-stage svg').boundingBox())!;
      const [x, y] = drawn[name];
      await page.mouse.click(box.x + (x / SIZE.width) * box.width, box.y + (y / SIZE.height) * box.height);
    }
    await expect(page.getByText('All placed.')).toBeVisible();
  };
  const within = async (name: string, degrees: number) =>
    expect(Math.abs(Number((await angle(name).innerText()).replace('°', '')) - degrees)).toBeLessThanOrEqual(1);

  await test.step('the still of a squat, within a degree', async () => {
    await page.getByRole('button', { name: 'a drawn still' }).click();
    await expect(page.locator('dg-picture-stage svg')).toBeVisible();
    await place(landmarksOf(DEEPEST));
    await within('knee bend', DEEPEST.knee);
    await within('trunk against plumb', DEEPEST.trunk);
    await within('shin against plumb', DEEPEST.shin);
    await within('shin against trunk', DEEPEST.trunk - DEEPEST.shin);
  });

  await test.step('the clip: stepped, marked, its peak within a degree, kept over a reload', async () => {
    await page.reload();
    await page.getByRole('button', { name: 'a drawn clip' }).click();
    await expect(page.locator('.transport')).toBeVisible();
    const to = async (t: number) => {
      await page.getByLabel('Moment', { exact: true }).fill(String(t));
      await expect(page.locator('.transport .figure')).toHaveText(`${t.toFixed(2)} s`);
    };
    await to(0.2);
    await place(landmarksOf(STANDING));
    await to(2.3);
    await place(landmarksOf(DEEPEST));
    await page.getByRole('button', { name: 'One frame on' }).click();
    await expect(page.locator('.transport .figure')).toHaveText('2.33 s');
    await to(3.5);
    await place(landmarksOf(STANDING));
    await expect(page.locator('.peak')).toContainText('at 2.30 s');
    const peak = Number((await page.locator('.peak strong').innerText()).replace('°', ''));
    expect(Math.abs(peak - DEEPEST.knee)).toBeLessThanOrEqual(1);
    await page.reload();
    await expect(page.getByText('The marks of squat.webm are kept')).toBeVisible();
    await page.getByRole('button', { name: 'a drawn clip' }).click();
    await expect(page.locator('.peak')).toContainText('at 2.30 s');
  });

  await test.step('to the run sheet, held as read off a picture', async () => {
    await page.getByRole('button', { name: 'go there' }).click();
    await expect(angle('knee bend')).toBeVisible();
    await page.getByLabel('Which angle').selectOption({ index: 1 });
    await page.getByLabel('As which measurement').selectOption({ label: 'Left knee flexion, active, supine' });
    await page.getByRole('button', { name: 'On to the dial' }).click();
    const turned = page.getByRole('button', { name: /^Patient is / });
    await expect(entry(page)).toBeAttached();
    if (await turned.isVisible()) await turned.click();
    await expect(page.locator('.motion')).toContainText('left Knee flexion · active');
    await expect(words(page)).toContainText(/view ± [\d.]+°, placed once/);
    await expect(entry(page)).toBeFocused();
    await page.keyboard.press('Enter');
    await allSaved(page, 1);
    await expect(page.getByLabel(/^left knee flexion, active: 11[123] degrees/)).toBeVisible();
  });
});
