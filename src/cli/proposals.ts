import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { blankDesign, MAINS_PRESETS } from '@/core/design/defaults';
import { applyPatch, type Ask, type Design, type Mains } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { countFails, judge } from '@/core/judge/judge';
import { earlyGroups } from '@/core/judge/rules';
import { JUNCTION_CLASSES } from '@/core/parts/diode';
import { STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { STANDARD_SECONDARY_V, STANDARD_VA } from '@/core/parts/transformer';
import { CAPACITOR_VOLTS, E6, stepInDecades } from '@/core/quantity/preferred';
import { propose } from '@/core/size/propose';
import { regulatorChoices } from '@/core/size/regulator-choices';
import { SolveError } from '@/core/solve/solve-error';
import { typicalCost } from '@/core/study/cost';
import { studyDesign } from '@/core/study/study';

/** What a run over random demands came to. */
export interface ProposalsReport {
  demands: number;
  /** With a set that passes, and of those how many did not pass when judged anew: must be none. */
  answered: number;
  broken: string[];
  /** Sets of the same standard parts, cheaper by more than a tenth, that were tried against them, and those that pass. */
  cheaperTried: number;
  cheaper: string[];
  /** Demands said to have no set, and those of them for which one was found all the same: must be none. */
  unanswered: number;
  missed: string[];
}

/** Cheaper sets simulated against each proposal, and the most that are drawn to find so many. */
const TRIES = 60;
const DRAWS = 4000;
const SEED = 7;

/**
 * Proposes for random demands, judges what comes out anew, and tries random sets of the same standard parts that would be
 * cheaper by more than a tenth: one that passes is a fault of the search.
 */
export function proposals(count: number, onDone: (done: number) => void): ProposalsReport {
  const random = xoroshiro128plus(SEED);
  const unit = () => uniformFloat64(random);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(unit() * list.length)]!;
  const report: ProposalsReport = {
    demands: 0,
    answered: 0,
    broken: [],
    cheaperTried: 0,
    cheaper: [],
    unanswered: 0,
    missed: [],
  };
  for (let n = 0; n < count; n++) {
    const { ask, mains } = someDemand(unit, pick);
    const words = `${ask.outputV} V ±${ask.tolerancePct} % ${ask.outputA.toPrecision(3)} A, ${ask.rippleVpp} V p-p`;
    const { design, shortfall, costEur } = propose('Random', ask, mains);
    report.demands++;
    const passed = shortfall === '';
    if (!passed) report.unanswered++;
    else {
      report.answered++;
      if (countFails(judge(studyDesign(design))) > 0) report.broken.push(words);
    }
    const limitEur = passed ? costEur / 1.1 : Infinity;
    let tried = 0;
    for (let draw = 0; draw < DRAWS && tried < TRIES; draw++) {
      const other = someSet(ask, mains, limitEur, unit, pick);
      if (!other) continue;
      tried++;
      report.cheaperTried++;
      if (!holds(other)) continue;
      const set = `${words}: ${other.transformer.ratedV} V ${other.transformer.ratedVA} VA ${(1e6 * other.reservoir.capacitanceF).toFixed(0)} µF ${other.rectifier.diode} ${mainModel(other)?.name ?? 'none'} ${other.heat.sinkKPerW}, ${typicalCost(other).toFixed(2)} against ${costEur.toFixed(2)} EUR`;
      (passed ? report.cheaper : report.missed).push(set);
      break;
    }
    onDone(n + 1);
  }
  return report;
}

function someDemand(unit: () => number, pick: <T>(list: readonly T[]) => T): { ask: Ask; mains: Mains } {
  const outputV = pick([3.3, 5, 6, 8, 9, 10, 12, 13.8, 15, 18, 20, 24, 28, 32, 48]);
  const outputA = Number((0.03 * 100 ** unit()).toPrecision(2));
  const ask: Ask = {
    outputV,
    outputA,
    tolerancePct: pick([4, 5, 5, 5, 10, 15, 30]),
    rippleVpp: pick([0.005, 0.02, 0.1, 1]),
    kind: pick(['current', 'current', 'resistance', 'power'] as const),
  };
  return { ask, mains: pick(MAINS_PRESETS).mains };
}

/** A random set of standard parts below a price; null where the draw was dearer or plainly no supply for this load. */
function someSet(
  ask: Ask,
  mains: Mains,
  limitEur: number,
  unit: () => number,
  pick: <T>(list: readonly T[]) => T,
): Design | null {
  const regulator = pick(regulatorChoices(ask, mains).choices);
  const volts = STANDARD_SECONDARY_V.filter((v) => v > 0.55 * ask.outputV && v < 1.5 * ask.outputV + 5);
  const ratedV = pick(volts);
  const sizes = STANDARD_VA.filter((va) => va > ratedV * ask.outputA && va < 6 * ratedV * ask.outputA + 3);
  const canV = CAPACITOR_VOLTS.filter((v) => v > 1.4 * ratedV && v < 3 * ratedV + 10);
  if (sizes.length === 0 || canV.length === 0) return null;
  const first = Math.max(22e-6, ask.outputA / (2 * mains.frequencyHz * 0.5 * ask.outputV));
  const base = applyPatch(blankDesign('Random', ask, mains), {
    regulator,
    transformer: { ratedV, ratedVA: pick(sizes) },
    reservoir: {
      capacitanceF: stepInDecades(first, E6, Math.floor(8 * unit()) - 2),
      ratedV: pick(canV.slice(0, 3)),
    },
    rectifier: { diode: pick(JUNCTION_CLASSES.filter((d) => d.averageA > 0.4 * ask.outputA)).id },
  });
  const sinks = mainModel(base)?.pass.takesSink ? [null, ...STANDARD_SINKS_K_PER_W] : [null];
  const design = applyPatch(base, { heat: { sinkKPerW: pick(sinks) } });
  return typicalCost(design) < limitEur && design.reservoir.capacitanceF <= 0.1 ? design : null;
}

function holds(design: Design): boolean {
  try {
    const study = studyDesign(design);
    return earlyGroups().every((rules) => countFails(judge(study, rules)) === 0) && countFails(judge(study)) === 0;
  } catch (error) {
    if (error instanceof SolveError) return false;
    throw error;
  }
}
