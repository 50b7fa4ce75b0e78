import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { ofDiodeClass } from '@/core/design/diode-edit';
import { pictureOf } from '@/core/judge/picture';
import { BANDS, type Picture } from '@/core/picture/picture';
import type { StationId } from '@/core/picture/station';
import { ARRANGEMENTS, RECTIFIER_KINDS } from '@/core/parts/arrangements';
import { E12 } from '@/core/quantity/preferred';
import { by, inDecades, inList } from '@/ui/stepping';
import { dragEdits } from '@/ui/terrace/drag-edits';
import {
  archPoints,
  axisTicks,
  bandOf,
  columns,
  flatPoints,
  followPoints,
  pathOf,
  shortfallArea,
  steps,
  voltAxis,
  wavePoints,
} from '@/core/picture/terrace-geometry';
import { railScene } from '@/ui/terrace/rail-scene';
import { STATION_CONTROLS } from '@/ui/terrace/station-controls';
import { clock, dome, drum, tide, physics, logger } from '../support/demos';
import { STATIONS } from '../support/stations';

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
const choke = { kind: 'choke', inductanceH: 10, resistanceOhm: 150, ratedA: 0.1, swinging: false } as const;
const cap = { kind: 'capacitor', capacitanceF: 22e-6, ratedV: 400 } as const;
const resistor = { kind: 'resistor', resistanceOhm: 47 } as const;
const control = (id: StationId) => STATION_CONTROLS[id];
const step = (id: StationId, d: Design, direction: number, patch: Patch = {}) =>
  control(id).step(applyPatch(d, patch), direction);
const pictures = new Map<Design, Picture>();
const picture = (d: Design) => pictures.get(d) ?? pictures.set(d, pictureOf(d).picture).get(d)!;

describe('arrow keys at a station', () => {
  test('mains: a volt, ten with Shift, within what it may have; a source: a tenth of a volt', () => {
    expect(step('mains', clock, 1)).toEqual({ mains: { voltageRms: 231 } });
    expect(step('mains', clock, -10)).toEqual({ mains: { voltageRms: 220 } });
    expect(step('mains', clock, -10, { mains: { voltageRms: 15 } })).toEqual({ mains: { voltageRms: 12 } });
    expect(step('mains', clock, 10, { mains: { voltageRms: 475 } })).toEqual({ mains: { voltageRms: 480 } });
    expect(step('mains', logger, 1)!.source).toMatchObject({ freshV: 13, emptyV: 11.1 });
    expect(step('mains', logger, -1, { source: adapter })!.source).toMatchObject({ ratedV: 11.9 });
  });

  test('winding: as it is sold, four sizes with Shift; nothing of a source', () => {
    expect(step('winding', clock, 1)!.transformer).toMatchObject({ ratedV: 25 });
    expect(step('winding', clock, -1)!.transformer).toMatchObject({ ratedV: 22 });
    const four = step('winding', clock, -10)!.transformer!.ratedV!;
    expect(four).toBeLessThan(18.5);
    expect(step('winding', logger, 1)).toBeNull();
  });

  test('rectifier: the next arrangement of as many rails, no further than there are; of a lead its diode', () => {
    const arrangements = RECTIFIER_KINDS.filter((k) => ARRANGEMENTS[k].rails === 1);
    const at = arrangements.indexOf('bridge');
    expect(step('rectifier', clock, 1)).toEqual({ rectifier: { kind: arrangements[at + 1] } });
    expect(step('rectifier', clock, -10)).toEqual({ rectifier: { kind: arrangements[at - 1] } });
    expect(step('rectifier', clock, 1, { rectifier: { kind: arrangements.at(-1)! } })).toBeNull();
    expect(ARRANGEMENTS[step('rectifier', drum, 1)!.rectifier!.kind!].rails).toBe(2);
    const lead = { rectifier: ofDiodeClass('si-1a') };
    expect(step('rectifier', logger, 1, lead)!.rectifier).toEqual(ofDiodeClass('si-3a'));
    const last = step('rectifier', logger, 10, { rectifier: ofDiodeClass('sk-10a-200') })!.rectifier!.diode!;
    expect(last).toBe('sk-10a-200');
    const bare = { source: { ...logger.source, reverseDiode: false } as Design['source'] };
    expect(step('rectifier', logger, 1, bare)).toBeNull();
  });

  test('reservoir and load: through their series, tenfold with Shift, within their borders', () => {
    expect(step('reservoir', clock, 1)).toEqual({ reservoir: { capacitanceF: 0.01 } });
    expect(step('reservoir', clock, -10)).toEqual({ reservoir: { capacitanceF: 680e-6 } });
    expect(step('reservoir', clock, 10, { reservoir: { capacitanceF: 0.5 } })).toEqual({
      reservoir: { capacitanceF: 1 },
    });
    expect(step('reservoir', clock, -10, { reservoir: { capacitanceF: 2e-7 } })).toEqual({
      reservoir: { capacitanceF: 1e-7 },
    });
    expect(step('reservoir', clock, 1, { reservoir: { capacitanceF: 0 } })).toEqual({
      reservoir: { capacitanceF: 1e-4 },
    });
    expect(step('reservoir', clock, -1, { reservoir: { capacitanceF: 0 } })).toBeNull();
    expect(step('load', clock, 1)).toEqual({ demand: { outputA: 1.5 } });
    expect(step('load', clock, 10)).toEqual({ demand: { outputA: 12 } });
    expect(step('load', clock, 10, { demand: { outputA: 20 } })).toEqual({ demand: { outputA: 50 } });
    expect(step('load', clock, -10, { demand: { outputA: 5e-4 } })).toEqual({ demand: { outputA: 1e-4 } });
  });

  test('regulator: to the next volts it is made for; nothing where there is none', () => {
    expect(step('regulator', clock, -1)!.regulator).toMatchObject({ outputV: 18 });
    expect(step('regulator', dome, 1)).toBeNull();
  });

  test('a filter: the part that decides, its choke before its resistor before its capacitor', () => {
    const of = (after: Design['filter']['after'], direction: number) =>
      step('after', dome, direction, { filter: { after } });
    expect(of([cap, choke, resistor], 1)).toEqual({
      filter: { after: [cap, { ...choke, inductanceH: 12 }, resistor] },
    });
    expect(of([cap, resistor], -1)).toEqual({ filter: { after: [cap, { ...resistor, resistanceOhm: 39 }] } });
    expect(of([cap], 1)).toEqual({ filter: { after: [{ ...cap, capacitanceF: 33e-6 }] } });
    expect(of([], 1)).toBeNull();
    expect(of([{ ...choke, inductanceH: 100 }], 10)).toEqual({ filter: { after: [{ ...choke, inductanceH: 200 }] } });
    expect(step('before', tide, 1)).toMatchObject({ filter: { before: [{ inductanceH: 18 }] } });
  });
});

describe('what stands over a station', () => {
  const head = (d: Design, id: StationId) => [control(id).name(d), control(id).value(d)];
  test('its name and value, of mains and of a source', () => {
    expect(head(clock, 'mains')).toEqual(['Mains', '230 V']);
    expect(head(logger, 'mains')).toEqual(['Battery', '12.9 V']);
    expect(head(applyPatch(logger, { source: adapter }), 'mains')).toEqual(['Adapter', '12 V']);
    expect(head(clock, 'winding')).toEqual(['Winding', '24 V']);
    expect(head(drum, 'winding')[1]).toBe('2 × 20 V');
    expect(head(logger, 'winding')).toEqual(
      ['Inside it', '0.035 Ω'].map((w) => expect.stringMatching(w === '0.035 Ω' ? /35 mΩ|0\.035 Ω/ : w)),
    );
    expect(head(clock, 'rectifier')).toEqual(['Rectifier', 'Bridge']);
    expect(head(logger, 'rectifier')).toEqual(['Diode', 'Schottky']);
    const bare = applyPatch(logger, { source: { ...logger.source, reverseDiode: false } as Design['source'] });
    expect(head(bare, 'rectifier')).toEqual(['Diode', 'none']);
    expect(head(tide, 'before')).toEqual(['Input filter', '15 H']);
    expect(head(applyPatch(dome, { filter: { after: [resistor, cap] } }), 'after')).toEqual(['Filter', '47 Ω, 22 µF']);
    expect(head(physics, 'reservoir')[1]).toBe('2 × 6800 µF');
    expect(head(applyPatch(dome, { reservoir: { capacitanceF: 0 } }), 'reservoir')[1]).toBe('none');
    expect([head(clock, 'regulator')[1], head(dome, 'regulator')[1]]).toEqual(['78S24', 'none']);
    expect([head(clock, 'load')[1], head(drum, 'load')[1]]).toEqual(['1.2 A', '250 mA, 180 mA']);
  });

  test('and a line from the solution', () => {
    const reads = (d: Design, id: StationId) => control(id).reading(picture(d), 'nominal');
    expect(reads(clock, 'mains')).toBe('−10/+10 %');
    expect(reads(logger, 'mains')).toMatch(/^lasts 39\.\d h$/);
    expect(reads(applyPatch(logger, { source: adapter }), 'mains')).toBe('±5 %');
    expect(reads(clock, 'winding')).toBe('100 VA');
    expect(reads(logger, 'winding')).toMatch(/^gives 2\d\d mA$/);
    expect(reads(clock, 'rectifier')).toBe('Silicon 3 A');
    expect(reads(dome, 'rectifier')).toBe('Silicon 25 A');
    const bare = applyPatch(logger, { source: { ...logger.source, reverseDiode: false } as Design['source'] });
    expect(reads(bare, 'rectifier')).toBe('leads may be swapped');
    // 18 mA of the bleeder keep it going.
    expect(reads(tide, 'before')).toMatch(/^never below \d/);
    const ceasing = applyPatch(tide, { demand: { outputA: 0.005 }, filter: { bleederOhm: null } });
    expect(reads(ceasing, 'before')).toBe('current ceases');
    expect(reads(dome, 'before')).toBe('');
    expect(reads(clock, 'reservoir')).toMatch(/^valley 30\.8 V, ripple 1\.3\d V p-p$/);
    expect(reads(clock, 'regulator')).toMatch(/^9\.2\d W, junction 89 °C$/);
    expect(reads(dome, 'regulator')).toBe('');
    expect(reads(clock, 'load')).toMatch(/^ripple 2\.\d+ mV$/);
    expect(reads(clock, 'after')).toMatch(/^ripple 1\.3\d V p-p$/);
  });
});

describe('pulling a grip', () => {
  const axis = voltAxis(20, 42, 80, 480, 26);
  const edits = dragEdits(clock, picture(clock), axis);
  test('so far on the axis is so much in the design', () => {
    // 36.9 V of crest at nominal; what the crest of low mains is pulled by in volts is its share of that.
    const peak = Math.SQRT2 * 24 * 1.09;
    const low = peak * 0.9;
    const px = axis.y(low) - axis.y(low - 0.05 * peak);
    expect(edits.low(px)).toEqual({ mains: { lowPct: 15 } });
    expect(edits.high(axis.y(peak * 1.1) - axis.y(peak * 1.06))).toEqual({ mains: { highPct: 6 } });
    expect(edits.low(1000)).toEqual({ mains: { lowPct: 0 } });
    expect(edits.winding!(0)!.transformer).toMatchObject({ ratedV: 24 });
    const up = axis.y(peak) - axis.y(peak * (25 / 24));
    expect(edits.winding!(up)!.transformer).toMatchObject({ ratedV: 25 });
    // Seventy pixels are an octave.
    expect(edits.reservoir(70)).toEqual({ reservoir: { capacitanceF: 0.015 } });
    expect(edits.reservoir(-70)).toEqual({ reservoir: { capacitanceF: 3300e-6 } });
    expect(edits.load(70)).toEqual({ demand: { outputA: 2.4 } });
    expect(edits.output(axis.y(24) - axis.y(18))).toEqual({ regulator: { ...clock.regulator, outputV: 18 } });
    expect(dragEdits(dome, picture(dome), axis).output(50)).toEqual({});
  });

  test('an end of a battery is its own, an adapter’s are its spread', () => {
    const low = voltAxis(8, 14, 80, 480, 26);
    const battery = dragEdits(logger, picture(logger), low);
    expect(battery.winding).toBeNull();
    expect(battery.low(low.y(11) - low.y(11.5)).source).toMatchObject({ emptyV: 11.5, freshV: 12.9 });
    expect(battery.high(low.y(12.9) - low.y(12.4)).source).toMatchObject({ freshV: 12.4, emptyV: 11 });
    // Empty stays below fresh.
    expect((battery.low(2000).source as { emptyV: number }).emptyV).toBeCloseTo(0.98 * 12.9, 9);
    expect((battery.high(-2000).source as { freshV: number }).freshV).toBeCloseTo(1.02 * 11, 9);
    const fed = applyPatch(logger, { source: adapter });
    const ends = dragEdits(fed, picture(fed), low);
    // 13.2 V when idle; 10 % above is 14.5.
    expect(ends.high(low.y(13.86) - low.y(14.52)).source).toMatchObject({ spreadPct: 10 });
  });
});

describe('the drawing', () => {
  test('stations share the width by what they have to show', () => {
    const plain = columns(0, 1000, { regulated: true });
    expect(Object.keys(plain)).toEqual(['mains', 'winding', 'rectifier', 'reservoir', 'regulator', 'load']);
    expect(plain.mains[1]).toBeCloseTo(130, 9);
    const full = columns(0, 1000, { regulated: false, before: true, after: true });
    expect(Object.keys(full)).toEqual(STATIONS);
    const width = ([a, b]: [number, number]) => b - a;
    expect(width(full.before!)).toBeCloseTo(width(full.after!), 9);
    expect(full.load[1]).toBeCloseTo(1000, 9);
    expect(width(columns(0, 1000, { regulated: false }).regulator)).toBeLessThan(width(plain.regulator));
    expect(width(columns(0, 1000, { regulated: false }).reservoir)).toBeGreaterThan(width(plain.reservoir));
  });

  test('the axis has round ticks, and folds only what is worth folding', () => {
    const axis = voltAxis(22, 41, 0, 400, 26);
    expect(axisTicks(axis)).toEqual([20, 25, 30, 35, 40]);
    expect([axis.foldV, axis.topV]).toEqual([20, 41]);
    expect(voltAxis(3, 41, 0, 400, 26).foldV).toBe(0);
    const dead = voltAxis(0, 0, 0, 400, 26);
    expect([dead.topV, dead.y(0), dead.y(0.1)]).toEqual([0.1, 400, 0]);
    expect(axisTicks(voltAxis(0, 350, 0, 400, 26))).toEqual([0, 50, 100, 150, 200, 250, 300, 350]);
  });

  test('steps go down in the middle of the station that takes them', () => {
    const cols = columns(0, 1000, { regulated: true });
    const levels = { openPeakV: 40, terminalPeakV: 37, inputMaxV: 36, reservoirMaxV: 35, reservoirMinV: 33 } as never;
    const points = steps(levels, cols, 35);
    expect(points.map(([, v]) => v)).toEqual([40, 40, 37, 37, 35, 35, 35]);
    expect(points[1]![0]).toBeCloseTo((cols.winding[0] + cols.winding[1]) / 2, 9);
    expect(points[3]![0]).toBeCloseTo((cols.rectifier[0] + cols.rectifier[1]) / 2, 9);
    const filtered = steps(levels, columns(0, 1000, { regulated: true, before: true }), 34);
    expect(filtered.map(([, v]) => v)).toEqual([40, 40, 37, 37, 36, 36, 34]);
  });

  test('waves begin and end at their crest; what follows them keeps their step', () => {
    const lead = [3, 5, 4, 2];
    expect(wavePoints(lead, [0, 40], 1)).toEqual([
      [0, 5],
      [10, 4],
      [20, 2],
      [30, 3],
      [40, 5],
    ]);
    expect(followPoints([1, 2, 3, 4], lead, [0, 40], 1).map(([, v]) => v)).toEqual([2, 3, 4, 1, 2]);
    const arch = archPoints(10, [0, 80]);
    expect(arch).toHaveLength(41);
    expect([arch[0]![1], arch[20]![1]]).toEqual([0, 10]);
    expect(arch[40]![0]).toBe(80);
    expect(flatPoints(12, [1, 2])).toEqual([
      [1, 12],
      [2, 12],
    ]);
    const y = (v: number) => 100 - v;
    expect(
      pathOf(
        [
          [0, 10],
          [5, 20],
        ],
        y,
      ),
    ).toBe('M0,90L5,80');
    expect(
      bandOf(
        [
          [0, 20],
          [5, 30],
        ],
        [
          [0, 10],
          [5, 15],
        ],
        y,
      ),
    ).toBe('M0,80L5,70L5,85L0,90Z');
  });

  test('each stretch under what is needed is an area of its own', () => {
    const y = (v: number) => v;
    const points: [number, number][] = [
      [0, 5],
      [1, 3],
      [2, 3],
      [3, 5],
      [4, 2],
      [5, 5],
    ];
    expect(shortfallArea(points, 4, y)).toBe('M1,3L2,3L2,4L1,4ZM4,2L4,4L4,4Z');
    // At the level is not under it.
    expect(
      shortfallArea(
        [
          [0, 4],
          [1, 4],
        ],
        4,
        y,
      ),
    ).toBe('');
  });

  test('a rail is drawn from its winding to its load, in all bands, filters in their place', () => {
    const filtered = applyPatch(tide, { filter: { after: [resistor, cap] } });
    for (const d of [clock, drum, tide, filtered]) {
      const shape = {
        regulated: d.regulator.kind !== 'none',
        before: d.filter.before.length > 0,
        after: d.filter.after.length > 0,
      };
      const cols = columns(0, 1000, shape);
      for (const rail of d === drum ? [0, 1] : [0]) {
        const scene = railScene(picture(d), rail, cols);
        for (const band of BANDS) {
          const { path, reservoir, rail: seen, output } = scene[band];
          expect(path[0]![0]).toBe(cols.winding[0]);
          expect(reservoir[0]![0]).toBeCloseTo(cols.reservoir[0], 9);
          expect(seen === reservoir).toBe(!shape.after);
          expect(output[0]![0]).toBeCloseTo((cols.after ?? cols.reservoir)[0], 9);
          expect(path.at(-1)![0]).toBeCloseTo((cols.after ?? cols.reservoir)[1], 9);
          // From left to right, without a step back.
          for (let n = 1; n < path.length; n++) expect(path[n]![0]).toBeGreaterThanOrEqual(path[n - 1]![0] - 1e-9);
        }
        expect(scene.low.levels.reservoirMinV).toBeLessThan(scene.high.levels.reservoirMinV);
      }
    }
  });
});

test('fields step through a series, a list, or by an amount', () => {
  expect(inDecades(E12)(4.7, 1)).toBeCloseTo(5.6, 9);
  expect(inDecades(E12)(4.7, 10)).toBeCloseTo(47, 9);
  expect(inDecades(E12)(4.7, -10)).toBeCloseTo(0.47, 9);
  expect(inList([1, 2, 3, 5, 8, 13])(2, 1)).toBe(3);
  expect(inList([1, 2, 3, 5, 8, 13])(2, 10)).toBe(13);
  expect(inList([1, 2, 3, 5, 8, 13])(13, -10)).toBe(2);
  expect(by(0.1)(0.2, 1)).toBe(0.3);
  expect(by(0.1)(0.2, -10)).toBe(-0.8);
});
