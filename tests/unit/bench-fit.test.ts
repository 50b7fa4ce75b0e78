import { DesignModel } from '@/core/bench/design-model';
import { findFault, type FaultReport } from '@/core/bench/find-fault';
import { fitDesign, type DesignFit } from '@/core/bench/fit-design';
import type { Factors } from '@/core/bench/factors';
import { computedLine } from '@/core/bench/load-line';
import { measuredOf, readingSigma } from '@/core/bench/measured';
import { movables } from '@/core/bench/movables';
import { readRows, rowsCsv } from '@/core/bench/rows-csv';
import { modelOf } from '@/core/circuit/feed';
import { CONDITIONS } from '@/core/circuit/condition';
import { networkOf } from '@/core/circuit/network-of';
import { caseFaults, type CaseFault } from '@/core/fit/case-faults';
import { demoDesigns } from '@/core/design/demo-designs';
import { applyPatch, type Design, type LoadRow } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { operatingPoint } from '@/core/study/operating-point';
import { testPoints } from '@/core/bench/test-points';
import { dice } from '../support/simulated';

const [clock, dome, pen] = demoDesigns() as [Design, Design, Design];
const logger = demoDesigns().find((d) => d.source.kind === 'battery')!;
const at = '2026-05-03T19:00:00Z';
const ALL = ['open', 'copper', 'capacitance', 'diode', 'sink'] as const;

/** Rows of a build whose parts differ from its design by factors, read with a meter that is as good as it says. */
function rowsOf(design: Design, factors: Factors, shares: readonly number[], roll = dice(3)): LoadRow[] {
  const model = new DesignModel(design);
  return shares.map((share, n) => {
    const state = { mainsV: 231 - n, load: share * design.demand.outputA };
    const [v, ripple] = model.predict(
      [
        { quantity: 'reservoir', state },
        { quantity: 'ripple', state },
      ],
      factors,
    ) as [number, number];
    return {
      at,
      mainsV: state.mainsV,
      fedFrom: 'mains' as const,
      loadA: state.load,
      reservoirV: v + readingSigma(design, 'reservoir', v) * roll.normal(),
      rippleV: share === 0 ? null : ripple + readingSigma(design, 'ripple', ripple) * roll.normal(),
      outputV: null,
      sinkC: null,
      loadedS: null,
      note: '',
    };
  });
}
const withRows = (design: Design, loadLine: LoadRow[]): Design => ({
  ...design,
  bench: { ...design.bench, readings: [], loadLine },
});
const fitted = (design: Design, moving: readonly (typeof ALL)[number][] = ALL): DesignFit => {
  const found = fitDesign(design, moving);
  if (typeof found === 'string') throw new Error(found);
  return found;
};

describe('a design is fitted to its load line', () => {
  const hidden = { open: 1.02, copper: 1.25, capacitance: 0.85 } as const;
  const read = withRows(dome, rowsOf(dome, hidden, [0, 0.1, 0.3, 0.6, 1]));
  const found = fitted(read);

  test('hidden volts, copper and capacitance come back within four of their spreads', () => {
    for (const [id, factor] of Object.entries(hidden)) {
      const value = found.values.find((v) => v.id === id)!;
      expect([id, Math.abs(value.value - value.before * factor) / value.sigma < 4]).toEqual([id, true]);
      expect(value.sigma).toBeLessThan(movables(dome).find((m) => m.id === id)!.spread * value.before);
    }
    expect(found.rows.every((r) => !r.wrong)).toBe(true);
  });

  test('taken, the design says what was read, and its windows and tolerances are the fit’s', () => {
    const taken = applyPatch(read, found.patch);
    expect(readDesign(JSON.parse(JSON.stringify(taken))).ok).toBe(true);
    expect(modelOf(taken).openCircuitV).toBeCloseTo(
      (modelOf(dome).openCircuitV * found.values[0]!.value) / found.values[0]!.before,
      1,
    );
    const full = read.bench.loadLine.at(-1)!;
    const point = operatingPoint(taken, 'nominal', { mainsV: full.mainsV });
    // Within what the meter may be off: 0.8 % and two digits, twice over.
    expect(Math.abs(point.rail.meanV - full.reservoirV!)).toBeLessThan(0.02 * full.reservoirV!);
    const window = (d: Design) => {
      const p = testPoints(d, () => 230).find((x) => x.id === 'reservoir-loaded')!;
      return p.high - p.low;
    };
    expect(window(taken)).toBeLessThan(0.7 * window(read));
    // A second look at the same readings moves nothing any more.
    for (const v of fitted(taken).values) expect(Math.abs(v.value - v.before)).toBeLessThan(1.5 * v.sigma + 1e-9);
  });

  test('the forecast for a load nobody tried is right within its spread', () => {
    const nominal = found.forecasts.find((f) => f.label.startsWith('Reservoir, nominal'))!;
    const state = { mainsV: 230, load: dome.demand.outputA };
    const [truth] = new DesignModel(dome).predict([{ quantity: 'reservoir', state }], hidden);
    expect(Math.abs(nominal.value - truth!)).toBeLessThan(Math.max(0.004 * truth!, 3.5 * nominal.sigma));
    expect(nominal.sigma).toBeLessThan(0.3);
  });

  test('a row typed wrongly is named, kept, and left out', () => {
    const rows = rowsOf(dome, hidden, [0, 0.1, 0.3, 0.6, 1]);
    rows[2] = { ...rows[2]!, reservoirV: rows[2]!.reservoirV! + 4.1 };
    const spoilt = fitted(withRows(dome, rows));
    expect(spoilt.rows.filter((r) => r.wrong).map((r) => r.id)).toEqual(['row-2-reservoirV']);
    const open = spoilt.values.find((v) => v.id === 'open')!;
    expect(Math.abs(open.value - 1.02 * open.before)).toBeLessThan(4 * open.sigma);
  });

  test('what may not move stays, and what no reading tells of is not fitted', () => {
    expect(fitted(read, ['copper']).values.map((v) => v.id)).toEqual(['copper']);
    expect(found.values.map((v) => v.id)).not.toContain('sink');
    expect(fitDesign(withRows(dome, []), ALL)).toMatch(/two readings or more/);
    expect(fitDesign(read, [])).toMatch(/Tick what may/);
  });

  test('what was read through a series lamp is kept and not held against it', () => {
    const rows = read.bench.loadLine.map((r) => ({ ...r, fedFrom: 'lamp' as const }));
    expect(measuredOf(withRows(dome, rows))).toEqual([]);
  });
});

test('of fewer readings than values it says which belief decides; with enough it does not', () => {
  const told = (shares: readonly number[]) => {
    const found = fitDesign(
      withRows(
        dome,
        rowsOf(dome, {}, shares).map((r) => ({ ...r, rippleV: null })),
      ),
      ALL,
    );
    if (typeof found === 'string') throw new Error(found);
    return found.entangled.filter((e) => /decides there/.test(e));
  };
  // Open volts, copper and diode are told of by what the reservoir stands at: three values.
  expect(told([0, 1])).toEqual([expect.stringMatching(/^2 readings for 3 values: what is believed of .*rectifier/)]);
  expect(told([0, 0.5, 1])).toEqual([]);
});

test('the power-up’s own readings are fitted too, the metal’s rise to the sink', () => {
  const found = fitted(clock);
  const sink = found.values.find((v) => v.id === 'sink')!;
  // 51 °C were read: 16 K over a room of 35, and the rise is proportional to the sink.
  const rise = operatingPoint(clock, 'nominal', { mainsV: 230.9 }).heat!.sinkC - 35;
  expect(sink.value).toBeGreaterThan(sink.before * Math.min(1, 16 / rise) - 3 * sink.sigma);
  expect(sink.value).toBeLessThan(sink.before * Math.max(1, 16 / rise) + 3 * sink.sigma);
});

test('the computed line has the spread its parts leave, and each row its own mains', () => {
  const rows = rowsOf(dome, {}, [0.5, 0.5]).map((r, n) => ({ ...r, mainsV: n ? 207 : 253 }));
  const { line, at: own } = computedLine(withRows(dome, rows));
  expect(line.map((p) => p.value)).toEqual(line.map((p) => p.value).sort((a, b) => b - a));
  // Read less computed: of the row read far too high it is what is too much.
  const { value, figure } = own['row-0-reservoirV']!;
  const { reservoirV } = rows[0]!;
  expect(figure.value).toBeCloseTo(reservoirV! - value, 9);
  expect(Math.abs(figure.value)).toBeLessThan(0.5 * value);
  // Open volts alone are believed to 3 %: the line cannot be surer than that.
  expect(line[0]!.sigma / line[0]!.value).toBeGreaterThan(0.029);
  // A tenth more mains lifts the crest, from which the drops go, by a little more than a tenth.
  const ratio = own['row-0-reservoirV']!.value / own['row-1-reservoirV']!.value;
  expect(ratio).toBeGreaterThan(253 / 207);
  expect(ratio).toBeLessThan(1.3);
});

test('what full load takes away while the copper warms is what warmer copper takes of its own drop', () => {
  const { droop } = computedLine(dome);
  const of = (label: string) => droop!.inputs.find((i) => i.label === label)!.value;
  // Copper grows by 1/254.5 of its value at 20 °C a kelvin: so does what the winding's resistance costs.
  const model = new DesignModel(dome);
  const state = { mainsV: 230, load: dome.demand.outputA };
  const full = (copper: number) => model.predict([{ quantity: 'reservoir', state }], { copper })[0]!;
  const costs = (full(0.9) - full(1)) / 0.1;
  const grows = (of('copper, in the end') - 25) / (254.5 + of('copper, in the end') - 20);
  expect(droop!.value).toBeGreaterThan(0.85 * grows * costs);
  expect(droop!.value).toBeLessThan(1.15 * grows * costs);
  expect(of('copper cold') - of('copper warm')).toBeCloseTo(droop!.value, 9);
  expect(computedLine(logger).droop).toBeNull();
});

describe('rows out of a file', () => {
  const read = (text: string) => readRows(text, at, 230, 12);

  test('with names in any order, units, ohms and minutes; without names in the usual one', () => {
    const { rows, errors } = read('Mains [V];Load;Volts;Ripple;Minutes;Fed from\n229;24 ohm;17,4;850 mV;3;variable\n');
    expect(errors).toEqual([]);
    expect(rows[0]).toMatchObject({ mainsV: 229, loadA: 0.5, reservoirV: 17.4, rippleV: 0.85, loadedS: 180 });
    expect(rows[0]!.fedFrom).toBe('variable');
    expect(read('0.3, 18.2, 0.4').rows[0]).toMatchObject({ loadA: 0.3, reservoirV: 18.2, rippleV: 0.4, mainsV: 230 });
  });

  test('what cannot be read is said with its row, the others are taken', () => {
    const { rows, errors } = read('load,reservoir,ripple\n0.1,17,0.2\nabc,17,0.2\n0.2,,\n0.3,16,850\n0.4,16,0.5\n');
    expect(rows.map((r) => r.loadA)).toEqual([0.1, 0.4]);
    expect(errors).toHaveLength(3);
    expect(errors[0]).toMatch(/^Row 3: load: /);
    expect(errors[1]).toMatch(/^Row 4: nothing was read/);
    expect(errors[2]).toMatch(/^Row 5: a ripple of more than twice the volts/);
    expect(read('volts\n3').errors).toEqual(["The column 'load' is missing."]);
    expect(read('  ').errors).toEqual(['There is nothing to read.']);
  });

  test('and back into one', () => {
    const { rows } = read(rowsCsv(dome.bench.loadLine));
    expect(rows.map(({ at: _at, ...r }) => (void _at, r))).toEqual(
      dome.bench.loadLine.map(({ at: _at, ...r }) => (void _at, r)),
    );
  });
});

describe('a fault of a built supply', () => {
  /** The design with readings of a build that has a fault, and parts a little off. */
  function broken(design: Design, name: CaseFault['fault'], severity: readonly number[]): Design {
    const circuit = networkOf(design, CONDITIONS.nominal);
    const fault = caseFaults(circuit, { railV: 30, loadA: design.demand.outputA }).find((f) => f.fault === name)!;
    const load = design.demand.outputA;
    const values = new DesignModel(design).predict(
      [
        { quantity: 'winding', state: { mainsV: 231, load: 'open' } },
        { quantity: 'reservoir', state: { mainsV: 231, load: 'bare' } },
        { quantity: 'reservoir', state: { mainsV: 230, load } },
        { quantity: 'ripple', state: { mainsV: 230, load } },
      ],
      { open: 1.01, copper: 1.1, capacitance: 0.95 },
      (c) => fault.edit(c, severity),
    );
    const points = ['secondary-open', 'reservoir-idle', 'reservoir-loaded', 'reservoir-ripple'];
    const readings = points.map((point, n) => ({
      point,
      value: Number(values[n]!.toPrecision(4)),
      mainsV: n < 2 ? 231 : 230,
      fedFrom: 'mains' as const,
      at,
    }));
    return { ...design, bench: { ...design.bench, loadLine: [], readings } };
  }
  const found = (design: Design): FaultReport => {
    const report = findFault(design);
    if (typeof report === 'string') throw new Error(report);
    return report;
  };

  test.each<[CaseFault['fault'], number[]]>([
    ['none', []],
    ['diode-open', []],
    ['reservoir-dry', [0.3, 4]],
    ['source-low', [0.8]],
    ['extra-load', [0.7]],
  ])('%s comes first, from four readings', (name, severity) => {
    const { suspects } = found(broken(clock, name, severity));
    expect(suspects[0]!.fault).toBe(name);
    expect(suspects[0]!.readings.every((r) => r.explained)).toBe(true);
    expect(suspects.reduce((sum, s) => sum + s.probability, 0)).toBeCloseTo(1, 6);
  });

  test('an output that stands at the rail is the regulator’s, not the circuit’s', () => {
    const sound = broken(clock, 'none', []);
    const rail = sound.bench.readings.find((r) => r.point === 'reservoir-loaded')!.value;
    const output = (value: number) =>
      found({
        ...sound,
        bench: {
          ...sound.bench,
          readings: [
            ...sound.bench.readings,
            { point: 'output-loaded', value, mainsV: 230, fedFrom: 'mains' as const, at },
          ],
        },
      }).suspects[0]!;
    expect(output(rail)).toMatchObject({
      fault: 'output-through',
      caution: expect.stringMatching(/take the load off/),
    });
    expect(output(0.02).fault).toBe('output-dead');
  });

  test('the tide gauge’s fault is found in its four readings', () => {
    const { suspects } = found(pen);
    expect(suspects[0]).toMatchObject({ fault: 'diode-open', where: 'D1, D2, D3 or D4' });
    expect(suspects[0]!.probability).toBeGreaterThan(0.9);
  });

  test('with little read the next reading is worth taking, unpowered ones before their like', () => {
    const two = broken(clock, 'diode-open', []);
    const readings = two.bench.readings.filter((r) => ['secondary-open', 'reservoir-loaded'].includes(r.point));
    const { suspects, next } = found({ ...two, bench: { ...two.bench, readings } });
    expect(suspects[0]!.probability).toBeLessThan(0.9);
    expect(next.length).toBeGreaterThan(1);
    const worth = next.map((n) => n.gain / (n.minutes * (n.powered ? 2 : 1)));
    expect(worth).toEqual([...worth].sort((a, b) => b - a));
  });

  test('with next to nothing read it says what is needed', () => {
    expect(findFault({ ...clock, bench: { ...clock.bench, readings: [], loadLine: [] } })).toMatch(
      /Two readings or more/,
    );
  });
});
