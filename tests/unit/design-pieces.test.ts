import { from5 } from '@/core/design/migrations/from-5';
import { readAllowed, readRange, allowedWords, spanWords } from '@/core/design/allowed';
import { balanceOhmOf, bankF, bankOhmFactor, bankRatedV, canCount, shuntOhm } from '@/core/design/bank';
import { blankDesign, MAINS_PRESETS, NO_REGULATOR_SHEET, outputDemand } from '@/core/design/defaults';
import { applyPatch, mergePatches, type Design, type Patch, type Regulator } from '@/core/design/design';
import { criticalInductanceH, filterShape, hasChokeInput, withFilterShape } from '@/core/design/filters';
import { bulbsOf, heatersOf, rectifierPieces, rectifierSink } from '@/core/design/heaters';
import { nameOfOutput, outputModel, outputName, outputsOf, windowOf } from '@/core/design/outputs';
import { rangeEdit, regulatorOfKind, sharingOhm, steppedOutput, withOutput } from '@/core/design/regulator-edit';
import { readDesign } from '@/core/design/schema';
import { arrangementWords, bankWords, ratingWords, sourceWords, windingWords } from '@/core/design/words';
import { regulatorModel, type RegulatorKind } from '@/core/parts/regulators';
import { dropoutAt } from '@/core/parts/regulators/model';
import { typicalLeakage } from '@/core/parts/capacitor';
import { PASS_TRANSISTORS } from '@/core/parts/transistor';
import { clock, dome, pen, drum, tide, physics, logger } from '../support/demos';

const choke = { kind: 'choke', inductanceH: 10, resistanceOhm: 150, ratedA: 0.1, swinging: false } as const;
const cap = { kind: 'capacitor', capacitanceF: 22e-6, ratedV: 400 } as const;
const resistor = { kind: 'resistor', resistanceOhm: 47 } as const;
const adapter = {
  kind: 'adapter',
  ratedV: 12,
  ratedA: 1,
  idlePct: 10,
  spreadPct: 5,
  rippleVpp: 0.1,
  limitA: null,
  reverseDiode: true,
} as const;

describe('a design in words', () => {
  test('from its source to its regulator', () => {
    const words = (d: Design, patch: Patch = {}) => arrangementWords(applyPatch(d, patch));
    expect(words(clock)).toBe('230 V 50 Hz, bridge, 6800 µF, 78S24');
    expect(words(dome)).toBe('230 V 50 Hz, bridge, 22000 µF, unregulated');
    expect(words(tide)).toBe('230 V 50 Hz, centre tap, choke input, 47 µF, unregulated');
    expect(words(physics)).toMatch(/^230 V 50 Hz, bridge, 2 × 6800 µF, op-amp bench supply/);
    expect(words(logger)).toMatch(/^12\.9 V battery, reverse diode, 470 µF, Low-dropout/);
    const bare = { source: { ...logger.source, reverseDiode: false } as Design['source'] };
    expect(words(logger, bare)).toMatch(/^12\.9 V battery, no reverse diode/);
    expect(words(dome, { reservoir: { capacitanceF: 0 } })).toContain('no reservoir');
    expect(words(tide, { filter: { before: [cap, choke] } })).toContain('small first capacitor and choke');
    expect(words(dome, { filter: { after: [choke, cap] } })).toContain('C-L-C');
    expect(words(dome, { filter: { after: [resistor, cap] } })).toContain('C-R-C');
    expect(words(dome, { filter: { after: [cap] } })).toBe(words(dome));
    // A multiplier charges its cans by itself: what lies before them is no choke input.
    expect(words(tide, { rectifier: { kind: 'doubler' } })).not.toContain('choke input');
    const ahead = { preRegulator: { kind: 'fixed', size: '78', outputV: 15 } } as const;
    expect(words(pen, ahead)).toMatch(/, 7815, 7812$/);
    // What stands ahead of nothing is not spoken of.
    expect(words(dome, ahead)).toBe(words(dome));
  });

  test('rating, winding, bank, source', () => {
    expect(ratingWords(drum)).toBe('±18 V, 250 mA');
    expect(ratingWords(clock)).toBe('24 V, 1.2 A');
    expect([windingWords(drum), windingWords(clock)]).toEqual(['2 × 20 V', '24 V']);
    expect(bankWords(clock.reservoir)).toBe('6800 µF');
    expect(bankWords({ ...clock.reservoir, cans: 3 })).toBe('3 × 6800 µF');
    expect(bankWords({ ...clock.reservoir, pair: true })).toBe('2 × 6800 µF in series');
    expect(bankWords({ ...clock.reservoir, cans: 3, pair: true })).toBe('3 × 2 × 6800 µF in series');
    expect([sourceWords(clock), sourceWords(logger)]).toEqual(['230 V', '12.9 V battery']);
    expect(sourceWords({ ...clock, source: adapter })).toBe('12 V 1 A adapter');
  });
});

describe('several cans', () => {
  const r = { ...clock.reservoir, capacitanceF: 1000e-6, ratedV: 100 };
  test('side by side they add, in series they halve and bear nine tenths of twice the volts', () => {
    expect(bankF({ ...r, cans: 3 })).toBeCloseTo(3000e-6, 12);
    expect(bankF({ ...r, cans: 3, pair: true })).toBeCloseTo(1500e-6, 12);
    expect([bankRatedV(r), bankRatedV({ ...r, pair: true })]).toEqual([100, 180]);
    expect(bankOhmFactor({ ...r, cans: 4 })).toBe(0.25);
    expect(bankOhmFactor({ ...r, cans: 4, pair: true })).toBe(0.5);
    expect([canCount({ ...r, cans: 3 }), canCount({ ...r, cans: 3, pair: true })]).toEqual([3, 6]);
  });

  test('a balancing resistor carries seven times and a half what their leakages differ by', () => {
    expect(balanceOhmOf(r)).toBeNull();
    expect(balanceOhmOf({ ...r, pair: true, capacitanceF: 0 })).toBeNull();
    expect(balanceOhmOf({ ...r, pair: true, balanceOhm: 47_000 })).toBe(47_000);
    // Half of the leakage lies between two cans: 3.75 times it at the volts of one, to the nearest of E12.
    const wanted = 100 / (3.75 * typicalLeakage(1000e-6, 100));
    expect(balanceOhmOf({ ...r, pair: true })! / wanted).toBeGreaterThan(0.89);
    expect(balanceOhmOf({ ...r, pair: true })! / wanted).toBeLessThan(1.11);
  });

  test('what lies across the reservoir for good: bleeder, and two balancing resistors for each pair', () => {
    const of = (reservoir: Patch['reservoir'], bleederOhm: number | null) =>
      shuntOhm(applyPatch(clock, { reservoir: reservoir!, filter: { bleederOhm } }));
    expect(of({}, null)).toBeNull();
    expect(of({}, 10_000)).toBeCloseTo(10_000, 6);
    expect(of({ pair: true, balanceOhm: 10_000 }, null)).toBeCloseTo(20_000, 6);
    expect(of({ pair: true, cans: 2, balanceOhm: 10_000 }, 10_000)).toBeCloseTo(5000, 6);
  });
});

describe('filters', () => {
  test('the usual shapes are known by their parts', () => {
    const shape = (before: Design['filter']['before'], after: Design['filter']['after']) =>
      filterShape({ before, after, bleederOhm: null });
    expect(shape([], [])).toBe('plain');
    expect(shape([], [resistor, cap])).toBe('resistor');
    expect(shape([], [choke, cap])).toBe('choke');
    expect(shape([choke], [])).toBe('choke-input');
    expect(shape([cap, choke], [])).toBe('small-first');
    expect(shape([choke], [choke, cap])).toBeNull();
    expect(hasChokeInput(tide)).toBe(true);
    expect(hasChokeInput(clock)).toBe(false);
    expect(hasChokeInput(applyPatch(tide, { rectifier: { kind: 'doubler' } }))).toBe(false);
    // R/(3ω): 4 kΩ at 50 Hz are 4.2 H.
    expect(criticalInductanceH(4000, 50)).toBeCloseTo(4000 / 942.5, 3);
  });

  test('each is begun with parts of a sensible size', () => {
    const plain = applyPatch(tide, { filter: { before: [], after: [] } });
    const of = (shape: Parameters<typeof withFilterShape>[1]) => withFilterShape(plain, shape).filter!;
    // 180 V at 45 mA: 4 kΩ. Four times the critical 4.24 H; 4 % of it in copper; half as much current again.
    expect(of('choke-input').before).toEqual([
      { kind: 'choke', inductanceH: 18, resistanceOhm: 150, ratedA: 0.068, swinging: false },
    ]);
    // 6 % of the load.
    expect(of('resistor').after).toEqual([
      { kind: 'resistor', resistanceOhm: 220 },
      { kind: 'capacitor', capacitanceF: 47e-6, ratedV: 400 },
    ]);
    expect(of('choke')).toMatchObject({ before: [], after: [{ kind: 'choke' }, { kind: 'capacitor' }] });
    // Half of 45 mA for 10 ms at 180 V: 1.25 µF, a size up in volts.
    const small = of('small-first');
    expect(small.before![0]).toEqual({ kind: 'capacitor', capacitanceF: 1.5e-6, ratedV: 450 });
    expect(small.before![1]).toMatchObject({ kind: 'choke' });
    expect(small.after).toEqual([]);
    expect(of('plain')).toEqual({ before: [], after: [] });
    // What the old filter had of a kind is kept.
    const kept = withFilterShape(applyPatch(plain, { filter: { after: [choke, cap] } }), 'choke-input').filter!;
    expect(kept.before).toEqual([choke]);
    expect(withFilterShape(applyPatch(plain, { filter: { after: [resistor, cap] } }), 'choke').filter!.after![1]).toBe(
      cap,
    );
    // A load of a tenth of an ohm still gets a resistor that can be bought.
    const heavy = withFilterShape(applyPatch(dome, { demand: { outputV: 1, outputA: 10 } }), 'resistor').filter!;
    expect(heavy.after![0]).toEqual({ kind: 'resistor', resistanceOhm: 0.1 });
  });
});

describe('outputs', () => {
  test('a twin has the minus rail’s load, with usual and least in proportion', () => {
    const d = applyPatch(drum, { demand: { outputA: 0.25, negativeA: 0.1, typicalA: 0.2, leastA: 0.05 } });
    const [main, minus] = outputsOf(d);
    expect([main!.name, minus!.name]).toEqual(['+18 V', '−18 V']);
    expect(minus!.demand).toMatchObject({
      outputA: 0.1,
      typicalA: expect.closeTo(0.08, 12),
      leastA: expect.closeTo(0.02, 12),
    });
    const same = outputsOf(applyPatch(drum, { demand: { negativeA: null, typicalA: null } }))[1]!;
    expect(same.demand).toMatchObject({ outputA: 0.25, typicalA: null });
    expect(outputsOf(clock).map((o) => [o.id, o.name, o.rail, o.place])).toEqual([['main', '24 V', 0, -1]]);
    expect(nameOfOutput(drum, 'minus')).toBe('−18 V');
    expect(nameOfOutput(clock, 'minus')).toBeNull();
  });

  test('a further one is called by its name or its volts, and hangs where there is a rail', () => {
    const chime = {
      name: ' ',
      rail: 'minus',
      demand: outputDemand({ outputV: 5, outputA: 0.3, tolerancePct: 5, rippleVpp: 0.02, kind: 'current' }),
      regulator: { kind: 'none' },
      regulatorSheet: null,
      sinkKPerW: null,
    } as const;
    expect(outputName(chime, 0)).toBe('Output 2, −5 V');
    expect(outputName({ ...chime, rail: 'plus', regulator: { kind: 'fixed', size: '78L', outputV: 9 } }, 1)).toBe(
      'Output 3, 9 V',
    );
    expect(outputName({ ...chime, name: 'Chime' }, 0)).toBe('Chime');
    expect(outputsOf(applyPatch(clock, { outputs: [chime] }))[1]).toMatchObject({ id: 'out-1', rail: 0, place: 0 });
    expect(outputsOf(applyPatch(drum, { outputs: [chime] }))[2]).toMatchObject({ id: 'out-1', rail: 1, place: 0 });
  });

  test('a window is its deviation, or the two ends it was given', () => {
    expect(windowOf({ ...clock.demand, outputV: 20, tolerancePct: 5 })).toEqual({ lowV: 19, highV: 21 });
    expect(windowOf({ ...clock.demand, window: { lowV: 18, highV: 30 } })).toEqual({ lowV: 18, highV: 30 });
  });

  test('a data sheet overrules its class, figure by figure, and says which', () => {
    const sheet = { ...NO_REGULATOR_SHEET, dropoutV: 1.2, ratedA: 1.5, inputMaxV: 30, jcKPerW: 2 };
    const model = outputModel({ ...pen, regulatorSheet: sheet })!;
    expect(dropoutAt(model, 1.5)).toBeCloseTo(1.2, 9);
    // Of a 78's dropout 65 % are left without load; so of this one's.
    expect(dropoutAt(model, 0)).toBeCloseTo(0.65 * 1.2, 9);
    expect([model.ratedA, model.inputMaxV, model.pass.jcKPerW]).toEqual([1.5, 30, 2]);
    expect(model.inputLimitSource).toBe('Input maximum by your data sheet.');
    expect(model.theirs).toEqual(['inputMaxV', 'dropoutV', 'ratedA', 'jcKPerW']);
    const plain = outputModel({ ...pen, regulatorSheet: { ...NO_REGULATOR_SHEET } })!;
    const made = regulatorModel(pen.regulator)!;
    expect([plain.dropoutV, plain.dropoutOhm, plain.inputMaxV]).toEqual([
      made.dropoutV,
      made.dropoutOhm,
      made.inputMaxV,
    ]);
    // In another housing: what that gives to free air, and whether it takes a sink.
    const housed = outputModel({ ...pen, regulatorSheet: { ...NO_REGULATOR_SHEET, package: 'TO-92' } })!;
    expect(housed.pass).toMatchObject({ package: 'TO-92', takesSink: false, jaKPerW: 180 });
    const own = outputModel({ ...pen, regulatorSheet: { ...NO_REGULATOR_SHEET, package: 'TO-3', jaKPerW: 30 } })!;
    expect(own.pass).toMatchObject({ package: 'TO-3', takesSink: true, jaKPerW: 30 });
    const same = outputModel({ ...pen, regulatorSheet: { ...NO_REGULATOR_SHEET, package: 'TO-220' } })!;
    expect(same.pass.jaKPerW).toBe(made.pass.jaKPerW);
    // A transistor's own watts and second breakdown.
    const area = outputModel({
      ...physics,
      regulatorSheet: { ...NO_REGULATOR_SHEET, powerW: 150, breakdownV: 60, inputMaxV: 100 },
    })!;
    expect(area.pass.safeA!(50)).toBeCloseTo(3, 9);
    expect(area.pass.safeA!(101)).toBe(0);
  });

  test('one that can be set is set between what is wanted, within what it reaches', () => {
    const range = (lowV: number, highV: number) =>
      outputModel({ ...physics, demand: { ...physics.demand, range: { lowV, highV } } })!;
    expect([range(5, 20).lowestV, range(5, 20).outputV]).toEqual([5, 20]);
    expect([range(5, 40).lowestV, range(5, 40).outputV]).toEqual([5, 25]);
    expect(outputModel({ ...physics, demand: { ...physics.demand, outputV: 12 } })!.outputV).toBe(12);
    expect(outputModel(dome)).toBeNull();
  });
});

describe('regulators made for an output', () => {
  const KINDS: RegulatorKind[] = ['fixed', 'adjustable', 'low-dropout', 'follower', 'error-transistor', 'bench'];
  test.each(KINDS)('%s: for 12 V at 0.8 A, and set to 9 and 15 V', (kind) => {
    const made = regulatorOfKind(pen, kind) as Exclude<Regulator, { kind: 'none' }>;
    for (const volts of [9, 15]) {
      const set = withOutput(made, volts) as typeof made;
      expect(Math.abs(regulatorModel(set).outputV / volts - 1)).toBeLessThan(0.06);
      expect(readDesign(JSON.parse(JSON.stringify(applyPatch(pen, { regulator: set })))).ok).toBe(true);
    }
    const down = steppedOutput(made, -1) as typeof made;
    expect(regulatorModel(down).outputV).toBeLessThan(regulatorModel(made).outputV);
  });

  test('setting them beyond what they can be set to stays at the end', () => {
    const at = (r: Regulator, v: number) => withOutput(r, v);
    expect(at({ kind: 'none' }, 5)).toEqual({ kind: 'none' });
    expect(at({ kind: 'fixed', size: '78S', outputV: 12 }, 7.4)).toMatchObject({ outputV: 7.5 });
    expect(at({ kind: 'fixed', size: '78M', outputV: 12 }, 7.4)).toMatchObject({ outputV: 8 });
    const adjustable = {
      kind: 'adjustable',
      part: '317',
      r1Ohm: 240,
      r2Ohm: 2000,
      potOhm: null,
      adjCapacitor: true,
    } as const;
    expect(at(adjustable, 1.26)).toMatchObject({ r2Ohm: 0 });
    // 8.75 V over 1.25 V / 240 Ω and 50 µA: 1664 Ω, less a pot of 1 kΩ.
    expect(at(adjustable, 10)).toMatchObject({ r2Ohm: 1600 });
    expect(at({ ...adjustable, potOhm: 1000 }, 10)).toMatchObject({ r2Ohm: 680 });
    const ldo = { kind: 'low-dropout', part: 'ldo-800', outputV: 5, boardCm2: 6 } as const;
    expect([at(ldo, 0.1), at(ldo, 500), at(ldo, 3.33)]).toMatchObject([
      { outputV: 0.5 },
      { outputV: 100 },
      { outputV: 3.3 },
    ]);
    expect(at(physics.regulator, 1)).toMatchObject({ maxV: 2.5 });
    expect(at(physics.regulator, 300)).toMatchObject({ maxV: 100 });
    // The ends of what is made: no step beyond.
    expect(steppedOutput({ kind: 'fixed', size: '78L', outputV: 24 }, 1)).toMatchObject({ outputV: 24 });
    expect(steppedOutput({ kind: 'fixed', size: '78L', outputV: 5 }, -1)).toMatchObject({ outputV: 5 });
    expect(steppedOutput({ kind: 'fixed', size: '78L', outputV: 9 }, 1)).toMatchObject({ outputV: 10 });
  });

  test('dividers for a range: a pot that spans it, and no more of it than two sizes', () => {
    const adjustable = {
      kind: 'adjustable',
      part: '317',
      r1Ohm: 240,
      r2Ohm: 2000,
      potOhm: null,
      adjCapacitor: true,
    } as const;
    const of = (regulator: Regulator, lowV: number, highV: number) =>
      rangeEdit(applyPatch(clock, { regulator, demand: { range: { lowV, highV } } }));
    const two = of(adjustable, 3, 12);
    expect(two).toHaveLength(2);
    for (const { patch } of two) {
      const model = regulatorModel(patch.regulator as Exclude<Regulator, { kind: 'none' }>);
      expect(model.lowestV).toBeLessThan(3.3);
      expect(model.outputV).toBeGreaterThan(11.6);
      expect(model.outputV).toBeLessThan(13.5);
    }
    // From the reference on nothing stands below the pot.
    expect(of(adjustable, 0.5, 12)[0]!.patch.regulator).toMatchObject({ r2Ohm: 0 });
    expect(rangeEdit(applyPatch(clock, { regulator: adjustable }))).toEqual([]);
    expect(of({ kind: 'fixed', size: '78S', outputV: 24 }, 5, 12)).toEqual([]);
    expect(of(physics.regulator, 0, 30)).toMatchObject([
      { label: 'Volts knob up to 30 V', patch: { regulator: { maxV: 30 } } },
    ]);
    expect(of(physics.regulator, 0, 1)).toMatchObject([{ patch: { regulator: { maxV: 2.5 } } }]);
    const error = regulatorOfKind(clock, 'error-transistor');
    const pots = of(error, 10, 20);
    expect(pots).toHaveLength(4);
    for (const { patch } of pots) {
      const model = regulatorModel(patch.regulator as Exclude<Regulator, { kind: 'none' }>);
      expect(Math.abs(model.lowestV / 10 - 1)).toBeLessThan(0.1);
      expect(Math.abs(model.outputV / 20 - 1)).toBeLessThan(0.1);
    }
    // Under the zener and its junction nothing can be set.
    expect(of(error, 1, 6)).toEqual([]);
  });

  test('a resistor that makes them share: a tenth of a volt each and a size to spare', () => {
    // Three at 1.65 A: 0.18 Ω, the nearest 0.22, one up 0.33.
    expect(sharingOhm(physics, 3)).toBeCloseTo(0.33, 9);
    // By the load where nothing limits: two at 4 A are 0.05 Ω, 0.047, one up 0.068.
    expect(sharingOhm(applyPatch(dome, { demand: { outputA: 4 } }), 2)).toBeCloseTo(0.068, 9);
    expect(sharingOhm(applyPatch(dome, { demand: { outputA: 49 } }), 1)).toBeCloseTo(0.015, 9);
  });
});

describe('heaters and what cools a rectifier', () => {
  test('a bulb holds two anodes; each place a cathode stands at is a winding of its own', () => {
    const valve = (kind: Design['rectifier']['kind'], d = tide) =>
      applyPatch(d, { rectifier: { kind, diode: 'valve-stiff', rated: null, sheet: null } });
    expect(bulbsOf(tide)).toEqual([]);
    expect(bulbsOf(valve('centre-tap'))).toEqual([1]);
    // A bridge: two anodes to a common cathode, two cathodes at the ends of the winding.
    expect(bulbsOf(valve('bridge')).reduce((a, b) => a + b)).toBe(3);
    expect([rectifierPieces(tide), rectifierPieces(valve('centre-tap')), rectifierPieces(valve('bridge'))]).toEqual([
      2, 1, 3,
    ]);
    expect(heatersOf(tide)).toEqual([{ ratedV: 6.3, currentA: 1.8 }]);
    expect(heatersOf(valve('centre-tap')).slice(1)).toEqual([{ ratedV: 5, currentA: 1.9 }]);
    expect(heatersOf(valve('bridge'))).toHaveLength(4);
    const bare = applyPatch(logger, { source: { ...logger.source, reverseDiode: false } as Design['source'] });
    expect([rectifierPieces(bare), rectifierPieces(logger)]).toEqual([0, 1]);
    expect(heatersOf(applyPatch(logger, { heater: { ratedV: 6.3, currentA: 1 } }))).toEqual([]);
  });

  test('its own sink goes before the shared one, a bulb takes none', () => {
    expect(rectifierSink(clock)).toBeNull();
    expect(rectifierSink(applyPatch(clock, { heat: { sharedWithRectifier: true } }))).toBe('shared');
    expect(rectifierSink(applyPatch(clock, { heat: { sharedWithRectifier: true, rectifierSinkKPerW: 4 } }))).toBe(
      'own',
    );
    const valve = { rectifier: { diode: 'valve-stiff', rated: null, sheet: null }, heat: { rectifierSinkKPerW: 4 } };
    expect(rectifierSink(applyPatch(tide, valve))).toBeNull();
  });
});

describe('what an output may deviate by, as it is typed', () => {
  const demand = { ...clock.demand, outputV: 24, tolerancePct: 5 };
  test('a share, or two ends that hold what is wanted', () => {
    for (const text of ['7 %', '± 7', '+-7%', '+/- 7 %'])
      expect(readAllowed(text, demand)).toEqual({ ok: true, value: { tolerancePct: 7, window: null } });
    expect(readAllowed('22 to 30 V', demand)).toEqual({
      ok: true,
      value: { tolerancePct: 5, window: { lowV: 22, highV: 30 } },
    });
    // What is wanted may lie at an end.
    expect(readAllowed('24 to 30 V', demand).ok).toBe(true);
    expect(readAllowed('20 to 24 V', demand).ok).toBe(true);
    for (const text of ['24.1 to 30 V', '20 to 23.9 V']) {
      const read = readAllowed(text, demand);
      expect(read.ok ? '' : read.error).toMatch(/The 24 V wanted lie outside of it/);
    }
    const far = readAllowed('20 to 3000 V', demand);
    expect(far.ok ? '' : far.error).toMatch(/beyond any real supply/);
    const under = readRange('-5 to 12 V');
    expect(under.ok).toBe(false);
    const much = readAllowed('90 %', demand);
    expect(much.ok ? '' : much.error).toMatch(/goes up to 60/);
    const words = readAllowed('a lot', demand);
    expect(words.ok ? '' : words.error).toMatch(/or two ends like 58 to 70 V\.$/);
    expect(readRange('1.5 to 25 V')).toEqual({ ok: true, value: { lowV: 1.5, highV: 25 } });
  });

  test('as its field shows it', () => {
    expect(allowedWords({ tolerancePct: 5, window: null })).toBe('5 %');
    expect(allowedWords({ tolerancePct: 5, window: { lowV: 22.0000001, highV: 30 } })).toBe('22 to 30 V');
    expect(spanWords({ lowV: 1.25, highV: 25 })).toBe('1.25 to 25 V');
  });
});

test('a patch replaces what is of several kinds as a whole, and merges what is a group', () => {
  const d = applyPatch(clock, { source: adapter, heat: { ambientC: 20 } });
  expect(d.source).toEqual(adapter);
  expect(d.heat).toEqual({ ...clock.heat, ambientC: 20 });
  const battery = logger.source;
  expect(applyPatch(d, { source: battery }).source).toEqual(battery);
  expect(
    applyPatch(applyPatch(clock, { heater: { ratedV: 6.3, currentA: 1 } }), { heater: { currentA: 2 } }).heater,
  ).toEqual({
    ratedV: 6.3,
    currentA: 2,
  });
  expect(mergePatches({ heat: { ambientC: 20 }, name: 'a' }, { heat: { fan: 'fixed' }, name: 'b' })).toEqual({
    heat: { ambientC: 20, fan: 'fixed' },
    name: 'b',
  });
  expect(mergePatches({ source: adapter }, { source: battery } as Patch).source).toEqual(battery);
});

test('another family is begun with the weakest part that carries the load, and the strongest where none does', () => {
  const of = (kind: RegulatorKind, outputA: number) =>
    regulatorOfKind(applyPatch(pen, { demand: { outputA } }), kind) as unknown as Record<string, unknown>;
  const parts = (kind: RegulatorKind, amps: number[]) => amps.map((a) => of(kind, a)['part']);
  expect(parts('adjustable', [0.05, 0.1, 0.11, 0.5, 1.5, 1.6, 3, 5, 9])).toEqual([
    '317L',
    '317L',
    '317M',
    '317M',
    '317',
    '350',
    '350',
    '338',
    '338',
  ]);
  expect(parts('low-dropout', [0.25, 0.26, 0.8, 1.5, 3, 4])).toEqual([
    'ldo-250',
    'ldo-800',
    'ldo-800',
    'ldo-1a5',
    'ldo-3a',
    'ldo-3a',
  ]);
  expect([0.1, 0.5, 1, 2, 3].map((a) => of('fixed', a)['size'])).toEqual(['78L', '78M', '78', '78S', '78S']);
  // Seventy per cent of what a transistor bears: 3.5, 10.5, 14 A.
  expect([3.5, 3.6, 10.5, 14, 20].map((a) => of('follower', a)['transistor'])).toEqual([
    'tip122',
    'tip3055',
    'tip3055',
    'mj15003',
    'mj15003',
  ]);
  // 0.65 V at 1.3 times the load, to the nearest of E12.
  expect(of('follower', 1)).toMatchObject({ limitOhm: 0.47, passes: 1, emitterOhm: 0, gain: null, zenerW: 1.3 });
  expect(of('error-transistor', 1)).toMatchObject({ zenerV: 5.6, lowerOhm: 2200, driveOhm: 1000 });
  expect(
    regulatorOfKind(applyPatch(pen, { regulator: { kind: 'fixed', size: '78', outputV: 9 } }), 'error-transistor'),
  ).toMatchObject({ zenerV: 3.3 });
  expect(of('bench', 2)).toMatchObject({ maxV: 12, limitA: 2, shuntOhm: 0.27, referenceV: 2.5, opampRail: 'raw' });
  expect(regulatorOfKind(pen, 'none')).toEqual({ kind: 'none' });
});

test('a blank design assumes nothing that would flatter it', () => {
  const d = blankDesign(
    'x',
    { outputV: 12, outputA: 1, tolerancePct: 5, rippleVpp: 0.1, kind: 'current' },
    MAINS_PRESETS[0]!.mains,
  );
  expect(d.mainsSide).toEqual({
    insulation: 'class I',
    box: 'metal',
    polarised: false,
    homeWound: false,
    primaryFuseA: null,
    secondaryFuseA: null,
    switchPoles: 2,
    softStart: false,
    thermalCutout: false,
    ticked: [],
  });
  expect([d.heat.fan, d.heat.sinkKPerW, d.heat.oneSink, d.heat.together, d.heat.sharedWithRectifier]).toEqual([
    'none',
    null,
    false,
    false,
    false,
  ]);
  expect([
    d.reservoir.tolerancePct,
    d.reservoir.agedPct,
    d.reservoir.gradeC,
    d.transformer.hotC,
    d.heat.ambientC,
  ]).toEqual([20, 20, 85, 75, 40]);
  expect([d.demand.leastA, d.demand.typicalA, d.demand.window, d.demand.range]).toEqual([0, null, null, null]);
  expect(readDesign(JSON.parse(JSON.stringify(d))).ok).toBe(true);
  // EN 50160 for 230 V; an outlet of 120 V may fall by thirteen per cent and rise by six.
  expect(MAINS_PRESETS.map(({ mains: m }) => [m.voltageRms, m.frequencyHz, m.lowPct, m.highPct])).toEqual([
    [230, 50, 10, 10],
    [120, 60, 13, 6],
    [240, 50, 10, 10],
    [100, 50, 10, 10],
    [100, 60, 10, 10],
  ]);
});

test('what was picked has a part, a name, a price that can be, and its values', () => {
  const fault = (over: object) => {
    const pick = {
      role: 'sink',
      partId: 'p1',
      name: 'Finned',
      priceEur: 2,
      heightMm: 50,
      values: { heat: { sinkKPerW: 3 } },
      ...over,
    };
    const read = readDesign(JSON.parse(JSON.stringify({ ...clock, picked: [pick] })));
    return read.ok ? null : `${read.fault.path} ${read.fault.sentence}`;
  };
  expect(fault({})).toBeNull();
  expect(fault({ priceEur: null, heightMm: null })).toBeNull();
  for (const heightMm of [0, 1001, '50']) expect(fault({ heightMm })).toMatch(/^picked\[0\]\.heightMm/);
  expect(fault({ partId: '' })).toMatch(/^picked\[0\]\.partId it is missing/);
  expect(fault({ partId: 7 })).toMatch(/^picked\[0\]\.partId/);
  expect(fault({ partId: 'x'.repeat(61) })).toMatch(/^picked\[0\]\.partId/);
  expect(fault({ partId: 'x'.repeat(60) })).toBeNull();
  expect(fault({ name: 'x'.repeat(121) })).toMatch(/^picked\[0\]\.name/);
  expect(fault({ priceEur: -1 })).toMatch(/cannot be negative/);
  expect(fault({ values: undefined })).toMatch(/^picked\[0\]\.values/);
  expect(fault({ role: 'knob' })).toMatch(/^picked\[0\]\.role it has to be one of/);
  expect(readDesign(JSON.parse(JSON.stringify({ ...clock, fixed: ['sink', 'knob'] }))).ok).toBe(false);
});

test('further outputs of version 5 had no volts asked of them: they get those their regulator made', () => {
  const volts = (regulator: object) => {
    const { outputs } = from5({
      version: 5,
      outputs: [{ name: 'x', currentA: 0.2, regulator }],
    } as never) as unknown as {
      outputs: { rail: string; demand: { outputV: number; outputA: number; tolerancePct: number } }[];
    };
    expect([outputs[0]!.rail, outputs[0]!.demand.outputA, outputs[0]!.demand.tolerancePct]).toEqual(['plus', 0.2, 5]);
    return outputs[0]!.demand.outputV;
  };
  // 1.25 × (1 + 2000/240) to three figures; with a kilohm of pot 1.25 × (1 + 3000/240).
  expect(volts({ kind: 'adjustable', r1Ohm: 240, r2Ohm: 2000, potOhm: null })).toBe(11.7);
  expect(volts({ kind: 'adjustable', r1Ohm: 240, r2Ohm: 2000, potOhm: 1000 })).toBe(16.9);
  expect(volts({ kind: 'adjustable', r1Ohm: 1, r2Ohm: 1e6 })).toBe(1000);
  expect(volts({ kind: 'follower', zenerV: 12.6 })).toBe(11.8);
  expect(volts({ kind: 'follower', zenerV: 1 })).toBe(0.5);
  expect(volts({ kind: 'error-transistor', zenerV: 5.6, upperOhm: 2000, potOhm: 500, lowerOhm: 1000 })).toBe(21.9);
  expect(volts({ kind: 'error-transistor', zenerV: 5.6, upperOhm: 2000, lowerOhm: 1000 })).toBe(18.8);
  expect(volts({ kind: 'bench', maxV: 25 })).toBe(25);
  expect(volts({ kind: 'fixed', size: '78', outputV: 5 })).toBe(5);
  const { outputs, regulator } = from5({
    version: 5,
    outputs: 'none',
    regulator: { kind: 'error-transistor', zenerV: 5.6 },
  } as never);
  expect(outputs).toBe('none');
  // A pass transistor of version 5 stood alone.
  expect(regulator).toEqual({ kind: 'error-transistor', zenerV: 5.6, passes: 1, emitterOhm: 0, gain: null });
});

test('values that have to lie apart are refused where they meet, at the field that is wrong', () => {
  const fault = (design: Design, patch: Patch) => {
    const read = readDesign(JSON.parse(JSON.stringify(applyPatch(design, patch))));
    return read.ok ? null : read.fault;
  };
  const battery = { kind: 'battery', freshV: 12.9, resistanceOhm: 0.05, capacityAh: 7, reverseDiode: true } as const;
  expect(fault(logger, { source: { ...battery, emptyV: 12.8 } })).toBeNull();
  expect(fault(logger, { source: { ...battery, emptyV: 12.9 } })).toMatchObject({ path: 'source.emptyV' });
  expect(fault(logger, { source: { ...battery, emptyV: 13 } })!.sentence).toContain('below the fresh volts');
  const tested = (loadedV: number) =>
    ({ source: { kind: 'test', openV: 30, mainsV: 230, loadedV, loadA: 1 } }) as const;
  expect(fault(clock, { transformer: tested(29.9) })).toBeNull();
  expect(fault(clock, { transformer: tested(30) })).toMatchObject({ path: 'transformer.source.loadedV' });
  const read = (lowA: number, lowV: number, highA: number, highV: number) => ({
    rectifier: { sheet: { points: { lowA, lowV, highA, highV }, jcKPerW: null, jaKPerW: null } },
  });
  expect(fault(clock, read(0.1, 0.7, 0.3, 0.71))).toBeNull();
  expect(fault(clock, read(0.1, 0.7, 0.29, 0.8))!.sentence).toContain('three times the lower current');
  expect(fault(clock, read(0.1, 0.7, 1, 0.7))!.sentence).toContain('above the volts at the lower current');
});

test('a follower gets the resistor its zener and base need; an error transistor is set no lower than it goes', () => {
  const made = (outputA: number) =>
    regulatorOfKind(applyPatch(clock, { demand: { outputA } }), 'follower') as Extract<Regulator, { kind: 'follower' }>;
  // The base takes the load through the gain, the zener 3 mA beside it: 3 V over both, within a step of E12.
  const pass = PASS_TRANSISTORS.find((t) => t.id === made(0.4).transistor)!;
  expect(Math.abs(Math.log((made(0.4).seriesOhm * (0.003 + 0.4 / pass.gain)) / 3))).toBeLessThan(Math.log(1.12));
  // However strong, never less than 10 ohm.
  expect(made(50).seriesOhm).toBe(10);
  const error = regulatorOfKind(clock, 'error-transistor') as Extract<Regulator, { kind: 'error-transistor' }>;
  const floorV = 1.05 * (error.zenerV + 0.65);
  const upTo = (highV: number) =>
    rangeEdit(applyPatch(clock, { regulator: error, demand: { range: { lowV: 1, highV } } })).length;
  // A range that ends at its reference cannot be set.
  expect(upTo(floorV)).toBe(0);
  expect(upTo(1.5 * floorV)).toBe(4);
});
