import { spawn, type ChildProcess } from 'node:child_process';
import net from 'node:net';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { accessible } from './accessible';
import { openDesign, visit } from './open';
import { Server } from './server';

const server = new Server(3437);
const DOME = 'Dome motor, unregulated';
/** Where stand-ins of their own listen: the load is the second. */
const FIRST = 5461;
let standIns: ChildProcess | null = null;

test.beforeEach(() => server.start());
test.afterEach(async () => {
  standIns?.kill();
  standIns = null;
  await server.kill();
});

const open = (page: Page, room: string) => openDesign(page, server, DOME, room);

/** What an instrument answers, asked past the program. */
function asked(port: number, line: string): Promise<string> {
  return new Promise((resolve, reject) => {
    const socket = net.connect({ host: '127.0.0.1', port }, () => socket.write(`${line}\n`));
    socket.once('error', reject);
    socket.once('data', (d) => {
      resolve(d.toString().trim());
      socket.destroy();
    });
  });
}

const loadPort = async () => {
  const { instruments } = (await (await fetch(`${server.url}/api/instruments`)).json()) as {
    instruments: { kind: string; port: number }[];
  };
  return instruments.find((i) => i.kind === 'load')!.port;
};

/** Instruments that outlive the server, as real ones do. */
async function startOwn() {
  standIns = spawn(process.execPath, [path.resolve('scripts/tool.mjs'), 'stand-ins', '--port', String(FIRST)], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((resolve) => standIns!.stdout!.once('data', resolve));
  await expect.poll(() => asked(FIRST + 1, '*IDN?').catch(() => '')).toContain('SIMULATED');
  for (const [n, kind] of ['meter', 'load', 'scope', 'source'].entries()) {
    const answer = await fetch(`${server.url}/api/instruments/${kind}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ host: '127.0.0.1', port: FIRST + n, commands: {}, confirmed: true }),
    });
    expect(answer.status).toBe(200);
  }
}

/** Begins a sweep of long steps and waits until current flows. */
async function beginSweep(page: Page, port: number) {
  await open(page, '/line');
  await page.getByRole('button', { name: 'Sweep it' }).click();
  const panel = page.getByRole('region', { name: 'Sweep' });
  await panel.getByLabel('From').fill('1 A');
  await panel.getByLabel('Each hangs on').fill('60');
  await panel.getByRole('button', { name: 'Start the sweep' }).click();
  await expect.poll(() => asked(port, 'INP?')).toBe('1');
  return panel;
}

test('the demo brings stand-ins along; they read, say what they are, and a bad address or word is refused', async ({
  page,
}) => {
  await open(page, '/instruments');
  await expect(page.getByTestId('simulated')).toContainText(`Simulated: stand-ins around a build of ‘${DOME}’`);
  const meter = page.getByTestId('instrument-meter');
  await expect(meter).toContainText('SIMULATED METER');
  await meter.getByRole('button', { name: 'DC volts' }).click();
  await expect(meter.locator('strong').first()).toHaveText(/^3[5-9]\.\d\d V$/);
  await meter.getByRole('button', { name: 'Degrees' }).click();
  await expect(meter.getByRole('alert')).toContainText('beyond its range');
  await accessible(page);

  const load = page.getByTestId('instrument-load');
  await load.getByLabel('Address').fill('203.0.113.9:5025');
  await load.getByRole('button', { name: 'Enter it again' }).click();
  await expect(load.getByRole('alert')).toContainText('once you have confirmed');
  await load.getByLabel('It is mine').check();
  await load.getByRole('button', { name: 'Enter it again' }).click();
  await expect(load.getByRole('alert')).toContainText('lies outside this house');
  await load.getByRole('button', { name: 'Its words' }).click();
  await load.getByLabel('Load off: what is sent').fill('INP OFF?');
  await expect(load).toContainText('this is no question');
  await page.getByRole('button', { name: 'Show it' }).click();
  await expect(page.getByLabel('Last lines of the log')).toContainText('MEAS:VOLT:DC?');
});

test('a sweep fills the load line with rows that one undo takes back, and leaves the load off', async ({ page }) => {
  await open(page, '/instruments');
  await expect(page.getByTestId('simulated')).toContainText('Simulated');
  await visit(page, 'Bench', 'Load line and fit');
  const rows = page.getByTestId('load-row');
  await expect(rows).toHaveCount(6);
  await page.getByRole('button', { name: 'Sweep it' }).click();
  const panel = page.getByRole('region', { name: 'Sweep' });
  await expect(panel).toContainText('Simulated');
  await panel.getByLabel('Each hangs on').fill('a while');
  await panel.getByRole('button', { name: 'Start the sweep' }).click();
  await expect(panel.getByRole('alert')).toContainText('Each hangs on');
  await panel.getByLabel('Each hangs on').fill('500 ms');
  await panel.getByRole('button', { name: 'Start the sweep' }).click();
  await expect(page.getByTestId('sweep-state')).toContainText(
    'All steps are read. 6 rows kept. The load says it is off.',
  );
  await expect(rows).toHaveCount(12);
  await expect(page.getByLabel('Row 12: load', { exact: true })).toHaveValue(/^(3\.9|4)/);
  expect(await asked(await loadPort(), 'INP?')).toBe('0');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Control+z');
  await expect(rows).toHaveCount(6);

  // Its own limit ends it, and so does the person.
  await panel.getByLabel('Volts below').fill('36 V');
  await panel.getByRole('button', { name: 'Start the sweep' }).click();
  await expect(page.getByTestId('sweep-state')).toContainText(/Stopped at 3[45]\.\d\d V, below your 36 V/);
  await panel.getByLabel('Volts below').fill('16 V');
  await panel.getByLabel('Each hangs on').fill('60');
  await panel.getByRole('button', { name: 'Start the sweep' }).click();
  await panel.getByRole('button', { name: 'Stop, load off' }).click();
  await expect(page.getByTestId('sweep-state')).toContainText('Stopped by you. 0 rows kept. The load says it is off.');
  expect(await asked(await loadPort(), 'INP?')).toBe('0');
});

test('a trace of the scope lies over the computed one, and says that it is simulated', async ({ page }) => {
  await open(page, '/scope');
  await page.getByRole('button', { name: 'From the scope' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'No scope is entered' })).toBeVisible();
  await visit(page, 'Bench', 'Instruments');
  await expect(page.getByTestId('simulated')).toContainText('Simulated');
  await visit(page, 'Design', 'Scope');
  await page.getByRole('checkbox', { name: 'Winding current', exact: true }).uncheck();
  await page.getByRole('button', { name: 'From the scope' }).click();
  await expect(page.getByTestId('measured')).toBeAttached();
  await expect(page.getByRole('region', { name: 'Measured trace' })).toContainText(
    /Simulated, from a stand-in\. 500 samples over “(Reservoir|Rectifier output)”/,
  );
});

test('the page is closed in the middle of a sweep: the load goes off', async ({ page, context }) => {
  await startOwn();
  const other = await context.newPage();
  await beginSweep(other, FIRST + 1);
  await other.close();
  await expect.poll(() => asked(FIRST + 1, 'INP?'), { timeout: 8000 }).toBe('0');
  await open(page, '/line');
});

test('the server is killed in the middle of a sweep: the load goes off all the same', async ({ page }) => {
  await startOwn();
  const panel = await beginSweep(page, FIRST + 1);
  await server.kill();
  await expect.poll(() => asked(FIRST + 1, 'INP?'), { timeout: 8000 }).toBe('0');
  await expect(panel.getByRole('alert')).toContainText('look at the load all the same');
});

test('the instruments die in the middle of a sweep: nobody is told that the load is off', async ({ page }) => {
  await startOwn();
  await beginSweep(page, FIRST + 1);
  const gone = new Promise((resolve) => standIns!.once('exit', resolve));
  standIns!.kill();
  await gone;
  await expect(page.getByTestId('sweep-state')).toContainText('Whether the load is off is not known');
});
