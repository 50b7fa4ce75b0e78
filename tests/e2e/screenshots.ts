import { chromium, type Page } from '@playwright/test';
import path from 'node:path';
import { HEADLESS } from '../../src/cli/headless';
import { visit } from './open';
import { Server, shelf } from './server';

/** Usage: npm run screenshots. Takes the pictures in docs/screenshots from the demo data and the production build. */
async function main() {
  const server = new Server(3418);
  await server.start();
  const browser = await chromium.launch(HEADLESS);
  const ids = await shelf(server.url);
  const clock = `/design/${ids['Slave-clock line, stairwell']}`;
  const tide = `/design/${ids['Tide-telegraph receiver, valves']}`;
  const dome = `/design/${ids['Dome motor, unregulated']}`;
  const pen = `/design/${ids['Tide-gauge pen recorder']}`;
  const fixesDone = (page: Page) => page.locator('[data-testid=fix]:enabled').first().waitFor();

  const shots: { name: string; at: string; theme?: 'dark'; height?: number; prepare?(page: Page): Promise<void> }[] = [
    { name: 'shelf', at: '/', height: 420 },
    {
      name: 'new-from-load',
      at: '/new',
      prepare: async (page) => {
        await page.getByRole('button', { name: 'Propose a supply' }).click();
        await page.getByTestId('proposal').waitFor();
      },
    },
    { name: 'supply', at: clock, prepare: fixesDone },
    { name: 'split', at: `/design/${ids['Drum seismograph amplifier, ±18 V']}`, prepare: fixesDone },
    { name: 'choke-input', at: tide, prepare: async (page) => page.getByTestId('verdict-count').waitFor() },
    {
      name: 'scope',
      at: `${clock}/scope`,
      prepare: async (page) => page.locator('[data-trace="reservoir-v-0"]').waitFor(),
    },
    {
      name: 'heat',
      at: `/design/${ids['Physics room bench supply, first try']}/heat`,
      prepare: async (page) => {
        await page.getByLabel('Circumstances').selectOption({ label: 'High line, lowest output, lasting current' });
        await page.getByText('Regulator beyond its limit').waitFor();
        await page.getByText('What would make it cooler').waitFor();
      },
    },
    {
      name: 'worst-case',
      at: `${clock}/worst`,
      prepare: async (page) => page.getByText('by margin gained per euro').waitFor(),
    },
    {
      name: 'circuit',
      at: `${clock}/circuit`,
      prepare: async (page) => {
        await page.getByText('31.6 V').waitFor();
        await page.locator('[data-part=U1]').click();
        await page.getByText('has to bear').waitFor();
      },
    },
    { name: 'supply-in-trouble', at: pen, theme: 'dark', prepare: fixesDone },
    {
      name: 'bench',
      at: `${clock}/bench`,
      prepare: async (page) => {
        await page.getByRole('button', { name: /I have read this/ }).click();
        for (const reading of ['226', '26.1', '35.4', '24.1', '33.6', '24.1', '26.9', '1.4']) {
          await page.keyboard.type(reading);
          await page.keyboard.press('Enter');
        }
        await page.getByTestId('step-reservoir-ripple').getByText('expected', { exact: false }).first().waitFor();
        await page.getByTestId('step-reservoir-loaded').getByText('Too low', { exact: false }).waitFor();
      },
    },
    {
      name: 'load-line',
      at: `${dome}/line`,
      prepare: async (page) => page.getByTestId('fit-words').waitFor(),
    },
    {
      name: 'faults',
      at: `${pen}/faults`,
      prepare: async (page) => page.getByTestId('opened-suspect').waitFor(),
    },
    {
      name: 'instruments',
      at: `${dome}/instruments`,
      prepare: async (page) => {
        await page.getByText('SIMULATED METER').waitFor();
        await page.getByRole('button', { name: 'DC volts' }).click();
        await page.getByRole('button', { name: 'Volts at its terminals' }).click();
        await page
          .getByText(/\d\d\.\d\d V/)
          .nth(1)
          .waitFor();
      },
    },
    {
      name: 'board',
      at: `/design/${ids['Drum seismograph amplifier, ±18 V']}/board`,
      prepare: async (page) => {
        await page.getByRole('button', { name: '+18 V', exact: true }).click();
      },
    },
    {
      name: 'box',
      at: `/design/${ids['Physics room bench supply, 0 to 25 V']}/box`,
      prepare: async (page) => {
        await page.getByRole('button', { name: /^T1: transformer/ }).click();
        await page.getByRole('region', { name: 'Part T1' }).waitFor();
      },
    },
    {
      name: 'sizing',
      at: `${pen}/pick`,
      prepare: async (page) => {
        await visit(page, 'Buy', 'Whole sets');
        await page.getByRole('button', { name: 'Search' }).click();
        await page.getByRole('button', { name: /^Take it: set 5,/ }).waitFor();
        await page.getByText(/[1-9]\d\d circuits simulated/).waitFor({ timeout: 15_000 });
        const stop = page.getByRole('button', { name: 'Stop' });
        if (await stop.isVisible()) await stop.click();
      },
    },
    {
      name: 'mains-side',
      at: `${dome}/mains`,
      prepare: async (page) => page.getByRole('button', { name: 'Primary, running' }).waitFor(),
    },
    { name: 'sheet', at: `${clock}/sheet`, height: 1160, prepare: async (page) => page.getByTestId('sheet').waitFor() },
  ];
  for (const { name, at, theme, height, prepare } of shots) {
    const context = await browser.newContext({ viewport: { width: 1280, height: height ?? 800 } });
    await context.addCookies([{ name: 'theme', value: theme ?? 'light', url: server.url }]);
    const page = await context.newPage();
    await page.goto(server.url + at, { waitUntil: 'networkidle' });
    // A face that came too late for the first drawing is there for the second.
    await page.reload({ waitUntil: 'networkidle' });
    await prepare?.(page);
    await page.screenshot({ path: path.resolve(`docs/screenshots/${name}.png`) });
    await context.close();
    console.log(name);
  }
  await browser.close();
  await server.kill();
}

void main();
