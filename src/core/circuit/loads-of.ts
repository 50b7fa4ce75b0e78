import type { Design, OutputId } from '@/core/design/design';
import { outputModel, outputsOf, type Output } from '@/core/design/outputs';
import { indicatorOhm } from './indicator';
import { railSums, startSurge } from '@/core/load/sums';
import { typicalLeakage } from '@/core/parts/capacitor';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { dropoutAt, type RegulatorModel } from '@/core/parts/regulators/model';
import { bankOhmFactor } from '@/core/design/bank';
import { mapped } from '@/core/quantity/lists';
import type { Condition, LoadLevel } from './condition';
import type { Load } from './network';

/** What may be set aside from a regulator's own values. */
export interface LoadAdjust {
  dropoutFactor?: number;
  /** What a build's regulator gives, against what it is set for. */
  outputFactor?: number;
  /** Junction the main regulator's dropout is taken at, °C. */
  junctionC?: number;
  /** What flows into a short, A, where that hangs on the volts across it. */
  shortA?: number;
}

/** Current asked of one output, A. */
export function outputAmps(design: Design, output: Output, level: LoadLevel): number {
  const { outputA, typicalA, leastA } = output.demand;
  switch (level) {
    case 'none':
      return 0;
    case 'least':
      return leastA;
    case 'standing':
      return Math.max(leastA, railSums(design.load, output.id).standingA);
    case 'lasting':
      return Math.max(leastA, Math.min(typicalA ?? outputA, outputA));
    case 'full':
      return outputA;
  }
}

/** Current one output draws under a condition, A: nothing where another draws alone. */
export function ampsUnder(design: Design, output: Output, condition: Pick<Condition, 'load' | 'alone' | 'of'>): number {
  return condition.alone && condition.of !== output.id ? 0 : outputAmps(design, output, condition.load);
}

/** Whether an output is the one a condition holds low or shorts: a twin is turned down together with the main one. */
export function heldUnder({ output, of = 'main' }: Pick<Condition, 'output' | 'of'>, id: OutputId): boolean {
  return output !== undefined && (of === id || (output === 'lowest' && of === 'main' && id === 'minus'));
}

/** Volts a follower's drive stands above ground while its output is shorted, V. */
const SHORTED_DRIVE_V = 1.4;

/**
 * What hangs on one rail (1: the minus one): the loads of its outputs, the main one first; what their regulators, the
 * indicator and a fan draw besides; and what the cans leak.
 */
export function loadsOf(design: Design, condition: Condition, rail = 0, adjust: LoadAdjust = {}): Load[] {
  const outputs = outputsOf(design).filter((o) => o.rail === rail);
  return [
    ...outputs.flatMap((o) => loadsOfOutput(design, o, condition, adjust)),
    ...railLoads(design, condition, rail),
  ];
}

/** The loads one output puts on its rail, the regulator or the load itself first. */
export function loadsOfOutput(design: Design, output: Output, condition: Condition, adjust: LoadAdjust = {}): Load[] {
  const model = outputModel(output);
  const ahead = output.place < 0 && model ? aheadModel(design.preRegulator) : null;
  const lamp = lampAmps(design, output);
  const amps = ampsUnder(design, output, condition) + lamp;
  const held = heldUnder(condition, output.id) ? condition.output! : null;
  if (!model) return directLoads(design, output, amps);
  const drains = mapped(
    [...model.drains(held === 'lowest' ? model.lowestV : model.outputV), ...(ahead?.drain ? [ahead.drain] : [])],
    ({ fromV, ohm }): Load => ({
      kind: 'drain',
      fromV: held === 'shorted' ? Math.min(fromV, SHORTED_DRIVE_V) : fromV,
      ohm,
    }),
  );
  const quiescentA = model.quiescentA + (ahead?.quiescentA ?? 0);
  if (held) {
    // Whatever it holds the output at, what it draws from the rail is its current.
    const drawn = held === 'shorted' ? (adjust.shortA ?? model.shortA(0)) : Math.min(amps, model.limitA);
    return [{ kind: 'current', currentA: model.passShare * drawn + quiescentA }, ...drains];
  }
  const factor = adjust.dropoutFactor ?? 1;
  const junctionC = output.place < 0 ? adjust.junctionC : undefined;
  return [
    {
      kind: 'regulator',
      outputV: setVolts(model, amps, adjust.outputFactor),
      dropoutV: factor * dropoutAt(model, 0, junctionC) + (ahead?.dropoutV ?? 0),
      dropoutOhm: factor * model.dropoutOhm + (ahead?.dropoutOhm ?? 0),
      currentA: amps,
      quiescentA,
      ...(model.passShare === 1 ? {} : { passShare: model.passShare }),
    },
    ...drains,
  ];
}

/** What a regulator holds its output at with a current drawn, V. */
export function setVolts(model: RegulatorModel, amps: number, factor = 1): number {
  return Math.max(0.05, factor * model.outputV - model.outputOhm * amps);
}

function directLoads(design: Design, { id, demand }: Output, amps: number): Load[] {
  if (amps === 0) return [];
  if (demand.kind === 'resistance') return [{ kind: 'resistance', resistanceOhm: demand.outputV / amps }];
  if (demand.kind === 'power') return [{ kind: 'power', powerW: demand.outputV * amps, minV: 0.5 * demand.outputV }];
  const surge = startSurge(design.load, id);
  return [{ kind: 'current', currentA: amps, ...(surge ? { surge } : {}) }];
}

/** What the indicator draws of an output, A. */
export function lampAmps({ indicator }: Design, { id }: Output): number {
  return indicator?.at === 'output' && id === 'main' ? indicator.currentA : 0;
}

/** What hangs on a rail whatever its outputs are: the cans' leakage, and what is fed from it besides. */
function railLoads(design: Design, condition: Condition, rail: number): Load[] {
  const { reservoir } = design;
  const { capacitanceF, ratedV } = reservoir;
  const leakOhm = capacitanceF > 0 ? (bankOhmFactor(reservoir) * ratedV) / typicalLeakage(capacitanceF, ratedV) : 1e6;
  return [
    { kind: 'resistance', resistanceOhm: leakOhm },
    ...mapped(railExtras(design, condition, rail), ({ load }) => load),
  ];
}

/** What a rail feeds besides its outputs: the indicator, a fan. */
export function railExtras(
  design: Design,
  condition: Condition,
  rail: number,
): { label: string; load: Extract<Load, { kind: 'drain' | 'current' }> }[] {
  const { indicator, heat } = design;
  if (rail !== 0) return [];
  const running = heat.fan === 'fixed' || (heat.fan === 'switched' && condition.copper === 'hot');
  return [
    ...(indicator?.at === 'rail'
      ? [
          {
            label: 'indicator',
            load: { kind: 'drain' as const, fromV: indicator.forwardV, ohm: indicatorOhm(design)! },
          },
        ]
      : []),
    ...(heat.fanA !== null && running
      ? [{ label: 'fan', load: { kind: 'current' as const, currentA: heat.fanA } }]
      : []),
  ];
}
