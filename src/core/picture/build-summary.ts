import type { Unit } from '@/core/quantity/parse';
import type { Figure } from '@/core/study/figure';
import type { RuleId } from '@/core/judge/rules';

/** What is checked in every build: a rule of the judge, by its limit. */
export interface Check {
  id: RuleId;
  title: string;
  unit: Unit;
}

export interface Build {
  /** Drawn factors, in the order of the spreads. */
  factors: number[];
  /** Distance to the limit of each check, in its unit, negative beyond; null where a build found no answer. */
  margins: number[] | null;
}

/** How many builds were come by. */
export interface Reading {
  /** Circumstances of all builds together, and how many of them were solved; the others were read off surfaces. */
  circumstances: number;
  solved: number;
  /** By how much what was read of each check may be off, in its unit; 0 where nothing was read. */
  within: number[];
}

/** What many builds come to in one check. */
export interface CheckSummary {
  check: Check;
  /** By how much what was read of it may be off, in its unit. */
  within: number;
  /** Share of the builds that pass it. */
  pass: number;
  least: number;
  median: number;
  most: number;
  /** Builds in each of equally wide steps from least to most. */
  histogram: number[];
  /** What moves this margin, the strongest first, with its share of the variance and the end that hurts. */
  causes: { label: string; share: number; hurts: 'low' | 'high' }[];
}

export interface ToleranceSummary {
  seed: number;
  builds: number;
  unsolved: number;
  reading: Omit<Reading, 'within'>;
  /** Share of the builds that pass everything. */
  pass: number;
  checks: CheckSummary[];
}

/** How sure a share of builds is: half width of its 95 % interval. */
export function shareError(share: number, builds: number): number {
  return 1.96 * Math.sqrt(Math.max(share * (1 - share), 1 / builds) / builds);
}

/** So many times what it missed at worst of builds that were solved is a surface taken to be off by. */
export const OFF_BY = 3;

/** How many circumstances of the builds were solved, with how the others were come by. */
export function solvedFigure({ reading: { circumstances, solved }, builds, seed }: ToleranceSummary): Figure {
  const all = solved === circumstances;
  return {
    id: 'builds-solved',
    label: 'Circumstances that were solved',
    value: solved,
    unit: '',
    words: solved.toLocaleString('en'),
    origin: 'simulated',
    expression: 'builds solved whole, and of the others what their readings leave in doubt',
    inputs: [
      { label: 'builds drawn', value: builds, unit: '' },
      { label: 'circumstances of each', value: circumstances / builds, unit: '' },
      { label: 'of all of them', value: circumstances, unit: '' },
    ],
    source: `Drawn with seed ${seed}, judged like the design itself.`,
    assumes: all
      ? []
      : [
          'The others are read off quadratics in all drawn factors, fitted to builds that were solved.',
          `A reading is taken to be off by ${OFF_BY} times what its quadratic misses at worst of solved builds that come to about the same.`,
          'Where a build could then pass or fail, where a regulator may let go, and at both ends of each margin it is solved.',
        ],
  };
}

/** The share of the builds that pass one check, or all of them, with its working. */
export function passFigure(summary: ToleranceSummary, of: CheckSummary | null): Figure {
  const share = of ? of.pass : summary.pass;
  const answered = summary.builds - summary.unsolved;
  const { circumstances, solved } = summary.reading;
  return {
    id: of ? `pass-${of.check.id}` : 'pass',
    label: of ? `${of.check.title}: builds that pass` : 'Builds that pass everything',
    value: 100 * share,
    unit: '%',
    words: percentOfBuilds(share),
    origin: 'simulated',
    expression: 'builds that pass / builds drawn',
    inputs: [
      { label: 'drawn', value: summary.builds, unit: '' },
      { label: 'with an answer', value: answered, unit: '' },
      { label: 'sure to', value: 100 * shareError(share, summary.builds), unit: '%' },
      ...(of
        ? [
            { label: 'least margin', value: of.least, unit: of.check.unit },
            { label: 'in the middle', value: of.median, unit: of.check.unit },
            { label: 'most', value: of.most, unit: of.check.unit },
            ...(of.within > 0 ? [{ label: 'read, it may be off by', value: of.within, unit: of.check.unit }] : []),
          ]
        : []),
      { label: 'circumstances of all builds', value: circumstances, unit: '' },
      { label: 'of them solved', value: solved, unit: '' },
    ],
    source: `${solved < circumstances ? 'Builds solved, or read where that cannot matter,' : 'Every build solved'} and judged like the design itself, drawn with seed ${summary.seed}.`,
    assumes: (of?.causes ?? []).map(
      (c) => `${c.label}: ${Math.round(100 * c.share)} % of this margin’s spread, worst when ${c.hurts}.`,
    ),
  };
}

/** A share of builds as it is printed: never 100 % when one of them failed. */
export const percentOfBuilds = (share: number) =>
  share > 0.9995 && share < 1 ? '99.9 %' : `${(100 * share).toFixed(share === 1 || share === 0 ? 0 : 1)} %`;
