import type { Condition } from '@/core/circuit/condition';
import { currentOf, regulatorOutput } from '@/core/circuit/load-law';
import { ampsUnder, heldUnder, lampAmps, loadsOfOutput, setVolts, type LoadAdjust } from '@/core/circuit/loads-of';
import type { Load } from '@/core/circuit/network';
import type { Design, OutputId } from '@/core/design/design';
import { outputModel, type Output } from '@/core/design/outputs';
import { aheadDropout, aheadModel, type AheadModel } from '@/core/parts/regulators/ahead';
import { dropoutAt, type RegulatorModel } from '@/core/parts/regulators/model';
import { mapped } from '@/core/quantity/lists';
import type { RegulatorHeat } from './heat';
import { behindAhead, outputCycle, type RegulatorLoad } from './output-cycle';

/** What a pre-regulator does ahead of one output. */
export interface AheadPoint {
  watts: number;
  /** What it holds the regulator's input at, and how far its own input's valley stands above what it needs, V. */
  holdsV: number;
  headroomV: number;
  /** Highest volts across it, V, and the current through it then, A. */
  acrossV: number;
  amps: number;
  junctionC: number;
}

/** A part beside the pass device that burns watts. */
export interface SmallHeat {
  label: string;
  watts: number;
  /** What it bears for long, W; null where it is bought for what it burns. */
  bearsW: number | null;
}

/** One output under one condition, whether it has a regulator or not. */
export interface OutputPoint {
  id: OutputId;
  /** Mean volts and their extremes, V: the regulator's output, or the rail's where there is none. */
  outputMeanV: number;
  outputMinV: number;
  outputMaxV: number;
  /** What a regulator holds it at as long as it can, V; null without one, or while it is held low. */
  setV: number | null;
  /** What rejection leaves of the rail's ripple, plus what dropout lets through, V peak to peak. */
  outputRippleVpp: number;
  outputMeanA: number;
  /** Valley of the rail less what the regulator needs, V; null without one, or while it is held low. */
  headroomV: number | null;
  /** Watts in the pass device itself, without what a pre-regulator takes over. */
  regulatorW: number;
  ahead: AheadPoint | null;
  small: SmallHeat[];
  loadW: number;
  heat: RegulatorHeat | null;
}

/** What a rail does, as far as what hangs on it minds. */
export interface RailWave {
  minV: number;
  maxV: number;
  meanV: number;
  ripplePeakToPeakV: number;
  /** Samples over one cycle, V. */
  railV: readonly number[];
}

/** A junction hard at work, °C: where warmth adds to the dropout. */
const WARM_C = 100;
const COLD_C = 25;

/**
 * The input one output needs to be held, at the worse of a cold and a warm junction, V; null without a regulator.
 * @param under what it draws then; its full load where left out
 */
export function neededOf(design: Design, output: Output, adjust: LoadAdjust = {}, under?: Condition): number | null {
  const model = outputModel(output);
  if (!model) return null;
  const drawnA = under ? ampsUnder(design, output, under) : output.demand.outputA;
  const amps = drawnA + lampAmps(design, output);
  const ahead = output.place < 0 ? aheadModel(design.preRegulator) : null;
  return (
    setVolts(model, amps, adjust.outputFactor) +
    (adjust.dropoutFactor ?? 1) * Math.max(dropoutAt(model, amps, COLD_C), dropoutAt(model, amps, WARM_C)) +
    (ahead ? aheadDropout(ahead, amps) : 0)
  );
}

/** What one output does, and its own volts, sample by sample. */
export interface OutputFound {
  point: OutputPoint;
  outputV: number[];
}

/** What one output makes of its rail, its temperature aside. @param rippleHz of the rail, Hz */
export function outputPoint(
  design: Design,
  output: Output,
  condition: Condition,
  rail: RailWave,
  rippleHz: number,
  adjust: LoadAdjust,
): OutputFound {
  const model = outputModel(output);
  const loads = loadsOfOutput(design, output, condition, adjust);
  const lampA = lampAmps(design, output);
  if (!model) return direct(output, loads, rail, lampA);
  const held = heldUnder(condition, output.id) ? condition.output! : null;
  const [main] = loads;
  const regulator = main?.kind === 'regulator' ? main : null;
  const heldV = held === 'lowest' ? model.lowestV : 0;
  const heldA =
    held === 'shorted'
      ? (adjust.shortA ?? model.shortA(0))
      : Math.min(ampsUnder(design, output, condition) + lampA, model.limitA);
  const drains = loads.filter((l) => l.kind === 'drain');
  const ahead = output.place < 0 ? aheadModel(design.preRegulator) : null;
  const cycle = outputCycle(rail.railV, { model, regulator, heldV, heldA, drains, ahead });
  const { outputV, meanV, meanA, givenW } = cycle;
  const small = mapped(model.burners, (b, m): SmallHeat => ({
    label: b.label,
    watts: cycle.smallW[m]!,
    bearsW: b.bearsW,
  }));
  const smallW = small.reduce((sum, s) => sum + s.watts, 0);
  const burntW = Math.max(0, cycle.burntW - smallW);
  const aheadW = Math.min(burntW, cycle.aheadW);
  const lampShare = meanA > 0 ? Math.min(1, lampA / meanA) : 0;
  const lampW = givenW * lampShare;
  if (lampA > 0) small.push({ label: 'indicator', watts: lampW, bearsW: null });
  const aheadPoint = ahead ? aheadOf(ahead, rail, meanV, meanA, aheadW, design.heat.ambientC) : null;
  const rejection =
    model.rejectionDb(rippleHz) + (aheadPoint && aheadPoint.headroomV >= 0 ? ahead!.rejectionDb(rippleHz) : 0);
  const point: OutputPoint = {
    id: output.id,
    outputMeanV: meanV,
    outputMinV: regulator ? regulatorOutput(regulator, rail.minV) : cycle.lowV,
    outputMaxV: regulator ? regulatorOutput(regulator, rail.maxV) : cycle.highV,
    setV: regulator?.outputV ?? null,
    outputRippleVpp: held ? 0 : dipOf(regulator, rail) + rail.ripplePeakToPeakV * 10 ** (-rejection / 20),
    outputMeanA: meanA * (1 - lampShare),
    headroomV: held ? null : rail.minV - neededOf(design, output, adjust, condition)!,
    regulatorW: burntW - aheadW,
    ahead: aheadPoint,
    small,
    loadW: givenW - lampW,
    heat: null,
  };
  return { point, outputV };
}

/** What dropout lets through of a rail's valleys, V peak to peak. */
function dipOf(regulator: RegulatorLoad | null, rail: RailWave): number {
  return regulator ? regulatorOutput(regulator, rail.maxV) - regulatorOutput(regulator, rail.minV) : 0;
}

/** A load that hangs on the rail itself. */
function direct(output: Output, loads: readonly Load[], rail: RailWave, lampA: number): OutputFound {
  const n = rail.railV.length;
  let amps = 0;
  let watts = 0;
  for (const v of rail.railV) {
    const i = loads.reduce((sum, l) => sum + currentOf(l, v), 0);
    amps += i / n;
    watts += (v * i) / n;
  }
  const lampShare = amps > 0 ? Math.min(1, lampA / amps) : 0;
  const point: OutputPoint = {
    id: output.id,
    outputMeanV: rail.meanV,
    outputMinV: rail.minV,
    outputMaxV: rail.maxV,
    setV: null,
    outputRippleVpp: rail.ripplePeakToPeakV,
    outputMeanA: amps * (1 - lampShare),
    headroomV: null,
    regulatorW: 0,
    ahead: null,
    small: lampA > 0 ? [{ label: 'indicator', watts: watts * lampShare, bearsW: null }] : [],
    loadW: watts * (1 - lampShare),
    heat: null,
  };
  return { point, outputV: [...rail.railV] };
}

function aheadOf(
  ahead: AheadModel,
  rail: RailWave,
  outputV: number,
  amps: number,
  watts: number,
  ambientC: number,
): AheadPoint {
  const holdsV = ahead.holdsV(outputV);
  const headroomV = rail.minV - holdsV - aheadDropout(ahead, amps);
  const acrossV = rail.maxV - behindAhead(ahead, rail.maxV, outputV, amps);
  return { watts, holdsV, headroomV, acrossV, amps, junctionC: ambientC };
}

/** The regulator of an output as a build has it: what it gives and needs drawn from its spread. */
export function modelUnder(output: Output, adjust: LoadAdjust): RegulatorModel | null {
  const model = outputModel(output);
  return model && adjust.outputFactor !== undefined
    ? { ...model, outputV: model.outputV * adjust.outputFactor, spread: 0 }
    : model;
}
