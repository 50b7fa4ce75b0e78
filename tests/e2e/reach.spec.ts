import { expect, test, type Page } from '@playwright/test';
import { accessible } from './accessible';
import { watchFaults } from './faults';
import { goTo, openDesign, visit } from './open';
import { ROOMS } from './rooms';
import { Server, shelf } from './server';

const server = new Server(3429);
const PEN = 'Tide-gauge pen recorder';
const LOGGER = 'Tide-pole logger, on the jetty';
const DRUM = 'Drum seismograph amplifier, ±18 V';

test.beforeAll(() => server.start());
test.afterAll(() => server.kill());
watchFaults();

const open = (page: Page, name: string, room = '') => openDesign(page, server, name, room);
const focused = (page: Page) =>
  page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '');

for (const [width, height, theme] of [
  [1280, 800, 'light'],
  [1024, 768, 'dark'],
  [360, 740, 'light'],
] as const) {
  test(`axe finds nothing in any room at ${width}, ${theme}, and no room is wider than its window`, async ({
    page,
    context,
  }) => {
    test.setTimeout(240_000);
    await context.addCookies([{ name: 'theme', value: theme, url: server.url }]);
    await page.setViewportSize({ width, height });
    for (const [room, shown] of ROOMS) {
      await open(page, PEN, room);
      await expect(page.getByText(shown).first()).toBeAttached();
      await accessible(page);
      const wider = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
      expect([room, Math.max(0, wider)]).toEqual([room, 0]);
    }
  });
}

test('every room has a title and a heading of its own', async ({ page }) => {
  const titles = new Set<string>();
  const ids = await shelf(server.url);
  for (const [room] of ROOMS) {
    await page.goto(`${server.url}/design/${ids[PEN]}${room}`);
    const title = await page.title();
    expect(title).toContain(PEN);
    titles.add(title);
    await expect(page.getByRole('heading', { level: 1 })).toHaveCount(1);
  }
  expect(titles.size).toBe(ROOMS.length);
});

test('Back and reload come to the same room, and to where one was in it', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 600 });
  await open(page, DRUM, '/sheet');
  await expect(page.getByTestId('sheet')).toBeVisible();
  await page.evaluate(() => scrollTo(0, 500));
  await visit(page, 'Need');
  await expect(page).toHaveURL(/\/load$/);
  await page.goBack();
  await expect(page).toHaveURL(/\/sheet$/);
  await expect.poll(() => page.evaluate(() => Math.round(scrollY))).toBe(500);
  await page.reload();
  await expect(page.getByTestId('sheet')).toBeVisible();
  await expect.poll(() => page.evaluate(() => Math.round(scrollY))).toBe(500);
});

test('skip links lead to the drawing, the verdicts and the fields; an edit is announced in one sentence', async ({
  page,
}) => {
  await open(page, PEN);
  await expect(page.getByTestId('fix').first()).toBeEnabled();
  await page.keyboard.press('Tab');
  expect(await focused(page)).toBe('To the drawing');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  expect(await page.evaluate(() => document.activeElement?.id)).toBe('verdicts');
  // From the verdicts the first thing to be reached is the open one, then its fixes: a cure is few keys away.
  await page.getByTestId('fix').first().focus();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('announced')).toHaveText(/^All \d+ pass\.$/);
  expect(await focused(page)).toMatch(/^All \d+ pass/);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('announced')).toHaveText(/^\d+ fail: headroom at low line\. The valley falls /);
});

test('a journey by keys alone: a new supply in nine, a cure in eight, a reading in five', async ({ page }) => {
  let keys = 0;
  const press = async (key: string) => {
    keys++;
    await page.keyboard.press(key);
  };
  const type = async (text: string) => {
    keys++;
    await page.keyboard.type(text);
  };
  // A new supply: the field of the volts has the focus; Enter proposes, and the button that takes it follows.
  await goTo(page, `${server.url}/new`);
  await expect(page.getByLabel(/^Volts/)).toBeFocused();
  await press('Control+a');
  await type('9 V');
  await press('Tab');
  await press('Control+a');
  await type('200 mA');
  await press('Enter');
  await expect(page.getByTestId('proposal')).toContainText('Passes all');
  await expect(page.getByRole('button', { name: 'Take it and open' })).toBeFocused();
  await press('Enter');
  await expect(page.getByTestId('verdict-count')).toBeVisible();
  expect(keys).toBeLessThanOrEqual(9);

  // A cure: past the top to the verdicts, to the first fix, taken.
  await open(page, PEN);
  await expect(page.getByTestId('fix').first()).toBeEnabled();
  keys = 0;
  await press('Tab');
  await press('Tab');
  await press('Enter');
  for (
    let n = 0;
    n < 4 && (await page.evaluate(() => document.activeElement?.getAttribute('data-testid'))) !== 'fix';
    n++
  )
    await press('Tab');
  await press('Enter');
  await expect(page.getByTestId('verdict-count')).toHaveText(/^All/);
  expect(keys).toBeLessThanOrEqual(8);
  await page.keyboard.press('Control+z');

  // A reading, from the gate on.
  await open(page, PEN, '/bench');
  await page.getByRole('button', { name: /I have read this/ }).focus();
  keys = 0;
  await press('Enter');
  await expect(page.getByLabel('Mains', { exact: true })).toBeFocused();
  await type('231');
  await press('Enter');
  await expect(page.getByTestId('step-mains')).toContainText('As expected');
  expect(keys).toBeLessThanOrEqual(5);
});

test('an export by keys alone, in three', async ({ page }) => {
  await open(page, DRUM);
  await expect(page.getByTestId('verdict-count')).toBeVisible();
  const file = page.waitForEvent('download');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('export');
  await expect(page.getByRole('option')).toHaveCount(1);
  await page.keyboard.press('Enter');
  expect((await file).suggestedFilename()).toMatch(/seismograph.*\.json$/);
});

for (const theme of ['light', 'dark'] as const) {
  test(`axe finds nothing in any dialog, ${theme}`, async ({ page, context }) => {
    test.setTimeout(240_000);
    await context.addCookies([{ name: 'theme', value: theme, url: server.url }]);
    const seen = new Set<string>();
    for (const name of [DRUM, LOGGER]) {
      await open(page, name);
      await expect(page.getByTestId('terrace').getByRole('slider').first()).toBeVisible();
      for (const station of await page.getByTestId('terrace').getByRole('slider').all()) {
        await station.click();
        // Its fields, and the buttons among them, are loaded when they are first needed.
        await page.waitForLoadState('networkidle');
        for (const opener of await page.getByRole('main').locator('[aria-haspopup=dialog]').all()) {
          const title = (await opener.textContent())!;
          if (seen.has(title) || !(await opener.isEnabled())) continue;
          seen.add(title);
          await opener.click();
          const dialog = page.getByRole('dialog');
          await expect(dialog).toBeVisible();
          await expect(dialog.getByText(/Solving|…$/)).toHaveCount(0);
          await accessible(page);
          await page.keyboard.press('Escape');
          await expect(dialog).toHaveCount(0);
        }
      }
    }
    expect(seen.size).toBeGreaterThanOrEqual(9);
    for (const key of ['?', 'Control+k']) {
      await page.keyboard.press(key);
      await expect(page.getByRole('dialog')).toBeVisible();
      await accessible(page);
      await page.keyboard.press('Escape');
    }
    await page.goto(`${server.url}/drawer`);
    await page.getByRole('button', { name: 'Add a part' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await accessible(page);
  });
}

test('a number is typed over on the drawing, pinned in sight, and looked at through the lens', async ({ page }) => {
  await open(page, DRUM);
  const reservoir = page.getByRole('slider', { name: 'Reservoir', exact: true });
  await reservoir.getByText('2200 µF').click();
  await expect(page.getByLabel('Capacitance, typed over')).toBeFocused();
  await page.keyboard.type('3m3');
  await page.keyboard.press('Enter');
  await expect(reservoir).toContainText('3300 µF');
  await expect(reservoir).toBeFocused();
  await page.getByRole('button', { name: 'Pin' }).click();
  await visit(page, 'Design', 'Heat');
  await expect(page.getByRole('list', { name: 'Pinned figures' })).toContainText('Ripple, p-p');
  await page.getByRole('button', { name: /^Unpin/ }).click();
  await expect(page.getByRole('list', { name: 'Pinned figures' })).toHaveCount(0);
  await visit(page, 'Design', 'Supply');
  await page.keyboard.press('l');
  await expect(page.getByRole('button', { name: 'Lens' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('?');
  await page.getByLabel('Letters and digits alone do something').uncheck();
  await page.keyboard.press('l');
  await page.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('l');
  await expect(page.getByRole('button', { name: 'Lens' })).toHaveAttribute('aria-pressed', 'true');
  await reservoir.focus();
  await page.keyboard.press('Control+z');
  await expect(reservoir).toContainText('2200 µF');
});

test('the focus comes back to what opened a dialog', async ({ page }) => {
  await open(page, DRUM);
  for (const [station, opener] of [
    ['Reservoir', 'Compare inputs'],
    ['Regulator', 'Outputs'],
    ['Load', 'Load line'],
    ['Rectifier', 'Split bridge'],
  ] as const) {
    await page.getByRole('slider', { name: station, exact: true }).click();
    const button = page.getByRole('main').getByRole('button', { name: opener, exact: true });
    await button.focus();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog')).toBeVisible();
    await expect(page.getByRole('dialog').getByRole('button', { name: 'Close' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await expect(button).toBeFocused();
  }
});

test('what is pressed inside the list of actions is its own: Close closes, a step back is the field’s', async ({
  page,
}) => {
  await open(page, DRUM);
  const reservoir = page.getByRole('slider', { name: 'Reservoir', exact: true });
  await reservoir.focus();
  await page.keyboard.press('ArrowUp');
  await expect(reservoir).toContainText('3300 µF');
  await page.keyboard.press('Control+k');
  await expect(page.getByPlaceholder('Type a few letters')).toBeFocused();
  await page.keyboard.press('Control+z');
  const url = page.url();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(reservoir).toContainText('3300 µF');
  expect(page.url()).toBe(url);
});

test('a click that comes before the page answers is kept', async ({ page }) => {
  const ids = await shelf(server.url);
  await page.goto(`${server.url}/design/${ids[PEN]}`, { waitUntil: 'commit' });
  await page.getByRole('switch', { name: 'Dark theme' }).click({ timeout: 5000 });
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
});
