import { mainModel } from '@/core/design/outputs';
import { applyPatch, mergePatches, type Patch } from '@/core/design/design';
import { both, outcomeOf, toldOf, type Outcome } from '@/core/judge/judge';
import { CONDITIONS } from '@/core/circuit/condition';
import { ruleOf, rulesBySink, rulesDeciding } from '@/core/judge/rules';
import { failedAt, givenUpFor, type EarlyFailure } from '@/core/judge/early';
import { firstThat } from '@/core/quantity/first-that';
import type { Watts } from '@/core/study/losses';
import { SolveError } from '@/core/solve/solve-error';
import { circuitStays, studyDesign, studyWithHeat, type Study } from '@/core/study/study';
import { greatest, mapped } from '@/core/quantity/lists';
import type { Choice } from './choices';
import type { SizedSet } from './sized-set';
import type { SizingPlan } from './sizing-plan';
import { SINKS_EACH, type CircuitFound } from './sizing-tally';

const SINK_RULES = rulesDeciding('sink');
const BY_SINK = rulesBySink();

/**
 * One circuit of a plan with every sink it needs: the same whatever was looked at before. What is shown of it was simulated
 * at every corner and judged by every rule; sets that differ in the sink alone share a simulation, as heat does not change
 * what the circuit does.
 * @param failedKin circuits that need not be looked at
 */
export function lookAt(
  { design, circuits, sinks }: SizingPlan,
  n: number,
  failedKin: ReadonlySet<string>,
): CircuitFound {
  const { choices, kin } = circuits[n]!;
  const result: CircuitFound = {
    n,
    kin,
    lookedAt: !failedKin.has(kin),
    failsAsKin: false,
    unsolved: false,
    simulated: 0,
    found: [],
    largerSinks: false,
  };
  if (!result.lookedAt) return result;
  const patch = choices.reduce((all: Patch, c) => mergePatches(all, c.patch), {});
  const base = applyPatch(design, patch);
  const heated = mainModel(base)?.pass.takesSink ?? false;
  const cooled = heated ? sinks : [null];
  result.simulated = cooled.length;
  try {
    const study = studyDesign(base);
    // Whatever the sink, a set that fails at these fails: the other corners need not be solved to say so.
    const early = givenUpFor(study);
    if (early) {
      result.failsAsKin = !ruleOf(early.id).decides.includes('rectifier');
      result.found = [setOf(choices, patch, { fails: 1, watts: study.low.watts, worst: early })];
    } else withSinks(study, choices, patch, cooled, result);
  } catch (error) {
    if (!(error instanceof SolveError)) throw error;
    result.unsolved = true;
    result.found = [];
  }
  return result;
}

/** Behind one circuit: the smallest sinks that hold, or the best of those that do not. */
function withSinks(
  study: Study,
  circuit: readonly Choice[],
  patch: Patch,
  sinks: readonly (Choice | null)[],
  result: CircuitFound,
): void {
  const { cool, closest } = coolEnough(mapped(sinks, (sink) => onSink(study, circuit, patch, sink)));
  if (cool.length === 0) {
    // Without any sink there is no whole set: the plan says so.
    if (!closest) return;
    const { choices, whole } = closest;
    result.found = [setOf(choices, whole, { fails: 1, watts: study.nominal.watts, worst: tooWarm(closest)! })];
    return;
  }
  /** What no sink changes is judged once for all of them; where temperatures reach the circuit there is nothing of the kind. */
  const still = circuitStays(study) ? outcomeOf(study, BY_SINK.still) : null;
  const holding: SizedSet[] = [];
  let best: SizedSet | null = null;
  for (const { studied, choices, whole } of cool) {
    if (holding.length === SINKS_EACH) {
      result.largerSinks = true;
      break;
    }
    const set = judged(studied(), choices, whole, still);
    if (set.fails === 0) holding.push(set);
    else if (!best || set.worstLeft > best.worstLeft) best = set;
  }
  // Sets that differ in the sink alone: the failing ones say nothing the best of them does not.
  result.found = holding.length > 0 ? holding : [best!];
}

/** A circuit behind one sink, studied when it is asked for. */
interface OnSink {
  choices: readonly Choice[];
  whole: Patch;
  kPerW: number;
  studied(): Study;
}

function onSink(study: Study, circuit: readonly Choice[], patch: Patch, sink: Choice | null): OnSink {
  if (!sink) return { choices: circuit, whole: patch, kPerW: 0, studied: () => study };
  let known: Study | undefined;
  return {
    choices: [...circuit, sink],
    whole: mergePatches(patch, sink.patch),
    kPerW: sink.patch.heat?.sinkKPerW ?? 0,
    studied: () => (known ??= studyWithHeat(study, sink.patch.heat ?? {})),
  };
}

const tooWarm = ({ studied }: OnSink) => failedAt(studied(), SINK_RULES, [CONDITIONS.high]);

/**
 * The sinks that keep their rules at the highest input, in their order, and the one that comes closest of those that do
 * not: every larger one is cooler.
 */
function coolEnough(sinks: readonly OnSink[]): { cool: readonly OnSink[]; closest: OnSink | null } {
  const byCooling = sinks.toSorted((a, b) => b.kPerW - a.kPerW);
  const least = firstThat(byCooling.length, (n) => !tooWarm(byCooling[n]!));
  const enough = byCooling[least]?.kPerW ?? -1;
  return { cool: sinks.filter((s) => s.kPerW <= enough), closest: byCooling[least - 1] ?? null };
}

/** A set with what its study comes to. @param still what the rules no sink moves came to already */
export function judged(study: Study, choices: readonly Choice[], patch: Patch, still: Outcome | null = null): SizedSet {
  const { fails, worst } = still ? both(still, outcomeOf(study, BY_SINK.moved)) : outcomeOf(study);
  return setOf(choices, patch, { fails, watts: study.nominal.watts, worst: toldOf(worst!) });
}

function setOf(
  choices: readonly Choice[],
  patch: Patch,
  { fails, watts, worst }: { fails: number; watts: Watts; worst: Omit<EarlyFailure, 'id'> },
): SizedSet {
  return {
    patch,
    parts: mapped(choices, (c) => c.part),
    toPayEur: choices.reduce((sum, c) => sum + c.toPayEur, 0),
    worthEur: choices.reduce((sum, c) => sum + c.part.priceEur, 0),
    lostW: watts.winding + watts.rectifier + watts.regulator,
    heightMm: greatest(choices, (c) => c.heightMm),
    fails,
    worstLeft: worst.left,
    worst: `${worst.title}: ${worst.sentence}`,
  };
}
