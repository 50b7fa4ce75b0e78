import { windowOf } from '@/core/design/outputs';
import { ratingWords } from '@/core/design/words';
import { onRail, type DrawnPoint } from '@/core/study/point';
import type { Verdict } from '@/core/judge/verdict';
import type { Band, Picture } from './picture';
import { levelsOf, type Levels } from './levels';

/** What the shelf says and ranks a design by, without solving it again. */
export interface Headline {
  rating: string;
  fails: number;
  tight: number;
  worst: { title: string; sentence: string; state: Verdict['state'] } | null;
  hazard: boolean;
  /** What it wants done next, to follow 'Next:'. */
  next: string;
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
export const SUMMARY_VERSION = 6;

const SUMMARY_SAMPLES = 24;

/** @param next what the design wants done next */
export function headlineOf(picture: Picture, next: string): Headline {
  // What leads a card is never a caution.
  const worst = picture.verdicts.find((v) => !v.caution);
  return {
    rating: ratingWords(picture.design),
    fails: picture.fails,
    tight: picture.tight,
    worst: worst ? { title: worst.title, sentence: worst.sentence, state: worst.state } : null,
    hazard: picture.hazard !== null,
    next,
  };
}

export function summaryOf(picture: Picture): Summary {
  const short = (v: number) => Number(v.toPrecision(5));
  const thin = (wave: number[]) =>
    Array.from({ length: SUMMARY_SAMPLES }, (_, n) => short(wave[Math.floor((n * wave.length) / SUMMARY_SAMPLES)]!));
  const each = <T>(make: (point: DrawnPoint) => T): Record<Band, T> => ({
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
