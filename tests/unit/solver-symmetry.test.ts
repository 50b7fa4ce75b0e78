import fc from 'fast-check';
import type { Load, Network } from '@/core/circuit/network';
import type { RectifierKind } from '@/core/parts/arrangements';
import { solveSteady } from '@/core/solve/steady';

const SILICON = { saturationCurrentA: 4e-9, emissionCoefficient: 1.8, seriesResistanceOhm: 0.03, temperatureC: 25 };

interface Values {
  kind: RectifierKind;
  volts: number;
  ohm: number;
  shared: number;
  farad: number;
  esr: number;
  load: Load[];
  hertz?: number;
  diode?: typeof SILICON;
}

function network({ kind, volts, ohm, shared, farad, esr, load, hertz = 50, diode = SILICON }: Values): Network {
  return {
    frequencyHz: hertz,
    mains: { sharedResistanceOhm: shared, flatTop: 0 },
    sections: [
      {
        winding: { voltageRms: volts, resistanceOhm: ohm, inductanceH: 0 },
        rectifier: { kind, diode },
        rails: [{ filter: [{ kind: 'capacitor', capacitanceF: farad, esrOhm: esr }], load }],
      },
    ],
  };
}

const values: fc.Arbitrary<Values> = fc.record({
  kind: fc.constantFrom<RectifierKind>('half-wave', 'centre-tap', 'bridge'),
  volts: fc.double({ min: 6, max: 60, noNaN: true }),
  ohm: fc.double({ min: 0.05, max: 2, noNaN: true }),
  shared: fc.double({ min: 0, max: 1, noNaN: true }),
  farad: fc.double({ min: 3e-4, max: 2e-2, noNaN: true }),
  esr: fc.double({ min: 0, max: 0.2, noNaN: true }),
  load: fc.double({ min: 0.02, max: 1.5, noNaN: true }).map((currentA) => [{ kind: 'current' as const, currentA }]),
});

/** Relative difference, on the scale of the first. */
const off = (a: number, b: number) => Math.abs(b - a) / Math.max(Math.abs(a), 1e-9);

describe('what physics says cannot matter does not matter', () => {
  const runs = { numRuns: 50 };

  test('with one winding, shared resistance is own resistance', () => {
    fc.assert(
      fc.property(values, (v) => {
        if (v.kind === 'centre-tap') return;
        const split = solveSteady(network(v));
        const joined = solveSteady(network({ ...v, ohm: v.ohm + v.shared, shared: 0 }));
        expect(off(split.rails[0]!.meanV, joined.rails[0]!.meanV)).toBeLessThan(1e-6);
        expect(off(split.windings[0]!.rmsA, joined.windings[0]!.rmsA)).toBeLessThan(1e-6);
        const lost = split.windings[0]!.copperLossW + (split.source.sharedLossW ?? 0);
        expect(off(lost, joined.windings[0]!.copperLossW)).toBeLessThan(1e-6);
      }),
      runs,
    );
  });

  test('twice the frequency with half the capacitance is the same cycle, played faster', () => {
    fc.assert(
      fc.property(values, (v) => {
        const slow = solveSteady(network(v));
        const fast = solveSteady(network({ ...v, hertz: 100, farad: v.farad / 2 }));
        for (const key of ['meanV', 'minV', 'maxV', 'ripplePeakToPeakV'] as const) {
          expect(off(slow.rails[0]![key], fast.rails[0]![key])).toBeLessThan(2e-4);
        }
        expect(off(slow.windings[0]!.rmsA, fast.windings[0]!.rmsA)).toBeLessThan(2e-4);
        expect(off(slow.diodes[0]!.conductionDeg, fast.diodes[0]!.conductionDeg)).toBeLessThan(1e-3);
      }),
      runs,
    );
  });

  test('twice the current through half of every resistance and twice every capacitance leaves the volts alone', () => {
    fc.assert(
      fc.property(values, (v) => {
        const once = solveSteady(network(v));
        const currentA = v.load[0]!.kind === 'current' ? v.load[0]!.currentA : 0;
        const twice = solveSteady(
          network({
            ...v,
            ohm: v.ohm / 2,
            shared: v.shared / 2,
            esr: v.esr / 2,
            farad: v.farad * 2,
            load: [{ kind: 'current', currentA: 2 * currentA }],
            diode: { ...SILICON, saturationCurrentA: 2 * SILICON.saturationCurrentA, seriesResistanceOhm: 0.015 },
          }),
        );
        expect(off(once.rails[0]!.meanV, twice.rails[0]!.meanV)).toBeLessThan(1e-5);
        expect(off(2 * once.windings[0]!.peakA, twice.windings[0]!.peakA)).toBeLessThan(1e-4);
        expect(off(2 * once.energyBalance.sourceW, twice.energyBalance.sourceW)).toBeLessThan(1e-4);
      }),
      runs,
    );
  });

  test('the order of parallel loads', () => {
    fc.assert(
      fc.property(values, (v) => {
        const loads: Load[] = [
          ...v.load,
          { kind: 'resistance', resistanceOhm: 400 },
          { kind: 'regulator', outputV: 5, dropoutV: 2, currentA: 0.1, quiescentA: 0.004 },
        ];
        const forward = solveSteady(network({ ...v, load: loads }));
        const backward = solveSteady(network({ ...v, load: [...loads].reverse() }));
        expect(off(forward.rails[0]!.meanV, backward.rails[0]!.meanV)).toBeLessThan(1e-9);
        expect(off(forward.rails[0]!.minV, backward.rails[0]!.minV)).toBeLessThan(1e-9);
      }),
      runs,
    );
  });

  test('a bridge is a centre tap of the same half volts with one diode more in the way', () => {
    fc.assert(
      fc.property(values, (v) => {
        const bridge = solveSteady(network({ ...v, kind: 'bridge', shared: 0 }));
        const doubled = {
          ...SILICON,
          emissionCoefficient: 2 * SILICON.emissionCoefficient,
          seriesResistanceOhm: 2 * SILICON.seriesResistanceOhm,
        };
        const tap = solveSteady(network({ ...v, kind: 'centre-tap', shared: 0, diode: doubled }));
        expect(off(bridge.rails[0]!.meanV, tap.rails[0]!.meanV)).toBeLessThan(1e-6);
        expect(off(bridge.windings[0]!.rmsA, Math.SQRT2 * tap.windings[0]!.rmsA)).toBeLessThan(1e-5);
        expect(off(bridge.diodes[0]!.meanA, tap.diodes[0]!.meanA)).toBeLessThan(1e-5);
      }),
      runs,
    );
  });
});

describe('what each arrangement asks of its diodes and windings', () => {
  const load = [{ kind: 'current' as const, currentA: 0.5 }];
  const of = (kind: RectifierKind) =>
    solveSteady(network({ kind, volts: 18, ohm: 0.6, shared: 0, farad: 4.7e-3, esr: 0.03, load }));

  test('mean diode current: all of it half-wave, half of it full-wave', () => {
    expect(of('half-wave').diodes[0]!.meanA).toBeCloseTo(0.5, 3);
    expect(of('centre-tap').diodes[0]!.meanA).toBeCloseTo(0.25, 3);
    expect(of('bridge').diodes[0]!.meanA).toBeCloseTo(0.25, 3);
  });

  test('reverse volts: about twice the peak for one diode in the path, about once in a bridge', () => {
    const peak = 18 * Math.SQRT2;
    for (const kind of ['half-wave', 'centre-tap'] as const) {
      expect(of(kind).diodes[0]!.peakReverseV / peak).toBeGreaterThan(1.8);
      expect(of(kind).diodes[0]!.peakReverseV / peak).toBeLessThan(2);
    }
    expect(of('bridge').diodes[0]!.peakReverseV / peak).toBeGreaterThan(0.85);
    expect(of('bridge').diodes[0]!.peakReverseV / peak).toBeLessThan(1.02);
  });

  test('half-wave leaves direct current in the winding, a bridge none, a tap half in each half', () => {
    expect(of('half-wave').windings[0]!.meanA).toBeCloseTo(0.5, 3);
    expect(Math.abs(of('bridge').windings[0]!.meanA)).toBeLessThan(1e-9);
    expect(of('centre-tap').windings.map((w) => Number(w.meanA.toFixed(3)))).toEqual([0.25, 0.25]);
  });

  test('as many windings and diodes as the drawing has', () => {
    expect([of('half-wave').windings.length, of('half-wave').diodes.length]).toEqual([1, 1]);
    expect([of('centre-tap').windings.length, of('centre-tap').diodes.length]).toEqual([2, 2]);
    expect([of('bridge').windings.length, of('bridge').diodes.length]).toEqual([1, 4]);
  });

  test('the pulse: conduction from 20 to 90 degrees, its peak three to eight times the load', () => {
    for (const kind of ['half-wave', 'centre-tap', 'bridge'] as const) {
      const d = of(kind).diodes[0]!;
      expect(d.conductionDeg).toBeGreaterThan(20);
      expect(d.conductionDeg).toBeLessThan(90);
      expect(d.peakA / 0.5).toBeGreaterThan(3);
      expect(d.peakA / 0.5).toBeLessThan(14);
    }
  });

  test('waveforms cover one cycle from the rising zero crossing, and agree with the figures', () => {
    const s = solveSteady(network({ kind: 'bridge', volts: 18, ohm: 0.6, shared: 0, farad: 4.7e-3, esr: 0.03, load }), {
      samples: 400,
    });
    const w = s.waveforms!;
    expect(w.t).toHaveLength(400);
    // The source is its sine at every sample, however long a step the quiet part of the cycle takes.
    w.sourceV.forEach((v, n) => expect(v).toBeCloseTo(18 * Math.SQRT2 * Math.sin((2 * Math.PI * n) / 400), 9));
    expect(Math.max(...w.railV[0]!)).toBeCloseTo(s.rails[0]!.maxV, 2);
    expect(Math.min(...w.railV[0]!)).toBeCloseTo(s.rails[0]!.minV, 2);
    const mean = w.railV[0]!.reduce((a, b) => a + b, 0) / 400;
    expect(mean).toBeCloseTo(s.rails[0]!.meanV, 2);
    const rms = Math.sqrt(w.windingA[0]!.reduce((a, b) => a + b * b, 0) / 400);
    expect(off(s.windings[0]!.rmsA, rms)).toBeLessThan(5e-3);
  });
});
