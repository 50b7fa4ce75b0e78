import { expect, test, type Page } from '@playwright/test';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { accessible } from './accessible';
import { goTo, openDesign } from './open';
import { Server, shelf } from './server';

const server = new Server();
const CLOCK = 'Slave-clock line, stairwell';
const folder = mkdtempSync(path.join(tmpdir(), 'ember-records-'));

test.beforeAll(() => server.start());
test.afterAll(() => server.kill());

const open = (page: Page, name: string, place = '') => openDesign(page, server, name, place);
const saved = (page: Page) => expect(page.getByTestId('save-state')).toContainText('Saved');

/** Presses a button and keeps what it hands over. */
async function taken(page: Page, button: string): Promise<string> {
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: button, exact: true }).click();
  const download = await waiting;
  const at = path.join(folder, download.suggestedFilename());
  await download.saveAs(at);
  return at;
}

test('the sheet is taken along: a PDF, a page and Markdown that bring the design back, its tables', async ({
  page,
}) => {
  await open(page, CLOCK, '/sheet');
  await expect(page.getByTestId('sheet')).toContainText('When it fails, try first');
  const pdf = readFileSync(await taken(page, 'PDF'));
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  for (const what of ['Bench log', 'Parts list'])
    expect(
      readFileSync(await taken(page, what))
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
  expect(readFileSync(await taken(page, 'Verdicts'), 'utf8')).toContain('Headroom at low line,');
  expect(readFileSync(await taken(page, 'Readings'), 'utf8')).toContain('reservoir-ripple');
  expect(readFileSync(await taken(page, 'Terrace'), 'utf8')).toContain('<svg');
  const shared = await taken(page, 'Shared page');
  const markdown = await taken(page, 'Markdown');

  // Opened from the disk, without a network, it shows what it is; its pictures are with it.
  const alone = await page.context().newPage();
  await alone.context().setOffline(true);
  await alone.goto(`file://${shared}`);
  await expect(alone.getByRole('heading', { level: 1 })).toHaveText(CLOCK);
  await expect(alone.getByRole('img', { name: /Picture of 2026-03-14/ })).toBeVisible();
  await alone.context().setOffline(false);
  await alone.close();

  for (const file of [shared, markdown]) {
    await goTo(page, '/new?way=file');
    await page.getByLabel('File of a design').setInputFiles(file);
    await page
      .getByLabel('Name', { exact: false })
      .last()
      .fill(`Back from ${path.extname(file)}`);
    await page.getByRole('button', { name: 'Take it and open' }).click();
    await expect(page).toHaveURL(/\/design\//);
    await expect(page.getByTestId('verdict-count')).toContainText('18 pass');
  }
});

test('the label: what its code says is pasted, and the design is there again', async ({ page }) => {
  await open(page, 'Tide-gauge pen recorder', '/sheet');
  await page.getByRole('button', { name: 'Label' }).click();
  const label = page.getByTestId('label').getByRole('img');
  await expect(label).toHaveAccessibleName(/Tide-gauge pen recorder.*In 230 V 50 Hz.*Out 12 V/);
  await page.getByLabel('Wide, mm').fill('10');
  await expect(page.getByText('A label is between 25 and 200 mm')).toBeVisible();
  await page.getByLabel('Wide, mm').fill('80');
  await expect(label).toBeVisible();
  await goTo(page, '/new?way=file');
  await page.getByLabel('Or paste it').fill('EMBER RAIL 1:QED8WEX0');
  await page.getByRole('button', { name: 'Read what was pasted' }).click();
  await expect(page.locator('main').getByRole('alert')).toContainText('a letter of it is wrong or missing');
});

test('a damaged file is mended where it can be, and that is said; its first state is kept', async ({ page }) => {
  const design = (await (await fetch(`${server.url}/api/designs/${(await shelf(server.url))[CLOCK]}`)).json()) as {
    design: { name: string; demand: { outputV: unknown }; log?: unknown };
  };
  const spoiled = {
    ...design.design,
    name: 'Came by post',
    colour: 'green',
    demand: { ...design.design.demand, outputV: '24,0' },
  };
  delete spoiled.log;
  const file = path.join(folder, 'spoiled.json');
  writeFileSync(file, JSON.stringify(spoiled));
  await goTo(page, '/new?way=file');
  await page.getByLabel('File of a design').setInputFiles(file);
  const mended = page.getByText('Mended, so that it can be read').locator('..');
  await expect(mended).toContainText('colour is nothing a design has: left out.');
  await expect(mended).toContainText('demand.outputV was written as text: taken as 24.');
  await expect(mended).toContainText('log was missing');
  await page.getByRole('button', { name: 'Take it and open' }).click();
  await expect(page.getByTestId('verdict-count')).toContainText('18 pass');
  await goTo(page, `${page.url()}/revisions`);
  await expect(page.getByRole('list', { name: 'Kept' })).toContainText('As imported');
  await expect(page.getByRole('list', { name: 'Kept' })).toContainText('spoiled.json');
});

test('a picture is kept with its entry and stands beside the part it names; a program is none', async ({ page }) => {
  await open(page, CLOCK, '/circuit');
  await page.locator('[data-part=TP3]').click();
  await expect(page.getByTestId('test-card').getByRole('img', { name: /Picture of 2026-03-14/ })).toBeVisible();
  await open(page, CLOCK, '/log');
  const input = page.getByLabel('Add pictures');
  await input.setInputFiles({ name: 'tool.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('#!/bin/sh\nrm -rf /\n') });
  await expect(page.locator('#log-fault')).toContainText('tool.jpg: This is no picture that can be kept');
  await input.setInputFiles('docs/screenshots/shelf.png');
  await expect(page.getByRole('button', { name: /Take away picture 1/ })).toBeVisible();
  await page.getByLabel('What was done').fill('New can at C1');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await saved(page);
  await page.reload();
  const shown = page.getByRole('img', { name: /New can at C1/ });
  await expect(shown).toBeVisible();
  expect(await shown.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(100);
  await open(page, CLOCK, '/circuit');
  await page.locator('[data-part=C1]').click();
  await expect(page.getByTestId('part-card').getByRole('img', { name: /New can at C1/ })).toBeVisible();
});

test('how far each is stands on the shelf, sorts it, and puts what is retired away', async ({ page }) => {
  await goTo(page, '/');
  const before = await page.getByTestId('shelf-entry').count();
  const card = page.getByTestId('shelf-entry').filter({ hasText: 'Physics room bench supply, first try' });
  await card.getByRole('combobox').selectOption('retired');
  await expect(page.getByTestId('shelf-entry')).toHaveCount(before - 1);
  await page.getByLabel('Which of them').selectOption('retired');
  await expect(page.getByTestId('shelf-entry')).toHaveCount(1);
  await card.getByRole('combobox').selectOption('chosen');
  await expect(page.getByText('Nothing here is at that stage')).toBeVisible();
  await page.getByLabel('Which of them').selectOption('kept');
  await expect(page.getByTestId('shelf-entry')).toHaveCount(before);
});

test('two states on one terrace: what differs, the verdict that moved, the bill; and another design', async ({
  page,
}) => {
  await open(page, CLOCK, '/revisions');
  await page.getByRole('button', { name: 'Beside now: As first built' }).click();
  const both = page.getByTestId('beside');
  await expect(both.getByRole('list', { name: 'What differs' })).toContainText(
    'Reservoir, capacitance4700 µF → 6800 µF',
  );
  await expect(both.getByRole('list', { name: 'What differs' })).toContainText('Filter, bleedernone → 220 kΩ');
  await expect(both.getByRole('list', { name: 'Verdicts that moved' })).toContainText('Headroom at low line');
  await expect(both.getByRole('list', { name: /bill/ })).toContainText('Bleeder 220 kΩ0 → 1');
  await page.getByRole('button', { name: 'Change sides' }).click();
  await expect(both.getByRole('list', { name: 'What differs' })).toContainText('6800 µF → 4700 µF');
  await page.getByLabel('with', { exact: true }).selectOption({ label: 'As it was measured' });
  await expect(both.getByRole('list', { name: 'What differs' })).toContainText('→');
  await page.getByLabel('with', { exact: true }).selectOption({ label: 'Another design: Dome motor, unregulated' });
  await expect(both.getByRole('list', { name: 'What differs' })).toContainText('Regulator');
  await accessible(page);
});

test('everything goes into one file and comes back after a look inside; how it stood is kept', async ({ page }) => {
  await goTo(page, '/backup');
  const file = await taken(page, 'Make a backup');
  await expect(page.getByRole('status').filter({ hasText: 'Made.' })).toBeVisible();
  expect(readFileSync(file).subarray(0, 15).toString()).toBe('SQLite format 3');

  await open(page, 'Dome motor, unregulated');
  await page.getByLabel('Name of the design').fill('Dome, changed since');
  await page.keyboard.press('Enter');
  await expect.poll(async () => Object.keys(await shelf(server.url))).toContain('Dome, changed since');
  await goTo(page, '/backup');
  const input = page.getByLabel('File of a backup');
  await input.setInputFiles({
    name: 'songs.backup',
    mimeType: '',
    buffer: Buffer.from('not one of ours, by any means'),
  });
  await expect(page.getByRole('alert').filter({ hasText: 'songs.backup' })).toContainText('no backup of this program');
  await input.setInputFiles(file);
  const look = page.getByTestId('look');
  await expect(look).toContainText('Dome motor, unregulated');
  await expect(look).toContainText('would replace a NEWER state');
  await accessible(page);
  await page.getByRole('button', { name: 'Put it in place of what is here' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Everything is now as in' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Copies made by itself' })).toContainText('before-restore-');
  await goTo(page, '/');
  await expect(page.getByTestId('shelf-entry').filter({ hasText: 'Dome motor, unregulated' })).toHaveCount(1);
  await expect(page.getByTestId('shelf-entry').filter({ hasText: 'changed since' })).toHaveCount(0);
});

test('a word says what it means where it stands, and all of them have a page', async ({ page }) => {
  await open(page, CLOCK);
  await page.locator('[data-verdict=headroom]').click();
  const word = page.locator('[data-verdict=headroom]').getByRole('button', { name: 'valley', exact: true });
  await word.focus();
  await expect(page.getByRole('tooltip')).toContainText('The lowest point of the ripple');
  // A word of a heading or a table's head says it to a pointer that rests, and one of a field's name on F1.
  await open(page, CLOCK, '/load');
  const head = page.getByRole('columnheader', { name: 'Duty' });
  await expect(async () => {
    await page.mouse.move(2, 2);
    await head.hover({ position: { x: 14, y: 9 } });
    await expect(page.getByRole('status').filter({ hasText: 'Duty. The share' })).toBeVisible({ timeout: 1500 });
  }).toPass();
  await accessible(page);
  // Every other word of a room is in its own list.
  await open(page, CLOCK, '/heat');
  await expect(page.locator('main')).toContainText('junction');
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder('Type a few letters').fill('words on this');
  await page.keyboard.press('Enter');
  const here = page.getByRole('dialog', { name: 'Words on this page' });
  await expect(here).toContainText('The spot of silicon the watts arise in');
  await accessible(page);
  await goTo(page, '/glossary');
  await page.getByLabel('Find').fill('reservoir’s minus');
  await expect(page.getByRole('term')).toHaveText(['Star ground']);
  await accessible(page);
});

test('the first steps end with a change of one’s own', async ({ page }) => {
  await goTo(page, '/');
  await page.getByRole('button', { name: 'First steps' }).click();
  const steps = page.getByRole('region', { name: 'First steps' });
  await expect(steps).toContainText('1 of 5');
  await page
    .getByRole('radio', { name: 'low' })
    .or(page.getByRole('button', { name: 'low', exact: true }))
    .first()
    .click();
  await expect(steps).toContainText('2 of 5');
  await page.getByRole('list', { name: 'Figures here' }).getByRole('button').nth(1).click();
  await expect(steps).toContainText('3 of 5');
  await page.getByLabel('Capacitance', { exact: true }).fill('2200 uF');
  await page.keyboard.press('Enter');
  await expect(steps).toContainText('4 of 5');
  await page.locator('[data-testid=fix]:enabled').first().click();
  await expect(steps).toContainText('5 of 5');
  await accessible(page);
  await page.getByLabel('Name of the design').fill('My own supply');
  await page.keyboard.press('Enter');
  await expect(steps).toContainText('Done.');
  await steps.getByRole('button', { name: 'Close' }).click();
  await expect(steps).toHaveCount(0);
});

test('either side of a choice is shown on the design’s own values, and can be taken', async ({ page }) => {
  await open(page, CLOCK, '/reservoir');
  await page.getByRole('button', { name: '85 or 105?' }).click();
  const dialog = page.getByRole('dialog', { name: '85 or 105 °C cans' });
  await expect(dialog).toContainText('This design has it.');
  await accessible(page);
  await dialog.getByRole('button', { name: 'Take this one' }).click();
  await expect(page.getByLabel('Grade', { exact: true })).toHaveValue('105');
});
