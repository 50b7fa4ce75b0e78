import { windingCount } from '@/core/design/words';
import type { Design } from '@/core/design/design';
import type { Solution, WindingResult } from '@/core/solve/solution';
import { greatest } from '@/core/quantity/lists';

/** The windings that charge the reservoirs: a heater winding has wire, and a rating, of its own. */
export function feedingWindings(design: Design, solution: Solution): WindingResult[] {
  return solution.windings.slice(0, windingCount(design));
}

/** RMS current of the hardest worked of them, A. */
export function feedingRmsA(design: Design, solution: Solution): number {
  return greatest(feedingWindings(design, solution), (w) => w.rmsA);
}
