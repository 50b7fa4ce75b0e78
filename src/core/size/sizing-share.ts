import type { Design } from '@/core/design/design';
import type { Part } from '@/core/drawer/part';
import { lookAt } from './sizing';
import { planSizing, type SizingPlan } from './sizing-plan';
import { MOST_STUDIES, type CircuitFound } from './sizing-tally';
import type { SizingAsk } from './sized-set';

/** How many circuits a search may look at, and what is not among them. */
export type SizingPlanned = Pick<SizingPlan, 'leftOut'> & { circuits: number };

/** Circuits a thread goes through before it is asked: what the machine compiles for a search it has then mostly compiled. */
const REHEARSED = 250;

/**
 * Looks at some circuits of a search nobody has asked for yet, one a step, from all over what it would look at first, and
 * forgets them: a search in a thread that has never searched takes twice as long.
 */
export function* rehearsing(design: Design): Generator<void, void> {
  const plan = planSizing(design, [], { from: 'values', by: 'cost' });
  const count = Math.min(plan.circuits.length, MOST_STUDIES);
  const apart = Math.max(1, Math.ceil(count / REHEARSED));
  for (let n = 0; n < count; n += apart) {
    lookAt(plan, n, new Set());
    yield;
  }
}

/** What one thread does of a search for whole sets; it knows the last one it was told of. */
export class SizingShare {
  private known: { search: number; plan: SizingPlan } | null = null;

  /** Makes a search's plan, to be looked at piece by piece. */
  plan(search: number, design: Design, parts: readonly Part[], ask: SizingAsk): SizingPlanned {
    const plan = planSizing(design, parts, ask);
    this.known = { search, plan };
    return { circuits: plan.circuits.length, leftOut: plan.leftOut };
  }

  /** Some circuits of a search, with the sinks they need; null where it was not planned here. */
  look(search: number, ns: readonly number[], failedKin: readonly string[]): CircuitFound[] | null {
    if (this.known?.search !== search) return null;
    const { plan } = this.known;
    const failed = new Set(failedKin);
    return ns.map((n) => {
      const found = lookAt(plan, n, failed);
      if (found.failsAsKin) failed.add(found.kin);
      return found;
    });
  }
}
