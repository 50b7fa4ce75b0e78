import { applyPatch, type Design } from '@/core/design/design';
import { CELLS, cellWords, cornerGrid } from '@/core/judge/corners';
import { judge } from '@/core/judge/judge';
import { rankChanges, singleChanges } from '@/core/judge/single-change';
import {
  checksOf,
  drawBuild,
  drawnShares,
  marginsAt,
  shareError,
  solveBuilds,
  spreadsOf,
  summarise,
} from '@/core/study/tolerance';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/server/demo';

const [clock, dome, pen, , , , firstTry] = demoDesigns() as Design[] as [
  Design,
  Design,
  Design,
  Design,
  Design,
  Design,
  Design,
];

describe('the grid of corners', () => {
  const grid = cornerGrid(clock);
  const decides = (id: string) => cellWords(clock, grid.cells[grid.rows.find((r) => r.id === id)!.worst]!);

  test('each verdict is decided where a builder would look for it', () => {
    expect(decides('headroom')).toMatch(/^low line, (full|lasting) load, aged/);
    expect(decides('regulator-input')).toMatch(/^high line, no load/);
    expect(decides('reservoir-voltage')).toMatch(/^high line, no load/);
    expect(decides('junction')).toMatch(/^high line, (full|lasting) load/);
    expect(decides('winding-current')).toMatch(/^high line/);
  });

  test('the deciding cell says what the verdict says', () => {
    const whole = judge(studyDesign(clock));
    for (const id of ['headroom', 'regulator-input', 'reservoir-voltage']) {
      const row = grid.rows.find((r) => r.id === id)!;
      const verdict = whole.find((v) => v.id === id)!;
      expect(Math.abs(row.values[row.worst]!.value - verdict.figure.value)).toBeLessThan(
        0.02 * Math.abs(verdict.limit || 26),
      );
    }
  });

  test('events keep their own circumstances and stand apart; every cell has a name of its own', () => {
    const ids = grid.rows.map((r) => r.id);
    for (const e of ['diode-surge', 'hold-up', 'short-circuit']) {
      expect(ids).not.toContain(e);
      expect(grid.events.map((x) => x.id)).toContain(e);
    }
    expect(new Set(CELLS.map((cell) => cellWords(clock, cell))).size).toBe(18);
  });

  test('a supply that fails only at its lowest output says so among the events', () => {
    expect(cornerGrid(firstTry).events[0]!.title).toMatch(/lowest output/);
  });
});

describe('builds', () => {
  test('the same seed draws the same build, alone or in a crowd; factors stay inside their spread', () => {
    const spreads = spreadsOf(clock);
    const crowd = solveBuilds(clock, 5, 10, 6);
    const alone = solveBuilds(clock, 5, 13, 1)[0]!;
    expect(alone.factors).toEqual(crowd[3]!.factors);
    alone.margins!.forEach((m, c) => expect(m).toBeCloseTo(crowd[3]!.margins![c]!, 2));
    expect(drawBuild(spreads, 6, 13)).not.toEqual(alone.factors);
    for (let n = 0; n < 300; n++) {
      drawBuild(spreads, 9, n).forEach((f, s) => {
        expect(f).toBeGreaterThanOrEqual(spreads[s]!.low);
        expect(f).toBeLessThanOrEqual(spreads[s]!.high);
      });
    }
  });

  test('the middle of the builds is the design itself; volts at the winding drive the idle input', () => {
    const summary = summarise(clock, 3, solveBuilds(clock, 3, 0, 300));
    const of = (id: string) => summary.checks.find((c) => c.check.id === id)!;
    const input = judge(studyDesign(clock), ['regulator-input'])[0]!;
    expect(of('input').median).toBeCloseTo(input.margin, 0);
    expect(of('input').causes[0]!.label).toMatch(/open-circuit/);
    expect(of('input').causes[0]!.hurts).toBe('high');
    expect(of('headroom').histogram.reduce((a, b) => a + b, 0)).toBe(300);
    expect(of('headroom').least).toBeLessThan(of('headroom').median);
    expect(summary.unsolved).toBe(0);
  });

  test('what fails by a wide margin fails in every build, what holds by one in none', () => {
    const bad = summarise(pen, 1, solveBuilds(pen, 1, 0, 60));
    expect(bad.pass).toBe(0);
    expect(bad.checks.find((c) => c.check.id === 'headroom')!.pass).toBe(0);
    const good = summarise(dome, 1, solveBuilds(applyPatch(dome, { demand: { tolerancePct: 50 } }), 1, 0, 60));
    expect(good.checks.find((c) => c.check.id === 'can')!.pass).toBe(1);
  });

  test('near a limit the builds say how sure a verdict is', () => {
    const near = drawnShares(clock, solveBuilds(clock, 1, 0, 60));
    expect(near['regulator-input']!).toBeGreaterThan(0.8);
    expect(near['regulator-input']!).toBeLessThan(1);
    expect(near['reservoir-voltage']).toBe(1);
    expect(drawnShares(pen, solveBuilds(pen, 1, 0, 20))['headroom']).toBe(0);
    expect(drawnShares(dome, solveBuilds(dome, 1, 0, 20))['headroom']).toBeUndefined();
  });

  test('ten times the builds tell a share about three times as surely', () => {
    expect(shareError(0.5, 1000) / shareError(0.5, 10_000)).toBeCloseTo(Math.sqrt(10), 9);
    expect(shareError(1, 1000)).toBeGreaterThan(0);
  });
});

describe('single changes', () => {
  test('what is promised is what the changed design shows; the best of the first try cures it', () => {
    const ranked = rankChanges([...singleChanges(firstTry)]);
    const [best] = ranked;
    expect(best!.edit.label).toBe('2 pass transistors');
    const after = judge(studyDesign(applyPatch(firstTry, best!.edit.patch)));
    expect(after.filter((v) => v.state === 'fails')).toEqual([]);
    expect(best!.failsAfter).toBe(0);
    for (const c of ranked) expect(c.relief + c.worstAfter - c.worstBefore).toBeGreaterThan(0);
  });
});

describe('a build whose parts are all as printed', () => {
  const SPOKEN_FOR: Record<string, string> = {
    ripple: 'output-ripple',
    diode: 'diode-average',
    input: 'regulator-input',
    can: 'reservoir-voltage',
    'can-current': 'ripple-current',
    junction: 'junction',
    winding: 'winding-current',
  };

  // Supplies that hold: where a regulator lets go, a smaller can shows in every figure.
  test.each([0, 1, 4])('demo %i: each check says what its verdict says', (n) => {
    const design = (demoDesigns() as Design[])[n]!;
    // The verdicts take the can at its lower tolerance before the valley; everything else as printed.
    const factors = spreadsOf(design).map((s) =>
      s.id === 'capacitance' ? 1 - design.reservoir.tolerancePct / 100 : 1,
    );
    const margins = marginsAt(design, factors);
    const verdicts = judge(studyDesign(design));
    const all = checksOf(design);
    const checks = all.filter((c) => SPOKEN_FOR[c.id]);
    expect(checks.length).toBeGreaterThan(4);
    for (const check of checks) {
      const verdict = verdicts.find((v) => v.id === SPOKEN_FOR[check.id])!;
      const off = Math.abs(margins[all.indexOf(check)]! - verdict.margin) / Math.abs(verdict.limit);
      expect([check.id, off < 0.03]).toEqual([check.id, true]);
    }
  });
});
