import { lossTangent, typicalEsr, typicalRippleRating } from '@/core/parts/capacitor';
import { diodeClass, DIODE_CLASSES } from '@/core/parts/diode';
import { REGULATOR_SIZES, regulatorSize, rippleRejectionDb } from '@/core/parts/regulators/fixed';
import { copperRatio, transformerModel, typicalRegulation } from '@/core/parts/transformer';
import { solveSteady } from '@/core/solve/steady';
import { junctionOf } from './circuits';

describe('transformer from its nameplate', () => {
  const plate = { ratedV: 18, ratedVA: 36, regulation: 0.1, halves: 1 as const, hotC: 75 };

  test('gives its rated volts at its rated current into a resistance, warm', () => {
    const m = transformerModel(plate);
    expect(m.ratedA).toBeCloseTo(2, 12);
    expect(m.openCircuitV - m.ratedA * (m.ownHotOhm + m.sharedHotOhm)).toBeCloseTo(18, 12);
  });

  test('a centre tap loaded end to end does the same, its shared primary carrying both halves', () => {
    const m = transformerModel({ ...plate, halves: 2 });
    expect(m.ratedA).toBeCloseTo(1, 12);
    const perHalf = m.openCircuitV - m.sharedHotOhm * (2 * m.ratedA) - m.ownHotOhm * m.ratedA;
    expect(perHalf).toBeCloseTo(18, 12);
  });

  test('copper at 75 °C has 22 % more resistance than at 20 °C', () => {
    expect(copperRatio(75)).toBeCloseTo(1.216, 3);
    const m = transformerModel(plate);
    expect(m.ownHotOhm / m.ownColdOhm).toBeCloseTo(1.216, 3);
  });

  test('small cores regulate worse than large ones', () => {
    expect(typicalRegulation(3)).toBeCloseTo(0.4, 6);
    expect(typicalRegulation(50)).toBeCloseTo(0.125, 6);
    expect(typicalRegulation(5000)).toBeCloseTo(0.035, 6);
    for (let va = 3; va < 1000; va *= 1.3) expect(typicalRegulation(va * 1.3)).toBeLessThan(typicalRegulation(va));
    expect(transformerModel({ ...plate, regulation: null }).regulationKnown).toBe(false);
  });
});

test('a silicon diode drops 0.9 to 1.1 V at a charging peak, a Schottky about half', () => {
  const drop = (id: string, amps: number) => {
    const { saturationCurrentA, emissionCoefficient, seriesResistanceOhm } = junctionOf(id).law;
    return emissionCoefficient * 0.02569 * Math.log(amps / saturationCurrentA) + seriesResistanceOhm * amps;
  };
  expect(drop('si-1a', 2)).toBeGreaterThan(0.9);
  expect(drop('si-1a', 2)).toBeLessThan(1.1);
  expect(drop('si-3a', 8)).toBeLessThan(1.2);
  expect(drop('sk-3a', 3)).toBeGreaterThan(0.35);
  expect(drop('sk-3a', 3)).toBeLessThan(0.6);
  expect(() => diodeClass('germanium')).toThrow(RangeError);
  expect(new Set(DIODE_CLASSES.map((d) => d.id)).size).toBe(DIODE_CLASSES.length);
});

test('bigger cans have less ESR and stand more ripple', () => {
  expect(typicalEsr(2200e-6, 35)).toBeGreaterThan(0.03);
  expect(typicalEsr(2200e-6, 35)).toBeLessThan(0.12);
  expect(typicalEsr(10000e-6, 50)).toBeLessThan(typicalEsr(2200e-6, 50));
  expect(typicalRippleRating(2200e-6, 35)).toBeCloseTo(1.7, 1);
  expect(lossTangent(100e-6, 6.3)).toBeGreaterThan(lossTangent(100e-6, 63));
  expect(typicalEsr(0, 35)).toBe(0);
});

test('the regulator family: rejection from 78 dB at 5 V to 56 dB at 24 V, 24 V parts stand 40 V', () => {
  expect(rippleRejectionDb(5)).toBeCloseTo(78, 6);
  expect(rippleRejectionDb(24)).toBeCloseTo(56, 6);
  expect(regulatorSize('78').inputMaxV(12)).toBe(35);
  expect(regulatorSize('78').inputMaxV(24)).toBe(40);
  expect(regulatorSize('78').partNumber(5)).toBe('7805');
  expect(regulatorSize('78S').partNumber(7.5)).toBe('78S75');
  for (const size of REGULATOR_SIZES) expect(size.thetaJaKPerW).toBeGreaterThan(size.thetaJcKPerW);
});

test('a 9 V winding reads more than 11 V on an idle reservoir', () => {
  const m = transformerModel({ ratedV: 9, ratedVA: 10, regulation: null, halves: 1, hotC: 75 });
  const idle = solveSteady({
    frequencyHz: 50,
    mains: { sharedResistanceOhm: m.sharedColdOhm, flatTop: 0 },
    sections: [
      {
        winding: { voltageRms: m.openCircuitV, resistanceOhm: m.ownColdOhm, inductanceH: 0 },
        rectifier: { kind: 'bridge', diode: diodeClass('si-1a').law },
        rails: [
          {
            filter: [{ kind: 'capacitor', capacitanceF: 1000e-6, esrOhm: 0.1 }],
            load: [{ kind: 'resistance', resistanceOhm: 100_000 }],
          },
        ],
      },
    ],
  });
  expect(idle.rails[0]!.meanV).toBeGreaterThan(11);
});
