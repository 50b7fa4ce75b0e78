import { circuitFaults } from '@/core/bench/circuit-faults';
import { placeWords } from '@/core/bench/fault-words';
import { findFault, findingFault, type FaultProgress, type FaultReport } from '@/core/bench/find-fault';
import { practiceChoices, takeReading } from '@/core/bench/practice';
import { diodeSlopeV } from '@/core/bench/movables';
import { rowFault } from '@/core/bench/row-fault';
import { heldReadings, suspicions } from '@/core/bench/suspicions';
import { HOW_COMMON } from '@/core/fit/case-faults';
import { diagnose } from '@/core/fit/diagnose';
import { diodeOf } from '@/core/parts/diode';
import { mainsForReadings } from '@/core/bench/readings';
import { faultsToHide, hide, SimulatedBuild } from '@/core/bench/simulated-build';
import { mainsVolts } from '@/core/circuit/feed';
import { applyPatch, type Design } from '@/core/design/design';
import type { BenchFault } from '@/core/bench/fault-words';
import { drawnPoint } from '@/core/study/drawn-point';
import { operatingPoint } from '@/core/study/operating-point';
import { clock, dome, drum, pen } from '../support/demos';

const at = '2026-05-03T19:00:00Z';
const BARE = { readings: [], loadLine: [] };

interface Take {
  fault?: BenchFault;
  ripple?: (volts: number) => number;
}

/** A design with what its power-up would read of a build with a fault. */
function read(design: Design, { fault = 'none', ripple = (v) => v }: Take): Design {
  const bare = { ...design, bench: { ...design.bench, ...BARE } };
  const build = new SimulatedBuild(bare, hide(bare, 4, fault));
  const mainsV = mainsVolts(design, 'nominal');
  const load = design.demand.outputA;
  const taken: [string, number][] = [
    ['secondary-open', build.read('winding', { mainsV, load: 'open' })],
    ['reservoir-idle', build.read('reservoir', { mainsV, load: 'bare' })],
    ['reservoir-loaded', build.read('reservoir', { mainsV, load })],
    ['reservoir-ripple', ripple(build.read('ripple', { mainsV, load }))],
  ];
  const readings = taken.map(([point, value]) => ({
    point,
    value: Number(value.toPrecision(4)),
    mainsV,
    fedFrom: 'mains' as const,
    at,
  }));
  return { ...bare, bench: { ...bare.bench, readings } };
}

const found = (design: Design): FaultReport => {
  const report = findFault(design);
  if (typeof report === 'string') throw new Error(report);
  return report;
};

describe('what stops everything', () => {
  test.each<[BenchFault, RegExp]>([
    ['source-dead', /fuse/i],
    ['path-open', /nothing comes to the reservoir/],
  ])('%s is named, and how to be sure', (fault, words) => {
    const { suspects } = found(read(clock, { fault }));
    expect(suspects[0]!.fault).toBe(fault);
    expect(suspects[0]!.name).toMatch(words);
    expect(suspects[0]!.confirm).toMatch(/Unplugged/);
  });

  test('a dead source shows nothing anywhere; an open path leaves the winding its volts', () => {
    const volts = (fault: BenchFault) => read(clock, { fault }).bench.readings.map((r) => r.value);
    expect(Math.max(...volts('source-dead'))).toBeLessThan(1e-3);
    const [winding, ...rest] = volts('path-open');
    expect(winding).toBeGreaterThan(25);
    expect(Math.max(...rest)).toBeLessThan(1e-3);
  });

  test('half of a tapped winding open under a bridge leaves both rails half-wave: twice the ripple, at the mains’ own frequency', () => {
    const sound = read(drum, {}).bench.readings.at(-1)!.value;
    const half = read(drum, { fault: 'winding-open' });
    expect(half.bench.readings.at(-1)!.value / sound).toBeGreaterThan(1.7);
    const { suspects } = found(half);
    expect(suspects.slice(0, 2).map((s) => s.fault)).toContain('winding-open');
  });

  test('only an arrangement with windings of several diodes can lose one of them', () => {
    const windings = (d: Design) => circuitFaults(d).filter((f) => f.fault === 'winding-open');
    expect(windings(clock)).toEqual([]);
    expect(windings(drum).map((f) => placeWords(f.part))).toEqual(['winding 1', 'winding 2']);
    const bridged = (kind: 'centre-tap') =>
      applyPatch(clock, { rectifier: { ...clock.rectifier, arrangement: kind } } as never);
    expect(windings(bridged('centre-tap'))).toEqual([]);
  });
});

test('a ripple that is a tenth of what all else says was read through a probe whose factor nobody set', () => {
  const { suspects } = found(read(clock, { ripple: (v) => v / 10 }));
  expect(suspects[0]!.fault).toBe('probe-factor');
  // It is a reading's fault, no supply's: nothing that can be hidden in one.
  expect(faultsToHide(clock)).not.toContain('probe-factor');
});

describe('the terrace of a suspicion', () => {
  const report = found(pen);

  test('the sound one stands where the design’s own nominal point does, at the mains that was read', () => {
    const point = operatingPoint(pen, 'nominal', { mainsV: mainsForReadings(pen)('reservoir-loaded') });
    const { levels, reservoirV, outputV } = report.sound!;
    expect(levels.reservoirMinV).toBeCloseTo(point.reservoir.minV, 2);
    expect(levels.reservoirMaxV).toBeCloseTo(point.reservoir.maxV, 2);
    expect(levels.terminalPeakV).toBeCloseTo(drawnPoint(pen, point).terminalPeakV, 2);
    expect(Math.min(...reservoirV)).toBeCloseTo(levels.reservoirMinV, 1);
    expect(Math.max(...outputV)).toBe(levels.outputMaxV);
  });

  test('a dead diode lets the reservoir fall for a whole cycle: lower, once a cycle, where the sound one rises twice', () => {
    const risings = (wave: readonly number[]) =>
      wave.filter((v, n) => {
        const before = wave.at(n - 1)!;
        const after = wave[(n + 1) % wave.length]!;
        return v > before && v >= after;
      }).length;
    const { line, readings } = report.suspects[0]!;
    expect([risings(report.sound!.reservoirV), risings(line!.reservoirV)]).toEqual([2, 1]);
    expect(line!.levels.reservoirMinV).toBeLessThan(report.sound!.levels.reservoirMinV - 2);
    expect(readings.filter((r) => r.drawnAt === 'reservoir').map((r) => r.read)).toEqual([10.3]);
  });

  test('what next to nothing speaks for has none', () => {
    const hopeless = report.suspects.filter((s) => s.probability < 0.005);
    expect(hopeless.length).toBeGreaterThan(5);
    expect(hopeless.map((s) => s.line)).toEqual(hopeless.map(() => null));
  });
});

test('the weighing tells how far it is, fault by fault, up to all of them', () => {
  const told: FaultProgress[] = [];
  const search = findingFault(pen);
  for (let step = search.next(); !step.done; step = search.next()) told.push(step.value);
  const { of } = told[0]!;
  expect(of).toBeGreaterThanOrEqual(20);
  expect(told.map((t) => t.done)).toEqual(Array.from({ length: of }, (_, n) => n + 1));
});

describe('in practice', () => {
  const shown = (design: Design, fault: BenchFault, id: string) => {
    const bare = { ...design, bench: { ...design.bench, ...BARE } };
    return takeReading({ design: bare, hidden: hide(bare, 3, fault) }, id, 1).said;
  };

  test('a fuse by ohms, and the path, say truthfully where nothing passes', () => {
    expect(shown(clock, 'source-dead', 'fuse')).toMatch(/^Open/);
    expect(shown(clock, 'none', 'fuse')).not.toMatch(/^Open/);
    expect(shown(clock, 'path-open', 'path')).toMatch(/^Open: nothing from the winding/);
    expect(shown(drum, 'winding-open', 'path')).toMatch(/^Open: nothing through winding [12]/);
    expect(shown(dome, 'source-dead', 'path')).not.toMatch(/^Open/);
    expect(practiceChoices(dome).map((c) => c.id)).toContain('fuse');
  });
});

test('what a suspicion draws at its output is what it says of it: at the top it is the rail less the dropout at that load', () => {
  const held = heldReadings(read(clock, {}));
  const top = suspicions(clock, held).find((s) => s.fault === 'output-top')!;
  const state = { mainsV: 230, load: clock.demand.outputA };
  const values = top.unknowns.map((u) => u.centre);
  const { outputV } = top.line(state, values);
  const mean = outputV.reduce((sum, v) => sum + v, 0) / outputV.length;
  expect(mean).toBeCloseTo(top.over([{ quantity: 'output', state }])(values)[0]!, 9);
  const rail = top.over([{ quantity: 'rail', state }])(values)[0]!;
  expect(rail - mean).toBeGreaterThan(1.5);
  // At no load there is less of it: the dropout grows with the amperes.
  const idle = { mainsV: 230, load: 0 };
  const dropIdle = top.over([{ quantity: 'rail', state: idle }])(values)[0]! - top.line(idle, values).outputV[0]!;
  expect(dropIdle).toBeLessThan(rail - mean - 0.1);
});

test('one reading of any kind is a row; none is not', () => {
  const none = { at, mainsV: 230, loadA: 1, reservoirV: null, rippleV: null, outputV: null, sinkC: null };
  const fault = (part: object) => rowFault({ ...none, ...part } as never);
  expect(fault({})).not.toBeNull();
  for (const key of ['reservoirV', 'outputV', 'sinkC']) expect([key, fault({ [key]: 20 })]).toEqual([key, null]);
  expect(fault({ rippleV: 0.5 })).toBeNull();
});

test('a diode’s drop moves by n·kT/q with each factor of e: 25.69 mV at 25 °C', () => {
  const { law } = diodeOf(clock.rectifier);
  if (!('saturationCurrentA' in law)) throw new Error('a silicon diode');
  const perKelvin = 0.02569 / 298.15;
  expect(diodeSlopeV(clock)).toBeCloseTo(law.emissionCoefficient * perKelvin * (law.temperatureC + 273.15), 5);
});

test.each(['none', 'reservoir-dry', 'source-weak'] as const)(
  'a dozen rows at a dozen loads: %s is found at a fraction of the work, and as probable as by looking at all of them',
  (fault) => {
    const rows = Array.from({ length: 12 }, (_, n) => ({
      at,
      loadA: (dome.demand.outputA * (n + 1)) / 12,
      mainsV: 228 + n,
      reservoirV: 1,
      rippleV: null,
      outputV: null,
      sinkC: null,
      loadedS: 600 * (n + 1),
      note: '',
      fedFrom: 'mains' as const,
    }));
    const design: Design = { ...dome, bench: { ...dome.bench, readings: [], loadLine: rows } };
    const taken = heldReadings(design);
    const such = suspicions(design, taken).find((s) => s.fault === fault)!;
    const volts = such.predict(such.unknowns.map((u) => u.centre));
    const held = taken.map((h, n) => ({ ...h, value: volts[n]! * (1 + 2e-3 * Math.sin(7 * n)) }));
    const weighed = (sampling: boolean) => {
      let states = 0;
      const all = suspicions(design, held).map(({ sample, ...s }) => {
        const counted =
          (predict: (v: readonly number[]) => readonly number[], each: number) => (v: readonly number[]) => {
            states += each;
            return predict(v);
          };
        return {
          ...s,
          predict: counted(s.predict, held.length),
          ...(sampling && sample ? { sample: { ...sample, predict: counted(sample.predict, sample.of.length) } } : {}),
        };
      });
      const centre = all[0]!.predict(all[0]!.unknowns.map((u) => u.centre));
      return { ...diagnose(all, held, centre, HOW_COMMON.other), states: () => states };
    };
    const [sampled, whole] = [weighed(true), weighed(false)];
    expect(sampled.states()).toBeLessThan(0.8 * whole.states());
    const share = (of: typeof whole, name: string) =>
      of.weighed.reduce((sum, w) => sum + (w.hypothesis.fault === name ? w.probability : 0), 0);
    for (const name of new Set(whole.weighed.map((w) => w.hypothesis.fault)))
      expect([name, Math.abs(share(sampled, name) - share(whole, name)) < 0.03]).toEqual([name, true]);
  },
);
