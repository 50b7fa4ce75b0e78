import { withWindingVolts } from '@/core/design/winding-edit';
import fc from 'fast-check';
import { CONDITIONS } from '@/core/circuit/condition';
import { modelOf } from '@/core/circuit/feed';
import { networkOf } from '@/core/circuit/network-of';
import { applyPatch } from '@/core/design/design';
import { firstFault } from '@/core/design/fault';
import { readDesign } from '@/core/design/schema';
import { givesDirectCurrent, identify, phasing } from '@/core/parts/identify';
import { copperRatio, transformerModel } from '@/core/parts/transformer';
import { modelFromSource } from '@/core/parts/transformer-source';
import { compareWithPlate } from '@/core/parts/transformer-trust';
import { LAMINATIONS, plannedWinding, turnsPerVolt, wireFor, woundLoss, woundModel } from '@/core/parts/winding';
import { designFromTransformer } from '@/core/size/from-transformer';
import { pictureOf } from '@/core/judge/picture';
import { MAINS_PRESETS } from '@/core/design/defaults';
import { demoDesigns } from '@/core/design/demo-designs';

const plate = { ratedV: 24, ratedVA: 100, regulation: 0.09, halves: 1 as const, hotC: 75 };
const model = transformerModel(plate);

describe('ways of knowing a transformer', () => {
  test('ohm readings of the transformer the plate describes give the plate’s model back', () => {
    const ratio = model.openCircuitV / 230;
    const at25 = copperRatio(25);
    const read = modelFromSource(
      plate,
      {
        kind: 'ohms',
        openV: model.openCircuitV,
        mainsV: 230,
        secondaryOhm: model.ownColdOhm * at25,
        primaryOhm: (model.sharedColdOhm * at25) / ratio ** 2,
      },
      230,
      50,
    );
    expect(read.openCircuitV).toBeCloseTo(model.openCircuitV, 9);
    expect(read.ownHotOhm).toBeCloseTo(model.ownHotOhm, 9);
    expect(read.sharedColdOhm).toBeCloseTo(model.sharedColdOhm, 9);
  });

  test('a load test gives all the copper, half on each side, whatever the mains was that day', () => {
    const test_ = { kind: 'test' as const, openV: 26, loadedV: 24.5, loadA: 3, mainsV: 230 };
    const at230 = modelFromSource(plate, test_, 230, 50);
    const at207 = modelFromSource(plate, { ...test_, openV: 23.4, loadedV: 21.9, mainsV: 207 }, 230, 50);
    expect(at230.ownColdOhm + at230.sharedColdOhm).toBeCloseTo(0.5 / copperRatio(25), 9);
    expect(at230.ownColdOhm).toBeCloseTo(at230.sharedColdOhm, 12);
    expect(at207.openCircuitV).toBeCloseTo(at230.openCircuitV, 9);
  });

  test('what the ways disagree in is said in per cent', () => {
    const compared = compareWithPlate(plate, { kind: 'test', openV: 28, loadedV: 24, loadA: 4, mainsV: 230 }, 230, 50);
    expect(compared.plate.openOffPct).toBe(0);
    expect(compared.way.openOffPct).toBeCloseTo(100 * (28 / model.openCircuitV - 1), 9);
    expect(compared.way.ohmOffPct).toBeGreaterThan(100);
  });

  test('the network stands on the readings, not on the plate', () => {
    const [clock] = demoDesigns();
    const read = applyPatch(clock!, {
      transformer: { source: { kind: 'test', openV: 30, loadedV: 28, loadA: 2, mainsV: 230 } },
    });
    expect(networkOf(read, CONDITIONS.nominal).sections[0]!.winding.voltageRms).toBeCloseTo(30, 9);
    expect(modelOf(read).regulationKnown).toBe(true);
  });

  test('a load that lifts the volts is refused at its field', () => {
    const [clock] = demoDesigns();
    const swapped = applyPatch(clock!, {
      transformer: { source: { kind: 'test', openV: 24, loadedV: 26, loadA: 2, mainsV: 230 } },
    });
    const read = readDesign(swapped);
    expect(read.ok ? '' : read.fault.sentence).toMatch(/below the open volts/);
    expect(read.ok ? '' : read.fault.path).toBe('transformer.source.loadedV');
    expect(firstFault).toBeDefined();
  });

  test('a DC adapter is caught by the meter’s DC range', () => {
    expect(givesDirectCurrent(12, 0.02)).toBe(false);
    expect(givesDirectCurrent(0.1, 14)).toBe(true);
    expect(givesDirectCurrent(26, -12)).toBe(true);
  });
});

describe('winding one’s own', () => {
  test('turns a volt: 1/(4.44·f·B·A), so 3.75 turns for 10 cm² at 50 Hz and 1.2 T', () => {
    expect(turnsPerVolt(1000, 1.2, 50)).toBeCloseTo(3.754, 3);
    expect(turnsPerVolt(1000, 1.2, 60) / turnsPerVolt(1000, 1.2, 50)).toBeCloseTo(5 / 6, 12);
  });

  test('wire: 1 A at 3 A/mm² is 0.65 mm', () => {
    expect(wireFor(1, 3)).toBeCloseTo(0.651, 3);
  });

  test('copper by hand: 100 turns of 200 mm of 1 mm wire are 0.438 ohm', () => {
    const wound = woundModel(
      {
        areaMm2: 1000,
        windowMm2: 1000,
        meanTurnMm: 200,
        fluxT: 1.2,
        turnsPerVolt: null,
        primaryTurns: 1000,
        primaryWireMm: 0.5,
        secondaryTurns: 100,
        secondaryWireMm: 1,
      },
      230,
      50,
      1,
    );
    expect(wound.secondaryOhm).toBeCloseTo((0.0172 * 20) / (Math.PI / 4), 9);
    expect(wound.openV).toBeCloseTo(23, 9);
    expect(wound.primaryReferredOhm).toBeCloseTo(wound.primaryOhm / 100, 12);
    expect(woundLoss(wound, 2, 0, 1, 20)).toBeCloseTo(4 * wound.secondaryOhm, 9);
  });

  test('a plan gives the asked volts on every core, never less, and its flux at nominal mains', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LAMINATIONS),
        fc.double({ min: 6, max: 60, noNaN: true }),
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        (core, volts, amps) => {
          const plan = plannedWinding(core, null, volts, amps, 230, 50, 1);
          const wound = woundModel(plan, 230, 50, 1);
          // The primary is rounded to whole turns: that may cost half a turn's share of it.
          expect(wound.openV).toBeGreaterThan(volts * (1 - 0.5 / plan.primaryTurns) - 1e-6);
          expect(wound.fluxT).toBeCloseTo(core.fluxT, 1);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('ten test turns win over the computed turns', () => {
    const core = LAMINATIONS[7]!;
    const tried = plannedWinding(core, 4, 24, 2, 230, 50, 1);
    expect(tried.turnsPerVolt).toBeCloseTo(2.5, 12);
    expect(tried.primaryTurns).toBe(575);
    expect(tried.secondaryTurns).toBe(60);
  });

  test('more turns lift the valley and what it idles at, turn by turn', () => {
    const dome = demoDesigns()[1]!;
    const { source } = dome.transformer;
    if (source.kind !== 'wound') throw new Error('the dome is home-wound');
    const levels = [-4, 0, 4].map((d) => {
      const plan = { ...source.plan, secondaryTurns: source.plan.secondaryTurns + d };
      const { points } = pictureOf(applyPatch(dome, { transformer: { source: { kind: 'wound', plan } } })).picture;
      return [points.low.rail.minV, points.idle.rail.maxV] as const;
    });
    expect(levels[1]![0]).toBeGreaterThan(levels[0]![0] + 1);
    expect(levels[2]![1]).toBeGreaterThan(levels[1]![1] + 1);
  });
});

describe('another voltage on the winding', () => {
  const dome = demoDesigns()[1]!;

  test('of a wound one is other turns, in proportion', () => {
    const up = applyPatch(dome, withWindingVolts(dome, 2 * dome.transformer.ratedV));
    expect(modelOf(up).openCircuitV / modelOf(dome).openCircuitV).toBeCloseTo(2, 2);
    expect(up.transformer.source.kind).toBe('wound');
  });

  test('of a measured one is another transformer, known by its plate', () => {
    const read = applyPatch(dome, {
      transformer: { source: { kind: 'test', openV: 27, loadedV: 25, loadA: 5, mainsV: 230 } },
    });
    expect(applyPatch(read, withWindingVolts(read, 30)).transformer).toMatchObject({
      ratedV: 30,
      source: { kind: 'plate' },
    });
  });
});

describe('an unlabelled transformer', () => {
  test('the most ohms are the primary, alike ones are halves', () => {
    const { primary, sentences } = identify(
      [
        { name: 'red', ohm: 0.4, volts: 9.1 },
        { name: 'black', ohm: 42, volts: null },
        { name: 'yellow', ohm: 0.42, volts: 9.1 },
      ],
      230,
    );
    expect(primary).toBe(1);
    expect(sentences.join(' ')).toMatch(/black is the primary/);
    expect(sentences.join(' ')).toMatch(/red and yellow are alike/);
  });

  test('two windings of nearly the same ohms are no plain step-down transformer', () => {
    expect(
      identify(
        [
          { name: 'a', ohm: 20, volts: null },
          { name: 'b', ohm: 12, volts: null },
        ],
        230,
      ).sentences[0],
    ).toMatch(/isolating or step-up/);
  });

  test('joined ends add or oppose', () => {
    expect(phasing(9, 9, 18.1)).toBe('aiding');
    expect(phasing(9, 9, 0.1)).toBe('opposing');
    expect(phasing(12, 9, 3.1)).toBe('opposing');
    expect(phasing(9, 9, 9)).toBe('unclear');
  });
});

test('a design begun at a transformer can be solved, and neither its can nor its diodes fail', () => {
  for (const [volts, va] of [
    [9, 10],
    [18, 50],
    [30, 160],
    [48, 300],
  ] as const) {
    const { verdicts } = pictureOf(designFromTransformer(volts, va, MAINS_PRESETS[0]!.mains)).picture;
    for (const id of ['reservoir-voltage', 'diode-reverse']) {
      expect([volts, id, verdicts.find((v) => v.id === id)!.state]).not.toContain('fails');
    }
  }
});
