import { CONDITIONS } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { MAINS_PRESETS } from '@/core/design/defaults';
import { inParallel, inSeries, primariesInSeries, tapOf } from '@/core/parts/combine';
import { fittedToBox } from '@/core/bench/fit-box';
import { designFromReadings } from '@/core/size/from-readings';
import { readingsFault } from '@/core/size/box-readings';
import { plainWay } from '@/cli/plain-way';
import { solveSteady } from '@/core/solve/steady';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design } from '@/core/design/design';
import { curesOf } from '@/core/judge/cures-of';
import { studyDesign } from '@/core/study/study';
import { judge } from '@/core/judge/judge';
import { amps, circuit, farad, henry, ohms } from './circuits';

const mains = MAINS_PRESETS[0]!.mains;

describe('a design begun at the readings of a box', () => {
  const box = { mainsV: 226, idleV: 36.2, loadedV: 30.4, loadA: 1.2, rippleVpp: 1.7, flatTopPct: 0 };

  test('gives the loaded reading back at that day’s mains, and nearly the idle one', () => {
    const design = designFromReadings(box, mains);
    const at = (condition: keyof typeof CONDITIONS) =>
      solveSteady(networkOf(design, CONDITIONS[condition], { mainsV: box.mainsV })).rails[0]!;
    expect(at('nominal').meanV).toBeCloseTo(box.loadedV, 1);
    expect(at('nominal').ripplePeakToPeakV / box.rippleVpp).toBeGreaterThan(0.6);
    expect(at('nominal').ripplePeakToPeakV / box.rippleVpp).toBeLessThan(1.6);
    expect(Math.abs(at('nominalIdle').meanV - box.idleV)).toBeLessThan(0.7);
  });

  const mean = (design: Design, condition: 'nominal' | 'nominalIdle', mainsV: number) =>
    solveSteady(networkOf(design, CONDITIONS[condition], { mainsV })).rails[0]!;

  test('fitted, both readings and the ripple come back within the meter, and stay with it as its load line', () => {
    const first = designFromReadings(box, mains);
    const design = fittedToBox(first, box, [], '2026-05-03T19:00:00Z');
    expect(Math.abs(mean(design, 'nominalIdle', 226).meanV - 36.2)).toBeLessThan(0.31);
    expect(Math.abs(mean(design, 'nominal', 226).meanV - 30.4)).toBeLessThan(0.2);
    expect(mean(design, 'nominal', 226).ripplePeakToPeakV / 1.7).toBeCloseTo(1, 0.9);
    expect(design.bench.loadLine.map((r) => [r.loadA, r.reservoirV, r.rippleV])).toEqual([
      [0, 36.2, null],
      [1.2, 30.4, 1.7],
    ]);
    expect(design.transformer.source.kind).toBe('fitted');
  });

  test('without a ripple, and with peaks the mains cuts, it still behaves as it was read', () => {
    const dim = { ...box, rippleVpp: null, flatTopPct: 4 };
    const design = fittedToBox(designFromReadings(dim, mains), dim, [], '2026-05-03T19:00:00Z');
    expect(design.mains.flatTopPct).toBe(4);
    expect(Math.abs(mean(design, 'nominalIdle', 226).meanV - 36.2)).toBeLessThan(0.2);
    expect(Math.abs(mean(design, 'nominal', 226).meanV - 30.4)).toBeLessThan(0.3);
    expect(readingsFault({ ...box, flatTopPct: 12 })).toContain('up to 10 %');
    expect(readingsFault({ ...box, rippleVpp: null })).toBeNull();
  });

  test('a drop no copper explains is said, not fitted', () => {
    expect(() => designFromReadings({ ...box, loadedV: 35.9, rippleVpp: 8 }, mains)).toThrow(/even without any copper/);
  });

  test.each([
    [{ ...box, loadedV: 40 }, /loaded reading has to be the lower/],
    [{ ...box, rippleVpp: 50 }, /More ripple than volts/],
    [{ ...box, loadA: 0 }, /more than nothing/],
  ])('readings that contradict each other are refused', (readings, sentence) => {
    expect(readingsFault(readings)).toMatch(sentence);
  });
});

describe('windings joined', () => {
  test('in series volts add or take away, the thinner wire rules', () => {
    const a = { volts: 12, amps: 2 };
    const b = { volts: 6, amps: 3 };
    expect(
      inSeries([
        { ...a, aiding: true },
        { ...b, aiding: true },
      ]),
    ).toMatchObject({ ok: true, volts: 18, amps: 2 });
    expect(
      inSeries([
        { ...a, aiding: true },
        { ...b, aiding: false },
      ]),
    ).toMatchObject({ ok: true, volts: 6 });
    expect(
      inSeries([
        { ...a, aiding: true },
        { ...a, aiding: false },
      ]).ok,
    ).toBe(false);
  });

  test('in parallel only what is alike', () => {
    expect(
      inParallel([
        { volts: 12, amps: 2 },
        { volts: 12, amps: 2 },
      ]),
    ).toMatchObject({ volts: 12, amps: 4 });
    expect(
      inParallel([
        { volts: 12, amps: 2 },
        { volts: 13, amps: 2 },
      ]).ok,
    ).toBe(false);
  });

  test('two cores share the mains only when they are alike; a tap gives its share', () => {
    expect(primariesInSeries({ volts: 24, amps: 2 }, { volts: 24, amps: 2 })).toMatchObject({ volts: 24, amps: 2 });
    expect(primariesInSeries({ volts: 24, amps: 2 }, { volts: 24, amps: 4 }).ok).toBe(false);
    expect(tapOf({ volts: 40, amps: 1 }, 0.25)).toMatchObject({ volts: 10, amps: 1 });
    expect(tapOf({ volts: 40, amps: 1 }, 1.5).ok).toBe(false);
  });
});

test('a rectifier of several amperes is told to cool itself, a small one is left alone', () => {
  const [clock, dome] = demoDesigns();
  const heat = (design: Design) => judge(studyDesign(design), ['rectifier-heat'])[0]!;
  const bare = applyPatch(dome!, { demand: { typicalA: null }, rectifier: { diode: 'si-8a' } });
  expect(heat(bare).state).toBe('fails');
  expect(heat(bare).figure.assumes.join(' ')).toMatch(/heatsink or the chassis/);
  const sinks = curesOf(bare, 'rectifier-heat', null).filter((e) => /sink/i.test(e.label));
  expect(sinks.length).toBeGreaterThan(0);
  expect(sinks.some((e) => heat(applyPatch(bare, e.patch)).state !== 'fails')).toBe(true);
  expect(heat(applyPatch(clock!, { demand: { outputA: 0.5 } })).state).toBe('holds');
});

describe('against an independent nodal analysis with fine fixed steps', () => {
  const rail = (filter: Parameters<typeof circuit>[1]['rails'][0]['filter'], load = amps(0.5)) => ({ filter, load });
  test.each([
    ['half-wave', circuit('half-wave', { rails: [rail([farad(2200e-6)])] })],
    ['centre tap with shared copper', circuit('centre-tap', { sharedOhm: 0.2, rails: [rail([farad(2200e-6)])] })],
    ['bridge', circuit('bridge', { rails: [rail([farad(2200e-6)])] })],
    ['bridge with leakage inductance', circuit('bridge', { henry: 300e-6, rails: [rail([farad(2200e-6)])] })],
    [
      'split bridge, unequal',
      circuit('split-bridge', { rails: [rail([farad(2200e-6)]), rail([farad(1000e-6)], amps(0.2))] }),
    ],
    ['doubler', circuit('doubler', { rails: [rail([farad(2200e-6)], amps(0.2))] })],
    ['choke input', circuit('bridge', { rails: [rail([henry(0.3, 2), farad(1000e-6)], ohms(30))] })],
    ['an open diode', circuit('bridge', { faults: [{ diode: 0, state: 'open' }], rails: [rail([farad(2200e-6)])] })],
  ])('%s: mean, valley, ripple, winding RMS and peak agree', (_, network) => {
    const solved = solveSteady(network);
    const plain = plainWay(network, 2000, 200);
    const first = solved.rails[0]!;
    expect(plain.meanV / first.meanV).toBeCloseTo(1, 3);
    expect(plain.minV / first.minV).toBeCloseTo(1, 2);
    expect(plain.ripplePeakToPeakV / first.ripplePeakToPeakV).toBeCloseTo(1, 2);
    expect(plain.windingRmsA / solved.windings[0]!.rmsA).toBeCloseTo(1, 2);
    expect(plain.windingPeakA / solved.windings[0]!.peakA).toBeCloseTo(1, 2);
  });
});
