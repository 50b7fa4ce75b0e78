import { applyPatch, type Design } from '@/core/design/design';
import { curesOf } from '@/core/judge/cures-of';
import { judge } from '@/core/judge/judge';
import type { RuleId } from '@/core/judge/rules';
import type { Verdict } from '@/core/judge/verdict';
import { pictureOf } from '@/core/judge/picture';
import { stationFigures } from '@/core/picture/station-figures';
import { formatQuantity } from '@/core/quantity/format';
import { studyDesign } from '@/core/study/study';
import type { Figure } from '@/core/study/figure';
import { demoDesigns } from '@/core/design/demo-designs';
import { clock, tide } from '../support/demos';
import { STATIONS } from '../support/stations';
import { ROWS, type Row } from '../support/rule-rows';

/** What every verdict says when its design is turned well beyond its limit. */
const beyond = new Map<RuleId, { row: Row; design: Design; verdict: Verdict }>();
beforeAll(() => {
  for (const row of ROWS) {
    const design = applyPatch(row.design, row.turn(row.to));
    beyond.set(row.id, { row, design, verdict: judge(studyDesign(design), [row.id])[0]! });
  }
});
const of = (id: RuleId) => beyond.get(id)!;
/** The same well inside of it. */
function within(id: RuleId) {
  const { row } = of(id);
  const design = applyPatch(row.design, row.turn(row.from));
  return { design, verdict: judge(studyDesign(design), [id])[0]! };
}

type Read = (label: string) => number;
const reader =
  (figure: Figure): Read =>
  (label) => {
    const found = figure.inputs.find((i) => i.label === label);
    if (!found) throw new Error(`${figure.id}: no '${label}' among ${figure.inputs.map((i) => i.label).join(', ')}`);
    return found.value;
  };
const theta = (f: Figure) => f.inputs.filter((i) => i.unit === 'K/W').reduce((sum, i) => sum + i.value, 0);

describe('the inputs of a verdict, put together by hand, are its figure', () => {
  const HAND: Partial<Record<RuleId, (r: Read, f: Figure) => number>> = {
    headroom: (r) => r('lowest reservoir voltage') - r('output') - r('dropout'),
    'hold-up': (r) => r('lowest') - r('needed'),
    'ripple-current': (r) => Math.sqrt(r('rectifier current, RMS') ** 2 - r('load current') ** 2),
    'output-ripple': (r) => r('reservoir ripple'),
    'output-window': (r) => {
      const middle = (r('window from') + r('to')) / 2;
      return 100 * (Math.max(middle - r('lowest'), r('highest') - middle) / middle);
    },
    junction: (r, f) => r('air at the sink') + r('watts in it') * theta(f),
    'rectifier-heat': (r) => r('air') + r('watts of the hottest of them') * r('junction to air'),
    'sink-touch': (r) => r('air at the sink') + r('all watts on the sink') * r('sink to air, at this rise'),
    'short-circuit': (r, f) =>
      r('air at the sink') +
      (f.inputs.some((i) => i.label === 'all watts on the sink')
        ? r('all watts on the sink') * r('sink to air, at this rise') +
          r('watts in it') * (theta(f) - r('sink to air, at this rise'))
        : r('watts in it') * theta(f)),
    'safe-area': (r) => (100 * r('through each')) / r('it bears there'),
    'pass-sharing': (r) => (r('limit') / r('transistors')) * r('emitter resistor'),
    'small-heat': (r) => Math.max(r('shunt'), r('emitter resistors'), r('driver')),
    'inside-air': (r) => r('room') + r('all that stays inside') * r('box'),
    'filter-resonance': (r) => 1 / (2 * Math.PI * Math.sqrt(r('choke') * r('capacitor behind it'))),
    'lost-load': (r) => Math.max(r('highest in ten cycles'), r('settles at')),
    'minimum-load': (r) => r('divider') + r('least load') + r('indicator'),
    'winding-current': (r) => r('times the load current') * r('load current'),
    'pre-regulator': (r) => r('lowest reservoir voltage') - r('it holds') - r('its dropout'),
    'pre-regulator-heat': (r) => r('sink') + r('watts in it') * (r('junction to case') + r('case to sink')),
    'pre-regulator-area': (r) => (100 * r('through it')) / Math.min(r('rated'), r('safe area there')),
  };
  test.each(Object.keys(HAND) as RuleId[])('%s', (id) => {
    const { figure } = of(id).verdict;
    expect(figure.value / HAND[id]!(reader(figure), figure)).toBeCloseTo(1, 6);
  });

  test('a winding’s temperature is the one its own copper loss makes', () => {
    const { figure } = of('winding-heat').verdict;
    const r = reader(figure);
    const copper = r('copper loss at 20 °C') * ((234.5 + figure.value) / 254.5);
    expect(r('air') + (r('iron') + copper) * r('winding to air')).toBeCloseTo(figure.value, 1);
  });

  test('an output’s range ends where its resistors end', () => {
    const { figure } = of('output-range').verdict;
    const [from, to, reachesFrom, reachesTo] = figure.inputs.map((i) => i.value) as [number, number, number, number];
    expect(figure.value).toBeCloseTo(Math.max(reachesFrom - from, to - reachesTo), 9);
    expect(figure.inputs.map((i) => i.label)).toEqual(['wanted from', 'to', 'it reaches from', 'to']);
  });

  test('a part’s share of the air inside is all of what is listed', () => {
    const r = reader(of('inside-air').verdict.figure);
    const sum = r('copper') + r('iron') + r('rectifier') + r('regulators') + r('small parts');
    expect(sum).toBeCloseTo(r('all that stays inside'), 9);
  });
});

describe('what builders estimate stands beside it, worked out from the same inputs', () => {
  const HAND: Partial<Record<RuleId, (r: Read, d: Design) => number>> = {
    'reservoir-voltage': (r) => Math.SQRT2 * r('open-circuit winding'),
    'ripple-current': (r) => 1.4 * r('load current'),
    'diode-average': (r) => r('rail current') / 2,
    'diode-reverse': (r) => Math.SQRT2 * r('open-circuit winding'),
    'diode-surge': (r) => r('peak of the winding') / r('winding resistance, cold'),
    // A bridge at 90 % of 230 V: two diodes, I/(100 Hz × C) of sag; 8 mA of its own.
    headroom: (r, d) =>
      Math.SQRT2 * 0.9 * d.transformer.ratedV * 1.09 -
      2 -
      (d.demand.outputA + 0.008) / (100 * r('reservoir left by tolerance and age')) -
      r('output') -
      r('dropout'),
    'hold-up': (r, d) =>
      r('valley before') - (d.demand.outputA + 0.008) / (100 * d.reservoir.capacitanceF) - r('needed'),
    'output-ripple': (_, d) => d.demand.outputA / (100 * 0.64 * d.reservoir.capacitanceF),
    'winding-current': (r) => 1.8 * r('load current'),
    'winding-dc': (r) => r('rail'),
    'lost-load': (r) => 1.57 * r('before'),
  };
  test.each(Object.keys(HAND) as RuleId[])('%s', (id) => {
    // A load that has dropped out draws less: what is estimated there is estimated of that.
    const { design, verdict } = id === 'headroom' || id === 'hold-up' ? within(id) : of(id);
    const { estimate } = verdict.figure;
    expect(estimate!.value / HAND[id]!(reader(verdict.figure), design)).toBeCloseTo(1, 2);
    expect(estimate!.label.length).toBeGreaterThan(0);
    expect(estimate!.expression.length).toBeGreaterThan(0);
  });

  test('junction, from the mean volts across it', () => {
    const { figure } = of('junction').verdict;
    // 6 V or so across it at a little over an ampere: within a tenth of what the simulated watts make.
    expect(figure.estimate!.value).not.toBe(figure.value);
    expect(figure.estimate!.value / figure.value).toBeGreaterThan(0.9);
    expect(figure.estimate!.value / figure.value).toBeLessThan(1.1);
  });

  test('nobody estimates where there is nothing to go by', () => {
    for (const id of ['regulator-current', 'safe-area', 'output-range', 'minimum-load', 'choke-rating'] as const)
      expect(of(id).verdict.figure.estimate).toBeUndefined();
  });
});

/** Words a person sees: none of them empty, no input without a name, a number and a unit of its own. */
function whole(figure: Figure) {
  const where = (what: string) => `${figure.id}: ${what}`;
  for (const w of [figure.label, figure.expression, figure.source]) expect(where(w)).toMatch(/: \S{1}.*\S/);
  for (const i of figure.inputs) {
    expect([where(i.label ?? ''), Number.isFinite(i.value), typeof i.unit]).toEqual([
      expect.stringMatching(/: \S/),
      true,
      'string',
    ]);
  }
  for (const a of figure.assumes) expect(where(a)).toMatch(/: [A-Z√0-9±].*\.$/);
  if (figure.estimate) {
    expect([where(figure.estimate.label ?? ''), Number.isFinite(figure.estimate.value)]).toEqual([
      expect.stringMatching(/: \S/),
      true,
    ]);
    expect(figure.estimate.expression).toMatch(/\S/);
  }
}

describe('no working has a hole in it', () => {
  test('of any verdict, beyond its limit and within', () => {
    for (const { verdict: v } of beyond.values()) {
      whole(v.figure);
      for (const w of [v.title, v.sentence, v.limitSource, v.reason]) expect(w).toMatch(/\S{2,}/);
      expect([v.id, v.figure.condition ?? 'once']).toEqual([v.id, expect.stringMatching(/\S/)]);
    }
  });

  test('of any figure of any station of any demo, in every band', () => {
    for (const d of demoDesigns()) {
      const { picture } = pictureOf(d);
      for (const v of picture.verdicts) whole(v.figure);
      for (const station of STATIONS)
        for (const band of ['low', 'nominal', 'high'] as const) stationFigures(picture, station, band).forEach(whole);
    }
  });

  test('a sentence names the figure and, where it is a part’s, what it bears', () => {
    const NAMES: RuleId[] = [
      'reservoir-voltage',
      'ripple-current',
      'diode-average',
      'diode-reverse',
      'diode-surge',
      'surge-heating',
      'output-ripple',
      'regulator-input',
      'junction',
      'winding-heat',
      'winding-current',
      'small-heat',
      'inside-air',
      'choke-rating',
      'filter-voltage',
      'winding-dc',
      'source-current',
      'anode-peak',
      'lost-load',
    ];
    for (const id of NAMES) {
      const { figure, sentence } = of(id).verdict;
      expect(sentence).toContain(formatQuantity(figure.value, figure.unit));
    }
  });
});

describe('cures', () => {
  /** What a builder would try, in that order: sizes as they are sold from the value in the design. */
  const OFFERED: Record<Exclude<RuleId, 'choke-critical' | 'choke-idle' | 'reverse-polarity'>, string[]> = {
    'reservoir-voltage': [
      'Reservoir rated 63 V',
      'Reservoir rated 80 V',
      'Reservoir rated 100 V',
      'Winding 36 V',
      'Winding 35 V',
      'Transformer 120 VA',
      'Transformer 160 VA',
    ],
    'ripple-current': [
      'Low-impedance can',
      'Reservoir 10000 µF',
      'Reservoir 15000 µF',
      'Reservoir 22000 µF',
      'Reservoir rated 63 V',
      'Reservoir rated 80 V',
    ],
    'diode-average': [
      'Silicon 1 A, 1000 V (1N4007)',
      'Silicon bridge class 8 A, 600 V',
      'Silicon bridge class 25 A, 400 V',
      'Schottky 1 A, 40 V (1N5819)',
      'Schottky 3 A, 40 V (1N5822)',
      'Schottky 5 A, 100 V',
      'Schottky 10 A, 200 V',
    ],
    'diode-reverse': [
      'Silicon 1 A, 1000 V (1N4007)',
      'Silicon bridge class 8 A, 600 V',
      'Silicon bridge class 25 A, 400 V',
      'Schottky 1 A, 40 V (1N5819)',
      'Schottky 3 A, 40 V (1N5822)',
      'Schottky 5 A, 100 V',
      'Schottky 10 A, 200 V',
    ],
    'diode-surge': [
      'Silicon 1 A, 1000 V (1N4007)',
      'Silicon bridge class 8 A, 600 V',
      'Silicon bridge class 25 A, 400 V',
      'Schottky 1 A, 40 V (1N5819)',
      'Schottky 3 A, 40 V (1N5822)',
      'Schottky 5 A, 100 V',
      'Schottky 10 A, 200 V',
    ],
    'surge-heating': [
      'Silicon 1 A, 1000 V (1N4007)',
      'Silicon bridge class 8 A, 600 V',
      'Silicon bridge class 25 A, 400 V',
      'Schottky 1 A, 40 V (1N5819)',
      'Schottky 3 A, 40 V (1N5822)',
      'Schottky 5 A, 100 V',
      'Schottky 10 A, 200 V',
    ],
    headroom: [
      'Reservoir 10000 µF',
      'Reservoir 15000 µF',
      'Reservoir 22000 µF',
      'Winding 20 V',
      'Winding 22 V',
      'Winding 24 V',
      'Transformer 120 VA',
      'Transformer 160 VA',
      'Schottky 1 A, 40 V (1N5819)',
      'Schottky 3 A, 40 V (1N5822)',
      'Schottky 5 A, 100 V',
      'Schottky 10 A, 200 V',
    ],
    'hold-up': [
      'Reservoir 680 µF',
      'Reservoir 1000 µF',
      'Reservoir 1500 µF',
      'Reservoir 2200 µF',
      'Winding 25 V',
      'Winding 28 V',
    ],
    'output-ripple': [
      'Reservoir 4700 µF',
      'Reservoir 6800 µF',
      'Reservoir 10000 µF',
      'Reservoir 15000 µF',
      'Winding 28 V',
      'Winding 30 V',
      'Transformer 250 VA',
      'Transformer 300 VA',
    ],
    'output-window': [
      'Winding 28 V',
      'Winding 30 V',
      'Winding 25 V',
      'Winding 24 V',
      'Reservoir 33000 µF',
      'Reservoir 47000 µF',
      'Reservoir 68000 µF',
      'Transformer 250 VA',
      'Transformer 300 VA',
      'Transformer 400 VA',
    ],
    'regulator-input': [
      'A 30 V zener and TIP122 ahead of it',
      'Winding 28 V',
      'Winding 25 V',
      'Winding 24 V',
      'Transformer 120 VA',
      'Transformer 160 VA',
      'Transformer 200 VA',
    ],
    'regulator-current': [],
    junction: [
      'Heatsink 10 K/W',
      'Heatsink 8 K/W',
      'Heatsink 6.5 K/W',
      'Heatsink 4 K/W',
      'Heatsink 2.7 K/W',
      'Fan over the sink',
      'Winding 22 V',
      'Winding 20 V',
    ],
    'rectifier-heat': [
      'Rectifier on a sink of 15 K/W',
      'Rectifier on a sink of 8 K/W',
      'Rectifier on a sink of 4 K/W',
      'Rectifier on a sink of 2.2 K/W',
      'Rectifier on the regulator’s sink',
      'Silicon 1 A, 1000 V (1N4007)',
      'Silicon bridge class 8 A, 600 V',
      'Silicon bridge class 25 A, 400 V',
      'Schottky 1 A, 40 V (1N5819)',
      'Schottky 3 A, 40 V (1N5822)',
      'Schottky 5 A, 100 V',
      'Schottky 10 A, 200 V',
    ],
    'winding-heat': ['Transformer 250 VA', 'Transformer 300 VA', 'Transformer 400 VA'],
    'winding-current': ['Transformer 120 VA', 'Transformer 160 VA', 'Transformer 200 VA', 'Transformer 225 VA'],
    'sink-touch': ['Heatsink 6.5 K/W', 'Heatsink 5 K/W', 'Heatsink 4 K/W', 'Heatsink 2.7 K/W', 'Fan over the sink'],
    'short-circuit': [
      'Emitter resistors of 330 mΩ',
      '4 pass transistors',
      '5 pass transistors',
      '6 pass transistors',
      'Heatsink 6.5 K/W',
      'Heatsink 5 K/W',
      'Heatsink 4 K/W',
      'Heatsink 2.7 K/W',
      'Heatsink 1.8 K/W',
      'Winding 24 V',
      'Winding 22 V',
    ],
    'safe-area': [
      '4 pass transistors',
      '5 pass transistors',
      '6 pass transistors',
      'BD139, 1.5 A',
      'TIP122 Darlington, 5 A',
      '2N3055, 15 A',
      'MJ15003, 20 A',
      'Winding 24 V',
      'Winding 22 V',
    ],
    'pass-sharing': ['Emitter resistors of 330 mΩ'],
    'small-heat': ['Winding 24 V', 'Winding 22 V'],
    'inside-air': ['Vents in the box', 'Box with 600 cm²', 'Box with 1000 cm²'],
    'choke-rating': ['Choke 1 size up', 'Choke 3 sizes up'],
    'filter-resonance': ['Reservoir 0.15 µF', 'Reservoir 0.22 µF', 'Reservoir 0.47 µF', 'Choke 22 H', 'Choke 39 H'],
    'lost-load': ['Reservoir rated 450 V'],
    'filter-voltage': [
      'Filter capacitors a step up in volts',
      'Filter capacitors 2 steps up in volts',
      'Filter capacitors 4 steps up in volts',
    ],
    'winding-dc': ['Centre tap rectifier', 'Bridge rectifier', 'Transformer 160 VA', 'Transformer 225 VA'],
    'source-current': ['Adapter for 3 A', 'Adapter for 4 A', 'Adapter for 6 A'],
    'minimum-load': [
      'R1 240 Ω, the divider in proportion',
      'R1 180 Ω, the divider in proportion',
      'R1 120 Ω, the divider in proportion',
      'An indicator at the output, 10 mA',
    ],
    'output-range': ['R1 130 Ω, pot 2.5 kΩ', 'R1 270 Ω, pot 5 kΩ'],
    'anode-peak': [
      'Reservoir 33 µF',
      'Reservoir 22 µF',
      'Reservoir 15 µF',
      'Silicon 1 A, 1000 V (1N4007)',
      'Silicon 3 A, 400 V (1N5404)',
      'Silicon bridge class 8 A, 600 V',
      'Silicon bridge class 25 A, 400 V',
      'Schottky 1 A, 40 V (1N5819)',
      'Schottky 3 A, 40 V (1N5822)',
      'Schottky 5 A, 100 V',
      'Schottky 10 A, 200 V',
      'Soft valve (5U4 class)',
    ],
    'pre-regulator': [
      'Track 3 V above the output',
      'Reservoir 10000 µF',
      'Reservoir 15000 µF',
      'Winding 24 V',
      'Winding 25 V',
    ],
    'pre-regulator-heat': [
      'Heatsink 8 K/W',
      'Heatsink 6.5 K/W',
      'Heatsink 5 K/W',
      'Heatsink 3.3 K/W',
      'Winding 24 V',
      'Winding 22 V',
    ],
    'pre-regulator-area': [
      'Ahead of it: BD139, 1.5 A',
      'Ahead of it: TIP122 Darlington, 5 A',
      'Ahead of it: 2N3055, 15 A',
      'Ahead of it: MJ15003, 20 A',
      'Winding 24 V',
      'Winding 22 V',
    ],
  };
  test.each(Object.entries(OFFERED) as [RuleId, string[]][])('of %s are what is sold', (id, expected) => {
    expect(curesOf(of(id).design, id, 'main').map((e) => e.label)).toEqual(expected);
  });

  test('of a choke that lets go are larger ones, and a bleeder that holds it', () => {
    const bare = applyPatch(tide, { filter: { bleederOhm: null } });
    const larger = ['Choke 18 H', 'Choke 27 H', 'Choke 47 H'];
    const bleeders = ['Bleeder 10 kΩ', 'Bleeder 18 kΩ'];
    expect(curesOf(bare, 'choke-critical', 'main').map((e) => e.label)).toEqual([...larger, ...bleeders]);
    expect(curesOf(bare, 'choke-idle', 'main').map((e) => e.label)).toEqual([...bleeders, ...larger]);
  });

  test('of every rule at least one helps, and each that goes further the same way helps more', () => {
    for (const { row, design, verdict } of beyond.values()) {
      const cures = curesOf(design, row.id, 'main');
      if (row.id === 'regulator-current') continue;
      const gain = cures.map(({ patch }) => {
        const after = judge(studyDesign(applyPatch(design, patch)), [row.id])[0];
        return after ? after.left - verdict.left : Infinity;
      });
      expect([row.id, Math.max(...gain) > 0.1]).toEqual([row.id, true]);
      // 'Reservoir 10000 µF', 'Reservoir 15000 µF': the same but for a number.
      const kinds = new Map<string, number[]>();
      cures.forEach(({ label }, n) => {
        const kind = label.replace(/\d+(\.\d+)?/, '#');
        kinds.set(kind, [...(kinds.get(kind) ?? []), n]);
      });
      for (const [kind, steps] of kinds) {
        if (steps.length < 2 || /Silicon|Schottky|Winding|Ahead|Transformer/.test(kind)) continue;
        for (let n = 1; n < steps.length; n++)
          expect([row.id, cures[steps[n]!]!.label, gain[steps[n]!]! > gain[steps[n - 1]!]!]).toEqual([
            row.id,
            cures[steps[n]!]!.label,
            true,
          ]);
      }
    }
  });

  test('what is wished lower is tried lower, what is wished higher is tried higher', () => {
    const volts = (id: RuleId) =>
      curesOf(of(id).design, id, 'main').flatMap((e) => {
        const at = /^Winding ([\d.]+) V$/.exec(e.label)?.[1];
        return at === undefined ? [] : [Number(at) - of(id).design.transformer.ratedV];
      });
    for (const id of ['headroom', 'hold-up', 'pre-regulator'] as const)
      for (const step of volts(id)) expect([id, step > 0]).toEqual([id, true]);
    for (const id of ['reservoir-voltage', 'regulator-input', 'junction', 'short-circuit', 'safe-area'] as const)
      for (const step of volts(id)) expect([id, step < 0]).toEqual([id, true]);
    const both = volts('output-window');
    expect([both.some((s) => s > 0), both.some((s) => s < 0)]).toEqual([true, true]);
    expect(volts('headroom').length).toBe(3);
    expect(clock.transformer.ratedV).toBe(24);
  });
});
