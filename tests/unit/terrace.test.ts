import { applyPatch } from '@/core/design/design';
import { pictureOf } from '@/core/judge/picture';
import { demoDesigns } from '@/core/design/demo-designs';
import { dragEdits } from '@/ui/terrace/drag-edits';
import { STATION_CONTROLS } from '@/ui/terrace/station-controls';
import { axisTicks, columns, followPoints, shortfallArea, voltAxis, wavePoints } from '@/core/picture/terrace-geometry';
import { border } from '@/ui/border';
import { createDesignStore } from '@/ui/design-store';

const design = demoDesigns()[0]!;

beforeAll(() => border());

test('the empty lower part of the axis is folded, zero stays, and the fold is never above what is shown', () => {
  const axis = voltAxis(22.8, 41, 80, 480, 26);
  expect(axis.foldV).toBeGreaterThan(0);
  expect(axis.foldV).toBeLessThan(22.8);
  expect(axis.y(0)).toBe(480);
  expect(axis.y(axis.foldV)).toBe(454);
  expect(axis.y(axis.topV)).toBe(80);
  for (const v of axisTicks(axis)) expect(axis.y(v)).toBeGreaterThanOrEqual(80);
  expect(voltAxis(0, 10, 0, 100, 20).foldV).toBe(0);
  expect(axis.y.invert(axis.y(30))).toBeCloseTo(30, 9);
});

test('columns fill the width without gaps', () => {
  const cols = Object.values(columns(46, 900, { regulated: true }));
  expect(cols[0]![0]).toBe(46);
  expect(cols[5]![1]).toBeCloseTo(900, 9);
  for (let n = 1; n < 6; n++) expect(cols[n]![0]).toBe(cols[n - 1]![1]);
});

test('two cycles are drawn from crest to crest, and the output stays under the wave that causes its sag', () => {
  const wave = [5, 4, 3, 4, 6, 5, 4, 3];
  const points = wavePoints(wave, [0, 160]);
  expect(points).toHaveLength(17);
  expect(points[0]).toEqual([0, 6]);
  expect(points[16]).toEqual([160, 6]);
  expect(
    followPoints(
      wave.map((v) => v - 2),
      wave,
      [0, 160],
    ).map(([x, v]) => [x, v + 2]),
  ).toEqual(points);
});

test('only what lies under the needed level is hatched', () => {
  expect(
    shortfallArea(
      [
        [0, 5],
        [1, 6],
      ],
      4,
      (v) => v,
    ),
  ).toBe('');
  expect(
    shortfallArea(
      [
        [0, 3],
        [1, 3.5],
        [2, 6],
      ],
      4,
      (v) => v,
    ),
  ).toMatch(/^M/);
});

describe('dragging', () => {
  const { picture } = pictureOf(design);
  const axis = voltAxis(22, 42, 80, 480, 26);
  const drags = dragEdits(design, picture, axis);

  test('not moving changes nothing that matters', () => {
    expect(drags.reservoir(0)).toEqual({ reservoir: { capacitanceF: 6800e-6 } });
    expect(drags.low(0)).toEqual({ mains: { lowPct: 10 } });
    expect(drags.load(0)).toEqual({ demand: { outputA: 1.2 } });
    expect(drags.output(0)).toEqual({ regulator: design.regulator });
    expect(drags.winding!(0)).toMatchObject({ transformer: { ratedV: 24 } });
  });

  test('up means more: capacitance, current, winding, and a narrower low line', () => {
    expect(drags.reservoir(70).reservoir!.capacitanceF).toBeGreaterThan(10000e-6);
    expect(drags.load(70).demand!.outputA).toBeCloseTo(2.4, 6);
    expect(drags.winding!(40).transformer!.ratedV).toBeGreaterThan(24);
    expect(drags.low(20).mains!.lowPct).toBeLessThan(10);
    expect(drags.high(20).mains!.highPct).toBeGreaterThan(10);
  });

  test('no pull leaves the range of a real supply', () => {
    for (const px of [-5000, 5000]) {
      expect(drags.low(px).mains!.lowPct).toBeGreaterThanOrEqual(0);
      expect(drags.low(px).mains!.lowPct).toBeLessThanOrEqual(40);
      expect(drags.load(px).demand!.outputA).toBeLessThanOrEqual(50);
      expect(drags.reservoir(px).reservoir!.capacitanceF).toBeLessThanOrEqual(1);
      expect(drags.winding!(px).transformer!.ratedV).toBeGreaterThanOrEqual(1);
    }
  });
});

test('arrow keys walk preferred values, Shift tenfold', () => {
  const step = (station: keyof typeof STATION_CONTROLS, direction: number) =>
    STATION_CONTROLS[station].step(design, direction);
  expect(step('reservoir', 1)).toEqual({ reservoir: { capacitanceF: 0.01 } });
  expect(step('reservoir', 10)).toEqual({ reservoir: { capacitanceF: 0.068 } });
  expect(step('winding', -1)).toMatchObject({ transformer: { ratedV: 22 } });
  expect(step('regulator', -1)).toEqual({ regulator: { kind: 'fixed', size: '78S', outputV: 18 } });
  expect(step('load', 1)).toEqual({ demand: { outputA: 1.5 } });
  const none = applyPatch(design, { reservoir: { capacitanceF: 0 } });
  expect(STATION_CONTROLS.reservoir.step(none, 1)).toEqual({ reservoir: { capacitanceF: 100e-6 } });
});

describe('history', () => {
  test('a drag of many steps is one step back', () => {
    const store = createDesignStore(design);
    store.beginGesture();
    for (const capacitanceF of [1e-3, 2e-3, 3e-3]) store.getState().edit({ reservoir: { capacitanceF } });
    store.endGesture();
    expect(store.temporal.getState().pastStates).toHaveLength(1);
    store.temporal.getState().undo();
    expect(store.getState().design).toEqual(design);
    store.temporal.getState().redo();
    expect(store.getState().design.reservoir.capacitanceF).toBe(3e-3);
  });

  test('letting go of a grip changes nothing that would be solved or drawn again', () => {
    const store = createDesignStore(design);
    store.beginGesture();
    store.getState().edit({ reservoir: { capacitanceF: 2e-3 } });
    const told = jest.fn();
    store.subscribe(told);
    store.endGesture();
    expect(told).not.toHaveBeenCalled();
    expect(store.temporal.getState()).toMatchObject({ isTracking: true, futureStates: [] });
    expect(store.temporal.getState().pastStates).toHaveLength(1);
  });

  test('a drag after an undo leaves nothing to redo, and no more steps than are kept', () => {
    const store = createDesignStore(design);
    for (let n = 1; n <= 300; n++) store.getState().edit({ reservoir: { capacitanceF: n * 1e-5 } });
    store.temporal.getState().undo();
    store.getState().edit({ reservoir: { capacitanceF: 5e-3 } });
    store.temporal.getState().undo();
    store.beginGesture();
    store.getState().edit({ reservoir: { capacitanceF: 6e-3 } });
    store.endGesture();
    expect(store.temporal.getState().futureStates).toHaveLength(0);
    store.beginGesture();
    store.getState().edit({ reservoir: { capacitanceF: 7e-3 } });
    store.endGesture();
    expect(store.temporal.getState().pastStates).toHaveLength(300);
    store.temporal.getState().undo(2);
    expect(store.getState().design.reservoir.capacitanceF).toBeCloseTo(299e-5, 9);
  });

  test('a grip taken and let go leaves no trace', () => {
    const store = createDesignStore(design);
    store.beginGesture();
    store.endGesture();
    expect(store.temporal.getState().pastStates).toHaveLength(0);
  });
});
