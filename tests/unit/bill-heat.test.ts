import { netlistOf } from '@/core/netlist/netlist-of';
import { outputDemand } from '@/core/design/defaults';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { ofDiodeClass } from '@/core/design/diode-edit';
import { mainModel } from '@/core/design/outputs';
import { judge } from '@/core/judge/judge';
import { batteryLife } from '@/core/study/battery-life';
import { billOf } from '@/core/study/bill';
import { billSums, type BillLine } from '@/core/study/bill-sums';
import { pinParts, typicalCost } from '@/core/study/cost';
import { coolerWays, heatView, selfLimit } from '@/core/study/heat-report';
import { lifeFigure } from '@/core/study/life-figure';
import { mostOf } from '@/core/study/most';
import { operatingPoint } from '@/core/study/operating-point';
import { reverseDiodeWays } from '@/core/study/reverse-diode';
import { studyDesign } from '@/core/study/study';
import { demoDesigns } from '@/core/design/demo-designs';
import { clock, dome, pen, drum, tide, physics, first, logger } from '../support/demos';

const bill = (d: Design, patch: Patch = {}): BillLine[] => billOf(studyDesign(applyPatch(d, patch)));
const line = (lines: readonly BillLine[], what: RegExp) => {
  const found = lines.find((l) => what.test(l.what));
  if (!found) throw new Error(`no ${what} among ${lines.map((l) => l.what).join('; ')}`);
  return found;
};
const choke = { kind: 'choke', inductanceH: 10, resistanceOhm: 150, ratedA: 0.1, swinging: false } as const;
const cap = { kind: 'capacitor', capacitanceF: 22e-6, ratedV: 400 } as const;
const chime = {
  name: 'Chime',
  rail: 'plus',
  demand: outputDemand({ outputV: 5, outputA: 0.3, tolerancePct: 5, rippleVpp: 0.02, kind: 'current' }),
  regulator: { kind: 'fixed', size: '78M', outputV: 5 },
  regulatorSheet: null,
  sinkKPerW: 15,
} as const;
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

describe('the bill', () => {
  /** Everything a design can be made from, at least once. */
  const VARIED: [string, Design, Patch][] = [
    ...demoDesigns().map((d): [string, Design, Patch] => [d.name, d, {}]),
    ['pairs of cans', dome, { reservoir: { pair: true, cans: 2 } }],
    ['fuses of both sides', drum, { mainsSide: { primaryFuseA: 0.2, secondaryFuseA: 1 } }],
    [
      'lamp, fan and bleeder',
      clock,
      { indicator: { at: 'rail', currentA: 0.01, forwardV: 2 }, heat: { fan: 'fixed' }, filter: { bleederOhm: 2200 } },
    ],
    [
      'filters on two rails',
      drum,
      {
        filter: {
          after: [
            { kind: 'resistor', resistanceOhm: 10 },
            { ...cap, ratedV: 50 },
          ],
        },
      },
    ],
    ['C-L-C', tide, { filter: { before: [], after: [choke, cap] } }],
    ['valves', tide, { rectifier: ofDiodeClass('valve-stiff') }],
    ['one sink for both', drum, { heat: { oneSink: true, interface: 'pad' } }],
    ['two further outputs', clock, { outputs: [chime, { ...chime, sinkKPerW: null }] }],
    ['in cascade', clock, { preRegulator: { kind: 'tracking', aboveV: 4, transistor: 'tip122' } }],
    ['a sink for the rectifier', dome, { heat: { rectifierSinkKPerW: 4 } }],
    ['an adapter', logger, { source: adapter, mainsSide: { primaryFuseA: 1 } }],
    ['a box chosen', clock, { build: { box: { ...clock.build.box, inside: { wMm: 200, dMm: 150, hMm: 100 } } } }],
    ['a cut-out and one pole', clock, { mainsSide: { thermalCutout: true, switchPoles: 1 } }],
    ['no diode', logger, { source: { ...logger.source, reverseDiode: false } as Design['source'] }],
    ['a doubler', tide, { rectifier: { kind: 'doubler' }, transformer: { ratedV: 80 }, filter: { before: [] } }],
  ];
  test.each(VARIED)('%s: its total is the cost every comparison goes by', (_, d, patch) => {
    const design = applyPatch(d, patch);
    const lines = bill(design);
    expect(billSums(lines).allEur).toBeCloseTo(typicalCost(design), 9);
    for (const l of lines) {
      expect(l.count).toBeGreaterThan(0);
      expect(Number.isInteger(l.count)).toBe(true);
      for (const w of [l.what, l.needed, l.had]) expect(w).toMatch(/\S/);
      expect(l.priceEachEur).toBeGreaterThanOrEqual(0);
    }
    // No two parts have one name on the drawing.
    const namesOf = (references: string) =>
      references.split(', ').flatMap((run) => {
        const [, letter, from, to] = /^([A-Z]+)(\d+)(?:–[A-Z]+(\d+))?$/.exec(run) ?? [];
        if (!letter || letter === 'T') return [];
        return Array.from({ length: Number(to ?? from) - Number(from) + 1 }, (__, n) => `${letter}${Number(from) + n}`);
      });
    const names = lines.flatMap((l) => namesOf(l.references));
    expect(new Set(names).size).toBe(names.length);
    // Each is on the drawing, and there are as many as are bought; a regulator of several parts is one line.
    const drawn = new Set(netlistOf(design).parts.map((p) => p.ref));
    const named = lines.map((l) => ({ ...l, names: namesOf(l.references).filter((n) => !/^[HM]/.test(n)) }));
    expect(named.flatMap((l) => l.names).filter((n) => !drawn.has(n))).toEqual([]);
    const alike = named.filter(
      (l) => l.names.length > 1 && !/supply|discrete|zener|with what stands|mitter resistors|Ahead of it/.test(l.what),
    );
    expect(alike.map((l) => l.names.length)).toEqual(alike.map((l) => l.count));
  });

  test('of the clock: each part with what it has to bear and what it bears', () => {
    const lines = bill(clock);
    expect(lines.map((l) => [l.references, l.count, l.what])).toEqual([
      ['T1', 1, 'Transformer, 24 V'],
      ['D1–D4', 4, 'Silicon 3 A, 400 V (1N5404)'],
      ['C1', 1, 'Electrolytic 6800 µF 50 V'],
      ['R1', 1, 'Bleeder 220 kΩ'],
      ['U1', 1, '78S24'],
      ['H1', 1, 'Heatsink 1.5 K/W'],
      ['C2', 1, 'Capacitor, input pin to ground, 0.33 µF'],
      ['C3', 1, 'Capacitor, output pin to ground, 0.1 µF'],
      ['D5', 1, 'Diode 1N4002, output to input'],
      ['', 1, 'Mica and paste, with bushes'],
      ['F1', 1, 'Fuse, time-lag 500 mA with holder'],
      ['J1', 1, 'Mains inlet'],
      ['S1', 1, 'Mains switch, two poles'],
      ['J2', 2, 'Binding post, for 24 V'],
    ]);
    // 24 V, 9 % and 10 %: 39.1 V on the can after two diodes; twice 39.9 V backwards.
    expect(line(lines, /Electrolytic/).needed).toMatch(/^39\.1 V, 2\.\d\d A ripple$/);
    expect(line(lines, /1N5404/).needed).toMatch(/^60\d mA, 79\.\d V, 7\d\.\d A once$/);
    expect(line(lines, /1N5404/).had).toBe('3 A, 400 V, 200 A');
    expect(line(lines, /Heatsink/).needed).toMatch(/^13\.\d W to get rid of$/);
    expect(line(lines, /78S24/).had).toBe('2.00 A, 40 V in');
    // What the verdict on its winding says: RMS amperes of what 100 VA over 24 V bear.
    expect(line(lines, /Transformer/)).toMatchObject({
      needed: expect.stringMatching(/^2\.\d\d A RMS$/),
      had: '4.17 A, 100 VA',
    });
    expect(lines.every((l) => l.typicalPrice && l.fromDrawer === null)).toBe(true);
  });

  test('four diodes in one block are one part; valves are counted by the bulb', () => {
    const block = line(bill(dome), /bridge class/);
    expect([block.references, block.count]).toEqual(['D1', 1]);
    expect(block.priceEachEur).toBeCloseTo(4 * 0.8, 9);
    const bulbs = line(bill(tide, { rectifier: ofDiodeClass('valve-stiff') }), /valve/i);
    expect([bulbs.references, bulbs.count]).toEqual(['V1', 1]);
    const heaters = bill(tide, { rectifier: ofDiodeClass('valve-stiff') }).filter((l) => /Heater/.test(l.what));
    expect(heaters.map((l) => l.what)).toEqual([
      'Heater winding 6.3 V, on the same core',
      'Heater winding 5 V, on the same core, for the rectifier alone: it stands at the high volts',
    ]);
    // 2 EUR and 0.15 a voltampere.
    expect(heaters[0]!.priceEachEur).toBeCloseTo(2 + 0.15 * 6.3 * 1.8, 9);
  });

  test('resistors are bought for twice what they burn', () => {
    const bleeder = line(bill(tide), /Bleeder/);
    // 217 V at most on 10 kΩ: 4.7 W.
    expect(bleeder.needed).toMatch(/^9\.\d+ W \(twice its loss\), 21\d V$/);
    const lamp = bill(dome, { indicator: { at: 'rail', currentA: 0.01, forwardV: 2 } });
    // 41 V on the rail at most, less 2, at 10 mA: 3.9 kΩ and 0.39 W.
    expect(line(lamp, /for the indicator/).needed).toMatch(/^78\d mW/);
    expect(line(lamp, /Light-emitting/)).toMatchObject({ references: 'LED1', needed: '10.0 mA' });
    const pair = line(bill(dome, { reservoir: { pair: true, balanceOhm: 10_000, ratedV: 40 } }), /Balancing/);
    // Half of 41 V across each: 42 mW, for twice that.
    expect(pair).toMatchObject({ count: 2, what: 'Balancing resistor 10 kΩ, across each can' });
    expect(pair.needed).toMatch(/^8\d(\.\d)? mW \(twice its loss\), 20\.\d V$/);
    const shunt = line(bill(physics), /^Shunt/);
    // 1.65 A through 0.33 Ω: 0.9 W.
    expect(shunt.needed).toMatch(/^1\.8\d? W \(twice its loss\)$/);
    expect(line(bill(physics), /^Driver/)).toMatchObject({
      had: '1.2 W',
      needed: expect.not.stringContaining('twice'),
    });
  });

  test('filters, sinks, fuses and fans in their number', () => {
    const rails = bill(drum, {
      filter: {
        after: [
          { kind: 'resistor', resistanceOhm: 10 },
          { ...cap, ratedV: 50 },
        ],
      },
    });
    expect(line(rails, /^Resistor 10 Ω/)).toMatchObject({ references: 'R1–R2', count: 2 });
    // 0.25 A of 10 Ω: 0.625 W.
    expect(line(rails, /^Resistor 10 Ω/).needed).toMatch(/^1\.\d\d W \(twice its loss\)$/);
    expect(line(rails, /^Capacitor 22 µF 50 V/)).toMatchObject({ references: 'C2, C4', count: 2, had: '50 V' });
    const chokes = bill(tide, { filter: { before: [], after: [choke, cap] } });
    expect(line(chokes, /^Choke 10 H, 150 Ω/)).toMatchObject({ references: 'L1', had: '100 mA' });
    expect(line(chokes, /^Choke/).needed).toMatch(/^\d\d\.\d mA$/);
    expect(line(bill(drum), /^Heatsink/)).toMatchObject({ references: 'H1–H2', count: 2 });
    expect(line(bill(drum), /78M18/).what).toBe('78M18 and its negative twin');
    expect(line(bill(drum, { heat: { oneSink: true } }), /^Heatsink/).count).toBe(1);
    const own = bill(dome, { heat: { rectifierSinkKPerW: 4 } });
    expect(line(own, /for the rectifier/)).toMatchObject({ references: 'H1', had: '4 K/W' });
    expect(bill(dome).some((l) => /for the rectifier/.test(l.what))).toBe(false);
    // A bulb takes no sink, whatever its field says.
    const bulb = bill(tide, { rectifier: ofDiodeClass('valve-stiff'), heat: { rectifierSinkKPerW: 4 } });
    expect(bulb.some((l) => /for the rectifier$/.test(l.what) && /Heatsink/.test(l.what))).toBe(false);
    const fused = bill(drum, { mainsSide: { primaryFuseA: 0.2, secondaryFuseA: 1 } });
    expect(line(fused, /time-lag/)).toMatchObject({ references: 'F1', had: '200 mA, 250 V' });
    // Two windings, a fuse for each.
    expect(line(fused, /at the winding/)).toMatchObject({ references: 'F2–F3', count: 2 });
    expect(line(bill(logger), /in the lead/)).toMatchObject({ references: 'F1', count: 1 });
    expect(bill(logger, { mainsSide: { primaryFuseA: 1 } }).some((l) => /time-lag/.test(l.what))).toBe(false);
    expect(line(bill(physics), /^Fan/)).toMatchObject({ what: 'Fan, switched on at 60 °C', had: 'fed from elsewhere' });
    expect(line(bill(physics, { heat: { fan: 'fixed', fanA: 0.1 } }), /^Fan/)).toMatchObject({
      what: 'Fan',
      had: '100 mA',
    });
  });

  test('a source of direct current, a pre-regulator, further outputs', () => {
    expect(line(bill(logger), /battery/)).toMatchObject({ references: 'B1', had: '7 Ah' });
    expect(line(bill(logger, { source: adapter }), /adapter/)).toMatchObject({ had: '12 V, 1 A' });
    expect(line(bill(logger), /78L08/)).toMatchObject({
      references: 'C4, D2, U2, C5',
      needed: expect.stringMatching(/^50\.0 mA/),
    });
    const pair = bill(clock, { preRegulator: { kind: 'tracking', aboveV: 4, transistor: 'tip122' }, outputs: [chime] });
    expect(line(pair, /^Ahead of it/)).toMatchObject({ references: 'R2, D5, Q1', had: '3.50 A, 100 V in' });
    expect(line(pair, /78M05/).references).toBe('C4, D7, U2, C5');
    expect(line(pair, /Heatsink 15 K\/W/)).toMatchObject({ references: 'H2', what: 'Heatsink 15 K/W, for Chime' });
    const together = bill(clock, { heat: { oneSink: true }, outputs: [chime] });
    expect(together.filter((l) => /^Heatsink/.test(l.what))).toHaveLength(1);
    // One sink gets rid of everything on it.
    const alone = Number(/^[\d.]+/.exec(line(bill(clock, { outputs: [chime] }), /^Heatsink 1\.5/).needed)![0]);
    expect(Number(/^[\d.]+/.exec(line(together, /^Heatsink/).needed)![0])).toBeGreaterThan(alone + 5);
    const shared = bill(clock, { heat: { sharedWithRectifier: true } });
    expect(Number(/^[\d.]+/.exec(line(shared, /^Heatsink/).needed)![0])).toBeGreaterThan(13.6 + 1.5);
    expect(pinParts(mainModel(physics)!).map((s) => s.what)).toEqual(['Capacitor at the output']);
    expect(pinParts(mainModel(pen)!).map((s) => s.value)).toEqual([330e-9, 100e-9, null]);
  });

  test('what came from the drawer keeps its price, spread over as many as there are', () => {
    const values = { reservoir: { cans: 2, capacitanceF: 4700e-6, ratedV: 50 } };
    const picked = applyPatch(clock, {
      ...values,
      picked: [{ role: 'reservoir', partId: 'x', name: 'Blue cans', priceEur: 3, heightMm: 42, values }],
    });
    const cans = line(bill(picked), /Electrolytic/);
    expect(cans).toMatchObject({ fromDrawer: 'Blue cans', count: 2, priceEachEur: 1.5, typicalPrice: false });
    const sums = billSums(bill(picked));
    expect(sums.allEur - sums.toBuyEur).toBeCloseTo(3, 9);
    const unknown = applyPatch(picked, {
      picked: [{ role: 'reservoir', partId: 'x', name: 'Blue cans', priceEur: null, heightMm: null, values }],
    });
    expect(line(bill(unknown), /Electrolytic/)).toMatchObject({ fromDrawer: 'Blue cans', typicalPrice: true });
    // What was changed since is no longer that part.
    expect(line(bill(applyPatch(picked, { reservoir: { cans: 1 } })), /Electrolytic/).fromDrawer).toBeNull();
  });
});

describe('the heat of each part on the way from the room', () => {
  const row = (d: Design, id: string, minutes: number | null = null, corner = 'high' as const) =>
    heatView(d, corner, minutes)!.rows.find((r) => r.id === id)!;
  const temps = (d: Design, id: string, minutes: number | null = null) =>
    Object.fromEntries(row(d, id, minutes).steps.map((s) => [s.name, s.tempC]));

  test('in the end they are where the verdicts have them', () => {
    const junction = judge(studyDesign(clock), ['junction'])[0]!;
    expect(temps(clock, 'main')['junction']).toBeCloseTo(junction.figure.value, 6);
    const boxed = applyPatch(physics, { heat: { together: false } });
    const view = heatView(boxed, 'high', null)!;
    // 2400 cm² of vented tin: half of W/(5.5·0.24).
    expect(view.insideC).toBeCloseTo(25 + (0.5 * view.losses.insideW) / (5.5 * 0.24), 6);
    expect(temps(boxed, 'rectifier')['inside air']).toBeCloseTo(view.insideC, 9);
    expect(row(boxed, 'main').steps.map((s) => s.name)).toEqual(['room', 'sink', 'junction']);
    expect(row(clock, 'main').steps.map((s) => s.name)).toEqual(['room', 'sink', 'junction']);
    expect(row(logger, 'main').steps.map((s) => s.name)).toEqual(['room', 'inside air', 'case', 'junction']);
    expect([row(clock, 'main').touch, row(logger, 'main').touch, row(boxed, 'main').touch]).toEqual([1, 2, 1]);
    expect(row(tide, 'rectifier').limitC).toBe(150);
    const glass = row(applyPatch(tide, { rectifier: ofDiodeClass('valve-stiff') }), 'rectifier');
    expect([glass.limitC, glass.steps.at(-1)!.name, glass.limitSource]).toEqual([
      250,
      'glass',
      'Glass of a bulb; typical.',
    ]);
    expect(row(logger, 'rectifier').name).toBe('Reverse diode');
  });

  test('cold they stand in the room, and a time constant later 63 % of the way', () => {
    for (const r of heatView(clock, 'high', 0)!.rows.filter((x) => x.id !== 'reservoir'))
      for (const s of r.steps) expect([r.id, s.name, s.tempC]).toEqual([r.id, s.name, expect.closeTo(35, 6)]);
    // A winding of 100 VA: 3000 s.
    const end = temps(clock, 'winding')['winding']!;
    expect(temps(clock, 'winding', 50)['winding']! - 35).toBeCloseTo((end - 35) * (1 - 1 / Math.E), 6);
    // A sink of 1.5 K/W: 0.486 × 50²/1.5 = 810 s.
    const sink = temps(clock, 'main')['sink']!;
    expect(temps(clock, 'main', 13.5)['sink']! - 35).toBeCloseTo((sink - 35) * (1 - 1 / Math.E), 6);
    // A junction stands over its sink at once.
    const part = temps(clock, 'main', 5);
    const done = temps(clock, 'main');
    expect(part['junction']! - part['sink']!).toBeCloseTo(done['junction']! - done['sink']!, 6);
    const block = temps(dome, 'rectifier', 2);
    expect(block['body']! - dome.heat.ambientC).toBeCloseTo(
      (temps(dome, 'rectifier')['body']! - dome.heat.ambientC) * (1 - 1 / Math.E),
      6,
    );
  });

  test('a can lasts by the ten-kelvin rule, in words a builder uses', () => {
    const note = (patch: Patch) => row(applyPatch(clock, patch), 'reservoir').note;
    const years = (patch: Patch) => Number(/about ([\d.]+) years/.exec(note(patch))?.[1] ?? NaN);
    // 2000 h at 85 °C; each ten kelvin below doubles it. 105 °C is two doublings more.
    expect(
      years({ reservoir: { gradeC: 105 }, heat: { ambientC: 60 } }) / years({ heat: { ambientC: 60 } }),
    ).toBeGreaterThan(3);
    expect(note({ heat: { ambientC: 100 } })).toMatch(/about [\d.]+ months of running/);
    expect(note({ reservoir: { gradeC: 105, rippleA: 50 }, heat: { ambientC: 10 } })).toMatch(/more than 30 years/);
    expect(row(clock, 'reservoir').limitSource).toBe('85 °C grade, 2000 hours at it.');
    const filtered = applyPatch(tide, { filter: { before: [], after: [choke, cap] } });
    expect(row(filtered, 'filter-1').name).toBe('Filter capacitor 22 µF');
  });

  test('each output has a row of its own, several transistors are said', () => {
    expect(row(physics, 'main').name).toBe('Regulator, 3 in parallel');
    const unshared = applyPatch(physics, { regulator: { ...physics.regulator, emitterOhm: 0 } as Design['regulator'] });
    expect(row(unshared, 'main').name).toBe('Regulator, 3 in parallel, not sharing');
    expect([row(drum, 'main').name, row(drum, 'minus').name]).toEqual(['Regulator, +18 V', 'Regulator, −18 V']);
    expect(row(clock, 'main').name).toBe('Regulator');
    expect(heatView(dome, 'high', null)!.rows.map((r) => r.id)).toEqual(['rectifier', 'winding', 'reservoir']);
    expect(heatView(clock, 'output-shorted' as never, null)).toBeNull();
  });
});

describe('what can be done about heat', () => {
  test('the current a junction bears is where it stands at its limit', () => {
    const hot = applyPatch(clock, { heat: { sinkKPerW: 5 } });
    const { amps, limitC } = selfLimit(hot)!;
    expect(limitC).toBe(125);
    const at = (a: number) =>
      operatingPoint(applyPatch(hot, { demand: { outputA: a, typicalA: null } }), 'high').heat!.junctionC;
    expect(at(amps!)).toBeLessThanOrEqual(125);
    expect(at(1.02 * amps!)).toBeGreaterThan(125);
    // Where the air is hotter than it bears, none.
    expect(selfLimit(applyPatch(clock, { heat: { ambientC: 126 } as never }))!.amps).toBe(0);
  });

  test('each way is simulated as it stands', () => {
    const ways = coolerWays(applyPatch(clock, { heat: { box: 'closed', sinkOutside: true } }));
    const labels = ways.map((w) => w.label);
    expect(labels.slice(0, 3)).toEqual(['as it is', 'winding or tap of 22 V', 'winding or tap of 20 V']);
    expect(labels.slice(4)).toEqual(['a fan over the sink', 'sink inside the box']);
    expect(labels[3]).toMatch(/^dropper of \d+ mΩ before it$/);
    const [now, lower, , dropper, fan] = ways as [
      (typeof ways)[0],
      (typeof ways)[0],
      unknown,
      (typeof ways)[0],
      (typeof ways)[0],
    ];
    expect(lower.junctionC).toBeLessThan(now.junctionC);
    expect(lower.headroomV).toBeLessThan(now.headroomV - 1);
    expect(dropper.junctionC).toBeLessThan(now.junctionC);
    expect(fan.headroomV).toBeCloseTo(now.headroomV, 6);
    expect(fan.sinkC).toBeLessThan(now.sinkC);
    // Four fifths of what is to spare at its load, to the nearest of E12.
    const ohm = Number(/dropper of (\d+) mΩ/.exec(dropper.label)![1]) / 1000;
    expect(ohm / ((0.8 * now.headroomV) / 1.2)).toBeGreaterThan(0.9);
    expect(ohm / ((0.8 * now.headroomV) / 1.2)).toBeLessThan(1.11);
    const blown = coolerWays(applyPatch(clock, { heat: { fan: 'fixed' } })).map((w) => w.label);
    expect(blown).toContain('without the fan');
    expect(blown).not.toContain('sink inside the box');
    expect(
      coolerWays(applyPatch(clock, { heat: { box: 'closed', sinkOutside: false } })).map((w) => w.label),
    ).toContain('sink outside the box');
    const board = coolerWays(logger).map((w) => w.label);
    expect(board.slice(0, 3)).toEqual(['as it is', '12 cm² of board copper', '25 cm² of board copper']);
    expect(board.join()).not.toMatch(/fan|winding/);
    expect(coolerWays(dome)).toEqual([]);
    expect(
      coolerWays(applyPatch(clock, { heat: { sinkKPerW: null } }))
        .map((w) => w.label)
        .join(),
    ).not.toMatch(/fan|copper/);
  });
});

describe('the most an output gives', () => {
  test('where it drops out, limits itself, leaves its window, or holds all that was tried', () => {
    const [a] = mostOf(clock);
    expect(a!.because).toBe('drops out');
    const low = (amps: number) => operatingPoint(applyPatch(clock, { demand: { outputA: amps } }), 'low').headroomV!;
    expect(low(a!.amps!)).toBeGreaterThanOrEqual(0);
    expect(low(1.02 * a!.amps!)).toBeLessThan(0);
    const strong = applyPatch(first, { transformer: { ratedV: 35, ratedVA: 400 } });
    expect(mostOf(strong)[0]).toMatchObject({ because: 'limits itself', amps: 1.65 });
    expect(mostOf(dome)[0]!.because).toBe('leaves its window');
    const idle = applyPatch(dome, { demand: { outputA: 0.05, tolerancePct: 60 } });
    expect(mostOf(idle)[0]).toMatchObject({ because: 'holds', amps: expect.closeTo(0.3, 9) });
    const dead = applyPatch(clock, { transformer: { ratedV: 12 } });
    expect(mostOf(dead)[0]).toMatchObject({ because: 'drops out', amps: null });
    expect(mostOf(applyPatch(dome, { transformer: { ratedV: 12, source: { kind: 'plate' } } }))[0]).toMatchObject({
      because: 'leaves its window',
      amps: null,
    });
  });

  test('each output by itself, the others as they are', () => {
    const both = mostOf(drum);
    expect(both.map((m) => m.id)).toEqual(['main', 'minus']);
    const minus = (amps: number) =>
      operatingPoint(applyPatch(drum, { demand: { negativeA: amps } }), 'low').rails[1]!.headroomV!;
    const found = both[1]!;
    expect(found.because === 'drops out' ? minus(1.02 * found.amps!) < 0 : found.amps).toBeTruthy();
    const radio = mostOf(logger).find((m) => m.id === 'out-1')!;
    const at = (amps: number) =>
      operatingPoint(
        applyPatch(logger, {
          outputs: logger.outputs.map((o) => ({ ...o, demand: { ...o.demand, outputA: amps } })),
        }),
        'low',
      ).outputs[0]!.headroomV!;
    expect(at(radio.amps!)).toBeGreaterThanOrEqual(0);
  });
});

describe('a battery', () => {
  const battery = (over: object): Patch => ({ source: { ...logger.source, ...over } as Design['source'] });
  test('lasts its charge over its current, to where it is given up or lets go', () => {
    const life = batteryLife(logger)!;
    expect(life.used).toBe(1);
    expect(life.letsGoV).toBeNull();
    expect(life.hours).toBeCloseTo(7 / life.meanA, 9);
    // 120 mA, 50 for the radio, and what the two regulators draw themselves: 5 and 4 mA.
    expect(life.meanA).toBeGreaterThan(0.175);
    expect(life.meanA).toBeLessThan(0.185);
    const figure = lifeFigure(logger, life);
    expect(figure.inputs.map((i) => [i.label, i.value])).toEqual([
      ['holds', 7],
      ['used by then', 100],
      ['mean current', life.meanA],
    ]);
    expect(figure.value).toBe(life.hours);
  });

  test('lets go before it is empty where the radio needs more than it has left', () => {
    const d = applyPatch(logger, battery({ emptyV: 8 }));
    const life = batteryLife(d)!;
    // 8 V, 1.9 V of dropout at its load, a Schottky and its lead: a little over ten.
    expect(life.letsGoV!).toBeGreaterThan(10);
    expect(life.letsGoV!).toBeLessThan(10.6);
    expect(life.used).toBeCloseTo((12.9 - life.letsGoV!) / (12.9 - 8), 2);
    expect(life.hours).toBeCloseTo((7 * life.used) / life.meanA, 9);
    expect(lifeFigure(d, life).inputs.at(-1)).toMatchObject({ label: 'lets go at open', value: life.letsGoV });
    const flat = batteryLife(applyPatch(logger, battery({ freshV: 9, emptyV: 8 })))!;
    expect(flat).toEqual({ hours: 0, used: 0, letsGoV: 9, meanA: 0 });
    expect(batteryLife(clock)).toBeNull();
    expect(batteryLife(applyPatch(logger, { source: adapter }))).toBeNull();
  });

  test('a diode in its lead: none, the cheapest Schottky and the cheapest silicon that bear it', () => {
    const ways = reverseDiodeWays(logger);
    expect(ways.map((w) => w.id)).toEqual(['none', 'Schottky', 'silicon']);
    const set = ways.map((w) => applyPatch(logger, w.patch));
    expect(set.map((d) => (d.source as { reverseDiode: boolean }).reverseDiode)).toEqual([false, true, true]);
    expect(set[1]!.rectifier.diode).toMatch(/^sk-/);
    expect(set[2]!.rectifier.diode).toMatch(/^si-/);
    for (const d of set.slice(1)) {
      const verdicts = judge(studyDesign(d), ['diode-average', 'diode-reverse', 'diode-surge']);
      for (const v of verdicts) expect([d.rectifier.diode, v.id, v.state]).toEqual([d.rectifier.diode, v.id, 'holds']);
    }
    expect(reverseDiodeWays(clock)).toEqual([]);
  });
});
