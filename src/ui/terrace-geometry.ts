import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import type { Levels } from '@/core/judge/picture';

/** Where each station stands, in pixels from the left. */
export interface Columns {
  mains: [number, number];
  winding: [number, number];
  rectifier: [number, number];
  reservoir: [number, number];
  regulator: [number, number];
  load: [number, number];
}

/** The winding needs little width, the reservoir the most, the regulator enough for its gap and label. */
export function columns(left: number, right: number, regulated: boolean): Columns {
  const shares = regulated ? [0.13, 0.12, 0.11, 0.31, 0.18, 0.15] : [0.13, 0.12, 0.11, 0.38, 0.11, 0.15];
  const edges = [left];
  for (const share of shares) edges.push(edges[edges.length - 1]! + share * (right - left));
  const at = (n: number): [number, number] => [edges[n]!, edges[n + 1]!];
  return { mains: at(0), winding: at(1), rectifier: at(2), reservoir: at(3), regulator: at(4), load: at(5) };
}

export interface VoltAxis {
  y: ScaleLinear<number, number>;
  /** Everything from 0 V up to here is squeezed into the fold. */
  foldV: number;
  topV: number;
}

/**
 * One volt axis with its empty lower part folded: zero stays, the stretch below the lowest thing of interest takes
 * `foldPx`, the rest has the height.
 */
export function voltAxis(lowestV: number, highestV: number, top: number, bottom: number, foldPx: number): VoltAxis {
  const topV = Math.max(highestV, 0.1);
  const step = niceStep((topV - lowestV) / 8);
  let foldV = Math.max(0, Math.floor((lowestV - 0.06 * (topV - lowestV)) / step) * step);
  if (foldV < 0.18 * topV) foldV = 0;
  const y =
    foldV > 0 ? scaleLinear([0, foldV, topV], [bottom, bottom - foldPx, top]) : scaleLinear([0, topV], [bottom, top]);
  return { y, foldV, topV };
}

/** Gridline volts above the fold, about eight of them on round values. */
export function axisTicks({ foldV, topV }: VoltAxis): number[] {
  const step = niceStep((topV - foldV) / 7);
  const ticks: number[] = [];
  for (let v = Math.ceil(foldV / step) * step; v <= topV * 1.0001; v += step) ticks.push(Number(v.toPrecision(8)));
  return ticks;
}

function niceStep(rough: number): number {
  if (!(rough > 0)) return 1;
  const decade = 10 ** Math.floor(Math.log10(rough));
  const mantissa = rough / decade;
  return decade * (mantissa <= 1 ? 1 : mantissa <= 2 ? 2 : mantissa <= 5 ? 5 : 10);
}

export type Point = [number, number];

/** The steps from the mains arch down to the reservoir: flat, then down in the middle of the station that takes it. */
export function steps(levels: Levels, cols: Columns, firstV: number): Point[] {
  const middle = ([a, b]: [number, number]) => (a + b) / 2;
  return [
    [cols.winding[0], levels.openPeakV],
    [middle(cols.winding), levels.openPeakV],
    [middle(cols.winding), levels.terminalPeakV],
    [middle(cols.rectifier), levels.terminalPeakV],
    [middle(cols.rectifier), levels.reservoirMaxV],
    [cols.reservoir[0], levels.reservoirMaxV],
    [cols.reservoir[0], firstV],
  ];
}

/** One cycle's samples laid twice across a column, starting and ending at the crest. */
export function wavePoints(wave: readonly number[], [x0, x1]: [number, number], cycles = 2): Point[] {
  const n = wave.length;
  let crest = 0;
  for (let k = 0; k < n; k++) if (wave[k]! > wave[crest]!) crest = k;
  const points: Point[] = [];
  const total = n * cycles;
  for (let k = 0; k <= total; k++) points.push([x0 + (k / total) * (x1 - x0), wave[(crest + k) % n]!]);
  return points;
}

/** The same stretch for another wave of the same cycle, kept in step with the crest of `lead`. */
export function followPoints(
  wave: readonly number[],
  lead: readonly number[],
  span: [number, number],
  cycles = 2,
): Point[] {
  const n = lead.length;
  let crest = 0;
  for (let k = 0; k < n; k++) if (lead[k]! > lead[crest]!) crest = k;
  return wavePoints(
    wave.map((_, k) => wave[(crest + k) % n]!),
    span,
    cycles,
  ).map(([x], k) => [x, wave[(crest + k) % n]!] as Point);
}

/** The mains as the winding sees it: one arch of the open-circuit EMF. */
export function archPoints(peakV: number, foldV: number, [x0, x1]: [number, number]): Point[] {
  const points: Point[] = [];
  for (let k = 0; k <= 40; k++) {
    const v = peakV * Math.sin((Math.PI * k) / 40);
    points.push([x0 + (k / 40) * (x1 - x0), Math.max(v, foldV * 0)]);
  }
  return points;
}

export function pathOf(points: readonly Point[], y: (v: number) => number): string {
  return (
    line<Point>(
      (p) => p[0],
      (p) => y(p[1]),
    )(points as Point[]) ?? ''
  );
}

/** The band between two lines drawn over the same x. */
export function bandOf(upper: readonly Point[], lower: readonly Point[], y: (v: number) => number): string {
  const back = [...lower].reverse();
  return `${
    line<Point>(
      (p) => p[0],
      (p) => y(p[1]),
    )([...upper, ...back] as Point[]) ?? ''
  }Z`;
}

/** Where a wave lies under a level: the areas to hatch. */
export function shortfallArea(points: readonly Point[], level: number, y: (v: number) => number): string {
  return (
    area<Point>(
      (p) => p[0],
      (p) => y(Math.min(p[1], level)),
      () => y(level),
    ).defined((p) => p[1] < level)(points as Point[]) ?? ''
  );
}
