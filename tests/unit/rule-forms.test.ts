import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { ofDiodeClass } from '@/core/design/diode-edit';
import { judge } from '@/core/judge/judge';
import type { RuleId } from '@/core/judge/rules';
import type { Verdict } from '@/core/judge/verdict';
import { studyDesign } from '@/core/study/study';
import { outputDemand } from '@/core/design/defaults';
import { clock, dome, drum, tide, physics, logger } from '../support/demos';

/** What a rule says of the less usual forms a supply can have, and where it has no meaning at all. */
const found = (d: Design, id: RuleId, patch: Patch = {}): Verdict | undefined =>
  judge(studyDesign(applyPatch(d, patch)), [id])[0];
const verdict = (d: Design, id: RuleId, patch: Patch = {}): Verdict => {
  const v = found(d, id, patch);
  if (!v) throw new Error(`${id} has no meaning here`);
  return v;
};
const input = (v: Verdict, label: string) => {
  const i = v.figure.inputs.find((x) => x.label === label);
  if (!i) throw new Error(`no ${label} in ${v.figure.inputs.map((x) => x.label).join(', ')}`);
  return i.value;
};
const adapter = (limitA: number | null) =>
  ({
    kind: 'adapter',
    ratedV: 12,
    ratedA: 1,
    idlePct: 10,
    spreadPct: 5,
    rippleVpp: 0.1,
    limitA,
    reverseDiode: true,
  }) as const;
const bare = { source: { ...logger.source, reverseDiode: false } as Design['source'] };
const choke = { kind: 'choke', inductanceH: 10, resistanceOhm: 150, ratedA: 0.1, swinging: false } as const;
const cap = { kind: 'capacitor', capacitanceF: 22e-6, ratedV: 400 } as const;

test('no rule speaks of a part that is not there', () => {
  const none: [Design, Patch, RuleId[]][] = [
    [logger, bare, ['diode-average', 'diode-reverse', 'diode-surge', 'surge-heating', 'rectifier-heat', 'anode-peak']],
    [logger, {}, ['winding-current', 'winding-heat', 'winding-dc', 'choke-critical', 'source-current', 'hold-up']],
    [clock, {}, ['choke-critical', 'choke-rating', 'lost-load', 'filter-resonance', 'filter-voltage', 'anode-peak']],
    [
      clock,
      {},
      ['pre-regulator', 'pre-regulator-heat', 'pre-regulator-area', 'safe-area', 'pass-sharing', 'small-heat'],
    ],
    [clock, {}, ['winding-dc', 'source-current', 'reverse-polarity', 'output-range', 'inside-air']],
    [dome, {}, ['headroom', 'regulator-input', 'regulator-current', 'junction', 'sink-touch', 'short-circuit']],
    [dome, { reservoir: { capacitanceF: 0 } }, ['reservoir-voltage', 'ripple-current', 'diode-surge', 'surge-heating']],
    [clock, { reservoir: { capacitanceF: 0 } }, ['hold-up']],
  ];
  for (const [d, patch, ids] of none)
    for (const id of ids) expect([d.name, id, found(d, id, patch)]).toEqual([d.name, id, undefined]);
});

describe('fed by direct current', () => {
  test('the first surge is the source’s volts over its resistance, unless it rides on a limit', () => {
    const battery = verdict(logger, 'diode-surge');
    expect(battery.figure.expression).toMatch(/after it is joined/);
    expect(input(battery, 'resistance of the source')).toBe(0.035);
    expect(battery.figure.estimate!.value).toBeCloseTo(input(battery, 'its open volts') / 0.035, 6);
    expect(battery.figure.estimate!.expression).toBe('V/R');
    expect(battery.figure.assumes).toEqual(['The source has no limit of its own.']);
    expect(battery.reason).toMatch(/source’s own resistance/);
    const limited = verdict(logger, 'diode-surge', { source: adapter(1.2) });
    expect(limited.figure.assumes).toEqual(['The start rides on the adapter’s limit.']);
    expect(limited.figure.value).toBeLessThan(1.3);
    expect(verdict(logger, 'diode-surge', { source: adapter(null) }).figure.assumes).toEqual([
      'The source has no limit of its own.',
    ]);
    expect(verdict(clock, 'diode-surge').figure.estimate!.expression).toBe('√2·V/R');
  });

  test('an adapter is asked for no more than its plate, or where it cuts off', () => {
    const soft = verdict(logger, 'source-current', { source: adapter(null) });
    expect(soft.limit).toBe(1);
    expect(soft.limitSource).toBe('Its plate: 12 V at 1 A.');
    expect(soft.figure.assumes).toEqual([]);
    expect(soft.wantedMargin).toBeCloseTo(0.15, 9);
    const hard = verdict(logger, 'source-current', { source: adapter(1.4) });
    expect(hard.limit).toBe(1.4);
    expect(hard.limitSource).toMatch(/cuts off, 1\.4 A/);
    expect(hard.reason).toMatch(/hiccups/);
    expect(soft.reason).toMatch(/no fuse but its own heat/);
  });

  test('headroom and reservoir speak of the source, and estimate nothing by √2', () => {
    const head = verdict(logger, 'headroom');
    expect(head.title).toBe('Headroom, empty battery');
    expect(head.figure.estimate).toBeUndefined();
    expect(head.figure.assumes[0]).toMatch(/battery’s grows as it empties/);
    const can = verdict(logger, 'reservoir-voltage');
    expect(can.figure.estimate).toBeUndefined();
    expect(can.figure.assumes[0]).toMatch(/^The battery stands/);
    expect(input(can, 'battery')).toBeCloseTo(12.9, 9);
    expect(verdict(logger, 'ripple-current').figure.estimate).toBeUndefined();
    expect(verdict(clock, 'ripple-current').figure.estimate).toBeDefined();
  });
});

describe('multipliers and pairs', () => {
  test('a can of a doubler stands at one peak, of a cascade at two; two in series bear nine tenths of twice one', () => {
    const single = verdict(dome, 'reservoir-voltage', { transformer: { source: { kind: 'plate' } } });
    expect(single.figure.estimate!.expression).toBe('√2·V');
    const cascade = verdict(tide, 'reservoir-voltage', {
      rectifier: { kind: 'cascade-doubler' },
      filter: { before: [] },
      transformer: { ratedV: 60 },
    });
    expect(cascade.figure.estimate!.expression).toBe('2·√2·V');
    // 60 V and 11 %, 10 % more mains, both peaks.
    expect(cascade.figure.estimate!.value).toBeCloseTo(2 * Math.SQRT2 * 60 * 1.11 * 1.1, 1);
    const pair = verdict(dome, 'reservoir-voltage', { reservoir: { pair: true, ratedV: 40 } });
    expect(pair.limit).toBeCloseTo(0.9 * 2 * 40, 9);
    expect(pair.limitSource).toMatch(/nine tenths of twice one/);
    expect(pair.sentence).toMatch(/on two 40 V cans in series/);
    expect(single.sentence).toMatch(/on a 63 V can/);
  });

  test('direct current in the core of a split half-wave is the difference of its loads', () => {
    const v = verdict(drum, 'winding-dc', { rectifier: { kind: 'split-half-wave' } });
    expect(v.figure.estimate!.expression).toBe('I(+) − I(−)');
    const [plus, minus] = [input(v, 'plus rail'), input(v, 'minus rail')];
    expect(plus).toBeGreaterThan(0.25);
    expect(v.figure.estimate!.value).toBeCloseTo(plus - minus, 9);
    expect(v.figure.value / (plus - minus)).toBeCloseTo(1, 1);
    // 5 % of its rated current.
    expect(v.limit).toBeCloseTo(0.05 * input(v, 'rated current'), 9);
    const one = verdict(clock, 'winding-dc', { rectifier: { kind: 'half-wave' } });
    expect(one.figure.estimate!.expression).toBe('I');
  });
});

describe('filters', () => {
  test('what rings behind the reservoir is its choke and the next capacitor behind that', () => {
    const v = verdict(tide, 'filter-resonance', { filter: { before: [], after: [cap, choke, cap] } });
    expect(v.figure.value).toBeCloseTo(1 / (2 * Math.PI * Math.sqrt(10 * 22e-6)), 6);
    expect(v.station).toBe('after');
    const ahead = verdict(tide, 'filter-resonance');
    expect(ahead.figure.value).toBeCloseTo(1 / (2 * Math.PI * Math.sqrt(15 * 47e-6)), 6);
    expect(ahead.station).toBe('before');
    // A choke with nothing behind it, or no choke, does not ring.
    expect(found(tide, 'filter-resonance', { filter: { before: [], after: [cap, choke] } })).toBeUndefined();
    expect(found(tide, 'filter-resonance', { filter: { before: [], after: [cap] } })).toBeUndefined();
  });

  test('of several chokes the hardest used decides, and says on which side it is', () => {
    const both = { before: [choke], after: [{ ...choke, ratedA: 0.05 }, cap] };
    const weak = verdict(tide, 'choke-rating', { filter: both });
    expect([weak.limit, weak.station]).toEqual([0.05, 'after']);
    const strong = verdict(tide, 'choke-rating', { filter: { ...both, after: [{ ...choke, ratedA: 0.3 }, cap] } });
    expect([strong.limit, strong.station]).toEqual([0.1, 'before']);
  });

  test('a choke behind a small capacitor is judged as a choke input: by the choke, not by what stands first', () => {
    const v = found(tide, 'choke-critical', { filter: { before: [{ kind: 'resistor', resistanceOhm: 10 }, choke] } });
    expect(v).toBeDefined();
    // A swinging choke has lost a third of its henries at its rated current: it wants more current to go on.
    const plain = verdict(tide, 'choke-critical', { filter: { before: [choke] } });
    const swinging = verdict(tide, 'choke-critical', { filter: { before: [{ ...choke, swinging: true }] } });
    expect(input(plain, 'inductance at that current')).toBeCloseTo(10, 6);
    expect(input(swinging, 'inductance at that current')).toBeLessThan(9);
    expect(input(swinging, 'critical current')).toBeGreaterThan(input(plain, 'critical current') * 1.05);
  });

  test('what hangs on a rail whose load is taken away: the least of reservoir, filter and regulator', () => {
    const on = (patch: Patch) => verdict(tide, 'lost-load', patch);
    expect(on({}).limit).toBe(400);
    expect(on({}).limitSource).toMatch(/^The reservoir/);
    const filtered = on({ filter: { after: [{ ...cap, ratedV: 350 }] } });
    expect([filtered.limit, filtered.limitSource]).toEqual([
      350,
      'A filter capacitor, the lowest rating on this rail.',
    ]);
    const empty = on({ reservoir: { capacitanceF: 0 }, filter: { after: [] } });
    // Nothing but the load itself: a quarter over its 180 V.
    expect(empty.limit).toBeCloseTo(225, 9);
    expect(empty.limitSource).toMatch(/^The load/);
    const behind = verdict(clock, 'lost-load', { filter: { after: [{ ...choke, inductanceH: 0.05, ratedA: 2 }] } });
    // A 78 of 24 V bears 40 V.
    expect([behind.limit, behind.limitSource]).toEqual([40, 'The regulator, the lowest rating on this rail.']);
  });
});

describe('valves', () => {
  const valved = { rectifier: ofDiodeClass('valve-stiff'), filter: { before: [] }, transformer: { leakageH: 0 } };
  test('a bulb is judged by its glass, with its heater in it', () => {
    const v = verdict(tide, 'rectifier-heat', valved);
    expect(v.title).toBe('Rectifier glass');
    expect(v.limit).toBe(250);
    expect(v.figure.label).toBe('Glass of the rectifier');
    expect(v.figure.value).toBeCloseTo(input(v, 'air') + input(v, 'watts of one bulb') * input(v, 'bulb to air'), 6);
    // Two anodes at some 20 V and 22 mA each beside 5 V × 1.9 A of heater.
    expect(input(v, 'of that, its heater')).toBeCloseTo(9.5, 6);
    expect(input(v, 'watts of one bulb')).toBeGreaterThan(10);
    expect(input(v, 'watts of one bulb')).toBeLessThan(16);
    expect(v.reason).toMatch(/gas carries current backwards/);
    expect(v.figure.assumes[1]).toMatch(/one bulb/);
  });

  test('its surge knows the peak alone, with a hot cathode', () => {
    expect(found(tide, 'surge-heating', valved)).toBeUndefined();
    const v = verdict(tide, 'diode-surge', valved);
    expect(v.figure.inputs.map((i) => i.label)).not.toContain('I²t the diode stands');
    expect(v.figure.assumes.join()).toMatch(/cathode is hot already/);
    expect(v.limitSource).toMatch(/transient current of an anode/);
    expect(verdict(clock, 'diode-surge').figure.assumes.join()).not.toMatch(/cathode/);
  });
});

describe('a rectifier gives its heat away', () => {
  const of = (d: Design, patch: Patch = {}) => {
    const v = verdict(d, 'rectifier-heat', patch);
    return { v, at: (label: string) => input(v, label) };
  };
  test('to the air of its leads, through its block, on a sink of its own, on the regulator’s', () => {
    const axial = of(clock);
    expect(axial.v.figure.value).toBeCloseTo(axial.at('air') + axial.at('watts of the hottest of them') * 40, 6);
    const block = of(dome);
    const on = (x: typeof block, link: string, own: string) =>
      x.at('watts of all of them') * x.at(link) + x.at('watts of the hottest of them') * x.at(own);
    expect(block.v.figure.value).toBeCloseTo(block.at('air') + on(block, 'block to air', 'junction to case'), 6);
    expect(block.at('watts of all of them')).toBeGreaterThan(3.5 * block.at('watts of the hottest of them'));
    expect(block.v.figure.expression).toBe(
      'air + watts of all of them × block to air + watts of the hottest of them × junction to case',
    );
    const own = of(dome, { heat: { rectifierSinkKPerW: 4 } });
    expect(own.v.figure.value).toBeCloseTo(own.at('air') + on(own, 'sink to air, at this rise', 'junction to sink'), 6);
    expect(own.v.sentence).toMatch(/on its own sink\.$/);
    const shared = of(clock, { heat: { sharedWithRectifier: true } });
    expect(shared.v.figure.value).toBeCloseTo(
      shared.at('sink') + shared.at('watts of the hottest of them') * shared.at('junction to sink'),
      6,
    );
    expect(shared.at('sink')).toBeCloseTo(
      verdict(clock, 'sink-touch', { heat: { sharedWithRectifier: true } }).figure.value,
      6,
    );
  });
});

describe('two regulators in cascade', () => {
  const ahead = (patch: Design['preRegulator']): Patch => ({ preRegulator: patch });
  test('the input that is judged is the one with less to spare, the second’s where the first holds it', () => {
    // A 12 V supply behind an 18 V regulator: 35 V allowed to the first that stands at 29, 20 V to the second that stands at 18.
    const held = verdict(clock, 'regulator-input', {
      ...ahead({ kind: 'fixed', size: '78S', outputV: 18 }),
      regulator: { kind: 'low-dropout', part: 'ldo-3a', outputV: 12, boardCm2: 6 },
      demand: { outputV: 12 },
      transformer: { ratedV: 18 },
    });
    expect(held.figure.value).toBeCloseTo(18, 1);
    expect(held.limit).toBe(20);
    expect(held.figure.expression).toMatch(/pre-regulator holds/);
    expect(input(held, 'highest reservoir voltage')).toBeGreaterThan(20);
    const raw = verdict(clock, 'regulator-input', {
      ...ahead({ kind: 'fixed', size: '78S', outputV: 18 }),
      regulator: { kind: 'low-dropout', part: 'ldo-1a5', outputV: 12, boardCm2: 6 },
      demand: { outputV: 12 },
      transformer: { ratedV: 22 },
    });
    expect(raw.limit).toBe(35);
    expect(raw.figure.value).toBeGreaterThan(30);
    expect(raw.figure.expression).toMatch(/reservoir voltage of the cycle/);
  });

  test('without a sink the first stands in the air by itself', () => {
    const v = verdict(clock, 'pre-regulator-heat', {
      ...ahead({ kind: 'tracking', aboveV: 4, transistor: 'tip122' }),
      regulator: { kind: 'fixed', size: '78S', outputV: 12 },
      demand: { outputV: 12, outputA: 0.1 },
      heat: { sinkKPerW: null },
    });
    expect(v.figure.expression).toBe('air + its watts × junction to free air');
    expect(v.figure.value).toBeCloseTo(input(v, 'air') + input(v, 'watts in it') * 62, 6);
    expect(v.figure.assumes).toEqual([]);
  });
});

describe('pass transistors', () => {
  test('one, several that share, several of which one takes it all', () => {
    const of = (passes: number, emitterOhm: number) =>
      verdict(physics, 'safe-area', {
        regulator: { ...physics.regulator, passes, emitterOhm } as Design['regulator'],
      });
    expect(of(1, 0).figure.assumes[0]).toBe('One transistor.');
    expect(of(3, 0.33).figure.assumes[0]).toMatch(/shares by the emitter resistors/);
    const alone = of(3, 0);
    expect(alone.figure.assumes[0]).toMatch(/one of them takes all of it/);
    expect(input(alone, 'through each')).toBeCloseTo(3 * input(of(3, 0.33), 'through each'), 6);
    const hot = verdict(physics, 'junction', {
      regulator: { ...physics.regulator, passes: 3, emitterOhm: 0 } as Design['regulator'],
    });
    expect(hot.figure.assumes.join()).toMatch(/Nothing makes the transistors share/);
    expect(verdict(physics, 'junction').figure.assumes.join()).not.toMatch(/Nothing makes/);
  });

  test('a bench supply is hottest at its lowest output, and says so', () => {
    expect(verdict(physics, 'junction').sentence).toMatch(/at its lowest output\.$/);
    expect(verdict(clock, 'junction').sentence).not.toMatch(/lowest output/);
    expect(verdict(clock, 'junction').reason).toMatch(/limits itself/);
    expect(verdict(physics, 'junction').reason).toMatch(/no limit of its own/);
  });
});

describe('an output that can be set', () => {
  const range = (lowV: number, highV: number): Patch => ({ demand: { range: { lowV, highV } } });
  test('its range is judged where it ends short, below or above', () => {
    // 0 to 25 V by its knobs.
    expect(verdict(physics, 'output-range', range(1, 25)).state).toBe('holds');
    const top = verdict(physics, 'output-range', range(1, 30));
    expect(top.figure.value).toBeCloseTo(5, 6);
    expect(top.limit).toBeCloseTo(0.6, 9);
    expect(top.sentence).toBe('Ends at 25.0 V where 30 V is wanted.');
    const adjustable = {
      kind: 'adjustable',
      part: '317',
      r1Ohm: 240,
      r2Ohm: 1000,
      potOhm: 5000,
      adjCapacitor: true,
    } as const;
    const low = verdict(clock, 'output-range', { regulator: adjustable, ...range(1.5, 20) });
    // 1.25 × (1 + 1000/240) and 50 µA through it.
    expect(low.figure.value).toBeCloseTo(1.25 * (1 + 1000 / 240) + 0.05 - 1.5, 3);
    expect(low.sentence).toMatch(/^Begins at 6\.5\d? V where 1\.5 V is wanted\.$/);
  });

  test('it is judged by how well it stays where it was set, not by the volts it ends at', () => {
    const set = verdict(physics, 'output-window', range(1, 25));
    expect((input(set, 'window from') + input(set, 'to')) / 2).toBeCloseTo(25, 6);
  });
});

test('a further output is judged under its own name, a twin as the minus rail', () => {
  const chime = {
    name: 'Chime logic',
    rail: 'plus',
    demand: outputDemand({ outputV: 5, outputA: 0.45, tolerancePct: 5, rippleVpp: 0.02, kind: 'current' }),
    regulator: { kind: 'fixed', size: '78M', outputV: 5 },
    regulatorSheet: null,
    sinkKPerW: 60,
  } as const;
  const v = verdict(clock, 'junction', { outputs: [chime] });
  expect(v.output).toBe('out-1');
  // A sentence goes on behind the name in small letters, a number as it is.
  expect(v.sentence).toMatch(/^Chime logic: (more than 350 °C|\d)/);
  expect(v.at).not.toBeNull();
  const minus = verdict(drum, 'ripple-current', { demand: { negativeA: 0.6 } });
  expect(minus.output).toBe('minus');
  expect(minus.sentence).toMatch(/^Minus rail: \d/);
  expect(verdict(drum, 'ripple-current', { demand: { negativeA: 0.01 } }).output).toBe('main');
});

test('several bare transistors share the air as they share the current', () => {
  const v = verdict(physics, 'sink-touch', {
    heat: { sinkKPerW: null },
    regulator: { ...physics.regulator, passes: 3, emitterOhm: 0.33 } as Design['regulator'],
  });
  // A TO-247 of its class: 36 K/W to the air, 1.39 of them inside, a third of both for three.
  expect(input(v, 'junction to air')).toBeCloseTo(12, 9);
  expect(input(v, 'junction to case')).toBeCloseTo(1.39 / 3, 9);
  expect(v.figure.value).toBeCloseTo(input(v, 'air') + input(v, 'watts in it') * (12 - 1.39 / 3), 6);
  expect(v.title).toBe('The part to the touch');
});
