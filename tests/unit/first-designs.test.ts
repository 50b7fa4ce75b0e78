import { CONDITIONS } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { MAINS_PRESETS } from '@/core/design/defaults';
import { readDesign } from '@/core/design/schema';
import { readingsFault, type BoxReadings } from '@/core/size/box-readings';
import { designFromReadings } from '@/core/size/from-readings';
import { designFromTransformer } from '@/core/size/from-transformer';
import { regulatorChoices, whyNoneFits } from '@/core/size/regulator-choices';
import type { Regulator } from '@/core/design/design';
import { solveSteady } from '@/core/solve/steady';

const mains = MAINS_PRESETS[0]!.mains;
const box: BoxReadings = { mainsV: 224, idleV: 36, loadedV: 31, loadA: 1.5, rippleVpp: 1.6, flatTopPct: 0 };

describe('a box and a meter', () => {
  const d = designFromReadings(box, mains);
  const at = (load: 'full' | 'none') =>
    solveSteady(networkOf(d, { ...CONDITIONS.nominal, load }, { mainsV: 224 })).rails[0]!;

  test('simulated at the mains of that hour it reads as it was read', () => {
    expect(at('full').meanV).toBeCloseTo(31, 2);
    expect(at('none').meanV).toBeGreaterThan(35.5);
    expect(at('none').meanV).toBeLessThan(36.5);
    expect(at('full').ripplePeakToPeakV / 1.6).toBeGreaterThan(0.8);
    expect(at('full').ripplePeakToPeakV / 1.6).toBeLessThan(1.25);
  });

  test('its parts are those a builder would find in it', () => {
    // 0.8 × 1.5 A over 100 Hz and 1.6 V: 7500 µF, sold as 6800.
    expect(d.reservoir.capacitanceF).toBe(6800e-6);
    // 36 V at 224 V mains is 40.7 V at 253, and 47.8 with 15 % in hand.
    expect(d.reservoir.ratedV).toBe(50);
    // (36 + 2 × 0.45) / √2 open, 8 % of regulation.
    expect(d.transformer.ratedV).toBe(24);
    // 1.8 × 1.5 A × 26.1 V.
    expect(d.transformer.ratedVA).toBe(70);
    expect(d.transformer.source).toMatchObject({ kind: 'test', mainsV: 224, loadA: 2.7 });
    expect(d.demand).toMatchObject({ outputV: 31, outputA: 1.5, rippleVpp: 2.4 });
    expect(d.name).toBe('Box of 31 V, 1.5 A');
    expect(readDesign(JSON.parse(JSON.stringify(d))).ok).toBe(true);
  });

  test('a can of the volts it has just to bear is enough, the next is taken above', () => {
    // idle × 1.1 / 0.85 at 230 V: 48.6 V asks for 62.9 V, 48.7 for 63.03.
    const can = (idleV: number) =>
      designFromReadings({ ...box, mainsV: 230, idleV, loadedV: 0.9 * idleV }, mains).reservoir.ratedV;
    expect([can(48.6), can(48.8)]).toEqual([63, 80]);
    // Beyond the highest made it is the highest made, and the judge says so.
    expect(can(700)).toBe(can(690));
  });

  test('its diodes by the load', () => {
    const diode = (loadA: number) => designFromReadings({ ...box, loadA }, mains).rectifier.diode;
    expect([0.8, 0.81, 3, 3.1].map(diode)).toEqual(['si-1a', 'si-3a', 'si-3a', 'si-25a']);
  });

  test('readings no bridge and reservoir can give are refused with a sentence', () => {
    for (const key of ['mainsV', 'idleV', 'loadedV', 'loadA', 'rippleVpp'] as const)
      for (const value of [0, -1, NaN]) expect(readingsFault({ ...box, [key]: value })).toMatch(/more than nothing/);
    expect(readingsFault({ ...box, loadedV: 36 })).toMatch(/has to be the lower one/);
    expect(readingsFault({ ...box, loadedV: 35.9 })).toBeNull();
    expect(readingsFault({ ...box, rippleVpp: 31.1 })).toMatch(/AC range/);
    expect(readingsFault({ ...box, rippleVpp: 31 })).toBeNull();
    expect(() => designFromReadings({ ...box, idleV: 30 }, mains)).toThrow(RangeError);
    // So deep a ripple takes the mean below what was read, copper or none.
    expect(() => designFromReadings({ ...box, loadedV: 35.5, rippleVpp: 12 }, mains)).toThrow(
      /even without any copper/,
    );
  });
});

test('a transformer in hand: what its winding bears, its crest less two diodes, a tenth of ripple', () => {
  const d = designFromTransformer(18, 60, mains);
  // 60 / 18 / 1.8; √2 × 18 − 2; 1.9 A over 100 Hz and 2.3 V: 8261 µF, sold as 10,000 or 6800.
  expect(d.demand).toMatchObject({ outputA: 1.9, outputV: 23, rippleVpp: 3.4, tolerancePct: 30 });
  expect(d.reservoir.capacitanceF).toBe(10000e-6);
  expect(d.transformer).toMatchObject({ ratedV: 18, ratedVA: 60 });
  expect(d.name).toBe('18 V 60 VA transformer');
  // √2 × 18 V and its regulation and 10 %: some 31 V, 37 with 15 % in hand: 35 V cans are too few.
  expect(d.reservoir.ratedV).toBe(50);
  expect(d.rectifier.diode).toBe('si-3a');
  expect(designFromTransformer(9, 5, mains).rectifier.diode).toBe('si-1a');
  expect(designFromTransformer(24, 500, mains).rectifier.diode).toMatch(/25a|35a/);
  // At so many volts a 3 A diode's 400 V are too few.
  expect(designFromTransformer(230, 800, mains).rectifier.diode).not.toBe('si-3a');
  expect(designFromTransformer(1, 5, mains).demand.outputV).toBe(0.5);
});

describe('ready-made regulators for a load', () => {
  const ask = { outputV: 12, outputA: 0.8, tolerancePct: 5, rippleVpp: 0.01, kind: 'current' } as const;
  const of = (patch: object) => regulatorChoices({ ...ask, ...patch }, mains);
  const say = (r: Regulator) =>
    r.kind === 'fixed'
      ? `${r.size}${r.outputV}`
      : r.kind === 'adjustable' || r.kind === 'low-dropout'
        ? r.part
        : r.kind;

  test('those whose whole spread stays inside the window and that carry the load, and no others', () => {
    // 12 V ± 5 %: a fixed one's 4 % fits; 78L and 78M are too weak, and adjustable ones spread more than 5 %.
    const kinds = of({}).choices.map(say);
    expect(kinds).toContain('7812');
    expect(kinds).toContain('78S12');
    expect(kinds).not.toContain('78L12');
    expect(kinds).not.toContain('78M12');
    expect(kinds).not.toContain('7815');
    expect(kinds).not.toContain('none');
    const wide = of({ tolerancePct: 15 }).choices.flatMap((r) => (r.kind === 'fixed' ? [r.outputV] : []));
    expect(Math.min(...wide)).toBeGreaterThan(12 * 0.85);
    // A window as narrow as the spread itself still takes it; a hair less does not.
    expect(of({ tolerancePct: 4 }).choices.map(say)).toContain('7812');
    expect(of({ tolerancePct: 3.9 }).choices.map(say)).not.toContain('7812');
  });

  test('what is left out is said, with how many', () => {
    const words = of({}).leftOut.join(' ');
    expect(words).toMatch(/\d+ ready-made regulators for these volts: rated below 800 mA\./);
    expect(words).toMatch(/No regulator at all: the mains alone swing further than the window/);
    expect(words).toMatch(/Discrete and bench regulators/);
    expect(of({ outputA: 0.05 }).leftOut.join(' ')).not.toMatch(/rated below/);
    // Forty times the load is far too strong: 1.5 A for 20 mA is, for 40 mA it is not.
    expect(of({ outputV: 12, outputA: 0.02, tolerancePct: 10 }).leftOut.join(' ')).toMatch(/far stronger/);
    expect(of({ outputV: 12, outputA: 0.9, tolerancePct: 10 }).leftOut.join(' ')).not.toMatch(/far stronger/);
  });

  test('none is among them where the window is as wide as the mains swing, or where nothing is made', () => {
    // ±10 % mains.
    expect(of({ tolerancePct: 10 }).choices.map(say)).toContain('none');
    expect(of({ tolerancePct: 9.9 }).choices.map(say)).not.toContain('none');
    expect(of({ outputA: 20 }).choices).toEqual([{ kind: 'none' }]);
    // 13 V is not made, and an adjustable one spreads further than 1 %: the nearest is tried all the same, and none.
    const odd = of({ outputV: 13, tolerancePct: 1 }).choices.map(say);
    expect(odd.at(-1)).toBe('none');
    expect(odd.length).toBe(2);
    const lopsided = of({ outputV: 12, window: { lowV: 11, highV: 13.5 } });
    expect(lopsided.choices.map(say)).toContain('none');
  });

  test('an adjustable one is set to its volts by a pair that is sold, drawing what its worst part needs', () => {
    for (const volts of [1.25, 2.5, 5, 7.3, 13.8, 24, 36]) {
      const found = of({ outputV: volts, outputA: 0.5, tolerancePct: 12 }).choices.filter(
        (r) => r.kind === 'adjustable',
      );
      expect(found.length).toBeGreaterThan(0);
      for (const r of found) {
        expect((1.25 * (1 + r.r2Ohm / r.r1Ohm) + 50e-6 * r.r2Ohm) / volts).toBeCloseTo(1, 1.5);
        expect(1.25 / r.r1Ohm).toBeGreaterThan(0.0103);
        expect(r.potOhm).toBeNull();
      }
    }
    // Below its reference nothing adjustable goes.
    expect(of({ outputV: 1.2, tolerancePct: 12 }).choices.map((r) => r.kind)).not.toContain('adjustable');
    expect(of({ outputV: 1.25, tolerancePct: 12 }).choices.find((r) => r.kind === 'adjustable')).toMatchObject({
      r2Ohm: 0,
    });
  });

  test('why nothing fits: the nearest volts, the spread, the strongest', () => {
    expect(whyNoneFits({ ...ask, outputV: 13.5 })).toEqual(['the nearest fixed outputs are 12 V and 15 V']);
    expect(whyNoneFits({ ...ask, tolerancePct: 1.9 })).toEqual([
      'no ready-made regulator holds ±1.9 % over its spread',
    ]);
    expect(whyNoneFits({ ...ask, tolerancePct: 2 })).toEqual([]);
    expect(whyNoneFits({ ...ask, outputA: 5 })).toEqual([]);
    expect(whyNoneFits({ ...ask, outputA: 5.1 })).toEqual(['the strongest ready-made regulator carries 5 A']);
    // 12.7 V is 5.8 % from 12 V.
    expect(whyNoneFits({ ...ask, outputV: 12.7, tolerancePct: 6 })).toEqual([]);
    expect(whyNoneFits({ ...ask, outputV: 12.7, tolerancePct: 5.5 })[0]).toMatch(/nearest fixed outputs/);
  });
});
