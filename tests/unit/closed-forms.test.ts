import { applyPatch, type Design } from '@/core/design/design';
import { modelOf } from '@/core/circuit/feed';
import { typicalCapacitorPrice, typicalEsr, typicalRippleRating } from '@/core/parts/capacitor';
import { diodeClass, JUNCTION_CLASSES } from '@/core/parts/diode';
import { thermalInterface, typicalSinkPrice } from '@/core/parts/heatsink';
import { typicalTransformerPrice } from '@/core/parts/transformer';
import {
  bankOptions,
  canHeight,
  canLife,
  canMounting,
  holdUpCapacitance,
  rippleAtLowFrequency,
} from '@/core/study/can-choice';
import { copperHeat } from '@/core/study/copper-heat';
import { insulators, mainSinks, typicalCost, typicalStepPrice } from '@/core/study/cost';
import { drawnPoint } from '@/core/study/drawn-point';
import { boxKPerW, insideAir, regulatorHeat, sinkRise } from '@/core/study/heat';
import { touchWords } from '@/core/study/heat-corners';
import { rangeFault } from '@/core/design/limits';
import { levelsOf } from '@/core/picture/levels';
import { lossesOf, type Lossy } from '@/core/study/losses';
import { noiseReport, strayDistance, WIRE_OHM_PER_10CM } from '@/core/study/noise';
import { harmonics } from '@/core/study/scope-shapes';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';

const [clock, dome, , drum, tide] = demoDesigns() as Design[];

describe('a can’s life', () => {
  const grade = { hours: 2000, gradeC: 105 };
  test('doubles for every 10 K below its grade', () => {
    expect(canLife(grade, 105, 0).hours).toBe(2000);
    expect(canLife(grade, 95, 0).hours).toBe(4000);
    expect(canLife(grade, 45, 0).hours).toBe(2000 * 64);
  });
  test('ripple at its rating warms it by 5 K, at half of it by a quarter of that', () => {
    expect(canLife(grade, 45, 1).coreC).toBe(50);
    expect(canLife(grade, 45, 0.5).coreC).toBe(46.25);
    expect(canLife(grade, 45, 2).coreC).toBe(65);
  });
  test('a rating at 100 kHz is worth half at 100 µF, 0.7 at 10 mF, never more than 0.8', () => {
    expect(rippleAtLowFrequency(2, 100e-6)).toBeCloseTo(1, 9);
    expect(rippleAtLowFrequency(2, 10e-3)).toBeCloseTo(1.4, 9);
    expect(rippleAtLowFrequency(2, 1)).toBeCloseTo(1.6, 9);
    expect(rippleAtLowFrequency(2, 1e-6)).toBeCloseTo(1, 9);
  });
});

describe('capacitance that rides through a gap', () => {
  test('a constant current by I·t/ΔV, a constant power by the energy between two volts', () => {
    const found = holdUpCapacitance(applyPatch(clock!, { demand: { outputA: 2 } }), 0.01, 30, 25);
    // 2 A for 10 ms over 5 V.
    expect(found.chargeF).toBeCloseTo(4e-3, 12);
    // 60 W for 10 ms is 0.6 J; half of C times 900 less 625.
    expect(0.5 * found.energyF * (900 - 625)).toBeCloseTo(0.6, 12);
    expect(found.school).toBe('charge');
    expect(found.why).toMatch(/linear regulator/);
  });
  test('without a regulator a converter is told from a load whose current stays', () => {
    const power = applyPatch(dome!, {
      regulator: { kind: 'none' },
      demand: { kind: 'power', outputV: 24, outputA: 1 },
    });
    const found = holdUpCapacitance(power, 0.02, 30, 20);
    expect(found.school).toBe('energy');
    expect(0.5 * found.energyF * (900 - 400)).toBeCloseTo(24 * 0.02, 12);
    const steady = holdUpCapacitance(applyPatch(power, { demand: { kind: 'current' } }), 0.02, 30, 20);
    expect(steady).toMatchObject({ school: 'charge', why: expect.stringMatching(/hardly depends/) as string });
  });
});

describe('one can or several', () => {
  const design = applyPatch(clock!, { reservoir: { capacitanceF: 10e-3, cans: 1, ratedV: 50 } });
  test('the same farads in one to four, each at its own ESR, rating and price', () => {
    const options = bankOptions(design);
    expect(options.map((o) => o.reservoir.cans)).toEqual([1, 2, 3, 4]);
    // Nearest of E6 to a half, a third and a quarter of 10 mF.
    expect(options.map((o) => Number((1e3 * o.reservoir.capacitanceF).toPrecision(3)))).toEqual([10, 4.7, 3.3, 2.2]);
    for (const { reservoir, totalF, esrOhm, rippleA, priceEur, heightMm } of options) {
      const { cans, capacitanceF } = reservoir;
      expect(totalF).toBeCloseTo(cans * capacitanceF, 12);
      expect(esrOhm * cans).toBeCloseTo(typicalEsr(capacitanceF, 50), 12);
      expect(rippleA / cans).toBeCloseTo(typicalRippleRating(capacitanceF, 50), 12);
      expect(priceEur / cans).toBeCloseTo(typicalCapacitorPrice(capacitanceF, 50), 12);
      expect(heightMm).toBe(canHeight(capacitanceF, 50));
    }
  });
  test('a bank counts as all of its cans', () => {
    const bank = applyPatch(design, { reservoir: { cans: 3, capacitanceF: 3.3e-3 } });
    expect(bankOptions(bank)[0]!.reservoir.capacitanceF).toBeCloseTo(10e-3, 9);
    expect(bankOptions(bank)[2]!.reservoir.capacitanceF).toBe(3.3e-3);
  });
  test('half a coulomb snaps in; a tenth has leads; two are screwed', () => {
    expect([0.1 / 50, 0.13 / 50, 1.4 / 50, 1.6 / 50].map((f) => canMounting(f, 50))).toEqual([
      'radial leads',
      'snap-in',
      'snap-in',
      'screw terminals',
    ]);
    // A 10 mF 63 V can is about 65 mm tall, a 1 mF 25 V one about 30.
    expect(canHeight(10e-3, 63)).toBeGreaterThan(50);
    expect(canHeight(10e-3, 63)).toBeLessThan(80);
    expect(canHeight(1e-3, 25)).toBeGreaterThan(22);
    expect(canHeight(1e-3, 25)).toBeLessThan(38);
  });
});

describe('what a supply gives off', () => {
  const point = (over: Partial<Lossy['watts']> = {}): Lossy => ({
    watts: { winding: 3, rectifier: 2, reservoir: 0.5, regulator: 9, outputs: 1.5, small: 0.25, load: 29, ...over },
    outputs: [],
  });
  test('is everything but the load, and 4 % of a laminated core’s size, 1 % of a ring’s', () => {
    const design = applyPatch(clock!, { transformer: { ratedVA: 100, core: 'laminated' } });
    expect(lossesOf(design, point())).toMatchObject({ ironW: 4, copperW: 3, totalW: 20.25, insideW: 20.25 });
    const ring = applyPatch(design, { transformer: { core: 'toroid' } });
    expect(lossesOf(ring, point()).totalW).toBeCloseTo(17.25, 12);
  });
  test('fins outside the box take the regulator’s watts with them, fins inside do not', () => {
    const outside = applyPatch(clock!, { heat: { box: 'closed', sinkOutside: true, sinkKPerW: 4 } });
    const all = lossesOf(outside, point());
    expect(all.totalW - all.insideW).toBe(9);
    expect(lossesOf(applyPatch(outside, { heat: { sinkOutside: false } }), point()).insideW).toBe(all.totalW);
    expect(lossesOf(applyPatch(outside, { heat: { sinkKPerW: null } }), point()).insideW).toBe(all.totalW);
    expect(lossesOf(applyPatch(outside, { heat: { box: 'open' } }), point()).insideW).toBe(all.totalW);
  });
});

describe('where the copper comes to rest', () => {
  test('at 60 K over its air with its rated watts, iron included, and more as its own resistance grows', () => {
    const design = applyPatch(clock!, {
      heat: { box: 'open', ambientC: 25 },
      transformer: { source: { kind: 'plate' } },
    });
    const model = modelOf(design);
    const iron = 0.04 * design.transformer.ratedVA;
    const ratedCopper = model.ratedA ** 2 * (model.ownHotOhm + model.sharedHotOhm);
    const at = (winding: number, takenAtC: number) =>
      copperHeat(
        design,
        { watts: { winding, rectifier: 0, reservoir: 0, regulator: 0, outputs: 0, small: 0, load: 0 }, outputs: [] },
        takenAtC,
      );
    const found = at(ratedCopper, 85);
    expect(found.kPerW).toBeCloseTo(60 / (ratedCopper + iron), 9);
    // Taken at the temperature it comes to, it stays there.
    const rest = at(ratedCopper, found.copperC);
    const cold = ratedCopper / (1 + (found.copperC - 20) / 254.5);
    expect(rest.coldW).toBeCloseTo(cold, 6);
    const heated = (c: number) => 25 + found.kPerW * (iron + rest.coldW * (1 + (c - 20) / 254.5));
    expect(rest.copperC).toBeCloseTo(heated(rest.copperC), 6);
    expect(rest.settles).toBe(true);
    // Eight times its rated copper loss never comes to rest.
    expect(at(8 * ratedCopper, 85).settles).toBe(false);
  });
});

describe('boxes and sinks', () => {
  const boxed = (box: 'closed' | 'vented' | 'open', made: 'metal' | 'plastic') =>
    applyPatch(clock!, { heat: { box, boxCm2: 1000, ambientC: 20 }, mainsSide: { box: made } });
  test('a tenth of a square metre of metal carries 0.55 W a kelvin, plastic 0.375; vents halve the rise', () => {
    expect(boxKPerW(boxed('closed', 'metal'))).toBeCloseTo(1 / 0.55, 9);
    expect(boxKPerW(boxed('closed', 'plastic'))).toBeCloseTo(1 / 0.375, 9);
    expect(boxKPerW(boxed('vented', 'metal'))).toBeCloseTo(0.5 / 0.55, 9);
    expect(boxKPerW(boxed('open', 'metal'))).toBe(0);
    expect(insideAir(boxed('closed', 'metal'), 11)).toBeCloseTo(40, 9);
  });
  test('a sink has its quoted resistance at 60 K of rise, more below it, 0.4 of it in a fan’s wind', () => {
    expect(sinkRise(3, 20, false).riseK).toBeCloseTo(60, 9);
    const mild = sinkRise(3, 5, false);
    expect(mild.kPerW).toBeCloseTo(3 * (60 / mild.riseK) ** 0.25, 9);
    // Under 10 K of rise the plates of a sink are not asked any further.
    expect(sinkRise(3, 0.1, false).kPerW).toBeCloseTo(3 * 6 ** 0.25, 9);
    expect(sinkRise(3, 20, true)).toEqual({ riseK: 24, kPerW: expect.closeTo(1.2, 9) as number });
    expect(sinkRise(3, 0, false)).toEqual({ riseK: 0, kPerW: 3 });
    expect(sinkRise(3, 0, true).kPerW).toBeCloseTo(1.2, 12);
  });
  test('room, sink, contact and case add up to the junction; two devices share the watts', () => {
    const design = applyPatch(clock!, { heat: { box: 'open', ambientC: 25, interface: 'mica', fan: 'none' } });
    const pass = { takesSink: true, count: 2, jcKPerW: 1.5, jaKPerW: 40 };
    const found = regulatorHeat(design, { pass, sinkKPerW: 3, blown: true }, { regulatorW: 16, othersW: 4, boxW: 30 });
    const contact = thermalInterface('mica').kPerW;
    // 20 W in all on 3 K/W: 60 K.
    expect(found.sinkC).toBeCloseTo(85, 6);
    expect(found.junctionC).toBeCloseTo(85 + 8 * (1.5 + contact), 6);
    const bare = regulatorHeat(design, { pass, sinkKPerW: null, blown: true }, { regulatorW: 2, othersW: 0, boxW: 2 });
    expect(bare.junctionC).toBeCloseTo(25 + 40, 9);
    expect(bare.caseC).toBeCloseTo(25 + 38.5, 9);
  });
  test('a fan that is switched starts only where the still sink would be too hot', () => {
    const at = (fanOnC: number) =>
      regulatorHeat(
        applyPatch(clock!, { heat: { box: 'open', ambientC: 25, fan: 'switched', fanOnC } }),
        { pass: { takesSink: true, count: 1, jcKPerW: 1, jaKPerW: 40 }, sinkKPerW: 3, blown: true },
        { regulatorW: 20, othersW: 0, boxW: 20 },
      ).sinkC;
    expect(at(86)).toBeCloseTo(85, 6);
    expect(at(84)).toBeCloseTo(25 + 24, 6);
  });
  test.each([
    [40, 'cool'],
    [40.1, 'lukewarm'],
    [48.1, 'hot, cannot be held for long'],
    [60.1, 'burns a finger'],
  ])('%s °C is %s', (c, words) => {
    expect(touchWords(c)).toBe(words);
  });
});

test('the steps of the terrace: open volts, less copper, less two junctions, less ripple, as each was simulated', () => {
  const { nominal } = studyDesign(clock!);
  const levels = levelsOf(drawnPoint(clock!, nominal));
  const model = modelOf(clock!);
  const copper = (levels.openPeakV - levels.terminalPeakV) / nominal.solution.windings[0]!.peakA;
  // What the terminals lose at the pulse's crest is the pulse through all copper, warm or cold.
  expect(copper).toBeGreaterThan(0.6 * (model.ownHotOhm + model.sharedHotOhm));
  expect(copper).toBeLessThan(1.1 * (model.ownHotOhm + model.sharedHotOhm));
  const junctions = levels.terminalPeakV - levels.reservoirMaxV;
  expect(junctions).toBeGreaterThan(1.4);
  expect(junctions).toBeLessThan(2.6);
  expect(levels.reservoirMaxV - levels.reservoirMinV).toBeCloseTo(nominal.rail.ripplePeakToPeakV, 2);
  expect(levels.openPeakV / Math.SQRT2).toBeGreaterThan(clock!.transformer.ratedV);
});

test.each([
  ['reservoir.capacitanceF', 1, 1.001],
  ['demand.outputV', 1000, 1001],
  ['demand.outputA', 50, 50.1],
  ['transformer.ratedVA', 5000, 1e6],
] as const)('%s goes up to %d and not to %d', (path, most, beyond) => {
  expect(rangeFault(path, most)).toBeNull();
  expect(rangeFault(path, beyond)).not.toBeNull();
});

describe('hum and noise', () => {
  test('harmonics of a wave of known make', () => {
    const n = 96;
    const wave = Array.from(
      { length: n },
      (_, k) => 30 + 2 * Math.sin((2 * Math.PI * 2 * k) / n) - 0.5 * Math.cos((2 * Math.PI * 6 * k) / n),
    );
    const found = harmonics(wave);
    expect(found[0]).toBeCloseTo(30, 9);
    expect(found[2]).toBeCloseTo(2, 9);
    expect(found[6]).toBeCloseTo(0.5, 9);
    expect(found[4]).toBeCloseTo(0, 9);
  });
  test('each harmonic goes through the rejection at its own frequency; they add by their squares', () => {
    const nominal = drawnPoint(clock!, studyDesign(clock!).nominal);
    const found = noiseReport(clock!, nominal);
    const sum = Math.sqrt(found.lines.reduce((s, l) => s + l.outputV ** 2, 0));
    expect(found.humV).toBeCloseTo(Math.hypot(sum, (nominal.outputMaxV - nominal.outputMinV) / Math.sqrt(12)), 12);
    const hundred = found.lines.find((l) => l.hz === 100)!;
    const twoHundred = found.lines.find((l) => l.hz === 200)!;
    expect(hundred.railV).toBeGreaterThan(twoHundred.railV);
    expect(hundred.outputV).toBeLessThan(hundred.railV / 100);
    expect(found.pulseA).toBe(Math.max(...nominal.wave.rectifierA));
    // 1.75e-8 ohm metre, 10 cm of 0.75 mm².
    expect(WIRE_OHM_PER_10CM).toBeCloseTo((1.75e-8 * 0.1) / 0.75e-6, 4);
    expect(found.figures.find((f) => f.id === 'noise-ground')!.value).toBeCloseTo(found.pulseA * 0.0023, 9);
    expect(found.figures.find((f) => f.id === 'noise-own')!.value).toBe(found.noiseV);
  });
  test('without a regulator nothing rejects, and there is no noise of its own', () => {
    const found = noiseReport(dome!, drawnPoint(dome!, studyDesign(dome!).nominal));
    expect(found.noiseV).toBeNull();
    for (const l of found.lines) expect(l.outputV).toBe(l.railV);
  });
  test('a stray field falls with the third power: an eighth at twice the distance', () => {
    expect(strayDistance(10, 8)).toBeCloseTo(20, 12);
  });
});

describe('what it costs, part by part', () => {
  const base = applyPatch(clock!, { heat: { sinkKPerW: null, fan: 'none' }, indicator: null });
  const more = (patch: Parameters<typeof applyPatch>[1], from = base) =>
    typicalCost(applyPatch(from, patch)) - typicalCost(from);

  test('a second can, a larger transformer, a sink, a fan, a bleeder: each by its own price', () => {
    const { capacitanceF, ratedV } = base.reservoir;
    expect(more({ reservoir: { cans: 2 } })).toBeCloseTo(typicalCapacitorPrice(capacitanceF, ratedV), 9);
    expect(more({ transformer: { ratedVA: 160 } })).toBeCloseTo(
      typicalTransformerPrice(160, 1) - typicalTransformerPrice(base.transformer.ratedVA, 1),
      9,
    );
    expect(more({ heat: { fan: 'fixed' } })).toBeCloseTo(4, 9);
    expect(more({ filter: { bleederOhm: 1000 } })).toBeCloseTo(base.filter.bleederOhm === null ? 0.5 : 0, 9);
    const washers = insulators(applyPatch(base, { heat: { sinkKPerW: 4 } }));
    expect(more({ heat: { sinkKPerW: 4 } })).toBeCloseTo(typicalSinkPrice(4) + 0.5 * washers, 9);
  });
  test('four diodes in a bridge, and two of everything on two rails', () => {
    const eur = (id: string) => diodeClass(id).priceEur;
    const other = JUNCTION_CLASSES.find((d) => d.id !== base.rectifier.diode)!.id;
    expect(more({ rectifier: { diode: other } })).toBeCloseTo(4 * (eur(other) - eur(base.rectifier.diode)), 9);
    const sinks = applyPatch(drum!, { heat: { sinkKPerW: 6, oneSink: false } });
    expect(mainSinks(sinks)).toBe(2);
    expect(mainSinks(applyPatch(sinks, { heat: { oneSink: true } }))).toBe(1);
    expect(mainSinks(applyPatch(sinks, { heat: { sinkKPerW: null } }))).toBe(0);
    expect(mainSinks(dome!)).toBe(0);
  });
  test('washers go under metal on a sink alone', () => {
    const cooled = applyPatch(clock!, { heat: { sinkKPerW: 4, interface: 'mica' } });
    expect(insulators(cooled)).toBe(1);
    expect(insulators(applyPatch(cooled, { heat: { interface: 'paste' } }))).toBe(0);
    expect(insulators(applyPatch(cooled, { heat: { sinkKPerW: null } }))).toBe(0);
    expect(insulators(applyPatch(drum!, { heat: { sinkKPerW: 4, interface: 'pad' } }))).toBe(2);
  });
  test('a choke costs by what its core stores, a resistor next to nothing', () => {
    const choke = (inductanceH: number, ratedA: number) =>
      typicalStepPrice({ kind: 'choke', inductanceH, ratedA, resistanceOhm: 1, swinging: false });
    expect(typicalStepPrice({ kind: 'resistor', resistanceOhm: 10 })).toBeLessThan(1);
    // Half of 2 H times 1 A² is a joule.
    expect(choke(2, 1)).toBeCloseTo(25, 9);
    expect(choke(0.5, 2)).toBeCloseTo(choke(2, 1), 9);
    expect(choke(20, 1)).toBeGreaterThan(2 * choke(2, 1));
    expect(tide!.filter.before.concat(tide!.filter.after).some((s) => s.kind === 'choke')).toBe(true);
  });
});
