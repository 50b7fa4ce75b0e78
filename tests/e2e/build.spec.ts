import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { watchFaults } from './faults';
import { openDesign, visit } from './open';
import { Server } from './server';

const server = new Server(3434);
const CLOCK = 'Slave-clock line, stairwell';
const DRUM = 'Drum seismograph amplifier, ±18 V';
const PEN = 'Tide-gauge pen recorder';
const TIDE = 'Tide-telegraph receiver, valves';

test.beforeAll(() => server.start());
test.afterAll(() => server.kill());
watchFaults();

test('a part is looked at, its value typed over where it is drawn, and undone', async ({ page }) => {
  await openDesign(page, server, CLOCK);
  await visit(page, 'Build', 'Circuit');
  const circuit = page.getByRole('group', { name: 'Circuit' });
  await circuit.getByRole('button', { name: /^C1: reservoir, 6800 µF/ }).click();
  const card = page.getByTestId('part-card');
  await expect(card).toContainText('raw +');
  await expect(card).toContainText('stripe is minus');
  await expect(card).toContainText('has to bear');
  const field = card.getByLabel('Each can');
  await field.fill('4700u');
  await field.press('Enter');
  await expect(circuit.getByRole('button', { name: /^C1: reservoir, 4700 µF/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(circuit.getByRole('button', { name: /^C1: reservoir, 6800 µF/ })).toBeVisible();
});

test('by keyboard from part to part; a station of the terrace lights its own', async ({ page }) => {
  await openDesign(page, server, CLOCK, '/circuit');
  const circuit = page.getByRole('group', { name: 'Circuit' });
  const regulator = circuit.getByRole('button', { name: /^U1/ });
  await regulator.focus();
  await page.keyboard.press('Enter');
  await expect(regulator).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('img', { name: 'TO-220, from the left: in, ground, out' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Light up: Regulator' })).toHaveAttribute('aria-pressed', 'true');
  await circuit.getByRole('button', { name: /^TP2: test point on raw/ }).click();
  await page
    .getByTestId('test-card')
    .getByRole('button', { name: /^Reservoir at full load/ })
    .click();
  await expect(page.getByTestId('test-card')).toContainText('Periodic steady state');
  await page.getByRole('button', { name: 'Light up: Reservoir' }).click();
  await expect(page.getByTestId('part-card').getByRole('heading')).toContainText('C1');
});

test('the circuit goes out as a picture, the netlist as a table', async ({ page }) => {
  await openDesign(page, server, CLOCK, '/circuit');
  await page.getByLabel('Symbols').selectOption('zigzags');
  const [picture] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'SVG' }).click(),
  ]);
  expect(picture.suggestedFilename()).toBe('slave-clock-line-stairwell-circuit.svg');
  expect(readFileSync(await picture.path(), 'utf8')).toContain('<title>Slave-clock line, stairwell</title>');
  const [table] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Netlist CSV' }).click(),
  ]);
  expect(readFileSync(await table.path(), 'utf8')).toMatch(/^reference,value/);
});

test('the wiring list says what flows and what it hums, each with its working; hazardous wires say so', async ({
  page,
}) => {
  await openDesign(page, server, TIDE);
  await visit(page, 'Build', 'Wiring');
  const row = page.getByRole('row', { name: /T1 winding 1, start/ });
  await expect(row).toContainText('⚠');
  await row.getByRole('button', { name: /^Hum by 100 mm/ }).click();
  await expect(page.getByText('peak of the charging pulses × resistance of 100 mm')).toBeVisible();
  const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
  expect(readFileSync(await csv.path(), 'utf8').split('\r\n')[0]).toBe(
    'from,to,net,A RMS,A peak,V to ground at most,mm long,mm2,AWG,colour,ends',
  );
});

test('parts go in one after the other; a stage that is full wants to be measured first; the parcel is counted', async ({
  page,
}) => {
  await openDesign(page, server, DRUM);
  await visit(page, 'Build', 'Assembly');
  const next = page.getByTestId('assembly-next');
  await expect(next.getByRole('heading')).toContainText('J1');
  const stage = page.getByRole('list', { name: 'Mains and transformer' });
  for (const ref of ['J1', 'S1', 'T1']) {
    await expect(next.getByRole('heading')).toContainText(ref);
    await next.getByRole('button', { name: 'It is in' }).click();
  }
  await expect(stage.getByRole('checkbox', { checked: true })).toHaveCount(3);
  await expect(next.getByRole('heading')).toHaveText('Now measure: transformer alone');
  await page.keyboard.press('Control+z');
  await expect(next.getByRole('heading')).toContainText('T1');
  const came = page.getByRole('textbox', { name: /^Came: D1–D4/ });
  await came.fill('5');
  await came.press('Enter');
  await expect(page.getByRole('row', { name: /^D1–D4/ })).toContainText('fifth');
  await came.fill('some');
  await came.press('Enter');
  await expect(page.getByText('A count: a whole number up to 9999.')).toBeVisible();
});

test('a part too near to another is said at once, by mouse, keys and numbers, and undone; the template goes out', async ({
  page,
}) => {
  await openDesign(page, server, DRUM);
  await visit(page, 'Build', 'Box');
  const title = page.getByRole('heading', { level: 1 });
  await expect(title).toHaveText('It fits 200 × 160 × 100 mm');
  await expect(page.getByRole('heading', { name: /^All \d+ distances are kept$/ })).toBeVisible();
  const box = page.getByRole('group', { name: /^Box, inside 200 by 160 by 100/ });
  await box.getByRole('button', { name: /^H1: heatsink/ }).click();
  const card = page.getByRole('region', { name: 'Part H1' });
  const left = card.getByLabel('From the left');
  const before = await left.inputValue();
  await left.fill('5');
  await left.press('Enter');
  await expect(title).toHaveText('It does not fit 200 × 160 × 100 mm yet');
  await expect(page.getByText(/^✕ Inside the box: H1/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(title).toHaveText('It fits 200 × 160 × 100 mm');
  await expect(left).toHaveValue(before);
  // By keys: a millimetre, or ten.
  const lamp = box.getByRole('button', { name: /^J2: output/ });
  await lamp.focus();
  const post = page.getByRole('region', { name: 'Part J2' }).getByLabel('From the left');
  const at = Number.parseFloat(await post.inputValue());
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('ArrowLeft');
  await expect(post).toHaveValue(`${at + 9} mm`);
  await expect(page.getByRole('button', { name: 'Place everything anew' })).toBeVisible();
  // A part of the person's own, with a size nobody has.
  await page.getByText('Parts of your own').click();
  await page.getByLabel('What it is').fill('panel meter');
  for (const side of ['Width, mm', 'Depth, mm']) await page.getByLabel(side).fill('40');
  await page.getByLabel('Height, mm').fill('0');
  await page.getByRole('button', { name: 'Fit it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: /^Height:/ })).toBeVisible();
  await expect(page.getByLabel('What it is')).toHaveValue('panel meter');
  await page.getByLabel('Height, mm').fill('30');
  await page.getByRole('button', { name: 'Fit it' }).click();
  await expect(box.getByRole('button', { name: /^panel meter/ })).toBeVisible();
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('region', { name: 'Template' }).getByRole('button', { name: 'PDF' }).click(),
  ]);
  expect(
    readFileSync(await pdf.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  await page.getByRole('button', { name: 'Let Heat reckon with this box' }).click();
  await expect(page.getByText('Heat reckons with this box.')).toBeVisible();
});

test('what two designs want is ordered together, with spares or without', async ({ page }) => {
  await openDesign(page, server, CLOCK);
  await visit(page, 'Buy', 'Bill');
  const order = page.getByRole('region', { name: 'Order' });
  await expect(order.getByRole('row', { name: /78S24/ })).toContainText('1.80');
  await order.getByText('Together with other designs').click();
  await order.getByRole('checkbox', { name: DRUM }).check();
  await expect(order.getByRole('heading')).toContainText('for 2 designs together');
  await expect(
    order
      .getByRole('row', { name: /Mains inlet/ })
      .getByRole('cell')
      .nth(2),
  ).toHaveText('2');
  await order.getByRole('checkbox', { name: 'with spares' }).uncheck();
  await expect(
    order
      .getByRole('row', { name: /Mains inlet/ })
      .getByRole('cell')
      .first(),
  ).toHaveText('2');
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    order.getByRole('button', { name: 'Order as CSV' }).click(),
  ]);
  expect(readFileSync(await csv.path(), 'utf8')).toMatch(/^order,part,bears,wanted/);
});

const PARTS = 'The board from the side of its parts';

test('a board of strips is laid out and found again from its copper; a net is lit, both sides go out', async ({
  page,
}) => {
  await openDesign(page, server, PEN);
  await visit(page, 'Build', 'Board');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^On \d+ strips of \d+ holes$/);
  await expect(page.getByRole('heading', { name: /^All \d+ nets are one piece each, and none touch$/ })).toBeVisible();
  await expect(page.getByRole('group', { name: PARTS })).toBeVisible();
  const net = page.getByRole('button', { name: '0 V', exact: true });
  await net.click();
  await expect(net).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('radio', { name: 'Copper' }).check();
  await expect(page.getByRole('group', { name: 'The board from the side of its copper' })).toBeVisible();
  const [svg] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'SVG' }).click()]);
  expect(svg.suggestedFilename()).toMatch(/-board-copper\.svg$/);
  expect(readFileSync(await svg.path(), 'utf8')).toMatch(/width="[\d.]+mm"/);
  const [csv] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
  expect(readFileSync(await csv.path(), 'utf8')).toMatch(/^what,name,net,holes/);
  const [pdf] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^PDF/ }).click()]);
  expect(
    readFileSync(await pdf.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
});

test('a part of a board of strips is moved hole by hole and by number, the links follow, undo puts it back', async ({
  page,
}) => {
  await openDesign(page, server, PEN);
  await visit(page, 'Build', 'Board');
  const can = page.getByRole('button', { name: /^C2 in / });
  const before = await can.getAttribute('aria-label');
  await can.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(can).not.toHaveAttribute('aria-label', before!);
  await expect(page.getByRole('heading', { name: /^All \d+ nets are one piece each, and none touch$/ })).toBeVisible();
  await page.getByLabel('Hole', { exact: true }).fill('eight');
  await page.keyboard.press('Tab');
  await expect(page.getByLabel('Hole', { exact: true })).toHaveValue('eight');
  await expect(page.getByLabel('Hole', { exact: true })).toHaveAttribute('aria-invalid', 'true');
  await page.getByRole('button', { name: 'Lay everything out anew' }).click();
  await expect(can).toHaveAttribute('aria-label', before!);
});

test('a board with tracks: laid out, found again, a part dragged and its tracks laid anew, undone; what a board house asks for', async ({
  page,
}) => {
  await openDesign(page, server, DRUM);
  await visit(page, 'Build', 'Board');
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toHaveText(/^On \d+ × \d+ mm, one side, (no links|\d+ links?)$/);
  await expect(page.getByRole('heading', { name: 'All 7 nets are one piece each, and none touch' })).toBeVisible();
  await expect(page.getByText('pulses and load meet at the reservoir’s leg only')).toBeVisible();
  // A width opens its working.
  const wants = page
    .getByRole('row', { name: /^\+18 V / })
    .getByRole('button')
    .nth(1);
  await wants.click();
  await expect(page.getByText('IPC-2221, outer layer.')).toBeVisible();
  const can = page.getByRole('button', { name: /^C1, 2200/ });
  const place = page.getByLabel('First leg, from the left');
  await can.click();
  const before = await place.inputValue();
  const box = (await can.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2 + 4, { steps: 4 });
  await page.mouse.up();
  await expect(place).not.toHaveValue(before);
  await expect(page.getByRole('button', { name: 'Stop' })).toBeHidden();
  await expect(page.getByRole('heading', { name: 'All 7 nets are one piece each, and none touch' })).toBeVisible();
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Control+z');
  await expect(place).toHaveValue(before);
  await expect(page.getByRole('button', { name: 'Place everything anew' })).toBeHidden();
  const [zip] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Gerber, ZIP' }).click(),
  ]);
  const files = Object.keys(unzipSync(readFileSync(await zip.path())));
  for (const suffix of ['copper-under.gbr', 'mask-under.gbr', 'silk.gbr', 'outline.gbr', 'drill.drl', 'centroid.csv'])
    expect(files.some((f) => f.endsWith(suffix))).toBe(true);
  await page.getByRole('radio', { name: 'Two sides' }).check();
  await expect(heading).toHaveText(/^On \d+ × \d+ mm, two sides$/);
});
