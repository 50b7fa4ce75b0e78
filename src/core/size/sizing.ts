import { mainModel, windowOf } from '@/core/design/outputs';
import { arrangementFacts } from '@/core/design/source';
import { applyPatch, mergePatches, type Design, type Patch } from '@/core/design/design';
import type { PartRole } from '@/core/design/kinds';
import { bankF, bankRatedV } from '@/core/design/bank';
import type { Part } from '@/core/drawer/part';
import { both, outcomeOf, type Outcome } from '@/core/judge/judge';
import { CONDITIONS } from '@/core/circuit/condition';
import { ruleOf, rulesBySink, rulesDeciding } from '@/core/judge/rules';
import { VALVE_CLASSES, diodeClass } from '@/core/parts/diode';
import { failedAt, givenUpFor, type EarlyFailure } from '@/core/judge/early';
import type { Watts } from '@/core/study/losses';
import { regulatorModel } from '@/core/parts/regulators';
import { dropoutAt } from '@/core/parts/regulators/model';
import { typicalRegulation } from '@/core/parts/transformer';
import { CAPACITOR_VOLTS } from '@/core/quantity/preferred';
import { SolveError } from '@/core/solve/solve-error';
import { circuitStays, studyDesign, studyWithHeat, type Study, type WarmStart } from '@/core/study/study';

import { regulatorChoices } from './regulator-choices';
import {
  asItIs,
  bearsLoad,
  bought,
  fitsOutput,
  fromStock,
  ordered,
  plausibleVolts,
  standardCans,
  standardDiodes,
  standardRegulators,
  standardSinks,
  standardTransformers,
  type Choice,
} from './choices';
import type { SizedSet, SizingAsk, SizingProgress } from './sized-set';

/** Most studies (three electrical parts at every corner) one search may make. */
const MOST_STUDIES = 2000;

/** Sinks shown behind one circuit: the smallest that hold. */
const SINKS_EACH = 4;

const SINK_RULES = rulesDeciding('sink');
const BY_SINK = rulesBySink();

/**
 * Sizes whole sets around a design's load, mains and arrangement. Rules of thumb only say in which order sets are tried;
 * every set that is shown was simulated at every corner and judged by every rule. Sets that differ in the sink alone
 * share a simulation: heat does not change what the circuit does.
 */
export function* sizing(design: Design, parts: readonly Part[], ask: SizingAsk): Generator<SizingProgress, void> {
  const stock = ask.from === 'values' ? [] : parts.filter((p) => p.count > 0);
  const values = ask.from !== 'drawer';
  const own = (role: PartRole) => (design.fixed.includes(role) ? [asItIs(design, role)] : null);
  const bare: Choice = bought('regulator', 'no regulator', 0, { regulator: { kind: 'none' } });
  const { choices, leftOut } = regulatorChoices(design.demand, design.mains);
  const transformers =
    own('transformer') ??
    ordered([...fromStock(design, stock, 'transformer'), ...(values ? standardTransformers(design) : [])]);
  const stocked = fromStock(design, stock, 'regulator');
  const regulators = own('regulator') ?? [
    ...stocked.filter((c) => fitsOutput(design, c)),
    ...(values ? standardRegulators(design, choices) : []),
  ];
  const loose = choices.some((c) => c.kind === 'none');
  const unregulated = own('regulator') === null && (loose || regulators.length === 0) ? [bare] : [];
  const off = stocked.length - stocked.filter((c) => fitsOutput(design, c)).length;
  if (off > 0) leftOut.push(`${off} regulators of the drawer: not for these volts, or too weak.`);
  const everyRectifier = own('rectifier') ?? [
    ...fromStock(design, stock, 'rectifier'),
    ...(values ? standardDiodes(design) : []),
  ];
  if (values && !own('rectifier'))
    leftOut.push(`${VALVE_CLASSES.length} valve rectifiers: chosen by hand, never for their price.`);
  const rectifiers = own('rectifier') ?? everyRectifier.filter((c) => bearsLoad(design, c));
  if (rectifiers.length < everyRectifier.length)
    leftOut.push(`${everyRectifier.length - rectifiers.length} rectifiers: below half the load or twice the volts.`);
  const sinks = own('sink') ?? [...fromStock(design, stock, 'sink'), ...(values ? standardSinks() : [])];
  let simulated = 0;
  let studies = 0;
  const reservoirsFor = new Map<number, Choice[]>();
  const electrical: { four: Choice[]; rough: number }[] = [];
  for (const regulator of [...regulators, ...unregulated]) {
    for (const transformer of transformers.filter(
      (t) => design.fixed.includes('transformer') || plausibleVolts(design, regulator, t),
    )) {
      const peak = Math.SQRT2 * (transformer.patch.transformer?.ratedV ?? design.transformer.ratedV) * 1.25;
      const canV = CAPACITOR_VOLTS.find((v) => v >= peak) ?? 450;
      let reservoirs = reservoirsFor.get(canV);
      if (!reservoirs) {
        reservoirs =
          own('reservoir') ??
          ordered([
            ...fromStock(design, stock, 'reservoir').filter((c) => c.patch.reservoir!.ratedV! >= 0.95 * peak),
            ...(values ? standardCans(design, canV) : []),
          ]);
        reservoirsFor.set(canV, reservoirs);
      }
      for (const reservoir of reservoirs) {
        for (const rectifier of rectifiers) {
          const four = [transformer, reservoir, regulator, rectifier];
          const toPay = four.reduce((sum, c) => sum + c.toPayEur + 0.02 * c.part.priceEur, 1);
          electrical.push({ four, rough: toPay * promise(design, four) });
        }
      }
    }
  }
  electrical.sort((a, b) => a.rough - b.rough);
  /** What the last set with the same transformer settled at: the next starts there. */
  const lastWith = new Map<Choice, WarmStart>();
  // What fails for another reason than its rectifier fails with every rectifier of the kind.
  const failed = new Set<string>();
  let skipped = 0;
  let largerSinks = false;
  for (const { four } of electrical) {
    const kin = kinOf(four);
    if (failed.has(kin)) {
      skipped++;
      continue;
    }
    if (++studies > MOST_STUDIES) {
      const rest = electrical.length - MOST_STUDIES - skipped;
      leftOut.push(
        `${rest} of ${electrical.length} circuits, the least promising: a search ends after ${MOST_STUDIES}.`,
      );
      yield { simulated, studies: MOST_STUDIES, found: [], leftOut };
      return;
    }
    const patch = four.reduce((all: Patch, c) => mergePatches(all, c.patch), {});
    const base = applyPatch(design, patch);
    const heated = mainModel(base)?.pass.takesSink ?? false;
    const cooled = heated ? sinks : [null];
    simulated += cooled.length;
    let found: SizedSet[];
    try {
      const transformer = four[0]!;
      const study = studyDesign(base, lastWith.get(transformer));
      // Whatever the sink, a set that fails at these fails: the other corners need not be solved to say so.
      const early = givenUpFor(study);
      if (early && !ruleOf(early.id).decides.includes('rectifier')) failed.add(kin);
      if (early) found = [setOf(four, patch, { fails: 1, watts: study.low.watts, worst: early })];
      else {
        found = [];
        let holding = 0;
        let hottest: SizedSet | null = null;
        /** What no sink changes is judged once for all of them; where temperatures reach the circuit there is nothing of the kind. */
        let still: Outcome | null | undefined;
        for (const sink of cooled) {
          if (holding === SINKS_EACH) {
            largerSinks = true;
            break;
          }
          const cool = sink ? studyWithHeat(study, { ...base.heat, ...sink.patch.heat }) : study;
          const choices = sink ? [...four, sink] : four;
          const whole = sink ? mergePatches(patch, sink.patch) : patch;
          const hot = failedAt(cool, SINK_RULES, [CONDITIONS.high]);
          if (hot) hottest = setOf(choices, whole, { fails: 1, watts: study.nominal.watts, worst: hot });
          else {
            if (still === undefined) still = circuitStays(study) ? outcomeOf(study, BY_SINK.still) : null;
            const set = judged(cool, choices, whole, still);
            if (set.fails === 0) holding++;
            found.push(set);
          }
        }
        if (found.length === 0 && hottest) found.push(hottest);
      }
      lastWith.set(transformer, { ...lastWith.get(transformer), ...study.solved() });
    } catch (error) {
      if (!(error instanceof SolveError)) throw error;
      continue;
    }
    const passing = found.filter((s) => s.fails === 0);
    // Sets that differ in the sink alone: the failing ones say nothing the best of them does not.
    const failing = found.reduce((a, b) => (b.worstLeft > a.worstLeft ? b : a));
    yield { simulated, studies, found: passing.length > 0 ? passing : [failing], leftOut };
  }
  if (largerSinks)
    leftOut.push(`Sinks larger than the ${SINKS_EACH} smallest that hold behind the same circuit: cooler, and dearer.`);
  if (skipped > 0)
    leftOut.push(
      `${skipped} circuits that differ from one that failed in the rectifier alone: it failed for another reason.`,
    );
  yield { simulated, studies, found: [], leftOut };
}

/** What sets have in common that differ in the rectifier alone, by its kind. */
function kinOf([transformer, reservoir, regulator, rectifier]: readonly Choice[]): string {
  const { rectifier: chosen } = rectifier!.patch;
  const technology = chosen?.diode ? diodeClass(chosen.diode).technology : '';
  return [transformer, reservoir, regulator].map((c) => JSON.stringify(c!.patch)).join('|') + technology;
}

/**
 * How promising a set looks by the rules of thumb, 1 or dearer. It only says in which order sets are simulated:
 * loaded peak less ripple by I*t/C against what is needed, idle peak against the ratings, 1.8 times the load in the winding.
 */
function promise(design: Design, four: readonly Choice[]): number {
  const patch = four.reduce((all: Patch, c) => mergePatches(all, c.patch), {});
  const { demand, mains, transformer, reservoir, regulator } = applyPatch(design, patch);
  const facts = arrangementFacts(design);
  const model = regulatorModel(regulator);
  const stacked = facts.railPeaks;
  const low = 1 - mains.lowPct / 100;
  const reg =
    transformer.regulationPct === null ? typicalRegulation(transformer.ratedVA) : transformer.regulationPct / 100;
  const loadedPeak = stacked * (Math.SQRT2 * transformer.ratedV * low * (1 + 0.1 * reg) - 0.95 * facts.diodesInPath);
  const idlePeak = stacked * Math.SQRT2 * transformer.ratedV * (1 + reg) * (1 + mains.highPct / 100);
  const ripple =
    (0.75 * demand.outputA) /
    ((facts.fullWave[0] ? 2 : 1) * mains.frequencyHz * 0.64 * Math.max(bankF(reservoir), 1e-9));
  const needed = model ? model.outputV + dropoutAt(model, demand.outputA) : windowOf(demand).lowV;
  const short = Math.max(0, (needed - (loadedPeak - ripple)) / needed);
  const over = model ? Math.max(0, idlePeak / model.inputMaxV - 1) : 0;
  const canOver = Math.max(0, idlePeak / (0.87 * facts.railPerCan * bankRatedV(reservoir)) - 1);
  const windingOver = Math.max(0, (1.8 * demand.outputA * transformer.ratedV) / transformer.ratedVA - 1);
  return 1 + 20 * short + 20 * over + 10 * canOver + 3 * windingOver;
}

/** A set with what its study comes to. @param still what the rules no sink moves came to already */
export function judged(study: Study, choices: readonly Choice[], patch: Patch, still: Outcome | null = null): SizedSet {
  const { fails, worst } = still ? both(still, outcomeOf(study, BY_SINK.moved)) : outcomeOf(study);
  return setOf(choices, patch, { fails, watts: study.nominal.watts, worst: worst! });
}

function setOf(
  choices: readonly Choice[],
  patch: Patch,
  { fails, watts, worst }: { fails: number; watts: Watts; worst: Omit<EarlyFailure, 'id'> },
): SizedSet {
  return {
    patch,
    parts: choices.map((c) => c.part),
    toPayEur: choices.reduce((sum, c) => sum + c.toPayEur, 0),
    worthEur: choices.reduce((sum, c) => sum + c.part.priceEur, 0),
    lostW: watts.winding + watts.rectifier + watts.regulator,
    heightMm: Math.max(...choices.map((c) => c.heightMm)),
    fails,
    worstLeft: worst.left,
    worst: `${worst.title}: ${worst.sentence}`,
  };
}
