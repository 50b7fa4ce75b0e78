import { butFor, conditionOf, type ConditionId } from '@/core/circuit/condition';
import { networkOf, type Adjust } from '@/core/circuit/network-of';
import { applyPatch, type Design, type Patch } from '@/core/design/design';
import { Neighbours } from '@/core/solve/neighbours';
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

/** A variation as a point: the circumstances and words that tell its kind, and every number in it by its name. */
function pointOf({ condition, patch, adjust, unloaded }: Variation): { kind: string; numbers: Map<string, number> } {
  const numbers = new Map<string, number>();
  const words: string[] = [condition, String(unloaded ?? false)];
  const walk = (value: unknown, name: string): void => {
    if (typeof value === 'number') numbers.set(name, value);
    else if (value === null || typeof value !== 'object') words.push(`${name}=${String(value)}`);
    else for (const [key, inner] of Object.entries(value)) walk(inner, `${name}.${key}`);
  };
  walk(patch, 'patch');
  walk(adjust, 'adjust');
  return { kind: [...words, ...numbers.keys()].join(' '), numbers };
}

/** Every variation's kind, and its numbers that differ within its kind, each over its range. */
function scaledPoints(variations: readonly Variation[]): { kind: string; at: number[] }[] {
  const points = variations.map(pointOf);
  const ranges = new Map<string, Map<string, { low: number; high: number }>>();
  for (const { kind, numbers } of points) {
    const known = ranges.get(kind) ?? new Map<string, { low: number; high: number }>();
    ranges.set(kind, known);
    for (const [name, value] of numbers) {
      const range = known.get(name);
      if (!range) known.set(name, { low: value, high: value });
      else {
        range.low = Math.min(range.low, value);
        range.high = Math.max(range.high, value);
      }
    }
  }
  return points.map(({ kind, numbers }) => ({
    kind,
    at: [...ranges.get(kind)!]
      .filter(([, { low, high }]) => high > low)
      .map(([name, { low, high }]) => (numbers.get(name)! - low) / (high - low)),
  }));
}

/** Solves a list of variations of one design in one go. */
export const solveVariations = (design: Design, variations: readonly Variation[]): VariationResult[] => [
  ...solvingVariations(design, variations),
];

/**
 * Solves a list of variations of one design, one a step, each starting from what those next to it, solved before, foretell.
 * Never throws for a variation that has no solution: that one says why.
 */
export function* solvingVariations(design: Design, variations: readonly Variation[]): Generator<VariationResult, void> {
  const solved = new Map<string, Neighbours>();
  const regulated = design.regulator.kind !== 'none';
  const points = scaledPoints(variations);
  const solve = ({ condition, patch, adjust, unloaded }: Variation, n: number): VariationResult => {
    const changed = patch ? applyPatch(design, patch) : design;
    const network = networkOf(
      changed,
      unloaded ? butFor(conditionOf(changed, condition), { load: 'none' }) : conditionOf(changed, condition),
      adjust,
    );
    const { kind, at } = points[n]!;
    let neighbours = solved.get(kind);
    if (!neighbours) solved.set(kind, (neighbours = new Neighbours(at.length)));
    try {
      const solution = solveSteady(network, neighbours.beginAt(at) ?? {});
      neighbours.remember(at, solution.state);
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
  };
  for (const [n, variation] of variations.entries()) yield solve(variation, n);
}
