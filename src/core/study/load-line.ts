import type { Design, Patch } from '@/core/design/design';
import type { Variation } from './variation';

/** Loads from nothing to full, as shares: closer together near none, where a load line bends most. */
export const LOAD_LINE_SHARES = [0, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.25];

/**
 * A measured load line's computed counterpart: volts against load in the three mains bands. Every output's load is scaled
 * alike, and none is left where there is none.
 */
export function loadLineVariations(design: Design): (Variation & { outputA: number })[] {
  const { demand, outputs } = design;
  return (['low', 'nominal', 'high'] as const).flatMap((condition) =>
    LOAD_LINE_SHARES.map((share): Variation & { outputA: number } =>
      share === 0
        ? { condition, unloaded: true, outputA: 0 }
        : { condition, patch: scaledLoads({ demand, outputs }, share), outputA: share * demand.outputA },
    ),
  );
}

/** All loads of a design times a share, as a patch. @param share above 0 */
export function scaledLoads({ demand, outputs }: Pick<Design, 'demand' | 'outputs'>, share: number): Patch {
  const { outputA, negativeA } = demand;
  return {
    demand: {
      outputA: share * outputA,
      typicalA: null,
      leastA: 0,
      negativeA: negativeA === null ? null : share * negativeA,
    },
    outputs: outputs.map((o) => ({
      ...o,
      demand: { ...o.demand, outputA: share * o.demand.outputA, typicalA: null, leastA: 0 },
    })),
  };
}
