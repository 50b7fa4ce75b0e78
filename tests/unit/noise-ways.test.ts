import { applyPatch, type Design } from '@/core/design/design';
import { judge } from '@/core/judge/judge';
import { regulatorModel } from '@/core/parts/regulators';
import { drawnPoint } from '@/core/study/drawn-point';
import { coolerWays, heatView, selfLimit } from '@/core/study/heat-report';
import { heatCorners, touchWords } from '@/core/study/heat-corners';
import { noiseReport, strayDistance, WIRE_OHM_PER_10CM } from '@/core/study/noise';
import { studyDesign } from '@/core/study/study';
import { coolingWays, designOf, regulatorWays, technologies } from '@/core/study/regulator-schools';
import { demoDesigns } from '@/core/design/demo-designs';

const [clock, dome, pen, , , bench] = demoDesigns() as [Design, Design, Design, Design, Design, Design];

describe('hum and noise', () => {
  test('a bridge hums at twice the mains, and each harmonic goes through the rejection at its own frequency', () => {
    const nominal = drawnPoint(clock, studyDesign(clock).nominal);
    const { lines } = noiseReport(clock, nominal);
    const strongest = [...lines].sort((a, b) => b.railV - a.railV)[0]!;
    expect(strongest.hz).toBe(100);
    const { rejectionDb } = regulatorModel(clock.regulator)!;
    for (const l of lines) expect(20 * Math.log10(l.railV / l.outputV)).toBeCloseTo(rejectionDb(l.hz), 6);
    // The harmonics of the ripple carry its whole RMS.
    expect(Math.hypot(...lines.map((l) => l.railV)) / nominal.rail.rippleRmsV).toBeCloseTo(1, 1);
  });

  test('a regulator that lets go lets its dip through, whatever its rejection', () => {
    const low = drawnPoint(pen, studyDesign(pen).low);
    const report = noiseReport(pen, low);
    expect(report.humV).toBeGreaterThan(0.2 * (low.outputMaxV - low.outputMinV));
  });

  test('the pulse and the wire it shares; stray field by the third power', () => {
    const nominal = drawnPoint(dome, studyDesign(dome).nominal);
    const report = noiseReport(dome, nominal);
    expect(report.noiseV).toBeNull();
    const ground = report.figures.find((f) => f.id === 'noise-ground')!;
    expect(ground.value).toBeCloseTo(report.pulseA * WIRE_OHM_PER_10CM, 12);
    expect(strayDistance(10, 8)).toBeCloseTo(20, 12);
  });
});

describe('ways builders argue about', () => {
  test.each(['ready-made', 'discrete', 'op-amp'])('%s: made for the same output and load, solved and judged', (id) => {
    const way = regulatorWays(pen).find((w) => w.id === id)!;
    const made = designOf(pen, way);
    expect(Math.abs(regulatorModel(made.regulator)!.outputV / 12 - 1)).toBeLessThan(0.06);
    expect(judge(studyDesign(made)).length).toBeGreaterThan(8);
  });

  test('a fan needs less metal for the same junction', () => {
    const [passive, fan] = coolingWays(clock).map((w) => designOf(clock, w).heat.sinkKPerW!);
    expect(fan).toBeGreaterThan(passive!);
    for (const way of coolingWays(clock)) {
      const { high } = studyDesign(designOf(clock, way));
      expect(high.heat!.junctionC).toBeLessThanOrEqual(105.5);
    }
    expect(coolingWays(dome)).toEqual([]);
  });

  test('linear is called right where a converter’s ripple would be too much, and not where it burns a stove', () => {
    expect(technologies(clock, 40).verdict).toMatch(/Linear is right/);
    const coarse = applyPatch(dome, { demand: { rippleVpp: 4 } });
    expect(technologies(coarse, 80).verdict).toMatch(/honestly/);
  });
});

describe('the heat of a corner', () => {
  test('rises with time to where it ends, never above', () => {
    const at = (minutes: number | null) =>
      heatView(clock, 'high', minutes)!.rows.map((r) => r.steps[r.steps.length - 1]!.tempC);
    const [two, thirty, end] = [at(2), at(30), at(null)];
    two.forEach((t, n) => {
      expect(t).toBeLessThanOrEqual(thirty[n]! + 1e-9);
      expect(thirty[n]!).toBeLessThanOrEqual(end[n]! + 1e-9);
    });
    expect(end[0]! - two[0]!).toBeGreaterThan(5);
  });

  test('in the end the regulator is where the verdict says', () => {
    const verdict = judge(studyDesign(clock), ['junction'])[0]!;
    const row = heatView(clock, 'high', null)!.rows.find((r) => r.id === 'main')!;
    expect(row.steps[row.steps.length - 1]!.tempC).toBeCloseTo(verdict.figure.value, 1);
  });

  test('corners without a meaning are not made up', () => {
    const shown = (d: Design) => heatCorners(d).map((c) => c.id);
    expect(shown(dome)).not.toContain('shorted:main');
    expect(heatView(dome, 'lowest:main', null)).toBeNull();
    expect(shown(bench)).toEqual(expect.arrayContaining(['high', 'lowest:main', 'shorted:main']));
    for (const id of shown(bench)) expect(heatView(bench, id, null)!.rows.length).toBeGreaterThan(3);
  });

  test('it limits itself at a current that brings the junction to its limit; a bare part sooner', () => {
    const { amps, limitC } = selfLimit(clock)!;
    expect(amps).not.toBeNull();
    const there = studyDesign(applyPatch(clock, { demand: { outputA: amps! } })).high.heat!.junctionC;
    expect(Math.abs(there - limitC)).toBeLessThan(4);
    const bare = selfLimit(applyPatch(clock, { heat: { sinkKPerW: null } }))!;
    expect(bare.amps!).toBeLessThan(0.5 * amps!);
    expect(selfLimit(dome)).toBeNull();
  });

  test('a lower winding is cooler and costs headroom; a dropper takes the heat elsewhere', () => {
    const ways = coolerWays(clock);
    const [asIs, lower] = ways;
    expect(lower!.junctionC).toBeLessThan(asIs!.junctionC);
    expect(lower!.headroomV).toBeLessThan(asIs!.headroomV);
    const dropper = ways.find((w) => w.label.startsWith('dropper'))!;
    expect(dropper.junctionC).toBeLessThan(asIs!.junctionC + 0.5);
  });

  test('a finger tells lukewarm from burning', () => {
    expect(touchWords(38)).toBe('cool');
    expect(touchWords(44)).toBe('lukewarm');
    expect(touchWords(55)).toMatch(/held/);
    expect(touchWords(75)).toMatch(/burns/);
  });
});
