import type { Inside, PlacedBlock } from './block';
import { PAIR_RULES, WALL_RULES, type BoxRuleId, type Standing, type Surroundings } from './rules';
import { solidOf } from './solid';

/** A distance in the box, as it is and as it should be. */
export interface Clearance {
  rule: BoxRuleId;
  name: string;
  why: string;
  /** Between what: one block and the box, or two blocks. */
  blocks: readonly string[];
  hasMm: number;
  wantsMm: number;
  holds: boolean;
}

/** Rounding of what is moved in whole millimetres. */
const SLACK_MM = 1e-6;

export const standing = ({ block, spot }: Pick<PlacedBlock, 'block' | 'spot'>, inside: Inside): Standing => ({
  block,
  spot,
  solid: solidOf(block, spot, inside),
});

/** What one block's place is worth against the box alone. */
export function wallClearances(one: Standing, inside: Inside): Clearance[] {
  return WALL_RULES.flatMap(({ id, name, why, wants, has }) => {
    const wantsMm = wants(one.block);
    return wantsMm === null ? [] : clearance(id, name, why, [one], has(one, inside), wantsMm);
  });
}

/** What two blocks have to keep from each other. */
export function pairClearances(a: Standing, b: Standing, around: Surroundings): Clearance[] {
  return PAIR_RULES.flatMap(({ id, name, why, wants, has }) => {
    const wantsMm = wants(a.block, b.block, around);
    return wantsMm === null ? [] : clearance(id, name, why, [a, b], has(a, b), wantsMm);
  });
}

function clearance(
  rule: BoxRuleId,
  name: string,
  why: string,
  of: readonly Standing[],
  hasMm: number,
  wantsMm: number,
): Clearance[] {
  if (hasMm === Infinity) return [];
  return [{ rule, name, why, blocks: of.map((s) => s.block.id), hasMm, wantsMm, holds: hasMm >= wantsMm - SLACK_MM }];
}

/** Every distance that is asked for in a box, what does not hold first, then by what is left. */
export function clearances(placed: readonly PlacedBlock[], inside: Inside, around: Surroundings): Clearance[] {
  const all = placed.map((p) => standing(p, inside));
  const found = all.flatMap((one, n) => [
    ...wallClearances(one, inside),
    ...all.slice(n + 1).flatMap((other) => pairClearances(one, other, around)),
  ]);
  return found.sort((a, b) => a.hasMm - a.wantsMm - (b.hasMm - b.wantsMm));
}
