import { CONDITIONS, networkOf, type Adjust, type ConditionId } from '@/core/circuit/condition';
import type { Network } from '@/core/circuit/network';
import type { Design } from '@/core/design/design';
import { FIXED_OUTPUT_TOLERANCE, regulatorSize, rippleRejectionDb } from '@/core/parts/regulator';
import { regulatorOutput } from '@/core/solve/load-law';
import type { Solution } from '@/core/solve/solution';
import { SolveError } from '@/core/solve/integrator';
import { solveStart } from '@/core/solve/start';
import { solveSteady } from '@/core/solve/steady';
import { regulatorHeat, type RegulatorHeat } from './heat';

/** Watts leaving at each station, W. */
export interface Watts {
  winding: number;
  rectifier: number;
  reservoir: number;
  regulator: number;
  load: number;
}

/** A design solved under one condition, with what the network alone does not know. */
export interface OperatingPoint {
  condition: ConditionId;
  network: Network;
  solution: Solution;
  /** Mean output volts and its extremes, V: the regulator's, or the reservoir's where there is none. */
  outputMeanV: number;
  outputMinV: number;
  outputMaxV: number;
  /** Output ripple: what rejection leaves of the reservoir's, plus what dropout lets through, V peak to peak. */
  outputRippleVpp: number;
  outputMeanA: number;
  /** Highest voltage at the winding's terminals while the diodes conduct, V. */
  terminalPeakV: number;
  watts: Watts;
  heat: RegulatorHeat | null;
  /** Samples over one cycle: reservoir and output volts, rectifier amperes. */
  wave: { t: number[]; reservoirV: number[]; outputV: number[]; rectifierA: number[] };
}

export const WAVE_SAMPLES = 96;

/** Solves one condition. @throws SolveError naming the condition when it does not converge */
export function operatingPoint(design: Design, id: ConditionId, warmV?: number, adjust?: Adjust): OperatingPoint {
  const condition = CONDITIONS[id];
  const network = networkOf(design, condition, adjust);
  let solution: Solution;
  try {
    solution = solveSteady(network, { samples: WAVE_SAMPLES, ...(warmV === undefined ? {} : { warmV }) });
  } catch (error) {
    if (error instanceof SolveError) throw new SolveError(`At ${condition.words}: ${error.message}.`);
    throw error;
  }
  const { rail } = solution;
  const waves = solution.waveforms!;
  const reservoirV = waves.railV;
  const windingOhm = network.source.resistanceOhm + network.source.sharedResistanceOhm;
  const conductingA = 0.02 * Math.max(...waves.rectifierA);
  const terminalPeakV = waves.sourceV.reduce((best, e, n) => {
    const i = waves.rectifierA[n]!;
    return i > conductingA
      ? Math.max(best, (design.rectifier.kind === 'half-wave' ? e : Math.abs(e)) - windingOhm * i)
      : best;
  }, rail.maxV);
  const windingW = solution.windings.reduce((sum, w) => sum + w.copperLossW, 0) + (solution.source.sharedLossW ?? 0);
  const rectifierW = solution.diodes.reduce((sum, d) => sum + d.meanW, 0);
  const reservoirW = solution.energyBalance.filterW;
  const regulatorLoad = network.rail.load.find((l) => l.kind === 'regulator');

  if (!regulatorLoad) {
    return {
      condition: id,
      network,
      solution,
      outputMeanV: rail.meanV,
      outputMinV: rail.minV,
      outputMaxV: rail.maxV,
      outputRippleVpp: rail.ripplePeakToPeakV,
      outputMeanA: rail.loadMeanA,
      terminalPeakV,
      watts: { winding: windingW, rectifier: rectifierW, reservoir: reservoirW, regulator: 0, load: rail.loadPowerW },
      heat: null,
      wave: { t: waves.t, reservoirV, outputV: reservoirV, rectifierA: waves.rectifierA },
    };
  }
  const outputV = reservoirV.map((v) => regulatorOutput(regulatorLoad, v));
  const outputA = outputV.map((v) => (regulatorLoad.currentA * v) / regulatorLoad.outputV);
  const loadW = mean(outputV.map((v, n) => v * outputA[n]!));
  const regulatorW = Math.max(0, rail.loadPowerW - loadW - leakPower(network, rail.meanV, rail.rippleRmsV));
  const dip = rail.outputMaxV! - rail.outputMinV!;
  return {
    condition: id,
    network,
    solution,
    outputMeanV: mean(outputV),
    outputMinV: rail.outputMinV!,
    outputMaxV: rail.outputMaxV!,
    outputRippleVpp: dip + rail.ripplePeakToPeakV * 10 ** (-rippleRejectionDb(regulatorLoad.outputV) / 20),
    outputMeanA: mean(outputA),
    terminalPeakV,
    watts: { winding: windingW, rectifier: rectifierW, reservoir: reservoirW, regulator: regulatorW, load: loadW },
    heat: regulatorHeat(design, regulatorW),
    wave: { t: waves.t, reservoirV, outputV, rectifierA: waves.rectifierA },
  };
}

/** First charge of the empty reservoir: peak and I2t of the hardest-hit diode, over the first cycle from a voltage peak. */
export function firstSurge(design: Design): { peakA: number; i2t: number; network: Network } {
  const condition = CONDITIONS.surge;
  const network = networkOf(design, condition);
  try {
    const { start } = solveStart(network, 1, 90);
    return { peakA: start!.peakDiodeA, i2t: start!.i2tDiode, network };
  } catch (error) {
    if (error instanceof SolveError) throw new SolveError(`At ${condition.words}: ${error.message}.`);
    throw error;
  }
}

/** All that the terrace and the verdicts of one design rest on. Each member is solved when it is first asked for. */
export interface Study {
  readonly design: Design;
  readonly low: OperatingPoint;
  readonly nominal: OperatingPoint;
  readonly high: OperatingPoint;
  readonly idle: OperatingPoint;
  readonly surge: { peakA: number; i2t: number; network: Network };
}

/** Warm starts from an earlier study of a similar design. */
export type WarmStart = Partial<Record<'low' | 'nominal' | 'high' | 'idle', number>>;

/**
 * Opens a study. Asking for a member throws SolveError, naming the condition, when that one does not converge.
 */
export function studyDesign(design: Design, warm: WarmStart = {}): Study {
  const points: Partial<Record<'low' | 'nominal' | 'high' | 'idle', OperatingPoint>> = {};
  let surge: Study['surge'] | undefined;
  const at = (id: keyof WarmStart) => (points[id] ??= operatingPoint(design, id, warm[id]));
  return {
    design,
    get low() {
      return at('low');
    },
    get nominal() {
      return at('nominal');
    },
    get high() {
      return at('high');
    },
    get idle() {
      return at('idle');
    },
    get surge() {
      return (surge ??= firstSurge(design));
    },
  };
}

export function warmStartFrom(study: Study): WarmStart {
  return {
    low: study.low.solution.initialV,
    nominal: study.nominal.solution.initialV,
    high: study.high.solution.initialV,
    idle: study.idle.solution.initialV,
  };
}

/** The reservoir voltage the regulator needs at its input to hold its output, V; null without a regulator. */
export function neededV(design: Design): number | null {
  if (design.regulator.kind === 'none') return null;
  return design.regulator.outputV + regulatorSize(design.regulator.size).dropoutV;
}

/** Everything the load may see between low line loaded and high line idle, V: from spread for a regulator, from the mains otherwise. */
export function outputSpan(study: Study): { minV: number; maxV: number } {
  const { regulator } = study.design;
  if (regulator.kind === 'fixed') {
    return {
      minV: study.low.outputMinV * (1 - FIXED_OUTPUT_TOLERANCE),
      maxV: regulator.outputV * (1 + FIXED_OUTPUT_TOLERANCE),
    };
  }
  return { minV: study.low.outputMinV, maxV: study.idle.outputMaxV };
}

function leakPower(network: Network, meanV: number, rippleRmsV: number): number {
  return network.rail.load.reduce(
    (sum, l) => sum + (l.kind === 'resistance' ? (meanV * meanV + rippleRmsV * rippleRmsV) / l.resistanceOhm : 0),
    0,
  );
}

function mean(values: number[]): number {
  return values.reduce((sum, v) => sum + v, 0) / values.length;
}
