import { demoDesigns } from '@/core/design/demo-designs';
import type { Part } from '@/core/drawer/part';
import { applyPatch, type Design } from '@/core/design/design';
import { rehearsing } from '@/core/size/rehearsing';
import { MOST_STUDIES, SizingTally, type CircuitFound } from '@/core/size/sizing-tally';
import type { SizingAsk, SizingProgress } from '@/core/size/sized-set';
import { demoDrawer } from '@/server/demo-drawer';
import { sizing } from '../support/sizing-alone';

/** A search over several threads comes to what one by itself does, however long each of them takes. */

/** One thread of the pool: answers in its own time, and may forget what it was told. */
class Thread {
  plans = 0;
  looked = 0;
  private work = 0;
  private circuits: ReturnType<typeof LONG_WORK.circuits> | null = null;
  constructor(
    private readonly slow: number,
    private readonly forgetsAt: number,
  ) {}

  rehearsed: string[] = [];
  lookUp(line: string) {
    this.rehearsed.push(`dropped: ${line}`);
    return Promise.resolve();
  }

  async survey({ work, about }: { work: number; about: About }) {
    this.open(work, about);
    return { ok: true, value: this.circuits!.survey() };
  }

  async go({ work, kind, about, items, told }: Piece) {
    if (kind === 'rehearsal') {
      this.rehearsed.push((about as unknown as Design).name);
      throw new SolverGone();
    }
    const began = performance.now();
    if (++this.looked === this.forgetsAt) this.circuits = null;
    for (let n = 0; n < this.slow; n++) await Promise.resolve();
    if (about) this.open(work, about);
    if (!this.circuits) return { ok: true, value: 'unknown' };
    return {
      ok: true,
      value: { parts: [...this.circuits.steps(items, told)], end: undefined, tookMs: performance.now() - began },
    };
  }

  private open(work: number, about: About) {
    if (this.circuits && this.work === work) return;
    this.work = work;
    this.plans++;
    this.circuits = LONG_WORK.circuits(about);
  }
}
type About = AboutOf<'circuits'>;
interface Piece {
  work: number;
  kind: string;
  about: About | null;
  items: number[];
  told: string[];
}

let threads: Thread[] = [];
jest.mock('@/workers/client', () => ({
  poolSolver: (n: number) => threads[n],
  poolStarted: () => true,
  endOfPoolSolver: () => () => {},
  SolverGone: class SolverGone extends Error {},
}));
Object.defineProperty(globalThis, 'navigator', { value: { hardwareConcurrency: 3 }, configurable: true });

import { rehearseInPool, sizeInPool } from '@/workers/browser-pool';
import { SolverGone } from '@/workers/client';
import { LONG_WORK, type AboutOf } from '@/workers/long-work';

const [clock, , pen] = demoDesigns() as [Design, Design, Design];
const drawer: Part[] = demoDrawer().map((p, n) => ({ ...p, id: `d${n}` }));

test.each([
  ['the drawer for the pen', pen, 'drawer'],
  ['the drawer for the clock', clock, 'drawer'],
] as const)('%s: the same sets in the same order, and the same words about the rest', async (_, design, from) => {
  const ask: SizingAsk = { from, by: 'cost' };
  const alone = [...sizing(design, drawer, ask)];
  expect(alone.length).toBeGreaterThan(20);
  threads = [new Thread(0, 3), new Thread(4, 0)];
  const told: SizingProgress[] = [];
  await sizeInPool(design, drawer, ask, {
    onProgress: (p) => told.push(p),
    signal: new AbortController().signal,
  });
  const last = (all: SizingProgress[]) => ({ ...all.at(-1)!, found: [] });
  expect(last(told)).toEqual(last(alone));
  expect(told.flatMap((p) => p.found)).toEqual(alone.flatMap((p) => p.found));
  // Both took part, and the one that forgot was told again.
  expect(threads.map((t) => t.looked > 1)).toEqual([true, true]);
  expect(threads.map((t) => t.plans)).toEqual([2, 1]);
});

test('a thread ended by an earlier search as this one begins is asked again', async () => {
  threads = [new Thread(0, 0), new Thread(0, 0)];
  const { survey } = threads[0]!;
  let ended = 0;
  threads[0]!.survey = function (of) {
    return ended++ === 0 ? Promise.reject(new SolverGone()) : survey.call(this, of);
  };
  const ask: SizingAsk = { from: 'drawer', by: 'cost' };
  const told: SizingProgress[] = [];
  const { signal } = new AbortController();
  await sizeInPool(clock, drawer, ask, { onProgress: (p) => told.push(p), signal });
  expect(told.flatMap((p) => p.found)).toEqual([...sizing(clock, drawer, ask)].flatMap((p) => p.found));
  expect(ended).toBe(2);
});

test('on a page at rest every thread warms up, until the page is left; one that ends meanwhile troubles nobody', async () => {
  threads = [new Thread(0, 0), new Thread(0, 0)];
  const end = rehearseInPool(clock);
  await Promise.resolve();
  end();
  expect(threads.map((t) => t.rehearsed)).toEqual([
    [clock.name, 'dropped: rehearsal'],
    [clock.name, 'dropped: rehearsal'],
  ]);
});

test('a rehearsal has an end, wherever the plan has one', () => {
  expect([...rehearsing(pen)].length).toBeGreaterThan(100);
  expect([...rehearsing(pen)].length).toBeLessThanOrEqual(250);
  const kept = applyPatch(pen, { fixed: ['transformer', 'rectifier', 'reservoir', 'regulator'] });
  expect([...rehearsing(kept)]).toHaveLength(1);
});

const looked = (n: number, more: Partial<CircuitFound> = {}): CircuitFound => ({
  n,
  kin: `kin ${n}`,
  lookedAt: true,
  failsAsKin: false,
  unsolved: false,
  simulated: 17,
  found: [{ worst: `set ${n}` } as never],
  largerSinks: false,
  ...more,
});

test('what comes late keeps its place; what its kin settled meanwhile is not counted twice', () => {
  const tally = new SizingTally(4, []);
  // Another thread did not know yet that the first of the kin had failed.
  const early = tally.take([looked(2, { kin: 'kin 0' }), looked(1), looked(3)]);
  // Stopped here it would say what it did not come to.
  expect([early.found, early.leftOut]).toEqual([[], [expect.stringMatching(/^4 of 4 circuits/)]]);
  const { found, studies, simulated, leftOut } = tally.take([looked(0, { failsAsKin: true })]);
  expect(found.map((s) => s.worst)).toEqual(['set 0', 'set 1', 'set 3']);
  expect([studies, simulated]).toEqual([3, 3 * 17]);
  expect(leftOut).toEqual([
    expect.stringMatching(/^1 circuits that differ from one that failed in the rectifier alone/),
  ]);
  expect(tally.over).toBe(true);
});

test('a search ends after so many studies; every circuit of the plan is in one of its sentences', () => {
  const circuits = MOST_STUDIES + 700;
  const tally = new SizingTally(circuits, ['something']);
  const all = Array.from({ length: circuits }, (_, n) =>
    looked(
      n,
      n === 0
        ? { kin: 'bad', failsAsKin: true }
        : n % 10 === 0
          ? { kin: 'bad' }
          : { largerSinks: n === 5, unsolved: n === 7 },
    ),
  );
  const found = Array.from({ length: 27 }, (_, k) => tally.take(all.slice(100 * k, 100 * (k + 1)))).map((p) => p);
  const { studies, leftOut } = found.at(-1)!;
  expect(studies).toBe(MOST_STUDIES);
  expect(found.flatMap((p) => p.found)).toHaveLength(MOST_STUDIES);
  const counted = leftOut.flatMap((sentence) => /^(\d+) (?:of|circuits)/.exec(sentence)?.[1] ?? []).map(Number);
  // 2000 studies are circuits 0 and those not divisible by ten up to 2221.
  expect(counted).toEqual([circuits - 2222, 1, 222]);
  expect(leftOut.join(' ')).toMatch(/^something .*Sinks larger than the 4 smallest/);
});
