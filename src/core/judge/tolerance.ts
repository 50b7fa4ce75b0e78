import { diodeOf, spreadWords } from '@/core/parts/diode';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { Condition, ConditionId } from '@/core/circuit/condition';
import type { Adjust } from '@/core/circuit/network-of';
import { applyPatch, type Design, type OutputDemand } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { dcSourceOf, hasDiodes } from '@/core/design/source';
import { sourceSpread } from '@/core/parts/transformer-trust';
import { SolveError } from '@/core/solve/solve-error';
import { studyDesign } from '@/core/study/study';
import { deciding, findingsOf, judge, marginOf } from './judge';
import { ruleOf, type RuleId } from './rules';
import type { Build, Check, CheckSummary, ToleranceSummary } from '@/core/picture/build-summary';

/** Something that differs from one build to the next. */
export interface Spread {
  id: 'open' | 'copper' | 'capacitance' | 'diode' | 'dropout' | 'output' | 'sink' | 'load';
  label: string;
  /** Ends of its range as factors; drawn with the middle likelier than the ends. */
  low: number;
  high: number;
}

/** The parts' spreads of a design: from what is known of each, typical where nothing is. */
export function spreadsOf(design: Design): Spread[] {
  const { reservoir, transformer, heat } = design;
  const model = mainModel(design);
  const dc = dcSourceOf(design);
  const { voltsPct, ohmPct } = dc ? { voltsPct: 3, ohmPct: 30 } : sourceSpread(transformer.source);
  const percent = (value: number) => Number(value.toPrecision(2));
  const around = (id: Spread['id'], label: string, share: number): Spread => ({
    id,
    label,
    low: 1 - share,
    high: 1 + share,
  });
  return [
    around('open', `open-circuit volts, ±${percent(voltsPct)} %`, voltsPct / 100),
    around('copper', `${dc ? 'its' : 'copper'} resistance, ±${percent(ohmPct)} %`, ohmPct / 100),
    around('capacitance', `capacitance, ±${reservoir.tolerancePct} %`, reservoir.tolerancePct / 100),
    ...(hasDiodes(design)
      ? [{ id: 'diode', label: spreadWords(diodeOf(design.rectifier)), low: 0.35, high: 2.8 } as const]
      : []),
    around('load', 'load current, ±5 %', 0.05),
    ...(model
      ? [
          around('dropout', 'dropout, ±20 %', 0.2),
          around('output', `output set, ±${(100 * model.spread).toFixed(1)} %`, model.spread),
          ...(model.pass.takesSink && heat.sinkKPerW !== null ? [around('sink', 'sink and contact, ±15 %', 0.15)] : []),
        ]
      : []),
  ];
}

/** What is looked at in every build: which rules, in which circumstances. */
export interface Plan {
  checks: Check[];
  conditions: Condition[];
  /** What copper and diodes come to in each, where they are solved together; found once, with the parts as printed. */
  resting: Partial<Record<ConditionId, Adjust>>;
}

/** Circumstances this close to the deciding one, in wanted margins, may decide in another build. */
const NEAR = 0.15;

/**
 * Every rule that can fail and hangs on a circumstance, with each circumstance that decides one of them in the design as
 * printed, or nearly. A rule then looks at all of those. What happens once (first surge, lost load) is not drawn.
 */
export function planOf(design: Design): Plan {
  const study = studyDesign(design);
  const ids = new Set<ConditionId>();
  const checks: Check[] = [];
  for (const { id, title, figure, caution, at } of judge(study)) {
    if (caution || at === null) continue;
    checks.push({ id, title, unit: figure.unit });
    const found = [...findingsOf(study, ruleOf(id))];
    const worst = deciding(found)!;
    for (const f of found) if (f.left <= worst.left + NEAR) ids.add(f.condition!.id);
  }
  const conditions = study.conditions.filter((c) => ids.has(c.id));
  const resting = design.heat.together ? Object.fromEntries(conditions.map((c) => [c.id, study.at(c).warmth])) : {};
  return { checks, conditions, resting };
}

export function checksOf(design: Design): Check[] {
  return planOf(design).checks;
}

/** Factors of one build: the same for the same seed and number, whoever asks and in whatever order. */
export function drawBuild(spreads: readonly Spread[], seed: number, n: number): number[] {
  const random = xoroshiro128plus((seed ^ Math.imul(n + 1, 0x9e3779b1)) | 0);
  const unit = () => uniformFloat64(random);
  // The mean of two draws: triangular, the middle likeliest, the ends still reached.
  return spreads.map(({ low, high }) => {
    const share = (unit() + unit()) / 2;
    return low > 0 && high / low > 4 ? low * (high / low) ** share : low + (high - low) * share;
  });
}

/** Solves a run of builds, numbered from `from` on, in one thread. */
export function solveBuilds(design: Design, seed: number, from: number, count: number): Build[] {
  const spreads = spreadsOf(design);
  const plan = planOf(design);
  return Array.from({ length: count }, (_, k): Build => {
    const factors = drawBuild(spreads, seed, from + k);
    try {
      return { factors, margins: marginsOf(design, plan, spreads, factors) };
    } catch (error) {
      if (!(error instanceof SolveError)) throw error;
      return { factors, margins: null };
    }
  });
}

/**
 * Distances to the limits of one build, in the order of the checks.
 * @param factors in the order of the spreads
 * @throws SolveError when a corner of it does not converge
 */
export function marginsAt(design: Design, factors: readonly number[]): number[] {
  return marginsOf(design, planOf(design), spreadsOf(design), factors);
}

function marginsOf(base: Design, plan: Plan, spreads: readonly Spread[], factors: readonly number[]): number[] {
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
  const build = buildOf(base, of('load'), of('sink'));
  const study = studyDesign(build, {}, (c) => ({
    ...drawn,
    ...(c.capacitor === 'aged' ? { capacitanceFactor: aged } : {}),
    ...plan.resting[c.id],
  }));
  return plan.checks.map(({ id }) => {
    const found = deciding(findingsOf(study, ruleOf(id), plan.conditions));
    // What has no meaning in this build is as far from its limit as anything can be.
    return found ? marginOf(found.finding) : Infinity;
  });
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

const BINS = 24;

/** Adds up builds: shares, histograms, and what drives the misses by the squares of the correlations. */
export function summarise(design: Design, seed: number, builds: readonly Build[]): ToleranceSummary {
  const spreads = spreadsOf(design);
  const checks = checksOf(design);
  const solved = builds.filter((b): b is Build & { margins: number[] } => b.margins !== null);
  const passes = solved.filter((b) => b.margins.every((m) => m >= 0)).length;
  return {
    seed,
    builds: builds.length,
    unsolved: builds.length - solved.length,
    pass: builds.length === 0 ? 0 : passes / builds.length,
    checks: checks.map((check, c): CheckSummary => {
      const margins = solved.map((b) => b.margins[c]!);
      const sorted = [...margins].sort((a, b) => a - b);
      const least = sorted[0] ?? 0;
      const most = sorted[sorted.length - 1] ?? 0;
      const histogram = new Array<number>(BINS).fill(0);
      for (const m of margins)
        histogram[Math.min(BINS - 1, Math.floor(((m - least) / Math.max(most - least, 1e-12)) * BINS))]!++;
      const causes = spreads
        .map((spread, s) => {
          const r = correlation(
            solved.map((b) => b.factors[s]!),
            margins,
          );
          return { label: spread.label, share: r * r, hurts: r > 0 ? ('low' as const) : ('high' as const) };
        })
        .filter((cause) => cause.share > 0.02)
        .sort((a, b) => b.share - a.share);
      return {
        check,
        pass: builds.length === 0 ? 0 : margins.filter((m) => m >= 0).length / builds.length,
        least,
        median: sorted[sorted.length >> 1] ?? 0,
        most,
        histogram,
        causes,
      };
    }),
  };
}

function correlation(a: readonly number[], b: readonly number[]): number {
  const n = a.length;
  if (n < 2) return 0;
  const mean = (list: readonly number[]) => list.reduce((sum, v) => sum + v, 0) / n;
  const [ma, mb] = [mean(a), mean(b)];
  let ab = 0;
  let aa = 0;
  let bb = 0;
  for (let k = 0; k < n; k++) {
    ab += (a[k]! - ma) * (b[k]! - mb);
    aa += (a[k]! - ma) ** 2;
    bb += (b[k]! - mb) ** 2;
  }
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 0;
}

/** Share of the builds that pass each check. */
export function drawnShares(design: Design, builds: readonly Build[]): Partial<Record<RuleId, number>> {
  return Object.fromEntries(
    checksOf(design).map(({ id }, n) => {
      const held = builds.filter((b) => b.margins !== null && b.margins[n]! >= 0).length;
      return [id, builds.length === 0 ? 0 : held / builds.length];
    }),
  );
}
