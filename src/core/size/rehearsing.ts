import type { Design } from '@/core/design/design';
import { lookAt } from './sizing';
import { planSizing } from './sizing-plan';
import { MOST_STUDIES } from './sizing-tally';

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
