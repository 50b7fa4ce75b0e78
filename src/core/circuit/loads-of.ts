import { startSurge } from '@/core/load/sums';
import { typicalLeakage } from '@/core/parts/capacitor';
import { regulatorModel } from '@/core/parts/regulators';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { dropoutAt } from '@/core/parts/regulators/model';
import type { Design, FurtherOutput } from '@/core/design/design';
import { bankOhmFactor } from '@/core/design/bank';
import type { Load } from './network';
import type { Condition, LoadLevel } from './condition';

/** Current asked of one rail, A. The usual load of the negative rail is taken as the same share of its full load. */
export function railAmps({ demand }: Design, level: LoadLevel, rail: number): number {
  if (level === 'none') return 0;
  const full = rail === 1 && demand.negativeA !== null ? demand.negativeA : demand.outputA;
  if (level === 'full' || demand.typicalA === null) return full;
  return (full * Math.min(demand.typicalA, demand.outputA)) / demand.outputA;
}

/**
 * What hangs on one rail (1: the negative one), the main load or regulator first, further regulators last. Without load
 * a regulator still draws its quiescent current, and the can leaks.
 */
export function loadsOf(
  design: Design,
  level: LoadLevel,
  rail = 0,
  how: Pick<Condition, 'output' | 'further'> & { junctionC?: number; dropoutFactor?: number } = {},
): Load[] {
  const { output, further, ...rest } = how;
  const main = mainLoads(design, level, rail, { ...rest, output: further === undefined ? output : undefined });
  if (rail !== 0) return main;
  return [
    ...main,
    ...design.outputs.map((o, n): Load => {
      const held = n === further && output ? heldAmps(o, output) : null;
      if (held === null) return outputLoad(o, level);
      // Whatever it is held at, what it draws from the rail is its current.
      return { kind: 'current', currentA: held + regulatorModel(o.regulator).quiescentA };
    }),
  ];
}

/** Current of a further output that is shorted, or at the bottom of its range, A. */
export function heldAmps({ regulator, currentA }: FurtherOutput, output: 'lowest' | 'shorted'): number {
  const { shortA, limitA } = regulatorModel(regulator);
  return output === 'shorted' ? shortA : Math.min(currentA, limitA);
}

/** A further regulator as a load of its rail, its dropout at a cold junction. */
export function outputLoad(output: FurtherOutput, level: LoadLevel): Extract<Load, { kind: 'regulator' }> {
  const model = regulatorModel(output.regulator);
  return {
    kind: 'regulator',
    outputV: model.outputV,
    dropoutV: dropoutAt(model, 0),
    dropoutOhm: model.dropoutOhm,
    currentA: level === 'none' ? 0 : output.currentA,
    quiescentA: model.quiescentA,
  };
}

function mainLoads(
  design: Design,
  level: LoadLevel,
  rail = 0,
  {
    output,
    junctionC = 25,
    dropoutFactor = 1,
  }: { output?: Condition['output']; junctionC?: number; dropoutFactor?: number } = {},
): Load[] {
  const { demand, regulator, reservoir } = design;
  const outputA = railAmps(design, level, rail);
  const leak: Load[] =
    reservoir.capacitanceF > 0
      ? [
          {
            kind: 'resistance',
            resistanceOhm:
              (bankOhmFactor(reservoir) * reservoir.ratedV) / typicalLeakage(reservoir.capacitanceF, reservoir.ratedV),
          },
        ]
      : [{ kind: 'resistance', resistanceOhm: 1e6 }];
  const model = regulatorModel(regulator);
  const ahead = model ? aheadModel(design.preRegulator) : null;
  if (model && output) {
    // Whatever it holds the output at, what it draws from the rail is its current.
    const amps = output === 'shorted' ? model.shortA : Math.min(outputA, model.limitA);
    return [{ kind: 'current', currentA: amps + model.quiescentA + (ahead?.quiescentA ?? 0) }, ...leak];
  }
  if (model) {
    return [
      {
        kind: 'regulator',
        outputV: model.outputV,
        dropoutV: dropoutFactor * dropoutAt(model, 0, junctionC) + (ahead?.dropoutV ?? 0),
        dropoutOhm: dropoutFactor * model.dropoutOhm + (ahead?.dropoutOhm ?? 0),
        currentA: outputA,
        quiescentA: model.quiescentA + (ahead?.quiescentA ?? 0),
      },
      ...leak,
    ];
  }
  if (outputA === 0) return leak;
  const surge = startSurge(design.load, rail === 1 ? 'minus' : 'plus');
  return [
    demand.kind === 'resistance'
      ? { kind: 'resistance', resistanceOhm: demand.outputV / outputA }
      : demand.kind === 'power'
        ? { kind: 'power', powerW: demand.outputV * outputA, minV: 0.5 * demand.outputV }
        : { kind: 'current', currentA: outputA, ...(surge ? { surge } : {}) },
    ...leak,
  ];
}
