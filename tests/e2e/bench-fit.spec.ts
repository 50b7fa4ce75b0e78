import { expect, test } from '@playwright/test';
import { watchFaults } from './faults';
import { openDesign, visit } from './open';
import { Server } from './server';

const server = new Server(3433);
const DOME = 'Dome motor, unregulated';
const CLOCK = 'Slave-clock line, stairwell';
const PEN = 'Tide-gauge pen recorder';

test.beforeAll(() => server.start());
test.afterAll(() => server.kill());
watchFaults();

test('the dome’s load line is fitted; the values are taken as a revision, and undo or going back brings the old ones', async ({
  page,
}) => {
  await openDesign(page, server, DOME, '/line');
  await expect(page.getByTestId('fit-words')).toContainText('agree');
  const copper = page.getByRole('row', { name: /^Winding, open/ });
  await expect(copper).toContainText('your readings');
  const kept = page.waitForResponse(
    (r) => r.url().endsWith('/revisions') && r.request().postData()!.includes('Fitted'),
  );
  await page.getByRole('button', { name: 'Take these values' }).click();
  await kept;
  await visit(page, 'Buy', 'Transformer');
  await expect(page.getByText('Fitted to your readings of the whole supply')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Computed from turns and wire')).toBeVisible();
  await visit(page, 'Keep', 'Revisions');
  await page.getByRole('button', { name: /^Go back to it: Fitted/ }).click();
  await expect(page.getByRole('status')).toContainText('is now as “Fitted');
  await page.getByRole('button', { name: /^Beside now: Before the fit/ }).click();
  await expect(page.getByTestId('beside').getByRole('row', { name: /^Ripple, p-p/ })).toContainText('V');
  await page
    .getByRole('form', { name: 'Keep how it stands now' })
    .getByRole('textbox', { name: 'Name' })
    .fill('As built');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Kept' }).getByRole('heading').first()).toHaveText('As built');
  await page.reload();
  await expect(page.getByRole('list', { name: 'Kept' }).getByRole('heading').first()).toHaveText('As built');
  await visit(page, 'Buy', 'Transformer');
  await expect(page.getByText('Fitted to your readings of the whole supply')).toBeVisible();
});

test('a load line by keyboard alone; a row typed wrongly is named and can be retyped', async ({ page }) => {
  await openDesign(page, server, CLOCK, '/line');
  const form = page.getByRole('form', { name: 'Next row' });
  await form.getByLabel('Load', { exact: true }).focus();
  for (const [load, volts] of [
    ['0.1 A', '35.1'],
    ['0.4 A', '33.7'],
    ['0.8 A', '37'],
    ['1.2 A', '31.4'],
  ]) {
    await page.keyboard.type(load!);
    await page.keyboard.press('Tab');
    await page.keyboard.type('230.5');
    await page.keyboard.press('Tab');
    await page.keyboard.type(volts!);
    await page.keyboard.press('Enter');
    await expect(form.getByLabel('Load', { exact: true })).toBeFocused();
    await expect(form.getByLabel('Load', { exact: true })).toHaveValue('');
  }
  await expect(page.getByTestId('load-row')).toHaveCount(4);
  await expect(page.getByTestId('fit-wrong')).toContainText('row 3, 800 mA, reservoir');
  const cell = page.getByLabel('Row 3: Reservoir, V');
  await cell.fill('32.4');
  await cell.press('Enter');
  await expect(page.getByTestId('fit-wrong')).toHaveCount(0);
  // Kept, like everything: it is there again after a reload.
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByTestId('load-row')).toHaveCount(4);
});

test('bad rows get a sentence and lose nothing; pasted ones are looked at first', async ({ page }) => {
  await openDesign(page, server, DOME, '/line');
  const form = page.getByRole('form', { name: 'Next row' });
  await form.getByLabel('Load', { exact: true }).fill('half an amp');
  await form.getByLabel('Reservoir').fill('35');
  await page.keyboard.press('Enter');
  await expect(form.getByRole('alert')).toContainText('Load:');
  await expect(form.getByLabel('Reservoir')).toHaveValue('35');
  await form.getByLabel('Load', { exact: true }).fill('0.5');
  await form.getByLabel('Ripple').fill('200');
  await page.keyboard.press('Enter');
  await expect(form.getByRole('alert')).toContainText('was it read in millivolts?');
  await page.getByRole('button', { name: 'Paste or read a file' }).click();
  await page.getByRole('textbox', { name: /Cells or a CSV/ }).fill('load,reservoir\n0.7,36\nmany,35\n');
  await expect(page.getByText('Row 3: load:')).toBeVisible();
  await page.getByRole('button', { name: 'Take 1 row' }).click();
  await expect(page.getByTestId('load-row')).toHaveCount(7);
});

test('a scale against the meter: pairs by keyboard, what is off by a share said, and undone', async ({ page }) => {
  await openDesign(page, server, 'Physics room bench supply, 0 to 25 V', '/line');
  const panel = page.getByRole('region', { name: 'Set against read' });
  await expect(panel.getByTestId('scale-words')).toContainText('high over the range: trim the full scale');
  await panel.getByRole('radio', { name: 'Meter against meter' }).check();
  await panel.getByLabel('Theirs').focus();
  for (const pair of [
    ['5', '5.2'],
    ['20', '20.8'],
  ]) {
    await page.keyboard.type(pair[0]!);
    await page.keyboard.press('Tab');
    await page.keyboard.type(pair[1]!);
    await page.keyboard.press('Enter');
    await expect(panel.getByLabel('Theirs')).toBeFocused();
  }
  await expect(panel.getByTestId('scale-words')).toContainText('Yours reads 4 % high over the range');
  await page.keyboard.type('lots');
  await page.keyboard.press('Enter');
  await expect(panel.getByRole('alert')).toContainText('Theirs:');
  await expect(panel.getByLabel('Theirs')).toHaveValue('lots');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Control+z');
  await expect(panel.getByRole('button', { name: /^Remove the pair/ })).toHaveCount(1);
});

test('the tide gauge’s dead diode is found, with what proves it; the sound clock is called sound', async ({ page }) => {
  await openDesign(page, server, PEN, '/faults');
  await expect(page.getByTestId('suspect').first()).toContainText('A diode does not conduct');
  await expect(page.getByTestId('opened-suspect')).toContainText('It explains all 4 readings');
  await expect(page.getByTestId('opened-suspect')).toContainText('discharged');
  await expect(page.getByRole('img', { name: /^Terrace at full load.*With this fault/ })).toBeVisible();
  await page.getByTestId('suspect').nth(1).click();
  await expect(page.getByTestId('opened-suspect')).toContainText('Do not switch it on again');
  await openDesign(page, server, CLOCK, '/faults');
  await expect(page.getByTestId('suspect').first()).toContainText('Nothing wrong');
});

test('a dozen readings and more are weighed, can be stopped, and begun anew', async ({ page }) => {
  // What is asked of the search is held until it was stopped: however fast the machine, there is time to.
  await page.addInitScript(() => {
    const held = window as unknown as { held: boolean };
    held.held = true;
    window.Worker = new Proxy(Worker, {
      construct(target, [url, options]: [URL, WorkerOptions]) {
        const worker = new target(url, options);
        const post = worker.postMessage.bind(worker) as (...message: unknown[]) => void;
        if (options.name === 'search')
          worker.postMessage = (...message: unknown[]) => (held.held ? undefined : post(...message));
        return worker;
      },
    });
  });
  await openDesign(page, server, 'Drum seismograph amplifier, ±18 V', '/faults');
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Stopped before all were weighed.')).toBeVisible();
  await expect(page.getByTestId('suspect')).toHaveCount(0);
  await page.evaluate(() => ((window as unknown as { held: boolean }).held = false));
  await page.getByRole('button', { name: 'Weigh them' }).click();
  await expect(page.getByTestId('suspect').first()).toContainText('Nothing wrong');
  const [took] = await page.evaluate(() => performance.getEntriesByName('faults-weighed').map((m) => m.duration));
  console.log(`eighteen readings weighed in ${took!.toFixed(0)} ms (budget of a dozen 2000 ms)`);
});

test('a practice supply is read, its fault named wrongly and rightly, and the finder shows its way', async ({
  page,
}) => {
  await openDesign(page, server, 'Dome motor, unregulated', '/practice');
  await page.getByRole('button', { name: 'The chime that hums' }).click();
  const puzzle = page.getByTestId('puzzle');
  await expect(puzzle.getByRole('heading', { level: 2 })).toBeFocused();
  await puzzle.getByRole('button', { name: /^Diode range across each/ }).click();
  await expect(puzzle.getByLabel('What was read')).toContainText(/D[1-4] shows nothing either way/);
  const place = /D[1-4]/.exec(await puzzle.getByLabel('What was read').innerText())![0];
  await puzzle.getByLabel('What is wrong').selectOption('A diode does not conduct');
  await puzzle.getByLabel('Which').selectOption(place);
  await puzzle.getByRole('button', { name: 'Name it' }).click();
  const told = page.getByTestId('told');
  await expect(told).toContainText(`● Found. A diode does not conduct, ${place}`);
  await expect(told).toContainText(
    /You: 1 reading, 0 of them powered, 4 minutes\. The finder: \d, \d powered, \d+ minutes/,
  );
  await expect(page.getByRole('navigation', { name: 'Puzzles' })).toContainText('● found');
  await page.getByLabel('Another, by its seed').fill('0');
  await page.getByRole('button', { name: 'This supply' }).click();
  await expect(page.getByRole('navigation', { name: 'Puzzles' }).getByRole('alert')).toContainText(
    'whole number from 1',
  );
  await page.getByLabel('Another, by its seed').fill('7');
  await page.getByRole('button', { name: 'This supply' }).click();
  await expect(puzzle.getByRole('heading', { level: 2 })).toHaveText('This supply, seed 7');
});
