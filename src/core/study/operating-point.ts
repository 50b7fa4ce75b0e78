import { arrangementOf, hasDiodes } from '@/core/design/source';
import { CONDITIONS, wordsOf, type Condition, type ConditionId, type LoadLevel } from '@/core/circuit/condition';
import { networkOf, type Adjust } from '@/core/circuit/network-of';
import { outputLoad, railAmps } from '@/core/circuit/loads-of';
import { reservoirPlace } from '@/core/circuit/filter-of';
import { regulatorOutput } from '@/core/circuit/load-law';
import type { Load, Network, Winding } from '@/core/circuit/network';
import type { Design, FurtherOutput } from '@/core/design/design';
import { regulatorModel } from '@/core/parts/regulators';
import { aheadDropout, aheadModel } from '@/core/parts/regulators/ahead';
import { dropoutAt } from '@/core/parts/regulators/model';
import type { RailResult, Solution } from '@/core/solve/solution';
import { SolveError } from '@/core/solve/solve-error';
import { solveSteady } from '@/core/solve/steady';
import { lossesOf, type Watts } from './losses';
import { thermalInterface } from '@/core/parts/heatsink';
import { outputHeat, outputPoints, type OutputPoint } from './further-outputs';
import { regulatorHeat, type RegulatorHeat } from './heat';
import { chosenWarmth, solvedTogether, warmthAfter, type Warmth } from './warmth';

/** What a pre-regulator does on one rail. */
export interface AheadPoint {
  watts: number;
  /** What it holds the regulator's input at, and how far its own input's valley stands above what it needs, V. */
  holdsV: number;
  headroomV: number;
  junctionC: number;
}

/** One rail of a solved design, with what the network alone does not know. */
export interface RailPoint {
  /** The rail at the point its load or regulator hangs on, in magnitudes. */
  rail: RailResult;
  /** Mean output volts and its extremes, V: the regulator's, or the rail's where there is none. */
  outputMeanV: number;
  outputMinV: number;
  outputMaxV: number;
  /** Output ripple: what rejection leaves of the rail's, plus what dropout lets through, V peak to peak. */
  outputRippleVpp: number;
  outputMeanA: number;
  /** Node of the reservoir, V: both capacitors of a doubler together. */
  reservoir: { meanV: number; minV: number; maxV: number };
  /** What one can of the reservoir carries: ripple current and the highest voltage across it. Null without one. */
  can: { rmsA: number; maxV: number } | null;
  heat: RegulatorHeat | null;
  /** Watts in the regulator itself, without what a pre-regulator takes over. */
  regulatorW: number;
  /** A regulator ahead of it: null without one. */
  ahead: AheadPoint | null;
  loadW: number;
  /** Further regulators on this rail, in the design's order; none on a negative rail. */
  outputs: OutputPoint[];
  /** Samples over one cycle: rectifier output, reservoir, rail and output volts, rectifier amperes. */
  wave: {
    t: number[];
    inputV: number[];
    reservoirV: number[];
    railV: number[];
    outputV: number[];
    rectifierA: number[];
  };
}

/** A design solved under one condition. Its own members are those of the rail looked at; `rails` has all of them. */
export interface OperatingPoint extends RailPoint {
  condition: ConditionId;
  network: Network;
  /** The winding that feeds the rectifier, or each half of it. */
  winding: Winding;
  solution: Solution;
  /** Highest voltage at the winding's terminals while the diodes conduct, V. */
  terminalPeakV: number;
  watts: Watts;
  rails: RailPoint[];
  /** Junction the regulator's dropout was taken at, °C; null where it does not matter. */
  junctionC: number | null;
  /** What copper and diodes were solved at. */
  warmth: Warmth;
  /** False where heat and the circuit chase each other without end. */
  settled: boolean;
}

export const WAVE_SAMPLES = 96;

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
  warm?: readonly number[],
  adjust?: Adjust,
): OperatingPoint {
  const condition = typeof at === 'string' ? CONDITIONS[at] : at;
  let point = pointAt(design, condition, warm, adjust);
  if (solvedTogether(design, condition)) point = comeToRest(design, condition, point, adjust);
  const model = regulatorModel(design.regulator);
  if (!model || model.dropoutVPerK === 0 || condition.output || !lettingGo(design, point, adjust)) return point;
  // Where it lets go the dropout decides, the dropout depends on the junction, and the junction on the watts.
  const { warmth } = point;
  const settledSoFar = point.settled;
  const resting = solvedTogether(design, condition) ? { ...adjust, ...warmth } : adjust;
  let junctionC = adjust?.junctionC ?? COLD_C;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const found = Math.min(point.heat!.junctionC, HOTTEST_C);
    if (Math.abs(found - junctionC) < 0.5) return { ...point, junctionC, warmth, settled: settledSoFar };
    junctionC = round < 3 ? found : (found + junctionC) / 2;
    point = pointAt(design, condition, point.solution.state, { ...resting, junctionC });
  }
  return { ...point, junctionC, warmth, settled: false };
}

/** Solves again and again at the temperatures copper and diodes come to, until those stay: seldom more than three times. */
function comeToRest(design: Design, condition: Condition, first: OperatingPoint, adjust?: Adjust): OperatingPoint {
  let point = first;
  let { warmth } = first;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const { settles, ...found } = warmthAfter(design, point, warmth);
    const still = Math.abs(found.copperC - warmth.copperC) < 0.5 && Math.abs(found.diodeC - warmth.diodeC) < 0.5;
    if (still) return { ...point, warmth, settled: settles };
    warmth = found;
    point = pointAt(design, condition, point.solution.state, { ...adjust, ...warmth });
  }
  return { ...point, warmth, settled: false };
}

/**
 * What a condition's copper and diodes come to, for a run of another kind over the same circuit: nothing where the design
 * is solved at chosen temperatures. @throws SolveError when the condition does not converge
 */
export function restingAdjust(design: Design, at: ConditionId): Partial<Warmth> {
  return solvedTogether(design, CONDITIONS[at]) ? operatingPoint(design, at).warmth : {};
}

/** Junction a cold part starts from, and beyond which no part is one any more, °C. */
const COLD_C = 25;
const HOTTEST_C = 400;
const MOST_ROUNDS = 12;

/** Whether a rail's valley comes near what the regulator needs, cold or hot. */
function lettingGo(design: Design, point: OperatingPoint, adjust?: Adjust): boolean {
  const needed = neededV(design)!;
  const spare = 0.2 + 0.3 * (needed - regulatorModel(design.regulator)!.outputV) * (adjust?.dropoutFactor ?? 1);
  return point.rails.some((p) => p.rail.minV < needed + spare);
}

function pointAt(design: Design, condition: Condition, warm?: readonly number[], adjust?: Adjust): OperatingPoint {
  const network = networkOf(design, condition, adjust);
  const solution = atCondition(wordsOf(design, condition), () =>
    solveSteady(network, { samples: WAVE_SAMPLES, ...(warm === undefined ? {} : { warm }) }),
  );
  const { winding } = network.sections[0]!;
  const waves = solution.waveforms!;
  const rails = network.sections[0]!.rails.map((_, r) => railPoint(design, network, solution, r, condition));
  const windingOhm = winding.resistanceOhm + network.mains.sharedResistanceOhm;
  const windingA = waves.windingA[0]!;
  const conductingA = 0.02 * Math.max(...windingA.map(Math.abs));
  // At the terminals the pulse has cost the winding's and the primary's copper; leakage inductance only delays it.
  let terminalPeakV = 0;
  waves.sourceV.forEach((e, n) => {
    const i = windingA[n]!;
    if (Math.abs(i) > conductingA) terminalPeakV = Math.max(terminalPeakV, Math.abs(e) - windingOhm * Math.abs(i));
  });
  const chargedV = Math.max(...rails.map((p) => p.rail.inputMaxV)) / (arrangementOf(design).stacked ? 2 : 1);
  terminalPeakV = Math.min(Math.max(terminalPeakV, chargedV), Math.SQRT2 * winding.voltageRms);
  const sum = (list: number[]) => list.reduce((a, b) => a + b, 0);
  const diodesW = sum(solution.diodes.map((d) => d.meanW));
  const guarded = hasDiodes(design);
  const watts = {
    winding:
      sum(solution.windings.map((w) => w.copperLossW)) + (solution.source.sharedLossW ?? 0) + (guarded ? 0 : diodesW),
    rectifier: guarded ? diodesW : 0,
    reservoir: solution.energyBalance.filterW,
    regulator: sum(rails.map((p) => p.regulatorW + (p.ahead?.watts ?? 0))),
    outputs: sum(rails.flatMap((p) => p.outputs.map((o) => o.regulatorW))),
    load:
      sum(rails.map((p) => p.loadW + sum(p.outputs.map((o) => o.loadW)))) +
      sum((solution.acLoads ?? []).map((l) => l.powerW)),
  };
  for (const p of rails) warmed(design, watts, p, rails.length);
  return {
    ...rails[0]!,
    junctionC: null,
    warmth: { ...chosenWarmth(design), ...warmthIn(adjust) },
    settled: true,
    condition: condition.id,
    network,
    winding,
    solution,
    terminalPeakV,
    watts,
    rails,
  };
}

function warmthIn(adjust: Adjust = {}): Partial<Warmth> {
  return {
    ...(adjust.copperC === undefined ? {} : { copperC: adjust.copperC }),
    ...(adjust.diodeC === undefined ? {} : { diodeC: adjust.diodeC }),
  };
}

/** Fills in the temperatures of one rail's regulator, and of what stands ahead of it on the same sink. */
export function warmed(design: Design, watts: Watts, p: RailPoint, rails: number): void {
  const boxW = lossesOf(design, watts).insideW;
  p.heat = regulatorHeat(design, { regulatorW: p.regulatorW, othersW: besideOnSinkW(design, watts, p, rails), boxW });
  p.outputs = p.outputs.map((o, n) => ({
    ...o,
    heat: outputHeat(design, design.outputs[n]!, o.regulatorW, boxW, p.heat),
  }));
  const ahead = aheadModel(design.preRegulator);
  if (!p.ahead || !ahead || !p.heat) return;
  const cooled = ahead.takesSink && p.heat.chain.length > 1;
  const contact = thermalInterface(design.heat.interface).kPerW;
  p.ahead = {
    ...p.ahead,
    junctionC: cooled
      ? p.heat.sinkC + p.ahead.watts * (ahead.jcKPerW + contact)
      : p.heat.airC + p.ahead.watts * ahead.jaKPerW,
  };
}

/** How a pre-regulator shares the watts, sample by sample: it takes what stands above what it holds. */
function aheadOf(
  design: Design,
  valleyV: number,
  amps: number,
  outputV: number,
  burntW: number,
  railV: readonly number[],
): AheadPoint | null {
  const model = aheadModel(design.preRegulator);
  if (!model) return null;
  const holdsV = model.holdsV(outputV);
  const drop = aheadDropout(model, amps);
  const above = mean(railV.map((v) => v - Math.min(holdsV, Math.max(0, v - drop))));
  const watts = Math.min(burntW, above * amps + model.quiescentA * mean([...railV]));
  return { watts, holdsV, headroomV: valleyV - holdsV - drop, junctionC: design.heat.ambientC };
}

/** What warms the sink of one rail's regulator besides that regulator, W. */
function besideOnSinkW({ heat, outputs }: Design, watts: Watts, p: RailPoint, rails: number): number {
  if (!heat.oneSink) return (heat.sharedWithRectifier ? watts.rectifier / rails : 0) + (p.ahead?.watts ?? 0);
  // One sink for all: the regulators of the other rail, and every further output that takes a sink.
  const furtherW =
    watts.outputs - p.outputs.reduce((sum, o, n) => sum + (takesSink(outputs[n]!) ? 0 : o.regulatorW), 0);
  return (heat.sharedWithRectifier ? watts.rectifier : 0) + watts.regulator - p.regulatorW + furtherW;
}

const takesSink = ({ regulator }: FurtherOutput) => regulatorModel(regulator).pass.takesSink;

function railPoint(design: Design, network: Network, solution: Solution, r: number, condition: Condition): RailPoint {
  const rail = solution.rails[r]!;
  const waves = solution.waveforms!;
  const loads = network.sections[0]!.rails[r]!.load;
  const railV = waves.railV[r]!;
  const inputV = waves.inputV[r]!;
  const place = reservoirPlace(design);
  const doubler = arrangementOf(design).stacked;
  const fitted = place >= 0 ? solution.elements[r]![place] : undefined;
  const atNode = fitted && !doubler;
  const reservoirV = doubler ? inputV : atNode ? waves.elementV[r]![place]! : railV;
  const reservoir = doubler
    ? { meanV: rail.inputMeanV, minV: rail.inputMinV, maxV: rail.inputMaxV }
    : atNode
      ? { meanV: mean(reservoirV), minV: fitted.minV, maxV: fitted.maxV }
      : { meanV: rail.meanV, minV: rail.minV, maxV: rail.maxV };
  const can = fitted && design.reservoir.capacitanceF > 0 ? { rmsA: fitted.rmsA, maxV: fitted.maxV } : null;
  const rectifierA = intoRail(design, waves.diodeA, r);
  const outputs =
    r === 0
      ? outputPoints(
          design,
          condition,
          { minV: rail.minV, ripplePeakToPeakV: rail.ripplePeakToPeakV, railV },
          rippleHz(design),
        )
      : [];
  /** What the further regulators take from the rail, W. */
  const besideW = outputs.reduce((sum, o) => sum + o.regulatorW + o.loadW, 0);
  const common = { rail, reservoir, can, outputs };
  const model = regulatorModel(design.regulator);
  if (model && condition.output && condition.further === undefined) {
    const shorted = condition.output === 'shorted';
    const held = shorted ? 0 : model.lowestV;
    const amps = shorted ? model.shortA : Math.min(railAmps(design, condition.load, r), model.limitA);
    const loadW = held * amps;
    const burnt = Math.max(0, rail.loadPowerW - besideW - loadW - leakPower(loads, rail.meanV, rail.rippleRmsV));
    const ahead = aheadOf(design, rail.minV, amps, held, burnt, railV);
    const regulatorW = burnt - (ahead?.watts ?? 0);
    return {
      ...common,
      ahead,
      outputMeanV: held,
      outputMinV: held,
      outputMaxV: held,
      outputRippleVpp: 0,
      outputMeanA: amps,
      heat: null,
      regulatorW,
      loadW,
      wave: { t: waves.t, inputV, reservoirV, railV, outputV: railV.map(() => held), rectifierA },
    };
  }
  const regulatorLoad = model && loads.find((l) => l.kind === 'regulator');
  if (!regulatorLoad) {
    return {
      ...common,
      ahead: null,
      outputMeanV: rail.meanV,
      outputMinV: rail.minV,
      outputMaxV: rail.maxV,
      outputRippleVpp: rail.ripplePeakToPeakV,
      outputMeanA: rail.loadMeanA - besideA(design, condition.load, outputs),
      heat: null,
      regulatorW: 0,
      loadW: rail.loadPowerW - besideW,
      wave: { t: waves.t, inputV, reservoirV, railV, outputV: railV, rectifierA },
    };
  }
  const outputV = railV.map((v) => regulatorOutput(regulatorLoad, v));
  const outputA = outputV.map((v) => (regulatorLoad.currentA * v) / regulatorLoad.outputV);
  const loadW = mean(outputV.map((v, n) => v * outputA[n]!));
  const burnt = Math.max(0, rail.loadPowerW - besideW - loadW - leakPower(loads, rail.meanV, rail.rippleRmsV));
  const ahead = aheadOf(design, rail.minV, mean(outputA), mean(outputV), burnt, railV);
  const regulatorW = burnt - (ahead?.watts ?? 0);
  // While both regulate, what the first leaves the second takes down again.
  const rejected =
    model!.rejectionDb(rippleHz(design)) +
    (ahead && ahead.headroomV >= 0 ? aheadModel(design.preRegulator)!.rejectionDb(rippleHz(design)) : 0);
  const dip = rail.outputMaxV! - rail.outputMinV!;
  return {
    ...common,
    outputMeanV: mean(outputV),
    outputMinV: rail.outputMinV!,
    outputMaxV: rail.outputMaxV!,
    outputRippleVpp: dip + rail.ripplePeakToPeakV * 10 ** (-rejected / 20),
    outputMeanA: mean(outputA),
    ahead,
    heat: null,
    regulatorW,
    loadW,
    wave: { t: waves.t, inputV, reservoirV, railV, outputV, rectifierA },
  };
}

/** Current the further regulators draw from the rail, A. */
function besideA(design: Design, level: LoadLevel, outputs: readonly OutputPoint[]): number {
  return outputs.reduce((sum, o, n) => sum + o.outputMeanA + outputLoad(design.outputs[n]!, level).quiescentA, 0);
}

/** Current out of the rectifier into one rail, A: of a doubler, the pulses into both capacitors. */
function intoRail(design: Design, diodeA: readonly number[][], rail: number): number[] {
  const { loops, stacked } = arrangementOf(design);
  const sum = new Array<number>(diodeA[0]!.length).fill(0);
  for (const loop of loops) {
    if (!stacked && loop.input !== rail) continue;
    const current = diodeA[loop.railDiode]!;
    for (let n = 0; n < sum.length; n++) sum[n]! += current[n]!;
  }
  return sum;
}

/** The same point seen from another of its rails. */
export function onRail(point: OperatingPoint, rail: number): OperatingPoint {
  return { ...point, ...point.rails[rail]! };
}

/** The reservoir voltage the regulator needs at its input to hold its output, V; null without a regulator. */
export function neededV(design: Design): number | null {
  const model = regulatorModel(design.regulator);
  if (!model) return null;
  const amps = Math.max(design.demand.outputA, design.demand.negativeA ?? 0);
  const ahead = aheadModel(design.preRegulator);
  return (
    model.outputV +
    Math.max(dropoutAt(model, amps, COLD_C), dropoutAt(model, amps, WARM_C)) +
    (ahead ? aheadDropout(ahead, amps) : 0)
  );
}

/** A junction hard at work, °C: where warmth adds to the dropout. */
const WARM_C = 100;

/** Frequency of the ripple, Hz. */
export function rippleHz(design: Design): number {
  return design.mains.frequencyHz * (arrangementOf(design).facts.fullWave ? 2 : 1);
}

function leakPower(loads: readonly Load[], meanV: number, rippleRmsV: number): number {
  return loads.reduce(
    (sum, l) => sum + (l.kind === 'resistance' ? (meanV * meanV + rippleRmsV * rippleRmsV) / l.resistanceOhm : 0),
    0,
  );
}

function mean(values: number[]): number {
  return values.reduce((sum, v) => sum + v, 0) / values.length;
}
