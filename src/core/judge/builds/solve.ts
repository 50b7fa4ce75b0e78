import type { Adjust } from '@/core/circuit/network-of';
import { applyPatch, type Design, type OutputDemand } from '@/core/design/design';
import { outputsOf } from '@/core/design/outputs';
import { SolveError } from '@/core/solve/solve-error';
import type { OperatingPoint } from '@/core/study/point';
import { studyDesign, type Study } from '@/core/study/study';
import type { Build } from '@/core/picture/build-summary';
import { findingsOf, type Found } from '../judge';
import { ruleOf } from '../rules';
import type { Plan } from './plan';
import { drawBuild, spreadsOf, type Spread } from './spreads';

/** Circumstances of one build to be solved, by their places in the plan. */
export interface Ask {
  build: number;
  places: readonly number[];
}

/**
 * What the checks see in one circumstance of a build, a number for each figure of each output's finding, in the order of
 * `figureAt`; NaN where a check has no meaning.
 */
export interface Seen {
  /** The figures themselves and their distances to the limit, in the check's unit. */
  values: Float64Array;
  margins: Float64Array;
  /** The order in which one decides before another: the least first. */
  ranks: Float64Array;
  /** Where something begins to behave otherwise: which side it is on, and how far from there, changing smoothly across. */
  edges: { distance: number; beyond: boolean }[];
  /** Whether nothing in it jumps: no finding is a mere caution, and its temperatures came to rest. */
  plain: boolean;
}

/** One build as far as it was solved: by place in the plan. Null where it found no answer. */
export interface SolvedBuild {
  build: number;
  seen: (Seen | undefined)[] | null;
}

/** Most figures of which a finding is the worst. */
const FIGURES = 2;

/** Where a check's figure of an output stands in what is seen. */
const figureAt = (outputs: number, check: number, output: number, figure: number): number =>
  (check * outputs + output) * FIGURES + figure;

/** How many figures one check has. */
const figuresOfCheck = (outputs: number): number => outputs * FIGURES;

/** Solves what is asked of one build and looks at it with every check. */
export function solveAsk(design: Design, plan: Plan, seed: number, { build, places }: Ask): SolvedBuild {
  try {
    return { build, seen: seenWith(design, plan, drawBuild(spreadsOf(design), seed, build), places) };
  } catch (error) {
    if (!(error instanceof SolveError)) throw error;
    return { build, seen: null };
  }
}

/**
 * What is seen of a build in some circumstances.
 * @param factors in the order of the spreads
 * @throws SolveError when one of them does not converge
 */
export function seenWith(
  design: Design,
  plan: Plan,
  factors: readonly number[],
  places: readonly number[],
): (Seen | undefined)[] {
  const study = studyOfBuild(design, plan, spreadsOf(design), factors);
  const seen: (Seen | undefined)[] = plan.conditions.map(() => undefined);
  for (const place of places) seen[place] = seenIn(study, plan, place);
  return seen;
}

/** Every place of a plan. */
export const allPlaces = (plan: Plan): number[] => plan.conditions.map((_, place) => place);

/** Solves a run of builds whole, numbered from `from` on, in one thread. */
export function solveBuilds(design: Design, plan: Plan, seed: number, from: number, count: number): Build[] {
  const spreads = spreadsOf(design);
  const places = allPlaces(plan);
  return Array.from({ length: count }, (_, k): Build => {
    const { seen } = solveAsk(design, plan, seed, { build: from + k, places });
    return { factors: drawBuild(spreads, seed, from + k), margins: seen && marginsOf(plan, seen) };
  });
}

/** Shares of a wanted margin that are taken for the same. */
const SAME = 1e-6;

/** What each check of a build comes to, over all circumstances it was seen in, in the order of the checks. */
export function marginsOf(plan: Plan, seen: readonly (Pick<Seen, 'margins' | 'ranks'> | undefined)[]): number[] {
  const per = (seen.find((s) => s)?.margins.length ?? 0) / plan.checks.length;
  return plan.checks.map((_, check) => {
    // What has no meaning in this build is as far from its limit as anything can be.
    let margin = Infinity;
    let least = Infinity;
    for (let n = check * per; n < (check + 1) * per; n++) {
      for (const s of seen) {
        // Where two say the same, the first of them speaks.
        if (!s || !(s.ranks[n]! < least - SAME)) continue;
        least = s.ranks[n]!;
        margin = s.margins[n]!;
      }
    }
    return margin;
  });
}

function seenIn(study: Study, plan: Plan, place: number): Seen {
  const condition = plan.conditions[place]!;
  const outputs = outputsOf(study.design).map((o) => o.id);
  const margins = new Float64Array(plan.checks.length * figuresOfCheck(outputs.length)).fill(NaN);
  const values = margins.slice();
  const ranks = margins.slice();
  const point = study.at(condition);
  const edges = standOf(study.design, point);
  let plain = point.settled;
  plan.checks.forEach(({ id }, check) => {
    for (const found of findingsOf(study, ruleOf(id), [condition])) {
      const { finding, look } = found;
      const output = outputs.indexOf(look.output.id);
      if (finding.caution) plain = false;
      if (finding.edge !== undefined) edges.push({ distance: finding.edge, beyond: finding.edge >= 0 });
      (finding.worstOf ?? [finding.value]).forEach((value, figure) => {
        const n = figureAt(outputs.length, check, output, figure);
        values[n] = value;
        margins[n] = finding.relation === 'at most' ? finding.limit - value : value - finding.limit;
        ranks[n] = rankOf(found, margins[n]!);
      });
    }
  });
  return { values, margins, ranks, edges, plain };
}

/** Share of the wanted margin that is left; what is only a caution stands behind what is tight. */
function rankOf({ finding }: Found, margin: number): number {
  const left = margin / Math.max(finding.wanted, 1e-12);
  return finding.caution ? Math.max(left, 1) : left;
}

/** Share of its volts by which an output that is held may stand lower. */
const STILL = 1e-6;

/** How regulators stand: whether each holds all the time, holds at the crest at least, and the one ahead of it holds. */
function standOf(design: Design, point: OperatingPoint): Seen['edges'] {
  return outputsOf(design).flatMap((output) => {
    const rail = point.rails[output.rail]!;
    const { headroomV, setV, outputMinV, outputMaxV, ahead } = output.place < 0 ? rail : point.outputs[output.place]!;
    if (headroomV === null || setV === null) return [];
    const least = (1 - STILL) * setV;
    return [
      { distance: headroomV, beyond: outputMinV >= least },
      { distance: headroomV + rail.rail.ripplePeakToPeakV, beyond: outputMaxV >= least },
      ...(ahead ? [{ distance: ahead.headroomV, beyond: ahead.headroomV >= 0 }] : []),
    ];
  });
}

function studyOfBuild(base: Design, plan: Plan, spreads: readonly Spread[], factors: readonly number[]): Study {
  const of = (id: Spread['id']) => factors[spreads.findIndex((s) => s.id === id)] ?? 1;
  const drawn: Adjust = {
    openCircuitFactor: of('open'),
    resistanceFactor: of('copper'),
    capacitanceFactor: of('capacitance'),
    diodeSaturationFactor: of('diode'),
    dropoutFactor: of('dropout'),
    outputFactor: of('output'),
  };
  // The tolerance of the can is drawn here: what an aged corner then takes off is its age alone.
  const aged = of('capacitance') / (1 - base.reservoir.tolerancePct / 100);
  return studyDesign(buildOf(base, of('load'), of('sink')), (c) => ({
    ...drawn,
    ...(c.capacitor === 'aged' ? { capacitanceFactor: aged } : {}),
    ...plan.resting[c.id],
  }));
}

/** A design with its loads and its sink scaled; its temperatures are those of the design as printed. */
function buildOf(base: Design, load: number, sink: number): Design {
  const scaled = <T extends OutputDemand>(demand: T): T => ({
    ...demand,
    outputA: demand.outputA * load,
    typicalA: demand.typicalA === null ? null : demand.typicalA * load,
    leastA: demand.leastA * load,
  });
  const { sinkKPerW } = base.heat;
  const { negativeA } = base.demand;
  return applyPatch(base, {
    demand: { ...scaled(base.demand), negativeA: negativeA === null ? null : negativeA * load },
    outputs: base.outputs.map((o) => ({ ...o, demand: scaled(o.demand) })),
    heat: { together: false, ...(sinkKPerW === null ? {} : { sinkKPerW: sinkKPerW * sink }) },
  });
}
