import { expect, test, type Page } from '@playwright/test';
import { HOSTILE } from './hostile';
import { goTo } from './open';
import { ROOMS } from './rooms';
import { Server, shelf } from './server';
import { watchFaults } from './faults';

const server = new Server(3427);
test.beforeAll(() => server.start());
test.afterAll(() => server.kill());
watchFaults();

const SIZES = [
  [1920, 1080],
  [1280, 800],
  [1024, 768],
  [768, 1024],
  [360, 740],
] as const;

/** What is wrong with a page as it stands: wider than its window, words on one another, words cut without their whole. */
const troubles = (page: Page) =>
  page.evaluate(() => {
    const found: string[] = [];
    const wider = document.documentElement.scrollWidth - innerWidth;
    if (wider > 0) found.push(`wider than the window by ${wider} px`);
    const tags = [...document.querySelectorAll<SVGTextElement>('[data-tag]')].map((t) => ({
      text: t.textContent ?? '',
      box: t.getBoundingClientRect(),
    }));
    for (const [n, a] of tags.entries())
      for (const b of tags.slice(n + 1)) {
        // The line a letter stands in is higher than the letter.
        const across = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
        const down = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
        if (across > 2 && down > 6) found.push(`‘${a.text}’ lies on ‘${b.text}’`);
      }
    for (const e of document.querySelectorAll<HTMLElement>('.truncate')) {
      const cut = e.scrollWidth > e.clientWidth + 1 && e.clientWidth > 0;
      if (cut && !e.closest('[title]') && !(e instanceof HTMLInputElement)) found.push(`‘${e.textContent}’ is cut`);
    }
    return found;
  });

test('no word lies on another or is cut, at five sizes, on opening and on resize, for demo designs and hostile ones', async ({
  page,
}) => {
  test.setTimeout(240_000);
  for (const design of HOSTILE) {
    const answer = await fetch(`${server.url}/api/designs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(design),
    });
    expect([design.name, answer.ok, answer.ok ? '' : await answer.text()]).toEqual([design.name, true, '']);
  }
  const wrong: string[] = [];
  for (const [name, id] of Object.entries(await shelf(server.url))) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await goTo(page, `${server.url}/design/${id}`);
    await expect(page.getByTestId('verdict-count').or(page.getByText('could not be solved')).first()).toBeVisible();
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      wrong.push(...(await troubles(page)).map((t) => `${name} at ${width}: ${t}`));
    }
  }
  expect(wrong).toEqual([]);
});

test('the drawing follows its window at once, and scrolls inside itself where the window is narrow', async ({
  page,
}) => {
  const [id] = Object.values(await shelf(server.url)) as [string];
  await page.setViewportSize({ width: 1920, height: 1000 });
  await goTo(page, `${server.url}/design/${id}`);
  const terrace = page.getByTestId('terrace');
  await expect(terrace.locator('svg').first()).toBeVisible();
  const width = () => terrace.evaluate((e) => [e.clientWidth, e.querySelector('svg')!.clientWidth]);
  const wide = await width();
  expect(wide[1]).toBe(wide[0]);
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect.poll(async () => (await width())[1]).toBeLessThan(1000);
  const [frame, drawn] = await width();
  expect(drawn).toBe(frame);
  await page.setViewportSize({ width: 660, height: 800 });
  await expect.poll(async () => (await width())[0]).toBeLessThan(660);
  expect((await width())[1]).toBe(700);
  await page.setViewportSize({ width: 320, height: 640 });
  await expect(page.getByTestId('small-terrace')).toBeVisible();
  await expect(page.getByRole('slider', { name: 'Reservoir' })).toBeVisible();
  expect((await troubles(page)).filter((t) => t.startsWith('wider'))).toEqual([]);
});

/** Words whose box hides a part of them, and that cannot be scrolled to. */
const clipped = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('main *, header *')]
      .filter((e) => {
        const { overflowX, overflowY } = getComputedStyle(e);
        if (e.matches('.sr-only, svg, svg *, input, .truncate') || e.closest('.sr-only, svg')) return false;
        const wide = overflowX === 'hidden' || overflowX === 'clip';
        const high = overflowY === 'hidden' || overflowY === 'clip';
        return (wide && e.scrollWidth > e.clientWidth + 2) || (high && e.scrollHeight > e.clientHeight + 3);
      })
      .map((e) => `${e.className}: ${(e.textContent ?? '').slice(0, 60)}`),
  );

test('twice as large, and with the reader’s own spacing of letters and lines, every room keeps its words', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const ids = await shelf(server.url);
  const wrong: string[] = [];
  for (const [room, shown] of ROOMS) {
    await page.setViewportSize({ width: 640, height: 400 });
    await goTo(page, `${server.url}/design/${ids['Tide-gauge pen recorder']}${room}`);
    await expect(page.getByText(shown).first()).toBeAttached();
    wrong.push(...[...(await troubles(page)), ...(await clipped(page))].map((t) => `${room} twice as large: ${t}`));
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.addStyleTag({
      content:
        '*{line-height:1.5!important;letter-spacing:.12em!important;word-spacing:.16em!important} p{margin-bottom:2em!important}',
    });
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    const wider = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    if (wider > 0) wrong.push(`${room} spaced: ${wider} px too wide`);
    wrong.push(...(await clipped(page)).map((t) => `${room} spaced: ${t}`));
  }
  expect(wrong).toEqual([]);
});

test('nothing moves by itself: every room stays where it was drawn', async ({ page }) => {
  test.setTimeout(180_000);
  await page.addInitScript(() => {
    const moved: number[] = [];
    Object.assign(window, { moved });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as unknown as { value: number; hadRecentInput: boolean }[])
        if (!entry.hadRecentInput) moved.push(entry.value);
    }).observe({ type: 'layout-shift', buffered: true });
  });
  const ids = await shelf(server.url);
  const id = ids['Tide-gauge pen recorder'];
  const shifted: [string, number][] = [];
  for (const [room, shown] of ROOMS) {
    await goTo(page, `${server.url}/design/${id}${room}`);
    await expect(page.getByText(shown).first()).toBeAttached();
    await page.waitForLoadState('networkidle');
    await expect(page.locator('[aria-busy=true]')).toHaveCount(0);
    const sum = await page.evaluate(() => (window as unknown as { moved: number[] }).moved.reduce((a, b) => a + b, 0));
    if (sum > 0.02) shifted.push([room, Number(sum.toFixed(3))]);
  }
  expect(shifted).toEqual([]);
});
