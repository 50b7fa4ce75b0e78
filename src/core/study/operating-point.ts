import { ARRANGEMENTS } from '@/core/parts/arrangements';
import { CONDITIONS, networkOf, reservoirPlace, type Adjust, type ConditionId } from '@/core/circuit/condition';
import { regulatorOutput } from '@/core/circuit/load-law';
import type { Load, Network, Winding } from '@/core/circuit/network';
import type { Design } from '@/core/design/design';
import { FIXED_OUTPUT_TOLERANCE, regulatorSize, rippleRejectionDb } from '@/core/parts/regulator';
import type { RailResult, Solution } from '@/core/solve/solution';
import { SolveError } from '@/core/solve/solve-error';
import { solveSteady } from '@/core/solve/steady';
import { solveChange, solveDip, solveStart } from '@/core/solve/transient';
import { regulatorHeat, type RegulatorHeat } from './heat';

/** Watts leaving at each station, W. */
export interface Watts {
  winding: number;
  rectifier: number;
  reservoir: number;
  regulator: number;
  load: number;
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
  regulatorW: number;
  loadW: number;
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
}

export const WAVE_SAMPLES = 96;

function atCondition<T>(words: string, work: () => T): T {
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
  id: ConditionId,
  warm?: readonly number[],
  adjust?: Adjust,
): OperatingPoint {
  const condition = CONDITIONS[id];
  const network = networkOf(design, condition, adjust);
  const solution = atCondition(condition.words, () =>
    solveSteady(network, { samples: WAVE_SAMPLES, ...(warm === undefined ? {} : { warm }) }),
  );
  const { winding } = network.sections[0]!;
  const waves = solution.waveforms!;
  const rails = network.sections[0]!.rails.map((_, r) => railPoint(design, network, solution, r));
  const windingOhm = winding.resistanceOhm + network.mains.sharedResistanceOhm;
  const windingA = waves.windingA[0]!;
  const conductingA = 0.02 * Math.max(...windingA.map(Math.abs));
  // At the terminals the pulse has cost the winding's and the primary's copper; leakage inductance only delays it.
  let terminalPeakV = 0;
  waves.sourceV.forEach((e, n) => {
    const i = windingA[n]!;
    if (Math.abs(i) > conductingA) terminalPeakV = Math.max(terminalPeakV, Math.abs(e) - windingOhm * Math.abs(i));
  });
  const chargedV = Math.max(...rails.map((p) => p.rail.inputMaxV)) / (design.rectifier.kind === 'doubler' ? 2 : 1);
  terminalPeakV = Math.min(Math.max(terminalPeakV, chargedV), Math.SQRT2 * winding.voltageRms);
  const sum = (list: number[]) => list.reduce((a, b) => a + b, 0);
  return {
    ...rails[0]!,
    condition: id,
    network,
    winding,
    solution,
    terminalPeakV,
    watts: {
      winding: sum(solution.windings.map((w) => w.copperLossW)) + (solution.source.sharedLossW ?? 0),
      rectifier: sum(solution.diodes.map((d) => d.meanW)),
      reservoir: solution.energyBalance.filterW,
      regulator: sum(rails.map((p) => p.regulatorW)),
      load: sum(rails.map((p) => p.loadW)) + sum((solution.acLoads ?? []).map((l) => l.powerW)),
    },
    rails,
  };
}

function railPoint(design: Design, network: Network, solution: Solution, r: number): RailPoint {
  const rail = solution.rails[r]!;
  const waves = solution.waveforms!;
  const loads = network.sections[0]!.rails[r]!.load;
  const railV = waves.railV[r]!;
  const inputV = waves.inputV[r]!;
  const place = reservoirPlace(design);
  const doubler = design.rectifier.kind === 'doubler';
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
  const common = { rail, reservoir, can };
  const regulatorLoad = loads.find((l) => l.kind === 'regulator');
  if (!regulatorLoad) {
    return {
      ...common,
      outputMeanV: rail.meanV,
      outputMinV: rail.minV,
      outputMaxV: rail.maxV,
      outputRippleVpp: rail.ripplePeakToPeakV,
      outputMeanA: rail.loadMeanA,
      heat: null,
      regulatorW: 0,
      loadW: rail.loadPowerW,
      wave: { t: waves.t, inputV, reservoirV, railV, outputV: railV, rectifierA },
    };
  }
  const outputV = railV.map((v) => regulatorOutput(regulatorLoad, v));
  const outputA = outputV.map((v) => (regulatorLoad.currentA * v) / regulatorLoad.outputV);
  const loadW = mean(outputV.map((v, n) => v * outputA[n]!));
  const regulatorW = Math.max(0, rail.loadPowerW - loadW - leakPower(loads, rail.meanV, rail.rippleRmsV));
  const dip = rail.outputMaxV! - rail.outputMinV!;
  return {
    ...common,
    outputMeanV: mean(outputV),
    outputMinV: rail.outputMinV!,
    outputMaxV: rail.outputMaxV!,
    outputRippleVpp: dip + rail.ripplePeakToPeakV * 10 ** (-rippleRejectionDb(regulatorLoad.outputV) / 20),
    outputMeanA: mean(outputA),
    heat: regulatorHeat(design, regulatorW),
    regulatorW,
    loadW,
    wave: { t: waves.t, inputV, reservoirV, railV, outputV, rectifierA },
  };
}

/** Current out of the rectifier into one rail, A: of a doubler, the pulses into both capacitors. */
function intoRail(design: Design, diodeA: readonly number[][], rail: number): number[] {
  const { loops, stacked } = ARRANGEMENTS[design.rectifier.kind];
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

/** First charge of the empty reservoir: peak and I2t of the hardest-hit diode, over the first cycle from a voltage peak. */
export function firstSurge(design: Design): { peakA: number; i2t: number; network: Network } {
  const condition = CONDITIONS.surge;
  const network = networkOf(design, condition);
  const { start } = atCondition(condition.words, () => solveStart(network, 1, 90));
  return { peakA: start!.peakDiodeA, i2t: start!.i2tDiode, network };
}

/** How the supply rides through half a cycle of missing mains, full load, nominal line. */
export function missedHalfCycle(design: Design, warm?: readonly number[]): { minV: number; beforeMinV: number } {
  const network = networkOf(design, CONDITIONS.nominal);
  const { dip } = atCondition('half a cycle of missing mains', () =>
    solveDip(network, { missingCycles: 0.5, cycles: 1, atCycle: 0 }, warm ? { warm } : {}),
  );
  return { minV: dip!.minV, beforeMinV: dip!.beforeMinV };
}

/** Cycles in which a filter's swing has passed its crest: half a period of its slowest resonance, ten at most. */
function swingCycles(design: Design): number {
  const parts = [...design.filter.before, ...design.filter.after];
  const henry = parts.reduce((sum, s) => sum + (s.kind === 'choke' ? s.inductanceH : 0), 0);
  const farad =
    design.reservoir.capacitanceF + parts.reduce((sum, s) => sum + (s.kind === 'capacitor' ? s.capacitanceF : 0), 0);
  const half = Math.PI * Math.sqrt(henry * farad);
  return Math.min(10, Math.max(2, Math.ceil(1.2 * half * design.mains.frequencyHz)));
}

/** What the rail rises to in the first cycles after the load is taken away at high line. */
export function lostLoad(design: Design, warm?: readonly number[]): { beforeV: number; maxV: number } {
  const loaded = networkOf(design, CONDITIONS.high);
  const unloaded = networkOf(design, { ...CONDITIONS.high, load: 'none' });
  const { step } = atCondition('the load taken away at high line', () =>
    solveChange(loaded, unloaded, swingCycles(design), warm ? { warm } : {}),
  );
  return { beforeV: step!.beforeMeanV, maxV: step!.maxV };
}

/** All that the terrace and the verdicts of one design rest on. Each member is solved when it is first asked for. */
export interface Study {
  readonly design: Design;
  readonly low: OperatingPoint;
  readonly nominal: OperatingPoint;
  readonly high: OperatingPoint;
  readonly idle: OperatingPoint;
  readonly surge: { peakA: number; i2t: number; network: Network };
  readonly missed: ReturnType<typeof missedHalfCycle>;
  readonly lost: ReturnType<typeof lostLoad>;
}

/** Warm starts from an earlier study of a similar design. */
export type WarmStart = Partial<Record<'low' | 'nominal' | 'high' | 'idle', readonly number[]>>;

/**
 * Opens a study. Asking for a member throws SolveError, naming the condition, when that one does not converge.
 */
export function studyDesign(design: Design, warm: WarmStart = {}): Study {
  const points: Partial<Record<'low' | 'nominal' | 'high' | 'idle', OperatingPoint>> = {};
  let surge: Study['surge'] | undefined;
  let missed: Study['missed'] | undefined;
  let lost: Study['lost'] | undefined;
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
    get missed() {
      return (missed ??= missedHalfCycle(design, at('nominal').solution.state));
    },
    get lost() {
      return (lost ??= lostLoad(design, at('high').solution.state));
    },
  };
}

/** The same study seen from another rail of a split supply. */
export function studyOnRail(study: Study, rail: number): Study {
  return {
    design: study.design,
    get low() {
      return onRail(study.low, rail);
    },
    get nominal() {
      return onRail(study.nominal, rail);
    },
    get high() {
      return onRail(study.high, rail);
    },
    get idle() {
      return onRail(study.idle, rail);
    },
    get surge() {
      return study.surge;
    },
    get missed() {
      return study.missed;
    },
    get lost() {
      return study.lost;
    },
  };
}

/** The same study on another heatsink, interface or air: heat does not change what the circuit does. */
export function studyWithHeat(study: Study, heat: Design['heat']): Study {
  const design = { ...study.design, heat };
  const cooled = (point: OperatingPoint): OperatingPoint => {
    const again = <T extends { heat: RailPoint['heat']; regulatorW: number }>(p: T): T => ({
      ...p,
      heat: p.heat && regulatorHeat(design, p.regulatorW),
    });
    return { ...again(point), rails: point.rails.map(again) };
  };
  return {
    design,
    get low() {
      return cooled(study.low);
    },
    get nominal() {
      return cooled(study.nominal);
    },
    get high() {
      return cooled(study.high);
    },
    get idle() {
      return cooled(study.idle);
    },
    get surge() {
      return study.surge;
    },
    get missed() {
      return study.missed;
    },
    get lost() {
      return study.lost;
    },
  };
}

export function warmStartFrom(study: Study): WarmStart {
  return {
    low: study.low.solution.state,
    nominal: study.nominal.solution.state,
    high: study.high.solution.state,
    idle: study.idle.solution.state,
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

function leakPower(loads: readonly Load[], meanV: number, rippleRmsV: number): number {
  return loads.reduce(
    (sum, l) => sum + (l.kind === 'resistance' ? (meanV * meanV + rippleRmsV * rippleRmsV) / l.resistanceOhm : 0),
    0,
  );
}

function mean(values: number[]): number {
  return values.reduce((sum, v) => sum + v, 0) / values.length;
}
