import fc from 'fast-check';
import { diodeCount, diodesOf } from '@/core/parts/arrangement';
import { ARRANGEMENTS } from '@/core/parts/arrangements';
import type { Network } from '@/core/circuit/network';
import { solveSteady } from '@/core/solve/steady';
import { amps, circuit, farad, henry, IDEAL, ohms, SILICON } from './circuits';

const PEAK = 1000 * Math.SQRT2;

describe.each(Object.entries(ARRANGEMENTS))('%s', (_name, arrangement) => {
  test('every diode stands in exactly one charging path', () => {
    const used = arrangement.loops.flatMap(diodesOf);
    expect([...used].sort((a, b) => a - b)).toEqual(Array.from({ length: diodeCount(arrangement) }, (_, n) => n));
  });

  test('each of its loops can be walked from joint to joint, out of one end of the winding and into the other', () => {
    const { windings, diodes, cells } = arrangement.joints;
    for (const loop of arrangement.loops) {
      const [first, last] = loop.sign > 0 ? windings[loop.winding]! : [...windings[loop.winding]!].reverse();
      const steps = [
        ...diodesOf(loop).map((d) => diodes[d]!),
        ...loop.cells.map(({ cell, sign }) =>
          sign > 0 ? cells[cell]! : ([cells[cell]![1], cells[cell]![0]] as const),
        ),
      ];
      let at = first!;
      while (steps.length > 0) {
        const next = steps.findIndex(([from]) => from === at);
        expect(next).toBeGreaterThanOrEqual(0);
        at = steps.splice(next, 1)[0]![1];
      }
      expect(at).toBe(last);
    }
    // No two rails meet, and a capacitor of a rail stands from the rail to ground.
    const wanted = arrangement.cells.map((cell, n) =>
      cell.at === 'rail' ? (cell.rail === 0 ? ['P', 'G'] : ['G', 'N']) : cells[n],
    );
    expect(cells).toEqual(wanted);
  });

  test('mirrored twice is where it was', () => {
    const { mirror } = arrangement;
    if (!mirror) return;
    mirror.loops.forEach((m, n) => expect(mirror.loops[m]).toBe(n));
    mirror.windings.forEach((m, n) => expect(mirror.windings[m]).toBe(n));
  });

  test('what it loses when its path or one of its windings opens is what its loops pass, and never one diode alone', () => {
    const through = (winding?: number) =>
      arrangement.loops.filter((l) => winding === undefined || l.winding === winding).flatMap(diodesOf);
    const apart = arrangement.ratios.length > 1 ? arrangement.ratios.map((_, n) => through(n)) : [];
    const sorted = (open: readonly number[]) => [...new Set(open)].sort((a, b) => a - b).join(' ');
    const wanted = [through(), ...apart].map(sorted).filter((open) => open.includes(' '));
    expect(arrangement.failsTo.map((f) => sorted(f.open))).toEqual(wanted);
    arrangement.failsTo.forEach((f) => expect(f.how).toBe(f.winding === undefined ? 'path-open' : 'winding-open'));
  });

  test('says what it is and when it is right', () => {
    expect(arrangement.words.name.length).toBeGreaterThan(3);
    expect(arrangement.words.when).toMatch(/^Right /);
  });
});

describe('two rails', () => {
  const rail = (a: number) => ({ filter: [farad(2200e-6)], load: amps(a) });

  test.each(['split-bridge', 'two-bridges', 'split-half-wave'] as const)('%s: alike rails read alike', (kind) => {
    const [plus, minus] = solveSteady(circuit(kind, { sharedOhm: 0.3, rails: [rail(0.4), rail(0.4)] })).rails;
    expect(minus!.meanV / plus!.meanV).toBeCloseTo(1, 4);
    expect(minus!.ripplePeakToPeakV / plus!.ripplePeakToPeakV).toBeCloseTo(1, 3);
  });

  test.each(['split-bridge', 'two-bridges', 'split-half-wave'] as const)(
    '%s: swapping the loads swaps the rails',
    (kind) => {
      fc.assert(
        fc.property(
          fc.double({ min: 0.05, max: 1.2, noNaN: true }),
          fc.double({ min: 0.05, max: 1.2, noNaN: true }),
          (a, b) => {
            const there = solveSteady(circuit(kind, { sharedOhm: 0.4, rails: [rail(a), rail(b)] })).rails;
            const back = solveSteady(circuit(kind, { sharedOhm: 0.4, rails: [rail(b), rail(a)] })).rails;
            // What the step control resolves.
            expect(Math.abs(back[1]!.meanV / there[0]!.meanV - 1)).toBeLessThan(3e-4);
            expect(Math.abs(back[0]!.minV / there[1]!.minV - 1)).toBeLessThan(3e-4);
          },
        ),
        { numRuns: 12 },
      );
    },
  );

  test('through a shared primary one rail’s load pulls the other down', () => {
    const light = solveSteady(circuit('split-bridge', { sharedOhm: 0.8, rails: [rail(0.1), rail(0.2)] })).rails[1]!;
    const heavy = solveSteady(circuit('split-bridge', { sharedOhm: 0.8, rails: [rail(1.2), rail(0.2)] })).rails[1]!;
    expect(heavy.meanV).toBeLessThan(light.meanV - 0.3);
    const apart = (a: number) =>
      solveSteady(circuit('two-bridges', { sharedOhm: 0, rails: [rail(a), rail(0.2)] })).rails[1]!.meanV;
    expect(apart(1.2)).toBeCloseTo(apart(0.1), 4);
  });

  test('one winding for both: unequal loads leave their difference as direct current, equal ones none', () => {
    const dc = (a: number, b: number) =>
      solveSteady(circuit('split-half-wave', { rails: [rail(a), rail(b)] })).windings[0]!.meanA;
    expect(dc(0.3, 0.1)).toBeCloseTo(0.2, 3);
    expect(dc(0.1, 0.3)).toBeCloseTo(-0.2, 3);
    expect(dc(0.2, 0.2)).toBeCloseTo(0, 3);
  });
});

describe('limits', () => {
  test('a doubler stands at twice the peak', () => {
    const s = solveSteady(
      circuit('doubler', {
        volts: 1000,
        ohm: 0.01,
        diode: IDEAL,
        rails: [{ filter: [farad(0.02, 0)], load: ohms(1e6) }],
      }),
    );
    expect(s.rails[0]!.meanV / PEAK).toBeCloseTo(2, 3);
    expect(s.elements[0]![0]!.maxV / PEAK).toBeCloseTo(1, 3);
    expect(s.doublerLowerCapacitor!.rmsA).toBeCloseTo(s.elements[0]![0]!.rmsA, 6);
  });

  const chokeInput = (kind: 'bridge' | 'centre-tap', leakH: number) =>
    solveSteady(
      circuit(kind, {
        volts: 1000,
        ohm: 1,
        henry: leakH,
        rails: [{ filter: [henry(50, 20), farad(100e-6, 0)], load: amps(1) }],
      }),
    );

  test('a choke input above its critical current: 2·Vpk/π less what its copper takes', () => {
    expect(chokeInput('centre-tap', 0).rails[0]!.meanV / ((2 * PEAK) / Math.PI - 21)).toBeCloseTo(1, 2);
    expect(chokeInput('centre-tap', 0).elements[0]![0]!.minA).toBeGreaterThan(0.9);
  });

  test('leakage inductance takes 2·ω·L·I/π from a bridge and half of it from a tap', () => {
    const leakH = 0.02;
    const step = (2 * 2 * Math.PI * 50 * leakH * 1) / Math.PI;
    const lost = (kind: 'bridge' | 'centre-tap') =>
      chokeInput(kind, 0).rails[0]!.meanV - chokeInput(kind, leakH).rails[0]!.meanV;
    expect(lost('bridge') / step).toBeCloseTo(1, 1);
    expect(lost('centre-tap') / step).toBeCloseTo(0.5, 1);
  });

  test('below the critical current a choke input climbs towards the peak', () => {
    const at = (load: number) =>
      solveSteady(
        circuit('bridge', { volts: 100, rails: [{ filter: [henry(1, 5), farad(220e-6)], load: ohms(load) }] }),
      );
    expect(at(100).elements[0]![0]!.minA).toBeGreaterThan(0.1);
    expect(at(5000).elements[0]![0]!.minA).toBeLessThan(1e-4);
    expect(at(5000).rails[0]!.meanV).toBeGreaterThan(at(100).rails[0]!.meanV * 1.2);
  });

  test('behind a second section the ripple is far less and the mean lower by what the resistor takes', () => {
    const plain = solveSteady(circuit('bridge', { rails: [{ filter: [farad(1e-3)], load: amps(0.2) }] })).rails[0]!;
    const crc = solveSteady(
      circuit('bridge', {
        rails: [{ filter: [farad(1e-3), { kind: 'resistor', resistanceOhm: 10 }, farad(1e-3)], load: amps(0.2) }],
      }),
    ).rails[0]!;
    expect(crc.ripplePeakToPeakV).toBeLessThan(0.35 * plain.ripplePeakToPeakV);
    expect(crc.inputMeanV - crc.meanV).toBeCloseTo(2, 2);
  });
});

describe('what cannot matter', () => {
  test('without diodes everything is linear: twice the volts, twice everything', () => {
    const linear = (volts: number) =>
      solveSteady(
        circuit('half-wave', {
          volts,
          henry: 1e-3,
          faults: [{ diode: 0, state: 'short' }],
          rails: [{ filter: [henry(0.05, 1), farad(100e-6)], load: ohms(40) }],
        }),
      );
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 20, noNaN: true }), (factor) => {
        const one = linear(10);
        const scaled = linear(10 * factor);
        expect(scaled.windings[0]!.rmsA / (factor * one.windings[0]!.rmsA)).toBeCloseTo(1, 3);
        expect(scaled.rails[0]!.maxV / (factor * one.rails[0]!.maxV)).toBeCloseTo(1, 3);
        expect(Math.abs(scaled.rails[0]!.meanV)).toBeLessThan(1e-3 * scaled.rails[0]!.maxV);
      }),
      { numRuns: 15 },
    );
  });

  test('the order of parallel capacitors', () => {
    const caps = [farad(470e-6, 0.1), farad(2200e-6, 0.02), farad(100e-6, 0.3)];
    const run = (filter: typeof caps) =>
      solveSteady(circuit('bridge', { rails: [{ filter, load: amps(0.6) }] })).rails[0]!;
    const there = run(caps);
    const back = run([...caps].reverse());
    expect(back.meanV / there.meanV).toBeCloseTo(1, 5);
    expect(back.ripplePeakToPeakV / there.ripplePeakToPeakV).toBeCloseTo(1, 4);
  });

  test('a bank of three is one can of three times the value and a third of the ESR', () => {
    const run = (filter: ReturnType<typeof farad>[]) =>
      solveSteady(circuit('bridge', { rails: [{ filter, load: amps(0.6) }] }));
    const bank = run([farad(1e-3, 0.09), farad(1e-3, 0.09), farad(1e-3, 0.09)]);
    const one = run([farad(3e-3, 0.03)]);
    expect(bank.rails[0]!.minV / one.rails[0]!.minV).toBeCloseTo(1, 4);
    expect((3 * bank.elements[0]![0]!.rmsA) / one.elements[0]![0]!.rmsA).toBeCloseTo(1, 3);
  });

  test('a swinging choke at next to no current is a plain one; at its current it has lost inductance', () => {
    const run = (halfAtA: number | undefined, load: number) => {
      const choke = { kind: 'inductor' as const, inductanceH: 0.4, resistanceOhm: 2, ...(halfAtA ? { halfAtA } : {}) };
      return solveSteady(circuit('bridge', { volts: 24, rails: [{ filter: [choke, farad(1e-3)], load: amps(load) }] }));
    };
    expect(run(50, 0.2).rails[0]!.meanV / run(undefined, 0.2).rails[0]!.meanV).toBeCloseTo(1, 3);
    const swing = (s: ReturnType<typeof run>) => s.elements[0]![0]!.maxA - s.elements[0]![0]!.minA;
    expect(swing(run(0.5, 1))).toBeGreaterThan(1.5 * swing(run(undefined, 1)));
    expect(Math.abs(run(0.5, 1).energyBalance.relativeError)).toBeLessThan(1e-4);
  });
});

describe('loads', () => {
  test('constant power draws its power whatever the volts', () => {
    const s = solveSteady(
      circuit('bridge', { rails: [{ filter: [farad(4700e-6)], load: [{ kind: 'power', powerW: 6, minV: 8 }] }] }),
    );
    expect(s.rails[0]!.loadPowerW).toBeCloseTo(6, 4);
    expect(s.rails[0]!.loadMeanA).toBeGreaterThan(6 / s.rails[0]!.maxV);
  });

  test('a heater winding takes its watts from the same core and pulls the rail through the primary', () => {
    const base = circuit('bridge', {
      volts: 200,
      ohm: 40,
      sharedOhm: 40,
      rails: [{ filter: [farad(47e-6)], load: amps(0.05) }],
    });
    const heated: Network = {
      ...base,
      acLoads: [{ winding: { voltageRms: 6.9, resistanceOhm: 0.15, inductanceH: 0 }, resistanceOhm: 6.3 / 1.5 }],
    };
    const s = solveSteady(heated);
    expect(s.acLoads![0]!.rmsV).toBeGreaterThan(6);
    expect(s.acLoads![0]!.rmsV).toBeLessThan(6.7);
    expect(s.acLoads![0]!.powerW).toBeCloseTo(s.acLoads![0]!.rmsV * s.acLoads![0]!.rmsA, 6);
    expect(s.rails[0]!.meanV).toBeLessThan(solveSteady(base).rails[0]!.meanV);
    expect(Math.abs(s.energyBalance.relativeError)).toBeLessThan(1e-4);
  });

  test('a main and a logic rail from two windings of one core', () => {
    const main = circuit('bridge', { volts: 24, sharedOhm: 0.5, rails: [{ filter: [farad(4700e-6)], load: amps(1) }] });
    const logic = circuit('bridge', { volts: 8, ohm: 0.2, rails: [{ filter: [farad(4700e-6)], load: amps(0.5) }] });
    const both: Network = { ...main, sections: [...main.sections, ...logic.sections] };
    const s = solveSteady(both);
    expect(s.rails).toHaveLength(2);
    expect(s.diodes).toHaveLength(8);
    expect(s.rails[1]!.meanV).toBeGreaterThan(7);
    expect(s.rails[1]!.meanV).toBeLessThan(10.5);
    expect(s.rails[0]!.meanV).toBeLessThan(solveSteady(main).rails[0]!.meanV);
  });

  test('a bleeder is part of the filter, not of the load', () => {
    const s = solveSteady(
      circuit('bridge', {
        rails: [{ filter: [farad(1e-3), { kind: 'shunt', resistanceOhm: 100 }], load: amps(0.1) }],
      }),
    );
    expect(s.elements[0]![1]!.meanA).toBeCloseTo(s.rails[0]!.meanV / 100, 4);
    expect(s.rails[0]!.loadMeanA).toBeCloseTo(0.1, 6);
  });
});

describe('faults', () => {
  test.each(['open', 'short'] as const)(
    'one diode %s in one of two bridges is that fault of a bridge alone, and leaves the other bridge sound',
    (state) => {
      const rail = { filter: [farad(2200e-6)], load: amps(0.4) };
      const faults = [{ diode: 0, state }];
      const two = solveSteady(circuit('two-bridges', { rails: [rail, rail], faults })).rails;
      const alone = solveSteady(circuit('bridge', { rails: [rail], faults })).rails[0]!;
      const sound = solveSteady(circuit('bridge', { rails: [rail] })).rails[0]!;
      expect(two[0]!.ripplePeakToPeakV / alone.ripplePeakToPeakV).toBeCloseTo(1, 3);
      expect(two[0]!.meanV / alone.meanV).toBeCloseTo(1, 4);
      expect(two[1]!.ripplePeakToPeakV / sound.ripplePeakToPeakV).toBeCloseTo(1, 3);
      expect(two[1]!.meanV / sound.meanV).toBeCloseTo(1, 4);
    },
  );

  const rails = [{ filter: [farad(2200e-6)], load: amps(0.4) }];
  const sound = solveSteady(circuit('bridge', { rails }));

  test('an open diode makes a bridge half-wave: about twice the ripple', () => {
    const s = solveSteady(circuit('bridge', { rails, faults: [{ diode: 2, state: 'open' }] }));
    expect(s.rails[0]!.ripplePeakToPeakV / sound.rails[0]!.ripplePeakToPeakV).toBeGreaterThan(1.8);
    expect(s.diodes[2]).toMatchObject({ meanA: 0, rmsA: 0, peakA: 0, conductionDeg: 0 });
    expect(s.windings[0]!.meanA).toBeCloseTo(0.4, 2);
  });

  test.each(['bridge', 'bridge-of-pairs'] as const)(
    '%s: with one diode open what stands in series with it carries nothing either: all of it open reads the same',
    (kind) => {
      const opened = (diodes: readonly number[]) =>
        solveSteady(circuit(kind, { rails, henry: 5e-4, faults: diodes.map((diode) => ({ diode, state: 'open' })) }));
      const { loops } = ARRANGEMENTS[kind];
      const [one, all] = [opened([0]), opened(diodesOf(loops[0]!))];
      expect(all.rails[0]!.meanV).toBeCloseTo(one.rails[0]!.meanV, 3);
      expect(all.rails[0]!.minV).toBeCloseTo(one.rails[0]!.minV, 2);
      expect(all.windings[0]!.rmsA / one.windings[0]!.rmsA).toBeCloseTo(1, 3);
      // Both diodes of the loop that is left share what blocks them: the winding's peak and the rail.
      const left = diodesOf(loops[1]!);
      for (const d of left) expect(all.diodes[d]!.peakReverseV).toBeGreaterThan(35 / left.length);
    },
  );

  test('a shorted diode shorts the winding through its neighbour', () => {
    const s = solveSteady(circuit('bridge', { rails, faults: [{ diode: 0, state: 'short' }] }));
    expect(s.windings[0]!.rmsA).toBeGreaterThan(5 * sound.windings[0]!.rmsA);
    expect(Math.abs(s.energyBalance.relativeError)).toBeLessThan(1e-4);
  });

  test('a dried-out reservoir ripples and a shorted one gives nothing', () => {
    const dried = solveSteady(circuit('bridge', { rails: [{ filter: [farad(50e-6, 2)], load: amps(0.4) }] }));
    expect(dried.rails[0]!.minV).toBeLessThan(0.5 * sound.rails[0]!.minV);
    const shorted = solveSteady(
      circuit('bridge', { rails: [{ filter: [{ kind: 'shunt', resistanceOhm: 0.02 }], load: amps(0.4) }] }),
    );
    expect(shorted.rails[0]!.maxV).toBeLessThan(1);
    expect(shorted.windings[0]!.peakA).toBeGreaterThan(20);
  });

  test('a good centre tap with one diode open still feeds from the other half', () => {
    const s = solveSteady(circuit('centre-tap', { rails, faults: [{ diode: 0, state: 'open' }] }));
    expect(s.windings[0]!.rmsA).toBeLessThan(1e-6);
    expect(s.windings[1]!.meanA).toBeCloseTo(0.4, 2);
    expect(s.diodes[0]!.peakReverseV).toBeGreaterThan(25);
  });
});

test('the law of the diodes is the one asked for: a Schottky leaves more on the rail', () => {
  const on = (diode: typeof SILICON) =>
    solveSteady(circuit('bridge', { diode, rails: [{ filter: [farad(2200e-6)], load: amps(0.5) }] })).rails[0]!.meanV;
  expect(on({ ...SILICON, saturationCurrentA: 2e-6, emissionCoefficient: 1.05 }) - on(SILICON)).toBeGreaterThan(0.5);
});
