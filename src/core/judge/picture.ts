import { emfPeakV } from '@/core/circuit/network';
import type { Design } from '@/core/design/design';
import { windowOf } from '@/core/design/outputs';
import { ratingWords } from '@/core/design/words';
import { batteryLife, type BatteryLife } from '@/core/study/battery-life';
import { typicalCost } from '@/core/study/cost';
import { onRail, neededV, type OperatingPoint } from '@/core/study/operating-point';
import { outputSpan, studyDesign, type Study, type WarmStart } from '@/core/study/study';
import { hazard } from './hazard';
import { countFails, judge } from './judge';
import type { Verdict } from './verdict';

export type Band = 'low' | 'nominal' | 'high';
export const BANDS: readonly Band[] = ['low', 'nominal', 'high'];

/** Everything a screen shows of one design, solved and judged: plain data that crosses a worker's border. */
export interface Picture {
  design: Design;
  points: Record<Band | 'idle', OperatingPoint>;
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

/** Solves and judges a design. @throws SolveError naming the condition that does not converge */
export function pictureOf(design: Design, warm?: WarmStart): { picture: Picture; study: Study } {
  const study = studyDesign(design, warm);
  const verdicts = judge(study);
  const { low, nominal, high, idle, surge } = study;
  const lowest = study.held('lowest');
  return {
    study,
    picture: {
      design,
      points: { low, nominal, high, idle },
      surge: { peakA: surge.peakA, i2t: surge.i2t },
      lowest: lowest?.heat
        ? { outputV: lowest.outputMeanV, regulatorW: lowest.regulatorW, junctionC: lowest.heat.junctionC }
        : null,
      life: batteryLife(design),
      verdicts,
      fails: countFails(verdicts),
      tight: verdicts.filter((v) => v.state === 'tight').length,
      cautions: verdicts.filter((v) => v.state === 'caution').length,
      hazard: hazard(study),
      neededV: neededV(design),
      output: outputSpan(study),
      costEur: typicalCost(design),
    },
  };
}

/** Levels the terrace steps through, V: where the winding, the diodes and the reservoir stand in one band. */
export interface Levels {
  openPeakV: number;
  /** Winding terminals while the charging pulse is at its highest. */
  terminalPeakV: number;
  /** Crest of the rectifier's output, ahead of any filter. */
  inputMaxV: number;
  reservoirMaxV: number;
  reservoirMinV: number;
  outputMinV: number;
  outputMaxV: number;
}

export function levelsOf(point: OperatingPoint): Levels {
  return {
    openPeakV: emfPeakV(point.network),
    terminalPeakV: point.terminalPeakV,
    inputMaxV: point.rail.inputMaxV,
    reservoirMaxV: point.reservoir.maxV,
    reservoirMinV: point.reservoir.minV,
    outputMinV: point.outputMinV,
    outputMaxV: point.outputMaxV,
  };
}

/** What the shelf says and ranks a design by, without solving it again. */
export interface Headline {
  rating: string;
  fails: number;
  tight: number;
  worst: { title: string; sentence: string; state: Verdict['state'] } | null;
  hazard: boolean;
}

/** One rail of a small terrace, in magnitudes. */
export interface RailSummary {
  levels: Record<Band, Levels>;
  waves: Record<Band, number[]>;
  outputs: Record<Band, number[]>;
}

/** What a small terrace is drawn from. */
export interface Summary {
  /** The positive rail, and of a split supply the negative one. */
  rails: RailSummary[];
  neededV: number | null;
  windowV: [number, number];
  watts: { winding: number; rectifier: number; regulator: number };
}

/** Raised when the summary's shape or the physics behind it changes, so that stored ones are made anew. */
export const SUMMARY_VERSION = 4;

const SUMMARY_SAMPLES = 24;

export function headlineOf(picture: Picture): Headline {
  // What leads a card is never a caution.
  const worst = picture.verdicts.find((v) => !v.caution);
  return {
    rating: ratingWords(picture.design),
    fails: picture.fails,
    tight: picture.tight,
    worst: worst ? { title: worst.title, sentence: worst.sentence, state: worst.state } : null,
    hazard: picture.hazard !== null,
  };
}

export function summaryOf(picture: Picture): Summary {
  const short = (v: number) => Number(v.toPrecision(5));
  const thin = (wave: number[]) =>
    Array.from({ length: SUMMARY_SAMPLES }, (_, n) => short(wave[Math.floor((n * wave.length) / SUMMARY_SAMPLES)]!));
  const each = <T>(make: (point: OperatingPoint) => T): Record<Band, T> => ({
    low: make(picture.points.low),
    nominal: make(picture.points.nominal),
    high: make(picture.points.high),
  });
  const { lowV, highV } = windowOf(picture.design.demand);
  const watts = picture.points.nominal.watts;
  return {
    rails: picture.points.nominal.rails.map((_, rail) => ({
      levels: each(
        (p) =>
          Object.fromEntries(
            Object.entries(levelsOf(onRail(p, rail))).map(([k, v]) => [k, short(v as number)]),
          ) as unknown as Levels,
      ),
      waves: each((p) => thin(onRail(p, rail).wave.reservoirV)),
      outputs: each((p) => thin(onRail(p, rail).wave.outputV)),
    })),
    neededV: picture.neededV,
    windowV: [lowV, highV],
    watts: { winding: short(watts.winding), rectifier: short(watts.rectifier), regulator: short(watts.regulator) },
  };
}
