import { applyPatch, type Design } from '@/core/design/design';
import { aheadModel } from '@/core/parts/regulators/ahead';
import { SolveError } from '@/core/solve/solve-error';
import { operatingPoint } from './operating-point';

/** Rounds of halving: the load is found to about one part in five hundred. */
const ROUNDS = 10;

/**
 * The load current at which the first of two in cascade begins to let go in the valleys, low line, A. Null without a
 * pre-regulator, or where it still holds at five times the load; 0 where it never does.
 */
export function letsGoAt(design: Design): number | null {
  if (!aheadModel(design.preRegulator)) return null;
  const { outputA, negativeA } = design.demand;
  const holds = (amps: number): boolean => {
    const share = amps / outputA;
    try {
      const loaded = applyPatch(design, {
        demand: { outputA: amps, typicalA: null, ...(negativeA === null ? {} : { negativeA: share * negativeA }) },
      });
      return operatingPoint(loaded, 'low').ahead!.headroomV >= 0;
    } catch (error) {
      if (error instanceof SolveError) return false;
      throw error;
    }
  };
  let low = 0.01 * outputA;
  let high = 5 * outputA;
  if (!holds(low)) return 0;
  if (holds(high)) return null;
  for (let round = 0; round < ROUNDS; round++) {
    const middle = Math.sqrt(low * high);
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}
