import { conditionOf, type ConditionId } from '@/core/circuit/condition';
import { networkOf, type Adjust } from '@/core/circuit/network-of';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { SolveError } from '@/core/solve/solve-error';
import { solveSteady } from '@/core/solve/steady';

/** One of many: a design changed a little, under one condition, with or without spreads. */
export interface Variation {
  condition: ConditionId;
  patch?: Patch;
  adjust?: Adjust;
  /** With every load unplugged. */
  unloaded?: boolean;
}

/** What is kept of a variation: numbers small enough to send by the thousand. Of a split supply the positive rail. */
export type VariationResult =
  | {
      ok: true;
      railMeanV: number;
      railMinV: number;
      railMaxV: number;
      outputMinV: number;
      outputMaxV: number;
      loadMeanA: number;
      reservoirRmsA: number;
    }
  | { ok: false; error: string };

/**
 * Solves a list of variations of one design, each starting from the cycle of the one before under the same condition.
 * Never throws for a variation that has no solution: that one says why.
 */
export function solveVariations(design: Design, variations: readonly Variation[]): VariationResult[] {
  const warm = new Map<ConditionId, readonly number[]>();
  const regulated = design.regulator.kind !== 'none';
  return variations.map(({ condition, patch, adjust, unloaded }): VariationResult => {
    const changed = patch ? applyPatch(design, patch) : design;
    const network = networkOf(
      changed,
      { ...conditionOf(changed, condition), ...(unloaded ? { load: 'none' } : {}) },
      adjust,
    );
    const start = warm.get(condition);
    try {
      const solution = solveSteady(network, start ? { warm: start } : {});
      warm.set(condition, solution.state);
      const rail = solution.rails[0]!;
      return {
        ok: true,
        railMeanV: rail.meanV,
        railMinV: rail.minV,
        railMaxV: rail.maxV,
        outputMinV: regulated ? rail.outputMinV! : rail.minV,
        outputMaxV: regulated ? rail.outputMaxV! : rail.maxV,
        loadMeanA: rail.loadMeanA,
        reservoirRmsA: solution.elements[0]!.find((e) => e.kind === 'capacitor')?.rmsA ?? 0,
      };
    } catch (error) {
      if (!(error instanceof SolveError)) throw error;
      return { ok: false, error: error.message };
    }
  });
}
