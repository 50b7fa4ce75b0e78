import { blankDesign } from '@/core/design/defaults';
import { applyPatch, type Design } from '@/core/design/design';
import { criticalInductanceH, FILTER_SHAPES, filterShape, hasChokeInput, withFilterShape } from '@/core/design/filters';
import { readDesign } from '@/core/design/schema';
import { arrangementWords, ratingWords, windingWords } from '@/core/design/words';
import { pictureOf } from '@/core/judge/picture';
import { simulateFixes } from '@/core/judge/fixes';
import { stationFigures } from '@/core/picture/station-figures';
import { RECTIFIER_KINDS } from '@/core/parts/arrangements';
import { placedParts } from '@/core/circuit/filter-of';
import { scopeTraces } from '@/core/study/traces';
import { schools } from '@/core/study/schools';
import { LOAD_LINE_SHARES, loadLineVariations } from '@/core/study/load-line';
import { solveVariations } from '@/core/study/variation';
import { demoDesigns } from '@/core/design/demo-designs';
import { runPool, Stopped } from '@/workers/pool';

const [clock, dome, , drum, tide] = demoDesigns() as [Design, Design, Design, Design, Design];
const verdict = (design: Design, id: string) => pictureOf(design).picture.verdicts.find((v) => v.id === id);

describe('filters', () => {
  test.each(FILTER_SHAPES.map((s) => s.id))('%s is recognised again, and is a valid design', (shape) => {
    const made = applyPatch(dome, withFilterShape(dome, shape));
    expect(filterShape(made.filter)).toBe(shape);
    expect(readDesign(JSON.parse(JSON.stringify(made)))).toMatchObject({ ok: true });
  });

  test('the choke put in lies well above the critical inductance', () => {
    const made = applyPatch(dome, withFilterShape(dome, 'choke-input'));
    const choke = made.filter.before[0]!;
    const critical = criticalInductanceH(dome.demand.outputV / dome.demand.outputA, 50);
    expect(critical).toBeCloseTo(8 / (3 * 2 * Math.PI * 50), 9);
    expect(choke.kind === 'choke' && choke.inductanceH > 3 * critical).toBe(true);
  });

  test('going back and forth keeps the choke that was chosen', () => {
    const own = { kind: 'choke' as const, inductanceH: 0.33, resistanceOhm: 1, ratedA: 6, swinging: true };
    const made = applyPatch(dome, { filter: { before: [own], after: [] } });
    const moved = applyPatch(made, withFilterShape(made, 'choke'));
    expect(moved.filter.after[0]).toEqual(own);
  });

  test('a doubler has no choke input, whatever the filter says', () => {
    expect(hasChokeInput(applyPatch(tide, { rectifier: { kind: 'doubler' } }))).toBe(false);
    expect(schools(applyPatch(tide, { rectifier: { kind: 'doubler' } }))).toEqual([]);
  });

  test('words say what it is', () => {
    expect(arrangementWords(tide)).toContain('choke input');
    expect(arrangementWords(applyPatch(dome, withFilterShape(dome, 'resistor')))).toContain('C-R-C');
    expect(ratingWords(drum)).toBe('±18 V, 250 mA');
    expect(windingWords(drum)).toBe('2 × 20 V');
  });
});

describe('verdicts of the new parts', () => {
  test('the receiver’s choke never lets go, and too small a choke does', () => {
    expect(verdict(tide, 'choke-critical')!.state).toBe('holds');
    const small = applyPatch(tide, {
      filter: { before: [{ kind: 'choke', inductanceH: 1, resistanceOhm: 220, ratedA: 0.08, swinging: false }] },
    });
    const v = verdict(small, 'choke-critical')!;
    expect(v.state).toBe('fails');
    expect(v.sentence).toMatch(/^Ceases in every cycle/);
  });

  test('without its bleeder the receiver’s rail climbs when the load goes, and a bleeder is offered', () => {
    const bare = applyPatch(tide, { filter: { bleederOhm: null } });
    expect(verdict(bare, 'lost-load')!.figure.value).toBeGreaterThan(verdict(tide, 'lost-load')!.figure.value + 40);
    const { picture, study } = pictureOf(bare);
    const fixes = [...simulateFixes(study, picture.verdicts)].flatMap((f) => f.fixes.map((x) => x.edit.label));
    expect(fixes.some((label) => label.startsWith('Bleeder'))).toBe(true);
  });

  test('unequal loads on one winding leave direct current with a verdict; equal ones pass', () => {
    const one = applyPatch(drum, { rectifier: { kind: 'split-half-wave' }, reservoir: { capacitanceF: 6800e-6 } });
    const equal = applyPatch(one, { demand: { negativeA: 0.25 } });
    const unequal = applyPatch(one, { demand: { negativeA: 0.05 } });
    expect(verdict(equal, 'winding-dc')!.state).toBe('holds');
    expect(verdict(unequal, 'winding-dc')!.state).toBe('fails');
    expect(verdict(unequal, 'winding-dc')!.figure.value).toBeCloseTo(0.2, 2);
  });

  test('the rail with less left speaks: a heavy minus rail is named', () => {
    const heavy = applyPatch(drum, { demand: { negativeA: 0.48 }, transformer: { ratedV: 18 } });
    const v = verdict(heavy, 'headroom')!;
    expect(v.sentence).toMatch(/^Minus rail: /);
    expect(v.left).toBeLessThan(verdict(drum, 'headroom')!.left);
  });

  test('a resonance at the ripple frequency is found', () => {
    const ringing = applyPatch(tide, {
      reservoir: { capacitanceF: 2.2e-6 },
      filter: { before: [{ kind: 'choke', inductanceH: 1.5, resistanceOhm: 60, ratedA: 0.2, swinging: false }] },
    });
    expect(verdict(ringing, 'filter-resonance')!.state).toBe('fails');
    expect(verdict(tide, 'filter-resonance')!.figure.value).toBeCloseTo(1 / (2 * Math.PI * Math.sqrt(15 * 47e-6)), 6);
  });

  test('an under-rated second capacitor is caught idle, not in use', () => {
    const made = applyPatch(dome, withFilterShape(dome, 'choke'));
    const weak = applyPatch(made, {
      filter: { after: made.filter.after.map((s) => (s.kind === 'capacitor' ? { ...s, ratedV: 35 } : s)) },
    });
    expect(verdict(weak, 'filter-voltage')!.state).toBe('fails');
    expect(pictureOf(weak).picture.points.high.rail.maxV).toBeLessThan(37);
  });

  test('half a missing cycle: the clock holds, with too small a reservoir it is warned about and no more', () => {
    expect(verdict(clock, 'hold-up')!.state).toBe('holds');
    expect(verdict(applyPatch(clock, { reservoir: { capacitanceF: 2200e-6 } }), 'hold-up')!.state).toBe('caution');
  });

  test('I²t of the first cycle never exceeds what its peak would make of the whole cycle', () => {
    const v = verdict(dome, 'surge-heating')!;
    const peak = pictureOf(dome).picture.surge.peakA;
    expect(v.figure.value).toBeLessThan(peak ** 2 * 0.02);
    expect(v.figure.value).toBeGreaterThan(peak ** 2 * 0.001);
  });
});

describe('every arrangement in the interface', () => {
  test.each(RECTIFIER_KINDS)('%s: changing to it keeps the values and is judged', (kind) => {
    const changed = applyPatch(clock, { rectifier: { kind } });
    expect(changed.reservoir).toEqual(clock.reservoir);
    const { picture } = pictureOf(changed);
    expect(picture.verdicts.length).toBeGreaterThan(10);
    for (const station of ['winding', 'rectifier', 'reservoir', 'regulator', 'load'] as const) {
      for (const f of stationFigures(picture, station, 'nominal')) expect(Number.isFinite(f.value)).toBe(true);
    }
  });

  test('the choke has figures of its own, with the current below which it lets go', () => {
    const figures = stationFigures(pictureOf(tide).picture, 'before', 'nominal');
    const of = (id: string) => figures.find((f) => f.id === id)!.value;
    expect(of('choke-least')).toBeGreaterThan(0);
    expect(of('choke-critical')).toBeLessThan(of('choke-least') + 0.03);
    expect(of('choke-critical')).toBeCloseTo(181 / (3 * 314.16 * 15), 3);
  });
});

describe('where a part stands in the chain', () => {
  const choke = { kind: 'choke' as const, inductanceH: 0.05, resistanceOhm: 0.5, ratedA: 6, swinging: false };
  const second = { kind: 'capacitor' as const, capacitanceF: 1e-3, ratedV: 63 };

  test.each(['bridge', 'doubler'] as const)('%s: each part is found among the elements that were solved', (kind) => {
    for (const bleederOhm of [null, 1000]) {
      const made = applyPatch(dome, {
        rectifier: { kind },
        demand: { outputA: 3 },
        filter: { before: [choke], after: [choke, second], bleederOhm },
      });
      const { elements } = pictureOf(made).picture.points.nominal.solution;
      const kinds = { choke: 'inductor', capacitor: 'capacitor', resistor: 'resistor' } as const;
      for (const { part, at } of placedParts(made)) expect(elements[0]![at]!.kind).toBe(kinds[part.kind]);
      expect(placedParts(made)).toHaveLength(kind === 'doubler' ? 2 : 3);
      expect(verdict(made, 'choke-rating')!.figure.value).toBeGreaterThan(2.9);
    }
  });

  test('two chokes are two probes, each with a name of its own', () => {
    const made = applyPatch(dome, { filter: { before: [choke], after: [choke, second] } });
    const ids = scopeTraces(made, { kind: 'steady' }, 'nominal').traces.map((t) => t.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids.filter((id) => id.startsWith('choke-a'))).toHaveLength(2);
  });
});

describe('three schools', () => {
  test('volts fall and current softens from capacitor input to choke input', () => {
    const [capacitor, small, choke] = schools(tide).map((s) => pictureOf(s.design).picture.points.nominal);
    expect(capacitor!.rail.meanV).toBeGreaterThan(small!.rail.meanV);
    expect(small!.rail.meanV).toBeGreaterThan(choke!.rail.meanV);
    expect(capacitor!.solution.windings[0]!.rmsA).toBeGreaterThan(1.5 * choke!.solution.windings[0]!.rmsA);
  });
});

describe('many at once', () => {
  test('a load line falls from no load to full, band above band', () => {
    const results = solveVariations(dome, loadLineVariations(dome));
    const volts = results.map((r) => (r.ok ? r.railMeanV : NaN));
    const n = LOAD_LINE_SHARES.length;
    for (let b = 0; b < 3; b++) {
      for (let k = 1; k < n; k++) expect(volts[b * n + k]).toBeLessThan(volts[b * n + k - 1]!);
    }
    for (let k = 0; k < n; k++) expect(volts[n + k]).toBeGreaterThan(volts[k]!);
  });

  test('a variation without a solution says so and the others go on', () => {
    // Constant watts of a rail that goes through nought a hundred times a second: there they have no amperes.
    const power = applyPatch(dome, { demand: { kind: 'power' }, reservoir: { capacitanceF: 0 } });
    const results = solveVariations(power, [
      { condition: 'nominal', patch: { demand: { outputA: 5 } } },
      { condition: 'nominal', patch: { demand: { kind: 'resistance' } } },
    ]);
    expect(results[1]).toMatchObject({ ok: true });
    expect(results[0]).toMatchObject({ ok: false, error: expect.stringMatching(/.{10}/) });
  });

  type Found = { found: number[]; tookMs: number };
  const worker = (delay: number) => ({
    run: (chunk: number[]) =>
      new Promise<Found>((resolve) =>
        setTimeout(() => resolve({ found: chunk.map((n) => n * n), tookMs: delay }), delay),
      ),
  });

  test('a pool keeps the order, however fast its workers are, and tells its progress', async () => {
    const seen: number[] = [];
    const found: number[] = [];
    const items = Array.from({ length: 50 }, (_, n) => n);
    const squares = await runPool([worker(3), worker(0), worker(1)], items, {
      chunk: 4,
      onProgress: (d) => seen.push(d),
      onFound: (some) => found.push(...some),
    });
    expect([...found].sort((a, b) => a - b)).toEqual(items.map((n) => n * n));
    expect(squares).toEqual(items.map((n) => n * n));
    expect(seen.at(-1)).toBe(50);
    expect(seen).toEqual([...seen].sort((a, b) => a - b));
  });

  test('a worker is handed what it does in a twentieth of a second, at most four times the last, and the end is shared', async () => {
    jest.useFakeTimers();
    const paced = (msEach: number) => {
      const sizes: number[] = [];
      const run = (chunk: number[]) => {
        sizes.push(chunk.length);
        const tookMs = msEach * chunk.length;
        // Whoever hands it over may look up late: that is no work.
        return new Promise<Found>((resolve) => setTimeout(() => resolve({ found: chunk, tookMs }), tookMs + 15));
      };
      return { sizes, run };
    };
    const items = Array.from({ length: 200 }, (_, n) => n);
    const [steady, slow, quick] = [paced(10), paced(70), paced(0.01)];
    for (const one of [steady, slow, quick]) {
      const all = runPool([one], items, { chunk: 2 });
      await jest.advanceTimersByTimeAsync(60_000);
      expect(await all).toEqual(items);
    }
    expect(steady.sizes.slice(0, 4)).toEqual([2, 5, 5, 5]);
    expect(slow.sizes.slice(0, 4)).toEqual([2, 1, 1, 1]);
    expect(quick.sizes).toEqual([2, 8, 32, 128, 30]);
    const [a, b] = [paced(0.01), paced(0.01)];
    const both = runPool([a, b], items, { chunk: 10 });
    await jest.advanceTimersByTimeAsync(60_000);
    expect(await both).toEqual(items);
    // 10 and 10, 40 and 40; of the 100 left half, a quarter, an eighth; then no less than 10 at a time.
    expect([...a.sizes, ...b.sizes].sort((x, y) => y - x)).toEqual([50, 40, 40, 25, 13, 10, 10, 10, 2]);
    jest.useRealTimers();
  });

  test('a pool can be stopped', async () => {
    const stop = new AbortController();
    const run = runPool(
      [worker(1), worker(1)],
      Array.from({ length: 400 }, (_, n) => n),
      {
        chunk: 2,
        signal: stop.signal,
        onProgress: (done) => done > 20 && stop.abort(),
      },
    );
    await expect(run).rejects.toBeInstanceOf(Stopped);
  });

  test('a stop does not wait for a chunk that takes for ever, and what comes late is not told', async () => {
    const stop = new AbortController();
    const found: number[] = [];
    let late: (squares: Found) => void = () => {};
    const run = runPool([{ run: () => new Promise<Found>((resolve) => (late = resolve)) }], [1, 2, 3], {
      signal: stop.signal,
      onFound: (some) => found.push(...some),
    });
    stop.abort();
    await expect(run).rejects.toBeInstanceOf(Stopped);
    late({ found: [1, 4, 9], tookMs: 1 });
    await Promise.resolve();
    expect(found).toEqual([]);
  });

  test('what a worker throws comes out of the pool', async () => {
    const broken = { run: () => Promise.reject(new Error('thread lost')) };
    await expect(runPool([broken], [1, 2, 3])).rejects.toThrow('thread lost');
  });
});

test('a file of the first version opens with nothing where the new parts would be', () => {
  const { load, mainsSide, filter, build } = blankDesign('', clock.demand, clock.mains);
  // Nor did it know a log, a building, or a run of temperatures.
  const plain = { ...clock, load, mainsSide, filter, build, log: [], bench: { ...clock.bench, soak: [] } };
  const old = JSON.parse(JSON.stringify(plain)) as Record<string, Record<string, unknown>>;
  delete old['filter'];
  delete old['heater'];
  delete old['demand']!['negativeA'];
  delete old['mains']!['flatTopPct'];
  delete old['transformer']!['leakageH'];
  const read = readDesign({ ...old, version: 1 });
  expect(read).toEqual({ ok: true, design: plain });
});
