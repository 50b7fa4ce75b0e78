import { chromium, type Browser } from '@playwright/test';
import { quantileSorted } from 'simple-statistics';
import { withBuiltServer } from './built-server';
import { HEADLESS } from './headless';
import { pageAlone, type PageAlone } from './page-alone';
import { scriptBytes } from './script-bytes';
import { shareTaken, takenAway } from './taken-away';

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
  /** Share of this machine's processors that was given to others in the quietest opening; null where that is not told. */
  taken: number | null;
}

/** What is wanted of each. */
export const PAGE_BUDGET = { scriptBytes: 200_000, terraceMs: 700, taskMs: 50, editP95Ms: 50 } as const;

/** Times each page is opened and used anew; the least of each figure counts, what the machine did besides does not. */
const OPENINGS = 2;
/** Where less of the machine than this was given to others an opening counts as quiet; so many are tried for two such. */
const QUIET = 0.05;
const MOST_OPENINGS = 4;
/** Frames of one drag, and how far it goes, pixels. */
const FRAMES = 20;
const DRAGGED_PX = 40;
/** How long a page is looked at before the first grip is taken hold of, ms. */
const LOOKED_MS = 1000;
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
  const openings: (Used & { taken: number | null })[] = [];
  for (let n = 0; n < MOST_OPENINGS && openings.filter((o) => (o.taken ?? 0) < QUIET).length < OPENINGS; n++) {
    const taken = takenAway();
    const used = await usedOnce(browser, base + at);
    openings.push({ ...used, taken: taken() });
  }
  const least = (of: (opening: (typeof openings)[number]) => number) => Math.min(...openings.map(of));
  return {
    name,
    scriptBytes: scripts.reduce((sum, size) => sum + size, 0),
    terraceMs: least((o) => o.terraceMs),
    loadTaskMs: least((o) => o.loadTaskMs),
    edits: least((o) => o.edits),
    editMedianMs: least((o) => o.editMedianMs),
    editP95Ms: least((o) => o.editP95Ms),
    editTaskMs: least((o) => o.editTaskMs),
    taken: openings.some((o) => o.taken === null) ? null : least((o) => o.taken!),
  };
}

/** What one opening comes to. */
type Used = Omit<PageRow, 'name' | 'scriptBytes' | 'taken'>;

/** Opens a page, drags all its grips and closes it. */
async function usedOnce(browser: Browser, url: string): Promise<Used> {
  const page = await opened(browser, url);
  const terraceMs = (await measures(page, 'first-terrace'))[0]!;
  const loadTaskMs = await longestTask(page);
  await page.evaluate(`performance.clearMeasures(), void longTasks.splice(0)`);
  await drags(page);
  const edits = (await measures(page, 'edit-to-paint')).sort((a, b) => a - b);
  const editTaskMs = await longestTask(page);
  await page.close();
  return {
    terraceMs,
    loadTaskMs,
    edits: edits.length,
    editMedianMs: quantileSorted(edits, 0.5),
    editP95Ms: quantileSorted(edits, 0.95),
    editTaskMs,
  };
}

/** Opens a page and has it keep what the browser calls long, from its beginning on. */
async function opened(browser: Browser, url: string): Promise<PageAlone> {
  const page = await pageAlone(browser, url, `performance.getEntriesByName('first-terrace').length > 0`);
  // A person looks before editing: by then all of it is there, and the hand is on its way to the first grip.
  await atRest(page);
  await new Promise((looked) => setTimeout(looked, LOOKED_MS));
  await page.evaluate(`void (
    (self.longTasks = []),
    new PerformanceObserver((list) => self.longTasks.push(...list.getEntries().map((e) => e.duration)))
      .observe({ type: 'longtask', buffered: true })
  )`);
  await atRest(page);
  return page;
}

/** Until nothing is busy any more, and the page's own thread has had nothing to do for a while, twice. */
const atRest = (page: PageAlone) =>
  page.evaluate<void>(`new Promise((done) => {
    const look = () =>
      document.querySelector('[aria-busy=true]')
        ? setTimeout(look, 50)
        : requestIdleCallback(() => requestIdleCallback(() => done()));
    look();
  })`);

const measures = (page: PageAlone, mark: string) =>
  page.evaluate<number[]>(`performance.getEntriesByName('${mark}').map((m) => m.duration)`);

/** Longest task seen, ms; what is shorter than the browser calls long counts as nothing. */
const longestTask = (page: PageAlone) => page.evaluate<number>(`Math.max(0, ...longTasks)`);

/** Drags every grip of the terrace there and back, one step a frame. */
async function drags(page: PageAlone): Promise<void> {
  const grips = await page.evaluate<number>(`document.querySelectorAll('[data-testid^="Drag "]').length`);
  for (let g = 0; g < grips; g++) {
    const [x, y] = await page.evaluate<[number, number]>(`(() => {
      const box = document.querySelectorAll('[data-testid^="Drag "]')[${g}].getBoundingClientRect();
      return [box.x + box.width / 2, box.y + box.height / 2];
    })()`);
    await page.mouse('mouseMoved', x, y);
    await page.mouse('mousePressed', x, y);
    for (let n = 1; n <= FRAMES; n++) {
      await page.mouse('mouseMoved', x, y - (DRAGGED_PX * n) / FRAMES);
      await page.evaluate<void>(`new Promise((drawn) => requestAnimationFrame(() => drawn()))`);
    }
    await page.mouse('mouseReleased', x, y);
    await atRest(page);
  }
}

/** The table of all pages, and whether each keeps to what is wanted. */
export function pageTable(rows: readonly PageRow[]): { lines: string[]; kept: boolean } {
  const task = (ms: number) => (ms > 0 ? `${ms.toFixed(0)}` : `<${LONG_MS}`).padStart(8);
  const lines = rows.map(
    (r) =>
      `${r.name.padEnd(38)}${(r.scriptBytes / 1000).toFixed(1).padStart(9)}${r.terraceMs.toFixed(0).padStart(9)}${task(r.loadTaskMs)}${String(r.edits).padStart(7)}${r.editMedianMs.toFixed(1).padStart(9)}${r.editP95Ms.toFixed(1).padStart(9)}${task(r.editTaskMs)}${shareTaken(r.taken).padStart(9)}`,
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
      'Page of                               script kB  terrace    task  edits   median      p95    task   (ms)  taken by others',
      ...lines,
      `wanted${''.padEnd(32)}${(PAGE_BUDGET.scriptBytes / 1000).toFixed(1).padStart(9)}${String(PAGE_BUDGET.terraceMs).padStart(9)}${String(PAGE_BUDGET.taskMs).padStart(8)}${''.padEnd(16)}${String(PAGE_BUDGET.editP95Ms).padStart(9)}${String(PAGE_BUDGET.taskMs).padStart(8)}`,
    ],
  };
}
