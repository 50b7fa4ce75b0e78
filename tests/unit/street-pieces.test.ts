import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readCase } from '@/core/circuit/case-file';
import { CONDITIONS } from '@/core/circuit/condition';
import { loadLaw } from '@/core/circuit/load-law';
import { loadsOfOutput, railExtras, setVolts } from '@/core/circuit/loads-of';
import type { Load } from '@/core/circuit/network';
import { applyPatch, type Patch } from '@/core/design/design';
import { mainModel, outputsOf } from '@/core/design/outputs';
import { readPartsCsv } from '@/core/drawer/csv';
import { KINDS, PART_KINDS, type PartDraft } from '@/core/drawer/part';
import { partFaults } from '@/core/drawer/part-schema';
import { pictureOf } from '@/core/judge/picture';
import { stationFigures } from '@/core/picture/station-figures';
import { parseQuantity, type Unit } from '@/core/quantity/parse';
import { clock, dome } from '../support/demos';

describe('what an output draws', () => {
  const of = (patch: Patch, condition = CONDITIONS.nominal) => {
    const d = applyPatch(dome, { ...patch, load: { consumers: [] } });
    return loadsOfOutput(d, outputsOf(d)[0]!, condition);
  };
  test('a current, a resistance, or watts that hold down to half of its volts', () => {
    // 32 V at 4 A.
    expect(of({ demand: { kind: 'current' } })).toEqual([{ kind: 'current', currentA: 4 }]);
    expect(of({ demand: { kind: 'resistance' } })).toEqual([{ kind: 'resistance', resistanceOhm: 8 }]);
    expect(of({ demand: { kind: 'power' } })).toEqual([{ kind: 'power', powerW: 128, minV: 16 }]);
    expect(of({}, { ...CONDITIONS.nominal, load: 'none' })).toEqual([]);
  });

  test('a regulator holds its volts less what its output resistors take, and never goes below nothing', () => {
    const model = mainModel(clock)!;
    expect(setVolts(model, 1)).toBe(24);
    expect(setVolts(model, 1, 1.04)).toBeCloseTo(24.96, 9);
    expect(setVolts({ ...model, outputOhm: 0.5 }, 2)).toBeCloseTo(23, 9);
    expect(setVolts({ ...model, outputOhm: 100 }, 2)).toBe(0.05);
  });
});

test('an indicator and a fan hang on the first rail alone, the fan once it runs', () => {
  const lit = applyPatch(dome, {
    indicator: { at: 'rail', currentA: 0.01, forwardV: 2 },
    heat: { fan: 'switched', fanA: 0.12 },
  });
  const of = (condition = CONDITIONS.nominal, rail = 0) => railExtras(lit, condition, rail).map((e) => e.label);
  expect(of({ ...CONDITIONS.nominal, copper: 'cold' })).toEqual(['indicator']);
  expect(of({ ...CONDITIONS.nominal, copper: 'hot' })).toEqual(['indicator', 'fan']);
  expect(of({ ...CONDITIONS.nominal, copper: 'hot' }, 1)).toEqual([]);
  const [lamp] = railExtras(lit, CONDITIONS.nominal, 0);
  expect(lamp!.load).toMatchObject({ kind: 'drain', fromV: 2 });
  expect(
    railExtras(applyPatch(lit, { indicator: { at: 'output' } } as Patch), { ...CONDITIONS.nominal, copper: 'cold' }, 0),
  ).toEqual([]);
});

test('what starts hard draws its factor at first, and that surge dies away with its own time', () => {
  const lamp: Load = { kind: 'resistance', resistanceOhm: 10, surge: { factor: 5, tauS: 0.1 } };
  const law = loadLaw([lamp, { kind: 'current', currentA: 1 }]);
  // 20 V: 2 A and 1 A running; five times 2 A cold; 2 + 8/e after one time constant.
  expect(law.current(20, Infinity)).toBeCloseTo(3, 12);
  expect(law.current(20, 0)).toBeCloseTo(11, 12);
  expect(law.current(20, 0.1)).toBeCloseTo(1 + 2 + 8 * 0.36787944117, 9);
  expect(law.current(20, 0.3)).toBeCloseTo(1 + 2 + 8 * 0.04978706837, 9);
});

describe('a case in a file', () => {
  const json = () =>
    JSON.parse(readFileSync(path.join(process.cwd(), 'tests/fixtures/cases/01-bridge-12v-500ma.json'), 'utf8')) as {
      rails: { filter: unknown[] }[];
      run?: object;
    };
  const fault = (change: (c: ReturnType<typeof json>) => void) => {
    const c = json();
    change(c);
    try {
      readCase(c);
      return null;
    } catch (error) {
      return (error as Error).message;
    }
  };
  test('each element of a filter has what its kind needs', () => {
    const withElement = (element: object) => fault((c) => c.rails[0]!.filter.push(element));
    expect(withElement({ kind: 'resistor', resistanceOhm: 5 })).toBeNull();
    expect(withElement({ kind: 'resistor' })).toMatch(/resistanceOhm.*missing/);
    expect(withElement({ kind: 'resistor', resistanceOhm: -1 })).toMatch(/resistanceOhm/);
    expect(withElement({ kind: 'resistor', resistanceOhm: 5, inductanceH: 1 })).toMatch(/inductanceH/);
    expect(withElement({ kind: 'capacitor', capacitanceF: 1e-3 })).toBeNull();
    expect(withElement({ kind: 'inductor', inductanceH: 1 })).toBeNull();
    expect(withElement({ kind: 'capacitor' })).toMatch(/capacitanceF/);
    expect(withElement({ kind: 'spring' })).toMatch(/spring is not a filter element/);
  });

  test('as many rails as its rectifier has, said in words', () => {
    const rail = json().rails[0]!;
    expect(fault((c) => c.rails.push(rail))).toMatch(/it holds 2, a bridge has one rail/);
    const split = (rails: number) =>
      fault((c) => {
        (c as unknown as { rectifier: { kind: string } }).rectifier.kind = 'split-bridge';
        c.rails = Array.from({ length: rails }, () => rail);
      });
    expect(split(1)).toMatch(/it holds 1, a split-bridge has two rails/);
    expect(split(2)).toBeNull();
  });

  test('a start keeps its cycles and the angle it is switched on at', () => {
    const c = { ...json(), run: { kind: 'start', cycles: 7, switchOnPhaseDeg: 90 } };
    expect(readCase(c).run).toEqual({ kind: 'start', cycles: 7, switchOnPhaseDeg: 90 });
  });

  test('each run has what it needs', () => {
    const run = (r: object) => fault((c) => (c.run = r));
    expect(run({ kind: 'steady' })).toBeNull();
    expect(run({ kind: 'dip', cycles: 5, missingCycles: 1 })).toBeNull();
    expect(run({ kind: 'dip', cycles: 5 })).toMatch(/missingCycles.*missing/);
    expect(run({ kind: 'dip', cycles: 5, missingCycles: 0 })).toMatch(/more than 0/);
    expect(run({ kind: 'dip', missingCycles: 1 })).toMatch(/cycles.*missing/);
    expect(run({ kind: 'step', cycles: 5, fromA: 0.1 })).toMatch(/toA.*missing/);
    expect(run({ kind: 'step', cycles: 5, toA: 0.1 })).toMatch(/fromA.*missing/);
    expect(run({ kind: 'start', cycles: 0 })).toMatch(/at least 1/);
    expect(run({ kind: 'start', cycles: 2.5 })).toMatch(/whole number/);
    expect(run({ kind: 'start', cycles: 10_001 })).toMatch(/more than 10000/);
    expect(run({ kind: 'walk' })).toMatch(/walk: it can be steady, start, step or dip/);
  });
});

describe('figures of a station', () => {
  test('what the diodes take at the crest is a volt and a half to two and a half of a bridge', () => {
    const { picture } = pictureOf(clock);
    const drop = stationFigures(picture, 'rectifier', 'nominal').find((f) => f.id === 'diode-drop')!;
    expect(drop.value).toBeGreaterThan(1.4);
    expect(drop.value).toBeLessThan(2.5);
  });

  test('none of a regulator that is not there', () => {
    expect(stationFigures(pictureOf(dome).picture, 'regulator', 'nominal')).toEqual([]);
    expect(stationFigures(pictureOf(clock).picture, 'regulator', 'nominal').length).toBeGreaterThan(3);
  });
});

test('units as builders write them', () => {
  const read = (text: string, unit: Unit) => {
    const r = parseQuantity(text, unit);
    return r.ok ? r.value : r.error;
  };
  const WRITTEN: [string, Unit, number][] = [
    ['5 s', 's', 5],
    ['5 sec', 's', 5],
    ['20 ms', 's', 0.02],
    ['3 ohms', 'ohm', 3],
    ['4R7', 'ohm', 4.7],
    ['50 hz', 'Hz', 50],
    ['7 percent', '%', 7],
    ['1.5 c/w', 'K/W', 1.5],
    ['60 degc', '°C', 60],
    ['12 kelvin', 'K', 12],
    ['2 henry', 'H', 2],
    ['300 mJ', 'J', 0.3],
    ['60 db', 'dB', 60],
    ['9 €', 'EUR', 9],
    ['45 deg', '°', 45],
  ];
  for (const [text, unit, value] of WRITTEN) expect([text, read(text, unit)]).toEqual([text, expect.closeTo(value, 9)]);
  expect(read('5 volts of x', 's')).toEqual(expect.any(String));
});

describe('a part of each kind', () => {
  test('asks for the ratings it cannot be used without, and for no others', () => {
    for (const kind of PART_KINDS) {
      const bare = Object.fromEntries(KINDS[kind].ratings.map((r) => [r.key, null]));
      const part = {
        kind,
        name: 'x',
        ratings: bare,
        known: 'typical',
        condition: 'new',
        count: 1,
        priceEur: null,
        place: '',
        note: '',
      } as unknown as PartDraft;
      const missing = Object.keys(partFaults(part)).map((key) => key.replace('ratings.', ''));
      expect([kind, missing]).toEqual([kind, KINDS[kind].ratings.filter((r) => r.required).map((r) => r.key)]);
    }
    // A box without its three sides holds nothing.
    expect(KINDS.box.ratings.filter((r) => r.required).map((r) => r.key)).toEqual(['widthMm', 'depthMm', 'heightMm']);
  });

  test('from a file is refused row by row, with what its words may be', () => {
    const row = (known: string, condition: string) => {
      const read = readPartsCsv(`kind,name,count,kPerW,known,condition\nsink,Fin,1,5,${known},${condition}`);
      const first = read.ok ? read.rows[0]! : { error: read.error };
      return 'error' in first ? first.error : null;
    };
    expect(row('typical', 'new')).toBeNull();
    expect(row('', '')).toBeNull();
    expect(row('guessed', 'new')).toMatch(/known has to be/);
    expect(row('typical', 'burnt')).toMatch(/condition has to be/);
  });
});
