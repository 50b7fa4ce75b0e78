import { conditionsOf, type Condition } from '@/core/circuit/condition';
import type { Design } from '@/core/design/design';
import { TOUCH_LIMIT_C } from '@/core/parts/heatsink';

/** The circumstances heat is looked at in: all that last, the ends of the input with everything drawn, and every short. */
export function heatCorners(design: Design): Condition[] {
  return conditionsOf(design).filter((c) => c.load === 'full' || c.load === 'lasting');
}

/** What a finger says of a surface. */
export function touchWords(tempC: number): string {
  return tempC > TOUCH_LIMIT_C
    ? 'burns a finger'
    : tempC > 48
      ? 'hot, cannot be held for long'
      : tempC > 40
        ? 'lukewarm'
        : 'cool';
}
