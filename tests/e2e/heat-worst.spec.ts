import { expect, test, type Page } from '@playwright/test';
import { accessible } from './accessible';
import { watchFaults } from './faults';
import { openDesign, visit } from './open';
import { Server } from './server';

const server = new Server(3423);
const CLOCK = 'Slave-clock line, stairwell';
const BENCH = 'Physics room bench supply, 0 to 25 V';
const DRUM = 'Drum seismograph amplifier, ±18 V';
const FIRST_TRY = 'Physics room bench supply, first try';

test.beforeAll(() => server.start());
test.afterAll(() => server.kill());
watchFaults();

const open = (page: Page, name: string, place = '') => openDesign(page, server, name, place);

test('the first try cooks at its lowest output, and a second transistor is the change that cures it', async ({
  page,
}) => {
  await open(page, FIRST_TRY, '/heat');
  await page.getByLabel('Circumstances').selectOption({ label: 'High line, lowest output, lasting current' });
  await expect(page.getByTestId('heat-headline')).toContainText('Regulator beyond its limit');
  await visit(page, 'Design', 'Worst case');
  await expect(page.getByTestId('corner-headline')).toContainText(/fail/);
  const changes = page.getByRole('complementary', { name: 'What single change helps most' });
  await expect(changes).toContainText(/simulated, by margin gained per euro/);
  await expect(changes.getByRole('listitem').first()).toContainText(/[23] pass transistors/);
  await expect(changes.getByRole('listitem').first()).toContainText('nothing fails');
  await changes
    .getByRole('button', { name: /Take [23] pass transistors/ })
    .first()
    .click();
  await expect(page.getByTestId('corner-headline')).toContainText(/^All \d+ pass in every corner/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('corner-headline')).toContainText(/fail/);
});

test('a closed box warms what stands in it; vents help; every number of a fan is asked for in words', async ({
  page,
}) => {
  await open(page, CLOCK, '/heat');
  const headline = page.getByTestId('heat-headline');
  await expect(headline).toContainText('to get rid of');
  const inside = page.getByRole('img', { name: /^Heat:/ });
  await page.getByLabel('Around it').selectOption('closed');
  await expect(inside).toHaveAttribute('aria-label', /inside air \d/);
  const reading = async () => Number(/inside air (\d+)/.exec((await inside.getAttribute('aria-label'))!)![1]);
  const closed = await reading();
  await page.getByLabel('Around it').selectOption('vented');
  await expect.poll(reading).toBeLessThan(closed);
  await page.getByLabel('Fan over it').selectOption('switched');
  const starts = page.getByLabel('Fan starts at');
  await starts.fill('-2');
  await starts.press('Enter');
  await expect(page.getByText(/Fan starts at (cannot be negative|has to be at least)/)).toBeVisible();
  await expect(starts).toHaveValue('-2');
  await starts.press('Escape');
  await page.getByLabel('Time').selectOption('2');
  await expect(headline).toContainText('to get rid of');
  await accessible(page);
});

test('builds drawn twice from one seed are the same builds, and drawing them can be stopped', async ({ page }) => {
  await open(page, CLOCK, '/worst');
  const draw = page.getByRole('button', { name: 'Draw and solve them' });
  await draw.click();
  const pass = page.getByTestId('builds-pass');
  await expect(pass).toContainText('of 1,000 builds pass everything');
  const first = /([\d.]+) %/.exec((await pass.textContent())!)![1];
  await page.getByLabel('seed').fill('2');
  await draw.click();
  await expect(pass).toContainText('seed 2');
  await page.getByLabel('seed').fill('1');
  await draw.click();
  await expect(pass).toContainText('seed 1');
  expect(/([\d.]+) %/.exec((await pass.textContent())!)![1]).toBe(first);
  await page.getByRole('combobox', { name: 'Builds' }).selectOption('10000');
  await draw.click();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(draw).toBeVisible();
  await expect(pass).toContainText('of 1,000 builds');
  await draw.click();
  await expect(pass).toContainText('of 10,000 builds pass everything');
  await expect(page.getByTestId('builds-read')).toHaveText(/^\d,\d{3} of their 80,000 circumstances were solved/);
  await page.getByTestId('builds-read').getByRole('button').click();
  await expect(page.getByText('read off quadratics')).toBeVisible();
  await page.getByLabel('seed').fill('one');
  await expect(page.getByText('A seed is a whole number')).toBeVisible();
  await expect(draw).toBeDisabled();
  await accessible(page);
});

test('a regulator is changed for another family, its resistors picked from a series with the error printed', async ({
  page,
}) => {
  await open(page, CLOCK, '');
  await page.getByRole('slider', { name: 'Regulator' }).click();
  await page.getByLabel('Family').selectOption('adjustable');
  await expect(page.getByRole('slider', { name: 'Regulator' })).toContainText('317');
  await page.getByRole('button', { name: 'Sums', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: '317' });
  await expect(dialog).toContainText('1.25·(1 + R2/R1)');
  await dialog.getByLabel('Resistors for').fill('1 V');
  await expect(dialog).toContainText('not zero');
  await dialog.getByLabel('Resistors for').fill('24 V');
  await dialog.getByRole('button', { name: 'Take E96' }).click();
  await expect(dialog).toContainText('Output set24');
  await accessible(page);
  await page.keyboard.press('Escape');
  const r1 = page.getByLabel('R1, output to ADJ');
  await r1.fill('0');
  await r1.press('Enter');
  await expect(page.getByText(/R1, output to ADJ has to be at least/)).toBeVisible();
});

test('an adjustable supply shows its range on the terrace and its op-amps’ limit in the rail', async ({ page }) => {
  await open(page, BENCH, '');
  await expect(page.getByText('to 0 V:')).toBeVisible();
  await expect(page.getByTestId('verdict-count')).toContainText(/^All \d+ pass/);
});

test('a regulator ahead of the regulator shares its heat, and undo takes it away again', async ({ page }) => {
  await open(page, CLOCK, '');
  await page.getByRole('slider', { name: 'Regulator' }).click();
  await page.getByRole('button', { name: 'Ahead', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Ahead of the regulator' });
  await dialog.getByLabel('Ahead of it').selectOption('tracking');
  await expect(dialog.getByRole('row', { name: /Burns, high line/ })).toContainText('W');
  await expect(dialog.getByText(/At low line the first lets go|The first holds/)).toBeVisible();
  await dialog.getByLabel('Held above the output').fill('50');
  await dialog.getByLabel('Held above the output').press('Enter');
  await expect(dialog.getByText(/goes up to/)).toBeVisible();
  await dialog.getByLabel('Held above the output').fill('3');
  await dialog.getByLabel('Held above the output').press('Enter');
  await accessible(page);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('terrace').getByText(/ahead$/)).toBeVisible();
  for (let n = 0; n < 2; n++) await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('terrace').getByText(/ahead$/)).toHaveCount(0);
  await expect(page.getByTestId('save-state')).toContainText('Saved');
});

test('what builders argue about is solved on this supply, and a tight verdict says how sure it is', async ({
  page,
}) => {
  await open(page, DRUM, '');
  await page.locator('[data-verdict="regulator-input"]').click();
  await expect(page.getByTestId('how-sure')).toContainText(/Of 60 builds .* pass this/);
  await page.getByRole('slider', { name: 'Regulator' }).click();
  await page.getByRole('button', { name: 'Ways', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('Linear or switching')).toBeVisible();
  await expect(dialog).toContainText('Linear is right here');
  await expect(dialog.getByRole('button', { name: 'Take this one' })).toHaveCount(5);
});
