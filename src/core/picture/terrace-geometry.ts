import type { Levels } from '@/core/picture/levels';
import { niceStep } from '@/core/quantity/nice-step';
import { polyline } from '@/core/picture/polyline';
import { voltScale, type VoltScale } from '@/core/picture/volt-scale';

type Span = [number, number];

/** Where each station stands, in pixels from the left. What lies before and after the reservoir may be absent. */
export interface Columns {
  mains: Span;
  winding: Span;
  rectifier: Span;
  before?: Span;
  reservoir: Span;
  after?: Span;
  regulator: Span;
  load: Span;
}

export interface Shape {
  regulated: boolean;
  before?: boolean;
  after?: boolean;
}

/** The winding needs little width, the reservoir the most, the regulator enough for its gap and label. */
export function columns(left: number, right: number, { regulated, before = false, after = false }: Shape): Columns {
  const crowd = (before ? 1 : 0) + (after ? 1 : 0);
  const shares: [keyof Columns, number][] = [
    ['mains', 0.13],
    ['winding', 0.12],
    ['rectifier', 0.11],
    ...(before ? ([['before', 0.17]] as [keyof Columns, number][]) : []),
    ['reservoir', (regulated ? 0.31 : 0.38) - 0.06 * crowd],
    ...(after ? ([['after', 0.17]] as [keyof Columns, number][]) : []),
    ['regulator', regulated ? 0.18 : crowd > 0 ? 0.09 : 0.11],
    ['load', 0.15],
  ];
  const total = shares.reduce((sum, [, share]) => sum + share, 0);
  let at = left;
  const spans = shares.map(([station, share]): [keyof Columns, Span] => {
    const from = at;
    at += (share / total) * (right - left);
    return [station, [from, at]];
  });
  return Object.fromEntries(spans) as unknown as Columns;
}

export interface VoltAxis {
  y: VoltScale;
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
    foldV > 0 ? voltScale([0, foldV, topV], [bottom, bottom - foldPx, top]) : voltScale([0, topV], [bottom, top]);
  return { y, foldV, topV };
}

/** The axis of the lens: one stretch of volts has the height, all below it the fold; what lies above runs out of it. */
export function lensAxis(
  { fromV, toV }: { fromV: number; toV: number },
  top: number,
  bottom: number,
  foldPx: number,
): VoltAxis {
  const y = fromV > 0 ? voltScale([0, fromV, toV], [bottom, bottom - foldPx, top]) : voltScale([0, toV], [bottom, top]);
  return { y, foldV: fromV, topV: toV };
}

/** Gridline volts above the fold, about eight of them on round values. */
export function axisTicks({ foldV, topV }: VoltAxis): number[] {
  const step = niceStep((topV - foldV) / 7);
  const ticks: number[] = [];
  for (let v = Math.ceil(foldV / step) * step; v <= topV * 1.0001; v += step) ticks.push(Number(v.toPrecision(8)));
  return ticks;
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
    [middle(cols.rectifier), cols.before ? levels.inputMaxV : levels.reservoirMaxV],
    [cols.rectifier[1], cols.before ? levels.inputMaxV : levels.reservoirMaxV],
    [cols.rectifier[1], firstV],
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
export function archPoints(peakV: number, [x0, x1]: [number, number]): Point[] {
  const points: Point[] = [];
  for (let k = 0; k <= 40; k++) points.push([x0 + (k / 40) * (x1 - x0), peakV * Math.sin((Math.PI * k) / 40)]);
  return points;
}

/** A DC source: its open volts, all the way. */
export function flatPoints(openV: number, [x0, x1]: [number, number]): Point[] {
  return [
    [x0, openV],
    [x1, openV],
  ];
}

export function pathOf(points: readonly Point[], y: (v: number) => number): string {
  return polyline(points.map(([x, v]) => [x, y(v)]));
}

/** The band between two lines drawn over the same x. */
export function bandOf(upper: readonly Point[], lower: readonly Point[], y: (v: number) => number): string {
  return `${pathOf([...upper, ...[...lower].reverse()], y)}Z`;
}

/**
 * Heights of labels, px, moved apart until none lies on another: each keeps its place in the order and moves as little
 * as the ones above it ask for; where they would run out below, all move up.
 * @param gap least distance from one to the next, px
 */
export function apart(at: readonly number[], gap: number, bottom = Infinity): number[] {
  const order = at.map((_, n) => n).sort((a, b) => at[a]! - at[b]!);
  const placed = [...at];
  let from = -Infinity;
  for (const n of order) {
    placed[n] = Math.max(at[n]!, from);
    from = placed[n]! + gap;
  }
  const over = Math.max(...placed) - bottom;
  return over > 0 ? placed.map((y) => y - over) : placed;
}

/** Where a wave lies under a level: the areas to hatch. */
export function shortfallArea(points: readonly Point[], level: number, y: (v: number) => number): string {
  const areas: Point[][] = [];
  let under = false;
  for (const point of points) {
    if (point[1] < level && !under) areas.push([]);
    under = point[1] < level;
    if (under) areas.at(-1)!.push(point);
  }
  return areas
    .map((stretch) => {
      const [from, to] = [stretch[0]![0], stretch.at(-1)![0]];
      return `${polyline([...stretch.map(([x, v]): Point => [x, y(v)]), [to, y(level)], [from, y(level)]])}Z`;
    })
    .join('');
}
