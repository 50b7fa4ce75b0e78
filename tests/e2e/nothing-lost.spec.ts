import { expect, test, type Page } from '@playwright/test';
import { watchFaults } from './faults';
import { goTo, openDesign } from './open';
import { Server, shelf } from './server';

/** What a person wrote survives what can happen to page, thread, server and network. */
const server = new Server();
const CLOCK = 'Slave-clock line, stairwell';

test.beforeAll(() => server.start());
test.afterAll(() => server.kill());

// Each of these breaks something on purpose; the browser logs that by itself.
const faults = watchFaults(/status of \d\d\d|ERR_|Failed to fetch|broken on purpose/);

const station = (page: Page, name: string) => page.getByRole('slider', { name, exact: true });
const saved = (page: Page) => expect(page.getByTestId('save-state')).toContainText('Saved');
const open = async (page: Page) => {
  await openDesign(page, server, CLOCK);
  await expect(page.getByTestId('verdict-count')).toBeVisible();
};
/** The load as its station has it, without what was solved for it. */
const load = async (page: Page) => /^Load(.*?)ripple/.exec((await station(page, 'Load').textContent()) ?? '')?.[1];
const less = async (page: Page) => {
  const before = await load(page);
  await station(page, 'Load').focus();
  await page.keyboard.press('ArrowDown');
  await expect.poll(() => load(page)).not.toBe(before);
};

test('a solver that throws is replaced: the next edit is solved as if nothing had been', async ({ page }) => {
  await open(page);
  await expect.poll(() => page.workers().length).toBeGreaterThan(0);
  for (const worker of page.workers())
    await worker.evaluate(() => {
      setTimeout(() => {
        throw new Error('broken on purpose');
      });
    });
  await less(page);
  await expect(page.getByTestId('verdict-count')).not.toContainText('Not solved');
  await saved(page);
  faults.length = 0;
});

test('a search stuck inside one candidate is ended: the fixes of the next edit come all the same', async ({ page }) => {
  await openDesign(page, server, 'Tide-gauge pen recorder');
  await expect(page.getByTestId('fix').first()).toBeVisible();
  const names = await Promise.all(page.workers().map((worker) => worker.evaluate(() => self.name)));
  const stuck = page.workers()[names.indexOf('search')]!;
  await stuck.evaluate(() => {
    // One candidate that takes longer than anybody would wait.
    setTimeout(() => {
      for (const end = Date.now() + 60_000; Date.now() < end;);
    });
  });
  await station(page, 'Reservoir').focus();
  await page.keyboard.press('ArrowDown');
  // By the time it is saved its fixes are being sought: the edit after it finds a search that does not look up.
  await expect(page.getByTestId('save-state')).not.toContainText('Saved');
  await saved(page);
  await page.keyboard.press('ArrowDown');
  await expect.poll(() => page.workers().includes(stuck)).toBe(false);
  await expect(page.getByText('Simulating what would cure it')).toBeHidden({ timeout: 20_000 });
  await expect(page.getByTestId('fix').first()).toBeVisible();
  await saved(page);
  faults.length = 0;
});

test('offline and back: the edit is kept, said to be waiting, and saved without a hand', async ({ page, context }) => {
  await open(page);
  await context.setOffline(true);
  await less(page);
  await expect(page.getByTestId('save-state')).toContainText('retrying');
  const edited = await load(page);
  await context.setOffline(false);
  await saved(page);
  await page.reload();
  await expect.poll(() => load(page)).toBe(edited);
  faults.length = 0;
});

test('closed while the server is away: opened again, the changes are offered and taken', async ({ page, context }) => {
  await open(page);
  const before = await load(page);
  await server.kill();
  await less(page);
  const edited = await load(page);
  await page.close();
  await server.start();
  const again = await context.newPage();
  await open(again);
  await expect.poll(() => load(again)).toBe(before);
  await expect(again.getByText('never saved; this browser kept them')).toBeVisible();
  await again.getByRole('button', { name: 'Take them' }).click();
  await expect.poll(() => load(again)).toBe(edited);
  await saved(again);
  await again.reload();
  await expect.poll(() => load(again)).toBe(edited);
  await expect(again.getByText('never saved')).toHaveCount(0);
  faults.length = 0;
});

test('typing without leaving the field is saved once the hand rests', async ({ page }) => {
  await open(page);
  await station(page, 'Load').click();
  await page.getByLabel('Load current').fill('700m');
  await expect(station(page, 'Load')).toContainText('700 mA');
  await saved(page);
  await page.reload();
  await expect(station(page, 'Load')).toContainText('700 mA');
});

test('Back shows what is stored, not what the page last drew', async ({ page, context }) => {
  await open(page);
  await page.goto(`${server.url}/drawer`);
  const other = await context.newPage();
  await open(other);
  await less(other);
  const edited = await load(other);
  await saved(other);
  await other.close();
  await page.goBack();
  await expect.poll(() => load(page)).toBe(edited);
});

test('deleted in another window: said, and put back with what stands here', async ({ page, request }) => {
  await open(page);
  const { [CLOCK]: id } = await shelf(server.url);
  expect((await request.delete(`${server.url}/api/designs/${id}`)).status()).toBe(204);
  await less(page);
  const edited = await load(page);
  await page.getByRole('button', { name: 'Put it back on the shelf' }).click();
  await saved(page);
  await page.reload();
  await expect.poll(() => load(page)).toBe(edited);
  await goTo(page, '/');
  await expect(page.getByTestId('shelf-entry').filter({ hasText: CLOCK })).toBeVisible();
});
