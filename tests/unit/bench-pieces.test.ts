import { copperAfter, rowWarmth, Warming } from '@/core/bench/row-warmth';
import { designFaults } from '@/core/bench/design-faults';
import { DesignModel } from '@/core/bench/design-model';
import { findFault } from '@/core/bench/find-fault';
import { fitDesign } from '@/core/bench/fit-design';
import { measuredOf, readingSigma, type MeasuredState } from '@/core/bench/measured';
import { movables } from '@/core/bench/movables';
import { outputFaults } from '@/core/bench/output-faults';
import { readRows, rowsCsv } from '@/core/bench/rows-csv';
import { lineSvg } from '@/core/bench/line-svg';
import { computedLine, type ComputedLine } from '@/core/bench/load-line';
import { stagesOf } from '@/core/bench/stages';
import { tolerances } from '@/core/fit/tolerances';
import { POWERED } from '@/core/bench/reading-choices';
import { soakCsv, soakSvg } from '@/core/bench/soak-files';
import { soakOf, type Soak } from '@/core/bench/soak';
import { takenWords } from '@/core/bench/taken-words';
import { rowFault } from '@/core/bench/row-fault';
import { faultsToHide, hide, SimulatedBuild } from '@/core/bench/simulated-build';
import { conditionsOf } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { CONDITIONS } from '@/core/circuit/condition';
import { applyPatch, type Design, type LoadRow } from '@/core/design/design';
import { caseFaults } from '@/core/fit/case-faults';
import { numberAt } from '@/core/fit/case-model';
import { regulatorOfKind } from '@/core/design/regulator-edit';
import { dice } from '@/core/quantity/dice';
import { clock, dome, drum, logger, pen, physics } from '../support/demos';

const row = (part: Partial<LoadRow>): LoadRow => ({
  at: '2026-05-03T19:00:00Z',
  mainsV: 230,
  fedFrom: 'mains',
  loadA: 1,
  reservoirV: 30,
  rippleV: null,
  outputV: null,
  sinkC: null,
  loadedS: null,
  note: '',
  ...part,
});
const withRows = (design: Design, loadLine: LoadRow[]): Design => ({
  ...design,
  bench: { ...design.bench, readings: [], loadLine },
});

describe('copper as warm as a load line left it', () => {
  // 225 VA: 3000 s × 2.25^¼ = 3674 s. The dome's copper is taken at 70 °C in the end.
  const tau = 3000 * 2.25 ** 0.25;

  test('a load warms by its square, at the pace of the core, and no further than its end', () => {
    const end = (amps: number) => 25 + 45 * (amps / 4) ** 2;
    expect(copperAfter(dome, 25, 4, tau, 70)).toBeCloseTo(25 + 45 * (1 - Math.exp(-1)), 6);
    expect(copperAfter(dome, 25, 2, 1e9, 70)).toBeCloseTo(end(2), 6);
    expect(copperAfter(dome, 70, 0, tau, 70)).toBeCloseTo(25 + 45 * Math.exp(-1), 6);
  });

  test('rows one after the other warm it further; a pause cools it, another evening begins cold', () => {
    const at = (minutes: number) => new Date(Date.parse('2026-05-03T19:00:00Z') + 60_000 * minutes).toISOString();
    const heat = (from: number, s: number) => 70 + (from - 70) * Math.exp(-s / tau);
    const cool = (from: number, s: number) => 25 + (from - 25) * Math.exp(-s / tau);
    const rows = [0, 10, 60, 60 + 300].map((m) => row({ at: at(m), loadA: 4, loadedS: 600 }));
    const [first, second, third, fourth] = rowWarmth(withRows(dome, rows)).map((w) => w!.copperC!);
    expect(first).toBeCloseTo(heat(25, 600), 6);
    // Ten minutes apart, ten minutes loaded: no pause between them.
    expect(second).toBeCloseTo(heat(first!, 600), 6);
    expect(third).toBeCloseTo(heat(cool(second!, 2400), 600), 6);
    expect(fourth).toBeCloseTo(first!, 6);
  });

  test('a row that does not say how long is taken as the design has it, like a battery’s', () => {
    expect(rowWarmth(withRows(dome, [row({}), row({ loadedS: 60, loadA: 0 })]))).toEqual([
      null,
      { copperC: 25, metal: [] },
    ]);
    expect(rowWarmth(withRows(logger, [row({ loadedS: 60 })]))[0]).not.toHaveProperty('copperC');
    expect(measuredOf(withRows(dome, [row({})]))[0]!.state).toEqual({ mainsV: 230, load: 1 });
  });

  test('metal read before it is warm is held against what each load before had left in it', () => {
    // 1.5 K/W: 1.5 × 0.486 × (50 / 1.5)² = 810 s.
    const come = 1 - Math.exp(-300 / 810);
    const at = (minutes: number) => new Date(Date.parse('2026-05-03T19:00:00Z') + 60_000 * minutes).toISOString();
    const sink = { reservoirV: null, sinkC: 45, loadedS: 300 };
    const states = measuredOf(
      withRows(clock, [row({ ...sink, at: at(0), loadA: 0.6 }), row({ ...sink, at: at(5), loadA: 1.2 })]),
    ).map((m) => m.state);
    const shares = states.map((s) => s.metal!.map((m) => [m.loadA, Number(m.share.toFixed(9))]));
    const near = (x: number) => Number(x.toFixed(9));
    expect(shares).toEqual([
      [[0.6, near(come)]],
      [
        [0.6, near(come * (1 - come))],
        [1.2, near(come)],
      ],
    ]);
    const model = new DesignModel(clock);
    const rise = (loadA: number) => model.endRiseK({ mainsV: 230, load: loadA });
    expect(model.predict([{ quantity: 'sink', state: states[1]! }], { sink: 1.2 })[0]! - 35).toBeCloseTo(
      1.2 * (come * (1 - come) * rise(0.6) + come * rise(1.2)),
      9,
    );
    expect(rise(1.2)).toBeGreaterThan(1.4 * rise(0.6));
  });

  test('colder copper leaves more volts: a fifth less of the winding’s share of the loss', () => {
    const model = new DesignModel(dome);
    const at = (copperC: number) =>
      model.predict([{ quantity: 'reservoir', state: { mainsV: 230, load: 4, copperC } }], {})[0]!;
    expect(at(25)).toBeGreaterThan(at(70));
    // 45 K of copper are 17.7 %.
    const [cold, hot] = [at(25), at(70)];
    expect(hot).toBeCloseTo(model.predict([{ quantity: 'reservoir', state: { mainsV: 230, load: 4 } }], {})[0]!, 3);
    expect(cold - hot).toBeGreaterThan(0.2);
    expect(cold - hot).toBeLessThan(1.2);
  });
});

describe('what may move, and what an instrument leaves unsure', () => {
  test('only what a design has: no sink without one, no copper behind a battery, no diode class of a valve', () => {
    const ids = (d: Design) => movables(d).map((m) => m.id);
    expect(ids(clock)).toEqual(['open', 'copper', 'capacitance', 'sink', 'diode']);
    expect(ids(dome)).toEqual(['open', 'copper', 'capacitance', 'diode']);
    expect(ids(logger)).not.toContain('copper');
    expect(ids(applyPatch(clock, { reservoir: { capacitanceF: 0 } }))).not.toContain('capacitance');
    expect(movables(clock).find((m) => m.id === 'capacitance')!.spread).toBeCloseTo(0.1, 9);
    expect(movables(clock).find((m) => m.id === 'open')!.spread).toBe(0.03);
  });

  test('a ripple read on a screen: a twentieth, over the floor the scope has', () => {
    const of = (floor: number, probe: 1 | 10) =>
      readingSigma(applyPatch(clock, { bench: { scopeFloorV: floor, probe } }), 'ripple', 1);
    expect(of(0, 1)).toBeCloseTo(Math.hypot(0.05, 0.002), 9);
    expect(of(0.01, 10)).toBeCloseTo(Math.hypot(0.05, 0.1), 9);
    expect(readingSigma(applyPatch(clock, { bench: { thermometerK: 4 } }), 'sink', 60)).toBe(4);
    expect(readingSigma(applyPatch(clock, { bench: { thermometerK: 0 } }), 'sink', 60)).toBe(0.5);
  });

  test('a ripple above twice the volts, and a row of nothing, are no rows', () => {
    expect(rowFault(row({ reservoirV: 10, rippleV: 20 }))).toBeNull();
    expect(rowFault(row({ reservoirV: 10, rippleV: 20.1 }))).toContain('millivolts');
    expect(rowFault(row({ reservoirV: null }))).toContain('nothing was read');
    expect(rowFault(row({ reservoirV: null, sinkC: 40 }))).toBeNull();
  });

  test('of more rows than there is room for, the rest is said to be left out', () => {
    const { rows, errors } = readRows('0.1,30\n0.2,29\n0.3,28', row({}).at, 230, 24, 2);
    expect(rows.map((r) => r.loadA)).toEqual([0.1, 0.2]);
    expect(errors).toEqual(['500 rows are the most a load line holds: 2 more have room, the last 1 are left out.']);
  });

  test('cells are read with blanks around them, and minutes go out as they came in', () => {
    const { rows, errors } = readRows(' load ; reservoir ; fed \n 0,5 A ; 30 V ; lamp \n', row({}).at, 230, 24);
    expect(errors).toEqual([]);
    expect(rows).toMatchObject([{ loadA: 0.5, reservoirV: 30, fedFrom: 'lamp', loadedS: null }]);
    const csv = rowsCsv([row({ loadedS: 90 }), row({})]).split('\r\n');
    const minutes = csv[0]!.split(',').indexOf('minutes');
    expect([csv[1]!.split(',')[minutes], csv[2]!.split(',')[minutes]]).toEqual(['1.5', '']);
  });
});

describe('what the words of a fit and of a finding say', () => {
  test('how many readings were left out, in words', () => {
    const model = new DesignModel(dome);
    const rows = [0, 0.1, 0.2, 0.35, 0.5, 0.7, 0.85, 1].map((share) => {
      const loadA = 4 * share;
      return row({
        loadA,
        reservoirV: model.predict([{ quantity: 'reservoir', state: { mainsV: 230, load: loadA } }], {})[0]!,
      });
    });
    const words = (spoil: readonly number[]) => {
      const found = fitDesign(
        withRows(
          dome,
          rows.map((r, n) => (spoil.includes(n) ? { ...r, reservoirV: r.reservoirV! - 4 } : r)),
        ),
        ['open', 'copper'],
      );
      return typeof found === 'string' ? found : found.words;
    };
    expect(words([])).toBe('They agree better than your instruments promise.');
    expect(words([3])).toMatch(/ One reading is left out\.$/);
    expect(words([3, 6])).toMatch(/ 2 readings are left out\.$/);
  });

  test('a share of belief is told in per cent, with how common the fault is', () => {
    const report = findFault(pen);
    if (typeof report === 'string') throw new Error(report);
    for (const s of report.suspects.slice(0, 3)) {
      expect(s.figure.value).toBeCloseTo(100 * s.probability, 9);
      expect(s.figure.unit).toBe('%');
    }
    const open = report.suspects.find((s) => s.fault === 'diode-open')!;
    expect(open.figure.inputs[0]).toMatchObject({ label: 'common before reading', value: 12 });
  });
});

describe('faults as edits', () => {
  const circuit = networkOf(clock, CONDITIONS.nominal);
  const of = (name: string) => caseFaults(circuit, { railV: 30, loadA: 1.2 }).filter((f) => f.fault === name);
  const can = (n: typeof circuit) => n.sections[0]!.rails[0]!.filter[0] as { capacitanceF: number; esrOhm: number };

  test('a dried can has what is left of its farads and so many times its ohms, never fewer', () => {
    const was = can(circuit);
    const dry = can(of('reservoir-dry')[0]!.edit(circuit, [0.3, 4]));
    expect(dry.capacitanceF).toBeCloseTo(0.3 * was.capacitanceF, 12);
    expect(dry.esrOhm).toBeCloseTo(4 * was.esrOhm, 12);
    expect(can(of('reservoir-dry')[0]!.edit(circuit, [0.3, 0.5])).esrOhm).toBeCloseTo(was.esrOhm, 12);
  });

  test('a weak source has ohms more, a low one fewer volts, an extra load its amperes; the sound one is untouched', () => {
    const winding = (n: typeof circuit) => n.sections[0]!.winding;
    expect(winding(of('source-weak')[0]!.edit(circuit, [2])).resistanceOhm).toBeCloseTo(
      winding(circuit).resistanceOhm + 2,
      9,
    );
    expect(winding(of('source-low')[0]!.edit(circuit, [0.8])).voltageRms).toBeCloseTo(
      0.8 * winding(circuit).voltageRms,
      9,
    );
    const extra = of('extra-load').map((f) => f.edit(circuit, [0.5]).sections[0]!.rails[0]!.load.at(-1));
    expect(extra).toEqual([
      { kind: 'current', currentA: 0.5 },
      { kind: 'resistance', resistanceOhm: 60 },
    ]);
    expect(of('none')[0]!.edit(circuit, [])).toBe(circuit);
    expect(of('diode-open').map((f) => f.edit(circuit, []).sections[0]!.rectifier.faults)).toEqual(
      // What stands in series with an open one carries nothing either.
      [
        [0, 1],
        [0, 1],
        [2, 3],
        [2, 3],
      ].map((loop) => loop.map((diode) => ({ diode, state: 'open' }))),
    );
    for (const name of ['diode-open', 'diode-short', 'extra-load'])
      expect(of(name).reduce((sum, f) => sum + f.share, 0)).toBeCloseTo(1, 9);
  });

  test('a path leads to a number or to nothing', () => {
    expect(numberAt(circuit, 'source.resistanceOhm')).toBeCloseTo(circuit.sections[0]!.winding.resistanceOhm, 12);
    expect(numberAt(circuit, 'rails[0].filter[0].esrOhm')).toBeCloseTo(can(circuit).esrOhm, 12);
    for (const path of [
      'rails',
      'rails.0',
      'rails.length',
      'rails.0.filter.length',
      'source',
      'source.a.b',
      'nothing.at.all',
    ])
      expect([path, numberAt(circuit, path)]).toEqual([path, null]);
  });

  test('each family has the output faults it can have, and what then comes out', () => {
    const through = (d: Design, fault: string) =>
      outputFaults(d)
        .faults.find((f) => f.fault === fault)
        ?.through(31, 1.2, 24);
    expect(through(clock, 'output-dead')).toBeLessThan(0.1);
    expect(through(clock, 'output-through')).toBe(31);
    expect(through(clock, 'output-top')).toBeLessThan(31 - 1);
    expect(through(clock, 'output-top')).toBeGreaterThan(26);
    expect(through(clock, 'output-bottom')).toBeUndefined();
    expect(outputFaults(clock).sound!(31, 1.2, 24)).toBe(24);
    expect(outputFaults(clock).sound!(25, 1.2, 24)).toBeLessThan(24);
    expect(outputFaults(dome)).toEqual({ sound: null, faults: [] });
    expect(designFaults(dome).behind).toEqual([]);
    expect(faultsToHide(drum)).toContain('output-top');
  });
});

describe('a simulated build', () => {
  test('its parts lie within what is believed of them, and seeds are not alike', () => {
    const factors = Array.from({ length: 40 }, (_, n) => hide(clock, n + 1).factors);
    for (const f of factors) {
      expect(Math.abs(Math.log(f.open!))).toBeLessThanOrEqual(0.045 + 1e-9);
      expect(f.capacitance).toBeGreaterThan(0.8);
    }
    const open = factors.map((f) => f.open!);
    expect(new Set(open.map((x) => x.toFixed(4))).size).toBeGreaterThan(25);
    const mean = open.reduce((a, b) => a + b) / open.length;
    expect(Math.abs(mean - 1)).toBeLessThan(0.012);
  });

  test('numbers by chance are spread evenly over seeds counted up by one', () => {
    const first = Array.from({ length: 400 }, (_, n) => dice(n).uniform());
    for (let k = 0; k < 4; k++) {
      const share = first.filter((x) => Math.floor(4 * x) === k).length / 400;
      expect(Math.abs(share - 0.25)).toBeLessThan(0.07);
    }
    const normal = Array.from({ length: 400 }, (_, n) => dice(n).normal());
    const sd = Math.sqrt(normal.reduce((s, x) => s + x * x, 0) / 400);
    expect(Math.abs(sd - 1)).toBeLessThan(0.12);
  });

  test('the metal rises with what the fault leaves it to burn: nothing where nothing comes through it', () => {
    const metal = (fault: Parameters<typeof hide>[2], held: Partial<MeasuredState> = {}) =>
      new SimulatedBuild(clock, hide(clock, 5, fault)).read('sink', { mainsV: 230, load: 1.2, ...held });
    const sound = metal('none');
    expect(sound).toBeGreaterThan(45);
    expect(metal('output-through')).toBeCloseTo(35, 6);
    expect(metal('output-dead')).toBeGreaterThan(sound + 20);
    const half = { metal: [{ mainsV: 230, loadA: 1.2, share: 0.5 }] };
    expect(metal('none', half) - 35).toBeCloseTo(0.5 * (sound - 35), 6);
    // With the load off it cools from where it was, not at once.
    expect(metal('none', { ...half, load: 0 }) - 35).toBeCloseTo(0.5 * (sound - 35), 6);
    expect(metal('none', { load: 0 })).toBe(35);
  });

  test('time under load warms copper and metal, time without cools them', () => {
    const warming = new Warming(clock);
    expect(warming.state).toEqual({ metal: [], copperC: 25 });
    warming.pass(600, 1.2, 230);
    const { metal, copperC } = warming.state;
    expect(metal).toEqual([{ mainsV: 230, loadA: 1.2, share: 1 - Math.exp(-600 / 810) }]);
    expect(copperC).toBeGreaterThan(28);
    warming.pass(1200, 0, 230);
    expect(warming.state.metal[0]!.share).toBeCloseTo(metal[0]!.share * Math.exp(-1200 / 810), 9);
    expect(warming.state.copperC!).toBeLessThan(copperC!);
    warming.rest();
    expect(warming.state).toEqual({ metal: [], copperC: 25 });
    expect(new Warming(logger).state).toEqual({ metal: [] });
  });
});

test('only a supply that can be turned down has circumstances at its lowest output', () => {
  const lowest = (d: Design) => conditionsOf(d).some((c) => /lowest/i.test(c.id) || /lowest/i.test(JSON.stringify(c)));
  expect(lowest(clock)).toBe(false);
  expect(lowest(physics)).toBe(true);
});

test('a soak is a reading of the fit: its rise, on the room the design assumes', () => {
  const found = fitDesign(applyPatch(clock, { bench: { readings: [] } }), ['sink']);
  // One reading of the metal alone is too little; with the power-up's it is one more.
  expect(typeof found).toBe('string');
  const fitted = fitDesign(clock, ['sink', 'open', 'copper']);
  if (typeof fitted === 'string') throw new Error(fitted);
  const row = fitted.rows.find((r) => r.id === 'soak')!;
  const soak = soakOf(clock);
  if (typeof soak === 'string') throw new Error(soak);
  expect(row.read - 35).toBeCloseTo(soak.final.value - soak.final.inputs[0]!.value, 9);
});

describe('a soak', () => {
  /** Temperatures of a sink that starts at a room and rises by so much at such a pace, read to a tenth. */
  const run = (roomC: number, riseK: number, tauS: number, minutes: readonly number[]) =>
    minutes.map((m) => ({
      afterS: 60 * m,
      tempC: Number((roomC + riseK * (1 - Math.exp((-60 * m) / tauS))).toFixed(1)),
    }));
  const soaked = (soak: Design['bench']['soak'], design: Design = clock): Soak => {
    const found = soakOf(applyPatch(design, { bench: { soak } }));
    if (typeof found === 'string') throw new Error(found);
    return found;
  };

  test('its end is told from a third of the way, within its spread, and surer the longer it runs', () => {
    const early = soaked(run(22, 31, 800, [1, 3, 5, 8]));
    const late = soaked(run(22, 31, 800, [1, 3, 5, 8, 12, 20, 30]));
    expect(Math.abs(early.final.value - 53)).toBeLessThan(2 * early.sigmaK);
    expect(Math.abs(late.final.value - 53)).toBeLessThan(1);
    expect(late.sigmaK).toBeLessThan(early.sigmaK);
    expect(late.sigmaK).toBeGreaterThanOrEqual(2);
    const input = (label: string) => late.final.inputs.find((i) => i.label === label)!.value;
    expect(input('time constant')).toBeCloseTo(800, -2);
    expect(input('room')).toBeCloseTo(22, 0);
    // 31 K fall to one in 800 s × ln 31.
    expect(late.thereMin).toBeCloseTo((800 * Math.log(31)) / 60, -0.5);
  });

  test('a closed box adds a slow second term', () => {
    const closed = applyPatch(clock, { heat: { box: 'closed' } });
    expect(soaked(run(22, 31, 800, [1, 3, 5, 8]), closed).terms).toBe(2);
    expect(soaked(run(22, 31, 800, [1, 3, 5, 8])).terms).toBe(1);
  });

  test('goes onto paper and into a table: every temperature where it belongs, in minutes and degrees', () => {
    const rows = run(22, 31, 800, [1, 3, 5, 8]);
    const svg = soakSvg('Line <1>', soaked(rows), rows);
    expect(svg).toContain('<title>Line &lt;1&gt;: soak</title>');
    const dots = [...svg.matchAll(/<circle cx="([\d.]+)" cy="([\d.]+)"/g)].map((m) => m.slice(1).map(Number));
    expect(dots).toHaveLength(4);
    // Later is farther right, by the minutes; hotter is higher.
    const [a, b, c] = dots as [number[], number[], number[]];
    expect((c[0]! - a[0]!) / (b[0]! - a[0]!)).toBeCloseTo(2, 1);
    expect(dots.map((d) => d[1]!)).toEqual(dots.map((d) => d[1]!).sort((x, y) => y - x));
    expect(soakCsv(rows).split('\n').slice(0, 2)).toEqual(['minutes,metal C', `1,${rows[0]!.tempC}`]);
  });

  test('too few temperatures, and a supply without metal, get a sentence', () => {
    expect(soakOf(applyPatch(clock, { bench: { soak: run(22, 31, 800, [1, 3]) } }))).toContain('Three temperatures');
    expect(soakOf(dome)).toContain('no regulator');
  });
});

test('a load line as a drawing: the design’s own volts and every reading where they belong, whatever the name', () => {
  const computed: ComputedLine = {
    droop: null,
    odd: [],
    mainsV: 230,
    at: {},
    line: [0, 1, 2].map((loadA) => ({ loadA, value: 20 - 2 * loadA, sigma: 0.5 })),
  };
  const svg = lineSvg('<b> & "Dome"', computed, [
    row({ loadA: 1, reservoirV: 18 }),
    row({ reservoirV: null, sinkC: 40 }),
  ]);
  expect(svg).toContain('<title>&lt;b&gt; &amp; &quot;Dome&quot;: load line</title>');
  const circles = [...svg.matchAll(/<circle cx="([\d.]+)" cy="([\d.]+)"/g)].map((m) => [Number(m[1]), Number(m[2])]);
  const stroke = /<path d="M([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)" fill="none"/
    .exec(svg)!
    .slice(1)
    .map(Number);
  // The one reading lies on the line: half way along it, in both directions.
  expect(circles).toEqual([[stroke[2], stroke[3]]]);
  expect(stroke[2]).toBeCloseTo((stroke[0]! + stroke[4]!) / 2, 1);
  expect(stroke[3]).toBeCloseTo((stroke[1]! + stroke[5]!) / 2, 1);
  expect(svg).toMatch(/>20 V<[\s\S]*>1 A</);
});

test('each family says what its dead parts do: those set by resistors fall to their reference', () => {
  const held = (d: Design) =>
    outputFaults(d)
      .faults.find((f) => f.fault === 'output-bottom')
      ?.through(31, 0.1, 12);
  const set = (regulator: Design['regulator']) => ({ ...clock, regulator });
  expect(held(set(regulatorOfKind(clock, 'adjustable')))).toBe(1.25);
  const discrete = regulatorOfKind(clock, 'error-transistor') as Extract<
    Design['regulator'],
    { kind: 'error-transistor' }
  >;
  expect(held(set(discrete))).toBeCloseTo(discrete.zenerV + 0.65, 1);
  for (const kind of ['fixed', 'low-dropout', 'follower', 'bench'] as const) {
    const faults = outputFaults(set(regulatorOfKind(clock, kind))).faults;
    expect([kind, faults.map((f) => f.fault)]).toEqual([kind, ['output-dead', 'output-through', 'output-top']]);
    expect(faults.map((f) => f.prior)).toEqual([0.05, 0.02, 0.03]);
  }
});

test('values taken from a fit are told with what they were, how many readings speak for them and which was left out', () => {
  const value = (id: 'open' | 'diode', label: string, before: number, now: number) => ({
    id,
    label,
    unit: 'V' as const,
    before,
    value: now,
    sigma: 0.1,
    decidedBy: 'readings' as const,
    figure: {} as never,
  });
  const rows = [false, false, true].map((wrong, n) => ({
    id: `r${n}`,
    label: `row ${n}`,
    unit: 'V' as const,
    read: 1,
    computed: 1,
    sigmas: 0,
    wrong,
  }));
  const told = takenWords({
    values: [value('open', 'Winding, open', 26, 26.5), value('diode', 'Drop', 0, 0.02)],
    rows,
    words: 'They hang together.',
  });
  expect(told).toEqual({
    what: 'Took what 2 readings, 1 left out say: Winding, open 26.00 V → 26.50 V.',
    why: 'They hang together.',
  });
});

test('the computed line goes as far as anybody loaded it, and as far as it is made for', () => {
  const ends = (loadA: number) => {
    const row = { ...dome.bench.loadLine[0]!, loadA };
    return computedLine({ ...dome, bench: { ...dome.bench, loadLine: [row] } }).line.at(-1)!.loadA;
  };
  // A tenth further, so that the end is seen.
  expect(ends(1)).toBeCloseTo(1.1 * dome.demand.outputA, 9);
  expect(ends(6)).toBeCloseTo(6.6, 9);
});

test('a battery has no ripple to read, the mains have', () => {
  const points = (d: Design) => stagesOf(d).flatMap((s) => [...s.points, ...s.more]);
  expect(points(logger)).not.toContain('reservoir-ripple');
  expect(points(logger)).not.toContain('ripple-meter');
  expect(points(clock)).toEqual(expect.arrayContaining(['reservoir-ripple', 'ripple-meter']));
});

test('a choke may be off in henries and ohms, a capacitor in farads and ESR, a filter resistor in nothing', () => {
  const circuit = networkOf(
    applyPatch(dome, {
      filter: {
        before: [{ kind: 'choke', inductanceH: 0.02, resistanceOhm: 0.3, ratedA: 5, swinging: false }],
        after: [{ kind: 'resistor', resistanceOhm: 0.5 }],
      },
    }),
    CONDITIONS.nominal,
    { mainsV: 230 },
  );
  const ids = tolerances(circuit)
    .map((u) => u.id)
    .filter((id) => id.startsWith('rails'));
  expect(ids).toEqual([
    'rails.0.filter.0.inductanceH',
    'rails.0.filter.0.resistanceOhm',
    'rails.0.filter.1.capacitanceF',
    'rails.0.filter.1.esrOhm',
  ]);
});

test('what can be read on the practice bench: volts and ripple under the load they are read at', () => {
  const choice = POWERED.find((c) => c.id === 'reservoir-ripple')!;
  expect(choice).toMatchObject({ quantity: 'ripple', load: 1 });
  expect(POWERED.map((c) => c.quantity)).toEqual(['winding', 'reservoir', 'reservoir', 'ripple', 'output', 'output']);
});
