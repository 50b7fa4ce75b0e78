import { conditionsOf } from '@/core/circuit/condition';
import { formatQuantity } from '@/core/quantity/format';
import { billOf } from '@/core/study/bill';
import { drawnPoint } from '@/core/study/drawn-point';
import { outputSpan, studyDesign } from '@/core/study/study';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { insulationAdvice, tabsOnSink } from '@/core/study/heat';
import { batteryLife } from '@/core/study/battery-life';
import { heatView } from '@/core/study/heat-report';
import { noiseReport, strayDistance } from '@/core/study/noise';
import { operatingPoint } from '@/core/study/operating-point';
import type { ScopeRun } from '@/core/study/scope-shapes';
import { scopeTraces } from '@/core/study/traces';
import { clock, dome, drum, tide, physics, logger } from '../support/demos';

describe('what a run on the scope says beside its traces', () => {
  const run = (d: Design, r: ScopeRun, patch: Patch = {}) => scopeTraces(applyPatch(d, patch), r, 'nominal');
  const note = (t: ReturnType<typeof run>, label: string) => t.notes.find((n) => n.label === label)?.value;
  const trace = (t: ReturnType<typeof run>, id: string) => t.traces.find((x) => x.id === id)!;
  const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;

  test('steady: the figures of the very trace that is drawn', () => {
    const t = run(clock, { kind: 'steady' });
    const rail = trace(t, 'reservoir-v-0').values;
    expect(note(t, 'mean')! / mean(rail)).toBeCloseTo(1, 4);
    expect(note(t, 'ripple p-p')! / (Math.max(...rail) - Math.min(...rail))).toBeCloseTo(1, 2);
    const m = mean(rail);
    const rms = Math.sqrt(mean(rail.map((v) => (v - m) ** 2)));
    expect(note(t, 'ripple RMS')! / rms).toBeCloseTo(1, 2);
    expect(t.notes.map((n) => n.unit)).toEqual(['V', 'V', 'V']);
    expect(t.stepS * t.perCycle).toBeCloseTo(1 / 50, 12);
  });

  test('a load step, a dip, a drift, a start: what happened before, how far it went, how long it took', () => {
    const step = run(dome, { kind: 'step', fromShare: 0.2, toShare: 1, cycles: 4 });
    expect(note(step, 'mean before')!).toBeGreaterThan(note(step, 'lowest after')!);
    expect(note(step, 'highest after')!).toBeGreaterThan(note(step, 'lowest after')!);
    const gone = run(dome, { kind: 'removal', remainShare: 0, cycles: 4 });
    expect(note(gone, 'highest after')!).toBeGreaterThan(note(gone, 'mean before')!);
    const dip = run(clock, { kind: 'dip', missingCycles: 1, cycles: 6 });
    expect(dip.notes.map((n) => [n.label, n.unit])).toEqual([
      ['lowest', 'V'],
      ['after', 's'],
      ['recharging pulse', 'A'],
      ['recovered within', 's'],
    ]);
    // 1.2 A out of 6800 µF for a cycle: 3.5 V more than its ripple takes.
    expect(note(dip, 'lowest')!).toBeLessThan(28.5);
    expect(note(dip, 'recovered within')!).toBeLessThan(0.3);
    const drift = run(clock, { kind: 'drift', to: 'low', cycles: 10 });
    expect(drift.notes.map((n) => n.label)).toEqual(['mean before', 'mean at the end', 'lowest', 'highest']);
    expect(note(drift, 'mean at the end')!).toBeLessThan(note(drift, 'mean before')! - 4);
    const start = run(clock, { kind: 'start', cycles: 8, phaseDeg: 90 });
    expect(note(start, 'highest diode current')!).toBeGreaterThan(40);
    expect(note(start, 'nine tenths after')!).toBeLessThan(0.1);
    expect(note(start, 'I²t')!).toBeGreaterThan(0);
    // A start that is cut off before it got there says nothing of it.
    const slow = run(clock, { kind: 'start', cycles: 1, phaseDeg: 0 }, { reservoir: { capacitanceF: 0.5 } });
    expect(slow.notes.map((n) => n.label)).not.toContain('nine tenths after');
  });

  test('probes are named after what they are on', () => {
    const ids = (d: Design, patch: Patch = {}) =>
      run(d, { kind: 'steady' }, patch).traces.map((t) => `${t.id} ${t.label}`);
    expect(ids(clock)).toEqual([
      'winding-v Winding, open',
      'winding-a Winding current',
      'input-v-0 Rectifier output',
      'reservoir-v-0 Reservoir',
      'output-v-0 Output',
      'diode-a First diode',
    ]);
    expect(ids(drum)).toEqual(
      expect.arrayContaining(['reservoir-v-0 Reservoir (+)', 'reservoir-v-1 Reservoir (−)', 'output-v-1 Output (−)']),
    );
    const minus = run(drum, { kind: 'steady' }).traces.find((t) => t.id === 'reservoir-v-1')!;
    expect(Math.max(...minus.values)).toBeLessThan(0);
    const two = { kind: 'choke', inductanceH: 5, resistanceOhm: 100, ratedA: 0.1, swinging: false } as const;
    const cap = { kind: 'capacitor', capacitanceF: 22e-6, ratedV: 400 } as const;
    expect(ids(tide)).toContain('choke-a-0 Choke current');
    const filtered = ids(tide, { filter: { before: [two], after: [two, cap] } });
    expect(filtered).toEqual(
      expect.arrayContaining([
        'choke-a-0 Choke current 1',
        'choke-a-0-2 Choke current 2',
        'rail-v-0 Behind the filter',
      ]),
    );
    expect(ids(logger)).toEqual(
      expect.arrayContaining(['winding-v Battery, open', 'input-v-0 Behind the diode', 'further-v0-0 Radio']),
    );
    const bare = { source: { ...logger.source, reverseDiode: false } as Design['source'] };
    expect(ids(logger, bare).join()).not.toMatch(/First diode/);
  });
});

test('a battery into a resistor: its charge over V/R, volts falling evenly', () => {
  const d = applyPatch(logger, {
    source: { kind: 'battery', freshV: 12.6, emptyV: 10, resistanceOhm: 0.01, capacityAh: 7, reverseDiode: false },
    regulator: { kind: 'none' },
    outputs: [],
    reservoir: { capacitanceF: 0 },
    demand: { kind: 'resistance', outputV: 12, outputA: 0.5, typicalA: null, tolerancePct: 60 },
  });
  const life = batteryLife(d)!;
  // 24 Ω: hours are Ah·R times the mean of 1/V, which is ln(Vf/Ve)/(Vf − Ve).
  expect(life.hours).toBeCloseTo((7 * 24 * Math.log(12.6 / 10)) / 2.6, 0);
  expect(life.hours / ((7 * 24 * Math.log(12.6 / 10)) / 2.6)).toBeCloseTo(1, 2);
  expect(life.used).toBe(1);
});

test('a heat that has no end says so', () => {
  expect(heatView(clock, 'high', null)!.settled).toBe(true);
  expect(heatView(logger, 'high', null)!.settled).toBe(true);
  const hopeless = applyPatch(clock, {
    demand: { outputA: 8 },
    transformer: { ratedVA: 20 },
    regulator: { kind: 'none' },
  });
  const view = heatView(hopeless, 'high', null)!;
  expect(view.settled).toBe(false);
  const winding = view.rows.find((r) => r.id === 'winding')!;
  expect([winding.note, winding.steps.at(-1)!.tempC]).toEqual(['does not come to rest', 250]);
});

describe('metal on the main sink', () => {
  const chime = {
    ...logger.outputs[0]!,
    name: 'Chime',
    regulator: { kind: 'fixed', size: '78M', outputV: 5 },
  } as const;
  test('each tab with its potential: the negative twin of a fixed part has its input on it', () => {
    expect(tabsOnSink(clock)).toEqual([{ name: 'Regulator', at: 'ground', grounded: true }]);
    expect(insulationAdvice(clock)).toBeNull();
    expect(tabsOnSink(drum)).toHaveLength(1);
    expect(tabsOnSink(applyPatch(drum, { heat: { oneSink: true } })).map((t) => [t.name, t.at])).toEqual([
      ['Regulator', 'ground'],
      ['Negative regulator', 'its input'],
    ]);
    const bench = applyPatch(drum, { regulator: physics.regulator, heat: { oneSink: true } });
    expect(tabsOnSink(bench).map((t) => t.at)).toEqual(['its input', 'its input']);
    const three = applyPatch(clock, { outputs: [chime], heat: { oneSink: true } });
    expect(tabsOnSink(three).map((t) => t.name)).toEqual(['Regulator', 'Chime']);
    expect(tabsOnSink(applyPatch(clock, { heat: { sinkKPerW: null } }))).toEqual([]);
    expect(tabsOnSink(dome)).toEqual([]);
  });

  test('what has to be done about it', () => {
    const live = applyPatch(clock, {
      regulator: { kind: 'adjustable', part: '317', r1Ohm: 240, r2Ohm: 4300, potOhm: null, adjCapacitor: true },
    });
    expect(insulationAdvice(live)).toMatch(/^Regulator: its metal is at its output\. Insulated by the washers/);
    const dry = applyPatch(live, { heat: { interface: 'dry' } });
    expect(insulationAdvice(dry)).toMatch(/the sink lies at that potential/);
    expect(insulationAdvice(applyPatch(dry, { outputs: [chime], heat: { oneSink: true } }))).toMatch(
      /they short each other/,
    );
  });
});

test('hum and noise: each figure with what it rests on', () => {
  const noise = noiseReport(clock, drawnPoint(clock, operatingPoint(clock, 'nominal')));
  for (const f of noise.figures) {
    for (const w of [f.label, f.expression, f.source]) expect(w).toMatch(/\S/);
    for (const i of f.inputs) expect([f.id, Boolean(i.label), Number.isFinite(i.value)]).toEqual([f.id, true, true]);
  }
  const of = (id: string) => noise.figures.find((f) => f.id === id)!;
  const ground = of('noise-ground');
  expect(ground.inputs.map((i) => i.label)).toEqual(['charging pulse', '10 cm of 0.75 mm²']);
  expect(ground.value).toBeCloseTo(ground.inputs[0]!.value * ground.inputs[1]!.value, 12);
  // 10 cm of 0.75 mm² copper: 2.3 mΩ.
  expect(ground.inputs[1]!.value).toBeCloseTo((0.0172 * 0.1) / 0.75, 4);
  expect(ground.assumes).toHaveLength(1);
  expect(of('noise-own').value).toBeGreaterThan(0);
  expect(noise.figures.find((f) => f.source.startsWith('Harmonics'))!.assumes.join()).toMatch(/stray field/);
  expect(noiseReport(dome, drawnPoint(dome, operatingPoint(dome, 'nominal'))).figures.map((f) => f.id)).not.toContain(
    'noise-own',
  );
  // A stray field eight times too strong wants twice the distance.
  expect(strayDistance(5, 8)).toBeCloseTo(10, 9);
});

describe('what is said of the hardest of several', () => {
  const line = (d: Design, what: RegExp) => billOf(studyDesign(d)).find((l) => what.test(l.what))!;

  test('a can is bought for the rail that idles highest, and for its own share of the ripple', () => {
    const uneven = applyPatch(drum, { demand: { negativeA: 0.02, leastA: 0.2 } });
    const { idle } = studyDesign(uneven);
    const volts = idle.rails.map((r) => r.can!.maxV);
    expect(line(uneven, /^Electrolytic/).needed.startsWith(formatQuantity(Math.max(...volts), 'V'))).toBe(true);
    const amps = (d: Design) => Number(/([\d.]+) (m?)A ripple$/.exec(line(d, /^Electrolytic/).needed)![1]);
    // Two alike cans side by side take half each of what one of twice the size took.
    const one = applyPatch(dome, { reservoir: { cans: 1, capacitanceF: 20e-3, esrOhm: 0.01 } });
    const two = applyPatch(dome, { reservoir: { cans: 2, capacitanceF: 10e-3, esrOhm: 0.02 } });
    expect(amps(two) / amps(one)).toBeCloseTo(0.5, 2);
  });

  test('the highest the load may see is the idle crest, the regulator’s spread on top', () => {
    const raw = studyDesign(dome);
    const all = raw.conditions.filter((c) => c.output === undefined && !c.alone).map((c) => raw.at(c));
    expect(outputSpan(raw).maxV).toBe(Math.max(...all.map((p) => p.outputMaxV)));
    expect(outputSpan(raw).maxV).toBeGreaterThan(1.2 * raw.nominal.outputMaxV);
    // 24 V and 4 % of a 78 class.
    expect(outputSpan(studyDesign(clock)).maxV).toBeCloseTo(24.96, 2);
  });

  test('an indicator at an unregulated output burns its own share, and the load the rest', () => {
    const lit = applyPatch(dome, { indicator: { at: 'output', currentA: 0.02, forwardV: 2 } });
    const { nominal } = studyDesign(lit);
    const dark = studyDesign(dome).nominal;
    // 20 mA of 4 A: next to nothing off the volts, and as much less than a hundredth of the watts.
    expect(nominal.watts.load / dark.watts.load).toBeGreaterThan(0.99);
    expect(nominal.watts.load / dark.watts.load).toBeLessThan(1.005);
  });

  test('of a choke, a resistor and a can in the filter only the can has a life by its ripple', () => {
    const filtered = applyPatch(tide, {
      filter: {
        after: [
          { kind: 'resistor', resistanceOhm: 100 },
          { kind: 'capacitor', capacitanceF: 22e-6, ratedV: 400 },
        ],
      },
    });
    const rows = heatView(filtered, 'high', null)!.rows.filter((r) => r.id.startsWith('filter-'));
    expect(rows.map((r) => r.name)).toEqual(['Filter capacitor 22 µF']);
  });

  test('solved together copper ends where its own watts leave it, and that is said to have settled', () => {
    const together = applyPatch(dome, { heat: { together: true } });
    const point = operatingPoint(
      together,
      conditionsOf(together).find((c) => c.id === 'high')!,
    );
    expect(point.settled).toBe(true);
    expect(point.warmth.copperC).toBeGreaterThan(together.heat.ambientC + 15);
    // Asked again from there nothing moves.
    const again = operatingPoint(
      together,
      conditionsOf(together).find((c) => c.id === 'high')!,
    );
    expect(again.warmth.copperC).toBeCloseTo(point.warmth.copperC, 6);
  });
});
