import { atOnce } from '@/core/quantity/at-once';
import { ofDiodeClass } from '@/core/design/diode-edit';
import { CONDITIONS } from '@/core/circuit/condition';
import { modelOf } from '@/core/circuit/feed';
import { blankDesign } from '@/core/design/defaults';
import { applyPatch, type Ask, type Design, type Mains, type Patch } from '@/core/design/design';
import { mainModel } from '@/core/design/outputs';
import { dcSourceOf } from '@/core/design/source';
import { openVolts } from '@/core/parts/dc-source';
import { exceeds, failedAt } from '@/core/judge/early';
import { countFails, distress, judge, outcomeOf } from '@/core/judge/judge';
import { earlyGroups, ruleOf, rulesDeciding, type RuleId } from '@/core/judge/rules';
import { JUNCTION_CLASSES, diodeClass, type DiodeClass } from '@/core/parts/diode';
import { STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import { STANDARD_SECONDARY_V, STANDARD_VA } from '@/core/parts/transformer';
import { firstThat } from '@/core/quantity/first-that';
import { CAPACITOR_VOLTS, E6, nearestInDecades, stepInDecades } from '@/core/quantity/preferred';
import { orUnsolved, SolveError } from '@/core/solve/solve-error';
import { typicalCost } from '@/core/study/cost';
import { studyDesign, studyWithHeat, type Study } from '@/core/study/study';
import type { Candidate, GivenUp, Proposal } from './proposal';
import { reasonsFor, shortfallOf } from './proposal-words';
import { regulatorChoices } from './regulator-choices';

/** How far a search has come. */
export interface SearchProgress {
  simulated: number;
  passing: number;
}

/** Runs a search to its end in one go. */
export function propose(name: string, demand: Ask, mains: Mains, feed: Patch | null = null): Proposal {
  return atOnce(proposing(name, demand, mains, feed));
}

/** Dearer than the cheapest passing set by more than this a set is not proposed, however comfortable. */
const COMFORT = 1.1;

/**
 * Sizes a supply for a load. Every regulator that fits, every standard winding and size is a place to start from, the
 * cheapest first; at each the least reservoir, diodes and sink of standard values whose verdicts do not fail are found by
 * simulation. It ends when nothing left could be cheaper; among what costs a tenth more at most, the set with most in hand
 * wins, and none with one part a step larger is the better buy. When nothing passes, the closest set is returned with the
 * reason. A generator: it tells its progress after every start and may be left there.
 */
export function* proposing(
  name: string,
  demand: Ask,
  mains: Mains,
  feed: Patch | null = null,
): Generator<SearchProgress, Proposal> {
  let simulated = 0;
  const look: Look = (design, study = studyDesign(design)) => {
    simulated++;
    return orUnsolved(() => ({ design, study, verdicts: judge(study), costEur: typicalCost(design) }));
  };
  const blank = applyPatch(blankDesign(name, demand, mains), feed ?? {});
  const { choices, leftOut } = regulatorChoices(demand, mains);
  const starts = choices
    .flatMap((regulator) => startsWith({ ...blank, regulator }))
    .sort((a, b) => a.leastEur - b.leastEur);
  const passing: Candidate[] = [];
  const failing: GivenUp[] = [];
  let bestEur = Infinity;
  let tried = 0;
  for (const { design, leastEur } of starts) {
    if (leastEur > COMFORT * bestEur) break;
    tried++;
    const found = orUnsolved(() => sizedFrom(design, look, COMFORT * bestEur));
    yield { simulated, passing: passing.length };
    if (!found) continue;
    if ('why' in found) failing.push(found);
    else if (countFails(found.verdicts) > 0) failing.push(asFailing(found));
    else {
      passing.push(found);
      bestEur = Math.min(bestEur, found.costEur);
    }
  }
  if (tried < starts.length)
    leftOut.push(`${starts.length - tried} dearer transformers and regulators: a cheaper set passes already.`);
  const offMark = (c: Candidate) => Math.abs(c.study.nominal.outputMeanV / demand.outputV - 1);
  // Tight verdicts and an output off its mark are worth a little money each.
  const price = (c: Candidate) =>
    c.costEur * (1 + 0.03 * c.verdicts.filter((v) => v.state === 'tight').length + 3 * Math.max(0, offMark(c) - 0.05));
  const affordable = passing.filter((c) => c.costEur <= COMFORT * bestEur);
  const weighed = new Set<Candidate>();
  for (;;) {
    affordable.sort((a, b) => price(a) - price(b));
    const next = affordable.slice(0, 2).find((c) => !weighed.has(c));
    if (!next) break;
    weighed.add(next);
    affordable.push(...eased(next, look, COMFORT * bestEur));
    yield { simulated, passing: passing.length };
  }
  let winner = affordable[0];
  if (!winner) {
    const closest = nearest(
      [...failing].sort((a, b) => b.why.left - a.why.left),
      look,
    );
    let step = closest.next();
    for (; !step.done; step = closest.next()) yield { simulated, passing: 0 };
    winner = step.value ?? look(blank) ?? undefined;
  }
  if (!winner) throw new SolveError('No starting point for this load could be calculated.');
  return {
    design: winner.design,
    verdicts: winner.verdicts,
    reasons: reasonsFor(winner, failing),
    leftOut,
    costEur: winner.costEur,
    simulated,
    shortfall: countFails(winner.verdicts) === 0 ? '' : shortfallOf(demand, winner),
  };
}

type Look = (design: Design, study?: Study) => Candidate | null;

/** What is cured by other diodes or another sink says nothing about a set that has not got its own yet. */
const CURED_LATER = [...rulesDeciding('rectifier'), ...rulesDeciding('sink')];

/** The set that is least far from passing, among all that were given up, with the can that leaves it so. */
function* nearest(failing: readonly GivenUp[], look: Look): Generator<void, Candidate | null> {
  let found: Candidate | null = null;
  let least = Infinity;
  function* nearer(designs: readonly Design[]): Generator<void> {
    for (const design of designs) {
      const whole = orUnsolved(() =>
        exceeds(studyDesign(design), least, CURED_LATER) ? null : withSink(withDiode(design), look),
      );
      yield;
      if (!whole || distress(whole.verdicts) >= least) continue;
      found = whole;
      least = distress(whole.verdicts);
    }
  }
  yield* nearer(failing.map((c) => c.design));
  const { design } = (found as Candidate | null) ?? {};
  if (design) {
    // A smaller can is easier on diodes, and no nearer to what was asked.
    const larger = CANS_F.filter((f) => f > design.reservoir.capacitanceF);
    yield* nearer(larger.map((capacitanceF) => applyPatch(design, { reservoir: { capacitanceF } })));
  }
  return found;
}

function asFailing({ design, verdicts }: Candidate): GivenUp {
  return { design, why: verdicts[0]! };
}

/** Windings and sizes a regulator could stand behind, with what the cheapest set around each would cost. */
function startsWith(base: Design): { design: Design; leastEur: number }[] {
  const { demand, regulator } = base;
  const least = {
    reservoir: { ratedV: CAPACITOR_VOLTS[0]!, capacitanceF: LEAST_F },
    rectifier: { diode: DIODES[0]!.id },
  };
  if (base.source.kind !== 'mains' || base.fixed.includes('transformer')) {
    const design = applyPatch(base, least);
    return [{ design, leastEur: typicalCost(design) }];
  }
  const plain = regulator.kind === 'none';
  const within = (v: number) =>
    v >= 0.6 * demand.outputV - 1 && v <= (plain ? 1.15 * demand.outputV + 1 : 1.6 * demand.outputV + 6);
  const near = STANDARD_SECONDARY_V.filter(within);
  const off = (v: number) => Math.abs(v - demand.outputV);
  // Where no winding comes near, or none is large enough, what comes nearest shows by how much it fails.
  const windings = near.length > 0 ? near : [STANDARD_SECONDARY_V.reduce((v, w) => (off(w) < off(v) ? w : v))];
  return windings.flatMap((ratedV) => {
    const enough = STANDARD_VA.filter((va) => va >= 1.05 * demand.outputA * ratedV).slice(0, 7);
    return (enough.length > 0 ? enough : STANDARD_VA.slice(-1)).map((ratedVA) => {
      const design = applyPatch(base, { transformer: { ratedV, ratedVA }, ...least });
      return { design, leastEur: typicalCost(design) };
    });
  });
}

/** Rectifiers by their price, and the ends of the cans there are, F. */
const DIODES = [...JUNCTION_CLASSES].sort((a, b) => a.priceEur - b.priceEur);
const LEAST_F = 22e-6;
const MOST_F = 0.1;
const CANS_F: readonly number[] = (() => {
  const list = [LEAST_F];
  while (list[list.length - 1]! < 0.99 * MOST_F) list.push(stepInDecades(list[list.length - 1]!, E6, 1));
  return list;
})();

/** What is decided before a set is complete: at the lowest input under full load, and without load. */
const VALLEY_RULES = earlyGroups()[0]!;
const IDLE_RULES = earlyGroups()[1]!;
/** What the can itself has to stand. */
const CAN_RULES = rulesDeciding('reservoir').filter(
  (id) => !VALLEY_RULES.includes(id) && ruleOf(id).occasion !== 'once',
);
/** What no other part around a transformer can cure. */
const WINDING_RULES = earlyGroups()[2]!.filter((id) => ruleOf(id).decides.includes('transformer'));

const passes = (study: Study, rules: readonly RuleId[]) => outcomeOf(study, rules).fails === 0;
const clears = (design: Design) => failedAt(studyDesign(design), VALLEY_RULES, [CONDITIONS.low]) === null;

/**
 * The least of each other part around a transformer and a regulator that does not fail; the nearest to it where something
 * else fails. Null where it would cost more than is worth looking at, or the winding is hopeless.
 */
function sizedFrom(start: Design, look: Look, mostEur: number): Candidate | GivenUp | null {
  const plain = sizedWith(start, 'silicon', look, mostEur);
  // A small Schottky drop may lift a valley that is too low behind silicon.
  if (!plain || !('why' in plain) || !VALLEY_RULES.includes(plain.why.id)) return plain;
  const lifted = sizedWith(start, 'Schottky', look, mostEur);
  return lifted && !('why' in lifted) ? lifted : plain;
}

function sizedWith(
  start: Design,
  technology: DiodeClass['technology'],
  look: Look,
  mostEur: number,
): Candidate | GivenUp | null {
  const { mains } = start;
  const dc = dcSourceOf(start);
  const openPeak = dc ? openVolts(dc, 'high') : Math.SQRT2 * modelOf(start).openCircuitV * (1 + mains.highPct / 100);
  // Where nothing bears it, what bears most: its verdict then says so.
  const canV = CAPACITOR_VOLTS.find((v) => v >= openPeak / 0.97) ?? CAPACITOR_VOLTS[CAPACITOR_VOLTS.length - 1]!;
  const kind = DIODES.filter((d) => d.technology === technology);
  const likely =
    kind.find((d) => d.averageA >= 0.5 * start.demand.outputA && d.reverseV >= 1.1 * openPeak) ??
    kind.reduce((most, d) => (d.averageA > most.averageA ? d : most));
  const withCan = (capacitanceF: number, ratedV: number = canV) =>
    applyPatch(start, { reservoir: { capacitanceF, ratedV }, rectifier: ofDiodeClass(likely.id) });
  const affordable = CANS_F.filter((f) => typicalCost(withCan(f)) <= mostEur);
  const largest = affordable[affordable.length - 1];
  if (largest === undefined) return null;
  const filled = studyDesign(withCan(largest));
  const hopeless =
    failedAt(filled, IDLE_RULES, [CONDITIONS.idle]) ??
    failedAt(filled, VALLEY_RULES, [CONDITIONS.low]) ??
    failedAt(studyDesign(modest(start, filled.design)), WINDING_RULES, [CONDITIONS.high]);
  if (hopeless) return { design: modest(start, filled.design), why: hopeless };
  // A valley rises and ripple falls with every larger can: halving finds the least that clears.
  let low = -1;
  let high = affordable.length - 1;
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (clears(withCan(affordable[middle]!))) high = middle;
    else low = middle;
  }
  for (let n = high; n < affordable.length; n++) {
    let design = withCan(affordable[n]!);
    const study = studyDesign(design);
    // The can's own ripple current and volts: the next larger, or the next volts, where it does not stand them.
    const own = judge(study, CAN_RULES).filter((v) => v.state === 'fails');
    if (own.some((v) => v.id === 'reservoir-voltage')) {
      design = withCan(affordable[n]!, CAPACITOR_VOLTS.find((v) => v > canV) ?? canV);
    }
    if (own.some((v) => v.id !== 'reservoir-voltage') && n < affordable.length - 1) continue;
    return withSink(withDiode(design), look);
  }
  return null;
}

/** The cheapest diodes that do not fail. */
function withDiode(design: Design): Design {
  const { outputA } = design.demand;
  const { technology } = diodeClass(design.rectifier.diode);
  for (const diode of DIODES.filter((d) => d.averageA >= 0.45 * outputA && d.technology === technology)) {
    const next = applyPatch(design, { rectifier: ofDiodeClass(diode.id) });
    if (passes(studyDesign(next), rulesDeciding('rectifier'))) return next;
  }
  return design;
}

/** None, and the sinks there are, the smallest first. */
const SINKS: readonly (number | null)[] = [null, ...STANDARD_SINKS_K_PER_W];

/** The smallest sink that does not fail, none where none is needed; the largest where all of them do. */
function withSink(design: Design, look: Look): Candidate | null {
  const study = studyDesign(design);
  if (!mainModel(design)?.pass.takesSink) return look(design, study);
  const rules = rulesDeciding('sink');
  const studies: Study[] = [];
  const on = (n: number) => (studies[n] ??= studyWithHeat(study, { sinkKPerW: SINKS[n]! }));
  // Every larger sink is cooler.
  const sunk = on(firstThat(SINKS.length - 1, (n) => passes(on(n), rules)));
  return look(sunk.design, sunk);
}

/** A set with one part a step larger, a sink two: what may bring more in hand for little money. */
function eased({ design, study }: Candidate, look: Look, mostEur: number): Candidate[] {
  const { heat, reservoir } = design;
  const sinks = STANDARD_SINKS_K_PER_W;
  const at = heat.sinkKPerW === null ? -1 : sinks.indexOf(heat.sinkKPerW);
  const cooler = mainModel(design)?.pass.takesSink ? [1, 2].flatMap((by) => sinks[at + by] ?? []) : [];
  const larger = stepInDecades(reservoir.capacitanceF, E6, 1);
  const canV = CAPACITOR_VOLTS.find((v) => v > reservoir.ratedV);
  const found: Candidate[] = [];
  const add = (next: Design, of?: Study) => {
    if (typicalCost(next) > mostEur) return;
    const candidate = look(next, of);
    if (candidate && countFails(candidate.verdicts) === 0) found.push(candidate);
  };
  for (const sinkKPerW of cooler) {
    const warmer = { ...heat, sinkKPerW };
    add({ ...design, heat: warmer }, studyWithHeat(study, warmer));
  }
  if (larger <= MOST_F) add(applyPatch(design, { reservoir: { capacitanceF: larger } }));
  if (canV) add(applyPatch(design, { reservoir: { ratedV: canV } }));
  return found;
}

/** With a reservoir of about a third of the output as ripple, by I*t/C: what is shown where nothing clears. */
function modest({ demand, mains }: Design, of: Design): Design {
  const estimate = demand.outputA / (2 * mains.frequencyHz * Math.max(0.3 * demand.outputV, 1));
  const capacitanceF = nearestInDecades(Math.min(MOST_F, Math.max(LEAST_F, estimate)), E6);
  return applyPatch(of, { reservoir: { capacitanceF } });
}
