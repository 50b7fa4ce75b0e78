import { mainsForReadings, mainsToday } from '@/core/bench/readings';
import { testPoints } from '@/core/bench/test-points';
import { networkOf } from '@/core/circuit/network-of';
import { CONDITIONS, wordsOf } from '@/core/circuit/condition';
import { applyPatch, type Design } from '@/core/design/design';
import { blankDesign, MAINS_PRESETS } from '@/core/design/defaults';
import { arrangementWords, isSplit } from '@/core/design/words';
import { readDesign } from '@/core/design/schema';
import { cornerGrid } from '@/core/judge/corners';
import { simulateFixes } from '@/core/judge/fixes';
import { judge } from '@/core/judge/judge';
import { pictureOf } from '@/core/judge/picture';
import { mainsSide } from '@/core/mains-side/mains-side';
import { openVolts, shiftedSource, type Battery, type DcAdapter } from '@/core/parts/dc-source';
import { solveDip } from '@/core/solve/dip';
import { solveStart } from '@/core/solve/transient';
import { batteryLife } from '@/core/study/battery-life';
import { billOf } from '@/core/study/bill';
import { heatView } from '@/core/study/heat-report';
import { lossesOf } from '@/core/study/losses';
import { operatingPoint } from '@/core/study/operating-point';
import { reverseDiodeWays } from '@/core/study/reverse-diode';
import { studyDesign } from '@/core/study/study';
import { checksOf, solveBuilds } from '../support/builds';
import { spreadsOf } from '@/core/judge/builds/spreads';
import { junctionOf } from './circuits';

const LEAD: Battery = {
  kind: 'battery',
  freshV: 13,
  emptyV: 11,
  resistanceOhm: 0.05,
  capacityAh: 7,
  reverseDiode: false,
};
const PLAIN: DcAdapter = {
  kind: 'adapter',
  ratedV: 12,
  ratedA: 1,
  idlePct: 40,
  spreadPct: 10,
  rippleVpp: 0,
  limitA: null,
  reverseDiode: false,
};

/** An unregulated design with a constant-current load behind a DC source. */
function plain(source: Design['source'], outputA = 1): Design {
  const ask = { outputV: 12, outputA, tolerancePct: 30, rippleVpp: 1, kind: 'current' as const };
  return applyPatch(blankDesign('Logger', ask, MAINS_PRESETS[0]!.mains), { source });
}

const LEAKS = 1e-4;

describe('a DC source in place of mains and transformer', () => {
  test('without a diode the rail is the open volts less what the resistance takes', () => {
    const rail = operatingPoint(plain(LEAD), 'nominal').rail;
    expect(Math.abs(rail.meanV - (12 - 0.05))).toBeLessThan(LEAKS);
    expect(rail.ripplePeakToPeakV).toBeLessThan(1e-6);
  });

  test('a diode takes what its law says at that current, and its watts are volts times amperes', () => {
    const design = applyPatch(plain({ ...LEAD, reverseDiode: true }), { rectifier: { diode: 'sk-3a' } });
    const point = operatingPoint(design, 'nominal');
    const { law } = junctionOf('sk-3a');
    const amps = point.solution.windings[0]!.meanA;
    const thermalV = (1.380649e-23 * (273.15 + law.temperatureC)) / 1.602176634e-19;
    const drop =
      law.emissionCoefficient * thermalV * Math.log1p(amps / law.saturationCurrentA) + amps * law.seriesResistanceOhm;
    expect(point.rail.meanV).toBeCloseTo(12 - 0.05 * amps - drop, 4);
    expect(point.watts.rectifier).toBeCloseTo(drop * amps, 4);
    expect(drop).toBeGreaterThan(0.25);
    expect(drop).toBeLessThan(0.4);
  });

  test('an adapter stands at its plate when its plate’s current is drawn, and far above it idle', () => {
    const loaded = operatingPoint(plain(PLAIN, 1), 'nominal').rail.meanV;
    const idle = operatingPoint(plain(PLAIN, 1), 'nominalIdle').rail.meanV;
    expect(Math.abs(loaded - 12)).toBeLessThan(1e-3);
    expect(Math.abs(idle - 16.8)).toBeLessThan(1e-3);
    expect(openVolts(PLAIN, 'low')).toBeCloseTo(0.9 * 16.8, 9);
  });

  test('ripple of an adapter reaches the rail as far as its resistance and the reservoir let it', () => {
    const none = applyPatch(plain({ ...PLAIN, rippleVpp: 1.5 }), { reservoir: { capacitanceF: 0 } });
    // No reservoir: all of it stands on the rail, swinging about the same mean.
    const bare = operatingPoint(none, 'nominal').rail;
    expect(bare.ripplePeakToPeakV).toBeCloseTo(1.5, 2);
    expect(bare.meanV).toBeCloseTo(12, 3);
    // With one: a divider of 4.8 ohm and 2200 uF at 100 Hz, the load drawing a constant current.
    const held = operatingPoint(plain({ ...PLAIN, rippleVpp: 1.5 }), 'nominal').rail.ripplePeakToPeakV;
    const wRC = 2 * Math.PI * 100 * 4.8 * 2200e-6;
    expect(held).toBeGreaterThan((0.95 * 1.5) / Math.hypot(1, wRC));
    expect(held).toBeLessThan((1.6 * 1.5) / Math.hypot(1, wRC));
  });

  test('joined to an empty reservoir only its resistance limits the current', () => {
    const design = applyPatch(plain(LEAD), { reservoir: { esrOhm: 0 } });
    const { start } = solveStart(networkOf(design, CONDITIONS.surge), 1, 0);
    expect(start!.peakDiodeA / (13 / 0.05)).toBeCloseTo(1, 2);
  });

  test('behind its diode the reservoir holds while a contact lets go', () => {
    const design = applyPatch(plain({ ...LEAD, reverseDiode: true }, 0.1), { rectifier: { diode: 'sk-3a' } });
    const network = networkOf(design, CONDITIONS.nominal);
    const { dip } = solveDip(network, { missingCycles: 1, cycles: 2, atCycle: 0 }, {});
    // 0.1 A for 20 ms out of 2200 uF.
    expect(dip!.beforeMinV - dip!.minV).toBeCloseTo((0.1 * 0.02) / 2200e-6, 1);
  });
});

describe('how long a battery lasts', () => {
  test('a current that never changes: charge over current', () => {
    const life = batteryLife(plain(LEAD, 0.5))!;
    expect(life.letsGoV).toBeNull();
    expect(life.used).toBe(1);
    expect(life.hours).toBeCloseTo(7 / 0.5, 1);
  });

  test('a regulator lets go where the battery, less its drops, no longer gives what it needs', () => {
    const design = applyPatch(plain({ ...LEAD, emptyV: 9 }, 0.2), {
      demand: { outputV: 8 },
      regulator: { kind: 'low-dropout', part: 'ldo-800', outputV: 10, boardCm2: 6 },
    });
    const life = batteryLife(design)!;
    const { neededV } = pictureOf(design).picture;
    expect(life.letsGoV).toBeCloseTo(neededV! + 0.05 * 0.205, 2);
    expect(life.used).toBeCloseTo((13 - life.letsGoV!) / 4, 2);
    expect(life.hours).toBeCloseTo((7 * life.used) / 0.205, 1);
  });

  test('more resistance or more load never lasts longer', () => {
    const hours = (outputA: number, resistanceOhm: number) =>
      batteryLife(
        applyPatch(plain({ ...LEAD, emptyV: 9, resistanceOhm }, outputA), {
          regulator: { kind: 'low-dropout', part: 'ldo-800', outputV: 10, boardCm2: 6 },
        }),
      )!.hours;
    expect(hours(0.3, 0.05)).toBeLessThan(hours(0.2, 0.05));
    expect(hours(0.2, 1)).toBeLessThan(hours(0.2, 0.05));
  });
});

describe('what is said of it', () => {
  const regulated = (source: Design['source']) =>
    applyPatch(plain(source, 0.2), {
      demand: { outputV: 5, tolerancePct: 5 },
      regulator: { kind: 'low-dropout', part: 'ldo-800', outputV: 5, boardCm2: 6 },
    });

  test('no verdict speaks of windings, transformers or the line', () => {
    for (const source of [LEAD, { ...PLAIN, rippleVpp: 1 }, { ...LEAD, reverseDiode: true }]) {
      for (const v of judge(studyDesign(regulated(source)))) {
        const text = [v.title, v.sentence, v.reason, v.limitSource, v.figure.label, v.figure.condition].join(' | ');
        expect(text).not.toMatch(/winding|transformer|\bline\b|mains/i);
      }
    }
  });

  test('swapped leads are told, and a diode is the cure that is offered', () => {
    const bare = judge(studyDesign(regulated(LEAD))).find((v) => v.id === 'reverse-polarity')!;
    expect(bare.state).toBe('fails');
    expect(bare.figure.value).toBe(13);
    const guarded = judge(studyDesign(regulated({ ...LEAD, reverseDiode: true }))).find(
      (v) => v.id === 'reverse-polarity',
    )!;
    expect(guarded.state).toBe('holds');
  });

  test('an adapter too small fails, with its plate as the limit', () => {
    const v = judge(studyDesign(regulated({ ...PLAIN, ratedA: 0.1 }))).find((x) => x.id === 'source-current')!;
    expect(v.state).toBe('fails');
    expect(v.limit).toBe(0.1);
    expect(v.figure.value).toBeGreaterThan(0.2);
  });

  test('the board copper decides how warm the small part gets, and more of it helps', () => {
    const junction = (boardCm2: number) =>
      operatingPoint(
        applyPatch(regulated(LEAD), { regulator: { kind: 'low-dropout', part: 'ldo-800', outputV: 5, boardCm2 } }),
        'high',
      ).heat!.junctionC;
    // (13 V less its drops, less 5 V) at 0.2 A, 58 K/W at 6 cm2.
    expect(junction(6) - 40).toBeCloseTo(58 * (7.99 * 0.2 + 12.99 * 0.005), 0);
    expect(junction(25)).toBeLessThan(junction(6) - 25);
  });

  test('it is named in words, has one rail, and keeps what was chosen for the mains', () => {
    const split = applyPatch(plain({ kind: 'mains' }), { rectifier: { kind: 'split-bridge' } });
    expect(isSplit(split)).toBe(true);
    const fed = applyPatch(split, { source: LEAD });
    expect(isSplit(fed)).toBe(false);
    expect(arrangementWords(fed)).toMatch(/battery/);
    expect(wordsOf(fed, 'low')).toBe('empty battery, full load, aged reservoir');
    expect(applyPatch(fed, { source: { kind: 'mains' } })).toEqual(split);
  });

  test('a file from before it knew sources is read as fed from the mains; a battery that rises is refused', () => {
    const { source: _gone, ...old } = plain({ kind: 'mains' });
    void _gone;
    const read = readDesign({ ...old, version: 4 });
    expect(read.ok && read.design.source).toEqual({ kind: 'mains' });
    const bad = readDesign(plain({ ...LEAD, emptyV: 14 }));
    expect(!bad.ok && bad.fault).toEqual({
      path: 'source.emptyV',
      sentence: expect.stringContaining('below the fresh volts'),
    });
  });
});

describe('a diode against swapped leads', () => {
  const design = applyPatch(plain({ ...LEAD, reverseDiode: true }, 0.2), {
    demand: { outputV: 5, tolerancePct: 5 },
    reservoir: { capacitanceF: 470e-6 },
    regulator: { kind: 'low-dropout', part: 'ldo-800', outputV: 5, boardCm2: 25 },
  });

  test('comes in three ways that each hold, from no drop to most of a volt', () => {
    const ways = reverseDiodeWays(design);
    expect(ways.map((w) => w.id)).toEqual(['none', 'Schottky', 'silicon']);
    const valleys = ways.map((w) => operatingPoint(applyPatch(design, w.patch), 'low').rail.minV);
    expect(valleys[0]! - valleys[1]!).toBeGreaterThan(0.2);
    expect(valleys[0]! - valleys[1]!).toBeLessThan(0.45);
    expect(valleys[0]! - valleys[2]!).toBeGreaterThan(0.6);
    expect(valleys[0]! - valleys[2]!).toBeLessThan(1);
    for (const way of ways) {
      const verdicts = judge(studyDesign(applyPatch(design, way.patch)));
      expect(verdicts.filter((v) => v.state === 'fails').map((v) => v.id)).toEqual(
        way.id === 'none' ? ['reverse-polarity'] : [],
      );
    }
  });

  test('is nothing to compare where the mains feeds it', () => {
    expect(reverseDiodeWays(applyPatch(design, { source: { kind: 'mains' } }))).toEqual([]);
  });
});

describe('the rest of the house', () => {
  const logger = (source: Design['source']) =>
    applyPatch(plain(source, 0.2), {
      demand: { outputV: 5, tolerancePct: 5 },
      reservoir: { capacitanceF: 470e-6 },
      regulator: { kind: 'low-dropout', part: 'ldo-800', outputV: 5, boardCm2: 6 },
    });

  test('the bench begins with the source, on DC, and skips what only a transformer has', () => {
    const points = testPoints(logger(LEAD), mainsForReadings(logger(LEAD)));
    expect(points[0]).toMatchObject({ id: 'mains', label: 'Battery, open' });
    expect(points[0]!.how).toMatch(/DC range/);
    expect(points.map((p) => p.id)).not.toContain('secondary-open');
    expect(points.map((p) => p.id)).not.toContain('reservoir-ripple');
    const idle = points.find((p) => p.id === 'reservoir-idle')!;
    expect(idle.expected.value).toBeCloseTo(12, 2);
    expect(points.map((p) => `${p.how} ${p.ifLow} ${p.ifHigh} ${p.caution ?? ''}`).join(' ')).not.toMatch(
      /mains|winding|transformer/i,
    );
  });

  test('readings taken at the mains before it was changed over do not count as volts of the battery', () => {
    const read = applyPatch(logger(LEAD), {
      bench: { readings: [{ point: 'mains', value: 231, mainsV: 231, fedFrom: 'mains', at: '2026-01-31T21:00:00Z' }] },
    });
    expect(mainsToday(read)).toBe(12);
    const today = applyPatch(logger(LEAD), {
      bench: {
        readings: [{ point: 'mains', value: 12.4, mainsV: 12.4, fedFrom: 'mains', at: '2026-02-01T21:00:00Z' }],
      },
    });
    expect(mainsToday(today)).toBe(12.4);
  });

  test('what must be right before power: a fuse where a short would burn, or a limit that needs none', () => {
    const battery = mainsSide(studyDesign(logger(LEAD)));
    expect(battery.points.find((p) => p.id === 'lead-fuse')!.state).toBe('wrong');
    expect(battery.figures.find((f) => f.id === 'lead-short')!.value).toBeCloseTo(13 / 0.05, 6);
    expect(battery.secondaryFuseA).toBeGreaterThan(1.5 * 0.2);
    expect(battery.primaryFuseA).toBeNull();
    const fused = applyPatch(logger(LEAD), { mainsSide: { secondaryFuseA: battery.secondaryFuseA } });
    expect(mainsSide(studyDesign(fused)).points.find((p) => p.id === 'lead-fuse')!.state).toBe('done');
    const adapter = mainsSide(studyDesign(logger({ ...PLAIN, limitA: 1.2 })));
    expect(adapter.points.find((p) => p.id === 'lead-fuse')!.state).toBe('look');
    expect(adapter.points.map((p) => p.id)).toContain('adapter-dc');
  });

  test('no transformer is in the bill, the price, the heat or the losses', () => {
    const design = logger({ ...LEAD, reverseDiode: true });
    const bill = billOf(studyDesign(design));
    expect(bill[0]!.what).toMatch(/battery/);
    expect(bill.map((l) => l.what).join(' ')).not.toMatch(/Transformer/);
    expect(heatView(design, 'high', null)!.rows.map((r) => r.id)).toEqual(['main', 'rectifier', 'reservoir']);
    const point = operatingPoint(design, 'high');
    // What it loses inside stays in the battery.
    const losses = lossesOf(design, point);
    expect(losses.totalW).toBeCloseTo(point.watts.rectifier + point.watts.reservoir + point.watts.regulator, 9);
    expect(losses.ironW + losses.copperW).toBe(0);
  });

  test('builds are drawn with what a source has to spread, and a grid of corners is named by it', () => {
    const design = logger(LEAD);
    const builds = solveBuilds(design, 1, 0, 20);
    expect(builds.every((b) => b.margins !== null)).toBe(true);
    expect(spreadsOf(design).map((s) => s.id)).not.toContain('diode');
    expect(checksOf(design).map((c) => c.id)).not.toContain('winding-current');
    const grid = cornerGrid(design);
    expect(grid.cells[grid.rows.find((r) => r.id === 'headroom')!.worst]!.words).toMatch(/^empty battery/);
  });

  test('steps, drags and searches change its volts, never a winding', () => {
    const design = logger(LEAD);
    expect(shiftedSource(LEAD, 1)).toMatchObject({ freshV: 14, emptyV: 12 });
    const dry = applyPatch(design, { source: { ...LEAD, freshV: 5.8, emptyV: 5.2 } });
    const study = studyDesign(dry);
    const fixes = [...simulateFixes(study, judge(study))].find((f) => f.verdict === 'headroom')!.fixes;
    expect(fixes.length).toBeGreaterThan(0);
    expect(fixes.every((f) => !('transformer' in f.edit.patch))).toBe(true);
    expect(fixes.some((f) => /Battery of/.test(f.edit.label))).toBe(true);
  });
});
