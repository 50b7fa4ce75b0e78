import { applyPatch, type Design, type Edit, type Patch } from '@/core/design/design';
import * as cures from '@/core/judge/cures';
import { curesOf, touchesFixed, withinBorders } from '@/core/judge/cures-of';
import { ruleOf, type RuleId } from '@/core/judge/rules';
import { outputDemand } from '@/core/design/defaults';
import { readDesign } from '@/core/design/schema';
import { clock, dome, pen, drum, tide, physics, first, logger } from '../support/demos';

const labels = (edits: readonly Edit[]) => edits.map((e) => e.label);
const offered = (d: Design, id: RuleId, patch: Patch = {}) => ruleOf(id).cures(applyPatch(d, patch));

const follower = {
  kind: 'follower',
  zenerV: 24.6,
  zenerW: 1.3,
  transistor: 'tip122',
  passes: 1,
  emitterOhm: 0,
  gain: null,
  seriesOhm: 470,
  limitOhm: null,
} as const;
const error = {
  kind: 'error-transistor',
  zenerV: 6.2,
  upperOhm: 2200,
  potOhm: null,
  lowerOhm: 1000,
  transistor: 'tip122',
  passes: 1,
  emitterOhm: 0,
  gain: null,
  driveOhm: 1000,
  limitOhm: null,
} as const;
const adjustable = {
  kind: 'adjustable',
  part: '317M',
  r1Ohm: 240,
  r2Ohm: 4300,
  potOhm: null,
  adjCapacitor: false,
} as const;

describe('reservoir', () => {
  test('a missing can begins at 100 µF; a better one has half the ESR and half as much ripple again', () => {
    const none = applyPatch(dome, { reservoir: { capacitanceF: 0 } });
    expect(labels(cures.biggerReservoir(none, [1, 2]))).toEqual(['Reservoir 150 µF', 'Reservoir 220 µF']);
    const typical = applyPatch(clock, { reservoir: { esrOhm: null, rippleA: null } });
    const { reservoir } = cures.betterGrade(typical)[0]!.patch;
    // The sheet of the demo says 42.1 mΩ typical.
    expect(reservoir!.esrOhm).toBeCloseTo(0.0421 / 2, 3);
    expect(reservoir!.rippleA).toBeGreaterThan(3);
    expect(reservoir!.rippleA).toBeLessThan(9);
  });

  test('rated volts go along what is sold and end with it', () => {
    expect(labels(cures.reservoirVolts(clock, [1, 2]))).toEqual(['Reservoir rated 63 V', 'Reservoir rated 80 V']);
    expect(cures.reservoirVolts(applyPatch(clock, { reservoir: { ratedV: 450 } }), [1, 2])).toEqual([]);
    expect(labels(cures.reservoirVolts(applyPatch(clock, { reservoir: { ratedV: 400 } }), [1, 2]))).toEqual([
      'Reservoir rated 450 V',
    ]);
  });
});

describe('what feeds it', () => {
  test('a battery gains or loses a pair of cells, with everything that is theirs', () => {
    // 12.9 V fresh: eight cells of 1.6 V.
    const [more, fewer] = cures.windingVolts(logger, [1, -1]) as [Edit, Edit];
    expect(labels([more, fewer])).toEqual(['Battery of 16.1 V fresh', 'Battery of 9.68 V fresh']);
    expect(more.patch.source).toMatchObject({ freshV: 16.1, emptyV: 13.8, resistanceOhm: 0.0438, capacityAh: 7 });
    expect(fewer.patch.source).toMatchObject({ freshV: 9.68, emptyV: 8.25, resistanceOhm: 0.0263 });
    const one = applyPatch(logger, { source: { ...logger.source, freshV: 1.5, emptyV: 1 } as Design['source'] });
    expect(cures.windingVolts(one, [-1, -2])).toEqual([]);
    expect(cures.transformerSize(logger, [1, 2])).toEqual([]);
  });

  test('adapters as they are sold', () => {
    const adapter = {
      kind: 'adapter',
      ratedV: 12,
      ratedA: 1,
      idlePct: 5,
      spreadPct: 5,
      rippleVpp: 0.1,
      limitA: 1.2,
      reverseDiode: true,
    } as const;
    const fed = applyPatch(logger, { source: adapter });
    expect(labels(cures.windingVolts(fed, [1, 2, -1]))).toEqual([
      'Adapter of 15 V',
      'Adapter of 18 V',
      'Adapter of 9 V',
    ]);
    const stronger = offered(fed, 'source-current');
    expect(stronger.map((e) => e.patch.source)).toMatchObject([
      { ratedA: 1.5, limitA: 1.8 },
      { ratedA: 2, limitA: 2.4 },
      { ratedA: 3, limitA: 3.6 },
    ]);
    const soft = offered(logger, 'source-current', { source: { ...adapter, limitA: null } });
    expect(soft[0]!.patch.source).toMatchObject({ ratedA: 1.5, limitA: null });
    expect(offered(logger, 'source-current')).toEqual([]);
    expect(offered(clock, 'source-current')).toEqual([]);
  });

  test('a winding wound by hand gets turns, one off the shelf another plate', () => {
    // 62 turns for 25.5 V: 60.8 for 25 V.
    const [wound] = cures.windingVolts(dome, [-1]) as [Edit];
    expect(wound.label).toBe('Winding 25 V');
    expect(wound.patch.transformer).toMatchObject({ ratedV: 25, source: { plan: { secondaryTurns: 61 } } });
    expect(cures.windingVolts(clock, [1])[0]!.patch.transformer).toEqual({ ratedV: 25, source: { kind: 'plate' } });
  });
});

describe('rectifier', () => {
  test('every other class, valves only in the place of valves, nothing where nothing rectifies', () => {
    const others = cures.otherDiodes(clock).map((e) => e.patch.rectifier!.diode);
    expect(others).not.toContain('si-3a');
    expect(others.some((id) => id!.startsWith('valve'))).toBe(false);
    expect(others).toContain('si-8a');
    const valved = applyPatch(tide, { rectifier: { diode: 'valve-stiff', rated: null, sheet: null } });
    expect(cures.otherDiodes(valved).some((e) => e.patch.rectifier!.diode!.startsWith('valve'))).toBe(true);
    expect(cures.otherDiodes(valved).some((e) => e.patch.rectifier!.diode!.startsWith('si'))).toBe(true);
    const bare = applyPatch(logger, { source: { ...logger.source, reverseDiode: false } as Design['source'] });
    expect(cures.otherDiodes(bare)).toEqual([]);
    // What a data sheet said of the old one goes with it.
    expect(cures.otherDiodes(clock)[0]!.patch.rectifier).toMatchObject({ rated: null, sheet: null });
  });

  test('both half waves from the winding there is; no direct current from whichever', () => {
    const half = applyPatch(clock, { rectifier: { kind: 'half-wave' } });
    expect(cures.fullWave(half).map((e) => e.patch.rectifier!.kind)).toEqual(['bridge']);
    expect(cures.balancedKinds(half).map((e) => e.patch.rectifier!.kind)).toEqual(['centre-tap', 'bridge']);
    const split = applyPatch(drum, { rectifier: { kind: 'split-half-wave' } });
    for (const e of cures.fullWave(split)) expect(['split-bridge', 'two-bridges']).toContain(e.patch.rectifier!.kind);
    expect(cures.fullWave(logger)).toEqual([]);
    expect(cures.balancedKinds(logger)).toEqual([]);
  });

  test('a sink of its own, step by step below the one it has, or the regulator’s', () => {
    expect(labels(cures.rectifierSinks(clock))).toEqual([
      'Rectifier on a sink of 15 K/W',
      'Rectifier on a sink of 8 K/W',
      'Rectifier on a sink of 4 K/W',
      'Rectifier on a sink of 2.2 K/W',
      'Rectifier on the regulator’s sink',
    ]);
    expect(labels(cures.rectifierSinks(applyPatch(clock, { heat: { rectifierSinkKPerW: 4 } })))).toEqual([
      'Rectifier on a sink of 2.2 K/W',
      'Rectifier on the regulator’s sink',
    ]);
    for (const d of [
      dome,
      applyPatch(clock, { heat: { sharedWithRectifier: true } }),
      applyPatch(clock, { heat: { sinkKPerW: null } }),
    ])
      expect(labels(cures.rectifierSinks(d))).not.toContain('Rectifier on the regulator’s sink');
    expect(cures.rectifierSinks(clock)[0]!.patch.heat).toMatchObject({ sharedWithRectifier: false });
  });
});

describe('regulator', () => {
  test('a limit a fifth above the load, where there is none or it lies far above', () => {
    const of = (limitOhm: number | null) => applyPatch(clock, { regulator: { ...follower, limitOhm } });
    // 0.65 V over 1.44 A: 0.45 Ω, sold as 0.47.
    const [edit] = cures.limiting(of(null)) as [Edit];
    expect(edit.label).toBe('Limit at 1.4 A');
    expect(edit.patch.regulator).toMatchObject({ limitOhm: 0.47 });
    expect(cures.limiting(of(0.33))).toHaveLength(1);
    expect(cures.limiting(of(0.47))).toEqual([]);
    expect(cures.limiting(clock)).toEqual([]);
  });

  test('zeners, series and drive resistors a step or more up, and only where they are', () => {
    const zener = applyPatch(clock, { regulator: follower });
    expect(labels(cures.zenerWatts(zener))).toEqual(['Zener of 5 W', 'Zener of 10 W', 'Zener of 20 W']);
    expect(labels(cures.seriesResistors(zener))).toEqual([
      'Series resistor 680 Ω',
      'Series resistor 1 kΩ',
      'Series resistor 2.2 kΩ',
    ]);
    const driven = applyPatch(clock, { regulator: error });
    expect(labels(cures.seriesResistors(driven))).toEqual([
      'Drive resistor 1.5 kΩ',
      'Drive resistor 2.2 kΩ',
      'Drive resistor 4.7 kΩ',
    ]);
    expect(cures.seriesResistors(driven)[0]!.patch.regulator).toMatchObject({
      kind: 'error-transistor',
      driveOhm: 1500,
    });
    for (const d of [clock, driven]) expect(cures.zenerWatts(d)).toEqual([]);
    expect(cures.seriesResistors(clock)).toEqual([]);
    expect(labels(offered(zener, 'small-heat')).slice(0, 6)).toEqual([
      ...labels(cures.zenerWatts(zener)),
      ...labels(cures.seriesResistors(zener)),
    ]);
  });

  test('more transistors come with resistors that make them share', () => {
    // A tenth of a volt each at 1.65 A by three is 0.18 Ω; sold as 0.22, one up for certain: 0.33... by four 0.24, 0.33.
    const [three] = cures.morePasses(
      applyPatch(first, { regulator: { ...(first.regulator as object), passes: 2 } as never }),
      [1],
    ) as [Edit];
    expect(three.label).toBe('3 pass transistors');
    const made = three.patch.regulator as { passes: number; emitterOhm: number };
    expect((made.emitterOhm * 1.65) / made.passes).toBeGreaterThan(0.1);
    expect((made.emitterOhm * 1.65) / made.passes).toBeLessThan(0.3);
    expect(cures.morePasses(clock, [1])).toEqual([]);
    expect(cures.emitterResistors(first)).toEqual([]);
    expect(cures.emitterResistors(clock)).toEqual([]);
    // Physics room, 3 × 0.15 Ω: 83 mV each at the limit, and more is offered; at 0.33 Ω nothing is.
    expect(labels(cures.emitterResistors(physics))).toEqual(['Emitter resistors of 330 mΩ']);
    const enough = applyPatch(physics, {
      regulator: { ...physics.regulator, emitterOhm: 0.33 } as Design['regulator'],
    });
    expect(cures.emitterResistors(enough)).toEqual([]);
  });

  test('a bigger member of its family for more current', () => {
    expect(labels(offered(clock, 'regulator-current', { regulator: adjustable }))).toEqual([
      '317, 1.5 A',
      '350, 3 A',
      '338, 5 A',
    ]);
    const ldo = offered(logger, 'regulator-current');
    expect(labels(ldo)).toEqual(['Low-dropout 1.5 A, TO-220', 'Low-dropout 3 A, TO-220']);
    expect(ldo[0]!.patch.regulator).toMatchObject({ part: 'ldo-1a5', outputV: 5 });
    expect(labels(offered(pen, 'regulator-current'))).toEqual(['78S12, 2 A']);
    expect(
      labels(offered(pen, 'regulator-current', { regulator: { kind: 'fixed', size: '78L', outputV: 12 } })),
    ).toEqual(['78M12, 500 mA', '7812, 1 A', '78S12, 2 A']);
    expect(labels(offered(first, 'regulator-current'))).toEqual(['2 pass transistors', '3 pass transistors']);
  });

  test('one with a tab for one that is too small for its heat', () => {
    const small = offered(pen, 'junction', { regulator: { kind: 'fixed', size: '78L', outputV: 12 } });
    expect(labels(small).filter((l) => l.startsWith('78'))).toEqual([
      '78M12 in TO-220',
      '7812 in TO-220',
      '78S12 in TO-220',
    ]);
    expect(small.find((e) => e.label.startsWith('7812'))!.patch.regulator).toEqual({
      kind: 'fixed',
      size: '78',
      outputV: 12,
    });
    expect(labels(offered(pen, 'junction')).some((l) => l.startsWith('78'))).toBe(false);
  });

  test('the regulator that is made for the volts and bears the current', () => {
    const right = (patch: Patch) =>
      labels(offered(pen, 'output-window', patch)).filter((l) => l.startsWith('Regulator'));
    expect(right({ regulator: { kind: 'none' } })).toEqual(['Regulator 7812', 'Regulator 78S12']);
    expect(right({})).toEqual(['Regulator 78S12']);
    expect(right({ regulator: { kind: 'fixed', size: '78', outputV: 9 } })).toEqual([
      'Regulator 7812',
      'Regulator 78S12',
    ]);
    // An ampere is what a 7812 is rated for.
    expect(right({ regulator: { kind: 'none' }, demand: { outputA: 1 } })).toEqual([
      'Regulator 7812',
      'Regulator 78S12',
    ]);
    expect(right({ regulator: { kind: 'none' }, demand: { outputA: 1.01 } })).toEqual(['Regulator 78S12']);
    expect(right({ regulator: { kind: 'none' }, demand: { outputV: 13 } })).toEqual([]);
  });

  test('its least load: a smaller divider in proportion, or a lamp that is worth seeing', () => {
    const edits = offered(clock, 'minimum-load', { regulator: { ...adjustable, r1Ohm: 220, potOhm: 500 } });
    expect(labels(edits)).toEqual([
      'R1 180 Ω, the divider in proportion',
      'R1 120 Ω, the divider in proportion',
      'An indicator at the output, 10 mA',
    ]);
    // 180/220 of 4300 and of 500.
    expect(edits[0]!.patch.regulator).toMatchObject({ r1Ohm: 180, r2Ohm: 3520, potOhm: 409 });
    expect(offered(clock, 'minimum-load', { regulator: adjustable })[0]!.patch.regulator).toMatchObject({
      potOhm: null,
    });
    expect(labels(offered(clock, 'minimum-load', { demand: { outputV: 3 } }))).toEqual([]);
    expect(labels(offered(clock, 'minimum-load', { demand: { outputV: 3.3 } }))).toHaveLength(1);
    const lit = { indicator: { at: 'rail', currentA: 0.01, forwardV: 2 } } as const;
    expect(offered(clock, 'minimum-load', lit)).toEqual([]);
  });

  test('a capacitor at ADJ, a rail for the op-amps, each once', () => {
    expect(labels(cures.adjCapacitor(applyPatch(clock, { regulator: adjustable })))).toEqual(['10 µF at ADJ']);
    expect(cures.adjCapacitor(applyPatch(clock, { regulator: { ...adjustable, adjCapacitor: true } }))).toEqual([]);
    expect(cures.adjCapacitor(clock)).toEqual([]);
    expect(labels(cures.opampRail(physics))).toEqual(['Op-amps on a rail of their own']);
    const own = applyPatch(physics, { regulator: { ...physics.regulator, opampRail: 'own' } as Design['regulator'] });
    expect(cures.opampRail(own)).toEqual([]);
    expect(cures.opampRail(clock)).toEqual([]);
  });

  test('a zener and a follower ahead, with volts, current and resistor worked out', () => {
    // 24 V, 1.9 V of dropout, 2 V to spare, 1.5 V base to emitter: 29.4, sold as 30. (4 mA + 1.2 A / 1000) at 3 V: 577 Ω.
    const [edit] = cures.zenerAhead(clock) as [Edit];
    expect(edit.label).toBe('A 30 V zener and TIP122 ahead of it');
    expect(edit.patch.preRegulator).toEqual({ kind: 'zener', zenerV: 30, seriesOhm: 560, transistor: 'tip122' });
    // 70 % of 5 A is 3.5 A.
    expect(cures.zenerAhead(applyPatch(clock, { demand: { outputA: 3.6 } }))[0]!.patch.preRegulator).toMatchObject({
      transistor: 'tip3055',
    });
    expect(
      cures.zenerAhead(applyPatch(clock, { preRegulator: edit.patch.preRegulator as Design['preRegulator'] })),
    ).toEqual([]);
    expect(cures.zenerAhead(dome)).toEqual([]);
    expect(cures.zenerAhead(physics)).toEqual([]);
    expect(cures.zenerAhead(applyPatch(clock, { demand: { outputA: 20 } }))).toEqual([]);
    // What it would hold is more than the part bears: 5 V + dropout + 2 V is well under 15 V, 12 V is not.
    const ldo = (outputV: number) =>
      applyPatch(logger, {
        regulator: { kind: 'low-dropout', part: 'ldo-800', outputV, boardCm2: 6 },
        demand: { outputV },
      });
    expect(cures.zenerAhead(ldo(5))).toHaveLength(1);
    expect(cures.zenerAhead(ldo(12))).toEqual([]);
    const ahead = applyPatch(clock, { preRegulator: { kind: 'tracking', aboveV: 4, transistor: 'tip122' } });
    expect(cures.otherAhead(ahead).map((e) => (e.patch.preRegulator as { transistor: string }).transistor)).toEqual([
      'bd139',
      'tip3055',
      '2n3055',
      'mj15003',
    ]);
    expect(cures.otherAhead(clock)).toEqual([]);
  });
});

describe('choke and bleeder', () => {
  test('a bleeder that carries the critical current by itself, or one step short of it', () => {
    // 3·2π·50·15: 14.1 kΩ; three quarters of it, and 1.3 times.
    const of = (bleederOhm: number | null) =>
      labels(cures.heavierBleeder(applyPatch(tide, { filter: { bleederOhm } })));
    expect(of(null)).toEqual(['Bleeder 10 kΩ', 'Bleeder 18 kΩ']);
    expect(of(15000)).toEqual(['Bleeder 10 kΩ']);
    expect(of(10000)).toEqual([]);
    expect(cures.heavierBleeder(clock)).toEqual([]);
  });

  test('a larger choke, a stronger one, each on both sides of the reservoir and nothing else', () => {
    const choke = { kind: 'choke', inductanceH: 10, resistanceOhm: 200, ratedA: 0.1, swinging: false } as const;
    const cap = { kind: 'capacitor', capacitanceF: 1e-5, ratedV: 350 } as const;
    const d = applyPatch(tide, { filter: { before: [cap, choke], after: [choke, cap] } });
    expect(cures.largerChoke(d, [1, 3])).toEqual([
      { label: 'Choke 12 H', patch: { filter: { before: [cap, { ...choke, inductanceH: 12 }] } } },
      { label: 'Choke 18 H', patch: { filter: { before: [cap, { ...choke, inductanceH: 18 }] } } },
    ]);
    expect(ruleOf('choke-rating').cures(d)[0]).toEqual({
      label: 'Choke 1 size up',
      patch: { filter: { before: [cap, { ...choke, ratedA: 0.12 }], after: [{ ...choke, ratedA: 0.12 }, cap] } },
    });
    expect(ruleOf('filter-voltage').cures(d)[1]).toEqual({
      label: 'Filter capacitors 2 steps up in volts',
      patch: { filter: { before: [{ ...cap, ratedV: 450 }, choke], after: [choke, { ...cap, ratedV: 450 }] } },
    });
  });
});

describe('heat and air', () => {
  test('sinks go down in K/W as they are sold, a bare part is offered four', () => {
    expect(labels(cures.sinks(clock, [1, 2, 3]))).toEqual(['Heatsink 1.2 K/W', 'Heatsink 1 K/W', 'Heatsink 0.8 K/W']);
    expect(labels(cures.sinks(applyPatch(clock, { heat: { sinkKPerW: null } }), [1]))).toEqual([
      'Heatsink 20 K/W',
      'Heatsink 10 K/W',
      'Heatsink 5 K/W',
      'Heatsink 2.7 K/W',
    ]);
    expect(cures.sinks(applyPatch(clock, { heat: { sinkKPerW: 0.5 } }), [1, 2])).toEqual([]);
    expect(labels(cures.fans(clock))).toEqual(['Fan over the sink']);
    expect(cures.fans(applyPatch(clock, { heat: { fan: 'fixed' } }))).toEqual([]);
    expect(cures.fans(applyPatch(clock, { heat: { sinkKPerW: null } }))).toEqual([]);
  });

  test('a box gets vents, its sink outside, more surface', () => {
    const of = (heat: Patch['heat']) => labels(offered(clock, 'inside-air', { heat }));
    expect(of({ box: 'closed', boxCm2: 1000, sinkOutside: false })).toEqual([
      'Vents in the box',
      'Sink outside the box',
      'Box with 1500 cm²',
      'Box with 2500 cm²',
    ]);
    expect(of({ box: 'vented', boxCm2: 1000, sinkOutside: true })).toEqual(['Box with 1500 cm²', 'Box with 2500 cm²']);
    expect(of({ box: 'vented', boxCm2: 1000, sinkOutside: false, sinkKPerW: null })).toHaveLength(2);
  });

  test('swapped leads: a diode in the lead, or a plug that cannot be swapped', () => {
    const bare = { source: { ...logger.source, reverseDiode: false } as Design['source'] };
    const edits = offered(logger, 'reverse-polarity', bare);
    expect(labels(edits)).toEqual(['Schottky diode in the lead', 'Silicon diode in the lead', 'A keyed plug']);
    expect(edits[0]!.patch).toMatchObject({ source: { reverseDiode: true }, rectifier: { diode: 'sk-3a' } });
    expect(edits[1]!.patch).toMatchObject({ source: { reverseDiode: true }, rectifier: { diode: 'si-3a' } });
    expect(edits[2]!.patch).toEqual({ mainsSide: { polarised: true } });
    expect(offered(logger, 'reverse-polarity')).toEqual([]);
    expect(offered(clock, 'reverse-polarity')).toEqual([]);
  });
});

describe('a cure found at a further output', () => {
  const chime = {
    name: 'Chime logic',
    rail: 'plus',
    demand: outputDemand({ outputV: 5, outputA: 0.3, tolerancePct: 5, rippleVpp: 0.02, kind: 'current' }),
    regulator: { kind: 'fixed', size: '78M', outputV: 5 },
    regulatorSheet: null,
    sinkKPerW: 20,
  } as const;
  const d = applyPatch(clock, { outputs: [chime, { ...chime, name: 'Bell' }] });

  test('is made there, and named after it', () => {
    const cure = curesOf(d, 'junction', 'out-1').find((e) => e.label.startsWith('Heatsink'))!;
    expect(cure.label).toMatch(/^Heatsink 15 K\/W, Chime logic$/);
    const after = applyPatch(d, cure.patch);
    expect(after.outputs.map((o) => o.sinkKPerW)).toEqual([15, 20]);
    expect(after.heat).toEqual(d.heat);
    expect(after.regulator).toEqual(d.regulator);
    const bigger = curesOf(d, 'regulator-current', 'out-2')[0]!;
    expect(bigger.label).toBe('7805, 1 A, Bell');
    expect(applyPatch(d, bigger.patch).outputs.map((o) => (o.regulator as { size: string }).size)).toEqual([
      '78M',
      '78',
    ]);
  });

  test('on one sink for all it is the one sink, and what is the main one’s alone is not offered', () => {
    const together = applyPatch(d, { heat: { oneSink: true } });
    const cure = curesOf(together, 'junction', 'out-1').find((e) => e.label.startsWith('Heatsink'))!;
    const after = applyPatch(together, cure.patch);
    expect(after.heat.sinkKPerW).toBe(1.2);
    expect(after.outputs).toEqual(together.outputs);
    expect(cure.label).toBe('Heatsink 1.2 K/W');
    for (const e of [...curesOf(d, 'junction', 'out-1'), ...curesOf(d, 'regulator-input', 'out-1')])
      expect(e.label).not.toMatch(/Fan|ahead of it/);
    // What feeds all of them is offered as it is.
    const winding = curesOf(d, 'headroom', 'out-1').find((e) => e.label.startsWith('Winding'))!;
    expect(winding.label).toBe('Winding 25 V');
    expect(curesOf(d, 'headroom', null).map((e) => e.label)).toEqual(
      curesOf(d, 'headroom', 'main').map((e) => e.label),
    );
  });
});

describe('what is as it is', () => {
  test('each part is told by what a patch would replace', () => {
    const fixed = (role: Design['fixed'][number]) => ({ ...physics, fixed: [role] });
    const other = { ...physics.regulator, passes: 4 } as Design['regulator'];
    const stronger = { ...physics.regulator, transistor: 'mj15003' } as Design['regulator'];
    const CASES: [Design['fixed'][number], Patch, boolean][] = [
      ['transformer', { transformer: { ratedV: 30 } }, true],
      ['transformer', { source: { kind: 'mains' } }, true],
      ['transformer', { reservoir: { capacitanceF: 1e-3 } }, false],
      ['rectifier', { rectifier: { diode: 'si-8a' } }, true],
      ['reservoir', { reservoir: { capacitanceF: 1e-3 } }, true],
      ['choke', { filter: { before: [] } }, true],
      ['choke', { filter: { after: [] } }, true],
      ['choke', { filter: { bleederOhm: 1000 } }, false],
      ['regulator', { regulator: other }, true],
      ['regulator', { regulator: { ...physics.regulator } }, false],
      ['transistor', { regulator: other }, false],
      ['transistor', { regulator: stronger }, true],
      ['transistor', { regulator: { kind: 'fixed', size: '78', outputV: 24 } }, true],
      ['sink', { heat: { sinkKPerW: 0.8 } }, true],
      ['sink', { heat: { rectifierSinkKPerW: 4 } }, true],
      ['sink', { heat: { fan: 'fixed' } }, false],
    ];
    for (const [role, patch, touches] of CASES)
      expect([role, patch, touchesFixed(fixed(role), patch)]).toEqual([role, patch, touches]);
    expect(touchesFixed(physics, { transformer: { ratedV: 30 } })).toBe(false);
  });

  test('what a section by itself lets in the whole document lets in, and the other way round', () => {
    const PATCHES: Patch[] = [
      { reservoir: { capacitanceF: 1 } },
      { reservoir: { capacitanceF: 1.5 } },
      { transformer: { ratedV: 24, ratedVA: 0 } },
      { demand: { leastA: 5, outputA: 1 } },
      { demand: { outputA: -1 } },
      { regulator: { kind: 'fixed', size: '78', outputV: 24 } },
      { regulator: { kind: 'fixed', size: '78', outputV: 23.7 } as never },
      { rectifier: { diode: 'no such' as never } },
      { filter: { before: [{ kind: 'resistor', resistanceOhm: -2, ratedW: 1 } as never] } },
      { heat: { sinkKPerW: null }, mains: { frequencyHz: 50 } },
      { heat: { sinkKPerW: 1e9 }, mains: { frequencyHz: 50 } },
      { outputs: [{ name: 'half an output' } as never] },
      { nothing: { of: 'that' } } as never,
    ];
    const said = [clock, drum, logger].map((d) =>
      PATCHES.map((patch) => [withinBorders(d, patch), readDesign(applyPatch(d, patch)).ok]),
    );
    for (const list of said) for (const [part, whole] of list) expect(part).toBe(whole);
    expect(said[0]!.map(([part]) => part)).toEqual([
      ...[true, false, false, false, false, true, false, false, false, true, false, false, false],
    ]);
  });

  test('no cure leaves the document’s borders', () => {
    expect(withinBorders(clock, { reservoir: { capacitanceF: 1 } })).toBe(true);
    expect(withinBorders(clock, { reservoir: { capacitanceF: 1.5 } })).toBe(false);
    const most = applyPatch(clock, { reservoir: { capacitanceF: 1 } });
    expect(labels(curesOf(most, 'headroom', 'main')).filter((l) => l.startsWith('Reservoir'))).toEqual([]);
  });
});
