import type { Design } from '@/core/design/design';
import type { BatteryLife } from '@/core/study/life-figure';
import type { DrawnPoint, OperatingPoint } from '@/core/study/point';
import type { StationHeat } from '@/core/study/warmth';
import type { Verdict } from '@/core/judge/verdict';

export type Band = 'low' | 'nominal' | 'high';

export const BANDS: readonly Band[] = ['low', 'nominal', 'high'];

/** Everything a screen shows of one design, solved and judged: plain data that crosses a worker's border. */
export interface Picture {
  design: Design;
  points: Record<Band, DrawnPoint> & { idle: OperatingPoint };
  /** What gets hot at each station, and its limit. */
  stationHeat: Record<Band, StationHeat>;
  surge: { peakA: number; i2t: number };
  /** What an adjustable supply burns at the bottom of its range, high line, full current; null for a fixed one. */
  lowest: { outputV: number; regulatorW: number; junctionC: number } | null;
  /** How long a battery feeds it; null for other sources. */
  life: BatteryLife | null;
  verdicts: Verdict[];
  fails: number;
  tight: number;
  cautions: number;
  hazard: string | null;
  neededV: number | null;
  output: { minV: number; maxV: number };
  costEur: number;
}
