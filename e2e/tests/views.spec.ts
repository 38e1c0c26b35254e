import { axe, expect, enter, test, turn } from '../fixtures';
import { CLINIC_VIEWS } from '../views/clinic';
import { LIVE_VIEWS } from '../views/live';
import { openVisit, type Views } from '../views/open';
import { PRACTICE_VIEWS } from '../views/practice';

const VIEWS: Views = {
  'sign-in': async (page, stack) => {
    await page.goto(stack.url);
    await expect(page.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
  },
  caseload: (page, stack) => enter(page, stack),
  prepare: (page, stack) => openVisit(page, stack, 'Prepare', 'dg-plan-list .row'),
  measure: (page, stack) => openVisit(page, stack, 'Measure', '.entry input'),
  turning: async (page, stack) => {
    await openVisit(page, stack, 'Measure', '.entry input');
    await page.getByLabel(/^left hip extension, passive/).click();
    await expect(page.locator('dg-turn h3')).toBeVisible();
  },
  'the tools over the dial': async (page, stack) => {
    await openVisit(page, stack, 'Measure', '.entry input');
    await page.locator('.entry input').focus();
    await page.keyboard.press('g');
    await expect(page.getByRole('dialog').getByRole('radio').first()).toBeVisible();
  },
  screen: (page, stack) => openVisit(page, stack, 'Screen', 'dg-scene svg', /Ottoline Reeve/, 1),
  'a circle': async (page, stack) => {
    await openVisit(page, stack, 'Screen', 'dg-screen-sheet li', /Tamsin Okonjo-Vale/);
    await page.goto(`${page.url()}?screen=jointCircles&item=hip`);
    await expect(page.locator('dg-circle-ring svg')).toBeVisible();
    await page.getByLabel('cut off from').selectOption('4');
    await page.getByRole('button', { name: 'leave out …' }).click();
  },
  'what screens came to': async (page, stack) => {
    await openVisit(page, stack, 'Screen', 'dg-scene svg', /Ottoline Reeve/, 1);
    await page.getByRole('button', { name: 'results' }).click();
    await expect(page.locator('dg-screen-results table')).toBeVisible();
  },
  'what limits it': async (page, stack) => {
    await openVisit(page, stack, 'Screen', 'dg-scene svg', /Ottoline Reeve/, 1);
    await page.goto(page.url().replace('/screen', '/limits'));
    await expect(page.locator('.box.question').first()).toBeVisible();
  },
  class: async (page, stack) => {
    await enter(page, stack);
    await page.getByRole('link', { name: 'Class', exact: true }).click();
    for (const name of ['Ottoline', 'Tamsin']) await page.locator('.people li', { hasText: name }).getByRole('checkbox').check();
    await page.getByRole('button', { name: 'Begin with 2 people' }).click();
    await expect(page.locator('.grid')).toBeVisible();
    await page.getByRole('group', { name: 'Ottoline Reeve', exact: true }).getByRole('button', { name: 'short' }).click();
  },
  screens: async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/screens`);
    await page.getByText('Ready for load').click();
    await expect(page.getByLabel('Threshold of Knee to wall', { exact: true })).toBeVisible();
  },
  drills: async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/drills`);
    await page.locator('summary').nth(1).click();
    await expect(page.locator('details[open]').getByText('Limits are held against:')).toBeVisible();
  },
  'a drill of one’s own': async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/drills/new?like=heel-slide`);
    await page.getByRole('button', { name: 'Keep this drill' }).click();
    await expect(page.getByRole('alert')).toContainText('Name: ');
  },
  'a sheet for at home': async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/screens/loadingReadiness/at-home`);
    await expect(page.locator('dg-scene svg').first()).toBeVisible();
  },
  judge: (page, stack) => openVisit(page, stack, 'Judge', 'dg-findings details'),
  'the evidence of a figure': async (page, stack) => {
    await openVisit(page, stack, 'Judge', 'dg-findings details');
    await page.getByRole('button', { name: /^Evidence of left Internal rotation/ }).click();
    await expect(page.getByRole('dialog').getByRole('table')).toBeVisible();
  },
  'signing a visit': async (page, stack) => {
    await openVisit(page, stack, 'Judge', 'dg-findings details', /Perpetua Linnet/, 1);
    await page.getByRole('button', { name: 'Sign the visit' }).click();
    await expect(page.getByRole('dialog').getByRole('heading', { name: /^Sign as/ })).toBeVisible();
  },
  retest: (page, stack) => openVisit(page, stack, 'Retest', 'dg-marker-picker li'),
  'retests done': async (page, stack) => {
    await openVisit(page, stack, 'Retest', 'dg-marker-picker li');
    const done = page.locator('.done h3');
    const before = await done.count();
    await page.locator('dg-marker-picker input').first().check();
    await page.getByRole('button', { name: 'Read the baseline' }).click();
    await page.locator('.entry input').fill('100');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Finish the retest' }).click();
    await expect(done).toHaveCount(before + 1);
    await expect(page.getByText('everything saved')).toBeVisible();
  },
  'a retest that made it worse': async (page, stack) => {
    await openVisit(page, stack, 'Retest', 'dg-marker-picker li, .entry', /Tamsin Okonjo-Vale/, 1);
    const picker = page.locator('dg-marker-picker input');
    if ((await picker.count()) > 0) {
      await picker.first().check();
      await page.getByRole('button', { name: 'Read the baseline' }).click();
      for (const typed of ['100', 'Long hold', '70']) {
        await page.locator('.entry input').fill(typed);
        await page.keyboard.press('Enter');
      }
    }
    await expect(page.getByText('Do not finish here:')).toBeVisible();
    await page.getByRole('button', { name: 'Finish the retest' }).click();
    await expect(page.getByRole('dialog')).toContainText('Finish on worse?');
  },
  progress: (page, stack) => openVisit(page, stack, 'Progress', 'canvas'),
  decide: async (page, stack) => {
    await openVisit(page, stack, 'Decide', 'dg-pose-figure');
    for (const summary of await page.locator('.program details:visible > summary').all()) await summary.click();
    await expect(page.getByText('It should move').first()).toBeVisible();
  },
  report: async (page, stack) => {
    await openVisit(page, stack, 'Report', 'dg-sheet', /Corin Hathersage/, 8);
    await page.getByRole('button', { name: 'Make a page' }).click();
    await expect(page.locator('.made svg')).toBeVisible();
    await page.getByRole('button', { name: /^the patient/ }).click();
    await expect(page.locator('dg-sheet dg-pose-figure').first()).toBeVisible();
  },
  'the person’s own page': async (page, stack) => {
    await openVisit(page, stack, 'Report', 'dg-sheet', /Corin Hathersage/, 8);
    await page.getByRole('button', { name: 'Make a page' }).click();
    const link = await page.locator('.made .link').innerText();
    const code = await page.locator('.made .code').innerText();
    await page.goto(link);
    await page.getByLabel('Code').fill(code);
    await page.getByRole('button', { name: 'Open my page' }).click();
    for (const summary of await page.locator('summary').all()) await summary.click();
    await page
      .getByRole('button', { name: /^Done: / })
      .first()
      .click();
    await page.getByRole('button', { name: 'Save this day' }).click();
    await expect(page.locator('.state')).toHaveText('saved');
  },
  'old readings': async (page, stack) => {
    await enter(page, stack);
    await page.getByRole('link', { name: /Odalys Brandt/ }).click();
    await page.getByRole('link', { name: 'Bring in old readings' }).click();
    await page
      .getByLabel('or paste the table')
      .fill('Date\tL knee flexion active\tL knee extension active\n3.4.2025\t90\t-5\n4.4.2025\tnone\t0');
    await page.getByRole('button', { name: 'Read the pasted table' }).click();
    await expect(page.getByRole('heading', { name: /cells cannot be read/ })).toBeVisible();
  },
  'a goal': async (page, stack) => {
    await openVisit(page, stack, 'Progress', 'canvas');
    await page.getByRole('button', { name: 'Set the goal' }).click();
    await expect(page.getByRole('dialog').getByRole('radio').first()).toBeVisible();
  },
  steadiness: async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/steadiness`);
    await expect(page.locator('canvas')).toBeVisible();
  },
  'planning a study': async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/steadiness`);
    await page.getByRole('button', { name: 'Plan a study' }).click();
    await expect(page.getByLabel('Motion and way')).toBeVisible();
  },
  library: async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/library`);
    await expect(page.locator('.found dg-figure').first()).toBeVisible();
  },
  protocol: async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/library/knee/flexion/supine`);
    await expect(page.getByRole('row').filter({ hasText: 'in use' })).toBeVisible();
    await page.locator('summary').first().click();
  },
  'protocol over the dial': async (page, stack) => {
    await openVisit(page, stack, 'Measure', '.entry input');
    await page.locator('.entry input').focus();
    await page.keyboard.press('i');
    await expect(page.getByRole('dialog').getByRole('row').filter({ hasText: 'in use' })).toBeVisible();
  },
  'values to look up': async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/norms/norms/boone-azen-1979`);
    await page
      .getByRole('button', { name: /^Correct: / })
      .first()
      .click();
    await expect(page.locator('.correction input').first()).toBeFocused();
  },
  norms: async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/norms`);
    await expect(page.getByRole('button', { name: /^Move / }).first()).toBeVisible();
  },
  // The last of them: from here on the newest study is one that is not read to the end.
  'a study read blind': async (page, stack) => {
    await enter(page, stack);
    await page.goto(`${stack.url}/steadiness`);
    await page.getByRole('button', { name: 'Plan a study' }).click();
    await page.getByLabel('Motion and way').fill('knee to wall');
    await page.getByRole('option').first().click();
    await page.getByRole('button', { name: 'Start the study' }).click();
    await page.getByLabel('Blinded reading').fill('400');
    await page.keyboard.press('Enter');
    await expect(page.locator('dg-study-entry').getByRole('alert')).toBeVisible();
  },
  ...LIVE_VIEWS,
  ...PRACTICE_VIEWS,
  ...CLINIC_VIEWS,
};

const POLICY = 'content policy:';

/** Desk, tablet, telephone. */
const SIZES = [
  [820, 1180],
  [390, 844],
  [1280, 800],
] as const;

for (const [name, open] of Object.entries(VIEWS)) {
  // One visit to a view looks at everything: it is opened once, and then seen in three sizes, in light and in dark.
  test(`${name}: no axe violations in light and dark, nothing scrolls sideways in three sizes`, async ({ page, stack }) => {
    const violations: string[] = [];
    page.on('console', (message) => message.text().startsWith(POLICY) && violations.push(message.text()));
    await page.addInitScript(
      (mark) =>
        document.addEventListener('securitypolicyviolation', ({ violatedDirective, blockedURI, sourceFile }) =>
          console.log(`${mark} ${violatedDirective} ${blockedURI} ${sourceFile}`),
        ),
      POLICY,
    );
    await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
    await open(page, stack);
    expect(violations).toEqual([]);
    if (name === 'judge') await page.locator('dg-findings ol summary').first().click();
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      await expect
        .poll(() => page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth), {
          message: `${width}×${height}`,
        })
        .toBeLessThanOrEqual(0);
    }
    expect(await axe(page), 'light').toEqual([]);
    await page.emulateMedia({ colorScheme: 'dark', reducedMotion: 'reduce' });
    expect(await axe(page), 'dark').toEqual([]);
  });
}

test('fonts and everything else come from the same address', async ({ page, stack }) => {
  const elsewhere: string[] = [];
  const fonts: string[] = [];
  const blocked: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(stack.url) && !request.url().startsWith('data:')) elsewhere.push(request.url());
    if (request.resourceType() === 'font') fonts.push(request.url());
  });
  page.on('console', (message) => {
    if (message.text().includes('Content Security Policy')) blocked.push(message.text());
  });
  await openVisit(page, stack, 'Progress', 'canvas');
  await page.getByRole('link', { name: 'Measure' }).click();
  await expect(page.locator('.entry input')).toBeVisible();
  expect(elsewhere).toEqual([]);
  expect(blocked).toEqual([]);
  expect(fonts.some((url) => url.includes('atkinson'))).toBe(true);
  expect(fonts.some((url) => url.includes('b612'))).toBe(true);
});

test('the dial turns the way the limb goes, and is told in words', async ({ page, stack }) => {
  await openVisit(page, stack, 'Measure', '.entry input');
  await page.getByLabel('left hip internal rotation, passive').first().click();
  await turn(page, 'Turn patient prone');
  const dial = page.getByRole('img', { name: /^left hip internal rotation, passive; needle at 28°/ });
  await expect(dial).toBeVisible();
  const tip = (side: string) =>
    page
      .getByRole('img', { name: new RegExp(`^${side} hip internal rotation`) })
      .locator('line.needle')
      .getAttribute('x2')
      .then(Number);
  expect(await tip('left')).toBeLessThan(-30);
  await page.keyboard.press('o');
  expect(await tip('right')).toBeGreaterThan(30);
});
