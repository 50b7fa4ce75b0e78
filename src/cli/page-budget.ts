import { chromium, type Browser, type Page } from '@playwright/test';
import { median, quantileSorted } from 'simple-statistics';
import { withBuiltServer } from './built-server';
import { HEADLESS } from './headless';
import { scriptBytes } from './script-bytes';

/** What one design's page takes in a browser that has never seen it. */
export interface PageRow {
  name: string;
  /** Scripts the page asks for before it stands, bytes gzipped. */
  scriptBytes: number;
  /** From asking for the page to its terrace, ms. */
  terraceMs: number;
  /** Longest work on the page's own thread until it has come to rest, ms. */
  loadTaskMs: number;
  /** Edits drawn, and how long each took from the hand to the paint, ms. */
  edits: number;
  editMedianMs: number;
  editP95Ms: number;
  /** Longest work on the page's own thread while it was edited, ms. */
  editTaskMs: number;
}

/** What is wanted of each. */
export const PAGE_BUDGET = { scriptBytes: 200_000, terraceMs: 700, taskMs: 50, editP95Ms: 50 } as const;

/** Times each page is opened anew. */
const OPENINGS = 3;
/** Frames of one drag, and how far it goes, pixels. */
const FRAMES = 20;
const DRAGGED_PX = 40;
/** Below this the browser does not call work long, ms. */
const LONG_MS = 50;

/** Opens the demo designs' pages in the built program and drags each of their grips. @throws Error when it does not come up */
export function pageBudget(root: string, onDone: (row: PageRow) => void): Promise<PageRow[]> {
  return withBuiltServer(root, true, async (base) => {
    const browser = await chromium.launch(HEADLESS);
    try {
      const designs = (await (await fetch(`${base}/api/designs`)).json()) as { id: string; name: string }[];
      // What the server does for its first page of all is no page's own.
      for (const { id } of designs) await (await fetch(`${base}/design/${id}`)).text();
      const rows: PageRow[] = [];
      for (const { id, name } of designs) {
        const row = await measured(browser, base, `/design/${id}`, name);
        rows.push(row);
        onDone(row);
      }
      return rows;
    } finally {
      await browser.close();
    }
  });
}

async function measured(browser: Browser, base: string, at: string, name: string): Promise<PageRow> {
  const scripts = [...(await scriptBytes(base, at)).values()];
  const terraces: number[] = [];
  const loadTasks: number[] = [];
  let page = await opened(browser, base + at);
  for (let opening = 1; ; opening++) {
    terraces.push((await measures(page, 'first-terrace'))[0]!);
    loadTasks.push(await longestTask(page));
    if (opening === OPENINGS) break;
    await page.context().close();
    page = await opened(browser, base + at);
  }
  await page.evaluate(() => (performance.clearMeasures(), (self as unknown as Watched).longTasks.splice(0)));
  await drags(page);
  const edits = (await measures(page, 'edit-to-paint')).sort((a, b) => a - b);
  const editTaskMs = await longestTask(page);
  await page.context().close();
  return {
    name,
    scriptBytes: scripts.reduce((sum, size) => sum + size, 0),
    terraceMs: median(terraces),
    loadTaskMs: Math.min(...loadTasks),
    edits: edits.length,
    editMedianMs: quantileSorted(edits, 0.5),
    editP95Ms: quantileSorted(edits, 0.95),
    editTaskMs,
  };
}

/** A page that keeps what the browser calls long. */
interface Watched {
  longTasks: number[];
}

async function opened(browser: Browser, url: string): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.addInitScript(() => {
    const watched = self as unknown as { longTasks: number[] };
    watched.longTasks = [];
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) watched.longTasks.push(entry.duration);
    }).observe({ type: 'longtask', buffered: true });
  });
  await page.goto(url);
  await page.waitForFunction(() => performance.getEntriesByName('first-terrace').length > 0);
  // A person looks before editing: by then all of it is there.
  await page.waitForLoadState('networkidle');
  await atRest(page);
  return page;
}

/** Until nothing is busy any more, and the page's own thread has had nothing to do for a while, twice. */
async function atRest(page: Page): Promise<void> {
  await page.waitForFunction(() => document.querySelectorAll('[aria-busy=true]').length === 0);
  await page.evaluate(() => new Promise<void>((done) => requestIdleCallback(() => requestIdleCallback(() => done()))));
}

const measures = (page: Page, mark: string) =>
  page.evaluate((name) => performance.getEntriesByName(name).map((m) => m.duration), mark);

/** Longest task seen, ms; what is shorter than the browser calls long counts as nothing. */
const longestTask = (page: Page) => page.evaluate(() => Math.max(0, ...(self as unknown as Watched).longTasks));

/** Drags every grip of the terrace there and back, one step a frame. */
async function drags(page: Page): Promise<void> {
  const grips = await page
    .locator('[data-testid^="Drag "]')
    .evaluateAll((all) => all.map((grip) => (grip as HTMLElement).dataset.testid!));
  for (const name of grips) {
    const grip = page.getByTestId(name);
    const box = await grip.boundingBox();
    if (!box) continue;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let n = 1; n <= FRAMES; n++) {
      await page.mouse.move(x, y - (DRAGGED_PX * n) / FRAMES);
      await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(resolve)));
    }
    await page.mouse.up();
    await atRest(page);
  }
}

/** The table of all pages, and whether each keeps to what is wanted. */
export function pageTable(rows: readonly PageRow[]): { lines: string[]; kept: boolean } {
  const task = (ms: number) => (ms > 0 ? `${ms.toFixed(0)}` : `<${LONG_MS}`).padStart(8);
  const lines = rows.map(
    (r) =>
      `${r.name.padEnd(38)}${(r.scriptBytes / 1000).toFixed(1).padStart(9)}${r.terraceMs.toFixed(0).padStart(9)}${task(r.loadTaskMs)}${String(r.edits).padStart(7)}${r.editMedianMs.toFixed(1).padStart(9)}${r.editP95Ms.toFixed(1).padStart(9)}${task(r.editTaskMs)}`,
  );
  const kept = rows.every(
    (r) =>
      r.scriptBytes <= PAGE_BUDGET.scriptBytes &&
      r.terraceMs <= PAGE_BUDGET.terraceMs &&
      r.editP95Ms <= PAGE_BUDGET.editP95Ms &&
      Math.max(r.loadTaskMs, r.editTaskMs) <= PAGE_BUDGET.taskMs,
  );
  return {
    kept,
    lines: [
      'Page of                               script kB  terrace    task  edits   median      p95    task   (ms)',
      ...lines,
      `wanted${''.padEnd(32)}${(PAGE_BUDGET.scriptBytes / 1000).toFixed(1).padStart(9)}${String(PAGE_BUDGET.terraceMs).padStart(9)}${String(PAGE_BUDGET.taskMs).padStart(8)}${''.padEnd(16)}${String(PAGE_BUDGET.editP95Ms).padStart(9)}${String(PAGE_BUDGET.taskMs).padStart(8)}`,
    ],
  };
}
