import { conditionOf } from '@/core/circuit/condition';
import { applyPatch, type Design } from '@/core/design/design';
import { cornerGrid } from '@/core/judge/corners';
import { findingsOf, judge } from '@/core/judge/judge';
import { ruleOf } from '@/core/judge/rules';
import { rankChanges } from '@/core/picture/changes';
import { singleChanges } from '../support/changes';
import { checksOf, drawnShares, marginsAt, solveBuilds, summarise } from '../support/builds';
import { drawBuild, spreadsOf } from '@/core/judge/builds/spreads';
import { planOf } from '@/core/judge/builds/plan';
import { shareError } from '@/core/picture/build-summary';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';

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
  const decides = (id: string) => grid.cells[grid.rows.find((r) => r.id === id)!.worst]!.words;

  test('each verdict is decided where a builder would look for it', () => {
    expect(decides('headroom')).toMatch(/^low line, (full|lasting) load, aged/);
    expect(decides('regulator-input')).toMatch(/^high line, no load/);
    expect(decides('reservoir-voltage')).toMatch(/^high line, no load/);
    expect(decides('junction')).toMatch(/^high line, (full|lasting) load/);
    expect(decides('winding-current')).toMatch(/^high line/);
  });

  test.each(demoDesigns().map((d) => [d.name, d] as const))(
    '%s: the deciding cell is the verdict, to the last digit',
    (_, d) => {
      const all = cornerGrid(d);
      const whole = judge(studyDesign(d));
      expect(all.rows.length + all.events.length).toBe(whole.length);
      for (const verdict of whole.filter((v) => v.at !== null)) {
        const row = all.rows.find((r) => r.id === verdict.id)!;
        expect(all.cells[row.worst]!.id).toBe(verdict.at);
        expect(row.values[row.worst]!.value).toBeCloseTo(verdict.figure.value, 9);
        expect(row.values[row.worst]!.state).toBe(verdict.state);
      }
    },
  );

  test('events keep their own circumstances and stand apart; every cell has a name of its own', () => {
    const ids = grid.rows.map((r) => r.id);
    for (const e of ['diode-surge', 'hold-up', 'surge-heating']) {
      expect(ids).not.toContain(e);
      expect(grid.events.map((x) => x.id)).toContain(e);
    }
    expect(new Set(grid.cells.map((cell) => cell.words)).size).toBe(grid.cells.length);
  });

  test('a supply that fails only at its lowest output has a column for it, and that one decides', () => {
    const tried = cornerGrid(firstTry);
    const row = tried.rows.find((r) => r.id === 'junction')!;
    expect(tried.cells[row.worst]!.words).toMatch(/lowest output/);
    expect(row.values[row.worst]!.state).toBe('fails');
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
    expect(of('regulator-input').median).toBeCloseTo(input.margin, 0);
    expect(of('regulator-input').causes[0]!.label).toMatch(/open-circuit/);
    expect(of('regulator-input').causes[0]!.hurts).toBe('high');
    expect(of('headroom').histogram.reduce((a, b) => a + b, 0)).toBe(300);
    expect(of('headroom').least).toBeLessThan(of('headroom').median);
    expect(summary.unsolved).toBe(0);
  });

  test('what fails by a wide margin fails in every build, what holds by one in none', () => {
    const bad = summarise(pen, 1, solveBuilds(pen, 1, 0, 60));
    expect(bad.pass).toBe(0);
    expect(bad.checks.find((c) => c.check.id === 'headroom')!.pass).toBe(0);
    const good = summarise(dome, 1, solveBuilds(applyPatch(dome, { demand: { tolerancePct: 50 } }), 1, 0, 60));
    expect(good.checks.find((c) => c.check.id === 'reservoir-voltage')!.pass).toBe(1);
  });

  test('near a limit the builds say how sure a verdict is', () => {
    const near = drawnShares(clock, solveBuilds(clock, 1, 0, 60));
    expect(near['regulator-input']!).toBeGreaterThan(0.8);
    expect(near['regulator-input']!).toBeLessThan(1);
    expect(near['reservoir-voltage']).toBe(1);
    expect(drawnShares(pen, solveBuilds(pen, 1, 0, 20))['headroom']).toBe(0);
    expect(drawnShares(dome, solveBuilds(dome, 1, 0, 20))['headroom']).toBeUndefined();
  });

  test('what is drawn by factors stands around the middle factor, what is drawn by shares around the middle share', () => {
    const spreads = spreadsOf(clock);
    const draws = Array.from({ length: 4000 }, (_, n) => drawBuild(spreads, 7, n));
    const sorted = (id: string) => draws.map((f) => f[spreads.findIndex((s) => s.id === id)]!).sort((a, b) => a - b);
    // A diode's current spreads from 0.35 to 2.8 of its class: the middle factor is the root of their product.
    expect(sorted('diode')[2000]).toBeCloseTo(Math.sqrt(0.35 * 2.8), 1);
    expect(sorted('open')[2000]).toBeCloseTo(1, 2);
    // Half of a triangle's draws lie within 0.29 of its half width.
    const within = sorted('load').filter((f) => Math.abs(f - 1) < 0.05 * (1 - Math.SQRT1_2)).length / 4000;
    expect(within).toBeGreaterThan(0.47);
    expect(within).toBeLessThan(0.53);
  });

  test('a circumstance that nearly decides is looked at in every build, one that is far from it is not', () => {
    const study = studyDesign(clock);
    const planned = new Set(planOf(clock).conditions.map((c) => c.id));
    const deciding = judge(study).flatMap((v) => (v.caution || v.at === null ? [] : [v.at]));
    for (const id of deciding) expect(planned).toContain(id);
    expect(planned.size).toBeLessThan(study.conditions.length);
    // Over the demos: whatever lies within 0.15 of a wanted margin of the deciding circumstance may decide another build.
    let near = 0;
    for (const design of demoDesigns()) {
      const studied = studyDesign(design);
      const { checks, conditions } = planOf(design);
      for (const { id } of checks) {
        const found = findingsOf(studied, ruleOf(id));
        const worst = Math.min(...found.map((f) => f.left));
        const close = found.filter((f) => f.left > worst + 0.01 && f.left <= worst + 0.14);
        near += close.length;
        for (const f of close) expect(conditions.map((c) => c.id)).toContain(f.condition!.id);
      }
    }
    expect(near).toBeGreaterThan(10);
  });

  test('ten times the builds tell a share about three times as surely', () => {
    expect(shareError(0.5, 1000) / shareError(0.5, 10_000)).toBeCloseTo(Math.sqrt(10), 9);
    expect(shareError(1, 1000)).toBeGreaterThan(0);
  });
});

describe('single changes', () => {
  test('what is promised is what the changed design shows; the best of the first try cures it', () => {
    const ranked = rankChanges(singleChanges(firstTry));
    const [best] = ranked;
    expect(best!.edit.label).toMatch(/^[23] pass transistors$/);
    const after = judge(studyDesign(applyPatch(firstTry, best!.edit.patch)));
    expect(after.filter((v) => v.state === 'fails')).toEqual([]);
    expect(best!.failsAfter).toBe(0);
    for (const c of ranked) expect(c.relief + c.worstAfter - c.worstBefore).toBeGreaterThan(0);
  });
});

describe('a build whose parts are all as printed', () => {
  test.each([0, 1, 4, 5])('demo %i: each check says what its verdict says', (n) => {
    const design = (demoDesigns() as Design[])[n]!;
    // The verdicts take an aged can at its lower tolerance before the valley; that alone moves.
    const margins = marginsAt(
      design,
      spreadsOf(design).map(() => 1),
    );
    const verdicts = judge(studyDesign(design));
    const checks = checksOf(design);
    expect(checks.length).toBeGreaterThan(4);
    checks.forEach((check, c) => {
      const verdict = verdicts.find((v) => v.id === check.id)!;
      const off = Math.abs(margins[c]! - verdict.margin) / Math.max(Math.abs(verdict.limit), 1e-9);
      // Dropout, and what is left of the can by age, are the verdict's own; a build has them as drawn.
      const aged = conditionOf(design, verdict.at!).capacitor === 'aged';
      expect([check.id, aged || off < 0.01]).toEqual([check.id, true]);
    });
  });
});
