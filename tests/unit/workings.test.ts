import { applyPatch } from '@/core/design/design';
import { transformerFigures } from '@/core/picture/figures/transformer';
import { pictureOf } from '@/core/judge/picture';
import type { Picture } from '@/core/picture/picture';
import { stationFigures } from '@/core/picture/station-figures';
import type { StationId } from '@/core/judge/verdict';
import type { Figure } from '@/core/study/figure';
import { demoDesigns } from '@/core/design/demo-designs';

const [clock, dome, pen] = demoDesigns() as [
  ReturnType<typeof demoDesigns>[0],
  ReturnType<typeof demoDesigns>[0],
  ReturnType<typeof demoDesigns>[0],
];
const pictures = [clock, dome, pen].map((d) => pictureOf(d).picture);
const regulated = pictures[0]!;

function figure(picture: Picture, station: StationId, id: string): Figure {
  const found = stationFigures(picture, station, 'nominal').find((f) => f.id === id);
  if (!found) throw new Error(`no figure ${id}`);
  return found;
}

function judged(picture: Picture, id: string): Figure {
  const found = picture.verdicts.find((v) => v.id === id);
  if (!found) throw new Error(`no verdict ${id}`);
  return found.figure;
}

function input(f: Figure, label: string): number {
  const found = f.inputs.find((i) => i.label === label);
  if (!found) throw new Error(`${f.id} has no input '${label}'`);
  return found.value;
}

// A working is honest when its own inputs, put into its own expression, give its own value.
describe('a working gives its value again', () => {
  test('open-circuit volts: rated × (1 + regulation) × mains / nominal', () => {
    for (const band of ['low', 'nominal', 'high'] as const) {
      const f = stationFigures(regulated, 'winding', band).find((x) => x.id === 'winding-open')!;
      const value = (input(f, 'rated volts') * (1 + input(f, 'regulation') / 100) * input(f, 'mains')) / 230;
      expect(f.value).toBeCloseTo(value, 9);
    }
  });

  test('winding resistance, warm and cold', () => {
    const f = figure(regulated, 'winding', 'winding-ohm');
    expect(f.value).toBeCloseTo((24 * 0.09) / input(f, 'rated current'), 9);
    const cold = input(f, 'its own, cold') + input(f, 'the primary’s, referred, cold');
    expect(f.value / cold).toBeCloseTo((234.5 + 75) / 254.5, 9);
  });

  test('the copper of a transformer, whichever way it is known', () => {
    const copper = (source: Parameters<typeof applyPatch>[1]['transformer']) =>
      transformerFigures(applyPatch(clock, { transformer: source! })).find((f) => f.id === 'model-cold')!;
    const at25 = 254.5 / (234.5 + 25);
    const ohms = copper({ source: { kind: 'ohms', primaryOhm: 30, secondaryOhm: 0.5, openV: 26, mainsV: 231 } });
    const primary = input(ohms, 'primary') * (26 / 231) ** 2;
    expect(ohms.value).toBeCloseTo((input(ohms, 'secondary') + primary) * at25, 9);
    const test = copper({ source: { kind: 'test', openV: 26, loadedV: 24, loadA: 2, mainsV: 231 } });
    expect(test.value).toBeCloseTo(((input(test, 'open') - input(test, 'loaded')) / input(test, 'current')) * at25, 9);
    const open = transformerFigures(
      applyPatch(clock, { transformer: { source: { kind: 'test', openV: 26, loadedV: 24, loadA: 2, mainsV: 231 } } }),
    ).find((f) => f.id === 'model-open')!;
    expect(open.value).toBeCloseTo((input(open, 'open volts read') * 230) / input(open, 'mains then'), 9);
  });

  test('stored energy: half C V squared', () => {
    const f = figure(regulated, 'reservoir', 'reservoir-energy');
    expect(f.value).toBeCloseTo(0.5 * input(f, 'reservoir') * input(f, 'at') ** 2, 9);
  });

  test('headroom: valley less what is needed', () => {
    const f = figure(regulated, 'regulator', 'regulator-headroom');
    expect(f.value).toBeCloseTo(input(f, 'valley') - input(f, 'needed'), 9);
    const v = regulated.verdicts.find((x) => x.id === 'headroom')!.figure;
    expect(v.value).toBeCloseTo(input(v, 'lowest reservoir voltage') - input(v, 'output') - input(v, 'dropout'), 9);
  });

  test('junction: air plus watts times the chain', () => {
    const f = figure(regulated, 'regulator', 'regulator-junction');
    const chain = f.inputs.filter((i) => i.unit === 'K/W').reduce((sum, i) => sum + i.value, 0);
    // The sink is quoted at a rise of 60 K; at less it carries less.
    const rise = input(f, 'watts in it') * input(f, 'sink to air, at this rise');
    expect(chain).toBeCloseTo(3 + 0.8 + 1.5 * (60 / rise) ** 0.25, 9);
    expect(f.value).toBeCloseTo(input(f, 'air at the sink') + input(f, 'watts in it') * chain, 9);
  });

  test('on a sink that others warm too, theirs is in the working', () => {
    const shared = pictureOf(applyPatch(clock, { heat: { sharedWithRectifier: true } })).picture;
    for (const f of [figure(shared, 'regulator', 'regulator-junction'), judged(shared, 'junction')]) {
      const onSink = input(f, 'all watts on the sink') * input(f, 'sink to air, at this rise');
      expect(input(f, 'all watts on the sink')).toBeGreaterThan(input(f, 'watts in it') + 1);
      // 3 K/W to the case, 0.8 through mica.
      expect(f.value).toBeCloseTo(input(f, 'air at the sink') + onSink + input(f, 'watts in it') * 3.8, 9);
      expect(f.expression).toMatch(/all watts on the sink × sink to air, at this rise \+ watts × \(junction to case/);
    }
    const metal = judged(shared, 'sink-touch');
    expect(metal.value).toBeCloseTo(
      input(metal, 'air at the sink') +
        input(metal, 'all watts on the sink') * input(metal, 'sink to air, at this rise'),
      9,
    );
    // Both tabs of a split supply on one sink, and each its own watts through its own washer.
    const drum = demoDesigns()[3]!;
    const both = judged(pictureOf(applyPatch(drum, { heat: { oneSink: true } })).picture, 'junction');
    const warmer = input(both, 'all watts on the sink') * input(both, 'sink to air, at this rise');
    expect(input(both, 'all watts on the sink')).toBeGreaterThan(1.3 * input(both, 'watts in it'));
    expect(both.value).toBeCloseTo(
      input(both, 'air at the sink') + warmer + input(both, 'watts in it') * (input(both, 'junction to case') + 0.8),
      9,
    );
  });

  test('a bare part: its case is the air and what lies between junction to air and junction to case', () => {
    const logger = pictureOf(demoDesigns()[7]!).picture;
    const metal = judged(logger, 'sink-touch');
    const share = input(metal, 'junction to air') - input(metal, 'junction to case');
    expect(metal.value).toBeCloseTo(input(metal, 'air') + input(metal, 'watts in it') * share, 9);
    const junction = judged(logger, 'junction');
    expect(junction.value).toBeCloseTo(
      input(junction, 'air') + input(junction, 'watts in it') * input(junction, 'junction to free air'),
      9,
    );
    expect(figure(logger, 'regulator', 'regulator-sink').label).toBe('Its case');
    expect(figure(regulated, 'regulator', 'regulator-sink').label).toBe('Sink metal');
  });

  test('watts in the regulator: close to mean drop times load, plus the quiescent current', () => {
    const f = figure(regulated, 'regulator', 'regulator-watts');
    const byHand = (input(f, 'mean input') - input(f, 'output')) * 1.2 + input(f, 'mean input') * input(f, 'quiescent');
    expect(f.value / byHand).toBeCloseTo(1, 2);
  });

  test('what reaches the load', () => {
    for (const picture of pictures) {
      const f = figure(picture, 'load', 'efficiency');
      expect(f.value).toBeCloseTo((100 * input(f, 'load')) / input(f, 'from the EMF'), 9);
      expect(f.value).toBeGreaterThan(30);
      expect(f.value).toBeLessThan(95);
    }
  });

  test('ripple on the output: reservoir ripple through the rejection, and what dropout lets through', () => {
    for (const picture of [pictures[0]!, pictures[2]!]) {
      const f = picture.verdicts.find((v) => v.id === 'output-ripple')!.figure;
      const through = input(f, 'reservoir ripple') * 10 ** (-input(f, 'rejection at the ripple’s frequency') / 20);
      expect(f.value).toBeCloseTo(through + input(f, 'let through by dropout'), 9);
    }
    expect(
      input(pictures[2]!.verdicts.find((v) => v.id === 'output-ripple')!.figure, 'let through by dropout'),
    ).toBeGreaterThan(1);
  });

  test('ripple current: RMS of rectifier and load subtract in quadrature', () => {
    const f = regulated.verdicts.find((v) => v.id === 'ripple-current')!.figure;
    const byHand = Math.sqrt(input(f, 'rectifier current, RMS') ** 2 - input(f, 'load current') ** 2);
    expect(f.value).toBeCloseTo(byHand, 9);
    const rms = figure(regulated, 'winding', 'winding-rms').value;
    const nominal = figure(regulated, 'reservoir', 'reservoir-current').value;
    expect(nominal).toBeCloseTo(Math.sqrt(rms ** 2 - regulated.points.nominal.rail.loadMeanA ** 2), 2);
  });

  test('deviation of the output: the worse of below and above', () => {
    const f = pictures[1]!.verdicts.find((v) => v.id === 'output-window')!.figure;
    const middle = (input(f, 'window from') + input(f, 'to')) / 2;
    const worse = Math.max(middle - input(f, 'lowest'), input(f, 'highest') - middle);
    expect(f.value).toBeCloseTo((100 * worse) / middle, 9);
  });
});

describe('estimates stand beside the simulation and are told apart', () => {
  test('a bridge’s winding: 1.8 times the load current, within a third', () => {
    for (const picture of pictures.slice(0, 2)) {
      const f = figure(picture, 'winding', 'winding-rms');
      expect(f.origin).toBe('simulated');
      expect(Math.abs(f.estimate!.value / f.value - 1)).toBeLessThan(0.34);
    }
  });

  test('the idle peak: root two times the open-circuit volts, a little above what diodes leave', () => {
    const f = regulated.verdicts.find((v) => v.id === 'reservoir-voltage')!.figure;
    expect(f.estimate!.value).toBeGreaterThan(f.value);
    expect(f.estimate!.value - f.value).toBeLessThan(2.2);
  });

  test('a diode’s mean: half the load current in a bridge', () => {
    const f = regulated.verdicts.find((v) => v.id === 'diode-average')!.figure;
    expect(f.estimate!.value / f.value).toBeCloseTo(1, 3);
  });

  test('the first surge stays under peak over cold copper', () => {
    for (const picture of pictures) {
      const f = picture.verdicts.find((v) => v.id === 'diode-surge')!.figure;
      expect(f.value).toBeLessThan(f.estimate!.value);
      expect(f.value).toBeGreaterThan(0.5 * f.estimate!.value);
    }
  });
});

test('what is typical is called typical, what is chosen chosen', () => {
  expect(figure(regulated, 'reservoir', 'reservoir-esr').origin).toBe('typical');
  const entered = pictureOf(applyPatch(clock, { reservoir: { esrOhm: 0.03 } })).picture;
  expect(figure(entered, 'reservoir', 'reservoir-esr').origin).toBe('chosen');
  expect(regulated.verdicts.find((v) => v.id === 'ripple-current')!.limitSource).toMatch(/Typical/);
  const rated = pictureOf(applyPatch(clock, { reservoir: { rippleA: 4 } })).picture;
  expect(rated.verdicts.find((v) => v.id === 'ripple-current')!.limitSource).toMatch(/as entered/);
});

test('a verdict’s sentence carries its number and its limit', () => {
  const v = regulated.verdicts.find((x) => x.id === 'regulator-input')!;
  expect(v.sentence).toBe('39.1 V of 40 V allowed at the input.');
  expect(v.limitSource).toBe('Input maximum of the 78S24.');
  for (const picture of pictures) {
    for (const verdict of picture.verdicts) {
      expect(verdict.sentence).toMatch(/\d/);
      expect(verdict.reason.length).toBeGreaterThan(20);
      expect(verdict.limitSource.length).toBeGreaterThan(10);
      expect(verdict.wantedMargin).toBeGreaterThan(0);
    }
  }
});

test('mains figures have no corner: they are the corners', () => {
  expect(stationFigures(regulated, 'mains', 'low').map((f) => [f.label, Math.round(f.value)])).toEqual([
    ['Low line', 207],
    ['Nominal line', 230],
    ['High line', 253],
  ]);
});

test('without a regulator there is nothing to say about one', () => {
  expect(stationFigures(pictures[1]!, 'regulator', 'nominal')).toEqual([]);
});
