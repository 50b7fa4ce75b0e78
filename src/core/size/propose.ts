import { modelOf } from '@/core/circuit/feed';
import { blankDesign } from '@/core/design/defaults';
import { applyPatch, type Ask, type Design, type Mains, type Regulator } from '@/core/design/design';
import { countFails, distress, judge } from '@/core/judge/judge';
import type { StationId, Verdict } from '@/core/judge/verdict';
import { DIODE_CLASSES, diodeClass } from '@/core/parts/diode';
import { STANDARD_SINKS_K_PER_W } from '@/core/parts/heatsink';
import {
  FIXED_OUTPUT_TOLERANCE,
  FIXED_OUTPUTS_V,
  REGULATOR_JUNCTION_MAX_C,
  REGULATOR_SIZES,
  regulatorSize,
} from '@/core/parts/regulators/fixed';
import { STANDARD_SECONDARY_V, STANDARD_VA } from '@/core/parts/transformer';
import { formatNominal as n, formatQuantity as q } from '@/core/quantity/format';
import { CAPACITOR_VOLTS, E6, nearestInDecades, stepInDecades } from '@/core/quantity/preferred';
import { SolveError } from '@/core/solve/solve-error';
import { typicalCost } from '@/core/study/cost';
import { neededV } from '@/core/study/operating-point';
import { studyDesign, studyWithHeat, type Study } from '@/core/study/study';

export interface Proposal {
  design: Design;
  verdicts: Verdict[];
  /** One line a station: what was chosen and why. */
  reasons: { station: StationId; text: string }[];
  costEur: number;
  /** How many complete sets were simulated and judged on the way. */
  simulated: number;
  /** Empty when every verdict passes; else why nothing here does. */
  shortfall: string;
}

/** How far a search has come. */
export interface SearchProgress {
  simulated: number;
  passing: number;
}

/** Runs a search to its end in one go. */
export function propose(name: string, demand: Ask, mains: Mains): Proposal {
  const search = proposing(name, demand, mains);
  for (;;) {
    const step = search.next();
    if (step.done) return step.value;
  }
}

interface Candidate {
  design: Design;
  study: Study;
  verdicts: Verdict[];
  costEur: number;
}

/**
 * Sizes a supply for a load: for each regulator choice and each standard winding, the smallest transformer,
 * reservoir, diodes and sink of standard values whose verdicts hold when simulated; the cheapest complete set wins.
 * When nothing passes, the closest set is returned with the reason. A generator: it tells its progress after every
 * winding and may be left there.
 */
export function* proposing(name: string, demand: Ask, mains: Mains): Generator<SearchProgress, Proposal> {
  let simulated = 0;
  const look = (design: Design): Candidate | null => {
    simulated++;
    return attempt(() => {
      const study = studyDesign(design);
      return { design, study, verdicts: judge(study), costEur: typicalCost(design) };
    });
  };
  const start = blankDesign(name, demand, mains);
  const passing: Candidate[] = [];
  const failing: Candidate[] = [];
  for (const regulator of regulatorChoices(demand, mains)) {
    const base: Design = { ...start, regulator };
    let enough = 0;
    for (const ratedV of STANDARD_SECONDARY_V) {
      const [least, most] = regulator.kind === 'none' ? [0.6, 1.15] : [0.6, 1.6];
      if (ratedV < least * demand.outputV - 1 || ratedV > most * demand.outputV + (regulator.kind === 'none' ? 1 : 6))
        continue;
      const found = attempt(() => sizeForWinding(applyPatch(base, { transformer: { ratedV } }), look));
      yield { simulated, passing: passing.length };
      if (!found) continue;
      const passes = countFails(found.verdicts) === 0;
      (passes ? passing : failing).push(found);
      // Higher windings only burn more from here on.
      if (passes && ++enough === 3) break;
    }
  }
  // Tight verdicts and an output off its mark are worth a little money each.
  const price = (c: Candidate) =>
    c.costEur *
    (1 +
      0.06 * c.verdicts.filter((v) => v.state === 'tight' && v.id !== 'sink-touch').length +
      3 * Math.max(0, Math.abs(c.study.nominal.outputMeanV / demand.outputV - 1) - 0.05));
  passing.sort((a, b) => price(a) - price(b));
  failing.sort((a, b) => distress(a.verdicts) - distress(b.verdicts));
  const winner = passing[0] ?? failing[0] ?? look(start);
  if (!winner) throw new SolveError('No starting point for this load could be calculated.');
  return {
    design: winner.design,
    verdicts: winner.verdicts,
    reasons: reasons(winner, failing),
    costEur: winner.costEur,
    simulated,
    shortfall: passing.length > 0 ? '' : shortfall(demand, winner),
  };
}

/** A candidate that cannot be solved is no candidate. */
function attempt<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof SolveError) return null;
    throw error;
  }
}

/** Regulators worth trying, and none where the window is wide enough to live without. */
function regulatorChoices(demand: Ask, mains: Mains): Regulator[] {
  const window = demand.tolerancePct / 100;
  const choices: Regulator[] = [];
  for (const outputV of FIXED_OUTPUTS_V) {
    const off = Math.abs(outputV / demand.outputV - 1) + FIXED_OUTPUT_TOLERANCE * (outputV / demand.outputV);
    if (off > window * (1 + 1e-9)) continue;
    const sizes = REGULATOR_SIZES.filter((s) => s.outputsV.includes(outputV) && s.ratedA >= demand.outputA);
    for (const size of sizes.slice(0, 2)) choices.push({ kind: 'fixed', size: size.id, outputV });
  }
  // Unregulated, the output follows the mains at least: hopeless in a window narrower than the mains' own swing.
  if (choices.length === 0 || demand.tolerancePct >= Math.min(mains.lowPct, mains.highPct))
    choices.push({ kind: 'none' });
  return choices;
}

type Look = (design: Design) => Candidate | null;

/** What the reservoir decides, and what it needs solved. */
const RESERVOIR_RULES = ['headroom', 'output-ripple', 'ripple-current'];
const DIODE_RULES = ['diode-average', 'diode-reverse', 'diode-surge'];

const allHold = (verdicts: Verdict[]) => verdicts.every((v) => v.state === 'holds');

/** Grows one part after another until its own verdicts hold. Null when nothing could be calculated. */
function sizeForWinding(base: Design, look: Look): Candidate | null {
  const { demand, mains } = base;
  const sizes = STANDARD_VA.filter((va) => va >= 1.05 * demand.outputA * base.transformer.ratedV);
  let best: Candidate | null = null;

  for (const ratedVA of sizes.slice(0, 5)) {
    const sized = applyPatch(base, { transformer: { ratedVA } });
    const openPeak = Math.SQRT2 * modelOf(sized).openCircuitV * (1 + mains.highPct / 100);
    const canV = CAPACITOR_VOLTS.find((v) => v >= openPeak / 0.85);
    if (!canV) return best;
    let design = applyPatch(sized, {
      reservoir: { ratedV: canV, capacitanceF: firstReservoir(demand, mains) },
      rectifier: { diode: firstDiode(demand.outputA, openPeak) },
    });
    if (judge(studyDesign(design), ['regulator-input']).some((v) => v.state === 'fails')) {
      // A bigger transformer idles lower; nothing else would help this winding.
      best ??= look(design);
      continue;
    }
    // Not even a huge reservoir lifts the valley of a winding that is too low.
    const huge = applyPatch(design, { reservoir: { capacitanceF: 0.1 } });
    if (judge(studyDesign(huge), ['headroom']).some((v) => v.state === 'fails')) {
      best ??= look(design);
      if (ratedVA > 2 * sizes[0]!) return best;
      continue;
    }
    // Reservoir: until the valley clears, the ripple is quiet and the can stands its own ripple current.
    let study = studyDesign(design);
    for (let n = 0; n < 10 && !allHold(judge(study, RESERVOIR_RULES)); n++) {
      const capacitanceF = stepInDecades(design.reservoir.capacitanceF, E6, 1);
      if (capacitanceF > 0.1) break;
      const bigger = applyPatch(design, { reservoir: { capacitanceF } });
      const next = studyDesign(bigger);
      design = bigger;
      study = next;
    }
    if (!allHold(judge(study, DIODE_RULES))) design = fitDiode(design);
    if (!allHold(judge(study, ['junction']))) design = fitSink(design);
    const candidate = look(design);
    if (!candidate) continue;
    if (!best || better(candidate, best)) best = candidate;
    if (candidate.verdicts.some((v) => v.id === 'headroom' && v.state === 'fails')) return best;
    if (candidate.verdicts.every((v) => v.state === 'holds' || !['winding-current', 'output-window'].includes(v.id)))
      return best;
  }
  return best;
}

/** Starting value: about a third of the output as ripple, by I*t/C. */
function firstReservoir(demand: Ask, mains: Mains): number {
  const estimate = demand.outputA / (2 * mains.frequencyHz * Math.max(0.3 * demand.outputV, 1));
  return nearestInDecades(Math.min(0.1, Math.max(22e-6, estimate)), E6);
}

function better(a: Candidate, b: Candidate): boolean {
  return distress(a.verdicts) < distress(b.verdicts);
}

function valley(study: Study): number {
  return study.low.rail.minV;
}

function firstDiode(outputA: number, peakV: number): string {
  return (
    DIODE_CLASSES.find((d) => d.technology === 'silicon' && d.averageA >= 0.65 * outputA && d.reverseV >= 2 * peakV) ??
    DIODE_CLASSES[3]!
  ).id;
}

function fitDiode(design: Design): Design {
  for (const diode of DIODE_CLASSES.filter((d) => d.technology === 'silicon')) {
    const next = applyPatch(design, { rectifier: { diode: diode.id } });
    if (allHold(judge(studyDesign(next), DIODE_RULES))) return next;
  }
  return design;
}

function fitSink(design: Design): Design {
  const study = studyDesign(design);
  let last = design;
  for (const sinkKPerW of STANDARD_SINKS_K_PER_W) {
    last = applyPatch(design, { heat: { sinkKPerW } });
    const { heat } = studyWithHeat(study, last.heat).high;
    if (heat && heat.junctionC <= REGULATOR_JUNCTION_MAX_C - 20) break;
  }
  return last;
}

function reasons(winner: Candidate, failing: Candidate[]): Proposal['reasons'] {
  const { design, study } = winner;
  const { transformer, reservoir, regulator } = design;
  const model = modelOf(design);
  const needed = neededV(design);
  const lines: Proposal['reasons'] = [];
  const windingA = Math.max(...study.high.solution.windings.map((w) => w.rmsA));
  const lower = failing
    .filter((c) => c.design.transformer.ratedV < transformer.ratedV && c.design.regulator.kind === regulator.kind)
    .sort((a, b) => b.design.transformer.ratedV - a.design.transformer.ratedV)[0];
  const lowerWhy = lower
    ? ` ${n(lower.design.transformer.ratedV, 'V')} was tried: ${(lower.verdicts.find((v) => v.id === 'headroom' && v.state === 'fails') ?? lower.verdicts[0]!).title.toLowerCase()} fails.`
    : '';
  lines.push({
    station: 'winding',
    text: `${n(transformer.ratedV, 'V')}, ${n(transformer.ratedVA, 'VA')}: ${
      needed === null
        ? `puts ${q(study.nominal.outputMeanV, 'V')} on the load at nominal line`
        : `at low line the valley stays ${q(valley(study) - needed, 'V', 2)} above the ${n(needed, 'V')} the regulator needs`
    }, and ${q(windingA, 'A')} RMS fits the ${q(model.ratedA, 'A')} rating.${lowerWhy}`,
  });
  lines.push({
    station: 'rectifier',
    text: `Bridge of ${diodeClass(design.rectifier.diode).name}: each carries ${q(Math.max(...study.high.solution.diodes.map((d) => d.meanA)), 'A')} on the mean and ${q(study.surge.peakA, 'A')} once, at switch-on.`,
  });
  lines.push({
    station: 'reservoir',
    text: `${n(reservoir.capacitanceF, 'F')}, ${n(reservoir.ratedV, 'V')}: idles at ${q(study.idle.rail.maxV, 'V')} at high line; ${q(study.low.rail.ripplePeakToPeakV, 'V')} p-p of ripple once it has aged; carries ${q(study.high.can?.rmsA ?? 0, 'A')} RMS.`,
  });
  if (regulator.kind === 'fixed') {
    const size = regulatorSize(regulator.size);
    lines.push({
      station: 'regulator',
      text: `${size.partNumber(regulator.outputV)} (${n(size.ratedA, 'A')}): leaves ${q(study.low.outputRippleVpp, 'V')} p-p of ripple, burns ${q(study.high.watts.regulator, 'W')} at high line${
        design.heat.sinkKPerW === null || !size.takesSink
          ? ', which it stands without a sink'
          : `; a ${n(design.heat.sinkKPerW, 'K/W')} sink keeps the junction at ${q(study.high.heat!.junctionC, '°C')}, its own metal at ${q(study.high.heat!.sinkC, '°C')}`
      }.`,
    });
  } else {
    lines.push({
      station: 'regulator',
      text: `None: between low line loaded and high line idle the output stays within ${q(study.low.outputMinV, 'V')} to ${q(study.idle.outputMaxV, 'V')}.`,
    });
  }
  return lines;
}

function shortfall(demand: Ask, winner: Candidate): string {
  const near = [...FIXED_OUTPUTS_V]
    .sort((a, b) => Math.abs(a - demand.outputV) - Math.abs(b - demand.outputV))
    .slice(0, 2)
    .sort((a, b) => a - b);
  const biggest = Math.max(...REGULATOR_SIZES.map((s) => s.ratedA));
  const parts: string[] = [];
  if (demand.tolerancePct < 100 * FIXED_OUTPUT_TOLERANCE)
    parts.push(`fixed regulators hold ±4 %, and you ask for ±${q(demand.tolerancePct, '%')}`);
  else if (
    !FIXED_OUTPUTS_V.some((v) => Math.abs(v / demand.outputV - 1) + FIXED_OUTPUT_TOLERANCE <= demand.tolerancePct / 100)
  ) {
    parts.push(
      `no fixed regulator gives ${n(demand.outputV, 'V')} within ±${q(demand.tolerancePct, '%')} (the nearest are ${near.map((v) => n(v, 'V')).join(' and ')})`,
    );
  }
  if (demand.outputA > biggest) parts.push(`the largest fixed regulator carries ${n(biggest, 'A')}`);
  const worst = winner.verdicts.filter((v) => v.state === 'fails').map((v) => v.title.toLowerCase());
  return `No set of standard parts passes for this load${parts.length ? `: ${parts.join('; ')}` : ''}. This is the closest; it fails on ${worst.join(', ')}.`;
}
