import { setAgainstRead, type ScaleRead, type SetKind } from '@/core/bench/set-against-read';
import { applyPatch } from '@/core/design/design';
import { readDesign } from '@/core/design/schema';
import { computedLine } from '@/core/bench/load-line';
import { blankRow } from '@/core/design/blank-row';
import { clock, dome, physics } from '../support/demos';

/** Pairs of what was set and what was read, with a meter of 0.5 % and 10 mV. */
const told = (what: SetKind, pairs: readonly [number, number][], bench = {}) =>
  setAgainstRead(
    applyPatch(clock, {
      bench: {
        meterPct: 0.5,
        meterDigitsV: 0.01,
        calibration: pairs.map(([set, read]) => ({ what, set, read })),
        ...bench,
      },
    }),
    what,
  );
const scale = (...asked: Parameters<typeof told>): ScaleRead => {
  const found = told(...asked);
  if (typeof found === 'string') throw new Error(found);
  return found;
};

describe('what was set against what was read', () => {
  test('pairs on a straight line give back its share and its constant, whatever the meter’s weights', () => {
    // read = 1.02 · set + 0.05
    const line = scale('volts', [
      [2, 2.09],
      [10, 10.25],
      [25, 25.55],
    ]);
    expect(line.gain.value).toBeCloseTo(2, 6);
    expect(line.offset.value).toBeCloseTo(0.05, 6);
    expect(line.left.value).toBeCloseTo(0, 6);
    expect(line.pairs.map((p) => Number(p.off.toFixed(6)))).toEqual([0.09, 0.25, 0.55]);
    expect(line.sentence).toMatch(/^It reads 2 % high over the range: trim the full scale/);
    expect(line.sentence).toMatch(/50 mV high at nothing: trim the zero/);
  });

  test('two pairs: the share’s spread is that of a line through two points', () => {
    const { gain } = scale('volts', [
      [0, 0],
      [10, 10],
    ]);
    // Half of 10 mV at the bottom, half of 60 mV at the top, over 10 V: √(5² + 30²) mV / 10 V = 0.304 %.
    expect(gain.inputs.find((i) => i.label === 'sure to, ±')!.value).toBeCloseTo(2 * 0.304, 2);
  });

  test('within what the meter can tell nothing is turned', () => {
    const near = scale('volts', [
      [5, 5.01],
      [20, 20.05],
    ]);
    expect(near.sentence).toBe('All of it lies within what the meter can tell: nothing to turn.');
    // A better meter can tell.
    expect(
      scale(
        'volts',
        [
          [5, 5.01],
          [20, 20.05],
        ],
        { meterPct: 0.02, meterDigitsV: 0.001 },
      ).sentence,
    ).toMatch(/high over the range/);
  });

  test('a limit that folds back is no scale that is off: what is left says where', () => {
    const folds = scale('amps', [
      [0.5, 0.5],
      [1, 1],
      [1.5, 1.2],
    ]);
    expect(folds.unit).toBe('A');
    expect(folds.sentence).toMatch(/folds back/);
    expect(folds.left.value).toBeGreaterThan(0.05);
    // Only the share is known of the amps range: nothing of its digits stands among the inputs.
    expect(folds.gain.inputs.map((i) => i.label)).not.toContain('meter, digits');
  });

  test('two meters are off by both: what one would call off, they do not', () => {
    const pairs: [number, number][] = [
      [1, 1.012],
      [30, 30.19],
    ];
    const sureTo = (f: ScaleRead) => f.gain.inputs.find((i) => i.label === 'sure to, ±')!.value;
    expect(sureTo(scale('meter', pairs)) / sureTo(scale('volts', pairs))).toBeCloseTo(Math.SQRT2, 6);
    expect(scale('meter', [...pairs, [60, 63]]).sentence).toMatch(/^Yours reads|^They do not/);
  });

  test('one place alone tells no share from a constant', () => {
    expect(told('volts', [])).toMatch(/Two pairs/);
    expect(
      told('volts', [
        [5, 5.01],
        [5, 5.02],
      ]),
    ).toMatch(/Two pairs/);
    // Kinds are kept apart.
    expect(setAgainstRead(applyPatch(clock, { bench: { calibration: physics.bench.calibration } }), 'meter')).toMatch(
      /Two pairs/,
    );
  });

  test('the demo’s knobs: the volts a little high, the limit a little low', () => {
    const of = (what: SetKind) => {
      const found = setAgainstRead(physics, what);
      if (typeof found === 'string') throw new Error(found);
      return found;
    };
    expect(of('volts').gain.value).toBeGreaterThan(1);
    expect(of('amps').gain.value).toBeLessThan(-3);
    expect(of('amps').sentence).toMatch(/low over the range: the shunt/);
  });

  test('a pair below nothing, or of an unknown kind, is refused at its place', () => {
    const fault = (calibration: unknown) => {
      const read = readDesign({ ...clock, bench: { ...clock.bench, calibration } });
      return read.ok ? null : read.fault.path;
    };
    expect(fault([{ what: 'volts', set: 1, read: 1 }])).toBeNull();
    expect(fault([{ what: 'volts', set: -1, read: 1 }])).toMatch(/calibration.*set/);
    expect(fault([{ what: 'ohms', set: 1, read: 1 }])).toMatch(/calibration.*what/);
    expect(fault([{ what: 'volts', set: 1, read: null }])).toMatch(/calibration.*read/);
  });
});

describe('rows that look mistyped are said, and kept', () => {
  const at = '2026-05-03T19:00:00Z';
  const odd = (rows: { loadA: number; reservoirV?: number; rippleV?: number }[]) =>
    computedLine(
      applyPatch(dome, {
        bench: { readings: [], loadLine: rows.map((r) => blankRow({ at, mainsV: 230, ...r })) },
      }),
    ).odd;

  test('a load far beyond the supply is asked about, one a little over it is not', () => {
    // The dome is for 4 A.
    expect(odd([{ loadA: 40, reservoirV: 1 }])).toEqual([
      'Row 1: 40.0 A is 10 times the 4.00 A it is for. Typed in milliamperes?',
    ]);
    expect(odd([{ loadA: 12, reservoirV: 20 }])).toEqual([]);
  });

  test('a reading in the wrong unit is a thousand times off, either way, at its row', () => {
    const sentences = odd([
      { loadA: 0, reservoirV: 37 },
      { loadA: 2, reservoirV: 0.0337, rippleV: 840 },
    ]);
    expect(sentences).toHaveLength(2);
    expect(sentences[0]).toMatch(/^Row 2, reservoir: .*too little.*millivolts what was volts/);
    expect(sentences[1]).toMatch(/^Row 2, ripple: .*too much.*volts what was millivolts/);
  });

  test('one and the same reading at three loads is a meter on hold; at two, or at one load, it may be chance', () => {
    const same = (loads: number[]) => odd(loads.map((loadA) => ({ loadA, reservoirV: 34 })));
    expect(same([0, 1, 2])[0]).toMatch(/^The reservoir reads 34\.0 V at every load\. Is the meter on hold/);
    expect(same([0, 1])).toEqual([]);
    expect(same([1, 1, 1])).toEqual([]);
  });
});
