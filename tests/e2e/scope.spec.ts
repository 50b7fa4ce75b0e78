import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { watchFaults } from './faults';
import { openDesign } from './open';
import { Server } from './server';

const server = new Server(3421);
const CLOCK = 'Slave-clock line, stairwell';
const DRUM = 'Drum seismograph amplifier, ±18 V';
const TIDE = 'Tide-telegraph receiver, valves';

test.beforeAll(() => server.start());
test.afterAll(() => server.kill());

watchFaults();

const open = (page: Page, name: string, place = '') => openDesign(page, server, name, place);

const screen = (page: Page) => page.getByTestId('scope-screen');
const trace = (page: Page, id: string) => screen(page).locator(`[data-trace="${id}"]`);
const pathOf = (page: Page, id: string) => trace(page, id).getAttribute('d');
const supply = (page: Page) => expect(page.getByTestId('verdict-count')).toBeVisible();

test('the scope shows current, reservoir and output, and a drag on the terrace moves the traces', async ({ page }) => {
  await open(page, CLOCK, '/scope');
  for (const id of ['winding-a', 'reservoir-v-0', 'output-v-0']) await expect(trace(page, id)).toBeVisible();
  const before = await pathOf(page, 'reservoir-v-0');
  const grip = page.getByTestId('Drag the reservoir');
  const box = (await grip.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + 60, { steps: 6 });
  await page.mouse.up();
  await expect.poll(() => pathOf(page, 'reservoir-v-0')).not.toBe(before);
  await expect(page.getByTestId('save-state')).toContainText('Saved');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('slider', { name: 'Reservoir', exact: true })).toHaveAttribute(
    'aria-valuetext',
    /^6800 µF/,
  );
  await expect(page.getByTestId('save-state')).toContainText('Saved');
});

test('every run is drawn, and says its own figures', async ({ page }) => {
  await open(page, TIDE, '/scope');
  await expect(trace(page, 'reservoir-v-0')).toBeVisible();
  for (const [run, words] of [
    ['start', 'highest diode current'],
    ['step', 'mean before'],
    ['removal', 'highest after'],
    ['dip', 'recharging pulse'],
  ] as const) {
    await page.getByLabel('Run', { exact: true }).selectOption(run);
    await expect(page.getByText(words, { exact: false })).toBeVisible();
  }
});

test('cursors move by keyboard and read the traces', async ({ page }) => {
  await open(page, CLOCK, '/scope');
  const cursor = page.getByRole('slider', { name: 'Cursor A' });
  await expect(cursor).toBeVisible();
  const before = await cursor.getAttribute('aria-valuenow');
  await cursor.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(cursor).not.toHaveAttribute('aria-valuenow', before!);
  await expect(page.getByRole('region', { name: 'Cursors' })).toContainText('1/(B − A)');
});

test('AC coupling and a forgotten probe factor change what is read', async ({ page }) => {
  await open(page, CLOCK, '/scope');
  const readings = page.getByRole('region', { name: 'Cursors' });
  await expect(readings).toContainText(/Reservoir3\d\.\d V/);
  await page.getByLabel('Reservoir: ×10 probe, scope set to ×1').check();
  await expect(readings).toContainText(/Reservoir3\.\d+ V/);
  await page.getByLabel('Reservoir: ×10 probe, scope set to ×1').uncheck();
  await page.getByLabel('Reservoir: AC coupled').check();
  await expect(readings).toContainText(/Reservoir−?\d+ ?m?\.?\d*/);
  await expect(readings).not.toContainText(/Reservoir3\d\.\d V/);
});

test('a measured trace lies over the computed one; a broken file is refused with its row', async ({ page }) => {
  await open(page, CLOCK, '/scope');
  await expect(trace(page, 'winding-a')).toBeVisible();
  // The first trace is what the recording lies over: leave the reservoir alone.
  await page.getByRole('checkbox', { name: 'Winding current', exact: true }).uncheck();
  const rows = Array.from({ length: 400 }, (_, k) => {
    const t = k * 1e-4;
    return `${t.toFixed(5)};${(31 + 0.6 * Math.abs(Math.sin(2 * Math.PI * 50 * t + 1))).toFixed(4)}`.replaceAll(
      '.',
      ',',
    );
  });
  const file = page.getByLabel('CSV of a measured trace');
  await file.setInputFiles({ name: 'bad.csv', mimeType: 'text/csv', buffer: Buffer.from('t,v\n0,1\n1,x\n') });
  await expect(page.getByRole('alert').filter({ hasText: 'bad.csv: Row 3' })).toBeVisible();
  await file.setInputFiles({
    name: 'good.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`t;V\n${rows.join('\n')}\n`),
  });
  await expect(page.getByTestId('measured')).toBeAttached();
  await expect(page.getByText('400 samples over “Reservoir”', { exact: false })).toBeVisible();
});

test('spectrum, CSV, SVG and PNG come out', async ({ page }) => {
  await open(page, CLOCK, '/scope');
  await expect(trace(page, 'winding-a')).toBeVisible();
  const take = async (name: string) => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name, exact: true }).click(),
    ]);
    return { name: download.suggestedFilename(), text: readFileSync((await download.path())!) };
  };
  const csv = await take('CSV');
  expect(csv.name).toBe('slave-clock-line-stairwell-scope.csv');
  expect(csv.text.toString().split('\r\n')).toHaveLength(1002);
  const svg = await take('SVG');
  expect(svg.text.toString()).toMatch(/^<svg[^>]*xmlns/);
  expect(svg.text.toString()).not.toContain('var(');
  const png = await take('PNG');
  expect(png.text.subarray(1, 4).toString()).toBe('PNG');
  await page.getByRole('button', { name: 'Spectrum' }).click();
  await expect(page.getByText('harmonics of 50 Hz', { exact: false })).toContainText('Winding current');
});

test('an arrangement is chosen from its card, and what the design had is kept', async ({ page }) => {
  await open(page, CLOCK);
  await supply(page);
  await page.getByRole('slider', { name: 'Rectifier', exact: true }).focus();
  await page.getByRole('button', { name: 'Bridge', exact: true }).click();
  await expect(page.getByRole('dialog')).toContainText('Right for nearly everything');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Split bridge/ })
    .click();
  await expect(page.getByRole('slider', { name: 'Rectifier', exact: true })).toHaveAttribute(
    'aria-valuetext',
    /^Split bridge/,
  );
  await expect(page.getByRole('slider', { name: 'Reservoir', exact: true })).toHaveAttribute(
    'aria-valuetext',
    /^6800 µF/,
  );
  await expect(page.getByTestId('terrace').getByText('−24.0 V')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('terrace').getByText('−24.0 V')).toHaveCount(0);
  await expect(page.getByTestId('save-state')).toContainText('Saved');
});

test('unequal rails: a heavier minus rail is drawn and judged', async ({ page }) => {
  await open(page, DRUM);
  await supply(page);
  await page.getByRole('slider', { name: 'Load', exact: true }).focus();
  await page.getByLabel('Load, negative rail').fill('480m');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('verdict-rail')).toContainText('480 mA of 500 mA');
  await page.keyboard.press('Control+z');
});

test('a filter is chosen, gets steps of its own on the terrace, and the three inputs stand side by side', async ({
  page,
}) => {
  await open(page, 'Dome motor, unregulated');
  await supply(page);
  await page.getByRole('combobox', { name: 'Filter', exact: true }).selectOption('resistor');
  await expect(page.getByRole('slider', { name: 'Filter', exact: true })).toBeVisible();
  await page.getByRole('combobox', { name: 'Filter', exact: true }).selectOption('choke-input');
  await expect(page.getByRole('slider', { name: 'Input filter', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Compare inputs' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('heading', { level: 3 })).toHaveText([
    'Capacitor input',
    'Small first capacitor',
    'Choke input',
  ]);
  await dialog.getByRole('button', { name: 'Take this one' }).first().click();
  await expect(page.getByRole('slider', { name: 'Input filter', exact: true })).toHaveCount(0);
});

test('the receiver is marked hazardous on every view', async ({ page }) => {
  for (const place of ['', '/scope', '/bench', '/sheet']) {
    await open(page, TIDE, place);
    await expect(page.getByTestId('hazard')).toBeVisible();
  }
});

test('a load line is solved over the pool and reads as a resistance', async ({ page }) => {
  await open(page, CLOCK);
  await supply(page);
  await page.getByRole('slider', { name: 'Load', exact: true }).focus();
  await page.getByRole('button', { name: 'Load line' }).click();
  await expect(page.getByRole('dialog')).toContainText(/behaves like 2\.\d+ Ω in series/);
});
