import { expect, test, type Page } from '@playwright/test';
import { accessible } from './accessible';
import { watchFaults } from './faults';
import { goTo, openDesign, visit } from './open';
import { Server } from './server';

const server = new Server(3422);
const CLOCK = 'Slave-clock line, stairwell';
const DRUM = 'Drum seismograph amplifier, ±18 V';
const DOME = 'Dome motor, unregulated';
const PEN = 'Tide-gauge pen recorder';

test.beforeAll(() => server.start());
test.afterAll(() => server.kill());
// A part in use answers 409, a refused file 422, on purpose.
watchFaults(/status of 4\d\d/);

const open = (page: Page, name: string, place = '') => openDesign(page, server, name, place);

const saved = (page: Page) => expect(page.getByTestId('save-state')).toContainText('Saved');

test('the ring core looks right for the clock, and the list says why it is not', async ({ page }) => {
  await open(page, CLOCK, '/pick');
  const row = page.getByRole('row').filter({ hasText: 'ring core' });
  await expect(row).toContainText('Regulator input');
  await expect(row.getByRole('cell', { name: '2', exact: true })).toBeVisible();
});

test('a can from the drawer is taken with a key, stands in the bill, and undo puts it back', async ({ page }) => {
  await open(page, PEN, '/pick');
  await page.getByRole('radio', { name: 'Reservoir' }).click();
  const take = page.getByRole('button', { name: /^Take 4700 µF 40 V, snap-in, 2 in parallel/ });
  await take.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('banner')).toContainText('2 × 4500 µF');
  await visit(page, 'Buy', 'Bill');
  await expect(page.getByRole('row').filter({ hasText: 'Electrolytic' }).first()).toContainText('drawer: 4700 µF 40 V');
  await saved(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Electrolytic' }).first()).toContainText('to buy');
});

test('sizing finds sets that hold, shows them, and one that is taken makes every verdict hold', async ({ page }) => {
  await open(page, PEN, '/pick');
  await visit(page, 'Buy', 'Whole sets');
  await page.getByRole('button', { name: 'Search' }).click();
  const first = page.getByRole('button', { name: /^Take it: set 1,/ });
  await expect(first).toBeVisible({ timeout: 20_000 });
  await expect(page.getByRole('img', { name: /Cost against worst margin/ })).toBeVisible();
  const stop = page.getByRole('button', { name: 'Stop' });
  if (await stop.isVisible()) await stop.click();
  await first.click();
  await visit(page, 'Design', 'Supply');
  await expect(page.getByTestId('verdict-count')).toContainText(/^All \d+ pass/);
  await page.getByRole('button', { name: 'Undo' }).click();
});

test('a search can be stopped', async ({ page }) => {
  await open(page, DOME, '/pick');
  await visit(page, 'Buy', 'Whole sets');
  await page.getByRole('button', { name: 'Search' }).click();
  await expect(page.getByText(/^Looked at [1-9]\d* sets/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText(/^Stopped: /)).toBeVisible();
  await page.getByText('What was left out, and why').click();
  await expect(page.getByText(/of \d+ circuits, the least promising: it did not come to them/)).toBeVisible();
});

test('a search that was dropped for another goes to its end, and the page answers meanwhile', async ({ page }) => {
  await open(page, PEN, '/pick');
  await visit(page, 'Buy', 'Whole sets');
  await page.getByRole('button', { name: 'Search' }).click();
  await expect(page.getByText(/^Looked at [1-9]\d* sets/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await page.getByLabel('Parts from').selectOption('values');
  await page.getByRole('button', { name: 'Search' }).click();
  const looks = page.getByText(/^Looked at \d{3,} sets/);
  await expect(looks).toBeVisible();
  // What is asked of the page is answered while it goes on.
  await page.getByLabel('Best by').selectOption('heat');
  await expect(page.getByLabel('Best by')).toHaveValue('heat');
  const done = page.getByText(/^Done: 38000 sets, 2000 circuits simulated, [4-8]\d{3} pass/);
  await expect(done).toBeVisible({ timeout: 60_000 });
  await page.getByText('What was left out, and why').click();
  await expect(page.getByText(/circuits, the least promising: a search ends after 2000/)).toBeVisible();
  await expect(page.getByText(/The picture shows the first 1500 of \d{4} sets/)).toBeVisible();
});

test('readings win over the plate, and the page says how they disagree', async ({ page }) => {
  await open(page, CLOCK, '/pick');
  await visit(page, 'Buy', 'Transformer');
  await page.getByLabel('It is known from').selectOption('test');
  const loaded = page.getByLabel('Volts on the resistor');
  await loaded.fill('20 V');
  await loaded.press('Enter');
  await expect(page.getByText('The two disagree.')).toBeVisible();
  await loaded.fill('99 V');
  await loaded.press('Enter');
  await expect(page.getByText('A load pulls a winding down')).toBeVisible();
  await expect(loaded).toHaveValue('99 V');
  await page.getByLabel('Volts on the meter’s DC range').fill('14 V');
  await expect(page.getByText('This adapter gives direct current.')).toBeVisible();
});

test('a few turns more on the dome’s own winding lift what it idles at', async ({ page }) => {
  await open(page, DOME, '/pick');
  await visit(page, 'Buy', 'Transformer');
  await expect(page.getByLabel('Secondary turns')).toHaveValue('62');
  await page.getByRole('button', { name: 'wind so: 64 turns' }).click();
  await expect(page.getByLabel('Secondary turns')).toHaveValue('64');
  await expect(page.getByText('needs an insulation test')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
});

test('a parts file: good rows are shown, refused ones with their reason, nothing is taken before it is said', async ({
  page,
}) => {
  await goTo(page, `${server.url}/drawer`);
  await page.getByRole('button', { name: 'Read a CSV' }).click();
  const file = (text: string) => ({ name: 'parts.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await page
    .getByLabel('Parts file')
    .setInputFiles(file('\uFEFFkind;name;count;kPerW\nsink;"=Salty sink";2;3,3\nsink;Bad;1;cold\n'));
  await expect(page.getByText('1 of 2 rows become parts')).toBeVisible();
  await expect(page.getByText(/^Row 3: To air/)).toBeVisible();
  await page.getByRole('button', { name: 'Take the 1 good rows' }).click();
  await page.getByRole('button', { name: /^Heatsinks/ }).click();
  await expect(page.getByRole('button', { name: '=Salty sink', exact: true })).toBeVisible();
  const csv = await (await fetch(`${server.url}/api/parts/csv`)).text();
  expect(csv).toContain("'=Salty sink");
  await page.getByRole('button', { name: 'Read a CSV' }).click();
  await page.getByLabel('Parts file').setInputFiles(file('a,b\n1,2\n'));
  await expect(page.getByRole('dialog')).toContainText("column 'kind' is missing");
});

test('a part in use asks before it goes, and can be put back', async ({ page }) => {
  await open(page, CLOCK, '/pick');
  await page.getByRole('radio', { name: 'Heatsink' }).click();
  await page.getByRole('button', { name: /^Take Finned sink/ }).click();
  await saved(page);
  await visit(page, 'Buy', 'Drawer');
  await page.getByRole('button', { name: /^Heatsinks/ }).click();
  await page.getByRole('button', { name: 'take out Finned sink 2.5 K/W' }).click();
  await expect(page.getByRole('alertdialog')).toContainText(CLOCK);
  await page.getByRole('button', { name: 'Take it out all the same' }).click();
  await expect(page.getByText('is out of the drawer')).toBeVisible();
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByRole('button', { name: 'Finned sink 2.5 K/W', exact: true })).toBeVisible();
});

test('a part typed with a fault keeps what was typed and says where', async ({ page }) => {
  await goTo(page, `${server.url}/drawer`);
  await page.getByRole('button', { name: 'Add a part' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('My transformer');
  await dialog.getByLabel('Secondary', { exact: true }).fill('twelve');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByLabel('Secondary', { exact: true })).toHaveValue('twelve');
  await dialog.getByLabel('Secondary', { exact: true }).fill('12 V');
  await dialog.getByLabel('Size').fill('20');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('button', { name: 'My transformer', exact: true })).toBeVisible();
});

test('consumers are pasted, summed, and the supply designed for them', async ({ page }) => {
  await open(page, CLOCK, '/load');
  await page.getByRole('button', { name: 'Paste or read a table' }).click();
  await page
    .getByRole('textbox', { name: /Cells from a spreadsheet/ })
    .fill('Movement\t14\t50m\t60m\nChime\t1\t0,2\t0,3\nBad\tx\t1\t1');
  await expect(page.getByText(/^Row 3: count/)).toBeVisible();
  await page.getByRole('button', { name: 'Take 2 lines' }).click();
  await page.getByRole('button', { name: 'Design it for these sums' }).click();
  await expect(page.getByLabel('Load current')).toHaveValue('2.34 A');
  await expect(page.getByLabel('Lasting current')).toHaveValue('2.1 A');
  const standing = page.getByLabel('Standing of line 1');
  await standing.fill('lots');
  await standing.press('Enter');
  await expect(page.getByRole('main').getByRole('alert')).toBeVisible();
  await expect(standing).toHaveValue('lots');
});

test('the mains side knows the design: a fuse is missing until it is chosen, and the rest is ticked by hand', async ({
  page,
}) => {
  await open(page, DRUM, '/mains');
  await expect(page.getByText('No primary fuse is chosen')).toBeVisible();
  await expect(page.getByTestId('next-step')).toContainText('choose the primary fuse');
  await page
    .getByRole('button', { name: /^\d.* A$|mA$/ })
    .first()
    .click();
  await expect(page.getByText(/Primary fuse .* time-lag, in the live conductor/)).toBeVisible();
  await page.getByLabel('Switch').selectOption('1');
  await expect(page.getByText('One switch pole, but the plug goes in both ways round.')).toBeVisible();
  await page.getByRole('button', { name: 'Primary, running' }).click();
  await expect(page.getByTestId('working').first()).toContainText('magnetising current');
  await page.getByRole('button', { name: 'Both poles' }).click();
  await page.getByTestId('next-step').getByRole('link').click();
  await expect(page.getByRole('heading', { name: 'Before the plug goes in' })).toBeAttached();
  await page.getByRole('checkbox', { name: /^Rating plate outside/ }).check();
  await expect(page.getByTestId('next-step')).toContainText('stage 2, transformer alone, is not yet read');
});

test('a design begins at a transformer in hand: shown before it is made, and what was typed stays', async ({
  page,
}) => {
  await goTo(page, `${server.url}/new`);
  await page.getByRole('link', { name: /What have I got/ }).click();
  await page.getByLabel('One winding, V').fill('18 V');
  await page.getByLabel('Size', { exact: true }).fill('nought');
  await expect(page.getByText("'nought' is not a number")).toBeVisible();
  await page.getByLabel('Size', { exact: true }).fill('50 VA');
  await expect(page.getByTestId('proposal')).toContainText('18 V, 50 VA');
  await page.getByRole('link', { name: /What must it feed/ }).click();
  await page.getByRole('link', { name: /What have I got/ }).click();
  await expect(page.getByLabel('One winding, V')).toHaveValue('18 V');
  await page.getByLabel('Name').last().fill('From the bench drawer');
  await page.getByRole('button', { name: 'Take it and open' }).click();
  await expect(page.getByTestId('verdict-count')).toBeVisible();
  await expect(page.getByLabel('Name of the design')).toHaveValue('From the bench drawer');
});

test('a battery, a transformer from the drawer and an example each show what they come to', async ({ page }) => {
  await goTo(page, `${server.url}/new?way=have`);
  await page.getByLabel('In hand').selectOption({ label: 'A battery' });
  await page.getByLabel('Its volts, as printed').fill('12 V');
  await page.getByLabel('It holds, Ah').fill('7');
  await expect(page.getByTestId('proposal')).toContainText('battery');
  await page.getByLabel('In hand').selectOption({ label: 'A transformer from the drawer' });
  await page.getByRole('radio', { name: /15 V 40 VA/ }).check();
  await expect(page.getByTestId('proposal')).toContainText('15 V, 40 VA');
  await accessible(page);
  await page.getByRole('link', { name: /An example/ }).click();
  await page.getByRole('radio', { name: /Tide-gauge pen recorder/ }).check();
  await expect(page.getByTestId('proposal')).toContainText('verdicts fail');
  await accessible(page);
  await page.goBack();
  await expect(page.getByText('A transformer from the drawer')).toHaveCount(0);
});

for (const theme of ['light', 'dark'] as const) {
  test(`nothing stands in anybody's way on the new stations, ${theme}`, async ({ page, context }) => {
    await context.addCookies([{ name: 'theme', value: theme, url: server.url }]);
    await open(page, DOME, '/load');
    await expect(page.getByLabel('Name of line 1')).toBeVisible();
    await accessible(page);
    await open(page, DOME, '/mains');
    await expect(page.getByRole('button', { name: 'Primary, running' })).toBeVisible();
    await accessible(page);
    await open(page, DOME, '/pick');
    await expect(page.getByRole('row').nth(1)).toBeVisible();
    await accessible(page);
    for (const [name, shown] of [
      ['Whole sets', 'Keeps the load, the mains'],
      ['Transformer', 'The model it makes'],
      ['Reservoir', 'One can or several'],
      ['Bill', 'To buy, without what comes'],
      ['Drawer', 'Find by name, place or note'],
    ] as const) {
      await visit(page, 'Buy', name);
      await expect(page.getByText(shown).or(page.getByLabel(shown)).first()).toBeVisible();
      await accessible(page);
    }
  });
}
