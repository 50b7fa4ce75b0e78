import { currentOf, regulatorOutput } from '@/core/circuit/load-law';
import type { Load } from '@/core/circuit/network';
import { aheadDropout, type AheadModel } from '@/core/parts/regulators/ahead';
import type { RegulatorModel } from '@/core/parts/regulators/model';
import { mapped } from '@/core/quantity/lists';

export type RegulatorLoad = Extract<Load, { kind: 'regulator' }>;

/** What makes an output of its rail. */
export interface OutputMaker {
  model: RegulatorModel;
  /** The regulator where it is at work; null while its output is held, at `heldV` and `heldA`. */
  regulator: RegulatorLoad | null;
  heldV: number;
  heldA: number;
  /** What hangs on its input besides. */
  drains: readonly Load[];
  ahead: AheadModel | null;
}

/** What a regulated output comes to over one cycle: means of volts, amperes and watts, and its own samples. */
export interface OutputCycle {
  outputV: number[];
  meanV: number;
  lowV: number;
  highV: number;
  meanA: number;
  givenW: number;
  /** All that is burnt between rail and output, small parts included. */
  burntW: number;
  /** Of that what the pre-regulator takes. */
  aheadW: number;
  /** Of that what each of the model's burners takes, in their order. */
  smallW: number[];
}

/** Goes through one cycle of a rail. @param railV samples, V */
export function outputCycle(railV: readonly number[], maker: OutputMaker): OutputCycle {
  const { model, regulator, heldV, heldA, drains, ahead } = maker;
  const n = railV.length;
  const quiescentA = model.quiescentA + (ahead?.quiescentA ?? 0);
  const cycle: OutputCycle = {
    // Written over: a list made empty would become one of numbers with its first, in each of thousands.
    outputV: railV.slice(),
    meanV: 0,
    lowV: Infinity,
    highV: -Infinity,
    meanA: 0,
    givenW: 0,
    burntW: 0,
    aheadW: 0,
    smallW: mapped(model.burners, () => 0),
  };
  // Some hundred times a point, and a point some thousand times a study: nothing is made anew in here.
  for (let k = 0; k < n; k++) {
    const v = railV[k]!;
    const out = regulator ? regulatorOutput(regulator, v) : heldV;
    const amps = regulator ? (regulator.currentA * out) / regulator.outputV : heldA;
    let drainA = 0;
    for (let d = 0; d < drains.length; d++) drainA += currentOf(drains[d]!, v);
    cycle.outputV[k] = out;
    cycle.meanV += out / n;
    cycle.meanA += amps / n;
    cycle.givenW += (out * amps) / n;
    cycle.burntW += (v * (model.passShare * amps + quiescentA + drainA) - out * amps) / n;
    if (ahead) cycle.aheadW += aheadWatts(ahead, v, out, amps) / n;
    if (cycle.smallW.length > 0) addSmall(cycle.smallW, maker, v, out, amps, n);
    if (out < cycle.lowV) cycle.lowV = out;
    if (out > cycle.highV) cycle.highV = out;
  }
  return cycle;
}

/** Volts behind a pre-regulator: what it holds, or its input less its drop. */
export function behindAhead(ahead: AheadModel, v: number, outputV: number, amps: number): number {
  return Math.min(ahead.holdsV(outputV), Math.max(0, v - aheadDropout(ahead, amps)));
}

function aheadWatts(ahead: AheadModel, v: number, outputV: number, amps: number): number {
  const branch = ahead.drain ? (Math.max(0, v - ahead.drain.fromV) / ahead.drain.ohm) * v : 0;
  return (v - behindAhead(ahead, v, outputV, amps)) * amps + ahead.quiescentA * v + branch;
}

function addSmall(
  smallW: number[],
  { model, ahead }: OutputMaker,
  v: number,
  outputV: number,
  amps: number,
  n: number,
): void {
  const inputV = ahead ? behindAhead(ahead, v, outputV, amps) : v;
  for (let m = 0; m < smallW.length; m++) smallW[m]! += model.burners[m]!.watts({ inputV, outputV, amps }) / n;
}
