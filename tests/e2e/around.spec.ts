import { expect, test, type Page } from '@playwright/test';
import { goTo, openDesign, visit } from './open';
import { Server } from './server';

const server = new Server();
const CLOCK = 'Slave-clock line, stairwell';
const PEN = 'Tide-gauge pen recorder';

test.beforeAll(() => server.start());
test.afterAll(() => server.kill());

const open = (page: Page, name: string, place = '') => openDesign(page, server, name, place);

const saved = (page: Page) => expect(page.getByTestId('save-state')).toContainText('Saved');

test.describe('the shelf', () => {
  test('a duplicate is a design of its own, found by its name', async ({ page }) => {
    await goTo(page, '/');
    await page.getByRole('button', { name: `Duplicate ${CLOCK}` }).click();
    await expect(page.getByTestId('shelf-entry')).toHaveCount(9);
    await page.getByLabel('Find a design').fill('copy');
    await expect(page.getByTestId('shelf-entry')).toHaveCount(1);
    await page.getByLabel('Find a design').fill('800 mA');
    await expect(page.getByTestId('shelf-entry')).toHaveCount(1);
    await expect(page.getByTestId('shelf-entry')).toContainText(PEN);
    await page.getByLabel('Find a design').fill('no such thing');
    await expect(page.getByText('Nothing on the shelf matches')).toBeVisible();
    await page.getByLabel('Find a design').fill('');
    await page.getByLabel('Order', { exact: true }).selectOption('worst');
    await expect(page.getByTestId('shelf-entry').first()).toContainText(PEN);
  });

  test('paper or charcoal is remembered', async ({ page }) => {
    await goTo(page, '/');
    await page.getByRole('switch', { name: 'Dark theme' }).click();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
    await page.reload();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  });

  test('what is not there is said to be not there', async ({ page }) => {
    await goTo(page, '/design/nobody');
    await expect(page.getByRole('heading', { name: 'Not on the shelf' })).toBeVisible();
    await page.getByRole('link', { name: 'To the shelf' }).click();
    await expect(page.getByTestId('shelf-entry').first()).toBeVisible();
  });
});

test.describe('names and undo', () => {
  test('an empty or endless name is told at the field, and the old one stays', async ({ page }) => {
    await open(page, CLOCK);
    const name = page.getByLabel('Name of the design');
    await name.fill('   ');
    await page.keyboard.press('Enter');
    await expect(page.getByText('the field cannot stay empty')).toBeVisible();
    await name.fill('x'.repeat(90));
    await page.keyboard.press('Enter');
    await expect(page.getByText('90 letters; 80 fit')).toBeVisible();
    await name.press('Escape');
    await expect(name).toHaveValue(CLOCK);
  });

  test('undo while typing means the typing, not the step before', async ({ page }) => {
    await open(page, CLOCK);
    await page.getByRole('slider', { name: 'Reservoir' }).focus();
    await page.keyboard.press('ArrowUp');
    await expect(page.getByRole('slider', { name: 'Reservoir' })).toContainText('10000 µF');
    const field = page.getByLabel('Capacitance');
    await field.focus();
    await page.keyboard.press('End');
    await page.keyboard.type('9');
    await page.keyboard.press('Control+z');
    await expect(page.getByRole('slider', { name: 'Reservoir' })).toContainText('10000 µF');
    await field.press('Escape');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('slider', { name: 'Reservoir' })).toContainText('6800 µF');
    await saved(page);
  });

  test('a note is one step, however long it took to write', async ({ page }) => {
    await open(page, CLOCK, '/sheet');
    const note = page.getByLabel('Notes');
    const before = await note.inputValue();
    await note.focus();
    await page.keyboard.press('End');
    await page.keyboard.type(' New fuse fitted.');
    await page.getByRole('button', { name: 'JSON', exact: true }).focus();
    await saved(page);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(note).toHaveValue(before);
    await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  });

  test('history goes along from Supply to Bench and back', async ({ page }) => {
    await open(page, PEN);
    await page.getByRole('slider', { name: 'Winding' }).focus();
    await page.keyboard.press('ArrowUp');
    await expect(page.getByRole('slider', { name: 'Winding' })).toContainText('15 V');
    await visit(page, 'Bench');
    await expect(page.getByTestId('step-mains')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await visit(page, 'Design', 'Supply');
    await expect(page.getByRole('slider', { name: 'Winding' })).toContainText('12 V');
    await saved(page);
  });
});

test.describe('workings', () => {
  test('a verdict, a figure, an expected window and a printed margin all open theirs', async ({ page }) => {
    await open(page, PEN);
    await page.getByText(/^The valley falls .* short/).click();
    await expect(page.getByTestId('working')).toContainText('lowest reservoir voltage − (output + dropout)');
    await page.getByRole('slider', { name: 'Reservoir' }).click();
    await page.getByRole('button', { name: /^Stored, idle/ }).click();
    await expect(page.getByTestId('working')).toContainText('½·C·V²');

    await goTo(page, '/');
    await open(page, PEN, '/bench');
    await page
      .getByRole('button', { name: /^Expected .* show the working/ })
      .nth(2)
      .click();
    await expect(page.getByTestId('working')).toContainText('mean reservoir voltage with only its leakage');

    await open(page, PEN, '/sheet');
    await page
      .getByRole('row', { name: /Regulator junction/ })
      .getByRole('button')
      .click();
    await expect(page.getByTestId('working')).toContainText('junction to case');
  });

  test('the mains band in front changes what is told', async ({ page }) => {
    await open(page, CLOCK);
    const reservoir = page.getByRole('slider', { name: 'Reservoir' });
    const nominal = await reservoir.textContent();
    await reservoir.focus();
    await page.keyboard.press('1');
    await expect(page.getByRole('radio', { name: 'low' })).toBeChecked();
    await expect(reservoir).not.toHaveText(nominal!);
    await page.getByRole('radio', { name: 'nominal' }).click();
    await expect(reservoir).toHaveText(nominal!);
  });
});

test('a headroom is one figure on the drawing, in the rail, at its corner and on the sheet', async ({ page }) => {
  await open(page, CLOCK);
  const rail = page.locator('[data-verdict="headroom"]');
  await expect(rail).toHaveText(/^Headroom at low line[\d.]+ m?V$/);
  const volts = /[\d.]+ m?V$/.exec(await rail.innerText())![0];
  await expect(page.getByText(`${volts} clear`)).toBeVisible();
  await visit(page, 'Design', 'Worst case');
  await expect(page.getByRole('row', { name: /^Headroom/ }).locator('.outline-ink')).toHaveText(
    new RegExp(`${volts}$`),
  );
  await visit(page, 'Keep');
  await expect(page.getByRole('button', { name: `Headroom at low line: ${volts}, its working` })).toHaveText(volts);
});

test('another arrangement keeps every value that still means something', async ({ page }) => {
  await open(page, CLOCK);
  const arrange = async (from: string, to: string) => {
    await page.getByRole('slider', { name: 'Rectifier' }).click();
    await page.getByRole('button', { name: from, exact: true }).click();
    await page
      .getByRole('dialog')
      .getByRole('button', { name: new RegExp(`^${to}`) })
      .click();
  };
  await arrange('Bridge', 'Centre tap');
  await expect(page.getByRole('slider', { name: 'Winding' })).toContainText('2 × 24 V');
  await expect(page.getByRole('slider', { name: 'Reservoir' })).toContainText('6800 µF');
  await arrange('Centre tap', 'Half-wave');
  await expect(page.getByRole('slider', { name: 'Winding' })).toContainText('24 V');
  await page.getByRole('slider', { name: 'Regulator' }).click();
  await page.getByLabel('Family').selectOption('none');
  await expect(page.getByText('No regulator: the reservoir feeds the load directly')).toBeVisible();
  for (let n = 0; n < 3; n++) await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('slider', { name: 'Regulator' })).toContainText('78S24');
  await saved(page);
});

test('pages come with a policy that lets nothing in from elsewhere, and ask for nothing from there', async ({
  page,
}) => {
  const elsewhere: string[] = [];
  page.on('request', (r) => {
    if (!r.url().startsWith(server.url) && !/^(data|blob):/.test(r.url())) elsewhere.push(r.url());
  });
  const response = await goTo(page, '/');
  const policy = response!.headers()['content-security-policy']!;
  expect(policy).toContain("default-src 'self'");
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
  expect(policy).not.toContain('unsafe-eval');
  await open(page, CLOCK);
  await expect(page.getByTestId('verdict-count')).toBeVisible();
  expect(elsewhere).toEqual([]);
  // Where solving happens the machine's own code is allowed; on the page nothing but the page's own scripts is.
  const compiles = () => {
    try {
      return Boolean(new WebAssembly.Module(Uint8Array.of(0, 0x61, 0x73, 0x6d, 1, 0, 0, 0)));
    } catch {
      return false;
    }
  };
  await expect.poll(() => page.workers().length).toBeGreaterThan(0);
  expect(await page.workers()[0]!.evaluate(compiles)).toBe(true);
  expect(await page.evaluate(compiles)).toBe(false);
});

test('the log: an entry is written, found, changed and brought back', async ({ page }) => {
  await open(page, CLOCK, '/log');
  const form = page.getByRole('form', { name: 'An entry' });
  await form.getByRole('button', { name: 'Write it down' }).click();
  await expect(form.getByRole('alert')).toContainText('Say what was done');
  await form.getByLabel('Day').fill('2026-06-20');
  await form.getByLabel('What was done').fill('Second chime fitted');
  await form.getByLabel('Why').fill('the hall asked for it');
  await page.keyboard.press('Enter');
  const days = page.getByTestId('log-day');
  await expect(days.first()).toContainText('Second chime fitted');
  await expect(form.getByLabel('What was done')).toBeFocused();
  await page.getByLabel('Find').fill('hall asked');
  await expect(days).toHaveCount(1);
  await page.getByRole('button', { name: 'Change: Second chime fitted' }).click();
  await form.getByLabel('Why').fill('the hall asked twice');
  await form.getByRole('button', { name: 'Change it' }).click();
  await page.getByLabel('Find').fill('');
  await expect(days.first()).toContainText('asked twice');
  await page.getByRole('button', { name: 'Remove: Second chime fitted' }).click();
  await expect(days.first()).toContainText('Taken out of its old case');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(days.first()).toContainText('asked twice');
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Markdown' }).click();
  expect((await waiting).suggestedFilename()).toBe('slave-clock-line-stairwell-log.md');
});
