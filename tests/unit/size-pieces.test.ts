import { usesOf } from '@/core/drawer/fit';
import { applyPatch, type Design } from '@/core/design/design';
import { blankDesign, MAINS_PRESETS, outputDemand } from '@/core/design/defaults';
import type { Part } from '@/core/drawer/part';
import { STANDARD_SECONDARY_V, STANDARD_VA, typicalTransformerPrice } from '@/core/parts/transformer';
import { typicalCapacitorPrice } from '@/core/parts/capacitor';
import { JUNCTION_CLASSES, diodeClass } from '@/core/parts/diode';
import { adjustableOutput } from '@/core/parts/regulators/adjustable';
import { regulatorModel } from '@/core/parts/regulators';
import { rankCandidates, triesOf, type Candidate } from '@/core/size/candidate';
import {
  asItIs,
  bearsLoad,
  bought,
  fitsOutput,
  fromStock,
  ordered,
  plausibleVolts,
  standardCans,
  standardDiodes,
  standardRegulators,
  standardSinks,
  standardTransformers,
} from '@/core/size/choices';
import { readingsFault } from '@/core/size/box-readings';
import { designFromReadings } from '@/core/size/from-readings';
import { regulatorChoices, whyNoneFits } from '@/core/size/regulator-choices';
import { compareSets, patchOfSet, type SizedSet } from '@/core/size/sized-set';
import { E24 } from '@/core/quantity/preferred';
import { rankChanges } from '@/core/picture/changes';
import { shareError } from '@/core/picture/build-summary';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';

const [clock, dome, , drum] = demoDesigns() as Design[];
const { mains } = MAINS_PRESETS[0]!;
const asked = (outputV: number, outputA: number, tolerancePct = 5) => ({
  outputV,
  outputA,
  tolerancePct,
  rippleVpp: 0.02,
  kind: 'current' as const,
});

describe('regulators worth trying', () => {
  const kinds = (outputV: number, outputA: number, tolerancePct = 5) =>
    regulatorChoices(asked(outputV, outputA, tolerancePct), mains);

  test('15 V, 0.6 A within 5 %: the fixed ones for it, an adjustable divider on it, none that is too weak', () => {
    const { choices, leftOut } = kinds(15, 0.6);
    for (const model of choices.flatMap((c) => regulatorModel(c) ?? [])) {
      expect(model.ratedA).toBeGreaterThanOrEqual(0.6);
      expect(model.outputV * (1 - model.spread)).toBeGreaterThanOrEqual(15 * 0.95 - 1e-6);
      expect(model.outputV * (1 + model.spread)).toBeLessThanOrEqual(15 * 1.05 + 1e-6);
    }
    expect(choices.some((c) => c.kind === 'fixed' && c.outputV === 15)).toBe(true);
    expect(leftOut.join(' ')).toMatch(/\d+ ready-made regulators for these volts: rated below 600 mA/);
    expect(leftOut.join(' ')).toMatch(/mains alone swing further/);
  });

  test.each([7.3, 11, 17.5, 28])(
    'a divider for %s V: no pair of E24 whose upper part is 82 to 120 ohm comes nearer',
    (volts) => {
      const found = kinds(volts, 0.3, 8).choices.find((c) => c.kind === 'adjustable') as Extract<
        Design['regulator'],
        { kind: 'adjustable' }
      >;
      const off = (r1: number, r2: number) => Math.abs(adjustableOutput(r1, r2) / volts - 1);
      const decades = E24.flatMap((m) => [10 * m, 100 * m, 1000 * m]);
      const best = Math.min(...[82, 91, 100, 110, 120].flatMap((r1) => decades.map((r2) => off(r1, r2))));
      expect(off(found.r1Ohm, found.r2Ohm)).toBeCloseTo(best, 9);
    },
  );

  test('a window as wide as the mains swing is also tried without any, a narrow one is not', () => {
    expect(kinds(24, 1, 30).choices).toContainEqual({ kind: 'none' });
    expect(kinds(24, 1, 5).choices).not.toContainEqual({ kind: 'none' });
  });

  test('its spread has to stay inside both ends of the window', () => {
    const within = (lowV: number, highV: number) =>
      regulatorChoices({ ...asked(15, 0.3), window: { lowV, highV } }, mains).choices.some(
        (c) => c.kind === 'fixed' && c.outputV === 15,
      );
    // A fixed 15 V part gives 14.4 to 15.6 V.
    expect(within(14.3, 15.7)).toBe(true);
    expect(within(14.5, 17)).toBe(false);
    expect(within(13, 15.5)).toBe(false);
  });

  test('what no regulator does says why', () => {
    expect(whyNoneFits(asked(15, 0.6, 1.9)).join()).toMatch(/no ready-made regulator holds ±1\.9 %/);
    expect(whyNoneFits(asked(15, 0.6, 2))).toEqual([]);
    expect(whyNoneFits(asked(13.5, 0.6)).join()).toMatch(/nearest fixed outputs are 12 V and 15 V/);
    expect(whyNoneFits(asked(12, 50)).join()).toMatch(/strongest ready-made regulator carries/);
    expect(whyNoneFits(asked(12, 1))).toEqual([]);
  });
});

describe('standard values around a load', () => {
  const design = blankDesign('trial', asked(15, 1), mains);

  test('windings from 0.6 times the output, sizes from 1.2 to 4.5 times its watts, four of each at most, priced by size', () => {
    const list = standardTransformers(design);
    const sizes = new Map<number, number[]>();
    for (const { patch, toPayEur, part } of list) {
      const { ratedV, ratedVA } = patch.transformer as { ratedV: number; ratedVA: number };
      expect(STANDARD_SECONDARY_V).toContain(ratedV);
      expect(ratedV).toBeGreaterThan(9);
      expect(ratedV).toBeLessThan(30);
      expect(ratedVA).toBeGreaterThanOrEqual(1.2 * ratedV);
      expect(ratedVA).toBeLessThanOrEqual(4.5 * ratedV);
      sizes.set(ratedV, [...(sizes.get(ratedV) ?? []), ratedVA]);
      expect(toPayEur).toBe(typicalTransformerPrice(ratedVA, 1));
      expect(part.partId).toBeNull();
    }
    for (const [ratedV, found] of sizes) {
      expect(found).toEqual(STANDARD_VA.filter((va) => va >= 1.2 * ratedV && va <= 4.5 * ratedV).slice(0, 4));
    }
  });

  test('a centre tap takes two windings, and says so', () => {
    const tapped = applyPatch(design, { rectifier: { kind: 'centre-tap' } });
    const [first] = standardTransformers(tapped);
    expect(first!.part.name).toMatch(/^2 × /);
    expect(first!.toPayEur).toBe(typicalTransformerPrice((first!.patch.transformer as { ratedVA: number }).ratedVA, 2));
  });

  test('cans around a third of the output as ripple, one and two of each, two places in a doubler', () => {
    const list = standardCans(design, 35);
    expect(list).toHaveLength(10);
    // I/(2 f 0.35 V) = 1.9 mF: one step of E3 below that is 1 mF, and up from there.
    const values = list.filter((c) => c.patch.reservoir!.cans === 1).map((c) => c.patch.reservoir!.capacitanceF!);
    expect(values.map((f) => Number((1e3 * f).toPrecision(3)))).toEqual([1, 2.2, 4.7, 10, 22]);
    for (const c of list) {
      const { cans, capacitanceF } = c.patch.reservoir as { cans: number; capacitanceF: number };
      expect(c.toPayEur).toBeCloseTo(cans * typicalCapacitorPrice(capacitanceF, 35), 9);
      expect(c.heightMm).toBeGreaterThan(5);
    }
    const doubled = standardCans(applyPatch(design, { rectifier: { kind: 'doubler' } }), 35);
    expect(doubled[0]!.toPayEur).toBeCloseTo(2 * list[0]!.toPayEur, 9);
  });

  test('diodes are paid for by their number: four in a bridge, one half-wave', () => {
    const four = standardDiodes(design);
    expect(four).toHaveLength(JUNCTION_CLASSES.length);
    four.forEach((c, n) => expect(c.toPayEur).toBeCloseTo(4 * JUNCTION_CLASSES[n]!.priceEur, 9));
    const one = standardDiodes(applyPatch(design, { rectifier: { kind: 'half-wave' } }));
    expect(one[0]!.toPayEur).toBeCloseTo(JUNCTION_CLASSES[0]!.priceEur, 9);
  });

  test('a regulator comes twice on a split supply', () => {
    const single = standardRegulators(design, regulatorChoices(asked(15, 0.3), mains).choices);
    const split = standardRegulators(
      applyPatch(design, { rectifier: { kind: 'split-bridge' } }),
      regulatorChoices(asked(15, 0.3), mains).choices,
    );
    expect(split[0]!.toPayEur).toBeCloseTo(2 * single[0]!.toPayEur, 9);
  });

  test('sinks are every standard one, dearer the cooler', () => {
    const list = standardSinks();
    const k = list.map((c) => c.patch.heat!.sinkKPerW!);
    const eur = list.map((c) => c.toPayEur);
    expect(k).toEqual([...k].sort((a, b) => b - a));
    expect(eur).toEqual([...eur].sort((a, b) => a - b));
  });
});

describe('what is left out unsimulated', () => {
  const rectifier = (id: string) => bought('rectifier', id, 0, { rectifier: { diode: id, rated: null } } as never);

  test('a diode below half the load or twice the volts', () => {
    const least = JUNCTION_CLASSES.find((d) => d.averageA === 1)!;
    const at = (outputA: number, outputV: number) =>
      bearsLoad(applyPatch(dome!, { demand: { outputA, outputV } }), rectifier(least.id));
    const volts = diodeClass(least.id).reverseV;
    expect(at(2, volts / 2)).toBe(true);
    expect(at(2.01, volts / 2)).toBe(false);
    expect(at(2, volts / 2 + 0.1)).toBe(false);
  });

  test('a winding far from the output: closer without a regulator', () => {
    const regulator = (kind: 'none' | 'fixed') => bought('regulator', '', 0, { regulator: { kind } } as never);
    const winding = (ratedV: number) => bought('transformer', '', 0, { transformer: { ratedV } });
    const design = blankDesign('trial', asked(20, 1), mains);
    const within = (kind: 'none' | 'fixed', v: number) => plausibleVolts(design, regulator(kind), winding(v));
    expect([11, 11.2, 23.9, 24.1].map((v) => within('none', v))).toEqual([false, true, true, false]);
    // 1.7 + 6/20 = 2 times.
    expect([14, 14.1, 39.9, 40].map((v) => within('fixed', v))).toEqual([false, true, true, false]);
  });

  test('a regulator whose spread leaves the window, or that is too weak', () => {
    const design = blankDesign('trial', asked(15, 1), mains);
    const of = (outputV: number, size: string) =>
      fitsOutput(design, bought('regulator', '', 0, { regulator: { kind: 'fixed', size, outputV } } as never));
    const strong = regulatorChoices(asked(15, 1), mains).choices.find((c) => c.kind === 'fixed');
    expect(strong?.kind === 'fixed' && of(15, strong.size)).toBe(true);
    expect(strong?.kind === 'fixed' && of(12, strong.size)).toBe(false);
    expect(of(15, '78L')).toBe(false);
    expect(fitsOutput(design, bought('sink', '', 0, {}))).toBe(false);
  });

  test('what is on hand comes first, then the cheap', () => {
    const list = ordered([
      bought('sink', 'dear', 9, {}),
      bought('sink', 'cheap', 2, {}),
      { ...bought('sink', 'mine, dear', 5, {}), toPayEur: 0 },
      { ...bought('sink', 'mine', 1, {}), toPayEur: 0 },
    ]);
    expect(list.map((c) => c.part.name)).toEqual(['mine', 'mine, dear', 'cheap', 'dear']);
  });

  test('what stays as it is costs nothing and changes nothing', () => {
    expect(asItIs(clock!, 'transformer')).toMatchObject({
      patch: {},
      toPayEur: 0,
      part: { name: 'its transformer, as it is' },
    });
    expect(asItIs(clock!, 'sink').part.name).toBe('its heatsink, as it is');
    expect(asItIs(dome!, 'regulator').part.name).toBe('no regulator, as it is');
  });
});

const part = (kind: Part['kind'], ratings: Part['ratings'], count = 4): Part =>
  ({
    id: `${kind}-${JSON.stringify(ratings)}`,
    kind,
    name: kind,
    count,
    place: '',
    priceEur: 3,
    note: '',
    ratings,
    source: null,
    createdAt: '',
    updatedAt: '',
  }) as unknown as Part;

describe('parts of the drawer', () => {
  test('loose diodes serve where there are enough of them; a bridge that is one piece needs no count', () => {
    const loose = (count: number) =>
      usesOf(part('diode', { averageA: 3, reverseV: 400, schottky: 0 }, count), clock!, 'rectifier');
    expect(loose(3)).toEqual([]);
    expect(loose(4)[0]).toMatchObject({ how: '4 of them', pieces: 4 });
    const bridge = usesOf(part('bridge', { outputA: 4, reverseV: 400 }, 0), clock!, 'rectifier');
    expect(bridge[0]).toMatchObject({ how: '', pieces: 1 });
  });

  test('a can on hand costs nothing, a bank of it counts its worth, and its measured height counts', () => {
    const [one, two] = fromStock(
      clock!,
      [part('capacitor', { capacitanceF: 4.7e-3, ratedV: 63, heightMm: 41 })],
      'reservoir',
    );
    expect(one).toMatchObject({ toPayEur: 0, heightMm: 41, part: { priceEur: 3 } });
    expect(two!.part).toMatchObject({ priceEur: 6, name: expect.stringMatching(/2 in parallel/) as string });
  });

  test('what is far off by the rules of thumb is not even tried', () => {
    const tries = (kind: Part['kind'], role: 'transformer' | 'reservoir', ratings: Part['ratings']) =>
      triesOf(clock!, role, [part(kind, ratings)]).length;
    const { outputV, outputA } = clock!.demand;
    const winding = (secondaryV: number, sizeVA: number) => tries('transformer', 'transformer', { secondaryV, sizeVA });
    expect(winding(outputV, outputV * outputA)).toBe(1);
    expect(winding(0.5 * outputV, 100)).toBe(0);
    expect(winding(2.5 * outputV + 9, 100)).toBe(0);
    expect(winding(outputV, 0.4 * outputV * outputA)).toBe(0);
    const needed = outputA / (2 * clock!.mains.frequencyHz * outputV);
    const can = (capacitanceF: number, ratedV: number) => tries('capacitor', 'reservoir', { capacitanceF, ratedV });
    expect(can(needed, 63)).toBe(4);
    expect(can(0.2 * needed, 63)).toBe(2);
    expect(can(needed, 0.8 * outputV)).toBe(0);
  });

  test('ranked by what fails, then by room up to what is wanted, then by price, then by watts lost', () => {
    const made = (over: Partial<Candidate>): Candidate => ({
      part: part('sink', {}),
      use: { role: 'sink', patch: {}, how: '', pieces: 1 },
      patch: {},
      fails: 0,
      tightest: { title: '', sentence: '', state: 'holds', left: 2 },
      lostW: 5,
      priceEur: 5,
      ...over,
    });
    const tight = (left: number) => ({ title: '', sentence: '', state: 'tight' as const, left });
    const fails = made({ fails: 1, priceEur: 0 });
    const narrow = made({ tightest: tight(0.2), priceEur: 1 });
    const cheap = made({ tightest: tight(1), priceEur: 2, lostW: 9 });
    const roomy = made({ tightest: tight(5), priceEur: 3 });
    const unpriced = made({ priceEur: null });
    const cool = made({ priceEur: 2, lostW: 4 });
    const ranked = rankCandidates([fails, narrow, unpriced, roomy, cheap, cool]);
    expect(ranked.map((c) => [fails, narrow, unpriced, roomy, cheap, cool].indexOf(c))).toEqual([5, 4, 3, 2, 1, 0]);
  });
});

describe('sets in order', () => {
  const set = (over: Partial<SizedSet>): SizedSet => ({
    patch: {},
    parts: [],
    toPayEur: 10,
    worthEur: 10,
    lostW: 10,
    heightMm: 30,
    fails: 0,
    worstLeft: 1,
    worst: '',
    ...over,
  });
  const failing = set({ fails: 2, toPayEur: 1, lostW: 1, heightMm: 1, worstLeft: -2 });
  const cheap = set({ toPayEur: 5, lostW: 20 });
  const cool = set({ lostW: 2, toPayEur: 12 });
  const flat = set({ heightMm: 10, toPayEur: 11, lostW: 30 });
  const safe = set({ worstLeft: 2.5, toPayEur: 20, lostW: 40, heightMm: 50 });
  const all = [failing, safe, flat, cool, cheap];

  test.each([
    ['cost', cheap],
    ['heat', cool],
    ['height', flat],
    ['margin', safe],
  ] as const)('by %s', (by, first) => {
    const sorted = [...all].sort(compareSets(by));
    expect(sorted[0]).toBe(first);
    expect(sorted.at(-1)).toBe(failing);
  });

  test('more in hand than three times what is wanted is no better', () => {
    const [a, b] = [set({ worstLeft: 9, toPayEur: 8 }), set({ worstLeft: 3.1, toPayEur: 7 })];
    expect([a, b].sort(compareSets('margin'))[0]).toBe(b);
  });

  test('taking a set names what comes from the drawer and its values, and nothing of what is bought', () => {
    const taken = patchOfSet(
      set({
        patch: { transformer: { ratedV: 18 }, reservoir: { capacitanceF: 0.01 } },
        parts: [
          { role: 'transformer', name: 'old', priceEur: 4, heightMm: 30, partId: 'x' },
          { role: 'reservoir', name: 'new', priceEur: 2, heightMm: null, partId: null },
        ],
      }),
    );
    expect(taken.picked).toEqual([
      {
        role: 'transformer',
        partId: 'x',
        name: 'old',
        priceEur: 4,
        heightMm: 30,
        values: { transformer: { ratedV: 18 } },
      },
    ]);
    expect(taken.reservoir).toEqual({ capacitanceF: 0.01 });
  });
});

describe('single changes in order', () => {
  const change = (label: string, over: object) =>
    ({
      edit: { label, patch: {} },
      failsAfter: 0,
      worstBefore: 0.2,
      worstAfter: 0.8,
      worstTitle: '',
      costEur: 1,
      relief: 0,
      ...over,
    }) as never;
  test('what leaves least failing, then most gained for a euro; what saves counts as nearly free', () => {
    const labels = rankChanges([
      change('dear', { costEur: 10 }),
      change('fails', { failsAfter: 1, relief: 5 }),
      change('fair', {}),
      change('saves', { costEur: -5 }),
      change('useless', { worstAfter: 0.21 }),
      change('beyond what is wanted', { worstBefore: 2, worstAfter: 9 }),
    ]).map((c) => c.edit.label);
    expect(labels).toEqual(['saves', 'fair', 'dear', 'fails']);
  });
});

test('a share of builds is known to within 1.96 of its deviation: 90 of 100 to 5.9 %', () => {
  expect(shareError(0.9, 100)).toBeCloseTo(1.96 * Math.sqrt((0.9 * 0.1) / 100), 12);
  // All of a hundred is not certainty.
  expect(shareError(1, 100)).toBeCloseTo(0.0196, 12);
});

describe('a box and a meter', () => {
  const read = { mainsV: 230, idleV: 36.5, loadedV: 30, loadA: 1.2, rippleVpp: 1.8, flatTopPct: 0 };

  test('the design that comes of it reads what was read', () => {
    const found = designFromReadings(read, mains);
    const study = studyDesign(
      applyPatch(found, {
        demand: { outputA: read.loadA },
        mains: { voltageRms: read.mainsV },
      }),
    );
    expect(study.nominal.rail.meanV).toBeGreaterThan(0.97 * read.loadedV);
    expect(study.nominal.rail.meanV).toBeLessThan(1.03 * read.loadedV);
    expect(study.nominal.rail.ripplePeakToPeakV).toBeGreaterThan(0.75 * read.rippleVpp);
    expect(study.nominal.rail.ripplePeakToPeakV).toBeLessThan(1.3 * read.rippleVpp);
  });

  test.each([
    [{ idleV: 0 }, /more than nothing/],
    [{ rippleVpp: -1 }, /more than nothing/],
    [{ loadedV: 36.5 }, /pulls the rail down/],
    [{ rippleVpp: 31 }, /AC range/],
  ])('readings that cannot be are refused: %j', (over, sentence) => {
    expect(readingsFault({ ...read, ...over })).toMatch(sentence);
    expect(() => designFromReadings({ ...read, ...over }, mains)).toThrow(RangeError);
  });

  test('readings that can be are not', () => {
    expect(readingsFault(read)).toBeNull();
  });
});

test('a blank design asks what was asked', () => {
  const { demand } = blankDesign('n', asked(9, 0.2), mains);
  expect(demand).toMatchObject(outputDemand(asked(9, 0.2)));
  expect(drum!.rectifier.kind).toMatch(/split|two/);
});
