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
 * Proposes for random demands, judges what comes out anew, and tries sets of the same standard parts that would be
 * cheaper by more than a tenth: one that passes is a fault of the search.
 * @param every whether every such set is tried, or a draw of them
 */
export function proposals(count: number, every: boolean, onDone: (done: number) => void): ProposalsReport {
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
    const others = every ? everySet(ask, mains, limitEur) : drawnSets(ask, mains, limitEur, pick);
    for (const other of others) {
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

/** The standard parts a set for a demand is made of: what is plainly no supply for this load is not looked at. */
function partsFor(ask: Ask, mains: Mains) {
  const first = Math.max(22e-6, ask.outputA / (2 * mains.frequencyHz * 0.5 * ask.outputV));
  const cansFor = (ratedV: number) =>
    CAPACITOR_VOLTS.filter((v) => v > 1.4 * ratedV && v < 3 * ratedV + 10).slice(0, 3);
  return {
    regulators: regulatorChoices(ask, mains).choices,
    windings: STANDARD_SECONDARY_V.filter((v) => v > 0.55 * ask.outputV && v < 1.5 * ask.outputV + 5).flatMap(
      (ratedV) =>
        STANDARD_VA.filter((va) => va > ratedV * ask.outputA && va < 6 * ratedV * ask.outputA + 3).map((ratedVA) => ({
          ratedV,
          ratedVA,
        })),
    ),
    farads: Array.from({ length: 8 }, (_, n) => stepInDecades(first, E6, n - 2)).filter((f) => f <= 0.1),
    cansFor,
    diodes: JUNCTION_CLASSES.filter((d) => d.averageA > 0.4 * ask.outputA).map((d) => d.id),
    sinks: [null, ...STANDARD_SINKS_K_PER_W],
  };
}

/** Random sets of standard parts below a price. */
function* drawnSets(ask: Ask, mains: Mains, limitEur: number, pick: <T>(list: readonly T[]) => T): Generator<Design> {
  const parts = partsFor(ask, mains);
  const empty = blankDesign('Random', ask, mains);
  if (parts.windings.length === 0 || parts.farads.length === 0 || parts.diodes.length === 0) return;
  let drawn = 0;
  for (let draw = 0; draw < DRAWS && drawn < TRIES; draw++) {
    const transformer = pick(parts.windings);
    const canV = parts.cansFor(transformer.ratedV);
    if (canV.length === 0) continue;
    const base = applyPatch(empty, {
      regulator: pick(parts.regulators),
      transformer,
      reservoir: { capacitanceF: pick(parts.farads), ratedV: pick(canV) },
      rectifier: { diode: pick(parts.diodes) },
    });
    const sinkKPerW = mainModel(base)?.pass.takesSink ? pick(parts.sinks) : null;
    const design = applyPatch(base, { heat: { sinkKPerW } });
    if (typicalCost(design) >= limitEur) continue;
    drawn++;
    yield design;
  }
}

/** Every set of the standard parts below a price. */
function* everySet(ask: Ask, mains: Mains, limitEur: number): Generator<Design> {
  const parts = partsFor(ask, mains);
  const empty = blankDesign('Random', ask, mains);
  for (const regulator of parts.regulators)
    for (const transformer of parts.windings)
      for (const ratedV of parts.cansFor(transformer.ratedV))
        for (const capacitanceF of parts.farads)
          for (const diode of parts.diodes) {
            const base = applyPatch(empty, {
              regulator,
              transformer,
              reservoir: { capacitanceF, ratedV },
              rectifier: { diode },
            });
            if (typicalCost(base) >= limitEur) continue;
            // The largest sink the money buys: what fails with it fails with every smaller one.
            const sinks = mainModel(base)?.pass.takesSink ? parts.sinks : [null];
            const bought = sinks.map((sinkKPerW) => applyPatch(base, { heat: { sinkKPerW } }));
            const largest = bought.filter((d) => typicalCost(d) < limitEur).at(-1);
            if (largest) yield largest;
          }
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
