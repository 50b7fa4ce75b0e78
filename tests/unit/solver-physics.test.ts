import fc from 'fast-check';
import type { Network } from '@/core/circuit/network';
import type { RectifierKind } from '@/core/parts/arrangements';
import { solveStart } from '@/core/solve/transient';
import { solveSteady } from '@/core/solve/steady';

/** A diode whose drop is a hundredth of a volt: ideal for a 1000 V winding. */
const IDEAL = { saturationCurrentA: 1e-6, emissionCoefficient: 0.02, seriesResistanceOhm: 0, temperatureC: 25 };
const SILICON = { saturationCurrentA: 4e-9, emissionCoefficient: 1.8, seriesResistanceOhm: 0.03, temperatureC: 25 };

function network(
  kind: RectifierKind,
  over: {
    volts?: number;
    ohm?: number;
    farad?: number;
    esr?: number;
    loadOhm?: number;
    loadA?: number;
    diode?: typeof IDEAL;
    flatTop?: number;
  } = {},
): Network {
  const { volts = 12, ohm = 0.6, farad = 2200e-6, esr = 0.05, loadOhm, loadA, diode = SILICON, flatTop = 0 } = over;
  return {
    frequencyHz: 50,
    mains: { sharedResistanceOhm: 0, flatTop },
    sections: [
      {
        winding: { voltageRms: volts, resistanceOhm: ohm, inductanceH: 0 },
        rectifier: { kind, diode },
        rails: [
          {
            filter: farad > 0 ? [{ kind: 'capacitor', capacitanceF: farad, esrOhm: esr }] : [],
            load: [
              loadOhm !== undefined
                ? { kind: 'resistance', resistanceOhm: loadOhm }
                : { kind: 'current', currentA: loadA ?? 0.5 },
            ],
          },
        ],
      },
    ],
  };
}

const PEAK = 1000 * Math.SQRT2;
const idealInto = (kind: RectifierKind, wCR: number, ratio: number) => {
  const R = 1000;
  return (
    solveSteady(
      network(kind, {
        volts: 1000,
        ohm: ratio * R,
        farad: wCR / (2 * Math.PI * 50 * R),
        esr: 0,
        loadOhm: R,
        diode: IDEAL,
      }),
    ).rails[0]!.meanV / PEAK
  );
};

describe('analytic limits', () => {
  // Schade's capacitor-input curves, from the exact piecewise solution with ideal diodes.
  const FULL_WAVE: [number, number[]][] = [
    [1, [0.67797, 0.67191, 0.64602, 0.6159, 0.51685]],
    [3, [0.77982, 0.77268, 0.73927, 0.6965, 0.55755]],
    [10, [0.89721, 0.88608, 0.81667, 0.74454, 0.57079]],
    [30, [0.9571, 0.92926, 0.83033, 0.75095, 0.57218]],
    [100, [0.98152, 0.93683, 0.83203, 0.75171, 0.57234]],
  ];
  test.each(FULL_WAVE)('full wave into a capacitor, wCR = %d', (wCR, row) => {
    [0.001, 0.01, 0.05, 0.1, 0.3].forEach((ratio, n) =>
      expect(idealInto('centre-tap', wCR, ratio)).toBeCloseTo(row[n]!, 3),
    );
  });

  test.each([
    [3, 0.01, 0.55548],
    [10, 0.01, 0.77964],
    [100, 0.01, 0.90124],
    [3, 0.1, 0.49784],
    [10, 0.1, 0.62171],
    [100, 0.1, 0.6452],
  ])('half-wave, wCR = %d, Rs/R = %d', (wCR, ratio, expected) => {
    expect(idealInto('half-wave', wCR, ratio)).toBeCloseTo(expected, 3);
  });

  test('half-wave into a resistance: mean Vpk/pi, RMS current Vpk/2R', () => {
    const s = solveSteady(network('half-wave', { volts: 1000, ohm: 0, farad: 0, loadOhm: 1000, diode: IDEAL }));
    expect(s.rails[0]!.meanV / (PEAK / Math.PI)).toBeCloseTo(1, 3);
    expect(s.windings[0]!.rmsA / (PEAK / 2000)).toBeCloseTo(1, 3);
  });

  test('full wave into a resistance: mean 2Vpk/pi, ripple RMS Vpk*sqrt(1/2 - 4/pi^2)', () => {
    const s = solveSteady(network('centre-tap', { volts: 1000, ohm: 0, farad: 0, loadOhm: 1000, diode: IDEAL }));
    expect(s.rails[0]!.meanV / ((2 * PEAK) / Math.PI)).toBeCloseTo(1, 3);
    expect(s.rails[0]!.rippleRmsV / (PEAK * Math.sqrt(0.5 - 4 / Math.PI ** 2))).toBeCloseTo(1, 3);
  });

  test('a huge reservoir behind next to no resistance stands at the peak', () => {
    const s = solveSteady(
      network('centre-tap', { volts: 1000, ohm: 0.01, farad: 0.01, esr: 0, loadOhm: 1e6, diode: IDEAL }),
    );
    expect(s.rails[0]!.meanV / PEAK).toBeCloseTo(1, 3);
  });

  test('a flat top takes off its share of the peak and of the RMS', () => {
    const s = solveSteady(
      network('centre-tap', { volts: 1000, ohm: 0.01, farad: 0.01, esr: 0, loadOhm: 1e6, diode: IDEAL, flatTop: 0.1 }),
    );
    expect(s.rails[0]!.meanV / PEAK).toBeCloseTo(0.9, 3);
    expect(s.source.rms).toBeLessThan(1000);
    expect(s.source.rms).toBeGreaterThan(0.93 * 1000);
  });
});

const anyNetwork = fc
  .record({
    kind: fc.constantFrom<RectifierKind>('half-wave', 'centre-tap', 'bridge'),
    volts: fc.double({ min: 3, max: 300, noNaN: true }),
    regulation: fc.double({ min: 0.02, max: 0.4, noNaN: true }),
    loadA: fc.double({ min: 0.002, max: 5, noNaN: true }),
    wCR: fc.double({ min: 0.3, max: 300, noNaN: true }),
    esrShare: fc.double({ min: 0, max: 0.05, noNaN: true }),
  })
  .map(({ kind, volts, regulation, loadA, wCR, esrShare }) => {
    const R = (1.3 * volts) / loadA;
    return { kind, options: { volts, ohm: regulation * R * 0.5, farad: wCR / (314 * R), esr: esrShare * R, loadA } };
  });

describe('for any plausible supply', () => {
  test('the energy balances, charge in is charge out, and the mean lies between the extremes', () => {
    fc.assert(
      fc.property(anyNetwork, ({ kind, options }) => {
        const s = solveSteady(network(kind, options));
        expect(Math.abs(s.energyBalance.relativeError)).toBeLessThan(1e-4);
        const diodes = kind === 'bridge' ? s.diodes.slice(1, 3) : s.diodes;
        const charge = diodes.reduce((sum, d) => sum + d.meanA, 0);
        expect(Math.abs(charge / s.rails[0]!.loadMeanA - 1)).toBeLessThan(1e-3);
        expect(s.rails[0]!.minV).toBeLessThanOrEqual(s.rails[0]!.meanV);
        expect(s.rails[0]!.maxV).toBeGreaterThanOrEqual(s.rails[0]!.meanV);
        expect(s.rails[0]!.maxV).toBeLessThan(Math.SQRT2 * options.volts);
      }),
      { numRuns: 150 },
    );
  });

  test('more capacitance never lowers the valley', () => {
    fc.assert(
      fc.property(anyNetwork, fc.double({ min: 1.05, max: 5, noNaN: true }), ({ kind, options }, factor) => {
        const small = solveSteady(network(kind, options)).rails[0]!.minV;
        const large = solveSteady(network(kind, { ...options, farad: options.farad * factor })).rails[0]!.minV;
        // A rail that collapses is let go within microseconds; there a thousandth of the winding is what counts as nothing.
        expect(large).toBeGreaterThan(small - 1e-3 * options.volts);
      }),
      { numRuns: 80 },
    );
  });

  test('a start from another cycle ends in the same one', () => {
    fc.assert(
      fc.property(anyNetwork, fc.double({ min: 0, max: 1.2, noNaN: true }), ({ kind, options }, share) => {
        const cold = solveSteady(network(kind, options));
        const warm = solveSteady(network(kind, options), { warm: [share * Math.SQRT2 * options.volts] });
        // Against the winding: a rail that collapsed to a fraction of a volt is known no better than that.
        expect(Math.abs(warm.rails[0]!.meanV - cold.rails[0]!.meanV)).toBeLessThan(3e-4 * options.volts);
      }),
      { numRuns: 60 },
    );
  });

  test('a higher mains never gives less', () => {
    fc.assert(
      fc.property(anyNetwork, ({ kind, options }) => {
        expect(solveSteady(network(kind, { ...options, volts: options.volts * 1.1 })).rails[0]!.meanV).toBeGreaterThan(
          solveSteady(network(kind, options)).rails[0]!.meanV,
        );
      }),
      { numRuns: 60 },
    );
  });
});

describe('switch-on', () => {
  test('settles into the steady state', () => {
    const n = network('bridge', { loadA: 0.5 });
    const late = solveStart(n, 40, 90);
    const steady = solveSteady(n);
    expect(late.rails[0]!.meanV / steady.rails[0]!.meanV).toBeCloseTo(1, 3);
    expect(late.windings[0]!.rmsA / steady.windings[0]!.rmsA).toBeCloseTo(1, 2);
  });

  test('the first pulse into a huge empty reservoir is peak less drops over the winding resistance', () => {
    const s = solveStart(network('bridge', { volts: 100, ohm: 2, farad: 0.5, esr: 0, loadA: 0.1 }), 1, 90);
    const expected = (100 * Math.SQRT2 - 2.1) / (2 + 2 * 0.03);
    expect(s.start!.peakDiodeA / expected).toBeCloseTo(1, 2);
  });

  test('the worst phase is near the peak, and I2t is what the pulse holds', () => {
    const peak = (phase: number) => solveStart(network('bridge', { loadA: 0.5, farad: 4700e-6 }), 3, phase).start!;
    expect(peak(90).peakDiodeA).toBeGreaterThan(peak(0).peakDiodeA);
    expect(peak(90).i2tDiode).toBeGreaterThan(0);
    expect(peak(90).i2tDiode).toBeLessThan(peak(90).peakDiodeA ** 2 * 0.06);
    expect(peak(90).timeTo90PercentS).toBeLessThan(peak(0).timeTo90PercentS! + 0.01);
  });

  test('energy balances in the cycle it is measured over', () => {
    for (const phase of [0, 45, 90, 200])
      expect(
        Math.abs(solveStart(network('half-wave', { loadA: 0.2 }), 4, phase).energyBalance.relativeError),
      ).toBeLessThan(1e-4);
  });
});

test('a short across the winding’s worth of resistance and no reservoir still comes back with numbers', () => {
  for (const n of [
    network('bridge', { farad: 0, loadA: 2 }),
    network('bridge', { loadOhm: 0.05 }),
    network('half-wave', { farad: 1e-8, loadA: 1 }),
    network('bridge', { farad: 0.9, loadA: 1e-4 }),
    network('bridge', { volts: 0.4, loadA: 1 }),
  ]) {
    const s = solveSteady(n);
    for (const figure of [s.rails[0]!.meanV, s.rails[0]!.minV, s.windings[0]!.rmsA, s.diodes[0]!.peakReverseV])
      expect(Number.isFinite(figure)).toBe(true);
  }
});
