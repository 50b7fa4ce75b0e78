import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** Numbers by chance that are the same for the same seed. */
export interface Dice {
  /** Between 0 and 1. */
  uniform(): number;
  /** Standard normal. */
  normal(): number;
}

export function dice(seed: number): Dice {
  // Seeds a person counts up by one begin nearly alike in this generator: they are spread over its range first.
  const random = xoroshiro128plus(Math.imul(seed + 1, 0x9e3779b1) | 0);
  const uniform = () => uniformFloat64(random);
  return {
    uniform,
    normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()),
  };
}
