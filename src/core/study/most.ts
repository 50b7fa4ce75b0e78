import { CONDITIONS } from '@/core/circuit/condition';
import { applyPatch, type Design, type OutputId, type Patch } from '@/core/design/design';
import { outputModel, outputsOf, windowOf, type Output } from '@/core/design/outputs';
import { SolveError } from '@/core/solve/solve-error';
import { operatingPoint } from './operating-point';

/** The most one output gives at the lowest input, and what ends it there. */
export interface Most {
  id: OutputId;
  name: string;
  /** A; null where not even a hundredth of its load is held. */
  amps: number | null;
  /** Drops out, its own limit comes first, leaves its window, or holds up to the most that was tried. */
  because: 'drops out' | 'limits itself' | 'leaves its window' | 'holds';
}

/** Times the designed load that is looked at, the least first. */
const FROM = 0.01;

const UP_TO = 6;

const ROUNDS = 9;

/**
 * The current at which each output lets go at the lowest input with an aged reservoir, every other output at its full
 * load. Heat is not asked: that is what verdicts are for.
 * @throws SolveError never: what has no solution is what lets go
 */
export function mostOf(design: Design): Most[] {
  return outputsOf(design).map((output) => mostOfOne(design, output));
}

/** The same of one output alone. */
export function mostOfOne(design: Design, output: Output): Most {
  const { id, name, demand } = output;
  const model = outputModel(output);
  const top = model ? Math.min(model.limitA, UP_TO * demand.outputA) : UP_TO * demand.outputA;
  const holds = (amps: number): boolean => {
    try {
      const point = operatingPoint(applyPatch(design, drawing(design, output, amps)), CONDITIONS.low);
      const at = output.place < 0 ? point.rails[output.rail]! : point.outputs[output.place]!;
      return at.headroomV === null ? at.outputMinV >= windowOf(demand).lowV : at.headroomV >= 0;
    } catch (error) {
      if (error instanceof SolveError) return false;
      throw error;
    }
  };
  if (!holds(FROM * demand.outputA))
    return { id, name, amps: null, because: model ? 'drops out' : 'leaves its window' };
  if (holds(top)) return { id, name, amps: top, because: model && top === model.limitA ? 'limits itself' : 'holds' };
  let low = FROM * demand.outputA;
  let high = top;
  for (let n = 0; n < ROUNDS; n++) {
    const middle = Math.sqrt(low * high);
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return { id, name, amps: low, because: model ? 'drops out' : 'leaves its window' };
}

/** One output drawing a current, the others as they are. */
function drawing(design: Design, { id, place }: Output, amps: number): Patch {
  const { demand, outputs } = design;
  if (place >= 0)
    return {
      outputs: outputs.map((o, n) =>
        n === place ? { ...o, demand: { ...o.demand, outputA: amps, typicalA: null, leastA: 0 } } : o,
      ),
    };
  if (id === 'minus') return { demand: { negativeA: amps } };
  // The twin of the main output keeps what it draws.
  return { demand: { outputA: amps, typicalA: null, leastA: 0, negativeA: demand.negativeA ?? demand.outputA } };
}
