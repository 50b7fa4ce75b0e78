import { conditionOf, wordsOf, type Condition, type ConditionId } from '@/core/circuit/condition';
import { reservoirPlace } from '@/core/circuit/filter-of';
import { networkOf, type Adjust } from '@/core/circuit/network-of';
import type { Network } from '@/core/circuit/network';
import { currentOf, heldFrom } from '@/core/circuit/load-law';
import { heldUnder, railExtras } from '@/core/circuit/loads-of';
import type { Design } from '@/core/design/design';
import { outputModel, outputsOf, type Output } from '@/core/design/outputs';
import { arrangementFacts, hasDiodes } from '@/core/design/source';
import type { Solution } from '@/core/solve/solution';
import { SolveError } from '@/core/solve/solve-error';
import type { Beginning } from '@/core/solve/neighbours';
import { solveSteady } from '@/core/solve/steady';
import { greatest, mapped, summed } from '@/core/quantity/lists';
import type { Watts } from './losses';
import { neededOf, outputPoint, type OutputPoint, type RailWave, type SmallHeat } from './output-point';
import { chosenWarmth, solvedTogether, warmthAfter, type Warmth } from './warmth';
import { WAVE_SAMPLES, rippleHz, type OperatingPoint, type RailPoint } from './point';
import { withHeat } from './point-heat';

/** Names the condition in what a solve throws. */
export function atCondition<T>(words: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof SolveError) throw new SolveError(`At ${words}: ${error.message}.`);
    throw error;
  }
}

/** Solves one condition. @throws SolveError naming the condition when it does not converge */
export function operatingPoint(
  design: Design,
  at: ConditionId | Condition,
  adjust?: Adjust,
  warm?: readonly number[],
): OperatingPoint {
  const condition = typeof at === 'string' ? conditionOf(design, at) : at;
  const model = outputModel(outputsOf(design)[0]!);
  const warmsItself = model !== null && model.dropoutVPerK !== 0 && !condition.output;
  let junctionC = adjust?.junctionC ?? EXPECTED_C;
  const first = warmsItself ? { ...adjust, junctionC } : adjust;
  let point = pointAt(design, condition, warm, first);
  if (condition.output === 'shorted') point = shortSettled(design, condition, point, first);
  if (solvedTogether(design, condition)) point = comeToRest(design, condition, point, first);
  if (!warmsItself || !lettingGo(design, point, adjust)) return point;
  // Where it lets go the dropout decides, the dropout depends on the junction, and the junction on the watts.
  const { warmth } = point;
  const settledSoFar = point.settled;
  const resting = solvedTogether(design, condition) ? { ...adjust, ...warmth } : adjust;
  let before: Solved | null = null;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const found = Math.min(point.heat!.junctionC, HOTTEST_C);
    if (Math.abs(found - junctionC) < 0.5) return { ...point, junctionC, warmth, settled: settledSoFar };
    const last: Solved = { junctionC, state: point.solution.state };
    junctionC = round < 3 ? found : (found + junctionC) / 2;
    point = pointWarmedTo(design, condition, point, { ...resting, junctionC }, foretold(before, last, junctionC));
    before = last;
  }
  return { ...point, junctionC, warmth, settled: false };
}

/** A circuit's cycle with its regulator's junction at a temperature. */
interface Solved {
  junctionC: number;
  state: readonly number[];
}

/** Where the search begins at another junction: further along the line of the last two. */
function foretold(before: Solved | null, last: Solved, junctionC: number): Beginning {
  if (!before || before.state.length !== last.state.length) return { warm: last.state, sure: false };
  const share = (junctionC - last.junctionC) / (last.junctionC - before.junctionC);
  return { warm: mapped(last.state, (x, n) => x + share * (x - before.state[n]!)), sure: true };
}

/** Where a part's limit falls with the volts across it, the current into a short and the rail it leaves are found together. */
function shortSettled(design: Design, condition: Condition, first: OperatingPoint, adjust?: Adjust): OperatingPoint {
  const output = outputsOf(design).find((o) => heldUnder(condition, o.id))!;
  const model = outputModel(output)!;
  let point = first;
  let amps = model.shortA(0);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const next = model.shortA(point.rails[output.rail]!.rail.meanV);
    if (Math.abs(next - amps) <= 0.005 * amps) break;
    amps = round < 4 ? next : (amps + next) / 2;
    point = pointAt(design, condition, point.solution.state, { ...adjust, shortA: amps });
  }
  return point;
}

/** Solves again and again at the temperatures copper and diodes come to, until those stay: seldom more than three times. */
function comeToRest(design: Design, condition: Condition, first: OperatingPoint, adjust?: Adjust): OperatingPoint {
  let point = first;
  let { warmth } = first;
  const shortA = condition.output === 'shorted' ? { shortA: shortOf(design, condition, first) } : {};
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const { settles, ...found } = warmthAfter(design, point, warmth);
    const still = Math.abs(found.copperC - warmth.copperC) < 0.5 && Math.abs(found.diodeC - warmth.diodeC) < 0.5;
    if (still) return { ...point, warmth, settled: settles };
    warmth = found;
    point = pointAt(design, condition, point.solution.state, { ...adjust, ...shortA, ...warmth });
  }
  return { ...point, warmth, settled: false };
}

function shortOf(design: Design, condition: Condition, point: OperatingPoint): number {
  const output = outputsOf(design).find((o) => heldUnder(condition, o.id))!;
  return outputModel(output)!.shortA(point.rails[output.rail]!.rail.meanV);
}

/** What a solved point's parts came to, for a run of another kind over the same circuit. */
export type Resting = Partial<Warmth> & Pick<Adjust, 'junctionC'>;

/** The temperatures a point was solved at that were found and not chosen: copper, diodes, and a regulator that lets go. */
export const restingOf = (design: Design, { warmth, junctionC }: OperatingPoint): Resting => ({
  ...(design.heat.together ? warmth : {}),
  ...(junctionC === null ? {} : { junctionC }),
});

/**
 * The same of a condition not solved yet: nothing where no temperature is found. @throws SolveError when the condition does
 * not converge
 */
export function restingAdjust(design: Design, at: ConditionId): Resting {
  const condition = conditionOf(design, at);
  const warmsItself = (outputModel(outputsOf(design)[0]!)?.dropoutVPerK ?? 0) !== 0;
  return solvedTogether(design, condition) || warmsItself ? restingOf(design, operatingPoint(design, condition)) : {};
}

/** What the junction of a regulator at work is about, °C: the nearer, the fewer solves until it is found. */
const EXPECTED_C = 75;

/** Beyond this no part is one any more, °C. */
const HOTTEST_C = 400;

const MOST_ROUNDS = 12;

/** Whether a rail's valley comes near what the main regulator needs, cold or hot. */
function lettingGo(design: Design, point: OperatingPoint, adjust?: Adjust): boolean {
  return outputsOf(design)
    .filter((o) => o.place < 0)
    .some((o) => {
      const needed = neededOf(design, o)!;
      const spare = 0.2 + 0.3 * (needed - outputModel(o)!.outputV) * (adjust?.dropoutFactor ?? 1);
      return point.rails[o.rail]!.rail.minV < needed + spare;
    });
}

/** The same point with its regulators' junctions at another temperature: another dropout, and nothing else. */
function pointWarmedTo(
  design: Design,
  condition: Condition,
  before: OperatingPoint,
  adjust: Adjust,
  beginning: Beginning,
): OperatingPoint {
  const network = networkOf(design, condition, adjust);
  // Where no rail comes down to its regulator's dropout, before or now, the circuit does not notice.
  const holds = [before.network, network].every(({ sections }) =>
    sections[0]!.rails.every(({ load }, r) =>
      load.every((l) => l.kind !== 'regulator' || heldFrom(l) <= before.rails[r]!.rail.minV),
    ),
  );
  return holds
    ? pointOf(design, condition, network, before.solution, adjust)
    : solvedPoint(design, condition, network, beginning, adjust);
}

function pointAt(design: Design, condition: Condition, warm?: readonly number[], adjust?: Adjust): OperatingPoint {
  return solvedPoint(design, condition, networkOf(design, condition, adjust), warm && { warm, sure: false }, adjust);
}

function solvedPoint(
  design: Design,
  condition: Condition,
  network: Network,
  beginning?: Beginning,
  adjust?: Adjust,
): OperatingPoint {
  const solution = atCondition(wordsOf(design, condition), () =>
    solveSteady(network, { railSamples: WAVE_SAMPLES, ...beginning }),
  );
  return pointOf(design, condition, network, solution, adjust);
}

/** What a solved circuit means for the design it was made of. */
function pointOf(
  design: Design,
  condition: Condition,
  network: Network,
  solution: Solution,
  adjust?: Adjust,
): OperatingPoint {
  const { winding } = network.sections[0]!;
  const outputs = outputsOf(design);
  const rails = mapped(network.sections[0]!.rails, (_, r) =>
    railPoint(
      design,
      outputs.find((o) => o.place < 0 && o.rail === r)!,
      solution,
      condition,
      adjust ?? {},
    ),
  );
  const further = mapped(
    outputs.filter((o) => o.place >= 0),
    (o) => pointOn(design, o, rails[o.rail]!, condition, adjust ?? {}),
  );
  const diodesW = summed(solution.diodes, (d) => d.meanW);
  const guarded = hasDiodes(design);
  const all = [...rails, ...further];
  const extras = extrasOf(design, condition, rails[0]!);
  const heaters = solution.acLoads ?? [];
  const ofLoad = design.heater ? 1 : 0;
  const watts: Watts = {
    winding:
      summed(solution.windings, (w) => w.copperLossW) + (solution.source.sharedLossW ?? 0) + (guarded ? 0 : diodesW),
    // What heats the rectifier's own cathodes is lost there: its windings stand after the one of the load's heaters.
    rectifier: (guarded ? diodesW : 0) + summed(heaters.slice(ofLoad), (l) => l.powerW),
    reservoir: solution.energyBalance.filterW,
    regulator: summed(rails, (p) => p.regulatorW + (p.ahead?.watts ?? 0)),
    outputs: summed(further, (p) => p.regulatorW),
    small: summed([...all.flatMap((p) => p.small), ...extras], (s) => s.watts),
    load: summed(all, (p) => p.loadW) + summed(heaters.slice(0, ofLoad), (l) => l.powerW),
  };
  const main = rails[0]!;
  // Written out: spread and then added to, so large an object takes longer to make than its circuit's figures.
  return withHeat(design, {
    id: main.id,
    outputMeanV: main.outputMeanV,
    outputMinV: main.outputMinV,
    outputMaxV: main.outputMaxV,
    setV: main.setV,
    outputRippleVpp: main.outputRippleVpp,
    outputMeanA: main.outputMeanA,
    headroomV: main.headroomV,
    regulatorW: main.regulatorW,
    ahead: main.ahead,
    small: main.small,
    loadW: main.loadW,
    heat: main.heat,
    rail: main.rail,
    reservoir: main.reservoir,
    can: main.can,
    wave: main.wave,
    junctionC: null,
    warmth: { ...chosenWarmth(design), ...warmthIn(adjust) },
    settled: true,
    condition: condition.id,
    at: condition,
    network,
    winding,
    solution,
    watts,
    rails,
    outputs: further,
    extras,
  });
}

/** What the rail feeds besides its outputs: the indicator, a fan. */
function extrasOf(design: Design, condition: Condition, { wave: { railV } }: RailPoint): SmallHeat[] {
  return mapped(railExtras(design, condition, 0), ({ label, load }) => ({
    label,
    watts: railV.reduce((sum, v) => sum + v * currentOf(load, v), 0) / railV.length,
    bearsW: null,
  }));
}

function warmthIn(adjust: Adjust = {}): Partial<Warmth> {
  return {
    ...(adjust.copperC === undefined ? {} : { copperC: adjust.copperC }),
    ...(adjust.diodeC === undefined ? {} : { diodeC: adjust.diodeC }),
  };
}

function railPoint(
  design: Design,
  output: Output,
  solution: Solution,
  condition: Condition,
  adjust: Adjust,
): RailPoint {
  const r = output.rail;
  const rail = solution.rails[r]!;
  const railV = solution.railV![r]!;
  const place = reservoirPlace(design);
  const fitted = place >= 0 ? solution.elements[r]![place] : undefined;
  const reservoir = reservoirOf(design, solution, r);
  const cans = fitted ? [fitted, ...(r === 0 ? (solution.cans ?? []) : [])] : [];
  const can =
    cans.length > 0 && design.reservoir.capacitanceF > 0
      ? { rmsA: greatest(cans, (c) => c.rmsA), maxV: greatest(cans, (c) => c.maxV) }
      : null;
  const { point, outputV } = outputPoint(design, output, condition, waveOn(rail, railV), rippleHz(design, r), adjust);
  return Object.assign(point, { rail, reservoir, can, wave: { railV, outputV } });
}

/** The reservoir's own node, wherever in the filter it stands: all stacked capacitors together; the rail where none is fitted. */
export function reservoirOf(design: Design, { rails, elements }: Solution, rail: number): RailPoint['reservoir'] {
  const found = rails[rail]!;
  const place = reservoirPlace(design);
  if (arrangementFacts(design).stacked > 1)
    return { meanV: found.inputMeanV, minV: found.inputMinV, maxV: found.inputMaxV };
  const { meanV, minV, maxV } = (place >= 0 ? elements[rail]![place] : undefined) ?? found;
  return { meanV, minV, maxV };
}

const waveOn = ({ minV, maxV, meanV, ripplePeakToPeakV }: RailPoint['rail'], railV: number[]): RailWave => ({
  minV,
  maxV,
  meanV,
  ripplePeakToPeakV,
  railV,
});

function pointOn(design: Design, output: Output, on: RailPoint, condition: Condition, adjust: Adjust): OutputPoint {
  // A drawn build's regulator is the main one; further ones are taken as their class has them.
  const { outputFactor: _drawn, ...rest } = adjust;
  void _drawn;
  return outputPoint(design, output, condition, waveOn(on.rail, on.wave.railV), rippleHz(design, output.rail), rest)
    .point;
}
