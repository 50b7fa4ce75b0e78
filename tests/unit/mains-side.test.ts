import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { checkPoints, type MainsFacts } from '@/core/mains-side/check-points';
import { mainsSide } from '@/core/mains-side/mains-side';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';

const [clock, dome, , drum, tide, , , logger] = demoDesigns() as Design[];
const bare = applyPatch(clock!, {
  mainsSide: {
    insulation: 'class I',
    box: 'metal',
    polarised: false,
    homeWound: false,
    primaryFuseA: 0.5,
    secondaryFuseA: null,
    switchPoles: 2,
    softStart: false,
    thermalCutout: false,
  },
});

/** Facts as a careful builder would like them: a fuse from 0.4 to 0.8 A, a winding that bears up to 4 A, nothing charged. */
const quiet: MainsFacts = {
  fuse: { ratedA: 0.5, leastA: 0.4, mostA: 0.8, because: 'running' },
  rushI2t: 0.3,
  surelyBlows: true,
  secondaryFuseA: null,
  secondaryLeastA: 1.5,
  secondaryMostA: 4,
  windingShortA: 20,
  needsBleeder: false,
  dischargeS: null,
  startV: 30,
  joule: 1,
  bleederOhm: null,
  highV: 253,
};

type Side = NonNullable<Patch['mainsSide']>;
const points = (side: Side, facts: Partial<MainsFacts> = {}, patch: Patch = {}) =>
  checkPoints(applyPatch(bare, { ...patch, mainsSide: side }), { ...quiet, ...facts });
const point = (id: string, side: Side, facts: Partial<MainsFacts> = {}, patch: Patch = {}) =>
  points(side, facts, patch).find((p) => p.id === id);
const states = (list: ReturnType<typeof points>) => list.map((p) => `${p.id} ${p.state}`);

describe('the whole list', () => {
  test('of an earthed metal box with bought parts, in the order of the hand', () => {
    expect(states(points({}))).toEqual([
      'inlet look',
      'fuse done',
      'secondary-fuse done',
      'switch done',
      'earth look',
      'safety-transformer look',
      'clearance look',
      'cut-out look',
      'label look',
    ]);
  });

  test('of a bought adapter: nothing that stays inside it', () => {
    expect(
      states(
        points(
          { softStart: true, thermalCutout: true },
          { needsBleeder: true, dischargeS: 10 },
          { transformer: { sealed: true } },
        ),
      ),
    ).toEqual(['adapter-approved look', 'adapter-ac look', 'secondary-fuse done', 'bleeder done', 'label look']);
  });

  test('of a plastic box without earth, and of a metal one around a home-wound transformer', () => {
    expect(states(points({ insulation: 'class II', box: 'plastic' })).slice(4, 6)).toEqual([
      'class-two-parts look',
      'safety-transformer look',
    ]);
    expect(states(points({ insulation: 'class II', box: 'metal', homeWound: true })).slice(4, 8)).toEqual([
      'class-two wrong',
      'class-two-metal wrong',
      'class-two-parts look',
      'insulation look',
    ]);
    expect(states(points({ insulation: 'class II', box: 'metal' }))).not.toContain('class-two wrong');
    expect(states(points({ insulation: 'class II', box: 'plastic', homeWound: true }))).not.toContain(
      'class-two-metal wrong',
    );
  });

  test('a ring core above 300 VA wants a soft start, no other and no smaller one', () => {
    const ring = (ratedVA: number, core: 'toroid' | 'laminated', softStart: boolean) =>
      states(points({ softStart }, {}, { transformer: { ratedVA, core } })).filter((s) => s.startsWith('soft-start'));
    expect(ring(301, 'toroid', false)).toEqual(['soft-start wrong']);
    expect(ring(300, 'toroid', false)).toEqual([]);
    expect(ring(1000, 'laminated', false)).toEqual([]);
    expect(ring(301, 'toroid', true)).toEqual(['soft-start done']);
    expect(ring(100, 'laminated', true)).toEqual(['soft-start done']);
  });

  test('a cut-out that is there is done, one that is not is worth a look', () => {
    expect(point('cut-out', { thermalCutout: true })!.state).toBe('done');
    expect(point('cut-out', {})!.state).toBe('look');
  });
});

describe('the primary fuse', () => {
  test.each([
    [null, 'wrong', 'No primary fuse is chosen: 500 mA time-lag fits.'],
    [0.4, 'done', 'Primary fuse 400 mA, time-lag, in the live conductor.'],
    [0.8, 'done', 'Primary fuse 800 mA, time-lag, in the live conductor.'],
    [0.81, 'wrong', 'The 810 mA fuse is above 800 mA.'],
    [0.395, 'wrong', 'The 395 mA fuse is below 400 mA.'],
  ] as const)('%s A of 0.4 to 0.8', (primaryFuseA, state, text) => {
    expect(point('fuse', { primaryFuseA })).toMatchObject({ state, text });
  });

  test('rounding of a limit fails nobody', () => {
    expect(point('fuse', { primaryFuseA: 0.8005 })!.state).toBe('done');
    expect(point('fuse', { primaryFuseA: 0.3998 })!.state).toBe('done');
  });

  test.each([
    ['running', /warm evening/],
    ['full load', /Full load is more/],
    // 2 A²s at 1 A, by the square: 0.0312 at an eighth.
    ['inrush', /about 0\.3 A²s at worst; this fuse melts at 0\.0313 A²s/],
  ] as const)('one that is too small says why: %s', (because, why) => {
    expect(point('fuse', { primaryFuseA: 0.125 }, { fuse: { ...quiet.fuse, because } })!.why).toMatch(why);
  });
});

describe('the secondary fuse', () => {
  test.each([
    ['a short blows the primary, none is fitted', null, { surelyBlows: true }, 'done', /no secondary fuse is needed/],
    [
      'none is fitted where one is asked for',
      null,
      { surelyBlows: false, secondaryFuseA: 2 },
      'wrong',
      /fit 2 A at the winding/,
    ],
    ['the largest the winding bears', 4, {}, 'done', /Secondary fuse 4 A\./],
    ['above what the winding bears', 4.05, {}, 'wrong', /too big for this winding: 4\.00 A at most/],
    ['the least that runs', 1.5, {}, 'done', /Secondary fuse 1\.5 A/],
    ['below what runs', 1.48, {}, 'wrong', /1\.48 A fuse is below 1\.50 A/],
    ['a weak winding that may not carry what runs', 1.1, { secondaryMostA: 1.1 }, 'done', /Secondary fuse 1\.1 A/],
    // 2.75 times 4 A is 11 A.
    [
      'a short that surely blows it',
      4,
      { surelyBlows: false, secondaryFuseA: 4, windingShortA: 11 },
      'done',
      /Secondary fuse 4 A/,
    ],
    [
      'a short that does not',
      4,
      { surelyBlows: false, secondaryFuseA: 4, windingShortA: 10.9 },
      'look',
      /does not surely blow/,
    ],
    [
      'a short that does not, but the primary blows',
      4,
      { surelyBlows: true, windingShortA: 5 },
      'done',
      /Secondary fuse 4 A/,
    ],
  ] as const)('%s', (_, secondaryFuseA, facts, state, text) => {
    const found = point('secondary-fuse', { secondaryFuseA }, facts)!;
    expect(found.state).toBe(state);
    expect(found.text).toMatch(text);
  });

  test('a cut-out stands in for what no fuse sees, and the text says so', () => {
    const found = point(
      'secondary-fuse',
      { secondaryFuseA: 4, thermalCutout: true },
      { surelyBlows: false, secondaryFuseA: 4, windingShortA: 5 },
    )!;
    expect(found).toMatchObject({ state: 'done', text: expect.stringMatching(/and a thermal cut-out/) as string });
  });

  test('two halves are fused each', () => {
    const text = (kind: Design['rectifier']['kind']) =>
      point('secondary-fuse', { secondaryFuseA: 2 }, {}, { rectifier: { kind } })!.text;
    expect(text('centre-tap')).toBe('Secondary fuse 2 A in each half.');
    expect(text('bridge')).toBe('Secondary fuse 2 A.');
  });
});

test('the switch says what it breaks and what it has to bear', () => {
  expect(point('switch', { switchPoles: 2 })!.text).toBe(
    'Both poles are switched; the switch is rated for 253 V and the inrush.',
  );
  expect(point('switch', { switchPoles: 1, polarised: true })!.text).toMatch(/^The live pole is switched/);
  expect(point('switch', { switchPoles: 1, polarised: false })!.state).toBe('wrong');
  expect(point('switch', { switchPoles: 2, polarised: true })!.state).toBe('done');
});

test('earth goes on the case only where the case is metal', () => {
  expect(point('earth', { box: 'metal' })!.text).toMatch(/on the case and every exposed/);
  expect(point('earth', { box: 'plastic' })!.text).toMatch(/Protective earth on every exposed/);
});

describe('what stays charged', () => {
  const charged = { needsBleeder: true, startV: 330, joule: 12, bleederOhm: 82_000 };
  test.each([
    [null, 'wrong', /330 V with 12\.0 J stay in the capacitors: a bleeder of 82\.0 kΩ/],
    [31.4, 'done', /empties every capacitor in 31\.4 s/],
    // A twentieth over the half minute is still the half minute.
    [31.6, 'wrong', /takes 31\.6 s; a case opens in less/],
  ])('discharged after %s s', (dischargeS, state, text) => {
    const found = point('bleeder', {}, { ...charged, dischargeS })!;
    expect(found.state).toBe(state);
    expect(found.text).toMatch(text);
  });
  test('what is harmless asks for none', () => {
    expect(point('bleeder', {})).toBeUndefined();
  });
});

/** A wall adapter that cuts off at 1.3 A. */
const ADAPTER = {
  kind: 'adapter' as const,
  ratedV: 12,
  ratedA: 1,
  idlePct: 30,
  spreadPct: 10,
  rippleVpp: 0.5,
  limitA: 1.3,
  reverseDiode: false,
};

const report = (design: Design) => mainsSide(studyDesign(design));
const figure = (design: Design, id: string) => report(design).figures.find((f) => f.id === id)!;
const input = (design: Design, id: string, label: RegExp) =>
  figure(design, id).inputs.find((i) => label.test(i.label))!.value;

describe('figures of the mains side', () => {
  test('running and full-load current are the root of the squares of what is reflected and what magnetises', () => {
    const study = studyDesign(clock!);
    const found = mainsSide(study);
    const running = found.figures.find((f) => f.id === 'primary-running')!;
    const [lasting, full, magnetising] = running.inputs.map((i) => i.value) as [number, number, number];
    // 10 % of 100 VA / 230 V in a laminated core.
    expect(magnetising).toBeCloseTo((0.1 * clock!.transformer.ratedVA) / clock!.mains.voltageRms, 9);
    expect(running.value).toBeCloseTo(Math.sqrt(Math.min(lasting, full) * full + magnetising ** 2), 9);
    expect(found.figures.find((f) => f.id === 'primary-full')!.value).toBeCloseTo(Math.hypot(full, magnetising), 9);
    // Ampere-turns balance: what the winding carries, by the turns ratio, is what is reflected.
    const most = Math.max(
      ...study.conditions
        .filter((c) => c.load === 'full' && !c.output && !c.alone && c.mainsV === undefined)
        .map((c) => study.at(c).solution.windings[0]!.rmsA),
    );
    const turns = full / most;
    expect(turns * clock!.mains.voltageRms).toBeGreaterThan(clock!.transformer.ratedV);
    expect(turns * clock!.mains.voltageRms).toBeLessThan(1.25 * clock!.transformer.ratedV);
  });

  test('inrush of a laminated core is up to twenty times its rated current, of a ring sixty; its heat by half a sine', () => {
    const rated = clock!.transformer.ratedVA / clock!.mains.voltageRms;
    expect(figure(clock!, 'inrush').value).toBeCloseTo(20 * rated, 9);
    const ring = applyPatch(clock!, { transformer: { core: 'toroid' } });
    expect(figure(ring, 'inrush').value).toBeCloseTo(60 * rated, 9);
    // Mean square of a sine is half its peak's; a quarter of 20 ms.
    expect(figure(clock!, 'inrush-i2t').value).toBeCloseTo(0.5 * (20 * rated) ** 2 * 0.005, 9);
    expect(input(clock!, 'inrush-i2t', /usual/)).toBeCloseTo(0.5 * (10 * rated) ** 2 * 0.005, 9);
    expect(input(clock!, 'inrush-i2t', /peak, worst/)).toBeCloseTo(20 * rated, 9);
    const fused = applyPatch(clock!, { mainsSide: { primaryFuseA: 0.8 } });
    expect(input(fused, 'inrush-i2t', /800 mA time-lag/)).toBeCloseTo(2 * 0.64, 9);
  });

  test('a soft start takes the inrush from the fuse', () => {
    const ring = applyPatch(clock!, { transformer: { core: 'toroid' } });
    const soft = applyPatch(ring, { mainsSide: { softStart: true } });
    expect(input(ring, 'primary-fuse', /^from/)).toBeCloseTo(Math.sqrt(figure(ring, 'inrush-i2t').value / 2), 9);
    expect(input(soft, 'primary-fuse', /^inrush/)).toBe(0);
    expect(report(soft).primaryFuseA!).toBeLessThan(report(ring).primaryFuseA!);
    expect(figure(soft, 'inrush-i2t').assumes).toHaveLength(1);
    expect(figure(ring, 'inrush-i2t').assumes).toHaveLength(0);
  });

  test('a short at low line: open volts over hot copper, and what the primary sees of it', () => {
    const short = figure(clock!, 'short');
    const secondary = short.inputs.find((i) => i.label === 'in the winding')!.value;
    const { mains, transformer } = clock!;
    const open = (short.value / secondary) * mains.voltageRms * (1 - mains.lowPct / 100);
    // Open volts at low line, between the plate's under load and a quarter more.
    expect(open).toBeGreaterThan(transformer.ratedV * (1 - mains.lowPct / 100));
    expect(open).toBeLessThan(1.25 * transformer.ratedV * (1 - mains.lowPct / 100));
    const fused = applyPatch(clock!, { mainsSide: { primaryFuseA: 1 } });
    expect(input(fused, 'short', /surely blows/)).toBeCloseTo(2.75, 9);
  });

  test('energy and discharge: every capacitor by half C V squared, and R C ln of the volts', () => {
    const { reservoir, filter } = tide!;
    const stored = figure(tide!, 'stored');
    let joule = 0;
    for (let n = 0; n < stored.inputs.length; n += 2) {
      const alike = Number(/, (\d+) alike/.exec(stored.inputs[n]!.label)?.[1] ?? 1);
      joule += alike * 0.5 * stored.inputs[n]!.value * stored.inputs[n + 1]!.value ** 2;
    }
    expect(stored.value).toBeCloseTo(joule, 9);
    const all = [...filter.before, ...filter.after].reduce(
      (sum, p) => sum + (p.kind === 'capacitor' ? p.capacitanceF : 0),
      reservoir.capacitanceF * reservoir.cans,
    );
    const discharge = figure(tide!, 'discharge');
    const [ohm, farad, startV] = discharge.inputs.map((i) => i.value) as [number, number, number];
    expect(farad).toBeCloseTo(all, 12);
    expect(ohm).toBe(tide!.filter.bleederOhm);
    const safeV = Math.min(60, Math.sqrt(10 / farad));
    expect(discharge.value).toBeCloseTo(ohm * farad * Math.log(startV / safeV), 6);
    const shown = (label: RegExp) => discharge.inputs.find((i) => label.test(i.label))!.value;
    expect(shown(/^V,/)).toBeCloseTo(safeV, 9);
    expect(shown(/burn/)).toBeCloseTo(startV ** 2 / ohm, 9);
    // What is proposed empties it in the half minute.
    const proposed = report(tide!).bleederOhm!;
    expect(proposed * farad * Math.log(startV / safeV)).toBeCloseTo(30, 6);
  });

  test('low volts and few joules need no bleeder; many joules at low volts do', () => {
    // 1 mF holds its 5 J only at 100 V; 60 V are never reached.
    const small = applyPatch(clock!, { reservoir: { capacitanceF: 0.001, cans: 1 } });
    expect(report(small).bleederOhm).toBeNull();
    // 0.2 F at 24 V and more: 58 J.
    const big = applyPatch(dome!, { reservoir: { capacitanceF: 0.2, cans: 1 } });
    const found = report(big);
    expect(found.figures.find((f) => f.id === 'stored')!.value).toBeGreaterThan(5);
    expect(found.bleederOhm).not.toBeNull();
  });

  test('alike capacitors are counted as such: both rails of a split supply', () => {
    expect(figure(drum!, 'stored').inputs[0]!.label).toMatch(/, 2 alike$/);
    expect(figure(clock!, 'stored').inputs[0]!.label).toBe('reservoir');
    const both = studyDesign(drum!).idle.rails.map((p) => p.reservoir.maxV);
    const each = drum!.reservoir.capacitanceF * drum!.reservoir.cans;
    expect(figure(drum!, 'stored').value).toBeCloseTo(
      both.reduce((sum, v) => sum + 0.5 * each * v * v, 0),
      3,
    );
  });

  test('a secondary fuse is proposed from half as much again as heats it, and never below full load', () => {
    const soft = applyPatch(clock!, { transformer: { ratedVA: 6, regulationPct: 40 }, demand: { outputA: 0.1 } });
    const study = studyDesign(soft);
    const full = study.conditions
      .filter((c) => c.load === 'full' && !c.output && !c.alone && c.mainsV === undefined)
      .map((c) => study.at(c))
      .reduce((a, b) => (b.solution.primary.rmsA > a.solution.primary.rmsA ? b : a)).solution.windings[0]!.rmsA;
    const proposed = mainsSide(study).secondaryFuseA!;
    expect(proposed).toBeGreaterThanOrEqual(1.5 * full);
    expect(proposed).toBeLessThan(1.5 * full * 1.6);
  });
});

describe('the lead of a DC source', () => {
  const battery = (patch: Patch) => applyPatch(logger!, patch);
  const lead = (patch: Patch) => report(battery(patch)).points;
  const state = (patch: Patch, id: string) => lead(patch).find((p) => p.id === id);
  const source = logger!.source as Extract<Design['source'], { kind: 'battery' }>;
  const running = figure(logger!, 'lead-running').value;

  test('its fuse stands half as much again above what runs, on a rated value', () => {
    const fuse = report(logger!).secondaryFuseA!;
    expect(fuse).toBeGreaterThanOrEqual(1.5 * running);
    expect(fuse).toBeLessThan(1.5 * 1.35 * running);
    expect(figure(logger!, 'lead-fuse').value).toBe(fuse);
    expect(report(logger!).primaryFuseA).toBeNull();
    const load = logger!.demand.outputA + logger!.outputs.reduce((sum, o) => sum + o.demand.outputA, 0);
    expect(running).toBeGreaterThan(0.9 * load);
  });

  test('a short is fresh volts over its resistance, never a thousand amperes of nothing', () => {
    expect(figure(logger!, 'lead-short').value).toBeCloseTo(source.freshV / source.resistanceOhm, 9);
    const stiff = battery({ source: { ...source, resistanceOhm: 0.001 } });
    expect(figure(stiff, 'lead-short').value).toBeCloseTo(source.freshV / 0.01, 6);
  });

  test('no fuse: wrong where a short burns the lead, worth a look where it cannot', () => {
    const none = { mainsSide: { secondaryFuseA: null } };
    expect(state({ ...none, source: { ...source, resistanceOhm: source.freshV / 20.1 } }, 'lead-fuse')!.state).toBe(
      'wrong',
    );
    const weak = state({ ...none, source: { ...source, resistanceOhm: source.freshV / 19.9 } }, 'lead-fuse')!;
    expect(weak.state).toBe('look');
    expect(weak.text).toMatch(/19\.9 A is all it drives/);
  });

  test('one that blows in use, one too big, one a short does not blow, and one that fits', () => {
    const fuse = report(logger!).secondaryFuseA!;
    const fused = (secondaryFuseA: number, resistanceOhm = source.resistanceOhm) =>
      state({ mainsSide: { secondaryFuseA }, source: { ...source, resistanceOhm } }, 'lead-fuse')!;
    expect(fused(0.9 * running).text).toMatch(/is below the/);
    expect(fused(0.9 * running).state).toBe('wrong');
    expect(fused(3.01 * fuse).state).toBe('wrong');
    expect(fused(3 * fuse).state).toBe('done');
    expect(fused(fuse).text).toMatch(/close to the battery/);
    // A source so soft that a short draws less than 2.75 times the fuse.
    const soft = source.freshV / (2.7 * fuse);
    expect(fused(fuse, soft)).toMatchObject({
      state: 'look',
      text: expect.stringMatching(/does not surely blow/) as string,
    });
  });

  test('an adapter is asked for its plate, a battery for its terminals; over 60 V for nothing bare', () => {
    const ids = (patch: Patch) => lead(patch).map((p) => p.id);
    expect(ids({})).toEqual(expect.arrayContaining(['battery-terminals', 'battery-switch', 'polarity', 'label']));
    expect(ids({})).not.toContain('touch');
    const adapter: Patch = { source: ADAPTER };
    expect(ids(adapter)).toEqual(expect.arrayContaining(['adapter-dc', 'adapter-approved']));
    expect(ids(adapter)).not.toContain('battery-switch');
    expect(state(adapter, 'polarity')!.state).toBe('look');
    expect(state({ source: { ...source, reverseDiode: true } }, 'polarity')!.state).toBe('done');
    expect(figure(battery(adapter), 'lead-short').value).toBe(1.3);
  });
});

describe('the circumstances that count', () => {
  test.each([clock!, drum!, tide!])(
    'the mains feed what the hardest full and lasting load draw through the windings: %#',
    (design) => {
      const study = studyDesign(design);
      const found = mainsSide(study).figures;
      const most = (load: 'full' | 'lasting') =>
        Math.max(
          ...study.conditions
            .filter((c) => c.load === load && !c.output && !c.alone && c.mainsV === undefined)
            .map((c) => study.at(c).solution.primary.rmsA),
        );
      const [lasting, full] = found.find((f) => f.id === 'primary-running')!.inputs.map((i) => i.value) as [
        number,
        number,
      ];
      expect(lasting / full).toBeCloseTo(most('lasting') / most('full'), 9);
      // A secondary fuse is asked for exactly where a short would not surely blow the primary one.
      for (const primaryFuseA of [0.1, 1, 6.3]) {
        const report = mainsSide(studyDesign(applyPatch(design, { mainsSide: { primaryFuseA } })));
        const blows = report.figures.find((f) => f.id === 'short')!.value >= 2.75 * primaryFuseA;
        expect([primaryFuseA, report.secondaryFuseA === null]).toEqual([primaryFuseA, blows]);
      }
    },
  );

  test('stacked cans are discharged as one, filter capacitors beside them', () => {
    const doubled = applyPatch(tide!, {
      rectifier: { kind: 'doubler' },
      reservoir: { capacitanceF: 100e-6, cans: 1 },
      filter: {
        before: [],
        after: [
          { kind: 'resistor', resistanceOhm: 10 },
          { kind: 'capacitor', capacitanceF: 47e-6, ratedV: 800, esrOhm: null, rippleA: null },
        ],
        bleederOhm: 100_000,
      },
    } as Patch);
    const farad = figure(doubled, 'discharge').inputs[1]!.value;
    expect(farad).toBeCloseTo(50e-6 + 47e-6, 12);
  });

  test('the lead of an unregulated load carries most where the battery is fresh', () => {
    const { freshV, resistanceOhm } = logger!.source as { freshV: number; resistanceOhm: number };
    const bulb = applyPatch(logger!, {
      regulator: { kind: 'none' },
      outputs: [],
      demand: { kind: 'resistance', outputV: 12, outputA: 1, window: { lowV: 5, highV: 20 }, rippleVpp: 5 },
    } as Patch);
    const running = figure(bulb, 'lead-running');
    // 12 ohm behind the battery's own, less the diode in the lead.
    expect(running.value).toBeGreaterThan((freshV - 1) / (12 + resistanceOhm) - 0.02);
    expect(running.value).toBeLessThan(freshV / (12 + resistanceOhm) + 0.02);
    expect(running.inputs[0]!.value).toBeCloseTo(running.value, 2);
  });
});

describe('words and workings of a lead', () => {
  const source = logger!.source as Extract<Design['source'], { kind: 'battery' }>;
  const lead = (patch: Patch) => report(applyPatch(logger!, patch));

  test('a short says where it comes from, and what it does to the lead', () => {
    const short = figure(logger!, 'lead-short');
    expect(short.expression).toBe('open volts / its resistance');
    expect(short.inputs.map((i) => i.value)).toEqual([source.freshV, source.resistanceOhm]);
    const limited = lead({ source: ADAPTER }).figures.find((f) => f.id === 'lead-short')!;
    expect(limited.expression).toBe('where it cuts off');
    const soft = lead({ source: { ...ADAPTER, limitA: null } }).figures.find((f) => f.id === 'lead-short')!;
    expect(soft.expression).toBe('open volts / its resistance');
    expect(soft.value).toBeCloseTo(soft.inputs[0]!.value / soft.inputs[1]!.value, 9);
    const fuse = figure(logger!, 'lead-fuse');
    expect(fuse.inputs[0]!.value).toBe(figure(logger!, 'lead-running').value);
  });

  test('without a fuse it says which fits where leads would glow, and what to look at where they would not', () => {
    const point = (resistanceOhm: number) =>
      lead({ mainsSide: { secondaryFuseA: null }, source: { ...source, resistanceOhm } }).points.find(
        (p) => p.id === 'lead-fuse',
      )!;
    expect(point(0.05).text).toMatch(/No fuse in the lead: .* fits, close to the battery/);
    expect(point(0.05).why).toMatch(/leads glow/);
    expect(point(5).why).toMatch(/Look that its leads/);
  });

  test('over 60 V nothing may be bare within reach', () => {
    const high = lead({
      source: { kind: 'battery', freshV: 72, emptyV: 66, resistanceOhm: 0.2, capacityAh: 10, reverseDiode: true },
      regulator: { kind: 'none' },
      outputs: [],
    } as Patch);
    expect(high.points.map((p) => p.id)).toContain('touch');
    expect(high.points[0]!.id).toBe('lead-fuse');
  });
});

describe('workings of the mains side', () => {
  const of = (d: Design, patch: Patch, id: string) => {
    const figures = mainsSide(studyDesign(applyPatch(d, patch))).figures;
    return figures.find((f) => f.id === id);
  };
  test('a ring core is switched on at thirty to sixty times its current, and fused from twice what runs', () => {
    const ring = { transformer: { core: 'toroid' } } as const;
    expect(of(clock!, ring, 'inrush')!.expression).toBe('30 to 60 times rated current');
    expect(of(clock!, {}, 'inrush')!.expression).toBe('10 to 20 times rated current');
    expect(of(clock!, ring, 'primary-fuse')!.expression).toMatch(/^next standard value from 2 times .* up to 3;/);
    expect(of(clock!, {}, 'primary-fuse')!.expression).toMatch(/^next standard value from 1\.5 times .* up to 2;/);
    expect(of(clock!, {}, 'inrush')!.assumes.join()).toMatch(/not simulated/);
    expect(of(clock!, { mainsSide: { softStart: true } }, 'inrush-i2t')!.assumes.join()).toMatch(/soft start takes it/);
    expect(of(clock!, {}, 'inrush-i2t')!.assumes).toEqual([]);
  });

  test('the fuse’s working has both currents, each with its own figure', () => {
    const fuse = of(clock!, {}, 'primary-fuse')!;
    const value = (label: string) => fuse.inputs.find((i) => i.label === label)?.value;
    expect(value('running')).toBe(of(clock!, {}, 'primary-running')!.value);
    expect(value('full load')).toBe(of(clock!, {}, 'primary-full')!.value);
    expect(value('inrush')).toBe(of(clock!, {}, 'inrush-i2t')!.value);
  });

  test('how long it stays charged is a figure only where something discharges it', () => {
    expect(of(tide!, {}, 'discharge')!.inputs.map((i) => i.label)).toEqual([
      'bleeder, balancing resistors',
      'C, reservoir and filter',
      'V₀',
      'V, safe to touch',
      'they burn',
    ]);
    expect(of(tide!, { filter: { bleederOhm: null } }, 'discharge')).toBeUndefined();
  });

  test('every working is whole', () => {
    for (const d of [clock!, dome!, drum!, tide!, logger!])
      for (const f of mainsSide(studyDesign(d)).figures) {
        for (const w of [f.label, f.expression, f.source]) expect(w).toMatch(/\S/);
        for (const i of f.inputs)
          expect([f.id, Boolean(i.label), Number.isFinite(i.value), typeof i.unit]).toEqual([
            f.id,
            true,
            true,
            'string',
          ]);
      }
  });
});
