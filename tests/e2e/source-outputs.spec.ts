import { expect, test, type Page } from '@playwright/test';
import { accessible } from './accessible';
import { watchFaults } from './faults';
import { openDesign, visit } from './open';
import { Server } from './server';

const server = new Server(3424);
const LOGGER = 'Tide-pole logger, on the jetty';
const CLOCK = 'Slave-clock line, stairwell';
const PEN = 'Tide-gauge pen recorder';

test.beforeAll(() => server.start());
test.afterAll(() => server.kill());
watchFaults();

const open = (page: Page, name: string, place = '') => openDesign(page, server, name, place);
const station = (page: Page, name: string) => page.getByRole('slider', { name, exact: true });

test('a battery feeds the logger: what it lasts, what a diode costs, and the diode is taken out and put back', async ({
  page,
}) => {
  await open(page, LOGGER);
  await expect(station(page, 'Battery')).toContainText(/lasts \d/);
  await expect(station(page, 'Winding')).toHaveCount(0);
  await station(page, 'Diode').click();
  await page.getByRole('button', { name: 'What it costs' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('heading', { level: 3 })).toHaveText([/No diode/, /Schottky/, /Silicon/]);
  await expect(dialog.getByText('Headroom, empty battery')).toHaveCount(3);
  await accessible(page);
  await dialog.getByRole('button', { name: 'Take this one' }).first().click();
  await expect(station(page, 'Diode')).toContainText('none');
  await expect(page.locator('[data-verdict="reverse-polarity"]')).toHaveAttribute('data-state', 'fails');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(station(page, 'Diode')).toContainText('Schottky');
  await expect(page.getByTestId('save-state')).toContainText('Saved');
});

test('changed over from the mains to an adapter and back, nothing is lost; bad volts get a sentence', async ({
  page,
}) => {
  await open(page, PEN);
  await station(page, 'Mains').click();
  await page.getByLabel('Fed from').selectOption({ label: 'DC adapter 12 V 1 A, unregulated' });
  await expect(station(page, 'Adapter')).toContainText('12 V');
  await expect(page.getByTestId('verdict-rail')).toContainText('Current of the adapter');
  await expect(page.getByTestId('verdict-rail')).not.toContainText('Winding');
  const spread = page.getByLabel('Spread, ±');
  await spread.fill('−3');
  await spread.press('Enter');
  await expect(page.getByText('Spread, ± cannot be negative')).toBeVisible();
  await spread.press('Escape');
  await page.getByLabel('Fed from').selectOption({ label: 'Block battery 9 V' });
  const empty = page.getByLabel('Given up at');
  await empty.fill('11');
  await empty.press('Enter');
  await expect(page.getByText('Has to be below the 9.50 V it has fresh.')).toBeVisible();
  await empty.press('Escape');
  await page.getByLabel('Fed from').selectOption({ label: 'Mains and transformer' });
  await expect(station(page, 'Winding')).toContainText('12 V');
  await expect(station(page, 'Rectifier')).toContainText('Bridge');
  await expect(page.getByTestId('save-state')).toContainText('Saved');
});

test('every place speaks of the battery: side, heat, worst case, scope, bench, parts and sheet', async ({ page }) => {
  await open(page, LOGGER, '/mains');
  await expect(page.getByRole('link', { name: 'Source side', exact: true })).toHaveAttribute('aria-current', 'page');
  await expect(page.getByText('Fuse 500 mA in the lead, close to the battery.')).toBeVisible();
  await accessible(page);
  await visit(page, 'Design', 'Heat');
  await expect(page.getByLabel('Circumstances')).toContainText('Fresh battery, lasting load');
  await expect(page.getByRole('textbox', { name: 'Board copper' })).toHaveValue('6 cm²');
  await visit(page, 'Design', 'Worst case');
  await expect(page.getByRole('columnheader', { name: 'Empty battery' })).toBeVisible();
  await visit(page, 'Design', 'Scope');
  await expect(page.getByTestId('scope-screen').locator('[data-trace="output-v-0"]')).toHaveCount(1);
  await page.getByLabel('Run', { exact: true }).selectOption({ label: 'Battery missing' });
  await expect(page.getByTestId('scope-screen').locator('[data-trace="output-v-0"]')).toHaveCount(1);
  await visit(page, 'Buy');
  await expect(page.getByRole('link', { name: 'Transformer', exact: true })).toHaveCount(0);
  await expect(page.getByRole('radio', { name: 'Reservoir' })).toBeVisible();
  await visit(page, 'Bench');
  await expect(page.getByText('Before the battery')).toBeVisible();
  await page.getByRole('button', { name: 'I have read this and checked these' }).click();
  await page.getByLabel('Battery, open').fill('12.4');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('step-mains')).toContainText('As expected');
  await accessible(page);
  await visit(page, 'Keep');
  await expect(page.getByTestId('sheet')).toContainText('12.9 V battery');
  await expect(page.getByTestId('sheet')).not.toContainText(/primary fuse|winding/i);
});

test('a second output hangs on the clock’s reservoir: its headroom and heat, on terrace, verdicts and bench', async ({
  page,
}) => {
  await open(page, CLOCK);
  await station(page, 'Regulator').click();
  await page.getByRole('button', { name: 'Outputs', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Add an output' }).click();
  const one = dialog.getByRole('region', { name: /5 V/ });
  await expect(one).toContainText(/Headroom, low line/);
  await one.getByLabel('Load current').fill('300 mA');
  await one.getByLabel('Load current').press('Enter');
  await expect(one).toContainText(/Burns, high line/);
  await accessible(page);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('further-output')).toContainText('5 V:');
  const junction = page.locator('[data-verdict="junction"]');
  await expect(junction).toHaveAttribute('data-state', 'fails');
  await expect(page.getByTestId('verdict-rail')).toContainText(/5 V: (more than )?\d+ °C with/);
  await visit(page, 'Design', 'Heat');
  await expect(page.getByRole('main')).toContainText('5 V');
  await visit(page, 'Design', 'Supply');
  for (let n = 0; n < 2; n++) await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('further-output')).toHaveCount(0);
  await expect(page.getByTestId('save-state')).toContainText('Saved');
});
