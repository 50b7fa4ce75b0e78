import type { Regulator } from '@/core/design/design';
import { regulatorModel } from '@/core/parts/regulators';
import { adjustableR2, settingPair } from '@/core/parts/regulators/adjustable';
import { aheadDropout, aheadModel } from '@/core/parts/regulators/ahead';
import { errorTransistorUpper } from '@/core/parts/regulators/error-transistor';
import { dropoutAt, tabWords, type RegulatorModel } from '@/core/parts/regulators/model';
import { passTransistor, safeCurrent } from '@/core/parts/transistor';

/** Every family against figures worked out by hand from data sheets of its class and the law of Ohm. */

const of = (r: Exclude<Regulator, { kind: 'none' }>): RegulatorModel => regulatorModel(r);
const setting = (m: RegulatorModel, label: string) => {
  const found = m.settings.find((s) => s.label === label);
  if (!found) throw new Error(`no ${label}: ${m.settings.map((s) => s.label).join(', ')}`);
  return found;
};
const input = (m: RegulatorModel, label: string, name: string) =>
  setting(m, label).inputs.find((i) => i.label === name)?.value;
const burns = (m: RegulatorModel, inputV: number, outputV: number, amps: number) =>
  Object.fromEntries(m.burners.map((b) => [b.label, b.watts({ inputV, outputV, amps })]));
const parts = (m: RegulatorModel) => m.small.map((s) => s.what);

describe('fixed', () => {
  const m = of({ kind: 'fixed', size: '78', outputV: 12 });
  test('a 7812: 12 V within 4 %, an ampere, 2 V of dropout at it, 35 V at most', () => {
    expect([m.outputV, m.lowestV, m.spread, m.ratedA, m.inputMaxV]).toEqual([12, 12, 0.04, 1, 35]);
    expect(dropoutAt(m, 1)).toBeCloseTo(2, 9);
    // Two junctions and a saturated transistor are left of it without load.
    expect(dropoutAt(m, 0)).toBeCloseTo(1.3, 9);
    // Both junctions lose 2 mV a kelvin together.
    expect(dropoutAt(m, 1, 100)).toBeCloseTo(2 - 0.15, 9);
    expect(m.limitA).toBeCloseTo(2.2, 9);
    expect(m.shortA(30)).toBeCloseTo(0.75, 9);
    expect([m.quiescentA, m.minimumLoadA, m.dividerA, m.outputOhm, m.passShare]).toEqual([0.006, 0, 0, 0, 1]);
    expect(m.limitsItself).toBe(true);
  });

  test('its rejection falls with its volts and above its loop, its noise grows with its volts', () => {
    // 78 dB at 5 V, 56 at 24, even in the logarithm between.
    expect(m.rejectionDb(100)).toBeCloseTo(78 - (22 * Math.log(12 / 5)) / Math.log(24 / 5), 1);
    expect(of({ kind: 'fixed', size: '78', outputV: 5 }).rejectionDb(1)).toBeCloseTo(78, 3);
    expect(of({ kind: 'fixed', size: '78S', outputV: 24 }).rejectionDb(1)).toBeCloseTo(56, 3);
    // A decade above the corner of 4 kHz it has lost 20 dB.
    expect(m.rejectionDb(1) - m.rejectionDb(40_000)).toBeCloseTo(20, 1);
    expect(m.rejectionDb(4e9)).toBe(0);
    // 75 µV of a 7812 is what sheets say; 40 of a 7805.
    expect(m.noiseV).toBeCloseTo(106e-6, 6);
    expect(of({ kind: 'fixed', size: '78', outputV: 5 }).noiseV).toBeCloseTo(50e-6, 6);
  });

  test('metal, leads and small parts', () => {
    expect(m.pass).toMatchObject({ package: 'TO-220', tab: 'ground', takesSink: true, count: 1, junctionMaxC: 125 });
    expect(tabWords(m.pass)).toBe('its metal is the ground');
    const small = of({ kind: 'fixed', size: '78L', outputV: 12 });
    expect(small.pass).toMatchObject({
      package: 'TO-92',
      tab: 'none',
      takesSink: false,
      pins: 'output, ground, input',
    });
    expect(tabWords(small.pass)).toBe('no tab');
    expect(m.pass.pins).toBe('input, ground, output');
    expect(m.small.map((s) => s.value)).toEqual([330e-9, 100e-9, null]);
    expect([m.burners, m.settings, m.drains(12)]).toEqual([[], [], []]);
  });
});

describe('adjustable', () => {
  const r = { kind: 'adjustable', part: '317', r1Ohm: 240, r2Ohm: 2000, potOhm: 1000, adjCapacitor: true } as const;
  const m = of(r);
  const top = 1.25 * (1 + 3000 / 240) + 50e-6 * 3000;
  const bottom = 1.25 * (1 + 2000 / 240) + 50e-6 * 2000;
  test('what two resistors and a pot set, and how far it may be off', () => {
    expect([m.outputV, m.lowestV]).toEqual([top, bottom]);
    // 4 % of the reference, 2 % of the share the divider makes.
    expect(m.spread).toBeCloseTo(0.04 + 0.02 * (1 - 1.25 / top), 9);
    expect(m.spreadSource).toContain(`±${(100 * Math.hypot(0.04, Math.SQRT2 * 0.01 * (1 - 1.25 / top))).toFixed(1)} %`);
    expect(setting(m, 'Highest setting').value).toBe(top);
    expect(input(m, 'Highest setting', 'R2')).toBe(3000);
    expect(setting(m, 'Lowest setting').value).toBe(bottom);
    expect(input(m, 'Lowest setting', 'R2')).toBe(2000);
    expect(setting(m, 'A degree of the pot').value).toBeCloseTo((top - bottom) / 270, 9);
    expect(input(m, 'A degree of the pot', 'pot')).toBe(1000);
    const set = of({ ...r, potOhm: null });
    expect(set.settings.map((s) => s.label)).toEqual(['Output set', 'Least load outside']);
    expect([set.outputV, set.lowestV]).toEqual([bottom, bottom]);
    expect(input(set, 'Output set', 'R1')).toBe(240);
  });

  test('dropout, limit and least load of its sheet', () => {
    expect(dropoutAt(m, 1.5)).toBeCloseTo(2.3, 9);
    expect(dropoutAt(m, 0)).toBeCloseTo(0.7 * 2.3, 9);
    // 2.2 A up to 15 V across it, 0.4 A at 40, in a line between.
    expect([m.shortA(5), m.shortA(15)]).toEqual([m.limitA, m.limitA]);
    expect(m.limitA).toBeCloseTo(2.2, 9);
    expect(m.shortA(40)).toBeCloseTo(0.4, 2);
    expect(m.shortA(27.5)).toBeCloseTo((2.2 + 0.396) / 2, 6);
    expect(m.shortA(60)).toBe(m.shortA(40));
    // 5.2 mA in the divider; 10 mA the worst part, 3.5 a typical one.
    expect(m.quiescentA).toBeCloseTo(1.25 / 240, 12);
    expect(m.dividerA).toBe(m.quiescentA);
    expect([m.minimumLoadA, m.minimumTypicalA]).toEqual([0.01, 0.0035]);
    expect(setting(m, 'Least load outside').value).toBeCloseTo(0.01 - 1.25 / 240, 12);
    expect(input(m, 'Least load outside', 'minimum of the part')).toBe(0.01);
    expect(setting(of({ ...r, r1Ohm: 100 }), 'Least load outside').value).toBe(0);
    expect(of({ ...r, part: '317L' }).minimumTypicalA).toBe(0.0035);
    expect(m.inputMaxV).toBe(40);
  });

  test('a capacitor at ADJ buys 15 dB and wants a diode', () => {
    const without = of({ ...r, adjCapacitor: false });
    expect(m.rejectionDb(1) - without.rejectionDb(1)).toBeCloseTo(15, 3);
    // Above its own corner, 1 kHz against 4, most of that is gone again.
    expect(m.rejectionDb(1000)).toBeCloseTo(80 - 10 * Math.log10(2), 6);
    expect(without.rejectionDb(4000)).toBeCloseTo(65 - 10 * Math.log10(2), 6);
    expect(parts(m)).toContain('Diode 1N4002, ADJ to output');
    expect(parts(without)).not.toContain('Diode 1N4002, ADJ to output');
    expect(m.capacitors).toMatch(/wants a diode/);
    expect(without.capacitors).toMatch(/would buy/);
    expect(m.noiseV).toBeCloseTo(3e-5 * top, 12);
  });

  test('what its divider burns, and nothing while it is off', () => {
    expect(burns(m, 20, 10, 1)).toEqual({ R1: 1.25 ** 2 / 240, R2: ((10 - 1.25) * 1.25) / 240 });
    expect(burns(m, 0, 0, 0)).toEqual({ R1: 0, R2: 0 });
  });

  test('each package has its metal where it has', () => {
    expect(m.pass).toMatchObject({ package: 'TO-220', tab: 'output', takesSink: true, pins: 'ADJ, output, input' });
    expect(of({ ...r, part: '317L' }).pass).toMatchObject({ package: 'TO-92', tab: 'none', takesSink: false });
    expect(of({ ...r, part: '338' }).pass).toMatchObject({
      package: 'TO-3',
      tab: 'output',
      pins: 'ADJ and input pins, the case is the output',
    });
  });

  test('the resistor for an output, and back', () => {
    expect(adjustableR2(12, 240)).toBeCloseTo(10.75 / (1.25 / 240 + 50e-6), 9);
    const pair = settingPair(12, 'E24');
    expect(pair.outputV).toBeCloseTo(1.25 * (1 + pair.r2Ohm / pair.r1Ohm) + 50e-6 * pair.r2Ohm, 9);
    expect(pair.errorPct).toBeCloseTo(100 * (pair.outputV / 12 - 1), 9);
  });
});

describe('low-dropout', () => {
  const m = of({ kind: 'low-dropout', part: 'ldo-800', outputV: 5, boardCm2: 6 });
  test('1.2 V at its 800 mA, 1.1 at a hundred, more when warm', () => {
    expect(dropoutAt(m, 0.8)).toBeCloseTo(1.2, 9);
    expect(dropoutAt(m, 0.1)).toBeCloseTo(1.1, 2);
    expect(dropoutAt(m, 0.8, 75)).toBeCloseTo(1.2 + 50 * 0.0024, 9);
    expect([m.outputV, m.lowestV, m.spread, m.inputMaxV, m.quiescentA]).toEqual([5, 5, 0.02, 15, 0.005]);
    expect(m.limitA).toBeCloseTo(1.12, 9);
    expect(m.shortA(10)).toBeCloseTo(0.96, 9);
    expect(m.rejectionDb(1000)).toBeCloseTo(60 - 10 * Math.log10(2), 6);
    expect(m.noiseV).toBeCloseTo(2e-4, 12);
  });
  test('one on the board is cooled by copper, one with a tab by a sink', () => {
    expect(m.pass).toMatchObject({ package: 'SOT-223', tab: 'output', takesSink: false, jaKPerW: 58 });
    const tab = of({ kind: 'low-dropout', part: 'ldo-1a5', outputV: 5, boardCm2: 6 });
    expect(tab.pass).toMatchObject({ package: 'TO-220', tab: 'ground', takesSink: true, jaKPerW: 55, jcKPerW: 3 });
    expect(m.capacitors).toMatch(/ESR of 0\.1 to 1 Ω/);
    expect(m.small.map((s) => s.value)).toEqual([1e-6, 10e-6]);
  });
});

describe('zener and follower', () => {
  const r = {
    kind: 'follower',
    zenerV: 12.6,
    zenerW: 1.3,
    transistor: '2n3055',
    passes: 2,
    emitterOhm: 0.2,
    gain: 50,
    seriesOhm: 220,
    limitOhm: 0.5,
  } as const;
  const m = of(r);
  test('a junction below the zener, moved by 5 % and the junction; 0.65 V across its sense resistor limit it', () => {
    expect(m.outputV).toBeCloseTo(11.8, 9);
    expect(m.lowestV).toBe(m.outputV);
    expect(m.spread).toBeCloseTo(0.05 + 0.15 / 11.8, 9);
    expect(m.limitA).toBeCloseTo(1.3, 9);
    expect(m.shortA(20)).toBe(m.limitA);
    expect(m.ratedA).toBeCloseTo(1.3, 9);
    // Without a limit a short takes what the two bear; rated is 70 % of what they share.
    const free = of({ ...r, limitOhm: null });
    expect(free.limitA).toBe(30);
    expect(free.ratedA).toBeCloseTo(0.7 * 15 * 2, 9);
    expect(free.limitsItself).toBe(false);
    // With nothing in their emitters one of them takes it all.
    const unshared = of({ ...r, limitOhm: null, emitterOhm: 0 });
    expect(unshared.ratedA).toBeCloseTo(10.5, 9);
    expect([unshared.pass.count, unshared.pass.fitted]).toEqual([1, 2]);
    expect([free.pass.count, free.pass.fitted]).toEqual([2, 2]);
  });

  test('its input has to stand above by the junction and what the resistor drops at 3 mA and the base current', () => {
    expect(dropoutAt(m, 0)).toBeCloseTo(0.8 + 220 * 0.003, 9);
    expect(dropoutAt(m, 1) - dropoutAt(m, 0)).toBeCloseTo(220 / 50, 9);
    expect(m.drains(12)).toEqual([{ fromV: 12.6, ohm: 220 }]);
    expect(m.passShare).toBeCloseTo(50 / 51, 12);
    expect(m.outputOhm).toBeCloseTo(0.5 + 0.1, 12);
    // The zener's slope of 8 Ω against 220.
    expect(m.rejectionDb(1)).toBeCloseTo(20 * Math.log10(1 + 220 / 8), 3);
    expect(of({ ...r, gain: null }).dropoutOhm).toBeCloseTo(220 / 30, 9);
    expect(m.inputMaxV).toBe(60);
  });

  test('what burns in zener, series, sense and emitter resistors', () => {
    const w = burns(m, 18, 11.8, 1);
    const through = (18 - 12.6) / 220;
    expect(w['zener']).toBeCloseTo(12.6 * (through - 1 / 51), 12);
    expect(w['series resistor']).toBeCloseTo(through ** 2 * 220, 12);
    expect(w['sense resistor']).toBeCloseTo(0.5, 12);
    expect(w['emitter resistors']).toBeCloseTo(0.1, 12);
    // The base takes all there is: the zener has let go.
    expect(burns(m, 18, 11.8, 2)['zener']).toBe(0);
    expect(burns(m, 10, 9, 0.1)['series resistor']).toBe(0);
    expect(m.burners.map((b) => b.bearsW)).toEqual([1.3, null, null, null]);
    const plain = of({ ...r, limitOhm: null, emitterOhm: 0 });
    expect(plain.burners.map((b) => b.label)).toEqual(['zener', 'series resistor']);
  });

  test('its own arithmetic', () => {
    expect(setting(m, 'Output, unloaded').value).toBeCloseTo(input(m, 'Output, unloaded', 'zener')! - 0.8, 9);
    expect(setting(m, 'Falls by an ampere').value).toBeCloseTo(0.6, 9);
    expect([input(m, 'Falls by an ampere', 'sense'), input(m, 'Falls by an ampere', 'emitter, each')]).toEqual([
      0.5, 0.2,
    ]);
    expect(setting(m, 'Limit').value).toBeCloseTo(0.65 / input(m, 'Limit', 'sense')!, 9);
    const free = of({ ...r, limitOhm: null });
    expect(setting(free, 'Limit').inputs).toEqual([]);
    expect(setting(free, 'Limit').expression).toMatch(/bears before it dies/);
    expect(setting(free, 'Falls by an ampere').value).toBeCloseTo(0.1, 9);
    expect(parts(m)).toEqual([
      'Zener',
      'Series resistor',
      'Small transistor and sense resistor',
      'Capacitor across the zener',
      'Capacitor at the output',
    ]);
    expect(parts(free)).not.toContain('Small transistor and sense resistor');
    expect(m.small.find((s) => s.what.startsWith('Capacitor'))!.value).toBe(100e-6);
    expect(m.name).toBe('12.6 V zener and 2 × 2N3055');
    expect(of({ ...r, passes: 1 }).name).toBe('12.6 V zener and 2N3055');
  });
});

describe('zener, error and pass transistor', () => {
  const r = {
    kind: 'error-transistor',
    zenerV: 5.6,
    upperOhm: 1500,
    potOhm: 500,
    lowerOhm: 1000,
    transistor: 'tip3055',
    passes: 2,
    emitterOhm: 0.1,
    gain: 40,
    driveOhm: 1000,
    limitOhm: 0.33,
  } as const;
  const m = of(r);
  test('the zener and a junction, times what the divider makes of it, over the pot', () => {
    expect(m.outputV).toBeCloseTo(6.25 * (1 + 2000 / 1000), 9);
    expect(m.lowestV).toBeCloseTo(6.25 * (1 + 1500 / 1500), 9);
    expect(setting(m, 'Highest setting').value).toBe(m.outputV);
    expect([input(m, 'Highest setting', 'Ra'), input(m, 'Highest setting', 'Rb')]).toEqual([2000, 1000]);
    expect([input(m, 'Lowest setting', 'Ra'), input(m, 'Lowest setting', 'Rb')]).toEqual([1500, 1500]);
    const fixed = of({ ...r, potOhm: null });
    expect(fixed.outputV).toBe(fixed.lowestV);
    expect(input(fixed, 'Highest setting', 'Ra')).toBe(1500);
    expect(errorTransistorUpper(5.6, 1000, 18.75)).toBeCloseTo(2000, 9);
  });

  test('dropout: two junctions, a milliampere of drive, and the base current through driver and resistor', () => {
    expect(dropoutAt(m, 0)).toBeCloseTo(0.8 + 0.65 + 1, 9);
    // A gain of 40 behind a driver of 80.
    expect(dropoutAt(m, 1) - dropoutAt(m, 0)).toBeCloseTo(1000 / 3200 + 0.33 + 0.05, 9);
    const darlington = of({ ...r, transistor: 'tip122', gain: 1200 });
    expect(dropoutAt(darlington, 0)).toBeCloseTo(1.5 + 1, 9);
    expect(darlington.dropoutOhm).toBeCloseTo(1000 / 1200 + 0.33 + 0.05, 9);
    expect(m.drains(12)).toEqual([{ fromV: 12 + 1.45, ohm: 1000 }]);
    expect(m.limitA).toBeCloseTo(0.65 / 0.33, 9);
    // 98 mV across each emitter resistor at the limit: they share. 70 % of 15 A twice is more than the limit.
    expect(m.ratedA).toBeCloseTo(0.65 / 0.33, 9);
    const free = of({ ...r, limitOhm: null, passes: 1, emitterOhm: 0 });
    expect([free.limitA, free.ratedA]).toEqual([15, 10.5]);
    expect(setting(free, 'Limit').inputs).toEqual([]);
    expect(setting(m, 'Limit').value).toBeCloseTo(0.65 / input(m, 'Limit', 'sense')!, 9);
    expect(free.burners.map((b) => b.label)).toEqual(['drive resistor', 'error transistor']);
    expect(parts(free)).toEqual(['Zener', 'Capacitor at the output']);
    expect(parts(m)).toEqual(['Zener', 'Small transistor and sense resistor', 'Capacitor at the output']);
    expect(free.name).toBe('discrete, TIP3055');
    expect(m.name).toBe('discrete, 2 × TIP3055');
  });

  test('its burners: the drive resistor, and the error transistor with what no base wants', () => {
    const w = burns(m, 25, 15, 1);
    const drive = (25 - 15 - 1.45) / 1000;
    expect(w['drive resistor']).toBeCloseTo(drive ** 2 * 1000, 12);
    expect(w['error transistor']).toBeCloseTo((15 + 1.45 - 5.6) * (drive - 1 / 3200), 12);
    expect(w['sense resistor']).toBeCloseTo(0.33, 12);
    expect(w['emitter resistors']).toBeCloseTo(0.05, 12);
    expect(burns(m, 12, 12, 1)).toMatchObject({ 'drive resistor': 0, 'error transistor': 0 });
    expect(m.burners.map((b) => b.bearsW)).toEqual([null, 0.5, null, null]);
  });
});

describe('bench supply', () => {
  const r = {
    kind: 'bench',
    maxV: 30,
    limitA: 2,
    referenceV: 5,
    referencePct: 1,
    shuntOhm: 0.25,
    transistor: 'tip3055',
    passes: 2,
    emitterOhm: 0.22,
    gain: 50,
    opampMaxV: 44,
    opampRail: 'raw',
    shuntPct: 2,
    resistorPct: 0.5,
  } as const;
  const m = of(r);
  test('from zero to the top of its knob, with the error of reference and resistors', () => {
    expect([m.outputV, m.lowestV]).toEqual([30, 0]);
    expect(m.spread).toBeCloseTo(0.02, 12);
    expect(m.spreadSource).toContain(`±${(100 * Math.hypot(0.01, Math.SQRT2 * 0.005)).toFixed(1)} %`);
    expect(setting(m, 'Gain behind the voltage knob').value).toBe(6);
    expect(setting(m, 'Voltage error, worst case').value).toBeCloseTo(2, 9);
    expect(setting(m, 'Voltage error, root sum square').value).toBeCloseTo(Math.hypot(1, Math.SQRT2 * 0.5), 9);
    expect([
      input(m, 'Voltage error, worst case', 'reference'),
      input(m, 'Voltage error, worst case', 'resistors'),
      input(m, 'Gain behind the voltage knob', 'top'),
      input(m, 'Gain behind the voltage knob', 'reference'),
    ]).toEqual([1, 0.5, 30, 5]);
  });

  test('its current: shunt, two resistors, and the drift of a shunt that warms itself', () => {
    // 2 A through 0.25 Ω: half a volt, one watt, 40 K, 0.4 %.
    expect(setting(m, 'Volts across the shunt at the limit').value).toBe(0.5);
    expect(setting(m, 'Current error, worst case').value).toBeCloseTo(2 + 1 + 0.4, 9);
    expect(
      ['shunt', 'resistors', 'drift', 'heat in the shunt'].map((name) => input(m, 'Current error, worst case', name)),
    ).toEqual([2, 0.5, expect.closeTo(0.4, 9), 1]);
    // Half of the current is a quarter of the watts, and of the drift.
    expect(setting(of({ ...r, limitA: 1 }), 'Current error, worst case').value).toBeCloseTo(2 + 1 + 0.1, 9);
    expect(setting(m, 'Across each emitter resistor').value).toBeCloseTo(0.22, 9);
    expect(input(m, 'Across each emitter resistor', 'resistor')).toBe(0.22);
    expect([m.limitA, m.shortA(40), m.ratedA]).toEqual([2, 2, 2]);
    // Rated by its transistors where those are the weaker.
    expect(of({ ...r, limitA: 30 }).ratedA).toBeCloseTo(21, 9);
    expect(of({ ...r, limitA: 30, emitterOhm: 0 }).ratedA).toBeCloseTo(10.5, 9);
    expect(m.small.map((s) => s.value)).toEqual([0.25, 0.22, 5, 10e-6]);
    expect(m.small[0]!.why).toBe('500 mV at the limit');
  });

  test('dropout with its amplifiers on the raw rail, and on one of their own', () => {
    // Two junctions and what an op-amp keeps from its supply; shunt and emitter resistors on top.
    expect(dropoutAt(m, 0)).toBeCloseTo(0.8 + 0.65 + 1.5, 9);
    expect(dropoutAt(m, 2) - dropoutAt(m, 0)).toBeCloseTo(2 * (0.25 + 0.11), 9);
    const own = of({ ...r, opampRail: 'own' });
    expect(dropoutAt(own, 0)).toBeCloseTo(1, 9);
    expect([m.quiescentA, own.quiescentA]).toEqual([0.012, 0.002]);
    expect([m.inputMaxV, own.inputMaxV]).toEqual([44, 60]);
    expect(m.inputLimitSource).toMatch(/op-amps, 44 V/);
    expect(own.inputLimitSource).toMatch(/Collector-emitter maximum of the TIP3055/);
    expect(of({ ...r, opampMaxV: 80 }).inputMaxV).toBe(60);
    expect(of({ ...r, opampMaxV: 60 }).inputLimitSource).toMatch(/op-amps/);
    expect(dropoutAt(of({ ...r, transistor: 'tip122' }), 0)).toBeCloseTo(1.5 + 1.5, 9);
    expect(own.priceEur - m.priceEur).toBeCloseTo(4, 9);
    expect(of({ ...r, passes: 3 }).priceEur - m.priceEur).toBeCloseTo(1.2, 9);
  });

  test('what burns: shunt, emitter resistors, and a driver by the gain', () => {
    const w = burns(m, 35, 5, 2);
    expect(w).toEqual({ shunt: 1, 'emitter resistors': expect.closeTo(0.44, 9), driver: expect.closeTo(60 / 51, 9) });
    expect(m.burners.map((b) => b.bearsW)).toEqual([null, null, 1.2]);
    // A Darlington has its driver in its own case.
    expect(of({ ...r, transistor: 'tip122', emitterOhm: 0 }).burners.map((b) => b.label)).toEqual(['shunt']);
    expect(of({ ...r, gain: null }).burners[2]!.watts({ inputV: 35, outputV: 5, amps: 2 })).toBeCloseTo(60 / 31, 9);
    expect(burns(m, 4, 5, 2)['driver']).toBe(0);
  });

  test('its transistors: package, safe area, and who carries', () => {
    expect(m.pass).toMatchObject({ package: 'TO-247', tab: 'input', takesSink: true, count: 2, fitted: 2 });
    expect(m.pass.safeA!(20)).toBeCloseTo(90 / 20, 9);
    expect(of({ ...r, transistor: 'bd139' }).pass.takesSink).toBe(false);
    expect(m.name).toBe('op-amp bench supply, 2 × TIP3055');
  });
});

describe('ahead of a regulator', () => {
  test('nothing, a fixed part, a tracking one, a zener', () => {
    expect(aheadModel({ kind: 'none' })).toBeNull();
    const fixed = aheadModel({ kind: 'fixed', size: '78', outputV: 15 })!;
    expect(fixed.holdsV(5)).toBe(15);
    expect(aheadDropout(fixed, 1)).toBeCloseTo(2, 9);
    expect([fixed.ratedA, fixed.inputMaxV, fixed.safeA, fixed.junctionMaxC, fixed.takesSink]).toEqual([
      1,
      35,
      null,
      125,
      true,
    ]);
    const tracking = aheadModel({ kind: 'tracking', aboveV: 4, transistor: '2n3055' })!;
    expect(tracking.holdsV(12)).toBe(16);
    expect(aheadDropout(tracking, 2)).toBeCloseTo(0.8 + 0.3 + 0.2, 9);
    expect(tracking.ratedA).toBeCloseTo(10.5, 9);
    expect(tracking.safeA!(20)).toBeCloseTo(115 / 20, 9);
    expect([tracking.inputMaxV, tracking.junctionMaxC, tracking.jcKPerW]).toEqual([60, 200, 1.5]);
    const zener = aheadModel({ kind: 'zener', zenerV: 20, seriesOhm: 300, transistor: 'tip122' })!;
    expect(zener.holdsV(5)).toBeCloseTo(18.5, 9);
    expect(aheadDropout(zener, 1)).toBeCloseTo(1.5 + 0.9 + 0.3, 9);
    expect(zener.drain).toEqual({ fromV: 20, ohm: 300 });
    expect(zener.rejectionDb(1)).toBeCloseTo(20 * Math.log10(1 + 300 / 8), 3);
    // Zener, resistor and capacitor beside the transistor.
    expect(zener.priceEur).toBeCloseTo(1.2, 9);
  });
});

test('a safe area: amperes of its wire, watts of its case, then second breakdown', () => {
  const t = passTransistor('mj15003');
  expect(safeCurrent(t, 0)).toBe(20);
  expect(safeCurrent(t, 5)).toBe(20);
  expect(safeCurrent(t, 25)).toBeCloseTo(10, 9);
  expect(safeCurrent(t, 50)).toBeCloseTo(5, 9);
  expect(safeCurrent(t, 100)).toBeCloseTo(5 * 0.5 ** 2.4, 9);
  expect(safeCurrent(t, 140)).toBeGreaterThan(0);
  expect(safeCurrent(t, 140.1)).toBe(0);
  expect(() => passTransistor('none')).toThrow(RangeError);
});
